//! What the law leaves open to a household whose members each file alone: amounts and claims that move between their
//! returns, and what is used now or later.

use crate::{
    contributions,
    facts::Facts,
    income, ontario, pension_split,
    plan::{Handed, On, Plan, Split},
    points, t1, tuition,
};
use hembo_core::{
    Case, Decision, Household, Point, Recorder, Scope, Silent, Trail, Way,
    decision::{Amount, Bar, Opt},
    line::LineId,
    pack::Return,
    reading::sum,
    search::{Edges, Part, Weighable},
    words::first_name,
};
use hembo_money::{Money, Rate};

/// A household under the federal and provincial law.
#[derive(Debug)]
pub struct CanadianCase {
    pub(crate) facts: Facts,
    pub(crate) household: Household,
    decisions: Vec<Decision>,
    about: Vec<About>,
}

/// A dollar more or less of net income or of a credit moves a return's tax by less than this, whatever comes together:
/// top rates with the surtax, a ramp of the health premium, the recovery of old age security, amounts that shrink.
const STEEPEST: Rate = Rate::percent(150);

/// How many amounts are looked for together. With more, contributions are deducted as far as that helps, and a point
/// says so where a smaller deduction might do better.
pub(crate) const SEARCHED_TOGETHER: usize = 3;

/// What a decision is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum About {
    /// From which of the partners pension income moves: option by place among the filers.
    SplitFrom,
    /// How much of it.
    SplitAmount,
    /// Contributions that a person deducts now.
    Contributions(usize),
    /// Which of the partners claims medical receipts: option by place among the filers.
    MedicalBy,
    /// For which twelve months: option by window.
    MedicalWindow,
    /// Gifts that a person claims.
    Gifts(usize),
    /// To whom a student hands tuition on: option by place among the receivers.
    TuitionTo(usize),
    /// How much of it.
    TuitionAmount(usize),
}

impl CanadianCase {
    /// A household's decisions from its facts.
    pub fn new(facts: Facts, household: Household) -> CanadianCase {
        let mut case = CanadianCase { facts, household, decisions: Vec::new(), about: Vec::new() };
        case.list_split();
        case.list_contributions();
        case.list_medical();
        case.list_gifts();
        case.list_tuition();
        case
    }

    fn name(&self, person: usize) -> &str {
        &self.facts.people[person].name
    }

    fn first(&self, person: usize) -> &str {
        first_name(self.name(person))
    }

    fn person_id(&self, person: usize) -> &str {
        &self.facts.people[person].id
    }

    fn add_options(
        &mut self,
        about: About,
        id: String,
        label: String,
        cite: &'static str,
        options: Vec<Opt>,
    ) {
        self.about.push(about);
        self.decisions.push(Decision { id, label, cite, options, amount: None, neutral: false });
    }

    fn add_amount(&mut self, about: About, id: String, label: String, cite: &'static str, amount: Amount) {
        self.about.push(about);
        let amount = Some(amount);
        self.decisions.push(Decision { id, label, cite, options: Vec::new(), amount, neutral: false });
    }

    fn list_split(&mut self) {
        let facts = &self.facts;
        let most = facts.filers.iter().map(|&f| pension_split::most(facts, f)).max().unwrap_or_default();
        if !facts.couple || most.is_zero() {
            return;
        }
        let cite = "ITA 60.03; form T1032";
        let (first, second) = (facts.filers[0], facts.filers[1]);
        let option = |from: usize, to: usize| {
            let label = format!("From {} to {}", self.first(from), self.first(to));
            Opt::new(self.person_id(from), label, format!("{} to {}", self.first(from), self.first(to)))
        };
        let options = vec![option(first, second), option(second, first)];
        self.add_options(About::SplitFrom, "ca.split".into(), "Split the pension of".into(), cite, options);
        let amount = Amount { most, short: "split".into(), never_costs: false, steepest: STEEPEST };
        let label = "Pension income split".into();
        self.add_amount(About::SplitAmount, "ca.split.amount".into(), label, cite, amount);
    }

    fn list_contributions(&mut self) {
        let facts = &self.facts;
        let never_costs = !self.deduction_may_cost() || self.amounts_together() > SEARCHED_TOGETHER;
        for person in facts.returns.clone() {
            let most = contributions::most(&self.facts, person);
            if most.is_zero() {
                continue;
            }
            let label = format!("Contributions that {} deducts now", self.first(person));
            let short = format!("deduction of {}", self.first(person));
            let id = format!("ca.rrsp.{}", self.person_id(person));
            let cite = "ITA 146(5), (5.1); Schedule 7";
            self.add_amount(
                About::Contributions(person),
                id,
                label,
                cite,
                Amount { most, short, never_costs, steepest: STEEPEST },
            );
        }
    }

    /// A larger deduction lowers net income. That never costs, but where gifts may come to the part of net income that
    /// limits them, and where it may decide with whom Ontario counts the children.
    pub(crate) fn deduction_may_cost(&self) -> bool {
        let facts = &self.facts;
        let part = facts.figures.gifts.part;
        let limits_gifts = |&f: &usize| income::cents(self.net_range(f).0, part) < sum(&facts.gifts);
        facts.filers.iter().any(limits_gifts) || self.children_may_change()
    }

    /// How many amounts would be looked for together: the split, the first partner's gifts, each deduction.
    pub(crate) fn amounts_together(&self) -> usize {
        let facts = &self.facts;
        let deducting = facts.returns.iter().filter(|&&p| !contributions::most(facts, p).is_zero()).count();
        let split = facts.filers.iter().any(|&f| !pension_split::most(facts, f).is_zero());
        deducting + usize::from(facts.couple && split) + usize::from(facts.couple && !facts.gifts.is_empty())
    }

    /// The least and the most net income that any way gives a person.
    fn net_range(&self, person: usize) -> (Money, Money) {
        let facts = &self.facts;
        let net = |split: Option<Split>, deducted: Money| {
            let contributions = vec![Some(deducted); facts.people.len()];
            let plan = Plan { split, contributions, ..Plan::default() };
            let on = On { facts, plan: &plan, person, scope: Scope::Person(person) };
            income::reckon(on, &mut Silent).net
        };
        let split = |from: usize, to: usize| Split { from, to, amount: pension_split::most(facts, from) };
        let partner = facts.partner(person);
        let least = net(partner.map(|p| split(person, p)), Money::LARGEST);
        (least, net(partner.map(|p| split(p, person)), Money::ZERO))
    }

    /// Whether partners may change places in net income, and Ontario count the children with the other.
    fn children_may_change(&self) -> bool {
        let facts = &self.facts;
        if !facts.couple || ontario::children(facts) == 0 {
            return false;
        }
        let [one, other] = [0, 1].map(|place| self.net_range(facts.filers[place]));
        one.0 <= other.1 && other.0 <= one.1
    }

    fn list_medical(&mut self) {
        if self.facts.windows.is_empty() {
            return;
        }
        let cite = "ITA 118.2(1)";
        if self.facts.couple {
            let option = |&f: &usize| {
                Opt::new(self.person_id(f), self.name(f), format!("medical with {}", self.first(f)))
            };
            let options = self.facts.filers.iter().map(option).collect();
            self.add_options(
                About::MedicalBy,
                "ca.medical".into(),
                "Who claims medical".into(),
                cite,
                options,
            );
        }
        let option = |w: &crate::medical::Window| {
            let label = format!("Ending {} {} · {:#}", w.end.day(), w.end.month(), w.sum(&self.facts));
            Opt::new(w.end.to_string(), label, format!("12 months to {} {}", w.end.day(), w.end.month()))
        };
        let options: Vec<_> = self.facts.windows.iter().map(option).collect();
        let label = "Which twelve months of medical".into();
        self.add_options(About::MedicalWindow, "ca.medical.window".into(), label, cite, options);
    }

    /// Of a couple the first claims an amount and the second of the rest as much as helps; who files alone, too.
    fn list_gifts(&mut self) {
        let most = sum(&self.facts.gifts);
        if most.is_zero() || !(self.facts.couple || self.facts.filers.len() == 1) {
            return;
        }
        for (place, person) in self.facts.filers.clone().into_iter().enumerate() {
            let never_costs = place + 1 == self.facts.filers.len();
            let label = format!("Gifts that {} claims", self.first(person));
            let first = self.facts.couple && place == 0;
            let short = if first { format!("gifts with {}", self.first(person)) } else { "".into() };
            let id = format!("ca.gifts.{}", self.person_id(person));
            let amount = Amount { most, short, never_costs, steepest: STEEPEST };
            self.add_amount(About::Gifts(person), id, label, "ITA 118.1(1), (3); Schedule 9", amount);
        }
    }

    fn list_tuition(&mut self) {
        for student in self.facts.returns.clone() {
            let receivers = self.receivers(student);
            let most = tuition::most(&self.facts, student);
            if most.is_zero() || receivers.is_empty() {
                continue;
            }
            let option = |&r: &usize| {
                let short =
                    if receivers.len() > 1 { format!("tuition to {}", self.first(r)) } else { "".into() };
                Opt::new(self.person_id(r), self.name(r), short)
            };
            let options = receivers.iter().map(option).collect();
            let id = format!("ca.tuition.{}", self.person_id(student));
            let label = format!("Who takes tuition of {}", self.first(student));
            let cite = "ITA 118.8, 118.81, 118.9; Schedule 11";
            self.add_options(About::TuitionTo(student), id.clone(), label, cite, options);
            let label = format!("Tuition that {} hands on", self.first(student));
            let short = format!("tuition of {}", self.first(student));
            let amount = Amount { most, short, never_costs: true, steepest: STEEPEST };
            self.add_amount(About::TuitionAmount(student), format!("{id}.amount"), label, cite, amount);
        }
    }

    /// Who may take a student's tuition: the partner, or where the student is a child or grandchild, the filers.
    fn receivers(&self, student: usize) -> Vec<usize> {
        let who = &self.facts.people[student];
        if who.filer {
            return self.facts.partner(student).into_iter().collect();
        }
        if who.child || who.young_relative { self.facts.filers.clone() } else { Vec::new() }
    }

    fn place(&self, about: About) -> Option<usize> {
        self.about.iter().position(|a| *a == about)
    }

    fn taken(&self, about: About, way: &Way) -> Option<usize> {
        way.taken(self.place(about)?)
    }

    fn amount(&self, about: About, way: &Way) -> Option<Money> {
        way.amount(self.place(about)?)
    }

    /// The partners by the direction of the split.
    fn split_pair(&self, way: &Way) -> Option<(usize, usize)> {
        let from = self.facts.filers[self.taken(About::SplitFrom, way)?];
        Some((from, self.facts.partner(from)?))
    }

    /// What a way takes, as the rules read it.
    pub(crate) fn plan(&self, way: &Way) -> Plan {
        let everyone = 0..self.facts.people.len();
        let split = self.split_pair(way).zip(self.amount(About::SplitAmount, way));
        let by = if self.facts.couple { self.taken(About::MedicalBy, way) } else { Some(0) };
        let handed = |student: usize| {
            let receiver = self.receivers(student)[self.taken(About::TuitionTo(student), way)?];
            let amount = self.amount(About::TuitionAmount(student), way)?;
            Some(Handed { student, receiver, amount })
        };
        Plan {
            split: split.map(|((from, to), amount)| Split { from, to, amount }),
            contributions: everyone.clone().map(|p| self.amount(About::Contributions(p), way)).collect(),
            medical: by.map(|f| self.facts.filers[f]).zip(self.taken(About::MedicalWindow, way)),
            gifts: everyone.clone().map(|p| self.amount(About::Gifts(p), way)).collect(),
            tuition: everyone.filter_map(handed).collect(),
        }
    }

    fn reckon(&self, way: &Way, trail: &mut impl Trail) -> Money {
        t1::reckon(&self.facts, &self.plan(way), trail)
    }
}

impl Weighable for CanadianCase {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }

    fn open(&self, _: usize, _: &Way) -> bool {
        true
    }

    fn barred(&self, decision: usize, option: usize, _: &Way) -> Option<Bar> {
        let from = *self.facts.filers.get(option)?;
        let nothing =
            self.about[decision] == About::SplitFrom && pension_split::most(&self.facts, from).is_zero();
        nothing.then_some(Bar::Borrowed("no pension income that can be split"))
    }

    fn most(&self, decision: usize, way: &Way) -> Money {
        match (self.about[decision], &self.decisions[decision].amount) {
            (About::SplitAmount, _) => {
                self.split_pair(way).map_or(Money::ZERO, |(from, _)| pension_split::most(&self.facts, from))
            }
            (_, Some(amount)) => amount.most,
            _ => Money::ZERO,
        }
    }

    /// Where the partners change places in net income, Ontario counts the children with the other.
    fn jump(&self) -> Money {
        if !self.children_may_change() {
            return Money::ZERO;
        }
        self.facts.figures.ontario_reduction.child * (2 * ontario::children(&self.facts))
    }

    /// Claims move between all returns: the household is one part.
    fn parts(&self, _: &Way) -> Vec<Part> {
        vec![Part { id: 0, depends: (0..self.decisions.len()).collect() }]
    }

    fn total(&self, _: usize, way: &Way) -> Money {
        self.reckon(way, &mut Silent)
    }

    fn total_with_edges(&self, _: usize, way: &Way, edges: &mut Edges) -> Money {
        self.reckon(way, edges)
    }
}

impl Case for CanadianCase {
    fn returns(&self, _: &Way) -> Vec<Return> {
        let own = |person: usize| Return { people: vec![person], main: true, caption: "own return".into() };
        self.facts.returns.iter().copied().map(own).collect()
    }

    fn record(&self, way: &Way) -> Recorder {
        let mut recorder = Recorder::default();
        self.reckon(way, &mut recorder);
        recorder
    }

    fn points(&self, _: &Way, trail: &Recorder) -> Vec<Point> {
        points::of(self, trail)
    }

    fn counts(&self, _: &Way, _: LineId, _: Scope) -> bool {
        true
    }
}
