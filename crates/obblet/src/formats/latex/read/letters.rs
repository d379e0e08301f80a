//! Letters (the LaTeX documentation, "Letters"): who writes to whom, and what stands below.

use super::Reader;
use super::tokens::{Kind as Sign, Token};

/// What the preamble of letters says.
#[derive(Debug, Default)]
pub(super) struct Letterhead {
    address: Vec<Token>,
    signature: Vec<Token>,
    /// The name of the sender, and what the letter is about, where these are said apart.
    sender: Vec<Token>,
    subject: Vec<Token>,
}

impl Reader<'_> {
    /// Takes what letters have above and below. Whether a command says that.
    pub(super) fn letterhead(&mut self, name: &str) -> bool {
        match name {
            "address" | "fromaddress" => {
                let words = self.input.argument();
                self.front.letterhead.address = words;
            }
            "signature" => {
                let words = self.input.argument();
                self.front.letterhead.signature = words;
            }
            // The documentation of KOMA-Script, "scrlttr2".
            "setkomavar" => {
                self.input.take('*');
                let variable = self.input.argument();
                self.input.option();
                let words = self.input.argument();
                match self.input.characters(&variable).as_str() {
                    "fromname" => self.front.letterhead.sender = words,
                    "fromaddress" => self.front.letterhead.address = words,
                    "signature" => self.front.letterhead.signature = words,
                    "subject" => self.front.letterhead.subject = words,
                    "date" => self.front.date_tokens = words,
                    _ => {}
                }
            }
            _ => return false,
        }
        true
    }

    /// Begins a letter: its sender, its day and whom it is for, each a paragraph.
    pub(super) fn begin_letter(&mut self) {
        self.end_paragraph();
        let recipient = self.input.argument();
        let at = self.at;
        let address = self.front.letterhead.address.clone();
        let day = self.front.date_tokens.clone();
        let (sender, subject) = (self.front.letterhead.sender.clone(), self.front.letterhead.subject.clone());
        let mut from = sender;
        if !from.is_empty() && !address.is_empty() {
            from.push(Token { kind: Sign::Command("\\".into()), at });
        }
        from.extend(address);
        if !subject.is_empty() {
            self.input.push(Sign::Par, at);
            self.styled(crate::document::Kind::Strong, subject);
        }
        // What is read first is pushed last.
        let parts = if self.front.class == "letter" { [recipient, day, from] } else { [day, recipient, from] };
        for part in parts {
            self.input.push(Sign::Par, at);
            self.input.push_all(part.into_iter());
        }
    }

    /// Ends the text of a letter: its last words, and below them the name.
    pub(super) fn closing(&mut self) {
        self.end_paragraph();
        let words = self.input.argument();
        let at = self.at;
        let letterhead = &self.front.letterhead;
        let signature = if letterhead.signature.is_empty() { &letterhead.sender } else { &letterhead.signature }.clone();
        self.input.push(Sign::Par, at);
        if !signature.is_empty() {
            self.input.push_all(signature.into_iter());
            self.input.push(Sign::Command("newline".into()), at);
        }
        self.input.push_all(words.into_iter());
    }

    /// What stands below a letter, with the word for it.
    pub(super) fn below_letter(&mut self, word: &'static str) {
        self.end_paragraph();
        self.text(word);
    }
}
