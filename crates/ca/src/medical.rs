//! Medical expenses (ITA 118.2, 122.51): any twelve months ending in the year, lines 33099, 33200 and 45200.

use crate::{
    bringing::{self, Bringing},
    business, disability_supports, employment_expenses,
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
    household::{Answers, Entry},
    limit::{self, LimitAt, PhaseOut},
    limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Trail, Unseen},
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
        "A part of the medical claim and of disability supports, less a part of family income; refundable.";
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

/// Twelve months with an end in the year; for someone who died 24 months with the day of death in them (118.2(1) B(d)).
#[derive(Debug, Clone, Copy)]
struct Period {
    years: i32,
    first_end: Date,
    last_end: Date,
}

impl Period {
    /// For receipts of someone who lives.
    fn of_living(facts: &Facts) -> Period {
        Period { years: 1, first_end: facts.year_begin, last_end: facts.year_end }
    }

    /// For receipts of a patient.
    fn of(facts: &Facts, patient: usize) -> Period {
        let Some(died) = facts.people[patient].died.filter(|_| facts.died(patient)) else {
            return Period::of_living(facts);
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

    fn holds(self, day: Date) -> bool {
        day <= self.last_end && day > self.before(self.first_end)
    }
}

/// The months of which a window is: those of who died, where there are no other receipts.
fn shown_period(facts: &Facts) -> Period {
    let only = facts.medical_of_dead.iter().position(|receipts| !receipts.is_empty());
    match only.filter(|_| facts.medical.is_empty()) {
        Some(dead) => Period::of(facts, dead),
        None => Period::of_living(facts),
    }
}

/// How many windows are offered at the most, the largest ones: a smaller claim never makes a tax lower.
const MOST_WINDOWS: usize = 200;

/// The windows of the receipts of the filers and their children, each with what is claimed for who died.
pub fn windows(facts: &Facts) -> Vec<Window> {
    let of_dead: Money = facts.claimed_of_dead.iter().map(|receipt| receipt.item.amount).sum();
    let mut windows = windows_of(Period::of_living(facts), &facts.medical);
    for window in &mut windows {
        window.sum += of_dead;
    }
    let last = facts.claimed_of_dead.last().filter(|_| windows.is_empty());
    windows.extend(last.map(|last| {
        let period = shown_period(facts);
        let end = settled::greater(last.date, period.first_end);
        Window { end, from: 0, to: 0, sum: of_dead }
    }));
    windows
}

/// What is claimed for who died: a larger claim never costs, and nothing is left for a later year of one's own.
pub fn claimed_of_dead(facts: &Facts) -> Vec<Receipt> {
    let most = |(person, receipts): (usize, &Vec<Receipt>)| {
        let windows = windows_of(Period::of(facts, person), receipts);
        let window = windows.into_iter().max_by_key(|window| window.sum)?;
        Some(receipts[window.from..window.to].to_vec())
    };
    let mut claimed: Vec<Receipt> =
        facts.medical_of_dead.iter().enumerate().filter_map(most).flatten().collect();
    claimed.sort_by_key(|receipt| receipt.date);
    claimed
}

/// The most that the receipts of another dependant add up to in a window; nothing where there are none.
pub fn largest_sum(facts: &Facts, dependant: usize) -> Option<Money> {
    let receipts = &facts.medical_of_others[dependant];
    windows_of(Period::of(facts, dependant), receipts).iter().map(|window| window.sum).max()
}

/// The windows of receipts by date that no other contains, in the order of their ends: one can only end on the day of a
/// receipt, on the last day that keeps an older one, or on the last day on which one may end.
fn windows_of(period: Period, receipts: &[Receipt]) -> Vec<Window> {
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
            i.items(window.receipts(on.facts).map(|r| &r.item));
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

/// Whether a person is of age, and earned enough in some way, for the supplement (122.51(1) "eligible individual").
pub fn may_be_supplemented(facts: &Facts, person: usize) -> bool {
    let whole_year = facts.people[person].part_year.days.is_none();
    whole_year
        && facts.reached(person, facts.figures.medical_supplement.age)
        && !above_least(facts, person, business::most(facts, person)).is_negative()
}

/// By how much what a person earned is above the least for the supplement; `business` is what a business brings, nothing where it makes
/// a loss.
fn above_least(facts: &Facts, person: usize, business: Money) -> Money {
    let own = &facts.people[person].own;
    let of_work = settled::or_zero(
        sum(own.of(&t4::brings::EMPLOYMENT))
            - sum(own.of(&bringing::brings::RPP))
            - sum(own.of(&t4::brings::DUES))
            - sum(own.of(&other_deductions::brings::DUES))
            - employment_expenses::total(facts, person),
    );
    of_work + business - facts.figures.medical_supplement.earned_least
}

/// By how much the total jumps at the most where the capital cost of businesses decides who earned enough.
pub fn jump(facts: &Facts) -> Money {
    facts.filers.iter().map(|&filer| jump_of(facts, filer)).sum()
}

/// The same of one person's businesses: they bring at one end enough, at the other too little, and there is something to claim.
pub fn jump_of(facts: &Facts, filer: usize) -> Money {
    let may_fall = business::any_capital_cost(facts, filer)
        && may_be_supplemented(facts, filer)
        && above_least(facts, filer, business::least(facts, filer)).is_negative();
    let receipts = !facts.windows.is_empty() || facts.medical_of_others.iter().any(|all| !all.is_empty());
    let claims = receipts || facts.people[filer].own.has(&disability_supports::brings::PAID);
    if may_fall && claims { facts.figures.medical_supplement.most } else { Money::ZERO }
}

/// Line 45200, the refundable supplement (ITA 122.51): a part of what is claimed and of disability supports, less a part of family income.
pub fn supplement(on: On<'_>, trail: &mut impl Trail, medical: Money, incomes: &Incomes) -> Money {
    let supports = incomes[on.person].supports;
    let claimed = medical + supports;
    let claims = on.own().has(&disability_supports::brings::PAID)
        || on.plan.medical.as_ref().is_some_and(|medical| medical.of(on.person).is_some())
        || on.plan.medical_of_others.iter().any(|(_, by, _)| *by == on.person);
    if !claims || !may_be_supplemented(on.facts, on.person) {
        return Money::ZERO;
    }
    if claimed.is_zero() {
        // The same edges where nothing is above the threshold: what tells others on an edge is cut there again and again.
        return supplemented(on, &mut Unseen(trail), claimed, incomes);
    }
    let allowed = supplemented(on, trail, claimed, incomes);
    let family = family_net(on, incomes);
    let made = [(TOGETHER, medical), (disability_supports::DEDUCTED, supports)];
    on.made(trail, PAID_OUT, allowed, &made, &[("Net income of the family", &family)])
}

/// What of the supplement is left of family income.
fn supplemented(on: On<'_>, trail: &mut impl Trail, claimed: Money, incomes: &Incomes) -> Money {
    let figures = &on.facts.figures.medical_supplement;
    let above = above_least(on.facts, on.person, incomes[on.person].business);
    trail.step(above, business::any_capital_cost(on.facts, on.person));
    if above.is_negative() {
        return Money::ZERO;
    }
    let part = limit::lesser(trail, cents(claimed, figures.part), figures.most);
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    limit::phase_out(trail, SUPPLEMENT.at(on.scope), part, family_net(on, incomes), rule)
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
        let receipt = Receipt { date, item: paper.paper.item("amount", Some(row), amount) };
        let facts = &mut *paper.facts;
        match (facts.medical_counts(patient), facts.died(patient)) {
            (true, false) => facts.medical.push(receipt),
            (true, true) => facts.medical_of_dead[patient].push(receipt),
            (false, _) => facts.medical_of_others[patient].push(receipt),
        }
    }
}

/// Receipts that do not count.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RECEIPTS.id) {
        let household = points.household;
        let payer = paper.owners.first().map(|o| o.person.as_str());
        let patient_of = |cells: &Answers| {
            let named = cells.get("patient").and_then(Entry::text).or(payer);
            named.and_then(|id| household.index_of(id))
        };
        points.dates(paper, &OTHER_DAYS, "in no months that may be claimed", |facts, cells, date| {
            let period = patient_of(cells).map_or(Period::of_living(facts), |p| Period::of(facts, p));
            period.holds(date)
        });
        for cells in &paper.rows {
            let patient = patient_of(cells);
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
            let months = shown_period(facts).months();
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
    let mut papers: Vec<usize> = of_family(facts).map(|receipt| receipt.item.paper).collect();
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

/// All receipts of the filers and their children.
fn of_family(facts: &Facts) -> impl Iterator<Item = &Receipt> {
    facts.medical.iter().chain(facts.medical_of_dead.iter().flatten())
}

fn claimed_months(facts: &Facts, window: &Window) -> Working {
    let of_year = of_family(facts).filter(|r| (facts.year_begin..=facts.year_end).contains(&r.date));
    let calendar: Money = of_year.map(|receipt| receipt.item.amount).sum();
    let earlier = window.receipts(facts).filter(|receipt| receipt.date < facts.year_begin);
    let before: Money = earlier.map(|receipt| receipt.item.amount).sum();
    let note = if calendar == window.sum {
        String::new()
    } else {
        format!("The calendar year alone has {calendar:#}.")
    };
    Working {
        title: format!("The {} months that are claimed", shown_period(facts).months()),
        day: window.end,
        parts: vec![
            Part::new("Of earlier years", before),
            Part::new("From this year on", window.sum - before),
        ],
        result: "Together".into(),
        amount: window.sum,
        note,
    }
}

fn picture(facts: &Facts, window: Option<&Window>) -> Picture {
    let bar = |receipt: &Receipt| Bar {
        day: receipt.date,
        value: receipt.item.amount,
        counts: window.is_some_and(|window| window.receipts(facts).any(|counted| counted == receipt)),
    };
    let period = shown_period(facts);
    let mixed = !facts.medical.is_empty() && !facts.claimed_of_dead.is_empty();
    let of_dead = 12 * facts.figures.year_of_death.medical_years;
    let span = window.map(|window| Span {
        from: period.before(window.end) + Duration::DAY,
        to: window.end,
        label: match mixed {
            true => {
                format!("{:#} in these {} months, {of_dead} for who died", window.sum, period.months())
            }
            false => format!("{:#} in these {} months", window.sum, period.months()),
        },
    });
    Picture {
        caption: "Bills of the filers and their children under 18, less what was paid back, by the day they were paid.".into(),
        steps: Vec::new(),
        slope: Vec::new(),
        bars: of_family(facts).map(bar).collect(),
        marks: Vec::new(),
        span,
    }
}
