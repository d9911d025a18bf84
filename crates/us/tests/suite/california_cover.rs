//! Months of health cover in California by hand from the law: gaps and their length, the penalty in its three steps, statements, plans that were
//! not affordable.

use hembo_core::{
    Household,
    command::Command,
    household::Entry,
    outcome::{self, Unreckoned},
    search::Stop,
    supposed::{SteppedTax, stepped, supposed},
    trail::Item,
};
use hembo_money::Money;
use hembo_testing::us::{Family, REGISTRY, has_point, line_of};
use hembo_us::{
    california::cover_months::{Is, judged},
    figures::Figures,
    state_facts::Months,
};
use serde_json::{Value, json};
use time::{Date, macros::date};

fn lines<const N: usize>(family: &Family, ids: [&str; N]) -> [i64; N] {
    let outcome = family.outcome();
    ids.map(|id| line_of(&outcome, &format!("us.ca.{id}"), "return/0"))
}

fn wages(family: Family, who: &str, amount: i64, withheld: &str) -> Family {
    family.wages_with(who, amount, json!({ "15": "CA", "16": amount.to_string(), "17": withheld }))
}

fn months(cells: &str, before: i64) -> Months {
    let cells: Vec<Vec<String>> = cells
        .split_whitespace()
        .map(|cell| if cell == "-" { Vec::new() } else { cell.split('+').map(str::to_owned).collect() })
        .collect();
    let item = Item { amount: Money::ZERO, paper: 0, field: "person", row: Some(0) };
    Months { person: 0, cells: cells.try_into().unwrap(), resident: [true; 12], before: Some(before), item }
}

#[test]
fn short_gaps_by_their_length() {
    let figures = Figures::of(2025).unwrap();
    let figures = figures.california_cover.as_ref().unwrap();
    let of = |cells: &str, before: i64, born: Option<Date>, died: Option<Date>| {
        judged(figures, 2025, &months(cells, before), born, died, &Default::default())
            .iter()
            .map(|is| match is {
                Is::Free => '.',
                Is::Short => 'B',
                Is::Bare => 'X',
            })
            .collect::<String>()
    };
    let plain = |cells: &str, before: i64| of(cells, before, None, None);
    assert_eq!(plain("- - - Z Z Z Z Z Z Z Z Z", 0), "BBB.........", "G1");
    assert_eq!(plain("- - - - Z Z Z Z Z Z Z Z", 0), "XXXX........", "G2");
    assert_eq!(plain("Z - - Z Z Z - Z Z Z Z Z", 0), ".BB...X.....", "G3");
    assert_eq!(plain("Z - - - - Z Z Z - - Z Z", 0), ".XXXX...BB..", "G4");
    assert_eq!(plain("- - Z Z Z Z Z Z Z Z Z Z", 2), "XX..........", "G5");
    assert_eq!(plain("- - Z Z Z Z Z Z Z Z Z Z", 1), "BB..........", "G6");
    assert_eq!(plain("Z Z Z Z Z Z Z Z Z - - -", 0), ".........BBB", "G7");
    assert_eq!(plain("- - B+F F+Z Z Z Z Z Z Z Z Z", 0), "BB..........", "G8");
    assert_eq!(of("- - - - Z Z Z Z Z Z Z Z", 0, Some(date!(2025 - 04 - 20)), None), "............", "G9");
    assert_eq!(of("Z Z Z Z Z Z Z Z - - - -", 0, None, Some(date!(2025 - 09 - 04))), "............", "G10");
    assert_eq!(plain("C C C C C C - - Z Z Z Z", 0), "......BB....", "G11");
    assert_eq!(plain("C C C C C C - - - - Z Z", 0), "......XXXX..", "G11, to October");
    assert_eq!(plain("X X Z Z Z Z Z Z Z Z Z Z", 0), "XX..........", "entered as X");
}

#[test]
fn the_penalty_in_its_three_steps() {
    let family = |pay: i64, first: &str| {
        let row = |who: &str, cells: &str| {
            let mut row = json!({ "person": who, "before": 0, "number": "ECN1" });
            for (month, cell) in cells.split_whitespace().enumerate() {
                row[format!("m{}", month + 1)] = json!(cell.replace('+', " "));
            }
            row
        };
        let others = "Z X X X X X Z Z Z Z Z Z";
        let family =
            Family::couple(2025).in_california().child("cy", "2007-05-10").answer("ca_covered", json!(false));
        let family = family.pin("us.status", "joint");
        let rows = json!([row("ada", first), row("bo", others), row("cy", others)]);
        wages(family, "ada", pay, "0").paper("Health cover", &["ada"], json!({}), rows)
    };
    let jailed = "B B B+F F+Z Z Z Z Z Z Z Z Z";
    let of = |pay: i64| {
        lines(&family(pay, jailed), ["3853.flat", "3853.percent", "3853.larger", "3853.bronze", "540.92"])
    };
    assert_eq!(of(96_000), [633, 357, 633, 4_020, 633]);
    assert_eq!(of(180_000), [633, 1_232, 1_232, 4_020, 1_232]);
    assert_eq!(of(340_000), [633, 2_898, 2_898, 4_020, 2_899]);
    assert_eq!(of(520_000), [633, 4_773, 4_773, 4_020, 4_020]);
    assert!(has_point(&family(520_000, jailed).outcome(), "ca-bronze"));
    assert!(!has_point(&family(340_000, jailed).outcome(), "ca-bronze"));
    let longer = family(96_000, "X X X X Z Z Z Z Z Z Z Z");
    assert_eq!(lines(&longer, ["3853.flat", "3853.percent", "540.92"]), [950, 428, 950]);
    // Below a threshold of filing nothing is owed; at it, it is. 61,720 of gross income, 52,544 of adjusted.
    assert_eq!(
        [lines(&family(61_719, jailed), ["540.92"]), lines(&family(61_720, jailed), ["540.92"])],
        [[0], [633]]
    );
}

fn single_uncovered(year: i32, pay: i64) -> i64 {
    let mut row = json!({ "person": "ada", "before": 0 });
    for month in 1..=12 {
        row[format!("m{month}")] = json!("X");
    }
    let family =
        wages(Family::single(year).in_california(), "ada", pay, "0").answer("ca_covered", json!(false));
    lines(&family.paper("Health cover", &["ada"], json!({}), json!([row])), ["540.92"])[0]
}

#[test]
fn one_adult_without_cover_all_year() {
    assert_eq!(
        [single_uncovered(2025, 60_000), single_uncovered(2025, 420_000), single_uncovered(2024, 60_000)],
        [950, 4_824, 943]
    );
    assert_eq!([single_uncovered(2025, 60_941), single_uncovered(2025, 60_942)], [950, 950]);
    assert_eq!([single_uncovered(2025, 22_940), single_uncovered(2025, 22_941)], [0, 950]);
}

#[test]
fn months_that_cannot_be_as_entered() {
    let family = |cells: [&str; 3], more: Value| {
        let mut row = json!({ "person": "ada" });
        for month in 1..=12 {
            row[format!("m{month}")] = json!(cells.get(month - 1).copied().unwrap_or("Z"));
        }
        row.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        let family = wages(Family::single(2025).in_california(), "ada", 50_000, "0")
            .answer("ca_covered", json!(false));
        family.paper("Health cover", &["ada"], json!({}), json!([row])).outcome()
    };
    let none = json!({ "before": 0, "number": "ECN1" });
    assert!(has_point(&family(["X Z", "Z", "Z"], none.clone()), "ca-cover-code"));
    assert!(has_point(&family(["Q", "Z", "Z"], none.clone()), "ca-cover-code"));
    assert!(has_point(&family(["B F E", "Z", "Z"], none.clone()), "ca-cover-code"));
    assert!(!has_point(&family(["B F", "F Z", "Z"], none.clone()), "ca-cover-code"));
    assert!(has_point(&family(["B", "B", "B"], json!({ "before": 1 })), "ca-cover-gap"));
    assert!(!has_point(&family(["B", "B", "B"], none.clone()), "ca-cover-gap"));
    assert!(has_point(&family(["X", "X", "Z"], none.clone()), "ca-cover-b"));
    assert!(has_point(&family(["", "", "Z"], json!({})), "ca-cover-before"));
    assert!(has_point(&family(["ECN", "ECN", "Z"], json!({ "number": "PENDING" })), "ca-cover-pending"));
}

#[test]
fn months_from_statements_of_cover() {
    let family = |row: Option<Value>| {
        let family = wages(Family::single(2025).in_california(), "ada", 50_000, "0")
            .answer("ca_covered", json!(false));
        let rows = json!([{ "person": "ada", "to": 3 }, { "person": "ada", "from": 8 }]);
        let family = family.paper("1095-B", &["ada"], json!({}), rows);
        row.map_or(family.clone(), |row| family.paper("Health cover", &["ada"], json!({}), json!([row])))
    };
    // April to July are four months: no short gap, 950 × 4 ÷ 12.
    assert_eq!(lines(&family(None), ["3853.months", "540.92"]), [4, 317]);
    let some = family(Some(json!({ "person": "ada", "m4": "Z", "before": 0 })));
    assert_eq!(lines(&some, ["3853.months", "540.92"]), [0, 0], "three months are short");
    assert!(!has_point(&some.outcome(), "ca-cover-1095"));
    let against = family(Some(json!({ "person": "ada", "m1": "X", "before": 0 })));
    assert!(has_point(&against.outcome(), "ca-cover-1095"));
}

#[test]
fn months_in_which_cover_was_not_affordable() {
    let bare = |year: i32, offers: Value, months: Value| {
        let family = Family::single(year).in_california().answer("ca_covered", json!(false));
        let family = wages(family, "ada", 72_000, "900").paper("Cost of cover", &["ada"], json!({}), offers);
        lines(&family.paper("Health cover", &["ada"], json!({}), json!([months])), ["3853.months"])[0]
    };
    let own = |cost: &str| json!([{ "person": "ada", "source": "own", "month": cost }]);
    let empty = json!({ "person": "ada", "before": 0 });
    assert_eq!([bare(2025, own("436.80"), empty.clone()), bare(2025, own("436.81"), empty.clone())], [12, 0]);
    assert_eq!([bare(2024, own("478.20"), empty.clone()), bare(2024, own("478.21"), empty.clone())], [12, 0]);
    let half = json!([{ "person": "ada", "source": "own", "month": "480", "to": 6 }]);
    assert_eq!(bare(2024, half.clone(), empty.clone()), 6, "the offer is of the first half");
    let typed = json!({ "person": "ada", "year": "X", "before": 0 });
    assert_eq!(bare(2024, own("480"), typed), 12, "what was entered stands");
    let given_up = json!([{ "person": "ada", "source": "own", "month": "480", "given_up": "1000" }]);
    assert_eq!(bare(2024, given_up, empty), 12, "73,000 give 5,818.10 a year, more than 5,760");
}

#[test]
fn plans_that_are_too_much_together() {
    let bare = |family_plan: Option<&str>| {
        let family = Family::couple(2024).in_california().answer("ca_covered", json!(false));
        let family =
            wages(wages(family, "ada", 36_000, "900"), "bo", 36_000, "900").child("cy", "2015-05-05");
        let family = family.pin("us.status", "joint");
        let mut rows = json!([
            { "person": "ada", "source": "own", "month": "300" }, { "person": "bo", "source": "own", "month": "300" }
        ]);
        if let Some(cost) = family_plan {
            let child = json!({ "person": "cy", "source": "family", "month": cost });
            rows.as_array_mut().unwrap().push(child);
        }
        let family = family.paper("Cost of cover", &["ada"], json!({}), rows);
        let months = ["ada", "bo", "cy"].map(|person| json!({ "person": person, "before": 0 }));
        lines(&family.paper("Health cover", &["ada"], json!({}), json!(months)), ["3853.months"])[0]
    };
    assert_eq!(bare(None), 12, "no plan for the family: the child is left");
    assert_eq!(bare(Some("478.21")), 0, "the plan for the family is too much, for the child, too");
    assert_eq!(bare(Some("478.20")), 36, "the plan for the family is affordable");
}

#[test]
fn the_bronze_plan_less_the_credit() {
    let bare = |bronze: &str, silver: &str| {
        let family = Family::single(2024).in_california().answer("ca_covered", json!(false));
        let rows = json!([{ "person": "ada", "source": "market", "month": bronze, "silver": silver }]);
        let family = wages(family, "ada", 43_740, "900").paper("Cost of cover", &["ada"], json!({}), rows);
        let months = json!([{ "person": "ada", "before": 0 }]);
        lines(&family.paper("Health cover", &["ada"], json!({}), months), ["3853.months"])[0]
    };
    // 43,740 is 300 % of 14,580: 6 % of it oneself, 2,624, 219 a month; 7.97 % are 3,486.08 a year, 290.50 a month.
    assert_eq!([bare("290.50", "0"), bare("290.51", "0")], [12, 0]);
    assert_eq!([bare("391.50", "320"), bare("391.51", "320")], [12, 0], "320 less 219 are 101 of credit");
}

/// One adult of 60,000 in 2025 without cover from February to April, entered as X: 79.17 a month, above 2.5 % of the 37,059 over the
/// threshold a year.
fn bare_to_april() -> (Household, String, String) {
    let mut row = json!({ "person": "ada", "before": 0, "year": "Z" });
    for month in 2..=4 {
        row[format!("m{month}")] = json!("X");
    }
    let family =
        wages(Family::single(2025).in_california(), "ada", 60_000, "0").answer("ca_covered", json!(false));
    let household = family.paper("Health cover", &["ada"], json!({}), json!([row])).household();
    let paper = household.papers.iter().find(|paper| paper.kind == "Health cover").unwrap();
    let (paper, row) = (paper.id.clone(), paper.rows[0].id.clone());
    (household, paper, row)
}

/// One gap is free up to three months; entered as X, which is no gap of the rules, the present one costs.
#[test]
fn the_penalty_by_so_many_months() {
    let (household, paper, row) = bare_to_april();
    let along =
        |household: &Household| stepped(household, &REGISTRY, (&paper, &row), &Stop::default()).unwrap();
    let more = |along: &SteppedTax| -> Vec<i64> {
        along.totals.iter().map(|total| (*total - along.totals[0]).cents() / 100).collect()
    };
    let of = along(&household);
    assert_eq!((of.now, of.marks[0].step), (3, 3));
    assert_eq!(more(&of), [0, 0, 0, 238, 317, 396, 475, 554, 633, 713, 792, 871, 950]);
    // Left to the rules it is free.
    let mut free = household.clone();
    let at = free.papers.iter().position(|one| one.id == paper).unwrap();
    for month in ["m2", "m3", "m4"] {
        free.papers[at].rows[0].cells.insert(month.into(), Entry::Text("B".into()));
    }
    assert_eq!(more(&along(&free)), [0, 0, 0, 0, 317, 396, 475, 554, 633, 713, 792, 871, 950]);
    // Months that are free by a certificate stay so: nine are left.
    for month in ["m10", "m11", "m12"] {
        free.papers[at].rows[0].cells.insert(month.into(), Entry::Text("ECN".into()));
    }
    assert_eq!(more(&along(&free)), [0, 0, 0, 0, 317, 396, 475, 554, 633, 713]);
    assert_eq!(stepped(&household, &REGISTRY, (&paper, "nobody"), &Stop::default()), None);
}

/// What a plan costs a month stands on a line for each of those whom it covers: the lines make no sum.
#[test]
fn the_cost_of_cover_makes_no_sum() {
    let rows = json!([
        { "person": "ada", "source": "market", "month": "400" },
        { "person": "bo", "source": "market", "month": "400" }
    ]);
    let family = Family::couple(2025).in_california().answer("ca_covered", json!(false));
    let outcome = family.paper("Cost of cover", &["ada"], json!({}), rows).outcome();
    let amounts: Vec<Money> = outcome.papers.iter().map(|paper| paper.amount).collect();
    assert_eq!(amounts, [Money::ZERO]);
}

/// A code that is tried changes nothing; what it would do stands row by row.
#[test]
fn a_code_is_tried_before_it_is_used() {
    let (household, paper, row) = bare_to_april();
    let cells = outcome::reckon(&household, &REGISTRY).unwrap().papers;
    let drawn = cells.into_iter().find(|of| of.paper == paper).unwrap().drawn.unwrap();
    let march = drawn.cells.into_iter().find(|cell| cell.column == "m3").unwrap();
    let short = march.open.into_iter().find(|opening| opening.code == "B").unwrap();
    assert_eq!((short.open, short.fills.as_slice()), (true, &["m2", "m3", "m4"][..]));
    let set = |value: &str| -> Vec<Command> {
        let cell = |month: &&'static str| Command::SetCell {
            paper: paper.clone(),
            row: row.clone(),
            field: (*month).into(),
            value: Some(Entry::Text(value.into())),
        };
        short.fills.iter().map(cell).collect()
    };
    let tried = |value: &str| supposed(&household, &set(value), &REGISTRY, &Stop::default());
    let then = tried("B").unwrap();
    let rows: Vec<_> = then.sections.iter().flat_map(|section| &section.rows).collect();
    let penalty = rows.iter().find(|row| row.line == "us.ca.540.92").unwrap();
    assert_eq!((penalty.was, penalty.now.unwrap_or_default()), (Some(Money::whole(238)), Money::ZERO));
    assert!(rows.iter().all(|row| row.was != row.now));
    assert_eq!(tried("X").unwrap().sections, vec![]);
    assert!(matches!(tried("too many letters"), Err(Unreckoned::Faults(_))));
    assert_eq!(household.paper(&paper).unwrap().rows[0].cells["m2"], Entry::Text("X".into()));
}
