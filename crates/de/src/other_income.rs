//! Income of one's own work, land and occasions (§§13, 15, 18, 21, 22 Nr.3, 23 EStG): results as they were worked out, with the limits
//! below which occasional income is free.

use crate::{bringing::Bringing, facts::Facts, pensions, points::Points, rounding::euros_down};
use hembo_core::{
    brought::Brought,
    field::{Choice, Field, Years},
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Own work, land, occasions",
    lines: LINES,
    points: POINTS,
    papers: &[RESULT, MAINTENANCE],
    figures: &["private_sales"],
    ..Provision::NONE
};

lines! {
    pub FARM = "de.farm", "Farming and forestry", "§13", "The result of the year.";
    pub TRADE = "de.trade", "Trade (Gewerbebetrieb)", "§15; Anlage G", "The result of the year.";
    pub FREELANCE = "de.freelance", "Self-employment (selbständige Arbeit)", "§18; Anlage S", "The result of the year.";
    pub RENTAL = "de.rental", "Letting (Vermietung)", "§21; Anlage V", "Rents less what was spent on them.";
    pub SERVICES = "de.services_22_3", "Occasional services", "§22 Nr.3", "All of it from a limit on, nothing below.";
    pub SALES = "de.private_sales", "Private sales", "§23; Anlage SO", "All gains from a limit on, nothing below; a loss waits for gains.";
}

open_points! {
    SALES_NEAR = look "DE-C40", "§23(3) S.5", "From the limit on all of it is taxed: are all sales of the year here?";
    RENT_LOW = not_covered "DE-C53", "§21(2)";
    SALES_LOSS = look "sales-loss", "§23(3) S.7, 8", "It is set against such gains of the year before or later: compare the notice.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Farming.
    pub static FARM: Brought = Brought::new();
    /// Trade.
    pub static TRADE: Brought = Brought::new();
    /// Its base of trade tax (Messbetrag).
    pub static TRADE_BASE: Brought = Brought::new();
    /// Trade tax paid.
    pub static TRADE_TAX: Brought = Brought::new();
    /// Self-employment.
    pub static FREELANCE: Brought = Brought::new();
    /// Letting.
    pub static RENTAL: Brought = Brought::new();
    /// Occasional services.
    pub static SERVICES: Brought = Brought::new();
    /// Private sales.
    pub static SALES: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("freelance", "Self-employment, Anlage S"),
    Choice::new("trade", "Trade, Anlage G"),
    Choice::new("rental", "Letting, Anlage V"),
    Choice::new("farm", "Farming, Anlage L"),
    Choice::new("services", "Occasional services, Anlage SO"),
    Choice::new("sales", "Private sales within the period, Anlage SO"),
];

const RESULT: PaperKind = PaperKind {
    id: "Result",
    subject: subject::OWN_WORK,
    name: "Result of own work, letting, sales",
    words: "trade freelance rent gewerbe selbstaendig vermietung crypto farm",
    title: "About",
    shared: true,
    headline: "result",
    boxes: &[
        Field::choice("kind", "", "Kind", KINDS).lasts(),
        Field::signed("result", "", "Result, below zero a loss"),
        Field::count("rent_level", "", "Rent in per cent of the local level", 200)
            .help("Of letting: below 66 the deduction may be cut."),
        Field::amount("trade_base", "", "Base of trade tax (Messbetrag)"),
        Field::amount("trade_tax", "", "Trade tax paid"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const MAINTENANCE: PaperKind = PaperKind {
    id: "Maintenance received",
    subject: subject::OTHER_INCOME,
    name: "Maintenance of a former spouse received, Anlage U",
    words: "alimony realsplitting unterhalt",
    title: "From",
    shared: false,
    headline: "amount",
    boxes: &[Field::amount("amount", "", "Received with consent")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives a result to whose it is.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == MAINTENANCE.id {
        return paper.give(&[("amount", &pensions::brings::MAINTENANCE)]);
    }
    let kind = match paper.text("kind") {
        "trade" => &brings::TRADE,
        "rental" => &brings::RENTAL,
        "farm" => &brings::FARM,
        "services" => &brings::SERVICES,
        "sales" => &brings::SALES,
        _ => &brings::FREELANCE,
    };
    paper.give(&[("result", kind), ("trade_base", &brings::TRADE_BASE), ("trade_tax", &brings::TRADE_TAX)]);
}

/// Results of a person.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Results {
    pub farm: Money,
    pub trade: Money,
    pub freelance: Money,
    pub rental: Money,
    pub services: Money,
    pub sales: Money,
}

impl Results {
    /// Every kind.
    pub fn kinds(self) -> [Money; 6] {
        [self.farm, self.trade, self.freelance, self.rental, self.services, self.sales]
    }

    /// All kinds together.
    pub fn all(self) -> Money {
        self.kinds().into_iter().sum()
    }

    /// The sum of those above zero.
    pub fn positive(self) -> Money {
        self.kinds().into_iter().map(settled::or_zero).sum()
    }
}

/// Results of a person by kinds.
pub fn reckon(facts: &Facts, trail: &mut impl Trail, person: usize) -> Results {
    let own = &facts.people[person].own;
    let scope = Scope::Person(person);
    let limits = &facts.figures.private_sales;
    let mut plain = |line: LineId, kind: &'static Brought| {
        let items = own.of(kind);
        trail.line(line, scope, euros_down(sum(items)), |i| _ = i.items(items))
    };
    let farm = plain(FARM, &brings::FARM);
    let trade = plain(TRADE, &brings::TRADE);
    let freelance = plain(FREELANCE, &brings::FREELANCE);
    let rental = plain(RENTAL, &brings::RENTAL);
    let mut from_limit_on = |line: LineId, kind: &'static Brought, free_below: Money| {
        let items = own.of(kind);
        let all = sum(items);
        // A loss of these kinds is set against gains of the same kind alone.
        let amount = if all < free_below { Money::ZERO } else { euros_down(all) };
        trail.line(line, scope, amount, |i| _ = i.items(items).figure("Free below", free_below))
    };
    let services = from_limit_on(SERVICES, &brings::SERVICES, limits.services_free_below);
    let sales = from_limit_on(SALES, &brings::SALES, limits.sales_free_below);
    Results { farm, trade, freelance, rental, services, sales }
}

/// What is near a limit or cut in a way that is not computed.
pub fn points(points: &mut Points<'_>) {
    let limit = points.facts.figures.private_sales.sales_free_below;
    for paper in points.papers(RESULT.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let result = paper.amount("result");
        let sales = paper.text("kind") == Some("sales");
        if sales && result < limit && result >= limit - Money::whole(100) {
            points.raise(&SALES_NEAR, at("result"), "Gains just below the limit.");
        }
        if sales && result.is_negative() {
            points.raise(&SALES_LOSS, at("result"), "A loss of private sales.");
        }
        let level = paper.boxes.get("rent_level").and_then(hembo_core::household::Entry::count);
        if paper.text("kind") == Some("rental") && level.is_some_and(|level| level < 66) {
            points.raise(
                &RENT_LOW,
                at("rent_level"),
                "Deductions of a rent below 66 % of the local level are not cut here.",
            );
        }
    }
}
