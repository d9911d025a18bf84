//! The three Schedules K-1: their boxes, where each stands, and what they bring.

use super::{Share, brings};
use crate::{
    bringing::Bringing,
    business_property::{self, Sale},
    capital_gains, optional_earnings,
    papers::{dividends, interest},
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    paper::{Back, NextYear, PaperKind, subject},
};
use hembo_money::Money;

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
pub(super) const PARTNERSHIP: PaperKind = PaperKind {
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
    next_year: NextYear::Again,
};

/// Schedule K-1 (Form 1120-S).
pub(super) const CORPORATION: PaperKind = PaperKind {
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
pub(super) const TRUST: PaperKind = PaperKind {
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
pub(super) struct Layout {
    pub kind: &'static str,
    pub trust: bool,
    pub ordinary: &'static str,
    pub guaranteed: Option<&'static str>,
    /// Net rental real estate income, and net section 1231 gain.
    pub rental: Option<&'static str>,
    pub sold: Option<&'static str>,
    pub interest: &'static str,
    pub dividends: [&'static str; 2],
    pub gains: [&'static str; 2],
    pub layers: [&'static str; 2],
    pub earnings: Option<&'static str>,
    pub exempt: &'static str,
    pub others: &'static [&'static str],
}

pub(super) const LAYOUTS: [Layout; 3] = [
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
            corporation: of.kind == CORPORATION.id,
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
