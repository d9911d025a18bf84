//! What the law has and this pack does not compute yet: asked about, so that its absence is known.

use crate::points::Points;
use hembo_core::{
    field::Field,
    point::{Gather, NotComputed},
    provision::Provision,
};

/// What is asked because it is not computed yet.
pub static PROVISION: Provision = Provision { household_questions: &ASKED, ..Provision::NONE };

/// What is not computed yet, in the order of the return.
pub const NOT_COMPUTED: [NotComputed; 3] = [
    NotComputed::new(
        "other_income",
        "A farm, or work abroad",
        "Schedule F, Form 2555. Schedule K-1, a net operating loss and most other income have papers of their own.",
        "Such income is",
        "IRC §61(a)",
    ),
    NotComputed::new(
        "sales",
        "Sold property of a business, an option at work, or in instalments",
        "Also exchanges of land, small-business stock with its own rules, an opportunity fund. Rented property, securities, digital assets and the main home have papers of their own.",
        "Such a sale is",
        "IRC §§453, 1001, 1231",
    ),
    NotComputed::new(
        "other_credits",
        "Other credits or taxes",
        "A general business credit, a tax-free benefit for an adoption, \
         an ABLE or Archer account, foreign tax on other income, a credit of a business or of housing to be repaid…",
        "One of these is",
        "IRC §§27, 38, 62(a), 137",
    ),
];

const ASKED: [Field; NOT_COMPUTED.len()] = NotComputed::fields(&NOT_COMPUTED);

/// What the law has and this pack has not.
pub fn points(points: &mut Points<'_>) {
    points.not_computed(points.household, &NOT_COMPUTED);
}
