//! What the federal law leaves open, and the returns that each way makes of it.

use crate::{
    child_credit, dependents, earned_income_credit,
    facts::{Facts, Marital},
    filing_status::Status,
    form_1040,
    schedule_a::medical,
    states::community_property,
    status,
    unit::{On, Part, TaxesDeducted, Unit},
};
use hembo_core::{
    Decision, Scope, Silent, Trail,
    decision::{Bar, Opt},
    search::{Law, Sums, Tally, View, Weighable},
    words::{capital, first_name},
};
use hembo_money::Money;

/// The places of the parts: the joint or only return, then each spouse's, then dependents' own.
const TOGETHER: usize = 0;
const SPOUSES: usize = 1;
const OWN_RETURNS: usize = 3;

/// A household under the federal law.
#[derive(Debug)]
pub struct FederalCase<'h> {
    pub(crate) facts: Facts,
    pub(crate) household: &'h hembo_core::Household,
    decisions: Vec<Decision>,
    about: Vec<About>,
    /// Each filer's status on a return of one's own.
    alone: Vec<Status>,
    /// Dependents who file a return of their own.
    own_returns: Vec<usize>,
}

/// What a decision is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum About {
    Status,
    /// Which spouse claims this dependent.
    Claim(usize),
    /// Standard or itemized: one for the joint return and for two separate returns, which must agree.
    Deduction,
    /// Standard or itemized on the separate return of this filer, by place among the filers.
    DeductionOf(usize),
    /// Standard or itemized on a dependent's own return, by place among those.
    DeductionOfOwn(usize),
    /// Income or sales tax on the joint or only return.
    Taxes,
    /// The same on a separate return.
    TaxesOf(usize),
    /// Who takes estimated tax paid together.
    Estimated,
}

/// The tallies of claims: of each spouse, and again of each where the return itemizes.
const ITEMIZED: usize = 2;

const STANDARD: usize = 0;
const JOINT: usize = 0;

impl<'h> FederalCase<'h> {
    /// A household's decisions from its facts.
    pub fn new(facts: Facts, household: &'h hembo_core::Household) -> FederalCase<'h> {
        let alone = facts.filers.iter().map(|&f| status::alone(&facts, f)).collect();
        let own_returns =
            dependents::candidates(&facts).filter(|&p| facts.people[p].own.has_income).collect();
        let mut case =
            FederalCase { facts, household, decisions: Vec::new(), about: Vec::new(), alone, own_returns };
        case.list();
        case
    }

    fn list(&mut self) {
        self.list_status();
        self.list_deductions();
        self.list_taxes();
        if self.facts.couple() {
            for person in dependents::candidates(&self.facts).collect::<Vec<_>>() {
                self.list_claim(person);
            }
        }
        self.list_estimated();
    }

    fn add(&mut self, about: About, id: String, label: String, cite: &'static str, options: Vec<Opt>) {
        self.about.push(about);
        let neutral = about == About::Estimated;
        self.decisions.push(Decision { id, label, cite, options, amount: None, neutral });
    }

    fn list_status(&mut self) {
        let options = if self.facts.couple() {
            vec![
                Opt::new("joint", "Jointly", "joint"),
                Opt::new("separate", self.separate_label(), "separate"),
                Opt::new("head", "Head of household", ""),
            ]
        } else {
            let statuses = [Status::Single, Status::Head, Status::Surviving, Status::Separate];
            let option = |s: Status| Opt::new(id_of(s), capital(s.label()), s.label());
            statuses.into_iter().map(option).collect()
        };
        self.add(About::Status, "us.status".into(), "How to file".into(), "IRC §§1, 2, 6013", options);
    }

    /// "Separately", with the head of household among the two, if there is one.
    fn separate_label(&self) -> String {
        let heads = self.alone.iter().zip(&self.facts.filers).filter(|(s, _)| **s == Status::Head);
        let names: Vec<_> = heads.map(|(_, &f)| self.facts.people[f].name.as_str()).collect();
        if names.is_empty() {
            "Separately".into()
        } else {
            format!("Separately · {} head of household", names.join(" and "))
        }
    }

    fn list_claim(&mut self, person: usize) {
        let filers = self.facts.filers.clone();
        if filers.iter().all(|&f| dependents::claim(&self.facts, &[f], person).is_err()) {
            return;
        }
        let name = |p: usize| self.facts.people[p].name.clone();
        let options = filers
            .iter()
            .map(|&f| {
                let first = name(f).split(' ').next().unwrap_or_default().to_owned();
                Opt::new(
                    self.facts.people[f].id.clone(),
                    name(f),
                    format!("{} with {first}", first_name(&name(person))),
                )
            })
            .collect();
        let id = format!("us.claim.{}", self.facts.people[person].id);
        self.add(
            About::Claim(person),
            id,
            format!("Who claims {}", name(person)),
            "IRC §152(c)(4), (e)",
            options,
        );
    }

    fn list_deductions(&mut self) {
        let options = |whose: &str| {
            let of = |word: &str| if whose.is_empty() { word.to_owned() } else { format!("{whose} {word}") };
            vec![
                Opt::new("standard", "Standard deduction", of("standard")),
                Opt::new("itemized", "Itemized deductions", of("itemized")),
            ]
        };
        let cite = "IRC §63(b), (c)(6)(A), (e)";
        self.add(About::Deduction, "us.deduction".into(), "Deduction".into(), cite, options(""));
        if self.facts.couple() && self.alone.contains(&Status::Head) {
            // The head of household chooses freely, so stands before the spouse whom that binds.
            let mut order = vec![0, 1];
            order.sort_by_key(|&i| self.alone[i] != Status::Head);
            for i in order {
                let person = &self.facts.people[self.facts.filers[i]];
                let (id, name) = (person.id.clone(), person.name.clone());
                let label = format!("Deduction of {name}");
                self.add(
                    About::DeductionOf(i),
                    format!("us.deduction.{id}"),
                    label,
                    cite,
                    options(first_name(&name)),
                );
            }
        }
        for (i, person) in self.own_returns.clone().into_iter().enumerate() {
            let person = &self.facts.people[person];
            if person.can_itemize() {
                let (id, name) = (person.id.clone(), person.name.clone());
                let label = format!("Deduction of {name}");
                self.add(
                    About::DeductionOfOwn(i),
                    format!("us.deduction.{id}"),
                    label,
                    cite,
                    options(first_name(&name)),
                );
            }
        }
    }

    fn list_taxes(&mut self) {
        let own = |f: &usize| &self.facts.people[*f].own;
        let filers = self.facts.filers.clone();
        let actual = filers.iter().any(|f| !own(f).sales_tax_actual.is_empty());
        let table = filers.iter().any(|f| !own(f).sales_tax_table.is_empty());
        let table_apart = filers.iter().any(|f| !own(f).sales_tax_table_separate.is_empty());
        let options = |table: bool, whose: &str| {
            let of = |word: &str| if whose.is_empty() { word.to_owned() } else { format!("{whose} {word}") };
            let mut options = vec![Opt::new("income", "State income tax", "")];
            if actual {
                options.push(Opt::new("sales", "General sales tax, receipts", of("sales tax")));
            }
            if table {
                options.push(Opt::new(
                    "table",
                    "General sales tax, by the table",
                    of("sales tax by the table"),
                ));
            }
            options
        };
        let cite = "IRC §164(b)(5)";
        if actual || table {
            self.add(About::Taxes, "us.taxes".into(), "Taxes deducted".into(), cite, options(table, ""));
        }
        if self.facts.couple() && (actual || table_apart) {
            for (i, &filer) in filers.iter().enumerate() {
                let (id, name) = (self.facts.people[filer].id.clone(), self.facts.people[filer].name.clone());
                let label = format!("Taxes deducted by {name}");
                let options = options(table_apart, first_name(&name));
                self.add(About::TaxesOf(i), format!("us.taxes.{id}"), label, cite, options);
            }
        }
    }

    fn list_estimated(&mut self) {
        if !self.facts.couple() || self.facts.estimated_together.is_empty() {
            return;
        }
        let mut options = vec![Opt::new("half", "Half each", "")];
        for &filer in &self.facts.filers {
            let person = &self.facts.people[filer];
            options.push(Opt::new(person.id.clone(), format!("All to {}", person.name), ""));
        }
        let label = "Estimated tax paid together".into();
        self.add(About::Estimated, "us.estimated".into(), label, "Reg. §1.6654-2(e)(5)(ii)", options);
    }

    fn taken(&self, about: About, way: &View<'_>) -> Option<usize> {
        way.taken(self.about.iter().position(|a| *a == about)?)
    }

    fn separate(&self, way: &View<'_>) -> bool {
        self.facts.couple() && self.taken(About::Status, way) != Some(JOINT)
    }

    /// The returns of a way in the order of the parts.
    pub(crate) fn units(&self, way: &View<'_>) -> Vec<(usize, Unit)> {
        let mut units = Vec::new();
        if self.separate(way) {
            units.push((SPOUSES, self.spouses_unit(0, way)));
            units.push((SPOUSES + 1, self.spouses_unit(1, way)));
        } else {
            units.push((TOGETHER, self.main_unit(way)));
        }
        let own = self.own_returns.iter().enumerate();
        units.extend(own.map(|(i, &person)| (OWN_RETURNS + i, self.own_unit(i, person, way))));
        units
    }

    fn main_unit(&self, way: &View<'_>) -> Unit {
        let joint = self.facts.couple();
        let people = if joint { self.facts.filers.clone() } else { self.facts.filers[..1].to_vec() };
        let claim = |p| dependents::claim(&self.facts, &people, p).ok();
        Unit {
            status: if joint { Status::Joint } else { self.alone[0] },
            itemizes: self.taken(About::Deduction, way) != Some(STANDARD),
            taxes: self.taxes(About::Taxes, way),
            dependents: dependents::candidates(&self.facts).filter_map(claim).collect(),
            claimed_elsewhere: Vec::new(),
            claimable: people.iter().any(|&p| self.facts.people[p].claimable),
            main: true,
            estimated: Part::All,
            people,
        }
    }

    fn spouses_unit(&self, place: usize, way: &View<'_>) -> Unit {
        let filer = self.facts.filers[place];
        let deduction = self.taken(About::DeductionOf(place), way).or(self.taken(About::Deduction, way));
        let itemizes = deduction != Some(STANDARD);
        way.tally(place + if itemizes { ITEMIZED } else { 0 });
        let (mut dependents, mut elsewhere) = (Vec::new(), Vec::new());
        for (about, decision) in self.about.iter().zip(0..) {
            if let About::Claim(person) = *about {
                match dependents::claim(&self.facts, &[filer], person) {
                    Ok(dependent) if way.taken(decision) == Some(place) => dependents.push(dependent),
                    _ => elsewhere.push(person),
                }
            }
        }
        Unit {
            itemizes,
            taxes: self.taxes(About::TaxesOf(place), way),
            dependents,
            claimed_elsewhere: elsewhere,
            estimated: match self.taken(About::Estimated, way) {
                None | Some(0) => Part::Half,
                Some(option) if option - 1 == place => Part::All,
                Some(_) => Part::Nothing,
            },
            ..self.bare_unit(place)
        }
    }

    /// A spouse's separate return before anything is chosen.
    fn bare_unit(&self, place: usize) -> Unit {
        let filer = self.facts.filers[place];
        Unit {
            people: vec![filer],
            status: self.alone[place],
            itemizes: false,
            taxes: TaxesDeducted::Income,
            dependents: Vec::new(),
            claimed_elsewhere: Vec::new(),
            claimable: self.facts.people[filer].claimable,
            main: true,
            estimated: Part::Half,
        }
    }

    /// A dependent's own return: the standard deduction of someone who can be claimed.
    fn own_unit(&self, place: usize, person: usize, way: &View<'_>) -> Unit {
        let deduction = self.taken(About::DeductionOfOwn(place), way);
        Unit {
            people: vec![person],
            status: Status::Single,
            itemizes: deduction.is_some_and(|d| d != STANDARD),
            taxes: TaxesDeducted::Income,
            dependents: Vec::new(),
            claimed_elsewhere: Vec::new(),
            claimable: dependents::claimable_by_filers(&self.facts, self.separate(way), person),
            main: false,
            estimated: Part::Nothing,
        }
    }

    fn taxes(&self, about: About, way: &View<'_>) -> TaxesDeducted {
        let Some(decision) = self.about.iter().position(|a| *a == about) else {
            return TaxesDeducted::Income;
        };
        let option = way.taken(decision).map(|o| self.decisions[decision].options[o].id.as_str());
        match option {
            Some("sales") => TaxesDeducted::SalesActual,
            Some("table") => TaxesDeducted::SalesTable,
            _ => TaxesDeducted::Income,
        }
    }

    pub(crate) fn reckon(&self, unit: &Unit, place: usize, trail: &mut impl Trail) -> Money {
        form_1040::reckon(On { facts: &self.facts, unit, scope: Scope::Return(place) }, trail)
    }

    /// Why a filing status is not lawful here.
    fn status_bar(&self, option: usize) -> Option<Bar> {
        let facts = &self.facts;
        if facts.couple() {
            return match option {
                JOINT if facts.filers.iter().any(|&f| facts.people[f].nonresident_alien) => {
                    Some("a spouse is a nonresident alien".into())
                }
                1 if facts.state.as_deref().is_some_and(community_property) => {
                    Some("half each in a community-property state: not computed yet".into())
                }
                2 if self.alone.contains(&Status::Head) => Some("weighed within separate returns".into()),
                2 => status::considered_unmarried(facts, facts.filers[0]).err().map(Bar::Borrowed),
                _ => None,
            };
        }
        let filer = facts.filers[0];
        let fixed = self.alone[0];
        let asked = [Status::Single, Status::Head, Status::Surviving, Status::Separate][option];
        if asked == fixed {
            return None;
        }
        Some(Bar::Borrowed(match asked {
            Status::Single | Status::Separate
                if (asked == Status::Separate) != (facts.marital == Marital::Married) =>
            {
                if asked == Status::Separate { "not married" } else { "married" }
            }
            Status::Head => status::head_of_household(facts, filer).err().unwrap_or("a surviving spouse"),
            Status::Surviving => status::surviving_spouse(facts, filer).err().unwrap_or("not available"),
            _ => "the facts give a better status",
        }))
    }

    /// On two separate returns both itemize or neither does; a head of household chooses freely but binds the spouse.
    fn deduction_bar(&self, place: usize, option: usize, way: &View<'_>) -> Option<Bar> {
        if option != STANDARD || self.alone[place] == Status::Head {
            return None;
        }
        let other = self.taken(About::DeductionOf(1 - place), way);
        (other.is_some_and(|o| o != STANDARD)).then_some(Bar::Borrowed("the spouse itemizes"))
    }

    /// Spouses who both deduct sales tax use the tables together or not at all (Schedule A instructions).
    fn taxes_bar(&self, decision: usize, option: usize, way: &View<'_>) -> Option<Bar> {
        let name = |d: usize, o: usize| self.decisions[d].options[o].id.as_str();
        let first = self.about.iter().position(|a| *a == About::TaxesOf(0))?;
        let theirs = name(first, way.taken(first)?);
        let mine = name(decision, option);
        let clash = matches!((theirs, mine), ("sales", "table") | ("table", "sales"));
        clash.then_some(Bar::Borrowed("the spouse uses the other method for sales tax"))
    }
}

impl Weighable for FederalCase<'_> {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        let about = self.about[decision];
        let open = self.arises(about, view);
        let bars = |option| self.barred(about, decision, option, view);
        if open {
            Law::Open((0..self.decisions[decision].options.len()).map(bars).collect())
        } else {
            Law::Closed
        }
    }

    fn parts(&self) -> usize {
        OWN_RETURNS + self.own_returns.len()
    }

    fn total(&self, part: usize, view: &View<'_>) -> Money {
        let unit = match part {
            TOGETHER if self.separate(view) => return Money::ZERO,
            TOGETHER => self.main_unit(view),
            _ if part >= OWN_RETURNS => {
                self.own_unit(part - OWN_RETURNS, self.own_returns[part - OWN_RETURNS], view)
            }
            _ if !self.separate(view) => return Money::ZERO,
            _ => self.spouses_unit(part - SPOUSES, view),
        };
        self.reckon(&unit, part, &mut Silent)
    }

    /// Of the claims a separate return reads only what they add up to: by spouse.
    fn tally(&self, tally: usize) -> Tally {
        let claims: Vec<usize> =
            (0..self.about.len()).filter(|&d| matches!(self.about[d], About::Claim(_))).collect();
        let weights = claims.iter().map(|&d| self.weights(tally, d)).collect();
        Tally { claims, weights }
    }
}

impl FederalCase<'_> {
    /// Whether a decision arises in a way.
    fn arises(&self, about: About, view: &View<'_>) -> bool {
        let itemizes = |about| self.taken(about, view).is_some_and(|d| d != STANDARD);
        match about {
            About::Status | About::DeductionOfOwn(_) => true,
            About::Claim(_) | About::Estimated => self.separate(view),
            About::Deduction => !self.alone.contains(&Status::Head) || !self.separate(view),
            About::DeductionOf(_) => self.separate(view),
            About::Taxes => !self.separate(view) && itemizes(About::Deduction),
            About::TaxesOf(place) => {
                self.separate(view) && (itemizes(About::DeductionOf(place)) || itemizes(About::Deduction))
            }
        }
    }

    fn barred(&self, about: About, decision: usize, option: usize, view: &View<'_>) -> Option<Bar> {
        match about {
            About::Status => self.status_bar(option),
            About::Claim(person) => {
                dependents::claim(&self.facts, &[self.facts.filers[option]], person).err().map(Bar::Borrowed)
            }
            About::DeductionOf(place) => self.deduction_bar(place, option, view),
            About::Deduction
                if option == STANDARD && self.facts.spouse_itemizes && self.alone[0] == Status::Separate =>
            {
                Some(Bar::Borrowed("the spouse itemizes"))
            }
            About::TaxesOf(1) => self.taxes_bar(decision, option, view),
            _ => None,
        }
    }

    /// What a claim brings to the separate return of a spouse, option by option: the credits' children and other
    /// dependents, the earned income credit's children, and where it itemizes the medical bills for a dependent.
    fn weights(&self, tally: usize, decision: usize) -> Vec<Sums> {
        let About::Claim(person) = self.about[decision] else { return Vec::new() };
        let place = tally % ITEMIZED;
        let filer = self.facts.filers[place];
        let claimed = dependents::claim(&self.facts, &[filer], person).ok();
        let unit = Unit { dependents: claimed.into_iter().collect(), ..self.bare_unit(place) };
        let on = On { facts: &self.facts, unit: &unit, scope: Scope::Return(place) };
        let (children, others) = child_credit::counted(on, person);
        let bills = if tally < ITEMIZED { Money::ZERO } else { medical::bills_for(on, person) };
        let earned = i64::from(earned_income_credit::counts(on, person));
        let brought = vec![children, others, earned, bills.cents()];
        let nothing = vec![0; brought.len()];
        (0..self.facts.filers.len())
            .map(|o| if o == place { brought.clone() } else { nothing.clone() })
            .collect()
    }
}

fn id_of(status: Status) -> &'static str {
    match status {
        Status::Single => "single",
        Status::Joint => "joint",
        Status::Surviving => "surviving",
        Status::Head => "head",
        Status::Separate => "separate",
    }
}
