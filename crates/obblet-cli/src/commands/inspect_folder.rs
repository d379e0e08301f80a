//! `obblet inspect` for a folder: one list of all that is wrong, by problem.

use super::input::is_dash;
use crate::arguments::Inspect;
use crate::failure::Failure;
use crate::messages::{self, shown};
use crate::{Outcome, report};
use anstyle::Style;
use obblet::document::{Place, Weight};
use obblet::inspect::{FolderInspection, Occurrence, Problem, inspect_folder};
use obblet::profile::Layers;
use obblet::publish::Options;
use std::io::Write;
use std::path::Path;

/// So many problems are shown, and so many places of each; `--verbose` shows all.
const MOST_PROBLEMS: usize = 25;
const MOST_PLACES: usize = 6;

pub(super) fn analyze(arguments: &Inspect, layers: Layers, folder: &Path) -> Result<FolderInspection, Failure> {
    let mut options = Options::new(layers);
    options.reads.extend(arguments.reads);
    Ok(inspect_folder(folder, options)?)
}

/// Whether something was found that `--fail-on` asks for.
pub(super) fn is_met(arguments: &Inspect, seen: &FolderInspection) -> bool {
    arguments.talk.fail_on.is_some_and(|wanted| seen.problems.iter().any(|problem| wanted.is_met(problem.weight, &problem.code)))
}

const BOLD: Style = Style::new().bold();
const DIM: Style = Style::new().dimmed();

pub(super) fn show(name: &str, seen: &FolderInspection, all: bool) -> std::io::Result<()> {
    let out = &mut anstream::stdout().lock();
    let documents = if seen.documents == 1 { "1 document".to_owned() } else { format!("{} documents", seen.documents) };
    writeln!(out, "{BOLD}{}{BOLD:#}  {documents}, {} without findings", shown(name), seen.clean)?;
    for failed in &seen.failed {
        let red = messages::style(Weight::Lost);
        writeln!(out, "  {red}failed{red:#}  {}: {}", shown(&failed.source), shown(&failed.error))?;
    }
    let most = if all { usize::MAX } else { MOST_PROBLEMS };
    let mut last = None;
    for problem in seen.problems.iter().take(most) {
        if last != Some(problem.weight) {
            last = Some(problem.weight);
            let style = messages::style(problem.weight);
            let counts: usize =
                seen.problems.iter().filter(|other| other.weight == problem.weight).map(|other| other.count).sum();
            writeln!(out, "\n{style}{}{style:#}  {counts}", problem.weight.word())?;
        }
        one(out, problem, if all { usize::MAX } else { MOST_PLACES })?;
    }
    if seen.problems.len() > most {
        writeln!(out, "\n{DIM}and {} more problems; --verbose shows them{DIM:#}", seen.problems.len() - most)?;
    }
    if all && !seen.skipped.is_empty() {
        writeln!(out, "\n{BOLD}Left out{BOLD:#}")?;
        for (path, why) in &seen.skipped {
            writeln!(out, "  {}  {DIM}{}{DIM:#}", shown(path), shown(why))?;
        }
    }
    out.flush()
}

fn one(out: &mut impl Write, problem: &Problem, most: usize) -> std::io::Result<()> {
    let times = match (problem.count, problem.documents) {
        (1, _) => String::new(),
        (count, 1) => format!(" ({count} times in one document)"),
        (count, documents) if count == documents => format!(" (in {documents} documents)"),
        (count, documents) => format!(" ({count} times in {documents} documents)"),
    };
    writeln!(out, "  {BOLD}{}{BOLD:#}  {}{times}", shown(&problem.code), shown(&problem.message))?;
    let places = places(&problem.places, most);
    if !places.is_empty() {
        writeln!(out, "      {places}")?;
    }
    if !problem.hint.is_empty() {
        writeln!(out, "      {DIM}{}{DIM:#}", shown(&problem.hint))?;
    }
    Ok(())
}

/// Where something is, up to so many places: each file once, with its lines or paragraphs.
pub(crate) fn places(found: &[Occurrence], most: usize) -> String {
    let mut files: Vec<(&str, Vec<String>)> = Vec::new();
    for found in found.iter().take(most) {
        let place = match found.place {
            Place::Unknown => String::new(),
            Place::Line { line, .. } => line.to_string(),
            place => format!("({place})"),
        };
        match files.last_mut().filter(|(source, _)| *source == found.source) {
            Some((_, places)) if places.contains(&place) => {}
            Some((_, places)) => places.push(place),
            None => files.push((&found.source, vec![place])),
        }
    }
    let mut all: Vec<String> = files
        .into_iter()
        .map(|(source, places)| {
            let source = if source.is_empty() { "the folder".into() } else { shown(source) };
            match places.first().map(String::as_str) {
                None | Some("") => source.into_owned(),
                Some(first) if first.starts_with('(') => format!("{source} {}", places.join(", ")),
                Some(_) => format!("{source}:{}", places.join(", ")),
            }
        })
        .collect();
    if found.len() > most {
        all.push(format!("and {} more", found.len() - most));
    }
    all.join("; ")
}

/// Writes what was found where the user asked for it: as a table where the file is one by its name, else as JSON.
pub(super) fn save(path: &Path, folders: &[(String, FolderInspection)]) -> Result<(), Failure> {
    let is_table = path.extension().is_some_and(|extension| extension.eq_ignore_ascii_case("csv"));
    if is_dash(path) || !is_table {
        let folders: Vec<_> =
            folders.iter().map(|(folder, seen)| serde_json::json!({ "folder": folder, "inspection": seen })).collect();
        return report::save(path, &serde_json::json!({ "folders": folders }));
    }
    let fail = |error: csv::Error| Failure(Outcome::Failed, error.to_string());
    let mut table = csv::Writer::from_writer(Vec::new());
    table.write_record(["weight", "code", "document", "line or paragraph", "message", "hint"]).map_err(fail)?;
    for problem in folders.iter().flat_map(|(_, seen)| &seen.problems) {
        for found in &problem.places {
            let place = match found.place {
                Place::Unknown => String::new(),
                Place::Line { line, .. } => line.to_string(),
                Place::Paragraph { paragraph, .. } => paragraph.to_string(),
            };
            let cells = [problem.weight.word(), &problem.code, &found.source, &place, &found.message, &problem.hint];
            table.write_record(cells.map(inert)).map_err(fail)?;
        }
    }
    let bytes = table.into_inner().map_err(|error| Failure(Outcome::Failed, error.to_string()))?;
    report::write_file(path, &bytes)
}

/// Text that no spreadsheet takes for a formula.
fn inert(text: &str) -> String {
    if text.starts_with(['=', '+', '-', '@', '\t', '\r']) { format!("'{text}") } else { text.to_owned() }
}
