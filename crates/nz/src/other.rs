//! Other income and expenses of who is no trader (ITA CB 4, DA 1, DB 3; questions 25 and 27 of the IR3).

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Other income and expenses",
    lines: LINES,
    papers: &[INCOMES, SPENT],
    points: POINTS,
    figures: &["dates"],
    ..Provision::NONE
};

lines! {
    pub INCOME = "nz.other_income", "Other income", "ITA CA 1, CB 4; IR3 question 25",
        "Income on none of the other papers.";
    pub EXPENSES = "nz.other_expenses", "Other expenses", "ITA DA 1, DB 3; IR3 question 27",
        "Fees for returns, income-protection insurance, interest and commission to earn income.";
}

open_points! {
    EMPLOYEE = blocks "C38", "ITA DA 2(4)", "Who is employed may not deduct what the work costs: take the line out.";
    LUMP_SUM_COVER = look "C39", "ITA DA 1", "A cover that pays a lump sum alone is not deductible.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Other income.
    pub static INCOME: Brought = Brought::new();
    /// Other expenses.
    pub static EXPENSES: Brought = Brought::new();
}

const INCOMES: PaperKind = PaperKind {
    id: "Other income",
    subject: subject::OTHER_INCOME,
    name: "Income without tax withheld",
    words: "cash crypto platform hobby rent commercial",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[Field::text("what", "", "What", 80), Field::amount("amount", "25", "Amount")],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const SORTS: &[Choice] = &[
    Choice::new("return", "Return or tax advice"),
    Choice::new("insurance", "Income-protection insurance"),
    Choice::new("interest", "Interest to earn income"),
    Choice::new("commission", "Commission on interest or dividends"),
    Choice::new("work", "Of the job: travel, clothes, tools, courses"),
];

const SPENT: PaperKind = PaperKind {
    id: "Other expenses",
    subject: subject::DEDUCTIONS,
    name: "Expenses of who is no trader",
    words: "insurance income protection tax agent fee interest",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("sort", "", "Sort", SORTS),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "27", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives income and expenses to who has them.
pub fn read(paper: &mut Bringing<'_>) {
    let income = paper.paper.paper.kind == INCOMES.id;
    let kind = if income { &brings::INCOME } else { &brings::EXPENSES };
    let rows: Vec<_> = paper.paper.lines("amount").collect();
    for (row, cells, amount) in rows {
        if cells.get("sort").and_then(Entry::text) != Some("work") {
            paper.put("amount", Some(row), amount, kind);
        }
    }
}

/// Other income.
pub fn income(on: On<'_>, trail: &mut impl Trail) -> Money {
    on.gather(trail, INCOME, on.own().of(&brings::INCOME))
}

/// Other expenses, unless the way leaves the automatic assessment as it is.
pub fn expenses(on: On<'_>, trail: &mut impl Trail) -> Money {
    let claimed = !on.plan.left_alone.contains(&on.person);
    let all = on.own().of(&brings::EXPENSES);
    on.gather(trail, EXPENSES, all.iter().filter(move |_| claimed))
}

/// Whether a person needs a return: income of which nobody tells the authority, or other income above a little (TAA 22D).
pub fn needs_return(facts: &Facts, person: usize) -> bool {
    let who = &facts.people[person];
    who.needs_return || sum(who.own.of(&brings::INCOME)) > facts.figures.dates.other_income_to
}

/// Whether a person completes the automatic assessment or leaves it as it is, by the person's place.
pub static ASSESSMENT: Open<Facts> = Open::new(
    |facts| {
        let open = |&p: &usize| facts.people[p].own.has(&brings::EXPENSES) && !needs_return(facts, p);
        facts.returns.iter().copied().filter(open).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("completed", "Completed with expenses", ""),
            Opt::new("left", "Left as it is", format!("assessment of {name} left as it is")),
        ];
        let id = format!("nz.assessment.{}", facts.people[person].id);
        Decision::between(id, format!("Automatic assessment of {name}"), "TAA 22F to 22H; ITA DA 1", options)
    },
);

/// Who leaves it as it is in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    facts.returns.iter().copied().filter(|&p| way.taken(&ASSESSMENT, p) == Some(1)).collect()
}

/// Expenses of a job, insurance that pays once.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SPENT.id) {
        for cells in &paper.rows {
            let at = Place::row(&paper.id, cells, "sort");
            match cells.get("sort").and_then(Entry::text) {
                Some("work") => points.raise(&EMPLOYEE, at, "What a job costs is not deductible."),
                Some("insurance") => {
                    points.raise(&LUMP_SUM_COVER, at, "Deductible where the benefit would be taxed.");
                }
                _ => {}
            }
        }
    }
}
