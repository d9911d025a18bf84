//! The lesser and the greater where no choice moves the amounts: facts of papers, figures of the law, results that are
//! only shown. What a choice can move goes through [`limit`](crate::limit), which tells its edges; in rules the bare
//! methods are refused by a lint.

use hembo_money::Money;

/// The smaller of two.
pub fn lesser<T: Ord>(one: T, other: T) -> T {
    one.min(other)
}

/// The larger of two.
pub fn greater<T: Ord>(one: T, other: T) -> T {
    one.max(other)
}

/// The amount, or zero where it is negative.
pub fn or_zero(amount: Money) -> Money {
    amount.or_zero()
}
