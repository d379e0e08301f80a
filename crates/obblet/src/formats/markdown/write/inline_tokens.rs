//! A line of text, taken apart into pieces.

use super::inline_token::{Context, Mark, Token};
use super::{LinkForm, Writer, escape, tags};
use crate::document::{Kind, Markup, NodeId, Step};
use crate::formats::markdown::Extensions;

impl<'d> Writer<'d, '_> {
    /// The pieces of the text from one sibling to another.
    pub(super) fn tokens(&mut self, first: NodeId, last: NodeId, context: Context) -> Vec<Token<'d>> {
        let mut tokens = std::mem::take(&mut self.spare_tokens);
        let mut at = Some(first);
        while let Some(id) = at {
            self.tokens_of(id, context, &mut tokens);
            at = self.doc.node(id).next().filter(|_| id != last);
        }
        if tokens.iter().any(|token| matches!(token, Token::Open(_))) { normalize_spaces(tokens) } else { tokens }
    }

    fn tokens_of(&mut self, top: NodeId, context: Context, tokens: &mut Vec<Token<'d>>) {
        let doc = self.doc;
        let mut links = 0;
        let mut walk = doc.walk(top);
        while let Some(step) = walk.next() {
            match step {
                Step::Enter(id) => match doc.kind(id) {
                    Kind::Text(text) => tokens.push(Token::Text(doc.text(text))),
                    Kind::SoftBreak => tokens.push(Token::Text("\n")),
                    Kind::LineBreak => tokens.push(Token::Break),
                    Kind::Code(text) => tokens.extend(escape::code(doc.text(text), context.in_table).map(Token::Literal)),
                    Kind::Image { src, alt } => {
                        let mut picture = format!("![{}](", escape::label(doc.text(alt), self.options));
                        self.target(&mut picture, doc.text(src), id);
                        picture.push(')');
                        tokens.push(Token::Literal(picture));
                    }
                    Kind::Math(formula) => {
                        let formula = doc.formula(formula);
                        match formula.notation {
                            Markup::Html => tokens.push(Token::Text(doc.text(formula.characters))),
                            notation => {
                                let tex = crate::math::to_tex(notation, doc.text(formula.source));
                                tokens.push(self.math(&tex, formula.display, context));
                            }
                        }
                    }
                    Kind::NoteReference(note) => tokens.push(self.note_mark(note, links > 0)),
                    Kind::Raw { raw, .. } => tokens.push(Token::Literal(doc.text(raw).to_owned())),
                    Kind::Link { href } => {
                        if let Some(address) = self.as_autolink(id, doc.text(href)).filter(|_| links == 0) {
                            tokens.push(Token::Literal(format!("<{address}>")));
                            walk.skip_children(id);
                        } else if links == 0 {
                            tokens.push(Token::OpenLink);
                        }
                        links += 1;
                    }
                    kind => self.open(kind, id, tokens),
                },
                Step::Leave(id) => match doc.kind(id) {
                    Kind::Link { href } => {
                        links -= 1;
                        if links == 0 && self.as_autolink(id, doc.text(href)).is_none() {
                            let target = self.link_target(doc.text(href), id);
                            tokens.push(Token::CloseLink(target));
                        }
                    }
                    kind => self.close(kind, id, tokens),
                },
            }
        }
    }

    fn mark(&self, kind: Kind) -> Option<Mark> {
        match kind {
            Kind::Emphasis => Some(Mark::Emphasis),
            Kind::Strong => Some(Mark::Strong),
            Kind::Deletion | Kind::Strikethrough if self.options.syntax.has(Extensions::STRIKETHROUGH) => Some(Mark::Strike),
            _ => None,
        }
    }

    fn open(&mut self, kind: Kind, id: NodeId, tokens: &mut Vec<Token<'d>>) {
        if kind == Kind::Anchor && self.has_places {
            let name = self.doc.attributes(id).id.map(|name| tags::escaped(self.doc.text(name)));
            tokens.extend(name.map(|name| Token::Literal(format!("<a id=\"{name}\">"))));
            return;
        }
        if let Some(mark) = self.mark(kind) {
            return tokens.push(Token::Open(mark));
        }
        match (tags::element(kind).or((matches!(kind, Kind::Span | Kind::Anchor)).then_some("span")), self.keeps_html()) {
            (Some(name), true) if self.says_something(id, kind) => tokens.push(Token::Literal(self.start_tag(name, id))),
            (Some(_), false) if self.says_something(id, kind) => self.no_syntax("formatting beyond emphasis", id),
            _ => {}
        }
    }

    fn close(&mut self, kind: Kind, id: NodeId, tokens: &mut Vec<Token<'d>>) {
        if kind == Kind::Anchor && self.has_places {
            tokens.extend(self.doc.attributes(id).id.map(|_| Token::Literal("</a>".to_owned())));
            return;
        }
        if let Some(mark) = self.mark(kind) {
            return tokens.push(Token::Close(mark));
        }
        let name = tags::element(kind).or((matches!(kind, Kind::Span | Kind::Anchor)).then_some("span"));
        if let Some(name) = name.filter(|_| self.keeps_html() && self.says_something(id, kind)) {
            tokens.push(Token::Literal(format!("</{name}>")));
        }
    }

    fn keeps_html(&self) -> bool {
        self.options.settings.html == super::HtmlPieces::Keep
    }

    fn note_mark(&mut self, note: crate::document::NoteId, in_link: bool) -> Token<'d> {
        let index = note.0 as usize;
        match self.labels.get(index) {
            Some(label) if self.options.syntax.has(Extensions::FOOTNOTES) && !in_link => Token::Literal(format!("[^{label}]")),
            _ => Token::Literal(format!("\\[{}\\]", index + 1)),
        }
    }

    fn math(&mut self, tex: &str, display: bool, context: Context) -> Token<'d> {
        let tex = tex.trim();
        let one_line = if context.single_line { tex.replace('\n', " ") } else { tex.to_owned() };
        let breaks_out = one_line.is_empty()
            || one_line.contains('$')
            || one_line.ends_with('\\')
            || one_line.contains("\n\n")
            || (context.in_table && one_line.contains('|'));
        let fits = self.options.syntax.has(Extensions::MATH) && !breaks_out;
        match (fits, display) {
            (true, true) => Token::Math(format!("$${one_line}$$")),
            (true, false) => Token::Math(format!("${one_line}$")),
            (false, _) => Token::Literal(escape::code(&one_line, context.in_table).unwrap_or_default()),
        }
    }

    /// The address of a link that is its own text.
    fn as_autolink(&self, id: NodeId, href: &'d str) -> Option<&'d str> {
        let child = self.doc.node(id).first_child().filter(|&child| self.doc.node(child).next().is_none())?;
        let Kind::Text(text) = self.doc.kind(child) else { return None };
        let text = self.doc.text(text);
        let bare = self.doc.attributes(id).title.is_none();
        let mail = href.strip_prefix("mailto:").is_some_and(|address| address == text && escape::is_mail_address(address));
        (bare && (text == href && escape::is_address(href) || mail)).then_some(text)
    }

    /// Writes the address and the title of a link or a picture, as they stand between the parentheses.
    fn target(&self, out: &mut String, address: &str, id: NodeId) {
        let title = self.doc.attributes(id).title.map(|title| self.doc.text(title));
        escape::target(out, address, title);
    }

    /// What stands behind the text of a link.
    fn link_target(&mut self, address: &str, id: NodeId) -> String {
        let name = address.strip_prefix('#').map(|name| percent_encoding::percent_decode_str(name).decode_utf8_lossy());
        let slug = name.as_deref().and_then(|name| self.slugs.get(name)).map(|slug| format!("#{slug}"));
        if slug.is_none() && name.is_some_and(|name| !name.is_empty()) && !self.options.settings.ids && !self.keeps_html() {
            self.no_syntax("names of places that are no headings, to which links lead", id);
        }
        let mut target = String::with_capacity(address.len() + 2);
        target.push('(');
        self.target(&mut target, slug.as_deref().unwrap_or(address), id);
        target.push(')');
        if self.options.settings.links == LinkForm::Inline || target == "()" {
            return target;
        }
        let target = target[1..target.len() - 1].to_owned();
        let next = self.definitions.len() + 1;
        let number = *self.definition_numbers.entry(target.clone()).or_insert(next);
        if number == next {
            self.definitions.push((target, number));
        }
        format!("[{number}]")
    }
}

fn is_space(c: char) -> bool {
    matches!(c, ' ' | '\n' | '\t')
}

/// Moves white space out of what stands between delimiters, where it would keep them from being delimiters, and takes out
/// delimiters with nothing between them.
fn normalize_spaces(tokens: Vec<Token<'_>>) -> Vec<Token<'_>> {
    let mut out: Vec<Token<'_>> = Vec::with_capacity(tokens.len());
    // White space that goes behind what ends next.
    let mut carried: Vec<Token<'_>> = Vec::new();
    for token in tokens {
        match token {
            Token::Close(mark) => {
                loop {
                    match out.last() {
                        Some(Token::Text(text)) if text.ends_with(is_space) => {
                            let kept = text.trim_end_matches(is_space);
                            let white = &text[kept.len()..];
                            carried.insert(0, Token::Text(white));
                            out.pop();
                            if !kept.is_empty() {
                                out.push(Token::Text(kept));
                                break;
                            }
                        }
                        Some(Token::Text("")) => {
                            out.pop();
                        }
                        Some(Token::Break) => carried.extend(out.pop()),
                        _ => break,
                    }
                }
                if matches!(out.last(), Some(Token::Open(open)) if *open == mark) {
                    out.pop();
                } else {
                    out.push(Token::Close(mark));
                }
            }
            Token::Text(text) => {
                out.append(&mut carried);
                let opens = out.iter().rev().take_while(|token| matches!(token, Token::Open(_))).count();
                let kept = text.trim_start_matches(is_space);
                if opens > 0 && kept.len() < text.len() {
                    out.insert(out.len() - opens, Token::Text(&text[..text.len() - kept.len()]));
                    if !kept.is_empty() {
                        out.push(Token::Text(kept));
                    }
                } else if !text.is_empty() {
                    out.push(Token::Text(text));
                }
            }
            Token::Break => {
                out.append(&mut carried);
                let opens = out.iter().rev().take_while(|token| matches!(token, Token::Open(_))).count();
                out.insert(out.len() - opens, Token::Break);
            }
            token => {
                out.append(&mut carried);
                out.push(token);
            }
        }
    }
    out.append(&mut carried);
    out
}
