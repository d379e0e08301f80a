//! The settings of all passes, and the order in which they run.

use super::lists::Lists;
use super::revisions::Revisions;
use super::rules::capitals::{self, Capitals};
use super::rules::elements::{self, Disallowed};
use super::rules::inline::{self, Bold, Inline};
use super::rules::lines::{self, LineBreaks, Paragraphs};
use super::rules::scenes::{self, SceneBreaks};
use super::rules::spaces::{self, StopSpaces, Tabs};
use super::rules::{attributes, replace};
use super::typography::{self, Dashes, Quotes};
use super::{
    anchors, empty, formatting, layout_tables, lists, lone_paragraphs, redirects, revisions, tab_tables, table_heads, white_space,
};
use crate::document::{Document, KindSet, Producer};

/// When a pass runs.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum When {
    /// Where looks are set in the source, or a program left its own notes in it.
    #[default]
    Auto,
    /// Always.
    Always,
    /// Never.
    Never,
}

impl When {
    fn holds(self, doc: &Document) -> bool {
        match self {
            Self::Auto => doc.layout_hints.producer != Producer::Plain,
            Self::Always => true,
            Self::Never => false,
        }
    }
}

/// The settings of the passes that clean a document. The table of settings says what each is.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct Cleaning {
    pub leave_out: Vec<String>,
    pub revisions: Revisions,
    pub layout_tables: bool,
    pub tab_columns: bool,
    pub lists: Lists,
    pub anchors: When,
    pub formatting: When,
    pub white_space: When,
    pub spacers: bool,
    pub empty: When,
    pub lone_paragraphs: When,
    pub table_heads: When,
    pub redirects: bool,
    pub replace: Vec<String>,
    pub replace_patterns: Vec<String>,
    pub capitals: Capitals,
    pub protected_words: Vec<String>,
    pub bold: Bold,
    pub stop_spaces: StopSpaces,
    pub tabs: Tabs,
    pub quotes: Quotes,
    pub dashes: Dashes,
    pub scene_breaks: SceneBreaks,
    pub scene_mark: String,
    pub line_breaks: LineBreaks,
    pub list_lines: String,
    pub paragraphs: Paragraphs,
    pub remove_elements: Vec<String>,
    pub unwrap_elements: Vec<String>,
    pub rename_elements: Vec<String>,
    pub allow_elements: Vec<String>,
    pub disallowed: Disallowed,
    pub inline: Inline,
    pub classes: Vec<String>,
    pub allow_attributes: Vec<String>,
    pub remove_attributes: Vec<String>,
}

impl Default for Cleaning {
    fn default() -> Self {
        Self {
            lists: Lists::default(),
            anchors: When::Auto,
            formatting: When::Auto,
            white_space: When::Auto,
            spacers: true,
            empty: When::Auto,
            lone_paragraphs: When::Auto,
            table_heads: When::Auto,
            revisions: Revisions::default(),
            ..Self::none()
        }
    }
}

impl Cleaning {
    /// Settings by which a document stays as it is.
    #[must_use]
    pub fn none() -> Self {
        Self {
            leave_out: Vec::new(),
            revisions: Revisions::Keep,
            layout_tables: false,
            tab_columns: false,
            lists: Lists::Keep,
            anchors: When::Never,
            formatting: When::Never,
            white_space: When::Never,
            spacers: false,
            empty: When::Never,
            lone_paragraphs: When::Never,
            table_heads: When::Never,
            redirects: false,
            replace: Vec::new(),
            replace_patterns: Vec::new(),
            capitals: Capitals::Keep,
            protected_words: Vec::new(),
            bold: Bold::Keep,
            stop_spaces: StopSpaces::Keep,
            tabs: Tabs::Keep,
            quotes: Quotes::Keep,
            dashes: Dashes::Keep,
            scene_breaks: SceneBreaks::Keep,
            scene_mark: "* * *".to_owned(),
            line_breaks: LineBreaks::Keep,
            list_lines: String::new(),
            paragraphs: Paragraphs::Keep,
            remove_elements: Vec::new(),
            unwrap_elements: Vec::new(),
            rename_elements: Vec::new(),
            allow_elements: Vec::new(),
            disallowed: Disallowed::Unwrap,
            inline: Inline::Elements,
            classes: Vec::new(),
            allow_attributes: Vec::new(),
            remove_attributes: Vec::new(),
        }
    }
}

/// Cleans a document: takes out what programs leave, and sets its text by the house rules about text.
///
/// ```
/// use obblet::formats::html;
/// use obblet::refine::{Cleaning, clean};
///
/// let source = br#"<p style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">1.&nbsp;&nbsp;</span>Tides</p>"#;
/// let mut doc = html::read(source, &html::ReadOptions::default());
/// clean(&mut doc, &Cleaning::default());
/// assert_eq!(html::write(&doc, &html::Options::default()).html, "<ol>\n<li>Tides</li>\n</ol>\n");
/// ```
pub fn clean(doc: &mut Document, cleaning: &Cleaning) {
    let found_before = doc.findings.len();
    // What one pass makes of the work of another may be work for the first. Two rounds nearly always do.
    let mut seen = [None; PASSES.len()];
    for _ in 0..MOST_ROUNDS {
        let before = doc.changes();
        for (pass, seen) in PASSES.iter().zip(&mut seen) {
            // A pass that has seen the document as it is would find nothing.
            let now = Some(doc.changes());
            if std::mem::replace(seen, now) != now {
                pass(doc, cleaning);
            }
        }
        if doc.changes() == before {
            break;
        }
    }
    // What a pass only tells of, it tells in each round.
    let mut told = crate::fast_hash::HashSet::default();
    let mut at = 0;
    doc.findings.retain(|finding| {
        at += 1;
        at <= found_before || told.insert((finding.code.clone(), finding.message.clone(), finding.place))
    });
    lists::report_typed(doc, cleaning.lists);
    if cleaning.redirects {
        redirects::follow(doc);
    }
    let before = doc.changes();
    replace::replace(doc, &cleaning.replace, &cleaning.replace_patterns);
    if doc.changes() != before && cleaning.empty != When::Never {
        // What was replaced by nothing may have been all that something held.
        empty::drop_empty(doc);
    }
    capitals::set(doc, cleaning.capitals, &cleaning.protected_words);
    inline::set_bold(doc, cleaning.bold);
    spaces::set(doc, cleaning.stop_spaces, cleaning.tabs);
    typography::set(doc, cleaning.quotes, cleaning.dashes);
    scenes::set(doc, cleaning.scene_breaks, &cleaning.scene_mark);
}

/// So often do the passes about noise run.
const MOST_ROUNDS: usize = 5;

/// A pass about noise, as the settings want it.
type Pass = fn(&mut Document, &Cleaning);

/// The passes about noise in the order in which they work.
const PASSES: [Pass; 13] = [
    |doc, cleaning| revisions::resolve(doc, cleaning.revisions),
    |doc, cleaning| run(doc, cleaning.layout_tables, layout_tables::unwrap_tables),
    |doc, cleaning| run(doc, cleaning.tab_columns, tab_tables::make_tables),
    |doc, cleaning| lists::rebuild(doc, cleaning.lists),
    |doc, cleaning| run(doc, cleaning.empty.holds(doc), empty::drop_spacer_pictures),
    |doc, cleaning| run(doc, cleaning.empty.holds(doc), empty::drop_empty),
    |doc, cleaning| {
        // Names that programs make up are noise wherever they are.
        run(doc, cleaning.anchors != When::Never, |doc| anchors::drop_unused(doc, cleaning.anchors == When::Always));
    },
    |doc, cleaning| run(doc, cleaning.formatting.holds(doc), formatting::tidy),
    |doc, cleaning| run(doc, cleaning.white_space.holds(doc), white_space::tidy),
    |doc, cleaning| {
        let dressed = doc.layout_hints.producer != Producer::Plain;
        run(doc, cleaning.spacers && (dressed || may_have_spacers(doc)), |doc| {
            empty::drop_spacers(doc, dressed || doc.may_hold(KindSet::LINE_BREAKS))
        });
    },
    |doc, cleaning| run(doc, cleaning.anchors != When::Never, anchors::fold),
    |doc, cleaning| run(doc, cleaning.empty.holds(doc), empty::drop_empty),
    |doc, cleaning| {
        run(doc, cleaning.lone_paragraphs.holds(doc), lone_paragraphs::open);
        run(doc, cleaning.table_heads.holds(doc), table_heads::set);
    },
];

fn run(doc: &mut Document, wanted: bool, pass: impl FnOnce(&mut Document)) {
    if wanted {
        pass(doc);
    }
}

/// What a paragraph that only takes space is made of; a document without any of it has none.
fn may_have_spacers(doc: &Document) -> bool {
    doc.may_hold(KindSet::LINE_BREAKS) || memchr::memmem::find(doc.pool().as_bytes(), "\u{A0}".as_bytes()).is_some()
}

/// Makes a document what a target accepts: house rules about elements and attributes.
pub(crate) fn restrict(doc: &mut Document, cleaning: &Cleaning) {
    lines::set_breaks(doc, cleaning.line_breaks);
    lines::list_lines(doc, &cleaning.list_lines);
    elements::restrict(
        doc,
        &elements::Rules {
            allowed: &cleaning.allow_elements,
            disallowed: cleaning.disallowed,
            removed: &cleaning.remove_elements,
            unwrapped: &cleaning.unwrap_elements,
            renamed: &cleaning.rename_elements,
            bold: cleaning.bold,
        },
    );
    lines::join_paragraphs(doc, cleaning.paragraphs);
    let opened =
        [&cleaning.allow_elements, &cleaning.remove_elements, &cleaning.unwrap_elements].iter().any(|list| !list.is_empty());
    if opened && cleaning.empty != When::Never {
        // What went may have been all that something held.
        white_space::tidy(doc);
        empty::drop_empty(doc);
    }
    attributes::classes(doc, &cleaning.classes);
    inline::set_classes(doc, cleaning.inline);
    attributes::restrict(doc, &cleaning.allow_attributes, &cleaning.remove_attributes);
}
