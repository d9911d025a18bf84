//! What employers withhold by tax class (§§38b, 39b, 39f EStG): the year's wage tax of a wage, and what each combination of a couple's classes
//! would withhold. It has no effect on the tax of the year and is no way.

use crate::{
    NUMBERS,
    facts::Facts,
    figures::Figures,
    payments, rounding,
    tariff::{self, Table, Taxed},
    wage,
};
use hembo_core::{
    Household, Outcome, Paper,
    household::Entry,
    provision::Provision,
    settled,
    withholding::{Combination, Monthly, Withholding},
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Wage tax by class",
    figures: &["withholding", "tariff", "wages", "special", "children"],
    ..Provision::NONE
};

/// What decides about a wage's tax besides the wage.
#[derive(Debug, Clone, Copy)]
pub struct Employee {
    /// A year's wage.
    pub wage: Money,
    /// The employee's rate of care insurance.
    pub care: Rate,
}

/// The employee's rate of care insurance: higher in one Land and without children, lower for the second to the fifth.
pub fn care_rate(facts: &Facts, person: usize) -> Rate {
    let figures = &facts.figures.withholding;
    let base = if figures.care_higher_in.contains(&facts.land) { figures.care_higher } else { figures.care };
    let young = facts.people[person]
        .born
        .is_some_and(|born| facts.figures.year - born.year() < figures.childless_from);
    let children = i64::try_from(facts.children.len()).unwrap_or(0);
    let apart = match children {
        0 if young => 0,
        0 => figures.childless.billionths(),
        many => -figures.per_child.billionths() * settled::lesser(many - 1, figures.reduced_children),
    };
    Rate::from_billionths(base.billionths() + apart)
}

/// The lump for provision (Vorsorgepauschale, §39b(2) S.5 Nr.3).
fn provision(figures: &Figures, of: Employee, class: i64) -> Money {
    let f = &figures.withholding;
    let pension = settled::lesser(of.wage, f.pension_to).times(f.pension_rate, Money::CENT, Rounding::Down);
    let health = Rate::from_billionths(
        f.health_rate.billionths() + f.additional.billionths() / 2 + of.care.billionths(),
    );
    let health = settled::lesser(of.wage, f.health_to).times(health, Money::CENT, Rounding::HalfUp);
    let most = if class == 3 { f.least_most_three } else { f.least_most };
    let least = settled::lesser(of.wage.times(f.least_rate, Money::CENT, Rounding::Down), most);
    settled::greater(rounding::euros_up(pension + health), rounding::euros_up(pension + least))
}

/// The base of the year's wage tax of a class.
fn base(figures: &Figures, of: Employee, class: i64) -> Money {
    let lumps = if class == 6 { Money::ZERO } else { figures.wages.lump + figures.special.lump };
    let alone = if class == 2 { figures.children.alone } else { Money::ZERO };
    rounding::euros_down(settled::or_zero(of.wage - lumps - alone - provision(figures, of, class)))
}

fn by(figures: &Figures, table: Table, income: Money) -> Money {
    tariff::tax(&figures.tariff, table, Taxed { income, ..Taxed::default() })
}

/// A year's wage tax of a class, in euros.
pub fn of_year(figures: &Figures, of: Employee, class: i64) -> Money {
    let base = base(figures, of, class);
    match class {
        3 => by(figures, Table::Splitting, base),
        5 | 6 => without_allowance(figures, base),
        _ => by(figures, Table::Basic, base),
    }
}

/// Classes V and VI (§39b(2) S.7): twice the difference of the taxes on five and three quarters, never below a rate, above three ends at
/// rates of their own.
fn without_allowance(figures: &Figures, base: Money) -> Money {
    let f = &figures.withholding;
    let quarters = |amount: Money, parts: i64| {
        let part = amount.in_proportion(Money::whole(parts), Money::whole(4), Money::CENT, Rounding::Down);
        by(figures, Table::Basic, rounding::euros_down(part))
    };
    let low = |amount: Money| {
        let least = amount.times(f.low_rate, Money::WHOLE, Rounding::Down);
        settled::greater(least, (quarters(amount, 5) - quarters(amount, 3)) * 2)
    };
    let part = |amount: Money, rate: Rate| settled::or_zero(amount).times(rate, Money::CENT, Rounding::Down);
    let tax = if base <= f.first_to {
        low(base)
    } else if base <= f.second_to {
        settled::lesser(low(base), low(f.first_to) + part(base - f.first_to, f.middle_rate))
    } else {
        let middle = settled::lesser(base, f.third_to) - f.second_to;
        low(f.second_to) + part(middle, f.middle_rate) + part(base - f.third_to, f.top_rate)
    };
    rounding::euros_down(tax)
}

/// A month of a year's wage tax, to the cent below.
pub fn of_month(year: Money) -> Money {
    year.in_proportion(Money::whole(1), Money::whole(12), Money::CENT, Rounding::Down)
}

/// §39f: the splitting tax on both bases over the taxes of class IV, three decimals; nothing from one on.
fn factor(figures: &Figures, both: [Employee; 2]) -> Option<Rate> {
    let together = by(figures, Table::Splitting, both.iter().map(|&of| base(figures, of, 4)).sum());
    let apart: Money = both.iter().map(|&of| of_year(figures, of, 4)).sum();
    if apart.is_zero() {
        return None;
    }
    let thousandths = i128::from(together.cents()) * 1000 / i128::from(apart.cents());
    let factor = i64::try_from(thousandths).ok().filter(|thousandths| *thousandths < 1000)?;
    Some(Rate::from_billionths(factor * 1_000_000))
}

/// The days between which a certificate was in force, within the year; the whole year where it says none.
pub fn period(paper: &Paper, year: i32) -> Option<(Date, Date)> {
    let day = |field: &str| paper.boxes.get(field).and_then(Entry::date);
    let whole = hembo_core::pack::calendar_year(year);
    let (from, to) = (day("from").unwrap_or(whole.0), day("to").unwrap_or(whole.1));
    (from.year() == year && to.year() == year && from <= to).then_some((from, to))
}

/// Months that a period touches.
pub fn months((from, to): (Date, Date)) -> i64 {
    i64::from(u8::from(to.month())) - i64::from(u8::from(from.month())) + 1
}

/// A person's pay in a whole year as the last certificate of the year has it, and whether it was paid all year.
fn yearly(household: &Household, facts: &Facts, person: usize) -> Option<(Money, bool)> {
    let id = &facts.people[person].id;
    let own = |paper: &&Paper| {
        paper.kind == wage::CERTIFICATE.id && paper.owners.iter().any(|owner| owner.person == *id)
    };
    let dated = |paper: &Paper| period(paper, facts.figures.year);
    let last = household.papers.iter().filter(own).filter(|paper| dated(paper).is_some());
    let last = last.max_by_key(|paper| dated(paper).map(|(_, to)| to))?;
    let months = months(dated(last)?);
    let active = last.amount("3") - last.amount("8") - last.amount("19");
    let year = active.in_proportion(Money::whole(12), Money::whole(months), Money::WHOLE, Rounding::Down);
    (year > Money::ZERO).then_some((year, months == 12))
}

/// What each combination would withhold of a couple, for the year that runs.
pub fn withholding(facts: &Facts, household: &Household, outcome: &Outcome) -> Option<Withholding> {
    let &[one, other] = facts.filers.as_slice() else { return None };
    if !facts.couple() {
        return None;
    }
    let pay = [one, other].map(|person| yearly(household, facts, person));
    if pay == [None, None] {
        return None;
    }
    let wages = pay.map(|pay| pay.map_or(Money::ZERO, |(wage, _)| wage));
    let whole_year = pay.iter().flatten().all(|(_, whole)| *whole);
    let both = [0, 1].map(|at| Employee { wage: wages[at], care: care_rate(facts, [one, other][at]) });
    let names = [one, other].map(|person| facts.first_name(person).to_owned());
    let figures = &facts.figures;
    let tax = outcome
        .lines
        .iter()
        .filter(|line| line.id == payments::INCOME_TAX)
        .map(|line| line.amount)
        .sum::<Money>();
    let combined = |label: String, months: [Money; 2]| {
        let year = (months[0] + months[1]) * 12;
        let months =
            names.iter().cloned().zip(months).map(|(whose, amount)| Monthly { whose, amount }).collect();
        Combination { label, months, year, left: whole_year.then_some(tax - year) }
    };
    let by_classes = |classes: [i64; 2], label: String| {
        combined(label, [0, 1].map(|at| of_month(of_year(figures, both[at], classes[at]))))
    };
    let mut options = vec![
        by_classes([3, 5], format!("III for {}, V for {}", names[0], names[1])),
        by_classes([5, 3], format!("V for {}, III for {}", names[0], names[1])),
        by_classes([4, 4], "IV for both; as I for both before the marriage or arrival".into()),
    ];
    let both_paid = pay.iter().all(Option::is_some);
    options.extend(factor(figures, both).filter(|_| both_paid).map(|factor| {
        let month =
            |of: Employee| of_month(of_year(figures, of, 4)).times(factor, Money::CENT, Rounding::Down);
        let shown = factor.billionths() / 1_000_000;
        combined(format!("IV for both with the factor 0,{shown:03}"), both.map(month))
    }));
    options.sort_by_key(|option| option.year);
    Some(Withholding {
        what: "Tax classes for the year that runs".into(),
        words: format!(
            "Wage tax alone, by the figures of {} and the last pay of the year, {} and {} in twelve months. A change counts from the month \
             after it was asked for, the last on 30 November. III and V, or a factor, make a return due. Pay in place of wages goes by the \
             class. The tax of the year stays the same.",
            figures.year,
            NUMBERS.amount(wages[0]),
            NUMBERS.amount(wages[1])
        ),
        cite: "§§38b, 39(6), 39b, 39f, 46(2) Nr.3a".into(),
        options,
    })
}
