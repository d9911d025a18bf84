//! What is other than last year, of a household that was carried forward: a paper that did not come, an amount that is far from last
//! year's, a person who files otherwise.

use super::{Column, assemble::headline};
use crate::{
    household::{Entry, Household, Paper},
    pack::Pack,
    point::{Place, Point, PointDef},
};
use hembo_money::Money;

const MISSING: PointDef = PointDef::look(
    "last-year-missing",
    "",
    "Key it when it comes; remove the paper if it does not come for this year.",
);
const MUCH: PointDef =
    PointDef::look("last-year-much", "", "Look at the paper again, or put this aside with the reason.");
const FILED: PointDef = PointDef::look(
    "last-year-filed",
    "",
    "Look for what changed: a marriage, a separation, who keeps the home, who depends on whom.",
);

const LEFT: PointDef = PointDef::look(
    "last-year-left",
    "",
    "Enter it in the papers that it belongs to, and put this aside then.",
);

const OF_TWO: PointDef = PointDef::look(
    "last-year-of-two",
    "",
    "Give each of them the part that is theirs by the law, on papers of their own: it counts where they do not file together.",
);

const NO_RESULT: PointDef = PointDef::look(
    "last-year-no-result",
    "",
    "Settle that year first, or compare what is carried over with the return that was filed.",
);

/// From which difference an amount is worth a look; no rule of law, a mark against noise.
const WORTH_A_LOOK: i64 = 1_000;

/// The points of a household as it is keyed.
pub(super) fn points(household: &Household, pack: &dyn Pack, columns: &[Column]) -> Vec<Point> {
    let Some(before) = &household.before else { return Vec::new() };
    let year = before.year;
    let papers = household.papers.iter().filter_map(|paper| of_paper(paper, pack, year));
    let otherwise = columns.iter().filter_map(|column| {
        let filed = before.filed.get(&column.person)?;
        let now = column.files.as_deref().unwrap_or("no return");
        let message = format!("{} files otherwise than for {year}: {now}, not {filed}.", column.name);
        (now != filed).then(|| FILED.at(Place::person(&column.person, ""), message))
    });
    let left = before.left.iter().enumerate().map(|(number, (line, amount))| {
        let message = format!("{line}: {amount:#} of {year}.");
        Point { id: format!("{}:{number}", LEFT.code), ..LEFT.at(Place::default(), message) }
    });
    let message = format!("The figures of {year} were no result when they were carried forward.");
    let no_result = before.no_result.then(|| NO_RESULT.at(Place::default(), message));
    let of_two = household.papers.iter().filter(|paper| before.of_two.contains(&paper.id)).map(|paper| {
        let owners: Vec<&str> = paper
            .owners
            .iter()
            .filter_map(|of| household.person(&of.person))
            .map(|of| of.name.as_str())
            .collect();
        let parts = if owners.len() > 1 { "in equal parts" } else { "whole" };
        let message = format!(
            "{} of {year}: what a return of two left came to {}, {parts}.",
            paper.kind,
            owners.join(" and ")
        );
        OF_TWO.at(Place::paper(&paper.id, ""), message)
    });
    papers.chain(otherwise).chain(left).chain(of_two).chain(no_result).collect()
}

fn of_paper(paper: &Paper, pack: &dyn Pack, year: i32) -> Option<Point> {
    let then = amount_before(paper, pack);
    let name = [paper.kind.as_str(), paper.title.as_str()].join(" ");
    let name = name.trim_end();
    let now = headline(pack, paper);
    if paper.before.is_empty() || paper.checked {
        return None;
    }
    let is_empty = paper.rows.is_empty() && now.is_zero();
    if is_empty {
        let had = if then.is_zero() { String::new() } else { format!(": {then:#} for {year}") };
        let message = format!("{name} is still empty{had}.");
        return Some(MISSING.at(Place::paper(&paper.id, ""), message));
    }
    let apart = (now - then).max(then - now);
    let far = apart >= Money::whole(WORTH_A_LOOK) && apart + apart > then;
    let message = format!("{name} is far from last year: {now:#}, for {year} {then:#}.");
    (far && !then.is_zero()).then(|| MUCH.at(Place::paper(&paper.id, ""), message))
}

/// The amount that stood for a paper in lists last year.
fn amount_before(paper: &Paper, pack: &dyn Pack) -> Money {
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind && !kind.headline.is_empty());
    let then = Paper { boxes: paper.before.clone(), rows: Vec::new(), ..paper.clone() };
    let of_boxes = headline(pack, &then);
    let columns = kind
        .into_iter()
        .flat_map(|kind| std::iter::once(kind.headline).chain(kind.columns.iter().map(|c| c.id)));
    let of_list = columns.filter_map(|column| paper.before.get(column)).find_map(Entry::money);
    if of_boxes.is_zero() { of_list.unwrap_or_default() } else { of_boxes }
}
