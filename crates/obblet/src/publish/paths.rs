//! Paths within a folder, as text with slashes, and addresses of one from another.

use memchr::memrchr;
use percent_encoding::{AsciiSet, CONTROLS, percent_decode_str, utf8_percent_encode};

/// What can't stand for itself in an address.
const RESERVED: &AsciiSet = &CONTROLS.add(b' ').add(b'%').add(b'?').add(b'#').add(b'"').add(b'<').add(b'>').add(b'\\').add(b'`');

/// The folder of a path; empty for one at the top.
pub(super) fn folder(path: &str) -> &str {
    memrchr(b'/', path.as_bytes()).map_or("", |at| &path[..at])
}

/// The name of a file.
pub(super) fn name(path: &str) -> &str {
    memrchr(b'/', path.as_bytes()).map_or(path, |at| &path[at + 1..])
}

/// The name of a file without its extension, and the extension.
pub(super) fn stem(path: &str) -> (&str, &str) {
    let name = name(path);
    match memrchr(b'.', name.as_bytes()) {
        Some(at) if at > 0 => (&name[..at], &name[at + 1..]),
        _ => (name, ""),
    }
}

/// Whether a path is one of a file below a folder, and nothing else on any system: no way up, no top, no drive, nothing twice.
pub(super) fn is_plain(path: &str) -> bool {
    let is_name = |name: &str| !name.is_empty() && name != "." && name != "..";
    path.split('/').all(is_name) && !path.contains(['\0', '\\'])
}

/// A name in a folder.
pub(super) fn join(folder: &str, name: &str) -> String {
    if folder.is_empty() { name.to_owned() } else { format!("{folder}/{name}") }
}

/// The path that an address names, seen from a folder; `None` where it leads out of the top.
pub(super) fn follow(folder: &str, address: &str) -> Option<String> {
    let decoded = percent_decode_str(address).decode_utf8().ok()?;
    let mut parts: Vec<&str> = if decoded.starts_with(['/', '\\']) { Vec::new() } else { folder.split('/').collect() };
    for part in decoded.split(['/', '\\']) {
        match part {
            "" | "." => {}
            ".." => {
                parts.retain(|part| !part.is_empty());
                parts.pop()?;
            }
            part => parts.push(part),
        }
    }
    parts.retain(|part| !part.is_empty());
    Some(parts.join("/"))
}

/// The address of `to` on a page at `from`.
pub(super) fn address(from: &str, to: &str) -> String {
    let from: Vec<&str> = folder(from).split('/').filter(|part| !part.is_empty()).collect();
    let to: Vec<&str> = to.split('/').collect();
    let shared = from.iter().zip(&to[..to.len() - 1]).take_while(|(a, b)| a == b).count();
    let mut address = "../".repeat(from.len() - shared);
    for (index, part) in to[shared..].iter().enumerate() {
        if index > 0 {
            address.push('/');
        }
        // What is not ASCII can stand for itself in a page (RFC 3987).
        for rendered in part.split_inclusive(|c: char| !c.is_ascii()) {
            let ascii = rendered.trim_end_matches(|c: char| !c.is_ascii());
            address.extend(utf8_percent_encode(ascii, RESERVED));
            address.push_str(&rendered[ascii.len()..]);
        }
    }
    // A colon in the first part would make a scheme of what stands before it.
    if address.split('/').next().is_some_and(|first| first.contains(':')) { format!("./{address}") } else { address }
}

/// The address of `to` below `base`, as it stands where only ASCII may (RFC 3986).
pub(super) fn full_address(base: &str, to: &str) -> String {
    format!("{base}{}", utf8_percent_encode(&address("", to), CONTROLS))
}

/// The way from a page to the top.
pub(super) fn to_top(path: &str) -> String {
    "../".repeat(path.matches('/').count())
}

/// The order that people put names in: numbers by their value, letters without regard to their case.
pub(super) fn natural(a: &str, b: &str) -> std::cmp::Ordering {
    let (mut left, mut right) = (a.chars().peekable(), b.chars().peekable());
    loop {
        let (one, other) = (left.peek().copied(), right.peek().copied());
        let order = match (one, other) {
            (None, None) => return a.cmp(b),
            (Some(x), Some(y)) if x.is_ascii_digit() && y.is_ascii_digit() => {
                let number = |chars: &mut std::iter::Peekable<std::str::Chars<'_>>| {
                    let mut digits = String::new();
                    while let Some(digit) = chars.next_if(char::is_ascii_digit) {
                        digits.push(digit);
                    }
                    let significant = digits.trim_start_matches('0').len();
                    (significant, digits.trim_start_matches('0').to_owned())
                };
                number(&mut left).cmp(&number(&mut right))
            }
            (Some(x), Some(y)) => {
                left.next();
                right.next();
                x.to_lowercase().cmp(y.to_lowercase())
            }
            (one, other) => one.cmp(&other),
        };
        if order.is_ne() {
            return order;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn addresses_lead_from_page_to_page() {
        for (from, to, expected) in [
            ("a.html", "b.html", "b.html"),
            ("log/a.html", "b.html", "../b.html"),
            ("log/a.html", "log/b.html", "b.html"),
            ("log/2031/a.html", "tides/spring tides #1.html", "../../tides/spring%20tides%20%231.html"),
            ("a.html", "12:30.html", "./12:30.html"),
            ("a/a.html", "潮/汐.html", "../潮/汐.html"),
        ] {
            assert_eq!(address(from, to), expected);
            let back = follow(folder(from), &address(from, to)).unwrap();
            assert_eq!(back, to);
        }
        assert_eq!(follow("a", "../../x"), None);
        assert_eq!(follow("a/b", r"..\c\tides.docx").as_deref(), Some("a/c/tides.docx"));
        assert_eq!(follow("a/b", "/c").as_deref(), Some("c"));
    }

    #[test]
    fn numbers_in_names_count() {
        let mut names = ["b", "a10", "A2", "a", "a02", "10", "9"];
        names.sort_by(|a, b| natural(a, b));
        assert_eq!(names, ["9", "10", "a", "A2", "a02", "a10", "b"]);
    }
}
