//! Names that are there once, without regard to case.

use crate::fast_hash::HashMap;

/// Names that are taken.
#[derive(Debug, Default)]
pub(super) struct UniqueNames {
    /// In small letters, with the last number that was put behind each.
    taken: HashMap<String, usize>,
}

impl UniqueNames {
    /// Takes a name; whether it was free.
    pub(super) fn take(&mut self, name: &str) -> bool {
        self.taken.insert(name.to_lowercase(), 1).is_none()
    }

    /// A name, with a number behind it where it is taken, and no more characters than so many.
    pub(super) fn unique(&mut self, name: &str, longest: usize, before_number: &str) -> String {
        let key = name.to_lowercase();
        let Some(mut number) = self.taken.get(&key).copied() else {
            self.take(name);
            return name.to_owned();
        };
        let unique = loop {
            number += 1;
            let end = format!("{before_number}{number}");
            let unique: String = name.chars().take(longest - end.len()).chain(end.chars()).collect();
            if self.take(&unique) {
                break unique;
            }
        };
        self.taken.insert(key, number);
        unique
    }
}
