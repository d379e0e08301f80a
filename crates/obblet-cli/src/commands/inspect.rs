//! `obblet inspect`

use super::input::{Input, STANDARD_INPUT, is_dash};
use super::inspect_folder;
use crate::arguments::Inspect;
use crate::failure::{Failure, misused};
use crate::messages::shown;
use crate::{Outcome, messages, report};
use anstyle::{AnsiColor, Style};
use obblet::Format;
use obblet::document::{Finding, Place, Weight};
use obblet::inspect::{Inspection, inspect};
use obblet::profile::Layers;
use std::collections::BTreeMap;
use std::io::Write;
use std::path::{Path, PathBuf};

/// So many lines of a part are shown; `--verbose` shows all.
const MOST_SHOWN: usize = 12;
/// So many different messages of one sort are shown.
const MOST_SAID: usize = 4;

pub(crate) fn run(arguments: &Inspect) -> Outcome {
    match inspect_all(arguments) {
        Ok(outcome) => outcome,
        Err(Failure(outcome, message)) => messages::fail(outcome, message),
    }
}

fn inspect_all(arguments: &Inspect) -> Result<Outcome, Failure> {
    let layers = super::layers(&arguments.settings, &[])?;
    let mut outcome = Outcome::Done;
    let mut seen = Vec::new();
    let standard_input = [Path::new("-").to_owned()];
    let sources = if arguments.sources.is_empty() { standard_input.as_slice() } else { &arguments.sources };
    // Two things on standard output would be of use to nobody.
    let is_shown = !arguments.talk.quiet && !arguments.talk.report.as_deref().is_some_and(is_dash);
    let (folders, sources): (Vec<&PathBuf>, Vec<&PathBuf>) = sources.iter().partition(|source| source.is_dir());
    if let Some(folder) = folders.first().filter(|_| arguments.tree) {
        return Err(misused(format!("--tree shows documents, and {} is a folder", folder.display())));
    }
    let mut seen_folders = Vec::new();
    for folder in folders {
        match inspect_folder::analyze(arguments, super::layers(&arguments.settings, &[])?, folder) {
            Ok(found) => {
                let name = folder.display().to_string();
                if is_shown {
                    if !seen_folders.is_empty() {
                        report::written(writeln!(std::io::stdout()))?;
                    }
                    report::written(inspect_folder::show(&name, &found, arguments.talk.verbose))?;
                }
                if !found.failed.is_empty() {
                    outcome = Outcome::Failed;
                }
                seen_folders.push((name, found));
            }
            Err(Failure(worse, message)) => outcome = messages::fail(worse, message),
        }
    }
    for source in sources {
        let name = if is_dash(source) { STANDARD_INPUT.to_owned() } else { source.display().to_string() };
        if arguments.tree {
            if let Err(failure) = show_tree(arguments, &layers, source) {
                let Failure(worse, message) = failure.of(&name);
                outcome = messages::fail(worse, message);
            }
            continue;
        }
        match analyze(arguments, &layers, source) {
            Ok(inspection) => {
                if is_shown {
                    let follows = !seen.is_empty() || !seen_folders.is_empty();
                    report::written(show(&name, &inspection, arguments.talk.verbose, follows))?;
                }
                seen.push((name, inspection));
            }
            Err(failure) => {
                let Failure(worse, message) = failure.of(&name);
                outcome = messages::fail(worse, message);
            }
        }
    }
    if arguments.talk.verbose {
        super::report_settings(&layers);
    }
    if let Some(path) = arguments.talk.report.as_ref().filter(|_| !seen_folders.is_empty()) {
        if !seen.is_empty() {
            return Err(misused("--report takes folders or documents, not both"));
        }
        inspect_folder::save(path, &seen_folders)?;
    } else if let Some(path) = &arguments.talk.report {
        let documents: Vec<_> =
            seen.iter().map(|(source, inspection)| serde_json::json!({ "source": source, "inspection": inspection })).collect();
        report::save(path, &serde_json::json!({ "documents": documents }))?;
    }
    let reached = arguments.talk.fail_on.is_some_and(|wanted| {
        let all = seen.iter().flat_map(|(_, inspection)| inspection.findings.iter().chain(&inspection.faults));
        all.into_iter().any(|finding| wanted.is_met_by(finding))
    });
    let reached = reached || seen_folders.iter().any(|(_, found)| inspect_folder::is_met(arguments, found));
    Ok(if outcome == Outcome::Done && reached { Outcome::Found } else { outcome })
}

fn analyze(arguments: &Inspect, layers: &Layers, source: &Path) -> Result<Inspection, Failure> {
    let input = Input::read(source, arguments.reads, layers)?;
    Ok(inspect(&input.bytes, input.format, &input.profile, &input.context())?)
}

/// Shows a document as it is read.
fn show_tree(arguments: &Inspect, layers: &Layers, source: &Path) -> Result<(), Failure> {
    let input = Input::read(source, arguments.reads, layers)?;
    let doc = obblet::read(&input.bytes, input.format, &input.profile)?;
    let out = &mut std::io::stdout().lock();
    report::written(write!(out, "{}{}", doc.dump(), doc.dump_tables()))
}

/// A number with its thousands set apart.
fn grouped(number: usize) -> String {
    let digits = number.to_string();
    let mut out = String::new();
    for (place, digit) in digits.chars().enumerate() {
        if place > 0 && (digits.len() - place).is_multiple_of(3) {
            out.push(',');
        }
        out.push(digit);
    }
    out
}

const BOLD: Style = Style::new().bold();
const DIM: Style = Style::new().dimmed();

fn show(name: &str, inspection: &Inspection, all: bool, follows: bool) -> std::io::Result<()> {
    let out = &mut anstream::stdout().lock();
    let most = if all { usize::MAX } else { MOST_SHOWN };
    if follows {
        writeln!(out)?;
    }
    let sizes = inspection.sizes;
    writeln!(out, "{BOLD}{}{BOLD:#}  {DIM}{}{DIM:#}", shown(name), inspection.format)?;
    let seen = format!("{} words, {} characters", grouped(sizes.words), grouped(sizes.without_markup));
    if inspection.format == Format::Word.name() {
        // What is packed has no characters to count.
        writeln!(out, "{seen}; {} bytes", grouped(sizes.bytes))?;
    } else {
        let share = (sizes.without_markup * 100).checked_div(sizes.with_markup).unwrap_or(100).min(100);
        writeln!(out, "{seen}; {} with markup, so {share} % is text", grouped(sizes.with_markup))?;
    }
    let counts: Vec<String> = inspection
        .counts
        .named()
        .into_iter()
        .map(|(name, count)| format!("{} {}", grouped(count), if count == 1 { name.trim_end_matches('s') } else { name }))
        .collect();
    if !counts.is_empty() {
        writeln!(out, "{}", counts.join(", "))?;
    }
    for (key, value) in &inspection.metadata {
        writeln!(out, "{DIM}{:<12}{DIM:#}{}", shown(key), shown(value))?;
    }
    if !inspection.outline.is_empty() {
        title(out, "Outline")?;
        for entry in inspection.outline.iter().take(most) {
            let indent = usize::from(entry.level.saturating_sub(1)) * 2;
            let text = if entry.text.is_empty() { "(empty)" } else { &entry.text };
            writeln!(out, "  {:indent$}{DIM}{}{DIM:#} {}", "", entry.level, short(text))?;
        }
        more(out, inspection.outline.len(), most, "headings")?;
    }
    links(out, inspection, most)?;
    if !inspection.styles.is_empty() {
        title(out, "Styles and classes")?;
        let mut styles: Vec<_> = inspection.styles.iter().collect();
        styles.sort_by_key(|&(name, count)| (std::cmp::Reverse(*count), name.clone()));
        let shown: Vec<String> = styles.iter().take(most).map(|(name, count)| format!("{} {count}", shown(name))).collect();
        writeln!(
            out,
            "  {}{}",
            shown.join(", "),
            if styles.len() > most { format!(", and {} more", styles.len() - most) } else { String::new() }
        )?;
    }
    findings(out, "Findings of a conversion", &inspection.findings, most)?;
    findings(out, "Faults in the markup", &inspection.faults, most)?;
    out.flush()
}

fn title(out: &mut impl Write, text: &str) -> std::io::Result<()> {
    writeln!(out, "\n{BOLD}{text}{BOLD:#}")
}

/// Text of a document, cut to what fits into a line.
fn short(text: &str) -> String {
    let text = shown(text);
    if text.chars().count() > 90 { text.chars().take(87).chain("...".chars()).collect() } else { text.into_owned() }
}

fn more(out: &mut impl Write, count: usize, most: usize, what: &str) -> std::io::Result<()> {
    if count > most {
        writeln!(out, "  {DIM}and {} more {what}; --verbose shows them{DIM:#}", count - most)?;
    }
    Ok(())
}

fn links(out: &mut impl Write, inspection: &Inspection, most: usize) -> std::io::Result<()> {
    let links = &inspection.links;
    let parts: Vec<String> = [
        (links.within, "within the document"),
        (links.files, "to files"),
        (links.elsewhere, "to other sites"),
        (links.contacts, "to people"),
    ]
    .into_iter()
    .filter(|(count, _)| *count > 0)
    .map(|(count, what)| format!("{} {what}", grouped(count)))
    .collect();
    if parts.is_empty() && links.troubled.is_empty() {
        return Ok(());
    }
    title(out, "Links and images")?;
    if !parts.is_empty() {
        writeln!(out, "  {}", parts.join(", "))?;
    }
    let red = Style::new().fg_color(Some(AnsiColor::Red.into()));
    for link in links.troubled.iter().take(most) {
        writeln!(out, "  {:<8}{red}{}{red:#}: {}", place(link.place), short(&link.address), shown(link.why))?;
    }
    more(out, links.troubled.len(), most, "links that lead nowhere")
}

fn place(place: Place) -> String {
    match place {
        Place::Unknown => String::new(),
        Place::Line { line, .. } => format!("{line}"),
        Place::Paragraph { part: "", paragraph } => format!("{paragraph}"),
        Place::Paragraph { part, paragraph } => format!("{part} {paragraph}"),
    }
}

/// Findings by weight and code, the heaviest first, each code once with its lines.
fn findings(out: &mut impl Write, heading: &str, findings: &[Finding], most: usize) -> std::io::Result<()> {
    if findings.is_empty() {
        return Ok(());
    }
    let tally = messages::tally(findings);
    writeln!(out, "\n{BOLD}{heading}{BOLD:#}  {tally}")?;
    let mut groups: BTreeMap<(Weight, &str), Vec<&Finding>> = BTreeMap::new();
    for finding in findings {
        groups.entry((finding.weight, &finding.code)).or_default().push(finding);
    }
    let count = groups.len();
    for ((weight, code), group) in groups.into_iter().take(most) {
        let style = messages::style(weight);
        let lines: Vec<String> =
            group.iter().map(|finding| place(finding.place)).filter(|line| !line.is_empty()).take(8).collect();
        let lines = if lines.is_empty() {
            String::new()
        } else {
            let unit =
                if group.iter().any(|finding| matches!(finding.place, Place::Paragraph { .. })) { "paragraph" } else { "line" };
            format!(" {DIM}{unit} {}{}{DIM:#}", lines.join(", "), if group.len() > 8 { " ..." } else { "" })
        };
        let number = if group.len() > 1 { format!(" ({})", grouped(group.len())) } else { String::new() };
        writeln!(out, "  {style}{:<8}{style:#}{code}{number}{lines}", weight.word())?;
        // What is said of several places is said once.
        let mut said: Vec<(&str, usize)> = Vec::new();
        for finding in &group {
            match said.iter_mut().find(|(message, _)| *message == finding.message) {
                Some((_, times)) => *times += 1,
                None => said.push((&finding.message, 1)),
            }
        }
        let shown = if most == usize::MAX { said.len() } else { said.len().min(MOST_SAID) };
        for (message, times) in &said[..shown] {
            let times = if *times > 1 && said.len() > 1 { format!(" ({times})") } else { String::new() };
            writeln!(out, "          {}{times}", short(message))?;
        }
        if shown < said.len() {
            writeln!(out, "          {DIM}and {} more{DIM:#}", said.len() - shown)?;
        }
    }
    more(out, count, most, "sorts")
}
