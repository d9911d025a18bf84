//! A business of one's own (ITA 9, 18, 20(1)(a), 67.1; form T2125): line 13500.

use crate::{
    bringing::Bringing,
    facts::{Business, Facts},
    plan::{Filed, On},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Paper, Silent,
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    limit, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[ACCOUNTS],
    lines: LINES,
    points: POINTS,
    figures: &["business"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: HOME_CARRIED, paper: "T2125", into: CarriedTo::ByHand },
    Carry { line: LEFT, paper: "T2125", into: CarriedTo::ByHand },
];

lines! {
    pub BEFORE = "ca.t2125.before", "Business before capital cost", "ITA 9(1); form T2125",
        "Gross income less costs and half of meals, before capital cost and the home.";
    CAPITAL_COST = "ca.t2125.cca", "Capital cost of a business", "ITA 20(1)(a); Regulations 1100(1)",
        "As much of the most as the way claims.";
    LEFT = "ca.t2125.left", "Capital cost of a business left in the pool", "ITA 13(21)",
        "What is not claimed stays for later years.";
    HOME = "ca.t2125.home.used", "Business use of the home", "ITA 18(12)",
        "As far as there is income left, of each business.";
    pub NET = "ca.13500", "Business income", "ITA 9(1); form T2125",
        "What a business brings before capital cost, less what is claimed of it and the home.";
    HOME_CARRIED = "ca.t2125.home", "Business use of the home kept for later", "ITA 18(12)(c)",
        "What the income of the business did not take.";
}

open_points! {
    KIND = blocks "t2125-kind", "ITA 67.1, 18(12)", "Say what the expense is: half of meals count, the home only out of income.";
    HOME_LEFT = look "home-left", "ITA 18(12)(c)",
        "Enter it next year among the expenses of the home.";
}

const KINDS: &[Choice] = &[
    Choice::new("full", "Expense, in full"),
    Choice::new("meals", "Meals and entertainment, a half"),
    Choice::new("home", "Use of the home, also carried in"),
];

const ACCOUNTS: PaperKind = PaperKind {
    id: "T2125",
    subject: subject::OWN_WORK,
    name: "Business or professional accounts",
    words: "self-employed trade profession freelance commission",
    title: "Business",
    shared: false,
    headline: "gross",
    boxes: &[
        Field::amount("gross", "8299", "Gross income").help("Without sales tax."),
        Field::amount("goods", "8518", "Cost of goods sold"),
        Field::amount("cca", "9936", "Capital cost allowance, the most")
            .help("How much of it is claimed is weighed."),
    ],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::choice("kind", "", "Kind", KINDS),
        Field::amount("amount", "", "Amount").help("Of a car or a room the part for the business."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the accounts to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    let facts = &mut *paper.facts;
    let rows = &paper.paper.paper.rows;
    let of = |kind: &str| -> Money {
        let rows = rows.iter().filter(|row| row.get("kind").and_then(Entry::text) == Some(kind));
        rows.filter_map(|row| row.get("amount").and_then(Entry::money)).sum()
    };
    let amount = |field: &str| paper.paper.paper.amount(field);
    let meals = cents(of("meals"), facts.figures.business.meals);
    let before = amount("gross") - amount("goods") - of("full") - meals;
    let accounts = |owner: usize| Business {
        owner,
        before: paper.paper.item("gross", None, before),
        capital_cost: paper.paper.item("cca", None, amount("cca")),
        home: of("home"),
    };
    let owners = paper.paper.shares(Money::ZERO);
    facts.businesses.extend(owners.into_iter().map(|(owner, _)| accounts(owner)));
    paper.files();
}

/// The businesses of a person, with their places.
fn of_person(facts: &Facts, person: usize) -> impl Iterator<Item = (usize, &Business)> + Clone {
    facts.businesses.iter().enumerate().filter(move |(_, business)| business.owner == person)
}

/// Which of its owner's businesses one is, from 1.
pub fn number(facts: &Facts, place: usize) -> usize {
    let owner = facts.businesses[place].owner;
    of_person(facts, owner).position(|(p, _)| p == place).unwrap_or_default() + 1
}

/// Whether a person has a business.
pub fn any(facts: &Facts, person: usize) -> bool {
    of_person(facts, person).next().is_some()
}

/// Whether a person may claim capital cost of a business.
pub fn any_capital_cost(facts: &Facts, person: usize) -> bool {
    of_person(facts, person).any(|(_, business)| !business.capital_cost.amount.is_zero())
}

/// What a business comes to where so much of its capital cost is claimed: net income, and what of the home it takes.
fn net_of(business: &Business, trail: &mut impl Trail, claimed: Money) -> (Money, Money) {
    let left = business.before.amount - claimed;
    let above = limit::or_zero(trail, left);
    let home = limit::lesser(trail, business.home, above);
    (left - home, home)
}

/// What businesses bring a person at the most, where nothing of their capital cost is claimed; nothing where they make a loss.
pub fn most(facts: &Facts, person: usize) -> Money {
    settled::or_zero(of_person(facts, person).map(|(_, b)| net_of(b, &mut Silent, Money::ZERO).0).sum())
}

/// The same at the least, where all of it is claimed.
pub fn least(facts: &Facts, person: usize) -> Money {
    let of =
        |(_, business): (usize, &Business)| net_of(business, &mut Silent, business.capital_cost.amount).0;
    settled::or_zero(of_person(facts, person).map(of).sum())
}

/// What a way wants of the capital cost of a business; all where nothing is said.
fn wanted(on: On<'_>, place: usize) -> Money {
    on.plan.capital_cost.get(place).copied().flatten().unwrap_or(Money::LARGEST)
}

/// What capital cost a way claims of a person's businesses.
pub fn claimed(on: On<'_>) -> Money {
    let of = |(place, business): (usize, &Business)| {
        settled::lesser(wanted(on, place), business.capital_cost.amount)
    };
    of_person(on.facts, on.person).map(of).sum()
}

/// Line 13500.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    if !any(on.facts, on.person) {
        return Money::ZERO;
    }
    let [mut claimed, mut taken, mut net] = [Money::ZERO; 3];
    for (place, business) in of_person(on.facts, on.person) {
        let part = limit::lesser(trail, wanted(on, place), business.capital_cost.amount);
        let (left, home) = net_of(business, trail, part);
        claimed += part;
        taken += home;
        net += left;
    }
    let mine = of_person(on.facts, on.person).map(|(_, business)| business);
    let before = on.gather(trail, BEFORE, mine.clone().map(|b| &b.before));
    let most: Money = mine.clone().map(|b| b.capital_cost.amount).sum();
    trail.line(CAPITAL_COST, on.scope, claimed, |i| {
        i.items(mine.clone().map(|b| &b.capital_cost).filter(|item| !item.amount.is_zero()));
    });
    on.made(trail, LEFT, most - claimed, &[(CAPITAL_COST, claimed)], &[("The most", &most)]);
    let home: Money = mine.map(|b| b.home).sum();
    on.made(
        trail,
        HOME,
        taken,
        &[(BEFORE, before), (CAPITAL_COST, claimed)],
        &[("Expenses of the home", &home)],
    );
    on.made(trail, HOME_CARRIED, home - taken, &[(HOME, taken)], &[("Expenses of the home", &home)]);
    on.made(trail, NET, net, &[(BEFORE, before), (CAPITAL_COST, claimed), (HOME, taken)], &[])
}

/// Form T2125: where there is a business.
pub fn form_t2125(filed: Filed<'_>) -> Required {
    Required::if_so(any(filed.on.facts, filed.on.person), "no business")
}

/// Expenses of no kind, and what of the home is left.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(ACCOUNTS.id) {
        for cells in &paper.rows {
            if cells.contains_key("amount") && !cells.contains_key("kind") {
                points.raise(&KIND, Place::row(&paper.id, cells, "kind"), "What is the expense for?");
            }
        }
    }
    for (place, &person) in points.facts.returns.iter().enumerate() {
        let left = points.amount(HOME_CARRIED, place);
        let with_home = |(_, business): &(usize, &Business)| !business.home.is_zero();
        let business = of_person(points.facts, person).find(with_home);
        if let Some((_, business)) = business.filter(|_| !left.is_zero()) {
            let paper: &Paper = &points.household.papers[business.before.paper];
            let message = format!("{left:#} of the home is kept for next year.");
            points.raise(&HOME_LEFT, Place::paper(&paper.id, "gross"), message);
        }
    }
}
