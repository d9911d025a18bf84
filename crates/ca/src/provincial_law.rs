//! What a province adds to form 428, which all of them share.

use crate::{
    facts::Facts,
    figures::{Figures, Provincial, ProvincialBenefit, ProvincialCredits, Relatives, TopUp},
    foreign_tax::{self, Left},
    form_428,
    income::Incomes,
    plan::{FormRule, On},
    points::Points,
};
use hembo_core::{
    limit::{self, LimitAt, PhaseOut},
    line::LineId,
    trail::Trail,
};
use hembo_money::{Money, Rate};

/// How a province cares for relatives with an impairment, or of a great age.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Caring {
    /// One line for infirm relatives of 18 or over, wherever they live.
    OneLine,
    /// Line 58400 for those who live along, infirm or parents and grandparents of 65 or over; line 58200 for infirm ones elsewhere.
    TwoLines,
    /// The federal amounts.
    Federal,
}

/// What the law of a province makes of its figures on a return.
#[derive(Debug, Clone, Copy)]
pub struct Changed {
    /// The basic amount.
    pub basic: Money,
    /// More of the age amount, which does not shrink with net income.
    pub age: Money,
    /// More of the amounts for a partner and an eligible dependant.
    pub others: Money,
}

impl Changed {
    /// Nothing but the figures.
    pub fn nothing(figures: &Provincial) -> Changed {
        Changed { basic: figures.basic, age: Money::ZERO, others: Money::ZERO }
    }
}

/// What a couple shares of a province's reductions: what the first return has left of it.
pub type Shared = Option<Money>;

/// A return's tax on its way to line 42800.
#[derive(Debug, Clone, Copy)]
pub struct Taxed<'a> {
    /// Tax less the credits.
    pub basic: Money,
    /// The dividend tax credit.
    pub dividends: Money,
    /// The minimum tax.
    pub minimum: Money,
    /// Foreign tax that the federal credit leaves.
    pub foreign: &'a [Left],
    /// What foreign income is a part of.
    pub of_all_countries: Money,
}

impl Taxed<'_> {
    /// The credit for foreign tax out of a tax.
    pub fn foreign_credit(self, on: On<'_>, trail: &mut impl Trail, tax: Money) -> Money {
        foreign_tax::provincial(on, trail, self.foreign, self.of_all_countries, tax)
    }
}

/// What the law of every province names in the same form: its code, its forms by their beginning, where its figures are, and the
/// forms of its own with when each is filed.
macro_rules! common {
    ($code:literal, $form:literal, $figures:ident, $relatives:ident, $credits:ident $(, $id:literal => $rule:expr)*) => {
        const CODE: &'static str = $code;
        const FORMS: &'static [(&'static str, $crate::plan::FormRule)] = &[
            (concat!($form, "428"), $crate::form_428::ALWAYS),
            $(($id, $rule),)*
            (concat!($form, "-s2"), $crate::form_428::schedule_2),
            (concat!($form, "-s11"), $crate::form_428::schedule_11),
        ];

        fn figures(figures: &$crate::figures::Figures) -> &$crate::figures::Provincial {
            &figures.$figures
        }

        fn relatives(figures: &$crate::figures::Figures) -> &$crate::figures::Relatives {
            &figures.$relatives
        }

        fn credits(figures: &$crate::figures::Figures) -> &$crate::figures::ProvincialCredits {
            &figures.$credits
        }
    };
}
pub(crate) use common;

/// What the law of a province adds to what all have.
pub trait ProvincialLaw {
    /// The code of the province.
    const CODE: &'static str;

    /// When each of its forms is filed.
    const FORMS: &'static [(&'static str, FormRule)];

    /// How it cares for relatives.
    const CARING: Caring = Caring::TwoLines;

    /// Its figures of what all provinces have.
    fn figures(figures: &Figures) -> &Provincial;

    /// Its figures for people with an impairment and for relatives.
    fn relatives(figures: &Figures) -> &Relatives;

    /// Its figures of what it pays with the child benefit and the credit for goods and services tax, where they are estimated.
    fn benefits(_figures: &Figures) -> Option<&ProvincialBenefit> {
        None
    }

    /// Its figures of credits for what was paid.
    fn credits(figures: &Figures) -> &ProvincialCredits;

    /// What it makes of the figures on a return.
    fn changed(on: On<'_>, _trail: &mut impl Trail, _incomes: &Incomes) -> Changed {
        Changed::nothing(Self::figures(&on.facts.figures))
    }

    /// Amounts beside those that all have, each with its line.
    fn further_amounts(_on: On<'_>, _trail: &mut impl Trail, _incomes: &Incomes) -> Vec<(LineId, Money)> {
        Vec::new()
    }

    /// The rate of gifts out of income above an amount.
    fn gifts_from_the_top(_figures: &Figures) -> Option<&TopUp> {
        None
    }

    /// A credit beside those for amounts and gifts, with its line.
    fn further_credit(_on: On<'_>, _trail: &mut impl Trail, _amounts: Money) -> Option<(LineId, Money)> {
        None
    }

    /// Line 42800: without more, basic tax less the dividend credit.
    fn tax(on: On<'_>, trail: &mut impl Trail, _: &Incomes, taxed: Taxed<'_>, _: &mut Shared) -> Money {
        let before = before_reduction(on, trail, taxed);
        let foreign = taxed.foreign_credit(on, trail, before);
        let made = [(form_428::BEFORE, before), (form_428::FOREIGN, foreign)];
        on.made(trail, form_428::LEFT, before - foreign, &made, &[])
    }

    /// What is paid out whatever the tax, beside the credits for what was paid, each with its line.
    fn paid_out(_on: On<'_>, _trail: &mut impl Trail, _incomes: &Incomes) -> Vec<(LineId, Money)> {
        Vec::new()
    }

    /// By how much the tax of a couple jumps at the most where children count with the partner with the higher net income,
    /// and the two change places.
    fn jump_of_children(_facts: &Facts) -> Money {
        Money::ZERO
    }

    /// By how much the tax jumps at the most elsewhere.
    fn jump(_facts: &Facts) -> Money {
        Money::ZERO
    }

    /// What of it is not computed, or asked.
    fn points(_points: &mut Points<'_>) {}
}

/// Basic tax less the dividend credit, never below zero, with the minimum tax.
pub fn before_reduction(on: On<'_>, trail: &mut impl Trail, taxed: Taxed<'_>) -> Money {
    let before = limit::or_zero(trail, taxed.basic - taxed.dividends) + taxed.minimum;
    let made = [
        (form_428::BASIC_TAX, taxed.basic),
        (form_428::DIVIDENDS, taxed.dividends),
        (form_428::MINIMUM, taxed.minimum),
    ];
    on.made(trail, form_428::BEFORE, before, &made, &[])
}

/// A reduction that shrinks with an income.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Reduction {
    pub full: Money,
    pub income: Money,
    pub from: Money,
    pub rate: Rate,
}

/// What a low-income reduction takes of the tax; a couple shares what the first return leaves: together they have it once.
pub fn reduction(
    on: On<'_>,
    trail: &mut impl Trail,
    at: LimitAt,
    before: Money,
    of: Reduction,
    shared: &mut Shared,
) -> Money {
    let whole = match *shared {
        Some(left) => left,
        None => {
            let rule = PhaseOut::continuous(of.from, of.rate, Money::CENT);
            limit::phase_out(trail, at, of.full, of.income, rule)
        }
    };
    let taken = limit::lesser(trail, whole, before);
    *shared = Some(whole - taken);
    let figures: [(&'static str, &dyn ToString); 4] = [
        ("Tax before it", &before),
        ("Full reduction", &of.full),
        ("Income that counts", &of.income),
        ("Shrinks from", &of.from),
    ];
    on.made(trail, form_428::REDUCTION, taken, &[], &figures)
}

/// Line 42800 after a low-income reduction.
pub fn reduced(
    on: On<'_>,
    trail: &mut impl Trail,
    at: LimitAt,
    taxed: Taxed<'_>,
    of: Reduction,
    shared: &mut Shared,
) -> Money {
    let before = before_reduction(on, trail, taxed);
    let taken = reduction(on, trail, at, before, of, shared);
    let foreign = taxed.foreign_credit(on, trail, before - taken);
    let made = [(form_428::BEFORE, before), (form_428::REDUCTION, taken), (form_428::FOREIGN, foreign)];
    on.made(trail, form_428::LEFT, before - taken - foreign, &made, &[])
}
