//! What goes into tree construction, and what stays out: all that can run, all that belongs to a page and not to its text,
//! and elements whose content is no markup.

use super::super::depth_limit::{Counting, DEEPEST, FORMATTING, LeftOut, VOID};
use super::sink::{Handle, Sink};
use crate::document::{Callout, DivisionKind, Finding, Kind, NodeId, RowGroupKind, TextLevel};
use html5ever::tendril::StrTendril;
use html5ever::tokenizer::states::RawKind;
use html5ever::tokenizer::{Tag, TagKind, Token, TokenSink, TokenSinkResult};
use html5ever::tree_builder::TreeBuilder;
use html5ever::{Attribute, LocalName};
use std::cell::RefCell;

/// Tags without a meaning within a text. What stands between them stays.
const DROPPED: [&str; 24] = [
    "html",
    "head",
    "body",
    "frameset",
    "frame",
    "base",
    "link",
    "meta",
    "title",
    "template",
    "select",
    "option",
    "optgroup",
    "textarea",
    "xmp",
    "noembed",
    "noframes",
    "noscript",
    "plaintext",
    "form",
    "source",
    "track",
    "param",
    "image",
];

/// Elements whose content nobody sees.
const UNSEEN: [&str; 3] = ["script", "style", "iframe"];

/// No more than so many elements of the source's HTML are open at once that are of the kind that is opened again.
const MOST_FORMATTING: usize = 32;

/// Stands between tokens and tree construction.
pub(super) struct Filter<'b, 'd> {
    builder: &'b TreeBuilder<Handle, Sink<'d>>,
    state: RefCell<State>,
}

#[derive(Default)]
struct State {
    /// The element whose content is being left out.
    skipping: Option<String>,
    /// What there is to say of it, and its text.
    finding: Option<Finding>,
    skipped: String,
    left_out: LeftOut,
    formatting: usize,
}

/// The tokens of one piece of HTML.
pub(super) struct Chunk<'f, 'b, 'd>(pub(super) &'f Filter<'b, 'd>);

impl TokenSink for Chunk<'_, '_, '_> {
    type Handle = Handle;

    fn process_token(&self, token: Token, _: u64) -> TokenSinkResult<Handle> {
        match token {
            Token::TagToken(tag) if tag.kind == TagKind::StartTag => return self.0.start_tag(tag),
            Token::TagToken(tag) => self.0.end_tag(tag),
            Token::CharacterTokens(text) => self.0.characters(text),
            Token::DoctypeToken(_)
            | Token::CommentToken(_)
            | Token::NullCharacterToken
            | Token::EOFToken
            | Token::ParseError(_) => {}
        }
        TokenSinkResult::Continue
    }

    fn adjusted_current_node_present_but_not_in_html_namespace(&self) -> bool {
        self.0.builder.adjusted_current_node_present_but_not_in_html_namespace()
    }
}

impl<'b, 'd> Filter<'b, 'd> {
    pub(super) fn new(builder: &'b TreeBuilder<Handle, Sink<'d>>) -> Self {
        Self { builder, state: RefCell::default() }
    }

    fn forward(&self, token: Token) {
        let _ = self.builder.process_token(token, 1);
    }

    fn start_tag(&self, tag: Tag) -> TokenSinkResult<Handle> {
        let name = &*tag.name;
        let state = &mut *self.state.borrow_mut();
        if state.skipping.is_some() || DROPPED.contains(&name) {
            return TokenSinkResult::Continue;
        }
        if UNSEEN.contains(&name) {
            state.skipping = Some(name.to_owned());
            state.finding = self.unseen(&tag);
            return TokenSinkResult::RawData(if name == "script" { RawKind::ScriptData } else { RawKind::Rawtext });
        }
        if name.contains(':') {
            // Namespaced elements of office programs; they carry no text of their own.
            return TokenSinkResult::Continue;
        }
        let is_formatting = FORMATTING.contains(&name);
        let deep = self.builder.sink.depth().get() >= DEEPEST;
        let too_many = is_formatting && state.formatting >= MOST_FORMATTING;
        if (deep && !VOID.contains(&name)) || too_many {
            if deep {
                self.builder.sink.too_deep();
            }
            state.left_out.push(&tag.name);
            return TokenSinkResult::Continue;
        }
        if !deep && state.formatting < MOST_FORMATTING {
            state.left_out.clear();
        }
        state.formatting += usize::from(is_formatting);
        self.forward(Token::TagToken(tag));
        TokenSinkResult::Continue
    }

    /// What there is to say of an element whose content nobody sees. A page within a page becomes a link to it.
    fn unseen(&self, tag: &Tag) -> Option<Finding> {
        let attribute = |name: &str| {
            tag.attrs.iter().find(|attribute| &*attribute.name.local == name).map(|attribute| attribute.value.clone())
        };
        let finding = match &*tag.name {
            "script" => Finding::lost("html.script", "a script was left out"),
            "style" => Finding::changed("html.style", "style rules within the text were left out"),
            _ => {
                let src = attribute("src").filter(|src| !src.is_empty())?;
                let text = attribute("title").filter(|title| !title.is_empty()).unwrap_or_else(|| src.clone());
                let href = html5ever::QualName::new(None, html5ever::ns!(), LocalName::from("href"));
                self.tag("a", TagKind::StartTag, vec![Attribute { name: href, value: src }]);
                self.forward(Token::CharacterTokens(text));
                self.tag("a", TagKind::EndTag, vec![]);
                Finding::changed("html.embedded", "an embedded page became a link to it")
            }
        };
        Some(finding.at(self.builder.sink.here()))
    }

    fn end_tag(&self, tag: Tag) {
        let name = &*tag.name;
        let state = &mut *self.state.borrow_mut();
        if let Some(skipping) = &state.skipping {
            if skipping == name {
                self.stop_skipping(state);
            }
            return;
        }
        if DROPPED.contains(&name) || UNSEEN.contains(&name) || name.contains(':') {
            return;
        }
        if state.left_out.end(&tag.name) {
            return;
        }
        if FORMATTING.contains(&name) {
            state.formatting = state.formatting.saturating_sub(1);
        }
        let depth = self.builder.sink.depth();
        depth.set(depth.get().saturating_sub(1));
        self.forward(Token::TagToken(tag));
    }

    fn stop_skipping(&self, state: &mut State) {
        state.skipping = None;
        let skipped = std::mem::take(&mut state.skipped);
        if let Some(finding) = state.finding.take() {
            self.builder.sink.find(finding.losing(skipped.trim()));
        }
    }

    fn characters(&self, text: StrTendril) {
        let state = &mut *self.state.borrow_mut();
        if state.skipping.is_some() {
            state.skipped.push_str(&text);
        } else {
            self.forward(Token::CharacterTokens(text));
        }
    }

    /// The tag of a node of the model.
    pub(super) fn node(&self, id: NodeId, tag: TagKind) {
        let kind = self.builder.sink.kind(id);
        let state = &mut *self.state.borrow_mut();
        if state.skipping.is_some() {
            if kind.is_inline() {
                return;
            }
            // What is left out ends with its block.
            self.stop_skipping(state);
        }
        let attributes = if tag == TagKind::StartTag { vec![self.builder.sink.mark(id)] } else { vec![] };
        self.tag(name(kind), tag, attributes);
    }

    /// A node with all that is below it.
    pub(super) fn whole(&self, id: NodeId) {
        let kind = self.builder.sink.kind(id);
        {
            let state = &mut *self.state.borrow_mut();
            if state.skipping.is_some() && kind.is_inline() {
                let words = self.builder.sink.words(id);
                state.skipped.push_str(&words);
                return;
            }
        }
        self.node(id, TagKind::StartTag);
        if !matches!(kind, Kind::ThematicBreak | Kind::Image { .. } | Kind::LineBreak) {
            self.node(id, TagKind::EndTag);
        }
    }

    pub(super) fn end(&self) {
        self.stop_skipping(&mut self.state.borrow_mut());
        self.forward(Token::EOFToken);
    }

    fn tag(&self, name: &'static str, kind: TagKind, attrs: Vec<Attribute>) {
        self.forward(Token::TagToken(Tag {
            kind,
            name: LocalName::from(name),
            self_closing: false,
            attrs,
            had_duplicate_attributes: false,
        }));
    }
}

/// The name under which a node goes into tree construction: one that is treated there as the node deserves.
const fn name(kind: Kind) -> &'static str {
    match kind {
        Kind::Heading(1) => "h1",
        Kind::Heading(2) => "h2",
        Kind::Heading(3) => "h3",
        Kind::Heading(4) => "h4",
        Kind::Heading(5) => "h5",
        Kind::Heading(_) => "h6",
        Kind::Paragraph => "p",
        Kind::BlockQuote => "blockquote",
        Kind::List(list) => {
            if list.ordered {
                "ol"
            } else {
                "ul"
            }
        }
        Kind::ListItem { .. } => "li",
        Kind::TermList => "dl",
        Kind::Term => "dt",
        Kind::TermDescription => "dd",
        Kind::CodeBlock { .. } | Kind::Preformatted => "pre",
        Kind::Table => "table",
        Kind::Caption => "caption",
        Kind::RowGroup(RowGroupKind::Head) => "thead",
        Kind::RowGroup(RowGroupKind::Body) => "tbody",
        Kind::RowGroup(RowGroupKind::Foot) => "tfoot",
        Kind::Row => "tr",
        Kind::Cell(cell) => {
            if cell.header {
                "th"
            } else {
                "td"
            }
        }
        Kind::Figure => "figure",
        Kind::ThematicBreak => "hr",
        Kind::Division(DivisionKind::Callout(
            Callout::Note | Callout::Tip | Callout::Important | Callout::Warning | Callout::Caution,
        )) => "aside",
        Kind::Division(_) | Kind::Root | Kind::Note | Kind::RawBlock { .. } => "div",
        Kind::Details { .. } => "details",
        Kind::Summary => "summary",
        Kind::Emphasis => "em",
        Kind::Strong => "strong",
        Kind::Underline => "u",
        Kind::Strikethrough => "s",
        Kind::Link { .. } => "a",
        Kind::Image { .. } => "img",
        Kind::LineBreak => "br",
        Kind::TextLevel(TextLevel::Ruby) => "ruby",
        Kind::TextLevel(TextLevel::RubyText) => "rt",
        Kind::TextLevel(TextLevel::RubyParenthesis) => "rp",
        _ => "span",
    }
}
