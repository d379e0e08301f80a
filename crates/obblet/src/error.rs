//! What can go wrong so that there is no output at all. Everything else is a finding.

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
    /// A file that a setting names can't be used.
    #[error("{setting}: can't read {path}: {}", describe(.cause))]
    SettingFile {
        /// Key of the setting.
        setting: &'static str,
        /// Path of the file.
        path: String,
        /// Why.
        #[source]
        cause: std::io::Error,
    },
    /// There is no look of that name.
    #[error("there is no look {name}; there are {known}, and none")]
    UnknownLook {
        /// The name.
        name: String,
        /// The names that there are.
        known: String,
    },
    /// A frame, header or footer has an expression that can't be used.
    #[error("{file}:{line}: {message}")]
    Frame {
        /// The file.
        file: String,
        /// The line, from 1.
        line: usize,
        /// What is wrong.
        message: String,
    },
    /// A source that its reader can't open.
    #[error(transparent)]
    Read(#[from] ReadError),
    /// A page was asked for, and this build has no frames.
    #[error("this build has no frames for pages; shape=fragment does without")]
    NoFrames,
    /// Somebody who waited for the conversion cancelled it.
    #[error("the conversion was cancelled")]
    Cancelled,
    /// The output of a folder lies around the folder.
    #[error("the source folder lies inside the output folder {output}; name another output folder")]
    OutputAroundSource {
        /// The folder of the output.
        output: String,
    },
    /// A site that is not made of pages.
    #[error("a site is made of pages; publish.site does not go with shape=fragment")]
    SiteOfFragments,
    /// Another run writes to the same output.
    #[error("another run writes to {output}; wait until it is done")]
    Busy {
        /// The folder of the output.
        output: String,
    },
    /// A file that a slice wrote can't be used.
    #[error("{path}: {message}")]
    Slice {
        /// The file.
        path: String,
        /// What is wrong with it.
        message: String,
    },
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
