//! T4A: pensions, annuities and other income.

use crate::{
    bringing::{self, Bringing},
    points::Points,
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rounding};

/// What this paper declares.
pub static PROVISION: Provision =
    Provision { papers: &[T4A], points: POINTS, figures: &["scholarships"], ..Provision::NONE };

open_points! {
    IN_ACCOUNTS = blocks "t4a-business", "ITA 9(1)", "Enter it in the gross income of accounts (T2125) of the same person.";
    STUDIES_ASKED = blocks "C-68", "ITA 56(3), (3.1)", "Answer on the slip.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T4A box 016, and annuities received on a spouse's death: a pension at any age (ITA 118(7)).
    pub static LIFE_PENSIONS: Brought = Brought::new();

    /// T4A boxes 024, 133, 194: a pension from 65 on.
    pub static AGE_PENSIONS: Brought = Brought::new();

    /// Tax withheld from papers that bring such pensions.
    pub static WITHHELD_PENSION: Brought = Brought::new();

    /// T4A boxes 018, 028, 042.
    pub static OTHER: Brought = Brought::new();

    /// T4A box 105, less what is exempt.
    pub static SCHOLARSHIPS: Brought = Brought::new();
}

/// Boxes of which the law makes something that is not computed yet.
const NOT_COMPUTED: &[&str] = &["040"];

/// What scholarships are for.
const STUDIES: &[Choice] = &[
    Choice::new("full", "A programme as a full-time student"),
    Choice::new("part", "A programme as a part-time student"),
    Choice::new("none", "No programme"),
];

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
        Field::amount("020", "020", "Self-employed commissions").help("Enter them in the accounts, T2125."),
        Field::amount("022", "022", "Income tax deducted"),
        Field::amount("024", "024", "Annuities"),
        Field::amount("028", "028", "Other income"),
        Field::amount("032", "032", "RPP contributions"),
        Field::amount("034", "034", "Pension adjustment"),
        Field::amount("040", "040", "RESP accumulated income"),
        Field::amount("042", "042", "RESP educational assistance"),
        Field::amount("048", "048", "Fees for services").help("Enter them in the accounts, T2125."),
        Field::amount("105", "105", "Scholarships, bursaries"),
        Field::choice("105.for", "", "They are for", STUDIES),
        Field::amount("105.costs", "", "Tuition and materials, part-time"),
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
        ("042", &brings::OTHER),
        ("032", &bringing::brings::RPP),
    ]);
    let on_death = paper.paper.paper.flag("on_death");
    for field in ["024", "133", "194"] {
        let kind = if on_death { &brings::LIFE_PENSIONS } else { &brings::AGE_PENSIONS };
        paper.put(field, None, paper.amount(field), kind);
    }
    let taxed = scholarships(paper);
    paper.put("105", None, taxed, &brings::SCHOLARSHIPS);
    withheld_from_pension(paper, "022", &["016", "024", "133", "194"], &["018", "028", "042", "105"]);
}

/// What of a scholarship is income (56(3), (3.1)): nothing as a full-time student, else what is above the costs of the programme or
/// the amount that is exempt without one.
fn scholarships(paper: &Bringing<'_>) -> Money {
    let all = paper.amount("105");
    let exempt = match paper.paper.paper.text("105.for") {
        Some("full") => all,
        Some("part") => paper.amount("105.costs"),
        _ => paper.facts.figures.scholarships.exempt,
    };
    settled::or_zero(all - exempt)
}

/// Of the tax on a slip, what falls on its pensions may move with them (form T1032, step 4).
pub fn withheld_from_pension(
    paper: &mut Bringing<'_>,
    tax: &'static str,
    pensions: &[&str],
    others: &[&str],
) {
    let total = |fields: &[&str]| fields.iter().map(|field| paper.amount(field)).sum::<Money>();
    let (pensions, others) = (total(pensions), total(others));
    let withheld =
        paper.amount(tax).in_proportion(pensions, pensions + others, Money::CENT, Rounding::HalfUp);
    paper.put(tax, None, withheld, &brings::WITHHELD_PENSION);
}

/// What is not computed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(T4A.id) {
        points.boxes_not_computed(paper, NOT_COMPUTED);
        if !paper.amount("105").is_zero() && !paper.boxes.contains_key("105.for") {
            let message = "What are the scholarships for? It decides how much is exempt.";
            points.raise(&STUDIES_ASKED, Place::paper(&paper.id, "105.for"), message);
        }
        in_accounts(points, paper);
        super::premiums(points, paper, "135");
    }
}

/// Fees and commissions stand in accounts of the owner.
fn in_accounts(points: &mut Points<'_>, paper: &Paper) {
    let fees = paper.amount("020") + paper.amount("048");
    let owner = paper.owners.first().map(|owner| owner.person.as_str());
    let same = |accounts: &&Paper| accounts.owners.first().map(|owner| owner.person.as_str()) == owner;
    let gross: Money = points.papers("T2125").filter(same).map(|accounts| accounts.amount("gross")).sum();
    if fees > gross {
        let field = if paper.amount("048").is_zero() { "020" } else { "048" };
        let message = format!("{fees:#} of fees and commissions, of which accounts have {gross:#}.");
        points.raise(&IN_ACCOUNTS, Place::paper(&paper.id, field), message);
    }
}
