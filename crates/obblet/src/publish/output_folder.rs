//! The folder that the output goes to: one run at a time, whole files, and nothing overwritten that somebody else wrote.

use super::hash::{self, Hash};
use super::parallel::lock;
use super::paths;
use super::record::{self, Known, Other, Output, RECORD_FILE, Record, UNFINISHED_FILE};
use crate::error::{Error, PublishError};
use crate::fast_hash::HashSet;
use crate::files::{Held, Kind, Root, TEMPORARY};
use std::fs::File;
use std::io::{BufRead, BufReader, Read, Write};
use std::path::Path;
use std::sync::Mutex;

/// What became of a file that was to be written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Put {
    /// It was written.
    Written,
    /// It holds these bytes already.
    Same,
    /// Somebody edited it, or it is somebody else's; it stays.
    Kept,
}

/// The folder that the output goes to.
pub(super) struct Target<'r> {
    root: &'r Root,
    record: &'r Record,
    force: bool,
    /// The file of the run that goes on; none where nothing is written.
    journal: Option<Mutex<File>>,
    folders: Mutex<HashSet<String>>,
}

impl<'r> Target<'r> {
    /// Takes hold of the folder. In a rehearsal nothing is written, and nobody is kept out.
    pub(super) fn open(root: &'r Root, record: &'r Record, force: bool, rehearsal: bool) -> Result<Self, Error> {
        let mut target = Self { root, record, force, journal: None, folders: Mutex::default() };
        if !rehearsal {
            let fail = |cause| Error::File { path: root.path().display().to_string(), cause };
            root.make().map_err(fail)?;
            let journal = match root.hold(UNFINISHED_FILE).map_err(|cause| target.failed(UNFINISHED_FILE, cause))? {
                Held::Ours(journal) => journal,
                Held::ByAnother => return Err(PublishError::Busy { output: root.path().display().to_string() }.into()),
            };
            if record.unfinished {
                clear_away(root);
            }
            target.journal = Some(Mutex::new(journal));
        }
        Ok(target)
    }

    /// Whether nothing is written.
    pub(super) fn is_rehearsal(&self) -> bool {
        self.journal.is_none()
    }

    /// Says which files of a document are about to be written.
    pub(super) fn announce(&self, known: &Known) -> Result<(), Error> {
        self.note(|| record::document_line(known))
    }

    /// Says which file is about to be written.
    pub(super) fn announce_other(&self, other: &Other) -> Result<(), Error> {
        self.note(|| record::other_line(other))
    }

    fn note(&self, line: impl FnOnce() -> Vec<u8>) -> Result<(), Error> {
        let Some(journal) = &self.journal else { return Ok(()) };
        let line = line();
        let mut journal = lock(journal);
        journal.write_all(&line).map_err(|cause| self.failed(UNFINISHED_FILE, cause))
    }

    fn failed(&self, path: &str, cause: std::io::Error) -> Error {
        Error::File { path: self.root.path().join(path).display().to_string(), cause }
    }

    /// What there is to know of a file that will hold these bytes.
    pub(super) fn output(path: &str, bytes: &[u8]) -> Output {
        Output { path: path.to_owned(), hash: Hash::of(bytes), size: bytes.len() as u64 }
    }

    /// What writing a file would do.
    fn compare(&self, output: &Output, content: Content<'_>) -> Result<Put, Error> {
        let path = output.path.as_ref();
        let (kind, size) = match self.root.itself(path) {
            Ok(found) => found,
            Err(error) if error.kind() == std::io::ErrorKind::NotFound => return Ok(Put::Written),
            Err(cause) => return Err(self.failed(&output.path, cause)),
        };
        match kind {
            Kind::Folder => return Err(self.failed(&output.path, std::io::ErrorKind::IsADirectory.into())),
            // Nobody but a person puts links and devices here. What they lead to is not touched.
            Kind::Link | Kind::Special => return Ok(if self.force { Put::Written } else { Put::Kept }),
            Kind::File => {}
        }
        // An empty file is what is left of one that was never written.
        if size == 0 && output.size > 0 {
            return Ok(Put::Written);
        }
        let (hash, _) = hash::of_file(self.root, path).map_err(|cause| self.failed(&output.path, cause))?;
        Ok(if hash == output.hash {
            Put::Same
        } else if self.force
            || self.record.is_ours(&output.path, hash)
            || (self.record.unfinished && size < output.size && is_torn(self.root, path, content))
        {
            Put::Written
        } else {
            Put::Kept
        })
    }

    /// Writes a file, unless somebody edited it.
    pub(super) fn put(&self, output: &Output, bytes: &[u8]) -> Result<Put, Error> {
        let put = self.compare(output, Content::Bytes(bytes))?;
        if put == Put::Written && !self.is_rehearsal() {
            self.make_folder_of(output)?;
            self.root.put(output.path.as_ref(), bytes, false).map_err(|cause| self.failed(&output.path, cause))?;
        }
        Ok(put)
    }

    /// Copies a file of the source, unless somebody edited the copy. Nothing comes of it where the file is not any more what
    /// `output` says.
    pub(super) fn put_copy(&self, output: &Output, source: &Root, path: &str) -> Result<Option<Put>, Error> {
        let put = self.compare(output, Content::Copy(source, path.as_ref()))?;
        if put == Put::Written && !self.is_rehearsal() {
            self.make_folder_of(output)?;
            let fail = |cause| self.failed(&output.path, cause);
            let mut copy = self.root.aside(output.path.as_ref()).map_err(fail)?;
            let mut failure = None;
            let copied =
                hash::of_file_to(source, path.as_ref(), |bytes| copy.write_all(bytes).map_err(|cause| failure = Some(cause)));
            if let Some(cause) = failure {
                return Err(fail(cause));
            }
            if !copied.is_ok_and(|copied| copied == (output.hash, output.size)) {
                return Ok(None);
            }
            copy.take_name(false).map_err(fail)?;
        }
        Ok(Some(put))
    }

    /// Makes the folder of an output.
    fn make_folder_of(&self, output: &Output) -> Result<(), Error> {
        let folder = paths::folder(&output.path);
        if !folder.is_empty() && !lock(&self.folders).contains(folder) {
            self.root.make_folder_of(output.path.as_ref()).map_err(|cause| self.failed(&output.path, cause))?;
            lock(&self.folders).insert(folder.to_owned());
        }
        Ok(())
    }

    /// Removes a file that an earlier run wrote, unless somebody edited it, and the folders that are empty then.
    pub(super) fn remove(&self, path: &str) -> Result<Put, Error> {
        match self.root.itself(path.as_ref()) {
            Ok((Kind::File, _)) => {}
            Ok(_) => return Ok(Put::Kept),
            Err(_) => return Ok(Put::Same),
        }
        let Ok((hash, _)) = hash::of_file(self.root, path.as_ref()) else { return Ok(Put::Same) };
        if !self.record.is_ours(path, hash) {
            return Ok(Put::Kept);
        }
        if !self.is_rehearsal() {
            self.root.remove(path.as_ref()).map_err(|cause| self.failed(path, cause))?;
            let mut folder = paths::folder(path);
            while !folder.is_empty() && self.root.remove_empty(folder.as_ref()).is_ok() {
                folder = paths::folder(folder);
            }
        }
        Ok(Put::Written)
    }

    /// Writes the record, when all files are written, and lets go of the folder.
    pub(super) fn close(self, text: &[u8], is_same: bool) -> Result<(), Error> {
        if self.is_rehearsal() {
            return Ok(());
        }
        if !is_same {
            // What the record says is on the disk, is.
            self.root.flush();
            self.root.put(RECORD_FILE.as_ref(), text, true).map_err(|cause| self.failed(RECORD_FILE, cause))?;
        }
        // Gone while it is held, so that nobody else takes hold of a file that is about to go.
        self.root.remove(UNFINISHED_FILE.as_ref()).map_err(|cause| self.failed(UNFINISHED_FILE, cause))
    }

    /// Lets go of the folder without a record of its own: what was written is known from the file of the run.
    pub(super) fn leave(self) -> Result<(), Error> {
        let is_empty = self.journal.as_ref().is_some_and(|journal| lock(journal).metadata().is_ok_and(|known| known.len() == 0));
        if is_empty {
            self.root.remove(UNFINISHED_FILE.as_ref()).map_err(|cause| self.failed(UNFINISHED_FILE, cause))?;
        }
        Ok(())
    }
}

/// What a file will hold.
#[derive(Clone, Copy)]
enum Content<'c> {
    Bytes(&'c [u8]),
    /// What a file of the source holds.
    Copy(&'c Root, &'c Path),
}

/// Whether a file is the beginning of what it should be, or nothing but zeros: so the power leaves it that goes before the disk
/// has all bytes.
fn is_torn(root: &Root, path: &Path, content: Content<'_>) -> bool {
    let look = || -> std::io::Result<bool> {
        let mut wanted: Box<dyn Read> = match content {
            Content::Bytes(bytes) => Box::new(bytes),
            Content::Copy(source, path) => Box::new(BufReader::new(source.open_file(path)?)),
        };
        let mut found = BufReader::new(root.open_file(path)?);
        let (mut begins, mut is_empty) = (true, true);
        let mut same = Vec::new();
        while begins || is_empty {
            let part = found.fill_buf()?;
            let length = part.len();
            if length == 0 {
                return Ok(true);
            }
            same.clear();
            (&mut wanted).take(length as u64).read_to_end(&mut same)?;
            begins &= same == part;
            is_empty &= part.iter().all(|byte| *byte == 0);
            found.consume(length);
        }
        Ok(false)
    };
    look().unwrap_or(false)
}

/// Removes what a run that was cut off had not given its name yet.
fn clear_away(root: &Root) {
    let mut folders = vec![String::new()];
    while let Some(at) = folders.pop() {
        let Ok(entries) = root.entries(at.as_ref()) else { continue };
        for (name, kind) in entries.flatten() {
            let Some(name) = name.to_str() else { continue };
            let path = paths::join(&at, name);
            match kind {
                Kind::Folder => folders.push(path),
                // One that stays is in nobody's way.
                Kind::File if name.starts_with(TEMPORARY) => drop(root.remove(path.as_ref())),
                _ => {}
            }
        }
    }
}
