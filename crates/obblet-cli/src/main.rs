//! The `obblet` command: arguments, messages and exit codes. All conversion is the library's.

mod arguments;
mod commands;
mod failure;
mod indentation;
mod messages;
mod progress;
mod report;
mod watch;

use clap::Parser;
use std::process::ExitCode;

/// How a command ended.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Outcome {
    /// Everything was done.
    Done = 0,
    /// Something could not be converted.
    Failed = 1,
    /// The command was used wrongly.
    Misused = 2,
    /// There are findings of the weight that was asked to fail, or differences.
    Found = 3,
}

fn main() -> ExitCode {
    let arguments = arguments::Arguments::parse();
    let outcome = match &arguments.command {
        arguments::Command::Convert(convert) => commands::convert::run(convert),
        arguments::Command::Publish(publish) => commands::publish::run(publish),
        arguments::Command::Inspect(inspect) => commands::inspect::run(inspect),
        arguments::Command::Compare(compare) => commands::compare::run(compare),
        arguments::Command::Profile(profile) => commands::profile::run(profile),
        arguments::Command::Demo(demo) => commands::demo::run(demo),
    };
    ExitCode::from(outcome as u8)
}
