//! What earlier years leave: losses, excess contributions and gifts, foreign tax; and what was assessed last, for provisional tax.

use crate::{bringing::Bringing, plan::On};
use hembo_core::{
    brought::Brought,
    field::{Field, Years},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    trail::Item,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision { papers: &[ASSESSMENT], ..Provision::NONE };

/// The code of the paper.
pub const PAPER: &str = "Last year";

/// Assessed losses brought forward.
pub static LOSS: &Brought = &kinds::LOSS;
/// Capital losses brought forward.
pub static CAPITAL_LOSS: &Brought = &kinds::CAPITAL_LOSS;
/// Contributions brought forward.
pub static RETIREMENT: &Brought = &kinds::RETIREMENT;
/// Gifts brought forward.
pub static GIFTS: &Brought = &kinds::GIFTS;
/// Foreign tax brought forward.
pub static FOREIGN_TAX: &Brought = &kinds::FOREIGN_TAX;

mod kinds {
    use hembo_core::brought::Brought;

    pub static LOSS: Brought = Brought::new();
    pub static CAPITAL_LOSS: Brought = Brought::new();
    pub static RETIREMENT: Brought = Brought::new();
    pub static GIFTS: Brought = Brought::new();
    pub static FOREIGN_TAX: Brought = Brought::new();
}

const ASSESSMENT: PaperKind = PaperKind {
    id: PAPER,
    subject: subject::PAYMENTS,
    name: "Last assessment, ITA34",
    words: "brought forward loss excess ita34 basic amount",
    title: "Assessed by",
    shared: false,
    headline: "taxable",
    boxes: &[
        Field::amount("loss", "", "Assessed loss"),
        Field::amount("capital_loss", "", "Capital loss"),
        Field::amount("retirement", "", "Contributions not deducted yet"),
        Field::amount("gifts", "", "Gifts not deducted yet"),
        Field::amount("foreign_tax", "", "Foreign tax not used yet").help("Of the seven years before."),
        Field::amount("taxable", "", "Taxable income assessed last")
            .help("With the next four the basic amount of provisional tax."),
        Field::amount("gain", "", "Of it capital gain"),
        Field::amount("lump_sums", "", "Of it lump sums"),
        Field::count("uplift_years", "", "Years of uplift", 20)
            .help("8 % for each, where the estimate comes more than 18 months after that year."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// What a person brought forward of a kind.
pub fn of<'a>(on: On<'a>, kind: &'static Brought) -> &'a [Item] {
    on.own().of(kind)
}

/// Gives what is carried to the person.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[
        ("loss", LOSS),
        ("capital_loss", CAPITAL_LOSS),
        ("retirement", RETIREMENT),
        ("gifts", GIFTS),
        ("foreign_tax", FOREIGN_TAX),
    ]);
}
