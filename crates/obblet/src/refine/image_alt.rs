//! Alternative texts of images that are the names of their files.

use crate::document::{Document, Finding, Kind, NodeId, Text};

/// Extensions of the files of images.
const EXTENSIONS: [&str; 13] = ["png", "jpg", "jpeg", "gif", "svg", "webp", "avif", "bmp", "tif", "tiff", "emf", "wmf", "heic"];

/// An alternative text that is the name of a file says nothing: it counts as none.
pub fn drop_file_names(doc: &mut Document) {
    let found: Vec<(NodeId, Text)> = doc
        .nodes()
        .filter_map(|(id, node)| match node.kind() {
            Kind::Image { src, alt } if node.parent().is_some() && is_name_of(doc, src, alt) => Some((id, src)),
            _ => None,
        })
        .collect();
    let Some(&(first, _)) = found.first() else { return };
    let message = format!("images whose alt text was the name of a file: {}", found.len());
    let finding = Finding::changed("image.file-name", message).at(doc.place(first));
    doc.push_finding(finding.hint("describe what they show in their alt text"));
    for (id, src) in found {
        doc.set_kind(id, Kind::Image { src, alt: Text::EMPTY });
    }
}

/// Whether an alternative text is the name of the image's file, or of any.
fn is_name_of(doc: &Document, src: Text, alt: Text) -> bool {
    let (alt, src) = (doc.text(alt).trim(), doc.text(src));
    if alt.is_empty() {
        return false;
    }
    let name = src.split(['?', '#']).next().unwrap_or(src).rsplit(['/', '\\']).next().unwrap_or(src);
    is_file_name(alt) || alt.eq_ignore_ascii_case(name)
}

/// Whether a text is a path or the name of the file of an image.
fn is_file_name(text: &str) -> bool {
    let Some((stem, extension)) = text.rsplit_once('.') else { return false };
    let is_path = text.contains(['/', '\\']);
    EXTENSIONS.iter().any(|known| known.eq_ignore_ascii_case(extension))
        && !stem.trim().is_empty()
        && (is_path || stem.split_whitespace().count() <= MOST_WORDS)
        && stem
            .chars()
            .all(|c| c.is_alphanumeric() || matches!(c, ' ' | '_' | '-' | '.' | '(' | ')' | '/' | '\\' | ':' | '%' | '~'))
}

/// The name of a file rarely has more words; a sentence that ends with one does.
const MOST_WORDS: usize = 4;

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_of_files_are_told_from_what_people_write() {
        for name in ["DSC_0041.JPG", "C:\\Pictures of May\\the old well.bmp", "../img/logo (2).svg", "image 3.png"] {
            assert!(is_file_name(name), "{name}");
        }
        for words in ["The old well", ".png", "The well, as in well.png", "He drew all of it on a page of well.png", "v2.1"] {
            assert!(!is_file_name(words), "{words}");
        }
    }
}
