//! Schedule A: itemized deductions, line by line.

pub mod casualty;
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
    /// The net qualified disaster loss, which goes with the standard deduction, too.
    pub disaster: Money,
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
            repaid: Money::ZERO,
            worksheet: None,
        }
    }
}

/// Whether papers bring anything to itemize.
pub fn anything(own: &Records) -> bool {
    taxes::anything(own)
        || own.has(&home_loan::brings::LOANS)
        || own.has(&home_loan::brings::INSURANCE)
        || own.has(&bringing::brings::MEDICAL)
        || gifts::anything(own)
        || own.has(&investment_interest::brings::PAID)
        || own.has(&investment_interest::brings::CARRIED)
        || casualty::anything(own)
        || other::anything(own)
}

/// Computes Schedule A, whether or not the return takes it: gifts are carried over either way.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Itemized {
    let agi = income.agi;
    let medical = medical::reckon(on, trail, agi);
    let local = taxes::reckon(on, trail, agi);
    let foreign = foreign_tax::deducted(on, trail);
    let home_loan = home_loan::reckon(on, trail, agi);
    let invested = investment_interest::reckon(on, trail, income);
    let gifts = gifts::reckon(on, trail, agi);
    let lost = casualty::reckon(on, trail, agi);
    let other = other::reckon(on, trail);
    let taxes = local.allowed + foreign;
    let parts = [
        (medical::L4, medical),
        (taxes::L5E, local.allowed),
        (foreign_tax::L6, foreign),
        (home_loan::L8E, home_loan),
        (investment_interest::L9, invested.amount),
        (gifts::L14, gifts),
        (casualty::L15, lost.declared),
        (casualty::QUALIFIED, lost.qualified),
        (other::L16, other),
    ];
    let total = trail.line(L17, on.scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    });
    Itemized {
        disaster: lost.qualified,
        total,
        taxes,
        medical,
        general_taxes: local.general,
        home_loan,
        invested,
    }
}

/// Schedule A: where the return itemizes, or has a qualified disaster loss with the standard deduction.
pub fn required(filed: Filed<'_>) -> Required {
    let taken = filed.on.unit.itemizes || filed.has(casualty::QUALIFIED);
    Required::if_so(taken, "standard deduction taken")
}
