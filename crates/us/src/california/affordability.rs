//! Whether cover would have been affordable (R&TC 61020, 61023; FTB 3853 worksheets, codes A and G): what the cheapest plan would have cost
//! against a part of household income.

use crate::{
    facts::Facts,
    income::Income,
    premium_tax_credit,
    state_facts::{Offer, Source},
    unit::On,
};
use hembo_core::{
    Household,
    field::{Choice, Field, Years},
    household::Entry,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "California, cover that is not affordable",
    papers: &[PAPER],
    figures: &["california_cover"],
    ..Provision::NONE
};

const SOURCES: &[Choice] = &[
    Choice::new("own", "Own job: cheapest plan for this person alone"),
    Choice::new("family", "Another's job: cheapest plan for all it covers"),
    Choice::new("market", "No job offers it: cheapest bronze plan"),
];

/// What cover would have cost.
pub const PAPER: PaperKind = PaperKind {
    id: "Cost of cover",
    subject: subject::CREDITS,
    name: "What health cover would have cost, FTB 3853 affordability worksheets",
    words: "california affordability offer employer bronze silver premium unaffordable exemption 3853",
    title: "About",
    shared: false,
    headline: "",
    boxes: &[],
    columns: &[
        Field::person("person", "", "Person"),
        Field::choice("source", "", "Cover", SOURCES),
        Field::amount("month", "", "Cost a month")
            .help("What the employee would pay, or the whole premium of the bronze plan of everyone whom no job offers cover: a line for each of them, each with all of it."),
        Field::amount("silver", "", "Second lowest silver plan a month")
            .help("Of those people, where no job offers cover: for the most of the premium tax credit."),
        Field::amount("given_up", "", "Pay given up for it, a year")
            .help("Not within wages; it is added to household income."),
        Field::count("from", "", "From month", 12).blank_is("1"),
        Field::count("to", "", "To month", 12).blank_is("12"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The lines of the papers that name a person and a source.
pub fn read(household: &Household) -> Vec<Offer> {
    let papers = household.papers.iter().enumerate().filter(|(_, paper)| paper.kind == PAPER.id);
    let rows = papers
        .flat_map(|(paper, of)| of.rows.iter().enumerate().map(move |(row, cells)| (paper, row, cells)));
    let offer = |(paper, row, cells): (usize, usize, &hembo_core::household::Row)| {
        let person = household.index_of(cells.get("person").and_then(Entry::text)?)?;
        let source = match cells.get("source").and_then(Entry::text)? {
            "own" => Source::OwnJob,
            "family" => Source::OthersJob,
            _ => Source::Market,
        };
        let amount = |id: &str| cells.get(id).and_then(Entry::money).unwrap_or_default();
        let month = |id: &str, blank: i64| cells.get(id).and_then(Entry::count).unwrap_or(blank);
        Some(Offer {
            person,
            source,
            month: amount("month"),
            silver: amount("silver"),
            given_up: amount("given_up"),
            months: month("from", 1)..=month("to", 12),
            item: Item { amount: amount("month"), paper, field: "month", row: Some(row) },
        })
    };
    rows.filter_map(offer).collect()
}

/// The code of a month in which a plan was not affordable.
pub const ALONE: &str = "A";

/// The code of months in which the plans of several were not affordable together.
pub const TOGETHER: &str = "G";

/// In which months it is known what cover would have cost a person.
pub fn offered(facts: &Facts, person: usize) -> [bool; 12] {
    let all = facts.of_state.as_ref().map(|of| of.offers.as_slice()).unwrap_or_default();
    std::array::from_fn(|month| {
        all.iter().any(|offer| offer.person == person && offer.months.contains(&(month as i64 + 1)))
    })
}

/// What a return's household may be asked to pay for cover in a year.
#[derive(Debug, Clone, Copy)]
pub struct Affordable<'a> {
    on: On<'a>,
    federal: &'a Income,
    /// The part of household income, with what was given up for cover.
    pub most: Money,
}

/// The offers to the people of a household.
fn offers<'a>(on: On<'a>, members: &[usize]) -> impl Iterator<Item = &'a Offer> {
    let all = on.facts.of_state.as_ref().map(|of| of.offers.as_slice()).unwrap_or_default();
    let members = members.to_vec();
    all.iter().filter(move |offer| members.contains(&offer.person))
}

/// What was entered of the offers to the people of a household.
pub fn items<'a>(on: On<'a>, members: &[usize]) -> impl Iterator<Item = &'a Item> {
    offers(on, members).map(|offer| &offer.item)
}

impl<'a> Affordable<'a> {
    /// By household income of a return.
    pub fn of(on: On<'a>, federal: &'a Income, members: &[usize], income: Money) -> Affordable<'a> {
        let given_up: Money = offers(on, members).map(|offer| offer.given_up).sum();
        let figures = on.facts.figures.california_cover.as_ref();
        let part = figures.map(|of| of.affordable).unwrap_or_default();
        let most = settled::or_zero(income + given_up).times(part, Money::CENT, Rounding::HalfUp);
        Affordable { on, federal, most }
    }

    /// Tells how far each offer is from being affordable.
    pub fn tell(&self, trail: &mut impl Trail, members: &[usize]) {
        for offer in offers(self.on, members) {
            trail.step(self.most - self.cost(offer), true);
        }
        for month in 0..12 {
            let each = self.own_plans(members, month);
            if each.len() > 1 {
                trail.step(self.most - each.into_iter().sum::<Money>(), true);
            }
        }
    }

    /// What the own plans of a month come to that each could pay for.
    fn own_plans(&self, members: &[usize], month: usize) -> Vec<Money> {
        let own = self.offered(members, month).filter(|offer| offer.source == Source::OwnJob);
        own.map(|offer| self.cost(offer)).filter(|cost| *cost <= self.most).collect()
    }

    /// The code of each month of a person in which cover was not affordable.
    pub fn codes(&self, members: &[usize], person: usize) -> [Option<&'static str>; 12] {
        std::array::from_fn(|month| {
            let own = self.offered(members, month).find(|offer| offer.person == person)?;
            if self.cost(own) > self.most {
                return Some(ALONE);
            }
            (own.source == Source::OwnJob && self.is_too_much_together(members, month)).then_some(TOGETHER)
        })
    }

    fn offered(&self, members: &[usize], month: usize) -> impl Iterator<Item = &'a Offer> {
        let number = month as i64 + 1;
        offers(self.on, members).filter(move |offer| offer.months.contains(&number))
    }

    /// What an offer would have cost in a year.
    fn cost(&self, offer: &Offer) -> Money {
        let credit = match offer.source {
            Source::Market => premium_tax_credit::most_of_month(self.on, self.federal, offer.silver),
            Source::OwnJob | Source::OthersJob => Money::ZERO,
        };
        settled::or_zero(offer.month - credit) * 12
    }

    /// Two or more work and each could pay for the own plan, yet all of these together are too much, and so is the plan for the family.
    fn is_too_much_together(&self, members: &[usize], month: usize) -> bool {
        let each = self.own_plans(members, month);
        let together: Money = each.iter().copied().sum();
        let mut family = self.offered(members, month).filter(|offer| offer.source == Source::OthersJob);
        let family = family.all(|offer| self.cost(offer) > self.most);
        each.len() > 1 && together > self.most && family
    }
}
