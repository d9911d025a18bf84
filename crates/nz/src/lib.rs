//! New Zealand: the income tax of a household, years ended 31 March.
//!
//! The modules stand in the order of the computation and are named after the provision or form. Papers become [`facts`] once; every
//! rule takes facts. Figures are in `rules/YEAR.toml`; a year is named by the calendar year in which it ends.

#![warn(clippy::disallowed_methods)]

pub mod asked;
pub mod bringing;
mod case;
pub mod children;
pub mod donations;
pub mod elections;
pub mod facts;
pub mod families;
pub mod family_boost;
pub mod figures;
pub mod foreign_funds;
pub mod forms;
pub mod income;
pub mod intake;
pub mod investments;
pub mod ird_number;
pub mod land;
pub mod last_assessment;
pub mod law;
pub mod levers;
pub mod managed_funds;
pub mod not_computed;
pub mod other;
pub mod overseas;
pub mod pay;
pub mod payments;
pub mod people;
pub mod plan;
pub mod points;
pub mod provisional;
pub mod rental;
pub mod residence;
pub mod returns;
pub mod rounding;
pub mod spread;
pub mod student_loan;
pub mod tax;
pub mod trade;
pub mod trusts;

use figures::{COMMITTED, Figures, SOURCES, VERSION};
use hembo_core::{
    Case, Household, Outcome, Pack, Paper, Person,
    dates::DueDate,
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

/// The rule pack of New Zealand.
#[derive(Debug)]
pub struct NewZealand {
    replaced: Option<Book<Figures>>,
}

impl NewZealand {
    /// With the committed figures.
    pub const COMMITTED: NewZealand = NewZealand { replaced: None };

    fn book(&self) -> &Book<Figures> {
        self.replaced.as_ref().unwrap_or(&COMMITTED)
    }
}

impl Pack for NewZealand {
    fn about(&self) -> About {
        About {
            id: "nz",
            name: "New Zealand",
            currency: "NZD",
            symbol: "NZ$",
            id_number: "IRD number",
            id_shape: "000-000-000",
            days: DayOrder::DayMonthYear,
            numbers: Numbers::Point,
            page: Page::A4,
            locality: residence::ask::RESIDENCE,
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
        Ok(Arc::new(NewZealand { replaced: Some(book) }))
    }

    fn forms(&self, year: i32) -> &'static Forms {
        forms::of(year)
    }

    fn spread(&self) -> &'static [SpreadSection] {
        spread::SPREAD
    }

    fn totals(&self) -> &'static [Totals] {
        const REVENUE: Totals = Totals {
            authority: "Inland Revenue",
            tax: payments::NET_TAX,
            paid: payments::PAID,
            balance: payments::BALANCE,
        };
        &[REVENUE]
    }

    fn check_id_number(&self, number: &str) -> Result<(), &'static str> {
        ird_number::check(number)
    }

    fn locality(&self, household: &Household) -> String {
        let answer = household.answers.get(residence::ask::RESIDENCE).and_then(Entry::text);
        let label =
            answer.filter(|answer| *answer != "whole").and_then(|a| label_of(residence::RESIDENCE, a));
        label.unwrap_or_default().into()
    }

    fn caption(&self, person: &Person) -> String {
        caption_of(person, people::ask::RELATIONSHIP, people::RELATIONSHIPS, "dependant")
    }

    fn suggestions(&self, _: &Household, paper: &Paper) -> Vec<Suggestion> {
        investments::suggestions(paper)
    }

    fn not_computed(&self) -> &'static [NotComputed] {
        &not_computed::NOT_COMPUTED
    }

    fn payer_titles(&self) -> &'static [&'static str] {
        &["Payer", "Company", "Fund", "From"]
    }

    fn held_kinds(&self) -> &'static [&'static str] {
        &[
            "Pay",
            "Schedular",
            "Interest",
            "Dividend",
            "Māori authority",
            "PIE",
            "Trust",
            "Provisional tax",
            "Last year",
        ]
    }

    fn filing_needs(&self) -> FilingNeeds {
        FilingNeeds { settled: &[], refund_account: Some(payments::ask::ACCOUNT) }
    }

    fn proof(&self, kind: &PaperKind) -> &'static str {
        match kind.id {
            "Donations" => "The receipts with the donor's name (ITA LD 3(2)).",
            "Own trade" => "Invoices, the logbook, bills of the home (TAA 22).",
            "Land sold" => "Both agreements, the title, bills of what was improved.",
            _ => kind.usual_proof(),
        }
    }

    fn keeping(&self, year: i32) -> Keeping {
        let kept = self.book().of(year).map_or(0, |figures| figures.dates.kept_years);
        Keeping { until: format!("{}-03-31", year + kept), cite: "TAA 22(2)" }
    }

    fn dates(&self, outcome: &Outcome) -> Vec<DueDate> {
        let figures = self.book().of(outcome.year).map(AsRef::as_ref);
        figures.map(|figures| provisional::dates(outcome, figures)).unwrap_or_default()
    }

    fn withheld_box(&self, kind: &str) -> Option<&'static str> {
        match kind {
            "Pay" => Some("paye"),
            "Schedular" => Some("tax"),
            "Interest" | "Dividend" => Some("rwt"),
            _ => None,
        }
    }

    /// The year before is the one before that now.
    fn settle_next(&self, before: &Household, next: &mut Household) {
        last_assessment::settle_next(before, next);
    }

    fn own_assessment_dates(&self, year: i32, _: Date) -> Vec<DueDate> {
        let figures = self.book().of(year).unwrap_or_else(|| self.book().latest());
        let words =
            "Then it is final, unless the notice names a later day; what is missing in it is a duty to tell.";
        vec![DueDate {
            day: figures.dates.due.0,
            what: "Corrected, or completed".into(),
            whose: String::new(),
            amount: None,
            words: words.into(),
            cite: "TAA subpart 3B".into(),
        }]
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
        Box::new(returns::NewZealandCase::new(facts, household))
    }
}
