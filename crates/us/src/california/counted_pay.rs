//! Pay that is no income and may count as earned for the earned income credit of California, apart from what is chosen federally: combat pay by
//! each spouse's choice, payments for care at home (waiver payments) by each recipient's (R&TC 17052; FTB 3514).

use super::made;
use crate::{
    facts::Facts,
    papers::w2,
    unit::{CountedPay, On},
    untaxed_pay,
};
use hembo_core::{
    Trail,
    brought::Brought,
    choice::{Chosen, Open},
    line::LineId,
    lines,
    provision::Provision,
    reading::sum,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub COUNTED = "us.ca.3514.counted", "Pay counted as earned in California", "R&TC 17052; FTB 3514", "Combat pay, and payments for care at home beside wages, of who chooses so.";
}

const CITE: &str = "R&TC 17052; FTB 3514";

fn with(facts: &Facts, kinds: &[&'static Brought]) -> Vec<usize> {
    if facts.of_state.is_some() { untaxed_pay::with(facts, kinds) } else { Vec::new() }
}

/// Combat pay of a filer.
pub static COMBAT: Open<Facts> = Open::new(
    |facts| with(facts, &[&w2::brings::COMBAT]),
    |facts, person| {
        untaxed_pay::decision(facts, person, "ca.combat_pay", ["Combat pay", "in California"], CITE)
    },
);

/// Payments for care at home of a filer, beside wages.
pub static WAIVER: Open<Facts> = Open::new(
    |facts| with(facts, &[&w2::brings::WAIVER]),
    |facts, person| {
        untaxed_pay::decision(facts, person, "ca.waiver_payments", ["Waiver payments", "in California"], CITE)
    },
);

/// What the filers of a return count in a way.
pub fn counted(way: Chosen<'_, '_, Facts>, people: &[usize]) -> CountedPay {
    untaxed_pay::chosen(way, people, [&COMBAT, &WAIVER])
}

/// What counts on a return.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> (LineId, Money) {
    let of = &on.unit.counted_here;
    let combat: Money = of.combat.iter().map(|&p| untaxed_pay::combat_of(on.facts, p)).sum();
    let waiver =
        of.waiver.iter().map(|&p| sum(on.facts.people[p].own.of(&w2::brings::WAIVER))).sum::<Money>();
    let told: &[(&'static str, &dyn ToString)] =
        &[("Combat pay", &combat.to_whole()), ("Waiver payments", &waiver.to_whole())];
    (COUNTED, made(on, trail, COUNTED, (combat + waiver).to_whole(), &[], told))
}
