//! Where a source shows LaTeX and does not mean it: in environments of code, in comments, and between signs for code in a line.

use super::environment_names::{Sort, sort};
use crate::fast_hash::HashSet;
use std::ops::Range;

/// Commands that define environments of code.
const DEFINERS: [&str; 5] =
    ["\\DefineVerbatimEnvironment{", "\\lstnewenvironment{", "\\newtcblisting{", "\\newverbatim{", "\\newminted{"];

/// A document defines no more of them.
const MOST_NAMES: usize = 64;

/// Whether a command with one of some signs behind it is meant somewhere.
pub(super) fn is_meant(source: &str, command: &str, behind: &[&str]) -> bool {
    let follows = |at: &usize| behind.iter().any(|behind| source[at + command.len()..].starts_with(behind));
    let mut places = memchr::memmem::find_iter(source.as_bytes(), command.as_bytes()).filter(follows).peekable();
    if places.peek().is_none() {
        return false;
    }
    let code = code_of(source);
    places.any(|at| {
        let next = code.partition_point(|range| range.end <= at);
        code.get(next).is_none_or(|range| !range.contains(&at)) && !is_shown_in_line(source, at)
    })
}

/// What stands in environments of code, in order.
fn code_of(source: &str) -> Vec<Range<usize>> {
    let mut own = HashSet::default();
    for definer in DEFINERS {
        for at in memchr::memmem::find_iter(source.as_bytes(), definer.as_bytes()) {
            if own.len() < MOST_NAMES {
                own.extend(name_at(source, at + definer.len()));
            }
        }
    }
    let (mut found, mut at) = (Vec::new(), 0);
    // Those that do not end are none.
    let mut endless = HashSet::default();
    while let Some(begin) = memchr::memmem::find(&source.as_bytes()[at..], b"\\begin{") {
        let start = at + begin + "\\begin{".len();
        at = start;
        let Some(name) = name_at(source, start) else { continue };
        let is_code =
            own.contains(name) || matches!(sort(name.trim_end_matches('*')), Some(Sort::Code | Sort::File | Sort::Skipped));
        if !is_code || endless.contains(name) {
            continue;
        }
        let end = format!("\\end{{{name}}}");
        match memchr::memmem::find(&source.as_bytes()[start..], end.as_bytes()) {
            Some(length) => {
                found.push(start..start + length);
                at = start + length;
            }
            None => drop(endless.insert(name)),
        }
    }
    found
}

/// A name up to a brace.
fn name_at(source: &str, start: usize) -> Option<&str> {
    const LONGEST: usize = 100;
    let end = source.as_bytes()[start..].iter().take(LONGEST).position(|byte| matches!(byte, b'}' | b'\n'))?;
    Some(&source[start..start + end])
}

/// Whether a place stands behind a sign for comments, or for code, in its line.
fn is_shown_in_line(source: &str, at: usize) -> bool {
    const LONGEST: usize = 1_000;
    let before = &source.as_bytes()[at.saturating_sub(LONGEST)..at];
    let line = before.rsplit(|byte| *byte == b'\n').next().unwrap_or_default();
    let is_comment = line.iter().enumerate().any(|(place, byte)| *byte == b'%' && (place == 0 || line[place - 1] != b'\\'));
    // Behind `\verb|`, or in the argument of a command that shows it.
    let ends_code = [&b"\\verb"[..], b"\\Verb", b"\\lstinline", b"\\string"]
        .iter()
        .any(|command| memchr::memmem::rfind(line, command).is_some_and(|place| line.len() - place - command.len() <= 2));
    is_comment || ends_code || line.ends_with(b"|")
}

#[cfg(test)]
mod tests {
    use super::is_meant;

    #[test]
    fn what_is_shown_is_not_meant() {
        let is_meant = |source: &str| is_meant(source, "\\part", &["{", "*{"]);
        assert!(is_meant("a\n\\part{One}"));
        assert!(is_meant("100\\% \\part*{One}"));
        assert!(is_meant("\\begin{verbatim}\\end{verbatim}\\part{One}"));
        for shown in [
            "\\begin{Verbatim}\n\\part{One}\n\\end{Verbatim}",
            "\\DefineVerbatimEnvironment{shown}{Verbatim}{}\\begin{shown}\n\\part{One}\\end{shown}",
            "% \\part{One}",
            "the command \\verb|\\part{One}|",
            "|\\part{One}|",
            "\\particle",
        ] {
            assert!(!is_meant(shown), "{shown}");
        }
    }
}
