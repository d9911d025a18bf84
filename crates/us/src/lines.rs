//! Every line, limit and row of the Spread that this pack computes, in the order of the computation.

use hembo_core::{
    limit::LimitDef,
    line::{LineDef, SpreadRow, SpreadSection, line},
};

/// Every line.
pub static LINES: &[LineDef] = &[
    line(
        "us.1a",
        "Wages",
        "Form 1040, line 1a",
        "IRC §61(a)(1)",
        "Box 1 of every Form W-2, added with cents and rounded once.",
    ),
    line(
        "us.2a",
        "Tax-exempt interest",
        "Form 1040, line 2a",
        "IRC §103",
        "Box 8 of every Form 1099-INT, less the premium in box 13.",
    ),
    line(
        "us.2b",
        "Taxable interest",
        "Form 1040, line 2b",
        "IRC §61(a)(4)",
        "Boxes 1, 3 and 10 of every Form 1099-INT, less the premiums in boxes 11 and 12.",
    ),
    line("us.9", "Total income", "Form 1040, line 9", "IRC §61", "Wages and taxable interest."),
    line(
        "us.penalty",
        "Early withdrawal penalty",
        "Schedule 1, line 18",
        "IRC §62(a)(9)",
        "Box 2 of every Form 1099-INT, in full.",
    ),
    line(
        "us.agi",
        "Adjusted gross income",
        "Form 1040, line 11a",
        "IRC §62",
        "Total income less the adjustments.",
    ),
    line(
        "us.medical.for",
        "Medical bills for this person",
        "Schedule A, part of line 1",
        "IRC §213(d)",
        "Receipts by patient; long-term care premiums to the limit of the age.",
    ),
    line(
        "us.sched_a.1",
        "Medical bills that count",
        "Schedule A, line 1",
        "IRC §213(a), (d)",
        "Receipts for the filers and their dependents, less what was paid back.",
    ),
    line(
        "us.sched_a.3",
        "The floor",
        "Schedule A, line 3",
        "IRC §213(a)",
        "A part of adjusted gross income, to the whole dollar.",
    ),
    line(
        "us.sched_a.4",
        "Medical above the floor",
        "Schedule A, line 4",
        "IRC §213(a)",
        "The part above the floor, never less than zero.",
    ),
    line(
        "us.sched_a.5a",
        "State income or sales tax",
        "Schedule A, line 5a",
        "IRC §164(a)(3), (b)(5)",
        "Income tax withheld and paid, or general sales tax: one of them.",
    ),
    line(
        "us.sched_a.5b",
        "Real estate tax",
        "Schedule A, line 5b",
        "IRC §164(a)(1)",
        "Bills paid, and box 10 of Form 1098.",
    ),
    line(
        "us.sched_a.5c",
        "Personal property tax",
        "Schedule A, line 5c",
        "IRC §164(a)(2)",
        "Charged yearly on the value.",
    ),
    line("us.sched_a.5d", "State and local taxes paid", "Schedule A, line 5d", "IRC §164", "Lines 5a to 5c."),
    line(
        "us.sched_a.cap",
        "The cap on these taxes",
        "Schedule A, line 5e worksheet",
        "IRC §164(b)(6), (7)",
        "The full cap less a part of income above the threshold, not below its floor.",
    ),
    line(
        "us.sched_a.5e",
        "State and local taxes",
        "Schedule A, line 5e",
        "IRC §164(b)(6)",
        "The smaller of what was paid and the cap.",
    ),
    line(
        "us.loan.balance",
        "Average loan balances",
        "Pub. 936, Table 1, line 12",
        "IRC §163(h)(3)",
        "Half of the first and the last balance of the year, or the lender's figure.",
    ),
    line(
        "us.loan.limit",
        "The loan limit",
        "Pub. 936, Table 1, line 11",
        "IRC §163(h)(3)(B), (F)",
        "The balances that count, up to the limits for newer and older loans.",
    ),
    line(
        "us.sched_a.8a",
        "Home-loan interest paid",
        "Schedule A, lines 8a to 8c",
        "IRC §163(h)(3)",
        "Box 1 of Form 1098, and points on a purchase.",
    ),
    line(
        "us.sched_a.8e",
        "Home-loan interest",
        "Schedule A, line 8e",
        "IRC §163(h)(3)",
        "Interest × loan limit ÷ average balances, to three places.",
    ),
    line(
        "us.sched_a.11",
        "Gifts of cash",
        "Schedule A, line 11",
        "IRC §170(a), (i)",
        "Cash gifts, and miles driven for a charity.",
    ),
    line(
        "us.sched_a.12",
        "Gifts of goods",
        "Schedule A, line 12",
        "IRC §170(e)",
        "Used goods at their market value.",
    ),
    line(
        "us.sched_a.13",
        "Gifts carried over, used",
        "Schedule A, line 13",
        "IRC §170(d)(1)",
        "Oldest first, up to what the limits leave.",
    ),
    line(
        "us.gifts.carried_cash",
        "Cash gifts into next year",
        "Pub. 526, carryovers",
        "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.",
    ),
    line(
        "us.gifts.carried_goods",
        "Gifts of goods into next year",
        "Pub. 526, carryovers",
        "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.",
    ),
    line(
        "us.sched_a.14",
        "Gifts to charity",
        "Schedule A, line 14",
        "IRC §170(b)(1)",
        "Cash and goods, each up to its part of income, and carryovers.",
    ),
    line(
        "us.sched_a.17",
        "Itemized deductions",
        "Schedule A, line 17",
        "IRC §63(d)",
        "Medical, taxes, interest and gifts.",
    ),
    line(
        "us.standard",
        "Standard deduction",
        "Form 1040, standard deduction chart",
        "IRC §63(c), (f)",
        "The basic amount, and an addition for each age of 65 and each blindness.",
    ),
    line(
        "us.12e",
        "Standard or itemized",
        "Form 1040, line 12e",
        "IRC §63(b), (e)",
        "The one that this way takes.",
    ),
    line(
        "us.senior",
        "Senior deduction of this person",
        "Schedule 1-A, lines 35 and 36",
        "IRC §151(d)(5)(C)",
        "An amount from the age of 65, less a part of income above the threshold.",
    ),
    line(
        "us.13b",
        "Additional deductions",
        "Form 1040, line 13b",
        "IRC §151(d)(5)(C)",
        "Schedule 1-A, line 38.",
    ),
    line("us.14", "Total deductions", "Form 1040, line 14", "IRC §63", "Line 12e and line 13b."),
    line(
        "us.15",
        "Taxable income",
        "Form 1040, line 15",
        "IRC §63",
        "Adjusted gross income less the deductions, never less than zero.",
    ),
    line(
        "us.16",
        "Income tax",
        "Form 1040, line 16",
        "IRC §§1, 3",
        "By the Tax Table, above its end by the rate schedule.",
    ),
    line(
        "us.6251.4",
        "Minimum taxable income",
        "Form 6251, line 4",
        "IRC §§55(b)(2), 56, 57",
        "Income less the deductions that count here.",
    ),
    line(
        "us.6251.9",
        "Tentative minimum tax",
        "Form 6251, line 9",
        "IRC §55(b)(1)",
        "Two rates on what is above the exemption.",
    ),
    line(
        "us.amt",
        "Alternative minimum tax",
        "Schedule 2, line 2",
        "IRC §55(a)",
        "What the tentative minimum tax is above the income tax.",
    ),
    line(
        "us.18",
        "Tax before credits",
        "Form 1040, line 18",
        "IRC §26",
        "Income tax and alternative minimum tax.",
    ),
    line(
        "us.child_credit",
        "Credit for this dependent",
        "Schedule 8812, lines 5 and 7",
        "IRC §24(a), (h)",
        "One amount for a young child, another for any other dependent.",
    ),
    line(
        "us.8812.8",
        "Child and dependent credits, full",
        "Schedule 8812, line 8",
        "IRC §24(a), (h)",
        "The credit of every dependent.",
    ),
    line(
        "us.8812.12",
        "Credits after the phase-out",
        "Schedule 8812, line 12",
        "IRC §24(b)",
        "Less an amount for each step of income, or part of one, above the threshold.",
    ),
    line("us.19", "Child and dependent credits", "Form 1040, line 19", "IRC §§24, 26(a)", "Up to the tax."),
    line("us.22", "Tax after these credits", "Form 1040, line 22", "IRC §26", "Never less than zero."),
    line("us.8959.1", "Medicare wages", "Form 8959, line 1", "IRC §3121(a)", "Box 5 of every Form W-2."),
    line(
        "us.8959.18",
        "Additional Medicare tax",
        "Form 8959, line 18",
        "IRC §3101(b)(2)",
        "A rate on Medicare wages above the threshold.",
    ),
    line(
        "us.8960.17",
        "Net investment income tax",
        "Form 8960, line 17",
        "IRC §1411",
        "A rate on interest, or on income above the threshold if less.",
    ),
    line(
        "us.sched_2.13",
        "Payroll tax not collected",
        "Schedule 2, line 13",
        "IRC §3102(c)",
        "Box 12 codes A, B, M and N.",
    ),
    line(
        "us.23",
        "Other taxes",
        "Form 1040, line 23",
        "Schedule 2, line 21",
        "Additional Medicare, net investment income, and payroll tax not collected.",
    ),
    line(
        "us.24",
        "Total tax of the form",
        "Form 1040, line 24",
        "IRC §26",
        "Tax after credits, and other taxes.",
    ),
    line(
        "us.27a",
        "Earned income credit",
        "Form 1040, line 27a",
        "IRC §32",
        "By the table at earned income and, past the threshold, at adjusted gross income.",
    ),
    line(
        "us.8812.17",
        "Open for the refundable part",
        "Schedule 8812, line 17",
        "IRC §24(h)(5)",
        "What the tax did not use, up to an amount a child.",
    ),
    line(
        "us.28",
        "Child credit paid out",
        "Form 1040, line 28",
        "IRC §24(d)",
        "A part of earnings above a floor, up to what is open.",
    ),
    line(
        "us.net_tax",
        "Total tax",
        "Form 1040, line 24 less lines 27a and 28",
        "IRC §6401(b)",
        "What the household pays for good; below zero it is paid out.",
    ),
    line("us.25a", "Withheld from wages", "Form 1040, line 25a", "IRC §31(a)", "Box 2 of every Form W-2."),
    line(
        "us.25b",
        "Withheld from interest",
        "Form 1040, line 25b",
        "IRC §31(c)",
        "Box 4 of every Form 1099.",
    ),
    line(
        "us.25c",
        "Additional Medicare tax withheld",
        "Form 1040, line 25c",
        "IRC §3102(f)",
        "Box 6 above the ordinary tax on box 5.",
    ),
    line("us.25d", "Withheld", "Form 1040, line 25d", "IRC §31", "Lines 25a to 25c."),
    line(
        "us.26",
        "Estimated payments",
        "Form 1040, line 26",
        "IRC §6315",
        "Payments of the year, with last year's overpayment applied.",
    ),
    line(
        "us.excess_social_security",
        "Social security tax paid twice",
        "Schedule 3, line 11",
        "IRC §31(b)",
        "Above the most for one person, from two or more employers.",
    ),
    line(
        "us.paid",
        "Paid",
        "Form 1040, lines 25d, 26 and Schedule 3 line 11",
        "IRC §§31, 6315",
        "Withheld, estimated, and social security tax paid twice.",
    ),
    line(
        "us.balance",
        "Balance",
        "Form 1040, line 37 or 34",
        "IRC §§6151, 6401",
        "Total tax less what was paid: due, or back where below zero.",
    ),
];

const fn limit(
    id: &'static str,
    label: &'static str,
    how: &'static str,
    line: &'static str,
    cite: &'static str,
) -> LimitDef {
    LimitDef { id, label, how, line, cite }
}

/// §63(c)(5).
pub static DEPENDENT_STANDARD: LimitDef = limit(
    "us.limit.dependent_standard",
    "Standard deduction",
    "someone can claim the filer",
    "us.standard",
    "IRC §63(c)(5)",
);
/// §213(a).
pub static MEDICAL_FLOOR: LimitDef =
    limit("us.limit.medical", "Medical", "below the floor", "us.sched_a.4", "IRC §213(a)");
/// §213(d)(10).
pub static LONG_TERM_CARE: LimitDef = limit(
    "us.limit.long_term_care",
    "Long-term care premiums",
    "cap by age",
    "us.medical.for",
    "IRC §213(d)(10)",
);
/// §164(b)(7).
pub static TAXES_PHASE_DOWN: LimitDef = limit(
    "us.limit.taxes_phase_down",
    "Cap on state and local taxes",
    "shrinks with income above the threshold",
    "us.sched_a.cap",
    "IRC §164(b)(7)",
);
/// §164(b)(6).
pub static TAXES_CAP: LimitDef =
    limit("us.limit.taxes", "State and local taxes", "over the cap", "us.sched_a.5e", "IRC §164(b)(6)");
/// §163(h)(3).
pub static HOME_LOAN: LimitDef = limit(
    "us.limit.home_loan",
    "Home-loan interest",
    "only on loans up to the limit",
    "us.sched_a.8e",
    "IRC §163(h)(3)(B), (F)",
);
/// §170(b)(1)(G).
pub static GIFTS_CASH: LimitDef = limit(
    "us.limit.gifts_cash",
    "Gifts of cash",
    "over the cash limit, carried over",
    "us.sched_a.14",
    "IRC §170(b)(1)(G)",
);
/// §170(b)(1)(A).
pub static GIFTS_GOODS: LimitDef = limit(
    "us.limit.gifts_goods",
    "Gifts of goods",
    "over the limit with cash, carried over",
    "us.sched_a.14",
    "IRC §170(b)(1)(A)",
);
/// §170(d)(1).
pub static GIFTS_CASH_CARRIED: LimitDef = limit(
    "us.limit.gifts_cash_carried",
    "Cash gifts carried over",
    "over what the cash limit leaves",
    "us.sched_a.13",
    "IRC §170(d)(1)",
);
/// §170(d)(1).
pub static GIFTS_GOODS_CARRIED: LimitDef = limit(
    "us.limit.gifts_goods_carried",
    "Goods carried over",
    "over what the limit leaves",
    "us.sched_a.13",
    "IRC §170(d)(1)",
);
/// §151(d)(5)(C).
pub static SENIOR: LimitDef = limit(
    "us.limit.senior",
    "Senior deduction",
    "shrinks with income above the threshold",
    "us.senior",
    "IRC §151(d)(5)(C)(iii)",
);
/// §55(d)(4).
pub static MINIMUM_TAX_EXEMPTION: LimitDef = limit(
    "us.limit.minimum_tax",
    "Minimum tax exemption",
    "shrinks with income above the threshold",
    "us.6251.9",
    "IRC §55(d)(4)",
);
/// §24(b).
pub static CHILD_CREDIT: LimitDef = limit(
    "us.limit.child_credit",
    "Child and dependent credits",
    "shrinks step by step above the threshold",
    "us.8812.12",
    "IRC §24(b)",
);
/// §26(a).
pub static CHILD_CREDIT_TAX: LimitDef = limit(
    "us.limit.child_credit_tax",
    "Child and dependent credits",
    "beyond the tax; a child's part may be paid out",
    "us.19",
    "IRC §26(a)",
);
/// §24(h)(5).
pub static CHILD_REFUND_EACH: LimitDef = limit(
    "us.limit.child_refund_each",
    "Child credit paid out",
    "over the amount a child",
    "us.8812.17",
    "IRC §24(h)(5)",
);
/// §24(d)(1)(B).
pub static CHILD_REFUND_EARNED: LimitDef = limit(
    "us.limit.child_refund_earned",
    "Child credit paid out",
    "grows with earnings",
    "us.28",
    "IRC §24(d)(1)(B)",
);
/// §32(a)(2).
pub static EARNED_INCOME: LimitDef = limit(
    "us.limit.earned_income",
    "Earned income credit",
    "grows with earnings, then shrinks",
    "us.27a",
    "IRC §32(a)(2), (b)",
);

/// The rows of the Spread.
pub static SPREAD: &[SpreadSection] = &[
    SpreadSection {
        title: "Comes in",
        rows: &[
            SpreadRow::new("Wages", Some("us.1a"), "us.1a").always(),
            SpreadRow::new("Taxable interest", Some("us.2b"), "us.2b").always(),
        ],
    },
    SpreadSection {
        title: "Taken off first",
        rows: &[
            SpreadRow::new("Early withdrawal penalty", Some("us.penalty"), "us.penalty").minus(),
            SpreadRow::new("Adjusted gross income", Some("us.agi"), "us.agi").result(),
        ],
    },
    SpreadSection {
        title: "Taken off next",
        rows: &[
            SpreadRow::new("Medical above the floor", Some("us.medical.for"), "us.sched_a.4")
                .minus()
                .always(),
            SpreadRow::new("State and local taxes", Some("us.sched_a.5a"), "us.sched_a.5e").minus().always(),
            SpreadRow::new("Home-loan interest", Some("us.sched_a.8a"), "us.sched_a.8e").minus().always(),
            SpreadRow::new("Gifts to charity", Some("us.sched_a.11"), "us.sched_a.14").minus().always(),
            SpreadRow::new("Standard deduction", None, "us.standard").minus().always(),
            SpreadRow::new("Senior deduction", Some("us.senior"), "us.13b").minus(),
            SpreadRow::new("Taxable income", None, "us.15").result(),
        ],
    },
    SpreadSection {
        title: "Tax and credits",
        rows: &[
            SpreadRow::new("Income tax", None, "us.16").always(),
            SpreadRow::new("Alternative minimum tax", None, "us.amt"),
            SpreadRow::new("Child and dependent credits", Some("us.child_credit"), "us.19").minus().always(),
            SpreadRow::new("Other taxes", None, "us.23"),
            SpreadRow::new("Earned income credit", None, "us.27a").minus(),
            SpreadRow::new("Child credit paid out", None, "us.28").minus(),
            SpreadRow::new("Total tax", None, "us.net_tax").result(),
        ],
    },
    SpreadSection {
        title: "Paid",
        rows: &[
            SpreadRow::new("Withheld", Some("us.25a"), "us.25d").minus().always(),
            SpreadRow::new("Estimated payments", None, "us.26").minus(),
            SpreadRow::new("Social security tax paid twice", None, "us.excess_social_security").minus(),
            SpreadRow::new("Balance", None, "us.balance").result(),
        ],
    },
];
