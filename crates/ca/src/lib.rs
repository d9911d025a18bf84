//! Canada: the federal income tax of a household with that of its province, Ontario or Alberta.
//!
//! The modules stand in the order of the computation and are named after the provision or form; [`t1`] is that order.
//! Papers become [`facts`] once; every rule takes facts. Figures are in `rules/YEAR.toml`.

#![warn(clippy::disallowed_methods)]

pub mod alberta;
pub mod bringing;
mod case;
pub mod contributions;
pub mod cpp_ei;
pub mod dates;
pub mod deducting;
pub mod dividend_election;
pub mod dividends;
pub mod facts;
pub mod federal;
pub mod figures;
pub mod form_428;
pub mod forms;
pub mod gifts;
pub mod homes;
pub mod income;
pub mod intake;
pub mod law;
pub mod medical;
pub mod medical_division;
pub mod minimum_tax;
pub mod net_income;
pub mod not_computed;
pub mod ontario;
pub mod papers;
pub mod payments;
pub mod pension_split;
pub mod people;
pub mod personal;
pub mod plan;
pub mod points;
pub mod province;
pub mod provinces;
pub mod provincial;
pub mod provincial_law;
pub mod residence;
pub mod returns;
pub mod rounding;
pub mod sin;
pub mod spread;
pub mod t1;
pub mod transfers;
pub mod tuition;
pub mod workers_benefit;

use figures::{COMMITTED, Figures, SOURCES, VERSION};
use hembo_core::{
    Case, Household, Outcome, Pack, Paper, Person,
    dates::DueDate,
    figures::{Book, Replacement},
    forms::Forms,
    household::Entry,
    line::SpreadSection,
    pack::{About, DayOrder, Page, Suggestion, Totals, calendar_year, caption_of},
    paper::{Keeping, PaperKind},
    point::NotComputed,
    provision::Declared,
    words::label_of,
};
use std::sync::Arc;
use time::Date;

/// The Canadian rule pack.
#[derive(Debug)]
pub struct Canada {
    replaced: Option<Book<Figures>>,
}

impl Canada {
    /// With the committed figures.
    pub const COMMITTED: Canada = Canada { replaced: None };

    fn book(&self) -> &Book<Figures> {
        self.replaced.as_ref().unwrap_or(&COMMITTED)
    }
}

impl Pack for Canada {
    fn about(&self) -> About {
        About {
            id: "ca",
            name: "Canada",
            currency: "CAD",
            symbol: "C$",
            id_number: "SIN, ITN or TTN",
            id_shape: "000 000 000",
            days: DayOrder::YearMonthDay,
            page: Page::Letter,
            locality: residence::ask::PROVINCE,
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
        Ok(Arc::new(Canada { replaced: Some(book) }))
    }

    fn forms(&self, year: i32) -> &'static Forms {
        forms::of(year)
    }

    fn spread(&self) -> &'static [SpreadSection] {
        spread::SPREAD
    }

    fn totals(&self) -> &'static [Totals] {
        // Both taxes are paid on one return, to one agency.
        const AGENCY: Totals = Totals {
            authority: "federal and provincial",
            tax: payments::NET_TAX,
            paid: payments::PAID,
            balance: payments::BALANCE,
        };
        &[AGENCY]
    }

    fn check_id_number(&self, number: &str) -> Result<(), &'static str> {
        sin::check(number)
    }

    fn locality(&self, household: &Household) -> String {
        let province = household.answers.get(residence::ask::PROVINCE).and_then(Entry::text);
        province.and_then(|p| label_of(provinces::PROVINCES, p)).unwrap_or_default().into()
    }

    fn caption(&self, person: &Person) -> String {
        caption_of(person, people::ask::RELATIONSHIP, people::RELATIONSHIPS, "dependant")
    }

    fn suggestions(&self, household: &Household, paper: &Paper) -> Vec<Suggestion> {
        self.book().of(household.year).map(|figures| papers::suggestions(figures, paper)).unwrap_or_default()
    }

    fn not_computed(&self) -> &'static [NotComputed] {
        &not_computed::NOT_COMPUTED
    }

    fn payer_titles(&self) -> &'static [&'static str] {
        &["Employer", "Payer", "School", "From", "Trustee", "Fund"]
    }

    fn held_kinds(&self) -> &'static [&'static str] {
        &["T4", "T4A", "T4A(OAS)", "T4A(P)", "T5", "T2202", "RRSP", "Instalments", "Tuition carried"]
    }

    fn proof(&self, kind: &PaperKind) -> &'static str {
        match kind.id {
            "Gifts" => "The official receipts, with the charity's registration number (Reg. 3501).",
            "Medical" => "Receipts that name the patient, and what was paid back.",
            "RRSP" => "The contribution receipts of each half of the year.",
            "T2202" => "The certificate of the school.",
            _ => kind.usual_proof(),
        }
    }

    fn keeping(&self, year: i32) -> Keeping {
        // So many years from the end of the last year to which they relate.
        let figures = self.book().of(year);
        let until = figures.map(|figures| format!("{}-12-31", year + figures.dates.kept_years));
        Keeping { until: until.unwrap_or_default(), cite: "ITA 230(4)(b)" }
    }

    fn dates(&self, outcome: &Outcome) -> Vec<DueDate> {
        let figures = self.book().of(outcome.year).map(AsRef::as_ref);
        figures.map(|figures| dates::dates(outcome, figures)).unwrap_or_default()
    }

    fn withheld_box(&self, kind: &str) -> Option<&'static str> {
        match kind {
            "T4" | "T4A(OAS)" | "T4A(P)" => Some("22"),
            "T4A" => Some("022"),
            _ => None,
        }
    }

    fn version(&self) -> &str {
        self.book().version()
    }

    fn open<'h>(&self, household: &'h Household) -> Box<dyn Case + 'h> {
        // A checked household has a year whose figures are here; the latest stand in for one that was not checked.
        let figures = self.book().of(household.year).unwrap_or_else(|| self.book().latest());
        let facts = intake::read(household, figures);
        Box::new(returns::CanadianCase::new(facts, household))
    }
}
