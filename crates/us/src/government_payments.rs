//! Form 1099-G: unemployment compensation (§85), and refunds of state and local income tax by the tax-benefit rule (§111).

use crate::{
    bringing::{self, Bringing},
    points::Points,
    states::{self, STATES},
    unit::On,
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[PAYMENTS], points: POINTS, ..Provision::NONE };

lines! {
    pub REFUND = "us.sched_1.1", "State and local refunds, taxed", "IRC §111(a)",
        "As far as the tax lowered last year's taxable income: above the cap, and above the standard deduction.";
    pub UNEMPLOYMENT = "us.sched_1.7", "Unemployment compensation", "IRC §85(a)",
        "Box 1 of every Form 1099-G less what was repaid in the year.";
}

open_points! {
    ITEMIZED = blocks "K-073", "IRC §111(a)",
        "Only who itemized and deducted income tax has income by a refund: answer, and enter last year's figures.";
    LAST_YEAR = blocks "K-073-figures", "IRC §111(a); Schedule 1 instructions, line 1",
        "Enter it from last year's return.";
    SALES_TAX = look "K-073-sales", "Rev. Rul. 2019-11; Pub. 525",
        "No more is taxed than the income tax deducted was above the sales tax that could have been: enter that tax.";
    OTHERS = not_covered "1099-G-other", "IRC §61(a)";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Box 1 less what was repaid.
    pub static UNEMPLOYMENT: Brought = Brought::new();

    /// What of box 2 is taxed.
    pub static REFUND: Brought = Brought::new();
}

const PAYMENTS: PaperKind = PaperKind {
    id: "1099-G",
    subject: subject::OTHER_INCOME,
    name: "Unemployment, state refund",
    words: "unemployment jobless state tax refund government",
    title: "Payer",
    shared: true,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Unemployment compensation"),
        Field::amount("repaid", "1", "Of it repaid this year"),
        Field::amount("2", "2", "State or local refund"),
        Field::amount("4", "4", "Federal tax withheld"),
        Field::amount("5", "5", "RTAA payments"),
        Field::amount("6", "6", "Taxable grants"),
        Field::amount("7", "7", "Agriculture payments"),
        Field::choice("10a", "10a", "State", STATES),
        Field::amount("11", "11", "State tax withheld"),
        Field::yes_no("itemized", "", "Itemized last year with income tax")
            .help("Income tax, not sales tax, on Schedule A line 5a."),
        Field::amount("last.5a", "", "Last year's line 5a"),
        Field::amount("last.5d", "", "Last year's line 5d"),
        Field::amount("last.5e", "", "Last year's line 5e"),
        Field::amount("last.17", "", "Last year's line 17"),
        Field::amount("last.standard", "", "Last year's standard deduction")
            .help("With the additions for age and blindness; zero if a spouse who filed apart itemized."),
        Field::amount("last.sales", "", "Sales tax that could have been deducted")
            .help("Instead of income tax."),
        Field::amount("last.unused", "", "Deductions that did not count")
            .help("Last year's taxable income below zero."),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// State and Local Income Tax Refund Worksheet, with the exceptions of Pub. 525.
fn taxed(paper: &Paper) -> Money {
    let amount = |id: &str| paper.amount(id);
    if !paper.flag("itemized") {
        return Money::ZERO;
    }
    let refund = settled::lesser(amount("2"), amount("last.5a"));
    let beyond_cap = settled::or_zero(refund - settled::or_zero(amount("last.5d") - amount("last.5e")));
    let benefit = settled::or_zero(amount("last.17") - amount("last.standard") - amount("last.unused"));
    let taxed = settled::lesser(beyond_cap, benefit);
    match paper.boxes.get("last.sales").and_then(Entry::money) {
        Some(sales) => settled::lesser(taxed, settled::or_zero(amount("last.5a") - sales)),
        None => taxed,
    }
}

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    let reading = paper.paper.paper;
    let net = settled::or_zero(reading.amount("1") - reading.amount("repaid"));
    paper.put("1", None, net, &brings::UNEMPLOYMENT);
    let refund = taxed(reading);
    paper.put("2", None, refund, &brings::REFUND);
    paper.give("4", &bringing::brings::WITHHELD);
    paper.give("11", &bringing::brings::STATE_INCOME_TAX);
    paper.give_state("10a", Money::ZERO, "11");
}

/// Schedule 1 lines 1 and 7.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> (Money, Money) {
    let refund = on.gather(trail, REFUND, &brings::REFUND);
    (refund, on.gather(trail, UNEMPLOYMENT, &brings::UNEMPLOYMENT))
}

/// Last year's figures.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAYMENTS.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let others = ["5", "6", "7"].into_iter().filter(|field| !paper.amount(field).is_zero());
        for field in others {
            points.raise(&OTHERS, at(field), format!("Box {field} is not computed yet."));
        }
        if paper.amount("2").is_zero() {
            continue;
        }
        if !paper.boxes.contains_key("itemized") {
            points.raise(&ITEMIZED, at("itemized"), "Was the state income tax deducted last year?");
            continue;
        }
        if !paper.flag("itemized") {
            continue;
        }
        for field in ["last.5a", "last.5d", "last.5e", "last.17", "last.standard"] {
            if !paper.boxes.contains_key(field) {
                points.raise(&LAST_YEAR, at(field), "Last year's figure is missing.");
            }
        }
        if !paper.boxes.contains_key("last.sales") && !taxed(paper).is_zero() {
            points.raise(
                &SALES_TAX,
                at("last.sales"),
                "Could general sales tax have been deducted last year?",
            );
        }
    }
}
