//! The layers of settings that documents of many folders have.

use super::{FILE_NAME, Layer, Profile, ProfileError};
use crate::fast_hash::HashMap;
use crate::files::{Kind, Root};
use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex, PoisonError};

/// Where the settings of documents come from: a profile to begin with, the files of settings in the folders above a document,
/// and what is put on top of them. Files are read once.
///
/// ```
/// use obblet::profile::{Layers, Profile};
///
/// let mut layers = Layers::new(Profile::built_in("page")?);
/// layers.set("html.indent=2")?;
/// let profile = layers.of(std::path::Path::new("/nowhere/tides.md"), None)?;
/// assert_eq!(profile.formats.html.indent, 2);
/// # Ok::<(), obblet::profile::ProfileError>(())
/// ```
#[derive(Debug)]
pub struct Layers {
    first: Profile,
    over: Vec<Over>,
    /// Whether settings files in folders count.
    finds: bool,
    folders: Mutex<HashMap<PathBuf, Option<Arc<Layer>>>>,
    /// The profiles of folders whose layers make no difference between files.
    plain: Mutex<HashMap<PathBuf, Arc<Profile>>>,
    /// All profiles by what they are made of.
    made: Mutex<HashMap<Vec<Ingredient>, Arc<Profile>>>,
}

#[derive(Debug)]
enum Over {
    File(Layer),
    Setting(String),
}

/// What a profile is made of.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
enum Ingredient {
    /// A layer, by where it is; which is where it stays.
    Layer(usize),
    /// Of the layer before this one, the settings for some files that come at this place.
    Files(usize),
}

fn lock<T>(mutex: &Mutex<T>) -> std::sync::MutexGuard<'_, T> {
    mutex.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Layers {
    /// Layers that begin with a profile.
    #[must_use]
    pub fn new(first: Profile) -> Self {
        Self { first, over: Vec::new(), finds: true, folders: Mutex::default(), plain: Mutex::default(), made: Mutex::default() }
    }

    /// Leaves out settings files that are found in the folders of documents.
    pub fn find_none(&mut self) {
        self.finds = false;
        self.forget();
    }

    /// The settings files that were used so far: those that were found, outermost first, and those that were put on top.
    #[must_use]
    pub fn files(&self) -> Vec<PathBuf> {
        let mut found: Vec<PathBuf> =
            lock(&self.folders).iter().filter(|(_, layer)| layer.is_some()).map(|(folder, _)| folder.join(FILE_NAME)).collect();
        found.sort();
        let named = self.over.iter().filter_map(|over| if let Over::File(layer) = over { layer.path() } else { None });
        found.extend(named);
        found
    }

    /// Puts a file of settings on top of all that is known so far, and of those of the folders.
    ///
    /// # Errors
    /// As [`Layer::read_file`].
    pub fn put_file(&mut self, path: &Path) -> Result<(), ProfileError> {
        self.over.push(Over::File(Layer::read_file(path)?));
        self.forget();
        Ok(())
    }

    /// Puts a single setting, given as `key=value`, on top of all.
    ///
    /// # Errors
    /// As [`Profile::set`].
    pub fn set(&mut self, assignment: &str) -> Result<(), ProfileError> {
        Profile::default().set(assignment)?;
        self.over.push(Over::Setting(assignment.to_owned()));
        self.forget();
        Ok(())
    }

    /// Forgets profiles that are not made of all layers any more.
    fn forget(&mut self) {
        lock(&self.plain).clear();
        lock(&self.made).clear();
    }

    /// The profile of a document. The folders above it count, beginning with `root` where that is given.
    ///
    /// # Errors
    /// Where a file of settings of a folder can't be used. Such a file may only name files below its own folder.
    pub fn of(&self, document: &Path, root: Option<&Path>) -> Result<Arc<Profile>, ProfileError> {
        let folder = document.parent().unwrap_or(Path::new(""));
        if let Some(known) = lock(&self.plain).get(folder) {
            return Ok(Arc::clone(known));
        }
        let mut above = Vec::new();
        let ancestors = folder.ancestors().take_while(|above| root.is_none_or(|root| above.starts_with(root)));
        for folder in ancestors.filter(|_| self.finds) {
            above.extend(self.folder(folder, root)?);
        }
        let over = self.over.iter().filter_map(|over| if let Over::File(layer) = over { Some(layer) } else { None });
        let mut ingredients = Vec::new();
        let mut differs = false;
        for layer in above.iter().map(|layer| &**layer).chain(over) {
            ingredients.push(Ingredient::Layer(std::ptr::from_ref(layer).addr()));
            ingredients.extend(layer.files_for(document).map(Ingredient::Files));
            differs |= layer.has_patterns();
        }
        let known = lock(&self.made).get(&ingredients).cloned();
        let profile = match known {
            Some(known) => known,
            None => {
                let profile = Arc::new(self.make(&above, document)?);
                lock(&self.made).insert(ingredients, Arc::clone(&profile));
                profile
            }
        };
        if !differs {
            lock(&self.plain).insert(folder.to_owned(), Arc::clone(&profile));
        }
        Ok(profile)
    }

    /// The topmost of the folders above a document that have settings of their own, which belong together then; the document's
    /// folder itself where none has.
    #[must_use]
    pub fn top_of<'f>(&self, folder: &'f Path) -> &'f Path {
        let has_settings = |above: &&Path| self.finds && self.folder(above, None).is_ok_and(|layer| layer.is_some());
        folder.ancestors().filter(has_settings).last().unwrap_or(folder)
    }

    /// The profile of a document with these layers of the folders above it, the nearest first.
    fn make(&self, above: &[Arc<Layer>], document: &Path) -> Result<Profile, ProfileError> {
        let mut profile = self.first.clone();
        for layer in above.iter().rev() {
            profile.apply_layer(layer, Some(document))?;
        }
        for over in &self.over {
            match over {
                Over::File(layer) => profile.apply_layer(layer, Some(document))?,
                Over::Setting(assignment) => profile.set(assignment)?,
            }
        }
        Ok(profile)
    }

    /// The profile that all documents of a folder have, where it is known that they have the same.
    pub(crate) fn of_all_in(&self, folder: &Path) -> Option<Arc<Profile>> {
        lock(&self.plain).get(folder).cloned()
    }

    /// The settings that lie in a folder. No link leads out of the root to them, or out of the folder where there is none.
    fn folder(&self, folder: &Path, root: Option<&Path>) -> Result<Option<Arc<Layer>>, ProfileError> {
        if let Some(known) = lock(&self.folders).get(folder) {
            return Ok(known.clone());
        }
        let file = folder.join(FILE_NAME);
        let is_there =
            Root::open(folder).is_ok_and(|folder| folder.itself(FILE_NAME.as_ref()).is_ok_and(|(kind, _)| kind != Kind::Folder));
        let layer = match is_there {
            true => Some(Arc::new(Layer::read_found(&file, root.unwrap_or(folder))?)),
            false => None,
        };
        lock(&self.folders).insert(folder.to_owned(), layer.clone());
        Ok(layer)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_nearer_layer_wins_and_patterns_choose_files() {
        let folder = tempfile::tempdir().unwrap();
        let write = |name: &str, text: &str| {
            let path = folder.path().join(name);
            std::fs::create_dir_all(path.parent().unwrap()).unwrap();
            std::fs::write(path, text).unwrap();
        };
        write(
            "obblet.toml",
            "html.indent = 1\npage.title = 'all'\n[[files]]\nmatch = ['log/**/*.docx', 'tides.*']\nstyling = 'named'\npage.title = 'some'",
        );
        write("log/obblet.toml", "html.indent = 2");
        let mut layers = Layers::new(Profile::default());
        layers.set("page.look=folio").unwrap();
        let of = |name: &str| {
            let profile = layers.of(&folder.path().join(name), Some(folder.path())).unwrap();
            (profile.formats.html.indent, profile.page.title.clone(), profile.page.look.clone())
        };
        let expected = |indent: u8, title: &str| (indent, title.to_owned(), "folio".to_owned());
        assert_eq!(of("a.md"), expected(1, "all"));
        assert_eq!(of("log/a.md"), expected(2, "all"));
        assert_eq!(of("log/2031/a.docx"), expected(2, "some"));
        assert_eq!(of("a/b/tides.md"), expected(1, "some"));
        let profile = |name: &str| layers.of(&folder.path().join(name), Some(folder.path())).unwrap();
        assert!(Arc::ptr_eq(&profile("log/b.docx"), &profile("log/2031/c.docx")), "documents share what is the same for them");
        assert!(!Arc::ptr_eq(&profile("log/b.docx"), &profile("log/b.md")));
        assert!(layers.set("page.lok=x").is_err());
        layers.find_none();
        assert_eq!(layers.of(&folder.path().join("log/a.md"), None).unwrap().formats.html.indent, 0);
    }

    #[test]
    fn files_that_are_found_reach_no_further_than_their_folder() {
        let folder = tempfile::tempdir().unwrap();
        let inner = folder.path().join("book");
        std::fs::create_dir_all(inner.join("parts")).unwrap();
        std::fs::write(folder.path().join("secret"), "x").unwrap();
        std::fs::write(inner.join("parts/top.html"), "x").unwrap();
        let of = |settings: &str| {
            std::fs::write(inner.join(FILE_NAME), settings).unwrap();
            Layers::new(Profile::default()).of(&inner.join("a.md"), None).map(|profile| profile.page.clone())
        };
        assert!(of("page.header = 'parts/top.html'\npage.stylesheets = ['https://x.example/a.css', 'none.css']").is_ok());
        let secret = folder.path().join("secret");
        for outside in ["../secret", "parts/../../secret", secret.to_str().unwrap()] {
            for settings in [
                format!("page.header = '{outside}'"),
                format!("page.stylesheets = ['parts/a.css', '{outside}']"),
                format!("[[files]]\nmatch = '*.md'\npage.frame = '{outside}'"),
            ] {
                let error = of(&settings).unwrap_err().to_string();
                assert!(error.contains("reach only files below it") && error.contains("secret"), "{settings}: {error}");
            }
        }
        #[cfg(unix)]
        {
            std::os::unix::fs::symlink(&secret, inner.join("parts/link")).unwrap();
            assert!(of("page.footer = 'parts/link'").unwrap_err().to_string().contains("reach only"));
        }
        // Whoever names the file trusts it.
        std::fs::write(folder.path().join("own.toml"), "page.header = 'book/../secret'").unwrap();
        std::fs::remove_file(inner.join(FILE_NAME)).unwrap();
        let mut layers = Layers::new(Profile::default());
        layers.put_file(&folder.path().join("own.toml")).unwrap();
        assert!(layers.of(&inner.join("a.md"), None).unwrap().page.header.is_some());
        assert_eq!(layers.files(), [folder.path().join("own.toml")]);
    }
}
