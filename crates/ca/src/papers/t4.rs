//! T4: employment income, with what it should agree in.

use super::{suggestion, t4a, times};
use crate::{
    bringing::{self, Bringing},
    figures::Figures,
    points::Points,
    provinces::PROVINCES,
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    open_points,
    pack::Suggestion,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::Money;

/// What this paper declares.
pub static PROVISION: Provision =
    Provision { papers: &[T4], points: POINTS, figures: &["cpp", "ei"], ..Provision::NONE };

open_points! {
    CPP = look "C-25", "Canada Pension Plan 8, 8.1", "Compare boxes 16, 16A, 18 with 24 and 26.";
    EI = look "C-26", "Employment Insurance Act 67", "Compare boxes 16, 16A, 18 with 24 and 26.";
    MORE_TAX = blocks "C-28", "ITA 153(1)",
        "Compare boxes 14 and 22.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;
    use hembo_money::Money;

    /// T4 box 14.
    pub static EMPLOYMENT: Brought = Brought::new();

    /// T4 box 16.
    pub static CPP: Brought = Brought::new();

    /// T4 box 16A.
    pub static CPP_SECOND: Brought = Brought::new();

    /// T4 box 18.
    pub static EI: Brought = Brought::new();

    /// T4 box 44.
    pub static DUES: Brought = Brought::new();

    /// T4 box 39.
    pub static OPTIONS: Brought = Brought::new();

    /// T4 box 43.
    pub static FORCES: Brought = Brought::new();

    /// T4 box 87: exempt, or income where the volunteer's amount is claimed.
    pub static VOLUNTEER: Brought = Brought::new();

    /// T4 box 77.
    pub static COMPENSATION_REPAID: Brought = Brought::new();

    /// T4 box 26, or 14.
    pub static PENSIONABLE: Brought<Money> = Brought::new();

    /// T4 box 24, or 14.
    pub static INSURABLE: Brought<Money> = Brought::new();
}

/// Boxes of which the law makes something that is not computed yet.
const NOT_COMPUTED: &[&str] = &["17", "55"];

/// The slip.
pub const T4: PaperKind = PaperKind {
    id: "T4",
    subject: subject::PAY,
    name: "Employment income",
    words: "pay wages salary job employer work",
    title: "Employer",
    shared: false,
    headline: "14",
    boxes: &[
        Field::choice("10", "10", "Province of employment", PROVINCES),
        Field::amount("14", "14", "Employment income"),
        Field::amount("16", "16", "Employee's CPP contributions"),
        Field::amount("16A", "16A", "Second CPP contributions"),
        Field::amount("17", "17", "QPP contributions"),
        Field::amount("18", "18", "Employee's EI premiums"),
        Field::amount("20", "20", "RPP contributions"),
        Field::amount("22", "22", "Income tax deducted"),
        Field::amount("24", "24", "EI insurable earnings").help("Box 14 where it is blank."),
        Field::amount("26", "26", "CPP pensionable earnings").help("Box 14 where it is blank."),
        Field::yes_no("28.cpp", "28", "Exempt from CPP"),
        Field::yes_no("28.ei", "28", "Exempt from EI"),
        Field::amount("44", "44", "Union dues"),
        Field::count("45", "45", "Dental benefits code", 5),
        Field::amount("46", "46", "Charitable donations"),
        Field::text("50", "50", "RPP or DPSP registration", 10),
        Field::amount("52", "52", "Pension adjustment"),
        Field::amount("55", "55", "PPIP premiums"),
        Field::amount("42", "42", "Commissions").help("In box 14; a seller's expenses stand on form T777."),
        Field::amount("31", "31", "Special work site").help("Board and lodging: for the northern deduction."),
        Field::amount("39", "39", "Security options deduction"),
        Field::amount("43", "43", "Forces and police deduction"),
        Field::amount("66", "66", "Eligible retiring allowance"),
        Field::amount("67", "67", "Other retiring allowance"),
        Field::amount("77", "77", "Workers' compensation repaid"),
        Field::amount("85", "85", "Health premiums paid").help("Enter them among the medical receipts."),
        Field::amount("87", "87", "Volunteer's exempt amount")
            .help("In no income, or in all of it where the volunteer's amount is claimed: both are weighed."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[
        ("14", &brings::EMPLOYMENT),
        ("16", &brings::CPP),
        ("16A", &brings::CPP_SECOND),
        ("18", &brings::EI),
        ("20", &bringing::brings::RPP),
        ("22", &bringing::brings::WITHHELD),
        ("44", &brings::DUES),
        ("39", &brings::OPTIONS),
        ("43", &brings::FORCES),
        ("66", &t4a::brings::OTHER),
        ("67", &t4a::brings::OTHER),
        ("77", &brings::COMPENSATION_REPAID),
        ("87", &brings::VOLUNTEER),
    ]);
    let earnings = |field: &str, exempt: &str| match paper.has(field) {
        _ if paper.paper.paper.flag(exempt) => Money::ZERO,
        true => paper.amount(field),
        false => paper.amount("14"),
    };
    let (pensionable, insurable) = (earnings("26", "28.cpp"), earnings("24", "28.ei"));
    for (person, _) in paper.paper.shares(Money::ZERO) {
        let own = &mut paper.facts.people[person].own;
        own.add(&brings::PENSIONABLE, pensionable);
        own.add(&brings::INSURABLE, insurable);
    }
    paper.gift("46", None, paper.amount("46"));
}

/// Contributions against earnings, and what is not computed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(T4.id) {
        points.boxes_not_computed(paper, NOT_COMPUTED);
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let within = Money::whole(1);
    let made = payroll(&points.facts.figures, paper);
    let asked = |field: &str| {
        made.iter().find(|s| s.field == field).and_then(|s| s.value.parse().ok()).unwrap_or(Money::ZERO)
    };
    for (def, field, what) in [(&CPP, "16", "CPP"), (&CPP, "16A", "Second CPP"), (&EI, "18", "EI")] {
        let (paid, asked) = (paper.amount(field), asked(field));
        let apart = paid - asked;
        if !paper.boxes.contains_key(field) && asked.is_zero() || apart <= within && -apart <= within {
            continue;
        }
        let place = Place::paper(&paper.id, field);
        let message = format!("{what} of {paid:#}, but the earnings make {asked:#} for a whole year.");
        points.suggest(def, place, message, asked);
    }
    if paper.amount("22") > paper.amount("14") {
        let place = Place::paper(&paper.id, "22");
        points.raise(&MORE_TAX, place, "More tax deducted than income.");
    }
    super::premiums(points, paper, "85");
}

/// Boxes 16, 16A and 18 as earnings make them, for a whole year with one employer.
pub fn payroll(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let earnings = |field: &str| match paper.boxes.contains_key(field) {
        true => paper.amount(field),
        false => paper.amount("14"),
    };
    let (cpp, ei) = (&figures.cpp, &figures.ei);
    let pensionable = if paper.flag("28.cpp") { Money::ZERO } else { earnings("26") };
    let insurable = if paper.flag("28.ei") { Money::ZERO } else { earnings("24") };
    let first =
        times(settled::or_zero(settled::lesser(pensionable, cpp.first_ceiling) - cpp.exemption), cpp.rate);
    let second = settled::or_zero(settled::lesser(pensionable, cpp.second_ceiling) - cpp.first_ceiling);
    let made = [
        ("16", first, "the rate on pensionable earnings above the exemption"),
        ("16A", times(second, cpp.second_rate), "the second rate on earnings between the two ceilings"),
        (
            "18",
            times(settled::lesser(insurable, ei.most_earnings), ei.rate),
            "the rate on insurable earnings",
        ),
    ];
    made.into_iter()
        .filter(|(_, value, _)| !value.is_zero())
        .map(|(f, v, why)| suggestion(f, v, why))
        .collect()
}
