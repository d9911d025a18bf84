use serde::{Deserialize, Deserializer, Serialize, Serializer, de::Error};
use std::{
    fmt,
    ops::{Mul, Sub},
    str::FromStr,
};

/// An exact decimal with up to nine places: a tax rate, a share, a ratio, cents a mile.
///
/// As text it is a plain decimal: `"0.075"`, `"1"`.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Rate(i64);

/// Why a text is not a rate: digits with an optional point and at most nine places, below 1,000,000,000.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct ParseRateError;

impl fmt::Display for ParseRateError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("a rate is written as digits with at most nine decimals, such as 0.075")
    }
}

impl std::error::Error for ParseRateError {}

impl Rate {
    /// Nothing.
    pub const ZERO: Rate = Rate(0);
    /// The whole.
    pub const ONE: Rate = Rate(1_000_000_000);

    /// So many billionths.
    pub const fn from_billionths(billionths: i64) -> Rate {
        Rate(billionths)
    }

    /// The rate in billionths.
    pub const fn billionths(self) -> i64 {
        self.0
    }

    /// So many hundredths: `Rate::percent(6)` is 0.06.
    pub const fn percent(percent: i64) -> Rate {
        Rate(percent * 10_000_000)
    }
}

impl Mul<i64> for Rate {
    type Output = Rate;
    fn mul(self, times: i64) -> Rate {
        Rate(self.0 * times)
    }
}

impl Sub for Rate {
    type Output = Rate;
    fn sub(self, other: Rate) -> Rate {
        Rate(self.0 - other.0)
    }
}

impl fmt::Display for Rate {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let sign = if self.0 < 0 { "-" } else { "" };
        let (whole, rest) = (self.0.unsigned_abs() / 1_000_000_000, self.0.unsigned_abs() % 1_000_000_000);
        if rest == 0 {
            return write!(f, "{sign}{whole}");
        }
        write!(f, "{sign}{whole}.{}", format!("{rest:09}").trim_end_matches('0'))
    }
}

impl FromStr for Rate {
    type Err = ParseRateError;

    fn from_str(text: &str) -> Result<Rate, ParseRateError> {
        let (whole, places) = text.split_once('.').unwrap_or((text, "0"));
        let plain = |s: &str| !s.is_empty() && s.bytes().all(|b| b.is_ascii_digit());
        if !plain(whole) || !plain(places) || whole.len() > 9 || places.len() > 9 {
            return Err(ParseRateError);
        }
        format!("{whole}{places:0<9}").parse().map(Rate).map_err(|_| ParseRateError)
    }
}

impl Serialize for Rate {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

impl<'de> Deserialize<'de> for Rate {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Rate, D::Error> {
        String::deserialize(deserializer)?.parse().map_err(D::Error::custom)
    }
}

impl utoipa::PartialSchema for Rate {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        utoipa::openapi::ObjectBuilder::new()
            .schema_type(utoipa::openapi::schema::Type::String)
            .description(Some("An exact decimal with up to nine places."))
            .examples(["0.075"])
            .into()
    }
}

impl utoipa::ToSchema for Rate {}
