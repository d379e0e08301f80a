//! Marks that printers use: curved quotation marks, dashes, the ellipsis. Code and formulas are left alone.

use crate::document::{Document, Kind, NodeId, Step};
use crate::fast_hash::HashMap;
use crate::language_tag;
use crate::quotation_marks::{self, Marks};

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
    /// Two or three become the dash that the document's language sets between parts of a sentence, with or without spaces; between
    /// numbers an en dash. Three full stops become an ellipsis.
    Language,
    /// Dashes become two and three hyphens, and an ellipsis three full stops.
    Hyphens,
}

/// The dash between parts of a sentence.
#[derive(Clone, Copy, Debug)]
struct Dash {
    mark: char,
    /// Whether spaces stand around it.
    spaced: bool,
}

/// Dashes by language where they are not an en dash with spaces: the customs of printers, as the grammars and style guides of
/// these languages have them.
const DASHES: [(&str, Dash); 5] = [
    ("en", Dash { mark: '\u{2014}', spaced: false }),
    ("es", Dash { mark: '\u{2014}', spaced: true }),
    ("fr", Dash { mark: '\u{2014}', spaced: true }),
    ("ru", Dash { mark: '\u{2014}', spaced: true }),
    ("uk", Dash { mark: '\u{2014}', spaced: true }),
];

/// Words of English that have lost their beginnings, behind the apostrophe that stands for them.
const CLIPPED: [&str; 12] = ["bout", "cause", "cos", "em", "fore", "n", "neath", "round", "til", "tis", "twas", "twere"];

/// What is set.
#[derive(Clone, Copy, Debug)]
struct Manner {
    marks: Option<Marks>,
    dashes: Dashes,
    dash: Dash,
    is_english: bool,
}

/// Sets the marks of a document.
pub fn set(doc: &mut Document, quotes: Quotes, dashes: Dashes) {
    if quotes == Quotes::Keep && dashes == Dashes::Keep {
        return;
    }
    let language = doc.metadata.language.as_deref().unwrap_or("en");
    let primary = language_tag::primary(language);
    let marks = quotation_marks::of(language);
    let dash =
        DASHES.iter().find(|(known, _)| *known == primary).map_or(Dash { mark: '\u{2013}', spaced: true }, |(_, dash)| *dash);
    let roots: Vec<NodeId> = doc.roots();
    for root in roots {
        let marks = (quotes == Quotes::Typographic).then_some(marks);
        let mut changes = changes(doc, root, Manner { marks, dashes, dash, is_english: primary == "en" });
        if quotes == Quotes::Straight || dashes == Dashes::Hyphens {
            changes = plain(doc, root, quotes == Quotes::Straight, dashes == Dashes::Hyphens, changes);
        }
        for (id, text) in changes {
            let text = doc.intern(&text);
            doc.set_kind(id, Kind::Text(text));
        }
    }
}

/// Marks as keyboards have them.
fn plain(doc: &Document, root: NodeId, quotes: bool, dashes: bool, changes: Vec<(NodeId, String)>) -> Vec<(NodeId, String)> {
    let mut changed: HashMap<NodeId, String> = changes.into_iter().collect();
    doc.walk(root)
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

/// What stands for something that is no text: quotation marks and dashes treat it as a letter.
const THING: char = '\u{FFFC}';

/// A line of text: its characters across all nodes, and which node each is from.
#[derive(Default)]
struct Line {
    chars: Vec<char>,
    owners: Vec<usize>,
    nodes: Vec<NodeId>,
}

impl Line {
    fn push(&mut self, id: NodeId, text: &str) {
        self.chars.extend(text.chars());
        self.owners.resize(self.chars.len(), self.nodes.len());
        self.nodes.push(id);
    }

    fn thing(&mut self) {
        self.chars.push(THING);
        self.owners.push(usize::MAX);
    }
}

fn changes(doc: &Document, root: NodeId, manner: Manner) -> Vec<(NodeId, String)> {
    let mut changes = Vec::new();
    let mut line = Line::default();
    for step in doc.walk(root) {
        let (Step::Enter(id) | Step::Leave(id)) = step;
        let entered = matches!(step, Step::Enter(_));
        match doc.kind(id) {
            Kind::Text(text) if entered => line.push(id, doc.text(text)),
            Kind::Code(_) | Kind::Image { .. } | Kind::NoteReference(_) if entered => line.thing(),
            kind if kind.is_formula() && entered => line.thing(),
            Kind::SoftBreak if entered => {
                line.chars.push(' ');
                line.owners.push(usize::MAX);
            }
            kind if kind.is_inline() && kind != Kind::LineBreak => {}
            _ => set_line(doc, &std::mem::take(&mut line), manner, &mut changes),
        }
    }
    set_line(doc, &line, manner, &mut changes);
    changes
}

/// Sets the marks of a line, and notes the texts that are others then.
fn set_line(doc: &Document, line: &Line, manner: Manner, changes: &mut Vec<(NodeId, String)>) {
    if line.nodes.is_empty() {
        return;
    }
    let mut texts = vec![String::new(); line.nodes.len()];
    let mut setting = Setting { chars: &line.chars, manner, before: ' ', is_open: false };
    let mut at = 0;
    while at < line.chars.len() {
        let (written, length) = setting.one(at);
        if let Some(text) = texts.get_mut(line.owners[at]) {
            let is_tight = matches!(written, Written::Tight(_));
            if is_tight && !text.trim_end_matches(is_space).is_empty() {
                text.truncate(text.trim_end_matches(is_space).len());
            }
            match written {
                Written::Mark(mark) => text.push_str(mark),
                Written::Char(c) | Written::Tight(c) => text.push(c),
                Written::Spaced(c) => text.extend([' ', c, ' ']),
                Written::Same => text.extend(&line.chars[at..at + length]),
            }
        }
        let end = at + length;
        setting.before = match written {
            Written::Mark(mark) => mark.chars().next_back().unwrap_or(' '),
            Written::Char(c) | Written::Tight(c) => c,
            Written::Spaced(_) => ' ',
            Written::Same => line.chars[end - 1],
        };
        at = end;
        if matches!(written, Written::Tight(_)) {
            while line.chars.get(at).copied().is_some_and(is_space) && line.chars.get(at + 1).is_some_and(|c| !is_space(*c)) {
                at += 1;
            }
        }
    }
    for (&id, text) in line.nodes.iter().zip(texts) {
        if matches!(doc.kind(id), Kind::Text(before) if doc.text(before) != text) {
            changes.push((id, text));
        }
    }
}

const fn is_space(c: char) -> bool {
    matches!(c, ' ' | '\u{A0}')
}

const fn is_dash(c: char) -> bool {
    matches!(c, '-' | '\u{2013}' | '\u{2014}')
}

const fn is_opening(c: char) -> bool {
    matches!(c, '(' | '[' | '{' | '\u{201C}' | '\u{2018}' | '\u{AB}' | '\u{201E}' | '\u{201A}')
}

/// What is written instead of some characters.
#[derive(Clone, Copy)]
enum Written {
    Same,
    Mark(&'static str),
    Char(char),
    /// Without the spaces that stand around it.
    Tight(char),
    /// With a space on either side.
    Spaced(char),
}

/// A line whose marks are set, from its beginning on.
struct Setting<'l> {
    chars: &'l [char],
    manner: Manner,
    /// What was written last.
    before: char,
    /// Whether a double quotation mark is open.
    is_open: bool,
}

impl Setting<'_> {
    fn at(&self, at: usize) -> char {
        self.chars.get(at).copied().unwrap_or(' ')
    }

    fn run(&self, at: usize, c: char) -> usize {
        self.chars[at..].iter().take_while(|found| **found == c).count()
    }

    /// Whether a quotation mark opens, by what stands around it. Behind a dash it depends on what follows: a word begins
    /// something there, and all else ends it.
    fn opens(&self, at: usize, is_open: bool) -> bool {
        let (before, after) = (self.before, self.at(at + 1));
        let begins = after.is_alphanumeric()
            || after == THING
            || is_opening(after)
            || matches!(after, '"' | '\'' | '.' | '\u{2026}' | '$');
        if before.is_whitespace() {
            !(after.is_whitespace() && is_open)
        } else if is_opening(before) || matches!(before, '"' | '\'') {
            !after.is_whitespace()
        } else {
            is_dash(before) && begins && !is_open
        }
    }

    /// What becomes of the character at a place, and how many characters that is.
    fn one(&mut self, at: usize) -> (Written, usize) {
        let (c, after) = (self.chars[at], self.at(at + 1));
        match (c, self.manner.marks) {
            ('"', Some(marks)) => {
                let opens = self.opens(at, self.is_open);
                self.is_open = opens;
                (Written::Mark(if opens { marks.double.0 } else { marks.double.1 }), 1)
            }
            ('\'', Some(marks)) => {
                let opens = self.opens(at, false);
                let is_apostrophe = (self.before.is_alphanumeric() && after.is_alphanumeric())
                    || (opens && (after.is_ascii_digit() || self.is_clipped(at)));
                let mark = if opens { marks.single.0 } else { marks.single.1 };
                (Written::Mark(if is_apostrophe { "\u{2019}" } else { mark }), 1)
            }
            ('-', _) if after == '-' => self.hyphens(at),
            ('.', _) if self.sets_dashes() && self.run(at, '.') >= 3 => (Written::Char('\u{2026}'), 3),
            ('.', _) if self.sets_dashes() && self.chars[at..].starts_with(&['.', ' ', '.', ' ', '.']) => {
                (Written::Char('\u{2026}'), 5)
            }
            _ => (Written::Same, 1),
        }
    }

    fn sets_dashes(&self) -> bool {
        matches!(self.manner.dashes, Dashes::Typographic | Dashes::Language)
    }

    /// Whether the word behind an apostrophe has lost its beginning.
    fn is_clipped(&self, at: usize) -> bool {
        let word: String =
            self.chars[at + 1..].iter().take_while(|c| c.is_alphabetic()).take(8).flat_map(|c| c.to_lowercase()).collect();
        self.manner.is_english && CLIPPED.contains(&word.as_str())
    }

    /// Two or three hyphens are a dash; more are a line.
    fn hyphens(&self, at: usize) -> (Written, usize) {
        let length = self.run(at, '-');
        let (before, after) = (self.before, self.at(at + length));
        match (self.manner.dashes, length) {
            (Dashes::Typographic, 2) => (Written::Char('\u{2013}'), 2),
            (Dashes::Typographic, 3) => (Written::Char('\u{2014}'), 3),
            (Dashes::Language, 2) if before.is_ascii_digit() && after.is_ascii_digit() => (Written::Char('\u{2013}'), 2),
            (Dashes::Language, 2 | 3) => {
                let Dash { mark, spaced } = self.manner.dash;
                let joins = |c: char| c.is_alphanumeric() || c == THING;
                // At the beginning of a line it introduces what somebody says, and keeps its space.
                let begins = self.chars[..at].iter().all(|c| c.is_whitespace());
                let written = match spaced {
                    true if joins(before) && joins(after) => Written::Spaced(mark),
                    false if !begins => Written::Tight(mark),
                    _ => Written::Char(mark),
                };
                (written, length)
            }
            _ => (Written::Same, length),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::{Formula, FormulaId};

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
        let texts = |doc: &mut Document| {
            let x = doc.intern("x");
            doc.add_formula(Formula::tex(x, false));
            (x, doc.intern(""))
        };
        let formulas: [fn(crate::document::Text, crate::document::Text) -> Kind; 3] =
            [|_, _| Kind::Math(FormulaId(0)), |text, _| Kind::Code(text), |text, empty| Kind::Image { src: text, alt: empty }];
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
    fn quotations_end_behind_dashes_and_brackets() {
        for (text, expected) in [
            ("\"I--\"", "\u{201C}I\u{2013}\u{201D}"),
            ("\"I---\" he said.", "\u{201C}I\u{2014}\u{201D} he said."),
            ("He said--\"No\"--and went", "He said\u{2013}\u{201C}No\u{201D}\u{2013}and went"),
            (
                "(\"a\") [\"b\"] \"(c)\" \"[d]\".",
                "(\u{201C}a\u{201D}) [\u{201C}b\u{201D}] \u{201C}(c)\u{201D} \u{201C}[d]\u{201D}.",
            ),
            (
                "\"'Tis 'em,\" he said, \"the '90s.\"",
                "\u{201C}\u{2019}Tis \u{2019}em,\u{201D} he said, \u{201C}the \u{2019}90s.\u{201D}",
            ),
            ("\"'High' water,\"", "\u{201C}\u{2018}High\u{2019} water,\u{201D}"),
            ("a . . . b....", "a \u{2026} b\u{2026}."),
        ] {
            case("en", text, expected);
        }
        // At both ends of emphasis, within and without.
        for (before, inner, after, expected) in [
            ("\"", "word", "\" end", "\u{201C}word\u{201D} end"),
            ("a ", "\"word\"", " end", "a \u{201C}word\u{201D} end"),
            ("a--", "\"word--\"", "", "a\u{2013}\u{201C}word\u{2013}\u{201D}"),
            ("\"I ", "never", "--\"", "\u{201C}I never\u{2013}\u{201D}"),
        ] {
            let mut doc = Document::new();
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, before);
            let emphasis = doc.append(paragraph, Kind::Emphasis);
            doc.append_text(emphasis, inner);
            if !after.is_empty() {
                doc.append_text(paragraph, after);
            }
            set(&mut doc, Quotes::Typographic, Dashes::Typographic);
            assert_eq!(doc.plain_text(doc.root()), expected);
        }
    }

    #[test]
    fn dashes_follow_the_language() {
        for (language, text, expected) in [
            ("en", "the tide -- it rose--and fell --- twice", "the tide\u{2014}it rose\u{2014}and fell\u{2014}twice"),
            ("en", "pages 12--14, -- and ---- a line", "pages 12\u{2013}14,\u{2014}and ---- a line"),
            ("de", "die Flut -- sie stieg--und fiel", "die Flut \u{2013} sie stieg \u{2013} und fiel"),
            (
                "ru",
                "\u{43F}\u{440}\u{438}\u{43B}\u{438}\u{432}--\u{43E}\u{43D}",
                "\u{43F}\u{440}\u{438}\u{43B}\u{438}\u{432} \u{2014} \u{43E}\u{43D}",
            ),
            ("en", "-- Who is there?", "\u{2014} Who is there?"),
            ("en", "\"I--\" she said", "\u{201C}I\u{2014}\u{201D} she said"),
        ] {
            let mut doc = Document::new();
            doc.metadata.language = Some(language.to_owned());
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, text);
            set(&mut doc, Quotes::Typographic, Dashes::Language);
            assert_eq!(doc.plain_text(doc.root()), expected, "{text}");
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
