//! The Northwest Territories (Income Tax Act; NT428): without the cost of living credit, which is told.

use crate::{
    points::Points,
    provincial_law::{ProvincialLaw, common},
};
use hembo_core::{
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["northwest", "northwest_relatives"], ..Provision::NONE };

open_points! {
    COST_OF_LIVING = not_covered "nt-cost-of-living", "Income Tax Act (Northwest Territories); NT479";
}

/// The law of the Northwest Territories.
#[derive(Debug)]
pub struct Northwest;

impl ProvincialLaw for Northwest {
    common!("NT", "nt", northwest, northwest_relatives, northwest_credits);

    fn points(points: &mut Points<'_>) {
        let message = "The cost of living credit (NT479) is paid out to everyone and not computed yet.";
        points.raise(&COST_OF_LIVING, Place::household(crate::provinces::ask::PROVINCE), message);
    }
}
