//! What is paid beside the assessment on request: the premium of mobility (§§101 to 109 EStG) and the bonus of savings (§13 5. VermBG). It is no
//! part of the tax, and nothing weighs it.

use crate::{
    bringing::Bringing,
    plan::On,
    rounding::{cents_down, part_up},
    tariff::Table,
    work,
};
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
pub static PROVISION: Provision = Provision {
    about: "Paid beside the assessment",
    lines: LINES,
    papers: &[SAVED],
    figures: &["premiums", "tariff", "wages"],
    ..Provision::NONE
};

lines! {
    MOBILITY = "de.mobility_premium", "Premium of mobility (Mobilitätsprämie)", "§§101, 105",
        "A part of the way from the 21st kilometre on, as far as income stays below the basic allowance; nothing below the least.";
    SAVINGS = "de.savings_bonus", "Bonus of savings (Arbeitnehmer-Sparzulage)", "§13 5. VermBG",
        "A part of what an employer saved in shares and building, up to a most, where income with all allowances is not above the limit.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Saved in shares.
    pub static SHARES: Brought = Brought::new();
    /// Saved in building.
    pub static BUILDING: Brought = Brought::new();
}

const SAVED: PaperKind = PaperKind {
    id: "VL",
    subject: subject::CREDITS,
    name: "Capital-forming payments, vermögenswirksame Leistungen",
    words: "vl savings bonus sparzulage vermoegenswirksam",
    title: "Institution",
    shared: false,
    headline: "shares",
    boxes: &[
        Field::amount("shares", "", "Saved in shares or funds"),
        Field::amount("building", "", "Saved in building"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives savings to whose they are.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[("shares", &brings::SHARES), ("building", &brings::BUILDING)]);
}

/// What is paid beside an assessment: `above_lumps` is by how much each person's work expenses are above the lump sum, nothing where there
/// is no wage; `taxable` is with the allowances that were used, `notional` with all.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    above_lumps: &[Option<Money>],
    taxable: Money,
    notional: Money,
) {
    mobility(on, trail, above_lumps, taxable);
    savings(on, trail, notional);
}

/// So often as the table stands for people.
fn times(on: On<'_>) -> i64 {
    if on.table() == Table::Splitting { 2 } else { 1 }
}

fn mobility(on: On<'_>, trail: &mut impl Trail, above_lumps: &[Option<Money>], taxable: Money) {
    let figures = &on.facts.figures;
    let below = settled::or_zero(figures.tariff.free_to * times(on) - taxable);
    let far = |(&person, above): (&usize, &Option<Money>)| {
        let far = sum(work::far(on, person));
        above.map_or(far, |above| settled::lesser(far, settled::or_zero(above)))
    };
    let base = settled::lesser(on.people.iter().zip(above_lumps).map(far).sum(), below);
    let premium = cents_down(base, figures.premiums.mobility_rate);
    let premium = if premium < figures.premiums.mobility_least { Money::ZERO } else { premium };
    let ways = on.people.iter().flat_map(|&person| work::far(on, person));
    trail.line(MOBILITY, on.scope, premium, |i| {
        i.items(ways).figure("Below the basic allowance", below);
    });
}

fn savings(on: On<'_>, trail: &mut impl Trail, notional: Money) {
    let figures = &on.facts.figures.premiums;
    let open = notional <= figures.savings_to * times(on);
    let of = |&person: &usize| {
        let part = |kind, most, rate| part_up(settled::lesser(sum(on.own(person).of(kind)), most), rate);
        part(&brings::SHARES, figures.shares_most, figures.shares_rate)
            + part(&brings::BUILDING, figures.building_most, figures.building_rate)
    };
    let bonus = if open { on.people.iter().map(of).sum() } else { Money::ZERO };
    let items: Vec<_> = on.items(&brings::SHARES).chain(on.items(&brings::BUILDING)).collect();
    trail.line(SAVINGS, on.scope, bonus, |i| _ = i.items(items));
}
