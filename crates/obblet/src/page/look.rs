//! The built-in designs.

use crate::error::{Error, PageError};
use crate::profile::LOOKS;

const BASE: &str = include_str!("looks/base.css");
const SHEETS: [&str; 3] = [include_str!("looks/chart.css"), include_str!("looks/folio.css"), include_str!("looks/beacon.css")];

/// The style rules of a look; `None` for the look `none`.
pub(super) fn stylesheet(name: &str) -> Result<Option<String>, Error> {
    if name == "none" || name.is_empty() {
        return Ok(None);
    }
    match LOOKS.iter().position(|look| *look == name) {
        Some(look) => Ok(Some(format!("{BASE}{}", SHEETS[look]))),
        None => Err(PageError::UnknownLook { name: name.to_owned(), known: LOOKS.join(", ") }.into()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::collections::HashMap;

    /// The relative luminance of a colour (WCAG 2.2).
    fn luminance(colour: &str) -> f64 {
        let part = |at: usize| {
            let value = f64::from(u8::from_str_radix(&colour[at..at + 2], 16).unwrap()) / 255.0;
            if value <= 0.039_28 { value / 12.92 } else { ((value + 0.055) / 1.055).powf(2.4) }
        };
        0.2126 * part(1) + 0.7152 * part(3) + 0.0722 * part(5)
    }

    fn contrast(one: &str, other: &str) -> f64 {
        let (one, other) = (luminance(one), luminance(other));
        (one.max(other) + 0.05) / (one.min(other) + 0.05)
    }

    #[test]
    fn every_colour_of_text_can_be_read_on_every_ground() {
        for (look, sheet) in LOOKS.iter().zip(SHEETS) {
            let (light, dark) = sheet.split_once("@media (prefers-color-scheme: dark)").unwrap();
            let mut colours: HashMap<&str, &str> = HashMap::new();
            for (scheme, rules) in [("light", light), ("dark", dark)] {
                let pairs =
                    rules.split("--").filter_map(|rule| rule.split_once(": ")).filter(|(_, value)| value.starts_with('#'));
                colours.extend(pairs.map(|(name, value)| (name, &value[..7])));
                for text in ["ink", "soft", "link", "note", "tip", "important", "warning", "caution"] {
                    for ground in ["ground", "panel"] {
                        let contrast = contrast(colours[text], colours[ground]);
                        assert!(contrast >= 4.5, "{look}, {scheme}: {text} on {ground} has {contrast:.1}");
                    }
                }
                assert!(contrast(colours["ink"], colours["glow"]) >= 4.5, "{look}, {scheme}: marked text");
            }
        }
    }

    #[test]
    fn the_text_stands_in_the_wide_column() {
        for (look, sheet) in LOOKS.iter().zip(SHEETS) {
            // What stands beside the text comes first in the page.
            let text_first = sheet.contains("grid-template-columns: minmax(0, 1fr)");
            assert_eq!(text_first, sheet.contains(".beside { order: 2 }"), "{look}");
        }
    }
}
