//! Raw HTML of sources, written as it is where nothing in it can run.

use crate::formats::html::address::{is_safe_link, is_safe_picture};

/// Elements whose content and attributes mean nothing but text and how it looks. What is not in here may run script, load pages,
/// or change how what follows is read.
#[rustfmt::skip]
const PLAIN: [&str; 83] = [
    "a", "abbr", "acronym", "address", "article", "aside", "audio", "b", "bdi", "bdo", "big", "blockquote", "br", "caption",
    "center", "cite", "code", "col", "colgroup", "data", "dd", "del", "details", "dfn", "dir", "div", "dl", "dt", "em",
    "fieldset", "figcaption", "figure", "font", "footer", "h1", "h2", "h3", "h4", "h5", "h6", "header", "hgroup", "hr", "i",
    "img", "ins", "kbd", "legend", "li", "main", "mark", "menu", "meter", "nav", "ol", "p", "picture", "pre", "progress", "q",
    "rp", "rt", "ruby", "s", "samp", "section", "small", "source", "span", "strike", "strong", "sub", "summary", "sup", "table",
    "tbody", "td", "tfoot", "th", "thead", "tr", "track", "tt",
];
const MORE: [&str; 5] = ["time", "u", "ul", "var", "video"];

/// Whether raw HTML can stand as it is without running anything, whatever stands around it: it is made of whole tags and
/// comments (CommonMark, section 6.6), of elements that are known to be plain, without handlers and addresses that run.
pub(super) fn is_inert(raw: &str) -> bool {
    let mut rest = raw;
    while let Some(at) = memchr::memchr(b'<', rest.as_bytes()) {
        rest = &rest[at..];
        let after = match rest.as_bytes().get(1) {
            Some(b'!') => comment(rest),
            Some(b'/') => closing(rest),
            Some(byte) if byte.is_ascii_alphabetic() => opening(rest),
            Some(b'?') => None,
            _ => Some(&rest[1..]),
        };
        let Some(after) = after else { return false };
        rest = after;
    }
    true
}

/// Behind a comment that every parser ends at the same place (HTML, section 13.1.6).
fn comment(text: &str) -> Option<&str> {
    let text = text.strip_prefix("<!--")?;
    let (inner, rest) = text.split_once("-->")?;
    let is_odd = inner.starts_with('>') || inner.starts_with("->") || inner.contains("<!--") || inner.contains("--!");
    (!is_odd).then_some(rest)
}

fn name(text: &str) -> Option<(&str, &str)> {
    let end = text.find(|c: char| !c.is_ascii_alphanumeric()).unwrap_or(text.len());
    let (name, rest) = text.split_at(end);
    let low = name.to_ascii_lowercase();
    (PLAIN.contains(&low.as_str()) || MORE.contains(&low.as_str())).then_some((name, rest))
}

fn closing(text: &str) -> Option<&str> {
    let (_, rest) = name(&text[2..])?;
    rest.trim_start().strip_prefix('>')
}

fn opening(text: &str) -> Option<&str> {
    let (_, mut rest) = name(&text[1..])?;
    loop {
        let trimmed = rest.trim_start_matches([' ', '\t', '\n', '\r']);
        if let Some(rest) = trimmed.strip_prefix('>').or_else(|| trimmed.strip_prefix("/>")) {
            return Some(rest);
        }
        // White space stands before each attribute.
        (trimmed.len() < rest.len()).then_some(())?;
        rest = attribute(trimmed)?;
    }
}

/// Behind an attribute that can't run anything.
fn attribute(text: &str) -> Option<&str> {
    let end = text.find(|c: char| !(c.is_ascii_alphanumeric() || matches!(c, '_' | ':' | '.' | '-'))).unwrap_or(text.len());
    let (name, rest) = text.split_at(end);
    let low = name.to_ascii_lowercase();
    let is_harmless = !low.is_empty()
        && !low.starts_with("on")
        && !low.contains(':')
        && !matches!(low.as_str(), "srcdoc" | "formaction" | "action" | "ping" | "is" | "slot" | "nonce");
    is_harmless.then_some(())?;
    let Some(rest) = rest.trim_start().strip_prefix('=') else { return Some(rest) };
    let rest = rest.trim_start();
    let (value, rest) = match rest.chars().next()? {
        quote @ ('"' | '\'') => rest[1..].split_once(quote)?,
        _ => {
            let end = rest.find([' ', '\t', '\n', '\r', '>']).unwrap_or(rest.len());
            let (value, rest) = rest.split_at(end);
            (!value.is_empty() && !value.contains(['"', '\'', '=', '<', '`'])).then_some((value, rest))?
        }
    };
    // What references stand for in a scheme is not looked at: no honest address has any there.
    let before = value.split(['/', '?', '#']).next().unwrap_or_default();
    let is_safe = if low == "src" { is_safe_picture(value) } else { is_safe_link(value) };
    (is_safe && !before.contains('&') || !is_address(&low)).then_some(rest)
}

/// Attributes that hold an address, or several.
fn is_address(name: &str) -> bool {
    matches!(
        name,
        "href" | "src" | "srcset" | "poster" | "cite" | "background" | "longdesc" | "data" | "usemap" | "lowsrc" | "dynsrc"
    )
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_what_runs_nothing_stays() {
        for plain in [
            "<b>",
            "</b >",
            "<p class=x id='y' title=\"a > b\">text & more</p>",
            "<!-- a comment -->",
            "a < b",
            "<img src=\"a.png?x&y\" alt=''/>",
            "<a href=https://x.example/?a&b>",
            "<td style='color: red' onlooker=''>".replace("onlooker", "data-x").as_str(),
        ] {
            assert!(is_inert(plain), "{plain}");
        }
        for running in [
            "<script>",
            "<b onclick=a()>",
            "<b\nONCLICK = 'a()'>",
            "<a href=javascript:a()>",
            "<a href='java&#115;cript:a()'>",
            "<a href='&#1;javascript:a()'>",
            "<a href='java\nscript:a()'>",
            "<img src='data:text/html,x'>",
            "<a title=\"",
            "<b/onclick=a()>",
            "<b x=y\"onclick=a()>",
            "<svg>",
            "<math>",
            "<iframe srcdoc=x>",
            "<style>",
            "<textarea>",
            "<plaintext>",
            "<title>",
            "<noscript>",
            "<template>",
            "<form action=javascript:a()>",
            "<meta http-equiv=refresh>",
            "<base href=x>",
            "<x-custom>",
            "<!DOCTYPE x>",
            "<![CDATA[ x ]]>",
            "<?php x ?>",
            "<!--> <script> -->",
            "<!-- <!-- --!> <script> -->",
            "</title>",
        ] {
            assert!(!is_inert(running), "{running}");
        }
    }
}
