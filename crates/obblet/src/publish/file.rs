//! Files that appear whole or not at all.

use crate::error::Error;
use std::io::{self, Seek, SeekFrom, Write};
use std::path::{Path, PathBuf};
use tempfile::NamedTempFile;

/// Writes a file: into a temporary one in the same folder first, which then takes its name. A file that holds the same
/// bytes already is left alone. Makes the folder where it is not there.
///
/// # Errors
/// Where the folder or the file can't be written.
pub fn write_whole(path: &Path, bytes: &[u8]) -> Result<(), Error> {
    if std::fs::metadata(path).is_ok_and(|known| known.is_file() && known.len() == bytes.len() as u64)
        && std::fs::read(path).is_ok_and(|known| known == bytes)
    {
        return Ok(());
    }
    make_folder(path)?;
    put_in_place(path, bytes, false)
}

/// How the names of temporary files begin.
pub(super) const TEMPORARY: &str = ".obblet-";

/// A file that is written aside, and takes its name when it is whole. It is gone when it is dropped before.
pub(super) struct Aside {
    file: NamedTempFile,
    path: PathBuf,
}

impl Aside {
    /// Begins a file in a folder that is there.
    pub(super) fn new(path: &Path) -> Result<Self, Error> {
        let folder = path.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
        let mut builder = tempfile::Builder::new();
        builder.prefix(TEMPORARY);
        #[cfg(unix)]
        {
            use std::os::unix::fs::PermissionsExt;
            // What a new file gets, less what the user's mask takes away.
            builder.permissions(std::fs::Permissions::from_mode(0o666));
        }
        let file = builder.tempfile_in(folder).map_err(|cause| Error::File { path: path.display().to_string(), cause })?;
        Ok(Self { file, path: path.to_owned() })
    }

    /// What went wrong with the file.
    pub(super) fn failed(&self, cause: io::Error) -> Error {
        Error::File { path: self.path.display().to_string(), cause }
    }

    /// Gives the file its name. With `flush`, its bytes are on the disk before it has it.
    pub(super) fn take_name(self, flush: bool) -> Result<(), Error> {
        if flush {
            self.file.as_file().sync_all().map_err(|cause| self.failed(cause))?;
        }
        let path = self.path;
        self.file.persist(&path).map_err(|error| Error::File { path: path.display().to_string(), cause: error.error })?;
        Ok(())
    }
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
    let folder = path.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
    std::fs::create_dir_all(folder).map_err(|cause| Error::File { path: path.display().to_string(), cause })
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
