//! A business of one's own (ITA 9, 18, 67.1; form T2125): line 13500, and what the pension plan asks of it (Canada Pension Plan 10,
//! 13; Schedule 8).

use crate::{
    bringing::Bringing,
    facts::{Contributions, Facts},
    plan::{Filed, On},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[ACCOUNTS],
    lines: LINES,
    points: POINTS,
    figures: &["business", "cpp"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: HOME_CARRIED, paper: "T2125", into: CarriedTo::ByHand }];

lines! {
    pub NET = "ca.13500", "Business income", "ITA 9(1); form T2125",
        "Gross income less costs, half of meals, and the home as far as there is income left.";
    HOME_CARRIED = "ca.t2125.home", "Business use of the home kept for later", "ITA 18(12)(c)",
        "What the income of the business did not take.";
    pub DEDUCTED = "ca.22200", "CPP of a business, deducted", "ITA 60(e), (e.1)",
        "The employer's half of the base contributions, and all enhanced ones.";
    pub CREDITED = "ca.31000", "CPP of a business", "ITA 118.7",
        "The half of the base contributions that makes a credit.";
    pub PAYABLE = "ca.42100", "CPP contributions payable", "Canada Pension Plan 10, 10.1",
        "Both halves on earnings that the contributions of employment leave open.";
}

open_points! {
    KIND = blocks "t2125-kind", "ITA 67.1, 18(12)", "Say what the expense is: half of meals count, the home only out of income.";
    CAPITAL_COST = not_weighed "capital-cost", "ITA 20(1)(a)",
        "Any amount up to the most may be claimed; it is taken as entered, and others are not weighed.";
    HOME_LEFT = look "home-left", "ITA 18(12)(c)",
        "Enter it next year among the expenses of the home.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Net income of a business, below zero a loss.
    pub static NET: Brought = Brought::new();

    /// Expenses of the home that the income did not take.
    pub static HOME_LEFT: Brought = Brought::new();
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
        Field::amount("cca", "9936", "Capital cost allowance").help("As claimed; any amount up to the most."),
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

/// Net income of a business, and what the home is above it.
fn accounts(facts: &Facts, paper: &Paper) -> (Money, Money) {
    let of = |kind: &str| -> Money {
        let rows = paper.rows.iter().filter(|row| row.get("kind").and_then(Entry::text) == Some(kind));
        rows.filter_map(|row| row.get("amount").and_then(Entry::money)).sum()
    };
    let meals = cents(of("meals"), facts.figures.business.meals);
    let before = paper.amount("gross") - paper.amount("goods") - paper.amount("cca") - of("full") - meals;
    let home = of("home");
    let taken = settled::lesser(home, settled::or_zero(before));
    (before - taken, home - taken)
}

/// Gives net income to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    let (net, left) = accounts(paper.facts, paper.paper.paper);
    paper.put("gross", None, net, &brings::NET);
    paper.put("gross", None, left, &brings::HOME_LEFT);
    paper.files();
}

/// Net income of a person's businesses.
pub fn net(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&brings::NET))
}

/// The same where it is above zero, as earned income.
pub fn earned(facts: &Facts, person: usize) -> Money {
    settled::or_zero(net(facts, person))
}

/// Line 13500.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    on.gather(trail, HOME_CARRIED, on.own().of(&brings::HOME_LEFT));
    on.gather(trail, NET, on.own().of(&brings::NET))
}

/// What the pension plan asks of a business, once the papers are read. `pensionable` is what employment counts, `paid` its first and
/// second contributions, `limits` the exemption and the two ceilings for the months of the year.
pub fn contributions(
    facts: &Facts,
    person: usize,
    pensionable: Money,
    paid: [Money; 2],
    limits: [Money; 3],
) -> Contributions {
    let of_business = earned(facts, person);
    if of_business.is_zero() || limits[1].is_zero() {
        return Contributions::default();
    }
    let (cpp, [exemption, first, second]) = (&facts.figures.cpp, limits);
    let all = pensionable + of_business;
    let covered = |amount: Money, rate| amount.divided_by(rate, Money::CENT, hembo_money::Rounding::HalfUp);
    let open = |asked: Money, covered: Money| {
        settled::lesser(settled::or_zero(settled::or_zero(asked) - covered), of_business)
    };
    let base = open(settled::lesser(all, first) - exemption, covered(paid[0], cpp.rate));
    let above = open(settled::lesser(all, second) - first, covered(paid[1], cpp.second_rate));
    let credited = cents(base, cpp.base_rate);
    let payable = cents(base * 2, cpp.rate) + cents(above * 2, cpp.second_rate);
    Contributions {
        of_business: payable,
        of_business_credited: credited,
        of_business_deducted: payable - credited,
        ..Contributions::default()
    }
}

/// Line 22200.
pub fn deducted(on: On<'_>, trail: &mut impl Trail) -> Money {
    let counted = on.who().contributed;
    let amount = counted.of_business_deducted;
    trail.line(DEDUCTED, on.scope, amount, |i| {
        if !amount.is_zero() {
            i.items(on.own().of(&brings::NET)).figure("Contributions", counted.of_business);
            i.figure("Less what makes a credit", counted.of_business_credited);
        }
    })
}

/// Line 31000.
pub fn credited(on: On<'_>, trail: &mut impl Trail) -> Money {
    let amount = on.who().contributed.of_business_credited;
    on.made(trail, CREDITED, amount, &[], &[("Rate of the base", &on.facts.figures.cpp.base_rate)])
}

/// Line 42100.
pub fn payable(on: On<'_>, trail: &mut impl Trail) -> Money {
    let amount = on.who().contributed.of_business;
    trail.line(PAYABLE, on.scope, amount, |i| {
        if !amount.is_zero() {
            i.items(on.own().of(&brings::NET));
        }
    })
}

/// Form T2125: where there is a business.
pub fn form_t2125(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.own().has(&brings::NET), "no business")
}

/// Expenses of no kind, capital cost, and what of the home is left.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(ACCOUNTS.id) {
        for cells in &paper.rows {
            if cells.contains_key("amount") && !cells.contains_key("kind") {
                points.raise(&KIND, Place::row(&paper.id, cells, "kind"), "What is the expense for?");
            }
        }
        if !paper.amount("cca").is_zero() {
            let message = "Less capital cost could be claimed, and more later.";
            points.raise(&CAPITAL_COST, Place::paper(&paper.id, "cca"), message);
        }
        let (_, left) = accounts(points.facts, paper);
        if !left.is_zero() {
            let message = format!("{left:#} of the home is kept for next year.");
            points.raise(&HOME_LEFT, Place::paper(&paper.id, "gross"), message);
        }
    }
}
