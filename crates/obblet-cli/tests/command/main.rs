//! The command, run as a process.

mod compare;
mod convert;
mod inspect;
mod jobs;
mod others;
mod publish;
mod strangers;
mod word;
