//! Marks that printers use: curved quotation marks, dashes, the ellipsis. Code and formulas are left alone.

use crate::document::{Document, Kind, NodeId, Step};
use crate::map::HashMap;

/// What becomes of straight quotation marks.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Quotes {
    /// They stay.
    #[default]
    Keep,
    /// They become the marks of the document's language.
    Typographic,
    /// Marks of any language become straight ones.
    Straight,
}

/// What becomes of hyphens that stand for dashes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Dashes {
    /// They stay.
    #[default]
    Keep,
    /// Two become an en dash, three an em dash, and three full stops an ellipsis.
    Typographic,
    /// Dashes become two and three hyphens, and an ellipsis three full stops.
    Hyphens,
}

/// Opening and closing marks, outer and inner.
#[derive(Clone, Copy, Debug)]
struct Marks {
    double: (&'static str, &'static str),
    single: (&'static str, &'static str),
}

const ENGLISH: Marks = Marks { double: ("\u{201C}", "\u{201D}"), single: ("\u{2018}", "\u{2019}") };

/// Marks by language. Facts from the Unicode Common Locale Data Repository's delimiters, 2026.
const BY_LANGUAGE: [(&str, Marks); 12] = [
    ("cs", Marks { double: ("\u{201E}", "\u{201C}"), single: ("\u{201A}", "\u{2018}") }),
    ("da", Marks { double: ("\u{201C}", "\u{201D}"), single: ("\u{2018}", "\u{2019}") }),
    ("de", Marks { double: ("\u{201E}", "\u{201C}"), single: ("\u{201A}", "\u{2018}") }),
    ("es", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201C}", "\u{201D}") }),
    ("fi", Marks { double: ("\u{201D}", "\u{201D}"), single: ("\u{2019}", "\u{2019}") }),
    ("fr", Marks { double: ("\u{AB}\u{A0}", "\u{A0}\u{BB}"), single: ("\u{AB}\u{A0}", "\u{A0}\u{BB}") }),
    ("it", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201C}", "\u{201D}") }),
    ("nb", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{2018}", "\u{2019}") }),
    ("pl", Marks { double: ("\u{201E}", "\u{201D}"), single: ("\u{AB}", "\u{BB}") }),
    ("ru", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201E}", "\u{201C}") }),
    ("sv", Marks { double: ("\u{201D}", "\u{201D}"), single: ("\u{2019}", "\u{2019}") }),
    ("uk", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201E}", "\u{201C}") }),
];

/// Sets the marks of a document.
pub fn set(doc: &mut Document, quotes: Quotes, dashes: Dashes) {
    if quotes == Quotes::Keep && dashes == Dashes::Keep {
        return;
    }
    let language = doc.metadata.language.as_deref().unwrap_or("en");
    let primary = language.split('-').next().unwrap_or_default().to_ascii_lowercase();
    let marks = BY_LANGUAGE.iter().find(|(known, _)| *known == primary).map_or(ENGLISH, |(_, marks)| *marks);
    let tops: Vec<NodeId> = std::iter::once(doc.root()).chain(doc.notes.iter().map(|note| note.body)).collect();
    for top in tops {
        let mut changes = changes(doc, top, (quotes == Quotes::Typographic).then_some(marks), dashes == Dashes::Typographic);
        if quotes == Quotes::Straight || dashes == Dashes::Hyphens {
            changes = plain(doc, top, quotes == Quotes::Straight, dashes == Dashes::Hyphens, changes);
        }
        for (id, text) in changes {
            let text = doc.intern(&text);
            doc.set_kind(id, Kind::Text(text));
        }
    }
}

/// Marks as keyboards have them.
fn plain(doc: &Document, top: NodeId, quotes: bool, dashes: bool, changes: Vec<(NodeId, String)>) -> Vec<(NodeId, String)> {
    let mut changed: HashMap<NodeId, String> = changes.into_iter().collect();
    doc.walk(top)
        .filter_map(|step| {
            let Step::Enter(id) = step else { return None };
            let Kind::Text(text) = doc.kind(id) else { return None };
            let before = changed.remove(&id);
            let text = before.as_deref().unwrap_or_else(|| doc.text(text));
            let plain: String =
                text.chars().map(|c| plain_mark(c, quotes, dashes).map_or_else(|| c.to_string(), str::to_owned)).collect();
            (plain != text || before.is_some()).then_some((id, plain))
        })
        .collect()
}

const fn plain_mark(c: char, quotes: bool, dashes: bool) -> Option<&'static str> {
    match c {
        '\u{201C}'..='\u{201F}' | '\u{AB}' | '\u{BB}' if quotes => Some("\""),
        '\u{2018}'..='\u{201B}' | '\u{2039}' | '\u{203A}' if quotes => Some("'"),
        '\u{2013}' if dashes => Some("--"),
        '\u{2014}' if dashes => Some("---"),
        '\u{2026}' if dashes => Some("..."),
        _ => None,
    }
}

fn changes(doc: &Document, top: NodeId, marks: Option<Marks>, dashes: bool) -> Vec<(NodeId, String)> {
    let mut changes = Vec::new();
    // The character before, across nodes of one line of text.
    let mut before = ' ';
    for step in doc.walk(top) {
        let Step::Enter(id) = step else { continue };
        match doc.kind(id) {
            Kind::Text(text) => {
                let text = doc.text(text);
                let set = set_text(text, &mut before, marks, dashes);
                if set != text {
                    changes.push((id, set));
                }
            }
            Kind::Code(_) | Kind::Image { .. } | Kind::NoteReference(_) => before = 'x',
            kind if kind.is_formula() => before = 'x',
            kind if kind.is_inline() && !matches!(kind, Kind::SoftBreak | Kind::LineBreak) => {}
            _ => before = ' ',
        }
    }
    changes
}

fn set_text(text: &str, before: &mut char, marks: Option<Marks>, dashes: bool) -> String {
    let mut out = String::with_capacity(text.len() + 8);
    let mut rest = text;
    while let Some(c) = rest.chars().next() {
        let after = &rest[c.len_utf8()..];
        let opens = before.is_whitespace()
            || matches!(*before, '(' | '[' | '{' | '\u{2014}' | '\u{2013}' | '-' | '\u{201C}' | '\u{AB}' | '\u{201E}' | '"');
        let (written, length) = match (c, marks) {
            ('"', Some(marks)) => (if opens { marks.double.0 } else { marks.double.1 }, 1),
            // An apostrophe at the beginning of a number or of a word that lost its start.
            ('\'', Some(_)) if opens && after.starts_with(|c: char| c.is_ascii_digit()) => ("\u{2019}", 1),
            ('\'', Some(_)) if before.is_alphanumeric() && after.starts_with(char::is_alphanumeric) => ("\u{2019}", 1),
            ('\'', Some(marks)) => (if opens { marks.single.0 } else { marks.single.1 }, 1),
            ('-', _) if dashes && rest.starts_with("---") && !rest.starts_with("----") => ("\u{2014}", 3),
            ('-', _) if dashes && rest.starts_with("--") && !rest.starts_with("---") => ("\u{2013}", 2),
            ('-', _) if rest.starts_with("--") => {
                let run = rest.len() - rest.trim_start_matches('-').len();
                (&rest[..run], run)
            }
            ('.', _) if dashes && rest.starts_with("...") => ("\u{2026}", 3),
            _ => (&rest[..c.len_utf8()], c.len_utf8()),
        };
        out.push_str(written);
        rest = &rest[length..];
        *before = written.chars().next_back().unwrap_or(c);
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn case(language: &str, text: &str, expected: &str) {
        let mut doc = Document::new();
        doc.metadata.language = Some(language.to_owned());
        let paragraph = doc.append(doc.root(), Kind::Paragraph);
        doc.append_text(paragraph, text);
        set(&mut doc, Quotes::Typographic, Dashes::Typographic);
        assert_eq!(doc.plain_text(doc.root()), expected);
    }

    #[test]
    fn what_is_no_text_stands_for_a_letter() {
        let texts = |doc: &mut Document| (doc.intern("x"), doc.intern(""));
        let formulas: [fn(crate::document::Text, crate::document::Text) -> Kind; 5] = [
            |text, _| Kind::Math { tex: text, display: false },
            |text, _| Kind::MathMl { markup: text, display: false },
            |text, _| Kind::OfficeMath { markup: text, characters: text },
            |text, _| Kind::Code(text),
            |text, empty| Kind::Image { src: text, alt: empty },
        ];
        for formula in formulas {
            let mut doc = Document::new();
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, "\"a ");
            let (text, empty) = texts(&mut doc);
            doc.append(paragraph, formula(text, empty));
            let last = doc.append_text(paragraph, "\" b");
            set(&mut doc, Quotes::Typographic, Dashes::Keep);
            assert_eq!(doc.plain_text(last), "\u{201D} b", "{:?}", formula(text, empty));
        }
    }

    #[test]
    fn marks_follow_the_language() {
        case(
            "en",
            "\"It's 'high' water,\" she said--at 6...",
            "\u{201C}It\u{2019}s \u{2018}high\u{2019} water,\u{201D} she said\u{2013}at 6\u{2026}",
        );
        case("de-AT", "Er sagte: \"Ebbe\" --- im '26er Jahr", "Er sagte: \u{201E}Ebbe\u{201C} \u{2014} im \u{2019}26er Jahr");
        case("fr", "\"oui\"", "\u{AB}\u{A0}oui\u{A0}\u{BB}");
        case("en", "----- (\"a\")", "----- (\u{201C}a\u{201D})");
    }
}
