//! Lists of entries that a document asks for, by what it says of them (the documentation of biblatex, "The bibliography").

use crate::citations::{self, Listed};
use crate::document::CitationStyle;

/// The environment of a list that has no heading of its own.
pub(super) const WITHOUT_HEADING: &str = "entries-without-heading";

/// The list that a command asks for by its options, as LaTeX; a title that only another file can define is none.
pub(super) fn printed(entries: &[Listed], labels: CitationStyle, options: &str, source: &str) -> String {
    let values = |name: &str| {
        let name = name.to_owned();
        parts(options).into_iter().filter_map(move |(key, value)| (key == name).then_some(value))
    };
    let is_chosen = |entry: &&(usize, &Listed)| {
        let entry = entry.1;
        let has_keyword = |keyword: &str| entry.keywords.split(',').any(|own| own.trim() == keyword);
        values("type").all(|kind| kind == entry.kind)
            && values("nottype").all(|kind| kind != entry.kind)
            && values("keyword").all(has_keyword)
            && values("notkeyword").all(|keyword| !has_keyword(keyword))
    };
    let chosen: Vec<(usize, &Listed)> = (1..).zip(entries).filter(|entry| is_chosen(&entry)).collect();
    if chosen.is_empty() {
        return String::new();
    }
    let has_chapters = super::counters::Counters::of(source).has_chapters;
    let is_defined = |title: &&str| !title.starts_with('\\') || source.matches(title).nth(1).is_some();
    let title = values("title").next_back().filter(is_defined);
    let heading = values("heading").next_back().unwrap_or("bibliography");
    if title.is_none() && matches!(heading, "bibliography" | "bibintoc") {
        return citations::list(chosen, labels, "thebibliography");
    }
    let list = citations::list(chosen, labels, WITHOUT_HEADING);
    let (upper, lower, own) = if has_chapters { ("chapter", "section", "bibname") } else { ("section", "subsection", "refname") };
    let words = title.map_or_else(|| format!("\\{own}"), str::to_owned);
    let heading = match heading {
        "none" => return list,
        "bibnumbered" => format!("\\{upper}{{{words}}}"),
        "subbibliography" | "subbibintoc" => format!("\\{lower}*{{{words}}}"),
        "subbibnumbered" => format!("\\{lower}{{{words}}}"),
        _ => format!("\\{upper}*{{{words}}}"),
    };
    format!("{heading}\n{list}")
}

/// Options with their values; a comma in braces parts none.
fn parts(options: &str) -> Vec<(&str, &str)> {
    let mut depth = 0;
    let parts = options.split(|c: char| {
        depth += i32::from(c == '{') - i32::from(c == '}');
        c == ',' && depth == 0
    });
    parts.filter_map(|part| part.split_once('=')).map(|(key, value)| (key.trim(), unbraced(value.trim()))).collect()
}

fn unbraced(value: &str) -> &str {
    value.strip_prefix('{').and_then(|inner| inner.strip_suffix('}')).unwrap_or(value)
}
