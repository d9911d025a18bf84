//! The rows of the Spread, in the order in which they add up.

use hembo_core::line::{SpreadRow, SpreadSection};

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        rows: &[
            SpreadRow::new("Employment income", None, "ca.10100"),
            SpreadRow::new("Old age security", None, "ca.11300"),
            SpreadRow::new("CPP benefits", None, "ca.11400"),
            SpreadRow::new("Pensions", None, "ca.11500"),
            SpreadRow::new("Split pension received", None, "ca.11600"),
            SpreadRow::new("Taxable dividends", None, "ca.12000"),
            SpreadRow::new("Interest", None, "ca.12100"),
            SpreadRow::new("Other income", None, "ca.13000"),
            SpreadRow::new("Net supplements", None, "ca.14600"),
            SpreadRow::new("Total income", None, "ca.15000").result(),
        ],
    },
    SpreadSection {
        title: "Taken off",
        rows: &[
            SpreadRow::new("Pension plan contributions", None, "ca.20700").minus(),
            SpreadRow::new("Retirement contributions", None, "ca.20800").minus(),
            SpreadRow::new("Split pension given", None, "ca.21000").minus(),
            SpreadRow::new("Union dues", None, "ca.21200").minus(),
            SpreadRow::new("Enhanced CPP", None, "ca.22215").minus(),
            SpreadRow::new("Benefits repaid", None, "ca.23200").minus(),
            SpreadRow::new("Social benefits repayment", None, "ca.23500").minus(),
            SpreadRow::new("Net income", None, "ca.23600").result(),
            SpreadRow::new("Supplements taken off", None, "ca.25000").minus(),
            SpreadRow::new("Taxable income", None, "ca.26000").result(),
        ],
    },
    SpreadSection {
        title: "Amounts that make credits",
        rows: &[
            SpreadRow::new("Basic personal amount", None, "ca.30000"),
            SpreadRow::new("Age amount", None, "ca.30100"),
            SpreadRow::new("Spouse or partner amount", None, "ca.30300"),
            SpreadRow::new("Eligible dependant", None, "ca.30400"),
            SpreadRow::new("CPP contributions", None, "ca.30800"),
            SpreadRow::new("EI premiums", None, "ca.31200"),
            SpreadRow::new("Canada employment amount", None, "ca.31260"),
            SpreadRow::new("Pension income amount", None, "ca.31400"),
            SpreadRow::new("Tuition used", None, "ca.32300"),
            SpreadRow::new("Tuition from a child", None, "ca.32400"),
            SpreadRow::new("Transferred from the partner", None, "ca.32600"),
            SpreadRow::new("Medical above the threshold", None, "ca.33200"),
            SpreadRow::new("Amounts together", None, "ca.33500").result(),
        ],
    },
    SpreadSection {
        title: "Handed on and claimed",
        rows: &[
            SpreadRow::new("Tuition handed on", None, "ca.32700"),
            SpreadRow::new("Gifts claimed", None, "ca.34000"),
        ],
    },
    SpreadSection {
        title: "Federal tax",
        rows: &[
            SpreadRow::new("Tax on taxable income", None, "ca.40400").always(),
            SpreadRow::new("Credit for amounts", None, "ca.33800").minus(),
            SpreadRow::new("Credit for gifts", None, "ca.34900").minus(),
            SpreadRow::new("Top-up credit", None, "ca.34990").minus(),
            SpreadRow::new("Dividend tax credit", None, "ca.40425").minus(),
            SpreadRow::new("Federal tax", None, "ca.42900").result(),
        ],
    },
    SpreadSection {
        title: "Provincial tax",
        rows: &[
            SpreadRow::new("Tax on taxable income, province", None, "ca.428.tax").always(),
            SpreadRow::new("Credits, province", None, "ca.61500").minus(),
            SpreadRow::new("Ontario surtax", None, "ca.ontario.surtax"),
            SpreadRow::new("Dividend tax credit, province", None, "ca.61520").minus(),
            SpreadRow::new("Ontario tax reduction", None, "ca.ontario.reduction").minus(),
            SpreadRow::new("Low-income workers' credit", None, "ca.ontario.lift").minus(),
            SpreadRow::new("Ontario health premium", None, "ca.ontario.health"),
            SpreadRow::new("Provincial tax", None, "ca.42800").result(),
        ],
    },
    SpreadSection {
        title: "Total and paid",
        rows: &[
            SpreadRow::new("Benefits to repay", None, "ca.42200"),
            SpreadRow::new("Medical supplement paid out", None, "ca.45200").minus(),
            SpreadRow::new("Workers benefit", None, "ca.45300").minus(),
            SpreadRow::new("Seniors' care at home", None, "ca.47900").minus(),
            SpreadRow::new("Total tax", None, "ca.net_tax").result(),
            SpreadRow::new("Tax withheld", None, "ca.43700").minus(),
            SpreadRow::new("CPP overpaid", None, "ca.44800").minus(),
            SpreadRow::new("EI overpaid", None, "ca.45000").minus(),
            SpreadRow::new("Instalments", None, "ca.47600").minus(),
            SpreadRow::new("Balance", None, "ca.balance").result(),
        ],
    },
];
