//! What the last assessment leaves to this year: losses, credits and excesses brought forward, the earlier years' incomes, residual tax.

use crate::{bringing::Bringing, facts::EarlierYear, plan::On};
use hembo_core::{
    Household,
    brought::Brought,
    field::{Field, Years},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    trail::Item,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision { papers: &[ASSESSMENT], ..Provision::NONE };

/// The code of the paper.
pub const PAPER: &str = "Last year";

/// Losses brought forward.
pub static LOSSES: &Brought = &kinds::LOSSES;
/// Imputation credits brought forward.
pub static IMPUTATION: &Brought = &kinds::IMPUTATION;
/// Residential deductions brought forward.
pub static RENTAL: &Brought = &kinds::RENTAL;
/// Losses of sales of land brought forward.
pub static LAND: &Brought = &kinds::LAND;

mod kinds {
    use hembo_core::brought::Brought;

    pub static LOSSES: Brought = Brought::new();
    pub static IMPUTATION: Brought = Brought::new();
    pub static RENTAL: Brought = Brought::new();
    pub static LAND: Brought = Brought::new();
}

const ASSESSMENT: PaperKind = PaperKind {
    id: PAPER,
    subject: subject::PAYMENTS,
    name: "Last assessment",
    words: "brought forward loss excess imputation earlier years residual",
    title: "Assessed by",
    shared: false,
    headline: "taxable.1",
    boxes: &[
        Field::amount("taxable.1", "", "Taxable income, last year")
            .help("With the next three it decides the rate of managed funds."),
        Field::amount("funds.1", "", "Income of managed funds, last year"),
        Field::amount("taxable.2", "", "Taxable income, the year before"),
        Field::amount("funds.2", "", "Income of managed funds, the year before"),
        Field::amount("losses", "", "Loss brought forward"),
        Field::amount("imputation", "", "Imputation credits brought forward"),
        Field::amount("rental", "", "Residential deductions brought forward"),
        Field::amount("land", "", "Loss of sales of land brought forward"),
        Field::signed("residual", "", "Residual income tax, last year"),
        Field::signed("residual.2", "", "Residual income tax, the year before"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// What a person brought forward of a kind.
pub fn of<'a>(on: On<'a>, kind: &'static Brought) -> &'a [Item] {
    on.own().of(kind)
}

/// Gives what is carried to the person, with the earlier years.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[("losses", LOSSES), ("imputation", IMPUTATION), ("rental", RENTAL), ("land", LAND)]);
    let asks_return = ["losses", "imputation"].into_iter().any(|field| !paper.amount(field).is_zero());
    let year = |taxable: &str, funds: &str| {
        let known = paper.has(taxable);
        known.then(|| EarlierYear { taxable: paper.amount(taxable), funds: paper.amount(funds) })
    };
    let earlier = [year("taxable.1", "funds.1"), year("taxable.2", "funds.2")];
    for person in paper.owners() {
        paper.facts.people[person].earlier = earlier;
    }
    if asks_return {
        paper.needs_return();
    }
}

/// What was the last year is the year before it in the next return.
pub fn settle_next(before: &Household, next: &mut Household) {
    let moves = [("taxable.1", "taxable.2"), ("funds.1", "funds.2"), ("residual", "residual.2")];
    for paper in next.papers.iter_mut().filter(|paper| paper.kind == PAPER) {
        let owners = &paper.owners;
        let Some(old) = before.papers.iter().find(|old| old.kind == PAPER && old.owners == *owners) else {
            continue;
        };
        for (from, to) in moves {
            if let Some(entry) = old.boxes.get(from) {
                paper.boxes.insert(to.into(), entry.clone());
            }
        }
    }
}
