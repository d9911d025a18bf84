//! How much of a scholarship a student may take as income, and which amounts are weighed (Reg. §1.25A-5(c)(3)).

use crate::{
    dependents,
    facts::Facts,
    other_income,
    papers::tuition::{self, Tuition},
    points::Points,
    premium_tax_credit,
    unit::Household,
    who_files,
};
use hembo_core::{
    open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Scholarship taken as income",
    points: POINTS,
    figures: &["education", "standard_deduction", "dependents"],
    ..Provision::NONE
};

open_points! {
    TAXABLE = blocks "K-083", "IRC §117",
        "What of a scholarship went beyond tuition, fees and required books is income: enter it as other income, a scholarship.";
    TERMS = look "scholarship-terms", "Reg. §1.25A-5(c)(3)",
        "If its terms let it go to living costs, enter how much: the student may take that as income, which leaves tuition for the credit.";
    TWICE = look "scholarship-twice", "Reg. §1.25A-5(c)(3)",
        "What is taken of the box comes to line 8r by itself: other income holds only what is above tuition.";
    BETWEEN = not_weighed "scholarship-between", "Reg. §1.25A-5(c)(3)",
        "Nothing, what each step of the credits asks for, what is free of tax and all are weighed; an amount between is not weighed here.";
    COVER = not_weighed "scholarship-cover", "IRC §36B(d)(2)(A)(ii)",
        "So much that the student must file would count for health cover: that is not weighed here.";
}

/// What may be taken: nothing; what leaves all that a credit counts, step by step; what stays free of tax; all.
pub fn amounts(facts: &Facts, student: usize) -> Vec<Money> {
    let most = most(facts, student);
    let all = tuition::of(facts, student);
    let opportunity = tuition::expenses(all, Money::ZERO, Tuition::opportunity);
    let learning = tuition::expenses(all, Money::ZERO, Tuition::learning);
    let figures = &facts.figures.education;
    let wanted = [
        Money::ZERO,
        figures.first - opportunity,
        figures.first + figures.second - opportunity,
        figures.learning_most - learning,
        free_of_tax(facts, student),
        most,
    ];
    let mut amounts: Vec<Money> =
        wanted.into_iter().map(|amount| settled::lesser(settled::or_zero(amount), most)).collect();
    amounts.sort_unstable();
    amounts.dedup();
    amounts
}

/// What a student may take: what the terms allow, as far as nothing else hangs on the student's income.
fn most(facts: &Facts, student: usize) -> Money {
    let allowed = tuition::of(facts, student).iter().map(Tuition::may_be_income).sum::<Money>().to_whole();
    let about = &facts.people[student];
    if about.filer {
        return if facts.unmarried_pair() { Money::ZERO } else { allowed };
    }
    let as_relative = |claimers: &[usize]| {
        dependents::household_of(facts, claimers, student) == Ok(Household::QualifyingRelative)
    };
    let alone = facts.filers.iter().any(|&filer| as_relative(&[filer]));
    let relative = alone || (facts.couple() && as_relative(&facts.filers));
    let room = facts.figures.dependents.gross_income_below - Money::WHOLE - about.gross_income;
    let most = if relative { settled::lesser(allowed, settled::or_zero(room)) } else { allowed };
    // Household income counts that of dependents who must file.
    let counted = premium_tax_credit::any_policy(facts);
    if counted && who_files::dependent_must_file(facts, student, most) { Money::ZERO } else { most }
}

/// What a student whom someone can claim may take without tax on it: earned income and an amount make the standard deduction.
fn free_of_tax(facts: &Facts, student: usize) -> Money {
    let figures = &facts.figures.standard_deduction;
    let about = &facts.people[student];
    let earned = about.gross_income - about.unearned_alone;
    let unearned = settled::lesser(about.unearned_alone, figures.dependent_plus);
    figures.basic.single - earned - unearned
}

/// What of a scholarship is income, what may be, and what is not weighed.
pub fn points(points: &mut Points<'_>) {
    for paper in tuition::all(points) {
        let Some(student) = points.owner(paper) else {
            continue;
        };
        let at = |field: &str| Place::paper(&paper.id, field);
        let about = &points.facts.people[student];
        let amount = |field: &str| paper.amount(field);
        let entered = other_income::has_scholarship(&about.own);
        if amount("5") > amount("1") + amount("books") && !entered {
            let message = format!("The scholarship of {} is above tuition, fees and books.", about.name);
            points.raise(&TAXABLE, at("5"), message);
        }
        let figures = &points.facts.figures.education;
        let counted =
            tuition::expenses(tuition::of(points.facts, student), Money::ZERO, Tuition::opportunity);
        let short = !amount("5").is_zero() && counted < figures.first + figures.second;
        if short && !paper.boxes.contains_key("living") {
            points.raise(
                &TERMS,
                at("living"),
                format!("May the scholarship of {} be used to live on?", about.name),
            );
        }
        if entered && !amount("living").is_zero() {
            let message = format!("A scholarship of {} stands among other income, too.", about.name);
            points.raise(&TWICE, at("living"), message);
        }
        if about.scholarship.len() > 1 {
            let message = format!("How much {} takes as income is weighed in steps.", about.name);
            points.raise(&BETWEEN, at("living"), message);
        }
        if !amount("living").is_zero() && !about.filer && premium_tax_credit::any_policy(points.facts) {
            points.raise(
                &COVER,
                at("living"),
                format!("Income of {} may count for health cover.", about.name),
            );
        }
    }
}
