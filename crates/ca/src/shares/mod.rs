//! Shares and fund units in ledgers of their own (ITA 47, 53, 54): everything that was ever bought and sold of one security, at
//! its average cost; the sales of the year go to Schedule 3.

pub mod pool;
mod shown;
mod superficial;

pub use shown::drawn;

use crate::{
    bringing::Bringing,
    capital_gains::{self, brings},
    facts::Facts,
    papers::t3,
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Household, Paper,
    field::{Choice, Field, Years},
    household::{Answers, Row},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::Reading,
    settled,
};
use hembo_money::{Money, Rate};
use pool::{Entry, Step, What};

/// What this provision declares.
pub static PROVISION: Provision = Provision { papers: &[LEDGER], points: POINTS, ..Provision::NONE };

open_points! {
    MISSING = blocks "C-73", "ITA 47(1)", "Every line needs its day, and what it changes: the number, the amount.";
    SHORT = blocks "C-73-short", "ITA 47(1)", "Enter what was bought before, or correct the number.";
    NO_RATE = blocks "C-78-rate", "ITA 261(2)", "Enter dollars for one unit of the currency on that day.";
    TWICE = blocks "C-73-twice", "ITA 47(1)", "Identical property has one average cost in all accounts: put both into one paper.";
    PLANS = look "C-75-plans", "ITA 40(2)(g)(i), 54 'superficial loss'",
        "Ask for their statements; a purchase there is a line 'Bought in a plan'.";
    OF_SLIP = look "C-74-slip", "ITA 53(2)(h), 104(13), (20)",
        "Enter it on the ledger: 'Capital back' where the box takes from the cost, 'Cost added' where it is below zero.";
    GIVEN = look "C-85", "ITA 73(1), 74.2(1)",
        "The partner's gains and losses on them are those of who gave them: enter these sales on the giver's paper.";
}

const KINDS: &[Choice] = &[
    Choice::new("bought", "Bought"),
    Choice::new("reinvested", "Reinvested"),
    Choice::new("sold", "Sold"),
    Choice::new("added", "Cost added"),
    Choice::new("returned", "Capital back"),
    Choice::new("split", "Split, more by"),
    Choice::new("merged", "Merged, fewer by"),
    Choice::new("in_plan", "Bought in a plan"),
    Choice::new("to_plan", "Moved to a plan"),
    Choice::new("to_partner", "To the partner"),
    Choice::new("from_partner", "From the partner"),
];

fn what(of: &str) -> Option<What> {
    Some(match of {
        "bought" | "reinvested" => What::Bought,
        "sold" => What::Sold,
        "added" => What::CostAdded,
        "returned" => What::CapitalReturned,
        "split" => What::Split,
        "merged" => What::Merged,
        "in_plan" => What::InPlan,
        "to_plan" => What::ToPlan,
        "to_partner" => What::ToPartner,
        "from_partner" => What::FromPartner,
        _ => return None,
    })
}

const LEDGER: PaperKind = PaperKind {
    id: "Shares",
    subject: subject::INVESTMENTS,
    name: "Shares or fund units at their average cost",
    words: "ledger stock purchases sales adjusted cost base acb split units etf",
    title: "Security",
    shared: true,
    headline: "amount",
    boxes: &[Field::text("currency", "", "Currency", 3).lasts().help("Blank where all is in dollars.")],
    columns: &[
        Field::date("date", "", "Settled on"),
        Field::choice("what", "", "What", KINDS),
        Field::decimal("number", "", "Number", 6),
        Field::amount("amount", "", "Amount")
            .help("The price of all, before outlays; a value where nothing was paid."),
        Field::amount("outlays", "", "Outlays"),
        Field::decimal("rate", "", "Rate", 6).help("Dollars for one unit of the currency on that day."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Whole,
};

/// No currency is worth more dollars: a larger rate is a slip of the pen, and is told.
const MOST_RATE: Rate = Rate::from_billionths(1_000 * Rate::ONE.billionths());

/// A line of a ledger as an entry; nothing where it lacks what it needs.
fn entry(ledger: usize, row: usize, cells: &Answers) -> Option<Entry> {
    let text = |field: &str| cells.get(field).and_then(hembo_core::household::Entry::text);
    let what = what(text("what")?)?;
    let date = cells.get("date")?.date()?;
    let number: Option<Rate> = text("number").and_then(|number| number.parse().ok());
    let units = if needs_number(what) { number? } else { number.unwrap_or_default() };
    let money = |field: &str| cells.get(field).and_then(hembo_core::household::Entry::money);
    let amount = if needs_amount(what) { money("amount")? } else { money("amount").unwrap_or_default() };
    let rate = text("rate").and_then(|rate| rate.parse().ok()).unwrap_or(Rate::ONE);
    let rate = settled::lesser(rate, MOST_RATE);
    let outlays = cents(money("outlays").unwrap_or_default(), rate);
    Some(Entry { ledger, row, date, what, units, amount: cents(amount, rate), outlays })
}

fn needs_number(what: What) -> bool {
    !matches!(what, What::CostAdded | What::CapitalReturned)
}

fn needs_amount(what: What) -> bool {
    !matches!(what, What::Split | What::Merged | What::InPlan | What::ToPartner)
}

/// Who a ledger belongs to as the law looks at it: a couple is one.
fn family(household: &Household, facts: &Facts, paper: &Paper) -> Vec<usize> {
    let owners = paper.owners.iter().filter_map(|owner| household.index_of(&owner.person));
    let first =
        |person: usize| facts.partner(person).map_or(person, |partner| settled::lesser(partner, person));
    owners.map(first).collect()
}

fn security(paper: &Paper) -> String {
    paper.title.trim().to_lowercase()
}

/// The ledgers of the same security in the same family, a ledger by itself where it has no name.
fn group<'h>(household: &'h Household, facts: &Facts, paper: &'h Paper) -> Vec<&'h Paper> {
    let own = family(household, facts, paper);
    let same = |other: &&Paper| {
        other.id == paper.id
            || (other.kind == LEDGER.id
                && !security(other).is_empty()
                && security(other) == security(paper)
                && family(household, facts, other).iter().any(|owner| own.contains(owner)))
    };
    household.papers.iter().filter(same).collect()
}

/// The steps of one ledger, worked out with those of the family for the same security.
fn steps(household: &Household, facts: &Facts, paper: &Paper) -> Vec<Step> {
    let group = group(household, facts, paper);
    let own = group.iter().position(|one| one.id == paper.id);
    let of_ledger = |(ledger, of): (usize, &&Paper)| -> Vec<Entry> {
        of.rows.iter().enumerate().filter_map(|(row, cells)| entry(ledger, row, cells)).collect()
    };
    let entries = group.iter().enumerate().flat_map(of_ledger).collect();
    pool::reckon(entries).into_iter().filter(|step| Some(step.entry.ledger) == own).collect()
}

fn of_year(facts: &Facts, step: &Step) -> bool {
    (facts.year_begin..=facts.year_end).contains(&step.entry.date)
}

/// Gives the gains of the year to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let Reading { household, paper: ledger, .. } = paper.paper;
    let mut sold = false;
    for step in steps(household, paper.facts, ledger) {
        let Some(sale) = step.sale.filter(|_| of_year(paper.facts, &step)) else { continue };
        paper.put("amount", Some(step.entry.row), sale.gain(), &brings::SOLD);
        capital_gains::reported(paper, step.entry.row);
        sold = true;
    }
    if sold {
        paper.files();
    }
}

/// Lines that lack something, ledgers apart that are one, plans that may have bought.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(LEDGER.id) {
        for cells in &paper.rows {
            line(points, paper, cells);
        }
        one_pool(points, paper);
        of_slips(points, paper);
        let steps = steps(points.household, points.facts, paper);
        for step in &steps {
            let row = &paper.rows[step.entry.row];
            if step.short {
                points.raise(&SHORT, Place::row(&paper.id, row, "number"), "More leaves than there is.");
            }
            let loss = step.sale.filter(|sale| sale.before_denial() < Money::ZERO);
            if let Some(sale) = loss.filter(|_| of_year(points.facts, step) && step.entry.what == What::Sold)
            {
                let message = format!(
                    "A loss of {:#}: did a plan of the family buy the same within 30 days?",
                    -sale.before_denial()
                );
                points.raise(&PLANS, Place::row(&paper.id, row, "amount"), message);
            }
            if step.entry.what == What::FromPartner {
                points.raise(&GIVEN, Place::row(&paper.id, row, "what"), "Units that came from the partner.");
            }
        }
    }
}

fn line(points: &mut Points<'_>, paper: &Paper, cells: &Row) {
    let place = |field: &str| Place::row(&paper.id, cells, field);
    let what = cells.get("what").and_then(hembo_core::household::Entry::text).and_then(what);
    let lacks = |field: &str| !cells.contains_key(field);
    let missing = [
        ("date", lacks("date"), "A line without its day."),
        ("what", what.is_none(), "What happened?"),
        ("number", what.is_some_and(needs_number) && lacks("number"), "How many units?"),
        ("amount", what.is_some_and(needs_amount) && lacks("amount"), "For how much?"),
    ];
    for (field, _, message) in missing.into_iter().filter(|(_, missing, _)| *missing) {
        points.raise(&MISSING, place(field), message);
    }
    let foreign = paper.boxes.contains_key("currency");
    let rate: Option<Rate> = cells.get("rate").and_then(hembo_core::household::Entry::decimal);
    if rate.is_some_and(|rate| rate > MOST_RATE) {
        points.raise(&NO_RATE, place("rate"), "No currency is worth so many dollars.");
    }
    if foreign && !lacks("amount") && lacks("rate") {
        points.raise(&NO_RATE, place("rate"), "An amount in another currency without the rate of its day.");
    }
}

fn one_pool(points: &mut Points<'_>, paper: &Paper) {
    let group = group(points.household, points.facts, paper);
    let twice = group.iter().any(|other| other.id != paper.id && other.owners == paper.owners);
    if twice {
        let message = format!("Two papers for {}.", paper.title);
        points.raise(&TWICE, Place::paper(&paper.id, "title"), message);
    }
}

/// What the slips of a fund take from the cost of its units, or add to it, beside what the ledger has of the year.
fn of_slips(points: &mut Points<'_>, paper: &Paper) {
    let (household, facts) = (points.household, points.facts);
    let own = family(household, facts, paper);
    let named = |slip: &&Paper| !security(slip).is_empty() && security(slip) == security(paper);
    let theirs = |slip: &&Paper| family(household, facts, slip).iter().any(|owner| own.contains(owner));
    let told: Money =
        points.papers(t3::T3.id).filter(named).filter(theirs).map(|slip| slip.amount(t3::COST)).sum();
    let entered: Money = group(household, facts, paper)
        .into_iter()
        .flat_map(|ledger| ledger.rows.iter().filter_map(|cells| entry(0, 0, cells)))
        .filter(|entry| (facts.year_begin..=facts.year_end).contains(&entry.date))
        .map(|entry| match entry.what {
            What::CapitalReturned => entry.amount,
            What::CostAdded => -entry.amount,
            _ => Money::ZERO,
        })
        .sum();
    if !told.is_zero() && told != entered {
        let message = format!("Box 42 of its slips is {told:#}, the ledger has {entered:#} of the year.");
        points.raise(&OF_SLIP, Place::paper(&paper.id, "title"), message);
    }
}
