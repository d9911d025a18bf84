//! What might apply and has a paper of its own: a yes without the paper is an open point.

use crate::points::Points;
use hembo_core::{field::Field, open_points, point::Gather, provision::Provision};

/// What this provision declares.
pub static PROVISION: Provision = Provision { household_questions: ASKED, points: POINTS, ..Provision::NONE };

open_points! {
    NO_PAPER = blocks "no-paper", "IRC §§61, 62",
        "Add the paper, or answer no.";
}

/// Questions whose yes calls for papers.
const ASKED: &[Field] = &[
    Field::yes_no("retirement_savings", "", "Paid into an IRA or health savings account")
        .help("Outside the payroll, or took money from one.")
        .opens(&["5498", "HSA", "1099-SA", "1099-R"]),
    Field::yes_no("care", "", "Paid for care so that the filers could work")
        .help("Of a child under 13, or of a spouse or dependent unable to care for themselves.")
        .opens(&["Care"]),
    Field::yes_no("education", "", "Paid for higher education").help("Form 1098-T.").opens(&["1098-T"]),
    Field::yes_no("education_plan", "", "Took money from a 529 or Coverdell plan")
        .help("Form 1099-Q.")
        .opens(&["1099-Q"]),
    Field::yes_no("education_bonds", "", "Cashed savings bonds to pay for education")
        .help("Series EE or I: Form 8815.")
        .opens(&["8815"]),
    Field::yes_no("marketplace", "", "Health cover through the Marketplace")
        .help("Form 1095-A.")
        .opens(&["1095-A"]),
    Field::yes_no("overtime", "", "Overtime pay or tips")
        .help("Deducted on Schedule 1-A: box 14 of Form W-2 (from 2026 box 12), or the employer's statement.")
        .since(2025)
        .opens(&["W-2"]),
    Field::yes_no("car_loan", "", "Paid interest on the loan for a new car").since(2025).opens(&["Car loan"]),
    Field::yes_no("student_loan", "", "Paid student loan interest").help("Form 1098-E.").opens(&["1098-E"]),
    Field::yes_no("moved_on_orders", "", "Moved on orders of the armed forces")
        .help("Permanent change of station: Form 3903.")
        .opens(&["3903"]),
    Field::yes_no("disaster", "", "Lost property in a disaster")
        .help("Declared by the President: Form 4684.")
        .opens(&["4684"]),
    Field::yes_no("rent", "", "Let a house or flat, or had royalties")
        .help("Schedule E.")
        .opens(&["Schedule E"]),
    Field::yes_no("too_much", "", "Put too much into an IRA or health account, or took out too little")
        .help("This year or an earlier one: Form 5329.")
        .opens(&["5329"]),
    Field::yes_no("paid_back", "", "Paid back income of an earlier year")
        .help("A bonus, unemployment, benefits: more than 3,000.")
        .opens(&["1341"]),
    Field::yes_no("long_term_care", "", "Long-term care insurance paid out")
        .help("Form 1099-LTC.")
        .opens(&["1099-LTC"]),
    Field::yes_no("adjustments", "", "Expenses as a reservist or official, attorney fees of an award")
        .help("And the rest of Schedule 1, lines 12 and 24.")
        .opens(&["Other adjustments"]),
    Field::yes_no("home_office", "", "Uses a room at home only for the business")
        .help("By the square foot on Schedule C, or by its cost on Form 8829.")
        .opens(&["8829", "Schedule C"]),
    Field::yes_no("operating_loss", "", "Has a net operating loss of an earlier year")
        .help("Or an excess business loss, Form 461.")
        .opens(&["172"]),
    Field::yes_no("shares", "", "Had a share in a partnership, S corporation, estate or trust")
        .help("Schedule K-1.")
        .opens(&["K-1 1065", "K-1 1120-S", "K-1 1041"]),
    Field::yes_no("taxes_back", "", "Used fuel off the road, or has a share in a fund that kept its gains")
        .help("Form 4136, Form 2439.")
        .opens(&["4136", "2439"]),
    Field::yes_no("homebuyer_credit", "", "Took the credit for a first home bought in 2008")
        .help("The last part is paid back with the return for 2024: Form 5405.")
        .until(2024)
        .opens(&["5405"]),
    Field::yes_no("home_energy", "", "Solar panels, a heat pump, windows or insulation")
        .help("Put in by the end of 2025, or a credit of an earlier year is left.")
        .opens(&["5695"]),
    Field::yes_no("clean_vehicle", "", "Bought an electric or other clean vehicle")
        .until(2026)
        .opens(&["8936"]),
    Field::yes_no("mortgage_credit", "", "Holds a mortgage credit certificate")
        .help("Of a state or city; Form 8396.")
        .opens(&["8396"]),
    Field::yes_no("earlier_minimum_tax", "", "Paid alternative minimum tax in an earlier year")
        .help("After options, say: Form 8801.")
        .opens(&["8801"]),
    Field::yes_no("adoption", "", "Adopted a child, or paid for an adoption")
        .help("Form 8839.")
        .opens(&["8839"]),
    Field::yes_no("household_employee", "", "Paid someone to work in the home")
        .help("A nanny, a housekeeper, a carer: Schedule H.")
        .opens(&["Schedule H"]),
];

/// A yes without its paper.
pub fn points(points: &mut Points<'_>) {
    points.papers_of_yes(points.household, ASKED, &NO_PAPER);
}
