//! The statement of foreign property (ITA 233.3; form T1135): of each person whose property outside Canada cost more than a threshold
//! at any time in the year, the short one or, from another threshold on, the long one.

use crate::{
    bringing::Bringing,
    facts::Facts,
    people,
    plan::{Filed, On},
    points::Points,
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Item, Trail},
};
use hembo_money::Money;
use std::collections::BTreeMap;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[PROPERTY],
    lines: LINES,
    points: POINTS,
    figures: &["foreign_property"],
    ..Provision::NONE
};

lines! {
    pub COST = "ca.t1135.cost", "Foreign property, highest cost", "ITA 233.3(1), (3)",
        "The highest total of the year, or the highest cost of each together.";
    YEAR_END = "ca.t1135.end", "Foreign property, cost at the end of the year", "ITA 233.3(3)",
        "Of each what it had cost on the last day.";
    INCOME = "ca.t1135.income", "Foreign property, income", "ITA 233.3(3)",
        "Before foreign tax.";
    GAIN = "ca.t1135.gain", "Foreign property, gains", "ITA 233.3(3)",
        "Gains less losses of what was sold.";
}

open_points! {
    MISSING = blocks "C-18", "ITA 233.3(3)", "Add the paper for foreign property: form T1135 is due with the return.";
    SAID_NO = blocks "C-18-no", "ITA 233.3(3)", "Line 26600 is to be answered yes.";
    NO_COUNTRY = blocks "C-20", "ITA 233.3(3)", "Name the country; of shares that of the company.";
    SHORT = look "T1135-A", "ITA 233.3(3); form T1135, part A", "Tick the kinds of property and enter these countries.";
    LONG = look "T1135-B", "ITA 233.3(3); form T1135, part B", "Every line is entered by its category.";
    NO_NAME = blocks "C-19", "ITA 233.3(3); form T1135, part B", "The long statement names each property.";
}

/// What its papers bring.
pub mod brings {
    use super::Property;
    use hembo_core::brought::Brought;
    use hembo_money::Money;

    /// Property outside Canada.
    pub static PROPERTY: Brought<Property> = Brought::new();

    /// The highest total of the year where it was told.
    pub static HIGHEST: Brought<Money> = Brought::new();
}

/// A property outside Canada.
#[derive(Debug, Clone)]
pub struct Property {
    country: String,
    most: Item,
    end: Item,
    income: Item,
    gain: Item,
}

/// The categories of part B.
const CATEGORIES: &[Choice] = &[
    Choice::new("1", "1 Funds held outside Canada"),
    Choice::new("2", "2 Shares of non-resident corporations"),
    Choice::new("3", "3 Debts of non-residents"),
    Choice::new("4", "4 Interests in non-resident trusts"),
    Choice::new("5", "5 Real property outside Canada"),
    Choice::new("6", "6 Other property outside Canada"),
    Choice::new("7", "7 With a Canadian dealer or trust company"),
];

const PROPERTY: PaperKind = PaperKind {
    id: "T1135",
    subject: subject::INVESTMENTS,
    name: "Foreign property",
    words: "abroad statement verification account shares house t1135",
    title: "About",
    shared: true,
    headline: "most",
    boxes: &[Field::amount("highest", "", "Highest total cost at one time")
        .help("Blank where all was held together: then the lines are added up.")],
    columns: &[
        Field::choice("category", "", "Category", CATEGORIES),
        Field::text("what", "", "Name or description", 80),
        Field::text("country", "", "Country", 40),
        Field::amount("most", "", "Highest cost")
            .help("In dollars at the rate of the purchase; category 7: the highest month-end value."),
        Field::amount("end", "", "Cost at year-end"),
        Field::amount("income", "", "Income"),
        Field::signed("gain", "", "Gain or loss"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives every property to the owners, each a part.
pub fn read(paper: &mut Bringing<'_>) {
    let people = paper.paper.shares(Money::ZERO);
    for (row, cells, _) in paper.paper.lines("most") {
        let amount = |field: &str| cells.get(field).and_then(Entry::money).unwrap_or_default();
        let country = cells.get("country").and_then(Entry::text).unwrap_or_default().trim().to_owned();
        for (place, (person, _)) in people.iter().enumerate() {
            let part = |field: &'static str| {
                let (_, share) = paper.paper.shares(amount(field))[place];
                paper.paper.item(field, Some(row), share)
            };
            let property = Property {
                country: country.clone(),
                most: part("most"),
                end: part("end"),
                income: part("income"),
                gain: part("gain"),
            };
            paper.facts.people[*person].own.add(&brings::PROPERTY, property);
        }
    }
    if paper.has("highest") {
        for (person, share) in paper.paper.shares(paper.amount("highest")) {
            paper.facts.people[person].own.add(&brings::HIGHEST, share);
        }
    }
}

/// The highest cost of a person's property.
fn cost(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    let told = own.of(&brings::HIGHEST);
    if told.is_empty() {
        sum(own.of(&brings::PROPERTY).iter().map(|p| &p.most))
    } else {
        told.iter().copied().sum()
    }
}

/// Above the threshold, but for the year in which one first came to live in Canada (233.7).
fn is_filed(facts: &Facts, person: usize) -> bool {
    cost(facts, person) > facts.figures.foreign_property.above && !facts.people[person].part_year.came
}

/// The lines of the statement.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) {
    let all = on.own().of(&brings::PROPERTY);
    if all.is_empty() {
        return;
    }
    trail.line(COST, on.scope, cost(on.facts, on.person), |i| {
        i.items(all.iter().map(|p| &p.most));
    });
    on.gather(trail, YEAR_END, all.iter().map(|p| &p.end));
    on.gather(trail, INCOME, all.iter().map(|p| &p.income));
    on.gather(trail, GAIN, all.iter().map(|p| &p.gain));
}

/// Form T1135: above the threshold.
pub fn form_t1135(filed: Filed<'_>) -> Required {
    let reason = "foreign property of no more than the threshold, or the year in which one came";
    Required::if_so(is_filed(filed.on.facts, filed.on.person), reason)
}

/// The countries with the highest cost, the most first.
fn countries(facts: &Facts, person: usize) -> Vec<String> {
    let mut by_country: BTreeMap<&str, Money> = BTreeMap::new();
    for property in facts.people[person].own.of(&brings::PROPERTY) {
        *by_country.entry(property.country.as_str()).or_default() += property.most.amount;
    }
    let mut all: Vec<(&str, Money)> = by_country.into_iter().filter(|(name, _)| !name.is_empty()).collect();
    all.sort_by_key(|(_, cost)| std::cmp::Reverse(*cost));
    all.into_iter().take(facts.figures.foreign_property.countries).map(|(name, _)| name.to_owned()).collect()
}

/// What the statement needs.
pub fn points(points: &mut Points<'_>) {
    let said = points.answered(people::ask::FOREIGN_PROPERTY).and_then(Entry::flag);
    let above = |&p: &usize| is_filed(points.facts, p);
    let filing: Vec<usize> = points.facts.returns.iter().copied().filter(above).collect();
    let place = Place::household(people::ask::FOREIGN_PROPERTY);
    if said == Some(true) && points.papers(PROPERTY.id).next().is_none() {
        points.raise(&MISSING, place, "Foreign property above the threshold without its statement.");
    } else if said == Some(false) && !filing.is_empty() {
        let above = points.facts.figures.foreign_property.above;
        points.raise(&SAID_NO, place, format!("The papers have foreign property of over {above:#}."));
    }
    let (filed, mut long) = (!filing.is_empty(), false);
    for person in filing {
        let figures = &points.facts.figures.foreign_property;
        let name = &points.facts.people[person].name;
        let countries = countries(points.facts, person).join(", ");
        let cost = cost(points.facts, person);
        long |= cost >= figures.long_from;
        let (def, part) = if cost >= figures.long_from { (&LONG, "long") } else { (&SHORT, "short") };
        let message =
            format!("{name} files the {part} statement: {cost:#} at its highest; most of it in {countries}.");
        points.raise(def, points.at(person, "name"), message);
    }
    for paper in points.papers(PROPERTY.id).filter(|_| filed) {
        of_paper(points, paper, long);
    }
}

fn of_paper(points: &mut Points<'_>, paper: &Paper, long: bool) {
    for cells in &paper.rows {
        let blank = |field: &str| cells.get(field).and_then(Entry::text).is_none_or(str::is_empty);
        if blank("country") {
            points.raise(&NO_COUNTRY, Place::row(&paper.id, cells, "country"), "In which country?");
        }
        for field in ["category", "what"].into_iter().filter(|field| long && blank(field)) {
            points.raise(&NO_NAME, Place::row(&paper.id, cells, field), "The long statement asks for it.");
        }
    }
}
