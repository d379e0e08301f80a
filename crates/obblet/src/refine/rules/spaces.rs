//! Spaces behind full stops, and tabs.

use super::replace::each_text;
use crate::document::Document;

/// How many spaces stand between sentences.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum StopSpaces {
    /// As in the source.
    #[default]
    Keep,
    /// One.
    One,
    /// Two, of which the first is a no-break space, so that both are shown.
    Two,
}

/// What becomes of tabs in text.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Tabs {
    /// They stay.
    #[default]
    Keep,
    /// They become spaces.
    Space,
}

/// Sets spaces between sentences, and tabs.
pub fn set(doc: &mut Document, stops: StopSpaces, tabs: Tabs) {
    if tabs == Tabs::Space {
        each_text(doc, |text| if text.contains('\t') { text.replace('\t', " ") } else { text.to_owned() });
    }
    match stops {
        StopSpaces::Keep => {}
        StopSpaces::One => each_text(doc, |text| respaced(text, " ")),
        StopSpaces::Two => each_text(doc, |text| respaced(text, "\u{A0} ")),
    }
}

fn respaced(text: &str, between: &str) -> String {
    let mut out = String::with_capacity(text.len());
    let mut rest = text;
    while let Some(place) = rest.find(['.', '!', '?']) {
        let stop = &rest[place..];
        let end = place + stop.len()
            - stop.trim_start_matches(['.', '!', '?', '"', '\'', ')', ']', '\u{2019}', '\u{201D}', '\u{BB}']).len();
        let behind = rest[end..].trim_start_matches([' ', '\u{A0}']);
        let spaces = rest[end..].len() - behind.len();
        out.push_str(&rest[..end]);
        let sentence =
            behind.trim_start_matches(['"', '\'', '(', '\u{201C}', '\u{2018}', '\u{AB}']).starts_with(char::is_uppercase);
        // A space behind an initial or a shortened word does not end a sentence, but two of them are never wanted there.
        let wide = rest[end..end + spaces].chars().count() > 1;
        out.push_str(if spaces == 0 {
            ""
        } else if sentence && !is_initial(&rest[..place]) {
            between
        } else if wide {
            " "
        } else {
            &rest[end..end + spaces]
        });
        rest = behind;
    }
    out.push_str(rest);
    out
}

/// Whether the word before a full stop is a single letter.
fn is_initial(before: &str) -> bool {
    let mut chars = before.chars().rev();
    chars.next().is_some_and(char::is_uppercase) && chars.next().is_none_or(|c| !c.is_alphanumeric())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn spaces_between_sentences() {
        assert_eq!(
            respaced("Low water.  High water. \u{201C}Now!\u{201D}  M. Pask said 3.5 m.", " "),
            "Low water. High water. \u{201C}Now!\u{201D} M. Pask said 3.5 m."
        );
        assert_eq!(respaced("Low. High.  i.e. so", "\u{A0} "), "Low.\u{A0} High. i.e. so");
    }
}
