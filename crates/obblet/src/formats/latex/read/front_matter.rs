//! What articles say above their text: where authors work, notes to them, and the title where it stands (the documentation of the
//! classes of journals and conferences).

use super::super::words;
use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{HintRole, Kind};

/// Commands whose argument is a paragraph of its own.
const PARAGRAPHS: &[&str] = &[
    "authornote",
    "cortext",
    "fntext",
    "tnotetext",
    "institute",
    "address",
    "affil",
    "received",
    "revised",
    "accepted",
    "published",
    "communicated",
    "preprint",
    "pacs",
    "journal",
    "publishers",
    "subject",
    "titlehead",
    "dedication",
    "dedicatory",
    "dedicate",
    "dictum",
    "curraddr",
    "urladdr",
    "msc",
    "legend",
    "minisec",
    "framesubtitle",
    "chapterprecis",
    "homepage",
    "collaboration",
    "extratitle",
    "uppertitleback",
    "lowertitleback",
    "nonumnote",
    "equalcont",
    "kwd",
    "contrib",
    "altaffil",
    "altaffiltext",
    "affiliations",
    "reportnumber",
    "corres",
    "presentaddress",
    "acknowledgements",
    "acknowledgments",
    "acknowledgement",
    "acknowledgment",
    "summary",
    "abstract",
    "resume",
    "ccsdesc",
    "subjclass",
];

/// Commands about the publication, which is none of the text, by their arguments.
const OF_PUBLICATIONS: &[(&str, &str)] = &[
    ("acmArticle", "m"),
    ("acmBooktitle", "m"),
    ("acmConference", "ommm"),
    ("acmDOI", "m"),
    ("acmISBN", "m"),
    ("acmJournal", "m"),
    ("acmMonth", "m"),
    ("acmNumber", "m"),
    ("acmPrice", "m"),
    ("acmSubmissionID", "m"),
    ("acmVolume", "m"),
    ("acmYear", "m"),
    ("copyrightyear", "m"),
    ("IEEEpubid", "m"),
    ("journalname", "m"),
    ("logo", "m"),
    ("publicationid", "om"),
    ("titlegraphic", "m"),
];

/// Parts of an address, with commas between them.
pub(super) const PARTS_OF_ADDRESSES: &[&str] = &[
    "institution",
    "department",
    "streetaddress",
    "city",
    "state",
    "postcode",
    "country",
    "orgdiv",
    "orgname",
    "orgaddress",
    "street",
    "university",
    "position",
    "additionalaffiliation",
    "zipcode",
    "postbox",
];

impl Reader<'_> {
    /// Takes what stands about the title or the authors. Whether a command says that.
    pub(super) fn front_matter(&mut self, name: &str) -> bool {
        match name {
            "affiliation" | "additionalaffiliation" => self.affiliation(),
            "altaffiliation" => {
                let note = self.input.option();
                self.end_paragraph();
                self.input.push(Sign::Par, self.at);
                let words = self.input.argument();
                self.input.push(Sign::Par, self.at);
                self.input.push_all(words.into_iter());
                self.input.push_all(note.unwrap_or_default().into_iter());
            }
            "ead" | "email" => {
                self.input.option();
                let address = self.address();
                let (href, text) = (self.doc.intern(&format!("mailto:{address}")), self.doc.intern(&address));
                if self.is_in_text() {
                    self.text(" ");
                }
                let node = self.inline(Kind::Link { href });
                self.doc.append_at(node, Kind::Text(text), self.at);
            }
            "thanks" => {
                self.input.option();
                let words = self.input.argument();
                let words = self.words(&words);
                self.tallies.front.add_apart(self.at, &words);
            }
            "tnoteref" | "fnref" | "corref" | "inst" | "thanksref" | "IEEEauthorrefmark" | "orcidlink" | "orcidID"
            | "affilnum" => {
                self.input.option();
                self.input.argument();
            }
            "sep" => {
                self.trim_line();
                self.text("; ");
            }
            "IEEEauthorblockN" | "IEEEauthorblockA" | "IEEEcompsocitemizethanks" => {}
            "IEEEPARstart" => {
                let (first, rest) = (self.input.argument(), self.input.argument());
                self.input.push_all(rest.into_iter());
                self.input.push_all(first.into_iter());
            }
            "Description" => self.description(),
            "thetitle" | "theauthor" | "thedate" | "@title" | "@author" | "@date" => self.text_of_front(name),
            _ if OF_PUBLICATIONS.iter().any(|(known, _)| *known == name) => self.of_publication(name),
            _ if PARTS_OF_ADDRESSES.contains(&name) => {
                if self.is_in_text() {
                    self.trim_line();
                    self.text(", ");
                }
            }
            _ if PARAGRAPHS.contains(&name) && self.takes_blocks() => {
                self.input.overlay();
                self.input.option();
                // Without an argument, it is a declaration.
                if self.input.takes_begin() {
                    self.input.push(Sign::Begin, self.at);
                    let words = self.input.argument();
                    self.end_paragraph();
                    self.input.push(Sign::Par, self.at);
                    let is_bold = matches!(name, "minisec" | "framesubtitle");
                    if is_bold {
                        self.styled(Kind::Strong, words);
                    } else {
                        let parted = words.into_iter().map(|token| match token.kind.command() {
                            Some("and") => Token { kind: Sign::Par, ..token },
                            _ => token,
                        });
                        self.input.push_all(parted);
                    }
                }
            }
            _ => match words::name_of_part(name, self.front.language.as_deref()) {
                Some(word) => self.text(word),
                None => return false,
            },
        }
        true
    }

    /// The title, the authors or the day within the text.
    fn text_of_front(&mut self, name: &str) {
        let words = match name.trim_start_matches("the").trim_start_matches('@') {
            "title" => self.front.title().to_owned(),
            "author" => self.front.authors_behind(0),
            _ => self.front.date().to_owned(),
        };
        if !words.is_empty() {
            self.text(&words);
        }
    }

    /// The authors behind the first few, in a paragraph of their own.
    pub(super) fn show_authors(&mut self, known: usize) {
        self.end_paragraph();
        let names = self.front.authors_behind(known);
        if !names.is_empty() {
            let strong = self.inline(Kind::Strong);
            let names = self.doc.intern(&names);
            self.doc.append_at(strong, Kind::Text(names), self.at);
        }
    }

    /// What classes print above an abstract: the document may say another word.
    pub(super) fn abstract_heading(&mut self) {
        let word = self.own_word("abstractname");
        let word = word.unwrap_or_else(|| words::abstract_word(self.front.language.as_deref()).to_owned());
        if word.trim().is_empty() {
            return;
        }
        let strong = self.inline(Kind::Strong);
        let text = self.doc.intern(&word);
        self.doc.append_at(strong, Kind::Text(text), self.at);
        self.end_paragraph();
    }

    /// What classes print before keywords.
    pub(super) fn keywords_lead_in(&mut self) {
        self.end_paragraph();
        let word = self.own_word("keywordsname").or_else(|| self.own_word("keywordname"));
        let word = word.unwrap_or_else(|| words::keywords_word(self.front.language.as_deref()).to_owned());
        let strong = self.inline(Kind::Strong);
        let text = self.doc.intern(&format!("{}:", word.trim_end_matches([':', ' '])));
        self.doc.append_at(strong, Kind::Text(text), self.at);
        self.text(" ");
    }

    /// A word that the document defines.
    pub(super) fn own_word(&mut self, command: &str) -> Option<String> {
        if !self.macros.knows(command) {
            return None;
        }
        let call = [Token { kind: Sign::Command(command.into()), at: self.at }];
        Some(self.words(&call).trim().to_owned()).filter(|word| word.len() < 80)
    }

    /// What a publication says of itself is left out, and named.
    fn of_publication(&mut self, name: &str) {
        let arguments = OF_PUBLICATIONS.iter().find(|(known, _)| *known == name).map_or("", |(_, arguments)| arguments);
        for argument in arguments.chars() {
            if argument == 'o' {
                self.input.option();
                continue;
            }
            let words = self.input.argument();
            let words = self.words(&words);
            if !words.is_empty() {
                self.tallies.front.add_apart(self.at, &words);
            }
        }
    }

    /// Where authors work: a paragraph, also where its parts are keys and values.
    fn affiliation(&mut self) {
        self.input.option();
        let words = self.input.argument();
        self.end_paragraph();
        let at = self.at;
        let values: Vec<Vec<Token>> = ["organization", "addressline", "city", "postcode", "state", "country"]
            .iter()
            .map(|key| self.input.value_of(&words, key))
            .filter(|value| !self.input.characters(value).is_empty())
            .collect();
        let has_keys = words.iter().any(|token| match token.kind {
            Sign::Text(start, end) => self.input.slice(start, end).contains("organization="),
            _ => false,
        });
        self.input.push(Sign::Par, at);
        if has_keys {
            for (position, value) in values.into_iter().enumerate().rev() {
                self.input.push_all(value.into_iter());
                if position > 0 {
                    self.input.push(Sign::Space, at);
                    self.input.push(Sign::Char(','), at);
                }
            }
        } else {
            self.input.push_all(words.into_iter());
        }
    }

    /// What a picture shows, for those who do not see it.
    fn description(&mut self) {
        self.input.option();
        let words = self.input.argument();
        let words = self.words(&words);
        let Some(float) = self.environments.iter().rev().find_map(|environment| environment.node) else { return };
        // Pictures stand in a float, or in a paragraph of it.
        let image = self.doc.children(float).flat_map(|child| std::iter::once(child).chain(self.doc.children(child)));
        let image = image.filter(|&id| matches!(self.doc.kind(id), Kind::Image { .. })).last();
        if let Some(image) = image
            && let Kind::Image { src, alt } = self.doc.kind(image)
            && self.doc.text(alt).is_empty()
        {
            let alt = self.doc.intern(&words);
            self.doc.set_kind(image, Kind::Image { src, alt });
        }
    }

    /// A title that the body says and never shows stands above it.
    pub(super) fn title_of_body(&mut self) {
        if self.front.is_title_of_body() && self.counters.lowered == 0 {
            let headings: Vec<_> = self
                .doc
                .nodes()
                .filter_map(|(id, node)| if let Kind::Heading(level) = node.kind() { Some((id, level)) } else { None })
                .collect();
            let before = self.doc.node(self.holder()).last_child();
            self.input.at = self.input.source.len();
            self.put_title();
            while let Some(token) = self.input.next() {
                self.step(token);
            }
            self.end_paragraph();
            let title = before.and_then(|before| self.doc.node(before).next());
            if let (Some(title), Some(first)) = (title, self.doc.node(self.holder()).first_child()) {
                let below: Vec<_> = std::iter::successors(Some(title), |&at| self.doc.node(at).next()).collect();
                for one in below {
                    self.doc.move_before(first, one);
                }
                // What it stands above goes down a level.
                for (heading, level) in headings {
                    self.doc.set_kind(heading, Kind::Heading((level + 1).min(6)));
                }
            }
        }
    }

    /// Puts a title above what stands before it, where that is no text of the document yet.
    pub(super) fn lift_title(&mut self, title: crate::document::NodeId) {
        let Some(holder) = self.doc.node(title).parent() else { return };
        let has_text = self.doc.children(holder).any(|child| child != title && matches!(self.doc.kind(child), Kind::Heading(_)));
        let is_above = self.front.class_has_title_first() && !has_text;
        if let Some(first) = self.doc.node(holder).first_child().filter(|&first| first != title && is_above) {
            self.doc.move_before(first, title);
        }
        self.doc.layout_hints.at(title).part = HintRole::Title { lowered: 1 };
    }
}
