//! What the pages of a folder share: files that settings name, and pictures. Each is read once.

use crate::error::Error;
use crate::files::{self, Root};
use crate::picture;
use minijinja::Environment;
use std::collections::HashMap;
use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

/// A picture that pages show where it is.
#[derive(Clone, Debug)]
pub(crate) struct SharedPicture {
    pub(crate) kind: picture::Kind,
    /// Width and height in CSS pixels.
    pub(crate) size: Option<(usize, usize)>,
    /// What was left out of a drawing.
    pub(crate) left_out: Option<Arc<str>>,
}

/// What is known of files that many pages use. It is empty at first; whoever converts several documents hands it to all of
/// them.
#[derive(Debug, Default)]
pub struct Shared {
    /// The folder that is not left on the way to files below it.
    root: Option<Arc<Root>>,
    texts: Mutex<HashMap<PathBuf, Arc<str>>>,
    pictures: Mutex<HashMap<PathBuf, SharedPicture>>,
    frames: Mutex<HashMap<FramesKey, Arc<Environment<'static>>>>,
}

/// What templates of pages depend on.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub(crate) struct FramesKey {
    pub(crate) is_xml: bool,
    /// So much work may be done with them, in powers of two.
    pub(crate) fuel: u32,
    pub(crate) files: [Option<PathBuf>; 4],
}

fn lock<T>(mutex: &Mutex<T>) -> MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Shared {
    /// What the documents of a folder share.
    pub(crate) fn of(root: Arc<Root>) -> Self {
        Self { root: Some(root), ..Self::default() }
    }

    /// The text of a file that a setting names.
    pub(crate) fn text(&self, setting: &'static str, path: &Path) -> Result<Arc<str>, Error> {
        if let Some(known) = lock(&self.texts).get(path) {
            return Ok(Arc::clone(known));
        }
        let text: Arc<str> = read_setting(setting, path, self.root.as_deref())?.into();
        lock(&self.texts).insert(path.to_owned(), Arc::clone(&text));
        Ok(text)
    }

    /// Templates that are ready.
    pub(crate) fn frames(&self, key: &FramesKey) -> Option<Arc<Environment<'static>>> {
        lock(&self.frames).get(key).cloned()
    }

    /// Keeps templates that are ready.
    pub(crate) fn keep_frames(&self, key: FramesKey, environment: &Arc<Environment<'static>>) {
        lock(&self.frames).insert(key, Arc::clone(environment));
    }

    /// A picture, which is looked at where nobody has yet.
    pub(crate) fn picture<E>(&self, path: &Path, look: impl FnOnce() -> Result<SharedPicture, E>) -> Result<SharedPicture, E> {
        if let Some(known) = lock(&self.pictures).get(path) {
            return Ok(known.clone());
        }
        let picture = look()?;
        lock(&self.pictures).insert(path.to_owned(), picture.clone());
        Ok(picture)
    }
}

/// The text of a file that a setting names, from what is shared where something is.
pub(crate) fn text(shared: Option<&Shared>, setting: &'static str, path: &Path) -> Result<Arc<str>, Error> {
    match shared {
        Some(shared) => shared.text(setting, path),
        None => Ok(read_setting(setting, path, None)?.into()),
    }
}

/// Reads a file that a setting names.
pub(crate) fn read_setting(setting: &'static str, path: &Path, root: Option<&Root>) -> Result<String, Error> {
    files::read_text(path, root, files::MOST_OF_A_SETTING).map_err(|cause| Error::SettingFile {
        setting,
        path: path.display().to_string(),
        cause,
    })
}
