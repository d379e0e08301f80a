//! What a source cites, by which style, and where the entries are: known before it is read, since the list of them is text that is
//! taken in (the LaTeX documentation, "Citations"; of natbib and biblatex).

use crate::document::{BibliographyStyle, CitationStyle, EntryForm, EntryOrder};
use crate::fast_hash::HashSet;

/// An argument is no longer.
const LONGEST_ARGUMENT: usize = 2_000;

/// What stands before a sign that is not far away, and behind it.
fn up_to(text: &str, close: u8) -> Option<(&str, &str)> {
    let length = memchr::memchr(close, &text.as_bytes()[..text.len().min(LONGEST_ARGUMENT)])?;
    Some((&text[..length], &text[length + 1..]))
}

/// The name of the style that a document asks for.
pub(super) fn name_of_style(source: &str) -> Option<&str> {
    const COMMAND: &str = "\\bibliographystyle{";
    let rest = &source[source.rfind(COMMAND)? + COMMAND.len()..];
    up_to(rest, b'}').map(|(name, _)| name.trim())
}

/// The options that a document gives biblatex, where it takes that.
pub(super) fn options_of_biblatex(source: &str) -> Option<&str> {
    let packages =
        source.match_indices("\\usepackage[").filter_map(|(at, _)| up_to(&source[at..], b'}').map(|(package, _)| package));
    let with_options = packages.filter(|package| package.ends_with("{biblatex")).last();
    with_options.or_else(|| source.contains("{biblatex}").then_some(""))
}

/// The style that a document asks for; its name, where it is not known what that style does.
pub(super) fn style_of(source: &str) -> Result<BibliographyStyle, &str> {
    if let Some(options) = options_of_biblatex(source) {
        return Ok(BibliographyStyle::of_biblatex(options));
    }
    // Without a style, numbers are usual.
    let usual = BibliographyStyle { labels: CitationStyle::Numbers, ..BibliographyStyle::default() };
    match name_of_style(source).filter(|name| !name.is_empty()) {
        Some(name) => {
            let mut style = BibliographyStyle::from_name(name).ok_or(name)?;
            if style.labels == CitationStyle::AuthorYear && is_by_numbers(source) {
                style.labels = CitationStyle::Numbers;
            }
            Ok(style)
        }
        None if source.contains("{revtex4") => Ok(BibliographyStyle::from_name("apsrev").unwrap_or(usual)),
        None => Ok(usual),
    }
}

/// Whether natbib counts entries.
fn is_by_numbers(source: &str) -> bool {
    let packages =
        source.match_indices("]{natbib}").filter_map(|(end, _)| source[..end].rsplit_once('[').map(|(_, options)| options));
    let set = source.match_indices("\\setcitestyle{").filter_map(|(at, command)| up_to(&source[at + command.len()..], b'}'));
    packages
        .chain(set.map(|(options, _)| options))
        .any(|options| options.split(',').any(|option| matches!(option.trim(), "numbers" | "super")))
}

/// The style of entries that a document holds itself, by the options of the package for these (the documentation of amsrefs,
/// "Package options").
pub(super) fn style_of_amsrefs(source: &str) -> BibliographyStyle {
    let options = source.find("]{amsrefs}").and_then(|end| source[..end].rsplit_once('[')).map_or("", |(_, options)| options);
    let has = |name: &str| options.split(',').any(|option| option.trim() == name);
    let labels = if has("alphabetic") || has("shortalphabetic") || has("y2k") {
        CitationStyle::Letters
    } else if has("author-year") {
        CitationStyle::AuthorYear
    } else {
        CitationStyle::Numbers
    };
    BibliographyStyle { labels, entries: EntryForm::FullNames, order: EntryOrder::Cited, ..BibliographyStyle::default() }
}

/// The files that a document names besides.
pub(super) fn resources(source: &str) -> Vec<String> {
    let found =
        source.match_indices("\\addbibresource{").filter_map(|(at, command)| source[at + command.len()..].split('}').next());
    found.map(|name| name.trim().to_owned()).take(20).collect()
}

/// The keys that a text cites, each once, in their order; and whether it asks for all entries.
pub(super) fn cited(source: &str) -> (Vec<&str>, bool) {
    let (mut keys, mut known, mut all) = (Vec::new(), HashSet::default(), false);
    for (at, _) in source.match_indices("cite") {
        let letters = source[..at].bytes().rev().take(24).take_while(u8::is_ascii_alphabetic).count();
        if !source[..at - letters].ends_with('\\') {
            continue;
        }
        let rest = &source[at + 4..];
        let behind = rest.trim_start_matches(|c: char| c.is_ascii_alphabetic());
        let is_several = rest.starts_with('s');
        let mut rest = behind.trim_start_matches('*');
        loop {
            for (open, close) in [('(', b')'), ('(', b')'), ('[', b']'), ('[', b']')] {
                if let Some((_, behind)) =
                    rest.strip_prefix(open).filter(|_| is_several || open == '[').and_then(|option| up_to(option, close))
                {
                    rest = behind;
                }
            }
            let Some((list, behind)) = rest.strip_prefix('{').and_then(|list| up_to(list, b'}')) else { break };
            rest = behind;
            for key in list.split(',').map(str::trim) {
                all |= key == "*";
                if !key.is_empty() && key != "*" && known.insert(key) {
                    keys.push(key);
                }
            }
            if !is_several {
                break;
            }
        }
    }
    (keys, all)
}
