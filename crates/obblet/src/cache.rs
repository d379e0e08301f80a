//! What the pages of a folder share: files that settings name, and pictures. Each is read once.

use crate::error::{Error, PageError};
#[cfg(feature = "files")]
use crate::files::Root;
use crate::picture;
#[cfg(feature = "frames")]
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
    #[cfg(feature = "files")]
    root: Option<Arc<Root>>,
    texts: Mutex<HashMap<PathBuf, Arc<str>>>,
    pictures: Mutex<HashMap<PathBuf, SharedPicture>>,
    #[cfg(feature = "frames")]
    frames: Mutex<HashMap<FramesKey, Arc<Environment<'static>>>>,
}

/// What templates of pages depend on.
#[cfg(feature = "frames")]
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
    #[cfg(feature = "publish")]
    pub(crate) fn of(root: Arc<Root>) -> Self {
        Self { root: Some(root), ..Self::default() }
    }

    /// The text of a file that a setting names.
    pub(crate) fn text(&self, setting: &'static str, path: &Path) -> Result<Arc<str>, Error> {
        if let Some(known) = lock(&self.texts).get(path) {
            return Ok(Arc::clone(known));
        }
        let text: Arc<str> = self.read_setting(setting, path)?.into();
        lock(&self.texts).insert(path.to_owned(), Arc::clone(&text));
        Ok(text)
    }

    #[cfg(feature = "files")]
    fn read_setting(&self, setting: &'static str, path: &Path) -> Result<String, Error> {
        read_setting(setting, path, self.root.as_deref())
    }

    #[cfg(not(feature = "files"))]
    fn read_setting(&self, setting: &'static str, path: &Path) -> Result<String, Error> {
        read_setting(setting, path)
    }

    /// Templates that are ready.
    #[cfg(feature = "frames")]
    pub(crate) fn frames(&self, key: &FramesKey) -> Option<Arc<Environment<'static>>> {
        lock(&self.frames).get(key).cloned()
    }

    /// Keeps templates that are ready.
    #[cfg(feature = "frames")]
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
        None => Shared::default().text(setting, path),
    }
}

/// The bytes of a file that a setting names.
#[cfg(feature = "files")]
pub(crate) fn bytes(shared: Option<&Shared>, setting: &'static str, path: &Path) -> Result<Vec<u8>, Error> {
    let root = shared.and_then(|shared| shared.root.as_deref());
    crate::files::read_bytes(path, root, crate::files::MOST_OF_A_TEMPLATE)
        .map_err(|cause| PageError::SettingFile { setting, path: path.display().to_string(), cause }.into())
}

#[cfg(not(feature = "files"))]
pub(crate) fn bytes(_: Option<&Shared>, setting: &'static str, path: &Path) -> Result<Vec<u8>, Error> {
    let cause = std::io::ErrorKind::Unsupported.into();
    Err(PageError::SettingFile { setting, path: path.display().to_string(), cause }.into())
}

/// Reads a file that a setting names.
#[cfg(feature = "files")]
fn read_setting(setting: &'static str, path: &Path, root: Option<&Root>) -> Result<String, Error> {
    use crate::files::{MOST_OF_A_SETTING, read_text};
    read_text(path, root, MOST_OF_A_SETTING)
        .map_err(|cause| PageError::SettingFile { setting, path: path.display().to_string(), cause }.into())
}

/// Nothing reads files in this build.
#[cfg(not(feature = "files"))]
fn read_setting(setting: &'static str, path: &Path) -> Result<String, Error> {
    let cause = std::io::ErrorKind::Unsupported.into();
    Err(PageError::SettingFile { setting, path: path.display().to_string(), cause }.into())
}
