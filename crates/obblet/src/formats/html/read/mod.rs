//! Reading HTML: pages and fragments, and the pieces of it that stand in other formats.
//!
//! The source is cut into [`tokens`]; tree construction is the standard's, from a parser package, straight into the model
//! ([`sink`]); what each element is in the model is in [`elements`]. Then style rules are looked up ([`css`]) and put on
//! ([`apply_style`]), and become styles of the document where looks count ([`looks`]); the tree is normalized in one walk ([`normalize`]), and what HTML has no element for is found in it ([`notes`]).

mod apply_style;
mod code;
mod css;
mod css_colours;
mod css_values;
mod decode;
mod element_state;
mod elements;
mod embedded_html;
mod foreign;
mod foreign_markup;
mod formula;
mod fragment_filter;
mod list_labels;
mod looks;
mod main_content;
mod metadata;
mod normalize;
mod notes;
mod own_styles;
mod sink;
mod style_rules;
mod table;
mod tokens;
mod vendor_markup;

pub use embedded_html::open_raw;
pub(crate) use embedded_html::open_raw_with;

use super::Settings;
use super::depth_limit::Guard;
use crate::document::{DivisionKind, Document, Kind, LayoutHints, SourceMap, Step};
use crate::formats::StyleFidelity;
use crate::refine::rules::inline::formatting_of;
use crate::refine::structure;
use element_state::{Origin, ParseState};
use html5ever::tokenizer::{Token, TokenSink};
use html5ever::tree_builder::{TreeBuilder, TreeBuilderOpts};
use normalize::Normalizer;
use sink::{Parts, Sink};

/// How much of a page is read.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Content {
    /// All of it.
    #[default]
    All,
    /// What the page is there for, without navigation, banners, sidebars, footers and share bars.
    Main,
}

/// How HTML is read.
#[derive(Clone, Copy, Debug)]
pub struct ReadOptions<'o> {
    /// The settings of the format.
    pub settings: &'o Settings,
    /// Whether classes stay.
    pub classes: bool,
    /// Whether spans with the classes that stand for formatting are that formatting, as
    /// [`Inline::Classes`](crate::refine::rules::inline::Inline::Classes) writes it. In pages that were written here they are.
    pub formatting_classes: bool,
    /// How much of what style rules say of looks becomes styles of the document.
    pub fidelity: StyleFidelity,
}

impl Default for ReadOptions<'_> {
    fn default() -> Self {
        Self { settings: &super::settings::USUAL, classes: false, formatting_classes: false, fidelity: StyleFidelity::Semantic }
    }
}

/// Reads a page or a fragment. Any bytes are HTML; what is doubtful about them is in the findings.
///
/// ```
/// use obblet::document::Kind;
/// use obblet::formats::html;
///
/// let doc = html::read(b"<title>Tides</title><p>High <b>water", &html::ReadOptions::default());
/// assert_eq!(doc.metadata.title.as_deref(), Some("Tides"));
/// assert_eq!(doc.plain_text(doc.root()), "High water");
/// let paragraph = doc.node(doc.root()).first_child().unwrap();
/// assert_eq!(doc.kind(paragraph), Kind::Paragraph);
/// ```
#[must_use]
pub fn read(bytes: &[u8], options: &ReadOptions<'_>) -> Document {
    let (source, doubt) = decode::decode(bytes, Some(options.settings.encoding.as_str()).filter(|label| !label.is_empty()));
    let mut doc = Document::with_pool(String::with_capacity(source.len()), source.len() / 24 + 16);
    let source = tokens::prepared(&source);
    doc.source = SourceMap::of_source(&source).read_from(bytes, &source);
    doc.findings.extend(doubt);
    build(&mut doc, &source, options);
    doc
}

/// The text of a page, by its encoding as [`read`] finds it.
#[must_use]
pub fn decode<'b>(bytes: &'b [u8], encoding: Option<&str>) -> std::borrow::Cow<'b, str> {
    decode::decode(bytes, encoding).0
}

fn build(doc: &mut Document, source: &str, options: &ReadOptions<'_>) {
    let sink = Sink::for_page(doc, options.settings.content == Content::Main);
    // Pages without a doctype are read as if they had one: where one is missing, tables would stand in paragraphs.
    let options_of_builder = TreeBuilderOpts { scripting_enabled: false, iframe_srcdoc: true, ..TreeBuilderOpts::default() };
    let guard = Guard::new(TreeBuilder::new(sink, options_of_builder));
    tokens::tokenize(source, &mut tokens::Names::new(), &guard);
    let _ = guard.process_token(Token::EOFToken, source.len() as u64 | (source.len() as u64) << 32);
    guard.end();
    let Parts { doc, root: page, mut state, names } = guard.into_builder().sink.into_parts();
    metadata::read(doc, &state);
    // The looks of our own pages say nothing that their markup does not say.
    let own = metadata::is_own(&state);
    let looks = if own || (state.selector_inputs.is_empty() && state.style_elements.is_empty()) {
        css::ComputedStyles::default()
    } else {
        css::looks(doc, &state, &names)
    };
    let own_styles = (options.fidelity.keeps_names() && own).then(|| own_styles::read(doc, &state));
    let page_looks = (options.fidelity.is_exact() && !own).then(|| looks::read(doc, page, &state, &names));
    drop(names);
    list_labels::find(doc, &state);
    let root = doc.root();
    if page != root {
        doc.move_into(root, page);
    }
    if let Some(head) = state.head {
        doc.detach(head);
    }
    if own || options.settings.content == Content::Main {
        main_content::keep(doc, page, &mut state, !own);
    }
    if own {
        drop_own_title(doc);
        drop_title_of_numbered(doc);
        doc.layout_hints = LayoutHints::default();
    }
    if own || options.formatting_classes {
        set_formatting(doc, &mut state);
    }
    let mut normalizer = Normalizer::new(&mut state, &looks, options.classes);
    normalizer.keeps_breaks = options.fidelity.is_exact();
    normalizer.keep_classes(doc, own);
    if let Some(styles) = own_styles {
        styles.put_into(doc);
    }
    if let Some(looks) = page_looks {
        looks.put_into(doc);
    }
    normalizer.tree(doc, root);
    let heading_like = std::mem::take(&mut normalizer.heading_like);
    notes::find(doc, &state);
    doc.layout_hints.heading_like = heading_like;
    structure::repair(doc);
    doc.order_spans();
}

/// Spans whose classes stand for formatting become that formatting.
fn set_formatting(doc: &mut Document, state: &mut ParseState) {
    for index in 0..state.selector_inputs.len() {
        let selector_input = &state.selector_inputs[index];
        let (node, Some(classes)) = (selector_input.node, &selector_input.classes) else { continue };
        if doc.kind(node) != Kind::Span {
            continue;
        }
        let Some((class, kind)) = classes.split_ascii_whitespace().find_map(|class| Some((class, formatting_of(class)?))) else {
            continue;
        };
        let others: Vec<&str> = classes.split_ascii_whitespace().filter(|&other| other != class).collect();
        state.selector_inputs[index].classes = Some(others.join(" ").into()).filter(|_| !others.is_empty());
        doc.set_kind(node, kind);
        state.set_origin(node, Origin::Element);
    }
}

/// The header that a page of our own shows its title in says nothing that the metadata does not say.
/// The title of a page of ours may be a heading without its number; it is no title then.
fn drop_title_of_numbered(doc: &mut Document) {
    let (Some(title), Some(heading)) = (doc.metadata.title.as_deref(), doc.first_heading()) else { return };
    let number = heading.strip_suffix(title).and_then(|number| number.strip_suffix(' ')).unwrap_or_default();
    if !number.is_empty() && number.chars().all(|c| c.is_ascii_digit() || c.is_ascii_uppercase() || matches!(c, '.' | '-')) {
        doc.metadata.title = None;
    }
}

fn drop_own_title(doc: &mut Document) {
    let is_header = |kind: Kind| kind == Kind::Division(DivisionKind::Header);
    let header = doc.walk(doc.root()).take(64).find_map(|step| match step {
        Step::Enter(id) if is_header(doc.kind(id)) => Some(id),
        _ => None,
    });
    if let Some(header) = header {
        let title = doc.children(header).find(|&child| doc.kind(child) == Kind::Heading(1)).map(|title| doc.plain_text(title));
        if title.is_some() && title.as_deref().map(str::trim) == doc.metadata.title.as_deref() {
            doc.detach(header);
        }
    }
}
