//! What a line can begin with (CommonMark, sections 4 and 5). Plain functions over the bytes of a line, without its
//! indentation and without its newline.

fn trim_end(line: &[u8]) -> &[u8] {
    let end = line.iter().rposition(|byte| !matches!(byte, b' ' | b'\t')).map_or(0, |at| at + 1);
    &line[..end]
}

/// `None` for `***`, `- - -` and their like, else where in the line it shows that this is no thematic break.
pub(super) fn thematic_break_fails(line: &[u8]) -> Option<usize> {
    let mark = line[0];
    let mut count = 0;
    for (at, &byte) in line.iter().enumerate() {
        match byte {
            b' ' | b'\t' => {}
            _ if byte == mark => count += 1,
            _ => return Some(at.max(1)),
        }
    }
    (count < 3).then_some(line.len())
}

/// The level of a line that underlines a heading.
pub(super) fn setext_level(line: &[u8]) -> Option<u8> {
    let line = trim_end(line);
    let mark = *line.first()?;
    let level = match mark {
        b'=' => 1,
        b'-' => 2,
        _ => return None,
    };
    line.iter().all(|&byte| byte == mark).then_some(level)
}

/// Level and content (start and end within the line) of a heading that begins with `#`.
pub(super) fn atx_heading(line: &[u8]) -> Option<(u8, usize, usize)> {
    let level = line.iter().take(7).take_while(|&&byte| byte == b'#').count();
    if level > 6 || !matches!(line.get(level), None | Some(b' ' | b'\t')) {
        return None;
    }
    let white = |byte: &&u8| matches!(byte, b' ' | b'\t');
    let start = level + line[level..].iter().take_while(white).count();
    let mut end = trim_end(line).len().max(start);
    let closing = line[start..end].iter().rev().take_while(|&&byte| byte == b'#').count();
    let before = end - closing;
    if before == start {
        end = start;
    } else if closing > 0 && matches!(line[before - 1], b' ' | b'\t') {
        end = start + trim_end(&line[start..before]).len();
    }
    Some((level as u8, start, end))
}

/// The marker of a list item.
#[derive(Clone, Copy, Debug)]
pub(super) struct ListMarker {
    /// The bullet, or what stands behind the number.
    pub(super) mark: u8,
    pub(super) ordered: bool,
    pub(super) start: u32,
    pub(super) width: usize,
}

/// A list marker, without regard to what follows it other than that it is white space or nothing.
pub(super) fn list_marker(line: &[u8]) -> Option<ListMarker> {
    let marker = match line[0] {
        mark @ (b'-' | b'+' | b'*') => ListMarker { mark, ordered: false, start: 0, width: 1 },
        b'0'..=b'9' => {
            let digits = line.iter().take(10).take_while(|byte| byte.is_ascii_digit()).count();
            let mark = *line.get(digits).filter(|mark| matches!(mark, b'.' | b')'))?;
            if digits > 9 {
                return None;
            }
            let start = line[..digits].iter().fold(0, |number, digit| number * 10 + u32::from(digit - b'0'));
            ListMarker { mark, ordered: true, start, width: digits + 1 }
        }
        _ => return None,
    };
    matches!(line.get(marker.width), None | Some(b' ' | b'\t')).then_some(marker)
}

/// Mark, length and info string of a line that opens a fenced code block.
pub(super) fn fence(line: &[u8]) -> Option<(u8, usize, &[u8])> {
    let mark = line[0];
    let length = line.iter().take_while(|&&byte| byte == mark).count();
    let info = &line[length..];
    if length < 3 || (mark == b'`' && memchr::memchr(b'`', info).is_some()) {
        return None;
    }
    Some((mark, length, info.trim_ascii()))
}

/// Whether a line closes a fenced code block.
pub(super) fn closes_fence(line: &[u8], mark: u8, length: usize) -> bool {
    let run = line.iter().take_while(|&&byte| byte == mark).count();
    run >= length && line[run..].iter().all(|byte| matches!(byte, b' ' | b'\t'))
}

/// What ends an HTML block (CommonMark, section 4.6).
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum HtmlEnd {
    /// The end tag of an element whose content is no markup.
    Verbatim,
    /// `-->`
    Comment,
    /// `?>`
    Instruction,
    /// `>`
    Declaration,
    /// `]]>`
    CharacterData,
    /// A blank line.
    Blank,
}

impl HtmlEnd {
    /// Whether the block ends with this line.
    pub(super) fn is_in(self, line: &[u8]) -> bool {
        match self {
            Self::Verbatim => VERBATIM.iter().any(|name| {
                memchr::memmem::find_iter(line, b"</").any(|at| {
                    let rest = &line[at + 2..];
                    rest.len() > name.len()
                        && rest[..name.len()].eq_ignore_ascii_case(name.as_bytes())
                        && rest[name.len()] == b'>'
                })
            }),
            Self::Comment => memchr::memmem::find(line, b"-->").is_some(),
            Self::Instruction => memchr::memmem::find(line, b"?>").is_some(),
            Self::Declaration => memchr::memchr(b'>', line).is_some(),
            Self::CharacterData => memchr::memmem::find(line, b"]]>").is_some(),
            Self::Blank => false,
        }
    }
}

const VERBATIM: [&str; 4] = ["pre", "script", "style", "textarea"];

/// Elements that begin an HTML block of the sixth kind. Source: CommonMark 0.31.2, section 4.6.
const BLOCK_ELEMENTS: [&str; 62] = [
    "address",
    "article",
    "aside",
    "base",
    "basefont",
    "blockquote",
    "body",
    "caption",
    "center",
    "col",
    "colgroup",
    "dd",
    "details",
    "dialog",
    "dir",
    "div",
    "dl",
    "dt",
    "fieldset",
    "figcaption",
    "figure",
    "footer",
    "form",
    "frame",
    "frameset",
    "h1",
    "h2",
    "h3",
    "h4",
    "h5",
    "h6",
    "head",
    "header",
    "hr",
    "html",
    "iframe",
    "legend",
    "li",
    "link",
    "main",
    "menu",
    "menuitem",
    "nav",
    "noframes",
    "ol",
    "optgroup",
    "option",
    "p",
    "param",
    "search",
    "section",
    "summary",
    "table",
    "tbody",
    "td",
    "tfoot",
    "th",
    "thead",
    "title",
    "tr",
    "track",
    "ul",
];

/// What ends the HTML block that a line begins, if it begins one. `paragraph` says that the line would interrupt one.
pub(super) fn html_block(line: &[u8], paragraph: bool) -> Option<HtmlEnd> {
    match line.get(1)? {
        b'?' => return Some(HtmlEnd::Instruction),
        b'!' => {
            return match line.get(2)? {
                b'-' => line.starts_with(b"<!--").then_some(HtmlEnd::Comment),
                b'[' => line.starts_with(b"<![CDATA[").then_some(HtmlEnd::CharacterData),
                letter => letter.is_ascii_alphabetic().then_some(HtmlEnd::Declaration),
            };
        }
        _ => {}
    }
    let closing = line[1] == b'/';
    let name = &line[1 + usize::from(closing)..];
    let length = name.iter().take_while(|byte| byte.is_ascii_alphanumeric() || **byte == b'-').count();
    let after = name.get(length).copied().unwrap_or(b'\n');
    let name = &name[..length];
    if length == 0 {
        return None;
    }
    let is = |known: &&str| known.len() == length && name.eq_ignore_ascii_case(known.as_bytes());
    let white = matches!(after, b' ' | b'\t' | b'\n');
    if !closing && (white || after == b'>') && VERBATIM.iter().any(is) {
        return Some(HtmlEnd::Verbatim);
    }
    if (white || after == b'>' || (after == b'/' && line.get(length + 2 + usize::from(closing)) == Some(&b'>')))
        && BLOCK_ELEMENTS.iter().any(is)
    {
        return Some(HtmlEnd::Blank);
    }
    if paragraph || (!closing && VERBATIM.iter().any(is)) {
        return None;
    }
    let tag = super::inlines::html::tag(line)?;
    line[tag..].iter().all(|byte| matches!(byte, b' ' | b'\t')).then_some(HtmlEnd::Blank)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn headings() {
        let heading = |line: &'static str| atx_heading(line.as_bytes()).map(|(level, start, end)| (level, &line[start..end]));
        assert_eq!(heading("# a"), Some((1, "a")));
        assert_eq!(heading("######\ta b  "), Some((6, "a b")));
        assert_eq!(heading("## a ## b ###"), Some((2, "a ## b")));
        assert_eq!(heading("# a#"), Some((1, "a#")));
        assert_eq!(heading("### ###"), Some((3, "")));
        assert_eq!(heading("#"), Some((1, "")));
        assert_eq!(heading("#a"), None);
        assert_eq!(heading("####### a"), None);
        assert_eq!(
            (setext_level(b"==="), setext_level(b"- "), setext_level(b"=-"), setext_level(b"")),
            (Some(1), Some(2), None, None)
        );
    }

    #[test]
    fn thematic_breaks() {
        for line in ["***", "- - -", "___ _", "*\t*\t*  "] {
            assert_eq!(thematic_break_fails(line.as_bytes()), None, "{line}");
        }
        for (line, at) in [("**", 2), ("--a", 2), ("-*-", 1), ("- - x", 4)] {
            assert_eq!(thematic_break_fails(line.as_bytes()), Some(at), "{line}");
        }
    }

    #[test]
    fn list_markers() {
        let marker = |line: &str| list_marker(line.as_bytes()).map(|marker| (marker.mark, marker.start, marker.width));
        assert_eq!(marker("- a"), Some((b'-', 0, 1)));
        assert_eq!(marker("+"), Some((b'+', 0, 1)));
        assert_eq!(marker("123456789) a"), Some((b')', 123_456_789, 10)));
        assert_eq!(marker("0.\ta"), Some((b'.', 0, 2)));
        for line in ["-a", "1234567890. a", "1.a", "1", "a. b", "*a*"] {
            assert_eq!(marker(line), None, "{line}");
        }
    }

    #[test]
    fn fences() {
        assert_eq!(fence(b"```rust,ignore "), Some((b'`', 3, &b"rust,ignore"[..])));
        assert_eq!(fence(b"~~~~ a`b"), Some((b'~', 4, &b"a`b"[..])));
        assert_eq!(fence(b"``` a`b"), None);
        assert_eq!(fence(b"``"), None);
        assert!(closes_fence(b"````  ", b'`', 3) && !closes_fence(b"``", b'`', 3) && !closes_fence(b"``` a", b'`', 3));
    }

    #[test]
    fn html_blocks() {
        let case = |line: &str, paragraph: bool| html_block(line.as_bytes(), paragraph);
        assert_eq!(case("<script src=x>", true), Some(HtmlEnd::Verbatim));
        assert_eq!(case("<PRE>", true), Some(HtmlEnd::Verbatim));
        assert_eq!(case("<!-- a", true), Some(HtmlEnd::Comment));
        assert_eq!(case("<?php", true), Some(HtmlEnd::Instruction));
        assert_eq!(case("<!DOCTYPE html>", true), Some(HtmlEnd::Declaration));
        assert_eq!(case("<![CDATA[", true), Some(HtmlEnd::CharacterData));
        assert_eq!(case("</div", true), Some(HtmlEnd::Blank));
        assert_eq!(case("<hr/>", true), Some(HtmlEnd::Blank));
        assert_eq!(case("<b class='x'>  ", false), Some(HtmlEnd::Blank));
        assert_eq!(case("<b class='x'>", true), None);
        for line in ["<b> a", "<b", "< div>", "<divx y", "<a:b", "<>", "<!"] {
            assert_eq!(case(line, false), None, "{line}");
        }
        assert!(HtmlEnd::Verbatim.is_in(b"a </Style> b") && !HtmlEnd::Verbatim.is_in(b"</styles>"));
    }
}
