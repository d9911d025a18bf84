//! A letter as the editor on the desk keeps it: a tree of nodes with marks. What the editor cannot make is refused.

use super::{Letter, LetterBlock, Words};
use serde::{Deserialize, Serialize};
use serde_json::Value;

/// What was sent is no letter.
#[derive(Debug, thiserror::Error)]
#[error("this is no letter: {0}")]
pub struct NotALetter(String);

/// How long a letter is at the most, in bytes of text.
const LONGEST: usize = 100_000;
/// The words that end a line within a paragraph.
pub(super) const BREAK: &str = "\n";

#[derive(Serialize, Deserialize, Default)]
#[serde(deny_unknown_fields)]
struct Node {
    #[serde(rename = "type")]
    kind: String,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    content: Vec<Node>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    text: Option<String>,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    marks: Vec<Mark>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    attrs: Option<Value>,
}

#[derive(Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
struct Mark {
    #[serde(rename = "type")]
    kind: String,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    attrs: Option<MarkOf>,
}

/// Of a mark of a figure the name of its field.
#[derive(Serialize, Deserialize)]
struct MarkOf {
    #[serde(default)]
    name: Option<String>,
}

impl Letter {
    /// Reads what the editor keeps.
    ///
    /// # Errors
    /// What in it is no part of a letter.
    pub fn read(value: Value) -> Result<Letter, NotALetter> {
        let root: Node = serde_json::from_value(value).map_err(|why| NotALetter(why.to_string()))?;
        if root.kind != "doc" {
            return Err(NotALetter(format!("it begins with '{}'", root.kind)));
        }
        let blocks = root.content.into_iter().map(block).collect::<Result<Vec<_>, _>>()?;
        let letter = Letter { blocks };
        if letter.length() > LONGEST {
            return Err(NotALetter(format!("it has more than {LONGEST} signs")));
        }
        Ok(letter)
    }

    fn length(&self) -> usize {
        let of = |words: &[Words]| words.iter().map(|w| w.text.len()).sum::<usize>();
        let block = |block: &LetterBlock| match block {
            LetterBlock::Heading(words) | LetterBlock::Paragraph(words) => of(words),
            LetterBlock::List(items) => items.iter().map(|item| of(item)).sum(),
        };
        self.blocks.iter().map(block).sum()
    }

    /// The letter as the editor keeps it.
    pub fn value(&self) -> Value {
        let content = self.blocks.iter().map(node).collect();
        let root = Node { kind: "doc".into(), content, ..Node::default() };
        serde_json::to_value(root).unwrap_or_default()
    }
}

fn block(node: Node) -> Result<LetterBlock, NotALetter> {
    match node.kind.as_str() {
        "heading" => Ok(LetterBlock::Heading(words(node.content)?)),
        "paragraph" => Ok(LetterBlock::Paragraph(words(node.content)?)),
        "bulletList" => node.content.into_iter().map(item).collect::<Result<_, _>>().map(LetterBlock::List),
        other => Err(NotALetter(format!("'{other}' is no part of a letter"))),
    }
}

/// One entry of a list: its paragraphs as one, a line each.
fn item(node: Node) -> Result<Vec<Words>, NotALetter> {
    if node.kind != "listItem" {
        return Err(NotALetter(format!("a list has entries, not '{}'", node.kind)));
    }
    let mut all = Vec::new();
    for paragraph in node.content {
        if paragraph.kind != "paragraph" {
            return Err(NotALetter(format!("an entry of a list has words, not '{}'", paragraph.kind)));
        }
        if !all.is_empty() {
            all.push(Words { text: BREAK.into(), ..Words::default() });
        }
        all.extend(words(paragraph.content)?);
    }
    Ok(all)
}

fn words(nodes: Vec<Node>) -> Result<Vec<Words>, NotALetter> {
    let one = |node: Node| match (node.kind.as_str(), node.text) {
        ("text", Some(text)) => Ok(marked(text, &node.marks)),
        ("hardBreak", None) => Ok(Words { text: BREAK.into(), ..Words::default() }),
        (other, _) => Err(NotALetter(format!("'{other}' are no words"))),
    };
    nodes.into_iter().map(one).collect()
}

fn marked(text: String, marks: &[Mark]) -> Words {
    let has = |kind: &str| marks.iter().any(|mark| mark.kind == kind);
    let figure = marks.iter().find(|mark| mark.kind == "figure");
    Words {
        text,
        bold: has("bold"),
        italic: has("italic"),
        figure: figure.and_then(|mark| mark.attrs.as_ref()?.name.clone()),
    }
}

fn node(block: &LetterBlock) -> Node {
    let of = |kind: &str, content: Vec<Node>| Node { kind: kind.into(), content, ..Node::default() };
    match block {
        LetterBlock::Heading(words) => {
            let attrs = Some(serde_json::json!({ "level": 2 }));
            Node { attrs, ..of("heading", texts(words)) }
        }
        LetterBlock::Paragraph(words) => of("paragraph", texts(words)),
        LetterBlock::List(items) => {
            let item = |words: &Vec<Words>| of("listItem", vec![of("paragraph", texts(words))]);
            of("bulletList", items.iter().map(item).collect())
        }
    }
}

fn texts(words: &[Words]) -> Vec<Node> {
    let text = |words: &Words| {
        if words.text == BREAK {
            return Node { kind: "hardBreak".into(), ..Node::default() };
        }
        let plain = |kind: &str| Mark { kind: kind.into(), attrs: None };
        let figure = words
            .figure
            .clone()
            .map(|name| Mark { kind: "figure".into(), attrs: Some(MarkOf { name: Some(name) }) });
        let marks = [words.bold.then(|| plain("bold")), words.italic.then(|| plain("italic")), figure];
        Node {
            kind: "text".into(),
            text: Some(words.text.clone()),
            marks: marks.into_iter().flatten().collect(),
            ..Node::default()
        }
    };
    words.iter().filter(|words| !words.text.is_empty()).map(text).collect()
}
