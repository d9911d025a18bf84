//! Premiums of a Marketplace policy that a self-employed filer deducts (§§36B, 162(l); Rev. Proc. 2014-41): the deduction lowers the income
//! that the premium tax credit goes by, and the credit lowers the premiums that are deducted, so both are settled together.

use crate::{
    facts::Facts,
    filing_status::Status,
    income,
    points::Points,
    premium_tax_credit::{self, brings::POLICIES},
    self_employment, status,
    unit::{Cover, CoverMethod, On, Unit},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    limit, open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Scope, Silent, Trail},
    words::first_name,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Marketplace premiums of the self-employed",
    points: POINTS,
    figures: &["premium_tax_credit", "self_employment"],
    ..Provision::NONE
};

open_points! {
    ASKED = not_known "8962-7206", "IRC §162(l); Rev. Proc. 2014-41",
        "Answer whether no employer's plan was open to the family: then the business deducts what the credit leaves.";
    MIXED = not_covered "8962-7206-mixed", "Reg. §1.162(l)-1(a)(2)";
    BOTH = not_covered "8962-7206-both", "Reg. §1.162(l)-1(a)(2)";
    OPERATING_LOSS = not_covered "8962-7206-loss", "IRC §§162(l), 172(a)(2)(B)";
    NOT_SETTLED = not_weighed "C-81", "Rev. Proc. 2014-41",
        "The rounds find no end, so one round is taken; another division within both limits is not weighed here.";
}

/// The rounds after which there is no end.
const ROUNDS: usize = 40;

/// What of the premiums a filer of a return deducts: as much as the credit at the income that it leaves does not pay, up to what the
/// business earned and to what is not paid in advance for good.
pub fn of(on: On<'_>) -> Option<Cover> {
    let (premiums, advance) = premium_tax_credit::of_own_work(on)?;
    let earned = |&person: &usize| (self_employment::room_for_cover(on, person), std::cmp::Reverse(person));
    let person = on.unit.people.iter().copied().max_by_key(earned)?;
    let room = settled::or_zero(self_employment::room_for_cover(on, person));
    if premiums.is_zero() {
        return None;
    }
    let at =
        |deducted: Money| Cover { person, deducted, left: Money::ZERO, repaid_at_most: None, settled: true };
    let (most, repaid_at_most) = most(on, &at, [premiums, advance, room]);
    let of = |deducted: Money| Cover { repaid_at_most, ..at(deducted) };
    let next = |deducted: Money| {
        settled::lesser(settled::or_zero(premiums - reckoned(on, of(deducted)).allowed), most)
    };
    let once = next(most);
    let (deducted, settled) = match on.unit.cover_method {
        CoverMethod::Simplified => (once, true),
        CoverMethod::Iterative => end_of_rounds(once, next).map_or((once, false), |end| (end, true)),
    };
    let credit = reckoned(on, of(deducted));
    let not_paid_back = settled::or_zero(advance - credit.allowed) - credit.excess;
    let left = settled::or_zero(premiums - credit.allowed - not_paid_back - deducted);
    Some(Cover { left, settled, ..of(deducted) })
}

/// The deduction that the next round finds again; none where there is no end.
fn end_of_rounds(first: Money, next: impl Fn(Money) -> Money) -> Option<Money> {
    let mut deducted = first;
    for _ in 0..ROUNDS {
        let found = next(deducted);
        if found == deducted {
            return Some(deducted);
        }
        deducted = found;
    }
    None
}

/// What the deduction comes to at most, and with it what is paid back of the advance payments at most: the first limit that the income
/// stays below where as much is deducted as it leaves to pay (Reg. §1.36B-4(a)(3)(iii)).
fn most(
    on: On<'_>,
    at: &impl Fn(Money) -> Cover,
    [premiums, advance, room]: [Money; 3],
) -> (Money, Option<Money>) {
    let least = |amount: Money| settled::lesser(settled::lesser(amount, premiums), room);
    if advance.is_zero() {
        return (least(premiums), None);
    }
    let below = |&(below, most): &(i64, Money)| {
        let unit = Unit { cover: Some(at(least(premiums - advance + most))), ..on.unit.clone() };
        let on = On { unit: &unit, ..on };
        premium_tax_credit::percentage_of(on, &income::reckon(on, &mut Silent)) < below
    };
    let tier = premium_tax_credit::repayment_tiers(on).find(below);
    tier.map_or((least(premiums), None), |(_, most)| (least(premiums - advance + most), Some(most)))
}

/// The credit at the income that a deduction leaves.
fn reckoned(on: On<'_>, cover: Cover) -> premium_tax_credit::Credit {
    let unit = Unit { cover: Some(cover), ..on.unit.clone() };
    let on = On { unit: &unit, ..on };
    premium_tax_credit::reckon(on, &mut Silent, &income::reckon(on, &mut Silent))
}

/// Tells the division of the premiums in the trail.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) {
    let Some(cover) = on.unit.cover else { return };
    let (premiums, advance) = premium_tax_credit::of_own_work(on).unwrap_or_default();
    let (scope, open) = (Scope::Person(cover.person), cover.deducted + cover.left);
    limit::given(trail, self_employment::COVER_LIMIT.at(scope), limit::Shape::Cap, open, cover.deducted);
    trail.line(self_employment::COVER_OF, scope, cover.deducted, |i| {
        i.items(premium_tax_credit::items_of_own_work(on))
            .figure("Premiums", premiums)
            .figure("Advance payments", advance)
            .figure("Neither deducted nor covered", cover.left);
    });
}

/// Whether a person has a policy whose premiums the self-employed deduct.
fn is_open(facts: &Facts, person: usize) -> bool {
    facts.people[person].own.of(&POLICIES).iter().any(premium_tax_credit::Policy::is_of_own_work)
}

/// How the division is found, for each filer with such a policy.
pub static METHOD: Open<Facts> = Open::new(
    |facts: &Facts| with_policy(facts).collect(),
    |facts, person| {
        let about = &facts.people[person];
        let short = format!("{}'s premiums in one round", first_name(&about.name));
        let options = vec![
            Opt::new("iterative", "In rounds, until nothing changes", ""),
            Opt::new("simplified", "In one round", short),
        ];
        Decision::between(
            format!("us.cover_method.{}", about.id),
            format!("Marketplace premiums of {}", about.name),
            "Rev. Proc. 2014-41",
            options,
        )
    },
)
// On a joint return the premiums of both are divided together.
.arises(|facts, person, way| status::separate(facts, way) || with_policy(facts).next() == Some(person));

/// The filers with such a policy.
fn with_policy(facts: &Facts) -> impl Iterator<Item = usize> {
    facts.filers.iter().copied().filter(|&person| is_open(facts, person))
}

/// The method of a return in a way: that of its first filer who has such a policy.
pub fn method(way: Chosen<'_, '_, Facts>, people: &[usize]) -> CoverMethod {
    match people.iter().find_map(|&person| way.taken(&METHOD, person)) {
        Some(1) => CoverMethod::Simplified,
        _ => CoverMethod::Iterative,
    }
}

/// Policies beside a business, and divisions that find no end.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        of_return(points, On { facts: points.facts, unit, scope: Scope::Return(place) });
    }
}

fn of_return(points: &mut Points<'_>, on: On<'_>) {
    let businesses =
        on.unit.people.iter().filter(|&&p| self_employment::silent(on, p).run > Money::ZERO).count();
    let policies = points.papers(premium_tax_credit::POLICY.id);
    let policies: Vec<_> = policies.filter(|paper| points.is_of(paper, &on.unit.people)).collect();
    if businesses == 0 {
        return;
    }
    for paper in policies.iter().filter(|paper| !paper.boxes.contains_key("own_work")) {
        let message = "Does the business deduct the premiums of this policy?";
        points.raise(&ASKED, Place::paper(&paper.id, "own_work"), message);
    }
    let deducted: Vec<_> = policies.iter().filter(|paper| paper.flag("own_work")).collect();
    let Some(first) = deducted.first() else { return };
    let at = Place::paper(&first.id, "own_work");
    if deducted.len() < policies.len() {
        let message = "Policies that the business deducts beside others are not computed yet.";
        points.raise(&MIXED, at.clone(), message);
    }
    if businesses > 1 && on.unit.status == Status::Joint {
        let message = "Two filers with a business, and premiums of the Marketplace: not computed yet.";
        points.raise(&BOTH, at.clone(), message);
    }
    if on.unit.operating_loss.is_some() {
        let message = "Beside an operating loss of earlier years it is not computed yet.";
        points.raise(&OPERATING_LOSS, at.clone(), message);
    }
    if on.unit.cover.is_some_and(|cover| !cover.settled) {
        points.raise(&NOT_SETTLED, at, "Deduction and credit find no division to the dollar.");
    }
}
