//! The premium tax credit (§36B), Form 8962: what health cover through the Marketplace may cost by income, the credit for the rest, and
//! what of the advance payments is paid back.

use crate::{
    bringing::Bringing,
    facts::Facts,
    filing_status::Status,
    income::{AGI, Income},
    points::Points,
    unit::{Filed, On},
    who_files,
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[POLICY],
    points: POINTS,
    figures: &["premium_tax_credit"],
    ..Provision::NONE
};

lines! {
    INCOME = "us.8962.3", "Household income", "IRC §36B(d)(2)",
        "Adjusted gross income with tax-exempt interest and untaxed benefits, and that of dependents who must file.";
    CONTRIBUTION = "us.8962.8a", "Own contribution", "IRC §36B(b)(3)(A)",
        "A part of household income by its percentage of the poverty line.";
    ALLOWED = "us.8962.24", "Premium tax credit", "IRC §36B(b)",
        "For each month the premium, or what the benchmark plan is above the contribution, if less.";
    ADVANCE = "us.8962.25", "Advance payments", "IRC §36B(f)",
        "Form 1095-A, column C.";
    pub NET = "us.sched_3.9", "Premium tax credit, net", "IRC §36B(f)(1)",
        "What the credit is above the advance payments.";
    pub EXCESS = "us.sched_2.1a", "Advance payments paid back", "IRC §36B(f)(2)",
        "What they are above the credit, up to a limit by income.";
}

limits! {
    BENCHMARK = "us.limit.premium" on ALLOWED, "Premium tax credit", "premiums over what the benchmark plan leaves",
        "IRC §36B(b)(2)(B)";
}

open_points! {
    BENCHMARK_MISSING = blocks "K-135", "IRC §36B(b)(3)(B)",
        "Look the second lowest cost silver plan up: the credit goes by it.";
    SEPARATE = look "K-134", "IRC §36B(c)(1)(C)",
        "No credit on a separate return, but for abuse or abandonment, which is not computed here.";
    POOR = look "K-136", "Reg. §1.36B-2(b)(6)",
        "Below the poverty line the credit stands only where the Marketplace expected more income.";
    SHARED = look "8962-shared", "Reg. §1.36B-4(a)(1)(ii)",
        "If people of other returns were on it, enter what per cent of it belongs here (Part IV).";
    MONTHS = blocks "8962-months", "Form 8962, Part IV",
        "Enter the first month before the last.";
    MARRIAGE = look "C-83", "Reg. §1.36B-4(b)",
        "In the year of a marriage less may be paid back by Part V: that is not weighed here.";
}

/// The amounts of a policy: premium, benchmark, advance payment.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
struct Amounts {
    premium: Money,
    benchmark: Money,
    advance: Money,
}

impl Amounts {
    fn add(&mut self, other: Amounts) {
        self.premium += other.premium;
        self.benchmark += other.benchmark;
        self.advance += other.advance;
    }

    fn twelfth(&self) -> Amounts {
        let of = |amount: Money| {
            amount.in_proportion(Money::whole(1), Money::whole(12), Money::CENT, Rounding::HalfUp)
        };
        Amounts { premium: of(self.premium), benchmark: of(self.benchmark), advance: of(self.advance) }
    }

    /// Whether the credit of both months is the same; the advance payment does not matter.
    fn is_like(&self, other: &Amounts) -> bool {
        (self.premium, self.benchmark) == (other.premium, other.benchmark)
    }
}

/// A policy's year: each month, or the year as one.
#[derive(Debug, Clone)]
pub struct Policy {
    item: Item,
    months: Vec<(i64, Amounts)>,
    /// A part belongs to another return, so that the year is reckoned by months.
    allocated: bool,
    /// Deducted by the self-employed (§162(l)).
    own_work: bool,
}

impl Policy {
    /// Whether the self-employed deduct it.
    pub fn is_of_own_work(&self) -> bool {
        self.own_work
    }
}

/// What of a policy belongs here (Form 8962, Part IV): from a month to a month so many of a hundred of the premium, the benchmark and the
/// advance payment.
struct Allocation {
    months: std::ops::RangeInclusive<i64>,
    percents: [i64; 3],
}

impl Allocation {
    fn of(paper: &Paper) -> Option<Allocation> {
        let count = |id: &str| paper.boxes.get(id).and_then(Entry::count);
        let percents = ["30e", "30f", "30g"].map(count);
        let any = percents.iter().any(Option::is_some);
        any.then(|| Allocation {
            months: count("30c").unwrap_or(1)..=count("30d").unwrap_or(12),
            percents: percents.map(|percent| percent.unwrap_or(100)),
        })
    }

    /// Month by month what belongs here; the year as one is told by twelfths.
    fn apply(&self, months: &[(i64, [Money; 3])]) -> Vec<(i64, [Money; 3])> {
        let twelfth = |amount: Money| {
            amount.in_proportion(Money::whole(1), Money::whole(12), Money::CENT, Rounding::HalfUp)
        };
        let spread = |&(month, of): &(i64, [Money; 3])| match month {
            YEAR => (1..=12).map(|month| (month, of.map(twelfth))).collect(),
            _ => vec![(month, of)],
        };
        let here = |(month, mut of): (i64, [Money; 3])| {
            for (amount, percent) in of.iter_mut().zip(self.percents).filter(|_| self.months.contains(&month))
            {
                *amount = amount.times(Rate::percent(percent), Money::CENT, Rounding::HalfUp);
            }
            (month, of)
        };
        months.iter().flat_map(spread).map(here).collect()
    }
}

/// What its papers bring.
pub mod brings {
    use super::Policy;
    use hembo_core::brought::Brought;

    /// Policies.
    pub static POLICIES: Brought<Policy> = Brought::new();
}

/// Form 1095-A.
pub const POLICY: PaperKind = PaperKind {
    id: "1095-A",
    subject: subject::CREDITS,
    name: "Health cover through the Marketplace",
    words: "marketplace health insurance premium tax credit obamacare 8962 advance",
    title: "Policy",
    shared: true,
    headline: "33A",
    boxes: &[
        Field::amount("33A", "33A", "Premiums of the year")
            .help("Or month by month below; then leave these empty."),
        Field::amount("33B", "33B", "Second lowest cost silver plan, year"),
        Field::amount("33C", "33C", "Advance payments of the year"),
        Field::count("30e", "30e", "Premium that belongs here, %", 100)
            .blank_is("100")
            .help("Only where people of another return were on the policy: as agreed, or their share. Form 8962, Part IV."),
        Field::count("30f", "30f", "Second lowest silver plan, %", 100).blank_is("100"),
        Field::count("30g", "30g", "Advance payment, %", 100).blank_is("100"),
        Field::count("30c", "30c", "From month", 12).blank_is("1"),
        Field::count("30d", "30d", "To month", 12).blank_is("12"),
        Field::yes_no("own_work", "", "Deducted by the self-employed")
            .help("Where no employer's plan was open to the family. Form 7206; the credit and the deduction are settled together."),
    ],
    columns: &[
        Field::count("month", "", "Month", 12),
        Field::amount("A", "A", "Premium"),
        Field::amount("B", "B", "Second lowest silver plan"),
        Field::amount("C", "C", "Advance payment"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
};

/// The place of the year as one among the months.
const YEAR: i64 = 0;

/// Gives the policy to its owners, each a part.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    let of_year = [reading.amount("33A"), reading.amount("33B"), reading.amount("33C")];
    let mut months = vec![(YEAR, of_year)];
    for (_, row, _) in paper.paper.lines("A") {
        let of = |id: &str| row.get(id).and_then(Entry::money).unwrap_or_default();
        let month = row.get("month").and_then(Entry::count).unwrap_or(1).clamp(1, 12);
        months.push((month, [of("A"), of("B"), of("C")]));
    }
    let allocation = Allocation::of(reading);
    if let Some(allocation) = &allocation {
        months = allocation.apply(&months);
    }
    let premiums: Money = months.iter().map(|(_, [premium, ..])| *premium).sum();
    let own_work = reading.flag("own_work");
    let owners = paper.paper.shares(Money::ZERO).len();
    for owner in 0..owners {
        let share = |amount: Money| paper.paper.shares(amount)[owner].1;
        let amounts = |[premium, benchmark, advance]: [Money; 3]| Amounts {
            premium: share(premium),
            benchmark: share(benchmark),
            advance: share(advance),
        };
        let person = paper.paper.shares(Money::ZERO)[owner].0;
        let item = paper.paper.item("33A", None, share(premiums));
        let months = months.iter().map(|(month, of)| (*month, amounts(*of))).collect();
        paper.facts.people[person]
            .own
            .add(&brings::POLICIES, Policy { item, months, allocated: allocation.is_some(), own_work });
    }
}

fn policies(on: On<'_>) -> impl Iterator<Item = &Policy> {
    on.owns().flat_map(|(_, own)| own.of(&brings::POLICIES))
}

/// All policies of a return together, month by month; the year as one where it is told so, or where all twelve months are
/// alike (Form 8962 line 11). A policy told by the year beside one told by months counts for a twelfth in each.
fn by_month(on: On<'_>) -> Vec<(i64, Amounts)> {
    let mut months: Vec<(i64, Amounts)> = (YEAR..=12).map(|month| (month, Amounts::default())).collect();
    for &(month, of) in policies(on).flat_map(|policy| &policy.months) {
        months.iter_mut().filter(|(at, _)| *at == month).for_each(|(_, sum)| sum.add(of));
    }
    let (_, year) = months.remove(0);
    if months.iter().all(|(_, of)| *of == Amounts::default()) {
        return vec![(YEAR, year)];
    }
    months.iter_mut().for_each(|(_, sum)| sum.add(year.twelfth()));
    let allocated = policies(on).any(|policy| policy.allocated);
    if allocated || months.iter().any(|(_, of)| !of.is_like(&months[0].1)) {
        return months;
    }
    let mut all = Amounts::default();
    months.iter().for_each(|(_, of)| all.add(*of));
    vec![(YEAR, all)]
}

/// Whether anyone has a policy.
pub fn any_policy(facts: &Facts) -> bool {
    facts.people.iter().any(|about| about.own.has(&brings::POLICIES))
}

/// What the income of dependents adds to household income: of those who must file (§36B(d)(2)(A)(ii)).
pub fn income_of_dependent(facts: &Facts, person: usize) -> Money {
    if who_files::dependent_must_file(facts, person, Money::ZERO) {
        facts.people[person].agi_alone
    } else {
        Money::ZERO
    }
}

/// The policies of a return that the self-employed deduct: premiums and advance payments of the year.
pub fn of_own_work(on: On<'_>) -> Option<(Money, Money)> {
    let mut deducted = policies(on).filter(|policy| policy.is_of_own_work()).peekable();
    deducted.peek()?;
    let mut all = Amounts::default();
    deducted.flat_map(|policy| &policy.months).for_each(|(_, of)| all.add(*of));
    Some((all.premium.to_whole(), all.advance.to_whole()))
}

/// What of the papers of a return is made of them.
pub fn items_of_own_work(on: On<'_>) -> impl Iterator<Item = &Item> {
    policies(on).filter(|policy| policy.is_of_own_work()).map(|policy| &policy.item)
}

/// What the credit comes to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Credit {
    /// Form 8962 line 24.
    pub allowed: Money,
    /// Schedule 3 line 9.
    pub net: Money,
    /// Schedule 2 line 1a.
    pub excess: Money,
}

/// The poverty line of a family (§36B(d)(3)).
fn poverty_line(on: On<'_>) -> Money {
    let figures = &on.facts.figures.premium_tax_credit;
    let line = match on.facts.state.as_deref() {
        Some("AK") => &figures.alaska,
        Some("HI") => &figures.hawaii,
        _ => &figures.poverty,
    };
    let size = on.unit.people.len() + on.unit.dependents.len();
    line.first + line.more * (i64::try_from(size).unwrap_or(1) - 1)
}

/// Household income as a percentage of the poverty line, whole, and 401 above 400 (line 5).
fn percentage(on: On<'_>, income: Money) -> i64 {
    let line = poverty_line(on);
    let figures = &on.facts.figures.premium_tax_credit;
    let percent =
        Rounding::Down.divide(i128::from(settled::or_zero(income).cents()) * 100, line.cents().into());
    let whole = i64::try_from(percent).unwrap_or(i64::MAX);
    let above = income > line * (figures.most_percent / 100);
    if above { figures.most_percent + 1 } else { settled::lesser(whole, figures.most_percent) }
}

/// The part of income that is paid oneself, to four decimals (line 7).
fn applicable(on: On<'_>, percent: i64) -> Rate {
    let figures = &on.facts.figures.premium_tax_credit;
    let Some(band) = figures.bands.iter().rev().find(|band| percent >= band.from) else { return Rate::ZERO };
    let points = percent - band.from;
    let billionths = band.start.billionths() + points * band.each.billionths();
    const FOUR_PLACES: i64 = 100_000;
    let rounded = Rounding::HalfUp.divide(billionths.into(), FOUR_PLACES.into());
    Rate::from_billionths(i64::try_from(rounded).unwrap_or_default() * FOUR_PLACES)
}

/// What the income of the dependents of a return adds.
fn dependents_income(on: On<'_>) -> Money {
    on.unit.dependents.iter().map(|d| income_of_dependent(on.facts, d.person)).sum()
}

/// Household income (line 3).
fn household_income(on: On<'_>, income: &Income) -> Money {
    income.agi + income.exempt_interest + income.untaxed_benefits + dependents_income(on)
}

/// Household income as a percentage of the poverty line.
pub fn percentage_of(on: On<'_>, income: &Income) -> i64 {
    percentage(on, household_income(on, income))
}

/// Form 8962.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Credit {
    if policies(on).next().is_none() {
        return Credit::default();
    }
    let household = trail.line(INCOME, on.scope, household_income(on, income), |i| {
        i.line(AGI, on.scope, income.agi)
            .figure("Tax-exempt interest", income.exempt_interest)
            .figure("Untaxed benefits", income.untaxed_benefits)
            .figure("Dependents who must file", dependents_income(on));
    });
    let percent = percentage(on, household);
    let part = applicable(on, percent);
    let year = settled::or_zero(household).times(part, Money::WHOLE, Rounding::HalfUp);
    trail.line(CONTRIBUTION, on.scope, year, |i| {
        i.line(INCOME, on.scope, household)
            .figure("Poverty line", poverty_line(on))
            .figure("Per cent of it", percent)
            .figure("Part", part);
    });
    let month = year.in_proportion(Money::whole(1), Money::whole(12), Money::WHOLE, Rounding::HalfUp);
    let months = by_month(on);
    let advance = months.iter().map(|(_, of)| of.advance).sum::<Money>().to_whole();
    let allowed =
        if may(on, percent, advance) { credit(on, trail, &months, (year, month)) } else { Money::ZERO };
    trail.line(ALLOWED, on.scope, allowed, |i| {
        i.items(policies(on).map(|policy| &policy.item)).line(CONTRIBUTION, on.scope, year);
    });
    trail.line(ADVANCE, on.scope, advance, |i| {
        i.items(policies(on).map(|policy| &policy.item));
    });
    settle(on, trail, percent, allowed, advance)
}

/// Whether the return may have the credit: no separate one, no one who is claimed; at the poverty line, or expected to be, and
/// not above a multiple of it where the year has one (§36B(c)(1)(A)).
fn may(on: On<'_>, percent: i64, advance: Money) -> bool {
    let figures = &on.facts.figures.premium_tax_credit;
    let enough = percent >= figures.least_percent || !advance.is_zero();
    let too_much = figures.none_above.is_some_and(|most| percent > most);
    on.unit.status != Status::Separate && !on.unit.claimable && enough && !too_much
}

/// Line 24: by the year, or month by month.
fn credit(
    on: On<'_>,
    trail: &mut impl Trail,
    months: &[(i64, Amounts)],
    (year, month): (Money, Money),
) -> Money {
    let (mut premiums, mut allowed) = (Money::ZERO, Money::ZERO);
    for &(at, of) in months {
        let contribution = if at == YEAR { year } else { month };
        let (premium, benchmark) = (of.premium.to_whole(), of.benchmark.to_whole());
        let room = limit::or_zero(trail, benchmark - contribution);
        premiums += premium;
        allowed += limit::lesser(trail, premium, room);
    }
    limit::given(trail, BENCHMARK.at(on.scope), limit::Shape::Cap, premiums, allowed)
}

/// What is paid back at most below each percentage of the poverty line (§36B(f)(2)(B)).
pub fn repayment_tiers(on: On<'_>) -> impl Iterator<Item = (i64, Money)> {
    let single = on.unit.status == Status::Single;
    let tiers = on.facts.figures.premium_tax_credit.repayment.iter();
    tiers.map(move |tier| (tier.below, if single { tier.single } else { tier.others }))
}

/// Lines 26 to 29. Where the self-employed deduct the premiums, the limit goes by the income that it leaves (Reg. §1.36B-4(a)(3)(iii)).
fn settle(on: On<'_>, trail: &mut impl Trail, percent: i64, allowed: Money, advance: Money) -> Credit {
    let over = limit::or_zero(trail, advance - allowed);
    let by_income = || repayment_tiers(on).find(|(below, _)| percent < *below).map(|(_, most)| most);
    let most = on.unit.cover.map_or_else(by_income, |cover| cover.repaid_at_most);
    let excess = most.map_or(over, |most| settled::lesser(over, most));
    trail.line(EXCESS, on.scope, excess, |i| {
        i.line(ADVANCE, on.scope, advance).line(ALLOWED, on.scope, allowed);
        if let Some(most) = most {
            i.figure("At most", most);
        }
    });
    let net = limit::or_zero(trail, allowed - advance);
    trail.line(NET, on.scope, net, |i| {
        i.line(ALLOWED, on.scope, allowed).line(ADVANCE, on.scope, advance);
    });
    Credit { allowed, net, excess }
}

/// Form 8962: where there is a policy.
pub fn form_8962(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(ADVANCE) || filed.has(ALLOWED), "no cover through the Marketplace")
}

/// What the paper must show.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(POLICY.id) {
        one(points, paper);
    }
    for place in 0..points.units.len() {
        of_return(points, place);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let whole = !paper.amount("33A").is_zero() && paper.amount("33B").is_zero();
    if whole {
        points.raise(&BENCHMARK_MISSING, Place::paper(&paper.id, "33B"), "The benchmark premium is missing.");
    }
    let month = |id: &str| paper.boxes.get(id).and_then(Entry::count);
    if month("30c").unwrap_or(1) > month("30d").unwrap_or(12) {
        points.raise(&MONTHS, Place::paper(&paper.id, "30c"), "The allocation ends before it begins.");
    }
    for row in &paper.rows {
        let of = |id: &str| row.get(id).and_then(Entry::money).unwrap_or_default();
        if !of("A").is_zero() && of("B").is_zero() {
            points.raise(
                &BENCHMARK_MISSING,
                Place::row(&paper.id, row, "B"),
                "The benchmark premium is missing.",
            );
        }
    }
}

fn of_return(points: &mut Points<'_>, place: usize) {
    let unit = &points.units[place];
    let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
    let Some(policy) = policies(on).next() else { return };
    let at = Place::paper(&points.household.papers[policy.item.paper].id, "33A");
    if unit.status == Status::Separate {
        points.raise(&SEPARATE, at.clone(), "There is no premium tax credit on this return.");
    }
    let advance = points.amount(ADVANCE, place);
    let poor =
        percentage(on, points.amount(INCOME, place)) < points.facts.figures.premium_tax_credit.least_percent;
    if poor && !advance.is_zero() {
        points.raise(&POOR, at.clone(), "Household income is below the poverty line.");
    }
    if !policy.allocated {
        points.raise(&SHARED, at.clone(), "Were people of other returns on this policy?");
    }
    if unit.status == Status::Joint && !points.amount(EXCESS, place).is_zero() {
        points.raise(&MARRIAGE, at, "Was this the year of the marriage?");
    }
}
