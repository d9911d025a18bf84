//! Letters: merged by a template, read from the editor, written as DOCX and PDF.

use hembo_core::{certificate::certificate, file, outcome};
use hembo_documents::{
    Sheet,
    letter::{FIELDS, Fields, Language, Letter, LetterBlock, docx, merge},
    pack::Source,
    write,
};
use hembo_testing::laws::every_law;
use serde_json::json;
use std::{fs, path::PathBuf};

/// The fields of a demo household.
fn fields() -> Fields {
    fields_asked(&[])
}

/// The same where the family was asked for kinds of papers.
fn fields_asked(asked: &[String]) -> Fields {
    let registry = every_law();
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo/us/vreeland-mbeki.json");
    let household = file::read(&fs::read(path).unwrap(), &registry).unwrap();
    let outcome = outcome::reckon(&household, &registry).unwrap();
    let rules = registry.pack("us").unwrap();
    let (practice, made) = ("Quay Street Practice", "3 March 2026");
    let (household, outcome) = (&household, &outcome);
    Fields::of(
        Source {
            household,
            outcome,
            rules,
            practice,
            revision: Some(7),
            made,
            notes: &[],
            letter: None,
            slips: &[],
            asked,
            certificate: &certificate(household, outcome, rules),
        },
        Language::English,
    )
}

fn plain(letter: &Letter) -> Vec<String> {
    let text =
        |words: &[hembo_documents::letter::Words]| words.iter().map(|w| w.text.as_str()).collect::<String>();
    let block = |block: &LetterBlock| match block {
        LetterBlock::Heading(words) => format!("# {}", text(words)),
        LetterBlock::Paragraph(words) => text(words),
        LetterBlock::List(items) => {
            items.iter().map(|item| format!("- {}", text(item))).collect::<Vec<_>>().join("\n")
        }
    };
    letter.blocks.iter().map(block).collect()
}

#[test]
fn a_template_is_merged_with_its_conditions() {
    let template = "# Your {{ year }} return\n\nDear {{ first_names }},\nthank you.\n\n\
        {% if refund %}**{{ balance }}** comes back.{% elif due %}{{ balance }} is due.{% endif %}\n\n\
        - one\n- two\n\n{% for change in changes %}{{ change.what }}{% endfor %}";
    let fields = fields();
    let letter = merge(template, &fields).unwrap();
    assert_eq!(
        plain(&letter),
        [
            "# Your 2025 return",
            "Dear Tamsin and Osric, thank you.",
            "$\u{a0}2,833 comes back.",
            "- one\n- two"
        ]
    );
    let LetterBlock::Paragraph(words) = &letter.blocks[2] else { unreachable!() };
    assert_eq!((words[0].bold, words[0].figure.as_deref()), (true, Some("balance")));
    assert_eq!((words[1].bold, words[1].figure.as_deref()), (false, None));
    assert_eq!(fields.figures["balance"], "$\u{a0}2,833");
}

#[test]
fn papers_that_only_the_family_has_are_asked_for_with_what_proves_them() {
    let template = "{% for paper in wanted %}\n- {{ paper.what }}: {{ paper.proof }}\n{% endfor %}";
    let nothing = merge(template, &fields()).unwrap();
    assert_eq!(nothing.blocks, []);
    // Gifts are there; nobody asks for them again.
    let asked = fields_asked(&["Care".into(), "Gifts".into(), "no such kind".into()]);
    assert_eq!(plain(&merge(template, &asked).unwrap()).len(), 1);
    let told = plain(&merge(template, &asked).unwrap())[0].clone();
    assert!(told.starts_with("- ") && told.contains("(Care)"), "{told}");
}

#[test]
fn a_wrong_template_says_on_which_line() {
    let fields = fields();
    for (template, line, told) in [
        ("Dear {{ first_names }},\n\nyour {{ taxx }}", 3, "There is no field 'taxx'."),
        ("{% if refund %}back", 1, ""),
        ("one\n{{ tax", 2, ""),
        ("{% if never %}{% else %}{{ nothing }}{% endif %}", 1, "There is no field"),
        ("{% for a in range(100000) %}{% for b in range(100000) %}x{% endfor %}{% endfor %}", 1, ""),
    ] {
        let fault = merge(template, &fields).unwrap_err();
        assert_eq!(fault.line, line, "{fault}");
        assert!(fault.message.contains(told), "{fault}");
    }
}

#[test]
fn every_field_that_is_offered_can_be_named() {
    let fields = fields();
    for field in FIELDS {
        merge(&format!("{{{{ {} }}}}", field.name), &fields).unwrap();
    }
}

#[test]
fn what_the_editor_keeps_is_read_and_given_back() {
    let letter = merge("# Title\n\nDear **{{ names }}**: {{ tax }}\n\n- one\n- two", &fields()).unwrap();
    assert_eq!(Letter::read(letter.value()).unwrap(), letter);
    let with_more = json!({ "type": "doc", "content": [{ "type": "paragraph", "content": [
        { "type": "text", "text": "one", "marks": [{ "type": "italic" }] }, { "type": "hardBreak" },
        { "type": "text", "text": "two" }] }, { "type": "paragraph" }] });
    assert_eq!(Letter::read(with_more.clone()).unwrap().value(), with_more, "line ends come back");
    assert_eq!(plain(&Letter::read(with_more).unwrap()), ["one\ntwo", ""]);
    for wrong in [
        json!({ "type": "paragraph" }),
        json!({ "type": "doc", "content": [{ "type": "image", "attrs": { "src": "http://elsewhere" } }] }),
        json!({ "type": "doc", "content": [{ "type": "bulletList", "content": [{ "type": "text", "text": "x" }] }] }),
        json!({ "type": "doc", "script": "x" }),
        json!([]),
        json!({ "type": "doc", "content": [{ "type": "paragraph",
            "content": [{ "type": "text", "text": "x".repeat(100_001) }] }] }),
    ] {
        assert!(Letter::read(wrong.clone()).is_err(), "{wrong}");
    }
}

#[test]
fn a_letter_is_written_as_docx_and_as_pdf() {
    let letter = merge("Dear {{ names }},\n\n- **one**\n- two & <three>\n-", &fields()).unwrap();
    let LetterBlock::List(items) = &letter.blocks[1] else { unreachable!() };
    assert_eq!(items.len(), 3, "the last entry waits for its words");
    let file = docx(&letter, "Quay Street Practice").unwrap();
    // A zip with the document in it.
    assert!(file.starts_with(b"PK\x03\x04"));
    let pdf =
        write(&letter.document("Quay Street Practice", "Letter", Sheet::A4, Language::English)).unwrap();
    assert!(pdf.bytes.starts_with(b"%PDF-"));
    assert_eq!(pdf.pages, 1);
}
