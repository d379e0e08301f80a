//! The settings of LaTeX.

use crate::settings::{Declared, Setting};

/// Settings of LaTeX.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Settings {}

impl Declared for Settings {
    const SETTINGS: &'static [Setting<Self>] = &[];
}
