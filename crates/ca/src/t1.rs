//! The returns of a household in the settled order: first everyone's income, then what each return's own amounts
//! leave, then what moves between the returns, then tax. Nothing of a later step enters an earlier one, so that no
//! return has to be computed twice.

use crate::{
    disability,
    facts::Facts,
    family_benefits, federal,
    figures::Provincial,
    foreign_property,
    gifts::{self, Claim},
    income::{self, Income},
    minimum_tax::{self, Ordinary},
    payments::{self, Payable},
    personal::{self, Personal},
    plan::{Election, On, Plan},
    province, provincial, provincial_credits,
    provincial_law::Shared,
    transfers::Offer,
    tuition::{self, Tuition},
    workers_benefit,
};
use hembo_core::{
    reading::sum,
    trail::{Scope, Trail},
};
use hembo_money::Money;

/// A return before anything is transferred.
#[derive(Debug, Clone)]
struct Alone {
    tax: Money,
    personal: Personal,
    to_cover: Money,
    provincial: provincial::Own,
}

/// All returns of a household in a way; nothing where its amounts make it unlawful, as an election of dividends that
/// would not raise the amount for a partner is.
pub fn reckon(facts: &Facts, plan: &Plan, trail: &mut impl Trail) -> Option<Money> {
    let lawful = |election: Election, trail: &mut _| {
        let on = On { facts, plan, person: election.to, scope: Scope::Person(election.to) };
        personal::raises_partner_amount(on, trail, election)
    };
    let tested = facts.province.is_some() && plan.world.is_none();
    let unlawful = tested && plan.dividends.is_some_and(|e| !lawful(e, trail));
    (!unlawful).then(|| returns(facts, plan, trail))
}

/// All returns of a household; the result is what they come to together. Where the province is not computed, the
/// returns stop at taxable income: half a tax would be taken for a whole one.
fn returns(facts: &Facts, plan: &Plan, trail: &mut impl Trail) -> Money {
    let people = &facts.returns;
    let on = |person: usize| On { facts, plan, person, scope: Scope::Person(person) }.of(person);
    let mut incomes: Vec<Income> = facts.people.iter().map(income::told).collect();
    for &person in people {
        incomes[person] = income::reckon(on(person), trail);
        foreign_property::reckon(on(person), trail);
    }
    let Some(figures) = province::figures(facts) else { return Money::ZERO };
    let mut tuition = vec![Tuition::default(); facts.people.len()];
    let mut alone: Vec<Option<Alone>> = vec![None; facts.people.len()];
    for &person in people {
        alone[person] = Some(before_transfers(on(person), trail, &incomes, &mut tuition, figures));
    }
    let of_province =
        |alone: &Option<Alone>| alone.as_ref().map(|a| a.provincial.tuition).unwrap_or_default();
    let provincial_tuition: Vec<Tuition> = alone.iter().map(of_province).collect();
    let mut left = sum(&facts.gifts);
    let mut shared: Shared = None;
    let mut total = Money::ZERO;
    for &person in people {
        let Some(own) = &alone[person] else { continue };
        let partner = facts.partner(person).and_then(|p| Some((p, alone[p].as_ref()?)));
        let Claim { claimed, left: remaining } = gifts::claimed(on(person), trail, left, incomes[person].net);
        left = remaining;
        let handed = |p: usize, of: Tuition| if handed_to(plan, p) == Some(person) { of } else { kept(of) };
        let offer = |(p, a): (usize, &Alone)| Offer {
            personal: a.personal,
            tuition: handed(p, tuition[p]),
            to_cover: a.to_cover,
        };
        let provincial_offer = |(p, a): (usize, &Alone)| Offer {
            personal: a.provincial.personal,
            tuition: handed(p, a.provincial.tuition),
            to_cover: a.provincial.to_cover,
        };
        let federal = federal::reckon(
            on(person),
            trail,
            federal::Credits {
                incomes: &incomes,
                personal: own.personal,
                tuition: &tuition,
                offer: partner.map(offer),
                gifts: claimed,
                tax: own.tax,
            },
        );
        let ordinary = Ordinary {
            credits: federal.credits,
            gifts: federal.gifts,
            tax: federal.tax,
            foreign: federal.tax - federal.after_foreign,
            of_earlier: federal.of_earlier,
        };
        let minimum = minimum_tax::reckon(on(person), trail, &incomes[person], ordinary);
        // What a family has once is the filers'; a dependant's return has its own.
        let mut own_share: Shared = None;
        let provincial = provincial::reckon(
            on(person),
            trail,
            figures,
            &provincial::Credits {
                incomes: &incomes,
                own: &own.provincial,
                offer: partner.map(provincial_offer),
                tuition: &provincial_tuition,
                gifts: claimed,
                interest: federal.interest,
                foreign: &federal.foreign,
                minimum,
                of_earlier: federal.of_earlier,
            },
            if facts.people[person].filer { &mut shared } else { &mut own_share },
        );
        let benefit = workers_benefit::reckon(on(person), trail, &incomes);
        let paid_out = provincial_credits::paid_out(on(person), trail, &incomes);
        let payable = Payable {
            federal: federal.after_foreign,
            minimum,
            provincial,
            supplement: federal.supplement,
            benefit,
            paid_out,
        };
        let counted =
            if person == people[0] { family_benefits::counted(facts, trail, &incomes) } else { Money::ZERO };
        total += payments::reckon(on(person), trail, &incomes[person], payable, counted);
    }
    gifts::carried(on(people[0]), trail, left);
    total
}

fn before_transfers(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &[Income],
    tuition: &mut [Tuition],
    figures: &Provincial,
) -> Alone {
    let taxable = incomes[on.person].taxable;
    let tax = federal::tax(on, trail, taxable);
    let mut personal = personal::federal(on, trail, incomes);
    personal.disability = disability::own(on, trail);
    personal.disability_transferred = disability::transferred(on, trail, incomes);
    let to_cover = federal::to_cover(on, trail, taxable);
    tuition[on.person] = tuition::reckon(on, trail, to_cover - personal.sum());
    let provincial = provincial::own(on, trail, incomes, figures, personal);
    Alone { tax, personal, to_cover, provincial }
}

/// To whom a student hands tuition on.
fn handed_to(plan: &Plan, student: usize) -> Option<usize> {
    plan.tuition.iter().find(|h| h.student == student).map(|h| h.receiver)
}

/// Tuition of which nothing is handed on here.
fn kept(tuition: Tuition) -> Tuition {
    Tuition { handed_on: Money::ZERO, ..tuition }
}
