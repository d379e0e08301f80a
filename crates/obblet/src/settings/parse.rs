//! Values of settings out of what a file or a command line says, and checks that several rooms need.

use super::Value;

pub(crate) fn flag(value: &Value) -> Option<bool> {
    match value {
        Value::Flag(flag) => Some(*flag),
        Value::Text(text) => text.parse().ok(),
        Value::Number(_) | Value::List(_) => None,
    }
}

pub(crate) fn number(value: &Value) -> Option<i64> {
    match value {
        Value::Number(number) => Some(*number),
        Value::Text(text) => text.parse().ok(),
        Value::Flag(_) | Value::List(_) => None,
    }
}

pub(crate) fn text(value: &Value) -> Option<String> {
    match value {
        Value::Text(text) => Some(text.clone()),
        Value::Number(number) => Some(number.to_string()),
        Value::Flag(_) | Value::List(_) => None,
    }
}

pub(crate) fn list(value: &Value) -> Option<Vec<String>> {
    match value {
        Value::List(texts) => Some(texts.clone()),
        // On a command line, commas stand between them, or they are written as in a file.
        Value::Text(text) => match Value::parse(text) {
            Some(Value::List(texts)) => Some(texts),
            Some(Value::Text(text)) => Some(vec![text]),
            // A list or a text whose marks do not fit is a slip of the hand.
            _ if text.starts_with("[\"") || text.starts_with("['") => None,
            _ => Some(text.split(',').map(|part| part.trim().to_owned()).filter(|part| !part.is_empty()).collect()),
        },
        Value::Flag(_) | Value::Number(_) => None,
    }
}

/// Whether a text names an encoding (WHATWG Encoding, section 4.2); none is named by an empty one.
pub(crate) fn is_encoding(text: &str) -> bool {
    text.is_empty() || encoding_rs::Encoding::for_label(text.as_bytes()).is_some()
}
