//! Where the text of an element ends that holds no elements (HTML Standard, sections 13.2.5.9 to 13.2.5.31).

use super::names::{IN_TAG, class};

/// Where the end tag of `name` begins, or the end of the source. In scripts, comments may hide one.
pub(super) fn end(bytes: &[u8], start: usize, name: &str, is_script: bool) -> usize {
    if is_script {
        return script_end(bytes, start, name);
    }
    memchr::memchr_iter(b'<', &bytes[start..])
        .map(|found| start + found)
        .find(|&at| is_tag(&bytes[at + 1..], b"/", name))
        .unwrap_or(bytes.len())
}

/// Whether `sign` and `name` stand here, and the name ends.
fn is_tag(rest: &[u8], sign: &[u8], name: &str) -> bool {
    let Some(rest) = rest.strip_prefix(sign) else { return false };
    rest.get(..name.len()).is_some_and(|letters| letters.eq_ignore_ascii_case(name.as_bytes()))
        && rest.get(name.len()).is_some_and(|&byte| class(byte) & IN_TAG != 0)
}

/// What a script is within, since `<!--`.
#[derive(Clone, Copy, PartialEq)]
enum Hidden {
    /// Nothing: the script data state.
    No,
    /// A comment, whose closing dashes stand no further in front than this: the escaped states.
    Comment(usize),
    /// A script within a comment: the double escaped states.
    Script(usize),
}

fn script_end(bytes: &[u8], start: usize, name: &str) -> usize {
    let mut hidden = Hidden::No;
    let mut at = start;
    while let Some(found) = memchr::memchr2(b'<', b'>', &bytes[at..]) {
        at += found;
        let rest = &bytes[at + 1..];
        match hidden {
            Hidden::No if bytes[at] == b'<' && rest.starts_with(b"!--") => {
                hidden = Hidden::Comment(at + 2);
                at += 3;
            }
            Hidden::Comment(dashes) | Hidden::Script(dashes) if bytes[at] == b'>' => {
                if at >= dashes + 2 && bytes[at - 2..at] == *b"--" {
                    hidden = Hidden::No;
                }
            }
            Hidden::Comment(dashes) if is_tag(rest, b"", "script") => hidden = Hidden::Script(dashes),
            Hidden::Script(dashes) if is_tag(rest, b"/", "script") => hidden = Hidden::Comment(dashes),
            Hidden::No | Hidden::Comment(_) if bytes[at] == b'<' && is_tag(rest, b"/", name) => return at,
            Hidden::No | Hidden::Comment(_) | Hidden::Script(_) => {}
        }
        at += 1;
    }
    bytes.len()
}
