//! Income and adjusted gross income (§§61, 62): Form 1040 lines 1a to 11a.

use crate::{
    business,
    business_property::{self, Property},
    capital_gains, care, education_bonds, educators,
    excess_deferrals::{self, EXCESS},
    facts::{Facts, Marital},
    filing_status::Status,
    gains::Gains,
    government_payments, health_savings, ira_deduction, long_term_care, misclassified_pay, moving,
    other_adjustments, other_income,
    papers::{dividends, interest, sales, w2},
    parents_election::{self, Elected},
    pass_through::{self, HeldBack},
    points::Points,
    rentals::{self, Rents},
    retirement, schedule_1, self_employment, social_security, student_loan, union_plan,
    unit::{Filed, On, Unit},
    unreported_tips, untaxed_pay,
};
use hembo_core::{
    field::Field,
    forms::Required,
    household::Entry,
    line::LineId,
    lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Scope, Silent, Trail, Unseen},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    household_questions: QUESTIONS,
    points: POINTS,
    figures: &["interest"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const DIGITAL_ASSETS: &str = "digital_assets";
}

const QUESTIONS: &[Field] =
    &[Field::yes_no(ask::DIGITAL_ASSETS, "", "Received or disposed of digital assets")];

lines! {
    pub WAGES = "us.1a", "Wages", "IRC §61(a)(1)",
        "Box 1 of every Form W-2, added with cents and rounded once.";
    EXEMPT_INTEREST = "us.2a", "Tax-exempt interest", "IRC §103",
        "Box 8 of every Form 1099-INT less the premium in box 13, and box 12 of every Form 1099-DIV.";
    ADDED = "us.sched_b.2", "Interest added", "IRC §61(a)(4)",
        "What line 2b has, before interest of savings bonds for education is left out.";
    pub INTEREST = "us.2b", "Taxable interest", "IRC §61(a)(4)",
        "Forms 1099-INT and 1099-OID, less premiums and what belongs to others; discount of notes and bonds that were sold.";
    pub QUALIFIED = "us.3a", "Qualified dividends", "IRC §1(h)(11)",
        "Box 1b of every Form 1099-DIV.";
    pub DIVIDENDS = "us.3b", "Dividends", "IRC §§61(a)(7), 301",
        "Box 1a of every Form 1099-DIV.";
    pub EARNED = "us.1z", "Wages and other earned income", "IRC §61(a)(1)",
        "Lines 1a to 1h.";
    pub TOTAL = "us.9", "Total income", "IRC §61",
        "Wages and other earned income, interest, dividends, distributions, benefits, gains and additional income.";
    pub AGI = "us.agi", "Adjusted gross income", "IRC §62",
        "Total income less the adjustments.";
}

open_points! {
    DIGITAL_ASSETS_ASKED = blocks "K-024", "Form 1040, page 1",
        "Everyone answers this on page 1 of Form 1040.";
    DIGITAL_ASSETS = look "K-025", "Form 1040, page 1",
        "Sales belong on Form 1099-B as digital assets, what was received to other income: look at both.";
}

/// Income down to line 11a.
#[derive(Debug, Clone, Copy)]
pub struct Income {
    /// Line 1z.
    pub wages: Money,
    /// Line 2a.
    pub exempt_interest: Money,
    /// Line 2b.
    pub interest: Money,
    /// Line 3a.
    pub qualified: Money,
    /// Line 3b.
    pub dividends: Money,
    /// Line 7 and Schedule D.
    pub gains: Gains,
    /// Income of nonqualified annuities, within line 5b.
    pub annuities: Money,
    /// Schedule 1 line 18.
    pub penalty: Money,
    /// Schedule 1 line 1.
    pub refund: Money,
    /// Line 11a.
    pub agi: Money,
    /// Income for the ranges of IRA contributions (§219(g)(3)(A)).
    pub for_ira: Money,
    /// Gross income from all sources, losses not taken off.
    pub gross: Money,
    /// Line 6a less line 6b.
    pub untaxed_benefits: Money,
    /// Total income less what was earned and the early withdrawal penalty (§1(g)(4)(A)(i)).
    pub unearned: Money,
    /// Qualified dividends that keep their rates.
    pub preferred_qualified: Money,
    /// Gains, of which the net gain is what keeps its rates.
    pub preferred: Gains,
    /// Schedule A line 9, where it is deducted.
    pub investment_interest: Money,
    /// Form 4797.
    pub property: Property,
    /// Rent of personal property less its expenses (Schedule 1 lines 8l and 24b).
    pub personal_property: Money,
    /// Schedule E.
    pub rents: Rents,
    /// Form 8814.
    pub children: Elected,
}

impl Income {
    /// The same with what Form 4952 takes at ordinary rates, and its deduction where the return itemizes.
    pub fn with_elected(self, gain: Money, qualified: Money, investment_interest: Money) -> Income {
        Income {
            preferred_qualified: self.qualified - qualified,
            preferred: Gains { net: self.gains.net - gain, ..self.gains },
            investment_interest,
            ..self
        }
    }

    /// Interest, dividends, annuities, rents and gains less the early withdrawal penalty: what the net investment income tax starts from.
    pub fn investment(&self) -> Money {
        let children = self.children.rest - self.children.fund;
        let owned =
            self.interest + self.dividends + self.annuities + self.rents.invested + self.personal_property;
        let sold = self.gains.line_7 + self.property.ordinary - self.property.not_invested;
        owned + children + sold - self.penalty - self.investment_interest
    }
}

/// Lines 1a to 11a.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Income {
    let wages = wages(on, trail);
    let exempt_interest = on.gather(trail, EXEMPT_INTEREST, &interest::brings::EXEMPT_INTEREST);
    let added = on.gather(trail, interest_line(on), &interest::brings::INTEREST);
    let children = parents_election::reckon(on, trail);
    let of_children = (parents_election::QUALIFIED, children.qualified);
    let qualified = on.gather_with(trail, QUALIFIED, &dividends::brings::QUALIFIED, of_children);
    let dividends = on.gather_with(trail, DIVIDENDS, &dividends::brings::ORDINARY, of_children);
    let (ira, pensions) = retirement::reckon(on, trail);
    let property = business_property::reckon(on, trail);
    let distributed = (parents_election::DISTRIBUTED, children.distributed);
    let gains = capital_gains::reckon(on, trail, distributed, property);
    let first = schedule_1::adjustments(on, trail);
    let of_children = (parents_election::REST, children.rest);
    let additional = schedule_1::income(on, trail, of_children, property.ordinary);
    let refund = additional.refund;
    let but_rents = wages + added + dividends + ira + pensions + gains.line_7 + additional.sum();
    let modified = but_rents - (first.sum() - first.half) - in_passive_losses(on, gains, property)
        + rentals::for_modified(on)
        + pass_through::for_modified(on);
    let (rents, held_back) = rentals::reckon(on, trail, modified);
    let held_back = HeldBack::of(on, held_back);
    let through = pass_through::reckon(on, trail, &held_back);
    let additional = schedule_1::with_schedule_e(on, trail, additional, rents.net, through);
    let income = wages + added + dividends + ira + pensions + gains.line_7 + additional;
    let from = social_security::From { income, exempt_interest, adjustments: first.sum() };
    let (benefits, ira_deducted, for_ira) = benefits_and_ira(on, trail, from);
    let bonds = education_bonds::reckon(on, trail, income + benefits - first.sum() - ira_deducted);
    let interest = less_bonds(on, trail, added, bonds);
    let parts = [
        (EARNED, wages),
        (INTEREST, interest),
        (DIVIDENDS, dividends),
        (retirement::IRA, ira),
        (retirement::PENSION, pensions),
        (social_security::L6B, benefits),
        (capital_gains::L7, gains.line_7),
        (schedule_1::L8, additional),
    ];
    let total = trail.line(TOTAL, on.scope, income + benefits - bonds, |i| {
        for (line, amount) in parts {
            i.line(line, on.scope, amount);
        }
    });
    let student_loan = student_loan::reckon(on, trail, total - first.sum() - ira_deducted);
    let last = [(ira_deduction::L20, ira_deducted), (student_loan::L21, student_loan)];
    let penalty = first.penalty;
    let adjustments = schedule_1::together(on, trail, first, last);
    if on.unit.people.len() > 1 {
        for &person in &on.unit.people {
            agi_of(on, trail, person, benefits, (&rents, &held_back, property));
        }
    }
    let agi = trail.line(AGI, on.scope, total - adjustments, |i| {
        i.line(TOTAL, on.scope, total).line(schedule_1::ADJUSTMENTS, on.scope, adjustments);
    });
    let businesses = on.unit.people.iter().flat_map(|&p| business::of(on.facts, p));
    let losses = businesses.map(|b| b.part_of(b.gross - b.profit(on, &mut Silent))).sum::<Money>().to_whole();
    let sold = property.gross - property.ordinary;
    let carried = on.unit.operating_loss.map_or(Money::ZERO, |loss| loss.deducted);
    let gross = total + carried - gains.line_7 + gains.gross + sold + losses + rents.gross - rents.net;
    let received = sum(on.items(&social_security::brings::BENEFITS)).to_whole();
    let untaxed_benefits = received - benefits;
    let annuities = retirement::annuities(on);
    let personal_property =
        other_income::of_personal_property(on) - other_adjustments::of_personal_property(on);
    let earned_by = |&p: &usize| self_employment::silent(on, p).profit + pass_through::earnings(on.facts, p);
    let business: Money = on.unit.people.iter().map(earned_by).sum();
    let left_out = untaxed_pay::left_out(on, &mut Silent, untaxed_pay::on_wages(on, &mut Silent));
    let unearned = total - left_out - wages - business - penalty;
    Income {
        wages,
        exempt_interest,
        interest,
        qualified,
        dividends,
        annuities,
        gains,
        penalty,
        refund,
        agi,
        for_ira,
        gross,
        untaxed_benefits,
        unearned,
        preferred_qualified: qualified,
        preferred: gains,
        investment_interest: Money::ZERO,
        property,
        personal_property,
        rents,
        children,
    }
}

/// What of the gains Form 8582 has, and its income for the allowance leaves out: line 7 and Schedule 1 line 4 with them less both without.
fn in_passive_losses(on: On<'_>, gains: Gains, property: Property) -> Money {
    let long = rentals::passive_gains(on) + pass_through::passive_gains(on);
    let short = rentals::passive_short_gains(on);
    let without = business_property::with_net(on, property, property.net - long);
    let line_7 = capital_gains::limited(on, gains.short + gains.long - property.gain + without.gain);
    gains.line_7 - line_7 + property.ordinary - without.ordinary + short
}

/// The line that adds up the interest: Schedule B, where some of it is left out.
fn interest_line(on: On<'_>) -> LineId {
    if education_bonds::any(on) { ADDED } else { INTEREST }
}

/// Line 2b.
fn less_bonds(on: On<'_>, trail: &mut impl Trail, added: Money, bonds: Money) -> Money {
    if !education_bonds::any(on) {
        return added;
    }
    trail.line(INTEREST, on.scope, added - bonds, |i| {
        i.line(ADDED, on.scope, added).line(education_bonds::EXCLUDED, on.scope, bonds);
    })
}

/// Lines 1a, 1h and 1z.
fn wages(on: On<'_>, trail: &mut impl Trail) -> Money {
    let paid = on.gather(trail, WAGES, &w2::brings::WAGES);
    let tips = unreported_tips::income(on, trail);
    let unwithheld = misclassified_pay::income(on, trail);
    let (_, benefits) = care::benefits(on, trail);
    let excess = excess_deferrals::reckon(on, trail);
    let waiver = untaxed_pay::on_wages(on, trail);
    let moved = moving::taxed(on, trail);
    let distributed: Money = on.unit.people.iter().map(|&p| retirement::wages(on.facts, trail, p)).sum();
    trail.line(
        EARNED,
        on.scope,
        paid + tips + unwithheld + waiver + benefits + excess + moved + distributed,
        |i| {
            i.line(WAGES, on.scope, paid);
            for (line, amount) in
                [(untaxed_pay::L1D, waiver), (misclassified_pay::L1G, unwithheld), (moving::TAXED, moved)]
            {
                if !amount.is_zero() {
                    i.line(line, on.scope, amount);
                }
            }
            if !tips.is_zero() {
                i.line(unreported_tips::L1C, on.scope, tips);
            }
            if !benefits.is_zero() {
                i.line(care::TAXED, on.scope, benefits);
            }
            if !excess.is_zero() {
                i.line(EXCESS, on.scope, excess);
            }
            for &person in on.unit.people.iter().filter(|_| !distributed.is_zero()) {
                let amount = retirement::wages(on.facts, &mut Silent, person);
                i.line(retirement::WAGES_OF, Scope::Person(person), amount);
            }
        },
    )
}

/// The benefits that are taxed and the IRA deduction, each of which the other depends on (Pub. 590-A, Appendix B): the benefits as if
/// there were no deduction, the deduction by the income that they make, and the benefits again with it.
/// Then the income by which the deduction went.
fn benefits_and_ira(
    on: On<'_>,
    trail: &mut impl Trail,
    from: social_security::From,
) -> (Money, Money, Money) {
    let without = social_security::reckon(on, &mut Unseen(trail), from);
    let for_ira = from.income + without - from.adjustments;
    let deducted = ira_deduction::reckon(on, trail, for_ira);
    let from = social_security::From { adjustments: from.adjustments + deducted, ..from };
    (social_security::reckon(on, trail, from), deducted, for_ira)
}

/// The income of a person on a return of one's own.
pub fn alone(facts: &Facts, person: usize) -> Income {
    let married = facts.marital == Marital::Married && facts.people[person].filer;
    let status = if married { Status::Separate } else { Status::Single };
    let unit = Unit::of_one(person, status);
    reckon(On { facts, unit: &unit, scope: Scope::Return(0) }, &mut Silent)
}

/// What a person alone brings to adjusted gross income, line by line; what depends on the income of a return is nobody's.
fn parts(on: On<'_>, person: usize, property: Property) -> Vec<(LineId, Money)> {
    let facts = on.facts;
    let own_business = self_employment::silent(on, person);
    let own = &facts.people[person].own;
    let brought = |kind| sum(own.of(kind));
    let minus = |line, amount: Money| (line, -amount);
    vec![
        (WAGES, brought(&w2::brings::WAGES)),
        (unreported_tips::L1C, brought(&w2::brings::ALLOCATED_TIPS)),
        (misclassified_pay::L1G, brought(&w2::brings::UNWITHHELD)),
        (EXCESS, excess_deferrals::excess_of(facts, person)),
        (retirement::WAGES_OF, retirement::wages(facts, &mut Silent, person)),
        (interest_line(on), brought(&interest::brings::INTEREST)),
        (DIVIDENDS, brought(&dividends::brings::ORDINARY)),
        (retirement::IRA_OF, retirement::ira_of(facts, &mut Silent, person, on.taxed_now(person))),
        (retirement::PENSION_OF, retirement::pension_of(facts, &mut Silent, person, on.taxed_now(person))),
        (capital_gains::L7, capital_gains::of_person(own, property)),
        (government_payments::REFUND, brought(&government_payments::brings::REFUND)),
        (government_payments::UNEMPLOYMENT, brought(&government_payments::brings::UNEMPLOYMENT)),
        (other_income::OF, other_income::of_person(on, person)),
        (business::PROFIT, own_business.profit),
        minus(self_employment::HALF_OF, own_business.half),
        minus(self_employment::PLAN_OF, own_business.plan),
        minus(self_employment::HEALTH_OF, own_business.health),
        minus(educators::L11, educators::allowed_for(facts, person)),
        minus(health_savings::OF, health_savings::of_person(facts, person)),
        (moving::TAXED, moving::taxed_of(facts, person)),
        (untaxed_pay::L8S, -brought(&w2::brings::WAIVER_IN_WAGES)),
        minus(moving::OF, moving::of_person(facts, person)),
        minus(union_plan::OF, union_plan::of_person(on, person)),
        minus(schedule_1::PENALTY, brought(&interest::brings::PENALTY)),
        minus(other_income::ALIMONY_PAID, brought(&other_income::brings::ALIMONY_PAID)),
        minus(other_income::JURY_GIVEN, brought(&other_income::brings::JURY_GIVEN)),
    ]
}

/// A spouse's part of the joint income, losses without the limit of the return.
fn agi_of(
    on: On<'_>,
    trail: &mut impl Trail,
    person: usize,
    benefits: Money,
    (rents, held_back, property): (&Rents, &HeldBack, Property),
) {
    let scope = Scope::Person(person);
    other_income::part(on, trail, person);
    let mut parts = parts(on, person, property);
    let own = &on.facts.people[person].own;
    parts.push((rentals::L26, rentals::of_person(on, rents, person)));
    parts.extend(health_savings::income_of(on.facts, person));
    parts.push(long_term_care::part(on.facts, person));
    let (line, adjusted) = other_adjustments::part(on, trail, person);
    parts.push((line, -adjusted));
    let shares = [pass_through::L32, pass_through::L37];
    parts.extend(shares.map(|line| (line, pass_through::of_person(on.facts, person, line, held_back))));
    if property.gain.is_zero() {
        parts.push((business_property::ORDINARY, business_property::of_person(own)));
    }
    let received = sum(on.items(&social_security::brings::BENEFITS));
    parts.push((social_security::L6B, social_security::part(own, received, benefits)));
    trail.line(AGI, scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, scope, amount);
        }
    });
}

/// Schedule B: interest or dividends above the figure, interest lowered by a premium, or an account abroad.
pub fn schedule_b(filed: Filed<'_>) -> Required {
    let most = filed.on.facts.figures.interest.schedule_b_above;
    let adjusted = filed.on.items(&interest::brings::INTEREST).any(|item| item.amount.is_negative());
    let abroad = filed.on.unit.main && filed.on.facts.foreign_account == Some(true);
    let above = filed.amount(INTEREST) > most || filed.amount(DIVIDENDS) > most;
    let bonds = filed.has(education_bonds::EXCLUDED);
    Required::if_so(
        above || adjusted || bonds || abroad,
        format!("neither interest nor dividends above {most:#}"),
    )
}

/// The question of page 1.
pub fn points(points: &mut Points<'_>) {
    match points.answered(ask::DIGITAL_ASSETS).and_then(Entry::flag) {
        None => {
            let place = Place::household(ask::DIGITAL_ASSETS);
            points.raise(&DIGITAL_ASSETS_ASKED, place, "Digital assets: yes or no?");
        }
        Some(said) if said != digital_assets(points) => {
            let place = Place::household(ask::DIGITAL_ASSETS);
            points.raise(&DIGITAL_ASSETS, place, "The answer about digital assets and the papers disagree.");
        }
        Some(_) => {}
    }
}

/// Whether papers tell of digital assets, sold or received.
fn digital_assets(points: &Points<'_>) -> bool {
    sales::any_digital(points) || other_income::any_digital(points)
}
