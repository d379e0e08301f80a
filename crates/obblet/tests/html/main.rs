//! HTML, read, cleaned, checked and written.

#[path = "../support/mod.rs"]
mod support;

mod accessible;
mod back;
mod check;
mod clean;
mod elements;
mod injection;
mod looks;
mod noise_law;
mod reading;
mod rules;
mod strangers;
mod validity;
