//! The provisions of the federal law, in its order: a new one has its line here.

use crate::{
    additional_deductions, additional_taxes, child_credit, earned_income_credit, income, minimum_tax, papers,
    payments, questions, schedule_a, standard_deduction, tax, taxable_income, total_tax,
};
use hembo_core::provision::{Declared, Provision};
use std::sync::LazyLock;

/// Every provision.
static LAW: &[&Provision] = &[
    &questions::PROVISION,
    &papers::PROVISION,
    &income::PROVISION,
    &schedule_a::medical::PROVISION,
    &schedule_a::taxes::PROVISION,
    &schedule_a::home_loan::PROVISION,
    &schedule_a::gifts::PROVISION,
    &schedule_a::PROVISION,
    &standard_deduction::PROVISION,
    &additional_deductions::PROVISION,
    &taxable_income::PROVISION,
    &tax::PROVISION,
    &minimum_tax::PROVISION,
    &child_credit::PROVISION,
    &additional_taxes::PROVISION,
    &earned_income_credit::PROVISION,
    &total_tax::PROVISION,
    &payments::PROVISION,
];

/// What they declare.
pub static DECLARED: LazyLock<Declared> = LazyLock::new(|| Declared::of(LAW.iter().copied()));
