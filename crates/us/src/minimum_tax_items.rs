//! What counts otherwise for the minimum tax and is known only to the preparer (§56(a), (b)(3)), Form 6251 lines 2k, 2l and 3: shares whose basis
//! is higher there, depreciation, and other adjustments.

use crate::{bringing::Bringing, capital_gains, gains::Gains, unit::On};
use hembo_core::{
    field::{Field, Years},
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, papers: &[ITEMS], ..Provision::NONE };

lines! {
    DISPOSED = "us.6251.2k", "Shares with a higher basis for the minimum tax", "IRC §56(a)(6), (b)(3)",
        "What their sale gains less here, as far as line 7 of the return would be less.";
    OTHER = "us.6251.2l", "Depreciation and other adjustments", "IRC §§56, 57",
        "Form 6251, lines 2l, 2m, 2n and 3, as entered.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// What a sale gains less for the minimum tax.
    pub static DISPOSED: Brought = Brought::new();

    /// Other adjustments.
    pub static OTHER: Brought = Brought::new();
}

/// Form 6251, as far as only the preparer knows it.
pub const ITEMS: PaperKind = PaperKind {
    id: "6251",
    subject: subject::CREDITS,
    name: "Adjustments for the minimum tax",
    words: "amt 6251 adjustment depreciation basis iso shares sold",
    title: "About",
    shared: false,
    headline: "2k",
    boxes: &[
        Field::amount("2k", "2k", "Basis of shares sold, above the regular one")
            .help("Held over a year; what counted for the minimum tax when the option was exercised."),
        Field::signed("2l", "2l", "Depreciation").help("Regular depreciation less that of the minimum tax."),
        Field::signed("2m", "2m", "Passive activities"),
        Field::signed("2n", "2n", "Loss limitations"),
        Field::signed("3", "3", "Other adjustments"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the adjustments to their owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("2k", &brings::DISPOSED);
    for field in ["2l", "2m", "2n", "3"] {
        paper.give(field, &brings::OTHER);
    }
}

/// What the adjustments come to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Items {
    /// Added to minimum taxable income.
    pub sum: Money,
    /// What of the net gain does not count at the rates for gains.
    pub less_gain: Money,
}

/// Lines 2k to 3.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, gains: Gains) -> Items {
    let of = |kind| sum(on.items(kind)).to_whole();
    let (disposed, other) = (of(&brings::DISPOSED), of(&brings::OTHER));
    if disposed.is_zero() && other.is_zero() {
        return Items::default();
    }
    let together = gains.short + gains.long;
    let less = capital_gains::limited(on, together - disposed) - gains.line_7;
    trail.line(DISPOSED, on.scope, less, |i| {
        i.items(on.items(&brings::DISPOSED)).line(capital_gains::L7, on.scope, gains.line_7);
    });
    trail.line(OTHER, on.scope, other, |i| {
        i.items(on.items(&brings::OTHER));
    });
    let net = settled::or_zero(settled::lesser(gains.long, together) - disposed);
    Items { sum: less + other, less_gain: gains.net - net }
}
