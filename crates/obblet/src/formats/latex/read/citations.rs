//! Citations: what their commands print of the entries, which are known when all of a source is read (the LaTeX documentation, "\cite";
//! of natbib, "Basic commands"; of biblatex, "Citation commands").

use super::Reader;
use super::citation_marks::{CitationMarks, Package};
use super::tokens::{Kind as Sign, Token};
use crate::citations::Listed;
use crate::document::{CitationStyle, Kind, NodeId};
use crate::fast_hash::HashMap;

/// A note to a citation has no more tokens.
const LONGEST_NOTE: usize = 200;

/// A command cites no more entries.
const MOST_KEYS: usize = 200;

/// What a package begins the names of entries with.
pub(super) const ENTRY: &str = "cite.";

/// The command that cites without brackets within a note; no source can write its name.
const WITHIN_NOTE: &str = "cite within a note";

/// What a command of a citation prints.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Form {
    /// A label, or names and year.
    Label,
    /// The same in brackets.
    Brackets,
    /// Names, and the year or label in brackets.
    InText,
    /// Names and year with nothing between.
    NamesAndYear,
    Names,
    Year,
    YearInBrackets,
    Title,
    /// All that is printed of an entry.
    Whole,
    Number,
    Superscript,
    /// A note at the foot of the page that cites.
    Note,
}

/// What a command asks for.
#[derive(Clone, Copy, Debug)]
pub(super) struct Asked {
    pub(super) form: Form,
    /// Whether it begins a sentence.
    pub(super) is_capital: bool,
    pub(super) all_names: bool,
    /// Whether the names are those of an owner.
    pub(super) is_possessive: bool,
}

impl Asked {
    fn of(command: &str, marks: &CitationMarks) -> Self {
        let small = command.trim_end_matches('*').to_ascii_lowercase();
        let form = match small.strip_suffix('s').filter(|name| name.ends_with("cite") || *name == "citet").unwrap_or(&small) {
            "cite" => marks.plain,
            "citet" | "textcite" | "citen" if small != "citen" => Form::InText,
            "citeauthor" | "citefullauthor" => Form::Names,
            "citeyear" if marks.open == "(" && !marks.is_biblatex() && marks.plain == Form::Brackets => Form::YearInBrackets,
            "citeyear" | "citeyearnp" | "citedate" => Form::Year,
            "citea" | "citeasnoun" | "possessivecite" | "shortcitea" => Form::InText,
            _ if command == "citeN" => Form::InText,
            "citeyearpar" => Form::YearInBrackets,
            "citealt" | "citealtt" => Form::NamesAndYear,
            "citealp" | "onlinecite" | "inlinecite" | WITHIN_NOTE => Form::Label,
            "citenum" | "citen" => Form::Number,
            "citetitle" => Form::Title,
            "fullcite" => Form::Whole,
            "supercite" => Form::Superscript,
            "footcite" | "footcitetext" | "footfullcite" => Form::Note,
            "autocite" | "smartcite" => marks.automatic,
            _ if marks.plain == Form::Superscript => Form::Superscript,
            _ => Form::Brackets,
        };
        Self {
            form,
            is_capital: command.starts_with(|c: char| c.is_ascii_uppercase()),
            all_names: small.contains("full"),
            is_possessive: small == "possessivecite",
        }
    }

    /// What ends it behind its notes.
    fn close(self, marks: &CitationMarks) -> &'static str {
        match self.form {
            Form::InText if marks.is_raised() => "",
            Form::Brackets | Form::InText | Form::YearInBrackets => marks.close,
            _ => "",
        }
    }
}

/// What an entry is called.
#[derive(Clone, Debug, Default)]
pub(super) struct Called {
    pub(super) label: String,
    pub(super) names: String,
    pub(super) all_names: String,
    pub(super) year: String,
    /// Whether the label is its own, and no number.
    pub(super) is_own: bool,
}

/// An entry that is printed.
#[derive(Debug)]
pub(super) struct Printed {
    pub(super) node: NodeId,
    pub(super) called: Called,
    /// Which of all it is.
    pub(super) place: usize,
}

/// Some keys with the words around them.
#[derive(Debug, Default)]
pub(super) struct Cited {
    pub(super) before: String,
    pub(super) keys: Vec<String>,
    pub(super) behind: String,
}

/// Citations that one command makes.
#[derive(Debug)]
pub(super) struct Group {
    /// What holds the place of them.
    pub(super) span: NodeId,
    pub(super) asked: Asked,
    pub(super) cited: Vec<Cited>,
}

/// What a source cites, and what it knows of the entries.
#[derive(Debug, Default)]
pub(super) struct Citations {
    pub(super) marks: CitationMarks,
    pub(super) printed: HashMap<String, Printed>,
    /// The entries of files, with their places in the order of the style.
    pub(super) listed: HashMap<String, (usize, Listed)>,
    pub(super) groups: Vec<Group>,
    /// What entries of files are called by.
    pub(super) labels: CitationStyle,
    /// Whether links lead to entries by the names that a package gives these.
    pub(super) leads_to_entries: bool,
}

/// Whether a command cites.
pub(super) fn is_citation(name: &str) -> bool {
    const NAMES: [&str; 45] = [
        "autocite",
        "autocites",
        "cite",
        "citeA",
        "citeN",
        "citeNP",
        "citealp",
        "citealt",
        "citealtt",
        "citeaffixed",
        "citeasnoun",
        "citeauthor",
        "citedate",
        "citefullauthor",
        "citen",
        "citenum",
        "citeonline",
        "citep",
        "cites",
        "citet",
        "citetitle",
        "citeyear",
        "citeyearNP",
        "citeyearpar",
        "footcite",
        "footcites",
        "footcitetext",
        "footfullcite",
        "fullcite",
        "inlinecite",
        "nocite",
        "notecite",
        "onlinecite",
        "parencite",
        "parencites",
        "possessivecite",
        "shortcite",
        "shortciteA",
        "smartcite",
        "smartcites",
        "supercite",
        "supercites",
        "textcite",
        "textcites",
        WITHIN_NOTE,
    ];
    // Each may begin a sentence, with a capital letter.
    name.as_bytes().windows(3).any(|letters| letters == b"ite") && NAMES.iter().any(|known| known.eq_ignore_ascii_case(name))
}

fn keys_of(text: &str) -> Vec<String> {
    text.split(',').map(str::trim).filter(|key| !key.is_empty()).take(MOST_KEYS).map(str::to_owned).collect()
}

/// Whether a command that makes a mark above the line leaves it to the package where the sign stands that follows.
fn moves_sign(command: &str, marks: &CitationMarks) -> bool {
    if marks.is_biblatex() { command.to_ascii_lowercase().starts_with("auto") } else { !marks.numbers }
}

impl Citations {
    /// The entries of files, in the order of the style.
    pub(super) fn know(&mut self, entries: Vec<Listed>, labels: CitationStyle) {
        self.labels = labels;
        self.listed = entries.into_iter().enumerate().map(|(at, entry)| (entry.key.clone(), (at + 1, entry))).collect();
    }

    /// An entry of a list is printed.
    pub(super) fn name_entry(&mut self, key: String, node: NodeId, called: Called) {
        let place = self.printed.len();
        self.printed.entry(key).or_insert(Printed { node, called, place });
    }
}

impl Reader<'_> {
    /// `\citetext{see there}`
    pub(super) fn text_as_citation(&mut self) {
        let marks = self.references.citations.marks;
        self.text(marks.open);
        let words = self.input.argument();
        let at = self.at;
        let close: Vec<Token> = marks.close.chars().map(|c| Token { kind: Sign::Char(c), at }).collect();
        self.input.push_all(close.into_iter());
        self.input.push_all(words.into_iter());
    }

    /// A citation: the entries, with the notes around them.
    pub(super) fn cite(&mut self, command: &str) {
        let marks = self.references.citations.marks;
        let mut asked = Asked::of(command, &marks);
        if self.input.take('*') {
            if marks.is_biblatex() && asked.form != Form::Names {
                asked.form = match asked.form {
                    Form::Brackets if marks.plain == Form::Label => Form::YearInBrackets,
                    Form::Label if marks.plain == Form::Label => Form::Year,
                    form => form,
                };
            } else if !marks.is_biblatex() {
                asked.all_names = true;
            }
        }
        if command == "nocite" {
            self.input.argument();
            return;
        }
        let is_several = marks.is_biblatex() && command.ends_with("cites");
        if asked.form == Form::Note {
            return self.cite_in_note(command, is_several);
        }
        if is_several {
            return self.cite_several(asked);
        }
        // One package has words before in angle brackets, another has them behind.
        let words_before = if marks.package == Package::Apacite { self.input.between('<', '>') } else { None };
        let first = self.input.option();
        let second = self.input.option();
        let keys = self.input.argument();
        let keys = keys_of(&self.input.characters(&keys));
        let (before, behind) = match (first, second) {
            (Some(before), Some(behind)) => (Some(before), Some(behind)),
            (behind, _) => (words_before, behind),
        };
        let before = if command == "citeaffixed" { Some(self.input.argument()) } else { before };
        let behind = if marks.package == Package::Amsrefs && self.input.takes_character('*') {
            Some(self.input.argument())
        } else {
            behind
        };
        let before = before.map(|before| self.words(&before).trim().to_owned()).unwrap_or_default();
        if asked.form == Form::Superscript && moves_sign(command, &marks) {
            self.sign_before_mark();
        } else if asked.form == Form::Superscript && !marks.is_biblatex() {
            self.trim_line();
        }
        let close = asked.close(&marks);
        self.group(asked, vec![Cited { before, keys, behind: String::new() }]);
        let at = self.at;
        let close = close.chars().map(|c| Token { kind: Sign::Char(c), at });
        let behind = behind.filter(|behind| !behind.is_empty()).unwrap_or_default();
        if asked.form == Form::Superscript && marks.is_biblatex() {
            return;
        }
        let page = self.word_of_pages(&behind);
        if behind.len() > LONGEST_NOTE {
            // So long a one is no note; commands in it are not read a second time.
            let words = self.words(&behind);
            self.input.push_all(close);
            return self.text(&format!("{}{page}{words}", marks.before_note));
        }
        let mut rest: Vec<Token> = Vec::new();
        if !behind.is_empty() {
            let between = if asked.form == Form::Superscript { " " } else { marks.before_note };
            self.text(&format!("{between}{page}"));
            rest.extend(behind);
        }
        rest.extend(close);
        self.input.push_all(rest.into_iter());
    }

    /// Holds the place of citations.
    fn group(&mut self, asked: Asked, cited: Vec<Cited>) {
        let span = self.inline(Kind::Span);
        self.doc.set_end(span, self.at);
        self.references.citations.groups.push(Group { span, asked, cited });
    }

    /// The word before what is a page, where a package says it.
    fn word_of_pages(&self, note: &[Token]) -> String {
        if !self.references.citations.marks.is_biblatex() || note.is_empty() || note.len() > 60 {
            return String::new();
        }
        let mut text = String::new();
        self.input.write(note, &mut text);
        word_of_pages(&text, self.front.language.as_deref().unwrap_or_default())
    }

    /// A note that is to be read again; so long a one that it is none loses the commands in it, which would be read once more each.
    fn short_note(&mut self, note: Vec<Token>) -> Vec<Token> {
        if note.len() <= LONGEST_NOTE {
            return note;
        }
        let at = self.at;
        self.words(&note).chars().map(|c| Token { kind: Sign::Char(c), at }).collect()
    }

    /// A note that cites.
    fn cite_in_note(&mut self, command: &str, is_several: bool) {
        let at = self.at;
        let token = |kind| Token { kind, at };
        let is_whole = command == "footfullcite";
        let name = if is_whole { "fullcite" } else { WITHIN_NOTE };
        let mut tokens = vec![token(Sign::Command("footnote".into())), token(Sign::Begin), token(Sign::Command(name.into()))];
        if is_several {
            tokens.truncate(2);
            tokens.push(token(Sign::Command("cites".into())));
            for (open, close) in [('(', ')'), ('(', ')')] {
                if let Some(words) = self.in_parentheses() {
                    tokens.push(token(Sign::Char(open)));
                    tokens.extend(self.short_note(words));
                    tokens.push(token(Sign::Char(close)));
                }
            }
        }
        for _ in 0..if is_several { MOST_KEYS } else { 1 } {
            for _ in 0..2 {
                if let Some(option) = self.input.option() {
                    tokens.push(token(Sign::Char('[')));
                    tokens.extend(self.short_note(option));
                    tokens.push(token(Sign::Char(']')));
                }
            }
            let Some(keys) = (if is_several { self.input.group() } else { Some(self.input.argument()) }) else { break };
            tokens.push(token(Sign::Begin));
            tokens.extend(keys);
            tokens.push(token(Sign::End));
        }
        if moves_sign(command, &self.references.citations.marks) {
            self.sign_before_mark();
        }
        tokens.push(token(Sign::Char('.')));
        tokens.push(token(Sign::End));
        self.input.push_all(tokens.into_iter());
    }

    /// Marks above the line stand behind the sign that ends a part of a sentence.
    fn sign_before_mark(&mut self) {
        self.trim_line();
        if let Some(sign) = ['.', ',', ';', ':', '!', '?'].into_iter().find(|sign| self.input.takes_character(*sign)) {
            self.text(sign.encode_utf8(&mut [0; 4]));
        }
    }

    /// `\parencites(see)(there)[3]{one}[4]{other}`
    fn cite_several(&mut self, asked: Asked) {
        let marks = self.references.citations.marks;
        let first = self.in_parentheses();
        let second = self.in_parentheses();
        let (before, behind) = match (first, second) {
            (Some(before), Some(behind)) => (Some(before), Some(behind)),
            (behind, _) => (None, behind),
        };
        let mut cited = Vec::new();
        while cited.len() < MOST_KEYS {
            let (first, second) = (self.input.option(), self.input.option());
            let Some(keys) = self.input.group() else { break };
            let keys = keys_of(&self.input.characters(&keys));
            let (pre, post) = match (first, second) {
                (Some(pre), Some(post)) => (Some(pre), Some(post)),
                (post, _) => (None, post),
            };
            let before = pre.map(|words| self.words(&words).trim().to_owned()).unwrap_or_default();
            let behind = post.map(|words| self.word_of_pages(&words) + self.words(&words).trim()).unwrap_or_default();
            cited.push(Cited { before, keys, behind });
        }
        if let Some(words) = before
            && let Some(first) = cited.first_mut()
        {
            let words = self.words(&words);
            first.before = format!("{} {}", words.trim(), first.before).trim().to_owned();
        }
        if let Some(words) = behind
            && let Some(last) = cited.last_mut()
        {
            let words = self.words(&words);
            let between = if last.behind.is_empty() { "" } else { marks.before_note };
            last.behind = format!("{}{between}{}", last.behind, words.trim());
        }
        let close = asked.close(&marks);
        self.group(asked, cited);
        self.text(close);
    }

    /// `\citelist{\cite{one}\cite{other}*{p. 3}}`
    pub(super) fn list_of_citations(&mut self) {
        let marks = self.references.citations.marks;
        let tokens = self.input.argument();
        let mut rest = super::Input::of_tokens(self.input.source, tokens.into_iter());
        let mut cited: Vec<Cited> = Vec::new();
        while let Some(token) = rest.next()
            && cited.len() < MOST_KEYS
        {
            if !token.kind.command().is_some_and(is_citation) {
                continue;
            }
            let keys = rest.argument();
            let keys = keys_of(&rest.characters(&keys));
            let note = if rest.takes_character('*') { rest.argument() } else { Vec::new() };
            cited.push(Cited { before: String::new(), keys, behind: self.words(&note).trim().to_owned() });
        }
        let asked = Asked { form: Form::Brackets, is_capital: false, all_names: false, is_possessive: false };
        self.group(asked, cited);
        self.text(marks.close);
    }

    /// What stands in parentheses that come next.
    fn in_parentheses(&mut self) -> Option<Vec<Token>> {
        self.input.between('(', ')')
    }
}

/// `p.` or `pp.`, where a note is a page or several, with the space behind.
fn word_of_pages(note: &str, language: &str) -> String {
    let words = crate::citations::Words::of(language);
    let note = note.trim();
    let is_number = |part: &str| {
        let part = part.trim();
        !part.is_empty()
            && (part.bytes().all(|byte| byte.is_ascii_digit()) || part.bytes().all(|byte| b"ivxlcIVXLC".contains(&byte)))
    };
    if !note.split(['-', ',', '–']).filter(|part| !part.is_empty()).all(is_number) || note.is_empty() {
        return String::new();
    }
    let word = if note.contains(['-', ',', '–']) { words.pages } else { words.page };
    format!("{word}\u{A0}")
}
