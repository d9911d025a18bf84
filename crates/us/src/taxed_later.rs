//! Distributions that may be taxed later: those of a qualified disaster over three years (§72(t)(11), Form 8915-F), and the unrealized
//! appreciation of an employer's shares when they are sold (§402(e)(4)); each of them now, if so elected.

use crate::{
    bringing::Bringing,
    facts::Facts,
    papers::retirement::{Distribution, Goes, brings as distributions},
    points::Points,
    unit::{Filed, Now},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
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
    words::first_name,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Distributions taxed now or later",
    lines: LINES,
    papers: &[EARLIER],
    points: POINTS,
    figures: &["early_distribution"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: PENSION_NEXT, paper: "8915-F", into: CarriedTo::Told("14") },
    Carry { line: PENSION_AFTER, paper: "8915-F", into: CarriedTo::Told("14.next") },
    Carry { line: IRA_NEXT, paper: "8915-F", into: CarriedTo::Told("25") },
    Carry { line: IRA_AFTER, paper: "8915-F", into: CarriedTo::Told("25.next") },
];

lines! {
    PENSION = "us.8915.15", "Disaster distributions of plans, taxed this year", "IRC §72(t)(11)(D)",
        "A third of this year's and of those of two years before, less what was repaid; or all of this year's.";
    IRA = "us.8915.26", "Disaster distributions of IRAs, taxed this year", "IRC §72(t)(11)(D)",
        "A third of this year's and of those of two years before, less what was repaid; or all of this year's.";
    PENSION_LEFT = "us.carryover.disaster_plan", "Disaster distributions of plans taxed in the next two years", "IRC §72(t)(11)(D)",
        "Two thirds of this year's.";
    IRA_LEFT = "us.carryover.disaster_ira", "Disaster distributions of IRAs taxed in the next two years", "IRC §72(t)(11)(D)",
        "Two thirds of this year's.";
    PENSION_NEXT = "us.carryover.disaster_plan_next", "Disaster distributions of plans taxed next year", "IRC §72(t)(11)(D)",
        "A third of this year's, and what an earlier one leaves for then.";
    PENSION_AFTER = "us.carryover.disaster_plan_after", "Disaster distributions of plans taxed the year after", "IRC §72(t)(11)(D)",
        "The last third of this year's.";
    IRA_NEXT = "us.carryover.disaster_ira_next", "Disaster distributions of IRAs taxed next year", "IRC §72(t)(11)(D)",
        "A third of this year's, and what an earlier one leaves for then.";
    IRA_AFTER = "us.carryover.disaster_ira_after", "Disaster distributions of IRAs taxed the year after", "IRC §72(t)(11)(D)",
        "The last third of this year's.";
}

open_points! {
    MOST = look "8915-most", "IRC §72(t)(11)(B)",
        "Of one disaster no more than that in all years: the rest is an ordinary distribution.";
    OTHER = not_covered "8915-other", "IRC §§72(t)(11), 408A(d)";
    REPAID = look "8915-repaid", "IRC §72(t)(11)(C)",
        "What was repaid above this year's income goes to the next year's, or back to an earlier one by amendment.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Parts of plans' distributions of earlier years.
    pub static PENSION: Brought = Brought::new();

    /// Parts of IRAs' distributions of earlier years.
    pub static IRA: Brought = Brought::new();

    /// What is due of them next year.
    pub static PENSION_LATER: Brought = Brought::new();

    /// What is due of IRAs' next year.
    pub static IRA_LATER: Brought = Brought::new();

    /// Repaid to plans.
    pub static PENSION_REPAID: Brought = Brought::new();

    /// Repaid to IRAs.
    pub static IRA_REPAID: Brought = Brought::new();
}

const EARLIER: PaperKind = PaperKind {
    id: "8915-F",
    subject: subject::RETIREMENT,
    name: "Disaster distributions of earlier years",
    words: "8915 qualified disaster recovery distribution thirds repaid hurricane",
    title: "Disaster",
    shared: false,
    headline: "14",
    boxes: &[
        Field::amount("14", "14", "Of plans, due this year")
            .help("A third of each distribution of the two years before that was spread."),
        Field::amount("14.next", "", "Of plans, due next year, too")
            .help("Of last year's distribution the last third."),
        Field::amount("25", "25", "Of IRAs, due this year"),
        Field::amount("25.next", "", "Of IRAs, due next year, too"),
        Field::amount("14.repaid", "", "Repaid to plans")
            .help("Within three years, and before this return is due."),
        Field::amount("25.repaid", "", "Repaid to IRAs"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    paper.give("14", &brings::PENSION);
    paper.give("25", &brings::IRA);
    paper.give("14.next", &brings::PENSION_LATER);
    paper.give("25.next", &brings::IRA_LATER);
    paper.give("14.repaid", &brings::PENSION_REPAID);
    paper.give("25.repaid", &brings::IRA_REPAID);
}

fn of(facts: &Facts, person: usize, goes: Goes) -> impl Iterator<Item = &Distribution> {
    facts.people[person].own.of(&distributions::DISTRIBUTIONS).iter().filter(move |d| d.goes == goes)
}

/// What of this year's disaster distributions is taxed at all: not the `untaxed` part.
fn of_year(facts: &Facts, person: usize, goes: Goes, untaxed: Rate) -> Money {
    let all: Money = of(facts, person, goes).map(|d| d.disaster).sum();
    (all - all.times(untaxed, Money::CENT, Rounding::HalfUp)).to_whole()
}

/// This year's part of what is spread.
fn part(facts: &Facts, amount: Money) -> Money {
    let years = Money::whole(facts.figures.early_distribution.disaster_years);
    amount.in_proportion(Money::whole(1), years, Money::WHOLE, Rounding::HalfUp)
}

/// What is added to the taxed distributions of a person, below zero where it is put off: this year's part of disaster distributions with
/// those of earlier years, less all of this year's.
pub fn change(
    facts: &Facts,
    trail: &mut impl Trail,
    person: usize,
    goes: Goes,
    untaxed: Rate,
    now: Now,
) -> Money {
    let (lines, earlier, later, repaid) = match goes {
        Goes::Ira => {
            ([IRA, IRA_LEFT, IRA_NEXT, IRA_AFTER], &brings::IRA, &brings::IRA_LATER, &brings::IRA_REPAID)
        }
        _ => (
            [PENSION, PENSION_LEFT, PENSION_NEXT, PENSION_AFTER],
            &brings::PENSION,
            &brings::PENSION_LATER,
            &brings::PENSION_REPAID,
        ),
    };
    let own = &facts.people[person].own;
    let all = of_year(facts, person, goes, untaxed);
    if all.is_zero() && !own.has(earlier) && !own.has(later) {
        return Money::ZERO;
    }
    let here = if now.disaster { all } else { part(facts, all) };
    let due = here + sum(own.of(earlier)).to_whole();
    let taxed = settled::or_zero(due - sum(own.of(repaid)).to_whole());
    let scope = Scope::Person(person);
    trail.line(lines[0], scope, taxed, |i| {
        i.items(of(facts, person, goes).filter(|d| !d.disaster.is_zero()).map(|d| &d.gross))
            .items(own.of(earlier))
            .items(own.of(repaid))
            .figure("Of this year", here);
    });
    trail.line(lines[1], scope, all - here, |i| {
        i.figure("Taxed as far as there is no basis", all);
    });
    let (one, two) = (Money::whole(1), Money::whole(2));
    let next = (all - here).in_proportion(one, two, Money::WHOLE, Rounding::HalfUp);
    let waiting = sum(own.of(later)).to_whole();
    trail.line(lines[2], scope, next + waiting, |i| {
        i.line(lines[1], scope, all - here).items(own.of(later));
    });
    trail.line(lines[3], scope, all - here - next, |i| {
        i.line(lines[1], scope, all - here);
    });
    taxed - all
}

/// The appreciation of shares that a person has taxed now.
pub fn appreciation(facts: &Facts, person: usize, now: Now) -> Money {
    if !now.appreciation {
        return Money::ZERO;
    }
    of(facts, person, Goes::Pension).map(|d| d.appreciation).sum()
}

fn any(facts: &Facts, person: usize, of: fn(&Distribution) -> Money) -> bool {
    facts.people[person].own.of(&distributions::DISTRIBUTIONS).iter().any(|d| !of(d).is_zero())
}

/// Whether this year's disaster distributions are spread, for each filer who has some (§72(t)(11)(D)(i)).
pub static DISASTER: Open<Facts> = Open::new(
    |facts: &Facts| facts.filers.iter().copied().filter(|&p| any(facts, p, |d| d.disaster)).collect(),
    |facts, person| {
        let name = &facts.people[person].name;
        let short = format!("{}'s disaster distributions now", first_name(name));
        let options =
            vec![Opt::new("spread", "Over three years", ""), Opt::new("now", "All of it this year", short)];
        Decision::between(
            format!("us.disaster_distributions.{}", facts.people[person].id),
            format!("Disaster distributions of {name}"),
            "IRC §72(t)(11)(D)(i)",
            options,
        )
    },
);

/// Whether the appreciation of an employer's shares is taxed with the distribution, for each filer who has some (§402(e)(4)(B)).
pub static APPRECIATION: Open<Facts> = Open::new(
    |facts: &Facts| facts.filers.iter().copied().filter(|&p| any(facts, p, |d| d.appreciation)).collect(),
    |facts, person| {
        let name = &facts.people[person].name;
        let short = format!("{}'s shares taxed with the distribution", first_name(name));
        let options = vec![
            Opt::new("later", "When the shares are sold", ""),
            Opt::new("now", "With the distribution", short),
        ];
        Decision::between(
            format!("us.appreciation.{}", facts.people[person].id),
            format!("Appreciation of the employer's shares of {name}"),
            "IRC §402(e)(4)(B)",
            options,
        )
    },
);

/// What each filer of a return has taxed now in a way.
pub fn elected(way: Chosen<'_, '_, Facts>, people: &[usize]) -> Vec<(usize, Now)> {
    let of = |&person: &usize| {
        let disaster = way.taken(&DISASTER, person) == Some(1);
        let appreciation = way.taken(&APPRECIATION, person) == Some(1);
        (person, Now { disaster, appreciation })
    };
    people.iter().map(of).filter(|(_, now)| *now != Now::default()).collect()
}

/// Form 8915-F: disaster distributions of this year or of two before.
pub fn form_8915_f(filed: Filed<'_>) -> Required {
    let spread = |&p: &usize| {
        let own = &filed.on.facts.people[p].own;
        any(filed.on.facts, p, |d| d.disaster) || own.has(&brings::PENSION) || own.has(&brings::IRA)
    };
    Required::if_so(filed.on.unit.people.iter().any(spread), "no disaster distribution")
}

/// Distributions above the amount of a disaster, and of what is not computed.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let most = facts.figures.early_distribution.disaster_most;
    for person in 0..facts.people.len() {
        let all = facts.people[person].own.of(&distributions::DISTRIBUTIONS);
        let Some(first) = all.iter().find(|d| !d.disaster.is_zero()) else { continue };
        let place = Place::paper(&points.household.papers[first.gross.paper].id, "disaster");
        if all.iter().map(|d| d.disaster).sum::<Money>() > most {
            let message = format!("Disaster distributions above {most:#}: of more than one disaster?");
            points.raise(&MOST, place.clone(), message);
        }
        let other = |d: &Distribution| !matches!(d.goes, Goes::Ira | Goes::Pension) || d.simplified.is_some();
        if all.iter().any(|d| !d.disaster.is_zero() && other(d)) {
            let message = "A disaster distribution of a Roth IRA or an annuity is not computed yet.";
            points.raise(&OTHER, place, message);
        }
    }
    for paper in points.papers(EARLIER.id) {
        if ["14", "25"].iter().any(|line| paper.amount(&format!("{line}.repaid")) > paper.amount(line)) {
            points.raise(
                &REPAID,
                Place::paper(&paper.id, "14.repaid"),
                "More was repaid than is due this year.",
            );
        }
    }
}
