//! Taxes on accounts that hold too much or pay out too little, Form 5329 Parts III to IX: 6 % a year of excess contributions to IRAs,
//! education and health savings accounts (§4973), and a part of what had to be distributed and was not (§4974).

use crate::{
    bringing::Bringing,
    health_savings, ira_deduction,
    papers::retirement::Goes,
    points::Points,
    retirement,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    brought::{Brought, Records},
    field::{Field, Years},
    household::Entry,
    limit,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Silent, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[ACCOUNTS],
    points: POINTS,
    figures: &["excess_contributions", "required_distributions"],
    ..Provision::NONE
};

lines! {
    TRADITIONAL = "us.5329.16", "Excess in traditional IRAs", "IRC §4973(b)",
        "What was contributed over the limit or compensation, and what is left of the excess of earlier years.";
    ON_TRADITIONAL = "us.5329.17", "Tax on excess in traditional IRAs", "IRC §4973(a)",
        "6 % of it, or of the value at the end of the year if less.";
    ROTH = "us.5329.24", "Excess in Roth IRAs", "IRC §4973(f)",
        "What was contributed over the limit or the range of income, and what is left of the excess of earlier years.";
    ON_ROTH = "us.5329.25", "Tax on excess in Roth IRAs", "IRC §4973(a)",
        "6 % of it, or of the value at the end of the year if less.";
    EDUCATION = "us.5329.32", "Excess in Coverdell accounts", "IRC §4973(e)",
        "What is over the limit of the beneficiary at the end of the year.";
    ON_EDUCATION = "us.5329.33", "Tax on excess in Coverdell accounts", "IRC §4973(a)",
        "6 % of it, or of the value at the end of the year if less.";
    HEALTH = "us.5329.48", "Excess in health savings accounts", "IRC §4973(g)",
        "What was put in over the limit, by the employer too, and what is left of the excess of earlier years.";
    ON_HEALTH = "us.5329.49", "Tax on excess in health savings accounts", "IRC §4973(a)",
        "6 % of it, or of the value at the end of the year if less.";
    SHORT = "us.5329.54", "Not distributed", "IRC §4974(a)",
        "What had to be distributed in the year less what was.";
    ON_SHORT = "us.5329.55", "Tax on what was not distributed", "IRC §4974(a), (e)",
        "25 % of it, 10 % of what was made good within the correction window.";
}

open_points! {
    OVER = look "K-102", "IRC §§219(b), 408(d)(4), 4973(b)",
        "Take it out with its earnings by the due date and enter that beside the contribution; else this tax falls due each year.";
    OVER_ROTH = look "K-103", "IRC §§408A(c)(3), (d)(6), 4973(f)",
        "Recharacterize it or take it out with its earnings by the due date, and enter that beside the contribution.";
    OVER_HEALTH = look "K-100", "IRC §§223(f)(3), 4973(g)",
        "Take it out with its earnings by the due date and enter that beside the contribution; else this tax falls due each year.";
    DISTRIBUTED = look "K-067", "IRC §§401(a)(9), 408(a)(6), 4974",
        "Enter what the IRA paid out; if it paid less than it had to, enter both amounts (Form 5329, Part IX). The first one may wait until April 1.";
    NONE_REQUIRED = blocks "5329-52", "IRC §4974(a)",
        "Enter what had to be distributed, too: no more than that counts.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Value of traditional IRAs at the end of the year.
    pub static TRADITIONAL_VALUE: Brought = Brought::new();

    /// Excess contributions of earlier years to Roth IRAs, line 18.
    pub static ROTH_EARLIER: Brought = Brought::new();

    /// Value of Roth IRAs at the end of the year.
    pub static ROTH_VALUE: Brought = Brought::new();

    /// Excess in Coverdell accounts, line 32.
    pub static EDUCATION: Brought = Brought::new();

    /// Value of Coverdell accounts at the end of the year.
    pub static EDUCATION_VALUE: Brought = Brought::new();

    /// Value of health savings accounts at the end of the year.
    pub static HEALTH_VALUE: Brought = Brought::new();

    /// What had to be distributed and was not, and is made good within the correction window, line 54a.
    pub static SHORT_CORRECTED: Brought = Brought::new();

    /// The same that is not made good, line 54b.
    pub static SHORT: Brought = Brought::new();
}

const ACCOUNTS: PaperKind = PaperKind {
    id: "5329",
    subject: subject::RETIREMENT,
    name: "Excess contributions, distributions not taken",
    words: "5329 excess contribution ira roth hsa coverdell rmd required minimum distribution penalty missed",
    title: "About",
    shared: false,
    headline: "9",
    boxes: &[
        Field::amount("9", "9", "Traditional IRA: excess of earlier years")
            .help("Line 16 of last year's form."),
        Field::amount("12", "12", "Of it taken out untaxed").help("A distribution of the excess itself."),
        Field::amount("17", "17", "Traditional IRAs: value at the end of the year")
            .help("Only where it is less than the excess."),
        Field::amount("18", "18", "Roth IRA: excess of earlier years").help("Line 24 of last year's form."),
        Field::amount("25", "25", "Roth IRAs: value at the end of the year"),
        Field::amount("32", "32", "Coverdell: excess in the accounts")
            .help("Of this year and earlier ones, over the limit for this beneficiary."),
        Field::amount("33", "33", "Coverdell: value at the end of the year"),
        Field::amount("42", "42", "Health savings: excess of earlier years")
            .help("Line 48 of last year's form."),
        Field::amount("49", "49", "Health savings: value at the end of the year"),
        Field::amount("52b", "52b", "Had to be distributed")
            .help("Required minimum of the year; without a waiver."),
        Field::amount("53b", "53b", "Of it distributed in the year"),
        Field::amount("52a", "52a", "Had to be distributed, made good since")
            .help("Within the correction window, by the end of the second year after."),
        Field::amount("53a", "53a", "Of it distributed in the year"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    let given: [(&str, &'static Brought); 9] = [
        ("9", &ira_deduction::brings::EARLIER_EXCESS),
        ("12", &ira_deduction::brings::EARLIER_OUT),
        ("17", &brings::TRADITIONAL_VALUE),
        ("18", &brings::ROTH_EARLIER),
        ("25", &brings::ROTH_VALUE),
        ("32", &brings::EDUCATION),
        ("33", &brings::EDUCATION_VALUE),
        ("42", &health_savings::brings::EARLIER_EXCESS),
        ("49", &brings::HEALTH_VALUE),
    ];
    for (field, kind) in given {
        paper.give(field, kind);
    }
    let reading = paper.paper.paper;
    for (required, paid, kind) in [("52a", "53a", &brings::SHORT_CORRECTED), ("52b", "53b", &brings::SHORT)] {
        paper.put(required, None, settled::or_zero(reading.amount(required) - reading.amount(paid)), kind);
    }
}

/// An excess of an account and the line of its tax.
struct Excess {
    line: LineId,
    tax: LineId,
    /// What is left of earlier years.
    earlier: Money,
    /// What this year added.
    added: Money,
    value: &'static Brought,
}

fn traditional(on: On<'_>, trail: &mut impl Trail, person: usize) -> Excess {
    let (paid, _) = ira_deduction::paid(on.facts, person);
    Excess {
        line: TRADITIONAL,
        tax: ON_TRADITIONAL,
        earlier: ira_deduction::earlier_excess(on, trail, person),
        added: limit::or_zero(trail, paid - ira_deduction::most(on, person)),
        value: &brings::TRADITIONAL_VALUE,
    }
}

/// `for_ira` is the income of the return for the ranges.
fn roth(on: On<'_>, trail: &mut impl Trail, person: usize, for_ira: Money) -> Excess {
    let (_, paid) = ira_deduction::paid(on.facts, person);
    let room = ira_deduction::most_roth(on, trail, person, for_ira);
    let earlier = sum(on.facts.people[person].own.of(&brings::ROTH_EARLIER)).to_whole();
    let out = limit::or_zero(trail, room - paid) + retirement::roth_of(on.facts, person);
    Excess {
        line: ROTH,
        tax: ON_ROTH,
        earlier: limit::or_zero(trail, earlier - out),
        added: limit::or_zero(trail, paid - room),
        value: &brings::ROTH_VALUE,
    }
}

fn education(own: &Records) -> Excess {
    Excess {
        line: EDUCATION,
        tax: ON_EDUCATION,
        earlier: Money::ZERO,
        added: sum(own.of(&brings::EDUCATION)).to_whole(),
        value: &brings::EDUCATION_VALUE,
    }
}

fn health(on: On<'_>, person: usize) -> Excess {
    Excess {
        line: HEALTH,
        tax: ON_HEALTH,
        earlier: health_savings::earlier_excess(on.facts, person),
        added: health_savings::excess(on.facts, person),
        value: &brings::HEALTH_VALUE,
    }
}

/// The excess of each kind of account of which papers bring anything.
fn each(on: On<'_>, trail: &mut impl Trail, person: usize, for_ira: Money) -> Vec<Excess> {
    use ira_deduction::brings as ira;
    let own = &on.facts.people[person].own;
    let mut all = Vec::new();
    if own.has(&ira::TRADITIONAL) || own.has(&ira::EARLIER_EXCESS) {
        all.push(traditional(on, trail, person));
    }
    if own.has(&ira::ROTH) || own.has(&brings::ROTH_EARLIER) {
        all.push(roth(on, trail, person, for_ira));
    }
    if own.has(&brings::EDUCATION) {
        all.push(education(own));
    }
    if own.has(&health_savings::brings::COVER) || own.has(&health_savings::brings::EARLIER_EXCESS) {
        all.push(health(on, person));
    }
    all
}

fn on_excess(on: On<'_>, trail: &mut impl Trail, person: usize, excess: &Excess) -> Money {
    let &Excess { line, tax, earlier, added, value } = excess;
    if (earlier + added).is_zero() {
        return Money::ZERO;
    }
    let own = &on.facts.people[person].own;
    let (scope, rate) = (Scope::Person(person), on.facts.figures.excess_contributions.rate);
    let all = trail.line(line, scope, earlier + added, |i| {
        i.figure("Left of earlier years", earlier).figure("Of this year", added);
    });
    let value = own.has(value).then(|| sum(own.of(value)).to_whole());
    let taxed = value.map_or(all, |value| limit::lesser(trail, all, value));
    trail.line(tax, scope, taxed.times(rate, Money::WHOLE, Rounding::HalfUp), |i| {
        i.line(line, scope, all).figure("Rate", rate);
        if let Some(value) = value {
            i.figure("Value at the end of the year", value);
        }
    })
}

fn on_short(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    let figures = &on.facts.figures.required_distributions;
    let [corrected, other] = [&brings::SHORT_CORRECTED, &brings::SHORT].map(|kind| own.of(kind));
    let (made_good, missing) = (sum(corrected).to_whole(), sum(other).to_whole());
    if (made_good + missing).is_zero() {
        return Money::ZERO;
    }
    let scope = Scope::Person(person);
    let short = trail.line(SHORT, scope, made_good + missing, |i| {
        i.items(corrected).items(other);
    });
    let tax = made_good.times(figures.corrected_rate, Money::WHOLE, Rounding::HalfUp)
        + missing.times(figures.rate, Money::WHOLE, Rounding::HalfUp);
    trail.line(ON_SHORT, scope, tax, |i| {
        i.line(SHORT, scope, short)
            .figure("Made good within the window", made_good)
            .figure("Rate of that", figures.corrected_rate)
            .figure("Rate of the rest", figures.rate);
    })
}

/// The taxes of Parts III to IX of a person with their lines.
pub fn taxes_of(on: On<'_>, trail: &mut impl Trail, person: usize, for_ira: Money) -> Vec<(LineId, Money)> {
    let each = each(on, trail, person, for_ira);
    let mut all: Vec<_> =
        each.iter().map(|excess| (excess.tax, on_excess(on, trail, person, excess))).collect();
    all.push((ON_SHORT, on_short(on, trail, person)));
    all
}

/// The same of a return in one: no instalment of estimated tax is due for them (§6654(f)).
pub fn taxes(on: On<'_>, for_ira: Money) -> Money {
    let of =
        |&p: &usize| taxes_of(on, &mut Silent, p, for_ira).into_iter().map(|(_, tax)| tax).sum::<Money>();
    on.unit.people.iter().map(of).sum()
}

/// Whether a return has anything in Parts III to IX.
pub fn any(filed: Filed<'_>) -> bool {
    let taxed = [ON_TRADITIONAL, ON_ROTH, ON_EDUCATION, ON_HEALTH, ON_SHORT];
    let has = |p: usize, line| filed.trail.amount(line, Scope::Person(p)).is_some_and(|tax| !tax.is_zero());
    filed.on.unit.people.iter().any(|&p| taxed.into_iter().any(|line| has(p, line)))
}

/// What is over a limit, and what a traditional IRA had to pay out.
pub fn points(points: &mut Points<'_>) {
    for unit in points.units {
        for &person in &unit.people {
            let own = &points.facts.people[person].own;
            if own.has(&brings::ROTH_EARLIER) || own.has(&ira_deduction::brings::EARLIER_EXCESS) {
                ira_deduction::ask_apart(points, unit.status);
            }
            over(points, person);
            distributed(points, person);
        }
    }
    for paper in points.papers(ACCOUNTS.id) {
        for (required, paid) in [("52a", "53a"), ("52b", "53b")] {
            if paper.amount(paid) > paper.amount(required) {
                let place = Place::paper(&paper.id, required);
                points.raise(&NONE_REQUIRED, place, "More was distributed than had to be.");
            }
        }
    }
}

fn over(points: &mut Points<'_>, person: usize) {
    let name = &points.facts.people[person].name;
    let told = [
        (TRADITIONAL, ON_TRADITIONAL, &OVER, ["5498", "1"], "traditional IRAs"),
        (ROTH, ON_ROTH, &OVER_ROTH, ["5498", "10"], "Roth IRAs"),
        (HEALTH, ON_HEALTH, &OVER_HEALTH, ["HSA", "2"], "health savings accounts"),
    ];
    for (line, tax, point, [kind, field], what) in told {
        let amount = |line| points.trail.amount(line, Scope::Person(person)).unwrap_or_default();
        let (excess, tax) = (amount(line), amount(tax));
        if excess.is_zero() {
            continue;
        }
        let paper = points.papers(kind).find(|paper| points.is_of(paper, &[person]));
        let place = paper.map_or_else(|| points.at(person, ""), |paper| Place::paper(&paper.id, field));
        points.raise(point, place, format!("{name} has {excess:#} too much in {what}: {tax:#} of tax."));
    }
}

/// An IRA of somebody old enough that paid nothing out.
fn distributed(points: &mut Points<'_>, person: usize) {
    let facts = points.facts;
    let from = facts.figures.required_distributions.from_age;
    let about = &facts.people[person];
    let paid = retirement::of(facts, person).iter().any(|d| d.goes == Goes::Ira);
    if paid || about.age(facts.year_end).is_none_or(|age| age < from) {
        return;
    }
    let worth = |paper: &&Paper| {
        let has = |field: &str| paper.boxes.get(field).and_then(Entry::money).is_some_and(|m| !m.is_zero());
        let field = match paper.kind.as_str() {
            "8606" => "6",
            "5498" => "1",
            id if id == ACCOUNTS.id => "17",
            _ => return false,
        };
        has(field) && points.is_of(paper, &[person])
    };
    let said = |paper: &Paper| {
        paper.kind == ACCOUNTS.id
            && points.is_of(paper, &[person])
            && ["52a", "52b"].iter().any(|field| paper.boxes.contains_key(*field))
    };
    let papers = &points.household.papers;
    if let Some(paper) = papers.iter().find(worth).filter(|_| !papers.iter().any(said)) {
        let message = format!("{} has an IRA that paid nothing out this year.", about.name);
        points.raise(&DISTRIBUTED, Place { paper: Some(paper.id.clone()), ..Place::default() }, message);
    }
}
