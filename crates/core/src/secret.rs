//! Secrets: identification numbers, and every field that its pack declares to be one. They are sealed where they are
//! stored, hidden on the screen and in the history.

use crate::{
    command::Command,
    field::Field,
    household::{Answers, Entry, Household, Paper, Person},
    pack::Pack,
    paper::PaperKind,
};

/// What stands in place of a secret.
pub const HIDDEN: &str = "•";

/// Does something with every secret of a household, each with a name for its place that no other has.
///
/// # Errors
/// The first that `act` fails with.
pub fn each<E>(
    household: &mut Household,
    pack: &dyn Pack,
    mut act: impl FnMut(&str, &mut String) -> Result<(), E>,
) -> Result<(), E> {
    in_answers(&mut household.answers, pack.household_questions().iter(), "answers", &mut act)?;
    for person in &mut household.people {
        in_person(person, pack, &mut act)?;
    }
    for paper in &mut household.papers {
        in_paper(paper, pack, &mut act)?;
    }
    Ok(())
}

/// Takes every secret out of a household.
pub fn leave_out(household: &mut Household, pack: &dyn Pack) {
    let drop = |answers: &mut Answers, fields: &mut dyn Iterator<Item = &Field>| {
        for field in fields.filter(|f| f.secret) {
            answers.remove(field.id);
        }
    };
    drop(&mut household.answers, &mut pack.household_questions().iter());
    for person in &mut household.people {
        person.id_number = None;
        drop(&mut person.answers, &mut pack.person_questions().iter().map(|q| &q.field));
    }
    for paper in &mut household.papers {
        let Some(kind) = kind_of(pack, &paper.kind) else { continue };
        drop(&mut paper.boxes, &mut kind.boxes.iter());
        for row in &mut paper.rows {
            drop(&mut row.cells, &mut kind.columns.iter());
        }
    }
}

type Act<'a, E> = &'a mut dyn FnMut(&str, &mut String) -> Result<(), E>;

fn in_person<E>(person: &mut Person, pack: &dyn Pack, act: Act<'_, E>) -> Result<(), E> {
    if let Some(number) = &mut person.id_number {
        act(&person.id, number)?;
    }
    let questions = pack.person_questions().iter().map(|q| &q.field);
    in_answers(&mut person.answers, questions, &format!("people/{}", person.id), act)
}

fn in_paper<E>(paper: &mut Paper, pack: &dyn Pack, act: Act<'_, E>) -> Result<(), E> {
    let Some(kind) = kind_of(pack, &paper.kind) else { return Ok(()) };
    let place = format!("papers/{}", paper.id);
    in_answers(&mut paper.boxes, kind.boxes.iter(), &place, act)?;
    for row in &mut paper.rows {
        in_answers(&mut row.cells, kind.columns.iter(), &format!("{place}/{}", row.id), act)?;
    }
    Ok(())
}

fn in_answers<'f, E>(
    answers: &mut Answers,
    fields: impl Iterator<Item = &'f Field>,
    place: &str,
    act: Act<'_, E>,
) -> Result<(), E> {
    for field in fields.filter(|f| f.secret) {
        if let Some(Entry::Text(text)) = answers.get_mut(field.id) {
            act(&format!("{place}/{}", field.id), text)?;
        }
    }
    Ok(())
}

fn kind_of(pack: &dyn Pack, id: &str) -> Option<&'static PaperKind> {
    pack.paper_kinds().iter().find(|k| k.id == id)
}

/// A command as it stands in the history: every secret hidden.
pub fn hidden(mut command: Command, household: &Household, pack: &dyn Pack) -> Command {
    let hide = &mut |_: &str, text: &mut String| {
        HIDDEN.clone_into(text);
        Ok::<(), std::convert::Infallible>(())
    };
    let kind = |paper: &str| household.paper(paper).and_then(|p| kind_of(pack, &p.kind));
    let hide_entry = |secret: bool, value: &mut Option<Entry>| {
        if let Some(Entry::Text(text)) = value.as_mut().filter(|_| secret) {
            HIDDEN.clone_into(text);
        }
    };
    let secret = |field: Option<&Field>| field.is_some_and(|f| f.secret);
    match &mut command {
        Command::AddPerson { person } => {
            let Ok(()) = in_person(person, pack, hide);
        }
        Command::AddPaper { paper } => {
            let Ok(()) = in_paper(paper, pack, hide);
        }
        Command::SetPerson { id_number: Some(number), .. } if !number.is_empty() => HIDDEN.clone_into(number),
        Command::Answer { field, value } => {
            hide_entry(secret(pack.household_questions().iter().find(|q| q.id == *field)), value);
        }
        Command::AnswerFor { field, value, .. } => {
            let asked = pack.person_questions().iter().map(|q| &q.field).find(|q| q.id == *field);
            hide_entry(secret(asked), value);
        }
        Command::SetBox { paper, field, value } => {
            hide_entry(secret(kind(paper).and_then(|k| k.field(field))), value);
        }
        Command::SetCell { paper, field, value, .. } => {
            hide_entry(secret(kind(paper).and_then(|k| k.column(field))), value);
        }
        Command::AddRow { paper, row, .. } => {
            let columns = kind(paper).map_or(&[][..], |k| k.columns);
            let Ok(()) = in_answers(row, columns.iter(), "", hide);
        }
        _ => {}
    }
    command
}
