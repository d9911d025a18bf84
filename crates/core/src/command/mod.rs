//! Edits: small commands that change a household, or say why not and change nothing.

mod between;
mod entered;
mod touch;
mod words;

pub use between::between;
pub use entered::{Sought, Spot};
pub use touch::{Conflict, conflicts};

use crate::{
    check::Fault,
    held::Held,
    household::{Answers, Dismissal, Entry, Household, Paper, Person, Role, Share, SlipFile, date},
};
use hembo_money::Rate;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use time::Date;
use utoipa::ToSchema;

/// One edit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "do", rename_all = "snake_case", deny_unknown_fields)]
// Edits are few and soon done: a paper in its box would only make each of them harder to write.
#[allow(clippy::large_enum_variant)]
pub enum Command {
    /// Renames the household.
    Rename {
        /// The new name.
        name: String,
    },
    /// Sets the practice's own number of the household; empty text takes it away.
    Refer {
        /// The number.
        reference: String,
    },
    /// Answers a question about the household, or takes the answer back.
    Answer {
        /// The question.
        field: String,
        /// The answer.
        value: Option<Entry>,
    },
    /// Adds a person.
    AddPerson {
        /// The person.
        person: Person,
    },
    /// Sets a person's name, dates or number; what is left out stays.
    SetPerson {
        /// The person's id.
        person: String,
        /// A new name.
        #[serde(default)]
        name: Option<String>,
        /// Filer or dependent.
        #[serde(default)]
        role: Option<Role>,
        /// Date of birth; empty text takes it away.
        #[serde(default)]
        born: Option<String>,
        /// Date of death; empty text takes it away.
        #[serde(default)]
        died: Option<String>,
        /// The identification number; empty text takes it away.
        #[serde(default)]
        id_number: Option<String>,
    },
    /// Answers a question about a person, or takes the answer back.
    AnswerFor {
        /// The person's id.
        person: String,
        /// The question.
        field: String,
        /// The answer.
        value: Option<Entry>,
    },
    /// Sets the months that a person lived with a filer.
    SetLivedWith {
        /// The person's id.
        person: String,
        /// The filer's id.
        with: String,
        /// 0 to 12, or nothing where it is not known.
        months: Option<u8>,
    },
    /// Removes a person who owns no paper.
    RemovePerson {
        /// The person's id.
        person: String,
    },
    /// Adds a paper.
    AddPaper {
        /// The paper.
        paper: Paper,
    },
    /// Sets a paper's title, owners or marks; what is left out stays.
    SetPaper {
        /// The paper's id.
        paper: String,
        /// A new title.
        #[serde(default)]
        title: Option<String>,
        /// New owners.
        #[serde(default)]
        owners: Option<Vec<Share>>,
        /// Checked against the original.
        #[serde(default)]
        checked: Option<bool>,
        /// What proves it is at hand, with every line of its list.
        #[serde(default)]
        proof: Option<bool>,
    },
    /// Fills a box, or empties it.
    SetBox {
        /// The paper's id.
        paper: String,
        /// The box.
        field: String,
        /// What stands in it.
        value: Option<Entry>,
    },
    /// Adds a line to a list of receipts.
    AddRow {
        /// The paper's id.
        paper: String,
        /// The line's id; the next that was never used where it is left out.
        #[serde(default)]
        id: Option<String>,
        /// The line.
        row: Answers,
    },
    /// Fills a cell of a list, or empties it.
    SetCell {
        /// The paper's id.
        paper: String,
        /// The line's id.
        row: String,
        /// The column.
        field: String,
        /// What stands in it.
        value: Option<Entry>,
    },
    /// Marks whether what proves a line of a list is at hand.
    SetRowProof {
        /// The paper's id.
        paper: String,
        /// The line's id.
        row: String,
        /// It is.
        proof: bool,
    },
    /// Removes a line of a list.
    RemoveRow {
        /// The paper's id.
        paper: String,
        /// The line's id.
        row: String,
    },
    /// Removes a paper.
    RemovePaper {
        /// The paper's id.
        paper: String,
    },
    /// Sets what the authority or the payer holds of a paper, as it was fetched; nothing takes the mark away.
    SetHeld {
        /// The paper's id.
        paper: String,
        /// What is held.
        held: Option<Held>,
    },
    /// Adds a slip as a file to a paper.
    AddFile {
        /// The paper's id.
        paper: String,
        /// The file.
        file: SlipFile,
    },
    /// Takes a file away from a paper.
    RemoveFile {
        /// The paper's id.
        paper: String,
        /// The file's id.
        file: String,
    },
    /// Refuses a slip that the authority or a payer offers, or takes it up again.
    RefuseSlip {
        /// The slip.
        slip: String,
        /// The reason; nothing takes it up again.
        reason: Option<String>,
        /// The fingerprint of what the slip says: another one is offered anew.
        #[serde(default)]
        about: Option<String>,
    },
    /// Holds an option, or lets go.
    Pin {
        /// The decision.
        decision: String,
        /// The option; nothing lets go.
        option: Option<String>,
    },
    /// Says why an option is held, or takes that back.
    GiveReason {
        /// The decision.
        decision: String,
        /// Why; it is printed with the way.
        reason: Option<String>,
    },
    /// Says what a unit of what a line leaves to later years is worth to the preparer, or takes that back.
    SetWorth {
        /// The line.
        line: String,
        /// The value of a unit, at most one.
        worth: Option<Rate>,
    },
    /// Puts an open point aside with a reason, or takes it up again.
    Dismiss {
        /// The point.
        point: String,
        /// The reason; nothing takes it up again.
        reason: Option<String>,
        /// The fingerprint of the facts that the point is about, as the point tells it.
        #[serde(default)]
        about: Option<String>,
    },
}

impl Command {
    /// The command as it was carried out on what is now this household: lines that had no id have those that they got.
    #[must_use]
    pub fn carried_out(self, after: &Household) -> Command {
        match self {
            Command::AddRow { paper, id: None, row } => {
                let last = after.paper(&paper).and_then(|paper| paper.rows.last());
                Command::AddRow { id: last.map(|last| last.id.clone()), paper, row }
            }
            Command::AddPaper { paper } => {
                Command::AddPaper { paper: after.paper(&paper.id).cloned().unwrap_or(paper) }
            }
            other => other,
        }
    }

    /// Changes the household. What the change makes of it is for [`crate::check::faults`] to judge.
    ///
    /// # Errors
    /// A fault where the command points at something that is not there; then nothing was changed.
    pub fn apply(self, to: &mut Household) -> Result<(), Fault> {
        match self {
            Command::Rename { name } => to.name = name,
            Command::Refer { reference } => to.reference = reference.trim().into(),
            Command::Answer { field, value } => set(&mut to.answers, field, value),
            Command::AddPerson { person } => to.people.push(person),
            Command::SetPerson { person, name, role, born, died, id_number } => {
                let (born, died) = (date_of(born)?, date_of(died)?);
                let person = find_person(to, &person)?;
                replace(&mut person.name, name);
                replace(&mut person.role, role);
                replace(&mut person.born, born);
                replace(&mut person.died, died);
                if let Some(number) = id_number {
                    person.id_number = (!number.is_empty()).then_some(number);
                }
            }
            Command::AnswerFor { person, field, value } => {
                set(&mut find_person(to, &person)?.answers, field, value)
            }
            Command::SetLivedWith { person, with, months } => {
                set(&mut find_person(to, &person)?.lived_with, with, months);
            }
            Command::RemovePerson { person } => remove_person(to, &person)?,
            Command::AddPaper { paper } if to.retired.contains(&paper.id) => {
                let message =
                    format!("The id '{}' belonged to a paper that was removed: choose another.", paper.id);
                return Err(Fault::new("/papers", message));
            }
            Command::AddPaper { paper } => {
                to.papers.push(paper);
                to.name_rows();
            }
            Command::SetPaper { paper, title, owners, checked, proof } => {
                let paper = find_paper(to, &paper)?;
                replace(&mut paper.title, title);
                if owners.as_ref().is_some_and(|owners| *owners != paper.owners) {
                    paper.note_change("owners");
                }
                replace(&mut paper.owners, owners);
                if checked.is_some() {
                    paper.changed.clear();
                }
                replace(&mut paper.checked, checked);
                if proof.is_some() {
                    paper.proven.clear();
                }
                replace(&mut paper.proof, proof);
            }
            Command::SetBox { paper, field, value } => {
                let paper = find_paper(to, &paper)?;
                if paper.boxes.get(&field) != value.as_ref() {
                    paper.note_change(&field);
                }
                set(&mut paper.boxes, field, value);
            }
            Command::AddRow { paper, id, row } => {
                let paper = find_paper(to, &paper)?;
                paper.note_change("rows");
                paper.add_row(id, row);
            }
            Command::SetCell { paper, row, field, value } => {
                let cells = find_row(to, &paper, &row)?;
                let changes = cells.get(&field) != value.as_ref();
                set(cells, field, value);
                if changes {
                    find_paper(to, &paper)?.note_change("rows");
                }
            }
            Command::SetRowProof { paper, row, proof } => {
                find_row(to, &paper, &row)?;
                let paper = find_paper(to, &paper)?;
                let otherwise = (proof != paper.proof).then_some(proof);
                set(&mut paper.proven, row, otherwise);
            }
            Command::RemoveRow { paper, row } => {
                find_row(to, &paper, &row)?;
                let paper = find_paper(to, &paper)?;
                paper.rows.retain(|r| r.id != row);
                paper.proven.remove(&row);
                paper.note_change("rows");
            }
            Command::RemovePaper { paper } => {
                find_paper(to, &paper)?;
                to.papers.retain(|p| p.id != paper);
                to.retired.insert(paper);
            }
            Command::SetHeld { paper, held } => find_paper(to, &paper)?.held = held,
            Command::AddFile { paper, file } => {
                let paper = find_paper(to, &paper)?;
                paper.files.retain(|there| there.id != file.id);
                paper.files.push(file);
            }
            Command::RemoveFile { paper, file } => {
                let files = &mut find_paper(to, &paper)?.files;
                if !files.iter().any(|there| there.id == file) {
                    return Err(Fault::new("/papers", "There is no such file at that paper."));
                }
                files.retain(|there| there.id != file);
            }
            Command::RefuseSlip { slip, reason, about } => {
                set(&mut to.refused, slip, reason.map(|reason| Dismissal { reason, about }));
            }
            Command::Pin { decision, option } => {
                if option.is_none() {
                    to.pin_reasons.remove(&decision);
                }
                set(&mut to.pins, decision, option);
            }
            Command::GiveReason { decision, reason } => {
                let reason = reason.map(|words| words.trim().to_owned()).filter(|words| !words.is_empty());
                if reason.is_some() && !to.pins.contains_key(&decision) {
                    let why = "Nothing is held of this decision: hold an option first, then say why.";
                    return Err(Fault::new("/pin_reasons", why));
                }
                set(&mut to.pin_reasons, decision, reason);
            }
            Command::SetWorth { line, worth } => set(&mut to.worth, line, worth),
            Command::Dismiss { point, reason, about } => {
                set(&mut to.dismissed, point, reason.map(|reason| Dismissal { reason, about }));
            }
        }
        Ok(())
    }
}

fn set<V>(map: &mut BTreeMap<String, V>, key: String, value: Option<V>) {
    match value {
        Some(value) => map.insert(key, value),
        None => map.remove(&key),
    };
}

fn replace<V>(place: &mut V, value: Option<V>) {
    if let Some(value) = value {
        *place = value;
    }
}

/// A date to set: nothing where it stays, `Some(None)` where it is taken away.
fn date_of(text: Option<String>) -> Result<Option<Option<Date>>, Fault> {
    match text.as_deref() {
        None => Ok(None),
        Some("") => Ok(Some(None)),
        Some(text) => match date::parse(text) {
            Some(date) => Ok(Some(Some(date))),
            None => {
                Err(Fault::new("/people", format!("'{text}' is not a day; a day is written 2025-03-31.")))
            }
        },
    }
}

fn find_person<'h>(household: &'h mut Household, id: &str) -> Result<&'h mut Person, Fault> {
    let found = household.people.iter_mut().find(|p| p.id == id);
    found.ok_or_else(|| Fault::new("/people", format!("There is no person '{id}'.")))
}

fn find_paper<'h>(household: &'h mut Household, id: &str) -> Result<&'h mut Paper, Fault> {
    let found = household.papers.iter_mut().find(|p| p.id == id);
    found.ok_or_else(|| Fault::new("/papers", format!("There is no paper '{id}'.")))
}

fn find_row<'h>(household: &'h mut Household, paper: &str, id: &str) -> Result<&'h mut Answers, Fault> {
    let found = find_paper(household, paper)?.rows.iter_mut().find(|r| r.id == id);
    let found = found.map(|row| &mut row.cells);
    found.ok_or_else(|| Fault::new("/papers", format!("There is no line '{id}' on that paper.")))
}

fn remove_person(household: &mut Household, id: &str) -> Result<(), Fault> {
    let name = find_person(household, id)?.name.clone();
    let owned = household.papers.iter().filter(|p| p.owners.iter().any(|o| o.person == id)).count();
    if owned > 0 {
        let message =
            format!("{name} still owns {owned} papers: remove them or give them to another owner first.");
        return Err(Fault::new("/people", message));
    }
    household.people.retain(|p| p.id != id);
    for person in &mut household.people {
        person.lived_with.remove(id);
    }
    Ok(())
}
