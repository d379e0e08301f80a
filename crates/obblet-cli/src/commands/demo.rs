//! `obblet demo`

use crate::arguments::{Arguments, Command, Demo};
use crate::commands::publish;
use crate::failure::Failure;
use crate::progress::Log;
use crate::report::write_file;
use crate::{Outcome, messages};
use clap::Parser;
use std::ffi::OsString;
use std::path::Path;

include!(concat!(env!("OUT_DIR"), "/demo_files.rs"));

pub(crate) fn run(demo: &Demo) -> Outcome {
    match publish(demo) {
        Ok(outcome) => {
            messages::say(format_args!("open {}", messages::shown_path(&demo.folder.join("site").join("index.html"))));
            outcome
        }
        Err(Failure(outcome, message)) => messages::fail(outcome, message),
    }
}

fn publish(demo: &Demo) -> Result<Outcome, Failure> {
    let (source, output) = (demo.folder.join("handbook"), demo.folder.join("site"));
    for (path, bytes) in DEMO_FILES {
        write_file(&source.join(Path::new(path)), bytes)?;
    }
    // The command that anybody would give.
    let mut line: Vec<OsString> = vec!["obblet".into(), "publish".into(), source.into(), output.into()];
    if let Some(look) = &demo.look {
        line.extend(["--look".into(), look.into()]);
    }
    let arguments = Arguments::try_parse_from(line).map_err(|error| Failure(Outcome::Misused, error.to_string()))?;
    let Command::Publish(arguments) = arguments.command else { return Ok(Outcome::Misused) };
    publish::once(&arguments, &mut Log::default())
}
