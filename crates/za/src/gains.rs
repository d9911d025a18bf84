//! Capital gains (Eighth Schedule; codes 4250 to 4253): each asset, the exclusion, losses of earlier years, the part that is taxed.

use crate::{
    bringing::Bringing,
    carried,
    facts::Facts,
    plan::On,
    points::Points,
    rounding::{cents, half, portion},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    household::{Answers, Entry},
    limit, lines, open_points,
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
    about: "Capital gains",
    lines: LINES,
    papers: &[SOLD],
    points: POINTS,
    figures: &["gains"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    NET = "za.gains_net", "Gains less losses", "Eighth Schedule paras 3 to 6",
        "Of every asset, what is free of a home left out.";
    AFTER_EXCLUSION = "za.gains_after_exclusion", "After the annual exclusion", "Eighth Schedule paras 5, 7",
        "The sum, nearer to nothing by the exclusion.";
    USED = "za.capital_loss_used", "Capital losses of earlier years used", "Eighth Schedule para 8",
        "As much as the gain takes.";
    CARRIED = "za.capital_loss_cf", "Capital loss carried", "Eighth Schedule para 9",
        "What is left of earlier years, and a loss of this one.";
    pub TAXABLE = "za.taxable_capital_gain", "Taxable capital gain", "s26A; Eighth Schedule para 10",
        "The part of the net gain that is taxed.";
}

open_points! {
    INCOMPLETE = blocks "C36", "Eighth Schedule paras 20, 35", "Enter what it brought and what it cost.";
    HOME = look "C37", "Eighth Schedule paras 45 to 49", "Let or office parts of a home are shared out: enter the part used as a home.";
    BOUGHT_AGAIN = not_covered "C40", "Eighth Schedule para 42";
    FREE = look "C67", "Eighth Schedule para 45(1)", "All of the gain of the home is free.";
    METHOD = look "C39", "Eighth Schedule para 32", "Once chosen for a class of assets, an identification method stays until all are sold.";
}

const CARRIES: &[Carry] =
    &[Carry { line: CARRIED, paper: carried::PAPER, into: CarriedTo::Box("capital_loss") }];

/// What its papers bring.
pub mod brings {
    use super::Sold;
    use hembo_core::brought::Brought;

    /// Assets sold.
    pub static SOLD: Brought<Sold> = Brought::new();
}

/// An asset sold: the owner's part.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Sold {
    /// The paper's id and the line's.
    pub id: String,
    /// What it is.
    pub what: String,
    /// What it brought.
    pub proceeds: Item,
    /// What it cost, by every method that was told.
    pub costs: Vec<Item>,
    /// Of a home: so many per cent used as such.
    pub home: Option<i64>,
    /// Of what is free of a home, this owner's part.
    pub free: Money,
    /// Abroad.
    pub abroad: bool,
}

impl Sold {
    fn place(&self) -> (usize, usize) {
        (self.proceeds.paper, self.proceeds.row.unwrap_or(0))
    }

    /// The gain by a base cost, less what is free of a home.
    fn gain(&self, cost: &Item) -> Money {
        let gain = self.proceeds.amount - cost.amount;
        let Some(percent) = self.home else { return gain };
        let as_home = portion(gain, percent, 100);
        let free = settled::greater(settled::lesser(as_home, self.free), -self.free);
        gain - free
    }
}

/// By which a base cost was found; columns of a line.
const METHODS: &[(&str, &str)] = &[
    ("cost", "base cost"),
    ("fifo", "first in, first out"),
    ("average", "weighted average"),
    ("specific", "specific identification"),
    ("market", "market value on 1 October 2001"),
    ("twenty", "20 % of proceeds"),
    ("apportioned", "time-apportioned"),
];

const KINDS: &[Choice] = &[
    Choice::new("shares", "Shares and units"),
    Choice::new("property", "Property"),
    Choice::new("home", "Primary home"),
    Choice::new("crypto", "Crypto-assets"),
    Choice::new("other", "Other"),
];

const SOLD: PaperKind = PaperKind {
    id: "Assets sold",
    subject: subject::INVESTMENTS,
    name: "Assets sold or given away",
    words: "capital gain shares home crypto it3c sale",
    title: "About",
    shared: true,
    headline: "proceeds",
    boxes: &[],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::choice("kind", "", "Kind", KINDS),
        Field::date("date", "", "Sold on"),
        Field::amount("proceeds", "", "Proceeds"),
        Field::amount("cost", "", "Base cost"),
        Field::amount("fifo", "", "Base cost, first in first out")
            .help("Only where several methods are open: the lowest tax decides."),
        Field::amount("average", "", "Base cost, weighted average"),
        Field::amount("specific", "", "Base cost, specific"),
        Field::amount("market", "", "Base cost from 1 October 2001"),
        Field::amount("twenty", "", "Base cost, 20 % of proceeds"),
        Field::amount("apportioned", "", "Base cost, time-apportioned"),
        Field::yes_no("bought_again", "", "Bought again within 45 days before or after"),
        Field::count("home_percent", "", "Per cent used as the home", 100).blank_is("100"),
        Field::count("owned_percent", "", "Per cent owned", 100).blank_is("100"),
        Field::yes_no("abroad", "", "Abroad"),
        Field::yes_no("excluded", "", "Excluded from the joint estate"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// A line of the list before it is divided among its owners.
struct Line<'a> {
    row: usize,
    id: &'a str,
    cells: &'a Answers,
    owned: i64,
}

impl Line<'_> {
    fn flag(&self, column: &str) -> bool {
        self.cells.get(column).and_then(Entry::flag).unwrap_or(false)
    }

    fn money(&self, column: &str) -> Money {
        portion(self.cells.get(column).and_then(Entry::money).unwrap_or_default(), self.owned, 100)
    }
}

/// Gives every asset to its owners.
pub fn read(paper: &mut Bringing<'_>) {
    let whole = paper.paper.paper;
    for (row, line) in whole.rows.iter().enumerate() {
        let cells = &line.cells;
        let owned = cells.get("owned_percent").and_then(Entry::count).unwrap_or(100);
        of_line(paper, &Line { row, id: &line.id, cells, owned });
    }
}

fn of_line(paper: &mut Bringing<'_>, line: &Line<'_>) {
    let parts = |column: &'static str| -> Vec<(usize, Item)> {
        paper.joint(column, Some(line.row), line.money(column), line.flag("excluded"))
    };
    let text = |column: &str| line.cells.get(column).and_then(Entry::text).unwrap_or_default();
    let is_home = text("kind") == "home";
    let percent = line.cells.get("home_percent").and_then(Entry::count).unwrap_or(100);
    let free = portion(paper.facts.figures.gains.home, line.owned, 100);
    let shared = parts("proceeds");
    let free_of = |place: usize| {
        let halves = paper.facts.in_community && !line.flag("excluded");
        if halves { half(free) } else { paper.paper.shares(free).get(place).map_or(free, |(_, part)| *part) }
    };
    let costs: Vec<Vec<(usize, Item)>> = METHODS
        .iter()
        .filter(|(column, _)| line.cells.contains_key(*column))
        .map(|(column, _)| parts_or_zero(paper, line, column))
        .collect();
    let made: Vec<(usize, Sold)> = shared
        .iter()
        .enumerate()
        .map(|(place, (person, proceeds))| {
            let sold = Sold {
                id: format!("{}.{}", paper.paper.paper.id, line.id),
                what: text("what").to_owned(),
                proceeds: *proceeds,
                costs: costs.iter().filter_map(|parts| parts.get(place)).map(|(_, item)| *item).collect(),
                home: is_home.then_some(percent),
                free: free_of(place),
                abroad: line.flag("abroad"),
            };
            (*person, sold)
        })
        .collect();
    for (person, sold) in made {
        paper.facts.people[person].own.add(&brings::SOLD, sold);
    }
}

/// The parts of a cost: also where it is zero.
fn parts_or_zero(paper: &Bringing<'_>, line: &Line<'_>, column: &'static str) -> Vec<(usize, Item)> {
    let amount = line.money(column);
    if amount.is_zero() {
        let item = paper.paper.item(column, Some(line.row), Money::ZERO);
        return paper
            .joint("proceeds", Some(line.row), line.money("proceeds"), line.flag("excluded"))
            .into_iter()
            .map(|(p, _)| (p, item))
            .collect();
    }
    paper.joint(column, Some(line.row), amount, line.flag("excluded"))
}

/// Gains as income.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Gained {
    pub taxable: Money,
    /// Of it what assets abroad bring.
    pub abroad: Money,
}

/// The base cost of the way.
fn cost<'a>(on: On<'_>, sold: &'a Sold) -> Option<&'a Item> {
    let chosen =
        on.plan.base_costs.iter().find(|(place, _)| *place == sold.place()).map_or(0, |(_, option)| *option);
    sold.costs.get(chosen).or(sold.costs.first())
}

/// Eighth Schedule: gains less losses, the exclusion, losses of earlier years, the part that is taxed.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Gained {
    let all = on.own().of(&brings::SOLD);
    let brought = carried::of(on, carried::CAPITAL_LOSS);
    if all.is_empty() && brought.is_empty() {
        return Gained::default();
    }
    let figures = &on.facts.figures.gains;
    let gain = |sold: &Sold| cost(on, sold).map_or(Money::ZERO, |cost| sold.gain(cost));
    let net: Money = all.iter().map(gain).sum();
    trail.line(NET, on.scope, net, |i| {
        i.items(all.iter().map(|sold| &sold.proceeds)).items(all.iter().filter_map(|sold| cost(on, sold)));
    });
    let exclusion = if on.who().died { figures.exclusion_death } else { figures.exclusion };
    let (gained, lost) = (limit::or_zero(trail, net), limit::or_zero(trail, -net));
    let gained = limit::or_zero(trail, gained - exclusion);
    let lost = limit::or_zero(trail, lost - exclusion);
    let after = on.made(trail, AFTER_EXCLUSION, gained - lost, &[(NET, net)], &[("Exclusion", &exclusion)]);
    let of_before = sum(brought);
    let used = limit::lesser(trail, of_before, gained);
    trail.line(USED, on.scope, used, |i| {
        i.items(brought).line(AFTER_EXCLUSION, on.scope, after);
    });
    on.made(
        trail,
        CARRIED,
        of_before - used + lost,
        &[(USED, used), (AFTER_EXCLUSION, after)],
        &[("Brought forward", &of_before)],
    );
    let left = gained - used;
    let taxable = cents(left, figures.part);
    on.made(trail, TAXABLE, taxable, &[(AFTER_EXCLUSION, after), (USED, used)], &[("Part", &figures.part)]);
    let of_abroad: Money = all.iter().filter(|sold| sold.abroad).map(gain).sum();
    let of_abroad = limit::or_zero(trail, of_abroad);
    let part = limit::lesser(trail, of_abroad, net);
    let abroad = if net > Money::ZERO {
        taxable.in_proportion(part, net, Money::CENT, Rounding::HalfUp)
    } else {
        Money::ZERO
    };
    Gained { taxable, abroad }
}

/// Every line of which several base costs are open.
fn open(facts: &Facts) -> Vec<&Sold> {
    let all = facts.returns.iter().flat_map(|&person| facts.people[person].own.of(&brings::SOLD));
    let mut found: Vec<&Sold> = Vec::new();
    for sold in all.filter(|sold| sold.costs.len() > 1) {
        if !found.iter().any(|other| other.id == sold.id) {
            found.push(sold);
        }
    }
    found
}

/// Which base cost is taken, by the place among those that are open.
pub static BASE_COST: Open<Facts> = Open::new(
    |facts| (0..open(facts).len()).collect(),
    |facts, place| {
        let sold = open(facts)[place];
        let named = |item: &Item| {
            METHODS.iter().find(|(column, _)| *column == item.field).map_or("", |(_, name)| *name)
        };
        let what = if sold.what.is_empty() { "an asset" } else { sold.what.as_str() };
        let option =
            |item: &Item| Opt::new(item.field, capital(named(item)), format!("{} of {what}", named(item)));
        let options = sold.costs.iter().map(option).collect();
        Decision::between(
            format!("za.cost.{}", sold.id),
            format!("Base cost of {what}"),
            "Eighth Schedule paras 26 to 32",
            options,
        )
    },
);

fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

/// The base costs of a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<((usize, usize), usize)> {
    let of = |(place, sold): (usize, &Sold)| Some((sold.place(), way.taken(&BASE_COST, place)?));
    open(facts).into_iter().enumerate().filter_map(of).collect()
}

/// Lines that are not whole, homes, methods.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SOLD.id) {
        for row in &paper.rows {
            let at = |column: &str| Place::row(&paper.id, row, column);
            let told = |column: &str| row.contains_key(column);
            if !told("proceeds") || !METHODS.iter().any(|(column, _)| told(column)) {
                points.raise(&INCOMPLETE, at("proceeds"), "What did it bring, and what did it cost?");
            }
            let money = |column: &str| row.get(column).and_then(Entry::money);
            let mut costs = METHODS.iter().filter_map(|(column, _)| money(column));
            let lost = costs.any(|cost| money("proceeds").is_some_and(|proceeds| proceeds < cost));
            if lost && row.get("bought_again").and_then(Entry::flag) == Some(true) {
                let words = "The loss on what was bought again within 45 days waits in its cost: that is not computed.";
                points.raise(&BOUGHT_AGAIN, at("bought_again"), words);
            }
            let text = |column: &str| row.get(column).and_then(Entry::text).unwrap_or_default();
            match text("kind") {
                "home"
                    if row
                        .get("home_percent")
                        .and_then(Entry::count)
                        .is_some_and(|percent| percent < 100) =>
                {
                    points.raise(&HOME, at("home_percent"), "A part of the home was used otherwise.");
                }
                "home" => points.raise(&FREE, at("kind"), "The home: two million of its gain are free."),
                "shares" if METHODS.iter().filter(|(column, _)| told(column)).count() > 1 => {
                    points.raise(&METHOD, at("proceeds"), "Several base costs are weighed.");
                }
                _ => {}
            }
        }
    }
}
