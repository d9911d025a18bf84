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
pub const NOT_COMPUTED: [NotComputed; 5] = [
    NotComputed::new(
        "other_income",
        "Income that is on none of these papers",
        "Employment insurance, retirement savings taken out, a trust, a business, rent, support, compensation…",
        "Such income is",
        "ITA 9, 56",
    ),
    NotComputed::new(
        "sales",
        "Sold securities, a home or other property",
        "By anyone in the household, at a gain or a loss; also losses of other years.",
        "Sales (Schedule 3) are",
        "ITA 38 to 40",
    ),
    NotComputed::new(
        "other_deductions",
        "Child care, moving, employment or carrying expenses",
        "Also support paid, contributions to a first-home account, other deductions.",
        "Such deductions are",
        "ITA 8, 60, 62, 63",
    ),
    NotComputed::new(
        "other_credits",
        "Other credits",
        "Student loan interest, a home bought or made accessible, adoption, volunteers, educators, politics…",
        "Such credits are",
        "ITA 118.05 to 118.07, 118.62, 127(3)",
    ),
    NotComputed::new(
        "advance_benefit",
        "Workers benefit paid in advance",
        "Slip RC210, box 10.",
        "Advance payments (line 41500) are",
        "ITA 122.7(5), 122.72",
    ),
];

const ASKED: [Field; NOT_COMPUTED.len()] = NotComputed::fields(&NOT_COMPUTED);

/// What the law has and this pack has not.
pub fn points(points: &mut Points<'_>) {
    points.not_computed(points.household, &NOT_COMPUTED);
}
