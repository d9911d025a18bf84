//! Tuition (ITA 118.5, 118.61, 118.9; Schedule 11): what the student must use, may hand on, and carries.

use crate::{
    bringing::Bringing,
    earlier_minimum_tax,
    facts::Facts,
    form_428, minimum_tax,
    plan::{Filed, Handed, On},
    points::Points,
    rounding::{STEEPEST, STEEPEST_OF_CREDIT, cents},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision, More, Opt},
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits,
    line::LineId,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[CERTIFICATE, BROUGHT_IN],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["tuition"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: CARRIED, paper: "Tuition carried", into: CarriedTo::Box("federal") },
    Carry { line: form_428::TUITION_CARRIED, paper: "Tuition carried", into: CarriedTo::Box("provincial") },
];

lines! {
    pub USED = "ca.32300", "Tuition used", "ITA 118.5, 118.61",
        "What covers the student's own tax comes first: unused of earlier years, then this year's.";
    pub TRAINING = "ca.45350", "Canada training credit", "ITA 122.91",
        "As much of the limit as the way claims, at most a half of the fees, which it takes from tuition; refundable.";
    pub HANDED_ON = "ca.32700", "Tuition handed on", "ITA 118.8, 118.9",
        "As much as the way hands on of what is left of this year's fees.";
    CARRIED = "ca.tuition.carried", "Tuition kept for later", "ITA 118.61",
        "Neither used nor handed on; only the student can use it.";
    pub FROM_CHILD = "ca.32400", "Tuition from a child", "ITA 118.9",
        "What a child or grandchild hands on.";
}

limits! {
    TUITION_TRANSFER = "ca.limit.tuition" on HANDED_ON, "Tuition handed on", "over the most that may be transferred",
        "ITA 118.8, 118.9";
}

open_points! {
    SCHOOL_FEES = look "C-65", "ITA 118.5(1)(a)",
        "Nothing to do.";
    TRAINING_LIMIT = blocks "training-credit", "ITA 122.91",
        "Enter the training limit of the notice of assessment on the paper for unused tuition, 0 where there is none.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T2202 box 26 of schools above the least.
    pub static FEES: Brought = Brought::new();

    /// T2202 box 25, months as a full-time student.
    pub static FULL_MONTHS: Brought<i64> = Brought::new();

    /// T2202 box 24, months as a part-time student.
    pub static PART_MONTHS: Brought<i64> = Brought::new();

    /// The training limit of the notice of assessment.
    pub static TRAINING: Brought = Brought::new();

    /// Unused federal tuition of earlier years.
    pub static CARRIED: Brought = Brought::new();

    /// Unused provincial tuition of earlier years.
    pub static CARRIED_PROVINCIAL: Brought = Brought::new();
}

/// The most that a person may claim as the training credit (122.91): the limit, or a half of the fees if less, from 26 to 65.
fn training_most(facts: &Facts, student: usize) -> Money {
    let (who, figures) = (&facts.people[student], &facts.figures.tuition);
    let of_age =
        who.age.is_some_and(|age| (figures.training_from_age..=figures.training_to_age).contains(&age));
    let half = cents(sum(who.own.of(&brings::FEES)), figures.training_part);
    let whole_year = who.part_year.days.is_none();
    if of_age && whole_year { settled::lesser(sum(who.own.of(&brings::TRAINING)), half) } else { Money::ZERO }
}

/// What is claimed of it.
fn trained(on: On<'_>) -> Money {
    let wanted = on.plan.training.get(on.person).copied().flatten().unwrap_or(Money::LARGEST);
    settled::lesser(wanted, training_most(on.facts, on.person))
}

/// Line 45350.
pub fn training(on: On<'_>, trail: &mut impl Trail) -> Money {
    let most = training_most(on.facts, on.person);
    if most.is_zero() {
        return most;
    }
    let wanted = on.plan.training.get(on.person).copied().flatten().unwrap_or(Money::LARGEST);
    let claimed = limit::lesser(trail, wanted, most);
    trail.line(TRAINING, on.scope, claimed, |i| {
        i.items(on.own().of(&brings::TRAINING)).items(on.own().of(&brings::FEES));
    })
}

/// How much of it a person claims, by the person's place: it is worth more than the tuition that it takes.
pub static TRAINED: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| !training_most(facts, p).is_zero()).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let amount = Amount {
            most: training_most(facts, person),
            short: format!("training credit of {name}"),
            more: More::NeverCosts,
            steepest: STEEPEST,
        };
        let id = format!("ca.training.{}", facts.people[person].id);
        Decision::amount(id, format!("Training credit that {name} claims"), "ITA 122.91", amount)
    },
);

/// What each person claims of the training credit in a way; all where nothing is said.
pub fn chosen_training(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&TRAINED, person)).collect()
}

/// Fees of the year that make tuition: without what the training credit takes.
pub fn fees(on: On<'_>) -> Money {
    sum(on.own().of(&brings::FEES)) - trained(on)
}

/// A student's tuition.
#[derive(Debug, Clone, Copy, Default)]
pub struct Tuition {
    /// Line 32300, with which the student's own tax is covered first.
    pub used: Money,
    /// Line 32700.
    pub handed_on: Money,
}

/// The most that a student could hand on, before own use takes from it.
pub fn most(facts: &Facts, student: usize) -> Money {
    settled::lesser(sum(facts.people[student].own.of(&brings::FEES)), facts.figures.tuition.transfer_most)
}

/// Income as an amount that credits cover: in the first bracket taxable income, above it the tax over the first rate.
pub fn to_cover(trail: &mut impl Trail, taxable: Money, tops: &[Money], rates: &[Rate]) -> Money {
    limit::by_brackets_over(trail, taxable, tops, rates.iter().copied(), rates[0])
}

/// Lines 32300 and 32700 and the carryforward. `open` is the income that the amounts before tuition leave to cover.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, open: Money) -> Tuition {
    let own = on.own();
    if !own.has(&brings::FEES) && !own.has(&brings::CARRIED) {
        return Tuition::default();
    }
    let (fees, carried) = (fees(on), sum(own.of(&brings::CARRIED)));
    let open = limit::or_zero(trail, open);
    let of_carried = limit::lesser(trail, carried, open);
    let of_fees = limit::lesser(trail, fees, open - of_carried);
    let used = trail.line(USED, on.scope, of_carried + of_fees, |i| {
        i.items(own.of(&brings::CARRIED)).items(own.of(&brings::FEES)).figure("Income left to cover", open);
    });
    let most = limit::cap(trail, TUITION_TRANSFER.at(on.scope), fees, on.facts.figures.tuition.transfer_most);
    let most = limit::or_zero(trail, most - of_fees);
    let asked = on.plan.tuition.iter().find(|h| h.student == on.person).map_or(Money::ZERO, |h| h.amount);
    let handed_on = limit::lesser(trail, asked, most);
    on.made(trail, HANDED_ON, handed_on, &[(USED, used)], &[("At most", &most)]);
    let left = carried + fees - used - handed_on;
    trail.line(CARRIED, on.scope, left, |i| {
        i.items(own.of(&brings::CARRIED))
            .items(own.of(&brings::FEES))
            .line(USED, on.scope, used)
            .line(HANDED_ON, on.scope, handed_on);
    });
    Tuition { used, handed_on }
}

/// The lines of what a child hands on, federal or provincial.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Lines {
    pub handed_on: LineId,
    pub received: LineId,
}

/// The federal lines.
pub const FEDERAL: Lines = Lines { handed_on: HANDED_ON, received: FROM_CHILD };

/// Lines 32400 and 58600: tuition that students hand on to this return who are children or grandchildren.
pub fn from_child(on: On<'_>, trail: &mut impl Trail, lines: Lines, tuition: &[Tuition]) -> Money {
    let received = on.plan.tuition.iter().filter(|h| h.receiver == on.person);
    let from: Vec<_> = received.filter(|h| on.facts.partner(on.person) != Some(h.student)).collect();
    let total = on.by_days(from.iter().map(|h| tuition[h.student].handed_on).sum());
    trail.line(lines.received, on.scope, total, |i| {
        for handed in from {
            i.flow(lines.handed_on, on.of(handed.student).scope, tuition[handed.student].handed_on);
        }
    })
}

/// Schedule 11: the student's, with fees of this year or of earlier ones.
pub fn schedule_11(filed: Filed<'_>) -> Required {
    let own = filed.on.own();
    let any = own.has(&brings::FEES) || own.has(&brings::CARRIED);
    Required::if_so(any, "no tuition of one's own")
}

/// The school's certificate.
pub const CERTIFICATE: PaperKind = PaperKind {
    id: "T2202",
    subject: subject::CREDITS,
    name: "Tuition and enrolment certificate",
    words: "university college school student fees",
    title: "School",
    shared: false,
    headline: "26",
    boxes: &[
        Field::amount("26", "26", "Eligible tuition fees"),
        Field::count("24", "24", "Months part-time", 12),
        Field::count("25", "25", "Months full-time", 12),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const BROUGHT_IN: PaperKind = PaperKind {
    id: "Tuition carried",
    subject: subject::CREDITS,
    name: "Unused tuition of earlier years",
    words: "university college school student left over",
    title: "About",
    shared: false,
    headline: "federal",
    boxes: &[
        Field::amount("federal", "", "Federal amount left").help("From the notice of assessment."),
        Field::amount("provincial", "", "Provincial amount left").help("From the same notice."),
        Field::amount("training", "", "Training limit")
            .help("For the Canada training credit, from the same notice."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Fees count where they are above the least for a school.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == BROUGHT_IN.id {
        return paper.give_all(&[
            ("federal", &brings::CARRIED),
            ("provincial", &brings::CARRIED_PROVINCIAL),
            ("training", &brings::TRAINING),
        ]);
    }
    if paper.amount("26") > paper.facts.figures.tuition.school_least {
        paper.give_all(&[("26", &brings::FEES)]);
    }
    let months = |field: &str| paper.paper.paper.boxes.get(field).and_then(Entry::count).unwrap_or(0);
    let (full, part) = (months("25"), months("24"));
    for (person, _) in paper.paper.shares(Money::ZERO) {
        let own = &mut paper.facts.people[person].own;
        own.add(&brings::FULL_MONTHS, full);
        own.add(&brings::PART_MONTHS, part);
    }
    paper.files();
}

/// Fees that do not count, and a credit that is not computed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CERTIFICATE.id) {
        let fees = paper.amount("26");
        if !fees.is_zero() && fees <= points.facts.figures.tuition.school_least {
            let message = "Fees of 100 or less for a school do not count.";
            points.raise(&SCHOOL_FEES, Place::paper(&paper.id, "26"), message);
        }
        let figures = &points.facts.figures.tuition;
        let (from, to) = (figures.training_from_age, figures.training_to_age);
        let owner = points.owner(paper);
        let of_age = owner.and_then(|p| points.facts.people[p].age).is_some_and(|a| (from..=to).contains(&a));
        let told = points
            .papers(BROUGHT_IN.id)
            .any(|carried| points.owner(carried) == owner && carried.boxes.contains_key("training"));
        if of_age && !fees.is_zero() && !told {
            let message = "What training limit has the notice of assessment (line 45350)?";
            points.raise(&TRAINING_LIMIT, Place::paper(&paper.id, "26"), message);
        }
    }
}

/// The law of handing tuition on.
const CITE: &str = "ITA 118.8, 118.81, 118.9; Schedule 11";

/// To whom a student hands tuition on, by the student's place: options by place among the receivers.
pub static TO: Open<Facts> = Open::new(students, |facts, student| {
    let receivers = receivers(facts, student);
    let option = |&r: &usize| {
        let person = &facts.people[r];
        let short =
            if receivers.len() > 1 { format!("tuition to {}", facts.first_name(r)) } else { String::new() };
        Opt::new(person.id.as_str(), person.name.as_str(), short)
    };
    let label = format!("Who takes tuition of {}", facts.first_name(student));
    let options = receivers.iter().map(option).collect();
    Decision::between(format!("ca.tuition.{}", facts.people[student].id), label, CITE, options)
});

/// How much of it.
pub static AMOUNT: Open<Facts> = Open::new(students, |facts, student| {
    let name = facts.first_name(student);
    let amount = Amount {
        most: most(facts, student),
        short: format!("tuition of {name}"),
        more: more(facts, student),
        steepest: STEEPEST_OF_CREDIT,
    };
    let id = format!("ca.tuition.{}.amount", facts.people[student].id);
    Decision::amount(id, format!("Tuition that {name} hands on"), CITE, amount)
});

/// Whether handing on more may cost: where a receiver's minimum tax hangs on the ordinary tax.
fn more(facts: &Facts, student: usize) -> More {
    let hangs = |&r: &usize| earlier_minimum_tax::may_be_taken(facts, r) || minimum_tax::may_be_due(facts, r);
    if receivers(facts, student).iter().any(hangs) { More::MayCost } else { More::NeverCosts }
}

/// Students with something to hand on and someone to take it.
pub fn students(facts: &Facts) -> Vec<usize> {
    let can = |&s: &usize| !most(facts, s).is_zero() && !receivers(facts, s).is_empty();
    facts.returns.iter().copied().filter(can).collect()
}

/// Who may take a student's tuition: the partner, or where the student is a child or grandchild, the filers.
fn receivers(facts: &Facts, student: usize) -> Vec<usize> {
    let who = &facts.people[student];
    if who.filer {
        return facts.partner(student).filter(|&partner| facts.files(partner)).into_iter().collect();
    }
    if who.descendant { facts.filers.clone() } else { Vec::new() }
}

/// What a way hands on.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Handed> {
    let handed = |student: usize| {
        let receiver = receivers(facts, student)[way.taken(&TO, student)?];
        let amount = way.amount(&AMOUNT, student).unwrap_or_default();
        Some(Handed { student, receiver, amount, provincial: Money::ZERO })
    };
    (0..facts.people.len()).filter_map(handed).collect()
}
