//! Health savings accounts (§223), Form 8889 of each person: the limit by months of cover, the deduction, and distributions that
//! paid no medical bills.

use crate::{
    bringing::Bringing,
    facts::Facts,
    papers::w2,
    points::Points,
    social_security,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    brought::Records,
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    limit, limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[ACCOUNT, DISTRIBUTIONS],
    points: POINTS,
    figures: &["health_savings"],
    ..Provision::NONE
};

lines! {
    LIMIT = "us.8889.8", "Limit on contributions", "IRC §223(b)",
        "By months of cover, or the whole year's by the last-month rule, with the addition from 55 on.";
    EMPLOYER = "us.8889.9", "Contributions of the employer", "IRC §106(d)",
        "Box 12 code W of every Form W-2.";
    pub OF = "us.8889.13", "Contributions, deducted", "IRC §223(a)",
        "A person's own contributions, up to the limit less the employer's.";
    pub DEDUCTION = "us.sched_1.13", "Health savings account", "IRC §223(a)",
        "Form 8889 of each person.";
    pub TAKEN = "us.8889.16", "Distributions, taxed", "IRC §223(f)(2)",
        "What paid neither medical bills nor was rolled over.";
    pub INCOME = "us.sched_1.8f", "Health savings account, taxed", "IRC §223(f)(2)",
        "Form 8889 of each person.";
    EMPLOYER_OVER = "us.8889.over", "Contributions of the employer over the limit", "IRC §106(d)(1)",
        "What box 1 of Form W-2 left out, and the limit does not allow.";
    pub FAILED = "us.8889.20", "Whole year's limit not kept", "IRC §223(b)(8)(B)(i)(I)",
        "What the last-month rule allowed too much, where the cover did not last to the end of the next year.";
    FAILED_TAX_OF = "us.8889.21", "Additional tax on it", "IRC §223(b)(8)(B)(i)(II)",
        "10 % of it.";
    pub FAILED_TAX = "us.sched_2.17d", "Additional tax, health cover not kept", "IRC §223(b)(8)(B)",
        "Form 8889 of each person.";
    PENALTY_OF = "us.8889.17b", "Additional tax on distributions", "IRC §223(f)(4)",
        "A part of what is taxed, before 65 and without disability.";
    pub PENALTY = "us.sched_2.17c", "Additional tax, health savings account", "IRC §223(f)(4)",
        "Form 8889 of each person.";
}

limits! {
    CONTRIBUTIONS = "us.limit.health_savings" on OF, "Health savings account", "over the limit of the cover",
        "IRC §223(b)";
}

open_points! {
    COVER = blocks "K-050", "IRC §223(b)",
        "Enter the months of cover: the limit goes by them.";
    OTHER_COVER = look "K-101", "IRC §223(b)(7), (c)(1)",
        "Leave out the months of Medicare, of other cover such as a spouse's health account, and of somebody's dependent.";
    SHARED = not_weighed "C-22", "IRC §223(b)(5)(B)",
        "The spouses divide the limit as they agree. Here the first has what was put in before the second: another division is not weighed here.";
    LAST_MONTH = look "8889-last-month", "IRC §223(b)(8)",
        "Stay covered until the end of next year, or what it allowed becomes income then with 10 %.";
    MONTHS = blocks "8889-months", "IRC §223(b)(2)",
        "A year has twelve months: correct the months of cover.";
    QUALIFIED = look "K-087", "IRC §223(f)(1)",
        "Enter what paid medical bills: the rest is taxed.";
}

/// The cover of a person's account.
#[derive(Debug, Clone, Copy)]
pub struct Cover {
    own_months: i64,
    family_months: i64,
    last_month: Option<bool>,
}

/// What its papers bring.
pub mod brings {
    use super::Cover;
    use hembo_core::brought::Brought;

    /// The cover, where an account has one.
    pub static COVER: Brought<Cover> = Brought::new();

    /// Own contributions.
    pub static CONTRIBUTIONS: Brought = Brought::new();

    /// What the last-month rule allowed too much, lines 18 and 19.
    pub static FAILED: Brought = Brought::new();

    /// Moved here out of an IRA once in a lifetime, line 10.
    pub static OUT_OF_IRA: Brought = Brought::new();

    /// What was taken out again of the employer's contributions; it stays income.
    pub static EMPLOYER_OUT: Brought = Brought::new();

    /// Excess contributions of earlier years, still there when the year began (Form 5329, line 42).
    pub static EARLIER_EXCESS: Brought = Brought::new();

    /// Distributions less what was rolled over and what paid bills.
    pub static TAKEN: Brought = Brought::new();
}

const DECEMBER: &[Choice] =
    &[Choice::new("none", "None"), Choice::new("self", "Self-only"), Choice::new("family", "Family")];

const ACCOUNT: PaperKind = PaperKind {
    id: "HSA",
    subject: subject::ADJUSTMENTS,
    name: "Health savings account",
    words: "hsa health savings account 8889 5498-sa high deductible",
    title: "Trustee",
    shared: false,
    headline: "2",
    boxes: &[
        Field::amount("2", "2", "Own contributions for the year")
            .help("By the due date too; not the employer's of code W."),
        Field::amount("2.out", "", "Taken out again by the due date").help("With its earnings."),
        Field::count("self", "3", "Months of self-only cover", 12)
            .help("High-deductible, no other cover, no Medicare, nobody's dependent."),
        Field::count("family", "3", "Months of family cover", 12),
        Field::choice("december", "3", "Whole year by the cover of December", DECEMBER)
            .blank_is("none")
            .help("The last-month rule, with its testing period."),
        Field::amount("10", "10", "Moved here out of an IRA")
            .help("Once in a lifetime: on Form 1099-R it is rolled over, and it counts against the limit."),
        Field::amount("18", "18", "Allowed too much by the last-month rule").help(
            "Last year's whole-year limit, and the cover ended before this year did: Form 8889, Part III.",
        ),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Form 1099-SA.
pub const DISTRIBUTIONS: PaperKind = PaperKind {
    id: "1099-SA",
    subject: subject::ADJUSTMENTS,
    name: "Distributions of a health savings account",
    words: "hsa distribution health savings 8889",
    title: "Trustee",
    shared: false,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Gross distribution"),
        Field::amount("2", "2", "Earnings on excess contributions"),
        Field::count("3", "3", "Distribution code", 9),
        Field::amount("rolled", "14b", "Rolled over, or excess taken out"),
        Field::amount("bills", "15", "Paid medical bills")
            .help("After the account was set up; no receipts under Medical for them."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    if reading.kind == DISTRIBUTIONS.id {
        paper.earns();
        let net = reading.amount("1") - reading.amount("rolled") - reading.amount("bills");
        return paper.put("1", None, settled::or_zero(net), &brings::TAKEN);
    }
    let out = reading.amount("2.out");
    paper.put("2", None, settled::or_zero(reading.amount("2") - out), &brings::CONTRIBUTIONS);
    paper.put("2.out", None, settled::or_zero(out - reading.amount("2")), &brings::EMPLOYER_OUT);
    paper.give("10", &brings::OUT_OF_IRA);
    paper.give("18", &brings::FAILED);
    let count = |id: &str| reading.boxes.get(id).and_then(Entry::count).unwrap_or(0);
    let last_month = match reading.text("december") {
        Some("self") => Some(false),
        Some("family") => Some(true),
        _ => None,
    };
    let cover = Cover { own_months: count("self"), family_months: count("family"), last_month };
    for (person, _) in paper.paper.shares(Money::ZERO) {
        paper.facts.people[person].own.add(&brings::COVER, cover);
    }
}

fn cover(facts: &Facts, person: usize) -> Option<Cover> {
    facts.people[person].own.of(&brings::COVER).first().copied()
}

/// The addition from 55 on, by the months of cover (§223(b)(3)).
fn addition(facts: &Facts, person: usize, cover: Cover) -> Money {
    let figures = &facts.figures.health_savings;
    let of_age = facts.people[person].age(facts.year_end).is_some_and(|age| age >= figures.catch_up_from_age);
    let months = if cover.last_month.is_some() { 12 } else { cover.own_months + cover.family_months };
    if of_age { in_months(figures.catch_up, months) } else { Money::ZERO }
}

fn in_months(amount: Money, months: i64) -> Money {
    amount.in_proportion(Money::whole(months), Money::whole(12), Money::CENT, Rounding::HalfUp)
}

/// The limit without the addition: for self-only cover, and of a family's.
fn by_cover(facts: &Facts, cover: Cover) -> (Money, Money) {
    let figures = &facts.figures.health_savings;
    match cover.last_month {
        Some(true) => (Money::ZERO, figures.family),
        Some(false) => (figures.own, Money::ZERO),
        None => (in_months(figures.own, cover.own_months), in_months(figures.family, cover.family_months)),
    }
}

/// What someone puts in but for the addition: own contributions and the employer's.
fn put_in(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    let kinds = [&brings::CONTRIBUTIONS, &w2::brings::HEALTH_SAVINGS, &brings::OUT_OF_IRA];
    kinds.into_iter().map(|kind| sum(own.of(kind))).sum()
}

/// A person's limit. Spouses of whom either has family cover share one family limit as they agree (§223(b)(5)): each has what that
/// one put in, the first filer before the second.
fn limit_of(facts: &Facts, person: usize) -> Money {
    let Some(cover) = cover(facts, person) else { return Money::ZERO };
    let (own, family) = by_cover(facts, cover);
    let addition = addition(facts, person, cover);
    let spouse = facts.other_filer(person).filter(|_| facts.couple() && facts.people[person].filer);
    let Some(spouse) = spouse else { return (own + family + addition).to_whole() };
    let theirs = self::cover(facts, spouse);
    let (spouse_own, spouse_family) =
        theirs.map_or((Money::ZERO, Money::ZERO), |cover| by_cover(facts, cover));
    if family.is_zero() && spouse_family.is_zero() {
        return (own + addition).to_whole();
    }
    let shared = settled::greater(family, spouse_family);
    let needs = |p: usize, own: Money, addition: Money| settled::or_zero(put_in(facts, p) - own - addition);
    let theirs =
        needs(spouse, spouse_own, theirs.map_or(Money::ZERO, |cover| self::addition(facts, spouse, cover)));
    let mine = needs(person, own, addition);
    let first = facts.filers.first() == Some(&person);
    let share = if first {
        settled::lesser(mine, shared)
    } else {
        settled::or_zero(shared - settled::lesser(theirs, shared))
    };
    (own + share + addition).to_whole()
}

fn contributions(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let own = &facts.people[person].own;
    if !own.has(&brings::COVER) && !own.has(&w2::brings::HEALTH_SAVINGS) {
        return Money::ZERO;
    }
    let scope = Scope::Person(person);
    let most = trail.line(LIMIT, scope, limit_of(facts, person), |i| {
        if let Some(cover) = cover(facts, person) {
            i.figure("Months of self-only cover", cover.own_months)
                .figure("Months of family cover", cover.family_months);
        }
    });
    let employer = trail.line(EMPLOYER, scope, sum(own.of(&w2::brings::HEALTH_SAVINGS)).to_whole(), |i| {
        i.items(own.of(&w2::brings::HEALTH_SAVINGS));
    });
    let paid = sum(own.of(&brings::CONTRIBUTIONS)).to_whole();
    let (earlier, left) = earlier(facts, person);
    let earlier = settled::lesser(earlier, left);
    let moved = sum(own.of(&brings::OUT_OF_IRA)).to_whole();
    let room = settled::or_zero(most - employer - moved);
    let allowed = limit::cap(trail, CONTRIBUTIONS.at(scope), paid + earlier, room);
    trail.line(OF, scope, allowed, |i| {
        i.items(own.of(&brings::CONTRIBUTIONS)).line(LIMIT, scope, most).line(EMPLOYER, scope, employer);
        for (name, amount) in [("Excess of earlier years, taken up", earlier), ("Out of an IRA", moved)] {
            if !amount.is_zero() {
                i.figure(name, amount);
            }
        }
    })
}

/// What was put in over the limit, the employer's contributions too (§4973(g)).
pub fn excess(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    if !own.has(&brings::COVER) {
        // Without the cover the limit is not known: that is asked.
        return Money::ZERO;
    }
    let out = sum(own.of(&brings::EMPLOYER_OUT)).to_whole();
    settled::or_zero(put_in(facts, person).to_whole() - limit_of(facts, person) - out)
}

/// Excess contributions of earlier years less what distributions took out and what this year's limit takes up (§4973(g)(2)).
pub fn earlier_excess(facts: &Facts, person: usize) -> Money {
    let (earlier, room) = earlier(facts, person);
    settled::or_zero(earlier - room)
}

/// Excess contributions of earlier years that were not distributed, and the room that this year's limit has for them.
fn earlier(facts: &Facts, person: usize) -> (Money, Money) {
    let own = &facts.people[person].own;
    let earlier = sum(own.of(&brings::EARLIER_EXCESS)).to_whole() - taken(facts, &mut Silent, person);
    let room = limit_of(facts, person) - put_in(facts, person).to_whole();
    (settled::or_zero(earlier), settled::or_zero(room))
}

/// What a person deducts.
pub fn of_person(facts: &Facts, person: usize) -> Money {
    contributions(facts, &mut Silent, person)
}

/// Schedule 1 line 13.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, contributions(on.facts, trail, p))).collect();
    on.of_each(trail, DEDUCTION, OF, &each)
}

/// Schedule 1 line 8f.
pub fn income(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on
        .unit
        .people
        .iter()
        .flat_map(|&p| income_parts(on.facts, trail, p).map(|(line, amount)| (p, line, amount)))
        .collect();
    trail.line(INCOME, on.scope, each.iter().map(|(_, _, amount)| *amount).sum(), |i| {
        for (person, line, amount) in each.into_iter().filter(|(_, _, amount)| !amount.is_zero()) {
            i.line(line, Scope::Person(person), amount);
        }
    })
}

fn income_parts(facts: &Facts, trail: &mut impl Trail, person: usize) -> [(LineId, Money); 3] {
    let taken = taken(facts, trail, person);
    let over = employer_over(facts, trail, person);
    [(TAKEN, taken), (EMPLOYER_OVER, over), (FAILED, failed(facts, trail, person))]
}

fn failed(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let items = facts.people[person].own.of(&brings::FAILED);
    let amount = sum(items).to_whole();
    if amount.is_zero() {
        return amount;
    }
    trail.line(FAILED, Scope::Person(person), amount, |i| {
        i.items(items);
    })
}

/// Schedule 2 line 17d.
pub fn failed_tax(on: On<'_>, trail: &mut impl Trail) -> Money {
    let rate = on.facts.figures.health_savings.failed_rate;
    let mut each = Vec::new();
    for &person in &on.unit.people {
        let failed = failed(on.facts, &mut Silent, person);
        if !failed.is_zero() {
            let scope = Scope::Person(person);
            let tax =
                trail.line(FAILED_TAX_OF, scope, failed.times(rate, Money::WHOLE, Rounding::HalfUp), |i| {
                    i.line(FAILED, scope, failed).figure("Rate", rate);
                });
            each.push((person, tax));
        }
    }
    on.of_each(trail, FAILED_TAX, FAILED_TAX_OF, &each)
}

/// What a person brings to Schedule 1 line 8f.
pub fn income_of(facts: &Facts, person: usize) -> [(LineId, Money); 3] {
    income_parts(facts, &mut Silent, person)
}

fn employer_over(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let own = &facts.people[person].own;
    let employer = sum(own.of(&w2::brings::HEALTH_SAVINGS)).to_whole();
    if !own.has(&brings::COVER) || employer.is_zero() {
        return Money::ZERO;
    }
    let (scope, most) = (Scope::Person(person), limit_of(facts, person));
    trail.line(EMPLOYER_OVER, scope, settled::or_zero(employer - most), |i| {
        i.items(own.of(&w2::brings::HEALTH_SAVINGS)).figure("Limit", most);
    })
}

fn taken(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let own = &facts.people[person].own;
    if !own.has(&brings::TAKEN) {
        return Money::ZERO;
    }
    trail.line(TAKEN, Scope::Person(person), sum(own.of(&brings::TAKEN)).to_whole(), |i| {
        i.items(own.of(&brings::TAKEN));
    })
}

/// Schedule 2 line 17c.
pub fn penalty(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.health_savings;
    let each: Vec<_> =
        on.unit.people.iter().map(|&p| (p, penalty_of(on, trail, p, figures.penalty_rate))).collect();
    on.of_each(trail, PENALTY, PENALTY_OF, &each)
}

fn penalty_of(on: On<'_>, trail: &mut impl Trail, person: usize, rate: Rate) -> Money {
    let about = &on.facts.people[person];
    let taxed = taken(on.facts, &mut Silent, person);
    let spared = about.disabled
        || about.died.is_some()
        || about.reached(on.facts.figures.health_savings.spared_from_age, on.facts.year_end);
    if taxed.is_zero() || spared {
        return Money::ZERO;
    }
    let scope = Scope::Person(person);
    trail.line(PENALTY_OF, scope, taxed.times(rate, Money::WHOLE, Rounding::HalfUp), |i| {
        i.line(TAKEN, scope, taxed).figure("Rate", rate);
    })
}

/// Whether papers bring anything to the form.
fn anything(own: &Records) -> bool {
    own.has(&brings::COVER) || own.has(&brings::TAKEN) || own.has(&w2::brings::HEALTH_SAVINGS)
}

/// Form 8889: contributions, those of the employer too, or distributions.
pub fn form_8889(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.owns().any(|(_, own)| anything(own)), "no health savings account")
}

/// Months of cover, and what is over the limit.
pub fn points(points: &mut Points<'_>) {
    for person in 0..points.facts.people.len() {
        one(points, person);
    }
    for paper in points.papers(DISTRIBUTIONS.id) {
        if !paper.boxes.contains_key("bills") && !paper.amount("1").is_zero() {
            points.raise(
                &QUALIFIED,
                Place::paper(&paper.id, "bills"),
                "How much of this paid medical bills?",
            );
        }
    }
}

/// Months that Medicare or being somebody's dependent may take out.
fn other_cover(points: &mut Points<'_>, account: &Paper, person: usize) {
    let about = &points.facts.people[person];
    let premiums = |paper: &Paper| points.is_of(paper, &[person]) && !paper.amount("medicare").is_zero();
    if about.claimable || points.papers(social_security::BENEFITS.id).any(premiums) {
        let message = format!("Was {} covered by nothing else in these months?", about.name);
        points.raise(&OTHER_COVER, Place::paper(&account.id, "self"), message);
    }
}

fn one(points: &mut Points<'_>, person: usize) {
    let facts = points.facts;
    let (own, name) = (&facts.people[person].own, &facts.people[person].name);
    let account = points.papers(ACCOUNT.id).find(|paper| points.owner(paper) == Some(person));
    let Some(account) = account else {
        if let Some(item) = own.of(&w2::brings::HEALTH_SAVINGS).first() {
            let place = Place::paper(&points.household.papers[item.paper].id, item.field);
            points.raise(
                &COVER,
                place,
                format!("{name} has employer contributions: add the paper of the account."),
            );
        }
        return;
    };
    let at = |field: &str| Place::paper(&account.id, field);
    let Some(cover) = cover(facts, person) else { return };
    let said = ["self", "family", "december"].into_iter().any(|field| account.boxes.contains_key(field));
    if !said {
        points.raise(&COVER, at("self"), format!("For how many months was {name} covered?"));
        return;
    }
    if cover.own_months + cover.family_months > 12 {
        points.raise(&MONTHS, at("family"), format!("{name} has more than twelve months of cover."));
    }
    other_cover(points, account, person);
    if cover.last_month.is_some() {
        points.raise(&LAST_MONTH, at("december"), format!("{name} takes the limit of the whole year."));
    }
    let spouse = facts.other_filer(person).filter(|_| facts.couple());
    if spouse.is_some_and(|spouse| !put_in(facts, spouse).is_zero()) && !excess(facts, person).is_zero() {
        let message = format!("{name} and the spouse put in more than the family limit.");
        points.raise(&SHARED, at("2"), message);
    }
}
