//! A conversion that says how far it is, and one that is cancelled: `cargo run --example cancel`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::{Cancellation, Context, Error, Format, Progress, Stage, convert_in, profile::Profile};

/// Prints each stage.
struct Stages;

impl Progress for Stages {
    fn reached(&self, stage: Stage) {
        println!("{stage:?}");
    }
}

fn main() -> Result<(), Error> {
    let source = "# Tides\n\nHigh water at six.\n".repeat(1000);
    let convert = |progress: &dyn Progress| {
        let context = Context { progress: Some(progress), ..Context::default() };
        convert_in(source.as_bytes(), Format::Markdown, Format::Html, &Profile::fragment(), &context)
    };
    println!("{} bytes", convert(&Stages)?.bytes.len());

    // From any other thread, while the conversion runs.
    let cancellation = Cancellation::default();
    cancellation.cancel();
    match convert(&cancellation) {
        Err(Error::Cancelled) => println!("cancelled"),
        other => println!("{} bytes", other?.bytes.len()),
    }
    Ok(())
}
