//! What may be chosen beside a return: methods, dates and amounts of which no paper tells, so that they are weighed for nobody.

use hembo_core::pack::Election;

const fn of(what: &'static str, cite: &'static str) -> Election {
    Election { what, cite }
}

/// What may be chosen beside a return, in the order of the return.
pub const ELECTIONS: &[Election] = &[
    of("The average or the spot rate of exchange, for all that is foreign", "s25D"),
    of("Over how many years things wear out, small ones at once", "s11(e); Interpretation Note 47"),
    of(
        "A claim for the room at home against the exemption of the home when it is sold",
        "Eighth Schedule paras 44, 49",
    ),
    of("A logbook for a company car", "Seventh Schedule para 7(7), (8)"),
    of("Foreign tax deducted and not credited, of income that arose here", "s6quat(1C)"),
    of(
        "A sale before or after the last day of February, an exclusion in each year",
        "Eighth Schedule para 5",
    ),
    of("On resignation the vested part in cash or moved to another fund", "Second Schedule paras 2, 6"),
    of(
        "Contributions that were not deducted, carried or taken off a later lump sum or annuity",
        "s10C; Second Schedule paras 5, 6",
    ),
    of("The second estimate and a third payment of provisional tax", "Fourth Schedule paras 19, 20, 23A"),
    of("Payment by instalments, or put off while an objection runs", "TAA ss 164, 167"),
];
