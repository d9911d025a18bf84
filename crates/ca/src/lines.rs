//! Every line, limit and row of the Spread that this pack computes, in the order of the computation.

use hembo_core::{
    limit::LimitDef,
    line::{LineDef, SpreadRow, SpreadSection},
};

const fn line(
    id: &'static str,
    label: &'static str,
    place: &'static str,
    cite: &'static str,
    how: &'static str,
) -> LineDef {
    LineDef::new(id, label, place, cite, how)
}

/// Every line.
pub static LINES: &[LineDef] = &[
    line("ca.10100", "Employment income", "T1, line 10100", "ITA 5, 6", "Box 14 of every T4."),
    line("ca.11300", "Old age security", "T1, line 11300", "ITA 56(1)(a)(i)", "Box 18 of the T4A(OAS)."),
    line("ca.11400", "CPP benefits", "T1, line 11400", "ITA 56(1)(a)(i)(B)", "Box 20 of every T4A(P)."),
    line(
        "ca.11500",
        "Pensions",
        "T1, line 11500",
        "ITA 56(1)(a)(i)",
        "Box 016 of every T4A; from 65 on, or on a spouse's death, boxes 024, 133 and 194 too.",
    ),
    line(
        "ca.11600",
        "Split pension received",
        "T1, line 11600; form T1032",
        "ITA 56(1)(a.2)",
        "The amount that the partner gives by joint election.",
    ),
    line(
        "ca.12000",
        "Taxable dividends",
        "T1, line 12000",
        "ITA 82(1)",
        "Eligible and other dividends, grossed up.",
    ),
    line(
        "ca.12010",
        "Of these other than eligible",
        "T1, line 12010",
        "ITA 82(1)(b)(i)",
        "Box 11 of every T5, or box 10 grossed up.",
    ),
    line(
        "ca.12100",
        "Interest and other investment income",
        "T1, line 12100",
        "ITA 12(1)(c)",
        "Boxes 13, 14, 15 and 19 of every T5.",
    ),
    line(
        "ca.13000",
        "Other income",
        "T1, line 13000",
        "ITA 56(1)",
        "Boxes 018 and 028 of every T4A, and annuities that are no pension yet.",
    ),
    line("ca.14600", "Net federal supplements", "T1, line 14600", "ITA 56(1)(v)", "Box 21 of the T4A(OAS)."),
    line("ca.15000", "Total income", "T1, line 15000", "ITA 3", "All income lines."),
    line(
        "ca.20700",
        "Registered pension plan",
        "T1, line 20700",
        "ITA 8(1)(m), 147.2",
        "Box 20 of every T4 and box 032 of every T4A.",
    ),
    line(
        "ca.rrsp.available",
        "Contributions to deduct",
        "Schedule 7",
        "ITA 146(5), (5.1)",
        "Contributions of this year and its first 60 days after, and unused ones of earlier years, less repayments.",
    ),
    line(
        "ca.20800",
        "Retirement contributions deducted",
        "T1, line 20800; Schedule 7",
        "ITA 146(5), (5.1)",
        "As much of what is there as the way deducts now, within the deduction limit.",
    ),
    line(
        "ca.rrsp.carried",
        "Contributions kept for later",
        "Schedule 7",
        "ITA 146(5)",
        "What is not deducted now can be deducted in any later year.",
    ),
    line(
        "ca.21000",
        "Split pension given",
        "T1, line 21000; form T1032",
        "ITA 60(c), 60.03",
        "At most a half of eligible pension income for the months as a couple, by joint election.",
    ),
    line("ca.21200", "Union dues", "T1, line 21200", "ITA 8(1)(i)", "Box 44 of every T4."),
    line(
        "ca.22215",
        "Enhanced CPP contributions",
        "T1, line 22215; Schedule 8",
        "ITA 60(e.1)",
        "The enhanced part of box 16 and all of box 16A, as far as the plan asks for them.",
    ),
    line("ca.23200", "Benefits repaid", "T1, line 23200", "ITA 60(n)", "Box 20 of the T4A(OAS)."),
    line(
        "ca.23300",
        "Deductions",
        "T1, line 23300",
        "ITA 60",
        "All deductions before the benefits repayment.",
    ),
    line(
        "ca.23400",
        "Net income before adjustments",
        "T1, line 23400",
        "ITA 180.2(1)",
        "Total income less the deductions.",
    ),
    line(
        "ca.23500",
        "Social benefits repayment",
        "T1, line 23500",
        "ITA 60(w), 180.2",
        "A part of income above the threshold, at most the old age security paid.",
    ),
    line(
        "ca.23600",
        "Net income",
        "T1, line 23600",
        "ITA 3",
        "Net income before adjustments less the repayment; never below zero.",
    ),
    line(
        "ca.25000",
        "Other payments deducted",
        "T1, line 25000",
        "ITA 110(1)(f)",
        "Supplements, as far as they are not repaid.",
    ),
    line(
        "ca.26000",
        "Taxable income",
        "T1, line 26000",
        "ITA 2(2)",
        "Net income less the deductions after it.",
    ),
    line(
        "ca.40400",
        "Tax on taxable income",
        "T1, step 5",
        "ITA 117(2)",
        "Each rate on its slice of taxable income.",
    ),
    line(
        "ca.30000",
        "Basic personal amount",
        "T1, line 30000",
        "ITA 118(1)B(c), 118(1.1)",
        "Less where net income reaches the fourth bracket, least from the fifth on.",
    ),
    line("ca.30100", "Age amount", "T1, line 30100", "ITA 118(2)", "From 65 on; shrinks with net income."),
    line(
        "ca.30300",
        "Spouse or partner amount",
        "T1, line 30300",
        "ITA 118(1)B(a)",
        "The basic amount less the partner's net income.",
    ),
    line(
        "ca.30400",
        "Eligible dependant",
        "T1, line 30400",
        "ITA 118(1)B(b)",
        "The basic amount less the dependant's net income, where there is no partner.",
    ),
    line(
        "ca.30800",
        "CPP contributions",
        "T1, line 30800; Schedule 8",
        "ITA 118.7",
        "The base part of box 16.",
    ),
    line("ca.31200", "EI premiums", "T1, line 31200", "ITA 118.7", "Box 18, as far as the law asks for it."),
    line(
        "ca.31260",
        "Canada employment amount",
        "T1, line 31260",
        "ITA 118(10)",
        "Employment income up to a most.",
    ),
    line(
        "ca.31400",
        "Pension income amount",
        "T1, line 31400",
        "ITA 118(3)",
        "Eligible pension income after the split, up to a most.",
    ),
    line(
        "ca.32300",
        "Tuition used",
        "T1, line 32300; Schedule 11",
        "ITA 118.5, 118.61",
        "What covers the student's own tax comes first: unused of earlier years, then this year's.",
    ),
    line(
        "ca.32700",
        "Tuition handed on",
        "Schedule 11, line 32700",
        "ITA 118.8, 118.9",
        "As much as the way hands on of what is left of this year's fees.",
    ),
    line(
        "ca.tuition.carried",
        "Tuition kept for later",
        "Schedule 11",
        "ITA 118.61",
        "Neither used nor handed on; only the student can use it.",
    ),
    line(
        "ca.32400",
        "Tuition from a child",
        "T1, line 32400",
        "ITA 118.9",
        "What a child or grandchild hands on.",
    ),
    line(
        "ca.32600",
        "Transferred from the partner",
        "T1, line 32600; Schedule 2",
        "ITA 118.8",
        "Age, pension and tuition that the partner's income does not need.",
    ),
    line(
        "ca.33099",
        "Medical bills of the window",
        "T1, line 33099",
        "ITA 118.2(1)",
        "Receipts of the twelve months, less what was paid back.",
    ),
    line(
        "ca.33200",
        "Medical above the threshold",
        "T1, line 33200",
        "ITA 118.2(1)",
        "Above a part of net income, or the most of the threshold.",
    ),
    line("ca.33500", "Amounts together", "T1, line 33500", "ITA 118-118.9", "All non-refundable amounts."),
    line("ca.33800", "Credit for amounts", "T1, line 33800", "ITA 118", "Amounts at the lowest rate."),
    line(
        "ca.34000",
        "Gifts claimed",
        "Schedule 9, line 34000",
        "ITA 118.1(1)",
        "As much of the pool as the way claims here, at most a part of net income.",
    ),
    line(
        "ca.gifts.carried",
        "Gifts kept for later",
        "Schedule 9",
        "ITA 118.1(1)",
        "What neither partner claims, for five years.",
    ),
    line(
        "ca.34900",
        "Credit for gifts",
        "T1, line 34900; Schedule 9",
        "ITA 118.1(3)",
        "The first tier at the lowest rate, the rest at the higher ones.",
    ),
    line(
        "ca.34990",
        "Top-up credit",
        "T1, line 34990",
        "2025 budget legislation",
        "Amounts above the first bracket keep the rate of the years before.",
    ),
    line(
        "ca.35000",
        "Non-refundable credits",
        "T1, line 35000",
        "ITA 118-118.9",
        "Credits for amounts and gifts.",
    ),
    line(
        "ca.40425",
        "Dividend tax credit",
        "T1, line 40425",
        "ITA 121",
        "A part of the taxable amount of dividends.",
    ),
    line(
        "ca.42900",
        "Federal tax",
        "T1, line 42900",
        "ITA 117-127",
        "Tax less the credits, never below zero.",
    ),
    line(
        "ca.428.tax",
        "Provincial tax on taxable income",
        "Form 428",
        "provincial act",
        "Each rate of the province on its slice.",
    ),
    line(
        "ca.58040",
        "Basic personal amount, province",
        "Form 428, line 58040",
        "provincial act",
        "The figure of the province.",
    ),
    line(
        "ca.58080",
        "Age amount, province",
        "Form 428, line 58080",
        "provincial act",
        "From 65 on; shrinks with net income.",
    ),
    line(
        "ca.58120",
        "Spouse or partner amount, province",
        "Form 428, line 58120",
        "provincial act",
        "A base less the partner's net income, at most so much.",
    ),
    line(
        "ca.58160",
        "Eligible dependant, province",
        "Form 428, line 58160",
        "provincial act",
        "A base less the dependant's net income, at most so much.",
    ),
    line(
        "ca.58360",
        "Pension income amount, province",
        "Form 428, line 58360",
        "provincial act",
        "Eligible pension income after the split, up to a most.",
    ),
    line(
        "ca.58560",
        "Tuition of earlier years, province",
        "Form 428, line 58560",
        "provincial act",
        "Unused amounts, as far as tax is left.",
    ),
    line(
        "ca.tuition.carried_provincial",
        "Provincial tuition kept for later",
        "Provincial Schedule 11",
        "provincial act",
        "Unused amounts that are left.",
    ),
    line(
        "ca.58640",
        "Transferred from the partner, province",
        "Form 428, line 58640",
        "provincial act",
        "Age and pension amounts that the partner's income does not need.",
    ),
    line(
        "ca.58769",
        "Medical above the threshold, province",
        "Form 428, line 58769",
        "provincial act",
        "The same receipts with the threshold of the province.",
    ),
    line(
        "ca.58800",
        "Amounts together, province",
        "Form 428, line 58800",
        "provincial act",
        "All non-refundable amounts.",
    ),
    line(
        "ca.58840",
        "Credit for amounts, province",
        "Form 428, line 58840",
        "provincial act",
        "Amounts at the credit rate of the province.",
    ),
    line(
        "ca.58969",
        "Credit for gifts, province",
        "Form 428, line 58969",
        "provincial act",
        "The same gifts at the rates of the province.",
    ),
    line(
        "ca.alberta.supplement",
        "Supplemental credit",
        "AB428",
        "Alberta Personal Income Tax Act",
        "Amounts above the first bracket keep the rate of the years before.",
    ),
    line(
        "ca.61500",
        "Non-refundable credits, province",
        "Form 428, line 61500",
        "provincial act",
        "Credits for amounts and gifts.",
    ),
    line(
        "ca.428.basic",
        "Basic provincial tax",
        "Form 428",
        "provincial act",
        "Tax less the credits, never below zero.",
    ),
    line(
        "ca.61520",
        "Dividend tax credit, province",
        "Form 428, line 61520",
        "provincial act",
        "A part of the taxable amount of dividends.",
    ),
    line(
        "ca.ontario.surtax",
        "Ontario surtax",
        "ON428",
        "Taxation Act, 2007, s. 16",
        "A part of basic Ontario tax above two thresholds.",
    ),
    line(
        "ca.ontario.before",
        "Ontario tax before the reduction",
        "ON428",
        "Taxation Act, 2007",
        "Basic tax and surtax less the dividend credit.",
    ),
    line(
        "ca.ontario.reduction",
        "Ontario tax reduction",
        "ON428",
        "Taxation Act, 2007, s. 21",
        "Twice the basic amounts less the tax; children count with the higher net income.",
    ),
    line(
        "ca.ontario.lift",
        "Low-income workers' credit",
        "ON428-A, line 62140",
        "Taxation Act, 2007, s. 21.1",
        "A part of employment income, less a part of income above thresholds.",
    ),
    line(
        "ca.ontario.health",
        "Ontario health premium",
        "ON428",
        "Taxation Act, 2007, s. 24.1",
        "By ramps of taxable income; no credit takes from it.",
    ),
    line(
        "ca.42800",
        "Provincial tax",
        "T1, line 42800; form 428",
        "provincial act",
        "Provincial tax after its credits.",
    ),
    line(
        "ca.42200",
        "Social benefits repayment",
        "T1, line 42200",
        "ITA 180.2",
        "The amount of line 23500 is payable.",
    ),
    line(
        "ca.43500",
        "Total payable",
        "T1, line 43500",
        "ITA 2, 180.2",
        "Federal and provincial tax and the repayment.",
    ),
    line(
        "ca.45200",
        "Medical supplement paid out",
        "T1, line 45200",
        "ITA 122.51",
        "A part of the medical claim, less a part of family income; refundable.",
    ),
    line(
        "ca.net_tax",
        "Total tax",
        "lines 43500 less 45200",
        "ITA 2, 122.51",
        "What the return costs for good.",
    ),
    line(
        "ca.withheld.moved",
        "Withheld tax that moves with the split",
        "form T1032",
        "ITA 60.03",
        "Tax on the pension in the proportion of what was split.",
    ),
    line(
        "ca.43700",
        "Tax withheld",
        "T1, line 43700",
        "ITA 153",
        "From every slip, with what moved with a split pension.",
    ),
    line(
        "ca.44800",
        "CPP overpaid",
        "T1, line 44800; Schedule 8",
        "CPP s. 38",
        "Contributions above what the plan asks for.",
    ),
    line("ca.45000", "EI overpaid", "T1, line 45000", "EIA s. 96", "Premiums above what the law asks for."),
    line("ca.47600", "Instalments", "T1, line 47600", "ITA 156", "Paid during the year."),
    line(
        "ca.paid",
        "Paid during the year",
        "T1, line 48200",
        "ITA 153, 156",
        "Withheld, overpaid and instalments.",
    ),
    line("ca.balance", "Balance", "T1, line 48500 or 48400", "ITA 156.1", "Total tax less what was paid."),
];

/// ITA 180.2(2).
pub static OAS_RECOVERY: LimitDef = LimitDef {
    id: "ca.limit.oas",
    label: "Old age security",
    how: "shrinks with income above the threshold",
    line: "ca.23500",
    cite: "ITA 180.2(2)",
};
/// ITA 146(5).
pub static RRSP_LIMIT: LimitDef = LimitDef {
    id: "ca.limit.rrsp",
    label: "Retirement contributions",
    how: "over the deduction limit, kept for later",
    line: "ca.20800",
    cite: "ITA 146(5)",
};
/// ITA 118(1.1).
pub static BASIC: LimitDef = LimitDef {
    id: "ca.limit.basic",
    label: "Basic personal amount",
    how: "shrinks through the fourth bracket",
    line: "ca.30000",
    cite: "ITA 118(1.1)",
};
/// ITA 118(2).
pub static AGE: LimitDef = LimitDef {
    id: "ca.limit.age",
    label: "Age amount",
    how: "shrinks with net income",
    line: "ca.30100",
    cite: "ITA 118(2)",
};
/// provincial act.
pub static AGE_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.age_provincial",
    label: "Age amount, province",
    how: "shrinks with net income",
    line: "ca.58080",
    cite: "provincial act",
};
/// ITA 118(1)B(a).
pub static SPOUSE: LimitDef = LimitDef {
    id: "ca.limit.spouse",
    label: "Spouse or partner amount",
    how: "less the partner's net income",
    line: "ca.30300",
    cite: "ITA 118(1)B(a)",
};
/// provincial act.
pub static SPOUSE_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.spouse_provincial",
    label: "Spouse or partner amount, province",
    how: "less the partner's net income",
    line: "ca.58120",
    cite: "provincial act",
};
/// ITA 118(1)B(b).
pub static DEPENDANT: LimitDef = LimitDef {
    id: "ca.limit.dependant",
    label: "Eligible dependant",
    how: "less the dependant's net income",
    line: "ca.30400",
    cite: "ITA 118(1)B(b)",
};
/// provincial act.
pub static DEPENDANT_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.dependant_provincial",
    label: "Eligible dependant, province",
    how: "less the dependant's net income",
    line: "ca.58160",
    cite: "provincial act",
};
/// ITA 118.8, 118.9.
pub static TUITION_TRANSFER: LimitDef = LimitDef {
    id: "ca.limit.tuition",
    label: "Tuition handed on",
    how: "over the most that may be transferred",
    line: "ca.32700",
    cite: "ITA 118.8, 118.9",
};
/// ITA 118.2(1).
pub static MEDICAL: LimitDef = LimitDef {
    id: "ca.limit.medical",
    label: "Medical bills",
    how: "only above the threshold",
    line: "ca.33200",
    cite: "ITA 118.2(1)",
};
/// provincial act.
pub static MEDICAL_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.medical_provincial",
    label: "Medical bills, province",
    how: "only above the threshold",
    line: "ca.58769",
    cite: "provincial act",
};
/// ITA 122.51.
pub static SUPPLEMENT: LimitDef = LimitDef {
    id: "ca.limit.supplement",
    label: "Medical supplement",
    how: "shrinks with family income",
    line: "ca.45200",
    cite: "ITA 122.51",
};
/// ITA 118.1(1).
pub static GIFTS: LimitDef = LimitDef {
    id: "ca.limit.gifts",
    label: "Gifts",
    how: "over the part of net income, kept for later",
    line: "ca.34000",
    cite: "ITA 118.1(1)",
};
/// ITA 118-118.9.
pub static CREDITS: LimitDef = LimitDef {
    id: "ca.limit.credits",
    label: "Federal credits",
    how: "beyond the tax, lost",
    line: "ca.35000",
    cite: "ITA 118-118.9",
};
/// provincial act.
pub static CREDITS_PROVINCIAL: LimitDef = LimitDef {
    id: "ca.limit.credits_provincial",
    label: "Provincial credits",
    how: "beyond the tax, lost",
    line: "ca.61500",
    cite: "provincial act",
};
/// Taxation Act, 2007, s. 21.1.
pub static LIFT: LimitDef = LimitDef {
    id: "ca.limit.lift",
    label: "Low-income workers' credit",
    how: "shrinks with income",
    line: "ca.ontario.lift",
    cite: "Taxation Act, 2007, s. 21.1",
};

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
        title: "Federal tax",
        rows: &[
            SpreadRow::new("Tax on taxable income", None, "ca.40400").always(),
            SpreadRow::new("Credit for amounts", None, "ca.33800").minus(),
            SpreadRow::new("Tuition handed on", None, "ca.32700"),
            SpreadRow::new("Tuition from a child", None, "ca.32400"),
            SpreadRow::new("Transferred from the partner", None, "ca.32600"),
            SpreadRow::new("Medical above the threshold", None, "ca.33200"),
            SpreadRow::new("Gifts claimed", None, "ca.34000"),
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
            SpreadRow::new("Total tax", None, "ca.net_tax").result(),
            SpreadRow::new("Tax withheld", None, "ca.43700").minus(),
            SpreadRow::new("CPP overpaid", None, "ca.44800").minus(),
            SpreadRow::new("EI overpaid", None, "ca.45000").minus(),
            SpreadRow::new("Instalments", None, "ca.47600").minus(),
            SpreadRow::new("Balance", None, "ca.balance").result(),
        ],
    },
];
