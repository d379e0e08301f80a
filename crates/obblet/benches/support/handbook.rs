//! Long documents in Markdown, which are measured in every format.

use std::path::{Path, PathBuf};

/// The demo's documents, without those that hold raw HTML, so often that there is something to measure.
pub(crate) fn handbook() -> String {
    let mut folders = vec![Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo")];
    let mut files: Vec<PathBuf> = Vec::new();
    while let Some(folder) = folders.pop() {
        for item in std::fs::read_dir(folder).unwrap() {
            let path = item.unwrap().path();
            if path.is_dir() {
                folders.push(path);
            } else if path.extension().is_some_and(|extension| extension == "md") {
                files.push(path);
            }
        }
    }
    files.sort();
    let body = |text: String| text.split_once("\n---\n").map_or(text.clone(), |(_, body)| body.to_owned());
    let texts: Vec<String> =
        files.iter().map(|file| body(std::fs::read_to_string(file).unwrap())).filter(|text| !text.contains("</")).collect();
    texts.join("\n\n").repeat(20)
}

/// Paragraphs and headings, with a little emphasis.
pub(crate) fn prose() -> String {
    let words: Vec<String> =
        handbook().split(|c: char| !c.is_alphabetic()).filter(|word| word.len() > 1).map(str::to_owned).collect();
    let line = |words: &[String]| words.join(" ");
    words
        .chunks(90)
        .enumerate()
        .map(|(number, words)| {
            let heading = if number % 6 == 0 { format!("## {}\n\n", line(&words[..words.len().min(4)])) } else { String::new() };
            heading
                + &words.chunks(13).map(line).collect::<Vec<_>>().join("\n").replacen(' ', " *", 1).replacen('\n', "*\n", 1)
                + "\n\n"
        })
        .collect()
}
