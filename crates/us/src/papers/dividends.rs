//! Form 1099-DIV.

use crate::{
    bringing::{self, Bringing},
    capital_gains::{self, SaleBox},
    papers::interest,
    points::Points,
    states::{self, STATES},
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this paper declares.
pub static PROVISION: Provision = Provision { papers: &[DIVIDENDS], points: POINTS, ..Provision::NONE };

open_points! {
    BOXES = blocks "K-059", "Instructions for Form 1099-DIV",
        "A part is not above its whole: look at the paper.";
    SMALL_BUSINESS = not_covered "1099-div-2c", "IRC §1202";
    BASIS = look "1099-div-3", "IRC §301(c)(2), (3)",
        "Lower the basis of the shares by it; enter only what is above the basis as a gain.";
    LIQUIDATION = not_covered "1099-div-9", "IRC §331";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// 1099-DIV box 1a.
    pub static ORDINARY: Brought = Brought::new();

    /// 1099-DIV box 1b.
    pub static QUALIFIED: Brought = Brought::new();

    /// 1099-DIV box 5.
    pub static SECTION_199A: Brought = Brought::new();
}

const TERMS: &[Choice] = &[Choice::new("short", "Held one year or less"), Choice::new("long", "Held longer")];

const DIVIDENDS: PaperKind = PaperKind {
    id: "1099-DIV",
    subject: subject::INVESTMENTS,
    name: "Dividends",
    words: "dividends fund mutual shares stock distributions reit",
    title: "Payer",
    shared: true,
    headline: "1a",
    boxes: &[
        Field::amount("1a", "1a", "Ordinary dividends"),
        states::of_state(
            Field::amount("1a.treasury", "1a", "Of it interest of the United States")
                .help("As the fund tells, where it holds enough of such bonds: the state does not tax it."),
        ),
        Field::amount("1b", "1b", "Qualified dividends").help("The part of box 1a."),
        Field::amount("2a", "2a", "Capital gain distributions"),
        Field::amount("2b", "2b", "Unrecaptured section 1250 gain").help("The part of box 2a."),
        Field::amount("2c", "2c", "Section 1202 gain").help("The part of box 2a."),
        Field::amount("2d", "2d", "Collectibles gain (28 %)").help("The part of box 2a."),
        Field::amount("3", "3", "Nondividend distributions")
            .help("Lowers the basis of the shares; no income up to the basis."),
        Field::amount("3.gain", "3", "Of it above the basis").help("A gain of the year."),
        Field::choice("3.term", "3", "Those shares", TERMS).blank_is("long"),
        Field::amount("4", "4", "Federal tax withheld"),
        Field::amount("5", "5", "Section 199A dividends")
            .help("The part of box 1a from a real estate trust."),
        Field::amount("6", "6", "Investment expenses"),
        Field::amount("7", "7", "Foreign tax paid"),
        Field::amount("7.income", "7", "Income taxed abroad").help("Of box 1a; asked for only by Form 1116."),
        Field::amount("7.qualified", "7", "Of it qualified").help("Of box 1b."),
        Field::text("8", "8", "Foreign country", 40).lasts(),
        Field::amount("9", "9", "Cash liquidation distributions"),
        Field::amount("10", "10", "Noncash liquidation distributions"),
        Field::amount("12", "12", "Exempt-interest dividends"),
        states::of_state(
            Field::amount("12.elsewhere", "12", "Of it from bonds of other states")
                .help("The state of residence taxes it."),
        ),
        Field::amount("13", "13", "Private activity bond dividends").help("The part of box 12."),
        Field::choice("14", "14", "State", STATES).lasts(),
        Field::text("15", "15", "State identification", 30),
        Field::amount("16", "16", "State tax withheld"),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    paper.give("1a", &brings::ORDINARY);
    paper.give("1b", &brings::QUALIFIED);
    paper.give("5", &brings::SECTION_199A);
    paper.give("2a", &capital_gains::brings::DISTRIBUTIONS);
    paper.give("2b", &capital_gains::brings::SECTION_1250);
    paper.give("2d", &capital_gains::brings::COLLECTIBLES);
    paper.give("12", &interest::brings::EXEMPT_INTEREST);
    paper.give("13", &interest::brings::PRIVATE_ACTIVITY);
    paper.give("1a.treasury", &bringing::brings::TREASURY_INTEREST);
    paper.give("12.elsewhere", &bringing::brings::OTHER_STATES_INTEREST);
    paper.give("4", &bringing::brings::WITHHELD);
    paper.give("7", &bringing::brings::FOREIGN_TAX);
    paper.give("7.income", &bringing::brings::FOREIGN_INCOME);
    paper.give("7.qualified", &bringing::brings::FOREIGN_QUALIFIED);
    paper.give("16", &bringing::brings::STATE_INCOME_TAX);
    paper.give_state("14", Money::ZERO, "16");
    let reading = paper.paper.paper;
    let into = if reading.text("3.term") == Some("short") { SaleBox::C } else { SaleBox::F };
    capital_gains::sale(
        paper,
        into,
        None,
        [("3.gain", reading.amount("3.gain")), ("3.gain", Money::ZERO), ("3.gain", Money::ZERO)],
    );
}

/// What its boxes should agree in, and what is not computed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(DIVIDENDS.id) {
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let amount = |field: &str| paper.amount(field);
    let parts: [(&str, Money, &str); 4] = [
        ("1b", amount("1b"), "1a"),
        ("2b", amount("2b") + amount("2c") + amount("2d"), "2a"),
        ("5", amount("5"), "1a"),
        ("13", amount("13"), "12"),
    ];
    for (part, sum, whole) in parts {
        if sum > amount(whole) {
            points.raise(&BOXES, at(part), format!("Box {part} is above box {whole}, whose part it is."));
        }
    }
    if amount("3.gain") > amount("3") {
        points.raise(&BOXES, at("3.gain"), "More of box 3 is above the basis than it holds.");
    }
    if !amount("3").is_zero() && !paper.boxes.contains_key("3.gain") {
        points.raise(&BASIS, at("3"), "A return of capital lowers the basis of the shares.");
    }
    if !amount("2c").is_zero() {
        points.raise(&SMALL_BUSINESS, at("2c"), "The exclusion of a gain under §1202 is not computed yet.");
    }
    for field in ["9", "10"].into_iter().filter(|field| !amount(field).is_zero()) {
        points.raise(&LIQUIDATION, at(field), "A liquidation distribution is not computed yet.");
    }
}
