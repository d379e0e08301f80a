//! Pages that other programs wrote, as many as there are in the folder that `OBBLET_CORPUS` names: none may crash a reader or a
//! writer, and no word of them may be lost without a finding.

use super::conservation::{self, shown};
use super::validity;
use obblet::profile::Profile;
use obblet::{Context, Format};
use std::path::{Path, PathBuf};

fn pages(folder: &Path) -> Vec<PathBuf> {
    let mut pages = Vec::new();
    let mut folders = vec![folder.to_owned()];
    while let Some(folder) = folders.pop() {
        for entry in std::fs::read_dir(folder).into_iter().flatten().flatten() {
            let path = entry.path();
            if path.is_dir() {
                folders.push(path);
            } else if path.extension().is_some_and(|extension| extension == "html" || extension == "htm") {
                pages.push(path);
            }
        }
    }
    pages.sort();
    pages
}

/// Takes the pages of the folder through all formats; what went wrong is in the error.
pub fn no_word_is_lost() -> Result<(), String> {
    let folder = std::env::var_os("OBBLET_CORPUS").ok_or("OBBLET_CORPUS names no folder")?;
    let every: usize = std::env::var("OBBLET_CORPUS_EVERY").ok().and_then(|number| number.parse().ok()).unwrap_or(1);
    let profile = Profile::built_in("fragment").unwrap();
    let (mut count, mut wrong) = (0, Vec::new());
    for path in pages(Path::new(&folder)).into_iter().step_by(every) {
        let bytes = std::fs::read(&path).unwrap();
        let Ok(source) = std::str::from_utf8(&bytes) else { continue };
        count += 1;
        let doc = obblet::read(&bytes, Format::Html, &profile).unwrap();
        let html = obblet::write(doc.clone(), Format::Html, &profile, &Context::default()).unwrap();
        let faults = validity::faults(html.text().unwrap());
        if !faults.is_empty() {
            wrong.push(format!("{}: {:?}", path.display(), &faults[..faults.len().min(3)]));
        }
        let written = obblet::write(doc, Format::Markdown, &profile, &Context::default()).unwrap();
        let again = obblet::read(written.text().unwrap().as_bytes(), Format::Markdown, &profile).unwrap();
        let back = obblet::write(again, Format::Html, &profile, &Context::default()).unwrap();
        for (name, text, findings) in
            [("html", &html.text().unwrap(), &html.findings), ("markdown", &back.text().unwrap(), &written.findings)]
        {
            let output = shown(text);
            let mut lost = conservation::lost(&shown(source), &output, findings);
            if html.text().unwrap().contains("doc-endnotes") {
                // Notes move to the end.
                let words: std::collections::HashSet<String> = conservation::words(&output).into_iter().collect();
                lost.retain(|word| !words.contains(word));
            }
            if !lost.is_empty() {
                let some = &lost[..lost.len().min(12)];
                wrong.push(format!("{} through {name}: {} words, {some:?}", path.display(), lost.len()));
            }
        }
    }
    match count {
        0 => Err("no page in the folder".to_owned()),
        _ if wrong.is_empty() => Ok(()),
        _ => Err(wrong.join("\n")),
    }
}
