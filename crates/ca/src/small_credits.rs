//! Credits that stand alone (ITA 122.9, 122.92, 127(3), 127.4; lines 41000, 41400, 45355, 46900): gifts to parties, shares of
//! labour-sponsored funds, a home for another generation, supplies of educators.

use crate::{bringing::Bringing, plan::On, rounding::cents};
use hembo_core::{
    field::{Field, Years},
    limit, limits,
    line::LineId,
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[PAID],
    lines: LINES,
    limits: LIMITS,
    figures: &["parties", "labour_funds", "generations", "educators"],
    ..Provision::NONE
};

lines! {
    pub PARTIES = "ca.41000", "Gifts to federal parties", "ITA 127(3)",
        "Parts of three slices, at most the tax.";
    pub LABOUR_FUNDS = "ca.41400", "Labour-sponsored funds", "ITA 127.4",
        "A part of what shares cost up to a most, at most the tax that is left.";
    pub GENERATIONS = "ca.45355", "Home for another generation", "ITA 122.92",
        "A part of the work; refundable.";
    pub EDUCATORS = "ca.46900", "Supplies of educators", "ITA 122.9",
        "A part of what was paid; refundable.";
}

limits! {
    PARTY_MOST = "ca.limit.parties" on PARTIES, "Gifts to federal parties", "beyond the tax, lost",
        "ITA 127(3)";
    SHARES_MOST = "ca.limit.labour_funds.cost" on LABOUR_FUNDS, "Labour-sponsored funds", "over the most",
        "ITA 127.4(5)";
    SHARES_TAX = "ca.limit.labour_funds" on LABOUR_FUNDS, "Labour-sponsored funds", "beyond the tax, lost",
        "ITA 127.4(2)";
    WORK_MOST = "ca.limit.generations" on GENERATIONS, "Home for another generation", "over the most",
        "ITA 122.92";
    SUPPLIES_MOST = "ca.limit.educators" on EDUCATORS, "Supplies of educators", "over the most",
        "ITA 122.9";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Gifts to federal parties.
    pub static PARTIES: Brought = Brought::new();

    /// What shares of labour-sponsored funds cost.
    pub static LABOUR_FUNDS: Brought = Brought::new();

    /// Work on a home for another generation.
    pub static WORK: Brought = Brought::new();

    /// Supplies of educators.
    pub static SUPPLIES: Brought = Brought::new();
}

const PAID: PaperKind = PaperKind {
    id: "Other credits",
    subject: subject::CREDITS,
    name: "Parties, labour funds, educators, a home for another generation",
    words: "political contribution lsvcc t5006 venture shares teacher school supplies renovation multigenerational",
    title: "About",
    shared: false,
    headline: "parties",
    boxes: &[
        Field::amount("parties", "40900", "Gifts to federal parties")
            .help("The person on the receipt; provincial parties are another matter."),
        Field::amount("labour", "41300", "Shares of labour-sponsored funds, net cost")
            .help("Of a fund registered in a province; bought in the year or in the first 60 days after it, and in no earlier claim."),
        Field::amount("work", "45355", "Home for another generation")
            .help("Form schedule 12: once for a relative of 65 or over, or certified disabled."),
        Field::amount("supplies", "46800", "Supplies of educators").help("With the employer's certificate."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[
        ("parties", &brings::PARTIES),
        ("labour", &brings::LABOUR_FUNDS),
        ("work", &brings::WORK),
        ("supplies", &brings::SUPPLIES),
    ]);
}

/// Line 41000, at most the tax that is left.
pub fn parties(on: On<'_>, trail: &mut impl Trail, tax: Money) -> Money {
    let given = on.own().of(&brings::PARTIES);
    if given.is_empty() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.parties;
    let credit =
        limit::by_brackets(&mut hembo_core::Silent, sum(given), &figures.tops, figures.rates.iter().copied());
    let taken = limit::cap(trail, PARTY_MOST.at(on.scope), credit, tax);
    trail.line(PARTIES, on.scope, taken, |i| {
        i.items(given).figure("Credit", credit);
    })
}

/// Line 41400, at most the tax that is left.
pub fn labour_funds(on: On<'_>, trail: &mut impl Trail, tax: Money) -> Money {
    let bought = on.own().of(&brings::LABOUR_FUNDS);
    if bought.is_empty() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.labour_funds;
    let counted = limit::cap(trail, SHARES_MOST.at(on.scope), sum(bought), figures.most);
    let credit = cents(counted, figures.part);
    let taken = limit::cap(trail, SHARES_TAX.at(on.scope), credit, tax);
    trail.line(LABOUR_FUNDS, on.scope, taken, |i| {
        i.items(bought).figure("At most", figures.most).figure("Part", figures.part);
    })
}

/// Lines 45355 and 46900, which are paid out whatever the tax.
pub fn paid_out(on: On<'_>, trail: &mut impl Trail) -> [(LineId, Money); 2] {
    let figures = &on.facts.figures;
    let mut part = |line, at, kind, most: Money, rate: Rate| {
        let items = on.own().of(kind);
        if items.is_empty() {
            return Money::ZERO;
        }
        let counted = limit::cap(trail, at, sum(items), most);
        trail.line(line, on.scope, cents(counted, rate), |i| {
            i.items(items).figure("At most", most).figure("Part", rate);
        })
    };
    let (work, supplies) = (&figures.generations, &figures.educators);
    let generations = part(GENERATIONS, WORK_MOST.at(on.scope), &brings::WORK, work.most, work.part);
    let educators =
        part(EDUCATORS, SUPPLIES_MOST.at(on.scope), &brings::SUPPLIES, supplies.most, supplies.part);
    [(GENERATIONS, generations), (EDUCATORS, educators)]
}
