//! Many documents on several threads, with one profile: `cargo run --example threads`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::{Context, Error, Format, Shared, convert_in, profile::Profile};
use std::thread;

fn main() -> Result<(), Error> {
    let profile = Profile::built_in("page")?;
    // What pages share, such as templates that are ready, is made once.
    let shared = Shared::default();
    let documents: Vec<String> = (1..=8).map(|day| format!("# Day {day}\n\nHigh water at {day}:12.\n")).collect();
    let convert = |source: &String| {
        let context = Context { shared: Some(&shared), ..Context::default() };
        convert_in(source.as_bytes(), Format::Markdown, Format::Html, &profile, &context)
    };
    let pages = thread::scope(|scope| {
        let threads: Vec<_> = documents.iter().map(|source| scope.spawn(move || convert(source))).collect();
        threads.into_iter().filter_map(|thread| thread.join().ok()).collect::<Result<Vec<_>, _>>()
    })?;
    for page in &pages {
        println!("{}: {} bytes, anchors {:?}", page.title, page.bytes.len(), page.anchors.ids);
    }
    Ok(())
}
