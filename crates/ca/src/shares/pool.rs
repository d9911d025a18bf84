//! Identical properties at their average cost (ITA 47(1), 53(1), (2)): what is held and what it cost after every entry of the
//! ledgers of a family, and what every sale gains or loses.

use super::superficial;
use hembo_core::settled;
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What an entry of a ledger does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum What {
    /// Bought, or reinvested: more units and their cost.
    Bought,
    /// Received from the partner at the partner's cost (ITA 73(1)).
    FromPartner,
    /// More cost for the same units: a distribution that was not paid out.
    CostAdded,
    /// Less cost for the same units (ITA 53(2)(h)).
    CapitalReturned,
    /// More units of the same cost.
    Split,
    /// Fewer units of the same cost.
    Merged,
    /// Sold: units leave at the average cost.
    Sold,
    /// Moved into a registered plan of one's own at its value: a gain is taxed, a loss is nil (ITA 40(2)(g)(iv)).
    ToPlan,
    /// Given to the partner at cost (ITA 73(1)).
    ToPartner,
    /// Bought by a registered plan of the family: it enters no pool.
    InPlan,
}

impl What {
    /// On one day purchases and changes of cost come before what leaves.
    fn leaves(self) -> bool {
        matches!(self, What::Sold | What::ToPlan | What::ToPartner)
    }

    /// Whether the family acquires units by it (ITA 54 "superficial loss").
    pub fn acquires(self) -> bool {
        matches!(self, What::Bought | What::FromPartner | What::InPlan | What::ToPlan)
    }

    /// Whether the units are in a registered plan.
    pub fn in_plan(self) -> bool {
        matches!(self, What::InPlan | What::ToPlan)
    }
}

/// An entry of a ledger, in dollars.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Entry {
    /// The ledger, by its place among those of the family for the same security.
    pub ledger: usize,
    /// The line of its list.
    pub row: usize,
    /// The day of settlement.
    pub date: Date,
    /// What it does.
    pub what: What,
    /// How many units.
    pub units: Rate,
    /// The price of all of them, or the amount.
    pub amount: Money,
    /// Outlays.
    pub outlays: Money,
}

/// What is held in a ledger and what it cost.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Held {
    /// Units.
    pub units: Rate,
    /// Their cost.
    pub cost: Money,
}

impl Held {
    /// The cost of so many of the units, to the cent.
    fn cost_of(self, units: Rate) -> Money {
        portion(self.cost, units, self.units)
    }

    /// The average cost of a unit, to four decimals; zero where nothing is held.
    pub fn average(self) -> Rate {
        const PLACES: i128 = 100_000;
        let units = i128::from(self.units.billionths());
        if units == 0 {
            return Rate::ZERO;
        }
        let exact = i128::from(self.cost.cents()) * 100 * i128::from(Rate::ONE.billionths());
        let average = Rounding::HalfUp.divide(exact, units) * PLACES;
        Rate::from_billionths(i64::try_from(average).unwrap_or(i64::MAX))
    }
}

/// `amount × part ÷ whole` in units, to the cent.
pub(super) fn portion(amount: Money, part: Rate, whole: Rate) -> Money {
    if whole == Rate::ZERO {
        return Money::ZERO;
    }
    let exact = i128::from(amount.cents()) * i128::from(part.billionths());
    Money::from_cents(Rounding::HalfUp.divide(exact, whole.billionths().into()) as i64)
}

/// A sale, or what counts as one.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Sale {
    /// Proceeds.
    pub proceeds: Money,
    /// The average cost of what left.
    pub cost: Money,
    /// Outlays.
    pub outlays: Money,
    /// What of a loss is denied.
    pub denied: Money,
}

impl Sale {
    /// The gain, below zero the loss, before anything is denied.
    pub fn before_denial(self) -> Money {
        self.proceeds - self.cost - self.outlays
    }

    /// What counts of it.
    pub fn gain(self) -> Money {
        self.before_denial() + self.denied
    }
}

/// An entry and what it leaves.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Step {
    /// The entry.
    pub entry: Entry,
    /// What its ledger holds after it.
    pub held: Held,
    /// What it sold.
    pub sale: Option<Sale>,
    /// More was to leave than there was.
    pub short: bool,
}

/// The entries of the ledgers of a family for one security by date, with what each leaves.
pub fn reckon(mut entries: Vec<Entry>) -> Vec<Step> {
    entries.sort_by_key(|entry| (entry.date, entry.what.leaves()));
    let units = Units::of(&entries);
    let ledgers = entries.iter().map(|entry| entry.ledger + 1).max().unwrap_or(0);
    let mut held = vec![Held::default(); ledgers];
    // What of denied losses waits for purchases that come after the sale.
    let mut waiting = vec![Money::ZERO; entries.len()];
    let mut steps = Vec::with_capacity(entries.len());
    for (at, &entry) in entries.iter().enumerate() {
        let sale = one(entry, &mut held[entry.ledger], units.after[at]);
        held[entry.ledger].cost += waiting[at];
        let sale = sale.map(|sale| {
            let denied = superficial::denied(&entries, &units, at, sale);
            for (of, amount) in &denied.added {
                if *of <= at {
                    held[entries[*of].ledger].cost += *amount;
                } else {
                    waiting[*of] += *amount;
                }
            }
            Sale { denied: denied.total, ..sale }
        });
        steps.push(Step { entry, held: held[entry.ledger], sale, short: units.short[at] });
    }
    steps
}

/// What one entry does to its pool.
fn one(entry: Entry, held: &mut Held, after: Rate) -> Option<Sale> {
    let Entry { what, amount, outlays, .. } = entry;
    let left = held.units - after;
    let cost = held.cost_of(left);
    held.units = after;
    match what {
        What::Bought | What::FromPartner => held.cost += amount + outlays,
        What::CostAdded => held.cost += amount,
        What::CapitalReturned => {
            // Below zero the cost is a gain (40(3)), and starts again from nothing.
            let gain = settled::or_zero(amount - held.cost);
            held.cost = settled::or_zero(held.cost - amount);
            return (!gain.is_zero()).then_some(Sale { proceeds: gain, ..Sale::default() });
        }
        What::Split | What::Merged | What::InPlan => {}
        What::Sold => {
            held.cost -= cost;
            return Some(Sale { proceeds: amount, cost, outlays, denied: Money::ZERO });
        }
        What::ToPlan => {
            held.cost -= cost;
            let sale = Sale { proceeds: amount, cost, outlays, denied: Money::ZERO };
            return Some(Sale { denied: settled::or_zero(-sale.before_denial()), ..sale });
        }
        What::ToPartner => held.cost -= cost,
    }
    None
}

/// How many units each ledger holds after every entry; they do not depend on cost.
#[derive(Debug)]
pub(super) struct Units {
    /// What the entry's ledger held before it.
    pub(super) before: Vec<Rate>,
    /// What it holds after it.
    pub(super) after: Vec<Rate>,
    /// Where more was to leave than there was: all that there was left.
    pub(super) short: Vec<bool>,
}

impl Units {
    fn of(entries: &[Entry]) -> Units {
        let len = entries.len();
        let mut units =
            Units { before: Vec::with_capacity(len), after: Vec::with_capacity(len), short: Vec::new() };
        let ledgers = entries.iter().map(|entry| entry.ledger + 1).max().unwrap_or(0);
        let mut held = vec![0_i64; ledgers];
        for entry in entries {
            let (own, moved) = (&mut held[entry.ledger], entry.units.billionths());
            units.before.push(Rate::from_billionths(*own));
            let change = match entry.what {
                What::Bought | What::FromPartner | What::Split => moved,
                What::Sold | What::ToPlan | What::ToPartner | What::Merged => -moved,
                What::CostAdded | What::CapitalReturned | What::InPlan => 0,
            };
            units.short.push(*own + change < 0);
            *own = settled::greater(0, own.saturating_add(change));
            units.after.push(Rate::from_billionths(*own));
        }
        units
    }
}
