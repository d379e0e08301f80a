//! Folders of the disk as places for media, and as targets of links.

use super::Root;
use crate::document::Place;
use crate::links::{LinkResolver, LinkTarget};
use crate::media::{MediaSource, MediaStore, There, address, within};
use std::io;
use std::path::{Path, PathBuf};

impl MediaSource for Root {
    fn there(&self, path: &Path) -> There {
        Self::there(self, path)
    }

    fn read(&self, path: &Path, limit: u64) -> io::Result<Vec<u8>> {
        Self::read(self, path, limit)
    }

    fn without_links(&self, path: &Path) -> io::Result<PathBuf> {
        Self::without_links(self, path)
    }

    fn folder(&self) -> Option<&Path> {
        Some(self.path())
    }
}

/// Media that go into a folder of the disk, which holds the output too.
#[derive(Debug)]
pub struct FolderStore<'a> {
    /// The folder of the output.
    pub root: &'a Root,
}

impl MediaStore for FolderStore<'_> {
    fn store(&self, path: &Path, bytes: Vec<u8>) -> io::Result<String> {
        self.root.make_folder_of(path)?;
        self.root.put(path, &bytes, false)?;
        Ok(address(path))
    }
}

/// Links to files that have to be there.
#[derive(Clone, Copy, Debug)]
pub struct FolderLinks<'a> {
    /// The folder that no link is followed out of.
    pub root: &'a Root,
    /// The path from there to the folder of the document.
    pub folder: &'a Path,
}

impl LinkResolver for FolderLinks<'_> {
    fn resolve(&self, address: &str, _: Place) -> LinkTarget {
        let path = address.split(['?', '#']).next().unwrap_or_default();
        if path.is_empty() || path.starts_with(['/', '\\']) || path.contains(':') {
            return LinkTarget::Unchanged;
        }
        let path = percent_encoding::percent_decode_str(path).decode_utf8_lossy();
        match within(Some(self.folder), &path).map(|path| self.root.there(&path)) {
            Some(There::Nothing) => LinkTarget::Missing { nearest: None },
            _ => LinkTarget::Unchanged,
        }
    }
}
