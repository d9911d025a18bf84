//! The questions of the federal return, about people and about the household.

use hembo_core::{
    field::{Choice, Field},
    household::Role,
    pack::Question,
    point::NotComputed,
    provision::Provision,
};

/// What stands here.
pub static PROVISION: Provision =
    Provision { person_questions: PERSON, household_questions: HOUSEHOLD, ..Provision::NONE };

/// The ids of the questions.
#[allow(missing_docs)]
pub mod ask {
    pub const RELATIONSHIP: &str = "relationship";
    pub const STUDENT_MONTHS: &str = "student_months";
    pub const DISABLED: &str = "disabled";
    pub const BLIND: &str = "blind";
    pub const MARRIED: &str = "married";
    pub const FILES_JOINT: &str = "files_joint";
    pub const SELF_SUPPORT: &str = "self_support";
    pub const SUPPORTED: &str = "supported";
    pub const SUPPORTED_ALONE_BY: &str = "supported_alone_by";
    pub const RESIDENCY: &str = "residency";
    pub const WORK_SSN: &str = "work_ssn";
    pub const OTHER_GROSS_INCOME: &str = "other_gross_income";
    pub const CLAIMABLE: &str = "claimable";
    pub const CHILD_ELSEWHERE: &str = "child_elsewhere";
    pub const PARENT_ALIVE: &str = "parent_alive";
    pub const EARNED_OVER_HALF: &str = "earned_over_half";
    pub const NONRESIDENT_ALIEN: &str = "nonresident_alien";
    pub const PAID_HOME: &str = "paid_home";
    pub const HOME_ABROAD: &str = "home_abroad";
    pub const SPOUSE_DIED: &str = "spouse_died";
    pub const MARITAL: &str = "marital";
    pub const APART: &str = "apart";
    pub const SPOUSE_ITEMIZES: &str = "spouse_itemizes";
    pub const STATE: &str = "state";
    pub const DIGITAL_ASSETS: &str = "digital_assets";
    pub const FOREIGN_ACCOUNT: &str = "foreign_account";
    pub const REFUND_ACCOUNT: &str = "refund_account";
}

const FILER: &[Role] = &[Role::Filer];
const DEPENDENT: &[Role] = &[Role::Dependent];
const ANYONE: &[Role] = &[Role::Filer, Role::Dependent];

/// What a dependent is to a filer.
pub const RELATIONSHIPS: &[Choice] = &[
    Choice::new("child", "Child"),
    Choice::new("stepchild", "Stepchild"),
    Choice::new("foster_child", "Foster child, placed"),
    Choice::new("grandchild", "Grandchild or other descendant"),
    Choice::new("sibling", "Brother, sister, half or step"),
    Choice::new("niece_nephew", "Niece or nephew"),
    Choice::new("parent", "Father or mother"),
    Choice::new("stepparent", "Stepfather or stepmother"),
    Choice::new("grandparent", "Grandparent or other ancestor"),
    Choice::new("aunt_uncle", "Aunt or uncle"),
    Choice::new("in_law", "Relative by marriage (in-law)"),
    Choice::new("none", "Not related, member of the household"),
];

const RESIDENCIES: &[Choice] = &[
    Choice::new("us", "US citizen, national or resident"),
    Choice::new("canada_mexico", "Resident of Canada or Mexico"),
    Choice::new("other", "Neither"),
];

const MARITAL: &[Choice] = &[
    Choice::new("single", "Never married"),
    Choice::new("married", "Married"),
    Choice::new("divorced", "Divorced or separated by decree"),
    Choice::new("widowed", "Widowed before this year"),
];

/// The questions about a person.
pub static PERSON: &[Question] = &[
    Question {
        of: DEPENDENT,
        field: Field::choice(ask::RELATIONSHIP, "", "Relationship to a filer", RELATIONSHIPS),
    },
    Question {
        of: ANYONE,
        field: Field::count(ask::STUDENT_MONTHS, "", "Months a full-time student", 12)
            .help("Some part of five calendar months makes a student."),
    },
    Question { of: ANYONE, field: Field::yes_no(ask::BLIND, "", "Blind") },
    Question { of: DEPENDENT, field: Field::yes_no(ask::DISABLED, "", "Permanently and totally disabled") },
    Question { of: DEPENDENT, field: Field::yes_no(ask::MARRIED, "", "Married at year end") },
    Question {
        of: DEPENDENT,
        field: Field::yes_no(ask::FILES_JOINT, "", "Files a joint return")
            .help("Other than only to get back what was withheld."),
    },
    Question { of: DEPENDENT, field: Field::yes_no(ask::SELF_SUPPORT, "", "Pays over half of own support") },
    Question {
        of: DEPENDENT,
        field: Field::yes_no(ask::SUPPORTED, "", "The filers pay over half of the support"),
    },
    Question {
        of: DEPENDENT,
        field: Field::person(ask::SUPPORTED_ALONE_BY, "", "One filer alone pays over half")
            .help("Needed only for separate returns."),
    },
    Question { of: DEPENDENT, field: Field::choice(ask::RESIDENCY, "", "Citizen or resident", RESIDENCIES) },
    Question {
        of: DEPENDENT,
        field: Field::amount(ask::OTHER_GROSS_INCOME, "", "Gross income not among the papers"),
    },
    Question {
        of: ANYONE,
        field: Field::yes_no(ask::WORK_SSN, "", "Number valid for work")
            .help("A social security number issued in time and valid for employment."),
    },
    Question { of: FILER, field: Field::yes_no(ask::CLAIMABLE, "", "Someone else can claim this person") },
    Question {
        of: FILER,
        field: Field::yes_no(ask::CHILD_ELSEWHERE, "", "Qualifying child of someone else").help(
            "By relationship, age and over half the year in the home of someone outside this household.",
        ),
    },
    Question {
        of: ANYONE,
        field: Field::yes_no(ask::PARENT_ALIVE, "", "A parent was alive at the end of the year"),
    },
    Question {
        of: ANYONE,
        field: Field::yes_no(ask::EARNED_OVER_HALF, "", "Own earnings were over half of own support"),
    },
    Question { of: FILER, field: Field::yes_no(ask::NONRESIDENT_ALIEN, "", "Nonresident alien in the year") },
    Question { of: FILER, field: Field::yes_no(ask::PAID_HOME, "", "Paid over half the cost of the home") },
    Question { of: FILER, field: Field::yes_no(ask::HOME_ABROAD, "", "Main home abroad for half the year") },
    Question { of: FILER, field: Field::count(ask::SPOUSE_DIED, "", "Year in which the spouse died", 2100) },
];

/// The questions about the household.
pub static HOUSEHOLD: &[Field] = &[
    Field::choice(ask::MARITAL, "", "On the last day of the year", MARITAL)
        .help("The year in which a spouse died still counts as married."),
    Field::yes_no(ask::APART, "", "The spouses lived apart from July to December")
        .help("A temporary absence is living together."),
    Field::yes_no(ask::SPOUSE_ITEMIZES, "", "A spouse outside this household itemizes"),
    Field::choice(ask::STATE, "", "State of residence", crate::states::STATES),
    Field::yes_no(ask::DIGITAL_ASSETS, "", "Received or disposed of digital assets"),
    Field::yes_no(ask::FOREIGN_ACCOUNT, "", "Held a financial account abroad"),
    Field::text(ask::REFUND_ACCOUNT, "35d", "Account for a refund", 40)
        .help("Routing and account number; hidden like a taxpayer number.")
        .secret(),
    NOT_COMPUTED[0].field,
    NOT_COMPUTED[1].field,
    NOT_COMPUTED[2].field,
    NOT_COMPUTED[3].field,
    NOT_COMPUTED[4].field,
    NOT_COMPUTED[5].field,
    NOT_COMPUTED[6].field,
    NOT_COMPUTED[7].field,
    NOT_COMPUTED[8].field,
    NOT_COMPUTED[9].field,
];

/// What is not computed yet, in the order of the return.
pub const NOT_COMPUTED: [NotComputed; 10] = [
    NotComputed::new(
        "other_income",
        "Income other than wages and interest",
        "Dividends, pensions, social security, unemployment, a business, rent, tips not on a W-2, prizes…",
        "Income other than wages and interest is",
    ),
    NotComputed::new(
        "sales",
        "Sold securities, a home or other property",
        "By anyone in the household, at a gain or a loss; also losses carried over.",
        "A sale (Schedule D) is",
    ),
    NotComputed::new(
        "retirement_savings",
        "Paid into an IRA, HSA or ABLE account",
        "Outside the payroll, or took money from one.",
        "The deduction or credit for such savings is",
    ),
    NotComputed::new(
        "student_loan",
        "Paid student loan interest",
        "Form 1098-E.",
        "The deduction of student loan interest is",
    ),
    NotComputed::new(
        "overtime",
        "Overtime pay or tips",
        "Deductible (Schedule 1-A).",
        "The deduction of tips and overtime (Schedule 1-A) is",
    )
    .since(2025),
    NotComputed::new(
        "car_loan",
        "Paid interest on the loan for a new car",
        "Deductible (Schedule 1-A).",
        "The deduction of car loan interest (Schedule 1-A) is",
    )
    .since(2025),
    NotComputed::new(
        "care",
        "Paid for care so that the filers could work",
        "Of a child under 13, or of a spouse or dependent unable to care for themselves.",
        "The credit for care (Form 2441) is",
    ),
    NotComputed::new(
        "education",
        "Paid for higher education",
        "Form 1098-T.",
        "The education credits (Form 8863) are",
    ),
    NotComputed::new(
        "marketplace",
        "Health cover through the Marketplace",
        "Form 1095-A.",
        "The premium tax credit (Form 8962) is",
    ),
    NotComputed::new(
        "other_credits",
        "Other credits or taxes",
        "Adoption, home energy, clean vehicles, foreign tax, the elderly or disabled, household employees, an adjustment, a loss…",
        "One of these is",
    ),
];
