//! What a family may still do (ITA BC 6, CB 6A, DA 1): for a year that still runs, at the figures of this one, each with the amounts at
//! which something turns.

use crate::{facts::Facts, income, investments, land, trade};
use hembo_core::{
    Household, Outcome, Paper,
    household::Entry,
    lever::{self, Lever, Move, brackets_below},
    limit::percent,
};
use hembo_money::Money;

/// So much of a cost at a time is told.
const OF_COSTS: Money = Money::whole(1000);
const CREDIT_SHRINKS: &str = "until the partner's earner credit shrinks";

/// A filer whose levers are looked for.
struct Of<'a> {
    facts: &'a Facts,
    household: &'a Household,
    outcome: &'a Outcome,
    person: usize,
    place: usize,
}

impl Of<'_> {
    /// Taxable income of a return.
    fn taxable(&self, place: usize) -> Money {
        self.outcome.amount(income::TAXABLE, &format!("return/{place}"))
    }

    fn id(&self) -> &str {
        &self.facts.people[self.person].id
    }

    /// The papers of a kind that are this person's alone.
    fn papers(&self, kind: &'static str) -> impl Iterator<Item = &Paper> {
        let own = |paper: &&Paper| matches!(paper.owners.as_slice(), [owner] if owner.person == self.id());
        self.household.papers.iter().filter(move |paper| paper.kind == kind).filter(own)
    }

    fn lever(&self, what: &str, words: &str, cite: &'static str, moves: Vec<Move>) -> Lever {
        let whose = self.facts.first_name(self.person).to_owned();
        Lever { what: what.into(), whose, words: words.into(), cite, costs: false, moves }
    }
}

/// Every lever of every filer.
pub fn levers(facts: &Facts, household: &Household, outcome: &Outcome) -> Vec<Lever> {
    let of = |(place, &person): (usize, &usize)| {
        let of = Of { facts, household, outcome, person, place };
        let found = [to_the_partner(&of), costs_this_year(&of), sold_later(&of)];
        found.into_iter().flatten()
    };
    facts.filers.iter().enumerate().flat_map(of).collect()
}

/// Interest-bearing money given to the partner: to the ends of both brackets, and all of it.
fn to_the_partner(of: &Of<'_>) -> Option<Lever> {
    let partner = of.facts.partner(of.person)?;
    let place = of.facts.filers.iter().position(|&p| p == partner)?;
    let paper = of.papers(investments::INTEREST.id).max_by_key(|paper| paper.amount("gross"))?;
    let all = paper.amount("gross");
    let (own, other) = (of.taxable(of.place), of.taxable(place));
    if all.is_zero() || other >= own {
        return None;
    }
    let scale = &of.facts.figures.scale;
    let down = brackets_below(own, &scale.tops, &scale.rates);
    let down = down.first().map(|(apart, rate)| (*apart, format!("down to {}", percent(*rate))));
    let top = scale.tops.iter().zip(&scale.rates).find(|(top, _)| **top > other);
    let up = top.map(|(top, rate)| (*top - other, format!("until the partner's {} ends", percent(*rate))));
    let credit = earner_credit_shrinks(of, partner).map(|from| (from - other, CREDIT_SHRINKS.to_owned()));
    let mut ends: Vec<(Money, String)> = [down, up, credit.filter(|(end, _)| *end > Money::ZERO)]
        .into_iter()
        .flatten()
        .filter(|(end, _)| *end < all)
        .collect();
    ends.push((all, "all of the largest account".into()));
    ends.sort();
    ends.dedup_by_key(|(end, _)| *end);
    let moved = |(amount, to): (Money, String)| {
        let less = of.household.with_entry(&paper.id, "gross", Entry::amount(all - amount));
        let gross = [("gross", Entry::amount(amount))];
        let then = lever::with_paper(&less, investments::INTEREST.id, &of.facts.people[partner].id, &gross);
        Move { amount: Some(amount), to: format!("of interest, {to}"), then }
    };
    let words = "The money itself is given, for good: income is not divided without it.";
    let moves = ends.into_iter().map(moved).collect();
    Some(of.lever("Interest-bearing money to the partner", words, "ITA BD 1, CC 4", moves))
}

/// From which net income on a person's independent earner credit shrinks, where there is one.
fn earner_credit_shrinks(of: &Of<'_>, person: usize) -> Option<Money> {
    let phases = &of.facts.figures.earner_credit.phases;
    phases.last().filter(|_| of.facts.people[person].earner_months > 0).map(|phase| phase.from)
}

/// Costs of an own trade before the year ends.
fn costs_this_year(of: &Of<'_>) -> Option<Lever> {
    of.papers(trade::TRADE.id).next()?;
    let scale = &of.facts.figures.scale;
    let end = brackets_below(of.taxable(of.place), &scale.tops, &scale.rates).into_iter().next();
    let mut steps = vec![(OF_COSTS, "of costs".to_owned())];
    steps.extend(end.map(|(apart, rate)| (apart, format!("of costs, down to {}", percent(rate)))));
    steps.sort();
    let with = |(amount, to): (Money, String)| {
        let cost = [("what", Entry::Text("-".into())), ("amount", Entry::amount(amount))];
        Move {
            amount: Some(amount),
            to,
            then: lever::with_line(of.household, trade::TRADE.id, of.id(), &cost),
        }
    };
    let words = "Repairs, interest, fees that belong to this year or the next: what is spent by 31 March counts in it.";
    let moves = steps.into_iter().map(with).collect();
    Some(of.lever("Costs before 31 March", words, "ITA DA 1, EA 3", moves))
}

/// Land that was sold within the time, had it been sold after it.
fn sold_later(of: &Of<'_>) -> Option<Lever> {
    let figures = &of.facts.figures.land;
    let moves: Vec<Move> = of
        .papers(land::SALES.id)
        .flat_map(|paper| paper.rows.iter().map(move |row| (paper, row)))
        .filter_map(|(paper, row)| {
            let day = land::free_from(row, figures)?;
            let mut then = of.household.clone();
            let list = then.papers.iter_mut().find(|other| other.id == paper.id)?;
            list.rows.retain(|other| other.id != row.id);
            let what = row.get("what").and_then(Entry::text).unwrap_or("the land").to_owned();
            Some(Move { amount: None, to: format!("{what}: from {} on", crate::points::in_words(day)), then })
        })
        .collect();
    let words = "The day of the agreement to sell decides; what was bought to be sold stays taxed.";
    (!moves.is_empty()).then(|| of.lever("Land sold after the time", words, "ITA CB 6A", moves))
}
