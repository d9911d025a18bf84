//! Part-year residents and nonresidents (R&TC 17041(b), (i), 17055; Form 540NR): the tax as if a resident all year, at its average rate on the
//! income of California alone.

use super::{
    adjustments::{self, L17},
    exemptions::L32,
    itemized::L18,
    made,
    tax::{L19, L31},
};
use crate::{
    bringing::{self, Bringing},
    business, business_property, capital_gains, incentive_options, income, long_term_care, minimum_tax_items,
    operating_loss, other_income, retirement, schedule_1,
    states::STATES,
    unit::On,
    untaxed_pay,
};
use hembo_core::{
    Recorder, Silent, Trail,
    brought::Brought,
    field::{Choice, Field, Years},
    household::Entry,
    limit::{self, LimitAt},
    limits,
    line::LineId,
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    trail::Item,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[PAPER],
    figures: &["california_part_year"],
    ..Provision::NONE
};

lines! {
    pub WAGES = "us.ca.540nr.e.1", "Wages of California", "R&TC 17951; Schedule CA (540NR), column E", "State wages of this state on Forms W-2, and what was entered beside.";
    INTEREST = "us.ca.540nr.e.2b", "Interest of California", "R&TC 17952", "While resident: interest of whoever lives elsewhere is not of California.";
    DIVIDENDS = "us.ca.540nr.e.3b", "Dividends of California", "R&TC 17952", "While resident.";
    DISTRIBUTIONS = "us.ca.540nr.e.4b", "IRA distributions of California", "4 U.S.C. 114", "While resident.";
    PENSIONS = "us.ca.540nr.e.5b", "Pensions of California", "4 U.S.C. 114", "While resident.";
    BUSINESS = "us.ca.540nr.e.s3", "Business income of California", "R&TC 17951", "Of business there, and of everywhere while resident.";
    GAINS = "us.ca.540nr.e.7", "Gains of California", "R&TC 17951, 17952", "Of real estate there, and of everything while resident.";
    RENTS = "us.ca.540nr.e.s5", "Rents and shares of firms of California", "R&TC 17951", "Of real estate and business there, and of everywhere while resident.";
    OTHER = "us.ca.540nr.e.other", "Other income of California", "R&TC 17951", "What is entered.";
    ADJUSTMENTS = "us.ca.540nr.e.26", "Adjustments of California", "Schedule CA (540NR), column E", "The part that belongs to income of California.";
    pub L27E = "us.ca.540nr.27e", "Adjusted gross income of California alone", "Schedule CA (540NR), line 27 E", "Column E: while resident all income, else that of sources there.";
    DEDUCTION = "us.ca.540nr.iv.4", "Its part of the deduction", "R&TC 17304; Schedule CA (540NR), Part IV", "In the proportion of its income to all income, to four places.";
    pub L35 = "us.ca.540nr.35", "Taxable income of California alone", "R&TC 17041(b)", "Its income less its part of the deduction, not below zero.";
    pub L37 = "us.ca.540nr.37", "Tax on it", "R&TC 17041(b)(2); Form 540NR, line 37", "At the average rate of the tax on all income, to four places.";
    pub AWAY = "us.ca.540nr.away", "Tax on income elsewhere", "R&TC 17041(b)", "Line 31 less line 37: what is not owed.";
    pub L39 = "us.ca.540nr.39", "Its part of the exemption credits", "R&TC 17055; Form 540NR, line 39", "In the proportion of its taxable income to all, to four places.";
    pub AWAY_CREDITS = "us.ca.540nr.away.credits", "Exemption credits of income elsewhere", "R&TC 17055", "The credits less line 39.";
}

limits! {
    DEDUCTION_PART = "us.ca.limit.540nr_deduction" on DEDUCTION, "Deduction of California", "the part of California", "R&TC 17304";
    PART = "us.ca.limit.540nr" on L39, "Exemption credits", "the part of California", "R&TC 17055";
}

/// What someone's income of California is by a line of Schedule CA (540NR).
#[derive(Debug)]
pub struct Kind {
    /// As the paper has it.
    pub id: &'static str,
    /// In words.
    pub label: &'static str,
    /// Its line of column E.
    pub line: LineId,
    /// What papers bring of it.
    pub brings: &'static Brought,
    /// The lines of all income that call for it.
    pub calls: &'static [LineId],
}

macro_rules! kinds {
    ($($id:literal, $label:literal, $line:ident, [$($calls:expr),*];)*) => {
        /// Every line of column E, in the order of the schedule, adjustments last.
        pub static KINDS: &[Kind] = &[$(Kind {
            id: $id,
            label: $label,
            line: $line,
            brings: { static OF: Brought = Brought::new(); &OF },
            calls: &[$($calls),*],
        }),*];
        const CHOICES: &[Choice] = &[$(Choice::new($id, $label)),*];
    };
}

kinds! {
    "wages", "1 · wages, beside state wages on Forms W-2", WAGES, [income::EARNED];
    "interest", "2b · interest", INTEREST, [income::INTEREST, adjustments::OTHER_STATES, adjustments::SAVINGS_EARNED];
    "dividends", "3b · dividends", DIVIDENDS, [income::DIVIDENDS];
    "distributions", "4b · IRA distributions", DISTRIBUTIONS, [retirement::IRA];
    "pensions", "5b · pensions and annuities", PENSIONS, [retirement::PENSION];
    "business", "Schedule 1, 3 · business", BUSINESS, [business::L3];
    "gains", "7 · capital gains and losses", GAINS, [capital_gains::L7];
    "rents", "Schedule 1, 5 · rents, partnerships, S corporations, trusts", RENTS, [schedule_1::L5];
    "other", "Other income", OTHER, [other_income::ALL, business_property::ORDINARY, long_term_care::INCOME, operating_loss::L8A, untaxed_pay::L8S, adjustments::ALIMONY, adjustments::ADDED, adjustments::SUBTRACTED];
    "adjustments", "Adjustments", ADJUSTMENTS, [schedule_1::ADJUSTMENTS, adjustments::MOVING, adjustments::ALIMONY_PAID];
}

/// The paper of column E.
pub const PAPER: PaperKind = PaperKind {
    id: "Schedule CA (540NR)",
    subject: subject::OTHER_INCOME,
    name: "What of the income is of California, column E",
    words: "california nonresident part-year 540nr source column e moved",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("kind", "", "Line", CHOICES),
        Field::text("what", "", "What", 80),
        Field::signed("amount", "E", "Of California").help(
            "With California's own differences. While resident all of it; else wages of work done there, real estate and business there, but neither interest, dividends, gains of securities nor pensions. 0 where none.",
        ),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What was told of, be it nothing, by its id.
static TOLD: Brought<&'static str> = Brought::new();

/// Gives column E to whose it is.
pub fn read(paper: &mut Bringing<'_>) {
    let lines: Vec<_> =
        paper.paper.lines("amount").map(|(row, cells, amount)| (row, cells.clone(), amount)).collect();
    for (row, cells, amount) in lines {
        let chosen = cells.get("kind").and_then(Entry::text);
        if let Some(kind) = KINDS.iter().find(|kind| Some(kind.id) == chosen) {
            paper.put("amount", Some(row), amount, kind.brings);
            for (person, _) in paper.paper.shares(Money::ZERO) {
                paper.facts.people[person].own.add(&TOLD, kind.id);
            }
        }
    }
}

/// What of a return is taxed in California, with the lines on which its tax and its credits stand.
#[derive(Debug, Clone, Copy)]
pub struct Here {
    /// Adjusted gross income, with its line: 17, or 27 of column E of Form 540NR.
    pub income: (LineId, Money),
    /// Taxable income, with its line: 19, or 35 of Form 540NR.
    pub taxable: (LineId, Money),
    /// The tax, with its line.
    pub tax: (LineId, Money),
    /// Exemption credits, with their line.
    pub exemptions: (LineId, Money),
    /// Which part of the deduction counts.
    pub of_deduction: Rate,
    /// Which part of credits counts: line 38.
    pub of_credits: Rate,
}

/// The computation as if resident all year: line 17, 18, 19, 31 and the exemption credits.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct AllYear {
    pub agi: Money,
    pub deduction: Money,
    pub taxable: Money,
    pub tax: Money,
    pub exemptions: Money,
}

/// Whether Form 540NR is filed.
pub fn is_filed(on: On<'_>) -> bool {
    on.facts.of_state.as_ref().is_some_and(|of| of.part_year)
}

/// What is taxed here: everything of who lived there all year.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, all: AllYear) -> Here {
    if !is_filed(on) {
        return Here {
            income: (L17, all.agi),
            taxable: (L19, all.taxable),
            tax: (L31, all.tax),
            exemptions: (L32, all.exemptions),
            of_deduction: Rate::ONE,
            of_credits: Rate::ONE,
        };
    }
    let income = column_e(on, trail);
    let of_deduction = ratio(on, trail, income, all.agi);
    let deduction =
        limit::part(trail, DEDUCTION_PART.at(on.scope), all.deduction, of_deduction, Money::WHOLE);
    let part = limit::percent(of_deduction);
    made(
        on,
        trail,
        DEDUCTION,
        deduction,
        &[(L27E, income), (L17, all.agi), (L18, all.deduction)],
        &[("Part", &part)],
    );
    let taxable = limit::or_zero(trail, income - deduction);
    made(on, trail, L35, taxable, &[(L27E, income), (DEDUCTION, deduction)], &[]);
    let rate = if all.taxable > Money::ZERO {
        all.tax.ratio_to(all.taxable, places(on), Rounding::HalfUp)
    } else {
        Rate::ZERO
    };
    let tax = taxable.times(rate, Money::WHOLE, Rounding::HalfUp);
    let rate = limit::percent(rate);
    made(
        on,
        trail,
        L37,
        tax,
        &[(L35, taxable), (L31, all.tax), (L19, all.taxable)],
        &[("Average rate", &rate)],
    );
    made(on, trail, AWAY, all.tax - tax, &[(L31, all.tax), (L37, tax)], &[]);
    let of_credits = ratio(on, trail, taxable, all.taxable);
    let exemptions = limit::part(trail, PART.at(on.scope), all.exemptions, of_credits, Money::WHOLE);
    let part = limit::percent(of_credits);
    let lines = [(L35, taxable), (L19, all.taxable), (L32, all.exemptions)];
    made(on, trail, L39, exemptions, &lines, &[("Part", &part)]);
    let lines = [(L32, all.exemptions), (L39, exemptions)];
    made(on, trail, AWAY_CREDITS, all.exemptions - exemptions, &lines, &[]);
    Here {
        income: (L27E, income),
        taxable: (L35, taxable),
        tax: (L37, tax),
        exemptions: (L39, exemptions),
        of_deduction,
        of_credits,
    }
}

/// To so many places ratios are rounded.
fn places(on: On<'_>) -> u32 {
    on.facts.figures.california_part_year.as_ref().map_or(0, |of| of.ratio_places)
}

/// A proportion from nothing to all; all where there is a part of nothing.
fn ratio(on: On<'_>, trail: &mut impl Trail, part: Money, all: Money) -> Rate {
    let whole = limit::or_zero(trail, all);
    let own = limit::or_zero(trail, part);
    let own = limit::lesser(trail, own, whole);
    match (whole.is_zero(), part > Money::ZERO) {
        (true, true) => Rate::ONE,
        (true, false) => Rate::ZERO,
        (false, _) => own.ratio_to(whole, places(on), Rounding::HalfUp),
    }
}

/// The part of a credit that counts on Form 540NR; all of it on Form 540.
pub fn part_of(on: On<'_>, trail: &mut impl Trail, at: LimitAt, credit: Money, part: Rate) -> Money {
    if is_filed(on) { limit::part(trail, at, credit, part, Money::WHOLE) } else { credit }
}

/// Line 27 of column E.
fn column_e(on: On<'_>, trail: &mut impl Trail) -> Money {
    let lines: Vec<(LineId, Money)> =
        KINDS.iter().map(|kind| (kind.line, of_kind(on, trail, kind))).collect();
    let signed = |&(line, amount): &(LineId, Money)| if line == ADJUSTMENTS { -amount } else { amount };
    let all = lines.iter().map(signed).sum();
    made(on, trail, L27E, all, &lines, &[])
}

fn of_kind(on: On<'_>, trail: &mut impl Trail, kind: &Kind) -> Money {
    let items: Vec<&Item> = on.items(kind.brings).collect();
    let on_statements = if kind.line == WAGES { state_wages(on) } else { Money::ZERO };
    let amount = (sum(items.iter().copied()) + on_statements).to_whole();
    trail.line(kind.line, on.scope, amount, |i| {
        _ = i.items(items);
        if kind.line == WAGES {
            i.figure("State wages on Forms W-2", on_statements);
        }
    })
}

/// State wages of California, of everyone on a return, with cents.
pub fn state_wages(on: On<'_>) -> Money {
    on.unit.people.iter().map(|&person| state_wages_of(on, person)).sum()
}

/// State wages of California of one person, with cents.
pub fn state_wages_of(on: On<'_>, person: usize) -> Money {
    let all = on.facts.people[person].own.of(&bringing::brings::OF_STATES);
    all.iter().filter(|of| STATES[of.state].id == "CA").map(|of| of.wages).sum()
}

/// What someone earned in California by work and business.
pub fn earned_here(on: On<'_>, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    let of = |line: LineId| KINDS.iter().filter(move |kind| kind.line == line);
    let entered: Money = of(WAGES).chain(of(BUSINESS)).map(|kind| sum(own.of(kind.brings))).sum();
    (state_wages_of(on, person) + entered).to_whole()
}

/// Whether anyone on a return was a resident in some month.
pub fn resident_in_part(on: On<'_>) -> bool {
    on.unit.people.iter().any(|&person| super::of_person(on, person).residence.in_part())
}

/// Whether a return has income of a kind, and nobody said how much of it is of California.
pub fn lacks(on: On<'_>, trail: &Recorder, kind: &Kind) -> bool {
    let has = |line: &&LineId| trail.amount(line, on.scope).is_some_and(|amount| !amount.is_zero());
    let told = on.owns().any(|(_, own)| own.of(&TOLD).contains(&kind.id));
    // State wages are told by the state boxes of Forms W-2, of whichever state.
    let stated = kind.line == WAGES
        && on
            .owns()
            .any(|(_, own)| own.of(&bringing::brings::OF_STATES).iter().any(|of| !of.wages.is_zero()));
    kind.calls.iter().any(|line| has(&line)) && !told && !stated
}

/// Whether the minimum tax has adjustments that are not divided by source.
pub fn has_minimum_tax_items(on: On<'_>) -> bool {
    let gains = income::reckon(on, &mut Silent).gains;
    let items = minimum_tax_items::reckon(on, &mut Silent, gains).sum;
    !(incentive_options::reckon(on, &mut Silent) + items).is_zero()
}
