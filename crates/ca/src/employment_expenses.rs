//! Expenses of employment (ITA 8(1), (2), (13); form T777): item by item, with a room at home, and what stands on line 22900.

use crate::{
    bringing::{self, Bringing},
    facts::Facts,
    other_deductions,
    papers::t4,
    plan::{On, Plan},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Paper, Scope, Silent,
    field::{Choice, Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[EXPENSES],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["employment_expenses", "employment", "business"],
    carries: &[Carry { line: HOME_CARRIED, paper: "T777", into: CarriedTo::Box("earlier") }],
    ..Provision::NONE
};

lines! {
    OTHERS = "ca.t777.others", "Expenses but for the home", "ITA 8(1)(b), (f), (h) to (i), (q) to (t)",
        "As they may be deducted; of a seller on commission at most the commissions, where that is more.";
    HOME = "ca.t777.home", "Work space in the home", "ITA 8(13)",
        "The part of the home, at most what the employment leaves.";
    HOME_CARRIED = "ca.t777.home.carried", "Work space in the home kept for later", "ITA 8(13)(c)",
        "What the income of the employment did not take.";
    pub TOTAL = "ca.t777", "Employment expenses", "ITA 8(1), (13); form T777",
        "Item by item, or as the total of a form T777.";
}

limits! {
    PAY = "ca.limit.t777.home" on HOME, "Work space in the home", "over what the employment leaves, kept for later",
        "ITA 8(13)(b)";
}

open_points! {
    CONDITIONS = blocks "C-82-t777", "ITA 8(10)", "Answer whether the employer signed form T2200.";
    KIND = blocks "t777-kind", "ITA 8(1)", "Say what the expense is.";
    AREAS = blocks "t777-areas", "ITA 8(13)", "Enter the area of the room and that of the whole home.";
    COMMISSIONS = blocks "t777-commissions", "ITA 8(1)(f)", "Enter the commissions: without any, these are not deducted.";
}

/// What its papers bring.
pub mod brings {
    use super::Work;
    use hembo_core::brought::Brought;

    /// A form T777, item by item.
    pub static WORK: Brought<Work> = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("supplies", "Supplies, travel, car, other, in full"),
    Choice::new("meals", "Meals on travel, a half"),
    Choice::new("car", "Car: interest and capital cost"),
    Choice::new("legal", "Legal costs of pay"),
    Choice::new("tools", "Tools of a tradesperson"),
    Choice::new("mobility", "Relocation of a tradesperson"),
    Choice::new("artist", "Artist's expenses"),
    Choice::new("home", "Home: rent, heat, power, water, internet, upkeep"),
    Choice::new("home_sales", "Home: property tax, insurance (on commission)"),
    Choice::new("sales", "Selling costs (on commission)"),
];

const EXPENSES: PaperKind = PaperKind {
    id: "T777",
    subject: subject::PAY,
    name: "Employment expenses, item by item",
    words: "home office work space t2200 commission tools artist travel supplies",
    title: "Employer",
    shared: false,
    headline: "commissions",
    boxes: &[
        Field::yes_no("t2200", "", "The employer signed form T2200"),
        Field::amount("income", "", "Pay of this employment")
            .help("Only where there are several: the home takes no more than its own leaves."),
        Field::amount("commissions", "", "Commissions in it").help("T4 box 42."),
        Field::amount("artist_income", "", "Artist's pay in it"),
        Field::count("room", "", "Area of the room", 100_000).help("In the same measure as the home."),
        Field::count("area", "", "Area of the home", 100_000),
        Field::count("hours", "", "Hours of work a week in it", 168)
            .help("Only where the room serves something else as well."),
        Field::amount("earlier", "", "Home of earlier years carried in"),
    ],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::choice("kind", "", "Kind", KINDS),
        Field::amount("amount", "", "Amount").help("Of a car the part for work; of the home all of it."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Expenses but for the home, and the part of the home; whether by the rules of a seller on commission.
#[derive(Debug, Clone, Copy, Default)]
struct Parts {
    others: Money,
    home: Money,
    on_commission: bool,
}

/// What one form T777 asks of the employment.
#[derive(Debug, Clone)]
pub struct Work {
    parts: Parts,
    /// Where the expenses but for the home stand.
    items: Vec<Item>,
    /// Where those of the home stand.
    home_items: Vec<Item>,
    /// What was carried in.
    earlier: Money,
    /// Pay of this employment, where it is told.
    pay: Option<Money>,
}

/// What is deducted.
#[derive(Debug, Clone, Copy, Default)]
pub struct Expenses {
    /// Of form T777.
    pub total: Money,
    /// By the rules of a seller on commission, of which the minimum tax adds nothing back.
    pub on_commission: Money,
}

/// Expenses but for the home, and the home: by the rules for everyone, or of a seller on commission by its own, the larger.
fn parts(facts: &Facts, paper: &Paper) -> Parts {
    let of = |kind: &str| -> Money {
        let rows = paper.rows.iter().filter(|row| row.get("kind").and_then(Entry::text) == Some(kind));
        rows.filter_map(|row| row.get("amount").and_then(Entry::money)).sum()
    };
    let figures = &facts.figures.employment_expenses;
    let meals = cents(of("meals"), facts.figures.business.meals);
    let tools =
        settled::lesser(settled::or_zero(of("tools") - facts.figures.employment.most), figures.tools_most);
    let mobility = settled::lesser(of("mobility"), figures.mobility_most);
    let of_art =
        settled::lesser(figures.artist_most, cents(paper.amount("artist_income"), figures.artist_part));
    let artist = settled::lesser(of("artist"), of_art);
    let needs_none = of("legal") + mobility + artist;
    if !paper.flag("t2200") {
        return Parts { others: needs_none, ..Parts::default() };
    }
    let for_all = needs_none + tools + of("car");
    let used = |amount: Money| part_of_home(facts, paper, amount);
    let everyone = (for_all + of("supplies") + meals, used(of("home")));
    // On commission more counts, but all of it no more than the commissions.
    let commissions = paper.amount("commissions");
    let selling = settled::lesser(of("supplies") + meals + of("sales"), commissions);
    let home = settled::lesser(used(of("home") + of("home_sales")), commissions - selling);
    let on_commission = (for_all + selling, home);
    let more = on_commission.0 + on_commission.1 > everyone.0 + everyone.1;
    let (others, home) = if more { on_commission } else { everyone };
    Parts { others, home, on_commission: more }
}

/// The part of the home that the room is, and of the week that it serves for work.
fn part_of_home(facts: &Facts, paper: &Paper, amount: Money) -> Money {
    let count = |field: &str| paper.boxes.get(field).and_then(Entry::count).unwrap_or(0);
    let week = facts.figures.employment_expenses.week_hours;
    let hours = if paper.boxes.contains_key("hours") { count("hours") } else { week };
    let whole = Money::CENT * (count("area") * week);
    if whole.is_zero() {
        return Money::ZERO;
    }
    let part = settled::lesser(Money::CENT * (count("room") * hours), whole);
    amount.in_proportion(part, whole, Money::CENT, Rounding::HalfUp)
}

/// Gives what the form comes to to the owner; without a signed T2200 only what needs none.
pub fn read(paper: &mut Bringing<'_>) {
    let from = paper.paper.paper;
    let parts = parts(paper.facts, from);
    let mut work = Work {
        parts,
        items: Vec::new(),
        home_items: Vec::new(),
        earlier: if paper.paper.paper.flag("t2200") { paper.amount("earlier") } else { Money::ZERO },
        pay: paper.has("income").then(|| paper.amount("income")),
    };
    for (row, cells, amount) in paper.paper.lines("amount") {
        let item = paper.paper.item("amount", Some(row), amount);
        match cells.get("kind").and_then(Entry::text) {
            Some("home" | "home_sales") => work.home_items.push(item),
            _ => work.items.push(item),
        }
    }
    for (person, _) in paper.paper.shares(Money::ZERO) {
        paper.facts.people[person].own.add(&brings::WORK, work.clone());
    }
    paper.files();
}

/// Line 22900 but for compensation repaid. `pay` is line 10100, `less` the other deductions from it.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, pay: Money, less: Money) -> Expenses {
    let own = on.own();
    let typed = own.of(&other_deductions::brings::EMPLOYMENT);
    let works = own.of(&brings::WORK);
    if works.is_empty() {
        return Expenses { total: on.gather(trail, TOTAL, typed), on_commission: Money::ZERO };
    }
    let others: Money = works.iter().map(|work| work.parts.others).sum();
    trail.line(OTHERS, on.scope, others, |i| {
        i.items(works.iter().flat_map(|work| &work.items));
    });
    let mut left = limit::or_zero(trail, pay - less - others - sum(typed));
    let (mut taken, mut all, mut on_commission) = (Money::ZERO, Money::ZERO, Money::ZERO);
    for work in works {
        let of_pay = work.pay.map_or(left, |pay| settled::or_zero(pay - work.parts.others));
        let most = limit::lesser(trail, left, of_pay);
        let home = limit::cap(trail, PAY.at(on.scope), work.parts.home + work.earlier, most);
        left -= home;
        taken += home;
        all += work.parts.home + work.earlier;
        if work.parts.on_commission {
            on_commission += work.parts.others + home;
        }
    }
    trail.line(HOME, on.scope, taken, |i| {
        i.items(works.iter().flat_map(|work| &work.home_items));
        i.figure("Part of the home, with what was carried in", all);
    });
    on.made(trail, HOME_CARRIED, all - taken, &[(HOME, taken)], &[("In all", &all)]);
    let total = trail.line(TOTAL, on.scope, others + taken + sum(typed), |i| {
        i.line(OTHERS, on.scope, others).line(HOME, on.scope, taken).items(typed);
    });
    Expenses { total, on_commission }
}

/// The same of a person, as far as papers alone tell.
pub fn total(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    let less = sum(own.of(&bringing::brings::RPP))
        + sum(own.of(&t4::brings::DUES))
        + sum(own.of(&other_deductions::brings::DUES));
    let on = On { facts, plan: &Plan::default(), person, scope: Scope::Person(person) };
    reckon(on, &mut Silent, sum(own.of(&t4::brings::EMPLOYMENT)), less).total
}

/// Conditions, kinds and areas that are missing.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(EXPENSES.id) {
        if !paper.rows.is_empty() && !paper.boxes.contains_key("t2200") {
            points.raise(&CONDITIONS, Place::paper(&paper.id, "t2200"), "Is form T2200 signed?");
        }
        let count = |field: &str| paper.boxes.get(field).and_then(Entry::count).unwrap_or(0);
        for cells in &paper.rows {
            let kind = cells.get("kind").and_then(Entry::text);
            if cells.contains_key("amount") && kind.is_none() {
                points.raise(&KIND, Place::row(&paper.id, cells, "kind"), "What is the expense for?");
            }
            let home = matches!(kind, Some("home" | "home_sales"));
            if home && (count("room") == 0 || count("area") < count("room")) {
                points.raise(&AREAS, Place::paper(&paper.id, "room"), "Which part of the home is it?");
            }
            let selling = matches!(kind, Some("sales" | "home_sales"));
            if selling && paper.amount("commissions").is_zero() {
                points.raise(&COMMISSIONS, Place::row(&paper.id, cells, "kind"), "On which commissions?");
            }
        }
    }
}
