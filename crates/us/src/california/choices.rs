//! What California leaves open beside the federal choices: its own deduction, and who takes one renter's credit of spouses who file apart.

use super::{itemized, of_person, parents_election};
use crate::{
    facts::Facts,
    filing_status::Status,
    parents_election as federal,
    state_facts::{Renter, StateWay},
    status,
    unit::On,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    words::first_name,
};

const CITE: &str = "R&TC 17073.5; Form 540, line 18";

/// The option of the standard deduction.
const STANDARD: usize = 0;

/// Why a separate return of a spouse may not take it (R&TC 17073.5; IRC §63(c)(6)(A)).
const BOUND: Bar = Bar::Borrowed("the spouse itemizes in California");

/// Whether each of two returns deducts by itself: of two who are not married, and where one of spouses is head of household.
fn each_alone(facts: &Facts) -> bool {
    facts.unmarried_pair() || (facts.couple() && facts.alone.contains(&Status::Head))
}

fn options(whose: &str) -> Vec<Opt> {
    let of = |word: &str| format!("{whose} {word} in California").trim_start().to_owned();
    vec![
        Opt::new("standard", "Standard deduction of California", ""),
        Opt::new("itemized", "Itemized in California", of("itemized")).taking_off(itemized::L29),
    ]
}

/// The deduction of the joint or only return, and of two separate ones that must agree.
pub static DEDUCTION: Open<Facts> = Open::new(
    |facts: &Facts| if facts.of_state.is_some() && !facts.unmarried_pair() { vec![0] } else { Vec::new() },
    |_, _| Decision::between("us.ca.deduction", "Deduction in California", CITE, options("")),
)
.arises(|facts, _, way| !each_alone(facts) || !status::separate(facts, way))
.bars(|facts, _, option, _| {
    let elsewhere = facts.of_state.as_ref().and_then(|of| of.spouse_itemizes) == Some(true);
    (option == STANDARD && elsewhere && facts.alone[0] == Status::Separate).then_some(BOUND)
});

/// The deduction of the separate return of a filer who decides alone, by the filer's place among them.
pub static DEDUCTION_APART: Open<Facts> = Open::new(
    |facts: &Facts| {
        if facts.of_state.is_none() || !each_alone(facts) {
            return Vec::new();
        }
        // A head of household chooses freely, and stands before the spouse whom that binds.
        let mut order = vec![0, 1];
        order.sort_by_key(|&place: &usize| facts.alone[place] != Status::Head);
        order
    },
    |facts, place| {
        let about = &facts.people[facts.filers[place]];
        let label = format!("Deduction of {} in California", about.name);
        Decision::between(
            format!("us.ca.deduction.{}", about.id),
            label,
            CITE,
            options(first_name(&about.name)),
        )
    },
)
.arises(|facts, _, way| status::separate(facts, way))
.bars(|facts, place, option, way| {
    if option != STANDARD || facts.unmarried_pair() || facts.alone[place] == Status::Head {
        return None;
    }
    let other = way.taken(&DEDUCTION_APART, 1 - place);
    other.is_some_and(|other| other != STANDARD).then_some(BOUND)
});

/// The deduction of a dependent's own return, by the dependent's place.
pub static DEDUCTION_OWN: Open<Facts> = Open::new(
    |facts: &Facts| {
        let open = |&&p: &&usize| facts.of_state.is_some() && facts.people[p].can_itemize;
        facts.own_returns.iter().filter(open).copied().collect()
    },
    |facts, person| {
        let about = &facts.people[person];
        let label = format!("Deduction of {} in California", about.name);
        let id = format!("us.ca.deduction.own.{}", about.id);
        // What its break-even would be is not told: the lines of an option are those of the main return.
        let options = options(first_name(&about.name)).into_iter().map(|option| Opt { line: None, ..option });
        Decision::between(id, label, CITE, options.collect())
    },
);

/// What a way takes on a dependent's own return.
pub fn own(way: Chosen<'_, '_, Facts>, person: usize) -> StateWay {
    let itemizes = way.taken(&DEDUCTION_OWN, person).is_some_and(|option| option != STANDARD);
    let elected = |election| federal::is_elected(way, election, person);
    let (with_parents, alone) = (elected(&parents_election::ELECTION), elected(&federal::ELECTION));
    StateWay { itemizes, renter: Renter::Nothing, with_parents, alone }
}

/// Who takes the renter's credit of a home that both spouses rented.
pub static RENTER: Open<Facts> = Open::new(
    |facts: &Facts| {
        let Some(of) = &facts.of_state else { return Vec::new() };
        let rents = |&filer: &usize| of.people[filer].rented == Some(true) && !of.people[filer].renter_barred;
        let shared =
            facts.couple() && facts.apart != Some(true) && !of.homeowner && facts.filers.iter().all(rents);
        if shared { vec![0] } else { Vec::new() }
    },
    |facts, _| {
        let to = |&filer: &usize| {
            let name = first_name(&facts.people[filer].name);
            Opt::new(
                facts.people[filer].id.clone(),
                format!("All to {name}"),
                format!("renter's credit to {name}"),
            )
        };
        let mut options = vec![Opt::new("each", "A half to each", "")];
        options.extend(facts.filers.iter().map(to));
        Decision::between("us.ca.renter", "Renter's credit of both", "R&TC 17053.5", options)
    },
)
.arises(|facts, _, way| status::separate(facts, way));

/// What a way takes on the joint or only return.
pub fn together(way: Chosen<'_, '_, Facts>) -> StateWay {
    let itemizes = way.taken(&DEDUCTION, 0).is_some_and(|option| option != STANDARD);
    StateWay { itemizes, renter: Renter::Own, ..StateWay::default() }
}

/// What a way takes on the separate return of a filer.
pub fn apart(way: Chosen<'_, '_, Facts>, place: usize) -> StateWay {
    let taken = way.taken(&DEDUCTION_APART, place).or_else(|| way.taken(&DEDUCTION, 0));
    let itemizes = taken.is_some_and(|option| option != STANDARD);
    let renter = match way.taken(&RENTER, 0) {
        None | Some(0) => Renter::Own,
        Some(taken) if taken - 1 == place => Renter::All,
        Some(_) => Renter::Nothing,
    };
    StateWay { itemizes, renter, ..StateWay::default() }
}

/// Whether a filer rents, for the points.
pub fn rented(on: On<'_>, person: usize) -> Option<bool> {
    of_person(on, person).rented
}
