//! Child care (ITA 63; form T778): line 21400, of a couple with the lower net income, and with the higher for the weeks in which the
//! other could not care for the children.

use crate::{
    bringing::Bringing,
    business,
    facts::Facts,
    papers::{benefits, t4, t4a},
    plan::{Filed, On},
    points::Points,
    rounding::{STEEPEST, cents},
};
use hembo_core::{
    Paper, Silent,
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    limit::{self, Shape},
    limits, lines, open_points,
    pack::{ANYONE, Question},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: QUESTIONS,
    household_questions: &[Field::count(
        ask::WEEKS_BOTH,
        "",
        "Weeks and months in which both partners studied",
        64,
    )
    .help("Full weeks, and months of part-time studies: form T778, part D.")],
    papers: &[PAID],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["child_care", "basic"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const WEEKS: &str = "care_weeks";
    pub const MONTHS: &str = "care_months";
    pub const WEEKS_BOTH: &str = "care_weeks_both";
}

lines! {
    CHILDREN = "ca.t778.limits", "Child care, limits of the children", "ITA 63(3) 'annual child care expense amount'",
        "An amount for each child by age and certificate, whoever is cared for.";
    EXPENSES = "ca.t778.expenses", "Child care paid", "ITA 63(3) 'child care expense'",
        "Care of the children; of boarding and camps so much a week.";
    EARNED = "ca.t778.earned", "Child care, part of earned income", "ITA 63(1)(e), 63(3) 'earned income'",
        "Two thirds of pay, a business, taxable scholarships and disability benefits.";
    pub DEDUCTED = "ca.21400", "Child care", "ITA 63(1), (2)",
        "The least of what was paid, the limits of the children and a part of earned income.";
}

limits! {
    pub LIMIT = "ca.limit.child_care" on DEDUCTED, "Child care", "over the limits of the children or a part of earned income",
        "ITA 63(1)";
}

open_points! {
    NUMBER = look "C-46", "ITA 63(1)(b)", "Ask for the receipt: an individual's shows the SIN.";
    WITH_INCOME = not_covered "C-47-income", "ITA 63(3) 'eligible child' (b)";
    CHILD = blocks "C-47", "ITA 63(3) 'eligible child'", "Name the child; over 16 only an infirm one counts.";
    WEEKS_MISSING = blocks "C-48", "ITA 63(3)(c)", "Enter the weeks: the limit is by the week.";
    BOTH_STUDENTS = blocks "C-45", "ITA 63(2.2), (2.3)", "Enter the weeks in which both studied, nil where there are none.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Child care that counts, by line; boarding up to its most.
    pub static PAID: Brought = Brought::new();
}

/// Care at home or by the day, or where the child stays overnight.
const KINDS: &[Choice] =
    &[Choice::new("day", "Care by the day"), Choice::new("overnight", "Boarding school or overnight camp")];

const PAID: PaperKind = PaperKind {
    id: "T778",
    subject: subject::ADJUSTMENTS,
    name: "Child care expenses",
    words: "daycare nanny babysitter camp kindergarten boarding",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::person("child", "", "Child"),
        Field::text("what", "", "To whom", 80).payer_name(),
        Field::text("number", "", "Provider's SIN", 11).secret(),
        Field::choice("kind", "", "Kind", KINDS),
        Field::count("weeks", "", "Weeks overnight", 53),
        Field::amount("amount", "", "Paid"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const QUESTIONS: &[Question] = &[
    Question {
        of: ANYONE,
        from_age: 0,
        field: Field::count(ask::WEEKS, "", "Weeks unable to care for the children", 52)
            .help("Full-time student, in hospital, certified unable, in prison, or apart: form T778, parts C and D."),
    },
    Question {
        of: ANYONE,
        from_age: 0,
        field: Field::count(ask::MONTHS, "", "Months as a part-time student", 12)
            .help("Courses of three weeks or more with twelve hours a month: form T778, parts C and D."),
    },
];

/// The limits of a child: for the year, and for a week.
#[derive(Debug, Clone, Copy)]
struct Limits {
    year: Money,
    week: Money,
}

/// The limits of a child, by certificate and by age on the last day of the year.
fn limits(facts: &Facts, child: usize) -> Limits {
    let figures = &facts.figures.child_care;
    let class = match () {
        () if facts.people[child].disabled => &figures.certified,
        () if !facts.reached(child, figures.young_under) => &figures.young,
        () => &figures.older,
    };
    Limits { year: class.year, week: class.week }
}

/// Whether someone is an eligible child: own or a partner's, or another dependant with little income; under 16 at some time in the
/// year, or infirm.
fn eligible(facts: &Facts, person: usize) -> bool {
    let who = &facts.people[person];
    let of_family =
        who.child || (who.related && who.other_net_income <= facts.figures.basic.most && !who.files);
    let young = who.age_on(facts.year_begin).is_some_and(|age| age < facts.figures.child_care.child_under);
    !who.filer && of_family && (young || who.infirm || who.disabled)
}

fn children(facts: &Facts) -> impl Iterator<Item = usize> + '_ {
    (0..facts.people.len()).filter(|&p| eligible(facts, p))
}

fn all_limits(facts: &Facts) -> Money {
    children(facts).map(|child| limits(facts, child).year).sum()
}

fn expenses(facts: &Facts) -> impl Iterator<Item = &Item> + Clone {
    facts.filers.iter().flat_map(|&f| facts.people[f].own.of(&brings::PAID))
}

/// What of a person's income child care asks for.
#[derive(Debug, Clone, Copy)]
pub struct Means {
    /// Net income without line 21400 and without the repayment of benefits.
    pub net: Money,
    /// What a business brings; nothing where it makes a loss.
    pub business: Money,
}

/// Earned income (63(3)): pay, a business, taxable scholarships and disability benefits of the pension plan.
fn earned(facts: &Facts, person: usize, business: Money) -> Money {
    let own = &facts.people[person].own;
    let paid = sum(own.of(&t4::brings::EMPLOYMENT)) + sum(own.of(&t4a::brings::SCHOLARSHIPS));
    paid + business + sum(own.of(&benefits::brings::CPP_DISABILITY))
}

/// The most that a person may claim alone: the least of what was paid, the limits, and a part of earned income.
fn alone(facts: &Facts, trail: &mut impl Trail, earned: Money) -> Money {
    let part = cents(earned, facts.figures.child_care.earned_part);
    limit::lesser(trail, settled::lesser(sum(expenses(facts)), all_limits(facts)), part)
}

/// The same in the way in which most is earned.
fn most_alone(facts: &Facts, person: usize) -> Money {
    alone(facts, &mut Silent, earned(facts, person, business::most(facts, person)))
}

/// What is claimed at the most for the weeks and months of someone who could not care for the children.
fn for_weeks(facts: &Facts, of: usize) -> Money {
    weekly(facts) * (facts.people[of].care_weeks + facts.people[of].care_months)
}

fn weekly(facts: &Facts) -> Money {
    children(facts).map(|child| limits(facts, child).week).sum()
}

/// Whether anything was paid for a child of the household.
pub fn any(facts: &Facts) -> bool {
    expenses(facts).next().is_some()
}

/// Line 21400, with what of one's own income and of the partner's it asks for.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, own: Means, partner: Option<Means>) -> Money {
    let facts = on.facts;
    if !on.who().filer || !any(facts) {
        return Money::ZERO;
    }
    let mine = earned(facts, on.person, own.business);
    let most = alone(facts, trail, mine);
    let all = sum(expenses(facts));
    let (claimed, wanted) = match facts.partner(on.person).zip(partner) {
        None => (with_studies(on, trail, most, own.net), all),
        Some((partner, theirs)) => {
            let lower = lower(on, trail, own.net, partner, theirs.net);
            let of_higher = match facts.elsewhere {
                Some(elsewhere) if elsewhere != lower => facts.people[elsewhere].told.care,
                _ => {
                    let of_other = match lower == on.person {
                        true => alone(facts, trail, earned(facts, partner, theirs.business)),
                        false => most,
                    };
                    let most = limit::lesser(trail, of_other, for_weeks(facts, lower));
                    // All that the weeks of a partner allow whose return is not here.
                    let open = if facts.elsewhere.is_some() { most } else { Money::ZERO };
                    limit::lesser(trail, on.plan.care_of_higher.unwrap_or(open), most)
                }
            };
            match lower == on.person {
                true => {
                    let alone = limit::or_zero(trail, most - of_higher);
                    (with_studies_of_both(on, trail, alone, of_higher, own.net), all - of_higher)
                }
                false => (of_higher, of_higher),
            }
        }
    };
    line(on, trail, claimed, wanted, mine)
}

/// The lines of form T778; `wanted` is what was paid and nobody else claims.
fn line(on: On<'_>, trail: &mut impl Trail, claimed: Money, wanted: Money, earned: Money) -> Money {
    let facts = on.facts;
    if claimed.is_zero() {
        return claimed;
    }
    let limits = on.made(trail, CHILDREN, all_limits(facts), &[], &[]);
    let paid = on.gather(trail, EXPENSES, expenses(facts));
    let part = facts.figures.child_care.earned_part;
    let of_earned = cents(earned, part);
    on.made(trail, EARNED, of_earned, &[], &[("Earned income", &earned), ("Part", &part)]);
    // No edge of its own: it is claimed already, and where nothing is the line ends before.
    let wanted = settled::greater(wanted, claimed);
    let allowed = limit::given(trail, LIMIT.at(on.scope), Shape::Cap, wanted, claimed);
    let made = [(EXPENSES, paid), (CHILDREN, limits), (EARNED, of_earned)];
    on.made(trail, DEDUCTED, allowed, &made, &[])
}

/// Of who is alone and studied (part D): more of net income, for the weeks and months of studies.
fn with_studies(on: On<'_>, trail: &mut impl Trail, most: Money, own: Money) -> Money {
    let left = settled::lesser(sum(expenses(on.facts)), all_limits(on.facts)) - most;
    of_net_income(on, trail, most, left, for_weeks(on.facts, on.person), own)
}

/// The same of a couple, for the weeks and months in which both studied, with the lower net income; `of_higher` is what the other
/// claims.
fn with_studies_of_both(
    on: On<'_>,
    trail: &mut impl Trail,
    most: Money,
    of_higher: Money,
    own: Money,
) -> Money {
    let all = settled::lesser(sum(expenses(on.facts)), all_limits(on.facts));
    let left = limit::or_zero(trail, all - of_higher - most);
    of_net_income(on, trail, most, left, weekly(on.facts) * on.facts.care_weeks_both, own)
}

/// What is claimed with a part of net income, within what is left and the limit for the weeks.
fn of_net_income(
    on: On<'_>,
    trail: &mut impl Trail,
    most: Money,
    left: Money,
    for_weeks: Money,
    own: Money,
) -> Money {
    if for_weeks.is_zero() {
        return most;
    }
    let part = cents(limit::or_zero(trail, own), on.facts.figures.child_care.earned_part);
    let of_income = limit::or_zero(trail, part - most);
    let within = limit::lesser(trail, left, for_weeks);
    most + limit::lesser(trail, within, of_income)
}

fn other(facts: &Facts, person: usize) -> usize {
    facts.partner(person).unwrap_or(person)
}

/// Who of a couple has the lower net income, and so claims: of equals who they agree on.
fn lower(on: On<'_>, trail: &mut impl Trail, own: Money, partner: usize, theirs: Money) -> usize {
    let facts = on.facts;
    if let Some(by) = on.plan.world.and_then(|world| world.care_by).or(on.plan.care_by) {
        return by;
    }
    let first = facts.filers[0] == on.person;
    let (one, of_one, of_other) = if first { (on.person, own, theirs) } else { (partner, theirs, own) };
    let more = of_one - of_other - Money::CENT;
    trail.step(more, true);
    if more.is_negative() { one } else { other(facts, one) }
}

/// By how much the total jumps at the most where the partners change places: all that is claimed moves.
pub fn most_claimed(facts: &Facts) -> Money {
    let alone = facts.filers.iter().map(|&f| most_alone(facts, f)).max().unwrap_or_default();
    let of_both = settled::lesser(sum(expenses(facts)), all_limits(facts));
    if facts.care_weeks_both > 0 { of_both } else { alone }
}

/// Who of a couple with the same net income claims, where nothing moves it: options by place among the filers.
pub static BY: Open<Facts> = Open::new(
    |facts| if facts.couple && any(facts) && facts.care_by_agreement { vec![0] } else { Vec::new() },
    |facts, _| {
        let options = facts.filer_options(|name| format!("child care with {name}"));
        Decision::between("ca.care", "Who claims child care", "ITA 63(2.1)", options)
    },
);

/// How much the partner with the higher net income claims for the weeks of the other.
pub static OF_HIGHER: Open<Facts> = Open::new(
    |facts| if facts.couple && any(facts) && !most_of_higher(facts).is_zero() { vec![0] } else { Vec::new() },
    |facts, _| {
        let amount = Amount {
            most: most_of_higher(facts),
            short: "child care with the higher income".into(),
            more: More::MayCost,
            steepest: STEEPEST,
        };
        Decision::amount(
            "ca.care.higher",
            "Child care that the higher income claims",
            "ITA 63(2), (2.1); form T778, part C",
            amount,
        )
    },
);

fn most_of_higher(facts: &Facts) -> Money {
    let most =
        |&lower: &usize| settled::lesser(most_alone(facts, other(facts, lower)), for_weeks(facts, lower));
    facts.filers.iter().map(most).max().unwrap_or_default()
}

/// Who claims in a way, where that is left to the couple.
pub fn chosen_by(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<usize> {
    way.taken(&BY, 0).map(|place| facts.filers[place])
}

/// How much the higher income claims in a way.
pub fn chosen_of_higher(way: Chosen<'_, '_, Facts>) -> Option<Money> {
    way.amount(&OF_HIGHER, 0)
}

/// Form T778: where child care is claimed.
pub fn form_t778(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(DEDUCTED), "no child care claimed here")
}

/// Care of eligible children; of boarding so much a week.
pub fn read(paper: &mut Bringing<'_>) {
    for (row, cells, paid) in paper.paper.lines("amount") {
        let named = cells.get("child").and_then(Entry::text);
        let Some(child) = named.and_then(|id| paper.paper.household.index_of(id)) else { continue };
        if !eligible(paper.facts, child) {
            continue;
        }
        let overnight = cells.get("kind").and_then(Entry::text) == Some("overnight");
        let weeks = cells.get("weeks").and_then(Entry::count).unwrap_or(0);
        let most = if overnight { limits(paper.facts, child).week * weeks } else { paid };
        let counted = settled::lesser(paid, most);
        paper.facts.people[child].care_claimed += counted;
        paper.put("amount", Some(row), counted, &brings::PAID);
    }
}

/// Children who do not count, and what is missing.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAID.id) {
        of_paper(points, paper);
    }
    let facts = points.facts;
    let studies = |&f: &usize| facts.people[f].care_weeks + facts.people[f].care_months > 0;
    let asked = facts.couple && any(facts) && facts.filers.iter().all(studies);
    if asked && points.answered(ask::WEEKS_BOTH).is_none() {
        let place = Place::household(ask::WEEKS_BOTH);
        points.raise(&BOTH_STUDENTS, place, "In how many weeks did both study?");
    }
}

fn of_paper(points: &mut Points<'_>, paper: &Paper) {
    for cells in &paper.rows {
        let child = cells.get("child").and_then(Entry::text).and_then(|id| points.household.index_of(id));
        let relative = |c: usize| {
            let who = &points.facts.people[c];
            !who.filer && !who.child && who.related && who.files
        };
        if child.is_some_and(relative) {
            let message = "Another child with papers of one's own: whether the income is low enough is not computed yet.";
            points.raise(&WITH_INCOME, Place::row(&paper.id, cells, "child"), message);
        } else if child.is_none_or(|child| !eligible(points.facts, child)) {
            let message =
                "No child under 16 at some time in the year, and none who is infirm: the line is left out.";
            points.raise(&CHILD, Place::row(&paper.id, cells, "child"), message);
        }
        let overnight = cells.get("kind").and_then(Entry::text) == Some("overnight");
        if overnight && !cells.contains_key("weeks") {
            points.raise(&WEEKS_MISSING, Place::row(&paper.id, cells, "weeks"), "For how many weeks?");
        }
        if cells.get("number").and_then(Entry::text).is_none_or(str::is_empty) {
            let message = "Who is no company or school needs a SIN on the receipt.";
            points.raise(&NUMBER, Place::row(&paper.id, cells, "number"), message);
        }
    }
}
