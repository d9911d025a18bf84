//! What was withheld and paid, residual income tax, and what is due or comes back (ITA BC 8 to BC 10, LB 1, LB 3; TAA 22J, 174AA).

use crate::{
    bringing::Bringing,
    donations, families, family_boost, investments, managed_funds,
    managed_funds::Settled,
    other, pay,
    plan::On,
    points::{Points, in_words},
    tax, trusts,
};
use hembo_core::{
    field::{Choice, Field, Years},
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "What was paid and what is left",
    lines: LINES,
    papers: &[PAID_IN_ADVANCE],
    household_questions: &[Field::text(ask::ACCOUNT, "", "Account for refunds", 20)
        .secret()
        .lasts()
        .help("Bank, branch, account and suffix: 15 or 16 digits.")],
    points: POINTS,
    figures: &["dates"],
    carries: CARRIES,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const ACCOUNT: &str = "account";
}

lines! {
    pub WITHHELD = "nz.withheld", "All withheld tax", "ITA LB 1, LB 3, LO 1",
        "From pay, contracts, interest, dividends and distributions, and what trustees and partnerships paid.";
    pub RESIDUAL = "nz.residual_income_tax", "Residual income tax", "ITA BC 8, YA 1",
        "Tax after credits less what was withheld; below zero it was withheld too much.";
    pub PROVISIONAL = "nz.provisional_paid", "Provisional tax paid", "ITA LB 2, RC 3",
        "Payments and transfers for this year.";
    BEFORE = "nz.balance_before", "Balance", "ITA BC 9, BC 10",
        "Residual tax with what managed funds settle, less provisional tax.";
    pub WRITTEN_OFF = "nz.written_off", "Written off or not collected", "TAA 22J, 174AA",
        "A small balance: of an automatic assessment more than of a return.";
    TO_PAY = "nz.to_pay", "To pay", "ITA RB 1",
        "The balance, less what is written off.";
    REFUND = "nz.refund", "Refund", "ITA RM 2",
        "A balance below zero.";
    pub FAMILY_COUNTED = "nz.family_counted", "Family credits counted", "ITA MC 5, MH 1",
        "Working for Families and FamilyBoost, where the household counts them.";
    pub NET_TAX = "nz.net_tax", "Total tax", "ITA BC 8, LD 1, MC 5",
        "Tax after credits and of managed funds, less the donation credit and family credits that are counted.";
    pub PAID = "nz.paid", "Paid during the year", "ITA LB 1 to LB 3, HM 57",
        "Withheld, paid by managed funds, provisional tax.";
    pub BALANCE = "nz.balance", "Due, or back", "ITA BC 10, RB 1, RM 2",
        "What is to pay, below zero a refund; gifts and family credits are settled beside it.";
}

const CARRIES: &[Carry] =
    &[Carry { line: RESIDUAL, paper: crate::last_assessment::PAPER, into: CarriedTo::Told("residual") }];

open_points! {
    SMALL = look "C69", "TAA 22J", "Nothing is to be paid.";
    BY_DAY = look "C70", "ITA RB 1", "Pay by the day of terminal tax.";
    NO_ACCOUNT = look "C54", "ITA RM 2; TAA 184A", "Enter the account for the refund.";
    ACCOUNT_LENGTH = blocks "C55", "TAA 184A", "An account has 15 or 16 digits.";
    COMPARE = look "C60", "ITA LB 2", "Compare payments and transfers with the account at Inland Revenue.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Provisional tax paid.
    pub static PROVISIONAL: Brought = Brought::new();
}

/// How provisional tax of the next year is reckoned.
const METHODS: &[Choice] = &[
    Choice::new("standard", "Standard"),
    Choice::new("estimate", "Estimate"),
    Choice::new("ratio", "Ratio to supplies"),
];

/// Provisional tax.
pub const PAID_IN_ADVANCE: PaperKind = PaperKind {
    id: "Provisional tax",
    subject: subject::PAYMENTS,
    name: "Provisional tax paid",
    words: "instalments advance transfer estimate",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::choice("method", "", "Method of the next year", METHODS)
            .blank_is("standard")
            .help("The standard is taken until another is chosen."),
        Field::amount("estimate", "", "Estimated residual tax of the next year"),
        Field::amount("supplies", "", "Taxable supplies of this year")
            .help("For the ratio: GST-registered for the whole year."),
        Field::amount("expected", "", "Taxable supplies expected in the next year")
            .help("Blank: the ratio alone is told."),
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
    let rows: Vec<_> = paper.paper.lines("amount").collect();
    for (row, _, amount) in &rows {
        paper.put("amount", Some(*row), *amount, &brings::PROVISIONAL);
    }
    if rows.iter().any(|(_, _, amount)| !amount.is_zero()) {
        paper.needs_return();
    }
}

/// What of a return enters its end.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Payable {
    pub after_credits: Money,
    pub funds: Settled,
    pub donations: Money,
    /// Family credits of this return, and what of them counts in what is minimised.
    pub family: [(&'static str, Money); 2],
    pub counted: bool,
}

/// From tax after credits to what is due; the result is what the return costs for good.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, payable: Payable) -> Money {
    let withheld = withheld(on, trail);
    let residual = on.made(
        trail,
        RESIDUAL,
        payable.after_credits - withheld,
        &[(tax::AFTER_CREDITS, payable.after_credits), (WITHHELD, withheld)],
        &[],
    );
    let provisional = on.gather(trail, PROVISIONAL, on.own().of(&brings::PROVISIONAL));
    let funds = payable.funds;
    let before = on.made(
        trail,
        BEFORE,
        residual + funds.adjustment - provisional,
        &[(RESIDUAL, residual), (managed_funds::ADJUSTMENT, funds.adjustment), (PROVISIONAL, provisional)],
        &[],
    );
    let written_off = written_off(on, trail, before);
    let to_pay = settled::or_zero(before) - written_off;
    let refund = settled::or_zero(-before);
    on.made(trail, TO_PAY, to_pay, &[(BEFORE, before), (WRITTEN_OFF, written_off)], &[]);
    on.made(trail, REFUND, refund, &[(BEFORE, before)], &[]);
    let family: Money = payable.family.iter().map(|(_, amount)| *amount).sum();
    let counted = if payable.counted { family } else { Money::ZERO };
    if !counted.is_zero() {
        on.made(trail, FAMILY_COUNTED, counted, &payable.family, &[]);
    }
    let net = on.made(
        trail,
        NET_TAX,
        payable.after_credits + funds.due - payable.donations - counted,
        &[
            (tax::AFTER_CREDITS, payable.after_credits),
            (managed_funds::DUE, funds.due),
            (donations::CREDIT, payable.donations),
            (FAMILY_COUNTED, counted),
        ],
        &[],
    );
    on.add(
        trail,
        PAID,
        &[(WITHHELD, withheld), (managed_funds::PAID, funds.paid), (PROVISIONAL, provisional)],
    );
    on.made(trail, BALANCE, to_pay - refund, &[(TO_PAY, to_pay), (REFUND, refund)], &[]);
    net
}

/// All tax withheld.
fn withheld(on: On<'_>, trail: &mut impl Trail) -> Money {
    let pay = pay::withheld(on, trail);
    let invested = investments::withheld(on, trail);
    let shares = trusts::withheld(on, trail);
    on.add(trail, WITHHELD, &[&pay[..], &invested, &shares].concat())
}

/// A small balance of an automatic assessment is written off, a smaller one of a return not collected.
fn written_off(on: On<'_>, trail: &mut impl Trail, before: Money) -> Money {
    let figures = &on.facts.figures.dates;
    let by_return = other::needs_return(on.facts, on.person);
    let to = if by_return { figures.not_collected_to } else { figures.written_off_to };
    if before <= Money::ZERO || before > to {
        return Money::ZERO;
    }
    on.made(trail, WRITTEN_OFF, before, &[(BEFORE, before)], &[("Up to", &to)])
}

/// The family credits that stand on a return, by their lines.
pub fn family_lines(families: Money, boost: Money) -> [(&'static str, Money); 2] {
    [(families::TOGETHER, families), (family_boost::CREDIT, boost)]
}

/// Small balances, days, the account.
pub fn points(points: &mut Points<'_>) {
    let mut back = false;
    for (place, person) in points.returns() {
        let balance = points.amount(BALANCE, place);
        back |= balance.is_negative();
        let name = points.name(person);
        let written = points.amount(WRITTEN_OFF, place);
        if !written.is_zero() {
            points.raise(&SMALL, points.at(person, "name"), format!("{name}: {written:#} is not collected."));
        } else if balance > Money::ZERO {
            let day = points.facts.figures.dates.terminal.0;
            points.raise(
                &BY_DAY,
                points.at(person, "name"),
                format!("{name}: {balance:#} by {}.", in_words(day)),
            );
        }
        if !sum(points.facts.people[person].own.of(&brings::PROVISIONAL)).is_zero() {
            let message = format!("{name}: provisional tax was paid.");
            points.raise(&COMPARE, points.at(person, "name"), message);
        }
    }
    let account = points.answered(ask::ACCOUNT).and_then(hembo_core::household::Entry::text);
    match account.map(|text| hembo_core::check::digits(text).len()) {
        None if back => {
            points.raise(&NO_ACCOUNT, Place::household(ask::ACCOUNT), "Where does the refund go?")
        }
        Some(digits) if !(15..=16).contains(&digits) => {
            points.raise(&ACCOUNT_LENGTH, Place::household(ask::ACCOUNT), format!("It has {digits} digits."));
        }
        _ => {}
    }
}
