//! The year of a marriage (Reg. §1.36B-4(b)(2)), Form 8962, Part V: until the month of the marriage each spouse's credit goes by half of the
//! household income and a family of one's own.

use super::{Amounts, YEAR, applicable, brings, percentage};
use crate::{filing_status::Status, unit::On};
use hembo_core::settled;
use hembo_money::{Money, Rounding};

/// The month of the marriage, as a policy of a joint return tells it.
pub fn month(on: On<'_>) -> Option<i64> {
    let all = on.owns().flat_map(|(_, own)| own.of(&brings::POLICIES));
    let told = all.filter_map(|policy| policy.married).next();
    told.filter(|_| on.unit.status == Status::Joint)
}

/// The credit by Part V at its best division of the dependents; `regular` is the contribution of a month of both together.
pub fn credit(on: On<'_>, household: Money, regular: Money) -> Option<Money> {
    let until = month(on)?;
    let [one, other] = on.unit.people[..] else { return None };
    let half = household.in_proportion(Money::whole(1), Money::whole(2), Money::WHOLE, Rounding::HalfUp);
    let dependents = i64::try_from(on.unit.dependents.len()).unwrap_or_default();
    let apart = |with_one: i64| {
        let sizes = [(one, 1 + with_one), (other, 1 + dependents - with_one)];
        sizes
            .map(|(person, size)| alone(on, person, until, contribution(on, half, size)))
            .iter()
            .copied()
            .sum::<Money>()
    };
    let before = (0..=dependents).map(apart).max()?;
    let after: Money = (until + 1..=12).map(|at| of_month(together(on, at), regular)).sum();
    Some(before + after)
}

/// The contribution of a month of a family of so many at an income.
fn contribution(on: On<'_>, income: Money, size: i64) -> Money {
    let part = applicable(on, percentage(on, income, size));
    let year = settled::or_zero(income).times(part, Money::WHOLE, Rounding::HalfUp);
    year.in_proportion(Money::whole(1), Money::whole(12), Money::WHOLE, Rounding::HalfUp)
}

/// The credit of a spouse's own policies in the months until the marriage.
fn alone(on: On<'_>, person: usize, until: i64, contribution: Money) -> Money {
    (1..=until).map(|at| of_month(of_person(on, person, at), contribution)).sum()
}

fn of_month(of: Amounts, contribution: Money) -> Money {
    let room = settled::or_zero(of.benchmark.to_whole() - contribution);
    settled::lesser(of.premium.to_whole(), room)
}

/// What a person's policies come to in a month; one told by the year counts for a twelfth.
fn of_person(on: On<'_>, person: usize, at: i64) -> Amounts {
    let mut all = Amounts::default();
    for &(month, of) in
        on.facts.people[person].own.of(&brings::POLICIES).iter().flat_map(|policy| &policy.months)
    {
        if month == YEAR {
            all.add(of.twelfth());
        } else if month == at {
            all.add(of);
        }
    }
    all
}

fn together(on: On<'_>, at: i64) -> Amounts {
    let mut all = Amounts::default();
    on.unit.people.iter().for_each(|&person| all.add(of_person(on, person, at)));
    all
}
