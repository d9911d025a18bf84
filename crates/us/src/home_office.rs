//! The actual cost of a home office (§280A(c)), Form 8829: its part of the home by area; what would be deducted without it comes first,
//! then what runs the home, then depreciation, each up to what the business leaves; the rest is carried on (§280A(c)(5)).

use crate::{bringing::Bringing, facts::Facts, points::Points, rental_depreciation, unit::Filed};
use hembo_core::{
    field::{Field, Years},
    forms::Required,
    household::Entry,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[OFFICE],
    points: POINTS,
    figures: &["rental"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: CARRIED, paper: "8829", into: CarriedTo::Box("25") },
    Carry { line: CARRIED_DEPRECIATION, paper: "8829", into: CarriedTo::Box("31") },
];

lines! {
    FIRST = "us.8829.14", "Interest and tax of the office", "IRC §280A(b), (c)(5)(B)",
        "Its part of home-loan interest and real estate tax, where the return itemizes: off Schedule A, and not limited.";
    RUNNING = "us.8829.27", "Running the office", "IRC §280A(c)(5)",
        "Its part of what runs the home, its own expenses and those carried here, up to what the business leaves.";
    DEPRECIATED = "us.8829.33", "Depreciation of the office", "IRC §§168(c), 280A(c)(5)",
        "Its part of the straight line over 39 years, and what was carried here, up to what is left.";
    ALLOWED = "us.8829.36", "Office in the home", "IRC §280A(c)",
        "Together; Schedule C line 30.";
    CARRIED = "us.8829.43", "Running expenses carried on", "IRC §280A(c)(5)",
        "What the business did not leave room for.";
    CARRIED_DEPRECIATION = "us.8829.44", "Depreciation carried on", "IRC §280A(c)(5)",
        "What the business did not leave room for.";
}

open_points! {
    AREA = blocks "8829-area", "IRC §280A(c)(1); Form 8829, lines 1 and 2",
        "Enter both areas: the office has its part of the home by them.";
    BASIS = look "8829-37", "IRC §§167(a), 1016(a)(2)",
        "Depreciation lowers the basis whether it is taken or not: enter the basis and since when the office is used.";
    CAPPED = look "8829-17", "Form 8829, line 17",
        "Real estate tax over the cap belongs to line 17, which the business limits: look at what is carried on.";
}

/// The cost of an office before the business limits it, its own part already.
#[derive(Debug, Clone)]
pub struct Office {
    /// Where it stands among the papers.
    pub paper: usize,
    /// The office's part of each box: of interest and tax, of what runs the home, of depreciation.
    boxes: [Vec<Item>; 3],
    interest: Money,
    tax: Money,
    running: Money,
    depreciation: Money,
}

/// What its papers bring.
pub mod brings {
    use super::Office;
    use hembo_core::brought::Brought;

    /// Offices.
    pub static OFFICES: Brought<Office> = Brought::new();
}

/// Form 8829.
pub const OFFICE: PaperKind = PaperKind {
    id: "8829",
    subject: subject::OWN_WORK,
    name: "Office in the home, actual cost",
    words: "home office 8829 business use of home rent utilities",
    title: "About",
    shared: false,
    headline: "21",
    boxes: &[
        Field::count("1", "1", "Area of the office, square feet", 100_000)
            .lasts()
            .help("Used regularly and only for the business."),
        Field::count("2", "2", "Area of the home, square feet", 100_000).lasts(),
        Field::amount("10", "10", "Home-loan interest, whole home")
            .help("Also on its Form 1098: the office's part is taken off Schedule A."),
        Field::amount("11", "11", "Real estate tax, whole home")
            .help("Also under its own paper: the office's part is taken off Schedule A."),
        Field::amount("18", "18", "Insurance, whole home"),
        Field::amount("19", "19", "Rent, whole home"),
        Field::amount("20", "20", "Repairs, whole home"),
        Field::amount("21", "21", "Utilities, whole home"),
        Field::amount("22", "22", "Other, whole home"),
        Field::amount("direct", "22a", "Of the room alone")
            .help("Repairs and the like of the office itself: in full."),
        Field::amount("25", "25", "Running expenses carried here").help("Line 43 of the last Form 8829."),
        Field::amount("37", "37", "Basis of the home, or its value if less")
            .lasts()
            .help("When the office was first used; with the land."),
        Field::amount("38", "38", "Of it the land").lasts(),
        Field::date("since", "41", "Office used since").lasts(),
        Field::amount("31", "31", "Depreciation carried here").help("Line 44 of the last Form 8829."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What runs a home as a whole.
const WHOLE_HOME: [&str; 5] = ["18", "19", "20", "21", "22"];

/// Gives the office to its owner.
pub fn read(paper: &mut Bringing<'_>) {
    let of = paper.paper.paper;
    let area = |id: &str| Money::whole(of.boxes.get(id).and_then(Entry::count).unwrap_or(0));
    let (office, home) = (area("1"), area("2"));
    if home.is_zero() || office > home {
        return;
    }
    let part = |amount: Money| amount.in_proportion(office, home, Money::WHOLE, Rounding::HalfUp);
    let months = paper.facts.figures.rental.other_months;
    let cost = part(settled::or_zero(of.amount("37") - of.amount("38")));
    let since = of.boxes.get("since").and_then(Entry::date);
    let year = since.map_or(Money::ZERO, |since| {
        rental_depreciation::straight_line(cost, since, paper.facts.figures.year, months)
    });
    let running: Money = WHOLE_HOME.iter().map(|id| of.amount(id)).sum();
    let item = |id: &'static str, amount| paper.paper.item(id, None, amount);
    let shared =
        |id: &'static str| item(id, of.amount(id).in_proportion(office, home, Money::CENT, Rounding::HalfUp));
    let own = |id: &'static str| item(id, of.amount(id));
    let boxes = [
        vec![shared("10"), shared("11")],
        WHOLE_HOME.into_iter().map(shared).chain([own("direct"), own("25")]).collect(),
        vec![item("37", year), own("31")],
    ];
    let made = Office {
        paper: paper.paper.index,
        boxes,
        interest: part(of.amount("10")),
        tax: part(of.amount("11")),
        running: part(running) + (of.amount("direct") + of.amount("25")).to_whole(),
        depreciation: year + of.amount("31").to_whole(),
    };
    for (person, _) in paper.paper.shares(Money::ZERO) {
        paper.facts.people[person].own.add(&brings::OFFICES, made.clone());
    }
}

/// What a business is allowed of its office, part by part.
#[derive(Debug, Clone, Copy)]
struct Parts {
    first: Money,
    running: Money,
    depreciation: Money,
}

impl Office {
    /// Its parts of home-loan interest and real estate tax.
    pub fn of_schedule_a(&self) -> (Money, Money) {
        (self.interest, self.tax)
    }

    /// What comes first: interest and tax, which a return that takes the standard deduction has among the running expenses.
    fn first(&self, itemizes: bool) -> Money {
        if itemizes { self.interest + self.tax } else { Money::ZERO }
    }

    fn all_running(&self, itemizes: bool) -> Money {
        self.running + self.interest + self.tax - self.first(itemizes)
    }

    fn parts(&self, before: Money, itemizes: bool) -> Parts {
        let first = self.first(itemizes);
        let left = settled::or_zero(settled::or_zero(before) - first);
        let running = settled::lesser(self.all_running(itemizes), left);
        Parts { first, running, depreciation: settled::lesser(self.depreciation, left - running) }
    }

    /// Line 36, of a business with so much profit before it.
    pub fn allowed(&self, before: Money, itemizes: bool) -> Money {
        let parts = self.parts(before, itemizes);
        parts.first + parts.running + parts.depreciation
    }

    /// What it would be without a limit.
    pub fn wanted(&self) -> Money {
        self.interest + self.tax + self.running + self.depreciation
    }

    /// The boxes of a group: of a return that takes the standard deduction interest and tax are among the running expenses.
    fn items(&self, group: usize, itemizes: bool) -> impl Iterator<Item = &Item> {
        let [first, running, depreciation] = &self.boxes;
        let nothing: &[Item] = &[];
        let (more, of): (&[Item], &[Item]) = match group {
            0 if itemizes => (nothing, first),
            0 => (nothing, nothing),
            1 if itemizes => (nothing, running),
            1 => (first, running),
            _ => (nothing, depreciation),
        };
        more.iter().chain(of)
    }

    /// The lines of the form.
    pub fn told(&self, trail: &mut impl Trail, person: usize, before: Money, itemizes: bool) {
        let scope = Scope::Person(person);
        let parts = self.parts(before, itemizes);
        let of = [(FIRST, parts.first), (RUNNING, parts.running), (DEPRECIATED, parts.depreciation)];
        for (group, (line, amount)) in of.into_iter().enumerate() {
            trail.line(line, scope, amount, |i| {
                for item in self.items(group, itemizes).filter(|item| !item.amount.is_zero()) {
                    i.items([item]);
                }
                i.figure("Profit before the office", before);
            });
        }
        let allowed = parts.first + parts.running + parts.depreciation;
        trail.line(ALLOWED, scope, allowed, |i| {
            for (line, amount) in of {
                i.line(line, scope, amount);
            }
        });
        let left = [
            (CARRIED, RUNNING, self.all_running(itemizes), parts.running),
            (CARRIED_DEPRECIATION, DEPRECIATED, self.depreciation, parts.depreciation),
        ];
        for (line, used, all, taken) in left {
            trail.line(line, scope, all - taken, |i| {
                i.figure("All", all).line(used, scope, taken);
            });
        }
    }
}

/// The office of a person, where there is one.
pub fn of(facts: &Facts, person: usize) -> Option<&Office> {
    facts.people[person].own.of(&brings::OFFICES).first()
}

/// Form 8829: where the actual cost of an office is deducted.
pub fn form_8829(filed: Filed<'_>) -> Required {
    let used = |&p: &usize| filed.trail.amount(ALLOWED, Scope::Person(p)).is_some();
    Required::if_so(filed.on.unit.people.iter().any(used), "no office in the home by its actual cost")
}

/// What the form must tell.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(OFFICE.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let area = |id: &str| paper.boxes.get(id).and_then(Entry::count).unwrap_or(0);
        if area("1") == 0 || area("1") > area("2") {
            points.raise(&AREA, at("1"), "Which part of the home is the office?");
        }
        if paper.amount("37").is_zero() && paper.amount("19").is_zero() {
            points.raise(&BASIS, at("37"), "A home of one's own is written off, too.");
        }
    }
    capped(points);
}

/// An office that the business limits on a return whose taxes are over the cap.
fn capped(points: &mut Points<'_>) {
    for unit in points.units.iter().filter(|unit| unit.itemizes) {
        for &person in &unit.people {
            let amount = |line| points.trail.amount(line, Scope::Person(person)).unwrap_or_default();
            let limited = !(amount(CARRIED) + amount(CARRIED_DEPRECIATION)).is_zero();
            let Some(office) = of(points.facts, person).filter(|office| limited && !office.tax.is_zero())
            else {
                continue;
            };
            let place = Place::paper(&points.household.papers[office.paper].id, "11");
            points.raise(&CAPPED, place, "The business limits the office, and Schedule A may cap its tax.");
        }
    }
}
