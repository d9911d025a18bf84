//! What a rule pack is.

use crate::{
    dates::{Deadline, DueDate},
    decision::Way,
    divide::Rule,
    drawn::Drawn,
    field::{Choice, Field},
    figures::Replacement,
    filing::FilingNeeds,
    forms::{Forms, Required},
    household::{Entry, Household, Paper, Person, Role},
    lever::Lever,
    line::{LineId, SpreadSection},
    numbers::Numbers,
    outcome::Outcome,
    own_assessment,
    paper::{Counted, Keeping, PaperKind},
    point::{NotComputed, Point},
    provision::Declared,
    search::Weighable,
    supposed::Steps,
    trail::{Recorder, Scope},
    withholding::Withholding,
    words::label_of,
};
use serde::Serialize;
use std::sync::Arc;
use time::{Date, Duration, Month};
use utoipa::ToSchema;

/// One country's rules.
pub trait Pack: Send + Sync {
    /// Its name and currency.
    fn about(&self) -> About;

    /// The years whose rule figures it has, latest first.
    fn years(&self) -> Vec<i32>;

    /// Whether a year is for planning only: it is not over, or its figures are not all sure.
    fn is_planning(&self, year: i32) -> bool {
        let of = self.rules().iter().find(|(of, _)| *of == year);
        of.and_then(|(_, rules)| rules.get("planning")?.as_bool()).unwrap_or(false)
    }

    /// The first and the last day of a return year.
    fn span(&self, year: i32) -> (Date, Date);

    /// Everything that its provisions declare.
    fn declared(&self) -> &'static Declared;

    /// The rules of its years as they count, latest first.
    fn rules(&self) -> &[(i32, toml::Table)];

    /// The same pack with figures of a practice's own in place of committed ones.
    ///
    /// # Errors
    /// A replacement that does not fit, in words.
    fn with(&self, replaced: &[Replacement]) -> Result<Arc<dyn Pack>, String>;

    /// The official forms of a year whose figures it has.
    fn forms(&self, year: i32) -> &'static Forms;

    /// The kinds of papers it knows.
    fn paper_kinds(&self) -> &'static [PaperKind] {
        &self.declared().papers
    }

    /// What papers bring by themselves to where another kind's papers go.
    fn counted(&self) -> &'static [Counted] {
        &self.declared().counted
    }

    /// The questions about a person.
    fn person_questions(&self) -> &'static [Question] {
        &self.declared().person_questions
    }

    /// The questions about the household as a whole.
    fn household_questions(&self) -> &'static [Field] {
        &self.declared().household_questions
    }

    /// The rows of the Spread.
    fn spread(&self) -> &'static [SpreadSection];

    /// The lines that sum a return up, one entry an authority: the tax of all together is minimised.
    fn totals(&self) -> &'static [Totals];

    /// Whose return an open point of a code holds up, where that is not the law's first authority: a state.
    fn authority_of(&self, _code: &str) -> &'static str {
        ""
    }

    /// Whether an identification number has the right form; if not, why.
    fn check_id_number(&self, number: &str) -> Result<(), &'static str>;

    /// The part of the country, for lists; may be empty.
    fn locality(&self, household: &Household) -> String;

    /// Whether all of a household live in one home, as far as was said: the months of a new dependent are then the same
    /// with everyone.
    fn one_home(&self, _household: &Household) -> bool {
        true
    }

    /// Whether a question makes sense for a person; one that does not is asked last, and an answer to it is read all the same.
    fn is_asked(&self, _household: &Household, _person: &Person, _question: &Question) -> bool {
        true
    }

    /// What a blank of a person is read as, where the person decides it: else as the field declares.
    fn blank(&self, _person: &Person, field: &Field) -> Option<Entry> {
        field.blank_entry()
    }

    /// What a person is here, in a word: "filer", "child".
    fn caption(&self, person: &Person) -> String;

    /// What empty boxes of a paper would hold, going by the others.
    fn suggestions(&self, household: &Household, paper: &Paper) -> Vec<Suggestion>;

    /// What the law has and this pack has not, each asked so that its absence is known.
    fn not_computed(&self) -> &'static [NotComputed] {
        &[]
    }

    /// What titles of papers mean that name a payer: "Employer", "Lender".
    fn payer_titles(&self) -> &'static [&'static str] {
        &[]
    }

    /// A row of changes to a line of a list, each one step further, along which it is worth to see the tax.
    fn steps(&self, _household: &Household, _paper: &str, _row: &str) -> Option<Steps> {
        None
    }

    /// The kinds of papers that the law's authority or a payer holds and gives out: all others only the family has.
    fn held_kinds(&self) -> &'static [&'static str] {
        &[]
    }

    /// Whether the law's authority assesses by itself what it holds, before anybody files: then it asks what becomes of that.
    fn assesses_itself(&self) -> bool {
        self.person_questions().iter().any(|question| question.field.id == own_assessment::ASKED)
    }

    /// Until when what it assessed by itself on a day may be changed, and how.
    fn own_assessment_dates(&self, _year: i32, _on: Date) -> Vec<DueDate> {
        Vec::new()
    }

    /// Until when a document is to be sent that is asked for on a day: thirty days where the law names none.
    fn document_deadline(&self, _year: i32, asked: Date) -> Deadline {
        Deadline { day: asked + Duration::days(30), counted: "30 days".into(), cite: "" }
    }

    /// What filing needs beside what every law's does.
    fn filing_needs(&self) -> FilingNeeds {
        FilingNeeds::default()
    }

    /// Which proof of a kind of paper the authority may ask for.
    fn proof(&self, kind: &PaperKind) -> &'static str {
        kind.usual_proof()
    }

    /// Until when the papers of a return year are kept.
    fn keeping(&self, year: i32) -> Keeping;

    /// What is due when, by the day.
    fn dates(&self, _outcome: &Outcome) -> Vec<DueDate> {
        Vec::new()
    }

    /// What the family may still do beside the return, by advice.
    fn levers(&self, _household: &Household, _outcome: &Outcome) -> Vec<Lever> {
        Vec::new()
    }

    /// What would be withheld in the year that runs under each combination that may be asked for.
    fn withholding(&self, _household: &Household, _outcome: &Outcome) -> Option<Withholding> {
        None
    }

    /// The box of a kind of paper that claims tax withheld.
    fn withheld_box(&self, _kind: &str) -> Option<&'static str> {
        None
    }

    /// What may be chosen beside the return and is weighed for nobody, because no paper tells of it.
    fn elections(&self) -> &'static [Election] {
        &[]
    }

    /// What else changes with the year for a household that was carried forward: who is a widow now.
    fn settle_next(&self, _before: &Household, _next: &mut Household) {}

    /// What else changes for one of the two into which a household is divided: what was of both together.
    fn settle_divided(&self, _before: &Household, _half: &mut Household) {}

    /// Kinds of papers that are divided by a rule of their own where a household is divided in two.
    fn divides(&self) -> &'static [Rule] {
        &[]
    }

    /// What of stored files has another name today, oldest first.
    fn renamed(&self) -> &'static [Renamed] {
        &[]
    }

    /// The version of these rules: another one wherever the rules or their figures changed.
    fn version(&self) -> &str;

    /// Reads a checked household into the pack's facts.
    fn open<'h>(&self, household: &'h Household) -> Box<dyn Case + 'h>;
}

/// A choice that is made beside the return: a method, a date, an amount paid in later.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Election {
    /// What may be chosen.
    pub what: &'static str,
    /// The rule that leaves it open.
    pub cite: &'static str,
}

/// A box, column or question that had another id in files of earlier versions.
#[derive(Debug, Clone, Copy)]
pub struct Renamed {
    /// The kind of paper; none for a question about a person or the household.
    pub kind: Option<&'static str>,
    /// The id in old files.
    pub from: &'static str,
    /// The id today.
    pub to: &'static str,
}

/// The first and the last day of a calendar year.
pub fn calendar_year(year: i32) -> (Date, Date) {
    let day = |month, day| Date::from_calendar_date(year, month, day).unwrap_or(Date::MAX);
    (day(Month::January, 1), day(Month::December, 31))
}

/// What a person is in a household, in a word: a filer, or what answers the question about relationship, up to its first
/// comma.
pub fn caption_of(person: &Person, relationship: &str, among: &'static [Choice], otherwise: &str) -> String {
    let answer = person.answers.get(relationship).and_then(Entry::text);
    let word = answer.and_then(|r| label_of(among, r)).and_then(|w| w.split(',').next());
    match person.role {
        Role::Filer => "filer".into(),
        Role::Dependent => word.unwrap_or(otherwise).to_lowercase(),
    }
}

/// A household as a pack's typed facts: it can be weighed, recorded and doubted.
pub trait Case: Weighable {
    /// The returns of a way, those of the filers first.
    fn returns(&self, way: &Way) -> Vec<Return>;

    /// Computes a way with its whole trail: the same rules that the search ran silently.
    fn record(&self, way: &Way) -> Recorder;

    /// The open points, given the chosen way and its trail.
    fn points(&self, way: &Way, trail: &Recorder) -> Vec<Point>;

    /// Whether a line counts in a way, or only shows what another option would use.
    fn counts(&self, way: &Way, line: LineId, scope: Scope) -> bool;

    /// What is worked out beside the entries of papers, by their places.
    fn drawn(&self, _way: &Way) -> Vec<(usize, Drawn)> {
        Vec::new()
    }

    /// Whether an official form is filed with a return of a way, by its place among the returns.
    fn required(&self, form: &str, place: usize, way: &Way, trail: &Recorder) -> Required;
}

/// One return of a way.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Return {
    /// Who files it, by place among the people.
    pub people: Vec<usize>,
    /// Whether it is a filer's; a dependent's own return stands apart.
    pub main: bool,
    /// What it is, in a few words: "joint".
    pub caption: String,
}

/// A pack's name and currency.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct About {
    /// The short name in files.
    pub id: &'static str,
    /// The country.
    pub name: &'static str,
    /// The currency by its ISO 4217 code.
    pub currency: &'static str,
    /// How amounts are marked where currencies meet.
    pub symbol: &'static str,
    /// What the identification number is called.
    pub id_number: &'static str,
    /// How its digits are printed: `000-00-0000`.
    pub id_shape: &'static str,
    /// In which order the parts of a day are written.
    pub days: DayOrder,
    /// Which sign stands before the decimals.
    pub numbers: Numbers,
    /// The size of the pages that offices print on.
    pub page: Page,
    /// The question about the household that tells the part of the country: asked as soon as one is made.
    pub locality: &'static str,
    /// The question about a dependent that tells the relationship.
    pub relationship: &'static str,
}

/// In which order a country writes the parts of a day.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DayOrder {
    /// Month, day, year.
    MonthDayYear,
    /// Day, month, year.
    DayMonthYear,
    /// Year, month, day.
    YearMonthDay,
}

/// The size of a page.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Page {
    /// 8½ × 11 inches.
    Letter,
    /// 210 × 297 mm.
    A4,
}

/// Of whom something is asked: filers.
pub const FILER: &[Role] = &[Role::Filer];
/// Of whom something is asked: dependents.
pub const DEPENDENT: &[Role] = &[Role::Dependent];
/// Of whom something is asked: everybody.
pub const ANYONE: &[Role] = &[Role::Filer, Role::Dependent];

/// A question about a person.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Question {
    /// Of whom it is asked.
    pub of: &'static [Role],
    /// From which age at the end of the year it is asked first; before that it decides nothing in practice.
    pub from_age: u8,
    /// The question.
    #[serde(flatten)]
    pub field: Field,
}

/// The lines that sum a return up, for one authority.
#[derive(Debug, Clone, Copy)]
pub struct Totals {
    /// To whom it is paid: "federal", a state.
    pub authority: &'static str,
    /// The tax that is minimised.
    pub tax: LineId,
    /// What was paid during the year.
    pub paid: LineId,
    /// Due (above zero) or back (below).
    pub balance: LineId,
}

/// What an empty box would hold.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Suggestion {
    /// The box.
    pub field: String,
    /// What it would hold.
    pub value: String,
    /// Why.
    pub why: String,
}

/// The packs that a program knows.
#[derive(Clone)]
pub struct Registry(Arc<[Arc<dyn Pack>]>);

impl Registry {
    /// These packs.
    pub fn of<const N: usize>(packs: [Arc<dyn Pack>; N]) -> Registry {
        Registry(Arc::new(packs))
    }

    /// The pack of that country.
    pub fn pack(&self, country: &str) -> Option<&dyn Pack> {
        self.packs().find(|p| p.about().id == country)
    }

    /// All packs.
    pub fn packs(&self) -> impl Iterator<Item = &dyn Pack> {
        self.0.iter().map(AsRef::as_ref)
    }

    /// The same packs, but for one with figures of a practice's own.
    ///
    /// # Errors
    /// A country that is not there, or a replacement that does not fit, in words.
    pub fn with(&self, country: &str, replaced: &[Replacement]) -> Result<Registry, String> {
        let pack =
            self.pack(country).ok_or_else(|| format!("There are no rules for {country}."))?.with(replaced)?;
        let others = |other: &Arc<dyn Pack>| {
            if other.about().id == country { Arc::clone(&pack) } else { Arc::clone(other) }
        };
        Ok(Registry(self.0.iter().map(others).collect()))
    }
}
