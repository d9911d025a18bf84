//! Filing status: marital state, considered unmarried, surviving spouse, head of household (§§1, 2, 7703).

use crate::{
    dependents,
    facts::{Facts, Marital, Relationship},
    filing_status::Status,
    points::Points,
    qualifying_child,
    states::community_property,
    unit::Household,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    divide::Rule,
    field::{Choice, Field},
    household::{Entry, Role},
    open_points,
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
    words::capital,
};

/// What decides on the status.
pub static PROVISION: Provision = Provision {
    household_questions: &[
        Field::choice(ask::MARITAL, "", "On the last day of the year", MARITAL)
            .lasts()
            .help("The year in which a spouse died still counts as married."),
        Field::yes_no(ask::APART, "", "The two lived apart from July to December")
            .help("A temporary absence is living together."),
        Field::yes_no(ask::APART_ALL_YEAR, "", "The two lived apart all year")
            .help("It matters on separate returns: social security, IRAs, rent."),
        Field::yes_no(ask::SPOUSE_ITEMIZES, "", "A spouse outside this household itemizes"),
        Field::text(ask::SPOUSE_NAME, "", "Name of a spouse outside this household", 120).lasts(),
        Field::text(ask::SPOUSE_NUMBER, "", "SSN or ITIN of that spouse", 11)
            .secret()
            .shape("000-00-0000")
            .lasts(),
    ],
    person_questions: &[
        Question {
            of: FILER,
            from_age: 0,
            field: Field::yes_no(ask::PAID_HOME, "", "Paid over half the cost of the home").lasts(),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::count(ask::SPOUSE_DIED, "", "Year in which the spouse died", 2100).lasts(),
        },
    ],
    points: POINTS,
    figures: &["dependents"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const PAID_HOME: &str = "paid_home";
    pub const SPOUSE_DIED: &str = "spouse_died";
    pub const MARITAL: &str = "marital";
    pub const APART: &str = "apart";
    pub const APART_ALL_YEAR: &str = "apart_all_year";
    pub const SPOUSE_ITEMIZES: &str = "spouse_itemizes";
    pub const SPOUSE_NAME: &str = "spouse_name";
    pub const SPOUSE_NUMBER: &str = "spouse_number";
}

open_points! {
    MARRIED = blocks "K-008", "IRC §7703(a)",
        "Answer the question about marriage.";
    APART = blocks "K-011", "IRC §7703(b)",
        "It decides who may be head of household.";
    BOTH_HEADS = not_covered "both-heads", "IRC §§7703(b)(1), 152(c)(4)";
    ONE_HOME = blocks "K-010-one-home", "IRC §2(b)(1)",
        "Only one of two can pay over half of the same home: correct one of the answers.";
    PARTNER = look "partner-dependent", "IRC §152(d)(2)(H)",
        "Enter that one as a dependent to compare, if the other paid over half of the support.";
    SPOUSE_NOT_HERE = look "K-169", "IRC §6013(a)",
        "Add the spouse as a second filer to compare.";
    SPOUSE_NAMED = look "K-169-named", "Instructions for Form 1040, Married filing separately",
        "Enter them: a return that does not have them is sent on paper.";
    SPOUSE_ITEMIZES = blocks "K-106", "IRC §63(c)(6)(A)",
        "Answer for the spouse.";
    PAID_HOME = blocks "K-010", "IRC §2(b)(1)",
        "It decides on head of household.";
    DIED_IN_YEAR = not_known "K-012-year", "IRC §6013(a)(3)",
        "Answer 'married' and add the spouse as a filer with the date of death (§6013(a)(3)).";
    SPOUSE_DIED = blocks "K-012", "IRC §2(a)(1)",
        "It decides on the surviving spouse's status.";
}

const MARITAL: &[Choice] = &[
    Choice::new("single", "Never married"),
    Choice::new("married", "Married"),
    Choice::new("divorced", "Divorced or separated by decree"),
    Choice::new("widowed", "Widowed before this year"),
];

/// Whose spouse died in the year is a widow or widower in the next, and tells when (§2(a)(1)).
pub fn settle_next(before: &hembo_core::Household, next: &mut hembo_core::Household) {
    let gone = before.filers().filter(|(_, filer)| next.person(&filer.id).is_none());
    let Some(died) = gone.filter_map(|(_, filer)| filer.died).next() else { return };
    next.answers.insert(ask::MARITAL.into(), Entry::Text("widowed".into()));
    for filer in next.people.iter_mut().filter(|person| person.role == Role::Filer) {
        filer.answers.insert(ask::SPOUSE_DIED.into(), Entry::Count(died.year().into()));
    }
}

/// What a joint return held together is divided by a rule of its own, not by who is named on the paper.
pub static DIVIDES: [Rule; 7] = [
    Rule {
        kind: "1040-ES",
        words: "joint payments are divided as the two agree, else by each one's own tax",
        cite: "Reg. §1.6654-2(e)(5)(ii)(B)",
    },
    Rule {
        kind: "Losses carried",
        words: "each takes the losses that were their own",
        cite: "Reg. §1.1212-1(c)(1)(iii)",
    },
    Rule {
        kind: "Business losses carried",
        words: "each takes the loss that their own business made",
        cite: "Reg. §1.172-7(d)",
    },
    Rule {
        kind: "Gift carryover",
        words: "each takes what would have been left on separate returns",
        cite: "Reg. §1.170A-10(d)(4)(i)",
    },
    Rule {
        kind: "Sales tax",
        words: "each deducts what each paid, or uses the tables for their own income",
        cite: "IRC §164(b)(5)(H)",
    },
    Rule { kind: "1098", words: "each deducts the interest that each paid", cite: "IRC §163(a)" },
    Rule {
        kind: "Property tax",
        words: "each deducts the tax that each paid and owed",
        cite: "IRC §164(a)(1)",
    },
];

/// Each names the other, who is elsewhere now; whether that one itemizes is asked anew (§63(c)(6)(A)).
pub fn settle_divided(before: &hembo_core::Household, half: &mut hembo_core::Household) {
    half.answers.remove(ask::SPOUSE_ITEMIZES);
    let married = half.answers.get(ask::MARITAL).and_then(Entry::text) == Some("married");
    let other = before.filers().find(|(_, filer)| half.person(&filer.id).is_none());
    let Some((_, other)) = other.filter(|_| married) else { return };
    half.answers.insert(ask::SPOUSE_NAME.into(), Entry::Text(other.name.clone()));
    if let Some(number) = &other.id_number {
        half.answers.insert(ask::SPOUSE_NUMBER.into(), Entry::Text(number.clone()));
    }
}

/// The status of someone who does not file jointly: the facts fix it, it is not a choice.
pub fn alone(facts: &Facts, filer: usize) -> Status {
    match facts.marital {
        Marital::Married if considered_unmarried(facts, filer).is_ok() => Status::Head,
        Marital::Married => Status::Separate,
        _ => unmarried(facts, filer, &[]),
    }
}

/// The status of someone unmarried, where the other filer of the household takes some of the children: with the claim go all
/// its benefits (§152(c)(4)).
pub fn unmarried(facts: &Facts, filer: usize, taken: &[usize]) -> Status {
    if surviving_spouse(facts, filer, taken).is_ok() {
        Status::Surviving
    } else if head_of_household(facts, filer, taken).is_ok() {
        Status::Head
    } else {
        Status::Single
    }
}

/// Whether a dependent makes a filer a surviving spouse, and whether head of household, as far as it is up to that one.
pub fn makes(facts: &Facts, filer: usize, person: usize) -> (bool, bool) {
    (child_of_survivor(facts, filer, person), qualifying_person(facts, filer, person))
}

/// Qualifying surviving spouse (§2(a)): spouse died in one of the two years before, paid over half of the home in
/// which a child or stepchild, whom the filer can claim, lived all year.
///
/// # Errors
/// The test that fails.
pub fn surviving_spouse(facts: &Facts, filer: usize, taken: &[usize]) -> Result<(), &'static str> {
    let person = &facts.people[filer];
    let year = i64::from(facts.figures.year);
    if facts.marital != Marital::Widowed && !facts.unmarried_pair() {
        return Err("not widowed");
    }
    if !person.spouse_died.is_some_and(|died| died == year - 1 || died == year - 2) {
        return Err("the spouse did not die in one of the two years before");
    }
    paid_home(facts, filer)?;
    let mut left = facts.candidates().filter(|p| !taken.contains(p));
    if left.any(|p| child_of_survivor(facts, filer, p)) {
        Ok(())
    } else {
        Err("no child lived in the home all year")
    }
}

fn child_of_survivor(facts: &Facts, filer: usize, person: usize) -> bool {
    let relationship = facts.related(&[filer], person);
    let about = &facts.people[person];
    matches!(relationship, Some(Relationship::Child | Relationship::Stepchild))
        && qualifying_child::months_with(facts, &[filer], person) >= about.months_alive(facts.year_end)
        && !about.released_away
        && dependents::claimable_but_for_income(facts, &[filer], person)
}

fn paid_home(facts: &Facts, filer: usize) -> Result<(), &'static str> {
    match facts.people[filer].paid_home {
        Some(true) => Ok(()),
        Some(false) => Err("did not pay over half the cost of the home"),
        None => Err("not said yet whether over half the cost of the home was paid"),
    }
}

/// Head of household of an unmarried person (§2(b)).
///
/// # Errors
/// The test that fails.
pub fn head_of_household(facts: &Facts, filer: usize, taken: &[usize]) -> Result<(), &'static str> {
    if facts.people[filer].nonresident_alien {
        return Err("nonresident alien in the year");
    }
    paid_home(facts, filer)?;
    let mut left = facts.candidates().filter(|p| !taken.contains(p));
    if left.any(|p| qualifying_person(facts, filer, p)) { Ok(()) } else { Err("no qualifying person") }
}

/// A qualifying person for head of household (§2(b)(1)).
fn qualifying_person(facts: &Facts, filer: usize, person: usize) -> bool {
    let about = &facts.people[person];
    let more_than_half = qualifying_child::over_half_the_year(facts, &[filer], person);
    match dependents::household_of(facts, &[filer], person) {
        // A married child must be a dependent, but for the filer's being one (§2(b)(1)(A)(i)).
        Ok(Household::QualifyingChild) => {
            let fit = dependents::fit_to_be_claimed(about).is_ok() && !about.released_away;
            about.married != Some(true) || fit
        }
        // Nor one who is a dependent only by agreement (§2(b)(3)(B)(ii)).
        Ok(Household::QualifyingRelative) if about.multiple_support.is_some() => false,
        // A relative must bring a deduction under §151 (§2(b)(1)(A)(ii), (B)).
        Ok(Household::QualifyingRelative) if dependents::claim(facts, &[filer], person).is_err() => false,
        Ok(Household::QualifyingRelative) => match facts.related(&[filer], person) {
            Some(Relationship::Parent) => true,
            Some(Relationship::None) | None => false,
            Some(_) => more_than_half,
        },
        Err(_) => false,
    }
}

/// Considered unmarried (§7703(b)): lived apart from July to December, paid over half of the home that was over
/// half the year that of a child, stepchild or foster child whom the filer can claim, or could but for a release.
///
/// # Errors
/// The test that fails.
pub fn considered_unmarried(facts: &Facts, filer: usize) -> Result<(), &'static str> {
    let spouse_is_alien = facts.filers.iter().any(|&f| f != filer && facts.people[f].nonresident_alien);
    if facts.people[filer].nonresident_alien {
        return Err("nonresident alien in the year");
    }
    if spouse_is_alien {
        return head_of_household(facts, filer, &[]);
    }
    lives_apart(facts, filer)
}

/// Whether a filer is head of household only because the spouse is a nonresident (§2(b)(2)(B)), and married for all else.
pub fn head_by_nonresident(facts: &Facts, filer: usize) -> bool {
    facts.nonresident_spouse().is_some_and(|spouse| spouse != filer) && lives_apart(facts, filer).is_err()
}

/// The tests of §7703(b) itself.
fn lives_apart(facts: &Facts, filer: usize) -> Result<(), &'static str> {
    match facts.apart {
        Some(true) => {}
        Some(false) => return Err("lived together after June"),
        None => return Err("not said yet whether the spouses lived apart from July"),
    }
    paid_home(facts, filer)?;
    let child = |p: usize| keeps_child(facts, filer, p);
    if facts.candidates().any(child) { Ok(()) } else { Err("no child lived there over half the year") }
}

/// Whether the person is a child by whom the filer may be considered unmarried (§7703(b)(1)).
fn keeps_child(facts: &Facts, filer: usize, p: usize) -> bool {
    matches!(
        facts.related(&[filer], p),
        Some(Relationship::Child | Relationship::Stepchild | Relationship::FosterChild)
    ) && qualifying_child::over_half_the_year(facts, &[filer], p)
        && dependents::claim_but_for_release(facts, &[filer], p).is_ok()
}

/// Spouses apart who are both considered unmarried, one of them only by a child who makes the other so, too: one alone is
/// entitled to that child (§152(c)(4)), and which of them is not settled here.
fn both_by_one_child(points: &mut Points<'_>) {
    let facts = points.facts;
    let &[first, second] = facts.filers.as_slice() else { return };
    if [first, second].into_iter().any(|filer| considered_unmarried(facts, filer).is_err()) {
        return;
    }
    let both = |p: usize| keeps_child(facts, first, p) && keeps_child(facts, second, p);
    let alone = |filer: usize| facts.candidates().any(|p| keeps_child(facts, filer, p) && !both(p));
    if facts.candidates().any(both) && !(alone(first) && alone(second)) {
        let message = "Both spouses would be head of household by the same child.";
        points.raise(&BOTH_HEADS, points.at(first, ask::PAID_HOME), message);
    }
}

/// What decides on the status and is not answered.
pub fn points(points: &mut Points<'_>) {
    marriage(points);
    for &filer in &points.facts.filers {
        alone_or_widowed(points, filer);
    }
}

fn marriage(points: &mut Points<'_>) {
    let married = points.facts.marital == Marital::Married;
    if points.answered(ask::MARITAL).is_none() {
        let message = "Were the filers married on the last day of the year?";
        points.raise(&MARRIED, Place::household(ask::MARITAL), message);
    }
    if (married || parents(points.facts)) && points.answered(ask::APART).is_none() {
        let message = "Did the two live apart from July to December?";
        points.raise(&APART, Place::household(ask::APART), message);
    }
    if points.facts.unmarried_pair() {
        pair(points);
    }
    if married {
        both_by_one_child(points);
    }
    if married && points.facts.filers.len() == 1 {
        let message = "The spouse is not here: joint and separate are not compared.";
        points.raise(&SPOUSE_NOT_HERE, Place::household(ask::MARITAL), message);
        let named = [ask::SPOUSE_NAME, ask::SPOUSE_NUMBER].map(|asked| points.answered(asked).is_some());
        if considered_unmarried(points.facts, points.facts.filers[0]).is_err() && named != [true, true] {
            let message = "A separate return has the name and the number of the spouse.";
            let missing = if named[0] { ask::SPOUSE_NUMBER } else { ask::SPOUSE_NAME };
            points.raise(&SPOUSE_NAMED, Place::household(missing), message);
        }
        if points.answered(ask::SPOUSE_ITEMIZES).is_none() {
            let message = "Does the spouse itemize? If so, there is no standard deduction here.";
            points.raise(&SPOUSE_ITEMIZES, Place::household(ask::SPOUSE_ITEMIZES), message);
        }
    }
}

/// Whether two are prepared together who are not married to each other, as far as was said.
pub fn is_unmarried_pair(household: &hembo_core::Household) -> bool {
    let married = household.answers.get(ask::MARITAL).and_then(Entry::text).is_none_or(|m| m == "married");
    household.filers().count() == 2 && !married
}

/// Whether two unmarried filers are both parents of a dependent.
fn parents(facts: &Facts) -> bool {
    let of_both =
        |p: usize| facts.filers.iter().all(|&f| facts.related(&[f], p) == Some(Relationship::Child));
    facts.unmarried_pair() && facts.candidates().any(of_both)
}

/// What two unmarried filers cannot both have paid, and whether one of them may depend on the other.
fn pair(points: &mut Points<'_>) {
    let facts = points.facts;
    let both_paid = facts.filers.iter().all(|&f| facts.people[f].paid_home == Some(true));
    let one_home =
        |p: usize| facts.filers.iter().all(|&f| qualifying_child::over_half_the_year(facts, &[f], p));
    if both_paid && facts.candidates().any(one_home) {
        for &filer in &facts.filers {
            let message =
                "Both filers paid over half the cost of a home in which both lived with a dependent.";
            points.raise(&ONE_HOME, points.at(filer, ask::PAID_HOME), message);
        }
    }
    let below = facts.figures.dependents.gross_income_below;
    for &filer in &facts.filers {
        if facts.people[filer].gross_income < below && facts.apart != Some(true) {
            let name = &facts.people[filer].name;
            let message = format!(
                "{name} has gross income below {below:#}, and may be a dependent of the other filer."
            );
            points.raise(&PARTNER, points.at(filer, dependents::ask::CLAIMABLE), message);
        }
    }
}

fn alone_or_widowed(points: &mut Points<'_>, filer: usize) {
    let person = &points.facts.people[filer];
    let place = |field: &str| Place::person(&person.id, field);
    let start = points.facts.figures.year;
    let matters = points.facts.marital != Marital::Married || points.facts.apart == Some(true);
    if person.paid_home.is_none() && matters && points.facts.candidates().next().is_some() {
        let message = format!("Did {} pay over half the cost of the home?", person.name);
        points.raise(&PAID_HOME, place(ask::PAID_HOME), message);
    }
    if points.facts.marital == Marital::Widowed && person.spouse_died.is_some_and(|died| died >= start.into())
    {
        let message = format!(
            "The spouse died in {start}: for the tax that is a year of marriage, with a joint return."
        );
        points.raise(&DIED_IN_YEAR, place(ask::SPOUSE_DIED), message);
    }
    let said = points.facts.filers.iter().any(|&f| points.facts.people[f].spouse_died.is_some());
    if points.facts.marital == Marital::Widowed && !said {
        let message = format!("In which year did the spouse of {} die?", person.name);
        points.raise(&SPOUSE_DIED, place(ask::SPOUSE_DIED), message);
    }
}

/// How the household files.
pub static FILING: Open<Facts> =
    Open::new(|_| vec![0], filing).bars(|facts, _, option, _| bar(facts, option));

/// The option to file jointly.
const JOINT: usize = 0;

/// Whether two filers file apart.
pub fn separate(facts: &Facts, way: Chosen<'_, '_, Facts>) -> bool {
    facts.unmarried_pair() || (facts.couple() && way.taken(&FILING, 0) != Some(JOINT))
}

fn filing(facts: &Facts, _: usize) -> Decision {
    let options = if facts.couple() {
        vec![
            Opt::new("joint", "Jointly", "joint"),
            Opt::new("separate", separate_label(facts), "separate"),
            Opt::new("head", "Head of household", ""),
        ]
    } else if facts.unmarried_pair() {
        vec![Opt::new("joint", "Jointly", "joint"), Opt::new("alone", "Each alone", "")]
    } else {
        let option = |s: Status| Opt::new(s.id(), capital(s.label()), s.label());
        UNMARRIED.into_iter().map(option).collect()
    };
    Decision::between("us.status", "How to file", "IRC §§1, 2, 6013", options)
}

/// What someone who files alone may be, in the order of the options.
const UNMARRIED: [Status; 4] = [Status::Single, Status::Head, Status::Surviving, Status::Separate];

/// "Separately", with the head of household among the two, if there is one.
fn separate_label(facts: &Facts) -> String {
    let heads = facts.alone.iter().zip(&facts.filers).filter(|(s, _)| **s == Status::Head);
    let names: Vec<_> = heads.map(|(_, &f)| facts.people[f].name.as_str()).collect();
    match names[..] {
        [] => "Separately".into(),
        _ => format!("Separately · {} head of household", names.join(" and ")),
    }
}

/// Why a filing status is not lawful here.
fn bar(facts: &Facts, option: usize) -> Option<Bar> {
    if facts.couple() {
        return match option {
            JOINT if facts.filers.iter().all(|&f| facts.people[f].nonresident_alien) => {
                Some("both are nonresident aliens".into())
            }
            1 if facts
                .nonresident_spouse()
                .is_some_and(|f| facts.people[f].income_from_us != Some(false)) =>
            {
                Some("Form 1040-NR is not computed here".into())
            }
            1 if !facts.divided && facts.state.as_deref().is_some_and(community_property) => {
                Some("half each in a community-property state: not known how to divide".into())
            }
            2 if facts.alone.contains(&Status::Head) => Some("weighed within separate returns".into()),
            2 => considered_unmarried(facts, facts.filers[0]).err().map(Bar::Borrowed),
            _ => None,
        };
    }
    if facts.unmarried_pair() {
        return (option == JOINT).then_some("not married to each other".into());
    }
    let (filer, asked) = (facts.filers[0], UNMARRIED[option]);
    if asked == facts.alone[0] {
        return None;
    }
    Some(Bar::Borrowed(match asked {
        Status::Separate if facts.marital != Marital::Married => "not married",
        Status::Single if facts.marital == Marital::Married => "married",
        Status::Head => head_of_household(facts, filer, &[]).err().unwrap_or("a surviving spouse"),
        Status::Surviving => surviving_spouse(facts, filer, &[]).err().unwrap_or("not available"),
        _ => "the facts give a better status",
    }))
}

/// Whether spouses file apart in the chosen way.
pub fn files_apart(outcome: &hembo_core::Outcome) -> bool {
    let status = outcome.decisions.iter().filter(|decision| decision.id == "us.status");
    status.flat_map(|decision| &decision.options).any(|option| option.chosen && option.id == "separate")
}
