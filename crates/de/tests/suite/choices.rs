//! Choices of the law and what goes between years, worked out by hand from the law.

use hembo_money::Money;
use hembo_testing::de::{Family, has_point, line, money};
use serde_json::{Value, json};

fn freelance(result: &str) -> Family {
    Family::single(2025).paper("Result", "ada", json!({ "kind": "freelance", "result": result }))
}

fn amounts<const N: usize>(family: &Family, scope: &str, ids: [&str; N]) -> [Money; N] {
    let outcome = family.outcome();
    ids.map(|id| line(&outcome, scope, id))
}

/// Tax on 399,964 is 160,737; 9 % of it 14,466.33, 3.5 % of the income 13,998.74, 4 % more than the tax.
#[test]
fn church_tax_is_capped_by_taxable_income() {
    let church = |cap: &str, months: i64| {
        let family = freelance("400000").answer_for("ada", "church", json!(true));
        let family =
            family.answer_for("ada", "church_months", json!(months)).answer("church_cap", json!(cap));
        assert!(!has_point(&family.outcome(), "church-cap"));
        line(&family.outcome(), "return/0", "church_tax")
    };
    assert_eq!(
        [church("3.5", 12), church("4", 12), church("0", 12), church("3.5", 6)],
        ["13998.74", "14466.33", "14466.33", "6999.37"].map(money)
    );
}

/// After a move from NW (9 %) to BY (8 %) in May: of six first months four are in NW, of six last ones none.
#[test]
fn church_months_in_two_laender() {
    let family = |part: Option<&str>| {
        let family = freelance("50000").answer("land", json!("BY")).answer("land_before", json!("NW"));
        let family = family.answer("months_before", json!(4)).answer_for("ada", "church", json!(true));
        let family = family.answer_for("ada", "church_months", json!(6));
        part.map_or(family.clone(), |part| family.answer_for("ada", "church_part", json!(part)))
    };
    let [base, first] = amounts(&family(Some("first")), "return/0", ["church_base", "church_tax"]);
    let cents = |months: i64, per_cent: i64| base.cents() * months / 12 * per_cent / 100;
    assert_eq!(first.cents(), cents(4, 9) + cents(2, 8));
    assert_eq!(amounts(&family(Some("last")), "return/0", ["church_tax"])[0].cents(), cents(6, 8));
    assert!(
        has_point(&family(None).outcome(), "land-moved")
            && !has_point(&family(Some("last")).outcome(), "land-moved")
    );
}

/// Of 30,000 a fifth is taxed by the yield of 65 (18 %), the rest by the year 2020 (80 %) or less what is free for life.
#[test]
fn the_opening_clause_of_pensions() {
    let taxable = |boxes: Value| {
        let family = Family::single(2025).paper("Rente", "ada", boxes);
        amounts(&family, "person/ada", ["pension_taxable"])[0]
    };
    assert_eq!(
        taxable(json!({ "gross": "30000", "start": 2020, "age": 65, "opening": "20" })),
        money("20280")
    );
    assert_eq!(
        taxable(json!({ "gross": "30000", "free": "4800", "age": 65, "opening": "20" })),
        money("20280")
    );
    assert_eq!(taxable(json!({ "gross": "30000", "start": 2020, "age": 65 })), money("24000"));
    let no_age =
        Family::single(2025).paper("Rente", "ada", json!({ "gross": "9", "start": 2020, "opening": "20" }));
    assert!(has_point(&no_age.outcome(), "DE-C71"));
}

/// A thing for 714 (600 net) may be written off over its three years: 238 a year; above 800 net it must be.
#[test]
fn small_things_over_their_life() {
    let of = |price: &str, spread: bool| {
        let row = json!([{ "price": price, "bought": "2025-01-09", "years": 3, "spread": spread }]);
        let family =
            Family::single(2025).paper("LStB", "ada", json!({ "3": "40000" })).rows("Equipment", "ada", row);
        amounts(&family, "person/ada", ["equipment"])[0]
    };
    assert_eq!([of("714", false), of("714", true), of("952.01", false)], ["714", "238", "318"].map(money));
}

/// 100 km are 36.40 a trip: 46 trips and lodging of 3,000 come to 4,674.40, 150 trips to 5,460, without an own car to 4,500.
#[test]
fn trips_home_instead_of_a_second_household() {
    let family = |lodging: &str, car: bool| {
        let boxes = json!({ "months": 12, "lodging": lodging, "trips": 46, "km": "100", "all_trips": 150, "car": car });
        Family::single(2025).paper("LStB", "ada", json!({ "3": "60000" })).paper(
            "Second household",
            "ada",
            boxes,
        )
    };
    let of = |lodging: &str, car: bool| {
        amounts(&family(lodging, car), "person/ada", ["commute", "double_household"])
    };
    assert_eq!(of("3000", true), ["5460", "0"].map(money));
    assert_eq!(of("3000", false), ["0", "4675"].map(money));
    assert_eq!(of("3785", true), ["0", "5460"].map(money), "as good: the way of the papers");
    assert_eq!(of("3786", true), ["0", "5461"].map(money));
    let held = family("3786", true).pin("de.trips.ada", "way");
    assert_eq!(amounts(&held, "person/ada", ["commute"]), ["5460"].map(money));
}

/// 30,000 at once or in equal parts: each way has its rent and its price; of earlier years the part of this one.
#[test]
fn large_repairs_over_two_to_five_years() {
    let family = |row: Value| {
        Family::single(2025).paper("Result", "ada", json!({ "kind": "rental", "result": "40000" })).rows(
            "Large repairs",
            "ada",
            json!([row]),
        )
    };
    let rent = |family: &Family| amounts(family, "person/ada", ["rental"])[0];
    let open = family(json!({ "paid": 2025, "amount": "30000" }));
    assert_eq!(rent(&open), money("10000"));
    let held = ["2", "3", "4", "5"].map(|years| open.clone().pin("de.repairs.0", years));
    assert_eq!(held.each_ref().map(rent), ["25000", "30000", "32500", "34000"].map(money));
    for (dear, dearer) in held.iter().zip(&held[1..]) {
        assert!(dear.outcome().total < dearer.outcome().total);
    }
    let before = |paid: i64| family(json!({ "paid": paid, "amount": "9000", "years": 3 }));
    assert_eq!(rent(&before(2023)), money("37000"));
    let over = before(2022);
    let unsaid = family(json!({ "paid": 2023, "amount": "9000" }));
    assert_eq!(rent(&over), money("40000"));
    assert!(has_point(&over.outcome(), "repairs-over") && has_point(&unsaid.outcome(), "repairs-years"));
}

/// Of 9,000 taken abroad from 10,000 the credit takes the average tax on 10,000 alone; deducted, it comes off at the highest rate.
#[test]
fn foreign_tax_credited_or_deducted() {
    let family = |tax: &str| {
        let row = json!([{ "country": "Portugal", "kind": "rental", "income": "10000", "tax": tax }]);
        freelance("60000").paper("Result", "ada", json!({ "kind": "rental", "result": "10000" })).rows(
            "Foreign tax",
            "ada",
            row,
        )
    };
    let taken = |family: &Family| {
        let [taxable, credit] = amounts(family, "return/0", ["taxable_income", "foreign_credit"]);
        [taxable, credit, amounts(family, "person/ada", ["rental"])[0]]
    };
    // Tax on 69,964 is 0.42 × 69,964 − 10,911.92 = 18,472; of it 10,000 ÷ 69,964: 2,640.22, up to 2,641.
    assert_eq!(taken(&family("9000").pin("de.foreign.0", "credit")), ["69964", "2641", "10000"].map(money));
    assert_eq!(taken(&family("9000")), ["60964", "0", "1000"].map(money));
    assert_eq!(taken(&family("2000")), ["69964", "2000", "10000"].map(money));
    let unnamed = freelance("9").rows("Foreign tax", "ada", json!([{ "income": "9", "tax": "9" }]));
    assert!(
        has_point(&unnamed.outcome(), "foreign-kind") && !has_point(&family("9").outcome(), "foreign-kind")
    );
}

/// Own burden on 40,000: 767 + 1,479.60, down to 2,246. It falls on costs of care first, which there count as services: 20 % of them.
#[test]
fn care_at_home_as_a_burden_or_as_services() {
    let family = |income: &str, care: &str| {
        let row = json!([{ "kind": "care", "amount": care, "date": "2025-03-03" }]);
        freelance(income).rows("Burdens", "ada", row)
    };
    let of = |family: &Family| amounts(family, "return/0", ["burdens", "c35a_services_used"]);
    assert_eq!(of(&family("40000", "5000")), ["2754", "450"].map(money));
    assert_eq!(of(&family("40000", "5000").pin("de.care.0", "services")), ["0", "1000"].map(money));
    assert_eq!(of(&family("40000", "2000")), ["0", "400"].map(money));
    // 20,000 cost as services at most 4,000; what is above is lost there.
    assert_eq!(of(&family("90000", "20001").pin("de.care.0", "services")), ["0", "4000"].map(money));
}

/// Half: 4,800 against 1,530; the care allowance alone taken over: 6,264 against 1,530; both: 9,600 against 3,060.
#[test]
fn the_other_half_of_a_childs_allowances() {
    let family = |income: &str, ground: &str| {
        freelance(income)
            .person("cy", "dependent", "2018-05-05")
            .answer_for("cy", "half", json!(true))
            .answer_for("cy", ground, json!(true))
    };
    let of = |family: &Family| amounts(family, "return/0", ["child_allowances", "child_benefit_added"]);
    assert_eq!(of(&family("90000", "unsupported")), ["9600", "3060"].map(money));
    assert_eq!(of(&family("90000", "registered")), ["6264", "1530"].map(money));
    assert_eq!(of(&family("90000", "half")), ["4800", "1530"].map(money));
    // At 43,500 a half saves more than 1,530, all of it less than 3,060.
    let middle = family("43536", "unsupported");
    assert_eq!(of(&middle), ["4800", "1530"].map(money));
    assert_eq!(of(&middle.pin("de.other_half.cy", "all")), ["0", "0"].map(money));
}

/// Apart, only the parent has allowances of a child whose other parent is outside.
#[test]
fn a_child_of_one_spouse() {
    let family = |parent: Option<&str>| {
        let family = Family::couple(2025)
            .paper("Result", "ada", json!({ "kind": "freelance", "result": "90000" }))
            .paper("Result", "bo", json!({ "kind": "freelance", "result": "90000" }))
            .person("cy", "dependent", "2018-05-05")
            .answer_for("cy", "half", json!(true))
            .pin("de.filing", "separate");
        parent.map_or(family.clone(), |parent| family.answer_for("cy", "parent", json!(parent)))
    };
    let of = |parent: &str| {
        let outcome = family(Some(parent)).outcome();
        ["return/0", "return/1"].map(|scope| line(&outcome, scope, "child_allowances"))
    };
    assert_eq!([of("ada"), of("bo")], [["4800", "0"].map(money), ["0", "4800"].map(money)]);
    assert!(
        has_point(&family(None).outcome(), "parent") && !has_point(&family(Some("bo")).outcome(), "parent")
    );
}

/// A loss of 20,000: 15,000 from the year before (14,000 taxable in 2024: 357), 5,000 from 2023 (38,000 to 33,000: 7,172 less 5,598).
#[test]
fn a_loss_goes_back_two_years_or_is_kept() {
    let family = |more: Value| {
        let mut boxes =
            json!({ "total_1": "15000", "taxable_1": "14000", "total_2": "40000", "taxable_2": "38000" });
        boxes.as_object_mut().unwrap().extend(more.as_object().unwrap().clone());
        freelance("-20000").paper("Last year", "ada", boxes)
    };
    let of = |family: &Family| amounts(family, "return/0", ["loss_back", "loss_back_refund", "loss_carried"]);
    assert_eq!(of(&family(json!({}))), ["20000", "1931", "0"].map(money));
    assert_eq!(of(&family(json!({ "total_2": "4999" }))), ["19999", "1931", "1"].map(money));
    assert_eq!(of(&family(json!({ "kept": true }))), ["0", "0", "20000"].map(money));
    assert_eq!(of(&freelance("-20000")), ["0", "0", "20000"].map(money));
    assert!(
        has_point(&freelance("-1").outcome(), "loss-back")
            && has_point(&family(json!({})).outcome(), "loss-kept")
    );
    // 2022, splitting: 60,000 is twice the tax on 30,000, 4,951 each; on 25,000 each 3,493.
    let couple =
        Family::couple(2024).paper("Result", "ada", json!({ "kind": "freelance", "result": "-10000" }));
    let boxes = json!({ "total_2": "70000", "taxable_2": "60000", "splitting": true });
    let [back, refund, _] = of(&couple.paper("Last year", "ada", boxes));
    assert_eq!([back, refund], ["10000", "2916"].map(money));
}

/// What declared capital income does not take of losses is carried; of spouses together one's loss is set against the other's income first.
#[test]
fn losses_of_capital_income() {
    let family = |untaxed: &str| {
        Family::single(2025).paper("KAP", "ada", json!({ "untaxed": untaxed })).paper(
            "Last year",
            "ada",
            json!({ "capital_losses": "3000" }),
        )
    };
    let of = |family: &Family, who: &str| amounts(family, who, ["capital_net", "capital_loss_carried"]);
    assert_eq!(of(&family("2500"), "person/ada"), ["-500", "500"].map(money));
    assert_eq!(of(&family("4000"), "person/ada"), ["0", "0"].map(money));
    assert_eq!(of(&family("4001"), "person/ada"), ["1", "0"].map(money));
    let left = Family::single(2025).paper("Last year", "ada", json!({ "capital_losses": "3000" }));
    assert_eq!(of(&left, "person/ada")[1], money("3000"));
    let couple = |filing: &str| {
        Family::couple(2025)
            .paper("KAP", "ada", json!({ "untaxed": "5000" }))
            .paper("KAP", "bo", json!({ "untaxed": "1", "income": "-2001" }))
            .pin("de.filing", filing)
    };
    assert_eq!(of(&couple("joint"), "person/ada"), ["1000", "0"].map(money));
    assert_eq!(of(&couple("joint"), "person/bo"), ["0", "0"].map(money));
    assert_eq!(of(&couple("separate"), "person/ada"), ["4000", "0"].map(money));
    assert_eq!(of(&couple("separate"), "person/bo"), ["-2000", "2000"].map(money));
}

fn contract(family: Family, who: &str, boxes: Value) -> Family {
    family.paper("Riester", who, boxes)
}

const RIESTER: [&str; 4] = ["riester_allowances", "riester_open", "riester", "riester_added"];

/// 4 % of 52,500 are 2,100: with 175 of allowance 1,925 are the least to pay in. With half of it half the allowance.
#[test]
fn subsidised_contracts_deducted_where_that_saves_more() {
    let of = |wage: &str, boxes: Value| {
        let family = Family::single(2025).paper("LStB", "ada", json!({ "3": wage }));
        amounts(&contract(family, "ada", boxes), "return/0", RIESTER)
    };
    let paid = |paid: &str| of("60000", json!({ "paid": paid, "wage_before": "52500" }));
    assert_eq!(paid("1925"), ["175", "2100", "2100", "175"].map(money));
    assert_eq!(paid("1926"), ["175", "2100", "2100", "175"].map(money));
    assert_eq!(paid("962.50"), ["87.50", "1050", "1050", "87"].map(money));
    // 4 % of 14,000 less 175 and 300: 85 are the least; the tax that 560 save is below the allowances.
    let small = of("14000", json!({ "paid": "85", "wage_before": "14000", "children": 1 }));
    assert_eq!(small, ["475", "560", "0", "0"].map(money));
    let two = Family::single(2025).paper("LStB", "ada", json!({ "3": "14000" }));
    let two = contract(two, "ada", json!({ "paid": "50", "wage_before": "14000" }));
    let two = contract(two, "ada", json!({ "paid": "35", "wage_before": "14000", "children": 1 }));
    assert_eq!(amounts(&two, "return/0", RIESTER), small, "one basic allowance, the child's of the second");
    let bonus =
        of("60000", json!({ "paid": "60", "wage_before": "1000", "bonus": true, "children_before": 1 }));
    assert_eq!(bonus, ["560", "620", "0", "0"].map(money));
}

/// 1,750 and 60 with two allowances are 2,160, the most of a couple of whom one is entitled through the other; 59 entitle to nothing:
/// then 1,925 are the least, and of 175 there are 159.09.
#[test]
fn a_spouse_entitled_through_the_other() {
    let of = |paid: &str, filing: &str| {
        let family = Family::couple(2025).paper("LStB", "ada", json!({ "3": "80000" }));
        let family = contract(family, "ada", json!({ "paid": "1750", "wage_before": "52500" }));
        let family =
            contract(family, "bo", json!({ "entitled": "spouse", "paid": paid })).pin("de.filing", filing);
        amounts(&family, "return/0", RIESTER)
    };
    assert_eq!(of("60", "joint"), ["350", "2160", "2160", "350"].map(money));
    assert_eq!(of("60", "separate"), ["350", "2160", "2160", "350"].map(money));
    assert_eq!(of("61", "joint"), ["350", "2160", "2160", "350"].map(money));
    assert_eq!(of("59", "joint"), ["159.09", "1910", "1910", "159"].map(money));
    let alone = contract(freelance("9"), "ada", json!({ "entitled": "spouse", "paid": "60" }));
    assert!(has_point(&alone.outcome(), "riester-indirect"));
    let unasked = contract(freelance("9"), "ada", json!({ "paid": "60" }));
    assert!(has_point(&unasked.outcome(), "riester-wage"));
}

/// Rents of 5,000 less 15,000: at 40 per cent of the local level 6,000 of them count, at 50 to 65 all only with a surplus in view.
#[test]
fn a_rent_below_the_local_level() {
    let rent = |level: i64, surplus: bool| {
        let boxes = json!({ "kind": "rental", "result": "-10000", "rent_level": level, "deductions": "15000", "surplus": surplus });
        amounts(&Family::single(2025).paper("Result", "ada", boxes), "person/ada", ["rental"])[0]
    };
    assert_eq!([rent(40, true), rent(49, true), rent(50, true)], ["-1000", "-2350", "-10000"].map(money));
    assert_eq!([rent(50, false), rent(65, false), rent(66, false)], ["-2500", "-4750", "-10000"].map(money));
}

/// Half a year with the room: 1,260 less 630, and 50 days of the other half at 6; or 120 days in all.
#[test]
fn a_room_for_a_part_of_the_year() {
    let home = |days: i64| {
        let boxes = json!({ "centre": true, "months": 6, "days": days, "days_outside": 50 });
        let family = Family::single(2025).paper("LStB", "ada", json!({ "3": "60000" })).paper(
            "Work at home",
            "ada",
            boxes,
        );
        let rest = json!([{ "kind": "other", "amount": "2000" }]);
        amounts(&family.rows("Work costs", "ada", rest), "person/ada", ["home_office"])[0]
    };
    assert_eq!([home(120), home(155), home(156)], ["930", "930", "936"].map(money));
}
