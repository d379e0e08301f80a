//! What goes into tree construction, and what stays out: all that can run, all that belongs to a page and not to its text,
//! and elements whose content is no markup.

use super::super::depth_limit::{Counting, DEEPEST, LeftOut, is_formatting, is_void};
use super::sink::{Handle, Sink};
use crate::document::{Callout, DivisionKind, Finding, Kind, NodeId, RowGroupKind, TextLevel};
use html5ever::tendril::StrTendril;
use html5ever::tokenizer::states::RawKind;
use html5ever::tokenizer::{Tag, TagKind, Token, TokenSink, TokenSinkResult};
use html5ever::tree_builder::TreeBuilder;
use html5ever::{Attribute, LocalName, local_name};
use std::cell::RefCell;

/// Tags without a meaning within a text. What stands between them stays.
fn is_dropped(name: &str) -> bool {
    matches!(
        name,
        "html"
            | "head"
            | "body"
            | "frameset"
            | "frame"
            | "base"
            | "link"
            | "meta"
            | "title"
            | "template"
            | "select"
            | "option"
            | "optgroup"
            | "textarea"
            | "xmp"
            | "noembed"
            | "noframes"
            | "noscript"
            | "plaintext"
            | "form"
            | "source"
            | "track"
            | "param"
            | "image"
    )
}

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
    nesting: Nesting,
}

/// What is open in tree construction. While only nodes of the model are, and stand in it as they do in the model, tree
/// construction has nothing to say about a node without HTML: it stays where it is.
#[derive(Default)]
struct Nesting {
    /// Nodes of the model, innermost last.
    nodes: Vec<NodeId>,
    /// Elements of the source's HTML, innermost last.
    elements: Vec<LocalName>,
    /// Whether tree construction may have put something elsewhere, for good.
    tangled: bool,
}

impl Nesting {
    /// The most elements that are open at once before a look at all of them costs more than it saves.
    const MOST_OPEN: usize = 64;

    fn open_element(&mut self, name: &LocalName, kind_of: impl Fn(NodeId) -> Kind) {
        if self.tangled {
            return;
        }
        let is_in_line = || {
            let kinds = self.nodes.iter().map(|&id| kind_of(id));
            kinds.into_iter().any(|kind| kind.is_inline() || matches!(kind, Kind::Paragraph | Kind::Heading(_)))
        };
        self.tangled |= (is_formatting(name) && self.elements.contains(name)) || (!is_of_a_line(name) && is_in_line());
        if !is_void(name) {
            self.elements.push(name.clone());
        }
        self.tangled |= self.elements.len() > Self::MOST_OPEN;
    }

    fn close_element(&mut self, name: &LocalName) {
        self.tangled |= self.elements.pop().is_none_or(|open| open != *name);
    }

    fn open_node(&mut self, id: NodeId, kind: Kind, kind_of: impl Fn(NodeId) -> Kind) {
        if self.tangled {
            return;
        }
        let alone = kind.is_inline() || matches!(kind, Kind::Paragraph | Kind::Heading(_));
        self.tangled |= !self.elements.is_empty()
            || (alone && self.nodes.iter().any(|&open| name(kind_of(open)) == name(kind)))
            || matches!(kind, Kind::Table | Kind::RowGroup(_) | Kind::Row | Kind::Cell(_));
        self.nodes.push(id);
    }

    fn close_node(&mut self) {
        self.tangled |= !self.elements.is_empty();
        self.nodes.pop();
    }
}

/// Elements that stand in a line of text and end nothing that is around them.
fn is_of_a_line(name: &str) -> bool {
    matches!(
        name,
        "a" | "abbr"
            | "b"
            | "bdi"
            | "bdo"
            | "big"
            | "br"
            | "cite"
            | "code"
            | "data"
            | "del"
            | "dfn"
            | "em"
            | "font"
            | "i"
            | "img"
            | "ins"
            | "kbd"
            | "mark"
            | "q"
            | "s"
            | "samp"
            | "small"
            | "span"
            | "strike"
            | "strong"
            | "sub"
            | "sup"
            | "time"
            | "tt"
            | "u"
            | "var"
            | "wbr"
    )
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
        if state.skipping.is_some() || is_dropped(name) {
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
        let is_formatting = is_formatting(name);
        let deep = self.builder.sink.depth().get() >= DEEPEST;
        let too_many = is_formatting && state.formatting >= MOST_FORMATTING;
        if (deep && !is_void(name)) || too_many {
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
        state.nesting.open_element(&tag.name, |id| self.builder.sink.kind(id));
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
                let href = html5ever::QualName::new(None, html5ever::ns!(), local_name!("href"));
                self.tag(local_name!("a"), TagKind::StartTag, vec![Attribute { name: href, value: src }]);
                self.forward(Token::CharacterTokens(text));
                self.tag(local_name!("a"), TagKind::EndTag, vec![]);
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
        if is_dropped(name) || UNSEEN.contains(&name) || name.contains(':') {
            return;
        }
        if state.left_out.end(&tag.name) {
            return;
        }
        if is_formatting(name) {
            state.formatting = state.formatting.saturating_sub(1);
        }
        let depth = self.builder.sink.depth();
        depth.set(depth.get().saturating_sub(1));
        state.nesting.close_element(&tag.name);
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

    /// A node of the model opens or closes.
    pub(super) fn node(&self, id: NodeId, tag: TagKind) {
        let is_skipping = self.state.borrow().skipping.is_some();
        self.node_tag(id, tag);
        let nesting = &mut self.state.borrow_mut().nesting;
        nesting.tangled |= is_skipping;
        match tag {
            TagKind::StartTag => nesting.open_node(id, self.builder.sink.kind(id), |id| self.builder.sink.kind(id)),
            TagKind::EndTag => nesting.close_node(),
        }
    }

    /// The tag of a node of the model.
    fn node_tag(&self, id: NodeId, tag: TagKind) {
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
        {
            let state = &mut *self.state.borrow_mut();
            if state.skipping.is_none() && !state.nesting.tangled && state.nesting.elements.is_empty() {
                return self.builder.sink.put(state.nesting.nodes.last().copied(), id, state.nesting.nodes.len() as u32 + 1);
            }
        }
        self.node_tag(id, TagKind::StartTag);
        if !matches!(kind, Kind::ThematicBreak | Kind::Image { .. } | Kind::LineBreak) {
            self.node_tag(id, TagKind::EndTag);
        }
    }

    pub(super) fn end(&self) {
        self.stop_skipping(&mut self.state.borrow_mut());
        self.forward(Token::EOFToken);
    }

    fn tag(&self, name: LocalName, kind: TagKind, attrs: Vec<Attribute>) {
        self.forward(Token::TagToken(Tag { kind, name, self_closing: false, attrs, had_duplicate_attributes: false }));
    }
}

/// The name under which a node goes into tree construction: one that is treated there as the node deserves.
fn name(kind: Kind) -> LocalName {
    match kind {
        Kind::Heading(1) => local_name!("h1"),
        Kind::Heading(2) => local_name!("h2"),
        Kind::Heading(3) => local_name!("h3"),
        Kind::Heading(4) => local_name!("h4"),
        Kind::Heading(5) => local_name!("h5"),
        Kind::Heading(_) => local_name!("h6"),
        Kind::Paragraph => local_name!("p"),
        Kind::BlockQuote => local_name!("blockquote"),
        Kind::List(list) => {
            if list.ordered {
                local_name!("ol")
            } else {
                local_name!("ul")
            }
        }
        Kind::ListItem { .. } => local_name!("li"),
        Kind::TermList => local_name!("dl"),
        Kind::Term => local_name!("dt"),
        Kind::TermDescription => local_name!("dd"),
        Kind::CodeBlock { .. } | Kind::Preformatted => local_name!("pre"),
        Kind::Table => local_name!("table"),
        Kind::Caption => local_name!("caption"),
        Kind::RowGroup(RowGroupKind::Head) => local_name!("thead"),
        Kind::RowGroup(RowGroupKind::Body) => local_name!("tbody"),
        Kind::RowGroup(RowGroupKind::Foot) => local_name!("tfoot"),
        Kind::Row => local_name!("tr"),
        Kind::Cell(cell) => {
            if cell.header {
                local_name!("th")
            } else {
                local_name!("td")
            }
        }
        Kind::Figure => local_name!("figure"),
        Kind::ThematicBreak => local_name!("hr"),
        Kind::Division(DivisionKind::Callout(
            Callout::Note | Callout::Tip | Callout::Important | Callout::Warning | Callout::Caution,
        )) => local_name!("aside"),
        Kind::Division(_) | Kind::Root | Kind::Note | Kind::RawBlock { .. } => local_name!("div"),
        Kind::Details { .. } => local_name!("details"),
        Kind::Summary => local_name!("summary"),
        Kind::Emphasis => local_name!("em"),
        Kind::Strong => local_name!("strong"),
        Kind::Underline => local_name!("u"),
        Kind::Strikethrough => local_name!("s"),
        Kind::Link { .. } => local_name!("a"),
        Kind::Image { .. } => local_name!("img"),
        Kind::LineBreak => local_name!("br"),
        Kind::TextLevel(TextLevel::Ruby) => local_name!("ruby"),
        Kind::TextLevel(TextLevel::RubyText) => local_name!("rt"),
        Kind::TextLevel(TextLevel::RubyParenthesis) => local_name!("rp"),
        _ => local_name!("span"),
    }
}
