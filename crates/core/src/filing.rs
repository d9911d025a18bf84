//! What filing needs, and what of it is there: numbers, dates, signatures, an account, papers that were checked.

use crate::{
    household::{Entry, Household},
    outcome::Outcome,
    own_assessment::{ASKED, accepted},
    pack::Pack,
    payer,
    point::{Place, Point, Weight},
};
use serde::Serialize;
use utoipa::ToSchema;

/// What a law's filing needs beside what every law's does.
#[derive(Debug, Clone, Copy, Default)]
pub struct FilingNeeds {
    /// What must be settled: in words, and the codes of the points that tell when it is not.
    pub settled: &'static [(&'static str, &'static [&'static str])],
    /// The question about the household that has the account for a refund.
    pub refund_account: Option<&'static str>,
}

/// Something that filing needs.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = FilingNeed)]
pub struct Need {
    /// What.
    pub what: String,
    /// It is there.
    pub ready: bool,
    /// Without it nothing is filed.
    pub blocks: bool,
    /// What there is of it, or what is missing.
    pub words: String,
    /// Where it is settled, if it is at one place.
    pub place: Option<Place>,
    /// The one authority whose return alone waits for it; empty where every return does.
    pub authority: String,
}

impl Need {
    fn there(what: &str, words: impl Into<String>) -> Need {
        Need {
            what: what.into(),
            ready: true,
            blocks: true,
            words: words.into(),
            place: None,
            authority: String::new(),
        }
    }

    fn missing(what: &str, words: impl Into<String>, place: Place) -> Need {
        let (what, words, authority) = (what.into(), words.into(), String::new());
        Need { what, ready: false, blocks: true, words, place: Some(place), authority }
    }

    /// Worth a look only.
    fn look(self) -> Need {
        Need { blocks: false, ..self }
    }
}

/// What filing a household's returns needs.
pub fn needs(household: &Household, outcome: &Outcome, pack: &dyn Pack) -> Vec<Need> {
    let mut needs = vec![open_points(outcome, "Open points", "")];
    needs.extend(of_others(outcome));
    needs.extend([numbers(household, pack), births(household)]);
    needs.extend(own_assessment(household, pack));
    needs.extend(payers(household, pack));
    let of_law = pack.filing_needs();
    needs.extend(of_law.settled.iter().map(|(what, codes)| settled(what, codes, outcome)));
    let back = outcome.balance.is_negative();
    needs.extend(of_law.refund_account.filter(|_| back).map(|field| account(household, field)));
    needs.push(checked(household));
    needs
}

/// Who accepted what the authority assessed by itself files nothing.
fn own_assessment(household: &Household, pack: &dyn Pack) -> Option<Need> {
    let what = "The authority's own assessment";
    let accepted = household.people.iter().find(|person| accepted(person));
    match accepted.filter(|_| pack.assesses_itself()) {
        Some(person) => {
            let words = format!("accepted by {}: nothing is filed", person.name);
            Some(Need::missing(what, words, Place::person(&person.id, ASKED)))
        }
        None => pack.assesses_itself().then(|| Need::there(what, "a return replaces it")),
    }
}

/// What holds up the returns to other authorities than the law's first one: each stands on the first one's figures, and nothing of theirs holds
/// that one up.
fn of_others(outcome: &Outcome) -> impl Iterator<Item = Need> {
    let others = outcome.authorities.iter().skip(1).map(|authority| authority.name.as_str());
    let first = outcome.authorities.first().map(|authority| authority.name.as_str()).unwrap_or_default();
    others.map(move |name| {
        let own = open_points(outcome, &format!("Open points of {name}"), name);
        let before = outcome.points.iter().filter(|p| p.holds() && p.authority.is_empty()).count();
        let told = own.words.trim_end_matches('.');
        let words = match before {
            0 if own.ready => own.words,
            0 => format!("{told}: it holds up this return alone"),
            1 => format!("{told}; before it the {first} return, held up by 1 point"),
            before => format!("{told}; before it the {first} return, held up by {before} points"),
        };
        Need { words, authority: name.into(), ready: own.ready && before == 0, ..own }
    })
}

/// What blocks the return to an authority by itself; the law's first one has no name.
fn open_points(outcome: &Outcome, what: &str, authority: &str) -> Need {
    let of_return = || outcome.points.iter().filter(|point| point.authority == authority);
    let covered = !of_return().any(|point| point.not_covered);
    let blocking: Vec<&Point> = of_return().filter(|point| point.holds()).collect();
    match blocking.as_slice() {
        [] if covered => Need::there(what, "none blocks"),
        [] => Need::missing(what, "the figures are not a result", Place::default()),
        [one] => Need::missing(what, one.message.clone(), one.place.clone()),
        [first, ..] => Need::missing(what, format!("{} block", blocking.len()), first.place.clone()),
    }
}

fn numbers(household: &Household, pack: &dyn Pack) -> Need {
    let what = pack.about().id_number;
    match household.people.iter().find(|person| person.id_number.is_none()) {
        Some(person) => {
            Need::missing(what, format!("missing of {}", person.name), Place::person(&person.id, "id_number"))
        }
        None => Need::there(what, format!("there of all {}", household.people.len())),
    }
}

fn births(household: &Household) -> Need {
    let what = "Dates of birth";
    match household.people.iter().find(|person| person.born.is_none()) {
        Some(person) => {
            Need::missing(what, format!("missing of {}", person.name), Place::person(&person.id, "born"))
        }
        None => Need::there(what, format!("there of all {}", household.people.len())),
    }
}

/// Papers that claim tax withheld name their payer by number, where the paper has a box for it.
fn payers(household: &Household, pack: &dyn Pack) -> Option<Need> {
    let claims = household.papers.iter().filter_map(|paper| {
        let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind)?;
        let number = payer::number_box(kind)?;
        let claimed = pack.withheld_box(kind.id).map(|field| paper.amount(field))?;
        (!claimed.is_zero()).then_some((paper, number))
    });
    let what = "Payers' numbers";
    let claims: Vec<_> = claims.collect();
    let missing =
        claims.iter().find(|(paper, number)| paper.text(number).is_none_or(|text| text.trim().is_empty()));
    match missing {
        Some((paper, number)) => {
            let words = format!("missing on {} {}", paper.kind, paper.title);
            Some(Need::missing(what, words.trim_end(), Place::paper(&paper.id, number)))
        }
        None if claims.is_empty() => None,
        None => {
            let papers = if claims.len() == 1 { "the paper that claims" } else { "all papers that claim" };
            Some(Need::there(what, format!("on {papers} tax withheld")))
        }
    }
}

fn settled(what: &str, codes: &[&str], outcome: &Outcome) -> Need {
    let of_code = |p: &&Point| p.dismissed.is_none() && codes.contains(&p.code());
    match outcome.points.iter().find(of_code) {
        Some(point) => {
            let need = Need::missing(what, point.message.clone(), point.place.clone());
            Need { blocks: point.weight == Weight::Blocks, ..need }
        }
        None => Need::there(what, "settled"),
    }
}

fn account(household: &Household, field: &'static str) -> Need {
    let what = "Account for the refund";
    match household.answers.get(field).and_then(Entry::text) {
        Some(_) => Need::there(what, "entered"),
        None => Need::missing(what, "none: the refund comes by cheque", Place::household(field)).look(),
    }
}

fn checked(household: &Household) -> Need {
    let what = "Papers checked against their originals";
    let open = household.papers.iter().find(|paper| !paper.is_checked());
    let checked = household.papers.iter().filter(|paper| paper.is_checked()).count();
    let words = format!("{checked} of {}", household.papers.len());
    match open {
        Some(paper) => Need::missing(what, words, Place::paper(&paper.id, "")).look(),
        None => Need::there(what, words),
    }
}
