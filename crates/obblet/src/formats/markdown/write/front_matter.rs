//! Metadata, as YAML at the top.

use super::Writer;
use crate::document::{Document, Kind};

/// Writes what is known of the document and not said by its text.
pub(super) fn write(writer: &mut Writer<'_, '_>) {
    let metadata = &writer.doc.metadata;
    let mut lines: Vec<String> = Vec::new();
    let mut put = |key: &str, value: &str| {
        if !value.is_empty() {
            lines.push(format!("{key}: {}", scalar(value)));
        }
    };
    // The title of a page is mostly its first heading.
    let heading = writer.doc.first_heading();
    if let Some(title) = metadata.title.as_deref().filter(|title| heading.as_deref() != Some(title)) {
        put("title", title);
    }
    // So is the subtitle, where it stands below that.
    let below = first_below_heading(writer.doc);
    put("subtitle", metadata.subtitle.as_deref().filter(|subtitle| below.as_deref() != Some(subtitle)).unwrap_or_default());
    if let [author] = metadata.authors.as_slice() {
        put("author", author);
    }
    put("date", metadata.date.as_deref().unwrap_or_default());
    put("language", metadata.language.as_deref().unwrap_or_default());
    put("direction", metadata.direction.map_or("", crate::document::Direction::value));
    put("description", metadata.description.as_deref().unwrap_or_default());
    for (key, value) in &metadata.other {
        let plain = !key.is_empty() && key.chars().all(|c| c.is_ascii_alphanumeric() || matches!(c, '-' | '_'));
        put(&if plain { key.clone() } else { scalar(key) }, value);
    }
    let mut put_list = |key: &str, values: &[String]| {
        if !values.is_empty() {
            let values: Vec<String> = values.iter().map(|value| item(value)).collect();
            lines.push(format!("{key}: [{}]", values.join(", ")));
        }
    };
    if metadata.authors.len() > 1 {
        put_list("authors", &metadata.authors);
    }
    put_list("keywords", &metadata.keywords);
    if lines.is_empty() {
        return;
    }
    writer.out.line("---");
    for line in lines {
        writer.out.line(&line);
    }
    writer.out.line("---");
    writer.out.line("");
}

/// The text of what stands directly below the first heading of the document.
fn first_below_heading(doc: &Document) -> Option<String> {
    let heading = doc.children(doc.root()).find(|&block| matches!(doc.kind(block), Kind::Heading(_)))?;
    let below = doc.node(heading).next()?;
    Some(doc.plain_text(below).split_whitespace().collect::<Vec<_>>().join(" "))
}

/// A value as YAML writes it: plain where that is the same text.
fn scalar(value: &str) -> String {
    let value = value.split_whitespace().collect::<Vec<_>>().join(" ");
    let risky_start = value.starts_with(|c: char| !(c.is_alphanumeric()));
    let reserved = ["true", "false", "null", "yes", "no", "on", "off", "~", ".nan", ".inf"];
    let numeric = value.starts_with(|c: char| c.is_ascii_digit());
    let plain_date = value.len() == 10 && value.bytes().all(|byte| byte.is_ascii_digit() || byte == b'-');
    let risky = risky_start
        || reserved.contains(&value.to_ascii_lowercase().as_str())
        || (numeric && !plain_date)
        || value.contains(": ")
        || value.contains(" #")
        || value.ends_with(':')
        || value.chars().any(char::is_control);
    if risky { quoted(&value) } else { value }
}

/// A value within a list on one line.
fn item(value: &str) -> String {
    let plain = scalar(value);
    if plain.starts_with('"') || !plain.contains([',', '[', ']', '{', '}']) { plain } else { quoted(value) }
}

fn quoted(value: &str) -> String {
    let mut out = String::from("\"");
    for c in value.chars() {
        match c {
            '"' | '\\' => out.extend(['\\', c]),
            c if c.is_control() => out.push_str(&format!("\\u{:04X}", c as u32)),
            c => out.push(c),
        }
    }
    out.push('"');
    out
}
