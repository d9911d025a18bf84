//! The integration tests of this crate, one binary: each would link all of it again.
#![allow(missing_docs, clippy::type_complexity, clippy::unwrap_used)]

mod amounts;
mod brackets;
mod capital;
mod child_care;
mod claims;
mod credits;
mod date_edges;
mod dates;
mod deductions;
mod dependants;
mod discount_note;
mod employment_expenses;
mod family_benefits;
mod forms;
mod house;
mod losses;
mod medical_division;
mod next_year;
mod northern;
mod papers;
mod part_year;
mod partner_elsewhere;
mod points;
mod provinces;
mod provincial_credits;
mod returns;
mod search;
mod separation;
mod shares;
mod thresholds;
mod worked_examples;
mod year_of_death;
