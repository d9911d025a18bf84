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
    if is_helpless(figures, of) {
        return figures.disability.helpless;
    }
    let figures = &figures.disability;
    let at = figures.degrees.iter().rposition(|degree| *degree <= of.degree);
    at.map_or(Money::ZERO, |at| figures.lumps[at])
}

/// By mark, or by the grade of care that is like it (§33b(3) S.4).
fn is_helpless(figures: &Figures, of: Disability) -> bool {
    of.mark == Mark::Helpless || of.care_grade >= figures.disability.helpless_grade
}

/// The lump sum of travel of who is disabled (§33(2a)).
pub fn travel(figures: &Figures, of: Disability) -> Money {
    if of.mark == Mark::AG || is_helpless(figures, of) {
        return figures.burdens.trips_helpless;
    }
    let from = &figures.disability;
    let entitled =
        of.degree >= from.trips_from || (of.degree >= from.trips_with_mark_from && of.mark == Mark::G);
    if entitled { figures.burdens.trips } else { Money::ZERO }
}

/// §9(2) S.3: both ways by car at the rate of travel, of a high degree or a lower one with a mark for walking.
pub fn drives_as_disabled(figures: &Figures, of: Disability) -> bool {
    let from = &figures.disability;
    of.degree >= from.drives_from || (of.degree >= from.drives_with_mark_from && of.mark != Mark::None)
}
