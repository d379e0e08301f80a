//! Any bytes, as what an earlier run left in an output: nothing outside of the output is written, removed or packed.
#![no_main]

use obblet::profile::{Layers, Profile};
use obblet::publish::{Options, Plan, Progress, RECORD_FILE, Step, UNFINISHED_FILE, archive};
use std::path::Path;

struct Silent;
impl Progress for Silent {
    fn step(&mut self, _: &Step<'_>) {}
}

/// The files of a folder and their bytes.
fn files(folder: &Path) -> Vec<(String, Vec<u8>)> {
    let mut files: Vec<_> = std::fs::read_dir(folder)
        .into_iter()
        .flatten()
        .flatten()
        .filter(|entry| entry.path().is_file())
        .map(|entry| (entry.file_name().to_string_lossy().into_owned(), std::fs::read(entry.path()).unwrap_or_default()))
        .collect();
    files.sort();
    files
}

/// Lines with a check sum behind each, so that they are believed.
fn checked(bytes: &[u8]) -> Vec<u8> {
    let mut out = Vec::new();
    for line in bytes.split(|byte| *byte == b'\n') {
        let line = [line, b"\n"].concat();
        out.extend_from_slice(&line);
        out.extend_from_slice(format!("{{\"check\":\"{}\"}}\n", &blake3::hash(&line).to_hex()[..32]).as_bytes());
    }
    out
}

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let Some((&first, rest)) = bytes.split_first() else { return };
    let Ok(place) = tempfile::tempdir() else { return };
    let (source, output) = (place.path().join("source"), place.path().join("output"));
    for (path, text) in
        [("source/a.md", "# A\n\n![x](x.gif)\n"), ("source/x.gif", "GIF89a"), ("source/.env", "SECRET"), ("victim", "SECRET")]
    {
        let full = place.path().join(path);
        let _ = std::fs::create_dir_all(full.parent().unwrap_or(place.path()));
        let _ = std::fs::write(full, text);
    }
    let _ = std::fs::create_dir(&output);
    let _ = std::fs::write(output.join("mine.txt"), "mine");
    if first & 1 == 0 {
        let lines = &blake3::hash(rest).to_hex()[..32];
        let head = format!("{{\"record\":{{\"version\":1,\"program\":\"\",\"folder\":\"\",\"lines\":\"{lines}\"}}}}\n");
        let _ = std::fs::write(output.join(RECORD_FILE), [head.as_bytes(), rest].concat());
    } else {
        let _ = std::fs::write(output.join(UNFINISHED_FILE), if first & 2 == 0 { checked(rest) } else { rest.to_vec() });
    }
    let before = (files(&source), files(place.path()));
    let packed = output.join("packed.zip");
    let _ = archive(&output, &packed);
    if let Some(Ok(packed)) = std::fs::File::open(&packed).ok().map(zip::ZipArchive::new) {
        for name in packed.file_names().flatten() {
            assert!(!name.contains("..") && !name.starts_with('/') && !name.contains('\\'), "{name}");
        }
    }
    let _ = std::fs::remove_file(&packed);
    let Ok(profile) = Profile::built_in("page") else { return };
    let mut options = Options::new(Layers::new(profile));
    (options.prune, options.force, options.jobs) = (first & 4 != 0, first & 8 != 0, 1);
    if let Ok(plan) = Plan::new(&source, &output, options) {
        let _ = plan.run(&mut Silent);
    }
    assert_eq!((files(&source), files(place.path())), before);
    assert_eq!(std::fs::read(output.join("mine.txt")).ok().as_deref(), Some(&b"mine"[..]));
    let page = std::fs::read(output.join("a.html")).unwrap_or_default();
    assert!(page.windows(6).all(|part| part != b"SECRET"));
});
