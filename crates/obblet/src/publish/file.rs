//! Files that appear whole or not at all.

use crate::error::Error;
use std::io::Write;
use std::path::{Component, Path, PathBuf};

/// Writes a file: into a temporary one in the same folder first, which then takes its name. A file that holds the same
/// bytes already is left alone. Makes the folder where it is not there.
///
/// # Errors
/// Where the folder or the file can't be written.
pub fn write_whole(path: &Path, bytes: &[u8]) -> Result<(), Error> {
    let fail = |cause| Error::File { path: path.display().to_string(), cause };
    if std::fs::metadata(path).is_ok_and(|known| known.is_file() && known.len() == bytes.len() as u64)
        && std::fs::read(path).is_ok_and(|known| known == bytes)
    {
        return Ok(());
    }
    let folder = path.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
    std::fs::create_dir_all(folder).map_err(fail)?;
    let mut builder = tempfile::Builder::new();
    builder.prefix(".obblet-");
    #[cfg(unix)]
    {
        use std::os::unix::fs::PermissionsExt;
        // What a new file gets, less what the user's mask takes away.
        builder.permissions(std::fs::Permissions::from_mode(0o666));
    }
    let mut file = builder.tempfile_in(folder).map_err(fail)?;
    file.write_all(bytes).map_err(fail)?;
    file.persist(path).map_err(|error| fail(error.error))?;
    Ok(())
}

/// A path without `.` and `..`, as far as names alone can tell.
pub(super) fn normal(path: &Path) -> PathBuf {
    let mut normal = PathBuf::new();
    for part in path.components() {
        match part {
            Component::CurDir => {}
            Component::ParentDir => {
                if !normal.pop() {
                    normal.push("..");
                }
            }
            part => normal.push(part),
        }
    }
    normal
}
