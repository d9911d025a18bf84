//! Provision for old age, health and other risks (§10(1) Nr.2 to 3a, (3), (4) EStG; Anlage Vorsorgeaufwand).

use crate::{
    bringing::Bringing,
    plan::On,
    rounding::{euros_down, euros_up},
    wage,
};
use hembo_core::{
    field::{Field, Years},
    limit, limits, lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision, settled,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: provision::Provision = provision::Provision {
    about: "Provision",
    lines: LINES,
    limits: LIMITS,
    papers: &[PAID],
    figures: &["provision"],
    ..provision::Provision::NONE
};

lines! {
    pub OLD_AGE = "de.pension_deduction", "For old age (Altersvorsorge)", "§10(1) Nr.2, (3)",
        "Both parts and own contracts up to the most, less the employer's part.";
    BASIC = "de.health_basic", "Basic health and care cover", "§10(1) Nr.3",
        "Of each what was paid less subsidies; 4 % are cut where it has sick pay.";
    OTHER = "de.provident_other", "Other provision", "§10(1) Nr.3a",
        "Unemployment, liability, accident and other insurance, what was cut.";
    HEALTH = "de.health_deduction", "Health and other, deducted", "§10(4)",
        "Basic cover whole, or all of it up to the most, whichever is more.";
    pub ALL = "de.provident", "Provision (Vorsorgeaufwendungen)", "§10",
        "Old age, health and other.";
}

limits! {
    OLD_AGE_MOST = "de.limit.old_age" on OLD_AGE, "For old age", "over the most of the year", "§10(3)";
    OTHER_MOST = "de.limit.provision" on HEALTH, "Other provision", "over the most with basic cover", "§10(4)";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Own contracts for old age.
    pub static OLD_AGE: Brought = Brought::new();
    /// Basic health cover without sick pay.
    pub static HEALTH: Brought = Brought::new();
    /// With sick pay.
    pub static HEALTH_SICK_PAY: Brought = Brought::new();
    /// Care cover.
    pub static CARE: Brought = Brought::new();
    /// Other insurance.
    pub static OTHER: Brought = Brought::new();
}

/// Insurance that was paid oneself.
pub const PAID: PaperKind = PaperKind {
    id: "Insurance",
    subject: subject::DEDUCTIONS,
    name: "Insurance paid oneself, Anlage Vorsorgeaufwand",
    words: "health care liability accident basisrente vorsorge versicherung",
    title: "Insurer",
    shared: false,
    headline: "health",
    boxes: &[
        Field::date("from", "", "Covered from"),
        Field::date("to", "", "Covered until"),
        Field::amount("old_age", "", "Basisrente, professional scheme"),
        Field::amount("health", "", "Basic health cover without sick pay"),
        Field::amount("health_sick_pay", "", "Basic health cover with sick pay"),
        Field::amount("care", "", "Care cover"),
        Field::amount("other", "", "Liability, accident, disability, other"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives insurance to who paid it.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[
        ("old_age", &brings::OLD_AGE),
        ("health", &brings::HEALTH),
        ("health_sick_pay", &brings::HEALTH_SICK_PAY),
        ("care", &brings::CARE),
        ("other", &brings::OTHER),
    ]);
}

/// All provision of an assessment.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let old_age = old_age(on, trail);
    let health = health(on, trail);
    on.add(trail, ALL, &[(OLD_AGE, old_age), (HEALTH, health)])
}

/// §10(3): both parts up to the most, of which the employer's is free already.
fn old_age(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.provision;
    let items = || {
        let kinds = [&wage::brings::OLD_AGE, &wage::brings::EMPLOYERS_OLD_AGE, &brings::OLD_AGE];
        kinds.into_iter().flat_map(move |kind| on.items(kind))
    };
    let of_each = |kind| on.people.iter().map(move |&person| on.shared_of(person, kind));
    let employers = of_each(&wage::brings::EMPLOYERS_OLD_AGE).map(euros_down).sum::<Money>();
    let own = on.shared_up(&wage::brings::OLD_AGE) + on.shared_up(&brings::OLD_AGE);
    let spared = |&person: &usize| {
        if !on.facts.people[person].servant {
            return Money::ZERO;
        }
        let wage = hembo_core::reading::sum(on.own(person).of(&wage::brings::GROSS));
        let within = settled::lesser(euros_down(wage), figures.servant_to);
        within.times(figures.servant_rate, Money::WHOLE, Rounding::Down)
    };
    let most = figures.pension_most * on.times() - on.people.iter().map(spared).sum::<Money>();
    let counted = limit::cap(trail, OLD_AGE_MOST.at(on.scope), own + employers, most);
    let deducted = limit::or_zero(trail, counted - employers);
    trail.line(OLD_AGE, on.scope, deducted, |i| {
        i.items(items().collect::<Vec<_>>()).figure("At most", most).figure("Employer's part", employers);
    })
}

/// §10(4): basic cover always, with other provision up to the most of each person.
fn health(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.provision;
    let mut basic = Money::ZERO;
    let mut other = Money::ZERO;
    let mut most = Money::ZERO;
    for &person in on.people {
        let of = |kind| on.shared_of(person, kind);
        let with_sick_pay =
            euros_up(settled::or_zero(of(&wage::brings::HEALTH))) + euros_up(of(&brings::HEALTH_SICK_PAY));
        let cut = with_sick_pay.times(figures.sick_pay_part, Money::WHOLE, Rounding::Down);
        let private = settled::or_zero(of(&brings::HEALTH) - of(&wage::brings::PRIVATE_SUBSIDY));
        let without = euros_up(settled::or_zero(of(&wage::brings::HEALTH_NO_SICK_PAY))) + euros_up(private);
        let care = euros_up(settled::or_zero(of(&wage::brings::CARE) + of(&brings::CARE)));
        basic += with_sick_pay - cut + without + care;
        other += cut + euros_up(of(&wage::brings::UNEMPLOYMENT)) + euros_up(of(&brings::OTHER));
        most +=
            if on.facts.people[person].health_alone { figures.other_most_alone } else { figures.other_most };
    }
    let items = |kinds: &'static [&'static hembo_core::brought::Brought]| {
        kinds.iter().flat_map(move |kind| on.items(kind)).collect::<Vec<_>>()
    };
    trail.line(BASIC, on.scope, basic, |i| _ = i.items(items(BASIC_KINDS)));
    trail.line(OTHER, on.scope, other, |i| _ = i.items(items(OTHER_KINDS)));
    let within = limit::cap(trail, OTHER_MOST.at(on.scope), basic + other, most);
    let deducted = limit::greater(trail, basic, within);
    on.made(trail, HEALTH, deducted, &[(BASIC, basic), (OTHER, other)], &[("At most with other", &most)])
}

static BASIC_KINDS: &[&hembo_core::brought::Brought] = &[
    &wage::brings::HEALTH,
    &wage::brings::HEALTH_NO_SICK_PAY,
    &wage::brings::CARE,
    &brings::HEALTH,
    &brings::HEALTH_SICK_PAY,
    &brings::CARE,
];
static OTHER_KINDS: &[&hembo_core::brought::Brought] = &[&wage::brings::UNEMPLOYMENT, &brings::OTHER];
