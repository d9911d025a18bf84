//! The minimum tax (ITA 127.5 to 127.55; form T691): what it is above the ordinary federal tax is paid beside it, with a part of the
//! province.

use crate::{
    bringing::{Bringing, of_years_before},
    earlier_minimum_tax::brings,
    facts::Facts,
    foreign_income, foreign_tax,
    income::{self, Income},
    net_income,
    plan::{Filed, On},
    points::Points,
    rounding::cents,
    special_foreign_credit,
};
use hembo_core::{
    Silent,
    field::{Field, Years},
    forms::Required,
    household::Answers,
    limit, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Trail, Unseen},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[BROUGHT_IN],
    lines: LINES,
    points: POINTS,
    figures: &["minimum_tax", "dividends", "capital_gains"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] =
    &[Carry { line: CARRIED, paper: "Minimum tax", into: CarriedTo::Rows { column: "amount", says: None } }];

lines! {
    pub OF_EARLIER_YEARS = "ca.40427", "Minimum tax of earlier years", "ITA 120.2",
        "Taken from tax as far as it is above the minimum of this year.";
    CARRIED = "ca.t691.carried", "Minimum tax kept for later", "ITA 120.2(1)",
        "What is left of earlier years, with that of this year, for seven years.";
    ADJUSTED = "ca.t691.adjusted", "Income of the minimum tax", "ITA 127.52",
        "Taxable income with whole gains and options and a half of some deductions, without the gross-up of dividends.";
    MINIMUM = "ca.t691.minimum", "Minimum tax", "ITA 127.51, 127.531",
        "The rate on what is above the exemption, less a half of most credits and a part of that for gifts.";
    pub ADDITIONAL = "ca.t691.additional", "Minimum tax above the ordinary tax", "ITA 127.5",
        "Paid beside the ordinary tax; it can be recovered in the seven years after.";
}

open_points! {
    FOREIGN_EARLIER = not_covered "foreign-minimum", "ITA 120.2(1)(b)";
    FOREIGN_KEPT = look "foreign-minimum-kept", "ITA 120.2(3)",
        "Correct it on next year's paper where form T691 comes to another amount.";
    TOO_OLD = blocks "minimum-year", "ITA 120.2(1)", "Correct the year, or remove it.";
    DUE = look "C-92", "ITA 120.2, 127.5",
        "Keep form T691: in the seven years after it takes from tax above the minimum (line 40427).";
}

const BROUGHT_IN: PaperKind = PaperKind {
    id: "Minimum tax",
    subject: subject::CREDITS,
    name: "Minimum tax of earlier years",
    words: "t691 amt carryover 40427",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::count("year", "", "Paid for", 2100),
        Field::amount("amount", "", "Left to take")
            .help("From form T691 of that year, or the notice of assessment."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Whether the minimum tax of a year may still be taken; also where the year is not told.
fn counts(facts: &Facts, cells: &Answers) -> bool {
    of_years_before(facts, facts.figures.minimum_tax.carried_years, cells)
}

/// Minimum tax of years that count.
pub fn read(paper: &mut Bringing<'_>) {
    for (row, cells, amount) in paper.paper.lines("amount") {
        if counts(paper.facts, cells) {
            paper.put("amount", Some(row), amount, &brings::EARLIER);
        }
    }
    paper.files();
}

/// Whether a person may pay it this year. Then a transferred credit may cost: it lowers the ordinary tax alone, and the
/// province takes a part of what the minimum is above that.
pub fn may_be_due(facts: &Facts, person: usize) -> bool {
    let adjusted_at_most = |on: On<'_>| {
        let income = income::reckon(on, &mut Silent);
        // Of what was taken off before net income a half comes back at most: all of it is counted here.
        let taken_off = income.enhanced_cpp + income.child_care + income.halved;
        income.net + income.taxable_gains + income.options + taken_off
    };
    let most = net_income::most_of(facts, person, adjusted_at_most);
    most > facts.figures.minimum_tax.exemption && !facts.died(person)
}

/// What of a return the minimum tax asks for.
#[derive(Debug, Clone, Copy)]
pub struct Ordinary {
    /// Line 33800 without pension income and what is transferred.
    pub credits: Money,
    /// Line 34900.
    pub gifts: Money,
    /// Line 42900, or what it would be without line 40427.
    pub tax: Money,
    /// Line 40500; nothing where it is not reckoned yet.
    pub foreign: Money,
    /// Line 40427.
    pub of_earlier: Money,
}

/// Line 40427: what earlier years paid takes from the tax as far as it is above the minimum of this one; not of who died.
pub fn of_earlier_years(on: On<'_>, trail: &mut impl Trail, income: &Income, ordinary: Ordinary) -> Money {
    let earlier = on.own().of(&brings::EARLIER);
    if earlier.is_empty() || on.facts.died(on.person) {
        return Money::ZERO;
    }
    let least = minimum(on, &mut Unseen(trail), income, ordinary);
    let above = limit::or_zero(trail, ordinary.tax - least);
    let taken = limit::lesser(trail, sum(earlier), above);
    trail.line(OF_EARLIER_YEARS, on.scope, taken, |i| {
        i.items(earlier).figure("Tax", ordinary.tax).figure("Minimum tax of this year", least);
    })
}

/// What the minimum tax is above the ordinary one, each less its credit for foreign tax.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income, ordinary: Ordinary) -> Money {
    if on.facts.died(on.person) {
        return Money::ZERO;
    }
    let minimum = minimum(on, trail, income, ordinary);
    let foreign = special_foreign_credit::reckon(on, trail, minimum, ordinary.foreign);
    let after_foreign = ordinary.tax - ordinary.foreign;
    let additional = limit::or_zero(trail, minimum - foreign - after_foreign);
    let earlier = sum(on.own().of(&brings::EARLIER));
    let left = earlier - ordinary.of_earlier + additional;
    on.made(trail, CARRIED, left, &[], &[("Of earlier years", &earlier), ("Of this year", &additional)]);
    if minimum.is_zero() {
        return Money::ZERO;
    }
    let made =
        [(MINIMUM, minimum), (special_foreign_credit::CREDIT, foreign), (foreign_tax::AFTER, after_foreign)];
    on.made(trail, ADDITIONAL, additional, &made, &[])
}

/// The minimum tax.
fn minimum(on: On<'_>, trail: &mut impl Trail, income: &Income, ordinary: Ordinary) -> Money {
    let figures = &on.facts.figures.minimum_tax;
    let adjusted = adjusted(on, income);
    let is_above = adjusted > figures.exemption;
    if is_above {
        on.made(trail, ADJUSTED, adjusted, &[(income::TAXABLE, income.taxable)], &[]);
    }
    let tax = limit::share_above(trail, adjusted, figures.exemption, figures.rate, Money::CENT);
    let credits = cents(ordinary.credits, figures.credits_part) + cents(ordinary.gifts, figures.gifts_part);
    // Told below the exemption, too: what tells other edges on an edge is cut there again and again.
    let minimum = limit::or_zero(trail, tax - credits);
    if !is_above {
        return Money::ZERO;
    }
    on.made(
        trail,
        MINIMUM,
        minimum,
        &[(ADJUSTED, adjusted)],
        &[("Exemption", &figures.exemption), ("Rate", &figures.rate), ("Less of credits", &credits)],
    )
}

/// Taxable income with the other part of gains and of options, a half of some deductions, and without the gross-up of dividends.
fn adjusted(on: On<'_>, income: &Income) -> Money {
    let (figures, dividends) = (&on.facts.figures.minimum_tax, &on.facts.figures.dividends);
    let actual = |taxable: Money, factor| taxable.divided_by(factor, Money::CENT, Rounding::HalfUp);
    let gross_up = income.eligible_dividends + income.other_dividends
        - actual(income.eligible_dividends, dividends.eligible)
        - actual(income.other_dividends, dividends.other);
    let halves = income.enhanced_cpp + income.child_care + income.losses_used + income.halved;
    // Of exempt gains a part stays in: what the other part of them is above it comes off.
    let exempt = cents(income.exempt_gains, figures.exempt_gains_part);
    income.taxable + income.taxable_gains - exempt + income.options + cents(halves, figures.deductions_part)
        - gross_up
}

/// Form T691: where it comes to more than the ordinary tax, or did in earlier years.
pub fn form_t691(filed: Filed<'_>) -> Required {
    let any = [ADDITIONAL, OF_EARLIER_YEARS, CARRIED].into_iter().any(|line| filed.has(line));
    Required::if_so(any, "not above the ordinary tax")
}

/// Where it is due, and what is too old.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(BROUGHT_IN.id) {
        for cells in paper.rows.iter().filter(|cells| !counts(points.facts, cells)) {
            let years = points.facts.figures.minimum_tax.carried_years;
            let message = format!("Minimum tax may be taken in the {years} years after it.");
            points.raise(&TOO_OLD, Place::row(&paper.id, cells, "year"), message);
        }
    }
    for (place, &person) in points.facts.returns.iter().enumerate() {
        let additional = points.amount(ADDITIONAL, place);
        if !additional.is_zero() {
            let name = &points.facts.people[person].name;
            let message = format!("{name} pays {additional:#} of minimum tax beside the ordinary tax.");
            points.raise(&DUE, points.at(person, "name"), message);
        }
        beside_foreign_tax(points, place, person);
    }
}

/// What is not known of the minimum tax beside foreign tax: how its credit counts in what may be taken of earlier years, so that not even
/// deducting the tax in its place is weighed; and by what proportion the special one lowers what is kept.
fn beside_foreign_tax(points: &mut Points<'_>, place: usize, person: usize) {
    let own = &points.facts.people[person].own;
    if own.has(&brings::EARLIER) && own.has(&foreign_income::brings::ABROAD) && !points.facts.died(person) {
        let message = "Minimum tax of earlier years is not computed beside foreign tax.";
        points.raise(&FOREIGN_EARLIER, points.at(person, "name"), message);
    }
    let above = points.amount(MINIMUM, place) > points.amount(foreign_tax::AFTER, place);
    if above && !points.amount(special_foreign_credit::CREDIT, place).is_zero() {
        let message = "What is kept of the minimum tax is told without the proportion for foreign tax.";
        points.raise(&FOREIGN_KEPT, points.at(person, "name"), message);
    }
}
