//! Choices as provisions declare them, and the decisions that the core makes of a list of them.

use hembo_core::{
    Decision, Way,
    choice::{Choices, Open},
    decision::{Amount, More, Opt, Taken},
    search::{Law, View},
};
use hembo_money::{Money, Rate};

/// Boats of an island, by their length; whoever has a long one may have it measured.
struct Fleet(Vec<i64>);

static MEASURED: Open<Fleet> = Open::new(
    |fleet: &Fleet| (0..fleet.0.len()).filter(|&boat| fleet.0[boat] > 5).collect(),
    |_, boat| {
        let options = vec![
            Opt::new("no", "No", ""),
            Opt::new("yes", "Yes", "measured"),
            Opt::new("twice", "Twice", ""),
        ];
        Decision::between(format!("at.measured.{boat}"), "Measured?", "Act §7", options)
    },
)
.bars(|fleet, boat, option, _| (option == 2 && fleet.0[boat] < 9).then(|| "too short".into()));

static PAID: Open<Fleet> = Open::new(
    |fleet: &Fleet| if fleet.0.is_empty() { Vec::new() } else { vec![0] },
    |_, _| {
        let amount = Amount {
            most: Money::whole(100),
            short: String::new(),
            more: More::MayCost,
            steepest: Rate::ONE,
        };
        Decision::amount("at.paid", "Paid now", "Act §8", amount)
    },
)
.arises(|_, _, way| way.each(&MEASURED).any(|(_, option)| option == Some(1)))
.most(|fleet, _, way| {
    let measured = way.each(&MEASURED).filter(|(_, option)| *option == Some(1));
    measured.map(|(boat, _)| Money::whole(fleet.0[boat])).sum()
});

static LIST: &[&Open<Fleet>] = &[&MEASURED, &PAID];

fn options(taken: &[Option<u8>]) -> Way {
    Way(taken.iter().map(|option| option.map(Taken::Option)).collect())
}

#[test]
fn a_choice_makes_a_decision_for_each_that_it_is_about() {
    let fleet = Fleet(vec![4, 6, 12]);
    let choices = Choices::of(LIST, &fleet);
    let ids: Vec<_> = choices.decisions().iter().map(|d| d.id.as_str()).collect();
    assert_eq!(ids, ["at.measured.1", "at.measured.2", "at.paid"]);
    assert_eq!(choices.each(&MEASURED).collect::<Vec<_>>(), [(1, 0), (2, 1)]);
    assert!(Choices::of(LIST, &Fleet(Vec::new())).decisions().is_empty());
}

#[test]
fn options_are_barred_by_the_facts_and_others_arise_by_what_was_taken() {
    let fleet = Fleet(vec![4, 6, 12]);
    let choices = Choices::of(LIST, &fleet);
    let nothing = Way::default();
    let bars = |decision| match choices.law(decision, &fleet, &View::of(&nothing)) {
        Law::Open(bars) => bars.iter().map(Option::is_some).collect::<Vec<_>>(),
        Law::Closed => panic!("it always arises"),
    };
    assert_eq!((bars(0), bars(1)), (vec![false, false, true], vec![false, false, false]));
    let cases = [
        // what is taken of the two, whether the amount arises, its most
        ([Some(0), Some(0)], false, 0),
        ([Some(1), Some(0)], true, 6),
        ([Some(0), Some(1)], true, 12),
        ([Some(1), Some(1)], true, 18),
        ([Some(0), Some(2)], false, 0),
    ];
    for (taken, arises, most) in cases {
        let way = options(&taken);
        let view = View::of(&way);
        assert_eq!(choices.law(2, &fleet, &view).is_open(), arises, "{taken:?}");
        assert_eq!(choices.most(2, &fleet, &view), Money::whole(most), "{taken:?}");
        assert_eq!(choices.most(0, &fleet, &view), Money::ZERO, "options have no amount");
    }
}

#[test]
fn what_a_way_takes_is_asked_by_choice_and_what_it_is_about() {
    let fleet = Fleet(vec![4, 6, 12]);
    let choices = Choices::of(LIST, &fleet);
    let way = Way(vec![Some(Taken::Option(0)), Some(Taken::Option(1)), Some(Taken::Amount(Money::whole(7)))]);
    let view = View::of(&way);
    let chosen = choices.chosen(&view);
    assert_eq!((chosen.taken(&MEASURED, 1), chosen.taken(&MEASURED, 2)), (Some(0), Some(1)));
    // A boat too short for the choice has no such decision.
    assert_eq!((chosen.taken(&MEASURED, 0), chosen.option(&MEASURED, 0)), (None, None));
    assert_eq!(chosen.option(&MEASURED, 2).unwrap().short, "measured");
    assert_eq!(chosen.offered(&MEASURED, 1, 2).unwrap().id, "twice");
    assert_eq!((chosen.amount(&PAID, 0), chosen.amount(&MEASURED, 1)), (Some(Money::whole(7)), None));
}
