//! The built-in designs.

use crate::error::Error;

/// The names of the looks.
pub const LOOKS: [&str; 3] = ["chart", "folio", "beacon"];

const BASE: &str = include_str!("looks/base.css");
const SHEETS: [&str; 3] = [include_str!("looks/chart.css"), include_str!("looks/folio.css"), include_str!("looks/beacon.css")];

/// The style rules of a look; `None` for the look `none`.
pub(super) fn stylesheet(name: &str) -> Result<Option<String>, Error> {
    if name == "none" || name.is_empty() {
        return Ok(None);
    }
    match LOOKS.iter().position(|look| *look == name) {
        Some(look) => Ok(Some(format!("{BASE}{}", SHEETS[look]))),
        None => Err(Error::UnknownLook { name: name.to_owned(), known: LOOKS.join(", ") }),
    }
}
