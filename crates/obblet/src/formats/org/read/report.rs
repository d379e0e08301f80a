//! What the user should know: collected while a file is read, reported once for each sort.

use super::Reader;
use super::include::Failure;
use crate::document::{Finding, Weight};
use crate::tally::Tally;

/// All that was noticed.
#[derive(Debug, Default)]
pub(super) struct Tallies {
    pub(super) captions: Tally,
    pub(super) excluded: Tally,
    pub(super) calls: Tally,
    pub(super) citations: Tally,
    pub(super) other_formats: Tally,
    pub(super) program_links: Tally,
    pub(super) macros: Tally,
    pub(super) settings: Tally,
    pub(super) latex: Tally,
    pub(super) latex_lost: Tally,
    pub(super) missing_notes: Tally,
    pub(super) missing_targets: Tally,
    pub(super) unclosed: Tally,
    pub(super) deep_headings: Tally,
}

/// So many files that were not read are named, one by one.
const MOST_NAMED: usize = 20;

impl Reader<'_> {
    /// Reports files that are included and were not read.
    pub(super) fn report_failures(&mut self, failures: &[Failure]) {
        for Failure { place, path, why } in failures.iter().take(MOST_NAMED) {
            let hint = match *why {
                "it is an address" => "save it in the folder of the source, and name that file",
                "it was not found" => "check its path; it counts from the folder of the file that names it",
                "it is outside of the folder" => "copy it into the folder of the source",
                _ => "",
            };
            let message = format!("file {path} was not included: {why}");
            self.doc.push_finding(Finding::lost("org.include", message).hint(hint).about(path).at(*place));
        }
        if let Some(Failure { place, .. }) = failures.get(MOST_NAMED) {
            let message = format!("more files were not included: {}", failures.len() - MOST_NAMED);
            self.doc.push_finding(Finding::lost("org.include", message).at(*place));
        }
    }

    /// Reports all that was noticed.
    pub(super) fn report(&mut self) {
        let tallies = std::mem::take(&mut self.tallies);
        if tallies.settings.count() > 0 {
            let words = tallies.settings.words();
            let mut named: Vec<&str> = Vec::new();
            for word in words.split(' ') {
                if named.len() <= MOST_NAMED && !named.contains(&word) {
                    named.push(word);
                }
            }
            let more = if named.len() > MOST_NAMED { " ..." } else { "" };
            named.truncate(MOST_NAMED);
            let place = self.doc.source.place(self.doc.pool(), tallies.settings.first());
            let message = format!("settings of the file have no effect: {}{more}", named.join(" "));
            self.doc.push_finding(Finding::advice("org.setting", message).at(place));
        }
        let (lost, changed, advice) = (Weight::Lost, Weight::Changed, Weight::Advice);
        for (tally, weight, code, what, hint) in [
            (tallies.calls, lost, "org.call", "calls of code were left out", "run the code and keep its results in the file"),
            (
                tallies.macros,
                lost,
                "org.macro",
                "macros are not defined, need a clock, or come to too much",
                "define them with #+MACRO:",
            ),
            (tallies.latex_lost, lost, "org.latex", "pieces of LaTeX lost something", "convert them by themselves to see what"),
            (tallies.latex, changed, "org.latex", "pieces of LaTeX changed", "convert them by themselves to see how"),
            (tallies.captions, changed, "org.caption", "captions of what can have none were left out", "write them as text"),
            (tallies.excluded, changed, "org.excluded", "parts that the file excludes were left out", ""),
            (tallies.other_formats, changed, "org.other-format", "pieces for other formats were left out", ""),
            (tallies.citations, changed, "org.citation", "citations are shown by their keys", ""),
            (tallies.program_links, changed, "org.program-link", "links that only the program follows became text", ""),
            (
                tallies.missing_targets,
                changed,
                "org.missing-target",
                "links lead to what is not in the file",
                "give the heading the property CUSTOM_ID, and link to that",
            ),
            (
                tallies.deep_headings,
                changed,
                "org.heading-level",
                "headings below the sixth level became headings of the sixth",
                "",
            ),
            (
                tallies.missing_notes,
                advice,
                "org.missing-note",
                "notes are mentioned that are not defined",
                "define each with [fn:label] in the first column",
            ),
            (tallies.unclosed, advice, "org.unclosed", "blocks or drawers do not end", "write the line that ends each"),
        ] {
            if tally.count() > 0 {
                let place = self.doc.source.place(self.doc.pool(), tally.first());
                let finding = Finding::new(weight, code, format!("{what}: {}", tally.count()));
                self.doc.push_finding(finding.at(place).hint(hint).losing(tally.words()));
            }
        }
    }
}
