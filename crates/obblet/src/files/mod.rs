//! The one door to the file system.
//!
//! Documents, the folders that they lie in, and records of earlier runs come from strangers, and any path in them may lead
//! anywhere. So nothing but this room opens files, and what it opens is
//!
//! * below a [`Root`], which holds its folder open: no path, no `..` and no symbolic link leads out of it, whatever anybody does
//!   to the folder meanwhile;
//! * or a file that the user named, in the functions that take any path;
//! * a regular file, unless the user named it: devices, pipes and sockets of a folder are not opened;
//! * read up to a limit that the caller names.

#![allow(clippy::disallowed_methods, clippy::disallowed_types, reason = "this is the door")]

mod atomic_file;
mod media;
mod named;
mod root;

pub use crate::media::There;
pub(crate) use atomic_file::TEMPORARY;
pub use media::{FolderLinks, FolderStore};
pub(crate) use named::read_bytes;
pub use named::write_whole;
pub(crate) use named::{Sink, read_text, real, scratch};
pub use named::{is_same, read_named};
pub use root::Root;
pub(crate) use root::{Held, Kind, Stray, changing};

/// So much is read of a file that holds settings, patterns or a part of a page, in bytes.
pub(crate) const MOST_OF_A_SETTING: u64 = 16 << 20;

/// A template is no larger.
pub(crate) const MOST_OF_A_TEMPLATE: u64 = 1 << 28;
