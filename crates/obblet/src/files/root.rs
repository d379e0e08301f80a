//! A folder that is held open and can't be left.

use super::atomic_file::Aside;
use crate::media::There;
use cap_std::ambient_authority;
use cap_std::fs::{Dir, File, Metadata, OpenOptions};
use std::fs::TryLockError;
use std::io::{self, Read};
use std::path::{Component, Path, PathBuf};
use std::sync::OnceLock;
use std::time::SystemTime;

/// So often is a file read again that changed while it was read.
const MOST_TRIES: usize = 4;

/// A folder that is held open. Paths count from it, and lead nowhere else: not by `..`, not from the top of the file system,
/// and not through symbolic links.
///
/// ```no_run
/// use obblet::files::{Root, There};
///
/// let root = Root::open("handbook".as_ref())?;
/// assert!(root.read("../secret".as_ref(), 1 << 20).is_err());
/// assert_eq!(root.there("nothing.md".as_ref()), There::Nothing);
/// # Ok::<(), std::io::Error>(())
/// ```
#[derive(Debug)]
pub struct Root {
    /// Where it is, behind all symbolic links.
    path: PathBuf,
    /// None as long as the folder is not there.
    folder: OnceLock<Dir>,
}

/// What an entry of a folder is; links are not followed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Kind {
    File,
    Folder,
    Link,
    Special,
}

/// Why something of a root is not opened.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
pub(crate) enum Stray {
    #[error("a symbolic link in its path leads out of the folder")]
    Outside,
    #[error("it is not a regular file")]
    Special,
    #[error("it has more than {0} bytes")]
    TooLarge(u64),
}

impl Stray {
    /// The reason that an error of a root has, where it is one of these.
    pub(crate) fn of(error: &io::Error) -> Option<Self> {
        error.get_ref()?.downcast_ref().copied()
    }

    pub(super) fn error(self) -> io::Error {
        io::Error::other(self)
    }
}

/// What there is to say of a file that does not hold still.
pub(crate) fn changing() -> io::Error {
    io::Error::other("it changes while it is read")
}

/// An error of the folder, by what it means. The library that holds folders open has no kind of its own for a way out.
fn explained(error: io::Error) -> io::Error {
    let is_way_out = error.kind() == io::ErrorKind::PermissionDenied && error.raw_os_error().is_none();
    if is_way_out { Stray::Outside.error() } else { error }
}

/// Regular files are read without waiting anyway; pipes would wait for somebody to write, and are found out before they do.
fn reading() -> OpenOptions {
    let mut options = OpenOptions::new();
    options.read(true);
    #[cfg(unix)]
    {
        use cap_std::fs::OpenOptionsExt;
        options.custom_flags(rustix::fs::OFlags::NONBLOCK.bits().cast_signed());
    }
    options
}

impl Root {
    /// Opens a folder.
    ///
    /// # Errors
    /// Where it is not there, is no folder, or may not be looked into.
    pub fn open(path: &Path) -> io::Result<Self> {
        // The folder of a file that is named without one is that where the program runs.
        let path = std::fs::canonicalize(at(path))?;
        let folder = Dir::open_ambient_dir(&path, ambient_authority())?;
        Ok(Self { path, folder: folder.into() })
    }

    /// A folder that may not be there yet; everything in it is missing then, until it is made.
    pub(crate) fn perhaps(path: &Path) -> io::Result<Self> {
        let path = super::real(path)?;
        match Dir::open_ambient_dir(&path, ambient_authority()) {
            Ok(folder) => Ok(Self { path, folder: folder.into() }),
            Err(error) if error.kind() == io::ErrorKind::NotFound => Ok(Self { path, folder: OnceLock::new() }),
            Err(error) => Err(error),
        }
    }

    /// Makes the folder where it is not there.
    pub(crate) fn make(&self) -> io::Result<()> {
        if self.folder.get().is_none() {
            std::fs::create_dir_all(&self.path)?;
            let folder = Dir::open_ambient_dir(&self.path, ambient_authority())?;
            // Somebody else may have been faster, with the same folder.
            let _ = self.folder.set(folder);
        }
        Ok(())
    }

    /// Where it is, behind all symbolic links.
    #[must_use]
    pub fn path(&self) -> &Path {
        &self.path
    }

    pub(super) fn folder(&self) -> io::Result<&Dir> {
        self.folder.get().ok_or_else(|| io::ErrorKind::NotFound.into())
    }

    /// Does something at a path. Where the library refuses a symbolic link because it begins at the top of the file system, the
    /// path behind it is tried, which is one below the folder or none.
    fn act<T>(&self, path: &Path, act: impl Fn(&Dir, &Path) -> io::Result<T>) -> io::Result<T> {
        let folder = self.folder()?;
        let outcome = act(folder, at(path)).map_err(explained);
        if !outcome.as_ref().is_err_and(|error| Stray::of(error).is_some()) || !is_plain(path) {
            return outcome;
        }
        let Ok(real) = std::fs::canonicalize(self.path.join(path)) else { return outcome };
        match real.strip_prefix(&self.path) {
            Ok(real) => act(folder, at(real)).map_err(explained),
            Err(_) => outcome,
        }
    }

    /// What is at a path.
    #[must_use]
    pub fn there(&self, path: &Path) -> There {
        match self.act(path, |folder, path| folder.metadata(path)) {
            Ok(known) if known.is_file() => There::File(known.len()),
            Ok(known) if known.is_dir() => There::Folder,
            Ok(_) => There::Special,
            Err(error) if Stray::of(&error).is_some() => There::Outside,
            Err(_) => There::Nothing,
        }
    }

    /// Whether a regular file of so many bytes is at a path.
    pub(crate) fn has(&self, path: &str, size: u64) -> bool {
        self.there(path.as_ref()) == There::File(size)
    }

    /// What is at a path itself, where a link is a link.
    pub(crate) fn itself(&self, path: &Path) -> io::Result<(Kind, u64)> {
        let known = self.folder()?.symlink_metadata(at(path)).map_err(explained)?;
        Ok((kind(known.file_type()), known.len()))
    }

    /// The size of a file and when it was changed.
    pub(crate) fn mark(&self, path: &str) -> Option<(u64, SystemTime)> {
        let known = self.folder().ok()?.metadata(path).ok()?;
        Some((known.len(), known.modified().ok()?.into_std()))
    }

    /// The path of the same file or folder without symbolic links.
    pub(crate) fn without_links(&self, path: &Path) -> io::Result<PathBuf> {
        self.act(path, |folder, path| folder.canonicalize(path))
    }

    /// What is in a folder of it, by name, in no order.
    pub(crate) fn entries(&self, path: &Path) -> io::Result<impl Iterator<Item = io::Result<(std::ffi::OsString, Kind)>>> {
        let entries = self.folder()?.open_dir(at(path)).map_err(explained)?.entries()?;
        Ok(entries.map(|entry| entry.and_then(|entry| Ok((entry.file_name(), kind(entry.file_type()?))))))
    }

    /// Opens a regular file.
    pub(crate) fn open_file(&self, path: &Path) -> io::Result<File> {
        self.open_known(path).map(|(file, _)| file)
    }

    fn open_known(&self, path: &Path) -> io::Result<(File, Metadata)> {
        let options = reading();
        let file = self.act(path, |folder, path| folder.open_with(path, &options))?;
        let known = file.metadata()?;
        if known.is_dir() {
            return Err(io::ErrorKind::IsADirectory.into());
        }
        if known.is_file() { Ok((file, known)) } else { Err(Stray::Special.error()) }
    }

    /// The bytes of a regular file as they were at one moment, as far as its size and its time tell.
    ///
    /// # Errors
    /// Where there is no such file, it has more bytes than `limit`, a link leads out, or it changes all the time.
    pub fn read(&self, path: &Path, limit: u64) -> io::Result<Vec<u8>> {
        for _ in 0..MOST_TRIES {
            let (mut file, before) = self.open_known(path)?;
            if before.len() > limit {
                return Err(Stray::TooLarge(limit).error());
            }
            let mut bytes = Vec::with_capacity(usize::try_from(before.len()).unwrap_or(0) + 1);
            (&mut file).take(before.len().saturating_add(1)).read_to_end(&mut bytes)?;
            let after = file.metadata()?;
            let same = before.modified().ok() == after.modified().ok() && after.len() == bytes.len() as u64;
            if same {
                return Ok(bytes);
            }
        }
        Err(changing())
    }

    /// The text of a regular file in UTF-8, of so many bytes at most.
    pub(crate) fn read_text(&self, path: &Path, limit: u64) -> io::Result<String> {
        String::from_utf8(self.read(path, limit)?).map_err(|_| io::Error::new(io::ErrorKind::InvalidData, "it is not UTF-8"))
    }

    /// Makes the folder of a file.
    pub(crate) fn make_folder_of(&self, path: &Path) -> io::Result<()> {
        match path.parent().filter(|folder| !folder.as_os_str().is_empty()) {
            Some(folder) => self.folder()?.create_dir_all(folder).map_err(explained),
            None => Ok(()),
        }
    }

    /// Begins a file that appears at a path when it is whole; its folder is there.
    pub(crate) fn aside(&self, path: &Path) -> io::Result<Aside> {
        let (folder, name) = (path.parent().unwrap_or(Path::new("")), path.file_name());
        let name = name.ok_or(io::ErrorKind::InvalidInput)?;
        let folder = self.folder()?.open_dir(at(folder)).map_err(explained)?;
        Aside::new(folder, name)
    }

    /// Writes a file aside and gives it its name; its folder is there. With `flush`, its bytes are on the disk before it has it.
    pub(crate) fn put(&self, path: &Path, bytes: &[u8], flush: bool) -> io::Result<()> {
        let mut file = self.aside(path)?;
        io::Write::write_all(&mut file, bytes)?;
        file.take_name(flush)
    }

    /// Removes a file; of a link, the link.
    pub(crate) fn remove(&self, path: &Path) -> io::Result<()> {
        self.folder()?.remove_file(path).map_err(explained)
    }

    /// Removes a folder that is empty.
    pub(crate) fn remove_empty(&self, path: &Path) -> io::Result<()> {
        self.folder()?.remove_dir(path).map_err(explained)
    }

    /// Opens a file of its own folder for adding to it, and keeps all others from it who ask. A file system without locks lets
    /// everybody in.
    pub(crate) fn hold(&self, name: &str) -> io::Result<Held> {
        loop {
            let mut options = OpenOptions::new();
            options.create(true).append(true).read(true);
            #[cfg(unix)]
            {
                use cap_std::fs::OpenOptionsExt;
                options.custom_flags(rustix::fs::OFlags::NONBLOCK.bits().cast_signed());
            }
            let file = self.folder()?.open_with(name, &options).map_err(explained)?;
            if !file.metadata()?.is_file() {
                return Err(Stray::Special.error());
            }
            let file = file.into_std();
            match file.try_lock() {
                Ok(()) => {}
                Err(TryLockError::WouldBlock) => return Ok(Held::ByAnother),
                Err(TryLockError::Error(_)) => return Ok(Held::Ours(file)),
            }
            // A run that ended in between has taken the file with it.
            let held = same_file::Handle::from_file(file.try_clone()?)?;
            let there = self.open_file(name.as_ref()).and_then(|file| same_file::Handle::from_file(file.into_std()));
            if there.is_ok_and(|there| there == held) {
                return Ok(Held::Ours(file));
            }
        }
    }

    /// Brings all that was written to the folder to the disk, as far as the system can.
    pub(crate) fn flush(&self) {
        let Ok(folder) = self.folder() else { return };
        #[cfg(target_os = "linux")]
        let _ = rustix::fs::syncfs(folder);
        #[cfg(not(target_os = "linux"))]
        let _ = folder.open(".").and_then(|folder| folder.sync_all());
    }
}

/// What comes of asking for a file that one run has at a time.
pub(crate) enum Held {
    Ours(std::fs::File),
    ByAnother,
}

/// A path from a folder; the folder itself has none.
fn at(path: &Path) -> &Path {
    if path.as_os_str().is_empty() { Path::new(".") } else { path }
}

/// Whether a path has nothing but names.
fn is_plain(path: &Path) -> bool {
    path.components().all(|part| matches!(part, Component::Normal(_)))
}

fn kind(kind: cap_std::fs::FileType) -> Kind {
    if kind.is_file() {
        Kind::File
    } else if kind.is_dir() {
        Kind::Folder
    } else if kind.is_symlink() {
        Kind::Link
    } else {
        Kind::Special
    }
}
