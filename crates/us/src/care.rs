//! Child and dependent care (§§21, 129), Form 2441: the benefits of an employer that are left out or taxed, and the credit for what
//! was paid so that the filers could work.

use crate::{
    bringing::Bringing,
    dependents, excess_deferrals,
    facts::Facts,
    filing_status::Status,
    papers::w2,
    points::Points,
    qualifying_child, self_employment, states,
    unit::{Filed, On},
    untaxed_pay,
};
use hembo_core::{
    Paper,
    brought::Records,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    outcome::age_on,
    pack::{ANYONE, FILER, Question},
    paper::{Back, Counted, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Silent, Trail, Unseen},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[CARE],
    counted: &[Counted { at: CARE.id, from: "W-2", boxes: &["10"] }],
    person_questions: &[
        Question {
            of: ANYONE,
            from_age: 13,
            field: Field::yes_no(ask::INCAPABLE, "", "Not able to care for oneself")
                .lasts()
                .help("Physically or mentally; care for such a person counts at any age."),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::count(ask::DEEMED, "", "Months a student or disabled, without pay", 12)
                .help("Full-time; counts as earning for the care credit."),
        },
    ],
    points: POINTS,
    figures: &["care"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const INCAPABLE: &str = "incapable";
    pub const DEEMED: &str = "deemed_earned_months";
}

lines! {
    BENEFITS = "us.2441.12", "Care benefits of employers", "IRC §129(a)",
        "Box 10 of every Form W-2, less what was forfeited.";
    EXCLUDED = "us.2441.25", "Care benefits left out", "IRC §129(a), (b)",
        "No more than was paid for care, than either spouse earned, and than the amount of the year.";
    pub TAXED = "us.1e", "Care benefits, taxed", "IRC §129(a)(2)(B)",
        "The rest of them: wages.";
    PAID = "us.2441.2", "Paid for care", "IRC §21(b)(2)",
        "For children under 13 and for those who cannot care for themselves.";
    COUNTED = "us.2441.6", "Care that counts", "IRC §21(b)(2), (c), (d)",
        "Up to the amount for one or for two and more, less benefits left out, and to what either spouse earned.";
    pub CREDIT = "us.sched_3.2", "Care credit", "IRC §21(a)",
        "A part of it by income, up to the tax.";
}

limits! {
    BENEFIT_LIMIT = "us.limit.care_benefits" on EXCLUDED, "Care benefits", "over what may be left out, and taxed",
        "IRC §129(a)(2), (b)";
    MOST = "us.limit.care" on COUNTED, "Care", "over the amount that counts", "IRC §21(c)";
    TAX = "us.limit.care_tax" on CREDIT, "Care credit", "over the tax", "IRC §26(a)";
}

open_points! {
    PROVIDER = blocks "K-125", "IRC §21(e)(9)",
        "Enter name, address and number of the provider, or say that they were asked for.";
    WHOM = blocks "care-whom", "IRC §21(b)(1)",
        "Choose for whom it was.";
    THIRTEEN = look "K-127", "IRC §21(b)(1)(A)",
        "Care from the thirteenth birthday on does not count: look at the day.";
    NOBODY = look "care-nobody", "IRC §21(b)(1)",
        "Only for a dependent child under 13, or someone who cannot care for themselves, with a home here.";
    EARNED = look "K-126", "IRC §21(d)",
        "Enter the months in which the spouse was a student or disabled, if so.";
    BARRED = look "care-separate", "IRC §21(e)(2), (4)",
        "On a separate return only who lived apart from July and paid for the home has the credit.";
    COMBAT = not_weighed "care-combat", "IRC §§21(d), 129(e)(2)",
        "Combat pay counts as earned here. Without it less of the benefits would be left out and more be open for the credit: not weighed here.";
    BOTH_MONTHS = blocks "care-months", "IRC §21(d)(2)",
        "Only one spouse in a month counts as earning without pay: together no more than twelve months.";
}

/// A bill for care.
#[derive(Debug, Clone)]
pub struct Bill {
    item: Item,
    person: usize,
    /// Before the thirteenth birthday, as far as the day tells.
    under_age: bool,
    /// Given outside the state of residence.
    elsewhere: bool,
}

/// What its papers bring.
pub mod brings {
    use super::Bill;
    use hembo_core::brought::Brought;

    /// Bills for care.
    pub static BILLS: Brought<Bill> = Brought::new();

    /// The credit for last year's care that was paid this year, line 9b.
    pub static EARLIER: Brought = Brought::new();
}

const CARE: PaperKind = PaperKind {
    id: "Care",
    subject: subject::CREDITS,
    name: "Care provider",
    words: "daycare child care babysitter nanny camp after school dependent care 2441 w-10",
    title: "Provider",
    shared: true,
    headline: "amount",
    boxes: &[
        Field::text("number", "1c", "Provider's number", 11)
            .lasts()
            .payer_number()
            .help("EIN or social security number; TAXEXEMPT for a church or school."),
        Field::text("address", "1b", "Address", 120).lasts(),
        Field::yes_no("asked", "", "Number was asked for and refused")
            .help("Due diligence; with a note on the return."),
        states::of_state(
            Field::yes_no("elsewhere", "", "Given outside the state of residence")
                .help("The state credits care within it alone."),
        ),
        Field::amount("9b", "9b", "Credit for last year's care paid this year")
            .help("Worksheet A: by last year's income, as far as last year's limit was not used."),
    ],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::person("person", "2a", "For"),
        Field::text("what", "", "What for", 80)
            .help("So that the filers could work; no school from kindergarten on, no overnight camp."),
        Field::amount("amount", "2d", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives each bill to who paid it.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("9b", &brings::EARLIER);
    let under = paper.facts.figures.care.under_age;
    let elsewhere = paper.paper.paper.flag("elsewhere");
    for (r, row, amount) in paper.paper.lines("amount") {
        let person =
            row.get("person").and_then(Entry::text).and_then(|id| paper.paper.household.index_of(id));
        let Some(person) = person else { continue };
        let day = row.get("date").and_then(Entry::date).unwrap_or(paper.facts.year_end);
        let under_age = paper.facts.people[person].born.is_some_and(|born| age_on(born, day) < under);
        paper.put_as("amount", Some(r), amount, &brings::BILLS, |item| Bill {
            item,
            person,
            under_age,
            elsewhere,
        });
    }
}

/// Whether someone has a home on this return and is cared for: a dependent child who was under 13 in the year, though released to the
/// other parent; a spouse or another who cannot care for themselves and is a dependent, or would be but for income.
fn is_cared_for(on: On<'_>, person: usize) -> bool {
    let (facts, about) = (on.facts, &on.facts.people[person]);
    let was_under = about.age(facts.year_end).is_some_and(|age| age <= facts.figures.care.under_age);
    if on.unit.people.contains(&person) {
        return about.incapable && on.unit.status == Status::Joint;
    }
    if about.filer || !on.unit.main || on.unit.claimed_elsewhere.contains(&person) {
        return false;
    }
    let claimers = &on.unit.people;
    let at_home = qualifying_child::over_half_the_year(facts, claimers, person);
    let is_child = dependents::qualifying_child(facts, claimers, person).is_ok()
        && dependents::claim_but_for_release(facts, claimers, person).is_ok();
    let incapable =
        about.incapable && at_home && dependents::claimable_but_for_income(facts, claimers, person);
    (was_under && is_child) || incapable
}

/// What the claim of a person brings to Form 2441 of a return: whether that one counts, and what was paid.
pub fn brought(on: On<'_>, person: usize) -> (i64, Money) {
    brought_of(on, person, |_| true)
}

/// The same of some bills.
fn brought_of(on: On<'_>, person: usize, which: fn(&Bill) -> bool) -> (i64, Money) {
    if !is_cared_for(on, person) {
        return (0, Money::ZERO);
    }
    let incapable = on.facts.people[person].incapable;
    let bills = on.owns().flat_map(|(_, own)| own.of(&brings::BILLS)).filter(|bill| which(bill));
    let counted = bills.filter(|bill| bill.person == person && (bill.under_age || incapable));
    (1, counted.map(|bill| bill.item.amount).sum())
}

/// How many count on a return, and all that was paid for them.
fn all(on: On<'_>, which: fn(&Bill) -> bool) -> (i64, Money) {
    let each = (0..on.facts.people.len()).map(|person| brought_of(on, person, which));
    each.fold((0, Money::ZERO), |(count, paid), (one, amount)| (count + one, paid + amount))
}

fn anything(on: On<'_>) -> bool {
    let kinds = |own: &Records| own.has(&brings::BILLS) || own.has(&w2::brings::CARE_BENEFITS);
    on.owns().any(|(_, own)| kinds(own) || !sum(own.of(&brings::EARLIER)).is_zero())
}

/// What someone earned but for benefits: wages less pensions of nonqualified plans, with the months that count as earning.
fn earned(on: On<'_>, person: usize, cared_for: i64) -> Money {
    let own = &on.facts.people[person].own;
    let wages = w2::earned(own) - sum(own.of(&w2::brings::NONQUALIFIED))
        + untaxed_pay::waiver_counted(on, person)
        + untaxed_pay::combat_of(on.facts, person)
        + excess_deferrals::excess_of(on.facts, person);
    let business = self_employment::silent(on, person).earned();
    let figures = &on.facts.figures.care;
    let month = if cared_for > 1 { figures.deemed_two } else { figures.deemed_one };
    settled::or_zero(settled::or_zero(wages).to_whole() + business)
        + month * on.facts.people[person].deemed_months
}

/// The smaller earnings of the spouses: of someone unmarried, or a spouse who lived apart, only the own.
fn smaller_earned(
    on: On<'_>,
    trail: &mut impl Trail,
    cared_for: i64,
    more: impl Fn(usize) -> Money,
) -> Money {
    let own = earned(on, on.unit.people[0], cared_for) + more(on.unit.people[0]);
    let spouse = match on.unit.status {
        Status::Joint => on.unit.people.get(1).copied(),
        Status::Separate if on.facts.apart != Some(true) && on.facts.couple() => {
            on.facts.other_filer(on.unit.people[0])
        }
        _ => None,
    };
    spouse.map_or(own, |spouse| limit::lesser(trail, own, earned(on, spouse, cared_for) + more(spouse)))
}

fn benefits_of(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&w2::brings::CARE_BENEFITS)).to_whole()
}

/// Part III: the benefits that are left out, and those that are taxed, line 1e.
pub fn benefits(on: On<'_>, trail: &mut impl Trail) -> (Money, Money) {
    let received: Money = on.unit.people.iter().map(|&p| benefits_of(on.facts, p)).sum();
    if received.is_zero() {
        return (Money::ZERO, Money::ZERO);
    }
    trail.line(BENEFITS, on.scope, received, |i| {
        i.items(on.items(&w2::brings::CARE_BENEFITS));
    });
    let (cared_for, paid) = all(on, |_| true);
    let earned = smaller_earned(on, trail, cared_for, |_| Money::ZERO);
    let most = if on.unit.status == Status::Separate && !may_credit(on) {
        on.facts.figures.care.benefits.separate
    } else {
        on.facts.figures.care.benefits.single
    };
    let most = limit::lesser(trail, most, earned);
    let most = limit::lesser(trail, most, paid.to_whole());
    let excluded = limit::cap(trail, BENEFIT_LIMIT.at(on.scope), received, most);
    trail.line(EXCLUDED, on.scope, excluded, |i| {
        i.line(BENEFITS, on.scope, received)
            .figure("Paid for care", paid.to_whole())
            .figure("Smaller earnings", earned);
    });
    let taxed = trail.line(TAXED, on.scope, received - excluded, |i| {
        i.line(BENEFITS, on.scope, received).line(EXCLUDED, on.scope, excluded);
    });
    (excluded, taxed)
}

/// Whether the return may have the credit: not a separate one, but for a spouse who lived apart and paid for the home (§21(e)(4)).
fn may_credit(on: On<'_>) -> bool {
    let person = &on.facts.people[on.unit.people[0]];
    on.unit.status != Status::Separate || (on.facts.apart == Some(true) && person.paid_home == Some(true))
}

/// The part by income: one point less for each step or part of it above the start of each tier, not below the tier's least.
fn part(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Rate {
    let figures = &on.facts.figures.care;
    let status = on.unit.status;
    let left = figures.tiers.iter().fold(figures.most_rate.billionths(), |left, tier| {
        let over = limit::or_zero(trail, agi - *tier.from.of(status));
        let points = over.steps_of(*tier.step.of(status), Rounding::Up);
        settled::greater(left - points * figures.point.billionths(), tier.least_rate.billionths())
    });
    Rate::from_billionths(left)
}

/// Schedule 3 line 2; `left` is the tax that earlier credits leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money, left: Money) -> Money {
    if !anything(on) {
        return trail.line(CREDIT, on.scope, Money::ZERO, |_| {});
    }
    let (cared_for, paid) = all(on, |_| true);
    let paid = trail.line(PAID, on.scope, paid.to_whole(), |i| {
        i.items(on.owns().flat_map(|(_, own)| own.of(&brings::BILLS)).map(|bill| &bill.item));
    });
    let earlier = sum(on.items(&brings::EARLIER)).to_whole();
    if (cared_for == 0 && earlier.is_zero()) || !may_credit(on) {
        return trail.line(CREDIT, on.scope, Money::ZERO, |i| {
            i.line(PAID, on.scope, paid).figure("Not available", "nobody who counts, or a separate return");
        });
    }
    let counted = counted(on, trail, cared_for, paid);
    let part = part(on, trail, agi);
    let full = counted.times(part, Money::WHOLE, Rounding::HalfUp) + earlier;
    let credit = limit::cap(trail, TAX.at(on.scope), full, left);
    trail.line(CREDIT, on.scope, credit, |i| {
        if !earlier.is_zero() {
            i.items(on.items(&brings::EARLIER));
        }
        i.line(COUNTED, on.scope, counted)
            .figure("Adjusted gross income", agi)
            .figure("Part", part)
            .figure("Tax left", left);
    })
}

/// The credit of the year before its limit by the tax, for care within the state of residence alone; `earned_there` tells what someone earned there,
/// where only that counts.
pub fn within_state(on: On<'_>, agi: Money, earned_there: Option<&dyn Fn(usize) -> Money>) -> Money {
    let (cared_for, paid) = all(on, |bill| !bill.elsewhere);
    if cared_for == 0 || !may_credit(on) {
        return Money::ZERO;
    }
    let counted = counted(on, &mut Silent, cared_for, paid.to_whole());
    let works = |person: &usize| on.facts.people[*person].deemed_months == 0;
    let there = earned_there
        .and_then(|earned| on.unit.people.iter().copied().filter(|p| works(p)).map(earned).min())
        .map_or(counted, |least| settled::lesser(counted, settled::or_zero(least)));
    there.times(part(on, &mut Silent, agi), Money::WHOLE, Rounding::HalfUp)
}

/// Form 2441 line 6: what was paid, up to the amount of the year less benefits left out, and to what either spouse earned.
fn counted(on: On<'_>, trail: &mut impl Trail, cared_for: i64, paid: Money) -> Money {
    let figures = &on.facts.figures.care;
    let (excluded, _) = benefits(on, &mut Unseen(trail));
    let full = if cared_for > 1 { figures.two } else { figures.one };
    let room = limit::or_zero(trail, full - excluded);
    let rest = limit::or_zero(trail, paid - excluded);
    let counted = limit::cap(trail, MOST.at(on.scope), rest, room);
    let taxed_of = |person| taxed_part(on, person);
    let earned = smaller_earned(on, trail, cared_for, taxed_of);
    let counted = limit::lesser(trail, counted, earned);
    trail.line(COUNTED, on.scope, counted, |i| {
        i.line(PAID, on.scope, paid)
            .figure("Persons cared for", cared_for)
            .figure("Smaller earnings", earned);
        if !excluded.is_zero() {
            i.line(EXCLUDED, on.scope, excluded);
        }
    })
}

/// The taxed benefits of a person count as earned for the credit: those of the spouse who received them, the first before the second.
fn taxed_part(on: On<'_>, person: usize) -> Money {
    let (_, taxed) = benefits(on, &mut Silent);
    let first = on.unit.people[0];
    let of_first = settled::lesser(taxed, benefits_of(on.facts, first));
    if person == first { of_first } else { settled::lesser(taxed - of_first, benefits_of(on.facts, person)) }
}

/// Form 2441: bills, or benefits of an employer.
pub fn form_2441(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CREDIT) || filed.has(BENEFITS), "no care credit, no care benefits")
}

/// Providers, and for whom.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CARE.id) {
        one(points, paper);
    }
    let filers = &points.facts.filers;
    let months: i64 = filers.iter().map(|&f| points.facts.people[f].deemed_months).sum();
    if points.facts.couple() && months > 12 {
        points.raise(
            &BOTH_MONTHS,
            points.at(filers[1], ask::DEEMED),
            "Both spouses count as earning without pay in a month.",
        );
    }
    for place in 0..points.units.len() {
        of_return(points, place);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let known = paper.text("number").is_some() || paper.flag("asked");
    if !known {
        points.raise(&PROVIDER, at("number"), "The provider's number is missing.");
    }
    let under = points.facts.figures.care.under_age;
    for row in &paper.rows {
        let place = |field: &str| Place::row(&paper.id, row, field);
        let person = row.get("person").and_then(Entry::text).and_then(|id| points.household.index_of(id));
        let Some(person) = person else {
            points.raise(&WHOM, place("person"), "For whom was this care?");
            continue;
        };
        let about = &points.facts.people[person];
        let day = row.get("date").and_then(Entry::date);
        let turned = about.age(points.facts.year_end).is_some_and(|age| age == under) && day.is_none();
        let too_old = about.born.zip(day).is_some_and(|(born, day)| age_on(born, day) >= under);
        if (turned || too_old) && !about.incapable {
            points.raise(
                &THIRTEEN,
                place("date"),
                format!("{} was 13 or more, or it is not said when.", about.name),
            );
        }
        let counts = points.units.iter().enumerate().any(|(at, unit)| {
            is_cared_for(On { facts: points.facts, unit, scope: Scope::Return(at) }, person)
        });
        if !counts {
            points.raise(&NOBODY, place("person"), format!("Care for {} does not count.", about.name));
        }
    }
}

fn of_return(points: &mut Points<'_>, place: usize) {
    let unit = &points.units[place];
    let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
    let Some(bill) = on.owns().flat_map(|(_, own)| own.of(&brings::BILLS)).next() else { return };
    let paper = Place::paper(&points.household.papers[bill.item.paper].id, "number");
    if !may_credit(on) {
        points.raise(&BARRED, paper, "The care credit is lost on a separate return.");
        return;
    }
    let fights = |&&p: &&usize| !untaxed_pay::combat_of(on.facts, p).is_zero();
    let benefits = on.unit.people.iter().any(|&p| !benefits_of(on.facts, p).is_zero());
    if let (Some(&person), true) = (unit.people.iter().find(fights), benefits) {
        let message = format!("Combat pay of {} counts for care.", on.facts.people[person].name);
        points.raise(&COMBAT, paper.clone(), message);
    }
    let idle = unit.people.iter().find(|&&p| earned(on, p, 1).is_zero());
    if let Some(&person) = idle {
        let message = format!(
            "{} earned nothing: care was not paid so that both could work.",
            on.facts.people[person].name
        );
        points.raise(&EARNED, points.at(person, ask::DEEMED), message);
    }
}
