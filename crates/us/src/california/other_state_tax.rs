//! The credit for tax of another state (R&TC 18001 to 18011; Schedule S, code 187): of income that both tax, the smaller of its part of
//! California's tax and its part of the other's. Residents have it for most states, others for those that credit residents of California
//! themselves; who moved, each for its time.

use super::made;
use crate::{
    bringing::Bringing,
    facts::Facts,
    states::STATES,
    unit::{Filed, On},
};
use hembo_core::{
    Trail,
    field::{Field, Years},
    forms::Required,
    limit, limits,
    line::LineId,
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    trail::Item,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[PAPER],
    figures: &["california_other_credits"],
    ..Provision::NONE
};

lines! {
    pub DOUBLE = "us.ca.s.2", "Income that both states tax", "Schedule S, Part I", "Of every Schedule S for whose state there is a credit, as California taxes it.";
    pub OTHER_TAX = "us.ca.s.7", "Tax of other states", "Schedule S, Part II", "As it was entered: a net income tax, without interest, penalties and city taxes.";
    pub CREDIT = "us.ca.187", "Tax of another state, code 187", "R&TC 18001, 18002; Schedule S", "Of each state the smaller of the part of California's tax and of the other's, as far as the tax takes them.";
}

limits! {
    PART_HERE = "us.ca.limit.187" on CREDIT, "Tax of another state", "over California's tax on the same income", "R&TC 18001(c)";
    TAX = "us.ca.limit.187_tax" on CREDIT, "Tax of another state", "over the tax, lost", "R&TC 18001";
}

/// States that credit a resident of California themselves: California does not, but does credit who does not live there (R&TC 18002;
/// Schedule S, list of states).
const RECIPROCAL: &[&str] = &["AZ", "OR", "VA"];

/// A Schedule S, the part of an owner.
#[derive(Debug, Clone)]
pub struct Elsewhere {
    state: String,
    here: Item,
    there: Money,
    income: Money,
    tax: Item,
}

/// What its paper brings.
pub mod brings {
    use super::Elsewhere;
    use hembo_core::brought::Brought;

    /// Income that both tax, by state.
    pub static ELSEWHERE: Brought<Elsewhere> = Brought::new();
}

/// The paper, one for each other state.
pub const PAPER: PaperKind = PaperKind {
    id: "Schedule S",
    subject: subject::CREDITS,
    name: "Tax paid to another state",
    words: "california schedule s other state tax credit 187 double taxed",
    title: "About",
    shared: true,
    headline: "tax",
    boxes: &[
        Field::choice("state", "", "Other state", STATES)
            .help("Arizona, Oregon and Virginia credit a resident of California themselves: a credit here is only for income of a time of living elsewhere."),
        Field::amount("here", "2 c", "Income that both tax, as California taxes it")
            .help("Item by item, by California's rules of source. Of who moved: income of the time in California; for Arizona, Oregon and Virginia of the other time."),
        Field::amount("there", "2 d", "The same income as the other state taxes it"),
        Field::amount("income", "9", "Adjusted gross income by the other state's rules"),
        Field::amount("tax", "7", "Tax of the other state").help(
            "On net income, after its own credits; no city tax, interest or penalty. 0 where it asks none.",
        ),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives each owner a part.
pub fn read(paper: &mut Bringing<'_>) {
    let Some(state) = paper.paper.paper.text("state").map(str::to_owned) else { return };
    let shares = |field: &str| paper.paper.shares(paper.paper.paper.amount(field));
    let [here, there, income, tax] = ["here", "there", "income", "tax"].map(shares);
    for (at, (person, here)) in here.into_iter().enumerate() {
        let of = Elsewhere {
            state: state.clone(),
            here: paper.paper.item("here", None, here),
            there: there[at].1,
            income: income[at].1,
            tax: paper.paper.item("tax", None, tax[at].1),
        };
        paper.facts.people[person].own.add(&brings::ELSEWHERE, of);
    }
}

/// Whether someone may have a credit for a state's tax: who lived in California for some time for most, who did not for some time for those that
/// credit its residents themselves.
pub fn is_credited(facts: &Facts, person: usize, state: &str) -> bool {
    let residence = super::answers_of(facts, person).residence;
    let lived = if RECIPROCAL.contains(&state) { residence.elsewhere_in_part() } else { residence.in_part() };
    state != "CA" && lived
}

fn all(on: On<'_>) -> Vec<&Elsewhere> {
    let of_person = |person: usize| {
        let all = on.facts.people[person].own.of(&brings::ELSEWHERE).iter();
        all.filter(move |of| is_credited(on.facts, person, &of.state))
    };
    on.unit.people.iter().flat_map(|&person| of_person(person)).collect()
}

/// A proportion up to all, to the places of the form; none of nothing.
fn ratio(trail: &mut impl Trail, part: Money, whole: Money, places: u32) -> Rate {
    if whole <= Money::ZERO {
        return Rate::ZERO;
    }
    limit::lesser(trail, part, whole).ratio_to(whole, places, Rounding::HalfUp)
}

/// The credit of one state.
fn of_state(on: On<'_>, trail: &mut impl Trail, papers: &[&Elsewhere], all: Money, left: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_other_credits else { return Money::ZERO };
    let here = sum(papers.iter().map(|of| &of.here)).to_whole();
    let [there, income] = [|of: &&Elsewhere| of.there, |of: &&Elsewhere| of.income]
        .map(|part| papers.iter().map(part).sum::<Money>().to_whole());
    let tax = sum(papers.iter().map(|of| &of.tax)).to_whole();
    let of_here = ratio(trail, here, all, figures.ratio_places);
    let of_there = ratio(trail, there, income, figures.ratio_places);
    let most = left.times(of_here, Money::WHOLE, Rounding::HalfUp);
    let paid = tax.times(of_there, Money::WHOLE, Rounding::HalfUp);
    limit::cap(trail, PART_HERE.at(on.scope), paid, most)
}

/// Code 187; `income` is what California taxes, `left` line 48 before it.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: (LineId, Money), left: Money) -> Money {
    let papers = all(on);
    if papers.is_empty() {
        return Money::ZERO;
    }
    let of_all = |part: fn(&Elsewhere) -> &Item| sum(papers.iter().map(|of| part(of))).to_whole();
    let (double, tax) = (of_all(|of| &of.here), of_all(|of| &of.tax));
    trail.line(DOUBLE, on.scope, double, |i| _ = i.items(papers.iter().map(|of| &of.here)));
    trail.line(OTHER_TAX, on.scope, tax, |i| _ = i.items(papers.iter().map(|of| &of.tax)));
    let mut states: Vec<&str> = papers.iter().map(|of| of.state.as_str()).collect();
    states.sort_unstable();
    states.dedup();
    let credits = states.into_iter().map(|state| {
        let papers: Vec<_> = papers.iter().copied().filter(|of| of.state == state).collect();
        of_state(on, trail, &papers, income.1, left)
    });
    let open: Money = credits.collect::<Vec<_>>().into_iter().sum();
    let credit = limit::cap(trail, TAX.at(on.scope), open, left);
    let lines = [(DOUBLE, double), (OTHER_TAX, tax), income];
    made(on, trail, CREDIT, credit, &lines, &[("Tax left", &left)])
}

/// Schedule S.
pub fn schedule_s(filed: Filed<'_>) -> Required {
    super::forms::here(filed, filed.has(OTHER_TAX), "no tax of another state")
}
