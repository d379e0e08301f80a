//! From file to file, with its images and its findings: `cargo run --example file -- guide.md guide.html`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::{Context, Format, convert_in, files, files::Root, profile::Profile};
use std::error::Error;
use std::path::Path;

fn main() -> Result<(), Box<dyn Error>> {
    let mut arguments = std::env::args().skip(1);
    let source = arguments.next().unwrap_or_else(|| "demo/tides/tables.md".to_owned());
    let output = arguments.next().unwrap_or_else(|| "tables.html".to_owned());
    let (source, output) = (Path::new(&source), Path::new(&output));
    let extension = |path: &Path| path.extension().and_then(|extension| extension.to_str()).and_then(Format::from_extension);
    let reads = extension(source).ok_or("the extension of the source names no format")?;
    let writes = extension(output).ok_or("the extension of the output names no format")?;

    let mut profile = Profile::built_in("page")?;
    profile.set("page.look=folio")?;
    let root = Root::open(source.parent().unwrap_or(Path::new(".")))?;
    let context = Context {
        name: output.file_stem().and_then(|stem| stem.to_str()).unwrap_or_default(),
        media: Some(&root),
        output: output.parent(),
        ..Context::default()
    };
    let converted = convert_in(&files::read_named(source, profile.limits.source)?, reads, writes, &profile, &context)?;
    for file in &converted.files {
        files::write_whole(&output.with_file_name(&file.path), &file.bytes)?;
    }
    files::write_whole(output, &converted.bytes)?;
    for finding in &converted.findings {
        println!("{} {}: {}", finding.place, finding.weight.word(), finding.message);
    }
    println!("{} is in {}", converted.title, output.display());
    Ok(())
}
