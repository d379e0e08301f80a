//! Findings for programs.

use crate::Outcome;
use crate::arguments::FailOn;
use crate::commands::input::is_dash;
use crate::failure::Failure;
use obblet::document::{Finding, Weight};
use serde::Serialize;
use std::io::{IsTerminal, Write};
use std::path::{Path, PathBuf};

/// What a command did.
#[derive(Debug, Default, Serialize)]
pub(crate) struct Report {
    counts: Counts,
    documents: Vec<Document>,
}

#[derive(Debug, Default, Serialize)]
struct Counts {
    documents: usize,
    failed: usize,
    lost: usize,
    changed: usize,
    advice: usize,
}

#[derive(Debug, Serialize)]
struct Document {
    source: String,
    #[serde(skip_serializing_if = "Option::is_none")]
    output: Option<String>,
    #[serde(skip_serializing_if = "Option::is_none")]
    error: Option<String>,
    findings: Vec<Finding>,
}

impl Report {
    /// Adds a document that was converted.
    pub(crate) fn add(&mut self, source: &str, output: Option<&Path>, findings: Vec<Finding>) {
        self.counts.documents += 1;
        for finding in &findings {
            match finding.weight {
                Weight::Lost => self.counts.lost += 1,
                Weight::Changed => self.counts.changed += 1,
                Weight::Advice => self.counts.advice += 1,
            }
        }
        let output = output.map(|path| path.display().to_string());
        self.documents.push(Document { source: source.to_owned(), output, error: None, findings });
    }

    /// Adds a document that could not be converted.
    pub(crate) fn add_failure(&mut self, source: &str, error: String) {
        self.counts.documents += 1;
        self.counts.failed += 1;
        self.documents.push(Document { source: source.to_owned(), output: None, error: Some(error), findings: Vec::new() });
    }

    /// Whether a document could not be converted.
    pub(crate) const fn has_failures(&self) -> bool {
        self.counts.failed > 0
    }

    /// Whether there is a finding that was asked for.
    pub(crate) fn meets(&self, wanted: FailOn) -> bool {
        self.documents.iter().flat_map(|document| &document.findings).any(|finding| wanted.is_met_by(finding))
    }

    /// Writes the report where the user asked for it.
    pub(crate) fn save(&self, path: Option<&PathBuf>) -> Result<(), Failure> {
        path.map_or(Ok(()), |path| save(path, self))
    }
}

/// Writes JSON to a file, or to standard output for `-`.
pub(crate) fn save(path: &Path, report: &impl Serialize) -> Result<(), Failure> {
    let fail = |message: String| Failure(Outcome::Failed, message);
    let mut text = serde_json::to_string_pretty(report).map_err(|error| fail(error.to_string()))?;
    text.push('\n');
    if is_dash(path) {
        return to_standard_output(text.as_bytes());
    }
    write_file(path, text.as_bytes())
}

/// Writes a file that the user named.
pub(crate) fn write_file(path: &Path, bytes: &[u8]) -> Result<(), Failure> {
    obblet::files::write_whole(path, bytes)
        .map_err(|error| Failure(Outcome::Failed, format!("can't write {}: {}", path.display(), obblet::describe(&error))))
}

/// Writes to standard output.
pub(crate) fn to_standard_output(bytes: &[u8]) -> Result<(), Failure> {
    // A package is no text.
    if bytes.starts_with(b"PK\x03\x04") && std::io::stdout().is_terminal() {
        return Err(crate::failure::misused("a Word document can't be shown in a terminal; name a file with --output"));
    }
    let mut out = std::io::stdout().lock();
    written(out.write_all(bytes).and_then(|()| out.flush()))
}

/// What came of writing to standard output. A reader that has seen enough is no failure.
pub(crate) fn written(outcome: std::io::Result<()>) -> Result<(), Failure> {
    match outcome {
        Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => {
            Err(Failure(Outcome::Failed, format!("standard output: {}", obblet::describe(&error))))
        }
        _ => Ok(()),
    }
}
