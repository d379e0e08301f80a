//! Captions: their words and numbers, and what parts these from the text (the documentation of caption and subcaption).

use super::Reader;
use super::environments::Form;
use super::floats::{PARTS, kind_of};
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, Marker, NodeId, Text};

/// The package for parts is the oldest one: kept as a command of this name, which none can have.
pub(super) const OLD_PARTS: &str = "parts in parentheses";
/// What a document sets for all captions.
const ALL: &str = "*";

/// The word for a float in captions and references.
pub(super) fn word(kind: &str, language: Option<&str>) -> &'static str {
    let language = language.unwrap_or_default();
    match (kind, language.get(..2).unwrap_or_default()) {
        ("algorithm", "de") => "Algorithmus",
        ("algorithm", "fr") => "Algorithme",
        ("algorithm", "es" | "pt" | "it") => "Algoritmo",
        ("algorithm", _) => "Algorithm",
        ("listing", "fr") => "Extrait",
        ("listing", "es") => "Listado",
        ("listing", "it") => "Listato",
        ("listing" | "lstlisting", _) => "Listing",
        _ => super::super::words::caption_word(language, kind == "table"),
    }
}

impl Reader<'_> {
    /// Takes what a document says of its captions. Whether a command says that.
    pub(super) fn says_of_captions(&mut self, command: &str) -> bool {
        match command {
            "captionsetup" | "clearcaptionsetup" => {
                self.input.take('*');
                let kind = self.input.option().map(|kind| self.input.characters(&kind));
                let settings = self.input.argument();
                self.caption_settings(kind.as_deref(), &settings);
            }
            "DeclareCaptionLabelSeparator" => {
                self.input.take('*');
                let (name, words) = (self.input.argument(), self.input.argument());
                let name = self.input.characters(&name);
                self.macros.keep(format!("caption separator {name}").into(), words);
            }
            "DeclareCaptionLabelFormat" => {
                self.input.take('*');
                let (name, words) = (self.input.argument(), self.input.argument());
                let name = self.input.characters(&name);
                self.macros.keep(format!("caption format {name}").into(), words);
            }
            "ContinuedFloat" => self.continued_float(),
            "hvFloat" => self.float_of_arguments(),
            "setbeamertemplate" => self.template_of_slides(),
            _ => return false,
        }
        true
    }

    /// `\hvFloat[settings]{figure}{…}[short]{caption}{label}` (the documentation of hvfloat).
    fn float_of_arguments(&mut self) {
        self.skip_arguments("so");
        let (kind, content) = (self.input.argument(), self.input.argument());
        self.input.option();
        let (caption, label) = (self.input.argument(), self.input.argument());
        let at = self.at;
        for (command, argument) in [("end", kind.clone()), ("label", label), ("caption", caption)] {
            self.input.push_command(command, vec![argument], at);
        }
        self.input.push_all(content.into_iter());
        self.input.push_command("begin", vec![kind], at);
    }

    /// `\setbeamertemplate{caption}[numbered]`: of these, only the numbers of captions say something of the text.
    fn template_of_slides(&mut self) {
        let template = self.input.argument();
        let template = self.input.characters(&template);
        while let Some(option) = self.input.option() {
            if template == "caption" && self.input.characters(&option) == "numbered" {
                self.macros.keep("caption labelformat of *".into(), option);
            }
        }
        if self.input.takes_begin() {
            self.input.up_to_end();
        }
    }

    /// `\captionsetup[figure]{labelsep=period}`, and the options of the package.
    pub(super) fn caption_settings(&mut self, kind: Option<&str>, settings: &[Token]) {
        let kind = kind.unwrap_or(ALL);
        let of = match kind {
            "sub" | "subfigure" | "subtable" | "subfloat" => PARTS,
            kind => kind,
        };
        for (key, value) in self.input.pairs(settings) {
            match key.as_str() {
                "labelsep" | "labelformat" => self.macros.keep(format!("caption {key} of {of}").into(), value),
                "name" if kind != ALL => self.macros.keep(format!("{kind}name").into(), value),
                "figurename" | "tablename" => self.macros.keep(key.as_str().into(), value),
                "type" | "type*" => self.macros.keep("@captype".into(), value),
                _ => {}
            }
        }
    }

    /// What is set for captions of a kind, or for all.
    fn caption_setting(&mut self, key: &str, kind: &str) -> Option<String> {
        let own = self.own_word(&format!("caption {key} of {kind}"));
        own.or_else(|| if kind == PARTS { None } else { self.own_word(&format!("caption {key} of {ALL}")) })
    }

    /// A word and a number as a caption shows them.
    fn label_of_caption(&mut self, kind: &str, word: &str, number: &str) -> String {
        let format = self.caption_setting("labelformat", kind).unwrap_or_default();
        let label = match format.as_str() {
            "empty" => return String::new(),
            "nonumber" => word.to_owned(),
            "parens" => format!("{word}\u{A0}({number})"),
            "brace" => format!("{word}\u{A0}{number})"),
            "" | "default" | "simple" | "original" | "numbered" => format!("{word}\u{A0}{number}"),
            own => self.formatted(own, word, number).unwrap_or_else(|| format!("{word}\u{A0}{number}")),
        };
        let is_french = matches!(kind, "figure" | "table")
            && self.front.language.as_deref().is_some_and(|language| language.starts_with("fr"));
        let separator = match self.caption_setting("labelsep", kind).as_deref() {
            None | Some("default") if is_french => " \u{2013} ".to_owned(),
            None | Some("default" | "colon") => ": ".to_owned(),
            Some("none") => String::new(),
            Some("period") => ". ".to_owned(),
            Some("endash") => " \u{2013} ".to_owned(),
            Some("space" | "quad" | "newline") => " ".to_owned(),
            Some(own) => match self.macros.body(&format!("caption separator {own}")) {
                // White space at its ends counts.
                Some(body) => {
                    let is_white = |token: Option<&Token>| token.is_some_and(|token| token.kind == Sign::Space);
                    let space = |white: bool| if white { " " } else { "" };
                    let words = self.words(&body);
                    format!("{}{words}{}", space(is_white(body.first())), space(is_white(body.last()) || words.is_empty()))
                }
                None => ": ".to_owned(),
            },
        };
        label + &separator
    }

    /// A label in a form that the document declares.
    fn formatted(&mut self, name: &str, word: &str, number: &str) -> Option<String> {
        let body = self.macros.body(&format!("caption format {name}"))?;
        let characters = |text: &str| text.chars().map(|c| Token { kind: Sign::Char(c), at: self.at }).collect::<Vec<_>>();
        let filled = super::macros::filled(&body, &[characters(word), characters(number)]);
        Some(self.words(&filled))
    }

    /// What captions of a kind call it.
    fn word_of_caption(&mut self, kind: &str) -> String {
        let language = self.front.language.clone();
        let own = self.own.floats.get(kind).cloned().or_else(|| self.own_word(&format!("{kind}name")));
        own.unwrap_or_else(|| word(kind, language.as_deref()).to_owned())
    }

    /// Counts what a caption is for: its number, and the word for it.
    fn count_float(&mut self, kind: &str) -> (String, String) {
        let number = self.counters.step(if kind == "listing" { "lstlisting" } else { kind });
        (self.number_as_shown(kind, number), self.word_of_caption(kind))
    }

    /// A caption: its number, and its words.
    pub(super) fn caption(&mut self, command: &str) {
        let has_star = self.input.take('*');
        let said = if command.ends_with("of") {
            let kind = self.input.argument();
            Some(self.input.characters(&kind))
        } else {
            None
        };
        self.input.option();
        let Some((holder, name)) = self.holder_of_caption() else {
            let kind = said.or_else(|| self.own_word("@captype"));
            return self.caption_of_nothing(kind.filter(|_| self.takes_blocks()), has_star);
        };
        let kind = said.unwrap_or_else(|| kind_of(&name).to_owned());
        let is_part = name.starts_with("sub");
        // Further pages of a table repeat its caption in another form.
        if self.doc.kind(holder) == Kind::Table && self.doc.children(holder).any(|child| self.doc.kind(child) == Kind::Caption) {
            self.input.argument();
            return;
        }
        self.end_paragraph();
        let holder = if is_part { holder } else { self.next_of_float(holder) };
        let caption = self.caption_in(holder);
        if is_part && !has_star {
            self.number_part(holder, caption, &kind);
        } else if !has_star {
            let (number, word) = self.count_float(&kind);
            self.references.here(holder, number.clone(), &word);
            self.put_label(caption, &kind, &word, &number);
        } else {
            if self.environments.last().is_some_and(|one| one.name == super::environments::LONG_TABLE) {
                self.counters.step("table");
            }
            // Without a number of its own, it is the place that a label names all the same.
            self.references.here_without_number(holder);
        }
        self.argument_into(caption, true);
    }

    /// Puts a caption into what it is for: that of a table comes first.
    fn caption_in(&mut self, holder: NodeId) -> NodeId {
        let caption = self.doc.append_at(holder, Kind::Caption, self.at);
        if self.doc.kind(holder) == Kind::Table
            && let Some(first) = self.doc.node(holder).first_child().filter(|&first| first != caption)
        {
            self.doc.move_before(first, caption);
        }
        caption
    }

    /// What a caption is for, and the environment of that.
    fn holder_of_caption(&self) -> Option<(NodeId, String)> {
        const TABLES: [&str; 6] = ["longtable", "deluxetable", "longtblr", "talltblr", "xltabular", "longtabu"];
        let float = self.environments.iter().rev().find(|environment| environment.kind == Form::Float);
        match float {
            Some(float) => Some((float.node?, float.name.clone())),
            None => {
                self.environments.iter().rev().find(|one| TABLES.contains(&one.name.trim_end_matches('*')))?;
                Some((self.tables.last()?.node(), "table".to_owned()))
            }
        }
    }

    /// The float that the next caption is for: one that has a caption ends there, and another begins.
    fn next_of_float(&mut self, float: NodeId) -> NodeId {
        let known = self.doc.children(float).find(|&child| self.doc.kind(child) == Kind::Caption);
        let Some(known) = known.filter(|_| self.doc.kind(float) == Kind::Figure) else { return float };
        let at = self.doc.node(known).offset();
        let next = self.doc.append_at(float, Kind::Figure, at);
        // What stands behind a caption that is not above all belongs to the next one.
        if self.doc.node(float).first_child() != Some(known) {
            let mut moved = self.doc.node(known).next();
            while let Some(block) = moved.filter(|&block| block != next) {
                moved = self.doc.node(block).next();
                self.doc.move_into(next, block);
            }
        }
        self.doc.move_after(float, next);
        for part in self.parts.iter_mut().filter(|part| part.is_of(float)) {
            part.goes_into(next);
        }
        for environment in self.environments.iter_mut().filter(|environment| environment.node == Some(float)) {
            environment.node = Some(next);
        }
        self.end_float(float);
        next
    }

    pub(super) fn put_label(&mut self, caption: NodeId, kind: &str, word: &str, number: &str) {
        let label = self.label_of_caption(kind, word, number);
        if !label.is_empty() {
            let text = self.doc.intern(&label);
            self.doc.append_at(caption, Kind::Text(text), self.at);
        }
    }

    /// A caption outside of floats, for what stands before it, if that is a table or pictures; else it is a paragraph.
    fn caption_of_nothing(&mut self, kind: Option<String>, has_star: bool) {
        self.end_paragraph();
        let Some(kind) = kind else { return };
        let last = self.doc.node(self.holder()).last_child();
        let has_caption = |table: NodeId| self.doc.children(table).any(|child| self.doc.kind(child) == Kind::Caption);
        let holder = match last.map(|last| (last, self.doc.kind(last))) {
            Some((table, Kind::Table)) if kind == "table" && !has_caption(table) => Some(table),
            Some((paragraph, Kind::Paragraph)) if kind != "table" && self.holds_pictures(paragraph) => {
                let figure = self.block(Kind::Figure);
                self.doc.move_into(figure, paragraph);
                self.doc.unwrap(paragraph);
                Some(figure)
            }
            _ => None,
        };
        let counted = (!has_star).then(|| self.count_float(&kind));
        let Some(holder) = holder else {
            if let Some((number, word)) = counted {
                let label = self.label_of_caption(&kind, &word, &number);
                self.text(&label);
                self.references.count_here(number);
            }
            let words = self.input.argument();
            self.input.push(Sign::Par, self.at);
            return self.input.push_all(words.into_iter());
        };
        let caption = self.caption_in(holder);
        if let Some((number, word)) = counted {
            self.references.here(holder, number.clone(), &word);
            self.put_label(caption, &kind, &word, &number);
        }
        self.argument_into(caption, true);
    }

    /// Whether a paragraph holds pictures and nothing else.
    pub(super) fn holds_pictures(&self, paragraph: NodeId) -> bool {
        self.doc.children(paragraph).all(|inner| {
            matches!(self.doc.kind(inner), Kind::Image { .. } | Kind::LineBreak | Kind::SoftBreak)
                || self.doc.is_white(inner, char::is_whitespace)
        })
    }

    /// The letter of a part of a float, which the number of the whole stands before in references.
    pub(super) fn number_part(&mut self, holder: NodeId, caption: NodeId, kind: &str) {
        let whole = self.environments.iter().rev().filter(|one| one.kind == Form::Float);
        let outer = whole.filter(|one| !one.name.starts_with("sub")).find_map(|one| one.node);
        let Some(outer) = outer else { return };
        let kind = kind.trim_start_matches("sub");
        let has_caption = self.doc.children(outer).any(|child| self.doc.kind(child) == Kind::Caption);
        let number = if has_caption { self.counters.number(kind) } else { self.counters.number_after(kind) };
        let number = if has_caption { self.number_as_shown(kind, number) } else { self.number_as_shown_after(kind, number) };
        self.counters.step(PARTS);
        let count = self.counters.get(PARTS);
        let counter = format!("sub{kind}");
        self.counters.set(&counter, count);
        let letter = crate::numeral::numeral(count, Marker::LowerAlpha);
        let letter = self.number_as_shown(&counter, letter);
        let word = self.word_of_caption(kind);
        // The oldest package for parts sets their letters in parentheses, also in references.
        let in_references =
            if self.macros.knows(OLD_PARTS) { format!("{number}({letter})") } else { format!("{number}{letter}") };
        self.references.here(holder, in_references, &word);
        let label = match self.caption_setting("labelformat", PARTS).as_deref() {
            Some("empty") => return,
            Some("simple") => format!("{letter} "),
            Some("brace") => format!("{letter}) "),
            _ => format!("({letter}) "),
        };
        let text = self.doc.intern(&label);
        self.doc.append_at(caption, Kind::Text(text), self.at);
    }

    /// The number of a float whose caption comes later, as the document shows it.
    fn number_as_shown_after(&mut self, kind: &str, number: String) -> String {
        let value = self.counters.get(kind);
        self.counters.set(kind, value + 1);
        let shown = self.number_as_shown(kind, number);
        self.counters.set(kind, value);
        shown
    }

    /// A caption that says nothing but its number has no colon.
    pub(super) fn end_label(&mut self, caption: NodeId) {
        let only = self.doc.node(caption).first_child().filter(|&only| self.doc.node(only).next().is_none());
        if let Some((only, Kind::Text(text))) = only.map(|only| (only, self.doc.kind(only))) {
            let length = self.doc.text(text).trim_end_matches([' ', ':']).len() as u32;
            if self.doc.text(text).ends_with(": ") {
                self.doc.set_kind(only, Kind::Text(Text { end: text.start + length, ..text }));
            }
        }
    }
}
