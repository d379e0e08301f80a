//! Escaping for markup that is put together outside of the writer.

use super::{Characters, Syntax};

/// Writes text.
pub(crate) fn text(out: &mut String, text: &str, syntax: Syntax, characters: Characters) {
    let options = super::Options { syntax, characters, ..super::Options::default() };
    out.push_str(&super::write::escaped(text, &options));
}

/// Writes an address.
pub(crate) fn address(out: &mut String, address: &str) {
    super::address::write(out, address);
}
