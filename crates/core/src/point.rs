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
    /// Where.
    pub place: Place,
    /// The law asks for something that this program does not compute yet, or might: the figures are not a result.
    pub not_covered: bool,
    /// What the field at the place should say, where that can be computed.
    pub suggested: Option<String>,
    /// Why the preparer put it aside, if so.
    pub dismissed: Option<String>,
    /// A fingerprint of the facts that it is about; whoever puts it aside names it.
    pub about: String,
}

/// Where a pack gathers its points.
pub trait Gather {
    /// What was found so far.
    fn found(&mut self) -> &mut Vec<Point>;

    /// Something that blocks.
    fn blocks(&mut self, code: &str, place: Place, message: impl Into<String>, remedy: &str) {
        self.found().push(Point::blocks(code, place, message, remedy));
    }

    /// Something worth a look.
    fn look(&mut self, code: &str, place: Place, message: impl Into<String>, remedy: &str) {
        self.found().push(Point::look(code, place, message, remedy));
    }

    /// Something of the law that is not computed yet.
    fn not_covered(&mut self, code: &str, place: Place, message: impl Into<String>) {
        self.found().push(Point::not_covered(code, place, message));
    }

    /// A question on whose answer it depends whether the figures are a result.
    fn not_known(&mut self, code: &str, place: Place, message: impl Into<String>, remedy: &str) {
        self.found().push(Point::not_known(code, place, message, remedy));
    }

    /// What a law has and its pack has not, as far as it is asked for the household's year.
    fn not_computed(&mut self, household: &Household, all: &[NotComputed]) {
        for NotComputed { field, needs } in all.iter().filter(|n| n.field.years.hold(household.year)) {
            let place = Place::household(field.id);
            match household.answers.get(field.id).and_then(Entry::flag) {
                None => {
                    let message = format!("{}: yes or no?", field.label);
                    let remedy = "Not computed yet, so it must be ruled out.";
                    self.not_known(&format!("asks-{}", field.id), place, message, remedy);
                }
                Some(true) => self.not_covered(field.id, place, format!("{needs} not computed yet.")),
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
}

impl NotComputed {
    /// A question with words that help.
    pub const fn new(
        id: &'static str,
        label: &'static str,
        help: &'static str,
        needs: &'static str,
    ) -> NotComputed {
        NotComputed { field: Field::yes_no(id, "", label).help(help), needs }
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

impl Point {
    /// Something that blocks.
    pub fn blocks(code: &str, place: Place, message: impl Into<String>, remedy: impl Into<String>) -> Point {
        Point::new(code, Weight::Blocks, place, message.into(), remedy.into())
    }

    /// Something worth a look.
    pub fn look(code: &str, place: Place, message: impl Into<String>, remedy: impl Into<String>) -> Point {
        Point::new(code, Weight::Look, place, message.into(), remedy.into())
    }

    /// Something of the law that is not computed yet; it blocks, and the figures are not a result.
    pub fn not_covered(code: &str, place: Place, message: impl Into<String>) -> Point {
        let remedy = "Prepare this return elsewhere until Hembo covers it.".to_owned();
        Point { not_covered: true, ..Point::new(code, Weight::Blocks, place, message.into(), remedy) }
    }

    /// A question on whose answer it depends whether the figures are a result; it blocks, and until it is answered
    /// they are none.
    pub fn not_known(
        code: &str,
        place: Place,
        message: impl Into<String>,
        remedy: impl Into<String>,
    ) -> Point {
        Point { not_covered: true, ..Point::blocks(code, place, message, remedy) }
    }

    /// The same point with what the field should say.
    pub fn suggest(self, value: impl ToString) -> Point {
        Point { suggested: Some(value.to_string()), ..self }
    }

    fn new(code: &str, weight: Weight, place: Place, message: String, remedy: String) -> Point {
        let id = format!("{code}:{}", place.key());
        Point {
            id,
            weight,
            message,
            remedy,
            place,
            not_covered: false,
            suggested: None,
            dismissed: None,
            about: String::new(),
        }
    }
}
