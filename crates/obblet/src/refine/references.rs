//! References: figures and tables get the labels that their captions give them, formulas, items and notes their numbers, and
//! references show what they lead to.

use crate::document::{Counter, CrossReference, Document, Finding, Kind, KindSet, Label, NodeId, Producer, Shows, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::numeral::numeral;
use crate::slug;

/// The words for a figure and for a table, by language.
const NAMES: [(&str, &str, &str); 18] = [
    ("cs", "Obrázek", "Tabulka"),
    ("da", "Figur", "Tabel"),
    ("de", "Abbildung", "Tabelle"),
    ("es", "Figura", "Tabla"),
    ("fi", "Kuva", "Taulukko"),
    ("fr", "Figure", "Tableau"),
    ("it", "Figura", "Tabella"),
    ("ja", "図", "表"),
    ("ko", "그림", "표"),
    ("nb", "Figur", "Tabell"),
    ("nl", "Figuur", "Tabel"),
    ("no", "Figur", "Tabell"),
    ("pl", "Rysunek", "Tabela"),
    ("pt", "Figura", "Tabela"),
    ("ru", "Рисунок", "Таблица"),
    ("sv", "Figur", "Tabell"),
    ("uk", "Рисунок", "Таблиця"),
    ("zh", "图", "表"),
];

/// The word for a figure, or for a table, in a language.
pub(crate) fn word_for(language: &str, is_table: bool) -> &'static str {
    let language = language.split('-').next().unwrap_or_default().to_ascii_lowercase();
    let (figure, table) =
        NAMES.iter().find(|(of, ..)| *of == language).map_or(("Figure", "Table"), |&(_, figure, table)| (figure, table));
    if is_table { table } else { figure }
}

/// Gives labels to figures and tables with captions, and makes references show them: links to places in the document without
/// a text of their own, and what the source says is a reference.
///
/// ```
/// use obblet::{Format, convert, profile::Profile};
///
/// let source = b"See [](#well).\n\n<figure id=\"well\"><img src=\"well.png\" alt=\"a well\"><figcaption>The well</figcaption></figure>\n";
/// let page = convert(source, Format::Markdown, Format::Html, &Profile::fragment())?;
/// assert!(page.text().unwrap().starts_with("<p>See <a href=\"#well\">Figure&nbsp;1</a>.</p>"));
/// assert!(page.text().unwrap().contains("<figcaption>Figure&nbsp;1: The well</figcaption>"));
/// # Ok::<(), obblet::Error>(())
/// ```
pub fn resolve(doc: &mut Document) {
    if !doc.may_hold(KindSet::LINKS) {
        return;
    }
    let candidates = candidates(doc);
    if candidates.is_empty() {
        return;
    }
    let references = with_targets(doc, candidates);
    set_labels(doc, &references);
    let (mut stale, mut empty) = (Vec::new(), Vec::new());
    for &Reference { link, shows, target } in &references {
        match target {
            Some(target) if is_empty(doc, link) => fill(doc, link, target, shows),
            Some(target) if renew(doc, link, shows, target) => stale.push(link),
            _ => {}
        }
        if is_empty(doc, link) {
            empty.push(link);
        }
    }
    if let Some(first) = empty.first() {
        let message = format!("links without text lead to nothing that has a caption, a number or words: {}", empty.len());
        let finding = Finding::advice("reference.empty", message).at(doc.place(*first));
        doc.push_finding(finding.hint("give the link a text, or its target a caption"));
    }
    if let Some(first) = stale.first() {
        let message = format!("cross references showed numbers that their targets do not have: {}", stale.len());
        let finding = Finding::changed("reference.number", message).at(doc.place(*first));
        doc.push_finding(finding.hint("update the fields of the document"));
    }
}

/// A link that shows something of what it leads to.
#[derive(Clone, Copy)]
struct Reference {
    link: NodeId,
    shows: Shows,
    /// What it leads to, where that has something to show.
    target: Option<NodeId>,
}

/// Finds the targets of links. A sign beside a heading or a figure that leads to just that is no reference.
fn with_targets(doc: &Document, candidates: Vec<(NodeId, CrossReference)>) -> Vec<Reference> {
    let targets = Targets::of(doc);
    let is_sign_of = |link: NodeId, target: NodeId| {
        doc.node(link).next() == Some(target)
            || is_alone_before(doc, link, target)
            || doc.ancestors(link).take(MOST_ABOVE).any(|above| above == target)
    };
    candidates
        .into_iter()
        .map(|(link, reference)| {
            let target = name_of(doc, link).and_then(|name| targets.find(doc, &name));
            Reference { link, shows: reference.shows, target }
        })
        .filter(|reference| reference.target.is_none_or(|target| !is_sign_of(reference.link, target)))
        .collect()
}

/// Gives labels to figures, tables, formulas, items and notes. Where something refers to a figure or a table that has no number, all of its kind
/// get one.
fn set_labels(doc: &mut Document, references: &[Reference]) {
    let mut labelled = captioned(doc);
    let asked: HashSet<NodeId> = references.iter().filter(|one| is_empty(doc, one.link)).filter_map(|one| one.target).collect();
    for counter in [Counter::Figure, Counter::Table] {
        let needs = labelled.iter().any(|one| one.counter == counter && one.number.is_empty() && asked.contains(&one.node));
        number(doc, &mut labelled, counter, needs);
    }
    for target in references.iter().filter_map(|one| one.target) {
        if let Kind::Math(formula) = doc.kind(target) {
            let number = format!("({})", doc.text(doc.formula(formula).number));
            doc.labels.set(target, Label { counter: Counter::Formula, name: String::new(), number });
        }
    }
    label_items(doc, references);
    label_notes(doc, references);
}

/// Gives items of numbered lists that something refers to the numbers that they are shown with.
fn label_items(doc: &mut Document, references: &[Reference]) {
    let items: HashSet<NodeId> =
        references.iter().filter_map(|one| one.target).filter(|&id| matches!(doc.kind(id), Kind::ListItem { .. })).collect();
    let lists: HashSet<NodeId> = items.iter().filter_map(|&item| doc.node(item).parent()).collect();
    for list in lists {
        let Kind::List(kind) = doc.kind(list) else { continue };
        let all: Vec<NodeId> = doc.children(list).collect();
        for (item, at) in all.into_iter().zip(0_i64..).filter(|(item, _)| items.contains(item)) {
            let number = numeral(i64::from(kind.start) + at, kind.marker);
            doc.labels.set(item, Label { counter: Counter::Item, name: String::new(), number });
        }
    }
}

/// Gives the signs of notes that something refers to the numbers that the notes get: they are counted where they are first
/// referred to.
fn label_notes(doc: &mut Document, references: &[Reference]) {
    let asked: HashSet<NodeId> =
        references.iter().filter_map(|one| one.target).filter(|&id| matches!(doc.kind(id), Kind::NoteReference(_))).collect();
    if asked.is_empty() {
        return;
    }
    let mut numbers = HashMap::default();
    let mut labels = Vec::new();
    for step in doc.walk_all() {
        if let Step::Enter(id) = step
            && let Kind::NoteReference(note) = doc.kind(id)
        {
            let next = numbers.len() + 1;
            let number = *numbers.entry(note).or_insert(next);
            if asked.contains(&id) {
                labels.push((id, number.to_string()));
            }
        }
    }
    for (id, number) in labels {
        doc.labels.set(id, Label { counter: Counter::Note, name: String::new(), number });
    }
}

/// Whether a link has no text of its own.
fn is_empty(doc: &Document, link: NodeId) -> bool {
    doc.children(link).all(|child| doc.is_white(child, char::is_whitespace))
}

/// The name that a link within the document leads to.
fn name_of(doc: &Document, link: NodeId) -> Option<String> {
    let Kind::Link { href } = doc.kind(link) else { return None };
    let name = doc.text(href).strip_prefix('#').filter(|name| !name.is_empty())?;
    Some(percent_encoding::percent_decode_str(name).decode_utf8().map_or_else(|_| name.to_owned(), Into::into))
}

/// Links that may show something of their targets, in their order.
fn candidates(doc: &Document) -> Vec<(NodeId, CrossReference)> {
    // Programs leave links without text that nobody means.
    let takes_empty = doc.layout_hints.producer == Producer::Plain;
    let is_candidate = |id: NodeId| {
        matches!(doc.kind(id), Kind::Link { href } if doc.text(href).starts_with('#'))
            && (takes_empty && is_empty(doc, id) || doc.references.get(id).is_some())
    };
    if !doc.nodes().any(|(id, node)| node.parent().is_some() && is_candidate(id)) {
        return Vec::new();
    }
    doc.walk_all()
        .filter_map(|step| match step {
            Step::Enter(id) if is_candidate(id) => Some((id, doc.references.get(id).copied().unwrap_or_default())),
            _ => None,
        })
        .collect()
}

/// Whether a link is all that stands in the block right before a heading.
fn is_alone_before(doc: &Document, link: NodeId, target: NodeId) -> bool {
    let Some(block) = doc.node(link).parent() else { return false };
    matches!(doc.kind(target), Kind::Heading(_))
        && doc.node(block).first_child() == doc.node(block).last_child()
        && doc.node(block).next() == Some(target)
}

/// What can be led to, by its name.
struct Targets(HashMap<String, NodeId>);

impl Targets {
    fn of(doc: &Document) -> Self {
        let (mut targets, mut slugs) = (HashMap::default(), HashMap::default());
        let mut by_words = Vec::new();
        for step in doc.walk_all() {
            let Step::Enter(id) = step else { continue };
            if let Some(name) = doc.attributes(id).id {
                targets.entry(doc.text(name).to_owned()).or_insert(id);
            } else if let Kind::Heading(_) = doc.kind(id) {
                by_words.push((slug::unique(&doc.heading_text(id), &mut slugs), id));
            }
        }
        for (name, id) in by_words {
            targets.entry(name).or_insert(id);
        }
        Self(targets)
    }

    /// What a name leads to: the figure, the table or the heading that it is the name of, or that it stands in or right before.
    fn find(&self, doc: &Document, name: &str) -> Option<NodeId> {
        let place = *self.0.get(name)?;
        let is_target = |id: &NodeId| matches!(doc.kind(*id), Kind::Figure | Kind::Table | Kind::Heading(_));
        let upwards = || std::iter::once(place).chain(doc.ancestors(place)).take(MOST_ABOVE);
        let around = upwards().find(is_target);
        let before = || {
            let top = upwards().take_while(|id| says_nothing(doc, *id)).last()?;
            doc.node(top).next().filter(is_target)
        };
        let note =
            || std::iter::once(place).chain(doc.node(place).next()).find(|&id| matches!(doc.kind(id), Kind::NoteReference(_)));
        let item = || upwards().find(|&id| is_numbered_item(doc, id));
        let target = around.or_else(before).or_else(|| numbered_formula(doc, place)).or_else(note).or_else(item)?;
        // A table in a figure has the figure's caption.
        let figure = doc.node(target).parent().filter(|&above| doc.kind(above) == Kind::Figure);
        Some(figure.filter(|_| doc.kind(target) == Kind::Table).unwrap_or(target))
    }
}

/// Whether it is an item of a numbered list.
fn is_numbered_item(doc: &Document, id: NodeId) -> bool {
    let list = doc.node(id).parent().map(|list| doc.kind(list));
    matches!(doc.kind(id), Kind::ListItem { .. }) && matches!(list, Some(Kind::List(list)) if list.ordered)
}

/// The formula with a number in the block that a place is in or is.
fn numbered_formula(doc: &Document, place: NodeId) -> Option<NodeId> {
    let is_numbered = |id| matches!(doc.kind(id), Kind::Math(formula) if !doc.formula(formula).number.is_empty());
    if is_numbered(place) {
        return Some(place);
    }
    let block = std::iter::once(place).chain(doc.ancestors(place)).find(|&id| !doc.kind(id).is_inline() && id != doc.root())?;
    doc.walk(block).take(MOST_WITHIN).find_map(|step| match step {
        Step::Enter(id) => Some(id).filter(|&id| is_numbered(id)),
        Step::Leave(_) => None,
    })
}

/// What a name belongs to is looked for so many nodes up.
const MOST_ABOVE: usize = 64;

/// A formula is looked for among so many steps of a block.
const MOST_WITHIN: usize = 256;

/// Whether there is no word and no picture in a node.
fn says_nothing(doc: &Document, id: NodeId) -> bool {
    doc.walk(id).all(|step| match step {
        Step::Enter(id) => match doc.kind(id) {
            Kind::Text(text) => doc.text(text).trim().is_empty(),
            Kind::LineBreak | Kind::SoftBreak => true,
            kind => !kind.is_leaf(),
        },
        Step::Leave(_) => true,
    })
}

/// A figure or a table with a caption.
struct Captioned {
    node: NodeId,
    caption: NodeId,
    counter: Counter,
    name: String,
    number: String,
}

fn captioned(doc: &Document) -> Vec<Captioned> {
    let mut found = Vec::new();
    for step in doc.walk(doc.root()) {
        let Step::Enter(node) = step else { continue };
        let is_figure = doc.kind(node) == Kind::Figure;
        if !is_figure && doc.kind(node) != Kind::Table {
            continue;
        }
        let Some(caption) = doc.children(node).find(|&child| doc.kind(child) == Kind::Caption) else { continue };
        let holds_table = doc.children(node).any(|child| doc.kind(child) == Kind::Table);
        let counter = if is_figure && !holds_table { Counter::Figure } else { Counter::Table };
        let (name, number) = typed_label(&doc.plain_text(caption)).unwrap_or_default();
        found.push(Captioned { node, caption, counter, name, number });
    }
    found
}

/// The name and the number that a caption begins with, as in `Figure 3: The well`.
fn typed_label(caption: &str) -> Option<(String, String)> {
    let caption = caption.trim_start();
    let (name, rest) = caption.split_at(caption.find(|c: char| !c.is_alphabetic())?);
    let rest = rest.strip_prefix('.').unwrap_or(rest);
    let after = rest.trim_start();
    let digits = number_at_start(after);
    let letters = &after[..after.len() - after.trim_start_matches(|c: char| c.is_ascii_uppercase()).len()];
    // A letter or a Roman number is one where a colon or a full stop stands behind it: "Figure A" may begin a sentence.
    let is_letters = matches!(letters.len(), 1..=5) && after[letters.len()..].starts_with([':', '.']);
    let number = if digits.is_empty() && is_letters { letters } else { digits };
    let ends = after[number.len()..].chars().next().is_none_or(|c| !c.is_alphanumeric());
    (!name.is_empty() && !number.is_empty() && ends && after.len() < rest.len()).then(|| (name.to_owned(), number.to_owned()))
}

/// The number that a text begins with: `3`, `2.1`, `4-2`, `5a`.
fn number_at_start(text: &str) -> &str {
    let mut end = 0;
    for (at, c) in text.char_indices() {
        let goes_on = c.is_ascii_digit()
            || (at > 0
                && matches!(c, '.' | '-' | '\u{2013}')
                && text[at + c.len_utf8()..].starts_with(|c: char| c.is_ascii_digit()));
        if !goes_on {
            let is_letter = at > 0 && c.is_ascii_lowercase() && !text[at + 1..].starts_with(char::is_alphanumeric);
            return &text[..if is_letter { at + 1 } else { end }];
        }
        end = at + c.len_utf8();
    }
    &text[..end]
}

/// Gives labels to all of a kind. Those without a number get one where that `needs` be.
fn number(doc: &mut Document, labelled: &mut [Captioned], counter: Counter, needs: bool) {
    let usual = word_for(doc.metadata.language.as_deref().unwrap_or("en"), counter == Counter::Table);
    let own = labelled.iter().find(|one| one.counter == counter && !one.name.is_empty()).map(|one| one.name.clone());
    let mut count = 0_u32;
    for one in labelled.iter_mut().filter(|one| one.counter == counter) {
        if one.number.is_empty() && needs {
            count += 1;
            one.name = own.clone().unwrap_or_else(|| usual.to_owned());
            one.number = count.to_string();
            let text = doc.intern(&format!("{}\u{A0}{}: ", one.name, one.number));
            let text = doc.create(Kind::Text(text));
            // A caption may hold paragraphs.
            let holder =
                doc.node(one.caption).first_child().filter(|&first| doc.kind(first) == Kind::Paragraph).unwrap_or(one.caption);
            match doc.node(holder).first_child() {
                Some(first) => doc.move_before(first, text),
                None => doc.move_into(holder, text),
            }
            doc.join_texts(holder);
        } else if let Ok(number) = one.number.parse::<u32>() {
            count = number;
        }
        if !one.number.is_empty() {
            doc.labels.set(one.node, Label { counter, name: one.name.clone(), number: one.number.clone() });
        }
    }
}

/// Gives a reference its text.
fn fill(doc: &mut Document, link: NodeId, target: NodeId, shows: Shows) {
    let text = match doc.labels.get(target) {
        Some(label) if shows == Shows::Number && !label.number.is_empty() => label.number.clone(),
        Some(label) => label.text(),
        None if matches!(doc.kind(target), Kind::Heading(_)) => doc.heading_line(target),
        None => doc.plain_text(target).split_whitespace().collect::<Vec<_>>().join(" "),
    };
    if matches!(doc.kind(target), Kind::Heading(_)) || doc.labels.get(target).is_some() {
        while let Some(white) = doc.node(link).first_child() {
            doc.detach(white);
        }
        doc.append_text(link, &text);
        doc.references.set(link, CrossReference { shows });
    }
}

/// Whether the list of an item stands in no other.
fn is_outermost(doc: &Document, item: NodeId) -> bool {
    doc.ancestors(item).filter(|&above| matches!(doc.kind(above), Kind::List(_))).nth(1).is_none()
}

/// Gives a reference the number that its target has, where it shows another. Whether it did.
fn renew(doc: &mut Document, link: NodeId, shows: Shows, target: NodeId) -> bool {
    let Some(label) = doc.labels.get(target) else { return false };
    let takes = match label.counter {
        // What stands at the place may be a number of another kind, and items may be shown with the numbers of those above.
        Counter::Note => shows == Shows::Number,
        Counter::Item => {
            shows == Shows::Number && label.number.bytes().all(|byte| byte.is_ascii_digit()) && is_outermost(doc, target)
        }
        Counter::Heading | Counter::Figure | Counter::Table | Counter::Formula => matches!(shows, Shows::Text | Shows::Number),
    };
    if !takes {
        return false;
    }
    let number = label.number.clone();
    let shown = doc.plain_text(link);
    let Some(start) = shown.find(|c: char| c.is_ascii_digit()) else { return false };
    let old = number_at_start(&shown[start..]).to_owned();
    let rest = &shown[start + old.len()..];
    // The name of the target and a number, and nothing else: what else is in the text may be meant.
    if old == number || rest.contains(|c: char| c.is_alphanumeric()) || !label.name.starts_with(shown[..start].trim()) {
        return false;
    }
    let holder = doc.walk(link).find_map(|step| match step {
        Step::Enter(id) => match doc.kind(id) {
            Kind::Text(text) if doc.text(text).contains(&old) => Some((id, doc.text(text).replacen(&old, &number, 1))),
            _ => None,
        },
        Step::Leave(_) => None,
    });
    let Some((id, text)) = holder else { return false };
    let text = doc.intern(&text);
    doc.set_kind(id, Kind::Text(text));
    true
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn captions_say_what_their_numbers_are() {
        let label = |caption: &str| typed_label(caption).map(|(name, number)| format!("{name}|{number}"));
        assert_eq!(label("Figure 3: The well").as_deref(), Some("Figure|3"));
        assert_eq!(label("Table\u{A0}2.1 Heights").as_deref(), Some("Table|2.1"));
        assert_eq!(label("Fig. 4-2. Ebb").as_deref(), Some("Fig|4-2"));
        assert_eq!(label("Abbildung 5a").as_deref(), Some("Abbildung|5a"));
        assert_eq!(label("Table IV. Heights").as_deref(), Some("Table|IV"));
        assert_eq!(label("Figure A well in the tower"), None);
        assert_eq!(label("The well in 1904"), None);
        assert_eq!(label("Figure: The well"), None);
        assert_eq!(label("Spring 2nd tide"), None);
    }
}
