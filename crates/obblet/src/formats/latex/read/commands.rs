//! Commands: what each does. Those that say how something is set, and not what it is, are read and mean nothing.

use super::Reader;
use super::references::{Shows, WordForm};
use super::tokens::Kind as Sign;
use super::vocabulary::{Plain, plain};
use crate::document::{Kind, TextLevel};
use crate::heading_count::OWN_NUMBER;

/// A length has no more parts than this.
const MOST_PARTS_OF_LENGTHS: usize = 8;

/// How a length ends in a text.
#[derive(Clone, Copy, PartialEq, Eq)]
enum LengthEnd {
    /// With a number that has no unit.
    Number,
    Unit,
    /// What it stretches or shrinks by comes next.
    Open,
}

/// What stands behind the numbers and units at the beginning of a text, and how these end.
fn after_length(text: &str) -> (&str, LengthEnd) {
    let mut rest = text;
    loop {
        let digits = rest.trim_start_matches(|c: char| c.is_ascii_digit() || matches!(c, '.' | ','));
        let unit = ["pt", "em", "ex", "cm", "mm", "in", "pc", "bp", "sp", "fill", "fil"]
            .iter()
            .find(|unit| digits.len() < rest.len() && digits.starts_with(**unit));
        rest = unit.map_or(digits, |unit| &digits[unit.len()..]);
        let Some(next) = rest.trim_start().strip_prefix("plus").or_else(|| rest.trim_start().strip_prefix("minus")) else {
            return if unit.is_some() { (rest.trim_start(), LengthEnd::Unit) } else { (rest, LengthEnd::Number) };
        };
        rest = next.trim_start();
        if rest.is_empty() {
            return (rest, LengthEnd::Open);
        }
    }
}

impl Reader<'_> {
    /// Does what a command says.
    pub(super) fn command(&mut self, name: &str) {
        let at = self.at;
        if self.macros.expand(name, at, &mut self.input) {
            return;
        }
        let name = name.trim_start_matches(super::tokens::BUILT_IN);
        if super::registers::is_register(name) {
            return self.set_register(name);
        }
        if let Some(character) = name.strip_prefix(super::categories::ACTIVE) {
            return self.text(character);
        }
        if self.own_command(name) {
            return;
        }
        if name == " " && self.is_in_code() {
            return self.space_of_code();
        }
        if !self.own.lines.is_empty() && self.algorithm_command(name) || !self.tables.is_empty() && self.tabbing_command(name) {
            return;
        }
        if self.curriculum_command(name) || self.front.has_examples && self.example_command(name) {
            return;
        }
        let word = super::vocabulary::word(name);
        if let Some(words) = word.and_then(|word| word.symbol) {
            if !words.is_empty() {
                self.text(words);
            }
            return;
        }
        if let Some(kind) = word.and_then(|word| word.style) {
            self.input.overlay();
            return self.styled_argument(kind);
        }
        if matches!(name, "onslide" | "alt") {
            self.input.overlay();
        }
        if self.heading(name)
            // Two of them mean something in letters and in tables.
            || word.and_then(|word| word.plain).is_some_and(|plain| {
                !matches!(name, "address" | "hline") && self.plain_command(name, plain)
            })
            || self.declaration(name)
            || self.byline_command(name)
            || self.link(name)
            || self.structure(name)
            || self.accent(name)
            || self.table_command(name)
            || self.defines(name)
            || self.define_code(name)
            || self.kept_code(name)
            || self.declare(name)
            || self.front_matter(name)
            || plain(name).is_some_and(|plain| self.plain_command(name, plain))
            || self.box_command(name)
            || self.define_term(name)
            || self.term(name)
            || self.define_keyword(name)
            || self.conditional(name)
            || self.counter_shown(name)
            || self.phonetic(name)
            || self.example_command(name)
            || self.sign_of_package(name)
            || self.data_command(name)
            || self.string_command(name)
        {
            return;
        }
        if super::vocabulary::is_icon(name) {
            if name == "faIcon" {
                self.skip_arguments("om");
            }
            return;
        }
        self.unknown_command(name, at);
    }

    /// Commands that Obblet's own documents define. Whether a command is one.
    fn own_command(&mut self, name: &str) -> bool {
        match self.macros.own(name) {
            Some(super::macros::Own::Text(kind)) => self.styled_argument(kind),
            Some(super::macros::Own::RowHeading) => self.row_heading(),
            Some(super::macros::Own::Abbreviation) => {
                let title = self.input.option().unwrap_or_default();
                let title = self.words(&title);
                let node = self.inline(Kind::TextLevel(TextLevel::Abbreviation));
                let title = self.doc.intern(&title);
                self.doc.attributes_mut(node).title = Some(title);
                self.argument_into(node, true);
            }
            _ => return false,
        }
        true
    }

    /// Nothing is known of a command: its arguments are text, but its settings are none.
    fn unknown_command(&mut self, name: &str, at: u32) {
        self.tallies.unknown.add_apart(at, &format!("\\{name}"));
        self.input.take('*');
        self.skip_settings();
        if (name.ends_with("setup") || name.ends_with("Setup")) && self.input.takes_begin() {
            // Those of packages take keys with values.
            let at = self.at;
            let settings = self.input.up_to_end();
            if self.input.pairs(&settings).is_empty() {
                self.input.push(Sign::End, at);
                self.input.push_all(settings.into_iter());
                self.input.push(Sign::Begin, at);
            }
        }
        self.next_argument(false);
    }

    /// Takes a definition of a command or an environment. Whether a command defines one.
    pub(super) fn defines(&mut self, name: &str) -> bool {
        self.macros.defines_at(self.at);
        let defines = self.macros.define(name, &mut self.input) || self.written_definition(name);
        if defines {
            self.has_set();
        }
        defines
    }

    /// Commands that mean nothing, and those that are as if they were not there.
    fn plain_command(&mut self, name: &str, plain: Plain) -> bool {
        if matches!(
            name,
            "only"
                | "uncover"
                | "onslide"
                | "visible"
                | "invisible"
                | "pause"
                | "alt"
                | "frame"
                | "structure"
                | "column"
                | "color"
        ) {
            self.input.overlay();
        }
        if name == "hspace" {
            self.wide_space();
            return true;
        }
        // The last one of an open command is a group like any other.
        self.skip_arguments(plain.arguments);
        true
    }

    /// A space as wide as a word space or wider parts words; any other says only how the text is set.
    fn wide_space(&mut self) {
        /// In scaled points, of which a point has 65,536: the space of a font of ten points is three and a third.
        const LEAST: i64 = 2 * 65_536;
        self.input.take('*');
        let length = self.input.argument();
        let is_fill = length.iter().any(|token| matches!(token.kind.command(), Some("fill" | "fil" | "stretch")));
        let width = self.within(&length, |reader| reader.expression(super::registers::Sort::Length, 0)).unwrap_or(0);
        if is_fill || width >= LEAST {
            self.text(" ");
        }
    }

    pub(super) fn skip_arguments(&mut self, arguments: &str) {
        for argument in arguments.chars() {
            match argument {
                's' => drop(self.input.take('*')),
                'o' => drop(self.input.option()),
                'm' => drop(self.input.argument()),
                _ => self.skip_length(),
            }
        }
    }

    /// A length that is set without braces: `=1em plus 2pt`, ` .5\width`, `=\parindent`.
    fn skip_length(&mut self) {
        let (mut is_set, mut has_number) = (false, false);
        for _ in 0..MOST_PARTS_OF_LENGTHS {
            // What a number is multiplied with stands right behind it.
            if !has_number {
                self.input.skip_white();
            }
            let Some(token) = self.input.next() else { return };
            let Sign::Text(start, end) = token.kind else {
                match token.kind {
                    Sign::Char('-') => {
                        is_set = true;
                        continue;
                    }
                    // What the number is multiplied with, or what the length is set to.
                    Sign::Command(ref name) if is_set && !super::vocabulary::is_no_length(name) => {}
                    _ => self.input.made.push(token),
                }
                return;
            };
            let text = self.input.slice(start, end);
            let behind = text.trim_start_matches(['=', ' ']);
            is_set |= behind.len() < text.len();
            let (rest, ending) = after_length(behind);
            has_number = rest.len() < behind.len() && ending != LengthEnd::Open;
            is_set |= rest.len() < behind.len();
            if !rest.is_empty() {
                let from = end - rest.len() as u32;
                return self.input.push(Sign::Text(from, end), from);
            }
            if ending == LengthEnd::Unit || !is_set {
                return;
            }
        }
    }

    /// Styles that hold to the end of the group.
    pub(super) fn declaration(&mut self, name: &str) -> bool {
        let kind = match name {
            "bf" | "bfseries" => Kind::Strong,
            "it" | "itshape" | "sl" | "slshape" | "em" => Kind::Emphasis,
            "tt" | "ttfamily" => Kind::TextLevel(TextLevel::Code),
            _ => return false,
        };
        self.style(kind);
        true
    }

    /// Headings.
    fn heading(&mut self, name: &str) -> bool {
        let (name, is_added) = match name {
            "addpart" => ("part", true),
            "addchap" | "starchapter" | "eledchapter" => ("chapter", name != "eledchapter"),
            "addsec" => ("section", true),
            "eledsection" => ("section", false),
            "eledsubsection" => ("subsection", false),
            "eledsubsubsection" | "subsubsubsection" => ("subsubsection", name == "subsubsubsection"),
            _ => (name, false),
        };
        // A part of a question is none of the document.
        if name == "part" && self.environments.iter().any(|environment| environment.name == "parts") {
            self.question(name);
            return true;
        }
        let Some(level) = self.counters.level(name) else { return false };
        let has_star = self.input.take('*') || is_added;
        self.skip_arguments("oo");
        let has_number = self.counters.is_numbered(name);
        let numbered = !has_star && has_number;
        let counted = numbered.then(|| self.counters.step(name));
        let number = match &counted {
            Some(number) if self.macros.shows_numbers => Some(self.number_as_shown(name, number.clone())),
            _ => counted.clone(),
        };
        // Numbers that pages do not make by counting stand in the words: those of appendices and parts, and those that the document
        // shows in its own way.
        let made = self.counters.number_on_page(level, number.as_deref());
        let is_text = number.as_ref().is_some_and(|number| *number != made);
        let heading = self.heading_of(level, is_text || number.is_none() && !made.is_empty());
        if let (Some(heading), Some(number), true) = (heading, &number, is_text) {
            let class = match name {
                _ if number != counted.as_ref().unwrap_or(number) => Some(OWN_NUMBER),
                "part" => Some("part"),
                _ if self.counters.is_appendix() => Some("appendix"),
                _ => None,
            };
            if let Some(class) = class {
                let class = self.doc.intern(class);
                self.doc.attributes_mut(heading).classes.push(class);
            }
            self.text(&format!("{number} "));
        }
        if let Some(heading) = heading {
            if let Some(number) = number {
                self.counters.last_heading = number;
            }
            let number = self.counters.last_heading.clone();
            let word = match name {
                "chapter" | "section" if self.counters.is_appendix() => "Appendix",
                "chapter" | "subsection" | "subsubsection" => name,
                _ => "section",
            };
            let number = self.number_in_references(name, &number);
            self.references.here(heading, number, word);
        }
        true
    }

    pub(super) fn heading_of(&mut self, level: u8, unnumbered: bool) -> Option<crate::document::NodeId> {
        if !self.takes_blocks() {
            return None;
        }
        let heading = self.block(Kind::Heading(level));
        if unnumbered {
            let class = self.doc.intern("unnumbered");
            self.doc.attributes_mut(heading).classes.push(class);
        }
        self.argument_into(heading, true);
        Some(heading)
    }

    /// Whether text stands before this, in the same paragraph.
    pub(super) fn is_in_text(&self) -> bool {
        !self.is_at_beginning()
    }

    /// Commands that make blocks and parts.
    fn structure(&mut self, name: &str) -> bool {
        match name {
            "begin" => self.begin(),
            "end" => self.end(),
            "par" | "endgraf" => self.paragraph_ends(),
            "\\" | "newline" => self.line_ends(),
            "item" => self.item(),
            "bibitem" => self.entry(),
            "(" => self.delimited_formula(")", false),
            "[" => self.delimited_formula("]", true),
            ")" | "]" => {}
            // The class for the documentation of packages has them.
            "cmd" | "cs" | "marg" | "oarg" | "parg" | "Marg" | "Oarg" | "DescribeMacro" | "DescribeEnv" | "DescribeOption" => {
                self.piece_of_syntax(name)
            }
            "ensuremath" => {
                let at = self.at;
                let words = self.input.argument();
                self.input.push(Sign::Dollar, at);
                self.input.push_all(words.into_iter());
                self.input.push(Sign::Dollar, at);
            }
            "verb" | "Verb" => self.verb(name == "Verb"),
            "lstinline" | "mintinline" => {
                self.input.option();
                if name == "mintinline" {
                    self.input.argument();
                }
                self.verb(true);
            }
            "todo" if self.front.loads("todonotes disable") => self.skip_arguments("om"),
            "footnote" | "footnotetext" | "sidenote" | "marginpar" | "marginnote" | "endnote" | "footnotemark"
            | "tablefootnote" | "todo" | "Afootnote" | "Bfootnote" | "Cfootnote" | "Dfootnote" | "Efootnote" | "footnoteA"
            | "footnoteB" | "footnoteC" | "Aendnote" | "Bendnote" | "ledsidenote" | "ledleftnote" | "ledrightnote"
            | "ledinnernote" | "ledouternote" | "LTRfootnote" | "RTLfootnote" => self.note(name),
            "caption" | "captionof" | "subcaption" | "tablecaption" | "captionabove" | "captionbelow" | "captionaboveof"
            | "captionbelowof" => self.caption(name),
            "includegraphics" | "epsfig" | "epsfbox" | "psfig" | "includesvg" => self.picture(),
            "alt" | "temporal" | "note" if self.front.class == "beamer" => self.of_some_slides(name),
            "mode" | "againframe" if self.front.class == "beamer" => self.mode_of_slides(name),
            "newblock" => self.input.push(Sign::Space, self.at),
            "frametitle" => {
                self.input.overlay();
                self.heading_of(self.counters.level_of_slides(), false);
            }
            "maketitle" | "titlepage" | "MakeTitle" | "titleframe" => self.put_title(),
            "appendix" | "appendices" => self.begin_appendix(),
            "frontmatter" | "backmatter" | "mainmatter" => self.counters.begin_matter(name == "mainmatter"),
            "hrule" => {
                self.skip_rule();
                if self.takes_blocks() {
                    self.block(Kind::ThematicBreak);
                }
            }
            "enquote" | "textquote" | "foreignquote" | "textcquote" | "foreigntextquote" => self.quote_in_text(name),
            "tikz" => self.drawing_in_text(),
            "input" | "include" | "bibliography" | "printbibliography" | "import" => self.no_bibliography(),
            "char" | "symbol" => self.character_by_number(name),
            "makeatletter" => self.input.at_is_letter = true,
            "makeatother" => self.input.at_is_letter = false,
            "today" => {}
            "SI" | "qty" | "num" | "si" | "unit" | "ang" | "ce" | "ch" | "pu" => self.quantity(name),
            "SIrange" | "qtyrange" | "numrange" | "SIlist" | "qtylist" | "numlist" | "numproduct" | "qtyproduct" | "tablenum"
            | "complexnum" | "complexqty" | "unitfrac" | "nicefrac" | "sfrac" => self.quantities(name),
            "footnoteref" => self.refer(Shows::Number),
            _ => return self.other_structure(name),
        }
        true
    }

    /// A character by its number: decimal, behind a quotation mark in sixteens, or behind an accent the character itself.
    fn character_by_number(&mut self, name: &str) {
        let number = if name == "symbol" {
            let argument = self.input.argument();
            self.within(&argument, Self::number)
        } else {
            self.number()
        };
        let c = number.and_then(|number| u32::try_from(number).ok()).and_then(char::from_u32);
        if let Some(c) = c.filter(|c| !c.is_control()) {
            self.text(c.encode_utf8(&mut [0; 4]));
        }
    }

    /// A command by its name, or an argument of one.
    fn piece_of_syntax(&mut self, name: &str) {
        let words = self.input.argument();
        let mut text = String::new();
        self.input.write(&words, &mut text);
        let text = text.trim();
        let shown = match name {
            "cs" => format!("\\{text}"),
            "marg" | "Marg" => format!("{{{text}}}"),
            "oarg" | "Oarg" => format!("[{text}]"),
            "parg" => format!("({text})"),
            _ => text.to_owned(),
        };
        let shown = self.doc.intern(&shown);
        self.inline(Kind::Code(shown));
    }

    /// Commands of letters, rules and languages. Whether a command is one.
    fn other_structure(&mut self, name: &str) -> bool {
        match name {
            "pstart" => {
                let above = self.input.option().unwrap_or_default();
                self.input.push(Sign::Par, self.at);
                self.input.push_all(above.into_iter());
                self.end_paragraph();
            }
            "pend" => self.end_paragraph(),
            "column" => {
                self.input.overlay();
                self.skip_arguments("om");
                self.end_paragraph();
            }
            "floatconts" => self.float_with_caption(),
            "edtext" => self.text_of_edition(),
            "twocolumn" => {
                // What stands above both columns is text.
                let above = self.input.option().unwrap_or_default();
                self.input.push(Sign::Par, self.at);
                self.input.push_all(above.into_iter());
            }
            "epigraph" | "dictum" => self.epigraph(name),
            "blockquote" | "blockcquote" | "foreignblockquote" => {
                if name == "foreignblockquote" {
                    self.input.argument();
                }
                // A short one stands in the text.
                if name == "blockquote" && self.is_short_quotation() {
                    self.quote_in_text(name);
                    return true;
                }
                let source = self.input.option().filter(|_| name != "blockcquote");
                self.input.option();
                if name == "blockcquote" {
                    self.input.argument();
                }
                let mut words = self.input.argument();
                words.extend(self.source_of_quotation(source));
                self.quote_of(words);
            }
            "subfloat" | "subfigure" | "subtable" | "subcaptionbox" | "subbottom" | "sidesubfloat" => self.part_of_float(name),
            "lstinputlisting" | "verbatiminput" | "VerbatimInput" | "inputminted" | "BVerbatimInput" | "verbatimtabinput" => {
                self.code_of_file(name);
            }
            "includepdf" | "includepdfmerge" => self.document_file(),
            "tikzsetnextfilename" => {
                let name = self.input.argument();
                self.own.drawing_file = Some(self.input.characters(&name));
            }
            "question" | "titledquestion" | "bonusquestion" | "task" | "choice" | "CorrectChoice" | "ex" | "subpart"
            | "subsubpart"
                if self.environments.iter().any(|environment| environment.kind == super::environments::Form::List) =>
            {
                match name {
                    "task" => {
                        // It may stand in a line of its own, or over several columns.
                        let _ = self.input.take('*') || self.input.take('!');
                        self.input.between('(', ')');
                        self.item();
                    }
                    "choice" | "CorrectChoice" => self.item(),
                    "ex" => self.example(),
                    _ => self.question(name),
                }
            }
            _ => {
                return self.text_of_package(name)
                    || self.text_in_language(name)
                    || self.made_command(name)
                    || self.letter_command(name);
            }
        }
        true
    }

    /// Text that differs from slide to slide is what it is on those that it names; notes for the speaker are none of the slides.
    fn of_some_slides(&mut self, name: &str) {
        self.input.overlay();
        if name == "note" {
            self.input.option();
            let words = self.input.argument();
            let words = self.words(&words);
            return self.tallies.speaker_notes.add_apart(self.at, &words);
        }
        if name == "temporal" {
            self.input.argument();
        }
        let words = self.input.argument();
        self.input.argument();
        self.input.push_all(words.into_iter());
    }

    /// A slide that is shown again, and what a mode says: that of the slides is theirs alone.
    fn mode_of_slides(&mut self, name: &str) {
        let rest = self.input.source.get(self.input.at..).unwrap_or_default();
        let is_other = ["<article", "<handout", "<second", "<trans"].iter().any(|mode| rest.starts_with(mode));
        self.input.take('*');
        self.input.overlay();
        if name == "againframe" {
            self.input.option();
            self.input.argument();
        } else if is_other && self.input.takes_begin() {
            self.input.up_to_end();
        }
    }

    /// Text in the language that a command has in its name: `\textgerman{Ebbe}`. Whether it is such a command.
    fn text_in_language(&mut self, name: &str) -> bool {
        let Some(language) = name.strip_prefix("text").filter(|name| super::super::languages::language_of(name).is_some()) else {
            return false;
        };
        self.input.option();
        let node = self.inline(Kind::Span);
        self.set_language(node, language);
        self.argument_into(node, true);
        true
    }

    /// Commands of letters, rules and languages. Whether a command is one.
    fn letter_command(&mut self, name: &str) -> bool {
        match name {
            "opening" => {
                self.end_paragraph();
                let words = self.input.argument();
                self.input.push(Sign::Par, self.at);
                self.input.push_all(words.into_iter());
            }
            "closing" => self.closing(),
            "ps" => self.end_paragraph(),
            "cc" => self.below_letter("cc: "),
            "encl" => self.below_letter("encl: "),
            "rule" => self.rule(),
            "texorpdfstring" => {
                // What stands for the text in outlines of programs is not for pages.
                let words = self.input.argument();
                self.input.argument();
                self.input.push_all(words.into_iter());
            }
            "foreignlanguage" => {
                self.input.option();
                let language = self.input.argument();
                let language = self.input.characters(&language);
                let node = self.inline(Kind::Span);
                self.set_language(node, &language);
                self.argument_into(node, true);
            }
            _ => return false,
        }
        true
    }

    /// A rule: one across the text parts it.
    fn rule(&mut self) {
        self.input.option();
        let (width, _) = (self.input.argument(), self.input.argument());
        let is_whole =
            width.iter().any(|token| matches!(token.kind.command(), Some("linewidth" | "textwidth" | "columnwidth" | "hsize")));
        if is_whole && self.takes_blocks() && self.is_at_beginning() {
            self.block(Kind::ThematicBreak);
        }
    }

    /// The language of a node, by the name that packages have for it.
    pub(super) fn set_language(&mut self, node: crate::document::NodeId, name: &str) {
        if let Some(tag) = super::super::languages::language_of(name) {
            let runs_back = crate::language_tag::is_right_to_left(tag);
            let tag = self.doc.intern(tag);
            let attributes = self.doc.attributes_mut(node);
            attributes.language = Some(tag);
            attributes.direction = runs_back.then_some(crate::document::Direction::RightToLeft);
        }
    }

    /// A note.
    fn note(&mut self, name: &str) {
        let number = self.input.option();
        if name == "footnotemark" {
            // A number that is there already mentions that note again.
            let number = number.and_then(|number| self.input.characters(&number).parse::<usize>().ok());
            if let Some(known) = number.filter(|&number| number > 0 && number <= self.doc.notes.len()) {
                self.inline(Kind::NoteReference(crate::document::NoteId(known as u32 - 1)));
                return;
            }
            let note = self.doc.add_note(format!("mark{}", self.doc.notes.len() + 1));
            self.footnotes.push(note);
            self.inline(Kind::NoteReference(note));
            return;
        }
        let waiting = (name == "footnotetext" && !self.footnotes.is_empty()).then(|| self.footnotes.remove(0));
        let note = match waiting {
            Some(note) => note,
            None => {
                let note = self.doc.add_note((self.doc.notes.len() + 1).to_string());
                self.inline(Kind::NoteReference(note));
                note
            }
        };
        let Some(body) = self.doc.notes.get(note.0 as usize).map(|note| note.body) else { return };
        self.argument_into(body, false);
    }

    /// Links, and places that they lead to.
    fn link(&mut self, name: &str) -> bool {
        match name {
            "href" => {
                self.input.option();
                let address = self.address();
                let href = self.doc.intern(&address);
                self.styled_argument(Kind::Link { href });
            }
            "url" | "nolinkurl" | "path" | "doi" | "email" => {
                let address = self.address();
                if matches!(name, "nolinkurl" | "path") {
                    let text = self.doc.intern(&address);
                    self.inline(Kind::Code(text));
                    return true;
                }
                let target = match name {
                    "doi" => format!("https://doi.org/{address}"),
                    "email" => format!("mailto:{address}"),
                    _ => address.clone(),
                };
                let (href, text) = (self.doc.intern(&target), self.doc.intern(&address));
                let node = self.inline(Kind::Link { href });
                self.doc.append_at(node, Kind::Text(text), self.at);
            }
            "hyperref" => {
                let label = self.input.option().map(|label| self.input.characters(&label)).unwrap_or_default();
                let node = self.inline(Kind::Link { href: crate::document::Text::EMPTY });
                self.references.refer_from(node, label);
                self.argument_into(node, true);
            }
            "hyperlink" => {
                let target = self.input.argument();
                let target = super::references::id_of(&self.input.characters(&target));
                let href = self.doc.intern(&format!("#{target}"));
                self.references.citations.leads_to_entries |= target.starts_with(super::citations::ENTRY);
                self.styled_argument(Kind::Link { href });
            }
            "hypertarget" => {
                let target = self.input.argument();
                let target = super::references::id_of(&self.input.characters(&target));
                self.anchor(&target);
            }
            "label" | "edlabel" | "linelabel" | "zlabel" => self.label(),
            "subref" => self.refer(Shows::Part),
            "vref" if self.references.wording.is_loaded => self.refer(Shows::Word(WordForm::Small)),
            "ref" | "pageref" | "vref" | "thref" | "labelcref" | "autopageref" | "cpageref" | "zref" | "fullref" | "lineref"
            | "lref" => self.refer(Shows::Number),
            "vpageref" => {
                self.input.take('*');
                self.skip_arguments("oo");
                self.refer(Shows::Place);
            }
            "eqref" => self.refer(Shows::Equation),
            "footref" => {
                self.style(Kind::Superscript);
                self.refer(Shows::Number);
                self.styles.pop();
            }
            "cref" | "zcref" | "fref" | "prettyref" => self.refer(Shows::Word(WordForm::Small)),
            // Many classes have such names.
            "autoref" | "figref" | "tabref" | "secref" | "chapref" | "appref" => self.refer(Shows::Word(WordForm::Printed)),
            "eqnref" => self.refer(Shows::Equation),
            "crefrange" | "Crefrange" => {
                self.input.take('*');
                let (first, last) = (self.input.argument(), self.input.argument());
                let labels = [first, last].map(|label| self.input.characters(&label)).to_vec();
                self.refer_to_several(labels, if name == "Crefrange" { WordForm::Capital } else { WordForm::Small }, true);
            }
            "Cref" | "Autoref" | "Vref" | "Fref" | "sectionref" | "tableref" | "figureref" | "equationref" | "algorithmref"
            | "theoremref" | "lemmaref" | "remarkref" | "corollaryref" | "definitionref" | "conjectureref" | "axiomref"
            | "exampleref" | "appendixref" => self.refer(Shows::Word(WordForm::Capital)),
            "nameref" => self.refer(Shows::Name),
            name if super::citations::is_citation(name) => {
                self.cite(name);
            }
            "citetext" => self.text_as_citation(),
            "citelist" => self.list_of_citations(),
            _ => return false,
        }
        true
    }
}
