//! The rebate for foreign tax (s6quat): all foreign sources together, up to the tax on their income; the rest is carried.

use crate::{bringing::Bringing, carried, income::Income, plan::On, points::Points};
use hembo_core::{
    field::{Choice, Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Foreign tax",
    lines: LINES,
    limits: LIMITS,
    papers: &[PAID],
    points: POINTS,
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    INCOME = "za.foreign_income", "Foreign income after its share of deductions", "s6quat(1A), (1B)(a)",
        "Foreign interest, the taxable part of dividends, pay above the exemption, rents, trades and gains, less their share of contributions and gifts.";
    MOST = "za.foreign_tax_limit", "Tax on foreign income", "s6quat(1B)(a)",
        "The part of the tax that foreign income is of taxable income.";
    pub CREDIT = "za.foreign_tax_credit", "Rebate for foreign tax", "s6quat(1)",
        "Foreign tax of this year and earlier ones, up to the tax on foreign income.";
    CARRIED = "za.foreign_tax_cf", "Foreign tax carried", "s6quat(1B)(a)(ii)",
        "What is not used, for seven years.";
}

limits! {
    CAP = "za.limit.foreign_tax" on CREDIT, "Foreign tax", "over the tax on foreign income, carried forward", "s6quat(1B)(a)";
}

open_points! {
    NO_INCOME = blocks "C24", "s6quat(1)", "Add the income on which it was paid, or take the tax out.";
    LIMITED = look "C25", "s6quat(1B)(a)", "The rest is carried for seven years, the oldest first.";
    SPREAD = look "C68", "s6quat(1B)(a)", "The share of contributions and gifts in foreign income is to be confirmed.";
    ON_SERVICES = not_covered "foreign-tax-services", "s6quat(1C)";
}

const CARRIES: &[Carry] =
    &[Carry { line: CARRIED, paper: carried::PAPER, into: CarriedTo::Box("foreign_tax") }];

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Foreign tax.
    pub static PAID: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("dividends", "On dividends"),
    Choice::new("interest", "On interest"),
    Choice::new("pay", "On pay above the exemption"),
    Choice::new("rent", "On rents"),
    Choice::new("trade", "On a trade"),
    Choice::new("gain", "On gains"),
    Choice::new("services", "On services done here"),
];

const PAID: PaperKind = PaperKind {
    id: "Foreign tax",
    subject: subject::CREDITS,
    name: "Tax paid abroad",
    words: "withholding double taxation treaty 6quat",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::text("country", "", "Country", 40),
        Field::choice("kind", "", "On what", KINDS),
        Field::amount("amount", "", "Tax in rand"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives foreign tax to who paid; that of joint investments by halves.
pub fn read(paper: &mut Bringing<'_>) {
    let rows: Vec<_> = paper.paper.lines("amount").collect();
    for (row, cells, amount) in rows {
        let kind = cells.get("kind").and_then(Entry::text).unwrap_or_default();
        let own = matches!(kind, "pay" | "trade" | "services" | "");
        paper.put_joint("amount", Some(row), amount, own, &brings::PAID);
    }
}

/// The rebate: `tax` is what rebates and medical credits leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income, tax: Money) -> Money {
    let own = on.own().of(&brings::PAID);
    let brought = carried::of(on, carried::FOREIGN_TAX);
    let foreign = limit::or_zero(trail, income.foreign);
    let spread = share_of_deductions(income, foreign);
    let left = limit::or_zero(trail, foreign - spread);
    let figures: [(&'static str, &dyn ToString); 2] =
        [("Foreign income", &foreign), ("Share of contributions and gifts", &spread)];
    let after = on.made(trail, INCOME, left, &[], &figures);
    let part = limit::lesser(trail, after, income.taxable);
    let most = if income.taxable.is_zero() {
        Money::ZERO
    } else {
        tax.in_proportion(part, income.taxable, Money::CENT, Rounding::HalfUp)
    };
    on.made(trail, MOST, most, &[(INCOME, after)], &[("Tax", &tax), ("Taxable income", &income.taxable)]);
    let all = sum(own) + sum(brought);
    if all.is_zero() {
        return Money::ZERO;
    }
    let credit = limit::cap(trail, CAP.at(on.scope), all, most);
    trail.line(CREDIT, on.scope, credit, |i| {
        i.items(own).items(brought).line(MOST, on.scope, most);
    });
    trail.line(CARRIED, on.scope, all - credit, |i| {
        i.items(own).items(brought).line(CREDIT, on.scope, credit);
    });
    credit
}

/// The share of contributions and gifts that foreign income bears (s6quat(1B)(a)).
fn share_of_deductions(income: &Income, foreign: Money) -> Money {
    if income.gross <= Money::ZERO {
        return Money::ZERO;
    }
    income.deducted.in_proportion(foreign, income.gross, Money::CENT, Rounding::HalfUp)
}

/// Tax without income, tax that is carried, tax on services.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAID.id) {
        for row in &paper.rows {
            if row.get("kind").and_then(Entry::text) == Some("services") {
                let message = "Tax on services done here is deducted, not credited; that is not computed.";
                points.raise(&ON_SERVICES, Place::row(&paper.id, row, "kind"), message);
            }
        }
    }
    for (place, person) in points.returns() {
        let paid = sum(points.facts.people[person].own.of(&brings::PAID));
        if paid.is_zero() {
            continue;
        }
        let name = points.name(person);
        let at = points.at(person, "name");
        if points.amount(INCOME, place).is_zero() {
            points.raise(&NO_INCOME, at.clone(), format!("{name}: foreign tax without foreign income."));
        }
        let carried = points.amount(CARRIED, place);
        if !carried.is_zero() {
            points.raise(&LIMITED, at.clone(), format!("{name}: {carried:#} of foreign tax are carried."));
        }
        let deducted = points.amount(crate::retirement::DEDUCTED, place)
            + points.amount(crate::donations::DEDUCTED, place);
        if !deducted.is_zero() {
            points.raise(&SPREAD, at, format!("{name}: foreign income bears a share of {deducted:#}."));
        }
    }
}
