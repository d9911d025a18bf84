//! The tariff at every end of its zones, with the progression clause and the rule of fifths, and wage tax by class: the vectors of the law book.

use hembo_de::{
    figures::{COMMITTED, Figures},
    tariff::{Table, Taxed, tax},
    tax_classes::{Employee, of_month, of_year},
};
use hembo_money::{Money, Rate};
use proptest::prelude::*;
use std::sync::Arc;

fn figures(year: i32) -> &'static Arc<Figures> {
    COMMITTED.of(year).unwrap()
}

fn of(year: i32, table: Table, income: i64, progression: i64, extraordinary: i64) -> i64 {
    let whole = Money::whole;
    let taxed =
        Taxed { income: whole(income), progression: whole(progression), extraordinary: whole(extraordinary) };
    tax(&figures(year).tariff, table, taxed).cents() / 100
}

#[test]
fn both_tables_at_the_ends_of_the_zones_and_between() {
    // Taxable income, the basic and the splitting table of 2024, and of 2025.
    let vectors = [
        (11_784, [0, 0, 0, 0]),
        (11_785, [0, 0, 0, 0]),
        (12_096, [44, 0, 0, 0]),
        (12_200, [59, 0, 14, 0]),
        (15_000, [548, 0, 485, 0]),
        (17_005, [991, 0, 911, 0]),
        (17_006, [991, 0, 912, 0]),
        (17_443, [1_096, 0, 1_015, 0]),
        (17_444, [1_096, 0, 1_015, 0]),
        (25_000, [3_023, 210, 2_927, 116]),
        (36_000, [6_198, 2_462, 6_071, 2_298]),
        (50_000, [10_872, 6_046, 10_691, 5_854]),
        (66_760, [17_402, 10_804, 17_132, 10_566]),
        (66_761, [17_403, 10_804, 17_133, 10_566]),
        (68_480, [18_125, 11_320, 17_849, 11_078]),
        (68_481, [18_125, 11_320, 17_850, 11_078]),
        (90_000, [27_163, 18_242, 26_888, 17_922]),
        (120_000, [39_763, 29_292, 39_488, 28_830]),
        (277_825, [106_050, 95_412, 105_774, 94_862]),
        (277_826, [106_050, 95_414, 105_775, 94_862]),
        (300_000, [116_028, 104_726, 115_753, 104_176]),
        (600_000, [251_028, 232_056, 250_753, 231_506]),
    ];
    for (income, expected) in vectors {
        let there = [2024, 2025]
            .map(|year| [Table::Basic, Table::Splitting].map(|table| of(year, table, income, 0, 0)));
        assert_eq!(there.concat(), expected, "{income}");
    }
    for (year, first) in [(2024, 11_792), (2025, 12_104)] {
        assert_eq!([of(year, Table::Basic, first - 1, 0, 0), of(year, Table::Basic, first, 0, 0)], [0, 1]);
    }
    for (year, ends) in [
        (
            2024,
            [
                (17_004, 990),
                (17_005, 991),
                (17_006, 991),
                (66_759, 17_402),
                (66_761, 17_403),
                (277_824, 106_049),
            ],
        ),
        (
            2025,
            [
                (17_442, 1_014),
                (17_443, 1_015),
                (17_444, 1_015),
                (68_479, 17_849),
                (68_481, 17_850),
                (277_824, 105_774),
            ],
        ),
    ] {
        for (income, expected) in ends {
            assert_eq!(of(year, Table::Basic, income, 0, 0), expected, "{year} {income}");
        }
    }
}

#[test]
fn the_progression_clause() {
    let vectors = [
        (20_000, 8_000, [2_746, 510, 2_672, 428]),
        (35_000, 15_000, [7_610, 4_232, 7_483, 4_097]),
        (60_000, 12_000, [16_335, 10_329, 16_106, 10_118]),
        (9_000, 20_000, [1_280, 279, 1_247, 242]),
    ];
    for (income, progression, expected) in vectors {
        let there = [2024, 2025].map(|year| {
            [Table::Basic, Table::Splitting].map(|table| of(year, table, income, progression, 0))
        });
        assert_eq!(there.concat(), expected, "{income} with {progression}");
    }
    assert_eq!(
        [of(2024, Table::Basic, 18_000, 20_000, 0), of(2025, Table::Basic, 18_000, 20_000, 0)],
        [3_231, 3_168]
    );
    // Repayments may take away all of it: then nothing is due.
    assert_eq!(of(2025, Table::Basic, 20_000, -20_000, 0), 0);
    assert!(of(2025, Table::Basic, 30_000, -5_000, 0) < of(2025, Table::Basic, 30_000, 0, 0));
}

#[test]
fn the_rule_of_fifths() {
    for (year, rest, extraordinary, expected) in [
        (2024, 10_000, 50_000, 8_625),
        (2024, 30_000, 40_000, 16_462),
        (2024, 60_000, 30_000, 26_836),
        (2025, 10_000, 50_000, 8_195),
        (2025, 30_000, 40_000, 16_233),
        (2025, 60_000, 30_000, 26_435),
    ] {
        assert_eq!(of(year, Table::Basic, rest + extraordinary, 0, extraordinary), expected, "{year} {rest}");
    }
    // Nothing but extraordinary income: five times the tax on a fifth of all.
    assert_eq!(of(2025, Table::Basic, 40_000, 0, 50_000), 5 * of(2025, Table::Basic, 8_000, 0, 0));
}

#[test]
fn wage_tax_by_class() {
    // Year, class, a year's wage, the employee's rate of care in tenths of a per mille: the year's tax and a month's in cents.
    for (year, class, wage, care, expected, month) in [
        (2024, 1, 30_000, 230, 2_466, 20_550),
        (2024, 1, 60_000, 230, 9_833, 81_941),
        (2024, 2, 36_000, 170, 2_674, 22_283),
        (2024, 3, 60_000, 170, 5_360, 44_666),
        (2024, 4, 45_000, 170, 5_967, 49_725),
        (2024, 5, 24_000, 170, 3_886, 32_383),
        (2024, 5, 45_000, 170, 10_767, 89_725),
        (2024, 5, 80_000, 170, 23_414, 195_116),
        (2024, 6, 12_000, 170, 1_322, 11_016),
        (2024, 6, 36_000, 170, 8_296, 69_133),
        (2025, 1, 30_000, 240, 2_336, 19_466),
        (2025, 1, 60_000, 240, 9_561, 79_675),
        (2025, 2, 36_000, 180, 2_533, 21_108),
        (2025, 3, 60_000, 180, 5_094, 42_450),
        (2025, 4, 45_000, 180, 5_775, 48_125),
        (2025, 5, 24_000, 180, 3_737, 31_141),
        (2025, 5, 45_000, 180, 10_568, 88_066),
        (2025, 5, 80_000, 180, 23_008, 191_733),
        (2025, 6, 12_000, 180, 1_322, 11_016),
        (2025, 6, 36_000, 180, 8_148, 67_900),
        (2025, 3, 120_000, 180, 22_490, 187_416),
    ] {
        let employee = Employee { wage: Money::whole(wage), care: Rate::from_billionths(care * 100_000) };
        let tax = of_year(figures(year), employee, class);
        assert_eq!(
            (tax, of_month(tax)),
            (Money::whole(expected), Money::from_cents(month)),
            "{year} {class} {wage}"
        );
    }
}

proptest! {
    /// A euro more never lowers the tax, and never takes more than itself.
    #[test]
    fn tax_rises_with_income(year in 2024_i32..2026, income in 0_i64..400_000, splitting: bool) {
        let table = if splitting { Table::Splitting } else { Table::Basic };
        let more = of(year, table, income + 1, 0, 0) - of(year, table, income, 0, 0);
        prop_assert!((0..=2).contains(&more), "{more}");
    }

    /// Together is never dearer than each alone, but for what cutting to euros takes.
    #[test]
    fn splitting_is_never_dearer(year in 2024_i32..2026, one in 0_i64..300_000, other in 0_i64..300_000) {
        let apart = of(year, Table::Basic, one, 0, 0) + of(year, Table::Basic, other, 0, 0);
        prop_assert!(of(year, Table::Splitting, one + other, 0, 0) <= apart + 2);
    }

    /// Fifths never take more than the plain tariff.
    #[test]
    fn fifths_never_cost(year in 2024_i32..2026, income in 0_i64..300_000, part in 0_i64..100, progression in 0_i64..30_000) {
        let extraordinary = income * part / 100;
        let plain = of(year, Table::Basic, income, progression, 0);
        prop_assert!(of(year, Table::Basic, income, progression, extraordinary) <= plain);
    }
}
