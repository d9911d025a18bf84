//! The states, and what their law of property does to separate returns.

use crate::{facts::Marital, points::Points};
use hembo_core::{
    field::{Choice, Field, YES},
    household::Entry,
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What is asked about the state.
pub static PROVISION: Provision = Provision {
    household_questions: &[Field::choice(ask::STATE, "", "State of residence", STATES).lasts()],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const STATE: &str = "state";
    /// Whether the return of California is prepared; asked where its rules are.
    pub const CALIFORNIA: &str = "california";
}

open_points! {
    STATE_OF_SPOUSES = blocks "K-029-married", "IRC §66",
        "Name the state.";
    STATE = look "K-029", "IRC §66",
        "Name the state.";
}

/// The fifty states and the District of Columbia.
pub const STATES: &[Choice] = &[
    Choice::new("AL", "Alabama"),
    Choice::new("AK", "Alaska"),
    Choice::new("AZ", "Arizona"),
    Choice::new("AR", "Arkansas"),
    Choice::new("CA", "California"),
    Choice::new("CO", "Colorado"),
    Choice::new("CT", "Connecticut"),
    Choice::new("DE", "Delaware"),
    Choice::new("DC", "District of Columbia"),
    Choice::new("FL", "Florida"),
    Choice::new("GA", "Georgia"),
    Choice::new("HI", "Hawaii"),
    Choice::new("ID", "Idaho"),
    Choice::new("IL", "Illinois"),
    Choice::new("IN", "Indiana"),
    Choice::new("IA", "Iowa"),
    Choice::new("KS", "Kansas"),
    Choice::new("KY", "Kentucky"),
    Choice::new("LA", "Louisiana"),
    Choice::new("ME", "Maine"),
    Choice::new("MD", "Maryland"),
    Choice::new("MA", "Massachusetts"),
    Choice::new("MI", "Michigan"),
    Choice::new("MN", "Minnesota"),
    Choice::new("MS", "Mississippi"),
    Choice::new("MO", "Missouri"),
    Choice::new("MT", "Montana"),
    Choice::new("NE", "Nebraska"),
    Choice::new("NV", "Nevada"),
    Choice::new("NH", "New Hampshire"),
    Choice::new("NJ", "New Jersey"),
    Choice::new("NM", "New Mexico"),
    Choice::new("NY", "New York"),
    Choice::new("NC", "North Carolina"),
    Choice::new("ND", "North Dakota"),
    Choice::new("OH", "Ohio"),
    Choice::new("OK", "Oklahoma"),
    Choice::new("OR", "Oregon"),
    Choice::new("PA", "Pennsylvania"),
    Choice::new("RI", "Rhode Island"),
    Choice::new("SC", "South Carolina"),
    Choice::new("SD", "South Dakota"),
    Choice::new("TN", "Tennessee"),
    Choice::new("TX", "Texas"),
    Choice::new("UT", "Utah"),
    Choice::new("VT", "Vermont"),
    Choice::new("VA", "Virginia"),
    Choice::new("WA", "Washington"),
    Choice::new("WV", "West Virginia"),
    Choice::new("WI", "Wisconsin"),
    Choice::new("WY", "Wyoming"),
];

/// The community-property states (Pub. 555).
pub const COMMUNITY_PROPERTY: &[&str] = &["AZ", "CA", "ID", "LA", "NV", "NM", "TX", "WA", "WI"];

/// Whether spouses there own what they earn together.
pub fn community_property(state: &str) -> bool {
    COMMUNITY_PROPERTY.contains(&state)
}

/// The box of a paper that is of one spouse alone.
pub const SEPARATE: Field = Field::yes_no("separate", "", "Separate property of the owner")
    .lasts()
    .help("Owned before the marriage, given or inherited; of separate returns in a community property state.")
    .only_for(ask::STATE, COMMUNITY_PROPERTY);

/// A box that only the return of a state asks for.
pub const fn of_state(field: Field) -> Field {
    field.only_for(ask::CALIFORNIA, YES)
}

/// Where spouses live decides whether separate returns divide what they earn.
pub fn points(points: &mut Points<'_>) {
    let married = points.facts.marital == Marital::Married;
    match points.answered(ask::STATE).and_then(Entry::text) {
        None if married => {
            points.raise(&STATE_OF_SPOUSES, Place::household(ask::STATE), "State of residence?");
        }
        None => {
            points.raise(&STATE, Place::household(ask::STATE), "State of residence?");
        }
        Some(_) => {}
    }
}
