//! Escaping for markup that is put together outside of the writer.

use super::{Characters, Settings, Syntax};

/// Writes text.
pub(crate) fn text(out: &mut String, text: &str, syntax: Syntax, characters: Characters) {
    out.push_str(&super::write::escaped(text, &Settings { syntax, characters, ..Settings::USUAL }));
}

/// Writes an address.
pub(crate) fn address(out: &mut String, address: &str) {
    super::address::write(out, address);
}
