//! The rows of the Spread, in the order in which they add up.

use crate::{
    additional_deductions, additional_taxes, business_deduction, capital_gains, child_credit,
    earned_income_credit, educators, excess_deferrals, foreign_tax, income, minimum_tax, payments,
    schedule_a::gifts, schedule_a::home_loan, schedule_a::medical, schedule_a::taxes, standard_deduction,
    tax, taxable_income, total_tax,
};
use hembo_core::line::{SpreadRow, SpreadSection};

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        folds: false,
        rows: &[
            SpreadRow::new("Wages", Some(income::WAGES), income::WAGES).always(),
            SpreadRow::new("Excess deferrals", Some(excess_deferrals::EXCESS), excess_deferrals::EXCESS),
            SpreadRow::new("Taxable interest", Some(income::INTEREST), income::INTEREST).always(),
            SpreadRow::new("Dividends", Some(income::DIVIDENDS), income::DIVIDENDS),
            SpreadRow::new("Capital gain or loss", Some(capital_gains::L7), capital_gains::L7),
        ],
    },
    SpreadSection {
        title: "Taken off first",
        folds: false,
        rows: &[
            SpreadRow::new("Educator expenses", Some(educators::L11), educators::L11).minus(),
            SpreadRow::new("Early withdrawal penalty", Some(income::PENALTY), income::PENALTY).minus(),
            SpreadRow::new("Adjusted gross income", Some(income::AGI), income::AGI).result(),
        ],
    },
    SpreadSection {
        title: "Taken off next",
        folds: false,
        rows: &[
            SpreadRow::new("Medical above the floor", Some(medical::FOR), medical::L4).minus().always(),
            SpreadRow::new("State and local taxes", Some(taxes::L5D), taxes::L5E).minus().always(),
            SpreadRow::new("Foreign tax deducted", Some(foreign_tax::L6), foreign_tax::L6).minus(),
            SpreadRow::new("Home-loan interest", Some(home_loan::L8A), home_loan::L8E).minus().always(),
            SpreadRow::new("Gifts to charity", Some(gifts::L14), gifts::L14).minus().always(),
            SpreadRow::new("Standard deduction", None, standard_deduction::STANDARD).minus().always(),
            SpreadRow::new("Qualified business income", None, business_deduction::L13A).minus(),
            SpreadRow::new(
                "Senior deduction",
                Some(additional_deductions::SENIOR_EACH),
                additional_deductions::L13B,
            )
            .minus(),
            SpreadRow::new("Taxable income", None, taxable_income::L15).result(),
        ],
    },
    SpreadSection {
        title: "Tax and credits",
        folds: false,
        rows: &[
            SpreadRow::new("Income tax", None, tax::L16).always(),
            SpreadRow::new("Alternative minimum tax", None, minimum_tax::MINIMUM_TAX),
            SpreadRow::new("Foreign tax credit", None, foreign_tax::CREDIT).minus(),
            SpreadRow::new("Child and dependent credits", Some(child_credit::EACH), child_credit::L19)
                .minus()
                .always(),
            SpreadRow::new("Other taxes", None, additional_taxes::L23),
            SpreadRow::new("Earned income credit", None, earned_income_credit::L27A).minus(),
            SpreadRow::new("Child credit paid out", None, child_credit::L28).minus(),
            SpreadRow::new("Total tax", None, total_tax::NET_TAX).result(),
        ],
    },
    SpreadSection {
        title: "Paid",
        folds: false,
        rows: &[
            SpreadRow::new("Withheld", Some(payments::L25D), payments::L25D).minus().always(),
            SpreadRow::new("Estimated payments", None, payments::L26).minus(),
            SpreadRow::new("Social security tax paid twice", None, payments::EXCESS).minus(),
            SpreadRow::new("Paid", Some(payments::L25D), payments::PAID).minus().subtotal(),
            SpreadRow::new("Balance", None, payments::BALANCE).result(),
        ],
    },
];
