//! Changing single settings by their keys.

use super::{Profile, ProfileError, Setting, Value, error, settings};
use crate::settings::parse;

pub(super) fn find(key: &str) -> Result<Setting, ProfileError> {
    Setting::of(key).ok_or_else(|| ProfileError::UnknownKey {
        key: key.to_owned(),
        nearest: error::nearest(key, settings().map(|setting| setting.key)),
    })
}

impl Profile {
    /// Changes one setting, given as `key=value`. A list is several values with commas between them, or is written as in TOML
    /// where one of them holds a comma: `clean.replace=["a, b => c", "d => e"]`. A text may stand in quotation marks.
    ///
    /// # Errors
    /// Where there is no such setting, or it can't have that value.
    pub fn set(&mut self, assignment: &str) -> Result<(), ProfileError> {
        let (key, value) = assignment.split_once('=').ok_or_else(|| ProfileError::NoValue { text: assignment.to_owned() })?;
        let (key, value) = (key.trim(), value.trim());
        let takes_list = matches!(find(key)?.get(self), Value::List(_));
        // A text may be given as a file has it, in quotation marks.
        let quoted = if takes_list { None } else { Value::parse(value).filter(|value| matches!(value, Value::Text(_))) };
        self.set_value(key, &quoted.unwrap_or_else(|| Value::text(value)))
    }

    pub(super) fn set_value(&mut self, key: &str, value: &Value) -> Result<(), ProfileError> {
        let setting = find(key)?;
        if setting.set(self, value).is_some() {
            return Ok(());
        }
        // Of a list, the entry is named that is wrong.
        let entries = if matches!(setting.get(self), Value::List(_)) { parse::list(value) } else { None };
        let wrong = entries.unwrap_or_default().into_iter().find(|entry| {
            let alone = Value::List(vec![entry.clone()]);
            setting.set(&mut self.clone(), &alone).is_none()
        });
        Err(ProfileError::WrongValue {
            key: key.to_owned(),
            value: wrong.map_or_else(|| value.to_string(), |entry| Value::Text(entry).to_string()),
            expected: format!("it may be: {}", setting.values()),
        })
    }
}
