//! The provinces and territories whose tax is computed, a line each, and what is asked of the one of a household.

use crate::{
    alberta::Alberta,
    british_columbia::BritishColumbia,
    facts::Facts,
    figures::{Provincial, ProvincialBenefit, ProvincialCredits, Relatives, TopUp},
    income::Incomes,
    manitoba::Manitoba,
    new_brunswick::NewBrunswick,
    newfoundland::Newfoundland,
    northwest::Northwest,
    nova_scotia::NovaScotia,
    nunavut::Nunavut,
    ontario::Ontario,
    plan::{Filed, FormRule, On},
    points::Points,
    prince_edward::PrinceEdward,
    provincial_law::{Caring, Changed, ProvincialLaw, Shared, Taxed},
    saskatchewan::Saskatchewan,
    yukon::Yukon,
};
use hembo_core::{forms::Required, line::LineId, trail::Trail};
use hembo_money::Money;

/// Asks the law of the household's province; nothing comes of it where that is not computed.
macro_rules! provinces {
    ($($law:ident),* $(,)?) => {
        /// The code of a province whose tax is computed.
        pub fn computed(code: &str) -> Option<&'static str> {
            [$(<$law>::CODE),*].into_iter().find(|known| *known == code)
        }

        /// When each form of a province is filed, with the code of the province.
        pub fn forms() -> impl Iterator<Item = (&'static str, &'static (&'static str, FormRule))> {
            [$((<$law>::CODE, <$law>::FORMS)),*]
                .into_iter()
                .flat_map(|(code, forms)| forms.iter().map(move |form| (code, form)))
        }

        /// [`ProvincialLaw::CARING`]
        fn caring(facts: &Facts) -> Option<Caring> {
            $(if facts.province == Some(<$law>::CODE) {
                return Some(<$law>::CARING);
            })*
            None
        }

        /// [`ProvincialLaw::figures`]
        pub fn figures(facts: &Facts) -> Option<&Provincial> {
            $(if facts.province == Some(<$law>::CODE) {
                return Some(<$law>::figures(&facts.figures));
            })*
            None
        }

        /// [`ProvincialLaw::relatives`]
        pub fn relatives(facts: &Facts) -> Option<&Relatives> {
            $(if facts.province == Some(<$law>::CODE) {
                return Some(<$law>::relatives(&facts.figures));
            })*
            None
        }

        /// [`ProvincialLaw::changed`]
        pub fn changed(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, figures: &Provincial) -> Changed {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::changed(on, trail, incomes);
            })*
            Changed::nothing(figures)
        }

        /// [`ProvincialLaw::further_amounts`]
        pub fn further_amounts(
            on: On<'_>,
            trail: &mut impl Trail,
            incomes: &Incomes,
        ) -> Vec<(LineId, Money)> {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::further_amounts(on, trail, incomes);
            })*
            Vec::new()
        }

        /// [`ProvincialLaw::gifts_from_the_top`]
        pub fn gifts_from_the_top(facts: &Facts) -> Option<&TopUp> {
            $(if facts.province == Some(<$law>::CODE) {
                return <$law>::gifts_from_the_top(&facts.figures);
            })*
            None
        }

        /// [`ProvincialLaw::further_credit`]
        pub fn further_credit(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Option<(LineId, Money)> {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::further_credit(on, trail, amounts);
            })*
            None
        }

        /// [`ProvincialLaw::tax`]
        pub fn tax(
            on: On<'_>,
            trail: &mut impl Trail,
            incomes: &Incomes,
            taxed: Taxed<'_>,
            shared: &mut Shared,
        ) -> Money {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::tax(on, trail, incomes, taxed, shared);
            })*
            Money::ZERO
        }

        /// [`ProvincialLaw::paid_out`]
        pub fn paid_out(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Vec<(LineId, Money)> {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::paid_out(on, trail, incomes);
            })*
            Vec::new()
        }

        /// [`ProvincialLaw::benefits`]
        pub fn benefits(facts: &Facts) -> Option<&ProvincialBenefit> {
            $(if facts.province == Some(<$law>::CODE) {
                return <$law>::benefits(&facts.figures);
            })*
            None
        }

        /// [`ProvincialLaw::credits`]
        pub fn credits(facts: &Facts) -> Option<&ProvincialCredits> {
            $(if facts.province == Some(<$law>::CODE) {
                return Some(<$law>::credits(&facts.figures));
            })*
            None
        }

        /// [`ProvincialLaw::jump_of_children`]
        pub fn jump_of_children(facts: &Facts) -> Money {
            $(if facts.province == Some(<$law>::CODE) {
                return <$law>::jump_of_children(facts);
            })*
            Money::ZERO
        }

        /// [`ProvincialLaw::jump`]
        pub fn jump(facts: &Facts) -> Money {
            $(if facts.province == Some(<$law>::CODE) {
                return <$law>::jump(facts);
            })*
            Money::ZERO
        }

        /// [`ProvincialLaw::points`]
        pub fn points(points: &mut Points<'_>) {
            $(if points.facts.province == Some(<$law>::CODE) {
                return <$law>::points(points);
            })*
        }
    };
}

provinces![
    Ontario,
    BritishColumbia,
    Alberta,
    Saskatchewan,
    Manitoba,
    NewBrunswick,
    NovaScotia,
    Newfoundland,
    PrinceEdward,
    Yukon,
    Northwest,
    Nunavut,
];

/// Whether every amount of the province is the federal one.
pub fn mirrors(facts: &Facts) -> bool {
    caring(facts) == Some(Caring::Federal)
}

/// Where a relative cared for lives, as far as the province's amount hangs on it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Cares {
    AtHome,
    Elsewhere,
}

/// How the province cares for someone; nothing where it has no amount.
pub fn cares(facts: &Facts, person: usize) -> Option<Cares> {
    let who = &facts.people[person];
    if who.filer || !facts.reached(person, facts.figures.caregiver.age) {
        return None;
    }
    let infirm = who.infirm && who.related;
    let aged = who.elder && facts.reached(person, facts.figures.age.age);
    match caring(facts)? {
        Caring::OneLine => infirm.then_some(Cares::AtHome),
        Caring::TwoLines if who.lives_here => (infirm || aged).then_some(Cares::AtHome),
        Caring::TwoLines => infirm.then_some(Cares::Elsewhere),
        Caring::Federal => None,
    }
}

/// Whether the province has an amount for someone.
pub fn cares_for(facts: &Facts, person: usize) -> bool {
    cares(facts, person).is_some()
}

/// Whether a filer who keeps the home of a relative without an impairment has more for it.
pub fn counts_keepers(facts: &Facts) -> bool {
    (0..facts.people.len()).any(|p| cares(facts, p) == Some(Cares::AtHome) && !facts.people[p].infirm)
}

/// A province's form: only where the return is that province's.
pub fn required(form: &str, filed: Filed<'_>) -> Option<Required> {
    let (code, (_, rule)) = forms().find(|(_, (id, _))| *id == form)?;
    Some(if filed.on.facts.province == Some(code) { rule(filed) } else { Required::Elsewhere })
}
