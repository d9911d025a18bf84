//! Children in care by days (ITA MC 2, MC 8, MD 3, MG 1): what the family scheme starts from, before any income.

use crate::{facts::Children, figures::Figures, people, rounding::portion};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    outcome::age_on,
    settled,
};
use hembo_money::{Money, Rounding};
use time::{Date, Month};

/// A child in care.
struct Child {
    born: Date,
    /// Per cent of the time here.
    share: i64,
    at_school: bool,
    /// Days of paid parental leave for it.
    leave: i64,
    passive: Money,
}

impl Child {
    fn of(person: &Person, figures: &Figures) -> Option<Child> {
        let answer = |question: &str| person.answers.get(question);
        let share = answer(people::ask::CARE).and_then(Entry::count).unwrap_or(100);
        let here = person.role == Role::Dependent
            && answer(people::ask::RELATIONSHIP).and_then(Entry::text) == Some("child")
            && share >= figures.families.share_least;
        let child = Child {
            born: person.born?,
            share,
            at_school: answer(people::ask::SCHOOL).and_then(Entry::flag).unwrap_or(false),
            leave: answer(people::ask::LEAVE_WEEKS).and_then(Entry::count).unwrap_or(0) * 7,
            passive: answer(people::ask::PASSIVE).and_then(Entry::money).unwrap_or_default(),
        };
        here.then_some(child)
    }

    /// Whether it counts on a day: under 18, and at 18 to the end of that calendar year where it is still at school.
    fn counts(&self, day: Date, to: i32) -> bool {
        if day < self.born {
            return false;
        }
        let age = age_on(self.born, day);
        let last = Date::from_calendar_date(self.born.year() + to, Month::December, 31).unwrap_or(Date::MAX);
        age < to || (age == to && self.at_school && day <= last)
    }

    fn age(&self, day: Date) -> Option<i32> {
        (day >= self.born).then(|| age_on(self.born, day))
    }
}

/// Days of a child in the year.
#[derive(Default, Clone)]
struct Days {
    as_eldest: i64,
    as_next: i64,
    untested: i64,
    tested: i64,
}

/// What the children of a household come to.
pub fn read(household: &Household, figures: &Figures, [begin, end]: [Date; 2]) -> Children {
    let mut children: Vec<Child> =
        household.people.iter().filter_map(|person| Child::of(person, figures)).collect();
    children.sort_by_key(|child| child.born);
    let mut days = vec![Days::default(); children.len()];
    let (mut with_child, mut with_tested, mut further) = (0, 0, 0);
    let mut day = begin;
    while day <= end {
        let counted: Vec<usize> =
            (0..children.len()).filter(|&c| children[c].counts(day, figures.families.child_to)).collect();
        for (place, &child) in counted.iter().enumerate() {
            let of = &mut days[child];
            if place == 0 { of.as_eldest += 1 } else { of.as_next += 1 }
        }
        let tested = start_days(&children, &mut days, figures, day);
        with_child += i64::from(!counted.is_empty());
        with_tested += i64::from(tested);
        further += settled::greater(counted.len() as i64 - figures.families.in_work_children, 0);
        day = day.next_day().unwrap_or(Date::MAX);
    }
    let year = (end - begin).whole_days() + 1;
    let families = &figures.families;
    let mut found = Children { days: with_child, start_days: with_tested, ..Children::default() };
    for (child, days) in children.iter().zip(&days) {
        let of = |amount: Money| {
            amount.in_proportion(
                Money::whole(child.share),
                Money::whole(100 * year),
                Money::CENT,
                Rounding::HalfUp,
            )
        };
        found.credit += of(families.eldest * days.as_eldest + families.next * days.as_next);
        let untested = settled::greater(days.untested - child.leave, 0);
        found.start_untested += of(figures.best_start.amount * untested);
        found.start_tested += of(figures.best_start.amount * days.tested);
        if days.as_eldest + days.as_next > 0 {
            found.passive_income += settled::or_zero(child.passive - families.child_income_free);
        }
    }
    found.in_work = in_work(figures, year) + portion(families.in_work_next * further, 1, year);
    found
}

/// Counts a day for Best Start; whether any child is tested on it.
fn start_days(children: &[Child], days: &mut [Days], figures: &Figures, day: Date) -> bool {
    let mut any = false;
    for (child, days) in children.iter().zip(days) {
        match child.age(day) {
            Some(age) if age < figures.best_start.untested_years => days.untested += 1,
            Some(age) if age < figures.best_start.years => {
                days.tested += 1;
                any = true;
            }
            _ => {}
        }
    }
    any
}

/// The in-work credit of a year with up to three children: where it changed within the year each amount for its days.
fn in_work(figures: &Figures, year: i64) -> Money {
    let all: Money = figures.families.in_work.iter().map(|part| part.year * part.days).sum();
    portion(all, 1, year)
}
