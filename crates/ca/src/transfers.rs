//! Amounts that one of a couple does not need and the other may take (ITA 118.8; Schedule 2): line 32600, and line
//! 58640 of the province.

use crate::{
    caregivers, disability, form_428,
    personal::{self, Personal},
    plan::{Filed, On},
    told::Told,
    tuition::{self, Tuition},
};
use hembo_core::{forms::Required, limit, line::LineId, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub FROM_PARTNER = "ca.32600", "Transferred from the partner", "ITA 118.8",
        "Age, caregiver of children, pension, disability and tuition amounts that the partner's income does not need.";
}

/// What a partner has to offer.
#[derive(Debug, Clone, Copy)]
pub struct Offer {
    /// The partner's personal amounts.
    pub personal: Personal,
    /// The tuition that the partner uses and hands on.
    pub tuition: Tuition,
    /// The partner's income as an amount that credits cover.
    pub to_cover: Money,
}

/// The lines of an offer, and the result.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Lines {
    pub age: LineId,
    pub children: LineId,
    pub pension: LineId,
    pub disability: LineId,
    pub tuition: LineId,
    pub result: LineId,
    /// What is told where the partner's return is not here.
    pub told: fn(&Told) -> Money,
}

/// The federal lines.
pub const FEDERAL: Lines = Lines {
    age: personal::AGE_AMOUNT,
    children: caregivers::CHILDREN,
    pension: personal::PENSION,
    disability: disability::OWN,
    tuition: tuition::HANDED_ON,
    result: FROM_PARTNER,
    told: |told| told.handed_federal,
};
/// The provincial lines.
pub const PROVINCIAL: Lines = Lines {
    age: personal::PROVINCIAL_AGE,
    children: caregivers::CHILDREN,
    pension: personal::PROVINCIAL_PENSION,
    disability: disability::PROVINCIAL_OWN,
    tuition: form_428::TUITION_HANDED_ON,
    result: form_428::FROM_PARTNER,
    told: |told| told.handed_provincial,
};

/// What the partner may hand over, less the income that the partner's other amounts leave uncovered.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, lines: Lines, offer: Option<Offer>) -> Money {
    if let Some(partner) = on.partner().filter(|partner| !on.facts.files(partner.person)) {
        let told = (lines.told)(&partner.who().told);
        return on.made(trail, lines.result, told, &[], &[("Schedule 2 of the partner", &told)]);
    }
    let (Some(partner), Some(offer)) = (on.partner(), offer) else { return Money::ZERO };
    let Offer { personal, tuition, to_cover } = offer;
    let others = personal.without_spouse_and_transferable() + tuition.used;
    let uncovered = limit::or_zero(trail, to_cover - others);
    let moved = [
        (lines.age, personal.age),
        (lines.children, personal.children),
        (lines.pension, personal.pension),
        (lines.disability, personal.disability),
        (lines.tuition, tuition.handed_on),
    ];
    let transferable: Money = moved.iter().map(|(_, amount)| *amount).sum();
    let allowed = limit::or_zero(trail, transferable - uncovered);
    // Of a partner who came as well the amounts are by days already.
    let allowed = if partner.who().part_year.days.is_some() { allowed } else { on.by_days(allowed) };
    trail.line(lines.result, on.scope, allowed, |i| {
        for (line, amount) in moved.into_iter().filter(|(_, amount)| !amount.is_zero() && !allowed.is_zero())
        {
            i.flow(line, partner.scope, amount);
        }
        i.figure("Less the partner's income left to cover", uncovered);
    })
}

/// Schedule 2: where anything comes from the partner.
pub fn schedule_2(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(FROM_PARTNER), "nothing comes from a partner")
}
