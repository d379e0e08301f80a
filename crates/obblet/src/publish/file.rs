//! Files that appear whole or not at all.

use crate::error::Error;
use std::fs::{File, Metadata};
use std::io::{self, Seek, SeekFrom, Write};
use std::path::{Path, PathBuf};
use tempfile::NamedTempFile;

/// Writes a file that a user names: into a temporary one in the same folder first, which then takes its name. A file that
/// holds the same bytes already is left alone. Makes the folder where it is not there.
///
/// A file that is there keeps its permissions and its owner. A symbolic link stays, and what it leads to is replaced. What is
/// no regular file, such as `/dev/stdout`, is written to directly.
///
/// # Errors
/// Where the folder or the file can't be written, or the file that is there is read-only.
pub fn write_whole(path: &Path, bytes: &[u8]) -> Result<(), Error> {
    let fail = |cause| Error::File { path: path.display().to_string(), cause };
    let path = &resolve_links(path).map_err(fail)?;
    match std::fs::metadata(path) {
        Ok(known) if known.is_file() => {
            if known.len() == bytes.len() as u64 && std::fs::read(path).is_ok_and(|known| known == bytes) {
                return Ok(());
            }
        }
        Ok(known) if !known.is_dir() => {
            let mut device = std::fs::OpenOptions::new().write(true).open(path).map_err(fail)?;
            return device.write_all(bytes).map_err(fail);
        }
        _ => make_folder(path)?,
    }
    put_in_place(path, bytes, false)
}

/// Symbolic links that lead to each other are followed so often.
const MOST_LINKS: usize = 40;

/// The path that symbolic links at the end of a path lead to, whether there is something or not.
pub(super) fn resolve_links(path: &Path) -> io::Result<PathBuf> {
    let mut path = path.to_owned();
    for _ in 0..MOST_LINKS {
        match std::fs::symlink_metadata(&path) {
            Ok(known) if known.is_symlink() => {
                // Links to what has no name, as those of open pipes, are opened as they are.
                let Ok(target) = std::fs::read_link(&path).map(|target| folder_of(&path).join(target)) else { return Ok(path) };
                if std::fs::symlink_metadata(&target).is_err() && std::fs::metadata(&path).is_ok() {
                    return Ok(path);
                }
                path = target;
            }
            _ => return Ok(path),
        }
    }
    Err(io::Error::other("its symbolic links lead in a circle"))
}

/// The folder that a file is in.
fn folder_of(path: &Path) -> &Path {
    path.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."))
}

/// How the names of temporary files begin.
pub(super) const TEMPORARY: &str = ".obblet-";

/// A file that is written aside, and takes its name when it is whole. It is gone when it is dropped before.
pub(super) struct Aside {
    file: NamedTempFile,
    path: PathBuf,
    /// The file that is replaced, where there is one.
    before: Option<Metadata>,
}

impl Aside {
    /// Begins a file in a folder that is there. One that would replace a read-only file is refused.
    pub(super) fn new(path: &Path) -> Result<Self, Error> {
        let fail = |cause| Error::File { path: path.display().to_string(), cause };
        let before = std::fs::symlink_metadata(path).ok().filter(Metadata::is_file);
        if let Some(before) = &before {
            if before.permissions().readonly() {
                return Err(fail(read_only()));
            }
            // A user who may replace files in a folder may still be kept from writing to one of them.
            std::fs::OpenOptions::new().write(true).open(path).map_err(fail)?;
        }
        let mut builder = tempfile::Builder::new();
        builder.prefix(TEMPORARY);
        #[cfg(unix)]
        {
            use std::os::unix::fs::PermissionsExt;
            // What a new file gets, less what the user's mask takes away; nobody else reads one that is to be private.
            let mode = before.as_ref().map_or(0o666, |_| 0o600);
            builder.permissions(std::fs::Permissions::from_mode(mode));
        }
        let file = builder.tempfile_in(folder_of(path)).map_err(fail)?;
        Ok(Self { file, path: path.to_owned(), before })
    }

    /// What went wrong with the file.
    pub(super) fn failed(&self, cause: io::Error) -> Error {
        Error::File { path: self.path.display().to_string(), cause }
    }

    /// Gives the file its name, and the owner and the permissions of the file that it replaces. With `flush`, its bytes are on
    /// the disk before it has it.
    pub(super) fn take_name(self, flush: bool) -> Result<(), Error> {
        if let Some(before) = &self.before {
            keep_owner(self.file.as_file(), before).map_err(|cause| self.failed(cause))?;
            self.file.as_file().set_permissions(before.permissions()).map_err(|cause| self.failed(cause))?;
        }
        if flush {
            self.file.as_file().sync_all().map_err(|cause| self.failed(cause))?;
        }
        let path = self.path;
        self.file.persist(&path).map_err(|error| Error::File { path: path.display().to_string(), cause: error.error })?;
        Ok(())
    }
}

fn read_only() -> io::Error {
    io::Error::other("it is read-only")
}

/// Gives a file the owner and the group of another.
#[cfg(unix)]
fn keep_owner(file: &File, before: &Metadata) -> io::Result<()> {
    use std::os::unix::fs::{MetadataExt, fchown};
    let now = file.metadata()?;
    if (now.uid(), now.gid()) == (before.uid(), before.gid()) {
        return Ok(());
    }
    fchown(file, Some(before.uid()), Some(before.gid()))
        .map_err(|_| io::Error::other("it belongs to somebody else, and would not any more if it were replaced"))
}

#[cfg(not(unix))]
fn keep_owner(_: &File, _: &Metadata) -> io::Result<()> {
    Ok(())
}

impl Write for Aside {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        self.file.as_file_mut().write(bytes)
    }

    fn flush(&mut self) -> io::Result<()> {
        self.file.as_file_mut().flush()
    }
}

impl Seek for Aside {
    fn seek(&mut self, to: SeekFrom) -> io::Result<u64> {
        self.file.as_file_mut().seek(to)
    }
}

/// Makes the folder of a file.
pub(super) fn make_folder(path: &Path) -> Result<(), Error> {
    std::fs::create_dir_all(folder_of(path)).map_err(|cause| Error::File { path: path.display().to_string(), cause })
}

/// Writes a file aside and gives it its name. With `flush`, its bytes are on the disk before it has it.
pub(super) fn put_in_place(path: &Path, bytes: &[u8], flush: bool) -> Result<(), Error> {
    let mut file = Aside::new(path)?;
    file.write_all(bytes).map_err(|cause| file.failed(cause))?;
    file.take_name(flush)
}

/// Brings all that was written to a folder to the disk, as far as the system can.
pub(super) fn flush_all(folder: &Path) {
    #[cfg(target_os = "linux")]
    if let Ok(folder) = std::fs::File::open(folder) {
        let _ = rustix::fs::syncfs(&folder);
    }
    #[cfg(not(target_os = "linux"))]
    if let Ok(folder) = std::fs::File::open(folder) {
        let _ = folder.sync_all();
    }
}
