//! What can go wrong where a page is put around a document.

use crate::io_error::describe;

/// Why a document has no page around it.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum PageError {
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
    /// A page was asked for, and this build has no frames.
    #[error("this build has no frames for pages; shape=fragment does without")]
    NoFrames,
}
