//! Canada: the federal income tax of a household with that of its province or territory; Quebec is not here.
//!
//! The modules stand in the order of the computation and are named after the provision or form; [`t1`] is that order.
//! Papers become [`facts`] once; every rule takes facts. Figures are in `rules/YEAR`: the federal file, and one of each province.

#![warn(clippy::disallowed_methods)]

pub mod adoption;
pub mod alberta;
pub mod bringing;
pub mod british_columbia;
pub mod business;
pub mod capital_cost;
pub mod capital_gains;
pub mod caregivers;
mod case;
pub mod child_care;
pub mod contributions;
pub mod cpp_ei;
pub mod credits;
pub mod dates;
pub mod days;
pub mod deducting;
pub mod dependants;
pub mod disability;
pub mod disability_supports;
pub mod discount_note;
pub mod dividend_election;
pub mod dividends;
pub mod earlier_minimum_tax;
pub mod employment_expenses;
pub mod facts;
pub mod family_benefits;
pub mod federal;
pub mod figures;
pub mod first_home;
pub mod foreign_income;
pub mod foreign_property;
pub mod foreign_tax;
pub mod form_428;
pub mod forms;
pub mod gains_exemption;
pub mod gifts;
pub mod home_credits;
pub mod homes;
pub mod income;
pub mod intake;
pub mod law;
pub mod loan_interest;
pub mod lump_sums;
pub mod manitoba;
pub mod medical;
pub mod medical_division;
pub mod medical_months;
mod medical_shown;
pub mod minimum_tax;
pub mod net_income;
pub mod new_brunswick;
pub mod newfoundland;
pub mod non_capital;
pub mod northern;
pub mod northwest;
pub mod not_computed;
pub mod nova_scotia;
pub mod nunavut;
pub mod ontario;
pub mod other_deductions;
pub mod others_medical;
pub mod papers;
pub mod part_year;
pub mod partner_elsewhere;
pub mod payments;
pub mod pension_split;
pub mod people;
pub mod personal;
pub mod plan;
pub mod points;
pub mod prince_edward;
pub mod province;
pub mod provinces;
pub mod provincial;
pub mod provincial_adoption;
pub mod provincial_credits;
pub mod provincial_law;
pub mod provincial_tuition;
pub mod receipts;
pub mod rental;
pub mod residence;
pub mod returns;
pub mod rounding;
pub mod saskatchewan;
pub mod separation;
pub mod shares;
pub mod sin;
pub mod small_credits;
pub mod special_foreign_credit;
pub mod split_income;
pub mod spread;
pub mod t1;
pub mod told;
pub mod transfers;
pub mod tuition;
pub mod volunteers;
pub mod widowed;
pub mod workers_benefit;
pub mod year_of_death;
pub mod young_children;
pub mod yukon;

use figures::{COMMITTED, Figures, SOURCES, VERSION};
use hembo_core::{
    Case, Household, Outcome, Pack, Paper, Person,
    dates::DueDate,
    figures::{Book, Replacement},
    forms::Forms,
    household::Entry,
    line::SpreadSection,
    numbers::Numbers,
    pack::{About, DayOrder, Page, Question, Suggestion, Totals, calendar_year, caption_of},
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
            numbers: Numbers::Point,
            page: Page::Letter,
            locality: provinces::ask::PROVINCE,
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
        let province = household.answers.get(provinces::ask::PROVINCE).and_then(Entry::text);
        province.and_then(|p| label_of(provinces::PROVINCES, p)).unwrap_or_default().into()
    }

    fn is_asked(&self, household: &Household, person: &Person, question: &Question) -> bool {
        let id = question.field.id;
        partner_elsewhere::is_asked(person, id) && part_year::is_asked(household, id)
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
        &["Employer", "Payer", "School", "From", "Trustee", "Fund", "Issuer"]
    }

    fn held_kinds(&self) -> &'static [&'static str] {
        &[
            "T4",
            "T4A",
            "T4A(OAS)",
            "T4A(P)",
            "T4E",
            "T4RSP",
            "T4RIF",
            "T3",
            "T5",
            "T5007",
            "T2202",
            "RRSP",
            "Instalments",
            "Tuition carried",
            "Capital losses",
        ]
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
            "T4" | "T4A(OAS)" | "T4A(P)" | "T4E" => Some("22"),
            "T4A" => Some("022"),
            "T4RSP" => Some("30"),
            "T4RIF" => Some("28"),
            _ => None,
        }
    }

    /// A note that was sold or has matured does not come again; who outlived a partner is widowed.
    fn settle_next(&self, before: &Household, next: &mut Household) {
        let (_, year_end) = calendar_year(before.year);
        let ended = |paper: &Paper| discount_note::has_ended(paper, year_end);
        next.papers.retain(|paper| !before.paper(&paper.id).is_some_and(ended));
        year_of_death::settle_next(before, next);
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
