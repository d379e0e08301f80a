//! Reading files of the source, which may change at any moment.

use super::hash::Hash;
use std::cell::RefCell;
use std::io::{self, Read};
use std::path::{Path, PathBuf};

/// So often is a file read again that changed while it was read.
pub(super) const MOST_TRIES: usize = 4;

/// The bytes of a file as they were at one moment, as far as its size and its time tell.
pub(super) fn read(path: &Path) -> io::Result<Vec<u8>> {
    for _ in 0..MOST_TRIES {
        let mut file = std::fs::File::open(path)?;
        let before = file.metadata()?;
        let mut bytes = Vec::with_capacity(usize::try_from(before.len()).unwrap_or(0) + 1);
        file.read_to_end(&mut bytes)?;
        let after = file.metadata()?;
        let same = before.modified().ok() == after.modified().ok() && after.len() == bytes.len() as u64;
        if same {
            return Ok(bytes);
        }
    }
    Err(changing())
}

/// What there is to say of a file that does not hold still.
pub(super) fn changing() -> io::Error {
    io::Error::other("it changes while it is read")
}

/// The hash of a file, and how many bytes it has.
pub(super) fn hash(path: &Path) -> io::Result<(Hash, u64)> {
    hash_to(path, |_| Ok(()))
}

/// The hash of a file, and how many bytes it has, all of which go to `take`; it ends where that takes no more.
pub(super) fn hash_to(path: &Path, mut take: impl FnMut(&[u8]) -> Result<(), ()>) -> io::Result<(Hash, u64)> {
    thread_local! {
        static BUFFER: RefCell<Vec<u8>> = RefCell::new(vec![0; 1 << 17]);
    }
    let mut file = std::fs::File::open(path)?;
    let mut hasher = blake3::Hasher::new();
    let mut size = 0;
    BUFFER.with_borrow_mut(|buffer| {
        loop {
            let read = file.read(buffer)?;
            hasher.update(&buffer[..read]);
            size += read as u64;
            if read == 0 || take(&buffer[..read]).is_err() {
                return Ok((Hash::from(hasher.finalize()), size));
            }
        }
    })
}

/// The real path of a file or a folder that may not be there yet.
pub(super) fn real(path: &Path) -> io::Result<PathBuf> {
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
