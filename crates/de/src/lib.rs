//! Germany: the income tax of a household, assessment periods of calendar years.
//!
//! The modules stand in the order of the computation and are named after the provision or annex. Papers become [`facts`] once; every rule
//! takes facts. Figures are in `rules/YEAR.toml`.

#![warn(clippy::disallowed_methods)]

pub mod asked;
pub mod assessment;
pub mod benefits;
pub mod beside;
pub mod bringing;
pub mod burdens;
pub mod capital;
pub mod carried;
mod case;
pub mod certificate_checks;
pub mod charges;
pub mod children;
pub mod credits;
pub mod disability;
pub mod elections;
pub mod employment;
pub mod equipment;
pub mod facts;
pub mod figures;
pub mod filing;
pub mod foreign_tax;
pub mod forms;
pub mod funds;
pub mod identification;
pub mod intake;
pub mod kinds;
pub mod law;
pub mod letting;
pub mod losses;
pub mod not_computed;
pub mod other_income;
pub mod payments;
pub mod pensions;
pub mod people;
pub mod people_checks;
pub mod plan;
pub mod points;
pub mod provision;
pub mod returns;
pub mod riester;
pub mod rounding;
pub mod season;
pub mod special;
pub mod spread;
pub mod tariff;
pub mod tax_classes;
pub mod tax_number;
pub mod wage;
pub mod work;
pub mod work_checks;

use figures::{COMMITTED, Figures, SOURCES, VERSION};
use hembo_core::{
    Case, Household, Outcome, Pack, Paper, Person,
    dates::DueDate,
    figures::{Book, Replacement},
    filing::FilingNeeds,
    forms::Forms,
    household::Entry,
    line::SpreadSection,
    numbers::Numbers,
    pack::{About, DayOrder, Election, Page, Suggestion, Totals, calendar_year, caption_of},
    paper::{Keeping, PaperKind},
    point::NotComputed,
    provision::Declared,
    withholding::Withholding,
    words::label_of,
};
use std::sync::Arc;
use time::Date;

/// How the country writes numbers.
pub(crate) const NUMBERS: Numbers = Numbers::Comma;

/// The rule pack of Germany.
#[derive(Debug)]
pub struct Germany {
    replaced: Option<Book<Figures>>,
}

impl Germany {
    /// With the committed figures.
    pub const COMMITTED: Germany = Germany { replaced: None };

    fn book(&self) -> &Book<Figures> {
        self.replaced.as_ref().unwrap_or(&COMMITTED)
    }
}

impl Pack for Germany {
    fn about(&self) -> About {
        About {
            id: "de",
            name: "Germany",
            currency: "EUR",
            symbol: "€",
            id_number: "Identification number",
            id_shape: "00 000 000 000",
            days: DayOrder::DayMonthYear,
            numbers: NUMBERS,
            page: Page::A4,
            locality: people::ask::LAND,
            relationship: people::ask::RELATIONSHIP,
        }
    }

    fn years(&self) -> Vec<i32> {
        self.book().years()
    }

    fn span(&self, year: i32) -> (Date, Date) {
        calendar_year(year)
    }

    fn declared(&self) -> &'static Declared {
        &law::DECLARED
    }

    fn rules(&self) -> &[(i32, toml::Table)] {
        self.book().rules()
    }

    fn with(&self, replaced: &[Replacement]) -> Result<Arc<dyn Pack>, String> {
        let book = Book::read(VERSION, SOURCES, replaced)?;
        Ok(Arc::new(Germany { replaced: Some(book) }))
    }

    fn forms(&self, year: i32) -> &'static Forms {
        forms::of(year)
    }

    fn spread(&self) -> &'static [SpreadSection] {
        spread::SPREAD
    }

    fn totals(&self) -> &'static [Totals] {
        const OFFICE: Totals = Totals {
            authority: "Finance office",
            tax: payments::TOTAL,
            paid: payments::PAID,
            balance: payments::BALANCE,
        };
        &[OFFICE]
    }

    fn check_id_number(&self, number: &str) -> Result<(), &'static str> {
        identification::check(number)
    }

    fn locality(&self, household: &Household) -> String {
        let answer = household.answers.get(people::ask::LAND).and_then(Entry::text);
        answer.and_then(|land| label_of(people::LAENDER, land)).unwrap_or_default().into()
    }

    fn caption(&self, person: &Person) -> String {
        caption_of(person, people::ask::RELATIONSHIP, people::RELATIONSHIPS, "dependant")
    }

    fn not_computed(&self) -> &'static [NotComputed] {
        &not_computed::NOT_COMPUTED
    }

    fn payer_titles(&self) -> &'static [&'static str] {
        &["Employer", "Payer", "Bank", "Insurer"]
    }

    fn suggestions(&self, _: &Household, _: &Paper) -> Vec<Suggestion> {
        Vec::new()
    }

    fn keeping(&self, year: i32) -> Keeping {
        // Four years of the assessment's limitation, which begin with the year after.
        Keeping { until: format!("{}-12-31", year + 5), cite: "§§169, 170 AO" }
    }

    fn held_kinds(&self) -> &'static [&'static str] {
        &["LStB", "Rente", "KAP", "Insurance", "Prepayments", "Last year"]
    }

    fn filing_needs(&self) -> FilingNeeds {
        FilingNeeds { settled: &[], refund_account: Some(payments::ask::ACCOUNT) }
    }

    fn proof(&self, kind: &PaperKind) -> &'static str {
        match kind.id {
            "Care and school" => "Invoices and the transfers to an account.",
            "Household" => "Invoices that name labour apart, and the transfers.",
            "Special expenses" => {
                "Confirmations of gifts above 300, notices of church tax, Anlage U with its signature."
            }
            "Burdens" => "Bills, prescriptions, what the insurer paid back.",
            "Support" => "Transfers, the certificate of need, who else pays.",
            _ => kind.usual_proof(),
        }
    }

    fn dates(&self, outcome: &Outcome) -> Vec<DueDate> {
        let figures = self.book().of(outcome.year).map(AsRef::as_ref);
        figures.map(|figures| season::dates(outcome, figures)).unwrap_or_default()
    }

    fn settle_next(&self, before: &Household, next: &mut Household) {
        let figures = self.book().of(before.year).unwrap_or_else(|| self.book().latest());
        carried::settle_next(before, next, figures);
    }

    fn withholding(&self, household: &Household, outcome: &Outcome) -> Option<Withholding> {
        let figures = self.book().of(household.year).unwrap_or_else(|| self.book().latest());
        tax_classes::withholding(&intake::read(household, figures), household, outcome)
    }

    fn elections(&self) -> &'static [Election] {
        elections::ELECTIONS
    }

    fn version(&self) -> &str {
        self.book().version()
    }

    fn open<'h>(&self, household: &'h Household) -> Box<dyn Case + 'h> {
        // A checked household has a year whose figures are here; the latest stand in for one that was not checked.
        let figures = self.book().of(household.year).unwrap_or_else(|| self.book().latest());
        let facts = intake::read(household, figures);
        Box::new(returns::GermanCase::new(facts, household))
    }
}
