//! Whether wage certificates are likely and fit each other: their numbers, classes, periods and letters.

use crate::{
    people::ask,
    points::Points,
    provision::PAID,
    tax_classes::{Employee, care_rate, months, of_month, of_year, period},
    wage::{self, CERTIFICATE},
};
use hembo_core::{
    Paper,
    household::{Entry, Row},
    open_points,
    point::{Gather, Place, PointDef},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Checks of wage tax",
    points: POINTS,
    figures: &["withholding", "tariff", "surcharge", "church"],
    ..Provision::NONE
};

open_points! {
    TAX_HIGH = look "DE-C08", "§39b", "Compare the wage tax with the certificate.";
    TAX_MISSING = look "DE-C09", "§39b", "Compare the wage tax with the certificate.";
    TAX_ODD = look "DE-C10", "§39b(2)", "Compare wage, class and months with the certificate.";
    CHURCH_ODD = look "DE-C11", "church tax laws", "Compare church tax, and whether the person is in a church.";
    SURCHARGE_ODD = look "DE-C12", "§4 SolzG", "Compare the surcharge with the certificate.";
    PENSION_HIGH = look "DE-C13", "SGB VI", "Compare the part for old age with the certificate.";
    NO_EMPLOYERS_PART = look "DE-C14", "§10(1) Nr.2", "Compare number 22 with the certificate.";
    NO_HEALTH = look "DE-C15", "§10(1) Nr.3", "Is the person insured privately? Add that paper.";
    COLLECTIVE = blocks "DE-C20", "§9(1) S.3 Nr.4 S.3", "Leave out the days on which the employer drove.";
    CANTEEN = look "DE-C23", "§9(4a) S.8", "Say how many meals were given on the trips.";
    BY_CLASS = look "DE-C47", "§46(2) Nr.3a", "A return is due: watch the deadline.";
    FIFTHS = look "DE-C49", "§34(1), (2)", "Is it compensation of one year, and more than the job would have brought? It is taxed by fifths here.";
    NOT_BUNCHED = look "DE-C73", "§34(2)", "Is so much more than the job would have brought really in one year? Else the plain tax counts.";
    TWO_FIRST_CLASSES = look "DE-C55", "§38b(1) Nr.6", "Of two jobs at a time one has class VI: compare the certificates.";
    CLASS_EARLY = look "DE-C58", "§38b(1) Nr.3", "Compare from when class III counts: no wage tax may be missing.";
    GAP = look "DE-C59", "§§32b, 46", "Say what was in between: benefits, study, a stay abroad.";
    TWICE_INSURED = look "DE-C60", "§10(1) Nr.3", "Compare the months of both.";
    ALONE_CLAIMED = blocks "DE-C61", "§10(4) S.2", "With any part of an employer the lower most counts: answer no.";
    OTHER_YEAR = blocks "DE-C69", "§41b", "Take the certificate of this year.";
    NO_START = blocks "DE-C71-base", "§19(2) S.3", "Enter numbers 29 and 30: they decide what is free for life.";
}

/// What is unlikely about certificates.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CERTIFICATE.id) {
        amounts(points, paper);
        insurance(points, paper);
        class(points, paper);
    }
    for &person in &points.facts.filers {
        periods(points, person);
    }
}

fn at(points: &mut Points<'_>, def: &PointDef, paper: &Paper, field: &str, words: &str) {
    let message = format!("{}: {words}", paper.title);
    points.raise(def, Place::paper(&paper.id, field), message);
}

fn part(amount: Money, billionths: i64) -> Money {
    amount.times(Rate::from_billionths(billionths), Money::CENT, Rounding::HalfUp)
}

fn count(paper: &Paper, field: &str) -> Option<i64> {
    paper.boxes.get(field).and_then(Entry::count)
}

/// The owner of a certificate, by place.
fn owner(points: &Points<'_>, paper: &Paper) -> Option<usize> {
    points.household.index_of(&paper.owners.first()?.person)
}

/// So much above its rate church tax is still likely: it goes by the tax of months.
const HALF_A_PERCENT: i64 = 5_000_000;

fn amounts(points: &mut Points<'_>, paper: &Paper) {
    let of = |field: &str| paper.amount(field);
    let (gross, tax) = (of("3"), of("4"));
    let rates = &points.facts.figures;
    if tax > part(gross, rates.tariff.fifth_rate.billionths()) {
        at(points, &TAX_HIGH, paper, "4", "more than 45 % of the wage was withheld.");
    }
    if of("5") > part(tax, rates.surcharge.rate.billionths()) + Money::whole(1) {
        at(points, &SURCHARGE_ODD, paper, "5", "the surcharge is above 5.5 % of wage tax.");
    }
    let member = owner(points, paper).is_some_and(|person| points.facts.people[person].church_months > 0);
    if of("6") > part(tax, rates.church.rate.billionths() + HALF_A_PERCENT)
        || (of("6") > Money::ZERO && !member)
    {
        at(points, &CHURCH_ODD, paper, "6", "church tax does not fit wage tax or the person.");
    }
    let figures = &points.facts.figures.withholding;
    let within = settled::lesser(gross, figures.pension_to);
    if of("23") > part(within, figures.pension_rate.billionths() * 105 / 100) {
        at(points, &PENSION_HIGH, paper, "23", "the part for old age is above its rate.");
    }
    if of("22").is_zero() && of("23") > Money::ZERO {
        at(points, &NO_EMPLOYERS_PART, paper, "22", "the employer's part for old age is missing.");
    }
    if of("19") + of("10") > Money::ZERO {
        at(points, &FIFTHS, paper, "19", "pay for several years or compensation.");
        if gross - of("19") < of("19") {
            at(points, &NOT_BUNCHED, paper, "19", "less other pay than compensation.");
        }
    }
    if of("8") > Money::ZERO && count(paper, "30").is_none() {
        at(points, &NO_START, paper, "30", "in which year did the pension begin?");
    }
    if of("8") > Money::ZERO && of("29").is_zero() {
        at(points, &NO_START, paper, "29", "twelve times which first pension is its base?");
    }
}

fn insurance(points: &mut Points<'_>, paper: &Paper) {
    let of = |field: &str| paper.amount(field);
    let Some(person) = owner(points, paper) else { return };
    let active = of("3") - of("8");
    let privately = |kind: &'static _| points.facts.people[person].own.has(kind);
    let own = privately(&crate::provision::brings::HEALTH);
    if of("25").is_zero()
        && active > points.facts.figures.withholding.small_job
        && !own
        && of("24b").is_zero()
    {
        at(points, &NO_HEALTH, paper, "25", "no contribution to health cover.");
    }
    if of("25") > Money::ZERO && own && beside_own_cover(points, paper) {
        at(points, &TWICE_INSURED, paper, "25", "health cover here, and some paid oneself.");
    }
    let anothers = of("24a") + of("24b") + of("22");
    if points.facts.people[person].health_alone && anothers > Money::ZERO {
        let who = &points.facts.people[person];
        let place = Place::person(&who.id, ask::HEALTH_ALONE);
        points.raise(&ALONE_CLAIMED, place, format!("{} had a part of an employer in the year.", who.name));
    }
    let letters = paper.text("letters").unwrap_or_default().replace("FR", "");
    let drives = !points.facts.people[person].own.of(&crate::work::brings::WAYS).is_empty();
    if letters.contains('F') && drives && of("17") + of("18") == Money::ZERO {
        at(points, &COLLECTIVE, paper, "letters", "the employer drove to work (letter F).");
    }
    let trips = !points.facts.people[person].own.of(&crate::work::brings::TRIPS).is_empty();
    if letters.contains('M') && trips {
        at(points, &CANTEEN, paper, "letters", "meals were given (letter M).");
    }
}

/// Whether cover that the owner paid may have run in the same months; it may where no days are told.
fn beside_own_cover(points: &Points<'_>, paper: &Paper) -> bool {
    let year = points.facts.figures.year;
    let Some((from, to)) = period(paper, year) else { return true };
    let same =
        |other: &&Paper| other.owners.first().map(|o| &o.person) == paper.owners.first().map(|o| &o.person);
    let own = points.papers(PAID.id).filter(same).filter(|paid| paid.amount("health") > Money::ZERO);
    let mut periods = own.map(|paid| period(paid, year));
    periods.any(|period| period.is_none_or(|(first, last)| first <= to && last >= from))
}

/// The tax classes of a certificate, each with its first day; the box has the one of the end.
fn classes(paper: &Paper, from: Date) -> Vec<(i64, Date)> {
    let of_row = |row: &Row| {
        let class = row.get("by_class").and_then(Entry::count)?;
        Some((class, row.get("since").and_then(Entry::date).unwrap_or(from)))
    };
    let mut all: Vec<(i64, Date)> = paper.rows.iter().filter_map(of_row).collect();
    if all.is_empty() {
        all.extend(count(paper, "class").map(|class| (class, from)));
    }
    all.sort_by_key(|(_, from)| *from);
    all
}

fn class(points: &mut Points<'_>, paper: &Paper) {
    let year = points.facts.figures.year;
    let dated = paper.boxes.contains_key("from") || paper.boxes.contains_key("to");
    let Some(period) = period(paper, year) else {
        if dated {
            at(points, &OTHER_YEAR, paper, "from", "the days are not within the year.");
        }
        return;
    };
    let classes = classes(paper, period.0);
    let (gross, tax) = (paper.amount("3"), paper.amount("4"));
    let all_of_one = !classes.is_empty() && classes.iter().all(|(class, _)| matches!(class, 1 | 4));
    if tax.is_zero() && gross > Money::whole(20_000) && all_of_one {
        at(points, &TAX_MISSING, paper, "4", "no wage tax was withheld.");
    }
    if classes.iter().any(|(class, _)| matches!(class, 3 | 5)) {
        at(points, &BY_CLASS, paper, "class", "wages of class III or V.");
    }
    let Some(person) = owner(points, paper) else { return };
    let married = points.answered(ask::MARRIED_ON).and_then(Entry::date);
    let others = points.facts.filers.iter().filter(|&&p| p != person);
    let arrived = others
        .filter_map(|&p| points.household.people[p].answers.get(ask::ARRIVED))
        .filter_map(Entry::date)
        .max();
    let open_from = married.into_iter().chain(arrived).max();
    let early = |(class, from): &(i64, Date)| *class == 3 && open_from.is_some_and(|day| day > *from);
    if classes.iter().any(early) {
        at(
            points,
            &CLASS_EARLY,
            paper,
            "class",
            "class III before the marriage or the arrival of the spouse.",
        );
    }
    let usual = paper.amount("8").is_zero() && paper.amount("19").is_zero() && gross > Money::whole(1_000);
    if dated && usual && !classes.is_empty() {
        unlike_estimate(points, paper, person, &classes, period);
    }
}

/// Wage tax that is a tenth away from what the classes would withhold of the same pay, month by month.
fn unlike_estimate(
    points: &mut Points<'_>,
    paper: &Paper,
    person: usize,
    classes: &[(i64, Date)],
    period: (Date, Date),
) {
    let of = |amount: Money, part: i64, whole: i64| {
        amount.in_proportion(Money::whole(part), Money::whole(whole), Money::CENT, Rounding::HalfUp)
    };
    let all = months(period);
    let employee = Employee { wage: of(paper.amount("3"), 12, all), care: care_rate(points.facts, person) };
    let month = |class: i64| of_month(of_year(&points.facts.figures, employee, class));
    let first = i64::from(u8::from(period.0.month()));
    let class_in = |month: i64| {
        let counts =
            |from: &Date| from.year() < period.0.year() || i64::from(u8::from(from.month())) <= month;
        classes.iter().rev().find(|(_, from)| counts(from)).or(classes.first()).map_or(1, |(class, _)| *class)
    };
    let expected: Money = (first..first + all).map(|at| month(class_in(at))).sum();
    let withheld = paper.amount("4");
    let apart = if withheld > expected { withheld - expected } else { expected - withheld };
    if apart > part(expected, 100_000_000) && apart > Money::whole(50) {
        let about = expected.rounded(Money::WHOLE, Rounding::HalfUp);
        at(
            points,
            &TAX_ODD,
            paper,
            "4",
            &format!("its classes would withhold about {about:#} of this wage."),
        );
    }
}

/// What the periods of a person's certificates say together.
fn periods(points: &mut Points<'_>, person: usize) {
    let id = &points.facts.people[person].id;
    let year = points.facts.figures.year;
    let own = |paper: &&Paper| {
        let dated = paper.boxes.contains_key("from") && paper.boxes.contains_key("to");
        dated && paper.owners.iter().any(|owner| owner.person == *id)
    };
    let mut all: Vec<(Date, Date, &Paper)> = points
        .papers(CERTIFICATE.id)
        .filter(own)
        .filter_map(|paper| period(paper, year).map(|(from, to)| (from, to, paper)))
        .collect();
    all.sort_by_key(|(from, to, _)| (*from, *to));
    let mut until: Option<Date> = None;
    let away = points.facts.people[person].own.has(&crate::benefits::brings::BENEFITS)
        || points.facts.people[person].own.has(&wage::brings::BENEFITS);
    for pair in all.windows(2) {
        let [(_, to, before), (from, _, paper)] = pair else { continue };
        let last = until.map_or(*to, |day| settled::greater(day, *to));
        until = Some(last);
        let first_class = |paper: &Paper| matches!(count(paper, "class"), Some(1 | 4));
        if *from <= *to && first_class(before) && first_class(paper) {
            at(points, &TWO_FIRST_CLASSES, paper, "class", "two jobs at a time, neither of class VI.");
        }
        if (*from - last).whole_days() > 1 && !away {
            at(points, &GAP, paper, "from", "nothing between it and the certificate before.");
        }
    }
}
