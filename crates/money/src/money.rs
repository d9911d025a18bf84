use crate::{Rate, Rounding};
use serde::{Deserialize, Deserializer, Serialize, Serializer, de::Error};
use std::{
    fmt,
    iter::Sum,
    ops::{Add, AddAssign, Mul, Neg, Sub, SubAssign},
    str::FromStr,
};

/// An amount of money in whole cents. The currency is that of the household's country.
///
/// As text (files, API) it is a decimal with a point and at most two places: `"71240"`, `"-0.05"`. For people,
/// `{:#}` groups the thousands and leaves out cents that are zero: `71,240`.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Money(i64);

/// Why a text is not an amount.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum ParseMoneyError {
    /// Not digits with an optional sign and at most two decimal places.
    Form,
    /// Beyond 999,999,999,999.99 either way.
    TooLarge,
}

impl fmt::Display for ParseMoneyError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Self::Form => "an amount is written as digits with at most two decimals, such as 1234.56",
            Self::TooLarge => "an amount may not exceed 999,999,999,999.99",
        })
    }
}

impl std::error::Error for ParseMoneyError {}

impl Money {
    /// Nothing.
    pub const ZERO: Money = Money(0);
    /// One cent, a unit to round to.
    pub const CENT: Money = Money(1);
    /// One whole unit of currency, a unit to round to.
    pub const WHOLE: Money = Money(100);
    /// The largest amount that a text may state.
    pub const LARGEST: Money = Money(99_999_999_999_999);

    /// An amount of so many cents.
    pub const fn from_cents(cents: i64) -> Money {
        Money(cents)
    }

    /// An amount of so many whole units of currency.
    pub const fn whole(units: i64) -> Money {
        Money(units * 100)
    }

    /// The amount in cents.
    pub const fn cents(self) -> i64 {
        self.0
    }

    /// Whether the amount is below zero.
    pub const fn is_negative(self) -> bool {
        self.0 < 0
    }

    /// Whether the amount is zero.
    pub const fn is_zero(self) -> bool {
        self.0 == 0
    }

    /// The amount, or zero where it is negative: "if zero or less, enter 0".
    pub fn or_zero(self) -> Money {
        self.max(Money::ZERO)
    }

    /// The nearest multiple of `unit` under `rule`.
    ///
    /// ```
    /// use hembo_money::{Money, Rounding};
    /// assert_eq!(Money::from_cents(1_050).rounded(Money::WHOLE, Rounding::HalfUp), Money::whole(11));
    /// ```
    pub fn rounded(self, unit: Money, rule: Rounding) -> Money {
        Money((rule.divide(self.0.into(), unit.0.into()) * i128::from(unit.0)) as i64)
    }

    /// The whole-dollar rule of most returns: under fifty cents dropped, fifty and more raised.
    pub fn to_whole(self) -> Money {
        self.rounded(Money::WHOLE, Rounding::HalfUp)
    }

    /// `self × rate`, rounded once to a multiple of `unit`.
    pub fn times(self, rate: Rate, unit: Money, rule: Rounding) -> Money {
        let exact = i128::from(self.0) * i128::from(rate.billionths());
        let units = rule.divide(exact, i128::from(unit.0) * i128::from(Rate::ONE.billionths()));
        Money((units * i128::from(unit.0)) as i64)
    }

    /// The sum of each amount × its rate, exact until it is rounded once to a multiple of `unit`: a tax by brackets.
    pub fn sum_of_products(
        parts: impl IntoIterator<Item = (Money, Rate)>,
        unit: Money,
        rule: Rounding,
    ) -> Money {
        Money::sum_of_products_over(parts, Rate::ONE, unit, rule)
    }

    /// The same divided by a rate, which is above zero; rounded once.
    pub fn sum_of_products_over(
        parts: impl IntoIterator<Item = (Money, Rate)>,
        rate: Rate,
        unit: Money,
        rule: Rounding,
    ) -> Money {
        let exact: i128 = parts.into_iter().map(|(m, r)| i128::from(m.0) * i128::from(r.billionths())).sum();
        let units = rule.divide(exact, i128::from(unit.0) * i128::from(rate.billionths()));
        Money((units * i128::from(unit.0)) as i64)
    }

    /// `self × part ÷ whole`, exact until it is rounded once to a multiple of `unit`. Zero where `whole` is zero.
    pub fn in_proportion(self, part: Money, whole: Money, unit: Money, rule: Rounding) -> Money {
        if whole.is_zero() {
            return Money::ZERO;
        }
        let sign = i128::from(whole.0.signum());
        let exact = i128::from(self.0) * i128::from(part.0) * sign;
        let units = rule.divide(exact, i128::from(unit.0) * i128::from(whole.0.abs()));
        Money((units * i128::from(unit.0)) as i64)
    }

    /// `self ÷ rate`, rounded once to a multiple of `unit`. The rate is above zero.
    pub fn divided_by(self, rate: Rate, unit: Money, rule: Rounding) -> Money {
        let exact = i128::from(self.0) * i128::from(Rate::ONE.billionths());
        let units = rule.divide(exact, i128::from(unit.0) * i128::from(rate.billionths()));
        Money((units * i128::from(unit.0)) as i64)
    }

    /// How many times `unit` fits, under `rule`: the steps of a phase-out.
    pub fn steps_of(self, unit: Money, rule: Rounding) -> i64 {
        rule.divide(self.0.into(), unit.0.into()) as i64
    }

    /// `self ÷ whole` to so many decimal places (at most nine). Zero where `whole` is zero.
    pub fn ratio_to(self, whole: Money, places: u32, rule: Rounding) -> Rate {
        if whole.is_zero() {
            return Rate::ZERO;
        }
        let scale = 10_i128.pow(places);
        let sign = i128::from(whole.0.signum());
        let quotient = rule.divide(i128::from(self.0) * scale * sign, i128::from(whole.0.abs()));
        Rate::from_billionths((quotient * (i128::from(Rate::ONE.billionths()) / scale)) as i64)
    }

    /// Divides an amount in proportion to `weights` so that the parts add up to it to the cent: each part is
    /// rounded down, and the cents left over go to the first parts. Nothing where the weights are all zero.
    pub fn split(self, weights: &[i64]) -> Vec<Money> {
        let total: i128 = weights.iter().map(|&w| i128::from(w)).sum();
        if total == 0 {
            return vec![Money::ZERO; weights.len()];
        }
        let part = |w: i64| Rounding::Down.divide(i128::from(self.0) * i128::from(w), total) as i64;
        let mut parts: Vec<i64> = weights.iter().map(|&w| part(w)).collect();
        let mut left = self.0 - parts.iter().sum::<i64>();
        for (part, _) in parts.iter_mut().zip(weights).filter(|(_, w)| **w > 0) {
            *part += left.signum();
            left -= left.signum();
        }
        parts.into_iter().map(Money).collect()
    }
}

impl fmt::Display for Money {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let sign = if self.0 < 0 { "-" } else { "" };
        let (units, cents) = (self.0.unsigned_abs() / 100, self.0.unsigned_abs() % 100);
        if !f.alternate() {
            return write!(f, "{sign}{units}.{cents:02}");
        }
        let digits = units.to_string();
        let groups: Vec<_> = digits.as_bytes().rchunks(3).rev().map(String::from_utf8_lossy).collect();
        write!(f, "{sign}{}", groups.join(","))?;
        if cents > 0 { write!(f, ".{cents:02}") } else { Ok(()) }
    }
}

impl FromStr for Money {
    type Err = ParseMoneyError;

    fn from_str(text: &str) -> Result<Money, ParseMoneyError> {
        let (negative, digits) = match text.strip_prefix('-') {
            Some(rest) => (true, rest),
            None => (false, text),
        };
        let (units, places) = digits.split_once('.').unwrap_or((digits, "0"));
        let plain = |s: &str| !s.is_empty() && s.bytes().all(|b| b.is_ascii_digit());
        if !plain(units) || !plain(places) || places.len() > 2 {
            return Err(ParseMoneyError::Form);
        }
        if units.trim_start_matches('0').len() > 12 {
            return Err(ParseMoneyError::TooLarge);
        }
        let number = |s: &str| s.parse::<i64>().map_err(|_| ParseMoneyError::TooLarge);
        let cents = number(units)? * 100 + number(places)? * if places.len() == 1 { 10 } else { 1 };
        Ok(Money(if negative { -cents } else { cents }))
    }
}

impl Serialize for Money {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

impl<'de> Deserialize<'de> for Money {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Money, D::Error> {
        String::deserialize(deserializer)?.parse().map_err(D::Error::custom)
    }
}

impl Add for Money {
    type Output = Money;
    fn add(self, other: Money) -> Money {
        Money(self.0 + other.0)
    }
}

impl Sub for Money {
    type Output = Money;
    fn sub(self, other: Money) -> Money {
        Money(self.0 - other.0)
    }
}

impl Neg for Money {
    type Output = Money;
    fn neg(self) -> Money {
        Money(-self.0)
    }
}

impl Mul<i64> for Money {
    type Output = Money;
    fn mul(self, times: i64) -> Money {
        Money(self.0 * times)
    }
}

impl AddAssign for Money {
    fn add_assign(&mut self, other: Money) {
        self.0 += other.0;
    }
}

impl SubAssign for Money {
    fn sub_assign(&mut self, other: Money) {
        self.0 -= other.0;
    }
}

impl Sum for Money {
    fn sum<I: Iterator<Item = Money>>(amounts: I) -> Money {
        amounts.fold(Money::ZERO, Add::add)
    }
}

impl utoipa::PartialSchema for Money {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        utoipa::openapi::ObjectBuilder::new()
            .schema_type(utoipa::openapi::schema::Type::String)
            .description(Some("An amount in the currency of the country: a decimal string with two places."))
            .examples(["71240.00"])
            .into()
    }
}

impl utoipa::ToSchema for Money {}
