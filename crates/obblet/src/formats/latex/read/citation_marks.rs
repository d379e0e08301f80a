//! How packages set citations: their brackets, what stands between them, and how numbers are sorted and joined (the documentation of
//! natbib, "Selecting citation punctuation"; of cite; of biblatex, "Standard styles").

use super::Reader;
use super::citations::Form;
use crate::document::{BibliographyStyle, CitationStyle};

/// What entries are called in the text.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum CalledBy {
    /// Their labels, or names and year, whatever the list has.
    #[default]
    Label,
    /// Names and title.
    Title,
    /// All that is printed of them for the first time, names and title then.
    Whole,
}

/// A package whose commands cite.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum Package {
    /// The engine's own command alone.
    #[default]
    None,
    Amsrefs,
    Apacite,
    Biblatex,
    Chicago,
    Cite,
    Harvard,
    Natbib,
}

impl Package {
    pub(super) fn of(name: &str) -> Option<Self> {
        Some(match name {
            "amsrefs" => Self::Amsrefs,
            "apacite" => Self::Apacite,
            "biblatex" => Self::Biblatex,
            "chicago" => Self::Chicago,
            "cite" => Self::Cite,
            "harvard" => Self::Harvard,
            "natbib" => Self::Natbib,
            _ => return None,
        })
    }
}

/// How citations are set.
#[derive(Clone, Copy, Debug)]
pub(super) struct CitationMarks {
    pub(super) package: Package,
    pub(super) open: &'static str,
    pub(super) close: &'static str,
    /// What stands between citations, between names and year, and before a note.
    pub(super) between: &'static str,
    pub(super) before_year: &'static str,
    pub(super) before_note: &'static str,
    /// What the plain command prints, and the one that leaves it to the style.
    pub(super) plain: Form,
    pub(super) automatic: Form,
    pub(super) called_by: CalledBy,
    /// Whether entries are counted, though their labels have names and years.
    pub(super) numbers: bool,
    /// Whether citations are sorted as the list is.
    pub(super) sorts: bool,
    /// Whether three numbers that follow each other are a range, and names that come again are left out.
    pub(super) joins: bool,
    /// What joins the last of several names in brackets.
    pub(super) and: &'static str,
}

impl Default for CitationMarks {
    fn default() -> Self {
        Self {
            package: Package::None,
            open: "[",
            close: "]",
            between: ", ",
            before_year: " ",
            before_note: ", ",
            plain: Form::Brackets,
            automatic: Form::Brackets,
            called_by: CalledBy::Label,
            numbers: false,
            sorts: false,
            joins: false,
            and: "and",
        }
    }
}

/// What signs of settings are as text that does not end.
fn sign(text: &str) -> &'static str {
    match text.trim().trim_matches(['{', '}']).trim() {
        "(" => "(",
        ")" => ")",
        "[" => "[",
        "]" => "]",
        "," => ", ",
        ";" => "; ",
        ":" => ": ",
        "<" => "<",
        ">" => ">",
        "" => "",
        _ => " ",
    }
}

impl CitationMarks {
    const fn by_numbers(mut self) -> Self {
        (self.numbers, self.between, self.plain) = (true, ", ", Form::Brackets);
        self
    }

    const fn superscript(mut self) -> Self {
        (self.numbers, self.plain, self.automatic) = (true, Form::Superscript, Form::Superscript);
        self
    }

    /// Whether lists of names end with "and", and notes say what is a page.
    pub(super) fn is_biblatex(&self) -> bool {
        self.package == Package::Biblatex
    }

    /// Whether numbers stand above the line, behind names too.
    pub(super) fn is_raised(&self) -> bool {
        self.plain == Form::Superscript && !self.is_biblatex()
    }

    fn brackets(&mut self, open: &str, close: &str) {
        (self.open, self.close) = (sign(open), sign(close));
    }
}

impl Reader<'_> {
    /// Packages for citations say how these are set.
    pub(super) fn citation_package(&mut self, package: Package, options: &str) {
        // The first one is the one that is loaded.
        if self.references.citations.marks.package != Package::None && package != Package::Cite {
            return;
        }
        let has = |name: &str| options.split([',', '{', '}', ' ']).any(|option| option.trim() == name);
        let marks = match package {
            Package::Natbib => self.marks_of_natbib(&has),
            Package::Biblatex => marks_of_biblatex(options),
            Package::Apacite => CitationMarks { before_year: ", ", and: "&", ..marks_by_names() },
            Package::Harvard => CitationMarks { and: "&", ..marks_by_names() },
            Package::Chicago => marks_by_names(),
            Package::Amsrefs | Package::None => CitationMarks::default(),
            Package::Cite => {
                let mut marks = CitationMarks { sorts: !has("nosort"), joins: !has("nocompress"), ..CitationMarks::default() };
                if self.front.class == "IEEEtran" {
                    (marks.between, marks.joins) = ("], [", true);
                }
                if has("super") || has("superscript") {
                    marks.plain = Form::Superscript;
                }
                marks
            }
        };
        self.references.citations.marks = CitationMarks { package, ..marks };
    }

    /// Some classes have a package for citations with them.
    pub(super) fn citations_of_class(&mut self, options: &str) {
        match self.front.class.as_str() {
            "revtex4" | "revtex4-1" | "revtex4-2" | "acmart" => self.citation_package(Package::Natbib, "numbers,sort&compress"),
            "elsarticle" => self.citation_package(Package::Natbib, options),
            "IEEEtran" => self.references.citations.marks.between = "], [",
            _ => {}
        }
    }

    fn marks_of_natbib(&self, has: &dyn Fn(&str) -> bool) -> CitationMarks {
        let source = self.input.source;
        let mut marks = CitationMarks {
            sorts: has("sort") || has("sort&compress"),
            joins: has("sort&compress") || has("compress"),
            ..CitationMarks::default()
        };
        let style = super::cited_keys::style_of(source).ok();
        let is_year =
            |rest: &str| rest.split(']').next().is_some_and(|label| label.contains('(') || label.contains("citeauthoryear"));
        let by_label = || source.split("\\bibitem[").skip(1).take(3).any(is_year);
        let by_names = has("authoryear") || style.is_some_and(|style| style.labels == CitationStyle::AuthorYear) || by_label();
        if has("super") {
            return marks.superscript();
        }
        if has("numbers") || !by_names {
            marks = if has("numbers") { marks.by_numbers() } else { marks };
            if has("round") {
                marks.brackets("(", ")");
            }
            return marks;
        }
        // Styles of that package have brackets of their own, where no option names others.
        let named = super::cited_keys::name_of_style(source);
        let has_square = named.is_some_and(|name| ["plainnat", "abbrvnat", "unsrtnat"].contains(&name));
        let is_set = ["round", "square", "curly", "angle", "comma", "semicolon", "colon"].iter().any(|option| has(option));
        (marks.open, marks.close, marks.between) = if has_square && !is_set { ("[", "]", ", ") } else { ("(", ")", "; ") };
        if has("square") {
            marks.brackets("[", "]");
        }
        if has("comma") {
            marks.between = ", ";
        }
        marks.before_year = ", ";
        marks.plain = Form::InText;
        marks
    }

    /// `\setcitestyle{square,aysep={}}`, and the older `\bibpunct`.
    pub(super) fn citation_style(&mut self, name: &str) {
        let marks_of = |marks: &mut CitationMarks, key: &str, value: &str| match key {
            "open" => marks.open = sign(value),
            "close" => marks.close = sign(value),
            "citesep" => marks.between = sign(value),
            "aysep" => marks.before_year = if sign(value).is_empty() { " " } else { sign(value) },
            "notesep" => marks.before_note = sign(value),
            _ => {}
        };
        if name == "bibpunct" {
            self.input.option();
            let arguments: Vec<String> = (0..6)
                .map(|_| {
                    let argument = self.input.argument();
                    self.input.characters(&argument)
                })
                .collect();
            let mut marks = self.references.citations.marks;
            for (key, value) in ["open", "close", "citesep", "mode", "aysep"].into_iter().zip(&arguments) {
                marks_of(&mut marks, key, value);
            }
            match arguments[3].as_str() {
                "s" => marks = marks.superscript(),
                "n" => marks = CitationMarks { open: marks.open, close: marks.close, ..marks.by_numbers() },
                _ => {}
            }
            self.references.citations.marks = marks;
            return;
        }
        let options = self.input.argument();
        let mut text = String::new();
        self.input.write(&options, &mut text);
        let marks = &mut self.references.citations.marks;
        // A comma within braces is a value.
        let mut depth = 0;
        let parts = text.split(|c: char| {
            depth += i32::from(c == '{') - i32::from(c == '}');
            c == ',' && depth == 0
        });
        for option in parts.map(str::trim) {
            match option {
                "square" => marks.brackets("[", "]"),
                "round" => marks.brackets("(", ")"),
                "semicolon" => marks.between = "; ",
                "comma" => marks.between = ", ",
                "numbers" => *marks = marks.by_numbers(),
                "super" => *marks = marks.superscript(),
                "authoryear" => {
                    (marks.numbers, marks.plain, marks.before_year) = (false, Form::InText, ", ");
                }
                option => {
                    if let Some((key, value)) = option.split_once('=') {
                        marks_of(marks, key.trim(), value);
                    }
                }
            }
        }
    }
}

fn marks_by_names() -> CitationMarks {
    CitationMarks { open: "(", close: ")", between: "; ", ..CitationMarks::default() }
}

fn marks_of_biblatex(options: &str) -> CitationMarks {
    let style = BibliographyStyle::of_biblatex(options);
    let value = |name: &str| {
        options
            .split(',')
            .filter_map(|option| option.split_once('='))
            .find(|(key, _)| key.trim() == name)
            .map(|(_, value)| value.trim())
    };
    let named = value("citestyle").or_else(|| value("style")).unwrap_or("numeric");
    let is_apa = named.starts_with("apa");
    let mut marks = CitationMarks {
        and: if is_apa { "&" } else { "and" },
        sorts: named.contains("comp") || value("sortcites").is_some_and(|value| value != "false"),
        joins: named.contains("comp"),
        ..CitationMarks::default()
    };
    if named.starts_with("verbose") || named.starts_with("reading") {
        marks.called_by = CalledBy::Whole;
    } else if named.starts_with("authortitle") {
        marks.called_by = CalledBy::Title;
    }
    match style.labels {
        CitationStyle::AuthorYear | CitationStyle::AuthorTitle => {
            (marks.open, marks.close, marks.between, marks.plain) = ("(", ")", "; ", Form::Label);
            if is_apa || options.contains("natbib") {
                marks.before_year = ", ";
            }
            if !named.starts_with("authoryear") && !is_apa {
                marks.automatic = Form::Note;
            }
        }
        CitationStyle::Letters => marks.between = "; ",
        CitationStyle::Numbers => {
            if named.starts_with("ieee") {
                (marks.between, marks.sorts, marks.joins) = ("], [", true, true);
            }
        }
    }
    match value("autocite") {
        Some("footnote") => marks.automatic = Form::Note,
        Some("superscript") => marks.automatic = Form::Superscript,
        Some("inline") => marks.automatic = Form::Brackets,
        Some("plain") => marks.automatic = Form::Label,
        _ => {}
    }
    marks
}
