//! Org, LaTeX and formulas, read and written.

#[path = "../support/mod.rs"]
mod support;

mod citations;
mod latex;
mod latex_expansion;
mod latex_packages;
mod latex_printed;
mod latex_unknown;
mod latex_written;
mod math;
mod org;
mod org_plans;
