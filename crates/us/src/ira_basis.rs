//! Basis of IRAs (§§72(e)(8), 408(d)(2), 408A(d)), Form 8606, of each person: all traditional IRAs of a person are one, and so are
//! all Roth IRAs.

use crate::{
    bringing::Bringing,
    facts::Facts,
    papers::retirement::{Distribution, Goes, brings as distributions},
    points::Points,
    unit::Filed,
};
use hembo_core::{
    Paper, Silent,
    field::{Field, Years},
    forms::Required,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[BASIS],
    points: POINTS,
    figures: &["ira"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: L14, paper: "8606", into: CarriedTo::Box("2") }];

lines! {
    L1 = "us.8606.1", "Contributions not deducted", "IRC §408(o)(2)",
        "What went into traditional IRAs within the limit and is not deducted.";
    L3 = "us.8606.3", "Basis in traditional IRAs", "IRC §408(o)",
        "Nondeductible contributions of this year and basis of earlier years.";
    L9 = "us.8606.9", "Value with distributions", "IRC §408(d)(2)(C)",
        "Value at the end of the year, distributions and conversions.";
    L13 = "us.8606.13", "Basis that comes out", "IRC §§72(e)(8), 408(d)(2)",
        "The part of distributions and conversions that basis is of the value.";
    pub L14 = "us.8606.14", "Basis carried on", "IRC §408(o)(4)",
        "What of the basis is left.";
    L15C = "us.8606.15c", "Traditional IRAs, taxed", "IRC §408(d)(1)",
        "Distributions less basis.";
    L18 = "us.8606.18", "Converted, taxed", "IRC §408A(d)(3)",
        "Conversions to Roth IRAs less basis.";
    pub L25C = "us.8606.25c", "Roth IRAs, taxed", "IRC §408A(d)(1), (4)",
        "Nonqualified distributions less contributions and conversions.";
}

open_points! {
    BASIS_ASKED = look "K-068", "IRC §408(o)",
        "If contributions were ever made that were not deducted, enter the basis (Form 8606).";
    VALUE = blocks "8606-6", "IRC §408(d)(2)(C)",
        "Enter the value of all traditional IRAs at the end of the year.";
    ROTH = blocks "8606-22", "IRC §408A(d)(4)",
        "Enter what was contributed to Roth IRAs: that comes out first, untaxed.";
    CONVERTED = not_covered "8606-conversions", "IRC §408A(d)(3)(F)";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Basis of earlier years, Form 8606 line 2.
    pub static BASIS: Brought = Brought::new();

    /// Value at the end of the year, line 6.
    pub static VALUE: Brought = Brought::new();

    /// Contributions to Roth IRAs, line 22.
    pub static ROTH_CONTRIBUTIONS: Brought = Brought::new();

    /// Conversions to Roth IRAs, line 24.
    pub static ROTH_CONVERSIONS: Brought = Brought::new();

    /// What a first home takes, line 20.
    pub static FIRST_HOME: Brought = Brought::new();
}

const BASIS: PaperKind = PaperKind {
    id: "8606",
    subject: subject::RETIREMENT,
    name: "Basis of IRAs",
    words: "ira basis nondeductible roth contributions conversions 8606",
    title: "About",
    shared: false,
    headline: "2",
    boxes: &[
        Field::amount("2", "2", "Basis of earlier years").lasts().help("Line 14 of the last Form 8606."),
        Field::amount("6", "6", "Value at the end of the year")
            .help("All traditional, SEP and SIMPLE IRAs, with rollovers under way."),
        Field::amount("20", "20", "First home, out of a Roth IRA").lasts().help("10,000 in a lifetime."),
        Field::amount("22", "22", "Contributed to Roth IRAs").lasts().help("All years, less what came out."),
        Field::amount("24", "24", "Converted to Roth IRAs").lasts().help("All years, less what came out."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("2", &brings::BASIS);
    paper.give("6", &brings::VALUE);
    paper.give("20", &brings::FIRST_HOME);
    paper.give("22", &brings::ROTH_CONTRIBUTIONS);
    paper.give("24", &brings::ROTH_CONVERSIONS);
}

fn of(facts: &Facts, person: usize, goes: Goes) -> impl Iterator<Item = &Distribution> {
    facts.people[person].own.of(&distributions::DISTRIBUTIONS).iter().filter(move |d| d.goes == goes)
}

/// What of a person's traditional distributions counts before basis: `given` went straight to charity.
fn taken(facts: &Facts, person: usize, given: Money) -> Money {
    let taxed: Money = of(facts, person, Goes::Ira).map(|d| d.taxed).sum();
    (taxed - given).to_whole()
}

/// Line 10: the part that basis is of the value with what came out; none without basis.
pub fn untaxed_part(facts: &Facts, person: usize, given: Money) -> Option<Rate> {
    let own = &facts.people[person].own;
    let basis = sum(own.of(&brings::BASIS)).to_whole();
    if basis.is_zero() {
        return None;
    }
    let all = sum(own.of(&brings::VALUE)).to_whole() + taken(facts, person, given);
    let whole = basis >= all;
    Some(if whole {
        Rate::ONE
    } else {
        basis.ratio_to(all, facts.figures.ira.ratio_places, Rounding::HalfUp)
    })
}

/// Part I and II: what of a person's traditional IRAs is taxed, distributions and conversions. `given` went straight to charity.
pub fn traditional(facts: &Facts, trail: &mut impl Trail, person: usize, given: Money) -> Money {
    let taken = taken(facts, person, given);
    let Some(ratio) = untaxed_part(facts, person, given) else { return taken };
    let own = &facts.people[person].own;
    let basis = sum(own.of(&brings::BASIS)).to_whole();
    let scope = Scope::Person(person);
    let converted = of(facts, person, Goes::Ira).map(|d| d.converted).sum::<Money>().to_whole();
    let value = sum(own.of(&brings::VALUE)).to_whole();
    trail.line(L3, scope, basis, |i| {
        i.items(own.of(&brings::BASIS));
    });
    let all = trail.line(L9, scope, value + taken, |i| {
        i.items(own.of(&brings::VALUE)).items(of(facts, person, Goes::Ira).map(|d| &d.gross));
    });
    let of_converted = converted.times(ratio, Money::WHOLE, Rounding::HalfUp);
    let of_taken = (taken - converted).times(ratio, Money::WHOLE, Rounding::HalfUp);
    let out = trail.line(L13, scope, of_converted + of_taken, |i| {
        i.line(L3, scope, basis).line(L9, scope, all).figure("Part", ratio);
    });
    trail.line(L15C, scope, taken - converted - of_taken, |i| {
        i.items(of(facts, person, Goes::Ira).map(|d| &d.gross)).line(L13, scope, out);
    });
    if !converted.is_zero() {
        trail.line(L18, scope, converted - of_converted, |i| {
            i.figure("Converted", converted).line(L13, scope, out);
        });
    }
    taken - out
}

/// Lines 1 and 14: basis of earlier years and contributions that are not deducted, less what comes out of it. `given` went straight
/// to charity.
pub fn carry(facts: &Facts, trail: &mut impl Trail, person: usize, undeducted: Money, given: Money) {
    let basis = sum(facts.people[person].own.of(&brings::BASIS)).to_whole();
    let distributed = !basis.is_zero() && of(facts, person, Goes::Ira).next().is_some();
    if !distributed && undeducted.is_zero() {
        return;
    }
    let scope = Scope::Person(person);
    let out = taken(facts, person, given) - traditional(facts, &mut Silent, person, given);
    if !undeducted.is_zero() {
        trail.line(L1, scope, undeducted, |i| {
            i.figure("Not deducted", undeducted);
        });
    }
    trail.line(L14, scope, basis + undeducted - out, |i| {
        i.line(L1, scope, undeducted);
        if distributed {
            i.line(L3, scope, basis).line(L13, scope, out);
        } else {
            i.items(facts.people[person].own.of(&brings::BASIS));
        }
    });
}

/// Part III: what of a person's nonqualified Roth distributions is taxed: contributions come out first, then conversions.
pub fn roth(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let own = &facts.people[person].own;
    let distributed =
        of(facts, person, Goes::Roth).map(|d| d.gross.amount - d.rolled).sum::<Money>().to_whole();
    if distributed.is_zero() {
        return Money::ZERO;
    }
    let all = |kind| sum(own.of(kind)).to_whole();
    let home = settled::lesser(all(&brings::FIRST_HOME), facts.figures.ira.first_home);
    let basis = all(&brings::ROTH_CONTRIBUTIONS) + all(&brings::ROTH_CONVERSIONS);
    let taxed = settled::or_zero(distributed - home - basis);
    trail.line(L25C, Scope::Person(person), taxed, |i| {
        i.items(of(facts, person, Goes::Roth).map(|d| &d.gross))
            .items(own.of(&brings::ROTH_CONTRIBUTIONS))
            .items(own.of(&brings::ROTH_CONVERSIONS))
            .figure("First home", home);
    })
}

/// Form 8606: where somebody has basis, converted, or took money out of a Roth IRA.
pub fn form_8606(filed: Filed<'_>) -> Required {
    let needed = |&p: &usize| {
        let facts = filed.on.facts;
        facts.people[p].own.has(&brings::BASIS)
            || filed.trail.amount(L1, Scope::Person(p)).is_some_and(|amount| !amount.is_zero())
            || of(facts, p, Goes::Roth).next().is_some()
            || of(facts, p, Goes::Ira).any(|d| !d.converted.is_zero())
    };
    Required::if_so(
        filed.on.unit.people.iter().any(needed),
        "no basis, contribution not deducted, conversion or Roth distribution",
    )
}

/// What the form asks for.
pub fn points(points: &mut Points<'_>) {
    for person in 0..points.facts.people.len() {
        one(points, person);
    }
}

fn one(points: &mut Points<'_>, person: usize) {
    let facts = points.facts;
    let own = &facts.people[person].own;
    let at = |d: &Distribution| Place::paper(&points.household.papers[d.gross.paper].id, "1");
    let name = &facts.people[person].name;
    if let Some(first) = of(facts, person, Goes::Ira).next().map(at) {
        let paper: Option<&Paper> = points.papers(BASIS.id).find(|paper| points.owner(paper) == Some(person));
        match paper {
            None => points.raise(
                &BASIS_ASKED,
                first,
                format!("Did {name} ever contribute to an IRA without deducting it?"),
            ),
            Some(paper) if own.has(&brings::BASIS) && !paper.boxes.contains_key("6") => {
                points.raise(
                    &VALUE,
                    Place::paper(&paper.id, "6"),
                    format!("What were the IRAs of {name} worth at the end of the year?"),
                );
            }
            Some(_) => {}
        }
    }
    if let Some(first) = of(facts, person, Goes::Roth).next().map(at) {
        if !own.has(&brings::ROTH_CONTRIBUTIONS) && !own.has(&brings::ROTH_CONVERSIONS) {
            points.raise(&ROTH, first, format!("What did {name} contribute to Roth IRAs?"));
            return;
        }
        let distributed: Money = of(facts, person, Goes::Roth).map(|d| d.gross.amount - d.rolled).sum();
        let early = of(facts, person, Goes::Roth).any(|d| d.early.is_some());
        if early
            && distributed > sum(own.of(&brings::ROTH_CONTRIBUTIONS))
            && own.has(&brings::ROTH_CONVERSIONS)
        {
            let message = format!(
                "{name} took out conversions: the additional tax on those of the last five years is not computed yet."
            );
            points.raise(&CONVERTED, first, message);
        }
    }
}
