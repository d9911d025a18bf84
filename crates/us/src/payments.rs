//! Payments and the balance, Form 1040 lines 25 to 37.

use crate::{
    additional_taxes::additional_medicare_withheld,
    unit::{On, Part},
};
use hembo_core::{reading::sum, trail::Trail};
use hembo_money::Money;

/// Schedule 3 line 11: social security tax of two or more employers above the most that one person pays, spouse by
/// spouse; what one employer took too much is that employer's to return (§31(b)).
pub fn excess_social_security(on: On<'_>, trail: &mut impl Trail) -> Money {
    let most = on.facts.figures.social_security.most_tax;
    let mut total = Money::ZERO;
    for (_, own) in on.owns().filter(|(_, own)| own.employers.len() > 1) {
        let each = own.employers.values().map(|tax| (*tax).min(most)).sum::<Money>();
        total += (each - most).or_zero();
    }
    trail.line("us.excess_social_security", on.scope, total.to_whole(), |i| {
        i.figure("Most for one person", most);
        if !total.is_zero() {
            i.items(on.items(|own| &own.social_security_tax));
        }
    })
}

/// Lines 25d, 26, 33 and the balance: due above zero, back below.
pub fn balance(on: On<'_>, trail: &mut impl Trail, net: Money, excess: Money) -> Money {
    let wages = on.gather(trail, "us.25a", |own| &own.withheld_wages);
    let other = on.gather(trail, "us.25b", |own| &own.withheld_other);
    let medicare = trail.line("us.25c", on.scope, additional_medicare_withheld(on), |_| {});
    let withheld = trail.line("us.25d", on.scope, wages + other + medicare, |i| {
        i.line("us.25a", on.scope, wages).line("us.25b", on.scope, other).line("us.25c", on.scope, medicare);
    });
    let estimated = estimated(on, trail);
    let paid = trail.line("us.paid", on.scope, withheld + estimated + excess, |i| {
        i.line("us.25d", on.scope, withheld).line("us.26", on.scope, estimated).line(
            "us.excess_social_security",
            on.scope,
            excess,
        );
    });
    trail.line("us.balance", on.scope, net - paid, |i| {
        i.line("us.net_tax", on.scope, net).line("us.paid", on.scope, paid);
    })
}

/// Line 26: own payments, and the agreed part of those made together.
fn estimated(on: On<'_>, trail: &mut impl Trail) -> Money {
    let alone = on.owns().map(|(_, own)| sum(&own.estimated)).sum::<Money>();
    let together = sum(&on.facts.estimated_together);
    let part = match on.unit.estimated {
        Part::All => together,
        Part::Nothing => Money::ZERO,
        Part::Half if on.facts.filers.first() == on.unit.people.first() => together.split(&[1, 1])[0],
        Part::Half => together.split(&[1, 1])[1],
    };
    trail.line("us.26", on.scope, (alone + part).to_whole(), |i| {
        i.items(on.items(|own| &own.estimated));
        if on.unit.estimated == Part::All {
            i.items(&on.facts.estimated_together);
        } else {
            i.figure("Of the payments made together", part);
        }
    })
}
