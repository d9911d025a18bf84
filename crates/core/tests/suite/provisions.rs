//! What provisions declare, gathered: found by id, and what does not fit together is told.

use hembo_core::{
    field::Field,
    household::Role,
    limits, lines,
    pack::Question,
    paper::{NextYear, PaperKind},
    provision::{self, Declared, Provision},
};

lines! {
    CATCH = "xx.catch", "Catch", "Act §1", "All fish.";
    SHARE = "xx.share", "Share", "Act §2", "A part of the catch.";
}

limits! { MOST = "xx.limit.share" on SHARE, "Share", "over a half", "Act §2"; }

const PAPER: PaperKind = PaperKind {
    subject: hembo_core::paper::subject::OTHER_INCOME,
    id: "Log",
    name: "Log book",
    words: "",
    title: "Boat",
    shared: false,
    headline: "fish",
    boxes: &[Field::amount("fish", "1", "Fish")],
    columns: &[],
    back: hembo_core::paper::Back::Nothing,
    years: hembo_core::field::Years::ALL,
    next_year: NextYear::Once,
};

static FISHING: Provision = Provision { lines: LINES, limits: LIMITS, papers: &[PAPER], ..Provision::NONE };

static ASKING: Provision = Provision {
    person_questions: &[Question {
        of: &[Role::Filer],
        from_age: 0,
        field: Field::yes_no("sailor", "", "Sailor?"),
    }],
    household_questions: &[Field::yes_no("isle", "", "On the isle?")],
    ..Provision::NONE
};

#[test]
fn declarations_are_gathered_in_the_order_of_the_law() {
    let declared = Declared::of([&FISHING, &ASKING]);
    assert_eq!(declared.lines.iter().map(|l| l.id).collect::<Vec<_>>(), [CATCH, SHARE]);
    assert_eq!(declared.line("xx.share").unwrap().label, "Share");
    assert!(declared.line("xx.none").is_none());
    assert_eq!((declared.limits[0].line, MOST.id), (SHARE, "xx.limit.share"));
    let counts = (declared.papers.len(), declared.person_questions.len(), declared.household_questions.len());
    assert_eq!((counts, declared.faults()), ((1, 1, 1), Vec::new()));
}

#[test]
fn what_is_declared_twice_or_stands_on_nothing_is_told() {
    let twice = Declared::of([&FISHING, &FISHING, &ASKING, &ASKING]).faults();
    for id in ["line xx.catch", "limit xx.limit.share", "paper Log", "question sailor", "question isle"] {
        assert!(twice.iter().any(|fault| fault.starts_with(id)), "{id}: {twice:?}");
    }
    static ASTRAY: Provision = Provision { limits: LIMITS, ..Provision::NONE };
    let faults = Declared::of([&ASTRAY]).faults();
    assert_eq!(faults, ["limit xx.limit.share is on xx.share, which is no line"]);
}

#[test]
fn a_paper_is_read_by_the_provision_that_declares_it() {
    type Words = provision::Rule<fn() -> &'static str, fn() -> &'static str>;
    let law = [Words::new(&ASKING), Words::new(&FISHING).reads(|| "fish").finds(|| "few")];
    assert_eq!(Words::reader(&law, "Log").unwrap()(), "fish");
    assert!(Words::reader(&law, "Net").is_none());
    assert_eq!(law.iter().filter_map(|rule| rule.finds).map(|find| find()).collect::<Vec<_>>(), ["few"]);
}
