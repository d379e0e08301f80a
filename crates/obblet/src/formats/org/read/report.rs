//! What the user should know: collected while a file is read, reported once for each sort.

use super::Reader;
use crate::document::Finding;
use crate::tally::Tally;

/// All that was noticed.
#[derive(Debug, Default)]
pub(super) struct Tallies {
    pub(super) excluded: Tally,
    pub(super) calls: Tally,
    pub(super) citations: Tally,
    pub(super) other_formats: Tally,
    pub(super) program_links: Tally,
    pub(super) includes: Tally,
    pub(super) macros: Tally,
    pub(super) missing_notes: Tally,
    pub(super) missing_targets: Tally,
    pub(super) unclosed: Tally,
    pub(super) deep_headings: Tally,
}

impl Reader<'_> {
    /// Reports all that was noticed.
    pub(super) fn report(&mut self) {
        let tallies = std::mem::take(&mut self.tallies);
        let lost = Finding::lost;
        let changed = Finding::changed;
        let advice = Finding::advice;
        for (tally, finding, hint) in [
            (tallies.includes, lost("org.include", "included files were not read"), "convert the file that it includes as well"),
            (tallies.calls, lost("org.call", "calls of code were left out"), "run the code and keep its results in the file"),
            (tallies.macros, lost("org.macro", "macros are not defined, or come to too much"), "define them with #+MACRO:"),
            (tallies.excluded, changed("org.excluded", "parts that the file excludes were left out"), ""),
            (tallies.other_formats, changed("org.other-format", "pieces for other formats were left out"), ""),
            (tallies.citations, changed("org.citation", "citations are shown by their keys"), ""),
            (tallies.program_links, changed("org.program-link", "links that only the program follows became text"), ""),
            (
                tallies.missing_targets,
                changed("org.missing-target", "links lead to what is not in the file"),
                "give the heading the property CUSTOM_ID, and link to that",
            ),
            (
                tallies.deep_headings,
                changed("org.heading-level", "headings below the sixth level became headings of the sixth"),
                "",
            ),
            (
                tallies.missing_notes,
                advice("org.missing-note", "notes are mentioned that are not defined"),
                "define each with [fn:label] in the first column",
            ),
            (tallies.unclosed, advice("org.unclosed", "blocks or drawers do not end"), "write the line that ends each"),
        ] {
            if tally.count() > 0 {
                let message = format!("{}: {}", finding.message, tally.count());
                let place = self.doc.source.place(self.doc.pool(), tally.first());
                self.doc.push_finding(Finding { message, ..finding }.at(place).hint(hint).losing(tally.words()));
            }
        }
    }
}
