//! Alberta (Alberta Personal Income Tax Act; AB428).

use crate::{
    form_428,
    plan::On,
    provincial_law::{ProvincialLaw, common},
    rounding::share,
};
use hembo_core::{limit, line::LineId, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    figures: &["alberta", "alberta_relatives", "alberta_supplement"],
    ..Provision::NONE
};

lines! {
    TOP_UP = "ca.alberta.supplement", "Supplemental credit", "Alberta Personal Income Tax Act",
        "Amounts above the first bracket keep the rate of the years before.";
}

/// The law of Alberta.
#[derive(Debug)]
pub struct Alberta;

impl ProvincialLaw for Alberta {
    common!("AB", "ab", alberta, alberta_relatives, alberta_credits);

    fn further_credit(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Option<(LineId, Money)> {
        Some((TOP_UP, supplement(on, trail, amounts)?))
    }
}

/// The supplemental credit: amounts above the first bracket keep the credit rate of the years before.
fn supplement(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Option<Money> {
    let figures = on.facts.figures.alberta_supplement.as_ref()?;
    let above = limit::or_zero(trail, amounts - figures.above);
    let credit = share(trail, above, figures.rate);
    Some(on.made(
        trail,
        TOP_UP,
        credit,
        &[(form_428::AMOUNTS, amounts)],
        &[("Above", &figures.above), ("Rate", &figures.rate)],
    ))
}
