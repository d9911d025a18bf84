//! Shares in partnerships, S corporations, estates and trusts (§§652, 662, 702, 1366): Schedules K-1, and Schedule E, Parts II and
//! III. A loss counts where basis and amount at risk are said to cover it, as far as Form 8582 lets it.

use crate::{
    bringing::Bringing,
    business,
    business_property::{self, Sale},
    capital_gains,
    facts::Facts,
    optional_earnings,
    papers::{dividends, interest},
    passive_losses::{self, Activity},
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    household::Entry,
    line::LineId,
    lines, open_points,
    paper::{Back, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Inputs, Item, Scope, Trail},
};
use hembo_money::Money;

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

const WORKED_IN_IT: Field = Field::yes_no("participates", "", "Worked in it regularly")
    .help("Material participation: else its income is passive.");
const COVERS: Field = Field::yes_no("basis", "", "Basis and risk cover a loss")
    .help("Of the owner, at the end of the year: Form 7203 or the partner's own record, and Form 6198.");
const TAKES_PART: Field = Field::yes_no("active", "", "Takes part in decisions on rentals")
    .help("Owns a tenth or more, no limited partner: for the allowance of losses.");
const PROFESSIONAL: Field = Field::yes_no("professional", "", "Real estate professional")
    .help("Who works in it: its rental real estate is not passive then.");
const NOT_ALLOWED: Field =
    Field::amount("carried", "", "Loss not allowed in earlier years").help("Form 8582 of last year.");
const MORE_BOXES: Field = Field::yes_no("more", "", "Another box or code counts")
    .help("Credits, foreign tax, a box that is not here; or publicly traded.");
const QUALIFIED: Field = Field::signed("qualified", "", "Qualified business income")
    .help("Section 199A statement: what of the ordinary income is qualified.");
const SERVICE: Field =
    Field::yes_no("service", "", "Specified service").help("Health, law, accounting, consulting…");
const WAGES: Field = Field::amount("wages", "", "W-2 wages").help("Section 199A statement.");
const PROPERTY: Field =
    Field::amount("property", "", "Unadjusted basis of property").help("Section 199A statement.");

/// Schedule K-1 (Form 1065).
const PARTNERSHIP: PaperKind = PaperKind {
    id: "K-1 1065",
    subject: subject::OWN_WORK,
    name: "Share in a partnership",
    words: "schedule k-1 partner partnership llc member 1065",
    title: "Partnership",
    shared: false,
    headline: "1",
    boxes: &[
        WORKED_IN_IT,
        Field::signed("1", "1", "Ordinary business income"),
        Field::signed("2", "2", "Net rental real estate income"),
        Field::signed("3", "3", "Other net rental income"),
        Field::amount("4a", "4a", "Guaranteed payments for services"),
        Field::amount("4b", "4b", "Guaranteed payments for capital"),
        Field::amount("5", "5", "Interest"),
        Field::amount("6a", "6a", "Ordinary dividends"),
        Field::amount("6b", "6b", "Qualified dividends").help("The part of box 6a."),
        Field::amount("7", "7", "Royalties"),
        Field::signed("8", "8", "Net short-term capital gain"),
        Field::signed("9a", "9a", "Net long-term capital gain"),
        Field::signed("9b", "9b", "Collectibles gain (28 %)").help("The part of box 9a."),
        Field::amount("9c", "9c", "Unrecaptured section 1250 gain").help("The part of box 9a."),
        Field::signed("10", "10", "Net section 1231 gain"),
        Field::signed("11", "11", "Other income"),
        Field::amount("12", "12", "Section 179 deduction"),
        Field::amount("13", "13", "Other deductions"),
        Field::signed("14A", "14", "Code A: self-employment earnings"),
        Field::amount("18A", "18", "Code A: tax-exempt interest"),
        Field::amount("21", "21", "Foreign taxes"),
        COVERS,
        TAKES_PART,
        PROFESSIONAL,
        NOT_ALLOWED,
        MORE_BOXES,
        QUALIFIED,
        SERVICE,
        WAGES,
        PROPERTY,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
};

/// Schedule K-1 (Form 1120-S).
const CORPORATION: PaperKind = PaperKind {
    id: "K-1 1120-S",
    name: "Share in an S corporation",
    words: "schedule k-1 shareholder s corporation 1120s",
    title: "Corporation",
    boxes: &[
        WORKED_IN_IT,
        Field::signed("1", "1", "Ordinary business income"),
        Field::signed("2", "2", "Net rental real estate income"),
        Field::signed("3", "3", "Other net rental income"),
        Field::amount("4", "4", "Interest"),
        Field::amount("5a", "5a", "Ordinary dividends"),
        Field::amount("5b", "5b", "Qualified dividends").help("The part of box 5a."),
        Field::amount("6", "6", "Royalties"),
        Field::signed("7", "7", "Net short-term capital gain"),
        Field::signed("8a", "8a", "Net long-term capital gain"),
        Field::signed("8b", "8b", "Collectibles gain (28 %)").help("The part of box 8a."),
        Field::amount("8c", "8c", "Unrecaptured section 1250 gain").help("The part of box 8a."),
        Field::signed("9", "9", "Net section 1231 gain"),
        Field::signed("10", "10", "Other income"),
        Field::amount("11", "11", "Section 179 deduction"),
        Field::amount("12", "12", "Other deductions"),
        Field::amount("16A", "16", "Code A: tax-exempt interest"),
        COVERS,
        TAKES_PART,
        PROFESSIONAL,
        NOT_ALLOWED,
        MORE_BOXES,
        QUALIFIED,
        SERVICE,
        WAGES,
        PROPERTY,
    ],
    ..PARTNERSHIP
};

/// Schedule K-1 (Form 1041).
const TRUST: PaperKind = PaperKind {
    id: "K-1 1041",
    name: "Share in an estate or trust",
    words: "schedule k-1 beneficiary estate trust inheritance 1041",
    title: "Estate or trust",
    headline: "1",
    boxes: &[
        WORKED_IN_IT,
        Field::amount("1", "1", "Interest"),
        Field::amount("2a", "2a", "Ordinary dividends"),
        Field::amount("2b", "2b", "Qualified dividends").help("The part of box 2a."),
        Field::signed("3", "3", "Net short-term capital gain"),
        Field::signed("4a", "4a", "Net long-term capital gain"),
        Field::signed("4b", "4b", "28 % rate gain").help("The part of box 4a."),
        Field::amount("4c", "4c", "Unrecaptured section 1250 gain").help("The part of box 4a."),
        Field::signed("5", "5", "Other portfolio and nonbusiness income"),
        Field::signed("6", "6", "Ordinary business income"),
        Field::signed("7", "7", "Net rental real estate income"),
        Field::signed("8", "8", "Other rental income"),
        Field::amount("9", "9", "Directly apportioned deductions"),
        Field::amount("10", "10", "Estate tax deduction"),
        Field::amount("11", "11", "Final year deductions"),
        Field::signed("12", "12", "Alternative minimum tax adjustment"),
        Field::amount("14A", "14", "Code A: tax-exempt interest"),
        MORE_BOXES,
        QUALIFIED,
        SERVICE,
        WAGES,
        PROPERTY,
    ],
    ..PARTNERSHIP
};

/// Where the boxes of a kind stand, and which of them are not computed.
struct Layout {
    kind: &'static str,
    trust: bool,
    ordinary: &'static str,
    guaranteed: Option<&'static str>,
    /// Net rental real estate income, and net section 1231 gain.
    rental: Option<&'static str>,
    sold: Option<&'static str>,
    interest: &'static str,
    dividends: [&'static str; 2],
    gains: [&'static str; 2],
    layers: [&'static str; 2],
    earnings: Option<&'static str>,
    exempt: &'static str,
    others: &'static [&'static str],
}

const LAYOUTS: [Layout; 3] = [
    Layout {
        kind: PARTNERSHIP.id,
        trust: false,
        ordinary: "1",
        guaranteed: Some("4a"),
        rental: Some("2"),
        sold: Some("10"),
        interest: "5",
        dividends: ["6a", "6b"],
        gains: ["8", "9a"],
        layers: ["9b", "9c"],
        earnings: Some("14A"),
        exempt: "18A",
        others: &["3", "4b", "7", "11", "12", "13", "21"],
    },
    Layout {
        kind: CORPORATION.id,
        trust: false,
        ordinary: "1",
        guaranteed: None,
        rental: Some("2"),
        sold: Some("9"),
        interest: "4",
        dividends: ["5a", "5b"],
        gains: ["7", "8a"],
        layers: ["8b", "8c"],
        earnings: None,
        exempt: "16A",
        others: &["3", "6", "10", "11", "12"],
    },
    Layout {
        kind: TRUST.id,
        trust: true,
        ordinary: "6",
        guaranteed: None,
        rental: None,
        sold: None,
        interest: "1",
        dividends: ["2a", "2b"],
        gains: ["3", "4a"],
        layers: ["4b", "4c"],
        earnings: None,
        exempt: "14A",
        others: &["5", "7", "8", "9", "10", "11", "12"],
    },
];

fn layout(paper: &Paper) -> Option<&'static Layout> {
    LAYOUTS.iter().find(|layout| layout.kind == paper.kind)
}

/// Gives the share and what else is on the schedule to its owner.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper;
    let of = reading.paper;
    let Some(layout) = layout(of) else { return };
    paper.earns();
    paper.give(layout.interest, &interest::brings::INTEREST);
    paper.give(layout.exempt, &interest::brings::EXEMPT_INTEREST);
    paper.give(layout.dividends[0], &dividends::brings::ORDINARY);
    paper.give(layout.dividends[1], &dividends::brings::QUALIFIED);
    let [short, long] = layout.gains;
    capital_gains::through(paper, short, &capital_gains::brings::THROUGH_SHORT);
    capital_gains::through(paper, long, &capital_gains::brings::THROUGH_LONG);
    paper.give(layout.layers[0], &capital_gains::brings::COLLECTIBLES);
    paper.give(layout.layers[1], &capital_gains::brings::SECTION_1250);
    let box_of = |field: Option<&'static str>| field.map_or(Money::ZERO, |field| of.amount(field));
    for (place, (person, _)) in reading.shares(Money::whole(100)).into_iter().enumerate() {
        let part = |amount: Money| reading.shares(amount)[place].1;
        let item = |field: Option<&'static str>| {
            reading.item(field.unwrap_or(layout.ordinary), None, part(box_of(field)))
        };
        let works = of.flag("participates");
        if let Some(field) = layout.sold.filter(|field| !of.amount(field).is_zero()) {
            let items = vec![reading.item(field, None, part(of.amount(field)))];
            let sale = Sale { items, long: true, depreciation: Money::ZERO, invested: !works };
            paper.facts.people[person].own.add(&business_property::brings::SALES, sale);
        }
        let share = Share {
            paper: reading.index,
            trust: layout.trust,
            works,
            rental: item(layout.rental),
            rental_works: works && of.flag("professional"),
            active: of.flag("active"),
            carried: part(of.amount("carried")),
            sold: part(box_of(layout.sold)),
            ordinary: item(Some(layout.ordinary)),
            guaranteed: item(layout.guaranteed),
            earnings: item(layout.earnings),
            qualified: part(of.amount("qualified")),
            qualified_item: reading.item("qualified", None, part(of.amount("qualified"))),
            service: of.flag("service"),
            wages: part(of.amount("wages")),
            property: part(of.amount("property")),
        };
        if !share.earnings.amount.is_zero() {
            paper.facts.people[person].own.add(&optional_earnings::brings::BESIDE, true);
        }
        paper.facts.people[person].own.add(&brings::SHARES, share);
    }
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

/// What the shares in which a person works lose.
fn lost(facts: &Facts, person: usize) -> Money {
    let let_out = |share: &Share| if share.rental_works { share.rental.amount } else { Money::ZERO };
    let worked = of(facts, person).iter().filter(|share| share.works);
    -worked.map(|share| share.ordinary.amount + let_out(share)).sum::<Money>()
}

/// Whether anything of Schedule E, Parts II and III, belongs to the return.
pub fn any(filed: Filed<'_>) -> bool {
    all(filed.on).any(|share| share.items().next().is_some())
}

/// Whether a person's share has a business whose income may be qualified.
pub fn any_qualified(facts: &Facts, person: usize) -> bool {
    of(facts, person).iter().any(|share| !share.qualified.is_zero())
}

/// Losses, boxes that are not computed, and what is not said.
pub fn points(points: &mut Points<'_>) {
    for layout in &LAYOUTS {
        for paper in points.papers(layout.kind) {
            of_paper(points, layout, paper);
        }
    }
}

fn of_paper(points: &mut Points<'_>, layout: &'static Layout, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    losses(points, layout, paper);
    for field in layout.others.iter().filter(|field| !paper.amount(field).is_zero()) {
        points.raise(&NOT_COMPUTED, at(field), "What this box of a Schedule K-1 brings is not computed yet.");
    }
    let said = |field: &str| paper.boxes.contains_key(field);
    if !said("more") {
        points.raise(&MORE, at("more"), "Does another box or code of this Schedule K-1 count?");
    } else if paper.flag("more") {
        points.raise(&NOT_COMPUTED, at("more"), "What else this Schedule K-1 brings is not computed yet.");
    }
    let income = !paper.amount(layout.ordinary).is_zero();
    let sold = layout.sold.is_some_and(|field| !paper.amount(field).is_zero());
    if (income || sold) && !said("participates") {
        points.raise(&WORKED, at("participates"), "Did the owner work in it regularly?");
    }
    let [ordinary, qualified] = layout.dividends;
    if paper.amount(qualified) > paper.amount(ordinary) {
        let message = format!("Box {qualified} is above box {ordinary}.");
        points.raise(&DIVIDENDS, at(qualified), message);
    }
    let paid = layout.guaranteed.is_some_and(|field| !paper.amount(field).is_zero());
    if let Some(earnings) =
        layout.earnings.filter(|field| !said(field) && (paid || (income && paper.flag("participates"))))
    {
        points.raise(&NO_EARNINGS, at(earnings), "No self-employment earnings are entered.");
    }
    if income && !said("qualified") {
        points.raise(&NO_QUALIFIED, at("qualified"), "How much of this income is qualified business income?");
    }
}

/// Losses: what must be said about them, and which are not computed.
fn losses(points: &mut Points<'_>, layout: &'static Layout, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let amount = |field: Option<&str>| field.map_or(Money::ZERO, |field| paper.amount(field));
    let fields = [Some(layout.ordinary), layout.earnings, layout.rental, layout.sold, Some("qualified")];
    let below = |field: &&str| paper.amount(field).is_negative();
    let carried = !paper.amount("carried").is_zero();
    let first = fields.into_iter().flatten().find(below).or(carried.then_some("carried"));
    let Some(first) = first else { return };
    let passive_sale = amount(layout.sold).is_negative() && !paper.flag("participates");
    let not_covered = paper.boxes.get("basis").and_then(Entry::flag) == Some(false);
    if layout.trust || not_covered || passive_sale {
        let message = "Such a loss of a share is not computed yet.";
        return points.raise(&LOSS, at(first), message);
    }
    if !paper.boxes.contains_key("basis") {
        points.raise(&COVERED, at("basis"), "Do basis and amount at risk cover the loss of this share?");
    }
    let (ordinary, rental) = (amount(Some(layout.ordinary)), amount(layout.rental));
    if (rental.is_negative() || (carried && !rental.is_zero())) && !paper.boxes.contains_key("active") {
        points.raise(&ACTIVE, at("active"), "The rental real estate of this share has a loss.");
    }
    let whose = !ordinary.is_zero() && !rental.is_zero();
    if carried && (paper.flag("participates") || whose) {
        let message = "Losses of earlier years of what is no longer passive, or of one of two activities.";
        points.raise(&FORMER, at("carried"), message);
    }
    let works = paper.flag("participates");
    let passive = !works || (rental.is_negative() && !paper.flag("professional"));
    let held_back =
        (0..points.units.len()).any(|place| !points.amount(passive_losses::CARRY, place).is_zero());
    if passive && (held_back || carried) && !amount(Some("qualified")).is_zero() {
        let message = "Qualified business income of a loss that is held back or was.";
        points.raise(&QUALIFIED_LOSS, at("qualified"), message);
    }
    let owners: Vec<usize> =
        paper.owners.iter().filter_map(|o| points.household.index_of(&o.person)).collect();
    for person in owners {
        let lost = lost(points.facts, person) + business::lost(points.facts, person);
        business::excess_loss(points, at(layout.ordinary), lost);
    }
}
