//! Levers: what a family may still do beside this return, as its law's pack advises, and what each step would be worth. No way holds
//! one: it is of a year that still runs, asks for a real transfer, or lies in what is done and not in what is claimed.

use crate::{
    effect::total,
    household::{Answers, Entry, Household, Paper},
    outcome::Outcome,
    pack::Registry,
    search::Stop,
};
use hembo_money::{Money, Rate};
use serde::Serialize;
use utoipa::ToSchema;

/// Something that may be done, as a pack advises it.
#[derive(Debug, Clone)]
pub struct Lever {
    /// What.
    pub what: String,
    /// By whom: a name.
    pub whose: String,
    /// What limits or binds it, until when.
    pub words: String,
    /// The rule.
    pub cite: &'static str,
    /// It costs tax and may be wanted all the same: it is told with its price.
    pub costs: bool,
    /// How far it may be taken, from the smallest step up.
    pub moves: Vec<Move>,
}

/// One step of a lever.
#[derive(Debug, Clone)]
pub struct Move {
    /// How much, where it is an amount.
    pub amount: Option<Money>,
    /// To what it leads: "to the 31 % bracket".
    pub to: String,
    /// The household as if it had been done in its year.
    pub then: Household,
}

/// A lever with what its steps are worth.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Advice {
    /// What.
    pub what: String,
    /// By whom.
    pub whose: String,
    /// What limits or binds it, until when.
    pub words: String,
    /// The rule.
    pub cite: String,
    /// How far it may be taken.
    pub steps: Vec<Step>,
}

/// A step with what it is worth.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = AdviceStep)]
pub struct Step {
    /// How much, where it is an amount.
    pub amount: Option<Money>,
    /// To what it leads.
    pub to: String,
    /// How the household's lowest tax of the year would change: below zero it saves.
    pub change: Money,
}

/// What may still be done for a household, by the advice of its law's pack: only what saves, or costs and may be wanted all the same.
/// Nothing where it was stopped.
pub fn advice(
    household: &Household,
    outcome: &Outcome,
    registry: &Registry,
    stop: &Stop,
) -> Option<Vec<Advice>> {
    let pack = registry.pack(&household.country)?;
    let mut told = Vec::new();
    for lever in pack.levers(household, outcome) {
        let mut steps = Vec::new();
        for step in &lever.moves {
            let then = total(&step.then, registry, stop)?;
            steps.push(Step { amount: step.amount, to: step.to.clone(), change: then - outcome.total });
        }
        let worth = |step: &Step| step.change.is_negative() || (lever.costs && !step.change.is_zero());
        if steps.iter().any(worth) {
            told.push(Advice {
                what: lever.what,
                whose: lever.whose,
                words: lever.words,
                cite: lever.cite.into(),
                steps,
            });
        }
    }
    Some(told)
}

/// A household with one more paper of a person.
pub fn with_paper(household: &Household, kind: &str, person: &str, boxes: &[(&str, Entry)]) -> Household {
    let paper = Paper { boxes: entries(boxes), ..Paper::new(unused(household), kind, person) };
    with(household, paper)
}

/// A household with one more list of a person, of one line.
pub fn with_line(household: &Household, kind: &str, person: &str, cells: &[(&str, Entry)]) -> Household {
    let mut paper = Paper::new(unused(household), kind, person);
    paper.add_row(None, entries(cells));
    with(household, paper)
}

fn with(household: &Household, paper: Paper) -> Household {
    let mut then = household.clone();
    then.papers.push(paper);
    then
}

fn entries(of: &[(&str, Entry)]) -> Answers {
    of.iter().map(|(field, entry)| ((*field).to_owned(), entry.clone())).collect()
}

/// An id that no paper of the household has.
fn unused(household: &Household) -> String {
    let number = household.papers.iter().filter(|paper| paper.id.starts_with("lever")).count();
    format!("lever{number}")
}

/// The distances down from an amount to the tops of the brackets below it, nearest first, with the rate that ends there.
pub fn brackets_below(amount: Money, tops: &[Money], rates: &[Rate]) -> Vec<(Money, Rate)> {
    let below = tops.iter().zip(rates).rev().filter(|(top, _)| **top < amount);
    below.map(|(top, rate)| (amount - *top, *rate)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn brackets_below_are_told_nearest_first_and_the_top_itself_is_none() {
        let tops = [Money::whole(100), Money::whole(300)];
        let rates = [Rate::percent(10), Rate::percent(20), Rate::percent(30)];
        let told = |amount| {
            let found = brackets_below(Money::whole(amount), &tops, &rates);
            found.into_iter().map(|(apart, rate)| (apart.to_string(), rate)).collect::<Vec<_>>()
        };
        assert_eq!(told(100), []);
        assert_eq!(told(101), [("1.00".to_owned(), Rate::percent(10))]);
        assert_eq!(
            told(350),
            [("50.00".to_owned(), Rate::percent(20)), ("250.00".to_owned(), Rate::percent(10))]
        );
    }
}
