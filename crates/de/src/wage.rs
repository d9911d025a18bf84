//! Wages by the certificate of the employer (§41b EStG), with what is free of pensions that an employer pays (§19(2)).

use crate::{
    bringing::Bringing,
    pensions::by_start,
    rounding::{euros_down, euros_up, portion_up},
};
use hembo_core::{
    field::{Field, Years},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    settled,
    trail::Item,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Wage certificates",
    papers: &[CERTIFICATE],
    figures: &["pensions"],
    ..Provision::NONE
};

/// What its papers bring.
pub mod brings {
    use super::EmployersPension;
    use hembo_core::brought::Brought;

    /// Numbers 3, 9 and 10.
    pub static GROSS: Brought = Brought::new();
    /// Numbers 9, 10 and 19.
    pub static EXTRAORDINARY: Brought = Brought::new();
    /// Number 8 with what is free of it.
    pub static PENSIONS: Brought<EmployersPension> = Brought::new();
    /// Numbers 4 and 11.
    pub static TAX: Brought = Brought::new();
    /// Numbers 5 and 12.
    pub static SURCHARGE: Brought = Brought::new();
    /// Numbers 6, 7, 13, 14.
    pub static CHURCH: Brought = Brought::new();
    /// Number 15: under the progression clause.
    pub static BENEFITS: Brought = Brought::new();
    /// Numbers 16a and 16b: wages that are exempt here, under the progression clause.
    pub static EXEMPT: Brought = Brought::new();
    /// Numbers 17 and 18: for the way to work.
    pub static COMMUTE_PAID: Brought = Brought::new();
    /// Number 20: for meals.
    pub static MEALS_PAID: Brought = Brought::new();
    /// Number 21: for a second household.
    pub static SECOND_HOME_PAID: Brought = Brought::new();
    /// Number 22: the employer's part for old age.
    pub static EMPLOYERS_OLD_AGE: Brought = Brought::new();
    /// Number 23: the own part.
    pub static OLD_AGE: Brought = Brought::new();
    /// Number 25 less 24a, with sick pay.
    pub static HEALTH: Brought = Brought::new();
    /// The same without sick pay.
    pub static HEALTH_NO_SICK_PAY: Brought = Brought::new();
    /// Number 26 less 24c.
    pub static CARE: Brought = Brought::new();
    /// Number 24b: taken off private cover.
    pub static PRIVATE_SUBSIDY: Brought = Brought::new();
    /// Number 27.
    pub static UNEMPLOYMENT: Brought = Brought::new();
}

/// A pension of an employer, with what is free of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct EmployersPension {
    /// Number 8.
    pub paid: Item,
    /// §19(2) S.3.
    pub free: Money,
}

/// The certificate.
pub const CERTIFICATE: PaperKind = PaperKind {
    id: "LStB",
    subject: subject::PAY,
    name: "Wage certificate, Lohnsteuerbescheinigung",
    words: "wages salary lohn gehalt employer pension lohnsteuer",
    title: "Employer",
    shared: false,
    headline: "3",
    boxes: &[
        Field::date("from", "1", "From"),
        Field::date("to", "1", "To"),
        Field::text("letters", "2", "Letters: S, M, F, FR", 10),
        Field::amount("3", "3", "Gross wage"),
        Field::amount("4", "4", "Wage tax (Lohnsteuer)"),
        Field::amount("5", "5", "Solidarity surcharge"),
        Field::amount("6", "6", "Church tax"),
        Field::amount("7", "7", "Church tax of the spouse"),
        Field::amount("8", "8", "Pensions of an employer in 3"),
        Field::amount("9", "9", "Pensions of several years, reduced"),
        Field::amount("10", "10", "Pay for several years, compensation, reduced"),
        Field::amount("11", "11", "Wage tax on 9 and 10"),
        Field::amount("12", "12", "Surcharge on 9 and 10"),
        Field::amount("13", "13", "Church tax on 9 and 10"),
        Field::amount("14", "14", "Church tax of the spouse on 9 and 10"),
        Field::amount("15", "15", "Short-time and maternity benefits"),
        Field::amount("16a", "16a", "Free of tax by a treaty"),
        Field::amount("16b", "16b", "Free of tax by the decree on work abroad"),
        Field::amount("17", "17", "Free benefits for the way to work"),
        Field::amount("18", "18", "Benefits for it taxed at 15 %"),
        Field::amount("19", "19", "Compensation and pay for several years in 3"),
        Field::amount("20", "20", "Free meal allowances"),
        Field::amount("21", "21", "Free benefits for a second household"),
        Field::amount("22", "22", "Old age, employer's part"),
        Field::amount("23", "23", "Old age, employee's part"),
        Field::amount("24a", "24a", "Subsidy to statutory health cover"),
        Field::amount("24b", "24b", "Subsidy to private health cover"),
        Field::amount("24c", "24c", "Subsidy to care cover"),
        Field::amount("25", "25", "Statutory health cover"),
        Field::amount("26", "26", "Care cover"),
        Field::amount("27", "27", "Unemployment insurance"),
        Field::amount("28", "28", "Private cover that was proven").compared(),
        Field::amount("29", "29", "Base of the pension"),
        Field::count("30", "30", "Year in which it began", 2100),
        Field::count("months", "31", "Months in which it was paid", 12).blank_is("12"),
        Field::yes_no("no_sick_pay", "", "Cover without sick pay")
            .help("Then 25 is not cut by 4 %: pensioners, students, some volunteers."),
        Field::count("class", "", "Tax class", 6).help("The last one; classes before it stand in the list."),
    ],
    columns: &[
        Field::count("by_class", "", "Tax class", 6),
        Field::date("since", "", "Counts from (gültig ab)"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives a certificate to who earned the wage.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[
        ("3", &brings::GROSS),
        ("9", &brings::GROSS),
        ("9", &brings::EXTRAORDINARY),
        ("16a", &brings::EXEMPT),
        ("16b", &brings::EXEMPT),
        ("10", &brings::GROSS),
        ("10", &brings::EXTRAORDINARY),
        ("19", &brings::EXTRAORDINARY),
        ("4", &brings::TAX),
        ("11", &brings::TAX),
        ("5", &brings::SURCHARGE),
        ("12", &brings::SURCHARGE),
        ("6", &brings::CHURCH),
        ("7", &brings::CHURCH),
        ("13", &brings::CHURCH),
        ("14", &brings::CHURCH),
        ("15", &brings::BENEFITS),
        ("17", &brings::COMMUTE_PAID),
        ("18", &brings::COMMUTE_PAID),
        ("20", &brings::MEALS_PAID),
        ("21", &brings::SECOND_HOME_PAID),
        ("22", &brings::EMPLOYERS_OLD_AGE),
        ("23", &brings::OLD_AGE),
        ("24b", &brings::PRIVATE_SUBSIDY),
        ("27", &brings::UNEMPLOYMENT),
    ]);
    let health = if paper.flag("no_sick_pay") { &brings::HEALTH_NO_SICK_PAY } else { &brings::HEALTH };
    let net = |paper: &Bringing<'_>, own, subsidy| paper.amount(own) - paper.amount(subsidy);
    paper.put("25", None, net(paper, "25", "24a"), health);
    paper.put("26", None, net(paper, "26", "24c"), &brings::CARE);
    pension(paper);
}

/// §19(2): what is free of a pension by the year in which it began, of the months in which it was paid.
fn pension(paper: &mut Bringing<'_>) {
    let paid = paper.amount("8");
    if paid.is_zero() {
        return;
    }
    let figures = &paper.facts.figures.pensions;
    let began = i32::try_from(paper.count("30")).unwrap_or(figures.first_year);
    let months = if paper.has("months") { paper.count("months") } else { 12 };
    let by_months = |amount: Money| portion_up(amount, months, 12);
    let rate = by_start(figures, &figures.employers_rates, began);
    let part = paper.amount("29").times(rate, Money::CENT, Rounding::Up);
    let part = settled::lesser(part, by_start(figures, &figures.employers_most, began));
    let free = by_months(euros_up(part)) + by_months(by_start(figures, &figures.employers_further, began));
    let pension =
        EmployersPension { paid: paper.item("8", paid), free: settled::lesser(free, euros_down(paid)) };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::PENSIONS, pension);
    }
}
