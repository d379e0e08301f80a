//! Any bytes, as the file of a slice: what is joined from it writes pages of the documents and pictures beside them, and nothing else.
#![no_main]

use obblet::profile::{Layers, Profile};
use obblet::publish::{Options, Plan, Progress, RECORD_FILE, Step, UNFINISHED_FILE};
use std::path::Path;

struct Silent;
impl Progress for Silent {
    fn step(&mut self, _: &Step<'_>) {}
}

fn options() -> Option<Options> {
    let mut options = Options::new(Layers::new(Profile::built_in("page").ok()?));
    options.jobs = 1;
    Some(options)
}

/// The names of all files below a folder.
fn names(folder: &Path, names: &mut Vec<String>) {
    for entry in std::fs::read_dir(folder).into_iter().flatten().flatten() {
        if entry.path().is_dir() {
            self::names(&entry.path(), names);
        } else {
            names.push(entry.path().to_string_lossy().into_owned());
        }
    }
}

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let Ok(place) = tempfile::tempdir() else { return };
    let (source, output) = (place.path().join("source"), place.path().join("output"));
    for (path, text) in
        [("source/log/a.md", "# A\n"), ("source/b.md", "# B\n"), ("source/.env", "SECRET"), ("source/x.gif", "GIF89a")]
    {
        let full = place.path().join(path);
        let _ = std::fs::create_dir_all(full.parent().unwrap_or(place.path()));
        let _ = std::fs::write(full, text);
    }
    // What is in quotation marks after the name of a source is put in place of what a real slice says, so that most is believed.
    let name = "obblet-slice-1-of-1.jsonl";
    let Some(mut slice) = options() else { return };
    slice.slice = Some((1, 1));
    let Ok(plan) = Plan::new(&source, &output, slice) else { return };
    let _ = plan.run(&mut Silent);
    let real = std::fs::read(output.join(name)).unwrap_or_default();
    let _ = std::fs::remove_dir_all(&output);
    let (text, at) = match bytes.split_first() {
        Some((&at, rest)) if at > 0 => (rest, usize::from(at) * real.len() / 256),
        _ => (bytes, real.len()),
    };
    let cut = text.first().map_or(0, |byte| usize::from(*byte));
    let forged =
        if at == real.len() { text.to_vec() } else { [&real[..at], text, real.get(at + cut..).unwrap_or_default()].concat() };
    let elsewhere = place.path().join("elsewhere");
    let _ = std::fs::create_dir(&elsewhere);
    let _ = std::fs::write(elsewhere.join(name), forged);
    let mut before = Vec::new();
    names(place.path(), &mut before);
    let Some(mut join) = options() else { return };
    join.join = vec![elsewhere];
    let Ok(plan) = Plan::new(&source, &output, join) else { return };
    let _ = plan.run(&mut Silent);
    let mut after = Vec::new();
    names(place.path(), &mut after);
    for path in after.iter().filter(|path| !before.contains(path)) {
        let inner = Path::new(path).strip_prefix(&output).unwrap_or_else(|_| panic!("{path}"));
        let text = inner.to_string_lossy();
        let is_page = text == "b.html" || text.starts_with("b--") || text.starts_with("log/a");
        let is_known = is_page || [RECORD_FILE, UNFINISHED_FILE, "look-chart.css", "x.gif"].contains(&&*text);
        let ends =
            ["html", "css", "gif", "png", "jpg", "jpeg", "webp", "avif", "bmp", "tif", "svg", "emf", "wmf", "bin", "jsonl"];
        let extension = inner.extension().unwrap_or_default().to_string_lossy().into_owned();
        assert!(is_known || ends.contains(&&*extension), "{path}");
    }
});
