//! Edits in people's words, as the history tells them: "Box 1 of Pay slip Harbour Ferries: 96,400 → 96,800".

use super::Command;
use crate::{
    field::{Field, FieldKind},
    held::Held,
    household::{Answers, Entry, Household, Paper, Person, date},
    outcome::Outcome,
    pack::Pack,
    paper::PaperKind,
    secret::HIDDEN,
    words::label_of,
};
use hembo_money::{Money, Rate};
use time::Date;

impl Command {
    /// What the command does, in words. `before` is the household before it, `after` the outcome after the whole edit.
    pub fn words(&self, before: &Household, pack: &dyn Pack, after: &Outcome) -> String {
        Telling { before, pack, after }.of(self)
    }
}

struct Telling<'a> {
    before: &'a Household,
    pack: &'a dyn Pack,
    after: &'a Outcome,
}

impl Telling<'_> {
    fn of(&self, command: &Command) -> String {
        match command {
            Command::Rename { name } => format!("Name of the household: {} → {name}", self.before.name),
            Command::Refer { reference } => {
                let told = |text: &str| (!text.trim().is_empty()).then(|| text.trim().to_owned());
                format!("Number of the household: {}", changed(told(&self.before.reference), told(reference)))
            }
            Command::Answer { field, value } => {
                let asked = self.pack.household_questions().iter().find(|q| q.id == field);
                let was = self.before.answers.get(field);
                format!("{}: {}", label(asked, field), self.change(asked, was, value.as_ref()))
            }
            Command::AddPerson { person } => format!("Added {}", person.name),
            Command::SetPerson { person, name, role, born, died, id_number } => {
                let Some(was) = self.before.person(person) else { return "Changed a person".into() };
                let days = |was: Option<Date>, new: &str| changed(was.map(day), date::parse(new).map(day));
                let parts = [
                    name.as_ref().map(|new| format!("Name of {}: {new}", was.name)),
                    role.map(|new| format!("{}: now a {}", was.name, format!("{new:?}").to_lowercase())),
                    born.as_ref().map(|new| format!("Birth of {}: {}", was.name, days(was.born, new))),
                    died.as_ref().map(|new| format!("Death of {}: {}", was.name, days(was.died, new))),
                    id_number.as_ref().map(|new| {
                        let done = if new.is_empty() { "taken away" } else { "set" };
                        format!("{} of {}: {done}", self.pack.about().id_number, was.name)
                    }),
                ];
                parts.into_iter().flatten().collect::<Vec<_>>().join(", ")
            }
            Command::AnswerFor { person, field, value } => {
                let asked = self.pack.person_questions().iter().map(|q| &q.field).find(|q| q.id == field);
                let was = self.before.person(person).and_then(|p| p.answers.get(field));
                let change = self.change(asked, was, value.as_ref());
                format!("{} of {}: {change}", label(asked, field), self.person(person))
            }
            Command::SetLivedWith { person, with, months } => {
                let was = self.before.person(person).and_then(|p| p.lived_with.get(with));
                let change = changed(was.map(u8::to_string), months.as_ref().map(u8::to_string));
                format!("Months of {} with {}: {change}", self.person(person), self.person(with))
            }
            Command::RemovePerson { person } => format!("Removed {}", self.person(person)),
            Command::AddPaper { paper } => format!("Added {}", title(paper)),
            Command::SetPaper { paper, title, owners, checked, proof } => {
                let name = self.paper(paper);
                let people = owners.as_ref().map(|owners| {
                    let all = owners.iter().map(|o| format!("{} {} %", self.person(&o.person), o.percent));
                    format!("Owners of {name}: {}", all.collect::<Vec<_>>().join(", "))
                });
                let parts = [
                    title.as_ref().map(|new| format!("Title of {name}: {new}")),
                    people,
                    checked.map(|checked| {
                        let done = if checked { "checked against the original" } else { "no longer checked" };
                        format!("{name}: {done}")
                    }),
                    proof.map(|there| {
                        let told = if there { "is at hand" } else { "is not at hand" };
                        format!("{name}: what proves it {told}")
                    }),
                ];
                parts.into_iter().flatten().collect::<Vec<_>>().join(", ")
            }
            Command::SetBox { paper, field, value } => {
                let found = self.before.paper(paper);
                let about = self.kind(found).and_then(|k| k.field(field));
                let was = found.and_then(|p| p.boxes.get(field));
                let change = self.change(about, was, value.as_ref());
                format!("{} of {}: {change}", box_name(about, field), self.paper(paper))
            }
            Command::AddRow { paper, row, .. } => {
                format!("Added a line to {}{}", self.paper(paper), self.cells(self.before.paper(paper), row))
            }
            Command::SetCell { paper, row, field, value } => {
                let found = self.before.paper(paper);
                let about = self.kind(found).and_then(|k| k.column(field));
                let was = found.and_then(|p| p.row(row)).and_then(|r| r.get(field));
                let change = self.change(about, was, value.as_ref());
                let line = self.line(found, row);
                format!("{} in line {line} of {}: {change}", label(about, field), self.paper(paper))
            }
            Command::SetRowProof { paper, row, proof } => {
                let line = self.line(self.before.paper(paper), row);
                let told = if *proof { "is at hand" } else { "is not at hand" };
                format!("Line {line} of {}: what proves it {told}", self.paper(paper))
            }
            Command::RemoveRow { paper, row } => {
                let found = self.before.paper(paper);
                let cells = found.and_then(|p| p.row(row)).map(|r| self.cells(found, r)).unwrap_or_default();
                format!("Removed line {} of {}{cells}", self.line(found, row), self.paper(paper))
            }
            Command::RemovePaper { paper } => format!("Removed {}", self.paper(paper)),
            Command::SetHeld { paper, held } => {
                let name = self.paper(paper);
                match held {
                    Some(Held { by, kept: Some(reason), .. }) => {
                        format!("{name}: stays as it was keyed, though {by} holds something else ({reason})")
                    }
                    Some(held) => format!("{name}: held by {}", held.by),
                    None => format!("{name}: no longer marked as held"),
                }
            }
            Command::AddFile { paper, file } => {
                format!("Added the file {} to {}", file.name, self.paper(paper))
            }
            Command::RemoveFile { paper, file } => {
                let files = self.before.paper(paper).into_iter().flat_map(|paper| &paper.files);
                let name = files.filter(|there| there.id == *file).map(|there| there.name.as_str()).next();
                format!("Took the file {} from {}", name.unwrap_or("away"), self.paper(paper))
            }
            Command::RefuseSlip { slip, reason, .. } => match reason {
                Some(reason) => format!("Refused the slip {slip} ({reason})"),
                None => format!("Took the slip {slip} up again"),
            },
            Command::Pin { decision, option } => {
                let about = self.after.decisions.iter().find(|d| d.id == *decision);
                let name = self.decision(decision);
                let held = |option: &String| {
                    let found = about.and_then(|d| d.options.iter().find(|o| o.id == *option));
                    found.map_or(amount(option), |o| o.label.clone())
                };
                match option {
                    Some(option) => format!("Held {name}: {}", held(option)),
                    None => format!("Let go of {name}"),
                }
            }
            Command::GiveReason { decision, reason } => match reason {
                Some(reason) => format!("Said why {} is held: {reason}", self.decision(decision)),
                None => format!("No reason any more why {} is held", self.decision(decision)),
            },
            Command::SetWorth { line, worth } => {
                let about = self.pack.declared().carries.iter().find(|carry| carry.line == line);
                let label =
                    about.and_then(|carry| self.pack.declared().line(carry.line)).map(|line| line.label);
                let told = |worth: Option<&Rate>| worth.map(ToString::to_string);
                format!(
                    "Worth of a unit left to later years, {}: {}",
                    label.unwrap_or(line),
                    changed(told(self.before.worth.get(line)), told(worth.as_ref()))
                )
            }
            Command::Dismiss { point, reason, .. } => {
                let found = self.after.points.iter().find(|p| p.id == *point);
                let message = found.map_or(point.as_str(), |p| p.message.as_str());
                match reason {
                    Some(reason) => format!("Put aside ({reason}): {message}"),
                    None => format!("Taken up again: {message}"),
                }
            }
        }
    }

    fn person(&self, id: &str) -> String {
        let found: Option<&Person> = self.before.person(id);
        found.map_or(id.to_owned(), |p| p.name.clone())
    }

    fn paper(&self, id: &str) -> String {
        self.before.paper(id).map_or(id.to_owned(), title)
    }

    fn decision<'d>(&'d self, id: &'d str) -> &'d str {
        let about = self.after.decisions.iter().find(|decision| decision.id == id);
        about.map_or(id, |decision| decision.label.as_str())
    }

    fn kind(&self, paper: Option<&Paper>) -> Option<&'static PaperKind> {
        let kind = &paper?.kind;
        self.pack.paper_kinds().iter().find(|k| k.id == *kind)
    }

    /// The place of a line in its list, from one.
    fn line(&self, paper: Option<&Paper>, row: &str) -> usize {
        paper.and_then(|p| p.rows.iter().position(|r| r.id == row)).map_or(0, |at| at + 1)
    }

    fn cells(&self, paper: Option<&Paper>, cells: &Answers) -> String {
        let columns = self.kind(paper).map_or(&[][..], |k| k.columns);
        let told = columns.iter().filter_map(|c| Some(self.entry(Some(c), cells.get(c.id)?)));
        let told: Vec<_> = told.collect();
        if told.is_empty() { String::new() } else { format!(": {}", told.join(", ")) }
    }

    fn change(&self, field: Option<&Field>, was: Option<&Entry>, now: Option<&Entry>) -> String {
        let told = |entry: Option<&Entry>| entry.map(|e| self.entry(field, e));
        changed(told(was), told(now))
    }

    fn entry(&self, field: Option<&Field>, entry: &Entry) -> String {
        match (field.map(|f| f.kind), entry) {
            _ if field.is_some_and(|f| f.secret) => HIDDEN.into(),
            (_, Entry::Flag(true)) => "yes".into(),
            (_, Entry::Flag(false)) => "no".into(),
            (_, Entry::Count(count)) => count.to_string(),
            (Some(FieldKind::Amount { .. }), Entry::Text(text)) => amount(text),
            (Some(FieldKind::Choice { options }), Entry::Text(id)) => {
                label_of(options, id).unwrap_or(id).into()
            }
            (Some(FieldKind::Person), Entry::Text(id)) => self.person(id),
            (Some(FieldKind::Date), entry) if entry.date().is_some() => {
                entry.date().map(day).unwrap_or_default()
            }
            (_, Entry::Text(text)) => text.clone(),
        }
    }
}

fn title(paper: &Paper) -> String {
    let words = [paper.kind.as_str(), paper.title.as_str()];
    words.into_iter().filter(|w| !w.is_empty()).collect::<Vec<_>>().join(" ")
}

/// A box by its printed number, or by its words where it has none.
fn box_name(field: Option<&Field>, id: &str) -> String {
    match field {
        Some(field) if field.number.is_empty() => field.label.into(),
        Some(field) => format!("Box {}", field.number),
        None => id.into(),
    }
}

fn label(field: Option<&Field>, id: &str) -> String {
    field.map_or(id, |f| f.label).into()
}

/// What stood there and what stands there now; a first answer stands alone.
fn changed(was: Option<String>, now: Option<String>) -> String {
    match (was, now) {
        (None, Some(now)) => now,
        (Some(was), Some(now)) => format!("{was} → {now}"),
        (Some(was), None) => format!("emptied, was {was}"),
        (None, None) => "left empty".into(),
    }
}

/// A day as people read it: "14 May 1983".
fn day(date: Date) -> String {
    let month = date.month().to_string();
    format!("{} {} {}", date.day(), &month[..3], date.year())
}

/// An amount as people read it; other text stays.
fn amount(text: &str) -> String {
    text.parse::<Money>().map_or(text.into(), |amount| format!("{amount:#}"))
}
