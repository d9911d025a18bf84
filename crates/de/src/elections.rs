//! What the law leaves open and no paper tells of: named beside the ways, and weighed for nobody.

use hembo_core::pack::Election;

const fn election(what: &'static str, cite: &'static str) -> Election {
    Election { what, cite }
}

/// Every such choice.
pub static ELECTIONS: &[Election] = &[
    election("A loss of the year kept from going back to the two years before", "§10d(1) S.6"),
    election("Another part of a child's lump sums than a half or all", "§§33a(2) S.6, 33b(5) S.3"),
];
