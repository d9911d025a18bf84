//! Pay that is no income and may count as earned: combat pay (§112), by each spouse's choice for the earned income credit and always
//! for the child credit; Medicaid waiver payments (Notice 2014-7), by each recipient's choice for all credits.

use crate::{
    facts::Facts,
    papers::w2,
    unit::{CountedPay, On},
};
use hembo_core::{
    brought::Brought,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    line::LineId,
    lines,
    provision::Provision,
    reading::sum,
    trail::{Inputs, Trail},
    words::{first_name, small},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub L1D = "us.1d", "Medicaid waiver payments counted as earned", "Notice 2014-7; IRC §§24(d), 32(c)(2)",
        "Box 12 code II of who chooses so; line 8s of Schedule 1 takes it off again.";
    pub L1I = "us.1i", "Combat pay counted as earned", "IRC §32(c)(2)(B)(vi)",
        "Box 12 code Q of who chooses so: all of it or none.";
    pub L8S = "us.sched_1.8s", "Medicaid waiver payments left out", "Notice 2014-7; IRC §131",
        "What of box 1 or of line 1d is such pay, taken off.";
    pub L18B = "us.8812.18b", "Combat pay", "IRC §24(d)(1)",
        "Box 12 code Q of every Form W-2, for the child credit.";
}

/// Combat pay of a filer in the earned income credit.
pub static COMBAT: Open<Facts> = Open::new(
    |facts| with(facts, &[&w2::brings::COMBAT]),
    |facts, person| decision(facts, person, "combat_pay", ["Combat pay", ""], "IRC §32(c)(2)(B)(vi)"),
);

/// Medicaid waiver payments of a filer as earned income.
pub static WAIVER: Open<Facts> = Open::new(
    |facts| with(facts, &[&w2::brings::WAIVER, &w2::brings::WAIVER_IN_WAGES]),
    |facts, person| decision(facts, person, "waiver_payments", ["Waiver payments", ""], "Notice 2014-7"),
);

/// The filers who have pay of a kind.
pub fn with(facts: &Facts, kinds: &[&'static Brought]) -> Vec<usize> {
    let has = |&p: &usize| kinds.iter().any(|kind| facts.people[p].own.has(kind));
    facts.filers.iter().copied().filter(has).collect()
}

/// Whether what a person has counts as earned, in words with where it does.
pub fn decision(
    facts: &Facts,
    person: usize,
    id: &str,
    [what, place]: [&str; 2],
    cite: &'static str,
) -> Decision {
    let about = &facts.people[person];
    let words = |text: String| format!("{text} {place}").trim_end().to_owned();
    let counted = words(format!("{} of {} counted", small(what), first_name(&about.name)));
    let options =
        vec![Opt::new("out", "Left out of earned income", ""), Opt::new("in", "Counted as earned", counted)];
    let label = words(format!("{what} of {}", about.name));
    Decision::between(format!("us.{id}.{}", about.id), label, cite, options)
}

/// What the filers of a return count as earned in a way.
pub fn counted(way: Chosen<'_, '_, Facts>, people: &[usize]) -> CountedPay {
    chosen(way, people, [&COMBAT, &WAIVER])
}

/// The same by two choices, of combat pay and of waiver payments.
pub fn chosen(
    way: Chosen<'_, '_, Facts>,
    people: &[usize],
    [combat, waiver]: [&'static Open<Facts>; 2],
) -> CountedPay {
    let of = |choice| people.iter().copied().filter(|&p| way.taken(choice, p) == Some(1)).collect();
    CountedPay { combat: of(combat), waiver: of(waiver) }
}

/// Of a person what is no income and counts as earned for every credit.
pub fn waiver_counted(on: On<'_>, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    match on.unit.counted_pay.waiver.contains(&person) {
        true => sum(own.of(&w2::brings::WAIVER)) + sum(own.of(&w2::brings::WAIVER_IN_WAGES)),
        false => Money::ZERO,
    }
}

/// Combat pay of a person, which counts for the child and the care credit.
pub fn combat_of(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&w2::brings::COMBAT))
}

/// Line 1d.
pub fn on_wages(on: On<'_>, trail: &mut impl Trail) -> Money {
    of_who(on, trail, L1D, &on.unit.counted_pay.waiver, &w2::brings::WAIVER)
}

/// Schedule 1 line 8s, below zero.
pub fn left_out(on: On<'_>, trail: &mut impl Trail, on_wages: Money) -> Money {
    let in_wages = sum(on.items(&w2::brings::WAIVER_IN_WAGES)).to_whole();
    trail.line(L8S, on.scope, -(in_wages + on_wages), |i| {
        i.items(on.items(&w2::brings::WAIVER_IN_WAGES)).line(L1D, on.scope, on_wages);
    })
}

/// Line 1i.
pub fn combat_chosen(on: On<'_>, trail: &mut impl Trail) -> Money {
    of_who(on, trail, L1I, &on.unit.counted_pay.combat, &w2::brings::COMBAT)
}

/// Schedule 8812, line 18b.
pub fn combat(on: On<'_>, trail: &mut impl Trail) -> Money {
    of_who(on, trail, L18B, &on.unit.people, &w2::brings::COMBAT)
}

fn of_who(on: On<'_>, trail: &mut impl Trail, line: LineId, who: &[usize], kind: &'static Brought) -> Money {
    let items = || who.iter().flat_map(|&p| on.facts.people[p].own.of(kind));
    trail.line(line, on.scope, sum(items()).to_whole(), |i: &mut Inputs| {
        i.items(items());
    })
}
