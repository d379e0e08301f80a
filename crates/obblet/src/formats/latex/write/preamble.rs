//! The preamble: the class, and those packages and definitions that the text needs.

use super::super::languages::name_of;
use super::super::own_commands::{ABBREVIATION, COMMANDS, DETAILS, ENVIRONMENTS, INTERLINEAR_GLOSS, LINES, ROW_HEADING};
use super::Writer;
use super::escape::{is_in_fonts, is_right_to_left};
use super::numbers::FLOATS;
use crate::document::{Direction, Kind};
use std::collections::BTreeSet;
use std::fmt::Write;

/// What the text needs of the preamble.
#[derive(Debug, Default)]
pub(super) struct Needs {
    /// Packages, by their names.
    pub(super) packages: BTreeSet<&'static str>,
    /// Commands and environments of [`super::super::own_commands`].
    pub(super) own: BTreeSet<&'static str>,
    /// Environments and commands that stand for classes.
    pub(super) environments: BTreeSet<String>,
    pub(super) commands: BTreeSet<String>,
    /// Environments of theorems, with the words that they begin with.
    pub(super) theorems: super::theorems::Theorems,
    /// Languages of parts of the text.
    pub(super) languages: BTreeSet<String>,
    /// Languages of code that no package knows.
    pub(super) code_languages: BTreeSet<String>,
    /// Characters of code beyond ASCII.
    pub(super) code_characters: BTreeSet<char>,
    fonts: Fonts,
    extras: BTreeSet<Extra>,
    /// Definitions of commands in formulas.
    pub(super) math: BTreeSet<&'static str>,
}

/// Something else that text can need.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Extra {
    /// Quotation marks and hyphens that the engine would change.
    ExactMarks,
    /// Code has characters that the usual fonts lack.
    CodeFonts,
    /// Lists stand deeper than the engine allows.
    DeepLists,
    /// Images that are not there.
    MissingImages,
    /// Citations stand in parentheses.
    RoundCitations,
    /// A comma is between the names of citations and the year.
    CommasBeforeYears,
    /// Citations are parted by commas.
    CommasBetweenCitations,
    /// Numbers of citations stand above the line.
    RaisedCitations,
    /// Numbers of citations are in ranges.
    RangesOfCitations,
}

/// What fonts must have.
#[derive(Debug, Default)]
struct Fonts {
    others: bool,
    east_asian: bool,
    right_to_left: bool,
}

impl Needs {
    /// Notes that something is needed, where it is.
    pub(super) fn add(&mut self, extra: Extra, is_needed: bool) {
        if is_needed {
            self.extras.insert(extra);
        }
    }

    fn has(&self, extra: Extra) -> bool {
        self.extras.contains(&extra)
    }

    /// Notes a character of the text.
    pub(super) const fn see(&mut self, c: char) {
        if !is_in_fonts(c) {
            self.fonts.others = true;
            self.fonts.right_to_left |= is_right_to_left(c);
            self.fonts.east_asian |= matches!(c, '\u{2E80}'..='\u{9FFF}' | '\u{AC00}'..='\u{D7AF}' | '\u{F900}'..='\u{FAFF}' | '\u{FF00}'..='\u{FFEF}' | '\u{20000}'..='\u{3FFFF}');
        }
    }
}

/// Languages of code that the package for it knows.
const CODE_LANGUAGES: [&str; 26] = [
    "awk",
    "bash",
    "c",
    "c++",
    "cobol",
    "fortran",
    "gnuplot",
    "haskell",
    "html",
    "java",
    "lisp",
    "lua",
    "make",
    "mathematica",
    "matlab",
    "ml",
    "octave",
    "pascal",
    "perl",
    "php",
    "prolog",
    "python",
    "r",
    "ruby",
    "sql",
    "xml",
];

/// Whether a word can be the name of a language of code.
pub(super) fn code_language(word: &str) -> Option<(&str, bool)> {
    let is_name = !word.is_empty() && word.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'+' | b'-'));
    is_name.then(|| (word, CODE_LANGUAGES.contains(&&*word.to_ascii_lowercase())))
}

/// Definitions of commands that formulas may have and packages lack.
pub(super) const MATH_DEFINITIONS: [(&str, &str); 13] = [
    ("degree", "\\providecommand{\\degree}{{}^{\\circ}}"),
    ("celsius", "\\providecommand{\\celsius}{{}^{\\circ}\\mathrm{C}}"),
    ("iddots", "\\providecommand{\\iddots}{\\adots}"),
    ("permil", "\\providecommand{\\permil}{\\text{\u{2030}}}"),
    ("Alpha", "\\providecommand{\\Alpha}{\\mathrm{A}}"),
    ("nplus", "\\providecommand{\\nplus}{\\not+}"),
    ("llbracket", "\\providecommand{\\llbracket}{\\lBrack}"),
    ("rrbracket", "\\providecommand{\\rrbracket}{\\rBrack}"),
    ("sfrac", "\\usepackage{xfrac}"),
    ("angstrom", "\\providecommand{\\angstrom}{\\text{\\AA}}"),
    ("cancel", "\\usepackage{cancel}"),
    ("bcancel", "\\usepackage{cancel}"),
    ("xcancel", "\\usepackage{cancel}"),
];

impl Writer<'_> {
    /// All that stands before the text.
    pub(super) fn preamble(&self) -> String {
        let mut out = String::new();
        if let Some(own) = self.given.text {
            out.push_str(own.trim_end());
            out.push('\n');
            self.packages(own, &mut out);
            if self.needs.own.contains(ROW_HEADING.0) && !own.contains("\\rowheading") {
                let _ = writeln!(out, "\\newcommand{{\\{}}}[1]{{{}}}", ROW_HEADING.0, ROW_HEADING.1);
            }
            self.title_lines(&mut out);
            return out;
        }
        out.push_str(&self.class());
        self.fonts(&mut out);
        self.babel(&mut out);
        self.packages("", &mut out);
        self.equations_within(&mut out);
        self.own_numbers(&mut out);
        self.definitions(&mut out);
        self.title_lines(&mut out);
        out
    }

    /// The options of the package for citations.
    fn options_of_citations(&self) -> &'static str {
        let has = |extra| self.needs.has(extra);
        if has(Extra::RaisedCitations) {
            return if has(Extra::RangesOfCitations) { "[super,sort&compress]" } else { "[super]" };
        }
        match (has(Extra::RoundCitations), has(Extra::CommasBetweenCitations)) {
            (true, true) => "[comma]",
            (true, false) => "",
            (false, true) => "[square,comma]",
            (false, false) => "[square]",
        }
    }

    /// Loads the packages that the text needs and that are not named in `known`.
    fn packages(&self, known: &str, out: &mut String) {
        let is_known = |package: &str| known.split(['{', '}', ',']).any(|word| word.trim() == package);
        for package in [
            "amsmath",
            "amssymb",
            "mathtools",
            "unicode-math",
            "csquotes",
            "array",
            "booktabs",
            "longtable",
            "multirow",
            "enumitem",
            "graphicx",
            "float",
            "caption",
            "subcaption",
            "listings",
            "xcolor",
            "luacolor",
            "lua-ul",
            "amsthm",
            "natbib",
            "cite",
        ] {
            if self.needs.packages.contains(package) && !is_known(package) {
                let options = match package {
                    "lua-ul" => "[soul]",
                    "natbib" => self.options_of_citations(),
                    "unicode-math" if self.needs.packages.contains("mathtools") => {
                        "[warnings-off={mathtools-colon, mathtools-overbracket}]"
                    }
                    _ => "",
                };
                let _ = writeln!(out, "\\usepackage{options}{{{package}}}");
                if package == "natbib" && !self.needs.has(Extra::CommasBeforeYears) && !self.needs.has(Extra::RaisedCitations) {
                    // The text has no comma between names and year.
                    out.push_str("\\setcitestyle{aysep={}}\n");
                }
            }
        }
        if self.needs.packages.contains("hyperref") && !is_known("hyperref") {
            out.push_str("\\usepackage[hidelinks]{hyperref}\n");
        }
    }

    /// Says where equations are counted anew, where that is not as usual.
    fn equations_within(&self, out: &mut String) {
        if self.numbers.equations.within {
            out.push_str("\\numberwithin{equation}{section}\n");
        }
        if let Some(before) = &self.numbers.equations.before {
            let _ = writeln!(out, "\\renewcommand{{\\theequation}}{{{before}\\arabic{{equation}}}}");
        }
        let levels = self.doc.metadata.presentation.equations_within.filter(|_| self.needs.packages.contains("amsmath"));
        let Some((first, last)) = levels else { return };
        let names = &["chapter", "section", "subsection", "subsubsection"][usize::from(!self.has_chapters)..];
        if let Some(name) = names.get(usize::from(last - first.min(last))).filter(|name| **name != "chapter") {
            let _ = writeln!(out, "\\numberwithin{{equation}}{{{name}}}");
        }
    }

    /// Says how headings and captions are numbered, where that is not as usual.
    fn own_numbers(&self, out: &mut String) {
        for command in self.numbers.own.commands(self.has_chapters) {
            let _ = writeln!(out, "{command}");
        }
        for (look, kind) in self.numbers.looks.iter().zip(FLOATS) {
            if look.as_ref().is_some_and(|look| look.is_roman) {
                let _ = writeln!(out, "\\renewcommand{{\\the{kind}}}{{\\Roman{{{kind}}}}}");
            }
        }
        for definition in self.numbers.definitions_of_floats() {
            let _ = writeln!(out, "{definition}");
        }
        for settings in self.numbers.settings_of_captions(self.doc) {
            let _ = writeln!(out, "{settings}");
        }
    }

    fn class(&self) -> String {
        let class = self.settings.class.trim();
        if class.is_empty() {
            return format!("\\documentclass{{{}}}\n", if self.has_chapters { "report" } else { "article" });
        }
        match class.rsplit_once(']') {
            Some((options, class)) => format!("\\documentclass{options}]{{{}}}\n", class.trim()),
            None => format!("\\documentclass{{{class}}}\n"),
        }
    }

    fn fonts(&self, out: &mut String) {
        let needs = &self.needs;
        let falls_back = needs.fonts.others || needs.has(Extra::CodeFonts);
        if !needs.has(Extra::ExactMarks) && !falls_back {
            return;
        }
        out.push_str("\\usepackage{fontspec}\n");
        if falls_back {
            out.push_str("% Characters that the fonts lack come from others.\n\\newcommand{\\fallbackfonts}{}\n");
            out.push_str("\\newcommand{\\fallbackfont}[1]{\\IfFontExistsTF{#1}{\\edef\\fallbackfonts{\\fallbackfonts\"#1:mode=harf;\",}}{}}\n");
            out.push_str("\\fallbackfont{DejaVu Sans}\n");
            if needs.fonts.east_asian {
                out.push_str("\\fallbackfont{Noto Serif CJK SC}\n");
            }
            out.push_str("\\newcommand{\\fallback}{}\n\\ifx\\fallbackfonts\\empty\\else\n");
            out.push_str("  \\directlua{luaotfload.add_fallback(\"others\", {\\fallbackfonts})}\n  \\renewcommand{\\fallback}{fallback=others}\n\\fi\n");
        }
        let mut options = Vec::new();
        if needs.has(Extra::ExactMarks) {
            options.push("Ligatures=TeXOff");
        }
        if falls_back {
            options.push("RawFeature={\\fallback}");
        }
        let _ = writeln!(out, "\\setmainfont{{Latin Modern Roman}}[{}]", options.join(", "));
        if needs.has(Extra::CodeFonts) {
            out.push_str("\\setmonofont{Latin Modern Mono}[RawFeature={\\fallback}, BoldFont=lmmonolt10-bold.otf]\n");
        }
    }

    fn babel(&self, out: &mut String) {
        let metadata = &self.doc.metadata;
        let main = metadata.language.as_deref().and_then(name_of);
        let is_right_to_left = self.needs.fonts.right_to_left || metadata.direction == Some(Direction::RightToLeft);
        if main.is_none() && self.needs.languages.is_empty() && !is_right_to_left {
            return;
        }
        let mut options = vec!["english"];
        let main = main.unwrap_or("english");
        if main != "english" && self.needs.languages.contains("english") {
            // The last one is that of the text; the others come from files of another form.
        }
        if is_right_to_left {
            options.push("bidi=basic");
        }
        let _ = writeln!(out, "\\usepackage[{}]{{babel}}", options.join(", "));
        if main != "english" {
            let _ = writeln!(out, "\\babelprovide[import, main]{{{main}}}");
        }
        for other in self.needs.languages.iter().filter(|other| *other != main && *other != "english") {
            let _ = writeln!(out, "\\babelprovide[import]{{{other}}}");
        }
    }

    fn definitions(&self, out: &mut String) {
        let needs = &self.needs;
        if needs.packages.contains("listings") {
            out.push_str("\\lstset{basicstyle=\\ttfamily, keywordstyle={}, columns=fullflexible, keepspaces, breaklines, showstringspaces=false");
            if !needs.code_characters.is_empty() {
                out.push_str(",\n  literate=");
                for c in &needs.code_characters {
                    let _ = write!(out, "{{{c}}}{{{{{c}}}}}1 ");
                }
            }
            out.push_str("}\n");
            for language in &needs.code_languages {
                let _ = writeln!(out, "\\lstdefinelanguage{{{language}}}{{}}");
            }
        }
        if needs.has(Extra::DeepLists) {
            out.push_str("\\setlistdepth{40}\n");
            for (list, label) in [("itemize", "\\textbullet"), ("enumerate", "\\arabic*.")] {
                let _ = writeln!(out, "\\renewlist{{{list}}}{{{list}}}{{40}}\n\\setlist[{list}]{{label={label}}}");
            }
        }
        for (name, definition) in MATH_DEFINITIONS {
            if needs.math.contains(name) {
                let _ = writeln!(out, "{definition}");
            }
        }
        for own in COMMANDS.iter().filter(|own| needs.own.contains(own.name)) {
            let _ = writeln!(out, "\\newcommand{{\\{}}}[1]{{{}}}", own.name, own.definition);
        }
        if needs.own.contains(ROW_HEADING.0) {
            let _ = writeln!(out, "\\newcommand{{\\{}}}[1]{{{}}}", ROW_HEADING.0, ROW_HEADING.1);
        }
        if needs.own.contains(ABBREVIATION.0) {
            let _ = writeln!(out, "\\newcommand{{\\{}}}[2][]{{{}}}", ABBREVIATION.0, ABBREVIATION.1);
        }
        if needs.own.contains(DETAILS.0) {
            let _ = writeln!(out, "\\newenvironment{{{}}}[1]{{{}}}{{{}}}", DETAILS.0, DETAILS.1, DETAILS.2);
        }
        if needs.own.contains(LINES.0) {
            let _ = writeln!(out, "\\newenvironment{{{}}}{{{}}}{{{}}}", LINES.0, LINES.1, LINES.2);
        }
        if needs.own.contains(INTERLINEAR_GLOSS.0) {
            let (name, begin, end) = INTERLINEAR_GLOSS;
            let _ = writeln!(out, "\\newenvironment{{{name}}}[1]{{{begin}}}{{{end}}}");
        }
        for own in ENVIRONMENTS.iter().filter(|own| needs.own.contains(own.name)) {
            let _ = writeln!(out, "\\newenvironment{{{}}}{{{}}}{{{}}}", own.name, own.begin, own.end);
        }
        for definition in needs.theorems.definitions() {
            let _ = writeln!(out, "{definition}");
        }
        for name in &needs.environments {
            let _ = writeln!(out, "\\newenvironment{{{name}}}{{}}{{}}");
        }
        for name in &needs.commands {
            let _ = writeln!(out, "\\newcommand{{\\{name}}}[1]{{#1}}");
        }
        if needs.has(Extra::MissingImages) {
            out.push_str(
                "% Images that are not there are frames with their names.\n\\NewCommandCopy{\\graphics}{\\includegraphics}\n",
            );
            out.push_str("\\RenewDocumentCommand{\\includegraphics}{O{} m}{\\IfFileExists{#2}{\\graphics[#1]{#2}}{\\fbox{\\ttfamily\\detokenize{#2}}}}\n");
        }
        for (name, line) in self.used_macros() {
            // Packages have commands of such names, or what is renewed is one of a package that is not here.
            if line.starts_with("\\renewcommand") || name.len() == 1 && line.starts_with("\\newcommand") {
                let renewed = line.replacen("\\newcommand", "\\renewcommand", 1);
                let _ = writeln!(out, "\\providecommand{{\\{name}}}{{}}{renewed}");
            } else {
                out.push_str(line);
                out.push('\n');
            }
        }
        if let Some(levels) = self.numbers_levels() {
            let _ = writeln!(out, "\\setcounter{{secnumdepth}}{{{levels}}}");
        }
    }

    /// Definitions of the document that its formulas use, and those that these use.
    fn used_macros(&self) -> Vec<(&str, &str)> {
        let lines = self.doc.metadata.macros.lines().map(str::trim);
        let mut defined: Vec<(&str, &str, bool)> = lines.filter_map(|line| Some((defined(line)?, line, false))).collect();
        let mut wanted: crate::fast_hash::HashSet<&str> = self.math_commands.iter().map(String::as_str).collect();
        // What stands further down uses what stands above.
        for (name, line, is_used) in defined.iter_mut().rev() {
            if wanted.contains(name) {
                *is_used = true;
                wanted.extend(super::formulas::commands(line));
            }
        }
        defined.into_iter().filter(|(.., is_used)| *is_used).map(|(name, line, _)| (name, line)).collect()
    }

    /// How many levels of headings have numbers, where that is not as the class has it.
    fn numbers_levels(&self) -> Option<u8> {
        let usual = if self.has_chapters { 2 } else { 3 };
        let levels = match self.doc.metadata.presentation.numbered_levels {
            Some(0) | None if self.numbers.own.of.is_empty() => return Some(0),
            Some(0) | None => return None,
            Some(levels) => levels.saturating_sub(u8::from(self.has_chapters)),
        };
        let level = |kind: Kind| match kind {
            Kind::Heading(level) => level.saturating_sub(self.front.lowered).saturating_sub(u8::from(self.has_chapters)),
            _ => 0,
        };
        let deepest =
            self.doc.nodes().filter(|(_, node)| node.parent().is_some()).map(|(_, node)| level(node.kind())).max().unwrap_or(0);
        (levels != usual && deepest > levels.min(usual)).then_some(levels)
    }

    fn title_lines(&self, out: &mut String) {
        // What the preamble of another document says already stands there.
        let is_said = |line: &str| {
            let command = line.split('{').next().unwrap_or(line);
            self.given.text.is_some_and(|own| own.contains(&format!("{command}{{")) || own.contains(&format!("{command}[")))
        };
        for line in self.front.lines.iter().filter(|line| !is_said(line)) {
            out.push_str(line);
            out.push('\n');
        }
    }
}

/// The name of the command that a line defines.
fn defined(line: &str) -> Option<&str> {
    const DEFINES: [&str; 8] = [
        "newcommand",
        "renewcommand",
        "providecommand",
        "DeclareMathOperator",
        "def",
        "let",
        "NewDocumentCommand",
        "RenewDocumentCommand",
    ];
    let is_whole = line.matches('{').count() == line.matches('}').count();
    let rest = line.strip_prefix('\\').filter(|_| is_whole)?;
    let (command, rest) = rest.split_at(rest.find(|c: char| !c.is_ascii_alphabetic()).unwrap_or(rest.len()));
    let name = rest.trim_start_matches(['*', '{', ' ']).strip_prefix('\\').filter(|_| DEFINES.contains(&command))?;
    Some(&name[..name.find(|c: char| !c.is_ascii_alphabetic()).unwrap_or(name.len())]).filter(|name| !name.is_empty())
}
