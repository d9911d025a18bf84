//! The tariff (§32a EStG) with the progression clause (§32b) and the rule of fifths (§34(1)): what taxable income comes to before credits.

use crate::figures;
use hembo_money::{Money, Rounding};

/// By which table.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Table {
    /// §32a(1): of one person.
    Basic,
    /// §32a(5), (6): twice the tax on the half.
    Splitting,
}

/// What the tariff is applied to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Taxed {
    /// Taxable income in whole euros.
    pub income: Money,
    /// Income under the progression clause; below zero it lowers the rate.
    pub progression: Money,
    /// Extraordinary income within taxable income.
    pub extraordinary: Money,
}

/// Tax in whole euros.
pub fn tax(figures: &figures::Tariff, table: Table, of: Taxed) -> Money {
    let plain = with_progression(figures, table, of.income, of.progression);
    if of.extraordinary <= Money::ZERO {
        return plain;
    }
    let rest = of.income - of.extraordinary;
    if rest.is_negative() {
        let fifth = with_progression(figures, table, fifth_of(of.income), of.progression);
        return lesser(fifth * 5, plain);
    }
    let without = with_progression(figures, table, rest, of.progression);
    let with = with_progression(figures, table, rest + fifth_of(of.extraordinary), of.progression);
    lesser(without + (with - without) * 5, plain)
}

/// A fifth, to the cent: the table cuts it to euros.
fn fifth_of(amount: Money) -> Money {
    amount.in_proportion(Money::whole(1), Money::whole(5), Money::CENT, Rounding::Down)
}

fn lesser(one: Money, other: Money) -> Money {
    hembo_core::settled::lesser(one, other)
}

/// §32b: the rate of income with what stands under the clause, four decimals of a per cent, on income alone.
fn with_progression(figures: &figures::Tariff, table: Table, income: Money, progression: Money) -> Money {
    let income = whole_units(income);
    if progression.is_zero() {
        return Money::whole(by_table(figures, table, income));
    }
    let all = income + whole_units(progression);
    if all <= 0 || income <= 0 {
        return Money::ZERO;
    }
    let rate = i128::from(by_table(figures, table, all)) * 1_000_000 / i128::from(all);
    let tax = i128::from(income) * rate / 1_000_000;
    Money::whole(i64::try_from(tax).unwrap_or(i64::MAX))
}

fn whole_units(amount: Money) -> i64 {
    amount.steps_of(Money::WHOLE, Rounding::Down)
}

fn by_table(figures: &figures::Tariff, table: Table, income: i64) -> i64 {
    match table {
        Table::Basic => basic(figures, income),
        Table::Splitting => basic(figures, income / 2) * 2,
    }
}

/// §32a(1): five zones, each with a formula of its own, cut to euros.
fn basic(figures: &figures::Tariff, income: i64) -> i64 {
    let above = |end: Money| i128::from(income) - i128::from(whole_units(end));
    let cents = |amount: Money| i128::from(amount.cents());
    // (square × n/10,000 + linear) × n/10,000 + base, in cents × 10⁸.
    let curve = |n: i128, square: Money, linear: Money, base: i128| {
        (cents(square) * n * n + cents(linear) * 10_000 * n + base * 100_000_000) / 10_000_000_000
    };
    let line = |rate: hembo_money::Rate, less: Money| {
        (i128::from(income) * i128::from(rate.billionths()) / 10_000_000 - cents(less)) / 100
    };
    let tax = if above(figures.free_to) <= 0 {
        0
    } else if above(figures.second_to) <= 0 {
        curve(above(figures.free_to), figures.second_square, figures.second_linear, 0)
    } else if above(figures.third_to) <= 0 {
        let base = cents(figures.third_base);
        curve(above(figures.second_to), figures.third_square, figures.third_linear, base)
    } else if above(figures.fourth_to) <= 0 {
        line(figures.fourth_rate, figures.fourth_less)
    } else {
        line(figures.fifth_rate, figures.fifth_less)
    };
    i64::try_from(tax).unwrap_or(i64::MAX)
}
