//! What can be wrong with a profile.

/// A profile that can't be used.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum ProfileError {
    /// A key that no setting has.
    #[error("there is no setting {key}{}", did_you_mean(.nearest))]
    UnknownKey {
        /// The key.
        key: String,
        /// The setting whose name is nearest.
        nearest: Option<String>,
    },
    /// A value that a setting can't have.
    #[error("{key} can't be {value}; {expected}")]
    WrongValue {
        /// The key of the setting.
        key: String,
        /// The value as it was written.
        value: String,
        /// What it may be.
        expected: String,
    },
    /// A profile that does not come with Obblet and is no file.
    #[error("there is no profile {name}{}", did_you_mean(.nearest))]
    UnknownProfile {
        /// Its name.
        name: String,
        /// The built-in profile whose name is nearest.
        nearest: Option<String>,
    },
    /// A setting that is not written as `key=value`.
    #[error("{text} is no setting; write key=value, as in html.indent=2")]
    NoValue {
        /// What was written.
        text: String,
    },
    /// Text that is not TOML.
    #[error("{message}")]
    Syntax {
        /// What is wrong with it.
        message: String,
    },
    /// Something that is wrong in a file.
    #[error("{file}:{line}: {error}")]
    InFile {
        /// The file.
        file: String,
        /// The line, from 1.
        line: usize,
        /// What is wrong.
        error: Box<Self>,
    },
    /// A file that a settings file may not name, for nobody asked for the settings file.
    #[error(
        "{key} can't be {path}: settings that are found in a folder reach only files below it; name the settings file with --profile to allow others"
    )]
    OutOfReach {
        /// The key of the setting.
        key: String,
        /// The file.
        path: String,
    },
    /// A file that can't be read.
    #[error("can't read {file}: {message}")]
    Unreadable {
        /// The file.
        file: String,
        /// Why.
        message: String,
    },
}

fn did_you_mean(nearest: &Option<String>) -> String {
    nearest.as_ref().map_or_else(String::new, |nearest| format!("; did you mean {nearest}?"))
}

/// The name that is nearest to a word, where one is near.
pub(crate) fn nearest<'n>(word: &str, names: impl Iterator<Item = &'n str>) -> Option<String> {
    names
        .map(|name| (strsim::damerau_levenshtein(word, name), name))
        .filter(|&(distance, name)| distance <= 1 + name.len() / 3 && distance < name.len())
        .min()
        .map(|(_, name)| name.to_owned())
}
