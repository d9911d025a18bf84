//! The rows of the Spread, in the order in which they add up.

use crate::{
    contributions, cpp_ei, dividends, federal, form_428, gifts, income, medical, ontario, payments,
    pension_split, personal, provincial, transfers, tuition, workers_benefit,
};
use hembo_core::line::{SpreadRow, SpreadSection};

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        folds: false,
        rows: &[
            SpreadRow::new("Employment income", None, income::EMPLOYMENT),
            SpreadRow::new("Old age security", None, income::OAS),
            SpreadRow::new("CPP benefits", None, income::BENEFITS),
            SpreadRow::new("Pensions", None, pension_split::PENSIONS),
            SpreadRow::new("Split pension received", None, pension_split::RECEIVED),
            SpreadRow::new("Taxable dividends", None, dividends::ALL),
            SpreadRow::new("Interest", None, income::INTEREST),
            SpreadRow::new("Other income", None, income::OTHER),
            SpreadRow::new("Net supplements", None, income::SUPPLEMENTS),
            SpreadRow::new("Total income", None, income::TOTAL).result(),
        ],
    },
    SpreadSection {
        title: "Taken off",
        folds: false,
        rows: &[
            SpreadRow::new("Pension plan contributions", None, income::RPP).minus(),
            SpreadRow::new("Retirement contributions", None, contributions::DEDUCTED).minus(),
            SpreadRow::new("Split pension given", None, pension_split::GIVEN).minus(),
            SpreadRow::new("Union dues", None, income::DUES).minus(),
            SpreadRow::new("Enhanced CPP", None, cpp_ei::ENHANCED).minus(),
            SpreadRow::new("Benefits repaid", None, income::REPAID).minus(),
            SpreadRow::new("Social benefits repayment", None, income::RECOVERY).minus(),
            SpreadRow::new("Net income", None, income::NET).result(),
            SpreadRow::new("Supplements taken off", None, income::EXEMPT).minus(),
            SpreadRow::new("Taxable income", None, income::TAXABLE).result(),
        ],
    },
    SpreadSection {
        title: "Amounts that make credits",
        folds: true,
        rows: &[
            SpreadRow::new("Basic personal amount", None, personal::BASIC_AMOUNT),
            SpreadRow::new("Age amount", None, personal::AGE_AMOUNT),
            SpreadRow::new("Spouse or partner amount", None, personal::SPOUSE),
            SpreadRow::new("Eligible dependant", None, personal::DEPENDANT),
            SpreadRow::new("CPP contributions", None, cpp_ei::CPP),
            SpreadRow::new("EI premiums", None, cpp_ei::EI),
            SpreadRow::new("Canada employment amount", None, personal::EMPLOYED),
            SpreadRow::new("Pension income amount", None, personal::PENSION),
            SpreadRow::new("Tuition used", None, tuition::USED),
            SpreadRow::new("Tuition from a child", None, tuition::FROM_CHILD),
            SpreadRow::new("Transferred from the partner", None, transfers::FROM_PARTNER),
            SpreadRow::new("Medical above the threshold", None, medical::ALLOWED),
            SpreadRow::new("Amounts together", None, federal::AMOUNTS).result(),
        ],
    },
    SpreadSection {
        title: "Handed on and claimed",
        folds: false,
        rows: &[
            SpreadRow::new("Tuition handed on", None, tuition::HANDED_ON),
            SpreadRow::new("Gifts claimed", None, gifts::CLAIMED),
        ],
    },
    SpreadSection {
        title: "Federal tax",
        folds: false,
        rows: &[
            SpreadRow::new("Tax on taxable income", None, federal::TAX).always(),
            SpreadRow::new("Credit for amounts", None, federal::FOR_AMOUNTS).minus(),
            SpreadRow::new("Credit for gifts", None, gifts::CREDIT).minus(),
            SpreadRow::new("Top-up credit", None, federal::TOP_UP).minus(),
            SpreadRow::new("Dividend tax credit", None, federal::DIVIDENDS).minus(),
            SpreadRow::new("Federal tax", None, federal::FEDERAL_TAX).result(),
        ],
    },
    SpreadSection {
        title: "Provincial tax",
        folds: false,
        rows: &[
            SpreadRow::new("Tax on taxable income, province", None, provincial::TAX).always(),
            SpreadRow::new("Credits, province", None, provincial::CREDIT).minus(),
            SpreadRow::new("Ontario surtax", None, ontario::SURTAX),
            SpreadRow::new("Dividend tax credit, province", None, form_428::DIVIDENDS).minus(),
            SpreadRow::new("Ontario tax reduction", None, ontario::REDUCTION).minus(),
            SpreadRow::new("Low-income workers' credit", None, ontario::LIFTED).minus(),
            SpreadRow::new("Ontario health premium", None, ontario::HEALTH),
            SpreadRow::new("Provincial tax", None, form_428::PROVINCIAL_TAX).result(),
        ],
    },
    SpreadSection {
        title: "Total and paid",
        folds: false,
        rows: &[
            SpreadRow::new("Benefits to repay", None, payments::REPAYMENT),
            SpreadRow::new("Medical supplement paid out", None, medical::PAID_OUT).minus(),
            SpreadRow::new("Workers benefit", None, workers_benefit::BENEFIT).minus(),
            SpreadRow::new("Seniors' care at home", None, ontario::CARE).minus(),
            SpreadRow::new("Total tax", None, payments::NET_TAX).result(),
            SpreadRow::new("Tax withheld", None, payments::WITHHELD).minus(),
            SpreadRow::new("CPP overpaid", None, cpp_ei::CPP_BACK).minus(),
            SpreadRow::new("EI overpaid", None, cpp_ei::EI_BACK).minus(),
            SpreadRow::new("Instalments", None, payments::INSTALMENTS).minus(),
            SpreadRow::new("Paid", None, payments::PAID).minus().subtotal(),
            SpreadRow::new("Balance", None, payments::BALANCE).result(),
        ],
    },
];
