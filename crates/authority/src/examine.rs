//! What an authority looks at when a return comes in: reasons to refuse it, each with its place.

use crate::{
    data::Data,
    wire::{Package, Refusal},
};
use hembo_core::{Pack, check::digits, household::Paper, payer};
use hembo_money::Money;

/// Why a return is refused; nothing where it is taken.
pub fn refusals(package: &Package, data: &Data, pack: &dyn Pack) -> Vec<Refusal> {
    let mut found = people(package, data);
    found.extend(package.household.papers.iter().filter_map(|paper| of_paper(paper, package, data, pack)));
    found
}

/// Whoever stands on it has a number, and the name that is held under it.
fn people(package: &Package, data: &Data) -> Vec<Refusal> {
    let law = package.household.country.as_str();
    let wrong = package.household.people.iter().filter_map(|person| {
        let at = |field: &str, words: String| {
            Some(Refusal {
                words,
                person: Some(person.id.clone()),
                field: Some(field.into()),
                ..Refusal::default()
            })
        };
        let Some(number) = person.id_number.as_deref() else {
            return at("id_number", format!("{} has no identification number.", person.name));
        };
        let held = &data.find(law, &digits(number))?.name;
        let last = |name: &str| name.split_whitespace().last().map(str::to_lowercase);
        (last(held) != last(&person.name)).then(|| {
            at("name", format!("The name {} is not the one that is held under this number.", person.name))
        })?
    });
    wrong.collect()
}

/// A paper claims no more tax withheld than its payer sent in.
fn of_paper(paper: &Paper, package: &Package, data: &Data, pack: &dyn Pack) -> Option<Refusal> {
    let household = &package.household;
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind)?;
    let field = pack.withheld_box(kind.id)?;
    let claimed = paper.amount(field);
    if claimed.is_zero() {
        return None;
    }
    let at = |field: &str, words: String| {
        Some(Refusal {
            words,
            paper: Some(paper.id.clone()),
            field: Some(field.into()),
            ..Refusal::default()
        })
    };
    let number = payer::number_box(kind);
    if let Some(number) = number.filter(|number| paper.text(number).is_none_or(str::is_empty)) {
        return at(
            number,
            format!("{} {} claims tax that was withheld, without the payer's number.", kind.id, paper.title),
        );
    }
    let owners =
        paper.owners.iter().filter_map(|owner| household.person(&owner.person)?.id_number.as_deref());
    let known: Vec<_> = owners.filter_map(|number| data.find(&household.country, &digits(number))).collect();
    let payer = |boxes: &hembo_core::household::Answers| {
        number.and_then(|id| boxes.get(id)).and_then(|entry| entry.text()).map(digits)
    };
    let same = known.iter().flat_map(|known| &known.slips).filter(|slip| {
        slip.year == household.year
            && slip.kind == paper.kind
            && payer(&slip.boxes) == payer(&paper.boxes)
            && (number.is_some() || slip.title == paper.title)
    });
    let sent: Vec<Money> = same
        .filter_map(|slip| slip.at(u32::MAX, ""))
        .map(|slip| slip.boxes.get(field).and_then(|entry| entry.money()).unwrap_or_default())
        .collect();
    let most = sent.into_iter().max()?;
    (claimed > most).then(|| {
        at(
            field,
            format!("{} {} claims {claimed:#} withheld; the payer sent in {most:#}.", kind.id, paper.title),
        )
    })?
}
