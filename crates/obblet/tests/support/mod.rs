//! What the tests share.
#![allow(
    dead_code,
    missing_docs,
    unreachable_pub,
    clippy::unwrap_used,
    clippy::panic,
    clippy::print_stderr,
    reason = "each test file uses a part of it"
)]

pub mod conservation;
pub mod convert;
pub mod corpus;
pub mod dom;
pub mod drawing;
pub mod folder;
pub mod linear;
pub mod package;
pub mod package_check;
pub mod trees;
pub mod validity;
