//! Saskatchewan (The Income Tax Act, 2000; SK428): amounts for children and for seniors.

use crate::{
    facts::Facts,
    home_credits,
    income::Incomes,
    plan::On,
    points::Points,
    provincial_law::{ProvincialLaw, common},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::Decision,
    line::LineId,
    lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    points: POINTS,
    figures: &["saskatchewan", "saskatchewan_relatives", "saskatchewan_families"],
    ..Provision::NONE
};

lines! {
    CHILDREN = "ca.58210", "Dependent children", "The Income Tax Act, 2000 (Saskatchewan); SK428",
        "An amount for each child under 18 who is not the eligible dependant; one parent claims all.";
    SENIOR = "ca.58220", "Senior supplement", "The Income Tax Act, 2000 (Saskatchewan); SK428",
        "From 65 on, whatever the income.";
}

open_points! {
    FIRST_HOME = not_covered "sk-home", "The Income Tax Act, 2000 (Saskatchewan); SK428, line 58357";
}

/// The law of Saskatchewan.
#[derive(Debug)]
pub struct Saskatchewan;

impl ProvincialLaw for Saskatchewan {
    common!("SK", "sk", saskatchewan, saskatchewan_relatives, saskatchewan_credits, "sk479" => crate::form_428::form_479);

    fn further_amounts(on: On<'_>, trail: &mut impl Trail, _: &Incomes) -> Vec<(LineId, Money)> {
        vec![(CHILDREN, children(on, trail)), (SENIOR, senior(on, trail))]
    }

    fn points(points: &mut Points<'_>) {
        for paper in points.papers(home_credits::PAID.id).filter(|paper| paper.flag("home")) {
            let message = "Saskatchewan has an amount of its own for a first home: not computed yet.";
            points.raise(&FIRST_HOME, Place::paper(&paper.id, "home"), message);
        }
    }
}

fn under_age(facts: &Facts) -> impl Iterator<Item = usize> + '_ {
    let age = facts.figures.saskatchewan_families.child_under;
    (0..facts.people.len()).filter(move |&p| facts.is_child_under(p, age))
}

fn children(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each = on.facts.figures.saskatchewan_families.child;
    let claims = on.who().filer && on.plan.children_by.is_none_or(|by| by == on.person);
    let counted = under_age(on.facts).filter(|&p| claims && on.plan.dependant != Some(p)).count();
    on.made(trail, CHILDREN, each * counted as i64, &[], &[("Each", &each)])
}

fn senior(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.saskatchewan_families;
    let amount = if on.reached(figures.senior_age) { figures.senior } else { Money::ZERO };
    on.made(trail, SENIOR, amount, &[], &[])
}

/// Which of a couple claims the amounts for children: options by place among the filers.
pub static CHILDREN_BY: Open<Facts> = Open::new(
    |facts| {
        let open =
            facts.couple && facts.province == Some(Saskatchewan::CODE) && under_age(facts).next().is_some();
        if open { vec![0] } else { Vec::new() }
    },
    |facts, _| {
        let options = facts.filer_options(|name| format!("children with {name}"));
        Decision::between("ca.children", "Who claims the amounts for children", "SK428, line 58210", options)
    },
);

/// Who of a couple claims the amounts for children in a way; without a couple who files.
pub fn children_by(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<usize> {
    way.taken(&CHILDREN_BY, 0).map(|place| facts.filers[place])
}
