//! Putting layers of settings on each other.

use super::{Profile, ProfileError, SETTINGS, Setting, Value, error};
use std::path::Path;
use toml::Spanned;
use toml::de::{DeTable, DeValue};

/// The name of the file that holds the settings of a folder.
pub const FILE_NAME: &str = "obblet.toml";

/// Settings whose value is a file, or a list that may hold files: paths count from the folder of the profile.
const PATHS: [&str; 5] = ["page.head", "page.header", "page.footer", "page.frame", "page.stylesheets"];

fn find(key: &str) -> Result<&'static Setting, ProfileError> {
    SETTINGS.iter().find(|setting| setting.key == key).ok_or_else(|| ProfileError::UnknownKey {
        key: key.to_owned(),
        nearest: error::nearest(key, SETTINGS.iter().map(|setting| setting.key)),
    })
}

impl Profile {
    /// Changes one setting, given as `key=value`.
    ///
    /// # Errors
    /// Where there is no such setting, or it can't have that value.
    pub fn set(&mut self, assignment: &str) -> Result<(), ProfileError> {
        let (key, value) = assignment.split_once('=').ok_or_else(|| ProfileError::NoValue { text: assignment.to_owned() })?;
        self.set_value(key.trim(), &Value::text(value.trim()))
    }

    fn set_value(&mut self, key: &str, value: &Value) -> Result<(), ProfileError> {
        let setting = find(key)?;
        (setting.set)(self, value).ok_or_else(|| ProfileError::WrongValue {
            key: key.to_owned(),
            value: value.to_string(),
            expected: format!("it may be: {}", (setting.values)()),
        })
    }

    /// Puts the settings of a TOML text on this profile. `name` is what errors call it; paths in it count from `folder`.
    ///
    /// # Errors
    /// Where the text is not TOML, or a key or a value in it is wrong, with the line.
    pub fn apply(&mut self, text: &str, name: &str, folder: Option<&Path>) -> Result<(), ProfileError> {
        let line_of = |offset: usize| text[..offset.min(text.len())].matches('\n').count() + 1;
        let in_file =
            |offset, error| ProfileError::InFile { file: name.to_owned(), line: line_of(offset), error: Box::new(error) };
        let table = DeTable::parse(text).map_err(|error| {
            let offset = error.span().map_or(0, |span| span.start);
            in_file(offset, ProfileError::Syntax { message: error.message().lines().next().unwrap_or_default().to_owned() })
        })?;
        // Tables nest no deeper than keys have points.
        let mut open = vec![(String::new(), table.into_inner())];
        while let Some((prefix, table)) = open.pop() {
            for (key, value) in table {
                let offset = key.span().start;
                let full = if prefix.is_empty() { key.get_ref().to_string() } else { format!("{prefix}.{}", key.get_ref()) };
                match value.into_inner() {
                    DeValue::Table(inner) => open.push((full, inner)),
                    value => {
                        let value = read(value).map(|value| rebase(&full, value, folder));
                        let outcome = match value {
                            Some(value) => self.set_value(&full, &value),
                            None => find(&full).and_then(|setting| {
                                Err(ProfileError::WrongValue {
                                    key: full.clone(),
                                    value: "that".to_owned(),
                                    expected: format!("it may be: {}", (setting.values)()),
                                })
                            }),
                        };
                        outcome.map_err(|error| in_file(offset, error))?;
                    }
                }
            }
        }
        Ok(())
    }

    /// Puts the settings of a file on this profile.
    ///
    /// # Errors
    /// As [`Profile::apply`], or where the file can't be read.
    pub fn apply_file(&mut self, path: &Path) -> Result<(), ProfileError> {
        let name = path.display().to_string();
        let text = std::fs::read_to_string(path)
            .map_err(|error| ProfileError::Unreadable { file: name.clone(), message: error.to_string() })?;
        self.apply(&text, &name, path.parent())
    }

    /// Puts the settings of the folders above `folder` and of itself on this profile, outermost first, beginning with
    /// `root` where that is given.
    ///
    /// # Errors
    /// As [`Profile::apply_file`].
    pub fn apply_folders(&mut self, folder: &Path, root: Option<&Path>) -> Result<(), ProfileError> {
        let mut files: Vec<_> = folder
            .ancestors()
            .take_while(|above| root.is_none_or(|root| above.starts_with(root)))
            .map(|above| above.join(FILE_NAME))
            .filter(|file| file.is_file())
            .collect();
        files.reverse();
        files.iter().try_for_each(|file| self.apply_file(file))
    }
}

fn read(value: DeValue<'_>) -> Option<Value> {
    Some(match value {
        DeValue::String(text) => Value::Text(text.into_owned()),
        DeValue::Boolean(flag) => Value::Flag(flag),
        DeValue::Integer(number) => Value::Number(i64::from_str_radix(number.as_str(), number.radix()).ok()?),
        DeValue::Array(values) => Value::List(
            values
                .into_iter()
                .map(|value: Spanned<DeValue<'_>>| match value.into_inner() {
                    DeValue::String(text) => Some(text.into_owned()),
                    _ => None,
                })
                .collect::<Option<_>>()?,
        ),
        _ => return None,
    })
}

/// Makes paths count from the folder of the profile that names them.
fn rebase(key: &str, value: Value, folder: Option<&Path>) -> Value {
    let Some(folder) = folder.filter(|_| PATHS.contains(&key)) else { return value };
    let path = |text: String| match text.as_str() {
        "" => text,
        address if address.contains("://") => text,
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
        for setting in SETTINGS {
            let mut profile = Profile::default();
            let text = format!("{} = {}", setting.key, (setting.get)(&profile));
            profile.apply(&text, "x", None).unwrap();
            assert_eq!(profile, Profile::default(), "{text}");
        }
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
