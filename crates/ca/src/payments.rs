//! What was paid and what is left: lines 43500 to 48500.

use crate::{
    bringing::{self, Bringing},
    cpp_ei, family_benefits, foreign_tax, form_428,
    income::{self, Income},
    medical, minimum_tax,
    papers::{t3, t4a},
    pension_split,
    plan::On,
    small_credits, tuition, workers_benefit,
};
use hembo_core::{
    field::{Field, Years},
    line::LineId,
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { papers: &[PAID_BY_INSTALMENTS], lines: LINES, figures: &["dates"], ..Provision::NONE };

lines! {
    pub REPAYMENT = "ca.42200", "Social benefits repayment", "ITA 180.2",
        "The amount of line 23500 is payable.";
    AFTER_PARTIES = "ca.41700", "Federal tax after gifts to parties and labour funds", "ITA 127(3), 127.4",
        "Line 40600 less lines 41000 and 41400.";
    pub NET_FEDERAL = "ca.42000", "Net federal tax", "ITA 117-127.55",
        "Line 41700 with the minimum tax above it.";
    OF_TRUSTS = "ca.45600", "Part XII.2 credit", "ITA 210.2(3)",
        "Box 38 of every T3; refundable.";
    PAYABLE = "ca.43500", "Total payable", "ITA 2, 180.2",
        "Federal and provincial tax, contributions of a business and the repayment.";
    pub NET_TAX = "ca.net_tax", "Total tax", "ITA 2, 122.51",
        "What the return costs for good.";
    MOVED = "ca.withheld.moved", "Withheld tax that moves with the split", "ITA 60.03",
        "Tax on the pension in the proportion of what was split.";
    pub WITHHELD = "ca.43700", "Tax withheld", "ITA 153",
        "From every slip, with what moved with a split pension.";
    pub INSTALMENTS = "ca.47600", "Instalments", "ITA 156",
        "Paid during the year.";
    pub PAID = "ca.paid", "Paid during the year", "ITA 153, 156",
        "Withheld, overpaid and instalments.";
    CREDITS = "ca.48200", "Total credits", "ITA 122.51-122.7, 153, 156",
        "What was paid, and what is paid out.";
    REFUND = "ca.48400", "Refund", "ITA 164",
        "What the credits are above the total payable.";
    OWING = "ca.48500", "Balance owing", "ITA 156.1",
        "What the total payable is above the credits.";
    pub BALANCE = "ca.balance", "Balance", "ITA 156.1",
        "Total tax less what was paid.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Instalments.
    pub static INSTALMENTS: Brought = Brought::new();
}

/// Total payable less what the law pays out: what the household pays for good.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Payable {
    /// Line 40600.
    pub federal: Money,
    pub minimum: Money,
    pub provincial: Money,
    pub supplement: Money,
    /// The workers benefit.
    pub benefit: Money,
    /// What the province pays out, with its line.
    pub paid_out: Option<(LineId, Money)>,
}

/// Lines 43500 to 48500; the result is the total payable less refundable credits, and less benefits that are counted.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    income: &Income,
    payable: Payable,
    benefits: Money,
) -> Money {
    let Payable { federal, minimum, provincial, supplement, benefit, paid_out } = payable;
    let out: Vec<(LineId, Money)> = [(medical::PAID_OUT, supplement), (workers_benefit::BENEFIT, benefit)]
        .into_iter()
        .chain(small_credits::paid_out(on, trail))
        .chain([(tuition::TRAINING, tuition::training(on, trail))])
        .chain([(OF_TRUSTS, on.gather(trail, OF_TRUSTS, on.own().of(&t3::brings::PART_XII_2)))])
        .chain(paid_out)
        .collect();
    let parties = small_credits::parties(on, trail, federal);
    let labour = small_credits::labour_funds(on, trail, federal - parties);
    let repayment = on.made(trail, REPAYMENT, income.recovered, &[(income::RECOVERY, income.recovered)], &[]);
    let pension_plan = cpp_ei::of_business(on, trail, income.business, income.contributed);
    let after = on.made(
        trail,
        AFTER_PARTIES,
        federal - parties - labour,
        &[
            (foreign_tax::AFTER, federal),
            (small_credits::PARTIES, parties),
            (small_credits::LABOUR_FUNDS, labour),
        ],
        &[],
    );
    let advanced = workers_benefit::advanced(on, trail, benefit);
    let net_federal = on.add(
        trail,
        NET_FEDERAL,
        &[(AFTER_PARTIES, after), (workers_benefit::ADVANCE, advanced), (minimum_tax::ADDITIONAL, minimum)],
    );
    let total = on.add(
        trail,
        PAYABLE,
        &[
            (NET_FEDERAL, net_federal),
            (form_428::PROVINCIAL_TAX, provincial),
            (cpp_ei::OF_BUSINESS, pension_plan),
            (REPAYMENT, repayment),
        ],
    );
    let net = on.made(
        trail,
        NET_TAX,
        total - out.iter().map(|(_, amount)| *amount).sum::<Money>() - benefits,
        &[&[(PAYABLE, total), (family_benefits::COUNTED, benefits)][..], &out].concat(),
        &[],
    );
    let withheld = withheld(on, trail);
    let (cpp_back, ei_back) = cpp_ei::back(on, trail, income.contributed);
    let instalments = on.gather(trail, INSTALMENTS, on.own().of(&brings::INSTALMENTS));
    let paid = on.add(
        trail,
        PAID,
        &[
            (WITHHELD, withheld),
            (cpp_ei::CPP_BACK, cpp_back),
            (cpp_ei::EI_BACK, ei_back),
            (INSTALMENTS, instalments),
        ],
    );
    let credits = on.add(trail, CREDITS, &[&[(PAID, paid)][..], &out].concat());
    for (line, amount) in [(REFUND, credits - total), (OWING, total - credits)] {
        on.made(trail, line, settled::or_zero(amount), &[(PAYABLE, total), (CREDITS, credits)], &[]);
    }
    let beside = [(NET_TAX, net), (family_benefits::COUNTED, benefits), (PAID, paid)];
    on.made(trail, BALANCE, net + benefits - paid, &beside, &[]);
    net
}

/// Line 43700: tax withheld, with what moved with a split pension.
fn withheld(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = sum(on.own().of(&bringing::brings::WITHHELD));
    match pension_split::withheld_moved(on) {
        Some((split, moved)) if split.from == on.person => {
            trail.line(MOVED, on.scope, moved, |i| {
                i.items(on.own().of(&t4a::brings::WITHHELD_PENSION));
            });
            trail.line(WITHHELD, on.scope, own - moved, |i| {
                i.items(on.own().of(&bringing::brings::WITHHELD)).line(MOVED, on.scope, moved);
            })
        }
        Some((split, moved)) if split.to == on.person => {
            let from = on.of(split.from).scope;
            trail.line(WITHHELD, on.scope, own + moved, |i| {
                i.items(on.own().of(&bringing::brings::WITHHELD)).flow(MOVED, from, moved);
            })
        }
        _ => withheld_alone(on, trail, own),
    }
}

/// Line 43700 where nothing moves between returns that are here: with what form T1032 moves from or to one that is not.
fn withheld_alone(on: On<'_>, trail: &mut impl Trail, own: Money) -> Money {
    let Some(split) = on.facts.agreed_split(on.person) else {
        return on.gather(trail, WITHHELD, on.own().of(&bringing::brings::WITHHELD));
    };
    let moved = split.withheld - pension_split::withheld_of(on.facts, on.person, split.given);
    trail.line(WITHHELD, on.scope, own + moved, |i| {
        i.items(on.own().of(&bringing::brings::WITHHELD)).figure("Moved by form T1032", moved);
    })
}

const PAID_BY_INSTALMENTS: PaperKind = PaperKind {
    id: "Instalments",
    subject: subject::PAYMENTS,
    name: "Tax paid by instalments",
    words: "payment quarterly paid",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives every payment to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    for (row, _, amount) in paper.paper.lines("amount") {
        paper.put("amount", Some(row), amount, &brings::INSTALMENTS);
    }
}
