//! Interest, dividends and distributions of Māori authorities (ITA CC 4, CD 1; questions 13 to 15 of the IR3), and dividends of listed
//! funds, which a person may return (ITA CX 56C).

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points, rounding::cents};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    lines, open_points,
    pack::Suggestion,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Interest and dividends",
    lines: LINES,
    papers: &[INTEREST, DIVIDENDS, LISTED, AUTHORITY],
    points: POINTS,
    figures: &["dividends"],
    ..Provision::NONE
};

lines! {
    pub INTEREST_GROSS = "nz.interest_gross", "Interest", "ITA CC 4; IR3 question 13 B",
        "The gross of every account, by the part of each holder.";
    pub INTEREST_TAX = "nz.interest_tax", "Resident withholding tax on interest", "ITA LB 3; IR3 question 13 A",
        "What banks withheld.";
    pub DIVIDENDS_GROSS = "nz.dividends_gross", "Dividends", "ITA CD 1, LE 1; IR3 question 14 C",
        "Paid, withheld and imputed together; those of listed funds where they are returned.";
    pub DIVIDENDS_TAX = "nz.dividends_tax", "Resident withholding tax on dividends", "ITA LB 3; IR3 question 14 B",
        "What companies withheld.";
    pub IMPUTATION = "nz.imputation", "Imputation credits", "ITA LE 1; IR3 question 14 A",
        "Of every dividend that is returned.";
    pub AUTHORITY_GROSS = "nz.maori_authority_gross", "Māori authority distributions", "ITA CD 1, LO 1; IR3 question 15 B",
        "With the credit attached.";
    pub AUTHORITY_TAX = "nz.maori_authority_tax", "Māori authority credit", "ITA LO 1; IR3 question 15 A",
        "What is attached to the distributions.";
}

open_points! {
    RWT_HIGH = blocks "C13", "ITA RE 12", "Compare with the certificate: no rate is so high.";
    NO_NUMBER = look "C14", "ITA RE 12(4)", "The bank has no IRD number: give it one.";
    IMPUTED_HIGH = blocks "C15", "ITA OA 18, OB 60", "Compare with the statement: no company may attach so much.";
    DIVIDEND_ODD = look "C16", "ITA RE 14", "Compare with the statement.";
}

/// What its papers bring.
pub mod brings {
    use super::Listed;
    use hembo_core::brought::Brought;

    /// Interest.
    pub static INTEREST: Brought = Brought::new();
    /// Tax withheld from it.
    pub static INTEREST_TAX: Brought = Brought::new();
    /// Dividends with what is imputed and withheld.
    pub static DIVIDENDS: Brought = Brought::new();
    /// Tax withheld from them.
    pub static DIVIDENDS_TAX: Brought = Brought::new();
    /// Imputation credits.
    pub static IMPUTATION: Brought = Brought::new();
    /// Dividends of listed funds, which may be returned.
    pub static LISTED: Brought<Listed> = Brought::new();
    /// Distributions of Māori authorities.
    pub static AUTHORITY: Brought = Brought::new();
    /// The credits attached to them.
    pub static AUTHORITY_TAX: Brought = Brought::new();
}

/// A dividend of a listed fund.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Listed {
    /// The paper's id.
    pub id: String,
    /// The fund.
    pub title: String,
    /// With the credit.
    pub gross: Item,
    /// The imputation credit.
    pub imputation: Item,
}

const RATES: &[Choice] = &[
    Choice::new("10.5", "10.5 %"),
    Choice::new("17.5", "17.5 %"),
    Choice::new("30", "30 %"),
    Choice::new("33", "33 %"),
    Choice::new("39", "39 %"),
    Choice::new("45", "45 %, no number given"),
];

/// An interest certificate.
pub const INTEREST: PaperKind = PaperKind {
    id: "Interest",
    subject: subject::INVESTMENTS,
    name: "Interest certificate",
    words: "bank bond deposit ir15 rwt lending",
    title: "Payer",
    shared: true,
    headline: "gross",
    boxes: &[
        Field::text("number", "", "Payer's IRD number", 11).payer_number(),
        Field::amount("gross", "13 B", "Gross interest"),
        Field::amount("rwt", "13 A", "Tax withheld"),
        Field::choice("rate", "", "Rate notified", RATES).lasts(),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const DIVIDENDS: PaperKind = PaperKind {
    id: "Dividend",
    subject: subject::INVESTMENTS,
    name: "Dividend statement",
    words: "shares company imputation rwt",
    title: "Company",
    shared: true,
    headline: "gross",
    boxes: &[
        Field::text("number", "", "Payer's IRD number", 11).payer_number(),
        Field::amount("cash", "", "Paid out"),
        Field::amount("rwt", "14 B", "Tax withheld"),
        Field::amount("imputation", "14 A", "Imputation credit"),
        Field::amount("gross", "14 C", "Gross").help("Blank: what was paid, withheld and imputed together."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const LISTED: PaperKind = PaperKind {
    id: "Listed fund",
    subject: subject::INVESTMENTS,
    name: "Dividend of a listed fund",
    words: "listed portfolio excluded dividend",
    title: "Fund",
    shared: false,
    headline: "gross",
    boxes: &[
        Field::amount("gross", "", "Gross")
            .help("With the imputation credit; left out of the return unless that costs more."),
        Field::amount("imputation", "", "Imputation credit"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const AUTHORITY: PaperKind = PaperKind {
    id: "Māori authority",
    subject: subject::INVESTMENTS,
    name: "Distribution of a Māori authority",
    words: "maori authority distribution",
    title: "Payer",
    shared: false,
    headline: "gross",
    boxes: &[
        Field::text("number", "", "Payer's IRD number", 11).payer_number(),
        Field::amount("gross", "15 B", "Gross, credit included"),
        Field::amount("credit", "15 A", "Credit"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The gross of a dividend: as it is told, or what was paid, withheld and imputed.
fn gross(paper: &Paper) -> Money {
    match paper.boxes.contains_key("gross") {
        true => paper.amount("gross"),
        false => parts(paper),
    }
}

fn parts(paper: &Paper) -> Money {
    ["cash", "rwt", "imputation"].into_iter().map(|field| paper.amount(field)).sum()
}

/// Gives income and credits to the holders.
pub fn read(paper: &mut Bringing<'_>) {
    match paper.paper.paper.kind.as_str() {
        id if id == INTEREST.id => {
            paper.give(&[("gross", &brings::INTEREST), ("rwt", &brings::INTEREST_TAX)]);
        }
        id if id == DIVIDENDS.id => {
            let gross = gross(paper.paper.paper);
            paper.put("gross", None, gross, &brings::DIVIDENDS);
            paper.give(&[("rwt", &brings::DIVIDENDS_TAX), ("imputation", &brings::IMPUTATION)]);
        }
        id if id == AUTHORITY.id => {
            paper.give(&[("gross", &brings::AUTHORITY), ("credit", &brings::AUTHORITY_TAX)]);
        }
        _ => {
            let listed = Listed {
                id: paper.paper.paper.id.clone(),
                title: paper.paper.paper.title.clone(),
                gross: paper.item("gross", paper.amount("gross")),
                imputation: paper.item("imputation", paper.amount("imputation")),
            };
            for person in paper.owners() {
                paper.facts.people[person].own.add(&brings::LISTED, listed.clone());
            }
        }
    }
}

/// Interest, dividends and distributions as income.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Invested {
    pub interest: Money,
    pub dividends: Money,
    pub imputation: Money,
    pub authority: Money,
}

/// Questions 13 to 15.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Invested {
    let own = on.own();
    let returned = || own.of(&brings::LISTED).iter().filter(|l| on.plan.listed.contains(&l.gross.paper));
    let dividends = own.of(&brings::DIVIDENDS).iter().chain(returned().map(|l| &l.gross));
    let imputed = own.of(&brings::IMPUTATION).iter().chain(returned().map(|l| &l.imputation));
    Invested {
        interest: on.gather(trail, INTEREST_GROSS, own.of(&brings::INTEREST)),
        dividends: on.gather(trail, DIVIDENDS_GROSS, dividends),
        imputation: on.gather(trail, IMPUTATION, imputed),
        authority: on.gather(trail, AUTHORITY_GROSS, own.of(&brings::AUTHORITY)),
    }
}

/// What was withheld of them.
pub fn withheld(on: On<'_>, trail: &mut impl Trail) -> [(&'static str, Money); 3] {
    let own = on.own();
    [
        (INTEREST_TAX, &brings::INTEREST_TAX),
        (DIVIDENDS_TAX, &brings::DIVIDENDS_TAX),
        (AUTHORITY_TAX, &brings::AUTHORITY_TAX),
    ]
    .map(|(line, kind)| (line, on.gather(trail, line, own.of(kind))))
}

/// Whether the dividend of a listed fund is returned, by its paper.
pub static RETURNED: Open<Facts> = Open::new(
    |facts| listed(facts).map(|l| l.gross.paper).collect(),
    |facts, paper| {
        let found = listed(facts).find(|l| l.gross.paper == paper);
        let (id, title) = found.map_or(("", ""), |l| (l.id.as_str(), l.title.as_str()));
        let title = if title.is_empty() { "a listed fund" } else { title };
        let options = vec![
            Opt::new("left", "Left out, the fund's tax is final", ""),
            Opt::new("returned", "Returned, with its credit", format!("dividend of {title} returned")),
        ];
        Decision::between(format!("nz.listed.{id}"), format!("Dividend of {title}"), "ITA CX 56C", options)
    },
);

fn listed(facts: &Facts) -> impl Iterator<Item = &Listed> {
    facts.returns.iter().flat_map(|&person| facts.people[person].own.of(&brings::LISTED))
}

/// Which are returned in a way, by paper.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    listed(facts).map(|l| l.gross.paper).filter(|&paper| way.taken(&RETURNED, paper) == Some(1)).collect()
}

/// What an empty gross would hold.
pub fn suggestions(paper: &Paper) -> Vec<Suggestion> {
    let made = parts(paper);
    let fits = paper.kind == DIVIDENDS.id && !made.is_zero();
    let gross = Suggestion {
        field: "gross".into(),
        value: made.to_string(),
        why: "paid, withheld and imputed".into(),
    };
    fits.then_some(gross).into_iter().collect()
}

/// Certificates and statements that cannot be right.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(INTEREST.id) {
        interest(points, paper);
    }
    for paper in points.papers(DIVIDENDS.id) {
        dividend(points, paper);
    }
}

fn interest(points: &mut Points<'_>, paper: &Paper) {
    let (gross, withheld) = (paper.amount("gross"), paper.amount("rwt"));
    let highest = cents(gross, points.facts.figures.dividends.without_number);
    let apart = withheld - highest;
    if gross.is_zero() && withheld.is_zero() {
        return;
    }
    let place = Place::paper(&paper.id, "rwt");
    if apart > Money::whole(1) {
        points.raise(&RWT_HIGH, place, format!("{withheld:#} withheld from {gross:#}."));
    } else if apart >= Money::whole(-1) && gross > Money::whole(10) {
        points.raise(&NO_NUMBER, place, "45 % was withheld.");
    }
}

fn dividend(points: &mut Points<'_>, paper: &Paper) {
    let figures = &points.facts.figures.dividends;
    let gross = gross(paper);
    let imputed = paper.amount("imputation");
    let rest = gross - imputed;
    let most = rest.in_proportion(figures.imputation, figures.of, Money::CENT, Rounding::HalfUp);
    if imputed > most + Money::CENT {
        let message = format!("A credit of {imputed:#} on {rest:#}: at most {most:#}.");
        return points.raise(&IMPUTED_HIGH, Place::paper(&paper.id, "imputation"), message);
    }
    let together = imputed + paper.amount("rwt");
    let apart = together - cents(gross, figures.withheld);
    let near = Money::whole(1);
    if !imputed.is_zero() && (apart > near || -apart > near) {
        let message = format!("Credit and withheld tax make {together:#}, not 33 % of {gross:#}.");
        points.raise(&DIVIDEND_ODD, Place::paper(&paper.id, "rwt"), message);
    }
    let told = parts(paper);
    if paper.boxes.contains_key("gross") && paper.boxes.contains_key("cash") && told != gross {
        let message = format!("The gross says {gross:#}, the boxes before it make {told:#}.");
        points.suggest(&DIVIDEND_ODD, Place::paper(&paper.id, "gross"), message, told);
    }
}
