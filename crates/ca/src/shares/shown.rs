//! A ledger as people read it: what is held and its average cost beside every line, how each sale of the year came out, and
//! the average cost over the years.

use super::{
    LEDGER, of_year,
    pool::{Sale, Step, What},
    steps,
};
use crate::facts::Facts;
use hembo_core::{
    Household, Paper,
    drawn::{At, Drawn, Part, Picture, WorkedColumn, Working},
};
use hembo_money::{Money, Rate, Rounding};

/// What is worked out of the ledgers of a household, by the places of their papers.
pub fn drawn(household: &Household, facts: &Facts) -> Vec<(usize, Drawn)> {
    let ledgers = household.papers.iter().enumerate().filter(|(_, paper)| paper.kind == LEDGER.id);
    ledgers.map(|(place, paper)| (place, ledger(paper, facts, &steps(household, facts, paper)))).collect()
}

fn ledger(paper: &Paper, facts: &Facts, steps: &[Step]) -> Drawn {
    let workings: Vec<Working> = steps
        .iter()
        .filter(|step| of_year(facts, step))
        .filter_map(|step| Some(working(step, step.sale?)))
        .collect();
    let cells = |value: fn(&Step) -> Option<String>| {
        steps.iter().filter_map(|step| Some((paper.rows[step.entry.row].id.clone(), value(step)?))).collect()
    };
    let average = |step: &Step| (step.held.units > Rate::ZERO).then(|| step.held.average().to_string());
    Drawn {
        stands: Some(workings.iter().map(|working| working.amount).sum()),
        columns: vec![
            WorkedColumn {
                label: "Held".into(),
                after: "outlays",
                cells: cells(|step| Some(step.held.units.to_string())),
            },
            WorkedColumn { label: "Average".into(), after: "outlays", cells: cells(average) },
        ],
        workings,
        picture: (!steps.is_empty()).then(|| picture(paper, steps)),
        ..Drawn::default()
    }
}

/// How a sale came out.
fn working(step: &Step, sale: Sale) -> Working {
    let units = step.entry.units;
    let title = match step.entry.what {
        What::Sold => format!("Sold {units}"),
        What::ToPlan => format!("Moved {units} to a plan"),
        _ => "Returned above the cost".into(),
    };
    let mut parts = vec![Part::new("Proceeds", sale.proceeds), Part::new("At the average cost", -sale.cost)];
    if !sale.outlays.is_zero() {
        parts.push(Part::new("Outlays", -sale.outlays));
    }
    if !sale.denied.is_zero() {
        parts.push(Part::new("Denied of the loss", sale.denied));
    }
    let amount = sale.gain();
    let loss = sale.before_denial() < Money::ZERO;
    let note = match (step.entry.what, loss) {
        (What::ToPlan, true) => "A loss on what moves into a plan is nil.",
        (_, true) if !sale.denied.is_zero() => {
            "Bought again within 30 days: what is denied is cost of what was bought, but in a plan lost."
        }
        (_, true) => "No purchase within 30 days before or after is in these papers.",
        _ => "",
    };
    let result = if amount < Money::ZERO { "Loss" } else { "Gain" };
    Working { title, day: step.entry.date, parts, result: result.into(), amount, note: note.into() }
}

/// The average cost over the years, with what changed it and what was sold at which price.
fn picture(paper: &Paper, steps: &[Step]) -> Picture {
    let at = |step: &Step, value: Rate, label: String| At { day: step.entry.date, value, label };
    let label = |step: &Step| match step.entry.what {
        What::Split => "split",
        What::Merged => "merged",
        What::CapitalReturned => "capital returned",
        _ => "",
    };
    let sold = |step: &Step| step.sale.is_some() && step.entry.what == What::Sold;
    let marks = steps.iter().filter(|step| sold(step)).map(|step| {
        let price = each(step.entry.amount, step.entry.units);
        at(step, price, format!("sold at {}", to_cents(price)))
    });
    let last = steps.last().map_or(Rate::ZERO, |step| step.held.units);
    let name = if paper.title.is_empty() { "the security" } else { paper.title.as_str() };
    Picture {
        caption: format!("Average cost of a unit of {name}; {last} held at the end."),
        steps: steps.iter().map(|step| at(step, step.held.average(), label(step).into())).collect(),
        slope: Vec::new(),
        bars: Vec::new(),
        marks: marks.collect(),
        spans: Vec::new(),
    }
}

/// The price of one unit, to four decimals.
fn each(amount: Money, units: Rate) -> Rate {
    super::pool::Held { units, cost: amount }.average()
}

fn to_cents(price: Rate) -> Money {
    Money::whole(1).times(price, Money::CENT, Rounding::HalfUp)
}
