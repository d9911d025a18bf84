//! Shares in partnerships, S corporations, estates and trusts (§§652, 662, 702, 1366): Schedules K-1, and Schedule E, Parts II and
//! III. A loss counts where basis and amount at risk are said to cover it, as far as Form 8582 lets it.

mod papers;
mod points;

use crate::{
    facts::Facts,
    passive_losses::Activity,
    unit::{Filed, On},
};
use hembo_core::{
    line::LineId,
    lines, open_points,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Inputs, Item, Scope, Trail},
};
use hembo_money::Money;

pub use papers::read;
use papers::{CORPORATION, PARTNERSHIP, TRUST};
pub use points::points;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[PARTNERSHIP, CORPORATION, TRUST], points: POINTS, ..Provision::NONE };

lines! {
    pub L32 = "us.sched_e.32", "Partnerships and S corporations", "IRC §§702(a)(8), 1366(a)(1)(B)",
        "Ordinary income and guaranteed payments of every Schedule K-1.";
    pub L37 = "us.sched_e.37", "Estates and trusts", "IRC §§652, 662",
        "Ordinary business income of every Schedule K-1 (Form 1041).";
}

open_points! {
    LOSS = not_covered "k-1-loss", "IRC §§465, 642(h), 704(d), 1366(d)";
    COVERED = not_known "k-1-basis", "IRC §§465(a), 704(d), 1366(d)",
        "A loss counts up to the basis and to the amount at risk, at the end of the year: answer whether both cover it.";
    ACTIVE = blocks "k-1-active", "IRC §469(i)(6)",
        "The allowance for losses of rental real estate is for who owns a tenth or more, is no limited partner and takes part in decisions: answer the question.";
    FORMER = not_covered "k-1-former", "IRC §469(f)";
    QUALIFIED_LOSS = not_covered "k-1-qualified-loss", "Reg. §1.199A-3(b)(1)(iv)";
    NOT_COMPUTED = not_covered "k-1-box", "IRC §§652, 702(a), 1366(a)";
    MORE = not_known "k-1-more", "Schedule K-1",
        "Look through the other boxes and codes, and answer; a publicly traded partnership is a yes.";
    WORKED = not_known "k-1-participates", "IRC §469(c)(1), (h)",
        "Answer whether the owner worked in it regularly: it decides about passive losses and the net investment income tax.";
    DIVIDENDS = blocks "k-1-dividends", "IRC §1(h)(11)",
        "Qualified dividends are a part of the ordinary ones: look at the paper.";
    NO_EARNINGS = look "k-1-earnings", "IRC §1402(a), (a)(13)",
        "Payments for services, and a working partner's share, are self-employment earnings: look for code A in box 14.";
    NO_QUALIFIED = look "k-1-qualified", "IRC §199A(b), (c)",
        "Enter what the statement says under section 199A, zero too: without it nothing is deducted.";
}

/// An owner's share.
#[derive(Debug, Clone)]
pub struct Share {
    /// Where it stands among the papers.
    pub paper: usize,
    trust: bool,
    /// Of an S corporation.
    pub corporation: bool,
    /// The owner worked in it: no passive activity.
    pub works: bool,
    /// Ordinary income.
    ordinary: Item,
    /// Net income of rental real estate.
    rental: Item,
    /// A real estate professional who works in it, so that it is not passive (§469(c)(7)).
    rental_works: bool,
    /// Active participation in it (§469(i)(6)).
    active: bool,
    /// Losses that were not allowed in earlier years.
    carried: Money,
    /// Net gain of business property (§1231).
    sold: Money,
    /// Guaranteed payments for services, never passive.
    guaranteed: Item,
    /// Self-employment earnings.
    earnings: Item,
    /// Qualified business income (§199A).
    pub qualified: Money,
    qualified_item: Item,
    /// A specified service trade or business (§199A(d)(2)).
    pub service: bool,
    /// W-2 wages of it.
    pub wages: Money,
    /// Unadjusted basis of its qualified property.
    pub property: Money,
}

/// What its papers bring.
pub mod brings {
    use super::Share;
    use hembo_core::brought::Brought;

    /// Shares.
    pub static SHARES: Brought<Share> = Brought::new();
}

/// The shares of a person.
pub fn of(facts: &Facts, person: usize) -> &[Share] {
    facts.people[person].own.of(&brings::SHARES)
}

/// A person's self-employment earnings as a partner: Schedule SE line 2.
pub fn earnings(facts: &Facts, person: usize) -> Money {
    of(facts, person).iter().map(|share| share.earnings.amount).sum::<Money>().to_whole()
}

/// What they are made of.
pub fn earning_items(facts: &Facts, person: usize) -> impl Iterator<Item = &Item> {
    of(facts, person).iter().map(|share| &share.earnings).filter(|item| !item.amount.is_zero())
}

/// What of a person's shares is qualified business income.
pub fn qualified_items(facts: &Facts, person: usize) -> impl Iterator<Item = &Item> {
    of(facts, person).iter().map(|share| &share.qualified_item).filter(|item| !item.amount.is_zero())
}

/// What the shares of a return come to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Through {
    /// Schedule E line 32.
    pub firms: Money,
    /// Schedule E line 37.
    pub trusts: Money,
}

impl Share {
    fn items(&self) -> impl Iterator<Item = &Item> {
        [&self.ordinary, &self.rental, &self.guaranteed].into_iter().filter(|item| !item.amount.is_zero())
    }

    /// What counts for the self-employment tax.
    pub fn earned(&self) -> Money {
        self.earnings.amount
    }

    fn is_passive(&self) -> bool {
        !self.works
    }
}

fn all(on: On<'_>) -> impl Iterator<Item = &Share> {
    on.unit.people.iter().flat_map(|&person| of(on.facts, person))
}

/// A passive activity of a share.
#[derive(Debug, Clone, Copy)]
pub struct Passive {
    person: usize,
    trust: bool,
    /// As Form 8582 has it.
    pub activity: Activity,
    /// Of its net amount what is a gain of business property.
    sold: Money,
}

impl Passive {
    /// What of it is on Schedule E before any limit.
    pub fn of_schedule_e(&self) -> Money {
        self.activity.net - self.sold
    }
}

impl Share {
    /// Its business where the owner does not work in it, and its rental real estate.
    fn passive(&self, person: usize) -> impl Iterator<Item = Passive> {
        let whole = |amount: Money| amount.to_whole();
        let let_out = !self.rental.amount.is_zero();
        let carried_by_rental = let_out && self.ordinary.amount.is_zero();
        let carried = |here: bool| if here { whole(self.carried) } else { Money::ZERO };
        let sold = whole(self.sold);
        let net = whole(self.ordinary.amount) + sold;
        let business = Activity { net, carried: carried(!carried_by_rental), active: false };
        let rental = if self.rental_works { Money::ZERO } else { whole(self.rental.amount) };
        let rental = Activity { net: rental, carried: carried(carried_by_rental), active: self.active };
        let of = move |activity, sold| Passive { person, trust: self.trust, activity, sold };
        let any = |activity: &Activity| !activity.net.is_zero() || !activity.carried.is_zero();
        let business = Some(of(business, sold)).filter(|one| self.is_passive() && any(&one.activity));
        business.into_iter().chain(Some(of(rental, Money::ZERO)).filter(|one| any(&one.activity)))
    }

    /// What is not passive of it, a professional's losses left out (Form 8582, line 6).
    fn for_modified(&self) -> Money {
        let ordinary = if self.works { self.ordinary.amount.to_whole() } else { Money::ZERO };
        let rental =
            if self.rental_works { settled::or_zero(self.rental.amount.to_whole()) } else { Money::ZERO };
        ordinary + rental + self.guaranteed.amount.to_whole()
    }
}

/// The passive activities of the shares of a return, each for Form 8582.
pub fn passive(on: On<'_>) -> Vec<Passive> {
    let of_each = |&person: &usize| of(on.facts, person).iter().map(move |share| (person, share));
    on.unit.people.iter().flat_map(of_each).flat_map(|(person, share)| share.passive(person)).collect()
}

/// What of the shares of a return is not passive, a professional's losses of rental real estate left out.
pub fn for_modified(on: On<'_>) -> Money {
    all(on).map(Share::for_modified).sum()
}

/// Gains of business property among the passive activities of a return.
pub fn passive_gains(on: On<'_>) -> Money {
    passive(on).iter().map(|one| one.sold).sum()
}

/// What Form 8582 holds back of each passive activity of the shares, less what it frees, in their order.
#[derive(Debug, Clone)]
pub struct HeldBack(Vec<Passive>, Vec<Money>);

impl HeldBack {
    /// From what is allowed of each less what it came to.
    pub fn of(on: On<'_>, each: Vec<Money>) -> HeldBack {
        HeldBack(passive(on), each)
    }

    fn sum(&self, line: LineId, of: impl Fn(usize) -> bool) -> Money {
        let here = |one: &Passive| one.trust == (line == L37) && of(one.person);
        self.0.iter().zip(&self.1).filter(|(one, _)| here(one)).map(|(_, amount)| *amount).sum()
    }
}

/// Schedule E lines 32 and 37.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, held_back: &HeldBack) -> Through {
    let [firms, trusts] =
        [(L32, false), (L37, true)].map(|(line, trust)| of_kind(on, trail, line, trust, held_back));
    Through { firms, trusts }
}

fn of_kind(on: On<'_>, trail: &mut impl Trail, line: LineId, trust: bool, held_back: &HeldBack) -> Money {
    let items = |person: usize| {
        let shares = of(on.facts, person).iter().filter(move |share| share.trust == trust);
        shares.flat_map(Share::items)
    };
    let held = |person: usize| held_back.sum(line, |p| p == person);
    let any = |person: usize| items(person).next().is_some() || !held(person).is_zero();
    let tell = |i: &mut Inputs, person: usize| {
        i.items(items(person));
        if !held(person).is_zero() {
            i.figure("Losses held back, less those of earlier years", held(person));
        }
    };
    if !on.unit.people.iter().any(|&person| any(person)) {
        return Money::ZERO;
    }
    let of_each: Vec<(usize, Money)> =
        on.unit.people.iter().map(|&p| (p, sum(items(p)).to_whole() + held(p))).collect();
    let total: Money = of_each.iter().map(|(_, amount)| *amount).sum();
    if let [person] = on.unit.people[..] {
        return trail.line(line, on.scope, total, |i| tell(i, person));
    }
    for &(person, amount) in of_each.iter().filter(|(person, _)| any(*person)) {
        trail.line(line, Scope::Person(person), amount, |i| tell(i, person));
    }
    trail.line(line, on.scope, total, |i| {
        for &(person, amount) in of_each.iter().filter(|(person, _)| any(*person)) {
            i.line(line, Scope::Person(person), amount);
        }
    })
}

/// What a person's shares come to.
pub fn of_person(facts: &Facts, person: usize, line: LineId, held_back: &HeldBack) -> Money {
    let shares = of(facts, person).iter().filter(|share| share.trust == (line == L37));
    sum(shares.flat_map(Share::items)).to_whole() + held_back.sum(line, |p| p == person)
}

/// Whether anything of Schedule E, Parts II and III, belongs to the return.
pub fn any(filed: Filed<'_>) -> bool {
    all(filed.on).any(|share| share.items().next().is_some())
}

/// Whether a person's share has a business whose income may be qualified.
pub fn any_qualified(facts: &Facts, person: usize) -> bool {
    of(facts, person).iter().any(|share| !share.qualified.is_zero())
}
