//! What a setting is: a key, a meaning, the values that it may have, and the field of a section that it reads and writes.
//!
//! Each room declares its own settings beside the struct that holds them, as a table of [`Setting`]s; a
//! [`Profile`](crate::profile::Profile) is all sections together. Nothing here knows any of them.

#[macro_use]
mod declare;
pub(crate) mod parse;
mod value;

pub(crate) use declare::{bit, choice, file, flag, list, number, text};
pub use value::Value;
pub(crate) use value::{Choice, choices};

/// A setting of a section `S`.
pub(crate) struct Setting<S> {
    /// Its full name, as in `html.indent`.
    pub(crate) key: &'static str,
    /// What it does, in a sentence or two.
    pub(crate) meaning: &'static str,
    /// What its value may be.
    pub(crate) values: fn() -> String,
    pub(crate) get: fn(&S) -> Value,
    /// `None` where it can't have that value.
    pub(crate) set: fn(&mut S, &Value) -> Option<()>,
}

/// Settings that belong together, and the table that declares them.
pub(crate) trait Declared: Sized + 'static {
    /// The settings, in the order in which they are listed.
    const SETTINGS: &'static [Setting<Self>];
}

/// A section of a profile, whatever its type: its settings by their number.
pub(crate) trait Section {
    fn count(&self) -> usize;
    /// Where the setting of a key is.
    fn find(&self, key: &str) -> Option<usize>;
    fn key(&self, at: usize) -> &'static str;
    fn meaning(&self, at: usize) -> &'static str;
    fn values(&self, at: usize) -> String;
    fn get(&self, at: usize) -> Value;
    fn set(&mut self, at: usize, value: &Value) -> Option<()>;
}

impl<S: Declared> Section for S {
    fn count(&self) -> usize {
        S::SETTINGS.len()
    }

    fn find(&self, key: &str) -> Option<usize> {
        S::SETTINGS.iter().position(|setting| setting.key == key)
    }

    fn key(&self, at: usize) -> &'static str {
        S::SETTINGS[at].key
    }

    fn meaning(&self, at: usize) -> &'static str {
        S::SETTINGS[at].meaning
    }

    fn values(&self, at: usize) -> String {
        (S::SETTINGS[at].values)()
    }

    fn get(&self, at: usize) -> Value {
        (S::SETTINGS[at].get)(self)
    }

    fn set(&mut self, at: usize, value: &Value) -> Option<()> {
        (S::SETTINGS[at].set)(self, value)
    }
}
