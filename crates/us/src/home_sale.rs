//! Sale of a main home (§121): of its gain so much is left out for each filer who owned and used it for two of the last five
//! years, a part of that where work, health or the unforeseen made the sale earlier.

use crate::{
    bringing::Bringing,
    facts::Facts,
    points::Points,
    states,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    brought::Records,
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[SALE],
    points: POINTS,
    figures: &["home_sale"],
    ..Provision::NONE
};

lines! {
    GAIN = "us.home_sale.gain", "Gain on the home", "IRC §§1001, 1016",
        "Price less expenses of the sale and adjusted basis; a loss does not count.";
    EXCLUDED = "us.home_sale.excluded", "Gain left out", "IRC §121",
        "What of the gain is not depreciation or of nonqualified use, up to the amount for the filers.";
    pub TAXED = "us.home_sale", "Sale of the home", "IRC §121",
        "The gain that is left, Form 8949 with code H.";
}

limits! {
    MOST = "us.limit.home_sale" on EXCLUDED, "Gain on the home", "over the amount left out for the filers",
        "IRC §121(b)";
}

open_points! {
    NOBODY = look "home-sale-nobody", "IRC §121(a)",
        "Enter a line for each filer who owned or used the home, or nothing is left out.";
    NO_REASON = look "home-sale-reason", "IRC §121(c)",
        "A change of work, health or the unforeseen allows a part: choose the reason if there was one.";
    UNUSED = not_weighed "home-sale-unused", "IRC §121(f)",
        "Leaving the exclusion unused for a better sale within two years is lawful and not weighed here.";
}

/// A home sold, as far as it belongs to one owner.
#[derive(Debug, Clone)]
pub struct Home {
    paper: usize,
    /// Gain of the owner's share, a loss as zero.
    gain: Item,
    /// Of it depreciation.
    depreciation: Money,
    /// The part of the rest that is of nonqualified use.
    nonqualified: Rate,
    short: bool,
}

/// What the tests of §121 allow a person for a sale.
#[derive(Debug, Clone, Copy)]
pub struct Allowed {
    paper: usize,
    most: Money,
}

/// What its papers bring.
pub mod brings {
    use super::{Allowed, Home};
    use hembo_core::brought::Brought;

    /// Homes sold.
    pub static HOMES: Brought<Home> = Brought::new();

    /// What may be left out for a person.
    pub static ALLOWED: Brought<Allowed> = Brought::new();
}

const REASONS: &[Choice] = &[
    Choice::new("work", "Change of work"),
    Choice::new("health", "Health"),
    Choice::new("unforeseen", "Unforeseen circumstances"),
];

const SALE: PaperKind = PaperKind {
    id: "1099-S",
    subject: subject::INVESTMENTS,
    name: "Sale of the main home",
    words: "house home sold real estate closing exclusion 121",
    title: "Address",
    shared: true,
    headline: "price",
    boxes: &[
        Field::date("sold", "1", "Date of closing"),
        Field::amount("price", "2", "Price"),
        Field::amount("expenses", "", "Expenses of the sale")
            .help("Commission, transfer tax, points paid for the buyer."),
        Field::amount("basis", "", "Cost with improvements").help("Before depreciation."),
        Field::amount("depreciation", "", "Depreciation since May 7, 1997")
            .help("For renting or a home office; not left out."),
        Field::count("owned", "", "Months owned", 1200),
        Field::count("nonqualified", "", "Months of other use since 2009", 1200)
            .help("Not the main home of anyone of the couple, and before it last was; nothing after."),
        states::SEPARATE,
    ],
    columns: &[
        Field::person("person", "", "Filer"),
        Field::count("owned_of_60", "", "Months owned of the last 60", 60),
        Field::count("used_of_60", "", "Months lived there of the last 60", 60),
        Field::count("since", "", "Months since another exclusion", 1200).help("Empty if there was none."),
        Field::choice("reason", "", "Reason to sell early", REASONS),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the gain to the owners, and what is left out to those who lived there.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    let reading = paper.paper.paper;
    let amount = |id: &str| reading.amount(id);
    let count = |id: &str| reading.boxes.get(id).and_then(Entry::count).unwrap_or(0);
    let gain =
        settled::or_zero(amount("price") - amount("expenses") - amount("basis") + amount("depreciation"));
    let depreciation = settled::lesser(amount("depreciation"), gain);
    let nonqualified = part(count("nonqualified"), count("owned"));
    let most_short = paper.facts.figures.home_sale.short_up_to;
    let (index, short) = (paper.paper.index, (1..=most_short).contains(&count("owned")));
    let shares: Vec<Money> = paper.paper.shares(depreciation).into_iter().map(|(_, amount)| amount).collect();
    for ((person, item), depreciation) in paper.paper.parts("price", None, gain).into_iter().zip(shares) {
        let home = Home { paper: index, gain: item, depreciation, nonqualified, short };
        paper.facts.people[person].own.add(&brings::HOMES, home);
    }
    let lines: Vec<_> = paper.paper.lines("owned_of_60").map(|(_, row, _)| row.clone()).collect();
    for row in lines {
        let person =
            row.get("person").and_then(Entry::text).and_then(|id| paper.paper.household.index_of(id));
        let Some(person) = person else { continue };
        let most = most(paper.facts, &row);
        paper.facts.people[person].own.add(&brings::ALLOWED, Allowed { paper: index, most });
    }
}

fn part(months: i64, of: i64) -> Rate {
    if of == 0 {
        Rate::ZERO
    } else {
        Money::whole(settled::lesser(months, of)).ratio_to(Money::whole(of), 9, Rounding::HalfUp)
    }
}

/// The amount for a person: all of it after two years of owning and using without another exclusion in the two years before, a
/// part for a reason, else none.
fn most(facts: &Facts, row: &Answers) -> Money {
    let figures = &facts.figures.home_sale;
    let count = |id: &str| row.get(id).and_then(Entry::count);
    let months = [
        count("owned_of_60").unwrap_or(0),
        count("used_of_60").unwrap_or(0),
        count("since").unwrap_or(figures.months),
    ];
    let least = months.into_iter().fold(figures.months, settled::lesser);
    if least == figures.months {
        figures.each
    } else if row.get("reason").and_then(Entry::text).is_some() {
        figures.each.times(part(least, figures.months), Money::CENT, Rounding::HalfUp)
    } else {
        Money::ZERO
    }
}

/// The gains of homes that are taxed.
#[derive(Debug, Clone, Copy, Default)]
pub struct Taxed {
    /// Of a home owned for one year or less.
    pub short: Money,
    /// Of one owned longer.
    pub long: Money,
    /// Of these depreciation.
    pub section_1250: Money,
}

/// What of the homes sold is taxed on a return: on a joint one the amounts of both spouses count for a home of either (§121(b)(2)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Taxed {
    let homes = || on.owns().flat_map(|(_, own)| own.of(&brings::HOMES));
    if homes().next().is_none() {
        return Taxed::default();
    }
    let mut taxed = Taxed::default();
    let (mut gain, mut excludable, mut most) = (Money::ZERO, Money::ZERO, Money::ZERO);
    for home in homes() {
        gain += home.gain.amount;
        taxed.section_1250 += home.depreciation;
        let rest = home.gain.amount - home.depreciation;
        excludable += rest - rest.times(home.nonqualified, Money::CENT, Rounding::HalfUp);
    }
    for allowed in on.owns().flat_map(|(_, own)| own.of(&brings::ALLOWED)) {
        if homes().any(|home| home.paper == allowed.paper) {
            most += allowed.most;
        }
    }
    trail.line(GAIN, on.scope, gain.to_whole(), |i| {
        i.items(homes().map(|home| &home.gain));
    });
    let excluded = limit::cap(trail, MOST.at(on.scope), excludable.to_whole(), most.to_whole());
    trail.line(EXCLUDED, on.scope, excluded, |i| {
        i.line(GAIN, on.scope, gain.to_whole())
            .figure("Neither depreciation nor nonqualified use", excludable.to_whole())
            .figure("Amount for the filers", most.to_whole());
    });
    let left = trail.line(TAXED, on.scope, gain.to_whole() - excluded, |i| {
        i.line(GAIN, on.scope, gain.to_whole()).line(EXCLUDED, on.scope, excluded);
    });
    if homes().any(|home| home.short) {
        taxed.short = left
    } else {
        taxed.long = left
    }
    taxed.section_1250 = settled::lesser(taxed.section_1250.to_whole(), taxed.long);
    taxed
}

/// What a person brings of it, before anything is left out.
pub fn items(own: &Records) -> impl Iterator<Item = &Item> {
    own.of(&brings::HOMES).iter().map(|home| &home.gain)
}

/// Who lived there, and early sales without a reason.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SALE.id) {
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let months = points.facts.figures.home_sale.months;
    let place = Place::paper(&paper.id, "price");
    if paper.rows.is_empty() {
        points.raise(&NOBODY, place, "Who owned this home and lived in it, and for how long?");
        return;
    }
    let mut early = false;
    for row in &paper.rows {
        let short = ["owned_of_60", "used_of_60", "since"].into_iter().any(|id| {
            let said = row.get(id).and_then(Entry::count);
            said.map_or(id != "since", |said| said < months)
        });
        if short && row.get("reason").is_none() {
            early = true;
            let message = "Less than two years, or another exclusion within two: nothing is left out.";
            points.raise(&NO_REASON, Place::row(&paper.id, row, "reason"), message);
        }
    }
    if !early {
        points.raise(&UNUSED, place, "The gain is left out, which is possible once in two years.");
    }
}

/// The worksheets: where a home was sold.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.owns().any(|(_, own)| own.has(&brings::HOMES)), "no home sold")
}
