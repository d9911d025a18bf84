//! Sales by lot: Form 1099-B and Form 1099-DA, as they go to Form 8949.

use crate::{
    bringing::{self, Bringing},
    capital_gains::{self, SaleBox},
    gains::held_over_a_year,
    papers::interest,
    points::Points,
    states::{self, STATES},
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    household::{Answers, Entry, Row},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::Money;
use time::{Date, Duration};

/// What this paper declares.
pub static PROVISION: Provision =
    Provision { papers: &[SALES], points: POINTS, figures: &["capital_gains"], ..Provision::NONE };

open_points! {
    NO_TERM = blocks "K-062-term", "IRC §1222",
        "Enter both days, or choose the term.";
    DATES = blocks "K-062", "IRC §1222",
        "Look at the days and the term.";
    NO_BASIS = blocks "K-061", "IRC §§1011, 1012",
        "Enter the basis, zero too: without it all of the proceeds is gain.";
    WASH = look "K-063", "IRC §1091",
        "A loss is not allowed where the same is bought within 30 days: enter it in its column.";
    WASH_TOO_MUCH = blocks "K-063-loss", "IRC §1091",
        "No more than the loss is disallowed: look at the line.";
}

const TERMS: &[Choice] = &[Choice::new("short", "Short, one year or less"), Choice::new("long", "Long")];

const REPORTED: &[Choice] = &[
    Choice::new("basis", "1099-B, basis reported"),
    Choice::new("no_basis", "1099-B, basis not reported"),
    Choice::new("nothing", "No Form 1099-B"),
    Choice::new("digital", "Digital asset"),
];

const SALES: PaperKind = PaperKind {
    id: "1099-B",
    subject: subject::INVESTMENTS,
    name: "Sales of securities and digital assets",
    words: "broker shares stock bonds crypto sold lots capital gain loss 1099-DA 8949",
    title: "Broker",
    shared: true,
    headline: "proceeds",
    boxes: &[
        Field::amount("4", "4", "Federal tax withheld"),
        Field::choice("14", "14", "State", STATES),
        Field::amount("16", "16", "State tax withheld"),
        states::SEPARATE,
    ],
    columns: &[
        Field::text("what", "1a", "What", 80),
        Field::date("acquired", "1b", "Acquired")
            .help("Empty where several days or inherited: then choose the term."),
        Field::date("sold", "1c", "Sold"),
        Field::amount("proceeds", "1d", "Proceeds"),
        Field::amount("basis", "1e", "Cost or basis"),
        Field::amount("discount", "1f", "Market discount").help("Accrued: that much of a gain is interest."),
        Field::amount("wash", "1g", "Wash sale").help("Loss that is not allowed."),
        Field::signed("adjustment", "g", "Other adjustment")
            .help("Column (g) of Form 8949: minus for less gain."),
        Field::choice("term", "2", "Term", TERMS),
        Field::choice("reported", "12", "Reported", REPORTED).blank_is("basis"),
        Field::yes_no("collectible", "3", "Collectible"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// A line of the list as it counts.
#[derive(Debug, Clone, Copy)]
struct Lot {
    acquired: Option<Date>,
    sold: Option<Date>,
    proceeds: Money,
    basis: Money,
    discount: Money,
    wash: Money,
    adjustment: Money,
}

impl Lot {
    fn of(row: &Answers) -> Lot {
        let amount = |id: &str| row.get(id).and_then(Entry::money).unwrap_or_default();
        let date = |id: &str| row.get(id).and_then(Entry::date);
        Lot {
            acquired: date("acquired"),
            sold: date("sold"),
            proceeds: amount("proceeds"),
            basis: amount("basis"),
            discount: amount("discount"),
            wash: amount("wash"),
            adjustment: amount("adjustment"),
        }
    }

    /// The gain before market discount and what is not allowed.
    fn gain(&self) -> Money {
        self.proceeds - self.basis + self.adjustment
    }

    /// What of the gain is interest (§1276(a)(1)).
    fn interest(&self) -> Money {
        settled::lesser(self.discount, settled::or_zero(self.gain()))
    }

    /// Held for more than one year; none where a day is missing.
    fn is_long(&self) -> Option<bool> {
        held_over_a_year(self.acquired?, self.sold?)
    }
}

fn is_long(row: &Answers) -> Option<bool> {
    let said = row.get("term").and_then(Entry::text).map(|term| term == "long");
    said.or_else(|| Lot::of(row).is_long())
}

fn sale_box(row: &Answers) -> SaleBox {
    let long = is_long(row) == Some(true);
    let reported = row.get("reported").and_then(Entry::text).unwrap_or("basis");
    match (long, reported) {
        (false, "basis") => SaleBox::A,
        (false, "no_basis") => SaleBox::B,
        (false, _) => SaleBox::C,
        (true, "basis") => SaleBox::D,
        (true, "no_basis") => SaleBox::E,
        (true, _) => SaleBox::F,
    }
}

/// Gives each lot to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    paper.give("4", &bringing::brings::WITHHELD);
    paper.give("16", &bringing::brings::STATE_INCOME_TAX);
    paper.give_state("14", Money::ZERO, "16");
    for (r, row, _) in paper.paper.lines("proceeds") {
        let lot = Lot::of(row);
        let interest = lot.interest();
        let adjusted = lot.adjustment + lot.wash - interest;
        let parts = [("proceeds", lot.proceeds), ("basis", lot.basis), ("adjustment", adjusted)];
        capital_gains::sale(paper, sale_box(row), Some(r), parts);
        paper.put("discount", Some(r), interest, &interest::brings::INTEREST);
        let collectible = row.get("collectible").and_then(Entry::flag) == Some(true);
        if collectible && is_long(row) == Some(true) {
            let gain = lot.gain() + lot.wash - interest;
            paper.put("proceeds", Some(r), gain, &capital_gains::brings::COLLECTIBLES);
        }
    }
}

/// What each lot should agree in.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SALES.id) {
        for row in &paper.rows {
            one(points, paper, row);
        }
    }
}

fn one(points: &mut Points<'_>, paper: &Paper, row: &Row) {
    let at = |field: &str| Place::row(&paper.id, row, field);
    let lot = Lot::of(&row.cells);
    let named = row.cells.get("what").and_then(Entry::text).unwrap_or("this lot");
    let said = row.cells.get("term").and_then(Entry::text).map(|term| term == "long");
    match (said, lot.is_long()) {
        (None, None) => points.raise(&NO_TERM, at("term"), format!("How long was {named} held?")),
        (Some(said), Some(held)) if said != held => {
            points.raise(&DATES, at("term"), format!("The days and the term of {named} disagree."));
        }
        _ => {}
    }
    if lot.acquired.zip(lot.sold).is_some_and(|(acquired, sold)| acquired > sold) {
        points.raise(&DATES, at("acquired"), format!("{named} was sold before it was acquired."));
    }
    if !row.cells.contains_key("basis") && !lot.proceeds.is_zero() {
        points.raise(&NO_BASIS, at("basis"), format!("What did {named} cost?"));
    }
    if !lot.wash.is_zero() && lot.wash > settled::or_zero(-lot.gain()) {
        points.raise(&WASH_TOO_MUCH, at("wash"), format!("More than the loss on {named} is not allowed."));
    }
    let days = points.facts.figures.capital_gains.wash_days;
    if lot.gain().is_negative() && lot.wash.is_zero() && bought_again(points, row) {
        points.raise(
            &WASH,
            at("wash"),
            format!("{named} was bought within {days} days of a sale at a loss."),
        );
    }
}

/// Whether another lot of the same name was acquired near the sale, before or after it (§1091(a)): of stock or
/// securities, which digital assets are not.
fn bought_again(points: &Points<'_>, row: &Row) -> bool {
    let name = |row: &Row| row.cells.get("what").and_then(Entry::text).map(str::to_lowercase);
    let (Some(what), Some(sold)) = (name(row), Lot::of(&row.cells).sold) else { return false };
    let near_by = Duration::days(points.facts.figures.capital_gains.wash_days);
    let near = |other: &Row| {
        other.id != row.id
            && !is_digital(row)
            && name(other).as_ref() == Some(&what)
            && Lot::of(&other.cells).acquired.is_some_and(|day| (day - sold).abs() <= near_by)
    };
    points.papers(SALES.id).flat_map(|paper| &paper.rows).any(near)
}

fn is_digital(row: &Row) -> bool {
    row.cells.get("reported").and_then(Entry::text) == Some("digital")
}

/// Whether a digital asset was sold.
pub fn any_digital(points: &Points<'_>) -> bool {
    points.papers(SALES.id).flat_map(|paper| &paper.rows).any(is_digital)
}
