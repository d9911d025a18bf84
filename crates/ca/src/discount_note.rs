//! Notes issued at a discount, such as Treasury bills (ITA 12(1)(c), 16(1), 39; guide T4037): until the day of the sale the
//! discount is interest day by day, and what the proceeds are above or below it is a gain or loss.

use crate::{bringing::Bringing, capital_gains::brings, facts::Facts, papers::t5, points::Points};
use hembo_core::{
    Household, Paper,
    drawn::{At, Drawn, Part, Picture, Span, Working},
    field::{Field, Years},
    household::Entry,
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision { papers: &[NOTE], points: POINTS, ..Provision::NONE };

open_points! {
    MISSING = blocks "C-79", "ITA 12(1)(c), 16(1); guide T4037", "Enter it from the confirmation.";
    DAYS = blocks "C-79-days", "ITA 12(1)(c), 16(1); guide T4037", "A note is bought, then sold, at the latest on the day it matures.";
    OTHER_YEAR = look "C-79-year", "ITA 12(1)(c); guide T4037", "Remove the paper, or correct the day.";
    LONG = not_covered "C-79-long", "ITA 12(4); Reg. 7000";
}

const NOTE: PaperKind = PaperKind {
    id: "Note",
    subject: subject::INVESTMENTS,
    name: "Treasury bill or other note bought at a discount",
    words: "t-bill treasury bill banker's acceptance commercial paper strip interest sold early matured",
    title: "Issuer",
    shared: true,
    headline: "face",
    boxes: &[
        Field::date("bought", "", "Bought, settled on").lasts(),
        Field::date("matures", "", "Matures on").lasts(),
        Field::amount("paid", "", "Paid, without fees").lasts(),
        Field::amount("face", "", "Face value").lasts(),
        Field::date("sold", "", "Sold, settled on").help("Blank where it was held until it matured."),
        Field::amount("proceeds", "", "Proceeds"),
        Field::amount("outlays", "", "Outlays"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// A note with everything that its interest needs.
#[derive(Debug, Clone, Copy)]
struct Note {
    bought: Date,
    matures: Date,
    paid: Money,
    face: Money,
    /// The day of the sale, with what is left of the proceeds, where it was sold.
    sold: Option<Date>,
    proceeds: Money,
    outlays: Money,
}

impl Note {
    fn of(paper: &Paper) -> Option<Note> {
        let day = |field: &str| paper.boxes.get(field).and_then(Entry::date);
        let amount = |field: &str| paper.boxes.get(field).and_then(Entry::money);
        let note = Note {
            bought: day("bought")?,
            matures: day("matures")?,
            paid: amount("paid")?,
            face: amount("face")?,
            sold: day("sold"),
            proceeds: amount("proceeds").unwrap_or_default(),
            outlays: amount("outlays").unwrap_or_default(),
        };
        note.fits().then_some(note)
    }

    /// Bought before it matures, and sold between the two.
    fn fits(&self) -> bool {
        self.bought < self.matures && self.sold.is_none_or(|sold| self.bought <= sold && sold <= self.matures)
    }

    /// The day on which it ended.
    fn ended(&self) -> Date {
        self.sold.unwrap_or(self.matures)
    }

    fn ends_in(&self, facts: &Facts) -> bool {
        (facts.year_begin..=facts.year_end).contains(&self.ended())
    }

    fn days(&self, until: Date) -> i64 {
        (until - self.bought).whole_days()
    }

    /// The discount by the days that it was held of those that it runs; the first day does not count, the last does. The yield
    /// is never rounded.
    fn interest(&self) -> Money {
        let (held, term) = (self.days(self.ended()), self.days(self.matures));
        let discount = self.face - self.paid;
        discount.in_proportion(Money::whole(held), Money::whole(term), Money::CENT, Rounding::HalfUp)
    }

    /// The gain of a sale, below zero the loss: the interest is a part of the cost.
    fn gain(&self) -> Money {
        match self.sold {
            Some(_) => self.proceeds - (self.paid + self.interest()) - self.outlays,
            None => -self.outlays,
        }
    }
}

/// Gives interest and gain of the year in which the note ended to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let Some(note) = Note::of(paper.paper.paper).filter(|note| note.ends_in(paper.facts)) else { return };
    paper.put("face", None, note.interest(), &t5::brings::INTEREST);
    paper.put("proceeds", None, note.gain(), &brings::SOLD);
    paper.files();
}

/// Whether a note has ended by the end of a year, so that nothing is left of it for the next.
pub fn has_ended(paper: &Paper, year_end: Date) -> bool {
    paper.kind == NOTE.id && Note::of(paper).is_some_and(|note| note.ended() <= year_end)
}

/// What is missing, days that do not fit, and terms of more than a year, in which interest accrues by its anniversaries.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(NOTE.id) {
        let has = |field: &str| paper.boxes.contains_key(field);
        let mut needed = vec!["bought", "matures", "paid", "face"];
        if has("sold") {
            needed.push("proceeds");
        } else if has("proceeds") {
            needed.push("sold");
        }
        for field in needed.into_iter().filter(|field| !has(field)) {
            points.raise(&MISSING, Place::paper(&paper.id, field), "The note cannot be reckoned without it.");
        }
        let day = |field: &str| paper.boxes.get(field).and_then(Entry::date);
        let (Some(bought), Some(matures)) = (day("bought"), day("matures")) else { continue };
        let ended = day("sold").unwrap_or(matures);
        if bought >= matures || ended < bought || ended > matures {
            points.raise(&DAYS, Place::paper(&paper.id, "matures"), "The days do not fit together.");
        } else if ended < points.facts.year_begin {
            points.raise(&OTHER_YEAR, Place::paper(&paper.id, "matures"), "The note ended before this year.");
        }
        if bought.replace_year(bought.year() + 1).is_ok_and(|anniversary| anniversary < matures) {
            let message = "A note that runs for more than a year accrues interest by its anniversaries: not computed yet.";
            points.raise(&LONG, Place::paper(&paper.id, "matures"), message);
        }
    }
}

/// How each note came out, with its value from day to day.
pub fn drawn(household: &Household, facts: &Facts) -> Vec<(usize, Drawn)> {
    let notes = household.papers.iter().enumerate().filter(|(_, paper)| paper.kind == NOTE.id);
    notes.filter_map(|(place, paper)| Some((place, draw(Note::of(paper)?, facts)))).collect()
}

fn draw(note: Note, facts: &Facts) -> Drawn {
    let (interest, gain) = (note.interest(), note.gain());
    let (held, term) = (note.days(note.ended()), note.days(note.matures));
    let counts = note.ends_in(facts);
    let of_interest = Working {
        title: "Interest, line 12100".into(),
        day: note.ended(),
        parts: vec![Part::new("Face value", note.face), Part::new("Paid", -note.paid)],
        result: format!("{held} of {term} days of it"),
        amount: interest,
        note: if counts {
            String::new()
        } else {
            "It ends in another year: nothing of it counts in this one.".into()
        },
    };
    let of_sale = note.sold.map(|sold| Working {
        title: "Schedule 3, bonds and notes".into(),
        day: sold,
        parts: vec![
            Part::new("Proceeds", note.proceeds),
            Part::new("Paid, with the interest", -(note.paid + interest)),
            Part::new("Outlays", -note.outlays),
        ],
        result: if gain < Money::ZERO { "Loss" } else { "Gain" }.into(),
        amount: gain,
        note: String::new(),
    });
    Drawn {
        stands: Some(if counts { interest + gain } else { Money::ZERO }),
        columns: Vec::new(),
        workings: std::iter::once(of_interest).chain(of_sale).collect(),
        picture: Some(picture(note, interest)),
        ..Drawn::default()
    }
}

fn picture(note: Note, interest: Money) -> Picture {
    let at = |day: Date, value: Money, label: String| At {
        day,
        value: Rate::from_billionths(value.cents().saturating_mul(Rate::ONE.billionths() / 100)),
        label,
    };
    let sold = note.sold.map(|sold| at(sold, note.proceeds, format!("sold for {:#}", note.proceeds)));
    Picture {
        caption:
            "What the note was worth by its own yield, from the day it was bought to the day it matures."
                .into(),
        steps: Vec::new(),
        slope: vec![
            at(note.bought, note.paid, format!("paid {:#}", note.paid)),
            at(note.matures, note.face, format!("matures at {:#}", note.face)),
        ],
        bars: Vec::new(),
        marks: sold.into_iter().collect(),
        spans: vec![Span { from: note.bought, to: note.ended(), label: format!("interest {interest:#}") }],
    }
}
