//! Tuition in the provinces (schedule 11 of each): line 58560 of the student, line 58600 of who takes what a child hands on.
//! Some provinces have a credit for the fees of the year, and an amount for the months of studies; others let only what was
//! carried in be used.

use crate::{
    facts::Facts,
    figures::Provincial,
    form_428,
    plan::{Handed, On},
    province,
    rounding::STEEPEST_OF_CREDIT,
    tuition::{self, Lines, Tuition, brings},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    limit, lines,
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, figures: &["tuition"], ..Provision::NONE };

lines! {
    pub FROM_CHILD = "ca.58600", "Tuition from a child, province", "Income tax acts of the provinces; form 428",
        "What a child or grandchild hands on.";
}

/// The lines of what a child hands on.
pub const LINES_OF_CHILD: Lines = Lines { handed_on: form_428::TUITION_HANDED_ON, received: FROM_CHILD };

/// What the province gives a credit for of this year: fees, and an amount for each month of studies.
fn of_year(facts: &Facts, figures: &Provincial, student: usize, fees: Money) -> Money {
    let own = &facts.people[student].own;
    if !figures.fees {
        return Money::ZERO;
    }
    let months = |kind| own.of(kind).iter().sum::<i64>();
    let (full, part) = (months(&brings::FULL_MONTHS), months(&brings::PART_MONTHS));
    fees + figures.full_month * full + figures.part_month * part
}

/// The most that a student could hand on, before own use takes from it.
fn most(facts: &Facts, student: usize) -> Money {
    let fees = sum(facts.people[student].own.of(&brings::FEES));
    let of_year =
        province::figures(facts).map_or(Money::ZERO, |figures| of_year(facts, figures, student, fees));
    settled::lesser(of_year, facts.figures.tuition.transfer_most)
}

/// Line 58560 and what is handed on and kept. `open` is the income that the amounts before tuition leave to cover.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, figures: &Provincial, open: Money) -> Tuition {
    let own = on.own();
    let (carried, of_year) =
        (sum(own.of(&brings::CARRIED_PROVINCIAL)), of_year(on.facts, figures, on.person, tuition::fees(on)));
    if (carried + of_year).is_zero() {
        return Tuition::default();
    }
    let open = limit::or_zero(trail, open);
    let of_carried = limit::lesser(trail, carried, open);
    let of_fees = limit::lesser(trail, of_year, open - of_carried);
    let used = trail.line(form_428::TUITION, on.scope, of_carried + of_fees, |i| {
        i.items(own.of(&brings::CARRIED_PROVINCIAL)).figure("Of this year", of_year);
        i.figure("Income left to cover", open);
    });
    let most = limit::or_zero(trail, most(on.facts, on.person) - of_fees);
    let handed = on.plan.tuition.iter().find(|h| h.student == on.person);
    let handed_on = limit::lesser(trail, handed.map_or(Money::ZERO, |h| h.provincial), most);
    on.made(
        trail,
        form_428::TUITION_HANDED_ON,
        handed_on,
        &[(form_428::TUITION, used)],
        &[("At most", &most)],
    );
    let left = carried + of_year - used - handed_on;
    let made = [(form_428::TUITION, used), (form_428::TUITION_HANDED_ON, handed_on)];
    on.made(
        trail,
        form_428::TUITION_CARRIED,
        left,
        &made,
        &[("Carried in and of this year", &(carried + of_year))],
    );
    Tuition { used, handed_on }
}

/// How much of it a student hands on to whom the federal amount goes.
pub static AMOUNT: Open<Facts> = Open::new(
    |facts| tuition::students(facts).into_iter().filter(|&s| !most(facts, s).is_zero()).collect(),
    |facts, student| {
        let name = facts.first_name(student);
        let amount = Amount {
            most: most(facts, student),
            short: format!("provincial tuition of {name}"),
            more: More::NeverCosts,
            steepest: STEEPEST_OF_CREDIT,
        };
        let id = format!("ca.tuition.{}.province", facts.people[student].id);
        let label = format!("Provincial tuition that {name} hands on");
        Decision::amount(id, label, "Income tax acts of the provinces; schedule 11", amount)
    },
);

/// What a way hands on, federal and provincial.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Handed> {
    let mut handed = tuition::chosen(facts, way);
    for one in &mut handed {
        one.provincial = way.amount(&AMOUNT, one.student).unwrap_or_default();
    }
    handed
}
