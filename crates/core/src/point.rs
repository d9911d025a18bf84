//! Open points: what is unsettled, and where.

use crate::{
    field::Field,
    household::{Entry, Household, Row},
};
use serde::Serialize;
use utoipa::ToSchema;

/// Something unsettled.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Point {
    /// The id: the check's code and its place.
    pub id: String,
    /// Whether it blocks.
    pub weight: Weight,
    /// What is the matter.
    pub message: String,
    /// What to do about it.
    pub remedy: String,
    /// The rule that asks for it; empty where it is no rule of the law.
    pub cite: String,
    /// Where.
    pub place: Place,
    /// Whose return it is about, where that is not the law's first authority: a state.
    pub authority: String,
    /// The law asks for something that this program does not compute yet, or might: the figures are not a result.
    pub not_covered: bool,
    /// It may be said to be done beside this return; nothing else that blocks can be put aside.
    pub beside: bool,
    /// The law leaves an option open here that is not weighed.
    pub unweighed: bool,
    /// What the field at the place should say, where that can be computed.
    pub suggested: Option<String>,
    /// Why the preparer put it aside, or who did it beside this return and when, if so.
    pub dismissed: Option<String>,
    /// A fingerprint of the facts that it is about; whoever puts it aside names it.
    pub about: String,
}

impl Point {
    /// The code of its check.
    pub fn code(&self) -> &str {
        self.id.split(':').next().unwrap_or_default()
    }

    /// Whether it holds up a return: it blocks, and was not put aside.
    pub fn holds(&self) -> bool {
        self.weight == Weight::Blocks && self.dismissed.is_none()
    }
}

/// A kind of open point, declared at the provision that finds it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct PointDef {
    /// The code, with which the id of every such point begins; it never changes.
    pub code: &'static str,
    /// Whether it blocks.
    pub weight: Weight,
    /// Whether the figures are no result while it stands.
    pub not_covered: bool,
    /// It blocks until somebody says that it was done beside this return.
    pub beside: bool,
    /// The law leaves an option open that is not weighed.
    pub unweighed: bool,
    /// The rule that asks for it, or the official instructions.
    pub cite: &'static str,
    /// What to do about it.
    pub remedy: &'static str,
}

impl PointDef {
    /// Something that blocks.
    pub const fn blocks(code: &'static str, cite: &'static str, remedy: &'static str) -> PointDef {
        PointDef {
            code,
            weight: Weight::Blocks,
            not_covered: false,
            beside: false,
            unweighed: false,
            cite,
            remedy,
        }
    }

    /// Something worth a look.
    pub const fn look(code: &'static str, cite: &'static str, remedy: &'static str) -> PointDef {
        PointDef { weight: Weight::Look, ..PointDef::blocks(code, cite, remedy) }
    }

    /// An option that the law leaves open and that is not weighed: worth a look, and told beside the ways.
    pub const fn not_weighed(code: &'static str, cite: &'static str, remedy: &'static str) -> PointDef {
        PointDef { unweighed: true, ..PointDef::look(code, cite, remedy) }
    }

    /// Something to be done that is no part of the computation: it blocks until somebody says that it was done beside
    /// this return.
    pub const fn beside(code: &'static str, cite: &'static str, remedy: &'static str) -> PointDef {
        PointDef { beside: true, ..PointDef::blocks(code, cite, remedy) }
    }

    /// Something of the law that is not computed yet; it blocks, and the figures are not a result.
    pub const fn not_covered(code: &'static str, cite: &'static str) -> PointDef {
        PointDef::not_known(code, cite, "Prepare this return elsewhere until Hembo covers it.")
    }

    /// A question on whose answer it depends whether the figures are a result; it blocks, and until it is answered
    /// they are none.
    pub const fn not_known(code: &'static str, cite: &'static str, remedy: &'static str) -> PointDef {
        PointDef { not_covered: true, ..PointDef::blocks(code, cite, remedy) }
    }

    /// Such a point at a place.
    pub fn at(&self, place: Place, message: impl Into<String>) -> Point {
        Point {
            id: format!("{}:{}", self.code, place.key()),
            weight: self.weight,
            message: message.into(),
            remedy: self.remedy.into(),
            cite: self.cite.into(),
            place,
            authority: String::new(),
            not_covered: self.not_covered,
            beside: self.beside,
            unweighed: self.unweighed,
            suggested: None,
            dismissed: None,
            about: String::new(),
        }
    }
}

/// Declares the open points of a provision: a static of each, and all of them as `POINTS`.
///
/// ```
/// hembo_core::open_points! {
///     NO_DAY = look "no-day", "Act §3", "Enter the day.";
///     WRECKS = not_covered "wrecks", "Act §8";
/// }
/// assert_eq!((POINTS.len(), NO_DAY.remedy, WRECKS.not_covered), (2, "Enter the day.", true));
/// ```
#[macro_export]
macro_rules! open_points {
    ($($vis:vis $name:ident = $kind:ident $code:literal, $cite:literal $(, $remedy:literal)?;)*) => {
        $(#[doc = $cite] $vis static $name: $crate::point::PointDef =
            $crate::point::PointDef::$kind($code, $cite $(, $remedy)?);)*
        static POINTS: &[&$crate::point::PointDef] = &[$(&$name),*];
    };
}

/// Where a pack gathers its points.
pub trait Gather {
    /// What was found so far.
    fn found(&mut self) -> &mut Vec<Point>;

    /// A point.
    fn raise(&mut self, def: &PointDef, place: Place, message: impl Into<String>) {
        self.found().push(def.at(place, message));
    }

    /// A point at a field of which it can be computed what it should say.
    fn suggest(&mut self, def: &PointDef, place: Place, message: impl Into<String>, value: impl ToString) {
        let point = def.at(place, message);
        self.found().push(Point { suggested: Some(value.to_string()), ..point });
    }

    /// Questions that were answered with yes and whose papers are missing, each as such a point.
    fn papers_of_yes(&mut self, household: &Household, asked: &[Field], def: &PointDef) {
        for field in asked.iter().filter(|field| field.applies(household)) {
            let yes = household.answers.get(field.id).and_then(Entry::flag) == Some(true);
            let there = household.papers.iter().any(|paper| field.opens.contains(&paper.kind.as_str()));
            if yes && !there {
                let papers = field.opens.join(", ");
                let message = format!("{}: the paper is missing ({papers}).", field.label);
                self.raise(def, Place::household(field.id), message);
            }
        }
    }

    /// Questions that open a section, were not answered and of which no paper tells: one point at the first of them.
    fn sections_open(&mut self, household: &Household, asked: &[Field], def: &PointDef) {
        let there =
            |field: &Field| household.papers.iter().any(|paper| field.opens.contains(&paper.kind.as_str()));
        let open = |field: &&Field| !household.answers.contains_key(field.id) && !there(field);
        let open: Vec<&Field> = asked.iter().filter(open).collect();
        let Some(first) = open.first() else { return };
        let message =
            format!("{} questions that open a section are not answered: {}?", open.len(), first.label);
        self.raise(def, Place::household(first.id), message);
    }

    /// What a law has and its pack has not, as far as it is asked for the household's year.
    fn not_computed(&mut self, household: &Household, all: &[NotComputed]) {
        for NotComputed { field, needs, cite } in all.iter().filter(|n| n.field.years.hold(household.year)) {
            let place = Place::household(field.id);
            match household.answers.get(field.id).and_then(Entry::flag) {
                None => {
                    let asked =
                        PointDef::not_known("asks", cite, "Not computed yet, so it must be ruled out.");
                    self.raise(&asked, place, format!("{}: yes or no?", field.label));
                }
                Some(true) => {
                    let told = PointDef::not_covered("not-computed", cite);
                    self.raise(&told, place, format!("{needs} not computed yet."));
                }
                Some(false) => {}
            }
        }
    }
}

/// Something that a law has and its pack does not compute yet, asked about the household so that its absence is known
/// and not guessed.
#[derive(Debug, Clone, Copy)]
pub struct NotComputed {
    /// The question.
    pub field: Field,
    /// What is not computed, for a point: "A sale is".
    pub needs: &'static str,
    /// Where the law has it.
    pub cite: &'static str,
}

impl NotComputed {
    /// A question with words that help.
    pub const fn new(
        id: &'static str,
        label: &'static str,
        help: &'static str,
        needs: &'static str,
        cite: &'static str,
    ) -> NotComputed {
        NotComputed { field: Field::yes_no(id, "", label).help(help), needs, cite }
    }

    /// The questions of a list.
    pub const fn fields<const N: usize>(all: &[NotComputed; N]) -> [Field; N] {
        let mut fields = [all[0].field; N];
        let mut at = 0;
        while at < N {
            fields[at] = all[at].field;
            at += 1;
        }
        fields
    }

    /// The same, from a year on.
    pub const fn since(self, year: i32) -> NotComputed {
        NotComputed { field: self.field.since(year), ..self }
    }
}

/// How much a point weighs.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Weight {
    /// Filing must wait.
    Blocks,
    /// Worth a look; may be put aside with a reason.
    Look,
}

/// A place in the household: a person's or the household's question, a paper, a box, a row.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, ToSchema)]
pub struct Place {
    /// The person.
    pub person: Option<String>,
    /// The paper.
    pub paper: Option<String>,
    /// The box, column or question.
    pub field: Option<String>,
    /// The line of a list, by its id.
    pub row: Option<String>,
    /// The decision.
    pub decision: Option<String>,
}

impl Place {
    /// A question about a person.
    pub fn person(person: &str, field: &str) -> Place {
        Place { person: Some(person.into()), field: Some(field.into()), ..Place::default() }
    }

    /// A question about the household.
    pub fn household(field: &str) -> Place {
        Place { field: Some(field.into()), ..Place::default() }
    }

    /// A box of a paper.
    pub fn paper(paper: &str, field: &str) -> Place {
        Place { paper: Some(paper.into()), field: Some(field.into()), ..Place::default() }
    }

    /// A cell of a list.
    pub fn row(paper: &str, row: &Row, field: &str) -> Place {
        Place { row: Some(row.id.clone()), ..Place::paper(paper, field) }
    }

    /// A decision.
    pub fn decision(decision: &str) -> Place {
        Place { decision: Some(decision.into()), ..Place::default() }
    }

    /// The place as the tail of a point's id.
    fn key(&self) -> String {
        let parts = [&self.person, &self.paper, &self.row, &self.decision, &self.field];
        parts.into_iter().flatten().map(String::as_str).collect::<Vec<_>>().join("/")
    }
}
