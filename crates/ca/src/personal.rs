//! Personal amounts (ITA 118): basic, age, spouse or partner, eligible dependant, employment, pension; federal, and
//! in the same form for a province with its figures.

use crate::{
    adoption, caregivers, cpp_ei,
    figures::Provincial,
    home_credits,
    income::{self, Income, Incomes},
    plan::{Election, On},
    provincial_law::Changed,
    volunteers,
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
    figures: &["basic", "age", "employment", "pension"],
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
    pub PROVINCIAL_BASIC = "ca.58040", "Basic personal amount, province", "Income tax acts of the provinces; form 428",
        "The figure of the province.";
    pub PROVINCIAL_AGE = "ca.58080", "Age amount, province", "Income tax acts of the provinces; form 428",
        "From 65 on; shrinks with net income.";
    pub PROVINCIAL_SPOUSE = "ca.58120", "Spouse or partner amount, province", "Income tax acts of the provinces; form 428",
        "A base less the partner's net income, at most so much.";
    pub PROVINCIAL_DEPENDANT = "ca.58160", "Eligible dependant, province", "Income tax acts of the provinces; form 428",
        "A base less the dependant's net income, at most so much.";
    pub PROVINCIAL_PENSION = "ca.58360", "Pension income amount, province", "Income tax acts of the provinces; form 428",
        "Eligible pension income after the split, up to a most.";
}

limits! {
    BASIC = "ca.limit.basic" on BASIC_AMOUNT, "Basic personal amount", "shrinks through the fourth bracket",
        "ITA 118(1.1)";
    AGE = "ca.limit.age" on AGE_AMOUNT, "Age amount", "shrinks with net income",
        "ITA 118(2)";
    AGE_PROVINCIAL = "ca.limit.age_provincial" on PROVINCIAL_AGE, "Age amount, province", "shrinks with net income",
        "Income tax acts of the provinces; form 428";
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
    /// Line 30425; a province has none.
    pub topped_up: Money,
    /// Line 30450, or what a province has for relatives cared for.
    pub caregiver: Money,
    /// Line 30500; a province has none.
    pub children: Money,
    /// Line 30800.
    pub cpp: Money,
    /// Line 31000.
    pub cpp_business: Money,
    /// Line 31200.
    pub ei: Money,
    /// Line 31260; a province has none.
    pub employment: Money,
    /// Line 31220 or 31240; of a province among its further ones.
    pub volunteer: Money,
    /// Lines 31270, 31285 and 31350; a province has none.
    pub home: Money,
    /// Line 31300; of a province among its further ones.
    pub adoption: Money,
    /// Line 31400, or 58360.
    pub pension: Money,
    /// Line 31600, or 58440.
    pub disability: Money,
    /// Line 31800, or 58480.
    pub disability_transferred: Money,
    /// What a province has beside these.
    pub further: Money,
}

impl Personal {
    /// All of them.
    pub fn sum(self) -> Money {
        let beside = self.volunteer + self.home + self.adoption;
        self.before_transfers() + beside + self.disability + self.disability_transferred + self.further
    }

    /// Those of ITA 118 and 118.7.
    pub fn before_transfers(self) -> Money {
        let for_others = self.spouse + self.dependant + self.topped_up + self.caregiver + self.children;
        self.of_work() + self.age + for_others + self.pension
    }

    /// Those that a person's income is covered with before anything is transferred (ITA 118.8, C).
    pub fn without_spouse_and_transferable(self) -> Money {
        self.of_work() + self.volunteer + self.home + self.adoption
    }

    /// The basic amount with those of pay and of a business.
    fn of_work(self) -> Money {
        self.basic + self.cpp + self.cpp_business + self.ei + self.employment
    }
}

/// Line 30000 (118(1.1)): the larger amount up to one net income, the smaller from another, in proportion between.
fn whole_basic(on: On<'_>, trail: &mut impl Trail, net: Money) -> Money {
    let figures = &on.facts.figures.basic;
    let width = figures.to - figures.from;
    let above = limit::or_zero(trail, net - figures.from);
    let over = limit::lesser(trail, above, width);
    let lost = (figures.most - figures.least).in_proportion(over, width, Money::CENT, Rounding::HalfUp);
    limit::given(trail, BASIC.at(on.scope), Shape::PhaseOut, figures.most, figures.most - lost)
}

/// An amount that shrinks with net income.
#[derive(Debug, Clone, Copy)]
struct Shrunk {
    full: Money,
    from: Money,
    rate: Rate,
}

/// Lines 30100 and 58080 (118(2)): less a part of net income above a threshold, and what does not shrink with it.
fn age(on: On<'_>, trail: &mut impl Trail, at: LimitAt, net: Money, of: Shrunk, more: Money) -> Money {
    let aged = on.reached(on.facts.figures.age.age);
    let (full, more) = if aged { (of.full, more) } else { (Money::ZERO, Money::ZERO) };
    let rule = PhaseOut::continuous(of.from, of.rate, Money::CENT);
    let allowed = limit::phase_out(trail, at, full, net, rule) + more;
    on.made_by_days(
        trail,
        at.def.line,
        allowed,
        &[(income::NET, net)],
        &[("Full amount", &full), ("Shrinks from", &of.from)],
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
        trail.line(line, on.scope, on.by_days(allowed), |i| {
            i.figure("Base", base);
            if let Some(days) = on.who().part_year.reduces() {
                i.figure("In Canada", days);
            }
            if let Some(person) = person.filter(|person| on.facts.returns.contains(person)) {
                i.line(income::NET, on.of(person).scope, net);
            }
        })
    }
}

/// For whom an amount is claimed, with the net income.
#[derive(Debug, Clone, Copy)]
struct Other {
    /// None of a former partner.
    person: Option<usize>,
    net: Money,
    partners: Option<Partners>,
}

/// The federal amounts.
pub fn federal(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Personal {
    let figures = &on.facts.figures;
    let Income { net, employment, pension, .. } = incomes[on.person];
    let whole = whole_basic(on, trail, net);
    let most = figures.basic.most;
    let basic = on.made_by_days(trail, BASIC_AMOUNT, whole, &[(income::NET, net)], &[("Full amount", &most)]);
    let full = Shrunk { full: figures.age.amount, from: figures.age.from, rate: figures.age.rate };
    let age = age(on, trail, AGE.at(on.scope), net, full, Money::ZERO);
    let other = spouse(on, incomes);
    let for_partner = of_infirm(on, whole, other);
    let spouse = for_partner.by(on, trail, SPOUSE, other);
    let child = dependant(on, incomes);
    let dependant = of_infirm(on, whole, child).by(on, trail, DEPENDANT, child);
    let claimed = match other.filter(|o| o.claims()) {
        Some(partner) => Some((partner, spouse)),
        None => child.map(|child| (child, dependant)),
    };
    let topped_up = match claimed {
        Some((other, claimed)) => caregivers::topped_up(on, trail, incomes, other.person, claimed),
        None => Money::ZERO,
    };
    let (caregiver, children) = caregivers::federal(on, trail, incomes);
    let contributed = incomes[on.person].contributed;
    let (cpp, ei) = cpp_ei::credits(on, trail, contributed);
    let cpp_business = cpp_ei::of_business_credited(on, trail, contributed);
    let most = figures.employment.most;
    let employed = limit::lesser(trail, most, employment);
    on.made(trail, EMPLOYED, employed, &[(income::EMPLOYMENT, employment)], &[("At most", &most)]);
    let volunteer = volunteers::reckon(on, trail);
    let home = home_credits::reckon(on, trail);
    let adoption = adoption::reckon(on, trail);
    let pension = crate::pension_split::amount(trail, pension, figures.pension.most);
    on.made(trail, PENSION, pension, &[], &[("At most", &figures.pension.most)]);
    Personal {
        basic,
        age,
        spouse,
        dependant,
        topped_up,
        caregiver,
        children,
        cpp,
        cpp_business,
        ei,
        employment: employed,
        volunteer,
        home,
        adoption,
        pension,
        ..Personal::default()
    }
}

/// The basis of lines 30300 and 30400, more for someone infirm.
fn of_infirm(on: On<'_>, basic: Money, other: Option<Other>) -> Reduced {
    let person = other.and_then(|other| other.person);
    let base = basic + person.map_or(Money::ZERO, |person| caregivers::addition(on.facts, person));
    Reduced { base, most: base }
}

/// The same amounts with the figures of a province, which has none for employment.
pub fn provincial(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    figures: &Provincial,
    changed: Changed,
    federal: Personal,
) -> Personal {
    let Income { net, pension, .. } = incomes[on.person];
    let of_province = [("Of the province", &figures.basic as &dyn ToString)];
    let basic = on.made_by_days(trail, PROVINCIAL_BASIC, changed.basic, &[], &of_province);
    let at = AGE_PROVINCIAL.at(on.scope);
    let full = Shrunk { full: figures.age_amount, from: figures.age_from, rate: figures.age_rate };
    let age = age(on, trail, at, net, full, changed.age);
    let reduced =
        Reduced { base: figures.spouse_base + changed.others, most: figures.spouse_most + changed.others };
    let spouse = reduced.by(on, trail, PROVINCIAL_SPOUSE, spouse(on, incomes));
    let dependant = reduced.by(on, trail, PROVINCIAL_DEPENDANT, dependant(on, incomes));
    let pension = crate::pension_split::amount(trail, pension, figures.pension);
    on.made(trail, PROVINCIAL_PENSION, pension, &[], &[("At most", &figures.pension)]);
    Personal {
        basic,
        age,
        spouse,
        dependant,
        pension,
        cpp: federal.cpp,
        cpp_business: federal.cpp_business,
        ei: federal.ei,
        ..Personal::default()
    }
}

/// The federal amounts on the lines of a province that has the same.
pub fn mirrored(on: On<'_>, trail: &mut impl Trail, federal: Personal) -> Personal {
    let federal = Personal { volunteer: Money::ZERO, home: Money::ZERO, adoption: Money::ZERO, ..federal };
    let same = [
        (PROVINCIAL_BASIC, BASIC_AMOUNT, federal.basic),
        (PROVINCIAL_AGE, AGE_AMOUNT, federal.age),
        (PROVINCIAL_SPOUSE, SPOUSE, federal.spouse),
        (PROVINCIAL_DEPENDANT, DEPENDANT, federal.dependant),
        (PROVINCIAL_PENSION, PENSION, federal.pension),
    ];
    for (line, of, amount) in same {
        on.made(trail, line, amount, &[(of, amount)], &[]);
    }
    federal
}

/// Of partners one may claim: the one with more net income, of equals the first. The other, whose income is then below
/// the base as well, has no tax to take it from, so that the total does not jump where the two change places. Where one is
/// infirm the way says who claims.
#[derive(Debug, Clone, Copy)]
struct Partners {
    /// Net income of the first less that of the second.
    more: Money,
    /// Whether this return is the first's.
    first: bool,
    /// Whether the way says that this return claims.
    said: Option<bool>,
}

impl Partners {
    /// `below` is how far the partner's net income is below the base.
    fn claims(self, trail: &mut impl Trail, below: Money) -> bool {
        if let Some(said) = self.said {
            return said;
        }
        let own_below = below - if self.first { self.more } else { -self.more };
        trail.edge(own_below, true);
        trail.step(self.more, below > Money::ZERO && own_below > Money::ZERO);
        self.first != self.more.is_negative()
    }
}

impl Other {
    /// Whether the way says that the amount for a partner is claimed here.
    fn claims(self) -> bool {
        self.partners.is_some_and(|partners| partners.said == Some(true))
    }
}

/// The partner, whose net income reduces the amount on this return.
fn spouse(on: On<'_>, incomes: &Incomes) -> Option<Other> {
    if let Some(net) = on.facts.former.filter(|_| on.plan.former && on.who().filer) {
        return Some(Other { person: None, net, partners: None });
    }
    // Never for both, whoever of them died in the year (118(1)B(b)).
    let partner = on.facts.partner(on.person).filter(|_| on.eligible_dependant().is_none())?;
    let [first, second] = on.facts.pair()?;
    let said = on.plan.spouse_with.map(|with| with == on.person);
    let partners =
        Partners { more: incomes[first].net - incomes[second].net, first: on.person == first, said };
    // Income of a time outside Canada that is not on the partner's return reduces the amount all the same.
    let net = incomes[partner].net + on.facts.people[partner].part_year.elsewhere;
    Some(Other { person: Some(partner), net, partners: Some(partners) })
}

/// The dependant for whom line 30400 is claimed.
fn dependant(on: On<'_>, incomes: &Incomes) -> Option<Other> {
    let person = on.eligible_dependant()?;
    Some(Other { person: Some(person), net: incomes[person].net, partners: None })
}

/// Whether the election of one partner to report the other's dividends is lawful: it must raise or make the amount for a
/// partner (line 30300) of who reports them (82(3)(b)), the other's net income without them being below the base; and
/// that amount is claimed by who has the higher net income.
pub fn raises_partner_amount(on: On<'_>, trail: &mut impl Trail, Election { from, to }: Election) -> bool {
    if on.of(to).eligible_dependant().is_some() {
        return false;
    }
    let mut unseen = Unseen(trail);
    let net = |who: usize, unseen: &mut Unseen<'_, _>| income::reckon(on.of(who), unseen).net;
    let (left, reporting) = (net(from, &mut unseen), net(to, &mut unseen));
    let base = whole_basic(on.of(to), &mut unseen, reporting) + caregivers::addition(on.facts, from);
    let below = base - left - Money::CENT;
    if let Some(with) = on.plan.spouse_with {
        trail.step(below, true);
        return with == to && !below.is_negative();
    }
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
