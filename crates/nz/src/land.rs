//! Sales of residential land within the bright-line (ITA CB 6A, CB 16A, EL 4; form IR833).

use crate::{
    bringing::Bringing,
    facts::Facts,
    figures::Land,
    last_assessment,
    plan::{Filed, On},
    points::{Points, in_words},
};
use hembo_core::{
    field::{Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::Money;
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Sales of land",
    lines: LINES,
    limits: LIMITS,
    papers: &[SALES],
    points: POINTS,
    figures: &["land"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    pub OF_LETS = "nz.bright_line.let", "Of it of let property", "ITA EL 4",
        "Profits of let property, against which its deductions count.";
    pub PROFIT = "nz.bright_line", "Bright-line profit", "ITA CB 6A; form IR833",
        "Price less cost of what was sold within the time; not the main home.";
    pub CARRIED = "nz.land_loss_cf", "Loss of sales of land carried", "ITA EL 4, EL 5",
        "A loss counts against profits of sales of land alone.";
}

limits! {
    LOSSES = "nz.limit.land" on PROFIT, "Losses of sales of land", "over profits of sales, carried forward", "ITA EL 4";
}

open_points! {
    DATES = blocks "C73", "ITA CB 6A, CB 6AB", "Enter the day of the title and that of the agreement to sell.";
    OLD_LAW = look "C33", "ITA CB 6A as it was to 30 June 2024", "Agreements before 1 July 2024 go by the longer times: compare how it was bought.";
    OUT_OF_YEAR = blocks "land-year", "ITA CB 6A, BC 3", "A sale counts in the year of its agreement.";
    INTENDED = look "land-intention", "ITA CB 6 to CB 14", "Sold after the time it is free only where it was not bought to be sold.";
    HOME = look "main-home", "ITA CB 16A", "Most of the time, most of the land, and not the third time in two years.";
}

const CARRIES: &[Carry] =
    &[Carry { line: CARRIED, paper: last_assessment::PAPER, into: CarriedTo::Box("land") }];

/// What its papers bring.
pub mod brings {
    use super::Sale;
    use hembo_core::brought::Brought;

    /// Sales within the time.
    pub static SALES: Brought<Sale> = Brought::new();
}

/// A sale within the time: the owner's part.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Sale {
    pub price: Item,
    pub cost: Item,
    pub of_let: bool,
}

impl Sale {
    fn profit(&self) -> Money {
        self.price.amount - self.cost.amount
    }
}

/// Land sold.
pub const SALES: PaperKind = PaperKind {
    id: "Land sold",
    subject: subject::OWN_WORK,
    name: "Residential land sold",
    words: "bright line property house section ir833 sale",
    title: "Land",
    shared: true,
    headline: "price",
    boxes: &[],
    columns: &[
        Field::text("what", "", "Land", 80),
        Field::date("agreed", "", "Agreed to buy")
            .help("Where it lies before the title and another law was in force then."),
        Field::date("acquired", "", "Title since"),
        Field::date("sold", "", "Agreed to sell"),
        Field::amount("price", "", "Price"),
        Field::amount("cost", "", "Cost, improvements, selling costs"),
        Field::yes_no("home", "", "Main home"),
        Field::yes_no("new_build", "", "New build"),
        Field::yes_no("let", "", "Let property"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// What decides of a sale, where its days are known.
struct Days {
    agreed: Date,
    acquired: Date,
    sold: Date,
    new_build: bool,
}

impl Days {
    fn of(cells: &Answers) -> Option<Days> {
        let day = |column: &str| cells.get(column).and_then(Entry::date);
        let acquired = day("acquired")?;
        Some(Days {
            agreed: day("agreed").unwrap_or(acquired),
            acquired,
            sold: day("sold")?,
            new_build: cells.get("new_build").and_then(Entry::flag).unwrap_or(false),
        })
    }

    /// From which day on a sale is free: so many years after the title.
    fn free_from(&self, figures: &Land) -> Date {
        let bought = figures.earlier.iter().find(|earlier| earlier.acquired_from.0 <= self.agreed);
        let years = match bought {
            _ if self.sold >= figures.since.0 => figures.years,
            Some(earlier) if self.new_build => earlier.new_build_years,
            Some(earlier) => earlier.years,
            None => 0,
        };
        years_after(self.acquired, years)
    }

    /// Whether the sale is within the time.
    fn within(&self, figures: &Land) -> bool {
        self.sold < self.free_from(figures)
    }
}

/// The same day so many years later; of 29 February the next one where there is none.
fn years_after(day: Date, years: i32) -> Date {
    let year = day.year() + years;
    day.replace_year(year).or_else(|_| Date::from_ordinal_date(year, 60)).unwrap_or(Date::MAX)
}

/// From which day on a sale within the time would have been free; none of the main home.
pub fn free_from(cells: &Answers, figures: &Land) -> Option<Date> {
    let days = Days::of(cells).filter(|days| !is_home(cells) && days.within(figures))?;
    let by_new_law = settled::greater(figures.since.0, years_after(days.acquired, figures.years));
    Some(settled::lesser(days.free_from(figures), by_new_law))
}

fn is_home(cells: &Answers) -> bool {
    cells.get("home").and_then(Entry::flag).unwrap_or(false)
}

/// Gives each owner a part of every sale that is income.
pub fn read(paper: &mut Bringing<'_>) {
    let rows: Vec<_> = paper.paper.lines("price").collect();
    for (row, cells, price) in rows {
        let within = Days::of(cells).is_some_and(|days| days.within(&paper.facts.figures.land));
        if is_home(cells) || !within {
            continue;
        }
        let cost = cells.get("cost").and_then(Entry::money).unwrap_or_default();
        let of_let = cells.get("let").and_then(Entry::flag).unwrap_or(false);
        let costs = paper.paper.shares(cost);
        for ((person, price), (_, cost)) in paper.paper.shares(price).into_iter().zip(costs) {
            let item = |column: &'static str, amount| paper.paper.item(column, Some(row), amount);
            let sale = Sale { price: item("price", price), cost: item("cost", cost), of_let };
            paper.facts.people[person].own.add(&brings::SALES, sale);
        }
    }
    paper.needs_return();
}

/// Profits of sales: of let property, and all that is income.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Sold {
    pub of_lets: Money,
    pub profit: Money,
}

/// Form IR833: profits less losses of sales, of this year and earlier ones.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Sold {
    let sales = on.own().of(&brings::SALES);
    let brought = last_assessment::of(on, last_assessment::LAND);
    if sales.is_empty() && brought.is_empty() {
        return Sold::default();
    }
    let profits = |of: &dyn Fn(&Sale) -> bool| -> Money {
        sales.iter().filter(|sale| of(sale)).map(|sale| settled::or_zero(sale.profit())).sum()
    };
    let gained = profits(&|_| true);
    let lost = sales.iter().map(|sale| settled::or_zero(-sale.profit())).sum::<Money>() + sum(brought);
    let used = limit::cap(trail, LOSSES.at(on.scope), lost, gained);
    let profit = gained - used;
    let of_lets = settled::lesser(profits(&|sale| sale.of_let), profit);
    let items = || sales.iter().flat_map(|sale| [&sale.price, &sale.cost]);
    trail.line(OF_LETS, on.scope, of_lets, |i| {
        i.items(sales.iter().filter(|sale| sale.of_let).flat_map(|sale| [&sale.price, &sale.cost]));
    });
    trail.line(PROFIT, on.scope, profit, |i| {
        i.items(items()).items(brought);
    });
    on.made(trail, CARRIED, lost - used, &[], &[("Losses", &lost), ("Used against profits", &used)]);
    Sold { of_lets, profit }
}

/// Form IR833: where land was sold.
pub fn form_ir833(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.own().has(&brings::SALES), "no land sold within the time")
}

/// Days that are missing, the law of before, sales after the time.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SALES.id) {
        for cells in &paper.rows {
            let at = |column: &str| Place::row(&paper.id, cells, column);
            let Some(days) = Days::of(cells) else {
                let missing = if cells.contains_key("acquired") { "sold" } else { "acquired" };
                points.raise(&DATES, at(missing), "Two days decide: the title, and the agreement to sell.");
                continue;
            };
            of_sale(points, &days, is_home(cells), at);
        }
    }
}

fn of_sale(points: &mut Points<'_>, days: &Days, home: bool, at: impl Fn(&str) -> Place) {
    let facts: &Facts = points.facts;
    let within = days.within(&facts.figures.land);
    if days.sold < days.acquired {
        points.raise(&DATES, at("sold"), "It was sold before it was bought.");
    } else if !(facts.year_begin..=facts.year_end).contains(&days.sold) {
        points.raise(&OUT_OF_YEAR, at("sold"), format!("{} is not in this year.", in_words(days.sold)));
    } else if home && within {
        points.raise(&HOME, at("home"), "The main home is left out.");
    } else if !home && !within {
        points.raise(&INTENDED, at("sold"), "Sold after the time: no profit is taxed here.");
    } else if days.sold < facts.figures.land.since.0 && !home {
        points.raise(&OLD_LAW, at("sold"), "By the law of before July 2024.");
    }
}
