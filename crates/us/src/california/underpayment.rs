//! The penalty for underpaid estimated tax of California (R&TC 19136; FTB 5805): instalments of thirty, forty, nothing and thirty per cent, and
//! interest on what came late. It is part of the balance, not of the tax.

use super::{adjustments::L17, made, papers::brings::DATED, payments};
use crate::{
    bringing::Bringing,
    points::Points,
    underpayment::{self, Instalments, LastYear},
    unit::{Filed, On},
};
use hembo_core::{
    Scope, Trail,
    field::{Field, Years},
    forms::Required,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[LAST_YEAR],
    points: POINTS,
    figures: &["california_payments", "california_underpayment", "underpayment"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: CURRENT, paper: "Last year, California", into: CarriedTo::Told("tax") },
    Carry { line: L17, paper: "Last year, California", into: CarriedTo::Told("agi") },
];

lines! {
    pub CURRENT = "us.ca.5805.1", "Tax of the year for instalments", "R&TC 19136; FTB 5805, Part II", "Line 64 less what is paid out, not below zero; neither use tax nor the penalty of line 92.";
    OF_CURRENT = "us.ca.5805.2", "The part of it that is due in the year", "R&TC 19136; IRC §6654(d)(1)(B)(i)", "90 %.";
    OF_LAST = "us.ca.5805.5", "Last year's tax for instalments", "R&TC 19136, 19136.3", "All of it; 110 % after a high income.";
    REQUIRED = "us.ca.5805.6", "Required payments of the year", "R&TC 19136, 19136.3", "The smaller of the two; of a very high income only the part of this year's tax.";
    pub L113 = "us.ca.540.113", "Penalty for underpayment", "R&TC 19136; FTB 5805", "Interest on each instalment until it was paid, to the due date of the return at most.";
}

open_points! {
    LAST_YEAR_ASKED = look "ca-5805", "R&TC 19136; FTB 5805", "Enter last year's tax of California: it decides whether there is a penalty for underpayment.";
    TAKEN = not_weighed "ca-5805-taken", "R&TC 19136(c), (f); FTB 5805, Part IV", "Income by periods, actual days of withholding or hardship may lower it: not weighed here. Withholding is taken as paid in equal parts, which is to be confirmed.";
    UNDATED = look "ca-5805-date", "R&TC 19136", "Enter the day of each payment: without it the last due date is taken.";
}

/// What its paper brings.
pub mod brings {
    use crate::underpayment::LastYear;
    use hembo_core::brought::Brought;

    /// Last year's tax and income.
    pub static LAST_YEAR: Brought<LastYear> = Brought::new();
}

/// Last year's return of California.
pub const LAST_YEAR: PaperKind = PaperKind {
    id: "Last year, California",
    subject: subject::PAYMENTS,
    name: "Last year's return of California",
    words: "california prior year tax agi 5805 underpayment penalty estimated",
    title: "About",
    shared: true,
    headline: "tax",
    boxes: &[
        Field::amount("tax", "64", "Tax for FTB 5805").help("Form 540, line 64, less lines 75 to 77."),
        Field::amount("agi", "17", "Adjusted gross income of California"),
        Field::yes_no("none", "", "No tax, for all twelve months"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives last year's return to those who filed it.
pub fn read(paper: &mut Bringing<'_>) {
    underpayment::bring(paper, &brings::LAST_YEAR);
}

fn last_year(on: On<'_>) -> Option<LastYear> {
    underpayment::known(on, &brings::LAST_YEAR)
}

/// What the penalty goes by.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Line 64.
    pub tax: Money,
    /// Lines 75 to 77.
    pub paid_out: Money,
    /// Line 71.
    pub withheld: Money,
    /// Line 17.
    pub agi: Money,
}

/// What was paid when; an undated payment at the last due date.
fn paid(on: On<'_>, withheld: Money, due: &[Date]) -> Vec<(Date, Money)> {
    let shares = on.facts.figures.california_underpayment.as_ref().map(|of| of.withheld_shares.as_slice());
    let shares = shares.unwrap_or_default().iter();
    let mut left = withheld;
    let mut all: Vec<(Date, Money)> = Vec::new();
    for (day, share) in due.iter().zip(shares) {
        let part = settled::lesser(left, withheld.times(*share, Money::CENT, Rounding::HalfUp));
        left -= part;
        all.push((*day, part));
    }
    let last = due.last().copied();
    if let Some(last) = last {
        all.push((last, left));
    }
    let dated = on.owns().flat_map(|(_, own)| own.of(&DATED));
    all.extend(dated.filter_map(|(day, amount)| day.or(last).map(|day| (day, *amount))));
    all.sort_by_key(|(day, _)| *day);
    all
}

/// Line 113.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let figures = &on.facts.figures;
    let (Some(rules), Some(late)) = (&figures.california_payments, &figures.california_underpayment) else {
        return Money::ZERO;
    };
    let status = on.unit.status;
    let current = settled::or_zero(from.tax - from.paid_out);
    made(on, trail, CURRENT, current, &[(payments::L64, from.tax)], &[("Paid out", &from.paid_out)]);
    let part = current.times(rules.current_part, Money::WHOLE, Rounding::HalfUp);
    made(on, trail, OF_CURRENT, part, &[(CURRENT, current)], &[("Part", &rules.current_part)]);
    let very_high = from.agi >= *rules.no_prior_year_at.of(status);
    let known = last_year(on);
    if known.is_none() && !very_high {
        return Money::ZERO;
    }
    let LastYear { tax, agi, none } =
        known.unwrap_or(LastYear { tax: Money::ZERO, agi: Money::ZERO, none: false });
    let after_high = agi > *rules.high_above.of(status);
    let rate = if after_high { rules.high_part } else { rules.plain_part };
    let last = tax.to_whole().times(rate, Money::WHOLE, Rounding::HalfUp);
    made(on, trail, OF_LAST, last, &[], &[("Last year's tax", &tax), ("Part", &rate)]);
    let required = if very_high { part } else { settled::lesser(part, last) };
    made(on, trail, REQUIRED, required, &[(OF_CURRENT, part), (OF_LAST, last), (L17, from.agi)], &[]);
    let spared = current - from.withheld < *rules.least.of(status) || from.withheld >= required || none;
    let due: Vec<Date> = figures.underpayment.due.iter().map(|day| day.0).collect();
    let instalments = due.iter().copied().zip(&rules.shares);
    let penalty = if spared {
        Money::ZERO
    } else {
        let required =
            instalments.map(|(day, share)| (day, required.times(*share, Money::WHOLE, Rounding::HalfUp)));
        Instalments {
            required: required.collect(),
            paid: paid(on, from.withheld, &due),
            until: figures.underpayment.until.0,
            rates: &late.interest,
        }
        .addition()
    };
    made(on, trail, L113, penalty, &[(REQUIRED, required)], &[("Withheld", &from.withheld)])
}

/// FTB 5805: where there is a penalty.
pub fn form_5805(filed: Filed<'_>) -> Required {
    super::forms::here(filed, filed.has(L113), "no penalty for underpayment")
}

/// A balance without last year's tax, and a penalty.
pub fn points(points: &mut Points<'_>) {
    let Some(rules) = &points.facts.figures.california_payments else { return };
    for (place, unit) in points.units.iter().enumerate() {
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        let (balance, penalty) = (points.amount(payments::BALANCE, place), points.amount(L113, place));
        let known = last_year(on).is_some();
        if unit.main && !known && balance >= *rules.least.of(unit.status) {
            points.raise(&LAST_YEAR_ASKED, points.whose(unit), format!("{balance:#} is owed to California."));
        }
        if !penalty.is_zero() {
            let words =
                format!("{penalty:#} for instalments to California that were paid late or not at all.");
            points.raise(&TAKEN, points.whose(unit), words);
        }
        let undated = on.owns().any(|(_, own)| own.of(&DATED).iter().any(|(day, _)| day.is_none()));
        if undated && known {
            let paper = points.papers("540-ES").next().map(|paper| Place::paper(&paper.id, "date"));
            points.raise(&UNDATED, paper.unwrap_or_default(), "A payment to California has no day.");
        }
    }
}
