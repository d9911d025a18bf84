//! Working for Families (ITA subparts MA to MG): the family tax credit, the in-work credit and Best Start, less what comes off by the
//! family scheme's income. It is paid beside the assessments.

use crate::{
    facts::Facts,
    income::Income,
    managed_funds, pay,
    plan::{Filed, On},
    points::Points,
    rounding::{cents, portion},
    trade,
};
use hembo_core::{
    Scope,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::Field,
    forms::Required,
    limit::{self, PhaseOut},
    limits, lines, open_points,
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Working for Families",
    lines: LINES,
    limits: LIMITS,
    person_questions: &[Question {
        of: FILER,
        from_age: 0,
        field: Field::amount(ask::ADJUSTMENTS, "", "Adjustments of family scheme income")
            .help("Form IR215: trusts, close companies, private pensions at a half, other payments above 5,000…"),
    }],
    household_questions: &[
        Field::count(ask::WORK_WEEKS, "", "Weeks with work income and a child", 52)
            .blank_is("52")
            .help("Weeks in which someone of the family earned from work and had neither a main benefit nor a student allowance."),
        Field::yes_no(ask::COUNTED, "", "Count family credits in what is minimised")
            .blank_is("true")
            .lasts()
            .help("Working for Families, Best Start and FamilyBoost; they are paid beside the assessments."),
    ],
    points: POINTS,
    figures: &["families", "best_start"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const ADJUSTMENTS: &str = "family_adjustments";
    pub const WORK_WEEKS: &str = "work_weeks";
    pub const COUNTED: &str = "count_family";
}

lines! {
    SCHEME_INCOME = "nz.family_scheme_income", "Family scheme income", "ITA MB 1 to MB 13; form IR215",
        "Net incomes of both without losses, funds that are not locked in, children's income above what is free, adjustments.";
    ABATEMENT = "nz.abatement", "Taken off by it", "ITA MD 13",
        "A part of each dollar above the threshold, by the days with a child.";
    FAMILY = "nz.family_tax_credit", "Family tax credit", "ITA MD 3, MD 13",
        "For each child and day, less what is taken off.";
    IN_WORK = "nz.in_work", "In-work credit", "ITA MD 4 to MD 10, MD 13",
        "For weeks with work, less what the family tax credit could not take.";
    BEST_START = "nz.best_start", "Best Start", "ITA MG 1 to MG 3",
        "For each young child; after the first year of life less a part of income above its threshold.";
    pub TOGETHER = "nz.wff_total", "Working for Families", "ITA MC 5",
        "All three; nothing where the family does not claim.";
}

limits! {
    BY_INCOME = "nz.limit.families" on FAMILY, "Family and in-work credit", "over family scheme income", "ITA MD 13";
    START_BY_INCOME = "nz.limit.best_start" on BEST_START, "Best Start after the first year", "over family scheme income", "ITA MG 3";
}

open_points! {
    WEEKS = look "families-weeks", "ITA MD 9", "Count the weeks with work: benefits and student allowances leave them out.";
    FLOOR = not_weighed "families-floor", "ITA ME 1 to ME 3", "A family with little pay may have the minimum family tax credit: ask for it beside this return.";
    RENOUNCED = look "C67", "ITA LC 13(1)(c)", "Whether entitlement that is not claimed leaves the earner credit open is to be confirmed.";
    TRANSITIONAL = look "C06", "ITA HR 8(5)", "Claiming ends transitional residence for good: both ways are weighed for this year only.";
}

/// What the scheme adds up to for a family, before the question whether it claims.
#[derive(Debug, Clone, Copy, Default)]
struct Entitled {
    income: Money,
    abatement: Money,
    family: Money,
    in_work: Money,
    start: Money,
}

/// Whether any child makes the scheme open.
pub fn open(facts: &Facts) -> bool {
    facts.children.days > 0 && !facts.filers.is_empty()
}

/// Working for Families on the first filer's return.
pub fn reckon(facts: &Facts, on: On<'_>, trail: &mut impl Trail, incomes: &[(usize, Income)]) -> Money {
    if !open(facts) || !on.plan.claims_family {
        return Money::ZERO;
    }
    let scope = Scope::Return(0);
    let income = scheme_income(on, trail, incomes);
    let found = entitled(facts, trail, income, works(facts, incomes));
    let lines = [(FAMILY, found.family), (IN_WORK, found.in_work), (BEST_START, found.start)];
    trail.line(ABATEMENT, scope, found.abatement, |i| {
        i.line(SCHEME_INCOME, scope, income).figure("Above", facts.figures.families.from);
    });
    for (line, amount) in lines {
        trail.line(line, scope, amount, |i| {
            i.line(SCHEME_INCOME, scope, found.income);
        });
    }
    hembo_core::trail::add(trail, TOGETHER, scope, &lines)
}

/// Whether anyone of the family has income from work.
fn works(facts: &Facts, incomes: &[(usize, Income)]) -> bool {
    let earns = |person: usize| {
        let own = &facts.people[person].own;
        own.has(&pay::brings::LIABLE) || own.has(&pay::brings::SCHEDULAR) || own.has(&trade::brings::TRADES)
    };
    incomes.iter().any(|(person, _)| earns(*person))
}

/// MB 1 to MB 13.
fn scheme_income(on: On<'_>, trail: &mut impl Trail, incomes: &[(usize, Income)]) -> Money {
    let mut total = on.facts.children.passive_income;
    for (person, income) in incomes {
        let of = On::of(on.facts, on.plan, *person);
        total += limit::or_zero(trail, income.of_scheme)
            + settled::or_zero(managed_funds::free_income(of))
            + of.who().family_adjustments;
    }
    trail.line(SCHEME_INCOME, Scope::Return(0), total, |i| {
        for (person, income) in incomes {
            let of = On::of(on.facts, on.plan, *person);
            i.line(crate::income::NET, of.scope, income.net);
            i.figure("Without losses", income.of_scheme);
            let funds = managed_funds::free_income(of);
            if !funds.is_zero() {
                i.figure("Managed funds not locked in", funds);
            }
        }
    })
}

/// MD 13, MG 3: what comes off takes the family tax credit first.
fn entitled(facts: &Facts, trail: &mut impl Trail, income: Money, works: bool) -> Entitled {
    let figures = &facts.figures.families;
    let children = &facts.children;
    let rule = PhaseOut {
        step: Some((Money::WHOLE, Rounding::Down)),
        ..PhaseOut::continuous(figures.from, figures.rate, Money::CENT)
    };
    let excess = limit::or_zero(trail, income - figures.from).steps_of(Money::WHOLE, Rounding::Down);
    let of_year = cents(Money::whole(excess), figures.rate);
    let abatement = portion(of_year, children.days, facts.days());
    let in_work = if works { in_work(facts) } else { Money::ZERO };
    let full = children.credit + in_work;
    trail.edge(income - rule.start, !full.is_zero());
    let family = limit::or_zero(trail, children.credit - abatement);
    let rest = limit::or_zero(trail, abatement - children.credit);
    let in_work = limit::or_zero(trail, in_work - rest);
    limit::given(trail, BY_INCOME.at(Scope::Return(0)), limit::Shape::PhaseOut, full, family + in_work);
    let start = best_start(facts, trail, income);
    Entitled { income, abatement, family, in_work, start }
}

/// The in-work credit of the weeks with work, at most those with a child.
fn in_work(facts: &Facts) -> Money {
    let weeks = settled::lesser(
        facts.work_weeks,
        settled::lesser(facts.children.days / 7, facts.figures.families.weeks),
    );
    portion(facts.children.in_work, weeks, facts.figures.families.weeks)
}

/// MG 1 to MG 3: what is tested goes down by a part of income above the threshold, by the days with a child of that age.
fn best_start(facts: &Facts, trail: &mut impl Trail, income: Money) -> Money {
    let figures = &facts.figures.best_start;
    let children = &facts.children;
    let excess = limit::or_zero(trail, income - figures.from).steps_of(Money::WHOLE, Rounding::Down);
    let off = portion(cents(Money::whole(excess), figures.rate), children.start_days, facts.days());
    let tested = limit::or_zero(trail, children.start_tested - off);
    limit::given(
        trail,
        START_BY_INCOME.at(Scope::Return(0)),
        limit::Shape::PhaseOut,
        children.start_tested,
        tested,
    );
    children.start_untested + tested
}

/// Whether the family claims.
pub static CLAIM: Open<Facts> = Open::new(
    |facts| if open(facts) { vec![0] } else { Vec::new() },
    |_, _| {
        let options = vec![
            Opt::new("claim", "Claimed", "with Working for Families"),
            Opt::new("leave", "Not claimed, earner credits instead", "without Working for Families"),
        ];
        Decision::between("nz.families", "Working for Families", "ITA MC 1, LC 13(1)(c)", options)
    },
);

/// Whether it is claimed in a way.
pub fn chosen(way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&CLAIM, 0) == Some(0)
}

/// The worksheet: where there is a child.
pub fn worksheet(filed: Filed<'_>) -> Required {
    filed.when(TOGETHER, "Working for Families is not claimed")
}

/// Weeks that are not known, the floor that is not computed, claims that end something.
pub fn points(points: &mut Points<'_>) {
    let facts: &Facts = points.facts;
    if !open(facts) {
        return;
    }
    let claimed = !points.amount(SCHEME_INCOME, 0).is_zero() || !points.amount(TOGETHER, 0).is_zero();
    let any = facts.filers.iter().any(|&p| facts.people[p].earner_months > 0);
    let place = Place::decision("nz.families");
    if points.answered(ask::WORK_WEEKS).is_none() && claimed {
        let message = "Fifty-two weeks with work are taken.";
        points.raise(&WEEKS, Place::household(ask::WORK_WEEKS), message);
    }
    if claimed && points.amount(SCHEME_INCOME, 0) <= Money::whole(50_000) {
        let message = "The minimum family tax credit is not computed.";
        points.raise(&FLOOR, Place::household(ask::WORK_WEEKS), message);
    }
    if !claimed && any {
        points.raise(&RENOUNCED, place.clone(), "Working for Families is not claimed.");
    }
    if facts.filers.iter().any(|&p| facts.people[p].transitional) {
        points.raise(&TRANSITIONAL, place, "A transitional resident with children.");
    }
}
