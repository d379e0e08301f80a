//! Labels of numbered items (the LaTeX format, `\labelenumi`; the documentation of enumitem, "Labels", of paralist and enumerate).

use super::tokens::{Kind as Sign, Token};
use super::{Reader, counters};
use crate::document::{ListNumbering, Marker, NamedStyle, NodeId, NumberStyle, Property, StyleProperties, Value};
use crate::numeral::numeral;

/// Counters of numbered lists, by how deep they are.
pub(super) const COUNTERS: [&str; 4] = ["enumi", "enumii", "enumiii", "enumiv"];
/// How lists are numbered that say nothing of it, by how deep they are.
pub(super) const USUAL: [Marker; 4] = [Marker::Plain, Marker::LowerAlpha, Marker::LowerRoman, Marker::UpperAlpha];
/// Stands for the number while a label is read.
const NUMBER: char = '\u{E000}';
/// A label has no more tokens.
const LONGEST: usize = 200;
/// Commands stand so deep in each other in a label.
const DEEPEST: usize = 6;
/// Keys of lists that a document sets for all lists of a kind are kept as commands of these names, which none can have.
const KEPT: [&str; 3] = ["label", "label*", "ref"];

/// Labels of no more characters stand where numbers do.
const SHORT: usize = 4;
/// About as wide is a character, in twips.
const WIDTH: i32 = 130;
/// So many kinds of labels have styles of their own.
const MOST_STYLES: usize = 300;

/// What stands before the items of a numbered list: a number among other words.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Label {
    pub(super) before: String,
    pub(super) marker: Marker,
    pub(super) after: String,
}

impl Label {
    /// The label of an item.
    pub(super) fn of(&self, value: i64) -> String {
        format!("{}{}{}", self.before, numeral(value, self.marker), self.after)
    }
}

/// The way of counting of a command, if it is one.
fn way_of(command: &str) -> Option<Marker> {
    Some(match command {
        "alph" => Marker::LowerAlpha,
        "Alph" => Marker::UpperAlpha,
        "roman" => Marker::LowerRoman,
        "Roman" => Marker::UpperRoman,
        "arabic" | "value" | "fnsymbol" => Marker::Plain,
        _ => return None,
    })
}

/// A label that is read.
struct Found<'c> {
    counter: &'c str,
    usual: Marker,
    marker: Option<Marker>,
    out: Vec<Token>,
}

impl Reader<'_> {
    /// The label that tokens make with the number of a counter; nothing where they hold no number.
    pub(super) fn label_from(&mut self, tokens: &[Token], counter: &str, usual: Marker) -> Option<Label> {
        let mut found = Found { counter, usual, marker: None, out: Vec::new() };
        self.find_number(tokens, &mut found, 0);
        let marker = found.marker?;
        let words = self.words(&found.out);
        let (before, after) = words.split_once(NUMBER)?;
        Some(Label { before: before.to_owned(), marker, after: after.to_owned() })
    }

    /// Puts a sign in the place of the command that shows a counter, and the numbers of others for theirs.
    fn find_number(&mut self, tokens: &[Token], found: &mut Found<'_>, depth: usize) {
        let tokens = self.spread(&tokens[..tokens.len().min(LONGEST)]);
        let mut rest = &tokens[..];
        while let Some((token, behind)) = rest.split_first() {
            rest = behind;
            let at = token.at;
            let Some(name) = token.kind.command() else {
                found.out.push(token.clone());
                continue;
            };
            if let Some(marker) = way_of(name) {
                let (counter, length) = self.counter_in(rest, found.counter);
                rest = &rest[length..];
                if counter == found.counter && found.marker.is_none() {
                    found.marker = Some(marker);
                    found.out.push(Token { kind: Sign::Char(NUMBER), at });
                } else {
                    let number = counters::shown_as(self.counters.get(&counter), name);
                    found.out.extend(number.chars().map(|c| Token { kind: Sign::Char(c), at }));
                }
                continue;
            }
            let is_own_number = name.strip_prefix("the") == Some(found.counter);
            match self.macros.body(name).filter(|_| depth < DEEPEST) {
                Some(body) => self.find_number(&body, found, depth + 1),
                None if is_own_number && found.marker.is_none() => {
                    found.marker = Some(found.usual);
                    found.out.push(Token { kind: Sign::Char(NUMBER), at });
                }
                None => match name.strip_prefix("the").filter(|counter| self.counters.has(counter)) {
                    Some(counter) => {
                        let number = self.counters.number(counter);
                        found.out.extend(number.chars().map(|c| Token { kind: Sign::Char(c), at }));
                    }
                    None => found.out.push(token.clone()),
                },
            }
        }
    }

    /// The counter that stands behind a command that shows one, and how many tokens that takes; a star is that of the list.
    fn counter_in(&self, tokens: &[Token], own: &str) -> (String, usize) {
        match tokens.first().map(|token| &token.kind) {
            Some(Sign::Char('*')) => (own.to_owned(), 1),
            Some(Sign::Begin) => {
                let end = tokens.iter().position(|token| token.kind == Sign::End).unwrap_or(tokens.len() - 1);
                (self.input.characters(&tokens[1..end.max(1)]), end + 1)
            }
            _ => (own.to_owned(), 0),
        }
    }

    /// Tokens with each character of runs of text as one of its own.
    fn spread(&self, tokens: &[Token]) -> Vec<Token> {
        let mut out = Vec::with_capacity(tokens.len());
        for token in tokens {
            match token.kind {
                Sign::Text(start, end) => {
                    let characters = self.input.slice(start, end).char_indices();
                    out.extend(characters.map(|(place, c)| {
                        let kind = if c == ' ' { Sign::Space } else { Sign::Char(c) };
                        Token { kind, at: start + place as u32 }
                    }));
                }
                _ => out.push(token.clone()),
            }
        }
        out
    }

    /// The label of an option that shows how the first item begins, as in `[(a)]`: its first letter or one outside of braces
    /// stands for the number.
    pub(super) fn label_by_example(&self, option: &[Token]) -> Option<Vec<Token>> {
        let tokens = self.spread(&option[..option.len().min(LONGEST)]);
        let letter_at = |place: usize| matches!(tokens.get(place), Some(Token { kind: Sign::Char(c), .. }) if c.is_alphabetic());
        if tokens.iter().any(|token| matches!(token.kind, Sign::Char('=' | '<'))) {
            return None;
        }
        let mut depth = 0_usize;
        let place = (0..tokens.len()).find(|&place| {
            match tokens[place].kind {
                Sign::Begin => depth += 1,
                Sign::End => depth = depth.saturating_sub(1),
                _ => {}
            }
            let is_sign = match tokens[place].kind {
                Sign::Char('1') => true,
                Sign::Char('a' | 'A' | 'i' | 'I') => !(letter_at(place + 1) || place > 0 && letter_at(place - 1)),
                _ => false,
            };
            is_sign && depth == 0
        })?;
        let at = tokens[place].at;
        let command = match tokens[place].kind {
            Sign::Char('a') => "alph",
            Sign::Char('A') => "Alph",
            Sign::Char('i') => "roman",
            Sign::Char('I') => "Roman",
            _ => "arabic",
        };
        let mut out = tokens[..place].to_vec();
        out.extend([Sign::Command(command.into()), Sign::Char('*')].map(|kind| Token { kind, at }));
        out.extend(tokens[place + 1..].iter().filter(|token| token.kind != Sign::Char(',')).cloned());
        Some(out)
    }

    /// `\setlist[enumerate,2]{label=(\alph*)}`: what holds for all lists of a kind.
    pub(super) fn settings_of_lists(&mut self, name: &str) {
        self.input.take('*');
        let lists = self.input.option().unwrap_or_default();
        let settings = self.input.argument();
        let lists = self.input.characters(&lists);
        let (levels, mut kinds): (Vec<&str>, Vec<&str>) = lists
            .split(',')
            .map(str::trim)
            .filter(|part| !part.is_empty())
            .partition(|part| part.bytes().all(|byte| byte.is_ascii_digit()));
        if name == "setenumerate" {
            kinds.push("enumerate");
        }
        let levels: Vec<usize> = levels.iter().filter_map(|level| level.parse().ok()).collect();
        for (key, value) in self.input.pairs(&settings) {
            let Some(kept) = KEPT.iter().find(|kept| **kept == key) else { continue };
            for kind in &kinds {
                for level in (1..=COUNTERS.len()).filter(|level| levels.is_empty() || levels.contains(level)) {
                    let counter = counter_of(kind.trim_end_matches('*'), level - 1);
                    self.macros.keep(format!("{kept} of {counter}").into(), value.clone());
                }
            }
        }
    }

    /// What a document set for all lists of a kind.
    pub(super) fn kept_setting(&self, key: &str, counter: &str) -> Vec<Token> {
        self.macros.body(&format!("{key} of {counter}")).map(|body| body.to_vec()).unwrap_or_default()
    }

    /// Notes how the items of a list are numbered, where that is not as any list is.
    pub(super) fn show_label(&mut self, list: NodeId, label: &Label, level: usize) {
        // Those of the second level stand in parentheses anyway.
        let is_usual = match (label.before.as_str(), label.after.as_str()) {
            ("", ".") => true,
            around => around == ("(", ")") && level == 1 && label.marker == USUAL[1],
        };
        if is_usual || label.before.contains('%') || label.after.contains('%') {
            return;
        }
        let text = format!("{}%{}{}", label.before, level + 1, label.after);
        let definition = list.index() as u32;
        self.doc.numberings.set(list, ListNumbering { definition, level: level as u8, text });
        if self.doc.styles.len() >= MOST_STYLES {
            return;
        }
        let after = if label.after.ends_with(' ') { label.after.clone() } else { format!("{} ", label.after) };
        // Long ones would stand outside of the text.
        let length = label.before.chars().count() + 2 + label.after.trim_end().chars().count();
        let mut properties = StyleProperties::new();
        if length > SHORT {
            properties.push((Property::PaddingLeft, Value::twips(length.min(60) as i32 * WIDTH)));
        }
        let numbers = NumberStyle { like: label.marker.style_name().to_owned(), before: label.before.clone(), after };
        let known = self.doc.styles.iter().find(|style| style.numbers.as_ref() == Some(&numbers));
        let class = match known {
            Some(style) => style.class.clone(),
            None => {
                let class = format!("list{}", self.doc.styles.iter().filter(|style| style.numbers.is_some()).count() + 1);
                self.doc.styles.push(NamedStyle {
                    class: class.clone(),
                    properties,
                    numbers: Some(numbers),
                    ..NamedStyle::default()
                });
                class
            }
        };
        let class = self.doc.intern(&class);
        self.doc.attributes_mut(list).classes.push(class);
    }
}

/// The counter of a list by its name and how deep it stands in others of its kind.
pub(super) fn counter_of(list: &str, depth: usize) -> String {
    match list {
        "enumerate" => COUNTERS[depth.min(3)].to_owned(),
        _ => format!("{list}{}", numeral(depth as i64 + 1, Marker::LowerRoman)),
    }
}
