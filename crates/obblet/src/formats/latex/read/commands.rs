//! Commands: what each does. Those that say how something is set, and not what it is, are read and mean nothing.

use super::Reader;
use super::macros::LENGTH;
use super::references::Shows;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, TextLevel};
use crate::fast_hash::HashMap;
use std::sync::LazyLock;

/// Commands without a meaning here, and their arguments: `s` is a star, `o` an option, `m` an argument, `=` a length behind it.
const SILENT: &[(&str, &str)] = &[
    ("addcontentsline", "mmm"),
    ("addtolength", "mm"),
    ("addtocontents", "mm"),
    ("addvspace", "m"),
    ("addbibresource", "om"),
    ("allowdisplaybreaks", "o"),
    ("baselineskip", "="),
    ("bibliographystyle", "m"),
    ("captionsetup", "om"),
    ("clearpage", ""),
    ("cleardoublepage", ""),
    ("color", "om"),
    ("definecolor", "mmm"),
    ("colorlet", "mm"),
    ("fancyhead", "om"),
    ("fancyfoot", "om"),
    ("fancyhf", "om"),
    ("fontsize", "mm"),
    ("fontfamily", "m"),
    ("fontseries", "m"),
    ("fontshape", "m"),
    ("fontencoding", "m"),
    ("geometry", "m"),
    ("glossary", "m"),
    ("setmainfont", "omo"),
    ("setsansfont", "omo"),
    ("setmonofont", "omo"),
    ("lstdefinelanguage", "omm"),
    ("babelprovide", "om"),
    ("hspace", "sm"),
    ("hypersetup", "m"),
    ("hyphenation", "m"),
    ("hskip", "="),
    ("index", "om"),
    ("kern", "="),
    ("linespread", "m"),
    ("lstset", "m"),
    ("markboth", "mm"),
    ("markright", "m"),
    (LENGTH, "="),
    ("newsavebox", "m"),
    ("pagebreak", "o"),
    ("nopagebreak", "o"),
    ("linebreak", "o"),
    ("nolinebreak", "o"),
    ("pagenumbering", "m"),
    ("pagestyle", "m"),
    ("pagecolor", "om"),
    ("parindent", "="),
    ("parskip", "="),
    ("phantom", "m"),
    ("hphantom", "m"),
    ("vphantom", "m"),
    ("printindex", "o"),
    ("renewcommand*", "mm"),
    ("selectlanguage", "m"),
    ("setlength", "mm"),
    ("settowidth", "mm"),
    ("sisetup", "m"),
    ("thispagestyle", "m"),
    ("usetikzlibrary", "m"),
    ("tikzset", "m"),
    ("usefont", "mmmm"),
    ("vskip", "="),
    ("vspace", "sm"),
    ("enlargethispage", "sm"),
    ("leftskip", "="),
    ("rightskip", "="),
    ("hangindent", "="),
    ("tabcolsep", "="),
    ("textheight", "="),
    ("textwidth", "="),
    ("setstretch", "m"),
    ("thanks", "m"),
    ("titleformat", "smmmmm"),
    ("usepackage", "om"),
    ("documentclass", "om"),
    ("bibpunct", "mmmmmm"),
    ("setcitestyle", "m"),
    ("DeclareGraphicsExtensions", "m"),
    ("hline", ""),
    ("includeonly", "m"),
    ("usetheme", "om"),
    ("usecolortheme", "om"),
    ("setbeamertemplate", "mom"),
    ("theoremstyle", "m"),
    ("newcolumntype", "mom"),
    ("crefname", "mmm"),
    ("Crefname", "mmm"),
    ("pdfbookmark", "omm"),
    ("phantomsection", ""),
    ("doublespacing", ""),
    ("singlespacing", ""),
    ("onehalfspacing", ""),
    ("arraystretch", "="),
    ("protect", ""),
    ("relax", ""),
    ("noindent", ""),
    ("indent", ""),
    ("centering", ""),
    ("raggedright", ""),
    ("raggedleft", ""),
    ("sloppy", ""),
    ("fussy", ""),
    ("frenchspacing", ""),
    ("nonfrenchspacing", ""),
    ("tableofcontents", ""),
    ("listoffigures", ""),
    ("listoftables", ""),
    ("frontmatter", ""),
    ("mainmatter", ""),
    ("backmatter", ""),
    ("leavevmode", ""),
    ("null", ""),
    ("newpage", ""),
    ("newblock", ""),
    ("not@math@alphabet", "mm"),
    ("theendnotes", ""),
    ("vrule", ""),
    ("listfiles", ""),
    ("setkomavar", "mm"),
    ("errorcontextlines", "="),
    ("fboxrule", "="),
    ("fboxsep", "="),
    ("columnbreak", ""),
    ("lipsum", "o"),
    ("doublerulesepcolor", "m"),
    ("setlist", "om"),
    ("pgfplotsset", "m"),
    ("restoregeometry", ""),
    ("newgeometry", "m"),
    ("bigskip", ""),
    ("medskip", ""),
    ("smallskip", ""),
    ("vfill", ""),
    ("vfil", ""),
    ("hfil", ""),
    ("hrulefill", ""),
    ("bigbreak", ""),
    ("medbreak", ""),
    ("smallbreak", ""),
    ("strut", ""),
    ("unskip", ""),
    ("ignorespaces", ""),
    ("xspace", ""),
    ("tiny", ""),
    ("scriptsize", ""),
    ("footnotesize", ""),
    ("small", ""),
    ("normalsize", ""),
    ("large", ""),
    ("Large", ""),
    ("LARGE", ""),
    ("huge", ""),
    ("Huge", ""),
    ("rm", ""),
    ("rmfamily", ""),
    ("sf", ""),
    ("sffamily", ""),
    ("sc", ""),
    ("scshape", ""),
    ("upshape", ""),
    ("mdseries", ""),
    ("normalfont", ""),
    ("selectfont", ""),
    ("boldmath", ""),
    ("unboldmath", ""),
    ("makeindex", ""),
    ("makeglossaries", ""),
    ("break", ""),
    ("nobreak", ""),
    ("allowbreak", ""),
    ("begingroup", ""),
    ("endgroup", ""),
    ("bgroup", ""),
    ("egroup", ""),
    ("qed", ""),
    ("qedhere", ""),
    ("flushbottom", ""),
    ("raggedbottom", ""),
    ("onecolumn", ""),
    ("balance", ""),
    ("pause", ""),
    ("titlepage", ""),
    ("NoValue", ""),
    ("BooleanTrue", ""),
    ("BooleanFalse", ""),
    ("global", ""),
    ("long", ""),
    ("expandafter", ""),
    ("noexpand", ""),
    ("justifying", ""),
    ("appendixname", ""),
];

/// Commands whose last argument is text as any other, and the arguments before it.
const OPEN: &[(&str, &str)] = &[
    ("mbox", ""),
    ("hbox", ""),
    ("vbox", ""),
    ("makebox", "oo"),
    ("framebox", "oo"),
    ("fbox", ""),
    ("parbox", "ooom"),
    ("raisebox", "moo"),
    ("rotatebox", "om"),
    ("scalebox", "mo"),
    ("resizebox", "smm"),
    ("textcolor", "om"),
    ("colorbox", "om"),
    ("fcolorbox", "omm"),
    ("textrm", ""),
    ("textsf", ""),
    ("textsc", ""),
    ("textmd", ""),
    ("textnormal", ""),
    ("text", ""),
    ("centerline", ""),
    ("leftline", ""),
    ("rightline", ""),
    ("uppercase", ""),
    ("lowercase", ""),
    ("MakeUppercase", ""),
    ("MakeLowercase", ""),
    ("phantomtext", ""),
    ("smash", "o"),
    ("llap", ""),
    ("rlap", ""),
    ("lettrine", "om"),
    ("gls", "o"),
    ("Gls", "o"),
    ("glspl", "o"),
    ("acrshort", "o"),
    ("acrlong", "o"),
    ("acrfull", "o"),
    ("ac", ""),
    ("acp", ""),
    ("acs", ""),
    ("acl", ""),
    ("hologo", ""),
    ("textgreek", ""),
    ("address", "o"),
    ("institute", "o"),
    ("affiliation", "o"),
    ("affil", "o"),
    ("ead", "o"),
    ("adjustbox", "m"),
    ("textlatin", ""),
    ("only", ""),
    ("uncover", ""),
    ("visible", ""),
    ("textup", ""),
];

/// A length has no more parts than this.
const MOST_PARTS_OF_LENGTHS: usize = 8;

/// What stands behind the numbers and units at the beginning of a text, and whether the last number has a unit.
fn after_length(text: &str) -> (&str, bool) {
    let mut rest = text;
    loop {
        let digits = rest.trim_start_matches(|c: char| c.is_ascii_digit() || matches!(c, '.' | ','));
        let unit = ["pt", "em", "ex", "cm", "mm", "in", "pc", "bp", "sp", "fill", "fil"]
            .iter()
            .find(|unit| digits.len() < rest.len() && digits.starts_with(**unit));
        rest = unit.map_or(digits, |unit| &digits[unit.len()..]);
        let Some(next) = rest.trim_start().strip_prefix("plus").or_else(|| rest.trim_start().strip_prefix("minus")) else {
            return (if unit.is_some() { rest.trim_start() } else { rest }, unit.is_some());
        };
        rest = next.trim_start();
    }
}

/// The arguments of a command that says how something looks.
pub(super) fn silent(name: &str) -> Option<&'static str> {
    if matches!(name, "bf" | "bfseries" | "it" | "itshape" | "em" | "tt" | "ttfamily" | "sl" | "slshape" | "par") {
        return Some("");
    }
    plain(name).filter(|plain| !plain.is_open).map(|plain| plain.arguments)
}

/// A command that means nothing, or whose last argument is text as any other.
#[derive(Clone, Copy)]
struct Plain {
    arguments: &'static str,
    is_open: bool,
}

fn plain(name: &str) -> Option<Plain> {
    static BY_NAME: LazyLock<HashMap<&str, Plain>> = LazyLock::new(|| {
        let open = OPEN.iter().map(|(name, arguments)| (*name, Plain { arguments, is_open: true }));
        let silent = SILENT.iter().map(|(name, arguments)| (*name, Plain { arguments, is_open: false }));
        open.chain(silent).collect()
    });
    BY_NAME.get(name).copied()
}

/// Whether a command means something by its name.
pub(super) fn is_known(name: &str) -> bool {
    plain(name).is_some() || style_of(name).is_some() || super::symbols::text(name).is_some()
}

/// Commands that set their argument in a style.
fn style_of(name: &str) -> Option<Kind> {
    Some(match name {
        "textbf" | "strong" | "pmb" | "alert" => Kind::Strong,
        "emph" | "textit" | "textsl" => Kind::Emphasis,
        "underline" | "uline" | "ul" | "uuline" | "underLine" => Kind::Underline,
        "sout" | "st" | "xout" | "strikeThrough" => Kind::Strikethrough,
        "hl" | "highLight" => Kind::Highlight,
        "texttt" | "code" => Kind::TextLevel(TextLevel::Code),
        "textsuperscript" | "up" | "tsup" => Kind::Superscript,
        "textsubscript" => Kind::Subscript,
        _ => return None,
    })
}

impl Reader<'_> {
    /// Does what a command says.
    pub(super) fn command(&mut self, name: &str) {
        let at = self.at;
        if self.macros.expand(name, at, &mut self.input) {
            return;
        }
        let name = name.trim_start_matches(super::tokens::BUILT_IN);
        match self.macros.own(name) {
            Some(super::macros::Own::Text(kind)) => return self.styled_argument(kind),
            Some(super::macros::Own::RowHeading) => return self.row_heading(),
            Some(super::macros::Own::Abbreviation) => {
                let title = self.input.option().unwrap_or_default();
                let title = self.words(&title);
                let node = self.inline(Kind::TextLevel(TextLevel::Abbreviation));
                let title = self.doc.intern(&title);
                self.doc.attributes_mut(node).title = Some(title);
                return self.argument_into(node, true);
            }
            _ => {}
        }
        if name == " " && self.is_in_code() {
            return self.space_of_code();
        }
        if let Some(words) = super::symbols::text(name) {
            if !words.is_empty() {
                self.text(words);
            }
            return;
        }
        if let Some(kind) = style_of(name) {
            self.input.overlay();
            return self.styled_argument(kind);
        }
        if self.heading(name)
            // Two of them mean something in letters and in tables.
            || (!matches!(name, "address" | "hline") && self.plain_command(name))
            || self.declaration(name)
            || self.structure(name)
            || self.link(name)
            || self.accent(name)
            || self.table_command(name)
            || self.macros.define(name, &mut self.input)
            || self.declare(name)
            || self.plain_command(name)
            || self.conditional(name)
        {
            return;
        }
        self.tallies.unknown.add_apart(at, &format!("\\{name}"));
        self.input.take('*');
        if self.input.made.is_empty() && self.input.source[self.input.at..].starts_with('[') {
            self.input.option();
        }
    }

    /// Commands that mean nothing, and those that are as if they were not there.
    fn plain_command(&mut self, name: &str) -> bool {
        if matches!(name, "only" | "uncover" | "onslide" | "visible" | "pause" | "alt") {
            self.input.overlay();
        }
        let Some(plain) = plain(name) else { return false };
        // The last one of an open command is a group like any other.
        self.skip_arguments(plain.arguments);
        true
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
                    Sign::Command(_) if is_set => {}
                    _ => self.input.made.push(token),
                }
                return;
            };
            let text = self.input.slice(start, end);
            let behind = text.trim_start_matches(['=', ' ']);
            is_set |= behind.len() < text.len();
            let (rest, is_whole) = after_length(behind);
            has_number = rest.len() < behind.len();
            is_set |= has_number;
            if !rest.is_empty() {
                let from = end - rest.len() as u32;
                return self.input.push(Sign::Text(from, end), from);
            }
            if is_whole || !is_set {
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
        let Some(level) = self.counters.level(name) else { return false };
        let has_star = self.input.take('*');
        self.input.option();
        let has_number = self.counters.is_numbered(name);
        let numbered = !has_star && has_number;
        let number = numbered.then(|| self.counters.step(name));
        // Those of the appendix are counted with letters, which stand in their words.
        let in_appendix = self.counters.is_appendix();
        // What has no number anyway need not be marked, but where its level is raised to one that has numbers.
        let is_raised = !has_number && self.counters.numbered_levels() > 0 && level > self.counters.last_level + 1;
        self.counters.last_level = level;
        let heading = self.heading_of(level, is_raised || has_number && (has_star || in_appendix));
        if let (Some(heading), Some(number), true) = (heading, &number, in_appendix) {
            let class = self.doc.intern("appendix");
            self.doc.attributes_mut(heading).classes.push(class);
            self.text(&format!("{number} "));
        }
        if let Some(heading) = heading {
            if let Some(number) = number {
                self.counters.last_heading = number;
            }
            let number = self.counters.last_heading.clone();
            self.references.here(heading, number, if name == "chapter" { "chapter" } else { "section" });
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
            "string" => match self.input.next() {
                Some(Token { kind: Sign::Command(name), .. }) => self.text(&format!("\\{name}")),
                Some(Token { kind: Sign::Begin, .. }) => self.text("{"),
                Some(Token { kind: Sign::End, .. }) => self.text("}"),
                Some(token) => self.input.made.push(token),
                None => {}
            },
            // The class for the documentation of packages has them.
            "cmd" | "cs" | "marg" | "oarg" | "parg" => self.piece_of_syntax(name),
            "ensuremath" => {
                let at = self.at;
                let words = self.input.argument();
                self.input.push(Sign::Dollar, at);
                self.input.push_all(words.into_iter());
                self.input.push(Sign::Dollar, at);
            }
            "verb" => self.verb(false),
            "lstinline" | "mintinline" => {
                self.input.option();
                if name == "mintinline" {
                    self.input.argument();
                }
                self.verb(true);
            }
            "footnote" | "footnotetext" | "sidenote" | "marginpar" | "marginnote" | "endnote" | "footnotemark" => self.note(name),
            "caption" | "captionof" | "subcaption" => self.caption(name),
            "includegraphics" | "epsfig" | "epsfbox" | "psfig" | "includesvg" => self.picture(),
            "frametitle" => {
                self.heading_of(2, false);
            }
            "maketitle" => self.put_title(),
            "appendix" => self.counters.begin_appendix(),
            "hrule" => {
                if self.takes_blocks() {
                    self.block(Kind::ThematicBreak);
                }
            }
            "enquote" | "textquote" => {
                self.input.take('*');
                let language = self.front.language.clone().unwrap_or_default();
                let marks = crate::quotation_marks::of(&language);
                self.text(marks.double.0);
                if self.input.takes_begin() {
                    self.open_group(super::Closing::Text(marks.double.1));
                }
            }
            "tikz" | "input" | "include" | "bibliography" | "printbibliography" | "import" => {
                if name == "tikz" {
                    self.tallies.drawings.add_apart(self.at, "\\tikz");
                }
                self.no_bibliography();
            }
            "char" | "symbol" => self.character_by_number(name),
            "makeatletter" => self.input.at_is_letter = true,
            "makeatother" => self.input.at_is_letter = false,
            "today" => {}
            "SI" | "qty" | "num" | "si" | "unit" | "ang" => self.quantity(name),
            "footnoteref" => self.refer(Shows::Number),
            _ => return self.other_structure(name),
        }
        true
    }

    /// A character by its number: decimal, behind a quotation mark in sixteens, or behind an accent the character itself.
    fn character_by_number(&mut self, name: &str) {
        let argument = if name == "symbol" { self.input.argument() } else { Vec::new() };
        self.input.push_all(argument.into_iter());
        self.input.skip_white();
        let hexadecimal = self.input.take('"');
        if self.input.take('`') {
            // The character itself, which may have a backslash before it.
            match self.input.next() {
                Some(Token { kind: Sign::Command(name), .. }) if name.chars().count() == 1 => self.text(&name),
                Some(token) => self.input.made.push(token),
                None => {}
            }
            return;
        }
        let Some(token) = self.input.next() else { return };
        let Sign::Text(start, end) = token.kind else { return self.input.made.push(token) };
        let text = self.input.slice(start, end);
        let is_digit = |c: char| if hexadecimal { c.is_ascii_hexdigit() } else { c.is_ascii_digit() };
        let digits = text.chars().take_while(|c| is_digit(*c)).count();
        let number = u32::from_str_radix(&text[..digits], if hexadecimal { 16 } else { 10 }).ok();
        if let Some(c) = number.and_then(char::from_u32).filter(|c| !c.is_control()) {
            self.text(c.encode_utf8(&mut [0; 4]));
        }
        let behind = start + digits as u32;
        if behind < end {
            self.input.push(Sign::Text(behind, end), behind);
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
            "marg" => format!("{{{text}}}"),
            "oarg" => format!("[{text}]"),
            "parg" => format!("({text})"),
            _ => text.to_owned(),
        };
        let shown = self.doc.intern(&shown);
        self.inline(Kind::Code(shown));
    }

    /// Numbers and units are formulas.
    fn quantity(&mut self, name: &str) {
        self.input.option();
        let mut source = format!("\\{name}");
        for _ in 0..if matches!(name, "SI" | "qty") { 2 } else { 1 } {
            let argument = self.input.argument();
            source.push('{');
            self.input.write(&argument, &mut source);
            source.push('}');
        }
        let text = self.doc.intern(&source);
        let formula = self.doc.add_tex(text, false);
        self.inline(Kind::Math(formula));
    }

    /// Commands of letters, rules and languages. Whether a command is one.
    fn other_structure(&mut self, name: &str) -> bool {
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
                self.references.leads_to_entries |= target.starts_with(super::references::ENTRY);
                self.styled_argument(Kind::Link { href });
            }
            "hypertarget" => {
                let target = self.input.argument();
                let target = super::references::id_of(&self.input.characters(&target));
                self.anchor(&target);
            }
            "label" => self.label(),
            "ref" | "pageref" | "vref" | "thref" | "labelcref" => self.refer(Shows::Number),
            "eqref" => self.refer(Shows::Equation),
            "autoref" | "cref" => self.refer(Shows::Word { capital: name == "autoref" }),
            "Cref" | "Autoref" => self.refer(Shows::Word { capital: true }),
            "nameref" => self.refer(Shows::Name),
            "cite" | "citep" | "citet" | "parencite" | "textcite" | "autocite" | "footcite" | "citealp" | "citealt"
            | "nocite" | "citeauthor" | "Citeauthor" | "citeyear" | "citeyearpar" | "Textcite" | "Citealp" | "Citealt"
            | "citenum" | "Citet" | "Citep" | "fullcite" | "supercite" | "onlinecite" | "shortcite" => {
                self.cite(name);
            }
            _ => return false,
        }
        true
    }
}
