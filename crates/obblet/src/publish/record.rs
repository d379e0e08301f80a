//! What a published folder knows of its last run: one readable file, a line of JSON for each thing in it.
//!
//! While a run goes on, what it is about to write goes to a second file line by line, before it is written. So each file of the
//! output is known to one of the two at any moment, and a run that was cut off is taken up where it ended.

use super::agenda::AgendaTask;
use super::hash::Hash;
use super::paths;
use crate::document::Finding;
use crate::fast_hash::HashMap;
use crate::files::Root;
use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;
use std::collections::{BTreeMap, BTreeSet};
use std::ops::Range;
use std::sync::{Arc, OnceLock};
use std::time::SystemTime;

/// The file that holds the record of a folder.
pub const RECORD_FILE: &str = "obblet-record.jsonl";

/// The file that is there while a run goes on, or after one was cut off.
pub const UNFINISHED_FILE: &str = "obblet-record.unfinished.jsonl";

/// The form of the record.
const VERSION: u32 = 2;

/// One file of the output.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct Output {
    pub(super) path: String,
    pub(super) hash: Hash,
    pub(super) size: u64,
}

/// A page of a document, and the places in it that can be led to.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct Page {
    pub(super) output: String,
    pub(super) title: String,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) ids: Vec<String>,
    /// Other names of places.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub(super) also: BTreeMap<String, String>,
}

fn is_none<T>(value: &Option<T>) -> bool {
    value.is_none()
}

/// What other pages may want to know of a document.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct DocumentFacts {
    pub(super) title: String,
    /// Where it stands among the documents of its folder, where it says so.
    #[serde(default, skip_serializing_if = "is_none")]
    pub(super) order: Option<i64>,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub(super) date: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub(super) description: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub(super) language: String,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) authors: Vec<String>,
    /// What it says is to be done.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) tasks: Vec<AgendaTask>,
    /// The first is the document's own; there are more where it was split.
    pub(super) pages: Vec<Page>,
    /// Its links that are not to places elsewhere, as it has them, and where they are.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) links: Vec<(String, crate::document::Place)>,
    /// Places that stay only because other documents lead to them.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub(super) external: BTreeSet<String>,
    /// Places that were left out, for nothing leads to them.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub(super) unreferenced: BTreeSet<String>,
}

/// What a document is to others, as the record has it: a line of its own, which is understood when somebody asks for it.
#[derive(Clone, Debug, Default)]
pub(super) struct FactsJson {
    text: Arc<Vec<u8>>,
    line: Range<usize>,
}

impl FactsJson {
    pub(super) fn new(facts: &DocumentFacts) -> Self {
        let mut text = Vec::new();
        wrapped(&mut text, "facts", facts);
        // Without the end of the line.
        let line = 0..text.len() - 1;
        Self { text: Arc::new(text), line }
    }

    fn bytes(&self) -> &[u8] {
        self.text.get(self.line.clone()).unwrap_or_default()
    }

    /// The facts; none where the record is damaged.
    pub(super) fn read(&self) -> Option<Arc<DocumentFacts>> {
        match line(self.bytes()) {
            Ok(Line::Facts(facts)) => Some(Arc::new(*facts)),
            _ => None,
        }
    }
}

/// How the line of facts begins that follows the line of a document.
const FACTS: &[u8] = b"{\"facts\":";

/// A document that was converted.
#[derive(Clone, Debug, Serialize, Deserialize)]
pub(super) struct Known {
    pub(super) source: String,
    /// Of its bytes.
    pub(super) hash: Hash,
    /// Of its settings, the files they name, and the program.
    pub(super) settings: Hash,
    /// Of what its links lead to.
    pub(super) leads: Hash,
    /// Of the pages around it, in a site.
    #[serde(default, skip_serializing_if = "Hash::is_nothing")]
    pub(super) navigation: Hash,
    /// Files that its pages share with others.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) brings: Vec<String>,
    /// Files that it shows; the hash is empty for those that are not there.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) uses: Vec<(String, Hash)>,
    /// Files that it includes, in the same way.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) includes: Vec<(String, Hash)>,
    pub(super) outputs: Vec<Output>,
    #[serde(skip)]
    pub(super) facts: FactsJson,
    /// Findings of its conversion, where there are any.
    #[serde(default, skip_serializing_if = "is_none")]
    pub(super) findings: Option<Box<RawValue>>,
    /// Links to places that other documents do not have.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) astray: Vec<Finding>,
    /// How long its conversion took, in microseconds. It is not written: the same documents have the same record.
    #[serde(skip)]
    pub(super) time: u64,
}

impl Known {
    /// The findings of its conversion.
    pub(super) fn read_findings(&self) -> Vec<Finding> {
        self.findings.as_ref().and_then(|findings| serde_json::from_str(findings.get()).ok()).unwrap_or_default()
    }
}

/// A file that was copied, or a page that no document is made of.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct Other {
    /// The file of the source; empty where it was made.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub(super) source: String,
    #[serde(default, skip_serializing_if = "is_none")]
    pub(super) from: Option<Hash>,
    pub(super) output: Output,
    /// The page that it leads on to, where it stands for a document that is gone.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub(super) leads: String,
    /// What there is to say of it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(super) findings: Vec<Finding>,
    /// Whether nothing needs it any more. It stays until it is asked to go.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub(super) gone: bool,
}

#[derive(Debug, Serialize, Deserialize)]
struct Header {
    version: u32,
    program: String,
    /// Of the names of all files, and of the settings of the folder itself.
    folder: Hash,
    /// Of all lines below this one.
    lines: Hash,
    /// What there is to say of the folder as a whole.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    findings: Vec<Finding>,
}

#[derive(Debug, Serialize, Deserialize)]
#[serde(rename_all = "lowercase")]
enum Line {
    Record(Header),
    Document(Box<Known>),
    Facts(Box<DocumentFacts>),
    File(Other),
    /// Of the lines above it, up to the one before.
    Check(Hash),
}

impl Line {
    /// Whether every path in it is one of a file in its folder: a record may come from a stranger.
    fn is_plain(&self) -> bool {
        match self {
            Self::Document(known) => {
                let shown = known.uses.iter().chain(&known.includes).map(|(path, _)| path);
                let outputs = known.outputs.iter().map(|output| &output.path);
                outputs.chain(&known.brings).chain(shown).chain([&known.source]).all(|path| paths::is_plain(path))
            }
            Self::File(other) => {
                let named = [&other.source, &other.leads].into_iter().filter(|path| !path.is_empty());
                paths::is_plain(&other.output.path) && named.into_iter().all(|path| paths::is_plain(path))
            }
            Self::Record(_) | Self::Facts(_) | Self::Check(_) => true,
        }
    }
}

/// How a line begins that says which bytes those above it have.
const CHECK: &[u8] = b"{\"check\":";

/// So much is read of a record, in bytes. A document with a hundred links takes about six thousand.
const LARGEST: u64 = 4 << 30;

/// What a line says.
fn line(text: &[u8]) -> Result<Line, serde_json::Error> {
    match simdutf8::basic::from_utf8(text) {
        Ok(text) => serde_json::from_str(text),
        // It says what is wrong.
        Err(_) => serde_json::from_slice(text),
    }
}

/// What is known of a folder.
#[derive(Debug, Default)]
pub(super) struct Record {
    /// By their sources.
    pub(super) documents: HashMap<String, Box<Known>>,
    /// By their outputs.
    pub(super) others: HashMap<String, Other>,
    /// What runs of ours wrote, or were about to write, that is not current.
    older: Vec<Output>,
    /// All bytes that a run of ours wrote or was about to write to a path.
    ours: OnceLock<HashMap<String, Vec<Hash>>>,
    /// Whether the last run was cut off.
    pub(super) unfinished: bool,
    /// What is wrong with the file, if anything is.
    pub(super) damage: Option<String>,
    /// Of the names of all files, and of the settings of the folder itself, at the last run.
    pub(super) marks: Hash,
    /// What there was to say of the folder as a whole.
    pub(super) findings: Vec<Finding>,
    /// Of the file itself: whether another run has written it since.
    pub(super) mark: Option<(u64, SystemTime)>,
}

impl Record {
    /// Reads the record of a folder. One that is damaged is as good as none: everything is done anew.
    pub(super) fn read(output: &Root) -> Self {
        let mut record = Self { mark: Self::mark(output), ..Self::default() };
        match output.read(RECORD_FILE.as_ref(), LARGEST) {
            Ok(bytes) => record.take(Arc::new(bytes), true),
            Err(error) if error.kind() == std::io::ErrorKind::NotFound => {}
            Err(error) => record.damage = Some(format!("{RECORD_FILE} can't be read: {}", crate::io_error::describe(&error))),
        }
        if let Ok(bytes) = output.read(UNFINISHED_FILE.as_ref(), LARGEST)
            && !bytes.is_empty()
        {
            record.unfinished = true;
            record.take(Arc::new(bytes), false);
        }
        record
    }

    fn take(&mut self, bytes: Arc<Vec<u8>>, is_whole: bool) {
        use rayon::prelude::*;
        let mut lines: Vec<(&[u8], Range<usize>)> = Vec::new();
        let mut at = 0;
        // Of the file of a run, only lines count that are followed by their check sum.
        let (mut checked, mut checked_to) = (0, 0);
        for end in memchr::memchr_iter(b'\n', &bytes).chain([bytes.len()]) {
            let line = &bytes[at..end];
            match lines.last_mut() {
                Some((_, facts)) if line.starts_with(FACTS) && facts.end == 0 => *facts = at..end,
                _ if line.is_empty() => {}
                _ if !is_whole && line.starts_with(CHECK) => {
                    let fits = matches!(self::line(line), Ok(Line::Check(hash)) if hash == Hash::of(&bytes[checked_to..at]));
                    lines.truncate(if fits { lines.len() } else { checked });
                    (checked, checked_to) = (lines.len(), (end + 1).min(bytes.len()));
                }
                _ => lines.push((line, 0..0)),
            }
            at = end + 1;
        }
        if !is_whole {
            lines.truncate(checked);
        }
        let facts: Vec<Range<usize>> = lines.iter().map(|(_, facts)| facts.clone()).collect();
        let below = memchr::memchr(b'\n', &bytes).map_or(0, |end| end + 1);
        let (hash, lines): (Hash, Vec<Result<Line, serde_json::Error>>) = rayon::join(
            || if is_whole { Hash::of(&bytes[below..]) } else { Hash::NOTHING },
            || lines.into_par_iter().with_min_len(64).map(|(text, _)| line(text)).collect(),
        );
        let last = lines.len().saturating_sub(1);
        self.documents.reserve(lines.len());
        for (index, (line, facts)) in lines.into_iter().zip(facts).enumerate() {
            match line {
                Ok(Line::Record(header)) if header.version == VERSION => {
                    self.marks = header.folder;
                    self.findings = header.findings;
                    if header.lines != hash {
                        self.damage.get_or_insert(format!("{RECORD_FILE} is not as it was written"));
                    }
                }
                Ok(Line::Record(header)) => {
                    self.damage.get_or_insert(format!("{RECORD_FILE} has the form {}", header.version));
                }
                Ok(line) if !line.is_plain() => {
                    if is_whole {
                        let what = "names a file outside of the folder";
                        self.damage.get_or_insert(format!("line {} of {RECORD_FILE} {what}", index + 1));
                    }
                }
                Ok(Line::Document(mut known)) => {
                    known.facts = FactsJson { text: Arc::clone(&bytes), line: facts };
                    let before = self.documents.insert(known.source.clone(), known);
                    self.older.extend(before.into_iter().flat_map(|before| before.outputs));
                }
                Ok(Line::File(other)) => {
                    let before = self.others.insert(other.output.path.clone(), other);
                    self.older.extend(before.map(|before| before.output));
                }
                // Facts of nothing, and what is for the file of a run.
                Ok(Line::Facts(_) | Line::Check(_)) => {}
                // The line at which a run was cut off.
                Err(_) if !is_whole && index == last => {}
                Err(error) if is_whole => {
                    self.damage.get_or_insert(format!("line {} of {RECORD_FILE} can't be understood: {error}", index + 1));
                }
                Err(_) => {}
            }
        }
        if is_whole && self.damage.is_some() {
            // What was written is still ours, but none of it is up to date.
            self.older.extend(self.documents.drain().flat_map(|(_, known)| known.outputs));
            self.older.extend(self.others.drain().map(|(_, other)| other.output));
        }
    }

    /// The mark of the record as it is now.
    pub(super) fn mark(output: &Root) -> Option<(u64, SystemTime)> {
        output.mark(RECORD_FILE)
    }

    /// Whether a file holds what a run of ours wrote there.
    pub(super) fn is_ours(&self, path: &str, hash: Hash) -> bool {
        let ours = self.ours.get_or_init(|| {
            let documents = self.documents.values().flat_map(|known| &known.outputs);
            let others = self.others.values().map(|other| &other.output);
            let mut ours: HashMap<String, Vec<Hash>> = HashMap::default();
            for output in documents.chain(others).chain(&self.older) {
                ours.entry(output.path.clone()).or_default().push(output.hash);
            }
            ours
        });
        ours.get(path).is_some_and(|hashes| hashes.contains(&hash))
    }
}

/// The text of a record.
pub(super) fn text<'k>(
    folder: Hash,
    findings: &[Finding],
    documents: impl Iterator<Item = &'k Known>,
    others: impl Iterator<Item = &'k Other>,
) -> Vec<u8> {
    let mut out = Vec::new();
    for known in documents {
        document(&mut out, known);
    }
    for other in others {
        wrapped(&mut out, "file", other);
    }
    let header = Header {
        version: VERSION,
        program: env!("CARGO_PKG_VERSION").to_owned(),
        folder,
        lines: Hash::of(&out),
        findings: findings.to_vec(),
    };
    let mut text = Vec::with_capacity(out.len() + 256);
    wrapped(&mut text, "record", &header);
    text.append(&mut out);
    text
}

/// Lines of the file of a run that goes on: a document, and the check sum of that.
pub(super) fn document_line(known: &Known) -> Vec<u8> {
    let mut out = Vec::new();
    document(&mut out, known);
    check(&mut out);
    out
}

fn check(out: &mut Vec<u8>) {
    let hash = Hash::of(out);
    wrapped(out, "check", &hash);
}

fn document(out: &mut Vec<u8>, known: &Known) {
    wrapped(out, "document", known);
    out.extend_from_slice(known.facts.bytes());
    out.push(b'\n');
}

/// Lines of the file of a run that goes on: a file, and the check sum of that.
pub(super) fn other_line(other: &Other) -> Vec<u8> {
    let mut out = Vec::new();
    wrapped(&mut out, "file", other);
    check(&mut out);
    out
}

fn wrapped(out: &mut Vec<u8>, name: &str, value: &impl Serialize) {
    out.extend_from_slice(format!("{{\"{name}\":").as_bytes());
    // Nothing in it can fail to be written: maps have text for keys, and numbers are whole.
    let _ = serde_json::to_writer(&mut *out, value);
    out.extend_from_slice(b"}\n");
}
