//! A list of passes of one's own between reading and writing: `cargo run --example chosen_passes`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::formats::html;
use obblet::{Context, Error, Format, pipeline, profile::Profile};

fn main() -> Result<(), Error> {
    let mut profile = Profile::fragment();
    profile.set("clean.quotes=typographic")?;
    profile.set("clean.skip=lists")?;
    for pass in pipeline::passes(Format::Html, Format::Html, &profile).iter().filter(|pass| pass.runs) {
        println!("{:<16} {}", pass.name, pass.meaning);
    }

    let source = b"<p><b>High </b><b>water</b> at \"six\"<p>&nbsp;<p><font color=red>Low water</font> at noon";
    let mut doc = pipeline::read(source, Format::Html, &profile)?;
    for name in ["formatting", "spacers", "typography", "structure"] {
        pipeline::run_pass(&mut doc, name, &profile, &Context::default());
    }
    print!("\n{}\n{}", doc.dump(), html::write(&doc, &html::Options::default()).html);
    Ok(())
}
