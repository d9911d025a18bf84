//! One paper that has several others as its parts, such as a year's statement of a broker: it is keyed once, and read as its
//! parts. A part is a paper of its own to the rules; what is told of it stands at the paper that has it.

use crate::{
    field::{Field, Years},
    household::{Answers, Entry, Household, Paper},
    paper::{Back, Counted, NextYear, PaperKind},
    point::Place,
    provision::Declared,
};
use serde::Serialize;
use std::borrow::Cow;
use utoipa::ToSchema;

/// A kind of paper that has the papers of other kinds as its parts.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Gathered {
    /// The code that people type.
    pub id: &'static str,
    /// The heading under which it is offered.
    #[serde(skip)]
    pub subject: &'static str,
    /// What it is, in words.
    #[serde(skip)]
    pub name: &'static str,
    /// Everyday words that people look for it by.
    #[serde(skip)]
    pub words: &'static str,
    /// What its title means.
    #[serde(skip)]
    pub title: &'static str,
    /// The box that stands for it in lists, with the prefix of its part.
    #[serde(skip)]
    pub headline: &'static str,
    /// Its parts; one of them may have a list.
    pub parts: &'static [Part],
    /// Boxes that every part has and that are asked once for all.
    #[serde(skip)]
    pub once: &'static [&'static str],
}

/// A part of a gathered paper.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Part {
    /// What the ids of its boxes begin with, before a point.
    pub prefix: &'static str,
    /// The kind of paper that it is.
    pub kind: &'static str,
}

/// What stands between the id of a gathered paper and the prefix of a part; no id of a paper has it.
const MARK: char = '/';

impl Gathered {
    /// The kind of paper that is keyed: the boxes of all parts in their order, and the list of the one that has one.
    pub fn kind(&self, kinds: &[PaperKind]) -> PaperKind {
        let of = |part: &Part| kinds.iter().find(|kind| kind.id == part.kind);
        let parts = || self.parts.iter().filter_map(|part| Some((part, of(part)?)));
        let own = |field: &&Field| !self.once.contains(&field.id);
        let boxes = parts().flat_map(|(part, kind)| {
            kind.boxes
                .iter()
                .filter(own)
                .map(|field| Field { id: prefixed(part.prefix, field.id).leak(), ..*field })
        });
        let once = self.once.iter().filter_map(|id| parts().find_map(|(_, kind)| kind.field(id))).copied();
        PaperKind {
            id: self.id,
            subject: self.subject,
            name: self.name,
            words: self.words,
            title: self.title,
            shared: parts().any(|(_, kind)| kind.shared),
            headline: self.headline,
            boxes: boxes.chain(once).collect::<Vec<_>>().leak(),
            columns: parts().map(|(_, kind)| kind.columns).find(|columns| !columns.is_empty()).unwrap_or(&[]),
            back: Back::Nothing,
            years: Years::ALL,
            next_year: NextYear::Again,
        }
    }

    /// What its parts bring to where other papers go.
    pub fn counted<'a>(&'a self, counted: &'a [Counted]) -> impl Iterator<Item = Counted> + 'a {
        self.parts.iter().flat_map(move |part| {
            let of_part = counted.iter().filter(|counted| counted.from == part.kind);
            of_part.map(|counted| {
                let boxes = counted.boxes.iter().map(|field| &*prefixed(part.prefix, field).leak());
                Counted { from: self.id, boxes: boxes.collect::<Vec<_>>().leak(), ..*counted }
            })
        })
    }

    /// The parts of a paper that hold something.
    fn parts_of<'a>(&'a self, paper: &'a Paper, kinds: &'a [PaperKind]) -> impl Iterator<Item = Paper> + 'a {
        self.parts.iter().filter_map(move |part| {
            let kind = kinds.iter().find(|kind| kind.id == part.kind)?;
            let is_listed = !kind.columns.is_empty();
            let mut of = Paper {
                id: format!("{}{MARK}{}", paper.id, part.prefix),
                kind: part.kind.into(),
                boxes: kind.boxes.iter().filter_map(|field| in_part(paper, part, field)).collect(),
                rows: if is_listed { paper.rows.clone() } else { Vec::new() },
                before: Answers::new(),
                ..paper.clone()
            };
            let holds = !of.boxes.is_empty() || !of.rows.is_empty();
            let once =
                self.once.iter().filter_map(|id| Some(((*id).to_owned(), paper.boxes.get(*id)?.clone())));
            of.boxes.extend(once);
            holds.then_some(of)
        })
    }
}

fn prefixed(prefix: &str, field: &str) -> String {
    format!("{prefix}.{field}")
}

/// A box of a part with what stands in it.
fn in_part(paper: &Paper, part: &Part, field: &Field) -> Option<(String, Entry)> {
    let entry = paper.boxes.get(&prefixed(part.prefix, field.id))?;
    Some((field.id.to_owned(), entry.clone()))
}

/// The household as the rules read it: the parts of gathered papers stand after all papers, each as a paper of its own.
pub fn apart<'h>(household: &'h Household, declared: &Declared) -> Cow<'h, Household> {
    let gathered = |paper: &Paper| declared.gathered.iter().find(|gathered| gathered.id == paper.kind);
    let parts: Vec<Paper> = household
        .papers
        .iter()
        .filter_map(|paper| Some((gathered(paper)?, paper)))
        .flat_map(|(gathered, paper)| gathered.parts_of(paper, &declared.papers))
        .collect();
    if parts.is_empty() {
        return Cow::Borrowed(household);
    }
    let mut whole = household.clone();
    whole.papers.extend(parts);
    Cow::Owned(whole)
}

/// Whether a paper is a part of another.
pub fn is_part(paper: &Paper) -> bool {
    paper.id.contains(MARK)
}

/// The paper that is keyed and its box, by those of a part; others as they are. `row` says that the box is a column.
pub fn keyed(paper: &str, field: &str, row: bool, declared: &Declared) -> (String, String) {
    let Some((whole, prefix)) = paper.split_once(MARK) else { return (paper.into(), field.into()) };
    let once = declared.gathered.iter().any(|gathered| gathered.once.contains(&field));
    let field = if row || once || field.is_empty() { field.to_owned() } else { prefixed(prefix, field) };
    (whole.into(), field)
}

/// The place at the paper that is keyed.
pub fn place(place: Place, declared: &Declared) -> Place {
    let Some(paper) = &place.paper else { return place };
    let field = place.field.as_deref().unwrap_or_default();
    let (paper, field) = keyed(paper, field, place.row.is_some(), declared);
    Place { paper: Some(paper), field: place.field.is_some().then_some(field), ..place }
}
