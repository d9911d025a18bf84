//! Extraordinary burdens (§§33 to 33b EStG): costs above the own burden, the lump sums of disability and care, support of relatives.

use crate::{
    bringing::Bringing,
    children,
    disability::{lump, travel},
    facts::Facts,
    figures,
    people::GROUPS,
    plan::On,
    points::Points,
    rounding::{euros_down, euros_up, half_up, portion_up},
};
use hembo_core::{
    Decision,
    brought::Brought,
    choice::{Chosen, Open},
    decision::Opt,
    field::{Choice, Field, Years},
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Extraordinary burdens",
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    papers: &[COSTS, SUPPORT, CARE_GIVEN],
    figures: &["burdens", "disability", "supports"],
    ..Provision::NONE
};

lines! {
    pub PAID = "de.burdens_paid", "Burdens paid", "§33(1), (2a)",
        "Costs less refunds, with the lump sum of travel of who is disabled.";
    OWN = "de.burden_limit", "Own burden (zumutbare Belastung)", "§33(3)",
        "By steps of income, table and children, down to euros.";
    ABOVE = "de.burdens", "Burdens above it", "§33(1)", "What is left.";
    pub LUMPS = "de.lumps_33b", "Lump sums of disability, survivors and care", "§33b",
        "The own ones, and of children what is not theirs.";
    pub SUPPORTS = "de.supports", "Support of relatives", "§33a(1)",
        "By months and country, less their own means, within what the payer can bear.";
    pub ALL = "de.burdens_total", "Extraordinary burdens", "§§33 to 33b", "All of them.";
}

limits! {
    SUPPORT_MOST = "de.limit.supports" on SUPPORTS, "Support of relatives", "over the most of a person, or what the payer can bear", "§33a(1)";
    OWN_BURDEN = "de.limit.burdens" on ABOVE, "Burdens", "within the own burden", "§33(3)";
}

open_points! {
    BOTH_CLAIMED = look "DE-C46", "§33b(1)", "The lump sum or the costs: the lower tax is taken.";
    SUPPORT_CASH = blocks "DE-C45", "§33a(1) S.12", "Since 2025 only what was transferred counts: answer, or take the paper away.";
    PAYER_ASKED = look "support-limit", "§33a(1); BMF on what a payer can bear", "Enter the net income of who pays: it may lower what counts.";
    OF_A_CHILD = blocks "DE-C44", "§33a(1) S.4", "Who counts as a child gives no support: take the paper away.";
    GRADE_ASKED = blocks "care-grade", "§33b(6)", "Enter the grade of care, 2 to 5.";
}

/// What its papers bring.
pub mod brings {
    use super::Supported;
    use hembo_core::brought::Brought;

    /// Costs after refunds.
    pub static COSTS: Brought = Brought::new();
    /// Costs that the lump sum of a disability covers.
    pub static TYPICAL: Brought = Brought::new();
    /// Costs of care at home that may count as services in the home instead.
    pub static CARE_AT_HOME: Brought = Brought::new();
    /// Lump sums for care that was given.
    pub static CARE_GIVEN: Brought = Brought::new();
    /// Support of relatives.
    pub static SUPPORTS: Brought<Supported> = Brought::new();
}

/// Someone who was supported.
#[derive(Debug, Clone, Copy)]
pub struct Supported {
    /// What was paid, up to euros, with its place.
    pub item: Item,
    /// What may be deducted at most.
    pub most: Money,
}

const KINDS: &[Choice] = &[
    Choice::new("illness", "Illness, care, funeral, other"),
    Choice::new("care", "Care or services at home, which may count as services, too"),
    Choice::new("typical", "What the lump sum of a disability covers"),
];

/// Extraordinary burdens.
pub const COSTS: PaperKind = PaperKind {
    id: "Burdens",
    subject: subject::DEDUCTIONS,
    name: "Extraordinary burdens, außergewöhnliche Belastungen",
    words: "medical dental illness funeral krankheit",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("kind", "", "Kind", KINDS),
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Paid"),
        Field::amount("refunded", "", "Paid back"),
    ],
    back: Back::Column("refunded"),
    years: Years::ALL,
    next_year: NextYear::Again,
};

const SUPPORT: PaperKind = PaperKind {
    id: "Support",
    subject: subject::DEDUCTIONS,
    name: "Support of a relative, Unterhalt",
    words: "parents abroad unterhalt",
    title: "Who",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::amount("paid", "", "Paid"),
        Field::count("months", "", "Months", 12).blank_is("12"),
        Field::choice("group", "", "Country group", GROUPS).blank_is("4").lasts(),
        Field::amount("means", "", "Own income and benefits of the person"),
        Field::amount("health", "", "Basic health cover of the person"),
        Field::amount("net_income", "", "Net income of who pays"),
        Field::yes_no("transferred", "", "By transfer to an account").since(2025),
        Field::count("family", "", "Spouse and children of who pays", 20),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const CARE_GIVEN: PaperKind = PaperKind {
    id: "Care given",
    subject: subject::DEDUCTIONS,
    name: "Unpaid care of someone, Pflege-Pauschbetrag",
    words: "pflege care grade",
    title: "Who",
    shared: false,
    headline: "",
    boxes: &[Field::count("grade", "", "Grade of care, 2 to 5", 5).help("5 also where helpless (mark H).")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives burdens to who bore them.
pub fn read(paper: &mut Bringing<'_>) {
    match paper.paper.paper.kind.as_str() {
        "Burdens" => costs(paper),
        "Support" => support(paper),
        _ => {
            let grades = &paper.facts.figures.disability.care_grades;
            let grade = settled::lesser(paper.count("grade"), 4) - 2;
            let lump = usize::try_from(grade).ok().and_then(|at| grades.get(at)).copied().unwrap_or_default();
            paper.put("grade", None, lump, &brings::CARE_GIVEN);
        }
    }
}

fn costs(paper: &mut Bringing<'_>) {
    let money = |cells: &Answers, column: &str| cells.get(column).and_then(Entry::money).unwrap_or_default();
    let rows: Vec<_> = paper
        .paper
        .lines("amount")
        .map(|(row, cells, amount)| {
            let kind: &'static Brought = match cells.get("kind").and_then(Entry::text) {
                Some("typical") => &brings::TYPICAL,
                Some("care") => &brings::CARE_AT_HOME,
                _ => &brings::COSTS,
            };
            (row, kind, amount - money(cells, "refunded"))
        })
        .collect();
    for (row, kind, amount) in rows {
        paper.put("amount", Some(row), amount, kind);
    }
}

/// §33a(1): the most by months and country with the health cover, less own means above a free part; within what the payer can bear.
fn support(paper: &mut Bringing<'_>) {
    let figures = &paper.facts.figures.supports;
    let months = if paper.has("months") { paper.count("months") } else { 12 };
    let quarters = paper.text("group").parse::<i64>().unwrap_or(4);
    let scaled = |amount: Money| portion_up(amount, months * quarters, 48);
    let most = scaled(figures.most) + euros_up(paper.amount("health"));
    let free = scaled(figures.own_means_free);
    let most = settled::or_zero(most - settled::or_zero(paper.amount("means") - free));
    let mut allowed = most;
    if paper.has("net_income") {
        allowed =
            settled::lesser(allowed, bearable(figures, paper.amount("net_income"), paper.count("family")));
    }
    let paid = euros_up(paper.amount("paid"));
    let supported = Supported { item: paper.item("paid", paid), most: allowed };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::SUPPORTS, supported);
    }
}

/// What a payer can bear (Opfergrenze): by steps of net income, less for each of the family.
fn bearable(figures: &figures::Supports, net: Money, family: i64) -> Money {
    let steps = net.steps_of(figures.bearable_step, Rounding::Down);
    let family = settled::lesser(family * figures.per_family, figures.family_most);
    let percent = settled::lesser(steps, figures.bearable_most) - family;
    net.in_proportion(settled::or_zero(Money::whole(percent)), Money::whole(100), Money::WHOLE, Rounding::Up)
}

/// All burdens of an assessment, by its income, and what of their costs counts as services in the home instead.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: Money) -> [Money; 2] {
    let [above, services] = above(on, trail, income);
    let lumps = lumps(on, trail);
    let supports: Vec<_> = on.people.iter().flat_map(|&p| on.own(p).of(&brings::SUPPORTS)).collect();
    let (paid, most) = supports.iter().fold((Money::ZERO, Money::ZERO), |(paid, most), of| {
        (paid + of.item.amount, most + settled::lesser(of.most, of.item.amount))
    });
    let supported = limit::cap(trail, SUPPORT_MOST.at(on.scope), paid, most);
    let supported =
        trail.line(SUPPORTS, on.scope, supported, |i| _ = i.items(supports.iter().map(|of| &of.item)));
    let training = children::training_away(on, trail);
    let lines = [(ABOVE, above), (LUMPS, lumps), (SUPPORTS, supported), (children::TRAINING, training)];
    [on.add(trail, ALL, &lines), services]
}

/// Costs above the own burden, and what of them counts as services in the home.
fn above(on: On<'_>, trail: &mut impl Trail, income: Money) -> [Money; 2] {
    let figures = &on.facts.figures;
    let typical = |person: usize| {
        if on.plan.actual_costs.contains(&person) {
            on.shared_of(person, &brings::TYPICAL)
        } else {
            Money::ZERO
        }
    };
    let of = |&person: &usize| {
        let own = on.shared_of(person, &brings::COSTS) + typical(person);
        euros_up(own) + travel(figures, on.facts.people[person].disability)
    };
    let trips = children::trips(on);
    let care_at_home = care(on, false);
    let paid = on.people.iter().map(of).sum::<Money>() + trips + care_at_home;
    let items: Vec<_> = on.items(&brings::COSTS).chain(on.items(&brings::TYPICAL)).collect();
    let own: Money = on.people.iter().map(|&p| travel(figures, on.facts.people[p].disability)).sum();
    trail.line(PAID, on.scope, paid, |i| {
        i.items(items).figure("Care at home", care_at_home).figure("Lump sums of travel", own + trips);
    });
    let own = euros_down(own_burden(on, trail, income));
    on.made(trail, OWN, own, &[], &[("Income", &income), ("Children", &on.facts.children.len())]);
    let left = limit::above(trail, OWN_BURDEN.at(on.scope), paid, own);
    let above = on.made(trail, ABOVE, left, &[(PAID, paid), (OWN, own)], &[]);
    // The own burden falls on such costs first: what of them it takes counts as services.
    [above, care(on, true) + limit::lesser(trail, care_at_home, own)]
}

/// §33(3): by steps, to the cent.
fn own_burden(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    let figures = &on.facts.figures.burdens;
    let counted = on.facts.children.iter().filter(|child| child.months > 0 || child.benefit_months > 0);
    let rates: &[Rate] = match counted.count() {
        0 if on.table() == crate::tariff::Table::Splitting => &figures.together,
        0 => &figures.alone,
        many if many >= figures.many_from => &figures.many_children,
        _ => &figures.few_children,
    };
    let tops = [figures.first_to, figures.second_to];
    limit::by_brackets(trail, settled::or_zero(income), &tops, rates.iter().copied())
}

/// §33b: the own lump sum unless the costs are claimed, survivors, care that was given, and of children what the way gives here.
fn lumps(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures;
    let own = |person: usize| {
        let who = &on.facts.people[person];
        let disabled =
            if on.plan.actual_costs.contains(&person) { Money::ZERO } else { lump(figures, who.disability) };
        let survivor = if who.survivor { figures.disability.survivor } else { Money::ZERO };
        (disabled + survivor, sum(who.own.of(&brings::CARE_GIVEN)))
    };
    let of = |&person: &usize| {
        if on.halves() {
            let both = on
                .facts
                .filers
                .iter()
                .map(|&p| own(p))
                .fold((Money::ZERO, Money::ZERO), |all, one| (all.0 + one.0, all.1 + one.1));
            return euros_up(half_up(both.0 + both.1));
        }
        let (lump, care) = own(person);
        lump + care
    };
    let all = on.people.iter().map(of).sum::<Money>() + children::lumps(on);
    trail.line(LUMPS, on.scope, all, |i| {
        i.items(on.items(&brings::CARE_GIVEN)).figure("Of children", children::lumps(on));
    })
}

/// All costs of care at home of the filers, in their order, with who paid.
fn cares(facts: &Facts) -> impl Iterator<Item = (usize, &Item)> {
    let of = |&person: &usize| {
        facts.people[person].own.of(&brings::CARE_AT_HOME).iter().map(move |one| (person, one))
    };
    facts.filers.iter().flat_map(of)
}

/// Whether each of them counts as a service in the home instead of a burden (§35a(5) S.1).
pub static AS_SERVICES: Open<Facts> = Open::new(
    |facts| (0..cares(facts).count()).collect(),
    |facts, at| {
        let (person, _) = cares(facts).nth(at).unwrap_or_else(|| unreachable!("of the same facts"));
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("burden", "A burden; its part within the own burden as services", ""),
            Opt::new("services", "Services in the home", format!("care {} as services", at + 1)),
        ];
        let label = format!("Care {} paid by {name}", at + 1);
        Decision::between(format!("de.care.{at}"), label, "§§33, 35a(2), (5)", options)
    },
);

/// Which of them count so in a way.
pub fn services(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    (0..cares(facts).count()).filter(|at| way.taken(&AS_SERVICES, *at) == Some(1)).collect()
}

/// The costs of care at home that an assessment claims as services, or as a burden.
fn care(on: On<'_>, as_services: bool) -> Money {
    let claimed =
        cares(on.facts).enumerate().filter(|(at, _)| on.plan.as_services.contains(at) == as_services);
    let of = |(_, (person, item)): (usize, (usize, &Item))| match on.people.contains(&person) {
        _ if on.halves() => half_up(item.amount),
        true => item.amount,
        false => Money::ZERO,
    };
    euros_up(claimed.map(of).sum())
}

/// Whether a person claims the costs of a disability instead of the lump sum (§33b(1)).
pub static DISABILITY: Open<Facts> = Open::new(
    |facts| {
        let open = |&p: &usize| {
            facts.people[p].own.has(&brings::TYPICAL)
                && !lump(&facts.figures, facts.people[p].disability).is_zero()
        };
        facts.filers.iter().copied().filter(open).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("flat", "The lump sum", ""),
            Opt::new("actual", "The costs", format!("costs of {name}'s disability")),
        ];
        let id = format!("de.disability.{}", facts.people[person].id);
        Decision::between(id, format!("Disability of {name}"), "§33b(1)", options)
    },
);

/// Who claims the costs in a way; who has costs and no lump sum always does.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    let claims = |&p: &usize| {
        way.taken(&DISABILITY, p) == Some(1) || lump(&facts.figures, facts.people[p].disability).is_zero()
    };
    facts.filers.iter().copied().filter(claims).collect()
}

/// What is missing about burdens and support.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SUPPORT.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let transferred = paper.boxes.get("transferred").and_then(Entry::flag);
        if points.facts.figures.supports.transfer_only && transferred != Some(true) {
            points.raise(&SUPPORT_CASH, at("transferred"), format!("{}: was it transferred?", paper.title));
        }
        if !paper.boxes.contains_key("net_income") {
            points.raise(
                &PAYER_ASKED,
                at("net_income"),
                format!("{}: what does the payer earn?", paper.title),
            );
        }
    }
    of_children(points);
    for paper in points.papers(CARE_GIVEN.id) {
        let grade = paper.boxes.get("grade").and_then(Entry::count).unwrap_or(0);
        if grade < 2 {
            points.raise(&GRADE_ASKED, Place::paper(&paper.id, "grade"), "Which grade of care?");
        }
    }
    for &person in &points.facts.filers {
        let who = &points.facts.people[person];
        if who.own.has(&brings::TYPICAL) && !lump(&points.facts.figures, who.disability).is_zero() {
            let place = Place::decision(&format!("de.disability.{}", who.id));
            points.raise(&BOTH_CLAIMED, place, format!("{}: a lump sum and costs.", who.name));
        }
    }
}

/// Support of someone who counts as a child.
fn of_children(points: &mut Points<'_>) {
    let children = &points.facts.children;
    let names: Vec<&str> =
        children.iter().map(|child| points.facts.people[child.person].name.as_str()).collect();
    for paper in points.papers(SUPPORT.id).filter(|paper| names.contains(&paper.title.as_str())) {
        points.raise(
            &OF_A_CHILD,
            Place::paper(&paper.id, "paid"),
            format!("{} counts as a child.", paper.title),
        );
    }
}
