//! T4A: pensions, annuities and other income.

use crate::{
    bringing::{self, Bringing},
    points::Points,
};
use hembo_core::{
    field::{Field, Years},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
};
use hembo_money::{Money, Rounding};

/// What this paper declares.
pub static PROVISION: Provision = Provision { papers: &[T4A], ..Provision::NONE };

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T4A box 016, and annuities received on a spouse's death: a pension at any age (ITA 118(7)).
    pub static LIFE_PENSIONS: Brought = Brought::new();

    /// T4A boxes 024, 133, 194: a pension from 65 on.
    pub static AGE_PENSIONS: Brought = Brought::new();

    /// Tax withheld from papers that bring such pensions.
    pub static WITHHELD_PENSION: Brought = Brought::new();

    /// T4A boxes 018, 028.
    pub static OTHER: Brought = Brought::new();
}

/// Boxes of which the law makes something that is not computed yet.
const NOT_COMPUTED: &[&str] = &["020", "040", "042", "048", "105"];

/// The slip.
pub const T4A: PaperKind = PaperKind {
    id: "T4A",
    subject: subject::RETIREMENT,
    name: "Pension, annuity and other income",
    words: "annuity scholarship retirement",
    title: "Payer",
    shared: false,
    headline: "016",
    boxes: &[
        Field::amount("016", "016", "Pension or superannuation").help("A life annuity of a pension plan."),
        Field::amount("018", "018", "Lump-sum payments"),
        Field::amount("020", "020", "Self-employed commissions"),
        Field::amount("022", "022", "Income tax deducted"),
        Field::amount("024", "024", "Annuities"),
        Field::amount("028", "028", "Other income"),
        Field::amount("032", "032", "RPP contributions"),
        Field::amount("034", "034", "Pension adjustment"),
        Field::amount("040", "040", "RESP accumulated income"),
        Field::amount("042", "042", "RESP educational assistance"),
        Field::amount("048", "048", "Fees for services"),
        Field::amount("105", "105", "Scholarships, bursaries"),
        Field::amount("133", "133", "Variable pension benefits"),
        Field::amount("135", "135", "Health premiums paid").help("Enter them among the medical receipts."),
        Field::amount("194", "194", "PRPP payments"),
        Field::yes_no("on_death", "", "Received on a spouse's death")
            .help("Then boxes 024, 133 and 194 count as pension before 65."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[
        ("016", &brings::LIFE_PENSIONS),
        ("018", &brings::OTHER),
        ("022", &bringing::brings::WITHHELD),
        ("028", &brings::OTHER),
        ("032", &bringing::brings::RPP),
    ]);
    let on_death = paper.paper.paper.flag("on_death");
    for field in ["024", "133", "194"] {
        let kind = if on_death { &brings::LIFE_PENSIONS } else { &brings::AGE_PENSIONS };
        paper.put(field, None, paper.amount(field), kind);
    }
    // Of the tax on a slip, what falls on its pensions may move with them (form T1032, step 4).
    let pensions: Money = ["016", "024", "133", "194"].iter().map(|f| paper.amount(f)).sum();
    let all = pensions + paper.amount("018") + paper.amount("028");
    let withheld = paper.amount("022").in_proportion(pensions, all, Money::CENT, Rounding::HalfUp);
    paper.put("022", None, withheld, &brings::WITHHELD_PENSION);
}

/// What is not computed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(T4A.id) {
        points.boxes_not_computed(paper, NOT_COMPUTED);
        super::premiums(points, paper, "135");
    }
}
