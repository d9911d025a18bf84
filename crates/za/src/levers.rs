//! What a family may still do (s11F, s12T, s10(1)(i), s10(1)(o)(ii), Second and Sixth Schedules): of the year that runs, at the figures of
//! this one, each with the amounts at which something turns.

use crate::{certificates, facts::Facts, income, investments, lump_sums, retirement, tax_free, trade};
use hembo_core::{
    Household, Outcome, Paper,
    household::Entry,
    lever::{self, Lever, Move, brackets_below},
    limit::percent,
    reading::sum,
    settled,
};
use hembo_money::Money;

/// So much interest at a time is told of a tax-free account.
const OF_INTEREST: Money = Money::whole(1000);
/// So many days before the days abroad count, they are told.
const DAYS_NEAR: i64 = 30;

/// A filer whose levers are looked for.
struct Of<'a> {
    facts: &'a Facts,
    household: &'a Household,
    outcome: &'a Outcome,
    person: usize,
    scope: String,
}

impl Of<'_> {
    fn amount(&self, line: &str) -> Money {
        self.outcome.amount(line, &self.scope)
    }

    fn id(&self) -> &str {
        &self.facts.people[self.person].id
    }

    /// The papers of a kind that are this person's alone.
    fn papers(&self, kind: &'static str) -> impl Iterator<Item = &Paper> {
        let own = |paper: &&Paper| matches!(paper.owners.as_slice(), [owner] if owner.person == self.id());
        self.household.papers.iter().filter(move |paper| paper.kind == kind).filter(own)
    }

    fn with(&self, kind: &str, boxes: &[(&str, Entry)]) -> Household {
        lever::with_paper(self.household, kind, self.id(), boxes)
    }

    fn lever(&self, what: &str, words: impl Into<String>, cite: &'static str, moves: Vec<Move>) -> Lever {
        let whose = self.facts.first_name(self.person).to_owned();
        Lever { what: what.into(), whose, words: words.into(), cite, costs: false, moves }
    }
}

fn step(amount: Money, to: impl Into<String>, then: Household) -> Move {
    Move { amount: Some(amount), to: to.into(), then }
}

/// Every lever of every filer.
pub fn levers(facts: &Facts, household: &Household, outcome: &Outcome) -> Vec<Lever> {
    let of = |(place, &person): (usize, &usize)| {
        let of = Of { facts, household, outcome, person, scope: format!("return/{place}") };
        let found = [
            contributions(&of),
            tax_free_account(&of),
            to_the_spouse(&of),
            by_turnover(&of),
            days_abroad(&of),
            cash_on_retirement(&of),
            savings_withdrawal(&of),
        ];
        found.into_iter().flatten()
    };
    facts.filers.iter().enumerate().flat_map(of).collect()
}

/// More into an annuity, to the brackets below and to the most that is deducted.
fn contributions(of: &Of<'_>) -> Option<Lever> {
    let room = of.amount(retirement::MOST) - of.amount(retirement::CONTRIBUTIONS);
    if room <= Money::ZERO {
        return None;
    }
    let scale = &of.facts.figures.scale;
    let within = brackets_below(of.amount(income::TAXABLE), &scale.tops, &scale.rates);
    let with = |amount: Money| of.with(retirement::ANNUITY.id, &[("paid", Entry::amount(amount))]);
    let to_bracket = |(apart, rate): (Money, hembo_money::Rate)| {
        step(apart, format!("to where {} is the rate", percent(rate)), with(apart))
    };
    let mut moves: Vec<Move> =
        within.into_iter().filter(|(apart, _)| *apart < room).map(to_bracket).collect();
    moves.push(step(room, "to the most that is deducted", with(room)));
    let words = "Paid before the last day of February; bound until retirement.";
    Some(of.lever("More into a retirement annuity", words, "s11F", moves))
}

/// Interest that is taxed, earned in a tax-free account instead.
fn tax_free_account(of: &Of<'_>) -> Option<Lever> {
    let figures = &of.facts.figures.tax_free;
    let own = &of.facts.people[of.person].own;
    let (paid, before) = (sum(own.of(&tax_free::brings::PAID)), sum(own.of(&tax_free::brings::BEFORE)));
    let room = settled::lesser(figures.year_most - paid, figures.life_most - before - paid);
    let taxed = of.amount(investments::INTEREST) - of.amount(investments::INTEREST_EXEMPT);
    let amount = settled::lesser(OF_INTEREST, taxed);
    if room <= Money::ZERO || amount <= Money::ZERO {
        return None;
    }
    let paper = of.papers(investments::CERTIFICATE.id).find(|paper| paper.amount("interest") >= amount)?;
    let less = Entry::amount(paper.amount("interest") - amount);
    let then = of.household.with_entry(&paper.id, "interest", less);
    let words = format!(
        "{room:#} may still be paid in, within {:#} a year and {:#} in all; what is in it is for good.",
        figures.year_most, figures.life_most
    );
    let moves = vec![step(amount, "of interest earned there instead", then)];
    Some(of.lever("A tax-free account", words, "s12T", moves))
}

/// Interest-bearing money given to the spouse, out of community: to the other's exemption, and all of it.
fn to_the_spouse(of: &Of<'_>) -> Option<Lever> {
    let partner = of.facts.partner(of.person).filter(|_| !of.facts.in_community)?;
    let place = of.facts.filers.iter().position(|&p| p == partner)?;
    let other = |line: &str| of.outcome.amount(line, &format!("return/{place}"));
    let figures = &of.facts.figures.interest;
    let most = if of.facts.reached(partner, figures.age) { figures.exempt_aged } else { figures.exempt };
    let room = most - other(investments::INTEREST);
    let taxed = of.amount(investments::INTEREST) - of.amount(investments::INTEREST_EXEMPT);
    let paper = of.papers(investments::CERTIFICATE.id).max_by_key(|paper| paper.amount("interest"))?;
    let all = paper.amount("interest");
    let moved = |amount: Money| {
        let less = of.household.with_entry(&paper.id, "interest", Entry::amount(all - amount));
        let interest = [("interest", Entry::amount(amount))];
        lever::with_paper(&less, investments::CERTIFICATE.id, &of.facts.people[partner].id, &interest)
    };
    let mut moves = Vec::new();
    let free = settled::lesser(settled::lesser(room, taxed), all);
    if free > Money::ZERO {
        moves.push(step(free, "of interest, within the spouse's exemption", moved(free)));
    }
    let excess = settled::lesser(taxed, all);
    if excess > free {
        moves.push(step(excess, "of interest, all that is taxed", moved(excess)));
    }
    let words = "A gift of the money itself, for good: where its purpose is avoidance the income comes back.";
    (!moves.is_empty())
        .then(|| of.lever("Interest-bearing money to the spouse", words, "s10(1)(i), s7(2)", moves))
}

/// Turnover tax for the person's trades.
fn by_turnover(of: &Of<'_>) -> Option<Lever> {
    let trades: Vec<&Paper> = of.papers(trade::TRADE.id).filter(|paper| !trade::is_elected(paper)).collect();
    let shared = trades.iter().any(|paper| paper.boxes.contains_key("share"));
    let turnover: Money = trades.iter().map(|paper| paper.amount("turnover")).sum();
    if trades.is_empty() || shared || turnover > of.facts.figures.turnover_tax.most {
        return None;
    }
    let elect =
        |then: Household, paper: &&Paper| then.with_entry(&paper.id, "turnover_tax", Entry::Flag(true));
    let then = trades.iter().fold(of.household.clone(), elect);
    let words = "Registered before the year begins, open to who earns at most a fifth of it by professional services; who leaves may not come back.";
    let moves = vec![Move { amount: None, to: "for every trade".into(), then }];
    Some(of.lever("Turnover tax", words, "s48B; Sixth Schedule", moves))
}

/// Days outside, where the exemption of pay for work abroad is near.
fn days_abroad(of: &Of<'_>) -> Option<Lever> {
    let figures = &of.facts.figures.foreign_pay;
    let count = |paper: &Paper, field: &str| paper.boxes.get(field).and_then(Entry::count);
    let missing = |paper: &Paper| {
        let apart = |field: &str, above: i64| Some(settled::greater(above + 1 - count(paper, field)?, 0));
        Some((apart("days", figures.days_above)?, apart("run", figures.run_above)?))
    };
    let near = |paper: &&Paper| {
        missing(paper).is_some_and(|(days, run)| days + run > 0 && days <= DAYS_NEAR && run <= DAYS_NEAR)
    };
    let paper = of.papers(crate::foreign_pay::WORK.id).find(near)?;
    let (days, run) = missing(paper)?;
    let enough = |then: Household, (field, above): (&str, i64)| {
        let reached = settled::greater(count(paper, field).unwrap_or(0), above + 1);
        then.with_entry(&paper.id, field, Entry::Count(reached))
    };
    let both = [("days", figures.days_above), ("run", figures.run_above)];
    let then = both.into_iter().fold(of.household.clone(), enough);
    let to = match (days, run) {
        (days, 0) => format!("{days} more days outside"),
        (0, run) => format!("a run {run} days longer"),
        (days, run) => format!("{days} more days outside, a run {run} days longer"),
    };
    let words = "Full days outside in any twelve months; one day decides about all of the exemption.";
    Some(of.lever("More days abroad", words, "s10(1)(o)(ii)", vec![Move { amount: None, to, then }]))
}

/// Whether the person is in a retirement fund, as far as the papers tell.
fn in_a_fund(of: &Of<'_>) -> bool {
    let own = &of.facts.people[of.person].own;
    own.has(&certificates::brings::RETIREMENT) || own.has(&retirement::brings::ANNUITIES)
}

/// The cash part of a fund on retirement, to the ends of the table.
fn cash_on_retirement(of: &Of<'_>) -> Option<Lever> {
    let own = &of.facts.people[of.person].own;
    let taken = own.has(&lump_sums::brings::RETIREMENT);
    let figures = &of.facts.figures.lump_sums;
    let open = of.facts.reached(of.person, figures.retirement_age) && (in_a_fund(of) || taken);
    if !open || own.has(&lump_sums::brings::WITHDRAWAL) {
        return None;
    }
    let before = sum(own.of(&lump_sums::brings::EARLIER)) + sum(own.of(&lump_sums::brings::RETIREMENT));
    let ends =
        figures.retirement_tops.iter().zip(&figures.retirement_rates).filter(|(top, _)| **top > before);
    let cash = |(top, rate): (&Money, &hembo_money::Rate)| {
        let boxes = [
            ("kind", Entry::Text("retirement".into())),
            ("amount", Entry::amount(*top - before)),
            ("earlier", Entry::amount(Money::ZERO)),
            ("directive", Entry::Text("-".into())),
        ];
        step(
            *top - before,
            format!("to where {} ends", percent(*rate)),
            of.with(lump_sums::DIRECTIVE.id, &boxes),
        )
    };
    let moves = ends.map(cash).collect();
    let words = "At most a third of the vested part and the savings part; the rest buys an annuity.";
    Some(Lever {
        costs: true,
        ..of.lever("Cash on retirement", words, "Second Schedule para 2(1)(a)", moves)
    })
}

/// What the savings part costs, taken out before retirement.
fn savings_withdrawal(of: &Of<'_>) -> Option<Lever> {
    let taken =
        of.papers(certificates::CERTIFICATE.id).any(|paper| !certificates::of_code(paper, SAVINGS).is_zero());
    let least = of.facts.figures.lump_sums.savings_least.filter(|_| in_a_fund(of) && !taken)?;
    let with = |amount: Money| {
        let cells = [("code", Entry::Text(SAVINGS.into())), ("amount", Entry::amount(amount))];
        lever::with_line(of.household, certificates::CERTIFICATE.id, of.id(), &cells)
    };
    let mut moves = vec![step(least, "the least", with(least))];
    let taxable = of.amount(income::TAXABLE);
    let scale = &of.facts.figures.scale;
    let next = scale.tops.iter().zip(&scale.rates).find(|(top, _)| **top - taxable > least);
    moves.extend(next.map(|(top, rate)| {
        let amount = *top - taxable;
        step(amount, format!("to where {} ends", percent(*rate)), with(amount))
    }));
    let words = "Once a year, taxed as income; what is due to the revenue service comes off first.";
    let lever = of.lever("A withdrawal of savings", words, "s1 'savings withdrawal benefit'", moves);
    Some(Lever { costs: true, ..lever })
}

/// The code of a savings withdrawal.
const SAVINGS: &str = "3926";
