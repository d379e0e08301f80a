//! Text: commands around it, and what stands in it.

use super::super::own_commands::{OwnCommand, command_for};
use super::{Writer, escape};
use crate::document::{Kind, Markup, NodeId, Text, TextLevel};

/// Commands for kinds of text that LaTeX and common packages have, and the packages.
fn command(kind: Kind) -> Option<(&'static str, &'static str)> {
    Some(match kind {
        Kind::Emphasis => ("emph", ""),
        Kind::Strong => ("textbf", ""),
        Kind::Subscript => ("textsubscript", ""),
        Kind::Superscript => ("textsuperscript", ""),
        Kind::TextLevel(TextLevel::Code) => ("texttt", ""),
        Kind::TextLevel(TextLevel::Quotation) => ("enquote", "csquotes"),
        Kind::Underline => ("ul", "lua-ul"),
        Kind::Strikethrough => ("st", "lua-ul"),
        Kind::Highlight => ("hl", "lua-ul"),
        _ => return None,
    })
}

impl Writer<'_> {
    /// Whether nothing but signs stands in a node.
    fn is_parenthesis(&self, id: NodeId) -> bool {
        let doc = self.doc;
        doc.children(id).all(|child| match doc.kind(child) {
            Kind::Text(text) => !doc.text(text).contains(char::is_alphanumeric),
            _ => false,
        })
    }

    /// Appends words.
    pub(super) fn words(&mut self, words: &str) {
        escape::text(words, self.marks, &mut self.needs, &mut self.out);
    }

    /// Comes to a node of text. Whether what is below it is written in turn.
    pub(super) fn enter_inline(&mut self, id: NodeId, kind: Kind) -> bool {
        let doc = self.doc;
        match kind {
            Kind::Text(text) => self.text(id, text),
            Kind::SoftBreak => {
                if !self.out.ends_with(['\n', ' ']) {
                    self.out.push('\n');
                }
            }
            Kind::LineBreak => self.line_break(id),
            Kind::Code(code) => {
                self.out.push_str("\\texttt{");
                escape::code(doc.text(code), &mut self.needs, &mut self.out);
                self.out.push('}');
            }
            Kind::Math(formula) => self.formula(id, formula),
            Kind::NoteReference(note) => self.note(note, id),
            Kind::Image { src, alt } => self.image(id, src, alt),
            Kind::Raw { markup: Markup::Tex, raw } => self.out.push_str(doc.text(raw)),
            Kind::Raw { raw, .. } => {
                self.no_syntax("markup of other formats; it is shown as code", id);
                self.out.push_str("\\texttt{");
                escape::code(doc.text(raw), &mut self.needs, &mut self.out);
                self.out.push('}');
            }
            Kind::Anchor => self.place_of(id),
            // The signs around what a ruby says are made anew; whatever else stands there is text.
            Kind::TextLevel(TextLevel::RubyParenthesis) => return !self.is_parenthesis(id),
            _ if self.holds_blocks(id) => self.place_of(id),
            Kind::Link { href } => return self.begin_link(id, href),
            Kind::TextLevel(TextLevel::Abbreviation) if self.doc.attributes(id).title.is_some() && self.has_definitions() => {
                let title = self.doc.attributes(id).title.map(|title| self.doc.text(title)).unwrap_or_default();
                self.needs.own.insert(super::super::own_commands::ABBREVIATION.0);
                self.out.push_str("\\abbr[{");
                self.words(title);
                self.out.push_str("}]{");
            }
            Kind::TextLevel(TextLevel::RubyText) => self.out.push('('),
            Kind::Superscript if self.cites_above_line(id) => return false,
            _ => {
                self.place_of(id);
                self.begin_style(id, kind);
            }
        }
        true
    }

    fn begin_style(&mut self, id: NodeId, kind: Kind) {
        if let Some(language) = self.other_language_of(id) {
            self.out.push_str(&format!("\\foreignlanguage{{{language}}}{{"));
        }
        if let Some((name, package)) = command(kind) {
            if !package.is_empty() {
                self.needs.packages.insert(package);
            }
            if name == "hl" {
                self.needs.packages.extend(["xcolor", "luacolor"]);
            }
            self.out.push('\\');
            self.out.push_str(name);
            self.out.push('{');
        } else if let Some(own) = self.own_command(kind) {
            self.needs.own.insert(own.name);
            if matches!(kind, Kind::Insertion | Kind::Deletion) {
                self.needs.packages.insert("lua-ul");
            }
            self.out.push('\\');
            self.out.push_str(own.name);
            self.out.push('{');
        } else if let Some(name) = self.command_of_class(id, kind) {
            self.out.push('\\');
            self.out.push_str(&name);
            self.out.push('{');
        }
    }

    /// The command for text that HTML has a word for. Abbreviations without a title and times are words like any other.
    fn own_command(&self, kind: Kind) -> Option<&'static OwnCommand> {
        command_for(kind).filter(|_| !self.options.fragment && self.given.text.is_none())
    }

    /// Whether what is written can use definitions of its own.
    const fn has_definitions(&self) -> bool {
        !self.options.fragment && self.given.text.is_none()
    }

    pub(super) fn other_language_of(&mut self, id: NodeId) -> Option<&'static str> {
        if !self.doc.node(id).has_attributes() {
            return None;
        }
        let attributes = self.doc.attributes(id).clone();
        self.other_language(&attributes)
    }

    /// The command that stands for the class of a span.
    fn command_of_class(&mut self, id: NodeId, kind: Kind) -> Option<String> {
        let doc = self.doc;
        if kind != Kind::Span || !doc.node(id).has_attributes() {
            return None;
        }
        let names = doc.attributes(id).classes.iter().map(|class| doc.text(*class));
        let mut names = names.filter(|name| name.bytes().all(|byte| byte.is_ascii_alphabetic()));
        if self.given.text.is_some() {
            return names.find(|name| self.given.commands.contains(name)).map(str::to_owned);
        }
        let name = names.next().filter(|_| self.settings.environments)?;
        if super::blocks::is_taken(name) || crate::formats::latex::read::is_known(name) {
            return None;
        }
        self.needs.commands.insert(name.to_owned());
        Some(name.to_owned())
    }

    pub(super) fn leave_inline(&mut self, id: NodeId, kind: Kind, begins: usize) {
        match kind {
            Kind::Link { .. } => self.end_link(begins),
            _ if kind.is_leaf() || self.holds_blocks(id) => {}
            Kind::TextLevel(TextLevel::RubyText) => self.out.push(')'),
            Kind::TextLevel(TextLevel::Abbreviation) if self.doc.attributes(id).title.is_some() && self.has_definitions() => {
                self.out.push('}')
            }
            _ => {
                let is_marked =
                    command(kind).is_some() || self.own_command(kind).is_some() || self.command_of_class(id, kind).is_some();
                // What holds nothing needs no command.
                if is_marked && self.out.ends_with('{') && !self.out[begins..].contains('}') {
                    return self.out.truncate(begins);
                }
                for _ in 0..usize::from(is_marked) + usize::from(self.other_language_of(id).is_some()) {
                    self.out.push('}');
                }
            }
        }
    }

    /// Whether blocks stand in what is text elsewhere: no command can be around them.
    pub(super) fn holds_blocks(&self, id: NodeId) -> bool {
        if self.doc.kind(id).is_inline() {
            return self.around_blocks.contains(&id);
        }
        self.doc.children(id).any(|child| !self.doc.kind(child).is_inline() || self.around_blocks.contains(&child))
    }

    fn text(&mut self, id: NodeId, text: Text) {
        let mut words = self.implied.rest(id, self.doc.text(text));
        if let Some(caption) = self.doc.node(id).parent()
            && self.doc.node(id).previous().is_none()
            && let Some(length) = self.numbers.captions.get(&caption)
        {
            words = &words[*length..];
        }
        // White space at the beginning of a line is none of it.
        if self.out.ends_with(['\n', ' ']) || self.out.is_empty() {
            words = words.trim_start_matches([' ', '\n', '\t', '\r', '\u{C}']);
        }
        self.words(words);
    }

    fn line_break(&mut self, id: NodeId) {
        self.out.truncate(self.out.trim_end_matches(' ').len());
        let is_last = self.doc.node(id).next().is_none();
        let line = self.last_line();
        let shows_nothing = line.starts_with("\\hypertarget{") && line.ends_with("}{}")
            || line.starts_with("\\item[") && line.trim_end().ends_with(']');
        if self.front.is_byline {
            self.out.push_str("\\\\ ");
        } else if self.inside.moving > 0 || self.inside.line > 0 {
            self.out.push(' ');
        } else if is_last && self.is_in_block(id) {
            // At the end of a paragraph it breaks nothing.
        } else if shows_nothing
            || self.out.ends_with('\n')
            || self.out.ends_with("\\item")
            || self.out.ends_with('{')
            || self.out.is_empty()
        {
            self.out.push_str("\\leavevmode\\newline\n");
        } else if self.inside.argument > 0 {
            self.out.push_str("\\newline\n");
        } else {
            self.out.push_str("\\\\\n");
        }
    }

    fn is_in_block(&self, id: NodeId) -> bool {
        self.doc.node(id).parent().is_some_and(|parent| !self.doc.kind(parent).is_inline())
    }

    /// An image: a picture file that the engine can show, or its alt text.
    fn image(&mut self, id: NodeId, src: Text, alt: Text) {
        let doc = self.doc;
        let (src, alt) = (doc.text(src), doc.text(alt));
        let extension = src.rsplit('.').next().unwrap_or_default().to_ascii_lowercase();
        let is_local = !src.contains([':', '?', '#', '\\', '{', '}', '~', '%', '"', '$', '^', '&'])
            && !src.starts_with("//")
            && !src.is_empty();
        if !is_local || !matches!(extension.as_str(), "png" | "jpg" | "jpeg" | "pdf") {
            return self.other_image(id, src, alt, is_local);
        }
        // One in another folder is not there where the document goes alone.
        if self.missing.contains(&id) || src.starts_with("../") {
            self.needs.add(super::preamble::Extra::MissingImages, true);
        }
        self.needs.packages.insert("graphicx");
        let mut options = self.size_of(id);
        if !alt.is_empty() {
            let mut words = String::new();
            let mut unused = super::preamble::Needs::default();
            escape::text(&alt.replace(['[', ']', ','], " "), escape::Marks::Escaped, &mut unused, &mut words);
            options.push(format!("alt={{{}}}", words.replace('\n', " ").trim()));
        }
        let options = if options.is_empty() { String::new() } else { format!("[{}]", options.join(", ")) };
        self.out.push_str(&format!("\\includegraphics{options}{{{src}}}"));
    }

    /// An image that the engine can't show: a link to it.
    fn other_image(&mut self, id: NodeId, src: &str, alt: &str, is_local: bool) {
        if is_local {
            self.no_syntax("images in formats that the engine can't show; their alt text leads to them", id);
        } else {
            self.no_syntax("images from elsewhere; their alt text leads to them", id);
        }
        let is_in_link = self.doc.ancestors(id).any(|above| above != id && matches!(self.doc.kind(above), Kind::Link { .. }));
        let words = if alt.trim().is_empty() { src.rsplit('/').next().unwrap_or(src) } else { alt };
        if is_in_link || src.is_empty() || src.starts_with("data:") {
            return self.words(words);
        }
        self.needs.packages.insert("hyperref");
        let address = escape::address(src);
        self.out.push_str(&format!("\\href{{{address}}}{{"));
        self.words(words);
        self.out.push('}');
    }

    /// The width and the height that a node says, in points: 96 pixels are 72.27 of them.
    fn size_of(&self, id: NodeId) -> Vec<String> {
        let doc = self.doc;
        if !doc.node(id).has_attributes() {
            return Vec::new();
        }
        let attributes = doc.attributes(id);
        let said =
            |name: &str| attributes.other.iter().find(|(key, _)| doc.text(*key) == name).map(|(_, value)| doc.text(*value));
        let mut options = Vec::new();
        if let Some(width) = said("width") {
            if let Some(percent) = width.trim().strip_suffix('%').and_then(|number| number.parse::<f64>().ok()) {
                options.push(format!("width={:.2}\\linewidth", percent.clamp(1.0, 100.0) / 100.0));
            } else if let Ok(pixels) = width.trim().trim_end_matches("px").parse::<f64>() {
                let points = (pixels * 72.27 / 96.0).clamp(1.0, 10_000.0);
                // No wider than the line.
                options.push(if points > 340.0 { "width=\\linewidth".to_owned() } else { format!("width={points:.2}pt") });
            }
        }
        options
    }
}
