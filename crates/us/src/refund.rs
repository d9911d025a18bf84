//! Where a refund goes: one account, or up to three (Form 1040 lines 35b to 35d; Form 8888).

use crate::{payments, points::Points};
use hembo_core::{
    Paper,
    check::digits,
    field::{Choice, Field, Years},
    household::Entry,
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { papers: &[PARTS], household_questions: &[ACCOUNT], points: POINTS, ..Provision::NONE };

open_points! {
    ROUTING = blocks "K-158", "Form 1040, line 35b",
        "Look at a cheque: nine digits, and the last one checks the others.";
    NUMBER = blocks "K-158-account", "Form 1040, line 35d",
        "Enter 4 to 17 letters and digits.";
    KIND = blocks "K-158-kind", "Form 1040, line 35c",
        "Choose checking or savings.";
    THREE = blocks "8888-three", "Form 8888",
        "Leave three at most.";
    TOO_MUCH = blocks "8888-sum", "Form 8888",
        "Lower an amount: the refund is smaller. The last line may stay empty and takes the rest.";
    LARGE = look "K-160", "Form 1040, line 34",
        "Look for withholding or a credit keyed twice.";
    TOGETHER = look "8888-both", "Form 8888",
        "The lines of the list count, and the single account is not used.";
}

/// The account for a refund.
pub const ACCOUNT: Field = Field::text("refund_account", "35d", "Account for a refund", 40)
    .help("Routing and account number, of an account in a filer's name; hidden like a taxpayer number.")
    .secret();

const KINDS: &[Choice] = &[Choice::new("checking", "Checking"), Choice::new("savings", "Savings")];

const PARTS: PaperKind = PaperKind {
    id: "8888",
    subject: subject::PAYMENTS,
    name: "Refund to several accounts",
    words: "refund direct deposit bank account split routing 8888",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::text("routing", "b", "Routing number", 9),
        Field::choice("kind", "c", "Kind", KINDS),
        Field::text("account", "d", "Account number", 17).secret(),
        Field::amount("amount", "a", "Amount").help("Empty on the last line: the rest."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Whether nine digits are a routing number: of a bank's district, and with the check digit.
pub fn is_routing(number: &str) -> bool {
    let digits: Vec<u32> = number.chars().filter_map(|c| c.to_digit(10)).collect();
    if digits.len() != 9 || number.len() != 9 {
        return false;
    }
    let weights = [3, 7, 1, 3, 7, 1, 3, 7, 1];
    let sum: u32 = digits.iter().zip(weights).map(|(digit, weight)| digit * weight).sum();
    matches!(digits[0] * 10 + digits[1], 1..=12 | 21..=32) && sum.is_multiple_of(10)
}

/// Whether it may be the number of an account.
pub fn is_account(number: &str) -> bool {
    let plain: String = number.chars().filter(|c| !matches!(c, '-' | ' ')).collect();
    (4..=17).contains(&plain.len()) && plain.chars().all(|c| c.is_ascii_alphanumeric())
}

/// A refund above this is worth a look.
const LARGE_ABOVE: i64 = 10_000;

/// The numbers of the accounts, and their amounts.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let refund = points.amount(payments::L34, place);
        if refund > Money::whole(LARGE_ABOVE) {
            points.raise(&LARGE, points.whose(unit), format!("The refund of {refund:#} is unusually large."));
        }
    }
    let single = points.answered(ACCOUNT.id).and_then(Entry::text);
    if let Some(said) = single {
        let (routing, account) = said.trim().split_once(' ').unwrap_or((said, ""));
        let place = || Place::household(ACCOUNT.id);
        if !is_routing(&digits(routing)) {
            points.raise(&ROUTING, place(), "The routing number of the account for a refund is not valid.");
        } else if !is_account(account) {
            points.raise(&NUMBER, place(), "The number of the account for a refund is not valid.");
        }
    }
    for paper in points.papers(PARTS.id) {
        parts(points, paper);
        if single.is_some() {
            let message = "The refund goes to the accounts of the list.";
            points.raise(&TOGETHER, Place::household(ACCOUNT.id), message);
        }
    }
}

fn parts(points: &mut Points<'_>, paper: &Paper) {
    for row in &paper.rows {
        let text = |id: &str| row.get(id).and_then(Entry::text).unwrap_or_default();
        let at = |field: &str| Place::row(&paper.id, row, field);
        if !is_routing(text("routing")) {
            points.raise(&ROUTING, at("routing"), "The routing number of this account is not valid.");
        }
        if !is_account(text("account")) {
            points.raise(&NUMBER, at("account"), "The number of this account is not valid.");
        }
        if text("kind").is_empty() {
            points.raise(&KIND, at("kind"), "Which kind of account is this?");
        }
    }
    let Some(first) = paper.rows.first() else { return };
    if paper.rows.len() > 3 {
        points.raise(
            &THREE,
            Place::row(&paper.id, first, "routing"),
            "A refund goes to three accounts at most.",
        );
    }
    let wanted: Money = paper.rows.iter().filter_map(|row| row.get("amount").and_then(Entry::money)).sum();
    let place = points.units.iter().position(|unit| points.is_of(paper, &unit.people));
    let refund = place.map_or(Money::ZERO, |place| points.amount(payments::L34, place));
    if wanted > refund {
        let message = format!("The accounts take {wanted:#}, and the refund is {refund:#}.");
        points.raise(&TOO_MUCH, Place::row(&paper.id, first, "amount"), message);
    }
}
