//! Education credits (§25A), Form 8863: for each student the American opportunity credit, the lifetime learning credit or none, on the
//! return that claims the student.

use crate::{
    dependents,
    facts::Facts,
    filing_status::Status,
    income, kiddie,
    papers::tuition::{self, Tuition},
    points::Points,
    status,
    unit::{EducationCredit, Filed, On},
};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    forms::Required,
    limit::{self, Shape},
    limits, lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Scope, Silent, Trail},
    words::first_name,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, points: POINTS, figures: &["education"], ..Provision::NONE };

lines! {
    OPPORTUNITY_OF = "us.8863.30", "American opportunity credit of this student", "IRC §25A(b)(1)",
        "All of the first 2,000 of expenses and a quarter of the next 2,000.";
    OPPORTUNITY = "us.8863.7", "American opportunity credit", "IRC §25A(d)",
        "Of all students, less the part that income within the range takes.";
    pub L29 = "us.29", "American opportunity credit paid out", "IRC §25A(i)",
        "40 % of it, paid out beyond the tax.";
    LEARNING_OF = "us.8863.31", "Lifetime learning expenses of this student", "IRC §25A(c)(1)",
        "Tuition and required fees less what was tax-free.";
    LEARNING = "us.8863.18", "Lifetime learning credit", "IRC §25A(c), (d)",
        "A fifth of up to 10,000 for the return, less the part that income within the range takes.";
    pub CREDIT = "us.sched_3.3", "Education credits", "IRC §25A",
        "What is not paid out, up to the tax.";
}

limits! {
    OPPORTUNITY_INCOME = "us.limit.opportunity" on OPPORTUNITY, "American opportunity credit", "shrinks with income",
        "IRC §25A(d)";
    LEARNING_MOST = "us.limit.learning_most" on LEARNING, "Lifetime learning expenses", "over the amount of a return",
        "IRC §25A(c)(1)";
    LEARNING_INCOME = "us.limit.learning" on LEARNING, "Lifetime learning credit", "shrinks with income", "IRC §25A(d)";
    TAX = "us.limit.education_tax" on CREDIT, "Education credits", "over the tax, and lost", "IRC §26(a)";
}

open_points! {
    SCHOOL = blocks "K-128", "IRC §25A(g)(8), (i)",
        "The American opportunity credit needs the school's EIN and the years in which it was used.";
    FORGO = not_weighed "C-13", "IRC §25A(g)(3); Reg. §1.25A-1(f)",
        "Without a claim the student might have the credit: on separate returns that is not weighed here.";
    BARRED = look "education-barred", "IRC §25A(g)(3), (6)",
        "No credit on a separate return, nor for someone who is claimed.";
    NUMBER = not_covered "education-number", "IRC §25A(g)(1); P.L. 119-21 §70606";
    TERM = look "1098-T-7", "IRC §25A(g)(4)",
        "What is paid for a term of the first three months of next year counts; of a later one it does not.";
}

/// What tells the students of a return apart in a sum: a place of its own for each who is claimed on it.
pub fn mark(on: On<'_>, person: usize) -> i64 {
    let claimed = on.unit.dependents.iter().any(|d| d.person == person);
    let place = tuition::students(on.facts).iter().position(|&student| student == person);
    place.filter(|_| claimed).map_or(0, |place| 1 << place)
}

/// The law of the choice.
const CITE: &str = "IRC §25A(a), (b)(2), (c)(2)(A)";

/// Which credit each student brings.
pub static CHOSEN: Open<Facts> = Open::new(tuition::students, |facts, student| {
    let about = &facts.people[student];
    let name = first_name(&about.name);
    let options = vec![
        Opt::new("opportunity", "American opportunity", format!("{name} American opportunity")),
        Opt::new("learning", "Lifetime learning", format!("{name} lifetime learning")),
        Opt::new("none", "No credit", format!("{name} without a credit")),
    ];
    Decision::between(
        format!("us.education.{}", about.id),
        format!("Education of {}", about.name),
        CITE,
        options,
    )
})
.arises(|facts, _, way| !(facts.couple() && status::separate(facts, way)))
.bars(|facts, student, option, _| {
    let barred = tuition::of(facts, student).iter().find_map(|tuition| tuition.barred);
    barred.filter(|_| option == 0).map(Bar::Borrowed)
});

/// What a way takes for each student.
pub fn chosen(way: Chosen<'_, '_, Facts>) -> Vec<(usize, EducationCredit)> {
    let taken = |option: Option<usize>| match option {
        Some(0) => EducationCredit::Opportunity,
        Some(1) => EducationCredit::Learning,
        _ => EducationCredit::None,
    };
    way.each(&CHOSEN).map(|(student, option)| (student, taken(option))).collect()
}

/// Whether a student's credit belongs to a return: that of a filer or of a dependent claimed on it.
fn is_here(on: On<'_>, student: usize) -> bool {
    on.unit.people.contains(&student) || on.unit.dependents.iter().any(|d| d.person == student)
}

/// The students of a return who bring a kind of credit.
fn with(on: On<'_>, credit: EducationCredit) -> impl Iterator<Item = usize> + '_ {
    let all =
        on.unit.education.iter().filter(move |(student, taken)| *taken == credit && is_here(on, *student));
    all.map(|(student, _)| *student)
}

/// Students whom the joint or only return may claim, and who have a return of their own: unclaimed they have the credit themselves, but
/// for the part that is paid out.
pub static FORGONE: Open<Facts> = Open::new(
    |facts: &Facts| {
        let own = |&student: &usize| facts.own_returns.contains(&student);
        let may = |&student: &usize| dependents::claim(facts, claimers(facts), student).is_ok();
        tuition::students(facts).into_iter().filter(own).filter(may).collect()
    },
    |facts, student| {
        let about = &facts.people[student];
        let short = format!("{} not claimed", first_name(&about.name));
        let options = vec![
            Opt::new("claimed", "Claimed", ""),
            Opt::new("forgone", "Not claimed, so that the student has the education credit", short),
        ];
        let label = format!("Claim of {}, a student", about.name);
        Decision::between(
            format!("us.student_claim.{}", about.id),
            label,
            "IRC §25A(g)(3); Reg. §1.25A-1(f)",
            options,
        )
    },
)
.arises(|facts, _, way| !status::separate(facts, way));

/// Who files the joint or only return.
fn claimers(facts: &Facts) -> &[usize] {
    if facts.couple() { &facts.filers } else { &facts.filers[..1] }
}

/// The students whom a way does not claim.
pub fn forgone(way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    way.each(&FORGONE).filter(|(_, option)| *option == Some(1)).map(|(student, _)| student).collect()
}

/// What the credits come to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Credits {
    /// Schedule 3 line 3.
    pub used: Money,
    /// Form 1040 line 29.
    pub refundable: Money,
}

/// Whether a return may have the credits.
fn may(on: On<'_>) -> bool {
    let forgone = on.unit.people.iter().any(|person| on.unit.forgone.contains(person));
    on.unit.status != Status::Separate && (!on.unit.claimable || forgone)
}

/// Form 8863; `left` is the tax that earlier credits leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money, left: Money) -> Credits {
    let any = on.unit.education.iter().any(|(student, _)| is_here(on, *student));
    if !any || !may(on) {
        trail.line(L29, on.scope, Money::ZERO, |_| {});
        trail.line(CREDIT, on.scope, Money::ZERO, |_| {});
        return Credits::default();
    }
    let (opportunity, learning) = (opportunity(on, trail, agi), learning(on, trail, agi));
    let figures = &on.facts.figures.education;
    let paid_out = if kiddie::bars_refund(on) {
        Money::ZERO
    } else {
        opportunity.times(figures.refundable, Money::WHOLE, Rounding::HalfUp)
    };
    let refundable = trail.line(L29, on.scope, paid_out, |i| {
        i.line(OPPORTUNITY, on.scope, opportunity).figure("Part paid out", figures.refundable);
    });
    let used = limit::cap(trail, TAX.at(on.scope), opportunity - refundable + learning, left);
    trail.line(CREDIT, on.scope, used, |i| {
        i.line(OPPORTUNITY, on.scope, opportunity)
            .line(L29, on.scope, refundable)
            .line(LEARNING, on.scope, learning)
            .figure("Tax left", left);
    });
    Credits { used, refundable }
}

/// The part that income leaves: from all at the start of the range to none at its end.
fn left_by_income(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Rate {
    let figures = &on.facts.figures.education;
    let range = *figures.range.of(on.unit.status);
    let open = limit::or_zero(trail, range.from + range.width - agi);
    let open = limit::lesser(trail, open, range.width);
    if open >= range.width {
        Rate::ONE
    } else {
        open.ratio_to(range.width, figures.ratio_places, Rounding::HalfUp)
    }
}

/// Lines 1 to 7.
fn opportunity(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let figures = &on.facts.figures.education;
    let mut each = Vec::new();
    for student in with(on, EducationCredit::Opportunity) {
        let expenses = tuition::counted(on, student, Tuition::opportunity);
        let first = settled::lesser(expenses, figures.first);
        let second = settled::lesser(settled::or_zero(expenses - figures.first), figures.second);
        let credit = first + second.times(figures.second_rate, Money::WHOLE, Rounding::HalfUp);
        trail.line(OPPORTUNITY_OF, Scope::Person(student), credit, |i| {
            i.items(tuition::of(on.facts, student).iter().map(|t| &t.item))
                .figure("Expenses that count", expenses);
        });
        each.push((student, credit));
    }
    let full: Money = each.iter().map(|(_, credit)| *credit).sum();
    if full.is_zero() {
        return Money::ZERO;
    }
    let part = left_by_income(on, trail, agi);
    let credit = full.times(part, Money::WHOLE, Rounding::HalfUp);
    let credit = limit::given(trail, OPPORTUNITY_INCOME.at(on.scope), Shape::PhaseOut, full, credit);
    trail.line(OPPORTUNITY, on.scope, credit, |i| {
        for (student, amount) in &each {
            i.line(OPPORTUNITY_OF, Scope::Person(*student), *amount);
        }
        i.figure("Adjusted gross income", agi).figure("Part that income leaves", part);
    })
}

/// Lines 10 to 18.
fn learning(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let figures = &on.facts.figures.education;
    let mut each = Vec::new();
    for student in with(on, EducationCredit::Learning) {
        let expenses = tuition::counted(on, student, Tuition::learning);
        trail.line(LEARNING_OF, Scope::Person(student), expenses, |i| {
            i.items(tuition::of(on.facts, student).iter().map(|t| &t.item));
        });
        each.push((student, expenses));
    }
    let all: Money = each.iter().map(|(_, expenses)| *expenses).sum();
    if all.is_zero() {
        return Money::ZERO;
    }
    let counted = limit::cap(trail, LEARNING_MOST.at(on.scope), all, figures.learning_most);
    let full = counted.times(figures.learning_rate, Money::WHOLE, Rounding::HalfUp);
    let part = left_by_income(on, trail, agi);
    let credit = full.times(part, Money::WHOLE, Rounding::HalfUp);
    let credit = limit::given(trail, LEARNING_INCOME.at(on.scope), Shape::PhaseOut, full, credit);
    trail.line(LEARNING, on.scope, credit, |i| {
        for (student, expenses) in &each {
            i.line(LEARNING_OF, Scope::Person(*student), *expenses);
        }
        i.figure("Adjusted gross income", agi).figure("Part that income leaves", part);
    })
}

/// Form 8863: where there is a credit.
pub fn form_8863(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CREDIT) || filed.has(L29), "no education credit")
}

/// What a school's paper must say, and what else could be chosen.
pub fn points(points: &mut Points<'_>) {
    for paper in tuition::all(points) {
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let Some(student) = points.owner(paper) else {
        return;
    };
    let name = &points.facts.people[student].name;
    if paper.flag("7") {
        points.raise(&TERM, at("7"), "A part was paid for a term that begins next year.");
    }
    let place = points.units.iter().enumerate().find_map(|(place, unit)| {
        is_here(On { facts: points.facts, unit, scope: Scope::Return(place) }, student).then_some(place)
    });
    let Some(place) = place else { return };
    let unit = &points.units[place];
    let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
    if !may(on) {
        points.raise(&BARRED, at("1"), format!("There is no education credit for {name} on this return."));
        return;
    }
    let valid = |&person: &usize| points.facts.people[person].work_ssn;
    let numbers = valid(&student) && unit.people.iter().all(valid);
    if points.facts.figures.education.number == Some(true) && !numbers {
        let message = "From 2026 the education credits ask for numbers valid for work: without one they are not computed.";
        points.raise(&NUMBER, at("1"), message);
    }
    let taken = unit.education.iter().find(|(s, _)| *s == student).map(|(_, credit)| *credit);
    if taken == Some(EducationCredit::Opportunity) {
        let missing = ["f", "years"].into_iter().find(|field| !paper.boxes.contains_key(*field));
        if let Some(field) = missing {
            points.raise(
                &SCHOOL,
                at(field),
                format!("What the American opportunity credit of {name} needs is missing."),
            );
        }
    }
    let lost = left_by_income(on, &mut Silent, points.amount(income::AGI, place)) < Rate::ONE;
    if points.units.iter().filter(|unit| unit.main).count() > 1 && lost && unit.main {
        points.raise(
            &FORGO,
            at("1"),
            format!("Income takes from the credit for {name}: the student might have it instead."),
        );
    }
}
