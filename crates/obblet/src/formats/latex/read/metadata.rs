//! What stands before the text: definitions, the language, and what the document says of itself (the LaTeX documentation, "Titles").

use super::super::languages::language_of;
use super::Reader;
use super::tokens::{Kind, Token};
use crate::document::Presentation;
use crate::fast_hash::HashSet;

/// What the document says of itself.
#[derive(Debug, Default)]
pub(super) struct FrontMatter {
    title: String,
    /// The title as it stands, until it is in the document.
    title_tokens: Vec<Token>,
    subtitle: String,
    /// It as it stands, until it is in the document.
    subtitle_tokens: Vec<Token>,
    /// The day as it stands, and what letters have around them.
    pub(super) date_tokens: Vec<Token>,
    pub(super) letterhead: super::letters::Letterhead,
    authors: Vec<String>,
    date: String,
    keywords: String,
    pub(super) language: Option<String>,
    pub(super) class: String,
    /// Whether the body says the title, and not what stands before it.
    in_body: bool,
    /// Whether the body has begun.
    has_begun: bool,
    /// What is to stand below the title.
    pub(super) byline: super::byline::Byline,
    /// The packages that the document takes in.
    packages: HashSet<String>,
    /// Whether one of these is for examples of languages.
    pub(super) has_examples: bool,
}

/// Packages for examples of languages.
const EXAMPLES: [&str; 6] = ["gb4e", "gb4e-emulate", "langsci-gb4e", "linguex", "expex", "covington"];

impl FrontMatter {
    /// Whether the document takes in a package.
    pub(super) fn loads(&self, package: &str) -> bool {
        self.packages.contains(package)
    }

    /// Whether the body says a title.
    pub(super) const fn is_title_of_body(&self) -> bool {
        self.in_body && !self.title_tokens.is_empty()
    }

    /// A title above the one that was said, which becomes the line below.
    pub(super) fn put_above(&mut self, words: Vec<Token>, text: String) {
        self.subtitle_tokens = std::mem::replace(&mut self.title_tokens, words);
        self.subtitle = std::mem::replace(&mut self.title, text);
    }

    /// A note to the title. Whether there is one.
    pub(super) fn add_to_title(&mut self, note: &[Token], at: u32) -> bool {
        if self.title_tokens.is_empty() {
            return false;
        }
        let begin = [Kind::Command("thanks".into()), Kind::Begin].map(|kind| Token { kind, at });
        let end = [Token { kind: Kind::End, at }];
        self.title_tokens.extend(begin.into_iter().chain(note.iter().cloned()).chain(end));
        true
    }

    /// The title as text.
    pub(super) fn title(&self) -> &str {
        &self.title
    }

    /// The day as text.
    pub(super) fn date(&self) -> &str {
        &self.date
    }

    pub(super) const fn has_begun(&self) -> bool {
        self.has_begun
    }

    /// The day, where one is said.
    pub(super) fn day(&self) -> Option<Vec<Token>> {
        (!self.date.is_empty()).then(|| self.date_tokens.clone())
    }

    /// The authors behind the first few.
    pub(super) fn authors_behind(&self, known: usize) -> String {
        self.authors.get(known..).unwrap_or_default().join(", ")
    }

    /// Whether the class puts below the title what stands before it: those of publishers do.
    pub(super) fn class_has_title_first(&self) -> bool {
        const IN_PLACE: [&str; 14] = [
            "",
            "article",
            "report",
            "book",
            "letter",
            "beamer",
            "scrartcl",
            "scrreprt",
            "scrbook",
            "memoir",
            "ltxdoc",
            "minimal",
            "extarticle",
            "standalone",
        ];
        !IN_PLACE.contains(&self.class.as_str())
    }
}

impl Reader<'_> {
    /// Reads what stands before the text.
    pub(super) fn preamble(&mut self) {
        while let Some(token) = self.input.next() {
            self.at = token.at;
            let Kind::Command(name) = &token.kind else { continue };
            match &**name {
                "begin" => {
                    let argument = self.input.argument();
                    let name = self.input.characters(&argument);
                    if name == "document" {
                        self.acronyms_ahead();
                        self.front.has_begun = true;
                        return;
                    }
                    if super::environment_names::sort(name.trim_end_matches('*')) == Some(super::environment_names::Sort::File) {
                        self.made_file(&name);
                    } else {
                        self.skip_environment(&name);
                    }
                }
                "documentclass" | "LoadClass" => {
                    let options = self.input.option().unwrap_or_default();
                    let class = self.input.argument();
                    self.front.class = self.input.characters(&class);
                    if matches!(self.front.class.as_str(), "ltxdoc" | "l3doc") {
                        self.own.code_marks.push('|');
                    }
                    self.languages(&options);
                    self.take_class();
                    let mut text = String::new();
                    self.input.write(&options, &mut text);
                    self.citations_of_class(&text);
                }
                "usepackage" | "RequirePackage" => self.package(),
                "setmainlanguage" | "setdefaultlanguage" => {
                    self.input.option();
                    let name = self.input.argument();
                    self.languages(&name);
                }
                "babelprovide" => {
                    let options = self.input.option().unwrap_or_default();
                    let name = self.input.argument();
                    if self.input.characters(&options).contains("main") {
                        self.languages(&name);
                    }
                }
                "hypersetup" => {
                    let options = self.input.argument();
                    self.facts(&options);
                }
                "makeatletter" => self.input.at_is_letter = true,
                "makeatother" => self.input.at_is_letter = false,
                name if self.defines(name)
                    || self.curriculum_command(name)
                    || self.define_code(name)
                    || self.define_term(name)
                    || self.define_keyword(name)
                    || self.box_command(name)
                    || self.data_command(name)
                    || self.string_command(name)
                    || self.made_command(name)
                    || self.conditional(name)
                    || self.declare(name)
                    || !self.macros.knows(name) && self.byline_command(name) => {}
                name => {
                    let name = name.to_owned();
                    if self.macros.knows(&name) {
                        self.macros.expand(&name, token.at, &mut self.input);
                    } else if let Some(arguments) = super::vocabulary::silent(&name) {
                        // A name in them is no call.
                        self.skip_arguments(arguments);
                    } else if !super::vocabulary::is_known(&name) {
                        self.fact_that_is_not_known();
                    }
                }
            }
        }
    }

    /// What the document says of itself for other programs (the documentation of hyperref, "PDF display and information options").
    fn facts(&mut self, options: &[Token]) {
        let mut at = 0;
        while at < options.len() {
            let begin =
                options[at..].iter().position(|token| token.kind == Kind::Begin).map_or(options.len(), |found| at + found);
            let end =
                options[begin..].iter().position(|token| token.kind == Kind::End).map_or(options.len(), |found| begin + found);
            let key = self.input.characters(&options[at..begin]);
            let key = key.trim_end_matches(['=', ' ']).rsplit([',', ' ']).next().unwrap_or_default().to_owned();
            if matches!(&*key, "pdfsubject" | "pdfkeywords") && begin < end {
                let value = self.words(&options[begin + 1..end]);
                if key == "pdfsubject" {
                    self.doc.metadata.description = Some(value);
                } else {
                    self.front.keywords = value;
                }
            }
            at = end + 1;
        }
    }

    /// A package, whose options may say something of the text.
    fn package(&mut self) {
        let options = self.input.option().unwrap_or_default();
        let package = self.input.argument();
        if self.input.characters(&package) == "babel" {
            self.languages(&options);
        }
        let named = self.input.characters(&package);
        self.front.packages.extend(named.split(',').map(|name| name.trim().to_owned()));
        // Some say what is shown at all.
        for (package, option) in [("changes", "final"), ("todonotes", "disable"), ("fixme", "draft")] {
            if named.split(',').any(|name| name.trim() == package)
                && self.input.characters(&options).split(',').any(|word| word.trim() == option)
            {
                self.front.packages.insert(format!("{package} {option}"));
            }
        }
        self.front.has_examples |= EXAMPLES.iter().any(|package| self.front.loads(package));
        // Older than babel.
        if named.split(',').any(|name| matches!(name.trim(), "german" | "ngerman")) {
            self.languages(&package);
        }
        if let Some(package) = named.split(',').find_map(|name| super::citation_marks::Package::of(name.trim())) {
            let mut text = String::new();
            self.input.write(&options, &mut text);
            self.citation_package(package, &text);
        }
        let of_terms = |name: &&str| matches!(*name, "glossaries" | "glossaries-extra" | "acronym" | "acro");
        if let Some(package) = named.split(',').map(str::trim).find(of_terms) {
            let mut text = String::new();
            self.input.write(&options, &mut text);
            self.glossary_options(package, &text);
        }
        if named.split(',').any(|package| matches!(package.trim(), "caption" | "subcaption")) {
            let kind = if named.trim() == "subcaption" { Some("sub") } else { None };
            self.caption_settings(kind, &options);
        }
        if named.split(',').any(|package| package.trim() == "subfigure") {
            self.macros.keep(super::captions::OLD_PARTS.into(), Vec::new());
        }
        if named.split(',').any(|package| package.trim() == "cleveref") {
            let options = self.input.characters(&options);
            self.wording_options(&options);
        }
    }

    /// The last language that options name is that of the text.
    fn languages(&mut self, options: &[Token]) {
        let words = self.input.characters(options);
        for word in words.split(',') {
            let (word, value) = word.trim().split_once('=').unwrap_or((word.trim(), ""));
            let name = if matches!(word.trim(), "main" | "lang") { value.trim() } else { word.trim() };
            if let Some(language) = language_of(name) {
                self.front.language = Some(language.to_owned());
                self.doc.metadata.language = Some(language.to_owned());
            }
        }
    }

    /// Counts what a command that is not known says of the document, where its argument is text.
    fn fact_that_is_not_known(&mut self) {
        if !self.input.takes_begin() {
            return;
        }
        let at = self.at;
        let argument = self.input.up_to_end();
        let is_text =
            self.is_words(&argument) && !argument.iter().any(|token| token.kind.command().is_some_and(|name| name.len() > 1));
        if is_text && self.front.class != "ltxdoc" {
            let words = self.words(&argument);
            // A word alone may be the name of anything.
            let has_name = words.contains(' ') && words.split(' ').any(|word| word.starts_with(char::is_uppercase));
            if has_name {
                self.tallies.front.add_apart(at, &words);
            }
        }
        self.input.push(Kind::End, at);
        self.input.push_all(argument.into_iter());
        self.input.push(Kind::Begin, at);
    }

    /// Takes what the document says of itself, and declarations that hold for all of it. Whether a command is one of these.
    pub(super) fn declare(&mut self, name: &str) -> bool {
        match name {
            "title" => {
                self.input.option();
                let words = self.input.argument();
                // Notes to it stand with the title where that is shown.
                let known = std::mem::take(&mut self.tallies.front);
                self.front.title = self.words(&words);
                self.tallies.front = known;
                self.front.title_tokens = words;
                self.front.in_body = self.front.has_begun;
            }
            "subtitle" => {
                let words = self.input.argument();
                self.front.subtitle = self.words(&words);
                self.front.subtitle_tokens = words;
            }
            "author" | "Author" => self.author(),
            "date" => {
                self.input.option();
                let words = self.input.argument();
                self.front.date = self.words(&words);
                self.front.date_tokens = words;
            }
            name if (name == "setkomavar" || self.front.class == "letter") && self.letterhead(name) => {}
            "keywords" => self.keywords(),
            "graphicspath" => {
                let folders = self.input.argument();
                let mut text = String::new();
                self.input.write(&folders, &mut text);
                self.own.picture_folders =
                    text.split(['{', '}']).filter(|part| !part.trim().is_empty()).map(str::to_owned).collect();
            }
            "newtheorem" | "newtheorem*" | "declaretheorem" | "spnewtheorem" | "newmdtheoremenv" | "newshadetheorem"
            | "newdefinition" | "newproof" | "newtcbtheorem" => self.new_theorem(name),
            "newcolumntype" => self.new_column(),
            "newlist" | "renewlist" => self.new_list(),
            "setlist" | "setenumerate" => self.settings_of_lists(name),
            "setcitestyle" | "bibpunct" | "biboptions" => self.citation_style(name),
            _ => {
                return self.says_of_counters(name)
                    || self.style_of_theorems(name)
                    || self.says_of_captions(name)
                    || self.words_of_references(name);
            }
        }
        true
    }

    /// Takes what a document says of its counters. Whether a command says that.
    fn says_of_counters(&mut self, name: &str) -> bool {
        match name {
            "counterwithout" | "@removefromreset" => {
                self.input.take('*');
                let (inner, _) = (self.input.argument(), self.input.argument());
                let inner = self.input.characters(&inner);
                self.counters.put_alone(&inner);
            }
            "numberwithin" | "counterwithin" | "@addtoreset" => {
                self.input.take('*');
                let (inner, outer) = (self.input.argument(), self.input.argument());
                let (inner, outer) = (self.input.characters(&inner), self.input.characters(&outer));
                if name == "@addtoreset" {
                    self.counters.reset_by(&inner, &outer);
                } else {
                    self.counters.put_within(&inner, &outer);
                }
            }
            "setsecnumdepth" | "maxsecnumdepth" => {
                let name = self.input.argument();
                let name = self.input.characters(&name);
                self.counters.number_down_to(&name);
            }
            "newcounter" => {
                let counter = self.input.argument();
                let counter = self.input.characters(&counter);
                if let Some(above) = self.input.option() {
                    let above = self.input.characters(&above);
                    self.counters.reset_by(&counter, &above);
                }
            }
            "stepcounter" | "refstepcounter" => {
                let counter = self.input.argument();
                let counter = self.input.characters(&counter);
                let number = self.counters.step(&counter);
                if name == "refstepcounter" && self.front.has_begun {
                    self.references.count_here(number);
                }
            }
            "setcounter" | "addtocounter" => {
                let (counter, value) = (self.input.argument(), self.input.argument());
                let counter = self.input.characters(&counter);
                let value = self.value_of_counter(&value);
                match counter.as_str() {
                    "secnumdepth" => self.counters.depth = value,
                    "tocdepth" => {}
                    _ if name == "setcounter" => self.counters.set(&counter, value),
                    _ => self.counters.set(&counter, self.counters.get(&counter).saturating_add(value)),
                }
            }
            _ => return false,
        }
        true
    }

    /// An author, or several: they stand below the title, or here where the class of a publisher has no other place for them.
    fn author(&mut self) {
        let mark = self.input.option();
        let words = self.input.argument();
        let known = self.front.authors.len();
        if self.front.has_begun && self.front.class_has_title_first() && self.takes_blocks() && !self.is_title_ahead() {
            self.authors(&words, true);
            self.show_authors(known);
        } else {
            self.authors(&words, false);
            self.byline_author(&words, mark);
        }
    }

    /// Keywords: within the text, they are text as well.
    fn keywords(&mut self) {
        self.input.option();
        let mut words = self.input.argument();
        let parts = words.iter_mut().filter(|token| token.kind.command() == Some("and"));
        parts.for_each(|token| token.kind = Kind::Char(';'));
        self.front.keywords = self.words(&words);
        let parts = words.iter_mut().filter(|token| token.kind == Kind::Char(';'));
        parts.for_each(|token| token.kind = Kind::Command("sep".into()));
        if self.front.has_begun && self.takes_blocks() {
            self.keywords_lead_in();
            self.input.push(Kind::Par, self.at);
            self.input.push_all(words.into_iter());
        }
    }

    /// A number that tokens come to.
    fn value_of_counter(&mut self, tokens: &[Token]) -> i64 {
        self.within(tokens, |reader| reader.expression(super::registers::Sort::Number, 0)).unwrap_or(0)
    }

    /// Puts the title above the text, whose headings go down a level for it.
    pub(super) fn put_title(&mut self) {
        let words = std::mem::take(&mut self.front.title_tokens);
        if words.is_empty() || !self.takes_blocks() || self.counters.lowered > 0 {
            return;
        }
        let heading = self.block(crate::document::Kind::Heading(1));
        self.lift_title(heading);
        self.counters.lower();
        // Notes to the title are none of it, and it is one line.
        let one_line = |token: Token| match token.kind.command() {
            Some("\\" | "newline") => Token { kind: Kind::Space, ..token },
            Some("thanks") => Token { kind: Kind::Command("footnote".into()), ..token },
            _ => token,
        };
        let plain: Vec<Token> = words.into_iter().map(one_line).collect();
        let subtitle = std::mem::take(&mut self.front.subtitle_tokens);
        let has_subtitle = subtitle.iter().any(|token| !matches!(token.kind, Kind::Space | Kind::Par));
        let below = has_subtitle.then(|| {
            let below = self.block(crate::document::Kind::Paragraph);
            self.doc.move_after(heading, below);
            below
        });
        self.put_byline(below.unwrap_or(heading));
        if let Some(below) = below {
            self.read_into(below, true, subtitle);
        }
        self.read_into(heading, true, plain);
    }

    fn authors(&mut self, words: &[Token], names_alone: bool) {
        let mut one = Vec::new();
        let mut all = Vec::new();
        for token in words {
            if matches!(token.kind.command(), Some("and" | "AND" | "And")) {
                all.push(std::mem::take(&mut one));
            } else {
                one.push(token.clone());
            }
        }
        all.push(one);
        for author in all {
            let (name, below) = self.name_and_place(&author);
            let known = (!names_alone).then(|| std::mem::take(&mut self.tallies.front));
            let name = self.words(&without_marks(&name));
            let name = name.trim().trim_end_matches(',').to_owned();
            if !name.is_empty() {
                self.front.authors.push(name);
            }
            let below = self.words(&below);
            if let Some(known) = known {
                // Notes stand there, too.
                let notes = std::mem::replace(&mut self.tallies.front, known);
                self.byline_besides(below);
                self.byline_besides(notes.words());
            } else if !below.is_empty() {
                self.tallies.front.add_apart(self.at, &below);
            }
        }
    }

    /// The name of an author, and what stands below it: lines, or an argument of their own.
    fn name_and_place(&self, author: &[Token]) -> (Vec<Token>, Vec<Token>) {
        let (mut name, mut below) = (Vec::new(), Vec::new());
        let mut is_below = false;
        let mut depth = 0_usize;
        let mut place_from = None;
        for token in author {
            match token.kind.command() {
                Some("\\" | "newline") => is_below = true,
                Some("IEEEauthorblockA") => place_from = Some(depth),
                Some("IEEEauthorblockN") => (is_below, place_from) = (false, None),
                _ => {}
            }
            match token.kind {
                Kind::Begin => depth += 1,
                Kind::End => depth = depth.saturating_sub(1),
                _ => {}
            }
            if is_below || place_from.is_some() {
                below.push(token.clone())
            } else {
                name.push(token.clone())
            }
            if token.kind == Kind::End && place_from == Some(depth) {
                place_from = None;
            }
        }
        (name, below)
    }

    /// The words of tokens, without what is behind notes and with the document's own commands written out.
    pub(super) fn words(&mut self, tokens: &[Token]) -> String {
        let mut out = String::new();
        let mut inner = super::Input::of_tokens(self.input.source, tokens.iter().cloned());
        let mut steps = 0;
        while let Some(token) = inner.next() {
            steps += 1;
            if steps > 100_000 {
                break;
            }
            match &token.kind {
                Kind::Text(start, end) => out.push_str(inner.slice(*start, *end)),
                Kind::Char('`') if inner.take('`') => out.push('\u{201C}'),
                Kind::Char('\'') if inner.take('\'') => out.push('\u{201D}'),
                Kind::Char('`') => out.push('\u{2018}'),
                Kind::Char('\'') => out.push('\u{2019}'),
                Kind::Char('-') if inner.take('-') => out.push_str(if inner.take('-') { "\u{2014}" } else { "\u{2013}" }),
                Kind::Char(c) => out.push(*c),
                Kind::Space | Kind::Par => out.push(' '),
                Kind::Tie => out.push('\u{A0}'),
                Kind::Dollar => {
                    let formula: Vec<Token> =
                        std::iter::from_fn(|| inner.next().filter(|token| token.kind != Kind::Dollar)).take(1000).collect();
                    let mut source = String::new();
                    self.input.write(&formula, &mut source);
                    out.push_str(&crate::math::plain(&crate::math::tex::read(&source).0));
                }
                Kind::Command(name) => match &**name {
                    "thanks" | "footnote" | "inst" | "fnref" | "corref" | "thanksref" | "label" | "orcidlink" | "orcidID"
                    | "vspace" | "hspace" | "fontsize" | "ref" | "includegraphics" => {
                        inner.option();
                        let lost = inner.argument();
                        if matches!(&**name, "thanks" | "footnote") {
                            let words = self.input.characters(&lost);
                            self.tallies.front.add_apart(token.at, &words);
                        }
                    }
                    "\\" | "newline" | "and" => {
                        inner.take('*');
                        inner.option();
                        out.push(' ');
                    }
                    "today" => {}
                    "xspace" => {
                        let next = inner.next();
                        let letters = matches!(&next, Some(Token { kind: Kind::Text(start, end), .. })
                            if inner.slice(*start, *end).starts_with(char::is_alphanumeric));
                        inner.made.extend(next);
                        if letters {
                            out.push(' ');
                        }
                    }
                    name if self.macros.knows(name) => {
                        self.macros.expand(name, token.at, &mut inner);
                    }
                    name => {
                        if let Some(letters) = super::symbols::text(name) {
                            out.push_str(letters);
                        } else if super::accents::accented(name, "a").is_some() {
                            let base = inner.argument();
                            let base = self.letters(&base);
                            out.push_str(&super::accents::accented(name, &base).unwrap_or_default());
                        }
                    }
                },
                _ => {}
            }
        }
        out.split([' ', '\n', '\t']).filter(|word| !word.is_empty()).collect::<Vec<_>>().join(" ")
    }

    /// Puts the front matter into the metadata.
    pub(super) fn set_metadata(&mut self) {
        let front = std::mem::take(&mut self.front);
        let given = |text: String| Some(text).filter(|text| !text.is_empty());
        let metadata = &mut self.doc.metadata;
        metadata.title = given(front.title);
        metadata.subtitle = given(front.subtitle);
        metadata.date = given(front.date);
        metadata.authors = front.authors;
        metadata.keywords =
            front.keywords.split([',', ';']).map(str::trim).filter(|word| !word.is_empty()).map(str::to_owned).collect();
        let levels = self.counters.numbered_levels();
        let has_class = !front.class.is_empty() && !matches!(front.class.as_str(), "letter" | "beamer" | "scrlttr2" | "minimal");
        metadata.presentation = Presentation {
            numbered_levels: has_class.then_some(levels),
            equations_within: self.counters.equations_within(),
            has_equation_numbers: self.own.equations.are_counted,
            ..Presentation::default()
        };
    }
}

/// A name without the marks by which authors and the places where they work find each other: what is set above the line.
fn without_marks(name: &[Token]) -> Vec<Token> {
    let mut out = Vec::with_capacity(name.len());
    let mut rest = name;
    // What does not end once ends nowhere behind it.
    let mut all_end = true;
    while let Some((token, behind)) = rest.split_first() {
        let length = match (&token.kind, behind.first().map(|next| &next.kind)) {
            (Kind::Command(name), Some(Kind::Begin)) if all_end && &**name == "textsuperscript" => {
                let mut depth = 0_usize;
                let end = behind.iter().position(|token| {
                    match token.kind {
                        Kind::Begin => depth += 1,
                        Kind::End => depth = depth.saturating_sub(1),
                        _ => {}
                    }
                    depth == 0
                });
                all_end = end.is_some();
                end.map(|end| end + 1)
            }
            (Kind::Dollar, Some(Kind::Char('^'))) => {
                behind.iter().position(|token| token.kind == Kind::Dollar).map(|end| end + 1)
            }
            _ => None,
        };
        match length {
            Some(length) => rest = &behind[length..],
            None => {
                out.push(token.clone());
                rest = behind;
            }
        }
    }
    out
}
