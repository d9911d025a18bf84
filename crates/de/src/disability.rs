//! What a disability is worth (§§9(2) S.3, 33(2a), 33b EStG): by degree, mark and grade of care.

use crate::{
    facts::{Disability, Mark},
    figures::Figures,
};
use hembo_core::provision::Provision;
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { about: "Disability", figures: &["disability", "burdens"], ..Provision::NONE };

/// The lump sum of a disability.
pub fn lump(figures: &Figures, of: Disability) -> Money {
    let figures = &figures.disability;
    if of.mark == Mark::Helpless || of.care_grade >= 4 {
        return figures.helpless;
    }
    let at = figures.degrees.iter().rposition(|degree| *degree <= of.degree);
    at.map_or(Money::ZERO, |at| figures.lumps[at])
}

/// The lump sum of travel of who is disabled (§33(2a)).
pub fn travel(figures: &Figures, of: Disability) -> Money {
    let figures = &figures.burdens;
    let exceptional = matches!(of.mark, Mark::AG | Mark::Helpless) || of.care_grade >= 4;
    if exceptional {
        return figures.trips_helpless;
    }
    let entitled = of.degree >= 80 || (of.degree >= 70 && of.mark == Mark::G);
    if entitled { figures.trips } else { Money::ZERO }
}

/// §9(2) S.3: both ways by car at the rate of travel, of a high degree or a lower one with a mark for walking.
pub fn drives_as_disabled(of: Disability) -> bool {
    of.degree >= 70 || (of.degree >= 50 && of.mark != Mark::None)
}
