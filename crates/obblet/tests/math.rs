//! Formulas: a file of them goes through every notation and back.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use obblet::math::{mathml, tex};

/// The formulas of the data file: one in each line.
fn formulas() -> Vec<&'static str> {
    let all = include_str!("data/formulas.txt");
    let found: Vec<&str> = all.lines().filter(|line| !line.is_empty() && !line.starts_with("# ")).collect();
    assert!(found.len() >= 500, "{}", found.len());
    found
}

#[test]
fn formulas_come_back_from_tex() {
    let mut failed = Vec::new();
    for source in formulas() {
        let (math, problems) = tex::read(source);
        let written = tex::write(&math);
        let (again, _) = tex::read(&written);
        if !problems.is_empty() {
            failed.push(format!("{source}: {problems:?}"));
        } else if again != math {
            failed.push(format!("{source}\n  -> {written}\n{math:?}\n{again:?}"));
        }
    }
    assert!(failed.is_empty(), "{} of {}:\n{}", failed.len(), formulas().len(), failed.join("\n"));
}
