//! The disability amount (ITA 118.3): lines 31600 and 31800, and in the same form lines 58440 and 58480 of a province.

use crate::{
    facts::Facts,
    figures::Provincial,
    income::{self, Incomes},
    personal,
    plan::On,
    points::Points,
    province, tuition,
};
use hembo_core::{
    field::Field,
    household::Entry,
    limit, limits,
    line::LineId,
    lines, open_points,
    pack::{ANYONE, DEPENDENT, Question},
    point::Gather,
    provision::Provision,
    settled,
    trail::{Trail, Unseen},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: QUESTIONS,
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["disability", "medical", "brackets", "basic"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const CARE: &str = "care_claimed";
    pub const ATTENDANT: &str = "attendant";
}

lines! {
    pub OWN = "ca.31600", "Disability amount", "ITA 118.3(1)",
        "For who has an approved certificate; more under 18, less care that is claimed for the child.";
    pub TRANSFERRED = "ca.31800", "Disability amount of a dependant", "ITA 118.3(2)",
        "What of a dependant's amount that one's own income does not need.";
    pub PROVINCIAL_OWN = "ca.58440", "Disability amount, province", "Income tax acts of the provinces; form 428",
        "The same with the figures of the province.";
    pub PROVINCIAL_TRANSFERRED = "ca.58480", "Disability amount of a dependant, province", "Income tax acts of the provinces; form 428",
        "The same with the figures of the province.";
}

limits! {
    pub NEEDED = "ca.limit.disability" on TRANSFERRED, "Disability amount of a dependant", "needed for the dependant's own income",
        "ITA 118.3(2)";
    pub NEEDED_PROVINCIAL = "ca.limit.disability_provincial" on PROVINCIAL_TRANSFERRED, "Disability amount of a dependant, province", "needed for the dependant's own income",
        "Income tax acts of the provinces; form 428";
}

open_points! {
    NOT_HELD = not_covered "disability-supplement", "Form 428 of the province";
    PAPERS = blocks "disability-papers", "ITA 118.3(2)",
        "Key the papers of the dependant: pensions, pay and contributions have amounts of their own.";
    ATTENDANT_ASKED = blocks "C-54", "ITA 118.3(1)(c)",
        "Such care rules the disability amount out: answer for the person.";
    ATTENDANT = not_weighed "C-54-either", "ITA 118.3(1)(c)",
        "Reckon it also without these receipts and with the answer no: one of the two is claimed, and only this one is weighed.";
}

/// The amount, the supplement of a child, and from what care on that shrinks; nothing where a province's is not held.
#[derive(Debug, Clone, Copy)]
struct Amounts {
    amount: Money,
    child: Option<Money>,
    care_from: Option<Money>,
}

fn federal_amounts(facts: &Facts) -> Amounts {
    let figures = &facts.figures.disability;
    Amounts { amount: figures.amount, child: Some(figures.child), care_from: Some(figures.care_from) }
}

fn provincial_amounts(facts: &Facts) -> Amounts {
    let figures = province::relatives(facts);
    Amounts {
        amount: figures.map(|f| f.disability).unwrap_or_default(),
        child: figures.and_then(|f| f.disability_child),
        care_from: figures.and_then(|f| f.care_from),
    }
}

fn under_18(facts: &Facts, person: usize) -> bool {
    facts.people[person].born.is_some() && !facts.reached(person, facts.figures.medical.child_under)
}

/// The whole amount of a person with a certificate: under 18 with the supplement, less care above its start.
fn whole(facts: &Facts, person: usize, of: Amounts) -> Money {
    if !facts.people[person].disabled {
        return Money::ZERO;
    }
    let care = facts.people[person].care_claimed;
    let over = of.care_from.map_or(Money::ZERO, |from| settled::or_zero(care - from));
    let child = if under_18(facts, person) { of.child.unwrap_or_default() } else { Money::ZERO };
    of.amount + settled::or_zero(child - over)
}

/// Line 31600.
pub fn own(on: On<'_>, trail: &mut impl Trail) -> Money {
    of_oneself(on, trail, OWN, federal_amounts(on.facts))
}

/// Line 58440.
pub fn provincial_own(on: On<'_>, trail: &mut impl Trail) -> Money {
    of_oneself(on, trail, PROVINCIAL_OWN, provincial_amounts(on.facts))
}

fn of_oneself(on: On<'_>, trail: &mut impl Trail, line: LineId, of: Amounts) -> Money {
    let amount = whole(on.facts, on.person, of);
    let supplement = amount - settled::lesser(amount, of.amount);
    on.made_by_days(
        trail,
        line,
        amount,
        &[],
        &[("Amount", &of.amount), ("Supplement of a child", &supplement)],
    )
}

/// Line 31800: of each dependant for whom this return claims, what the dependant's own income does not need.
pub fn transferred(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let mut each = Vec::new();
    for person in disabled(on) {
        let of = on.of(person);
        let others = personal::federal(of, &mut Unseen(trail), incomes).before_transfers();
        let brackets = &on.facts.figures.brackets;
        let to_cover = tuition::to_cover(trail, incomes[person].taxable, &brackets.tops, &brackets.rates);
        let amount = whole(on.facts, person, federal_amounts(on.facts));
        let left = limit::or_zero(trail, amount + others - to_cover);
        each.push((person, limit::cap(trail, NEEDED.at(on.scope), amount, left)));
    }
    line(on, trail, TRANSFERRED, incomes, &each)
}

/// Line 58480.
pub fn provincial_transferred(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    figures: &Provincial,
) -> Money {
    let mut each = Vec::new();
    for person in disabled(on) {
        let of = on.of(person);
        let federal = personal::federal(of, &mut Unseen(trail), incomes);
        let others = match province::mirrors(on.facts) {
            true => federal,
            false => {
                let changed = province::changed(of, &mut Unseen(trail), incomes, figures);
                personal::provincial(of, &mut Unseen(trail), incomes, figures, changed, federal)
            }
        };
        let others = others.before_transfers();
        let to_cover = tuition::to_cover(trail, incomes[person].taxable, &figures.tops, &figures.rates);
        let amount = whole(on.facts, person, provincial_amounts(on.facts));
        let left = limit::or_zero(trail, amount + others - to_cover);
        each.push((person, limit::cap(trail, NEEDED_PROVINCIAL.at(on.scope), amount, left)));
    }
    line(on, trail, PROVINCIAL_TRANSFERRED, incomes, &each)
}

fn disabled(on: On<'_>) -> impl Iterator<Item = usize> + '_ {
    on.claimed().filter(move |&p| on.facts.people[p].disabled)
}

fn line(
    on: On<'_>,
    trail: &mut impl Trail,
    line: LineId,
    incomes: &Incomes,
    each: &[(usize, Money)],
) -> Money {
    let total = on.by_days(each.iter().map(|(_, amount)| *amount).sum());
    trail.line(line, on.scope, total, |i| {
        for &(person, amount) in each {
            i.figure("Not needed by the dependant", amount);
            if on.facts.returns.contains(&person) {
                i.line(income::TAXABLE, on.of(person).scope, incomes[person].taxable);
            }
        }
    })
}

const QUESTIONS: &[Question] = &[
    Question {
        of: DEPENDENT,
        from_age: 0,
        field: Field::amount(ask::CARE, "", "Attendant care claimed for this child")
            .help("Beside child care on form T778: it takes from the supplement of the disability amount."),
    },
    Question {
        of: ANYONE,
        from_age: 0,
        field: Field::yes_no(ask::ATTENDANT, "", "Full-time care among the medical receipts").help(
            "Full-time attendant or nursing-home care of over 10,000: then there is no disability amount.",
        ),
    },
];

/// Supplements of a province that are not held, and care that rules the amount out.
pub fn points(points: &mut Points<'_>) {
    for person in 0..points.facts.people.len() {
        let who = &points.household.people[person];
        let flag = |field: &str| who.answers.get(field).and_then(Entry::flag);
        if flag(crate::people::ask::DISABILITY) == Some(true) {
            supplement(points, person);
            papers_wanted(points, person);
            attendant(points, person, flag(ask::ATTENDANT));
        }
    }
}

fn supplement(points: &mut Points<'_>, person: usize) {
    let facts = points.facts;
    let of = provincial_amounts(facts);
    let unknown =
        of.child.is_none() || (of.care_from.is_none() && !facts.people[person].care_claimed.is_zero());
    if facts.province.is_some() && under_18(facts, person) && unknown {
        let message =
            format!("The province's disability supplement of {} is not held.", facts.people[person].name);
        points.raise(&NOT_HELD, points.at(person, "name"), message);
    }
}

fn has_receipts(facts: &Facts) -> bool {
    !facts.medical.is_empty()
        || facts.medical_of_others.iter().chain(&facts.medical_of_dead).any(|receipts| !receipts.is_empty())
}

/// Of a dependant without papers only net income is known: what credits the papers would bring raises what is transferred.
fn papers_wanted(points: &mut Points<'_>, person: usize) {
    let (facts, who) = (points.facts, &points.facts.people[person]);
    let amount = whole(facts, person, federal_amounts(facts));
    let needed = who.other_net_income > facts.figures.basic.most;
    if !who.filer && !who.files && needed && !amount.is_zero() {
        let message =
            format!("{} may need less of the disability amount than net income alone tells.", who.name);
        points.raise(&PAPERS, points.at(person, crate::people::ask::NET_INCOME), message);
    }
}

fn attendant(points: &mut Points<'_>, person: usize, said: Option<bool>) {
    let name = &points.facts.people[person].name;
    let place = points.at(person, ask::ATTENDANT);
    match said {
        None if has_receipts(points.facts) => {
            let message =
                format!("Is full-time attendant or nursing-home care of {name} among the medical receipts?");
            points.raise(&ATTENDANT_ASKED, place, message);
        }
        Some(true) => {
            let message = format!(
                "{name} has full-time care among the medical receipts instead of the disability amount."
            );
            points.raise(&ATTENDANT, place, message);
        }
        _ => {}
    }
}
