//! Fields: what their instructions mean, as they are read and as they are written (ECMA-376, part 1, section 17.16.2).

use std::fmt::{self, Display, Formatter};

/// What a field shows.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(in crate::formats::word) enum FieldCode {
    /// `HYPERLINK`
    Link,
    /// `REF`: the text of a bookmark.
    Reference,
    /// `PAGEREF`: the page of a bookmark.
    PageOf,
    /// `NOTEREF`: the number of a note.
    NoteOf,
    /// `PAGE`
    Page,
    /// `NUMPAGES`
    Pages,
    /// `SECTIONPAGES`
    PagesOfSection,
    /// `STYLEREF`: the last paragraph with a style.
    LastOfStyle,
    /// `TOC`: a list of contents.
    Contents,
    /// `SEQ`: the next number of a sequence.
    Sequence,
    /// `AUTONUM`, `AUTONUMLGL` and `AUTONUMOUT`: the number of a paragraph.
    ParagraphNumber,
    /// `SYMBOL`: a character of a font.
    Symbol,
    /// `MACROBUTTON` and `GOTOBUTTON`: words to click on.
    Button,
    /// `EQ` and `ADVANCE`: text at a place that only the program computes.
    Placed,
    /// Any other; its name is not kept.
    Other,
}

/// The names of fields. Of several that mean the same the first one is written.
const NAMES: [(&str, FieldCode); 18] = [
    ("HYPERLINK", FieldCode::Link),
    ("REF", FieldCode::Reference),
    ("PAGEREF", FieldCode::PageOf),
    ("NOTEREF", FieldCode::NoteOf),
    ("PAGE", FieldCode::Page),
    ("NUMPAGES", FieldCode::Pages),
    ("SECTIONPAGES", FieldCode::PagesOfSection),
    ("STYLEREF", FieldCode::LastOfStyle),
    ("TOC", FieldCode::Contents),
    ("SEQ", FieldCode::Sequence),
    ("AUTONUM", FieldCode::ParagraphNumber),
    ("AUTONUMLGL", FieldCode::ParagraphNumber),
    ("AUTONUMOUT", FieldCode::ParagraphNumber),
    ("SYMBOL", FieldCode::Symbol),
    ("MACROBUTTON", FieldCode::Button),
    ("GOTOBUTTON", FieldCode::Button),
    ("EQ", FieldCode::Placed),
    ("ADVANCE", FieldCode::Placed),
];

/// One word of an instruction.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(in crate::formats::word) struct Word {
    pub(in crate::formats::word) text: String,
    /// Whether it stands between quotation marks: such a word is no switch.
    pub(in crate::formats::word) quoted: bool,
}

impl Word {
    fn is_switch(&self) -> bool {
        !self.quoted && self.text.starts_with('\\')
    }
}

/// The instruction of a field.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(in crate::formats::word) struct Instruction {
    pub(in crate::formats::word) code: FieldCode,
    pub(in crate::formats::word) arguments: Vec<Word>,
}

impl Instruction {
    /// An instruction without arguments.
    pub(in crate::formats::word) const fn new(code: FieldCode) -> Self {
        Self { code, arguments: Vec::new() }
    }

    /// With one argument more.
    pub(in crate::formats::word) fn argument(mut self, text: &str) -> Self {
        self.arguments.push(Word { text: text.to_owned(), quoted: false });
        self
    }

    /// With one argument more that stands between quotation marks.
    pub(in crate::formats::word) fn quoted(mut self, text: &str) -> Self {
        self.arguments.push(Word { text: text.to_owned(), quoted: true });
        self
    }

    /// Reads an instruction. One without any word is none.
    pub(in crate::formats::word) fn read(text: &str) -> Option<Self> {
        let mut words = words(text);
        if words.is_empty() {
            return None;
        }
        let arguments = words.split_off(1);
        let name = words.first().map_or("", |word| word.text.as_str());
        let code = NAMES.iter().find(|(known, _)| known.eq_ignore_ascii_case(name));
        Some(Self { code: code.map_or(FieldCode::Other, |(_, code)| *code), arguments })
    }

    /// Whether a switch is set, such as `\h`.
    pub(in crate::formats::word) fn has(&self, switch: &str) -> bool {
        self.arguments.iter().any(|word| !word.quoted && word.text.eq_ignore_ascii_case(switch))
    }

    /// The first argument that is no switch.
    pub(in crate::formats::word) fn target(&self) -> Option<&str> {
        self.arguments.iter().find(|word| !word.text.starts_with('\\')).map(|word| word.text.as_str())
    }

    /// The argument of a switch.
    pub(in crate::formats::word) fn of_switch(&self, switch: &str) -> Option<&str> {
        let mut behind = self.arguments.iter().skip_while(|word| !word.text.eq_ignore_ascii_case(switch));
        behind.nth(1).map(|word| word.text.as_str())
    }

    /// What a `HYPERLINK` leads to (section 17.16.5.25).
    pub(in crate::formats::word) fn hyperlink(&self) -> Hyperlink {
        let mut link = Hyperlink::default();
        let mut words = self.arguments.iter();
        while let Some(word) = words.next() {
            if !word.is_switch() {
                if link.address.is_empty() {
                    link.address.clone_from(&word.text);
                }
                continue;
            }
            match word.text.to_ascii_lowercase().as_str() {
                "\\l" => link.place = words.next().map(|word| word.text.clone()),
                "\\o" => link.title = words.next().map(|word| word.text.clone()),
                "\\t" => drop(words.next()),
                _ => {}
            }
        }
        link
    }
}

impl Display for Instruction {
    fn fmt(&self, out: &mut Formatter<'_>) -> fmt::Result {
        let name = NAMES.iter().find(|(_, code)| *code == self.code);
        out.write_str(name.map_or("", |(name, _)| name))?;
        for word in &self.arguments {
            if word.quoted {
                write!(out, " \"{}\"", word.text.replace('\\', "\\\\").replace('"', "\\\""))?;
            } else {
                write!(out, " {}", word.text)?;
            }
        }
        Ok(())
    }
}

/// What a `HYPERLINK` leads to.
#[derive(Debug, Default, PartialEq, Eq)]
pub(in crate::formats::word) struct Hyperlink {
    pub(in crate::formats::word) address: String,
    pub(in crate::formats::word) place: Option<String>,
    pub(in crate::formats::word) title: Option<String>,
}

const fn is_mark(c: char) -> bool {
    matches!(c, '"' | '\u{201C}' | '\u{201D}')
}

/// The words of an instruction; those with spaces stand between quotation marks.
fn words(instruction: &str) -> Vec<Word> {
    let mut words = Vec::new();
    let mut letters = instruction.chars().peekable();
    while let Some(&c) = letters.peek() {
        if c.is_whitespace() {
            letters.next();
            continue;
        }
        let quoted = is_mark(c);
        if quoted {
            letters.next();
        }
        let mut text = String::new();
        while let Some(c) = letters.next() {
            let ends = if quoted { is_mark(c) } else { c.is_whitespace() };
            if ends {
                break;
            }
            // Within quotation marks a backslash stands before what would mean something.
            match letters.peek() {
                Some(&next) if quoted && c == '\\' && matches!(next, '\\' | '"') => {
                    text.push(next);
                    letters.next();
                }
                _ => text.push(c),
            }
            if !quoted && letters.peek() == Some(&'"') {
                break;
            }
        }
        words.push(Word { text, quoted });
    }
    words
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn instructions_are_split_into_words() {
        let link = |text: &str| Instruction::read(text).map(|field| field.hyperlink()).unwrap_or_default();
        let found = link(" HYPERLINK \"C:\\\\tides\\\\a b.docx\" \\l \"spring\" \\o \"A tip\" \\* MERGEFORMAT ");
        assert_eq!((found.address.as_str(), found.place.as_deref()), ("C:\\tides\\a b.docx", Some("spring")));
        assert_eq!(found.title.as_deref(), Some("A tip"));
        let found = link("HYPERLINK http://obblet.example/");
        assert_eq!((found.address.as_str(), found.place), ("http://obblet.example/", None));
    }

    proptest! {
        #[test]
        fn what_is_written_is_read_again(
            code in 0..NAMES.len(),
            words in prop::collection::vec(("[!-~ é“]{0,12}", any::<bool>()), 0..6),
        ) {
            let mut field = Instruction::new(NAMES[code].1);
            for (text, quoted) in words {
                let is_word = !text.is_empty() && !text.contains(|c: char| c.is_whitespace() || is_mark(c));
                // Another quotation mark ends a word, and there is no way to write it.
                field = if quoted || !is_word { field.quoted(&text.replace('“', "")) } else { field.argument(&text) };
            }
            prop_assert_eq!(Instruction::read(&field.to_string()), Some(field));
        }
    }
}
