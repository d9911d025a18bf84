//! The household's loose papers as typed amounts, each with its box.

use crate::{
    days::PartYear,
    figures::Figures,
    receipts::{Division, Receipt, Window},
    told::{Agreed, Told},
};
use hembo_core::{
    brought::Records,
    decision::Opt,
    household::{Answers, Entry},
    outcome::age_on,
    trail::Item,
    words::first_name,
};
use hembo_money::Money;
use std::sync::Arc;
use time::Date;

/// Everything the rules ask about a household.
#[derive(Debug)]
pub struct Facts {
    /// The year's figures.
    pub figures: Arc<Figures>,
    /// The first day of the year.
    pub year_begin: Date,
    /// The last day of the year.
    pub year_end: Date,
    /// The people, in the household's order.
    pub people: Vec<PersonFacts>,
    /// The filers, by place.
    pub filers: Vec<usize>,
    /// Those who file a return, in the order of the columns: the filers, then dependants with papers of their own.
    pub returns: Vec<usize>,
    /// The two filers are married or live common-law on the last day of the year.
    pub couple: bool,
    /// The partner of the one filer, whose return is not prepared here.
    pub elsewhere: Option<usize>,
    /// Net income, until the separation in this year, of a former partner.
    pub former: Option<Money>,
    /// A filer is married or lives common-law, here or elsewhere.
    pub partnered: bool,
    /// Months of the year as a couple, to that of a death.
    pub months_together: i64,
    /// The code of the province of residence, where its tax is computed.
    pub province: Option<&'static str>,
    /// The code of the province of residence.
    pub province_code: Option<String>,
    /// Nothing moves the net incomes of a couple, which are the same: who claims child care is left to them.
    pub care_by_agreement: bool,
    /// Weeks, and months of part-time studies, in which both of a couple studied.
    pub care_weeks_both: i64,
    /// Benefits count in what is minimised.
    pub counts_benefits: bool,
    /// Whose income assistance is does not depend on a way.
    pub assistance_settled: bool,
    /// Months in a rented home of the province.
    pub rented_months: i64,
    /// Medical receipts for the filers and their children under 18 who live, by date.
    pub medical: Vec<Receipt>,
    /// Those for the ones who died in the year, by person and date.
    pub medical_of_dead: Vec<Vec<Receipt>>,
    /// What of them is claimed: of each the most of 24 months with the day of death in them.
    pub claimed_of_dead: Vec<Receipt>,
    /// Medical receipts of other dependants, by person and date.
    pub medical_of_others: Vec<Vec<Receipt>>,
    /// The windows of twelve months for which they may be claimed.
    pub windows: Vec<Window>,
    /// What bears on their division between partners; nothing where there are none, or no couple.
    pub division: Option<Division>,
    /// Gifts of both partners, of this year and of the five before.
    pub gifts: Vec<Item>,
    /// The businesses of everybody.
    pub businesses: Vec<Business>,
}

/// A business, by its accounts.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Business {
    /// Whose it is, by place.
    pub owner: usize,
    /// Income before capital cost and the home, below zero a loss, and its place.
    pub before: Item,
    /// The most of capital cost.
    pub capital_cost: Item,
    /// Expenses of the home, of the year and carried in.
    pub home: Money,
}

/// An emergency volunteer.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Volunteer {
    Firefighter,
    Search,
}

impl Volunteer {
    /// As it is answered.
    pub fn read(answer: &str) -> Option<Volunteer> {
        match answer {
            "fire" => Some(Volunteer::Firefighter),
            "search" => Some(Volunteer::Search),
            _ => None,
        }
    }
}

/// One person's facts.
#[derive(Debug, Default)]
#[allow(missing_docs)]
pub struct PersonFacts {
    pub name: String,
    pub id: String,
    pub filer: bool,
    pub born: Option<Date>,
    pub died: Option<Date>,
    /// Of the year outside Canada.
    pub part_year: PartYear,
    /// Age at the end of the year, or at death.
    pub age: Option<i32>,
    /// A child, own or a partner's.
    pub child: bool,
    /// A parent or grandparent.
    pub elder: bool,
    /// A child or grandchild, whose tuition may be handed on to a filer (ITA 118.9(1)).
    pub descendant: bool,
    /// A child, grandchild, brother or sister.
    pub young_relative: bool,
    /// A full-time student for over 13 weeks; none where it was not said.
    pub full_time_student: Option<bool>,
    /// A relative for whom caregiver amounts can be claimed (ITA 118(1)B(d), 118(6)).
    pub related: bool,
    pub infirm: bool,
    /// With an approved certificate T2201, and no full-time care claimed among medical expenses.
    pub disabled: bool,
    /// An emergency volunteer of enough hours.
    pub volunteer: Option<Volunteer>,
    /// Care of this child in anyone's claim.
    pub care_claimed: Money,
    /// Weeks in which this filer could not care for children.
    pub care_weeks: i64,
    /// Months as a part-time student.
    pub care_months: i64,
    pub support_paid: bool,
    pub claimed_elsewhere: bool,
    pub maintains_home: bool,
    /// Half of the time with another household.
    pub shared_custody: bool,
    /// Lived with a filer at some time in the year.
    pub lives_here: bool,
    /// Net income that is not among the papers.
    pub other_net_income: Money,
    /// What of it is taken off again at line 25000.
    pub not_taxed: Money,
    /// Of a partner whose return is not prepared here.
    pub told: Told,
    /// Any paper at all that makes income, or tuition.
    pub files: bool,
    /// What papers bring to this person.
    pub own: Records,
}

impl PersonFacts {
    /// Age on a day.
    pub fn age_on(&self, day: Date) -> Option<i32> {
        self.born.map(|born| age_on(born, day))
    }
}

impl Facts {
    /// Whether someone has reached an age by the end of the year; not where the birth date is not known.
    pub fn reached(&self, person: usize, age: i32) -> bool {
        self.people[person].age.is_some_and(|reached| reached >= age)
    }

    /// The first of a person's names.
    pub fn first_name(&self, person: usize) -> &str {
        first_name(&self.people[person].name)
    }

    /// Whether someone is a child, own or a partner's, who has not reached an age by the end of the year.
    pub fn is_child_under(&self, person: usize, age: i32) -> bool {
        let who = &self.people[person];
        !who.filer && who.child && who.born.is_some() && !self.reached(person, age)
    }

    /// How many such children there are.
    pub fn children_under(&self, age: i32) -> i64 {
        (0..self.people.len()).filter(|&p| self.is_child_under(p, age)).count() as i64
    }

    /// The filers as options of a decision between them, each named in a way by `short` of the first name.
    pub fn filer_options(&self, short: impl Fn(&str) -> String) -> Vec<Opt> {
        self.options(&self.filers, short)
    }

    /// People as options of a decision between them.
    pub fn options(&self, people: &[usize], short: impl Fn(&str) -> String) -> Vec<Opt> {
        let option = |&p: &usize| {
            let person = &self.people[p];
            Opt::new(person.id.as_str(), person.name.as_str(), short(self.first_name(p)))
        };
        people.iter().map(option).collect()
    }

    /// Whether someone files a return.
    pub fn files(&self, person: usize) -> bool {
        self.returns.contains(&person)
    }

    /// The split of pension income of a filer with a partner whose return is not prepared here.
    pub fn agreed_split(&self, person: usize) -> Option<Agreed> {
        let split = self.people[self.elsewhere?].told.split;
        (self.filers.contains(&person) && split != Agreed::default()).then_some(split)
    }

    /// The two of a couple, the first filer first.
    pub fn pair(&self) -> Option<[usize; 2]> {
        let second = if self.couple { self.filers.get(1).copied() } else { self.elsewhere };
        Some([*self.filers.first()?, second?])
    }

    /// The filers, and the partner whose return is not prepared here.
    pub fn adults(&self) -> impl Iterator<Item = usize> + '_ {
        self.filers.iter().copied().chain(self.elsewhere)
    }

    /// Whether someone has died by the end of the year.
    pub fn died(&self, person: usize) -> bool {
        self.people[person].died.is_some_and(|died| died <= self.year_end)
    }

    /// The month in which someone's year ends: that of a death, else the last.
    pub fn last_month(&self, person: usize) -> i64 {
        let died = self.people[person].died.filter(|_| self.died(person));
        died.map_or(12, |day| i64::from(u8::from(day.month())))
    }

    /// The one of a couple who died in the year, where the other lives.
    pub fn deceased(&self) -> Option<usize> {
        let [first, second] = self.pair()?;
        match (self.died(first), self.died(second)) {
            (true, false) => Some(first),
            (false, true) => Some(second),
            _ => None,
        }
    }

    /// Who outlived the other of a couple in the year.
    pub fn survivor(&self) -> Option<usize> {
        self.partner(self.deceased()?)
    }

    /// The other of a couple.
    pub fn partner(&self, person: usize) -> Option<usize> {
        let [first, second] = self.pair()?;
        match person {
            _ if person == first => Some(second),
            _ if person == second => Some(first),
            _ => None,
        }
    }

    /// The filer who was without a partner at some time in the year: all of it, or from a death on.
    pub fn alone(&self) -> Option<usize> {
        let single = self.filers.first().copied().filter(|_| !self.partnered && self.filers.len() == 1);
        single.or(self.survivor().filter(|&survivor| self.people[survivor].filer))
    }

    /// The filer who may claim an eligible dependant: alone, and keeps the home of one.
    pub fn keeps_alone(&self) -> Option<usize> {
        self.alone().filter(|&filer| self.people[filer].maintains_home)
    }

    /// With whom someone lives as a couple at the end of the own year, which is the day of a death (ITA 122.6 'cohabiting spouse or
    /// common-law partner', by which incomes of a family are measured): who outlived the other is alone.
    pub fn partner_at_end(&self, person: usize) -> Option<usize> {
        self.partner(person).filter(|_| self.survivor() != Some(person))
    }

    /// Whether a contribution of `owner` came after the year in which its annuitant, the owner or the partner, reaches
    /// the last age (ITA 146(5), (5.1)).
    pub fn contribution_too_late(&self, owner: usize, cells: &Answers, date: Option<Date>) -> bool {
        let of_partner = cells.get("plan").and_then(Entry::text) == Some("spouse");
        let annuitant = if of_partner { self.partner(owner) } else { Some(owner) };
        let born = annuitant.and_then(|a| self.people[a].born);
        let year = date.map_or(self.year_end.year(), Date::year);
        born.is_some_and(|born| year - born.year() > self.figures.rrsp.last_age)
    }

    /// Whether receipts for this patient count with those of the filers: themselves and their children under 18
    /// (ITA 118.2(1) B).
    pub fn medical_counts(&self, patient: usize) -> bool {
        let facts = &self.people[patient];
        let young = !self.reached(patient, self.figures.medical.child_under);
        facts.filer || self.elsewhere == Some(patient) || (facts.child && young)
    }
}
