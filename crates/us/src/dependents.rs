//! Who depends on whom (§152), person by person and claimer by claimer.

use crate::{
    facts::{Facts, PersonFacts, Relationship, Residency},
    points::Points,
    qualifying_child::{
        SELF_SUPPORT, child_but_for_home, child_but_for_tie, is_young, months_with, over_half_the_year,
    },
    tie_breaker,
    unit::{Dependent, Household, Unit},
    who_files,
};
use hembo_core::{
    field::{Choice, Field},
    open_points,
    pack::{ANYONE, DEPENDENT, FILER, Question},
    point::{Gather, Place},
    provision::Provision,
};

/// What decides on who depends on whom.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::choice(ask::RELATIONSHIP, "", "Relationship to a filer", RELATIONSHIPS).lasts()
                .help("To the first of two who are not married to each other."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::choice(
                ask::RELATIONSHIP_SECOND,
                "",
                "Relationship to the second filer",
                RELATIONSHIPS,
            )
            .help("Where the two filers are not married to each other."),
        },
        Question {
            of: ANYONE,
            from_age: 0,
            field: Field::count(ask::STUDENT_MONTHS, "", "Months a full-time student", 12)
                .help("Some part of five calendar months makes a student."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::yes_no(ask::DISABLED, "", "Permanently and totally disabled").lasts(),
        },
        Question {
            of: DEPENDENT,
            from_age: 16,
            field: Field::yes_no(ask::MARRIED, "", "Married at year end"),
        },
        Question {
            of: DEPENDENT,
            from_age: 16,
            field: Field::yes_no(ask::FILES_JOINT, "", "Files a joint return")
                .help("Other than only to get back what was withheld."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::yes_no(ask::SELF_SUPPORT, "", "Pays over half of own support"),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::yes_no(ask::SUPPORTED, "", "The filers pay over half of the support"),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::person(ask::SUPPORTED_ALONE_BY, "", "One filer alone pays over half")
                .help("Needed only for separate returns."),
        },
        Question {
            of: ANYONE,
            from_age: 0,
            field: Field::yes_no(ask::CHILD_ELSEWHERE, "", "Qualifying child of someone else").help(
                "By relationship, age and over half the year in the home of someone outside this household; not of one \
                 who need not file and does not, or files only to get withholding back (Notice 2008-5).",
            ),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::choice(ask::RESIDENCY, "", "Citizen or resident", RESIDENCIES).lasts().blank_is("us"),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::amount(ask::OTHER_GROSS_INCOME, "", "Gross income not among the papers"),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::yes_no(ask::CLAIMABLE, "", "Someone else can claim this person"),
        },
    ],
    points: POINTS,
    figures: &["dependents", "considered_unmarried"], ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub use crate::qualifying_child::ask::{RELATIONSHIP, RELATIONSHIP_SECOND};
    pub const STUDENT_MONTHS: &str = "student_months";
    pub const DISABLED: &str = "disabled";
    pub const MARRIED: &str = "married";
    pub const FILES_JOINT: &str = "files_joint";
    pub const SELF_SUPPORT: &str = "self_support";
    pub const SUPPORTED: &str = "supported";
    pub const SUPPORTED_ALONE_BY: &str = "supported_alone_by";
    pub const CHILD_ELSEWHERE: &str = "child_elsewhere";
    pub const RESIDENCY: &str = "residency";
    pub const OTHER_GROSS_INCOME: &str = "other_gross_income";
    pub const CLAIMABLE: &str = "claimable";
}

open_points! {
    CLAIMABLE = blocks "K-016", "IRC §§63(c)(5), 151(d)(2)",
        "It decides on the standard deduction and on credits.";
    RELATIONSHIP = blocks "K-022", "IRC §152(c)(2), (d)(2)",
        "Choose the relationship.";
    MONTHS = blocks "K-015", "IRC §152(c)(1)(B)",
        "Enter the months, 0 to 12.";
    HALF_THE_YEAR = look "K-015-half", "IRC §152(c)(1)(B)",
        "Over half makes a qualifying child: enter one month more if it was.";
    CHILD_OF_ANOTHER = blocks "child-of-another", "IRC §152(d)(1)(D)",
        "A qualifying child of another is no qualifying relative: answer the question.";
    SUPPORT = blocks "K-014", "IRC §152(d)(1)(C)",
        "It decides on a qualifying relative.";
    SUPPORT_ALONE = look "K-014-one", "IRC §152(d)(1)(C)",
        "It decides who claims on separate returns; put it aside if neither does alone.";
    MONTHS_APART = blocks "K-015-apart", "IRC §§152(c)(1)(B), 7703(b)",
        "From July on a month counts in one home only: correct the months, or the answer about living apart.";
    SUPPORT_TWICE = blocks "K-014-both", "IRC §152(c)(1)(D), (d)(1)(C)",
        "Not both can be over half: correct one of the answers.";
    SUPPORT_OF_ONE = blocks "K-014-of-one", "IRC §152(d)(1)(C)",
        "What one filer pays, the filers pay: correct one of the answers.";
    JOINT_UNMARRIED = blocks "joint-unmarried", "IRC §6013(a)",
        "Only the married file jointly: correct one of the answers.";
    YOUNGER_PARENT = blocks "younger-parent", "IRC §152(d)(2)",
        "Correct the date of birth, or the relationship.";
    DIED_BEFORE = blocks "dependent-died", "IRC §152",
        "Remove this person, or correct the date of death.";
    NO_SECOND = blocks "relationship-second", "IRC §152(c)(2), (d)(2)",
        "Look at the relationship to the filer who is left, and empty this box.";
    NO_DEPENDENT = look "K-013", "IRC §152",
        "If that is not so, correct the answers.";
    MARRIED = not_covered "own-return-married", "IRC §6013(a)";
    OWN_RETURN = look "K-017", "IRC §6012(a)", "Make it, and mark there whether someone can claim the filer.";
}

/// What a dependent is to a filer.
pub const RELATIONSHIPS: &[Choice] = &[
    Choice::new("child", "Child"),
    Choice::new("stepchild", "Stepchild"),
    Choice::new("foster_child", "Foster child, placed"),
    Choice::new("grandchild", "Grandchild, or a further descendant"),
    Choice::new("sibling", "Sibling, half or step too"),
    Choice::new("niece_nephew", "Niece or nephew"),
    Choice::new("parent", "Parent, father or mother"),
    Choice::new("stepparent", "Stepparent"),
    Choice::new("grandparent", "Grandparent, or a further ancestor"),
    Choice::new("aunt_uncle", "Aunt or uncle"),
    Choice::new("in_law", "In-law, relative by marriage"),
    Choice::new("none", "Not related, member of the household"),
];

const RESIDENCIES: &[Choice] = &[
    Choice::new("us", "US citizen, national or resident"),
    Choice::new("canada_mexico", "Resident of Canada or Mexico"),
    Choice::new("other", "Neither"),
];

/// The claim is with the other parent.
pub const RELEASED: &str = "the claim is released to the other parent";

/// The support test of a relative fails.
pub const NO_SUPPORT: &str = "the claimer does not pay over half of the support";

/// The support test of a relative is open.
pub const SUPPORT_NOT_SAID: &str = "not said yet whether the claimer pays over half of the support";

/// Whether the claimers (one filer, or both on a joint return) can claim a person: the common tests of §152(b), and
/// those of a qualifying child or relative.
///
/// # Errors
/// The test that fails.
pub fn claim(facts: &Facts, claimers: &[usize], person: usize) -> Result<Dependent, &'static str> {
    let about = &facts.people[person];
    if about.released_away {
        return Err(RELEASED);
    }
    if about.released_to.is_some() {
        common(facts, claimers, person)?;
        received(facts, claimers, person)?;
        return Ok(Dependent { person, as_a: Household::QualifyingChild });
    }
    claim_but_for_release(facts, claimers, person)
}

/// The tests of a child whose claim a parent elsewhere released to one of the claimers.
fn received(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    if facts.people[person].released_to.is_none_or(|to| !claimers.contains(&to)) {
        return Err("the claim was released to the other filer");
    }
    child_but_for_home(facts, claimers, person)
}

/// The same where no claim was released to another parent (§7703(b)(1), §32(c)(3)(B)).
///
/// # Errors
/// The test that fails.
pub fn claim_but_for_release(
    facts: &Facts,
    claimers: &[usize],
    person: usize,
) -> Result<Dependent, &'static str> {
    common(facts, claimers, person)?;
    let as_a = household_of(facts, claimers, person)?;
    Ok(Dependent { person, as_a })
}

/// The common tests of §152(b).
///
/// # Errors
/// The test that fails.
pub fn common(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    if claimers.iter().any(|&c| facts.people[c].claimable) {
        return Err("the claimer can be claimed by someone else");
    }
    fit_to_be_claimed(&facts.people[person])
}

/// The tests of §152(b)(2) and (3), which do not ask who claims.
///
/// # Errors
/// The test that fails.
pub fn fit_to_be_claimed(about: &PersonFacts) -> Result<(), &'static str> {
    if about.files_joint {
        return Err("files a joint return");
    }
    if about.residency == Residency::Other {
        return Err("neither citizen nor resident of the US, Canada or Mexico");
    }
    Ok(())
}

/// Whether the filers can claim a person: together, or one of two who are not married.
fn claim_by_filers(facts: &Facts, person: usize) -> Result<Dependent, &'static str> {
    if !facts.unmarried_pair() {
        return claim(facts, &facts.filers, person);
    }
    let [first, second] = [facts.filers[0], facts.filers[1]].map(|f| claim(facts, &[f], person));
    first.or(second)
}

/// Whether someone can claim a person: both filers together, or one of them where they file apart; a parent elsewhere to
/// whom the claim was released.
pub fn claimable_by_filers(facts: &Facts, apart: bool, person: usize) -> bool {
    if facts.people[person].released_away {
        return true;
    }
    if apart {
        return facts.filers.iter().any(|&f| claim(facts, &[f], person).is_ok());
    }
    claim(facts, &facts.filers, person).is_ok()
}

/// A qualifying child, else a qualifying relative, of the claimers.
///
/// # Errors
/// The test that fails: that of the child where the person is one by relationship and age, else of the relative.
pub fn household_of(facts: &Facts, claimers: &[usize], person: usize) -> Result<Household, &'static str> {
    match qualifying_child(facts, claimers, person) {
        Ok(()) => Ok(Household::QualifyingChild),
        Err(why) => match qualifying_relative(facts, claimers, person, Income::Tested) {
            Ok(()) => Ok(Household::QualifyingRelative),
            Err(relative) => Err(if is_young(facts, person) { why } else { relative }),
        },
    }
}

/// §152(c): relationship, age, residence, support.
///
/// # Errors
/// The test that fails.
pub fn qualifying_child(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    if facts.people[person].self_support {
        return Err(SELF_SUPPORT);
    }
    child_but_for_support(facts, claimers, person)
}

/// §152(c) without the support test, as the earned income credit asks (§32(c)(3)).
///
/// # Errors
/// The test that fails.
pub fn child_but_for_support(facts: &Facts, claimers: &[usize], person: usize) -> Result<(), &'static str> {
    child_but_for_tie(facts, claimers, person)?;
    tie_breaker::before_parents(facts, claimers, person)
}

#[derive(Clone, Copy, PartialEq, Eq)]
enum Income {
    Tested,
    Waived,
}

/// §152(d): not a qualifying child of anyone, relationship or household, gross income, support.
fn qualifying_relative(
    facts: &Facts,
    claimers: &[usize],
    person: usize,
    income: Income,
) -> Result<(), &'static str> {
    let about = &facts.people[person];
    let child_of = |&f: &usize| child_but_for_tie(facts, &[f], person).is_ok() && !yields(facts, claimers, f);
    if (!about.self_support && facts.filers.iter().any(child_of)) || about.child_elsewhere {
        return Err("is the qualifying child of someone");
    }
    let all_year = months_with(facts, claimers, person) >= about.months_alive(facts.year_end);
    match facts.related(claimers, person) {
        None => return Err("relationship not entered"),
        Some(Relationship::None) if !all_year => {
            return Err("not related, and not a member of the household all year");
        }
        Some(_) => {}
    }
    if income == Income::Tested
        && facts.people[person].gross_income >= facts.figures.dependents.gross_income_below
    {
        return Err("gross income is not below the limit");
    }
    match supported(facts, claimers, about) {
        Some(true) => Ok(()),
        Some(false) => Err(NO_SUPPORT),
        None => Err(SUPPORT_NOT_SAID),
    }
}

/// Whether a filer's qualifying child may be the qualifying relative of the claimers all the same: the filer need not file,
/// and does so only to get back what was withheld (Notice 2008-5).
pub fn yields(facts: &Facts, claimers: &[usize], filer: usize) -> bool {
    facts.unmarried_pair() && !claimers.contains(&filer) && !who_files::must_file(facts, filer)
}

/// Whether the claimers pay over half of the support: one of a couple alone, or all of them; none where it was not said. A
/// multiple support agreement stands for it (§152(d)(3)).
fn supported(facts: &Facts, claimers: &[usize], about: &PersonFacts) -> Option<bool> {
    if let Some(named) = about.multiple_support {
        return Some(claimers.contains(&named));
    }
    let alone = about.supported_alone_by.map(|by| claimers.contains(&by));
    match claimers {
        [_] if facts.filers.len() == 2 => alone.or(about.supported.filter(|supported| !supported)),
        _ => alone.filter(|alone| *alone).or(about.supported),
    }
}

/// Whether the claimers could claim a person but for gross income, a joint return or being claimable themselves:
/// the family of §§2(a) and 213(a).
pub fn claimable_but_for_income(facts: &Facts, claimers: &[usize], person: usize) -> bool {
    facts.people[person].residency != Residency::Other
        && (qualifying_child(facts, claimers, person).is_ok()
            || qualifying_relative(facts, claimers, person, Income::Waived).is_ok())
}

/// What decides on a claim and is not answered, why someone is no dependent, and dependents' own returns.
pub fn points(points: &mut Points<'_>) {
    for (index, person) in points.facts.people.iter().enumerate() {
        if person.filer { claimable_elsewhere(points, index) } else { one(points, index) }
    }
    for unit in points.units.iter().filter(|unit| !unit.main) {
        own_return(points, unit);
    }
}

/// Whether a filer is so young that someone may claim that filer.
pub fn may_be_claimed(facts: &Facts, filer: usize) -> bool {
    let under = facts.figures.dependents.student_under;
    facts.people[filer].age(facts.year_end).is_some_and(|age| age < under)
}

fn claimable_elsewhere(points: &mut Points<'_>, filer: usize) {
    if may_be_claimed(points.facts, filer) && !points.said(filer, ask::CLAIMABLE) {
        let message = format!("Can someone else claim {} as a dependent?", points.facts.people[filer].name);
        points.raise(&CLAIMABLE, points.at(filer, ask::CLAIMABLE), message);
    }
}

fn one(points: &mut Points<'_>, index: usize) {
    let person = &points.facts.people[index];
    let place = |field: &str| Place::person(&person.id, field);
    if person.relationship.is_none() {
        let message = format!("How is {} related to a filer?", person.name);
        points.raise(&RELATIONSHIP, place(ask::RELATIONSHIP), message);
        return;
    }
    if points.facts.unmarried_pair() && person.relationship_second.is_none() {
        let second = &points.facts.people[points.facts.filers[1]].name;
        let message = format!("How is {} related to {second}?", person.name);
        points.raise(&RELATIONSHIP, place(ask::RELATIONSHIP_SECOND), message);
        return;
    }
    let near = points.facts.filers.iter().any(|f| person.months_with.iter().any(|(with, _)| with == f));
    if !near && person.relationship != Some(Relationship::Parent) {
        let message = format!("How many months did {} live with each filer?", person.name);
        points.raise(&MONTHS, place("lived_with"), message);
    }
    let half = person.months_alive(points.facts.year_end);
    if person.months_with.iter().any(|(_, m)| m * 2 == half) {
        let message = format!("{} lived exactly half the year in a home: count the nights.", person.name);
        points.raise(&HALF_THE_YEAR, place("lived_with"), message);
    }
    if points.facts.filers.len() == 1 && person.relationship_second.is_some() {
        let message = format!("{} has a relationship to a second filer, and there is only one.", person.name);
        points.raise(&NO_SECOND, place(ask::RELATIONSHIP_SECOND), message);
    }
    contradictions(points, index);
    let claim = claim_by_filers(points.facts, index);
    let relative = claim.is_ok_and(|dependent| dependent.as_a == Household::QualifyingRelative);
    let asked = person.supported_alone_by.is_none() && person.multiple_support.is_none();
    if relative && points.facts.filers.len() == 2 && asked {
        let message = format!("Does one filer alone pay over half of the support of {}?", person.name);
        points.raise(&SUPPORT_ALONE, place(ask::SUPPORTED_ALONE_BY), message);
    }
    if relative && may_live_elsewhere(points.facts, index) && !points.said(index, ask::CHILD_ELSEWHERE) {
        let message = format!("Is {} the qualifying child of someone else?", person.name);
        points.raise(&CHILD_OF_ANOTHER, place(ask::CHILD_ELSEWHERE), message);
    }
    if points.units.iter().any(|u| u.dependents.iter().any(|d| d.person == index)) {
        return;
    }
    if claim == Err(SUPPORT_NOT_SAID) && points.facts.unmarried_pair() {
        let message = format!("Which filer alone pays over half of the support of {}?", person.name);
        points.raise(&SUPPORT, place(ask::SUPPORTED_ALONE_BY), message);
    } else if claim == Err(SUPPORT_NOT_SAID) {
        let message = format!("Do the filers pay over half of the support of {}?", person.name);
        points.raise(&SUPPORT, place(ask::SUPPORTED), message);
    } else if let Err(why) = claim {
        let message = format!("{} is not a dependent: {why}.", person.name);
        points.raise(&NO_DEPENDENT, place(ask::RELATIONSHIP), message);
    }
}

/// Whether someone of a child's age may have lived over half the year in the home of someone else.
fn may_live_elsewhere(facts: &Facts, person: usize) -> bool {
    is_young(facts, person) && !facts.filers.iter().any(|&f| over_half_the_year(facts, &[f], person))
}

/// Answers about a dependent that cannot be true together: each stands at every box concerned.
fn contradictions(points: &mut Points<'_>, index: usize) {
    let (facts, person) = (points.facts, &points.facts.people[index]);
    let name = &person.name;
    let mut raise = |def, fields: &[&str], message: String| {
        for field in fields {
            points.raise(def, Place::person(&person.id, field), message.as_str());
        }
    };
    let months: i64 = person.months_with.iter().map(|(_, months)| *months).sum();
    // Before they live apart a month may count with both of them, then with one.
    let most = 2 * 12 - facts.figures.considered_unmarried.months_apart;
    if facts.filers.len() == 2 && facts.apart == Some(true) && months > most {
        let message =
            format!("{name} cannot have lived {months} months with filers who were apart from July.");
        raise(&MONTHS_APART, &["lived_with"], message);
    }
    if person.self_support && person.supported == Some(true) {
        let message = format!("{name} and the filers each pay over half of the support of {name}.");
        raise(&SUPPORT_TWICE, &[ask::SELF_SUPPORT, ask::SUPPORTED], message);
    }
    if person.supported == Some(false) && person.supported_alone_by.is_some() {
        let message = format!("One filer pays over half of the support of {name}, and the filers do not.");
        raise(&SUPPORT_OF_ONE, &[ask::SUPPORTED, ask::SUPPORTED_ALONE_BY], message);
    }
    if person.files_joint && person.married == Some(false) {
        let message = format!("{name} files a joint return and is not married.");
        raise(&JOINT_UNMARRIED, &[ask::MARRIED, ask::FILES_JOINT], message);
    }
    let parent = matches!(person.relationship, Some(Relationship::Parent | Relationship::Grandparent));
    let younger =
        |f: &usize| person.born.zip(facts.people[*f].born).is_some_and(|(theirs, own)| theirs >= own);
    let theirs = if facts.unmarried_pair() { &facts.filers[..1] } else { &facts.filers };
    if parent && theirs.iter().all(younger) {
        raise(&YOUNGER_PARENT, &["born", ask::RELATIONSHIP], format!("{name} is younger than every filer."));
    }
    if person.died.is_some_and(|died| died.year() < facts.figures.year) {
        raise(&DIED_BEFORE, &["died"], format!("{name} died before the year began."));
    }
}

fn own_return(points: &mut Points<'_>, unit: &Unit) {
    let person = &points.facts.people[unit.people[0]];
    if person.married == Some(true) {
        let message = format!("{} is married: the status of that return is not known here.", person.name);
        points.raise(&MARRIED, Place::person(&person.id, ask::MARRIED), message);
    }
    let name = &person.name;
    let claimed = if unit.claimable { "someone can claim" } else { "nobody can claim" };
    let message = format!(
        "{name} has income of their own: the figures hold a separate return, on which {claimed} {name}."
    );
    points.raise(&OWN_RETURN, Place::person(&person.id, ask::RELATIONSHIP), message);
}
