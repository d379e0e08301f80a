//! Files that appear whole or not at all.

use cap_std::fs::{Dir, File, Metadata, OpenOptions};
use std::ffi::{OsStr, OsString};
use std::io::{self, Seek, SeekFrom, Write};
use std::sync::atomic::{AtomicU64, Ordering};

/// How the names of temporary files begin.
pub(crate) const TEMPORARY: &str = ".obblet-";

/// A file that is written aside, and takes its name when it is whole. It is gone when it is dropped before.
#[derive(Debug)]
pub(crate) struct Aside {
    file: File,
    /// The folder that both names are in.
    folder: Dir,
    name: OsString,
    /// Its name as long as it is not whole; none once it has its own.
    temporary: Option<String>,
    /// The file that is replaced, where there is one.
    before: Option<Metadata>,
}

impl Aside {
    /// Begins a file in a folder. One that would replace a read-only file is refused.
    pub(super) fn new(folder: Dir, name: &OsStr) -> io::Result<Self> {
        let before = folder.symlink_metadata(name).ok().filter(Metadata::is_file);
        if let Some(before) = &before {
            if before.permissions().readonly() {
                return Err(io::Error::other("it is read-only"));
            }
            // A user who may replace files in a folder may still be kept from writing to one of them.
            folder.open_with(name, OpenOptions::new().write(true))?;
        }
        let mut options = OpenOptions::new();
        options.write(true).create_new(true);
        #[cfg(unix)]
        if before.is_some() {
            use cap_std::fs::OpenOptionsExt;
            // Nobody else reads one that is to be private.
            options.mode(0o600);
        }
        let (file, temporary) = begin(&folder, &options)?;
        Ok(Self { file, folder, name: name.to_owned(), temporary: Some(temporary), before })
    }

    /// Gives the file its name, and the owner and the permissions of the file that it replaces. A link of that name is
    /// replaced itself. With `flush`, its bytes are on the disk before it has it.
    pub(crate) fn take_name(mut self, flush: bool) -> io::Result<()> {
        if let Some(before) = &self.before {
            keep_owner(&self.file, before)?;
            self.file.set_permissions(before.permissions())?;
        }
        if flush {
            self.file.sync_all()?;
        }
        let Some(temporary) = &self.temporary else { return Ok(()) };
        self.folder.rename(temporary, &self.folder, &self.name)?;
        self.temporary = None;
        Ok(())
    }
}

/// A new file under a name that nothing has.
fn begin(folder: &Dir, options: &OpenOptions) -> io::Result<(File, String)> {
    static NEXT: AtomicU64 = AtomicU64::new(0);
    loop {
        let number = NEXT.fetch_add(1, Ordering::Relaxed);
        let name = format!("{TEMPORARY}{:x}-{number:x}", std::process::id());
        match folder.open_with(&name, options) {
            Ok(file) => return Ok((file, name)),
            Err(error) if error.kind() == io::ErrorKind::AlreadyExists => {}
            Err(error) => return Err(error),
        }
    }
}

/// Gives a file the owner and the group of another.
#[cfg(unix)]
fn keep_owner(file: &File, before: &Metadata) -> io::Result<()> {
    use cap_std::fs::MetadataExt;
    let now = file.metadata()?;
    if (now.uid(), now.gid()) == (before.uid(), before.gid()) {
        return Ok(());
    }
    std::os::unix::fs::fchown(file, Some(before.uid()), Some(before.gid()))
        .map_err(|_| io::Error::other("it belongs to somebody else, and would not any more if it were replaced"))
}

#[cfg(not(unix))]
fn keep_owner(_: &File, _: &Metadata) -> io::Result<()> {
    Ok(())
}

impl Drop for Aside {
    fn drop(&mut self) {
        if let Some(temporary) = self.temporary.take() {
            // One that stays is in nobody's way, and the next run clears it away.
            let _ = self.folder.remove_file(temporary);
        }
    }
}

impl Write for Aside {
    fn write(&mut self, bytes: &[u8]) -> io::Result<usize> {
        self.file.write(bytes)
    }

    fn flush(&mut self) -> io::Result<()> {
        self.file.flush()
    }
}

impl Seek for Aside {
    fn seek(&mut self, to: SeekFrom) -> io::Result<u64> {
        self.file.seek(to)
    }
}
