//! What can go wrong where a folder is published.

/// Why a folder is not published. What is wrong with one document of it is a finding.
#[derive(Debug, thiserror::Error)]
#[non_exhaustive]
pub enum PublishError {
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
}
