//! Tags of HTML for what Markdown has no syntax for.

use super::Writer;
use crate::document::{Direction, Kind, NodeId, TextLevel};

/// The element of a kind that stands within a line.
pub(super) fn element(kind: Kind) -> Option<&'static str> {
    Some(match kind {
        Kind::Underline => "u",
        Kind::Insertion => "ins",
        Kind::Deletion => "del",
        Kind::Strikethrough => "s",
        Kind::Highlight => "mark",
        Kind::Subscript => "sub",
        Kind::Superscript => "sup",
        Kind::Emphasis => "em",
        Kind::Strong => "strong",
        Kind::TextLevel(level) => level.element(),
        _ => return None,
    })
}

pub(super) fn escaped(value: &str) -> String {
    value.replace('&', "&amp;").replace('"', "&quot;").replace('<', "&lt;").replace('>', "&gt;").replace(['\n', '\r'], " ")
}

impl Writer<'_, '_> {
    /// A start tag with the attributes of a node.
    pub(super) fn start_tag(&self, name: &str, id: NodeId) -> String {
        let mut tag = format!("<{name}");
        let doc = self.doc;
        let mut put = |name: &str, value: &str| {
            tag.push_str(&format!(" {name}=\"{}\"", escaped(value)));
        };
        if doc.node(id).has_attributes() {
            let attributes = doc.attributes(id);
            if self.options.settings.ids {
                if let Some(name) = attributes.id {
                    put("id", doc.text(name));
                }
                if !attributes.classes.is_empty() {
                    put("class", &attributes.classes.iter().map(|&class| doc.text(class)).collect::<Vec<_>>().join(" "));
                }
            }
            if let Some(language) = attributes.language {
                put("lang", doc.text(language));
            }
            if let Some(direction) = attributes.direction {
                put("dir", direction.value());
            }
            if let Some(title) = attributes.title {
                put("title", doc.text(title));
            }
            for &(name, value) in &attributes.other {
                if doc.text(name).bytes().all(|byte| byte.is_ascii_lowercase()) && !doc.text(name).starts_with("on") {
                    put(doc.text(name), doc.text(value));
                }
            }
        }
        tag.push('>');
        tag
    }

    /// Whether an element within a line says something that its text does not.
    pub(super) fn says_something(&self, id: NodeId, kind: Kind) -> bool {
        let attributes = self.doc.attributes(id);
        let has = |name: &str| attributes.other.iter().any(|(known, _)| self.doc.text(*known) == name);
        let own = (self.options.settings.languages && attributes.language.is_some())
            || matches!(attributes.direction, Some(Direction::LeftToRight | Direction::RightToLeft))
            || (self.options.settings.ids && (attributes.id.is_some() || !attributes.classes.is_empty()));
        match kind {
            Kind::Span | Kind::Anchor => own,
            Kind::TextLevel(TextLevel::Time) => has("datetime"),
            Kind::TextLevel(TextLevel::Data) => has("value"),
            Kind::TextLevel(TextLevel::Override) => attributes.direction.is_some(),
            _ => true,
        }
    }

    /// What stands below a node, as HTML within one line.
    pub(super) fn inline_html(&self, id: NodeId) -> String {
        let html = self.options.element.map(|write| write(self.doc, id, self.has_places)).unwrap_or_default();
        let inner = html.split_once('>').map_or("", |(_, rest)| rest);
        let inner = inner.rfind("</").map_or(inner, |end| &inner[..end]);
        if html.is_empty() { escaped(&self.doc.plain_text(id)) } else { inner.trim().replace('\n', " ") }
    }
}
