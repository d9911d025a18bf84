//! The questions of the return, about people and about the household.

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
    pub const MARITAL: &str = "marital";
    pub const MONTHS_TOGETHER: &str = "months_together";
    pub const PROVINCE: &str = "province";
    pub const PART_YEAR: &str = "part_year";
    pub const FOREIGN_PROPERTY: &str = "foreign_property";
    pub const RELATIONSHIP: &str = "relationship";
    pub const INFIRM: &str = "infirm";
    pub const DISABILITY: &str = "disability";
    pub const SUPPORT_PAID: &str = "support_paid";
    pub const CLAIMED_ELSEWHERE: &str = "claimed_elsewhere";
    pub const NET_INCOME: &str = "net_income";
    pub const FULL_TIME_STUDENT: &str = "full_time_student";
    pub const MAINTAINS_HOME: &str = "maintains_home";
}

const FILER: &[Role] = &[Role::Filer];
const DEPENDENT: &[Role] = &[Role::Dependent];
const ANYONE: &[Role] = &[Role::Filer, Role::Dependent];

/// Marital status on 31 December.
pub const MARITAL: &[Choice] = &[
    Choice::new("married", "Married"),
    Choice::new("common_law", "Living common-law"),
    Choice::new("widowed", "Widowed"),
    Choice::new("divorced", "Divorced"),
    Choice::new("separated", "Separated for 90 days or more"),
    Choice::new("single", "Single"),
];

/// What a dependant is to a filer.
pub const RELATIONSHIPS: &[Choice] = &[
    Choice::new("child", "Child, own or partner's"),
    Choice::new("grandchild", "Grandchild"),
    Choice::new("sibling", "Brother or sister"),
    Choice::new("parent", "Parent"),
    Choice::new("grandparent", "Grandparent"),
    Choice::new("other", "Other relative"),
];

/// The questions about a person.
pub static PERSON: &[Question] = &[
    Question {
        of: DEPENDENT,
        field: Field::choice(ask::RELATIONSHIP, "", "Relationship to a filer", RELATIONSHIPS),
    },
    Question {
        of: DEPENDENT,
        field: Field::amount(ask::NET_INCOME, "", "Net income not among the papers").help("Line 23600."),
    },
    Question {
        of: ANYONE,
        field: Field::yes_no(ask::INFIRM, "", "Infirm in mind or body")
            .help("Depends on others because of an impairment."),
    },
    Question { of: ANYONE, field: Field::yes_no(ask::DISABILITY, "", "Approved certificate T2201") },
    Question {
        of: ANYONE,
        field: Field::yes_no(ask::FULL_TIME_STUDENT, "", "Full-time student for over 13 weeks"),
    },
    Question {
        of: DEPENDENT,
        field: Field::yes_no(ask::SUPPORT_PAID, "", "A filer must pay support for this child"),
    },
    Question {
        of: DEPENDENT,
        field: Field::yes_no(ask::CLAIMED_ELSEWHERE, "", "Someone else claims line 30400 here")
            .help("For this person, or from the same home."),
    },
    Question {
        of: FILER,
        field: Field::yes_no(ask::MAINTAINS_HOME, "", "Keeps the home of a dependant")
            .help("Lived with and supported the dependant there at some time in the year."),
    },
];

/// The questions about the household.
pub static HOUSEHOLD: &[Field] = &[
    Field::choice(ask::PROVINCE, "", "Province or territory on 31 December", crate::provinces::PROVINCES),
    Field::choice(ask::MARITAL, "", "Marital status on 31 December", MARITAL),
    Field::count(ask::MONTHS_TOGETHER, "", "Months of the year as a couple", 12)
        .help("Twelve where nothing is said; pension income is split for these months."),
    Field::yes_no(ask::PART_YEAR, "", "Came to or left Canada in the year"),
    Field::yes_no(ask::FOREIGN_PROPERTY, "", "Foreign property that cost over 100,000"),
    NOT_COMPUTED[0].field,
    NOT_COMPUTED[1].field,
    NOT_COMPUTED[2].field,
    NOT_COMPUTED[3].field,
    NOT_COMPUTED[4].field,
];

/// What the law has and this pack does not compute yet, asked about so that its absence is known.
pub const NOT_COMPUTED: [NotComputed; 5] = [
    NotComputed::new(
        "other_income",
        "Income that is on none of these papers",
        "Employment insurance, retirement savings taken out, a trust, a business, rent, support, compensation…",
        "Such income is",
    ),
    NotComputed::new(
        "sales",
        "Sold securities, a home or other property",
        "By anyone in the household, at a gain or a loss; also losses of other years.",
        "Sales (Schedule 3) are",
    ),
    NotComputed::new(
        "other_deductions",
        "Child care, moving, employment or carrying expenses",
        "Also support paid, contributions to a first-home account, other deductions.",
        "Such deductions are",
    ),
    NotComputed::new(
        "other_credits",
        "Other credits",
        "Student loan interest, a home bought or made accessible, adoption, volunteers, educators, politics…",
        "Such credits are",
    ),
    NotComputed::new(
        "advance_benefit",
        "Workers benefit paid in advance",
        "Slip RC210, box 10.",
        "Advance payments (line 41500) are",
    ),
];
