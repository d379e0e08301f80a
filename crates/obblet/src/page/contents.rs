//! The list of a page's headings.

use crate::formats::html::{Characters, HeadingEntry, Syntax, escape};

/// Nested lists of links to the headings of the first `depth` levels that the page uses.
pub(super) fn list(headings: &[HeadingEntry], depth: u8, syntax: Syntax, characters: Characters) -> String {
    // A single heading at the top is the title of the page; its parts are what the reader looks for.
    let top = headings.iter().map(|heading| heading.level).min().unwrap_or(1);
    let title_only = headings.iter().filter(|heading| heading.level == top).count() == 1 && headings[0].level == top;
    let first = if title_only { top + 1 } else { top };
    let shown = headings
        .iter()
        .filter(|heading| (first..first + depth).contains(&heading.level) && !heading.id.is_empty() && !heading.text.is_empty());
    let mut out = String::new();
    let mut open: Vec<u8> = Vec::new();
    for heading in shown {
        while open.last().is_some_and(|&level| level > heading.level) {
            out.push_str("</li>\n</ol>");
            open.pop();
        }
        match open.last() {
            Some(&level) if level == heading.level => out.push_str("</li>\n"),
            _ => {
                out.push_str(if open.is_empty() { "<ol>\n" } else { "\n<ol>\n" });
                open.push(heading.level);
            }
        }
        let number = if heading.number.is_empty() { String::new() } else { format!("{} ", heading.number) };
        out.push_str("<li><a href=\"");
        escape::address(&mut out, &format!("#{}", heading.id));
        out.push_str("\">");
        escape::text(&mut out, &format!("{number}{}", heading.text), syntax, characters);
        out.push_str("</a>");
    }
    for _ in open {
        out.push_str("</li>\n</ol>");
    }
    out
}
