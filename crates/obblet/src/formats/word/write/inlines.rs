//! Text: runs with their properties, and what stands among them.

use super::super::model::annotations::{Annotation, takes_out};
use super::super::model::fields::{FieldCode, Instruction};
use super::super::model::print;
use super::super::model::properties::{Colour, Flag, Raised};
use super::super::settings::TrackedChanges;
use super::Writer;
use super::run::{Change, Paragraph, Run, Script};
use super::{bookmarks, office_math};
use crate::document::{Formula, Kind, Markup, NodeId, Shows, Step, Text, TextLevel, Underline};
use crate::language_tag::is_well_formed;
use crate::quotation_marks;

/// Word processors refuse documents in which the tip of a link has more characters.
const LONGEST_TIP: usize = 260;

/// What browsers take for white space.
const fn is_white(c: char) -> bool {
    matches!(c, ' ' | '\t' | '\n' | '\r' | '\u{C}')
}

/// Whether text has no white space but single spaces, and does not begin with one behind another.
fn is_collapsed(text: &str, behind_space: bool) -> bool {
    let (mut collapsed, mut before) = (true, behind_space);
    for &byte in text.as_bytes() {
        let space = byte == b' ';
        collapsed &= !((space & before) | matches!(byte, b'\t' | b'\n' | b'\r' | 0xC));
        before = space;
    }
    collapsed
}

impl Writer<'_> {
    pub(super) fn run_now(&self) -> Run {
        self.runs.last().copied().unwrap_or_default()
    }

    /// Says the language of a run.
    pub(super) fn set_language(&mut self, run: &mut Run, language: Option<Text>) {
        let Some(language) = language.map(|language| self.doc.text(language)).filter(|language| is_well_formed(language)) else {
            return;
        };
        let number = self.names.number(language);
        let properties = &mut run.properties;
        match Script::of(language) {
            Script::Plain => properties.language = Some(number),
            Script::EastAsian => properties.language_east = Some(number),
            Script::Complex => properties.language_complex = Some(number),
        }
    }

    /// Comes to a node within a line.
    pub(super) fn enter_inline(&mut self, id: NodeId, kind: Kind) -> bool {
        let is_shown = match kind {
            Kind::Text(text) => !self.doc.text(text).chars().all(is_white),
            Kind::SoftBreak => false,
            _ => true,
        };
        if self.line.paragraph == Paragraph::Closed {
            if !is_shown {
                return false;
            }
            let holder = self.doc.node(id).parent().unwrap_or(id);
            let holder = if self.doc.kind(holder).is_inline() { id } else { holder };
            self.begin_paragraph(holder, None);
        }
        match kind {
            Kind::Text(text) => self.commented_text(id, text),
            Kind::SoftBreak => self.space(),
            Kind::LineBreak => self.line_break(),
            Kind::Code(text) => {
                let run = self.with_style("HTMLCode");
                self.emit(self.doc.text(text), &run);
            }
            Kind::Image { src, alt } => self.image(id, src, alt),
            Kind::Math(formula) => self.formula(id, self.doc.formula(formula)),
            Kind::NoteReference(note) => {
                if let Some(note) = self.doc.notes.get(note.0 as usize) {
                    self.note_reference(note.body);
                }
            }
            Kind::Raw { raw, markup } => {
                self.no_syntax(if markup == Markup::Html { "raw HTML" } else { "raw markup" }, id);
                let run = self.with_style("HTMLCode");
                self.emit(self.doc.text(raw), &run);
            }
            Kind::Anchor => {
                self.bookmark_here(id);
                self.runs.push(self.run_now());
            }
            Kind::Link { href } => {
                self.bookmark_here(id);
                self.begin_link(id, href);
            }
            Kind::TextLevel(TextLevel::Ruby) if self.is_plain_ruby(id) => {
                self.bookmark_here(id);
                self.ruby(id);
                return false;
            }
            Kind::Span if self.doc.fields.get(id).is_some() => {
                self.computed(id);
                return false;
            }
            _ => {
                self.bookmark_here(id);
                let run = self.formatted(id, kind);
                if kind == Kind::TextLevel(TextLevel::Quotation) {
                    let marks = self.quotation_marks();
                    self.emit(marks.0, &run);
                }
                self.runs.push(run);
            }
        }
        !kind.is_leaf()
    }

    /// A field that word processors compute anew, with what it shows.
    fn computed(&mut self, id: NodeId) {
        let (run, doc) = (self.formatted(id, Kind::Span), self.doc);
        let Some(instruction) = doc.fields.get(id) else { return };
        self.part.out.open("w:fldSimple").attribute("w:instr", &format!(" {instruction} "));
        self.emit(&doc.plain_text(id), &run);
        self.part.out.close();
    }

    pub(super) fn leave_inline(&mut self, id: NodeId, kind: Kind) {
        if self.doc.fields.get(id).is_some() {
            return;
        }
        if kind.is_leaf() || (kind == Kind::TextLevel(TextLevel::Ruby) && self.is_plain_ruby(id)) {
            return;
        }
        if kind == Kind::TextLevel(TextLevel::Quotation) {
            let (marks, run) = (self.quotation_marks(), self.run_now());
            self.emit(marks.1, &run);
        }
        if self.runs.len() > 1 {
            self.runs.pop();
        }
        if let Kind::Link { .. } = kind {
            self.links = self.links.saturating_sub(1);
            if self.links == 0 && (self.part.out.is_open("w:hyperlink") || self.part.out.is_open("w:fldSimple")) {
                self.part.out.close();
            }
        }
    }

    /// The marks around a quotation in the language of the document.
    fn quotation_marks(&self) -> (&'static str, &'static str) {
        quotation_marks::of(self.doc.metadata.language.as_deref().unwrap_or_default()).double
    }

    fn with_style(&mut self, style: &str) -> Run {
        let mut run = self.run_now();
        run.properties.style = Some(self.style(style));
        run
    }

    /// How the text in a node looks.
    fn formatted(&mut self, id: NodeId, kind: Kind) -> Run {
        let mut run = self.run_now();
        if let Some(style) = style_of(kind) {
            run.properties.style = Some(self.style(style));
        }
        match kind {
            Kind::Strong | Kind::TextLevel(TextLevel::Bold) => run = run.with(Flag::Bold),
            Kind::Emphasis | Kind::TextLevel(TextLevel::Italic) => run = run.with(Flag::Italic),
            Kind::Underline => run.properties.underline = Some(Underline::Solid),
            Kind::Strikethrough => run = run.with(Flag::Strike),
            Kind::Highlight => run.properties.highlight = Some(Colour::Rgb(0x00FF_FF00)),
            Kind::Subscript => run.properties.raised = Some(Raised::Below),
            Kind::Superscript => run.properties.raised = Some(Raised::Above),
            Kind::TextLevel(TextLevel::Small) => {
                (run.properties.size, run.properties.size_complex) = (Some(18), Some(18));
            }
            Kind::Insertion | Kind::Deletion => {
                let is_tracked = self.settings.tracked_changes == TrackedChanges::All || self.doc.revisions.get(id).is_some();
                match kind {
                    _ if is_tracked => run.change = Some(self.change(id, kind == Kind::Deletion)),
                    Kind::Insertion => run.properties.underline = Some(Underline::Solid),
                    _ => run = run.with(Flag::Strike),
                }
            }
            _ => {}
        }
        if self.doc.node(id).has_attributes() {
            let attributes = self.doc.attributes(id);
            self.set_language(&mut run, attributes.language);
            if attributes.direction == Some(crate::document::Direction::RightToLeft) {
                run.properties.flags.set(Flag::RightToLeft, true);
            }
            if let Some(direct) = self.direct(id) {
                run.properties.override_with(&direct.characters);
                run.properties.shade = direct.paragraph.shade.or(run.properties.shade);
            }
            if let Some(style) = self.class_of_text(id) {
                run.properties.style = Some(self.style(&style));
            }
        }
        run
    }

    /// Remembers a tracked change: with the author and the date that the source gives, or without.
    fn change(&mut self, id: NodeId, is_deletion: bool) -> usize {
        let known = self.doc.revisions.get(id);
        let author = known.map(|known| known.author.clone()).filter(|author| !author.is_empty());
        let author = author.or_else(|| self.doc.metadata.authors.first().cloned());
        let is_deletion = known.map_or(is_deletion, |known| takes_out(known.kind));
        let attributes = self.doc.attributes(id);
        let attribute = attributes.other.iter().find(|(name, _)| self.doc.text(*name) == "datetime");
        let date = known.map(|known| known.date.as_str()).or(attribute.map(|(_, date)| self.doc.text(*date)));
        let by = Annotation { author: author.unwrap_or_default(), date: date.unwrap_or_default().to_owned() };
        self.changes.push(Change { is_deletion, by });
        self.changes.len() - 1
    }

    /// Text in which runs of white space are one space.
    pub(super) fn text(&mut self, text: Text) {
        let run = self.run_now();
        let text = self.doc.text(text);
        let mut ends_with_space = self.line.space.is_some() || !self.line.has_text;
        let is_as_it_is = || self.line.label.is_none() && is_collapsed(text, ends_with_space);
        if self.line.paragraph == Paragraph::Preformatted || is_as_it_is() {
            self.emit(text, &run);
            if text.ends_with(' ') && self.line.paragraph != Paragraph::Preformatted {
                self.line.space = self.part.out.last_space();
            }
            return;
        }
        let mut words = String::with_capacity(text.len());
        for c in text.chars() {
            if !is_white(c) {
                words.push(c);
            } else if !ends_with_space {
                words.push(' ');
            }
            ends_with_space = is_white(c);
        }
        let rest = match self.line.label.take() {
            Some(holder) => self.label(holder, &words, &run),
            None => 0,
        };
        self.emit(&words[rest..], &run);
        if words.ends_with(' ') {
            self.line.space = self.part.out.last_space();
        }
    }

    /// The label that a caption begins with, whose number is a field that counts. How many bytes of the text it is.
    fn label(&mut self, holder: NodeId, text: &str, run: &Run) -> usize {
        let (Some(label), Some(bookmark)) = (self.doc.labels.get(holder), self.bookmarks.label(holder)) else { return 0 };
        let Some(rest) = text.strip_prefix(label.name.as_str()) else { return 0 };
        let spaces = rest.len() - rest.trim_start_matches([' ', '\u{A0}']).len();
        let Some(behind) = rest[spaces..].strip_prefix(label.number.as_str()) else { return 0 };
        let before = &text[..label.name.len() + spaces];
        let is_counted = label.number.bytes().all(|byte| byte.is_ascii_digit())
            && !label.name.is_empty()
            && label.name.chars().all(char::is_alphanumeric);
        self.bookmark_start(bookmark);
        self.emit(before, run);
        if is_counted {
            let sequence = Instruction::new(FieldCode::Sequence).argument(&label.name).argument("\\*").argument("ARABIC");
            let out = &mut self.part.out;
            out.open("w:fldSimple").attribute("w:instr", &format!(" {sequence} "));
            self.emit(&label.number, run);
            self.part.out.close();
        } else {
            self.emit(&label.number, run);
        }
        self.bookmark_end(bookmark);
        text.len() - behind.len()
    }

    /// The instruction of a field that shows what a link shows of its target, where it is a reference and shows just that.
    fn reference(&self, id: NodeId, target: NodeId, name: &str) -> Option<Instruction> {
        let to = |code: FieldCode, name: &str| Instruction::new(code).argument(name).argument("\\h");
        let reference = self.doc.references.get(id)?;
        let shown = self.doc.plain_text(id).replace('\u{A0}', " ");
        match reference.shows {
            Shows::Page => Some(to(FieldCode::PageOf, name)),
            Shows::Text => {
                let label = self.bookmarks.label(target).zip(self.doc.labels.get(target));
                if let Some((number, label)) = label {
                    let is_whole = label.text().replace('\u{A0}', " ") == shown;
                    return is_whole.then(|| to(FieldCode::Reference, self.bookmarks.name(number)));
                }
                let is_heading = matches!(self.doc.kind(target), Kind::Heading(_));
                (is_heading && self.doc.plain_text(target).trim() == shown.trim()).then(|| to(FieldCode::Reference, name))
            }
            Shows::Number | Shows::Position => None,
        }
    }

    /// Takes away the space that a line ends with.
    pub(super) fn trim_space(&mut self) {
        if let Some(place) = self.line.space.take() {
            self.part.out.take_space(place);
        }
    }

    /// Text without formatting whose white space counts.
    pub(super) fn plain_run(&mut self, text: &str) {
        let run = self.run_now();
        self.emit(text, &run);
    }

    /// A run: its properties, its characters, its tabs and line breaks.
    pub(super) fn emit(&mut self, text: &str, run: &Run) {
        if text.is_empty() {
            return;
        }
        (self.line.space, self.line.has_text) = (None, true);
        let is_deletion = self.begin_change(run);
        let out = &mut self.part.out;
        out.open("w:r");
        print::characters(&run.properties, &self.names, out);
        let element = if is_deletion { "w:delText" } else { "w:t" };
        let mut rest = text;
        loop {
            let end = memchr::memchr2(b'\n', b'\t', rest.as_bytes()).unwrap_or(rest.len());
            if end > 0 {
                let piece = &rest[..end];
                out.open(element);
                if piece.starts_with(' ') || piece.ends_with(' ') || piece.as_bytes().windows(2).any(|pair| pair == b"  ") {
                    out.attribute("xml:space", "preserve");
                }
                out.text(piece).close();
            }
            match rest.as_bytes().get(end) {
                Some(b'\n') => out.empty("w:br"),
                Some(_) => out.empty("w:tab"),
                None => break,
            };
            rest = &rest[end + 1..];
        }
        out.close();
        self.end_change(run);
    }

    /// Opens a tracked change around a run. Whether that takes it out.
    fn begin_change(&mut self, run: &Run) -> bool {
        let Some((number, change)) = run.change.and_then(|number| Some((number, self.changes.get(number)?))) else {
            return false;
        };
        self.part.out.open(if change.is_deletion { "w:del" } else { "w:ins" });
        change.by.print(number, &mut self.part.out);
        change.is_deletion
    }

    fn end_change(&mut self, run: &Run) {
        if run.change.is_some() {
            self.part.out.close();
        }
    }

    fn line_break(&mut self) {
        self.trim_space();
        self.line.has_text = false;
        let run = self.run_now();
        self.begin_change(&run);
        self.part.out.open("w:r").empty("w:br").close();
        self.end_change(&run);
    }

    /// A checkbox that people can tick, before the text of an item.
    pub(super) fn checkbox(&mut self, done: bool) {
        let (value, mark) = if done { ("1", "\u{2612}") } else { ("0", "\u{2610}") };
        self.part.out.raw("<w:sdt><w:sdtPr><w14:checkbox><w14:checked w14:val=\"");
        self.part.out.raw(value).raw("\"/><w14:checkedState w14:val=\"2612\" w14:font=\"MS Gothic\"/><w14:uncheckedState w14:val=\"2610\" w14:font=\"MS Gothic\"/></w14:checkbox></w:sdtPr><w:sdtContent><w:r><w:rPr><w:rFonts w:ascii=\"MS Gothic\" w:eastAsia=\"MS Gothic\" w:hAnsi=\"MS Gothic\" w:hint=\"eastAsia\"/></w:rPr><w:t>");
        self.part.out.raw(mark).raw("</w:t></w:r></w:sdtContent></w:sdt><w:r><w:t xml:space=\"preserve\"> </w:t></w:r>");
    }

    fn formula(&mut self, id: NodeId, formula: Formula) {
        self.bookmark_here(id);
        let source = self.doc.text(formula.source);
        if formula.notation == Markup::OfficeMath {
            return self.office_math(source, formula.display);
        }
        let (mut math, problems) = crate::math::read(formula.notation, source, &mut self.macros);
        math.number_from(self.doc.text(formula.number));
        if !problems.is_empty() {
            self.no_syntax("parts of formulas that can't be parsed; their source is kept", id);
        }
        if math.has_colors() {
            self.no_syntax("colours of formulas", id);
        }
        if !math.body.is_empty() {
            self.office_math(&crate::math::omml::write(&math), formula.display);
        }
    }

    fn begin_link(&mut self, id: NodeId, href: Text) {
        self.links += 1;
        let mut run = self.run_now();
        if self.links > 1 {
            self.runs.push(run);
            return;
        }
        let address = self.doc.text(href);
        let place = address.strip_prefix('#').map(|place| {
            let place = percent_encoding::percent_decode_str(place).decode_utf8_lossy().into_owned();
            let (target, name) = self.bookmarks.target(&place)?;
            Some((self.reference(id, target, name), name.to_owned()))
        });
        let is_link = match place {
            Some(Some((Some(instruction), _))) => {
                self.part.out.open("w:fldSimple").attribute("w:instr", &format!(" {instruction} "));
                self.runs.push(run);
                return;
            }
            Some(Some((None, name))) => {
                self.part.out.open("w:hyperlink").attribute("w:anchor", &name);
                true
            }
            // It leads to no place in the document.
            Some(None) => {
                if address.len() > 1 {
                    self.no_syntax("links to missing anchors", id);
                }
                false
            }
            None if is_target(address) => {
                let address = bookmarks::in_other(address);
                let name = self.part.relations.name("hyperlink", &address, true);
                self.part.out.open("w:hyperlink").attribute("r:id", &name);
                true
            }
            None => {
                self.no_syntax("invalid addresses of links", id);
                false
            }
        };
        if is_link {
            if let Some(title) = self.doc.attributes(id).title {
                let tip: String = self.doc.text(title).chars().take(LONGEST_TIP).collect();
                self.part.out.attribute("w:tooltip", &tip);
            }
            self.part.out.attribute("w:history", "1");
            run.properties.style = Some(self.style("Hyperlink"));
        }
        self.runs.push(run);
    }

    /// A formula of an office program, as it was.
    fn office_math(&mut self, source: &str, display: bool) {
        (self.line.space, self.line.has_text) = (None, true);
        let source = source.trim();
        let is_paragraph = source.starts_with("<m:oMathPara");
        let out = &mut self.part.out;
        if display && !is_paragraph {
            out.open("m:oMathPara");
            office_math::print(source, out);
            out.close();
        } else {
            office_math::print(source, out);
        }
    }

    /// A space, where none stands before it.
    fn space(&mut self) {
        if self.line.has_text && self.line.space.is_none() {
            let run = self.run_now();
            self.emit(" ", &run);
            self.line.space = self.part.out.last_space();
        }
    }

    /// Text with small text above it (section 17.3.3.25): all pairs of a base and its reading.
    fn ruby(&mut self, id: NodeId) {
        let run = self.run_now();
        let (mut base, mut reading) = (String::new(), String::new());
        let mut in_reading = false;
        let mut skipped = 0_usize;
        let steps: Vec<Step> = self.doc.walk(id).collect();
        for step in steps {
            match step {
                Step::Enter(node) => match self.doc.kind(node) {
                    Kind::TextLevel(TextLevel::RubyText) => in_reading = true,
                    Kind::TextLevel(TextLevel::RubyParenthesis) => skipped += 1,
                    Kind::Text(text) if skipped == 0 => {
                        let words = self.doc.text(text).split_whitespace().collect::<Vec<_>>().join(" ");
                        if in_reading {
                            reading.push_str(&words);
                        } else {
                            if !reading.is_empty() {
                                self.ruby_pair(&std::mem::take(&mut base), &std::mem::take(&mut reading), &run);
                            }
                            base.push_str(&words);
                        }
                    }
                    _ => {}
                },
                Step::Leave(node) => match self.doc.kind(node) {
                    Kind::TextLevel(TextLevel::RubyText) => in_reading = false,
                    Kind::TextLevel(TextLevel::RubyParenthesis) => skipped -= 1,
                    _ => {}
                },
            }
        }
        self.ruby_pair(&base, &reading, &run);
    }

    /// Whether there is nothing but text in a ruby, and a reading of it: the format has room for no more.
    fn is_plain_ruby(&self, id: NodeId) -> bool {
        let is_reading = |step| matches!(step, Step::Enter(node) if self.doc.kind(node) == Kind::TextLevel(TextLevel::RubyText));
        // Without one, what is in parentheses for programs without ruby is all that there is.
        if !self.doc.walk(id).any(is_reading) {
            return false;
        }
        self.doc.walk(id).all(|step| match step {
            Step::Enter(node) => match self.doc.kind(node) {
                Kind::Text(_) | Kind::SoftBreak | Kind::Span | Kind::Strong | Kind::Emphasis => true,
                Kind::TextLevel(TextLevel::Ruby) => node == id,
                Kind::TextLevel(TextLevel::RubyText | TextLevel::RubyParenthesis) => true,
                _ => false,
            },
            Step::Leave(_) => true,
        })
    }

    fn ruby_pair(&mut self, base: &str, reading: &str, run: &Run) {
        if reading.is_empty() {
            return self.emit(base, run);
        }
        (self.line.space, self.line.has_text) = (None, true);
        let out = &mut self.part.out;
        out.open("w:r").open("w:ruby");
        out.raw("<w:rubyPr><w:rubyAlign w:val=\"center\"/><w:hps w:val=\"11\"/><w:hpsRaise w:val=\"20\"/><w:hpsBaseText w:val=\"22\"/><w:lid w:val=\"ja-JP\"/></w:rubyPr>");
        for (element, text, properties) in [("w:rt", reading, "<w:rPr><w:sz w:val=\"11\"/></w:rPr>"), ("w:rubyBase", base, "")] {
            out.open(element).open("w:r");
            out.raw(properties).element("w:t", text).close().close();
        }
        out.close().close();
    }
}

/// The style that stands for an element within a line.
const fn style_of(kind: Kind) -> Option<&'static str> {
    let Kind::TextLevel(level) = kind else { return None };
    Some(match level {
        TextLevel::Code => "HTMLCode",
        TextLevel::Keyboard => "HTMLKeyboard",
        TextLevel::Sample => "HTMLSample",
        TextLevel::Variable => "HTMLVariable",
        TextLevel::Cite => "HTMLCite",
        TextLevel::Definition => "HTMLDefinition",
        TextLevel::Abbreviation => "HTMLAcronym",
        _ => return None,
    })
}

/// Whether a text may be the target of a relation: an address without white space and what no address holds.
pub(super) fn is_target(address: &str) -> bool {
    !address.is_empty()
        && !address
            .chars()
            .any(|c| c.is_whitespace() || c.is_control() || matches!(c, '<' | '>' | '"' | '\\' | '^' | '`' | '{' | '|' | '}'))
}
