//! What each document becomes: the name of its output.

use super::paths;
use super::tree::Found;
use crate::document::Finding;
use crate::fast_hash::{HashMap, HashSet};
use crate::file_name::shortened;
use crate::formats::Format;
use std::collections::BTreeSet;
use unicode_normalization::UnicodeNormalization;

/// What a document becomes.
#[derive(Clone, Debug)]
pub(super) struct Named {
    pub(super) output: String,
    /// What there is to say of its name.
    pub(super) finding: Option<Finding>,
}

/// A name that means one file wherever the case of letters makes no difference, nor the way in which letters with accents are
/// composed (Unicode Standard Annex 15).
pub(super) fn folded(path: &str) -> String {
    if path.is_ascii() { path.to_ascii_lowercase() } else { path.nfc().flat_map(char::to_lowercase).collect() }
}

/// A name of an output has no more bytes than this, so that parts of documents have room for their own names behind it; of a
/// longer one, as much stays.
const LONGEST: usize = 240;

/// Gives each document the name of its output: its own with another extension. A readme is the front page of its folder,
/// unless the folder has one. Where two documents would become one file, or files that only some systems can tell apart, or one
/// would have the name of a folder, the second in the order of their names gets a name of its own.
pub(super) fn name_all(documents: &[Found], others: &BTreeSet<String>, writes: Format) -> Vec<Named> {
    let extension = writes.extensions()[0];
    let in_folder = |path: &str, name: &str| {
        let folder = paths::folder(path);
        let mut output = String::with_capacity(folder.len() + name.len() + extension.len() + 2);
        if !folder.is_empty() {
            output.push_str(folder);
            output.push('/');
        }
        output.push_str(if name.len() + extension.len() < LONGEST { name } else { shortened(name, LONGEST - 40) });
        output.push('.');
        output.push_str(extension);
        output
    };
    let folders = folders_called(&format!(".{extension}"), documents, others);
    let plain: Vec<String> = documents.iter().map(|found| in_folder(&found.path, found.stem())).collect();
    let as_wanted: Vec<String> = plain.iter().map(|output| folded(output)).collect();
    let mut wanted: HashMap<&str, usize> = HashMap::with_capacity_and_hasher(documents.len(), Default::default());
    for (index, output) in as_wanted.iter().enumerate() {
        wanted.entry(output).or_insert(index);
    }
    // Names that documents have which are not those they wanted.
    let mut taken: HashMap<String, usize> = HashMap::default();
    let mut named: Vec<Named> = Vec::with_capacity(documents.len());
    for (index, (found, mut output)) in documents.iter().zip(plain).enumerate() {
        // What it gets instead of the name that it wanted.
        let mut own_name = None;
        let is_readme = writes == Format::Html && found.stem().eq_ignore_ascii_case("readme");
        let as_front = is_readme.then(|| in_folder(&found.path, "index"));
        if let Some(as_front) = as_front.filter(|front| !wanted.contains_key(folded(front).as_str())) {
            output = as_front;
            own_name = Some(folded(&output));
        }
        let is_short = paths::name(&output).len() < found.stem().len();
        let mut finding = is_short.then(|| {
            Finding::changed("publish.long-name", format!("the name of its page would be too long; it becomes {output}"))
                .hint("give it a shorter name")
        });
        let other = match &own_name {
            Some(name) => taken.get(name).copied(),
            None => wanted.get(as_wanted[index].as_str()).copied().filter(|&first| first < index),
        };
        let other = other.map(|other| documents[other].path.as_str());
        let folder_of_its_name = || folders.contains(as_wanted[index].as_str()).then_some("the folder of that name");
        let is_folder = other.is_none();
        if let Some(other) = other.or_else(folder_of_its_name) {
            let (_, own) = paths::stem(&found.path);
            let folder = paths::folder(&found.path);
            let mut number = 1;
            let stem = shortened(found.stem(), LONGEST - 40);
            let free = |name: &str| {
                let name = folded(name);
                !taken.contains_key(name.as_str()) && !wanted.contains_key(name.as_str()) && !folders.contains(name.as_str())
            };
            let mut other_name = paths::join(folder, &format!("{stem}-{}.{extension}", own.to_lowercase()));
            while !free(&other_name) {
                number += 1;
                other_name = paths::join(folder, &format!("{stem}-{number}.{extension}"));
            }
            finding = Some(
                Finding::changed(
                    "publish.collision",
                    format!(
                        "it would become {output}, as {other} {}; it becomes {other_name}",
                        if is_folder { "is" } else { "does" }
                    ),
                )
                .hint("rename one of the two"),
            );
            output = other_name;
            own_name = Some(folded(&output));
        }
        if let Some(name) = own_name {
            taken.insert(name, index);
        }
        named.push(Named { output, finding });
    }
    named
}

/// Folders of the output whose names end like those of pages, as names fold.
fn folders_called(ending: &str, documents: &[Found], others: &BTreeSet<String>) -> HashSet<String> {
    let mut found = HashSet::default();
    for path in documents.iter().map(|found| &found.path).chain(others) {
        let mut folder = paths::folder(path);
        while !folder.is_empty() {
            let name = paths::name(folder);
            if name.len() > ending.len() && folded(name).ends_with(ending) {
                found.insert(folded(folder));
            }
            folder = paths::folder(folder);
        }
    }
    found
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_two_documents_become_one_file() {
        let paths = [
            "README.md",
            "Tides.md",
            "a/README.md",
            "a/index.html",
            "b/readme.markdown",
            "b/readme.md",
            "tides.docx",
            "tides.md",
        ];
        let found: Vec<Found> = paths.iter().map(|path| Found::new((*path).to_owned(), Format::Markdown)).collect();
        let named = name_all(&found, &BTreeSet::new(), Format::Html);
        let outputs: Vec<&str> = named.iter().map(|named| named.output.as_str()).collect();
        assert_eq!(
            outputs,
            [
                "index.html",
                "Tides.html",
                "a/README.html",
                "a/index.html",
                "b/index.html",
                "b/readme-md.html",
                "tides-docx.html",
                "tides-md.html"
            ]
        );
        assert!(named[6].finding.as_ref().unwrap().message.contains("as Tides.md does"));
        let outputs: Vec<String> =
            name_all(&found[..2], &BTreeSet::new(), Format::Text).into_iter().map(|named| named.output).collect();
        assert_eq!(outputs, ["README.txt", "Tides.txt"]);
        // What a document says itself is what it wants.
        let mut found = found;
        found[7].own_name = Some("low-water".to_owned());
        found[1].own_name = Some("readme".to_owned());
        let named = name_all(&found, &BTreeSet::new(), Format::Html);
        assert_eq!([&*named[0].output, &*named[1].output, &*named[7].output], ["index.html", "readme-md.html", "low-water.html"]);
    }
    #[test]
    fn names_that_only_some_systems_tell_apart_are_one() {
        let long = format!("{}.md", "ö".repeat(126));
        let paths = ["caf\u{E9}.md", "cafe\u{301}.md", "b.md", "b.html/x.md", "c.md", long.as_str()];
        let found: Vec<Found> = paths.iter().map(|path| Found::new((*path).to_owned(), Format::Markdown)).collect();
        let named = name_all(&found, &BTreeSet::from(["C.html/a.png".to_owned()]), Format::Html);
        let outputs: Vec<&str> = named.iter().map(|named| named.output.as_str()).collect();
        assert_eq!(outputs[..5], ["caf\u{E9}.html", "cafe\u{301}-md.html", "b-md.html", "b.html/x.html", "c-md.html"]);
        assert!(outputs[5].len() < 255 && named[5].finding.is_some());
        assert!(named[2].finding.as_ref().unwrap().message.contains("as the folder of that name is"));
    }
}
