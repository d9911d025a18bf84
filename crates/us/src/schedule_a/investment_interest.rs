//! Investment interest (§163(d)), Form 4952: deducted up to net investment income, the rest carried on. Qualified dividends and net gains
//! count in it only where they give up their rates: a choice of each return that itemizes.

use crate::{
    bringing::Bringing,
    capital_gains, deduction,
    facts::Facts,
    foreign_tax, home_sale,
    income::{self, Income},
    points::Points,
    states, status,
    unit::{Filed, On},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    field::{Field, Years},
    forms::Required,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::Gather,
    provision::Provision,
    reading::sum,
    trail::{Scope, Trail},
    words::first_name,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[INTEREST],
    points: POINTS,
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRY, paper: "4952", into: CarriedTo::Box("2") }];

lines! {
    pub ALL = "us.4952.3", "Investment interest", "IRC §163(d)(1), (2)",
        "Paid this year, and carried here.";
    ORDINARY = "us.4952.4f", "Investment income at ordinary rates", "IRC §163(d)(4)(B)(i), (ii)",
        "Interest, other dividends, royalties, annuities and short-term gains.";
    ELECTED = "us.4952.4g", "Taken at ordinary rates by choice", "IRC §163(d)(4)(B)(iii)",
        "Net capital gain first, then qualified dividends, as far as the interest needs them.";
    pub NET = "us.4952.6", "Net investment income", "IRC §163(d)(4)(A)",
        "What the interest is deducted up to.";
    pub L9 = "us.sched_a.9", "Investment interest deducted", "IRC §163(d)",
        "Up to net investment income.";
    CARRY = "us.carryover.investment_interest", "Investment interest carried on", "IRC §163(d)(2)",
        "What is over net investment income.";
}

limits! {
    MOST = "us.limit.investment_interest" on L9, "Investment interest", "over net investment income, and carried on",
        "IRC §163(d)(1)";
}

open_points! {
    SPLIT = not_weighed "4952-split", "IRC §163(d)(4)(B)(iii); Form 4952, line 4g",
        "The choice takes gains before dividends; where gains are taxed at 25 or 28 % another order may cost less: not weighed here.";
    FOREIGN = not_covered "4952-foreign", "IRC §904; Reg. §1.861-9T";
    HOME = not_covered "4952-home", "IRC §163(d)(5)";
    USE = look "4952-use", "Reg. §1.163-8T",
        "Only of money used for property held for investment, not for tax-free income or a passive activity.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Investment interest paid.
    pub static PAID: Brought = Brought::new();

    /// Investment interest of earlier years.
    pub static CARRIED: Brought = Brought::new();
}

const INTEREST: PaperKind = PaperKind {
    id: "4952",
    subject: subject::DEDUCTIONS,
    name: "Investment interest",
    words: "margin interest broker loan investment interest 4952",
    title: "Broker or lender",
    shared: true,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Investment interest paid").help("On money borrowed to invest."),
        Field::amount("2", "2", "Carried here").help("Form 4952 line 7 of last year."),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the interest to who paid it.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("1", &brings::PAID);
    paper.give("2", &brings::CARRIED);
}

fn any(facts: &Facts, people: &[usize]) -> bool {
    people
        .iter()
        .any(|&p| [&brings::PAID, &brings::CARRIED].into_iter().any(|kind| facts.people[p].own.has(kind)))
}

/// What the form comes to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Deducted {
    /// Line 8.
    pub amount: Money,
    /// Of the net capital gain what is taken at ordinary rates.
    pub gain: Money,
    /// Of qualified dividends the same.
    pub qualified: Money,
}

/// Lines 3 to 8.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Deducted {
    if !any(on.facts, &on.unit.people) {
        return Deducted::default();
    }
    let all = [&brings::PAID, &brings::CARRIED];
    let items = || all.into_iter().flat_map(|kind| on.items(kind));
    let interest = trail.line(ALL, on.scope, sum(items()).to_whole(), |i| {
        i.items(items());
    });
    let gains = limit::or_zero(trail, income.gains.short + income.gains.long);
    let net_gain = limit::lesser(trail, gains, income.gains.net);
    let owned = income.interest + income.dividends - income.qualified + income.annuities;
    let ordinary = owned + limit::or_zero(trail, income.rents.royalties) + gains - net_gain;
    let ordinary = trail.line(ORDINARY, on.scope, ordinary, |i| {
        i.line(income::INTEREST, on.scope, income.interest)
            .line(income::DIVIDENDS, on.scope, income.dividends)
            .line(income::QUALIFIED, on.scope, income.qualified)
            .figure("Short-term gain", gains - net_gain);
    });
    let short_of = limit::or_zero(trail, interest - ordinary);
    let wanted = if on.unit.elects_investment { short_of } else { Money::ZERO };
    let gain = limit::lesser(trail, wanted, net_gain);
    let qualified = limit::lesser(trail, wanted - gain, income.qualified);
    let elected = trail.line(ELECTED, on.scope, gain + qualified, |i| {
        i.figure("Net capital gain", gain).figure("Qualified dividends", qualified);
    });
    let net = trail.line(NET, on.scope, ordinary + elected, |i| {
        i.line(ORDINARY, on.scope, ordinary).line(ELECTED, on.scope, elected);
    });
    let amount = limit::cap(trail, MOST.at(on.scope), interest, net);
    trail.line(CARRY, on.scope, interest - amount, |i| {
        i.line(ALL, on.scope, interest).line(NET, on.scope, net);
    });
    trail.line(L9, on.scope, amount, |i| {
        i.line(ALL, on.scope, interest).line(NET, on.scope, net);
    });
    Deducted { amount, gain, qualified }
}

/// The law of the choice.
const CITE: &str = "IRC §§1(h)(2), (11)(D)(i), 163(d)(4)(B)";

fn options(whose: &str) -> Vec<Opt> {
    vec![
        Opt::new("kept", "Dividends and gains keep their rates", ""),
        Opt::new(
            "elected",
            "Count them, at ordinary rates",
            format!("{whose} gains at ordinary rates").trim().to_owned(),
        ),
    ]
}

/// Whether dividends and gains count, on the joint or only return.
pub static ELECTION: Open<Facts> = Open::new(
    |facts: &Facts| if any(facts, &facts.filers) { vec![0] } else { Vec::new() },
    |_, _| Decision::between("us.investment_interest", "Investment interest", CITE, options("")),
)
.arises(|facts, _, way| !status::separate(facts, way))
.bars(|_, _, option, way| bar(option, deduction::itemizes_together(way)));

/// The same on the separate return of a filer, by the filer's place among them.
pub static ELECTION_APART: Open<Facts> = Open::new(
    |facts: &Facts| {
        let here = |&p: &usize| any(facts, &facts.filers[p..=p]);
        if facts.filers.len() == 2 { (0..2).filter(here).collect() } else { Vec::new() }
    },
    |facts, place| {
        let person = &facts.people[facts.filers[place]];
        let label = format!("Investment interest of {}", person.name);
        let id = format!("us.investment_interest.{}", person.id);
        Decision::between(id, label, CITE, options(first_name(&person.name)))
    },
)
.arises(|facts, _, way| status::separate(facts, way))
.bars(|_, place, option, way| bar(option, deduction::itemizes_apart(way, place)));

fn bar(option: usize, itemizes: bool) -> Option<Bar> {
    (option == 1 && !itemizes).then_some(Bar::Borrowed("standard deduction taken"))
}

/// What a way does on the joint or only return.
pub fn elects_together(way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&ELECTION, 0) == Some(1)
}

/// What a way does on the separate return of a filer.
pub fn elects_apart(way: Chosen<'_, '_, Facts>, place: usize) -> bool {
    way.taken(&ELECTION_APART, place) == Some(1)
}

/// Form 4952: with investment interest, where the return itemizes or something is carried on.
pub fn form_4952(filed: Filed<'_>) -> Required {
    let needed = filed.has(ALL) && (filed.on.unit.itemizes || filed.has(CARRY));
    Required::if_so(needed, "no investment interest deducted or carried on")
}

/// What the interest was for, and where more must be computed.
pub fn points(points: &mut Points<'_>) {
    for place in 0..points.units.len() {
        let unit = &points.units[place];
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        if !any(on.facts, &unit.people) {
            continue;
        }
        let whose = points.whose(unit);
        points.raise(&USE, whose.clone(), "What was the money used for?");
        let layers = [capital_gains::RATE_28, capital_gains::SECTION_1250]
            .into_iter()
            .any(|line| !points.amount(line, place).is_zero());
        if layers && !points.amount(ELECTED, place).is_zero() {
            points.raise(&SPLIT, whose.clone(), "Gains at 25 or 28 % beside the choice.");
        }
        if unit.foreign_tax.by_form() && !points.amount(foreign_tax::CREDIT, place).is_zero() {
            let message = "Investment interest is divided on Form 1116 by assets: not computed yet.";
            points.raise(&FOREIGN, whose.clone(), message);
        }
        if !points.amount(home_sale::TAXED, place).is_zero() {
            points.raise(&HOME, whose, "A taxed gain on the home is no investment income: not computed yet.");
        }
    }
}
