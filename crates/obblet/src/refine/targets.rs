//! Content for some outputs only: blocks and spans with a class that names the formats that they are for, or not for.

use crate::document::{Document, Finding, Kind, NodeId, Text};

/// What a class says of a format.
enum For<'c> {
    /// `only-html`
    Only(&'c str),
    /// `not-html`
    Not(&'c str),
}

/// What a class says, where it names a format; some formats write hyphens as underscores or spaces.
fn of_class(class: &str) -> Option<For<'_>> {
    let (word, format) = class.split_once(['-', '_'])?;
    let is_format = crate::Format::all().any(|known| known.name().eq_ignore_ascii_case(format));
    match word.to_ascii_lowercase().as_str() {
        "only" if is_format => Some(For::Only(format)),
        "not" if is_format => Some(For::Not(format)),
        _ => None,
    }
}

/// Whether a class names the formats that content is for.
pub(crate) fn is_target(class: &str) -> bool {
    matches!(class.as_bytes().first(), Some(b'o' | b'O' | b'n' | b'N')) && of_class(class).is_some()
}

/// Whether markup may hold such a class.
pub(crate) fn may_be_in(markup: &str) -> bool {
    let has = |what: &[u8]| memchr::memmem::find(markup.as_bytes(), what).is_some();
    has(b"only-") || has(b"not-")
}

/// Removes what is not for a format, and takes the classes that say so from what is. Several `only` classes are for each of them.
///
/// ```
/// use obblet::{Format, convert, profile::Profile};
///
/// let source = b"Read the <span class=\"only-html\">page</span><span class=\"only-word\">paper</span>.";
/// let page = convert(source, Format::Html, Format::Html, &Profile::fragment())?;
/// assert_eq!(page.text(), Some("<p>Read the page.</p>\n"));
/// # Ok::<(), obblet::Error>(())
/// ```
pub fn select(doc: &mut Document, format: &str) {
    if !doc.has_class(is_target) {
        return;
    }
    let (mut gone, mut kept) = (Vec::new(), Vec::new());
    for (id, node) in doc.nodes().filter(|(_, node)| node.has_attributes()) {
        let (mut names, mut is_for, mut is_against, mut has_only) = (false, false, false, false);
        for class in &doc.attributes(id).classes {
            match of_class(doc.text(*class)) {
                Some(For::Only(name)) => {
                    (names, has_only) = (true, true);
                    is_for |= name.eq_ignore_ascii_case(format);
                }
                Some(For::Not(name)) => {
                    names = true;
                    is_against |= name.eq_ignore_ascii_case(format);
                }
                None => {}
            }
        }
        if names && node.parent().is_some() {
            if is_against || has_only && !is_for { gone.push(id) } else { kept.push(id) }
        }
    }
    report(doc, &gone);
    for id in gone {
        doc.detach(id);
    }
    for id in kept {
        let classes: Vec<Text> =
            doc.attributes(id).classes.iter().copied().filter(|class| of_class(doc.text(*class)).is_none()).collect();
        let attributes = doc.attributes_mut(id);
        attributes.classes = classes.into_iter().collect();
        let is_bare = attributes.is_empty();
        if is_bare && matches!(doc.kind(id), Kind::Span | Kind::Division(crate::document::DivisionKind::Plain)) {
            doc.unwrap(id);
        }
    }
}

/// Says what was left out, once.
fn report(doc: &mut Document, gone: &[NodeId]) {
    let Some(first) = gone.first() else { return };
    let words: Vec<String> = gone.iter().map(|id| doc.plain_text(*id)).collect();
    let message = format!("parts that are for other formats were left out: {}", gone.len());
    let finding = Finding::changed("clean.targets", message).at(doc.place(*first)).losing(words.join("\n"));
    doc.push_finding(finding);
}
