//! After the notice (TAA ss 46, 95(6), 104; dispute rule 7): until when an assessment is changed, and documents are sent.

use crate::{
    calendar::{is_free, is_recess},
    figures::Dates,
};
use hembo_core::dates::{Deadline, DueDate, after_business_days};
use time::Date;

fn declared(figures: &Dates) -> Vec<Date> {
    figures.declared_holidays.iter().map(|day| day.0).collect()
}

/// Until when what the revenue service assessed by itself on a day may be changed, and how.
pub fn own_assessment(figures: &Dates, on: Date) -> Vec<DueDate> {
    let holidays = declared(figures);
    let due = |day: Date, what: &str, words: String, cite: &str| DueDate {
        day,
        what: what.into(),
        whose: String::new(),
        amount: None,
        words,
        cite: cite.into(),
    };
    let (correction, objection) = (figures.correction_days, figures.objection_days);
    let corrected = after_business_days(on, correction, |day| is_free(day, &holidays));
    let objected = after_business_days(on, objection, |day| is_free(day, &holidays) || is_recess(day));
    vec![
        due(
            figures.close.0,
            "Changed by a return",
            "A whole return before the season closes; it stands in place of the assessment.".into(),
            "TAA s 25; notice of the season",
        ),
        due(
            corrected,
            "Corrected on request",
            format!("Once the season is closed: within {correction} business days of the notice."),
            "TAA s 95(6)",
        ),
        due(
            objected,
            "Objection",
            format!("With reasons: within {objection} business days, 16 December to 15 January left out."),
            "TAA s 104; dispute rule 7",
        ),
    ]
}

/// Until when a document is sent that is asked for on a day.
pub fn document(figures: &Dates, asked: Date) -> Deadline {
    let holidays = declared(figures);
    Deadline {
        day: after_business_days(asked, figures.document_days, |day| is_free(day, &holidays)),
        counted: format!("{} business days", figures.document_days),
        cite: "TAA s 46; notice to verify",
    }
}
