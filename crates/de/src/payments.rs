//! From the assessed taxes to what is to pay or comes back (§36 EStG): withheld income tax summed and rounded up, the rest to the cent.

use crate::{
    bringing::Bringing,
    capital, charges,
    plan::{CapitalWay, On},
    points::Points,
    rounding::euros_up,
    tax_number::is_iban,
    wage,
};
use hembo_core::{
    brought::Brought,
    field::{Field, Years},
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "What was paid and what is left",
    lines: LINES,
    papers: &[PREPAID],
    household_questions: &[Field::text(ask::ACCOUNT, "", "Account for refunds (IBAN)", 42)
        .secret()
        .lasts()
        .help("Of a German account 22 characters.")],
    points: POINTS,
    figures: &["dates"],
    ..Provision::NONE
};

lines! {
    pub INCOME_TAX = "de.income_tax", "Income tax assessed (festzusetzende Einkommensteuer)", "§2(6)",
        "Tariff tax less credits, the flat tax, the benefit of children added.";
    WAGE_TAX = "de.wage_tax_withheld", "Wage tax (Lohnsteuer)", "§36(2) Nr.2, (3)", "Of all certificates, up to euros.";
    CAPITAL_TAX = "de.capital_tax_withheld", "Capital income tax (Kapitalertragsteuer)", "§36(2) Nr.2, (3)",
        "Where the income is declared, up to euros.";
    pub PREPAID_TAX = "de.prepaid_tax", "Prepayments of income tax", "§§36(2) Nr.1, 37", "Fixed and paid.";
    SURCHARGES = "de.soli_paid", "Surcharge withheld and prepaid", "§51a", "Of wages, declared capital income and prepayments.";
    CHURCH_PAID = "de.church_paid", "Church tax withheld and prepaid", "§51a", "Of wages, declared capital income and prepayments.";
    LEFT = "de.capital_left", "Taxes left with the bank", "§43(5)", "On capital income that is not declared.";
    ROUNDED = "de.rounded_up", "Rounding of what was withheld", "§36(3) S.1",
        "So much less is paid than was assessed, because withheld tax is credited in whole euros.";
    pub TOTAL = "de.total_tax", "Taxes of the year", "§2(6); SolzG; church tax laws",
        "Income tax, surcharge and church tax, with what stays withheld on capital income, less the rounding of what was withheld.";
    pub PAID = "de.paid", "Withheld and prepaid", "§36(2)", "Of all three taxes, to the cent.";
    pub BALANCE = "de.balance", "To pay, or back", "§36(4)", "Below zero it comes back.";
}

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const ACCOUNT: &str = "account";
}

open_points! {
    ACCOUNT_WRONG = blocks "DE-C07", "ISO 13616", "Compare the account number with a statement of the bank.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Income tax.
    pub static TAX: Brought = Brought::new();
    /// Surcharge.
    pub static SURCHARGE: Brought = Brought::new();
    /// Church tax.
    pub static CHURCH: Brought = Brought::new();
}

const PREPAID: PaperKind = PaperKind {
    id: "Prepayments",
    subject: subject::PAYMENTS,
    name: "Prepayments, Vorauszahlungen",
    words: "vorauszahlung advance",
    title: "Finance office",
    shared: true,
    headline: "tax",
    boxes: &[
        Field::amount("tax", "", "Income tax"),
        Field::amount("surcharge", "", "Surcharge"),
        Field::amount("church", "", "Church tax"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives prepayments to who made them.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[("tax", &brings::TAX), ("surcharge", &brings::SURCHARGE), ("church", &brings::CHURCH)]);
}

/// What was assessed.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Assessed {
    pub income_tax: Money,
    pub surcharge: Money,
    pub church: Money,
}

type Kind = &'static Brought;

/// From what was assessed to the balance; the result is the total.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, of: Assessed) -> Money {
    let wage_tax = euros_up(on.sum(&wage::brings::TAX));
    trail.line(WAGE_TAX, on.scope, wage_tax, |i| _ = i.items(on.items(&wage::brings::TAX)));
    let declared = capital::way(on) != CapitalWay::Left;
    let of_capital = |kind: Kind| if declared { on.sum(kind) } else { Money::ZERO };
    let capital_tax = euros_up(of_capital(&capital::brings::TAX));
    trail.line(CAPITAL_TAX, on.scope, capital_tax, |i| {
        if declared {
            i.items(on.items(&capital::brings::TAX));
        }
    });
    let prepaid = on.gather(trail, PREPAID_TAX, on.items(&brings::TAX));
    let of_all = |trail: &mut _, line: LineId, wage: Kind, capital: Kind, prepaid: Kind| {
        let of_capital = if declared { Some(capital) } else { None };
        let kinds = [wage, prepaid].into_iter().chain(of_capital);
        on.gather(trail, line, kinds.flat_map(|kind| on.items(kind)))
    };
    let surcharges =
        of_all(trail, SURCHARGES, &wage::brings::SURCHARGE, &capital::brings::SURCHARGE, &brings::SURCHARGE);
    let church_paid =
        of_all(trail, CHURCH_PAID, &wage::brings::CHURCH, &capital::brings::CHURCH, &brings::CHURCH);
    let kept: [Kind; 3] = [&capital::brings::TAX, &capital::brings::SURCHARGE, &capital::brings::CHURCH];
    let kept = kept.into_iter().filter(|_| !declared);
    let left = on.gather(trail, LEFT, kept.flat_map(|kind| on.items(kind)));
    let exact = on.sum(&wage::brings::TAX) + of_capital(&capital::brings::TAX);
    let rounded = on.made(trail, ROUNDED, wage_tax + capital_tax - exact, &[(WAGE_TAX, wage_tax)], &[]);
    let taxes = [
        (INCOME_TAX, of.income_tax),
        (charges::SURCHARGE, of.surcharge),
        (charges::CHURCH, of.church),
        (LEFT, left),
    ];
    let credited = [
        (WAGE_TAX, wage_tax),
        (CAPITAL_TAX, capital_tax),
        (PREPAID_TAX, prepaid),
        (SURCHARGES, surcharges),
        (CHURCH_PAID, church_paid),
        (LEFT, left),
    ];
    let less_rounding = |trail: &mut _, line: LineId, lines: &[(LineId, Money)]| {
        let all = lines.iter().map(|(_, amount)| *amount).sum::<Money>() - rounded;
        on.made(trail, line, all, &[lines, &[(ROUNDED, rounded)]].concat(), &[])
    };
    let total = less_rounding(trail, TOTAL, &taxes);
    let paid = less_rounding(trail, PAID, &credited);
    on.made(trail, BALANCE, total - paid, &[(TOTAL, total), (PAID, paid)], &[]);
    total
}

/// An account number that does not check.
pub fn points(points: &mut Points<'_>) {
    let account = points.answered(ask::ACCOUNT).and_then(hembo_core::household::Entry::text);
    if account.is_some_and(|number| !is_iban(number)) {
        points.raise(&ACCOUNT_WRONG, Place::household(ask::ACCOUNT), "The account number does not check.");
    }
}
