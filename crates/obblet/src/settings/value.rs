//! Values of settings, as text and as TOML write them.

use std::fmt;
#[cfg(feature = "files")]
use toml::Spanned;
#[cfg(feature = "files")]
use toml::de::DeValue;

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
    pub(crate) fn text(text: &str) -> Self {
        Self::Text(text.to_owned())
    }
}

impl Value {
    /// A value as TOML writes it; none in a build that reads no TOML.
    #[cfg(not(feature = "files"))]
    pub(crate) const fn parse(_: &str) -> Option<Self> {
        None
    }

    /// A value as TOML writes it.
    #[cfg(feature = "files")]
    pub(crate) fn parse(text: &str) -> Option<Self> {
        Self::of_toml(DeValue::parse(text).ok()?.into_inner())
    }

    /// A value out of a TOML document; `None` for what no setting can have.
    #[cfg(feature = "files")]
    pub(crate) fn of_toml(value: DeValue<'_>) -> Option<Self> {
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
pub(crate) trait Choice: Copy + PartialEq + 'static {
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

/// The names of all choices, with commas between.
pub(crate) fn choices<C: Choice>() -> String {
    C::CHOICES.iter().map(|(name, _)| *name).collect::<Vec<_>>().join(", ")
}
