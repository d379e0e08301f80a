//! What each document becomes: the name of its output.

use super::paths;
use super::tree::Found;
use crate::document::Finding;
use crate::formats::Format;
use crate::map::HashMap;

/// What a document becomes.
#[derive(Clone, Debug)]
pub(super) struct Named {
    pub(super) output: String,
    /// What there is to say of its name.
    pub(super) finding: Option<Finding>,
}

/// A name that means one file wherever the case of letters makes no difference.
pub(super) fn folded(path: &str) -> String {
    if path.is_ascii() { path.to_ascii_lowercase() } else { path.to_lowercase() }
}

/// Gives each document the name of its output: its own with another extension. A readme is the front page of its folder,
/// unless the folder has one. Where two documents would become one file, or files that differ only by the case of letters,
/// the second in the order of their names gets a name of its own.
pub(super) fn name_all(documents: &[Found], writes: Format) -> Vec<Named> {
    let extension = writes.extensions()[0];
    let in_folder = |path: &str, name: &str| {
        let folder = paths::folder(path);
        let mut output = String::with_capacity(folder.len() + name.len() + extension.len() + 2);
        if !folder.is_empty() {
            output.push_str(folder);
            output.push('/');
        }
        output.push_str(name);
        output.push('.');
        output.push_str(extension);
        output
    };
    let plain: Vec<String> = documents.iter().map(|found| in_folder(&found.path, paths::stem(&found.path).0)).collect();
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
        let is_readme = writes == Format::Html && paths::stem(&found.path).0.eq_ignore_ascii_case("readme");
        let as_front = is_readme.then(|| in_folder(&found.path, "index"));
        if let Some(as_front) = as_front.filter(|front| !wanted.contains_key(folded(front).as_str())) {
            output = as_front;
            own_name = Some(folded(&output));
        }
        let mut finding = None;
        let other = match &own_name {
            Some(name) => taken.get(name).copied(),
            None => wanted.get(as_wanted[index].as_str()).copied().filter(|&first| first < index),
        };
        if let Some(other) = other {
            let other = &documents[other].path;
            let (stem, own) = paths::stem(&found.path);
            let folder = paths::folder(&found.path);
            let mut number = 1;
            let free = |name: &str| !taken.contains_key(folded(name).as_str()) && !wanted.contains_key(folded(name).as_str());
            let mut other_name = paths::join(folder, &format!("{stem}-{}.{extension}", own.to_lowercase()));
            while !free(&other_name) {
                number += 1;
                other_name = paths::join(folder, &format!("{stem}-{number}.{extension}"));
            }
            finding = Some(
                Finding::changed(
                    "publish.collision",
                    format!("it would become {output}, as {other} does; it becomes {other_name}"),
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
        let named = name_all(&found, Format::Html);
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
        let outputs: Vec<String> = name_all(&found[..2], Format::Text).into_iter().map(|named| named.output).collect();
        assert_eq!(outputs, ["README.txt", "Tides.txt"]);
    }
}
