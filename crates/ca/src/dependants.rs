//! Dependants: which of them is the eligible one (ITA 118(1)B(b), line 30400), and who of a couple claims for each.

use crate::{facts::Facts, plan::Caring, points::Points, province};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    open_points,
    point::Gather,
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["medical", "caregiver"], ..Provision::NONE };

open_points! {
    SHARED = not_weighed "amounts-shared", "ITA 118(4)(e), 118.3(3)",
        "Supporters may share lines 30450 and 31800: worth it only where one has too little tax; not weighed.";
}

/// Whether a person can be an eligible dependant (118(1)B(b), 118(4), (5)): lived in the home, nobody else claims or
/// must pay support, and is a parent or grandparent, or a young or infirm relative.
pub fn qualifies(facts: &Facts, person: usize) -> bool {
    let who = &facts.people[person];
    // An age is reached at the start of the birthday: who is 18 on 1 January was under 18 on no day of the year.
    let under_18 = who.age_on(facts.year_begin).is_some_and(|age| age < facts.figures.medical.child_under);
    let related = who.elder || (who.young_relative && (under_18 || who.infirm));
    !who.filer && related && who.lives_here && !who.claimed_elsewhere && !who.support_paid
}

/// For whom line 30400 may be claimed. Who outlived a partner may claim the amount for the partner in its place: nobody here.
fn eligible(facts: &Facts) -> Vec<Option<usize>> {
    let Some(claimant) = facts.keeps_alone() else { return Vec::new() };
    let partner = facts.partner(claimant).map(|_| None);
    let dependants = (0..facts.people.len()).filter(|&p| qualifies(facts, p));
    partner.into_iter().chain(dependants.map(Some)).collect()
}

/// Which dependant line 30400 is claimed for: options by place among those who qualify.
pub static ELIGIBLE: Open<Facts> = Open::new(
    |facts| if eligible(facts).len() < 2 { Vec::new() } else { vec![0] },
    |facts, _| {
        let option = |dependant: Option<usize>| match dependant {
            Some(dependant) => {
                let who = &facts.people[dependant];
                let short = format!("{} as the eligible dependant", facts.first_name(dependant));
                Opt::new(who.id.as_str(), who.name.as_str(), short)
            }
            None => {
                Opt::new("partner", "None: the amount for the partner who died", "amount for the partner")
            }
        };
        let options = eligible(facts).into_iter().map(option).collect();
        Decision::between("ca.dependant", "Eligible dependant", "ITA 118(1)B(b), (4); line 30400", options)
    },
);

/// For whom line 30400 is claimed in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<usize> {
    eligible(facts).get(way.taken(&ELIGIBLE, 0).unwrap_or(0)).copied().flatten()
}

/// Whether amounts are claimed for someone because of an impairment (lines 30450, 30500 and 31800).
fn impaired(facts: &Facts, person: usize) -> bool {
    let who = &facts.people[person];
    !who.filer && who.related && (who.infirm || who.disabled)
}

/// The dependants for whom something is claimed, federal or in the province.
fn claimed_for(facts: &Facts) -> impl Iterator<Item = usize> + '_ {
    let counts = |&p: &usize| impaired(facts, p) || province::cares_for(facts, p);
    (0..facts.people.len()).filter(counts)
}

/// Who may claim for a dependant: for one without an impairment only who keeps the home.
fn claimants(facts: &Facts, dependant: usize) -> Vec<usize> {
    let may = |&f: &usize| impaired(facts, dependant) || facts.people[f].maintains_home;
    facts.filers.iter().copied().filter(may).collect()
}

/// Of a couple one claims what there is for a dependant, by the dependant's place: options by place among those who may.
pub static CLAIMED_BY: Open<Facts> = Open::new(
    |facts| claimed_for(facts).filter(|&p| claimants(facts, p).len() > 1).collect(),
    |facts, dependant| {
        let whose = facts.first_name(dependant);
        let options = facts.options(&claimants(facts, dependant), |name| format!("{whose} with {name}"));
        let id = format!("ca.caregiver.{}", facts.people[dependant].id);
        let label = format!("Who claims the amounts for {}", facts.first_name(dependant));
        Decision::between(
            id,
            label,
            "ITA 118(1)B(b.1), (d), 118.3(2); lines 30450, 30500, 31800, 58400",
            options,
        )
    },
);

/// Who claims for each dependant in a way.
pub fn claims(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Caring> {
    let claimant = |p: usize| claimants(facts, p).get(way.taken(&CLAIMED_BY, p).unwrap_or(0)).copied();
    claimed_for(facts).filter_map(|p| Some(Caring { relative: p, claimant: claimant(p)? })).collect()
}

/// Which of a couple of whom one is infirm claims the amount for the other: options by place among the filers. Without an
/// infirmity it is the one with the higher net income, whose claim alone can lower a tax.
pub static SPOUSE: Open<Facts> = Open::new(
    |facts| {
        if facts.couple && facts.filers.iter().any(|&f| facts.people[f].infirm) {
            vec![0]
        } else {
            Vec::new()
        }
    },
    |facts, _| {
        let options = facts.filer_options(|name| format!("partner amount with {name}"));
        Decision::between(
            "ca.spouse",
            "Who claims the amount for the partner",
            "ITA 118(1)B(a), 118(4)(a); lines 30300, 30425",
            options,
        )
    },
);

/// Who claims the amount for a partner in a way, where that is open: on this return, where the other's is not here.
pub fn spouse_with(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<usize> {
    let infirm = facts.pair().is_some_and(|pair| pair.iter().any(|&p| facts.people[p].infirm));
    let only = facts.elsewhere.filter(|_| infirm).and_then(|partner| facts.partner(partner));
    way.taken(&SPOUSE, 0).map(|place| facts.filers[place]).or(only)
}

/// Amounts for a dependant whose claimant has too little tax, where the other could claim a part.
pub fn points(points: &mut Points<'_>) {
    let lost = |&f: &usize| {
        let place = points.facts.returns.iter().position(|&r| r == f);
        place.is_some_and(|place| points.credits_lost(place))
    };
    let facts = points.facts;
    if !facts.couple || !facts.filers.iter().any(lost) {
        return;
    }
    for person in claimed_for(facts).filter(|&p| claimants(facts, p).len() > 1) {
        let message = format!("The amounts for {} could be shared.", facts.people[person].name);
        points.raise(&SHARED, points.at(person, "name"), message);
    }
}
