//! From all income to taxable income (ITA BC 1 to BC 5): total, expenses, net income, losses of earlier years.

use crate::{
    facts::Facts,
    foreign_funds, investments, land, last_assessment, other,
    overseas::{self, Segment},
    pay,
    plan::{On, Plan},
    rental, trade, trusts,
};
use hembo_core::{
    Silent, limit, lines,
    outcome::{CarriedTo, Carry},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { about: "Income", lines: LINES, carries: CARRIES, ..Provision::NONE };

lines! {
    pub TOTAL = "nz.total_income", "Total income", "ITA BC 2",
        "All income, schedular payments less their expenses, other income less its deductions.";
    pub NET = "nz.net_income", "Net income", "ITA BC 4",
        "Total income less other expenses; a loss is carried, and net income is zero.";
    pub USED = "nz.losses_used", "Losses brought forward used", "ITA IA 4, IA 9",
        "All that net income takes, not a choice.";
    CARRIED = "nz.losses_cf", "Loss carried to the next year", "ITA IA 2, IA 4",
        "What is left of earlier years, and a loss of this one.";
    pub TAXABLE = "nz.taxable_income", "Taxable income", "ITA BC 5",
        "Net income less losses brought forward.";
}

const CARRIES: &[Carry] = &[
    Carry { line: CARRIED, paper: last_assessment::PAPER, into: CarriedTo::Box("losses") },
    Carry { line: TAXABLE, paper: last_assessment::PAPER, into: CarriedTo::Told("taxable.1") },
];

/// The income of a return.
#[derive(Debug, Clone, Default)]
#[allow(missing_docs)]
pub struct Income {
    /// Gross pay.
    pub pay: Money,
    pub net: Money,
    pub taxable: Money,
    /// Imputation credits of this year.
    pub imputation: Money,
    /// Income from abroad by country and kind, funds among it.
    pub segments: Vec<Segment>,
    /// Net income of the family scheme: losses of trades and other shares count as nothing.
    pub of_scheme: Money,
}

/// Questions 11 to 31.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Income {
    let earned = pay::reckon(on, trail);
    let invested = investments::reckon(on, trail);
    let shares = trusts::reckon(on, trail);
    let mut abroad = overseas::reckon(on, trail, &foreign_funds::dividends_as_such(on));
    let of_abroad = abroad.income;
    let funds = foreign_funds::reckon(on, trail, &mut abroad);
    let sold = land::reckon(on, trail);
    let rents = rental::reckon(on, trail, sold.of_lets);
    let (trade, trade_losses) = trade::reckon(on, trail);
    let other = other::income(on, trail);
    let all = [
        (pay::GROSS, earned.gross),
        (pay::SCHEDULAR_GROSS, earned.schedular),
        (pay::SCHEDULAR_EXPENSES, -earned.expenses),
        (investments::INTEREST_GROSS, invested.interest),
        (investments::DIVIDENDS_GROSS, invested.dividends),
        (investments::AUTHORITY_GROSS, invested.authority),
        (overseas::INCOME, of_abroad),
        (foreign_funds::INCOME, funds),
        (rental::NET, rents),
        (land::PROFIT, sold.profit),
        (trade::NET, trade),
        (other::INCOME, other),
    ];
    let total = on.add(trail, TOTAL, &[&all[..], &shares].concat());
    let spent = other::expenses(on, trail);
    let lost_shares: Money = shares.iter().map(|(_, amount)| settled::or_zero(-*amount)).sum();
    let lost_abroad = limit::or_zero(trail, -of_abroad);
    let net = limit::or_zero(trail, total - spent);
    on.made(trail, NET, net, &[(TOTAL, total), (other::EXPENSES, spent)], &[]);
    let brought = last_assessment::of(on, last_assessment::LOSSES);
    let (used, taxable) = losses(on, trail, net, total - spent);
    if !brought.is_empty() {
        trail.line(USED, on.scope, used, |i| {
            i.items(brought).line(NET, on.scope, net);
        });
    }
    on.made(trail, TAXABLE, taxable, &[(NET, net), (USED, used)], &[]);
    Income {
        pay: earned.gross,
        net,
        taxable,
        imputation: invested.imputation + sum(on.own().of(&trusts::brings::IMPUTATION)),
        segments: abroad.segments,
        of_scheme: total - spent + trade_losses + lost_shares + lost_abroad,
    }
}

/// Losses of earlier years, used down to zero, and what is carried; with it taxable income.
fn losses(on: On<'_>, trail: &mut impl Trail, net: Money, before: Money) -> (Money, Money) {
    let brought = last_assessment::of(on, last_assessment::LOSSES);
    let used = limit::lesser(trail, sum(brought), net);
    let of_year = limit::or_zero(trail, -before);
    let carried = sum(brought) - used + of_year;
    trail.line(CARRIED, on.scope, carried, |i| {
        i.items(brought).figure("Used", used).figure("Loss of this year", of_year);
    });
    (used, net - used)
}

/// The lowest taxable income that a person can have in any way: every part of income is at its own lowest.
pub fn lowest_taxable(facts: &Facts, person: usize) -> Money {
    let (vehicles, rooms) = trade::lowest_plan(&facts.people[person].own);
    let mut funds = vec![Default::default(); facts.people.len()];
    funds[person] = foreign_funds::lowest(facts, person);
    let by_formula = overseas::lowest(facts, person);
    let plan = Plan { funds, vehicles, rooms, by_formula, ..Plan::default() };
    reckon(On::of(facts, &plan, person), &mut Silent).taxable
}
