//! Citations in text: `@key` with words before and behind, several with semicolons between.

use crate::document::CitedEntry;

/// What is cited by the text of a citation between its brackets, and what stands before all of it and behind; nothing where it
/// cites nothing.
pub(crate) fn cited(text: &str) -> Option<(Vec<CitedEntry>, (String, String))> {
    let mut around = (String::new(), String::new());
    let mut entries: Vec<CitedEntry> = Vec::new();
    for part in text.split(';') {
        let Some((before, key, behind)) = entry(part) else {
            // Words without a key are for all entries, before the first or behind the last.
            let words = if entries.is_empty() { &mut around.0 } else { &mut around.1 };
            if !words.is_empty() {
                words.push_str("; ");
            }
            words.push_str(part.trim());
            continue;
        };
        entries.push(CitedEntry {
            before: before.trim().to_owned(),
            key: key.to_owned(),
            behind: behind.trim_start_matches(',').trim().to_owned(),
        });
    }
    (!entries.is_empty()).then_some((entries, around))
}

/// The first key of a text, with what stands before it and behind.
fn entry(text: &str) -> Option<(&str, &str, &str)> {
    for (at, _) in text.match_indices('@') {
        // Within a word it is part of an address.
        if text[..at].chars().next_back().is_some_and(char::is_alphanumeric) {
            continue;
        }
        let rest = &text[at + 1..];
        let length = rest.find(|c: char| !is_in_key(c)).unwrap_or(rest.len());
        let key = rest[..length].trim_end_matches(['.', ':', ',', '?', '!', '\'', '/']);
        if !key.is_empty() {
            return Some((&text[..at], key, &rest[key.len()..]));
        }
    }
    None
}

fn is_in_key(c: char) -> bool {
    c.is_alphanumeric() || matches!(c, '-' | '_' | '.' | ':' | '?' | '!' | '\'' | '/' | '*' | '+' | '&' | '#' | '$' | '%' | '~')
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keys_have_words_around() {
        let shown = |text: &str| {
            let (entries, (first, last)) = cited(text)?;
            let entries = entries.iter().map(|entry| format!("{}<{}>{}", entry.before, entry.key, entry.behind));
            Some(format!("{first}|{}|{last}", entries.collect::<Vec<_>>().join(" ")))
        };
        assert_eq!(shown("@brandt87").as_deref(), Some("|<brandt87>|"));
        assert_eq!(shown("see @a:1, pp. 3-4; @b.; both").as_deref(), Some("|see<a:1>pp. 3-4 <b>.|both"));
        assert_eq!(shown("compare; -@a ; @b p. 2").as_deref(), Some("compare|-<a> <b>p. 2|"));
        assert_eq!(shown("mail me@isle.example"), None);
        assert_eq!(shown("@*").as_deref(), Some("|<*>|"));
        assert_eq!(shown("@ @"), None);
    }
}
