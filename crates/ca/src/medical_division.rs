//! Medical receipts divided between partners: what of it is not weighed.

use crate::{federal, medical, points::Points};
use hembo_core::{
    Scope,
    point::{Gather, Place},
};

/// Receipts that could be divided in more ways than are weighed.
pub fn points(points: &mut Points<'_>) {
    if points.facts.province.is_some() {
        medical_divided(points);
    }
}

/// Receipts may be divided, and each partner may have twelve months of one's own: weighed only where both may have
/// the supplement, and with the same months.
fn medical_divided(points: &mut Points<'_>) {
    let facts = points.facts;
    let lost = |place: usize| {
        let line = |id: &'static str| points.trail.amount(id, Scope::Return(place)).unwrap_or_default();
        !line(medical::ALLOWED).is_zero() && line(federal::CREDIT) > line(federal::TAX)
    };
    let open = facts.windows.len() > 1 || (0..facts.filers.len()).any(lost);
    if !facts.couple || !open || !points.both_above_threshold {
        return;
    }
    let receipt = facts.medical.first().map(|r| &points.household.papers[r.item.paper].id);
    let Some(place) = receipt.map(|paper| Place::paper(paper, "amount")) else { return };
    let message =
        "Both partners could claim a part, each with twelve months of their own: not weighed in full.";
    let remedy = "Worth it only where one of them has too little tax, or receipts lie in no one window.";
    points.look("medical-divided", place, message, remedy);
}
