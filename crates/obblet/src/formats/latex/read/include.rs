//! Files that a document takes in as text, and those that keep its own commands (the LaTeX documentation, "Splitting the input").

use super::requests::{ENTRIES, Kind, Request, requests};
use crate::citations::{self, Listed, Wanted, Words};
use crate::document::{BibliographyStyle, CitationStyle, Document, Finding, Inclusion};
use crate::media::FilesAround;
use std::path::{Path, PathBuf};

/// A source with the files that it takes in.
pub(super) struct Expanded {
    pub(super) text: String,
    pub(super) inclusions: Vec<Inclusion>,
    /// Where packages stand that were taken in.
    pub(super) packages: Vec<std::ops::Range<u32>>,
    /// The entries of the files that it cites from.
    pub(super) bibliography: Option<Bibliography>,
}

/// What a source cites, from files of entries.
pub(super) struct Bibliography {
    pub(super) entries: Vec<Listed>,
    pub(super) labels: CitationStyle,
}

/// Files stand no deeper within each other, there are no more of them, and they have no more bytes together.
const DEEPEST: usize = 10;
const MOST_FILES: usize = 500;
const MOST_BYTES: usize = 1 << 26;

/// A document has no more lists of entries.
const MOST_LISTS: usize = 50;

/// So many files that were not read are named.
const MOST_NAMED: usize = 20;

struct Include<'f> {
    files: &'f FilesAround<'f>,
    read: Vec<PathBuf>,
    failures: Vec<(String, &'static str)>,
    bytes: usize,
    open: Vec<PathBuf>,
    /// The style that a document asks for, where it is none of those known.
    unknown_style: Option<String>,
}

/// Takes in the files that a source names; nothing where it names none.
pub(super) fn expand(source: &str, doc: &mut Document, files: &FilesAround<'_>) -> Option<Expanded> {
    let requests = requests(source);
    if requests.is_empty() {
        return None;
    }
    let mut include = Include { files, read: Vec::new(), failures: Vec::new(), bytes: 0, open: Vec::new(), unknown_style: None };
    let text = String::with_capacity(source.len() * 2);
    let mut expanded = Expanded { text, inclusions: Vec::new(), packages: Vec::new(), bibliography: None };
    let mut copied = 0;
    let mut failed = 0;
    let mut has_bibliography = false;
    let mut lists = 0;
    let mut resources = None;
    let mut style_held = None;
    for request in requests {
        if request.kind == Kind::Resource {
            resources.get_or_insert(request);
            continue;
        }
        let text = if request.kind == Kind::Entries {
            let style = *style_held.get_or_insert_with(|| super::cited_keys::style_of_amsrefs(source));
            Some(held_entries(source, &request, style))
        } else if request.kind == Kind::Bibliography {
            lists += 1;
            if lists > MOST_LISTS || expanded.text.len() > MOST_BYTES {
                continue;
            }
            let is_first = !std::mem::replace(&mut has_bibliography, true);
            // What stands before has been taken in already.
            let around = if is_first { format!("{}{}", expanded.text, &source[copied..]) } else { String::new() };
            if is_first {
                expanded.bibliography = include.bibliography(&request, &around);
            } else if !request.name.is_empty() {
                // The first list has all.
                continue;
            }
            let around = if is_first { &around } else { source };
            match &expanded.bibliography {
                Some(known) => Some(super::entry_lists::printed(&known.entries, known.labels, &request.options, around)),
                None => include.list_of_another_run(),
            }
        } else {
            include.take(&request, Path::new(""))
        };
        failed += include.name_failures(doc, &request, failed);
        let Some(text) = text else { continue };
        expanded.text.push_str(&source[copied..request.start]);
        copied = request.end;
        let start = expanded.text.len() as u32;
        expanded.text.push_str(&text);
        let end = expanded.text.len() as u32;
        if request.kind == Kind::Package {
            expanded.packages.push(start..end);
        }
        expanded.inclusions.push(Inclusion { start, end, at: request.start as u32, behind: request.end as u32 });
    }
    if let Some(request) = resources.filter(|_| !has_bibliography) {
        // What is cited is named, though nothing is listed.
        let around = format!("{}{}", expanded.text, &source[copied..]);
        expanded.bibliography = include.bibliography(&request, &around);
        failed += include.name_failures(doc, &request, failed);
    }
    if let Some(name) = include.unknown_style {
        let message = format!("the style {name} is not known: citations and their list follow the style numbers");
        doc.push_finding(Finding::changed("latex.citation-style", message).about(&name));
    }
    if failed > MOST_NAMED {
        doc.push_finding(Finding::lost("latex.include", format!("more files were not included: {}", failed - MOST_NAMED)));
    }
    expanded.text.push_str(&source[copied..]);
    doc.source.includes = include.read;
    (!expanded.inclusions.is_empty() || expanded.bibliography.is_some()).then_some(expanded)
}

impl Include<'_> {
    /// Names the files that were not read; so many were before. Returns how many there are.
    fn name_failures(&mut self, doc: &mut Document, request: &Request, before: usize) -> usize {
        let failures = std::mem::take(&mut self.failures);
        let place = doc.source.place(doc.pool(), request.start as u32);
        for (path, why) in failures.iter().take(MOST_NAMED.saturating_sub(before)) {
            let finding = Finding::lost("latex.include", format!("file {path} was not included: {why}"));
            doc.push_finding(finding.hint("check its path; it counts from the folder of the main file").about(path).at(place));
        }
        failures.len()
    }

    /// What a document cites, from the files that it names.
    fn bibliography(&mut self, request: &Request, source: &str) -> Option<Bibliography> {
        let mut names: Vec<String> =
            request.name.split(',').map(|name| name.trim().to_owned()).filter(|name| !name.is_empty()).collect();
        if names.is_empty() {
            names = super::cited_keys::resources(source);
        }
        let mut texts = Vec::new();
        let mut failures = Vec::new();
        for name in names.iter().take(20) {
            let name = if name.ends_with(".bib") { name.clone() } else { format!("{name}.bib") };
            let (path, text) = match self.find(&name, Path::new("")) {
                Ok(found) => found,
                Err(why) => {
                    failures.push((name, why));
                    continue;
                }
            };
            if !self.read.contains(&path) {
                self.read.push(path);
            }
            texts.push(text);
        }
        if texts.is_empty() {
            // Where others are read, citations of what is not there are named by themselves.
            if !self.has_list_of_another_run() {
                self.failures.append(&mut failures);
            }
            return None;
        }
        let (keys, all) = super::cited_keys::cited(source);
        let style = super::cited_keys::style_of(source).unwrap_or_else(|name| {
            self.unknown_style = Some(name.to_owned());
            BibliographyStyle { labels: CitationStyle::Numbers, ..BibliographyStyle::default() }
        });
        // Only one package has the words of other languages.
        let language = super::cited_keys::options_of_biblatex(source).map_or("", |_| language_of(source));
        let entries = citations::listed(&texts, Wanted { keys: &keys, all }, style, Words::of(language));
        (!entries.is_empty()).then_some(Bibliography { entries, labels: style.labels })
    }

    fn has_list_of_another_run(&mut self) -> bool {
        let read = self.read.len();
        let has = self.list_of_another_run().is_some();
        self.read.truncate(read);
        has
    }

    /// The list that a program has made of the entries, where it stands beside the document.
    fn list_of_another_run(&mut self) -> Option<String> {
        if self.files.name.is_empty() {
            return None;
        }
        let (path, text) = self.find(&format!("{}.bbl", self.files.name), Path::new("")).ok()?;
        if !text.contains("\\begin{thebibliography}") {
            return None;
        }
        self.read.push(path);
        Some(text)
    }

    /// The text of packages beside the document, behind the command that names them.
    fn take_packages(&mut self, request: &Request, folder: &Path) -> Option<String> {
        let one = |name: &str| Request {
            name: format!("{name}.sty"),
            ..Request::of(Kind::Package, request.start, request.end - request.start)
        };
        let names: Vec<String> = super::requests::unknown_packages(&request.name).map(str::to_owned).collect();
        let texts: Vec<String> = names.iter().take(20).filter_map(|name| self.take(&one(name), folder)).collect();
        (!texts.is_empty()).then(|| format!("\\usepackage[{}]{{{}}}{}", request.options, request.name, texts.concat()))
    }

    /// The text of a file, with those that it takes in itself.
    fn take(&mut self, request: &Request, folder: &Path) -> Option<String> {
        if request.kind == Kind::Package {
            self.files.root?;
            if !request.name.ends_with(".sty") {
                return self.take_packages(request, folder);
            }
        }
        let name = if request.folder.is_empty() { request.name.clone() } else { format!("{}/{}", request.folder, request.name) };
        let found = self.find(&name, folder);
        let (path, text) = match found {
            Ok(found) => found,
            // A package of the system is none of the document's files.
            Err(_) if request.kind == Kind::Package => return None,
            Err(why) => {
                self.failures.push((name, why));
                return None;
            }
        };
        if !self.read.contains(&path) {
            self.read.push(path.clone());
        }
        // What stands around the body of a part is for the part alone.
        let text = up_to_end_of_input(&text);
        let is_package = request.kind == Kind::Package;
        let (text, begin, end) =
            if is_package { (text, "\\makeatletter\n", "\n\\makeatother\n") } else { (body(text), "", "\n") };
        let inner = requests(text);
        if inner.is_empty() {
            return Some([begin, text, end].concat());
        }
        self.open.push(path);
        let mut out = String::with_capacity(text.len());
        out.push_str(begin);
        let mut copied = 0;
        for request in inner.into_iter().filter(|request| matches!(request.kind, Kind::Part | Kind::Package)) {
            let Some(part) = self.take(&request, folder) else { continue };
            out.push_str(&text[copied..request.start]);
            copied = request.end;
            out.push_str(&part);
            out.push_str(begin);
        }
        out.push_str(&text[copied..]);
        out.push_str(end);
        self.open.pop();
        Some(out)
    }

    fn find(&mut self, name: &str, _folder: &Path) -> Result<(PathBuf, String), &'static str> {
        if self.open.len() >= DEEPEST {
            return Err("files are included within each other too deep");
        }
        if self.read.len() >= MOST_FILES || self.bytes > MOST_BYTES {
            return Err("the files come to too much");
        }
        let mut why = "it was not found";
        let extensions: &[&str] =
            if name.rsplit('/').next().unwrap_or(name).contains('.') { &["", ".tex"] } else { &[".tex", ""] };
        for extension in extensions {
            let Some(path) = self.files.path(&format!("{name}{extension}")) else { return Err("it is outside of the folder") };
            if self.open.contains(&path) {
                return Err("it includes itself");
            }
            match self.files.read(&path) {
                Ok(bytes) => {
                    self.bytes += bytes.len();
                    return Ok((path, crate::utf8_source::text(&bytes).into_owned()));
                }
                Err(other) => why = other,
            }
        }
        Err(why)
    }
}

/// What is read of a file: all before the line that ends it, where there is one.
fn up_to_end_of_input(text: &str) -> &str {
    let mut end = 0;
    for line in text.split_inclusive('\n') {
        let ends = line.trim_start().strip_prefix("\\endinput");
        if ends.is_some_and(|rest| !rest.starts_with(|c: char| c.is_ascii_alphabetic())) {
            break;
        }
        end += line.len();
    }
    &text[..end]
}

/// What stands between the beginning and the end of a document, or all of it.
fn body(text: &str) -> &str {
    let Some((_, rest)) = text.split_once("\\begin{document}") else { return text };
    rest.split_once("\\end{document}").map_or(rest, |(body, _)| body)
}

/// The language that a source sets last.
fn language_of(source: &str) -> &'static str {
    let of = |names: &[&str]| names.iter().any(|name| source.contains(name));
    if of(&["ngerman]{babel}", "german]{babel}", "\\setmainlanguage{german}", "\\setdefaultlanguage{german}"]) {
        "de"
    } else if of(&["french]{babel}", "francais]{babel}", "\\setmainlanguage{french}", "\\setdefaultlanguage{french}"]) {
        "fr"
    } else {
        ""
    }
}

/// The list of entries that a document holds itself.
fn held_entries(source: &str, request: &Request, style: BibliographyStyle) -> String {
    let entries = citations::held(&source[request.start..request.end], style, Words::of(""));
    let environment = if request.name == ENTRIES[0].0 { "thebibliography" } else { super::entry_lists::WITHOUT_HEADING };
    citations::list((1..).zip(&entries), style.labels, environment)
}
