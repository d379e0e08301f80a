//! What is said while a folder is published: a bar in a terminal, a line a file where there is none, lines of JSON in a log.

use crate::Outcome;
use crate::arguments::Publish;
use crate::commands::input::is_dash;
use crate::commands::inspect_folder;
use crate::failure::Failure;
use crate::messages::{self, shown};
use crate::report::Report;
use indicatif::{ProgressBar, ProgressDrawTarget, ProgressState, ProgressStyle};
use obblet::Error;
use obblet::document::{Finding, Weight};
use obblet::inspect::problems;
use obblet::publish::{Action, Progress, Step, Summary};
use serde::Serialize;
use std::fs::File;
use std::io::{IsTerminal, Write};
use std::path::{Path, PathBuf};

/// What gets a line of JSON for each thing that is done.
#[derive(Default)]
pub(crate) struct Log {
    out: Option<Box<dyn Write>>,
    /// Why something of it could not be written.
    lost: Option<std::io::Error>,
}

#[derive(Serialize)]
struct Line<'l> {
    action: &'l str,
    #[serde(skip_serializing_if = "str::is_empty")]
    source: &'l str,
    outputs: &'l [&'l str],
    #[serde(skip_serializing_if = "Option::is_none")]
    why: Option<String>,
    #[serde(skip_serializing_if = "Option::is_none")]
    error: Option<String>,
    findings: &'l [Finding],
    milliseconds: f64,
}

impl Log {
    /// Opens the log; what was in the file before is gone.
    pub(crate) fn open(path: Option<&Path>) -> Result<Self, String> {
        let Some(path) = path else { return Ok(Self::default()) };
        if is_dash(path) {
            return Ok(Self { out: Some(Box::new(std::io::stdout())), lost: None });
        }
        let file = File::create(path).map_err(|error| format!("{}: {}", path.display(), obblet::describe(&error)))?;
        Ok(Self { out: Some(Box::new(file)), lost: None })
    }

    fn write(&mut self, step: &Step<'_>) {
        let Some(out) = &mut self.out else { return };
        let line = Line {
            action: step.action.word(),
            source: step.source,
            outputs: &step.outputs,
            why: why(&step.action),
            error: step.error.map(ToString::to_string),
            findings: step.findings,
            milliseconds: step.time.as_secs_f64() * 1000.0,
        };
        let Ok(mut text) = serde_json::to_vec(&line) else { return };
        text.push(b'\n');
        // A log on a full disk is no reason to publish nothing; it is reported at the end.
        if let Err(error) = out.write_all(&text) {
            lost(&mut self.lost, error);
        }
    }

    /// Whether all of it was written.
    fn check(&mut self) -> Result<(), Failure> {
        let flushed = self.out.as_mut().map_or(Ok(()), Write::flush);
        if let Err(error) = flushed {
            lost(&mut self.lost, error);
        }
        check(self.lost.take(), "the log")
    }
}

/// Keeps the first error of an output. A reader that has seen enough is no failure.
fn lost(known: &mut Option<std::io::Error>, error: std::io::Error) {
    if error.kind() != std::io::ErrorKind::BrokenPipe {
        known.get_or_insert(error);
    }
}

fn check(lost: Option<std::io::Error>, what: &str) -> Result<(), Failure> {
    match lost {
        Some(error) => Err(Failure(Outcome::Failed, format!("{what}: {}", obblet::describe(&error)))),
        None => Ok(()),
    }
}

fn why(action: &Action) -> Option<String> {
    match action {
        Action::Changed(why) => Some(why.to_string()),
        Action::Skipped(why) => Some(why.clone()),
        _ => None,
    }
}

/// Tells a person.
pub(crate) struct Reporting<'t> {
    arguments: &'t Publish,
    log: &'t mut Log,
    bar: Option<ProgressBar>,
    report: Report,
    /// Whether lines are written for files that are converted, or only for those with something to say.
    lines: bool,
    /// Why something could not be written to standard output.
    lost: Option<std::io::Error>,
    /// Whether there was a finding that was asked for.
    met: bool,
    /// What is reported of documents that did not change, by document.
    again: Vec<(String, Vec<Finding>)>,
}

impl<'t> Reporting<'t> {
    pub(crate) fn new(arguments: &'t Publish, log: &'t mut Log) -> Self {
        let terminal = std::io::stderr().is_terminal();
        let quiet = arguments.talk.quiet;
        let bar = (terminal && !quiet && !arguments.dry_run).then(|| {
            let bar = ProgressBar::with_draw_target(Some(0), ProgressDrawTarget::stderr());
            if let Ok(style) = ProgressStyle::with_template("{pos} of {len} [{bar:30}] {rate} {wide_msg}") {
                let rate = |state: &ProgressState, out: &mut dyn std::fmt::Write| {
                    // A bar that can't be drawn is no reason to publish nothing.
                    let _ = write!(out, "{:.0}/s", state.per_sec());
                };
                bar.set_style(style.with_key("rate", rate).progress_chars("=- "));
            }
            bar
        });
        let lines = !quiet && (!terminal || arguments.talk.verbose) && !arguments.dry_run;
        Self { arguments, log, bar, report: Report::default(), lines, lost: None, met: false, again: Vec::new() }
    }

    /// Whether there was a finding that `--fail-on` asks for.
    pub(crate) const fn is_met(&self) -> bool {
        self.met
    }

    /// Writes something; the bar is out of its way meanwhile.
    fn write(&self, write: impl FnOnce()) {
        match &self.bar {
            Some(bar) => bar.suspend(write),
            None => write(),
        }
    }

    /// The end of a run.
    pub(crate) fn end(&mut self, summary: Result<Summary, Error>) -> Result<Summary, Error> {
        if let Some(bar) = self.bar.take() {
            bar.finish_and_clear();
        }
        self.report_again();
        summary
    }

    /// Writes the report where the user asked for it, and tells what was lost of what went elsewhere.
    pub(crate) fn save(self, path: Option<&PathBuf>) -> Result<(), Failure> {
        self.report.save(path)?;
        self.log.check()?;
        check(self.lost, "standard output")
    }

    /// What is still wrong with documents that did not change, by problem.
    fn report_again(&self) {
        let mut found = problems(self.again.iter().map(|(source, findings)| (source.as_str(), findings.as_slice())));
        if found.is_empty() {
            return;
        }
        // Links are what people publish again for.
        found.sort_by_key(|problem| !problem.code.starts_with("link."));
        messages::say("still found in documents that did not change:");
        let (most, most_places) = if self.arguments.talk.verbose { (usize::MAX, usize::MAX) } else { (12, 4) };
        for problem in found.iter().take(most) {
            let style = messages::style(problem.weight);
            messages::say(format_args!(
                "  {style}{}{style:#} [{}] {}: {}",
                problem.weight.word(),
                shown(&problem.code),
                shown(&problem.message),
                inspect_folder::places(&problem.places, most_places)
            ));
        }
        if found.len() > most {
            messages::say(format_args!("  and {} more problems; --verbose shows them", found.len() - most));
        }
    }

    /// What the run would do, on standard output.
    fn rehearse(&mut self, step: &Step<'_>) {
        let word = step.action.word();
        let outputs = if step.outputs.is_empty() { String::new() } else { format!(" -> {}", step.outputs.join(", ")) };
        let why = why(&step.action).map_or_else(String::new, |why| format!(" ({why})"));
        let mut out = std::io::stdout().lock();
        let line = match (step.source, &step.action) {
            ("", _) if step.outputs.is_empty() => return,
            ("", _) => format!("{word:<10}{}", step.outputs.join(", ")),
            (source, Action::Copied | Action::Skipped(_)) => format!("{word:<10}{source}{why}"),
            (source, _) => format!("{word:<10}{source}{outputs}{why}"),
        };
        if let Err(error) = writeln!(out, "{}", shown(&line)) {
            lost(&mut self.lost, error);
        }
    }

    fn line(&self, step: &Step<'_>) {
        let is_told = match &step.action {
            Action::New | Action::Changed(_) | Action::Removed | Action::Made | Action::Copied => self.lines,
            Action::Unchanged | Action::Left | Action::Skipped(_) | Action::Stays => self.arguments.talk.verbose && self.lines,
            Action::Failed => false,
        };
        if !is_told || (step.source.is_empty() && step.outputs.is_empty()) {
            return;
        }
        let word = step.action.word();
        let to = if step.outputs.is_empty() || matches!(step.action, Action::Copied) {
            String::new()
        } else if step.source.is_empty() {
            step.outputs.join(", ")
        } else {
            format!(" -> {}", step.outputs.join(", "))
        };
        let why = why(&step.action).map_or_else(String::new, |why| format!(" ({why})"));
        let line = format!("{word} {}{to}{why}", step.source);
        self.write(|| messages::say(shown(&line)));
    }
}

impl Progress for Reporting<'_> {
    fn begin(&mut self, documents: usize) {
        if let Some(bar) = &self.bar {
            bar.set_length(documents as u64);
        }
    }

    fn converted(&mut self, source: &str) {
        if let Some(bar) = &self.bar {
            bar.inc(1);
            bar.set_message(shown(source).into_owned());
        }
    }

    fn step(&mut self, step: &Step<'_>) {
        self.log.write(step);
        // What is reported of the folder as a whole is about no document.
        let wanted = self.arguments.talk.fail_on.filter(|_| !step.source.is_empty());
        self.met |= wanted.is_some_and(|wanted| step.findings.iter().any(|finding| wanted.is_met_by(finding)));
        let is_taken = |path: &Option<PathBuf>| path.as_deref().is_some_and(is_dash);
        if self.arguments.dry_run && !is_taken(&self.arguments.log) && !is_taken(&self.arguments.talk.report) {
            self.rehearse(step);
        }
        self.line(step);
        let name = if step.source.is_empty() { "the folder" } else { step.source };
        if let Some(error) = step.error {
            let message = error.to_string();
            let message = message.strip_prefix(&format!("{name}: ")).unwrap_or(&message);
            self.write(|| messages::error(format_args!("{name}: {message}")));
            self.report.add_failure(name, message.to_owned());
            return;
        }
        // Links that lead nowhere are what people publish again for; what is reported of the whole folder is little.
        let reported: Vec<Finding> = step
            .findings
            .iter()
            .filter(|finding| {
                self.arguments.talk.verbose
                    || step.source.is_empty()
                    || finding.weight != Weight::Advice
                    || finding.code.starts_with("link.")
            })
            .cloned()
            .collect();
        if matches!(step.action, Action::Unchanged | Action::Left) && !step.source.is_empty() {
            if !self.arguments.talk.quiet && !reported.is_empty() {
                self.again.push((name.to_owned(), reported));
            }
        } else if !self.arguments.talk.quiet && !reported.is_empty() {
            self.write(|| messages::all_findings(name, &reported, self.arguments.talk.verbose));
        }
        let is_asked = self.arguments.talk.report.is_some();
        if is_asked && (!step.findings.is_empty() || matches!(step.action, Action::New | Action::Changed(_) | Action::Unchanged))
        {
            let output = step.outputs.first().map(|output| self.arguments.output.join(output));
            self.report.add(name, output.as_deref(), step.findings.to_vec());
        }
    }
}
