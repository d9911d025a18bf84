//! Form 1098-T: what was paid to a school, and what of a scholarship a student takes as income (§117(b); Reg. §1.25A-5(c)(3)), so that
//! tuition is left for a credit.

use crate::{bringing::Bringing, facts::Facts, points::Points, unit::On};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Field, Years},
    household::Entry,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    settled,
    trail::Item,
    words::first_name,
};
use hembo_money::Money;

/// What this paper declares.
pub static PROVISION: Provision =
    Provision { papers: &[TUITION], figures: &["education"], ..Provision::NONE };

/// What was paid for a student at a school.
#[derive(Debug, Clone)]
pub struct Tuition {
    /// Box 1.
    pub item: Item,
    /// Tuition and fees.
    fees: Money,
    /// Required books and supplies.
    books: Money,
    /// Of them from the school.
    books_school: Money,
    scholarship: Money,
    /// What of it the terms let go to living costs.
    living: Money,
    /// Other tax-free help.
    aid: Money,
    /// Why the American opportunity credit is not lawful for this student.
    pub barred: Option<&'static str>,
}

impl Tuition {
    /// What of the scholarship pays for tuition, fees and books: above them it is income anyway.
    fn for_tuition(&self) -> Money {
        settled::lesser(self.scholarship, self.fees + self.books)
    }

    /// What of that may be income instead.
    pub fn may_be_income(&self) -> Money {
        let above = self.scholarship - self.for_tuition();
        settled::lesser(settled::or_zero(self.living - above), self.for_tuition())
    }

    /// Tuition, fees and all required books and supplies.
    pub fn opportunity(&self) -> Money {
        self.fees + self.books
    }

    /// Tuition and fees, with books that had to be bought from the school.
    pub fn learning(&self) -> Money {
        self.fees + self.books_school
    }
}

/// What counts of a student's papers where so much of scholarships is taken as income: of each paper what was paid less what was
/// tax-free.
pub fn expenses(all: &[Tuition], mut taken: Money, paid: fn(&Tuition) -> Money) -> Money {
    let one = |tuition: &Tuition| {
        let here = settled::lesser(tuition.may_be_income(), taken);
        taken -= here;
        settled::or_zero(paid(tuition) - (tuition.for_tuition() - here) - tuition.aid)
    };
    all.iter().map(one).sum::<Money>().to_whole()
}

/// What of a return's student counts by one of the credits.
pub fn counted(on: On<'_>, student: usize, paid: fn(&Tuition) -> Money) -> Money {
    expenses(of(on.facts, student), taken_of(on, student), paid)
}

/// What its papers bring.
pub mod brings {
    use super::Tuition;
    use hembo_core::brought::Brought;

    /// Tuition, to the student.
    pub static TUITION: Brought<Tuition> = Brought::new();
}

const TUITION: PaperKind = PaperKind {
    id: "1098-T",
    subject: subject::CREDITS,
    name: "Tuition",
    words: "college university school tuition student education aotc american opportunity lifetime learning",
    title: "School",
    shared: false,
    headline: "1",
    boxes: &[
        Field::text("f", "f", "School's EIN", 10).lasts().shape("00-0000000").payer_number(),
        Field::amount("1", "1", "Payments received"),
        Field::amount("4", "4", "Adjustments for an earlier year"),
        Field::amount("5", "5", "Scholarships and grants"),
        Field::yes_no("7", "7", "For a term that begins next year"),
        Field::yes_no("8", "8", "At least half-time"),
        Field::yes_no("9", "9", "Graduate student"),
        Field::amount("books", "", "Required books and supplies")
            .help("Bought anywhere; for the American opportunity credit."),
        Field::amount("books_school", "", "Of them from the school, as required"),
        Field::amount("aid", "", "Other tax-free help")
            .help("An employer's, veterans' benefits, a 529 plan's."),
        Field::amount("living", "", "Of box 5 open to living costs")
            .help("What its terms let go to room and board, up to what they cost: it may be taken as income, and leaves tuition for a credit."),
        Field::count("years", "", "Years the credit was used before", 10)
            .help("The American opportunity credit."),
        Field::yes_no("finished", "", "Four years were finished before this year"),
        Field::yes_no("felony", "", "Felony drug conviction"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

fn bar_of(paper: &Paper, most_years: i64) -> Option<&'static str> {
    let years = paper.boxes.get("years").and_then(Entry::count).unwrap_or(0);
    if !paper.flag("8") {
        return Some("not at least half-time");
    }
    if paper.flag("9") || paper.flag("finished") {
        return Some("the first four years are finished");
    }
    if years >= most_years {
        return Some("used in four years already");
    }
    paper.flag("felony").then_some("felony drug conviction")
}

/// Gives tuition to the student.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    let amount = |id: &str| reading.amount(id);
    let barred = bar_of(reading, paper.facts.figures.education.opportunity_years);
    let item = paper.paper.item("1", None, amount("1"));
    for (student, _) in paper.paper.shares(Money::ZERO) {
        let tuition = Tuition {
            item,
            fees: amount("1"),
            books: amount("books"),
            books_school: amount("books_school"),
            scholarship: amount("5"),
            living: settled::lesser(amount("living"), amount("5")),
            aid: amount("aid"),
            barred,
        };
        paper.facts.people[student].own.add(&brings::TUITION, tuition);
    }
}

/// The papers of a student.
pub fn of(facts: &Facts, student: usize) -> &[Tuition] {
    facts.people[student].own.of(&brings::TUITION)
}

/// Every such paper of the household.
pub fn all<'a>(points: &Points<'a>) -> impl Iterator<Item = &'a Paper> + use<'a> {
    points.papers(TUITION.id)
}

/// Everyone with tuition.
pub fn students(facts: &Facts) -> Vec<usize> {
    (0..facts.people.len()).filter(|&p| !of(facts, p).is_empty()).collect()
}

/// How much of a student's scholarship is taken as income.
pub static TAKEN: Open<Facts> = Open::new(choosing, |facts, student| {
    let about = &facts.people[student];
    let name = first_name(&about.name);
    let option = |amount: Money| {
        let cents = amount.cents().to_string();
        match amount.is_zero() {
            true => Opt::new("0", "No scholarship as income", ""),
            false => Opt::new(cents, format!("{amount:#}"), format!("{name} takes {amount:#} as income")),
        }
    };
    Decision::between(
        format!("us.scholarship.{}", about.id),
        format!("Scholarship of {} taken as income", about.name),
        "Reg. §1.25A-5(c)(3)",
        about.scholarship.iter().copied().map(option).collect(),
    )
});

fn choosing(facts: &Facts) -> Vec<usize> {
    (0..facts.people.len()).filter(|&student| facts.people[student].scholarship.len() > 1).collect()
}

/// What a way takes of each student.
pub fn taken(way: Chosen<'_, '_, Facts>, facts: &Facts) -> Vec<(usize, Money)> {
    let each = way.each(&TAKEN);
    each.filter_map(|(student, option)| Some((student, facts.people[student].scholarship[option?]))).collect()
}

/// What a way takes of one student.
pub fn taken_by(way: Chosen<'_, '_, Facts>, facts: &Facts, student: usize) -> Money {
    way.taken(&TAKEN, student).map_or(Money::ZERO, |option| facts.people[student].scholarship[option])
}

/// What a student of a return takes as income.
fn taken_of(on: On<'_>, student: usize) -> Money {
    let taken = on.unit.scholarships.iter().find(|(person, _)| *person == student);
    taken.map_or(Money::ZERO, |(_, amount)| *amount)
}

/// The same as a figure of the first paper that allows it.
pub fn item(on: On<'_>, student: usize) -> Option<Item> {
    let amount = taken_of(on, student);
    let paper = of(on.facts, student).iter().find(|t| !t.may_be_income().is_zero())?;
    (!amount.is_zero()).then_some(Item { amount, field: "living", ..paper.item })
}

/// What the filers of a return take.
pub fn items(on: On<'_>) -> Vec<Item> {
    on.unit.people.iter().filter_map(|&person| item(on, person)).collect()
}
