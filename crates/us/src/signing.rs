//! What it takes to sign and file a return (§§6061, 6065, 7216; Forms 8879, 1310): who signed when, PINs, the preparer's number, consent,
//! and how a balance is paid.

use crate::{payments, people, points::Points, states, underpayment, unit::Unit};
use hembo_core::{
    Paper,
    check::digits,
    field::{Choice, Field, Years},
    household::Entry,
    open_points,
    pack::{FILER, Question},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Signatures and filing",
    papers: &[SIGNATURES],
    household_questions: &[READY],
    person_questions: &[OLD_DEBTS],
    points: POINTS,
    figures: &["records", "underpayment"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const OLD_DEBTS: &str = "old_debts";
}

const READY: Field = Field::yes_no("signing", "", "Signatures and filing were settled")
    .help("Form 8879.")
    .opens(&[SIGNATURES.id]);

const OLD_DEBTS: Question = Question {
    of: FILER,
    from_age: 0,
    field: Field::yes_no(ask::OLD_DEBTS, "", "Owes old taxes, child support or a federal loan")
        .help("A joint refund would be kept for it: Form 8379."),
};

open_points! {
    MISSING = blocks "K-161", "IRC §§6061, 6065",
        "Add the paper: how the return is filed, who signed when, with which PIN.";
    NOT_SIGNED = blocks "K-161-day", "IRC §6061; Form 8879",
        "Enter the day of the signature, after the year ended.";
    PIN = blocks "K-162", "Pub. 1345; Form 8879",
        "Five digits that are not all zero, of each who signs.";
    EARLIER = blocks "K-162-earlier", "Pub. 1345",
        "Enter last year's PIN, or last year's adjusted gross income on its paper: it proves who signs.";
    PREPARER = blocks "K-163", "IRC §6109(a)(4); Reg. §1.6109-2",
        "P with eight digits.";
    CONSENT = look "consent-7216", "IRC §7216; Reg. §301.7216-3",
        "Ask before anything in the return is used or disclosed for another purpose, and note the answer.";
    LICENCE = look "licence", "Pub. 1345",
        "Enter the number and the state, or: not given.";
    ADDRESS = look "K-164", "Form 1040, page 1",
        "Enter street, town, state, a ZIP code of five or nine digits and a telephone number of ten.";
    LATE = look "K-165", "IRC §§6072(a), 6651",
        "Interest and a penalty for each month are billed on what is still due; explain why it is late.";
    HOW_PAID = look "K-166", "IRC §6151",
        "Choose how the balance is paid.";
    DESIGNEE = look "K-174", "Form 1040, page 2",
        "Name, telephone and a PIN of five digits, or answer no.";
    DEBTS = look "K-175", "IRC §6402(c), (d); Form 8379",
        "Fill in Form 8379 beside this return, for the other spouse's part of the refund.";
    DIED = beside "K-176", "IRC §6012(b)(1); Form 1310",
        "An executor signs with the court's certificate; else whoever claims the refund attaches Form 1310.";
}

/// What filing needs, with the codes of the points that tell when it is not settled.
pub const SETTLED: &[(&str, &[&str])] = &[
    ("Name and number of the spouse", &["K-169-named"]),
    ("Signatures", &["K-161", "K-161-day"]),
    ("PINs", &["K-162", "K-162-earlier"]),
    ("Preparer's number", &["K-163"]),
    ("Address and telephone", &["K-164"]),
    ("How the balance is paid", &["K-166"]),
];

const WAYS: &[Choice] = &[
    Choice::new("preparer", "Electronically, the preparer enters the PINs"),
    Choice::new("filers", "Electronically, the filers enter their PINs"),
    Choice::new("paper", "On paper"),
];

const PAID_BY: &[Choice] = &[
    Choice::new("debit", "Debit of an account"),
    Choice::new("transfer", "Transfer by the filers"),
    Choice::new("card", "Card"),
    Choice::new("cheque", "Cheque with Form 1040-V"),
    Choice::new("instalments", "In instalments, Form 9465"),
];

/// Signatures, the preparer, and how a balance is paid.
pub const SIGNATURES: PaperKind = PaperKind {
    id: "8879",
    subject: subject::PAYMENTS,
    name: "Signatures and filing",
    words: "signature pin e-file 8879 ptin consent 7216 designee extension 4868 address",
    title: "About",
    shared: true,
    headline: "",
    boxes: &[
        Field::choice("how", "", "Filed", WAYS),
        Field::date("signed", "", "Signed on").help("By the first of the filers."),
        Field::text("pin", "", "PIN", 5).secret(),
        Field::date("signed.spouse", "", "Spouse signed on"),
        states::of_state(Field::date("signed.state", "", "Signed for the state on").help("FTB 8879, by everyone who files.")),
        Field::text("pin.spouse", "", "Spouse's PIN", 5).secret(),
        Field::text("earlier_pin", "", "Last year's PIN", 5)
            .help("Where the filers enter their PINs; or last year's income on the paper of last year's return.")
            .secret(),
        Field::text("ptin", "", "Preparer's PTIN", 9).lasts(),
        Field::yes_no("consent", "", "Consent to use or disclose was asked for")
            .help("The answer is kept with the papers."),
        Field::text("street", "", "Street", 80).lasts(),
        Field::text("town", "", "Town and state", 60).lasts(),
        Field::text("zip", "", "ZIP code", 10).lasts(),
        Field::text("telephone", "", "Telephone", 20).lasts(),
        Field::choice("paid_by", "", "A balance is paid by", PAID_BY),
        Field::yes_no("extended", "", "Extension was filed")
            .help("Form 4868; of the day for the return, not for the tax."),
        Field::date("filed", "", "Filed on"),
        Field::yes_no("designee", "", "Someone else may discuss the return").lasts(),
        Field::text("designee.name", "", "Name", 60).lasts(),
        Field::text("designee.telephone", "", "Telephone", 20).lasts(),
        Field::text("designee.pin", "", "PIN", 5).secret(),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What each return of the way still lacks; one for planning is not filed.
pub fn points(points: &mut Points<'_>) {
    if points.facts.figures.planning {
        return;
    }
    let mut without: Vec<usize> = Vec::new();
    for (place, unit) in points.units.iter().enumerate() {
        debts(points, place, unit);
        died(points, unit);
        match of(points, unit) {
            Some(paper) => one(points, paper, place, unit),
            None => without.extend(&unit.people),
        }
    }
    if !without.is_empty() {
        let names: Vec<_> = without.iter().map(|&p| points.facts.people[p].name.as_str()).collect();
        let names = names.join(" and ");
        let settled = points.answered(READY.id).and_then(Entry::flag) == Some(true);
        let message = if settled {
            format!("{names}: the paper of signatures is missing ({}).", SIGNATURES.id)
        } else {
            format!("{names}: were signatures and filing settled?")
        };
        points.raise(&MISSING, Place::household(READY.id), message);
    }
}

/// The paper of a return.
fn of<'a>(points: &Points<'a>, unit: &Unit) -> Option<&'a Paper> {
    points.papers(SIGNATURES.id).find(|paper| points.is_of(paper, &unit.people))
}

/// Whether it is a PIN: five digits, not all zero.
pub fn is_pin(pin: &str) -> bool {
    pin.len() == 5 && pin.bytes().all(|b| b.is_ascii_digit()) && pin != "00000"
}

/// Whether it is a preparer's number.
pub fn is_ptin(number: &str) -> bool {
    number.strip_prefix('P').is_some_and(|rest| rest.len() == 8 && rest.bytes().all(|b| b.is_ascii_digit()))
}

fn one(points: &mut Points<'_>, paper: &Paper, place: usize, unit: &Unit) {
    signed(points, paper, unit);
    let at = |field: &str| Place::paper(&paper.id, field);
    let text = |field: &str| paper.text(field).unwrap_or_default().trim();
    let last_year = || points.papers(underpayment::LAST_YEAR.id).any(|last| last.boxes.contains_key("agi"));
    if text("how") == "filers" && !is_pin(text("earlier_pin")) && !last_year() {
        points.raise(&EARLIER, at("earlier_pin"), "What was last year's income or PIN?");
    }
    if !is_ptin(text("ptin")) {
        points.raise(&PREPARER, at("ptin"), "The preparer's number is missing or not valid.");
    }
    if !paper.boxes.contains_key("consent") {
        points.raise(&CONSENT, at("consent"), "Was consent to use or disclose asked for?");
    }
    let plain = |field: &str| digits(text(field));
    let reached = matches!(plain("zip").len(), 5 | 9) && plain("telephone").len() == 10;
    if !reached || text("street").is_empty() || text("town").is_empty() {
        points.raise(&ADDRESS, at("street"), "Address or telephone is not complete.");
    }
    let filed = paper.boxes.get("filed").and_then(Entry::date);
    let due = points.facts.figures.underpayment.until.0;
    if filed.is_some_and(|filed| filed > due) && !paper.flag("extended") {
        points.raise(&LATE, at("filed"), format!("Filed after {due} without an extension."));
    }
    let balance = points.amount(payments::BALANCE, place);
    if balance > Money::ZERO && text("paid_by").is_empty() {
        points.raise(&HOW_PAID, at("paid_by"), format!("{balance:#} are due."));
    }
    let named = ["designee.name", "designee.telephone"].iter().all(|field| !text(field).is_empty());
    if paper.flag("designee") && !(named && is_pin(text("designee.pin"))) {
        points.raise(&DESIGNEE, at("designee.name"), "Who may discuss the return?");
    }
}

/// Each living filer signs, after the year, where it is filed electronically with a PIN.
fn signed(points: &mut Points<'_>, paper: &Paper, unit: &Unit) {
    let facts = points.facts;
    let electronic = paper.text("how").is_some_and(|how| how != "paper");
    let boxes = [("signed", "pin"), ("signed.spouse", "pin.spouse")];
    for (&person, (day, pin)) in
        unit.people.iter().zip(boxes).filter(|(p, _)| facts.people[**p].died.is_none())
    {
        let name = &facts.people[person].name;
        let signed = paper.boxes.get(day).and_then(Entry::date);
        if signed.is_none_or(|day| day <= facts.year_end) {
            points.raise(&NOT_SIGNED, Place::paper(&paper.id, day), format!("When did {name} sign?"));
        }
        if electronic && !is_pin(paper.text(pin).unwrap_or_default()) {
            points.raise(
                &PIN,
                Place::paper(&paper.id, pin),
                format!("The PIN of {name} is missing or not valid."),
            );
        }
        if electronic && facts.people[person].filer && !points.said(person, people::ask::LICENCE) {
            let place = points.at(person, people::ask::LICENCE);
            points.raise(&LICENCE, place, format!("Driver's licence or state ID of {name}?"));
        }
    }
}

/// One spouse's old debts against a joint refund.
fn debts(points: &mut Points<'_>, place: usize, unit: &Unit) {
    let owes = |p: &&usize| {
        let answers = &points.household.people[**p].answers;
        answers.get(ask::OLD_DEBTS).and_then(Entry::flag) == Some(true)
    };
    let owing: Vec<usize> = unit.people.iter().filter(owes).copied().collect();
    let refund = !points.amount(payments::L34, place).is_zero();
    if let ([person], true, 2) = (&owing[..], refund, unit.people.len()) {
        let name = &points.facts.people[*person].name;
        let message = format!("A joint refund, and {name} has old debts.");
        points.raise(&DEBTS, points.at(*person, ask::OLD_DEBTS), message);
    }
}

/// A return of somebody who died, without a surviving spouse on it.
fn died(points: &mut Points<'_>, unit: &Unit) {
    let people = &points.facts.people;
    if let [person] = unit.people[..]
        && people[person].died.is_some()
    {
        let message = format!("{} has died: who signs?", people[person].name);
        points.raise(&DIED, points.at(person, "died"), message);
    }
}
