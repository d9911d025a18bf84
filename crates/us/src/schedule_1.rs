//! Schedule 1: additional income, line 10, and adjustments, line 26 (§62(a)).

use crate::{
    business, business_property, educators, government_payments, health_savings, long_term_care, moving,
    operating_loss, other_adjustments, other_income,
    papers::interest,
    pass_through::{self, Through},
    rentals, self_employment, union_plan,
    unit::{Filed, On},
    untaxed_pay,
};
use hembo_core::{
    forms::Required,
    line::LineId,
    lines,
    provision::Provision,
    trail::{Silent, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub L8 = "us.8", "Additional income", "Schedule 1, line 10",
        "Refunds, alimony, unemployment and other income.";
    pub L5 = "us.sched_1.5", "Rents, royalties, partnerships, S corporations, trusts", "IRC §61(a)(5), (6), (12), (14)",
        "Schedule E, line 41: lines 26, 32 and 37.";
    pub PENALTY = "us.penalty", "Early withdrawal penalty", "IRC §62(a)(9)",
        "Box 2 of every Form 1099-INT and box 3 of every Form 1099-OID, in full.";
    pub ADJUSTMENTS = "us.10", "Adjustments", "IRC §62",
        "Schedule 1, Part II.";
}

/// Additional income but rents, whose losses depend on the rest of the income.
#[derive(Debug, Clone)]
pub struct Additional {
    parts: Vec<(LineId, Money)>,
    /// Line 1.
    pub refund: Money,
}

impl Additional {
    /// Together.
    pub fn sum(&self) -> Money {
        self.parts.iter().map(|(_, amount)| *amount).sum()
    }
}

/// Lines 1 to 9 but line 5, with what Form 4797 brings.
pub fn income(
    on: On<'_>,
    trail: &mut impl Trail,
    of_children: (LineId, Money),
    property: Money,
) -> Additional {
    let (refund, unemployment) = government_payments::reckon(on, trail);
    let accounts = health_savings::income(on, trail);
    let other = other_income::reckon(on, trail, of_children);
    let left_out = untaxed_pay::left_out(on, trail, untaxed_pay::on_wages(on, &mut Silent));
    let businesses = business::reckon(on, trail);
    let parts = vec![
        (operating_loss::L8A, operating_loss::reckon(on, trail)),
        (government_payments::REFUND, refund),
        (business::L3, businesses),
        (business_property::ORDINARY, property),
        (government_payments::UNEMPLOYMENT, unemployment),
        (long_term_care::INCOME, long_term_care::reckon(on, trail)),
        (health_savings::INCOME, accounts),
        (other_income::ALL, other),
        (untaxed_pay::L8S, left_out),
    ];
    Additional { parts, refund }
}

/// Line 10, with line 5: what all parts of Schedule E come to.
pub fn with_schedule_e(
    on: On<'_>,
    trail: &mut impl Trail,
    additional: Additional,
    rents: Money,
    through: Through,
) -> Money {
    let parts =
        [(rentals::L26, rents), (pass_through::L32, through.firms), (pass_through::L37, through.trusts)];
    let of_schedule = sum(on, trail, L5, &parts);
    let parts: Vec<_> = additional.parts.into_iter().chain([(L5, of_schedule)]).collect();
    sum(on, trail, L8, &parts)
}

/// The adjustments but those that depend on income: lines 11 to 19a and 24a.
#[derive(Debug, Clone)]
pub struct Adjustments {
    parts: Vec<(LineId, Money)>,
    /// Line 15.
    pub half: Money,
    /// Line 18.
    pub penalty: Money,
}

impl Adjustments {
    /// Together.
    pub fn sum(&self) -> Money {
        self.parts.iter().map(|(_, amount)| *amount).sum()
    }
}

/// The adjustments but the last ones, for the IRA and for student-loan interest.
pub fn adjustments(on: On<'_>, trail: &mut impl Trail) -> Adjustments {
    let educators = educators::reckon(on, trail);
    let accounts = health_savings::reckon(on, trail);
    let penalty = on.gather(trail, PENALTY, &interest::brings::PENALTY);
    let alimony = on.gather(trail, other_income::ALIMONY_PAID, &other_income::brings::ALIMONY_PAID);
    let jury = on.gather(trail, other_income::JURY_GIVEN, &other_income::brings::JURY_GIVEN);
    let own = self_employment::adjustments(on, trail);
    let mut parts = vec![
        (educators::L11, educators),
        (health_savings::DEDUCTION, accounts),
        (PENALTY, penalty),
        (other_income::ALIMONY_PAID, alimony),
        (other_income::JURY_GIVEN, jury),
        (moving::L14, moving::reckon(on, trail)),
        (union_plan::L24F, union_plan::reckon(on, trail)),
        other_adjustments::reckon(on, trail),
    ];
    let half = own[0].1;
    parts.extend(own);
    Adjustments { parts, half, penalty }
}

/// Line 26: all adjustments, with the last ones.
pub fn together(on: On<'_>, trail: &mut impl Trail, first: Adjustments, last: [(LineId, Money); 2]) -> Money {
    let parts: Vec<_> = first.parts.into_iter().chain(last).collect();
    sum(on, trail, ADJUSTMENTS, &parts)
}

fn sum(on: On<'_>, trail: &mut impl Trail, id: LineId, parts: &[(LineId, Money)]) -> Money {
    trail.line(id, on.scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for &(line, amount) in parts.iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    })
}

/// Schedule 1: where there is additional income or an adjustment.
pub fn required(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(ADJUSTMENTS) || filed.has(L8), "no additional income, no adjustments")
}
