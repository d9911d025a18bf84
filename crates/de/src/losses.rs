//! Losses between years (§10d EStG): what was brought forward, what a loss of the year brings back from the two years before, what is left.

use crate::{
    bringing::Bringing,
    capital,
    plan::On,
    points::Points,
    rounding::{euros_down, euros_up},
    special,
    tariff::{self, Table, Taxed},
};
use hembo_core::{
    field::{Field, Years},
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Losses between years",
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    papers: &[LAST_YEAR],
    figures: &["losses", "tariff_1", "tariff_2"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    pub USED = "de.loss_deducted", "Losses of earlier years (Verlustabzug)", "§10d(2)", "Whole to a limit, a part above.";
    BACK = "de.loss_back", "Loss carried back (Verlustrücktrag)", "§10d(1)",
        "A loss of this year from the income of the year before, then of the one before it, unless all of it is kept.";
    REFUND = "de.loss_back_refund", "Income tax that it brings back, estimated", "§10d(1)",
        "By the tariffs of those years, without surcharge, church tax and credits. It is no part of this year's tax.";
    CARRIED = "de.loss_carried", "Losses carried forward", "§10d(2), (4)", "What is left, and of a loss of this year what is not carried back.";
}

limits! {
    PART = "de.limit.losses" on USED, "Losses of earlier years", "over the part of income above the limit, carried", "§10d(2)";
}

open_points! {
    NOTICES_ASKED = not_weighed "loss-back", "§10d(1)",
        "It goes back to the two years before first: enter their total and taxable income from the notices, or keep it.";
    MAY_BE_KEPT = look "loss-kept", "§10d(1) S.6",
        "Kept whole instead, it waits for later years: worth it where the years before bore little tax.";
}

const CARRIES: &[Carry] = &[Carry { line: CARRIED, paper: "Last year", into: CarriedTo::Box("losses") }];

/// What its papers bring.
pub mod brings {
    use super::Notice;
    use hembo_core::brought::Brought;

    /// Losses of earlier years.
    pub static LOSSES: Brought = Brought::new();
    /// Notices of the two years before.
    pub static NOTICES: Brought<Notice> = Brought::new();
}

/// What a notice of an earlier year says.
#[derive(Debug, Clone, Copy)]
pub struct Notice {
    /// One or two years back.
    pub back: usize,
    /// Total income, from which a loss is taken.
    pub total: Item,
    /// Taxable income; none where it was not entered.
    pub taxable: Option<Money>,
    /// By which table it was taxed.
    pub table: Table,
    /// A loss of this year is kept from going back.
    pub kept: bool,
}

const LAST_YEAR: PaperKind = PaperKind {
    id: "Last year",
    subject: subject::PAYMENTS,
    name: "Notice of last year, Bescheid",
    words: "brought forward loss gifts bescheid verlustvortrag verlustruecktrag",
    title: "Finance office",
    shared: false,
    headline: "losses",
    boxes: &[
        Field::amount("losses", "", "Losses carried forward"),
        Field::amount("gifts", "", "Gifts carried forward"),
        Field::amount("share_losses", "", "Losses of shares carried forward"),
        Field::amount("capital_losses", "", "Other losses of capital income carried forward"),
        Field::amount("total_1", "", "Total income (Gesamtbetrag der Einkünfte) of the year before")
            .help("Where this year has a loss: it is taken from there first."),
        Field::amount("taxable_1", "", "Taxable income of the year before"),
        Field::amount("total_2", "", "Total income two years before"),
        Field::amount("taxable_2", "", "Taxable income two years before"),
        Field::yes_no("splitting", "", "Those years by the splitting table"),
        Field::yes_no("kept", "", "A loss of this year is kept from going back")
            .help("Only whole, on request (§10d(1) S.6)."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives a notice to whose it is.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[
        ("losses", &brings::LOSSES),
        ("gifts", &special::brings::GIFTS_BEFORE),
        ("share_losses", &capital::brings::SHARES_BEFORE),
        ("capital_losses", &capital::brings::LOSSES_BEFORE),
    ]);
    let table = if paper.flag("splitting") { Table::Splitting } else { Table::Basic };
    for (back, total, taxable) in [(1, "total_1", "taxable_1"), (2, "total_2", "taxable_2")] {
        let notice = Notice {
            back,
            total: paper.item(total, paper.amount(total)),
            taxable: paper.has(taxable).then(|| paper.amount(taxable)),
            table,
            kept: paper.flag("kept"),
        };
        for person in paper.owners().into_iter().filter(|_| paper.has(total)).collect::<Vec<_>>() {
            paper.facts.people[person].own.add(&brings::NOTICES, notice);
        }
    }
}

/// The losses of earlier years that an assessment uses, and what becomes of one of this year; `total` is its total income, `line` that line.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, line: hembo_core::line::LineId, total: Money) -> Money {
    let figures = &on.facts.figures.losses;
    let brought = euros_up(on.sum(&brings::LOSSES));
    let positive = settled::or_zero(total);
    let free = figures.free * on.times();
    let above = settled::or_zero(positive - free).times(figures.above, Money::WHOLE, Rounding::Up);
    let most = limit::lesser(trail, positive, free) + above;
    let used = limit::cap(trail, PART.at(on.scope), brought, most);
    trail.line(USED, on.scope, used, |i| {
        i.items(on.items(&brings::LOSSES)).line(line, on.scope, total);
    });
    let of_year = limit::or_zero(trail, -total);
    let carried_back = back(on, trail, of_year);
    on.made(
        trail,
        CARRIED,
        brought - used + of_year - carried_back,
        &[(USED, used), (BACK, carried_back)],
        &[("There was", &brought), ("Of this year", &of_year)],
    );
    used
}

/// §10d(1): what of a loss of the year the years before take, the nearer one first, and what tax it brings back.
fn back(on: On<'_>, trail: &mut impl Trail, loss: Money) -> Money {
    let mut notices: Vec<&Notice> = on.people.iter().flat_map(|&p| on.own(p).of(&brings::NOTICES)).collect();
    notices.sort_by_key(|notice| notice.back);
    let kept = notices.iter().any(|notice| notice.kept);
    let there = if kept {
        Money::ZERO
    } else {
        limit::lesser(trail, loss, on.facts.figures.losses.back * on.times())
    };
    let (mut left, mut refund) = (there, Money::ZERO);
    for notice in &notices {
        let taken = limit::lesser(trail, left, notice.total.amount);
        left -= taken;
        refund += saved(on, notice, taken);
    }
    let used = there - left;
    trail.line(BACK, on.scope, used, |i| {
        i.items(notices.iter().map(|notice| &notice.total)).figure("Loss of the year", loss);
    });
    on.made(trail, REFUND, refund, &[(BACK, used)], &[]);
    used
}

/// The income tax of an earlier year less that on so much less.
fn saved(on: On<'_>, notice: &Notice, less: Money) -> Money {
    let figures = &on.facts.figures;
    let tariff = if notice.back == 1 { &figures.tariff_1 } else { &figures.tariff_2 };
    let tax = |income: Money| {
        let of = Taxed { income: euros_down(settled::or_zero(income)), ..Taxed::default() };
        tariff::tax(tariff, notice.table, of)
    };
    notice.taxable.map_or(Money::ZERO, |taxable| tax(taxable) - tax(taxable - less))
}

/// A loss of the year of which it is not known what the years before take, or that may be kept from them; `line` is total income.
pub fn points(points: &mut Points<'_>, line: hembo_core::line::LineId) {
    for place in 0..points.returns {
        if !points.amount(line, place).is_negative() {
            continue;
        }
        let notices =
            || points.facts.filers.iter().flat_map(|&p| points.facts.people[p].own.of(&brings::NOTICES));
        if notices().next().is_none() || notices().any(|notice| !notice.kept && notice.taxable.is_none()) {
            points.raise(&NOTICES_ASKED, Place::household("answers"), "A loss of this year.");
        } else if !notices().any(|notice| notice.kept) {
            let words = format!("The loss carried back brings about {} back.", points.amount(REFUND, place));
            points.raise(&MAY_BE_KEPT, Place::household("answers"), words);
        }
    }
}
