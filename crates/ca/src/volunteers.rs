//! Emergency volunteers (ITA 81(4), 118.06, 118.07): lines 31220 and 31240, or an exempt part of what they are paid; and what
//! provinces have for them.

use crate::{
    facts::{Facts, Volunteer},
    papers::t4,
    plan::On,
    points::Points,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field},
    lines, open_points,
    pack::{ANYONE, Question},
    point::Gather,
    provision::Provision,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: &[Question {
        of: ANYONE,
        from_age: 16,
        field: Field::choice(ask::VOLUNTEER, "", "Emergency volunteer of 200 hours or more", KINDS)
            .help("Hours of both kinds may be added up; one amount only."),
    }],
    lines: LINES,
    points: POINTS,
    figures: &["volunteers"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const VOLUNTEER: &str = "volunteer";
}

const KINDS: &[Choice] =
    &[Choice::new("fire", "Volunteer firefighter"), Choice::new("search", "Search and rescue volunteer")];

lines! {
    FIREFIGHTER = "ca.31220", "Volunteer firefighters' amount", "ITA 118.06",
        "For 200 hours or more, where no pay of a volunteer is exempt.";
    SEARCH = "ca.31240", "Search and rescue volunteers' amount", "ITA 118.07",
        "For 200 hours or more, where no pay of a volunteer is exempt.";
    pub AMOUNT = "ca.volunteer", "Volunteers' amount", "ITA 118.06, 118.07",
        "Line 31220 or line 31240.";
    pub PROVINCIAL = "ca.58315", "Volunteers, province", "Income tax acts of the provinces; form 428",
        "The amount of the province.";
}

open_points! {
    OF_PROVINCE = not_covered "volunteer-province", "Form 428 or 479 of the province";
}

/// Whether someone may choose between the amount and the exempt pay.
pub fn may_choose(facts: &Facts, person: usize) -> bool {
    let who = &facts.people[person];
    who.volunteer.is_some() && who.own.has(&t4::brings::VOLUNTEER)
}

/// The amount, or exempt pay (C-28), by the person's place.
pub static EXEMPT: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| may_choose(facts, p)).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("exempt", "The exempt pay; no amount", ""),
            Opt::new("amount", "The amount; the pay is income", format!("volunteer's amount of {name}")),
        ];
        let id = format!("ca.volunteer.{}", facts.people[person].id);
        let label = format!("What {name} has as a volunteer");
        Decision::between(id, label, "ITA 81(4), 118.06(2), 118.07(2)", options)
    },
);

/// Whose pay is exempt in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    (0..facts.people.len()).filter(|&p| way.taken(&EXEMPT, p) == Some(0)).collect()
}

/// Everyone whose pay may be exempt.
pub fn all_exempt(facts: &Facts) -> Vec<usize> {
    (0..facts.people.len()).filter(|&p| may_choose(facts, p)).collect()
}

/// Whether the amount is claimed here.
fn claims(on: On<'_>) -> Option<Volunteer> {
    on.who().volunteer.filter(|_| !on.plan.volunteers_exempt.contains(&on.person))
}

/// Pay as a volunteer that is income, as the amount is claimed.
pub fn pay(on: On<'_>) -> &[Item] {
    if claims(on).is_some() { on.own().of(&t4::brings::VOLUNTEER) } else { &[] }
}

/// Lines 31220 and 31240.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let Some(kind) = claims(on) else { return Money::ZERO };
    let figures = &on.facts.figures.volunteers;
    let line = if kind == Volunteer::Firefighter { FIREFIGHTER } else { SEARCH };
    let amount = on.made(trail, line, figures.amount, &[], &[("Amount", &figures.amount)]);
    on.add(trail, AMOUNT, &[(line, amount)])
}

/// What the province has; nothing where it has none.
pub fn provincial(on: On<'_>, trail: &mut impl Trail, of_province: Option<Money>) -> Money {
    match of_province.filter(|_| claims(on).is_some()) {
        Some(amount) => on.made(trail, PROVINCIAL, amount, &[], &[("Amount", &amount)]),
        None => Money::ZERO,
    }
}

/// Provinces with an amount that is not held.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let code = facts.province_code.as_deref().unwrap_or_default();
    if !facts.figures.volunteers.not_held.iter().any(|held| held == code) {
        return;
    }
    for &person in facts.returns.iter().filter(|&&p| facts.people[p].volunteer.is_some()) {
        let message =
            format!("What {code} has for {} as a volunteer is not computed yet.", facts.people[person].name);
        points.raise(&OF_PROVINCE, points.at(person, "name"), message);
    }
}
