//! Reading Markdown: blocks first, line by line; then the text within them, since links may name what is defined later
//! (CommonMark, appendix "A parsing strategy").

mod alert;
mod block_starts;
mod blocks;
mod cursor;
mod front_matter;
mod inlines;
mod leaf_blocks;
mod leaf_state;
mod reference;
mod state;
mod table;

use super::Settings;
use crate::document::{DivisionKind, Document, Kind};
use crate::formats::markdown::Extensions;
use crate::utf8_source;

/// Reads a Markdown document. Any bytes are Markdown; what is doubtful about them is in the findings.
#[must_use]
pub fn read(bytes: &[u8], settings: &Settings) -> Document {
    let syntax = settings.syntax();
    let (source, mut doc) = utf8_source::open(bytes);
    let start = if syntax.has(Extensions::FRONT_MATTER) { front_matter::read(&source, &mut doc) } else { 0 };
    if !settings.citations {
        doc.bibliography.files.clear();
    }
    let blocks = state::Blocks::new(&source, doc, syntax).run(start);
    let mut doc = inlines::run(&source, blocks, syntax);
    if syntax.has(Extensions::ALERTS) && memchr::memmem::find(source.as_bytes(), b"[!").is_some() {
        alert::mark(&mut doc);
    }
    if !doc.bibliography.citations.is_empty() {
        let end = source.len() as u32;
        let place = doc.append_at(doc.root(), Kind::Division(DivisionKind::Plain), end);
        doc.set_end(place, end);
        doc.bibliography.place = Some(place);
    }
    doc.order_spans();
    doc
}
