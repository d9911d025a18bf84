//! Medical receipts divided between partners: what of it is not weighed.

use crate::{
    facts::Facts,
    medical, net_income,
    plan::Medical,
    points::Points,
    rounding::{STEEPEST_OF_MEDICAL, cents},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Bar, Decision, More, Opt},
    open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["medical_supplement", "medical"], ..Provision::NONE };

open_points! {
    DIVIDED = look "medical-divided", "ITA 118.2(1)",
        "Worth it only where one of them has too little tax, or receipts lie in no one window.";
}

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
    let lost = |place: usize| !points.amount(medical::ALLOWED, place).is_zero() && points.credits_lost(place);
    let open = facts.windows.len() > 1 || (0..facts.filers.len()).any(lost);
    if !facts.couple || !open || !both_above_threshold(facts) {
        return;
    }
    let receipt = facts
        .medical
        .first()
        .or(facts.claimed_of_dead.first())
        .map(|r| &points.household.papers[r.item.paper].id);
    let Some(place) = receipt.map(|paper| Place::paper(paper, "amount")) else { return };
    let message =
        "Both partners could claim a part, each with twelve months of their own: not weighed in full.";
    points.raise(&DIVIDED, place, message);
}

/// Which of the partners claims medical receipts: options by place among the filers, then both.
pub static BY: Open<Facts> = Open::new(of_couples, |facts, _| {
    let mut options = facts.filer_options(|name| format!("medical with {name}"));
    if both_may_be_supplemented(facts) {
        options.push(Opt::new("both", "Divided between them", "medical divided"));
    }
    Decision::between("ca.medical", "Who claims medical", "ITA 118.2(1)", options)
})
.bars(|facts, _, option, _| {
    let divided = option == facts.filers.len() && !both_above_threshold(facts);
    divided.then_some(Bar::Borrowed("divided, a part would not be above its threshold"))
});

/// How much of them the first claims where both do.
pub static AMOUNT: Open<Facts> = Open::new(
    |facts| of_couples(facts).into_iter().filter(|_| both_may_be_supplemented(facts)).collect(),
    |facts, _| {
        let first = facts.first_name(facts.filers[0]);
        let short = format!("medical of {first}");
        let amount =
            Amount { most: largest_window(facts), short, more: More::MayCost, steepest: STEEPEST_OF_MEDICAL };
        let label = format!("Medical that {first} claims");
        Decision::amount("ca.medical.amount", label, "ITA 118.2(1), 122.51", amount)
    },
)
.arises(|facts, _, way| way.taken(&BY, 0) == Some(facts.filers.len()))
.most(|facts, _, way| {
    let window = way.taken(&medical::WINDOW, 0).and_then(|w| facts.windows.get(w));
    window.map_or(Money::ZERO, |w| w.sum)
});

fn of_couples(facts: &Facts) -> Vec<usize> {
    if facts.couple && !facts.windows.is_empty() { vec![0] } else { Vec::new() }
}

/// What of the medical receipts a way claims on which return.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<Medical> {
    let window = way.taken(&medical::WINDOW, 0)?;
    let all = facts.windows[window].sum;
    let by = if facts.couple { way.taken(&BY, 0)? } else { 0 };
    let claimed = match facts.filers.get(by) {
        Some(&claimant) => vec![(claimant, all)],
        None => {
            let first = way.amount(&AMOUNT, 0).unwrap_or_default();
            vec![(facts.filers[0], first), (facts.filers[1], all - first)]
        }
    };
    Some(Medical { window, claimed })
}

fn largest_window(facts: &Facts) -> Money {
    facts.windows.iter().map(|w| w.sum).max().unwrap_or_default()
}

/// Whether both partners may have the refundable supplement, so that dividing the receipts may pay.
pub fn both_may_be_supplemented(facts: &Facts) -> bool {
    let figures = &facts.figures.medical_supplement;
    let least: Money = facts.filers.iter().map(|&f| net_income::widest(facts, f).0).sum();
    let gone = figures.from + figures.most.divided_by(figures.rate, Money::WHOLE, Rounding::Up);
    facts.filers.iter().all(|&f| medical::may_be_supplemented(facts, f)) && least < gone
}

/// Divided receipts bring nothing unless both parts are above their thresholds.
fn both_above_threshold(facts: &Facts) -> bool {
    let threshold = |&f: &usize| {
        let figures = &facts.figures.medical;
        settled::lesser(cents(net_income::widest(facts, f).0, figures.part), figures.most)
    };
    largest_window(facts) > facts.filers.iter().map(threshold).sum()
}
