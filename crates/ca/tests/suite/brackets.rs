//! Tax on taxable income and the amounts that everyone has, federal and of every province and territory in both years, against
//! figures typed again from the law and a sum that knows nothing of the pack.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::ca::{Family, line};
use serde_json::json;

/// A scale: rates in hundredths of a per cent, and the upper ends of all but the last.
struct Scale {
    rates: &'static [i64],
    tops: &'static [i64],
}

/// What is typed again of a province: its scale, rate of credits, basic amount, age amount with its threshold, the most for a partner
/// with its base, pension, and of taxable dividends eligible and others (in millionths).
struct Of {
    code: &'static str,
    year: i32,
    scale: Scale,
    credit: i64,
    basic: i64,
    age: [i64; 2],
    partner: [i64; 2],
    pension: i64,
    dividends: [i64; 2],
}

const FEDERAL: [(i32, Scale, [i64; 4]); 2] = [
    (
        2024,
        Scale { rates: &[1500, 2050, 2600, 2900, 3300], tops: &[55_867, 111_733, 173_205, 246_752] },
        [15_705, 8_790, 44_325, 1_433],
    ),
    (
        2025,
        Scale { rates: &[1450, 2050, 2600, 2900, 3300], tops: &[57_375, 114_750, 177_882, 253_414] },
        [16_129, 9_028, 45_522, 1_471],
    ),
];

#[rustfmt::skip]
const PROVINCES: [Of; 24] = [
    Of { code: "ON", year: 2024, scale: Scale { rates: &[505, 915, 1116, 1216, 1316], tops: &[51_446, 102_894, 150_000, 220_000] }, credit: 505, basic: 12_399, age: [6_054, 45_068], partner: [10_528, 11_581], pension: 1_714, dividends: [100_000, 29_863] },
    Of { code: "ON", year: 2025, scale: Scale { rates: &[505, 915, 1116, 1216, 1316], tops: &[52_886, 105_775, 150_000, 220_000] }, credit: 505, basic: 12_747, age: [6_223, 46_330], partner: [10_823, 11_905], pension: 1_762, dividends: [100_000, 29_863] },
    Of { code: "BC", year: 2024, scale: Scale { rates: &[506, 770, 1050, 1229, 1470, 1680, 2050], tops: &[47_937, 95_875, 110_076, 133_664, 181_232, 252_752] }, credit: 506, basic: 12_580, age: [5_641, 41_993], partner: [10_772, 11_849], pension: 1_000, dividends: [120_000, 19_600] },
    Of { code: "BC", year: 2025, scale: Scale { rates: &[506, 770, 1050, 1229, 1470, 1680, 2050], tops: &[49_279, 98_560, 113_158, 137_407, 186_306, 259_829] }, credit: 506, basic: 12_932, age: [5_799, 43_169], partner: [11_073, 12_181], pension: 1_000, dividends: [120_000, 19_600] },
    Of { code: "AB", year: 2024, scale: Scale { rates: &[1000, 1200, 1300, 1400, 1500], tops: &[148_269, 177_922, 237_230, 355_845] }, credit: 1000, basic: 21_885, age: [6_099, 45_400], partner: [21_885, 21_885], pension: 1_685, dividends: [81_200, 21_800] },
    Of { code: "AB", year: 2025, scale: Scale { rates: &[800, 1000, 1200, 1300, 1400, 1500], tops: &[60_000, 151_234, 181_481, 241_974, 362_961] }, credit: 800, basic: 22_323, age: [6_221, 46_308], partner: [22_323, 22_323], pension: 1_719, dividends: [81_200, 21_800] },
    Of { code: "SK", year: 2024, scale: Scale { rates: &[1050, 1250, 1450], tops: &[52_057, 148_734] }, credit: 1050, basic: 18_491, age: [5_633, 41_933], partner: [18_491, 20_341], pension: 1_000, dividends: [110_000, 25_190] },
    Of { code: "SK", year: 2025, scale: Scale { rates: &[1050, 1250, 1450], tops: &[53_463, 152_750] }, credit: 1050, basic: 19_491, age: [5_785, 43_065], partner: [19_491, 21_391], pension: 1_000, dividends: [110_000, 25_190] },
    Of { code: "MB", year: 2024, scale: Scale { rates: &[1080, 1275, 1740], tops: &[47_000, 100_000] }, credit: 1080, basic: 15_780, age: [3_728, 27_749], partner: [9_134, 9_134], pension: 1_000, dividends: [80_000, 7_835] },
    Of { code: "MB", year: 2025, scale: Scale { rates: &[1080, 1275, 1740], tops: &[47_000, 100_000] }, credit: 1080, basic: 15_780, age: [3_728, 27_749], partner: [9_134, 9_134], pension: 1_000, dividends: [80_000, 7_835] },
    Of { code: "NB", year: 2024, scale: Scale { rates: &[940, 1400, 1600, 1950], tops: &[49_958, 99_916, 185_064] }, credit: 940, basic: 13_044, age: [5_878, 43_763], partner: [10_223, 11_246], pension: 1_000, dividends: [140_000, 27_500] },
    Of { code: "NB", year: 2025, scale: Scale { rates: &[940, 1400, 1600, 1950], tops: &[51_306, 102_614, 190_060] }, credit: 940, basic: 13_396, age: [6_037, 44_945], partner: [10_499, 11_549], pension: 1_000, dividends: [140_000, 27_500] },
    Of { code: "NS", year: 2024, scale: Scale { rates: &[879, 1495, 1667, 1750, 2100], tops: &[29_590, 59_180, 93_000, 150_000] }, credit: 879, basic: 8_481, age: [4_141, 30_828], partner: [8_481, 9_329], pension: 1_173, dividends: [88_500, 29_900] },
    Of { code: "NS", year: 2025, scale: Scale { rates: &[879, 1495, 1667, 1750, 2100], tops: &[30_507, 61_015, 95_883, 154_650] }, credit: 879, basic: 11_744, age: [5_734, 31_784], partner: [11_744, 12_618], pension: 1_173, dividends: [88_500, 15_000] },
    Of { code: "NL", year: 2024, scale: Scale { rates: &[870, 1450, 1580, 1780, 1980, 2080, 2130, 2180], tops: &[43_198, 86_395, 154_244, 215_943, 275_870, 551_739, 1_103_478] }, credit: 870, basic: 10_818, age: [6_905, 37_842], partner: [8_840, 9_724], pension: 1_000, dividends: [63_000, 32_000] },
    Of { code: "NL", year: 2025, scale: Scale { rates: &[870, 1450, 1580, 1780, 1980, 2080, 2130, 2180], tops: &[44_192, 88_382, 157_792, 220_910, 282_214, 564_429, 1_128_858] }, credit: 870, basic: 11_067, age: [7_064, 38_712], partner: [9_043, 9_947], pension: 1_000, dividends: [63_000, 32_000] },
    Of { code: "PE", year: 2024, scale: Scale { rates: &[965, 1363, 1665, 1800, 1875], tops: &[32_656, 64_313, 105_000, 140_000] }, credit: 965, basic: 13_500, age: [5_595, 33_740], partner: [11_466, 12_613], pension: 1_000, dividends: [105_000, 13_000] },
    Of { code: "PE", year: 2025, scale: Scale { rates: &[950, 1347, 1660, 1762, 1900], tops: &[33_328, 64_656, 105_000, 140_000] }, credit: 950, basic: 14_650, age: [6_510, 36_600], partner: [12_443, 13_687], pension: 1_000, dividends: [105_000, 13_000] },
    Of { code: "YT", year: 2024, scale: Scale { rates: &[640, 900, 1090, 1280, 1500], tops: &[55_867, 111_733, 173_205, 500_000] }, credit: 640, basic: 15_705, age: [8_790, 44_325], partner: [15_705, 15_705], pension: 2_000, dividends: [120_200, 6_700] },
    Of { code: "YT", year: 2025, scale: Scale { rates: &[640, 900, 1090, 1280, 1500], tops: &[57_375, 114_750, 177_882, 500_000] }, credit: 640, basic: 16_129, age: [9_028, 45_522], partner: [16_129, 16_129], pension: 2_000, dividends: [120_200, 6_700] },
    Of { code: "NT", year: 2024, scale: Scale { rates: &[590, 860, 1220, 1405], tops: &[50_597, 101_198, 164_525] }, credit: 590, basic: 17_373, age: [8_498, 44_325], partner: [17_373, 17_373], pension: 1_000, dividends: [115_000, 60_000] },
    Of { code: "NT", year: 2025, scale: Scale { rates: &[590, 860, 1220, 1405], tops: &[51_964, 103_930, 168_967] }, credit: 590, basic: 17_842, age: [8_727, 45_522], partner: [17_842, 17_842], pension: 1_000, dividends: [115_000, 60_000] },
    Of { code: "NU", year: 2024, scale: Scale { rates: &[400, 700, 900, 1150], tops: &[53_268, 106_537, 173_205] }, credit: 400, basic: 18_767, age: [11_979, 44_325], partner: [18_767, 18_767], pension: 2_000, dividends: [55_100, 26_100] },
    Of { code: "NU", year: 2025, scale: Scale { rates: &[400, 700, 900, 1150], tops: &[54_707, 109_413, 177_881] }, credit: 400, basic: 19_274, age: [12_303, 45_522], partner: [19_274, 19_274], pension: 2_000, dividends: [55_100, 26_100] },
];

/// Tax on so many cents, in cents, halves up: every slice in ten-thousandths of a cent first.
fn tax(scale: &Scale, cents: i64) -> i64 {
    let mut from = 0;
    let mut whole = 0;
    for (place, rate) in scale.rates.iter().enumerate() {
        let to = scale.tops.get(place).map_or(i64::MAX, |top| top * 100);
        whole += (cents.min(to) - from).max(0) * rate;
        from = to;
    }
    (whole + 5_000) / 10_000
}

/// Cents at a rate in hundredths of a per cent.
fn part(cents: i64, rate: i64) -> i64 {
    (cents * rate + 5_000) / 10_000
}

/// What an amount is that shrinks by 15 % of net income above a threshold, in cents.
fn shrunk(amount: i64, from: i64, net: i64) -> i64 {
    (amount * 100 - part((net - from * 100).max(0), 1500)).max(0)
}

/// Someone born so with interest of so many cents.
fn with_interest(of: &Of, born: &str, cents: i64) -> Outcome {
    let amount = Money::from_cents(cents).to_string();
    Family::single(of.code, born).interest("ada", &amount).in_year(of.year).outcome()
}

fn at(outcome: &Outcome, id: &str) -> i64 {
    line(outcome, 0, id).cents()
}

fn federal(year: i32) -> &'static (i32, Scale, [i64; 4]) {
    FEDERAL.iter().find(|(of, ..)| *of == year).unwrap()
}

#[test]
fn tax_on_every_slice_and_a_cent_beside_it() {
    for of in &PROVINCES {
        let (_, scale, _) = federal(of.year);
        let edges = of.scale.tops.iter().chain(scale.tops);
        for cents in edges.flat_map(|top| [top * 100 - 1, top * 100, top * 100 + 1]) {
            let outcome = with_interest(of, "1980-01-01", cents);
            let what = format!("{} {} {cents}", of.code, of.year);
            assert_eq!(at(&outcome, "26000"), cents, "{what}");
            assert_eq!(at(&outcome, "40400"), tax(scale, cents), "{what}");
            assert_eq!(at(&outcome, "428.tax"), tax(&of.scale, cents), "{what}");
        }
    }
}

#[test]
fn the_amounts_of_everyone_at_every_rate() {
    for of in &PROVINCES {
        let (_, _, [basic, age, from, _]) = *federal(of.year);
        for cents in [1_000_000, 2_999_999, 4_500_000, 6_000_050, 9_000_000] {
            let what = format!("{} {} {cents}", of.code, of.year);
            let young = with_interest(of, "1980-01-01", cents);
            assert_eq!(at(&young, "30000"), basic * 100, "{what}");
            // The supplements of Nova Scotia are tried elsewhere.
            if (of.code, of.year) != ("NS", 2024) {
                assert_eq!(at(&young, "58040"), of.basic * 100, "{what}");
            }
            assert_eq!(at(&young, "58840"), part(at(&young, "58800"), of.credit), "{what}");
            let aged = with_interest(of, "1955-01-01", cents);
            assert_eq!(at(&aged, "30100"), shrunk(age, from, cents), "{what}");
            if (of.code, of.year) != ("NS", 2024) {
                assert_eq!(at(&aged, "58080"), shrunk(of.age[0], of.age[1], cents), "{what}");
            }
        }
    }
}

#[test]
fn pension_partner_and_employment_amounts() {
    for of in &PROVINCES {
        let (_, _, [basic, _, _, employed]) = *federal(of.year);
        let what = format!("{} {}", of.code, of.year);
        for pension in [500, of.pension, of.pension + 1, 9_000] {
            let family = Family::single(of.code, "1980-01-01").pension("ada", &pension.to_string());
            let outcome = family.interest("ada", "50000").in_year(of.year).outcome();
            assert_eq!(at(&outcome, "31400"), pension.min(2_000) * 100, "{what}");
            assert_eq!(at(&outcome, "58360"), pension.min(of.pension) * 100, "{what}");
        }
        for net in [0, 1_000, of.partner[1] - of.partner[0] + 1, of.partner[1] - 1, of.partner[1], 30_000] {
            let family = Family::couple(of.code, ["1980-01-01", "1980-01-01"]).interest("ada", "99000");
            let outcome = family.interest("bo", &net.to_string()).in_year(of.year).outcome();
            assert_eq!(at(&outcome, "30300"), (basic - net).max(0) * 100, "{what} {net}");
            if (of.code, of.year) != ("NS", 2024) {
                let expected = (of.partner[1] - net).max(0).min(of.partner[0]) * 100;
                assert_eq!(at(&outcome, "58120"), expected, "{what} {net}");
            }
        }
        for pay in [employed - 1, employed, employed + 1] {
            let family =
                Family::single(of.code, "1980-01-01").paper("T4", "ada", json!({ "14": pay.to_string() }));
            assert_eq!(at(&family.in_year(of.year).outcome(), "31260"), pay.min(employed) * 100, "{what}");
        }
    }
}

#[test]
fn dividends_of_both_kinds() {
    for of in &PROVINCES {
        let what = format!("{} {}", of.code, of.year);
        let family = Family::single(of.code, "1980-01-01").interest("ada", "90000");
        let family = family.paper("T5", "ada", json!({ "24": "10000", "10": "2000" }));
        let outcome = family.in_year(of.year).outcome();
        // 13,800 and 2,300 are taxable: 15.0198 % and 9.0301 % federal.
        assert_eq!(at(&outcome, "12000"), 1_610_000, "{what}");
        assert_eq!(at(&outcome, "40425"), 207_273 + 20_769, "{what}");
        let credit = |taxable: i64, millionths: i64| (taxable * millionths + 500_000) / 1_000_000;
        let expected = credit(1_380_000, of.dividends[0]) + credit(230_000, of.dividends[1]);
        assert_eq!(at(&outcome, "61520"), expected, "{what}");
    }
}

/// Gifts of 100, 200, 201 and 5,000 at the two rates of each province (in hundredths of a per cent).
#[test]
fn gifts_at_two_rates() {
    #[rustfmt::skip]
    let rates = [
        ("ON", 505, 1116, 505, 1116), ("BC", 506, 1680, 506, 1680), ("AB", 6000, 2100, 6000, 2100), ("SK", 1050, 1450, 1050, 1450),
        ("MB", 1080, 1740, 1080, 1740), ("NB", 940, 1795, 940, 1795), ("NS", 879, 2100, 879, 2100), ("NL", 870, 2180, 870, 2180),
        ("PE", 965, 1875, 950, 1900), ("YT", 640, 1280, 640, 1280), ("NT", 590, 1405, 590, 1405), ("NU", 400, 1150, 400, 1150),
    ];
    for (code, first_2024, rest_2024, first_2025, rest_2025) in rates {
        for (year, lowest, first, rest) in
            [(2024, 1500, first_2024, rest_2024), (2025, 1450, first_2025, rest_2025)]
        {
            for gift in [100, 200, 201, 5_000] {
                let row =
                    json!([{ "date": format!("{year}-06-01"), "number": "1", "amount": gift.to_string() }]);
                let family = Family::single(code, "1980-01-01").interest("ada", "90000");
                let family = family.shared("Gifts", &[("ada", "100")], json!({}), row).in_year(year);
                let outcome = family.pin("ca.gifts.ada", &gift.to_string()).outcome();
                let (to, above) = (gift.min(200) * 100, (gift - 200).max(0) * 100);
                let what = format!("{code} {year} {gift}");
                assert_eq!(at(&outcome, "34900"), part_of_two(to, lowest, above, 2900), "{what}");
                assert_eq!(at(&outcome, "58969"), part_of_two(to, first, above, rest), "{what}");
            }
        }
    }
}

/// Two amounts at two rates, rounded once.
fn part_of_two(one: i64, rate: i64, other: i64, at: i64) -> i64 {
    (one * rate + other * at + 5_000) / 10_000
}
