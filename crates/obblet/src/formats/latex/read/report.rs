//! What the user should know: collected while a file is read, reported once for each sort.

use super::Reader;
use crate::document::Finding;
use crate::fast_hash::HashSet;
use crate::tally::Tally;

/// All that was noticed.
#[derive(Debug, Default)]
pub(super) struct Tallies {
    /// Labels of equations.
    pub(super) equations: HashSet<String>,
    pub(super) unknown: Tally,
    pub(super) environments: Tally,
    pub(super) drawings: Tally,
    pub(super) speaker_notes: Tally,
    pub(super) missing: Tally,
    pub(super) citations: Tally,
    pub(super) terms: Tally,
    /// Files of code that were not read.
    pub(super) files: Tally,
    pub(super) front: Tally,
    pub(super) pictures: Tally,
    pub(super) unclosed: Tally,
    /// Formulas of which a part was left out.
    pub(super) cut: Tally,
}

impl Reader<'_> {
    /// Reports all that was noticed.
    pub(super) fn report(&mut self) {
        if let Some(at) = self.input.unended {
            self.tallies.unclosed.add_apart(at, "{");
        }
        let tallies = std::mem::take(&mut self.tallies);
        if let Some(at) = self.macros.exceeded.or(self.input.exceeded) {
            let place = self.doc.source.place(self.doc.pool(), at);
            let message = "commands that the document defines come to too much text; some were not written out";
            self.doc.push_finding(Finding::lost("latex.too-much", message).at(place));
        }
        let (lost, changed, advice) = (Finding::lost, Finding::changed, Finding::advice);
        for (tally, finding, hint) in [
            (
                tallies.unknown,
                changed("latex.command", "commands are not known; the text of their arguments is kept, but no settings"),
                "",
            ),
            (
                tallies.environments,
                advice("latex.environment", "environments are not known; they became divisions with their names as classes"),
                "",
            ),
            (
                tallies.drawings,
                lost("latex.drawing", "drawings in TeX were left out"),
                "make a picture file of each, and show that with \\includegraphics",
            ),
            (tallies.speaker_notes, lost("latex.speaker-note", "notes for the speaker were left out"), ""),
            (tallies.missing, changed("latex.missing-label", "references lead to labels that are not there"), ""),
            (
                tallies.citations,
                changed("latex.citation", "citations are shown by their keys: there is no bibliography for them"),
                "",
            ),
            (tallies.terms, changed("latex.term", "terms and acronyms are shown by their keys: they are not defined"), ""),
            (
                tallies.files,
                lost("latex.include", "files that the document shows were not read"),
                "check their paths; they count from the folder of the main file",
            ),
            (
                tallies.front,
                lost(
                    "latex.front-matter",
                    "notes to the title or the authors, and what is said of the publication, were left out",
                ),
                "",
            ),
            (
                tallies.pictures,
                advice("latex.picture", "pictures are in formats that browsers do not show"),
                "convert them to SVG or PNG",
            ),
            (tallies.cut, lost("latex.too-much", "formulas are too large; their ends were left out"), ""),
            (tallies.unclosed, advice("latex.unclosed", "environments or groups do not end where they should"), ""),
        ] {
            if tally.count() > 0 {
                let mut words: Vec<String> = Vec::new();
                for word in tally.words().split(' ') {
                    if words.len() < 40 && !words.iter().any(|known| known == word) {
                        words.push(word.to_owned());
                    }
                }
                let message = format!("{}: {}", finding.message, tally.count());
                let place = self.doc.source.place(self.doc.pool(), tally.first());
                self.doc.push_finding(Finding { message, ..finding }.at(place).hint(hint).losing(words.join(" ")));
            }
        }
    }
}
