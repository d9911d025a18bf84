//! Every country's rules, for tests of what stands above the packs.

use hembo_core::Registry;
use std::sync::{Arc, LazyLock};

/// Every country's rules, as the program knows them.
pub static EVERY_LAW: LazyLock<Registry> = LazyLock::new(every_law);

/// The same, for whoever keeps it.
pub fn every_law() -> Registry {
    Registry::of([
        Arc::new(hembo_us::UnitedStates::COMMITTED),
        Arc::new(hembo_ca::Canada::COMMITTED),
        Arc::new(hembo_nz::NewZealand::COMMITTED),
        Arc::new(hembo_za::SouthAfrica::COMMITTED),
        Arc::new(hembo_de::Germany::COMMITTED),
    ])
}
