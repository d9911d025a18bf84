//! What was paid and what is left: lines 43500 to 48500.

use crate::{income::Income, pension_split, plan::On};
use hembo_core::{reading::sum, trail::Trail};
use hembo_money::Money;

/// Total payable less what the law pays out: what the household pays for good.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Payable {
    pub federal: Money,
    pub provincial: Money,
    pub supplement: Money,
    /// The workers benefit.
    pub benefit: Money,
    /// Credits that the province pays out.
    pub care: Money,
}

/// Lines 43500 to 48500; the result is the total payable less refundable credits.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income, payable: Payable) -> Money {
    let Payable { federal, provincial, supplement, benefit, care } = payable;
    let repayment = on.made(trail, "ca.42200", income.recovered, &[("ca.23500", income.recovered)], &[]);
    let total = on.add(
        trail,
        "ca.43500",
        &[("ca.42900", federal), ("ca.42800", provincial), ("ca.42200", repayment)],
    );
    let net = on.made(
        trail,
        "ca.net_tax",
        total - supplement - benefit - care,
        &[("ca.43500", total), ("ca.45200", supplement), ("ca.45300", benefit), ("ca.47900", care)],
        &[],
    );
    let withheld = withheld(on, trail);
    let counted = on.who().contributed;
    trail.line("ca.44800", on.scope, counted.cpp_back, |i| {
        if !counted.cpp_back.is_zero() {
            i.items(&on.own().cpp).items(&on.own().cpp_second);
        }
    });
    trail.line("ca.45000", on.scope, counted.ei_back, |i| {
        if !counted.ei_back.is_zero() {
            i.items(&on.own().ei);
        }
    });
    let instalments = on.gather(trail, "ca.47600", &on.own().instalments);
    let paid = on.add(
        trail,
        "ca.paid",
        &[
            ("ca.43700", withheld),
            ("ca.44800", counted.cpp_back),
            ("ca.45000", counted.ei_back),
            ("ca.47600", instalments),
        ],
    );
    on.made(trail, "ca.balance", net - paid, &[("ca.net_tax", net), ("ca.paid", paid)], &[]);
    net
}

/// Line 43700: tax withheld, with what moved with a split pension.
fn withheld(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = sum(&on.own().withheld);
    match pension_split::withheld_moved(on) {
        Some((split, moved)) if split.from == on.person => {
            trail.line("ca.withheld.moved", on.scope, moved, |i| {
                i.items(&on.own().withheld_pension);
            });
            trail.line("ca.43700", on.scope, own - moved, |i| {
                i.items(&on.own().withheld).line("ca.withheld.moved", on.scope, moved);
            })
        }
        Some((split, moved)) if split.to == on.person => {
            let from = on.of(split.from).scope;
            trail.line("ca.43700", on.scope, own + moved, |i| {
                i.items(&on.own().withheld).flow("ca.withheld.moved", from, moved);
            })
        }
        _ => on.gather(trail, "ca.43700", &on.own().withheld),
    }
}
