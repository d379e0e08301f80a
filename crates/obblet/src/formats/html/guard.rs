//! Stands between tokens and tree construction, and keeps what is open within bounds: tree construction looks through all open
//! elements at many tags, and opens again in each block what formatting was left open.

use crate::map::HashMap;
use html5ever::LocalName;
use html5ever::interface::TreeSink;
use html5ever::tokenizer::{Tag, TagKind, Token, TokenSink, TokenSinkResult};
use html5ever::tree_builder::TreeBuilder;
use std::cell::{Cell, RefCell};

/// Elements that tree construction opens again in later blocks until they are closed.
pub(super) const FORMATTING: [&str; 14] =
    ["a", "b", "big", "code", "em", "font", "i", "nobr", "s", "small", "strike", "strong", "tt", "u"];

pub(super) const VOID: [&str; 14] =
    ["area", "base", "br", "col", "embed", "hr", "img", "input", "link", "meta", "param", "source", "track", "wbr"];

/// Elements stand no deeper than this.
const DEEPEST: u32 = 512;
/// Tree construction makes so many elements for each tag, and so many more, before formatting counts as left open for good.
const MOST_MADE: usize = 4;
const MORE_MADE: usize = 2000;

/// A sink that counts.
pub(super) trait Counting {
    /// How deep the last thing went in.
    fn depth(&self) -> &Cell<u32>;
    /// How many elements tree construction made.
    fn made(&self) -> usize;
    /// A tag is left out because it stands too deep.
    fn too_deep(&self);
}

/// A tree builder that nothing can make slow.
pub(super) struct Guard<S: TreeSink> {
    builder: TreeBuilder<S::Handle, S>,
    state: RefCell<State>,
}

#[derive(Default)]
struct State {
    tags: usize,
    /// Tags that were left out and have not ended, and how many there are of each name.
    left_out: Vec<LocalName>,
    counts: HashMap<LocalName, usize>,
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
            let formatting = || FORMATTING.contains(&&*tag.name);
            let runaway = self.builder.sink.made() > state.tags * MOST_MADE + MORE_MADE;
            let admitted = !(deep && !VOID.contains(&&*tag.name) || runaway && formatting());
            if !admitted {
                self.builder.sink.too_deep();
                state.left_out.push(tag.name.clone());
                *state.counts.entry(tag.name.clone()).or_default() += 1;
            } else if !deep && !runaway && !state.left_out.is_empty() {
                state.left_out.clear();
                state.counts.clear();
            }
            return admitted;
        }
        if !state.left_out.is_empty() && state.counts.get(&tag.name).copied().unwrap_or(0) > 0 {
            while let Some(name) = state.left_out.pop() {
                if let Some(count) = state.counts.get_mut(&name) {
                    *count -= 1;
                }
                if name == tag.name {
                    break;
                }
            }
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
