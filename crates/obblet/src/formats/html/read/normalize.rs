//! After tree construction: white space that means nothing goes, what style rules mean becomes what elements mean, wrappers
//! go, and what is now empty goes.

use super::css::{ComputedStyle, StyleMarks};
use super::css::{ComputedStyles, TakenBack};
use super::element_state::{Origin, ParseState, Tally};
use super::{code, foreign, table, vendor_markup};
use crate::document::white_space::is_collapsible;
use crate::document::{
    BYLINE, Callout, DivisionKind, Document, Finding, HintRole, Kind, ListKind, NodeId, Producer, Step, TextLevel,
    says_what_it_is,
};
use crate::fast_hash::HashMap;
use crate::heading_count;
use crate::refine::wrappers;

/// Makes what came from HTML as clean as what came from the source's own markup.
pub(super) struct Normalizer<'m> {
    pub(super) state: &'m mut ParseState,
    pub(super) looks: &'m ComputedStyles,
    /// Whether classes stay.
    classes: bool,
    /// Whether page breaks became styles.
    pub(super) keeps_breaks: bool,
    /// The last text of the line that ends with white space, if the line has one.
    ending: Option<NodeId>,
    /// Whether white space that comes now means nothing.
    after_space: bool,
    pub(super) preformatted: usize,
    code: usize,
    /// Nodes of whose children one went, innermost last.
    gaps: Vec<NodeId>,
    /// What the walk came to last that never had anything in it.
    born_empty: Option<NodeId>,
    hidden: Tally,
    page_breaks: Tally,
    icons: Tally,
    remarks: Tally,
    tabs: Tally,
    /// Sizes of letters, of nodes whose text is all of one size.
    sizes: HashMap<NodeId, f32>,
    /// Nodes from which rules take back that they are bold, italic.
    pub(super) taken_back: HashMap<NodeId, TakenBack>,
    /// Paragraphs that look like headings, and the size of their letters.
    pub(super) heading_like: Vec<(NodeId, f32)>,
}

/// Letters of this size in points may be those of a heading.
const LARGE: f32 = 16.0;

impl<'m> Normalizer<'m> {
    pub(super) fn new(state: &'m mut ParseState, looks: &'m ComputedStyles, classes: bool) -> Self {
        Self {
            state,
            looks,
            classes,
            keeps_breaks: false,
            ending: None,
            after_space: true,
            preformatted: 0,
            code: 0,
            gaps: Vec::new(),
            born_empty: None,
            hidden: Tally::default(),
            page_breaks: Tally::default(),
            icons: Tally::default(),
            remarks: Tally::default(),
            tabs: Tally::default(),
            sizes: HashMap::default(),
            taken_back: HashMap::default(),
            heading_like: Vec::new(),
        }
    }

    /// Normalizes a tree: texts as the walk comes to them, elements as it leaves them.
    pub(super) fn tree(&mut self, doc: &mut Document, top: NodeId) {
        let mut at = top;
        'walk: loop {
            // What comes next is known before a node changes: normalizing it moves nothing but it and what is below.
            let (mut next, mut parent) = (doc.node(at).next(), doc.node(at).parent());
            let goes_in = self.enter(doc, at);
            if let Some(child) = doc.node(at).first_child().filter(|_| goes_in) {
                at = child;
                continue;
            }
            loop {
                let done = at == top;
                self.leave(doc, at, top);
                match (done, next, parent) {
                    (true, ..) => break 'walk,
                    (_, Some(next), _) => {
                        at = next;
                        continue 'walk;
                    }
                    (_, None, Some(above)) => {
                        at = above;
                        (next, parent) = (doc.node(at).next(), doc.node(at).parent());
                    }
                    (_, None, None) => break 'walk,
                }
            }
        }
        self.end_line(doc);
        if top == doc.root() {
            wrappers::wrap_text_runs(doc, top);
        }
        self.report(doc);
    }

    /// Returns whether what is below is normalized too.
    fn enter(&mut self, doc: &mut Document, id: NodeId) -> bool {
        match doc.kind(id) {
            Kind::Text(text) if self.code > 0 && self.preformatted == 0 => {
                // Spaces count in code, line ends do not.
                if doc.text(text).contains('\n') {
                    let collapsed = collapse(doc.text(text)).replace('\n', " ");
                    let text = doc.intern(&collapsed);
                    doc.set_kind(id, Kind::Text(text));
                }
                (self.ending, self.after_space) = (None, false);
            }
            Kind::Text(_) if self.preformatted == 0 && self.state.origin(id) == Origin::Text => self.text(doc, id),
            Kind::Text(text) => {
                self.ending = None;
                self.after_space = doc.text(text).ends_with(is_collapsible) && self.preformatted == 0;
            }
            Kind::SoftBreak => (self.ending, self.after_space) = (None, true),
            Kind::LineBreak => self.end_line(doc),
            kind if !kind.is_inline() => {
                let first = doc.node(id).first_child();
                if first == doc.node(id).last_child() && first.is_none_or(|only| doc.is_white(only, is_collapsible)) {
                    self.born_empty = Some(id);
                }
                self.end_line(doc);
                self.preformatted += usize::from(kind == Kind::Preformatted);
            }
            kind if kind.is_leaf() => (self.ending, self.after_space) = (None, false),
            _ => match self.state.origin(id) {
                Origin::Foreign => {
                    let place = doc.place(id);
                    if foreign::normalize(doc, id, self.state) {
                        self.icons.add(|| place, "");
                    }
                    (self.ending, self.after_space) = (None, false);
                    return false;
                }
                Origin::Unseen | Origin::ProgramData | Origin::Control => return false,
                Origin::Embedded => {
                    self.embedded(doc, id);
                    (self.ending, self.after_space) = (None, false);
                    return false;
                }
                Origin::Button if self.preformatted > 0 => return false,
                Origin::Checkbox(_) => (self.ending, self.after_space) = (None, false),
                Origin::Element if doc.kind(id) == Kind::TextLevel(TextLevel::Code) => self.code += 1,
                Origin::Element if doc.node(id).first_child().is_none() => {
                    self.born_empty = Some(id);
                    // A reference, which gets its text later.
                    if matches!(doc.kind(id), Kind::Link { href } if doc.text(href).starts_with('#')) {
                        (self.ending, self.after_space) = (None, false);
                    }
                }
                _ => {}
            },
        }
        true
    }

    fn leave(&mut self, doc: &mut Document, id: NodeId, top: NodeId) {
        let kind = doc.kind(id);
        if let Kind::Text(_) = kind {
            return;
        }
        let parent = doc.node(id).parent();
        if !kind.is_inline() {
            self.end_line(doc);
            self.preformatted -= usize::from(kind == Kind::Preformatted);
        }
        if kind == Kind::TextLevel(TextLevel::Code) && self.state.origin(id) == Origin::Element {
            self.code = self.code.saturating_sub(1);
        }
        match self.state.origin(id) {
            // What a paragraph held was left out.
            Origin::Elsewhere if kind == Kind::Paragraph && doc.node(id).first_child().is_none() && id != top => doc.detach(id),
            Origin::Elsewhere | Origin::Text | Origin::Foreign | Origin::Column => {}
            Origin::Unseen | Origin::Nothing => doc.detach(id),
            Origin::ProgramData => {
                let words = doc.plain_text(id);
                self.state.program_data.add(|| doc.place(id), &words);
                doc.detach(id);
            }
            Origin::Button if self.preformatted == 0 => self.element(doc, id, Origin::Wrapper),
            Origin::Control | Origin::Button => {
                let words = doc.plain_text(id);
                self.state.controls.add(|| doc.place(id), &words);
                doc.detach(id);
            }
            Origin::Checkbox(checked) => self.checkbox(doc, id, checked),
            Origin::Object => self.object(doc, id),
            _ if id == top => {}
            origin => self.element(doc, id, origin),
        }
        if self.gaps.last() == Some(&id) {
            while self.gaps.pop_if(|gap| *gap == id).is_some() {}
            doc.join_texts(id);
        }
        // Where a node went, the texts around it meet.
        if doc.node(id).parent() != parent || (doc.kind(id).is_leaf() && !kind.is_leaf()) {
            self.gaps.extend(parent);
        }
    }

    /// White space becomes one space, or one line end; at the ends of lines it goes.
    fn text(&mut self, doc: &mut Document, id: NodeId) {
        let Kind::Text(whole) = doc.kind(id) else { return };
        let mut text = whole;
        let content = doc.text(text);
        let start = content.len() - content.trim_start_matches(is_collapsible).len();
        if start == content.len() && self.after_space {
            self.gaps.extend(doc.node(id).parent());
            doc.detach(id);
            return;
        }
        if self.after_space {
            text.start += start as u32;
        }
        if needs_collapse(doc.text(text)) {
            let collapsed = collapse(doc.text(text));
            text = doc.intern(&collapsed);
        }
        if text != whole {
            doc.set_kind(id, Kind::Text(text));
        }
        self.after_space = doc.text(text).ends_with(is_collapsible);
        self.ending = self.after_space.then_some(id);
    }

    /// A line of text ends: white space at its end goes, and what is empty without it.
    fn end_line(&mut self, doc: &mut Document) {
        self.after_space = true;
        let Some(id) = self.ending.take() else { return };
        let Kind::Text(mut text) = doc.kind(id) else { return };
        text.end = text.start + doc.text(text).trim_end_matches(is_collapsible).len() as u32;
        if !text.is_empty() {
            return doc.set_kind(id, Kind::Text(text));
        }
        let mut empty = id;
        while let Some(above) = doc.node(empty).parent() {
            doc.detach(empty);
            let goes = doc.kind(above).is_inline()
                && doc.node(above).first_child().is_none()
                && doc.attributes(above).id.is_none()
                && self.state.origin(above) != Origin::Elsewhere;
            if !goes {
                break;
            }
            empty = above;
        }
    }

    /// What an embedded thing holds beside the text of its link is for programs that can't show it.
    fn embedded(&self, doc: &mut Document, id: NodeId) {
        let first = if matches!(doc.kind(id), Kind::Link { .. }) { doc.node(id).first_child() } else { None };
        let source = doc.children(id).find_map(|child| self.state.sources.get(&child).cloned());
        while let Some(last) = doc.node(id).last_child().filter(|&last| Some(last) != first) {
            doc.detach(last);
        }
        if let (None, Some(src)) = (first, source) {
            let kind = super::elements::link_to(doc, id, "source", src.trim(), None);
            doc.set_kind(id, kind);
        }
    }

    /// An object with something in its place becomes that, else a link to what it shows.
    fn object(&mut self, doc: &mut Document, id: NodeId) {
        let data = self.state.sources.get(&id).cloned().unwrap_or_default();
        let data = data.trim();
        let shows = |step| match step {
            Step::Enter(node) => match doc.kind(node) {
                Kind::Image { .. } | Kind::Link { .. } => true,
                Kind::Text(text) => !doc.text(text).trim().is_empty(),
                _ => false,
            },
            Step::Leave(_) => false,
        };
        if doc.walk(id).any(shows) {
            let message = "an object was left out; what stands in its place for programs that can't show it was kept";
            doc.push_finding(Finding::changed("html.embedded", message).at(doc.place(id)).losing(data));
        } else {
            while let Some(child) = doc.node(id).first_child() {
                doc.detach(child);
            }
            let kind = super::elements::link_to(doc, id, "object", data, None);
            doc.set_kind(id, kind);
            (self.ending, self.after_space) = (None, false);
        }
        self.element(doc, id, Origin::Wrapper);
    }

    /// A checkbox at the beginning of an item makes a task of it; elsewhere it is a sign.
    fn checkbox(&mut self, doc: &mut Document, id: NodeId, checked: bool) {
        let mut at = id;
        while doc.node(at).previous().is_none()
            && let Some(above) = doc.node(at).parent()
        {
            match doc.kind(above) {
                Kind::ListItem { checked: None } => {
                    doc.set_kind(above, Kind::ListItem { checked: Some(checked) });
                    doc.detach(id);
                    (self.ending, self.after_space) = (None, true);
                    return;
                }
                Kind::Paragraph | Kind::Span => at = above,
                _ => break,
            }
        }
        let sign = doc.intern(if checked { "\u{2611}" } else { "\u{2610}" });
        doc.set_kind(id, Kind::Text(sign));
        self.state.set_origin(id, Origin::Text);
    }

    fn element(&mut self, doc: &mut Document, id: NodeId, origin: Origin) {
        let look = self.looks.get(id);
        self.size(doc, id, look.and_then(|look| look.size));
        if let Some(look) = look {
            if self.removes(doc, id, &look) {
                return;
            }
            self.apply_style(doc, id, look);
        } else if !self.taken_back.is_empty() {
            self.split_around_taken_back(doc, id);
        }
        match doc.kind(id) {
            Kind::TextLevel(TextLevel::Code) => code::normalize_inline_code(doc, id, self.preformatted > 0),
            Kind::Preformatted => code::normalize_block(doc, id),
            Kind::Table => table::normalize(doc, id, self.state),
            Kind::List(list) => normalize_list(doc, id, list, self.state),
            Kind::Paragraph => self.paragraph(doc, id),
            Kind::Division(DivisionKind::Aside) => normalize_callout(doc, id, self.state),
            _ => {}
        }
        if doc.node(id).parent().is_none() {
            return;
        }
        let kind = doc.kind(id);
        let bare = doc.attributes(id).is_empty();
        if !bare && matches!(kind, Kind::Span | Kind::Anchor) && doc.children(id).all(|child| doc.is_white(child, is_collapsible))
        {
            // White space around which there is nothing to see stands beside the place, not in it.
            while let Some(white) = doc.node(id).last_child() {
                doc.move_after(id, white);
            }
        }
        // Rows without cells count until the table is whole.
        if doc.node(id).first_child().is_none() && !kind.is_leaf() && !matches!(kind, Kind::Cell(_) | Kind::Row) {
            self.empty_element(doc, id, bare);
            return;
        }
        match kind {
            Kind::Span | Kind::Anchor if bare => {
                self.hand_down_taken_back(doc, id);
                doc.unwrap(id);
            }
            Kind::Division(DivisionKind::Plain) if origin == Origin::Wrapper && self.preformatted == 0 => {
                wrappers::open_division(doc, id, bare);
                if doc.kind(id) == Kind::Paragraph {
                    self.paragraph(doc, id);
                }
            }
            _ => {}
        }
    }

    /// Takes out what style rules hide or say is a remark, and remembers breaks and tabs. Whether the element is done with.
    fn removes(&mut self, doc: &mut Document, id: NodeId, look: &ComputedStyle) -> bool {
        if look.hidden == Some(true) {
            let words = doc.plain_text(id);
            if !words.trim().is_empty() {
                self.hidden.add(|| doc.place(id), &words);
            }
            if doc.attributes(id).id.is_some() && doc.kind(id).is_inline() && words.trim().is_empty() {
                doc.set_kind(id, Kind::Anchor);
            } else {
                doc.detach(id);
            }
            return true;
        }
        if look.marks.contains(StyleMarks::REMARK) {
            let words = doc.plain_text(id);
            if !words.trim().is_empty() {
                self.remarks.add(|| doc.place(id), &words);
            }
            doc.detach(id);
            return true;
        }
        if look.marks.contains(StyleMarks::PAGE_BREAK) {
            if !self.keeps_breaks {
                self.page_breaks.add(|| doc.place(id), "");
            }
            if doc.kind(id) == Kind::LineBreak {
                doc.detach(id);
                return true;
            }
        }
        vendor_markup::note_hints(doc, id, look);
        if look.marks.contains(StyleMarks::TAB) && self.tabs.first.is_none() {
            self.tabs.add(|| doc.place(id), "");
        }
        look.marks.contains(StyleMarks::MARKER) && kept_marker(doc, id)
    }

    /// What becomes of an element that holds nothing.
    fn empty_element(&self, doc: &mut Document, id: NodeId, bare: bool) {
        let kind = doc.kind(id);
        let only_named = !bare && doc.attributes(id).id.is_some();
        let in_block = kind == Kind::TextLevel(TextLevel::Code) && self.preformatted > 0;
        let empty_link = bare && matches!(kind, Kind::Link { .. }) && self.born_empty == Some(id);
        let place = matches!(kind, Kind::Heading(_) | Kind::BlockQuote | Kind::ListItem { .. }) && self.born_empty == Some(id);
        if in_block || empty_link || place {
            // A place for something that is still to be written. Other formats have them too.
        } else if !only_named {
            doc.detach(id);
        } else if kind.is_inline() {
            doc.set_kind(id, Kind::Anchor);
        } else if matches!(kind, Kind::Division(_) | Kind::Paragraph) {
            // A place that links lead to, and nothing else.
            doc.set_kind(id, Kind::Anchor);
        }
    }

    /// The size of letters of a node is that of the one node in it, unless it has its own.
    fn size(&mut self, doc: &Document, id: NodeId, own: Option<f32>) {
        if own.is_none() && self.sizes.is_empty() {
            return;
        }
        let Some(size) = self.sizes.get(&id).copied().or(own) else { return };
        self.sizes.insert(id, size);
        if let Some(parent) = doc.node(id).parent()
            && doc.node(parent).first_child() == doc.node(parent).last_child()
        {
            self.sizes.entry(parent).or_insert(size);
        }
    }

    /// A paragraph that is all bold may look like a heading.
    fn paragraph(&mut self, doc: &Document, id: NodeId) {
        let size = self.sizes.get(&id).copied().unwrap_or(0.0);
        let only = doc.node(id).first_child().filter(|_| doc.node(id).first_child() == doc.node(id).last_child());
        let mut at = only;
        let mut bold = false;
        while let Some(node) = at {
            bold |= doc.kind(node) == Kind::Strong;
            at = doc.node(node).first_child().filter(|&child| doc.node(child).next().is_none());
        }
        if bold || size >= LARGE {
            self.heading_like.push((id, size));
        }
    }

    /// What was left out, each sort once.
    fn report(&mut self, doc: &mut Document) {
        let state = &mut *self.state;
        let tallies = [
            (std::mem::take(&mut state.scripts), Finding::lost("html.script", "scripts were left out")),
            (std::mem::take(&mut state.handlers), Finding::lost("html.handler", "attributes that run script were left out")),
            (std::mem::take(&mut state.controls), Finding::lost("html.form", "fields of forms were left out")),
            (std::mem::take(&mut self.hidden), Finding::lost("html.hidden", "parts that the page does not show were left out")),
            (std::mem::take(&mut state.too_deep), Finding::lost("html.too-deep", "tags that stand too deep were left out")),
            (std::mem::take(&mut state.program_data), Finding::changed("html.program-data", "application data was removed")),
            (std::mem::take(&mut self.remarks), Finding::lost("html.remark", "review comments and their marks were left out")),
            (
                std::mem::take(&mut self.tabs),
                Finding::advice("html.tabs", "text is aligned with tabs, which HTML does not have").hint("make a table of it"),
            ),
            (std::mem::take(&mut self.icons), Finding::changed("html.icon", "icons without words were left out")),
            (std::mem::take(&mut self.page_breaks), Finding::changed("html.page-break", "page breaks were left out")),
        ];
        for (tally, mut finding) in tallies {
            if tally.count > 0 {
                finding.message = format!("{}: {}", finding.message, tally.count);
                doc.push_finding(finding.at(tally.first.unwrap_or_default()).losing(tally.words));
            }
        }
    }

    /// Keeps classes: all, where they are asked for, and those that name the formats that content is for; on our own pages, those
    /// that say how headings are counted.
    pub(super) fn keep_classes(&self, doc: &mut Document, own: bool) {
        use crate::refine::targets::is_target;
        for selector_input in &self.state.selector_inputs {
            let Some(classes) =
                selector_input.classes.as_deref().filter(|_| doc.attributes(selector_input.node).classes.is_empty())
            else {
                continue;
            };
            let is_own_heading = own && matches!(doc.kind(selector_input.node), Kind::Heading(_));
            let kind = doc.kind(selector_input.node);
            let by_program = doc.layout_hints.producer == Producer::Program;
            let is_kept = |class: &&str| {
                if self.classes {
                    !by_program || !vendor_markup::is_own_class(class)
                } else {
                    is_target(class)
                        || *class == BYLINE
                        || says_what_it_is(kind, class)
                        || is_own_heading && heading_count::CLASSES.contains(class)
                }
            };
            for class in classes.split_ascii_whitespace().filter(is_kept) {
                let class = doc.intern(class);
                doc.attributes_mut(selector_input.node).classes.push(class);
            }
        }
    }
}

/// The marker of a list item stays apart, for the pass that makes lists.
fn kept_marker(doc: &mut Document, id: NodeId) -> bool {
    let is_marker = doc.kind(id) == Kind::Span && doc.node(id).first_child().is_some();
    if is_marker {
        doc.layout_hints.at(id).part = HintRole::Marker;
    }
    is_marker
}

/// A list whose items hold text and no paragraphs is tight, and its text stands in paragraphs as in other formats.
fn normalize_list(doc: &mut Document, id: NodeId, list: ListKind, state: &ParseState) {
    let is_item = |doc: &Document, item: NodeId| matches!(doc.kind(item), Kind::ListItem { .. });
    let from_html = |doc: &Document, item: NodeId| {
        doc.children(item).any(|child| doc.kind(child) == Kind::Paragraph && state.origin(child) != Origin::Wrapper)
    };
    if doc.children(id).any(|item| is_item(doc, item) && from_html(doc, item)) {
        return;
    }
    let mut at = doc.node(id).first_child();
    while let Some(item) = at {
        at = doc.node(item).next();
        if is_item(doc, item) {
            wrappers::wrap_text_runs(doc, item);
        }
    }
    doc.set_kind(id, Kind::List(ListKind { tight: true, ..list }));
}

/// What the writer makes of a callout comes back as one.
fn normalize_callout(doc: &mut Document, id: NodeId, state: &ParseState) {
    let callouts = [Callout::Note, Callout::Tip, Callout::Important, Callout::Warning, Callout::Caution];
    let Some(first) = doc.node(id).first_child().filter(|&first| doc.kind(first) == Kind::Paragraph) else { return };
    let strong =
        doc.node(first).first_child().filter(|&strong| doc.kind(strong) == Kind::Strong && doc.node(strong).next().is_none());
    let word = doc.plain_text(first);
    let Some(callout) = callouts.into_iter().find(|callout| callout.word() == word).filter(|_| strong.is_some()) else { return };
    // Both are in the order in which nodes are made.
    let selector_input = state
        .selector_inputs
        .binary_search_by_key(&id, |selector_input| selector_input.node)
        .ok()
        .map(|place| &state.selector_inputs[place]);
    let class = selector_input.and_then(|selector_input| selector_input.classes.as_deref());
    if class.is_some_and(|class| class.eq_ignore_ascii_case(callout.word())) {
        doc.detach(first);
        doc.set_kind(id, Kind::Division(DivisionKind::Callout(callout)));
        if doc.node(id).has_attributes() {
            // What the class says, the kind says now.
            let mut classes = std::mem::take(&mut doc.attributes_mut(id).classes);
            classes.retain(|class| !doc.text(*class).eq_ignore_ascii_case(callout.word()));
            doc.attributes_mut(id).classes = classes;
        }
    }
}

/// Whether white space in a text is more than single spaces and line ends.
fn needs_collapse(text: &str) -> bool {
    let mut before = b'x';
    text.bytes().any(|byte| {
        let double = byte <= b' ' && (before <= b' ' || !matches!(byte, b' ' | b'\n'));
        before = byte;
        double && is_collapsible(byte as char)
    })
}

fn collapse(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    let mut white: Option<char> = None;
    for c in text.chars() {
        if is_collapsible(c) {
            white = Some(if c == '\n' || white == Some('\n') { '\n' } else { ' ' });
        } else {
            out.extend(white.take());
            out.push(c);
        }
    }
    out.extend(white);
    out
}
