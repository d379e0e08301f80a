//! `obblet convert`

use crate::Outcome;
use crate::arguments::{Convert, Talk};
use crate::report::Report;
use crate::{indentation, messages};
use obblet::document::Finding;
use obblet::profile::{Dialect, Profile, Shape};
use obblet::publish::{DocumentLinks, Entry, format_of, write_whole};
use obblet::{Converted, Error, Format, Links, Surroundings, convert_in, describe};
use std::io::{Read, Write};
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::Instant;

/// Why there is no output for a source, and how the command ends for it.
pub(crate) struct Failure(pub(crate) Outcome, pub(crate) String);

impl From<Error> for Failure {
    fn from(error: Error) -> Self {
        let outcome = match error {
            Error::Profile(_)
            | Error::UnknownLook { .. }
            | Error::SettingFile { .. }
            | Error::Frame { .. }
            | Error::SiteOfFragments
            | Error::OutputAroundSource { .. }
            | Error::NotRead { .. }
            | Error::NotWritten { .. } => Outcome::Misused,
            _ => Outcome::Failed,
        };
        Self(outcome, error.to_string())
    }
}

pub(super) fn misused(message: impl Into<String>) -> Failure {
    Failure(Outcome::Misused, message.into())
}

pub(crate) fn run(convert: &Convert) -> Outcome {
    let mut report = Report::default();
    let outcome = convert_all(convert, &mut report).unwrap_or_else(|Failure(outcome, message)| messages::fail(outcome, message));
    if let Err(error) = report.save(convert.talk.report.as_ref()) {
        return messages::fail(Outcome::Failed, error);
    }
    let found = convert.talk.fail_on.is_some_and(|weight| report.reaches(weight.into()));
    match outcome {
        Outcome::Done if report.has_failures() => Outcome::Failed,
        Outcome::Done if found => Outcome::Found,
        outcome => outcome,
    }
}

fn is_dash(path: &Path) -> bool {
    path == Path::new("-")
}

fn is_folder(path: &Path) -> bool {
    path.is_dir() || path.as_os_str().to_string_lossy().ends_with(['/', '\\'])
}

fn convert_all(convert: &Convert, report: &mut Report) -> Result<Outcome, Failure> {
    let output = convert.output.as_deref().filter(|output| !is_dash(output));
    let writes = writes(convert, output)?;
    if convert.sources.is_empty() || convert.sources.iter().any(|source| is_dash(source)) {
        if convert.sources.len() > 1 {
            return Err(misused("standard input can't be converted together with files"));
        }
        return from_standard_input(convert, output, writes, report);
    }
    let several = convert.sources.len() > 1;
    let folder = output.filter(|output| several || is_folder(output));
    if several && output.is_none() {
        return Err(misused("several documents need a folder to go to; name one with --output"));
    }
    if several && output.is_some_and(Path::is_file) {
        return Err(misused("several documents can't go into one file; name a folder with --output"));
    }
    let plan = plan(convert, folder, output, writes)?;
    let links = several.then(|| document_links(&plan));
    let mut outcome = Outcome::Done;
    for (source, target) in &plan {
        let name = source.display().to_string();
        let links = links.as_ref().map(|links| links.from(source));
        let links = links.as_ref().map(|links| links as &dyn Links);
        match from_file(convert, source, target.as_deref(), writes, links) {
            Ok(findings) => report.add(&name, target.as_deref(), findings),
            Err(Failure(worse, message)) => {
                messages::error(format_args!("{name}: {message}"));
                report.add_failure(&name, message);
                outcome = worse;
            }
        }
    }
    Ok(outcome)
}

fn writes(convert: &Convert, output: Option<&Path>) -> Result<Format, Failure> {
    if let Some(name) = &convert.writes {
        return named(name);
    }
    match output.filter(|output| !is_folder(output)).and_then(Path::extension) {
        None => Ok(Format::Html),
        Some(extension) => Format::from_extension(&extension.to_string_lossy())
            .ok_or_else(|| misused(format!("no format has the extension .{}; say which with --writes", extension.display()))),
    }
}

pub(super) fn named(name: &str) -> Result<Format, Failure> {
    Format::from_name(name).ok_or_else(|| {
        let names: Vec<&str> = Format::all().map(Format::name).collect();
        misused(format!("there is no format {name}; there are {}", names.join(", ")))
    })
}

fn reads(convert: &Convert, source: &Path) -> Result<Format, Failure> {
    match &convert.reads {
        Some(name) => named(name),
        None => format_of(source).ok_or_else(|| {
            let extension = source.extension().map_or_else(
                || "it has no extension".to_owned(),
                |known| format!("no format has the extension .{}", known.display()),
            );
            misused(format!("{extension}; say which format it is with --reads"))
        }),
    }
}

/// Each source and the file it goes to.
fn plan(
    convert: &Convert,
    folder: Option<&Path>,
    output: Option<&Path>,
    writes: Format,
) -> Result<Vec<(PathBuf, Option<PathBuf>)>, Failure> {
    let mut plan: Vec<(PathBuf, Option<PathBuf>)> = Vec::new();
    for source in &convert.sources {
        let target = match folder {
            Some(folder) => {
                let stem = source.file_stem().unwrap_or(source.as_os_str());
                let mut name = stem.to_owned();
                name.push(".");
                name.push(writes.extensions()[0]);
                Some(folder.join(name))
            }
            None => output.map(Path::to_owned),
        };
        if let Some((other, _)) = plan.iter().find(|(_, known)| known.is_some() && *known == target) {
            let target = target.unwrap_or_default();
            return Err(misused(format!("{} and {} would both become {}", other.display(), source.display(), target.display())));
        }
        plan.push((source.clone(), target));
    }
    Ok(plan)
}

fn document_links(plan: &[(PathBuf, Option<PathBuf>)]) -> DocumentLinks {
    let entries: Vec<Entry> = plan
        .iter()
        .filter_map(|(source, target)| {
            let output = PathBuf::from(target.as_ref()?.file_name()?);
            Some(Entry { source: source.clone(), output, format: format_of(source)? })
        })
        .collect();
    DocumentLinks::new(Path::new(""), &entries)
}

fn same_file(a: &Path, b: &Path) -> bool {
    a == b || std::fs::canonicalize(a).ok().zip(std::fs::canonicalize(b).ok()).is_some_and(|(a, b)| a == b)
}

fn from_file(
    convert: &Convert,
    source: &Path,
    target: Option<&Path>,
    writes: Format,
    links: Option<&dyn Links>,
) -> Result<Vec<Finding>, Failure> {
    let start = Instant::now();
    if target.is_some_and(|target| same_file(source, target)) {
        return Err(misused("the output is the source itself; name another file with --output"));
    }
    if source.is_dir() {
        return Err(misused("it is a folder; name the documents in it"));
    }
    let reads = reads(convert, source)?;
    let bytes = std::fs::read(source).map_err(|error| Failure(Outcome::Failed, describe(&error)))?;
    let folder = source.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
    let absolute = std::path::absolute(folder).unwrap_or_else(|_| folder.to_owned());
    let profile = profile(convert, &super::document(&absolute, source))?;
    let name = source.file_stem().map_or_else(String::new, |stem| stem.to_string_lossy().into_owned());
    let output = target.map(|target| target.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new(".")));
    // A folder with settings is the top of what belongs together; else nothing but the document's own folder is read.
    let root = absolute.ancestors().filter(|above| above.join(obblet::profile::FILE_NAME).is_file()).last().unwrap_or(&absolute);
    let surroundings =
        Surroundings { name: &name, folder: Some(&absolute), root: Some(root), output, links, ..Surroundings::default() };
    let converted = convert_in(&bytes, reads, writes, &profile, &surroundings)?;
    save(&converted, target, output)?;
    let name = source.display().to_string();
    talk(&convert.talk, &name, target, &converted, start);
    Ok(converted.findings)
}

fn from_standard_input(
    convert: &Convert,
    output: Option<&Path>,
    writes: Format,
    report: &mut Report,
) -> Result<Outcome, Failure> {
    let start = Instant::now();
    let mut bytes = Vec::new();
    std::io::stdin()
        .lock()
        .read_to_end(&mut bytes)
        .map_err(|error| Failure(Outcome::Failed, format!("standard input: {}", describe(&error))))?;
    let reads = convert.reads.as_deref().map_or(Ok(Format::Markdown), named)?;
    if output.is_some_and(is_folder) {
        return Err(misused("text from standard input needs a file to go to; name one with --output"));
    }
    let here = std::env::current_dir().unwrap_or_default();
    let mut profile = Profile::clone(&*profile(convert, &here.join("standard input"))?);
    if profile.shape == Shape::Auto {
        profile.shape = if output.is_some() { Shape::Page } else { Shape::Fragment };
    }
    let mut indentation = std::str::from_utf8(&bytes).map_or_else(|_| String::new(), indentation::common);
    if profile.markdown.dialect == Dialect::Commonmark {
        // The specification says what indentation means: four columns of it are code, less is nothing.
        if indentation::is_code(&indentation) {
            indentation.clear();
        }
    } else if !indentation.is_empty() {
        bytes = indentation::remove(&String::from_utf8_lossy(&bytes), &indentation).into_bytes();
    }
    let folder = output.map(|output| output.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new(".")));
    let surroundings = Surroundings { name: "", output: folder, ..Surroundings::default() };
    let mut converted = convert_in(&bytes, reads, writes, &profile, &surroundings)?;
    if !indentation.is_empty() && profile.shape == Shape::Fragment {
        converted.text = indentation::add(&converted.text, &indentation);
    }
    save(&converted, output, folder)?;
    talk(&convert.talk, "standard input", output, &converted, start);
    report.add("-", output, converted.findings);
    Ok(Outcome::Done)
}

fn profile(convert: &Convert, document: &Path) -> Result<Arc<Profile>, Failure> {
    super::profile(&convert.settings, document, &[("page.title", convert.title.as_ref())])
        .map_err(|error| misused(error.to_string()))
}

/// Writes what a conversion made: pictures first, so that no page names what is not there.
fn save(converted: &Converted, target: Option<&Path>, folder: Option<&Path>) -> Result<(), Failure> {
    let fail = |error: Error| match error {
        Error::File { path, cause } => Failure(Outcome::Failed, format!("can't write {path}: {}", describe(&cause))),
        error => error.into(),
    };
    if let Some(folder) = folder {
        for file in &converted.files {
            write_whole(&folder.join(&file.path), &file.bytes).map_err(fail)?;
        }
    }
    match target {
        Some(target) => write_whole(target, converted.text.as_bytes()).map_err(fail),
        None => {
            let mut out = std::io::stdout().lock();
            // What comes next on a terminal begins on a line of its own.
            let end: &[u8] = if converted.text.is_empty() || converted.text.ends_with('\n') { b"" } else { b"\n" };
            match out.write_all(converted.text.as_bytes()).and_then(|()| out.write_all(end)).and_then(|()| out.flush()) {
                // A reader that has seen enough is no failure.
                Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => {
                    Err(Failure(Outcome::Failed, format!("standard output: {}", describe(&error))))
                }
                _ => Ok(()),
            }
        }
    }
}

fn talk(talk: &Talk, source: &str, target: Option<&Path>, converted: &Converted, start: Instant) {
    if talk.quiet {
        return;
    }
    messages::findings(source, &converted.findings, talk.verbose);
    if let Some(length) = converted.length.as_ref().filter(|length| length.used <= length.limit) {
        messages::say(format_args!("{source}: {} of {} characters used, {} left", length.used, length.limit, length.left()));
    }
    let tally = messages::tally(&converted.findings);
    let Some(target) = target else { return };
    let time = start.elapsed().as_secs_f64() * 1000.0;
    let tally = if tally.is_empty() { "nothing lost".to_owned() } else { tally };
    messages::say(format_args!("{source} -> {}: {tally}, {time:.1} ms", target.display()));
}
