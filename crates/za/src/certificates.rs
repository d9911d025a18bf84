//! Employees' tax certificates by their source codes (IRP5 and IT3(a); ss 1 'gross income', 7th Schedule): pay, allowances, fringe
//! benefits, contributions and tax withheld.

use crate::{bringing::Bringing, plan::On, points::Points, rounding::cents};
use hembo_core::{
    Paper,
    brought::Brought,
    field::{Choice, Field, Years},
    household::{Entry, Row},
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Pay",
    lines: LINES,
    papers: &[CERTIFICATE],
    points: POINTS,
    figures: &["travel", "scale", "lump_sums"],
    ..Provision::NONE
};

lines! {
    pub TAXABLE = "za.irp5_taxable", "Pay and benefits", "s1 'gross income' (c), (i); Seventh Schedule",
        "Every taxable code of the certificates, allowances whole.";
    EXEMPT = "za.irp5_exempt", "Of certificates, not taxable", "s8(1), s10(1)",
        "Reimbursements and allowances that are not taxed.";
    pub REMUNERATION = "za.remuneration", "Remuneration", "Fourth Schedule para 1",
        "The taxable codes, of a travel allowance the part that is remuneration.";
}

open_points! {
    ADDS_NOT = blocks "C07", "Fourth Schedule para 13", "Compare the codes with the certificate: they must add up to 3699.";
    PAYE_HIGH = look "C08", "Fourth Schedule", "Compare the PAYE with the certificate.";
    BURSARY = look "C59", "s10(1)(q)(ii)(aa)", "Of who earns more a bursary to a relative is taxable: compare its code.";
    MOSTLY_SALARY = look "C74", "s23(m)", "Costs against commission count only where it is more than half of the pay: those of a salaried person do.";
    PENSION_ADDED = look "C11", "Seventh Schedule para 12D", "The employer's part is added once: compare the certificate.";
    MEDICAL_ADDED = look "C12", "Seventh Schedule para 12A", "The employer's part is added once: compare the certificate.";
    NOT_DEDUCTIBLE = look "C13", "s23(r)", "Income protection is not deductible since 2015; it is left out.";
    DEDUCTIONS_APART = look "C62", "Fourth Schedule para 13", "Compare the deduction codes with 4497.";
    LUMP_SUM = blocks "C42", "Second Schedule; Fourth Schedule para 9(3)", "Add the directive: a lump sum is taxed by its own table.";
    SAVINGS_LEAST = look "C44", "s1 'savings withdrawal benefit'", "A withdrawal below the minimum is unusual: compare the certificate.";
    SAVINGS_TWICE = look "C43", "s1 'savings withdrawal benefit'", "A fund pays one withdrawal a year: compare the certificates.";
    TWO_EMPLOYERS = look "C73", "Fourth Schedule", "Each employer gave the whole rebates: expect something to pay.";
    AGAIN = look "C58", "Fourth Schedule para 13", "The same employer and amounts: keyed twice?";
    ABROAD = look "code-abroad", "s10(1)(o)(ii)", "Add the days abroad: without them nothing is exempt.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Taxable codes without travel allowances.
    pub static TAXABLE: Brought = Brought::new();
    /// Travel allowances: 3701, 3702, 3722.
    pub static TRAVEL: Brought = Brought::new();
    /// Codes that are not taxed.
    pub static EXEMPT: Brought = Brought::new();
    /// Contributions to retirement funds, the employer's part among them.
    pub static RETIREMENT: Brought = Brought::new();
    /// Contributions to a medical scheme, the employer's part among them.
    pub static MEDICAL: Brought = Brought::new();
    /// What an employer paid for medical bills: a qualifying expense.
    pub static MEDICAL_PAID: Brought = Brought::new();
    /// Gifts by payroll.
    pub static GIFTS: Brought = Brought::new();
    /// PAYE.
    pub static PAYE: Brought = Brought::new();
    /// PAYE on lump sums.
    pub static LUMP_PAYE: Brought = Brought::new();
}

/// What a code does.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Does {
    Taxed,
    Travel,
    Exempt,
    Retirement,
    Medical,
    MedicalPaid,
    Gift,
    Paye,
    LumpPaye,
    LumpSum,
    NotDeductible,
    /// Only told: totals, levies, what others paid.
    Told,
}

/// A source code: what the certificate calls it, and what it does.
struct Code {
    id: &'static str,
    label: &'static str,
    does: Does,
}

const fn code(id: &'static str, label: &'static str, does: Does) -> Code {
    Code { id, label, does }
}

/// The codes of a certificate.
const CODES: &[Code] = &[
    code("3601", "3601 Salary", Does::Taxed),
    code("3602", "3602 Not taxable", Does::Exempt),
    code("3603", "3603 Pension", Does::Taxed),
    code("3605", "3605 Annual payment", Does::Taxed),
    code("3606", "3606 Commission", Does::Taxed),
    code("3607", "3607 Overtime", Does::Taxed),
    code("3610", "3610 Annuity of a retirement fund", Does::Taxed),
    code("3611", "3611 Purchased annuity", Does::Taxed),
    code("3615", "3615 Director", Does::Taxed),
    code("3616", "3616 Independent contractor", Does::Taxed),
    code("3620", "3620 Non-executive director", Does::Taxed),
    code("3651", "3651 Salary for work abroad", Does::Taxed),
    code("3655", "3655 Annual payment for work abroad", Does::Taxed),
    code("3656", "3656 Commission for work abroad", Does::Taxed),
    code("3657", "3657 Overtime for work abroad", Does::Taxed),
    code("3665", "3665 Director, work abroad", Does::Taxed),
    code("3696", "3696 Gross not taxable, in total", Does::Told),
    code("3701", "3701 Travel allowance", Does::Travel),
    code("3702", "3702 Reimbursed travel, taxable", Does::Travel),
    code("3703", "3703 Reimbursed travel, not taxable", Does::Exempt),
    code("3704", "3704 Subsistence here, taxable", Does::Taxed),
    code("3705", "3705 Subsistence here, not taxable", Does::Exempt),
    code("3713", "3713 Other allowances, taxable", Does::Taxed),
    code("3714", "3714 Other allowances, not taxable", Does::Exempt),
    code("3715", "3715 Subsistence abroad, taxable", Does::Taxed),
    code("3716", "3716 Subsistence abroad, not taxable", Does::Exempt),
    code("3722", "3722 Reimbursed travel above the rate", Does::Travel),
    code("3801", "3801 Fringe benefits", Does::Taxed),
    code("3802", "3802 Company car", Does::Taxed),
    code("3805", "3805 Accommodation", Does::Taxed),
    code("3806", "3806 Services", Does::Taxed),
    code("3808", "3808 Debt paid by the employer", Does::Taxed),
    code("3809", "3809 Bursary, taxable", Does::Taxed),
    code("3810", "3810 Medical scheme, employer's part", Does::Taxed),
    code("3813", "3813 Medical bills paid by the employer", Does::MedicalPaid),
    code("3815", "3815 Bursary, not taxable", Does::Exempt),
    code("3816", "3816 Company car under lease", Does::Taxed),
    code("3817", "3817 Pension fund, employer's part", Does::Taxed),
    code("3825", "3825 Provident fund, employer's part", Does::Taxed),
    code("3828", "3828 Retirement annuity, employer's part", Does::Taxed),
    code("3901", "3901 Severance, gratuity", Does::LumpSum),
    code("3915", "3915 Lump sum on retirement or death", Does::LumpSum),
    code("3920", "3920 Lump sum on withdrawal", Does::LumpSum),
    code("3921", "3921 Living annuity, lump sum", Does::LumpSum),
    code("3922", "3922 Compensation for death in service", Does::LumpSum),
    code("3923", "3923 Transfer of surplus", Does::LumpSum),
    code("3924", "3924 Lump sum after transfer", Does::LumpSum),
    code("3926", "3926 Savings withdrawal", Does::Taxed),
    code("4001", "4001 Pension fund contributions", Does::Retirement),
    code("4003", "4003 Provident fund contributions", Does::Retirement),
    code("4005", "4005 Medical scheme contributions", Does::Medical),
    code("4006", "4006 Retirement annuity contributions", Does::Retirement),
    code("4018", "4018 Income protection", Does::NotDeductible),
    code("4030", "4030 Gifts by payroll", Does::Gift),
    code("4102", "4102 PAYE tax", Does::Paye),
    code("4115", "4115 PAYE on lump sums", Does::LumpPaye),
    code("4116", "4116 Medical credit given", Does::Told),
    code("4120", "4120 Additional medical credit given", Does::Told),
    code("4141", "4141 UIF", Does::Told),
    code("4142", "4142 SDL", Does::Told),
    code("4149", "4149 Tax, SDL and UIF in total", Does::Told),
    code("4472", "4472 Pension fund, paid by the employer", Does::Told),
    code("4473", "4473 Provident fund, paid by the employer", Does::Told),
    code("4474", "4474 Medical scheme, paid by the employer", Does::Told),
    code("4475", "4475 Retirement annuity, paid by the employer", Does::Told),
    code("4497", "4497 Deductions, in total", Does::Told),
];

/// The codes as they are offered.
const CHOICES: [Choice; CODES.len()] = {
    let mut choices = [Choice::new("", ""); CODES.len()];
    let mut at = 0;
    while at < CODES.len() {
        choices[at] = Choice::new(CODES[at].id, CODES[at].label);
        at += 1;
    }
    choices
};

/// The certificate: its codes line by line.
pub const CERTIFICATE: PaperKind = PaperKind {
    id: "IRP5",
    subject: subject::PAY,
    name: "Employees' tax certificate, IRP5 or IT3(a)",
    words: "salary wages pension annuity paye it3a employer",
    title: "Employer",
    shared: false,
    headline: "gross",
    boxes: &[
        Field::text("number", "", "Employer's PAYE number", 12).payer_number(),
        Field::text("certificate", "", "Certificate number", 30),
        Field::amount("gross", "3699", "Gross, in total")
            .compared()
            .help("The taxable codes must add up to it."),
        Field::yes_no("mostly_business", "", "At least 80 % of travel for work")
            .help("Then 20 % of a travel allowance is remuneration, else 80 %."),
    ],
    columns: &[Field::choice("code", "", "Code", &CHOICES), Field::amount("amount", "", "Amount")],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

fn found(row: &Row) -> Option<&'static Code> {
    let id = row.get("code").and_then(Entry::text)?;
    CODES.iter().find(|code| code.id == id)
}

/// What stands under a code on a certificate.
pub fn of_code(paper: &Paper, id: &str) -> Money {
    let rows = paper.rows.iter().filter(|row| row.get("code").and_then(Entry::text) == Some(id));
    rows.filter_map(|row| row.get("amount").and_then(Entry::money)).sum()
}

/// Gives the codes to who earned them.
pub fn read(paper: &mut Bringing<'_>) {
    let whole = paper.paper.paper;
    for (row, line) in whole.rows.iter().enumerate() {
        let (Some(code), Some(amount)) = (found(line), line.get("amount").and_then(Entry::money)) else {
            continue;
        };
        let kinds: &[&'static Brought] = match code.does {
            Does::Taxed => &[&brings::TAXABLE],
            Does::Travel => &[&brings::TRAVEL],
            Does::Exempt => &[&brings::EXEMPT],
            Does::Retirement => &[&brings::RETIREMENT],
            Does::Medical => &[&brings::MEDICAL],
            Does::MedicalPaid => &[&brings::TAXABLE, &brings::MEDICAL_PAID],
            Does::Gift => &[&brings::GIFTS],
            Does::Paye => &[&brings::PAYE],
            Does::LumpPaye => &[&brings::LUMP_PAYE],
            Does::LumpSum | Does::NotDeductible | Does::Told => &[],
        };
        for kind in kinds {
            paper.put("amount", Some(row), amount, kind);
        }
    }
    employers_part(paper, ["3817", "4001"], &brings::RETIREMENT);
    employers_part(paper, ["3825", "4003"], &brings::RETIREMENT);
    employers_part(paper, ["3828", "4006"], &brings::RETIREMENT);
    employers_part(paper, ["3810", "4005"], &brings::MEDICAL);
}

/// An employer's part that the contributions' code does not hold is added to them once.
fn employers_part(paper: &mut Bringing<'_>, [part, whole]: [&str; 2], kind: &'static Brought) {
    let (part, whole) = (of_code(paper.paper.paper, part), of_code(paper.paper.paper, whole));
    if whole < part {
        paper.put("amount", None, part, kind);
    }
}

/// Pay as income.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Pay {
    pub taxable: Money,
    pub travel_allowance: Money,
    pub remuneration: Money,
}

/// The certificates of a person.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Pay {
    let own = on.own();
    let travel_allowance = sum(own.of(&brings::TRAVEL));
    let items = own.of(&brings::TAXABLE).iter().chain(own.of(&brings::TRAVEL));
    let taxable = on.gather(trail, TAXABLE, items);
    on.gather(trail, EXEMPT, own.of(&brings::EXEMPT));
    let figures = &on.facts.figures.travel;
    let part =
        if on.who().mostly_business { figures.allowance_part_business } else { figures.allowance_part };
    let remuneration = taxable - travel_allowance + cents(travel_allowance, part);
    on.made(trail, REMUNERATION, remuneration, &[(TAXABLE, taxable)], &[("Of a travel allowance", &part)]);
    Pay { taxable, travel_allowance, remuneration }
}

/// Certificates that do not add up, parts that stand outside, lump sums without a directive.
pub fn points(points: &mut Points<'_>) {
    let papers: Vec<&Paper> = points.papers(CERTIFICATE.id).collect();
    for (place, paper) in papers.iter().enumerate() {
        one(points, paper);
        let same = |other: &&&Paper| {
            other.owners == paper.owners
                && other.title == paper.title
                && of_code(other, "3601") == of_code(paper, "3601")
        };
        if !paper.rows.is_empty() && papers[..place].iter().any(|other| same(&other)) {
            points.raise(
                &AGAIN,
                Place::paper(&paper.id, "certificate"),
                "A second certificate of the same employer.",
            );
        }
    }
    for (_, person) in points.returns() {
        let of =
            |paper: &&&Paper| paper.owners.iter().any(|owner| owner.person == points.facts.people[person].id);
        let paid = papers.iter().filter(of).filter(|paper| !of_code(paper, "4102").is_zero()).count();
        let savings = papers.iter().filter(of).filter(|paper| !of_code(paper, "3926").is_zero()).count();
        if paid > 1 {
            let message = format!("{}: PAYE of several employers.", points.name(person));
            points.raise(&TWO_EMPLOYERS, points.at(person, "name"), message);
        }
        if savings > 1 {
            let message = format!("{}: two savings withdrawals.", points.name(person));
            points.raise(&SAVINGS_TWICE, points.at(person, "name"), message);
        }
    }
}

/// Up to so much remuneration a bursary to a relative is exempt; worth a look, no rule.
const BURSARY_TO: Money = Money::whole(600_000);

fn one(points: &mut Points<'_>, paper: &Paper) {
    let place = || Place::paper(&paper.id, "amount");
    let with = |does: &[Does]| -> Money {
        let counted =
            paper.rows.iter().filter(|row| found(row).is_some_and(|code| does.contains(&code.does)));
        counted.filter_map(|row| row.get("amount").and_then(Entry::money)).sum()
    };
    let gross = paper.amount("gross");
    let taxed = with(&[Does::Taxed, Does::Travel, Does::MedicalPaid]);
    let apart = taxed - gross;
    let near = Money::whole(1);
    if !gross.is_zero() && (apart > near || -apart > near) {
        points.raise(&ADDS_NOT, place(), format!("The codes make {taxed:#}, 3699 says {gross:#}."));
    }
    let top = points.facts.figures.scale.rates.last().copied().unwrap_or(Rate::ZERO);
    let paye = of_code(paper, "4102");
    if paye > cents(taxed, top) {
        points.raise(&PAYE_HIGH, place(), format!("PAYE of {paye:#} on {taxed:#}."));
    }
    if !of_code(paper, "3815").is_zero() && gross > BURSARY_TO {
        points.raise(&BURSARY, place(), format!("A bursary that is not taxable, and pay of {gross:#}."));
    }
    let commission = of_code(paper, "3606");
    if !commission.is_zero() && commission * 2 < gross {
        points.raise(&MOSTLY_SALARY, place(), format!("Commission of {commission:#} in pay of {gross:#}."));
    }
    for ([part, whole], def) in [
        (["3817", "4001"], &PENSION_ADDED),
        (["3825", "4003"], &PENSION_ADDED),
        (["3828", "4006"], &PENSION_ADDED),
        (["3810", "4005"], &MEDICAL_ADDED),
    ] {
        if of_code(paper, whole) < of_code(paper, part) {
            points.raise(
                def,
                place(),
                format!("{whole} is less than {part}: the employer's part may stand outside."),
            );
        }
    }
    if !with(&[Does::NotDeductible]).is_zero() {
        points.raise(&NOT_DEDUCTIBLE, place(), "4018 is not deducted.");
    }
    let total = of_code(paper, "4497");
    let deductions = with(&[Does::Retirement, Does::Medical, Does::Gift, Does::NotDeductible]);
    if !total.is_zero() && total != deductions {
        points.raise(
            &DEDUCTIONS_APART,
            place(),
            format!("The codes make {deductions:#}, 4497 says {total:#}."),
        );
    }
    special(points, paper, with(&[Does::LumpSum]));
}

/// Codes that ask for another paper.
fn special(points: &mut Points<'_>, paper: &Paper, lump_sums: Money) {
    let place = || Place::paper(&paper.id, "amount");
    let has = |kind: &'static str| points.papers(kind).next().is_some();
    let (directive, abroad) = (has("Lump sum"), has("Work abroad"));
    if !lump_sums.is_zero() && !directive {
        points.raise(&LUMP_SUM, place(), format!("A lump sum of {lump_sums:#} without its directive."));
    }
    let savings = of_code(paper, "3926");
    let least = points.facts.figures.lump_sums.savings_least.unwrap_or_default();
    if !savings.is_zero() && savings < least {
        points.raise(&SAVINGS_LEAST, place(), format!("A savings withdrawal of {savings:#}."));
    }
    let worked_abroad =
        ["3651", "3655", "3656", "3657", "3665"].into_iter().any(|id| !of_code(paper, id).is_zero());
    if worked_abroad && !abroad {
        points.raise(&ABROAD, place(), "Pay for work abroad.");
    }
}

/// Whether a certificate says that most travel was for work.
pub fn mostly_business(paper: &Paper) -> bool {
    paper.kind == CERTIFICATE.id && paper.flag("mostly_business")
}
