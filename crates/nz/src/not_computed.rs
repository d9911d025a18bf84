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
pub const NOT_COMPUTED: [NotComputed; 4] = [
    NotComputed::new(
        "other_property",
        "Property with rules of its own",
        "Farms, boarders, commercial rents with losses, subdivisions, land bought to be sold, a home used and let…",
        "Such property is",
        "ITA CB 6 to CB 23, DG, EL",
    ),
    NotComputed::new(
        "other_income_kinds",
        "Income that is on none of these papers",
        "Controlled foreign companies, income equalisation, bonds with gains, royalties, share schemes abroad, attributed income…",
        "Such income is",
        "ITA CA 1, EW, EX 1 to EX 27, EH",
    ),
    NotComputed::new(
        "trader_rules",
        "Accounts with rules of their own",
        "Livestock, a balance date other than 31 March, the accounting income method, GST adjustments…",
        "Such accounts are",
        "ITA EC, RC 7B; GST Act 1985",
    ),
    NotComputed::new(
        "other_credits",
        "Other credits and duties",
        "Shareholder credits from abroad, a loan from overseas, trusts as filers, settlements of earlier years…",
        "Such credits and duties are",
        "ITA subparts LJ to LS, HC; SLSA Part 3",
    ),
];

const ASKED: [Field; NOT_COMPUTED.len()] = NotComputed::fields(&NOT_COMPUTED);

/// What the law has and this pack has not.
pub fn points(points: &mut Points<'_>) {
    points.not_computed(points.household, &NOT_COMPUTED);
}
