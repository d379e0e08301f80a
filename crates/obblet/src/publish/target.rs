//! The folder that the output goes to: one run at a time, whole files, and nothing overwritten that somebody else wrote.

use super::file::{TEMPORARY, flush_all, make_folder, put_in_place};
use super::hash::Hash;
use super::record::{self, Known, Other, Output, RECORD_FILE, Record, UNFINISHED_FILE};
use crate::error::Error;
use same_file::Handle;
use std::collections::HashSet;
use std::fs::{File, TryLockError};
use std::io::Write;
use std::path::{Path, PathBuf};
use std::sync::{Mutex, PoisonError};

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
        let mut journal = journal.lock().unwrap_or_else(PoisonError::into_inner);
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
    fn look(&self, output: &Output, bytes: &[u8]) -> Result<Put, Error> {
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
            || (self.record.unfinished && found.len() < output.size && is_torn(&full, bytes))
        {
            Put::Written
        } else {
            Put::Kept
        })
    }

    /// Writes a file, unless somebody edited it.
    pub(super) fn put(&self, output: &Output, bytes: &[u8]) -> Result<Put, Error> {
        let put = self.look(output, bytes)?;
        if put == Put::Written && !self.is_rehearsal() {
            let full = self.folder.join(&output.path);
            let folder = full.parent().unwrap_or(&self.folder).to_owned();
            let is_new = !self.folders.lock().unwrap_or_else(PoisonError::into_inner).contains(&folder);
            if is_new {
                make_folder(&full)?;
                self.folders.lock().unwrap_or_else(PoisonError::into_inner).insert(folder);
            }
            put_in_place(&full, bytes, false)?;
        }
        Ok(put)
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
        let is_empty = self.journal.as_ref().is_some_and(|journal| {
            journal.lock().unwrap_or_else(PoisonError::into_inner).metadata().is_ok_and(|known| known.len() == 0)
        });
        if is_empty {
            let path = self.folder.join(UNFINISHED_FILE);
            std::fs::remove_file(&path).map_err(|cause| self.failed(UNFINISHED_FILE, cause))?;
        }
        Ok(())
    }
}

/// Whether a file is the beginning of what it should be, or nothing but zeros: so the power leaves it that goes before the disk
/// has all bytes.
fn is_torn(path: &Path, bytes: &[u8]) -> bool {
    std::fs::read(path).is_ok_and(|found| bytes.starts_with(&found) || found.iter().all(|byte| *byte == 0))
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
