//! Home-loan interest (§163(h)(3)), Schedule A line 8, by Table 1 of Pub. 936.

use crate::unit::{Filed, On};
use hembo_core::{
    forms::Required,
    limit, limits, lines,
    provision::Provision,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    BALANCE = "us.loan.balance", "Average loan balances", "IRC §163(h)(3)",
        "Half of the first and the last balance of the year, or the lender's figure.";
    MOST = "us.loan.limit", "The loan limit", "IRC §163(h)(3)(B), (F)",
        "The balances that count, up to the limits for newer and older loans.";
    pub L8A = "us.sched_a.8a", "Home-loan interest paid", "IRC §163(h)(3)",
        "Box 1 of Form 1098, and points on a purchase.";
    pub L8E = "us.sched_a.8e", "Home-loan interest", "IRC §163(h)(3)",
        "Interest × loan limit ÷ average balances, to three places.";
}

limits! {
    pub HOME_LOAN = "us.limit.home_loan" on L8E, "Home-loan interest", "only on loans up to the limit",
        "IRC §163(h)(3)(B), (F)";
}

/// Line 8e: interest and points, times the part of the average balances that the limit allows.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let paid =
        on.owns().flat_map(|(_, own)| &own.loans).map(|l| l.interest.amount + l.points.amount).sum::<Money>();
    if on.unit.people.len() > 1 {
        for (person, own) in on.owns().filter(|(_, own)| !own.loans.is_empty()) {
            let own_paid = own.loans.iter().map(|l| l.interest.amount + l.points.amount).sum();
            trail.line(L8A, Scope::Person(person), own_paid, |i| {
                i.items(
                    own.loans.iter().flat_map(|l| [&l.interest, &l.points]).filter(|x| !x.amount.is_zero()),
                );
            });
        }
    }
    let paid = trail.line(L8A, on.scope, paid.to_whole(), |i| {
        for (person, own) in on.owns().filter(|(_, own)| !own.loans.is_empty()) {
            if on.unit.people.len() > 1 {
                let own_paid = own.loans.iter().map(|l| l.interest.amount + l.points.amount).sum();
                i.line(L8A, Scope::Person(person), own_paid);
            } else {
                i.items(
                    own.loans.iter().flat_map(|l| [&l.interest, &l.points]).filter(|x| !x.amount.is_zero()),
                );
            }
        }
    });
    let ratio = allowed_part(on, trail);
    let allowed = limit::part(trail, HOME_LOAN.at(on.scope), paid, ratio, Money::WHOLE);
    trail.line(L8E, on.scope, allowed, |i| {
        i.line(L8A, on.scope, paid).figure("Limit ÷ average balance", ratio);
    })
}

/// Table 1: the loan limit ÷ all average balances, to three places, not above one.
fn allowed_part(on: On<'_>, trail: &mut impl Trail) -> Rate {
    let figures = &on.facts.figures.home_loan;
    let status = on.unit.status;
    let (mut grandfathered, mut old, mut new, mut all) = (Money::ZERO, Money::ZERO, Money::ZERO, Money::ZERO);
    for loan in on.owns().flat_map(|(_, own)| &own.loans) {
        let for_the_home = loan.average - loan.other_use;
        all += loan.average;
        match loan.originated {
            // Before 14 October 1987 any secured debt counts, whatever it was used for.
            Some(date) if date < figures.grandfathered_before.0 => grandfathered += loan.average,
            Some(date) if date < figures.old_before.0 => old += for_the_home,
            _ => new += for_the_home,
        }
    }
    let line_6 = (grandfathered + old).min(grandfathered.max(*figures.most_old.of(status)));
    let line_9 = line_6.max(*figures.most_new.of(status));
    let most = line_9.min(line_6 + new);
    trail.line(BALANCE, on.scope, all, |_| {});
    trail.line(MOST, on.scope, most, |i| {
        i.figure("Limit for newer loans", figures.most_new.of(status));
        i.figure("Limit for older loans", figures.most_old.of(status));
    });
    if most >= all { Rate::ONE } else { most.ratio_to(all, figures.ratio_places, Rounding::HalfUp) }
}

/// The worksheet: where the return itemizes and there is a loan.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.unit.itemizes && filed.has(L8A), "no home loan deducted")
}
