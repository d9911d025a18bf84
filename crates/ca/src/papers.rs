//! The papers of the return: official slips box by box, and lists of receipts.

use hembo_core::{
    field::{Choice, Field, Years},
    paper::PaperKind,
    provision::Provision,
};

/// What stands here.
pub static PROVISION: Provision = Provision { papers: KINDS, ..Provision::NONE };

/// The ids of the kinds.
#[allow(missing_docs)]
pub mod kind {
    pub const T4: &str = "T4";
    pub const T4A: &str = "T4A";
    pub const OAS: &str = "T4A(OAS)";
    pub const CPP: &str = "T4A(P)";
    pub const T5: &str = "T5";
    pub const T2202: &str = "T2202";
    pub const TUITION_CARRIED: &str = "Tuition carried";
    pub const RRSP: &str = "RRSP";
    pub const MEDICAL: &str = "Medical";
    pub const GIFTS: &str = "Gifts";
    pub const GIFTS_CARRIED: &str = "Gifts carried";
    pub const INSTALMENTS: &str = "Instalments";
}

/// Boxes of which the law makes something that is not computed yet, by kind.
pub const NOT_COVERED: &[(&str, &[&str])] = &[
    (kind::T4, &["17", "39", "43", "55", "66", "67", "77", "87"]),
    (kind::T4A, &["020", "040", "042", "048", "105"]),
    (kind::CPP, &["17", "18"]),
    (kind::T5, &["16", "17", "18"]),
];

const PLANS: &[Choice] = &[Choice::new("own", "Own plan"), Choice::new("spouse", "Plan of the partner")];

/// Every kind of paper of this pack.
pub static KINDS: &[PaperKind] = &[
    PaperKind {
        id: kind::T4,
        name: "Employment income",
        title: "Employer",
        shared: false,
        headline: "14",
        boxes: &[
            Field::choice("10", "10", "Province of employment", crate::provinces::PROVINCES),
            Field::amount("14", "14", "Employment income"),
            Field::amount("16", "16", "Employee's CPP contributions"),
            Field::amount("16A", "16A", "Second CPP contributions"),
            Field::amount("17", "17", "QPP contributions"),
            Field::amount("18", "18", "Employee's EI premiums"),
            Field::amount("20", "20", "RPP contributions"),
            Field::amount("22", "22", "Income tax deducted"),
            Field::amount("24", "24", "EI insurable earnings").help("Box 14 where it is blank."),
            Field::amount("26", "26", "CPP pensionable earnings").help("Box 14 where it is blank."),
            Field::yes_no("28.cpp", "28", "Exempt from CPP"),
            Field::yes_no("28.ei", "28", "Exempt from EI"),
            Field::amount("44", "44", "Union dues"),
            Field::count("45", "45", "Dental benefits code", 5),
            Field::amount("46", "46", "Charitable donations"),
            Field::text("50", "50", "RPP or DPSP registration", 10),
            Field::amount("52", "52", "Pension adjustment"),
            Field::amount("55", "55", "PPIP premiums"),
            Field::amount("39", "39", "Security options deduction"),
            Field::amount("43", "43", "Forces and police deduction"),
            Field::amount("66", "66", "Eligible retiring allowance"),
            Field::amount("67", "67", "Other retiring allowance"),
            Field::amount("77", "77", "Workers' compensation repaid"),
            Field::amount("85", "85", "Health premiums paid").help("Enter them among the medical receipts."),
            Field::amount("87", "87", "Volunteer's exempt amount"),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::T4A,
        name: "Pension, annuity and other income",
        title: "Payer",
        shared: false,
        headline: "016",
        boxes: &[
            Field::amount("016", "016", "Pension or superannuation")
                .help("A life annuity of a pension plan."),
            Field::amount("018", "018", "Lump-sum payments"),
            Field::amount("020", "020", "Self-employed commissions"),
            Field::amount("022", "022", "Income tax deducted"),
            Field::amount("024", "024", "Annuities"),
            Field::amount("028", "028", "Other income"),
            Field::amount("032", "032", "RPP contributions"),
            Field::amount("034", "034", "Pension adjustment"),
            Field::amount("040", "040", "RESP accumulated income"),
            Field::amount("042", "042", "RESP educational assistance"),
            Field::amount("048", "048", "Fees for services"),
            Field::amount("105", "105", "Scholarships, bursaries"),
            Field::amount("133", "133", "Variable pension benefits"),
            Field::amount("135", "135", "Health premiums paid")
                .help("Enter them among the medical receipts."),
            Field::amount("194", "194", "PRPP payments"),
            Field::yes_no("on_death", "", "Received on a spouse's death")
                .help("Then boxes 024, 133 and 194 count as pension before 65."),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::OAS,
        name: "Old age security",
        title: "Payer",
        shared: false,
        headline: "18",
        boxes: &[
            Field::amount("18", "18", "Taxable pension paid"),
            Field::amount("19", "19", "Gross pension paid"),
            Field::amount("20", "20", "Overpayment recovered"),
            Field::amount("21", "21", "Net supplements paid"),
            Field::amount("22", "22", "Income tax deducted"),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::CPP,
        name: "Canada Pension Plan benefits",
        title: "Payer",
        shared: false,
        headline: "20",
        boxes: &[
            Field::amount("14", "14", "Retirement benefit"),
            Field::amount("15", "15", "Survivor benefit"),
            Field::amount("16", "16", "Disability benefit"),
            Field::amount("17", "17", "Child benefit"),
            Field::amount("18", "18", "Death benefit"),
            Field::amount("19", "19", "Post-retirement benefit"),
            Field::amount("20", "20", "Taxable CPP benefits"),
            Field::amount("22", "22", "Income tax deducted"),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::T5,
        name: "Investment income",
        title: "Payer",
        shared: true,
        headline: "13",
        boxes: &[
            Field::amount("24", "24", "Actual eligible dividends"),
            Field::amount("25", "25", "Taxable eligible dividends"),
            Field::amount("26", "26", "Credit for eligible dividends"),
            Field::amount("10", "10", "Actual other dividends"),
            Field::amount("11", "11", "Taxable other dividends"),
            Field::amount("12", "12", "Credit for other dividends"),
            Field::amount("13", "13", "Interest from Canadian sources"),
            Field::amount("14", "14", "Other income from Canadian sources"),
            Field::amount("15", "15", "Foreign income"),
            Field::amount("16", "16", "Foreign tax paid"),
            Field::amount("17", "17", "Royalties"),
            Field::amount("18", "18", "Capital gains dividends"),
            Field::amount("19", "19", "Accrued income: annuities"),
            Field::text("27", "27", "Foreign currency", 3).help("Blank where the amounts are in dollars."),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::T2202,
        name: "Tuition and enrolment certificate",
        title: "School",
        shared: false,
        headline: "26",
        boxes: &[
            Field::amount("26", "26", "Eligible tuition fees"),
            Field::count("24", "24", "Months part-time", 12),
            Field::count("25", "25", "Months full-time", 12),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::TUITION_CARRIED,
        name: "Unused tuition of earlier years",
        title: "About",
        shared: false,
        headline: "federal",
        boxes: &[
            Field::amount("federal", "", "Federal amount left").help("From the notice of assessment."),
            Field::amount("provincial", "", "Provincial amount left").help("From the same notice."),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::RRSP,
        name: "Retirement contributions: RRSP, PRPP, SPP",
        title: "About",
        shared: false,
        headline: "amount",
        boxes: &[
            Field::amount("limit", "", "Deduction limit").help("From the notice of assessment."),
            Field::amount("unused", "", "Unused contributions").help("Made in earlier years, not deducted."),
            Field::amount("repaid", "", "Designated as repayment")
                .help("To the Home Buyers' or Lifelong Learning Plan; not deductible."),
        ],
        columns: &[
            Field::date("date", "", "Paid on"),
            Field::text("what", "", "To whom", 80),
            Field::choice("plan", "", "Plan", PLANS),
            Field::amount("amount", "", "Amount"),
        ],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::MEDICAL,
        name: "Medical receipts",
        title: "About",
        shared: false,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::date("date", "", "Paid on"),
            Field::person("patient", "", "For"),
            Field::text("what", "", "To whom, what for", 80),
            Field::amount("amount", "", "Paid"),
            Field::amount("reimbursed", "", "Paid back"),
            Field::yes_no("used", "", "In an earlier claim"),
        ],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::GIFTS,
        name: "Gifts to registered charities",
        title: "About",
        shared: false,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::date("date", "", "Given on"),
            Field::text("what", "", "To whom", 80),
            Field::text("number", "", "Registration", 20),
            Field::amount("amount", "", "Eligible amount"),
            Field::yes_no("used", "", "In an earlier claim")
                .help("A gift of January or February 2025 that was claimed for 2024."),
        ],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::GIFTS_CARRIED,
        name: "Gifts of earlier years, not yet claimed",
        title: "About",
        shared: false,
        headline: "amount",
        boxes: &[],
        columns: &[Field::count("year", "", "Given in", 2100), Field::amount("amount", "", "Left to claim")],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::INSTALMENTS,
        name: "Tax paid by instalments",
        title: "About",
        shared: false,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::date("date", "", "Paid on"),
            Field::text("what", "", "What", 80),
            Field::amount("amount", "", "Amount"),
        ],
        years: Years::ALL,
    },
];
