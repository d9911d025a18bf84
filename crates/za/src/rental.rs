//! Letting (s1 'gross income' (g), s11(a); codes 4210 and 4211): of spouses in community of property a half each.

use crate::{bringing::Bringing, plan::On};
use hembo_core::{
    field::{Field, Years},
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, papers: &[STATEMENT], ..Provision::NONE };

lines! {
    pub NET = "za.rental", "Net rent", "s1 'gross income' (g), s11(a); codes 4210, 4211",
        "Rents less costs; below zero a loss.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Rents.
    pub static RENTS: Brought = Brought::new();
    /// Costs.
    pub static COSTS: Brought = Brought::new();
    /// Rents of property abroad, of these.
    pub static FOREIGN_RENTS: Brought = Brought::new();
    /// Costs of property abroad, of these.
    pub static FOREIGN_COSTS: Brought = Brought::new();
}

const STATEMENT: PaperKind = PaperKind {
    id: "Letting",
    subject: subject::OWN_WORK,
    name: "Property let",
    words: "rent rental flat house tenant",
    title: "Property",
    shared: true,
    headline: "rent",
    boxes: &[
        Field::amount("rent", "4210", "Rents"),
        Field::yes_no("abroad", "", "Property abroad").lasts(),
        Field::yes_no("excluded", "", "Excluded from the joint estate")
            .lasts()
            .help("By a will or a gift: the owner's alone."),
    ],
    columns: &[Field::text("what", "", "What", 80), Field::amount("amount", "", "Cost")],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives rents and costs to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let (excluded, abroad) = (paper.flag("excluded"), paper.flag("abroad"));
    let rent = paper.amount("rent");
    paper.put_joint("rent", None, rent, excluded, &brings::RENTS);
    if abroad {
        paper.put_joint("rent", None, rent, excluded, &brings::FOREIGN_RENTS);
    }
    let rows: Vec<(usize, Money)> =
        paper.paper.lines("amount").map(|(row, _, amount)| (row, amount)).collect();
    for (row, amount) in rows {
        paper.put_joint("amount", Some(row), amount, excluded, &brings::COSTS);
        if abroad {
            paper.put_joint("amount", Some(row), amount, excluded, &brings::FOREIGN_COSTS);
        }
    }
}

/// Lets as income.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Let {
    pub net: Money,
    pub rents: Money,
    /// Net, of property abroad.
    pub foreign: Money,
}

/// Net rent.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Let {
    let own = on.own();
    let (rents, costs) = (own.of(&brings::RENTS), own.of(&brings::COSTS));
    let net = trail.line(NET, on.scope, sum(rents) - sum(costs), |i| {
        i.items(rents).items(costs);
    });
    let foreign = sum(own.of(&brings::FOREIGN_RENTS)) - sum(own.of(&brings::FOREIGN_COSTS));
    Let { net, rents: sum(rents), foreign }
}
