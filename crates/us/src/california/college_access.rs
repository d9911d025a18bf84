//! The College Access Tax Credit (R&TC 17053.87, code 235): a part of what was given to the fund and certified, carried on for some years; the
//! gift is no deduction then.

use super::made;
use crate::{
    bringing::{Bringing, Carried, expiring},
    unit::{Filed, On},
};
use hembo_core::{
    Trail,
    field::{Field, Years},
    forms::Required,
    limit, limits, lines,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    settled,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[PAPER],
    figures: &["california_other_credits"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] =
    &[Carry { line: CARRY, paper: "FTB 3592", into: CarriedTo::Rows { column: "amount", says: None } }];

lines! {
    OF_YEAR = "us.ca.3592.year", "College Access credit of the year", "R&TC 17053.87(a)", "A part of what is certified.";
    CARRIED = "us.ca.3592.carried", "College Access credit carried here", "R&TC 17053.87(d)", "Of six years.";
    pub CREDIT = "us.ca.235", "College Access, code 235", "R&TC 17053.87; FTB 3592", "As far as the tax takes it, the oldest first.";
    CARRY = "us.ca.carryover.235", "College Access credit carried on", "R&TC 17053.87(d)", "What is over the tax, for six years.";
    pub GIFT = "us.ca.sca2.14.b", "Gift to the College Access fund", "R&TC 17053.87(f); Schedule CA, line 11 B", "What of the federal gifts the credit was taken for.";
}

limits! {
    TAX = "us.ca.limit.235" on CREDIT, "College Access credit", "over the tax, carried on", "R&TC 17053.87(d)";
}

/// What its paper brings.
pub mod brings {
    use super::Carried;
    use hembo_core::brought::Brought;

    /// Certified contributions.
    pub static CERTIFIED: Brought = Brought::new();
    /// What of them is among the federal gifts.
    pub static DEDUCTED: Brought = Brought::new();
    /// Credits of earlier years, with their years.
    pub static CARRIED: Brought<Carried> = Brought::new();
}

/// The paper.
pub const PAPER: PaperKind = PaperKind {
    id: "FTB 3592",
    subject: subject::CREDITS,
    name: "College Access contribution",
    words: "california college access tax credit 235 3592 contribution certificate",
    title: "About",
    shared: true,
    headline: "certified",
    boxes: &[
        Field::amount("certified", "", "Contribution that is certified"),
        Field::amount("deducted", "11 B", "Of it among the gifts of the federal Schedule A")
            .help("Federally what the state's credit gives back is no gift (Reg. §1.170A-1(h)(3)). Here none of it is deducted."),
    ],
    columns: &[
        Field::count("year", "", "Carried from the year", 2100),
        Field::amount("amount", "", "Credit carried here"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives each owner a part.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("certified", &brings::CERTIFIED);
    paper.give("deducted", &brings::DEDUCTED);
    let years = paper.facts.figures.california_other_credits.as_ref().map(|of| of.college_years);
    paper.carried(years.unwrap_or_default(), &brings::CARRIED);
}

fn any(on: On<'_>) -> bool {
    on.owns().any(|(_, own)| own.has(&brings::CERTIFIED) || own.has(&brings::CARRIED))
}

/// Code 235; `left` is the tax that the credits before leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, left: Money) -> Money {
    let Some(figures) = on.facts.figures.california_other_credits.as_ref().filter(|_| any(on)) else {
        return Money::ZERO;
    };
    let given = sum(on.items(&brings::CERTIFIED)).to_whole();
    let of_year = given.times(figures.college_rate, Money::WHOLE, Rounding::HalfUp);
    trail.line(OF_YEAR, on.scope, of_year, |i| {
        i.items(on.items(&brings::CERTIFIED)).figure("Part", limit::percent(figures.college_rate));
    });
    let carried = || on.owns().flat_map(|(_, own)| own.of(&brings::CARRIED));
    let earlier = sum(carried().map(|(_, item)| item)).to_whole();
    trail.line(CARRIED, on.scope, earlier, |i| _ = i.items(carried().map(|(_, item)| item)));
    let credit = limit::cap(trail, TAX.at(on.scope), of_year + earlier, left);
    let lost = settled::or_zero(expiring(on.facts, figures.college_years, carried()) - credit);
    let lines = [(OF_YEAR, of_year), (CARRIED, earlier)];
    let carry = of_year + earlier - credit - lost;
    made(on, trail, CARRY, carry, &lines, &[("Used", &credit), ("Of the oldest year, lost", &lost)]);
    made(on, trail, CREDIT, credit, &lines, &[("Tax left", &left)])
}

/// Column B of the gifts, at most what is deducted federally.
pub fn gift(on: On<'_>, trail: &mut impl Trail, gifts: Money) -> Money {
    let entered = sum(on.items(&brings::DEDUCTED)).to_whole();
    let taken = limit::lesser(trail, entered, gifts);
    trail.line(GIFT, on.scope, taken, |i| _ = i.items(on.items(&brings::DEDUCTED)))
}

/// FTB 3592.
pub fn form_3592(filed: Filed<'_>) -> Required {
    super::forms::here(filed, any(filed.on), "no such contribution")
}
