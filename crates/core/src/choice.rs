//! Choices as provisions declare them: beside its rule each says which decisions there are for a household's facts,
//! when one arises, and what bars its options. A pack lists its choices once; the search is built from that list.

use crate::{
    decision::{Bar, Decision, Opt},
    search::{Law, View},
};
use hembo_money::Money;

/// The largest amount that a way allows of a choice.
type Most<F> = fn(&F, usize, Chosen<'_, '_, F>) -> Money;

/// One kind of decision that a provision leaves open, over the facts `F` of a household. It is told from others by
/// where it stands, so declare it as a `static`.
pub struct Open<F: 'static> {
    of: fn(&F) -> Vec<usize>,
    decision: fn(&F, usize) -> Decision,
    arises: fn(&F, usize, Chosen<'_, '_, F>) -> bool,
    bar: fn(&F, usize, usize, Chosen<'_, '_, F>) -> Option<Bar>,
    most: Option<Most<F>>,
}

impl<F> Open<F> {
    /// A choice: `of` lists what it arises about (a person's place, or zero where there is only one), `decision` says
    /// it as people read it. It always arises and bars nothing.
    pub const fn new(of: fn(&F) -> Vec<usize>, decision: fn(&F, usize) -> Decision) -> Open<F> {
        Open { of, decision, arises: |_, _, _| true, bar: |_, _, _, _| None, most: None }
    }

    /// The same, arising only in some ways; `arises` reads what is taken of choices before it.
    pub const fn arises(self, arises: fn(&F, usize, Chosen<'_, '_, F>) -> bool) -> Open<F> {
        Open { arises, ..self }
    }

    /// The same with options barred: `bar` tells why one is not lawful, reading choices before it.
    pub const fn bars(self, bar: fn(&F, usize, usize, Chosen<'_, '_, F>) -> Option<Bar>) -> Open<F> {
        Open { bar, ..self }
    }

    /// The same for an amount whose most depends on what is taken of choices before it.
    pub const fn most(self, most: Most<F>) -> Open<F> {
        Open { most: Some(most), ..self }
    }
}

/// The decisions of one household, in the order of the pack's list: the law of each reads earlier ones only.
pub struct Choices<F: 'static> {
    places: Vec<(&'static Open<F>, usize)>,
    decisions: Vec<Decision>,
}

impl<F> Choices<F> {
    /// Those of a list that there are for some facts.
    pub fn of(list: &[&'static Open<F>], facts: &F) -> Choices<F> {
        let about = |choice: &&'static Open<F>| {
            let choice = *choice;
            (choice.of)(facts).into_iter().map(move |of| (choice, of))
        };
        let places: Vec<_> = list.iter().flat_map(about).collect();
        let decisions = places.iter().map(|&(choice, of)| (choice.decision)(facts, of)).collect();
        Choices { places, decisions }
    }

    /// The decisions as people read them.
    pub fn decisions(&self) -> &[Decision] {
        &self.decisions
    }

    /// What the law says of a decision in a way.
    pub fn law(&self, decision: usize, facts: &F, view: &View<'_>) -> Law {
        let ((choice, of), way) = (self.places[decision], Chosen { choices: self, view });
        if !(choice.arises)(facts, of, way) {
            return Law::Closed;
        }
        let options = 0..self.decisions[decision].options.len();
        Law::Open(options.map(|option| (choice.bar)(facts, of, option, way)).collect())
    }

    /// The largest amount that may be taken of a decision in a way; zero where it is no amount.
    pub fn most(&self, decision: usize, facts: &F, view: &View<'_>) -> Money {
        let (choice, of) = self.places[decision];
        let way = Chosen { choices: self, view };
        match (choice.most, &self.decisions[decision].amount) {
            (_, None) => Money::ZERO,
            (Some(most), _) => most(facts, of, way),
            (None, Some(amount)) => amount.most,
        }
    }

    /// What a way takes of these.
    pub fn chosen<'v, 'c>(&'v self, view: &'v View<'c>) -> Chosen<'v, 'c, F> {
        Chosen { choices: self, view }
    }

    /// Every instance of a choice with the place of its decision.
    pub fn each(&self, choice: &'static Open<F>) -> impl Iterator<Item = (usize, usize)> + '_ {
        let here = self.places.iter().enumerate().filter(move |(_, (c, _))| std::ptr::eq(*c, choice));
        here.map(|(decision, (_, of))| (*of, decision))
    }

    /// Whether a decision is that of a choice about something.
    pub fn is(&self, decision: usize, choice: &'static Open<F>, of: usize) -> bool {
        self.place(choice, of) == Some(decision)
    }

    fn place(&self, choice: &'static Open<F>, of: usize) -> Option<usize> {
        self.places.iter().position(|&(c, o)| o == of && std::ptr::eq(c, choice))
    }
}

/// What a way takes of a household's choices; what is asked for is what is read ([`View`]).
pub struct Chosen<'v, 'c, F: 'static> {
    choices: &'v Choices<F>,
    view: &'v View<'c>,
}

impl<F> Clone for Chosen<'_, '_, F> {
    fn clone(&self) -> Self {
        *self
    }
}

impl<F> Copy for Chosen<'_, '_, F> {}

impl<'v, F> Chosen<'v, '_, F> {
    /// The option taken, by its place; none where there is no such decision or it does not arise.
    pub fn taken(self, choice: &'static Open<F>, of: usize) -> Option<usize> {
        self.view.taken(self.choices.place(choice, of)?)
    }

    /// The option taken.
    pub fn option(self, choice: &'static Open<F>, of: usize) -> Option<&'v Opt> {
        let decision = self.choices.place(choice, of)?;
        self.choices.decisions[decision].options.get(self.view.taken(decision)?)
    }

    /// An option of a decision, taken or not.
    pub fn offered(self, choice: &'static Open<F>, of: usize, option: usize) -> Option<&'v Opt> {
        self.choices.decisions[self.choices.place(choice, of)?].options.get(option)
    }

    /// The amount taken; none where there is no such decision or it does not arise.
    pub fn amount(self, choice: &'static Open<F>, of: usize) -> Option<Money> {
        self.view.amount(self.choices.place(choice, of)?)
    }

    /// The decisions of a choice: what each is about, and the option taken.
    pub fn each(self, choice: &'static Open<F>) -> impl Iterator<Item = (usize, Option<usize>)> {
        self.choices.each(choice).map(move |(of, decision)| (of, self.view.taken(decision)))
    }

    /// Reads the claims of a tally as their sum ([`View::tally`]).
    pub fn tally(self, tally: usize) {
        self.view.tally(tally);
    }
}
