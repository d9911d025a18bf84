//! What the return of California asks beside the federal one (Form 540; FTB 3514, 3853).

use hembo_core::{
    field::{Field, NO, YES},
    pack::{FILER, Question},
    provision::Provision,
};

/// What is asked.
pub static PROVISION: Provision = Provision {
    about: "California, questions",
    household_questions: &[
        Field::yes_no(ask::PREPARED, "", "Prepare the return of California")
            .lasts()
            .help("Form 540 of who lived there all year, Form 540NR of who moved, or lived elsewhere with income there."),
        Field::yes_no(ask::ALL_YEAR, "", "Everyone who files lived in California all year")
            .only_for(ask::PREPARED, YES)
            .help("Else Form 540NR is filed: say at each filer when, and what of the income is of California on the paper 'Schedule CA (540NR)'."),
        Field::yes_no(ask::OTHER, "", "California rules that are not computed here")
            .only_for(ask::PREPARED, YES)
            .help("Registered partners, separate returns here of a couple of whom one is in the armed forces, depreciation of its own, carried losses of California, credits of business, a share of a firm's elective tax (code 242), Schedule G-1, casualty outside federal disasters."),
        Field::yes_no(ask::COVERED, "92", "Everyone had health cover in every month")
            .only_for(ask::PREPARED, YES)
            .help("Where not, the months go to the paper 'Health cover' (FTB 3853)."),
        Field::yes_no(ask::HOMEOWNER, "46", "Had the homeowners' exemption of property tax")
            .only_for(ask::PREPARED, YES)
            .help("Then there is no renter's credit."),
        Field::yes_no(ask::SPOUSE_ITEMIZES, "18", "A spouse who is not here itemizes in California")
            .only_for(ask::PREPARED, YES)
            .help("Of a separate return: then it itemizes, too."),
        Field::amount(ask::USE_TAX, "91", "Use tax")
            .only_for(ask::ALL_YEAR, YES)
            .help("On what was bought without California tax; 0 where there is none. By purchases, and the table beside, on the paper 'Use tax'."),
    ],
    person_questions: &[
        filer(Field::yes_no(ask::RENTED, "46", "Paid rent in California for the main home, half the year or longer").lasts()),
        filer(
            Field::yes_no(ask::RENTER_BARRED, "46", "Lived with who can claim the person, or in a home free of property tax")
                .help("For over half the year: then there is no renter's credit."),
        ),
        filer(Field::yes_no(ask::FOSTER, "77", "In foster care in California at 13 or later")),
        filer(Field::yes_no(ask::SENIOR_HEAD, "163", "Was head of household for someone who died in the two years before")),
        filer(Field::yes_no(ask::CUSTODY, "170", "A child here 146 to 219 days under a custody agreement")),
        filer(Field::yes_no(ask::PARENT, "173", "Paid over half of a parent's home, the spouse away from July on")),
        moved(Field::date(ask::FROM, "", "Moved to California on")),
        moved(Field::date(ask::UNTIL, "", "Left California on").help("The last day of residence; before the day of moving there, the person left and came back.")),
        moved(Field::yes_no(ask::OUTSIDE, "", "Lived outside California all year")),
        filer(Field::yes_no(ask::NO_NUMBER, "75", "Has neither social security number nor ITIN").lasts()),
    ],
    ..Provision::NONE
};

const fn filer(field: Field) -> Question {
    Question { of: FILER, from_age: 0, field: field.only_for(ask::PREPARED, YES) }
}

const fn moved(field: Field) -> Question {
    Question { of: FILER, from_age: 0, field: field.only_for(ask::ALL_YEAR, NO) }
}

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const PREPARED: &str = crate::states::ask::CALIFORNIA;
    pub const ALL_YEAR: &str = "ca_all_year";
    pub const OTHER: &str = "ca_other";
    pub const COVERED: &str = "ca_covered";
    pub const HOMEOWNER: &str = "ca_homeowner";
    pub const SPOUSE_ITEMIZES: &str = "ca_spouse_itemizes";
    pub const USE_TAX: &str = "ca_use_tax";
    pub const RENTED: &str = "ca_rented";
    pub const RENTER_BARRED: &str = "ca_renter_barred";
    pub const FOSTER: &str = "ca_foster";
    pub const SENIOR_HEAD: &str = "ca_senior_head";
    pub const CUSTODY: &str = "ca_custody";
    pub const PARENT: &str = "ca_parent";
    pub const FROM: &str = "ca_from";
    pub const UNTIL: &str = "ca_until";
    pub const OUTSIDE: &str = "ca_outside";
    pub const NO_NUMBER: &str = "ca_no_number";
}
