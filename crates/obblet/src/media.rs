//! Where the media of documents come from, and where they go: files of a folder, or whatever a program has.

use std::collections::BTreeMap;
use std::io;
use std::path::{Path, PathBuf};
use std::sync::{Mutex, PoisonError};

/// What is at a path, behind symbolic links.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum There {
    /// Nothing, or a link that leads nowhere.
    Nothing,
    /// A regular file of so many bytes.
    File(u64),
    /// A folder.
    Folder,
    /// A device, a pipe or a socket.
    Special,
    /// A link that leads out of the root.
    Outside,
}

/// Where the images of a document come from. Paths have slashes and count from the root of the source; none leads out of it.
///
/// [`Root`](crate::files::Root) is the one for a folder of the disk, [`MemoryMedia`] the one for memory.
pub trait MediaSource: Sync {
    /// What is at a path.
    fn there(&self, path: &Path) -> There;

    /// The bytes at a path.
    ///
    /// # Errors
    /// Where there is no file, or one of more than `limit` bytes.
    fn read(&self, path: &Path, limit: u64) -> io::Result<Vec<u8>>;

    /// The path behind all symbolic links.
    ///
    /// # Errors
    /// Where it leads out of the root.
    fn without_links(&self, path: &Path) -> io::Result<PathBuf> {
        Ok(path.to_owned())
    }

    /// The folder on the disk that it is, where it is one: a page in the same folder shows images where they are.
    fn folder(&self) -> Option<&Path> {
        None
    }
}

/// Media in memory, by their paths: to read from, and to store in.
///
/// ```
/// use obblet::media::MemoryMedia;
/// use obblet::{Context, Format, convert_in, profile::Profile};
///
/// let mut source = MemoryMedia::default();
/// source.insert("staff.png", include_bytes!("../../../demo/images/one-day.png").to_vec());
/// let stored = MemoryMedia::default();
/// let context = Context { media: Some(&source), store: Some(&stored), name: "tides", ..Context::default() };
/// let converted = convert_in(b"![The staff](staff.png)", Format::Markdown, Format::Html, &Profile::fragment(), &context)?;
/// assert!(converted.text().unwrap().contains(r#"src="tides-images/staff.png""#));
/// assert_eq!(stored.into_files().len(), 1);
/// # Ok::<(), obblet::Error>(())
/// ```
#[derive(Debug, Default)]
pub struct MemoryMedia(Mutex<BTreeMap<PathBuf, Vec<u8>>>);

impl MemoryMedia {
    /// Puts a file at a path.
    pub fn insert(&mut self, path: impl Into<PathBuf>, bytes: Vec<u8>) {
        self.lock().insert(path.into(), bytes);
    }

    /// All files.
    #[must_use]
    pub fn into_files(self) -> BTreeMap<PathBuf, Vec<u8>> {
        self.0.into_inner().unwrap_or_else(PoisonError::into_inner)
    }

    fn lock(&self) -> std::sync::MutexGuard<'_, BTreeMap<PathBuf, Vec<u8>>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

impl MediaSource for MemoryMedia {
    fn there(&self, path: &Path) -> There {
        self.lock().get(path).map_or(There::Nothing, |bytes| There::File(bytes.len() as u64))
    }

    fn read(&self, path: &Path, limit: u64) -> io::Result<Vec<u8>> {
        let files = self.lock();
        let bytes = files.get(path).ok_or(io::ErrorKind::NotFound)?;
        if bytes.len() as u64 > limit { Err(io::ErrorKind::FileTooLarge.into()) } else { Ok(bytes.clone()) }
    }
}

/// Where the images of an output go that don't stay where they are. Without one they are in
/// [`Converted::files`](crate::Converted::files).
///
/// [`FolderStore`](crate::files::FolderStore) is the one for a folder of the disk, [`MemoryMedia`] the one for memory.
pub trait MediaStore: Sync {
    /// Stores a file, and gives its address in the output. `path` is where it would go beside the output.
    ///
    /// # Errors
    /// Where it can't be stored: the image is left as it is, with a finding.
    fn store(&self, path: &Path, bytes: Vec<u8>) -> io::Result<String>;
}

impl MediaStore for MemoryMedia {
    fn store(&self, path: &Path, bytes: Vec<u8>) -> io::Result<String> {
        self.lock().insert(path.to_owned(), bytes);
        Ok(address(path))
    }
}

/// The files around a document that it may name: those below the root that are not hidden, and that its folder shows.
#[derive(Clone, Copy, Default)]
pub struct FilesAround<'a> {
    /// Where they come from; without it there are none.
    pub root: Option<&'a dyn MediaSource>,
    /// The path from the root to the folder of the document.
    pub folder: Option<&'a Path>,
    /// Says which files of the root may be shown; where it is not given, those are that are not hidden.
    pub shows: Option<&'a (dyn Fn(&str) -> bool + Sync)>,
    /// No file is read that has more bytes.
    pub limit: u64,
    /// The name of the document's own file without its extension, where it has one: other programs name theirs after it.
    pub name: &'a str,
}

impl FilesAround<'_> {
    /// The path from the root of a path from the folder of the document; none where it leads out.
    #[must_use]
    pub fn path(&self, local: &str) -> Option<PathBuf> {
        within(self.folder, local)
    }

    /// The bytes of a text file, by its path from the root.
    ///
    /// # Errors
    /// Why it was not read, as a sentence about it.
    pub fn read(&self, path: &Path) -> Result<Vec<u8>, &'static str> {
        let root = self.root.ok_or("no files are read here")?;
        match root.there(path) {
            There::File(length) if length > self.limit => return Err("it is larger than limits.source"),
            There::File(_) => {}
            There::Nothing => return Err("it was not found"),
            There::Outside => return Err("it is outside of the folder"),
            There::Folder | There::Special => return Err("it is no file"),
        }
        if !self.may_show(root, path) {
            return Err("it is hidden, ignored or excluded");
        }
        let bytes = root.read(path, self.limit).map_err(|_| "it can't be read")?;
        if crate::signature::not_text(&bytes, false).is_some() { Err("it is no text") } else { Ok(bytes) }
    }

    /// Whether a file may be shown: what is hidden is not shown because a document names it, nor what a folder leaves out.
    pub(crate) fn may_show(&self, root: &dyn MediaSource, path: &Path) -> bool {
        match self.shows {
            Some(shows) => path.to_str().is_some_and(shows),
            None => {
                // The folder of a document that somebody named may be hidden itself.
                let folder = self.folder.unwrap_or(Path::new(""));
                let is_hidden = |path: &Path| {
                    let mut inner = path.strip_prefix(folder).unwrap_or(path).iter();
                    inner.any(|part| part.as_encoded_bytes().starts_with(b"."))
                };
                !is_hidden(path) && root.without_links(path).is_ok_and(|real| !is_hidden(&real))
            }
        }
    }
}

impl std::fmt::Debug for FilesAround<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("FilesAround").field("folder", &self.folder).field("limit", &self.limit).finish_non_exhaustive()
    }
}

/// A path as an address.
pub(crate) fn address(path: &Path) -> String {
    const SET: &percent_encoding::AsciiSet = &percent_encoding::CONTROLS.add(b' ').add(b'%').add(b'?').add(b'#').add(b':');
    let encoded = |part: &std::ffi::OsStr| percent_encoding::utf8_percent_encode(&part.to_string_lossy(), SET).to_string();
    path.iter().map(encoded).collect::<Vec<_>>().join("/")
}

/// The path from the root that a path from a folder in it names; none where it leads out.
pub(crate) fn within(folder: Option<&Path>, local: &str) -> Option<PathBuf> {
    let mut path = folder.map(Path::to_owned).unwrap_or_default();
    for part in local.split(['/', '\\']) {
        match part {
            "" | "." => {}
            ".." => {
                path.file_name()?;
                path.pop();
            }
            part => path.push(part),
        }
    }
    Some(path)
}
