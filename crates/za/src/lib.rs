//! South Africa: the income tax of a household, years of assessment that end in February.
//!
//! The modules stand in the order of the computation and are named after the provision or form. Papers become [`facts`] once; every
//! rule takes facts. Figures are in `rules/YEAR.toml`; a year is named by the calendar year in which it ends.

#![warn(clippy::disallowed_methods)]

pub mod asked;
pub mod bringing;
pub mod calendar;
pub mod carried;
mod case;
pub mod certificates;
pub mod donations;
pub mod elections;
pub mod facts;
pub mod figures;
pub mod foreign_pay;
pub mod foreign_tax;
pub mod forms;
pub mod gains;
pub mod home_office;
pub mod id_number;
pub mod income;
pub mod intake;
pub mod investments;
pub mod law;
pub mod levers;
pub mod lump_sums;
pub mod medical;
pub mod not_computed;
pub mod other;
pub mod payments;
pub mod people;
pub mod plan;
pub mod points;
pub mod provisional;
pub mod rental;
pub mod retirement;
pub mod returns;
pub mod rounding;
pub mod season;
pub mod spread;
pub mod tax;
pub mod tax_free;
pub mod trade;
pub mod travel;
pub mod turnover_tax;

use figures::{COMMITTED, Figures, SOURCES, VERSION};
use hembo_core::{
    Case, Household, Outcome, Pack, Paper, Person,
    dates::{Deadline, DueDate},
    figures::{Book, Replacement},
    filing::FilingNeeds,
    forms::Forms,
    household::Entry,
    lever::Lever,
    line::SpreadSection,
    numbers::Numbers,
    pack::{About, DayOrder, Election, Page, Suggestion, Totals, caption_of},
    paper::{Keeping, PaperKind},
    point::NotComputed,
    provision::Declared,
    words::label_of,
};
use std::sync::Arc;
use time::Date;

/// The rule pack of South Africa.
#[derive(Debug)]
pub struct SouthAfrica {
    replaced: Option<Book<Figures>>,
}

impl SouthAfrica {
    /// With the committed figures.
    pub const COMMITTED: SouthAfrica = SouthAfrica { replaced: None };

    fn book(&self) -> &Book<Figures> {
        self.replaced.as_ref().unwrap_or(&COMMITTED)
    }
}

impl Pack for SouthAfrica {
    fn about(&self) -> About {
        About {
            id: "za",
            name: "South Africa",
            currency: "ZAR",
            symbol: "R",
            id_number: "ID number",
            id_shape: "000000 0000 000",
            days: DayOrder::YearMonthDay,
            numbers: Numbers::Point,
            page: Page::A4,
            locality: people::ask::RESIDENCE,
            relationship: people::ask::RELATIONSHIP,
        }
    }

    fn years(&self) -> Vec<i32> {
        self.book().years()
    }

    fn span(&self, year: i32) -> (Date, Date) {
        let [begin, end] = intake::span(year);
        (begin, end)
    }

    fn declared(&self) -> &'static Declared {
        &law::DECLARED
    }

    fn rules(&self) -> &[(i32, toml::Table)] {
        self.book().rules()
    }

    fn with(&self, replaced: &[Replacement]) -> Result<Arc<dyn Pack>, String> {
        let book = Book::read(VERSION, SOURCES, replaced)?;
        Ok(Arc::new(SouthAfrica { replaced: Some(book) }))
    }

    fn forms(&self, year: i32) -> &'static Forms {
        forms::of(year)
    }

    fn spread(&self) -> &'static [SpreadSection] {
        spread::SPREAD
    }

    fn totals(&self) -> &'static [Totals] {
        const SERVICE: Totals = Totals {
            authority: "Revenue Service",
            tax: payments::TOTAL,
            paid: payments::PAID,
            balance: payments::BALANCE,
        };
        &[SERVICE]
    }

    fn check_id_number(&self, number: &str) -> Result<(), &'static str> {
        id_number::check(number)
    }

    fn locality(&self, household: &Household) -> String {
        let answer = household.answers.get(people::ask::RESIDENCE).and_then(Entry::text);
        let label = answer.filter(|answer| *answer != "whole").and_then(|a| label_of(people::RESIDENCE, a));
        label.unwrap_or_default().into()
    }

    fn caption(&self, person: &Person) -> String {
        caption_of(person, people::ask::RELATIONSHIP, people::RELATIONSHIPS, "dependant")
    }

    fn suggestions(&self, _: &Household, _: &Paper) -> Vec<Suggestion> {
        Vec::new()
    }

    fn not_computed(&self) -> &'static [NotComputed] {
        &not_computed::NOT_COMPUTED
    }

    fn payer_titles(&self) -> &'static [&'static str] {
        &["Employer", "Payer", "Fund", "Scheme"]
    }

    fn held_kinds(&self) -> &'static [&'static str] {
        &["IRP5", "IT3(b)", "IT3(s)", "Annuity", "Scheme", "Lump sum", "IRP6", "Last year"]
    }

    fn filing_needs(&self) -> FilingNeeds {
        FilingNeeds { settled: &[], refund_account: Some(payments::ask::ACCOUNT) }
    }

    fn proof(&self, kind: &PaperKind) -> &'static str {
        match kind.id {
            "Donations" => "The s18A receipts with their numbers.",
            "Logbook" => "The logbook, the invoice of the vehicle, the odometer, slips of actual costs.",
            "Medical bills" => "Receipts with names, the scheme's statement, the ITR-DD.",
            "Home office" => "The employer's letter, a plan with areas, bills.",
            "Assets sold" => "Papers of purchase, improvement and sale.",
            _ => kind.usual_proof(),
        }
    }

    fn keeping(&self, year: i32) -> Keeping {
        let kept = self.book().of(year).map_or(0, |figures| figures.dates.kept_years);
        Keeping { until: format!("{}-02-28", year + kept + 1), cite: "TAA s 29(3)" }
    }

    fn dates(&self, outcome: &Outcome) -> Vec<DueDate> {
        let figures = self.book().of(outcome.year).map(AsRef::as_ref);
        figures.map(|figures| provisional::dates(outcome, figures)).unwrap_or_default()
    }

    fn own_assessment_dates(&self, year: i32, on: Date) -> Vec<DueDate> {
        let figures = self.book().of(year).unwrap_or_else(|| self.book().latest());
        season::own_assessment(&figures.dates, on)
    }

    fn document_deadline(&self, year: i32, asked: Date) -> Deadline {
        let figures = self.book().of(year).unwrap_or_else(|| self.book().latest());
        season::document(&figures.dates, asked)
    }

    fn levers(&self, household: &Household, outcome: &Outcome) -> Vec<Lever> {
        let figures = self.book().of(household.year).unwrap_or_else(|| self.book().latest());
        levers::levers(&intake::read(household, figures), household, outcome)
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
        Box::new(returns::SouthAfricanCase::new(facts, household))
    }
}
