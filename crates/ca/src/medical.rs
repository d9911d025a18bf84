//! Medical expenses (ITA 118.2, 122.51): any twelve months ending in the year, lines 33099, 33200 and 45200.

use crate::{
    bringing::{self, Bringing},
    facts::{Facts, Receipt, Window},
    income,
    papers::t4,
    personal::Incomes,
    plan::On,
    points::Points,
    rounding::cents,
};
use hembo_core::{
    choice::Open,
    decision::{Decision, Opt},
    field::{Field, Years},
    household::Entry,
    limit::{self, LimitAt, PhaseOut},
    limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;
use time::{Date, Duration};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[RECEIPTS],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["medical", "medical_supplement", "age"],
    ..Provision::NONE
};

lines! {
    pub CLAIMED = "ca.33099", "Medical bills of the window", "ITA 118.2(1)",
        "Receipts of the twelve months, less what was paid back.";
    pub ALLOWED = "ca.33200", "Medical above the threshold", "ITA 118.2(1)",
        "Above a part of net income, or the most of the threshold.";
    pub PROVINCIAL_ALLOWED = "ca.58769", "Medical above the threshold, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "The same receipts with the threshold of the province.";
    pub PAID_OUT = "ca.45200", "Medical supplement paid out", "ITA 122.51",
        "A part of the medical claim, less a part of family income; refundable.";
}

limits! {
    pub MEDICAL = "ca.limit.medical" on ALLOWED, "Medical bills", "only above the threshold",
        "ITA 118.2(1)";
    MEDICAL_PROVINCIAL = "ca.limit.medical_provincial" on PROVINCIAL_ALLOWED, "Medical bills, province", "only above the threshold",
        "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act";
    SUPPLEMENT = "ca.limit.supplement" on PAID_OUT, "Medical supplement", "shrinks with family income",
        "ITA 122.51";
}

open_points! {
    OTHER_DAYS = look "C-57", "ITA 118.2(1)", "Check the day.";
    OF_DEPENDANT = not_covered "C-61", "ITA 118.2(1)";
}

/// The day a year before: a missing 29 February becomes the 28th.
fn year_before(day: Date) -> Date {
    let same = |date: Date| date.replace_year(date.year() - 1);
    same(day).or_else(|_| same(day - Duration::DAY)).unwrap_or(Date::MIN)
}

/// How many windows are offered at the most, the largest ones: a smaller claim never makes a tax lower.
const MOST_WINDOWS: usize = 200;

/// The windows of the receipts that no other contains, in the order of their ends: one can only end on the day of a
/// receipt, on the last day that keeps an older one, or on the last day of the year.
pub fn windows(facts: &Facts) -> Vec<Window> {
    let of_year = facts.year_begin..=facts.year_end;
    let dates: Vec<Date> = facts.medical.iter().map(|r| r.date).collect();
    let keeps = |date: &Date| settled::lesser(facts.year_end, year_after(*date) - Duration::DAY);
    let ends = dates.iter().copied().chain(dates.iter().map(keeps)).chain([facts.year_end]);
    let mut ends: Vec<Date> = ends.filter(|day| of_year.contains(day)).collect();
    ends.sort();
    ends.dedup();
    let mut windows: Vec<Window> = Vec::new();
    for end in ends {
        let from = dates.partition_point(|date| *date <= year_before(end));
        let to = dates.partition_point(|date| *date <= end);
        let sum = facts.medical[from..to].iter().map(|r| r.item.amount).sum();
        let window = Window { end, from, to, sum };
        // Both only grow: whatever contains a window is the one before it or the one after it.
        match windows.last_mut() {
            _ if from == to => {}
            Some(before) if before.to == to => {}
            Some(before) if before.from == from => *before = window,
            _ => windows.push(window),
        }
    }
    largest(windows)
}

/// The largest of the windows, still in the order of their ends.
fn largest(mut windows: Vec<Window>) -> Vec<Window> {
    windows.sort_by_key(|window| std::cmp::Reverse(window.sum));
    windows.truncate(MOST_WINDOWS);
    windows.sort_by_key(|window| window.end);
    windows
}

/// The day a year after, on which a window no longer holds the receipt: after 29 February the 1st of March.
fn year_after(day: Date) -> Date {
    let same = |date: Date| date.replace_year(date.year() + 1);
    same(day).or_else(|_| same(day + Duration::DAY)).unwrap_or(Date::MAX)
}

/// Medical expenses above the threshold: a part of net income, at most so much, federal or provincial.
fn above_threshold(on: On<'_>, trail: &mut impl Trail, at: LimitAt, net: Money, most: Money) -> Money {
    let claim =
        on.plan.medical.as_ref().and_then(|m| Some((on.facts.windows.get(m.window)?, m.of(on.person)?)));
    let Some((window, paid)) = claim else { return Money::ZERO };
    if at.def.line == ALLOWED {
        trail.line(CLAIMED, on.scope, paid, |i| {
            i.items(window.receipts(on.facts).iter().map(|r| &r.item));
            let left = window.sum - paid;
            if !left.is_zero() {
                i.figure("Less what the partner claims", left);
            }
        });
    }
    let threshold = limit::lesser(trail, cents(net, on.facts.figures.medical.part), most);
    let allowed = limit::above(trail, at, paid, threshold);
    on.made(
        trail,
        at.def.line,
        allowed,
        &[(CLAIMED, paid), (income::NET, net)],
        &[("Only above", &threshold)],
    )
}

/// Line 33200.
pub fn federal(on: On<'_>, trail: &mut impl Trail, net: Money) -> Money {
    above_threshold(on, trail, MEDICAL.at(on.scope), net, on.facts.figures.medical.most)
}

/// Line 58769: the same receipts with the threshold of the province.
pub fn provincial(on: On<'_>, trail: &mut impl Trail, net: Money, most: Money) -> Money {
    above_threshold(on, trail, MEDICAL_PROVINCIAL.at(on.scope), net, most)
}

/// Whether a person is of age and earned enough for the supplement (122.51(1) "eligible individual").
pub fn may_be_supplemented(facts: &Facts, person: usize) -> bool {
    let (figures, own) = (&facts.figures.medical_supplement, &facts.people[person].own);
    let earned = settled::or_zero(
        sum(own.of(&t4::brings::EMPLOYMENT))
            - sum(own.of(&bringing::brings::RPP))
            - sum(own.of(&t4::brings::DUES)),
    );
    facts.reached(person, figures.age) && earned >= figures.earned_least
}

/// Line 45200, the refundable supplement (ITA 122.51): a part of what is claimed, less a part of family income.
pub fn supplement(on: On<'_>, trail: &mut impl Trail, claimed: Money, incomes: &Incomes) -> Money {
    let figures = &on.facts.figures.medical_supplement;
    if !may_be_supplemented(on.facts, on.person) || on.facts.windows.is_empty() {
        return Money::ZERO;
    }
    let part = limit::lesser(trail, cents(claimed, figures.part), figures.most);
    let family = family_net(on, incomes);
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    let allowed = limit::phase_out(trail, SUPPLEMENT.at(on.scope), part, family, rule);
    on.made(trail, PAID_OUT, allowed, &[(ALLOWED, claimed)], &[("Net income of the family", &family)])
}

/// Net income of both of a couple, or of one alone.
pub fn family_net(on: On<'_>, incomes: &Incomes) -> Money {
    let partner = on.facts.partner(on.person).map_or(Money::ZERO, |p| incomes[p].net);
    incomes[on.person].net + partner
}

const RECEIPTS: PaperKind = PaperKind {
    id: "Medical",
    subject: subject::DEDUCTIONS,
    name: "Medical receipts",
    words: "doctor dentist hospital prescription health premium",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::person("patient", "", "For"),
        Field::text("what", "", "To whom, what for", 80),
        Field::amount("amount", "", "Paid"),
        Field::amount("reimbursed", "", "Paid back"),
        Field::yes_no("used", "", "In an earlier claim"),
    ],
    back: Back::Column("reimbursed"),
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Receipts with their day, less what was paid back.
pub fn read(paper: &mut Bringing<'_>) {
    let payer = paper.paper.paper.owners.first().and_then(|o| paper.paper.household.index_of(&o.person));
    for (row, cells, paid) in paper.paper.lines("amount") {
        let named = cells.get("patient").and_then(Entry::text);
        let patient = named.and_then(|id| paper.paper.household.index_of(id)).or(payer);
        let used = cells.get("used").and_then(Entry::flag).unwrap_or(false);
        let back = cells.get("reimbursed").and_then(Entry::money).unwrap_or_default();
        let (Some(date), Some(patient)) = (cells.get("date").and_then(Entry::date), patient) else {
            continue;
        };
        let amount = settled::or_zero(paid - back);
        if !used && !amount.is_zero() && paper.facts.medical_counts(patient) {
            let item = paper.paper.item("amount", Some(row), amount);
            paper.facts.medical.push(Receipt { date, item });
        }
    }
}

/// Receipts that do not count.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RECEIPTS.id) {
        points.dates(paper, &OTHER_DAYS, "in no twelve months that end in the year", |facts, date| {
            date <= facts.year_end && date.year() + 1 >= facts.year_begin.year()
        });
        for cells in &paper.rows {
            let payer = paper.owners.first().map(|o| o.person.as_str());
            let named = cells.get("patient").and_then(Entry::text).or(payer);
            let patient = named.and_then(|id| points.household.index_of(id));
            if patient.is_some_and(|p| !points.facts.medical_counts(p)) {
                let message = "Bills of a dependant of 18 or more (line 33199) are not computed yet.";
                points.raise(&OF_DEPENDANT, Place::row(&paper.id, cells, "patient"), message);
            }
        }
    }
}

/// For which twelve months medical receipts are claimed: options by window.
pub static WINDOW: Open<Facts> = Open::new(
    |facts| if facts.windows.is_empty() { Vec::new() } else { vec![0] },
    |facts, _| {
        let option = |w: &Window| {
            let label = format!("Ending {} {} · {:#}", w.end.day(), w.end.month(), w.sum);
            Opt::new(w.end.to_string(), label, format!("12 months to {} {}", w.end.day(), w.end.month()))
        };
        let options = facts.windows.iter().map(option).collect();
        Decision::between("ca.medical.window", "Which twelve months of medical", "ITA 118.2(1)", options)
    },
);
