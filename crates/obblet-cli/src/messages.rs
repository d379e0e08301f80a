//! What people read while a command works: all of it goes to standard error, and is plain where that is no terminal.

use crate::Outcome;
use anstyle::{AnsiColor, Style};
use obblet::document::{Finding, Place, Weight};
use std::borrow::Cow;
use std::collections::HashMap;
use std::fmt::Display;
use std::io::Write;
use std::path::Path;

/// So many findings of one code are shown; the rest are counted.
const MOST_OF_A_CODE: usize = 5;

pub(crate) const fn style(weight: Weight) -> Style {
    let color = match weight {
        Weight::Lost => AnsiColor::Red,
        Weight::Changed => AnsiColor::Yellow,
        Weight::Advice => AnsiColor::Cyan,
    };
    Style::new().fg_color(Some(anstyle::Color::Ansi(color)))
}

/// Text from documents, file names and settings as it may go to a terminal: what would move the cursor, change its colours, hide
/// or reorder letters is shown as a sign of replacement. Line ends and tabs become spaces.
pub(crate) fn shown(text: &str) -> Cow<'_, str> {
    let is_harmful = |c: char| c.is_control() || matches!(c, '\u{2028}'..='\u{202E}' | '\u{2066}'..='\u{2069}');
    if !text.contains(is_harmful) {
        return Cow::Borrowed(text);
    }
    let replace = |c: char| match c {
        '\n' | '\r' | '\t' | '\u{2028}' | '\u{2029}' => ' ',
        c if is_harmful(c) => char::REPLACEMENT_CHARACTER,
        c => c,
    };
    Cow::Owned(text.replace("\r\n", " ").chars().map(replace).collect())
}

/// A path as it may go to a terminal.
pub(crate) fn shown_path(path: &Path) -> String {
    shown(&path.to_string_lossy()).into_owned()
}

/// Writes a line, whose parts from elsewhere are [`shown`]. A standard error that is gone is nobody's loss.
pub(crate) fn say(line: impl Display) {
    let _ = writeln!(anstream::stderr(), "{line}");
}

/// Says what went wrong.
pub(crate) fn error(message: impl Display) {
    let bold = Style::new().bold().fg_color(Some(AnsiColor::Red.into()));
    say(format_args!("{bold}obblet:{bold:#} {}", shown(&message.to_string())));
}

/// Says what went wrong, and how the command ends.
pub(crate) fn fail(outcome: Outcome, message: impl Display) -> Outcome {
    error(message);
    outcome
}

/// Shows the findings of a document.
pub(crate) fn findings(source: &str, findings: &[Finding], verbose: bool) {
    let reported: Vec<Finding> = findings.iter().filter(|finding| verbose || finding.weight != Weight::Advice).cloned().collect();
    all_findings(source, &reported, verbose);
}

/// Shows the findings of a document, advice as well; of many of a code, the first.
pub(crate) fn all_findings(source: &str, findings: &[Finding], verbose: bool) {
    let mut counts: HashMap<&str, usize> = HashMap::new();
    for finding in findings {
        let count = counts.entry(&finding.code).or_insert(0);
        *count += 1;
        if verbose || *count <= MOST_OF_A_CODE {
            one(source, finding);
        }
    }
    let mut more: Vec<(&str, usize)> = counts.into_iter().filter(|&(_, count)| !verbose && count > MOST_OF_A_CODE).collect();
    more.sort_unstable();
    for (code, count) in more {
        say(format_args!("{}: {} more of {code}; --verbose shows them", shown(source), count - MOST_OF_A_CODE));
    }
}

fn one(source: &str, finding: &Finding) {
    let style = style(finding.weight);
    let place = match finding.place {
        Place::Unknown => String::new(),
        place @ Place::Line { .. } => format!(":{place}"),
        place @ Place::Paragraph { .. } => format!(": {place}"),
    };
    let hint = if finding.hint.is_empty() { String::new() } else { format!("; {}", shown(&finding.hint)) };
    let (source, code, message) = (shown(source), shown(&finding.code), shown(&finding.message));
    say(format_args!("{source}{place}: {style}{}{style:#} [{code}] {message}{hint}", finding.weight.word()));
}

/// How many findings of each weight there are, in words; empty where there are none.
pub(crate) fn tally(findings: &[Finding]) -> String {
    let parts: Vec<String> = [Weight::Lost, Weight::Changed, Weight::Advice]
        .into_iter()
        .filter_map(|weight| {
            let count = findings.iter().filter(|finding| finding.weight == weight).count();
            let style = style(weight);
            (count > 0).then(|| format!("{style}{count} {}{style:#}", weight.word()))
        })
        .collect();
    parts.join(", ")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nothing_of_a_source_steers_the_terminal() {
        assert_eq!(shown("Gezeiten, \u{6F6E}\u{6C50}"), "Gezeiten, \u{6F6E}\u{6C50}");
        assert_eq!(shown("a\u{1b}[31mb\r\nc\td\u{9b}2Je\u{202e}f\u{7f}"), "a\u{FFFD}[31mb c d\u{FFFD}2Je\u{FFFD}f\u{FFFD}");
    }
}
