//! Home-loan interest by the limits of California (R&TC 17225): debt of the home up to the older limit, and other debt on it.

use crate::{business, schedule_a::home_loan::brings::LOANS, unit::On};
use hembo_core::settled;
use hembo_money::{Money, Rate, Rounding};

/// Interest on loans of the home.
#[derive(Debug, Clone, Copy)]
pub struct Interest {
    /// What was paid, without what the federal mortgage credit takes off it.
    pub paid: Money,
    /// Which part of it the limits allow.
    pub ratio: Rate,
    /// Of all balances those that were not for the home.
    pub not_home: [Money; 2],
}

/// The interest of a return; `limits` are those of debt for the home and of other debt on it.
pub fn interest(on: On<'_>, [home, other]: [Money; 2], places: u32) -> Interest {
    let loans = || on.owns().flat_map(|(_, own)| own.of(&LOANS));
    let paid: Money =
        loans().map(|loan| loan.interest.amount + loan.points.amount + loan.spread.amount).sum();
    let office = business::off_schedule_a(on).0;
    let all: Money = loans().map(|loan| loan.average).sum();
    let not_home: Money = loans().map(|loan| loan.other_use).sum();
    let for_home = all - not_home;
    let above = settled::or_zero(for_home - home);
    let counted = settled::lesser(for_home, home) + settled::lesser(other, not_home + above);
    let ratio = if all <= counted { Rate::ONE } else { counted.ratio_to(all, places, Rounding::HalfUp) };
    Interest { paid: settled::or_zero(paid.to_whole() - office), ratio, not_home: [not_home, all] }
}

impl Interest {
    /// Of what is allowed the interest of debt that was not for the home.
    pub fn of_other(&self, allowed: Money) -> Money {
        let [not_home, all] = self.not_home;
        if all.is_zero() {
            Money::ZERO
        } else {
            allowed.in_proportion(not_home, all, Money::WHOLE, Rounding::HalfUp)
        }
    }
}
