//! One line from Markdown to HTML: `cargo run --example one_line`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::{Error, Format, convert, profile::Profile};

fn main() -> Result<(), Error> {
    let source = "High water at **06:12**, low water at 12:30.[^clock]\n\n[^clock]: By the pier clock.\n";
    let converted = convert(source.as_bytes(), Format::Markdown, Format::Html, &Profile::fragment())?;
    print!("{}", converted.text().unwrap_or_default());
    Ok(())
}
