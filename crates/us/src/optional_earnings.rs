//! The nonfarm optional method (§1402(a), after (17)), Schedule SE, Part II: two thirds of a small business's gross income as earnings, for
//! credits and social security, where the profit is less.

use crate::{
    business::{self, Business},
    facts::Facts,
    points::Points,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    household::Entry,
    open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
    words::first_name,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Optional method of Schedule SE",
    points: POINTS,
    figures: &["self_employment"],
    ..Provision::NONE
};

open_points! {
    ASKED = look "C-75", "IRC §1402(a)",
        "The optional method makes earnings of a small profit, for credits and social security: say whether it is open, to weigh it.";
    PLAN = not_weighed "C-75-plan", "IRC §§162(l)(2)(A), 401(c)(2)",
        "Beside a plan or premiums of the self-employed the optional method is not weighed here.";
}

/// What papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// A plan or premiums of the self-employed, whose limits go by the earnings.
    pub static BESIDE: Brought<bool> = Brought::new();
}

/// What the optional method makes of a person's businesses: two thirds of the gross income, to an amount (§1402(a)(ii)).
fn amount(facts: &Facts, person: usize) -> Money {
    let gross: Money = taxed(facts, person).map(|b| b.gross).sum();
    let figures = &facts.figures.self_employment;
    let part = settled::or_zero(gross).times(figures.optional_part, Money::WHOLE, Rounding::HalfUp);
    settled::lesser(part, figures.optional_most)
}

fn taxed(facts: &Facts, person: usize) -> impl Iterator<Item = &Business> {
    business::of(facts, person).iter().filter(|b| b.is_taxed())
}

/// The same, where it is more than so much of profit makes.
pub fn of(facts: &Facts, person: usize, profit: Money) -> Option<Money> {
    let figures = &facts.figures.self_employment;
    let regular = settled::or_zero(profit).times(figures.part, Money::CENT, Rounding::HalfUp);
    let amount = amount(facts, person);
    (regular < amount && amount >= figures.least).then_some(amount)
}

/// Whether it may be more by the smallest profit that a home office leaves.
fn may_be(facts: &Facts, person: usize) -> bool {
    let least: Money = taxed(facts, person).map(Business::least_profit).sum();
    of(facts, person, least).is_some()
}

fn is_open(facts: &Facts, person: usize) -> bool {
    business::of(facts, person).iter().any(Business::is_optional) && may_be(facts, person)
}

/// The method of each filer to whom both are open.
pub static METHOD: Open<Facts> = Open::new(
    |facts: &Facts| facts.filers.iter().copied().filter(|&p| is_open(facts, p)).collect(),
    |facts, person| {
        let about = &facts.people[person];
        let short = format!("{} by the optional method", first_name(&about.name));
        let options = vec![
            Opt::new("regular", "By the profit", ""),
            Opt::new("optional", "By the optional method", short),
        ];
        Decision::between(
            format!("us.optional_method.{}", about.id),
            format!("Self-employment earnings of {}", about.name),
            "IRC §1402(a); Schedule SE, Part II",
            options,
        )
    },
)
.bars(|facts, person, option, _| {
    (option == 1 && facts.people[person].own.has(&brings::BESIDE))
        .then_some(Bar::Borrowed("a plan or premiums: not weighed here"))
});

/// The filers of a return who take the optional method in a way.
pub fn taken(way: Chosen<'_, '_, Facts>, people: &[usize]) -> Vec<usize> {
    people.iter().copied().filter(|&p| way.taken(&METHOD, p) == Some(1)).collect()
}

/// A small profit whose owner may choose, and what stands beside.
pub fn points(points: &mut Points<'_>) {
    for &person in &points.facts.filers {
        let Some(first) = taxed(points.facts, person).next() else { continue };
        if !may_be(points.facts, person) {
            continue;
        }
        let paper = &points.household.papers[first.paper];
        let place = Place::paper(&paper.id, "optional");
        let name = &points.facts.people[person].name;
        let said = paper.boxes.get("optional").and_then(Entry::flag);
        if said.is_none() {
            points.raise(&ASKED, place, format!("The profit of {name} is small."));
        } else if said == Some(true) && points.facts.people[person].own.has(&brings::BESIDE) {
            points.raise(&PLAN, place, format!("{name} has a plan or premiums."));
        }
    }
}
