//! What might apply and has a paper of its own: what the authority never holds is asked, a yes without its paper is an open point.

use crate::points::Points;
use hembo_core::{field::Field, open_points, point::Gather, provision::Provision};

/// What this provision declares.
pub static PROVISION: Provision = Provision { household_questions: ASKED, points: POINTS, ..Provision::NONE };

open_points! {
    NO_PAPER = blocks "no-paper", "ITA CA 1, DA 1", "Add the paper, or answer no.";
    NEVER_HELD = look "never-held", "TAA 22D, 22E", "Answer with yes or no: nobody but the family tells of it.";
}

/// Questions whose yes calls for papers; the authority holds none of these.
const ASKED: &[Field] = &[
    Field::yes_no("overseas", "", "Money, a bank, a pension, property or work abroad")
        .help("Each line of income with its country and kind: form IR1261.")
        .lasts()
        .opens(&["Overseas income", "Foreign lump sum"]),
    Field::yes_no("shares_abroad", "", "Shares, units or funds abroad")
        .help("Also by an app; up to 50,000 of cost the dividends alone are taxed.")
        .lasts()
        .opens(&["Foreign fund"]),
    Field::yes_no("lets", "", "Let a house, a flat or a room").lasts().opens(&["Residential property"]),
    Field::yes_no("land_sold", "", "Sold land, or agreed to sell").opens(&["Land sold"]),
    Field::yes_no("own_work", "", "Worked for oneself, or sold on a platform")
        .lasts()
        .opens(&["Own trade", "Schedular"]),
    Field::yes_no(
        "shares_of_others",
        "",
        "A share in a trust, an estate, a partnership or a look-through company",
    )
    .lasts()
    .opens(&["Trust", "Partnership", "Look-through company"]),
    Field::yes_no("untaxed", "", "Crypto, cash or other income without tax").opens(&["Other income"]),
    Field::yes_no("given", "", "Gave to charities or schools, with receipts").opens(&["Donations"]),
];

/// A yes without its paper; what was not answered and nobody else tells of.
pub fn points(points: &mut Points<'_>) {
    points.papers_of_yes(points.household, ASKED, &NO_PAPER);
    points.sections_open(points.household, ASKED, &NEVER_HELD);
}
