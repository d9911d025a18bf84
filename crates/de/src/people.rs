//! Who is in the household (§§1, 26, 32, 33b EStG): births and numbers, marriage, the Land, church, children and what counts of them.

use crate::facts::Mark;
use hembo_core::{
    field::{Choice, Field},
    pack::{ANYONE, DEPENDENT, FILER, Question},
    provision::Provision,
};

/// What is asked about everyone, and about the household as such.
pub static PROVISION: Provision = Provision {
    about: "People",
    person_questions: &[
        filer(Field::text(ask::OCCUPATION, "", "Occupation (ausgeübter Beruf)", 60).lasts()),
        filer(Field::date(ask::ARRIVED, "", "Home or abode in Germany since, in the year")),
        filer(
            Field::yes_no(ask::INCOME_BEFORE, "", "Income of the year before the arrival, or after leaving")
                .help("It raises the rate: its amounts go to 'Benefits and exempt income'."),
        ),
        filer(Field::date(ask::LEFT, "", "Home and abode in Germany given up, in the year")),
        filer(
            Field::yes_no(ask::LIMITED, "", "German income while no home or abode was here")
                .help("Of the year of leaving or arriving: it is assessed together with the rest (§2(7) S.3)."),
        ),
        filer(Field::yes_no(ask::CHURCH, "", "In a church that levies tax").lasts()),
        filer(
            Field::count(ask::CHURCH_MONTHS, "", "Months in that church", 12)
                .blank_is("12")
                .help("From the month after joining, up to the month of leaving."),
        ),
        filer(
            Field::choice(ask::CHURCH_PART, "", "Where they are not all twelve", CHURCH_PARTS)
                .help("After a move each Land has its rate for its months."),
        ),
        filer(
            Field::yes_no(ask::SERVANT, "", "Civil servant or the like, without a statutory pension").lasts(),
        ),
        filer(
            Field::yes_no(ask::HEALTH_ALONE, "", "Pays all of the own health cover")
                .lasts()
                .help("Without any part of an employer, a subsidy or Beihilfe in the year."),
        ),
        filer(Field::yes_no(ask::SURVIVOR, "", "Survivor with the lump sum of §33b(4)").lasts()),
        anyone(Field::count(ask::DEGREE, "", "Degree of disability (GdB)", 100).lasts()),
        anyone(Field::choice(ask::MARK, "", "Mark", MARKS).lasts()),
        anyone(Field::count(ask::CARE_GRADE, "", "Grade of care (Pflegegrad)", 5).lasts()),
        child(Field::choice(ask::GROUND, "", "Of 18 and more: why the child counts", GROUNDS).lasts()),
        child(Field::choice(ask::RELATIONSHIP, "", "Relationship to a filer", RELATIONSHIPS).lasts()),
        child(
            Field::count(ask::MONTHS, "", "Months with the conditions", 12)
                .help("Blank: all of the year from the month of birth on."),
        ),
        child(
            Field::count(ask::BENEFIT_MONTHS, "", "Months with a right to Kindergeld", 12)
                .help("Blank: the same months."),
        ),
        child(Field::yes_no(ask::HALF, "", "A parent outside keeps the other half").lasts()),
        child(
            Field::person(ask::PARENT, "", "Of spouses: which of them is the parent")
                .lasts()
                .help("Where a parent outside keeps the other half: assessed alone, only the parent has allowances."),
        ),
        child(
            Field::yes_no(ask::UNSUPPORTED, "", "The parent outside does not support it")
                .help("Less than three quarters of what is owed, or nothing is owed for want of means and no advance is paid: its allowances may be taken over (§32(6) S.6)."),
        ),
        child(
            Field::yes_no(ask::REGISTERED, "", "A minor registered in this home alone")
                .lasts()
                .help("And the parent outside neither bears costs nor cares to a substantial extent: the care allowance may be taken over (§32(6) S.8)."),
        ),
        child(
            Field::count(ask::LUMP_PERCENT, "", "Of its lump sums of disability and training, in per cent", 100)
                .help("By a joint request of the parents (§33b(5), §33a(2)). Blank: a half where a parent outside keeps the other, else all."),
        ),
        child(Field::choice(ask::GROUP, "", "Country group", GROUPS).blank_is("4").lasts()),
        child(Field::count(ask::HOUSEHOLD_MONTHS, "", "Months in the home of who is alone", 12)),
        child(Field::count(ask::AWAY_MONTHS, "", "Months of training away from home, of full age", 12)),
    ],
    household_questions: &[
        Field::choice(ask::LAND, "", "Land", LAENDER).lasts(),
        Field::choice(ask::LAND_BEFORE, "", "Land before a move in the year", LAENDER),
        Field::count(ask::MONTHS_BEFORE, "", "Months in the Land before the move", 11),
        Field::choice(ask::MARITAL, "", "Marriage", MARITAL).lasts(),
        Field::date(ask::MARRIED_ON, "", "Married on").lasts(),
        Field::date(ask::SEPARATED_ON, "", "Living apart for good since").lasts(),
        Field::text(ask::TAX_NUMBER, "", "Tax number (Steuernummer)", 20)
            .lasts()
            .help("Blank at a first return: the office gives one."),
        Field::yes_no(ask::WITH_ADULT, "", "Another adult lives in the home").lasts(),
        Field::yes_no(
            ask::SPECIAL_FEE,
            "",
            "The church of the only member raises the special fee (Kirchgeld)",
        )
        .lasts(),
        Field::decimal(
            ask::CHURCH_CAP,
            "",
            "Cap of church tax (Kappung), in per cent of taxable income",
            2,
        )
        .lasts()
        .help("0: none. Most churches have one of 2.75 to 4, that of Bayern has none; some ask for an application. It matters at high incomes only."),
    ],
    ..Provision::NONE
};

const fn filer(field: Field) -> Question {
    Question { of: FILER, from_age: 0, field }
}

const fn anyone(field: Field) -> Question {
    Question { of: ANYONE, from_age: 0, field }
}

const fn child(field: Field) -> Question {
    Question { of: DEPENDENT, from_age: 0, field }
}

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const OCCUPATION: &str = "occupation";
    pub const ARRIVED: &str = "arrived";
    pub const INCOME_BEFORE: &str = "income_before";
    pub const LEFT: &str = "left";
    pub const LIMITED: &str = "limited";
    pub const CHURCH_MONTHS: &str = "church_months";
    pub const CHURCH_PART: &str = "church_part";
    pub const CHURCH_CAP: &str = "church_cap";
    pub const GROUND: &str = "ground";
    pub const LAND_BEFORE: &str = "land_before";
    pub const MONTHS_BEFORE: &str = "months_before";
    pub const MARRIED_ON: &str = "married_on";
    pub const SEPARATED_ON: &str = "separated_on";
    pub const TAX_NUMBER: &str = "tax_number";
    pub const CHURCH: &str = "church";
    pub const SERVANT: &str = "servant";
    pub const HEALTH_ALONE: &str = "health_alone";
    pub const SURVIVOR: &str = "survivor";
    pub const DEGREE: &str = "degree";
    pub const MARK: &str = "mark";
    pub const CARE_GRADE: &str = "care_grade";
    pub const RELATIONSHIP: &str = "relationship";
    pub const MONTHS: &str = "months";
    pub const BENEFIT_MONTHS: &str = "benefit_months";
    pub const HALF: &str = "half";
    pub const PARENT: &str = "parent";
    pub const UNSUPPORTED: &str = "unsupported";
    pub const REGISTERED: &str = "registered";
    pub const LUMP_PERCENT: &str = "lump_percent";
    pub const GROUP: &str = "group";
    pub const HOUSEHOLD_MONTHS: &str = "household_months";
    pub const AWAY_MONTHS: &str = "away_months";
    pub const LAND: &str = "land";
    pub const MARITAL: &str = "marital";
    pub const WITH_ADULT: &str = "with_adult";
    pub const SPECIAL_FEE: &str = "special_fee";
}

/// What a dependant is to a filer.
pub const RELATIONSHIPS: &[Choice] = &[Choice::new("child", "Child"), Choice::new("other", "Someone else")];

/// Which months of a year in a church are a part of it.
const CHURCH_PARTS: &[Choice] = &[
    Choice::new("first", "The first months: left in the year"),
    Choice::new("last", "The last months: joined or arrived in the year"),
];

/// Why a child of full age counts (§32(4)).
const GROUNDS: &[Choice] = &[
    Choice::new("training", "In training, a gap of up to four months, a voluntary year, up to 24"),
    Choice::new("seeking", "Registered as seeking work, up to 20"),
    Choice::new("disabled", "Disabled since before 25, cannot support itself"),
];

/// Country groups, in quarters.
pub const GROUPS: &[Choice] = &[
    Choice::new("4", "Whole"),
    Choice::new("3", "Three quarters"),
    Choice::new("2", "A half"),
    Choice::new("1", "A quarter"),
];

const MARKS: &[Choice] = &[
    Choice::new("G", "G, walking impaired"),
    Choice::new("aG", "aG, walking exceptionally impaired"),
    Choice::new("H", "H, helpless"),
    Choice::new("Bl", "Bl, blind"),
    Choice::new("TBl", "TBl, deaf-blind"),
];

/// The mark that an answer names.
pub fn mark(answer: Option<&str>) -> Mark {
    match answer {
        Some("G") => Mark::G,
        Some("aG") => Mark::AG,
        Some("H" | "Bl" | "TBl") => Mark::Helpless,
        _ => Mark::None,
    }
}

/// Marriage and what became of it.
pub const MARITAL: &[Choice] = &[
    Choice::new("single", "Not married, divorced, or widowed for longer"),
    Choice::new("married", "Married, living together at some time of the year"),
    Choice::new("apart", "Married, apart all year"),
    Choice::new("widowed", "Widowed in the year before"),
];

/// The Länder.
pub const LAENDER: &[Choice] = &[
    Choice::new("BW", "Baden-Württemberg"),
    Choice::new("BY", "Bayern"),
    Choice::new("BE", "Berlin"),
    Choice::new("BB", "Brandenburg"),
    Choice::new("HB", "Bremen"),
    Choice::new("HH", "Hamburg"),
    Choice::new("HE", "Hessen"),
    Choice::new("MV", "Mecklenburg-Vorpommern"),
    Choice::new("NI", "Niedersachsen"),
    Choice::new("NW", "Nordrhein-Westfalen"),
    Choice::new("RP", "Rheinland-Pfalz"),
    Choice::new("SL", "Saarland"),
    Choice::new("SN", "Sachsen"),
    Choice::new("ST", "Sachsen-Anhalt"),
    Choice::new("SH", "Schleswig-Holstein"),
    Choice::new("TH", "Thüringen"),
];
