//! What is due when: returns, balances, and the instalments of the year after.

use hembo_money::Money;
use serde::Serialize;
use time::Date;
use utoipa::ToSchema;

/// Something that is due on a day.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct DueDate {
    /// The day, ISO 8601.
    #[serde(serialize_with = "iso")]
    #[schema(value_type = String, format = Date)]
    pub day: Date,
    /// What.
    pub what: String,
    /// Whose.
    pub whose: String,
    /// How much is to be paid, where something is.
    pub amount: Option<Money>,
    /// On what it rests.
    pub words: String,
    /// The rule.
    pub cite: String,
}

fn iso<S: serde::Serializer>(day: &Date, to: S) -> Result<S::Ok, S::Error> {
    to.collect_str(day)
}

/// The same amount on every day, rounded up to a unit; nothing where nothing is to be paid.
pub fn instalments(all: Money, days: &[Date], unit: Money) -> Vec<(Date, Money)> {
    let parts = i64::try_from(days.len()).unwrap_or(1).max(1);
    if all <= Money::ZERO {
        return Vec::new();
    }
    let step = parts * unit.cents();
    let each = (all.cents() + step - 1) / step * unit.cents();
    days.iter().map(|day| (*day, Money::from_cents(each))).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use time::macros::date;

    #[test]
    fn instalments_are_rounded_up_so_that_together_they_are_enough() {
        let days =
            [date!(2026 - 04 - 15), date!(2026 - 06 - 15), date!(2026 - 09 - 15), date!(2027 - 01 - 15)];
        let each = |all: &str, unit| {
            instalments(all.parse().expect("an amount"), &days, unit)
                .first()
                .map(|(_, amount)| amount.to_string())
        };
        assert_eq!(each("1000", Money::WHOLE).as_deref(), Some("250.00"));
        assert_eq!(each("1000.01", Money::WHOLE).as_deref(), Some("251.00"));
        assert_eq!(each("1000.01", Money::CENT).as_deref(), Some("250.01"));
        assert_eq!(each("0", Money::WHOLE), None);
        assert_eq!(each("-5", Money::WHOLE), None);
    }
}
