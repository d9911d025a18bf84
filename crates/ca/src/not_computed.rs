//! What the law has and this pack does not compute yet: asked about, so that its absence is known.

use crate::points::Points;
use hembo_core::{
    field::Field,
    point::{Gather, NotComputed},
    provision::Provision,
};

/// What is asked because it is not computed yet.
pub static PROVISION: Provision = Provision { household_questions: &ASKED, ..Provision::NONE };

/// What the law has and this pack does not compute yet, asked about so that its absence is known.
pub const NOT_COMPUTED: [NotComputed; 4] = [
    NotComputed::new(
        "other_income",
        "Income that is on none of these papers",
        "A partnership, farming or fishing, a disability savings plan, foreign pensions…",
        "Such income is",
        "ITA 9, 56",
    ),
    NotComputed::new(
        "sales",
        "Sales with rules of their own",
        "Flow-through shares, gifts in kind, reserves, a change of use, options, listed personal property…",
        "Such sales and losses are",
        "ITA 38 to 45, 110.6, 111",
    ),
    NotComputed::new(
        "other_deductions",
        "Other deductions",
        "Business investment losses, exploration, the clergy, limited partnerships, legal costs of support…",
        "Such deductions are",
        "ITA 8, 60",
    ),
    NotComputed::new(
        "other_credits",
        "Other credits",
        "Logging, graduate retention, credits of the province that are on no paper here…",
        "Such credits are",
        "ITA 127.4; forms 428 and 479",
    ),
];

const ASKED: [Field; NOT_COMPUTED.len()] = NotComputed::fields(&NOT_COMPUTED);

/// What the law has and this pack has not.
pub fn points(points: &mut Points<'_>) {
    points.not_computed(points.household, &NOT_COMPUTED);
}
