//! `obblet convert`

use super::input::{Input, STANDARD_INPUT, folder_of, is_dash};
use crate::Outcome;
use crate::arguments::{Convert, Verbosity};
use crate::failure::{Failure, misused};
use crate::report::{Report, to_standard_output, write_file};
use crate::{indentation, messages};
use obblet::document::Finding;
use obblet::files::is_same;
use obblet::formats::markdown::Dialect;
use obblet::profile::{Layers, Profile, Shape};
use obblet::publish::{DocumentLinks, Entry, format_of};
use obblet::{Context, Converted, Format, LinkResolver, convert_in};
use std::collections::HashMap;
use std::ffi::OsString;
use std::fs::File;
use std::io::Read;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::Instant;

pub(crate) fn run(convert: &Convert) -> Outcome {
    let is_shown = convert.output.as_deref().is_none_or(is_dash);
    if is_shown && convert.talk.report.as_deref().is_some_and(is_dash) {
        let message = "the document and the report can't both go to standard output; name a file with --output or --report";
        return messages::fail(Outcome::Misused, message);
    }
    let mut report = Report::default();
    let outcome = convert_all(convert, &mut report).unwrap_or_else(|Failure(outcome, message)| messages::fail(outcome, message));
    if let Err(Failure(outcome, message)) = report.save(convert.talk.report.as_ref()) {
        return messages::fail(outcome, message);
    }
    let found = convert.talk.fail_on.is_some_and(|wanted| report.meets(wanted));
    match outcome {
        Outcome::Done if report.has_failures() => Outcome::Failed,
        Outcome::Done if found => Outcome::Found,
        outcome => outcome,
    }
}

fn is_folder(path: &Path) -> bool {
    path.is_dir() || path.as_os_str().to_string_lossy().ends_with(['/', '\\'])
}

fn convert_all(convert: &Convert, report: &mut Report) -> Result<Outcome, Failure> {
    let output = convert.output.as_deref().filter(|output| !is_dash(output));
    let writes = writes(convert, output)?;
    let layers = super::layers(&convert.settings, &[("page.title", convert.title.as_ref())])?;
    let outcome = convert_each(convert, &layers, output, writes, report);
    if convert.talk.verbose {
        super::report_settings(&layers);
    }
    outcome
}

fn convert_each(
    convert: &Convert,
    layers: &Layers,
    output: Option<&Path>,
    writes: Format,
    report: &mut Report,
) -> Result<Outcome, Failure> {
    if convert.sources.is_empty() || convert.sources.iter().any(|source| is_dash(source)) {
        if convert.sources.len() > 1 {
            return Err(misused("standard input can't be converted together with files"));
        }
        return from_standard_input(convert, layers, output, writes, report);
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
        match from_file(convert, layers, source, (target.as_deref(), writes), links.as_ref()) {
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
    if let Some(format) = convert.writes {
        return Ok(format);
    }
    match output.filter(|output| !is_folder(output)).and_then(Path::extension) {
        None => Ok(Format::Html),
        Some(extension) => Format::from_extension(&extension.to_string_lossy())
            .ok_or_else(|| misused(format!("no format has the extension .{}; say which with --writes", extension.display()))),
    }
}

/// Each source and the file it goes to.
fn plan(
    convert: &Convert,
    folder: Option<&Path>,
    output: Option<&Path>,
    writes: Format,
) -> Result<Vec<(PathBuf, Option<PathBuf>)>, Failure> {
    let mut plan: Vec<(PathBuf, Option<PathBuf>)> = Vec::with_capacity(convert.sources.len());
    let mut taken: HashMap<PathBuf, &Path> = HashMap::new();
    for source in &convert.sources {
        let target = match folder {
            Some(folder) => {
                let own = convert.reads.or_else(|| format_of(source)).and_then(|format| own_name(source, format));
                let stem = source.file_stem().unwrap_or(source.as_os_str());
                let mut name = own.map_or_else(|| stem.to_owned(), OsString::from);
                name.push(".");
                name.push(writes.extensions()[0]);
                Some(folder.join(name))
            }
            None => output.map(Path::to_owned),
        };
        if let Some(target) = &target
            && let Some(other) = taken.insert(target.clone(), source)
        {
            return Err(misused(format!("{} and {} would both become {}", other.display(), source.display(), target.display())));
        }
        plan.push((source.clone(), target));
    }
    Ok(plan)
}

/// The name that a source gives what it becomes. A source that can't be read says so when it is converted, and a pipe is left
/// until then.
fn own_name(source: &Path, format: Format) -> Option<String> {
    format.descriptor().output_name.filter(|_| source.is_file())?;
    let mut beginning = Vec::new();
    File::open(source).ok()?.take(Format::OUTPUT_NAME_WITHIN as u64).read_to_end(&mut beginning).ok()?;
    format.output_name(&beginning)
}

fn document_links(plan: &[(PathBuf, Option<PathBuf>)]) -> DocumentLinks {
    let entries: Vec<Entry> = plan
        .iter()
        .filter_map(|(source, target)| {
            let output = PathBuf::from(target.as_ref()?.file_name()?);
            Some(Entry { source: source.clone(), output, format: format_of(source)? })
        })
        .collect();
    DocumentLinks::new(&entries)
}

fn from_file(
    convert: &Convert,
    layers: &Layers,
    source: &Path,
    (target, writes): (Option<&Path>, Format),
    links: Option<&DocumentLinks>,
) -> Result<Vec<Finding>, Failure> {
    let start = Instant::now();
    if target.is_some_and(|target| source == target || is_same(source, target)) {
        return Err(misused("the output is the source itself; name another file with --output"));
    }
    let input = Input::read(source, convert.reads, layers)?;
    let output = target.map(folder_of);
    let around = input.context();
    let links = links.map(|links| links.from(source, &around));
    let links = links.as_ref().map(|links| links as &dyn LinkResolver);
    let extension = extension_of(target);
    let context = Context { output, links, extension, ..around };
    let converted = convert_in(&input.bytes, input.format, writes, &input.profile, &context)?;
    save(&converted, target, output)?;
    talk(&convert.talk, &source.display().to_string(), target, &converted, start);
    Ok(converted.findings)
}

fn from_standard_input(
    convert: &Convert,
    layers: &Layers,
    output: Option<&Path>,
    writes: Format,
    report: &mut Report,
) -> Result<Outcome, Failure> {
    let start = Instant::now();
    if output.is_some_and(is_folder) {
        return Err(misused("text from standard input needs a file to go to; name one with --output"));
    }
    let mut input = Input::read_standard(convert.reads, layers)?;
    if input.profile.shape == Shape::Auto {
        let shape = if output.is_some() { Shape::Page } else { Shape::Fragment };
        input.profile = Arc::new(Profile { shape, ..Profile::clone(&input.profile) });
    }
    let mut indentation = std::str::from_utf8(&input.bytes).map_or_else(|_| String::new(), indentation::common);
    if input.profile.formats.markdown.dialect == Dialect::Commonmark {
        // The specification says what indentation means: four columns of it are code, less is nothing.
        if indentation::is_code(&indentation) {
            indentation.clear();
        }
    } else if !indentation.is_empty() {
        input.bytes = indentation::remove(&String::from_utf8_lossy(&input.bytes), &indentation).into_bytes();
    }
    let folder = output.map(folder_of);
    let extension = extension_of(output);
    let context = Context { output: folder, extension, ..input.context() };
    let mut converted = convert_in(&input.bytes, input.format, writes, &input.profile, &context)
        .map_err(|error| Failure::from(error).of(STANDARD_INPUT))?;
    if !indentation.is_empty()
        && input.profile.shape == Shape::Fragment
        && let Some(text) = converted.text()
    {
        converted.bytes = indentation::add(text, &indentation).into_bytes();
    }
    save(&converted, output, folder)?;
    talk(&convert.talk, STANDARD_INPUT, output, &converted, start);
    report.add("-", output, converted.findings);
    Ok(Outcome::Done)
}

/// The extension of the file that is written, where there is one.
fn extension_of(target: Option<&Path>) -> &str {
    target.and_then(Path::extension).and_then(|extension| extension.to_str()).unwrap_or_default()
}

/// Writes what a conversion made: pictures first, so that no page names what is not there.
fn save(converted: &Converted, target: Option<&Path>, folder: Option<&Path>) -> Result<(), Failure> {
    if let Some(folder) = folder {
        for file in &converted.files {
            write_file(&folder.join(&file.path), &file.bytes)?;
        }
    }
    match target {
        Some(target) => write_file(target, &converted.bytes),
        None => {
            // What comes next on a terminal begins on a line of its own.
            let Some(text) = converted.text() else { return to_standard_output(&converted.bytes) };
            let end = if text.is_empty() || text.ends_with('\n') { "" } else { "\n" };
            to_standard_output(format!("{text}{end}").as_bytes())
        }
    }
}

fn talk(talk: &Verbosity, source: &str, target: Option<&Path>, converted: &Converted, start: Instant) {
    if talk.quiet {
        return;
    }
    messages::findings(source, &converted.findings, talk.verbose);
    if let Some(length) = converted.length.as_ref().filter(|length| length.used <= length.limit) {
        let source = messages::shown(source);
        messages::say(format_args!("{source}: {} of {} characters used, {} left", length.used, length.limit, length.left()));
    }
    let tally = messages::tally(&converted.findings);
    let Some(target) = target else { return };
    let time = start.elapsed().as_secs_f64() * 1000.0;
    let tally = if tally.is_empty() { "nothing lost".to_owned() } else { tally };
    let (source, target) = (messages::shown(source), messages::shown_path(target));
    messages::say(format_args!("{source} -> {target}: {tally}, {time:.1} ms"));
}
