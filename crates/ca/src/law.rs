//! The provisions of the law, in its order: a new one has its line here.

use crate::{
    alberta, contributions, cpp_ei, dividends, federal, form_428, gifts, income, medical, ontario, papers,
    payments, pension_split, personal, provincial, questions, transfers, tuition, workers_benefit,
};
use hembo_core::provision::{Declared, Provision};
use std::sync::LazyLock;

/// Every provision.
static LAW: &[&Provision] = &[
    &questions::PROVISION,
    &papers::PROVISION,
    &pension_split::PROVISION,
    &dividends::PROVISION,
    &contributions::PROVISION,
    &cpp_ei::PROVISION,
    &income::PROVISION,
    &personal::PROVISION,
    &tuition::PROVISION,
    &transfers::PROVISION,
    &medical::PROVISION,
    &gifts::PROVISION,
    &federal::PROVISION,
    &provincial::PROVISION,
    &form_428::PROVISION,
    &ontario::PROVISION,
    &alberta::PROVISION,
    &workers_benefit::PROVISION,
    &payments::PROVISION,
];

/// What they declare.
pub static DECLARED: LazyLock<Declared> = LazyLock::new(|| Declared::of(LAW.iter().copied()));
