//! What commands of packages for text show (the documentation of changes, dirtree, outlines, nth, pifont, csquotes, reledmac).

use super::Reader;
use super::token_lists::made;
use super::tokens::{Input, Kind as Sign, Token};
use crate::document::Kind;

/// Items stand no deeper in each other.
const DEEPEST: usize = 8;

impl Reader<'_> {
    /// Text that a command stands for, or puts around its argument. Whether it is one of packages for that.
    pub(super) fn text_of_package(&mut self, name: &str) -> bool {
        match name {
            "ding" => {
                let number = self.input.argument();
                let number = self.input.characters(&number).parse().unwrap_or(0);
                if let Some(sign) = super::symbols::dingbat(number) {
                    self.text(sign.encode_utf8(&mut [0; 4]));
                }
            }
            "fillin" if self.front.class == "exam" => {
                self.skip_arguments("oo");
                self.text("_____");
            }
            "nth" => {
                let number = self.input.argument();
                let number = self.input.characters(&number);
                let suffix = super::strings::suffix(number.parse().unwrap_or(0));
                self.text(&format!("{number}{suffix}"));
            }
            "meta" => {
                let words = self.input.argument();
                let at = self.at;
                self.input.push(Sign::Char('\u{27E9}'), at);
                self.input.push_all(words.into_iter());
                self.input.push(Sign::Char('\u{27E8}'), at);
            }
            "textins" => {
                let words = self.input.argument();
                let at = self.at;
                self.input.push(Sign::Char(']'), at);
                self.input.push_all(words.into_iter());
                self.input.push(Sign::Char('['), at);
            }
            "textelp" => {
                self.text("\u{2026}");
                self.input.argument();
            }
            "DTMdisplaydate" => {
                let date: Vec<String> = (0..4).map(|_| self.input.argument_characters().into_owned()).collect();
                self.text(&format!("{}-{:0>2}-{:0>2}", date[0], date[1], date[2]));
            }
            "Clause" | "SubClause" if self.front.loads("scrjura") => self.clause(name),
            "dirtree" => self.tree_of_files(),
            _ => return self.revision(name) || self.remark(name) || self.parting(name),
        }
        true
    }

    /// Remarks of those who work on a document (the documentation of fixme and pdfcomment). Whether a command is one.
    fn remark(&mut self, name: &str) -> bool {
        match name {
            "fxnote" | "fxwarning" | "fxerror" | "fxfatal" if self.front.loads("fixme") => {
                let has_text = self.input.take('*');
                self.input.option();
                let remark = self.input.argument();
                if self.front.loads("fixme draft") {
                    self.input.push_command("footnote", vec![remark], self.at);
                }
                if has_text {
                    let words = self.input.argument();
                    self.input.push_all(words.into_iter());
                }
            }
            "pdfcomment" | "pdfmarkupcomment" | "pdftooltip" if self.front.loads("pdfcomment") => {
                self.input.take('*');
                self.input.option();
                let text = if name == "pdfcomment" { Vec::new() } else { self.input.argument() };
                let remark = self.input.argument();
                self.input.option();
                self.input.push_command("footnote", vec![remark], self.at);
                self.input.push_all(text.into_iter());
            }
            _ => return false,
        }
        true
    }

    /// Breaks between paragraphs, and words with capital letters (the documentation of memoir and mfirstuc). Whether a command is one.
    fn parting(&mut self, name: &str) -> bool {
        match name {
            "fancybreak" | "pfbreak" | "plainfancybreak" if self.takes_blocks() => {
                self.input.take('*');
                if name == "fancybreak" {
                    self.input.argument();
                } else if name == "plainfancybreak" {
                    self.skip_arguments("mmm");
                }
                self.block(Kind::ThematicBreak);
            }
            "makefirstuc" | "xmakefirstuc" | "capitalisewords" | "xcapitalisewords" | "titlecap" => {
                let words = self.input.argument();
                let words = self.words(&words);
                let shown = match name {
                    "makefirstuc" | "xmakefirstuc" => super::theorems::capitalised(&words),
                    _ => words.split(' ').map(super::theorems::capitalised).collect::<Vec<_>>().join(" "),
                };
                self.text(&shown);
            }
            _ => return false,
        }
        true
    }

    /// What was added, deleted and replaced (the documentation of changes): in the final form of a document the last words alone.
    fn revision(&mut self, name: &str) -> bool {
        if !self.front.loads("changes") {
            return false;
        }
        let is_final = self.front.loads("changes final");
        let name = name.strip_prefix("ch").filter(|rest| *rest != "anged").unwrap_or(name);
        if !matches!(name, "added" | "deleted" | "replaced" | "highlight" | "comment") {
            return false;
        }
        self.input.option();
        let mut words = self.input.argument();
        let kind = match name {
            "added" | "replaced" => Kind::Insertion,
            "deleted" => Kind::Deletion,
            "highlight" => Kind::Highlight,
            _ if is_final => return true,
            _ => {
                self.input.push_command("todo", vec![words], self.at);
                return true;
            }
        };
        let old = (name == "replaced").then(|| self.input.argument());
        if is_final {
            if kind == Kind::Deletion {
                words.clear();
            }
            self.input.push_all(words.into_iter());
            return true;
        }
        if let Some(old) = old {
            self.input.push_command("deleted", vec![old], self.at);
        }
        self.styled(kind, words);
        true
    }

    /// Text with notes about it, which may say of which of its words.
    pub(super) fn text_of_edition(&mut self) {
        let (words, notes) = (self.input.argument(), self.input.argument());
        let mut kept = Vec::new();
        let mut rest = notes.into_iter();
        while let Some(token) = rest.next() {
            if token.kind.command() != Some("lemma") {
                kept.push(token);
                continue;
            }
            let mut depth = 0_usize;
            for token in rest.by_ref() {
                match token.kind {
                    Sign::Begin => depth += 1,
                    Sign::End => depth = depth.saturating_sub(1),
                    _ => {}
                }
                if depth == 0 && token.kind != Sign::Space {
                    break;
                }
            }
        }
        self.input.push_all(kept.into_iter());
        self.input.push_all(words.into_iter());
    }

    /// `\Clause{title={…}}`: a heading with the sign of sections and a number.
    fn clause(&mut self, name: &str) {
        let options = self.input.argument();
        let title = self.input.value_of(&options, "title");
        let number = if name == "Clause" {
            self.counters.set("SubClause", 0);
            self.counters.step("Clause");
            self.counters.get("Clause").to_string()
        } else {
            self.counters.step("SubClause");
            let letter = crate::numeral::numeral(self.counters.get("SubClause"), crate::document::Marker::LowerAlpha);
            format!("{}{letter}", self.counters.get("Clause"))
        };
        self.input.push(Sign::End, self.at);
        self.input.push_all(title.into_iter());
        self.input.push(Sign::Begin, self.at);
        let level = self.counters.level("section").unwrap_or(2);
        if let Some(heading) = self.heading_of(level, true) {
            self.text(&format!("§\u{A0}{number} "));
            self.references.here(heading, format!("§\u{A0}{number}"), "");
        }
    }

    /// `\dirtree{.1 folder. .2 file. }`: each line with its depth, up to a full stop before white space.
    fn tree_of_files(&mut self) {
        let tree = self.input.argument();
        let mut items: Vec<(usize, Vec<Token>)> = Vec::new();
        let mut inner = Input::of_tokens(self.input.source, tree.into_iter());
        let mut is_behind_stop = true;
        while let Some(token) = inner.single() {
            if token.kind == Sign::Space && is_behind_stop {
                continue;
            }
            let c = inner.character_of(&token);
            if is_behind_stop && c == Some('.') {
                let mut depth = 0_usize;
                while let Some(token) = inner.single() {
                    match inner.character_of(&token).and_then(|c| c.to_digit(10)) {
                        Some(digit) => depth = (depth * 10 + digit as usize).min(DEEPEST),
                        None => {
                            inner.made.push(token);
                            break;
                        }
                    }
                }
                items.push((depth.max(1), Vec::new()));
                inner.skip_white();
                is_behind_stop = false;
                continue;
            }
            is_behind_stop = c == Some('.') && inner.peeks_white();
            if let Some((_, words)) = items.last_mut()
                && !is_behind_stop
            {
                words.push(token);
            }
        }
        let tokens = nested_lists(items, &|_| "itemize".to_owned(), self.at);
        self.input.push_all(tokens.into_iter());
    }

    /// Begins an outline, whose items say how deep they stand. Its lists are those that the option names, or the document.
    pub(super) fn outline(&mut self) {
        // Items of one that stands in another would be looked through again for each.
        const FARTHEST: usize = 50;
        if self.environments.iter().rev().skip(1).take(FARTHEST).any(|one| one.name == "outline") {
            return;
        }
        let kind = self.input.option().map_or_else(|| "itemize".to_owned(), |kind| self.input.characters(&kind));
        let body = super::arguments::body(&mut self.input, "outline");
        let kinds: Vec<String> = ["outlinei", "outlineii", "outlineiii", "outlineiiii"]
            .iter()
            .map(|name| self.macros.body(name).map_or_else(|| kind.clone(), |body| self.input.characters(&body)))
            .collect();
        let mut items: Vec<(usize, Vec<Token>)> = vec![(0, Vec::new())];
        for token in body {
            match token.kind.command() {
                Some(depth @ ("0" | "1" | "2" | "3" | "4")) => {
                    items.push((usize::from(depth.as_bytes()[0] - b'0'), Vec::new()));
                }
                _ => items.last_mut().into_iter().for_each(|(_, words)| words.push(token.clone())),
            }
        }
        let tokens = nested_lists(items, &|depth| kinds[(depth - 1).min(3)].clone(), self.at);
        self.input.push_all(tokens.into_iter());
    }
}

/// Items by how deep they stand, as lists within each other; those of no depth are text.
fn nested_lists(items: Vec<(usize, Vec<Token>)>, kind: &dyn Fn(usize) -> String, at: u32) -> Vec<Token> {
    let mut out = Vec::new();
    let mut open = 0;
    for (depth, words) in items.into_iter().chain([(0, Vec::new())]) {
        while open > depth {
            out.extend(made(&format!("\\end{{{}}}", kind(open)), at));
            open -= 1;
        }
        while open < depth {
            open += 1;
            let item = if open < depth { "\\item " } else { "" };
            out.extend(made(&format!("\\begin{{{}}}{item}", kind(open)), at));
        }
        if depth > 0 {
            out.extend(made("\\item ", at));
        }
        out.extend(words);
    }
    out
}
