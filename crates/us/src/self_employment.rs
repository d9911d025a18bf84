//! Self-employment tax (§§1401, 1402), Schedule SE of each person, with half of it deducted (§164(f)); retirement plans (§404(a)(8))
//! and health insurance (§162(l)) of the self-employed.

use crate::{
    bringing::{Bringing, MedicalItem, brings as shared},
    business, excess_deferrals,
    facts::Facts,
    optional_earnings,
    papers::w2,
    pass_through,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    brought::{Brought, Records},
    field::{Choice, Field, Years},
    forms::Required,
    limit, limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Silent, Trail, Unseen},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[PLAN, PREMIUMS],
    points: POINTS,
    figures: &["self_employment", "social_security", "own_plan", "simple_plan"],
    ..Provision::NONE
};

lines! {
    pub NET = "us.sched_se.6", "Net earnings from self-employment", "IRC §1402(a)",
        "92.35 % of the profit, where that is 400 or more.";
    TAX_OF = "us.sched_se.12", "Self-employment tax of this person", "IRC §1401(a), (b)",
        "12.4 % up to what is left of the wage base, and 2.9 %.";
    pub TAX = "us.sched_2.4", "Self-employment tax", "IRC §1401",
        "Schedule SE of each person.";
    pub HALF_OF = "us.sched_se.13", "Half of the self-employment tax of this person", "IRC §164(f)",
        "Half of it.";
    pub HALF = "us.sched_1.15", "Half of the self-employment tax", "IRC §164(f)",
        "Schedule SE of each person.";
    pub PLAN_OF = "us.plan.of", "Retirement plan of the self-employed", "IRC §404(a)(8)",
        "Contributions, up to a part of profit less half of the tax, and to the amount of the year.";
    pub PLANS = "us.sched_1.16", "Retirement plans of the self-employed", "IRC §404(a)(8)",
        "That of each person.";
    pub COVER_OF = "us.7206.cover", "Premiums of the Marketplace that are deducted", "Rev. Proc. 2014-41; Reg. §1.162(l)-1",
        "What the premium tax credit leaves of them, where each depends on the other.";
    pub HEALTH_OF = "us.7206.14", "Health insurance of the self-employed", "IRC §162(l)",
        "Premiums, up to profit less half of the tax and plan contributions; the rest is medical.";
    pub HEALTH = "us.sched_1.17", "Health insurance of the self-employed", "IRC §162(l)",
        "Form 7206 of each person.";
}

limits! {
    PLAN_LIMIT = "us.limit.plan" on PLAN_OF, "Retirement plan", "over what the plan allows", "IRC §§404(h), 415(c)";
    pub COVER_LIMIT = "us.limit.cover" on COVER_OF, "Marketplace premiums", "over what the business earned, or is paid in advance",
        "IRC §162(l)(2)(A); Reg. §1.162(l)-1(a)(1)";
    HEALTH_LIMIT = "us.limit.self_employed_health" on HEALTH_OF, "Health insurance", "over what the business earned",
        "IRC §162(l)(2)(A)";
}

open_points! {
    KIND = blocks "plan-kind", "IRC §§404(a)(8), 408(k), 408(p)",
        "Choose the kind of plan: its limit goes by it.";
    LESS = not_weighed "C-80", "IRC §404(h)(1)(B)",
        "The amount may still be chosen until the due date with extensions: another one is not weighed here.";
    OTHER_COVER = blocks "7206-eligible", "IRC §162(l)(2)(B)",
        "Not for a month in which an employer of the family subsidised a plan that was open: enter only the premiums of other months.";
}

/// Premiums of a shareholder with more than 2 % of an S corporation, which its wages limit (§162(l)(5), §1372).
#[derive(Debug, Clone, Copy)]
pub struct Corporate {
    premiums: Item,
    /// Its Medicare wages.
    wages: Money,
}

/// What its papers bring.
pub mod brings {
    use super::Corporate;
    use hembo_core::brought::Brought;

    /// Contributions to a SEP.
    pub static SEP: Brought = Brought::new();

    /// Elective part of a plan of one's own.
    pub static SOLO_ELECTIVE: Brought = Brought::new();

    /// Employer's part of it.
    pub static SOLO_SHARE: Brought = Brought::new();

    /// Elective part of a SIMPLE plan of one's own.
    pub static SIMPLE_ELECTIVE: Brought = Brought::new();

    /// Employer's part of it.
    pub static SIMPLE_SHARE: Brought = Brought::new();

    /// A SIMPLE plan of a business with more than 25 employees.
    pub static SIMPLE_LARGE: Brought<bool> = Brought::new();

    /// Health premiums of the self-employed.
    pub static PREMIUMS: Brought = Brought::new();

    /// Health premiums of a shareholder whom an S corporation pays.
    pub static CORPORATE: Brought<Corporate> = Brought::new();
}

const KINDS: &[Choice] =
    &[Choice::new("sep", "SEP"), Choice::new("solo", "401(k) of one's own"), Choice::new("simple", "SIMPLE")];

const PLAN: PaperKind = PaperKind {
    id: "Own plan",
    subject: subject::OWN_WORK,
    name: "Retirement plan of the self-employed",
    words: "sep solo 401k keogh simple self-employed retirement",
    title: "Trustee",
    shared: false,
    headline: "share",
    boxes: &[
        Field::choice("kind", "", "Kind", KINDS),
        Field::amount("elective", "", "Elective deferrals").help(
            "Of a 401(k) of one's own or a SIMPLE plan; with those at work up to the limit of the year.",
        ),
        Field::amount("share", "", "Contributions of the business")
            .help("Until the due date with extensions."),
        Field::yes_no("large", "", "More than 25 employees")
            .help("Only of a SIMPLE plan, whose limit is lower then."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const PREMIUMS: PaperKind = PaperKind {
    id: "Own premiums",
    subject: subject::OWN_WORK,
    name: "Health premiums of the self-employed",
    words: "health insurance premiums self-employed 7206 dental medicare",
    title: "Insurer",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::amount("amount", "", "Premiums for the family")
            .help("Medical, dental, Medicare; children under 27 too. The rest is medical."),
        Field::yes_no("only_own", "", "No employer's plan was open in these months"),
        Field::amount("corporation", "", "Medicare wages of an S corporation")
            .help("Of its shareholder with more than 2 %, where it pays the premiums and box 1 of its Form W-2 holds them."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives contributions and premiums to their owner.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    for (person, _) in paper.paper.shares(Money::ZERO) {
        paper.facts.people[person].own.add(&optional_earnings::brings::BESIDE, true);
    }
    if reading.kind == PREMIUMS.id {
        let wages = reading.amount("corporation");
        if reading.flag("only_own") && !wages.is_zero() {
            let corporate = |premiums| Corporate { premiums, wages };
            return paper.put_as("amount", None, reading.amount("amount"), &brings::CORPORATE, corporate);
        }
        if reading.flag("only_own") {
            return paper.give("amount", &brings::PREMIUMS);
        }
        for (person, item) in paper.paper.parts("amount", None, reading.amount("amount")) {
            let bill = MedicalItem { item, patient: person, long_term_care: false };
            paper.facts.people[person].own.add(&shared::MEDICAL, bill);
        }
        return;
    }
    match reading.text("kind") {
        Some("sep") => paper.give("share", &brings::SEP),
        Some("solo") => {
            paper.give("elective", &brings::SOLO_ELECTIVE);
            paper.give("share", &brings::SOLO_SHARE);
        }
        Some("simple") => {
            paper.give("elective", &brings::SIMPLE_ELECTIVE);
            paper.give("share", &brings::SIMPLE_SHARE);
            for (person, _) in paper.paper.shares(Money::ZERO).into_iter().filter(|_| reading.flag("large")) {
                paper.facts.people[person].own.add(&brings::SIMPLE_LARGE, true);
            }
        }
        _ => {}
    }
}

/// What a person's business and the tax on it come to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Own {
    /// Schedule C line 31, as it is reported.
    pub profit: Money,
    /// The same of the businesses that the person runs, all of it (§1402(a)(5)), and earnings as a partner.
    pub run: Money,
    /// What of them counts as earned: the profit, or what the optional method makes of it.
    pub earnings: Money,
    /// Schedule SE line 6, zero below 400.
    pub net: Money,
    /// Schedule SE line 12.
    pub tax: Money,
    /// Schedule SE line 13.
    pub half: Money,
    /// Schedule 1 line 16.
    pub plan: Money,
    /// Schedule 1 line 17.
    pub health: Money,
    /// Of it the premiums of a shareholder whom an S corporation pays.
    pub corporate: Money,
}

impl Own {
    /// Earnings for credits (§32(c)(2)(A)(ii)) and as compensation, less half of the tax.
    pub fn earned(&self) -> Money {
        self.earnings - self.half
    }
}

/// A person's profit, tax and deductions.
pub fn of(on: On<'_>, trail: &mut impl Trail, person: usize) -> Own {
    let partner = pass_through::earnings(on.facts, person);
    let corporate = corporate_of(on.facts, person);
    if business::of(on.facts, person).is_empty() && partner.is_zero() {
        let employed = on.facts.people[person].own.has(&brings::CORPORATE);
        let health = if employed { health_of(on, trail, person, Money::ZERO) } else { Money::ZERO };
        return Own { health, corporate, ..Own::default() };
    }
    let profit = business::of_person(on, &mut Unseen(trail), person);
    let run = business::run_by(on, &mut Unseen(trail), person) + partner;
    let chosen = on.unit.optional_method.contains(&person);
    let optional = optional_earnings::of(on.facts, person, run).filter(|_| chosen);
    let (net, tax) = tax_of(on.facts, trail, person, [run, profit], optional);
    let scope = Scope::Person(person);
    let half = tax.times(on.facts.figures.self_employment.half, Money::WHOLE, Rounding::HalfUp);
    trail.line(HALF_OF, scope, half, |i| {
        i.line(TAX_OF, scope, tax);
    });
    let plan = plan_of(on.facts, trail, person, net, run - half);
    let health = health_of(on, trail, person, run - half - plan);
    let earnings = optional.unwrap_or(run);
    Own { profit, run, earnings, net, tax, half, plan, health, corporate }
}

/// The same, where nobody is to see it.
pub fn silent(on: On<'_>, person: usize) -> Own {
    of(on, &mut Silent, person)
}

fn tax_of(
    facts: &Facts,
    trail: &mut impl Trail,
    person: usize,
    [profit, reported]: [Money; 2],
    optional: Option<Money>,
) -> (Money, Money) {
    let figures = &facts.figures.self_employment;
    let exact = limit::or_zero(trail, profit).times(figures.part, Money::CENT, Rounding::HalfUp);
    trail.step(exact - figures.least, true);
    // Rounded once, not to cents first: .4965 is no dollar.
    let whole = settled::or_zero(profit).times(figures.part, Money::WHOLE, Rounding::HalfUp);
    let by_profit = if exact < figures.least { Money::ZERO } else { whole };
    let net = optional.unwrap_or(by_profit);
    let scope = Scope::Person(person);
    trail.line(NET, scope, net, |i| {
        let partner = pass_through::earnings(facts, person);
        // Of a community business each spouse reports half, and who runs it is taxed on all of it.
        if profit - partner != reported {
            i.figure("Profit of the businesses run", profit - partner);
        } else if !reported.is_zero() {
            i.line(business::PROFIT, scope, reported);
        }
        i.items(pass_through::earning_items(facts, person)).figure("Part", figures.part);
        if let Some(amount) = optional {
            i.figure("By the optional method", amount);
        }
    });
    let own = &facts.people[person].own;
    let kinds =
        [&w2::brings::SOCIAL_SECURITY_WAGES, &w2::brings::ALLOCATED_TIPS, &w2::brings::UNWITHHELD_EARNED];
    let wages: Money = kinds.into_iter().map(|kind| sum(own.of(kind))).sum();
    let room = settled::or_zero(facts.figures.social_security.wage_base - wages.to_whole());
    let social = limit::lesser(trail, net, room);
    let by = |amount: Money, rate| amount.times(rate, Money::WHOLE, Rounding::HalfUp);
    let tax = by(social, figures.social_rate) + by(net, figures.medicare_rate);
    trail.line(TAX_OF, scope, tax, |i| {
        i.line(NET, scope, net).figure("Below the wage base", social);
    });
    (net, tax)
}

/// What each part of the plans brings: SEP, then elective and employer's parts of a 401(k) and of a SIMPLE plan.
static PLAN_PARTS: [&Brought; 5] = [
    &brings::SEP,
    &brings::SOLO_ELECTIVE,
    &brings::SOLO_SHARE,
    &brings::SIMPLE_ELECTIVE,
    &brings::SIMPLE_SHARE,
];

/// Whether a person has a plan of one's own.
pub fn has_plan(own: &Records) -> bool {
    PLAN_PARTS.into_iter().any(|part| own.has(part))
}

/// What a person deducts of plans: `net` are the earnings on which the tax goes, `earnings` the profit less half of it.
fn plan_of(facts: &Facts, trail: &mut impl Trail, person: usize, net: Money, earnings: Money) -> Money {
    let own = &facts.people[person].own;
    let [sep, elective, share, simple, simple_share] = PLAN_PARTS.map(|part| sum(own.of(part)).to_whole());
    let paid = sep + elective + share + simple + simple_share;
    if paid.is_zero() {
        return Money::ZERO;
    }
    let figures = &facts.figures.own_plan;
    let earnings = limit::or_zero(trail, earnings);
    let part =
        settled::lesser(earnings, figures.compensation).times(figures.part, Money::WHOLE, Rounding::HalfUp);
    let shares = limit::lesser(trail, sep + share, part);
    let scope = Scope::Person(person);
    let elective = settled::lesser(elective, excess_deferrals::room_of(facts, person));
    let together = limit::lesser(trail, shares + elective, earnings);
    let most = settled::lesser(
        together,
        figures.most + figures.catch_up_of(facts.people[person].age(facts.year_end)),
    );
    let simple = simple_of(facts, trail, person, [simple, simple_share], net);
    let most = limit::lesser(trail, most + simple, earnings);
    let allowed = limit::cap(trail, PLAN_LIMIT.at(scope), paid, most);
    trail.line(PLAN_OF, scope, allowed, |i| {
        for part in PLAN_PARTS {
            i.items(own.of(part));
        }
        i.figure("Profit less half of the tax", earnings);
    })
}

/// What a SIMPLE plan allows (§408(p)): deferrals up to the limit of the year and age, and of the employer's part the match of 3 % or
/// 2 % of the earnings if more.
fn simple_of(
    facts: &Facts,
    trail: &mut impl Trail,
    person: usize,
    [elective, share]: [Money; 2],
    net: Money,
) -> Money {
    if (elective + share).is_zero() {
        return Money::ZERO;
    }
    let figures = &facts.figures.simple_plan;
    let about = &facts.people[person];
    let most = figures.most_of(about.own.has(&brings::SIMPLE_LARGE), about.age(facts.year_end));
    let room = settled::lesser(most, excess_deferrals::room_of(facts, person));
    let deferred = limit::lesser(trail, settled::lesser(elective, room), net);
    let part = |of: Money, rate| of.times(rate, Money::WHOLE, Rounding::HalfUp);
    let matched = limit::lesser(trail, deferred, part(net, figures.match_rate));
    let counted = limit::lesser(trail, net, facts.figures.own_plan.compensation);
    let employer = limit::greater(trail, matched, part(counted, figures.share_rate));
    deferred + limit::lesser(trail, share, employer)
}

fn health_of(on: On<'_>, trail: &mut impl Trail, person: usize, earnings: Money) -> Money {
    let own = &on.facts.people[person].own;
    let paid = sum(own.of(&brings::PREMIUMS)).to_whole();
    let cover = cover_of(on, person);
    let corporate = corporate_paid(on.facts, person);
    if paid.is_zero() && cover.is_zero() && corporate.is_zero() {
        return Money::ZERO;
    }
    let room = limit::or_zero(trail, earnings);
    let scope = Scope::Person(person);
    let most = limit::lesser(trail, paid + cover, room) + corporate_of(on.facts, person);
    let allowed = limit::cap(trail, HEALTH_LIMIT.at(scope), paid + cover + corporate, most);
    trail.line(HEALTH_OF, scope, allowed, |i| {
        i.items(own.of(&brings::PREMIUMS)).figure("What the business earned", room);
        for corporate in own.of(&brings::CORPORATE) {
            i.items([&corporate.premiums]).figure("Wages of the S corporation", corporate.wages);
        }
        if !cover.is_zero() {
            i.line(COVER_OF, scope, cover);
        }
    })
}

/// Premiums of a shareholder whom S corporations pay.
fn corporate_paid(facts: &Facts, person: usize) -> Money {
    let all = facts.people[person].own.of(&brings::CORPORATE);
    all.iter().map(|corporate| corporate.premiums.amount).sum::<Money>().to_whole()
}

/// What the wages of each corporation allow of them.
fn corporate_of(facts: &Facts, person: usize) -> Money {
    let all = facts.people[person].own.of(&brings::CORPORATE);
    let allowed = |one: &Corporate| settled::lesser(one.premiums.amount, one.wages);
    all.iter().map(allowed).sum::<Money>().to_whole()
}

/// What a person deducts of the premiums of a Marketplace policy.
fn cover_of(on: On<'_>, person: usize) -> Money {
    on.unit.cover.filter(|cover| cover.person == person).map_or(Money::ZERO, |cover| cover.deducted)
}

/// What the business earned beyond the other premiums, for those of a Marketplace policy.
pub fn room_for_cover(on: On<'_>, person: usize) -> Money {
    let own = silent(on, person);
    settled::or_zero(own.run - own.half - own.plan) - (own.health - own.corporate - cover_of(on, person))
}

/// Premiums of a return that the business could not deduct: they are medical (§213(d)(1)(D)).
pub fn premiums_left(on: On<'_>) -> Money {
    let left = |&person: &usize| {
        let paid = sum(on.facts.people[person].own.of(&brings::PREMIUMS)).to_whole();
        paid + corporate_paid(on.facts, person) + cover_of(on, person) - silent(on, person).health
    };
    let of_cover = on.unit.cover.map_or(Money::ZERO, |cover| cover.left);
    on.unit.people.iter().map(left).sum::<Money>() + of_cover
}

/// Schedule 1 lines 3, 15, 16 and 17.
pub fn adjustments(on: On<'_>, trail: &mut impl Trail) -> [(LineId, Money); 3] {
    let each: Vec<(usize, Own)> = on.unit.people.iter().map(|&p| (p, of(on, trail, p))).collect();
    let of = |pick: fn(&Own) -> Money| each.iter().map(|(p, own)| (*p, pick(own))).collect::<Vec<_>>();
    [
        (HALF, on.of_each(trail, HALF, HALF_OF, &of(|own| own.half))),
        (PLANS, on.of_each(trail, PLANS, PLAN_OF, &of(|own| own.plan))),
        (HEALTH, on.of_each(trail, HEALTH, HEALTH_OF, &of(|own| own.health))),
    ]
}

/// Schedule 2 line 4.
pub fn tax(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, silent(on, p).tax)).collect();
    on.of_each(trail, TAX, TAX_OF, &each)
}

/// Schedule SE: net earnings of 400 or more.
pub fn schedule_se(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(TAX), "no net earnings of 400 or more")
}

/// Form 7206: premiums.
pub fn form_7206(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(HEALTH), "no health insurance of the self-employed")
}

/// The worksheet of a plan.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(PLANS), "no plan of the self-employed")
}

/// Plans and premiums.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PLAN.id) {
        plan(points, paper);
    }
    for paper in points.papers(PREMIUMS.id) {
        if !paper.boxes.contains_key("only_own") {
            let message = "Was a plan of an employer of the family open in these months?";
            points.raise(&OTHER_COVER, Place::paper(&paper.id, "only_own"), message);
        }
    }
}

fn plan(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    match paper.text("kind") {
        None => points.raise(&KIND, at("kind"), "Which kind of plan is this?"),
        Some(_) => points.raise(&LESS, at("share"), "Contributions of the business may still change."),
    }
}
