//! What the results would be with other entries, tried without being made: one change, or a row of them that a pack lays out step by
//! step.

use crate::{
    Fault,
    command::Command,
    effect::total,
    household::Household,
    outcome::{BesideSection, Outcome, Unreckoned, Wanted, beside, reckon_until},
    pack::Registry,
    search::Stop,
};
use hembo_money::Money;
use serde::Serialize;
use utoipa::ToSchema;

/// What the results would be.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Supposed {
    /// The rows of the Spread that would be others, section by section: `was` is how they stand, `now` what they would be.
    pub sections: Vec<BesideSection>,
    /// Whether the figures would be a result.
    pub covered: bool,
}

/// What the results would be after these commands; nothing is changed.
///
/// # Errors
/// The faults of a command that cannot be carried out or of the household after it, or that it was stopped.
pub fn supposed(
    household: &Household,
    commands: &[Command],
    registry: &Registry,
    stop: &Stop,
) -> Result<Supposed, Unreckoned> {
    let changed = after(household, commands).map_err(|fault| Unreckoned::Faults(vec![fault]))?;
    let reckoned = |household: &Household| -> Result<Outcome, Unreckoned> {
        reckon_until(household, registry, Wanted::least(1), stop)
    };
    let (now, then) = (reckoned(household)?, reckoned(&changed)?);
    let mut sections = beside(&now, &then);
    for section in &mut sections {
        section.rows.retain(|row| row.was.unwrap_or_default() != row.now.unwrap_or_default());
    }
    sections.retain(|section| !section.rows.is_empty());
    Ok(Supposed { sections, covered: then.covered })
}

fn after(household: &Household, commands: &[Command]) -> Result<Household, Fault> {
    let mut changed = household.clone();
    for command in commands {
        command.clone().apply(&mut changed)?;
    }
    Ok(changed)
}

/// A row of changes that a pack lays out, each one step further than the one before: so many months without cover.
#[derive(Debug, Clone, PartialEq)]
pub struct Steps {
    /// What they do: "if Ravi were uncovered for so many months".
    pub title: String,
    /// The step at which the household stands.
    pub now: usize,
    /// The commands of each step, from none on.
    pub steps: Vec<Vec<Command>>,
    /// What is to be known at a step.
    pub marks: Vec<StepMark>,
}

/// What is to be known at a step.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct StepMark {
    /// The step.
    pub step: usize,
    /// The words.
    pub words: String,
}

/// The tax along a row of changes.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SteppedTax {
    /// What the steps do.
    pub title: String,
    /// The step at which the household stands.
    pub now: usize,
    /// The household's lowest tax at each step, from none on.
    pub totals: Vec<Money>,
    /// What is to be known at a step.
    pub marks: Vec<StepMark>,
}

/// The tax along the steps that the pack lays out for a line of a list; nothing where it lays out none, a step cannot be, or it was
/// stopped.
pub fn stepped(
    household: &Household,
    registry: &Registry,
    (paper, row): (&str, &str),
    stop: &Stop,
) -> Option<SteppedTax> {
    let Steps { title, now, steps, marks } =
        registry.pack(&household.country)?.steps(household, paper, row)?;
    let at = |(step, commands): (usize, &Vec<Command>)| {
        // Where the household stands it stays as it is.
        let changed = if step == now { household.clone() } else { after(household, commands).ok()? };
        total(&changed, registry, stop)
    };
    let totals = steps.iter().enumerate().map(at).collect::<Option<Vec<Money>>>()?;
    Some(SteppedTax { title, now, totals, marks })
}
