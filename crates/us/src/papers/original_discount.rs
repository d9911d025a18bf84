//! Form 1099-OID.

use crate::{
    bringing::{self, Bringing},
    papers::interest,
    states::{self, STATES},
};
use hembo_core::{
    field::{Field, Years},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    settled,
};
use hembo_money::Money;

/// What this paper declares.
pub static PROVISION: Provision = Provision { papers: &[DISCOUNT], ..Provision::NONE };

const DISCOUNT: PaperKind = PaperKind {
    id: "1099-OID",
    subject: subject::INVESTMENTS,
    name: "Original issue discount",
    words: "bond discount oid tips zero coupon",
    title: "Payer",
    shared: true,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Original issue discount of the year"),
        Field::amount("2", "2", "Other periodic interest"),
        Field::amount("3", "3", "Early withdrawal penalty"),
        Field::amount("4", "4", "Federal tax withheld"),
        Field::amount("5", "5", "Market discount"),
        Field::amount("6", "6", "Acquisition premium").help("Lowers box 1, or box 8."),
        Field::text("7", "7", "Description", 60),
        Field::amount("8", "8", "Discount on Treasury obligations").help("Not contained in box 1."),
        Field::amount("9", "9", "Investment expenses"),
        Field::amount("10", "10", "Bond premium").help("Lowers box 2."),
        Field::amount("11", "11", "Tax-exempt discount"),
        Field::choice("12", "12", "State", STATES),
        Field::text("13", "13", "State identification", 30),
        Field::amount("14", "14", "State tax withheld"),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners (§§1272, 1278).
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    let box_of = |field| paper.paper.paper.amount(field);
    let acquisition = settled::lesser(box_of("6"), box_of("1") + box_of("8"));
    let premium = settled::lesser(box_of("10"), box_of("2"));
    for field in ["1", "2", "5", "8"] {
        paper.give(field, &interest::brings::INTEREST);
    }
    paper.put("6", None, -acquisition, &interest::brings::INTEREST);
    paper.put("10", None, -premium, &interest::brings::INTEREST);
    paper.give("3", &interest::brings::PENALTY);
    paper.give("4", &bringing::brings::WITHHELD);
    paper.give("11", &interest::brings::EXEMPT_INTEREST);
    paper.give("8", &bringing::brings::TREASURY_INTEREST);
    paper.give("14", &bringing::brings::STATE_INCOME_TAX);
    paper.give_state("12", Money::ZERO, "14");
}
