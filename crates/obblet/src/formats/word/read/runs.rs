//! Runs of text, and the elements that their properties mean.

use super::super::dates::is_datetime;
use super::super::model::properties::{CharacterProperties, Colour, Flag, Name, Raised};
use super::super::model::styles::Role;
use super::super::xml::{Element, Event, Xml};
use super::open::{ParagraphMarks, RevisionKind, Run, Wrap};
use super::{Reader, symbols};
use crate::document::Underline;
use crate::document::{CrossReference, Kind, NodeId, TextLevel};
use crate::refine::revisions::Revisions;
use smallvec::SmallVec;

/// What is known of a font.
#[derive(Clone, Copy, Debug)]
pub(super) struct Face {
    symbols: Option<&'static symbols::Table>,
    monospaced: bool,
}

/// What becomes of text.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Fate {
    Shown,
    Hidden,
    Omitted,
    Revised,
    Instruction,
}

impl Reader<'_, '_> {
    /// A run begins, or its properties are known.
    pub(super) fn begin_run(&mut self, direct: CharacterProperties) {
        let base = self.context().paragraph.as_ref().map_or(self.model.styles.characters, |paragraph| paragraph.base);
        let mut whole = base;
        if let Some(style) = self.character_style(direct.style) {
            whole.combine_with(&style.characters);
        }
        whole.override_with(&direct);
        let symbols = whole.font.and_then(|font| self.face(font).symbols);
        self.run = Run { direct, whole, wanted: None, symbols };
    }

    /// What is known of a font.
    fn face(&mut self, font: Name) -> Face {
        while self.looks.fonts.len() <= usize::from(font) {
            let name = self.model.names.name(self.looks.fonts.len() as Name);
            self.looks.fonts.push(Face { symbols: symbols::table(name), monospaced: is_monospaced(name) });
        }
        self.looks.fonts[usize::from(font)]
    }

    pub(super) fn end_run(&mut self) {
        self.run.wanted = None;
    }

    /// Reads `t` or `delText`, which was opened last, to its end.
    pub(super) fn text(&mut self, xml: &mut Xml<'_>) {
        let mut depth = 1_usize;
        while depth > 0 {
            match xml.next() {
                Some(Event::Text(text)) => self.characters(&text),
                Some(Event::Open(_)) => depth += 1,
                Some(Event::Close) => depth -= 1,
                None => return,
            }
        }
    }

    fn fate(&self) -> Fate {
        if self.fields.in_instruction > 0 {
            return Fate::Instruction;
        }
        if self.is_omitting() {
            return Fate::Omitted;
        }
        if !self.wraps.is_empty() {
            let gone = match self.options.revisions {
                Revisions::Auto | Revisions::Recorded | Revisions::Accept => Some(RevisionKind::Deleted),
                Revisions::Reject => Some(RevisionKind::Inserted),
                Revisions::Keep => None,
            };
            if gone.is_some_and(|gone| self.wraps.iter().any(|wrap| matches!(wrap, Wrap::Revision(kind, _) if *kind == gone))) {
                return Fate::Revised;
            }
        }
        if self.run.whole.flags.is(Flag::Hidden) && !self.options.settings.hidden {
            return Fate::Hidden;
        }
        Fate::Shown
    }

    /// Whether what comes now is to be seen.
    pub(super) fn is_shown(&self) -> bool {
        self.fate() == Fate::Shown
    }

    /// Adds text to the paragraph.
    pub(super) fn characters(&mut self, text: &str) {
        if text.is_empty() {
            return;
        }
        let fate = self.fate();
        if fate != Fate::Shown {
            return self.leave_out(text, fate);
        }
        let private = || !text.is_ascii() && text.chars().any(|c| ('\u{F000}'..='\u{F0FF}').contains(&c));
        if self.run.symbols.is_some() || private() {
            let text = self.with_symbols(text);
            return self.show(&text);
        }
        self.show(text);
    }

    fn leave_out(&mut self, text: &str, fate: Fate) {
        self.ensure_paragraph();
        let offset = self.place.paragraph;
        match fate {
            Fate::Instruction => return self.field_instruction(text),
            // A page number that is not meant for the web.
            Fate::Hidden if self.run.whole.flags.is(Flag::WebHidden) => {}
            Fate::Hidden => self.diagnostics.hidden.add(offset, text),
            Fate::Omitted => self.diagnostics.contents.add(offset, text),
            Fate::Revised => self.diagnostics.revised.add(offset, text),
            Fate::Shown => {}
        }
        if let Some(paragraph) = &mut self.context_mut().paragraph {
            paragraph.marks.insert(ParagraphMarks::OMITS);
        }
    }

    fn show(&mut self, text: &str) {
        if self.run.whole.flags.is(Flag::WebHidden)
            && text.trim().bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'.')
        {
            // The number of a page in a list of contents.
            self.diagnostics.page_numbers += 1;
            return;
        }
        let Some(paragraph) = &self.context().paragraph else { return };
        if paragraph.role == Role::Code {
            let language = self.language_for(text);
            self.words(text, language);
        } else if text.is_ascii() || super::languages::script(text).is_none() {
            self.text_of_language(text, true);
        } else {
            // A word of another script is in another language; the letters beside it are in whichever the text is.
            for segment in super::languages::segments(text) {
                self.text_of_language(segment, super::languages::script(segment).is_some());
            }
        }
    }

    /// Adds a piece of a line, and says its language unless others around it do.
    fn text_of_language(&mut self, text: &str, says: bool) {
        // Space at the edges of a run belongs to neither side, whatever is bold there; at the edges of a paragraph it is nothing.
        let words = text.trim_matches(' ');
        if let Some(paragraph) = &mut self.context_mut().paragraph {
            paragraph.space |= text.starts_with(' ');
        }
        if words.is_empty() {
            return;
        }
        let language = self.language_for(words).filter(|_| says || super::languages::is_neutral(words));
        self.words(words, language);
        if let Some(paragraph) = &mut self.context_mut().paragraph {
            paragraph.space = text.ends_with(' ');
        }
    }

    /// Adds words to the paragraph, in a language that is not that of the document.
    fn words(&mut self, words: &str, language: Option<Name>) {
        if self.reviews.is_open() {
            let paragraph = self.context().paragraph.as_ref();
            let space =
                paragraph.is_none_or(|paragraph| paragraph.space || self.doc.node(paragraph.node).first_child().is_none());
            self.reviews.add_words(words, space);
        }
        let parent = self.parent_for(language);
        let words = self.doc.intern(words);
        self.doc.append_joined(parent, words, self.place.paragraph);
    }

    fn with_symbols(&mut self, text: &str) -> String {
        let table = self.run.symbols;
        let mut out = String::with_capacity(text.len());
        for c in text.chars() {
            let code = c as u32;
            let byte = if (0xF020..=0xF0FF).contains(&code) {
                Some((code - 0xF000) as u8)
            } else if table.is_some_and(|table| table.remaps) && (0x20..=0xFF).contains(&code) {
                Some(code as u8)
            } else {
                None
            };
            match byte {
                None => out.push(c),
                Some(byte) => match table.unwrap_or(&symbols::SYMBOL).get(byte) {
                    Some(found) => out.push(found),
                    None => {
                        self.diagnostics.symbols.add(self.place.paragraph, &format!("{code:04X}"));
                        out.push(c);
                    }
                },
            }
        }
        out
    }

    /// `sym`: a character of a font by its code.
    pub(super) fn symbol(&mut self, element: &Element<'_>) {
        self.ensure_paragraph();
        let Some(code) = element.get(b"char").and_then(|code| u32::from_str_radix(&code, 16).ok()) else { return };
        let font = element.get(b"font").unwrap_or_default();
        let byte = if (0xF020..=0xF0FF).contains(&code) { code - 0xF000 } else { code };
        let found = u8::try_from(byte).ok().and_then(|byte| symbols::table(&font).and_then(|table| table.get(byte)));
        let plain = || char::from_u32(code).filter(|_| !(0xE000..=0xF8FF).contains(&code));
        match found.or_else(plain) {
            Some(c) => {
                let mut buffer = [0; 4];
                let before = self.run.symbols.take();
                self.characters(c.encode_utf8(&mut buffer));
                self.run.symbols = before;
            }
            None => self.diagnostics.symbols.add(self.place.paragraph, &format!("{font} {code:04X}")),
        }
    }

    pub(super) fn tab(&mut self) {
        self.ensure_paragraph();
        if let Some(paragraph) = &mut self.context_mut().paragraph {
            paragraph.tabs = paragraph.tabs.saturating_add(1);
        }
        let before = self.run.symbols.take();
        self.characters("\t");
        self.run.symbols = before;
    }

    pub(super) fn line_break(&mut self, kind: Option<&str>) {
        self.ensure_paragraph();
        if !self.is_shown() {
            return;
        }
        if matches!(kind, Some("page" | "column")) {
            self.looks.page_break = kind == Some("page");
            if !(self.looks.page_break && self.options.fidelity.is_exact()) {
                self.sections.breaks += 1;
            }
            // What stood on both sides stays apart.
            self.characters(" ");
            return;
        }
        if let Some(paragraph) = &mut self.context_mut().paragraph {
            paragraph.space = false;
        }
        let parent = self.inline_parent();
        self.doc.append_at(parent, Kind::LineBreak, self.place.paragraph);
    }

    /// The node that inline content goes into now.
    pub(super) fn inline_parent(&mut self) -> NodeId {
        self.parent_for(None)
    }

    /// Something within the paragraph holds what comes.
    pub(super) fn set_inline_floor(&mut self, floor: NodeId) {
        if let Some(paragraph) = &mut self.context_mut().paragraph {
            paragraph.floor = floor;
            paragraph.inline.clear();
        }
    }

    fn parent_for(&mut self, language: Option<Name>) -> NodeId {
        let mut wanted = self.wanted();
        if let Some(language) = language {
            wanted.insert(0, Wrap::Language(language));
        }
        let offset = self.place.paragraph;
        let Some(paragraph) = &mut self.context_mut().paragraph else { return self.context().container };
        // What is open and still wanted stays open, from the outside in; the rest is opened within.
        let kept = paragraph.inline.iter().take_while(|(wrap, _)| wanted.contains(wrap)).count();
        paragraph.inline.truncate(kept);
        let missing: SmallVec<[Wrap; 6]> =
            wanted.iter().filter(|wrap| !paragraph.inline.iter().any(|(known, _)| known == *wrap)).copied().collect();
        // A link can't begin within what is open in another: it is outermost.
        if missing.iter().any(|wrap| matches!(wrap, Wrap::Link(_) | Wrap::Revision(..))) {
            paragraph.inline.clear();
        }
        let open: SmallVec<[Wrap; 6]> = paragraph.inline.iter().map(|(wrap, _)| *wrap).collect();
        let mut parent = paragraph.inline.last().map_or(paragraph.floor, |(_, node)| *node);
        if std::mem::take(&mut paragraph.space) && self.doc.node(parent).first_child().is_some() {
            let space = self.doc.intern(" ");
            self.doc.append_joined(parent, space, offset);
        }
        for wrap in wanted {
            if open.contains(&wrap) {
                continue;
            }
            parent = self.open_wrap(wrap, parent, offset);
            if let Some(paragraph) = &mut self.context_mut().paragraph {
                paragraph.inline.push((wrap, parent));
            }
        }
        parent
    }

    fn open_wrap(&mut self, wrap: Wrap, parent: NodeId, offset: u32) -> NodeId {
        let kind = match wrap {
            Wrap::Link(link) => {
                let Some(link) = self.links.all.get_mut(link as usize) else { return parent };
                link.is_shown = true;
                let href = self.doc.intern(&link.address);
                let title = link.title.clone();
                let shows = link.shows;
                let node = self.doc.append_at(parent, Kind::Link { href }, offset);
                if let Some(shows) = shows {
                    self.doc.references.set(node, CrossReference { shows });
                }
                if !title.is_empty() {
                    let title = self.doc.intern(&title);
                    self.doc.attributes_mut(node).title = Some(title);
                }
                return node;
            }
            Wrap::Direction(way) | Wrap::Override(way) => {
                let kind = if matches!(wrap, Wrap::Override(_)) { Kind::TextLevel(TextLevel::Override) } else { Kind::Span };
                let node = self.doc.append_at(parent, kind, offset);
                self.doc.attributes_mut(node).direction = Some(way);
                return node;
            }
            Wrap::Language(name) => {
                let node = self.doc.append_at(parent, Kind::Span, offset);
                let tag = self.model.names.name(name).to_owned();
                let tag = self.doc.intern(&tag);
                self.doc.attributes_mut(node).language = Some(tag);
                self.languages.spans.push((node, name));
                return node;
            }
            Wrap::Classes(set) => {
                let node = self.doc.append_at(parent, Kind::Span, offset);
                self.apply_classes(node, set);
                return node;
            }
            Wrap::Revision(kind, tracked) => {
                let kind = if kind == RevisionKind::Inserted { Kind::Insertion } else { Kind::Deletion };
                let node = self.doc.append_at(parent, kind, offset);
                if let Some(revision) = self.reviews.changes.get(tracked as usize) {
                    self.doc.revisions.set(node, revision.clone());
                    if is_datetime(&revision.date) {
                        let (name, date) = (self.doc.intern("datetime"), self.doc.intern(&revision.date));
                        self.doc.attributes_mut(node).other.push((name, date));
                    }
                }
                return node;
            }
            Wrap::Strong => Kind::Strong,
            Wrap::Emphasis => Kind::Emphasis,
            Wrap::Underline => Kind::Underline,
            Wrap::Strike => Kind::Strikethrough,
            Wrap::Highlight => Kind::Highlight,
            Wrap::Raised(Raised::Above) => Kind::Superscript,
            Wrap::Raised(_) => Kind::Subscript,
            Wrap::Code => {
                let node = self.doc.append_at(parent, Kind::TextLevel(TextLevel::Code), offset);
                self.unfinished.codes.push(node);
                return node;
            }
            Wrap::Element(level) => Kind::TextLevel(level),
            Wrap::Nothing => Kind::Span,
        };
        self.doc.append_at(parent, kind, offset)
    }

    /// What the run wants around its text, outermost first.
    fn wanted(&mut self) -> SmallVec<[Wrap; 6]> {
        let mut wanted = SmallVec::new();
        if !self.wraps.is_empty() {
            if self.options.revisions == Revisions::Keep {
                wanted.extend(self.wraps.iter().rev().find(|wrap| matches!(wrap, Wrap::Revision(..))).copied());
            }
            wanted.extend(self.link());
            wanted.extend(self.wraps.iter().filter(|wrap| matches!(wrap, Wrap::Direction(_) | Wrap::Override(_))).copied());
        } else if !self.fields.open.is_empty() {
            wanted.extend(self.link());
        }
        let in_link = wanted.iter().any(|wrap| matches!(wrap, Wrap::Link(_)));
        if self.run.wanted.is_none() {
            self.run.wanted = Some(self.meaning(in_link));
        }
        wanted.extend(self.run.wanted.iter().flatten().copied());
        wanted
    }

    /// The link that is open: the innermost.
    fn link(&self) -> Option<Wrap> {
        let around = self.wraps.iter().rev().find(|wrap| matches!(wrap, Wrap::Link(_))).copied();
        around.or_else(|| {
            let mut links = self.fields.open.iter().filter_map(|field| field.link);
            let innermost = links.clone().next_back()?;
            // A number of a page within the link to that page is part of it.
            let target = |link: u32| self.links.all.get(link as usize).map(|link| link.address.as_str());
            links.find(|&link| target(link) == target(innermost)).map(Wrap::Link)
        })
    }

    /// What the properties of the run mean.
    fn meaning(&mut self, in_link: bool) -> SmallVec<[Wrap; 6]> {
        let mut wanted = SmallVec::new();
        let (direct, whole) = (self.run.direct, self.run.whole);
        let Some(paragraph) = self.contexts.last_mut().unwrap_or(&mut self.outside).paragraph.as_mut() else { return wanted };
        let (base, heading) = (paragraph.base, paragraph.heading.is_some());
        let is_complex = whole.flags.is(Flag::RightToLeft) || whole.flags.is(Flag::Complex);
        let seen = |plain: Flag, complex: Flag| {
            let flag = if is_complex { complex } else { plain };
            let by_hand = direct.flags.says(flag) && direct.flags.is(flag);
            whole.flags.is(flag) && (by_hand || !base.flags.is(flag))
        };
        let bold = seen(Flag::Bold, Flag::BoldComplex);
        let italic = seen(Flag::Italic, Flag::ItalicComplex) || (whole.is_marked() && !base.is_marked());
        paragraph.size = paragraph.size.max(whole.size);
        if bold || whole.flags.is(Flag::Bold) {
            paragraph.marks.insert(ParagraphMarks::BOLD);
        }
        // A heading is bold all the same.
        if bold && !heading {
            wanted.push(Wrap::Strong);
        }
        let element = self.character_style(direct.style).and_then(|style| element_of_style(&style.name));
        // What its style looks like is what the element looks like.
        let italic = italic && (element.is_none() || direct.flags.says(Flag::Italic));
        if italic && !(heading && base.flags.is(Flag::Italic)) {
            wanted.push(Wrap::Emphasis);
        }
        let underlined = whole.underline.is_some_and(|underline| underline != Underline::None);
        if underlined && !in_link && !heading && base.underline.is_none_or(|underline| underline == Underline::None) {
            wanted.push(Wrap::Underline);
        }
        if whole.flags.is(Flag::Strike) || whole.flags.is(Flag::DoubleStrike) {
            wanted.push(Wrap::Strike);
        }
        if matches!(whole.highlight, Some(Colour::Rgb(_))) && !heading {
            wanted.push(Wrap::Highlight);
        }
        if let Some(raised @ (Raised::Above | Raised::Below)) = whole.raised {
            wanted.push(Wrap::Raised(raised));
        }
        wanted.extend(element.filter(|_| !heading).map(Wrap::Element));
        let code = whole.font.is_some_and(|font| Some(font) != base.font && self.face(font).monospaced)
            || self.character_style(direct.style).is_some_and(|style| is_code_style(&style.name));
        if code && !heading && element.is_none() {
            wanted.push(Wrap::Code);
        }
        // Innermost: what elements look like of their own is not what the document looks like.
        let classes = if self.options.fidelity.keeps_names() { self.style_run() } else { self.target_of_run() };
        wanted.extend(classes.map(Wrap::Classes));
        if let Some(font) = whole.font {
            self.diagnostics.font(font);
        }
        wanted
    }

    /// The language that a text needs to be told apart by: not that of the document. Digits and signs are in the language of
    /// what they stand behind.
    fn language_for(&mut self, text: &str) -> Option<Name> {
        if super::languages::is_neutral(text) { self.open_language() } else { self.language_of(text) }
    }

    fn open_language(&self) -> Option<Name> {
        let inline = &self.context().paragraph.as_ref()?.inline;
        inline.iter().find_map(|(wrap, _)| if let Wrap::Language(language) = wrap { Some(*language) } else { None })
    }

    fn language_of(&mut self, text: &str) -> Option<Name> {
        let whole = &self.run.whole;
        let is_complex = whole.flags.is(Flag::RightToLeft) || whole.flags.is(Flag::Complex);
        let (said, tag) = if text.is_ascii() {
            (if is_complex { whole.language_complex } else { whole.language }, None)
        } else {
            match super::languages::script(text) {
                Some(script) if script.is_east() => (whole.language_east, Some(script)),
                Some(script) => (whole.language_complex.filter(|_| is_complex).or(whole.language), Some(script)),
                None => (if is_complex { whole.language_complex } else { whole.language }, None),
            }
        };
        let name = match tag {
            Some(script) if !said.is_some_and(|said| script.fits(self.model.names.name(said))) => {
                self.model.names.number(script.language())
            }
            _ => said?,
        };
        if self.languages.counts.len() <= usize::from(name) {
            self.languages.counts.resize(usize::from(name) + 1, 0);
        }
        self.languages.counts[usize::from(name)] += text.len();
        let main = self.languages.main?;
        (name != main && !crate::language_tag::is_same(self.model.names.name(name), self.model.names.name(main))).then_some(name)
    }
}

/// The element that a built-in style stands for, by its name.
fn element_of_style(name: &str) -> Option<TextLevel> {
    const STYLES: [(&str, TextLevel); 6] = [
        ("html acronym", TextLevel::Abbreviation),
        ("html cite", TextLevel::Cite),
        ("html definition", TextLevel::Definition),
        ("html keyboard", TextLevel::Keyboard),
        ("html sample", TextLevel::Sample),
        ("html variable", TextLevel::Variable),
    ];
    STYLES.iter().find(|(known, _)| known.eq_ignore_ascii_case(name)).map(|(_, level)| *level)
}

/// Names that people give to styles of code in a line.
fn is_code_style(name: &str) -> bool {
    matches!(
        name.to_ascii_lowercase().as_str(),
        "html code" | "html typewriter" | "source text" | "verbatim char" | "code" | "code char" | "inline code" | "teletype"
    )
}

/// Whether a font has letters of one width, as its name says.
fn is_monospaced(font: &str) -> bool {
    const FACES: [&str; 16] = [
        "courier",
        "consolas",
        "mono",
        "menlo",
        "monaco",
        "lucida console",
        "andale",
        "inconsolata",
        "fixed",
        "terminal",
        "letter gothic",
        "source code",
        "cascadia",
        "fira code",
        "ocr",
        "typewriter",
    ];
    let name = font.to_ascii_lowercase();
    FACES.iter().any(|face| name.contains(face)) && !name.contains("monotype")
}
