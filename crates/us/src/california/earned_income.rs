//! Credits that California pays out (R&TC 17052, 17052.1, 17052.2; FTB 3514): earned income, young child, foster youth.

use super::{counted_pay, form_540nr, made, of_person, parents_election::Elected};
use crate::{
    dependents, earned_income_credit, figures::CaliforniaEarnedIncome, filing_status::Status, income::Income,
    papers::w2, self_employment, unit::On,
};
use hembo_core::{Trail, limit, limits, lines, provision::Provision, reading::sum, settled};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["california_earned_income"], ..Provision::NONE };

lines! {
    EARNED = "us.ca.3514.19", "Earned income of California", "FTB 3514", "State wages, what a business earned, and pay without tax that is counted.";
    pub L75 = "us.ca.540.75", "California earned income credit", "R&TC 17052", "By the table's row, the smaller of those by earnings and by federal income; to be confirmed by the printed table.";
    pub L76 = "us.ca.540.76", "Young child tax credit", "R&TC 17052.1", "For a child under six, less a part of earnings above a start.";
    pub L77 = "us.ca.540.77", "Foster youth tax credit", "R&TC 17052.2", "For each filer of 18 to 25 who was in foster care, less in the same way.";
}

limits! {
    EARNED_PART = "us.ca.limit.earned_part" on L75, "California earned income credit", "the part of California", "R&TC 17052; Form 540NR, line 85";
    YOUNG_PART = "us.ca.limit.young_part" on L76, "Young child tax credit", "the part of California", "R&TC 17052.1; Form 540NR, line 86";
    FOSTER_PART = "us.ca.limit.foster_part" on L77, "Foster youth tax credit", "the part of California", "R&TC 17052.2; Form 540NR, line 87";
    FOSTER = "us.ca.limit.foster" on L77, "Foster youth tax credit", "less above the start", "R&TC 17052.2(b)";
    YOUNG = "us.ca.limit.young" on L76, "Young child tax credit", "less above the start", "R&TC 17052.1(b)";
}

/// The lines that are paid out.
pub const PAID_OUT: [hembo_core::line::LineId; 3] = [L75, L76, L77];

/// What is paid out.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct PaidOut {
    pub earned: Money,
    pub young: Money,
    pub foster: Money,
}

/// Lines 75 to 77, from federal income and what children's income makes otherwise here; `part` of them counts on Form 540NR.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    (income, of_children): (&Income, Elected),
    part: Rate,
) -> PaidOut {
    let Some(figures) = &on.facts.figures.california_earned_income else {
        unreachable!("prepared with its figures")
    };
    let earned = earned(on, trail);
    let children = children(on).count();
    let invested = earned_income_credit::invested(income) - of_children.off + of_children.onto;
    let open = invested <= figures.invested_most && eligible(on, figures, children);
    let within = earned <= figures.most && income.agi <= figures.most;
    let has_credit = open && within && earned > Money::ZERO;
    let amount = if has_credit { credit(figures, children, earned, income.agi) } else { Money::ZERO };
    let amount = form_540nr::part_of(on, trail, EARNED_PART.at(on.scope), amount, part);
    made(
        on,
        trail,
        L75,
        amount,
        &[(EARNED, earned)],
        &[("Federal income", &income.agi), ("Children", &children)],
    );
    let young = children_under(on, figures) && open && within;
    // Without earnings, too, where a loss is the reason and is not above a most.
    let small_loss =
        earned <= Money::ZERO && is_small_loss(on, figures) && children_under(on, figures) && open;
    let most = if young && (has_credit || small_loss) { figures.young_most } else { Money::ZERO };
    let young = faded(figures, trail, YOUNG.at(on.scope), most, earned);
    let young = form_540nr::part_of(on, trail, YOUNG_PART.at(on.scope), young, part);
    made(on, trail, L76, young, &[(EARNED, earned)], &[("At most", &figures.young_most)]);
    let foster = on.unit.people.iter().filter(|&&p| is_foster_youth(on, figures, p)).count() as i64;
    let most = if has_credit && foster > 0 { figures.foster_most } else { Money::ZERO };
    let foster = faded(figures, trail, FOSTER.at(on.scope), most, earned) * foster;
    let foster = form_540nr::part_of(on, trail, FOSTER_PART.at(on.scope), foster, part);
    made(on, trail, L77, foster, &[(EARNED, earned)], &[("Each at most", &figures.foster_most)]);
    PaidOut { earned: amount, young, foster }
}

/// State wages without pensions of nonqualified plans, what a business earned, and pay without tax that is counted.
fn earned(on: On<'_>, trail: &mut impl Trail) -> Money {
    let wages = form_540nr::state_wages(on);
    let pensions: Money = on.owns().map(|(_, own)| sum(own.of(&w2::brings::NONQUALIFIED))).sum();
    let business: Money = on.unit.people.iter().map(|&p| self_employment::silent(on, p).earned()).sum();
    let counted = counted_pay::reckon(on, trail);
    let amount = (wages - pensions).to_whole() + business + counted.1;
    made(
        on,
        trail,
        EARNED,
        amount,
        &[counted],
        &[("State wages", &(wages - pensions).to_whole()), ("Business", &business)],
    )
}

/// Whether a business had a loss, and neither it nor wages are above the most.
fn is_small_loss(on: On<'_>, figures: &CaliforniaEarnedIncome) -> bool {
    let loss = |&p: &usize| settled::or_zero(-self_employment::silent(on, p).earned());
    let lost: Money = on.unit.people.iter().map(loss).sum();
    lost > Money::ZERO
        && lost <= figures.young_loss_most
        && form_540nr::state_wages(on) <= figures.young_loss_most
}

/// The qualifying children: as for the federal credit, with any number.
pub fn children(on: On<'_>) -> impl Iterator<Item = usize> {
    on.facts.candidates().filter(move |&person| counts(on, person))
}

/// Whether someone is a qualifying child here.
pub fn counts(on: On<'_>, person: usize) -> bool {
    let about = &on.facts.people[person];
    on.unit.main
        && about.has_number
        && !on.unit.claimed_elsewhere.contains(&person)
        && (about.married != Some(true) || on.unit.dependents.iter().any(|d| d.person == person))
        && dependents::child_but_for_support(on.facts, &on.unit.people, person).is_ok()
}

fn children_under(on: On<'_>, figures: &CaliforniaEarnedIncome) -> bool {
    children(on).any(|child| {
        on.facts.people[child].age(on.facts.year_end).is_some_and(|age| age < figures.young_under_age)
    })
}

fn is_foster_youth(on: On<'_>, figures: &CaliforniaEarnedIncome, person: usize) -> bool {
    let age = on.facts.people[person].age(on.facts.year_end);
    let of_age = age.is_some_and(|age| (figures.foster_from_age..figures.foster_under_age).contains(&age));
    of_person(on, person).foster_youth && of_age
}

/// Whether the filers may have these credits at all.
fn eligible(on: On<'_>, figures: &CaliforniaEarnedIncome, children: usize) -> bool {
    let people = || on.unit.people.iter().map(|&p| &on.facts.people[p]);
    let separate = on.unit.status == Status::Separate && !(on.facts.apart == Some(true) && children > 0);
    let numbers = on.unit.people.iter().all(|&p| !of_person(on, p).lacks_number);
    let of_another = on.unit.status != Status::Joint
        && on.unit.people.iter().any(|&p| earned_income_credit::child_of_another(on.facts, p));
    let of_age = children > 0
        || (people().any(|p| p.reached(figures.childless_from_age, on.facts.year_end)) && !on.unit.claimable);
    !separate
        && (!form_540nr::is_filed(on) || form_540nr::resident_in_part(on))
        && numbers
        && !of_another
        && of_age
}

/// The credit by earnings, at most that by federal income where that is not below the earned income amount.
fn credit(figures: &CaliforniaEarnedIncome, children: usize, earned: Money, agi: Money) -> Money {
    let by_earnings = table(figures, children, earned);
    let class = settled::lesser(children, figures.by_children.len() - 1);
    if agi == earned || agi < figures.amounts[class] {
        return by_earnings;
    }
    settled::lesser(by_earnings, table(figures, children, agi))
}

/// The table's credit at an amount: growing to the earned income amount, falling at the same rate, then slowly to the limit.
pub fn table(figures: &CaliforniaEarnedIncome, children: usize, amount: Money) -> Money {
    if amount <= Money::ZERO || amount > figures.most {
        return Money::ZERO;
    }
    let class = settled::lesser(children, figures.by_children.len() - 1);
    let rate = figures.by_children[class].times(figures.factor);
    let (top, tail) = (figures.amounts[class], figures.tail_from[class]);
    let low = (amount - Money::whole(1)).rounded(figures.row, Rounding::Down);
    let middle = Money::from_cents((low + Money::whole(1) + low + figures.row).cents() / 2);
    let turns = top * 2 - tail.divided_by(rate, Money::CENT, Rounding::HalfUp);
    if middle > turns {
        return tail.in_proportion(
            figures.most - middle,
            figures.most - turns,
            Money::WHOLE,
            Rounding::HalfUp,
        );
    }
    let counted = settled::lesser(middle, top * 2 - middle);
    counted.times(rate, Money::WHOLE, Rounding::HalfUp)
}

/// So much less for each hundred of earnings above the start, with its parts.
fn faded(
    figures: &CaliforniaEarnedIncome,
    trail: &mut impl Trail,
    at: limit::LimitAt,
    most: Money,
    earned: Money,
) -> Money {
    let over = limit::or_zero(trail, earned - figures.young_from);
    let less = over.in_proportion(figures.young_each, figures.young_step, Money::WHOLE, Rounding::HalfUp);
    let left = limit::or_zero(trail, most - less);
    limit::given(trail, at, limit::Shape::PhaseOut, most, left)
}

/// A product of rates.
trait Times {
    fn times(self, other: Rate) -> Rate;
}

impl Times for Rate {
    fn times(self, other: Rate) -> Rate {
        Rate::from_billionths(
            (i128::from(self.billionths()) * i128::from(other.billionths()) / 1_000_000_000) as i64,
        )
    }
}
