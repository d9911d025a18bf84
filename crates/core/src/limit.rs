//! The one door for every cap, floor, phase-in and phase-out.
//!
//! A rule never takes a minimum of its own: it asks one of these functions, which computes what is allowed and
//! tells the trail what was entered, allowed and lost, and how far the next edge is. So the notches, the meters
//! and 'lost to limits' cannot disagree with the tax.

use crate::{
    line::LineId,
    trail::{Scope, Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};
use serde::Serialize;
use utoipa::ToSchema;

/// What a limit is, as a rule pack declares it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct LimitDef {
    /// The id, which never changes.
    pub id: &'static str,
    /// What it limits, in words: "home-loan interest".
    pub label: &'static str,
    /// How it limits, in a few words: "over 750,000".
    pub how: &'static str,
    /// The line that carries its result.
    pub line: LineId,
    /// The rule.
    pub cite: &'static str,
}

/// Declares the limits of a provision: a static of each, and all of them as `LIMITS`.
#[macro_export]
macro_rules! limits {
    ($($vis:vis $name:ident = $id:literal on $line:expr, $label:literal, $how:literal, $cite:literal;)*) => {
        $(#[doc = $cite] $vis static $name: $crate::limit::LimitDef =
            $crate::limit::LimitDef { id: $id, label: $label, how: $how, line: $line, cite: $cite };)*
        static LIMITS: &[&$crate::limit::LimitDef] = &[$(&$name),*];
    };
}

/// A limit at a place.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct LimitAt {
    /// Which limit.
    pub def: &'static LimitDef,
    /// Where it acts.
    pub scope: Scope,
}

impl LimitDef {
    /// This limit, acting there.
    pub const fn at(&'static self, scope: Scope) -> LimitAt {
        LimitAt { def: self, scope }
    }
}

/// What a limit did.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct LimitTaken {
    /// The shape of the limit.
    pub shape: Shape,
    /// What came in.
    pub entered: Money,
    /// What went on.
    pub allowed: Money,
    /// The next point at which it changes its bite, if there is one ahead.
    pub edge: Option<Edge>,
}

/// The shape of a limit.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Shape {
    /// No more than so much.
    Cap,
    /// Only what is above so much.
    Floor,
    /// Less, the more something else is.
    PhaseOut,
    /// More, the more something else is.
    PhaseIn,
}

/// The next point at which a limit changes; at distance zero the next unit does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Edge {
    /// The figure of the law at which it changes.
    pub at: Money,
    /// How far it is from here.
    pub distance: Money,
}

/// A limit as people read it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Limit {
    /// The id of the limit.
    pub id: String,
    /// What it limits.
    pub label: String,
    /// How, in a few words.
    pub how: String,
    /// The line that carries its result.
    pub line: String,
    /// Whose: `return/0` or `person/ID`.
    pub scope: String,
    /// Whose, in words.
    pub whose: String,
    /// The shape.
    pub shape: Shape,
    /// What came in.
    pub entered: Money,
    /// What went on.
    pub allowed: Money,
    /// The difference.
    pub lost: Money,
    /// The figure at which it changes next.
    pub edge: Option<Money>,
    /// How far that is from here.
    pub distance: Option<Money>,
    /// The rule.
    pub cite: String,
}

/// The smaller of two amounts, where it is no limit that people should see.
#[track_caller]
pub fn lesser(trail: &mut impl Trail, one: Money, other: Money) -> Money {
    trail.edge(one - other, true);
    one.min(other)
}

/// The larger of two amounts, where it is no limit that people should see.
#[track_caller]
pub fn greater(trail: &mut impl Trail, one: Money, other: Money) -> Money {
    trail.edge(one - other, true);
    one.max(other)
}

/// The amount, or zero where it is negative: "if zero or less, enter 0".
#[track_caller]
pub fn or_zero(trail: &mut impl Trail, amount: Money) -> Money {
    greater(trail, amount, Money::ZERO)
}

/// A part of an amount, rounded to the `unit` of the law.
pub fn share(trail: &mut impl Trail, amount: Money, rate: Rate, unit: Money) -> Money {
    trail.working(|| format!("{amount:#} × {}", percent(rate)));
    amount.times(rate, unit, Rounding::HalfUp)
}

/// A part of what a measure is above a start, rounded to the `unit` of the law.
#[track_caller]
pub fn share_above(trail: &mut impl Trail, measure: Money, start: Money, rate: Rate, unit: Money) -> Money {
    let excess = or_zero(trail, measure - start);
    if !excess.is_zero() {
        trail.working(|| format!("({measure:#} − {start:#}) × {}", percent(rate)));
    }
    excess.times(rate, unit, Rounding::HalfUp)
}

/// A rate as people read it: "7.5 %".
pub fn percent(rate: Rate) -> String {
    format!("{} %", Rate::from_billionths(rate.billionths() * 100))
}

/// The smaller of `entered` and `most`.
#[track_caller]
pub fn cap(trail: &mut impl Trail, at: LimitAt, entered: Money, most: Money) -> Money {
    let allowed = lesser(trail, entered, most);
    if !entered.is_zero() {
        trail.working(|| format!("the smaller of {entered:#} and {most:#}"));
    }
    trail.limit(at, || LimitTaken { shape: Shape::Cap, entered, allowed, edge: ahead(entered, most) });
    allowed
}

/// What is above `floor`, never less than zero.
#[track_caller]
pub fn above(trail: &mut impl Trail, at: LimitAt, entered: Money, floor: Money) -> Money {
    let allowed = or_zero(trail, entered - floor);
    if !entered.is_zero() {
        trail.working(|| format!("{entered:#} − {floor:#}, not below zero"));
    }
    trail.limit(at, || LimitTaken { shape: Shape::Floor, entered, allowed, edge: ahead(entered, floor) });
    allowed
}

/// `entered × ratio`, rounded to the `unit` of the law: a limit that allows a part, such as that of a loan.
#[track_caller]
pub fn part(trail: &mut impl Trail, at: LimitAt, entered: Money, ratio: Rate, unit: Money) -> Money {
    let allowed = share(trail, entered, ratio, unit);
    trail.limit(at, || LimitTaken { shape: Shape::Cap, entered, allowed, edge: None });
    allowed
}

/// How an amount shrinks as a measure grows past a start.
#[derive(Debug, Clone, Copy)]
pub struct PhaseOut {
    /// Where it begins.
    pub start: Money,
    /// The step of the measure and how a part of a step counts; none where it is continuous.
    pub step: Option<(Money, Rounding)>,
    /// The part of the counted excess that is taken off.
    pub rate: Rate,
    /// Never less than this.
    pub least: Money,
    /// What the law rounds to.
    pub unit: Money,
}

impl PhaseOut {
    /// From a start on, a part of every unit above it, down to nothing.
    pub const fn continuous(start: Money, rate: Rate, unit: Money) -> PhaseOut {
        PhaseOut { start, step: None, rate, least: Money::ZERO, unit }
    }
}

/// `entered` less the phase-out at `measure`, rounded to the unit of the rule.
#[track_caller]
pub fn phase_out(
    trail: &mut impl Trail,
    at: LimitAt,
    entered: Money,
    measure: Money,
    rule: PhaseOut,
) -> Money {
    let matters = !entered.is_zero();
    trail.edge(measure - rule.start, matters);
    let excess = excess_of(measure, rule.start);
    let counted = match rule.step {
        Some((step, rounding)) => step * excess.steps_of(step, rounding),
        None => excess,
    };
    let reduction = counted.times(rule.rate, rule.unit, Rounding::HalfUp);
    let least = lesser(trail, rule.least, entered);
    trail.edge(entered - reduction - least, matters);
    let allowed = (entered - reduction).max(least);
    if matters && !reduction.is_zero() {
        trail.working(|| {
            let (start, rate) = (rule.start, percent(rule.rate));
            let excess = format!("({measure:#} − {start:#}) × {rate}");
            let stepped =
                if counted == excess_of(measure, start) { excess } else { format!("{counted:#} × {rate}") };
            format!("{entered:#} − {stepped}, not below {least:#}")
        });
    }
    trail.limit(at, || {
        let edge =
            if allowed > least { phase_out_edge(entered - least, measure, counted, rule) } else { None };
        LimitTaken { shape: Shape::PhaseOut, entered, allowed, edge }
    });
    allowed
}

fn excess_of(measure: Money, start: Money) -> Money {
    (measure - start).or_zero()
}

/// Before the start the edge is the start. Inside, it is the end of the step, past which the next part is lost, or
/// where the phase-out is continuous its end.
fn phase_out_edge(room: Money, measure: Money, counted: Money, rule: PhaseOut) -> Option<Edge> {
    if measure <= rule.start {
        return Some(Edge { at: rule.start, distance: rule.start - measure });
    }
    let width = match rule.step {
        Some((_, Rounding::Up)) => counted,
        Some((step, _)) => counted + step,
        None => room.divided_by(rule.rate, Money::CENT, Rounding::Up),
    };
    ahead(measure, rule.start + width)
}

/// How an amount grows with a measure past a start.
#[derive(Debug, Clone, Copy)]
pub struct PhaseIn {
    /// Where it begins.
    pub start: Money,
    /// The part of the excess that is allowed.
    pub rate: Rate,
    /// What the law rounds to.
    pub unit: Money,
}

/// At most the part of what `measure` is above the start: a benefit that grows with earnings.
#[track_caller]
pub fn phase_in(trail: &mut impl Trail, at: LimitAt, entered: Money, measure: Money, rule: PhaseIn) -> Money {
    let most = or_zero(trail, measure - rule.start).times(rule.rate, rule.unit, Rounding::HalfUp);
    let allowed = lesser(trail, entered, most);
    if !entered.is_zero() {
        let (start, rate) = (rule.start, rule.rate);
        trail.working(|| format!("({measure:#} − {start:#}) × {}, at most {entered:#}", percent(rate)));
    }
    trail.limit(at, || {
        let full = rule.start + entered.divided_by(rule.rate, Money::CENT, Rounding::Up);
        LimitTaken { shape: Shape::PhaseIn, entered, allowed, edge: ahead(measure, full) }
    });
    allowed
}

/// A tax by brackets: each rate on its slice, the sum rounded once to the cent. `tops` are the upper ends of all
/// brackets but the last.
#[track_caller]
pub fn by_brackets(
    trail: &mut impl Trail,
    base: Money,
    tops: &[Money],
    rates: impl IntoIterator<Item = Rate> + Clone,
) -> Money {
    trail.working(|| brackets_in_words(base, tops, rates.clone()));
    Money::sum_of_products(slices(trail, base, tops, rates), Money::CENT, Rounding::HalfUp)
}

/// A tax by brackets as it is worked out: what the full brackets come to, and the last one's part.
pub fn brackets_in_words(base: Money, tops: &[Money], rates: impl IntoIterator<Item = Rate>) -> String {
    let slices: Vec<_> =
        slices(&mut Silent, base, tops, rates).filter(|(slice, _)| !slice.is_zero()).collect();
    let Some(((last, rate), full)) = slices.split_last() else { return "nothing to tax".into() };
    if full.is_empty() {
        return format!("{base:#} × {}", percent(*rate));
    }
    let below = Money::sum_of_products(full.iter().copied(), Money::CENT, Rounding::HalfUp);
    format!("{below:#} + ({base:#} − {:#}) × {}", base - *last, percent(*rate))
}

/// The same tax divided by a rate, rounded once: the base that would bear it at that rate.
#[track_caller]
pub fn by_brackets_over(
    trail: &mut impl Trail,
    base: Money,
    tops: &[Money],
    rates: impl IntoIterator<Item = Rate>,
    rate: Rate,
) -> Money {
    let slices = slices(trail, base, tops, rates);
    Money::sum_of_products_over(slices, rate, Money::CENT, Rounding::HalfUp)
}

/// What of a base lies in each bracket, with its rate.
#[track_caller]
fn slices(
    trail: &mut impl Trail,
    base: Money,
    tops: &[Money],
    rates: impl IntoIterator<Item = Rate>,
) -> impl Iterator<Item = (Money, Rate)> {
    let ends = tops.iter().copied().chain([Money::LARGEST]);
    let starts = [Money::ZERO].into_iter().chain(tops.iter().copied());
    starts.zip(ends).zip(rates).map(move |((from, to), rate)| {
        trail.edge(base - to, true);
        ((base.min(to) - from).or_zero(), rate)
    })
}

/// A limit whose result a table or worksheet of the law gives: noted here with what it was without.
pub fn given(trail: &mut impl Trail, at: LimitAt, shape: Shape, entered: Money, allowed: Money) -> Money {
    trail.limit(at, || LimitTaken { shape, entered, allowed, edge: None });
    allowed
}

fn ahead(from: Money, at: Money) -> Option<Edge> {
    (at >= from).then(|| Edge { at, distance: at - from })
}
