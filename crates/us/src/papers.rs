//! The papers of the federal return: official forms box by box, and lists of receipts.

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
    pub const W2: &str = "W-2";
    pub const INTEREST: &str = "1099-INT";
    pub const HOME_LOAN: &str = "1098";
    pub const PROPERTY_TAX: &str = "Property tax";
    pub const SALES_TAX: &str = "Sales tax";
    pub const STATE_TAX: &str = "State tax paid";
    pub const MEDICAL: &str = "Medical";
    pub const GIFTS: &str = "Gifts";
    pub const GIFT_CARRYOVER: &str = "Gift carryover";
    pub const ESTIMATED: &str = "1040-ES";
}

/// Codes of box 12 of Form W-2.
const BOX_12: &[Choice] = &[
    Choice::new("A", "A · uncollected social security tax on tips"),
    Choice::new("B", "B · uncollected Medicare tax on tips"),
    Choice::new("C", "C · taxable group-term life insurance"),
    Choice::new("D", "D · elective deferrals, 401(k)"),
    Choice::new("E", "E · elective deferrals, 403(b)"),
    Choice::new("F", "F · elective deferrals, 408(k)(6)"),
    Choice::new("G", "G · deferrals, 457(b)"),
    Choice::new("H", "H · elective deferrals, 501(c)(18)(D)"),
    Choice::new("J", "J · nontaxable sick pay"),
    Choice::new("K", "K · excise tax on golden parachute"),
    Choice::new("L", "L · expense reimbursements"),
    Choice::new("M", "M · uncollected social security tax on life insurance"),
    Choice::new("N", "N · uncollected Medicare tax on life insurance"),
    Choice::new("P", "P · excludable moving reimbursements"),
    Choice::new("Q", "Q · nontaxable combat pay"),
    Choice::new("R", "R · employer contributions to an Archer MSA"),
    Choice::new("S", "S · SIMPLE deferrals, 408(p)"),
    Choice::new("T", "T · adoption benefits"),
    Choice::new("V", "V · income from nonstatutory options"),
    Choice::new("W", "W · contributions to a health savings account"),
    Choice::new("Y", "Y · deferrals under 409A"),
    Choice::new("Z", "Z · income under 409A"),
    Choice::new("AA", "AA · designated Roth, 401(k)"),
    Choice::new("BB", "BB · designated Roth, 403(b)"),
    Choice::new("DD", "DD · cost of health cover"),
    Choice::new("EE", "EE · designated Roth, 457(b)"),
    Choice::new("FF", "FF · small-employer health reimbursement"),
    Choice::new("GG", "GG · income under 83(i)"),
    Choice::new("HH", "HH · deferrals under 83(i)"),
    Choice::new("II", "II · excluded Medicaid waiver payments"),
];

/// The four lines of box 12: code box, amount box.
pub const W2_BOX_12: [(&str, &str); 4] =
    [("12a", "12a.amount"), ("12b", "12b.amount"), ("12c", "12c.amount"), ("12d", "12d.amount")];

const MEDICAL_SORTS: &[Choice] = &[
    Choice::new("bill", "Bill"),
    Choice::new("premium", "Health premium, after tax"),
    Choice::new("long_term_care", "Long-term care"),
    Choice::new("travel", "Travel, miles"),
    Choice::new("reimbursed", "Paid back"),
];

const GIFT_SORTS: &[Choice] = &[
    Choice::new("cash", "Cash"),
    Choice::new("goods", "Used goods"),
    Choice::new("travel", "Volunteer miles"),
];

const GIFT_CLASSES: &[Choice] = &[Choice::new("cash", "Cash, 60 %"), Choice::new("goods", "Goods, 50 %")];

/// Every kind of paper of this pack.
pub static KINDS: &[PaperKind] = &[
    PaperKind {
        id: kind::W2,
        name: "Wages",
        title: "Employer",
        shared: false,
        headline: "1",
        boxes: &[
            Field::text("b", "b", "Employer's EIN", 10),
            Field::text("d", "d", "Control number", 30),
            Field::amount("1", "1", "Wages, tips, other pay"),
            Field::amount("2", "2", "Federal tax withheld"),
            Field::amount("3", "3", "Social security wages"),
            Field::amount("4", "4", "Social security tax"),
            Field::amount("5", "5", "Medicare wages"),
            Field::amount("6", "6", "Medicare tax"),
            Field::amount("7", "7", "Social security tips"),
            Field::amount("8", "8", "Allocated tips"),
            Field::amount("10", "10", "Dependent care benefits"),
            Field::amount("11", "11", "Nonqualified plans"),
            Field::choice("12a", "12a", "Code", BOX_12),
            Field::amount("12a.amount", "12a", "Amount"),
            Field::choice("12b", "12b", "Code", BOX_12),
            Field::amount("12b.amount", "12b", "Amount"),
            Field::choice("12c", "12c", "Code", BOX_12),
            Field::amount("12c.amount", "12c", "Amount"),
            Field::choice("12d", "12d", "Code", BOX_12),
            Field::amount("12d.amount", "12d", "Amount"),
            Field::yes_no("13.statutory", "13", "Statutory employee"),
            Field::yes_no("13.retirement", "13", "Retirement plan"),
            Field::yes_no("13.sick", "13", "Third-party sick pay"),
            Field::amount("14", "14", "State disability, family leave")
                .help("Mandatory employee contributions to a state fund; they count as state income tax."),
            Field::text("15.id", "15", "Employer's state number", 30),
            Field::choice("15", "15", "State", crate::states::STATES),
            Field::amount("16", "16", "State wages"),
            Field::amount("17", "17", "State tax withheld"),
            Field::amount("18", "18", "Local wages"),
            Field::amount("19", "19", "Local tax withheld"),
            Field::text("20", "20", "Locality", 40),
            Field::choice("15b", "15", "Second state", crate::states::STATES),
            Field::amount("16b", "16", "State wages"),
            Field::amount("17b", "17", "State tax withheld"),
            Field::amount("18b", "18", "Local wages"),
            Field::amount("19b", "19", "Local tax withheld"),
            Field::text("20b", "20", "Locality", 40),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::INTEREST,
        name: "Interest",
        title: "Payer",
        shared: true,
        headline: "1",
        boxes: &[
            Field::amount("1", "1", "Interest"),
            Field::amount("2", "2", "Early withdrawal penalty"),
            Field::amount("3", "3", "Savings bonds, Treasury").help("Not contained in box 1."),
            Field::amount("4", "4", "Federal tax withheld"),
            Field::amount("5", "5", "Investment expenses"),
            Field::amount("6", "6", "Foreign tax paid"),
            Field::text("7", "7", "Foreign country", 40),
            Field::amount("8", "8", "Tax-exempt interest"),
            Field::amount("9", "9", "Private activity bonds").help("The part of box 8."),
            Field::amount("10", "10", "Market discount"),
            Field::amount("11", "11", "Bond premium"),
            Field::amount("12", "12", "Premium on Treasury"),
            Field::amount("13", "13", "Premium on tax-exempt"),
            Field::text("14", "14", "Bond CUSIP number", 20),
            Field::choice("15", "15", "State", crate::states::STATES),
            Field::text("16", "16", "State identification", 30),
            Field::amount("17", "17", "State tax withheld"),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::HOME_LOAN,
        name: "Home-loan interest",
        title: "Lender",
        shared: true,
        headline: "1",
        boxes: &[
            Field::amount("1", "1", "Interest received"),
            Field::amount("2", "2", "Principal on 1 January"),
            Field::amount("year_end", "", "Principal on 31 December")
                .help("From the lender's statement; with box 2 it gives the average balance."),
            Field::amount("average", "", "Average balance, if stated")
                .help("A figure of the lender replaces the average of the two balances."),
            Field::amount("other_use", "", "Not for the home, average")
                .help("The part of the average balance not used to buy, build or improve the home."),
            Field::date("3", "3", "Origination date"),
            Field::amount("4", "4", "Refund of overpaid interest"),
            Field::amount("5", "5", "Insurance premiums"),
            Field::amount("6", "6", "Points on purchase"),
            Field::text("8", "8", "Address of the property", 80),
            Field::count("9", "9", "Number of properties", 99),
            Field::amount("10", "10", "Real estate tax in escrow"),
            Field::date("11", "11", "Acquisition date"),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::PROPERTY_TAX,
        name: "Real estate and personal property tax",
        title: "Collector",
        shared: true,
        headline: "real_estate",
        boxes: &[
            Field::amount("real_estate", "5b", "Real estate tax")
                .help("Not what box 10 of a 1098 already brings."),
            Field::amount("personal", "5c", "Personal property tax").help("Charged yearly on the value."),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::SALES_TAX,
        name: "General sales tax, instead of state income tax",
        title: "About",
        shared: true,
        headline: "actual",
        boxes: &[
            Field::amount("actual", "", "Paid on receipts")
                .help("All general sales tax of the year, from receipts."),
            Field::amount("table", "", "By the table, joint or alone").help(
                "From the optional tables for the joint return, or for a person alone, with the local part.",
            ),
            Field::amount("table_separate", "", "By the table, separate return")
                .help("From the optional tables for the owner's own separate return."),
            Field::amount("vehicles", "", "On a car, boat, home").help("Added to the table's amount."),
        ],
        columns: &[],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::STATE_TAX,
        name: "State and local income tax paid",
        title: "About",
        shared: true,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::date("date", "", "Paid on"),
            Field::text("what", "", "What for", 80).help("Estimated tax, last year's balance…"),
            Field::amount("amount", "", "Amount"),
        ],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::MEDICAL,
        name: "Medical receipts",
        title: "About",
        shared: true,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::date("date", "", "Paid on"),
            Field::person("patient", "", "For"),
            Field::text("what", "", "To whom, what for", 80),
            Field::choice("sort", "", "Sort", MEDICAL_SORTS),
            Field::count("miles", "", "Miles", 1_000_000),
            Field::amount("amount", "", "Amount"),
        ],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::GIFTS,
        name: "Gifts to charity",
        title: "About",
        shared: true,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::date("date", "", "Given on"),
            Field::text("what", "", "To whom, what", 80),
            Field::choice("sort", "", "Sort", GIFT_SORTS),
            Field::count("miles", "", "Miles", 1_000_000),
            Field::amount("amount", "", "Amount"),
        ],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::GIFT_CARRYOVER,
        name: "Gifts carried over from earlier years",
        title: "About",
        shared: true,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::count("year", "", "Given in", 2100),
            Field::choice("class", "", "Class", GIFT_CLASSES),
            Field::amount("amount", "", "Left to use"),
        ],
        years: Years::ALL,
    },
    PaperKind {
        id: kind::ESTIMATED,
        name: "Federal estimated tax payments",
        title: "About",
        shared: true,
        headline: "amount",
        boxes: &[],
        columns: &[
            Field::date("date", "", "Paid on"),
            Field::text("what", "", "What", 80).help("Payment, or last year's overpayment applied."),
            Field::amount("amount", "", "Amount"),
        ],
        years: Years::ALL,
    },
];
