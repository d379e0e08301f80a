//! Files that a source includes (Org manual, "Include Files" and "In-buffer Settings"). They are taken in as text before anything
//! is read, as the format has it: headings and notes of an included file are those of the file that includes it.

mod part;

use super::lines::{Begins, BlockKind, Lines};
use super::options::keyword;
use crate::document::{Document, Inclusion, Place};
use crate::fast_hash::HashMap;
use crate::media::FilesAround;
use part::{Part, Wanted};
use std::path::{Path, PathBuf};
use std::rc::Rc;

/// Files include others no deeper than this.
const DEEPEST: usize = 16;
/// So many bytes of files are taken in, whole or in part, for one source.
const MOST_BYTES: usize = 64 << 20;
/// So often is a file taken in.
const MOST_FILES: usize = 10_000;

const OUTSIDE: &str = "it is outside of the folder";

/// A source with the files that it includes.
#[derive(Debug)]
pub(super) struct Expanded {
    pub(super) text: String,
    /// Where they are in it.
    pub(super) inclusions: Vec<Inclusion>,
    pub(super) failures: Vec<Failure>,
}

/// A file that was not read.
#[derive(Debug)]
pub(super) struct Failure {
    /// Where it is named.
    pub(super) place: Place,
    pub(super) path: String,
    pub(super) why: &'static str,
}

/// Takes in the files that a source includes; nothing where it includes none.
pub(super) fn expand(source: &str, lines: &Lines, doc: &mut Document, files: &FilesAround<'_>) -> Option<Expanded> {
    if !lines.all.iter().any(|line| line.begins == Begins::Keyword && is_request(&source[line.text..line.end])) {
        return None;
    }
    let mut include = Include::new(source, files);
    let mut expanded = Expanded { text: String::with_capacity(source.len() * 2), inclusions: Vec::new(), failures: Vec::new() };
    for label in labels(source) {
        include.labels.entry(label.to_owned()).or_default();
    }
    let mut copied = 0;
    for request in requests(source, lines) {
        let line = lines.all[request.line];
        let behind = lines.get(request.line + 1).map_or(source.len(), |next| next.start);
        expanded.text.push_str(&source[copied..line.start]);
        copied = behind;
        let text = include.take(&request, Path::new(""));
        let at = line.start as u32;
        if part::needs_line_before(&expanded.text) && !text.is_empty() {
            let start = expanded.text.len() as u32;
            expanded.text.push('\n');
            expanded.inclusions.push(Inclusion { start, end: start + 1, at, behind: at });
        }
        let start = expanded.text.len() as u32;
        let failed = include.failures.drain(..);
        let place = doc.source.place(doc.pool(), line.start as u32);
        expanded.failures.extend(failed.map(|(path, why)| Failure { place, path, why }));
        expanded.text.push_str(&text);
        part::end_blocks(&mut expanded.text, &text, &source[behind..]);
        let end = expanded.text.len() as u32;
        expanded.inclusions.push(Inclusion { start, end, at, behind: behind as u32 });
    }
    expanded.text.push_str(&source[copied..]);
    if !include.definitions.is_empty() {
        let start = expanded.text.len() as u32;
        expanded.text.push('\n');
        expanded.text.push_str(&include.definitions);
        let (end, at) = (expanded.text.len() as u32, source.len() as u32);
        expanded.inclusions.push(Inclusion { start, end, at, behind: at });
    }
    doc.source.includes = include.read;
    Some(expanded)
}

fn is_request(words: &str) -> bool {
    let starts = |key: &str| words.get(2..2 + key.len()).is_some_and(|start| start.eq_ignore_ascii_case(key));
    starts("include:") || starts("setupfile:")
}

/// A line that asks for a file.
struct Request<'s> {
    line: usize,
    /// The level of the heading that it is below; 0 before the first.
    level: usize,
    is_setup: bool,
    value: &'s str,
}

/// The lines that ask for files; what stands in blocks of code asks for none.
fn requests<'s>(source: &'s str, lines: &Lines) -> Vec<Request<'s>> {
    let (mut found, mut level, mut number) = (Vec::new(), 0, 0);
    while let Some(line) = lines.get(number) {
        let words = &source[line.text..line.end];
        match line.begins {
            Begins::Heading => level = super::lines::stars(words),
            Begins::Block(kind) if !kind.holds_blocks() && kind != BlockKind::Verse => number = number.max(line.until),
            Begins::Environment => number = number.max(line.until),
            Begins::Keyword if is_request(words) => {
                if let Some((key, value)) = keyword(words) {
                    found.push(Request { line: number, level, is_setup: key == "setupfile", value });
                }
            }
            _ => {}
        }
        number += 1;
    }
    found
}

/// What is being taken in.
struct Include<'f> {
    files: &'f FilesAround<'f>,
    /// The text that all is taken into.
    source: &'f str,
    known: HashMap<PathBuf, Result<Rc<str>, &'static str>>,
    /// The files that are being taken in, outermost first.
    open: Vec<PathBuf>,
    /// All files that were asked for.
    read: Vec<PathBuf>,
    /// The file that each label of a note is from.
    labels: HashMap<String, PathBuf>,
    /// Notes that parts of files mention, and that are defined elsewhere in those files.
    definitions: String,
    failures: Vec<(String, &'static str)>,
    bytes: usize,
    count: usize,
}

impl<'f> Include<'f> {
    fn new(source: &'f str, files: &'f FilesAround<'f>) -> Self {
        Self {
            files,
            source,
            known: HashMap::default(),
            open: Vec::new(),
            read: Vec::new(),
            labels: HashMap::default(),
            definitions: String::new(),
            failures: Vec::new(),
            bytes: 0,
            count: 0,
        }
    }

    /// The text that a line asks for, which stands in a file of `folder`. It ends with a line end, or is empty.
    fn take(&mut self, request: &Request<'_>, folder: &Path) -> String {
        let wanted = Wanted::of(request.value);
        let taken = self.open(wanted.path, folder).and_then(|(path, text)| self.part(request, &wanted, path, &text));
        taken.unwrap_or_else(|why| {
            self.failures.push((wanted.path.to_owned(), why));
            String::new()
        })
    }

    /// The text of a file.
    fn open(&mut self, path: &str, folder: &Path) -> Result<(PathBuf, Rc<str>), &'static str> {
        if path.contains("://") {
            return Err("it is an address");
        }
        let path = path.strip_prefix("file:").unwrap_or(path);
        if path.is_empty() || path.starts_with(['/', '\\', '~']) || path.contains(':') {
            return Err(OUTSIDE);
        }
        let path = joined(folder, path);
        let local = path.to_string_lossy().into_owned();
        let from_root = self.files.path(&local).ok_or(OUTSIDE)?;
        if self.open.contains(&path) {
            return Err("it includes itself");
        }
        if self.open.len() >= DEEPEST {
            return Err("files include each other too deep");
        }
        self.count += 1;
        if self.count > MOST_FILES {
            return Err("too many files are included");
        }
        if !self.known.contains_key(&path) {
            let text = self.files.read(&from_root).map(|bytes| Rc::from(&*crate::utf8_source::text(&bytes)));
            self.read.push(from_root);
            self.known.insert(path.clone(), text);
        }
        let text = self.known.get(&path).cloned().unwrap_or(Err("it was not found"))?;
        self.bytes += text.len();
        if *text == *self.source {
            return Err("it includes itself");
        }
        if self.bytes > MOST_BYTES { Err("the files together are too large") } else { Ok((path, text)) }
    }

    /// The part of a file that is asked for, as it stands in the text that asks for it.
    fn part(&mut self, request: &Request<'_>, wanted: &Wanted<'_>, path: PathBuf, text: &str) -> Result<String, &'static str> {
        if request.is_setup {
            return Ok(self.settings(path, text));
        }
        if let Some(block) = wanted.block {
            return Ok(part::in_block(block, wanted.arguments, wanted.lines(text)));
        }
        let chosen = match wanted.place {
            Some(place) => Part::at(text, place, wanted.only_contents).ok_or("it has no such part")?,
            None => Part { text: wanted.lines(text), is_whole: wanted.lines.is_none() },
        };
        let folder = path.parent().map(Path::to_owned).unwrap_or_default();
        let mut taken = self.labelled(chosen.text, &path);
        if !chosen.is_whole {
            self.define(&taken, text, &path);
        }
        taken = part::without_metadata(part::in_folder(taken, &folder));
        if !taken.ends_with('\n') && !taken.is_empty() {
            taken.push('\n');
        }
        let lines = Lines::of(&taken);
        let inner = requests(&taken, &lines);
        let mut whole = String::with_capacity(taken.len());
        self.open.push(path);
        let mut copied = 0;
        for request in &inner {
            let line = lines.all[request.line];
            whole.push_str(&taken[copied..line.start]);
            copied = lines.get(request.line + 1).map_or(taken.len(), |next| next.start);
            let inner = self.take(request, &folder);
            if part::needs_line_before(&whole) && !inner.is_empty() {
                whole.push('\n');
            }
            whole.push_str(&inner);
            part::end_blocks(&mut whole, &inner, &taken[copied..]);
        }
        self.open.pop();
        whole.push_str(&taken[copied..]);
        let least = wanted.least_level.unwrap_or(request.level + 1);
        Ok(part::at_level(whole, least))
    }

    /// The settings of a file; all else in it is not taken in.
    fn settings(&mut self, path: PathBuf, text: &str) -> String {
        let lines = Lines::of(text);
        let folder = path.parent().map(Path::to_owned).unwrap_or_default();
        let mut inner = requests(text, &lines).into_iter().filter(|request| request.is_setup).peekable();
        let mut settings = String::new();
        self.open.push(path);
        for (number, line) in lines.all.iter().enumerate().filter(|(_, line)| line.begins == Begins::Keyword) {
            if let Some(request) = inner.next_if(|request| request.line == number) {
                settings.push_str(&self.take(&request, &folder));
                continue;
            }
            let words = &text[line.text..line.end];
            if !is_request(words) && keyword(words).is_some_and(|(key, _)| part::is_setting(&key)) {
                settings.push_str(words);
                settings.push('\n');
            }
        }
        self.open.pop();
        settings
    }

    /// The text of a file whose notes have labels that no other file has.
    fn labelled(&mut self, text: &str, path: &Path) -> String {
        let mut out = String::with_capacity(text.len() + 16);
        let mut copied = 0;
        for label in labels(text) {
            let end = label.as_ptr() as usize - text.as_ptr() as usize + label.len();
            let owner = self.labels.entry(label.to_owned()).or_insert_with(|| path.to_owned());
            if owner.as_path() != path {
                out.push_str(&text[copied..end]);
                out.push('-');
                out.push_str(&crate::slug::of(&path.to_string_lossy()));
                copied = end;
            }
        }
        out.push_str(&text[copied..]);
        out
    }

    /// Keeps the definitions of notes that a part of a file mentions.
    fn define(&mut self, part: &str, text: &str, path: &Path) {
        let defined = |text: &str| -> Vec<(String, usize)> {
            let lines = Lines::of(text);
            let notes = lines.all.iter().enumerate().filter(|(_, line)| line.begins == Begins::Note);
            notes
                .filter_map(|(number, line)| Some((super::lines::note_label(&text[line.text..line.end])?.to_owned(), number)))
                .collect()
        };
        let here: Vec<String> = defined(part).into_iter().map(|(label, _)| label).collect();
        let mentioned: Vec<&str> = labels(part).filter(|label| !here.iter().any(|known| known == label)).collect();
        if mentioned.is_empty() {
            return;
        }
        let whole = self.labelled(text, path);
        let lines = Lines::of(&whole);
        for (label, number) in defined(&whole) {
            let mark = format!("[fn:{label}] ");
            if !mentioned.contains(&label.as_str()) || self.definitions.contains(&mark) {
                continue;
            }
            let ends = |line: &&super::lines::Line| matches!(line.begins, Begins::Blank | Begins::Note | Begins::Heading);
            let end = lines.all[number + 1..].iter().find(ends).map_or(whole.len(), |line| line.start);
            self.definitions.push_str(&whole[lines.all[number].start..end]);
            self.definitions.push('\n');
        }
    }
}

/// The path that a path from a folder names, without steps that lead back.
fn joined(folder: &Path, path: &str) -> PathBuf {
    let mut joined = folder.to_owned();
    for part in path.split(['/', '\\']) {
        match part {
            "" | "." => {}
            ".." if joined.file_name().is_some() => {
                joined.pop();
            }
            part => joined.push(part),
        }
    }
    joined
}

/// The labels of notes that a text mentions or defines.
fn labels(text: &str) -> impl Iterator<Item = &str> {
    memchr::memmem::find_iter(text.as_bytes(), b"[fn:").filter_map(|at| {
        let rest = &text[at + 4..];
        let end = rest.find(|c: char| !(c.is_alphanumeric() || matches!(c, '-' | '_')))?;
        Some(&rest[..end]).filter(|label| !label.is_empty())
    })
}
