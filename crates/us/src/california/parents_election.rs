//! A child's interest and dividends on the parents' return of California (R&TC 17041(g)), FTB 3803: a choice apart from federal Form 8814. Where
//! only one of both is made, or the amounts differ, Schedule CA takes the income off or adds it.

use super::papers::{self, brings};
use crate::{
    bringing,
    facts::Facts,
    papers::w2,
    parents_election::{self, Child},
    unit::{Filed, On},
};
use hembo_core::{
    choice::Open,
    decision::{Decision, Opt},
    forms::Required,
    line::LineId,
    lines,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
    words::first_name,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    figures: &["california_kiddie", "california_child_election"],
    ..Provision::NONE
};

lines! {
    L4 = "us.ca.3803.4", "Income of the child in California", "FTB 3803, line 4", "Interest, dividends and distributions of capital gain, without interest of the United States.";
    L6 = "us.ca.3803.6", "Income of children on the parents' return of California", "R&TC 17041(g); FTB 3803, line 6", "What is above the amount that is spared.";
    pub L9 = "us.ca.3803.9", "Tax of California on children's income that is spared", "R&TC 17041(g); FTB 3803, line 9", "One per cent of what is above a first amount, up to as much again.";
    pub OFF = "us.ca.sca.8z.b", "Children's income taxed federally alone", "FTB 3803; Schedule CA (540), line 8z", "What the federal return has of it above what this one has.";
    pub ONTO = "us.ca.sca.8z.c", "Children's income taxed here alone", "FTB 3803; Schedule CA (540), line 8z", "What this return has of it above what the federal one has.";
}

/// What a child has in California: without interest of the United States.
fn income_here(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    let exempt = [&bringing::brings::TREASURY_INTEREST, &brings::TREASURY];
    let exempt: Money = exempt.into_iter().map(|kind| sum(own.of(kind)).to_whole()).sum();
    Child::of(facts, person).all() - exempt
}

/// Whether a child's income may go on the parents' return: between two amounts, only such income, nothing paid to the state; of a household that
/// lived there all year.
fn may(facts: &Facts, person: usize) -> bool {
    let (Some(of), Some(figures)) = (&facts.of_state, &facts.figures.california_child_election) else {
        return false;
    };
    let own = &facts.people[person].own;
    let other = [&brings::ADDED, &brings::SUBTRACTED, &brings::SAVINGS_EARNINGS, &brings::ALIMONY_RECEIVED];
    let income = income_here(facts, person);
    !of.part_year
        && parents_election::has_only_such_income(facts, person)
        && !other.into_iter().any(|kind| own.has(kind))
        && !own.has(&w2::brings::HEALTH_SAVINGS)
        && !papers::is_paid(own)
        && income > figures.above
        && income < figures.below
}

/// Where a child's income goes in California.
pub static ELECTION: Open<Facts> = Open::new(
    |facts: &Facts| facts.own_returns.iter().copied().filter(|&p| may(facts, p)).collect(),
    |facts, person| {
        let about = &facts.people[person];
        let short = format!("{} with the parents in California", first_name(&about.name));
        let options = vec![
            Opt::new("own", "A return of its own, where one is due", ""),
            Opt::new("parents", "On the parents' return, FTB 3803", short),
        ];
        Decision::between(
            format!("us.ca.child_income.{}", about.id),
            format!("Income of {} in California", about.name),
            "R&TC 17041(g); FTB 3803",
            options,
        )
    },
)
.bars(
    |facts, person, option, way| if option == 0 { None } else { parents_election::bar(facts, person, way) },
);

/// What children bring to the parents' return of the state.
#[derive(Debug, Clone, Copy, Default)]
pub struct Elected {
    /// What the federal return has above what this one has, child by child.
    pub off: Money,
    /// What this return has above what the federal one has.
    pub onto: Money,
    /// The tax on what is spared.
    pub tax: Money,
}

/// FTB 3803 of every child, and what differs from Form 8814.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Elected {
    let unit = on.unit;
    let mut all = Elected::default();
    let (Some(limit), Some(figures)) =
        (&on.facts.figures.california_kiddie, &on.facts.figures.california_child_election)
    else {
        return all;
    };
    let part_year = on.facts.of_state.as_ref().is_some_and(|of| of.part_year);
    if part_year || unit.elected.is_empty() && unit.elected_here.is_empty() {
        return all;
    }
    let mut here = Money::ZERO;
    let federal_alone = unit.elected.iter().filter(|person| !unit.elected_here.contains(person));
    for &person in unit.elected_here.iter().chain(federal_alone) {
        let is_here = unit.elected_here.contains(&person);
        let income = if is_here { told(on, trail, person) } else { Money::ZERO };
        let above = settled::or_zero(income - limit.unearned_above);
        let is_federal = unit.elected.contains(&person);
        let federal = if is_federal { Child::of(on.facts, person).above(on.facts) } else { Money::ZERO };
        here += above;
        all.off += settled::or_zero(federal - above);
        all.onto += settled::or_zero(above - federal);
        let spared = settled::lesser(settled::or_zero(income - figures.above), figures.taxed);
        all.tax += spared.times(figures.rate, Money::WHOLE, Rounding::HalfUp);
    }
    for (id, amount) in [(L6, here), (L9, all.tax), (OFF, all.off), (ONTO, all.onto)] {
        line(on, trail, id, amount);
    }
    all
}

/// Line 4 of a child.
fn told(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let income = income_here(on.facts, person);
    trail.line(L4, Scope::Person(person), income, |i| {
        parents_election::tell(on.facts, person, i);
        i.figure("Interest of the United States", Child::of(on.facts, person).all() - income);
    })
}

fn line(on: On<'_>, trail: &mut impl Trail, id: LineId, amount: Money) {
    trail.line(id, on.scope, amount, |i| {
        for &person in &on.unit.elected_here {
            i.line(L4, Scope::Person(person), income_here(on.facts, person));
        }
        for &person in &on.unit.elected {
            i.line(parents_election::ALL_OF, Scope::Person(person), Child::of(on.facts, person).all());
        }
    });
}

/// FTB 3803: with a child's income.
pub fn form_3803(filed: Filed<'_>) -> Required {
    super::forms::here(filed, !filed.on.unit.elected_here.is_empty(), "no child's income on this return")
}
