//! Children (§§10(1) Nr.5, 9, 24b, 31, 32, 33a(2), 33b(5), 66 EStG; Anlage Kind): the allowances against the benefit, care and school, the
//! relief of who is alone, what passes from them.

use crate::{
    bringing::Bringing,
    disability,
    facts::{Child, Facts},
    people::ask,
    plan::{On, TakenOver},
    points::Points,
    rounding::{euros_up, part_up, parts_up, portion_up},
    tariff::{self, Taxed},
};
use hembo_core::{
    Decision,
    choice::{Chosen, Open},
    decision::Opt,
    field::{Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Children",
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    papers: &[PAID],
    figures: &["children", "special", "supports", "tariff"],
    ..Provision::NONE
};

lines! {
    pub CARE = "de.childcare", "Care of children (Kinderbetreuung)", "§10(1) Nr.5",
        "A part of what was paid for care, up to a most of each child.";
    pub SCHOOL = "de.school", "School fees (Schulgeld)", "§10(1) Nr.9", "A part, up to a most of each child.";
    pub TRAINING = "de.training_away", "Training away from home", "§33a(2)", "For each month of a child of full age.";
    pub ALONE = "de.single_parent", "Relief of who is alone (Alleinerziehende)", "§24b",
        "For each month alone with a child in the home.";
    pub ALLOWANCES = "de.child_allowances", "Allowances of children (Kinderfreibeträge)", "§32(6)",
        "Of those for whom they save more than the benefit.";
    pub BENEFIT = "de.child_benefit_added", "Benefit of children added (Kindergeld)", "§§31 S.4, 2(6) S.3",
        "Of those for whom the allowances were used.";
}

limits! {
    CARE_MOST = "de.limit.care" on CARE, "Care of children", "over the most of a child", "§10(1) Nr.5";
    SCHOOL_MOST = "de.limit.school" on SCHOOL, "School fees", "over the most of a child", "§10(1) Nr.9";
}

open_points! {
    CHILD_NUMBER = blocks "DE-C24", "§§32, 139b AO", "Enter the identification number of the child: Anlage Kind asks for it.";
    TOO_OLD = blocks "DE-C25", "§32(4)", "From 25 on a child counts only if it was disabled before: say so, or leave it out.";
    GROUND_ASKED = blocks "DE-C26", "§32(4)", "Say why the child counts from 18 on, or the months before.";
    BENEFIT_MORE = look "DE-C27", "§§62 to 66", "Months with a right to Kindergeld beyond those of the allowances: compare them.";
    CARE_AGE = blocks "DE-C28", "§10(1) Nr.5", "Care counts below 14, or of a child disabled before 25: take the paper away.";
    CARE_CASH = blocks "DE-C29", "§10(1) Nr.5 S.4", "Only what was paid to an account against an invoice counts.";
    SCHOOL_MANY = look "DE-C43", "§10(1) Nr.9", "No more than the most of a child counts.";
    AT_HOME = blocks "DE-C32", "§33a(2)", "Training away from home counts from 18 on: compare the months.";
    NOT_ALONE = blocks "DE-C33", "§24b", "The relief is of who lives alone with children: clear the months, or the other adult.";
    OWN_HOUSEHOLD = blocks "alone-apart", "§24b", "Of two who live apart each is prepared alone for this relief: divide the household.";
    PARENT_ASKED = blocks "parent", "§32(6) S.1", "Say which spouse is the parent: assessed alone, the other has no allowances of it.";
    CARE_OF_AGE = not_weighed "care-of-age", "§32(6) S.8", "Taking it over for the months before 18 is not weighed: compare it on the official form.";
    WHOSE = blocks "child-paper", "§10(1) Nr.5, 9", "Say of which child it is.";
}

/// What its papers bring.
pub mod brings {
    use super::ForChild;
    use hembo_core::brought::Brought;

    /// Care that was paid.
    pub static CARE: Brought<ForChild> = Brought::new();
    /// School fees that were paid.
    pub static SCHOOL: Brought<ForChild> = Brought::new();
}

/// An amount for a child.
#[derive(Debug, Clone, Copy)]
pub struct ForChild {
    /// The child, by place among the people.
    pub child: usize,
    /// The amount.
    pub item: Item,
}

const PAID: PaperKind = PaperKind {
    id: "Care and school",
    subject: subject::DEDUCTIONS,
    name: "Care and school of a child, Anlage Kind",
    words: "kindergarten kita nursery school fees betreuung",
    title: "Provider",
    shared: true,
    headline: "care",
    boxes: &[
        Field::person("child", "", "Child"),
        Field::amount("care", "", "Care, without meals"),
        Field::yes_no("transferred", "", "Invoice, and paid to an account"),
        Field::amount("school", "", "School fees, without board"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives care and school to who paid them.
pub fn read(paper: &mut Bringing<'_>) {
    let Some(child) = paper.paper.household.index_of(paper.text("child")) else { return };
    for (field, kind) in [("care", &brings::CARE), ("school", &brings::SCHOOL)] {
        for (person, item) in paper.paper.of_box(field) {
            paper.facts.people[person].own.add(kind, ForChild { child, item });
        }
    }
}

/// What was paid for a child by those who are assessed, a half of all where the way divides so.
fn paid_for(on: On<'_>, kind: &'static hembo_core::brought::Brought<ForChild>, child: usize) -> Money {
    let of = |person: usize| {
        let own = on.own(person).of(kind).iter().filter(|paid| paid.child == child);
        own.map(|paid| paid.item.amount).sum::<Money>()
    };
    if on.halves() {
        return crate::rounding::half_up(on.facts.filers.iter().map(|&person| of(person)).sum());
    }
    on.people.iter().map(|&person| of(person)).sum()
}

/// The most of a child: of each parent a half where they are assessed apart.
fn most_of(on: On<'_>, most: Money) -> Money {
    if on.plan.alone && on.facts.couple() { portion_up(most, 1, 2) } else { most }
}

/// §10(1) Nr.5.
pub fn care(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.special;
    let mut all = Money::ZERO;
    for child in &on.facts.children {
        let part = parts_up(paid_for(on, &brings::CARE, child.person), figures.care_parts, figures.care_of);
        all += limit::cap(trail, CARE_MOST.at(on.scope), part, most_of(on, figures.care_most));
    }
    let items: Vec<_> =
        on.people.iter().flat_map(|&p| on.own(p).of(&brings::CARE)).map(|paid| &paid.item).collect();
    trail.line(CARE, on.scope, all, |i| _ = i.items(items))
}

/// §10(1) Nr.9.
pub fn school(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.special;
    let mut all = Money::ZERO;
    for child in &on.facts.children {
        let part = part_up(paid_for(on, &brings::SCHOOL, child.person), figures.school_rate);
        all += limit::cap(trail, SCHOOL_MOST.at(on.scope), part, most_of(on, figures.school_most));
    }
    let items: Vec<_> =
        on.people.iter().flat_map(|&p| on.own(p).of(&brings::SCHOOL)).map(|paid| &paid.item).collect();
    trail.line(SCHOOL, on.scope, all, |i| _ = i.items(items))
}

/// The part of a child's amount that the parents of an assessment have: together what the household has of it, apart as the way gives it.
fn part_of(on: On<'_>, child: usize, of: Child, given: &[(usize, usize)], amount: Money) -> Money {
    let here = portion_up(amount, of.lump_percent, 100);
    if !on.apart() {
        return here;
    }
    if of.parent.is_some() {
        return if is_of_another(on, of) { Money::ZERO } else { here };
    }
    match given.iter().find(|(at, _)| *at == child) {
        Some((_, person)) if on.people.contains(person) => here,
        Some(_) => Money::ZERO,
        None => portion_up(here, 1, 2),
    }
}

/// §33a(2).
pub fn training_away(on: On<'_>, trail: &mut impl Trail) -> Money {
    let year = on.facts.figures.supports.training_away;
    let of = |(at, child): (usize, &Child)| {
        // Of a child abroad by its country group (§33a(2) S.2).
        let amount = portion_up(year, child.away_months * child.quarters, 48);
        part_of(on, at, *child, &on.plan.training_to, amount)
    };
    let all = on.facts.children.iter().enumerate().map(of).sum();
    on.made(trail, TRAINING, all, &[], &[("A year", &year)])
}

/// §33b(5): what passes of children's lump sums of disability.
pub fn lumps(on: On<'_>) -> Money {
    let of = |(at, child): (usize, &Child)| {
        let amount = disability::lump(&on.facts.figures, child.disability);
        part_of(on, at, *child, &on.plan.lump_to, amount)
    };
    on.facts.children.iter().enumerate().map(of).sum()
}

/// §§33(2a) S.6, 33b(5): what passes of children's lump sums of travel, with those of their disability.
pub fn trips(on: On<'_>) -> Money {
    let of = |(at, child): (usize, &Child)| {
        let amount = disability::travel(&on.facts.figures, child.disability);
        part_of(on, at, *child, &on.plan.lump_to, amount)
    };
    on.facts.children.iter().enumerate().map(of).sum()
}

/// §24b: of who is alone, for each month with a child in the home.
pub fn alone(on: On<'_>, trail: &mut impl Trail) -> Money {
    let facts = on.facts;
    let figures = &facts.figures.children;
    let open = facts.filers.len() == 1 && !facts.with_adult && !facts.widowed;
    let months: Vec<i64> =
        facts.children.iter().map(|child| child.household_months).filter(|m| *m > 0).collect();
    if !open || months.is_empty() {
        return Money::ZERO;
    }
    let most = months.iter().copied().fold(0, settled::greater);
    let first = months.iter().position(|m| *m == most).unwrap_or(0);
    let further = months.iter().enumerate().filter(|(at, _)| *at != first);
    let relief = portion_up(figures.alone, most, 12)
        + further.map(|(_, m)| portion_up(figures.alone_further, *m, 12)).sum::<Money>();
    on.made(trail, ALONE, relief, &[], &[("Children", &months.len()), ("Months", &most)])
}

/// Whether a child is of the spouse alone who is not assessed here.
fn is_of_another(on: On<'_>, child: Child) -> bool {
    on.apart() && child.parent.is_some_and(|parent| !on.people.contains(&parent))
}

/// Both allowances of a child in an assessment, and the benefit that stands against them.
fn of_child(on: On<'_>, at: usize, child: Child) -> [Money; 2] {
    let figures = &on.facts.figures.children;
    // In parts of both parents' whole: a half of who is assessed apart, and where a parent outside keeps the other.
    let own = if child.half || on.apart() { 1 } else { 2 };
    let own = if is_of_another(on, child) { 0 } else { own };
    let taken_over = on.plan.taken_over.get(at).copied().unwrap_or_default();
    let of_both = |taken_over: bool| if taken_over { own * 2 } else { own };
    let share =
        |amount: Money, parts: i64| portion_up(amount, child.months * parts * child.quarters, 12 * 2 * 4);
    let allowance = share(figures.allowance, of_both(taken_over == TakenOver::All))
        + share(figures.care_allowance, of_both(taken_over != TakenOver::Nothing));
    let benefit = figures.benefit * child.benefit_months;
    let benefit = benefit.in_proportion(
        Money::whole(of_both(taken_over == TakenOver::All)),
        Money::whole(2),
        Money::CENT,
        hembo_money::Rounding::HalfUp,
    );
    [allowance, benefit]
}

/// All allowances, as surcharge and church tax always take them (§51a(2)).
pub fn all_allowances(on: On<'_>) -> Money {
    on.facts.children.iter().enumerate().map(|(at, child)| of_child(on, at, *child)[0]).sum()
}

/// §31: child by child, the oldest first, the allowances where they save more than the benefit. The allowances used, and the benefit that is
/// added.
pub fn compare(on: On<'_>, trail: &mut impl Trail, of: Taxed) -> [Money; 2] {
    let mut order: Vec<(usize, &Child)> = on.facts.children.iter().enumerate().collect();
    order.sort_by_key(|(_, child)| child.born);
    let tax = |income: Money| {
        let taxed = Taxed { income: crate::rounding::euros_down(settled::or_zero(income)), ..of };
        tariff::tax(&on.facts.figures.tariff, on.table(), taxed)
    };
    let (mut used, mut added) = (Money::ZERO, Money::ZERO);
    for (at, child) in order {
        let [allowance, benefit] = of_child(on, at, *child);
        let before = of.income - used;
        if tax(before) - tax(before - allowance) > benefit {
            used += allowance;
            added += benefit;
        }
    }
    on.made(trail, ALLOWANCES, used, &[], &[("Children", &on.facts.children.len())]);
    on.made(trail, BENEFIT, euros_up(added), &[(ALLOWANCES, used)], &[]);
    [used, euros_up(added)]
}

/// What of the other half of a child's allowances is taken over, by the child.
pub static OTHER_HALF: Open<Facts> = Open::new(
    |facts: &Facts| {
        let open = |child: &Child| child.unsupported || child.registered;
        facts.children.iter().enumerate().filter(|(_, child)| open(child)).map(|(at, _)| at).collect()
    },
    |facts, at| {
        let child = facts.children[at];
        let name = facts.first_name(child.person);
        let mut options = vec![Opt::new(LEFT, "Left with the parent outside", "")];
        if child.registered {
            options.push(Opt::new(
                CARE_OVER,
                "The care allowance taken over",
                format!("care allowance of {name} taken over"),
            ));
        }
        if child.unsupported {
            options.push(Opt::new(
                ALL_OVER,
                "Both allowances taken over",
                format!("allowances of {name} taken over"),
            ));
        }
        let id = format!("de.other_half.{}", facts.people[child.person].id);
        Decision::between(id, format!("Other half of the allowances of {name}"), "§32(6) S.6 to 9", options)
    },
);

const LEFT: &str = "left";
const CARE_OVER: &str = "care";
const ALL_OVER: &str = "all";

/// What is taken over in a way, by child.
pub fn taken_over(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<TakenOver> {
    let of = |at: usize| match way.option(&OTHER_HALF, at).map(|option| option.id.as_str()) {
        Some(CARE_OVER) => TakenOver::Care,
        Some(ALL_OVER) => TakenOver::All,
        _ => TakenOver::Nothing,
    };
    (0..facts.children.len()).map(of).collect()
}

/// To whom a child's lump sum of disability goes where the parents are assessed apart, by the child (§33b(5)).
pub static LUMP_TO: Open<Facts> = Open::new(
    |facts: &Facts| with(facts, |child| !disability::lump(&facts.figures, child.disability).is_zero()),
    |facts, child| to_whom(facts, child, "lump", "Disability lump sum", "§33b(5)"),
)
.arises(|facts, _, way| crate::filing::alone(facts, way));

/// To whom a child's lump sum of training goes (§33a(2) S.5).
pub static TRAINING_TO: Open<Facts> = Open::new(
    |facts: &Facts| with(facts, |child| child.away_months > 0),
    |facts, child| to_whom(facts, child, "training", "Training away from home", "§33a(2) S.5"),
)
.arises(|facts, _, way| crate::filing::alone(facts, way));

fn with(facts: &Facts, is: impl Fn(&Child) -> bool) -> Vec<usize> {
    if !facts.couple() {
        return Vec::new();
    }
    // Of a child of one of them alone they go with its allowances.
    facts
        .children
        .iter()
        .enumerate()
        .filter(|(_, child)| child.parent.is_none() && is(child))
        .map(|(at, _)| at)
        .collect()
}

fn to_whom(facts: &Facts, child: usize, id: &str, what: &str, cite: &'static str) -> Decision {
    let person = facts.children[child].person;
    let name = facts.first_name(person);
    let to = |&filer: &usize| {
        let to = facts.first_name(filer);
        Opt::new(
            facts.people[filer].id.clone(),
            format!("To {to}"),
            format!("{} of {name} to {to}", what.to_lowercase()),
        )
    };
    let mut options = vec![Opt::new("half", "A half to each", "")];
    options.extend(facts.filers.iter().map(to));
    let id = format!("de.{id}.{}", facts.people[person].id);
    Decision::between(id, format!("{what} of {name}"), cite, options)
}

/// To whom lump sums go in a way: the child and the filer.
pub fn chosen(
    facts: &Facts,
    way: Chosen<'_, '_, Facts>,
    choice: &'static Open<Facts>,
) -> Vec<(usize, usize)> {
    let of = |child: usize| match way.taken(choice, child) {
        Some(at) if at > 0 => Some((child, facts.filers[at - 1])),
        _ => None,
    };
    (0..facts.children.len()).filter_map(of).collect()
}

/// What is missing or unlikely about children and what was paid for them.
pub fn points(points: &mut Points<'_>) {
    for child in &points.facts.children {
        one(points, *child);
    }
    for paper in points.papers(PAID.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let child = paper.text("child").and_then(|id| points.household.index_of(id));
        let Some(child) = child.and_then(|person| points.facts.children.iter().find(|c| c.person == person))
        else {
            points.raise(&WHOSE, at("child"), "Care or school of which child?");
            continue;
        };
        let name = points.facts.first_name(child.person).to_owned();
        let care = paper.amount("care") > Money::ZERO;
        let ages = &points.facts.figures.children;
        if care
            && age_before(points, *child).is_some_and(|age| age >= ages.care_below)
            && child.disability.degree == 0
        {
            points.raise(
                &CARE_AGE,
                at("care"),
                format!("{name} was {} before the year began.", ages.care_below),
            );
        }
        if care && paper.boxes.get("transferred").and_then(Entry::flag) == Some(false) {
            points.raise(&CARE_CASH, at("transferred"), format!("Care of {name} was paid in cash."));
        }
        let figures = &points.facts.figures.special;
        if part_up(paper.amount("school"), figures.school_rate) > figures.school_most {
            points.raise(&SCHOOL_MANY, at("school"), format!("School fees of {name} above the most."));
        }
    }
}

/// The age completed before the year began: a year of life ends on the day before the birthday (§187(2) BGB).
fn age_before(points: &Points<'_>, child: Child) -> Option<i32> {
    Some(points.facts.figures.year - 1 - child.born?.previous_day()?.year())
}

fn one(points: &mut Points<'_>, child: Child) {
    let who = &points.household.people[child.person];
    let at = |field: &str| Place::person(&who.id, field);
    let couple = points.facts.couple();
    if couple && child.half && child.parent.is_none() {
        points.raise(&PARENT_ASKED, at(ask::PARENT), format!("Which spouse is the parent of {}?", who.name));
    }
    let turns = child.born.is_some_and(|born| {
        born.year() + points.facts.figures.children.full_age == points.facts.figures.year
    });
    if turns && child.half && who.answers.get(ask::REGISTERED).and_then(Entry::flag) == Some(true) {
        let words = format!("The care allowance of {} in the year of coming of age.", who.name);
        points.raise(&CARE_OF_AGE, at(ask::REGISTERED), words);
    }
    if who.id_number.is_none() && child.months > 0 {
        points.raise(&CHILD_NUMBER, at("id_number"), format!("{} has no number here.", who.name));
    }
    let ages = &points.facts.figures.children;
    let ground = who.answers.get(ask::GROUND).and_then(Entry::text);
    // Who is so old for all of the year counts for no month without a ground; in the year of the birthday some months do.
    match age_before(points, child) {
        Some(age) if age >= ages.counts_below && ground != Some("disabled") && child.months > 0 => {
            points.raise(
                &TOO_OLD,
                at(ask::GROUND),
                format!("{} was {} before the year began.", who.name, ages.counts_below),
            );
        }
        Some(age) if age + 1 >= ages.full_age && ground.is_none() && child.months > 0 => {
            let turns = age + 1 == ages.full_age && who.answers.contains_key(ask::MONTHS);
            if !turns {
                points.raise(
                    &GROUND_ASKED,
                    at(ask::GROUND),
                    format!("Why does {} count from {} on?", who.name, ages.full_age),
                );
            }
        }
        _ => {}
    }
    if child.benefit_months > child.months {
        points.raise(&BENEFIT_MORE, at(ask::BENEFIT_MONTHS), format!("Kindergeld of {}.", who.name));
    }
    if child.away_months > 0 && age_before(points, child).is_some_and(|age| age + 1 < ages.full_age) {
        points.raise(&AT_HOME, at(ask::AWAY_MONTHS), format!("{} is not of full age.", who.name));
    }
    let facts = points.facts;
    if child.household_months > 0 && facts.apart && facts.filers.len() > 1 {
        points.raise(
            &OWN_HOUSEHOLD,
            at(ask::HOUSEHOLD_MONTHS),
            format!("With which of the two does {} live?", who.name),
        );
    }
    if child.household_months > 0 && (facts.couple() || facts.with_adult) {
        points.raise(
            &NOT_ALONE,
            at(ask::HOUSEHOLD_MONTHS),
            format!("Months alone with {}, and another adult.", who.name),
        );
    }
}
