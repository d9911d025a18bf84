//! T4RSP and T4RIF: what comes out of registered savings.

use crate::{
    bringing::{self, Bringing},
    papers::t4a,
    points::Points,
};
use hembo_core::{
    brought::Brought,
    field::{Field, Years},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::Money;

/// What these papers declare.
pub static PROVISION: Provision = Provision { papers: &[PLAN, FUND], points: POINTS, ..Provision::NONE };

open_points! {
    ATTRIBUTED = blocks "spousal-plan", "ITA 146(8.3), 146.3(5.1)",
        "Enter what the partner contributed to such plans in this year and the two before, nil where nothing; it is the partner's income.";
    NOBODY = blocks "spousal-plan-partner", "ITA 146(8.3), (8.7), 146.3(5.1), (5.4)",
        "After a separation or a death it stays with who received it: answer No.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T4RSP box 16: a pension from 65 on, before it income of a plan.
    pub static ANNUITIES: Brought = Brought::new();

    /// T4RSP boxes 18, 20, 22, 26, 28 and 34, less what is the partner's; and what comes from the partner's plan.
    pub static WITHDRAWN: Brought = Brought::new();

    /// T4RSP box 20 where form T746 lets it be deducted again.
    pub static UNDEDUCTED: Brought = Brought::new();

    /// T4RIF boxes 16, 20 and 22: a pension from 65 on, before it other income.
    pub static FUNDS: Brought = Brought::new();
}

/// What the contributor paid in the years that count.
const CONTRIBUTED: Field =
    Field::amount("contributed", "", "Contributed by the partner in this year and the two before")
        .help("To any spousal plan; not counted on another slip.");

const PLAN: PaperKind = PaperKind {
    id: "T4RSP",
    subject: subject::RETIREMENT,
    name: "Out of a retirement savings plan",
    words: "rrsp withdrawal annuity",
    title: "Payer",
    shared: false,
    headline: "22",
    boxes: &[
        Field::amount("16", "16", "Annuity payments"),
        Field::amount("18", "18", "Refund of premiums"),
        Field::amount("20", "20", "Refund of undeducted contributions"),
        Field::amount("22", "22", "Withdrawal and commutation"),
        Field::yes_no("t746", "", "Form T746 lets box 20 be deducted"),
        Field::yes_no("24", "24", "Contributor is the partner")
            .help("A spousal plan: part of it may be the contributor's."),
        CONTRIBUTED,
        Field::amount("25", "25", "Lifelong Learning Plan withdrawal"),
        Field::amount("26", "26", "Deemed receipt on deregistration"),
        Field::amount("27", "27", "Home Buyers' Plan withdrawal"),
        Field::amount("28", "28", "Other income"),
        Field::amount("30", "30", "Income tax deducted"),
        Field::amount("34", "34", "Deemed receipt on death"),
        Field::yes_no("on_death", "", "Received on a spouse's death")
            .help("Then box 16 counts as pension before 65."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const FUND: PaperKind = PaperKind {
    id: "T4RIF",
    subject: subject::RETIREMENT,
    name: "Out of a retirement income fund",
    words: "rrif lif minimum",
    title: "Payer",
    shared: false,
    headline: "16",
    boxes: &[
        Field::amount("16", "16", "Taxable amounts"),
        Field::amount("20", "20", "Deemed receipt on deregistration"),
        Field::amount("22", "22", "Other income"),
        Field::amount("24", "24", "Excess amount").help("Part of box 16 above the minimum."),
        Field::yes_no("26", "26", "Contributor is the partner")
            .help("Of a spousal fund only what is above the minimum may be the contributor's."),
        CONTRIBUTED,
        Field::amount("28", "28", "Income tax deducted"),
        Field::yes_no("on_death", "", "Received on a spouse's death")
            .help("Then it counts as pension before 65."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives their boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let on_death = paper.paper.paper.flag("on_death");
    let pension = |age| if on_death { &t4a::brings::LIFE_PENSIONS } else { age };
    if paper.paper.paper.kind == PLAN.id {
        let withdrawn = ["18", "20", "22", "26", "28", "34"].map(|field| (field, &brings::WITHDRAWN));
        paper.give_all(&withdrawn);
        if paper.paper.paper.flag("t746") {
            paper.give_all(&[("20", &brings::UNDEDUCTED)]);
        }
        let out = paper.amount("22") + paper.amount("26") + paper.amount("28");
        attribute(paper, "24", out, &brings::WITHDRAWN, &brings::WITHDRAWN);
        paper.give_all(&[("16", pension(&brings::ANNUITIES)), ("30", &bringing::brings::WITHHELD)]);
        return t4a::withheld_from_pension(paper, "30", &["16"], &["18", "20", "22", "26", "28", "34"]);
    }
    let fund = ["16", "20", "22"].map(|field| (field, pension(&brings::FUNDS)));
    paper.give_all(&fund);
    attribute(paper, "26", paper.amount("24"), pension(&brings::FUNDS), &t4a::brings::OTHER);
    paper.give_all(&[("28", &bringing::brings::WITHHELD)]);
    t4a::withheld_from_pension(paper, "28", &["16", "20", "22"], &[]);
}

/// What comes out of a spousal plan is the contributor's income as far as it was contributed in this year and the two before (form
/// T2205): `out` of it moves from the lines of who received it to those of the partner.
fn attribute(
    paper: &mut Bringing<'_>,
    spousal: &str,
    out: Money,
    from: &'static Brought,
    to: &'static Brought,
) {
    let owner = paper.paper.shares(Money::ZERO).first().map(|&(person, _)| person);
    let partner = owner.and_then(|owner| paper.facts.partner(owner));
    let (Some(partner), true) = (partner, paper.paper.paper.flag(spousal)) else { return };
    let moved = settled::lesser(paper.amount("contributed"), out);
    if moved.is_zero() {
        return;
    }
    paper.put("contributed", None, -moved, from);
    let item = paper.paper.item("contributed", None, moved);
    let who = &mut paper.facts.people[partner];
    who.own.add(to, item);
    who.files = true;
}

/// What must be answered of spousal plans.
pub fn points(points: &mut Points<'_>) {
    for (kind, spousal) in [(PLAN.id, "24"), (FUND.id, "26")] {
        for paper in points.papers(kind) {
            let place = Place::paper(&paper.id, "contributed");
            if paper.flag(spousal) && !paper.boxes.contains_key("contributed") {
                points.raise(&ATTRIBUTED, place, "What did the partner contribute?");
            } else if paper.flag(spousal)
                && points.owner(paper).is_some_and(|p| points.facts.partner(p).is_none())
            {
                points.raise(&NOBODY, place, "There is no partner whose income it could be.");
            }
        }
    }
}
