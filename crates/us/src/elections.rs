//! What may be chosen beside a return: methods, dates and amounts of which no paper tells, so that they are weighed for nobody.

use hembo_core::pack::Election;

const fn of(what: &'static str, cite: &'static str) -> Election {
    Election { what, cite }
}

/// What may be chosen beside a return, in the order of the return.
pub const ELECTIONS: &[Election] = &[
    of("A joint return instead of two filed separate ones, within three years", "IRC §6013(b)"),
    of("Interest on savings bonds each year, or when they are cashed", "IRC §454(a)"),
    of("Premium of taxable bonds spread over their life or left in the basis", "IRC §171(c)"),
    of("Market discount each year, or when the bond is sold", "IRC §1278(b)"),
    of("Which lots were sold, and the average basis of a fund's shares", "Reg. §1.1012-1(c), (e)"),
    of("Restricted stock taxed when granted, a gain put into an opportunity fund", "IRC §§83(b), 1400Z-2"),
    of(
        "More paid into an IRA by the due date, or treated as of the other kind",
        "IRC §§219(f)(3), 408A(d)(6)",
    ),
    of("Cash or accrual, and the year of a business", "IRC §§441, 446"),
    of("A car at the standard rate or at its cost, in its first year of business", "Rev. Proc. 2019-46"),
    of(
        "Small things and repairs deducted at once, costs of starting up",
        "IRC §195; Reg. §1.263(a)-1(f), -3(h)",
    ),
    of("A business of both spouses as a joint venture, half on each Schedule C", "IRC §761(f)"),
    of("Activities grouped, and all rentals of a professional as one", "IRC §469(c)(7)(A); Reg. §1.469-4"),
    of("Interest and taxes on land that earns nothing, added to its basis", "IRC §266"),
    of("Medical expenses of someone who died, on the estate's return", "IRC §213(c)(2)"),
    of("Foreign tax of the year in which it accrued or was paid", "IRC §905(a)"),
    of("Cents instead of whole dollars, more places in a ratio", "IRC §6102(a)"),
];
