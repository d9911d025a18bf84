//! Who claims medical receipts (ITA 118.2(1) B): one of a couple or both, each for months of one's own, no receipt twice.

use crate::{
    facts::Facts,
    medical,
    medical_months::{self, MOST_WINDOWS, shown_period},
    minimum_tax, net_income, ontario,
    plan::{Medical, MedicalClaim},
    points::Points,
    province,
    receipts::{Division, Window},
    rounding::{STEEPEST, STEEPEST_OF_MEDICAL, STEEPEST_OF_SUPPLEMENTED, cents},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Bar, Decision, More, Opt},
    open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    points: POINTS,
    figures: &["medical", "medical_supplement", "basic", "age", "pension", "disability", "brackets"],
    ..Provision::NONE
};

open_points! {
    DIVIDED = look "medical-divided", "ITA 118.2(1)",
        "Worth it only where both parts are above their thresholds.";
}

/// Receipts that could be divided in more ways than are weighed.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let of_dead: Money = facts.medical_of_dead.iter().flatten().map(|receipt| receipt.item.amount).sum();
    let left_out: Money = of_dead - facts.claimed_of_dead.iter().map(|receipt| receipt.item.amount).sum();
    let every_one =
        facts.windows.len() == MOST_WINDOWS && facts.windows.iter().all(Window::may_be_one_of_two);
    let may_pay = |division: &Division| all_months(facts) + left_out > division.thresholds;
    let Some(division) = facts.division.filter(may_pay) else { return };
    let worth_less = |place: usize| {
        let minimum = [minimum_tax::ADDITIONAL, minimum_tax::OF_EARLIER_YEARS];
        points.credits_lost(place) || minimum.iter().any(|&line| !points.amount(line, place).is_zero())
    };
    let lost = |place: usize| !points.amount(medical::ALLOWED, place).is_zero() && worth_less(place);
    let receipt = facts.medical.first().or(facts.claimed_of_dead.first());
    let Some(paper) = receipt.map(|receipt| &points.household.papers[receipt.item.paper].id) else { return };
    let place = Place::paper(paper, "amount");
    if !left_out.is_zero() {
        let message = "Both partners could claim for who died, each for 24 months of their own: not weighed.";
        points.raise(&DIVIDED, place, message);
    } else if every_one {
        let message = format!("Both partners could claim: of the months only {MOST_WINDOWS} are weighed.");
        points.raise(&DIVIDED, place, message);
    } else if !division.uneven && (0..facts.filers.len()).any(lost) {
        let message = "Both partners could claim a part: not weighed where one seemed to have tax enough.";
        points.raise(&DIVIDED, place, message);
    }
}

/// What bears on the division: a claim counts above a threshold, and a dollar of it is worth the same to both, unless one has too little tax
/// or both the supplement.
pub fn division(facts: &Facts) -> Option<Division> {
    let largest = facts.windows.iter().map(|window| window.sum).max().filter(|_| facts.couple)?;
    let (part, federal) = (facts.figures.medical.part, facts.figures.medical.most);
    let provincial = province::figures(facts).map_or(federal, |province| province.medical_most);
    let nets: Vec<_> = facts.filers.iter().map(|&filer| net_income::widest(facts, filer)).collect();
    let threshold = |net, most| settled::lesser(cents(settled::or_zero(net), part), most);
    let [least, most] = [settled::lesser(federal, provincial), settled::greater(federal, provincial)];
    let of_one = nets.iter().map(|net| largest - threshold(net.1, most)).max().unwrap_or_default();
    let (figures, all) = (&facts.figures, all_months(facts));
    let own = figures.basic.most + figures.age.amount + figures.pension.most + figures.disability.amount;
    Some(Division {
        largest,
        thresholds: nets.iter().map(|net| threshold(net.0, least)).sum(),
        of_one,
        uneven: nets.iter().any(|net| net.0 < own + all)
            || facts.filers.iter().all(|&filer| may_be_supplemented(facts, filer)),
        of_seniors: ontario::may_care_for_seniors(facts),
    })
}

/// What a claim is worth at the lowest rates, the province's with so much of a surtax.
fn worth(facts: &Facts, claim: Money, surtax: Rate) -> Money {
    let rate = province::figures(facts).map_or(Rate::ZERO, |province| province.credit_rate);
    let of_province = cents(claim, rate);
    cents(claim, facts.figures.brackets.rates[0]) + of_province + cents(of_province, surtax)
}

/// Why receipts cannot pay where both claim them.
fn why_not(facts: &Facts, all: Money) -> Option<Bar> {
    let division = facts.division?;
    let both = settled::or_zero(all - division.thresholds);
    if division.of_seniors && all > division.largest {
        None
    } else if both.is_zero() {
        Some(Bar::Borrowed("divided, a part would not be above its threshold"))
    } else if !division.uneven
        && worth(facts, both, ontario::most_surtax(facts)) <= worth(facts, division.of_one, Rate::ZERO)
    {
        Some(Bar::Borrowed("both have tax enough for all of it: a second threshold would only take off"))
    } else {
        None
    }
}

/// What all windows hold together.
fn all_months(facts: &Facts) -> Money {
    let ends = facts.windows.first().zip(facts.windows.last());
    ends.map_or(Money::ZERO, |(first, last)| medical_months::together(facts, first, last))
}

/// Whether a filer may have the refundable supplement: the income of the family may leave something of it.
fn may_be_supplemented(facts: &Facts, filer: usize) -> bool {
    let figures = &facts.figures.medical_supplement;
    let gone = figures.from + figures.most.divided_by(figures.rate, Money::WHOLE, Rounding::Up);
    medical::may_be_supplemented(facts, filer) && net_income::least_of_family(facts, filer) < gone
}

/// Which of the partners claims medical receipts: options by place among the filers, then both.
pub static BY: Open<Facts> = Open::new(of_couples, |facts, _| {
    let mut options = facts.filer_options(|name| format!("medical with {name}"));
    options.push(Opt::new("both", "Divided between them", "medical divided"));
    Decision::between("ca.medical", "Who claims medical", "ITA 118.2(1)", options)
})
.bars(|facts, _, option, _| (option == facts.filers.len()).then(|| why_not(facts, all_months(facts)))?);

/// For which months one claims receipts: options by window.
pub static WINDOW: Open<Facts> = Open::new(
    |facts: &Facts| if facts.windows.is_empty() { Vec::new() } else { vec![0] },
    |facts, _| {
        let options = facts.windows.iter().map(|window| option(facts, window, None)).collect();
        Decision::between("ca.medical.window", "Which twelve months of medical", "ITA 118.2(1)", options)
    },
)
.arises(|facts, _, way| !both_claim(facts, way));

/// For which months each of both claims, by place among the filers: options by window.
pub static MONTHS: Open<Facts> = Open::new(
    |facts: &Facts| if facts.couple && facts.windows.len() > 1 { vec![0, 1] } else { Vec::new() },
    |facts, place| {
        let claimant = facts.filers[place];
        let name = facts.first_name(claimant);
        let options = facts.windows.iter().map(|window| option(facts, window, Some(name))).collect();
        let id = format!("ca.medical.months.{}", facts.people[claimant].id);
        Decision::between(id, format!("Which twelve months {name} claims"), "ITA 118.2(1)", options)
    },
)
.arises(|facts, _, way| both_claim(facts, way))
.bars(|facts, place, option, way| {
    if place == 1 {
        return why_not_together(facts, way.taken(&MONTHS, 0)?, option);
    }
    // What reaches furthest beside it: where that cannot pay nothing can.
    let last = facts.windows.len() - 1;
    why_not_together(facts, option, last).filter(|_| why_not_together(facts, 0, option).is_some())
});

/// Why two windows cannot pay, one for each of both.
fn why_not_together(facts: &Facts, one: usize, other: usize) -> Option<Bar> {
    let ends = [settled::lesser(one, other), settled::greater(one, other)];
    let [earlier, later] = ends.map(|window| &facts.windows[window]);
    if earlier.above_earlier && later.above_later {
        return why_not(facts, medical_months::together(facts, earlier, later));
    }
    Some(NO_LESS)
}

/// Why two windows are not claimed together: beside the one another holds no less, and no less with it.
const NO_LESS: Bar = Bar::Borrowed("other months hold no less where both claim");

/// Whether a way divides the receipts.
fn both_claim(facts: &Facts, way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&BY, 0) == Some(facts.filers.len())
}

/// A window as an option, of one of both by name.
fn option(facts: &Facts, window: &Window, whose: Option<&str>) -> Opt {
    let end = format!("{} {}", window.end.day(), window.end.month());
    let months = format!("{} months to {end}", shown_period(facts).months());
    let short = whose.map_or(months.clone(), |name| format!("{months} of {name}"));
    Opt::new(window.end.to_string(), format!("Ending {end} · {:#}", window.sum), short)
}

/// How much of them the first claims where both do; what is left is the second's, as far as it lies in the second's months.
pub static AMOUNT: Open<Facts> = Open::new(
    |facts| of_couples(facts).into_iter().filter(|_| why_not(facts, all_months(facts)).is_none()).collect(),
    |facts, _| {
        let first = facts.first_name(facts.filers[0]);
        let short = format!("medical of {first}");
        let most = facts.windows.iter().map(|window| window.sum).max().unwrap_or_default();
        let amount = Amount { most, short, more: More::MayCost, steepest: steepest(facts) };
        let label = format!("Medical that {first} claims");
        Decision::amount("ca.medical.amount", label, "ITA 118.2(1), 122.51", amount)
    },
)
.arises(|facts, _, way| both_claim(facts, way))
.most(|facts, _, way| {
    let window = way.taken(&MONTHS, 0).unwrap_or_default();
    facts.windows.get(window).map_or(Money::ZERO, |window| window.sum)
});

/// By how much a dollar moved from one claim to the other moves the total at the most: what one return gains the other loses, and neither costs
/// more for a larger claim. What is in the own months of one alone may be claimed by nobody, and counts for Ontario's seniors then.
fn steepest(facts: &Facts) -> Rate {
    let unclaimed = facts.windows.len() > 1 && ontario::may_care_for_seniors(facts);
    let supplemented = facts.filers.iter().any(|&filer| may_be_supplemented(facts, filer));
    match (supplemented, unclaimed) {
        (false, false) => STEEPEST_OF_MEDICAL,
        (true, false) | (false, true) => STEEPEST_OF_SUPPLEMENTED,
        (true, true) => STEEPEST,
    }
}

fn of_couples(facts: &Facts) -> Vec<usize> {
    if facts.couple && !facts.windows.is_empty() { vec![0] } else { Vec::new() }
}

/// What of the medical receipts a way claims on which return.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<Medical> {
    let claim = |place: usize, window, left| MedicalClaim { person: facts.filers[place], window, left };
    if let Some(window) = way.taken(&WINDOW, 0) {
        let by = if facts.couple { way.taken(&BY, 0)? } else { 0 };
        return Some(Medical { claims: vec![claim(by, window, facts.windows[window].sum)] });
    }
    let window = facts.windows.first().map(|_| way.taken(&MONTHS, 0).unwrap_or_default())?;
    let of_partner = way.taken(&MONTHS, 1).unwrap_or(window);
    let all = medical_months::together(facts, &facts.windows[window], &facts.windows[of_partner]);
    let first = way.amount(&AMOUNT, 0).unwrap_or_default();
    Some(Medical { claims: vec![claim(0, window, first), claim(1, of_partner, all - first)] })
}
