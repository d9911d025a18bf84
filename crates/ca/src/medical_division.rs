//! Who claims medical receipts (ITA 118.2(1) B): one of a couple or both, each for months of one's own, no receipt twice.

use crate::{
    facts::{Facts, Window},
    medical_months::{self, MOST_WINDOWS, shown_period},
    net_income,
    plan::{Medical, MedicalClaim},
    points::Points,
    province,
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
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { points: POINTS, figures: &["medical"], ..Provision::NONE };

open_points! {
    DIVIDED = look "medical-divided", "ITA 118.2(1)",
        "Worth it only where both parts are above their thresholds.";
}

/// Receipts that could be divided in more ways than are weighed.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let of_dead: Money = facts.medical_of_dead.iter().flatten().map(|receipt| receipt.item.amount).sum();
    let claimed: Money = facts.claimed_of_dead.iter().map(|receipt| receipt.item.amount).sum();
    let left_out = facts.windows.len() == MOST_WINDOWS && facts.windows.iter().all(Window::may_be_one_of_two);
    if of_couples(facts).is_empty() || !both_above_threshold(facts, of_dead - claimed) {
        return;
    }
    let receipt = facts.medical.first().or(facts.claimed_of_dead.first());
    let Some(paper) = receipt.map(|receipt| &points.household.papers[receipt.item.paper].id) else { return };
    let place = Place::paper(paper, "amount");
    if of_dead > claimed {
        let message = "Both partners could claim for who died, each for 24 months of their own: not weighed.";
        points.raise(&DIVIDED, place, message);
    } else if left_out {
        let message = format!("Both partners could claim: of the months only {MOST_WINDOWS} are weighed.");
        points.raise(&DIVIDED, place, message);
    }
}

/// Which of the partners claims medical receipts: options by place among the filers, then both.
pub static BY: Open<Facts> = Open::new(of_couples, |facts, _| {
    let mut options = facts.filer_options(|name| format!("medical with {name}"));
    options.push(Opt::new("both", "Divided between them", "medical divided"));
    Decision::between("ca.medical", "Who claims medical", "ITA 118.2(1)", options)
})
.bars(|facts, _, option, _| {
    let divided = option == facts.filers.len() && !both_above_threshold(facts, Money::ZERO);
    divided.then_some(Bar::Borrowed("divided, a part would not be above its threshold"))
});

/// For which months receipts are claimed, by the first where both claim: options by window.
pub static WINDOW: Open<Facts> = Open::new(
    |facts: &Facts| if facts.windows.is_empty() { Vec::new() } else { vec![0] },
    |facts, _| {
        let options = facts.windows.iter().map(|window| option(facts, window, None)).collect();
        Decision::between("ca.medical.window", "Which twelve months of medical", "ITA 118.2(1)", options)
    },
)
.bars(|facts, _, option, way| {
    let worth = !both_claim(facts, way) || facts.windows[option].may_be_one_of_two();
    (!worth).then_some(NO_LESS)
});

/// The same of the second, where both claim.
pub static WINDOW_OF_SECOND: Open<Facts> = Open::new(
    |facts: &Facts| if facts.windows.len() > 1 { of_couples(facts) } else { Vec::new() },
    |facts, _| {
        let second = facts.filers[1];
        let name = facts.first_name(second);
        let options = facts.windows.iter().map(|window| option(facts, window, Some(name))).collect();
        let id = format!("ca.medical.months.{}", facts.people[second].id);
        Decision::between(id, format!("Which twelve months {name} claims"), "ITA 118.2(1)", options)
    },
)
.arises(|facts, _, way| both_claim(facts, way))
.bars(|facts, _, option, way| {
    let first = way.taken(&WINDOW, 0)?;
    let [earlier, later] = [settled::lesser(first, option), settled::greater(first, option)];
    let worth = facts.windows[earlier].above_earlier && facts.windows[later].above_later;
    (!worth).then_some(NO_LESS)
});

/// Why two windows are not claimed together: beside the one another holds no less, and no less with it.
const NO_LESS: Bar = Bar::Borrowed("other months hold no less where both claim");

/// Whether a way divides the receipts.
fn both_claim(facts: &Facts, way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&BY, 0) == Some(facts.filers.len())
}

/// A window as an option, of the second by name.
fn option(facts: &Facts, window: &Window, whose: Option<&str>) -> Opt {
    let end = format!("{} {}", window.end.day(), window.end.month());
    let months = format!("{} months to {end}", shown_period(facts).months());
    let short = whose.map_or(months.clone(), |name| format!("{months} of {name}"));
    Opt::new(window.end.to_string(), format!("Ending {end} · {:#}", window.sum), short)
}

/// How much of them the first claims where both do; what is left is the second's, as far as it lies in the second's months.
pub static AMOUNT: Open<Facts> = Open::new(
    |facts| of_couples(facts).into_iter().filter(|_| both_above_threshold(facts, Money::ZERO)).collect(),
    |facts, _| {
        let first = facts.first_name(facts.filers[0]);
        let short = format!("medical of {first}");
        let most = facts.windows.iter().map(|window| window.sum).max().unwrap_or_default();
        let amount = Amount { most, short, more: More::MayCost, steepest: STEEPEST_OF_MEDICAL };
        let label = format!("Medical that {first} claims");
        Decision::amount("ca.medical.amount", label, "ITA 118.2(1), 122.51", amount)
    },
)
.arises(|facts, _, way| both_claim(facts, way))
.most(|facts, _, way| {
    let window = way.taken(&WINDOW, 0).and_then(|window| facts.windows.get(window));
    window.map_or(Money::ZERO, |window| window.sum)
});

fn of_couples(facts: &Facts) -> Vec<usize> {
    if facts.couple && !facts.windows.is_empty() { vec![0] } else { Vec::new() }
}

/// What of the medical receipts a way claims on which return.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<Medical> {
    let window = way.taken(&WINDOW, 0)?;
    let by = if facts.couple { way.taken(&BY, 0)? } else { 0 };
    let claim = |place: usize, window, left| MedicalClaim { person: facts.filers[place], window, left };
    if by < facts.filers.len() {
        return Some(Medical { claims: vec![claim(by, window, facts.windows[window].sum)] });
    }
    let of_partner = way.taken(&WINDOW_OF_SECOND, 0).unwrap_or(window);
    let all = medical_months::together(facts, &facts.windows[window], &facts.windows[of_partner]);
    let first = way.amount(&AMOUNT, 0).unwrap_or_default();
    Some(Medical { claims: vec![claim(0, window, first), claim(1, of_partner, all - first)] })
}

/// Divided receipts bring nothing unless both parts are above their thresholds; `more` are receipts in no window.
fn both_above_threshold(facts: &Facts, more: Money) -> bool {
    let most = settled::lesser(
        facts.figures.medical.most,
        province::figures(facts).map_or(facts.figures.medical.most, |province| province.medical_most),
    );
    let threshold = |&f: &usize| {
        let net = settled::or_zero(net_income::widest(facts, f).0);
        settled::lesser(cents(net, facts.figures.medical.part), most)
    };
    let [Some(first), Some(last)] = [facts.windows.first(), facts.windows.last()] else { return false };
    medical_months::together(facts, first, last) + more > facts.filers.iter().map(threshold).sum()
}
