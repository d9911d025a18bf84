//! Use tax (R&TC 6201, 6452.1; Form 540, line 91): on what was bought without tax of California, by the worksheet item by item, or for small
//! purchases for oneself by the table, whichever is less.

use super::{adjustments::L17, asked::ask, form_540nr};
use crate::{
    bringing::Bringing,
    figures::CaliforniaUseTax,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    Scope, Trail,
    brought::Records,
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Item,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[PAPER],
    points: POINTS,
    figures: &["california_use_tax"],
    ..Provision::NONE
};

lines! {
    LARGE = "us.ca.use.large", "Use tax of large and business purchases", "R&TC 6201, 6406, 6452.1; Use Tax Worksheet", "Each by the rate of the place, less tax of other states on it.";
    SMALL = "us.ca.use.small", "Use tax of small purchases, item by item", "R&TC 6201, 6406, 6452.1; Use Tax Worksheet", "The same, of what was bought for oneself below a price each.";
    TABLE = "us.ca.use.table", "Use tax of small purchases by the table", "R&TC 6452.1; Estimated Use Tax Lookup Table", "As it was entered.";
    pub L91 = "us.ca.540.91", "Use tax", "R&TC 6452.1", "Large purchases by the worksheet, small ones by it or by the table, whichever is less; or as it was entered.";
}

open_points! {
    ASKED = blocks "ca-use-tax", "R&TC 6452.1; Form 540, line 91", "Enter the use tax, 0 where there is none, or the purchases on the paper 'Use tax'.";
    TWICE = blocks "ca-use-tax-twice", "R&TC 6452.1; Form 540, line 91", "Leave use tax to the paper: the answer beside it does not count.";
    RATE = blocks "ca-use-tax-rate", "R&TC 6201; Use Tax Worksheet", "Enter the rate of the place of use in per cent, with its districts.";
    TABLE_ASKED = look "ca-use-tax-table", "R&TC 6452.1; Estimated Use Tax Lookup Table", "Enter the table's amount for this income: it settles small purchases, and may be less.";
    TABLE_ROW = look "ca-use-tax-row", "R&TC 6452.1; Estimated Use Tax Lookup Table", "The table is not held here: compare its row for line 17 of the way that is filed.";
    OWNER = blocks "ca-use-tax-owner", "R&TC 6452.1; Form 540, line 91", "Give the paper to who files a return of California: so it is on none.";
    NO_LINE = look "ca-use-tax-540nr", "R&TC 6452.1", "Form 540NR has no line for use tax: it is paid by itself.";
}

/// What was bought.
#[derive(Debug, Clone)]
pub struct Bought {
    price: Item,
    /// In per cent.
    rate: Rate,
    /// Tax of another state on it.
    elsewhere: Money,
    business: bool,
}

/// What its paper brings.
pub mod brings {
    use super::Bought;
    use hembo_core::brought::Brought;

    /// Purchases without tax of California.
    pub static BOUGHT: Brought<Bought> = Brought::new();
    /// The amount of the table.
    pub static TABLE: Brought = Brought::new();
}

const BUSINESS: &str = "business";

const USES: &[Choice] =
    &[Choice::new("own", "For oneself"), Choice::new(BUSINESS, "For a business without a permit")];

/// The paper.
pub const PAPER: PaperKind = PaperKind {
    id: "Use tax",
    subject: subject::PAYMENTS,
    name: "Purchases without California tax",
    words: "california use tax 91 purchases online out of state sales tax worksheet lookup table",
    title: "About",
    shared: false,
    headline: "price",
    boxes: &[Field::amount("table", "", "Amount of the Estimated Use Tax Lookup Table").help(
        "Of the instructions of Form 540, in the row of line 17: for small purchases for oneself. Such purchases need no line below then; with all of them the smaller of both is taken.",
    )],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::amount("price", "", "Price").help("With shipping that is taxed, each by itself."),
        Field::decimal("rate", "", "Rate, %", 4).help("Where it is used, with districts."),
        Field::amount("elsewhere", "", "Tax of another state on it"),
        Field::choice("use", "", "Bought", USES).help("A business with a seller's permit reports its use tax itself."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The rate of a line, in per cent.
fn rate(cells: &Answers) -> Rate {
    cells.get("rate").and_then(Entry::decimal).unwrap_or(Rate::ZERO)
}

/// Gives purchases and the table's amount to who is named on the paper: use tax is nobody's community income.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.titled.paper.boxes.contains_key("table") {
        // Nothing by the table settles small purchases, too.
        for (person, amount) in paper.titled.shares(paper.titled.paper.amount("table")) {
            paper.facts.people[person].own.add(&brings::TABLE, paper.titled.item("table", None, amount));
        }
    }
    let lines: Vec<_> =
        paper.titled.lines("price").map(|(row, cells, price)| (row, cells.clone(), price)).collect();
    for (row, cells, price) in lines {
        let elsewhere = cells.get("elsewhere").and_then(Entry::money).unwrap_or_default();
        let business = cells.get("use").and_then(Entry::text) == Some(BUSINESS);
        for (person, price) in paper.titled.parts("price", Some(row), price) {
            let bought = Bought { price, rate: rate(&cells), elsewhere, business };
            paper.facts.people[person].own.add(&brings::BOUGHT, bought);
        }
    }
}

impl Bought {
    /// Its tax, with cents.
    fn tax(&self) -> Money {
        let rate = Rate::from_billionths(self.rate.billionths() / 100);
        settled::or_zero(self.price.amount.times(rate, Money::CENT, Rounding::HalfUp) - self.elsewhere)
    }
}

fn bought(on: On<'_>) -> impl Iterator<Item = &Bought> {
    on.owns().flat_map(|(_, own)| own.of(&brings::BOUGHT))
}

fn is_brought(own: &Records) -> bool {
    own.has(&brings::BOUGHT) || own.has(&brings::TABLE)
}

/// Whether the paper is on a return.
fn is_listed(on: On<'_>) -> bool {
    on.owns().any(|(_, own)| is_brought(own))
}

/// Line 91: of the paper; without one as it was answered, on the first of two returns. Form 540NR has no such line.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let here = on.facts.of_state.as_ref().filter(|_| !form_540nr::is_filed(on));
    if let Some(figures) =
        on.facts.figures.california_use_tax.as_ref().filter(|_| here.is_some() && is_listed(on))
    {
        return listed(on, trail, figures);
    }
    let elsewhere = on.facts.people.iter().any(|of| is_brought(&of.own));
    let first = on.facts.filers.first() == on.unit.people.first() && !elsewhere;
    let said = here.and_then(|of| of.use_tax).filter(|_| first).unwrap_or_default();
    trail.line(L91, on.scope, said.to_whole(), |i| _ = i.figure("As entered", said))
}

/// Line 91 from the paper.
fn listed(on: On<'_>, trail: &mut impl Trail, figures: &CaliforniaUseTax) -> Money {
    let is_small = |of: &&Bought| !of.business && of.price.amount < figures.small_below;
    let (small, large): (Vec<&Bought>, Vec<&Bought>) = bought(on).partition(is_small);
    let of = |all: &[&Bought]| all.iter().map(|of| of.tax()).sum::<Money>();
    let [by_item, of_large] = [&small, &large].map(|all| of(all));
    for (line, all, tax) in [(LARGE, &large, of_large), (SMALL, &small, by_item)] {
        trail.line(line, on.scope, tax, |i| {
            _ = i.items(all.iter().map(|of| &of.price)).figure("Small below, each", figures.small_below);
        });
    }
    let table = sum(on.items(&brings::TABLE)).to_whole();
    trail.line(TABLE, on.scope, table, |i| _ = i.items(on.items(&brings::TABLE)));
    let worksheet = (of_large + by_item).to_whole();
    let with_table = of_large.to_whole() + table;
    let entered = on.owns().any(|(_, own)| own.has(&brings::TABLE));
    let tax = match (entered, small.is_empty()) {
        (false, _) => worksheet,
        (true, true) => with_table,
        (true, false) => settled::lesser(worksheet, with_table),
    };
    trail.line(L91, on.scope, tax, |i| {
        i.line(LARGE, on.scope, of_large).line(SMALL, on.scope, by_item).line(TABLE, on.scope, table);
    })
}

/// The Use Tax Worksheet.
pub fn worksheet(filed: Filed<'_>) -> Required {
    let listed = is_listed(filed.on) && !form_540nr::is_filed(filed.on);
    super::forms::here(filed, listed, "no purchases are listed")
}

/// What is not known of use tax.
pub fn points(points: &mut Points<'_>) {
    let Some(of) = &points.facts.of_state else { return };
    let papers: Vec<_> = points.papers(PAPER.id).collect();
    let (at, part_year, said) = (Place::household(ask::USE_TAX), of.part_year, of.use_tax);
    let Some(first) = papers.first() else {
        let all_year = points.answered(ask::ALL_YEAR).and_then(Entry::flag) == Some(true);
        if all_year && said.is_none() {
            points.raise(&ASKED, at, "Use tax of California?");
        }
        return;
    };
    if part_year {
        return points.raise(&NO_LINE, Place::paper(&first.id, "title"), "Use tax is not on Form 540NR.");
    }
    if said.is_some_and(|said| !said.is_zero()) {
        points.raise(&TWICE, at, "Use tax is entered twice.");
    }
    let Some(figures) = &points.facts.figures.california_use_tax else { return };
    for paper in papers {
        let is_rated =
            |cells: &Answers| rate(cells) >= Rate::from_billionths(figures.least_rate.billionths() * 100);
        for row in paper.rows.iter().filter(|row| row.cells.contains_key("price") && !is_rated(&row.cells)) {
            let least = limit::percent(figures.least_rate);
            let words = format!("{}: at which rate, {least} or more, was this to be taxed?", paper.title);
            points.raise(&RATE, Place::row(&paper.id, row, "rate"), words);
        }
        let place = Place::paper(&paper.id, "table");
        let is_on = |place: &usize| {
            let has_line = points.trail.amount(L91, Scope::Return(*place)).is_some();
            has_line && points.is_of(paper, &points.units[*place].people)
        };
        let Some(unit) = (0..points.units.len()).find(is_on) else {
            points.raise(&OWNER, Place::paper(&paper.id, "title"), "Purchases of someone without a return.");
            continue;
        };
        if paper.boxes.contains_key("table") {
            let income = points.amount(L17, unit);
            points.raise(
                &TABLE_ROW,
                place,
                format!("Use tax by the table's row for an income of {income:#}."),
            );
        } else if paper.rows.iter().any(|row| row.cells.get("use").and_then(Entry::text) != Some(BUSINESS)) {
            points.raise(&TABLE_ASKED, place, "Use tax of small purchases by the table?");
        }
    }
}
