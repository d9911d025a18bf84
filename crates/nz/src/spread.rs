//! The rows of the Spread, in the order in which they add up.

use crate::{
    donations, families, family_boost, foreign_funds, income, investments, land, managed_funds, other,
    overseas, pay, payments, rental, tax, trade, trusts,
};
use hembo_core::line::{SpreadRow, SpreadSection};

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        folds: false,
        rows: &[
            SpreadRow::new("Wages, benefits, pensions", None, pay::GROSS),
            SpreadRow::new("Schedular payments", None, pay::SCHEDULAR_GROSS),
            SpreadRow::new("Expenses against them", None, pay::SCHEDULAR_EXPENSES).minus(),
            SpreadRow::new("Interest", None, investments::INTEREST_GROSS),
            SpreadRow::new("Dividends", None, investments::DIVIDENDS_GROSS),
            SpreadRow::new("Māori authority distributions", None, investments::AUTHORITY_GROSS),
            SpreadRow::new("Trust and estate income", None, trusts::TRUST_GROSS),
            SpreadRow::new("Partnership income", None, trusts::PARTNERSHIP_GROSS),
            SpreadRow::new("Look-through company income", None, trusts::LOOK_THROUGH_GROSS),
            SpreadRow::new("Shareholder-employee salary", None, trusts::SHAREHOLDER_SALARY),
            SpreadRow::new("Overseas income", None, overseas::INCOME),
            SpreadRow::new("Foreign fund income", None, foreign_funds::INCOME),
            SpreadRow::new("Net residential income", None, rental::NET),
            SpreadRow::new("Bright-line profit", None, land::PROFIT),
            SpreadRow::new("Self-employment", None, trade::NET),
            SpreadRow::new("Other income", None, other::INCOME),
            SpreadRow::new("Total income", None, income::TOTAL).result(),
        ],
    },
    SpreadSection {
        title: "Taken off",
        folds: false,
        rows: &[
            SpreadRow::new("Other expenses", None, other::EXPENSES).minus(),
            SpreadRow::new("Net income", None, income::NET).result(),
            SpreadRow::new("Losses brought forward", None, income::USED).minus(),
            SpreadRow::new("Taxable income", None, income::TAXABLE).result(),
        ],
    },
    SpreadSection {
        title: "Tax",
        folds: false,
        rows: &[
            SpreadRow::new("Tax by the scale", None, tax::TAX).always(),
            SpreadRow::new("Foreign tax credit", None, overseas::CREDIT).minus(),
            SpreadRow::new("Independent earner credit", None, tax::EARNER).minus(),
            SpreadRow::new("Imputation credits", None, tax::IMPUTATION_USED).minus(),
            SpreadRow::new("Tax after credits", None, tax::AFTER_CREDITS).result(),
        ],
    },
    SpreadSection {
        title: "Beside the assessment",
        folds: false,
        rows: &[
            SpreadRow::new("Tax of managed funds", None, managed_funds::DUE),
            SpreadRow::new("Donation credit", None, donations::CREDIT).minus(),
            SpreadRow {
                subtotal: true,
                ..SpreadRow::new("Working for Families", None, families::TOGETHER).minus()
            },
            SpreadRow { subtotal: true, ..SpreadRow::new("FamilyBoost", None, family_boost::CREDIT).minus() },
            SpreadRow::new("Family credits counted", None, payments::FAMILY_COUNTED).minus(),
            SpreadRow::new("Total tax", None, payments::NET_TAX).result(),
        ],
    },
    SpreadSection {
        title: "Paid and left",
        folds: false,
        rows: &[
            SpreadRow::new("Withheld", None, payments::WITHHELD).minus(),
            SpreadRow::new("Paid by managed funds", None, managed_funds::PAID).minus(),
            SpreadRow::new("Provisional tax paid", None, payments::PROVISIONAL).minus(),
            SpreadRow::new("Paid", None, payments::PAID).minus().subtotal(),
            SpreadRow::new("Donation credit, refunded apart", None, donations::CREDIT),
            SpreadRow::new("Family credits, paid apart", None, payments::FAMILY_COUNTED),
            SpreadRow::new("Written off", None, payments::WRITTEN_OFF).minus(),
            SpreadRow::new("Due, or back", None, payments::BALANCE).result(),
        ],
    },
];
