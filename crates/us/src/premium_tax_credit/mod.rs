//! The premium tax credit (§36B), Form 8962: what health cover through the Marketplace may cost by income, the credit for the rest, and
//! what of the advance payments is paid back.

mod marriage;
mod policy;

use crate::{
    facts::Facts,
    filing_status::Status,
    income::{AGI, Income},
    papers::{box_12, w2},
    points::Points,
    unit::{Filed, On},
    who_files,
};
use hembo_core::{
    Paper,
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
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
    ALTERNATIVE = "us.8962.alternative", "Premium tax credit of the year of a marriage", "Reg. §1.36B-4(b)(2)",
        "Form 8962, Part V: each spouse by half of the income until the month of the marriage, both together after it.";
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
        "If both were single on 1 January, enter the month of the marriage: less may be paid back by Part V.";
    REIMBURSED = not_covered "8962-reimbursed", "IRC §36B(c)(4)";
    MARRIAGE_WORK = not_covered "8962-marriage", "Reg. §1.36B-4(b); Rev. Proc. 2014-41";
}
use policy::{Amounts, YEAR};
pub use policy::{POLICY, Policy, brings, read};

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

/// How many belong to the family of a return.
fn family_size(on: On<'_>) -> i64 {
    let size = on.unit.people.len() + on.unit.dependents.len();
    i64::try_from(size).unwrap_or(1)
}

/// The poverty line of a family of so many (§36B(d)(3)).
fn poverty_line(on: On<'_>, size: i64) -> Money {
    let figures = &on.facts.figures.premium_tax_credit;
    let line = match on.facts.state.as_deref() {
        Some("AK") => &figures.alaska,
        Some("HI") => &figures.hawaii,
        _ => &figures.poverty,
    };
    line.first + line.more * (size - 1)
}

/// Household income as a percentage of the poverty line, whole, and 401 above 400 (line 5).
fn percentage(on: On<'_>, income: Money, size: i64) -> i64 {
    let line = poverty_line(on, size);
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
    percentage(on, household_income(on, income), family_size(on))
}

/// What is paid oneself in a year, and its part of a month.
fn contribution(household: Money, part: Rate) -> (Money, Money) {
    let year = settled::or_zero(household).times(part, Money::WHOLE, Rounding::HalfUp);
    (year, year.in_proportion(Money::whole(1), Money::whole(12), Money::WHOLE, Rounding::HalfUp))
}

/// The most that the credit of a month could be, by the benchmark premium; none where the return may not have it.
pub fn most_of_month(on: On<'_>, income: &Income, benchmark: Money) -> Money {
    let household = household_income(on, income);
    let percent = percentage(on, household, family_size(on));
    let (_, month) = contribution(household, applicable(on, percent));
    if may(on, percent, Money::ZERO) { settled::or_zero(benchmark - month) } else { Money::ZERO }
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
    let size = family_size(on);
    let percent = percentage(on, household, size);
    let part = applicable(on, percent);
    let (year, month) = contribution(household, part);
    trail.line(CONTRIBUTION, on.scope, year, |i| {
        i.line(INCOME, on.scope, household)
            .figure("Poverty line", poverty_line(on, size))
            .figure("Per cent of it", percent)
            .figure("Part", part);
    });
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
    let alternative = marriage::credit(on, household, month).filter(|_| advance > allowed);
    if let Some(alternative) = alternative {
        trail.line(ALTERNATIVE, on.scope, alternative, |i| {
            i.items(policies(on).map(|policy| &policy.item)).line(INCOME, on.scope, household);
        });
    }
    settle(on, trail, percent, [allowed, alternative.unwrap_or_default()], advance)
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
fn settle(
    on: On<'_>,
    trail: &mut impl Trail,
    percent: i64,
    [allowed, alternative]: [Money; 2],
    advance: Money,
) -> Credit {
    // Part V makes less to pay back, never a credit (Reg. §1.36B-4(b)(2)(ii)).
    let greater = limit::greater(trail, allowed, alternative);
    let over = limit::or_zero(trail, advance - greater);
    let by_income = || repayment_tiers(on).find(|(below, _)| percent < *below).map(|(_, most)| most);
    let deducted = on.unit.cover.filter(|cover| !cover.deducted.is_zero());
    let most = deducted.map_or_else(by_income, |cover| cover.repaid_at_most);
    let excess = most.map_or(over, |most| settled::lesser(over, most));
    trail.line(EXCESS, on.scope, excess, |i| {
        i.line(ADVANCE, on.scope, advance).line(ALLOWED, on.scope, allowed);
        if alternative > allowed {
            i.line(ALTERNATIVE, on.scope, alternative);
        }
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
    reimbursed(points);
}

/// A small employer's reimbursement of premiums lowers the credit, or bars it.
fn reimbursed(points: &mut Points<'_>) {
    if points.papers(POLICY.id).next().is_none() {
        return;
    }
    for paper in w2::all(points) {
        if let Some((field, _, _)) = box_12::coded(paper).find(|(_, _, code)| code.reimburses_premiums()) {
            let message =
                "An employer's reimbursement (code FF) beside Marketplace premiums is not computed yet.";
            points.raise(&REIMBURSED, Place::paper(&paper.id, field), message);
        }
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
    let poor = percentage(on, points.amount(INCOME, place), family_size(on))
        < points.facts.figures.premium_tax_credit.least_percent;
    if poor && !advance.is_zero() {
        points.raise(&POOR, at.clone(), "Household income is below the poverty line.");
    }
    if !policy.shared_said {
        points.raise(&SHARED, at.clone(), "Were people of other returns on this policy?");
    }
    let married = marriage::month(on);
    if married.is_some() && of_own_work(on).is_some() {
        let message = "The year of a marriage beside premiums of the self-employed is not computed yet.";
        points.raise(&MARRIAGE_WORK, at.clone(), message);
    }
    if unit.status == Status::Joint && married.is_none() && !points.amount(EXCESS, place).is_zero() {
        points.raise(&MARRIAGE, at, "Was this the year of the marriage?");
    }
}
