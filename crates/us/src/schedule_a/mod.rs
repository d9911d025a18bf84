//! Schedule A: itemized deductions, line by line.

pub mod gifts;
pub mod home_loan;
pub mod investment_interest;
pub mod medical;
pub mod other;
pub mod taxes;

use crate::{
    bringing,
    deduction::L17,
    foreign_tax,
    income::Income,
    unit::{Filed, On},
};
use hembo_core::{brought::Records, forms::Required, trail::Trail};
use hembo_money::Money;
use investment_interest::Deducted;

/// What Schedule A comes to.
#[derive(Debug, Clone, Copy)]
pub struct Itemized {
    /// Line 17.
    pub total: Money,
    /// Line 7: the taxes that the minimum tax adds back.
    pub taxes: Money,
    /// Line 4.
    medical: Money,
    /// Of line 5e what belongs to no income.
    general_taxes: Money,
    /// Line 8e.
    home_loan: Money,
    /// Form 4952.
    pub invested: Deducted,
}

impl Itemized {
    /// What of it Form 1116 shares out, with gross income from all sources.
    pub fn foreign(&self, gross: Money) -> foreign_tax::From {
        foreign_tax::From {
            gross,
            standard: Money::ZERO,
            medical: self.medical,
            taxes: self.general_taxes,
            interest: self.home_loan,
            taxable: Money::ZERO,
            regular: Money::ZERO,
        }
    }
}

/// Whether papers bring anything to itemize.
pub fn anything(own: &Records) -> bool {
    taxes::anything(own)
        || own.has(&home_loan::brings::LOANS)
        || own.has(&bringing::brings::MEDICAL)
        || [&gifts::brings::CASH, &gifts::brings::GOODS, &gifts::brings::PROPERTY]
            .into_iter()
            .any(|gifts| own.has(gifts))
        || own.has(&gifts::brings::CARRIED)
        || own.has(&investment_interest::brings::PAID)
        || own.has(&investment_interest::brings::CARRIED)
        || other::anything(own)
}

/// Computes Schedule A, whether or not the return takes it: gifts are carried over either way.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Itemized {
    let agi = income.agi;
    let medical = medical::reckon(on, trail, agi);
    let local = taxes::reckon(on, trail, agi);
    let foreign = foreign_tax::deducted(on, trail);
    let home_loan = home_loan::reckon(on, trail);
    let invested = investment_interest::reckon(on, trail, income);
    let gifts = gifts::reckon(on, trail, agi);
    let other = other::reckon(on, trail);
    let taxes = local.allowed + foreign;
    let total =
        trail.line(L17, on.scope, medical + taxes + home_loan + invested.amount + gifts + other, |i| {
            i.line(medical::L4, on.scope, medical)
                .line(taxes::L5E, on.scope, local.allowed)
                .line(foreign_tax::L6, on.scope, foreign)
                .line(home_loan::L8E, on.scope, home_loan);
            if !invested.amount.is_zero() {
                i.line(investment_interest::L9, on.scope, invested.amount);
            }
            i.line(gifts::L14, on.scope, gifts).line(other::L16, on.scope, other);
        });
    Itemized { total, taxes, medical, general_taxes: local.general, home_loan, invested }
}

/// Schedule A: where the return itemizes.
pub fn required(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.unit.itemizes, "standard deduction taken")
}
