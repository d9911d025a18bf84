//! Tax of the year, what was withheld and paid, and what is payable or comes back (Fourth Schedule paras 28, 29; TAA s 190).

use crate::{
    bringing::Bringing, certificates, lump_sums, plan::On, points::Points, tax, tax_free, turnover_tax,
};
use hembo_core::{
    field::{Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "What was paid and what is left",
    lines: LINES,
    papers: &[PROVISIONAL_PAPER],
    household_questions: &[Field::text(ask::ACCOUNT, "", "Bank account for refunds", 30).secret().lasts()],
    points: POINTS,
    figures: &["dates"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const ACCOUNT: &str = "account";
}

lines! {
    pub TOTAL = "za.total_tax", "Tax of the year", "s5",
        "Normal tax, the tax on contributions above the most, that on lump sums, and turnover tax.";
    pub PAYE = "za.paye", "PAYE", "Fourth Schedule para 28; code 4102",
        "Of every certificate.";
    pub LUMP_PAYE = "za.lump_sum_paye", "PAYE on lump sums", "Fourth Schedule para 9(3); code 4115",
        "By certificates and directives.";
    pub PROVISIONAL = "za.provisional_paid", "Provisional payments", "Fourth Schedule para 28",
        "All three of the year.";
    pub PAID = "za.paid", "Paid", "Fourth Schedule para 28",
        "Withheld and paid.";
    BEFORE = "za.balance_before", "Result", "TAA s 95",
        "Tax of the year less what was paid.";
    TO_PAY = "za.to_pay", "Payable", "TAA s 162",
        "A result of a hundred rand or more.";
    REFUND = "za.refund", "Refund", "TAA s 190",
        "A result of a hundred rand or more below zero.";
    pub KEPT = "za.on_account", "Stays on the account", "TAA ss 169(4), 190(4)",
        "A result of less than a hundred rand either way.";
    pub BALANCE = "za.balance_due", "Payable, or back", "TAA ss 162, 190",
        "What is payable, below zero a refund.";
}

open_points! {
    SMALL = look "C65", "TAA ss 169(4), 190(4)", "Nothing is paid or collected.";
    NO_ACCOUNT = look "C55", "TAA s 190", "Enter the account for the refund.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Provisional payments.
    pub static PROVISIONAL: Brought = Brought::new();
}

/// Provisional payments with their estimates.
pub const PROVISIONAL_PAPER: PaperKind = PaperKind {
    id: "IRP6",
    subject: subject::PAYMENTS,
    name: "Provisional tax paid and estimated",
    words: "provisional irp6 estimate payment",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::amount("estimate_1", "", "First estimate of taxable income"),
        Field::amount("estimate_2", "", "Second estimate of taxable income"),
        Field::amount("paye_half", "", "PAYE of the first six months"),
        Field::amount("credits", "", "Medical and foreign credits in the estimate"),
    ],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives every payment to who paid.
pub fn read(paper: &mut Bringing<'_>) {
    let rows: Vec<(usize, Money)> =
        paper.paper.lines("amount").map(|(row, _, amount)| (row, amount)).collect();
    for (row, amount) in rows {
        paper.put("amount", Some(row), amount, &brings::PROVISIONAL);
    }
}

/// From normal tax to what is payable; the result is the tax of the year.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, normal: Money) -> Money {
    let own = on.own();
    let penalty = tax_free::reckon(on, trail);
    let lump_sums = lump_sums::reckon(on, trail);
    let by_turnover = turnover_tax::reckon(on, trail);
    let total = on.add(
        trail,
        TOTAL,
        &[
            (tax::NORMAL, normal),
            (tax_free::PENALTY, penalty),
            (lump_sums::TAX, lump_sums),
            (turnover_tax::TAX, by_turnover),
        ],
    );
    let paye = on.gather(trail, PAYE, own.of(&certificates::brings::PAYE));
    let of_lump_sums = own.of(&certificates::brings::LUMP_PAYE).iter().chain(lump_sums::withheld(on));
    let lump_paye = on.gather(trail, LUMP_PAYE, of_lump_sums);
    let provisional = on.gather(trail, PROVISIONAL, own.of(&brings::PROVISIONAL));
    let paid = on.add(trail, PAID, &[(PAYE, paye), (LUMP_PAYE, lump_paye), (PROVISIONAL, provisional)]);
    let before = on.made(trail, BEFORE, total - paid, &[(TOTAL, total), (PAID, paid)], &[]);
    let least = on.facts.figures.dates.least;
    let small = before < least && -before < least;
    let due = |amount: Money| if small { Money::ZERO } else { settled::or_zero(amount) };
    let (to_pay, refund) = (due(before), due(-before));
    on.made(trail, TO_PAY, to_pay, &[(BEFORE, before)], &[]);
    on.made(trail, REFUND, refund, &[(BEFORE, before)], &[]);
    if small {
        on.made(trail, KEPT, before, &[(BEFORE, before)], &[("Less than", &least)]);
    }
    on.made(trail, BALANCE, to_pay - refund, &[(TO_PAY, to_pay), (REFUND, refund)], &[]);
    total
}

/// Small results, the account.
pub fn points(points: &mut Points<'_>) {
    let mut back = false;
    for (place, person) in points.returns() {
        back |= points.amount(BALANCE, place).is_negative();
        let kept = points.amount(KEPT, place);
        if !kept.is_zero() {
            let message = format!("{}: {kept:#} stay on the account.", points.name(person));
            points.raise(&SMALL, points.at(person, "name"), message);
        }
    }
    if back && points.answered(ask::ACCOUNT).and_then(Entry::text).is_none() {
        points.raise(&NO_ACCOUNT, Place::household(ask::ACCOUNT), "Where does the refund go?");
    }
}
