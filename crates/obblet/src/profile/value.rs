//! Values of settings, as text and as TOML write them.

use std::fmt;

/// The value of a setting.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Value {
    /// `true` or `false`
    Flag(bool),
    /// A whole number.
    Number(i64),
    /// Words.
    Text(String),
    /// Several of them.
    List(Vec<String>),
}

impl Value {
    pub(super) fn text(text: &str) -> Self {
        Self::Text(text.to_owned())
    }
}

impl fmt::Display for Value {
    /// As it is written in TOML.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Flag(flag) => write!(f, "{flag}"),
            Self::Number(number) => write!(f, "{number}"),
            Self::Text(text) => write!(f, "{}", quoted(text)),
            Self::List(texts) => write!(f, "[{}]", texts.iter().map(|text| quoted(text)).collect::<Vec<_>>().join(", ")),
        }
    }
}

fn quoted(text: &str) -> String {
    // What Rust escapes in ASCII, TOML escapes in the same way.
    let escaped: String = text
        .chars()
        .map(|c| match c {
            '"' => "\\\"".to_owned(),
            '\\' => "\\\\".to_owned(),
            c if c.is_control() => format!("\\u{:04X}", c as u32),
            c => c.to_string(),
        })
        .collect();
    format!("\"{escaped}\"")
}

/// A setting that has one of several named values.
pub(super) trait Choice: Copy + PartialEq + 'static {
    /// The names and what they stand for.
    const CHOICES: &'static [(&'static str, Self)];

    fn name(self) -> &'static str {
        Self::CHOICES.iter().find(|(_, choice)| *choice == self).map_or("", |(name, _)| name)
    }

    fn read(value: &Value) -> Option<Self> {
        let name = match value {
            Value::Text(text) => text.as_str(),
            Value::Flag(true) => "true",
            Value::Flag(false) => "false",
            Value::Number(_) | Value::List(_) => return None,
        };
        Self::CHOICES.iter().find(|(known, _)| *known == name).map(|(_, choice)| *choice)
    }
}
