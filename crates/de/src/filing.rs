//! Whether spouses are assessed together or each alone (§§26, 26a, 26b EStG), and how they divide then what both may share.

use crate::facts::Facts;
use hembo_core::{
    Decision,
    choice::{Chosen, Open},
    decision::Opt,
};

/// How spouses are assessed.
pub static FILING: Open<Facts> = Open::new(
    |facts| if facts.couple() { vec![0] } else { Vec::new() },
    |_, _| {
        let options = vec![
            Opt::new("joint", "Together (Zusammenveranlagung)", "together"),
            Opt::new("separate", "Each alone (Einzelveranlagung)", "each alone"),
        ];
        Decision::between("de.filing", "Assessment of the spouses", "§26(1), (2)", options)
    },
);

/// How what both may share is divided.
pub static ALLOCATION: Open<Facts> = Open::new(
    |facts: &Facts| if facts.couple() { vec![0] } else { Vec::new() },
    |_, _| {
        let options = vec![
            Opt::new("paid", "To who paid", ""),
            Opt::new("half", "A half to each, on request", "expenses by halves"),
        ];
        Decision::between("de.allocation", "Special expenses, burdens, credits", "§26a(2)", options)
    },
)
.arises(|facts, _, way| alone(facts, way));

/// Whether spouses are each assessed alone in a way; without a choice they are where they live apart.
pub fn alone(facts: &Facts, way: Chosen<'_, '_, Facts>) -> bool {
    if facts.couple() { way.taken(&FILING, 0) == Some(1) } else { facts.filers.len() > 1 }
}

/// Whether they divide by halves in a way.
pub fn halves(way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&ALLOCATION, 0) == Some(1)
}
