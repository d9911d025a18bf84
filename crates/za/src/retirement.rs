//! Contributions to retirement funds (s11F): those of certificates with the employer's part, own annuities, and what earlier years left.

use crate::{
    bringing::Bringing, carried, certificates, foreign_pay, plan::On, points::Points, rounding::cents_down,
};
use hembo_core::{
    field::{Field, Years},
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::Gather,
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Retirement contributions",
    lines: LINES,
    limits: LIMITS,
    papers: &[ANNUITY],
    points: POINTS,
    figures: &["retirement"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    pub CONTRIBUTIONS = "za.retirement_contributions", "Retirement contributions", "s11F(1); codes 4001, 4003, 4006, 4029",
        "Of certificates, own annuities and earlier years.";
    pub MOST = "za.retirement_limit", "Most that is deducted", "s11F(2)",
        "A part of remuneration or of income, 350,000, and income without the capital gain: the least.";
    pub DEDUCTED = "za.retirement_deduction", "Retirement contributions deducted", "s11F",
        "Contributions up to the most.";
    CARRIED = "za.retirement_cf", "Contributions carried", "s11F(3)",
        "What is not deducted this year.";
}

limits! {
    CAP = "za.limit.retirement" on DEDUCTED, "Retirement contributions", "over the most, carried forward", "s11F(2)";
}

open_points! {
    ABOVE = look "C27", "s11F(3)", "The excess is carried, or lowers the tax of a later lump sum or annuity.";
}

const CARRIES: &[Carry] =
    &[Carry { line: CARRIED, paper: carried::PAPER, into: CarriedTo::Box("retirement") }];

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Contributions to own annuities.
    pub static ANNUITIES: Brought = Brought::new();
}

/// A certificate of an own annuity.
pub const ANNUITY: PaperKind = PaperKind {
    id: "Annuity",
    subject: subject::ADJUSTMENTS,
    name: "Retirement annuity certificate",
    words: "raf contribution pension fund",
    title: "Fund",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::text("number", "", "Fund's number", 20).payer_number(),
        Field::amount("paid", "4029", "Contributions in the year"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives contributions to who paid.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[("paid", &brings::ANNUITIES)]);
}

/// The deduction: `remuneration` is that of certificates and of work abroad, `income` is taxable income before it, `gain` the capital gain in it.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    remuneration: [Money; 2],
    income: Money,
    gain: Money,
) -> Money {
    let own = on.own();
    let brought = carried::of(on, carried::RETIREMENT);
    let items =
        own.of(&certificates::brings::RETIREMENT).iter().chain(own.of(&brings::ANNUITIES)).chain(brought);
    let all = on.gather(trail, CONTRIBUTIONS, items);
    let figures = &on.facts.figures.retirement;
    let measure = limit::greater(trail, remuneration[0] + remuneration[1], income);
    let part = cents_down(measure, figures.rate);
    let within = limit::lesser(trail, part, figures.most);
    let without_gain = limit::or_zero(trail, income - gain);
    let most = limit::lesser(trail, within, without_gain);
    on.made(
        trail,
        MOST,
        most,
        &[(certificates::REMUNERATION, remuneration[0]), (foreign_pay::PAY, remuneration[1])],
        &[
            ("Income before it", &income),
            ("Rate", &figures.rate),
            ("At most", &figures.most),
            ("Capital gain in it", &gain),
        ],
    );
    let deducted = limit::cap(trail, CAP.at(on.scope), all, most);
    on.made(trail, DEDUCTED, deducted, &[(CONTRIBUTIONS, all), (MOST, most)], &[]);
    on.made(trail, CARRIED, all - deducted, &[(CONTRIBUTIONS, all), (DEDUCTED, deducted)], &[]);
    deducted
}

/// Contributions above the most.
pub fn points(points: &mut Points<'_>) {
    for (place, person) in points.returns() {
        let carried = points.amount(CARRIED, place);
        if !carried.is_zero() {
            let message = format!("{}: {carried:#} of contributions are carried.", points.name(person));
            points.raise(&ABOVE, points.at(person, "name"), message);
        }
    }
}
