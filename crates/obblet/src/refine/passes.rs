//! The passes, in the order in which they run, each with its name.

use super::lists::Lists;
#[cfg(feature = "url")]
use super::redirects;
use super::revisions::Revisions;
use super::rules::capitals::Capitals;
use super::rules::inline::{Bold, Inline};
use super::rules::lines;
use super::rules::lines::{LineBreaks, Paragraphs};
use super::rules::scenes::SceneBreaks;
use super::rules::spaces::{StopSpaces, Tabs};
use super::rules::{attributes, capitals, elements, inline, replace, scenes, spaces};
use super::settings::{Cleaning, When};
use super::typography::{Dashes, Quotes};
use super::{
    anchors, code_blocks, empty, formatting, heading_links, image_alt, join_lines, languages, layout_tables, link_noise, lists,
    lone_paragraphs, outer_sections, promote_headings, readable_ids, revisions, tab_tables, table_heads, typography, white_space,
};
use crate::document::{Document, KindSet, Producer};
use crate::links::ExternalLinks;

/// A named step from a document to a document.
#[derive(Clone, Copy, Debug)]
pub struct Pass {
    /// Its name, by which `clean.skip` switches it off.
    pub name: &'static str,
    /// What it does.
    pub meaning: &'static str,
    /// It finds nothing in a document without one of these kinds.
    needs: Option<KindSet>,
    /// Whether the settings ask for it.
    wanted: fn(&Document, &Cleaning) -> bool,
    run: fn(&mut Document, &Cleaning, &dyn ExternalLinks),
}

impl Pass {
    /// Runs the pass where the settings ask for it and the document has something for it.
    pub fn run(&self, doc: &mut Document, cleaning: &Cleaning, external: &dyn ExternalLinks) {
        if self.needs.is_none_or(|kinds| doc.may_hold(kinds)) && cleaning.runs(self.name) && (self.wanted)(doc, cleaning) {
            (self.run)(doc, cleaning, external);
        }
    }

    /// Whether the settings ask for it, in a document that has something for it.
    pub(crate) fn is_wanted(&self, doc: &Document, cleaning: &Cleaning) -> bool {
        cleaning.runs(self.name) && (self.wanted)(doc, cleaning)
    }
}

const ALWAYS: fn(&Document, &Cleaning) -> bool = |_, _| true;

/// Passes that take out what programs leave. They run in rounds, until none of them finds anything more.
pub static NOISE: [Pass; 22] = [
    Pass {
        name: "revisions",
        meaning: "accepts, rejects or keeps insertions and deletions",
        needs: Some(KindSet::REVISIONS),
        wanted: |_, cleaning| cleaning.revisions != Revisions::Keep,
        run: |doc, cleaning, _| revisions::resolve(doc, cleaning.revisions),
    },
    Pass {
        name: "layout-tables",
        meaning: "unwraps tables that are used for layout",
        needs: Some(KindSet::TABLES),
        wanted: |_, cleaning| cleaning.noise.layout_tables,
        run: |doc, _, _| layout_tables::unwrap_tables(doc),
    },
    Pass {
        name: "tab-columns",
        meaning: "makes tables of paragraphs that are aligned with tabs",
        needs: None,
        wanted: |_, cleaning| cleaning.noise.tab_columns,
        run: |doc, _, _| tab_tables::make_tables(doc),
    },
    Pass {
        name: "lists",
        meaning: "makes lists of paragraphs that are marked as items, or begin with typed bullets or numbers",
        needs: None,
        wanted: |_, cleaning| cleaning.noise.lists != Lists::Keep,
        run: |doc, cleaning, _| lists::rebuild(doc, cleaning.noise.lists),
    },
    Pass {
        name: "spacer-images",
        meaning: "removes single-pixel images",
        needs: Some(KindSet::PICTURES),
        wanted: |doc, cleaning| cleaning.noise.empty.holds(doc),
        run: |doc, _, _| empty::drop_spacer_pictures(doc),
    },
    EMPTY,
    Pass {
        name: "anchors",
        meaning: "removes anchors that nothing links to",
        needs: None,
        // Names that programs make up are noise wherever they are.
        wanted: |_, cleaning| cleaning.noise.anchors != When::Never,
        run: |doc, cleaning, external| anchors::drop_unused(doc, cleaning.noise.anchors == When::Always, external),
    },
    Pass {
        name: "languages",
        meaning: "makes the language of most of the text that of the document, and moves others to the largest elements in them",
        needs: None,
        wanted: |doc, cleaning| cleaning.noise.languages.holds(doc),
        run: |doc, _, _| languages::set(doc),
    },
    Pass {
        name: "heading-links",
        meaning: "removes signs beside headings that link to them, and opens links of headings to themselves",
        needs: Some(KindSet::LINKS),
        wanted: |_, cleaning| cleaning.noise.names.heading_links,
        run: |doc, _, _| heading_links::open(doc),
    },
    Pass {
        name: "image-alt",
        meaning: "removes alt text that is the name of a file",
        needs: Some(KindSet::PICTURES),
        wanted: |_, cleaning| cleaning.noise.names.image_alt,
        run: |doc, _, _| image_alt::drop_file_names(doc),
    },
    Pass {
        name: "titles",
        meaning: "removes titles of links and images that repeat their text",
        needs: Some(KindSet::LINKS.and(KindSet::PICTURES)),
        wanted: |_, cleaning| cleaning.noise.page_parts.titles,
        run: |doc, _, _| link_noise::drop_titles(doc),
    },
    Pass {
        name: "controls",
        meaning: "removes links that lead nowhere and say copy, show, hide or print",
        needs: Some(KindSet::LINKS),
        wanted: |_, cleaning| cleaning.noise.page_parts.controls,
        run: |doc, _, _| link_noise::drop_controls(doc),
    },
    Pass {
        name: "outer-sections",
        meaning: "opens sections that hold all of the document and say nothing else",
        needs: None,
        wanted: |_, cleaning| cleaning.noise.page_parts.outer_sections,
        run: |doc, _, _| outer_sections::open(doc),
    },
    Pass {
        name: "formatting",
        meaning: "joins runs of the same inline formatting",
        needs: None,
        wanted: |doc, cleaning| cleaning.noise.formatting.holds(doc),
        run: |doc, _, _| formatting::tidy(doc),
    },
    Pass {
        name: "code-blocks",
        meaning: "makes code blocks of paragraphs that follow each other in a fixed-width font",
        needs: Some(KindSet::CODE),
        wanted: |doc, cleaning| cleaning.noise.code_blocks.holds(doc),
        run: |doc, _, _| code_blocks::make(doc),
    },
    Pass {
        name: "white-space",
        meaning: "collapses runs of spaces and removes characters without width",
        needs: None,
        wanted: |doc, cleaning| cleaning.noise.white_space.holds(doc),
        run: |doc, _, _| white_space::tidy(doc),
    },
    Pass {
        name: "spacers",
        meaning: "removes empty paragraphs and line breaks at the ends of paragraphs",
        needs: None,
        wanted: |doc, cleaning| cleaning.noise.spacers && (doc.layout_hints.producer != Producer::Plain || may_have_spacers(doc)),
        run: |doc, _, _| {
            let styled = doc.layout_hints.producer != Producer::Plain;
            empty::drop_spacers(doc, styled || doc.may_hold(KindSet::LINE_BREAKS));
        },
    },
    Pass {
        name: "anchor-ids",
        meaning: "makes anchors ids of the elements that they stand in",
        needs: Some(KindSet::PLACES),
        wanted: |_, cleaning| cleaning.noise.anchors != When::Never,
        run: |doc, _, _| anchors::fold(doc),
    },
    EMPTY,
    Pass {
        name: "lone-paragraphs",
        meaning: "unwraps the only paragraph of a cell or of each item of a list",
        needs: Some(KindSet::TABLES.and(KindSet::LISTS)),
        wanted: |doc, cleaning| cleaning.noise.lone_paragraphs.holds(doc),
        run: |doc, _, _| lone_paragraphs::open(doc),
    },
    Pass {
        name: "table-heads",
        meaning: "makes a first row in bold the head of its table",
        needs: Some(KindSet::TABLES),
        wanted: |doc, cleaning| cleaning.noise.table_heads.holds(doc),
        run: |doc, _, _| table_heads::set(doc),
    },
    Pass {
        name: "promote-headings",
        meaning: "makes headings of paragraphs that look like some, and paragraphs of headings that are whole ones",
        needs: None,
        wanted: |doc, cleaning| doc.layout_hints.producer != Producer::Plain || cleaning.noise.promote_headings == When::Always,
        run: |doc, cleaning, _| promote_headings::set(doc, cleaning.noise.promote_headings),
    },
];

const EMPTY: Pass = Pass {
    name: "empty",
    meaning: "removes elements that hold nothing",
    needs: None,
    wanted: |doc, cleaning| cleaning.noise.empty.holds(doc),
    run: |doc, _, _| empty::drop_empty(doc),
};

/// What runs before all others, once: lines are paragraphs for them.
pub static LINES: [Pass; 1] = [Pass {
    name: "join-lines",
    meaning: "joins the lines of a paragraph as its source wrapped them",
    needs: None,
    wanted: |_, cleaning| cleaning.text.join_lines,
    run: |doc, _, _| join_lines::join(doc),
}];

/// House rules about text, for all formats.
pub static TEXT: &[Pass] = &[
    Pass {
        name: "typed-lists",
        meaning: "reports paragraphs that begin with typed bullets or numbers and stay paragraphs",
        needs: None,
        wanted: ALWAYS,
        run: |doc, cleaning, _| lists::report_typed(doc, cleaning.noise.lists),
    },
    #[cfg(feature = "url")]
    Pass {
        name: "redirects",
        meaning: "removes tracking redirects and tracking parameters from links",
        needs: Some(KindSet::LINKS),
        wanted: |_, cleaning| cleaning.redirects,
        run: |doc, _, _| redirects::follow(doc),
    },
    Pass {
        name: "replace",
        meaning: "replaces texts",
        needs: None,
        wanted: |_, cleaning| !cleaning.text.replace.is_empty() || !cleaning.text.replace_patterns.is_empty(),
        run: |doc, cleaning, _| {
            let before = doc.changes();
            replace::replace(doc, &cleaning.text.replace, &cleaning.text.replace_patterns);
            if doc.changes() != before && cleaning.noise.empty != When::Never {
                // What was replaced by nothing may have been all that something held.
                empty::drop_empty(doc);
            }
        },
    },
    Pass {
        name: "capitals",
        meaning: "changes passages in capitals to the case of titles or sentences",
        needs: None,
        wanted: |_, cleaning| cleaning.text.capitals != Capitals::Keep,
        run: |doc, cleaning, _| capitals::set(doc, cleaning.text.capitals, &cleaning.text.protected_words),
    },
    Pass {
        name: "bold",
        meaning: "changes bold text to plain text or capitals",
        needs: None,
        wanted: |_, cleaning| cleaning.text.bold != Bold::Keep,
        run: |doc, cleaning, _| inline::set_bold(doc, cleaning.text.bold),
    },
    Pass {
        name: "spaces",
        meaning: "sets the spaces between sentences, and replaces tabs",
        needs: None,
        wanted: |_, cleaning| cleaning.text.stop_spaces != StopSpaces::Keep || cleaning.text.tabs != Tabs::Keep,
        run: |doc, cleaning, _| spaces::set(doc, cleaning.text.stop_spaces, cleaning.text.tabs),
    },
    Pass {
        name: "typography",
        meaning: "sets quotation marks, dashes and ellipses",
        needs: None,
        wanted: |_, cleaning| cleaning.text.quotes != Quotes::Keep || cleaning.text.dashes != Dashes::Keep,
        run: |doc, cleaning, _| typography::set(doc, cleaning.text.quotes, cleaning.text.dashes),
    },
    Pass {
        name: "scene-breaks",
        meaning: "makes thematic breaks, or a mark, of lines of stars and their like",
        needs: None,
        wanted: |_, cleaning| cleaning.text.scene_breaks != SceneBreaks::Keep,
        run: |doc, cleaning, _| scenes::set(doc, cleaning.text.scene_breaks, &cleaning.text.scene_mark),
    },
    Pass {
        name: "readable-ids",
        meaning: "gives places with ids that a program made up readable ones",
        needs: None,
        wanted: |_, cleaning| cleaning.noise.names.readable_ids,
        run: |doc, _, external| readable_ids::rename(doc, external),
    },
];

/// House rules about elements and attributes: what a target accepts.
pub static ELEMENTS: [Pass; 7] = [
    Pass {
        name: "line-breaks",
        meaning: "makes spaces or paragraphs of line breaks",
        needs: None,
        wanted: |_, cleaning| cleaning.elements.line_breaks != LineBreaks::Keep,
        run: |doc, cleaning, _| lines::set_breaks(doc, cleaning.elements.line_breaks),
    },
    Pass {
        name: "list-lines",
        meaning: "makes lines with a mark of lists",
        needs: None,
        wanted: |_, cleaning| !cleaning.elements.list_lines.is_empty(),
        run: |doc, cleaning, _| lines::list_lines(doc, &cleaning.elements.list_lines),
    },
    Pass {
        name: "elements",
        meaning: "removes, unwraps and renames elements",
        needs: None,
        wanted: |_, cleaning| cleaning.elements.has_rules(),
        run: |doc, cleaning, _| {
            let rules = &cleaning.elements;
            let rules = elements::Rules {
                allowed: &rules.allow_elements,
                disallowed: rules.disallowed,
                removed: &rules.remove_elements,
                unwrapped: &rules.unwrap_elements,
                renamed: &rules.rename_elements,
                bold: cleaning.text.bold,
            };
            elements::restrict(doc, &rules);
        },
    },
    Pass {
        name: "paragraphs",
        meaning: "makes text with line breaks of paragraphs, and removes what the element rules emptied",
        needs: None,
        wanted: |_, cleaning| cleaning.elements.paragraphs != Paragraphs::Keep || cleaning.elements.has_rules(),
        run: |doc, cleaning, _| {
            let rules = &cleaning.elements;
            lines::join_paragraphs(doc, rules.paragraphs);
            let lists = [&rules.allow_elements, &rules.remove_elements, &rules.unwrap_elements];
            if lists.iter().any(|list| !list.is_empty()) && cleaning.noise.empty != When::Never {
                white_space::tidy(doc);
                empty::drop_empty(doc);
            }
        },
    },
    Pass {
        name: "classes",
        meaning: "keeps, renames and removes classes",
        needs: None,
        wanted: |_, cleaning| !cleaning.elements.classes.is_empty(),
        run: |doc, cleaning, _| attributes::classes(doc, &cleaning.elements.classes),
    },
    Pass {
        name: "inline",
        meaning: "writes inline formatting as spans with classes",
        needs: None,
        wanted: |_, cleaning| cleaning.elements.inline != Inline::Elements,
        run: |doc, cleaning, _| inline::set_classes(doc, cleaning.elements.inline),
    },
    Pass {
        name: "attributes",
        meaning: "removes attributes",
        needs: None,
        wanted: |_, cleaning| !cleaning.elements.allow_attributes.is_empty() || !cleaning.elements.remove_attributes.is_empty(),
        run: |doc, cleaning, _| {
            attributes::restrict(doc, &cleaning.elements.allow_attributes, &cleaning.elements.remove_attributes);
        },
    },
];

/// What a paragraph that only takes space is made of; a document without any of it has none.
fn may_have_spacers(doc: &Document) -> bool {
    doc.may_hold(KindSet::LINE_BREAKS) || memchr::memmem::find(doc.pool().as_bytes(), "\u{A0}".as_bytes()).is_some()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::refine::pass_names::{PASSES, STEPS};

    #[test]
    fn passes_have_the_names_by_which_they_are_switched() {
        let mut all: Vec<&str> = LINES.iter().chain(&NOISE).chain(TEXT).chain(&ELEMENTS).map(|pass| pass.name).collect();
        all.dedup();
        let mut known: Vec<&str> = PASSES.to_vec();
        all.sort_unstable();
        known.sort_unstable();
        all.dedup();
        assert_eq!(all, known);
        assert!(STEPS.iter().all(|step| !PASSES.contains(step)));
    }
}
