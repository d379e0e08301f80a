//! Names by pattern.

/// Whether a name fits a pattern, in which `*` stands for any characters, also none.
///
/// ```
/// use obblet::refine::rules::pattern::fits;
///
/// assert!(fits("note-*", "note-red") && fits("*", "") && !fits("note-*", "a note-red"));
/// ```
#[must_use]
pub fn fits(pattern: &str, name: &str) -> bool {
    let mut pieces = pattern.split('*');
    let Some(mut rest) = name.strip_prefix(pieces.next().unwrap_or_default()) else { return false };
    let mut last = None;
    for piece in pieces {
        if let Some(before) = last.replace(piece) {
            let before: &str = before;
            match rest.find(before) {
                Some(place) => rest = &rest[place + before.len()..],
                None => return false,
            }
        }
    }
    last.map_or(rest.is_empty(), |last| rest.ends_with(last))
}
