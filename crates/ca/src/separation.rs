//! The year of a separation (ITA 118(1)B(a), 118(5)): the amount for the former partner, or support paid and an eligible dependant.

use crate::facts::Facts;
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    provision::Provision,
};

/// It declares nothing of its own: what it asks stands with the people.
pub static PROVISION: Provision = Provision::NONE;

/// What is claimed of a former partner, where the separation was in this year (C-31).
pub static CLAIM: Open<Facts> = Open::new(
    |facts| if facts.former.is_some() { vec![0] } else { Vec::new() },
    |_, _| {
        let options = vec![
            Opt::new("support", "Support paid, and an eligible dependant", ""),
            Opt::new("partner", "The amount for the partner of until then", "amount for the former partner"),
        ];
        Decision::between(
            "ca.separation",
            "What is claimed for the year of the separation",
            "ITA 118(4)(a.1), 118(5)",
            options,
        )
    },
);

/// Whether a way claims the amount for the former partner.
pub fn chosen(way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&CLAIM, 0) == Some(1)
}
