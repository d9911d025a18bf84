//! The credit for adoption costs (R&TC 17052.25, code 197): a part of what was paid for a child out of the custody of a public agency of
//! California, up to a most for each child, carried on without end.

use super::made;
use crate::{
    bringing::{self, Bringing},
    unit::{Filed, On},
};
use hembo_core::{
    Trail,
    field::{Field, Years},
    forms::Required,
    limit::{self, Shape},
    limits, lines,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    settled,
    trail::Item,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[PAPER],
    figures: &["california_other_credits"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRY, paper: "Code 197", into: CarriedTo::Box("carried") }];

lines! {
    OF_YEAR = "us.ca.197.year", "Adoption costs, the part that counts", "R&TC 17052.25(a), (b)", "A part of the costs of each child, up to a most.";
    CARRIED = "us.ca.197.carried", "Adoption costs credit carried here", "R&TC 17052.25(d)", "Of earlier years.";
    pub CREDIT = "us.ca.197", "Adoption costs, code 197", "R&TC 17052.25", "As far as the tax takes it.";
    CARRY = "us.ca.carryover.197", "Adoption costs credit carried on", "R&TC 17052.25(d)", "What is over the tax, without end.";
}

limits! {
    MOST = "us.ca.limit.197" on OF_YEAR, "Adoption costs", "over the most for a child", "R&TC 17052.25(b)";
    TAX = "us.ca.limit.197_tax" on CREDIT, "Adoption costs", "over the tax, carried on", "R&TC 17052.25(d)";
}

/// What was paid for a child, the part of an owner.
#[derive(Debug, Clone)]
pub struct Child {
    costs: Item,
    /// The part of a hundred.
    share: Money,
}

/// What its paper brings.
pub mod brings {
    use super::Child;
    use hembo_core::brought::Brought;

    /// Children and what was paid.
    pub static CHILDREN: Brought<Child> = Brought::new();
    /// The credit that earlier years leave.
    pub static CARRIED: Brought = Brought::new();
}

/// The paper, one for each child.
pub const PAPER: PaperKind = PaperKind {
    id: "Code 197",
    subject: subject::CREDITS,
    name: "Adoption costs of California",
    words: "california adoption costs credit 197 public agency foster",
    title: "Child",
    shared: true,
    headline: "costs",
    boxes: &[
        Field::amount("costs", "", "Costs of this child").help(
            "Of a child in the custody of a public agency of California, in the year of the decree, with the costs of earlier years: fees of agencies, travel, medical that nobody paid back. The same costs are not deducted.",
        ),
        Field::amount("carried", "", "Credit carried here").help("What the tax of earlier years did not take."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives each owner a part.
pub fn read(paper: &mut Bringing<'_>) {
    let costs = paper.paper.shares(paper.paper.paper.amount("costs"));
    let shares = paper.paper.shares(Money::whole(100));
    for ((person, costs), (_, share)) in costs.into_iter().zip(shares) {
        let child = Child { costs: paper.paper.item("costs", None, costs), share };
        paper.facts.people[person].own.add(&brings::CHILDREN, child);
    }
    paper.give("carried", &brings::CARRIED);
}

/// Every child with the parts of who is on a return.
fn children(on: On<'_>) -> Vec<Vec<&Child>> {
    bringing::by_paper(on.owns().flat_map(|(_, own)| own.of(&brings::CHILDREN)), |one| one.costs.paper)
}

/// Code 197; `left` is the tax that the credits before leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, left: Money) -> Money {
    let children = children(on);
    let Some(figures) = on.facts.figures.california_other_credits.as_ref().filter(|_| !children.is_empty())
    else {
        return Money::ZERO;
    };
    let of_child = |child: &Vec<&Child>| {
        let costs = sum(child.iter().map(|one| &one.costs)).to_whole();
        let share: Money = child.iter().map(|one| one.share).sum();
        let most =
            figures.adoption_most.in_proportion(share, Money::whole(100), Money::WHOLE, Rounding::HalfUp);
        let part = costs.times(figures.adoption_rate, Money::WHOLE, Rounding::HalfUp);
        (part, settled::lesser(part, most))
    };
    let each: Vec<(Money, Money)> = children.iter().map(of_child).collect();
    let (parts, counted): (Money, Money) =
        (each.iter().map(|one| one.0).sum(), each.iter().map(|one| one.1).sum());
    limit::given(trail, MOST.at(on.scope), Shape::Cap, parts, counted);
    trail.line(OF_YEAR, on.scope, counted, |i| {
        i.items(children.iter().flatten().map(|one| &one.costs))
            .figure("Part", limit::percent(figures.adoption_rate))
            .figure("For each child, at most", figures.adoption_most);
    });
    let carried = on.gather(trail, CARRIED, &brings::CARRIED);
    let credit = limit::cap(trail, TAX.at(on.scope), counted + carried, left);
    let lines = [(OF_YEAR, counted), (CARRIED, carried)];
    made(on, trail, CARRY, counted + carried - credit, &lines, &[("Used", &credit)]);
    made(on, trail, CREDIT, credit, &lines, &[("Tax left", &left)])
}

/// The worksheet of adoption costs.
pub fn worksheet(filed: Filed<'_>) -> Required {
    super::forms::here(filed, filed.has(OF_YEAR) || filed.has(CARRIED), "no adoption costs")
}
