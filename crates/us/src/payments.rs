//! Payments and the balance, Form 1040 lines 25 to 37.

use crate::{
    additional_taxes::additional_medicare_withheld,
    adoption,
    bringing::{self, Bringing},
    child_credit, credits, earned_income_credit, education,
    facts::{Facts, Payment},
    papers::w2,
    points::Points,
    premium_tax_credit, repayments, status,
    total_tax::{self, TotalTax},
    unit::{Filed, On, Part},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::Money;
use std::collections::BTreeMap;
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[ESTIMATED],
    lines: LINES,
    points: POINTS,
    figures: &["social_security", "underpayment"],
    ..Provision::NONE
};

lines! {
    pub L25A = "us.25a", "Withheld from wages", "IRC §31(a)",
        "Box 2 of every Form W-2.";
    L25B = "us.25b", "Withheld on Forms 1099", "IRC §§31(c), 3405",
        "Box 4 of every Form 1099, box 6 of every Form SSA-1099.";
    L25C = "us.25c", "Withheld otherwise", "IRC §§3102(f), 3402(q)",
        "Additional Medicare tax, box 6 above the ordinary tax on box 5, and box 4 of every Form W-2G.";
    pub L25D = "us.25d", "Withheld", "IRC §31",
        "Lines 25a to 25c.";
    pub L26 = "us.26", "Estimated payments", "IRC §6315",
        "Payments of the year, with last year's overpayment applied.";
    pub L10 = "us.sched_3.10", "Paid with the extension", "IRC §6081",
        "With the request for more time to file.";
    pub EXCESS = "us.excess_social_security", "Social security tax paid twice", "IRC §31(b)",
        "Above the most for one person, from two or more employers.";
    pub PAID = "us.paid", "Paid", "IRC §§31, 6315",
        "Withheld, estimated, and social security tax paid twice.";
    L32 = "us.32", "Other payments and refundable credits", "IRC §§24(d), 31(b), 32",
        "Lines 27a, 28, 29 and 30, and social security tax paid twice.";
    L33 = "us.33", "Total payments", "IRC §§31, 6315, 6401(b)",
        "Lines 25d, 26 and 32.";
    pub L34 = "us.34", "Overpaid", "IRC §6401",
        "What the payments are above total tax and the addition.";
    L37 = "us.37", "Owed", "IRC §6151",
        "What total tax, with the addition for underpayment, is above the payments.";
    pub BALANCE = "us.balance", "Balance", "IRC §§6151, 6401",
        "Total tax, with the addition for underpayment, less what was paid: due, or back where below zero.";
}

open_points! {
    TOGETHER = blocks "estimated-together", "Reg. §1.6654-2(e)(5)",
        "Only spouses pay estimated tax together: name the one who paid.";
}

/// Schedule 3 line 11: social security tax of two or more employers above the most that one person pays, spouse by
/// spouse; what one employer took too much is that employer's to return (§31(b)).
pub fn excess_social_security(on: On<'_>, trail: &mut impl Trail) -> Money {
    let most = on.facts.figures.social_security.most_tax;
    let mut total = Money::ZERO;
    for (_, own) in on.owns() {
        let employers = by_employer(own.of(&w2::brings::EMPLOYERS));
        if employers.len() > 1 {
            let each = employers.values().map(|tax| settled::lesser(*tax, most)).sum::<Money>();
            total += settled::or_zero(each - most);
        }
    }
    trail.line(EXCESS, on.scope, total.to_whole(), |i| {
        i.figure("Most for one person", most);
        if !total.is_zero() {
            i.items(on.items(&w2::brings::SOCIAL_SECURITY_TAX));
        }
    })
}

/// Two papers of one employer count together.
fn by_employer(withheld: &[(String, Money)]) -> BTreeMap<&str, Money> {
    let mut employers = BTreeMap::new();
    for (employer, tax) in withheld {
        *employers.entry(employer.as_str()).or_default() += *tax;
    }
    employers
}

/// What is paid beside withholding and estimates.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct From {
    /// Line 27a.
    pub eic: Money,
    /// Line 28.
    pub refundable: Money,
    /// Line 29.
    pub education: Money,
    /// Line 30.
    pub adoption: Money,
    /// Schedule 3 line 9.
    pub premium: Money,
    /// Schedule 3 line 11.
    pub excess: Money,
    /// Schedule 3 line 13b.
    pub repaid: Money,
    /// Schedule 3 lines 12 and 13a.
    pub taxes_back: [(LineId, Money); 2],
}

impl From {
    /// What is paid out beyond the tax.
    pub fn refunded(&self) -> Money {
        let taxes_back: Money = self.taxes_back.iter().map(|(_, amount)| *amount).sum();
        self.eic + self.refundable + self.education + self.adoption + self.premium + self.repaid + taxes_back
    }
}

/// What was paid, and what is left of it.
#[derive(Debug, Clone, Copy)]
pub struct Payments {
    /// Line 25d with social security tax paid twice.
    pub withheld: Money,
    /// Withheld, estimated, and paid twice.
    paid: Money,
    /// Line 33.
    all: Money,
}

/// Lines 25 to 33.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Payments {
    let From { eic, refundable, education, adoption, premium, excess, repaid, taxes_back } = from;
    let withheld = withheld(on, trail);
    let estimated = made(on, trail, L26, false);
    let extension = made(on, trail, L10, true);
    let paid = trail.line(PAID, on.scope, withheld + estimated + extension + excess, |i| {
        i.line(L25D, on.scope, withheld).line(L26, on.scope, estimated).line(EXCESS, on.scope, excess);
        if !extension.is_zero() {
            i.line(L10, on.scope, extension);
        }
    });
    let others = trail.line(L32, on.scope, from.refunded() + excess + extension, |i| {
        i.line(earned_income_credit::L27A, on.scope, eic)
            .line(child_credit::L28, on.scope, refundable)
            .line(education::L29, on.scope, education)
            .line(premium_tax_credit::NET, on.scope, premium)
            .line(EXCESS, on.scope, excess);
        let rare = [(adoption::L30, adoption), (L10, extension), (repayments::CREDIT, repaid)];
        for (line, amount) in rare.into_iter().chain(taxes_back).filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    });
    let all = trail.line(L33, on.scope, withheld + estimated + others, |i| {
        i.line(L25D, on.scope, withheld).line(L26, on.scope, estimated).line(L32, on.scope, others);
    });
    Payments { withheld: withheld + excess, paid, all }
}

/// Lines 34 and 37 and the balance, with the addition for underpayment on `addition`: due above zero, back below.
pub fn balance(
    on: On<'_>,
    trail: &mut impl Trail,
    due: TotalTax,
    payments: Payments,
    addition: (LineId, Money),
) {
    let Payments { paid, all, .. } = payments;
    let (line_38, addition) = addition;
    for (line, amount) in [(L34, all - due.total - addition), (L37, due.total + addition - all)] {
        trail.line(line, on.scope, settled::or_zero(amount), |i| {
            i.line(L33, on.scope, all).line(total_tax::L24, on.scope, due.total);
            if !addition.is_zero() {
                i.line(line_38, on.scope, addition);
            }
        });
    }
    trail.line(BALANCE, on.scope, due.net - paid + addition, |i| {
        i.line(total_tax::NET_TAX, on.scope, due.net).line(PAID, on.scope, paid);
        if !addition.is_zero() {
            i.line(line_38, on.scope, addition);
        }
    });
}

/// Line 25d.
fn withheld(on: On<'_>, trail: &mut impl Trail) -> Money {
    let wages = on.gather(trail, L25A, &w2::brings::WITHHELD);
    let other = on.gather(trail, L25B, &bringing::brings::WITHHELD);
    let rest = &bringing::brings::WITHHELD_OTHER;
    let papers = [(L25A, &w2::brings::WITHHELD), (L25B, &bringing::brings::WITHHELD), (L25C, rest)];
    on.parts(trail, L25D, &papers);
    if on.unit.people.len() > 1 {
        for (person, own) in on.owns().filter(|(_, own)| own.has(rest)) {
            trail.line(L25C, Scope::Person(person), sum(own.of(rest)), |i| {
                i.items(own.of(rest));
            });
        }
    }
    let medicare = additional_medicare_withheld(on);
    let otherwise = trail.line(L25C, on.scope, medicare + sum(on.items(rest)).to_whole(), |i| {
        i.figure("Additional Medicare tax", medicare).items(on.items(rest));
    });
    trail.line(L25D, on.scope, wages + other + otherwise, |i| {
        i.line(L25A, on.scope, wages).line(L25B, on.scope, other).line(L25C, on.scope, otherwise);
    })
}

/// Line 26, or Schedule 3 line 10 for what was paid with the extension: own payments, and the agreed part of those made together.
fn made(on: On<'_>, trail: &mut impl Trail, line: LineId, extension: bool) -> Money {
    let those = move |payment: &&Payment| payment.extension == extension;
    let alone = || {
        let all = on.owns().flat_map(|(_, own)| own.of(&bringing::brings::ESTIMATED));
        all.filter(those).map(|payment| &payment.item)
    };
    let together = || on.facts.estimated_together.iter().filter(those).map(|payment| &payment.item);
    let part = part_of(on, sum(together()));
    trail.line(line, on.scope, (sum(alone()) + part).to_whole(), |i| {
        i.items(alone());
        if on.unit.estimated == Part::All {
            i.items(together());
        } else {
            i.figure("Of the payments made together", part);
        }
    })
}

/// What a return takes of a payment that spouses made together.
fn part_of(on: On<'_>, together: Money) -> Money {
    match on.unit.estimated {
        Part::All => together,
        Part::Nothing => Money::ZERO,
        Part::Half if on.facts.filers.first() == on.unit.people.first() => together.split(&[1, 1])[0],
        Part::Half => together.split(&[1, 1])[1],
    }
}

/// Every payment that a return takes, with its day: one with the extension is made on the due date of the return at the latest.
pub fn dated(on: On<'_>) -> impl Iterator<Item = (Option<Date>, Money)> {
    let alone = on.owns().flat_map(|(_, own)| own.of(&bringing::brings::ESTIMATED));
    let due = on.facts.figures.underpayment.until.0;
    let day = move |payment: &Payment| payment.date.or(payment.extension.then_some(due));
    let alone = alone.map(move |payment| (day(payment), payment.item.amount));
    let together = on.facts.estimated_together.iter();
    alone.chain(together.map(move |payment| (day(payment), part_of(on, payment.item.amount))))
}

/// What an addition for underpayment is reckoned from.
#[derive(Debug, Clone, Copy)]
pub struct TotalPaid {
    /// Line 24.
    pub tax_of_form: Money,
    /// Withheld, with social security tax paid twice.
    pub withheld: Money,
    /// Income for the ranges of IRA contributions, by which the taxes on excess contributions go.
    pub for_ira: Money,
}

/// Schedule 3: where it brings a payment.
pub fn schedule_3(filed: Filed<'_>) -> Required {
    let any = filed.has(EXCESS)
        || filed.has(credits::L20)
        || filed.has(premium_tax_credit::NET)
        || filed.has(repayments::CREDIT)
        || filed.has(L10);
    Required::if_so(any, "no such credits or payments")
}

const SORTS: &[Choice] = &[
    Choice::new("estimated", "Estimated"),
    Choice::new("applied", "Applied from last year"),
    Choice::new("extension", "With the extension"),
];

/// Federal estimated tax payments.
pub const ESTIMATED: PaperKind = PaperKind {
    id: "1040-ES",
    subject: subject::PAYMENTS,
    name: "Federal estimated tax payments",
    words: "estimated payment quarterly instalment voucher",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "What", 80),
        Field::choice("sort", "", "Kind", SORTS).blank_is("estimated"),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What both filers paid together stays whole: spouses may divide it as they agree (Reg. §1.6654-2(e)(5)).
pub fn read(paper: &mut Bringing<'_>) {
    let alone = paper.paper.paper.owners.len() == 1;
    for (r, row, amount) in paper.paper.lines("amount") {
        let date = row.get("date").and_then(Entry::date);
        let extension = row.get("sort").and_then(Entry::text) == Some("extension");
        if alone {
            paper.put_as("amount", Some(r), amount, &bringing::brings::ESTIMATED, |item| Payment {
                date,
                item,
                extension,
            });
        } else {
            let item = paper.paper.item("amount", Some(r), amount);
            paper.facts.estimated_together.push(Payment { date, item, extension });
        }
    }
}

/// Who can have paid together.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    for payment in facts.estimated_together.iter().take(1).filter(|_| !facts.couple()) {
        let paper =
            Place { paper: Some(points.household.papers[payment.item.paper].id.clone()), ..Place::default() };
        points.raise(&TOGETHER, paper, "Two who are not married paid estimated tax together.");
    }
}

/// Who takes estimated tax that spouses paid together.
pub static DIVIDED: Open<Facts> = Open::new(
    |facts| if facts.couple() && !facts.estimated_together.is_empty() { vec![0] } else { Vec::new() },
    who_takes_estimated,
)
.arises(|facts, _, way| status::separate(facts, way));

fn who_takes_estimated(facts: &Facts, _: usize) -> Decision {
    let mut options = vec![Opt::new("half", "Half each", "")];
    let all = |&f: &usize| {
        let person = &facts.people[f];
        Opt::new(person.id.as_str(), format!("All to {}", person.name), "")
    };
    options.extend(facts.filers.iter().map(all));
    let cite = "Reg. §1.6654-2(e)(5)(ii)";
    Decision {
        neutral: true,
        ..Decision::between("us.estimated", "Estimated tax paid together", cite, options)
    }
}

/// What the separate return of a filer takes of it.
pub fn part_taken(way: Chosen<'_, '_, Facts>, place: usize) -> Part {
    match way.taken(&DIVIDED, 0) {
        None | Some(0) => Part::Half,
        Some(option) if option - 1 == place => Part::All,
        Some(_) => Part::Nothing,
    }
}
