//! What may be chosen beside a return: methods, dates and amounts of which no paper tells, so that they are weighed for nobody.

use hembo_core::pack::Election;

const fn of(what: &'static str, cite: &'static str) -> Election {
    Election { what, cite }
}

/// What may be chosen beside a return, in the order of the return.
pub const ELECTIONS: &[Election] = &[
    of("Rates of exchange: of the day, the month or the year, always the same", "ITA YF 1"),
    of(
        "Low-value things, pools, the investment deduction, things not depreciated",
        "ITA EE 38, EE 65 to EE 68, DB 67",
    ),
    of("The rate of a managed fund, of withholding tax, the tax code", "ITA HM 60, RE 12, RD 10B; TAA 24B"),
    of("Resident withholding tax exemption", "ITA RE 27 to RE 29"),
    of("Family credits paid by the week or once a year", "ITA MF 4"),
    of("Salary of a partner who works in the partnership", "ITA DC 4"),
    of("A gift before or after 31 March, a receipt claimed up to four years later", "ITA LD 1; TAA 41A"),
    of("A holiday home out of the rules where little is let", "ITA DG 21"),
    of("A refund paid out, or moved to provisional tax, a loan or the partner", "TAA 173L to 173T"),
    of("Provisional tax through an intermediary, paid later within the safe harbour", "ITA RP 17; TAA 120KE"),
];
