//! Property held long at its market value or at its basis (§170(b)(1)(C)(iii)): a choice of each return for all such gifts of the year
//! and what of them is carried over (Reg. §1.170A-8(d)(2)).

use super::{Class, brings};
use crate::{deduction, facts::Facts, status};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    words::first_name,
};

/// The law of the choice.
const CITE: &str = "IRC §170(b)(1)(C)(iii); Reg. §1.170A-8(d)(2)";

fn any_property(facts: &Facts, filers: &[usize]) -> bool {
    filers.iter().any(|&filer| {
        let own = &facts.people[filer].own;
        own.has(&brings::PROPERTY) && own.has(&brings::PROPERTY_BASIS)
    })
}

fn options(whose: &str) -> Vec<Opt> {
    let at_basis = format!("{whose} property given at its basis").trim_start().to_owned();
    vec![
        Opt::new("value", "At market value, to 30 %", ""),
        Opt::new("basis", "All at its basis, to 50 %", at_basis),
    ]
}

/// Why property cannot be taken at its basis.
fn bar(facts: &Facts, filers: &[usize], option: usize, itemizes: bool) -> Option<Bar> {
    let owns = || filers.iter().map(|&filer| &facts.people[filer].own);
    let unknown = owns().any(|own| {
        let carried = own.of(&brings::CARRIED).iter();
        let known = own.of(&brings::PROPERTY).len() == own.of(&brings::PROPERTY_BASIS).len();
        !known || carried.filter(|c| c.class == Class::Property).any(|c| c.at_basis.is_zero())
    });
    match option {
        0 => None,
        _ if unknown => Some(Bar::Borrowed("a basis is not entered")),
        _ if !itemizes => Some(Bar::Borrowed("standard deduction taken")),
        _ => None,
    }
}

/// Whether property held long is taken at its basis, on the joint or only return.
pub static AT_BASIS: Open<Facts> = Open::new(
    |facts: &Facts| if any_property(facts, &facts.filers) { vec![0] } else { Vec::new() },
    |_, _| Decision::between("us.gifts_at_basis", "Property given to charity", CITE, options("")),
)
.arises(|facts, _, way| !status::separate(facts, way))
.bars(|facts, _, option, way| bar(facts, &facts.filers, option, deduction::itemizes_together(way)));

/// The same on the separate return of a filer, by the filer's place among them.
pub static AT_BASIS_APART: Open<Facts> = Open::new(
    |facts: &Facts| {
        let here = |&p: &usize| any_property(facts, &facts.filers[p..=p]);
        if facts.filers.len() == 2 { (0..2).filter(here).collect() } else { Vec::new() }
    },
    |facts, place| {
        let person = &facts.people[facts.filers[place]];
        let label = format!("Property that {} gave to charity", person.name);
        Decision::between(
            format!("us.gifts_at_basis.{}", person.id),
            label,
            CITE,
            options(first_name(&person.name)),
        )
    },
)
.arises(|facts, _, way| status::separate(facts, way))
.bars(|facts, place, option, way| {
    bar(facts, &facts.filers[place..=place], option, deduction::itemizes_apart(way, place))
});

/// What a way does on the joint or only return.
pub fn at_basis_together(way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&AT_BASIS, 0) == Some(1)
}

/// What a way does on the separate return of a filer.
pub fn at_basis_apart(way: Chosen<'_, '_, Facts>, place: usize) -> bool {
    way.taken(&AT_BASIS_APART, place) == Some(1)
}
