//! What the law has and this pack does not compute yet: asked about, so that its absence is known.

use crate::points::Points;
use hembo_core::{
    field::Field,
    point::{Gather, NotComputed},
    provision::Provision,
};

/// What is asked because it is not computed yet.
pub static PROVISION: Provision = Provision { household_questions: &ASKED, ..Provision::NONE };

/// What the law has and this pack does not compute yet.
pub const NOT_COMPUTED: [NotComputed; 3] = [
    NotComputed::new(
        "other_pay",
        "Pay with rules of its own",
        "Subsistence beyond the allowance, a company car with a logbook, share schemes, bursaries to relatives of high earners…",
        "Such pay is",
        "s8(1)(c), s8C, s10(1)(q); Seventh Schedule",
    ),
    NotComputed::new(
        "other_gains",
        "Gains and losses with rules of their own",
        "Assets of before October 2001 under the loss rules, rollovers, small business relief, emigration, clogged losses…",
        "Such gains and losses are",
        "Eighth Schedule paras 25 to 32, 39, 57, 67; s9H",
    ),
    NotComputed::new(
        "other_income_kinds",
        "Income that is on none of these papers",
        "Trusts, controlled foreign companies, royalties, film schemes, donations tax, an estate…",
        "Such income is",
        "ss 7, 9D, 25B, 54",
    ),
];

const ASKED: [Field; NOT_COMPUTED.len()] = NotComputed::fields(&NOT_COMPUTED);

/// What the law has and this pack has not.
pub fn points(points: &mut Points<'_>) {
    points.not_computed(points.household, &NOT_COMPUTED);
}
