//! Medical expenses of other dependants (ITA 118.2(1) D; line 33199): above a part of the dependant's own net income, for twelve months
//! of one's own, claimed by one who supports the dependant or by the dependant.

use crate::{
    facts::Facts,
    income::{self, Incomes},
    medical_months, net_income, people,
    plan::On,
    points::Points,
    province,
    rounding::{STEEPEST_OF_SUPPLEMENTED, cents},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Bar, Decision, More, Opt},
    limit, limits, lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, points: POINTS, figures: &["medical"], ..Provision::NONE };

lines! {
    pub ALLOWED = "ca.33199", "Medical of other dependants", "ITA 118.2(1) D",
        "For each what is above a part of the dependant's net income, or the most of the threshold.";
    pub PROVINCIAL_ALLOWED = "ca.58729", "Medical of other dependants, province", "Income tax acts of the provinces; form 428",
        "The same receipts with the threshold of the province.";
}

limits! {
    THRESHOLD = "ca.limit.medical_others" on ALLOWED, "Medical of other dependants", "only above the threshold",
        "ITA 118.2(1) D";
    THRESHOLD_PROVINCIAL = "ca.limit.medical_others_provincial" on PROVINCIAL_ALLOWED, "Medical of other dependants, province", "only above the threshold",
        "Income tax acts of the provinces; form 428";
}

open_points! {
    NET_INCOME = blocks "C-61", "ITA 118.2(1) D", "Enter it, 0 where there was none: receipts count above a part of it.";
    CEILING = not_covered "medical-ceiling", "Form 428 of the province, line 58729";
    DIVIDED = not_weighed "medical-supporters", "ITA 118.2(1)",
        "The dependant may claim a part as well: worth it only where the others have too little tax; not weighed.";
    OTHER_MONTHS = not_weighed "medical-months", "ITA 118.2(1)",
        "The twelve months with the most receipts are taken: others would keep receipts for the next year.";
}

/// The dependants with receipts of their own, and the most that twelve months of theirs hold.
fn dependants(facts: &Facts) -> impl Iterator<Item = (usize, Money)> + '_ {
    (0..facts.people.len()).filter_map(|person| Some((person, medical_months::largest_sum(facts, person)?)))
}

/// Who may claim for a dependant: the filers, and the dependant who files.
fn claimants(facts: &Facts, dependant: usize) -> Vec<usize> {
    let own = facts.returns.contains(&dependant).then_some(dependant);
    facts.filers.iter().copied().chain(own).collect()
}

/// The dependants for whom more than one may claim.
fn of_several(facts: &Facts) -> impl Iterator<Item = (usize, Money)> + '_ {
    dependants(facts).filter(|&(dependant, _)| claimants(facts, dependant).len() > 1)
}

/// Who claims, by the dependant's place: options by place among those who may, then the first two of them.
pub static BY: Open<Facts> = Open::new(
    |facts: &Facts| of_several(facts).map(|(dependant, _)| dependant).collect(),
    |facts, dependant| {
        let whose = facts.first_name(dependant);
        let claimants = claimants(facts, dependant);
        let mut options = facts.options(&claimants, |name| format!("medical of {whose} with {name}"));
        let [one, other] = [0, 1].map(|place| facts.first_name(claimants[place]));
        let label = format!("Divided between {one} and {other}");
        options.push(Opt::new("both", label, format!("medical of {whose} divided")));
        let id = format!("ca.medical.of.{}", facts.people[dependant].id);
        let label = format!("Who claims medical of {}", facts.first_name(dependant));
        Decision::between(id, label, "ITA 118.2(1); line 33199", options)
    },
)
.bars(|facts, dependant, option, _| {
    let divided = option == claimants(facts, dependant).len() && !above_two_thresholds(facts, dependant);
    divided.then_some(Bar::Borrowed("divided, a part would not be above its threshold"))
});

/// How much the first of two who claim for a dependant claims; the rest is the other's.
pub static AMOUNT: Open<Facts> = Open::new(
    |facts: &Facts| {
        let dependants = of_several(facts).map(|(dependant, _)| dependant);
        dependants.filter(|&dependant| above_two_thresholds(facts, dependant)).collect()
    },
    |facts, dependant| {
        let whose = facts.first_name(dependant);
        let first = facts.first_name(claimants(facts, dependant)[0]);
        let most = medical_months::largest_sum(facts, dependant).unwrap_or_default();
        let short = format!("medical of {whose} with {first}");
        let amount = Amount { most, short, more: More::MayCost, steepest: STEEPEST_OF_SUPPLEMENTED };
        let id = format!("ca.medical.part.{}", facts.people[dependant].id);
        Decision::amount(id, format!("Medical of {whose} that {first} claims"), "ITA 118.2(1) D", amount)
    },
)
.arises(|facts, dependant, way| way.taken(&BY, dependant) == Some(claimants(facts, dependant).len()));

/// Divided receipts bring nothing unless both parts are above the threshold, which goes by the dependant's net income.
fn above_two_thresholds(facts: &Facts, dependant: usize) -> bool {
    let figures = &facts.figures.medical;
    let most = province::figures(facts).map_or(figures.most, |province| province.medical_most);
    let net = match facts.returns.contains(&dependant) {
        true => net_income::widest(facts, dependant).0,
        false => facts.people[dependant].other_net_income,
    };
    let threshold =
        settled::lesser(cents(settled::or_zero(net), figures.part), settled::lesser(figures.most, most));
    medical_months::largest_sum(facts, dependant).is_some_and(|sum| sum > threshold * 2)
}

/// Who claims for each dependant in a way: (dependant, claimant, what).
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<(usize, usize, Money)> {
    let each = |(dependant, sum): (usize, Money)| {
        let claimants = claimants(facts, dependant);
        let place = way.taken(&BY, dependant).unwrap_or(0);
        if let Some(&alone) = claimants.get(place) {
            return vec![(dependant, alone, sum)];
        }
        let first = way.amount(&AMOUNT, dependant).unwrap_or_default();
        vec![(dependant, claimants[0], first), (dependant, claimants[1], sum - first)]
    };
    dependants(facts).flat_map(each).collect()
}

/// Lines 33199 and 58729: of whom this return claims for, above the threshold of each; who claims one's own has it on line 33099.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, federal: bool, most: Money) -> Money {
    let at = if federal { &THRESHOLD } else { &THRESHOLD_PROVINCIAL };
    let part = on.facts.figures.medical.part;
    let mut each = Vec::new();
    for &(dependant, _, paid) in on.plan.medical_of_others.iter().filter(|(_, by, _)| *by == on.person) {
        let net = incomes[dependant].net;
        let threshold = limit::lesser(trail, cents(settled::or_zero(net), part), most);
        each.push((dependant, paid, limit::above(trail, at.at(on.scope), paid, threshold)));
    }
    let line = at.line;
    let total = each.iter().map(|(_, _, allowed)| *allowed).sum();
    trail.line(line, on.scope, total, |i| {
        for &(dependant, paid, _) in &each {
            let receipts = on.facts.medical_of_others[dependant].iter();
            i.items(receipts.map(|receipt| &receipt.item)).figure("Of twelve months", paid);
            if on.facts.returns.contains(&dependant) {
                i.line(income::NET, on.of(dependant).scope, incomes[dependant].net);
            }
        }
    })
}

/// Receipts of a dependant whose claimant has too little tax, where a third could claim a part.
fn divided(points: &mut Points<'_>, dependant: usize) {
    let lost = |place: usize| !points.amount(ALLOWED, place).is_zero() && points.credits_lost(place);
    let several = claimants(points.facts, dependant).len() > 2;
    if several && (0..points.facts.returns.len()).any(lost) {
        let name = &points.facts.people[dependant].name;
        let message = format!("Receipts of {name} could be divided between all who may claim them.");
        points.raise(&DIVIDED, points.at(dependant, "name"), message);
    }
}

/// Large receipts, for which a province may have a ceiling.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    for (dependant, sum) in dependants(facts) {
        let all: Money = facts.medical_of_others[dependant].iter().map(|receipt| receipt.item.amount).sum();
        let who = &facts.people[dependant];
        if !who.files && !points.said(dependant, people::ask::NET_INCOME) {
            let message = format!("Net income of {}?", who.name);
            points.raise(&NET_INCOME, points.at(dependant, people::ask::NET_INCOME), message);
        }
        if sum > facts.figures.medical.others_told_above {
            let message = format!("Receipts of {}: a ceiling of the province is not held.", who.name);
            points.raise(&CEILING, Place::person(&who.id, "name"), message);
        }
        divided(points, dependant);
        if all > sum {
            let message = format!("Receipts of {} lie in no one window of twelve months.", who.name);
            points.raise(&OTHER_MONTHS, Place::person(&who.id, "name"), message);
        }
    }
}
