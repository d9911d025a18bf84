//! The rows of the Spread that California adds, in the order in which they add up.

use super::{
    adjustments, code_credits, cover, credits, earned_income, exemptions, form_540nr, itemized, minimum_tax,
    payments, tax,
};
use hembo_core::line::{SpreadRow, SpreadSection};

/// Its section.
pub const SECTION: SpreadSection = SpreadSection {
    title: "California",
    folds: false,
    rows: &[
        SpreadRow::new("Not taxed in California", None, adjustments::L14).minus(),
        SpreadRow::new("Taxed in California alone", None, adjustments::L16),
        SpreadRow::new("California adjusted gross income", None, adjustments::L17).result(),
        SpreadRow::new("Deduction of California", None, itemized::L18).minus(),
        SpreadRow::new("Taxable income of California", None, tax::L19).result(),
        SpreadRow::new("Tax of California", None, tax::L31),
        SpreadRow::new("Tax on income elsewhere", None, form_540nr::AWAY).minus(),
        SpreadRow::new("Exemption credits", None, exemptions::L32).minus(),
        SpreadRow::new("Exemption credits of income elsewhere", None, form_540nr::AWAY_CREDITS),
        SpreadRow::new("Care credit of California", None, credits::L40).minus(),
        SpreadRow::new("Credits by code", None, code_credits::L43).minus(),
        SpreadRow::new("Other states' tax and carried credits", None, credits::L44).minus(),
        SpreadRow::new("Renter's credit", None, credits::L46).minus(),
        SpreadRow::new("Minimum tax of California", None, minimum_tax::L61),
        SpreadRow::new("Behavioral health services tax", None, tax::L62),
        SpreadRow::new("Other taxes of California", None, payments::L63),
        SpreadRow::new("Penalty for months without cover", None, cover::L92),
        SpreadRow::new("California earned income credit", None, earned_income::L75).minus(),
        SpreadRow::new("Young child tax credit", None, earned_income::L76).minus(),
        SpreadRow::new("Foster youth tax credit", None, earned_income::L77).minus(),
        SpreadRow::new("Total tax of California", None, payments::TAX).result(),
        SpreadRow::new("Paid to California", None, payments::PAID).minus(),
        SpreadRow::new("Balance with California", None, payments::BALANCE).result(),
    ],
};
