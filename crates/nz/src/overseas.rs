//! Income from abroad with its statement (ITA BD 1, CF 1, CF 3; question 17 of the IR3 and form IR1261), and the credit for foreign tax
//! by segment (ITA LJ 1 to LJ 8).

use crate::{
    bringing::Bringing,
    facts::Facts,
    plan::{Filed, FundMethod, On},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Income from abroad",
    lines: LINES,
    limits: LIMITS,
    papers: &[STATEMENT, LUMP_SUM],
    points: POINTS,
    ..Provision::NONE
};

lines! {
    pub EXEMPT = "nz.overseas_exempt", "Exempt of a transitional resident", "ITA CW 27, HR 8",
        "Income from abroad that is not for work.";
    pub INCOME = "nz.overseas_income", "Overseas income", "ITA BD 1, CF 1, CF 3; IR3 question 17 B",
        "Every line of the statement less its own deductions, dividends of funds that cost little, and lump sums.";
    pub CREDIT = "nz.foreign_tax_credit", "Foreign tax credit", "ITA LJ 1, LJ 5",
        "Of each country and kind the foreign tax, or the tax on its income if less.";
}

limits! {
    SEGMENT = "nz.limit.foreign_tax" on CREDIT, "Foreign tax", "over the tax on the same income, segment by segment", "ITA LJ 5(2)";
}

open_points! {
    LINE = blocks "C18", "ITA LJ 2; form IR1261", "Name the country and the kind: the credit goes by both.";
    HIGH = look "C19", "ITA LJ 2(2); treaties", "Only what the treaty allows counts: ask the rest back abroad.";
    WORK = look "C07", "ITA CW 27(2)", "Pay for work done while a transitional resident is taxed; say so in its kind.";
    LET_AT_A_LOSS = not_covered "overseas-loss", "ITA EL 4, EL 5";
    NO_METHOD = blocks "lump-sum", "ITA CF 3", "Enter what each method that is open to you makes taxable.";
}

/// What its papers bring.
pub mod brings {
    use super::{Abroad, LumpSum};
    use hembo_core::brought::Brought;

    /// Income from abroad by country and kind.
    pub static ABROAD: Brought<Abroad> = Brought::new();
    /// Lump sums of foreign pension schemes.
    pub static LUMP_SUMS: Brought<LumpSum> = Brought::new();
}

/// A line of the statement: the owner's part.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Abroad {
    /// The country.
    pub country: String,
    /// The kind, by its id.
    pub kind: String,
    /// For work done while resident: taxed of a transitional resident too.
    pub for_work: bool,
    /// Before foreign tax.
    pub gross: Item,
    /// What was spent to earn it.
    pub deductions: Item,
    /// The tax paid abroad that the treaty allows.
    pub tax: Item,
}

/// A lump sum of a foreign pension scheme (ITA CF 3).
#[derive(Debug, Clone, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct LumpSum {
    pub id: String,
    pub country: String,
    pub schedule: Item,
    /// Where the formula is open.
    pub formula: Option<Item>,
    pub tax: Item,
}

/// No treaty leaves more than this for the kinds that are common; worth a look, no rule.
const USUAL_BY_TREATY: Rate = Rate::percent(30);

/// Kinds of income, each a segment with its country.
pub const KINDS: &[Choice] = &[
    Choice::new("work", "Work"),
    Choice::new("pension", "Pension"),
    Choice::new("interest", "Interest"),
    Choice::new("dividend", "Dividends"),
    Choice::new("rent", "Rent"),
    Choice::new("trust", "Trust"),
    Choice::new("other", "Other"),
];

const METHODS: &[Choice] = &[
    Choice::new("day", "Rate of the day"),
    Choice::new("mid", "Mid-month rate"),
    Choice::new("end", "End-of-month rate"),
    Choice::new("rolling", "Rolling average"),
];

const STATEMENT: PaperKind = PaperKind {
    id: "Overseas income",
    subject: subject::OTHER_INCOME,
    name: "Statement of overseas income",
    words: "foreign abroad ir1261 pension rent tax",
    title: "About",
    shared: true,
    headline: "gross",
    boxes: &[Field::choice("method", "", "How it was converted", METHODS)
        .lasts()
        .help("One way for one kind of income, year by year.")],
    columns: &[
        Field::text("country", "", "Country", 40),
        Field::choice("kind", "", "Kind", KINDS),
        Field::text("payer", "", "Payer", 60).payer_name(),
        Field::amount("gross", "17 B", "Gross in dollars"),
        Field::amount("deductions", "", "Spent to earn it"),
        Field::amount("tax", "17 A", "Foreign tax by the treaty"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const LUMP_SUM: PaperKind = PaperKind {
    id: "Foreign lump sum",
    subject: subject::RETIREMENT,
    name: "Lump sum of a foreign pension scheme",
    words: "superannuation transfer withdrawal",
    title: "Scheme",
    shared: false,
    headline: "schedule",
    boxes: &[
        Field::text("country", "", "Country", 40),
        Field::amount("schedule", "", "Taxable by the schedule method")
            .help("The share of Schedule 33 for the period since arrival."),
        Field::amount("formula", "", "Taxable by the formula method")
            .help("Blank where the scheme does not allow it."),
        Field::amount("tax", "", "Foreign tax by the treaty"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the lines to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == LUMP_SUM.id {
        return lump_sum(paper);
    }
    let reading = paper.paper;
    for (row, cells, gross) in reading.lines("gross") {
        let text = |column: &str| cells.get(column).and_then(Entry::text).unwrap_or_default().to_owned();
        let money = |column: &str| cells.get(column).and_then(Entry::money).unwrap_or_default();
        let amounts = [("gross", gross), ("deductions", money("deductions")), ("tax", money("tax"))];
        for (at, person) in paper.owners().into_iter().enumerate() {
            let part = |(column, amount): (&'static str, Money)| {
                reading.item(column, Some(row), reading.shares(amount)[at].1)
            };
            let [gross, deductions, tax] = amounts.map(part);
            let (country, kind) = (text("country"), text("kind"));
            let for_work = kind == "work";
            let one = Abroad { country, kind, for_work, gross, deductions, tax };
            paper.facts.people[person].own.add(&brings::ABROAD, one);
        }
    }
    if !reading.paper.rows.is_empty() {
        paper.needs_return();
    }
}

fn lump_sum(paper: &mut Bringing<'_>) {
    let formula = paper.has("formula").then(|| paper.item("formula", paper.amount("formula")));
    let one = LumpSum {
        id: paper.paper.paper.id.clone(),
        country: paper.text("country").to_owned(),
        schedule: paper.item("schedule", paper.amount("schedule")),
        formula,
        tax: paper.item("tax", paper.amount("tax")),
    };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::LUMP_SUMS, one.clone());
    }
    paper.needs_return();
}

/// Income of one country and kind, with the tax on it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Segment {
    /// The country.
    pub country: String,
    /// The kind.
    pub kind: &'static str,
    /// Less its own deductions.
    pub income: Money,
    /// The foreign tax.
    pub tax: Money,
}

/// Overseas income without that of funds: each country and kind.
#[derive(Debug, Clone, Default)]
pub struct Overseas {
    /// Income in total.
    pub income: Money,
    /// The segments.
    pub segments: Vec<Segment>,
}

impl Overseas {
    /// Adds to the segment of a country and kind.
    pub fn put(&mut self, country: &str, kind: &'static str, income: Money, tax: Money) {
        let found = self.segments.iter_mut().find(|s| s.kind == kind && s.country == country);
        match found {
            Some(segment) => {
                segment.income += income;
                segment.tax += tax;
            }
            None => self.segments.push(Segment { country: country.to_owned(), kind, income, tax }),
        }
    }
}

/// The id of a kind, as it is declared.
fn kind_of(id: &str) -> &'static str {
    KINDS.iter().find(|kind| kind.id == id).map_or("other", |kind| kind.id)
}

/// Question 17 without funds: the dividends of funds are among it where they are taxed as such.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, fund_dividends: &[(String, Item, Item)]) -> Overseas {
    let exempt = |abroad: &&Abroad| is_transitional(on) && !abroad.for_work;
    let all = on.own().of(&brings::ABROAD);
    let mut found = Overseas::default();
    let left_out: Vec<&Abroad> = all.iter().filter(exempt).collect();
    if !left_out.is_empty() {
        on.gather(trail, EXEMPT, left_out.iter().map(|abroad| &abroad.gross));
    }
    let taxed: Vec<&Abroad> = all.iter().filter(|abroad| !exempt(abroad)).collect();
    for abroad in &taxed {
        let income = abroad.gross.amount - abroad.deductions.amount;
        found.put(&abroad.country, kind_of(&abroad.kind), income, abroad.tax.amount);
    }
    for (country, dividends, tax) in fund_dividends {
        found.put(country, "dividend", dividends.amount, tax.amount);
    }
    let lump_sums: Vec<(&LumpSum, &Item)> =
        on.own().of(&brings::LUMP_SUMS).iter().map(|one| (one, taken(on, one))).collect();
    for (one, item) in &lump_sums {
        found.put(&one.country, "pension", item.amount, one.tax.amount);
    }
    found.income = found.segments.iter().map(|segment| segment.income).sum();
    trail.line(INCOME, on.scope, found.income, |i| {
        i.items(
            taxed
                .iter()
                .flat_map(|abroad| [&abroad.gross, &abroad.deductions])
                .filter(|item| !item.amount.is_zero()),
        );
        i.items(fund_dividends.iter().map(|(_, dividends, _)| dividends))
            .items(lump_sums.iter().map(|(_, item)| *item));
    });
    found
}

/// What of a lump sum is taxed in the way.
fn taken<'a>(on: On<'_>, one: &'a LumpSum) -> &'a Item {
    match &one.formula {
        Some(formula) if on.plan.by_formula.contains(&one.schedule.paper) => formula,
        _ => &one.schedule,
    }
}

/// Whether income from abroad is exempt of who files: a family that claims Working for Families gives that up.
pub fn is_transitional(on: On<'_>) -> bool {
    on.who().transitional && !on.plan.claims_family
}

/// The foreign tax credit: segment by segment the tax, or the New Zealand tax in the proportion of its income if less.
pub fn credit(on: On<'_>, trail: &mut impl Trail, segments: &[Segment], tax: Money, net: Money) -> Money {
    let (mut wanted, mut allowed) = (Money::ZERO, Money::ZERO);
    let taxed: Vec<&Segment> = segments.iter().filter(|segment| !segment.tax.is_zero()).collect();
    for segment in &taxed {
        let most = most(trail, segment, tax, net);
        wanted += segment.tax;
        allowed += limit::lesser(trail, segment.tax, most);
    }
    if taxed.is_empty() {
        return Money::ZERO;
    }
    // Segments beside deductions may come to more than the tax of all together (LJ 2(2)).
    let allowed = limit::lesser(trail, allowed, tax);
    let given = limit::cap(trail, SEGMENT.at(on.scope), wanted, allowed);
    let all = on.own().of(&brings::ABROAD);
    trail.line(CREDIT, on.scope, given, |i| {
        i.items(all.iter().map(|abroad| &abroad.tax).filter(|item| !item.amount.is_zero()));
        for segment in &taxed {
            let most = most(&mut hembo_core::Silent, segment, tax, net);
            i.working(format!(
                "{} {}: {:#} of {:#}",
                segment.country,
                segment.kind,
                settled::lesser(segment.tax, most),
                segment.tax
            ));
        }
        i.figure("Tax before credits", tax).figure("Net income", net);
    })
}

/// The tax on a segment: its part of net income, at most all.
fn most(trail: &mut impl Trail, segment: &Segment, tax: Money, net: Money) -> Money {
    let income = limit::or_zero(trail, segment.income);
    let part = limit::lesser(trail, income, net);
    if net.is_zero() { Money::ZERO } else { tax.in_proportion(part, net, Money::CENT, Rounding::HalfUp) }
}

/// By which method a lump sum is taxed, where both are open, by its paper.
pub static METHOD: Open<Facts> = Open::new(
    |facts| both_open(facts).map(|one| one.schedule.paper).collect(),
    |facts, paper| {
        let id = both_open(facts).find(|one| one.schedule.paper == paper).map_or("", |one| one.id.as_str());
        let options = vec![
            Opt::new("schedule", "By the schedule", ""),
            Opt::new("formula", "By the formula", "lump sum by the formula"),
        ];
        Decision::between(format!("nz.lump.{id}"), "Lump sum from abroad", "ITA CF 3", options)
    },
);

fn both_open(facts: &Facts) -> impl Iterator<Item = &LumpSum> {
    let all = facts.returns.iter().flat_map(|&person| facts.people[person].own.of(&brings::LUMP_SUMS));
    all.filter(|one| one.formula.is_some())
}

/// Which are taxed by the formula in a way, by paper.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    let papers = both_open(facts).map(|one| one.schedule.paper);
    papers.filter(|&paper| way.taken(&METHOD, paper) == Some(1)).collect()
}

/// The lump sums of a person of which the formula taxes less, by paper.
pub fn lowest(facts: &Facts, person: usize) -> Vec<usize> {
    let all = facts.people[person].own.of(&brings::LUMP_SUMS).iter();
    let lower = |one: &&LumpSum| one.formula.is_some_and(|formula| formula.amount < one.schedule.amount);
    all.filter(lower).map(|one| one.schedule.paper).collect()
}

/// The statement: where there is income from abroad.
pub fn form_ir1261(filed: Filed<'_>) -> Required {
    let funds = !matches!(filed.on.plan.funds.get(filed.on.person), None | Some(FundMethod::Dividends));
    let any = filed.has(INCOME) || filed.has(EXEMPT) || (funds && filed.has(CREDIT));
    Required::if_so(any, "no income from abroad")
}

/// Lines that are not whole, tax above what treaties allow, work of a transitional resident.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(STATEMENT.id) {
        of_statement(points, paper);
    }
    for paper in points.papers(LUMP_SUM.id) {
        if !paper.boxes.contains_key("schedule") {
            let place = Place::paper(&paper.id, "schedule");
            points.raise(&NO_METHOD, place, "What of the lump sum is taxable?");
        }
    }
}

fn of_statement(points: &mut Points<'_>, paper: &Paper) {
    for row in &paper.rows {
        let at = |column: &str| Place::row(&paper.id, row, column);
        let money = |column: &str| row.get(column).and_then(Entry::money).unwrap_or_default();
        for (column, what) in [("country", "Of which country?"), ("kind", "Of which kind?")] {
            if row.get(column).and_then(Entry::text).is_none_or(str::is_empty) {
                points.raise(&LINE, at(column), what);
            }
        }
        let (gross, tax) = (money("gross"), money("tax"));
        if tax > cents(gross, USUAL_BY_TREATY) {
            points.raise(&HIGH, at("tax"), format!("Foreign tax of {tax:#} on {gross:#}."));
        }
        let rent = row.get("kind").and_then(Entry::text) == Some("rent");
        if rent && money("deductions") > gross {
            let message = "A loss of letting abroad is ring-fenced; enter it as a residential property.";
            points.raise(&LET_AT_A_LOSS, at("deductions"), message);
        }
        let pension_or_work = row.get("kind").and_then(Entry::text) == Some("other");
        let owner = paper.owners.first().and_then(|o| points.household.index_of(&o.person));
        if pension_or_work && owner.is_some_and(|person| points.facts.people[person].transitional) {
            points.raise(&WORK, at("kind"), "For work or services done while resident?");
        }
    }
}
