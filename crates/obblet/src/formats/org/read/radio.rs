//! Radio targets: words that lead to where they are a target, wherever they stand (Org syntax, "Radio Targets").

use super::Reader;
use crate::document::{Document, Kind, NodeId, Step, Text};
use crate::fast_hash::HashMap;

/// Targets are looked for in so many lengths.
const MOST_LENGTHS: usize = 32;

impl Reader<'_> {
    /// Makes links of the words that are targets elsewhere.
    pub(super) fn link_radio_targets(&mut self) {
        let targets = std::mem::take(&mut self.radio);
        if targets.is_empty() {
            return;
        }
        let words = Words::of(&self.doc, &targets);
        let mut texts = Vec::new();
        let mut inside = 0_usize;
        for step in self.doc.walk_all() {
            let is_closed = |id: NodeId| matches!(self.doc.kind(id), Kind::Link { .. }) || targets.binary_search(&id).is_ok();
            match step {
                Step::Enter(id) if is_closed(id) => inside += 1,
                Step::Leave(id) if is_closed(id) => inside -= 1,
                Step::Enter(id) if inside == 0 => {
                    if let Kind::Text(text) = self.doc.kind(id) {
                        texts.push((id, text));
                    }
                }
                _ => {}
            }
        }
        for (id, text) in texts {
            let found = words.find(self.doc.text(text));
            if !found.is_empty() {
                self.split(id, text, &found);
            }
        }
    }

    /// Makes links of pieces of a text node.
    fn split(&mut self, id: NodeId, text: Text, found: &[(usize, usize, NodeId)]) {
        let place = self.doc.node(id).offset();
        let piece = |from: usize, to: usize| Text { start: text.start + from as u32, end: text.start + to as u32 };
        let mut last = id;
        let mut put = |doc: &mut Document, node: NodeId| {
            doc.set_offset(node, place);
            doc.move_after(last, node);
            last = node;
        };
        let mut at = 0;
        for &(from, to, target) in found {
            if at < from {
                let before = self.doc.create(Kind::Text(piece(at, from)));
                put(&mut self.doc, before);
            }
            let href = self.doc.attributes(target).id.map_or("", |id| self.doc.text(id));
            let href = format!("#{href}");
            let href = self.doc.intern(&href);
            let link = self.doc.create(Kind::Link { href });
            put(&mut self.doc, link);
            self.doc.append_at(link, Kind::Text(piece(from, to)), place);
            at = to;
        }
        if at < text.range().len() {
            let behind = self.doc.create(Kind::Text(piece(at, text.range().len())));
            put(&mut self.doc, behind);
        }
        self.doc.detach(id);
    }
}

/// The words of targets.
struct Words {
    /// In small letters.
    targets: HashMap<String, NodeId>,
    /// How many characters they have.
    lengths: Vec<usize>,
}

impl Words {
    fn of(doc: &Document, targets: &[NodeId]) -> Self {
        let mut words = Self { targets: HashMap::default(), lengths: Vec::new() };
        for &target in targets {
            let text = doc.plain_text(target).to_lowercase();
            let length = text.chars().count();
            if length > 0 && (words.lengths.contains(&length) || words.lengths.len() < MOST_LENGTHS) {
                words.targets.entry(text).or_insert(target);
                if !words.lengths.contains(&length) {
                    words.lengths.push(length);
                }
            }
        }
        // The longest first.
        words.lengths.sort_unstable_by(|a, b| b.cmp(a));
        words
    }

    /// Where targets stand in a text as whole words.
    fn find(&self, text: &str) -> Vec<(usize, usize, NodeId)> {
        let mut found = Vec::new();
        let mut behind = 0;
        let mut before: Option<char> = None;
        let longest = self.lengths.first().copied().unwrap_or(0);
        for (at, c) in text.char_indices() {
            let begins = before.is_none_or(|before| !before.is_alphanumeric()) && at >= behind;
            before = Some(c);
            if !begins || c.is_whitespace() {
                continue;
            }
            let ends: Vec<usize> = text[at..].char_indices().map(|(end, c)| at + end + c.len_utf8()).take(longest).collect();
            for &length in &self.lengths {
                let Some(&end) = ends.get(length - 1) else { continue };
                let is_whole = text[end..].chars().next().is_none_or(|c| !c.is_alphanumeric());
                if let Some(target) =
                    Some(&text[at..end]).filter(|_| is_whole).and_then(|words| self.targets.get(&words.to_lowercase()))
                {
                    found.push((at, end, *target));
                    behind = end;
                    break;
                }
            }
        }
        found
    }
}
