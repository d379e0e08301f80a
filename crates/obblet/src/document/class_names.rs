//! Classes that say what something is, and not how it looks: they are kept where others are not.

use super::Kind;

/// The class of tables that show words of two languages, one above the other.
pub(crate) const GLOSS: &str = "gloss";

/// The class of lists whose items are the lines of an algorithm.
pub(crate) const ALGORITHM: &str = "algorithm";

/// Whether a class says what a table or a list is.
pub(crate) fn says_what_it_is(kind: Kind, class: &str) -> bool {
    match kind {
        Kind::Table => class == GLOSS,
        Kind::List(_) => class == ALGORITHM,
        _ => false,
    }
}
