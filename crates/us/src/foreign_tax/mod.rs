//! The foreign tax credit (§§27, 901, 904) for tax on interest and dividends: up to a small amount without a form (§904(j)), else
//! Form 1116 for passive income, or the deduction of it on Schedule A line 6 (§164(a)(3)). The choice is made for all foreign
//! income tax of the year (§275(a)(4)).

mod adjusted;
mod minimum;

use crate::{
    bringing::{self, Bringing},
    business_property, capital_gains, deduction,
    facts::Facts,
    filing_status::Status,
    gains_tax::{self, Layers, Worksheet},
    papers::dividends,
    points::Points,
    status, tax, taxable_income,
    unit::{Filed, ForeignTax, On, TaxesDeducted},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Scope, Trail, Unseen},
    words::first_name,
};
use hembo_money::{Money, Rate, Rounding};

pub use minimum::{Minimum, reckon as against_minimum};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[CARRIED],
    points: POINTS,
    figures: &["foreign_tax", "rate_differential", "capital_gains", "minimum_tax"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry {
        line: CARRY,
        paper: "Foreign tax carried",
        into: CarriedTo::Rows { column: "amount", says: None },
    },
    Carry {
        line: CARRY_MINIMUM,
        paper: "Foreign tax carried",
        into: CarriedTo::Rows { column: "minimum", says: None },
    },
];

lines! {
    pub PAID = "us.1116.8", "Foreign income tax", "IRC §901(b)",
        "Box 6 of every Form 1099-INT and box 7 of every Form 1099-DIV.";
    pub L6 = "us.sched_a.6", "Foreign income tax deducted", "IRC §164(a)(3)",
        "Instead of the credit, where the way deducts it.";
    GROSS = "us.1116.3d", "Gross foreign-source income", "IRC §904(d)(2)(B)",
        "Passive interest and dividends from abroad.";
    INCOME = "us.1116.1a", "Foreign-source income", "IRC §904(b)(2)(B), (d)(2)(B)",
        "The same, with qualified dividends as far as their rate asks for.";
    DEDUCTIONS = "us.1116.6", "Deductions that belong to it", "IRC §§861(b), 904",
        "The share of the standard deduction, or of itemized ones that belong to no income, by gross income.";
    TAXABLE = "us.1116.17", "Foreign-source taxable income", "IRC §904(a)",
        "Foreign-source income less its share of deductions.";
    ALL = "us.1116.18", "Taxable income, adjusted", "IRC §904(b)(2)(B)",
        "Taxable income, with what is taxed at the rates for gains as far as these ask for.";
    TAX = "us.1116.20", "Tax with credits paid back", "IRC §§26(b), 904(a)",
        "Line 16 and line 1z of Schedule 2.";
    LIMIT = "us.1116.21", "Limit of the credit", "IRC §904(a)",
        "The tax, in the proportion of foreign-source to all taxable income.";
    CARRIED_HERE = "us.1116.10", "Foreign tax carried here", "IRC §904(c)",
        "Unused in earlier years.";
    pub CREDIT = "us.sched_3.1", "Foreign tax credit", "IRC §§27, 904",
        "Foreign income tax, up to the tax or to the limit of Form 1116.";
    CARRY = "us.carryover.foreign_tax", "Foreign tax carried on", "IRC §904(c)",
        "What of it is over the limit: one year back, ten on.";
    pub MINIMUM_CREDIT = "us.6251.8", "Foreign tax credit of the minimum tax", "IRC §59(a)",
        "Foreign income tax, up to the limit that the minimum tax has.";
    CARRY_MINIMUM = "us.carryover.foreign_tax_minimum", "Foreign tax carried on for the minimum tax", "IRC §§59(a)(1), 904(c)",
        "What of it is over that limit.";
}

limits! {
    SIMPLE = "us.limit.foreign_tax_simple" on CREDIT, "Foreign tax credit", "over the tax, and lost",
        "IRC §904(j)";
    BY_FORM = "us.limit.foreign_tax" on CREDIT, "Foreign tax credit", "over the limit of Form 1116",
        "IRC §904(a)";
}

open_points! {
    NO_INCOME = blocks "K-060", "IRC §904(a), (d)",
        "Enter the income from abroad beside the tax: Form 1116 limits the credit by it.";
    COUNTRY = blocks "K-139", "Form 1116, line i",
        "Enter the country of the tax, or RIC for a fund.";
    RATES = not_covered "1116-rates", "IRC §904(b)(2)(B)";
    NOT_ADJUSTED = not_weighed "1116-rates-left", "IRC §904(b)(2)(B)",
        "Which of the rates are theirs the law does not say, so that the adjusted form is not weighed here.";
    ABSORBED = look "1116-absorbed", "IRC §904(c); Reg. §1.904-2(d)",
        "It is reckoned with the deduction taken off; compare it with a Form 1116 without, and correct next year's paper by a few dollars.";
    BACK = look "1116-carryback", "IRC §904(c)",
        "Amend last year's return first: what is unused goes back one year before it goes on.";
    DEPENDENT = not_covered "1116-dependent", "IRC §904";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Unused foreign tax of earlier years.
    pub static CARRIED: Brought = Brought::new();

    /// The same for the minimum tax.
    pub static CARRIED_MINIMUM: Brought = Brought::new();
}

/// Foreign tax of earlier years.
pub const CARRIED: PaperKind = PaperKind {
    id: "Foreign tax carried",
    subject: subject::CREDITS,
    name: "Foreign tax of earlier years, not yet credited",
    words: "1116 foreign tax carryover passive",
    title: "From",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::count("year", "", "Year", 2100),
        Field::amount("amount", "", "Left to credit").help("Passive income, Form 1116 Schedule B."),
        Field::amount("minimum", "", "Left for the minimum tax").help("From the Form 1116 of Form 6251."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives what is left of the ten years before (§904(c)).
pub fn read(paper: &mut Bringing<'_>) {
    let year = i64::from(paper.facts.figures.year);
    let oldest = year - paper.facts.figures.foreign_tax.carried_years;
    for (column, into) in [("amount", &brings::CARRIED), ("minimum", &brings::CARRIED_MINIMUM)] {
        for (r, row, amount) in paper.paper.lines(column) {
            let from = row.get("year").and_then(Entry::count);
            if from.is_none_or(|from| (oldest..year).contains(&from)) {
                paper.put(column, Some(r), amount, into);
            }
        }
    }
}

/// What the limit is worked out from.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Gross income from all sources, losses not taken off.
    pub gross: Money,
    /// The standard deduction, where the return takes it.
    pub standard: Money,
    /// Schedule A line 4.
    pub medical: Money,
    /// Schedule A lines 5a and 5b that belong to no income, within line 5e.
    pub taxes: Money,
    /// Schedule A line 8e.
    pub interest: Money,
    /// Line 15.
    pub taxable: Money,
    /// Line 16.
    pub regular: Money,
    /// Schedule 2 line 1z.
    pub repaid: Money,
    /// What line 16 was worked out by, where something is taxed at the rates for gains.
    pub worksheet: Option<Worksheet>,
}

/// What of Form 1116 the minimum tax asks for.
#[derive(Debug, Clone, Copy)]
struct OfForm {
    /// Line 8.
    paid: Money,
    /// Line 3d.
    income: Money,
    /// Line 6, with what the minimum tax allows of it.
    deductions: Money,
    /// Whether line 1a had to be adjusted.
    must_adjust: bool,
}

/// The credit, and what of its form the minimum tax asks for.
#[derive(Debug, Clone, Copy)]
pub struct Credited {
    /// Schedule 3 line 1.
    pub credit: Money,
    form: Option<OfForm>,
}

/// The credit, Schedule 3 line 1.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Credited {
    let without_form = |credit| Credited { credit, form: None };
    let paid = on.gather(trail, PAID, &bringing::brings::FOREIGN_TAX);
    let carried: Money = sum(on.items(&brings::CARRIED)).to_whole();
    if (paid + carried).is_zero() {
        return without_form(trail.line(CREDIT, on.scope, Money::ZERO, |_| {}));
    }
    if on.unit.foreign_tax == ForeignTax::Deducted {
        absorbed(on, trail, from, [paid, carried]);
        return without_form(trail.line(CREDIT, on.scope, Money::ZERO, |_| {}));
    }
    let tax = from.regular + from.repaid;
    if on.unit.foreign_tax == ForeignTax::Simple {
        waits(on, trail, carried);
        let credit = limit::cap(trail, SIMPLE.at(on.scope), paid, tax);
        return without_form(trail.line(CREDIT, on.scope, credit, |i| {
            i.line(PAID, on.scope, paid)
                .line(tax::L16, on.scope, from.regular)
                .figure("Credits paid back", from.repaid);
        }));
    }
    trail.line(TAX, on.scope, tax, |i| {
        i.line(tax::L16, on.scope, from.regular).figure("Credits paid back", from.repaid);
    });
    let (most, form) = by_form(on, trail, from, paid);
    let carried = on.gather(trail, CARRIED_HERE, &brings::CARRIED);
    let credit = limit::cap(trail, BY_FORM.at(on.scope), paid + carried, most);
    trail.line(CREDIT, on.scope, credit, |i| {
        i.line(PAID, on.scope, paid).line(CARRIED_HERE, on.scope, carried).line(LIMIT, on.scope, most);
    });
    trail.line(CARRY, on.scope, paid + carried - credit, |i| {
        i.line(PAID, on.scope, paid).line(CARRIED_HERE, on.scope, carried).line(CREDIT, on.scope, credit);
    });
    Credited { credit, form: Some(form) }
}

/// Tax of earlier years waits through a year without the form (§904(j)(1)(C)).
fn waits(on: On<'_>, trail: &mut impl Trail, carried: Money) {
    if !carried.is_zero() {
        trail.line(CARRY, on.scope, carried, |i| {
            i.items(on.items(&brings::CARRIED));
        });
        trail.line(CARRY_MINIMUM, on.scope, sum(on.items(&brings::CARRIED_MINIMUM)).to_whole(), |i| {
            i.items(on.items(&brings::CARRIED_MINIMUM));
        });
    }
}

/// In a year that deducts its tax, that of earlier years is used up as if it were credited (§904(c); Reg. §1.904-2(d)).
fn absorbed(on: On<'_>, trail: &mut impl Trail, from: From, [paid, carried]: [Money; 2]) {
    if carried.is_zero() {
        return;
    }
    let (most, _) = by_form(on, &mut Unseen(trail), from, paid);
    let room = limit::or_zero(trail, most - paid);
    let used = limit::lesser(trail, carried, room);
    trail.line(CARRY, on.scope, carried - used, |i| {
        i.items(on.items(&brings::CARRIED)).figure("As if credited", used);
    });
}

/// Form 1116 lines 1a to 21.
fn by_form(on: On<'_>, trail: &mut impl Trail, from: From, paid: Money) -> (Money, OfForm) {
    let figures = &on.facts.figures.foreign_tax;
    let gross = on.gather(trail, GROSS, &bringing::brings::FOREIGN_INCOME);
    let must_adjust = from.worksheet.is_some_and(|worksheet| adjusted::must(on, trail, &worksheet));
    let layers = adjusted::layers_of(on, must_adjust, from.worksheet.and_then(|worksheet| worksheet.layers));
    let (income, all) = at_lower_rates(on, trail, from, gross, layers);
    let ratio = part_of(gross, from.gross, figures.ratio_places);
    let share = |amount: Money| amount.times(ratio, Money::WHOLE, Rounding::HalfUp);
    let general = if on.unit.itemizes { from.medical + from.taxes } else { from.standard };
    let interest =
        if on.unit.itemizes && gross > figures.interest_counts_above { from.interest } else { Money::ZERO };
    let deductions = trail.line(DEDUCTIONS, on.scope, share(general) + share(interest), |i| {
        i.figure("Deductions that belong to no income", general)
            .figure("Home-loan interest", interest)
            .figure("Share of gross income", ratio);
    });
    let taxable = limit::or_zero(trail, income - deductions);
    trail.line(TAXABLE, on.scope, taxable, |i| {
        i.line(INCOME, on.scope, income).line(DEDUCTIONS, on.scope, deductions);
    });
    let part = part_of(taxable, all, figures.ratio_places);
    let tax = from.regular + from.repaid;
    let most = tax.times(part, Money::WHOLE, Rounding::HalfUp);
    trail.line(LIMIT, on.scope, most, |i| {
        i.line(TAX, on.scope, tax).line(TAXABLE, on.scope, taxable).line(ALL, on.scope, all);
    });
    let for_minimum = if on.unit.itemizes { share(from.medical) + share(interest) } else { Money::ZERO };
    (most, OfForm { paid, income: gross, deductions: for_minimum, must_adjust })
}

/// Lines 1a and 18: foreign-source income and all taxable income, with what is taxed at the rates for gains as far as these ask for.
fn at_lower_rates(
    on: On<'_>,
    trail: &mut impl Trail,
    from: From,
    gross: Money,
    layers: Option<Layers>,
) -> (Money, Money) {
    let counted = &on.facts.figures.rate_differential.regular;
    let qualified = adjusted::qualified(on);
    let abroad = layers.map_or(Money::ZERO, |of| adjusted::left_out_abroad(qualified, of, counted));
    let everywhere = layers.map_or(Money::ZERO, |of| adjusted::left_out(of, counted));
    let income = trail.line(INCOME, on.scope, gross - abroad, |i| {
        i.line(GROSS, on.scope, gross).figure("Left out for the lower rates", abroad);
    });
    let all = trail.line(ALL, on.scope, from.taxable - everywhere, |i| {
        i.line(taxable_income::L15, on.scope, from.taxable)
            .figure("Left out for the lower rates", everywhere);
    });
    (income, all)
}

/// A part of a whole, at most all of it.
fn part_of(part: Money, whole: Money, places: u32) -> Rate {
    if part >= whole { Rate::ONE } else { part.ratio_to(whole, places, Rounding::HalfUp) }
}

/// Line 6 of Schedule A.
pub fn deducted(on: On<'_>, trail: &mut impl Trail) -> Money {
    if on.unit.foreign_tax == ForeignTax::Deducted {
        on.gather(trail, L6, &bringing::brings::FOREIGN_TAX)
    } else {
        trail.line(L6, on.scope, Money::ZERO, |_| {})
    }
}

/// The taxes of Schedule A that belong to no income, as far as line 5e has them: general sales tax and real estate tax.
pub fn general_taxes(on: On<'_>, sales: Money, real_estate: Money, paid: Money, allowed: Money) -> Money {
    let sales = if on.unit.taxes == TaxesDeducted::Income { Money::ZERO } else { sales };
    let general = sales + real_estate;
    if paid.is_zero() {
        general
    } else {
        general.in_proportion(allowed, paid, Money::WHOLE, Rounding::HalfUp)
    }
}

/// The law of the choice.
const CITE: &str = "IRC §§164(a)(3), 275(a)(4), 901(a), 904(j)";

/// Credit or deduction on the joint or only return.
pub static CHOSEN: Open<Facts> = Open::new(
    |facts| if needs(facts, &facts.filers, status_together(facts)) { vec![0] } else { Vec::new() },
    |_, _| Decision::between("us.foreign_tax", "Foreign tax", CITE, options("")),
)
.arises(|facts, _, way| !status::separate(facts, way))
.bars(|facts, _, option, way| {
    bar(facts, &facts.filers, status_together(facts), option, deduction::itemizes_together(way))
});

/// The same on the separate return of a filer, by the filer's place among them.
pub static CHOSEN_APART: Open<Facts> = Open::new(
    |facts| {
        let place = |&p: &usize| needs(facts, &facts.filers[p..=p], Status::Separate);
        if facts.filers.len() == 2 { (0..2).filter(place).collect() } else { Vec::new() }
    },
    |facts, place| {
        let person = &facts.people[facts.filers[place]];
        let label = format!("Foreign tax of {}", person.name);
        Decision::between(
            format!("us.foreign_tax.{}", person.id),
            label,
            CITE,
            options(first_name(&person.name)),
        )
    },
)
.arises(|facts, _, way| status::separate(facts, way))
.bars(|facts, place, option, way| {
    let filer = &facts.filers[place..=place];
    bar(facts, filer, Status::Separate, option, deduction::itemizes_apart(way, place))
});

/// The options, by their places.
const OPTIONS: [ForeignTax; 4] =
    [ForeignTax::Simple, ForeignTax::Form, ForeignTax::Deducted, ForeignTax::Adjusted];

fn options(whose: &str) -> Vec<Opt> {
    let of = |word: &str| format!("{whose} {word}").trim_start().to_owned();
    vec![
        Opt::new("simple", "Credit without Form 1116", of("foreign tax without the form")),
        Opt::new("form", "Credit with Form 1116", of("foreign tax by Form 1116")),
        Opt::new("deduct", "Deduct it", of("foreign tax deducted")),
        Opt::new(
            "adjusted",
            "Credit with Form 1116, gains adjusted",
            of("foreign tax by Form 1116, adjusted"),
        ),
    ]
}

fn status_together(facts: &Facts) -> Status {
    if facts.couple() { Status::Joint } else { Status::Single }
}

fn brought(facts: &Facts, people: &[usize]) -> (Money, Money) {
    let all = |kind| people.iter().map(|&p| sum(facts.people[p].own.of(kind))).sum();
    (all(&bringing::brings::FOREIGN_TAX), all(&brings::CARRIED))
}

/// Whether there is anything to choose: else the credit without the form leaves nothing to gain.
fn needs(facts: &Facts, people: &[usize], status: Status) -> bool {
    let (paid, carried) = brought(facts, people);
    paid.to_whole() > *facts.figures.foreign_tax.simple.of(status) || !carried.is_zero()
}

fn bar(facts: &Facts, people: &[usize], status: Status, option: usize, itemizes: bool) -> Option<Bar> {
    let (paid, _) = brought(facts, people);
    match OPTIONS[option] {
        ForeignTax::Simple if paid.to_whole() > *facts.figures.foreign_tax.simple.of(status) => {
            Some(Bar::Borrowed("more foreign tax than goes without the form"))
        }
        ForeignTax::Deducted if !itemizes => Some(Bar::Borrowed("standard deduction taken")),
        ForeignTax::Adjusted if !(0..facts.people.len()).any(|p| at_gains_rates(facts, p)) => {
            Some(Bar::Borrowed("nothing taxed at the rates for gains"))
        }
        _ => None,
    }
}

/// Whether a person has qualified dividends or may have a net gain.
fn at_gains_rates(facts: &Facts, person: usize) -> bool {
    let own = &facts.people[person].own;
    own.has(&dividends::brings::QUALIFIED)
        || own.has(&business_property::brings::SALES)
        || capital_gains::anything(own)
}

fn taken(option: Option<usize>) -> ForeignTax {
    option.map_or(ForeignTax::Simple, |option| OPTIONS[option])
}

/// What a way does with foreign tax on the joint or only return.
pub fn together(way: Chosen<'_, '_, Facts>) -> ForeignTax {
    taken(way.taken(&CHOSEN, 0))
}

/// What a way does with it on the separate return of a filer.
pub fn apart(way: Chosen<'_, '_, Facts>, place: usize) -> ForeignTax {
    taken(way.taken(&CHOSEN_APART, place))
}

/// Form 1116: where the way takes it.
pub fn form_1116(filed: Filed<'_>) -> Required {
    let by_form = filed.on.unit.foreign_tax.by_form() && filed.has(CREDIT);
    let why = if filed.has(PAID) {
        "not needed up to the amount of §904(j), or deducted"
    } else {
        "no foreign tax"
    };
    Required::if_so(by_form, why)
}

/// Whether part of what is taxed at 0, 15 and 20 % is qualified dividends from abroad, so that it does not say at which rate these are.
pub fn is_divided(on: On<'_>, [zero, middle, top]: [Money; 3]) -> bool {
    let of = Layers { zero, middle, top, at_25: Money::ZERO, at_28: Money::ZERO };
    adjusted::divided(adjusted::qualified(on), of)
}

/// What the form asks for, and what it takes for granted.
pub fn points(points: &mut Points<'_>) {
    for place in 0..points.units.len() {
        of_return(points, place);
    }
    for paper in &points.household.papers {
        let tax = ["1099-INT", "1099-DIV"].into_iter().zip([("6", "7"), ("7", "8")]);
        for (_, (amount, country)) in tax.filter(|(kind, _)| paper.kind == *kind) {
            if !paper.amount(amount).is_zero() && paper.text(country).is_none() {
                let place = Place::paper(&paper.id, country);
                points.raise(&COUNTRY, place, "In which country was this tax paid?");
            }
        }
    }
}

fn of_return(points: &mut Points<'_>, place: usize) {
    let unit = &points.units[place];
    let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
    let paid = sum(on.items(&bringing::brings::FOREIGN_TAX));
    if unit.foreign_tax == ForeignTax::Deducted && on.items(&brings::CARRIED).next().is_some() {
        let message = "A year that deducts foreign tax uses up that of earlier years as if it were credited.";
        points.raise(&ABSORBED, points.whose(unit), message);
    }
    if !unit.foreign_tax.by_form() {
        let most = *points.facts.figures.foreign_tax.simple.of(unit.status);
        if !unit.main && paid.to_whole() > most {
            let message = "So much foreign tax on a dependent's own return needs Form 1116.";
            points.raise(&DEPENDENT, points.whose(unit), message);
        }
        return;
    }
    let first = on.items(&bringing::brings::FOREIGN_TAX).next();
    let Some(item) = first else { return };
    let paper = Place::paper(&points.household.papers[item.paper].id, item.field);
    if sum(on.items(&bringing::brings::FOREIGN_INCOME)).is_zero() {
        points.raise(&NO_INCOME, paper.clone(), "Which income from abroad was taxed there?");
    }
    let amount = |line| points.amount(line, place);
    if is_divided(on, [gains_tax::AT_ZERO, gains_tax::AT_MIDDLE, gains_tax::AT_TOP].map(amount)) {
        let message =
            "Of the qualified dividends and gains, which fall under several rates, part is from abroad.";
        let point = if amount(INCOME) < amount(GROSS) { &RATES } else { &NOT_ADJUSTED };
        points.raise(point, paper.clone(), message);
    }
    if !points.amount(CARRY, place).is_zero() {
        points.raise(&BACK, paper, "Foreign tax is over the limit of the credit.");
    }
}
