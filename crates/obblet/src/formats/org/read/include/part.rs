//! Which part of a file is included, and what becomes of it on the way.

use super::super::headings::{is_planning, normal};
use super::super::lines::{Begins, Line, Lines, stars};
use super::super::options::keyword;
use std::path::Path;

/// What the value of a keyword asks for: `"file.org::*Heading" :lines "1-10" :minlevel 2`.
#[derive(Debug, Default, PartialEq, Eq)]
pub(super) struct Wanted<'v> {
    pub(super) path: &'v str,
    /// A heading, an id or a name in the file.
    pub(super) place: Option<&'v str>,
    /// The block that it stands in, such as `src` or `example`.
    pub(super) block: Option<&'v str>,
    /// What else stands behind the name of the block.
    pub(super) arguments: &'v str,
    /// The first line, from 1, and the one behind the last; 0 where it is not said.
    pub(super) lines: Option<(usize, usize)>,
    pub(super) least_level: Option<usize>,
    pub(super) only_contents: bool,
}

impl<'v> Wanted<'v> {
    pub(super) fn of(value: &'v str) -> Self {
        let value = value.trim();
        let (file, rest) = match value.strip_prefix('"') {
            Some(inner) => inner.split_once('"').unwrap_or((inner, "")),
            None => value.split_once([' ', '\t']).unwrap_or((value, "")),
        };
        let (path, place) = file.split_once("::").map_or((file, None), |(path, place)| (path, Some(place.trim())));
        let mut wanted = Self { path: path.trim(), place: place.filter(|place| !place.is_empty()), ..Self::default() };
        let mut rest = rest.trim();
        if !rest.is_empty() && !rest.starts_with(':') {
            let (block, behind) = rest.split_once([' ', '\t']).unwrap_or((rest, ""));
            wanted.block = Some(block);
            // The language, or what the raw text is for, and switches.
            let end = [":lines", ":minlevel", ":only-contents"].iter().filter_map(|name| behind.find(name)).min();
            wanted.arguments = behind[..end.unwrap_or(behind.len())].trim();
            rest = &behind[end.unwrap_or(behind.len())..];
        }
        let value_of = |name: &str| {
            let behind = rest.split_once(name)?.1.trim_start();
            Some(match behind.strip_prefix('"') {
                Some(inner) => inner.split('"').next().unwrap_or_default(),
                None => behind.split_whitespace().next().unwrap_or_default(),
            })
        };
        wanted.lines = value_of(":lines").map(|lines| {
            let (from, to) = lines.split_once('-').unwrap_or((lines, ""));
            (from.trim().parse().unwrap_or(0), to.trim().parse().unwrap_or(0))
        });
        wanted.least_level = value_of(":minlevel").and_then(|level| level.parse().ok());
        wanted.only_contents = value_of(":only-contents").is_some_and(|value| value != "nil");
        wanted
    }

    /// The lines of a text that are asked for.
    pub(super) fn lines<'t>(&self, text: &'t str) -> &'t str {
        let Some((from, to)) = self.lines else { return text };
        let start_of = |number: usize| {
            let mut ends = memchr::memchr_iter(b'\n', text.as_bytes());
            if number <= 1 { 0 } else { ends.nth(number - 2).map_or(text.len(), |end| end + 1) }
        };
        let start = start_of(from);
        let end = if to == 0 { text.len() } else { start_of(to) };
        &text[start..end.max(start)]
    }
}

/// A part of a file.
#[derive(Debug)]
pub(super) struct Part<'t> {
    pub(super) text: &'t str,
    pub(super) is_whole: bool,
}

impl<'t> Part<'t> {
    /// What is at a place: `*Heading`, `#id`, or a name.
    pub(super) fn at(text: &'t str, place: &str, only_contents: bool) -> Option<Self> {
        let lines = Lines::of(text);
        let words = |line: &Line| &text[line.text..line.end];
        let number = if let Some(id) = place.strip_prefix('#') {
            let is_id = |line: &Line| value_of(words(line), ":custom_id:").is_some_and(|known| known == id);
            let property = lines.all.iter().position(is_id)?;
            lines.all[..property].iter().rposition(|line| line.begins == Begins::Heading)?
        } else {
            let wanted = normal(place.trim_start_matches('*'));
            let is_it = |line: &Line| line.begins == Begins::Heading && titles(words(line)).any(|title| normal(title) == wanted);
            let heading = lines.all.iter().position(is_it);
            match heading {
                Some(heading) => heading,
                None => return Self::named(text, &lines, place),
            }
        };
        let level = stars(words(&lines.all[number]));
        let is_end = |line: &&Line| line.begins == Begins::Heading && stars(words(line)) <= level;
        let end = lines.all[number + 1..].iter().find(is_end).map_or(text.len(), |line| line.start);
        let first = if only_contents { below(text, &lines, number) } else { lines.all[number].start };
        Some(Self { text: &text[first.min(end)..end], is_whole: false })
    }

    /// The block that has a name.
    fn named(text: &'t str, lines: &Lines, name: &str) -> Option<Self> {
        let is_name = |line: &Line| value_of(&text[line.text..line.end], "#+name:").is_some_and(|known| known == name);
        let number = lines.all.iter().position(is_name)?;
        let first = (number..lines.all.len()).find(|&at| lines.all[at].begins != Begins::Keyword)?;
        let line = lines.all[first];
        let end = match line.begins {
            Begins::Block(_) | Begins::Drawer | Begins::Environment if line.until > first => line.until + 1,
            _ => (first..lines.all.len()).find(|&at| lines.all[at].begins == Begins::Blank).unwrap_or(lines.all.len()),
        };
        let end = lines.get(end).map_or(text.len(), |line| line.start);
        Some(Self { text: &text[lines.all[number].start..end], is_whole: false })
    }
}

/// Where what is below a heading begins, behind its dates and properties.
fn below(text: &str, lines: &Lines, heading: usize) -> usize {
    let mut at = heading + 1;
    let words = |line: &Line| &text[line.text..line.end];
    if lines.get(at).is_some_and(|line| is_planning(words(line))) {
        at += 1;
    }
    if let Some(line) = lines.get(at).filter(|line| words(line).eq_ignore_ascii_case(":properties:") && line.until > at) {
        at = line.until + 1;
    }
    lines.get(at).map_or(text.len(), |line| line.start)
}

/// What a heading may be called: without its tags; with or without its state and its priority.
fn titles(words: &str) -> impl Iterator<Item = &str> {
    let whole = words.trim_start_matches('*').trim();
    let last = whole.rsplit([' ', '\t']).next().unwrap_or_default();
    let has_tags = last.len() > 2 && last.starts_with(':') && last.ends_with(':');
    let whole = if has_tags { whole[..whole.len() - last.len()].trim_end() } else { whole };
    let (first, rest) = whole.split_once(' ').unwrap_or((whole, ""));
    let is_state = !first.is_empty() && first.chars().all(|c| c.is_uppercase() || c == '_' || c == '-');
    let behind = if is_state { rest.trim_start() } else { whole };
    let plain = behind.strip_prefix("[#").and_then(|rest| rest.split_once(']')).map_or(behind, |(_, rest)| rest.trim_start());
    [whole, behind, plain].into_iter()
}

fn value_of<'w>(words: &'w str, key: &str) -> Option<&'w str> {
    let is_it = words.get(..key.len()).is_some_and(|start| start.eq_ignore_ascii_case(key));
    is_it.then(|| words[key.len()..].trim())
}

/// Text as it stands in a block, where its lines mean nothing.
pub(super) fn in_block(block: &str, arguments: &str, text: &str) -> String {
    let name = block.to_ascii_lowercase();
    let mut out = format!("#+begin_{name} {arguments}").trim_end().to_owned();
    out.push('\n');
    let escapes = matches!(name.as_str(), "src" | "example" | "export");
    for line in text.lines() {
        if escapes && (line.starts_with('*') || line.trim_start().starts_with("#+") || line.starts_with(',')) {
            out.push(',');
        }
        out.push_str(line);
        out.push('\n');
    }
    out + "#+end_" + &name + "\n"
}

/// Whether what is taken in behind a text would go on with its last block.
pub(super) fn needs_line_before(text: &str) -> bool {
    let last = text.trim_end_matches('\n').rsplit('\n').next().unwrap_or_default();
    !text.is_empty() && !text.ends_with("\n\n") && !last.starts_with('*')
}

/// Ends the last block of a text that was taken in, so that it does not go on with what comes behind it.
pub(super) fn end_blocks(out: &mut String, taken: &str, behind: &str) {
    if taken.is_empty() || behind.starts_with('\n') || behind.is_empty() {
        return;
    }
    out.push('\n');
    if taken.contains("\n[fn:") || taken.starts_with("[fn:") {
        // Notes go on behind one blank line.
        out.push('\n');
    }
}

/// Text of a file without what it says of itself, which holds for the file alone: that is a comment now.
pub(super) fn without_metadata(text: String) -> String {
    let lines = Lines::of(&text);
    let is_metadata = |line: &&Line| {
        line.begins == Begins::Keyword
            && keyword(&text[line.text..line.end]).is_some_and(|(key, _)| METADATA.contains(&key.as_str()))
    };
    let mut found = lines.all.iter().filter(is_metadata).peekable();
    if found.peek().is_none() {
        return text;
    }
    let mut out = String::with_capacity(text.len() + 64);
    let mut copied = 0;
    for line in found {
        out.push_str(&text[copied..line.text]);
        out.push_str("# ");
        copied = line.text;
    }
    out + &text[copied..]
}

/// What a file says of itself as a document.
const METADATA: [&str; 10] =
    ["title", "subtitle", "author", "email", "date", "description", "keywords", "language", "filetags", "options"];

/// Text whose first headings have a level, and the others as much more as before.
pub(super) fn at_level(text: String, least: usize) -> String {
    let lines = Lines::of(&text);
    let headings = || lines.all.iter().filter(|line| line.begins == Begins::Heading);
    let Some(now) = headings().map(|line| stars(&text[line.start..line.end])).min() else { return text };
    if now == least {
        return text;
    }
    let mut out = String::with_capacity(text.len() + 64);
    let mut copied = 0;
    for line in headings() {
        out.push_str(&text[copied..line.start]);
        let level = stars(&text[line.start..line.end]);
        // A level that is no level of any document is one of the deepest there are.
        out.extend(std::iter::repeat_n('*', (level - now).saturating_add(least).min(level.max(1000))));
        copied = line.start + level;
    }
    out.push_str(&text[copied..]);
    out
}

/// Text whose links to files lead there from another folder.
pub(super) fn in_folder(text: String, folder: &Path) -> String {
    if folder.as_os_str().is_empty() {
        return text;
    }
    let folder = folder.iter().map(|part| part.to_string_lossy()).collect::<Vec<_>>().join("/");
    let mut out = String::with_capacity(text.len() + 64);
    let mut rest = text.as_str();
    while let Some(at) = memchr::memmem::find(rest.as_bytes(), b"[[") {
        let behind = &rest[at + 2..];
        let is_absolute = |path: &str| path.starts_with(['/', '~']);
        let kept = match behind.strip_prefix("file:") {
            Some(path) if is_absolute(path) => None,
            Some(_) => Some("file:".len()),
            None => (behind.starts_with("./") || behind.starts_with("../")).then_some(0),
        };
        out.push_str(&rest[..at + 2]);
        rest = behind;
        if let Some(kept) = kept {
            out.push_str("file:");
            out.push_str(&folder);
            out.push('/');
            rest = behind[kept..].strip_prefix("./").unwrap_or(&behind[kept..]);
        }
    }
    out + rest
}

/// Whether a keyword is a setting, and no part of the text.
pub(super) fn is_setting(key: &str) -> bool {
    !matches!(key, "html" | "include" | "call" | "caption" | "name" | "results" | "header" | "headers" | "plot" | "toc" | "latex")
        && !key.starts_with("attr_")
        && !key.starts_with("begin")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn values_say_which_part_is_wanted() {
        let wanted = Wanted::of("\"parts/a b.org::*The well\" :minlevel 2 :only-contents t");
        assert_eq!((wanted.path, wanted.place), ("parts/a b.org", Some("*The well")));
        assert_eq!((wanted.least_level, wanted.only_contents), (Some(2), true));
        let wanted = Wanted::of("tide.py src python -n :lines \"2-4\"");
        assert_eq!((wanted.block, wanted.arguments, wanted.lines), (Some("src"), "python -n", Some((2, 4))));
        assert_eq!(wanted.lines("a\nb\nc\nd\n"), "b\nc\n");
        assert_eq!(Wanted::of("x :lines \"-2\"").lines("a\nb\n"), "a\n");
        assert_eq!(Wanted::of("x :lines \"9-\"").lines("a\nb\n"), "");
    }

    #[test]
    fn parts_are_headings_ids_and_names() {
        let text =
            "top\n* TODO [#A] One :x:\n:PROPERTIES:\n:CUSTOM_ID: one\n:END:\na\n** Two\nb\n* Three\n#+NAME: t\n| c |\n\nd\n";
        let part = |place: &str, only| Part::at(text, place, only).unwrap().text;
        assert_eq!(part("*One", true), "a\n** Two\nb\n");
        assert!(part("#one", false).starts_with("* TODO"));
        assert_eq!(part("two", false), "** Two\nb\n");
        assert_eq!(part("t", false), "#+NAME: t\n| c |\n");
        assert!(Part::at(text, "*Four", false).is_none());
        assert_eq!(at_level("** a\n*** b\n".into(), 1), "* a\n** b\n");
        assert_eq!(in_block("src", "c", "* a\n"), "#+begin_src c\n,* a\n#+end_src\n");
        assert_eq!(in_folder("[[file:a.png]] [[./b]] [[c]]".into(), Path::new("x")), "[[file:x/a.png]] [[file:x/b]] [[c]]");
    }
}
