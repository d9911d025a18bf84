//! Trades and partnerships (s11(a), s11(e), s24H; local business income): the own share of every item; in community of property the spouses
//! may have agreed that a trade is of both.

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points, rounding::half};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { about: "Own work", lines: LINES, papers: &[TRADE], points: POINTS, ..Provision::NONE };

lines! {
    pub NET = "za.business", "Trade result", "s11(a), s11(e), s24H",
        "The share of turnover less expenses and wear and tear; below zero a loss.";
}

open_points! {
    JOINT = look "trade-agreed", "s7(2A)", "Keep the agreement that the trade is of both spouses.";
}

/// What its papers bring.
pub mod brings {
    use super::Trade;
    use hembo_core::brought::Brought;

    /// Trades.
    pub static TRADES: Brought<Trade> = Brought::new();
}

/// The share of a trade.
#[derive(Debug, Clone, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Trade {
    pub id: String,
    pub title: String,
    pub turnover: Item,
    pub wear: Item,
    pub expenses: Vec<Item>,
    /// Of both spouses by an agreement that is still to be told.
    pub may_be_joint: bool,
    /// Turnover tax was elected: it is no part of income.
    pub by_turnover: bool,
    pub abroad: bool,
}

impl Trade {
    fn net(&self) -> Money {
        self.turnover.amount - self.wear.amount - sum(&self.expenses)
    }

    fn items(&self) -> impl Iterator<Item = &Item> {
        [&self.turnover, &self.wear].into_iter().chain(&self.expenses).filter(|item| !item.amount.is_zero())
    }
}

/// A trade.
pub const TRADE: PaperKind = PaperKind {
    id: "Trade",
    subject: subject::OWN_WORK,
    name: "Trade, profession or partnership",
    words: "business partner sole proprietor self-employed share",
    title: "Trade",
    shared: false,
    headline: "turnover",
    boxes: &[
        Field::amount("turnover", "", "Turnover of the whole trade"),
        Field::amount("wear", "", "Wear and tear"),
        Field::decimal("share", "", "Own share in per cent", 4)
            .lasts()
            .help("Of a partnership, by its agreement; blank: all of it."),
        Field::yes_no("may_be_joint", "", "In community: both spouses may have agreed to share it").lasts(),
        Field::yes_no("turnover_tax", "", "Turnover tax was elected")
            .lasts()
            .help("Before the year began: it stands in place of normal tax on the trade."),
        Field::yes_no("abroad", "", "Abroad").lasts(),
    ],
    columns: &[Field::text("what", "", "What", 80), Field::amount("amount", "", "Expense")],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Whether turnover tax was elected for a trade.
pub fn is_elected(paper: &Paper) -> bool {
    paper.flag("turnover_tax")
}

/// The trades of a person for which it was.
pub fn elected(on: On<'_>) -> impl Iterator<Item = &Trade> {
    on.own().of(&brings::TRADES).iter().filter(|trade| trade.by_turnover)
}

/// Gives the share of a trade to its owner.
pub fn read(paper: &mut Bringing<'_>) {
    let share = paper.paper.paper.boxes.get("share").and_then(Entry::decimal);
    let hundred = Rate::from_billionths(100 * Rate::ONE.billionths());
    let of_share = |amount: Money| match share {
        None => amount,
        Some(percent) => amount.in_proportion(
            Money::from_cents(percent.billionths() / 100_000),
            Money::from_cents(hundred.billionths() / 100_000),
            Money::CENT,
            Rounding::HalfUp,
        ),
    };
    let expense =
        |(row, _, amount): (usize, _, Money)| paper.paper.item("amount", Some(row), of_share(amount));
    let by_turnover = is_elected(paper.paper.paper);
    let trade = Trade {
        id: paper.paper.paper.id.clone(),
        title: paper.paper.paper.title.clone(),
        turnover: paper.item("turnover", of_share(paper.amount("turnover"))),
        wear: paper.item("wear", of_share(paper.amount("wear"))),
        expenses: paper.paper.lines("amount").map(expense).collect(),
        may_be_joint: paper.flag("may_be_joint") && paper.facts.in_community && !by_turnover,
        by_turnover,
        abroad: paper.flag("abroad"),
    };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::TRADES, trade.clone());
    }
}

/// Trades as income.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Traded {
    pub net: Money,
    pub turnover: Money,
    /// Net, of trades abroad.
    pub foreign: Money,
}

/// The trades of a person, those of the spouse that are of both by halves.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Traded {
    let joint = |trade: &Trade| on.plan.joint_trades.contains(&trade.turnover.paper);
    let own = on.own().of(&brings::TRADES);
    let partner = on.facts.partner(on.person);
    let of_partner = partner.map_or(&[][..], |partner| on.facts.people[partner].own.of(&brings::TRADES));
    let part = |trade: &Trade, amount: Money| if joint(trade) { half(amount) } else { amount };
    let own = own.iter().filter(|trade| !trade.by_turnover);
    let all: Vec<&Trade> = own.chain(of_partner.iter().filter(|trade| joint(trade))).collect();
    let net = all.iter().map(|trade| part(trade, trade.net())).sum();
    let turnover = all.iter().map(|trade| part(trade, trade.turnover.amount)).sum();
    let foreign = all.iter().filter(|trade| trade.abroad).map(|trade| part(trade, trade.net())).sum();
    trail.line(NET, on.scope, net, |i| {
        i.items(all.iter().flat_map(|trade| trade.items()));
    });
    Traded { net, turnover, foreign }
}

fn may_be_joint(facts: &Facts) -> impl Iterator<Item = &Trade> {
    let all = facts.filers.iter().flat_map(|&person| facts.people[person].own.of(&brings::TRADES));
    all.filter(|trade| trade.may_be_joint)
}

/// Whether a trade is of both spouses, by its paper.
pub static JOINT_TRADE: Open<Facts> = Open::new(
    |facts| may_be_joint(facts).map(|trade| trade.turnover.paper).collect(),
    |facts, paper| {
        let found = may_be_joint(facts).find(|trade| trade.turnover.paper == paper);
        let (id, title) = found.map_or(("", ""), |trade| (trade.id.as_str(), trade.title.as_str()));
        let title = if title.is_empty() { "the trade" } else { title };
        let options = vec![
            Opt::new("own", "Of who trades", ""),
            Opt::new("joint", "Of both, a half each", format!("{title} of both")),
        ];
        Decision::between(format!("za.trade.{id}"), format!("Result of {title}"), "s7(2A)", options)
    },
);

/// Which are of both in a way, by paper.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    let papers = may_be_joint(facts).map(|trade| trade.turnover.paper);
    papers.filter(|&paper| way.taken(&JOINT_TRADE, paper) == Some(1)).collect()
}

/// Agreements about trades.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(TRADE.id) {
        if paper.flag("may_be_joint") && points.facts.in_community && !is_elected(paper) {
            points.raise(&JOINT, Place::paper(&paper.id, "may_be_joint"), "Whether it is shared is weighed.");
        }
    }
}
