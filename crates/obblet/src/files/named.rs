//! Files that a user names: any path is theirs to name, and so are pipes and devices.

use super::atomic_file::Aside;
use super::root::{Root, Stray};
use std::fs::File;
use std::io::{self, Read, Seek, SeekFrom, Write};
use std::path::{Path, PathBuf};

/// The bytes of a file that a user names, which may be a pipe or a device.
///
/// # Errors
/// Where it can't be read, or gives more bytes than `limit`.
pub fn read_named(path: &Path, limit: u64) -> io::Result<Vec<u8>> {
    let mut file = File::open(path)?;
    let known = file.metadata()?;
    if known.is_dir() {
        return Err(io::ErrorKind::IsADirectory.into());
    }
    let mut bytes = Vec::with_capacity(usize::try_from(known.len().min(limit)).unwrap_or(0) + 1);
    (&mut file).take(limit.saturating_add(1)).read_to_end(&mut bytes)?;
    if bytes.len() as u64 > limit { Err(Stray::TooLarge(limit).error()) } else { Ok(bytes) }
}

/// The text of a file that a user or a setting names, of so many bytes at most. What lies below `root` is not left on the way.
pub(crate) fn read_text(path: &Path, root: Option<&Root>, limit: u64) -> io::Result<String> {
    let below = root.and_then(|root| Some((root, path.strip_prefix(root.path()).ok()?)));
    if let Some((root, path)) = below {
        return root.read_text(path, limit);
    }
    String::from_utf8(read_named(path, limit)?).map_err(|_| io::Error::new(io::ErrorKind::InvalidData, "it is not UTF-8"))
}

/// The bytes of a file that a user or a setting names, as [`read_text`].
pub(crate) fn read_bytes(path: &Path, root: Option<&Root>, limit: u64) -> io::Result<Vec<u8>> {
    match root.and_then(|root| Some((root, path.strip_prefix(root.path()).ok()?))) {
        Some((root, path)) => root.read(path, limit),
        None => read_named(path, limit),
    }
}

/// Writes a file that a user names: into a temporary one in the same folder first, which then takes its name. A file that
/// holds the same bytes already is left alone. Makes the folder where it is not there.
///
/// A file that is there keeps its permissions and its owner. A symbolic link stays, and what it leads to is replaced. What is
/// no regular file, such as `/dev/stdout`, is written to directly.
///
/// # Errors
/// Where the folder or the file can't be written, or the file that is there is read-only.
pub fn write_whole(path: &Path, bytes: &[u8]) -> io::Result<()> {
    let path = resolve_links(path)?;
    let is_same_size = std::fs::metadata(&path).is_ok_and(|known| known.is_file() && known.len() == bytes.len() as u64);
    if is_same_size && std::fs::read(&path).is_ok_and(|known| known == bytes) {
        return Ok(());
    }
    if is_device(&path) {
        let mut device = std::fs::OpenOptions::new().write(true).open(&path)?;
        return device.write_all(bytes);
    }
    let mut sink = Sink::open(&path)?;
    sink.write_all(bytes)?;
    sink.end()
}

/// Where something goes that a user names: a file appears when it is whole, devices and pipes are written to.
pub(crate) enum Sink {
    File(Box<Aside>),
    /// What goes to a device or a pipe, which can't go back, is put together before.
    Device {
        scratch: File,
        device: File,
    },
}

impl Sink {
    /// Begins to write. The folder is made where it is not there.
    pub(crate) fn open(path: &Path) -> io::Result<Self> {
        let path = &resolve_links(path)?;
        if is_device(path) {
            let device = std::fs::OpenOptions::new().write(true).open(path)?;
            return Ok(Self::Device { scratch: tempfile::tempfile()?, device });
        }
        if path.is_dir() {
            return Err(io::ErrorKind::IsADirectory.into());
        }
        let folder = folder_of(path);
        std::fs::create_dir_all(folder)?;
        let name = path.file_name().ok_or(io::ErrorKind::InvalidInput)?;
        Ok(Self::File(Box::new(Root::open(folder)?.aside(name.as_ref())?)))
    }

    /// What was written is there.
    pub(crate) fn end(self) -> io::Result<()> {
        match self {
            Self::File(file) => file.take_name(false),
            Self::Device { mut scratch, mut device } => {
                scratch.seek(SeekFrom::Start(0))?;
                io::copy(&mut scratch, &mut device)?;
                device.flush()
            }
        }
    }
}

impl Write for Sink {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        match self {
            Self::File(file) => file.write(bytes),
            Self::Device { scratch, .. } => scratch.write(bytes),
        }
    }

    fn flush(&mut self) -> io::Result<()> {
        match self {
            Self::File(file) => file.flush(),
            Self::Device { scratch, .. } => scratch.flush(),
        }
    }
}

impl Seek for Sink {
    fn seek(&mut self, to: SeekFrom) -> io::Result<u64> {
        match self {
            Self::File(file) => file.seek(to),
            Self::Device { scratch, .. } => scratch.seek(to),
        }
    }
}

/// Whether a path is that of a device, a pipe or a socket, which is written to and not replaced.
fn is_device(path: &Path) -> bool {
    std::fs::metadata(path).is_ok_and(|known| !known.is_file() && !known.is_dir())
}

/// Symbolic links that lead to each other are followed so often.
const MOST_LINKS: usize = 40;

/// The path that symbolic links at the end of a path lead to, whether there is something or not.
fn resolve_links(path: &Path) -> io::Result<PathBuf> {
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

/// The real path of a file or a folder that may not be there yet.
pub(crate) fn real(path: &Path) -> io::Result<PathBuf> {
    let absolute = std::path::absolute(path)?;
    let mut missing = Vec::new();
    let mut at = absolute.as_path();
    loop {
        match std::fs::canonicalize(at) {
            Ok(real) => return Ok(missing.iter().rev().fold(real, |path, name| path.join(name))),
            Err(error) if error.kind() == io::ErrorKind::NotFound => {
                let (Some(parent), Some(name)) = (at.parent(), at.file_name()) else { return Err(error) };
                missing.push(name.to_owned());
                at = parent;
            }
            Err(error) => return Err(error),
        }
    }
}

/// Whether two paths lead to the same file or folder that is there.
#[must_use]
pub fn is_same(a: &Path, b: &Path) -> bool {
    std::fs::canonicalize(a).ok().zip(std::fs::canonicalize(b).ok()).is_some_and(|(a, b)| a == b)
}

/// A file without a name for what waits: beside `path`, or in the nearest folder above it that is there.
pub(crate) fn scratch(path: &Path) -> io::Result<File> {
    let there = path.ancestors().find(|folder| folder.is_dir()).unwrap_or(path);
    tempfile::tempfile_in(there)
}
