//! The provinces whose tax is computed, a line each, and what is asked of the one of a household.

use crate::{
    alberta::Alberta,
    facts::Facts,
    figures::Provincial,
    ontario::Ontario,
    personal::Incomes,
    plan::{Caring, Filed, FormRule, On},
    provincial_law::ProvincialLaw,
};
use hembo_core::{choice::Chosen, forms::Required, line::LineId, trail::Trail};
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

        /// [`ProvincialLaw::figures`]
        pub fn figures(facts: &Facts) -> Option<&Provincial> {
            $(if facts.province == Some(<$law>::CODE) {
                return Some(<$law>::figures(&facts.figures));
            })*
            None
        }

        /// [`ProvincialLaw::caregiver`]
        pub fn caregiver(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, dependant: Money) -> Money {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::caregiver(on, trail, incomes, dependant);
            })*
            Money::ZERO
        }

        /// [`ProvincialLaw::caring`]
        pub fn caring(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Caring> {
            $(if facts.province == Some(<$law>::CODE) {
                return <$law>::caring(facts, way);
            })*
            Vec::new()
        }

        /// [`ProvincialLaw::counts_keepers`]
        pub fn counts_keepers(facts: &Facts) -> bool {
            $((facts.province == Some(<$law>::CODE) && <$law>::counts_keepers(facts)))||*
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
            basic: Money,
            dividends: Money,
        ) -> Money {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::tax(on, trail, incomes, basic, dividends);
            })*
            Money::ZERO
        }

        /// [`ProvincialLaw::paid_out`]
        pub fn paid_out(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Option<(LineId, Money)> {
            $(if on.facts.province == Some(<$law>::CODE) {
                return <$law>::paid_out(on, trail, incomes);
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
    };
}

provinces![Ontario, Alberta];

/// A province's form: only where the return is that province's.
pub fn required(form: &str, filed: Filed<'_>) -> Option<Required> {
    let (code, (_, rule)) = forms().find(|(_, (id, _))| *id == form)?;
    Some(if filed.on.facts.province == Some(code) { rule(filed) } else { Required::Elsewhere })
}
