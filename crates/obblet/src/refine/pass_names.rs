//! The names of all passes, by which `clean.skip` switches them off.

/// The passes of this room.
pub(crate) const PASSES: &[&str] = &[
    "join-lines",
    "revisions",
    "layout-tables",
    "tab-columns",
    "lists",
    "spacer-images",
    "anchors",
    "languages",
    "heading-links",
    "image-alt",
    "titles",
    "controls",
    "outer-sections",
    "formatting",
    "promote-headings",
    "code-blocks",
    "white-space",
    "spacers",
    "anchor-ids",
    "lone-paragraphs",
    "table-heads",
    "empty",
    "typed-lists",
    #[cfg(feature = "url")]
    "redirects",
    "replace",
    "capitals",
    "bold",
    "spaces",
    "typography",
    "scene-breaks",
    "readable-ids",
    "line-breaks",
    "list-lines",
    "elements",
    "paragraphs",
    "classes",
    "inline",
    "attributes",
];

/// The steps that the pipeline adds to them.
pub(crate) const STEPS: [&str; 7] = ["embedded-html", "leave-out", "raw-html", "targets", "references", "links", "structure"];

/// Whether a pass has this name.
pub(super) fn is_pass(name: &str) -> bool {
    PASSES.iter().chain(&STEPS).any(|known| *known == name)
}
