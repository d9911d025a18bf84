//! Amounts that one of a couple does not need and the other may take (ITA 118.8; Schedule 2): line 32600, and line
//! 58640 of the province.

use crate::{personal::Personal, plan::On, tuition::Tuition};
use hembo_core::{limit, line::LineId, trail::Trail};
use hembo_money::Money;

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
pub const FEDERAL: Lines = Lines { age: "ca.30100", pension: "ca.31400", result: "ca.32600" };
/// The provincial lines.
pub const PROVINCIAL: Lines = Lines { age: "ca.58080", pension: "ca.58360", result: "ca.58640" };

/// Age, pension and tuition of the partner, less the income that the partner's other amounts leave uncovered.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, lines: Lines, offer: Option<Offer>) -> Money {
    let (Some(partner), Some(offer)) = (on.partner(), offer) else { return Money::ZERO };
    let Offer { personal, tuition, to_cover } = offer;
    let others = personal.without_spouse_and_transferable() + tuition.used;
    let uncovered = limit::or_zero(trail, to_cover - others);
    let transferable = personal.age + personal.pension + tuition.handed_on;
    let allowed = limit::or_zero(trail, transferable - uncovered);
    trail.line(lines.result, on.scope, allowed, |i| {
        let moved =
            [(lines.age, personal.age), (lines.pension, personal.pension), ("ca.32700", tuition.handed_on)];
        for (line, amount) in moved.into_iter().filter(|(_, amount)| !amount.is_zero() && !allowed.is_zero())
        {
            i.flow(line, partner.scope, amount);
        }
        i.figure("Less the partner's income left to cover", uncovered);
    })
}
