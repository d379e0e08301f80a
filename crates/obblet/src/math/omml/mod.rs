//! The formulas of word processors (ECMA-376, part 1, section 22.1).

mod read;
mod write;

pub use read::read;
pub use write::write;
