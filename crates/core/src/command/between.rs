//! What differs between two states of a household, as the commands that lead from one to the other.

use super::Command;
use crate::household::{Answers, Dismissal, Entry, Household, Paper, Person, Row};
use std::collections::{BTreeMap, BTreeSet};
use time::Date;

/// The commands that make `before` into `after`, but for its law, its year and what the year before came to. The order of people, papers and
/// lines is not told, nor are the marks that changes leave on papers by themselves.
pub fn between(before: &Household, after: &Household) -> Vec<Command> {
    let mut all = Vec::new();
    if before.name != after.name {
        all.push(Command::Rename { name: after.name.clone() });
    }
    if before.reference != after.reference {
        all.push(Command::Refer { reference: after.reference.clone() });
    }
    all.extend(changed(&before.answers, &after.answers, |field, value| Command::Answer { field, value }));
    let added = after.people.iter().filter(|person| before.person(&person.id).is_none());
    all.extend(added.map(|person| Command::AddPerson { person: person.clone() }));
    let stayed = after.people.iter().filter_map(|now| before.person(&now.id).map(|was| (was, now)));
    all.extend(stayed.flat_map(|(was, now)| of_person(was, now, after)));
    let removed = before.papers.iter().filter(|paper| after.paper(&paper.id).is_none());
    all.extend(removed.map(|paper| Command::RemovePaper { paper: paper.id.clone() }));
    for now in &after.papers {
        match before.paper(&now.id) {
            Some(was) => all.extend(of_paper(was, now)),
            None => all.push(Command::AddPaper { paper: now.clone() }),
        }
    }
    let gone = before.people.iter().filter(|person| after.person(&person.id).is_none());
    all.extend(gone.map(|person| Command::RemovePerson { person: person.id.clone() }));
    all.extend(changed(&before.pins, &after.pins, |decision, option| Command::Pin { decision, option }));
    all.extend(changed(&before.pin_reasons, &after.pin_reasons, |decision, reason| Command::GiveReason {
        decision,
        reason,
    }));
    all.extend(changed(&before.worth, &after.worth, |line, worth| Command::SetWorth { line, worth }));
    all.extend(changed(&before.dismissed, &after.dismissed, |point, value| {
        let (reason, about) = told(value);
        Command::Dismiss { point, reason, about }
    }));
    all.extend(changed(&before.refused, &after.refused, |slip, value| {
        let (reason, about) = told(value);
        Command::RefuseSlip { slip, reason, about }
    }));
    all
}

fn told(value: Option<Dismissal>) -> (Option<String>, Option<String>) {
    value.map_or((None, None), |of| (Some(of.reason), of.about))
}

/// What is set, changed and taken away between two maps.
fn changed<V: Clone + PartialEq>(
    before: &BTreeMap<String, V>,
    after: &BTreeMap<String, V>,
    command: impl Fn(String, Option<V>) -> Command,
) -> Vec<Command> {
    let keys: BTreeSet<&String> = before.keys().chain(after.keys()).collect();
    let differs = keys.into_iter().filter(|key| before.get(*key) != after.get(*key));
    differs.map(|key| command(key.clone(), after.get(key).cloned())).collect()
}

/// What is different about someone who is there before and after.
fn of_person(was: &Person, now: &Person, after: &Household) -> Vec<Command> {
    let day = |was: Option<Date>, now: Option<Date>| {
        (was != now).then(|| now.map(|day| day.to_string()).unwrap_or_default())
    };
    let number = (was.id_number != now.id_number).then(|| now.id_number.clone().unwrap_or_default());
    let set = Command::SetPerson {
        person: now.id.clone(),
        name: (was.name != now.name).then(|| now.name.clone()),
        role: (was.role != now.role).then_some(now.role),
        born: day(was.born, now.born),
        died: day(was.died, now.died),
        id_number: number,
    };
    let nothing = Command::SetPerson {
        person: now.id.clone(),
        name: None,
        role: None,
        born: None,
        died: None,
        id_number: None,
    };
    let person = || now.id.clone();
    let mut all: Vec<Command> = (set != nothing).then_some(set).into_iter().collect();
    all.extend(changed(&was.answers, &now.answers, |field, value| Command::AnswerFor {
        person: person(),
        field,
        value,
    }));
    let months = changed(&was.lived_with, &now.lived_with, |with, months| Command::SetLivedWith {
        person: person(),
        with,
        months,
    });
    // With someone who is removed the months go, too.
    let there = |command: &Command| match command {
        Command::SetLivedWith { with, .. } => after.person(with).is_some(),
        _ => true,
    };
    all.extend(months.into_iter().filter(there));
    all
}

/// What is different about a paper that is there before and after.
fn of_paper(was: &Paper, now: &Paper) -> Vec<Command> {
    let paper = || now.id.clone();
    let mut all =
        changed(&was.boxes, &now.boxes, |field, value| Command::SetBox { paper: paper(), field, value });
    let gone = was.rows.iter().filter(|row| !now.rows.iter().any(|other| other.id == row.id));
    all.extend(gone.map(|row| Command::RemoveRow { paper: paper(), row: row.id.clone() }));
    for row in &now.rows {
        match was.rows.iter().find(|other| other.id == row.id) {
            Some(other) => all.extend(of_cells(&now.id, &row.id, other, row)),
            None => {
                all.push(Command::AddRow { paper: paper(), id: Some(row.id.clone()), row: row.cells.clone() })
            }
        }
    }
    let gone = was.files.iter().filter(|file| !now.files.contains(file));
    all.extend(gone.map(|file| Command::RemoveFile { paper: paper(), file: file.id.clone() }));
    let added = now.files.iter().filter(|file| !was.files.contains(file));
    all.extend(added.map(|file| Command::AddFile { paper: paper(), file: file.clone() }));
    if was.held != now.held {
        all.push(Command::SetHeld { paper: paper(), held: now.held.clone() });
    }
    let set = Command::SetPaper {
        paper: paper(),
        title: (was.title != now.title).then(|| now.title.clone()),
        owners: (was.owners != now.owners).then(|| now.owners.clone()),
        checked: (was.checked != now.checked).then_some(now.checked),
        proof: (was.proof != now.proof).then_some(now.proof),
    };
    let nothing = Command::SetPaper { paper: paper(), title: None, owners: None, checked: None, proof: None };
    all.extend((set != nothing).then_some(set));
    // Set for the whole paper, it is so for every line.
    let stood = |row: &Row| if was.proof == now.proof { was.is_proven(&row.id) } else { now.proof };
    let otherwise = now.rows.iter().filter(|row| now.is_proven(&row.id) != stood(row));
    all.extend(otherwise.map(|row| Command::SetRowProof {
        paper: paper(),
        row: row.id.clone(),
        proof: now.is_proven(&row.id),
    }));
    all
}

fn of_cells(paper: &str, row: &str, was: &Answers, now: &Answers) -> Vec<Command> {
    changed(was, now, |field, value: Option<Entry>| Command::SetCell {
        paper: paper.into(),
        row: row.into(),
        field,
        value,
    })
}
