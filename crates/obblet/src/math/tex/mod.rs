//! The mathematics of TeX, as LaTeX with the packages of the American Mathematical Society has it.

mod commands;
mod constructs;
mod environments;
mod macros;
mod packages;
mod read;
mod science;
mod shorthands;
mod symbols;
mod tokens;
mod write;

pub(crate) use commands::upright_letter;
pub(in crate::math) use commands::{class_of_text, function_of_name, is_of_class};
pub(crate) use environments::is_environment;
pub use macros::Macros;
pub(crate) use packages::needs_package;
pub use read::{read, read_next, read_with};
pub use write::write;
