//! What the elements of HTML are in the model.

use crate::document::{
    Align, CellKind, Direction, DivisionKind, Document, Finding, Kind, ListKind, Marker, NodeId, RowGroupKind, Scope, Text,
    TextLevel,
};
use html5ever::{Attribute, QualName, ns};

/// What is known of a node that came from a tag, beyond its kind.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Origin {
    /// It means what its kind says.
    Element,
    /// It was there for its looks or for a program; its content is what counts.
    Wrapper,
    /// It and its content are not carried over.
    Foreign,
    /// It has no content and no meaning here.
    Nothing,
}

/// Attributes of a tag, by name.
struct Given<'a>(&'a [Attribute]);

impl Given<'_> {
    fn get(&self, name: &str) -> Option<&str> {
        self.0
            .iter()
            .find(|attribute| attribute.name.ns == ns!() && &*attribute.name.local == name)
            .map(|attribute| &*attribute.value)
    }

    fn number<N: std::str::FromStr>(&self, name: &str) -> Option<N> {
        let value = self.get(name)?.trim();
        let end = value.find(|c: char| !c.is_ascii_digit() && c != '-').unwrap_or(value.len());
        value[..end].parse().ok()
    }
}

/// Gives a node the kind and the attributes of its element.
pub(super) fn make(doc: &mut Document, node: NodeId, name: &QualName, attributes: &[Attribute]) -> Origin {
    let given = Given(attributes);
    if name.ns != ns!(html) {
        return Origin::Foreign;
    }
    let (kind, origin) = kind(doc, &name.local, &given, node);
    doc.set_kind(node, kind);
    global_attributes(doc, node, kind, &given);
    own_attributes(doc, node, kind, &given);
    origin
}

fn kind(doc: &mut Document, name: &str, given: &Given<'_>, node: NodeId) -> (Kind, Origin) {
    let division = |kind| (Kind::Division(kind), Origin::Element);
    let kind = match name {
        "p" => Kind::Paragraph,
        "h1" => Kind::Heading(1),
        "h2" => Kind::Heading(2),
        "h3" => Kind::Heading(3),
        "h4" => Kind::Heading(4),
        "h5" => Kind::Heading(5),
        "h6" => Kind::Heading(6),
        "blockquote" => Kind::BlockQuote,
        "ul" | "menu" | "dir" => Kind::List(ListKind { ordered: false, tight: false, marker: Marker::Plain, start: 1 }),
        "ol" => Kind::List(ListKind {
            ordered: true,
            tight: false,
            marker: match given.get("type") {
                Some("a") => Marker::LowerAlpha,
                Some("A") => Marker::UpperAlpha,
                Some("i") => Marker::LowerRoman,
                Some("I") => Marker::UpperRoman,
                _ => Marker::Plain,
            },
            start: given.number("start").unwrap_or(1),
        }),
        "li" => Kind::ListItem { checked: None },
        "dl" => Kind::TermList,
        "dt" => Kind::Term,
        "dd" => Kind::TermDescription,
        "pre" | "listing" => Kind::Preformatted,
        "table" => Kind::Table,
        "caption" | "figcaption" => Kind::Caption,
        "thead" => Kind::RowGroup(RowGroupKind::Head),
        "tbody" => Kind::RowGroup(RowGroupKind::Body),
        "tfoot" => Kind::RowGroup(RowGroupKind::Foot),
        "tr" => Kind::Row,
        "td" => Kind::Cell(cell(given, false)),
        "th" => Kind::Cell(cell(given, true)),
        "figure" => Kind::Figure,
        "hr" => Kind::ThematicBreak,
        "section" => return division(DivisionKind::Section),
        "article" => return division(DivisionKind::Article),
        "aside" => return division(DivisionKind::Aside),
        "nav" => return division(DivisionKind::Navigation),
        "header" => return division(DivisionKind::Header),
        "footer" => return division(DivisionKind::Footer),
        "address" => return division(DivisionKind::Address),
        "html" | "body" | "div" | "center" | "main" | "fieldset" | "hgroup" | "search" | "dialog" | "legend" => {
            return (Kind::Division(DivisionKind::Plain), Origin::Wrapper);
        }
        "details" => Kind::Details { open: given.get("open").is_some() },
        "summary" => Kind::Summary,
        "em" | "i" => Kind::Emphasis,
        "strong" | "b" => Kind::Strong,
        "u" => Kind::Underline,
        "s" | "strike" => Kind::Strikethrough,
        "ins" => Kind::Insertion,
        "del" => Kind::Deletion,
        "mark" => Kind::Highlight,
        "code" | "tt" => Kind::TextLevel(TextLevel::Code),
        "sub" => Kind::Subscript,
        "sup" => Kind::Superscript,
        "br" => Kind::LineBreak,
        "a" | "area" => match given.get("href") {
            Some(href) => Kind::Link { href: doc.intern(href.trim()) },
            None => Kind::Anchor,
        },
        "img" => {
            let (src, alt) = (given.get("src").unwrap_or_default(), given.get("alt").unwrap_or_default());
            Kind::Image { src: doc.intern(src.trim()), alt: doc.intern(alt) }
        }
        "video" | "audio" | "embed" => return embedded(doc, name, given, node),
        "wbr" | "col" | "colgroup" => return (Kind::Span, Origin::Nothing),
        "input" => return (Kind::Span, checkbox(doc, given, node)),
        "span" | "font" | "big" | "nobr" | "picture" | "object" | "button" | "label" | "canvas" | "map" | "marquee" | "blink"
        | "acronym" | "output" | "progress" | "meter" | "rb" | "rtc" | "basefont" | "applet" | "bgsound" | "keygen" => {
            return (Kind::Span, Origin::Wrapper);
        }
        name => match TextLevel::from_element(name) {
            Some(level) => Kind::TextLevel(level),
            None => {
                let place = doc.place(node);
                doc.find(
                    Finding::lost("html.unknown-element", format!("<{name}> is no element of HTML; its tag was left out"))
                        .at(place)
                        .hint("write &lt; for the sign, or put it in backticks"),
                );
                return (Kind::Span, Origin::Wrapper);
            }
        },
    };
    (kind, Origin::Element)
}

/// Sound and pictures that move become links to them, for the model has no place for them.
fn embedded(doc: &mut Document, name: &str, given: &Given<'_>, node: NodeId) -> (Kind, Origin) {
    let Some(src) = given.get("src").map(str::trim).filter(|src| !src.is_empty()) else { return (Kind::Span, Origin::Wrapper) };
    let place = doc.place(node);
    doc.find(Finding::changed("html.embedded", format!("<{name}> became a link to what it shows")).at(place).losing(src));
    let text = given.get("title").unwrap_or(src).to_owned();
    let href = doc.intern(src);
    if name == "embed" {
        doc.append_text(node, &text);
    }
    (Kind::Link { href }, Origin::Element)
}

fn checkbox(doc: &mut Document, given: &Given<'_>, node: NodeId) -> Origin {
    if given.get("type").is_none_or(|kind| !kind.eq_ignore_ascii_case("checkbox")) {
        return Origin::Nothing;
    }
    doc.append_text(node, if given.get("checked").is_some() { "\u{2611}" } else { "\u{2610}" });
    Origin::Wrapper
}

fn cell(given: &Given<'_>, header: bool) -> CellKind {
    let style = given.get("style").and_then(text_align);
    CellKind {
        header,
        scope: match given.get("scope") {
            Some("row") => Scope::Row,
            Some("col") => Scope::Column,
            Some("rowgroup") => Scope::RowGroup,
            Some("colgroup") => Scope::ColumnGroup,
            _ => Scope::Unsaid,
        },
        align: style.or_else(|| given.get("align")).map_or(Align::Unsaid, align),
        columns: given.number("colspan").unwrap_or(1).clamp(1, 1000),
        rows: match given.number::<u16>("rowspan") {
            // Zero means: to the end of the group.
            Some(0) => u16::MAX,
            rows => rows.unwrap_or(1),
        },
    }
}

fn text_align(style: &str) -> Option<&str> {
    style
        .split(';')
        .filter_map(|rule| rule.split_once(':'))
        .find(|(name, _)| name.trim().eq_ignore_ascii_case("text-align"))
        .map(|(_, value)| value)
}

fn align(value: &str) -> Align {
    match value.trim().to_ascii_lowercase().as_str() {
        "left" | "start" => Align::Left,
        "center" | "middle" => Align::Center,
        "right" | "end" => Align::Right,
        "justify" => Align::Justify,
        _ => Align::Unsaid,
    }
}

fn global_attributes(doc: &mut Document, node: NodeId, kind: Kind, given: &Given<'_>) {
    for attribute in given.0.iter().filter(|attribute| attribute.name.local.starts_with("on")) {
        let place = doc.place(node);
        doc.find(
            Finding::lost("html.handler", format!("the handler {} was left out", attribute.name.local))
                .at(place)
                .losing(&*attribute.value),
        );
    }
    let text = |doc: &mut Document, name: &str| -> Option<Text> {
        given.get(name).filter(|value| !value.trim().is_empty()).map(|value| doc.intern(value.trim()))
    };
    let named = matches!(kind, Kind::Link { .. } | Kind::Anchor);
    if let Some(id) = text(doc, "id").or_else(|| named.then(|| text(doc, "name")).flatten()) {
        doc.attributes_mut(node).id = Some(id);
    }
    if let Some(language) =
        given.get("lang").map(|tag| tag.trim().replace('_', "-")).filter(|tag| super::super::model::is_language(tag))
    {
        let language = doc.intern(&language);
        doc.attributes_mut(node).language = Some(language);
    }
    if let Some(direction) = given.get("dir").and_then(Direction::from_value) {
        doc.attributes_mut(node).direction = Some(direction);
    }
    if let Some(title) = text(doc, "title") {
        doc.attributes_mut(node).title = Some(title);
    }
    if kind == Kind::TextLevel(TextLevel::Code)
        && let Some(language) =
            given.get("class").and_then(|classes| classes.split_whitespace().find(|class| class.starts_with("language-")))
    {
        let language = doc.intern(language);
        doc.attributes_mut(node).classes.push(language);
    }
}

/// Keeps the other attributes that the element of a kind may have.
fn own_attributes(doc: &mut Document, node: NodeId, kind: Kind, given: &Given<'_>) {
    for attribute in given.0.iter().filter(|attribute| attribute.name.ns == ns!()) {
        let name = &*attribute.name.local;
        // Sizes are often written with a unit.
        let value = match name {
            "width" | "height" => attribute.value.trim().trim_end_matches("px"),
            _ => attribute.value.trim(),
        };
        if super::super::model::attribute(kind, name, value).is_some() {
            let pair = (doc.intern(name), doc.intern(value));
            doc.attributes_mut(node).other.push(pair);
        }
    }
}
