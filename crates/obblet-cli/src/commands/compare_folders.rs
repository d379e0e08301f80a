//! `obblet compare` for two folders: each document with the one of the same name, whatever its format.

use crate::arguments::Compare;
use crate::failure::Failure;
use crate::messages::{self, shown};
use crate::{Outcome, report};
use anstyle::Style;
use obblet::Context;
use obblet::compare::{Comparison, compare};
use obblet::document::{Document, Weight};
use obblet::profile::Layers;
use obblet::publish::{DocumentLinks, Entry, documents};
use obblet::refine::links::redirect;
use std::collections::BTreeMap;
use std::io::Write;
use std::path::{Path, PathBuf};

/// So many documents that differ are shown; `--verbose` shows all.
const MOST_SHOWN: usize = 30;

/// Two documents that belong together.
struct Pair {
    first: PathBuf,
    second: PathBuf,
    comparison: Comparison,
}

impl Pair {
    /// The worst of its scores.
    fn share(&self) -> f64 {
        self.comparison.scores.iter().map(obblet::compare::Score::share).fold(1.0, f64::min)
    }
}

/// What came of comparing two folders.
#[derive(Default)]
struct Folders {
    pairs: Vec<Pair>,
    /// Documents that only one of the folders has.
    only: [Vec<PathBuf>; 2],
    failed: usize,
}

pub(super) fn run(arguments: &Compare, layers: &Layers, second: &Path) -> Result<Outcome, Failure> {
    let mut found = Folders::default();
    let (first_entries, second_entries) = (documents(&arguments.first)?, documents(second)?);
    let links = [DocumentLinks::new(&first_entries), DocumentLinks::new(&second_entries)];
    let pages = |entries: Vec<Entry>| -> BTreeMap<PathBuf, PathBuf> {
        entries.into_iter().map(|entry| (entry.output, entry.source)).collect()
    };
    let (first_pages, mut second_pages) = (pages(first_entries), pages(second_entries));
    // Links to documents are the same where they lead to the same page, whatever the formats.
    let read = |folder: &Path, path: &Path, links: &DocumentLinks| -> Result<Document, Failure> {
        let (mut doc, _) = super::comparison::read(arguments, layers, &folder.join(path))?;
        redirect(&mut doc, &links.from(path, &Context::default()));
        Ok(doc)
    };
    for (page, first) in first_pages {
        let Some(other) = second_pages.remove(&page) else {
            found.only[0].push(first);
            continue;
        };
        let both = read(&arguments.first, &first, &links[0]).and_then(|one| Ok((one, read(second, &other, &links[1])?)));
        match both {
            Ok((one, two)) => found.pairs.push(Pair { first, second: other, comparison: compare(&one, &two) }),
            Err(Failure(_, message)) => {
                messages::error(message);
                found.failed += 1;
            }
        }
    }
    found.only[1].extend(second_pages.into_values());
    found.pairs.sort_by(|a, b| a.share().total_cmp(&b.share()));
    if let Some(path) = &arguments.report {
        save(path, &found)?;
    }
    if !arguments.quiet && !arguments.report.as_deref().is_some_and(super::input::is_dash) {
        report::written(show(arguments, second, &found))?;
    }
    let is_same = found.only.iter().all(Vec::is_empty) && found.pairs.iter().all(|pair| pair.comparison.is_same());
    Ok(match found.failed {
        0 if is_same => Outcome::Done,
        0 => Outcome::Found,
        _ => Outcome::Failed,
    })
}

fn save(path: &Path, found: &Folders) -> Result<(), Failure> {
    let pairs: Vec<_> = found
        .pairs
        .iter()
        .map(|pair| {
            let comparison = &pair.comparison;
            let scores: Vec<_> = comparison.scores.iter().map(super::comparison::score_as_json).collect();
            serde_json::json!({
                "first": pair.first, "second": pair.second, "scores": scores, "differences": comparison.differences,
            })
        })
        .collect();
    let [first, second] = &found.only;
    report::save(path, &serde_json::json!({ "documents": pairs, "only_in_first": first, "only_in_second": second }))
}

fn show(arguments: &Compare, second: &Path, found: &Folders) -> std::io::Result<()> {
    let out = &mut anstream::stdout().lock();
    let (bold, dim) = (Style::new().bold(), Style::new().dimmed());
    let (first, second) = (messages::shown_path(&arguments.first), messages::shown_path(second));
    writeln!(out, "{bold}{first}{bold:#} and {bold}{second}{bold:#}")?;
    let same = found.pairs.iter().filter(|pair| pair.comparison.is_same()).count();
    let differing: Vec<&Pair> = found.pairs.iter().filter(|pair| !pair.comparison.is_same()).collect();
    writeln!(out, "{same} documents are the same, {} differ", differing.len())?;
    let most = if arguments.verbose { usize::MAX } else { MOST_SHOWN };
    if !differing.is_empty() {
        writeln!(out, "\n{dim}{:>11}  {:>12}{dim:#}", "least score", "differences")?;
    }
    for pair in differing.iter().take(most) {
        let share = pair.share();
        let style = messages::style(if share < 0.95 { Weight::Lost } else { Weight::Changed });
        // A difference is never rounded away.
        let percent = (share * 1000.0).floor() / 10.0;
        let (first, second) = (messages::shown_path(&pair.first), messages::shown_path(&pair.second));
        writeln!(
            out,
            "{style}{percent:>9.1} %{style:#}  {:>12}  {first}  {dim}{second}{dim:#}",
            pair.comparison.differences.len()
        )?;
    }
    if differing.len() > most {
        writeln!(out, "and {} more; --verbose shows them", differing.len() - most)?;
    }
    for (only, folder) in found.only.iter().zip([&first, &second]) {
        if !only.is_empty() {
            writeln!(out, "\n{bold}only in {folder}{bold:#}")?;
        }
        for path in only.iter().take(most) {
            writeln!(out, "  {}", shown(&path.display().to_string()))?;
        }
        if only.len() > most {
            writeln!(out, "  and {} more; --verbose shows them", only.len() - most)?;
        }
    }
    out.flush()
}
