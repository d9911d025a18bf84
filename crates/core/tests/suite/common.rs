//! A country of the tests' own: everyone pays a fifth, and may waive a bonus. In the north the bonus costs, may be put off as well, and who
//! waives it has a sheet more, but for sailors.

use hembo_core::{
    Case, Decision, Household, Pack, Paper, Person, Point, Recorder, Registry, Scope, Silent, Trail, Way,
    decision::Opt,
    field::{Choice, Field, Years},
    figures::Replacement,
    forms::{Forms, Required},
    household::Role,
    limit, limits,
    line::{LineId, SpreadRow, SpreadSection},
    lines,
    pack::{About, Question, Renamed, Return, Suggestion, Totals},
    paper::{Back, Keeping, NextYear, PaperKind},
    point::{Place, PointDef},
    provision::{Declared, Provision},
    search::{Law, View, Weighable},
    trail::Item,
};
use hembo_money::{Money, Rate, Rounding};
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};
use time::{Date, Month};

pub static REGISTRY: LazyLock<Registry> = LazyLock::new(|| Registry::of([Arc::new(Atoll)]));

/// The test country.
pub struct Atoll;

static KINDS: &[PaperKind] = &[
    PaperKind {
        subject: hembo_core::paper::subject::OTHER_INCOME,
        id: "Pay",
        name: "Pay slip",
        words: "",
        title: "Employer",
        shared: false,
        headline: "pay",
        boxes: &[
            Field::amount("pay", "1", "Pay"),
            Field::count("days", "2", "Days", 366),
            Field::yes_no("night", "3", "Night work"),
            Field::text("note", "4", "Note", 20),
            Field::date("from", "5", "From"),
            Field::choice("class", "6", "Class", &[Choice::new("a", "A"), Choice::new("b", "B")]),
            Field::person("for", "7", "For"),
            Field::text("account", "8", "Account", 20).secret(),
            Field::amount("tide", "9", "Tide bonus").since(2026),
        ],
        columns: &[],
        back: Back::Nothing,
        years: Years::ALL,
        next_year: NextYear::Again,
    },
    PaperKind {
        subject: hembo_core::paper::subject::OTHER_INCOME,
        id: "Gifts",
        name: "Gifts",
        words: "",
        title: "About",
        shared: true,
        headline: "amount",
        boxes: &[],
        columns: &[Field::date("date", "", "Day"), Field::amount("amount", "", "Amount")],
        back: Back::Nothing,
        years: Years::ALL,
        next_year: NextYear::Again,
    },
    PaperKind {
        subject: hembo_core::paper::subject::OTHER_INCOME,
        id: "Shells",
        name: "Shell slip",
        words: "",
        title: "About",
        shared: false,
        headline: "",
        boxes: &[],
        columns: &[],
        back: Back::Nothing,
        years: Years { since: Some(2020), until: Some(2024) },
        next_year: NextYear::Again,
    },
];

lines! {
    PAY = "at.pay", "Pay", "Act §1", "All pay.";
    GIVEN = "at.gifts", "Gifts", "Act §2", "At most 100.";
    TAX = "at.tax", "Tax", "Act §3", "A fifth.";
}

limits! { GIFTS = "at.limit.gifts" on GIVEN, "Gifts", "over 100", "Act §2"; }

static PROVISION: Provision = Provision {
    carries: &[],
    figures: &[],
    lines: LINES,
    limits: LIMITS,
    papers: KINDS,
    person_questions: QUESTIONS,
    household_questions: ISLES,
    points: &[],
    about: "",
    gathered: &[],
    counted: &[],
};

static DECLARED: LazyLock<Declared> = LazyLock::new(|| Declared::of([&PROVISION]));

static FORMS: LazyLock<Forms> = LazyLock::new(|| {
    serde_json::from_value(json!({ "year": 2025, "form": [
        { "id": "return", "name": "Return", "title": "All of it", "lines": [
            { "number": "1", "title": "Pay", "line": "at.pay" },
            { "number": "2", "title": "Gifts", "line": "at.gifts", "repeats": true },
            { "number": "3", "title": "Tax", "line": "at.tax", "result": true },
        ] },
        { "id": "bonus", "name": "Bonus sheet", "title": "The bonus", "lines": [] },
        { "id": "gifts", "name": "Gift sheet", "title": "Gifts above nothing", "lines": [
            { "number": "1", "title": "Gifts", "line": "at.gifts", "result": true },
        ] },
    ] }))
    .unwrap()
});

static SPREAD: &[SpreadSection] = &[SpreadSection {
    title: "All",
    folds: false,
    rows: &[
        SpreadRow::new("Pay", Some("at.pay"), "at.pay"),
        SpreadRow::new("Gifts", None, "at.gifts").minus(),
        SpreadRow::new("Total tax", None, "at.tax").result(),
    ],
}];

static QUESTIONS: &[Question] = &[
    Question { of: &[Role::Filer], from_age: 0, field: Field::yes_no("sailor", "", "Sailor?") },
    Question { of: &[Role::Filer], from_age: 0, field: Field::yes_no("diver", "", "Diver?").until(2024) },
];

static ISLES: &[Field] = &[Field::choice("isle", "", "Isle", &[Choice::new("north", "North")])];

impl Pack for Atoll {
    fn rules(&self) -> &[(i32, toml::Table)] {
        &[]
    }
    fn with(&self, _: &[Replacement]) -> Result<Arc<dyn Pack>, String> {
        Err("The atoll has no figures.".into())
    }

    fn keeping(&self, year: i32) -> Keeping {
        Keeping { until: format!("{}-12-31", year + 1), cite: "Act §9" }
    }

    fn about(&self) -> About {
        About {
            id: "atoll",
            name: "Atoll",
            currency: "XTS",
            symbol: "¤",
            id_number: "Shell number",
            id_shape: "0000",
            days: hembo_core::pack::DayOrder::DayMonthYear,
            numbers: hembo_core::numbers::Numbers::Point,
            page: hembo_core::pack::Page::A4,
            locality: "",
            relationship: "",
        }
    }
    fn years(&self) -> Vec<i32> {
        vec![2025]
    }
    fn span(&self, year: i32) -> (Date, Date) {
        let day = |y, m, d| Date::from_calendar_date(y, m, d).unwrap();
        (day(year, Month::April, 1), day(year + 1, Month::March, 31))
    }
    fn declared(&self) -> &'static Declared {
        &DECLARED
    }
    fn forms(&self, _: i32) -> &'static Forms {
        &FORMS
    }
    fn spread(&self) -> &'static [SpreadSection] {
        SPREAD
    }
    fn totals(&self) -> &'static [Totals] {
        &[Totals { authority: "atoll", tax: "at.tax", paid: "at.paid", balance: "at.balance" }]
    }
    fn check_id_number(&self, number: &str) -> Result<(), &'static str> {
        if number.len() == 3 { Ok(()) } else { Err("A shell number has three signs.") }
    }
    fn locality(&self, _: &Household) -> String {
        String::new()
    }
    fn caption(&self, _: &Person) -> String {
        "filer".into()
    }
    fn suggestions(&self, _: &Household, _: &Paper) -> Vec<Suggestion> {
        Vec::new()
    }
    fn renamed(&self) -> &'static [Renamed] {
        const RENAMED: &[Renamed] = &[
            Renamed { kind: Some("Pay"), from: "wage", to: "pay" },
            Renamed { kind: None, from: "island", to: "isle" },
        ];
        RENAMED
    }
    fn version(&self) -> &str {
        "tests"
    }
    fn open<'h>(&self, household: &'h Household) -> Box<dyn Case + 'h> {
        let mut options = vec![Opt::new("keep", "Keep it", ""), Opt::new("waive", "Waive it", "waived")];
        if household.answers.contains_key("isle") {
            options.push(Opt::new("later", "Put it off", "put off"));
        }
        let label = "The bonus".to_owned();
        let decision =
            Decision { id: "at.bonus".into(), label, cite: "Act §4", options, amount: None, neutral: false };
        Box::new(Islanders { household: household.clone(), decisions: vec![decision] })
    }
}

struct Islanders {
    household: Household,
    decisions: Vec<Decision>,
}

impl Islanders {
    fn items(&self, kind: &str, field: &'static str) -> Vec<Item> {
        let mut items = Vec::new();
        for (paper, found) in self.household.papers.iter().enumerate().filter(|(_, p)| p.kind == kind) {
            items.push(Item { amount: found.amount(field), paper, field, row: None });
            for (row, cells) in found.rows.iter().enumerate() {
                let amount = cells.get(field).and_then(|e| e.money()).unwrap_or_default();
                items.push(Item { amount, paper, field, row: Some(row) });
            }
        }
        items.retain(|i| !i.amount.is_zero());
        items
    }

    fn in_the_north(&self) -> bool {
        self.household.answers.contains_key("isle")
    }

    fn reckon(&self, way: &View<'_>, trail: &mut impl Trail) -> Money {
        let scope = Scope::Return(0);
        let (pay, gifts) = (self.items("Pay", "pay"), self.items("Gifts", "amount"));
        let sum = |items: &[Item]| items.iter().map(|i| i.amount).sum::<Money>();
        let earned = trail.line("at.pay", scope, sum(&pay), |i| {
            i.items(&pay);
        });
        let allowed = limit::cap(trail, GIFTS.at(scope), sum(&gifts), Money::whole(100));
        trail.line("at.gifts", scope, allowed, |i| {
            i.items(&gifts);
        });
        let worth = Money::whole(if self.in_the_north() { -10 } else { 10 });
        let bonus = if way.taken(0) == Some(0) { worth } else { Money::ZERO };
        let tax =
            (earned - allowed).or_zero().times(Rate::percent(20), Money::CENT, Rounding::HalfUp) - bonus;
        trail.line("at.tax", scope, tax, |i| {
            i.line("at.pay", scope, earned)
                .line("at.gifts", scope, allowed)
                .figure("Rate", Rate::percent(20));
        })
    }
}

impl Weighable for Islanders {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn law(&self, decision: usize, _: &View<'_>) -> Law {
        Law::open_if(true, &self.decisions[decision])
    }
    fn parts(&self) -> usize {
        1
    }
    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(view, &mut Silent)
    }
}

impl Case for Islanders {
    fn returns(&self, _: &Way) -> Vec<Return> {
        vec![Return { people: vec![0], main: true, caption: "own".into() }]
    }
    fn record(&self, way: &Way) -> Recorder {
        let mut recorder = Recorder::default();
        self.reckon(&View::of(way), &mut recorder);
        recorder
    }
    fn points(&self, _: &Way, _: &Recorder) -> Vec<Point> {
        vec![
            PointDef::look("look", "Act §1", "Name it.").at(Place::household("isle"), "Which isle?"),
            PointDef::blocks("block", "Act §2", "Answer.").at(Place::person("ada", "sailor"), "Sailor?"),
        ]
    }
    fn counts(&self, _: &Way, _: LineId, _: Scope) -> bool {
        true
    }
    fn required(&self, form: &str, place: usize, way: &Way, trail: &Recorder) -> Required {
        if form == "bonus" {
            let sails = self.household.people[0].answers.contains_key("sailor");
            let asked = self.in_the_north() && !sails && way.taken(0) == Some(1);
            return if asked { Required::Yes } else { Required::Elsewhere };
        }
        let given = trail.amount("at.gifts", Scope::Return(place)).unwrap_or_default();
        Required::if_so(form == "return" || !given.is_zero(), "no gifts")
    }
}

/// A household of one with a pay slip of 1,000 and gifts of 70 and 80.
pub fn file() -> Value {
    json!({
        "hembo": 1, "country": "atoll", "year": 2025, "name": "Reef",
        "people": [{ "id": "ada", "name": "Ada Reef", "role": "filer", "born": "1990-03-31" }],
        "papers": [
            { "id": "pay", "kind": "Pay", "title": "Lagoon Boats", "owners": [{ "person": "ada", "percent": "100" }],
              "boxes": { "pay": "1000" } },
            { "id": "gifts", "kind": "Gifts", "owners": [{ "person": "ada", "percent": "100" }],
              "rows": [{ "amount": "70" }, { "date": "2025-05-01", "amount": "80" }] },
        ],
    })
}
