//! Pensions and old age (§§22 Nr.1, 24a EStG; Anlage R): the share that is taxed by the year of the start, the yield of annuities, the
//! relief of old age.

use crate::{
    bringing::{Bringing, per_cent},
    facts::Facts,
    figures::{self, Figures},
    points::Points,
    rounding::{euros_down, euros_up},
};
use hembo_core::{
    field::{Choice, Field, Years},
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rate, Rounding};
use time::{Date, Month};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Pensions and old age",
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    papers: &[NOTICE],
    figures: &["pensions"],
    ..Provision::NONE
};

lines! {
    TAXABLE = "de.pension_taxable", "Taxable part of pensions", "§22 Nr.1 S.3 a",
        "By the year of the start, or less the fixed free amount; of private annuities the yield.";
    pub INCOME = "de.annuity_income", "Income from pensions", "§§22, 9a S.1 Nr.3",
        "The taxable part and maintenance received, less the lump sum.";
    pub RELIEF = "de.age_relief", "Relief of old age (Altersentlastungsbetrag)", "§24a",
        "A part of wages and other income by the first year after 64.";
}

limits! {
    RELIEF_MOST = "de.limit.age_relief" on RELIEF, "Relief of old age", "over its most", "§24a S.5";
}

open_points! {
    START_ASKED = blocks "DE-C71", "§22 Nr.1 S.3 a", "Enter when it began: the year decides the share, the age the yield.";
    FREE_ASKED = look "pension-free", "§22 Nr.1 S.3 a aa S.4", "From the third calendar year on the free amount is fixed: take it from the last notice.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// The taxable part of each pension.
    pub static TAXABLE: Brought = Brought::new();
    /// Maintenance from a former spouse (§22 Nr.1a).
    pub static MAINTENANCE: Brought = Brought::new();
    /// Costs of pensions.
    pub static COSTS: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("statutory", "Statutory, professional scheme, Basisrente"),
    Choice::new("private", "Private annuity for life"),
];

/// The notice of a pension.
pub const NOTICE: PaperKind = PaperKind {
    id: "Rente",
    subject: subject::RETIREMENT,
    name: "Notice of a pension, Rentenbezugsmitteilung",
    words: "pension rente annuity leibrente old age",
    title: "Payer",
    shared: false,
    headline: "gross",
    boxes: &[
        Field::choice("kind", "", "Kind", KINDS).blank_is("statutory").lasts(),
        Field::amount("gross", "", "Paid in the year"),
        Field::count("start", "", "Year in which it began", 2100).lasts(),
        Field::amount("free", "", "Fixed free amount")
            .lasts()
            .help("From the second full year on, for life."),
        Field::count("age", "", "Age at the start, of a private annuity or the opening clause", 120).lasts(),
        Field::decimal("opening", "", "Part by the opening clause, in per cent", 2)
            .lasts()
            .help("From contributions above the ceiling in ten years before 2005, as the payer certifies it: taxed by its yield on request, once and for life."),
        Field::amount("costs", "", "Costs of the pension"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What a table by the year of the start has, that of the first year for all before it.
pub fn by_start<T: Copy + Default>(figures: &figures::Pensions, table: &[T], year: i32) -> T {
    let at = usize::try_from(year - figures.first_year).unwrap_or(0);
    table.get(at).or(table.last()).copied().unwrap_or_default()
}

/// Gives a pension to who draws it.
pub fn read(paper: &mut Bringing<'_>) {
    let gross = paper.amount("gross");
    let figures = &paper.facts.figures.pensions;
    let by_yield =
        if paper.text("kind") == "private" { gross } else { opened(gross, &paper.paper.paper.boxes) };
    let at = figures.yield_ages.iter().rposition(|from| *from <= paper.count("age")).unwrap_or(0);
    let rest = gross - by_yield;
    let of_rest = if paper.has("free") {
        settled::or_zero(rest - paper.amount("free"))
    } else {
        let start = i32::try_from(paper.count("start")).unwrap_or(figures.first_year);
        share(rest, by_start(figures, &figures.shares, start))
    };
    let of_rest = if rest.is_zero() { Money::ZERO } else { of_rest };
    paper.put("gross", None, share(by_yield, figures.yields[at]) + of_rest, &brings::TAXABLE);
    paper.give(&[("costs", &brings::COSTS)]);
}

/// The part of a pension that is taxed by its yield: of the opening clause (§22 Nr.1 S.3 a bb S.2).
pub fn opened(gross: Money, boxes: &Answers) -> Money {
    boxes.get("opening").and_then(Entry::decimal).map_or(Money::ZERO, |part| share(gross, per_cent(part)))
}

fn share(gross: Money, rate: Rate) -> Money {
    gross.times(rate, Money::CENT, Rounding::Down)
}

/// Income of pensions and maintenance, less the lump sum or the costs.
pub fn reckon(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let own = &facts.people[person].own;
    let scope = Scope::Person(person);
    let (pensions, maintenance) = (own.of(&brings::TAXABLE), own.of(&brings::MAINTENANCE));
    // Each pension is cut to euros by itself.
    let taxable = pensions.iter().map(|item| euros_down(item.amount)).sum();
    let taxable = trail.line(TAXABLE, scope, taxable, |i| _ = i.items(pensions));
    let received = euros_down(sum(maintenance));
    let costs = euros_up(sum(own.of(&brings::COSTS)));
    let off = settled::greater(facts.figures.pensions.lump, costs);
    let off = settled::lesser(off, taxable + received);
    trail.line(INCOME, scope, taxable + received - off, |i| {
        i.line(TAXABLE, scope, taxable).items(maintenance).items(own.of(&brings::COSTS));
        i.figure("Lump sum or costs", off);
    })
}

/// The first year after the one in which an age was completed; who is born on 1 January completes it on 31 December before.
fn first_year_after(born: Date, age: i32) -> i32 {
    let january_first = born.month() == Month::January && born.day() == 1;
    born.year() + age + i32::from(!january_first)
}

/// §24a: a part of the wage without pensions and of the other income that is not of pensions, where it is positive.
pub fn relief(facts: &Facts, trail: &mut impl Trail, person: usize, wage: Money, other: Money) -> Money {
    let Figures { pensions: figures, year, .. } = &*facts.figures;
    let Some(born) = facts.people[person].born else { return Money::ZERO };
    let first = first_year_after(born, figures.relief_age);
    if first > *year {
        return Money::ZERO;
    }
    let base = wage + settled::or_zero(other);
    let part = base.times(by_start(figures, &figures.relief_rates, first), Money::WHOLE, Rounding::Up);
    let scope = Scope::Person(person);
    let most = by_start(figures, &figures.relief_most, first);
    let relief = limit::cap(trail, RELIEF_MOST.at(scope), settled::or_zero(part), most);
    trail.line(RELIEF, scope, relief, |i| {
        i.figure("Wage and other income", base).figure("First year after 64", first);
    })
}

/// What is missing of pensions.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(NOTICE.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let count = |field: &str| paper.boxes.get(field).and_then(Entry::count);
        let private = paper.text("kind") == Some("private");
        let by_yield = private || paper.boxes.contains_key("opening");
        let free = paper.boxes.contains_key("free");
        if by_yield && count("age").is_none() {
            points.raise(&START_ASKED, at("age"), format!("{}: at which age did it begin?", paper.title));
        } else if !private && !free && count("start").is_none() {
            points.raise(&START_ASKED, at("start"), format!("{}: in which year did it begin?", paper.title));
        } else if !private
            && !free
            && count("start").is_some_and(|year| year + 1 < i64::from(points.facts.figures.year))
        {
            points.raise(&FREE_ASKED, at("free"), format!("{}: the fixed free amount?", paper.title));
        }
    }
}
