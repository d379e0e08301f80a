//! Putting layers of settings on each other.

use super::assign::find;
use super::{Profile, ProfileError, Value};
use crate::files::{self, Root, Stray, There};
use globset::{GlobBuilder, GlobSet, GlobSetBuilder};
use std::path::{Component, Path, PathBuf};
use toml::Spanned;
use toml::de::{DeTable, DeValue};

/// The name of the file that holds the settings of a folder.
pub const FILE_NAME: &str = "obblet.toml";

/// Settings whose value is a file, or a list that may hold files: paths count from the folder of the profile.
const PATHS: [&str; 7] =
    ["word.template", "latex.preamble", "page.head", "page.header", "page.footer", "page.frame", "page.stylesheets"];

/// The settings of one file, read but not put on a profile yet.
///
/// ```
/// use obblet::profile::{Layer, Profile};
///
/// let layer = Layer::read("html.indent = 2\n[[files]]\nmatch = ['*.docx']\nstyling = 'named'", "obblet.toml", None)?;
/// let mut profile = Profile::built_in("page")?;
/// profile.apply_layer(&layer, None)?;
/// assert_eq!(profile.formats.html.indent, 2);
/// # Ok::<(), obblet::profile::ProfileError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Layer {
    name: String,
    folder: Option<PathBuf>,
    settings: Vec<Assignment>,
    files: Vec<ForFiles>,
}

#[derive(Clone, Debug)]
struct Assignment {
    key: String,
    /// `None` for what no setting can have.
    value: Option<Value>,
    line: usize,
}

/// Settings for the files whose paths match.
#[derive(Clone, Debug)]
struct ForFiles {
    patterns: GlobSet,
    settings: Vec<Assignment>,
}

impl Layer {
    /// Reads settings from a TOML text. `name` is what errors call it; paths in it count from `folder`. Settings in tables
    /// named `[[files]]` are for the documents below that folder whose paths one of the patterns in `match` fits.
    ///
    /// # Errors
    /// Where the text is not TOML, or a key or a value in it is wrong, with the line.
    pub fn read(text: &str, name: &str, folder: Option<&Path>) -> Result<Self, ProfileError> {
        let line_of = |offset: usize| text[..offset.min(text.len())].matches('\n').count() + 1;
        let table = DeTable::parse(text).map_err(|error| {
            let line = line_of(error.span().map_or(0, |span| span.start));
            let message = error.message().lines().next().unwrap_or_default().to_owned();
            in_file(name, line, ProfileError::Syntax { message })
        })?;
        let mut layer =
            Self { name: name.to_owned(), folder: folder.map(Path::to_owned), settings: Vec::new(), files: Vec::new() };
        let mut table = table.into_inner();
        if let Some(files) = table.remove("files") {
            let line = line_of(files.span().start);
            for one in tables(files.into_inner()).ok_or_else(|| in_file(name, line, no_files(String::new())))? {
                layer.files.push(
                    ForFiles::read(one.into_inner(), folder, &line_of).map_err(|(line, error)| in_file(name, line, error))?,
                );
            }
        }
        layer.settings = assignments(table, folder, &line_of);
        // What is wrong is said where the file is read, not at the first document that it is for.
        let mut any = Profile::default();
        let all = layer.settings.iter().chain(layer.files.iter().flat_map(|files| &files.settings));
        all.into_iter().try_for_each(|assignment| layer.put(&mut any, assignment))?;
        Ok(layer)
    }

    /// Reads the settings of a file.
    ///
    /// # Errors
    /// As [`Layer::read`], or where the file can't be read.
    pub fn read_file(path: &Path) -> Result<Self, ProfileError> {
        Self::of_text(path, files::read_text(path, None, files::MOST_OF_A_SETTING))
    }

    fn of_text(path: &Path, text: std::io::Result<String>) -> Result<Self, ProfileError> {
        let name = path.display().to_string();
        let text =
            text.map_err(|error| ProfileError::Unreadable { file: name.clone(), message: crate::io_error::describe(&error) })?;
        Self::read(&text, &name, path.parent())
    }

    /// Reads the settings of a file that nobody named: one that was found in a folder of documents, which may come from a
    /// stranger. It may only name files below its own folder, and no link leads out of `root` to it.
    ///
    /// # Errors
    /// As [`Layer::read_file`], or where a setting names a file elsewhere.
    pub fn read_found(path: &Path, root: &Path) -> Result<Self, ProfileError> {
        let (folder, name) = (path.parent().unwrap_or(Path::new("")), path.file_name().unwrap_or_default());
        let text = Root::open(root).and_then(|root| {
            let folder = Root::open(folder)?;
            let path = folder.path().join(name);
            root.read_text(path.strip_prefix(root.path()).unwrap_or(&path), files::MOST_OF_A_SETTING)
        });
        let text = text.map_err(|error| match Stray::of(&error) {
            Some(stray) => std::io::Error::other(format!("{stray}; --no-config does without it, and --profile may name it")),
            None => error,
        });
        let layer = Self::of_text(path, text)?;
        let below = Root::open(folder).ok();
        let all = layer.settings.iter().chain(layer.files.iter().flat_map(|files| &files.settings));
        for Assignment { key, value, line } in all.filter(|assignment| PATHS.contains(&assignment.key.as_str())) {
            let named = match value {
                Some(Value::Text(text)) => std::slice::from_ref(text),
                Some(Value::List(texts)) => texts,
                _ => &[],
            };
            let outside =
                named.iter().find(|named| !named.is_empty() && !is_address(named) && !is_below(below.as_ref(), folder, named));
            if let Some(outside) = outside {
                let error = ProfileError::OutOfReach { key: key.clone(), path: outside.clone() };
                return Err(in_file(&layer.name, *line, error));
            }
        }
        Ok(layer)
    }

    /// The file that it was read from.
    pub(crate) fn path(&self) -> Option<PathBuf> {
        self.folder.as_ref().map(|_| PathBuf::from(&self.name))
    }

    /// Whether some of its settings are for some files only.
    pub(crate) fn has_patterns(&self) -> bool {
        !self.files.is_empty()
    }

    /// Which of its settings for some files are for this document, by their places.
    pub(crate) fn files_for(&self, document: &Path) -> impl Iterator<Item = usize> {
        let path = self.folder.as_deref().and_then(|folder| document.strip_prefix(folder).ok()).unwrap_or(document);
        self.files.iter().enumerate().filter(move |(_, files)| files.patterns.is_match(path)).map(|(at, _)| at)
    }

    fn put(&self, profile: &mut Profile, assignment: &Assignment) -> Result<(), ProfileError> {
        let Assignment { key, value, line } = assignment;
        let outcome = match value {
            Some(value) => profile.set_value(key, value),
            None => find(key).and_then(|setting| {
                Err(ProfileError::WrongValue {
                    key: key.clone(),
                    value: "that".to_owned(),
                    expected: format!("it may be: {}", setting.values()),
                })
            }),
        };
        outcome.map_err(|error| in_file(&self.name, *line, error))
    }
}

impl ForFiles {
    fn read(
        mut table: DeTable<'_>,
        folder: Option<&Path>,
        line_of: &dyn Fn(usize) -> usize,
    ) -> Result<Self, (usize, ProfileError)> {
        let line = table.iter().next().map_or(1, |(key, _)| line_of(key.span().start));
        let patterns = match table.remove("match").map(|value| Value::of_toml(value.into_inner())) {
            Some(Some(Value::Text(pattern))) => vec![pattern],
            Some(Some(Value::List(patterns))) => patterns,
            _ => return Err((line, no_files(String::new()))),
        };
        let patterns = globs(&patterns).map_err(|error| (line, error))?;
        Ok(Self { patterns, settings: assignments(table, folder, line_of) })
    }
}

/// Whether a style sheet is named by an address and not by a path.
fn is_address(text: &str) -> bool {
    text.contains("://") || text.starts_with("//")
}

/// Whether a path leads to a place below a folder, as it is written and behind all symbolic links. `below` is the folder, held
/// open.
fn is_below(below: Option<&Root>, folder: &Path, path: &str) -> bool {
    let Ok(rest) = Path::new(path).strip_prefix(folder) else { return false };
    // A file that is not there is reported where it is read.
    rest.components().all(|part| matches!(part, Component::Normal(_) | Component::CurDir))
        && below.is_none_or(|below| !matches!(below.there(rest), There::Outside | There::Special))
}

fn in_file(name: &str, line: usize, error: ProfileError) -> ProfileError {
    ProfileError::InFile { file: name.to_owned(), line, error: Box::new(error) }
}

fn no_files(message: String) -> ProfileError {
    ProfileError::WrongValue {
        key: "files".to_owned(),
        value: if message.is_empty() { "that".to_owned() } else { message },
        expected: "write [[files]] with match = [\"*.docx\", \"log/**\"] and settings below it".to_owned(),
    }
}

/// Patterns of paths: `*` and `?` for what stands in one name, `**` for any folders. One without a slash fits names anywhere.
pub(crate) fn globs(patterns: &[String]) -> Result<GlobSet, ProfileError> {
    let mut set = GlobSetBuilder::new();
    for pattern in patterns {
        let full = match pattern.strip_prefix('/') {
            Some(rooted) => rooted.to_owned(),
            None if pattern.trim_end_matches('/').contains('/') => pattern.clone(),
            None => format!("**/{pattern}"),
        };
        // A folder stands for all that is in it.
        let full = if full.ends_with('/') { format!("{full}**") } else { full };
        set.add(GlobBuilder::new(&full).literal_separator(true).build().map_err(|_| no_files(format!("the pattern {pattern}")))?);
    }
    set.build().map_err(|error| no_files(error.to_string()))
}

fn tables(value: DeValue<'_>) -> Option<Vec<Spanned<DeTable<'_>>>> {
    let DeValue::Array(values) = value else { return None };
    values
        .into_iter()
        .map(|value| {
            let span = value.span();
            match value.into_inner() {
                DeValue::Table(table) => Some(Spanned::new(span, table)),
                _ => None,
            }
        })
        .collect()
}

/// The settings of a table and of those in it, each with its full key.
fn assignments(table: DeTable<'_>, folder: Option<&Path>, line_of: &dyn Fn(usize) -> usize) -> Vec<Assignment> {
    // Tables nest no deeper than keys have points.
    let mut open = vec![(String::new(), table)];
    let mut all = Vec::new();
    while let Some((prefix, table)) = open.pop() {
        for (key, value) in table {
            let line = line_of(key.span().start);
            let full = if prefix.is_empty() { key.get_ref().to_string() } else { format!("{prefix}.{}", key.get_ref()) };
            match value.into_inner() {
                DeValue::Table(inner) => open.push((full, inner)),
                value => {
                    let value = Value::of_toml(value).map(|value| rebase(&full, value, folder));
                    all.push(Assignment { key: full, value, line });
                }
            }
        }
    }
    all
}

impl Profile {
    /// Puts the settings of a TOML text on this profile. `name` is what errors call it; paths in it count from `folder`.
    ///
    /// # Errors
    /// As [`Layer::read`].
    pub fn apply(&mut self, text: &str, name: &str, folder: Option<&Path>) -> Result<(), ProfileError> {
        self.apply_layer(&Layer::read(text, name, folder)?, None)
    }

    /// Puts the settings of a layer on this profile: those for all documents, and those for `document`, where it is one.
    ///
    /// # Errors
    /// Where a setting can't have its value, which [`Layer::read`] has seen already.
    pub fn apply_layer(&mut self, layer: &Layer, document: Option<&Path>) -> Result<(), ProfileError> {
        layer.settings.iter().try_for_each(|assignment| layer.put(self, assignment))?;
        let Some(document) = document else { return Ok(()) };
        let mut fitting = layer.files_for(document).flat_map(|at| &layer.files[at].settings);
        fitting.try_for_each(|assignment| layer.put(self, assignment))
    }
}

/// Makes paths count from the folder of the profile that names them.
fn rebase(key: &str, value: Value, folder: Option<&Path>) -> Value {
    let Some(folder) = folder.filter(|_| PATHS.contains(&key)) else { return value };
    let path = |text: String| match text.as_str() {
        "" => text,
        address if is_address(address) => text,
        _ => folder.join(&text).display().to_string(),
    };
    match value {
        Value::Text(text) => Value::Text(path(text)),
        Value::List(texts) => Value::List(texts.into_iter().map(path).collect()),
        other => other,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::profile::settings;

    #[track_caller]
    fn case(toml: &str, message: &str) {
        let error = Profile::default().apply(toml, "obblet.toml", None).unwrap_err();
        assert_eq!(error.to_string(), message);
    }

    #[test]
    fn errors_name_the_line_and_what_may_be_meant() {
        case("shape = 'page'\n\n[html]\nindnt = 2\n", "obblet.toml:4: there is no setting html.indnt; did you mean html.indent?");
        case("html.indent = 20", "obblet.toml:1: html.indent can't be 20; it may be: a whole number from 0 to 8");
        case("\nshape = 'paeg'", "obblet.toml:2: shape can't be \"paeg\"; it may be: auto, page, fragment");
        case("page.stylesheets = [1]", "obblet.toml:1: page.stylesheets can't be that; it may be: a list of paths or addresses");
        case("a = [", "obblet.toml:1: unclosed array, expected `]`");
    }

    #[test]
    fn every_setting_can_be_written_and_read_back() {
        for setting in settings() {
            let mut profile = Profile::default();
            let text = format!("{} = {}", setting.key, setting.get(&profile));
            profile.apply(&text, "x", None).unwrap();
            assert_eq!(profile, Profile::default(), "{text}");
        }
    }

    #[test]
    fn lists_on_a_command_line_can_hold_any_text() {
        let case = |text: &str, expected: &[&str]| {
            let mut profile = Profile::default();
            profile.set(&format!("clean.replace={text}")).unwrap();
            assert_eq!(profile.clean.text.replace, expected, "{text}");
        };
        case("a => b, c => d", &["a => b", "c => d"]);
        case("\"a, b => c\"", &["a, b => c"]);
        case("[\"a, b => c\", 'd\"=>e']", &["a, b => c", "d\"=>e"]);
        case("[1] => (1), [2] => (2)", &["[1] => (1)", "[2] => (2)"]);
        case("5 => five", &["5 => five"]);
        assert!(Profile::default().set("clean.replace=[\"a => b\" \"c => d\"]").is_err());
    }

    #[test]
    fn paths_count_from_the_folder_of_the_profile() {
        let mut profile = Profile::default();
        let toml = "page.header = 'top.html'\npage.stylesheets = ['a.css', 'https://x.example/b.css']";
        profile.apply(toml, "x", Some(Path::new("/docs"))).unwrap();
        assert_eq!(profile.page.header.as_deref(), Some(Path::new("/docs/top.html")));
        assert_eq!(profile.page.stylesheets, ["/docs/a.css", "https://x.example/b.css"]);
    }
}
