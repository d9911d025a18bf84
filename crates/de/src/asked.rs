//! What might apply and has a paper of its own: what the authority never holds is asked, a yes without its paper is an open point.

use crate::points::Points;
use hembo_core::{field::Field, open_points, point::Gather, provision::Provision};

/// What this provision declares.
pub static PROVISION: Provision = Provision { household_questions: ASKED, points: POINTS, ..Provision::NONE };

open_points! {
    NO_PAPER = blocks "no-paper", "§§2, 9, 10", "Add the paper, or answer no.";
    NEVER_HELD = look "never-held", "§§149, 150 AO", "Answer with yes or no: nobody but the family tells of it.";
}

/// Questions whose yes calls for papers.
const ASKED: &[Field] = &[
    Field::yes_no("commutes", "", "Goes to a fixed place of work").lasts().opens(&["Way to work"]),
    Field::yes_no("at_home", "", "Works at home, some days or in a room").lasts().opens(&["Work at home"]),
    Field::yes_no("things", "", "Bought things for work, or still writes some off").opens(&["Equipment"]),
    Field::yes_no("travels", "", "Travelled for work").opens(&["Travel"]),
    Field::yes_no("second_home", "", "A second home at the place of work")
        .lasts()
        .opens(&["Second household"]),
    Field::yes_no("moved", "", "Moved for work").opens(&["Move"]),
    Field::yes_no("courses", "", "Courses, a second training, applications, dues").opens(&["Work costs"]),
    Field::yes_no("benefits", "", "Parental, unemployment, short-time, sickness or maternity pay")
        .opens(&["Progression"]),
    Field::yes_no("pension", "", "A pension or annuity").lasts().opens(&["Rente"]),
    Field::yes_no("own_work", "", "Own work, trade, letting or sales within the period")
        .lasts()
        .opens(&["Result", "Large repairs"]),
    Field::yes_no("capital", "", "Interest, dividends or accounts abroad").lasts().opens(&["KAP", "Fund"]),
    Field::yes_no("taxed_abroad", "", "Income that another country taxed and that is taxed here, too")
        .opens(&["Foreign tax"]),
    Field::yes_no("insurance", "", "Insurance paid oneself: health, liability, accident, Basisrente")
        .lasts()
        .opens(&["Insurance"]),
    Field::yes_no("riester", "", "A Riester contract").lasts().opens(&["Riester"]),
    Field::yes_no("special", "", "Gifts, church tax paid, first training, maintenance of a former spouse")
        .opens(&["Special expenses"]),
    Field::yes_no("received", "", "Received maintenance of a former spouse with consent")
        .lasts()
        .opens(&["Maintenance received"]),
    Field::yes_no("child_costs", "", "Paid for care or school of a child").opens(&["Care and school"]),
    Field::yes_no("saved", "", "Capital-forming payments of an employer (VL)").lasts().opens(&["VL"]),
    Field::yes_no("burdens", "", "Large medical or funeral costs").opens(&["Burdens"]),
    Field::yes_no("supports", "", "Supports parents or others").lasts().opens(&["Support"]),
    Field::yes_no("cares", "", "Cares for someone without pay").lasts().opens(&["Care given"]),
    Field::yes_no("home_services", "", "A cleaner, a gardener, craftsmen, an energy renovation")
        .opens(&["Household"]),
    Field::yes_no("left_over", "", "Losses or gifts left from last year, or a loss of this year")
        .opens(&["Last year"]),
];

/// A yes without its paper; what was not answered and nobody else tells of.
pub fn points(points: &mut Points<'_>) {
    points.papers_of_yes(points.household, ASKED, &NO_PAPER);
    points.sections_open(points.household, ASKED, &NEVER_HELD);
}
