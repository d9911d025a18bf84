//! The rows of the Spread, in the order in which they add up.

use crate::{
    certificates, donations, foreign_pay, foreign_tax, gains, home_office, income, investments, lump_sums,
    medical, other, payments, rental, retirement, tax, tax_free, trade, travel, turnover_tax,
};
use hembo_core::line::{SpreadRow, SpreadSection};

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        folds: false,
        rows: &[
            SpreadRow::new("Pay and benefits", None, certificates::TAXABLE),
            SpreadRow::new("Pay for work abroad", None, foreign_pay::PAY),
            SpreadRow::new("Exempt pay for work abroad", None, foreign_pay::EXEMPT).minus(),
            SpreadRow::new("Local interest", None, investments::INTEREST),
            SpreadRow::new("Exempt interest", None, investments::INTEREST_EXEMPT).minus(),
            SpreadRow::new("Foreign interest", None, investments::INTEREST_FOREIGN),
            SpreadRow::new("Foreign dividends, taxable part", None, investments::DIVIDENDS_TAXABLE),
            SpreadRow::new("Property companies", None, investments::PROPERTY),
            SpreadRow::new("Net rent", None, rental::NET),
            SpreadRow::new("Trade", None, trade::NET),
            SpreadRow::new("Other income", None, other::INCOME),
            SpreadRow::new("Other deductions", None, other::DEDUCTIONS).minus(),
            SpreadRow::new("Travel deduction", None, travel::CLAIM).minus(),
            SpreadRow::new("Home office", None, home_office::DEDUCTED).minus(),
            SpreadRow::new("Taxable capital gain", None, gains::TAXABLE),
            SpreadRow::new("Losses of earlier years", None, income::USED).minus(),
            SpreadRow::new("Income before contributions and gifts", None, income::BEFORE).result(),
        ],
    },
    SpreadSection {
        title: "Taken off",
        folds: false,
        rows: &[
            SpreadRow::new("Retirement contributions", None, retirement::DEDUCTED).minus(),
            SpreadRow::new("Gifts", None, donations::DEDUCTED).minus(),
            SpreadRow::new("Taxable income", None, income::TAXABLE).result(),
        ],
    },
    SpreadSection {
        title: "Tax",
        folds: false,
        rows: &[
            SpreadRow::new("Tax by the table", None, tax::TABLE).always(),
            SpreadRow::new("Rebates", None, tax::REBATES).minus(),
            SpreadRow::new("Medical scheme credit", None, medical::CREDIT).minus(),
            SpreadRow::new("Additional medical credit", None, medical::ADDITIONAL).minus(),
            SpreadRow::new("Solar panels", None, tax::SOLAR_CREDIT).minus(),
            SpreadRow::new("Foreign tax", None, foreign_tax::CREDIT).minus(),
            SpreadRow::new("Normal tax", None, tax::NORMAL).result(),
            SpreadRow::new("Tax-free accounts, above the most", None, tax_free::PENALTY),
            SpreadRow::new("Lump sums", None, lump_sums::TAX),
            SpreadRow::new("Turnover tax", None, turnover_tax::TAX),
            SpreadRow::new("Tax of the year", None, payments::TOTAL).result(),
        ],
    },
    SpreadSection {
        title: "Paid and left",
        folds: false,
        rows: &[
            SpreadRow::new("PAYE", None, payments::PAYE).minus(),
            SpreadRow::new("PAYE on lump sums", None, payments::LUMP_PAYE).minus(),
            SpreadRow::new("Provisional payments", None, payments::PROVISIONAL).minus(),
            SpreadRow::new("Paid", None, payments::PAID).minus().subtotal(),
            SpreadRow::new("Stays on the account", None, payments::KEPT).minus(),
            SpreadRow::new("Payable, or back", None, payments::BALANCE).result(),
        ],
    },
];
