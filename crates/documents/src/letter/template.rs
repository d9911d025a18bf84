//! Templates: text with merge fields and conditions. A blank line ends a paragraph, `# ` begins a heading, `- ` an entry of a
//! list, and two asterisks stand around bold words.

use super::{
    Letter, LetterBlock, Words,
    fields::{BEGIN, END, Fields, NAMED},
};
use minijinja::{Environment, UndefinedBehavior};

/// A template that cannot be merged.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
#[error("line {line}: {message}")]
pub struct TemplateFault {
    /// The line, from 1.
    pub line: usize,
    /// What is wrong with it.
    pub message: String,
}

/// How long a merged letter may become.
const FUEL: u64 = 100_000;

/// A letter by a template.
///
/// ```
/// use hembo_documents::letter::{LetterBlock, merge};
/// # use hembo_documents::letter::Fields;
/// # fn example(fields: &Fields) {
/// let letter = merge("Dear {{ first_names }},\n\n{% if refund %}**{{ balance }}** comes back.{% endif %}", fields);
/// assert!(matches!(&letter.unwrap().blocks[..], [LetterBlock::Paragraph(_), LetterBlock::Paragraph(_)]));
/// # }
/// ```
///
/// # Errors
/// Where the template is wrong: a field that there is none of, a condition that does not end.
pub fn merge(template: &str, fields: &Fields) -> Result<Letter, TemplateFault> {
    let mut environment = Environment::new();
    environment.set_undefined_behavior(UndefinedBehavior::Strict);
    environment.set_fuel(Some(FUEL));
    let fault = |why: minijinja::Error| TemplateFault { line: why.line().unwrap_or(1), message: told(&why) };
    let parsed = environment.template_from_str(template).map_err(fault)?;
    // A field that there is none of is a fault also where a condition passes over it.
    let unknown = parsed
        .undeclared_variables(false)
        .into_iter()
        .find(|name| !fields.values.contains_key(name.as_str()));
    if let Some(name) = unknown {
        let line = template.lines().position(|line| line.contains(&name)).unwrap_or(0) + 1;
        return Err(TemplateFault { line, message: format!("There is no field '{name}'.") });
    }
    let merged = parsed.render(&fields.values).map_err(fault)?;
    Ok(Letter { blocks: blocks(&merged) })
}

fn told(why: &minijinja::Error) -> String {
    let detail = why.detail().map_or_else(|| why.kind().to_string(), str::to_owned);
    format!("{}.", detail.trim_end_matches('.'))
}

fn blocks(text: &str) -> Vec<LetterBlock> {
    let mut blocks: Vec<LetterBlock> = Vec::new();
    let mut open = false;
    for line in text.lines().map(str::trim) {
        if line.is_empty() {
            open = false;
        } else if let Some(title) = line.strip_prefix("# ") {
            blocks.push(LetterBlock::Heading(words(title)));
            open = false;
        } else if let Some(entry) = line.strip_prefix("- ").or((line == "-").then_some("")) {
            match blocks.last_mut() {
                Some(LetterBlock::List(items)) if open => items.push(words(entry)),
                _ => blocks.push(LetterBlock::List(vec![words(entry)])),
            }
            open = true;
        } else {
            match blocks.last_mut() {
                Some(LetterBlock::Paragraph(all)) if open => all.extend(words(&format!(" {line}"))),
                _ => blocks.push(LetterBlock::Paragraph(words(line))),
            }
            open = true;
        }
    }
    blocks
}

/// The words of a line: bold between two asterisks, figures by their marks.
fn words(line: &str) -> Vec<Words> {
    let parts = line.split("**").enumerate();
    parts.flat_map(|(at, part)| figures(part, at % 2 == 1)).filter(|words| !words.text.is_empty()).collect()
}

fn figures(part: &str, bold: bool) -> Vec<Words> {
    let plain = |text: &str| Words { text: text.into(), bold, ..Words::default() };
    let mut rest = part;
    let mut found = Vec::new();
    while let Some((before, marked)) = rest.split_once(BEGIN) {
        let (name, after) = marked.split_once(NAMED).unwrap_or(("", marked));
        let (figure, after) = after.split_once(END).unwrap_or((after, ""));
        found.push(plain(before));
        found.push(Words { figure: Some(name.into()), ..plain(figure) });
        rest = after;
    }
    found.push(plain(rest));
    found
}
