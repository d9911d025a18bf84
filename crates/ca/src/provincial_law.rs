//! What a province adds to form 428, which all of them share.

use crate::{
    facts::Facts,
    figures::{Figures, Provincial},
    personal::Incomes,
    plan::{Caring, FormRule, On},
};
use hembo_core::{choice::Chosen, line::LineId, trail::Trail};
use hembo_money::Money;

/// What the law of a province adds to what all have.
pub trait ProvincialLaw {
    /// The code of the province.
    const CODE: &'static str;

    /// When each of its forms is filed.
    const FORMS: &'static [(&'static str, FormRule)];

    /// Its figures of what all provinces have.
    fn figures(figures: &Figures) -> &Provincial;

    /// The amount for relatives cared for, where `dependant` is claimed for one already.
    fn caregiver(_on: On<'_>, _trail: &mut impl Trail, _incomes: &Incomes, _dependant: Money) -> Money {
        Money::ZERO
    }

    /// Who claims the amount for each relative cared for in a way.
    fn caring(_facts: &Facts, _way: Chosen<'_, '_, Facts>) -> Vec<Caring> {
        Vec::new()
    }

    /// Whether a filer who keeps the home of a relative has more for it.
    fn counts_keepers(_facts: &Facts) -> bool {
        false
    }

    /// A credit beside those for amounts and gifts, with its line.
    fn further_credit(_on: On<'_>, _trail: &mut impl Trail, _amounts: Money) -> Option<(LineId, Money)> {
        None
    }

    /// Line 42800, from basic tax and the dividend credit.
    fn tax(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, basic: Money, dividends: Money) -> Money;

    /// What is paid out whatever the tax, with its line.
    fn paid_out(_on: On<'_>, _trail: &mut impl Trail, _incomes: &Incomes) -> Option<(LineId, Money)> {
        None
    }

    /// By how much the tax of a couple jumps at the most where children count with the partner with the higher net income,
    /// and the two change places.
    fn jump_of_children(_facts: &Facts) -> Money {
        Money::ZERO
    }
}
