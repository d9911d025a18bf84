//! Personal amounts (ITA 118): basic, age, spouse or partner, eligible dependant, employment, pension; federal, and
//! in the same form for a province with its figures.

use crate::{
    facts::Facts,
    figures::Provincial,
    income::{self, Income},
    plan::{Election, On},
};
use hembo_core::{
    field::Field,
    limit::{self, LimitAt, PhaseOut, Shape},
    limits,
    line::LineId,
    lines,
    pack::{DEPENDENT, Question},
    provision::Provision,
    trail::{Trail, Unseen},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: QUESTIONS,
    lines: LINES,
    limits: LIMITS,
    figures: &["basic", "age", "employment", "pension", "medical"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const SUPPORT_PAID: &str = "support_paid";
    pub const CLAIMED_ELSEWHERE: &str = "claimed_elsewhere";
}

lines! {
    pub BASIC_AMOUNT = "ca.30000", "Basic personal amount", "ITA 118(1)B(c), 118(1.1)",
        "Less where net income reaches the fourth bracket, least from the fifth on.";
    pub AGE_AMOUNT = "ca.30100", "Age amount", "ITA 118(2)",
        "From 65 on; shrinks with net income.";
    pub SPOUSE = "ca.30300", "Spouse or partner amount", "ITA 118(1)B(a)",
        "The basic amount less the partner's net income.";
    pub DEPENDANT = "ca.30400", "Eligible dependant", "ITA 118(1)B(b)",
        "The basic amount less the dependant's net income, where there is no partner.";
    pub EMPLOYED = "ca.31260", "Canada employment amount", "ITA 118(10)",
        "Employment income up to a most.";
    pub PENSION = "ca.31400", "Pension income amount", "ITA 118(3)",
        "Eligible pension income after the split, up to a most.";
    pub PROVINCIAL_BASIC = "ca.58040", "Basic personal amount, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "The figure of the province.";
    pub PROVINCIAL_AGE = "ca.58080", "Age amount, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "From 65 on; shrinks with net income.";
    pub PROVINCIAL_SPOUSE = "ca.58120", "Spouse or partner amount, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "A base less the partner's net income, at most so much.";
    pub PROVINCIAL_DEPENDANT = "ca.58160", "Eligible dependant, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "A base less the dependant's net income, at most so much.";
    pub PROVINCIAL_PENSION = "ca.58360", "Pension income amount, province", "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act",
        "Eligible pension income after the split, up to a most.";
}

limits! {
    BASIC = "ca.limit.basic" on BASIC_AMOUNT, "Basic personal amount", "shrinks through the fourth bracket",
        "ITA 118(1.1)";
    AGE = "ca.limit.age" on AGE_AMOUNT, "Age amount", "shrinks with net income",
        "ITA 118(2)";
    AGE_PROVINCIAL = "ca.limit.age_provincial" on PROVINCIAL_AGE, "Age amount, province", "shrinks with net income",
        "Taxation Act, 2007 (Ontario); Alberta Personal Income Tax Act";
}

/// The amounts of a return that depend on no other return's credits.
#[derive(Debug, Clone, Copy, Default)]
pub struct Personal {
    /// Line 30000, or 58040.
    pub basic: Money,
    /// Line 30100, or 58080.
    pub age: Money,
    /// Line 30300, or 58120.
    pub spouse: Money,
    /// Line 30400, or 58160.
    pub dependant: Money,
    /// Line 58400; none on the federal side.
    pub caregiver: Money,
    /// Line 30800.
    pub cpp: Money,
    /// Line 31200.
    pub ei: Money,
    /// Line 31260; a province has none.
    pub employment: Money,
    /// Line 31400, or 58360.
    pub pension: Money,
}

impl Personal {
    /// All of them.
    pub fn sum(self) -> Money {
        let for_others = self.spouse + self.dependant + self.caregiver;
        self.without_spouse_and_transferable() + self.age + for_others + self.pension
    }

    /// Those that a person's income is covered with before anything is transferred (ITA 118.8, C).
    pub fn without_spouse_and_transferable(self) -> Money {
        self.basic + self.cpp + self.ei + self.employment
    }
}

/// Line 30000 (118(1.1)): the larger amount up to one net income, the smaller from another, in proportion between.
pub fn basic(on: On<'_>, trail: &mut impl Trail, net: Money) -> Money {
    let figures = &on.facts.figures.basic;
    let width = figures.to - figures.from;
    let above = limit::or_zero(trail, net - figures.from);
    let over = limit::lesser(trail, above, width);
    let lost = (figures.most - figures.least).in_proportion(over, width, Money::CENT, Rounding::HalfUp);
    let allowed = limit::given(trail, BASIC.at(on.scope), Shape::PhaseOut, figures.most, figures.most - lost);
    on.made(trail, BASIC_AMOUNT, allowed, &[(income::NET, net)], &[("Full amount", &figures.most)])
}

/// Lines 30100 and 58080 (118(2)): less a part of net income above a threshold.
fn age(
    on: On<'_>,
    trail: &mut impl Trail,
    at: LimitAt,
    net: Money,
    full: Money,
    from: Money,
    rate: Rate,
) -> Money {
    let full = if on.reached(on.facts.figures.age.age) { full } else { Money::ZERO };
    let allowed = limit::phase_out(trail, at, full, net, PhaseOut::continuous(from, rate, Money::CENT));
    on.made(
        trail,
        at.def.line,
        allowed,
        &[(income::NET, net)],
        &[("Full amount", &full), ("Shrinks from", &from)],
    )
}

/// Lines 30300 and 30400, 58120 and 58160 (118(1)B(a), (b)): a base less the other's net income, at most so much.
#[derive(Debug, Clone, Copy)]
struct Reduced {
    base: Money,
    most: Money,
}

impl Reduced {
    fn by(self, on: On<'_>, trail: &mut impl Trail, line: LineId, other: Option<Other>) -> Money {
        let Some(Other { person, net, partners }) = other else { return Money::ZERO };
        let left = limit::or_zero(trail, self.base - net);
        let left = limit::lesser(trail, left, self.most);
        let claims = partners.is_none_or(|p| p.claims(trail, self.base - net));
        let (base, allowed) = if claims { (self.base, left) } else { (Money::ZERO, Money::ZERO) };
        trail.line(line, on.scope, allowed, |i| {
            i.figure("Base", base);
            if on.facts.returns.contains(&person) {
                i.line(income::NET, on.of(person).scope, net);
            }
        })
    }
}

/// For whom an amount is claimed, with the net income.
#[derive(Debug, Clone, Copy)]
struct Other {
    person: usize,
    net: Money,
    partners: Option<Partners>,
}

/// The incomes of everyone, by person.
pub type Incomes = [Income];

/// The federal amounts.
pub fn federal(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Personal {
    let figures = &on.facts.figures;
    let Income { net, employment, pension, .. } = incomes[on.person];
    let basic = basic(on, trail, net);
    let age = age(on, trail, AGE.at(on.scope), net, figures.age.amount, figures.age.from, figures.age.rate);
    let reduced = Reduced { base: basic, most: basic };
    let other = spouse(on, incomes);
    let spouse = reduced.by(on, trail, SPOUSE, other);
    let dependant = reduced.by(on, trail, DEPENDANT, dependant(on.facts, on.person, incomes));
    let (cpp, ei) = crate::cpp_ei::credits(on, trail);
    let most = figures.employment.most;
    let employed = limit::lesser(trail, most, employment);
    on.made(trail, EMPLOYED, employed, &[(income::EMPLOYMENT, employment)], &[("At most", &most)]);
    let pension = crate::pension_split::amount(trail, pension, figures.pension.most);
    on.made(trail, PENSION, pension, &[], &[("At most", &figures.pension.most)]);
    Personal { basic, age, spouse, dependant, cpp, ei, employment: employed, pension, ..Personal::default() }
}

/// The same amounts with the figures of a province, which has none for employment.
pub fn provincial(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    figures: &Provincial,
    federal: Personal,
) -> Personal {
    let Income { net, pension, .. } = incomes[on.person];
    let basic = on.made(trail, PROVINCIAL_BASIC, figures.basic, &[], &[("Of the province", &figures.basic)]);
    let at = AGE_PROVINCIAL.at(on.scope);
    let age = age(on, trail, at, net, figures.age_amount, figures.age_from, figures.age_rate);
    let reduced = Reduced { base: figures.spouse_base, most: figures.spouse_most };
    let other = spouse(on, incomes);
    let spouse = reduced.by(on, trail, PROVINCIAL_SPOUSE, other);
    let other = dependant(on.facts, on.person, incomes);
    let dependant = reduced.by(on, trail, PROVINCIAL_DEPENDANT, other);
    let pension = crate::pension_split::amount(trail, pension, figures.pension);
    on.made(trail, PROVINCIAL_PENSION, pension, &[], &[("At most", &figures.pension)]);
    Personal { basic, age, spouse, dependant, pension, employment: Money::ZERO, ..federal }
}

/// Of partners one may claim: the one with more net income, of equals the first. The other, whose income is then below
/// the base as well, has no tax to take it from, so that the total does not jump where the two change places.
#[derive(Debug, Clone, Copy)]
struct Partners {
    /// Net income of the first less that of the second.
    more: Money,
    /// Whether this return is the first's.
    first: bool,
}

impl Partners {
    /// `below` is how far the partner's net income is below the base.
    fn claims(self, trail: &mut impl Trail, below: Money) -> bool {
        let own_below = below - if self.first { self.more } else { -self.more };
        trail.edge(own_below, true);
        trail.step(self.more, below > Money::ZERO && own_below > Money::ZERO);
        self.first != self.more.is_negative()
    }
}

/// The partner, whose net income reduces the amount on this return.
fn spouse(on: On<'_>, incomes: &Incomes) -> Option<Other> {
    let partner = on.facts.partner(on.person)?;
    let (first, second) = (on.facts.filers[0], on.facts.filers[1]);
    let partners = Partners { more: incomes[first].net - incomes[second].net, first: on.person == first };
    Some(Other { person: partner, net: incomes[partner].net, partners: Some(partners) })
}

/// For whom line 30400 is claimed.
pub fn eligible_dependant(on: On<'_>, incomes: &Incomes) -> Option<usize> {
    dependant(on.facts, on.person, incomes).map(|other| other.person)
}

/// The dependant for whom line 30400 is claimed: of those who qualify the one with the least net income.
fn dependant(facts: &Facts, filer: usize, incomes: &Incomes) -> Option<Other> {
    let alone = !facts.partnered && facts.filers.len() == 1 && facts.filers[0] == filer;
    if !alone || !facts.people[filer].maintains_home {
        return None;
    }
    let qualified = (0..facts.people.len()).filter(|&p| p != filer && qualifies(facts, p));
    let other = |person| Other { person, net: incomes[person].net, partners: None };
    qualified.map(other).min_by_key(|o| o.net)
}

/// Whether a person can be an eligible dependant (118(1)B(b), 118(4), (5)): lived in the home, nobody else claims or
/// must pay support, and is a parent or grandparent, or a young or infirm relative.
pub fn qualifies(facts: &Facts, person: usize) -> bool {
    let who = &facts.people[person];
    // An age is reached at the start of the birthday: who is 18 on 1 January was under 18 on no day of the year.
    let under_18 = who.age_on(facts.year_begin).is_some_and(|age| age < facts.figures.medical.child_under);
    let related = who.elder || (who.young_relative && (under_18 || who.infirm));
    related && who.lives_here && !who.claimed_elsewhere && !who.support_paid
}

/// Whether the election of one partner to report the other's dividends is lawful: it must raise or make the amount for a
/// partner (line 30300) of who reports them (82(3)(b)), the other's net income without them being below the base; and
/// that amount is claimed by who has the higher net income.
pub fn raises_partner_amount(on: On<'_>, trail: &mut impl Trail, Election { from, to }: Election) -> bool {
    let mut unseen = Unseen(trail);
    let net = |who: usize, unseen: &mut Unseen<'_, _>| income::reckon(on.of(who), unseen).net;
    let (left, reporting) = (net(from, &mut unseen), net(to, &mut unseen));
    let below = basic(on.of(to), &mut unseen, reporting) - left - Money::CENT;
    let first = on.facts.filers[0] == to;
    let more = reporting - left - if first { Money::ZERO } else { Money::CENT };
    trail.step(below, true);
    trail.step(more, !below.is_negative());
    !below.is_negative() && !more.is_negative()
}

const QUESTIONS: &[Question] = &[
    Question {
        of: DEPENDENT,
        from_age: 0,
        field: Field::yes_no(ask::SUPPORT_PAID, "", "A filer must pay support for this child"),
    },
    Question {
        of: DEPENDENT,
        from_age: 0,
        field: Field::yes_no(ask::CLAIMED_ELSEWHERE, "", "Someone else claims line 30400 here")
            .help("For this person, or from the same home."),
    },
];
