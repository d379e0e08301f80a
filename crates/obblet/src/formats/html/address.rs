//! Which addresses are safe to follow, and how they are written.

/// Schemes whose addresses run script or show a page of the author's making, by the names that browsers knew them.
const RUNNING: [&str; 15] = [
    "javascript",
    "vbscript",
    "livescript",
    "mocha",
    "data",
    "blob",
    "filesystem",
    "jar",
    "view-source",
    "mhtml",
    "ms-its",
    "mk",
    "res",
    "wyciwyg",
    // It may stand before any other.
    "feed",
];

/// The scheme of an address as a browser finds it: white space and control characters do not count.
fn scheme(address: &str) -> Option<String> {
    let mut scheme = String::new();
    for c in address.chars().filter(|c| *c > ' ' && !c.is_control() && !is_invisible(*c)) {
        match c {
            ':' => return Some(scheme),
            'a'..='z' | '0'..='9' | '+' | '-' | '.' => scheme.push(c),
            'A'..='Z' => scheme.push(c.to_ascii_lowercase()),
            _ => return None,
        }
        if scheme.len() > 32 {
            return None;
        }
    }
    None
}

const fn is_invisible(c: char) -> bool {
    matches!(c, '\u{AD}' | '\u{200B}'..='\u{200F}' | '\u{2028}'..='\u{202E}' | '\u{2060}'..='\u{206F}' | '\u{FEFF}')
}

/// Whether following a link can't run script.
///
/// ```
/// use obblet::formats::html::is_safe_link;
///
/// assert!(is_safe_link("tides.html#spring"));
/// assert!(!is_safe_link("java\nscript:alert(1)"));
/// ```
#[must_use]
pub fn is_safe_link(address: &str) -> bool {
    // Nearly all addresses are on the web or on the same site, and need no closer look.
    if address.starts_with("http") && (address[4..].starts_with("://") || address[4..].starts_with("s://")) {
        return true;
    }
    memchr::memchr(b':', address.as_bytes()).is_none()
        || address.starts_with("feed://")
        || scheme(address).is_none_or(|scheme| !RUNNING.contains(&&*scheme))
}

/// Whether showing a picture can't run script: a safe link, or a raster picture in the address itself.
#[must_use]
pub fn is_safe_picture(address: &str) -> bool {
    is_safe_link(address) || {
        let start: String = address.chars().filter(|c| *c > ' ').take(24).collect::<String>().to_ascii_lowercase();
        ["png", "gif", "jpeg", "jpg", "webp", "avif", "bmp"].iter().any(|kind| {
            start
                .strip_prefix("data:image/")
                .and_then(|rest| rest.strip_prefix(kind))
                .is_some_and(|rest| rest.starts_with([';', ',']))
        })
    }
}

/// Bytes that stand in an address as they are: all that RFC 3986 allows, but for brackets, which only hosts may have.
const fn is_plain(byte: u8) -> bool {
    byte.is_ascii_alphanumeric()
        || matches!(
            byte,
            b'-' | b'_'
                | b'.'
                | b'+'
                | b'!'
                | b'*'
                | b'\''
                | b'('
                | b')'
                | b','
                | b'#'
                | b'@'
                | b'?'
                | b'='
                | b';'
                | b':'
                | b'/'
                | b'$'
                | b'~'
        )
}

static PLAIN: [bool; 256] = {
    let mut table = [false; 256];
    let mut byte = 0;
    while byte < 256 {
        table[byte] = is_plain(byte as u8);
        byte += 1;
    }
    table
};

/// Writes an address for an attribute in double quotes: escaped for HTML, and other characters percent-encoded.
pub(super) fn write(out: &mut String, address: &str) {
    let bytes = address.as_bytes();
    // A picture in its own address is long, and in base 64 nothing has to be escaped.
    if address.starts_with("data:image/")
        && let Some(comma) = memchr::memchr(b',', &bytes[..bytes.len().min(64)])
        && bytes[5..comma].iter().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'/' | b';' | b'+' | b'-'))
        && bytes[comma + 1..].chunks(64).all(|chunk| {
            // Without a way out in between, so that many are looked at together.
            chunk.iter().fold(true, |plain, byte| plain & (byte.is_ascii_alphanumeric() | matches!(byte, b'+' | b'/' | b'=')))
        })
    {
        return out.push_str(address);
    }
    write_from(out, address, false);
}

/// Writes what stands behind the number sign of an address.
pub(super) fn write_fragment(out: &mut String, fragment: &str) {
    write_from(out, fragment, true);
}

fn write_from(out: &mut String, address: &str, mut fragment: bool) {
    const HEX: &[u8; 16] = b"0123456789ABCDEF";
    let bytes = address.as_bytes();
    let (mut start, mut at) = (0, 0);
    let mut host_end = None;
    while at < bytes.len() {
        let byte = bytes[at];
        // A second number sign can't stand in a fragment.
        if PLAIN[byte as usize] && !(byte == b'#' && std::mem::replace(&mut fragment, true)) {
            at += 1;
            continue;
        }
        let escaped = byte == b'%'
            && bytes.get(at + 1).is_some_and(u8::is_ascii_hexdigit)
            && bytes.get(at + 2).is_some_and(u8::is_ascii_hexdigit);
        let in_host = matches!(byte, b'[' | b']') && at < *host_end.get_or_insert_with(|| host_brackets(bytes));
        if escaped || in_host {
            at += 1;
            continue;
        }
        out.push_str(&address[start..at]);
        if byte == b'&' {
            out.push_str("&amp;");
        } else {
            out.push('%');
            out.push(HEX[(byte >> 4) as usize] as char);
            out.push(HEX[(byte & 15) as usize] as char);
        }
        at += 1;
        start = at;
        while start < bytes.len() && !address.is_char_boundary(start) {
            out.push('%');
            out.push(HEX[(bytes[start] >> 4) as usize] as char);
            out.push(HEX[(bytes[start] & 15) as usize] as char);
            start += 1;
        }
        at = start;
    }
    out.push_str(&address[start..]);
}

/// The end of a host that is a number in brackets.
fn host_brackets(bytes: &[u8]) -> usize {
    match memchr::memmem::find(bytes, b"://[") {
        Some(at) if at < 16 => memchr::memchr(b']', bytes).map_or(0, |end| end + 1),
        _ => 0,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn case(address: &str, written: &str) {
        let mut out = String::new();
        write(&mut out, address);
        assert_eq!(out, written);
    }

    #[test]
    fn addresses_are_written_as_the_standard_wants_them() {
        case("a b?c=ä&d", "a%20b?c=%C3%A4&amp;d");
        case("100%", "100%25");
        case("%41%zz", "%41%25zz");
        case("http://[::1]:80/[x]", "http://[::1]:80/%5Bx%5D");
        case("a#b#c", "a#b%23c");
        case("\"><script>", "%22%3E%3Cscript%3E");
    }

    #[test]
    fn addresses_that_run_are_known_in_every_disguise() {
        for address in [
            "javascript:alert(1)",
            "JaVaScRiPt:x",
            " javascript:x",
            "java\tscript:x",
            "java\nscript:x",
            "\u{1}javascript:x",
            "javascript\u{200B}:x",
            "vbscript:x",
            "data:text/html,x",
            "data:image/svg+xml,x",
            "blob:x",
            "ja\u{AD}vascript:x",
        ] {
            assert!(!is_safe_link(address), "{address:?}");
            assert!(!is_safe_picture(address), "{address:?}");
        }
        for address in ["tides.html", "#javascript:", "https://a.example/javascript:", "mailto:a@b.example", "x/y:z", "made-up:x"]
        {
            assert!(is_safe_link(address), "{address:?}");
        }
        assert!(is_safe_picture("data:image/png;base64,AAAA"));
    }
}
