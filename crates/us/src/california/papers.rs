//! The papers that only California asks for: what differs from the federal return, tax paid to the state.

use crate::{
    bringing::{self, Bringing},
    states::STATES,
};
use hembo_core::{
    brought::Records,
    field::{Choice, Field, Years},
    household::Entry,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
};

/// What these papers declare.
pub static PROVISION: Provision = Provision { papers: &[DIFFERENCES, PAYMENTS], ..Provision::NONE };

/// What they bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Earnings within a health savings account.
    pub static SAVINGS_EARNINGS: Brought = Brought::new();
    /// Alimony received under an instrument after 2018.
    pub static ALIMONY_RECEIVED: Brought = Brought::new();
    /// Alimony paid under an instrument after 2018.
    pub static ALIMONY_PAID: Brought = Brought::new();
    /// Moving expenses.
    pub static MOVING: Brought = Brought::new();
    /// Winnings of the California lottery.
    pub static LOTTERY: Brought = Brought::new();
    /// Military retirement pay within pensions.
    pub static MILITARY: Brought = Brought::new();
    /// Survivors' annuities of the armed forces within pensions.
    pub static SURVIVORS: Brought = Brought::new();
    /// Interest of the United States that no other paper brings.
    pub static TREASURY: Brought = Brought::new();
    /// Other additions.
    pub static ADDED: Brought = Brought::new();
    /// Other subtractions.
    pub static SUBTRACTED: Brought = Brought::new();
    /// Job expenses, tax preparation, investment expenses.
    pub static MISCELLANEOUS: Brought = Brought::new();
    /// Estimated tax and other payments to the state.
    pub static PAID: Brought = Brought::new();
    /// The same with their days.
    pub static DATED: Brought<(Option<time::Date>, hembo_money::Money)> = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("treasury", "2b B · interest of the United States, in a fund"),
    Choice::new("savings", "2b C · earnings in a health savings account"),
    Choice::new("military", "5b B · military retirement pay"),
    Choice::new("survivors", "5b B · survivors' annuity of the armed forces"),
    Choice::new("lottery", "8b B · California lottery winnings"),
    Choice::new("alimony_received", "2a C · alimony received, instrument after 2018"),
    Choice::new("alimony_paid", "19a C · alimony paid, instrument after 2018"),
    Choice::new("moving", "14 C · moving expenses, FTB 3913"),
    Choice::new("miscellaneous", "19-21 · job expenses, tax preparation, investment expenses"),
    Choice::new("subtract", "B · another subtraction"),
    Choice::new("add", "C · another addition"),
];

const DIFFERENCES: PaperKind = PaperKind {
    id: "Schedule CA",
    subject: subject::OTHER_INCOME,
    name: "What California treats otherwise",
    words: "california state adjustments 540 treasury lottery alimony moving military",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("kind", "", "Line and column", KINDS),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const PAYMENTS: PaperKind = PaperKind {
    id: "540-ES",
    subject: subject::PAYMENTS,
    name: "Estimated tax and extension payments to California",
    words: "california estimated 540es installments state",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "What for", 80),
        Field::amount("amount", "72", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Whether someone paid tax to the state, or had some withheld.
pub fn is_paid(own: &Records) -> bool {
    let mut withheld = own.of(&bringing::brings::OF_STATES).iter();
    own.has(&brings::PAID) || withheld.any(|of| STATES[of.state].id == "CA" && !of.withheld.amount.is_zero())
}

/// Gives differences to whose they are, and payments to who made them; what was paid in the year is state tax on Schedule A, too.
pub fn read(paper: &mut Bringing<'_>) {
    let of_payments = paper.paper.paper.kind == PAYMENTS.id;
    let year = paper.facts.figures.year;
    let lines: Vec<_> =
        paper.paper.lines("amount").map(|(row, cells, amount)| (row, cells.clone(), amount)).collect();
    for (row, cells, amount) in lines {
        let put = |paper: &mut Bringing<'_>, kind| paper.put("amount", Some(row), amount, kind);
        if of_payments {
            let day = cells.get("date").and_then(Entry::date);
            paper.put_as("amount", Some(row), amount, &brings::DATED, |item| (day, item.amount));
            put(paper, &brings::PAID);
            if day.is_some_and(|day| day.year() == year) {
                put(paper, &bringing::brings::STATE_INCOME_TAX);
            }
            continue;
        }
        let kind = match cells.get("kind").and_then(Entry::text) {
            Some("treasury") => &brings::TREASURY,
            Some("savings") => &brings::SAVINGS_EARNINGS,
            Some("military") => &brings::MILITARY,
            Some("survivors") => &brings::SURVIVORS,
            Some("lottery") => &brings::LOTTERY,
            Some("alimony_received") => &brings::ALIMONY_RECEIVED,
            Some("alimony_paid") => &brings::ALIMONY_PAID,
            Some("moving") => &brings::MOVING,
            Some("miscellaneous") => &brings::MISCELLANEOUS,
            Some("subtract") => &brings::SUBTRACTED,
            Some("add") => &brings::ADDED,
            _ => continue,
        };
        put(paper, kind);
    }
}
