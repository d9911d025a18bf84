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
        "liability_rules",
        "Limited liability, or unlimited on request",
        "No home or abode here in the year, §1(3), a spouse who stays in another state of the EU (§1a)…",
        "Such liability is",
        "§§1(3), (4), 1a, 49, 50",
    ),
    NotComputed::new(
        "fund_rules",
        "Shares of firms and capital income with rules of their own",
        "A share of one per cent and more, loans among relatives, special funds, funds bought before 2018…",
        "Such capital income is",
        "§§17, 20(8), 32d(2); §§25 to 56 InvStG",
    ),
    NotComputed::new(
        "other_rules",
        "Income, losses and reliefs with rules of their own",
        "Pensions of subsidised or company contracts, sale of a firm, limited partners, the half rate, monuments, forests, an estate, a former spouse who married again in the year…",
        "Such income and reliefs are",
        "§§7h, 7i, 10f, 15a, 15b, 16, 22 Nr.5, 34(3), 34a, 34b, 35b",
    ),
];

const ASKED: [Field; NOT_COMPUTED.len()] = NotComputed::fields(&NOT_COMPUTED);

/// What the law has and this pack has not.
pub fn points(points: &mut Points<'_>) {
    points.not_computed(points.household, &NOT_COMPUTED);
}
