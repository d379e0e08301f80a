//! Why a command did not do what it was asked to.

use crate::Outcome;
use obblet::{Error, publish::PublishError};

/// What went wrong, and how the command ends for it.
pub(crate) struct Failure(pub(crate) Outcome, pub(crate) String);

impl From<Error> for Failure {
    fn from(error: Error) -> Self {
        let outcome = match error {
            Error::Profile(_)
            | Error::Page(_)
            | Error::Publish(PublishError::SiteOfFragments | PublishError::OutputAroundSource { .. })
            | Error::NotRead { .. }
            | Error::NotWritten { .. } => Outcome::Misused,
            _ => Outcome::Failed,
        };
        Self(outcome, error.to_string())
    }
}

impl Failure {
    /// The same, with the name of the document that it is about.
    pub(crate) fn of(self, name: &str) -> Self {
        Self(self.0, format!("{name}: {}", self.1))
    }
}

/// The command was used wrongly.
pub(crate) fn misused(message: impl Into<String>) -> Failure {
    Failure(Outcome::Misused, message.into())
}
