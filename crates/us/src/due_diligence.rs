//! What a preparer asks before a return claims the earned income credit, child credits, the American opportunity credit or head of
//! household (§6695(g); Reg. §1.6695-2), Form 8867. Each answer is kept with who gave it and when, as every edit is.

use crate::{
    business, child_credit, earned_income_credit, education,
    filing_status::Status,
    points::Points,
    unit::{EducationCredit, On, Unit},
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    household::Entry,
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::Scope,
};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { papers: &[CHECKLIST], household_questions: &[ASKED], points: POINTS, ..Provision::NONE };

const ASKED: Field = Field::yes_no("due_diligence", "", "The filers were asked what their credits need")
    .help("Form 8867.")
    .opens(&[CHECKLIST.id]);

open_points! {
    MISSING = blocks "K-137", "IRC §6695(g); Reg. §1.6695-2",
        "Add Form 8867 and ask the filers.";
    OPEN = blocks "K-137-open", "IRC §6695(g); Reg. §1.6695-2",
        "Ask the filers, and keep the answer.";
    NO = blocks "K-137-no", "Reg. §1.6695-2(b)",
        "With this answer the credit is not to be claimed: correct the answer, or the facts.";
    FURTHER = blocks "K-137-further", "Reg. §1.6695-2(b)(3)",
        "What seems wrong must be asked about and noted.";
    DENIED = blocks "K-138", "IRC §§24(g), 25A(b)(4), 32(k); Form 8862",
        "Fill in Form 8862 beside this return, unless a ban is still running.";
}

const CHECKLIST: PaperKind = PaperKind {
    id: "8867",
    subject: subject::PAYMENTS,
    name: "What was asked about credits",
    words: "due diligence checklist 8867 preparer eitc child credit head of household",
    title: "About",
    shared: true,
    headline: "",
    boxes: &[
        Field::yes_no("1", "1", "From information of this year")
            .help("Given by the filers, or reasonably had elsewhere."),
        Field::yes_no("3", "3", "Filers asked, answers noted"),
        Field::yes_no("4", "4", "Something seems wrong or incomplete"),
        Field::yes_no("4b", "4b", "If so: asked further, and noted"),
        Field::yes_no("5", "5", "Records are kept").help("For three years."),
        Field::text("5.documents", "5", "Documents relied on", 200),
        Field::yes_no("6", "6", "Asked whether proof is there")
            .help("Of who may be claimed, and of the amounts, if the return is examined."),
        Field::yes_no("7", "7", "A credit was denied or reduced before"),
        Field::yes_no("7a", "7a", "If so: Form 8862 is filled in"),
        Field::yes_no("8", "8", "Own business: asked about all income and expenses"),
        Field::yes_no("9a", "9a", "Earned income credit: filers and children qualify"),
        Field::yes_no("9b", "9b", "Each child lived with a filer over half the year"),
        Field::yes_no("9c", "9c", "Told what holds if someone else may claim a child"),
        Field::yes_no("10", "10", "Child credits: each is a citizen or resident"),
        Field::yes_no("11", "11", "Each child lived with a filer, or was released"),
        Field::yes_no("12", "12", "Told what parents apart must do").help("Form 8332."),
        Field::yes_no("13", "13", "Tuition is proved").help("Form 1098-T and receipts."),
        Field::yes_no("14", "14", "Head of household: unmarried, paid over half of the home"),
        Field::yes_no("15", "15", "All answers are true and complete"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// What is asked of every return that claims; the answer must be yes.
const MUST_BE_YES: [&str; 5] = ["1", "3", "5", "6", "15"];

/// What a return claims that has to be asked about.
#[derive(Debug, Clone, Copy)]
struct Claims {
    earned: bool,
    earned_for_children: bool,
    children: bool,
    opportunity: bool,
    head: bool,
    business: bool,
}

impl Claims {
    fn of(points: &Points<'_>, place: usize) -> Claims {
        let unit = &points.units[place];
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        let has = |line| !points.amount(line, place).is_zero();
        let earned = has(earned_income_credit::L27A);
        let opportunity = unit.education.iter().any(|(_, taken)| *taken == EducationCredit::Opportunity);
        Claims {
            earned,
            earned_for_children: earned && earned_income_credit::children(on) > 0,
            children: has(child_credit::L19) || has(child_credit::L28),
            opportunity: opportunity && (has(education::L29) || has(education::CREDIT)),
            head: unit.status == Status::Head,
            business: unit.people.iter().any(|&p| !business::of(points.facts, p).is_empty()),
        }
    }

    fn any(self) -> bool {
        self.earned || self.children || self.opportunity || self.head
    }

    /// The questions whose answer must be yes.
    fn asks(self) -> Vec<&'static str> {
        let of = |claimed: bool, fields: &'static [&'static str]| if claimed { fields } else { &[] };
        [
            &MUST_BE_YES,
            of(self.business && self.earned, &["8"]),
            of(self.earned, &["9a"]),
            of(self.earned_for_children, &["9b"]),
            of(self.children, &["10", "11"]),
            of(self.opportunity, &["13"]),
            of(self.head, &["14"]),
        ]
        .concat()
    }
}

/// Each return that claims: a student's own, too.
pub fn points(points: &mut Points<'_>) {
    let mut without: Vec<usize> = Vec::new();
    for (place, unit) in points.units.iter().enumerate() {
        let claims = Claims::of(points, place);
        match checklist(points, unit) {
            Some(paper) if claims.any() => one(points, paper, claims),
            None if claims.any() => without.extend(&unit.people),
            _ => {}
        }
    }
    if !without.is_empty() {
        let names: Vec<_> = without.iter().map(|&p| points.facts.people[p].name.as_str()).collect();
        let message = format!("{}: what the credits need was not asked yet.", names.join(" and "));
        points.raise(&MISSING, Place::household(ASKED.id), message);
    }
}

/// The checklist of a return.
fn checklist<'a>(points: &Points<'a>, unit: &Unit) -> Option<&'a Paper> {
    points.papers(CHECKLIST.id).find(|paper| points.is_of(paper, &unit.people))
}

fn one(points: &mut Points<'_>, paper: &Paper, claims: Claims) {
    let answer = |field: &str| paper.boxes.get(field).and_then(Entry::flag);
    for field in claims.asks() {
        let label = CHECKLIST.boxes.iter().find(|b| b.id == field).map_or("", |b| b.label);
        match answer(field) {
            None => points.raise(&OPEN, Place::paper(&paper.id, field), format!("{label}: yes or no?")),
            Some(false) => points.raise(&NO, Place::paper(&paper.id, field), format!("{label}: no.")),
            Some(true) => {}
        }
    }
    if answer("4") == Some(true) && answer("4b") != Some(true) {
        points.raise(
            &FURTHER,
            Place::paper(&paper.id, "4b"),
            "Something seems wrong, and was not asked about.",
        );
    }
    if answer("7") == Some(true) && answer("7a") != Some(true) {
        points.raise(
            &DENIED,
            Place::paper(&paper.id, "7a"),
            "A credit was denied before: Form 8862 goes with the return.",
        );
    }
}
