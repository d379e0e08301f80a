//! Formulas: a file of them goes through every notation and back.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use obblet::math::{mathml, omml, tex};

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

#[test]
fn formulas_come_back_from_mathml() {
    // MathML has no sizes of fractions that are scripts, no classes of what is no operator, no scripts of the sides of an operator,
    // no names of rows, and one form for a script below and a limit; the source that travels with a formula has them.
    let others = ["\\genfrac{\\{", "\\sideset", "\\nolimits", "\\underset{x}{\\max}", "\\label{eq:a}", "\\mathrel{R}"];
    let mut failed = Vec::new();
    for source in formulas().into_iter().filter(|source| others.iter().all(|other| !source.contains(other))) {
        let (math, _) = tex::read(source);
        let markup = mathml::write(&math, &mathml::Options::default());
        let (again, problems) = mathml::read(&markup);
        let written = tex::write(&again);
        let (third, _) = tex::read(&written);
        if !problems.is_empty() || third.body != math.body {
            failed.push(format!("{source}\n  -> {written}\n  {markup}"));
        }
    }
    assert!(failed.is_empty(), "{} of {}:\n{}", failed.len(), formulas().len(), failed.join("\n"));
}

#[test]
fn formulas_come_back_from_word() {
    // Word processors have no sizes of their own for fractions, delimiters and rows, no colours in the tree, no rules of arrays,
    // no classes of operators, few spaces, and bars without sides; their form of all else is the tree.
    let others = [
        "dfrac",
        "tfrac",
        "dbinom",
        "cfrac",
        "genfrac",
        "sideset",
        "underset{x}{\\max}",
        "xleftarrow[g]",
        "igl",
        "\\big",
        "\\Big",
        "smallmatrix",
        "c|c",
        "multline",
        "\\label{eq:a}",
        "textbf",
        "\\: c",
        "qquad",
        "mspace",
        "style",
        "color",
        "mathbin",
        "mathrel",
        "bmod",
        "colon",
        "vert x",
        "Vert x",
        "\\Re",
        "bigtriangle",
        "vartriangleleft",
        "trianglelefteq",
    ];
    let mut failed = Vec::new();
    let mut count = 0;
    for source in formulas().into_iter().filter(|source| others.iter().all(|other| !source.contains(other))) {
        let (math, _) = tex::read(source);
        let markup = omml::write(&math);
        let (again, problems) = omml::read(&markup);
        let written = tex::write(&again);
        let (third, _) = tex::read(&written);
        count += 1;
        if !problems.is_empty() || third.body != math.body {
            failed.push(format!("{source}\n  -> {written}"));
        }
    }
    assert!(count > 460, "{count}");
    assert!(failed.is_empty(), "{} of {count}:\n{}", failed.len(), failed.join("\n"));
}
