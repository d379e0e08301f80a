//! What office programs and editors leave in HTML of their own notes: which paragraphs are items of lists, and how deep.
//!
//! Names of classes and properties are facts of those programs' output, seen in documents saved by them up to 2026.

use super::css::ComputedStyle;
use crate::document::{Document, HintRole, Kind, NodeId, Producer};
use std::hash::{DefaultHasher, Hash, Hasher};

/// Classes that say which program wrote a page.
pub(super) fn classes(doc: &mut Document, node: NodeId, kind: Kind, classes: &str) {
    for class in classes.split_ascii_whitespace() {
        // Most classes are of nobody's making but the page's.
        if !matches!(class.as_bytes().first(), Some(b'M' | b'm' | b'A' | b'l' | b'x' | b'g' | b'B' | b'N')) {
            continue;
        }
        if let Some(style) = class.strip_prefix("MsoList") {
            doc.layout_hints.producer = Producer::Program;
            if kind == Kind::Paragraph {
                list_class(doc, node, class, style);
            }
        } else if let Some((list, level)) = class.strip_prefix("lst-kix_").and_then(|list| list.rsplit_once('-')) {
            doc.layout_hints.producer = Producer::Program;
            let name = number_of(list);
            let hint = doc.layout_hints.at(node);
            (hint.list, hint.level) = (Some(name), level.parse::<u8>().map_or(1, |level| level.saturating_add(1)));
        } else {
            if class == "MsoTitle" && kind == Kind::Paragraph {
                doc.set_kind(node, Kind::Heading(1));
            }
            let by_program = ["Mso", "mso", "Apple-", "gmail_", "moz-cite", "BulletListStyle", "NumberListStyle"];
            let cell =
                class.strip_prefix("xl").is_some_and(|number| number.len() >= 2 && number.bytes().all(|b| b.is_ascii_digit()));
            if cell || by_program.iter().any(|beginning| class.starts_with(beginning)) {
                doc.layout_hints.producer = Producer::Program;
            }
        }
    }
}

/// The number that stands for the name of a list.
fn number_of(name: &str) -> u32 {
    let mut hasher = DefaultHasher::new();
    name.hash(&mut hasher);
    hasher.finish() as u32
}

/// Whether a class is a program's note to itself, and no style that somebody chose.
pub(super) fn is_own_class(class: &str) -> bool {
    const CHOSEN: [&str; 6] = ["MsoTitle", "MsoSubtitle", "MsoQuote", "MsoIntenseQuote", "MsoCaption", "MsoBlockText"];
    const BEGINNINGS: [&str; 12] = [
        "Mso",
        "mso",
        "msocom",
        "WordSection",
        "Apple-",
        "apple-",
        "gmail_",
        "lst-kix",
        "li-bullet-",
        "sdfootnote",
        "sdendnote",
        "moz-",
    ];
    const WHOLE: [&str; 8] = ["GramE", "SpellE", "western", "cjk", "ctl", "start", "doc-content", "subtitle-western"];
    let numbered = class
        .strip_prefix(['c'])
        .or_else(|| class.strip_prefix("xl"))
        .or_else(|| class.strip_prefix("font"))
        .or_else(|| class.strip_prefix("Section"));
    let number = numbered.is_some_and(|number| !number.is_empty() && number.bytes().all(|byte| byte.is_ascii_digit()));
    number
        || WHOLE.contains(&class)
        || (!CHOSEN.contains(&class) && BEGINNINGS.iter().any(|beginning| class.starts_with(beginning)))
}

/// Styles of list paragraphs: their names end with the level where it is not the first.
fn list_class(doc: &mut Document, node: NodeId, class: &str, style: &str) {
    let level = style.bytes().last().filter(u8::is_ascii_digit).map_or(1, |digit| digit - b'0');
    let name = number_of(class.trim_end_matches(|c: char| c.is_ascii_digit()));
    let hint = doc.layout_hints.at(node);
    if style.starts_with("Continue") {
        (hint.part, hint.level) = (HintRole::Continued, level);
    } else if style.starts_with("Bullet") || style.starts_with("Number") {
        (hint.list, hint.level) = (Some(name), level);
    } else if style.starts_with("Paragraph") {
        hint.list = Some(name);
    }
}

/// Style attributes are signs of a program, but for the one that our own pages have.
pub(super) fn style(doc: &mut Document, style: &str) {
    let make = if style.contains("mso-") {
        Producer::Program
    } else if style.starts_with("text-align") && !style.trim_end_matches(';').contains(';') {
        Producer::Plain
    } else {
        Producer::Styled
    };
    doc.layout_hints.producer = doc.layout_hints.producer.max(make);
}

/// The rule for a size of letters from 1 to 7 (HTML, section 15.3.3).
pub(super) fn font_size(value: &str) -> &'static str {
    match value.trim() {
        "1" | "-2" => "font-size:9pt;",
        "2" | "-1" => "font-size:10pt;",
        "4" | "+1" => "font-size:13.5pt;",
        "5" | "+2" => "font-size:18pt;",
        "6" | "+3" => "font-size:24pt;",
        "7" | "+4" => "font-size:36pt;",
        _ => "",
    }
}

/// A level that an attribute of a list item names.
pub(super) fn level(doc: &mut Document, node: NodeId, value: &str) {
    if let (Kind::ListItem { .. }, Ok(level)) = (doc.kind(node), value.trim().parse()) {
        doc.layout_hints.at(node).level = level;
    }
}

/// Keeps what the looks of a paragraph say about lists.
pub(super) fn note_hints(doc: &mut Document, node: NodeId, look: &ComputedStyle) {
    let (indent, first_line) = (look.indent.unwrap_or(0.0), look.first_line.unwrap_or(0.0));
    if look.item.is_none() && indent == 0.0 && first_line == 0.0 {
        return;
    }
    if !matches!(doc.kind(node), Kind::Paragraph | Kind::Heading(_) | Kind::Division(_)) {
        return;
    }
    let hint = doc.layout_hints.at(node);
    (hint.indent, hint.first_line) = (indent, first_line);
    if let Some((list, level)) = look.item {
        (hint.list, hint.level) = (Some(list), level);
    }
}
