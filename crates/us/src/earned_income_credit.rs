//! The earned income credit (§32), by the table's bands of fifty dollars.

use crate::{
    business, dependents,
    facts::Facts,
    figures::{EarnedIncomeClass, Figures},
    filing_status::Status,
    income::{self, Income},
    points::Points,
    status,
    unit::{Filed, On},
    untaxed_pay,
};
use hembo_core::{
    field::Field,
    forms::Required,
    limit::{self, Shape},
    limits, lines, open_points,
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    person_questions: QUESTIONS,
    limits: LIMITS,
    points: POINTS,
    figures: &["earned_income_credit"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const HOME_ABROAD: &str = "home_abroad";
}

const QUESTIONS: &[Question] = &[Question {
    of: FILER,
    from_age: 0,
    field: Field::yes_no(ask::HOME_ABROAD, "", "Main home abroad for half the year"),
}];

lines! {
    pub L27A = "us.27a", "Earned income credit", "IRC §32",
        "By the table at earned income and, past the threshold, at adjusted gross income.";
}

limits! {
    EARNED_INCOME = "us.limit.earned_income" on L27A, "Earned income credit", "grows with earnings, then shrinks",
        "IRC §32(a)(2), (b)";
}

open_points! {
    ROUND = look "K-124", "IRC §32(c)(2); Reg. §1.6695-2",
        "Ask for the records of the business: all its income and all its expenses count.";
    CHILD_OF_ANOTHER = blocks "K-016-child", "IRC §32(c)(1)(B)",
        "If so, there is no earned income credit (§32(c)(1)(B)).";
}

/// Line 27a. `earned` is earned income but for combat pay that is counted.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, earned: Money, income: &Income) -> Money {
    let combat = untaxed_pay::combat_chosen(on, trail);
    let earned = earned + combat;
    let children = children(on);
    if let Err(why) = eligible(on, children, income) {
        return trail.line(L27A, on.scope, Money::ZERO, |i| {
            i.figure("Not available", why);
        });
    }
    let figures = &on.facts.figures;
    let by_earnings = table(figures, on.unit.status, children, earned);
    let credit = if income.agi == earned || income.agi < out_from(class(figures, children), on.unit.status) {
        by_earnings
    } else {
        let by_income = table(figures, on.unit.status, children, income.agi);
        limit::lesser(trail, by_earnings, by_income)
    };
    let most = class(figures, children).most;
    if !credit.is_zero() {
        limit::given(trail, EARNED_INCOME.at(on.scope), Shape::PhaseOut, most, credit);
    }
    trail.line(L27A, on.scope, credit, |i| {
        if !combat.is_zero() {
            i.line(untaxed_pay::L1I, on.scope, combat);
        }
        i.figure("Earned income", earned)
            .line(income::AGI, on.scope, income.agi)
            .figure("Children", children);
        i.figure("At most", most);
    })
}

/// Qualifying children with a number valid for work: claimed here, or living here and failing only the support test.
pub fn children(on: On<'_>) -> usize {
    let counts = |&p: &usize| counts(on, p);
    if on.unit.main { on.facts.candidates().filter(counts).count() } else { 0 }
}

/// Whether someone is a qualifying child with a number valid for work on this return.
pub fn counts(on: On<'_>, person: usize) -> bool {
    let about = &on.facts.people[person];
    let released_away = about.released_away || on.unit.released.contains(&person);
    // A married child must be claimed, or be released to the other parent (§32(c)(3)(B)).
    let released = || dependents::claim_but_for_release(on.facts, &on.unit.people, person).is_ok();
    let claimed = on.unit.dependents.iter().any(|d| d.person == person) || (released_away && released());
    about.work_ssn
        && !on.unit.claimed_elsewhere.contains(&person)
        && (about.married != Some(true) || claimed)
        && dependents::child_but_for_support(on.facts, &on.unit.people, person).is_ok()
}

fn eligible(on: On<'_>, children: usize, income: &Income) -> Result<(), &'static str> {
    let figures = &on.facts.figures.earned_income_credit;
    let people = || on.unit.people.iter().map(|&p| &on.facts.people[p]);
    if on.unit.status == Status::Separate && !(on.facts.apart == Some(true) && children > 0) {
        return Err("a separate return of spouses who lived together");
    }
    if on.unit.only_for_refund {
        return Err("filed only to get back what was withheld");
    }
    if on.unit.status != Status::Joint && people().any(|p| p.nonresident_alien) {
        return Err("nonresident alien in the year");
    }
    if on.unit.status == Status::Head && status::head_by_nonresident(on.facts, on.unit.people[0]) {
        return Err("married, and not living apart from July");
    }
    if people().any(|p| !p.work_ssn) {
        return Err("a filer has no number valid for work");
    }
    if on.unit.status != Status::Joint && on.unit.people.iter().any(|&p| child_of_another(on.facts, p)) {
        return Err("is the qualifying child of someone");
    }
    if invested(income) > figures.investment_income_most {
        return Err("investment income is over the limit");
    }
    if children > 0 {
        return Ok(());
    }
    let end = on.facts.year_end;
    let of_age = people().any(|p| {
        p.reached(figures.childless_from_age, end)
            && p.age(end).is_some_and(|a| a < figures.childless_under_age)
    });
    if !of_age {
        return Err("without a child only from 25 to 64");
    }
    if on.unit.claimable {
        return Err("can be claimed by someone else");
    }
    if people().any(|p| p.home_abroad) {
        return Err("main home abroad");
    }
    Ok(())
}

/// Income of investments (§32(i)(2)).
pub fn invested(income: &Income) -> Money {
    // What business property gained does not count (§32(i)(2)(D)).
    let gains = settled::or_zero(settled::or_zero(income.gains.line_7) - income.property.gain);
    let owned = income.interest + income.exempt_interest + income.dividends + gains;
    let of_children = income.children.rest - income.children.fund;
    let rents = income.rents.for_earned_income_credit + settled::or_zero(income.personal_property);
    owned + rents + of_children
}

/// Whether someone is the qualifying child of another (§32(c)(1)(B)): of a filer of this household, or as was said.
pub fn child_of_another(facts: &Facts, person: usize) -> bool {
    let about = &facts.people[person];
    let here = |&f: &usize| f != person && dependents::qualifying_child(facts, &[f], person).is_ok();
    about.child_elsewhere || (!about.filer && facts.filers.iter().any(here))
}

fn class(figures: &Figures, children: usize) -> &EarnedIncomeClass {
    let classes = &figures.earned_income_credit.classes;
    &classes[settled::lesser(children, classes.len() - 1)]
}

fn out_from(class: &EarnedIncomeClass, status: Status) -> Money {
    if status == Status::Joint { class.out_from_joint } else { class.out_from }
}

/// The table's credit at an amount of earnings or income: the formula at the midpoint of its band, half up; the last
/// band ends where the credit does.
pub fn table(figures: &Figures, status: Status, children: usize, amount: Money) -> Money {
    let class = class(figures, children);
    let start = out_from(class, status);
    let gone = gone_at(class, start);
    if amount <= Money::ZERO || amount >= gone {
        return Money::ZERO;
    }
    let band = figures.earned_income_credit.band;
    let low = amount.rounded(band, Rounding::Down);
    let middle = Money::from_cents((low + settled::lesser(low + band, gone)).cents() / 2);
    let growing = settled::lesser(middle.times(class.rate_in, Money::WHOLE, Rounding::HalfUp), class.most);
    let excess = settled::or_zero(middle - start);
    // The table is rounded once, at the end (§32(f)).
    let left = Money::sum_of_products(
        [(class.most, Rate::ONE), (-excess, class.rate_out)],
        Money::WHOLE,
        Rounding::HalfUp,
    );
    settled::or_zero(settled::lesser(growing, left))
}

/// The whole amount at which nothing is left: start + most ÷ rate, half up.
fn gone_at(class: &EarnedIncomeClass, start: Money) -> Money {
    start + class.most.divided_by(class.rate_out, Money::WHOLE, Rounding::HalfUp)
}

/// Schedule EIC: where the credit is for children.
pub fn schedule_eic(filed: Filed<'_>) -> Required {
    match filed.has(L27A) {
        true => Required::if_so(children(filed.on) > 0, "no child counted"),
        false => Required::No("no earned income credit".into()),
    }
}

/// Whether a young filer with the credit is someone's qualifying child (§32(c)(1)(B)).
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let [credit, wages] = [L27A, income::EARNED].map(|line| points.amount(line, place));
        if credit.is_zero() || !wages.is_zero() {
            continue;
        }
        let businesses = unit.people.iter().flat_map(|&p| business::of(points.facts, p));
        if let Some(paper) =
            businesses.filter(|business| business.is_round()).map(|business| business.paper).next()
        {
            let place = Place::paper(&points.household.papers[paper].id, "1");
            points.raise(&ROUND, place, "The credit rests on a business of round figures without expenses.");
        }
    }
    let credit = points.amounts(L27A).any(|(_, credit)| !credit.is_zero());
    for &filer in points.facts.filers.iter().filter(|_| credit && !points.facts.couple()) {
        if dependents::may_be_claimed(points.facts, filer)
            && !points.said(filer, dependents::ask::CHILD_ELSEWHERE)
        {
            let name = &points.facts.people[filer].name;
            let message = format!("Is {name} the qualifying child of someone else?");
            points.raise(&CHILD_OF_ANOTHER, points.at(filer, dependents::ask::CHILD_ELSEWHERE), message);
        }
    }
}
