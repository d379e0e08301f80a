//! Who wrote a document, where they work, and when: what stands below its title (the LaTeX documentation, "Titles"; those of amsart,
//! authblk, IEEEtran and llncs).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{BYLINE, DivisionKind, Kind, NodeId};

/// Commands before the text whose argument stands below the title.
const BELOW: [&str; 19] = [
    "address",
    "affil",
    "publishers",
    "affiliation",
    "altaffiliation",
    "authornote",
    "collaboration",
    "curraddr",
    "dedicatory",
    "ead",
    "email",
    "homepage",
    "institute",
    "institution",
    "orcid",
    "place",
    "thanks",
    "university",
    "urladdr",
];

/// What is to stand below the title.
#[derive(Debug, Default)]
pub(super) struct Byline {
    /// Paragraphs, in their order.
    paragraphs: Vec<Vec<Token>>,
    /// Where the title is shown last, once it has been looked for.
    title: Option<usize>,
    /// What is in them besides the names of authors, and where that stands.
    besides: Vec<(u32, String)>,
}

impl Reader<'_> {
    /// An author, with marks that lead to where they work.
    pub(super) fn byline_author(&mut self, words: &[Token], mark: Option<Vec<Token>>) {
        let mut paragraph = Vec::new();
        let mut authors: Vec<Vec<Token>> = Vec::new();
        for token in words {
            let token = token.clone();
            match token.kind.command() {
                Some("and" | "AND" | "And") => authors.push(std::mem::take(&mut paragraph)),
                // Notes to authors are notes like others; their place is a line of its own.
                Some("thanks") => paragraph.push(Token { kind: Sign::Command("footnote".into()), ..token }),
                Some("inst" | "IEEEauthorrefmark") => {
                    paragraph.push(Token { kind: Sign::Command("textsuperscript".into()), ..token })
                }
                Some("IEEEauthorblockA") if !paragraph.is_empty() => {
                    paragraph.push(Token { kind: Sign::Command("\\".into()), ..token });
                }
                _ => paragraph.push(token),
            }
        }
        authors.push(paragraph);
        for mut author in authors {
            // What begins with the end of a line is no name.
            let begins = author.iter().position(|token| {
                !matches!(token.kind, Sign::Space | Sign::Par) && !matches!(token.kind.command(), Some("\\" | "newline"))
            });
            author.drain(..begins.unwrap_or(author.len()));
            if let Some(mark) = mark.as_ref().filter(|mark| is_mark(&self.input.characters(mark))) {
                author.extend(raised(mark.clone(), self.at));
            }
            self.front.byline.paragraphs.push(author);
        }
    }

    /// Whether the title is still to be shown: what is said of authors stands below it then.
    pub(super) fn is_title_ahead(&mut self) -> bool {
        let source = self.input.source.as_bytes();
        let title = *self.front.byline.title.get_or_insert_with(|| {
            let commands: [&[u8]; 2] = [b"\\maketitle", b"\\titlepage"];
            commands.iter().filter_map(|command| memchr::memmem::rfind(source, command)).max().unwrap_or(0)
        });
        self.input.at <= title
    }

    /// What stands with the names of authors, besides them.
    pub(super) fn byline_besides(&mut self, words: String) {
        self.front.byline.besides.push((self.at, words));
    }

    /// Takes what stands below the title, before the text begins. Whether a command says that.
    pub(super) fn byline_command(&mut self, name: &str) -> bool {
        if !BELOW.contains(&name) || self.front.has_begun() && (self.front.class == "letter" || !self.is_title_ahead()) {
            return false;
        }
        self.input.take('*');
        let mark = self.input.option();
        let mut words = self.input.argument();
        if name == "altaffiliation" {
            words.splice(0..0, mark.clone().unwrap_or_default());
        }
        let besides = self.words(&words);
        self.byline_besides(besides);
        let call = match name {
            "email" | "ead" => Some("email"),
            "thanks" | "authornote" => Some("footnote"),
            _ => None,
        };
        if let Some(call) = call {
            let at = self.at;
            // Before all authors, it is a note to the title.
            if call == "footnote" && self.front.byline.paragraphs.is_empty() && self.front.add_to_title(&words, at) {
                return true;
            }
            let call = [Token { kind: Sign::Command(call.into()), at }, Token { kind: Sign::Begin, at }];
            self.byline_line(
                call.into_iter().chain(words).chain([Token { kind: Sign::End, at }]).collect(),
                name != "email" && name != "ead",
            );
            return true;
        }
        let is_of_author = name == "affiliation" && self.front.class == "acmart";
        if is_of_author || matches!(name, "address" | "altaffiliation" | "curraddr" | "urladdr" | "homepage" | "orcid") {
            self.byline_line(parts_of_address(words), false);
            return true;
        }
        let mut parts: Vec<Vec<Token>> = vec![Vec::new()];
        for token in words {
            match (token.kind.command(), parts.last_mut()) {
                (Some("and"), _) => parts.push(Vec::new()),
                (_, Some(part)) => part.push(token),
                _ => {}
            }
        }
        let are_counted = name == "institute" && parts.len() > 1;
        for (number, part) in parts.into_iter().enumerate() {
            let mut paragraph = Vec::new();
            if are_counted {
                let digits = (number + 1).to_string();
                let digits = digits.chars().map(|digit| Token { kind: Sign::Char(digit), at: self.at }).collect();
                paragraph.extend(raised(digits, self.at));
            } else if let Some(mark) = mark.as_ref().filter(|mark| is_mark(&self.input.characters(mark))) {
                paragraph.extend(raised(mark.clone(), self.at));
            }
            paragraph.extend(part);
            self.front.byline.paragraphs.push(paragraph);
        }
        true
    }

    /// What belongs to the author before it: a line of its own, or a note.
    fn byline_line(&mut self, words: Vec<Token>, is_note: bool) {
        let at = self.at;
        match self.front.byline.paragraphs.last_mut() {
            Some(author) => {
                if !is_note {
                    author.push(Token { kind: Sign::Command("\\".into()), at });
                }
                author.extend(words);
            }
            None => self.front.byline.paragraphs.push(words),
        }
    }

    /// Puts who wrote it and when behind the title, or the subtitle.
    pub(super) fn put_byline(&mut self, above: NodeId) {
        // What comes behind it stands where it is.
        let byline = std::mem::replace(&mut self.front.byline, Byline { title: Some(0), ..Byline::default() });
        let day = self.front.day();
        let shown = byline.paragraphs.into_iter().chain(day);
        let mut tokens: Vec<Token> = Vec::new();
        for paragraph in shown.filter(|paragraph| paragraph.iter().any(|token| !matches!(token.kind, Sign::Space | Sign::Par))) {
            tokens.push(Token { kind: Sign::Par, at: self.at });
            // One author is one paragraph, however many lines their source has.
            tokens.extend(paragraph.into_iter().filter(|token| token.kind != Sign::Par));
        }
        if tokens.is_empty() {
            return;
        }
        let division = self.block(Kind::Division(DivisionKind::Plain));
        let class = self.doc.intern(BYLINE);
        self.doc.attributes_mut(division).classes.push(class);
        if let Some(next) = self.doc.node(above).next().filter(|&next| next != division) {
            self.doc.move_before(next, division);
        }
        self.read_into(division, false, tokens);
    }

    /// What would stand below a title that never comes is left out, and named.
    pub(super) fn end_byline(&mut self) {
        for (at, words) in std::mem::take(&mut self.front.byline.besides) {
            if !words.is_empty() {
                self.tallies.front.add_apart(at, &words);
            }
        }
    }
}

/// The parts of an address, each behind a comma.
fn parts_of_address(words: Vec<Token>) -> Vec<Token> {
    let mut out: Vec<Token> = Vec::with_capacity(words.len());
    for token in words {
        if token.kind.command().is_some_and(|name| super::front_matter::PARTS_OF_ADDRESSES.contains(&name)) {
            if out.iter().any(|token| matches!(token.kind, Sign::Text(..))) {
                out.extend([Sign::Char(','), Sign::Space].map(|kind| Token { kind, at: token.at }));
            }
        } else if token.kind != Sign::Space || out.last().is_some_and(|last| !matches!(last.kind, Sign::Space | Sign::End)) {
            out.push(token);
        }
    }
    out
}

/// Whether the option of an author or a place is a mark by which they find each other.
fn is_mark(words: &str) -> bool {
    !words.is_empty() && words.len() < 8 && words.chars().all(|c| c.is_ascii_digit() || matches!(c, ',' | ' ' | '*' | 'a'..='z'))
}

/// Tokens set above the line.
fn raised(tokens: Vec<Token>, at: u32) -> impl Iterator<Item = Token> {
    let begin = [Token { kind: Sign::Command("textsuperscript".into()), at }, Token { kind: Sign::Begin, at }];
    begin.into_iter().chain(tokens).chain([Token { kind: Sign::End, at }])
}
