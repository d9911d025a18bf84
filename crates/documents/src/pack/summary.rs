//! For the family, in plain words: what came in, what was taken off, tax, paid and balance, what changed against last year,
//! why this way, and what the next ones would cost.

use super::{Source, size};
use crate::{
    document::{Bar, Block, Column, Row, Table},
    letter::Language,
};
use hembo_core::{
    outcome::{self, DecisionOutcome, OptionOutcome},
    point::Weight,
};
use hembo_money::Money;

/// How many ways are shown beside the chosen one.
const WAYS: usize = 4;
/// How many choices are told.
const CHOICES: usize = 8;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let mut blocks = vec![Block::marked(&result(of))];
    blocks.extend(of.unsettled().map(|why| Block::marked(&unsettled(of, &why))));
    if of.outcome.authorities.len() > 1 {
        blocks.push(authorities(of));
    }
    blocks.push(Block::Heading("What came in, and what was taken off".into()));
    blocks.push(spread(of));
    blocks.extend(changed(of));
    blocks.push(Block::Heading("Why this way".into()));
    blocks.push(Block::text(weighed(of)));
    blocks.extend(bars(of));
    blocks.extend(choices(of));
    blocks
}

/// The tax, what was paid, and what is left.
fn result(of: Source<'_>) -> String {
    let outcome = of.outcome;
    let names: Vec<&str> =
        outcome.columns.iter().filter(|c| c.files.is_some()).map(|c| c.name.as_str()).collect();
    let names = Language::English.and(&names);
    let tax = if outcome.total.is_negative() {
        let credits = of.money(size(outcome.total));
        format!("For {}, no tax is left to pay: credits bring {names} *{credits}*", outcome.year)
    } else {
        format!("For {}, the tax of {names} is *{}*", outcome.year, of.money(outcome.total))
    };
    let balance = match outcome.balance {
        b if b.is_zero() => "nothing is due and nothing comes back".to_owned(),
        b if b.is_negative() => format!("*{} comes back*", of.money(size(b))),
        b => format!("*{} is still to be paid*", of.money(b)),
    };
    format!("{tax}. *{}* was paid during the year, so {balance}.", of.money(outcome.paid))
}

fn unsettled(of: Source<'_>, why: &str) -> String {
    let told: Vec<&str> = of.open(Weight::Blocks).take(3).map(|p| p.message.as_str()).collect();
    format!("*{why}.* {}", told.join(" "))
}

fn authorities(of: Source<'_>) -> Block {
    let columns = vec![
        Column::words("To whom", 3.0),
        Column::amounts("Tax", 1.0),
        Column::amounts("Paid", 1.0),
        Column::amounts("Due, or back (−)", 1.4),
    ];
    let row = |a: &outcome::Authority| {
        Row::of([a.name.clone(), of.plain(a.total), of.plain(a.paid), of.plain(a.balance)])
    };
    Block::Table(Table { columns, rows: of.outcome.authorities.iter().map(row).collect() })
}

/// The rows of the Spread that count, with last year's results beside them where they are known.
fn spread(of: Source<'_>) -> Block {
    let before = of.household.before.as_ref();
    let mut columns = vec![Column::words("", 4.0), Column::amounts(&of.outcome.year.to_string(), 1.0)];
    columns.extend(before.map(|before| Column::amounts(&before.year.to_string(), 1.0)));
    let shown = of.outcome.spread.iter().flat_map(|section| &section.rows).filter(|row| row.counts);
    let rows = shown.filter_map(|row| {
        let amount = row.together.as_ref()?.amount;
        if amount.is_zero() && !row.result {
            return None;
        }
        let amount = if row.takes_off { -amount } else { amount };
        let mut cells = vec![row.label.clone(), of.plain(amount)];
        if let Some(before) = before {
            cells.push(before.results.get(&row.label).map_or_else(String::new, |was| of.plain(*was)));
        }
        Some(Row { cells, strong: row.result })
    });
    Block::Table(Table { columns, rows: rows.collect() })
}

/// The results that moved against last year.
fn changed(of: Source<'_>) -> Vec<Block> {
    let Some(before) = &of.household.before else { return Vec::new() };
    let told =
        |by: Money| format!("{} {}", of.plain(size(by)), if by.is_negative() { "less" } else { "more" });
    let rows: Vec<Row> = of.changes().into_iter().map(|(what, by)| Row::of([what, told(by)])).collect();
    let heading = Block::Heading(format!("What changed against {}", before.year));
    if rows.is_empty() {
        return vec![heading, Block::text("Every result is that of last year.")];
    }
    let columns = vec![Column::words("", 4.0), Column::amounts("", 1.6)];
    vec![heading, Block::Table(Table { columns, rows })]
}

/// How many ways were weighed, and where the chosen one stands among them.
pub(super) fn weighed(of: Source<'_>) -> String {
    let outcome = of.outcome;
    let ways = match outcome.lawful_ways {
        1 => "The law leaves one way to file, and this is it.".to_owned(),
        2 if outcome.complete => "Both lawful ways to file were weighed.".to_owned(),
        n if outcome.complete => format!("All {n} lawful ways to file were weighed."),
        n => format!("There are {n} lawful ways to file; not all could be weighed."),
    };
    let held = outcome.total - outcome.lowest;
    let among = if outcome.complete { "" } else { " of those that were" };
    let place = if held > Money::ZERO {
        format!(
            " The lowest would come to {}; this one is held by choice and costs {} more{}.",
            of.money(outcome.lowest),
            of.money(held),
            reasons(of)
        )
    } else if outcome.lawful_ways > 1 {
        format!(" This is the lowest{among}.")
    } else {
        String::new()
    };
    let left_open = outcome.points.iter().any(|point| point.unweighed && point.dismissed.is_none());
    let open = if left_open {
        " The law leaves more open, which is not weighed: it is told where the ways are."
    } else {
        ""
    };
    ways + &place + open
}

/// Why what is held is held, where somebody said.
fn reasons(of: Source<'_>) -> String {
    let said: Vec<&str> =
        of.outcome.decisions.iter().filter_map(|decision| decision.reason.as_deref()).collect();
    if said.is_empty() { String::new() } else { format!(": {}", said.join("; ")) }
}

/// The chosen way and the next ones as bars; none where taxes below zero make their lengths meaningless.
fn bars(of: Source<'_>) -> Option<Block> {
    let ways: Vec<_> = of.ways().into_iter().take(WAYS).collect();
    let longest = ways.iter().map(|way| way.total.cents()).max().unwrap_or(0);
    let negative = ways.iter().any(|way| way.total.is_negative());
    if ways.len() < 2 || longest <= 0 || negative {
        return None;
    }
    let bar = |way: &&outcome::NamedWay| {
        let more = if way.more.is_zero() { String::new() } else { format!(", {} more", of.money(way.more)) };
        let name = if way.but.is_empty() { &way.name } else { &way.but };
        Bar {
            part: way.total.cents() as f32 / longest as f32,
            label: format!("{} {name}{more}", of.money(way.total)),
        }
    };
    Some(Block::Bars(ways.iter().map(bar).collect()))
}

/// What each choice is worth: the option taken and what the next would cost.
fn choices(of: Source<'_>) -> Option<Block> {
    let mut worth: Vec<&DecisionOutcome> =
        of.outcome.decisions.iter().filter(|d| d.arises && !d.neutral && d.worth > Money::ZERO).collect();
    worth.sort_by_key(|decision| std::cmp::Reverse(decision.worth));
    let rows: Vec<Row> = worth.into_iter().take(CHOICES).filter_map(|d| choice(of, d)).collect();
    let columns =
        vec![Column::words("What was chosen", 2.0), Column::words("", 2.0), Column::words("Otherwise", 2.6)];
    (!rows.is_empty()).then_some(Block::Table(Table { columns, rows }))
}

fn choice(of: Source<'_>, decision: &DecisionOutcome) -> Option<Row> {
    if let Some(amount) = &decision.amount {
        let taken = format!("{} of {}", of.money(amount.taken), of.money(amount.most));
        let costs = |total: Option<Money>, what: &str| {
            let more = total? - of.outcome.total;
            (more > Money::ZERO).then(|| format!("{what}: {} more", of.money(more)))
        };
        let ends = [costs(amount.none, "none of it"), costs(amount.all, "all of it")];
        return Some(Row::of([
            decision.label.clone(),
            taken,
            ends.into_iter().flatten().collect::<Vec<_>>().join(", "),
        ]));
    }
    let chosen = decision.options.iter().find(|option| option.chosen)?;
    let next = |option: &&OptionOutcome| option.more.filter(|more| !option.chosen && *more > Money::ZERO);
    let others = decision.options.iter().filter_map(|o| Some((next(&o)?, o))).min_by_key(|(more, _)| *more);
    let otherwise = others.map(|(more, o)| format!("{}: {} more", o.label, of.money(more)));
    Some(Row::of([decision.label.clone(), chosen.label.clone(), otherwise.unwrap_or_default()]))
}
