//! Minimum tax of earlier years (ITA 120.2), as far as it decides how amounts are searched: [`crate::minimum_tax`] takes it.

use crate::facts::Facts;
use hembo_core::{decision::More, reading::sum};

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Minimum tax of earlier years.
    pub static EARLIER: Brought = Brought::new();
}

/// Whether minimum tax of earlier years may be taken from a person's tax. Then what lowers the federal tax may cost: less of
/// it is taken, and with it less of the province's part.
pub fn may_be_taken(facts: &Facts, person: usize) -> bool {
    !sum(facts.people[person].own.of(&brings::EARLIER)).is_zero() && !facts.died(person)
}

/// Whether more of what lowers a person's federal tax may cost.
pub fn more(facts: &Facts, person: usize) -> More {
    if may_be_taken(facts, person) { More::MayCost } else { More::NeverCosts }
}
