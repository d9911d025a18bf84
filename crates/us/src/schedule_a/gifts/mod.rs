//! Gifts to charity (§170), Schedule A lines 11 to 14: cash to 60 % of income, goods to 50 % less the cash, property that would
//! bring a long-term gain to 30 % and to what is left of the 50 %, or at its basis by choice; to organizations that are no public
//! charities 30 %, and 20 % of such property, of what those leave; and what is carried over. Used goods are worth no more than they cost.

mod choice;
mod papers;

pub use choice::{AT_BASIS, AT_BASIS_APART, at_basis_apart, at_basis_together};
pub use papers::{points, read};

use crate::unit::{Filed, On};
use hembo_core::{
    Silent,
    brought::Records,
    forms::Required,
    limit::{self, LimitAt},
    limits,
    line::LineId,
    lines,
    outcome::{CarriedTo, Carry},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[papers::GIFTS, papers::CARRYOVER],
    lines: LINES,
    limits: LIMITS,
    points: papers::RAISED,
    figures: &["gifts", "gift_carryover_order", "gift_floor"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year, class by class.
const CARRIES: &[Carry] = &[
    left(CARRIED_CASH, "cash"),
    left(CARRIED_GOODS, "goods"),
    left(CARRIED_PROPERTY, "property"),
    left(CARRIED_OTHERS, "others"),
    left(CARRIED_OTHER_PROPERTY, "other_property"),
];

const fn left(line: LineId, class: &'static str) -> Carry {
    Carry {
        line,
        paper: papers::CARRYOVER.id,
        into: CarriedTo::Rows { column: "amount", says: Some(("class", class)) },
    }
}

lines! {
    pub L11 = "us.sched_a.11", "Gifts of cash", "IRC §170(a), (i)",
        "Cash gifts, and miles driven for a charity.";
    OTHERS = "us.gifts.others", "Gifts of cash to other organizations", "IRC §170(b)(1)(B)",
        "To those that are no public charities, and gifts for the use of any.";
    GOODS = "us.gifts.goods", "Gifts of goods", "IRC §170(e)",
        "Used goods at their market value.";
    PROPERTY = "us.gifts.property", "Gifts of property held long", "IRC §170(b)(1)(C), (e)",
        "Shares and other property that would bring a long-term gain, at their market value, or by choice at their basis.";
    OTHER_PROPERTY = "us.gifts.other_property", "Property held long to other organizations", "IRC §170(b)(1)(D)",
        "Such property, to those that are no public charities.";
    pub L12 = "us.sched_a.12", "Gifts other than cash", "IRC §170(e)",
        "Used goods, and property held long.";
    L13 = "us.sched_a.13", "Gifts carried over, used", "IRC §170(d)(1)",
        "Oldest first, up to what the limits leave.";
    CARRIED_CASH = "us.gifts.carried_cash", "Cash gifts into next year", "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.";
    CARRIED_GOODS = "us.gifts.carried_goods", "Gifts of goods into next year", "IRC §170(d)(1)",
        "Not used this year; runs out five years after the gift.";
    CARRIED_OTHERS = "us.gifts.carried_others", "Gifts to other organizations into next year", "IRC §170(b)(1)(B), (d)(1)",
        "Not used this year; runs out five years after the gift.";
    CARRIED_OTHER_PROPERTY = "us.gifts.carried_other_property", "Property to other organizations into next year", "IRC §170(b)(1)(D)(ii)",
        "Not used this year; runs out five years after the gift.";
    CARRIED_PROPERTY = "us.gifts.carried_property", "Gifts of property into next year", "IRC §170(b)(1)(C)(ii), (d)(1)",
        "Not used this year; runs out five years after the gift.";
    pub L14 = "us.sched_a.14", "Gifts to charity", "IRC §170(b)(1)",
        "Cash, goods and property, each up to its part of income, and carryovers; from 2026 what is above a floor.";
}

limits! {
    GIFTS_FLOOR = "us.limit.gifts_floor" on L14, "Gifts to charity", "below the floor",
        "IRC §170(b)(1)(I)";
    GIFTS_CASH = "us.limit.gifts_cash" on L14, "Gifts of cash", "over the cash limit, carried over",
        "IRC §170(b)(1)(G)";
    GIFTS_GOODS = "us.limit.gifts_goods" on L14, "Gifts of goods", "over the limit with cash, carried over",
        "IRC §170(b)(1)(A)";
    GIFTS_PROPERTY = "us.limit.gifts_property" on L14, "Gifts of property held long", "over its limit, carried over",
        "IRC §170(b)(1)(C)";
    GIFTS_OTHERS = "us.limit.gifts_others" on L14, "Gifts to other organizations", "over their limit, carried over",
        "IRC §170(b)(1)(B)";
    GIFTS_OTHERS_CARRIED = "us.limit.gifts_others_carried" on L13, "Gifts to other organizations carried over", "over what their limit leaves",
        "IRC §170(b)(1)(B)";
    GIFTS_OTHER_PROPERTY = "us.limit.gifts_other_property" on L14, "Property to other organizations", "over its limit, carried over",
        "IRC §170(b)(1)(D)";
    GIFTS_OTHER_PROPERTY_CARRIED = "us.limit.gifts_other_property_carried" on L13, "Property to other organizations carried over",
        "over what its limit leaves", "IRC §170(b)(1)(D)(ii)";
    GIFTS_PROPERTY_CARRIED = "us.limit.gifts_property_carried" on L13, "Property carried over", "over what its limit leaves",
        "IRC §170(b)(1)(C)(ii)";
    GIFTS_CASH_CARRIED = "us.limit.gifts_cash_carried" on L13, "Cash gifts carried over", "over what the cash limit leaves",
        "IRC §170(d)(1)";
    GIFTS_GOODS_CARRIED = "us.limit.gifts_goods_carried" on L13, "Goods carried over", "over what the limit leaves",
        "IRC §170(d)(1)";
}

/// A gift carried over.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Carried {
    pub year: i64,
    pub class: Class,
    pub item: Item,
    /// What of property would be left, had it been taken at its basis.
    pub at_basis: Money,
}

/// The class of a gift, by its limit.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Class {
    /// Cash: 60 %.
    Cash,
    /// Goods: 50 %.
    Goods,
    /// Property that would bring a long-term gain: 30 %.
    Property,
    /// To other organizations: 30 %.
    Others,
    /// Property that would bring a long-term gain, to other organizations: 20 %.
    OtherProperty,
}

/// What its papers bring.
pub mod brings {
    use super::Carried;
    use hembo_core::brought::Brought;

    /// Cash given, with volunteer travel.
    pub static CASH: Brought = Brought::new();

    /// Used goods given.
    pub static GOODS: Brought = Brought::new();

    /// Property held long given.
    pub static PROPERTY: Brought = Brought::new();

    /// The basis of it.
    pub static PROPERTY_BASIS: Brought = Brought::new();

    /// Given to organizations that are no public charities.
    pub static OTHERS: Brought = Brought::new();

    /// Property held long given to them.
    pub static OTHER_PROPERTY: Brought = Brought::new();

    /// Gifts carried over.
    pub static CARRIED: Brought<Carried> = Brought::new();
}

/// Whether papers bring gifts.
pub fn anything(own: &Records) -> bool {
    let given = [&brings::CASH, &brings::GOODS, &brings::PROPERTY, &brings::OTHERS, &brings::OTHER_PROPERTY];
    given.into_iter().any(|gifts| own.has(gifts)) || own.has(&brings::CARRIED)
}

/// What was given in a year, by class.
struct Given {
    cash: Money,
    others: Money,
    goods: Money,
    property: Money,
    other_property: Money,
}

impl Given {
    /// What goes as goods: property, too, that is taken at its basis.
    fn as_goods(&self, on: On<'_>) -> Money {
        if on.unit.gifts_at_basis { self.goods + self.property } else { self.goods }
    }

    /// What goes as property held long.
    fn as_property(&self, on: On<'_>) -> Money {
        if on.unit.gifts_at_basis { Money::ZERO } else { self.property }
    }
}

/// Cash given in the year to public charities.
pub fn cash(on: On<'_>) -> Money {
    given(on, &mut Silent).cash
}

/// Lines 11 and 12.
fn given(on: On<'_>, trail: &mut impl Trail) -> Given {
    let others = on.gather(trail, OTHERS, &brings::OTHERS);
    let with_others = on.gather_with(trail, L11, &brings::CASH, (OTHERS, others));
    let goods = on.gather(trail, GOODS, &brings::GOODS);
    let property = match on.unit.gifts_at_basis {
        true => on.gather(trail, PROPERTY, &brings::PROPERTY_BASIS),
        false => on.gather(trail, PROPERTY, &brings::PROPERTY),
    };
    let other_property = on.gather(trail, OTHER_PROPERTY, &brings::OTHER_PROPERTY);
    trail.line(L12, on.scope, goods + property + other_property, |i| {
        i.line(GOODS, on.scope, goods).line(PROPERTY, on.scope, property);
        if !other_property.is_zero() {
            i.line(OTHER_PROPERTY, on.scope, other_property);
        }
    });
    Given { cash: with_others - others, others, goods, property, other_property }
}

/// Gifts carried in, class by class.
struct CarriedIn {
    cash: Vec<Carried>,
    goods: Vec<Carried>,
    property: Vec<Carried>,
    others: Vec<Carried>,
    other_property: Vec<Carried>,
}

impl CarriedIn {
    fn of(on: On<'_>) -> CarriedIn {
        let of = |class| carried(on, class);
        CarriedIn {
            cash: of(Class::Cash),
            goods: of(Class::Goods),
            property: of(Class::Property),
            others: of(Class::Others),
            other_property: of(Class::OtherProperty),
        }
    }

    fn all(&self) -> impl Iterator<Item = &Carried> {
        let public = self.cash.iter().chain(&self.goods).chain(&self.property);
        public.chain(&self.others).chain(&self.other_property)
    }
}

/// The parts of income to which each class goes.
struct Most {
    cash: Money,
    all: Money,
    property: Money,
    other_property: Money,
}

impl Most {
    fn of(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Most {
        let base = limit::or_zero(trail, agi);
        let part = |rate| base.times(rate, Money::WHOLE, Rounding::HalfUp);
        let figures = &on.facts.figures.gifts;
        Most {
            cash: part(figures.cash_part),
            all: part(figures.goods_part),
            property: part(figures.property_part),
            other_property: part(figures.other_property_part),
        }
    }
}

/// What counts of a class: of this year's gifts, and of those carried in.
#[derive(Debug, Clone, Copy)]
struct Counted {
    this_year: Money,
    carried: Money,
}

/// Line 14. Each class takes this year's gifts first, then the oldest carried over (§170(d)(1)(A)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let (given, carried) = (given(on, trail), CarriedIn::of(on));
    let property_kind = if on.unit.gifts_at_basis { &brings::PROPERTY_BASIS } else { &brings::PROPERTY };
    let kinds = [
        (L11, &brings::CASH),
        (OTHERS, &brings::OTHERS),
        (GOODS, &brings::GOODS),
        (PROPERTY, property_kind),
        (OTHER_PROPERTY, &brings::OTHER_PROPERTY),
    ];
    on.parts(trail, L14, &kinds);
    let most = Most::of(on, trail, agi);
    let [cash, goods, property] = to_public(on, trail, &given, &carried, &most);
    // What public charities had, with property in full, comes before other organizations (§170(b)(1)(B)(ii)).
    let public_used = cash.carried + goods.carried + property.carried;
    let before = given.cash + given.goods + given.property + public_used;
    let left = LeftForOthers {
        all: settled::lesser(most.property, limit::or_zero(trail, most.all - before)),
        property: settled::lesser(
            most.other_property,
            limit::or_zero(trail, most.property - given.property - property.carried),
        ),
    };
    let [others, other_property] = to_others(on, trail, &given, &carried, left);
    let classes = [
        (CARRIED_CASH, &carried.cash, given.cash, cash),
        (CARRIED_GOODS, &carried.goods, given.as_goods(on), goods),
        (CARRIED_PROPERTY, &carried.property, given.as_property(on), property),
        (CARRIED_OTHERS, &carried.others, given.others, others),
        (CARRIED_OTHER_PROPERTY, &carried.other_property, given.other_property, other_property),
    ];
    let used = trail.line(L13, on.scope, classes.iter().map(|(.., counted)| counted.carried).sum(), |i| {
        i.items(carried.all().map(|c| &c.item));
    });
    let floors =
        below_floor(on, trail, agi, classes.map(|(.., counted)| counted.this_year + counted.carried));
    for ((line, carried, entered, counted), below) in classes.into_iter().zip(floors) {
        carry_out(on, trail, line, carried, entered, (counted, below));
    }
    let this_year: Money = classes.iter().map(|(.., counted)| counted.this_year).sum();
    let below: Money = floors.into_iter().sum();
    let allowed = this_year + used - below;
    if !below.is_zero() {
        limit::given(trail, GIFTS_FLOOR.at(on.scope), limit::Shape::Floor, this_year + used, allowed);
    }
    trail.line(L14, on.scope, allowed, |i| {
        if !below.is_zero() {
            i.figure("Below the floor", below);
        }
        i.line(L11, on.scope, given.cash + given.others)
            .line(L12, on.scope, given.goods + given.property + given.other_property)
            .line(L13, on.scope, used)
            .figure("Cash, at most", most.cash)
            .figure("Together without cash above it, at most", most.all);
        if !given.as_property(on).is_zero() {
            i.figure("Property, at most", most.property);
        }
    })
}

/// What the floor takes of each class, in the order of `reckon`: property to other organizations first, cash last
/// (§170(b)(1)(I)(ii)). `allowed` is what each class would come to.
fn below_floor(on: On<'_>, trail: &mut impl Trail, agi: Money, allowed: [Money; 5]) -> [Money; 5] {
    const ORDER: [usize; 5] = [4, 2, 3, 1, 0];
    let mut taken = [Money::ZERO; 5];
    let Some(figures) = on.facts.figures.gift_floor.as_deref() else { return taken };
    let base = limit::or_zero(trail, agi);
    let mut floor = base.times(figures.part, Money::WHOLE, Rounding::HalfUp);
    for class in ORDER {
        taken[class] = limit::lesser(trail, floor, allowed[class]);
        floor -= taken[class];
    }
    taken
}

/// To public charities: cash, goods, property.
fn to_public(
    on: On<'_>,
    trail: &mut impl Trail,
    given: &Given,
    carried: &CarriedIn,
    most: &Most,
) -> [Counted; 3] {
    let cash = limit::cap(trail, GIFTS_CASH.at(on.scope), given.cash, most.cash);
    let mut left = Left { cash: most.cash - cash, all: most.all - cash, property: most.property };
    let cash_first = on.facts.figures.gift_carryover_order.cash_carryover_before_goods;
    let mut cash_used = if cash_first { left.cash_carried(on, trail, &carried.cash) } else { Money::ZERO };
    let goods = left.take(trail, GIFTS_GOODS.at(on.scope), given.as_goods(on));
    if !cash_first {
        cash_used = left.cash_carried(on, trail, &carried.cash);
    }
    let goods_used = left.take(trail, GIFTS_GOODS_CARRIED.at(on.scope), sum(&carried.goods));
    let property = left.take_property(trail, GIFTS_PROPERTY.at(on.scope), given.as_property(on));
    let property_used =
        left.take_property(trail, GIFTS_PROPERTY_CARRIED.at(on.scope), sum(&carried.property));
    [
        Counted { this_year: cash, carried: cash_used },
        Counted { this_year: goods, carried: goods_used },
        Counted { this_year: property, carried: property_used },
    ]
}

/// To other organizations: cash and the rest, then property held long.
fn to_others(
    on: On<'_>,
    trail: &mut impl Trail,
    given: &Given,
    carried: &CarriedIn,
    mut left: LeftForOthers,
) -> [Counted; 2] {
    let others = left.take(trail, GIFTS_OTHERS.at(on.scope), given.others);
    let others_used = left.take(trail, GIFTS_OTHERS_CARRIED.at(on.scope), sum(&carried.others));
    let property = left.take_property(trail, GIFTS_OTHER_PROPERTY.at(on.scope), given.other_property);
    let at = GIFTS_OTHER_PROPERTY_CARRIED.at(on.scope);
    let property_used = left.take_property(trail, at, sum(&carried.other_property));
    [
        Counted { this_year: others, carried: others_used },
        Counted { this_year: property, carried: property_used },
    ]
}

/// What is left for organizations that are no public charities.
struct LeftForOthers {
    all: Money,
    property: Money,
}

impl LeftForOthers {
    #[track_caller]
    fn take(&mut self, trail: &mut impl Trail, at: LimitAt, entered: Money) -> Money {
        let allowed = limit::cap(trail, at, entered, self.all);
        self.all -= allowed;
        allowed
    }

    #[track_caller]
    fn take_property(&mut self, trail: &mut impl Trail, at: LimitAt, entered: Money) -> Money {
        let most = limit::lesser(trail, self.all, self.property);
        let allowed = limit::cap(trail, at, entered, most);
        self.all -= allowed;
        self.property -= allowed;
        allowed
    }
}

/// What the percentages still leave.
struct Left {
    cash: Money,
    all: Money,
    property: Money,
}

impl Left {
    /// What goes within the 50 %.
    #[track_caller]
    fn take(&mut self, trail: &mut impl Trail, at: LimitAt, entered: Money) -> Money {
        let most = limit::or_zero(trail, self.all);
        let allowed = limit::cap(trail, at, entered, most);
        self.all -= allowed;
        allowed
    }

    /// What goes within the 30 %, and within what is left of the 50 %.
    #[track_caller]
    fn take_property(&mut self, trail: &mut impl Trail, at: LimitAt, entered: Money) -> Money {
        let most = limit::lesser(trail, self.all, self.property);
        let most = limit::or_zero(trail, most);
        let allowed = limit::cap(trail, at, entered, most);
        self.all -= allowed;
        self.property -= allowed;
        allowed
    }

    /// Cash carried over, as far as the cash limit leaves room; it takes from both.
    fn cash_carried(&mut self, on: On<'_>, trail: &mut impl Trail, carried: &[Carried]) -> Money {
        let used = limit::cap(trail, GIFTS_CASH_CARRIED.at(on.scope), sum(carried), self.cash);
        self.cash -= used;
        self.all -= used;
        used
    }
}

/// Gifts carried in that have not run out, oldest first; where property is taken at its basis, what of it is carried is goods.
fn carried(on: On<'_>, class: Class) -> Vec<Carried> {
    let year = i64::from(on.facts.figures.year);
    let alive = year - on.facts.figures.gifts.carried_years..year;
    let all = on.owns().flat_map(|(_, own)| own.of(&brings::CARRIED));
    let at_basis = |c: &Carried| match c.class {
        Class::Property if on.unit.gifts_at_basis => {
            Carried { class: Class::Goods, item: Item { amount: c.at_basis, ..c.item }, ..c.clone() }
        }
        _ => c.clone(),
    };
    let mut found: Vec<_> =
        all.map(at_basis).filter(|c| c.class == class && alive.contains(&c.year)).collect();
    found.sort_by_key(|c| c.year);
    found
}

fn sum(carried: &[Carried]) -> Money {
    carried.iter().map(|c| c.item.amount).sum::<Money>().to_whole()
}

/// What goes into next year: the rest of this year, and of what came in all but the year that runs out; where there is any, what
/// the floor took goes with it (§170(d)(1)(C)).
fn carry_out(
    on: On<'_>,
    trail: &mut impl Trail,
    id: LineId,
    carried: &[Carried],
    entered: Money,
    (counted, below): (Counted, Money),
) {
    let expires = i64::from(on.facts.figures.year) - on.facts.figures.gifts.carried_years;
    let mut unused = counted.carried;
    let mut rest = Money::ZERO;
    for gift in carried {
        let used = limit::lesser(trail, gift.item.amount, unused);
        unused -= used;
        if gift.year > expires {
            rest += gift.item.amount - used;
        }
    }
    let items: Vec<Item> = carried.iter().map(|c| c.item).collect();
    let over = (entered - counted.this_year + rest).to_whole();
    let with_floor = if over.is_zero() { over } else { over + below };
    trail.line(id, on.scope, with_floor, |i| {
        i.items(&items);
    });
}

/// Form 8283: where the return deducts more than an amount of gifts other than cash.
pub fn form_8283(filed: Filed<'_>) -> Required {
    let above = filed.on.facts.figures.gifts.form_8283_above;
    let given = filed.on.unit.itemizes && filed.amount(L12) > above;
    Required::if_so(given, format!("no more than {above:#} of goods or property deducted"))
}

/// The worksheet: where gifts go into next year.
pub fn worksheet(filed: Filed<'_>) -> Required {
    let all = [CARRIED_CASH, CARRIED_GOODS, CARRIED_PROPERTY, CARRIED_OTHERS, CARRIED_OTHER_PROPERTY];
    let any = all.into_iter().any(|line| filed.has(line));
    Required::if_so(any, "nothing carried over")
}
