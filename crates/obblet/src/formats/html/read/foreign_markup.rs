//! Elements of other languages within HTML, and markup that is kept as it is.

use super::element_state::ParseState;
use crate::document::NodeId;
use crate::formats::html::characters::is_allowed;

pub(super) fn element(state: &ParseState, id: NodeId) -> &str {
    state.foreign.get(&id).map_or("", |(name, _)| &*name.local)
}

/// Writes text for markup that is kept. What HTML forbids becomes a character of replacement.
pub(super) fn escape(out: &mut String, text: &str) {
    for c in text.chars() {
        match c {
            c if !is_allowed(c) => out.push(char::REPLACEMENT_CHARACTER),
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '>' => out.push_str("&gt;"),
            '"' => out.push_str("&quot;"),
            '\n' | '\r' | '\t' => out.push(' '),
            c => out.push(c),
        }
    }
}
