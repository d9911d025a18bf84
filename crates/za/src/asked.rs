//! What might apply and has a paper of its own: what the authority never holds is asked, a yes without its paper is an open point.

use crate::points::Points;
use hembo_core::{field::Field, open_points, point::Gather, provision::Provision};

/// What this provision declares.
pub static PROVISION: Provision = Provision { household_questions: ASKED, points: POINTS, ..Provision::NONE };

open_points! {
    NO_PAPER = blocks "no-paper", "s1 'gross income', s11", "Add the paper, or answer no.";
    NEVER_HELD = look "never-held", "TAA s 25", "Answer with yes or no: nobody but the family tells of it.";
}

/// Questions whose yes calls for papers.
const ASKED: &[Field] = &[
    Field::yes_no("lump_sum", "", "A lump sum of a fund or employer").opens(&["Lump sum"]),
    Field::yes_no("tax_free", "", "A tax-free investment account").lasts().opens(&["IT3(s)"]),
    Field::yes_no("abroad", "", "Income, an account, shares or property abroad")
        .lasts()
        .opens(&["IT3(b)", "Letting", "Trade"]),
    Field::yes_no("foreign_tax", "", "Tax paid abroad").opens(&["Foreign tax"]),
    Field::yes_no("work_abroad", "", "Worked abroad for more than 183 days in twelve months")
        .opens(&["Work abroad"]),
    Field::yes_no("lets", "", "Let a property").lasts().opens(&["Letting"]),
    Field::yes_no("sold", "", "Sold or gave away shares, property, crypto or other assets")
        .opens(&["Assets sold"]),
    Field::yes_no("own_work", "", "A business of one's own, or a partnership").lasts().opens(&["Trade"]),
    Field::yes_no("not_taxable", "", "Received amounts that are not taxable").opens(&["Not taxable"]),
    Field::yes_no("travel", "", "A travel allowance with a logbook").lasts().opens(&["Logbook"]),
    Field::yes_no("room", "", "Works in a room at home that serves nothing else")
        .lasts()
        .opens(&["Home office"]),
    Field::yes_no("gifts", "", "Gifts with an s18A receipt").opens(&["Donations"]),
    Field::yes_no("bills", "", "Medical bills that were not paid back").opens(&["Medical bills"]),
];

/// A yes without its paper; what was not answered and nobody else tells of.
pub fn points(points: &mut Points<'_>) {
    points.papers_of_yes(points.household, ASKED, &NO_PAPER);
    points.sections_open(points.household, ASKED, &NEVER_HELD);
}
