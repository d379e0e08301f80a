//! Whether a drawing is harmless, asked of a parser that is none of ours.

use roxmltree::{Document, Node};

const SVG: &str = "http://www.w3.org/2000/svg";

/// What is wrong with a drawing, if anything is.
pub fn fault(bytes: &[u8]) -> Option<String> {
    let text = match std::str::from_utf8(bytes) {
        Ok(text) => text,
        Err(error) => return Some(error.to_string()),
    };
    // Entities and document types are not even parsed.
    let doc = match Document::parse(text) {
        Ok(doc) => doc,
        Err(error) => return Some(format!("{error}: {text}")),
    };
    let fault = doc.root().descendants().find_map(of_node)?;
    Some(format!("{fault}: {text}"))
}

fn of_node(node: Node<'_, '_>) -> Option<String> {
    if node.is_pi() || node.is_comment() {
        return Some("a processing instruction or a comment".to_owned());
    }
    if !node.is_element() {
        return None;
    }
    let name = node.tag_name().name();
    let running = ["script", "foreignobject", "iframe", "handler", "listener", "embed", "object", "discard", "audio", "video"];
    if node.tag_name().namespace() != Some(SVG) || running.contains(&name.to_ascii_lowercase().as_str()) {
        return Some(format!("the element {:?}", node.tag_name()));
    }
    if name == "style" && node.children().any(|child| child.is_element()) {
        return Some("elements in a style".to_owned());
    }
    if name == "style" && loads(node.text().unwrap_or_default()) {
        return Some(format!("the style {:?}", node.text()));
    }
    node.attributes().find_map(|attribute| {
        let (key, value) = (attribute.name(), attribute.value());
        let low = key.to_ascii_lowercase();
        let plain: String = value.chars().filter(|c| *c > ' ').collect::<String>().to_ascii_lowercase();
        let is_bad = match low.as_str() {
            "href" => !(plain.starts_with('#') || is_link(name, &plain) || is_picture(name, &plain)),
            "attributename" => plain.contains("href") || plain.starts_with("on") || plain == "style" || plain.contains(':'),
            "src" | "base" | "srcdoc" | "action" | "formaction" | "data" => true,
            // What readers hear is never run, whatever it looks like.
            "id" | "class" | "aria-label" | "aria-roledescription" => false,
            _ => low.starts_with("on") || loads(value),
        };
        is_bad.then(|| format!("{key}={value:?} of {name}"))
    })
}

fn is_link(name: &str, address: &str) -> bool {
    let scheme = address.split(['/', '?', '#']).next().and_then(|start| start.split_once(':')).map(|(scheme, _)| scheme);
    let running = ["javascript", "vbscript", "livescript", "data", "blob", "feed", "filesystem", "view-source", "jar", "mhtml"];
    name == "a" && scheme.is_none_or(|scheme| !running.contains(&scheme))
}

fn is_picture(name: &str, address: &str) -> bool {
    let kinds = ["png", "jpeg", "jpg", "gif", "webp", "avif", "bmp"];
    let is_raster = |kind: &&str| address.strip_prefix("data:image/").is_some_and(|rest| rest.starts_with(&format!("{kind};")));
    matches!(name, "image" | "feImage") && kinds.iter().any(is_raster)
}

/// Whether style rules load something, read as a browser reads them: comments and strings skipped, escapes resolved.
fn loads(css: &str) -> bool {
    let mut rest = css.chars().peekable();
    let mut word = String::new();
    while let Some(c) = rest.next() {
        match c {
            '/' if rest.peek() == Some(&'*') => {
                rest.next();
                let mut before = ' ';
                for c in rest.by_ref() {
                    if before == '*' && c == '/' {
                        break;
                    }
                    before = c;
                }
                word.clear();
            }
            '"' | '\'' => {
                while let Some(inner) = rest.next() {
                    match inner {
                        '\\' => drop(rest.next()),
                        inner if inner == c || inner == '\n' => break,
                        _ => {}
                    }
                }
                word.clear();
            }
            '\\' => {
                let mut digits = String::new();
                while let Some(digit) = rest.next_if(|c| c.is_ascii_hexdigit() && digits.len() < 6) {
                    digits.push(digit);
                }
                if digits.is_empty() {
                    word.extend(rest.next());
                } else {
                    rest.next_if(|c| c.is_ascii_whitespace());
                    word.extend(u32::from_str_radix(&digits, 16).ok().and_then(char::from_u32));
                }
            }
            '(' => {
                let name = std::mem::take(&mut word).to_ascii_lowercase();
                let inner: String = rest.clone().skip_while(|c| c.is_whitespace() || matches!(c, '"' | '\'')).take(64).collect();
                let is_font = ["data:font/", "data:application/"].iter().any(|kind| inner.starts_with(kind));
                if matches!(name.as_str(), "expression" | "image-set" | "src" | "image" | "-webkit-image-set" | "cross-fade") {
                    return true;
                }
                if name == "url" && !inner.starts_with('#') && !is_font {
                    return true;
                }
            }
            '@' => word = "@".to_owned(),
            c if c.is_alphanumeric() || matches!(c, '-' | '_') => word.push(c),
            _ => word.clear(),
        }
        if word.eq_ignore_ascii_case("@import") {
            return true;
        }
    }
    false
}
