//! The rows of the Spread, in the order in which they add up.

use crate::{
    assessment, benefits, burdens, capital, charges, children, credits, employment, other_income, payments,
    pensions, provision, riester, special,
};
use hembo_core::line::{SpreadRow, SpreadSection};

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        folds: false,
        rows: &[
            SpreadRow::new("Employment", Some(employment::INCOME), assessment::WAGES),
            SpreadRow::new("Farming", Some(other_income::FARM), assessment::FARMING),
            SpreadRow::new("Trade", Some(other_income::TRADE), assessment::TRADES),
            SpreadRow::new("Self-employment", Some(other_income::FREELANCE), assessment::SELF_EMPLOYED),
            SpreadRow::new("Capital by the tariff", Some(capital::IN_TARIFF), assessment::CAPITAL),
            SpreadRow::new("Letting", Some(other_income::RENTAL), assessment::LETTING),
            SpreadRow::new("Pensions", Some(pensions::INCOME), assessment::PENSIONS),
            SpreadRow::new("Occasional services", Some(other_income::SERVICES), assessment::SERVICES),
            SpreadRow::new("Private sales", Some(other_income::SALES), assessment::SALES),
            SpreadRow::new("Sum of income", Some(assessment::OWN), assessment::SUM).result(),
            SpreadRow::new("Relief of old age", Some(pensions::RELIEF), assessment::RELIEF).minus(),
            SpreadRow::new("Relief of who is alone", None, children::ALONE).minus(),
            SpreadRow::new("Total income", None, assessment::TOTAL).result(),
        ],
    },
    SpreadSection {
        title: "Taken off",
        folds: false,
        rows: &[
            SpreadRow::new("Provision", None, provision::ALL).minus(),
            SpreadRow::new("Special expenses", None, special::TAKEN).minus(),
            SpreadRow::new("Burdens", None, burdens::ALL).minus(),
            SpreadRow::new("Subsidised contracts", None, riester::DEDUCTED).minus(),
            SpreadRow::new("Allowances of children", None, children::ALLOWANCES).minus(),
            SpreadRow::new("Taxable income", None, assessment::TAXABLE).result(),
        ],
    },
    SpreadSection {
        title: "Tax",
        folds: false,
        rows: &[
            SpreadRow::new("Under the progression clause", None, benefits::ALL),
            SpreadRow::new("Tax by the tariff", None, assessment::TARIFF).always(),
            SpreadRow::new("Credits", None, credits::ALL).minus(),
            SpreadRow::new("Flat tax on capital", None, capital::FLAT),
            SpreadRow::new("Allowances of contracts added", None, riester::ADDED),
            SpreadRow::new("Kindergeld added", None, children::BENEFIT),
            SpreadRow::new("Income tax", None, payments::INCOME_TAX).result(),
            SpreadRow::new("Solidarity surcharge", None, charges::SURCHARGE),
            SpreadRow::new("Church tax", None, charges::CHURCH),
            SpreadRow::new("Taxes of the year", None, payments::TOTAL).result(),
        ],
    },
    SpreadSection {
        title: "Paid and left",
        folds: false,
        rows: &[
            SpreadRow::new("Withheld and prepaid", None, payments::PAID).minus(),
            SpreadRow::new("To pay, or back", None, payments::BALANCE).result(),
        ],
    },
];
