//! Form 1099-INT.

use crate::{
    bringing::{self, Bringing},
    points::Points,
    states::{self, STATES},
};
use hembo_core::{
    field::{Field, Years},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::Money;

/// What this paper declares.
pub static PROVISION: Provision = Provision { papers: &[INTEREST], points: POINTS, ..Provision::NONE };

open_points! {
    TREASURY_TWICE = look "K-058", "Instructions for Form 1099-INT, box 3",
        "Box 3 is not contained in box 1.";
    BONDS = blocks "K-058-bonds", "Instructions for Form 1099-INT, box 9",
        "Look at the paper.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// 1099-INT boxes 1, 3 and 10, less premiums 11 and 12.
    pub static INTEREST: Brought = Brought::new();

    /// 1099-INT box 8 less 13.
    pub static EXEMPT_INTEREST: Brought = Brought::new();

    /// 1099-INT box 9.
    pub static PRIVATE_ACTIVITY: Brought = Brought::new();

    /// 1099-INT box 2.
    pub static PENALTY: Brought = Brought::new();
}

const INTEREST: PaperKind = PaperKind {
    id: "1099-INT",
    subject: subject::INVESTMENTS,
    name: "Interest",
    words: "bank savings interest",
    title: "Payer",
    shared: true,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Interest"),
        Field::amount("2", "2", "Early withdrawal penalty"),
        Field::amount("3", "3", "Savings bonds, Treasury").help("Not contained in box 1."),
        Field::amount("4", "4", "Federal tax withheld"),
        Field::amount("5", "5", "Investment expenses"),
        Field::amount("6", "6", "Foreign tax paid"),
        Field::amount("6.income", "6", "Income taxed abroad")
            .help("Of boxes 1 and 3; asked for only by Form 1116."),
        Field::text("7", "7", "Foreign country", 40),
        Field::amount("8", "8", "Tax-exempt interest"),
        states::of_state(
            Field::amount("8.elsewhere", "8", "Of it from bonds of other states")
                .help("The state of residence taxes it."),
        ),
        Field::amount("9", "9", "Private activity bonds").help("The part of box 8."),
        Field::amount("10", "10", "Market discount"),
        Field::amount("11", "11", "Bond premium"),
        Field::amount("12", "12", "Premium on Treasury"),
        Field::amount("13", "13", "Premium on tax-exempt"),
        Field::amount("accrued", "", "Accrued interest paid to a seller")
            .help("When a bond was bought between coupon days; lowers box 1."),
        Field::amount("nominee", "", "Belongs to someone else").help("As nominee; lowers box 1."),
        Field::text("14", "14", "Bond CUSIP number", 20),
        Field::choice("15", "15", "State", STATES),
        Field::text("16", "16", "State identification", 30),
        Field::amount("17", "17", "State tax withheld"),
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
    let box_of = |field| paper.paper.paper.amount(field);
    let premium = settled::lesser(box_of("11"), box_of("1") + box_of("10"));
    let (treasury, exempt) =
        (settled::lesser(box_of("12"), box_of("3")), settled::lesser(box_of("13"), box_of("8")));
    for field in ["1", "3", "10"] {
        paper.give(field, &brings::INTEREST);
    }
    let others = settled::lesser(box_of("accrued") + box_of("nominee"), box_of("1") + box_of("3"));
    let accrued = settled::lesser(box_of("accrued"), others);
    paper.put("accrued", None, -accrued, &brings::INTEREST);
    paper.put("nominee", None, accrued - others, &brings::INTEREST);
    paper.put("11", None, -premium, &brings::INTEREST);
    paper.put("12", None, -treasury, &brings::INTEREST);
    paper.give("2", &brings::PENALTY);
    paper.give("4", &bringing::brings::WITHHELD);
    paper.give("6", &bringing::brings::FOREIGN_TAX);
    paper.give("6.income", &bringing::brings::FOREIGN_INCOME);
    paper.give("8", &brings::EXEMPT_INTEREST);
    paper.put("13", None, -exempt, &brings::EXEMPT_INTEREST);
    paper.give("9", &brings::PRIVATE_ACTIVITY);
    paper.put("3", None, box_of("3") - treasury, &bringing::brings::TREASURY_INTEREST);
    paper.give("8.elsewhere", &bringing::brings::OTHER_STATES_INTEREST);
    paper.give("17", &bringing::brings::STATE_INCOME_TAX);
    paper.give_state("15", Money::ZERO, "17");
}

/// What its boxes should agree in.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(INTEREST.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let amount = |field: &str| paper.amount(field);
        if !amount("3").is_zero() && amount("1") == amount("3") {
            points.raise(&TREASURY_TWICE, at("3"), "Box 1 equals box 3: is Treasury interest entered twice?");
        }
        if amount("9") > amount("8") {
            points.raise(&BONDS, at("9"), "Box 9 is a part of box 8 and cannot be larger.");
        }
    }
}
