//! Parts of a document that an output goes without, named by selectors.
//!
//! A selector is a subset of CSS selectors (Selectors Level 3, sections 6 and 8): names of elements, `.class`, `#id`,
//! `[attribute]` and `[attribute=value]`, after each other for one element, with a space or `>` between elements that stand
//! in each other. `section(Text)` stands for a heading with this text and all that is under it; in its parentheses may also be
//! the class or the id of the heading. In every name, `*` stands for any characters.

use super::pattern::fits;
use crate::document::{Document, Finding, Kind, NodeId, NoteId, Step};
use crate::fast_hash::{HashMap, HashSet};

use crate::slug;
use percent_encoding::percent_decode_str;

/// What one element has to be.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
struct Compound {
    element: Option<String>,
    id: Option<String>,
    classes: Vec<String>,
    attributes: Vec<(String, Option<String>)>,
    /// For `section(Text)`: the text of a heading, which then stands for its section.
    heading: Option<String>,
    is_section: bool,
}

/// How an element stands to the one before it in the selector.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Combinator {
    Within,
    Child,
}

/// A selector has no more elements than this.
const MOST_PARTS: usize = 32;

/// A selector that was understood.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Selector {
    text: String,
    /// Its elements, the outermost first; each with how it stands to the one before it.
    parts: Vec<(Combinator, Compound)>,
    is_section: bool,
}

impl Selector {
    /// Reads a selector; none where it is not one.
    ///
    /// ```
    /// use obblet::refine::rules::leave_out::Selector;
    ///
    /// assert!(Selector::read("aside > p.draft").is_some() && Selector::read("section(Pay, and more)").is_some());
    /// assert!(Selector::read("aside >").is_none() && Selector::read("p:first-child").is_none());
    /// ```
    #[must_use]
    pub fn read(text: &str) -> Option<Self> {
        let mut rest = text.trim();
        let mut parts = Vec::new();
        let mut combinator = Combinator::Within;
        while parts.len() < MOST_PARTS {
            let (compound, behind) = Compound::read(rest)?;
            let next = behind.trim_start();
            let is_section = compound.is_section;
            parts.push((combinator, compound));
            if next.is_empty() {
                return Some(Self { text: text.trim().to_owned(), parts, is_section });
            }
            // What is under a heading is not in it.
            if is_section {
                return None;
            }
            (combinator, rest) = match next.strip_prefix('>') {
                Some(next) => (Combinator::Child, next.trim_start()),
                None if next.len() < behind.len() => (Combinator::Within, next),
                None => return None,
            };
        }
        None
    }

    /// Which of its parts a node is, each with all before it around the node, as bits.
    fn met(&self, doc: &Document, id: NodeId, parent: Met, slugs: &HashMap<NodeId, String>) -> u32 {
        let mut met = 0;
        for (at, (combinator, compound)) in self.parts.iter().enumerate() {
            let around = match combinator {
                _ if at == 0 => true,
                Combinator::Within => parent.within & 1 << (at - 1) != 0,
                Combinator::Child => parent.itself & 1 << (at - 1) != 0,
            };
            if around && compound.fits(doc, id, slugs.get(&id).map(String::as_str)) {
                met |= 1 << at;
            }
        }
        met
    }

    fn is_whole(&self, met: u32) -> bool {
        met & 1 << (self.parts.len() - 1) != 0
    }
}

/// Which parts of a selector an open element is, and which it is or stands in.
#[derive(Clone, Copy, Debug, Default)]
struct Met {
    itself: u32,
    within: u32,
}

impl Compound {
    /// Reads one from the beginning of a text, and gives what is behind it.
    fn read(text: &str) -> Option<(Self, &str)> {
        let mut compound = Self::default();
        let mut rest = text;
        if let Some(inner) = rest.strip_prefix("section(") {
            // Its text may hold parentheses in pairs.
            let mut open = 1usize;
            let end = inner.char_indices().find_map(|(at, c)| {
                match c {
                    '(' => open += 1,
                    ')' => open -= 1,
                    _ => {}
                }
                (open == 0).then_some(at)
            })?;
            let wanted = inner[..end].trim();
            rest = &inner[end + 1..];
            if wanted.starts_with(['.', '#']) {
                let (inner, behind) = Self::read(wanted)?;
                if !behind.is_empty() || inner.is_section {
                    return None;
                }
                compound = inner;
            } else {
                compound.heading = Some(spaced(wanted)).filter(|text| !text.is_empty());
                compound.heading.as_ref()?;
            }
            compound.is_section = true;
            return Some((compound, rest));
        }
        let element = name(&mut rest);
        compound.element = element.map(|name| name.to_ascii_lowercase());
        while let Some(mark) = rest.chars().next().filter(|c| matches!(c, '.' | '#' | '[')) {
            rest = &rest[1..];
            match mark {
                '.' => compound.classes.push(name(&mut rest)?.to_owned()),
                '#' => compound.id = Some(name(&mut rest)?.to_owned()),
                _ => {
                    let attribute = name(&mut rest)?.to_ascii_lowercase();
                    let value = match rest.strip_prefix('=') {
                        Some(value) => {
                            let end = value.find(']')?;
                            rest = &value[end..];
                            let value = value[..end].trim();
                            let inner = ['"', '\''].iter().find_map(|&mark| value.strip_prefix(mark)?.strip_suffix(mark));
                            Some(inner.unwrap_or(value).to_owned())
                        }
                        None => None,
                    };
                    rest = rest.strip_prefix(']')?;
                    compound.attributes.push((attribute, value));
                }
            }
        }
        (rest.len() < text.len()).then_some((compound, rest))
    }

    /// Whether a node is what is asked for; `slug` is the name by which people link to it, where it is a heading.
    fn fits(&self, doc: &Document, id: NodeId, slug: Option<&str>) -> bool {
        let kind = doc.kind(id);
        let is_heading = matches!(kind, Kind::Heading(_));
        if self.is_section && !is_heading {
            return false;
        }
        if self.element.as_ref().is_some_and(|name| doc.element(id).is_empty() || !fits(name, doc.element(id))) {
            return false;
        }
        if let Some(heading) = &self.heading {
            return fits(&heading.to_lowercase(), &spaced(&doc.heading_text(id)).to_lowercase());
        }
        let attributes = doc.attributes(id);
        self.id.as_ref().is_none_or(|name| attributes.id.map(|id| doc.text(id)).or(slug).is_some_and(|id| fits(name, id)))
            && self.classes.iter().all(|name| attributes.classes.iter().any(|&class| fits(name, doc.text(class))))
            && self.attributes.iter().all(|(name, value)| has_attribute(doc, id, name, value.as_deref()))
    }
}

fn has_attribute(doc: &Document, id: NodeId, name: &str, value: Option<&str>) -> bool {
    let attributes = doc.attributes(id);
    let found = match name {
        "id" => attributes.id.map(|id| doc.text(id).to_owned()),
        "class" => Some(attributes.classes.iter().map(|&class| doc.text(class)).collect::<Vec<_>>().join(" "))
            .filter(|classes| !classes.is_empty()),
        "lang" => attributes.language.map(|language| doc.text(language).to_owned()),
        "title" => attributes.title.map(|title| doc.text(title).to_owned()),
        "href" => match doc.kind(id) {
            Kind::Link { href } => Some(doc.text(href).to_owned()),
            _ => None,
        },
        "src" | "alt" => match doc.kind(id) {
            Kind::Image { src, alt } => Some(doc.text(if name == "src" { src } else { alt }).to_owned()),
            _ => None,
        },
        _ => attributes.other.iter().find(|(known, _)| doc.text(*known) == name).map(|&(_, value)| doc.text(value).to_owned()),
    };
    found.is_some_and(|found| value.is_none_or(|value| fits(value, &found)))
}

/// Takes a name from the beginning of a text.
fn name<'t>(rest: &mut &'t str) -> Option<&'t str> {
    let end = rest.find(|c: char| !(c.is_alphanumeric() || matches!(c, '-' | '_' | '*'))).unwrap_or(rest.len());
    let (name, behind) = rest.split_at(end);
    *rest = behind;
    Some(name).filter(|name| !name.is_empty())
}

fn spaced(text: &str) -> String {
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// Leaves out of a document what selectors name. Links to what is gone leave their words. Tells what went, and gives the
/// selectors that fit nothing.
///
/// ```
/// use obblet::formats::{html, markdown};
/// use obblet::refine::rules::leave_out::{Selector, leave_out};
///
/// let mut doc = markdown::read(b"# Tides\n\nHigh.\n\n## Pay\n\nLow.\n", &markdown::Settings::GITHUB);
/// let selectors = [Selector::read("section(Pay)").unwrap()];
/// assert!(leave_out(&mut doc, &selectors).is_empty());
/// assert_eq!(html::write(&doc, &html::Options::default()).html, "<h1>Tides</h1>\n<p>High.</p>\n");
/// ```
pub fn leave_out(doc: &mut Document, selectors: &[Selector]) -> Vec<String> {
    let slugs = slugs(doc);
    let (gone, used) = find(doc, selectors, &slugs);
    let unused = selectors.iter().zip(&used).filter(|&(_, &count)| count == 0).map(|(selector, _)| selector.text.clone());
    let unused = unused.collect();
    if gone.is_empty() {
        return unused;
    }
    let place = doc.place(gone[0]);
    let (mut lost, mut parents) = (Vec::new(), Vec::new());
    let mut ids: HashSet<String> = HashSet::default();
    for id in gone {
        // What is under a heading may itself be named, or stand under another that is.
        let Some(parent) = doc.node(id).parent() else { continue };
        let text = doc.plain_text(id);
        if !text.trim().is_empty() {
            lost.push(text);
        }
        for step in doc.walk(id) {
            if let Step::Enter(inner) = step {
                ids.extend(doc.attributes(inner).id.map(|name| doc.text(name).to_owned()));
                ids.extend(slugs.get(&inner).cloned());
            }
        }
        match doc.kind(id) {
            // The others of its row stand where they stood.
            Kind::Cell(_) => doc.children(id).collect::<Vec<_>>().into_iter().for_each(|child| doc.detach(child)),
            _ => doc.detach(id),
        }
        parents.push(detach_emptied(doc, parent));
    }
    let names: Vec<&str> =
        selectors.iter().zip(&used).filter(|&(_, &count)| count > 0).map(|(selector, _)| selector.text.as_str()).collect();
    let count: usize = used.iter().sum();
    let parts = if count == 1 { "1 part was left out".to_owned() } else { format!("{count} parts were left out") };
    let message = format!("{parts}, as clean.leave-out asks: {}", names.join(", "));
    doc.push_finding(Finding::changed("clean.leave-out", message).at(place).losing(lost.join("\n")));
    drop_notes(doc);
    parents.extend(open_links(doc, &ids));
    let parents = parents.into_iter().filter(|&parent| doc.node(parent).parent().is_some()).collect();
    doc.join_texts_in(parents);
    unused
}

/// The nodes that selectors name, and how often each of those has named one.
fn find(doc: &Document, selectors: &[Selector], slugs: &HashMap<NodeId, String>) -> (Vec<NodeId>, Vec<usize>) {
    let mut used = vec![0usize; selectors.len()];
    let mut gone: Vec<NodeId> = Vec::new();
    let outside = vec![Met::default(); selectors.len()];
    for root in doc.roots() {
        // For each open element and each selector, what was met.
        let mut open: Vec<Vec<Met>> = Vec::new();
        let mut walk = doc.walk(root);
        while let Some(step) = walk.next() {
            let Step::Enter(id) = step else {
                open.pop();
                continue;
            };
            let parent = open.last().unwrap_or(&outside);
            let met: Vec<Met> = selectors
                .iter()
                .zip(parent)
                .map(|(selector, &parent)| {
                    let itself = if id == root { 0 } else { selector.met(doc, id, parent, slugs) };
                    Met { itself, within: parent.within | itself }
                })
                .collect();
            let named = selectors.iter().zip(&met).position(|(selector, met)| selector.is_whole(met.itself));
            open.push(met);
            let Some(at) = named else { continue };
            used[at] += 1;
            gone.push(id);
            if selectors[at].is_section {
                gone.extend(section(doc, id));
            }
            walk.skip_children(id);
        }
    }
    (gone, used)
}

/// Takes out what held nothing but what is gone, and gives what is left around it.
fn detach_emptied(doc: &mut Document, mut id: NodeId) -> NodeId {
    while doc.node(id).first_child().is_none()
        && !matches!(doc.kind(id), Kind::Root | Kind::Note | Kind::Cell(_))
        && let Some(parent) = doc.node(id).parent()
    {
        doc.detach(id);
        id = parent;
    }
    id
}

/// What is under a heading: all behind it up to the next of its level or a higher one.
fn section(doc: &Document, heading: NodeId) -> Vec<NodeId> {
    let level = |id: NodeId| if let Kind::Heading(level) = doc.kind(id) { Some(level) } else { None };
    let own = level(heading).unwrap_or(1);
    std::iter::successors(doc.node(heading).next(), |&id| doc.node(id).next())
        .take_while(|&id| level(id).is_none_or(|level| level > own))
        .collect()
}

/// The names by which people link to headings.
fn slugs(doc: &Document) -> HashMap<NodeId, String> {
    let (mut slugs, mut seen) = (HashMap::default(), HashMap::default());
    for root in doc.roots() {
        for step in doc.walk(root) {
            if let Step::Enter(id) = step
                && matches!(doc.kind(id), Kind::Heading(_))
            {
                slugs.insert(id, slug::unique(&doc.heading_text(id), &mut seen));
            }
        }
    }
    slugs
}

/// Takes out notes that nothing mentions any more.
fn drop_notes(doc: &mut Document) {
    let mut mentioned: HashSet<u32> = HashSet::default();
    // Notes mention notes.
    let mut open = vec![doc.root()];
    while let Some(root) = open.pop() {
        for step in doc.walk(root) {
            if let Step::Enter(id) = step
                && let Kind::NoteReference(note) = doc.kind(id)
                && mentioned.insert(note.0)
            {
                open.extend(doc.notes.get(note.0 as usize).map(|note| note.body));
            }
        }
    }
    let mut numbers: HashMap<u32, u32> = HashMap::default();
    for (before, note) in (0..).zip(std::mem::take(&mut doc.notes)) {
        if mentioned.contains(&before) {
            numbers.insert(before, doc.notes.len() as u32);
            doc.notes.push(note);
        }
    }
    let marks: Vec<(NodeId, u32)> = doc
        .nodes()
        .filter_map(|(id, node)| if let Kind::NoteReference(note) = node.kind() { Some((id, note.0)) } else { None })
        .collect();
    for (id, before) in marks {
        // Marks in what is gone stand nowhere.
        let number = numbers.get(&before).copied().unwrap_or_default();
        doc.set_kind(id, Kind::NoteReference(NoteId(number)));
    }
}

/// Links to places that are gone leave their words. Gives what they stood in.
fn open_links(doc: &mut Document, ids: &HashSet<String>) -> Vec<NodeId> {
    let (mut links, mut kept) = (Vec::new(), HashSet::default());
    for root in doc.roots() {
        for step in doc.walk(root) {
            let Step::Enter(id) = step else { continue };
            kept.extend(doc.attributes(id).id.map(|name| doc.text(name).to_owned()));
            if let Kind::Link { href } = doc.kind(id)
                && let Some(name) = doc.text(href).strip_prefix('#')
            {
                links.push((id, percent_decode_str(name).decode_utf8_lossy().into_owned()));
            }
        }
    }
    links.retain(|(_, name)| ids.contains(name) && !kept.contains(name));
    let Some(&(first, _)) = links.first() else { return Vec::new() };
    let count = links.len();
    let links_gone = if count == 1 { "a link".to_owned() } else { format!("{count} links") };
    let message = format!("{links_gone} to what was left out became text");
    doc.push_finding(Finding::changed("clean.leave-out", message).at(doc.place(first)));
    let parents = links.iter().filter_map(|&(link, _)| doc.node(link).parent()).collect();
    for (link, _) in links {
        doc.unwrap(link);
    }
    parents
}
