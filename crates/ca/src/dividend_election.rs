//! The election by which one partner reports the dividends of the other (ITA 82(3)): where it is lawful.

use crate::{caregivers, dividends, facts::Facts, net_income, plan::Election};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
};

/// Which of the partners reports the dividends of both: not at all, the first, the second.
pub static REPORTED_BY: Open<Facts> = Open::new(of_couples, |facts, _| {
    let option = |to: usize, from: usize| {
        let label = format!("{} reports those of {}", facts.first_name(to), facts.first_name(from));
        Opt::new(facts.people[to].id.as_str(), label, format!("dividends with {}", facts.first_name(to)))
    };
    let (first, second) = (facts.filers[0], facts.filers[1]);
    let options = vec![Opt::new("own", "Each their own", ""), option(first, second), option(second, first)];
    Decision::between("ca.dividends", "Dividends of the partner", "ITA 82(3)", options)
})
.bars(|facts, _, option, _| dividends::election(facts, option).and_then(|election| bar(facts, election)));

fn of_couples(facts: &Facts) -> Vec<usize> {
    let any = facts.couple && facts.filers.iter().any(|&f| !dividends::of_papers(facts, f).is_zero());
    if any { vec![0] } else { Vec::new() }
}

/// Why an election cannot be made: it must raise the amount for a partner (82(3)(b)).
fn bar(facts: &Facts, election: Election) -> Option<Bar> {
    if dividends::of_papers(facts, election.from).is_zero() {
        return Some(Bar::Borrowed("no dividends of the partner"));
    }
    let without = net_income::range(facts, election.from, Some(election)).0;
    let base = facts.figures.basic.most + caregivers::addition(facts, election.from);
    (without >= base).then_some(Bar::Borrowed("it would not raise the amount for a partner"))
}

/// Whether some amounts make an election lawful.
pub fn possible(facts: &Facts) -> bool {
    let elections = (1..3).filter_map(|option| dividends::election(facts, option));
    elections.into_iter().any(|election| bar(facts, election).is_none())
}

/// The election of a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<Election> {
    dividends::election(facts, way.taken(&REPORTED_BY, 0)?)
}
