//! Every threshold one below, at and above: written out by hand from the law.

use hembo_testing::de::{Family, line, money};
use serde_json::{Value, json};

/// Of a family with a paper, a line of a scope by what stands in it.
fn along<const N: usize>(of: impl Fn(&str) -> Family, scope: &str, id: &str, at: [(&str, &str); N]) {
    for (amount, expected) in at {
        assert_eq!(line(&of(amount).outcome(), scope, id), money(expected), "{id} at {amount}");
    }
}

fn earner() -> Family {
    Family::single(2025).paper("LStB", "ada", json!({ "3": "60000" }))
}

fn with(kind: &'static str, boxes: impl Fn(&str) -> Value) -> impl Fn(&str) -> Family {
    move |amount| earner().paper(kind, "ada", boxes(amount))
}

fn listed(kind: &'static str, cells: impl Fn(&str) -> Value) -> impl Fn(&str) -> Family {
    move |amount| earner().rows(kind, "ada", json!([cells(amount)]))
}

#[test]
fn work_expenses_against_the_lump_sum() {
    // The account fee of 16 counts among the actual ones.
    let costs = listed("Work costs", |amount| json!({ "kind": "other", "amount": amount }));
    along(
        costs,
        "person/ada",
        "work_expenses",
        [("1213", "1230"), ("1214", "1230"), ("1215", "1231"), ("1214.01", "1231")],
    );
    // The lump sum makes no loss.
    let small = |amount: &str| Family::single(2025).paper("LStB", "ada", json!({ "3": amount }));
    along(small, "person/ada", "wages_income", [("1229", "0"), ("1230", "0"), ("1231", "1")]);
}

#[test]
fn the_way_to_work_by_kilometres_and_means() {
    let km = |by: &'static str| listed("Way to work", move |km| json!({ "days": 1, "km": km, "by": by }));
    along(
        km("car"),
        "person/ada",
        "commute",
        [("18", "6"), ("20", "6"), ("20.9", "6"), ("21", "7"), ("25", "8"), ("60", "22")],
    );
    let days = |days: i64, km: &str| {
        earner().rows("Way to work", "ada", json!([{ "days": days, "km": km, "by": "transit" }]))
    };
    let commute = |family: Family| line(&family.outcome(), "person/ada", "commute");
    // 20 × 0.30 + 20 × 0.38 = 13.60 a day: 330 days are 4,488, 331 are 4,501.60.
    assert_eq!([commute(days(330, "40")), commute(days(331, "40"))], [money("4488"), money("4500")]);
    let disabled = |degree: i64, mark: Option<&str>| {
        let family = earner().answer_for("ada", "degree", json!(degree)).rows(
            "Way to work",
            "ada",
            json!([{ "days": 100, "km": "30", "by": "car" }]),
        );
        commute(match mark {
            Some(mark) => family.answer_for("ada", "mark", json!(mark)),
            None => family,
        })
    };
    // 20 × 0.30 + 10 × 0.38 = 9.80 against 0.60 × 30 = 18 a day.
    assert_eq!(
        [
            disabled(69, None),
            disabled(70, None),
            disabled(49, Some("G")),
            disabled(50, Some("G")),
            disabled(60, None)
        ],
        ["980", "1800", "980", "1800", "980"].map(money)
    );
    // Park and ride of 100 km, 30 by car: (20 × 0.30 + 10 × 0.38) × 200 = 1,960; 70 × 0.38 × 200 = 5,320, at most 4,500.
    let mixed = earner().rows(
        "Way to work",
        "ada",
        json!([{ "days": 200, "km": "100", "car_km": "30", "by": "mixed" }]),
    );
    assert_eq!(commute(mixed), money("6460"));
}

#[test]
fn days_at_home_and_equipment() {
    let days = |days: i64| {
        line(
            &earner().paper("Work at home", "ada", json!({ "days": days })).outcome(),
            "person/ada",
            "home_office",
        )
    };
    assert_eq!([days(209), days(210), days(211)], ["1254", "1260", "1260"].map(money));
    // 952 with 19 % is 800 net: at once. A cent more is written off: 952.01 / 13 × 12/12 = 73.24 up.
    let thing = listed("Equipment", |price| json!({ "bought": "2025-01-10", "price": price, "years": 13 }));
    along(thing, "person/ada", "equipment", [("951.99", "952"), ("952", "952"), ("952.01", "74")]);
    let part = |part: i64| {
        let row = json!({ "bought": "2025-01-10", "price": "500", "work": part });
        line(&earner().rows("Equipment", "ada", json!([row])).outcome(), "person/ada", "equipment")
    };
    assert_eq!([part(9), part(10), part(90), part(91)], ["0", "50", "450", "500"].map(money));
}

#[test]
fn moves_by_the_day_before_loading() {
    let moved = |loaded: &str| {
        let boxes = json!({ "loaded": loaded, "home_before": true, "home_after": true, "others": 1 });
        let family =
            Family::single(2024).paper("LStB", "ada", json!({ "3": "60000" })).paper("Move", "ada", boxes);
        line(&family.outcome(), "person/ada", "moving")
    };
    // 886 + 590 up to 29 February, 964 + 643 from 1 March 2024.
    assert_eq!(
        [moved("2024-02-29"), moved("2024-03-01"), moved("2024-03-02")],
        ["1476", "1476", "1607"].map(money)
    );
}

#[test]
fn a_second_household_by_the_month() {
    let home =
        |paid: &str| earner().paper("Second household", "ada", json!({ "months": 12, "lodging": paid }));
    along(
        home,
        "person/ada",
        "double_household",
        [("11999", "11999"), ("12000", "12000"), ("12001", "12000")],
    );
}

#[test]
fn provision_up_to_its_limits() {
    let old_age = with("Insurance", |paid| json!({ "old_age": paid }));
    along(
        old_age,
        "return/0",
        "pension_deduction",
        [("29343", "29343"), ("29344", "29344"), ("29345", "29344")],
    );
    let other = with("Insurance", |paid| json!({ "health": "1000", "other": paid }));
    along(other, "return/0", "health_deduction", [("899", "1899"), ("900", "1900"), ("901", "1900")]);
    let alone = |paid: &str| {
        earner().answer_for("ada", "health_alone", json!(true)).paper(
            "Insurance",
            "ada",
            json!({ "other": paid }),
        )
    };
    along(alone, "return/0", "health_deduction", [("2799", "2799"), ("2800", "2800"), ("2801", "2800")]);
    // The basic cover counts whole above the limit, and of 3,668 with sick pay 146 are cut.
    let basic = |paid: &str| Family::single(2025).paper("LStB", "ada", json!({ "3": "60000", "25": paid }));
    along(basic, "return/0", "health_basic", [("3667.50", "3522"), ("1900", "1824")]);
}

#[test]
fn special_expenses() {
    let gift = listed("Special expenses", |amount| json!({ "kind": "gift", "amount": amount }));
    along(gift, "return/0", "special", [("35", "36"), ("36", "36"), ("37", "37")]);
    // A fifth of 58,770 is 11,754.
    let gift = listed("Special expenses", |amount| json!({ "kind": "gift", "amount": amount }));
    along(gift, "return/0", "gift_carryover", [("11753", "0"), ("11754", "0"), ("11755", "1")]);
    let education = listed("Special expenses", |amount| json!({ "kind": "education", "amount": amount }));
    along(education, "return/0", "education", [("5999", "5999"), ("6000", "6000"), ("6001", "6000")]);
    let former = listed("Special expenses", |amount| json!({ "kind": "maintenance", "amount": amount }));
    along(former, "return/0", "alimony_paid", [("13804", "13804"), ("13805", "13805"), ("13806", "13805")]);
    let party = listed("Special expenses", |amount| json!({ "kind": "party", "amount": amount }));
    along(party, "return/0", "party_credit_used", [("1649", "825"), ("1650", "825"), ("1651", "825")]);
    let party = listed("Special expenses", |amount| json!({ "kind": "party", "amount": amount }));
    along(party, "return/0", "gifts", [("1650", "0"), ("1651", "1"), ("3300", "1650"), ("3301", "1650")]);
}

#[test]
fn children_care_and_school() {
    let parent = || earner().person("cy", "dependent", "2018-05-05");
    let care = |paid: &str| parent().paper("Care and school", "ada", json!({ "child": "cy", "care": paid }));
    along(
        care,
        "return/0",
        "childcare",
        [("5999", "4800"), ("6000", "4800"), ("6001", "4800"), ("5998", "4799")],
    );
    let school =
        |paid: &str| parent().paper("Care and school", "ada", json!({ "child": "cy", "school": paid }));
    along(school, "return/0", "school", [("16663", "4999"), ("16666", "5000"), ("16667", "5000")]);
    let months = |months: i64| {
        line(
            &parent().answer_for("cy", "household_months", json!(months)).outcome(),
            "return/0",
            "single_parent",
        )
    };
    assert_eq!([months(0), months(1), months(11), months(12)], ["0", "355", "3905", "4260"].map(money));
    let with_adult =
        parent().answer_for("cy", "household_months", json!(12)).answer("with_adult", json!(true));
    assert_eq!(line(&with_adult.outcome(), "return/0", "single_parent"), money("0"));
}

/// The break-even of the allowances against the benefit: full allowance with the basic table 42,413 and 44,623.
#[test]
fn the_allowances_of_children_against_the_benefit() {
    for (year, first) in [(2024, 42_413), (2025, 44_623)] {
        let taxed = |income: i64| {
            let family = Family::single(year).person("cy", "dependent", "2018-05-05").paper(
                "Result",
                "ada",
                json!({ "kind": "freelance", "result": (income + 36).to_string() }),
            );
            line(&family.outcome(), "return/0", "child_allowances")
        };
        assert_eq!(taxed(first - 1), money("0"), "{year}");
        assert_eq!(taxed(first), money(if year == 2024 { "9540" } else { "9600" }), "{year}");
    }
}

#[test]
fn burdens_disability_and_support() {
    // Of 58,770 without children: 767 + 6 % × 35,790 + 7 % × 7,640 = 3,449.20, down to 3,449.
    let ill = listed("Burdens", |amount| json!({ "kind": "illness", "amount": amount }));
    along(ill, "return/0", "burdens", [("3449", "0"), ("3450", "1"), ("3449.01", "1")]);
    let degree = |degree: i64| {
        line(&earner().answer_for("ada", "degree", json!(degree)).outcome(), "return/0", "lumps_33b")
    };
    assert_eq!(
        [degree(19), degree(20), degree(29), degree(30), degree(100)],
        ["0", "384", "384", "620", "2840"].map(money)
    );
    let care = |grade: i64| {
        line(&earner().answer_for("ada", "care_grade", json!(grade)).outcome(), "return/0", "lumps_33b")
    };
    assert_eq!([care(3), care(4)], ["0", "7400"].map(money));
    let travel = |degree: i64, mark: Value| {
        let family = earner().answer_for("ada", "degree", json!(degree)).answer_for("ada", "mark", mark);
        line(&family.outcome(), "return/0", "burdens_paid")
    };
    assert_eq!(
        [travel(69, json!("G")), travel(70, json!("G")), travel(80, json!("aG"))],
        ["0", "900", "4500"].map(money)
    );
    let support = |means: &'static str| {
        with("Support", move |paid| json!({ "paid": paid, "means": means, "transferred": true }))
    };
    along(
        support("624"),
        "return/0",
        "supports",
        [("12095", "12095"), ("12096", "12096"), ("12097", "12096")],
    );
    along(support("625"), "return/0", "supports", [("12094", "12094"), ("12096", "12095")]);
}

#[test]
fn credits_at_their_most() {
    let paid =
        |kind: &'static str| listed("Household", move |amount| json!({ "kind": kind, "amount": amount }));
    along(
        paid("minijob"),
        "return/0",
        "c35a_minijob_used",
        [("2549", "510"), ("2550", "510"), ("2545", "509")],
    );
    along(
        paid("services"),
        "return/0",
        "c35a_services_used",
        [("19995", "3999"), ("20000", "4000"), ("20001", "4000")],
    );
    along(
        paid("crafts"),
        "return/0",
        "c35a_craft_used",
        [("5995", "1199"), ("6000", "1200"), ("6001", "1200")],
    );
    along(
        paid("energy_3"),
        "return/0",
        "c35c_used",
        [("199983", "11999"), ("200000", "12000"), ("200001", "12000")],
    );
}

/// The vectors of the surcharge: free to 19,950 in 2025, then 11.9 % of what is above, then 5.5 % of all.
#[test]
fn the_surcharge_from_its_limit_on() {
    // Taxable income whose basic tax is the figure: (19,950 + 10,911.92) / 0.42 = 73,480.76 and so on.
    for (income, expected) in
        [(73_480, "0"), (73_483, "0"), (73_484, "0.11"), (114_302, "2040.13"), (114_303, "2040.22")]
    {
        let family = Family::single(2025).paper(
            "Result",
            "ada",
            json!({ "kind": "freelance", "result": (income + 36).to_string() }),
        );
        assert_eq!(line(&family.outcome(), "return/0", "soli"), money(expected), "{income}");
    }
}

#[test]
fn small_other_income_and_occasions() {
    let other = with("Result", |result| json!({ "kind": "freelance", "result": result }));
    along(
        other,
        "return/0",
        "hardship",
        [("409", "409"), ("410", "410"), ("411", "409"), ("819", "1"), ("820", "0"), ("821", "0")],
    );
    let services = with("Result", |result| json!({ "kind": "services", "result": result }));
    along(services, "person/ada", "services_22_3", [("255", "0"), ("256", "256"), ("257", "257")]);
    let sales = with("Result", |result| json!({ "kind": "sales", "result": result }));
    along(
        sales,
        "person/ada",
        "private_sales",
        [("999", "0"), ("999.99", "0"), ("1000", "1000"), ("-5", "0")],
    );
}

#[test]
fn pensions_by_the_year_of_their_start() {
    for (start, taxable) in [
        (2004, "12000"),
        (2005, "12000"),
        (2015, "16800"),
        (2020, "19200"),
        (2022, "19680"),
        (2023, "19800"),
        (2024, "19920"),
        (2025, "20040"),
    ] {
        let family = Family::single(2025).paper("Rente", "ada", json!({ "gross": "24000", "start": start }));
        assert_eq!(line(&family.outcome(), "person/ada", "pension_taxable"), money(taxable), "{start}");
    }
    for (start, free) in
        [(2005, "3900"), (2015, "2340"), (2020, "1560"), (2023, "1365"), (2024, "1326"), (2025, "1287")]
    {
        let boxes = json!({ "3": "30000", "8": "30000", "29": "30000", "30": start });
        assert_eq!(
            line(
                &Family::single(2025).paper("LStB", "ada", boxes).outcome(),
                "person/ada",
                "civil_allowance"
            ),
            money(free),
            "{start}"
        );
    }
    for (born, relief) in [
        ("1952-06-01", "624"),
        ("1958-06-01", "420"),
        ("1959-06-01", "408"),
        ("1960-06-01", "396"),
        ("1961-01-01", "396"),
        ("1961-01-02", "0"),
    ] {
        let family = Family::of(2025, "single").person("ada", "filer", born).paper(
            "Result",
            "ada",
            json!({ "kind": "freelance", "result": "3000" }),
        );
        assert_eq!(line(&family.outcome(), "person/ada", "age_relief"), money(relief), "{born}");
    }
}

/// Losses of earlier years: a million whole, then 70 % of what is above.
#[test]
fn losses_brought_forward() {
    let family = |losses: &str| {
        Family::single(2025)
            .paper("Result", "ada", json!({ "kind": "freelance", "result": "1100000" }))
            .paper("Last year", "ada", json!({ "losses": losses }))
    };
    along(
        family,
        "return/0",
        "loss_deducted",
        [("1069999", "1069999"), ("1070000", "1070000"), ("1070001", "1070000")],
    );
}

/// Church tax goes by the months of membership, that of two members by halves.
#[test]
fn church_tax_by_months() {
    let member = |months: i64| {
        let family = earner().answer_for("ada", "church", json!(true)).answer_for(
            "ada",
            "church_months",
            json!(months),
        );
        line(&family.outcome(), "return/0", "church_tax")
    };
    let base =
        line(&earner().answer_for("ada", "church", json!(true)).outcome(), "return/0", "church_base").cents();
    let of = |months: i64| base * months / 12 * 9 / 100;
    assert_eq!([0, 6, 12].map(|months| member(months).cents()), [0, of(6), of(12)]);
}

/// Of two who live apart all year each has a half of the allowances and of what passes from children.
#[test]
fn halves_of_those_who_live_apart() {
    let family = Family::of(2025, "apart")
        .person("ada", "filer", "1985-03-04")
        .person("bo", "filer", "1986-05-06")
        .person("cy", "dependent", "2018-05-05")
        .answer_for("cy", "degree", json!(50));
    let family = family.paper("Result", "ada", json!({ "kind": "freelance", "result": "90000" })).paper(
        "Result",
        "bo",
        json!({ "kind": "freelance", "result": "90000" }),
    );
    let outcome = family.outcome();
    for place in ["return/0", "return/1"] {
        assert_eq!(line(&outcome, place, "child_allowances"), money("4800"), "{place}");
        assert_eq!(line(&outcome, place, "lumps_33b"), money("570"), "{place}");
    }
}

/// By the tariff foreign tax is credited before all else, at most the tariff tax.
#[test]
fn foreign_tax_on_capital_by_the_tariff() {
    let family = |foreign: &str| {
        Family::single(2025)
            .paper("Result", "ada", json!({ "kind": "freelance", "result": "13000" }))
            .paper("KAP", "ada", json!({ "untaxed": "3000", "foreign_tax": foreign }))
            .pin("de.capital.ada", "tariff")
    };
    // 13,000 + 2,000 − 36 = 14,964: y = 0.2868, (932.30 × 0.2868 + 1,400) × 0.2868 = 478.20.
    let of = |foreign: &str| {
        let outcome = family(foreign).outcome();
        [line(&outcome, "return/0", "foreign_credit"), line(&outcome, "return/0", "income_tax")]
    };
    assert_eq!(of("0"), ["0", "478"].map(money));
    assert_eq!(of("99.01"), ["100", "378"].map(money));
    assert_eq!([of("478"), of("479")], [["478", "0"], ["478", "0"]].map(|two| two.map(money)));
}

/// 100 days of 41 km: 21 × 0.38 × 100 = 798 from the 21st kilometre; 14 % of what is above the lump sum and below the basic allowance.
#[test]
fn the_premium_of_mobility() {
    let premium = |gross: &str, days: i64| {
        let family = Family::single(2025).paper("LStB", "ada", json!({ "3": gross })).rows(
            "Way to work",
            "ada",
            json!([{ "days": days, "km": "41", "by": "car" }]),
        );
        line(&family.outcome(), "return/0", "mobility_premium")
    };
    // 13.98 a day: 100 days are 1,398, with the fee 1,414, so 184 are above the lump sum: 25.76.
    assert_eq!(premium("8000", 100), money("25.76"));
    // All of 200 days' 1,596 count where expenses of 2,812 are 1,582 above: 221.48.
    assert_eq!(premium("8000", 200), money("221.48"));
    // Taxable 12,096 less 100: 14,844 − 2,812 − 36 = 11,996; 14 % of 100.
    assert_eq!(
        [premium("14844", 200), premium("14872", 200), premium("14873", 200)],
        ["14", "10.08", "0"].map(money)
    );
}

#[test]
fn the_bonus_of_savings() {
    let bonus = |taxable: i64, shares: &str, building: &str| {
        let family = Family::single(2025)
            .paper("Result", "ada", json!({ "kind": "freelance", "result": (taxable + 36).to_string() }))
            .paper("VL", "ada", json!({ "shares": shares, "building": building }));
        line(&family.outcome(), "return/0", "savings_bonus")
    };
    assert_eq!([bonus(40_000, "399", "469"), bonus(40_000, "400", "470")], ["123", "123"].map(money));
    assert_eq!([bonus(40_000, "401", "471"), bonus(40_001, "400", "470")], ["123", "0"].map(money));
}

/// Numbers 16a and 16b raise the rate, number 9 is taxed by fifths.
#[test]
fn exempt_wages_and_pensions_of_several_years() {
    let family = Family::single(2025).paper(
        "LStB",
        "ada",
        json!({ "3": "30000", "9": "5000", "16a": "1000", "16b": "500" }),
    );
    let outcome = family.outcome();
    assert_eq!(line(&outcome, "return/0", "progression"), money("1500"));
    assert_eq!(line(&outcome, "person/ada", "special_pay"), money("5000"));
}

/// A move from Nordrhein-Westfalen to Bayern after four months: 9 % of four twelfths of the base, 8 % of eight.
#[test]
fn church_tax_of_two_laender() {
    let family = |before: bool| {
        let family = earner().answer("land", json!("BY")).answer_for("ada", "church", json!(true));
        if before {
            family.answer("land_before", json!("NW")).answer("months_before", json!(4))
        } else {
            family
        }
    };
    let of = |before: bool, id: &str| line(&family(before).outcome(), "return/0", id).cents();
    let base = of(true, "church_base");
    assert_eq!(of(true, "church_tax"), base / 3 * 9 / 100 + base * 2 / 3 * 8 / 100);
    assert_eq!(of(false, "church_tax"), base * 8 / 100);
}

/// 50,000 × 2.29 % × 0.7 = 801.50, at most what the value rose with what was paid out, less that; 30 % of an equity fund are exempt.
#[test]
fn funds_with_their_lump_sum() {
    let income = |cells: Value| {
        let family = Family::single(2025).rows("Fund", "ada", json!([cells]));
        line(&family.outcome(), "person/ada", "capital_income")
    };
    let fund = |closing: &str, paid: &str, kind: &str| {
        income(json!({ "kind": kind, "opening": "50000", "closing": closing, "distributed_before": paid }))
    };
    assert_eq!(fund("60000", "0", "other"), money("801"));
    assert_eq!([fund("50801", "0", "other"), fund("50000", "0", "other")], ["801", "0"].map(money));
    assert_eq!([fund("60000", "801", "other"), fund("60000", "301.50", "other")], ["0", "500"].map(money));
    assert_eq!(fund("60000", "0", "equity"), money("561"));
    let months = json!({ "kind": "other", "opening": "50000", "closing": "60000", "months": 6 });
    assert_eq!(income(months), money("400"));
    let paid = |kind: &str| income(json!({ "kind": kind, "distributed": "1000", "sold": "1000" }));
    assert_eq!(
        ["equity", "mixed", "property", "foreign_property", "other"].map(paid),
        ["1400", "1700", "800", "400", "2000"].map(money)
    );
}

/// Taxable 38,734 at 6,956: of 10,000 earned abroad at most 10,000 / 38,734 of it, 1,795.84, country by country.
#[test]
fn foreign_tax_country_by_country() {
    let family = |rows: Value| {
        Family::single(2025)
            .paper("Result", "ada", json!({ "kind": "rental", "result": "38770" }))
            .rows("Foreign tax", "ada", rows)
            .outcome()
    };
    let of = |rows: Value| line(&family(rows), "return/0", "foreign_credit");
    let one = |income: &str, tax: &str| json!([{ "country": "Portugal", "income": income, "tax": tax }]);
    let plain = family(json!([]));
    let (tax, taxable) =
        (line(&plain, "return/0", "tariff_tax").cents(), line(&plain, "return/0", "taxable_income").cents());
    assert_eq!(taxable, 3_873_400);
    let most = (i128::from(tax) * 1_000_000 / i128::from(taxable) + 99) / 100;
    assert_eq!(of(one("10000", "500.01")), money("501"));
    assert_eq!(i128::from(of(one("10000", "9000")).cents()), most * 100);
    assert_eq!(of(one("-1", "9000")), money("0"));
    let two = json!([{ "income": "10000", "tax": "9000" }, { "income": "10000", "tax": "0" }]);
    assert_eq!(
        i128::from(of(two).cents()),
        most * 100,
        "what one country does not take is none of another's"
    );
}

/// Craftsmen: 20 % of labour up to 1,200; energy renovation: 7 % of all costs up to 14,000. Of 6,000 labour in 17,142 the first is as good.
#[test]
fn work_that_is_either() {
    let family = |all: &str| {
        let row = json!([{ "kind": "either", "amount": all, "labour": "6000", "date": "2025-05-05" }]);
        Family::single(2025).paper("LStB", "ada", json!({ "3": "70000" })).rows("Household", "ada", row)
    };
    let used = |all: &str| {
        let outcome = family(all).outcome();
        ["c35a_craft_used", "c35c_used"].map(|id| line(&outcome, "return/0", id))
    };
    assert_eq!(used("17000"), ["1200", "0"].map(money));
    assert_eq!(used("17143"), ["0", "1201"].map(money));
    assert_eq!(used("200001"), ["0", "14000"].map(money));
    let dearer = family("17143").pin("de.energy.0", "crafts").outcome();
    assert_eq!(dearer.total - family("17143").outcome().total, money("1"));
}

/// Actual costs of both ways count for who is disabled where they are above 0.60 a kilometre.
#[test]
fn actual_costs_of_the_way_of_who_is_disabled() {
    let commute = |degree: i64, actual: &str| {
        let row = json!([{ "days": 100, "km": "30", "by": "car", "actual": actual }]);
        let family = earner().answer_for("ada", "degree", json!(degree)).rows("Way to work", "ada", row);
        line(&family.outcome(), "person/ada", "commute")
    };
    assert_eq!(
        [commute(70, "1799"), commute(70, "1801"), commute(60, "1801")],
        ["1800", "1801", "980"].map(money)
    );
}

/// Without a home of one's own before the move 193 count; 12 months abroad of a child in the group of a half are worth six.
#[test]
fn moves_without_a_home_and_training_abroad() {
    let moved = |before: Value| {
        let boxes = json!({ "loaded": "2025-03-03", "home_before": before });
        line(&earner().paper("Move", "ada", boxes).outcome(), "person/ada", "moving")
    };
    assert_eq!([moved(json!(true)), moved(json!(false))], ["964", "193"].map(money));
    let away = |group: &str| {
        let family =
            earner().person("cy", "dependent", "2005-05-05").answer_for("cy", "away_months", json!(12));
        line(&family.answer_for("cy", "group", json!(group)).outcome(), "return/0", "training_away")
    };
    assert_eq!([away("4"), away("2")], ["1200", "600"].map(money));
}

/// The lump sum of travel of a child passes with that of its disability (§33(2a) S.6); losses of shares wait for gains of shares.
#[test]
fn what_passes_from_a_child_and_what_waits() {
    let parent = |degree: i64| {
        let family =
            earner().person("cy", "dependent", "2018-05-05").answer_for("cy", "degree", json!(degree));
        line(&family.outcome(), "return/0", "burdens_paid")
    };
    assert_eq!([parent(79), parent(80)], ["0", "900"].map(money));
    let half = earner().person("cy", "dependent", "2018-05-05").answer_for("cy", "mark", json!("H"));
    let half = half.answer_for("cy", "half", json!(true)).outcome();
    assert_eq!(line(&half, "return/0", "burdens_paid"), money("2250"));
    let carried = |shares: &str| {
        let boxes = json!({ "untaxed": "9", "shares": shares, "shares_before": "3500" });
        line(&earner().paper("KAP", "ada", boxes).outcome(), "person/ada", "share_loss_carried")
    };
    assert_eq!([carried("2000"), carried("3500"), carried("3501")], ["1500", "0", "0"].map(money));
}
