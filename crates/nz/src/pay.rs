//! Pay, benefits and pensions with tax withheld by the payer (ITA CE 1, RD 3; questions 11 and 12 of the IR3), the earners' levy in
//! it, and payments to contractors.

use crate::{bringing::Bringing, plan::On, points::Points, rounding::cents};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Pay",
    lines: LINES,
    limits: LIMITS,
    papers: &[PAY, SCHEDULAR],
    points: POINTS,
    figures: &["levy", "scale", "dividends"],
    ..Provision::NONE
};

lines! {
    pub GROSS = "nz.employment_gross", "Wages, benefits, pensions", "ITA CE 1, CF 1; IR3 question 11 B",
        "The gross of every payer.";
    PAYE = "nz.paye_total", "PAYE shown, levy included", "ITA RD 3, LB 1",
        "What every payer withheld.";
    LEVY = "nz.earner_levy", "Earners' levy in it", "Accident Compensation Act s 219; IR3 question 11 C",
        "A part of earnings that bear it, up to a most; the fraction of a cent is dropped.";
    pub WITHHELD = "nz.employment_tax", "Tax withheld from pay", "ITA LB 1; IR3 question 11 A",
        "PAYE less the earners' levy in it.";
    pub SCHEDULAR_GROSS = "nz.schedular_gross", "Schedular payments", "ITA RD 8; IR3 question 12 B",
        "The gross of every contract.";
    pub SCHEDULAR_EXPENSES = "nz.schedular_expenses", "Expenses against them", "ITA DA 1; IR3 question 12 C",
        "What was spent to earn them.";
    pub SCHEDULAR_TAX = "nz.schedular_tax", "Tax withheld from them", "ITA LB 1; IR3 question 12 A",
        "What the payers withheld.";
}

limits! {
    LEVY_CAP = "nz.limit.levy" on LEVY, "Earnings that bear the levy", "above the most of a year, no levy", "Accident Compensation Act s 219";
}

open_points! {
    PAYE_HIGH = look "C08", "ITA Schedule 2", "Compare the PAYE with the record of the payer.";
    NO_PAYE = look "C09", "ITA RD 3", "Enter the PAYE, levy included, from the record of the payer.";
    LEVY_BACK = look "C11", "Accident Compensation Act s 219", "The levy of several jobs above the most comes back with the assessment.";
    MONTHS = look "pay-months", "ITA RD 22", "Correct the months, or empty the box so that their sum counts.";
    SCHEDULAR_RATE = look "schedular-rate", "ITA Schedule 4", "Compare with the record of the payer.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Gross pay.
    pub static GROSS: Brought = Brought::new();
    /// Of it what bears the earners' levy.
    pub static LIABLE: Brought = Brought::new();
    /// PAYE with the levy in it.
    pub static PAYE: Brought = Brought::new();
    /// Schedular payments.
    pub static SCHEDULAR: Brought = Brought::new();
    /// Expenses against them.
    pub static SCHEDULAR_EXPENSES: Brought = Brought::new();
    /// Tax withheld from them.
    pub static SCHEDULAR_TAX: Brought = Brought::new();
}

/// Tax codes (ITA Schedule 2).
const CODES: &[Choice] = &[
    Choice::new("M", "M, main job"),
    Choice::new("M SL", "M SL, with a student loan"),
    Choice::new("ME", "ME, main job with the earner credit"),
    Choice::new("ME SL", "ME SL, with a student loan"),
    Choice::new("SB", "SB, second job, lowest rate"),
    Choice::new("SB SL", "SB SL"),
    Choice::new("S", "S, second job"),
    Choice::new("S SL", "S SL"),
    Choice::new("SH", "SH, second job, higher"),
    Choice::new("SH SL", "SH SL"),
    Choice::new("ST", "ST, second job, high"),
    Choice::new("ST SL", "ST SL"),
    Choice::new("SA", "SA, second job, highest"),
    Choice::new("SA SL", "SA SL"),
    Choice::new("ND", "ND, none declared"),
    Choice::new("CAE", "CAE, casual agricultural"),
    Choice::new("EDW", "EDW, election day"),
    Choice::new("NSW", "NSW, seasonal worker"),
    Choice::new("STC", "STC, tailored rate"),
];

const MONTHS_OF_YEAR: &[Choice] = &[
    Choice::new("4", "April"),
    Choice::new("5", "May"),
    Choice::new("6", "June"),
    Choice::new("7", "July"),
    Choice::new("8", "August"),
    Choice::new("9", "September"),
    Choice::new("10", "October"),
    Choice::new("11", "November"),
    Choice::new("12", "December"),
    Choice::new("1", "January"),
    Choice::new("2", "February"),
    Choice::new("3", "March"),
];

/// What kind of payment it is: benefits and pensions bear no levy.
const KINDS: &[Choice] = &[
    Choice::new("wages", "Wages or salary"),
    Choice::new("accident", "Accident compensation"),
    Choice::new("benefit", "Main benefit"),
    Choice::new("super", "NZ Super or veteran's pension"),
    Choice::new("pension", "Another pension"),
    Choice::new("allowance", "Student allowance"),
];

/// The record of a payer.
pub const PAY: PaperKind = PaperKind {
    id: "Pay",
    subject: subject::PAY,
    name: "Income summary of the year",
    words: "wages salary employer paye benefit pension super",
    title: "Payer",
    shared: false,
    headline: "gross",
    boxes: &[
        Field::text("number", "", "Payer's IRD number", 11).payer_number(),
        Field::choice("kind", "", "What is paid", KINDS)
            .blank_is("wages")
            .lasts()
            .help("Benefits, NZ Super, pensions and allowances bear no earners' levy."),
        Field::choice("code", "", "Tax code", CODES).lasts(),
        Field::amount("gross", "11 B", "Gross").help("Blank: the sum of the months."),
        Field::amount("paye", "11 A", "PAYE tax deducted, levy included")
            .help("Blank: the sum of the months."),
        Field::amount("free", "", "Of it without levy").help("Redundancy, retiring allowances and the like."),
        Field::amount("loan", "", "Student loan deducted"),
        Field::amount("saver", "", "KiwiSaver deducted"),
    ],
    columns: &[
        Field::choice("month", "", "Month", MONTHS_OF_YEAR),
        Field::amount("month.gross", "", "Gross"),
        Field::amount("month.tax", "", "PAYE"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const SCHEDULAR: PaperKind = PaperKind {
    id: "Schedular",
    subject: subject::PAY,
    name: "Payments to a contractor",
    words: "contract withholding WT schedular",
    title: "Payer",
    shared: false,
    headline: "gross",
    boxes: &[
        Field::text("number", "", "Payer's IRD number", 11).payer_number(),
        Field::amount("gross", "12 B", "Gross").help("Blank: the sum of the months."),
        Field::amount("tax", "12 A", "Tax withheld").help("Blank: the sum of the months."),
        Field::amount("expenses", "12 C", "Expenses against it").help("What was spent to earn it."),
    ],
    columns: &[
        Field::choice("month", "", "Month", MONTHS_OF_YEAR),
        Field::amount("month.gross", "", "Gross"),
        Field::amount("month.tax", "", "Tax withheld"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What a box says, or the months together where it is blank.
fn of_months(paper: &Paper, field: &str) -> Money {
    if paper.boxes.contains_key(field) { paper.amount(field) } else { months(paper, field) }
}

/// The months together of what a box has for the year.
fn months(paper: &Paper, field: &str) -> Money {
    let column = if field == "gross" { "month.gross" } else { "month.tax" };
    paper.rows.iter().filter_map(|row| row.get(column).and_then(Entry::money)).sum()
}

/// Whether a payment bears the levy.
fn bears_levy(paper: &Paper) -> bool {
    matches!(paper.text("kind"), None | Some("wages" | "accident"))
}

/// Gives pay and contracts to who earned them.
pub fn read(paper: &mut Bringing<'_>) {
    let whole = paper.paper.paper;
    let gross = of_months(whole, "gross");
    if whole.kind == SCHEDULAR.id {
        let tax = of_months(whole, "tax");
        paper.put("gross", None, gross, &brings::SCHEDULAR);
        paper.put("tax", None, tax, &brings::SCHEDULAR_TAX);
        paper.put("expenses", None, paper.amount("expenses"), &brings::SCHEDULAR_EXPENSES);
        return paper.needs_return();
    }
    let liable = if bears_levy(whole) { gross - paper.amount("free") } else { Money::ZERO };
    paper.put("gross", None, gross, &brings::GROSS);
    paper.put("gross", None, liable, &brings::LIABLE);
    paper.put("paye", None, of_months(whole, "paye"), &brings::PAYE);
}

/// Pay and contracts as income: what goes into total income.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Earned {
    pub gross: Money,
    pub schedular: Money,
    pub expenses: Money,
}

/// Questions 11 and 12.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Earned {
    let own = on.own();
    Earned {
        gross: on.gather(trail, GROSS, own.of(&brings::GROSS)),
        schedular: on.gather(trail, SCHEDULAR_GROSS, own.of(&brings::SCHEDULAR)),
        expenses: on.gather(trail, SCHEDULAR_EXPENSES, own.of(&brings::SCHEDULAR_EXPENSES)),
    }
}

/// Tax withheld: PAYE less the levy in it, and that of contracts.
pub fn withheld(on: On<'_>, trail: &mut impl Trail) -> [(&'static str, Money); 2] {
    let own = on.own();
    let paye = on.gather(trail, PAYE, own.of(&brings::PAYE));
    let figures = &on.facts.figures.levy;
    let earned = settled::or_zero(sum(own.of(&brings::LIABLE)));
    let within = limit::cap(trail, LEVY_CAP.at(on.scope), earned, figures.most);
    let levy = within.times(figures.rate, Money::CENT, Rounding::Down);
    trail.line(LEVY, on.scope, levy, |i| {
        i.items(own.of(&brings::LIABLE)).figure("Rate", figures.rate).figure("At most of", figures.most);
    });
    // A payer that withheld nothing withheld no levy either.
    let tax = on.made(trail, WITHHELD, settled::or_zero(paye - levy), &[(PAYE, paye), (LEVY, levy)], &[]);
    let schedular = on.gather(trail, SCHEDULAR_TAX, own.of(&brings::SCHEDULAR_TAX));
    [(WITHHELD, tax), (SCHEDULAR_TAX, schedular)]
}

/// PAYE that cannot be right, months apart from their sum, levy that comes back.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAY.id) {
        one(points, paper, "paye");
        withheld_looks_right(points, paper);
    }
    for paper in points.papers(SCHEDULAR.id) {
        one(points, paper, "tax");
        let (gross, tax) = (of_months(paper, "gross"), of_months(paper, "tax"));
        if tax > gross {
            let place = Place::paper(&paper.id, "tax");
            points.raise(&SCHEDULAR_RATE, place, "More tax withheld than was paid.");
        }
    }
    let most = points.facts.figures.levy.most;
    for (_, person) in points.returns() {
        let liable = points.facts.people[person].own.of(&brings::LIABLE);
        if liable.len() > 1 && sum(liable) > most {
            let message = format!("{}: several jobs above {most:#}.", points.name(person));
            points.raise(&LEVY_BACK, points.at(person, "name"), message);
        }
    }
}

/// Months that do not add up to the box.
fn one(points: &mut Points<'_>, paper: &Paper, tax: &'static str) {
    for field in ["gross", tax] {
        let months = months(paper, field);
        let told = paper.amount(field);
        if paper.boxes.contains_key(field) && !months.is_zero() && told != months {
            let message = format!("The box says {told:#}, the months make {months:#}.");
            points.suggest(&MONTHS, Place::paper(&paper.id, field), message, months);
        }
    }
}

/// The most that any code withholds, levy included: 39 % and the levy; 45 % where none was declared.
fn withheld_looks_right(points: &mut Points<'_>, paper: &Paper) {
    let (gross, paye) = (of_months(paper, "gross"), of_months(paper, "paye"));
    let figures = &points.facts.figures;
    let top = figures.scale.rates.last().copied().unwrap_or(Rate::ZERO);
    let most = match paper.text("code") {
        Some("ND") => cents(gross, figures.dividends.without_number),
        _ => cents(gross, top) + cents(gross, figures.levy.rate) + Money::CENT,
    };
    let place = Place::paper(&paper.id, "paye");
    if paye > most {
        points.raise(&PAYE_HIGH, place, format!("PAYE of {paye:#} on {gross:#} is unusually high."));
    } else if paye.is_zero() && gross > Money::whole(2000) {
        points.raise(&NO_PAYE, place, format!("No PAYE on {gross:#}."));
    }
}
