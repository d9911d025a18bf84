//! The authority's assessments: of a return that was filed, computed again with what is held in place of what was filed, and by itself,
//! of what is held alone.

use crate::{
    data::Data,
    wire::{Assessment, Line, OwnAssessment, Package, Taxpayer},
};
use hembo_core::{
    Household, Outcome, Pack, Registry,
    check::digits,
    held::{self, Held},
    household::Paper,
    outcome::{self, NAMED_WAYS, ReturnSchedules, Wanted},
    paper::PaperKind,
    search::Stop,
};
use std::collections::BTreeSet;
use time::Date;

/// An assessment; nothing where what is held makes no return that can be computed.
pub fn assess(package: &Package, data: &Data, registry: &Registry, on: Date) -> Option<Assessment> {
    let pack = registry.pack(&package.household.country)?;
    let (mut household, otherwise) = with_what_is_held(&package.household, &package.filers, data, pack, on);
    household.pins = package.way.clone();
    let reckoned = reckoned(&household, registry)?;
    let forms = reckoned.schedules.iter().find(|of| of.scope == package.scope)?;
    Some(assessment(&reckoned, (forms, &package.authority), pack, otherwise, on))
}

/// What the authority assesses by itself of everyone who agreed: what is held of them alone. Nothing where the law has no such
/// assessment.
pub fn own(
    asked: &Household,
    agreed: &[Taxpayer],
    data: &Data,
    registry: &Registry,
    on: Date,
) -> Vec<OwnAssessment> {
    let Some(pack) = registry.pack(&asked.country).filter(|pack| pack.assesses_itself()) else {
        return Vec::new();
    };
    let people = Household { papers: Vec::new(), pins: Default::default(), ..asked.clone() };
    let (household, _) = with_what_is_held(&people, agreed, data, pack, on);
    let Some(reckoned) = reckoned(&household, registry) else { return Vec::new() };
    let of_return = |of: &ReturnSchedules| {
        let whose = |paper: &&Paper| paper.owners.iter().any(|owner| of.people.contains(&owner.person));
        let name = |paper: &Paper| format!("{} {}", paper.kind, paper.title).trim_end().to_owned();
        let made_of = household.papers.iter().filter(whose).map(name).collect();
        let assessment = assessment(&reckoned, (of, ""), pack, made_of, on);
        OwnAssessment { scope: of.scope.clone(), assessment }
    };
    reckoned.schedules.iter().map(of_return).collect()
}

fn reckoned(household: &Household, registry: &Registry) -> Option<Outcome> {
    outcome::reckon_until(household, registry, Wanted::all(NAMED_WAYS), &Stop::default()).ok()
}

/// The lines of the forms that are filed with a return to an authority, with its total and balance.
fn assessment(
    reckoned: &Outcome,
    (of, authority): (&ReturnSchedules, &str),
    pack: &dyn Pack,
    otherwise: Vec<String>,
    on: Date,
) -> Assessment {
    let mut seen = BTreeSet::new();
    let lines: Vec<Line> = of
        .going_to(authority)
        .flat_map(|form| &form.rows)
        .filter(|row| row.amount.is_some() && seen.insert((row.line.clone(), row.scope.clone())))
        .map(|row| Line {
            line: row.line.clone(),
            scope: row.scope.clone(),
            number: row.number.clone(),
            title: row.title.clone(),
            amount: row.amount.unwrap_or_default(),
        })
        .collect();
    let (total, balance) = reckoned.of_return(&of.scope, authority, pack);
    Assessment { on: on.to_string(), total, balance, lines, otherwise }
}

/// The household with the boxes that are held, and with papers that it did not file; what was taken otherwise in words.
fn with_what_is_held(
    told: &Household,
    filers: &[Taxpayer],
    data: &Data,
    pack: &dyn Pack,
    on: Date,
) -> (Household, Vec<String>) {
    let mut household = told.clone();
    let mut otherwise = Vec::new();
    let whose: Vec<(String, String)> = told
        .people
        .iter()
        .filter(|person| {
            let number = person.id_number.as_deref().map(digits);
            filers.iter().any(|filer| Some(&*filer.number) == number.as_deref())
        })
        .filter_map(|person| Some((person.id.clone(), digits(person.id_number.as_deref()?))))
        .collect();
    let mut taken = BTreeSet::new();
    for (person, number) in whose {
        let Some(known) = data.find(&told.country, &number) else { continue };
        let of_year = known.slips.iter().filter(|slip| slip.year == told.year);
        for slip in of_year.filter_map(|slip| slip.at(u32::MAX, &number)) {
            let Some(kind) = pack.paper_kinds().iter().find(|kind| kind.id == slip.kind) else { continue };
            let name = format!("{} {}", kind.id, slip.title);
            let held =
                Held { slip: slip.id, by: slip.title, on, boxes: slip.boxes, rows: slip.rows, kept: None };
            let at = held::find(&held, kind, &person, &household, &taken).map(|paper| paper.id.clone());
            let Some(at) = at.and_then(|id| household.papers.iter().position(|paper| paper.id == id)) else {
                otherwise.push(format!("{name} was not filed."));
                let id = format!("held-{}", household.papers.len());
                household.papers.push(held::paper_of(kind, &id, &person, &held));
                continue;
            };
            let paper = household.papers[at].clone();
            taken.insert(paper.id.clone());
            for of in held::beside(kind, &held.boxes, Some(&kind.told(&paper))) {
                if of.held.is_none() || of.apart.is_none_or(|apart| apart.is_zero()) {
                    continue;
                }
                let taking = held::taking(kind, &household.papers[at], &of.field, of.held);
                if taking.apply(&mut household).is_ok() {
                    let number = number_of(kind, &of.field);
                    otherwise.push(format!("{name}, box {number}: the payer sent in something else."));
                }
            }
            for line in held::lines(kind, &held.rows, Some(&paper)) {
                let taking = held::taking_line(kind, &paper, &line);
                if !taking.is_empty() && taking.into_iter().all(|one| one.apply(&mut household).is_ok()) {
                    otherwise.push(format!("{name}: the payer sent in another line."));
                }
            }
        }
    }
    (household, otherwise)
}

/// What is printed beside a box; of a code itself.
fn number_of(kind: &PaperKind, field: &str) -> String {
    kind.field(field).map_or(field, |of| of.number).to_owned()
}
