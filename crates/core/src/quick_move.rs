//! Quick moves of a trial: one step that asks 'what if', as the commands that make it.

use crate::{
    check::Fault,
    command::Command,
    field::{Field, FieldKind},
    household::{Entry, Household, Paper, Person, Role},
    pack::Pack,
    settled,
};
use hembo_money::{Money, Rounding};
use serde::{Deserialize, Serialize};
use time::{Date, Month};
use utoipa::ToSchema;

/// A step that is tried.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "move", rename_all = "snake_case", deny_unknown_fields)]
pub enum QuickMove {
    /// An amount is so much more, or less where below zero; not below zero where it cannot be.
    By {
        /// The paper.
        paper: String,
        /// The line of its list; of a box nothing.
        #[serde(default)]
        row: Option<String>,
        /// The box or column.
        field: String,
        /// How much, as decimal text.
        amount: String,
    },
    /// As if a paper were missing, or a line of its list: sold next year, say.
    Without {
        /// The paper.
        paper: String,
        /// The line of its list; of the whole paper nothing.
        #[serde(default)]
        row: Option<String>,
    },
    /// As if a paper of a whole year had gone on until the end of a month: so many twelfths of its amounts.
    Until {
        /// The paper.
        paper: String,
        /// The last month, 1 to 11.
        month: u8,
    },
    /// One child more, who lives with every filer all year: as the youngest who is there, else born on the first day of the year.
    Child,
    /// A person is born a month earlier.
    Earlier {
        /// The person.
        person: String,
    },
}

impl QuickMove {
    /// The commands that make it.
    ///
    /// # Errors
    /// A fault where it names something that is not there, or nothing would change.
    pub fn commands(&self, household: &Household, pack: &dyn Pack) -> Result<Vec<Command>, Fault> {
        match self {
            QuickMove::By { paper, row, field, amount } => {
                by(household, pack, (paper, row.as_deref(), field), amount)
            }
            QuickMove::Without { paper, row: None } => {
                Ok(vec![Command::RemovePaper { paper: find(household, paper)?.id.clone() }])
            }
            QuickMove::Without { paper, row: Some(row) } => {
                let found = find(household, paper)?.rows.iter().find(|one| one.id == *row);
                let row = found.ok_or_else(no_line)?.id.clone();
                Ok(vec![Command::RemoveRow { paper: paper.clone(), row }])
            }
            QuickMove::Until { paper, month } => until(find(household, paper)?, *month, pack),
            QuickMove::Child => Ok(vec![Command::AddPerson { person: child(household) }]),
            QuickMove::Earlier { person } => earlier(household, person),
        }
    }
}

fn find<'h>(household: &'h Household, paper: &str) -> Result<&'h Paper, Fault> {
    household.paper(paper).ok_or_else(|| Fault::new("/papers", format!("There is no paper '{paper}'.")))
}

/// The boxes or columns of a paper that hold amounts.
fn amounts(paper: &Paper, pack: &dyn Pack, of_list: bool) -> Vec<&'static Field> {
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind);
    let fields = kind.map(|kind| if of_list { kind.columns } else { kind.boxes }).unwrap_or_default();
    fields.iter().filter(|field| matches!(field.kind, FieldKind::Amount { .. })).collect()
}

fn set(paper: &str, row: Option<&str>, field: &str, amount: Money) -> Command {
    let value = Some(Entry::amount(amount));
    match row {
        None => Command::SetBox { paper: paper.into(), field: field.into(), value },
        Some(row) => Command::SetCell { paper: paper.into(), row: row.into(), field: field.into(), value },
    }
}

fn by(
    household: &Household,
    pack: &dyn Pack,
    (paper, row, field): (&str, Option<&str>, &str),
    amount: &str,
) -> Result<Vec<Command>, Fault> {
    let more: Money = amount.parse().map_err(|_| {
        Fault::new("amount", format!("'{amount}' is not an amount; one is written 1200.50, or -300."))
    })?;
    let paper = find(household, paper)?;
    let known = amounts(paper, pack, row.is_some()).into_iter().find(|known| known.id == field);
    let known = known.ok_or_else(|| Fault::new("field", format!("'{field}' holds no amount there.")))?;
    let entries = match row {
        None => &paper.boxes,
        Some(row) => {
            let found = paper.rows.iter().find(|one| one.id == row);
            &found.ok_or_else(no_line)?.cells
        }
    };
    let was = entries.get(field).and_then(Entry::money).unwrap_or_default();
    let below = matches!(known.kind, FieldKind::Amount { negative: true });
    let now = if below { was + more } else { settled::or_zero(was + more) };
    if now == was {
        return Err(Fault::new("amount", "Nothing would change."));
    }
    Ok(vec![set(&paper.id, row, field, now)])
}

fn no_line() -> Fault {
    Fault::new("row", "There is no such line on that paper.")
}

fn until(paper: &Paper, month: u8, pack: &dyn Pack) -> Result<Vec<Command>, Fault> {
    if !(1..12).contains(&month) {
        return Err(Fault::new("month", "The last month is one of 1 to 11."));
    }
    let (months, year) = (Money::whole(month.into()), Money::whole(12));
    let part = |amount: Money| amount.in_proportion(months, year, Money::CENT, Rounding::HalfUp);
    let amount = |entry: Option<&Entry>| entry.and_then(Entry::money).filter(|amount| !amount.is_zero());
    let mut all = Vec::new();
    for field in amounts(paper, pack, false) {
        all.extend(amount(paper.boxes.get(field.id)).map(|was| set(&paper.id, None, field.id, part(was))));
    }
    for row in &paper.rows {
        for field in amounts(paper, pack, true) {
            let was = amount(row.get(field.id));
            all.extend(was.map(|was| set(&paper.id, Some(&row.id), field.id, part(was))));
        }
    }
    if all.is_empty() {
        return Err(Fault::new("paper", "There is no amount on that paper."));
    }
    Ok(all)
}

/// One more like the youngest, without a number; else one who is told of nothing but the home.
fn child(household: &Household) -> Person {
    let dependents = household.people.iter().filter(|person| person.role == Role::Dependent);
    let id = (1..).map(|at| format!("child{at}")).find(|id| household.person(id).is_none());
    let id = id.unwrap_or_default();
    let name = "One more child".to_owned();
    match dependents.max_by_key(|person| person.born) {
        Some(like) => Person { id, name, id_number: None, died: None, ..like.clone() },
        None => Person {
            id,
            name,
            role: Role::Dependent,
            born: Date::from_calendar_date(household.year, Month::January, 1).ok(),
            died: None,
            id_number: None,
            lived_with: household.filers().map(|(_, filer)| (filer.id.clone(), 12)).collect(),
            answers: Default::default(),
        },
    }
}

/// The same day of the month before, or its last one.
fn earlier(household: &Household, person: &str) -> Result<Vec<Command>, Fault> {
    let found = household.person(person);
    let found = found.ok_or_else(|| Fault::new("/people", format!("There is no person '{person}'.")))?;
    let born = found.born.ok_or_else(|| {
        Fault::new("/people", format!("{} has no date of birth: enter it first.", found.name))
    })?;
    let month = born.month().previous();
    let year = if month == Month::December { born.year() - 1 } else { born.year() };
    let day = settled::lesser(born.day(), month.length(year));
    let earlier =
        Date::from_calendar_date(year, month, day).map_err(|e| Fault::new("/people", e.to_string()))?;
    Ok(vec![Command::SetPerson {
        person: found.id.clone(),
        name: None,
        role: None,
        born: Some(earlier.to_string()),
        died: None,
        id_number: None,
    }])
}
