//! A document that was converted, before anything of it is written.

use super::hash::Hash;
use super::parallel::lock;
use super::paths;
use super::record::{DocumentFacts, Page};
use crate::document::Finding;
use crate::error::{Error, PublishError};
use crate::fast_hash::HashMap;
use crate::files::{self, Root};
use crate::page::Content;
use crate::picture;
use serde::{Deserialize, Serialize};
use std::fs::File;
use std::io::{BufRead, BufReader, Read, Seek, SeekFrom, Write};
use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex};

/// What one output of a document holds.
#[derive(Clone, Debug, Serialize, Deserialize)]
#[serde(rename_all = "lowercase")]
pub(super) enum Body {
    /// A page that its frame is not around yet.
    Page(Box<Content>),
    /// A document that is finished.
    Bytes(#[serde(with = "hexadecimal")] Vec<u8>),
}

/// A file that was made of a part of the document.
#[derive(Clone, Debug, Serialize, Deserialize)]
pub(super) struct Extra {
    pub(super) path: String,
    #[serde(with = "hexadecimal")]
    pub(super) bytes: Vec<u8>,
}

/// A document that was converted.
#[derive(Clone, Debug, Serialize, Deserialize)]
pub(super) struct Rendered {
    pub(super) source: String,
    pub(super) hash: Hash,
    pub(super) settings: Hash,
    pub(super) uses: Vec<(String, Hash)>,
    /// Files that it includes, in the same way.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) includes: Vec<(String, Hash)>,
    pub(super) facts: DocumentFacts,
    /// One for each page of the facts.
    pub(super) bodies: Vec<Body>,
    pub(super) extras: Vec<Extra>,
    pub(super) findings: Vec<Finding>,
    /// What its links led to when it was converted.
    pub(super) leads: Hash,
    /// How long it took, in microseconds; nothing where nobody looks at a clock.
    #[serde(skip)]
    pub(super) time: u64,
}

impl Rendered {
    fn weight(&self) -> usize {
        let bodies = self.bodies.iter().map(|body| match body {
            Body::Page(content) => content.body.len() + content.rules.len() + content.headings.len() * 64,
            Body::Bytes(bytes) => bytes.len(),
        });
        bodies.sum::<usize>() + self.extras.iter().map(|extra| extra.bytes.len()).sum::<usize>() + 512
    }

    /// What is wrong with it as the piece of a document, for it may come from a stranger: whether it would write anything but
    /// the pages of the document and pictures beside them. Where a document may write to is in its output's folder.
    pub(super) fn fault(&self, output: &str) -> Option<String> {
        let (folder, (stem, extension)) = (paths::folder(output), paths::stem(output));
        let is_page = |page: &Page| {
            let (of, name) = (paths::folder(&page.output), paths::stem(&page.output));
            page.output == output || (of == folder && name.0.starts_with(stem) && name.1 == extension)
        };
        if self.bodies.is_empty() || self.bodies.len() != self.facts.pages.len() || !self.facts.pages.iter().all(is_page) {
            return Some(format!("its pages are not those of {}", self.source));
        }
        let is_file = |extra: &Extra| {
            let below = folder.is_empty() || extra.path.strip_prefix(folder).is_some_and(|rest| rest.starts_with('/'));
            let fits = match extra.path.rsplit_once('.') {
                Some((_, "css" | "emf" | "wmf" | "bin")) => true,
                _ => picture::Kind::of(&extra.bytes).is_some_and(|kind| kind.fits(&extra.path)),
            };
            below && fits && paths::is_plain(&extra.path)
        };
        if let Some(extra) = self.extras.iter().find(|extra| !is_file(extra)) {
            return Some(format!("{} is no image of {}", extra.path, self.source));
        }
        let uses_others = self.uses.iter().chain(&self.includes).any(|(path, _)| !paths::is_plain(path));
        uses_others.then(|| format!("{} shows files outside of the folder", self.source))
    }

    /// The line that stands for it in a file.
    pub(super) fn line(&self) -> Result<Vec<u8>, Error> {
        let mut line = serde_json::to_vec(self).map_err(|error| Error::Internal { message: error.to_string() })?;
        line.push(b'\n');
        Ok(line)
    }
}

/// RenderedStore that are kept until all of them are there: in memory as long as they are few, then in files.
#[derive(Debug, Default)]
pub(super) struct RenderedStore {
    kept: Mutex<Kept>,
    budget: usize,
    /// Where files for them are made: a folder, or one that will be.
    folder: PathBuf,
}

#[derive(Debug, Default)]
struct Kept {
    memory: HashMap<usize, Box<Rendered>>,
    weight: usize,
    files: Vec<File>,
    /// File, beginning and length of a line.
    lines: HashMap<usize, (usize, u64, u64)>,
    /// The file that pieces go to for which there is no room, and its length.
    overflow: Option<(usize, u64)>,
}

impl RenderedStore {
    /// A store that keeps so many bytes in memory, and the others in a file without a name in a folder, or in the nearest one
    /// above it that is there.
    pub(super) fn new(budget: usize, folder: &Path) -> Self {
        Self { kept: Mutex::default(), budget, folder: folder.to_owned() }
    }

    /// Keeps the piece of a document.
    pub(super) fn put(&self, index: usize, rendered: Rendered) -> Result<(), Error> {
        let weight = rendered.weight();
        let mut kept = lock(&self.kept);
        if kept.weight + weight <= self.budget {
            kept.weight += weight;
            kept.lines.remove(&index);
            if let Some(before) = kept.memory.insert(index, Box::new(rendered)) {
                kept.weight -= before.weight();
            }
            return Ok(());
        }
        let fail = |cause| Error::File { path: self.folder.display().to_string(), cause };
        let line = rendered.line()?;
        let (file, at) = match kept.overflow {
            Some(overflow) => overflow,
            None => {
                kept.files.push(files::scratch(&self.folder).map_err(fail)?);
                (kept.files.len() - 1, 0)
            }
        };
        kept.files[file].seek(SeekFrom::End(0)).map_err(fail)?;
        kept.files[file].write_all(&line).map_err(fail)?;
        kept.overflow = Some((file, at + line.len() as u64));
        if let Some(before) = kept.memory.remove(&index) {
            kept.weight -= before.weight();
        }
        kept.lines.insert(index, (file, at, line.len() as u64));
        Ok(())
    }

    /// The piece of a document, which is not kept any longer.
    pub(super) fn take(&self, index: usize) -> Result<Option<Rendered>, Error> {
        let mut kept = lock(&self.kept);
        if let Some(rendered) = kept.memory.remove(&index) {
            kept.weight -= rendered.weight();
            return Ok(Some(*rendered));
        }
        let Some((file, at, length)) = kept.lines.remove(&index) else { return Ok(None) };
        let mut line = vec![0; usize::try_from(length).unwrap_or(0)];
        let fail = |cause| Error::File { path: "a file of rendered documents".to_owned(), cause };
        kept.files[file].seek(SeekFrom::Start(at)).map_err(fail)?;
        kept.files[file].read_exact(&mut line).map_err(fail)?;
        drop(kept);
        serde_json::from_slice(&line).map(Some).map_err(|error| Error::Internal { message: error.to_string() })
    }

    /// Takes up the pieces of a file that a slice wrote; `found` says which document each is for, if any.
    pub(super) fn load(
        &self,
        (root, name): (&Root, &str),
        mut found: impl FnMut(&Rendered) -> Result<Option<usize>, String>,
    ) -> Result<(), Error> {
        let path = || root.path().join(name).display().to_string();
        let fail = |cause| Error::File { path: path(), cause };
        let file = root.open_file(name.as_ref()).map_err(fail)?.into_std();
        let mut reader = BufReader::new(file.try_clone().map_err(fail)?);
        let mut kept = lock(&self.kept);
        kept.files.push(file);
        let number = kept.files.len() - 1;
        let (mut at, mut line) = (0, Vec::new());
        loop {
            line.clear();
            let length = (&mut reader).take(LONGEST_LINE).read_until(b'\n', &mut line).map_err(fail)? as u64;
            if length == 0 {
                return Ok(());
            }
            let wrong = |message: String| PublishError::Slice { path: path(), message };
            let rendered: Rendered = serde_json::from_slice(&line).map_err(|error| wrong(error.to_string()))?;
            if let Some(index) = found(&rendered).map_err(wrong)? {
                kept.lines.insert(index, (number, at, length));
            }
            at += length;
        }
    }
}

/// A document takes no more than this in the file of a slice, in bytes.
const LONGEST_LINE: u64 = 1 << 30;

/// DocumentFacts of a document that may be asked for while documents are converted.
pub(super) type FactsByIndex = Vec<Option<Arc<DocumentFacts>>>;

mod hexadecimal {
    use serde::{Deserialize, Deserializer, Serializer};

    pub(super) fn serialize<S: Serializer>(bytes: &[u8], serializer: S) -> Result<S::Ok, S::Error> {
        const DIGITS: &[u8; 16] = b"0123456789abcdef";
        let digit = |half: u8| char::from(DIGITS[usize::from(half)]);
        let text: String = bytes.iter().flat_map(|byte| [digit(byte >> 4), digit(byte & 15)]).collect();
        serializer.serialize_str(&text)
    }

    pub(super) fn deserialize<'de, D: Deserializer<'de>>(deserializer: D) -> Result<Vec<u8>, D::Error> {
        let text = String::deserialize(deserializer)?;
        let digits: Option<Vec<u8>> =
            text.chars().map(|digit| digit.to_digit(16).and_then(|digit| u8::try_from(digit).ok())).collect();
        let digits = digits.ok_or_else(|| serde::de::Error::custom("hexadecimal digits are wanted"))?;
        Ok(digits.chunks(2).map(|pair| pair.iter().fold(0, |byte, half| byte << 4 | half)).collect())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn rendered(source: &str, text: &str) -> Rendered {
        Rendered {
            source: source.to_owned(),
            hash: Hash::of(text.as_bytes()),
            settings: Hash::NOTHING,
            uses: Vec::new(),
            includes: Vec::new(),
            facts: DocumentFacts { title: source.to_owned(), ..DocumentFacts::default() },
            bodies: vec![Body::Bytes(text.as_bytes().to_vec())],
            extras: vec![Extra { path: "a.png".to_owned(), bytes: vec![0, 1, 254, 255] }],
            findings: vec![Finding::lost("a.code", "a message")],
            leads: Hash::NOTHING,
            time: 0,
        }
    }

    #[test]
    fn pieces_come_back_from_memory_and_from_files_alike() {
        let place = tempfile::tempdir().unwrap();
        for budget in [0, 1200, 1 << 20] {
            let store = RenderedStore::new(budget, &place.path().join("not/there"));
            for (index, text) in [(0, "first"), (1, "second"), (2, "third"), (1, "second again")] {
                store.put(index, rendered(&format!("{index}.md"), text)).unwrap();
            }
            for (index, text) in [(2, "third"), (0, "first"), (1, "second again")] {
                let found = store.take(index).unwrap().unwrap();
                assert_eq!(format!("{found:?}"), format!("{:?}", rendered(&format!("{index}.md"), text)), "{budget}");
                assert!(store.take(index).unwrap().is_none());
            }
            assert_eq!(lock(&store.kept).weight, 0, "{budget}");
            assert_eq!(std::fs::read_dir(place.path()).unwrap().count(), 0, "no file has a name");
        }
    }
}
