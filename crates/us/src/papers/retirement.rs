//! Form 1099-R: distributions of pensions, annuities and retirement accounts, and what its codes do.

use crate::{
    bringing::{self, Bringing},
    facts::Facts,
    points::Points,
    states::{self, STATES},
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    household::Entry,
    open_points,
    outcome::age_on,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::Reading,
    settled,
    trail::Item,
};
use hembo_money::Money;
use time::{Date, Month};

/// What this paper declares.
pub static PROVISION: Provision = Provision {
    papers: &[DISTRIBUTION],
    points: POINTS,
    figures: &["early_distribution", "charitable_distribution"],
    ..Provision::NONE
};

open_points! {
    NO_CODE = blocks "1099-R-7", "Instructions for Form 1099-R, box 7",
        "Enter the code: it decides what of the distribution is taxed.";
    NEEDS = not_covered "1099-R-code", "IRC §§72, 402, 408";
    AGE = look "K-065", "IRC §72(t)(2)(A)(i)",
        "Look at the code and the date of birth.";
    TAXABLE = blocks "K-066", "IRC §72(b), (d)",
        "Enter box 2a, or what the Simplified Method asks for: cost, age at the start, months.";
    OVER = blocks "1099-R-parts", "IRC §§402(c), 408(d)",
        "Rolled over, given or converted cannot be more than was distributed.";
    ROLLOVER = look "K-069", "IRC §§402(c)(3), 408(d)(3)",
        "Within 60 days, and from one IRA to another once in twelve months: see that it was.";
    QCD_AGE = blocks "K-070", "IRC §408(d)(8)(B)",
        "Only from 70½ on, straight from an IRA to a charity: correct the amount.";
    PRIOR_YEAR = look "1099-R-P", "IRC §402(g)(2)(C)",
        "It is income of the year before: amend that return if it was left out there.";
    OFFSET = look "1099-R-M", "IRC §402(c)(3)(C)",
        "A loan offset may be rolled over until the due date with extensions: enter what was.";
    EARLY_PENSION = look "1099-R-3", "Reg. §1.72-15; Form 1040, line 1h",
        "Before the plan's minimum retirement age a disability pension is wages: answer the question on the paper.";
}

/// Where what is taxed of a distribution goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Goes {
    /// Lines 4a and 4b: a traditional, SEP or SIMPLE IRA.
    Ira,
    /// Lines 5a and 5b.
    Pension,
    /// Line 1h: wages by law.
    Wages,
    /// Form 8606, Part III.
    Roth,
    /// Line 4a: a qualified distribution of a Roth IRA.
    RothQualified,
}

impl Goes {
    /// Whether it came out of an IRA of either sort.
    pub fn is_ira(self) -> bool {
        matches!(self, Goes::Ira | Goes::Roth | Goes::RothQualified)
    }
}

/// What a code of box 7 does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Does {
    /// An ordinary distribution.
    Ordinary,
    /// Early: the additional tax (§72(t)).
    Early,
    /// Early out of a SIMPLE IRA in its first two years (§72(t)(6)).
    EarlySimple,
    /// Disability: wages before the minimum retirement age.
    Disability,
    /// Only box 2a is taxed, nothing where it is empty: rollovers and exchanges.
    OnlyTaxable,
    /// Not taxed at all.
    Nothing,
    /// Excess given back, of this year: wages, out of an IRA on line 4b.
    Excess,
    /// Income of the year before.
    PriorYear,
    /// An early distribution of a Roth IRA.
    RothEarly,
    /// A distribution of a Roth IRA with an exception.
    Roth,
    /// A qualified distribution of a Roth IRA: not taxed at all.
    RothQualified,
    /// Not computed yet.
    Needs(&'static str),
    /// Says something beside another code.
    Beside,
}

/// A code of box 7.
struct Code {
    id: &'static str,
    label: &'static str,
    does: Does,
}

const fn code(id: &'static str, label: &'static str, does: Does) -> Code {
    Code { id, label, does }
}

/// Every code of box 7 with what it does: the one list.
const CODES: &[Code] = &[
    code("1", "1 · early, no known exception", Does::Early),
    code("2", "2 · early, exception applies", Does::Ordinary),
    code("3", "3 · disability", Does::Disability),
    code("4", "4 · death", Does::Ordinary),
    code("5", "5 · prohibited transaction", Does::Ordinary),
    code("6", "6 · section 1035 exchange", Does::OnlyTaxable),
    code("7", "7 · normal", Does::Ordinary),
    code("8", "8 · excess, taxable this year", Does::Excess),
    code("9", "9 · current life insurance", Does::Ordinary),
    code("A", "A · 10-year tax option", Does::Needs("Form 4972")),
    code("B", "B · designated Roth account", Does::Beside),
    code("C", "C · reportable death benefit", Does::Ordinary),
    code("D", "D · nonqualified annuity", Does::Beside),
    code("E", "E · correction under EPCRS", Does::Ordinary),
    code("F", "F · charitable gift annuity", Does::Ordinary),
    code("G", "G · direct rollover", Does::OnlyTaxable),
    code("H", "H · direct rollover to a Roth IRA", Does::OnlyTaxable),
    code("J", "J · early, Roth IRA", Does::RothEarly),
    code("K", "K · IRA assets hard to value", Does::Beside),
    code("L", "L · loan deemed distributed", Does::Beside),
    code("M", "M · loan offset", Does::Beside),
    code("N", "N · recharacterized, this year", Does::Nothing),
    code("P", "P · excess, taxable the year before", Does::PriorYear),
    code("Q", "Q · qualified, Roth IRA", Does::RothQualified),
    code("R", "R · recharacterized, the year before", Does::Nothing),
    code("S", "S · early, SIMPLE in the first two years", Does::EarlySimple),
    code("T", "T · Roth IRA, exception applies", Does::Roth),
    code("U", "U · ESOP dividend", Does::Ordinary),
    code("W", "W · long-term care charges", Does::Nothing),
    code("Y", "Y · qualified charitable distribution", Does::Ordinary),
];

/// The codes as they are chosen.
const CHOICES: [Choice; CODES.len()] = {
    let mut choices = [Choice::new("", ""); CODES.len()];
    let mut at = 0;
    while at < CODES.len() {
        choices[at] = Choice::new(CODES[at].id, CODES[at].label);
        at += 1;
    }
    choices
};

/// Exceptions from the additional tax (§72(t)(2)), by their numbers on Form 5329 line 2.
const EXCEPTIONS: &[Choice] = &[
    Choice::new("01", "01 · left work at 55 or later"),
    Choice::new("02", "02 · equal periodic payments"),
    Choice::new("03", "03 · disability"),
    Choice::new("04", "04 · death"),
    Choice::new("05", "05 · medical above 7.5 % of income"),
    Choice::new("06", "06 · domestic relations order"),
    Choice::new("07", "07 · health premiums while unemployed"),
    Choice::new("08", "08 · higher education"),
    Choice::new("09", "09 · first home, 10,000 in a lifetime"),
    Choice::new("10", "10 · levy"),
    Choice::new("11", "11 · reservist"),
    Choice::new("12", "12 · birth, adoption, disaster, emergency or another"),
];

const DISTRIBUTION: PaperKind = PaperKind {
    id: "1099-R",
    subject: subject::RETIREMENT,
    name: "Pension, annuity, IRA distribution",
    words: "retirement pension ira 401k 403b annuity rollover distribution qcd",
    title: "Payer",
    shared: false,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Gross distribution"),
        Field::amount("2a", "2a", "Taxable amount"),
        Field::yes_no("2b", "2b", "Taxable amount not determined"),
        Field::yes_no("2b.total", "2b", "Total distribution"),
        Field::amount("3", "3", "Capital gain of box 2a"),
        Field::amount("4", "4", "Federal tax withheld"),
        Field::amount("5", "5", "Employee contributions, premiums"),
        Field::amount("6", "6", "Net unrealized appreciation"),
        Field::choice("7", "7", "Distribution code", &CHOICES),
        Field::choice("7.second", "7", "Second code", &CHOICES),
        Field::yes_no("7.ira", "7", "IRA, SEP or SIMPLE"),
        Field::amount("9b", "9b", "Employee contributions in the plan"),
        Field::amount("14", "14", "State tax withheld"),
        Field::choice("15", "15", "State", STATES),
        Field::amount("17", "17", "Local tax withheld"),
        Field::amount("rolled", "", "Rolled over")
            .help("Into another plan or IRA, by the owner within 60 days or by the payer."),
        Field::amount("given", "", "Given straight to charity")
            .help("Qualified charitable distribution out of an IRA."),
        Field::amount("converted", "", "Converted to a Roth IRA").help("Stays taxable."),
        Field::amount("officer", "", "Insurance premiums of a public safety officer")
            .help("Retired; paid out of the plan."),
        Field::yes_no("working_age", "", "Before the minimum retirement age")
            .help("Of the plan; only for code 3."),
        Field::amount("exempt", "", "Not subject to the additional tax")
            .help("Only for codes 1, J and S; with the reason."),
        Field::choice("exempt.why", "", "Because of", EXCEPTIONS),
        Field::amount("disaster", "", "Of a qualified disaster recovery")
            .help("Form 8915-F: spread over years or taxed now, without the additional tax."),
        Field::count("start.age", "", "Age when the annuity began", 250)
            .help("Simplified Method; of two annuitants both ages together."),
        Field::yes_no("start.joint", "", "For two lives").help("The ages of both are added."),
        Field::count("months", "", "Months paid this year", 12).blank_is("12"),
        Field::amount("recovered", "", "Cost recovered before this year").help("Simplified Method, line 6."),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// A distribution as the rules ask for it.
#[derive(Debug, Clone)]
pub struct Distribution {
    /// Box 1.
    pub gross: Item,
    /// What of it is taxed as far as the paper says, without what was rolled over; basis of an IRA and gifts are not yet off.
    pub taxed: Money,
    /// The line that it goes to.
    pub goes: Goes,
    /// Rolled over.
    pub rolled: Money,
    /// Given straight to charity, no more than was taxed.
    pub given: Money,
    /// Converted to a Roth IRA.
    pub converted: Money,
    /// Whether the additional tax applies, and at the higher rate of a SIMPLE IRA.
    pub early: Option<Early>,
    /// What of it the additional tax spares.
    pub exempt: Money,
    /// A distribution of a qualified disaster, no more than is taxed.
    pub disaster: Money,
    /// Net unrealized appreciation of the employer's shares.
    pub appreciation: Money,
    /// Premiums of a retired public safety officer.
    pub officer: Money,
    /// A nonqualified annuity, whose income is net investment income.
    pub annuity: bool,
    /// What the Simplified Method needs.
    pub simplified: Option<Simplified>,
}

/// The additional tax on an early distribution (§72(t)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Early {
    /// §72(t)(1).
    Plain,
    /// §72(t)(6).
    Simple,
}

/// The Simplified Method (§72(d)).
#[derive(Debug, Clone, Copy)]
pub struct Simplified {
    /// Cost in the plan.
    pub cost: Money,
    /// The age at the start, of two lives together.
    pub age: i64,
    /// For two lives.
    pub joint: bool,
    /// Months of this year.
    pub months: i64,
    /// Recovered before this year.
    pub recovered: Money,
}

impl Simplified {
    /// The part of an owner, by the owner's place.
    fn part(self, paper: Reading<'_>, owner: usize) -> Simplified {
        let of = |amount: Money| paper.shares(amount)[owner].1;
        Simplified { cost: of(self.cost), recovered: of(self.recovered), ..self }
    }
}

/// What its papers bring.
pub mod brings {
    use super::Distribution;
    use hembo_core::brought::Brought;

    /// Distributions.
    pub static DISTRIBUTIONS: Brought<Distribution> = Brought::new();
}

fn codes(paper: &Paper) -> impl Iterator<Item = &'static Code> + '_ {
    ["7", "7.second"].into_iter().filter_map(|field| {
        let id = paper.text(field)?;
        CODES.iter().find(|code| code.id == id)
    })
}

/// The code that decides: one that says something beside another, such as D, does so only where it stands alone.
fn main_code(paper: &Paper) -> Option<&'static Code> {
    codes(paper).find(|code| code.does != Does::Beside).or_else(|| codes(paper).next())
}

fn simplified(paper: &Paper) -> Option<Simplified> {
    let count = |id: &str| paper.boxes.get(id).and_then(Entry::count);
    let age = count("start.age")?;
    (!paper.boxes.contains_key("2a") && !paper.amount("9b").is_zero()).then(|| Simplified {
        cost: paper.amount("9b"),
        age,
        joint: paper.flag("start.joint"),
        months: count("months").unwrap_or(12),
        recovered: paper.amount("recovered"),
    })
}

/// Whether it came out of an IRA.
pub fn is_of_ira(paper: &Paper) -> bool {
    let roth = main_code(paper)
        .is_some_and(|code| matches!(code.does, Does::RothEarly | Does::Roth | Does::RothQualified));
    paper.flag("7.ira") || roth
}

/// Gives the distribution to its owner, or to both spouses by half.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    paper.give("4", &bringing::brings::WITHHELD);
    for field in ["14", "17"] {
        paper.give(field, &bringing::brings::STATE_INCOME_TAX);
    }
    paper.give_state("15", Money::ZERO, "14");
    let reading = paper.paper.paper;
    let amount = |id: &str| reading.amount(id);
    let does = main_code(reading).map_or(Does::Ordinary, |code| code.does);
    let ira = reading.flag("7.ira");
    let goes = match does {
        Does::RothEarly | Does::Roth => Goes::Roth,
        Does::RothQualified => Goes::RothQualified,
        Does::Excess if !ira => Goes::Wages,
        Does::Disability if reading.flag("working_age") => Goes::Wages,
        _ if ira => Goes::Ira,
        _ => Goes::Pension,
    };
    let said = reading.boxes.contains_key("2a");
    let taxed = match does {
        Does::Nothing | Does::RothQualified | Does::PriorYear => Money::ZERO,
        Does::OnlyTaxable => amount("2a"),
        _ if said => amount("2a"),
        _ => amount("1"),
    };
    let rolled = settled::lesser(amount("rolled"), taxed);
    let given = settled::lesser(amount("given"), taxed - rolled);
    let early = match does {
        Does::Early | Does::RothEarly => Some(Early::Plain),
        Does::EarlySimple => Some(Early::Simple),
        _ => None,
    };
    let annuity = codes(reading).any(|code| code.id == "D");
    let simplified = simplified(reading);
    let gross = amount("1");
    let reading = paper.paper;
    let disaster =
        settled::lesser(reading.paper.amount("disaster"), settled::or_zero(taxed - rolled - given));
    let amounts = [
        taxed - rolled,
        reading.paper.amount("rolled"),
        given,
        reading.paper.amount("converted"),
        reading.paper.amount("exempt"),
        reading.paper.amount("officer"),
        disaster,
        reading.paper.amount("6"),
    ];
    let amounts = amounts.map(|amount| reading.shares(amount));
    for (i, (person, gross)) in reading.parts("1", None, gross).into_iter().enumerate() {
        let [taxed, rolled, given, converted, exempt, officer, disaster, appreciation] =
            amounts.each_ref().map(|shares| shares[i].1);
        let simplified = simplified.map(|whole| whole.part(reading, i));
        let distribution = Distribution {
            gross,
            taxed,
            goes,
            rolled,
            given,
            converted,
            early,
            exempt,
            disaster,
            appreciation,
            officer,
            annuity,
            simplified,
        };
        paper.facts.people[person].own.add(&brings::DISTRIBUTIONS, distribution);
    }
}

/// The day on which someone is 59½ or 70½: six calendar months after a birthday.
pub fn half_birthday(born: Date, years: i32) -> Option<Date> {
    let months = u8::from(born.month()) + 6;
    let (year, month) = if months > 12 { (1, months - 12) } else { (0, months) };
    let (year, month) = (born.year() + years + year, Month::try_from(month).ok()?);
    let day = settled::lesser(born.day(), month.length(year));
    Date::from_calendar_date(year, month, day).ok()
}

/// What its boxes should agree in.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(DISTRIBUTION.id) {
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let amount = |field: &str| paper.amount(field);
    let Some(code) = main_code(paper) else {
        points.raise(&NO_CODE, at("7"), "This distribution has no code.");
        return;
    };
    for code in codes(paper) {
        if let Does::Needs(form) = code.does {
            points.raise(
                &NEEDS,
                at("7"),
                format!("Code {} needs {form}, which is not computed yet.", code.id),
            );
        }
    }
    match code.does {
        Does::PriorYear => points.raise(&PRIOR_YEAR, at("7"), "Code P is income of the year before."),
        Does::Disability if !paper.boxes.contains_key("working_age") => {
            points.raise(
                &EARLY_PENSION,
                at("working_age"),
                "Was this disability pension paid before the minimum retirement age?",
            );
        }
        _ => {}
    }
    if codes(paper).any(|code| code.id == "M") && !paper.boxes.contains_key("rolled") {
        points.raise(&OFFSET, at("rolled"), "Was any of this loan offset rolled over?");
    }
    for field in ["3", "6"].into_iter().filter(|field| !amount(field).is_zero()) {
        points.raise(&NEEDS, at(field), format!("Box {field} of a lump sum is not computed yet."));
    }
    if amount("rolled") + amount("given") + amount("converted") > amount("1") {
        points.raise(&OVER, at("rolled"), "More was rolled over, given and converted than was distributed.");
    }
    if !amount("rolled").is_zero() {
        points.raise(&ROLLOVER, at("rolled"), "A rollover by the owner has its time.");
    }
    let ira = paper.flag("7.ira");
    let open = !paper.boxes.contains_key("2a") && !ira && code.does == Does::Ordinary;
    if open && paper.flag("2b") && simplified(paper).is_none() {
        points.raise(&TAXABLE, at("2a"), "What of this pension is taxed was not determined.");
    }
    ages(points, paper, code);
}

fn ages(points: &mut Points<'_>, paper: &Paper, code: &Code) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let facts: &Facts = points.facts;
    let owner = points.owner(paper);
    let Some(born) = owner.and_then(|p| facts.people[p].born) else { return };
    let figures = &facts.figures.early_distribution;
    let old_all_year = age_on(born, facts.year_end) > figures.half_after_age;
    let young_all_year = half_birthday(born, figures.half_after_age).is_some_and(|day| day > facts.year_end);
    if code.does == Does::Early && old_all_year {
        points.raise(&AGE, at("7"), "Code 1 is for someone under 59½.");
    }
    if code.id == "7" && young_all_year {
        points.raise(&AGE, at("7"), "Code 7 is for someone of 59½ or more.");
    }
    let may_give = half_birthday(born, facts.figures.charitable_distribution.half_after_age);
    let given = !paper.amount("given").is_zero();
    if given && (!paper.flag("7.ira") || may_give.is_none_or(|day| day > facts.year_end)) {
        points.raise(&QCD_AGE, at("given"), "Given straight to charity before 70½, or not out of an IRA.");
    }
}
