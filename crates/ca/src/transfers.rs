//! Amounts that one of a couple does not need and the other may take (ITA 118.8; Schedule 2): line 32600, and line
//! 58640 of the province.

use crate::{
    personal::{self, Personal},
    plan::{Filed, On},
    tuition::{self, Tuition},
};
use hembo_core::{forms::Required, limit, line::LineId, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub FROM_PARTNER = "ca.32600", "Transferred from the partner", "ITA 118.8",
        "Age, pension and tuition that the partner's income does not need.";
    pub PROVINCIAL_FROM_PARTNER = "ca.58640", "Transferred from the partner, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "Age and pension amounts that the partner's income does not need.";
}

/// What a partner has to offer.
#[derive(Debug, Clone, Copy)]
pub struct Offer {
    /// The partner's personal amounts.
    pub personal: Personal,
    /// The tuition that the partner uses and hands on; none in a province.
    pub tuition: Tuition,
    /// The partner's income as an amount that credits cover.
    pub to_cover: Money,
}

/// The lines of an offer: age, pension, and the result.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Lines {
    pub age: LineId,
    pub pension: LineId,
    pub result: LineId,
}

/// The federal lines.
pub const FEDERAL: Lines =
    Lines { age: personal::AGE_AMOUNT, pension: personal::PENSION, result: FROM_PARTNER };
/// The provincial lines.
pub const PROVINCIAL: Lines = Lines {
    age: personal::PROVINCIAL_AGE,
    pension: personal::PROVINCIAL_PENSION,
    result: PROVINCIAL_FROM_PARTNER,
};

/// Age, pension and tuition of the partner, less the income that the partner's other amounts leave uncovered.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, lines: Lines, offer: Option<Offer>) -> Money {
    let (Some(partner), Some(offer)) = (on.partner(), offer) else { return Money::ZERO };
    let Offer { personal, tuition, to_cover } = offer;
    let others = personal.without_spouse_and_transferable() + tuition.used;
    let uncovered = limit::or_zero(trail, to_cover - others);
    let transferable = personal.age + personal.pension + tuition.handed_on;
    let allowed = limit::or_zero(trail, transferable - uncovered);
    trail.line(lines.result, on.scope, allowed, |i| {
        let moved = [
            (lines.age, personal.age),
            (lines.pension, personal.pension),
            (tuition::HANDED_ON, tuition.handed_on),
        ];
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

/// The same form of a province.
pub fn provincial_schedule_2(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(PROVINCIAL_FROM_PARTNER), "nothing comes from a partner")
}
