//! Properties: those of the file, and those of the headings that are open, which hold for all that is below them.

use crate::fast_hash::HashMap;

/// The properties that hold where the reader is.
#[derive(Debug, Default)]
pub(super) struct Properties {
    /// By their names in small letters: values, and the level of the heading that each is from, innermost last.
    values: HashMap<String, Vec<(usize, String)>>,
    /// What the headings that are open have said, in that order.
    said: Vec<(usize, String)>,
}

impl Properties {
    /// A heading begins: what others of its level and of deeper ones have said holds no more.
    pub(super) fn enter(&mut self, level: usize) {
        while let Some((_, name)) = self.said.pop_if(|(said, _)| *said >= level) {
            if let Some(values) = self.values.get_mut(&name) {
                values.pop();
            }
        }
    }

    /// A heading of a level says something; level 0 is the file.
    pub(super) fn set(&mut self, level: usize, name: &str, value: &str) {
        let name = name.trim_end_matches('+').to_ascii_lowercase();
        self.values.entry(name.clone()).or_default().push((level, value.to_owned()));
        self.said.push((level, name));
    }

    pub(super) fn get(&self, name: &str) -> Option<&str> {
        self.values.get(name)?.last().map(|(_, value)| value.as_str())
    }
}
