//! Capital income (§§20, 32d, 43 EStG; Anlage KAP): left with the bank, declared at the flat rate, or by the tariff where that is lower.

use crate::{
    bringing::Bringing,
    charges,
    facts::Facts,
    funds,
    plan::{CapitalWay, On},
    points::Points,
    rounding::euros_down,
};
use hembo_core::{
    Decision,
    choice::{Chosen, Open},
    decision::{Bar, Opt},
    field::{Field, Years},
    limit, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Capital income",
    lines: LINES,
    papers: &[CERTIFICATE],
    points: POINTS,
    carries: CARRIES,
    figures: &["capital", "church"],
    ..Provision::NONE
};

lines! {
    pub INCOME = "de.capital_income", "Capital income (Kapitalerträge)", "§20; Anlage KAP",
        "With and without tax withheld, shares never below zero.";
    SHARE_LOSSES = "de.share_loss_carried", "Losses of shares carried forward", "§20(6) S.3, 4",
        "What is left of them, as none is set against other income.";
    LOSSES_CARRIED = "de.capital_loss_carried", "Other losses of capital income carried forward", "§20(6) S.2, 3",
        "What declared income does not take, of spouses together that of both; where nothing is declared, all that was brought.";
    pub NET = "de.capital_net", "After the saver's lump sum", "§20(9)",
        "What one spouse does not use goes to the other.";
    pub IN_TARIFF = "de.capital_in_tariff", "Of it by the tariff", "§32d(6)",
        "Where that was asked for.";
    pub FLAT = "de.flat_tax", "Tax at the flat rate", "§32d(1), (3), (4)",
        "A quarter, less foreign tax and what church tax takes off; cut to euros.";
}

open_points! {
    DECLARED = look "DE-C38", "§32d(3)", "It is declared here whatever else is chosen: the way without it is barred.";
}

const CARRIES: &[Carry] = &[
    Carry { line: SHARE_LOSSES, paper: "Last year", into: CarriedTo::Box("share_losses") },
    Carry { line: LOSSES_CARRIED, paper: "Last year", into: CarriedTo::Box("capital_losses") },
];

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// With tax withheld.
    pub static WITHHELD: Brought = Brought::new();
    /// Without: it must be declared.
    pub static UNTAXED: Brought = Brought::new();
    /// Results of shares that are declared.
    pub static SHARES: Brought = Brought::new();
    /// Losses of shares brought forward.
    pub static SHARES_BEFORE: Brought = Brought::new();
    /// Other losses of capital income brought forward.
    pub static LOSSES_BEFORE: Brought = Brought::new();
    /// Foreign tax that is credited.
    pub static FOREIGN_TAX: Brought = Brought::new();
    /// Capital income tax withheld.
    pub static TAX: Brought = Brought::new();
    /// Surcharge withheld.
    pub static SURCHARGE: Brought = Brought::new();
    /// Church tax withheld.
    pub static CHURCH: Brought = Brought::new();
}

const CERTIFICATE: PaperKind = PaperKind {
    id: "KAP",
    subject: subject::INVESTMENTS,
    name: "Tax certificate of a bank, Steuerbescheinigung",
    words: "interest dividends bank kapital zinsen aktien",
    title: "Bank",
    shared: true,
    headline: "income",
    boxes: &[
        Field::signed("income", "7", "Capital income with tax withheld"),
        Field::amount("untaxed", "18/19", "Without tax withheld, also from abroad"),
        Field::signed("shares", "8", "Result of shares, declared"),
        Field::amount("shares_before", "", "Losses of shares brought forward"),
        Field::amount("foreign_tax", "41", "Foreign tax to be credited"),
        Field::amount("tax", "37", "Capital income tax withheld"),
        Field::amount("surcharge", "38", "Surcharge withheld"),
        Field::amount("church", "39", "Church tax withheld"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives a certificate to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[
        ("income", &brings::WITHHELD),
        ("untaxed", &brings::UNTAXED),
        ("shares", &brings::SHARES),
        ("shares_before", &brings::SHARES_BEFORE),
        ("foreign_tax", &brings::FOREIGN_TAX),
        ("tax", &brings::TAX),
        ("surcharge", &brings::SURCHARGE),
        ("church", &brings::CHURCH),
    ]);
}

/// Whether a person has any capital income.
pub fn any(facts: &Facts, person: usize) -> bool {
    let own = &facts.people[person].own;
    [&brings::WITHHELD, &brings::UNTAXED, &brings::SHARES, &funds::brings::FUNDS]
        .into_iter()
        .any(|kind| own.has(kind))
}

/// Whether a person's must be declared: none was withheld of a part.
pub fn must_be_declared(facts: &Facts, person: usize) -> bool {
    let own = &facts.people[person].own;
    own.has(&brings::UNTAXED) || own.has(&funds::brings::FUNDS)
}

/// What is done with the capital income of an assessment.
pub fn way(on: On<'_>) -> CapitalWay {
    let of = |&person: &usize| on.plan.capital.get(person).copied().unwrap_or_default();
    on.people.iter().map(of).find(|way| *way != CapitalWay::Left).unwrap_or_default()
}

/// Capital income of an assessment after the lump sum, by person.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Vec<Money> {
    let saver = on.facts.figures.capital.saver;
    let incomes: Vec<Money> = on.people.iter().map(|&person| income(on, trail, person)).collect();
    let income_of = incomes.clone();
    let incomes = between_spouses(on, incomes);
    let unused: Vec<Money> =
        incomes.iter().map(|income| settled::or_zero(saver - settled::or_zero(*income))).collect();
    let of = |(place, &person): (usize, &usize)| {
        let income = incomes[place];
        let from_other = if on.together() { unused[1 - place] } else { Money::ZERO };
        let net = settled::or_zero(income - saver - from_other);
        // Without the lump sum a loss stays a loss.
        let net = if income.is_negative() { income } else { net };
        trail.line(NET, Scope::Person(person), net, |i| {
            i.line(INCOME, Scope::Person(person), income_of[place])
                .figure("Lump sum", saver)
                .figure("From the spouse", from_other);
        })
    };
    let nets: Vec<Money> = on.people.iter().enumerate().map(of).collect();
    for (&person, net) in on.people.iter().zip(&nets) {
        carry_losses(on, trail, person, *net);
    }
    nets
}

/// What of losses is left: declared what the income is below zero, else all that was brought, as the bank carries its own.
fn carry_losses(on: On<'_>, trail: &mut impl Trail, person: usize, net: Money) {
    let (scope, before) = (Scope::Person(person), on.own(person).of(&brings::LOSSES_BEFORE));
    let left = if way(on) == CapitalWay::Left { sum(before) } else { settled::or_zero(-net) };
    trail.line(LOSSES_CARRIED, scope, left, |i| _ = i.items(before).line(NET, scope, net));
}

/// §20(6) S.3: of spouses together a loss of one that is declared is set against income of the other.
fn between_spouses(on: On<'_>, incomes: Vec<Money>) -> Vec<Money> {
    match *incomes.as_slice() {
        [one, other] if one.is_negative() != other.is_negative() && way(on) != CapitalWay::Left => {
            let set = settled::lesser(settled::greater(one, other), -settled::lesser(one, other));
            vec![one - toward(one, set), other - toward(other, set)]
        }
        _ => incomes,
    }
}

/// An amount with the sign of another.
fn toward(of: Money, amount: Money) -> Money {
    if of.is_negative() { -amount } else { amount }
}

/// Capital income of a person before the lump sum, less losses brought forward where it is declared.
fn income(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let own = on.own(person);
    let net = sum(own.of(&brings::SHARES)) - sum(own.of(&brings::SHARES_BEFORE));
    let shares = settled::or_zero(net);
    trail.line(SHARE_LOSSES, Scope::Person(person), settled::or_zero(-net), |i| {
        i.items(own.of(&brings::SHARES)).items(own.of(&brings::SHARES_BEFORE));
    });
    let untaxed = || own.of(&brings::UNTAXED).iter().chain(own.of(&funds::brings::FUNDS));
    let items = || own.of(&brings::WITHHELD).iter().chain(untaxed());
    let before = if way(on) == CapitalWay::Left { &[] } else { own.of(&brings::LOSSES_BEFORE) };
    let all = euros_down(sum(items()) + shares - sum(before));
    trail.line(INCOME, Scope::Person(person), all, |i| {
        i.items(items()).items(own.of(&brings::SHARES)).items(own.of(&brings::SHARES_BEFORE)).items(before);
    })
}

/// The flat tax of each person on what is declared, with church tax of a member on it (§32d(1) S.4): (e − 4q) ÷ (4 + k), to the cent.
pub fn flats(on: On<'_>, trail: &mut impl Trail, net: &[Money]) -> Vec<Money> {
    let foreign = on.sum(&brings::FOREIGN_TAX);
    let all: Money = net.iter().copied().map(settled::or_zero).sum();
    let of = |(&person, amount): (&usize, &Money)| {
        let amount = limit::or_zero(trail, *amount);
        let part = if all.is_zero() {
            Money::ZERO
        } else {
            foreign.in_proportion(amount, all, Money::CENT, Rounding::HalfUp)
        };
        let base = settled::or_zero(amount - part * 4);
        let church =
            if on.facts.people[person].church_months > 0 { charges::rate(on.facts).billionths() } else { 0 };
        let divisor = Money::from_cents((4 * Rate::ONE.billionths() + church) / 10_000_000);
        base.in_proportion(Money::whole(1), divisor, Money::CENT, Rounding::Down)
    };
    on.people.iter().zip(net).map(of).collect()
}

/// What is done with the capital income of a person; of spouses together that of the first who has any decides for both.
pub static CAPITAL: Open<Facts> = Open::new(
    |facts: &Facts| facts.filers.iter().copied().filter(|&p| any(facts, p)).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("left", "Left with what was withheld", ""),
            Opt::new("flat", "Declared at the flat rate", format!("capital of {name} declared")),
            Opt::new("tariff", "By the tariff", format!("capital of {name} by the tariff")),
        ];
        let id = format!("de.capital.{}", facts.people[person].id);
        Decision::between(id, format!("Capital income of {name}"), "§32d(3), (4), (6)", options)
    },
)
.arises(|facts, person, way| {
    // Together the choice is one for both (§32d(6) S.3, 4).
    let first = facts.filers.iter().copied().find(|&p| any(facts, p));
    crate::filing::alone(facts, way) || first == Some(person)
})
.bars(|facts, person, option, way| {
    let together = !crate::filing::alone(facts, way);
    let declared = facts.filers.iter().any(|&p| (p == person || together) && must_be_declared(facts, p));
    (option == 0 && declared).then_some(Bar::Borrowed("a part had no tax withheld"))
});

/// What is done with the capital income of everyone in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<CapitalWay> {
    let of = |person: usize| match way.taken(&CAPITAL, person) {
        Some(1) => CapitalWay::Flat,
        Some(2) => CapitalWay::Tariff,
        _ => CapitalWay::Left,
    };
    let mut all: Vec<CapitalWay> = (0..facts.people.len()).map(of).collect();
    if !crate::filing::alone(facts, way) {
        let together = facts.filers.iter().map(|&p| all[p]).find(|way| *way != CapitalWay::Left);
        for &person in &facts.filers {
            all[person] = together.unwrap_or_default();
        }
    }
    all
}

/// Capital income that must be declared.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CERTIFICATE.id).filter(|paper| paper.amount("untaxed") > Money::ZERO) {
        let words = format!("{}: income without tax withheld.", paper.title);
        points.raise(&DECLARED, Place::paper(&paper.id, "untaxed"), words);
    }
}
