//! What every country shares: the household and its papers, lines, limits and the trail, decisions and the
//! search over all lawful ways, open points, and the outcome that people read.
//!
//! The core knows no country, does no input or output, has no clock and never blocks. A rule pack implements
//! [`Pack`]; [`reckon`] does the rest.

pub mod about_box;
pub mod asking;
pub mod brought;
pub mod certificate;
pub mod check;
pub mod choice;
pub mod command;
pub mod coverage;
pub mod date_edges;
pub mod dates;
pub mod decision;
pub mod divide;
pub mod drawn;
pub mod effect;
pub mod field;
pub mod figures;
pub mod file;
pub mod filing;
pub mod forms;
pub mod gathered;
pub mod held;
pub mod household;
pub mod lever;
pub mod limit;
pub mod line;
mod misplaced;
pub mod numbers;
pub mod outcome;
pub mod own_assessment;
pub mod pack;
pub mod paper;
pub mod payer;
pub mod point;
pub mod provision;
pub mod quick_move;
pub mod reading;
pub mod schema;
pub mod search;
pub mod secret;
pub mod settled;
pub mod slip;
pub mod supposed;
pub mod trail;
pub mod typed;
pub mod withholding;
pub mod words;

pub use check::Fault;
pub use decision::{Decision, Way};
pub use household::{Household, Paper, Person};
pub use limit::Limit;
pub use outcome::{Outcome, reckon};
pub use pack::{Case, Pack, Registry};
pub use point::Point;
pub use trail::{Recorder, Scope, Silent, Trail};
