//! The ids of all questions, and those about what is not computed yet; each of the others stands at its provision.

use crate::points::Points;
use hembo_core::{
    field::Field,
    household::Role,
    point::{Gather, NotComputed},
    provision::Provision,
};

/// What is asked because it is not computed yet.
pub static PROVISION: Provision = Provision { household_questions: &ASKED, ..Provision::NONE };

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

/// Of whom something is asked.
pub const FILER: &[Role] = &[Role::Filer];
/// Of whom something is asked.
pub const DEPENDENT: &[Role] = &[Role::Dependent];
/// Of whom something is asked.
pub const ANYONE: &[Role] = &[Role::Filer, Role::Dependent];

/// What is not computed yet, in the order of the return.
pub const NOT_COMPUTED: [NotComputed; 10] = [
    NotComputed::new(
        "other_income",
        "Income other than wages and interest",
        "Dividends, pensions, social security, unemployment, a business, rent, tips not on a W-2, prizes…",
        "Income other than wages and interest is",
        "IRC §61(a)",
    ),
    NotComputed::new(
        "sales",
        "Sold securities, a home or other property",
        "By anyone in the household, at a gain or a loss; also losses carried over.",
        "A sale (Schedule D) is",
        "IRC §§1001, 1222",
    ),
    NotComputed::new(
        "retirement_savings",
        "Paid into an IRA, HSA or ABLE account",
        "Outside the payroll, or took money from one.",
        "The deduction or credit for such savings is",
        "IRC §§219, 223, 529A, 72(t)",
    ),
    NotComputed::new(
        "student_loan",
        "Paid student loan interest",
        "Form 1098-E.",
        "The deduction of student loan interest is",
        "IRC §221",
    ),
    NotComputed::new(
        "overtime",
        "Overtime pay or tips",
        "Deductible (Schedule 1-A).",
        "The deduction of tips and overtime (Schedule 1-A) is",
        "IRC §§224, 225",
    )
    .since(2025),
    NotComputed::new(
        "car_loan",
        "Paid interest on the loan for a new car",
        "Deductible (Schedule 1-A).",
        "The deduction of car loan interest (Schedule 1-A) is",
        "IRC §163(h)(4)",
    )
    .since(2025),
    NotComputed::new(
        "care",
        "Paid for care so that the filers could work",
        "Of a child under 13, or of a spouse or dependent unable to care for themselves.",
        "The credit for care (Form 2441) is",
        "IRC §21",
    ),
    NotComputed::new(
        "education",
        "Paid for higher education",
        "Form 1098-T.",
        "The education credits (Form 8863) are",
        "IRC §25A",
    ),
    NotComputed::new(
        "marketplace",
        "Health cover through the Marketplace",
        "Form 1095-A.",
        "The premium tax credit (Form 8962) is",
        "IRC §36B",
    ),
    NotComputed::new(
        "other_credits",
        "Other credits or taxes",
        "Adoption, home energy, clean vehicles, foreign tax, the elderly or disabled, household employees, an adjustment, a loss…",
        "One of these is",
        "IRC §§22, 23, 25C, 25D, 27, 30D, 62(a)",
    ),
];

const ASKED: [Field; NOT_COMPUTED.len()] = {
    let mut asked = [NOT_COMPUTED[0].field; NOT_COMPUTED.len()];
    let mut at = 0;
    while at < NOT_COMPUTED.len() {
        asked[at] = NOT_COMPUTED[at].field;
        at += 1;
    }
    asked
};

/// What the law has and this pack has not.
pub fn points(points: &mut Points<'_>) {
    points.not_computed(points.household, &NOT_COMPUTED);
}
