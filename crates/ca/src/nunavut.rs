//! Nunavut (Income Tax Act; NU428): without the cost of living credit, which is told.

use crate::{
    points::Points,
    provincial_law::{ProvincialLaw, common},
    young_children,
};
use hembo_core::{
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["nunavut", "nunavut_relatives"], ..Provision::NONE };

open_points! {
    COST_OF_LIVING = not_covered "nu-cost-of-living", "Income Tax Act (Nunavut); NU479";
}

/// The law of Nunavut.
#[derive(Debug)]
pub struct Nunavut;

impl ProvincialLaw for Nunavut {
    common!("NU", "nu", nunavut, nunavut_relatives, nunavut_credits);

    fn points(points: &mut Points<'_>) {
        let message = "The cost of living credit (NU479) is paid out to everyone and not computed yet.";
        points.raise(&COST_OF_LIVING, Place::household(crate::provinces::ask::PROVINCE), message);
        young_children::points(points);
    }
}
