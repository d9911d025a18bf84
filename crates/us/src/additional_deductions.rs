//! Schedule 1-A (2025 to 2028): deductions for tips (§224), overtime (§225), the interest on a car loan (§163(h)(4)) and seniors
//! (§151(d)(5)(C)), whether the return itemizes or not.

use crate::{
    bringing::Bringing,
    figures::{ByStatus, WorkDeduction},
    filing_status::Status,
    income,
    papers::w2,
    points::Points,
    states,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit::{self, LimitDef, PhaseOut},
    limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Item, Scope, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[CAR_LOAN],
    points: POINTS,
    figures: &["car_loan", "tips", "overtime", "senior", "standard_deduction"],
    ..Provision::NONE
};

lines! {
    TIPS_MOST = "us.sched_1a.7", "Tips, up to the amount of a return", "IRC §224(b)(1)",
        "Qualified tips of all filers with a number valid for work.";
    pub TIPS = "us.sched_1a.13", "Tips deduction", "IRC §224",
        "Qualified tips, less 100 for each full 1,000 of income above the threshold.";
    OVERTIME_MOST = "us.sched_1a.15", "Overtime, up to the amount of a return", "IRC §225(b)(1)",
        "The premium part of overtime of all filers with a number valid for work.";
    pub OVERTIME = "us.sched_1a.21", "Overtime deduction", "IRC §225",
        "Qualified overtime, less 100 for each full 1,000 of income above the threshold.";
    CAR_MOST = "us.sched_1a.24", "Car-loan interest, up to the amount of a return", "IRC §163(h)(4)(C)(i)",
        "Interest on loans for new cars assembled in the United States.";
    pub CAR = "us.sched_1a.30", "Car-loan interest", "IRC §163(h)(4)",
        "Interest, less 200 for each 1,000 or part of it of income above the threshold.";
    pub SENIOR_EACH = "us.senior", "Senior deduction of this person", "IRC §151(d)(5)(C)",
        "An amount from the age of 65, less a part of income above the threshold.";
    pub SENIORS = "us.sched_1a.37", "Senior deduction", "IRC §151(d)(5)(C)",
        "That of each person.";
    pub L13B = "us.13b", "Additional deductions", "IRC §§151(d)(5)(C), 163(h)(4), 224, 225",
        "Schedule 1-A, line 38.";
}

limits! {
    TIPS_CAP = "us.limit.tips" on TIPS_MOST, "Tips", "over the amount of a return", "IRC §224(b)(1)";
    TIPS_INCOME = "us.limit.tips_income" on TIPS, "Tips", "shrinks with income above the threshold",
        "IRC §224(b)(2)";
    OVERTIME_CAP = "us.limit.overtime" on OVERTIME_MOST, "Overtime", "over the amount of a return", "IRC §225(b)(1)";
    OVERTIME_INCOME = "us.limit.overtime_income" on OVERTIME, "Overtime", "shrinks with income above the threshold",
        "IRC §225(b)(2)";
    CAR_CAP = "us.limit.car_loan" on CAR_MOST, "Car-loan interest", "over the amount of a return",
        "IRC §163(h)(4)(C)(i)";
    CAR_INCOME = "us.limit.car_loan_income" on CAR, "Car-loan interest", "shrinks with income above the threshold",
        "IRC §163(h)(4)(C)(ii)";
    SENIOR = "us.limit.senior" on SENIOR_EACH, "Senior deduction", "shrinks with income above the threshold",
        "IRC §151(d)(5)(C)(iii)";
}

open_points! {
    VIN = blocks "K-116", "IRC §163(h)(4)(D)",
        "Enter the 17 characters of the vehicle identification number: it stands on the return.";
    TESTS = blocks "car-loan-tests", "IRC §163(h)(4)(B), (D)",
        "A loan after 2024 for a new car assembled in the United States, first lien, for personal use: answer each.";
    TIPS_EVIDENCE = blocks "K-117", "IRC §224(c), (d)",
        "No more than boxes 7 and 8 show: correct the amount, or those boxes.";
    OVERTIME_PART = look "K-118", "IRC §225(c)",
        "Only the part above the regular rate that the Fair Labor Standards Act requires counts: of time and a half a third.";
    OCCUPATION = look "tips-occupation", "IRC §224(d)(1)",
        "Only in an occupation on the list that was tipped before 2025, voluntary and not a service charge.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Interest on car loans that qualify.
    pub static CAR_LOANS: Brought = Brought::new();
}

const CAR_LOAN: PaperKind = PaperKind {
    id: "Car loan",
    subject: subject::ADJUSTMENTS,
    name: "Interest on a car loan",
    words: "car auto vehicle loan interest vin schedule 1-a 1098-vli",
    title: "Lender",
    shared: true,
    headline: "interest",
    boxes: &[
        Field::amount("interest", "", "Interest paid").help("Not what a business deducts."),
        Field::text("vin", "", "Vehicle identification number", 17).lasts().shape("00000000000000000"),
        Field::date("made", "", "Loan made on").lasts(),
        Field::yes_no("new", "", "New car, first used by the owner").lasts(),
        Field::yes_no("assembled", "", "Final assembly in the United States").lasts(),
        Field::yes_no("personal", "", "For personal use").lasts().help("Over half of it; not a lease."),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years { since: Some(2025), until: None },
    next_year: NextYear::Again,
};

/// The tests of a qualified loan, each by its box.
const TESTS_ASKED: [&str; 3] = ["new", "assembled", "personal"];

fn made_in_time(paper: &Paper, first_year: i32) -> bool {
    paper.boxes.get("made").and_then(Entry::date).is_some_and(|day| day.year() >= first_year)
}

/// Gives the interest of a loan that qualifies to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let Some(figures) = &paper.facts.figures.car_loan else { return };
    let reading = paper.paper.paper;
    let qualifies = TESTS_ASKED.into_iter().all(|test| reading.flag(test));
    if qualifies && made_in_time(reading, figures.made_from) {
        paper.give("interest", &brings::CAR_LOANS);
    }
}

/// What Schedule 1-A comes to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Additional {
    /// Line 38.
    pub sum: Money,
    /// Line 37, which the minimum tax does not allow.
    pub seniors: Money,
}

/// Line 38; `agi` is the income of all its parts.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Additional {
    let figures = &on.facts.figures;
    let tips = figures.tips.as_deref().map_or(Money::ZERO, |figures| {
        work(on, trail, agi, figures, &w2::brings::TIPS, (TIPS_MOST, TIPS), (&TIPS_CAP, &TIPS_INCOME))
    });
    let overtime = figures.overtime.as_deref().map_or(Money::ZERO, |figures| {
        work(
            on,
            trail,
            agi,
            figures,
            &w2::brings::OVERTIME,
            (OVERTIME_MOST, OVERTIME),
            (&OVERTIME_CAP, &OVERTIME_INCOME),
        )
    });
    let car = car_loan(on, trail, agi);
    let seniors = seniors(on, trail, agi);
    let parts = [(TIPS, tips), (OVERTIME, overtime), (CAR, car), (SENIORS, seniors)];
    let sum = trail.line(L13B, on.scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    });
    Additional { sum, seniors }
}

/// Tips or overtime of who has a number valid for work: up to an amount, less a part of it for full steps of income. Barred on
/// separate returns.
fn work(
    on: On<'_>,
    trail: &mut impl Trail,
    agi: Money,
    figures: &WorkDeduction,
    kind: &'static hembo_core::brought::Brought,
    (most_line, line): (LineId, LineId),
    (cap, by_income): (&'static LimitDef, &'static LimitDef),
) -> Money {
    let able = on.owns().filter(|(person, _)| on.facts.people[*person].work_ssn);
    let items: Vec<Item> = able.flat_map(|(_, own)| own.of(kind)).copied().collect();
    if items.is_empty() {
        return Money::ZERO;
    }
    let all = sum(&items).to_whole();
    let most = limit::cap(trail, cap.at(on.scope), all, *figures.most.of(on.unit.status));
    trail.line(most_line, on.scope, most, |i| {
        i.items(&items);
    });
    if on.unit.status == Status::Separate {
        return trail.line(line, on.scope, Money::ZERO, |i| {
            i.line(most_line, on.scope, most).figure("Not available", "on a separate return");
        });
    }
    let rule = steps(&figures.from, on.unit.status, figures.step, Rounding::Down, figures.rate);
    let allowed = limit::phase_out(trail, by_income.at(on.scope), most, agi, rule);
    trail.line(line, on.scope, allowed, |i| {
        i.line(most_line, on.scope, most)
            .line(income::AGI, on.scope, agi)
            .figure("Shrinks above", rule.start);
    })
}

fn steps(from: &ByStatus, status: Status, step: Money, rounding: Rounding, rate: Rate) -> PhaseOut {
    PhaseOut {
        start: *from.of(status),
        step: Some((step, rounding)),
        rate,
        least: Money::ZERO,
        unit: Money::WHOLE,
    }
}

/// Lines 22 to 30: on separate returns, too, each with its own amount.
fn car_loan(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.car_loan else { return Money::ZERO };
    let paid = sum(on.items(&brings::CAR_LOANS)).to_whole();
    if paid.is_zero() {
        return Money::ZERO;
    }
    let most = limit::cap(trail, CAR_CAP.at(on.scope), paid, figures.most);
    trail.line(CAR_MOST, on.scope, most, |i| {
        i.items(on.items(&brings::CAR_LOANS));
    });
    let rule = steps(&figures.from, on.unit.status, figures.step, Rounding::Up, figures.rate);
    let allowed = limit::phase_out(trail, CAR_INCOME.at(on.scope), most, agi, rule);
    trail.line(CAR, on.scope, allowed, |i| {
        i.line(CAR_MOST, on.scope, most).line(income::AGI, on.scope, agi).figure("Shrinks above", rule.start);
    })
}

/// Line 37: an amount for each filer of 65, each less a part of income above the threshold. Barred on separate returns.
fn seniors(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.senior else { return Money::ZERO };
    let aged = on.facts.figures.standard_deduction.aged;
    let rule = PhaseOut::continuous(*figures.from.of(on.unit.status), figures.rate, Money::WHOLE);
    let mut each = Vec::new();
    for &person in &on.unit.people {
        let about = &on.facts.people[person];
        if on.unit.status == Status::Separate || !about.work_ssn || !about.reached(aged, on.facts.year_end) {
            continue;
        }
        let scope = Scope::Person(person);
        let allowed = limit::phase_out(trail, SENIOR.at(scope), figures.each, agi, rule);
        trail.line(SENIOR_EACH, scope, allowed, |i| {
            i.figure("Each", figures.each)
                .line(income::AGI, on.scope, agi)
                .figure("Shrinks above", rule.start);
        });
        each.push((person, allowed));
    }
    on.of_each(trail, SENIORS, SENIOR_EACH, &each)
}

/// Schedule 1-A: where it deducts anything.
pub fn schedule_1_a(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L13B), "neither tips, overtime, car loan nor seniors")
}

/// What the loans and the tips must show.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CAR_LOAN.id) {
        car(points, paper);
    }
    for paper in w2::all(points) {
        pay(points, paper);
    }
}

fn car(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let Some(first) = points.facts.figures.car_loan.as_deref().map(|figures| figures.made_from) else {
        return;
    };
    let unanswered = TESTS_ASKED.into_iter().find(|test| !paper.boxes.contains_key(*test));
    if let Some(test) = unanswered {
        points.raise(&TESTS, at(test), "Does this loan qualify?");
    }
    if !paper.boxes.contains_key("made") {
        points.raise(&TESTS, at("made"), "When was this loan made?");
    }
    let qualifies = TESTS_ASKED.into_iter().all(|test| paper.flag(test)) && made_in_time(paper, first);
    let vin = paper.text("vin").unwrap_or_default();
    if qualifies && !is_vin(vin) {
        let message = if vin.is_empty() {
            "The vehicle identification number is missing."
        } else {
            "This is no valid vehicle identification number."
        };
        points.raise(&VIN, at("vin"), message);
    }
}

/// 17 characters without I, O and Q, with the check digit in the ninth place (49 CFR §565.15).
pub fn is_vin(vin: &str) -> bool {
    const WEIGHTS: [u32; 17] = [8, 7, 6, 5, 4, 3, 2, 10, 0, 9, 8, 7, 6, 5, 4, 3, 2];
    let value = |c: char| match c.to_ascii_uppercase() {
        c @ '0'..='9' => c.to_digit(10),
        c @ 'A'..='H' => Some(c as u32 - 'A' as u32 + 1),
        c @ 'J'..='N' => Some(c as u32 - 'J' as u32 + 1),
        'P' => Some(7),
        'R' => Some(9),
        c @ 'S'..='Z' => Some(c as u32 - 'S' as u32 + 2),
        _ => None,
    };
    let Some(values) = vin.chars().map(value).collect::<Option<Vec<u32>>>() else { return false };
    let check: u32 = values.iter().zip(WEIGHTS).map(|(value, weight)| value * weight).sum::<u32>() % 11;
    let expected = if check == 10 { 'X' } else { char::from_digit(check, 10).unwrap_or('X') };
    values.len() == WEIGHTS.len() && vin.to_ascii_uppercase().chars().nth(8) == Some(expected)
}

fn pay(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let (tips, overtime) = (paper.amount("14.tips"), paper.amount("14.overtime"));
    if tips > paper.amount("7") + paper.amount("8") {
        points.raise(&TIPS_EVIDENCE, at("14.tips"), "More tips are deducted than boxes 7 and 8 show.");
    }
    if !tips.is_zero() {
        points.raise(&OCCUPATION, at("14.tips"), "Is this an occupation whose tips are deducted?");
    }
    if overtime > paper.amount("1").times(Rate::percent(33), Money::CENT, Rounding::Up) {
        points.raise(&OVERTIME_PART, at("14.overtime"), "Over a third of the wages is overtime premium.");
    }
}
