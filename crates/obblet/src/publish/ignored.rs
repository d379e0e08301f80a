//! Files that say what is left out of a folder, in the syntax that version control uses for it.

use super::paths;
use crate::files::{self, Kind, Root, Stray};
use ignore::Match;
use ignore::gitignore::{Gitignore, GitignoreBuilder};
use std::ffi::OsString;
use std::sync::Arc;

/// Something that is left out.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Skipped {
    /// Its path in the folder.
    pub path: String,
    /// Why.
    pub why: String,
}

/// The name of files that say what is left out.
pub const IGNORE_FILE: &str = ".obbletignore";

/// The files that say what is left out, the strongest first: what one of the first says counts against all of the others,
/// wherever they are.
const NAMES: [&str; 3] = [IGNORE_FILE, ".ignore", ".gitignore"];

/// What files of a folder, and of those above it, say about what is left out.
#[derive(Debug)]
pub(super) struct Rules {
    /// The folder that they count from.
    folder: String,
    /// In the order of [`NAMES`].
    of_files: [Option<Gitignore>; 3],
    /// Whether version control begins here: what is said above it says nothing about this.
    is_repository: bool,
    above: Option<Arc<Rules>>,
}

impl Rules {
    /// The rules for what is in a folder; those above it where it has none of its own.
    pub(super) fn read(
        root: &Root,
        folder: &str,
        above: Option<Arc<Self>>,
        entries: &[(OsString, Kind)],
        skipped: &mut Vec<Skipped>,
    ) -> Option<Arc<Self>> {
        let is_repository = entries.iter().any(|(name, _)| name == ".git");
        let has = |wanted: &&str| entries.iter().any(|(name, kind)| name == *wanted && *kind != Kind::Folder);
        if !is_repository && !NAMES.iter().any(has) {
            return above;
        }
        let of_files = NAMES.map(|name| {
            has(&name).then_some(())?;
            let path = paths::join(folder, name);
            match read(root, &path) {
                Ok(rules) => Some(rules),
                Err(error) => {
                    let why = format!("it can't be read, and leaves nothing out: {}", crate::io_error::describe(&error));
                    skipped.push(Skipped { path, why });
                    None
                }
            }
        });
        Some(Arc::new(Self { folder: folder.to_owned(), of_files, is_repository, above }))
    }

    /// Whether a file or a folder is left out, or is to stay although it is hidden; none where nothing is said of it.
    pub(super) fn say(&self, path: &str, is_folder: bool) -> Option<bool> {
        (0..NAMES.len()).find_map(|kind| self.say_one(kind, path, is_folder))
    }

    /// What the files of one name say: the nearest that says anything.
    fn say_one(&self, kind: usize, path: &str, is_folder: bool) -> Option<bool> {
        let mut at = Some(self);
        while let Some(rules) = at {
            let from_here = path.get(rules.folder.len()..).unwrap_or(path).trim_start_matches('/');
            match rules.of_files[kind].as_ref().map_or(Match::None, |known| known.matched(from_here, is_folder)) {
                Match::None => {}
                Match::Ignore(_) => return Some(true),
                Match::Whitelist(_) => return Some(false),
            }
            let goes_on = kind + 1 < NAMES.len() || !rules.is_repository;
            at = rules.above.as_deref().filter(|_| goes_on);
        }
        None
    }
}

/// Reads the rules of a file. Lines that are no patterns say nothing.
fn read(root: &Root, path: &str) -> std::io::Result<Gitignore> {
    let text = match root.read(path.as_ref(), files::MOST_OF_A_SETTING) {
        Ok(bytes) => String::from_utf8_lossy(&bytes).into_owned(),
        // A link that leads nowhere names nothing.
        Err(error) if error.kind() == std::io::ErrorKind::NotFound && Stray::of(&error).is_none() => String::new(),
        Err(error) => return Err(error),
    };
    let mut builder = GitignoreBuilder::new("");
    for line in text.strip_prefix('\u{FEFF}').unwrap_or(&text).lines() {
        let _ = builder.add_line(None, line);
    }
    builder.build().map_err(std::io::Error::other)
}
