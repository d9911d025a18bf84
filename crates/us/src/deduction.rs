//! Standard or itemized deductions (§63(b), (e)): a choice of each return, which spouses who file apart make alike.

use crate::{facts::Facts, filing_status::Status, standard_deduction, status};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    lines,
    provision::Provision,
    words::first_name,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub L17 = "us.sched_a.17", "Itemized deductions", "IRC §63(d)",
        "Medical, taxes, interest and gifts.";
}

/// The option of the standard deduction.
const STANDARD: usize = 0;

/// The law of the choice: both of two separate returns itemize or neither does (§63(c)(6)(A)).
const CITE: &str = "IRC §63(b), (c)(6)(A), (e)";

/// Standard or itemized: one for the joint or only return, and for two separate returns that must agree.
pub static DEDUCTION: Open<Facts> = Open::new(
    |facts: &Facts| if facts.unmarried_pair() { Vec::new() } else { vec![0] },
    |_, _| Decision::between("us.deduction", "Deduction", CITE, options("")),
)
.arises(|facts, _, way| !facts.alone.contains(&Status::Head) || !status::separate(facts, way))
.bars(|facts, _, option, _| {
    let bound = facts.spouse_itemizes && facts.alone[0] == Status::Separate;
    (option == STANDARD && bound).then_some(Bar::Borrowed("the spouse itemizes"))
});

/// The same on the separate return of a filer, by the filer's place among them, where one of them is head of household:
/// that one chooses freely, so stands before the spouse whom that binds; and of two who are not married, who both do.
pub static DEDUCTION_APART: Open<Facts> =
    Open::new(apart, |facts, place| of_person(facts, facts.filers[place]))
        .arises(|facts, _, way| status::separate(facts, way))
        .bars(|facts, place, option, way| {
            if option != STANDARD || facts.unmarried_pair() || facts.alone[place] == Status::Head {
                return None;
            }
            let other = way.taken(&DEDUCTION_APART, 1 - place);
            other.is_some_and(|o| o != STANDARD).then_some(Bar::Borrowed("the spouse itemizes"))
        });

/// The same on a dependent's own return, by the dependent's place.
pub static DEDUCTION_OWN: Open<Facts> = Open::new(
    |facts| facts.own_returns.iter().copied().filter(|&p| facts.people[p].can_itemize).collect(),
    // What its break-even would be is not told: the lines of an option are those of the main return.
    |facts, person| {
        let decision = of_person(facts, person);
        let options = decision.options.into_iter().map(|option| Opt { line: None, ..option }).collect();
        Decision { options, ..decision }
    },
);

fn apart(facts: &Facts) -> Vec<usize> {
    if facts.unmarried_pair() {
        return vec![0, 1];
    }
    if !facts.couple() || !facts.alone.contains(&Status::Head) {
        return Vec::new();
    }
    let mut order = vec![0, 1];
    order.sort_by_key(|&place: &usize| facts.alone[place] != Status::Head);
    order
}

fn of_person(facts: &Facts, person: usize) -> Decision {
    let (id, name) = (&facts.people[person].id, &facts.people[person].name);
    Decision::between(
        format!("us.deduction.{id}"),
        format!("Deduction of {name}"),
        CITE,
        options(first_name(name)),
    )
}

fn options(whose: &str) -> Vec<Opt> {
    let of = |word: &str| format!("{whose} {word}").trim_start().to_owned();
    vec![
        Opt::new("standard", "Standard deduction", of("standard")).taking_off(standard_deduction::STANDARD),
        Opt::new("itemized", "Itemized deductions", of("itemized")).taking_off(L17),
    ]
}

/// Whether the joint or only return itemizes.
pub fn itemizes_together(way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&DEDUCTION, 0) != Some(STANDARD)
}

/// Whether the separate return of a filer itemizes.
pub fn itemizes_apart(way: Chosen<'_, '_, Facts>, place: usize) -> bool {
    way.taken(&DEDUCTION_APART, place).or_else(|| way.taken(&DEDUCTION, 0)) != Some(STANDARD)
}

/// Whether a dependent's own return itemizes.
pub fn itemizes_own(way: Chosen<'_, '_, Facts>, person: usize) -> bool {
    way.taken(&DEDUCTION_OWN, person).is_some_and(|option| option != STANDARD)
}
