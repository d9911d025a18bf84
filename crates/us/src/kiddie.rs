//! Tax of a child at the parents' rates (§1(g)), Form 8615.

use crate::{
    business, dependents,
    filing_status::Status,
    gains::Gains,
    gains_tax, income,
    papers::{dividends, interest, w2},
    points::Points,
    schedule_1,
    unit::{Filed, On},
};
use hembo_core::{
    field::Field,
    forms::Required,
    household::Role,
    limit, lines, open_points,
    pack::Question,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: &[Role::Filer, Role::Dependent],
            from_age: 0,
            field: Field::yes_no(ask::PARENT_ALIVE, "", "A parent was alive at the end of the year").lasts(),
        },
        Question {
            of: &[Role::Filer, Role::Dependent],
            from_age: 18,
            field: Field::yes_no(ask::EARNED_OVER_HALF, "", "Own earnings were over half of own support"),
        },
    ],
    lines: LINES,
    points: POINTS,
    figures: &["kiddie", "dependents"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const PARENT_ALIVE: &str = "parent_alive";
    pub const EARNED_OVER_HALF: &str = "earned_over_half";
}

open_points! {
    ASKED = not_known "K-151-ask", "IRC §1(g)(2)",
        "It decides whether Form 8615 taxes this income at the parents' rates.";
    FORM_8615 = not_covered "K-151", "IRC §1(g)";
    ELECTION = look "C-54", "IRC §1(g)(7)",
        "Form 8814 spares the child's return: whether it costs less is weighed on a joint or only return, not on separate ones.";
}

lines! {
    L1 = "us.8615.1", "Unearned income of the child", "IRC §1(g)(4)",
        "Total income less earnings and the early withdrawal penalty.";
    L5 = "us.8615.5", "Taxed at the parents' rates", "IRC §1(g)(4)(A)",
        "What of it is above the limit, up to taxable income.";
    L9 = "us.8615.9", "Tax on the parents' income with it", "IRC §1(g)(3)(A)(i)",
        "By the parents' status, with the line 5 of brothers and sisters.";
    L13 = "us.8615.13", "The child's part of the tax that it adds", "IRC §1(g)(3)(B)",
        "What the tax is above the parents' own, shared among brothers and sisters.";
    L15 = "us.8615.15", "Tax on the rest", "IRC §1(g)(1)(A)",
        "By the child's own rates.";
    pub L18 = "us.8615.18", "Tax of the child", "IRC §1(g)(1)",
        "Both together; the tax at the child's own rates, if that is more.";
}

/// Whether the part of the American opportunity credit that is paid out is barred (§25A(i)): for someone under 18, or under 24 whose
/// earnings were not over half of the support, with a parent alive, on no joint return.
pub fn bars_refund(on: On<'_>) -> bool {
    let figures = &on.facts.figures.kiddie;
    let about = &on.facts.people[on.unit.people[0]];
    let end = on.facts.year_end;
    if on.unit.status == Status::Joint
        || about.parent_alive == Some(false)
        || about.reached(figures.under, end)
    {
        return false;
    }
    let student = about.student_months >= on.facts.figures.dependents.student_months;
    let by_support = about.earned_over_half != Some(true);
    let young = !about.reached(figures.from_age, end);
    let eighteen = !about.reached(figures.student_from_age, end) && by_support;
    young || eighteen || (student && by_support)
}

/// Whether Form 8615 applies (§1(g)(2)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Applies {
    No,
    Yes,
    /// It depends on this question.
    Asks(&'static str),
}

/// Unearned income above the limit of someone under 18, or under 19 (a student under 24) whose earnings were not over half of the
/// support, with a parent alive, who files no joint return. A state has a limit of its own.
pub fn applies(on: On<'_>, unearned: Money, limit_of: Money) -> Applies {
    let (facts, person) = (on.facts, on.unit.people[0]);
    let (figures, about, end) = (&facts.figures.kiddie, &facts.people[person], facts.year_end);
    let grown = about.born.is_none() || about.reached(figures.under, end);
    let outside = on.unit.status == Status::Joint || about.parent_alive == Some(false);
    if unearned <= limit_of || grown || outside {
        return Applies::No;
    }
    if about.reached(figures.student_from_age, end) {
        if !about.student_months_said {
            return Applies::Asks(dependents::ask::STUDENT_MONTHS);
        }
        if about.student_months < facts.figures.dependents.student_months {
            return Applies::No;
        }
    }
    let earns = about.own.has(&w2::brings::WAGES) || !business::of(facts, person).is_empty();
    if about.reached(figures.from_age, end) && earns {
        match about.earned_over_half {
            Some(true) => return Applies::No,
            Some(false) => {}
            None => return Applies::Asks(ask::EARNED_OVER_HALF),
        }
    }
    let parent_here = !about.filer && facts.child_of_filers(person);
    if about.parent_alive.is_none() && !parent_here {
        return Applies::Asks(ask::PARENT_ALIVE);
    }
    Applies::Yes
}

/// What the tax of a child starts from.
#[derive(Debug, Clone, Copy)]
pub struct Child {
    /// Line 9 less earned income and the early withdrawal penalty.
    pub unearned: Money,
    /// Line 15.
    pub taxable: Money,
    /// Line 3a.
    pub qualified: Money,
    /// Schedule D.
    pub gains: Gains,
}

impl Child {
    /// Line 5: the smaller of unearned income above the limit and taxable income.
    pub fn taxed_at_parents(&self, on: On<'_>) -> Money {
        settled::lesser(
            settled::or_zero(self.unearned - on.facts.figures.kiddie.unearned_above),
            self.taxable,
        )
    }

    /// Whether the form applies.
    pub fn is_taxed(&self, on: On<'_>) -> bool {
        let limit_of = on.facts.figures.kiddie.unearned_above;
        applies(on, self.unearned, limit_of) == Applies::Yes && !self.taxable.is_zero()
    }
}

/// Line 18, where the form applies and the parents' return is here: the parents' rates on what is above the limit, if that is more.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, child: Child, own_tax: Money) -> Money {
    let Some(parents) = on.unit.parents.filter(|_| child.is_taxed(on)) else { return own_tax };
    let limit_of = on.facts.figures.kiddie.unearned_above;
    trail.line(L1, on.scope, child.unearned, |i| {
        i.figure("Total income less what was earned", child.unearned);
    });
    let at_parents = trail.line(L5, on.scope, child.taxed_at_parents(on), |i| {
        i.line(L1, on.scope, child.unearned).figure("Not at the parents' rates", limit_of);
    });
    let part = |amount: Money| {
        let above = settled::or_zero(child.unearned - limit_of);
        amount.in_proportion(above, child.unearned, Money::WHOLE, Rounding::HalfUp)
    };
    let qualified = settled::lesser(part(child.qualified), at_parents);
    let net = settled::lesser(part(child.gains.net), at_parents - qualified);
    let share = |amount: Money| settled::lesser(part(amount), net);
    let layers = Gains {
        net,
        rate_28: share(child.gains.rate_28),
        section_1250: share(child.gains.section_1250),
        ..Gains::default()
    };
    let all = at_parents + parents.siblings;
    let together = Gains {
        net: parents.gains.net + layers.net,
        rate_28: parents.gains.rate_28 + layers.rate_28,
        section_1250: parents.gains.section_1250 + layers.section_1250,
        ..Gains::default()
    };
    let with = gains_tax::tax_of(
        on,
        trail,
        parents.status,
        parents.taxable + all,
        parents.qualified + qualified,
        together,
    );
    trail.line(L9, on.scope, with, |i| {
        i.figure("Taxable income of the parents", parents.taxable)
            .line(L5, on.scope, at_parents)
            .figure("Line 5 of brothers and sisters", parents.siblings);
    });
    let added = with - parents.tax;
    let own_part = trail.line(
        L13,
        on.scope,
        added.in_proportion(at_parents, all, Money::WHOLE, Rounding::HalfUp),
        |i| {
            i.line(L9, on.scope, with).figure("Tax of the parents", parents.tax);
        },
    );
    let rest = Gains {
        net: child.gains.net - layers.net,
        rate_28: child.gains.rate_28 - layers.rate_28,
        section_1250: child.gains.section_1250 - layers.section_1250,
        ..Gains::default()
    };
    let on_rest = gains_tax::tax_of(
        on,
        trail,
        on.unit.status,
        child.taxable - at_parents,
        child.qualified - qualified,
        rest,
    );
    trail.line(L15, on.scope, on_rest, |i| {
        i.figure("The rest of taxable income", child.taxable - at_parents);
    });
    let tax = limit::greater(trail, own_part + on_rest, own_tax);
    trail.line(L18, on.scope, tax, |i| {
        i.line(L13, on.scope, own_part)
            .line(L15, on.scope, on_rest)
            .figure("At the child's own rates", own_tax);
    })
}

/// Form 8615: where it makes the tax.
pub fn form_8615(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L18), "no unearned income above the limit, or no child")
}

/// Every return that is not a joint one, nor of a state alone.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        if unit.status != Status::Joint && !unit.of_state.alone {
            one(points, place);
        }
    }
}

fn one(points: &mut Points<'_>, place: usize) {
    let unit = &points.units[place];
    let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
    let amount = |line| points.amount(line, place);
    let earned = amount(income::EARNED) + amount(business::L3) + amount(schedule_1::PENALTY);
    let about = &points.facts.people[unit.people[0]];
    let name = &about.name;
    match applies(on, amount(income::TOTAL) - earned, points.facts.figures.kiddie.unearned_above) {
        Applies::No => {}
        Applies::Asks(field) => asked(points, unit.people[0], field),
        Applies::Yes if unit.parents.is_some() => election(points, place),
        Applies::Yes => {
            let (interest, dividends) = (&interest::brings::INTEREST, &dividends::brings::ORDINARY);
            let unearned = about.own.of(interest).iter().chain(about.own.of(dividends));
            let largest = unearned.max_by_key(|item| item.amount);
            let place = largest.map(|item| Place::paper(&points.household.papers[item.paper].id, item.field));
            let message =
                format!("{name} has unearned income over the limit, and the parents' return is not here.");
            points.raise(&FORM_8615, place.unwrap_or_default(), message);
        }
    }
}

/// Asks what decides whether a person's income is taxed at the parents' rates.
pub fn asked(points: &mut Points<'_>, person: usize, field: &'static str) {
    let about = &points.facts.people[person];
    let name = &about.name;
    let message = match field {
        ask::EARNED_OVER_HALF => format!("Were the earnings of {name} over half of the support?"),
        ask::PARENT_ALIVE => format!("Was a parent of {name} alive at the end of the year?"),
        _ => format!("For how many months was {name} a student?"),
    };
    points.raise(&ASKED, Place::person(&about.id, field), message);
}

/// A child's income of interest and dividends alone may go on the parents' return instead (§1(g)(7)).
fn election(points: &mut Points<'_>, place: usize) {
    let unit = &points.units[place];
    let amount = |line| points.amount(line, place);
    let about = &points.facts.people[unit.people[0]];
    let apart = points.facts.couple() && points.units.iter().any(|unit| unit.main && unit.people.len() == 1);
    let only = apart && amount(income::TOTAL) == amount(income::INTEREST) + amount(income::DIVIDENDS);
    if only && amount(income::TOTAL) < points.facts.figures.kiddie.election_below {
        let message = format!("The income of {} could go on a parent's return (Form 8814).", about.name);
        points.raise(&ELECTION, Place::person(&about.id, ask::PARENT_ALIVE), message);
    }
}
