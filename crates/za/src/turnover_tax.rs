//! Turnover tax of registered micro businesses (ss 48 to 48C, Sixth Schedule): by a table on the turnover, in place of normal tax on the
//! trade. It is elected before the year begins, so no way of a return.

use crate::{plan::On, points::Points, trade};
use hembo_core::{
    household::Entry,
    limit, lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Turnover tax",
    lines: LINES,
    points: POINTS,
    figures: &["turnover_tax"],
    ..Provision::NONE
};

lines! {
    TURNOVER = "za.taxable_turnover", "Taxable turnover", "Sixth Schedule paras 5, 6",
        "The own share of the turnover of every trade that elected it.";
    pub TAX = "za.turnover_tax", "Turnover tax", "s48B; Sixth Schedule",
        "Each rate on its slice of the turnover; no rebate touches it.";
}

open_points! {
    LARGE = not_covered "C60-large", "Sixth Schedule paras 2, 9";
    PARTNER = not_covered "C60-partner", "Sixth Schedule para 4";
    BARRED = look "C60", "Sixth Schedule paras 2 to 4", "It is closed to who earns more than a fifth of turnover by professional services, and capital receipts of the trade count by a half: compare the registration.";
}

/// The tax of a person's trades that elected it.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let elected: Vec<_> = trade::elected(on).collect();
    if elected.is_empty() {
        return Money::ZERO;
    }
    let turnover = on.gather(trail, TURNOVER, elected.iter().map(|trade| &trade.turnover));
    let figures = &on.facts.figures.turnover_tax;
    let tax = limit::by_brackets(trail, turnover, &figures.tops, figures.rates.iter().copied());
    on.made(trail, TAX, tax, &[(TURNOVER, turnover)], &[])
}

/// Trades that are too large for it, or of partners; who it is closed to.
pub fn points(points: &mut Points<'_>) {
    let most = points.facts.figures.turnover_tax.most;
    for paper in points.papers(trade::TRADE.id).filter(|paper| trade::is_elected(paper)) {
        let turnover = paper.amount("turnover");
        let at = |field: &str| Place::paper(&paper.id, field);
        if turnover > most {
            let message = format!("A turnover of {turnover:#} is above {most:#}: the election ends.");
            points.raise(&LARGE, at("turnover"), message);
        }
        if paper.boxes.get("share").and_then(Entry::decimal).is_some() {
            let message = "Turnover tax of partners in a partnership is not computed.";
            points.raise(&PARTNER, at("turnover_tax"), message);
        }
        points.raise(&BARRED, at("turnover_tax"), "Turnover tax stands in place of normal tax on the trade.");
    }
}
