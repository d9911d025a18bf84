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

use figures::{Figures, YEARS};
use hembo_core::{
    Case, Household, Pack, Paper, Person,
    forms::Forms,
    household::Entry,
    line::SpreadSection,
    pack::{About, DayOrder, Suggestion, Totals, calendar_year, caption_of},
    point::NotComputed,
    provision::Declared,
    words::label_of,
};
use time::Date;

/// The Canadian rule pack.
pub struct Canada;

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
        }
    }

    fn years(&self) -> Vec<i32> {
        YEARS.iter().map(|f| f.year).collect()
    }

    fn span(&self, year: i32) -> (Date, Date) {
        calendar_year(year)
    }

    fn declared(&self) -> &'static Declared {
        &law::DECLARED
    }

    fn rules(&self) -> &'static [(i32, &'static str)] {
        figures::SOURCES
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
        Figures::of(household.year).map(|figures| papers::suggestions(figures, paper)).unwrap_or_default()
    }

    fn not_computed(&self) -> &'static [NotComputed] {
        &not_computed::NOT_COMPUTED
    }

    fn version(&self) -> &'static str {
        env!("HEMBO_RULES")
    }

    fn open<'h>(&self, household: &'h Household) -> Box<dyn Case + 'h> {
        // A checked household has a year whose figures are here; the latest stand in for one that was not checked.
        let figures = Figures::of(household.year).unwrap_or(&YEARS[0]);
        let facts = intake::read(household, figures);
        Box::new(returns::CanadianCase::new(facts, household))
    }
}
