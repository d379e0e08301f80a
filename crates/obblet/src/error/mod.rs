//! What can go wrong so that there is no output at all. Everything else is a finding.

mod page;
#[cfg(feature = "publish")]
mod publish;

pub use page::PageError;
#[cfg(feature = "publish")]
pub use publish::PublishError;

use crate::formats::ReadError;
use crate::io_error::describe;
use crate::profile::ProfileError;

/// Why a conversion has no output.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum Error {
    /// The format can't be read yet.
    #[error("can't read {format} documents")]
    NotRead {
        /// Name of the format.
        format: &'static str,
    },
    /// The format can't be written yet.
    #[error("can't write {format} documents")]
    NotWritten {
        /// Name of the format.
        format: &'static str,
    },
    /// A source of a text format that is something else.
    #[error("it is {what}, whatever its name is; {hint}")]
    NotText {
        /// What it is, by its first bytes.
        what: &'static str,
        /// What to do about it.
        hint: &'static str,
    },
    /// The source is larger than the limit.
    #[error("the source has {size} bytes; the limit is {limit} (limits.source)")]
    TooLarge {
        /// Its size in bytes.
        size: u64,
        /// The limit in bytes.
        limit: u64,
    },
    /// A page can't be put together.
    #[error(transparent)]
    Page(#[from] PageError),
    /// A folder can't be published.
    #[cfg(feature = "publish")]
    #[error(transparent)]
    Publish(#[from] PublishError),
    /// A source that its reader can't open.
    #[error(transparent)]
    Read(#[from] ReadError),
    /// Somebody who waited for the conversion cancelled it.
    #[error("the conversion was cancelled")]
    Cancelled,
    /// Something that should never happen; it is reported instead of ending everything.
    #[error("internal error: {message}; please report it with the document")]
    Internal {
        /// What is known of it.
        message: String,
    },
    /// A profile that can't be used.
    #[error(transparent)]
    Profile(#[from] ProfileError),
    /// A file can't be read or written.
    #[error("{path}: {}", describe(.cause))]
    File {
        /// Path of the file.
        path: String,
        /// Why.
        #[source]
        cause: std::io::Error,
    },
}

impl Error {
    /// Whether there is no room left where something is written.
    pub(crate) fn is_full(&self) -> bool {
        use std::io::ErrorKind::{QuotaExceeded, StorageFull};
        matches!(self, Self::File { cause, .. } if matches!(cause.kind(), StorageFull | QuotaExceeded))
    }
}
