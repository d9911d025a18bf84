//! What the law leaves open to a household whose members each file alone: amounts and claims that move between their
//! returns, and what is used now or later.

use crate::{
    alberta, contributions,
    facts::{Facts, Window},
    income, medical, ontario, pension_split,
    plan::{Caring, Election, Handed, Medical, On, Plan, Split},
    points::Points,
    provinces::Province,
    rounding::cents,
    t1, tuition,
};
use hembo_core::{
    Decision, Household, Scope, Silent, Trail,
    decision::{Amount, Bar, Opt},
    point::{Gather, Place},
    reading::sum,
    search::{Edges, Law, UNLAWFUL, View, Weighable},
    words::first_name,
};
use hembo_money::{Money, Rate, Rounding};

/// A household under the federal and provincial law.
#[derive(Debug)]
pub struct CanadianCase<'h> {
    pub(crate) facts: Facts,
    pub(crate) household: &'h Household,
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
    /// Which of the partners reports the dividends of both: not at all, the first, the second.
    Dividends,
    /// Which of the partners claims medical receipts: option by place among the filers, then both.
    MedicalBy,
    /// How much of them the first claims where both do.
    MedicalAmount,
    /// Which of the partners claims the amount for this relative: option by place among the caregivers.
    Caregiver(usize),
    /// For which twelve months: option by window.
    MedicalWindow,
    /// Gifts that a person claims.
    Gifts(usize),
    /// To whom a student hands tuition on: option by place among the receivers.
    TuitionTo(usize),
    /// How much of it.
    TuitionAmount(usize),
}

impl<'h> CanadianCase<'h> {
    /// A household's decisions from its facts.
    pub fn new(facts: Facts, household: &'h Household) -> CanadianCase<'h> {
        let mut case = CanadianCase { facts, household, decisions: Vec::new(), about: Vec::new() };
        case.list_split();
        case.list_dividends();
        case.list_contributions();
        case.list_medical();
        case.list_caregivers();
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

    fn list_dividends(&mut self) {
        let facts = &self.facts;
        let any = |&f: &usize| !self.dividends(f).is_zero();
        if !facts.couple || !facts.filers.iter().any(any) {
            return;
        }
        let (first, second) = (facts.filers[0], facts.filers[1]);
        let option = |to: usize, from: usize| {
            let label = format!("{} reports those of {}", self.first(to), self.first(from));
            Opt::new(self.person_id(to), label, format!("dividends with {}", self.first(to)))
        };
        let options =
            vec![Opt::new("own", "Each their own", ""), option(first, second), option(second, first)];
        let label = "Dividends of the partner".into();
        self.add_options(About::Dividends, "ca.dividends".into(), label, "ITA 82(3)", options);
    }

    /// Taxable dividends of a person's papers.
    fn dividends(&self, person: usize) -> Money {
        let own = &self.facts.people[person].own;
        sum(&own.eligible_dividends) + sum(&own.other_dividends)
    }

    /// Whose dividends an option of the election moves.
    fn election(&self, option: usize) -> Option<Election> {
        let to = *self.facts.filers.get(option.checked_sub(1)?)?;
        Some(Election { from: self.facts.partner(to)?, to })
    }

    /// Why an election cannot be made: it must raise the amount for a partner (82(3)(b)).
    fn election_bar(&self, election: Election) -> Option<Bar> {
        if self.dividends(election.from).is_zero() {
            return Some(Bar::Borrowed("no dividends of the partner"));
        }
        let without = self.net_range(election.from, Some(election)).0;
        let base = self.facts.figures.basic.most;
        (without >= base).then_some(Bar::Borrowed("it would not raise the amount for a partner"))
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
        let limits_gifts = |&f: &usize| cents(self.widest_net(f).0, part) < sum(&facts.gifts);
        facts.filers.iter().any(limits_gifts)
            || self.children_may_change()
            || self.elections().next().is_some()
    }

    /// The elections of dividends that some amounts make lawful.
    fn elections(&self) -> impl Iterator<Item = Election> + '_ {
        let elections = (1..3).filter_map(|option| self.election(option));
        elections.filter(|election| self.election_bar(*election).is_none())
    }

    /// How many amounts would be looked for together: the split, the first partner's gifts, each deduction.
    pub(crate) fn amounts_together(&self) -> usize {
        let facts = &self.facts;
        let deducting = facts.returns.iter().filter(|&&p| !contributions::most(facts, p).is_zero()).count();
        let split = facts.filers.iter().any(|&f| !pension_split::most(facts, f).is_zero());
        let medical = facts.couple && !facts.windows.is_empty() && self.both_may_be_supplemented();
        deducting
            + usize::from(medical)
            + usize::from(facts.couple && split)
            + usize::from(facts.couple && !facts.gifts.is_empty())
    }

    /// The least and the most net income that any way gives a person, whoever reports dividends.
    fn widest_net(&self, person: usize) -> (Money, Money) {
        let elected = (0..3).map(|option| self.election(option));
        let ranges: Vec<_> = elected.map(|election| self.net_range(person, election)).collect();
        let least = ranges.iter().map(|r| r.0).min().unwrap_or_default();
        (least, ranges.iter().map(|r| r.1).max().unwrap_or_default())
    }

    /// The least and the most net income that any way with an election of dividends gives a person.
    fn net_range(&self, person: usize, dividends: Option<Election>) -> (Money, Money) {
        let facts = &self.facts;
        let net = |split: Option<Split>, deducted: Money| {
            let contributions = vec![Some(deducted); facts.people.len()];
            let plan = Plan { split, contributions, dividends, ..Plan::default() };
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
        let [one, other] = [0, 1].map(|place| self.widest_net(facts.filers[place]));
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
            let mut options: Vec<_> = self.facts.filers.iter().map(option).collect();
            if self.both_may_be_supplemented() {
                options.push(Opt::new("both", "Divided between them", "medical divided"));
            }
            let label = "Who claims medical".into();
            self.add_options(About::MedicalBy, "ca.medical".into(), label, cite, options);
        }
        let option = |w: &Window| {
            let label = format!("Ending {} {} · {:#}", w.end.day(), w.end.month(), w.sum);
            Opt::new(w.end.to_string(), label, format!("12 months to {} {}", w.end.day(), w.end.month()))
        };
        let options: Vec<_> = self.facts.windows.iter().map(option).collect();
        let label = "Which twelve months of medical".into();
        self.add_options(About::MedicalWindow, "ca.medical.window".into(), label, cite, options);
        if self.facts.couple && self.both_may_be_supplemented() {
            let first = self.facts.filers[0];
            let label = format!("Medical that {} claims", self.first(first));
            let short = format!("medical of {}", self.first(first));
            let most = self.largest_window();
            let amount = Amount { most, short, never_costs: false, steepest: STEEPEST };
            let cite = "ITA 118.2(1), 122.51";
            self.add_amount(About::MedicalAmount, "ca.medical.amount".into(), label, cite, amount);
        }
    }

    fn largest_window(&self) -> Money {
        self.facts.windows.iter().map(|w| w.sum).max().unwrap_or_default()
    }

    /// Whether both partners may have the refundable supplement, so that dividing the receipts may pay.
    fn both_may_be_supplemented(&self) -> bool {
        let (facts, figures) = (&self.facts, &self.facts.figures.medical_supplement);
        let least: Money = facts.filers.iter().map(|&f| self.widest_net(f).0).sum();
        let gone = figures.from + figures.most.divided_by(figures.rate, Money::WHOLE, Rounding::Up);
        facts.filers.iter().all(|&f| medical::may_be_supplemented(facts, f)) && least < gone
    }

    /// Divided receipts bring nothing unless both parts are above their thresholds.
    pub(crate) fn both_above_threshold(&self) -> bool {
        let threshold = |&f: &usize| {
            let figures = &self.facts.figures.medical;
            cents(self.widest_net(f).0, figures.part).min(figures.most)
        };
        self.largest_window() > self.facts.filers.iter().map(threshold).sum()
    }

    /// Of a couple who both keep the home, one claims the amount for a parent who lives along.
    fn list_caregivers(&mut self) {
        let keepers = self.keepers();
        if keepers.len() < 2 || self.facts.province != Some(Province::Alberta) {
            return;
        }
        for relative in alberta::relatives(&self.facts).collect::<Vec<_>>() {
            let option = |&f: &usize| {
                let short = format!("{} with {}", self.first(relative), self.first(f));
                Opt::new(self.person_id(f), self.name(f), short)
            };
            let options = keepers.iter().map(option).collect();
            let id = format!("ca.caregiver.{}", self.person_id(relative));
            let label = format!("Who claims the caregiver amount for {}", self.first(relative));
            let cite = "Alberta Personal Income Tax Act; AB428, line 58400";
            self.add_options(About::Caregiver(relative), id, label, cite, options);
        }
    }

    /// The filers who keep the home of a dependant.
    fn keepers(&self) -> Vec<usize> {
        let keeps = |f: &usize| self.facts.people[*f].maintains_home;
        self.facts.filers.iter().copied().filter(keeps).collect()
    }

    /// Who claims the amount for each relative who lives along.
    fn caregivers(&self, way: &View<'_>) -> Vec<Caring> {
        if self.facts.province != Some(Province::Alberta) {
            return Vec::new();
        }
        let keepers = self.keepers();
        let claimant =
            |relative| keepers.get(self.taken(About::Caregiver(relative), way).unwrap_or(0)).copied();
        alberta::relatives(&self.facts)
            .filter_map(|r| Some(Caring { relative: r, claimant: claimant(r)? }))
            .collect()
    }

    /// What of the medical receipts a way claims on which return.
    fn medical(&self, way: &View<'_>) -> Option<Medical> {
        let window = self.taken(About::MedicalWindow, way)?;
        let all = self.facts.windows[window].sum;
        let by = if self.facts.couple { self.taken(About::MedicalBy, way)? } else { 0 };
        let claimed = match self.facts.filers.get(by) {
            Some(&claimant) => vec![(claimant, all)],
            None => {
                let first = self.amount(About::MedicalAmount, way).unwrap_or_default().min(all);
                vec![(self.facts.filers[0], first), (self.facts.filers[1], all - first)]
            }
        };
        Some(Medical { window, claimed })
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
        if who.descendant { self.facts.filers.clone() } else { Vec::new() }
    }

    fn place(&self, about: About) -> Option<usize> {
        self.about.iter().position(|a| *a == about)
    }

    fn taken(&self, about: About, way: &View<'_>) -> Option<usize> {
        way.taken(self.place(about)?)
    }

    fn amount(&self, about: About, way: &View<'_>) -> Option<Money> {
        way.amount(self.place(about)?)
    }

    /// The partners by the direction of the split.
    fn split_pair(&self, way: &View<'_>) -> Option<(usize, usize)> {
        let from = self.facts.filers[self.taken(About::SplitFrom, way)?];
        Some((from, self.facts.partner(from)?))
    }

    /// What a way takes, as the rules read it.
    pub(crate) fn plan(&self, way: &View<'_>) -> Plan {
        let everyone = 0..self.facts.people.len();
        let split = self.split_pair(way).zip(self.amount(About::SplitAmount, way));
        let handed = |student: usize| {
            let receiver = self.receivers(student)[self.taken(About::TuitionTo(student), way)?];
            let amount = self.amount(About::TuitionAmount(student), way)?;
            Some(Handed { student, receiver, amount })
        };
        Plan {
            split: split.map(|((from, to), amount)| Split { from, to, amount }),
            contributions: everyone.clone().map(|p| self.amount(About::Contributions(p), way)).collect(),
            dividends: self.taken(About::Dividends, way).and_then(|option| self.election(option)),
            medical: self.medical(way),
            caregivers: self.caregivers(way),
            gifts: everyone.clone().map(|p| self.amount(About::Gifts(p), way)).collect(),
            tuition: everyone.filter_map(handed).collect(),
        }
    }

    pub(crate) fn reckon(&self, way: &View<'_>, trail: &mut impl Trail) -> Money {
        t1::reckon(&self.facts, &self.plan(way), trail).unwrap_or(UNLAWFUL)
    }
}

impl Weighable for CanadianCase<'_> {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        let both = || self.taken(About::MedicalBy, view) == Some(self.facts.filers.len());
        if self.about[decision] == About::MedicalAmount && !both() {
            return Law::Closed;
        }
        let options = 0..self.decisions[decision].options.len();
        Law::Open(options.map(|option| self.barred(decision, option)).collect())
    }

    fn most(&self, decision: usize, way: &View<'_>) -> Money {
        match (self.about[decision], &self.decisions[decision].amount) {
            (About::SplitAmount, _) => {
                self.split_pair(way).map_or(Money::ZERO, |(from, _)| pension_split::most(&self.facts, from))
            }
            (About::MedicalAmount, _) => {
                let window = self.taken(About::MedicalWindow, way).and_then(|w| self.facts.windows.get(w));
                window.map_or(Money::ZERO, |w| w.sum)
            }
            (_, Some(amount)) => amount.most,
            _ => Money::ZERO,
        }
    }

    /// Where the partners change places in net income, Ontario counts the children with the other; and amounts may make
    /// an election of dividends unlawful.
    fn jump(&self) -> Money {
        let elected = if self.elections().next().is_some() { UNLAWFUL } else { Money::ZERO };
        if !self.children_may_change() {
            return elected;
        }
        elected + self.facts.figures.ontario_reduction.child * (2 * ontario::children(&self.facts))
    }

    /// Claims move between all returns: the household is one part.
    fn parts(&self) -> usize {
        1
    }

    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(view, &mut Silent)
    }

    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(view, edges)
    }
}

impl CanadianCase<'_> {
    fn barred(&self, decision: usize, option: usize) -> Option<Bar> {
        match self.about[decision] {
            About::SplitFrom => {
                let nothing = pension_split::most(&self.facts, self.facts.filers[option]).is_zero();
                nothing.then_some(Bar::Borrowed("no pension income that can be split"))
            }
            About::Dividends => self.election(option).and_then(|election| self.election_bar(election)),
            About::MedicalBy if option == self.facts.filers.len() && !self.both_above_threshold() => {
                Some(Bar::Borrowed("divided, a part would not be above its threshold"))
            }
            _ => None,
        }
    }
}

impl CanadianCase<'_> {
    /// Contributions are deducted as far as that helps, where there are too many amounts to look for them together.
    pub(crate) fn deduct_less(&self, points: &mut Points<'_>) {
        let deducts = self.facts.people.iter().any(|p| !p.own.rrsp_limit.is_empty());
        if deducts && self.deduction_may_cost() && self.amounts_together() > SEARCHED_TOGETHER {
            let message =
                "A smaller deduction of contributions might do better here: not every one is weighed.";
            let remedy =
                "Hold smaller amounts on Ways: gifts come to their limit, or the children change sides.";
            points.look("deduct-less", Place::default(), message, remedy);
        }
    }
}
