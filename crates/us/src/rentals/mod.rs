//! Rents and royalties (§§61(a)(5), (6), 162, 212, 280A), Schedule E, Part I: what came in less what was spent, property by property,
//! as far as the passive losses of Form 8582 are allowed.

mod paper;
mod points;

use crate::{
    business_property::Property as Sold,
    facts::Facts,
    pass_through,
    passive_losses::{self, Activity},
    unit::{Filed, On},
};
use hembo_core::{
    forms::Required,
    line::LineId,
    lines, open_points,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Silent, Trail},
};
use hembo_money::Money;

use paper::RENTAL;
pub use paper::read;
pub use points::points;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[RENTAL], points: POINTS, figures: &["rental"], ..Provision::NONE };

lines! {
    RENTS = "us.sched_e.23a", "Rents", "IRC §61(a)(5)",
        "Line 3 of every rented property.";
    ROYALTIES = "us.sched_e.23b", "Royalties", "IRC §61(a)(6)",
        "Line 4 of every property.";
    EXPENSES = "us.sched_e.23e", "Expenses of rents and royalties", "IRC §§162(a), 212",
        "Lines 5 to 19 of every property.";
    pub L26 = "us.sched_e.26", "Rents and royalties, net", "IRC §§61(a)(5), (6), 469",
        "What came in less expenses, losses as far as they are allowed.";
}

open_points! {
    DAYS = blocks "K-079", "IRC §280A(d)",
        "Rented and own days together are no more than the year has.";
    RENTED_DAYS = blocks "rental-days", "IRC §280A(d)(1)",
        "Enter the days at a fair rent: own use is measured by them.";
    KIND = blocks "rental-kind", "Schedule E, line 1b",
        "Choose the type of property.";
    HOME_LOSS = not_covered "rental-home-loss", "IRC §280A(c)(5)";
    FEW_DAYS = look "rental-few-days", "IRC §280A(g)",
        "Neither the rent nor its expenses count; interest and taxes stay on Schedule A.";
    NOT_AT_RISK = not_covered "rental-at-risk", "IRC §465";
    ACTIVE = blocks "rental-active", "IRC §469(i)(6)",
        "The allowance for losses is for who owns a tenth or more and takes part in decisions: answer the question.";
    SOLD_KIND = not_covered "rental-sold", "IRC §§121, 280A, 1231";
    SOLD_BUSINESS = not_covered "rental-sold-business", "IRC §§199A(c), 1231(c)";
    RECHARACTERIZED = not_covered "rental-recharacterized", "Reg. §1.469-2(f)";
    STAY = blocks "rental-stay", "Reg. §1.469-1T(e)(3)(ii)(A)",
        "Where guests stay seven days or less on average it is no rental activity: answer the question.";
    PARTICIPATES = look "rental-participates", "IRC §469(c)(7), (h)",
        "Keep the record of hours: this loss is taken in full.";
    NO_DEPRECIATION = look "rental-depreciation", "IRC §§167(a), 1016(a)(2)",
        "A building loses its basis whether or not it is deducted: enter line 18, or the cost and the first month.";
    OLD_BUILDING = blocks "rental-old-building", "IRC §168(c); P.L. 103-66 §13151",
        "Enter line 18, zero too: a building first let so early has another life than 39 years.";
    BUSINESS = look "C-78", "Reg. §1.199A-1(b)(14); Rev. Proc. 2019-38",
        "As a trade or business (250 hours, with records) its profit counts for the qualified business income: answer the question.";
}

/// How §469 and §1411 look at a property.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Class {
    /// Royalties: portfolio income.
    Royalty,
    /// A home of one's own as well (§469(j)(10)).
    Home,
    /// Material participation: no passive activity.
    Working,
    /// Income of property let to one's own business (Reg. §1.469-2(f)(6)).
    OwnBusiness,
    /// Income of land (Reg. §1.469-2T(f)(3)).
    Land,
    /// Rental real estate with active participation (§469(i)).
    Active,
    /// Any other passive activity.
    Passive,
}

/// A property of an owner.
#[derive(Debug, Clone)]
pub struct Rental {
    /// Where it stands among the papers.
    pub paper: usize,
    received: Vec<Item>,
    spent: Vec<Item>,
    carried: Vec<Item>,
    class: Class,
    /// What of a hundred belongs to the owner.
    share: Money,
    /// A trade or business (§199A).
    business: bool,
    /// Unadjusted basis of qualified property.
    property: Money,
    /// The gain or loss of its sale, held over a year or not.
    sold: Option<(Money, bool)>,
}

/// What its papers bring.
pub mod brings {
    use super::Rental;
    use hembo_core::brought::Brought;

    /// Properties.
    pub static RENTALS: Brought<Rental> = Brought::new();
}

/// The properties of a person.
pub fn of(facts: &Facts, person: usize) -> &[Rental] {
    facts.people[person].own.of(&brings::RENTALS)
}

impl Rental {
    /// What the owner's part comes to before any limit, to the cent.
    fn net(&self) -> Money {
        sum(&self.received) - sum(&self.spent)
    }
}

/// A property on a return: of one person, or of both spouses.
struct Property<'a> {
    parts: Vec<(usize, &'a Rental)>,
}

impl<'a> Property<'a> {
    fn items(&self, of: fn(&Rental) -> &[Item]) -> impl Iterator<Item = &'a Item> {
        self.parts.iter().flat_map(move |(_, rental)| of(rental))
    }

    fn received(&self) -> impl Iterator<Item = &'a Item> {
        self.items(|rental| &rental.received)
    }

    fn spent(&self) -> impl Iterator<Item = &'a Item> {
        self.items(|rental| &rental.spent)
    }

    fn gross(&self) -> Money {
        sum(self.received()).to_whole()
    }

    fn expenses(&self) -> Money {
        sum(self.spent()).to_whole()
    }

    /// Line 21, before any limit.
    fn net(&self) -> Money {
        self.gross() - self.expenses()
    }

    fn rental(&self) -> &'a Rental {
        self.parts[0].1
    }

    fn class(&self) -> Class {
        self.rental().class
    }

    fn is_passive(&self) -> bool {
        matches!(self.class(), Class::Active | Class::Passive)
    }

    fn carried(&self) -> Money {
        sum(self.items(|rental| &rental.carried)).to_whole()
    }

    /// The gain or loss of its sale.
    fn gain(&self) -> Money {
        let gains = self.parts.iter().filter_map(|(_, rental)| rental.sold);
        gains.map(|(gain, _)| gain).sum::<Money>().to_whole()
    }

    /// Sold with a loss in all, so that no limit holds any more (§469(g)(1)(A)).
    fn is_released(&self) -> bool {
        self.rental().sold.is_some() && (self.net() + self.gain() - self.carried()).is_negative()
    }

    fn activity(&self) -> Activity {
        let active = self.class() == Class::Active;
        Activity { net: self.net() + self.gain(), carried: self.carried(), active }
    }
}

/// The properties of a return, each once.
fn all(on: On<'_>) -> Vec<Property<'_>> {
    let mut all: Vec<Property<'_>> = Vec::new();
    for (person, rental) in on.unit.people.iter().flat_map(|&p| of(on.facts, p).iter().map(move |r| (p, r))) {
        match all.iter_mut().find(|property| property.rental().paper == rental.paper) {
            Some(property) => property.parts.push((person, rental)),
            None => all.push(Property { parts: vec![(person, rental)] }),
        }
    }
    all
}

/// A property with what it comes to on a return.
struct Result<'a> {
    property: Property<'a>,
    amount: Money,
}

impl Result<'_> {
    /// A person's part of it, by what each owns.
    fn part(&self, person: usize) -> Money {
        let weights: Vec<i64> = self.property.parts.iter().map(|(_, rental)| rental.share.cents()).collect();
        let parts = self.amount.split(&weights).into_iter().zip(&self.property.parts);
        parts.filter(|(_, (owner, _))| *owner == person).map(|(part, _)| part).sum()
    }
}

/// What the properties of a return come to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Rents {
    /// Line 26.
    pub net: Money,
    /// What came in, no expenses taken off.
    pub gross: Money,
    /// Royalties less their expenses.
    pub royalties: Money,
    /// What of it and of other passive income counts for the net investment income tax (§1411(c)).
    pub invested: Money,
    /// What counts as investment income for the earned income credit (§32(i)).
    pub for_earned_income_credit: Money,
    /// The modified adjusted gross income that the allowance goes by.
    pub modified: Money,
}

/// What no passive activity brings, a professional's losses left out (Form 8582, line 6).
pub fn for_modified(on: On<'_>) -> Money {
    let counts = |property: Property<'_>| match property.class() {
        Class::Working => settled::or_zero(property.net()),
        Class::Active | Class::Passive if property.is_released() => property.net() - property.carried(),
        Class::Active | Class::Passive => Money::ZERO,
        _ => property.net(),
    };
    all(on).into_iter().map(counts).sum()
}

/// Gains of passive properties that were sold, as far as Form 8582 has them, of those held over a year.
pub fn passive_gains(on: On<'_>) -> Money {
    let counts = |property: &Property<'_>| property.is_passive() && !property.is_released();
    let long = |property: &Property<'_>| property.rental().sold.is_some_and(|(_, long)| long);
    all(on).iter().filter(|p| counts(p) && long(p)).map(Property::gain).sum()
}

/// The same of what was held a year or less.
pub fn passive_short_gains(on: On<'_>) -> Money {
    let counts = |property: &Property<'_>| property.is_passive() && !property.is_released();
    let short = |property: &Property<'_>| property.rental().sold.is_some_and(|(_, long)| !long);
    all(on).iter().filter(|p| counts(p) && short(p)).map(Property::gain).sum()
}

/// Every property with its result, and what Form 8582 holds back of each passive share in a firm or trust, less what it frees.
fn results<'a>(on: On<'a>, trail: &mut impl Trail, modified: Money) -> (Vec<Result<'a>>, Vec<Money>) {
    let limited = |property: &Property<'_>| property.is_passive() && !property.is_released();
    let (passive, others): (Vec<_>, Vec<_>) = all(on).into_iter().partition(limited);
    let shares = pass_through::passive(on);
    let mut activities: Vec<Activity> = passive.iter().map(Property::activity).collect();
    if !activities.is_empty() || shares.iter().any(|share| share.activity.overall().is_negative()) {
        activities.extend(shares.iter().map(|share| share.activity));
    }
    let allowed = passive_losses::reckon(on, trail, modified, &activities);
    let held_back = allowed.iter().skip(passive.len()).zip(&shares);
    let held_back = held_back.map(|(allowed, share)| *allowed - share.activity.net).collect();
    let limited = passive.into_iter().zip(allowed);
    let limited = limited.map(|(property, amount)| Result { amount: amount - property.gain(), property });
    let free = others.into_iter().map(|property| {
        let released = if property.is_passive() { property.carried() } else { Money::ZERO };
        Result { amount: property.net() - released, property }
    });
    (limited.chain(free).collect(), held_back)
}

/// Line 26, at a modified adjusted gross income without it, and what is held back of each passive share in a firm or trust.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, modified: Money) -> (Rents, Vec<Money>) {
    let (all, shares) = results(on, trail, modified);
    let through: Money = pass_through::passive(on).iter().map(|share| share.of_schedule_e()).sum();
    let through = through + shares.iter().copied().sum::<Money>();
    if all.is_empty() {
        let counted = settled::or_zero(through);
        let rents =
            Rents { invested: through, for_earned_income_credit: counted, modified, ..Rents::default() };
        return (rents, shares);
    }
    let received = |royalty: bool| {
        let of = all.iter().filter(move |r| (r.property.class() == Class::Royalty) == royalty);
        of.map(|r| r.property.gross()).sum::<Money>()
    };
    let (rents, royalties) = (received(false), received(true));
    let expenses: Money = all.iter().map(|r| r.property.expenses()).sum();
    parts(on, trail, [rents, royalties, expenses]);
    let net: Money = all.iter().map(|r| r.amount).sum();
    let held_back = net - (rents + royalties - expenses);
    trail.line(L26, on.scope, net, |i| {
        i.line(RENTS, on.scope, rents)
            .line(ROYALTIES, on.scope, royalties)
            .line(EXPENSES, on.scope, expenses);
        if !held_back.is_zero() {
            i.figure("Losses held back, less those of earlier years", held_back);
        }
    });
    if on.unit.people.len() > 1 {
        of_each(on, trail, &all);
    }
    let sum_of = |counts: fn(Class) -> bool| {
        all.iter().filter(|r| counts(r.property.class())).map(|r| r.amount).sum::<Money>()
    };
    let passive = sum_of(|class| matches!(class, Class::Active | Class::Passive)) + through;
    let other = sum_of(|class| matches!(class, Class::Royalty | Class::Land | Class::Home));
    let rents = Rents {
        net,
        gross: rents + royalties,
        royalties: sum_of(|class| class == Class::Royalty),
        invested: passive + other,
        // An ordinary gain of a passive property counts (Pub. 596, Worksheet 1, line 11).
        for_earned_income_credit: settled::or_zero(passive + passive_short_gains(on))
            + settled::or_zero(other),
        modified,
    };
    (rents, shares)
}

/// What of a property a line is made of.
type Part = fn(&Rental) -> &[Item];

/// The three lines with what they are made of.
const PARTS: [(LineId, Part); 3] = [
    (RENTS, |rental| if rental.class == Class::Royalty { &[] } else { &rental.received }),
    (ROYALTIES, |rental| if rental.class == Class::Royalty { &rental.received } else { &[] }),
    (EXPENSES, |rental| &rental.spent),
];

/// Lines 23a, 23b and 23e; on a joint return each spouse's part is a line of its own.
fn parts(on: On<'_>, trail: &mut impl Trail, amounts: [Money; 3]) {
    for ((line, items), amount) in PARTS.into_iter().zip(amounts) {
        let of = |person: usize| rentals(on, person).flat_map(items);
        if on.unit.people.len() == 1 {
            trail.line(line, on.scope, amount, |i| {
                i.items(of(on.unit.people[0]));
            });
            continue;
        }
        for &person in &on.unit.people {
            trail.line(line, Scope::Person(person), sum(of(person)), |i| {
                i.items(of(person));
            });
        }
        trail.line(line, on.scope, amount, |i| {
            for &person in &on.unit.people {
                i.line(line, Scope::Person(person), sum(of(person)));
            }
        });
    }
}

fn rentals(on: On<'_>, person: usize) -> std::slice::Iter<'_, Rental> {
    of(on.facts, person).iter()
}

/// Each spouse's part of line 26 on a joint return.
fn of_each(on: On<'_>, trail: &mut impl Trail, all: &[Result<'_>]) {
    for &person in on.unit.people.iter().filter(|&&p| !of(on.facts, p).is_empty()) {
        let scope = Scope::Person(person);
        trail.line(L26, scope, all.iter().map(|r| r.part(person)).sum(), |i| {
            for (line, items) in PARTS {
                let amount = sum(rentals(on, person).flat_map(items));
                if !amount.is_zero() {
                    i.line(line, scope, amount);
                }
            }
        });
    }
}

/// What a person's properties come to on a return.
pub fn of_person(on: On<'_>, rents: &Rents, person: usize) -> Money {
    let (all, _) = results(on, &mut Silent, rents.modified);
    all.iter().map(|r| r.part(person)).sum()
}

/// What is let as a trade or business.
#[derive(Debug, Clone, Copy)]
pub struct LetOut {
    /// What it comes to.
    pub income: Money,
    /// Unadjusted basis of qualified property.
    pub property: Money,
}

/// The properties that are a trade or business (§199A); of a sale what is ordinary counts too (Reg. §1.199A-3(b)(2)(ii)(A)).
pub fn businesses(on: On<'_>, rents: &Rents, sold: Sold) -> Vec<LetOut> {
    let (all, _) = results(on, &mut Silent, rents.modified);
    let business = all.into_iter().filter(|r| r.property.rental().business);
    let basis = |r: &Result<'_>| r.property.parts.iter().map(|(_, rental)| rental.property).sum();
    let ordinary = |r: &Result<'_>| match r.property.rental().sold {
        Some((_, long)) if !long || sold.net.is_negative() => r.property.gain(),
        _ => Money::ZERO,
    };
    business.map(|r| LetOut { income: r.amount + ordinary(&r), property: basis(&r) }).collect()
}

/// Whether anything that a person lets is a trade or business.
pub fn any_business(facts: &Facts, person: usize) -> bool {
    of(facts, person).iter().any(|rental| rental.business)
}

/// Schedule E: where anything was let, or brought royalties, or comes from a partnership, S corporation, estate or trust.
pub fn schedule_e(filed: Filed<'_>) -> Required {
    Required::if_so(!all(filed.on).is_empty() || pass_through::any(filed), "no rents, royalties or shares")
}
