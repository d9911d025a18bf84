//! Credits of the provinces for what was paid (forms 428 and 479): gifts to provincial parties, labour-sponsored funds, fares of seniors, treatment of
//! infertility, work on the homes of seniors, sports and arts of children, volunteers.

use crate::{
    bringing::Bringing,
    facts::Facts,
    figures::ProvincialCredits,
    form_428,
    income::{Incomes, family_net},
    plan::On,
    points::Points,
    province,
    rounding::cents,
    widowed,
};
use hembo_core::{
    Silent,
    brought::Brought,
    field::{Field, Years},
    limit, limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[PAID],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &[
        "ontario_credits",
        "british_columbia_credits",
        "alberta_credits",
        "saskatchewan_credits",
        "manitoba_credits",
        "new_brunswick_credits",
        "nova_scotia_credits",
        "newfoundland_credits",
        "prince_edward_credits",
        "yukon_credits",
        "northwest_credits",
        "nunavut_credits",
        "age",
    ],
    ..Provision::NONE
};

lines! {
    pub PARTIES = "ca.428.parties", "Gifts to provincial parties", "Income tax acts of the provinces; form 428",
        "Parts of slices, at most the tax.";
    pub LABOUR_FUNDS = "ca.428.labour_funds", "Labour-sponsored funds", "Income tax acts of the provinces; form 428",
        "The credit of the province's slip up to a most, at most the tax that is left.";
    PARTIES_PAID_OUT = "ca.479.parties", "Gifts to provincial parties, paid out", "Taxation Act, 2007 (Ontario); ON479",
        "Parts of slices, whatever the tax.";
    FARES = "ca.479.fares", "Fares of seniors", "Income tax acts of the provinces; form 479",
        "A part of what was paid; refundable.";
    FERTILITY = "ca.479.fertility", "Treatment of infertility", "Income tax acts of the provinces; form 479",
        "A part of what was paid; refundable.";
    RENOVATION = "ca.479.renovation", "Work on the homes of seniors", "Income tax acts of the provinces; form 479",
        "A part of what the family paid; refundable.";
    ACTIVITIES = "ca.479.activities", "Sports and arts of children", "Income tax acts of the provinces; form 479",
        "A part of what was paid, up to a most of each child or of the family; refundable.";
    VOLUNTEERS = "ca.479.volunteers", "Volunteers, paid out", "Income tax acts of the provinces; form 479",
        "A fixed amount; refundable.";
}

limits! {
    PARTIES_MOST = "ca.limit.provincial_parties" on PARTIES, "Gifts to provincial parties", "beyond the tax, lost",
        "Income tax acts of the provinces; form 428";
    LABOUR_MOST = "ca.limit.provincial_labour_funds.most" on LABOUR_FUNDS, "Labour-sponsored funds", "over the most",
        "Income tax acts of the provinces; form 428";
    LABOUR_TAX = "ca.limit.provincial_labour_funds" on LABOUR_FUNDS, "Labour-sponsored funds", "beyond the tax, lost",
        "Income tax acts of the provinces; form 428";
    FARES_MOST = "ca.limit.fares" on FARES, "Fares of seniors", "over the most",
        "Income tax acts of the provinces; form 479";
    FERTILITY_MOST = "ca.limit.fertility" on FERTILITY, "Treatment of infertility", "over the most",
        "Income tax acts of the provinces; form 479";
    RENOVATION_MOST = "ca.limit.renovation" on RENOVATION, "Work on the homes of seniors", "over the most",
        "Income tax acts of the provinces; form 479";
    ACTIVITIES_MOST = "ca.limit.activities" on ACTIVITIES, "Sports and arts of children", "over the most",
        "Income tax acts of the provinces; form 479";
}

open_points! {
    NONE_HERE = look "province-without", "Income tax acts of the provinces; forms 428, 479",
        "The province has no such credit, or none that is held: nothing comes of it.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Gifts to provincial parties.
    pub static PARTIES: Brought = Brought::new();

    /// The credit for labour-sponsored funds on the province's slip.
    pub static LABOUR_FUNDS: Brought = Brought::new();

    /// Fares of seniors.
    pub static FARES: Brought = Brought::new();

    /// Treatment of infertility.
    pub static FERTILITY: Brought = Brought::new();

    /// Work on the homes of seniors.
    pub static RENOVATION: Brought = Brought::new();

    /// Sports and arts, one of them for each child.
    pub static ACTIVITIES: Brought = Brought::new();
}

const PAID: PaperKind = PaperKind {
    id: "Provincial credits",
    subject: subject::CREDITS,
    name: "Provincial credits: parties, funds, fares, fertility, homes, activities",
    words: "political contribution labour lsvcc t2c transit bus renovation ivf sports arts fitness on479 bc479 479",
    title: "About",
    shared: false,
    headline: "parties",
    boxes: &[
        Field::amount("parties", "", "Gifts to provincial parties"),
        Field::amount("labour", "", "Credit for labour-sponsored funds")
            .help("As on the province's slip: T2C, NB-LSVC-1 or NSLSV."),
        Field::amount("fares", "", "Fares of a senior")
            .help("Ontario: of 65 or over at the start of the year."),
        Field::amount("fertility", "", "Treatment of infertility").help("Not paid back."),
        Field::amount("renovation", "", "Work on the home of a senior")
            .help("For who is 65 or over or certified disabled; of a family together."),
    ],
    columns: &[
        Field::text("child", "", "Child", 80),
        Field::amount("amount", "", "Sports and arts").help("Registration in a programme that counts."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes and rows to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[
        ("parties", &brings::PARTIES),
        ("labour", &brings::LABOUR_FUNDS),
        ("fares", &brings::FARES),
        ("fertility", &brings::FERTILITY),
        ("renovation", &brings::RENOVATION),
    ]);
    for (row, _, amount) in paper.paper.lines("amount") {
        paper.put("amount", Some(row), amount, &brings::ACTIVITIES);
    }
}

fn for_parties(figures: &ProvincialCredits, given: &[Item]) -> Money {
    figures.to_parties.as_ref().map_or(Money::ZERO, |parties| {
        limit::by_brackets(&mut Silent, sum(given), &parties.tops, parties.rates.iter().copied())
    })
}

/// What gifts to parties take of the tax; in Ontario they are paid out in its place.
pub fn parties(on: On<'_>, trail: &mut impl Trail, tax: Money) -> Money {
    let given = on.own().of(&brings::PARTIES);
    let Some(figures) = province::credits(on.facts).filter(|f| !given.is_empty() && !f.to_parties_paid_out)
    else {
        return Money::ZERO;
    };
    let credit = for_parties(figures, given);
    let taken = limit::cap(trail, PARTIES_MOST.at(on.scope), credit, tax);
    trail.line(PARTIES, on.scope, taken, |i| {
        i.items(given).figure("Credit", credit);
    })
}

/// What shares of labour-sponsored funds take of the tax.
pub fn labour_funds(on: On<'_>, trail: &mut impl Trail, tax: Money) -> Money {
    let credits = on.own().of(&brings::LABOUR_FUNDS);
    let most = province::credits(on.facts).and_then(|figures| figures.labour_funds_most);
    let Some(most) = most.filter(|_| !credits.is_empty()) else { return Money::ZERO };
    let counted = limit::cap(trail, LABOUR_MOST.at(on.scope), sum(credits), most);
    let taken = limit::cap(trail, LABOUR_TAX.at(on.scope), counted, tax);
    trail.line(LABOUR_FUNDS, on.scope, taken, |i| {
        i.items(credits).figure("At most", most);
    })
}

/// Line 47900: what the province pays out whatever the tax.
pub fn paid_out(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Option<(LineId, Money)> {
    let mut all = province::paid_out(on, trail, incomes);
    if let Some(figures) = province::credits(on.facts) {
        all.extend(of_payer(on, trail, figures));
        all.extend(of_family(on, trail, figures, incomes));
    }
    let any = all.iter().any(|(_, amount)| !amount.is_zero());
    any.then(|| (form_428::PAID_OUT, on.add(trail, form_428::PAID_OUT, &all)))
}

/// Of who paid.
fn of_payer(on: On<'_>, trail: &mut impl Trail, figures: &ProvincialCredits) -> Vec<(LineId, Money)> {
    let own = on.own();
    let mut all = Vec::new();
    let given = own.of(&brings::PARTIES);
    if figures.to_parties_paid_out && !given.is_empty() {
        let credit = for_parties(figures, given);
        all.push((
            PARTIES_PAID_OUT,
            trail.line(PARTIES_PAID_OUT, on.scope, credit, |i| {
                i.items(given);
            }),
        ));
    }
    for (line, at, kind, of) in [
        (FARES, FARES_MOST.at(on.scope), &brings::FARES, &figures.fares),
        (FERTILITY, FERTILITY_MOST.at(on.scope), &brings::FERTILITY, &figures.fertility),
    ] {
        let (items, Some(of)) = (own.of(kind), of) else { continue };
        if !items.is_empty() && (line != FARES || is_senior(on.facts, on.person)) {
            let counted = limit::cap(trail, at, sum(items), of.most);
            all.push((line, part(on, trail, line, items, counted, of.part)));
        }
    }
    if let Some(amount) = figures.of_volunteers.filter(|_| on.who().volunteer.is_some()) {
        all.push((VOLUNTEERS, on.made(trail, VOLUNTEERS, amount, &[], &[])));
    }
    all
}

/// Whether someone had reached the age of seniors when the year began.
fn is_senior(facts: &Facts, person: usize) -> bool {
    facts.people[person].age_on(facts.year_begin).is_some_and(|age| age >= facts.figures.age.age)
}

/// Of a family together, on the first return.
fn of_family(
    on: On<'_>,
    trail: &mut impl Trail,
    figures: &ProvincialCredits,
    incomes: &Incomes,
) -> Vec<(LineId, Money)> {
    if on.facts.filers.first() != Some(&on.person) {
        return Vec::new();
    }
    let mut all = Vec::new();
    let worked = family(on.facts, &brings::RENOVATION);
    if let Some(of) = figures.renovation.as_ref().filter(|_| !worked.is_empty()) {
        let counted = limit::cap(trail, RENOVATION_MOST.at(on.scope), sum(&worked), of.most);
        all.push((RENOVATION, part(on, trail, RENOVATION, &worked, counted, of.part)));
    }
    let active = family(on.facts, &brings::ACTIVITIES);
    if let Some((counted, rate)) = activities(on, trail, figures, &active)
        && within_income(on, trail, figures, incomes)
    {
        all.push((ACTIVITIES, part(on, trail, ACTIVITIES, &active, counted, rate)));
    }
    all
}

fn family(facts: &Facts, kind: &'static Brought) -> Vec<Item> {
    facts.filers.iter().flat_map(|&f| facts.people[f].own.of(kind)).copied().collect()
}

/// What counts of sports and arts, each child or all of them up to a most, and the part of it.
fn activities(
    on: On<'_>,
    trail: &mut impl Trail,
    figures: &ProvincialCredits,
    paid: &[Item],
) -> Option<(Money, Rate)> {
    if paid.is_empty() {
        return None;
    }
    let at = ACTIVITIES_MOST.at(on.scope);
    if let Some(of) = &figures.activities_of_child {
        let counted = paid.iter().map(|item| settled::lesser(item.amount, of.most)).sum();
        return Some((limit::cap(trail, at, sum(paid), counted), of.part));
    }
    let of = figures.activities_of_family.as_ref()?;
    Some((limit::cap(trail, at, sum(paid), of.most), of.part))
}

/// Whether the net income of the family does not end the credit for activities.
fn within_income(on: On<'_>, trail: &mut impl Trail, figures: &ProvincialCredits, incomes: &Incomes) -> bool {
    let Some(to) = figures.activities_to_income else { return true };
    let below = to - family_net(on, incomes);
    trail.step(below, true);
    !below.is_negative()
}

fn part(
    on: On<'_>,
    trail: &mut impl Trail,
    line: LineId,
    items: &[Item],
    counted: Money,
    part: Rate,
) -> Money {
    trail.line(line, on.scope, cents(counted, part), |i| {
        i.items(items).figure("Counted", counted).figure("Part", part);
    })
}

/// By how much the tax jumps where family income ends the credit for activities.
pub fn jump(facts: &Facts) -> Money {
    let ends = province::credits(facts).filter(|figures| figures.activities_to_income.is_some());
    if ends.is_some() { sum(&family(facts, &brings::ACTIVITIES)) } else { Money::ZERO }
}

/// What the province has no credit for.
pub fn points(points: &mut Points<'_>) {
    let Some(figures) = province::credits(points.facts) else { return };
    let has = [
        ("parties", figures.to_parties.is_some()),
        ("labour", figures.labour_funds_most.is_some()),
        ("fares", figures.fares.is_some()),
        ("fertility", figures.fertility.is_some()),
        ("renovation", figures.renovation.is_some()),
    ];
    if figures.activities_to_income.is_some() && !family(points.facts, &brings::ACTIVITIES).is_empty() {
        widowed::told(points);
    }
    let active = figures.activities_of_child.is_some() || figures.activities_of_family.is_some();
    for paper in points.papers(PAID.id) {
        let young = points.owner(paper).is_some_and(|owner| !is_senior(points.facts, owner));
        if young && figures.fares.is_some() && !paper.amount("fares").is_zero() {
            let message = "No senior at the start of the year: nothing comes of the fares.";
            points.raise(&NONE_HERE, Place::paper(&paper.id, "fares"), message);
        }
        for (field, has) in has {
            if !has && !paper.amount(field).is_zero() {
                points.raise(&NONE_HERE, Place::paper(&paper.id, field), "No credit of this province.");
            }
        }
        if let Some(cells) = paper.rows.iter().find(|cells| !active && cells.contains_key("amount")) {
            points.raise(&NONE_HERE, Place::row(&paper.id, cells, "amount"), "No credit of this province.");
        }
    }
}
