//! Form W-2: its boxes, the codes of box 12, and what its boxes should agree in.

use crate::{
    bringing::{self, Bringing},
    figures::Figures,
    papers::box_12::{BOX_12, CHOICES, Code, Does, coded},
    points::Points,
    states::STATES,
};
use hembo_core::{
    Paper,
    brought::Brought,
    brought::Records,
    check::digits,
    field::{Field, Years},
    open_points,
    pack::Suggestion,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
};
use hembo_money::{Money, Rate, Rounding};
use std::collections::BTreeSet;

/// What this paper declares.
pub static PROVISION: Provision = Provision {
    papers: &[WAGES],
    points: POINTS,
    figures: &["social_security", "additional_medicare", "tips"],
    ..Provision::NONE
};

open_points! {
    SOCIAL_SECURITY_TAX = look "K-041", "IRC §3101(a)", "Look at the paper; keep it or correct it.";
    MEDICARE = look "K-042", "IRC §§3101(b), 3102", "Look at the paper; keep it or correct it.";
    EIN = blocks "K-040", "IRC §6109",
        "Enter it from box b.";
    WAGE_BASE = look "K-043", "IRC §3121(a)(1)",
        "Look at the paper.";
    TOO_MUCH = look "K-044", "IRC §§3121(a)(1), 6413(a)",
        "The employer pays it back, not the return.";
    HALF_WITHHELD = look "K-045", "IRC §3402",
        "Look at boxes 1 and 2.";
    NONQUALIFIED = look "K-046", "IRC §32(c)(2)(B)(ii)",
        "That is right for a pension; else empty the box.";
    DISAGREE = look "K-046-wages", "IRC §3121(a)",
        "Look at the paper: what is taxed is seldom more than Medicare wages.";
    STATE_WAGES = look "K-054", "Instructions for Form W-2, box 16",
        "Look at the paper, and whether the family moved: keep it or correct it.";
    OPTIONS = look "K-051", "Reg. §1.83-7",
        "It is in box 1 already: add it to the basis of the shares when they are sold (Form 8949, code B).";
    NO_CODE = blocks "K-048-code", "Instructions for Form W-2, box 12",
        "Choose its code.";
    CODE_TWICE = look "K-048", "Instructions for Form W-2, box 12",
        "Look at box 12.";
    CODE_LATER = look "K-048-year", "P.L. 119-21 §§70201, 70202, 70204",
        "Choose another code; in 2025 tips and overtime stand in box 14.";
    CODE_NEEDS = not_covered "box-12", "Instructions for Form W-2, box 12";
    STATUTORY = look "K-053", "IRC §3121(d)(3)",
        "Its expenses are deducted on a Schedule C that is marked as a statutory employee's.";
    STATUTORY_SHARED = not_covered "K-053-community", "IRC §66";
    WAIVER_OVER = blocks "waiver-over", "Notice 2014-7",
        "Correct one of the two amounts of box 1.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;
    use hembo_money::Money;

    /// W-2 box 1.
    pub static WAGES: Brought = Brought::new();

    /// Box 1 of who earned it, whoever reports it (§66; §§24(d), 32(c)(2)(B), 219(f)(2)).
    pub static EARNED: Brought = Brought::new();

    /// W-2 box 12 code Q: combat pay, in no box.
    pub static COMBAT: Brought = Brought::new();

    /// W-2 box 12 code II: Medicaid waiver payments, in no box.
    pub static WAIVER: Brought = Brought::new();

    /// Of box 1 Medicaid waiver payments that are excluded.
    pub static WAIVER_IN_WAGES: Brought = Brought::new();

    /// W-2 box 12 code P: moving expenses paid back, in no box.
    pub static MOVING: Brought = Brought::new();

    /// W-2 box 1 of a statutory employee, which belongs on Schedule C.
    pub static STATUTORY: Brought = Brought::new();

    /// Allocated tips as income; ALLOCATED_TIPS are those of who was tipped.
    pub static TIPS_NOT_REPORTED: Brought = Brought::new();

    /// Form 8919: pay without withholding, as income.
    pub static UNWITHHELD: Brought = Brought::new();

    /// The same of who earned it.
    pub static UNWITHHELD_EARNED: Brought = Brought::new();

    /// W-2 box 2.
    pub static WITHHELD: Brought = Brought::new();

    /// W-2 box 4.
    pub static SOCIAL_SECURITY_TAX: Brought = Brought::new();

    /// W-2 box 5.
    pub static MEDICARE_WAGES: Brought = Brought::new();

    /// W-2 box 6.
    pub static MEDICARE_TAX: Brought = Brought::new();

    /// W-2 box 11.
    pub static NONQUALIFIED: Brought = Brought::new();

    /// W-2 box 12 codes D, E, F and S: deferrals within the limit of §402(g), not in box 1.
    pub static DEFERRALS: Brought = Brought::new();

    /// W-2 box 12 codes G and EE.
    pub static PLAN_457: Brought = Brought::new();

    /// W-2 box 12 codes AA and BB: the same, in box 1.
    pub static ROTH_DEFERRALS: Brought = Brought::new();

    /// W-2 box 12 codes A, B, M, N.
    pub static UNCOLLECTED: Brought = Brought::new();

    /// W-2 box 12 code K: excise tax on an excess parachute payment.
    pub static EXCISE: Brought = Brought::new();

    /// W-2 box 10 less what was forfeited.
    pub static CARE_BENEFITS: Brought = Brought::new();

    /// W-2 boxes 3 and 7.
    pub static SOCIAL_SECURITY_WAGES: Brought = Brought::new();

    /// W-2 box 8, or what records show.
    pub static ALLOCATED_TIPS: Brought = Brought::new();

    /// Qualified tips of box 14, from 2026 of box 12.
    pub static TIPS: Brought = Brought::new();

    /// Qualified overtime of box 14, from 2026 of box 12.
    pub static OVERTIME: Brought = Brought::new();

    /// W-2 box 12 code H: deferrals of a plan under 501(c)(18)(D).
    pub static PLAN_501: Brought = Brought::new();

    /// W-2 box 12 code W: contributions to a health savings account.
    pub static HEALTH_SAVINGS: Brought = Brought::new();

    /// W-2 box 13: covered by a retirement plan.
    pub static COVERED: Brought<bool> = Brought::new();

    /// The social security tax with its employer.
    pub static EMPLOYERS: Brought<(String, Money)> = Brought::new();
}

const WAGES: PaperKind = PaperKind {
    id: "W-2",
    subject: subject::PAY,
    name: "Wages",
    words: "pay wages salary job employer work",
    title: "Employer",
    shared: false,
    headline: "1",
    boxes: &[
        Field::text("b", "b", "Employer's EIN", 10).lasts().shape("00-0000000").payer_number(),
        Field::text("d", "d", "Control number", 30),
        Field::amount("1", "1", "Wages, tips, other pay"),
        Field::amount("2", "2", "Federal tax withheld"),
        Field::amount("3", "3", "Social security wages"),
        Field::amount("4", "4", "Social security tax"),
        Field::amount("5", "5", "Medicare wages"),
        Field::amount("6", "6", "Medicare tax"),
        Field::amount("7", "7", "Social security tips"),
        Field::amount("8", "8", "Allocated tips"),
        Field::amount("8.records", "8", "Tips not in box 1, by records")
            .help("Instead of box 8, where records show what was received."),
        Field::amount("10", "10", "Dependent care benefits"),
        Field::amount("10.forfeited", "10", "Of it forfeited or carried on"),
        Field::amount("11", "11", "Nonqualified plans"),
        Field::choice("12a", "12a", "Code", &CHOICES),
        Field::amount("12a.amount", "12a", "Amount"),
        Field::choice("12b", "12b", "Code", &CHOICES),
        Field::amount("12b.amount", "12b", "Amount"),
        Field::choice("12c", "12c", "Code", &CHOICES),
        Field::amount("12c.amount", "12c", "Amount"),
        Field::choice("12d", "12d", "Code", &CHOICES),
        Field::amount("12d.amount", "12d", "Amount"),
        Field::yes_no("13.statutory", "13", "Statutory employee"),
        Field::yes_no("13.retirement", "13", "Retirement plan"),
        Field::yes_no("13.sick", "13", "Third-party sick pay"),
        Field::amount("14", "14", "State disability, family leave")
            .help("Mandatory employee contributions to a state fund; they count as state income tax."),
        Field::amount("14.tips", "14", "Qualified tips")
            .since(2025)
            .until(2025)
            .help("Of boxes 7 and 8; deducted on Schedule 1-A."),
        Field::amount("14.overtime", "14", "Qualified overtime")
            .since(2025)
            .until(2025)
            .help("Only the premium part above the regular rate; deducted on Schedule 1-A."),
        Field::amount("14.waiver", "14", "Medicaid waiver pay in box 1").help(
            "Pay for care in one's own home that is no income (Notice 2014-7) and still stands in box 1.",
        ),
        Field::text("15.id", "15", "Employer's state number", 30),
        Field::choice("15", "15", "State", STATES).lasts(),
        Field::amount("16", "16", "State wages"),
        Field::amount("17", "17", "State tax withheld"),
        Field::amount("18", "18", "Local wages"),
        Field::amount("19", "19", "Local tax withheld"),
        Field::text("20", "20", "Locality", 40),
        Field::choice("15b", "15", "Second state", STATES),
        Field::amount("16b", "16", "State wages"),
        Field::amount("17b", "17", "State tax withheld"),
        Field::amount("18b", "18", "Local wages"),
        Field::amount("19b", "19", "Local tax withheld"),
        Field::text("20b", "20", "Locality", 40),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What someone was paid as an employee: wages, tips not reported, and pay without withholding.
pub fn earned(own: &Records) -> Money {
    [&brings::EARNED, &brings::ALLOCATED_TIPS, &brings::UNWITHHELD_EARNED]
        .into_iter()
        .map(|kind| sum(own.of(kind)))
        .sum()
}

/// Every Form W-2 of the household.
pub fn all<'a>(points: &Points<'a>) -> impl Iterator<Item = &'a Paper> + use<'a> {
    points.papers(WAGES.id)
}

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    wages_of(paper);
    paper.give("2", &brings::WITHHELD);
    paper.give_titled("4", &brings::SOCIAL_SECURITY_TAX);
    paper.give_titled("5", &brings::MEDICARE_WAGES);
    paper.give_titled("6", &brings::MEDICARE_TAX);
    paper.give_titled("11", &brings::NONQUALIFIED);
    paper.give_titled("3", &brings::SOCIAL_SECURITY_WAGES);
    paper.give_titled("7", &brings::SOCIAL_SECURITY_WAGES);
    let by_records = paper.paper.paper.boxes.contains_key("8.records");
    let tips = if by_records { "8.records" } else { "8" };
    paper.give_titled(tips, &brings::ALLOCATED_TIPS);
    paper.give(tips, &brings::TIPS_NOT_REPORTED);
    let benefits = paper.paper.paper.amount("10") - paper.paper.paper.amount("10.forfeited");
    paper.put_titled("10", settled::or_zero(benefits), &brings::CARE_BENEFITS);
    paper.give_titled("14.tips", &brings::TIPS);
    paper.give_titled("14.overtime", &brings::OVERTIME);
    for field in ["14", "17", "19", "17b", "19b"] {
        paper.give(field, &bringing::brings::STATE_INCOME_TAX);
    }
    states(paper);
    employer(paper);
    let reading = paper.paper.paper;
    for (_, amount, code) in coded(reading) {
        let kind = brought_by(code).filter(|_| code.is_of(&paper.facts.figures));
        if let Some(kind) = kind {
            paper.give_titled(amount, kind);
        }
    }
    if reading.flag("13.retirement") {
        for (person, _) in paper.titled.shares(Money::ZERO) {
            paper.facts.people[person].own.add(&brings::COVERED, true);
        }
    }
}

/// Boxes 15 to 17; where box 16 is empty and no state is named, state wages are box 1 with what an employer gave to a health savings account.
fn states(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    let saved = coded(reading).filter(|(_, _, code)| code.does == Does::HealthSavings);
    let whole = reading.amount("1") + saved.map(|(_, amount, _)| reading.amount(amount)).sum();
    let wages = if reading.boxes.contains_key("16") { reading.amount("16") } else { whole };
    paper.give_state("15", wages, "17");
    if reading.boxes.contains_key("15b") {
        paper.give_state("15b", reading.amount("16b"), "17b");
    }
}

/// Box 1: wages, or receipts of a statutory employee; what of it is excluded is not earned unless that is chosen.
fn wages_of(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    if reading.flag("13.statutory") {
        paper.give_titled("1", &brings::STATUTORY);
    } else {
        paper.give("1", &brings::WAGES);
    }
    paper.put_titled("1", reading.amount("1") - reading.amount("14.waiver"), &brings::EARNED);
    paper.give_titled("14.waiver", &brings::WAIVER_IN_WAGES);
}

/// What an amount of box 12 is to the return.
fn brought_by(code: &Code) -> Option<&'static Brought> {
    match code.does {
        Does::Uncollected => Some(&brings::UNCOLLECTED),
        Does::Excise => Some(&brings::EXCISE),
        Does::HealthSavings => Some(&brings::HEALTH_SAVINGS),
        Does::CombatPay => Some(&brings::COMBAT),
        Does::Waiver => Some(&brings::WAIVER),
        Does::Moving => Some(&brings::MOVING),
        Does::Tips => Some(&brings::TIPS),
        Does::Overtime => Some(&brings::OVERTIME),
        Does::Deferral | Does::RothDeferral if code.is_457() => Some(&brings::PLAN_457),
        Does::Deferral if code.id == "H" => Some(&brings::PLAN_501),
        Does::Deferral => Some(&brings::DEFERRALS),
        Does::RothDeferral => Some(&brings::ROTH_DEFERRALS),
        Does::Nothing | Does::Needs(_) => None,
    }
}

/// Employers are told apart by their number, or where that is missing by their name.
fn employer(paper: &mut Bringing<'_>) {
    let number = paper.paper.paper.text("b").map(digits).filter(|n| !n.is_empty());
    let employer = number.unwrap_or_else(|| paper.paper.paper.title.clone());
    for (person, tax) in paper.titled.shares(paper.paper.paper.amount("4")) {
        paper.facts.people[person].own.add(&brings::EMPLOYERS, (employer.clone(), tax));
    }
}

/// What its boxes should agree in.
pub fn points(points: &mut Points<'_>) {
    for paper in all(points) {
        wages(points, paper);
        box_12(points, paper);
        told_elsewhere(points, paper);
    }
}

fn wages(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let amount = |field: &str| paper.amount(field);
    let ein = paper.text("b").map(digits).unwrap_or_default();
    if ein.len() != 9 || !ein.bytes().all(|b| b.is_ascii_digit()) {
        let wrong = if ein.is_empty() { "is missing" } else { "has nine digits" };
        points.raise(&EIN, at("b"), format!("The employer's EIN {wrong}."));
    }
    for expected in payroll(&points.facts.figures, paper) {
        let field = expected.field.as_str();
        let def = if field == "4" { &SOCIAL_SECURITY_TAX } else { &MEDICARE };
        let value: Money = expected.value.parse().unwrap_or_default();
        if paper.boxes.contains_key(field) && (amount(field) - value).cents().abs() > Money::WHOLE.cents() {
            let message = format!("Box {field} should be {value:#} — {}.", expected.why);
            points.suggest(def, at(field), message, value);
        }
    }
    let base = points.facts.figures.social_security.wage_base;
    if amount("3") + amount("7") > base {
        points.raise(&WAGE_BASE, at("3"), format!("Boxes 3 and 7 are over the wage base of {base:#}."));
    }
    if amount("4") > points.facts.figures.social_security.most_tax {
        points.raise(&TOO_MUCH, at("4"), "More social security tax than one employer may take.");
    }
    let half = amount("1").times(Rate::percent(50), Money::CENT, Rounding::HalfUp);
    if amount("2") > half {
        points.raise(&HALF_WITHHELD, at("2"), "More than half of the wages was withheld.");
    }
    if !amount("11").is_zero() {
        points.raise(&NONQUALIFIED, at("11"), "Box 11 is taken out of earned income.");
    }
    if !amount("5").is_zero() && amount("1") > amount("5") {
        points.raise(&DISAGREE, at("5"), "Box 1 is more than box 5.");
    }
    let quarter = amount("1").times(Rate::percent(25), Money::CENT, Rounding::HalfUp);
    let one_state = paper.boxes.contains_key("16") && paper.text("15b").is_none();
    if one_state && (amount("16") - amount("1")).cents().abs() > quarter.cents() {
        points.raise(&STATE_WAGES, at("16"), "Box 16 is far from box 1.");
    }
}

fn box_12(points: &mut Points<'_>, paper: &Paper) {
    for (field, amount) in BOX_12 {
        if paper.text(field).is_none() && !paper.amount(amount).is_zero() {
            let place = Place::paper(&paper.id, field);
            points.raise(&NO_CODE, place, "An amount in box 12 has no code.");
        }
    }
    let mut seen = BTreeSet::new();
    for (field, _, code) in coded(paper) {
        let place = Place::paper(&paper.id, field);
        if !seen.insert(code.id) {
            let message = format!("Code {} stands twice.", code.id);
            points.raise(&CODE_TWICE, place.clone(), message);
        }
        if !code.is_of(&points.facts.figures) {
            let message = format!("Code {} is not on a Form W-2 of this year: it does nothing.", code.id);
            points.raise(&CODE_LATER, place.clone(), message);
        }
        if code.id == "V" {
            points.raise(&OPTIONS, place.clone(), "Box 1 holds income of stock options.");
        }
        if let Does::Needs(form) = code.does {
            let message = format!("Code {} needs {form}, which is not computed yet.", code.id);
            points.raise(&CODE_NEEDS, place, message);
        }
    }
}

/// What its boxes ask for elsewhere.
fn told_elsewhere(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    if paper.flag("13.statutory") && points.facts.divided {
        points.raise(
            &STATUTORY_SHARED,
            at("13.statutory"),
            "Community wages of a statutory employee are not computed yet.",
        );
    } else if paper.flag("13.statutory") {
        points.raise(
            &STATUTORY,
            at("13.statutory"),
            "Box 1 stands on Schedule C, line 1, without the self-employment tax.",
        );
    }
    if paper.amount("14.waiver") > paper.amount("1") {
        points.raise(&WAIVER_OVER, at("14.waiver"), "More is excluded than box 1 holds.");
    }
}

/// Suggestions for the empty boxes.
pub fn suggestions(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    if paper.kind != WAGES.id || paper.amount("1").is_zero() {
        return Vec::new();
    }
    let with_deferrals = paper.amount("1") + deferrals(paper);
    let base = figures.social_security.wage_base;
    let mut all = vec![
        suggestion(
            "3",
            settled::lesser(with_deferrals, base),
            "box 1 with elective deferrals, up to the wage base",
        ),
        suggestion("5", with_deferrals, "box 1 with elective deferrals"),
    ];
    all.extend(payroll(figures, paper));
    if paper.boxes.contains_key("15") {
        all.push(suggestion("16", paper.amount("1"), "box 1"));
    }
    all.retain(|s| !paper.boxes.contains_key(&s.field));
    all
}

/// Boxes 4 and 6 as boxes 3, 5 and 7 make them.
pub fn payroll(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let mut all = Vec::new();
    let social = paper.amount("3") + paper.amount("7");
    if !social.is_zero() {
        let tax = social.times(figures.social_security.rate, Money::CENT, Rounding::HalfUp);
        all.push(suggestion("4", tax, "6.2 % of boxes 3 and 7"));
    }
    let wages = paper.amount("5");
    if !wages.is_zero() {
        let medicare = &figures.additional_medicare;
        let more = settled::or_zero(wages - medicare.withheld_above).times(
            medicare.rate,
            Money::CENT,
            Rounding::HalfUp,
        );
        let tax = wages.times(medicare.regular_rate, Money::CENT, Rounding::HalfUp) + more;
        all.push(suggestion("6", tax, "1.45 % of box 5, and 0.9 % above 200,000"));
    }
    all
}

/// Elective deferrals that are in boxes 3 and 5 but not in box 1.
fn deferrals(paper: &Paper) -> Money {
    let deferred = |does: Does| does == Does::Deferral;
    let amounts = coded(paper).filter(|(_, _, code)| deferred(code.does));
    amounts.map(|(_, amount, _)| paper.amount(amount)).sum()
}

fn suggestion(field: &str, value: Money, why: &str) -> Suggestion {
    Suggestion { field: field.into(), value: value.to_string(), why: why.into() }
}
