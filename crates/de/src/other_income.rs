//! Income of one's own work, land and occasions (§§13, 15, 18, 21, 22 Nr.3, 23 EStG): results as they were worked out, with the limits
//! below which occasional income is free.

use crate::{
    bringing::Bringing, facts::Facts, figures, foreign_tax, kinds::KINDS, letting, pensions, plan::Plan,
    points::Points, rounding::euros_down,
};
use hembo_core::{
    brought::Brought,
    field::{Field, Years},
    household::{Answers, Entry},
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Own work, land, occasions",
    lines: LINES,
    points: POINTS,
    papers: &[RESULT, MAINTENANCE],
    figures: &["private_sales", "letting"],
    ..Provision::NONE
};

lines! {
    pub FARM = "de.farm", "Farming and forestry", "§13", "The result of the year.";
    pub TRADE = "de.trade", "Trade (Gewerbebetrieb)", "§15; Anlage G", "The result of the year.";
    pub FREELANCE = "de.freelance", "Self-employment (selbständige Arbeit)", "§18; Anlage S", "The result of the year.";
    pub RENTAL = "de.rental", "Letting (Vermietung)", "§21; Anlage V", "Rents less what was spent on them, and what of large repairs falls on the year.";
    pub SERVICES = "de.services_22_3", "Occasional services", "§22 Nr.3", "All of it from a limit on, nothing below.";
    pub SALES = "de.private_sales", "Private sales", "§23; Anlage SO", "All gains from a limit on, nothing below; a loss waits for gains.";
}

open_points! {
    SALES_NEAR = look "DE-C40", "§23(3) S.5", "From the limit on all of it is taxed: are all sales of the year here?";
    RENT_LOW = blocks "DE-C53", "§21(2)",
        "Enter the deductions within the result: below 50 per cent they count in that part, to 66 unless a forecast comes to a surplus.";
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
        Field::count("rent_level", "", "Rent in per cent of the local level", 200).help(
            "Of letting: below 50 deductions count in that part, to 66 where a forecast is below zero.",
        ),
        Field::amount("deductions", "", "Deductions within the result, where the rent is below 66 per cent"),
        Field::yes_no("surplus", "", "A forecast of the whole time comes to a surplus").lasts(),
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
    if paper.text("kind") == "rental" {
        let cut = not_deducted(&paper.facts.figures.letting, &paper.paper.paper.boxes);
        return paper.put("result", None, paper.amount("result") + cut, kind);
    }
    paper.give(&[("result", kind), ("trade_base", &brings::TRADE_BASE), ("trade_tax", &brings::TRADE_TAX)]);
}

/// §21(2): what of deductions does not count as the rent is low.
fn not_deducted(figures: &figures::Letting, boxes: &Answers) -> Money {
    let level = boxes.get("rent_level").and_then(Entry::count);
    let surplus = boxes.get("surplus").and_then(Entry::flag).unwrap_or(false);
    let cut = |level: i64| level < figures.part_below || (level < figures.forecast_below && !surplus);
    let deductions = boxes.get("deductions").and_then(Entry::money).unwrap_or_default();
    level.filter(|level| cut(*level)).map_or(Money::ZERO, |level| {
        deductions.in_proportion(Money::whole(100 - level), Money::whole(100), Money::CENT, Rounding::Down)
    })
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
pub fn reckon(facts: &Facts, plan: &Plan, trail: &mut impl Trail, person: usize) -> Results {
    let own = &facts.people[person].own;
    let scope = Scope::Person(person);
    let limits = &facts.figures.private_sales;
    // Foreign tax that is deducted, by the place of the kind among those of results (§34c(2)).
    let abroad = |id: &str| {
        let at =
            KINDS.iter().position(|kind| kind.id == id).unwrap_or_else(|| unreachable!("a kind of results"));
        foreign_tax::deducted(facts, plan, person, at)
    };
    let mut plain = |line: LineId, kind: &'static Brought, id: &str| {
        let (items, tax) = (own.of(kind), abroad(id));
        trail.line(line, scope, euros_down(sum(items) - sum(tax.clone())), |i| _ = i.items(items).items(tax))
    };
    let farm = plain(FARM, &brings::FARM, "farm");
    let trade = plain(TRADE, &brings::TRADE, "trade");
    let freelance = plain(FREELANCE, &brings::FREELANCE, "freelance");
    let (repairs, of_repairs) = letting::of_year(facts, plan, person);
    let (rents, tax) = (own.of(&brings::RENTAL), abroad("rental"));
    let rental = trail.line(RENTAL, scope, euros_down(sum(rents) - repairs - sum(tax.clone())), |i| {
        i.items(rents).items(of_repairs).items(tax).figure("Of large repairs", repairs);
    });
    let mut from_limit_on = |line: LineId, kind: &'static Brought, id: &str, free_below: Money| {
        let (items, tax) = (own.of(kind), abroad(id));
        let all = sum(items) - sum(tax.clone());
        // A loss of these kinds is set against gains of the same kind alone.
        let amount = if all < free_below { Money::ZERO } else { euros_down(all) };
        trail.line(line, scope, amount, |i| {
            i.items(items).items(tax).figure("Free below", free_below);
        })
    };
    let services = from_limit_on(SERVICES, &brings::SERVICES, "services", limits.services_free_below);
    let sales = from_limit_on(SALES, &brings::SALES, "sales", limits.sales_free_below);
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
        let level = paper.boxes.get("rent_level").and_then(Entry::count);
        let low = level.is_some_and(|level| level < points.facts.figures.letting.forecast_below);
        if paper.text("kind") == Some("rental") && low && !paper.boxes.contains_key("deductions") {
            points.raise(&RENT_LOW, at("deductions"), "A low rent: which deductions are within the result?");
        }
    }
}
