//! Stands between tokens and tree construction, and keeps what is open within bounds: tree construction looks through all open
//! elements at many tags, and opens again in each block what formatting was left open.

use crate::fast_hash::HashMap;
use html5ever::LocalName;
use html5ever::interface::TreeSink;
use html5ever::tokenizer::{Tag, TagKind, Token, TokenSink, TokenSinkResult};
use html5ever::tree_builder::TreeBuilder;
use std::cell::{Cell, RefCell};

/// Elements that tree construction opens again in later blocks until they are closed.
pub(super) fn is_formatting(name: &str) -> bool {
    matches!(name, "a" | "b" | "big" | "code" | "em" | "font" | "i" | "nobr" | "s" | "small" | "strike" | "strong" | "tt" | "u")
}

/// Elements that hold nothing and have no end tag (HTML, section 13.1.2).
pub(super) fn is_void(name: &str) -> bool {
    matches!(
        name,
        "area"
            | "base"
            | "br"
            | "col"
            | "embed"
            | "hr"
            | "img"
            | "input"
            | "link"
            | "meta"
            | "param"
            | "source"
            | "track"
            | "wbr"
    )
}

/// Elements stand no deeper than this.
pub(super) const DEEPEST: u32 = 512;
/// Tree construction makes so many elements for each tag, and so many more, before formatting counts as left open for good.
const MOST_MADE: usize = 4;
const MORE_MADE: usize = 2000;

/// A sink that counts.
pub(super) trait Counting {
    /// How deep the last thing went in.
    fn depth(&self) -> &Cell<u32>;
    /// How many elements tree construction made.
    fn created(&self) -> usize;
    /// A tag is left out because it stands too deep.
    fn too_deep(&self);
    /// An end tag of this name comes now.
    fn ends(&self, _: &LocalName) {}
}

/// A tree builder that nothing can make slow.
pub(super) struct Guard<S: TreeSink> {
    builder: TreeBuilder<S::Handle, S>,
    state: RefCell<State>,
}

#[derive(Default)]
struct State {
    tags: usize,
    left_out: LeftOut,
}

/// Start tags that were left out and have not ended: their end tags end nothing.
#[derive(Default)]
pub(super) struct LeftOut {
    names: Vec<LocalName>,
    counts: HashMap<LocalName, usize>,
}

impl LeftOut {
    pub(super) fn push(&mut self, name: &LocalName) {
        self.names.push(name.clone());
        *self.counts.entry(name.clone()).or_default() += 1;
    }

    /// Forgets all of them: what comes now stands elsewhere.
    pub(super) fn clear(&mut self) {
        if !self.names.is_empty() {
            self.names.clear();
            self.counts.clear();
        }
    }

    /// Whether an end tag belongs to one of them, which is over then, and what is in it.
    pub(super) fn end(&mut self, name: &LocalName) -> bool {
        if self.names.is_empty() || self.counts.get(name).copied().unwrap_or(0) == 0 {
            return false;
        }
        while let Some(last) = self.names.pop() {
            if let Some(count) = self.counts.get_mut(&last) {
                *count -= 1;
            }
            if last == *name {
                break;
            }
        }
        true
    }
}

impl<S: TreeSink + Counting> Guard<S>
where
    S::Handle: Clone,
{
    pub(super) fn new(builder: TreeBuilder<S::Handle, S>) -> Self {
        Self { builder, state: RefCell::default() }
    }

    pub(super) fn into_builder(self) -> TreeBuilder<S::Handle, S> {
        self.builder
    }

    /// Whether a tag goes in.
    fn admits(&self, tag: &Tag) -> bool {
        let state = &mut *self.state.borrow_mut();
        if tag.kind == TagKind::StartTag {
            state.tags += 1;
            let deep = self.builder.sink.depth().get() >= DEEPEST;
            let formatting = || is_formatting(&tag.name);
            let runaway = self.builder.sink.created() > state.tags * MOST_MADE + MORE_MADE;
            let admitted = !(deep && !is_void(&tag.name) || runaway && formatting());
            if !admitted {
                self.builder.sink.too_deep();
                state.left_out.push(&tag.name);
            } else if !deep && !runaway {
                state.left_out.clear();
            }
            return admitted;
        }
        if state.left_out.end(&tag.name) {
            return false;
        }
        let depth = self.builder.sink.depth();
        depth.set(depth.get().saturating_sub(1));
        true
    }
}

impl<S: TreeSink + Counting> TokenSink for Guard<S>
where
    S::Handle: Clone,
{
    type Handle = S::Handle;

    fn process_token(&self, token: Token, line: u64) -> TokenSinkResult<S::Handle> {
        match &token {
            Token::TagToken(tag) if !self.admits(tag) => TokenSinkResult::Continue,
            Token::CommentToken(_) => TokenSinkResult::Continue,
            Token::TagToken(tag) if tag.kind == TagKind::EndTag => {
                let name = tag.name.clone();
                let result = self.builder.process_token(token, line);
                self.builder.sink.ends(&name);
                result
            }
            _ => self.builder.process_token(token, line),
        }
    }

    fn end(&self) {
        self.builder.end();
    }

    fn adjusted_current_node_present_but_not_in_html_namespace(&self) -> bool {
        self.builder.adjusted_current_node_present_but_not_in_html_namespace()
    }
}
