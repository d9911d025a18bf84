//! Things bought for work (§§6(2), 7(1), 9(1) S.3 Nr.6, 7 EStG): at once where they are small or digital, else by months of their life.

use crate::{
    bringing::{Bringing, count, money},
    figures::Figures,
    points::Points,
    rounding::euros_up,
};
use hembo_core::{
    field::{Field, Years},
    household::{Answers, Entry, Row},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Equipment",
    papers: &[EQUIPMENT],
    points: POINTS,
    figures: &["equipment"],
    ..Provision::NONE
};

open_points! {
    NO_LIFE = blocks "DE-C64", "§§6(2), 7(1)", "Say how many years it lasts: above the small price it is written off by months.";
    WRITTEN_OFF = look "DE-C65", "§7(1)", "Its life is over: nothing of it falls on this year.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// What falls on the year.
    pub static EQUIPMENT: Brought = Brought::new();
}

/// Things bought for work.
pub const EQUIPMENT: PaperKind = PaperKind {
    id: "Equipment",
    subject: subject::DEDUCTIONS,
    name: "Work equipment, Arbeitsmittel",
    words: "computer desk chair depreciation afa",
    title: "About",
    shared: false,
    headline: "price",
    boxes: &[],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::date("bought", "", "Bought"),
        Field::amount("price", "", "Price with VAT"),
        Field::decimal("vat", "", "VAT in per cent", 1),
        Field::count("years", "", "Years of its life", 50),
        Field::yes_no("digital", "", "Computer or software"),
        Field::count("work", "", "For work in per cent", 100),
        Field::yes_no("spread", "", "Over its life, where at once is allowed")
            .help("At once is never more tax this year; over its life leaves a part to each year of it."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Whole,
};

/// Gives what falls on the year to who bought it.
pub fn read(paper: &mut Bringing<'_>) {
    let rows: Vec<(usize, Money)> = paper
        .paper
        .lines("price")
        .map(|(row, cells, price)| (row, of_year(&paper.facts.figures, cells, price)))
        .collect();
    for (row, amount) in rows {
        paper.put("price", Some(row), amount, &brings::EQUIPMENT);
    }
}

/// What of a thing falls on the year: the part for work, at once or by months.
fn of_year(figures: &Figures, cells: &Answers, price: Money) -> Money {
    let part = match cells.get("work").and_then(Entry::count).unwrap_or(100) {
        part if part > figures.equipment.whole_above => 100,
        part if part < figures.equipment.work_from => 0,
        part => part,
    };
    let for_work = |amount: Money| {
        amount.in_proportion(Money::whole(part), Money::whole(100), Money::CENT, Rounding::Up)
    };
    let bought = cells.get("bought").and_then(Entry::date);
    let this_year = bought.is_none_or(|day| day.year() == figures.year);
    if at_once(figures, cells, price) {
        return if this_year { for_work(price) } else { Money::ZERO };
    }
    let life = settled::greater(count(cells, "years"), 1) * 12;
    let months = months_of_year(figures.year, bought, life);
    let year =
        for_work(price).in_proportion(Money::whole(months), Money::whole(life), Money::CENT, Rounding::Up);
    euros_up(year)
}

/// Whether a thing is deducted in the year in which it was bought: small or digital, and not chosen otherwise (§6(2), §7(1)).
fn at_once(figures: &Figures, cells: &Answers, price: Money) -> bool {
    let flag = |column: &str| cells.get(column).and_then(Entry::flag).unwrap_or(false);
    let allowed = flag("digital") || net_of(figures, cells, price) <= figures.equipment.at_once_to;
    allowed && !flag("spread")
}

/// The price of a thing without value added tax.
fn net_of(figures: &Figures, cells: &Answers, price: Money) -> Money {
    let vat = cells
        .get("vat")
        .and_then(Entry::decimal)
        .map_or(figures.equipment.vat.billionths() * 100, Rate::billionths);
    let gross = Money::from_cents((100_000_000_000 + vat) / 10_000_000);
    price.in_proportion(Money::whole(100), gross, Money::CENT, Rounding::HalfUp)
}

/// Whether a thing goes on being written off in the year after.
pub fn goes_on(figures: &Figures, cells: &Answers) -> bool {
    let price = money(cells, "price");
    let bought = cells.get("bought").and_then(Entry::date);
    let left = months_of_year(figures.year + 1, bought, count(cells, "years") * 12);
    !at_once(figures, cells, price) && left > 0
}

/// The months of a life of so many that fall on the year; the month of the purchase is the first.
fn months_of_year(year: i32, bought: Option<Date>, life: i64) -> i64 {
    let Some(bought) = bought else { return settled::lesser(12, life) };
    let before = i64::from(year - bought.year()) * 12 - i64::from(u8::from(bought.month())) + 1;
    let (first, end) = (settled::greater(before, 0), before + 12);
    settled::greater(settled::lesser(end, life) - first, 0)
}

/// Things of which something is missing, or nothing is left.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(EQUIPMENT.id) {
        for row in &paper.rows {
            thing(points, &paper.id, row);
        }
    }
}

/// A thing above the small price without its life, or of which nothing is left.
fn thing(points: &mut Points<'_>, paper: &str, row: &Row) {
    let figures = &points.facts.figures;
    let price = row.get("price").and_then(Entry::money).unwrap_or_default();
    let bought = row.get("bought").and_then(Entry::date);
    if at_once(figures, row, price) {
        return;
    }
    let life = count(row, "years");
    if life == 0 {
        points.raise(&NO_LIFE, Place::row(paper, row, "years"), "How many years does it last?");
    } else if months_of_year(figures.year, bought, life * 12) == 0 {
        points.raise(&WRITTEN_OFF, Place::row(paper, row, "bought"), "Nothing of it falls on this year.");
    }
}
