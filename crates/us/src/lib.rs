//! The United States: the federal individual income tax of a household.
//!
//! The modules stand in the order of the computation and are named after the provision or form. Papers become
//! [`facts`] once; every rule takes facts. Figures are in `rules/YEAR.toml`.

#![warn(clippy::disallowed_methods)]

pub mod additional_deductions;
pub mod additional_taxes;
pub mod adoption;
pub mod asked;
pub mod bringing;
pub mod business;
pub mod business_deduction;
pub mod business_property;
pub mod california;
pub mod capital_gains;
pub mod care;
mod case;
pub mod child_credit;
pub mod claims;
pub mod clean_vehicles;
pub mod community;
pub mod credits;
pub mod dates;
pub mod deduction;
pub mod dependents;
pub mod due_diligence;
pub mod earlier_minimum_tax;
pub mod early_distributions;
pub mod earned_income_credit;
pub mod education;
pub mod education_bonds;
pub mod education_plans;
pub mod educators;
pub mod elderly;
pub mod elections;
pub mod every_paper;
pub mod excess_contributions;
pub mod excess_deferrals;
pub mod facts;
pub mod figures;
pub mod filing_duty;
pub mod filing_status;
pub mod foreign_accounts;
pub mod foreign_tax;
pub mod form_1040;
pub mod forms;
pub mod gains;
pub mod gains_tax;
pub mod government_payments;
pub mod health_savings;
pub mod home_energy;
pub mod home_office;
pub mod home_sale;
pub mod homebuyer_credit;
pub mod household_employees;
pub mod id_number;
pub mod incentive_options;
pub mod income;
pub mod intake;
pub mod ira_basis;
pub mod ira_deduction;
pub mod itemized_limit;
pub mod kiddie;
pub mod law;
pub mod long_term_care;
pub mod minimum_tax;
pub mod minimum_tax_items;
pub mod misclassified_pay;
pub mod mortgage_credit;
pub mod moving;
pub mod multiple_support;
pub mod nonresident;
pub mod not_computed;
pub mod operating_loss;
pub mod optional_earnings;
pub mod other_adjustments;
pub mod other_income;
pub mod papers;
pub mod parents_election;
pub mod pass_through;
pub mod passive_losses;
pub mod payments;
pub mod people;
pub mod points;
pub mod premium_tax_credit;
pub mod qualifying_child;
pub mod refund;
pub mod refunded_taxes;
pub mod release;
pub mod rental_depreciation;
pub mod rentals;
pub mod repayments;
pub mod retirement;
pub mod returns;
pub mod saver;
pub mod schedule_1;
pub mod schedule_a;
pub mod scholarships;
pub mod self_employed_cover;
pub mod self_employment;
pub mod signing;
pub mod social_security;
pub mod spread;
pub mod standard_deduction;
pub mod state_facts;
pub mod states;
pub mod status;
pub mod student_loan;
pub mod tax;
pub mod taxable_income;
pub mod taxed_later;
pub mod tie_breaker;
pub mod total_tax;
pub mod underpayment;
pub mod union_plan;
pub mod unit;
pub mod unitemized_gifts;
pub mod unreported_tips;
pub mod untaxed_pay;
pub mod who_files;

use figures::{COMMITTED, Figures, SOURCES, VERSION};
use hembo_core::{
    Case, Household, Outcome, Pack, Paper, Person,
    dates::DueDate,
    divide::Rule,
    field::Field,
    figures::{Book, Replacement},
    filing::FilingNeeds,
    forms::Forms,
    household::{Entry, Role},
    line::SpreadSection,
    numbers::Numbers,
    pack::{
        About, DayOrder, Election, Page, Question, Renamed, Suggestion, Totals, calendar_year, caption_of,
    },
    paper::{Keeping, PaperKind},
    point::NotComputed,
    provision::Declared,
    supposed::Steps,
    words::label_of,
};
use std::sync::Arc;
use time::Date;

/// The federal rule pack.
#[derive(Debug)]
pub struct UnitedStates {
    replaced: Option<Book<Figures>>,
}

impl UnitedStates {
    /// With the committed figures.
    pub const COMMITTED: UnitedStates = UnitedStates { replaced: None };

    fn book(&self) -> &Book<Figures> {
        self.replaced.as_ref().unwrap_or(&COMMITTED)
    }
}

/// The information returns that the authority gives out, and the payments on a taxpayer's account.
static HELD: [&str; 23] = [
    "W-2",
    "W-2G",
    "1040-ES",
    "1095-A",
    "1098",
    "1098-E",
    "1098-T",
    "1099-DIV",
    "1099-G",
    "1099-INT",
    "1099-LTC",
    "1099-NEC",
    "1099-OID",
    "1099-Q",
    "1099-R",
    "1099-SA",
    "2439",
    "5498",
    "K-1 1041",
    "K-1 1065",
    "K-1 1120-S",
    "Last year",
    "SSA-1099",
];

/// What titles of papers mean that name a payer.
static PAYERS: [&str; 14] = [
    "Employer",
    "Payer",
    "Lender",
    "Provider",
    "School",
    "Trustee",
    "Broker",
    "Broker or lender",
    "Insurer",
    "Fund",
    "Corporation",
    "Partnership",
    "Estate or trust",
    "Issued by",
];

impl Pack for UnitedStates {
    fn about(&self) -> About {
        About {
            id: "us",
            name: "United States",
            currency: "USD",
            symbol: "$",
            id_number: "SSN, ITIN or ATIN",
            id_shape: "000-00-0000",
            days: DayOrder::MonthDayYear,
            numbers: Numbers::Point,
            page: Page::Letter,
            locality: states::ask::STATE,
            relationship: dependents::ask::RELATIONSHIP,
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
        Ok(Arc::new(UnitedStates { replaced: Some(book) }))
    }

    fn forms(&self, year: i32) -> &'static Forms {
        forms::of(year)
    }

    fn spread(&self) -> &'static [SpreadSection] {
        spread::SPREAD
    }

    fn totals(&self) -> &'static [Totals] {
        const FEDERAL: Totals = Totals {
            authority: "federal",
            tax: total_tax::NET_TAX,
            paid: payments::PAID,
            balance: payments::BALANCE,
        };
        const CALIFORNIA: Totals = Totals {
            authority: "California",
            tax: california::payments::TAX,
            paid: california::payments::PAID,
            balance: california::payments::BALANCE,
        };
        &[FEDERAL, CALIFORNIA]
    }

    fn authority_of(&self, code: &str) -> &'static str {
        // Every check of a state has its letters before it.
        if code.starts_with("ca-") { "California" } else { "" }
    }

    fn check_id_number(&self, number: &str) -> Result<(), &'static str> {
        id_number::check(number)
    }

    fn one_home(&self, household: &Household) -> bool {
        household.answers.get(status::ask::APART).and_then(Entry::flag) != Some(true)
    }

    fn locality(&self, household: &Household) -> String {
        let state = household.answers.get(states::ask::STATE).and_then(Entry::text);
        state.and_then(|s| label_of(states::STATES, s)).unwrap_or_default().into()
    }

    fn is_asked(&self, household: &Household, person: &Person, question: &Question) -> bool {
        match question.field.id {
            release::ask::AWAY | release::ask::TO => release::is_likely(person),
            tie_breaker::ask::PARENT | tie_breaker::ask::PARENT_INCOME => {
                tie_breaker::is_likely(household, person)
            }
            nonresident::ask::FROM_HERE => {
                person.answers.get(nonresident::ask::NONRESIDENT_ALIEN).and_then(Entry::flag) == Some(true)
            }
            dependents::ask::RELATIONSHIP_SECOND => status::is_unmarried_pair(household),
            _ => true,
        }
    }

    fn renamed(&self) -> &'static [Renamed] {
        // What of a scholarship was entered as income is now what may be.
        &[Renamed { kind: Some("1098-T"), from: "taxed", to: "living" }]
    }

    fn blank(&self, person: &Person, field: &Field) -> Option<Entry> {
        if field.id == people::ask::WORK_SSN {
            return Some(Entry::Flag(people::number_for_work(person)));
        }
        // A child of the filers has a parent here.
        let child = person.answers.get(dependents::ask::RELATIONSHIP).and_then(Entry::text) == Some("child");
        if field.id == kiddie::ask::PARENT_ALIVE && person.role == Role::Dependent && child {
            return Some(Entry::Flag(true));
        }
        field.blank_entry()
    }

    fn caption(&self, person: &Person) -> String {
        caption_of(person, dependents::ask::RELATIONSHIP, dependents::RELATIONSHIPS, "dependent")
    }

    fn suggestions(&self, household: &Household, paper: &Paper) -> Vec<Suggestion> {
        self.book()
            .of(household.year)
            .map(|figures| papers::w2::suggestions(figures, paper))
            .unwrap_or_default()
    }

    fn not_computed(&self) -> &'static [NotComputed] {
        &not_computed::NOT_COMPUTED
    }

    fn steps(&self, household: &Household, paper: &str, row: &str) -> Option<Steps> {
        let figures = self.book().of(household.year)?.california_cover.as_ref()?;
        california::cover_months::steps(figures, household, paper, row)
    }

    fn settle_next(&self, before: &Household, next: &mut Household) {
        status::settle_next(before, next);
    }

    fn settle_divided(&self, before: &Household, half: &mut Household) {
        status::settle_divided(before, half);
        // An account of both is asked for anew.
        half.answers.remove(refund::ACCOUNT.id);
    }

    fn divides(&self) -> &'static [Rule] {
        &status::DIVIDES
    }

    fn payer_titles(&self) -> &'static [&'static str] {
        &PAYERS
    }

    fn held_kinds(&self) -> &'static [&'static str] {
        &HELD
    }

    fn filing_needs(&self) -> FilingNeeds {
        FilingNeeds { settled: signing::SETTLED, refund_account: Some(refund::ACCOUNT.id) }
    }

    fn proof(&self, kind: &PaperKind) -> &'static str {
        match kind.id {
            "Gifts" => {
                "A bank record or receipt of each gift of money; the charity's acknowledgment of each of 250 or more (§170(f)(8), (17))."
            }
            "Medical" => "The bills with what they were for, and what was paid back.",
            "Care" => "Form W-10 or the provider's number, and what was paid to whom.",
            "Schedule C" | "Schedule E" => "The books with the receipts behind them (§6001).",
            "HSA" => "Form 5498-SA, and bills for what was taken out.",
            "Educator" => "The receipts, and the hours at the school.",
            _ => kind.usual_proof(),
        }
    }

    fn keeping(&self, year: i32) -> Keeping {
        // From the day of filing, and a return filed early counts as filed on the day that it is due.
        let until = self.book().of(year).and_then(|figures| {
            let due = figures.underpayment.until.0;
            due.replace_year(due.year() + figures.records.kept_years).ok()
        });
        Keeping {
            until: until.map(|day| day.to_string()).unwrap_or_default(),
            cite: "IRC §§6001, 6501(a), (b)(1)",
        }
    }

    fn dates(&self, outcome: &Outcome) -> Vec<DueDate> {
        let of = |year| self.book().of(year).map(AsRef::as_ref);
        let figures = of(outcome.year);
        figures.map(|figures| dates::dates(outcome, figures, of(outcome.year + 1))).unwrap_or_default()
    }

    fn withheld_box(&self, kind: &str) -> Option<&'static str> {
        match kind {
            "W-2" => Some("2"),
            "SSA-1099" => Some("6"),
            "W-2G" | "1099-DIV" | "1099-G" | "1099-INT" | "1099-NEC" | "1099-OID" | "1099-R" => Some("4"),
            _ => None,
        }
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
        Box::new(returns::FederalCase::new(intake::read(household, figures), household))
    }
}
