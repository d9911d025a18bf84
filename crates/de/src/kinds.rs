//! The kinds of results that papers name (§2(1) Nr.1 to 3, 6, 7 EStG).

use hembo_core::field::Choice;

/// The kinds of results, by their annexes.
pub const KINDS: &[Choice] = &[
    Choice::new("freelance", "Self-employment, Anlage S"),
    Choice::new("trade", "Trade, Anlage G"),
    Choice::new("rental", "Letting, Anlage V"),
    Choice::new("farm", "Farming, Anlage L"),
    Choice::new("services", "Occasional services, Anlage SO"),
    Choice::new("sales", "Private sales within the period, Anlage SO"),
];
