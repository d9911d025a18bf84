//! The lines of form 428 that every province comes to in its own way, and when the forms beside it are filed.

use crate::plan::{Filed, FormRule};
use hembo_core::{forms::Required, lines, provision::Provision};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    figures: &[
        "british_columbia_reduction",
        "new_brunswick_reduction",
        "nova_scotia_reduction",
        "newfoundland_reduction",
        "prince_edward_reduction",
        "young_children",
    ],
    ..Provision::NONE
};

lines! {
    pub CAREGIVER = "ca.58400", "Caregiver, province", "Income tax acts of the provinces; form 428",
        "An amount for each relative cared for, less net income above a threshold.";
    pub FROM_PARTNER = "ca.58640", "Transferred from the partner, province", "Income tax acts of the provinces; form 428",
        "Age, pension, disability and tuition amounts that the partner's income does not need.";
    pub TUITION = "ca.58560", "Tuition, province", "Income tax acts of the provinces; form 428",
        "Unused amounts of earlier years, and this year's where the province has a credit for them, as far as tax is left.";
    pub TUITION_HANDED_ON = "ca.tuition.handed_on_provincial", "Provincial tuition handed on", "Income tax acts of the provinces; form 428",
        "As much as the way hands on of what is left of this year's.";
    pub TUITION_CARRIED = "ca.tuition.carried_provincial", "Provincial tuition kept for later", "Income tax acts of the provinces; form 428",
        "Neither used nor handed on.";
    pub AMOUNTS = "ca.58800", "Amounts together, province", "Income tax acts of the provinces; form 428",
        "All non-refundable amounts.";
    pub BASIC_TAX = "ca.428.basic", "Basic provincial tax", "Income tax acts of the provinces; form 428",
        "Tax less the credits, never below zero.";
    pub DIVIDENDS = "ca.61520", "Dividend tax credit, province", "Income tax acts of the provinces; form 428",
        "A part of the taxable amount of dividends.";
    pub MINIMUM = "ca.428.minimum", "Provincial minimum tax", "Income tax acts of the provinces; form 428",
        "A part of what the federal minimum tax is above the ordinary tax.";
    pub BEFORE = "ca.428.before", "Provincial tax before its reduction", "Income tax acts of the provinces; form 428",
        "Basic tax less the dividend credit, never below zero, with the minimum tax.";
    pub FOREIGN = "ca.428.foreign", "Provincial foreign tax credit", "Income tax acts of the provinces; form T2036",
        "What the federal credit leaves, or the provincial tax on the income if less.";
    pub REDUCTION = "ca.428.reduction", "Low-income reduction", "Income tax acts of the provinces; form 428",
        "Taken off the tax of low incomes.";
    pub LEFT = "ca.428.left", "Provincial tax before gifts to parties", "Income tax acts of the provinces; form 428",
        "Provincial tax after its other credits.";
    pub PROVINCIAL_TAX = "ca.42800", "Provincial tax", "Income tax acts of the provinces; form 428",
        "Provincial tax after its credits.";
    pub PAID_OUT = "ca.47900", "Provincial credits paid out", "Income tax acts of the provinces; form 479",
        "Credits that are paid whatever the tax.";
}

/// The form of a province itself.
pub const ALWAYS: FormRule = |_| Required::Yes;

/// Schedule 2 of a province: where anything comes from the partner.
pub fn schedule_2(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(FROM_PARTNER), "nothing comes from a partner")
}

/// Schedule 11 of a province: where a student uses, hands on or keeps anything.
pub fn schedule_11(filed: Filed<'_>) -> Required {
    let any = [TUITION, TUITION_HANDED_ON, TUITION_CARRIED].into_iter().any(|line| filed.has(line));
    Required::if_so(any, "no provincial tuition")
}

/// Form 479 of a province: where it pays anything out.
pub fn form_479(filed: Filed<'_>) -> Required {
    filed.when(PAID_OUT, "nothing is paid out")
}
