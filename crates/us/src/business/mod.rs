//! A trade or business of one's own (§§61(a)(2), 162), Schedule C: gross income, expenses, car by miles, home office, net profit.

mod points;

use crate::{
    bringing::{self, Bringing, miles_of},
    facts::Facts,
    home_office::{self, Office},
    papers::w2,
    unit::{Filed, HomeOffice, On},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::{Money, Rounding};

pub use points::{excess_loss, points};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[BUSINESS, NONEMPLOYEE],
    points: POINTS,
    figures: &["business"],
    ..Provision::NONE
};

lines! {
    GROSS = "us.sched_c.7", "Gross income of the business", "IRC §61(a)(2)",
        "Receipts less returns and cost of goods, with other income.";
    EXPENSES = "us.sched_c.28", "Expenses of the business", "IRC §162(a)",
        "What the business paid; meals by half, car miles at the rate of the year.";
    OFFICE = "us.sched_c.30", "Home office", "IRC §280A(c)",
        "By the square foot, or by actual expenses; no more than the business earned otherwise.";
    pub PROFIT = "us.sched_c.31", "Net profit or loss", "IRC §§61(a)(2), 162",
        "Gross income less expenses and home office.";
    pub L3 = "us.sched_1.3", "Business income or loss", "IRC §61(a)(2)",
        "Schedule C of each person.";
}

limits! {
    OFFICE_LIMIT = "us.limit.home_office" on OFFICE, "Home office", "over what the business earned otherwise",
        "IRC §280A(c)(5); Rev. Proc. 2013-13";
}

open_points! {
    HOBBY = look "K-075", "IRC §183(d)",
        "Profits in three of five years speak for a business; without the aim of one the expenses do not count.";
    WRITTEN_OFF = not_weighed "C-72", "IRC §§168(k), 179",
        "Section 179 and the special allowance may be taken or left, class by class: another amount of Form 4562 is not weighed here.";
    GROSS_LESS = blocks "K-074", "IRC §61(a)",
        "Gross receipts hold at least what the papers report, or say why not in the note.";
    CAR_TWICE = blocks "business-car", "Rev. Proc. 2019-46",
        "Miles at the rate of the year or actual cost, not both: empty one.";
    RECORDS = look "K-077", "IRC §274(d)",
        "Miles need written records.";
    AREA = look "K-078", "Rev. Proc. 2013-13",
        "The simplified home office goes to 300 square feet.";
    PASSIVE = not_covered "business-passive", "IRC §469";
    PASSIVE_ASKED = blocks "business-participates", "IRC §469(h)",
        "A loss counts in full only for who works in the business regularly: answer the question.";
    pub LOSS = not_covered "business-excess-loss", "IRC §461(l)";
    STATUTORY = blocks "business-statutory", "IRC §3121(d)(3)",
        "Add the Form W-2 with box 13 marked, or take the mark away: else its profit makes self-employment tax.";
    OFFICE_ALONE = blocks "8829-business", "Form 8829",
        "Add the Schedule C of the one who uses the office, or remove this paper.";
    OFFICES = not_covered "8829-several", "Form 8829";
    TWO = look "business-two", "Schedule C instructions",
        "File a Schedule C for each; the lines here add them up.";
}

/// A business of a person.
#[derive(Debug, Clone)]
pub struct Business {
    /// Where it stands among the papers.
    pub paper: usize,
    /// What of a hundred the owner reports: all, or half of a community business.
    part: Money,
    /// The owner runs it, so pays the self-employment tax (§1402(a)(5)).
    pub runs: bool,
    receipts: Item,
    wages_of_statutory: Vec<Item>,
    /// What was spent, box by box, as it counts.
    spent: Vec<Item>,
    /// Line 7.
    pub gross: Money,
    expenses: Money,
    simple: Money,
    actual: Money,
    /// The actual cost of its office, line by line (Form 8829).
    home: Option<Office>,
    /// The optional method of Schedule SE may be used.
    optional: bool,
    /// A statutory employee's (§3121(d)(3)): no self-employment tax, and box 1 of Form W-2 is its receipts.
    statutory: bool,
    /// The owner does not say that others work in it (§469(h)).
    pub active: bool,
    /// A specified service trade or business (§199A(d)(2)).
    pub service: bool,
    /// W-2 wages paid.
    pub wages: Money,
    /// Unadjusted basis of qualified property.
    pub property: Money,
}

/// What its papers bring.
pub mod brings {
    use super::Business;
    use hembo_core::brought::Brought;

    /// Businesses.
    pub static BUSINESSES: Brought<Business> = Brought::new();

    /// Box 1 of Forms 1099-NEC and box 1a of 1099-K.
    pub static REPORTED: Brought = Brought::new();
}

/// The lines of expenses that count in full.
const FULL: [&str; 23] = [
    "8", "9", "10", "11", "12", "13", "14", "15", "16a", "16b", "17", "18", "19", "20a", "20b", "21", "22",
    "23", "24a", "25", "26", "27b", "parking",
];

/// Schedule C.
pub const BUSINESS: PaperKind = PaperKind {
    id: "Schedule C",
    subject: subject::OWN_WORK,
    name: "Business of one's own",
    words: "self-employed business freelance contractor sole proprietor schedule c gig 1099-nec",
    title: "Business",
    shared: false,
    headline: "1",
    boxes: &[
        Field::text("code", "B", "Business code", 6).lasts(),
        Field::yes_no("participates", "G", "Worked in it regularly")
            .lasts()
            .help("Material participation; it matters for a loss."),
        Field::amount("1", "1", "Gross receipts")
            .help("All of them, with what Forms 1099-NEC and 1099-K report."),
        Field::yes_no("statutory", "1", "Statutory employee")
            .lasts()
            .help("Box 13 of Form W-2: its wages come here by themselves."),
        Field::amount("2", "2", "Returns and allowances"),
        Field::amount("4", "4", "Cost of goods sold"),
        Field::amount("6", "6", "Other income"),
        Field::amount("8", "8", "Advertising"),
        Field::amount("9", "9", "Car and truck, actual cost").help("Or business miles below."),
        Field::count("miles", "9", "Business miles", 1_000_000),
        Field::amount("parking", "9", "Parking and tolls"),
        Field::amount("10", "10", "Commissions and fees"),
        Field::amount("11", "11", "Contract labor"),
        Field::amount("12", "12", "Depletion"),
        Field::amount("13", "13", "Depreciation and section 179").help("From Form 4562."),
        Field::amount("14", "14", "Employee benefits"),
        Field::amount("15", "15", "Insurance, but health"),
        Field::amount("16a", "16a", "Mortgage interest"),
        Field::amount("16b", "16b", "Other interest"),
        Field::amount("17", "17", "Legal and professional"),
        Field::amount("18", "18", "Office"),
        Field::amount("19", "19", "Pension plans of employees"),
        Field::amount("20a", "20a", "Rent, vehicles and machines"),
        Field::amount("20b", "20b", "Rent, other"),
        Field::amount("21", "21", "Repairs"),
        Field::amount("22", "22", "Supplies"),
        Field::amount("23", "23", "Taxes and licenses"),
        Field::amount("24a", "24a", "Travel"),
        Field::amount("24b", "24b", "Meals, in full").help("Half of it counts."),
        Field::amount("25", "25", "Utilities"),
        Field::amount("26", "26", "Wages paid").help("They count for the qualified business income, too."),
        Field::amount("27b", "27b", "Other expenses"),
        Field::count("feet", "30", "Home office, square feet", 10_000)
            .lasts()
            .help("Simplified method: 300 at most."),
        Field::count("office_months", "30", "Months of the home office", 12).blank_is("12"),
        Field::amount("office", "30", "Home office, actual")
            .help("Form 8829, line 36, unless its paper is here; both methods are compared."),
        Field::yes_no("service", "", "Specified service")
            .lasts()
            .help("Health, law, accounting, consulting, athletics, finance, performing arts."),
        Field::yes_no("optional", "", "Optional method of Schedule SE").help(
            "Net earnings of 400 or more in two of the last three years, and used in fewer than five years.",
        ),
        Field::amount("property", "", "Basis of qualified property")
            .help("Unadjusted, right after acquisition; only above the income threshold."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const NONEMPLOYEE: PaperKind = PaperKind {
    id: "1099-NEC",
    subject: subject::OWN_WORK,
    name: "Pay of a contractor, payment cards",
    words: "nonemployee compensation contractor freelance 1099-k payment card platform",
    title: "Payer",
    shared: false,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Nonemployee compensation")
            .help("Belongs to the gross receipts of the business, too."),
        Field::amount("1a", "1a", "Payment cards, platforms").help("Form 1099-K; gross receipts hold it."),
        Field::amount("4", "4", "Federal tax withheld"),
        Field::amount("5", "5", "State tax withheld"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the business to its owner, and what payers report.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    if reading.kind == NONEMPLOYEE.id {
        paper.give_titled("1", &brings::REPORTED);
        paper.give_titled("1a", &brings::REPORTED);
        paper.give("4", &bringing::brings::WITHHELD);
        paper.give_state("6", Money::ZERO, "5");
        return paper.give("5", &bringing::brings::STATE_INCOME_TAX);
    }
    paper.earns();
    let figures = &paper.facts.figures.business;
    let amount = |id: &str| reading.amount(id);
    let count = |id: &str| reading.boxes.get(id).and_then(Entry::count);
    let gross = amount("1") - amount("2") - amount("4") + amount("6");
    let meals = amount("24b").times(figures.meals, Money::CENT, Rounding::HalfUp);
    let car = miles_of(count("miles").unwrap_or(0)).times(figures.mile, Money::CENT, Rounding::HalfUp);
    let counted = FULL.into_iter().map(|id| (id, amount(id))).chain([("24b", meals), ("miles", car)]);
    let spent: Vec<Item> = counted
        .filter(|(_, amount)| !amount.is_zero())
        .map(|(id, amount)| paper.paper.item(id, None, amount))
        .collect();
    let expenses = sum(&spent);
    let feet = settled::lesser(count("feet").unwrap_or(0), figures.office_feet);
    let simple = (figures.office_foot * feet).in_proportion(
        Money::whole(count("office_months").unwrap_or(12)),
        Money::whole(12),
        Money::WHOLE,
        Rounding::HalfUp,
    );
    let runs: Vec<usize> = paper.titled.shares(Money::ZERO).into_iter().map(|(person, _)| person).collect();
    let business = Business {
        part: Money::ZERO,
        runs: false,
        paper: paper.paper.index,
        receipts: paper.paper.item("1", None, amount("1")),
        wages_of_statutory: Vec::new(),
        gross,
        spent,
        expenses,
        simple,
        actual: amount("office"),
        home: None,
        optional: reading.flag("optional"),
        statutory: reading.flag("statutory"),
        active: reading.boxes.get("participates").and_then(Entry::flag) != Some(false),
        service: reading.flag("service"),
        wages: amount("26"),
        property: amount("property"),
    };
    for (person, part) in paper.paper.shares(WHOLE) {
        let business = Business { part, runs: runs.contains(&person), ..business.clone() };
        paper.facts.people[person].own.add(&brings::BUSINESSES, business);
    }
}

/// What a business comes to as a whole; owners have parts of it.
const WHOLE: Money = Money::whole(100);

/// The businesses of a person.
pub fn of(facts: &Facts, person: usize) -> &[Business] {
    facts.people[person].own.of(&brings::BUSINESSES)
}

impl Business {
    /// Whether its profit makes self-employment tax.
    pub fn is_taxed(&self) -> bool {
        self.runs && !self.statutory
    }

    /// Whether receipts in round hundreds stand without any expense.
    pub fn is_round(&self) -> bool {
        const HUNDRED: i64 = 10_000;
        self.receipts.amount.cents() % HUNDRED == 0
            && self.gross == self.receipts.amount
            && self.expenses.is_zero()
    }

    /// Whether the optional method of Schedule SE may be used for it.
    pub fn is_optional(&self) -> bool {
        self.is_taxed() && self.optional
    }

    /// The business of a statutory employee without expenses.
    fn of_wages(wages: Item) -> Business {
        let nothing = Item { amount: Money::ZERO, ..wages };
        Business {
            paper: wages.paper,
            part: WHOLE,
            runs: true,
            receipts: nothing,
            wages_of_statutory: Vec::new(),
            spent: Vec::new(),
            gross: Money::ZERO,
            expenses: Money::ZERO,
            simple: Money::ZERO,
            actual: Money::ZERO,
            home: None,
            optional: false,
            active: true,
            statutory: true,
            service: false,
            wages: Money::ZERO,
            property: Money::ZERO,
        }
    }

    /// Whether the actual cost of an office is known.
    fn has_actual(&self) -> bool {
        !self.actual.is_zero() || self.home.is_some()
    }

    /// Whether both methods are open.
    fn has_both(&self) -> bool {
        !self.simple.is_zero() && self.has_actual()
    }

    /// The office whose actual cost is taken line by line.
    fn home(&self, taken: HomeOffice) -> Option<&Office> {
        self.home.as_ref().filter(|_| taken == HomeOffice::Actual || !self.has_both())
    }

    /// The home office by the method taken, before its limit.
    fn office(&self, taken: HomeOffice) -> Money {
        match (taken, self.home(taken)) {
            (_, Some(home)) => home.wanted(),
            (HomeOffice::Simple, None) if self.has_both() => self.simple,
            (HomeOffice::Actual, None) if self.has_both() => self.actual,
            _ => settled::greater(self.simple, self.actual),
        }
    }

    /// Line 30, and line 31.
    fn result(&self, trail: &mut impl Trail, taken: HomeOffice, itemizes: bool) -> (Money, Money) {
        let before = (self.gross - self.expenses).to_whole();
        let office = match self.home(taken) {
            Some(home) => home.allowed(before, itemizes),
            None => {
                let room = limit::or_zero(trail, before);
                limit::lesser(trail, self.office(taken).to_whole(), room)
            }
        };
        (office, before - office)
    }

    /// Line 31.
    pub fn profit(&self, on: On<'_>, trail: &mut impl Trail) -> Money {
        self.result(trail, method(on, self), on.unit.itemizes).1
    }

    /// Line 31 with the larger home office.
    pub fn least_profit(&self) -> Money {
        let before = (self.gross - self.expenses).to_whole();
        let office = settled::greater(self.simple, self.actual).to_whole();
        let plain = settled::lesser(office, settled::or_zero(before));
        let home = self.home.as_ref().map_or(Money::ZERO, |home| home.allowed(before, true));
        before - settled::greater(plain, home)
    }

    /// What of an amount of the business the owner reports.
    pub fn part_of(&self, amount: Money) -> Money {
        amount.in_proportion(self.part, WHOLE, Money::WHOLE, Rounding::HalfUp)
    }
}

fn method(on: On<'_>, business: &Business) -> HomeOffice {
    let taken = on.unit.home_offices.iter().find(|(paper, _)| *paper == business.paper);
    taken.map_or(HomeOffice::Simple, |(_, method)| *method)
}

/// Schedule C of a person.
pub fn of_person(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let all = of(on.facts, person);
    if all.is_empty() {
        return Money::ZERO;
    }
    let scope = Scope::Person(person);
    let gross = all.iter().map(|b| b.part_of(b.gross)).sum::<Money>();
    let expenses = all.iter().map(|b| b.part_of(b.expenses)).sum::<Money>();
    let (mut offices, mut wanted, mut profit) = (Money::ZERO, Money::ZERO, Money::ZERO);
    for business in all {
        let method = method(on, business);
        let (office, result) = business.result(trail, method, on.unit.itemizes);
        if let Some(home) = business.home(method) {
            home.told(trail, person, (business.gross - business.expenses).to_whole(), on.unit.itemizes);
        }
        wanted += business.part_of(business.office(method));
        offices += business.part_of(office);
        profit += business.part_of(result);
    }
    trail.line(GROSS, scope, gross, |i| {
        i.items(all.iter().flat_map(|b| std::iter::once(&b.receipts).chain(&b.wages_of_statutory)));
    });
    trail.line(EXPENSES, scope, expenses, |i| {
        i.items(all.iter().flat_map(|b| &b.spent));
    });
    if !wanted.is_zero() {
        limit::given(trail, OFFICE_LIMIT.at(scope), limit::Shape::Cap, wanted, offices);
    }
    trail.line(OFFICE, scope, offices, |i| {
        i.figure("By the method taken", wanted);
    });
    trail.line(PROFIT, scope, profit, |i| {
        i.line(GROSS, scope, gross).line(EXPENSES, scope, expenses).line(OFFICE, scope, offices);
    })
}

/// Line 31 of what a person runs, as a whole.
pub fn run_by(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    of(on.facts, person).iter().filter(|b| b.is_taxed()).map(|b| b.profit(on, trail)).sum()
}

/// Puts the wages of statutory employees into their businesses once all papers are read: a Schedule C that is marked so, or one that
/// has nothing else.
pub fn join_statutory(facts: &mut Facts) {
    for about in &mut facts.people {
        let wages: Vec<Item> = about.own.of(&w2::brings::STATUTORY).to_vec();
        let Some(first) = wages.first() else { continue };
        if !about.own.of(&brings::BUSINESSES).iter().any(|b| b.statutory) {
            about.own.add(&brings::BUSINESSES, Business::of_wages(*first));
        }
        let mut all = about.own.of_mut(&brings::BUSINESSES).iter_mut();
        if let Some(business) = all.find(|b| b.statutory) {
            business.gross += sum(&wages);
            business.wages_of_statutory = wages;
        }
    }
}

/// Puts the actual cost of an office into the first business of its owner.
pub fn join_offices(facts: &mut Facts) {
    for person in 0..facts.people.len() {
        let Some(office) = home_office::of(facts, person).cloned() else { continue };
        let mut all = facts.people[person].own.of_mut(&brings::BUSINESSES).iter_mut();
        if let Some(business) = all.find(|b| b.runs) {
            business.home = Some(office);
        }
    }
}

/// What offices in the home take off Schedule A: home-loan interest and real estate tax.
pub fn off_schedule_a(on: On<'_>) -> (Money, Money) {
    let businesses = on.unit.people.iter().flat_map(|&p| of(on.facts, p)).filter(|_| on.unit.itemizes);
    let taken = businesses.filter_map(|b| b.home(method(on, b))).map(Office::of_schedule_a);
    taken.fold((Money::ZERO, Money::ZERO), |all, one| (all.0 + one.0, all.1 + one.1))
}

/// Schedule 1 line 3.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, of_person(on, trail, p))).collect();
    on.of_each(trail, L3, PROFIT, &each)
}

/// The method of a home office, where both have an amount: by the place of the paper.
pub static OFFICE_METHOD: Open<Facts> = Open::new(
    |facts| {
        let all = (0..facts.people.len()).flat_map(|p| of(facts, p));
        all.filter(|b| b.runs && b.has_both()).map(|b| b.paper).collect()
    },
    |_, paper| {
        let options = vec![
            Opt::new("simple", "Simplified, by the square foot", "home office simplified"),
            Opt::new("actual", "Actual expenses", "home office by actual expenses"),
        ];
        Decision::between(format!("us.home_office.{paper}"), "Home office", "Rev. Proc. 2013-13", options)
    },
);

/// What a way takes for each home office.
pub fn methods(way: Chosen<'_, '_, Facts>) -> Vec<(usize, HomeOffice)> {
    let taken = |option| if option == Some(1) { HomeOffice::Actual } else { HomeOffice::Simple };
    way.each(&OFFICE_METHOD).map(|(paper, option)| (paper, taken(option))).collect()
}

/// Schedule C: where somebody has a business.
pub fn schedule_c(filed: Filed<'_>) -> Required {
    let any = filed.on.owns().any(|(_, own)| own.has(&brings::BUSINESSES));
    Required::if_so(any, "no business")
}

/// What the businesses of a person lose before a home office.
pub fn lost(facts: &Facts, person: usize) -> Money {
    -of(facts, person).iter().map(|b| b.gross - b.expenses).sum::<Money>()
}
