//! The penalty for months without health cover (R&TC 61010 to 61015; FTB 3853): by month the larger of a flat amount and a part of income above
//! the filing threshold, all months at most the average bronze premium.

use super::{
    adjustments::{self, Adjusted},
    affordability::{self, Affordable},
    cover_months::{self, Found, Is, Known},
    made, thresholds,
};
use crate::{
    facts::Facts,
    income::{self, Income},
    state_facts::Months,
    unit::{On, Unit},
};
use hembo_core::{
    Household, Recorder, Scope, Silent, Trail,
    drawn::{Drawn, Panel},
    limit, limits, lines,
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["california_cover", "california_deductions"],
    ..Provision::NONE
};

lines! {
    pub HOUSEHOLD_INCOME = "us.ca.3853.income", "Household income", "R&TC 61000", "California income with exempt interest, and that of dependents who must file.";
    AFFORDABLE = "us.ca.3853.affordable", "Cost of cover that is affordable", "R&TC 61020", "A part of household income, with pay given up for cover: a cheapest plan that costs more a year frees its months.";
    BARE = "us.ca.3853.months", "Months of persons without cover", "FTB 3853 Part III", "Cells with X.";
    pub FLAT = "us.ca.3853.flat", "Flat amounts", "R&TC 61015(b)(2)(A)", "A twelfth for each month: of each adult and child without cover, a household at most three of an adult.";
    pub PERCENT = "us.ca.3853.percent", "Part of income above the threshold", "R&TC 61015(b)(2)(B)", "A twelfth for each month in which someone was without cover.";
    pub LARGER = "us.ca.3853.larger", "The larger of both, month by month", "R&TC 61015(b)(2)", "Added up with cents.";
    pub BRONZE = "us.ca.3853.bronze", "The average bronze premium", "R&TC 61015(b)(1)(B)", "Of each person and month without cover, at most five persons a month; to be confirmed.";
    pub L92 = "us.ca.540.92", "Penalty for months without health cover", "R&TC 61015; FTB 3853", "The smaller of the two; none where income is below a filing threshold.";
}

limits! {
    MOST = "us.ca.limit.cover" on L92, "Penalty for months without cover", "over the average bronze premium, not owed", "R&TC 61015(b)(1)";
}

/// The household of a return: filers, those they claim, and those whom they could claim and do not.
fn household(on: On<'_>) -> impl Iterator<Item = usize> {
    let claimed = on.unit.dependents.iter().map(|dependent| dependent.person);
    on.unit.people.iter().copied().chain(claimed).chain(on.unit.forgone.iter().copied())
}

/// The months of a person, as entered.
fn months(facts: &Facts, person: usize) -> Option<&Months> {
    facts.of_state.as_ref()?.cover.iter().find(|of| of.person == person)
}

/// The codes that the rules find for the months of a person, on the return whose household the person is of.
pub fn found_of(facts: &Facts, units: &[Unit], trail: &Recorder, person: usize) -> Found {
    if facts.of_state.as_ref().is_none_or(|of| of.offers.is_empty()) {
        return Found::default();
    }
    let of = |(place, unit): (usize, &Unit)| {
        let on = On { facts, unit, scope: Scope::Return(place) };
        let members: Vec<usize> = household(on).collect();
        let income = trail.amount(HOUSEHOLD_INCOME, on.scope).filter(|_| members.contains(&person))?;
        let federal = income::reckon(on, &mut Silent);
        Some(Affordable::of(on, &federal, &members, income).codes(&members, person))
    };
    units.iter().enumerate().filter(|(_, unit)| unit.main).find_map(of).unwrap_or_default()
}

/// How many adults and children of a household are without cover in each month.
fn bare(on: On<'_>, members: &[usize], found: impl Fn(usize) -> Found) -> [[i64; 2]; 12] {
    let mut counts = [[0; 2]; 12];
    let figures = &on.facts.figures;
    let Some(cover) = &figures.california_cover else { return counts };
    for &person in members {
        let about = &on.facts.people[person];
        let Some(of) = months(on.facts, person) else { continue };
        let judged = cover_months::judged(cover, figures.year, of, about.born, about.died, &found(person));
        for (month, _) in judged.iter().enumerate().filter(|(_, is)| **is == Is::Bare) {
            let adult = cover_months::is_adult(cover, figures.year, month, about.born);
            counts[month][usize::from(!adult)] += 1;
        }
    }
    counts
}

/// Line 92.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, of: Adjusted, federal: &Income) -> Money {
    let Some(figures) = &on.facts.figures.california_cover else { unreachable!("prepared with its figures") };
    let income = household_income(on, trail, of);
    let members: Vec<usize> = household(on).collect();
    let affordable = Affordable::of(on, federal, &members, income);
    affordable.tell(trail, &members);
    trail.line(AFFORDABLE, on.scope, affordable.most, |i| {
        i.items(affordability::items(on, &members))
            .line(HOUSEHOLD_INCOME, on.scope, income)
            .figure("Part", limit::percent(figures.affordable));
    });
    let counts = bare(on, &members, |person| affordable.codes(&members, person));
    let persons: i64 = counts.iter().flatten().sum();
    let rows = || household(on).filter_map(|person| months(on.facts, person)).map(|of| &of.item);
    trail.line(BARE, on.scope, Money::whole(persons), |i| _ = i.items(rows()));
    if persons == 0 || on.unit.claimable {
        return made(on, trail, L92, Money::ZERO, &[(BARE, Money::whole(persons))], &[]);
    }
    let [gross_from, income_from] = thresholds::of(on);
    let part = limit::share_above(trail, income, gross_from, figures.rate, Money::CENT);
    let most = figures.adult * figures.household_times;
    let (mut flat, mut larger, mut months, mut bronze) = (Money::ZERO, Money::ZERO, 0, Money::ZERO);
    for [adults, children] in counts.into_iter().filter(|counts| counts.iter().sum::<i64>() > 0) {
        let of_month = limit::lesser(trail, figures.adult * adults + figures.child * children, most);
        flat += of_month;
        larger += limit::greater(trail, of_month, part);
        months += 1;
        bronze += figures.bronze * settled::lesser(adults + children, figures.bronze_people);
    }
    let twelfth = |amount: Money| {
        amount.in_proportion(Money::whole(1), Money::whole(12), Money::CENT, Rounding::HalfUp)
    };
    let (flat, percent, larger) = (twelfth(flat), twelfth(part * months), twelfth(larger));
    made(
        on,
        trail,
        FLAT,
        flat,
        &[(BARE, Money::whole(persons))],
        &[("An adult", &figures.adult), ("A child", &figures.child)],
    );
    let threshold: &[(&'static str, &dyn ToString)] = &[("Threshold", &gross_from), ("Months", &months)];
    made(on, trail, PERCENT, percent, &[(HOUSEHOLD_INCOME, income)], threshold);
    made(on, trail, LARGER, larger, &[(FLAT, flat), (PERCENT, percent)], &[]);
    made(on, trail, BRONZE, bronze, &[(BARE, Money::whole(persons))], &[("A month", &figures.bronze)]);
    let [gross, both] = of_both(on, of.gross, income);
    let exempt = both < income_from || gross < gross_from;
    let owed = limit::cap(trail, MOST.at(on.scope), larger, bronze).to_whole();
    let penalty = if exempt { Money::ZERO } else { owed };
    let words =
        if exempt { "income is below a filing threshold" } else { "income is above the filing thresholds" };
    made(on, trail, L92, penalty, &[(LARGER, larger), (BRONZE, bronze)], &[("Exemption", &words)])
}

/// What the papers of cover show: what the rules make of each month, and the three steps of the penalty, of all returns together.
pub fn drawn(facts: &Facts, household: &Household, units: &[Unit], trail: &Recorder) -> Vec<(usize, Drawn)> {
    let (Some(of), Some(figures)) = (&facts.of_state, &facts.figures.california_cover) else {
        return Vec::new();
    };
    let sum =
        |line| (0..units.len()).filter_map(|place| trail.amount(line, Scope::Return(place))).sum::<Money>();
    let [flat, percent, bronze, penalty] = [FLAT, PERCENT, BRONZE, L92].map(sum);
    let (larger, bare) = (sum(LARGER), sum(BARE));
    let panel = |title: &str, amount, how: String, rules| Panel { title: title.into(), amount, how, rules };
    let capped = larger > bronze;
    let panels = vec![
        panel(
            "1 · By head",
            flat,
            format!("{:#} a year an adult, {:#} a child, so many months", figures.adult, figures.child),
            !bare.is_zero() && !capped && flat >= percent,
        ),
        panel(
            "2 · By income",
            percent,
            format!("{} of income above the filing threshold, so many months", limit::percent(figures.rate)),
            !capped && percent > flat,
        ),
        panel(
            "3 · Never more than",
            bronze,
            format!("the average bronze plan, {:#} a month · to be confirmed", figures.bronze),
            capped,
        ),
    ];
    let conclusion = match (bare.is_zero(), penalty.is_zero()) {
        (true, _) => "No month without cover and exemption: no penalty.".to_owned(),
        (false, true) => {
            "Income is below a filing threshold, or someone can claim the filer: no penalty.".to_owned()
        }
        (false, false) => format!(
            "Month by month the larger of 1 and 2, together up to 3: {penalty:#} is added to the tax of California, line 92."
        ),
    };
    let mut papers: Vec<usize> = of.cover.iter().map(|of| of.item.paper).collect();
    papers.sort_unstable();
    papers.dedup();
    let one = |paper: usize| {
        let rows = of.cover.iter().filter(|of| of.item.paper == paper);
        let cells = rows.flat_map(|of| {
            let about = &facts.people[of.person];
            let (year, found) = (facts.figures.year, found_of(facts, units, trail, of.person));
            let known = Known {
                judged: cover_months::judged(figures, year, of, about.born, about.died, &found),
                found: &found,
                short: cover_months::short_runs(figures, year, of, about.born, about.died, &found),
                outside: std::array::from_fn(|month| {
                    cover_months::outside(year, month, about.born, about.died)
                }),
                offered: affordability::offered(facts, of.person),
            };
            let row = &household.papers[paper].rows[of.item.row.unwrap_or_default()];
            cover_months::made(row, of, &known)
        });
        let drawn = Drawn {
            cells: cells.collect(),
            panels: panels.clone(),
            conclusion: conclusion.clone(),
            codes: cover_months::MEANINGS.to_vec(),
            hint: "An empty month is without cover: the rules find B or X.",
            ..Drawn::default()
        };
        (paper, drawn)
    };
    papers.into_iter().map(one).collect()
}

/// California income with exempt interest, and that of dependents who must file for themselves.
fn household_income(on: On<'_>, trail: &mut impl Trail, of: Adjusted) -> Money {
    let own = of.income();
    // Whose income is on this return has no duty to file.
    let files = |person: &usize| !on.unit.elected_here.contains(person);
    let dependents = on.unit.dependents.iter().map(|of| of.person).filter(files);
    let dependents: Money = dependents.map(|person| income_of_dependent(on, person)).sum();
    let words: &[(&'static str, &dyn ToString)] =
        &[("Exempt interest", &of.exempt_interest), ("Of dependents", &dependents)];
    made(on, trail, HOUSEHOLD_INCOME, own + dependents, &[(adjustments::L17, of.agi)], words)
}

/// What a student takes of a scholarship as income.
pub fn scholarship_of(unit: &Unit, person: usize) -> Money {
    unit.scholarships.iter().filter(|(of, _)| *of == person).map(|(_, amount)| *amount).sum()
}

/// The own standard deduction of a dependent, of whose scholarships so much is taken as income, which counts as earned.
pub fn free_of_dependent(facts: &Facts, person: usize, scholarship: Money) -> Money {
    let Some(figures) = &facts.figures.california_deductions else { return Money::ZERO };
    let about = &facts.people[person];
    let earned = settled::or_zero(about.gross_income - about.unearned_alone) + scholarship;
    let own = settled::greater(earned + figures.dependent_plus, figures.dependent_least);
    settled::lesser(own, figures.standard.single)
}

/// The household income of a dependent whose gross income is above it, with scholarships that are taken as income.
fn income_of_dependent(on: On<'_>, person: usize) -> Money {
    let of = adjustments::of_person(on.facts, person);
    let scholarship = scholarship_of(on.unit, person);
    if of.gross + scholarship > free_of_dependent(on.facts, person, scholarship) {
        settled::or_zero(of.income() + scholarship)
    } else {
        Money::ZERO
    }
}

/// Gross income and household income for the thresholds: of spouses who file apart with that of the other.
fn of_both(on: On<'_>, gross: Money, income: Money) -> [Money; 2] {
    let separate = on.unit.status == crate::filing_status::Status::Separate;
    let other = on.facts.other_filer(on.unit.people[0]).filter(|_| separate && on.facts.couple());
    other.map_or([gross, income], |other| {
        let of = adjustments::of_person(on.facts, other);
        [gross + of.gross, income + of.income()]
    })
}
