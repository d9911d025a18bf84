//! What is told of a partner whose return is not prepared here: a few facts stand for it.

use hembo_core::{Person, household::Entry};
use hembo_money::Money;

/// The ids of the questions.
#[allow(missing_docs)]
pub mod ask {
    pub const WORKING: &str = "working_income";
    pub const HANDED_FEDERAL: &str = "handed_federal";
    pub const HANDED_PROVINCIAL: &str = "handed_provincial";
    pub const CARE: &str = "care_elsewhere";
    pub const BENEFIT: &str = "benefit_elsewhere";
    pub const SPLIT: &str = "split_elsewhere";
    pub const SPLIT_GIVEN: &str = "split_given";
    pub const SPLIT_RECEIVED: &str = "split_received";
    pub const SPLIT_ANNUITY: &str = "split_annuity";
    pub const SPLIT_WITHHELD: &str = "split_withheld";
    pub const OF_SPLIT: [&str; 4] = [SPLIT_GIVEN, SPLIT_RECEIVED, SPLIT_ANNUITY, SPLIT_WITHHELD];
    pub const ALL: [&str; 6] = [WORKING, HANDED_FEDERAL, HANDED_PROVINCIAL, CARE, BENEFIT, SPLIT];
}

/// What is told of such a partner.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Told {
    /// Pay and own business.
    pub working: Money,
    /// Line 32600 of this return, from the partner.
    pub handed_federal: Money,
    /// Line 58640.
    pub handed_provincial: Money,
    /// Line 21400 of the partner.
    pub care: Money,
    /// The partner claims the workers benefit.
    pub benefit: bool,
    /// The split of pension income that both elected.
    pub split: Agreed,
}

/// A split of pension income with such a partner, as form T1032 has it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Agreed {
    /// Line 21000 of the filer, line 11600 of the partner.
    pub given: Money,
    /// Line 11600 of the filer, line 21000 of the partner.
    pub received: Money,
    /// Of what is received that which comes from a life annuity.
    pub from_annuity: Money,
    /// Tax withheld that comes with what is received.
    pub withheld: Money,
}

/// What is told of a person.
pub fn read(person: &Person) -> Told {
    let flag = |id: &str| person.answers.get(id).and_then(Entry::flag).unwrap_or(false);
    let money = |id: &str| person.answers.get(id).and_then(Entry::money).unwrap_or_default();
    let split = || Agreed {
        given: money(ask::SPLIT_GIVEN),
        received: money(ask::SPLIT_RECEIVED),
        from_annuity: money(ask::SPLIT_ANNUITY),
        withheld: money(ask::SPLIT_WITHHELD),
    };
    Told {
        working: money(ask::WORKING),
        handed_federal: money(ask::HANDED_FEDERAL),
        handed_provincial: money(ask::HANDED_PROVINCIAL),
        care: money(ask::CARE),
        benefit: flag(ask::BENEFIT),
        split: if flag(ask::SPLIT) { split() } else { Agreed::default() },
    }
}
