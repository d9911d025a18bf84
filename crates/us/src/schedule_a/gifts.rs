//! Gifts to charity (§170), Schedule A lines 11 to 14: cash to 60 % of income, goods to 50 % less the cash, property that would
//! bring a long-term gain to 30 % and to what is left of the 50 %, and what is carried over. Covered are gifts to public charities;
//! used goods are worth no more than they cost.

use crate::{
    bringing::{Bringing, miles},
    points::Points,
    states,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Choice, Field, Years},
    figures::Status as Certainty,
    forms::Required,
    household::Entry,
    limit::{self, LimitAt},
    limits, lines, open_points,
    paper::{Back, PaperKind, subject},
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
    figures: &["gifts", "gift_carryover_order"],
    ..Provision::NONE
};

lines! {
    pub L11 = "us.sched_a.11", "Gifts of cash", "IRC §170(a), (i)",
        "Cash gifts, and miles driven for a charity.";
    GOODS = "us.gifts.goods", "Gifts of goods", "IRC §170(e)",
        "Used goods at their market value.";
    PROPERTY = "us.gifts.property", "Gifts of property held long", "IRC §170(b)(1)(C), (e)",
        "Shares and other property that would bring a long-term gain, at their market value.";
    pub L12 = "us.sched_a.12", "Gifts other than cash", "IRC §170(e)",
        "Used goods, and property held long.";
    L13 = "us.sched_a.13", "Gifts carried over, used", "IRC §170(d)(1)",
        "Oldest first, up to what the limits leave.";
    CARRIED_CASH = "us.gifts.carried_cash", "Cash gifts into next year", "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.";
    CARRIED_GOODS = "us.gifts.carried_goods", "Gifts of goods into next year", "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.";
    CARRIED_PROPERTY = "us.gifts.carried_property", "Gifts of property into next year", "IRC §170(b)(1)(C)(ii), (d)(1)",
        "Not used this year; runs out five years after the gift.";
    pub L14 = "us.sched_a.14", "Gifts to charity", "IRC §170(b)(1)",
        "Cash, goods and property, each up to its part of income, and carryovers.";
}

limits! {
    GIFTS_CASH = "us.limit.gifts_cash" on L14, "Gifts of cash", "over the cash limit, carried over",
        "IRC §170(b)(1)(G)";
    GIFTS_GOODS = "us.limit.gifts_goods" on L14, "Gifts of goods", "over the limit with cash, carried over",
        "IRC §170(b)(1)(A)";
    GIFTS_PROPERTY = "us.limit.gifts_property" on L14, "Gifts of property held long", "over its limit, carried over",
        "IRC §170(b)(1)(C)";
    GIFTS_PROPERTY_CARRIED = "us.limit.gifts_property_carried" on L13, "Property carried over", "over what its limit leaves",
        "IRC §170(b)(1)(C)(ii)";
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
    BASIS = look "C-27", "IRC §170(b)(1)(C)(iii)",
        "All such gifts may be taken at their basis instead, to the 50 % limit: not weighed here.";
    ORDER = look "K-177", "IRC §170(b)(1)(G), (d)(1)",
        "Matters only where the 50 % limit bites.";
}

/// A gift carried over.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Carried {
    pub year: i64,
    pub class: Class,
    pub item: Item,
}

/// The class of a gift, by its limit.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Class {
    /// Cash: 60 %.
    Cash,
    /// Goods: 50 %.
    Goods,
    /// Property that would bring a long-term gain: 30 %.
    Property,
}

/// What its papers bring.
pub mod brings {
    use super::Carried;
    use hembo_core::brought::Brought;

    /// Cash given, with volunteer travel.
    pub static CASH: Brought = Brought::new();

    /// Used goods given.
    pub static GOODS: Brought = Brought::new();

    /// Property held long given.
    pub static PROPERTY: Brought = Brought::new();

    /// Gifts carried over.
    pub static CARRIED: Brought<Carried> = Brought::new();
}

/// Line 14. Each class takes this year's gifts first, then the oldest carried over (§170(d)(1)(A)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let figures = on.facts.figures;
    let cash = on.gather(trail, L11, &brings::CASH);
    let goods = on.gather(trail, GOODS, &brings::GOODS);
    let property = on.gather(trail, PROPERTY, &brings::PROPERTY);
    trail.line(L12, on.scope, goods + property, |i| {
        i.line(GOODS, on.scope, goods).line(PROPERTY, on.scope, property);
    });
    on.parts(trail, L14, &[(L11, &brings::CASH), (GOODS, &brings::GOODS), (PROPERTY, &brings::PROPERTY)]);
    let base = limit::or_zero(trail, agi);
    let part = |rate| base.times(rate, Money::WHOLE, Rounding::HalfUp);
    let [cash_most, all_most, property_most] =
        [figures.gifts.cash_part, figures.gifts.goods_part, figures.gifts.property_part].map(part);
    let [carried_cash, carried_goods, carried_property] =
        [Class::Cash, Class::Goods, Class::Property].map(|class| carried(on, class));
    let cash_allowed = limit::cap(trail, GIFTS_CASH.at(on.scope), cash, cash_most);
    let mut left =
        Left { cash: cash_most - cash_allowed, all: all_most - cash_allowed, property: property_most };
    let cash_first = figures.gift_carryover_order.cash_carryover_before_goods;
    let mut cash_used = if cash_first { left.cash_carried(on, trail, &carried_cash) } else { Money::ZERO };
    let goods_allowed = left.take(trail, GIFTS_GOODS.at(on.scope), goods);
    if !cash_first {
        cash_used = left.cash_carried(on, trail, &carried_cash);
    }
    let goods_used = left.take(trail, GIFTS_GOODS_CARRIED.at(on.scope), sum(&carried_goods));
    let property_allowed = left.take_property(trail, GIFTS_PROPERTY.at(on.scope), property);
    let property_used =
        left.take_property(trail, GIFTS_PROPERTY_CARRIED.at(on.scope), sum(&carried_property));
    let used = trail.line(L13, on.scope, cash_used + goods_used + property_used, |i| {
        i.items(carried_cash.iter().chain(&carried_goods).chain(&carried_property).map(|c| &c.item));
    });
    for (line, carried, this_year, used) in [
        (CARRIED_CASH, &carried_cash, cash - cash_allowed, cash_used),
        (CARRIED_GOODS, &carried_goods, goods - goods_allowed, goods_used),
        (CARRIED_PROPERTY, &carried_property, property - property_allowed, property_used),
    ] {
        carry_out(on, trail, line, carried, Out { this_year, used });
    }
    trail.line(L14, on.scope, cash_allowed + goods_allowed + property_allowed + used, |i| {
        i.line(L11, on.scope, cash)
            .line(L12, on.scope, goods + property)
            .line(L13, on.scope, used)
            .figure("Cash, at most", cash_most)
            .figure("Together without cash above it, at most", all_most);
        if !property.is_zero() {
            i.figure("Property, at most", property_most);
        }
    })
}

/// What the percentages still leave.
struct Left {
    cash: Money,
    all: Money,
    property: Money,
}

impl Left {
    /// What goes within the 50 %.
    #[track_caller]
    fn take(&mut self, trail: &mut impl Trail, at: LimitAt, entered: Money) -> Money {
        let most = limit::or_zero(trail, self.all);
        let allowed = limit::cap(trail, at, entered, most);
        self.all -= allowed;
        allowed
    }

    /// What goes within the 30 %, and within what is left of the 50 %.
    #[track_caller]
    fn take_property(&mut self, trail: &mut impl Trail, at: LimitAt, entered: Money) -> Money {
        let most = limit::lesser(trail, self.all, self.property);
        let most = limit::or_zero(trail, most);
        let allowed = limit::cap(trail, at, entered, most);
        self.all -= allowed;
        self.property -= allowed;
        allowed
    }

    /// Cash carried over, as far as the cash limit leaves room; it takes from both.
    fn cash_carried(&mut self, on: On<'_>, trail: &mut impl Trail, carried: &[&Carried]) -> Money {
        let used = limit::cap(trail, GIFTS_CASH_CARRIED.at(on.scope), sum(carried), self.cash);
        self.cash -= used;
        self.all -= used;
        used
    }
}

/// Gifts carried in that have not run out, oldest first.
fn carried(on: On<'_>, class: Class) -> Vec<&Carried> {
    let year = i64::from(on.facts.figures.year);
    let alive = year - on.facts.figures.gifts.carried_years..year;
    let all = on.owns().flat_map(|(_, own)| own.of(&brings::CARRIED));
    let mut found: Vec<_> = all.filter(|c| c.class == class && alive.contains(&c.year)).collect();
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
    let any = [CARRIED_CASH, CARRIED_GOODS, CARRIED_PROPERTY].into_iter().any(|line| filed.has(line));
    Required::if_so(any, "nothing carried over")
}

const SORTS: &[Choice] = &[
    Choice::new("cash", "Cash"),
    Choice::new("goods", "Used goods"),
    Choice::new("property", "Shares or property held long"),
    Choice::new("travel", "Volunteer miles"),
];

const CLASSES: &[Choice] = &[
    Choice::new("cash", "Cash, 60 %"),
    Choice::new("goods", "Goods, 50 %"),
    Choice::new("property", "Property, 30 %"),
];

const GIFTS: PaperKind = PaperKind {
    id: "Gifts",
    subject: subject::DEDUCTIONS,
    name: "Gifts to charity",
    words: "charity donation church giving",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[states::SEPARATE],
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
    subject: subject::DEDUCTIONS,
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
            let class = match row.get("class").and_then(Entry::text) {
                Some("goods") => Class::Goods,
                Some("property") => Class::Property,
                _ => Class::Cash,
            };
            let carried = |item| Carried { year, class, item };
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
        let kind = match sort {
            "goods" => &brings::GOODS,
            "property" => &brings::PROPERTY,
            _ => &brings::CASH,
        };
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
            let sort = row.get("sort").and_then(Entry::text);
            if matches!(sort, Some("goods" | "property")) {
                goods += amount;
            }
            if sort == Some("property") {
                let message = "Property held long counts at its market value, up to 30 % of income.";
                points.raise(&BASIS, Place::row(&paper.id, row, "sort"), message);
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
