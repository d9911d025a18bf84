//! Ways by name and side by side: how each differs from the lowest, and the rows of the Spread in which they do.

use super::{
    NamedWay, Unreckoned,
    assemble::{checked, pins_of, taken_of},
    forward,
    shown::{Shown, is_balance},
    simplest,
};
use crate::{
    decision::{Amount, Decision, Opt, Taken, Way},
    gathered,
    household::Household,
    line::SpreadRow,
    pack::{Case, Pack, Registry, Return},
    search::{Ranked, Stop, Stopped, Weighed, lowest},
    trail::{Recorder, Scope},
    words::{capital, small},
};
use hembo_money::{Money, Rate, Rounding};
use serde::Serialize;
use std::collections::{BTreeMap, HashMap};
use utoipa::ToSchema;

/// Ways side by side.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Comparison {
    /// The columns: the chosen way first.
    pub ways: Vec<ComparedWay>,
    /// The rows in which they differ, and what the others leave out, so that every column adds up.
    pub rows: Vec<ComparedRow>,
    /// What each leaves to later years, where that differs.
    pub later: Vec<LaterRow>,
    /// The total of each less what it leaves, at what that is worth to the preparer; none where nothing was said.
    pub less_later: Vec<Money>,
    /// Why the chosen way: what it gains against the next dearer one, where, what it gives up, what would turn it.
    pub why: Vec<String>,
}

impl Comparison {
    /// Whether nothing is compared.
    pub(super) fn is_empty(&self) -> bool {
        self.ways.is_empty()
    }
}

/// A way as a column.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ComparedWay {
    /// What it is among the columns.
    pub standing: Standing,
    /// Its name by its own choices.
    pub name: String,
    /// How it differs from the first column; empty for that.
    pub but: String,
    /// The household's total.
    pub total: Money,
    /// That, less the total of the first column.
    pub more: Money,
    /// What it takes of each decision.
    pub options: BTreeMap<String, String>,
}

/// What a way is among those side by side.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Standing {
    /// The lowest, and chosen.
    Lowest,
    /// The chosen one, which holds pins that cost something.
    Held,
    /// The lowest, were the pins let go.
    LetGo,
    /// A dearer one.
    Dearer,
    /// One that somebody chose to see.
    Beside,
}

/// What ways leave to later years.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LaterRow {
    /// The line.
    pub line: String,
    /// What is left.
    pub label: String,
    /// What a unit of it is worth to the preparer, where that was said.
    pub worth: Option<Rate>,
    /// One amount for each column, of all people together.
    pub amounts: Vec<Money>,
}

/// A row that differs between ways.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ComparedRow {
    /// The words at the left.
    pub label: String,
    /// The line; empty where it is no single one.
    pub line: String,
    /// Whose lines each column adds up.
    pub scopes: Vec<Vec<String>>,
    /// What the rows that are not shown make together, the same in every column.
    pub same: bool,
    /// Shown with a minus sign.
    pub takes_off: bool,
    /// A balance: told as due or back.
    pub balance: bool,
    /// A result.
    pub result: bool,
    /// It stands beside the computation: no result adds it.
    pub beside: bool,
    /// More of it is less tax, though a result adds it.
    #[serde(skip)]
    pub lowers: bool,
    /// One amount for each column.
    pub amounts: Vec<Option<Money>>,
}

/// How many ways stand side by side where nobody chose them.
const COLUMNS: usize = 3;
/// How many do at the most.
pub const MOST_COLUMNS: usize = 4;

/// Ways that are to stand side by side.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Beside {
    /// Those beside the chosen one, each by what it takes of each decision as it stands in files. One that is not lawful is left
    /// out, and so is what is more than [`MOST_COLUMNS`].
    pub ways: Vec<BTreeMap<String, String>>,
    /// All rows, also those in which they are the same.
    pub all_rows: bool,
}

/// The chosen way of a household beside others of choice.
///
/// # Errors
/// The faults of a household that cannot be worked with, or that it was stopped.
pub fn compared(
    household: &Household,
    registry: &Registry,
    beside: &Beside,
    stop: &Stop,
) -> Result<Comparison, Unreckoned> {
    let pack = checked(household, registry)?;
    let household = &*gathered::apart(household, pack.declared());
    let case = pack.open(household);
    let columns = of_choice(pack, &*case, household, beside, stop)?;
    Ok(side_by_side(pack, &*case, household, &columns, beside.all_rows))
}

/// The chosen way, and those of choice.
fn of_choice(
    pack: &dyn Pack,
    case: &dyn Case,
    household: &Household,
    beside: &Beside,
    stop: &Stop,
) -> Result<Vec<(Standing, Ranked)>, Stopped> {
    let pins = pins_of(household, case);
    let chosen = |pins: &_| simplest::lowest(pack, case, household, pins, stop);
    let free = chosen(&BTreeMap::new())?;
    let held = if pins.is_empty() { None } else { chosen(&pins)? };
    let Some(chosen) = held.or_else(|| free.clone()) else { return Ok(Vec::new()) };
    let costs = free.is_some_and(|free| free.total < chosen.total);
    let mut columns = vec![(if costs { Standing::Held } else { Standing::Lowest }, chosen)];
    for way in beside.ways.iter().take(MOST_COLUMNS - 1) {
        let taken = taken_of(way, case);
        let found = if taken.len() == way.len() { lowest(case, &taken, stop)? } else { None };
        columns.extend(found.map(|ranked| (Standing::Beside, ranked)));
    }
    Ok(columns)
}

/// What a way takes of every decision that is told, in a few words.
pub(super) fn way_name(case: &dyn Case, way: &Way) -> String {
    let told =
        case.decisions().iter().enumerate().filter_map(|(d, about)| short(about, way.0.get(d).copied()??));
    let told: Vec<_> = told.filter(|s| !s.is_empty()).collect();
    if told.is_empty() { "Nothing left open".into() } else { capital(&told.join(" · ")) }
}

/// What is taken of a decision, as it stands in the name of a way.
fn short(about: &Decision, taken: Taken) -> Option<String> {
    match taken {
        Taken::Option(option) => Some(about.options.get(usize::from(option))?.short.clone()),
        Taken::Amount(amount) => amount_name(about.amount.as_ref()?, amount),
    }
}

/// An amount in the name of a way.
fn amount_name(about: &Amount, taken: Money) -> Option<String> {
    match taken {
        _ if about.short.is_empty() => None,
        Money::ZERO => Some(format!("no {}", about.short)),
        _ => Some(format!("{} {taken:#}", about.short)),
    }
}

/// What is taken of a decision where that must be told: its whole name where it has no short one.
fn told(about: &Decision, taken: Taken) -> String {
    short(about, taken).filter(|s| !s.is_empty()).unwrap_or_else(|| match taken {
        Taken::Option(option) => small(&about.options[usize::from(option)].label),
        Taken::Amount(amount) => format!("{} {amount:#}", small(&about.label)),
    })
}

/// What a way takes otherwise than another, of the decisions that arise in both.
fn difference(case: &dyn Case, way: &Way, from: &Way) -> Vec<String> {
    let differing = case.decisions().iter().enumerate().filter_map(|(d, about)| {
        let (taken, other) = (way.0.get(d).copied()??, from.0.get(d).copied()??);
        (taken != other).then(|| told(about, taken))
    });
    differing.collect()
}

fn but(differing: &[String]) -> String {
    if differing.is_empty() { String::new() } else { format!("but {}", differing.join(", ")) }
}

/// How each of some ways differs from the first. One that differs just as a cheaper one before it does is told by how it differs from that as
/// well: in what arises in neither of the first's decisions.
fn differences(case: &dyn Case, ways: &[&Ranked]) -> Vec<Vec<String>> {
    let mut first_so: HashMap<Vec<String>, &Ranked> = HashMap::new();
    let mut differences = Vec::new();
    for &ranked in ways {
        let mut differing = difference(case, &ranked.way, &ways[0].way);
        let first = *first_so.entry(differing.clone()).or_insert(ranked);
        if first.total != ranked.total || (differing.is_empty() && ranked.way != ways[0].way) {
            differing.extend(difference(case, &ranked.way, &first.way));
        }
        differences.push(differing);
    }
    differences
}

/// The ways of a ranking by name.
pub(super) fn named(case: &dyn Case, ranking: &[Ranked]) -> Vec<NamedWay> {
    let differences = differences(case, &ranking.iter().collect::<Vec<_>>());
    let name = |(ranked, differing): (&Ranked, Vec<String>)| NamedWay {
        name: way_name(case, &ranked.way),
        but: but(&differing),
        total: ranked.total,
        more: ranked.total - ranking[0].total,
        options: options(case, &ranked.way),
    };
    ranking.iter().zip(differences).map(name).collect()
}

/// What a way takes of each decision, as it stands in files.
fn options(case: &dyn Case, way: &Way) -> BTreeMap<String, String> {
    let taken = |(d, about): (usize, &Decision)| {
        let text = match way.0.get(d).copied()?? {
            Taken::Option(option) => about.options[usize::from(option)].id.clone(),
            Taken::Amount(amount) => amount.to_string(),
        };
        Some((about.id.clone(), text))
    };
    case.decisions().iter().enumerate().filter_map(taken).collect()
}

/// At what a choice between lines to take off turns, where the larger wins: "itemized 32,475, standard 31,500: standard
/// wins if itemized falls by 975".
pub(super) fn break_even(view: &Shown<'_>, decision: usize) -> Option<String> {
    let about = &view.case.decisions()[decision];
    let [main] =
        view.returns.iter().enumerate().filter(|(_, r)| r.main).map(|(at, _)| at).collect::<Vec<_>>()[..]
    else {
        return None;
    };
    let line = |option: &Opt| view.trail.amount(option.line?, Scope::Return(main));
    let chosen = &about.options[view.way.taken(decision)?];
    let others = about.options.iter().filter(|o| o.id != chosen.id).filter_map(|o| Some((o, line(o)?)));
    let (other, theirs) = others.max_by_key(|(_, amount)| *amount)?;
    let mine = line(chosen)?;
    let apart = mine - theirs;
    (!apart.is_negative()).then(|| {
        let (mine, theirs, apart) = (mine.to_whole(), theirs.to_whole(), apart.to_whole());
        let turn =
            if other.id == about.options[0].id { (&chosen.short, "falls") } else { (&other.short, "rises") };
        format!(
            "{} {mine:#}, {} {theirs:#}: {} wins if {} {} by {apart:#}",
            chosen.short, other.short, other.short, turn.0, turn.1
        )
    })
}

/// The ways that stand side by side: the chosen one; where pins cost something, the lowest without them; and the next
/// dearer ones, of those that tie the first.
pub(super) fn columns(weighed: &Weighed) -> Vec<(Standing, Ranked)> {
    let Some(chosen) = weighed.ranking.first() else { return Vec::new() };
    let free = weighed.lowest.as_ref().filter(|lowest| lowest.total < chosen.total);
    let held = free.map_or(Standing::Lowest, |_| Standing::Held);
    let mut columns = vec![(held, chosen)];
    columns.extend(free.map(|lowest| (Standing::LetGo, lowest)));
    let dearer =
        weighed.ranking.windows(2).filter(|pair| pair[0].total != pair[1].total).map(|pair| &pair[1]);
    columns.extend(dearer.map(|ranked| (Standing::Dearer, ranked)));
    columns.truncate(COLUMNS);
    columns.into_iter().map(|(standing, ranked)| (standing, ranked.clone())).collect()
}

/// Ways as columns, in the rows in which they differ or in all; each column foots.
pub(super) fn side_by_side(
    pack: &dyn Pack,
    case: &dyn Case,
    household: &Household,
    columns: &[(Standing, Ranked)],
    all_rows: bool,
) -> Comparison {
    let Some((_, first)) = columns.first() else { return Comparison::default() };
    let differences = differences(case, &columns.iter().map(|(_, ranked)| ranked).collect::<Vec<_>>());
    let ways = columns.iter().zip(differences).map(|((standing, ranked), differing)| ComparedWay {
        standing: *standing,
        name: way_name(case, &ranked.way),
        but: but(&differing),
        total: ranked.total,
        more: ranked.total - first.total,
        options: options(case, &ranked.way),
    });
    let ways = ways.collect();
    let recorded: Vec<_> =
        columns.iter().map(|(_, r)| (case.record(&r.way), case.returns(&r.way), &r.way)).collect();
    let row = |row: &SpreadRow| {
        let counted = |(trail, returns, way): &(Recorder, Vec<Return>, &Way)| {
            let main = (0..returns.len()).filter(|&r| returns[r].main).map(Scope::Return);
            let there =
                main.filter(|&s| case.counts(way, row.total, s) && trail.amount(row.total, s).is_some());
            there.collect::<Vec<_>>()
        };
        let scopes: Vec<_> = recorded.iter().map(counted).collect();
        let amounts = scopes.iter().zip(&recorded).map(|(scopes, (trail, ..))| {
            (!scopes.is_empty()).then(|| scopes.iter().filter_map(|&s| trail.amount(row.total, s)).sum())
        });
        ComparedRow {
            label: row.label.into(),
            line: row.total.into(),
            scopes: scopes.iter().map(|s| s.iter().map(|s| s.name(household)).collect()).collect(),
            takes_off: row.takes_off,
            balance: is_balance(pack, row),
            result: row.result,
            beside: row.beside,
            lowers: row.lowers,
            same: false,
            amounts: amounts.collect(),
        }
    };
    let taxes: Vec<_> = pack.totals().iter().map(|t| t.tax).collect();
    let all = pack.spread().iter().flat_map(|s| s.rows).filter(|r| !r.subtotal);
    let rows = all.map(|r| {
        let row = row(r);
        let any = row.amounts.iter().any(|amount| amount.is_some_and(|amount| !amount.is_zero()));
        let total = taxes.contains(&r.total) && row.amounts.iter().any(Option::is_some);
        (total || differs(&row) || (all_rows && any), row)
    });
    let rows = footed(rows.collect());
    let left = left(pack, household, &recorded);
    let totals = columns.iter().map(|(_, ranked)| ranked.total);
    let less_later = if left.iter().any(|row| row.worth.is_some()) {
        totals.enumerate().map(|(column, total)| total - worth(&left, column)).collect()
    } else {
        Vec::new()
    };
    let same = |row: &LaterRow| row.amounts.windows(2).all(|w| w[0].to_whole() == w[1].to_whole());
    let later = left.into_iter().filter(|row| all_rows || !same(row)).collect();
    Comparison { ways, rows, later, less_later, why: Vec::new() }
}

/// What each way leaves to later years.
fn left(pack: &dyn Pack, household: &Household, recorded: &[(Recorder, Vec<Return>, &Way)]) -> Vec<LaterRow> {
    let mut rows: Vec<LaterRow> = Vec::new();
    for (column, (trail, returns, _)) in recorded.iter().enumerate() {
        let carried = forward::carried(household, pack, trail, returns).into_iter();
        let leaves = |line: &str| pack.declared().carries.iter().any(|c| c.line == line && c.leaves());
        for left in carried.filter(|carried| leaves(&carried.line)) {
            let at = rows.iter().position(|row| row.line == left.line).unwrap_or_else(|| {
                rows.push(LaterRow {
                    worth: household.worth.get(&left.line).copied(),
                    line: left.line,
                    label: left.label,
                    amounts: vec![Money::ZERO; recorded.len()],
                });
                rows.len() - 1
            });
            rows[at].amounts[column] += left.amount;
        }
    }
    rows
}

/// What a way leaves to later years is worth to the preparer.
fn worth(left: &[LaterRow], column: usize) -> Money {
    let of = |row: &LaterRow| {
        row.worth.map(|worth| row.amounts[column].times(worth, Money::CENT, Rounding::HalfUp))
    };
    left.iter().filter_map(of).sum()
}

/// Whether the ways differ in a row; what differs by cents only would look the same.
fn differs(row: &ComparedRow) -> bool {
    let whole = |amount: &Option<Money>| amount.unwrap_or_default().to_whole();
    row.amounts.windows(2).any(|w| whole(&w[0]) != whole(&w[1]))
}

/// The rows that are shown; before each result one that holds what the others leave out, so that every column adds up. A
/// result to which a row leads that is shown is shown too.
fn footed(rows: Vec<(bool, ComparedRow)>) -> Vec<ComparedRow> {
    let columns = rows.first().map_or(0, |(_, row)| row.amounts.len());
    let mut shown = Vec::new();
    let mut sums = vec![Money::ZERO; columns];
    // The result before, where it is shown: the next one may go on from it, or begin anew.
    let mut before: Option<Vec<Money>> = None;
    let mut leads = false;
    for (is_shown, row) in rows {
        let is_shown = is_shown || (row.result && leads);
        leads = !row.result && (leads || is_shown);
        let amounts: Vec<_> = row.amounts.iter().map(|a| a.unwrap_or_default()).collect();
        if row.result {
            if is_shown {
                let rest = |from: &[Money]| -> Vec<Money> {
                    (0..columns).map(|c| amounts[c] - sums[c] - from[c]).collect()
                };
                let anew = rest(&vec![Money::ZERO; columns]);
                let goes_on = before.as_ref().map(|from| rest(from)).filter(|rest| is_one(rest));
                let rest = goes_on.unwrap_or(anew);
                if rest.iter().any(|r| !r.to_whole().is_zero()) {
                    shown.push(the_rest(rest));
                }
            }
            before = is_shown.then_some(amounts);
            sums = vec![Money::ZERO; columns];
        } else if is_shown && !row.beside {
            for (sum, amount) in sums.iter_mut().zip(&amounts) {
                *sum += if row.takes_off { -*amount } else { *amount };
            }
        }
        if is_shown {
            shown.push(row);
        }
    }
    shown
}

/// Whether all are the same but for what rounding each row makes of it.
fn is_one(rest: &[Money]) -> bool {
    rest.windows(2).all(|w| {
        let apart = w[0] - w[1];
        apart < Money::whole(2) && -apart < Money::whole(2)
    })
}

/// What the rows that are not shown make together.
fn the_rest(rest: Vec<Money>) -> ComparedRow {
    let same = is_one(&rest);
    ComparedRow {
        label: if same { "The same in all" } else { "Floors and what else differs" }.into(),
        line: String::new(),
        scopes: Vec::new(),
        takes_off: false,
        balance: false,
        result: false,
        beside: false,
        lowers: false,
        same,
        amounts: rest.into_iter().map(Some).collect(),
    }
}
