//! A child's interest and dividends on the parents' return (§1(g)(7)), Form 8814: the child then files none. A choice for each child.

use crate::{
    bringing, capital_gains,
    facts::{Facts, Payment},
    other_income,
    papers::{dividends, interest, tuition},
    qualifying_child, status,
    unit::{Filed, On},
};
use hembo_core::{
    brought::Brought,
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    forms::Required,
    line::LineId,
    lines,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Inputs, Scope, Trail},
    words::first_name,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, figures: &["kiddie", "dependents"], ..Provision::NONE };

lines! {
    pub ALL_OF = "us.8814.4", "Income of the child", "IRC §1(g)(7)(A)",
        "Interest, dividends and distributions of capital gain.";
    pub QUALIFIED = "us.8814.9", "Qualified dividends of children", "IRC §1(g)(7)(B)",
        "Their part of what is above the amount that is spared.";
    pub DISTRIBUTED = "us.8814.10", "Distributions of capital gain of children", "IRC §1(g)(7)(B)",
        "Their part of what is above the amount that is spared.";
    pub REST = "us.8814.12", "Other income of children", "IRC §1(g)(7)(B)",
        "The rest of what is above the amount that is spared.";
    pub TAX = "us.8814.15", "Tax on children's income that is spared", "IRC §1(g)(7)(B)(ii)",
        "10 % of what is above a first amount, up to as much again.";
}

/// What a child has, as the form asks for it.
#[derive(Debug, Clone, Copy, Default)]
pub struct Child {
    interest: Money,
    dividends: Money,
    qualified: Money,
    distributed: Money,
    /// Of the Alaska Permanent Fund.
    fund: Money,
}

impl Child {
    /// What a person has of it.
    pub fn of(facts: &Facts, person: usize) -> Child {
        let own = &facts.people[person].own;
        let all = |kind: &'static Brought| sum(own.of(kind)).to_whole();
        Child {
            interest: all(&interest::brings::INTEREST),
            dividends: all(&dividends::brings::ORDINARY),
            qualified: all(&dividends::brings::QUALIFIED),
            distributed: all(&capital_gains::brings::DISTRIBUTIONS),
            fund: other_income::of_fund(own).to_whole(),
        }
    }

    /// Line 4.
    pub fn all(&self) -> Money {
        self.interest + self.dividends + self.distributed + self.fund
    }

    /// What of it goes on the parents' return, lines 9 to 12.
    pub fn above(&self, facts: &Facts) -> Money {
        settled::or_zero(self.all() - facts.figures.kiddie.unearned_above)
    }
}

/// Whether a child's income may go on the parents' return: only such income, between two amounts, nothing withheld or paid ahead.
fn may(facts: &Facts, person: usize) -> bool {
    let (figures, about) = (&facts.figures.kiddie, &facts.people[person]);
    let all = Child::of(facts, person).all();
    let ahead: &[Payment] = about.own.of(&bringing::brings::ESTIMATED);
    let withheld = [&bringing::brings::WITHHELD, &bringing::brings::WITHHELD_OTHER];
    has_only_such_income(facts, person)
        && all > figures.election_above
        && all < figures.election_below
        && ahead.is_empty()
        && withheld.into_iter().all(|kind| !about.own.has(kind))
}

/// Whether someone is a filer's child of the age, with no income but interest, dividends and distributions of capital gain.
pub fn has_only_such_income(facts: &Facts, person: usize) -> bool {
    let (figures, about, end) = (&facts.figures.kiddie, &facts.people[person], facts.year_end);
    let student = about.student_months >= facts.figures.dependents.student_months;
    let young =
        !about.reached(figures.student_from_age, end) || (student && !about.reached(figures.under, end));
    about.born.is_some()
        && young
        && !about.files_joint
        && facts.child_of_filers(person)
        && about.gross_income == Child::of(facts, person).all()
        && !about.own.has(&capital_gains::brings::SALES)
        && !about.own.has(&capital_gains::brings::THROUGH_SHORT)
        && !about.own.has(&capital_gains::brings::THROUGH_LONG)
        && !about.own.has(&interest::brings::EXEMPT_INTEREST)
}

/// Where a child's income goes.
pub static ELECTION: Open<Facts> = Open::new(
    |facts: &Facts| facts.own_returns.iter().copied().filter(|&p| may(facts, p)).collect(),
    |facts, person| {
        let about = &facts.people[person];
        let short = format!("{} with the parents", first_name(&about.name));
        let options = vec![
            Opt::new("own", "A return of its own", ""),
            Opt::new("parents", "On the parents' return, Form 8814", short),
        ];
        Decision::between(
            format!("us.child_income.{}", about.id),
            format!("Income of {}", about.name),
            "IRC §1(g)(7)",
            options,
        )
    },
)
.bars(|facts, person, option, way| if option == 0 { None } else { bar(facts, person, way) });

/// Why a child's income cannot go on the parents' return in a way.
pub fn bar(facts: &Facts, person: usize, way: Chosen<'_, '_, Facts>) -> Option<Bar> {
    let here = qualifying_child::over_half_the_year(facts, &facts.filers[..1], person);
    if status::separate(facts, way) {
        Some(Bar::Borrowed("on separate returns not weighed here"))
    } else if !tuition::taken_by(way, facts, person).is_zero() {
        Some(Bar::Borrowed("a scholarship is income"))
    } else if !facts.couple() && !here {
        Some(Bar::Borrowed("did not live here over half the year"))
    } else {
        None
    }
}

/// The children whose income a way puts on the parents' return, federally or by the election of a state.
pub fn elected(way: Chosen<'_, '_, Facts>, election: &'static Open<Facts>) -> Vec<usize> {
    way.each(election).filter(|(_, option)| *option == Some(1)).map(|(person, _)| person).collect()
}

/// Whether a way puts a child's income there.
pub fn is_elected(way: Chosen<'_, '_, Facts>, election: &'static Open<Facts>, person: usize) -> bool {
    way.taken(election, person) == Some(1)
}

/// What children bring to the parents' return.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Elected {
    pub qualified: Money,
    pub distributed: Money,
    pub rest: Money,
    /// What of the rest is no net investment income: the Alaska Permanent Fund.
    pub fund: Money,
    pub tax: Money,
}

/// Form 8814 of every child.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Elected {
    let mut all = Elected::default();
    if on.unit.elected.is_empty() {
        return all;
    }
    let figures = &on.facts.figures.kiddie;
    for &person in &on.unit.elected {
        let child = Child::of(on.facts, person);
        let income = trail.line(ALL_OF, Scope::Person(person), child.all(), |i| tell(on.facts, person, i));
        let above = child.above(on.facts);
        let part = |amount: Money| above.in_proportion(amount, income, Money::WHOLE, Rounding::HalfUp);
        let (qualified, distributed) = (part(child.qualified), part(child.distributed));
        all.qualified += qualified;
        all.distributed += distributed;
        all.rest += above - qualified - distributed;
        all.fund += part(child.fund);
        let spared =
            settled::lesser(settled::or_zero(income - figures.election_above), figures.election_taxed);
        all.tax += spared.times(figures.election_rate, Money::WHOLE, Rounding::HalfUp);
    }
    for (id, amount) in
        [(QUALIFIED, all.qualified), (DISTRIBUTED, all.distributed), (REST, all.rest), (TAX, all.tax)]
    {
        line(on, trail, id, amount);
    }
    all
}

/// Tells what a child's income is made of.
pub fn tell(facts: &Facts, person: usize, inputs: &mut Inputs) {
    let own = &facts.people[person].own;
    inputs
        .items(own.of(&interest::brings::INTEREST))
        .items(own.of(&dividends::brings::ORDINARY))
        .items(own.of(&capital_gains::brings::DISTRIBUTIONS))
        .figure("Alaska Permanent Fund", Child::of(facts, person).fund);
}

fn line(on: On<'_>, trail: &mut impl Trail, id: LineId, amount: Money) {
    trail.line(id, on.scope, amount, |i| {
        for &person in &on.unit.elected {
            i.line(ALL_OF, Scope::Person(person), Child::of(on.facts, person).all());
        }
    });
}

/// Form 8814: with a child's income.
pub fn form_8814(filed: Filed<'_>) -> Required {
    Required::if_so(!filed.on.unit.elected.is_empty(), "no child's income on this return")
}
