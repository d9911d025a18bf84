//! Interest, dividends and distributions (s10(1)(i), s10(1)(k), s10B, s25BB): of spouses in community of property a half each.

use crate::{bringing::Bringing, plan::On, points::Points, rounding::portion};
use hembo_core::{
    field::{Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Investments",
    lines: LINES,
    limits: LIMITS,
    papers: &[CERTIFICATE],
    points: POINTS,
    figures: &["interest", "foreign_dividends"],
    ..Provision::NONE
};

lines! {
    pub INTEREST = "za.interest", "Local interest", "s10(1)(i); code 4201",
        "Of every certificate; of spouses in community of property a half each.";
    pub INTEREST_EXEMPT = "za.interest_exempt", "Exempt interest", "s10(1)(i)",
        "Local interest up to the exemption, which grows with age.";
    pub INTEREST_FOREIGN = "za.interest_foreign", "Foreign interest", "s1 'gross income'; code 4218",
        "Taxed whole.";
    DIVIDENDS_LOCAL = "za.dividends_local", "Local dividends, exempt", "s10(1)(k)(i)",
        "Taxed by the company; only told.";
    DIVIDENDS_FOREIGN = "za.dividends_foreign", "Foreign dividends", "s10B; code 4216",
        "Before foreign tax.";
    pub DIVIDENDS_TAXABLE = "za.dividends_foreign_taxable", "Taxable part of foreign dividends", "s10B(3)",
        "Twenty of forty-five parts.";
    pub PROPERTY = "za.reit_dividends", "Distributions of property companies", "s10(1)(k)(i)(aa); code 4238",
        "Taxed, and no interest.";
}

limits! {
    EXEMPTION = "za.limit.interest" on INTEREST_EXEMPT, "Exempt interest", "local interest above the exemption is taxed", "s10(1)(i)";
}

open_points! {
    HOLDING = look "C23", "s10B(2)", "With a tenth of the company or more a foreign dividend is exempt: leave it out.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Local interest.
    pub static INTEREST: Brought = Brought::new();
    /// Foreign interest.
    pub static INTEREST_FOREIGN: Brought = Brought::new();
    /// Local dividends.
    pub static DIVIDENDS_LOCAL: Brought = Brought::new();
    /// Foreign dividends.
    pub static DIVIDENDS_FOREIGN: Brought = Brought::new();
    /// Distributions of property companies.
    pub static PROPERTY: Brought = Brought::new();
}

/// A certificate of interest and dividends.
pub const CERTIFICATE: PaperKind = PaperKind {
    id: "IT3(b)",
    subject: subject::INVESTMENTS,
    name: "Interest and dividends",
    words: "bank interest dividend reit it3b foreign",
    title: "Payer",
    shared: true,
    headline: "interest",
    boxes: &[
        Field::amount("interest", "4201", "Local interest"),
        Field::amount("interest_foreign", "4218", "Foreign interest"),
        Field::amount("dividends", "", "Local dividends"),
        Field::amount("dividends_foreign", "4216", "Foreign dividends"),
        Field::amount("property", "4238", "Property company distributions"),
        Field::yes_no("excluded", "", "Excluded from the joint estate")
            .lasts()
            .help("By a will or a gift: the owner's alone."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives interest and dividends to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let excluded = paper.flag("excluded");
    for (field, kind) in [
        ("interest", &brings::INTEREST),
        ("interest_foreign", &brings::INTEREST_FOREIGN),
        ("dividends", &brings::DIVIDENDS_LOCAL),
        ("dividends_foreign", &brings::DIVIDENDS_FOREIGN),
        ("property", &brings::PROPERTY),
    ] {
        paper.put_joint(field, None, paper.amount(field), excluded, kind);
    }
}

/// Investments as income.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Invested {
    pub interest: Money,
    pub interest_exempt: Money,
    pub interest_foreign: Money,
    pub dividends_taxable: Money,
    pub property: Money,
}

/// What investments bring to taxable income.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Invested {
    let own = on.own();
    let figures = &on.facts.figures.interest;
    let interest = on.gather(trail, INTEREST, own.of(&brings::INTEREST));
    let aged = on.facts.reached(on.person, figures.age);
    let most = if aged { figures.exempt_aged } else { figures.exempt };
    let exempt = limit::cap(trail, EXEMPTION.at(on.scope), interest, most);
    on.made(trail, INTEREST_EXEMPT, exempt, &[(INTEREST, interest)], &[("Up to", &most)]);
    on.gather(trail, DIVIDENDS_LOCAL, own.of(&brings::DIVIDENDS_LOCAL));
    let foreign = on.gather(trail, DIVIDENDS_FOREIGN, own.of(&brings::DIVIDENDS_FOREIGN));
    let parts = &on.facts.figures.foreign_dividends;
    let taxable = portion(foreign, parts.taxable, parts.of);
    on.made(
        trail,
        DIVIDENDS_TAXABLE,
        taxable,
        &[(DIVIDENDS_FOREIGN, foreign)],
        &[("Of 45 parts", &parts.taxable)],
    );
    Invested {
        interest,
        interest_exempt: exempt,
        interest_foreign: on.gather(trail, INTEREST_FOREIGN, own.of(&brings::INTEREST_FOREIGN)),
        dividends_taxable: taxable,
        property: on.gather(trail, PROPERTY, own.of(&brings::PROPERTY)),
    }
}

/// Dividends of large holdings.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CERTIFICATE.id) {
        let large = paper
            .boxes
            .get("dividends_foreign")
            .and_then(Entry::money)
            .is_some_and(|m| m > Money::whole(500_000));
        if large {
            points.raise(
                &HOLDING,
                Place::paper(&paper.id, "dividends_foreign"),
                "How much of the company is held?",
            );
        }
    }
}
