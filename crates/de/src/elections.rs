//! What the law leaves open and no paper tells of: named beside the ways, and weighed for nobody.

use hembo_core::pack::Election;

const fn election(what: &'static str, cite: &'static str) -> Election {
    Election { what, cite }
}

/// Every such choice.
pub static ELECTIONS: &[Election] = &[
    election("Small or digital things written off over their life instead of at once", "§§6(2), 7(1)"),
    election("All trips home as way to work, instead of a second household", "§9(1) S.3 Nr.4, 5"),
    election("Repairs of a let home spread over two to five years", "§82b EStDV"),
    election(
        "Costs of care or illness as services in the home, and the own burden as such",
        "§§33, 35a(2), (5)",
    ),
    election("Part of a former spouse's maintenance only, below the most", "§10(1a) Nr.1"),
    election("The half of a child's allowances from a parent who does not support it", "§32(6) S.6 to 9"),
    election("A loss of the year kept from going back to the two years before", "§10d(1) S.6"),
    election("Foreign tax deducted instead of credited", "§34c(2)"),
    election("The cap of church tax, where it is asked for", "church tax laws"),
    election("Another part of a child's lump sums than a half or all", "§§33a(2) S.6, 33b(5) S.3"),
];
