//! Documents that a command line names: their bytes, their format, their settings, and what is around them.

use crate::Outcome;
use crate::failure::{Failure, misused};
use obblet::files::{Root, There, read_named};
use obblet::media::MediaSource;
use obblet::profile::{Layers, Profile};
use obblet::publish::format_of;
use obblet::{Context, Format, describe};
use std::io::Read;
use std::path::{Path, PathBuf};
use std::sync::Arc;

/// What standard input is called in messages.
pub(crate) const STANDARD_INPUT: &str = "standard input";

/// Whether a path stands for standard input or standard output.
pub(crate) fn is_dash(path: &Path) -> bool {
    path == Path::new("-")
}

/// A document that was read.
pub(crate) struct Input {
    pub(crate) bytes: Vec<u8>,
    pub(crate) format: Format,
    pub(crate) profile: Arc<Profile>,
    /// The name of its file, without the extension.
    name: String,
    /// The topmost folder that belongs to it, held open, and the path from there to its own; none for standard input.
    folders: Option<(Root, PathBuf)>,
}

impl Input {
    /// Reads a file, or standard input for `-`.
    pub(crate) fn read(source: &Path, reads: Option<Format>, layers: &Layers) -> Result<Self, Failure> {
        if is_dash(source) { Self::read_standard(reads, layers) } else { Self::read_file(source, reads, layers) }
    }

    fn read_file(source: &Path, reads: Option<Format>, layers: &Layers) -> Result<Self, Failure> {
        if source.is_dir() {
            return Err(misused("it is a folder; name the documents in it"));
        }
        let format = reads.or_else(|| format_of(source)).ok_or_else(|| {
            let extension = source.extension().map_or_else(
                || "it has no extension".to_owned(),
                |known| format!("no format has the extension .{}", known.display()),
            );
            misused(format!("{extension}; say which format it is with --reads"))
        })?;
        let fail = |error: std::io::Error| Failure(Outcome::Failed, describe(&error));
        let folder = std::path::absolute(folder_of(source)).unwrap_or_else(|_| folder_of(source).to_owned());
        let profile = profile(layers, &folder.join(source.file_name().unwrap_or_default()))?;
        let bytes = read_named(source, profile.limits.source).map_err(fail)?;
        // A folder with settings is the top of what belongs together; else nothing but the document's own folder is read.
        let top = layers.top_of(&folder);
        let mut root = Root::open(top).map_err(fail)?;
        let mut inner = folder.strip_prefix(top).unwrap_or(Path::new("")).to_owned();
        // A folder that a symbolic link leads to from there lies elsewhere.
        if root.there(&inner) != There::Folder {
            (root, inner) = (Root::open(&folder).map_err(fail)?, PathBuf::new());
        }
        let name = source.file_stem().map_or_else(String::new, |stem| stem.to_string_lossy().into_owned());
        Ok(Self { bytes, format, profile, name, folders: Some((root, inner)) })
    }

    /// Reads standard input; settings count as if it were a file in the folder where the command runs.
    pub(crate) fn read_standard(reads: Option<Format>, layers: &Layers) -> Result<Self, Failure> {
        let here = std::env::current_dir().unwrap_or_default();
        let profile = profile(layers, &here.join(STANDARD_INPUT))?;
        let mut bytes = Vec::new();
        // What is larger than the limit is refused where it is read; there is no need to have all of it for that.
        std::io::stdin()
            .lock()
            .take(profile.limits.source.saturating_add(1))
            .read_to_end(&mut bytes)
            .map_err(|error| Failure(Outcome::Failed, describe(&error)).of(STANDARD_INPUT))?;
        Ok(Self { bytes, format: reads.unwrap_or(Format::Markdown), profile, name: String::new(), folders: None })
    }

    /// What is around the document.
    pub(crate) fn context(&self) -> Context<'_> {
        let (media, folder) = match &self.folders {
            Some((root, folder)) => (Some(root as &dyn MediaSource), Some(folder.as_path())),
            None => (None, None),
        };
        Context { name: &self.name, folder, media, ..Context::default() }
    }
}

/// The folder that a file is in.
pub(crate) fn folder_of(path: &Path) -> &Path {
    path.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."))
}

fn profile(layers: &Layers, document: &Path) -> Result<Arc<Profile>, Failure> {
    layers.of(document, None).map_err(|error| misused(error.to_string()))
}
