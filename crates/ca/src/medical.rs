//! Medical expenses (ITA 118.2, 122.51): any twelve months ending in the year, lines 33099, 33200 and 45200.

use crate::{
    bringing::{self, Bringing},
    business, disability_supports, employment_expenses,
    facts::Facts,
    income::{self, Incomes, family_net},
    medical_months::Period,
    other_deductions,
    papers::t4,
    plan::On,
    points::Points,
    receipts::{Receipt, Window},
    rounding::cents,
};
use hembo_core::{
    field::{Field, Years},
    household::{Answers, Entry},
    limit::{self, LimitAt, PhaseOut},
    limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Trail, Unseen},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[RECEIPTS],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["medical", "medical_supplement", "age"],
    ..Provision::NONE
};

lines! {
    pub CLAIMED = "ca.33099", "Medical bills of the window", "ITA 118.2(1)",
        "Receipts of the twelve months, less what was paid back.";
    pub ALLOWED = "ca.medical.above", "Medical above the threshold", "ITA 118.2(1) B",
        "Above a part of net income, or the most of the threshold.";
    pub TOGETHER = "ca.33200", "Medical allowed", "ITA 118.2(1)",
        "Own, the partner's and children's above the threshold, and that of other dependants.";
    pub PROVINCIAL_ALLOWED = "ca.medical.above_provincial", "Medical above the threshold, province", "Income tax acts of the provinces; form 428",
        "The same receipts with the threshold of the province.";
    pub PROVINCIAL_TOGETHER = "ca.58769", "Medical allowed, province", "Income tax acts of the provinces; form 428",
        "Own, the partner's and children's above the threshold, and that of other dependants.";
    pub PAID_OUT = "ca.45200", "Medical supplement paid out", "ITA 122.51",
        "A part of the medical claim and of disability supports, less a part of family income; refundable.";
}

limits! {
    pub MEDICAL = "ca.limit.medical" on ALLOWED, "Medical bills", "only above the threshold",
        "ITA 118.2(1)";
    MEDICAL_PROVINCIAL = "ca.limit.medical_provincial" on PROVINCIAL_ALLOWED, "Medical bills, province", "only above the threshold",
        "Income tax acts of the provinces; form 428";
    SUPPLEMENT = "ca.limit.supplement" on PAID_OUT, "Medical supplement", "shrinks with family income",
        "ITA 122.51";
}

open_points! {
    OTHER_DAYS = look "C-57", "ITA 118.2(1)", "Check the day.";
    NOBODY = blocks "C-59", "ITA 118(6), 118.2(1)", "Name a dependant relative, or remove it.";
}

/// The months for which a return claims, and what: of what the partner leaves, what lies in them.
pub fn claimed<'a>(on: On<'a>, trail: &mut impl Trail) -> Option<(&'a Window, Money)> {
    let medical = on.plan.medical.as_ref()?;
    let claim = medical.of(on.person)?;
    let window = on.facts.windows.get(claim.window)?;
    let within = medical.of_own_months().then(|| limit::lesser(trail, claim.left, window.sum));
    Some((window, within.unwrap_or(claim.left)))
}

/// Medical expenses above the threshold: a part of net income, at most so much, federal or provincial.
fn above_threshold(on: On<'_>, trail: &mut impl Trail, at: LimitAt, net: Money, most: Money) -> Money {
    let Some((window, paid)) = claimed(on, trail) else { return Money::ZERO };
    if at.def.line == ALLOWED {
        trail.line(CLAIMED, on.scope, paid, |i| {
            i.items(window.receipts(&on.facts.medical, &on.facts.claimed_of_dead).map(|r| &r.item));
            let left = window.sum - paid;
            if !left.is_zero() {
                i.figure("Less what is left to the partner", left);
            }
        });
    }
    let threshold = limit::lesser(trail, cents(net, on.facts.figures.medical.part), most);
    let allowed = limit::above(trail, at, paid, threshold);
    on.made(
        trail,
        at.def.line,
        allowed,
        &[(CLAIMED, paid), (income::NET, net)],
        &[("Only above", &threshold)],
    )
}

/// What is allowed of line 33099.
pub fn federal(on: On<'_>, trail: &mut impl Trail, net: Money) -> Money {
    above_threshold(on, trail, MEDICAL.at(on.scope), net, on.facts.figures.medical.most)
}

/// Line 58769: the same receipts with the threshold of the province.
pub fn provincial(on: On<'_>, trail: &mut impl Trail, net: Money, most: Money) -> Money {
    above_threshold(on, trail, MEDICAL_PROVINCIAL.at(on.scope), net, most)
}

/// Whether a person is of age, and earned enough in some way, for the supplement (122.51(1) "eligible individual").
pub fn may_be_supplemented(facts: &Facts, person: usize) -> bool {
    let whole_year = facts.people[person].part_year.days.is_none();
    whole_year
        && facts.reached(person, facts.figures.medical_supplement.age)
        && !above_least(facts, person, business::most(facts, person)).is_negative()
}

/// By how much what a person earned is above the least for the supplement; `business` is what a business brings, nothing where it makes
/// a loss.
fn above_least(facts: &Facts, person: usize, business: Money) -> Money {
    let own = &facts.people[person].own;
    let of_work = settled::or_zero(
        sum(own.of(&t4::brings::EMPLOYMENT))
            - sum(own.of(&bringing::brings::RPP))
            - sum(own.of(&t4::brings::DUES))
            - sum(own.of(&other_deductions::brings::DUES))
            - employment_expenses::total(facts, person),
    );
    of_work + business - facts.figures.medical_supplement.earned_least
}

/// By how much the total jumps at the most where the capital cost of businesses decides who earned enough.
pub fn jump(facts: &Facts) -> Money {
    facts.filers.iter().map(|&filer| jump_of(facts, filer)).sum()
}

/// The same of one person's businesses: they bring at one end enough, at the other too little, and there is something to claim.
pub fn jump_of(facts: &Facts, filer: usize) -> Money {
    let may_fall = business::any_capital_cost(facts, filer)
        && may_be_supplemented(facts, filer)
        && above_least(facts, filer, business::least(facts, filer)).is_negative();
    let receipts = !facts.windows.is_empty() || facts.medical_of_others.iter().any(|all| !all.is_empty());
    let claims = receipts || facts.people[filer].own.has(&disability_supports::brings::PAID);
    if may_fall && claims { facts.figures.medical_supplement.most } else { Money::ZERO }
}

/// Line 45200, the refundable supplement (ITA 122.51): a part of what is claimed and of disability supports, less a part of family income.
pub fn supplement(on: On<'_>, trail: &mut impl Trail, medical: Money, incomes: &Incomes) -> Money {
    let supports = incomes[on.person].supports;
    let claimed = medical + supports;
    let claims = on.own().has(&disability_supports::brings::PAID)
        || on.plan.medical.as_ref().is_some_and(|medical| medical.of(on.person).is_some())
        || on.plan.medical_of_others.iter().any(|(_, by, _)| *by == on.person);
    if !claims || !may_be_supplemented(on.facts, on.person) {
        return Money::ZERO;
    }
    if claimed.is_zero() {
        // The same edges where nothing is above the threshold: what tells others on an edge is cut there again and again.
        return supplemented(on, &mut Unseen(trail), claimed, incomes);
    }
    let allowed = supplemented(on, trail, claimed, incomes);
    let family = family_net(on, incomes);
    let made = [(TOGETHER, medical), (disability_supports::DEDUCTED, supports)];
    on.made(trail, PAID_OUT, allowed, &made, &[("Net income of the family", &family)])
}

/// What of the supplement is left of family income.
fn supplemented(on: On<'_>, trail: &mut impl Trail, claimed: Money, incomes: &Incomes) -> Money {
    let figures = &on.facts.figures.medical_supplement;
    let above = above_least(on.facts, on.person, incomes[on.person].business);
    trail.step(above, business::any_capital_cost(on.facts, on.person));
    if above.is_negative() {
        return Money::ZERO;
    }
    let part = limit::lesser(trail, cents(claimed, figures.part), figures.most);
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    limit::phase_out(trail, SUPPLEMENT.at(on.scope), part, family_net(on, incomes), rule)
}

const RECEIPTS: PaperKind = PaperKind {
    id: "Medical",
    subject: subject::DEDUCTIONS,
    name: "Medical receipts",
    words: "doctor dentist hospital prescription health premium",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::person("patient", "", "For"),
        Field::text("what", "", "To whom, what for", 80),
        Field::amount("amount", "", "Paid"),
        Field::amount("reimbursed", "", "Paid back"),
        Field::yes_no("used", "", "In an earlier claim"),
    ],
    back: Back::Column("reimbursed"),
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Receipts with their day, less what was paid back.
pub fn read(paper: &mut Bringing<'_>) {
    let payer = paper.paper.paper.owners.first().and_then(|o| paper.paper.household.index_of(&o.person));
    for (row, cells, paid) in paper.paper.lines("amount") {
        let named = cells.get("patient").and_then(Entry::text);
        let patient = named.and_then(|id| paper.paper.household.index_of(id)).or(payer);
        let used = cells.get("used").and_then(Entry::flag).unwrap_or(false);
        let back = cells.get("reimbursed").and_then(Entry::money).unwrap_or_default();
        let (Some(date), Some(patient)) = (cells.get("date").and_then(Entry::date), patient) else {
            continue;
        };
        let amount = settled::or_zero(paid - back);
        if used || amount.is_zero() {
            continue;
        }
        let receipt = Receipt { date, item: paper.paper.item("amount", Some(row), amount) };
        let facts = &mut *paper.facts;
        match (facts.medical_counts(patient), facts.died(patient)) {
            (true, false) => facts.medical.push(receipt),
            (true, true) => facts.medical_of_dead[patient].push(receipt),
            (false, _) => facts.medical_of_others[patient].push(receipt),
        }
    }
}

/// Receipts that do not count.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RECEIPTS.id) {
        let household = points.household;
        let payer = paper.owners.first().map(|o| o.person.as_str());
        let patient_of = |cells: &Answers| {
            let named = cells.get("patient").and_then(Entry::text).or(payer);
            named.and_then(|id| household.index_of(id))
        };
        points.dates(paper, &OTHER_DAYS, "in no months that may be claimed", |facts, cells, date| {
            let period = patient_of(cells).map_or(Period::of_living(facts), |p| Period::of(facts, p));
            period.holds(date)
        });
        for cells in &paper.rows {
            let patient = patient_of(cells);
            let counts = |p: usize| points.facts.medical_counts(p) || points.facts.people[p].related;
            if patient.is_some_and(|p| !counts(p)) {
                let message = "Bills count of relatives who depend on a filer only.";
                points.raise(&NOBODY, Place::row(&paper.id, cells, "patient"), message);
            }
        }
    }
}
