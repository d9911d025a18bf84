//! Small changes of words that every pack makes.

use crate::field::Choice;

/// The first of a person's names.
pub fn first_name(name: &str) -> &str {
    name.split(' ').next().unwrap_or(name)
}

/// The same with a capital first letter.
pub fn capital(text: &str) -> String {
    let mut letters = text.chars();
    letters.next().map(|first| first.to_uppercase().chain(letters).collect()).unwrap_or_default()
}

/// What a choice is called on the screen.
pub fn label_of(options: &'static [Choice], id: &str) -> Option<&'static str> {
    options.iter().find(|o| o.id == id).map(|o| o.label)
}

/// The same words with a small first letter, unless the first word is all capitals.
pub fn small(words: &str) -> String {
    let mut letters = words.chars();
    match (letters.next(), letters.clone().next()) {
        (Some(first), Some(second)) if !second.is_uppercase() => {
            first.to_lowercase().chain(letters).collect()
        }
        _ => words.into(),
    }
}
