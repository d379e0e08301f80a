//! What the elements of HTML are in the model.

use super::element_state::{Landmark, Origin, ParseState, Role, SelectorInput};
use super::vendor_markup;
use crate::document::{
    self, Align, CellKind, Direction, DivisionKind, Document, Finding, Kind, ListKind, Marker, NodeId, Producer, RowGroupKind,
    Scope, Text, TextLevel,
};
use crate::formats::html::attribute_values;
use html5ever::{Attribute, LocalName, QualName, local_name, ns};

/// Attributes of a tag, by name.
struct Given<'a>(&'a [Attribute]);

impl Given<'_> {
    fn get(&self, name: LocalName) -> Option<&str> {
        let attribute = self.0.iter().find(|attribute| attribute.name.local == name && attribute.name.ns == ns!())?;
        Some(&*attribute.value)
    }

    fn number<N: std::str::FromStr>(&self, name: LocalName) -> Option<N> {
        let value = self.get(name)?.trim();
        let end = value.find(|c: char| !c.is_ascii_digit() && c != '-').unwrap_or(value.len());
        value[..end].parse().ok()
    }
}

/// Gives a node the kind and the attributes of its element.
pub(super) fn make(
    doc: &mut Document,
    state: &mut ParseState,
    node: NodeId,
    name: &QualName,
    attributes: Vec<Attribute>,
) -> Origin {
    if name.ns != ns!(html) {
        state.foreign.insert(node, (name.clone(), attributes));
        return Origin::Foreign;
    }
    let given = Given(&attributes);
    let (kind, origin) =
        common(&name.local).map_or_else(|| kind(doc, state, &name.local, &given, node), |kind| (kind, Origin::Element));
    doc.set_kind(node, kind);
    part(state, node, &name.local, &given);
    let whole = matches!(name.local, local_name!("html") | local_name!("body"));
    if !attributes.is_empty() && !whole {
        global_attributes(doc, state, node, kind, &given);
        own_attributes(doc, node, kind, &given);
    }
    origin
}

/// What later tags say of the html and body elements.
pub(super) fn add_missing(state: &mut ParseState, name: &QualName, attributes: &[Attribute]) {
    if matches!(name.local, local_name!("html") | local_name!("body")) {
        whole(state, &Given(attributes));
    }
}

/// The elements that most of a text is made of, whose attributes do not matter to their kind.
const fn common(name: &LocalName) -> Option<Kind> {
    Some(match *name {
        local_name!("p") => Kind::Paragraph,
        local_name!("li") => Kind::ListItem { checked: None },
        local_name!("ul") => Kind::List(BULLETS),
        local_name!("tr") => Kind::Row,
        local_name!("em") | local_name!("i") => Kind::Emphasis,
        local_name!("strong") | local_name!("b") => Kind::Strong,
        local_name!("code") => Kind::TextLevel(TextLevel::Code),
        local_name!("br") => Kind::LineBreak,
        local_name!("h1") => Kind::Heading(1),
        local_name!("h2") => Kind::Heading(2),
        local_name!("h3") => Kind::Heading(3),
        local_name!("h4") => Kind::Heading(4),
        local_name!("pre") => Kind::Preformatted,
        _ => return None,
    })
}

const BULLETS: ListKind = ListKind { ordered: false, tight: false, marker: Marker::Plain, start: 1 };

fn kind(doc: &mut Document, state: &mut ParseState, name: &LocalName, given: &Given<'_>, node: NodeId) -> (Kind, Origin) {
    let division = |kind| (Kind::Division(kind), Origin::Element);
    let kind = match &**name {
        "td" => Kind::Cell(cell(given, false)),
        "th" => Kind::Cell(cell(given, true)),
        "a" => match given.get(local_name!("href")) {
            Some(href) => {
                let href = href.trim();
                if href.starts_with('#') {
                    state.local_links.push(node);
                }
                Kind::Link { href: doc.intern(href) }
            }
            None => Kind::Anchor,
        },
        "img" | "image" => image(doc, given),
        "h5" => Kind::Heading(5),
        "h6" => Kind::Heading(6),
        "blockquote" => Kind::BlockQuote,
        "menu" | "dir" => Kind::List(BULLETS),
        "ol" => Kind::List(ListKind {
            ordered: true,
            tight: false,
            marker: given.get(local_name!("type")).map_or(Marker::Plain, super::css::marker_of_type),
            start: given.number(local_name!("start")).unwrap_or(1),
        }),
        "dl" => Kind::TermList,
        "dt" => Kind::Term,
        "dd" => Kind::TermDescription,
        "listing" | "xmp" | "plaintext" => Kind::Preformatted,
        "table" => Kind::Table,
        "caption" | "figcaption" => Kind::Caption,
        "thead" => Kind::RowGroup(RowGroupKind::Head),
        "tbody" => Kind::RowGroup(RowGroupKind::Body),
        "tfoot" => Kind::RowGroup(RowGroupKind::Foot),
        "figure" => Kind::Figure,
        "hr" => Kind::ThematicBreak,
        "section" => return division(DivisionKind::Section),
        "article" => return division(DivisionKind::Article),
        "aside" => return division(DivisionKind::Aside),
        "nav" => return division(DivisionKind::Navigation),
        "header" => return division(DivisionKind::Header),
        "footer" => return division(DivisionKind::Footer),
        "address" => return division(DivisionKind::Address),
        "details" => Kind::Details { open: given.get(local_name!("open")).is_some() },
        "summary" => Kind::Summary,
        "u" => Kind::Underline,
        "s" | "strike" => Kind::Strikethrough,
        "ins" => Kind::Insertion,
        "del" => Kind::Deletion,
        "mark" => Kind::Highlight,
        "tt" => Kind::TextLevel(TextLevel::Code),
        "acronym" => Kind::TextLevel(TextLevel::Abbreviation),
        "sub" => Kind::Subscript,
        "sup" => Kind::Superscript,
        other => match TextLevel::from_element(other) {
            Some(level) => Kind::TextLevel(level),
            None => return wrapper(doc, state, name, given, node),
        },
    };
    (kind, Origin::Element)
}

/// Elements that hold others and say nothing of their own, and those that stand for something elsewhere.
fn wrapper(doc: &mut Document, state: &mut ParseState, name: &LocalName, given: &Given<'_>, node: NodeId) -> (Kind, Origin) {
    let plain = |origin| (Kind::Span, origin);
    match &**name {
        "font" | "big" | "center" => {
            doc.layout_hints.producer = doc.layout_hints.producer.max(Producer::Styled);
            let division = Kind::Division(DivisionKind::Plain);
            (if name == &local_name!("center") { division } else { Kind::Span }, Origin::Wrapper)
        }
        "object" => {
            let data = given.0.iter().find(|attribute| attribute.name.local == local_name!("data"));
            let Some(data) = data.filter(|data| !data.value.trim().is_empty()) else { return plain(Origin::Wrapper) };
            state.sources.insert(node, data.value.clone());
            plain(Origin::Object)
        }
        "span" | "nobr" | "picture" | "label" | "canvas" | "map" | "marquee" | "blink" | "output" | "progress" | "meter"
        | "rb" | "rtc" | "applet" | "slot" => plain(Origin::Wrapper),
        "div" | "form" | "fieldset" | "hgroup" | "search" | "dialog" | "legend" | "noscript" | "frameset" => {
            (Kind::Division(DivisionKind::Plain), Origin::Wrapper)
        }
        "main" => (Kind::Division(DivisionKind::Plain), Origin::Wrapper),
        "html" | "body" => {
            whole(state, given);
            page_input(state, node, given);
            // An office program names the namespaces of its own elements, whether they occur or not.
            if given.0.iter().any(|attribute| attribute.value.starts_with("urn:schemas-microsoft-com:")) {
                doc.layout_hints.producer = Producer::Program;
            }
            (Kind::Division(DivisionKind::Plain), Origin::Wrapper)
        }
        "col" | "colgroup" => {
            let style = given.get(local_name!("style")).and_then(|style| super::css::of_attribute(style).align);
            let align = style.unwrap_or_else(|| given.get(local_name!("align")).map_or(Align::Unsaid, super::css::align));
            state.columns.insert(node, (align, given.number(local_name!("span")).unwrap_or(1).clamp(1, 1000)));
            plain(Origin::Column)
        }
        "area" => match given.get(local_name!("href")) {
            Some(href) => {
                let (href, alt) = (doc.intern(href.trim()), given.get(local_name!("alt")).unwrap_or_default());
                if !alt.is_empty() {
                    doc.append_text(node, alt);
                }
                (Kind::Link { href }, Origin::Element)
            }
            None => plain(Origin::Nothing),
        },
        "video" | "audio" | "embed" | "iframe" | "frame" => embedded(doc, name, given, node),
        "source" => {
            if let Some(src) = given.0.iter().find(|attribute| attribute.name.local == local_name!("src")) {
                state.sources.insert(node, src.value.clone());
            }
            plain(Origin::Nothing)
        }
        "wbr" | "track" | "param" | "base" | "bgsound" | "basefont" | "keygen" => plain(Origin::Nothing),
        _ => page_part(doc, state, name, given, node),
    }
}

/// Elements that are no part of the text, and those that are none of HTML's.
fn page_part(doc: &mut Document, state: &mut ParseState, name: &LocalName, given: &Given<'_>, node: NodeId) -> (Kind, Origin) {
    let plain = |origin| (Kind::Span, origin);
    match &**name {
        "script" => {
            state.scripts.add(|| doc.place(node), "");
            plain(Origin::Unseen)
        }
        "style" => {
            state.style_elements.push(node);
            plain(Origin::Unseen)
        }
        "head" => {
            state.head = Some(node);
            plain(Origin::Unseen)
        }
        "title" => {
            state.titles.push(node);
            plain(Origin::Unseen)
        }
        "meta" | "link" => {
            page_attributes(state, name, given);
            plain(Origin::Nothing)
        }
        "template" | "noframes" | "noembed" => plain(Origin::Unseen),
        "input" => plain(input(doc, state, given, node)),
        // What a button says is seen; but beside code it is a tool of the page.
        "button" => plain(Origin::Button),
        "select" | "textarea" | "datalist" | "option" | "optgroup" => plain(Origin::Control),
        "xml" | "w:data" | "o:documentproperties" => plain(Origin::ProgramData),
        // A field of an office suite, which shows its value.
        "sdfield" => {
            doc.layout_hints.producer = Producer::Program;
            plain(Origin::Wrapper)
        }
        name if name.contains(':') => {
            doc.layout_hints.producer = Producer::Program;
            plain(Origin::Wrapper)
        }
        name if name.contains('-') => plain(Origin::Wrapper),
        other => {
            if state.unknown.insert(name.clone()) {
                let place = doc.place(node);
                doc.push_finding(
                    Finding::lost("html.unknown-element", format!("<{other}> is not an HTML element; its tag was removed"))
                        .at(place)
                        .hint("write &lt; for the sign, or put it in backticks"),
                );
            }
            plain(Origin::Wrapper)
        }
    }
}

/// A picture: of several sizes the best one, and not what stands in its place until a script has run.
fn image(doc: &mut Document, given: &Given<'_>) -> Kind {
    let attribute = |name: &'static str| given.get(LocalName::from(name)).map(str::trim).filter(|value| !value.is_empty());
    let best = attribute("srcset").and_then(best_of).map(str::to_owned);
    let stands_in = |src: &&str| src.starts_with("data:") && attribute("data-src").is_some();
    let src = best.or_else(|| {
        let src = attribute("src").filter(|src| !stands_in(src));
        src.or_else(|| attribute("data-src")).map(str::to_owned)
    });
    let alt = given.get(local_name!("alt")).unwrap_or_default();
    Kind::Image { src: doc.intern(src.as_deref().unwrap_or_default()), alt: doc.intern(alt) }
}

/// The largest picture of a source set (HTML, section 4.8.4.2.1).
fn best_of(set: &str) -> Option<&str> {
    if set.contains("data:") {
        return None;
    }
    let candidates = set.split(", ").flat_map(|part| part.split(",\n")).map(str::trim).filter(|part| !part.is_empty());
    let size = |candidate: &str| {
        let descriptor = candidate.split_whitespace().nth(1).unwrap_or("1x");
        descriptor.trim_end_matches([',', 'w', 'x', 'h']).parse::<f64>().unwrap_or(0.0)
    };
    let best = candidates.max_by(|a, b| size(a).total_cmp(&size(b)))?;
    best.split_whitespace().next().map(|address| address.trim_end_matches(','))
}

/// Sound and pictures that move, and pages within pages, become links to them, for the model has no place for them.
fn embedded(doc: &mut Document, name: &str, given: &Given<'_>, node: NodeId) -> (Kind, Origin) {
    let src = given.get(local_name!("src")).map(str::trim).filter(|src| !src.is_empty() && *src != "about:blank");
    let named = |name| given.get(name).map(str::trim).filter(|title| !title.is_empty());
    let title = named(local_name!("title")).or_else(|| named(local_name!("name"))).map(str::to_owned);
    match src {
        Some(src) => (link_to(doc, node, name, src, title.as_deref()), Origin::Embedded),
        None if matches!(name, "video" | "audio") => (Kind::Span, Origin::Embedded),
        None => (Kind::Span, Origin::Wrapper),
    }
}

/// Gives an embedded thing the text of the link that it becomes.
pub(super) fn link_to(doc: &mut Document, node: NodeId, name: &str, src: &str, title: Option<&str>) -> Kind {
    let place = doc.place(node);
    doc.push_finding(Finding::changed("html.embedded", format!("<{name}> became a link to what it shows")).at(place).losing(src));
    let href = doc.intern(src);
    doc.append_text(node, title.unwrap_or(src));
    Kind::Link { href }
}

fn input(doc: &mut Document, state: &mut ParseState, given: &Given<'_>, node: NodeId) -> Origin {
    let kind = given.get(local_name!("type")).unwrap_or("text").trim().to_ascii_lowercase();
    match kind.as_str() {
        "checkbox" => Origin::Checkbox(given.get(local_name!("checked")).is_some()),
        "hidden" => Origin::Nothing,
        _ => {
            let words = match kind.as_str() {
                "submit" | "button" | "reset" | "text" | "search" => given.get(local_name!("value")),
                "image" => given.get(local_name!("alt")),
                _ => None,
            };
            state.controls.add(|| doc.place(node), words.unwrap_or_default());
            Origin::Nothing
        }
    }
}

fn cell(given: &Given<'_>, header: bool) -> CellKind {
    CellKind {
        header,
        scope: match given.get(local_name!("scope")).unwrap_or_default() {
            "row" => Scope::Row,
            "col" => Scope::Column,
            "rowgroup" => Scope::RowGroup,
            "colgroup" => Scope::ColumnGroup,
            _ => Scope::Unsaid,
        },
        // Style rules, which are looked up later, win.
        align: given.get(local_name!("align")).map_or(Align::Unsaid, super::css::align),
        columns: given.number(local_name!("colspan")).unwrap_or(1).clamp(1, 1000),
        rows: match given.number::<u16>(local_name!("rowspan")) {
            // Zero means: to the end of the group.
            Some(0) => u16::MAX,
            rows => rows.unwrap_or(1),
        },
    }
}

/// Attributes of the html and body elements speak for the page.
fn whole(state: &mut ParseState, given: &Given<'_>) {
    let language = given.get(local_name!("lang")).or_else(|| given.get(LocalName::from("xml:lang")));
    if let Some(language) = language.map(language_tag).filter(|tag| crate::language_tag::is_well_formed(tag)) {
        state.language.get_or_insert(language);
    }
    if let Some(direction) = given.get(local_name!("dir")).and_then(Direction::from_value) {
        state.direction.get_or_insert(direction);
    }
}

/// What style rules may ask of the html and body elements, and what these say of the looks of the page.
fn page_input(state: &mut ParseState, node: NodeId, given: &Given<'_>) {
    let mut input = SelectorInput { node, id: None, classes: None, style: None, hints: None };
    let mut hints = String::new();
    for attribute in given.0.iter().filter(|attribute| attribute.name.ns == ns!()) {
        match attribute.name.local {
            local_name!("class") => input.classes = Some(attribute.value.clone()),
            local_name!("style") => input.style = Some(attribute.value.clone()),
            local_name!("text") | local_name!("bgcolor") => {
                hint(&mut hints, &attribute.name.local, Kind::Root, &attribute.value);
            }
            _ => {}
        }
    }
    if !hints.is_empty() {
        input.hints = Some(hints.into());
    }
    if input.classes.is_some() || input.style.is_some() || input.hints.is_some() {
        state.page_inputs.push(input);
    }
}

fn language_tag(value: &str) -> String {
    value.trim().replace('_', "-")
}

fn page_attributes(state: &mut ParseState, name: &LocalName, given: &Given<'_>) {
    if *name == local_name!("link") {
        let canonical = given.get(local_name!("rel")).is_some_and(|rel| rel.eq_ignore_ascii_case("canonical"));
        if let (true, Some(href)) = (canonical, given.get(local_name!("href"))) {
            state.canonical.get_or_insert_with(|| href.trim().to_owned());
        }
        return;
    }
    let name = given.get(local_name!("name")).or_else(|| given.get(local_name!("property")));
    let name = name.or_else(|| given.get(local_name!("http-equiv")));
    if let (Some(name), Some(content)) = (name, given.get(local_name!("content"))) {
        state.meta.push((name.trim().to_ascii_lowercase(), content.split_whitespace().collect::<Vec<_>>().join(" ")));
    }
}

/// Whether an element says that it is what the page is there for, or that it is not.
fn part(state: &mut ParseState, node: NodeId, name: &LocalName, given: &Given<'_>) {
    if !state.wants_parts {
        if *name == local_name!("main") {
            state.parts.push((node, Landmark::Main));
        }
        return;
    }
    let by_name = match *name {
        local_name!("main") => Some(Landmark::Main),
        local_name!("nav") | local_name!("header") | local_name!("footer") | local_name!("aside") => Some(Landmark::Navigation),
        local_name!("div")
        | local_name!("ul")
        | local_name!("section")
        | local_name!("article")
        | local_name!("table")
        | local_name!("td")
        | local_name!("form")
        | local_name!("p")
        | local_name!("a") => None,
        _ => return,
    };
    if by_name.is_none() && given.0.is_empty() {
        return;
    }
    let by_role = given.get(local_name!("role")).and_then(super::main_content::part_of_role);
    let by_class = || {
        [local_name!("id"), local_name!("class")]
            .into_iter()
            .filter_map(|name| given.get(name))
            .flat_map(str::split_ascii_whitespace)
            .find_map(super::main_content::part_of_class)
    };
    if let Some(part) = by_role.or(by_name).or_else(by_class) {
        state.parts.push((node, part));
    }
}

fn global_attributes(doc: &mut Document, state: &mut ParseState, node: NodeId, kind: Kind, given: &Given<'_>) {
    let mut selector_input = SelectorInput { node, id: None, classes: None, style: None, hints: None };
    let (mut font, mut hints) = (String::new(), String::new());
    let (mut hidden, mut remark) = (false, false);
    let text = |doc: &mut Document, value: &str| -> Option<Text> {
        let value = value.trim();
        (!value.is_empty()).then(|| doc.intern(value))
    };
    for attribute in given.0.iter().filter(|attribute| attribute.name.ns == ns!()) {
        match attribute.name.local {
            local_name!("id") => {
                selector_input.id = Some(attribute.value.clone());
                // An editor marks what was copied with it.
                if attribute.value.starts_with("docs-internal-guid") {
                    doc.layout_hints.producer = Producer::Program;
                } else if let Some(id) = text(doc, &attribute.value) {
                    doc.attributes_mut(node).id = Some(id);
                }
            }
            local_name!("class") => {
                vendor_markup::classes(doc, node, kind, &attribute.value);
                remark |= matches!(&*attribute.value, "msocomtxt" | "msocomoff");
                selector_input.classes = Some(attribute.value.clone());
            }
            local_name!("style") => {
                vendor_markup::style(doc, &attribute.value);
                selector_input.style = Some(attribute.value.clone());
            }
            local_name!("href") if attribute.value.starts_with("#_msocom") => remark = true,
            local_name!("contenteditable") => doc.layout_hints.producer = Producer::Program,
            // Only fonts had these.
            local_name!("size") if kind == Kind::Span => font.push_str(vendor_markup::font_size(&attribute.value)),
            local_name!("face") if kind == Kind::Span => font.push_str(&format!("font-family:{};", attribute.value)),
            local_name!("align")
            | local_name!("bgcolor")
            | local_name!("color")
            | local_name!("height")
            | local_name!("text")
            | local_name!("valign")
            | local_name!("width") => hint(&mut hints, &attribute.name.local, kind, &attribute.value),
            local_name!("aria-level") => vendor_markup::level(doc, node, &attribute.value),
            local_name!("name") if matches!(kind, Kind::Link { .. } | Kind::Anchor) && doc.attributes(node).id.is_none() => {
                if let Some(id) = text(doc, &attribute.value) {
                    doc.attributes_mut(node).id = Some(id);
                }
            }
            local_name!("lang") => {
                let language = language_tag(&attribute.value);
                if crate::language_tag::is_well_formed(&language) {
                    let language = doc.intern(&language);
                    doc.attributes_mut(node).language = Some(language);
                }
            }
            local_name!("dir") => {
                if let Some(direction) = Direction::from_value(attribute.value.trim()) {
                    doc.attributes_mut(node).direction = Some(direction);
                }
            }
            local_name!("title") => {
                if !attribute.value.trim().is_empty() {
                    let title = doc.intern(&attribute.value);
                    doc.attributes_mut(node).title = Some(title);
                }
            }
            local_name!("hidden") if !attribute.value.eq_ignore_ascii_case("until-found") => hidden = true,
            local_name!("role") => role(doc, state, node, kind, &attribute.value),
            ref name if &**name == "data-aria-level" => vendor_markup::level(doc, node, &attribute.value),
            ref name if name.starts_with("on") => state.handlers.add(|| doc.place(node), ""),
            _ => {}
        }
    }
    language_class(doc, node, kind, selector_input.classes.as_deref());
    // The rule that browsers have for the attribute, and those of programs.
    let before =
        [if hidden { "display:none;" } else { "" }, &font, if remark { "mso-element:comment-list;" } else { "" }].concat();
    if !before.is_empty() {
        selector_input.style = Some([&before, selector_input.style.as_deref().unwrap_or_default()].concat().as_str().into());
    }
    if !hints.is_empty() {
        selector_input.hints = Some(hints.into());
    }
    if selector_input.classes.is_some() || selector_input.style.is_some() || selector_input.hints.is_some() {
        state.selector_inputs.push(selector_input);
    }
}

/// An attribute from before there were style rules, as a declaration (HTML, section 15).
fn hint(hints: &mut String, name: &LocalName, kind: Kind, value: &str) {
    let value = value.trim();
    // Nothing that ends a declaration.
    if value.is_empty() || !value.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'#' | b'%' | b'.' | b' ')) {
        return;
    }
    let is_digits = value.bytes().all(|byte| byte.is_ascii_digit() || byte == b'.');
    let is_table = matches!(kind, Kind::Table | Kind::Cell(_) | Kind::Row);
    let (property, unit) = match (&**name, kind) {
        ("align", Kind::Table) if value.eq_ignore_ascii_case("center") => {
            return hints.push_str("margin-left:auto;margin-right:auto;");
        }
        ("align", Kind::Table | Kind::Image { .. }) => ("float", ""),
        ("align", Kind::Cell(_)) => return,
        ("align", _) => ("text-align", ""),
        ("bgcolor", _) => ("background-color", ""),
        ("color", Kind::Span) | ("text", _) => ("color", ""),
        ("valign", _) => ("vertical-align", ""),
        ("width", _) if is_table => ("width", if is_digits { "px" } else { "" }),
        ("height", _) if is_table => ("height", if is_digits { "px" } else { "" }),
        _ => return,
    };
    // Colours were written without their sign, too.
    let is_colour = property.ends_with("color") && value.len() == 6 && value.bytes().all(|byte| byte.is_ascii_hexdigit());
    for part in [property, ":", if is_colour { "#" } else { "" }, value, unit, ";"] {
        hints.push_str(part);
    }
}

/// What an element is by its role.
fn role(doc: &mut Document, state: &mut ParseState, node: NodeId, kind: Kind, value: &str) {
    let role = match value {
        "doc-noteref" => Role::NoteReference,
        "doc-backlink" => Role::BackLink,
        "doc-endnotes" | "doc-footnotes" => Role::Notes,
        "presentation" | "none" if kind == Kind::Table => {
            doc.layout_hints.at(node).part = document::HintRole::Layout;
            return;
        }
        _ => return,
    };
    state.roles.insert(node, role);
}

/// The language of code, as a class.
fn language_class(doc: &mut Document, node: NodeId, kind: Kind, classes: Option<&str>) {
    if matches!(kind, Kind::TextLevel(TextLevel::Code) | Kind::Preformatted)
        && let Some(language) = classes.and_then(code_language)
    {
        let class = doc.intern(&format!("language-{language}"));
        doc.attributes_mut(node).classes.push(class);
        if language == "tex" && classes.is_some_and(|classes| classes.ends_with(" display")) {
            let display = doc.intern("display");
            doc.attributes_mut(node).classes.push(display);
        }
    }
}

/// The language of code, as classes name it.
fn code_language(classes: &str) -> Option<&str> {
    let mut classes = classes.split_ascii_whitespace();
    classes
        .find_map(|class| class.strip_prefix("language-").or_else(|| class.strip_prefix("lang-")))
        .filter(|name| !name.is_empty())
}

/// Keeps the other attributes that the element of a kind may have.
fn own_attributes(doc: &mut Document, node: NodeId, kind: Kind, given: &Given<'_>) {
    if !matches!(
        kind,
        Kind::Image { .. }
            | Kind::Link { .. }
            | Kind::List(_)
            | Kind::ListItem { .. }
            | Kind::BlockQuote
            | Kind::Insertion
            | Kind::Deletion
            | Kind::TextLevel(_)
    ) {
        return;
    }
    for attribute in given.0.iter().filter(|attribute| attribute.name.ns == ns!()) {
        let name = &*attribute.name.local;
        // Sizes are often written with a unit.
        let value = match name {
            "width" | "height" => attribute.value.trim().trim_end_matches("px"),
            _ => attribute.value.trim(),
        };
        if attribute_values::attribute(kind, name, value).is_some() {
            let pair = (doc.intern(name), doc.intern(value));
            doc.attributes_mut(node).other.push(pair);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_largest_picture_is_the_best() {
        assert_eq!(best_of("a.png 320w, b,c.png 1280w,\n d.png 640w"), Some("b,c.png"));
        assert_eq!(best_of("a.png, b.png 2x"), Some("b.png"));
        assert_eq!(best_of(" "), None);
    }
}
