//! The guide's tables are what the rooms declare, and what the code reports is declared.

use obblet::profile::{Profile, settings};
use std::collections::{BTreeMap, BTreeSet};
use std::fmt::Write;
use std::path::{Path, PathBuf};

const GUIDE: &str = concat!(env!("CARGO_MANIFEST_DIR"), "/../../docs/guide.md");

/// The table of a guide below a line, or an empty one.
fn table<'g>(guide: &'g str, head: &str) -> &'g str {
    let rest = guide.find(head).map_or("", |start| &guide[start..]);
    &rest[..rest.find("\n\n").map_or(rest.len(), |end| end + 1)]
}

fn findings() -> String {
    let mut out = String::from("| Code | Weight | Meaning |\n|:-----|:-------|:--------|\n");
    for finding in obblet::findings() {
        let weights: Vec<&str> = finding.weights.iter().map(|weight| weight.word()).collect();
        let _ = writeln!(out, "| `{}` | {} | {} |", finding.code, weights.join(", "), finding.meaning);
    }
    out
}

fn all_settings() -> String {
    let mut out = String::from("| Key | Default | Meaning | May be |\n|:----|:--------|:--------|:-------|\n");
    let escape = |text: &str| text.replace('|', "\\|").replace('<', "&lt;");
    for setting in settings() {
        let usual = setting.get(&Profile::default()).to_string();
        let (meaning, values) = (escape(setting.meaning), escape(&setting.values()));
        let _ = writeln!(out, "| `{}` | `{usual}` | {meaning} | {values} |", setting.key);
    }
    out
}

/// With `OBBLET_UPDATE` set, the guide is written anew.
#[test]
fn the_tables_of_the_guide_are_those_of_the_rooms() {
    let mut guide = std::fs::read_to_string(GUIDE).unwrap();
    let tables = [("| Code | Weight | Meaning |", findings()), ("| Key | Default | Meaning | May be |", all_settings())];
    if std::env::var_os("OBBLET_UPDATE").is_some() {
        for (head, new) in &tables {
            guide = guide.replacen(table(&guide, head), new, 1);
        }
        std::fs::write(GUIDE, &guide).unwrap();
    }
    for (head, expected) in tables {
        let rows = |table: &str| table.lines().map(str::to_owned).collect::<BTreeSet<_>>();
        let (ours, theirs) = (rows(&expected), rows(table(&guide, head)));
        let differing: Vec<_> = ours.symmetric_difference(&theirs).collect();
        assert!(differing.is_empty(), "OBBLET_UPDATE=1 cargo test --test folders guide writes them: {differing:#?}");
    }
}

fn sources(folder: &Path, found: &mut Vec<PathBuf>) {
    for entry in std::fs::read_dir(folder).into_iter().flatten().flatten() {
        let path = entry.path();
        if path.is_dir() {
            sources(&path, found);
        } else if path.extension().is_some_and(|extension| extension == "rs") {
            found.push(path);
        }
    }
}

#[test]
fn every_finding_that_the_code_has_is_declared_with_its_weight() {
    let mut paths = Vec::new();
    sources(Path::new(concat!(env!("CARGO_MANIFEST_DIR"), "/src")), &mut paths);
    let mut used: BTreeMap<String, BTreeSet<&str>> = BTreeMap::new();
    for path in &paths {
        let text = std::fs::read_to_string(path).unwrap();
        let text = text.split("#[cfg(test)]").next().unwrap_or_default();
        for weight in ["lost", "changed", "advice"] {
            for (at, start) in text.match_indices(&format!("Finding::{weight}(")) {
                let Some(code) = text[at + start.len()..].trim_start().strip_prefix('"') else { continue };
                used.entry(code.split('"').next().unwrap_or_default().to_owned()).or_default().insert(weight);
            }
        }
    }
    assert!(used.len() > 80, "{}", used.len());
    let declared: BTreeMap<&str, BTreeSet<&str>> = obblet::findings()
        .into_iter()
        .map(|finding| (finding.code, finding.weights.iter().map(|weight| weight.word()).collect()))
        .collect();
    let missing: Vec<_> = used
        .iter()
        .filter(|(code, weights)| {
            // Faults of markup are declared together.
            let code = if code.starts_with("check.") { "check.*" } else { code.as_str() };
            declared.get(code).is_none_or(|declared| !weights.is_subset(declared))
        })
        .collect();
    assert!(missing.is_empty(), "{missing:?}");
}
