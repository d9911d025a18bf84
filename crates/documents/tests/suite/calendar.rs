//! Days as a calendar file.

use hembo_core::dates::DueDate;
use hembo_documents::calendar::calendar;
use hembo_testing::laws::EVERY_LAW;
use time::macros::date;

#[test]
fn every_day_is_an_event_of_its_own_with_a_reminder_and_a_lasting_name() {
    let due = DueDate {
        day: date!(2026 - 06 - 15),
        what: "Instalment for 2026".into(),
        whose: "Ada Reef, and Bo".into(),
        amount: Some("750.01".parse().unwrap()),
        words: "A quarter; of the year.".into(),
        cite: "ITA 156(1)".into(),
    };
    let about = EVERY_LAW.pack("ca").unwrap().about();
    let file = calendar(&[due.clone(), due.clone()], "Reef", about, "h1");
    let has = |text: &str| assert!(file.contains(text), "{text} is missing:\n{file}");
    has("BEGIN:VCALENDAR");
    has("DTSTART;VALUE=DATE:20260615");
    has("SUMMARY:Reef · Instalment for 2026: C$ 750.01");
    // A comma or semicolon of the words is no sign of the format.
    has("Ada Reef\\, and Bo. A quarter\\; of the year.");
    has("TRIGGER:-P");
    let name = "UID:h1-2026-06-15-Instalmentfor2026-AdaReefandBo@hembo";
    assert_eq!(file.matches(name).count(), 2, "the same day has the same name: it is replaced, not doubled");
    assert!(calendar(&[], "Reef", about, "h1").contains("END:VCALENDAR"));
}
