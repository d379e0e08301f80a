//! `obblet profile`

use crate::arguments::{Profile as Arguments, ProfileAction};
use crate::failure::Failure;
use crate::{Outcome, messages, report};
use anstyle::Style;
use obblet::profile::{BUILT_IN, Layer, Profile, settings};
use obblet::{Format, pipeline};
use std::fmt::Write as _;
use std::io::Write as _;
use std::path::Path;

/// Lines of settings are as wide as this.
const WIDTH: usize = 96;

pub(crate) fn run(arguments: &Arguments) -> Outcome {
    match arguments.action.as_ref().unwrap_or(&ProfileAction::List) {
        ProfileAction::List => print(&list()),
        ProfileAction::Show { profile, only, passes, reads, writes } => match load(profile) {
            Ok(loaded) if *passes => print(&list_passes(&loaded, *reads, *writes)),
            Ok(loaded) => show(&loaded, only.as_deref()),
            Err(error) => messages::fail(Outcome::Misused, error),
        },
        ProfileAction::New { file, from } => new(file, from.as_deref()),
    }
}

fn print(text: &str) -> Outcome {
    match anstream::stdout().write_all(text.as_bytes()) {
        Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => {
            messages::fail(Outcome::Failed, format_args!("standard output: {}", obblet::describe(&error)))
        }
        _ => Outcome::Done,
    }
}

fn list() -> String {
    let bold = Style::new().bold();
    let mut out = String::new();
    for (name, purpose, _) in BUILT_IN {
        let _ = writeln!(out, "{bold}{name:<10}{bold:#} {purpose}");
    }
    out.push_str("\nobblet profile show NAME   every setting of a profile, with its meaning\n");
    out.push_str("  --passes                 the passes, in the order in which they run\n");
    out.push_str(
        "obblet profile new FILE    a file to begin with: settings (.toml), style rules (.css), the template of pages (.html)\n",
    );
    out
}

fn load(name: &str) -> Result<Profile, String> {
    if Path::new(name).is_file() {
        let mut profile = Profile::default();
        let layer = Layer::read_file(Path::new(name)).map_err(|error| error.to_string())?;
        profile.apply_layer(&layer, None).map_err(|error| error.to_string())?;
        return Ok(profile);
    }
    Profile::built_in(name).map_err(|error| error.to_string())
}

fn show(profile: &Profile, only: Option<&str>) -> Outcome {
    let bold = Style::new().bold();
    let default = Profile::default();
    let mut out = String::new();
    let mut shown = 0;
    for setting in settings().filter(|setting| only.is_none_or(|beginning| setting.key.starts_with(beginning))) {
        let (value, usual) = (setting.get(profile), setting.get(&default));
        let changed = if value == usual { String::new() } else { format!("   (default: {usual})") };
        let _ = writeln!(out, "{bold}{} = {value}{bold:#}{changed}", setting.key);
        for line in wrap(setting.meaning, WIDTH - 4) {
            let _ = writeln!(out, "    {line}");
        }
        let _ = writeln!(out, "    May be: {}\n", setting.values());
        shown += 1;
    }
    if shown == 0 {
        return messages::fail(Outcome::Misused, format_args!("no setting begins with {}", only.unwrap_or_default()));
    }
    print(&out)
}

/// The passes of a conversion, one a line.
fn list_passes(profile: &Profile, reads: Format, writes: Format) -> String {
    let bold = Style::new().bold();
    let mut out = format!(
        "Passes from {reads} to {writes}, in their order, for a document that a program wrote; clean.skip\nswitches them off by name.\n\n"
    );
    for pass in pipeline::passes(reads, writes, profile) {
        let state = if pass.runs { "on " } else { "off" };
        let _ = writeln!(out, "{bold}{:<16}{bold:#} {state}  {}", pass.name, pass.meaning);
    }
    out
}

/// A file of settings in which all is commented out but what the built-in profile sets.
fn new(file: &Path, from: Option<&str>) -> Outcome {
    if file.exists() {
        return messages::fail(Outcome::Failed, format_args!("{} is there already; name another file", file.display()));
    }
    let extension = file.extension().map(|extension| extension.to_string_lossy().to_ascii_lowercase());
    let (text, use_of_it) = match extension.as_deref() {
        Some("css") => match obblet::page::rules_of_look(from.unwrap_or("chart")) {
            Ok(rules) => (rules.unwrap_or_default(), "set page.look=none and page.stylesheets to it"),
            Err(error) => return messages::fail(Outcome::Misused, error),
        },
        Some("html" | "htm") if from.is_some() => {
            return messages::fail(Outcome::Misused, "there is one template of pages; leave --from out");
        }
        Some("html" | "htm") => (obblet::page::built_in_frame().to_owned(), "set page.frame to it"),
        _ => match Profile::built_in(from.unwrap_or("page")) {
            Ok(profile) => (every_setting(&profile), "take the number sign from the settings that you change"),
            Err(error) => return messages::fail(Outcome::Misused, error),
        },
    };
    match report::write_file(file, text.as_bytes()) {
        Ok(()) => {
            messages::say(format_args!("{}: {use_of_it}", messages::shown_path(file)));
            Outcome::Done
        }
        Err(Failure(outcome, message)) => messages::fail(outcome, message),
    }
}

/// Every setting with its meaning, as a file of settings has them.
fn every_setting(profile: &Profile) -> String {
    let default = Profile::default();
    let mut out = String::from("# Settings of Obblet. Lines that begin with a number sign show what is so without being set.\n");
    for setting in settings() {
        out.push('\n');
        for line in wrap(setting.meaning, WIDTH - 2) {
            let _ = writeln!(out, "# {line}");
        }
        let _ = writeln!(out, "# May be: {}", setting.values());
        let (value, usual) = (setting.get(profile), setting.get(&default));
        let mark = if value == usual { "# " } else { "" };
        let _ = writeln!(out, "{mark}{} = {value}", setting.key);
    }
    out
}

fn wrap(text: &str, width: usize) -> Vec<String> {
    let mut lines = vec![String::new()];
    for word in text.split_whitespace() {
        let last = lines.len() - 1;
        if !lines[last].is_empty() && lines[last].chars().count() + 1 + word.chars().count() > width {
            lines.push(word.to_owned());
        } else {
            if !lines[last].is_empty() {
                lines[last].push(' ');
            }
            lines[last].push_str(word);
        }
    }
    lines
}
