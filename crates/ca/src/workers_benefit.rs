//! The Canada workers benefit (ITA 122.7; Schedule 6): line 45300.

use crate::{
    bringing::Bringing,
    business, child_care,
    facts::Facts,
    figures::BenefitClass,
    income::{self, Incomes, family_net},
    medical,
    papers::{t4, t4a},
    plan::{Filed, On},
    points::Points,
    rounding::cents,
    tuition, volunteers,
};
use hembo_core::{
    Paper, Silent,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit::{self, PhaseOut},
    limits, lines, open_points,
    pack::{ANYONE, Question},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    household_questions: &[
        Field::yes_no(ask::ADVANCE, "", "Workers benefit paid in advance").opens(&[ADVANCED.id])
    ],
    papers: &[ADVANCED],
    person_questions: QUESTIONS,
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["workers_benefit", "workers_disability", "year_of_death"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const FULL_TIME_STUDENT: &str = "full_time_student";
    pub const ADVANCE: &str = "advance_benefit";
}

lines! {
    BASIC = "ca.workers.basic", "Workers benefit, basic", "ITA 122.7(2)",
        "A part of working income, less a part of family income.";
    DISABLED = "ca.workers.disability", "Workers benefit, disability supplement", "ITA 122.7(3)",
        "For who has an approved certificate: a part of own working income, less a part of family income.";
    pub BENEFIT = "ca.45300", "Canada workers benefit", "ITA 122.7",
        "The basic benefit and the disability supplement; refundable.";
    pub ADVANCE = "ca.41500", "Workers benefit paid in advance", "ITA 122.7(2), 122.72",
        "What was paid in advance, as far as there is a benefit: only the rest is still to come.";
}

limits! {
    WORKERS_BENEFIT = "ca.limit.workers_benefit" on BASIC, "Workers benefit", "shrinks with family income",
        "ITA 122.7(2)";
    SUPPLEMENT = "ca.limit.workers_disability" on DISABLED, "Workers benefit, disability", "shrinks with family income",
        "ITA 122.7(3)";
}

open_points! {
    UNCLEAR = not_covered "C-87", "ITA 122.7(1), (2)";
    TABLE_NOT_HELD = not_covered "C-87-province", "ITA 122.71";
    VOLUNTEER_PAY = not_covered "volunteer-earned", "ITA 63(3), 122.51(1), 122.7(1)";
    ADVANCE_ASKED = blocks "C-88-asked", "ITA 122.72", "Answer the question; slip RC210 tells.";
    NO_SLIP = blocks "C-88", "ITA 122.72", "Add slip RC210, box 10.";
    STUDENT = not_known "C-87-student", "ITA 122.7(1)",
        "It decides on the workers benefit.";
}

/// What its paper brings.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Paid in advance.
    pub static ADVANCED: Brought = Brought::new();
}

const ADVANCED: PaperKind = PaperKind {
    id: "RC210",
    subject: subject::PAYMENTS,
    name: "Workers benefit paid in advance",
    words: "acwb advance canada workers benefit slip",
    title: "About",
    shared: false,
    headline: "10",
    boxes: &[Field::amount("10", "10", "Paid in advance")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives what was paid in advance to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[("10", &brings::ADVANCED)]);
}

/// Line 41500: what was paid in advance, as far as there is a benefit; the rest is not paid back (122.7(2), 122.72).
pub fn advanced(on: On<'_>, trail: &mut impl Trail, benefit: Money) -> Money {
    let facts = on.facts;
    // Of a couple it comes back where the benefit of both is.
    let partner = together_with(facts, on.person).filter(|_| facts.filers[0] == on.person);
    let elsewhere = partner.is_none() && together_with(facts, on.person).is_some();
    let people = [Some(on.person).filter(|_| !elsewhere), partner];
    let all: Vec<_> =
        people.into_iter().flatten().flat_map(|p| facts.people[p].own.of(&brings::ADVANCED)).collect();
    if all.is_empty() {
        return Money::ZERO;
    }
    let back = limit::lesser(trail, sum(all.iter().copied()), benefit);
    trail.line(ADVANCE, on.scope, back, |i| {
        i.items(all).line(BENEFIT, on.scope, benefit);
    })
}

/// How a person stands to the benefit.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// Nobody to have it here: too young, a student, or the partner's return has it.
    None,
    /// By oneself.
    Alone,
    /// With a partner or a child.
    Family,
    /// One of a couple is excluded, or died in the second half of the year: not computed.
    Unclear,
}

/// With whom a person has one benefit: of a couple of whom one died each stands alone here.
fn together_with(facts: &Facts, person: usize) -> Option<usize> {
    facts.partner_at_end(person).filter(|_| facts.deceased().is_none())
}

/// A person's standing (122.7(1)): 19 or with a partner or child; no full-time student without a child. Of a couple the
/// first has the benefit of both on the return; which of them is left to their agreement.
pub fn standing(facts: &Facts, person: usize) -> Standing {
    let who = &facts.people[person];
    let died_early = who.died.is_some_and(|died| {
        died <= facts.year_end && u8::from(died.month()) < facts.figures.year_of_death.benefit_from_month
    });
    if who.part_year.days.is_some() || died_early {
        return Standing::None;
    }
    let parent = who.filer && has_child(facts);
    let excluded = |p: usize| facts.people[p].full_time_student == Some(true) && !has_child(facts);
    if facts.deceased() == Some(person) {
        return Standing::Unclear;
    }
    match together_with(facts, person) {
        Some(partner) if facts.people[partner].told.benefit => Standing::None,
        Some(partner) if facts.filers[0] == person => match (excluded(person), excluded(partner)) {
            (false, false) => Standing::Family,
            (true, true) => Standing::None,
            _ => Standing::Unclear,
        },
        Some(_) => Standing::None,
        None if parent => Standing::Family,
        None if excluded(person) || who.full_time_student == Some(true) => Standing::None,
        None if !facts.reached(person, facts.figures.workers_benefit.age) => Standing::None,
        None => Standing::Alone,
    }
}

/// An eligible dependant: a child under 19 in the home at the end of the year.
fn has_child(facts: &Facts) -> bool {
    let age = facts.figures.workers_benefit.age;
    (0..facts.people.len()).any(|p| {
        let who = &facts.people[p];
        !who.filer && who.child && who.lives_here && !facts.reached(p, age)
    })
}

/// Working income of a person, and of the partner; `business` is what a business brings to each, nothing where it makes a loss.
fn working(facts: &Facts, person: usize, business: impl Fn(usize) -> Money) -> (Money, Money) {
    let of = |p: usize| {
        let own = &facts.people[p].own;
        let paid = sum(own.of(&t4::brings::EMPLOYMENT)) + sum(own.of(&t4a::brings::SCHOLARSHIPS));
        paid + business(p) + facts.people[p].told.working
    };
    (of(person), facts.partner_at_end(person).map_or(Money::ZERO, of))
}

/// Whether the figures of the household's province are here.
pub fn held(facts: &Facts) -> bool {
    let province = facts.province_code.as_deref();
    !facts.figures.workers_benefit.not_held.iter().any(|code| Some(code.as_str()) == province)
}

/// Net income of the family less the exemption of the secondary earner, from the working income of both.
fn adjusted(facts: &Facts, trail: &mut impl Trail, family: Money, (own, partner): (Money, Money)) -> Money {
    let of_second = limit::lesser(trail, own, partner);
    family - limit::lesser(trail, of_second, facts.figures.workers_benefit.second_earner)
}

/// The amounts of a standing.
fn class(facts: &Facts, standing: Standing) -> &BenefitClass {
    let figures = &facts.figures.workers_benefit;
    if standing == Standing::Alone { &figures.single } else { &figures.family }
}

/// From which net income of a person's family on what a business brings counts no more beside net income; none where it counts in no way, as
/// nothing can be paid, or all capital cost leaves working income for the most of the benefit. (A dollar less of the second earner's
/// exemption then costs 15 % of what contributions move net income by, and they fall by more.)
pub fn counts_until(facts: &Facts, person: usize) -> Option<Money> {
    let both = [Some(person), together_with(facts, person)];
    let mut standings = both.into_iter().flatten().map(|p| standing(facts, p));
    let claims = standings.find(|standing| *standing != Standing::None).filter(|_| held(facts))?;
    if both.into_iter().flatten().any(|p| facts.people[p].disabled) {
        return Some(Money::LARGEST);
    }
    let (figures, class) = (&facts.figures.workers_benefit, class(facts, claims));
    let full = figures.above + class.most.divided_by(figures.rate_in, Money::CENT, Rounding::Up);
    let (own, partner) = working(facts, person, |p| business::least(facts, p));
    let second = if claims == Standing::Alone { Money::ZERO } else { figures.second_earner };
    (own + partner < full).then_some(class.nil + second)
}

/// Line 45300.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    if !held(on.facts) {
        return Money::ZERO;
    }
    let basic = basic(on, trail, incomes);
    let supplement = supplement(on, trail, incomes);
    on.add(trail, BENEFIT, &[(BASIC, basic), (DISABLED, supplement)])
}

/// A part of working income above a start, up to a most, less a part of family income above a threshold.
fn basic(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let standing = standing(on.facts, on.person);
    if !matches!(standing, Standing::Alone | Standing::Family) {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.workers_benefit;
    let of_both = working(on.facts, on.person, |p| incomes[p].business);
    let working = of_both.0 + of_both.1;
    let class = class(on.facts, standing);
    let above = limit::or_zero(trail, working - figures.above);
    let grown = limit::lesser(trail, cents(above, figures.rate_in), class.most);
    let income = adjusted(on.facts, trail, family_net(on, incomes), of_both);
    let income = limit::or_zero(trail, income);
    let rule = PhaseOut::continuous(class.from, figures.rate_out, Money::CENT);
    let allowed = limit::phase_out(trail, WORKERS_BENEFIT.at(on.scope), grown, income, rule);
    trail.line(BASIC, on.scope, allowed, |i| {
        if grown.is_zero() {
            return;
        }
        i.figure("Working income", working).figure("At most", class.most);
        i.figure("Income that counts", income).figure("Shrinks from", class.from);
    })
}

/// The disability supplement (122.7(3)): each of a couple has one's own, which shrinks half as fast where both have one.
fn supplement(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let facts = on.facts;
    let partner = together_with(facts, on.person);
    let of_family = partner.map_or(on.person, |_| facts.filers[0]);
    let standing = standing(facts, of_family);
    if !on.who().disabled || !matches!(standing, Standing::Alone | Standing::Family) {
        return Money::ZERO;
    }
    let figures = &facts.figures.workers_disability;
    let of_both = working(facts, on.person, |p| incomes[p].business);
    let (own, _) = of_both;
    let above = limit::or_zero(trail, own - figures.above);
    let grown = limit::lesser(trail, cents(above, figures.rate_in), figures.most);
    let both = partner.is_some_and(|p| facts.people[p].disabled);
    let rate = if both { figures.rate_out_both } else { figures.rate_out };
    let from = if standing == Standing::Alone { figures.single_from } else { figures.family_from };
    let income = adjusted(facts, trail, family_net(on, incomes), of_both);
    let income = limit::or_zero(trail, income);
    let rule = PhaseOut::continuous(from, rate, Money::CENT);
    let allowed = limit::phase_out(trail, SUPPLEMENT.at(on.scope), grown, income, rule);
    trail.line(DISABLED, on.scope, allowed, |i| {
        if !grown.is_zero() {
            i.figure("Own working income", own).figure("At most", figures.most);
            i.figure("Income that counts", income).figure("Shrinks from", from);
        }
    })
}

/// Schedule 6: where the benefit is paid out.
pub fn schedule_6(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(BENEFIT), "no workers benefit")
}

const QUESTIONS: &[Question] = &[Question {
    of: ANYONE,
    from_age: 0,
    field: Field::yes_no(ask::FULL_TIME_STUDENT, "", "Full-time student for over 13 weeks"),
}];

/// What of the benefit is not known.
pub fn points(points: &mut Points<'_>) {
    let said = points.answered(ask::ADVANCE).and_then(Entry::flag);
    let mut places = 0..points.facts.returns.len();
    if said.is_none() && places.any(|place| !points.amount(BENEFIT, place).is_zero()) {
        let message = "Was a part of the workers benefit paid in advance?";
        points.raise(&ADVANCE_ASKED, Place::household(ask::ADVANCE), message);
    }
    if said == Some(true) && points.papers(ADVANCED.id).next().is_none() {
        points.raise(&NO_SLIP, Place::household(ask::ADVANCE), "An advance without its slip.");
    }
    for &person in points.facts.returns.iter().filter(|_| points.facts.province.is_some()) {
        unknown(points, person);
    }
    volunteers_pay(points);
}

/// A volunteer's pay that is income beside the amount would be earned income here, in child care and for the medical supplement.
fn volunteers_pay(points: &mut Points<'_>) {
    let facts = points.facts;
    for (place, &person) in facts.returns.iter().enumerate() {
        let income =
            volunteers::may_choose(facts, person) && !points.amount(volunteers::AMOUNT, place).is_zero();
        let paid_out = [BENEFIT, medical::PAID_OUT].iter().any(|&line| !points.amount(line, place).is_zero());
        if income && (paid_out || child_care::any(facts)) {
            let message = format!(
                "Pay of {} as a volunteer as earned income is not computed yet.",
                facts.people[person].name
            );
            points.raise(&VOLUNTEER_PAY, points.at(person, volunteers::ask::VOLUNTEER), message);
        }
    }
}

/// What of the workers benefit is not known: whether a student is excluded, a couple of whom one is, and the table
/// of a province that is not held.
fn unknown(points: &mut Points<'_>, person: usize) {
    let facts = points.facts;
    let business = |p: usize| {
        let place = facts.returns.iter().position(|&r| r == p);
        place.map_or(Money::ZERO, |place| settled::or_zero(points.amount(business::NET, place)))
    };
    let (own, partner) = working(facts, person, business);
    let standing = standing(facts, person);
    let class = class(facts, standing);
    let net = |p: usize| income::net_shown(points, p);
    let family = net(person) + facts.partner_at_end(person).map_or(Money::ZERO, net);
    let income = adjusted(facts, &mut Silent, family, (own, partner));
    let due = own + partner > facts.figures.workers_benefit.above && income < class.nil;
    if standing == Standing::None || !due {
        return;
    }
    let name = &facts.people[person].name;
    let at = |field: &str| Place::person(&facts.people[person].id, field);
    if standing == Standing::Unclear {
        let why = if facts.died(person) { "died" } else { "is a full-time student" };
        let message = format!("Workers benefit of {name}: of the couple one {why}, not computed yet.");
        return points.raise(&UNCLEAR, at(ask::FULL_TIME_STUDENT), message);
    }
    if !held(facts) {
        let message = format!("Workers benefit of {name}: the table of this province is not held.");
        return points.raise(&TABLE_NOT_HELD, at("name"), message);
    }
    let both = [Some(person), together_with(facts, person)].into_iter().flatten();
    let students: Vec<usize> = both.filter(|&p| studies(points, p)).collect();
    for student in students {
        let who = &facts.people[student];
        if who.full_time_student.is_none() {
            let place = Place::person(&who.id, ask::FULL_TIME_STUDENT);
            let message = format!("Was {} a full-time student for over 13 weeks?", who.name);
            points.raise(&STUDENT, place, message);
        }
    }
}

/// Whether a certificate of the school tells of months as a full-time student.
fn studies(points: &Points<'_>, person: usize) -> bool {
    let id = &points.facts.people[person].id;
    let mine = |p: &&Paper| p.kind == tuition::CERTIFICATE.id && p.owners.iter().any(|o| &o.person == id);
    let months = |p: &Paper| p.boxes.get("25").and_then(Entry::count).unwrap_or(0);
    points.household.papers.iter().filter(mine).any(|p| months(p) > 0)
}
