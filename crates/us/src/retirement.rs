//! Distributions of IRAs, pensions and annuities (§§72, 402, 408): Form 1040 lines 4a to 5b, with the Simplified Method, and gifts
//! straight to charity.

use crate::{
    facts::Facts,
    ira_basis,
    papers::retirement::{Distribution, Goes, Simplified, brings},
    taxed_later,
    unit::{Filed, Now, On},
};
use hembo_core::{
    field::Field,
    forms::Required,
    limit, limits,
    line::LineId,
    lines,
    pack::{FILER, Question},
    provision::Provision,
    settled,
    trail::{Scope, Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    person_questions: &[Question {
        of: FILER,
        from_age: 70,
        field: Field::amount(ask::DEDUCTED_SINCE, "", "IRA contributions deducted since 70½").help(
            "This year's too, less what lowered earlier gifts: so much of what goes straight to charity is taxed.",
        ),
    }],
    figures: &["charitable_distribution", "public_safety_officer", "simplified_method"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const DEDUCTED_SINCE: &str = "ira_deducted_since_70";
}

lines! {
    GIVEN = "us.qcd", "Given straight to charity", "IRC §408(d)(8)",
        "Out of IRAs from 70½ on, up to the amount of the year for each person, less contributions deducted since then.";
    IRA_GROSS = "us.4a", "IRA distributions", "IRC §408(d)",
        "Box 1 of every Form 1099-R of an IRA.";
    pub IRA_OF = "us.ira.of", "IRA distributions, taxed", "IRC §§408(d), 408A(d)",
        "Distributions of a person less basis, rollovers and gifts to charity.";
    pub IRA = "us.4b", "IRA distributions, taxed", "IRC §§408(d), 408A(d)",
        "What of line 4a is income.";
    PENSION_GROSS = "us.5a", "Pensions and annuities", "IRC §72(a)",
        "Box 1 of every other Form 1099-R.";
    RECOVERED = "us.simplified.8", "Cost recovered this year", "IRC §72(d)(1)(B)",
        "Simplified Method: cost over the expected payments, for the months of this year, until it is recovered.";
    pub PENSION_OF = "us.pension.of", "Pensions and annuities, taxed", "IRC §72",
        "Pensions of a person less rollovers, cost recovered, and premiums of a public safety officer.";
    pub PENSION = "us.5b", "Pensions and annuities, taxed", "IRC §72",
        "What of line 5a is income.";
    pub WAGES_OF = "us.1h.distributions", "Distributions that count as wages", "Form 1040, line 1h",
        "Disability pensions before the minimum retirement age, and excess contributions given back.";
}

limits! {
    MOST_GIVEN = "us.limit.qcd" on GIVEN, "Given straight to charity", "over the amount of the year, and taxed",
        "IRC §408(d)(8)(A)";
    OFFICER = "us.limit.officer" on PENSION_OF, "Premiums of a public safety officer", "over the amount left out",
        "IRC §402(l)(2)";
}

/// All distributions of a person.
pub fn of(facts: &Facts, person: usize) -> &[Distribution] {
    facts.people[person].own.of(&brings::DISTRIBUTIONS)
}

fn gross(facts: &Facts, person: usize, goes: &[Goes]) -> Money {
    of(facts, person).iter().filter(|d| goes.contains(&d.goes)).map(|d| d.gross.amount).sum()
}

/// What of a person's distributions counts as wages, line 1h.
pub fn wages(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let counted = || of(facts, person).iter().filter(|d| d.goes == Goes::Wages);
    if counted().next().is_none() {
        return Money::ZERO;
    }
    let amount = counted().map(|d| d.taxed).sum::<Money>().to_whole();
    trail.line(WAGES_OF, Scope::Person(person), amount, |i| {
        i.items(counted().map(|d| &d.gross));
    })
}

/// Lines 4b and 5b.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> (Money, Money) {
    let ira = [Goes::Ira, Goes::Roth, Goes::RothQualified];
    let ira = lines(on, trail, (IRA_GROSS, &ira), (IRA, IRA_OF), |trail, person| {
        ira_of(on.facts, trail, person, on.taxed_now(person))
    });
    let pension =
        lines(on, trail, (PENSION_GROSS, &[Goes::Pension]), (PENSION, PENSION_OF), |trail, person| {
            pension_of(on.facts, trail, person, on.taxed_now(person))
        });
    (ira, pension)
}

fn lines<T: Trail>(
    on: On<'_>,
    trail: &mut T,
    (gross_line, goes): (LineId, &[Goes]),
    (taxed_line, each): (LineId, LineId),
    taxed_of: impl Fn(&mut T, usize) -> Money,
) -> Money {
    let people = || on.unit.people.iter().copied();
    let all: Money = people().map(|p| gross(on.facts, p, goes)).sum();
    trail.line(gross_line, on.scope, all.to_whole(), |i| {
        i.items(people().flat_map(|p| of(on.facts, p)).filter(|d| goes.contains(&d.goes)).map(|d| &d.gross));
    });
    let taxed: Vec<(usize, Money)> = people().map(|p| (p, taxed_of(trail, p))).collect();
    on.of_each(trail, taxed_line, each, &taxed)
}

/// What of a person's IRA distributions is taxed, traditional and Roth.
pub fn ira_of(facts: &Facts, trail: &mut impl Trail, person: usize, now: Now) -> Money {
    let ira = || of(facts, person).iter().filter(|d| d.goes.is_ira());
    let scope = Scope::Person(person);
    if ira().next().is_none() {
        let earlier = taxed_later::change(facts, trail, person, Goes::Ira, Rate::ZERO, now);
        if earlier.is_zero() {
            return Money::ZERO;
        }
        return trail.line(IRA_OF, scope, earlier, |i| {
            i.figure("Disaster distributions of earlier years", earlier);
        });
    }
    let given: Money = ira().map(|d| d.given).sum();
    let most = facts.figures.charitable_distribution.most;
    let within = limit::cap(trail, MOST_GIVEN.at(scope), given, most);
    let deducted = facts.people[person].ira_deducted_since;
    let allowed = settled::or_zero(within - deducted);
    if !given.is_zero() {
        trail.line(GIVEN, scope, allowed, |i| {
            i.items(ira().map(|d| &d.gross)).figure("Given", given);
            if !deducted.is_zero() {
                i.figure("Contributions deducted since 70½", deducted);
            }
        });
    }
    let traditional = ira_basis::traditional(facts, trail, person, allowed);
    let roth = ira_basis::roth(facts, trail, person);
    let untaxed = ira_basis::untaxed_part(facts, person, allowed).unwrap_or(Rate::ZERO);
    let later = taxed_later::change(facts, trail, person, Goes::Ira, untaxed, now);
    trail.line(IRA_OF, scope, traditional + roth + later, |i| {
        i.items(ira().map(|d| &d.gross));
        if !allowed.is_zero() {
            i.line(GIVEN, scope, allowed);
        }
        i.figure("Traditional, taxed", traditional).figure("Roth, taxed", roth);
        if !later.is_zero() {
            i.figure("Disaster distributions of earlier years, less those put off", later);
        }
    })
}

/// What of a person's traditional IRAs is taxed, conversions too.
pub fn traditional_of(facts: &Facts, person: usize) -> Money {
    ira_basis::traditional(facts, &mut Silent, person, given_of(facts, person))
}

/// What a person's Roth IRAs paid out, without what was rolled over.
pub fn roth_of(facts: &Facts, person: usize) -> Money {
    let roth = of(facts, person).iter().filter(|d| d.goes.is_ira() && d.goes != Goes::Ira);
    roth.map(|d| d.gross.amount - d.rolled).sum::<Money>().to_whole()
}

/// What of a person's conversions to Roth IRAs is taxed.
pub fn converted_of(facts: &Facts, person: usize) -> Money {
    let converted = |goes| of(facts, person).iter().filter(|d| d.goes == goes).map(|d| d.converted).sum();
    let untaxed = ira_basis::untaxed_part(facts, person, given_of(facts, person)).unwrap_or(Rate::ZERO);
    let ira: Money = converted(Goes::Ira);
    (ira - ira.times(untaxed, Money::WHOLE, Rounding::HalfUp) + converted(Goes::Pension)).to_whole()
}

/// What went straight to charity out of a person's IRAs untaxed.
pub fn given_of(facts: &Facts, person: usize) -> Money {
    let given = of(facts, person).iter().filter(|d| d.goes.is_ira()).map(|d| d.given);
    let within = settled::lesser(given.sum(), facts.figures.charitable_distribution.most);
    settled::or_zero(within - facts.people[person].ira_deducted_since)
}

/// What of a person's pensions is taxed.
pub fn pension_of(facts: &Facts, trail: &mut impl Trail, person: usize, now: Now) -> Money {
    let pensions = || of(facts, person).iter().filter(|d| d.goes == Goes::Pension);
    let scope = Scope::Person(person);
    let later = taxed_later::change(facts, trail, person, Goes::Pension, Rate::ZERO, now);
    if pensions().next().is_none() && later.is_zero() {
        return Money::ZERO;
    }
    if pensions().next().is_none() {
        return trail.line(PENSION_OF, scope, later, |i| {
            i.figure("Disaster distributions of earlier years", later);
        });
    }
    let appreciation = taxed_later::appreciation(facts, person, now);
    let taxed: Money = pensions().filter(|d| d.simplified.is_none()).map(|d| d.taxed).sum();
    let (mut annuities, mut recovered) = (Money::ZERO, Money::ZERO);
    for distribution in pensions() {
        let Some(method) = distribution.simplified else { continue };
        annuities += distribution.taxed;
        recovered += settled::lesser(recovered_of(facts, method), distribution.taxed);
    }
    if !annuities.is_zero() {
        trail.line(RECOVERED, scope, recovered, |i| {
            i.items(pensions().filter(|d| d.simplified.is_some()).map(|d| &d.gross));
        });
    }
    let before = taxed + annuities - recovered;
    let premiums: Money = pensions().map(|d| d.officer).sum();
    let most = settled::lesser(facts.figures.public_safety_officer.most, before);
    let officer = limit::cap(trail, OFFICER.at(scope), premiums, most);
    trail.line(PENSION_OF, scope, (before - officer + appreciation).to_whole() + later, |i| {
        i.items(pensions().map(|d| &d.gross));
        if !recovered.is_zero() {
            i.line(RECOVERED, scope, recovered);
        }
        let more = [
            ("Premiums of a public safety officer", officer),
            ("Appreciation of the employer's shares", appreciation),
            ("Disaster distributions of earlier years, less those put off", later),
        ];
        for (name, amount) in more.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.figure(name, amount);
        }
    })
}

/// Simplified Method Worksheet lines 3 to 8, with cents.
fn recovered_of(facts: &Facts, method: Simplified) -> Money {
    let figures = &facts.figures.simplified_method;
    let table = if method.joint { &figures.two_lives } else { &figures.one_life };
    let row = table.iter().find(|row| method.age <= row.up_to_age);
    let payments = row.map_or(1, |row| row.payments);
    let month =
        Money::from_cents(Rounding::HalfUp.divide(method.cost.cents().into(), payments.into()) as i64);
    settled::lesser(month * method.months, settled::or_zero(method.cost - method.recovered))
}

/// What nonqualified annuities bring to net investment income (§1411(c)(1)(A)(i)).
pub fn annuities(on: On<'_>) -> Money {
    let annuities = on.unit.people.iter().flat_map(|&p| of(on.facts, p)).filter(|d| d.annuity);
    annuities.map(|d| d.taxed).sum::<Money>().to_whole()
}

/// What of a person's distributions is gross income, cents and all.
pub fn gross_income(facts: &Facts, person: usize) -> Money {
    ira_of(facts, &mut Silent, person, Now::default())
        + pension_of(facts, &mut Silent, person, Now::default())
        + wages(facts, &mut Silent, person)
}

/// The worksheet, kept.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(IRA_GROSS) || filed.has(PENSION_GROSS), "no distributions")
}
