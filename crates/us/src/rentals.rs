//! Rents and royalties (§§61(a)(5), (6), 162, 212, 280A), Schedule E, Part I: what came in less what was spent, property by property,
//! as far as the passive losses of Form 8582 are allowed.

use crate::{
    bringing::Bringing,
    business,
    business_property::{self, Property as Sold, Sale},
    facts::Facts,
    figures, pass_through,
    passive_losses::{self, Activity},
    points::Points,
    rental_depreciation, states,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    line::LineId,
    lines, open_points,
    paper::{Back, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Silent, Trail},
};
use hembo_money::Money;
use std::sync::Arc;

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

const KINDS: &[Choice] = &[
    Choice::new("single", "1 Single family"),
    Choice::new("multi", "2 Multi-family"),
    Choice::new("short", "3 Vacation, short-term"),
    Choice::new("commercial", "4 Commercial"),
    Choice::new("land", "5 Land"),
    Choice::new("royalties", "6 Royalties"),
    Choice::new("self", "7 Let to own business"),
    Choice::new("other", "8 Other"),
];

/// The lines of expenses, without depreciation.
const SPENT: [&str; 14] = ["5", "6", "7", "8", "9", "10", "11", "12", "13", "14", "15", "16", "17", "19"];

const SOLD: [Field; 7] = business_property::BOXES;

const RENTAL: PaperKind = PaperKind {
    id: "Schedule E",
    subject: subject::OWN_WORK,
    name: "Rented property, royalties",
    words: "rent rental landlord house apartment flat lease tenant royalties schedule e vacation 8582",
    title: "Property",
    shared: true,
    headline: "3",
    boxes: &[
        Field::choice("kind", "1b", "Type of property", KINDS),
        Field::count("days", "2", "Days at a fair rent", 366),
        Field::count("own_days", "2", "Days of own use", 366)
            .help("The family's, too, and below a fair rent."),
        Field::yes_no("active", "", "Takes part in decisions")
            .help("And owns a tenth or more: for the allowance of losses."),
        Field::yes_no("short_stay", "", "Guests stay 7 days or less")
            .help("On average. With substantial services it is a business of one's own, Schedule C."),
        Field::yes_no("professional", "", "Real estate professional")
            .help("Over 750 hours, and over half of all work, in real property trades."),
        Field::yes_no("participates", "", "Materially participates")
            .help("Of a professional, or where guests stay 7 days or less."),
        Field::yes_no("not_at_risk", "", "Not at risk for all of it").help("Form 6198."),
        Field::amount("3", "3", "Rents received"),
        Field::amount("4", "4", "Royalties received"),
        Field::amount("5", "5", "Advertising").help("Of all expenses the part that belongs to the renting."),
        Field::amount("6", "6", "Auto and travel"),
        Field::amount("7", "7", "Cleaning and maintenance"),
        Field::amount("8", "8", "Commissions"),
        Field::amount("9", "9", "Insurance"),
        Field::amount("10", "10", "Legal and professional"),
        Field::amount("11", "11", "Management fees"),
        Field::amount("12", "12", "Mortgage interest, banks"),
        Field::amount("13", "13", "Other interest"),
        Field::amount("14", "14", "Repairs"),
        Field::amount("15", "15", "Supplies"),
        Field::amount("16", "16", "Taxes"),
        Field::amount("17", "17", "Utilities"),
        Field::amount("18", "18", "Depreciation, depletion")
            .help("From Form 4562; left empty, it is reckoned from the two boxes below."),
        Field::amount("cost", "", "Cost of the building").help("Without the land."),
        Field::date("since", "", "First let on"),
        Field::amount("19", "19", "Other expenses"),
        Field::amount("carried", "", "Loss not allowed in earlier years").help("Form 8582 of last year."),
        Field::yes_no("business", "", "A trade or business")
            .help("For the qualified business income: 250 hours a year, with records."),
        Field::amount("property", "", "Basis of qualified property")
            .help("Unadjusted; only above the income threshold."),
        SOLD[0],
        SOLD[1],
        SOLD[2],
        SOLD[3],
        SOLD[4],
        SOLD[5],
        SOLD[6],
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
};

fn count(boxes: &Answers, id: &str) -> i64 {
    boxes.get(id).and_then(Entry::count).unwrap_or(0)
}

/// Used as a home as well: own days over 14 and over a tenth of the rented ones (§280A(d)(1)).
fn is_home(boxes: &Answers, figures: &figures::Rental) -> bool {
    let (own, rented) = (count(boxes, "own_days"), count(boxes, "days"));
    own > figures.home_days && own * figures.home_share > rented
}

/// Let for so few days that it is left out (§280A(g)).
fn is_left_out(boxes: &Answers, figures: &figures::Rental) -> bool {
    is_home(boxes, figures) && count(boxes, "days") < figures.few_days
}

/// The class of a property, with what it brought.
fn class(paper: &Paper, figures: &figures::Rental, income: bool) -> Class {
    match paper.text("kind") {
        Some("royalties") => return Class::Royalty,
        _ if is_home(&paper.boxes, figures) => return Class::Home,
        _ if works_in(paper) => return Class::Working,
        Some("self") if income => return Class::OwnBusiness,
        Some("land") if income => return Class::Land,
        _ => {}
    }
    if paper.flag("active") && !paper.flag("short_stay") { Class::Active } else { Class::Passive }
}

/// Material participation of a professional, or in what is no rental activity.
fn works_in(paper: &Paper) -> bool {
    paper.flag("participates") && (paper.flag("professional") || paper.flag("short_stay"))
}

/// Gives each owner a part of the property.
pub fn read(paper: &mut Bringing<'_>) {
    let (reading, of_year) = (paper.paper, Arc::clone(&paper.facts.figures));
    let (of, figures) = (reading.paper, &of_year.rental);
    if is_left_out(&of.boxes, figures) {
        return;
    }
    paper.earns();
    let (field, written_off) = rental_depreciation::of(of, figures, of_year.year);
    let spent = SPENT.into_iter().map(|id| (id, of.amount(id))).chain([(field, written_off)]);
    let spent: Vec<_> = spent.filter(|(_, amount)| !amount.is_zero()).collect();
    let total: Money = spent.iter().map(|(_, amount)| *amount).sum();
    let sold = business_property::sold_on(of).map(|_| business_property::amounts(of));
    let gain: Money = sold.into_iter().flatten().map(|(_, amount)| amount).sum();
    let class = class(of, figures, of.amount("3") + of.amount("4") + gain > total);
    let parts = |person: usize, field: &'static str, amount: Money| {
        let all = reading.parts(field, None, amount).into_iter();
        all.filter(|(owner, _)| *owner == person).map(|(_, item)| item).collect::<Vec<_>>()
    };
    let shares = reading.shares(Money::whole(100)).into_iter();
    let invested = !matches!(class, Class::Working | Class::OwnBusiness);
    let long = business_property::is_long(of);
    for ((person, property), (_, share)) in reading.shares(of.amount("property")).into_iter().zip(shares) {
        let rental = Rental {
            paper: reading.index,
            received: ["3", "4"].into_iter().flat_map(|id| parts(person, id, of.amount(id))).collect(),
            spent: spent.iter().flat_map(|&(id, amount)| parts(person, id, amount)).collect(),
            carried: parts(person, "carried", of.amount("carried")),
            class,
            share,
            business: of.flag("business") && class != Class::Royalty,
            property,
            sold: None,
        };
        let sale = sold.map(|amounts| {
            let items = amounts.into_iter().flat_map(|(id, amount)| parts(person, id, amount)).collect();
            let depreciation = sum(&parts(person, "written_off", of.amount("written_off")));
            Sale { items, long, depreciation, invested }
        });
        let rental = Rental { sold: sale.as_ref().map(|sale| (sale.gain(), long)), ..rental };
        if let Some(sale) = sale {
            paper.facts.people[person].own.add(&business_property::brings::SALES, sale);
        }
        paper.facts.people[person].own.add(&brings::RENTALS, rental);
    }
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

/// What a property must tell.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RENTAL.id) {
        days(points, paper);
        one(points, paper);
    }
    for person in 0..points.facts.people.len() {
        let worked: Vec<_> = of(points.facts, person).iter().filter(|r| r.class == Class::Working).collect();
        if let Some(first) = worked.first() {
            let net: Money = worked.iter().map(|r| r.net()).sum();
            let lost = business::lost(points.facts, person) - net;
            let place = Place::paper(&points.household.papers[first.paper].id, "participates");
            business::excess_loss(points, place, lost);
        }
    }
    ordinary_losses(points);
}

/// Ordinary losses of sales so large that they are limited.
fn ordinary_losses(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let lost = -points.amount(business_property::ORDINARY, place);
        let businesses: Money = unit.people.iter().map(|&p| business::lost(points.facts, p)).sum();
        if lost > Money::ZERO {
            business::excess_loss(points, points.whose(unit), lost + settled::or_zero(businesses));
        }
    }
}

fn days(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let (rented, own) = (count(&paper.boxes, "days"), count(&paper.boxes, "own_days"));
    let year = i64::from(time::util::days_in_year(points.facts.figures.year));
    if rented + own > year {
        points.raise(&DAYS, at("own_days"), format!("{} days, and the year has {year}.", rented + own));
    }
    let figures = &points.facts.figures.rental;
    if own > figures.home_days && !paper.boxes.contains_key("days") {
        points.raise(&RENTED_DAYS, at("days"), "For how many days was it let?");
    } else if is_left_out(&paper.boxes, figures) {
        points.raise(&FEW_DAYS, at("days"), "A home that was let for so few days is left out.");
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let Some(kind) = paper.text("kind") else {
        return points.raise(&KIND, at("kind"), "What was let?");
    };
    let owner = paper.owners.first().and_then(|o| points.household.index_of(&o.person));
    let here = |r: &&Rental| points.household.papers[r.paper].id == paper.id;
    let Some(rental) = owner.and_then(|p| of(points.facts, p).iter().find(here)) else { return };
    let said = |field: &str| paper.boxes.contains_key(field);
    business_property::of_paper(points, paper);
    sold(points, paper, rental);
    let loss = rental.net().is_negative() || !paper.amount("carried").is_zero();
    if kind == "short" && !said("short_stay") {
        points.raise(&STAY, at("short_stay"), "Do guests stay seven days or less on average?");
    }
    if loss && paper.flag("not_at_risk") {
        points.raise(&NOT_AT_RISK, at("not_at_risk"), "The at-risk limit is not computed yet.");
    }
    match rental.class {
        Class::Home if loss => {
            points.raise(&HOME_LOSS, at("own_days"), "A loss of a home that is let is limited.")
        }
        Class::OwnBusiness | Class::Land if !paper.amount("carried").is_zero() => points.raise(
            &RECHARACTERIZED,
            at("carried"),
            "Losses of earlier years beside income that is not passive.",
        ),
        Class::Working if loss => points.raise(&PARTICIPATES, at("participates"), "A loss in full."),
        Class::Passive if loss && !said("active") && !paper.flag("short_stay") => {
            points.raise(&ACTIVE, at("active"), "This property has a loss.");
        }
        _ => {}
    }
    let building = matches!(kind, "single" | "multi" | "short" | "commercial" | "self");
    let since = paper.boxes.get("since").and_then(Entry::date);
    let old = since.is_some_and(|since| since < points.facts.figures.rental.other_since.0);
    if matches!(kind, "commercial" | "self") && old && !said("18") {
        points.raise(&OLD_BUILDING, at("18"), "How much is written off of this building this year?");
    } else if building && !rental.spent.iter().any(|item| ["18", "cost"].contains(&item.field)) {
        points.raise(&NO_DEPRECIATION, at("18"), "No depreciation is taken.");
    }
    if rental.class != Class::Royalty && !rental.net().is_negative() && !said("business") {
        points.raise(&BUSINESS, at("business"), "Is this letting a trade or business?");
    }
}

/// A sale of what is no plain letting.
fn sold(points: &mut Points<'_>, paper: &Paper, rental: &Rental) {
    let Some((gain, _)) = rental.sold else { return };
    let at = Place::paper(&paper.id, "sold");
    let losses_before = |p: usize| points.facts.people[p].own.has(&business_property::brings::LOSSES);
    let before = (0..points.facts.people.len()).any(losses_before);
    if matches!(rental.class, Class::Royalty | Class::Home) {
        points.raise(&SOLD_KIND, at, "The sale of such property is not computed yet.");
    } else if rental.business && before && !gain.is_negative() {
        points.raise(&SOLD_BUSINESS, at, "A gain that earlier losses make ordinary, of a trade or business.");
    }
}
