//! Other income and deductions, and amounts that are not taxable and only told (s1 'gross income', s10, s11).

use crate::{bringing::Bringing, plan::On};
use hembo_core::{
    field::{Choice, Field, Years},
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Other income and deductions",
    lines: LINES,
    papers: &[INCOME_PAPER, DEDUCTIONS_PAPER, NOT_TAXABLE],
    ..Provision::NONE
};

lines! {
    pub INCOME = "za.other_income", "Other income", "s1 'gross income'",
        "Taxable income on none of the other papers.";
    pub DEDUCTIONS = "za.other_deductions", "Other deductions", "s11",
        "Deductions on none of the other papers.";
    FREE = "za.not_taxable", "Not taxable, told", "s10, s12T",
        "Kept, shown and not taxed.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Other income.
    pub static INCOME: Brought = Brought::new();
    /// Other deductions.
    pub static DEDUCTIONS: Brought = Brought::new();
    /// What is not taxable.
    pub static FREE: Brought = Brought::new();
}

const fn list(
    id: &'static str,
    subject: &'static str,
    name: &'static str,
    words: &'static str,
    columns: &'static [Field],
) -> PaperKind {
    PaperKind {
        id,
        subject,
        name,
        words,
        title: "About",
        shared: false,
        headline: "amount",
        boxes: &[],
        columns,
        back: Back::Nothing,
        years: Years::ALL,
        next_year: NextYear::Again,
    }
}

const WHAT: &[Field] = &[Field::text("what", "", "What", 80), Field::amount("amount", "", "Amount")];

const INCOME_PAPER: PaperKind = list(
    "Other income",
    subject::OTHER_INCOME,
    "Other taxable income",
    "crypto trading hobby royalties",
    WHAT,
);

const DEDUCTIONS_PAPER: PaperKind =
    list("Other deductions", subject::DEDUCTIONS, "Other deductions", "legal bad debts equipment wear", WHAT);

const SORTS: &[Choice] = &[
    Choice::new("inherited", "Inheritance or gift"),
    Choice::new("maintenance", "Maintenance"),
    Choice::new("compensation", "Compensation for injury"),
    Choice::new("uif", "Unemployment insurance"),
    Choice::new("grant", "Social grant"),
    Choice::new("lottery", "Lottery or gambling"),
    Choice::new("insurance", "Insurance paid out"),
    Choice::new("foreign_pension", "Foreign pension for work abroad"),
    Choice::new("other", "Something else"),
];

const NOT_TAXABLE: PaperKind = list(
    "Not taxable",
    subject::OTHER_INCOME,
    "Amounts that are not taxable",
    "inheritance maintenance lottery grant uif compensation",
    &[
        Field::choice("sort", "", "Sort", SORTS),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Amount"),
    ],
);

/// Gives the lines to who has them.
pub fn read(paper: &mut Bringing<'_>) {
    let kind = match paper.paper.paper.kind.as_str() {
        id if id == INCOME_PAPER.id => &brings::INCOME,
        id if id == DEDUCTIONS_PAPER.id => &brings::DEDUCTIONS,
        _ => &brings::FREE,
    };
    let rows: Vec<(usize, Money)> =
        paper.paper.lines("amount").map(|(row, _, amount)| (row, amount)).collect();
    for (row, amount) in rows {
        paper.put("amount", Some(row), amount, kind);
    }
}

/// Other income and deductions; what is not taxable is only told.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> (Money, Money) {
    let own = on.own();
    on.gather(trail, FREE, own.of(&brings::FREE));
    (
        on.gather(trail, INCOME, own.of(&brings::INCOME)),
        on.gather(trail, DEDUCTIONS, own.of(&brings::DEDUCTIONS)),
    )
}
