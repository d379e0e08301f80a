//! MathML, as browsers know it (MathML Core), and as others write it (MathML 3).

mod content;
mod pairing;
mod read;
mod tables;
mod write;

pub use read::read;
pub use write::{Options, write};
