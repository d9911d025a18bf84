//! How a country writes numbers: with a decimal point and commas between thousands, or the other way round.

use hembo_money::Money;
use serde::Serialize;
use utoipa::ToSchema;

/// Which sign stands before the decimals.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Numbers {
    /// 1,234.56
    Point,
    /// 1.234,56
    Comma,
}

impl Numbers {
    /// Words with numbers as the program writes them, in this writing.
    pub fn write(self, text: &str) -> String {
        if self == Numbers::Point {
            return text.to_owned();
        }
        let bytes = text.as_bytes();
        let digit = |at: Option<usize>| at.and_then(|at| bytes.get(at)).is_some_and(u8::is_ascii_digit);
        let turned = |(at, sign): (usize, char)| {
            if !digit(at.checked_sub(1)) || !digit(Some(at + 1)) {
                return sign;
            }
            let thousands = (1..=3).all(|apart| digit(Some(at + apart))) && !digit(Some(at + 4));
            match sign {
                '.' => ',',
                ',' if thousands => '.',
                other => other,
            }
        };
        text.char_indices().map(turned).collect()
    }

    /// An amount with groups of three, its cents where it has any.
    pub fn amount(self, amount: Money) -> String {
        self.write(&format!("{amount:#}"))
    }

    /// An amount as people type it, with its decimals after a point; groups of three go.
    pub fn read(self, text: &str) -> String {
        if self == Numbers::Point {
            return text.to_owned();
        }
        let grouped = |part: &str| {
            let mut groups = part.split(['.', ' ', '\u{a0}']);
            let first = groups.next().unwrap_or_default().trim_start_matches('-');
            let rest: Vec<&str> = groups.collect();
            let whole = |group: &&str| group.len() == 3 && group.bytes().all(|b| b.is_ascii_digit());
            !rest.is_empty() && (1..=3).contains(&first.len()) && rest.iter().all(whole)
        };
        let (units, decimals) =
            text.split_once(',').map_or((text, None), |(units, rest)| (units, Some(rest)));
        let units = if grouped(units) { units.replace(['.', ' ', '\u{a0}'], "") } else { units.to_owned() };
        match decimals {
            Some(decimals) => format!("{units}.{decimals}"),
            None => units,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_in_words_change_their_signs_and_nothing_else_does() {
        for (point, comma) in [
            ("1,234.56", "1.234,56"),
            ("the smaller of 12,096 and 1,234,567", "the smaller of 12.096 and 1.234.567"),
            ("5.5 % of 19,950, cut to cents.", "5,5 % of 19.950, cut to cents."),
            ("§9(1) S.3 Nr.4, (2); in 2024,2025 and 3, 4", "§9(1) S.3 Nr.4, (2); in 2024,2025 and 3, 4"),
        ] {
            assert_eq!(
                (Numbers::Comma.write(point).as_str(), Numbers::Point.write(point).as_str()),
                (comma, point)
            );
        }
    }

    #[test]
    fn amounts_are_read_as_they_are_typed() {
        for (typed, plain) in [
            ("1.234,56", "1234.56"),
            ("1.234", "1234"),
            ("1234,5", "1234.5"),
            ("-1.234.567,00", "-1234567.00"),
            ("12.5", "12.5"),
            ("1 234,5", "1234.5"),
            ("1,234,5", "1.234,5"),
            ("", ""),
        ] {
            assert_eq!(Numbers::Comma.read(typed), plain, "{typed}");
        }
        assert_eq!(Numbers::Point.read("1,234.56"), "1,234.56");
    }
}
