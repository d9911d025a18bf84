//! What is left blank is told as it is read: saying so out loud changes nothing.

use hembo_core::{
    Household, Outcome, Pack, field::Field, file, household::Entry, outcome::reckon, point::Place,
};
use hembo_testing::laws::EVERY_LAW as REGISTRY;
use std::path::PathBuf;

fn demos() -> Vec<Household> {
    let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let files = ["us", "ca"].map(|country| std::fs::read_dir(folder.join(country)).unwrap());
    let read = |path: PathBuf| file::read(&std::fs::read(path).unwrap(), &REGISTRY).unwrap();
    files.into_iter().flatten().map(|entry| read(entry.unwrap().path())).collect()
}

/// The same households with nothing said that need not be.
fn bare(household: &Household) -> Household {
    let mut bare = household.clone();
    bare.answers.retain(|field, _| ["marital", "state", "province"].contains(&field.as_str()));
    for person in &mut bare.people {
        person.answers.retain(|field, _| ["relationship", "residency"].contains(&field.as_str()));
    }
    // A taxpayer number is none for work.
    if household.country == "us"
        && let Some(last) = bare.people.last_mut()
    {
        last.id_number = Some("912-70-4481".into());
    }
    bare
}

fn field(pack: &dyn Pack, place: &Place, household: &Household) -> Field {
    let id = place.field.as_deref().unwrap();
    if let Some(paper) = &place.paper {
        let kind = &household.paper(paper).unwrap().kind;
        return *pack.paper_kinds().iter().find(|k| k.id == *kind).unwrap().field(id).unwrap();
    }
    let of_people = pack.person_questions().iter().map(|q| q.field);
    let all = if place.person.is_some() { of_people.collect() } else { pack.household_questions().to_vec() };
    *all.iter().find(|f| f.id == id).unwrap()
}

fn said(household: &Household, place: &Place, entry: Entry) -> Household {
    let mut said = household.clone();
    let id = place.field.clone().unwrap();
    if let Some(paper) = &place.paper {
        said.papers.iter_mut().find(|p| p.id == *paper).unwrap().boxes.insert(id, entry);
    } else if let Some(person) = &place.person {
        said.people.iter_mut().find(|p| p.id == *person).unwrap().answers.insert(id, entry);
    } else {
        said.answers.insert(id, entry);
    }
    said
}

fn figures(outcome: &Outcome) -> (bool, String, Vec<&str>) {
    let points = outcome.points.iter().map(|p| p.id.as_str()).collect();
    (outcome.covered, format!("{} {}", outcome.total, outcome.balance), points)
}

#[test]
fn a_blank_is_read_as_it_is_told() {
    let mut tried = 0;
    for household in demos().iter().flat_map(|h| [h.clone(), bare(h)]) {
        let pack = REGISTRY.pack(&household.country).unwrap();
        let blank = reckon(&household, &REGISTRY).unwrap();
        for told in &blank.blanks {
            let field = field(pack, &told.place, &household);
            let person = told.place.person.as_ref().and_then(|id| household.person(id));
            let entry = person.map_or(field.blank_entry(), |p| pack.blank(p, &field)).unwrap();
            let then = reckon(&said(&household, &told.place, entry), &REGISTRY).unwrap();
            assert_eq!(figures(&then), figures(&blank), "{}: {told:?}", household.name);
            assert_eq!(then.blanks.len(), blank.blanks.len() - 1, "{told:?}");
            tried += 1;
        }
    }
    assert!(tried > 200, "{tried}");
    let itin = demos().iter().map(bare).filter(|h| h.country == "us").any(|household| {
        let blanks = reckon(&household, &REGISTRY).unwrap().blanks;
        blanks.iter().any(|b| b.place.field.as_deref() == Some("work_ssn") && b.read_as == "No")
    });
    assert!(itin, "a taxpayer number is told to be none for work");
}

/// Whatever holds up the filing can be cleared: by a box, a paper, an answer, or by saying who did it beside.
#[test]
fn what_blocks_leads_somewhere() {
    for household in demos().iter().flat_map(|h| [h.clone(), bare(h)]) {
        for point in reckon(&household, &REGISTRY).unwrap().points {
            let Place { person, paper, field, decision, .. } = &point.place;
            let leads = [person, paper, field, decision].into_iter().any(Option::is_some);
            assert!(leads || point.beside, "{}: {point:?}", household.name);
        }
    }
}
