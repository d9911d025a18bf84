//! Income that others worked out: trusts and estates, partnerships, look-through companies, salary of shareholder-employees
//! (ITA HC 6, HG 2, HB 1, RD 3B; questions 16 and 19 to 21 of the IR3).

use crate::{bringing::Bringing, plan::On};
use hembo_core::{
    brought::Brought,
    field::{Field, Years},
    line::LineId,
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Trusts and partnerships",
    lines: LINES,
    papers: &[TRUST, PARTNERSHIP, LOOK_THROUGH, SHAREHOLDER],
    ..Provision::NONE
};

lines! {
    pub TRUST_GROSS = "nz.trust_gross", "Trust and estate income", "ITA HC 6; IR3 question 16",
        "Beneficiary income, taxed at the beneficiary's rates.";
    pub TRUST_TAX = "nz.trust_tax", "Tax paid by the trustee", "ITA HC 32, LB 1; IR3 question 16",
        "Credited to the beneficiary.";
    pub PARTNERSHIP_GROSS = "nz.partnership_gross", "Partnership income", "ITA HG 2; IR3 question 19",
        "The own share; below zero a loss.";
    pub PARTNERSHIP_TAX = "nz.partnership_tax", "Tax credits of partnerships", "ITA HG 2; IR3 question 19",
        "The own share of what was withheld.";
    pub LOOK_THROUGH_GROSS = "nz.ltc_gross", "Look-through company income", "ITA HB 1; IR3 question 20",
        "The own share; below zero a loss.";
    pub LOOK_THROUGH_TAX = "nz.ltc_tax", "Tax credits of look-through companies", "ITA HB 1; IR3 question 20",
        "The own share of what was withheld.";
    pub SHAREHOLDER_SALARY = "nz.shareholder_salary", "Shareholder-employee salary", "ITA RD 3B, RD 3C; IR3 question 21",
        "Without tax withheld.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Beneficiary income.
    pub static TRUST: Brought = Brought::new();
    /// Tax of trustees.
    pub static TRUST_TAX: Brought = Brought::new();
    /// The share of a partnership.
    pub static PARTNERSHIP: Brought = Brought::new();
    /// What it had withheld.
    pub static PARTNERSHIP_TAX: Brought = Brought::new();
    /// The share of a look-through company.
    pub static LOOK_THROUGH: Brought = Brought::new();
    /// What it had withheld.
    pub static LOOK_THROUGH_TAX: Brought = Brought::new();
    /// Salary without tax withheld.
    pub static SALARY: Brought = Brought::new();
    /// Imputation credits of all of them.
    pub static IMPUTATION: Brought = Brought::new();
}

const fn paper(
    id: &'static str,
    name: &'static str,
    words: &'static str,
    boxes: &'static [Field],
) -> PaperKind {
    PaperKind {
        id,
        subject: subject::OTHER_INCOME,
        name,
        words,
        title: "From",
        shared: false,
        headline: "income",
        boxes,
        columns: &[],
        back: Back::Nothing,
        years: Years::ALL,
        next_year: NextYear::Again,
    }
}

const TRUST: PaperKind = paper(
    "Trust",
    "Income of a trust or estate",
    "estate beneficiary trustee",
    &[
        Field::amount("income", "16", "Beneficiary income"),
        Field::amount("tax", "16", "Tax paid by the trustee"),
        Field::amount("imputation", "16", "Imputation credits"),
    ],
);

const SHARED: &[Field] = &[
    Field::signed("income", "", "Share of income")
        .help("Without residential property, which has its own paper."),
    Field::amount("tax", "", "Share of tax withheld"),
    Field::amount("imputation", "", "Share of imputation credits"),
];

const PARTNERSHIP: PaperKind = paper("Partnership", "Share of a partnership", "partner firm", SHARED);

const LOOK_THROUGH: PaperKind =
    paper("Look-through company", "Share of a look-through company", "ltc company", SHARED);

const SHAREHOLDER: PaperKind = paper(
    "Shareholder salary",
    "Salary of a shareholder-employee",
    "close company director",
    &[Field::amount("income", "21", "Salary without tax withheld")],
);

/// Gives shares to who has them.
pub fn read(paper: &mut Bringing<'_>) {
    let (income, tax): (&'static Brought, &'static Brought) = match paper.paper.paper.kind.as_str() {
        id if id == TRUST.id => (&brings::TRUST, &brings::TRUST_TAX),
        id if id == PARTNERSHIP.id => (&brings::PARTNERSHIP, &brings::PARTNERSHIP_TAX),
        id if id == LOOK_THROUGH.id => (&brings::LOOK_THROUGH, &brings::LOOK_THROUGH_TAX),
        _ => return shareholder(paper),
    };
    paper.give(&[("income", income), ("tax", tax), ("imputation", &brings::IMPUTATION)]);
    paper.needs_return();
}

fn shareholder(paper: &mut Bringing<'_>) {
    paper.give(&[("income", &brings::SALARY)]);
    paper.needs_return();
}

/// Questions 16 and 19 to 21, each with its line.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> [(LineId, Money); 4] {
    [
        (TRUST_GROSS, &brings::TRUST),
        (PARTNERSHIP_GROSS, &brings::PARTNERSHIP),
        (LOOK_THROUGH_GROSS, &brings::LOOK_THROUGH),
        (SHAREHOLDER_SALARY, &brings::SALARY),
    ]
    .map(|(line, kind)| (line, on.gather(trail, line, on.own().of(kind))))
}

/// What was withheld or paid of them.
pub fn withheld(on: On<'_>, trail: &mut impl Trail) -> [(LineId, Money); 3] {
    [
        (TRUST_TAX, &brings::TRUST_TAX),
        (PARTNERSHIP_TAX, &brings::PARTNERSHIP_TAX),
        (LOOK_THROUGH_TAX, &brings::LOOK_THROUGH_TAX),
    ]
    .map(|(line, kind)| (line, on.gather(trail, line, on.own().of(kind))))
}
