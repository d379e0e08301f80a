//! Numbers that the engine will print, so that text which shows one can be written as a reference.

use crate::document::{Document, Kind, Markup, NodeId, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::refine::references::word_for;

/// What will have which number.
#[derive(Debug, Default)]
pub(super) struct Numbers<'d> {
    /// By the ids of what has them: the number, and the word before it.
    of: HashMap<&'d str, (String, &'static str)>,
    /// Captions whose text begins with the number that the engine prints, and how long that part of their first text is.
    pub(super) captions: HashMap<NodeId, usize>,
    /// Ids that are in the document, and those that links lead to.
    pub(super) ids: HashSet<&'d str>,
    pub(super) linked: HashSet<&'d str>,
    /// The ids of headings that have none of their own and that links lead to by their words.
    pub(super) slugs: HashMap<NodeId, &'d str>,
    /// Entries of bibliographies.
    pub(super) entries: super::citations::Entries<'d>,
    /// Whether the appendix has begun.
    pub(super) has_appendix: bool,
    /// Ids of what has a label: headings, figures, tables.
    pub(super) labelled: HashSet<&'d str>,
}

impl<'d> Numbers<'d> {
    pub(super) fn of(doc: &'d Document, title: Option<NodeId>, has_chapters: bool) -> Self {
        let mut numbers = Self { entries: super::citations::Entries::of(doc), ..Self::default() };
        let mut counts = Counts { levels: [0; 6], figures: 0, tables: 0 };
        let numbered = doc.metadata.presentation.numbered_levels.unwrap_or(0);
        let language = doc.metadata.language.as_deref().unwrap_or_default();
        let lowered = u8::from(title.is_some());
        for step in doc.walk_all() {
            if let Step::Enter(id) = step
                && let Kind::Link { href } = doc.kind(id)
            {
                numbers.linked.extend(doc.text(href).strip_prefix('#'));
            }
        }
        let mut slugs = HashMap::default();
        for step in doc.walk_all() {
            let Step::Enter(id) = step else { continue };
            let node = doc.node(id);
            let mut own_id = doc.attributes(id).id.filter(|_| node.has_attributes()).map(|id| doc.text(id));
            if own_id.is_none() && matches!(doc.kind(id), Kind::Heading(_)) {
                // What links to it calls it by its words.
                let slug = crate::slug::unique(&doc.plain_text(id), &mut slugs);
                own_id = numbers.linked.get(&*slug).copied();
                if let Some(name) = own_id {
                    numbers.slugs.insert(id, name);
                }
            }
            numbers.ids.extend(own_id);
            let is_in_heading =
                || doc.ancestors(id).take(50).any(|above| above != id && matches!(doc.kind(above), Kind::Heading(_)));
            let has_caption = || doc.children(id).any(|child| doc.kind(child) == Kind::Caption);
            let is_labelled = match doc.kind(id) {
                Kind::Heading(_) => Some(id) != title && !super::blocks::is_hollow(doc, id),
                Kind::Figure | Kind::Table => has_caption(),
                _ => own_id.is_some() && is_in_heading(),
            };
            if is_labelled {
                numbers.labelled.extend(own_id);
            }
            match doc.kind(id) {
                // Equations have their labels in their source.
                Kind::Math(formula) if doc.formula(formula).notation == Markup::Tex => {
                    for piece in doc.text(doc.formula(formula).source).split("\\label{").skip(1) {
                        let label = piece.split('}').next().unwrap_or_default();
                        numbers.ids.insert(label);
                        numbers.labelled.insert(label);
                    }
                }
                Kind::Heading(level) if Some(id) != title && level <= numbered && !is_unnumbered(doc, id) => {
                    let number = counts.heading(level.saturating_sub(lowered).clamp(1, 6));
                    if has_chapters && level.saturating_sub(lowered) == 1 {
                        (counts.figures, counts.tables) = (0, 0);
                    }
                    if let Some(own_id) = own_id {
                        numbers.of.insert(own_id, (number, "section"));
                    }
                }
                Kind::Caption => {
                    let Some(holder) = node.parent() else { continue };
                    let is_table = doc.kind(holder) == Kind::Table;
                    let word = word_for(language, is_table);
                    let count = if is_table { &mut counts.tables } else { &mut counts.figures };
                    let chapter = counts.levels[0];
                    let number =
                        if has_chapters && chapter > 0 { format!("{chapter}.{}", *count + 1) } else { (*count + 1).to_string() };
                    if let Some(length) = length_of_label(doc, id, word, &number) {
                        *count += 1;
                        numbers.captions.insert(id, length);
                        let holder_id = doc.attributes(holder).id.map(|id| doc.text(id));
                        if let Some(holder_id) = holder_id {
                            numbers.of.insert(holder_id, (number, word));
                        }
                    }
                }
                _ => {}
            }
        }
        numbers
    }

    /// Notes the number of a theorem; the word before it is not for the engine to make.
    pub(super) fn name_theorem(&mut self, id: &'d str, number: &str) {
        if !number.is_empty() {
            self.of.insert(id, (number.to_owned(), ""));
        }
        self.labelled.insert(id);
    }

    /// The number of what has an id, and the word before it.
    pub(super) fn of_id(&self, id: &str) -> Option<(&str, &'static str)> {
        self.of.get(id).map(|(number, word)| (number.as_str(), *word))
    }
}

/// Whether a heading is marked as one without a number.
pub(super) fn is_unnumbered(doc: &Document, id: NodeId) -> bool {
    doc.attributes(id).classes.iter().any(|class| doc.text(*class) == "unnumbered")
}

struct Counts {
    levels: [u32; 6],
    figures: u32,
    tables: u32,
}

impl Counts {
    fn heading(&mut self, level: u8) -> String {
        let at = usize::from(level) - 1;
        self.levels[at] += 1;
        self.levels[at + 1..].fill(0);
        let first = self.levels.iter().position(|count| *count > 0).unwrap_or(0);
        self.levels[first..=at].iter().map(u32::to_string).collect::<Vec<_>>().join(".")
    }
}

/// How long the word and the number are that a caption begins with, with what parts them from the rest.
fn length_of_label(doc: &Document, caption: NodeId, word: &str, number: &str) -> Option<usize> {
    let first = doc.node(caption).first_child()?;
    let Kind::Text(text) = doc.kind(first) else { return None };
    let text = doc.text(text);
    let rest = text.strip_prefix(word)?.trim_start_matches(['\u{A0}', ' ']).strip_prefix(number)?;
    let behind = match rest.strip_prefix(':').or_else(|| rest.strip_prefix('.')) {
        Some(behind) if behind.is_empty() || behind.starts_with([' ', '\u{A0}']) => behind.trim_start_matches([' ', '\u{A0}']),
        None if rest.is_empty() && doc.node(first).next().is_none() => rest,
        _ => return None,
    };
    Some(text.len() - behind.len())
}
