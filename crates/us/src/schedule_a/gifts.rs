//! Gifts to charity (§170), Schedule A lines 11 to 14: cash to 60 % of income, goods to 50 % less the cash, and
//! what is carried over. Covered are gifts to public charities; used goods are worth no more than they cost.

use crate::{
    bringing::{Bringing, miles},
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Choice, Field, Years},
    figures::Status as Certainty,
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, PaperKind},
    point::{Gather, Place},
    provision::Provision,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[GIFTS, CARRYOVER],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    ..Provision::NONE
};

lines! {
    pub L11 = "us.sched_a.11", "Gifts of cash", "IRC §170(a), (i)",
        "Cash gifts, and miles driven for a charity.";
    L12 = "us.sched_a.12", "Gifts of goods", "IRC §170(e)",
        "Used goods at their market value.";
    L13 = "us.sched_a.13", "Gifts carried over, used", "IRC §170(d)(1)",
        "Oldest first, up to what the limits leave.";
    CARRIED_CASH = "us.gifts.carried_cash", "Cash gifts into next year", "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.";
    CARRIED_GOODS = "us.gifts.carried_goods", "Gifts of goods into next year", "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.";
    pub L14 = "us.sched_a.14", "Gifts to charity", "IRC §170(b)(1)",
        "Cash and goods, each up to its part of income, and carryovers.";
}

limits! {
    GIFTS_CASH = "us.limit.gifts_cash" on L14, "Gifts of cash", "over the cash limit, carried over",
        "IRC §170(b)(1)(G)";
    GIFTS_GOODS = "us.limit.gifts_goods" on L14, "Gifts of goods", "over the limit with cash, carried over",
        "IRC §170(b)(1)(A)";
    GIFTS_CASH_CARRIED = "us.limit.gifts_cash_carried" on L13, "Cash gifts carried over", "over what the cash limit leaves",
        "IRC §170(d)(1)";
    GIFTS_GOODS_CARRIED = "us.limit.gifts_goods_carried" on L13, "Goods carried over", "over what the limit leaves",
        "IRC §170(d)(1)";
}

open_points! {
    ACKNOWLEDGMENT = look "K-112", "IRC §170(f)(8)",
        "Have it before filing.";
    FORM_8283 = beside "K-111", "IRC §170(f)(11)",
        "Fill in Form 8283 beside this return.";
    OTHER_YEAR = look "gift-year", "IRC §170(d)(1)",
        "Correct the year, or remove the line.";
    ORDER = look "K-177", "IRC §170(b)(1)(G), (d)(1)",
        "Matters only where the 50 % limit bites.";
}

/// A gift carried over.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Carried {
    pub year: i64,
    pub cash: bool,
    pub item: Item,
}

/// What its papers bring.
pub mod brings {
    use super::Carried;
    use hembo_core::brought::Brought;

    /// Cash given, with volunteer travel.
    pub static CASH: Brought = Brought::new();

    /// Used goods given.
    pub static GOODS: Brought = Brought::new();

    /// Gifts carried over.
    pub static CARRIED: Brought<Carried> = Brought::new();
}

/// Line 14. Each class takes this year's gifts first, then the oldest carried over (§170(d)(1)(A)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let figures = on.facts.figures;
    let cash = on.gather(trail, L11, &brings::CASH);
    let goods = on.gather(trail, L12, &brings::GOODS);
    on.parts(trail, L14, &[(L11, &brings::CASH), (L12, &brings::GOODS)]);
    let base = limit::or_zero(trail, agi);
    let cash_most = base.times(figures.gifts.cash_part, Money::WHOLE, Rounding::HalfUp);
    let goods_most = base.times(figures.gifts.goods_part, Money::WHOLE, Rounding::HalfUp);

    let carried_cash = carried(on, true);
    let carried_goods = carried(on, false);
    let cash_allowed = limit::cap(trail, GIFTS_CASH.at(on.scope), cash, cash_most);
    let mut left = Left { cash: cash_most - cash_allowed, all: goods_most - cash_allowed };
    let cash_first = figures.gift_carryover_order.cash_carryover_before_goods;
    let mut cash_used = if cash_first { left.cash_carried(on, trail, &carried_cash) } else { Money::ZERO };
    let most = limit::or_zero(trail, left.all);
    let goods_allowed = limit::cap(trail, GIFTS_GOODS.at(on.scope), goods, most);
    left.all -= goods_allowed;
    if !cash_first {
        cash_used = left.cash_carried(on, trail, &carried_cash);
    }
    let carried_at = GIFTS_GOODS_CARRIED.at(on.scope);
    let most = limit::or_zero(trail, left.all);
    let goods_used = limit::cap(trail, carried_at, sum(&carried_goods), most);
    let used = trail.line(L13, on.scope, cash_used + goods_used, |i| {
        i.items(carried_cash.iter().chain(&carried_goods).map(|c| &c.item));
    });
    let out = Out { this_year: cash - cash_allowed, used: cash_used };
    carry_out(on, trail, CARRIED_CASH, &carried_cash, out);
    let out = Out { this_year: goods - goods_allowed, used: goods_used };
    carry_out(on, trail, CARRIED_GOODS, &carried_goods, out);
    trail.line(L14, on.scope, cash_allowed + goods_allowed + used, |i| {
        i.line(L11, on.scope, cash)
            .line(L12, on.scope, goods)
            .line(L13, on.scope, used)
            .figure("Cash, at most", cash_most)
            .figure("Goods and cash together, at most", goods_most);
    })
}

/// What the percentages still leave.
struct Left {
    cash: Money,
    all: Money,
}

impl Left {
    /// Cash carried over, as far as the cash limit leaves room; it takes from both.
    fn cash_carried(&mut self, on: On<'_>, trail: &mut impl Trail, carried: &[&Carried]) -> Money {
        let used = limit::cap(trail, GIFTS_CASH_CARRIED.at(on.scope), sum(carried), self.cash);
        self.cash -= used;
        self.all -= used;
        used
    }
}

/// Gifts carried in that have not run out, oldest first.
fn carried(on: On<'_>, cash: bool) -> Vec<&Carried> {
    let year = i64::from(on.facts.figures.year);
    let alive = year - on.facts.figures.gifts.carried_years..year;
    let all = on.owns().flat_map(|(_, own)| own.of(&brings::CARRIED));
    let mut found: Vec<_> = all.filter(|c| c.cash == cash && alive.contains(&c.year)).collect();
    found.sort_by_key(|c| c.year);
    found
}

fn sum(carried: &[&Carried]) -> Money {
    carried.iter().map(|c| c.item.amount).sum::<Money>().to_whole()
}

/// What is left of a class: of this year, and used of what came in.
struct Out {
    this_year: Money,
    used: Money,
}

/// What goes into next year: the rest of this year, and of what came in all but the year that runs out.
fn carry_out(on: On<'_>, trail: &mut impl Trail, id: &'static str, carried: &[&Carried], out: Out) {
    let expires = i64::from(on.facts.figures.year) - on.facts.figures.gifts.carried_years;
    let mut unused = out.used;
    let mut rest = Money::ZERO;
    for gift in carried {
        let used = limit::lesser(trail, gift.item.amount, unused);
        unused -= used;
        if gift.year > expires {
            rest += gift.item.amount - used;
        }
    }
    let items: Vec<Item> = carried.iter().map(|c| c.item).collect();
    trail.line(id, on.scope, (out.this_year + rest).to_whole(), |i| {
        i.items(&items);
    });
}

/// The worksheet: where gifts go into next year.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CARRIED_CASH) || filed.has(CARRIED_GOODS), "nothing carried over")
}

const SORTS: &[Choice] = &[
    Choice::new("cash", "Cash"),
    Choice::new("goods", "Used goods"),
    Choice::new("travel", "Volunteer miles"),
];

const CLASSES: &[Choice] = &[Choice::new("cash", "Cash, 60 %"), Choice::new("goods", "Goods, 50 %")];

const GIFTS: PaperKind = PaperKind {
    id: "Gifts",
    name: "Gifts to charity",
    words: "charity donation church giving",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Given on"),
        Field::text("what", "", "To whom, what", 80),
        Field::choice("sort", "", "Sort", SORTS),
        Field::count("miles", "", "Miles", 1_000_000),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
};

const CARRYOVER: PaperKind = PaperKind {
    id: "Gift carryover",
    name: "Gifts carried over from earlier years",
    words: "charity donation carried left over",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::count("year", "", "Given in", 2100),
        Field::choice("class", "", "Class", CLASSES),
        Field::amount("amount", "", "Left to use"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
};

/// Gifts of the year, and those carried over.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == CARRYOVER.id {
        for (r, row, amount) in paper.paper.lines("amount") {
            let year = row.get("year").and_then(Entry::count).unwrap_or(0);
            let cash = row.get("class").and_then(Entry::text) != Some("goods");
            let carried = |item| Carried { year, cash, item };
            paper.put_as("amount", Some(r), amount, &brings::CARRIED, carried);
        }
        return;
    }
    let mile = paper.facts.figures.gifts.mile;
    for (r, row, given) in paper.paper.lines("amount") {
        let sort = row.get("sort").and_then(Entry::text).unwrap_or("cash");
        let travel = if sort == "travel" {
            miles(row).times(mile, Money::CENT, Rounding::HalfUp)
        } else {
            Money::ZERO
        };
        let kind = if sort == "goods" { &brings::GOODS } else { &brings::CASH };
        paper.put("amount", Some(r), given + travel, kind);
    }
}

/// What a gift needs beside it, and how long one is carried.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(GIFTS.id) {
        let figures = &points.facts.figures.gifts;
        let mut goods = Money::ZERO;
        for row in &paper.rows {
            let amount = row.get("amount").and_then(Entry::money).unwrap_or_default();
            if row.get("sort").and_then(Entry::text) == Some("goods") {
                goods += amount;
            }
            if amount >= figures.acknowledgment_from {
                let place = Place::row(&paper.id, row, "amount");
                points.raise(
                    &ACKNOWLEDGMENT,
                    place,
                    format!("A gift of {amount:#}: is the written acknowledgment on hand?"),
                );
            }
        }
        if goods > figures.form_8283_above {
            let place = Place::paper(&paper.id, "amount");
            points.raise(&FORM_8283, place, format!("Goods worth {goods:#} need Form 8283."));
        }
    }
    for paper in points.papers(CARRYOVER.id) {
        let year = i64::from(points.facts.figures.year);
        let oldest = year - points.facts.figures.gifts.carried_years;
        for row in &paper.rows {
            let given = row.get("year").and_then(Entry::count).unwrap_or(0);
            if !(oldest..year).contains(&given) {
                let message = format!(
                    "A gift of {given} is not carried into {year}: only of {oldest} to {}.",
                    year - 1
                );
                points.raise(&OTHER_YEAR, Place::row(&paper.id, row, "year"), message);
            }
        }
        if points.facts.figures.gift_carryover_order.status == Certainty::ToBeConfirmed {
            let place = Place::paper(&paper.id, "amount");
            points.raise(
                &ORDER,
                place,
                "That cash carried over stands before goods of this year is to be confirmed.",
            );
        }
    }
}
