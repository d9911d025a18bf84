//! State and local taxes (§164), Schedule A lines 5a to 5e.

use crate::{
    bringing::{self, Bringing},
    business, deduction,
    facts::Facts,
    foreign_tax, income,
    points::Points,
    states, status,
    unit::{On, TaxesDeducted},
};
use hembo_core::{
    Silent,
    brought::{Brought, Records},
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    field::{Field, Years},
    limit::{self, PhaseOut},
    limits, lines, open_points,
    paper::{Back, Counted, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
    words::first_name,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[PROPERTY_TAX, SALES_TAX, STATE_TAX],
    counted: COUNTED,
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["taxes"],
    ..Provision::NONE
};

open_points! {
    ROUND = look "K-109", "IRC §164(a)(1)",
        "Take the amount from the bill or the receipt.";
}

/// What other papers hold of these taxes.
const COUNTED: &[Counted] = &[
    Counted { at: PROPERTY_TAX.id, from: "1098", boxes: &["10"] },
    Counted { at: STATE_TAX.id, from: "W-2", boxes: &["14", "17", "19", "17b", "19b"] },
    Counted { at: STATE_TAX.id, from: "1099-R", boxes: &["14", "17"] },
    Counted { at: STATE_TAX.id, from: "1099-INT", boxes: &["17"] },
    Counted { at: STATE_TAX.id, from: "1099-OID", boxes: &["14"] },
    Counted { at: STATE_TAX.id, from: "1099-DIV", boxes: &["16"] },
    Counted { at: STATE_TAX.id, from: "1099-B", boxes: &["16"] },
    Counted { at: STATE_TAX.id, from: "1099-G", boxes: &["11"] },
    Counted { at: STATE_TAX.id, from: "1099-NEC", boxes: &["5"] },
    Counted { at: STATE_TAX.id, from: "W-2G", boxes: &["15", "17"] },
];

lines! {
    pub L5A = "us.sched_a.5a", "State income or sales tax", "IRC §164(a)(3), (b)(5)",
        "Income tax withheld and paid, or general sales tax: one of them.";
    pub L5B = "us.sched_a.5b", "Real estate tax", "IRC §164(a)(1)",
        "Bills paid, and box 10 of Form 1098.";
    pub L5C = "us.sched_a.5c", "Personal property tax", "IRC §164(a)(2)",
        "Charged yearly on the value.";
    pub L5D = "us.sched_a.5d", "State and local taxes paid", "IRC §164",
        "Lines 5a to 5c.";
    MOST = "us.sched_a.cap", "The cap on these taxes", "IRC §164(b)(6), (7)",
        "The full cap less a part of income above the threshold, not below its floor.";
    pub L5E = "us.sched_a.5e", "State and local taxes", "IRC §164(b)(6)",
        "The smaller of what was paid and the cap.";
}

limits! {
    TAXES_PHASE_DOWN = "us.limit.taxes_phase_down" on MOST, "Cap on state and local taxes", "shrinks with income above the threshold",
        "IRC §164(b)(7)";
    TAXES_CAP = "us.limit.taxes" on L5E, "State and local taxes", "over the cap",
        "IRC §164(b)(6)";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// General sales tax from receipts.
    pub static SALES_ACTUAL: Brought = Brought::new();

    /// General sales tax by the tables for a joint return or a person alone, and on vehicles.
    pub static SALES_TABLE: Brought = Brought::new();

    /// General sales tax by the tables for a separate return, and on vehicles.
    pub static SALES_TABLE_SEPARATE: Brought = Brought::new();

    /// Personal property tax.
    pub static PERSONAL: Brought = Brought::new();
}

/// State and local taxes.
#[derive(Debug, Clone, Copy)]
pub struct Local {
    /// Line 5e.
    pub allowed: Money,
    /// Of it general sales tax and real estate tax, which belong to no income.
    pub general: Money,
}

/// Line 5e. The cap shrinks by 30 % of modified income above the threshold, not below its floor (§164(b)(7)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Local {
    let kind = match on.unit.taxes {
        TaxesDeducted::Income => &bringing::brings::STATE_INCOME_TAX,
        TaxesDeducted::SalesActual => &brings::SALES_ACTUAL,
        TaxesDeducted::SalesTable if on.unit.people.len() == 1 => table_apart(on.facts),
        TaxesDeducted::SalesTable => &brings::SALES_TABLE,
    };
    let general = on.gather(trail, L5A, kind);
    let real_estate = real_estate(on, trail);
    let personal = on.gather(trail, L5C, &brings::PERSONAL);
    let real_estate_tax = &bringing::brings::REAL_ESTATE_TAX;
    on.parts(trail, L5D, &[(L5A, kind), (L5B, real_estate_tax), (L5C, &brings::PERSONAL)]);
    let paid = trail.line(L5D, on.scope, general + real_estate + personal, |i| {
        i.line(L5A, on.scope, general).line(L5B, on.scope, real_estate).line(L5C, on.scope, personal);
    });
    let most = cap(on, trail, agi);
    let allowed = limit::cap(trail, TAXES_CAP.at(on.scope), paid, most);
    trail.line(L5E, on.scope, allowed, |i| {
        i.line(L5D, on.scope, paid).line(MOST, on.scope, most);
    });
    Local { allowed, general: foreign_tax::general_taxes(on, general, real_estate, paid, allowed) }
}

/// Line 5c.
pub fn personal(on: On<'_>) -> Money {
    sum(on.items(&brings::PERSONAL)).to_whole()
}

/// Lines 5b and 5c.
pub fn of_property(on: On<'_>) -> Money {
    real_estate(on, &mut Silent) + personal(on)
}

/// Line 5b: without the part of an office in the home.
pub fn real_estate(on: On<'_>, trail: &mut impl Trail) -> Money {
    let kind = &bringing::brings::REAL_ESTATE_TAX;
    let (_, office) = business::off_schedule_a(on);
    if office.is_zero() {
        return on.gather(trail, L5B, kind);
    }
    let paid = sum(on.items(kind)).to_whole();
    trail.line(L5B, on.scope, settled::or_zero(paid - office), |i| {
        i.items(on.items(kind)).figure("Of an office in the home", office);
    })
}

/// The cap of the status, less its phase-down where the year has one.
fn cap(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let figures = &on.facts.figures.taxes;
    let status = on.unit.status;
    let full = *figures.cap.of(status);
    let Some(down) = &figures.phase_down else {
        return trail.line(MOST, on.scope, full, |i| {
            i.figure("Full cap", full);
        });
    };
    let rule = PhaseOut {
        least: *down.least.of(status),
        ..PhaseOut::continuous(*down.from.of(status), down.rate, Money::WHOLE)
    };
    let most = limit::phase_out(trail, TAXES_PHASE_DOWN.at(on.scope), full, agi, rule);
    trail.line(MOST, on.scope, most, |i| {
        i.figure("Full cap", full).figure("Shrinks above", rule.start).line(income::AGI, on.scope, agi);
    })
}

const PROPERTY_TAX: PaperKind = PaperKind {
    id: "Property tax",
    subject: subject::DEDUCTIONS,
    name: "Real estate and personal property tax",
    words: "salt house real estate council car",
    title: "Collector",
    shared: true,
    headline: "real_estate",
    boxes: &[
        Field::amount("real_estate", "5b", "Real estate tax")
            .help("Not what box 10 of a 1098 already brings."),
        Field::amount("personal", "5c", "Personal property tax").help("Charged yearly on the value."),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const SALES_TAX: PaperKind = PaperKind {
    id: "Sales tax",
    subject: subject::DEDUCTIONS,
    name: "General sales tax, instead of state income tax",
    words: "salt purchases",
    title: "About",
    shared: true,
    headline: "actual",
    boxes: &[
        Field::amount("actual", "", "Paid on receipts")
            .help("All general sales tax of the year, from receipts."),
        Field::amount("table", "", "By the table, joint or alone").help(
            "From the optional tables for the joint return, or for a person alone, with the local part.",
        ),
        Field::amount("table_separate", "", "By the table, separate return")
            .help("From the optional tables for the owner's own separate return."),
        Field::amount("vehicles", "", "On a car, boat, home").help("Added to the table's amount."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const STATE_TAX: PaperKind = PaperKind {
    id: "State tax paid",
    subject: subject::DEDUCTIONS,
    name: "State and local income tax paid",
    words: "salt local city income",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[states::SEPARATE],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "What for", 80).help("Estimated tax, last year's balance…"),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives what was paid to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    match paper.paper.paper.kind.as_str() {
        id if id == PROPERTY_TAX.id => {
            paper.give("real_estate", &bringing::brings::REAL_ESTATE_TAX);
            paper.give("personal", &brings::PERSONAL);
        }
        id if id == SALES_TAX.id => sales_tax(paper),
        _ => paper.rows(&bringing::brings::STATE_INCOME_TAX),
    }
}

fn sales_tax(paper: &mut Bringing<'_>) {
    paper.give("actual", &brings::SALES_ACTUAL);
    paper.give("table", &brings::SALES_TABLE);
    paper.give("table_separate", &brings::SALES_TABLE_SEPARATE);
    paper.give("vehicles", &brings::SALES_TABLE);
    paper.give("vehicles", &brings::SALES_TABLE_SEPARATE);
}

/// The law of the choice between income and sales tax.
const CITE: &str = "IRC §164(b)(5)";

/// Income or sales tax on the joint or only return.
pub static DEDUCTED: Open<Facts> = Open::new(together, |facts, _| {
    let options = options(facts, any(facts, &brings::SALES_TABLE), "");
    Decision::between("us.taxes", "Taxes deducted", CITE, options)
})
.arises(|facts, _, way| !status::separate(facts, way) && deduction::itemizes_together(way));

/// The same on the separate return of a filer, by the filer's place among them.
pub static DEDUCTED_APART: Open<Facts> = Open::new(apart, |facts, place| {
    let person = &facts.people[facts.filers[place]];
    let table = any(facts, table_apart(facts));
    let options = options(facts, table, first_name(&person.name));
    Decision::between(
        format!("us.taxes.{}", person.id),
        format!("Taxes deducted by {}", person.name),
        CITE,
        options,
    )
})
.arises(|facts, place, way| status::separate(facts, way) && deduction::itemizes_apart(way, place))
.bars(
    |facts, place, option, way| {
        if place == 1 && facts.couple() { other_method(option, way) } else { None }
    },
);

/// Whether papers bring any such tax.
pub fn anything(own: &Records) -> bool {
    let paid = [
        &bringing::brings::STATE_INCOME_TAX,
        &bringing::brings::REAL_ESTATE_TAX,
        &brings::SALES_ACTUAL,
        &brings::SALES_TABLE,
        &brings::PERSONAL,
    ];
    paid.into_iter().any(|tax| own.has(tax))
}

fn any(facts: &Facts, kind: &'static Brought) -> bool {
    facts.filers.iter().any(|&f| facts.people[f].own.has(kind))
}

fn together(facts: &Facts) -> Vec<usize> {
    let some = any(facts, &brings::SALES_ACTUAL) || any(facts, &brings::SALES_TABLE);
    if some { vec![0] } else { Vec::new() }
}

fn apart(facts: &Facts) -> Vec<usize> {
    let some = any(facts, &brings::SALES_ACTUAL) || any(facts, table_apart(facts));
    if facts.filers.len() == 2 && some { vec![0, 1] } else { Vec::new() }
}

/// The table for someone who files alone: that for a separate return where it is a spouse's.
fn table_apart(facts: &Facts) -> &'static Brought {
    if facts.couple() { &brings::SALES_TABLE_SEPARATE } else { &brings::SALES_TABLE }
}

fn options(facts: &Facts, table: bool, whose: &str) -> Vec<Opt> {
    let of = |word: &str| format!("{whose} {word}").trim_start().to_owned();
    let mut options = vec![Opt::new("income", "State income tax", "")];
    if any(facts, &brings::SALES_ACTUAL) {
        options.push(Opt::new("sales", "General sales tax, receipts", of("sales tax")));
    }
    if table {
        options.push(Opt::new("table", "General sales tax, by the table", of("sales tax by the table")));
    }
    options
}

/// Spouses who both deduct sales tax use the tables together or not at all (Schedule A instructions).
fn other_method(option: usize, way: Chosen<'_, '_, Facts>) -> Option<Bar> {
    let theirs = way.option(&DEDUCTED_APART, 0)?;
    let mine = way.offered(&DEDUCTED_APART, 1, option)?;
    let clash = matches!((theirs.id.as_str(), mine.id.as_str()), ("sales", "table") | ("table", "sales"));
    clash.then_some(Bar::Borrowed("the spouse uses the other method for sales tax"))
}

/// What a way deducts on the joint or only return.
pub fn deducted_together(way: Chosen<'_, '_, Facts>) -> TaxesDeducted {
    deducted(way.option(&DEDUCTED, 0))
}

/// What a way deducts on the separate return of a filer.
pub fn deducted_apart(way: Chosen<'_, '_, Facts>, place: usize) -> TaxesDeducted {
    deducted(way.option(&DEDUCTED_APART, place))
}

fn deducted(option: Option<&Opt>) -> TaxesDeducted {
    match option.map(|o| o.id.as_str()) {
        Some("sales") => TaxesDeducted::SalesActual,
        Some("table") => TaxesDeducted::SalesTable,
        _ => TaxesDeducted::Income,
    }
}

/// A tax that looks estimated.
pub fn points(points: &mut Points<'_>) {
    const THOUSAND: i64 = 100_000;
    for paper in points.papers(PROPERTY_TAX.id) {
        let cents = paper.amount("real_estate").cents();
        if cents > 0 && cents % THOUSAND == 0 {
            points.raise(
                &ROUND,
                Place::paper(&paper.id, "real_estate"),
                "This property tax is in round thousands.",
            );
        }
    }
}
