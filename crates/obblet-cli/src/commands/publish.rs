//! `obblet publish`

use super::input::is_dash;
use crate::arguments::Publish;
use crate::failure::{Failure, misused};
use crate::progress::{Log, Reporting};
use crate::{Outcome, messages, watch};
use obblet::Format;
use obblet::document::Weight;
use obblet::publish::{Options, Plan, Summary, archive};
use std::time::{Duration, Instant};

pub(crate) fn run(arguments: &Publish) -> Outcome {
    let to_standard_output = |path: &Option<std::path::PathBuf>| path.as_deref().is_some_and(is_dash);
    if to_standard_output(&arguments.log) && to_standard_output(&arguments.talk.report) {
        return messages::fail(Outcome::Misused, "the log and the report can't both go to standard output; name a file for one");
    }
    let mut log = match Log::open(arguments.log.as_deref()) {
        Ok(log) => log,
        Err(message) => return messages::fail(Outcome::Failed, message),
    };
    if arguments.watch {
        return watch::run(&arguments.source, &arguments.output, arguments.talk.quiet, || {
            // What went wrong is reported; the next change may mend it.
            if let Err(Failure(_, message)) = once(arguments, &mut log) {
                messages::error(message);
            }
        });
    }
    match once(arguments, &mut log) {
        Ok(outcome) => outcome,
        Err(Failure(outcome, message)) => messages::fail(outcome, message),
    }
}

/// Publishes the folder once.
pub(crate) fn once(arguments: &Publish, log: &mut Log) -> Result<Outcome, Failure> {
    let begun = Instant::now();
    let options = options(arguments)?;
    let is_slice = options.slice.is_some();
    let plan = Plan::new(&arguments.source, &arguments.output, options)?;
    let mut telling = Reporting::new(arguments, log);
    let summary = if arguments.dry_run { plan.rehearse(&mut telling) } else { plan.run(&mut telling) };
    let summary = telling.end(summary)?;
    if !arguments.talk.quiet {
        say(arguments, &summary, begun.elapsed());
    }
    if arguments.talk.verbose {
        super::report_settings(plan.layers());
    }
    let found = telling.is_met();
    telling.save(arguments.talk.report.as_ref())?;
    if let Some(path) = &arguments.archive
        && !arguments.dry_run
        && !is_slice
    {
        let count = archive(&arguments.output, path)?;
        if !arguments.talk.quiet {
            messages::say(format_args!("{}: {count} files", messages::shown_path(path)));
        }
    }
    Ok(match summary {
        Summary { failed: 1.., .. } => Outcome::Failed,
        _ if found => Outcome::Found,
        _ => Outcome::Done,
    })
}

fn options(arguments: &Publish) -> Result<Options, Failure> {
    let yes = "true".to_owned();
    let on = |flag: bool| flag.then_some(&yes);
    let more = [
        ("publish.site", on(arguments.site)),
        ("publish.binder", on(arguments.binder)),
        ("publish.agenda", on(arguments.agenda)),
    ];
    let layers = super::layers(&arguments.settings, &more)?;
    let mut options = Options::new(layers);
    options.writes = arguments.writes.unwrap_or(options.writes);
    let is_of_pages = arguments.site || arguments.binder || arguments.agenda;
    if is_of_pages && options.writes != Format::Html {
        return Err(misused(format!("--site, --binder and --agenda go with --writes html, not with {}", options.writes.name())));
    }
    options.reads.clone_from(&arguments.reads);
    options.only.clone_from(&arguments.only);
    (options.force, options.prune, options.jobs) = (arguments.force, arguments.prune, arguments.jobs);
    options.slice = arguments.slice.as_deref().map(slice).transpose()?;
    if let Some(join) = &arguments.join {
        options.join = if join.is_empty() { vec![arguments.output.clone()] } else { join.clone() };
    }
    options.clock = Some(now);
    Ok(options)
}

/// What time it is, from any moment on.
fn now() -> Duration {
    std::time::SystemTime::now().duration_since(std::time::UNIX_EPOCH).unwrap_or_default()
}

/// The slice that `2/8` names.
fn slice(text: &str) -> Result<(u32, u32), Failure> {
    let numbers =
        text.split_once('/').and_then(|(slice, slices)| Some((slice.trim().parse().ok()?, slices.trim().parse().ok()?)));
    numbers
        .filter(|&(slice, slices): &(u32, u32)| (1..=slices).contains(&slice) && slices <= 10_000)
        .ok_or_else(|| misused(format!("{text} is no slice; write which and of how many, as in 2/8")))
}

/// The last words of a run.
fn say(arguments: &Publish, summary: &Summary, time: Duration) {
    let parts = [
        (summary.converted, if arguments.dry_run { "to convert" } else { "converted" }),
        (summary.unchanged, "unchanged"),
        (summary.left, "left"),
        (summary.skipped, "skipped"),
        (summary.failed, "failed"),
        (summary.copied, if arguments.dry_run { "to copy" } else { "copied" }),
        (summary.made, if arguments.dry_run { "to make" } else { "made" }),
        (summary.removed, if arguments.dry_run { "to remove" } else { "removed" }),
        (summary.stays, "without a source (--prune removes them)"),
        (summary.edited, "edited since and left (--force overwrites them)"),
    ];
    let parts: Vec<String> =
        parts.iter().filter(|(count, _)| *count > 0).map(|(count, word)| format!("{count} {word}")).collect();
    let parts = if parts.is_empty() { "nothing to publish".to_owned() } else { parts.join(", ") };
    messages::say(format_args!("{parts}; {}; {:.2} s", tally(summary), time.as_secs_f64()));
}

fn tally(summary: &Summary) -> String {
    let parts: Vec<String> = [Weight::Lost, Weight::Changed, Weight::Advice]
        .into_iter()
        .zip(summary.weights)
        .filter(|(_, count)| *count > 0)
        .map(|(weight, count)| {
            let style = messages::style(weight);
            format!("{style}{count} {}{style:#}", weight.word())
        })
        .collect();
    if parts.is_empty() { "nothing lost".to_owned() } else { parts.join(", ") }
}
