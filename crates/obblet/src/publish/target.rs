//! The folder that the output goes to: one run at a time, whole files, and nothing overwritten that somebody else wrote.

use super::file::{Aside, TEMPORARY, flush_all, make_folder, put_in_place};
use super::hash::Hash;
use super::parallel::lock;
use super::record::{self, Known, Other, Output, RECORD_FILE, Record, UNFINISHED_FILE};
use crate::error::Error;
use crate::map::HashSet;
use same_file::Handle;
use std::fs::{File, TryLockError};
use std::io::{BufRead, BufReader, Read, Write};
use std::path::{Path, PathBuf};
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
    folder: PathBuf,
    record: &'r Record,
    force: bool,
    /// The file of the run that goes on; none where nothing is written.
    journal: Option<Mutex<File>>,
    folders: Mutex<HashSet<PathBuf>>,
}

impl<'r> Target<'r> {
    /// Takes hold of the folder. In a rehearsal nothing is written, and nobody is kept out.
    pub(super) fn open(folder: &Path, record: &'r Record, force: bool, rehearsal: bool) -> Result<Self, Error> {
        let journal = if rehearsal {
            None
        } else {
            let path = folder.join(UNFINISHED_FILE);
            make_folder(&path)?;
            let file = hold(&path)?;
            if record.unfinished {
                clear_away(folder);
            }
            Some(Mutex::new(file))
        };
        Ok(Self { folder: folder.to_owned(), record, force, journal, folders: Mutex::default() })
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
        Error::File { path: self.folder.join(path).display().to_string(), cause }
    }

    /// What there is to know of a file that will hold these bytes.
    pub(super) fn output(path: &str, bytes: &[u8]) -> Output {
        Output { path: path.to_owned(), hash: Hash::of(bytes), size: bytes.len() as u64 }
    }

    /// What writing a file would do.
    fn look(&self, output: &Output, content: Content<'_>) -> Result<Put, Error> {
        let full = self.folder.join(&output.path);
        let found = match std::fs::symlink_metadata(&full) {
            Ok(found) => found,
            Err(_) => return Ok(Put::Written),
        };
        if found.is_dir() {
            return Err(self.failed(&output.path, std::io::ErrorKind::IsADirectory.into()));
        }
        // An empty file is what is left of one that was never written.
        if found.len() == 0 && output.size > 0 {
            return Ok(Put::Written);
        }
        let (hash, _) = super::source::hash(&full).map_err(|cause| self.failed(&output.path, cause))?;
        Ok(if hash == output.hash {
            Put::Same
        } else if self.force
            || self.record.is_ours(&output.path, hash)
            || (self.record.unfinished && found.len() < output.size && is_torn(&full, content))
        {
            Put::Written
        } else {
            Put::Kept
        })
    }

    /// Writes a file, unless somebody edited it.
    pub(super) fn put(&self, output: &Output, bytes: &[u8]) -> Result<Put, Error> {
        let put = self.look(output, Content::Bytes(bytes))?;
        if put == Put::Written && !self.is_rehearsal() {
            put_in_place(&self.place(output)?, bytes, false)?;
        }
        Ok(put)
    }

    /// Copies a file, unless somebody edited the copy. Nothing comes of it where the file is not any more what `output` says.
    pub(super) fn put_copy(&self, output: &Output, source: &Path) -> Result<Option<Put>, Error> {
        let put = self.look(output, Content::Copy(source))?;
        if put == Put::Written && !self.is_rehearsal() {
            let mut copy = Aside::new(&self.place(output)?)?;
            let mut failure = None;
            let copied = super::source::hash_to(source, |bytes| copy.write_all(bytes).map_err(|cause| failure = Some(cause)));
            if let Some(cause) = failure {
                return Err(copy.failed(cause));
            }
            if !copied.is_ok_and(|copied| copied == (output.hash, output.size)) {
                return Ok(None);
            }
            copy.take_name(false)?;
        }
        Ok(Some(put))
    }

    /// The path of an output, whose folder is there.
    fn place(&self, output: &Output) -> Result<PathBuf, Error> {
        let full = self.folder.join(&output.path);
        let folder = full.parent().unwrap_or(&self.folder).to_owned();
        let is_new = !lock(&self.folders).contains(&folder);
        if is_new {
            make_folder(&full)?;
            lock(&self.folders).insert(folder);
        }
        Ok(full)
    }

    /// Removes a file that an earlier run wrote, unless somebody edited it, and the folders that are empty then.
    pub(super) fn remove(&self, path: &str) -> Result<Put, Error> {
        let full = self.folder.join(path);
        let Ok((hash, _)) = super::source::hash(&full) else { return Ok(Put::Same) };
        if !self.force && !self.record.is_ours(path, hash) {
            return Ok(Put::Kept);
        }
        if !self.is_rehearsal() {
            std::fs::remove_file(&full).map_err(|cause| self.failed(path, cause))?;
            let mut folder = full.parent();
            while let Some(empty) = folder.filter(|folder| *folder != self.folder && folder.starts_with(&self.folder)) {
                if std::fs::remove_dir(empty).is_err() {
                    break;
                }
                folder = empty.parent();
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
            flush_all(&self.folder);
            put_in_place(&self.folder.join(RECORD_FILE), text, true)?;
        }
        // Gone while it is held, so that nobody else takes hold of a file that is about to go.
        let path = self.folder.join(UNFINISHED_FILE);
        std::fs::remove_file(&path).map_err(|cause| self.failed(UNFINISHED_FILE, cause))
    }

    /// Lets go of the folder without a record of its own: what was written is known from the file of the run.
    pub(super) fn leave(self) -> Result<(), Error> {
        let is_empty = self.journal.as_ref().is_some_and(|journal| lock(journal).metadata().is_ok_and(|known| known.len() == 0));
        if is_empty {
            let path = self.folder.join(UNFINISHED_FILE);
            std::fs::remove_file(&path).map_err(|cause| self.failed(UNFINISHED_FILE, cause))?;
        }
        Ok(())
    }
}

/// What a file will hold.
#[derive(Clone, Copy)]
enum Content<'c> {
    Bytes(&'c [u8]),
    /// What another file holds.
    Copy(&'c Path),
}

/// Whether a file is the beginning of what it should be, or nothing but zeros: so the power leaves it that goes before the disk
/// has all bytes.
fn is_torn(path: &Path, content: Content<'_>) -> bool {
    let look = || -> std::io::Result<bool> {
        let mut wanted: Box<dyn Read> = match content {
            Content::Bytes(bytes) => Box::new(bytes),
            Content::Copy(source) => Box::new(BufReader::new(File::open(source)?)),
        };
        let mut found = BufReader::new(File::open(path)?);
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
fn clear_away(folder: &Path) {
    let mut folders = vec![folder.to_owned()];
    while let Some(at) = folders.pop() {
        let Ok(entries) = std::fs::read_dir(&at) else { continue };
        for entry in entries.flatten() {
            if entry.file_type().is_ok_and(|kind| kind.is_dir()) {
                folders.push(entry.path());
            } else if entry.file_name().to_string_lossy().starts_with(TEMPORARY) {
                // One that stays is in nobody's way.
                let _ = std::fs::remove_file(entry.path());
            }
        }
    }
}

/// Opens the file of a run and keeps all other runs from it.
fn hold(path: &Path) -> Result<File, Error> {
    let fail = |cause| Error::File { path: path.display().to_string(), cause };
    loop {
        let file = std::fs::OpenOptions::new().create(true).append(true).open(path).map_err(fail)?;
        match file.try_lock() {
            Ok(()) => {}
            Err(TryLockError::WouldBlock) => {
                let output = path.parent().unwrap_or(path).display().to_string();
                return Err(Error::Busy { output });
            }
            // File systems without locks let everybody in.
            Err(TryLockError::Error(_)) => return Ok(file),
        }
        // A run that ended in between has taken the file with it.
        let held = file.try_clone().and_then(Handle::from_file).map_err(fail)?;
        match Handle::from_path(path) {
            Ok(there) if there == held => return Ok(file),
            _ => {}
        }
    }
}
