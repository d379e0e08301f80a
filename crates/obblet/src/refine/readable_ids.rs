//! Ids that programs made up: places that are led to get names that people can read.

use super::anchors::is_made_up;
use crate::document::{Counter, Document, Finding, Kind, NodeId, Step, Text};
use crate::fast_hash::{HashMap, HashSet};
use crate::links::ExternalLinks;
use crate::slug;
use percent_encoding::percent_decode_str;

/// Gives places with ids that a program made up ids that say what they are: the words of a heading, or the kind and the number
/// of a figure, a table, a formula, an item or a note. Links follow, and those of other documents can.
pub fn rename(doc: &mut Document, external: &dyn ExternalLinks) {
    let made_up = |id: NodeId| -> Option<&str> {
        let name = doc.node(id).has_attributes().then(|| doc.attributes(id).id).flatten()?;
        Some(doc.text(name)).filter(|name| is_made_up(name))
    };
    if !doc.may_have_ids() || doc.nodes().all(|(id, node)| node.parent().is_none() || made_up(id).is_none()) {
        return;
    }
    let mut names = Names::of(doc);
    let mut counts = Counts::default();
    let mut new: Vec<(NodeId, String)> = Vec::new();
    let mut by_name: HashMap<String, String> = HashMap::default();
    for step in doc.walk_all() {
        let Step::Enter(id) = step else { continue };
        counts.meet(doc.kind(id));
        if let Some(old) = made_up(id).filter(|old| !by_name.contains_key(*old)) {
            let name = names.free(&counts.name_of(doc, id));
            external.renamed(old, &name);
            by_name.insert(old.to_owned(), name.clone());
            new.push((id, name));
        }
    }
    let Some(&(first, _)) = new.first() else { return };
    let message = format!("ids that a program made up became readable: {}", new.len());
    doc.push_finding(Finding::changed("clean.id", message).at(doc.place(first)));
    for (id, name) in new {
        let name = doc.intern(&name);
        doc.attributes_mut(id).id = Some(name);
    }
    let links: Vec<(NodeId, String)> = doc
        .nodes()
        .filter_map(|(id, node)| {
            let Kind::Link { href } = node.kind() else { return None };
            let old = doc.text(href).strip_prefix('#')?;
            let new = by_name.get(&*percent_decode_str(old).decode_utf8_lossy())?;
            Some((id, format!("#{new}")))
        })
        .collect();
    for (id, href) in links {
        let href: Text = doc.intern(&href);
        doc.set_kind(id, Kind::Link { href });
    }
}

/// The names that are taken, and how often one was wanted.
struct Names {
    taken: HashSet<String>,
    wanted: HashMap<String, u32>,
}

impl Names {
    fn of(doc: &Document) -> Self {
        let mut taken = HashSet::default();
        let mut slugs = HashMap::default();
        for step in doc.walk_all() {
            let Step::Enter(id) = step else { continue };
            if let Some(name) = doc.node(id).has_attributes().then(|| doc.attributes(id).id).flatten() {
                taken.insert(doc.text(name).to_owned());
            } else if let Kind::Heading(_) = doc.kind(id) {
                taken.insert(slug::unique(&doc.heading_text(id), &mut slugs));
            }
        }
        Self { taken, wanted: HashMap::default() }
    }

    /// A name that nothing has, as near to the wanted one as can be.
    fn free(&mut self, wanted: &str) -> String {
        let count = self.wanted.entry(wanted.to_owned()).or_insert(0);
        loop {
            *count += 1;
            let name = if *count == 1 { wanted.to_owned() } else { format!("{wanted}-{count}") };
            if self.taken.insert(name.clone()) {
                return name;
            }
        }
    }
}

/// How many things of each sort were met.
#[derive(Default)]
struct Counts {
    figures: u32,
    tables: u32,
    formulas: u32,
}

impl Counts {
    fn meet(&mut self, kind: Kind) {
        match kind {
            Kind::Figure => self.figures += 1,
            Kind::Table => self.tables += 1,
            Kind::Math(_) => self.formulas += 1,
            _ => {}
        }
    }

    /// What a place is to be called: as what it is, what it stands in or what it stands right before.
    fn name_of(&self, doc: &Document, id: NodeId) -> String {
        let upwards = std::iter::once(id).chain(doc.ancestors(id)).take(MOST_ABOVE);
        for at in upwards.chain(doc.node(id).next()) {
            // One that comes is not counted yet.
            let ahead = u32::from(doc.node(id).next() == Some(at));
            let label = doc.labels.get(at).map(|label| (label.counter, slug::of(&label.number)));
            match (doc.kind(at), label) {
                (_, Some((counter, number))) if !number.is_empty() => return format!("{}-{number}", word(counter)),
                (Kind::Heading(_), _) => {
                    let words = slug::of(&beginning(doc, at));
                    return if words.is_empty() { "section".to_owned() } else { words };
                }
                (Kind::Figure, _) => return format!("figure-{}", self.figures + ahead),
                (Kind::Table, _) => return format!("table-{}", self.tables + ahead),
                (Kind::Math(_), _) => return format!("formula-{}", self.formulas + ahead),
                _ => {}
            }
        }
        let block = std::iter::once(id).chain(doc.ancestors(id)).take(MOST_ABOVE).find(|&at| !doc.kind(at).is_inline());
        let first: Vec<String> = block
            .map(|block| beginning(doc, block).split_whitespace().take(MOST_WORDS).map(slug::of).collect())
            .unwrap_or_default();
        let words: Vec<String> = first.into_iter().filter(|word| !word.is_empty()).collect();
        if words.is_empty() { "place".to_owned() } else { words.join("-") }
    }
}

/// The text that a node begins with; all of it where that is short.
fn beginning(doc: &Document, id: NodeId) -> String {
    let mut text = String::new();
    for step in doc.walk(id).take(MOST_STEPS) {
        if let Step::Enter(node) = step
            && let Kind::Text(part) | Kind::Code(part) = doc.kind(node)
        {
            text.extend(doc.text(part).chars().take(MOST_LETTERS));
        }
    }
    text.chars().take(MOST_LETTERS).collect()
}

/// So many steps, and so many letters, are enough to call something by.
const MOST_STEPS: usize = 64;
const MOST_LETTERS: usize = 100;

const fn word(counter: Counter) -> &'static str {
    match counter {
        Counter::Heading => "section",
        Counter::Figure => "figure",
        Counter::Table => "table",
        Counter::Formula => "formula",
        Counter::Item => "item",
        Counter::Note => "note",
    }
}

/// A place belongs to something no further up.
const MOST_ABOVE: usize = 16;

/// A place in text is called by the first words of its block.
const MOST_WORDS: usize = 4;
