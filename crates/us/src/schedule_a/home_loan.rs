//! Home-loan interest (§163(h)(3)), Schedule A line 8, by Table 1 of Pub. 936.

use crate::{
    bringing::{self, Bringing},
    business, home_office, mortgage_credit,
    other_income::{self, Sorted},
    points::Points,
    states,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    brought::Records,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[STATEMENT],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["home_loan", "mortgage_insurance"],
    ..Provision::NONE
};

lines! {
    BALANCE = "us.loan.balance", "Average loan balances", "IRC §163(h)(3)",
        "Half of the first and the last balance of the year, or the lender's figure.";
    MOST = "us.loan.limit", "The loan limit", "IRC §163(h)(3)(B), (F)",
        "The balances that count, up to the limits for newer and older loans.";
    pub L8A = "us.sched_a.8a", "Home-loan interest paid", "IRC §163(h)(3)",
        "Box 1 of Form 1098, and points on a purchase.";
    L8B = "us.sched_a.8b", "Home-loan interest without Form 1098", "IRC §163(h)(3)",
        "Interest to a lender who gives out no form.";
    L8C = "us.sched_a.8c", "Points not on Form 1098", "IRC §461(g)",
        "Points of a lender without the form, and this year's part of those that are spread over the loan.";
    L8D = "us.sched_a.8d", "Mortgage insurance premiums", "IRC §163(h)(3)(E)",
        "Box 5 of Form 1098 from 2026, less a part for each step of income above a start.";
    pub L8E = "us.sched_a.8e", "Home-loan interest", "IRC §163(h)(3)",
        "Interest × loan limit ÷ average balances, to three places, and mortgage insurance premiums.";
}

limits! {
    pub HOME_LOAN = "us.limit.home_loan" on L8E, "Home-loan interest", "only on loans up to the limit",
        "IRC §163(h)(3)(B), (F)";
    INSURANCE = "us.limit.mortgage_insurance" on L8D, "Mortgage insurance premiums", "less by income",
        "IRC §163(h)(3)(E)(ii)";
}

open_points! {
    NO_BALANCE = blocks "K-108", "IRC §163(h)(3); Pub. 936",
        "Enter box 2, or an average balance.";
    END_BALANCE = look "K-108-end", "Pub. 936, Part II",
        "Enter it from the lender's statement.";
    NO_DATE = look "K-108-date", "IRC §163(h)(3)(F)",
        "Enter the origination date; older loans have a higher limit.";
    AVERAGES = not_weighed "C-23", "Pub. 936, Part II; Reg. §1.163-10T(o)(5)",
        "Another way to average the balances is lawful, and a loan may be treated as not secured by the home: not weighed here.";
    REFUND = blocks "overpaid-interest", "IRC §111",
        "Enter what of it was deducted in an earlier year and lowered the tax then: that is income (Schedule 1 line 8z); else 0.";
    OFFICE = blocks "8829-10", "Form 8829, line 10",
        "Enter on Form 8829 only what this return paid, and the interest also on its Form 1098.";
    LENDER = look "K-107", "Schedule A, line 8b",
        "Enter the lender's name, number and address: they stand beside line 8b.";
    SPREAD = blocks "points-spread", "IRC §461(g)(1)",
        "Enter the months of the loan: each has an equal part.";
    REPLACED = blocks "loan-replaced", "IRC §163(h)(3)(B)(i), (F)(iii)",
        "Enter both: up to that balance the loan keeps the date of the one that it replaced.";
}

/// A person's part of a home loan.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Loan {
    pub interest: Item,
    pub points: Item,
    pub average: Money,
    pub other_use: Money,
    pub originated: Option<Date>,
    /// The day and the balance of an older loan that this one replaced: up to the balance it keeps that day (§163(h)(3)(F)(iii)).
    pub replaced: Option<(Date, Money)>,
    /// Part of this year of points that are spread over the loan.
    pub spread: Item,
    /// The lender gives out no Form 1098.
    pub without_form: bool,
}

/// What its papers bring.
pub mod brings {
    use super::Loan;
    use hembo_core::brought::Brought;

    /// Mortgage insurance premiums, 1098 box 5, in years that deduct them.
    pub static INSURANCE: Brought = Brought::new();

    /// Home loans.
    pub static LOANS: Brought<Loan> = Brought::new();
}

impl Loan {
    /// What was paid, with the line of each.
    fn paid(&self) -> [(LineId, &Item); 3] {
        let (interest, points) = if self.without_form { (L8B, L8C) } else { (L8A, L8A) };
        [(interest, &self.interest), (points, &self.points), (L8C, &self.spread)]
    }
}

/// Line 8e: interest and points, times the part of the average balances that the limit allows.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let off = [
        ("Credited on Form 8396", mortgage_credit::of_year(on, &mut Silent)),
        ("Of an office in the home", business::off_schedule_a(on).0),
    ];
    let parts =
        [L8A, L8B, L8C].map(|line| (line, paid(on, trail, line, if line == L8A { &off } else { &[] })));
    let paid = parts.iter().map(|(_, amount)| *amount).sum();
    let ratio = allowed_part(on, trail);
    let allowed = limit::part(trail, HOME_LOAN.at(on.scope), paid, ratio, Money::WHOLE);
    let insurance = insurance(on, trail, agi);
    trail.line(L8E, on.scope, allowed + insurance, |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
        i.figure("Limit ÷ average balance", ratio);
        if !insurance.is_zero() {
            i.line(L8D, on.scope, insurance);
        }
    })
}

/// Line 8a, 8b or 8c: what the loans of a return bring to it, on a joint return each spouse's part on a line of its own. `off` is
/// what other forms take.
fn paid(on: On<'_>, trail: &mut impl Trail, line: LineId, off: &[(&'static str, Money)]) -> Money {
    fn of(own: &Records, line: LineId) -> impl Iterator<Item = &Item> {
        let paid = own.of(&brings::LOANS).iter().flat_map(Loan::paid);
        paid.filter(move |(on, item)| *on == line && !item.amount.is_zero()).map(|(_, item)| item)
    }
    let sum_of = |own: &Records| of(own, line).map(|item| item.amount).sum::<Money>();
    let each: Vec<_> = on.owns().filter(|(_, own)| of(own, line).next().is_some()).collect();
    let joint = on.unit.people.len() > 1;
    for &(person, own) in each.iter().filter(|_| joint) {
        trail.line(line, Scope::Person(person), sum_of(own), |i| {
            i.items(of(own, line));
        });
    }
    let all: Money = each.iter().map(|(_, own)| sum_of(own)).sum();
    let elsewhere = off.iter().map(|(_, amount)| *amount).sum::<Money>();
    trail.line(line, on.scope, settled::or_zero(all.to_whole() - elsewhere), |i| {
        for (name, amount) in off.iter().filter(|(_, amount)| !amount.is_zero()) {
            i.figure(name, *amount);
        }
        for (person, own) in each {
            if joint {
                i.line(line, Scope::Person(person), sum_of(own));
            } else {
                i.items(of(own, line));
            }
        }
    })
}

/// Line 8d: premiums, a part less for each step of income or part of it.
fn insurance(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = on.facts.figures.mortgage_insurance.as_deref() else { return Money::ZERO };
    let paid = sum(on.items(&brings::INSURANCE)).to_whole();
    if paid.is_zero() {
        return Money::ZERO;
    }
    let status = on.unit.status;
    let over = limit::or_zero(trail, agi - *figures.from.of(status));
    let steps = over.steps_of(*figures.step.of(status), Rounding::Up);
    let left = settled::greater(Rate::ONE.billionths() - steps * figures.rate.billionths(), 0);
    let part = Rate::from_billionths(left);
    let allowed = limit::part(trail, INSURANCE.at(on.scope), paid, part, Money::WHOLE);
    trail.line(L8D, on.scope, allowed, |i| {
        i.items(on.items(&brings::INSURANCE)).figure("Part by income", part);
    })
}

/// Table 1: the loan limit ÷ all average balances, to three places, not above one.
fn allowed_part(on: On<'_>, trail: &mut impl Trail) -> Rate {
    let figures = &on.facts.figures.home_loan;
    let status = on.unit.status;
    let (mut grandfathered, mut old, mut new, mut all) = (Money::ZERO, Money::ZERO, Money::ZERO, Money::ZERO);
    for loan in on.owns().flat_map(|(_, own)| own.of(&brings::LOANS)) {
        let for_the_home = loan.average - loan.other_use;
        all += loan.average;
        let (earlier, since) = match loan.replaced {
            Some((date, balance)) => (settled::lesser(for_the_home, balance), Some(date)),
            None => (Money::ZERO, None),
        };
        for (part, date) in [(earlier, since), (for_the_home - earlier, loan.originated)] {
            match date {
                // Before 14 October 1987 any secured debt counts, whatever it was used for.
                Some(date) if date < figures.grandfathered_before.0 && since.is_none() => {
                    grandfathered += loan.average;
                }
                Some(date) if date < figures.grandfathered_before.0 => grandfathered += part,
                Some(date) if date < figures.old_before.0 => old += part,
                _ => new += part,
            }
        }
    }
    let line_6 =
        settled::lesser(grandfathered + old, settled::greater(grandfathered, *figures.most_old.of(status)));
    let line_9 = settled::greater(line_6, *figures.most_new.of(status));
    let most = settled::lesser(line_9, line_6 + new);
    trail.line(BALANCE, on.scope, all, |_| {});
    trail.line(MOST, on.scope, most, |i| {
        i.figure("Limit for newer loans", figures.most_new.of(status));
        i.figure("Limit for older loans", figures.most_old.of(status));
    });
    if most >= all { Rate::ONE } else { most.ratio_to(all, figures.ratio_places, Rounding::HalfUp) }
}

/// The worksheet: where the return itemizes and there is a loan.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.unit.itemizes && filed.has(L8A), "no home loan deducted")
}

const STATEMENT: PaperKind = PaperKind {
    id: "1098",
    subject: subject::DEDUCTIONS,
    name: "Home-loan interest",
    words: "mortgage home house loan bank",
    title: "Lender",
    shared: true,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Interest received"),
        Field::amount("2", "2", "Principal on 1 January"),
        Field::amount("year_end", "", "Principal on 31 December")
            .help("From the lender's statement; with box 2 it gives the average balance."),
        Field::amount("average", "", "Average balance, if stated")
            .help("A figure of the lender replaces the average of the two balances."),
        Field::amount("other_use", "", "Not for the home, average")
            .help("The part of the average balance not used to buy, build or improve the home."),
        Field::date("3", "3", "Origination date").lasts(),
        Field::date("replaced", "", "Date of the loan it replaced")
            .lasts()
            .help("A refinancing: up to the old balance the loan counts as of that day."),
        Field::amount("replaced.balance", "", "Balance of that loan then").lasts(),
        Field::amount("4", "4", "Refund of overpaid interest"),
        Field::amount("4.income", "", "Of it deducted in an earlier year")
            .help("Where that lowered the tax; zero after a standard deduction."),
        Field::amount("5", "5", "Insurance premiums").help("Deducted from 2026 on."),
        Field::amount("6", "6", "Points on purchase"),
        Field::amount("spread", "", "Points spread over the loan, all")
            .lasts()
            .help("Of a refinancing or a second home."),
        Field::count("spread.months", "", "Months of the loan", 600).lasts(),
        Field::count("spread.year", "", "Months of it this year", 12).blank_is("12"),
        Field::amount("spread.before", "", "Deducted in earlier years"),
        Field::yes_no("spread.ended", "", "Loan paid off this year")
            .help("Sold, or refinanced with another lender: the rest is deducted."),
        Field::text("8", "8", "Address of the property", 80).lasts(),
        Field::count("9", "9", "Number of properties", 99).lasts(),
        Field::amount("10", "10", "Real estate tax in escrow"),
        Field::date("11", "11", "Acquisition date").lasts(),
        Field::yes_no("private", "8b", "No Form 1098 was given").lasts().help("A private lender or seller."),
        Field::text("private.number", "8b", "Lender's number", 11).lasts().secret(),
        Field::text("private.address", "8b", "Lender's address", 120).lasts(),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let average = average_balance(paper.paper.paper);
    let loan = |field: &str| paper.paper.shares(paper.paper.paper.amount(field));
    let (interest, points, other) = (loan("1"), loan("6"), loan("other_use"));
    let originated = paper.paper.paper.boxes.get("3").and_then(Entry::date);
    let spread = paper.paper.shares(spread_points(paper.paper.paper));
    let replaced = paper.paper.paper.boxes.get("replaced").and_then(Entry::date);
    let balances = loan("replaced.balance");
    let without_form = paper.paper.paper.flag("private");
    let item = |amount, field| paper.paper.item(field, None, amount);
    let averages = paper.paper.shares(average);
    for (i, (person, average)) in averages.into_iter().enumerate() {
        let loan = Loan {
            interest: item(interest[i].1, "1"),
            points: item(points[i].1, "6"),
            average,
            other_use: settled::lesser(other[i].1, average),
            originated,
            replaced: replaced.map(|date| (date, balances[i].1)),
            spread: item(spread[i].1, "spread"),
            without_form,
        };
        paper.facts.people[person].own.add(&brings::LOANS, loan);
    }
    if paper.facts.figures.mortgage_insurance.is_some() {
        paper.give("5", &brings::INSURANCE);
    }
    paper.give("10", &bringing::brings::REAL_ESTATE_TAX);
    let refunded = paper.paper.paper.amount("4.income");
    paper.put_as("4.income", None, refunded, &other_income::brings::OTHER, Sorted::other);
}

/// This year's part of points that are spread over a loan (§461(g)(1)): by months, and the rest once it is paid off.
fn spread_points(paper: &Paper) -> Money {
    let count = |id: &str| paper.boxes.get(id).and_then(Entry::count);
    let left = settled::or_zero(paper.amount("spread") - paper.amount("spread.before"));
    if paper.flag("spread.ended") {
        return left;
    }
    let Some(months) = count("spread.months").filter(|months| *months > 0) else { return Money::ZERO };
    let (year, whole) = (Money::whole(count("spread.year").unwrap_or(12)), Money::whole(months));
    settled::lesser(left, paper.amount("spread").in_proportion(year, whole, Money::CENT, Rounding::HalfUp))
}

/// The average balance of a home loan (Pub. 936): the lender's figure, or half of the first and the last balance
/// of the year, or the first where the last is not known.
pub fn average_balance(paper: &Paper) -> Money {
    let (first, last) = (paper.amount("2"), paper.amount("year_end"));
    if paper.boxes.contains_key("average") {
        paper.amount("average")
    } else if paper.boxes.contains_key("year_end") {
        (first + last).split(&[1, 1])[0]
    } else {
        first
    }
}

/// Line 8b names the lender.
fn of_private_lender(points: &mut Points<'_>, paper: &Paper) {
    let named = ["private.number", "private.address"].iter().all(|field| paper.text(field).is_some());
    if paper.flag("private") && (!named || paper.title.is_empty()) {
        let place = Place::paper(&paper.id, "private.number");
        points.raise(&LENDER, place, "Who is the lender of this loan?");
    }
}

/// An office cannot take more off Schedule A than the return paid.
fn of_office(points: &mut Points<'_>) {
    let facts = points.facts;
    for unit in points.units {
        let on = On { facts, unit, scope: Scope::Return(0) };
        let (office, _) = business::off_schedule_a(on);
        let paid = on.owns().flat_map(|(_, own)| own.of(&brings::LOANS)).map(|loan| loan.interest.amount);
        if office > paid.sum::<Money>().to_whole() {
            let paper =
                points.papers(home_office::OFFICE.id).next().map(|paper| Place::paper(&paper.id, "10"));
            let message = "The office has more home-loan interest than this return paid.";
            points.raise(&OFFICE, paper.unwrap_or_default(), message);
        }
    }
}

/// What the limit on loans needs to know.
pub fn points(points: &mut Points<'_>) {
    of_office(points);
    for paper in points.papers(STATEMENT.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let has = |field: &str| paper.boxes.contains_key(field);
        if !paper.amount("1").is_zero() && !has("2") && !has("average") {
            points.raise(&NO_BALANCE, at("2"), "Without a balance the loan limit cannot be tested.");
        }
        let share = |limit: &&(hembo_core::limit::LimitAt, hembo_core::limit::LimitTaken)| {
            limit.0.def == &HOME_LOAN && limit.1.allowed < limit.1.entered
        };
        let bites = points.trail.limits.iter().any(|l| share(&l));
        if bites && has("2") && !has("year_end") && !has("average") {
            points.raise(
                &END_BALANCE,
                at("year_end"),
                "The loan limit bites; the balance at the end of the year lowers the average.",
            );
        }
        if bites && !has("3") {
            points.raise(&NO_DATE, at("3"), "Taken as a loan after 15 December 2017.");
        }
        if bites {
            points.raise(&AVERAGES, at("average"), "The loan limit bites.");
        }
        let over = paper.amount("4.income") > paper.amount("4");
        if over || (!paper.amount("4").is_zero() && !has("4.income")) {
            points.raise(
                &REFUND,
                at("4.income"),
                "Was the interest that came back deducted in an earlier year?",
            );
        }
        of_private_lender(points, paper);
        if !paper.amount("spread").is_zero() && !has("spread.months") && !paper.flag("spread.ended") {
            points.raise(&SPREAD, at("spread.months"), "Over how many months are the points spread?");
        }
        if has("replaced") != has("replaced.balance") {
            points.raise(
                &REPLACED,
                at("replaced"),
                "The day or the balance of the replaced loan is missing.",
            );
        }
    }
}
