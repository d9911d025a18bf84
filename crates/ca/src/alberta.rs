//! Alberta (Alberta Personal Income Tax Act; AB428).

use crate::{
    facts::Facts,
    figures::{Figures, Provincial},
    form_428, income,
    personal::{self, Incomes},
    plan::{Caring, FormRule, On},
    provincial_law::ProvincialLaw,
    rounding::share,
    transfers, tuition,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    forms::Required,
    limit::{self, PhaseOut},
    limits,
    line::LineId,
    lines,
    provision::Provision,
    trail::Trail,
};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["alberta", "alberta_supplement", "alberta_caregiver"],
    ..Provision::NONE
};

lines! {
    TOP_UP = "ca.alberta.supplement", "Supplemental credit", "Alberta Personal Income Tax Act",
        "Amounts above the first bracket keep the rate of the years before.";
}

limits! {
    CAREGIVER = "ca.limit.caregiver" on form_428::CAREGIVER, "Caregiver, province", "shrinks with the relative's net income",
        "Alberta Personal Income Tax Act; AB428";
}

/// The law of Alberta.
#[derive(Debug)]
pub struct Alberta;

impl ProvincialLaw for Alberta {
    const CODE: &'static str = "AB";
    const FORMS: &'static [(&'static str, FormRule)] = &[
        ("ab428", |_| Required::Yes),
        ("ab-s2", transfers::provincial_schedule_2),
        ("ab-s11", tuition::provincial_schedule_11),
    ];

    fn figures(figures: &Figures) -> &Provincial {
        &figures.alberta
    }

    fn caregiver(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, dependant: Money) -> Money {
        caregiver(on, trail, incomes, dependant)
    }

    fn caring(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Caring> {
        chosen(facts, way)
    }

    fn counts_keepers(facts: &Facts) -> bool {
        relatives(facts).next().is_some()
    }

    fn further_credit(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Option<(LineId, Money)> {
        Some((TOP_UP, supplement(on, trail, amounts)))
    }

    fn tax(on: On<'_>, trail: &mut impl Trail, _: &Incomes, basic: Money, dividends: Money) -> Money {
        reckon(on, trail, basic, dividends)
    }
}

/// The supplemental credit: amounts above the first bracket keep the credit rate of the years before.
fn supplement(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Money {
    let figures = &on.facts.figures.alberta_supplement;
    let above = limit::or_zero(trail, amounts - figures.above);
    let credit = share(trail, above, figures.rate);
    on.made(
        trail,
        TOP_UP,
        credit,
        &[(form_428::AMOUNTS, amounts)],
        &[("Above", &figures.above), ("Rate", &figures.rate)],
    )
}

/// Line 42800 from basic Alberta tax.
fn reckon(on: On<'_>, trail: &mut impl Trail, basic: Money, dividends: Money) -> Money {
    let tax = limit::or_zero(trail, basic - dividends);
    on.made(
        trail,
        form_428::PROVINCIAL_TAX,
        tax,
        &[(form_428::BASIC_TAX, basic), (form_428::DIVIDENDS, dividends)],
        &[],
    )
}

/// Parents and grandparents of 65 or over who live along and are not infirm, for whom line 58400 is claimed.
fn relatives(facts: &Facts) -> impl Iterator<Item = usize> + '_ {
    let age = facts.figures.alberta_caregiver.age;
    (0..facts.people.len()).filter(move |&p| {
        let who = &facts.people[p];
        !who.filer && who.elder && !who.infirm && who.lives_here && facts.reached(p, age)
    })
}

/// Line 58400: an amount for each, less the relative's net income above a threshold, and less what is claimed for the
/// same person as an eligible dependant (line 58160).
fn caregiver(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, dependant: Money) -> Money {
    let figures = &on.facts.figures.alberta_caregiver;
    let eligible = personal::eligible_dependant(on, incomes);
    let rule = PhaseOut::continuous(figures.above, Rate::ONE, Money::CENT);
    let mut total = Money::ZERO;
    let cared: Vec<usize> =
        on.plan.caregivers.iter().filter(|c| c.claimant == on.person).map(|c| c.relative).collect();
    for &relative in &cared {
        let net = incomes[relative].net;
        let full = limit::phase_out(trail, CAREGIVER.at(on.scope), figures.most, net, rule);
        let claimed = if eligible == Some(relative) { dependant } else { Money::ZERO };
        total += limit::or_zero(trail, full - claimed);
    }
    trail.line(form_428::CAREGIVER, on.scope, total, |i| {
        for &relative in cared.iter().filter(|&r| on.facts.returns.contains(r)) {
            i.line(income::NET, on.of(relative).scope, incomes[relative].net);
        }
        if !cared.is_empty() {
            i.figure("Each, at most", figures.most).figure("Shrinks from", figures.above);
        }
    })
}

/// Of a couple who both keep the home, one claims the amount for a relative who lives along, by the relative's place:
/// options by place among those who keep it.
pub static CLAIMED_BY: Open<Facts> = Open::new(
    |facts| if keepers(facts).len() < 2 { Vec::new() } else { cared_for(facts).collect() },
    |facts, relative| {
        let option = |&f: &usize| {
            let person = &facts.people[f];
            let short = format!("{} with {}", facts.first_name(relative), facts.first_name(f));
            Opt::new(person.id.as_str(), person.name.as_str(), short)
        };
        let options = keepers(facts).iter().map(option).collect();
        let id = format!("ca.caregiver.{}", facts.people[relative].id);
        let label = format!("Who claims the caregiver amount for {}", facts.first_name(relative));
        Decision::between(id, label, "Alberta Personal Income Tax Act; AB428, line 58400", options)
    },
);

fn cared_for(facts: &Facts) -> impl Iterator<Item = usize> + '_ {
    relatives(facts).filter(|_| facts.province == Some(Alberta::CODE))
}

/// The filers who keep the home of a dependant.
fn keepers(facts: &Facts) -> Vec<usize> {
    facts.filers.iter().copied().filter(|&f| facts.people[f].maintains_home).collect()
}

/// Who claims the amount for each relative in a way.
fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Caring> {
    let keepers = keepers(facts);
    let claimant = |relative| keepers.get(way.taken(&CLAIMED_BY, relative).unwrap_or(0)).copied();
    cared_for(facts).filter_map(|r| Some(Caring { relative: r, claimant: claimant(r)? })).collect()
}
