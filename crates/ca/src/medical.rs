//! Medical expenses (ITA 118.2, 122.51): any twelve months ending in the year, lines 33099, 33200 and 45200.

use crate::{
    bringing::{self, Bringing},
    business, employment_expenses,
    facts::{Facts, Receipt, Window},
    income::{self, Incomes, family_net},
    other_deductions,
    papers::t4,
    plan::On,
    points::Points,
    rounding::cents,
};
use hembo_core::{
    choice::Open,
    decision::{Decision, Opt},
    drawn::{Bar, Drawn, Part, Picture, Span, Working},
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
    figures: &["medical", "medical_supplement", "age", "year_of_death"],
    ..Provision::NONE
};

lines! {
    pub CLAIMED = "ca.33099", "Medical bills of the window", "ITA 118.2(1)",
        "Receipts of the twelve months, less what was paid back.";
    pub ALLOWED = "ca.medical.above", "Medical above the threshold", "ITA 118.2(1) B",
        "Above a part of net income, or the most of the threshold.";
    pub TOGETHER = "ca.33200", "Medical allowed", "ITA 118.2(1)",
        "Own, the partner's and children's above the threshold, and that of other dependants.";
    pub PROVINCIAL_ALLOWED = "ca.medical.above_provincial", "Medical above the threshold, province", "Income tax acts of the provinces; form 428",
        "The same receipts with the threshold of the province.";
    pub PROVINCIAL_TOGETHER = "ca.58769", "Medical allowed, province", "Income tax acts of the provinces; form 428",
        "Own, the partner's and children's above the threshold, and that of other dependants.";
    pub PAID_OUT = "ca.45200", "Medical supplement paid out", "ITA 122.51",
        "A part of the medical claim, less a part of family income; refundable.";
}

limits! {
    pub MEDICAL = "ca.limit.medical" on ALLOWED, "Medical bills", "only above the threshold",
        "ITA 118.2(1)";
    MEDICAL_PROVINCIAL = "ca.limit.medical_provincial" on PROVINCIAL_ALLOWED, "Medical bills, province", "only above the threshold",
        "Income tax acts of the provinces; form 428";
    SUPPLEMENT = "ca.limit.supplement" on PAID_OUT, "Medical supplement", "shrinks with family income",
        "ITA 122.51";
}

open_points! {
    OTHER_DAYS = look "C-57", "ITA 118.2(1)", "Check the day.";
    NOBODY = blocks "C-59", "ITA 118(6), 118.2(1)", "Name a dependant relative, or remove it.";
}

/// Twelve months with an end in the year; of someone who died 24 months with the day of death in them (118.2(1) D).
#[derive(Debug, Clone, Copy)]
struct Period {
    years: i32,
    first_end: Date,
    last_end: Date,
}

impl Period {
    fn of(facts: &Facts) -> Period {
        let Some(died) = facts.sole_death() else {
            return Period { years: 1, first_end: facts.year_begin, last_end: facts.year_end };
        };
        let years = facts.figures.year_of_death.medical_years;
        let of_death = Period { years, first_end: died, last_end: died };
        Period { last_end: of_death.after(died) - Duration::DAY, ..of_death }
    }

    /// The last day before a period that ends on a day: a missing 29 February becomes the 28th.
    fn before(self, day: Date) -> Date {
        let same = |date: Date| date.replace_year(date.year() - self.years);
        same(day).or_else(|_| same(day - Duration::DAY)).unwrap_or(Date::MIN)
    }

    /// The day on which a period no longer holds a receipt: after 29 February the 1st of March.
    fn after(self, day: Date) -> Date {
        let same = |date: Date| date.replace_year(date.year() + self.years);
        same(day).or_else(|_| same(day + Duration::DAY)).unwrap_or(Date::MAX)
    }

    fn months(self) -> i32 {
        12 * self.years
    }
}

/// How many windows are offered at the most, the largest ones: a smaller claim never makes a tax lower.
const MOST_WINDOWS: usize = 200;

/// The windows of the receipts of the filers and their children.
pub fn windows(facts: &Facts) -> Vec<Window> {
    windows_of(facts, &facts.medical)
}

/// The most that the receipts of a window add up to; nothing where there are none.
pub fn largest_sum(facts: &Facts, receipts: &[Receipt]) -> Option<Money> {
    windows_of(facts, receipts).iter().map(|window| window.sum).max()
}

/// The windows of receipts by date that no other contains, in the order of their ends: one can only end on the day of a
/// receipt, on the last day that keeps an older one, or on the last day on which one may end.
fn windows_of(facts: &Facts, receipts: &[Receipt]) -> Vec<Window> {
    let period = Period::of(facts);
    let may_end = period.first_end..=period.last_end;
    let dates: Vec<Date> = receipts.iter().map(|r| r.date).collect();
    let keeps = |date: &Date| settled::lesser(period.last_end, period.after(*date) - Duration::DAY);
    let ends = dates.iter().copied().chain(dates.iter().map(keeps)).chain([period.last_end]);
    let mut ends: Vec<Date> = ends.filter(|day| may_end.contains(day)).collect();
    ends.sort();
    ends.dedup();
    let mut windows: Vec<Window> = Vec::new();
    for end in ends {
        let from = dates.partition_point(|date| *date <= period.before(end));
        let to = dates.partition_point(|date| *date <= end);
        let sum = receipts[from..to].iter().map(|r| r.item.amount).sum();
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

/// What is allowed of line 33099.
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
            - sum(own.of(&t4::brings::DUES))
            - sum(own.of(&other_deductions::brings::DUES))
            - employment_expenses::total(facts, person),
    );
    let whole_year = facts.people[person].part_year.days.is_none();
    whole_year
        && facts.reached(person, figures.age)
        && earned + business::earned(facts, person) >= figures.earned_least
}

/// Line 45200, the refundable supplement (ITA 122.51): a part of what is claimed, less a part of family income.
pub fn supplement(on: On<'_>, trail: &mut impl Trail, claimed: Money, incomes: &Incomes) -> Money {
    let figures = &on.facts.figures.medical_supplement;
    if !may_be_supplemented(on.facts, on.person) || claimed.is_zero() {
        return Money::ZERO;
    }
    let part = limit::lesser(trail, cents(claimed, figures.part), figures.most);
    let family = family_net(on, incomes);
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    let allowed = limit::phase_out(trail, SUPPLEMENT.at(on.scope), part, family, rule);
    on.made(trail, PAID_OUT, allowed, &[(TOGETHER, claimed)], &[("Net income of the family", &family)])
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
        if used || amount.is_zero() {
            continue;
        }
        let item = paper.paper.item("amount", Some(row), amount);
        match paper.facts.medical_counts(patient) {
            true => paper.facts.medical.push(Receipt { date, item }),
            false => paper.facts.medical_of_others[patient].push(Receipt { date, item }),
        }
    }
}

/// Receipts that do not count.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RECEIPTS.id) {
        points.dates(paper, &OTHER_DAYS, "in no months that may be claimed", |facts, date| {
            let period = Period::of(facts);
            date <= period.last_end && date > period.before(period.first_end)
        });
        for cells in &paper.rows {
            let payer = paper.owners.first().map(|o| o.person.as_str());
            let named = cells.get("patient").and_then(Entry::text).or(payer);
            let patient = named.and_then(|id| points.household.index_of(id));
            let counts = |p: usize| points.facts.medical_counts(p) || points.facts.people[p].related;
            if patient.is_some_and(|p| !counts(p)) {
                let message = "Bills count of relatives who depend on a filer only.";
                points.raise(&NOBODY, Place::row(&paper.id, cells, "patient"), message);
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
            let months = Period::of(facts).months();
            Opt::new(
                w.end.to_string(),
                label,
                format!("{months} months to {} {}", w.end.day(), w.end.month()),
            )
        };
        let options = facts.windows.iter().map(option).collect();
        Decision::between("ca.medical.window", "Which twelve months of medical", "ITA 118.2(1)", options)
    },
);

/// The family's bills by their days, those of the twelve months that are claimed together, at every paper that has any.
pub fn drawn(facts: &Facts, window: Option<usize>) -> Vec<(usize, Drawn)> {
    let mut papers: Vec<usize> = facts.medical.iter().map(|receipt| receipt.item.paper).collect();
    papers.sort();
    papers.dedup();
    let window = window.and_then(|window| facts.windows.get(window));
    let drawn = Drawn {
        stands: None,
        columns: Vec::new(),
        workings: window.map(|window| claimed_months(facts, window)).into_iter().collect(),
        picture: Some(picture(facts, window)),
        ..Drawn::default()
    };
    papers.into_iter().map(|paper| (paper, drawn.clone())).collect()
}

fn claimed_months(facts: &Facts, window: &Window) -> Working {
    let sum = |of: &[Receipt]| of.iter().map(|receipt| receipt.item.amount).sum::<Money>();
    let of_year = facts.medical.iter().filter(|r| (facts.year_begin..=facts.year_end).contains(&r.date));
    let calendar: Money = of_year.map(|receipt| receipt.item.amount).sum();
    let (before, within) = window
        .receipts(facts)
        .split_at(window.receipts(facts).partition_point(|r| r.date < facts.year_begin));
    let note = if calendar == window.sum {
        String::new()
    } else {
        format!("The calendar year alone has {calendar:#}.")
    };
    Working {
        title: format!("The {} months that are claimed", Period::of(facts).months()),
        day: window.end,
        parts: vec![Part::new("Of earlier years", sum(before)), Part::new("From this year on", sum(within))],
        result: "Together".into(),
        amount: window.sum,
        note,
    }
}

fn picture(facts: &Facts, window: Option<&Window>) -> Picture {
    let bar = |(place, receipt): (usize, &Receipt)| Bar {
        day: receipt.date,
        value: receipt.item.amount,
        counts: window.is_some_and(|window| (window.from..window.to).contains(&place)),
    };
    let span = window.map(|window| Span {
        from: Period::of(facts).before(window.end) + Duration::DAY,
        to: window.end,
        label: format!("{:#} in these {} months", window.sum, Period::of(facts).months()),
    });
    Picture {
        caption: "Bills of the filers and their children under 18, less what was paid back, by the day they were paid.".into(),
        steps: Vec::new(),
        slope: Vec::new(),
        bars: facts.medical.iter().enumerate().map(bar).collect(),
        marks: Vec::new(),
        span,
    }
}
