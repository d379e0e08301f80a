//! Whether markup keeps the rules of the HTML standard that a writer could break, and is safe. Written from the standard,
//! without a look at the writer.

use super::dom::{Dom, fragment};
use std::collections::HashSet;

const PHRASING: &[&str] = &[
    "", "a", "abbr", "b", "bdi", "bdo", "br", "cite", "code", "data", "del", "dfn", "em", "i", "img", "input", "ins", "kbd",
    "mark", "math", "q", "rp", "rt", "ruby", "s", "samp", "small", "span", "strong", "sub", "sup", "time", "u", "var",
];
const FLOW: &[&str] = &[
    "address",
    "article",
    "aside",
    "blockquote",
    "details",
    "div",
    "dl",
    "figure",
    "footer",
    "h1",
    "h2",
    "h3",
    "h4",
    "h5",
    "h6",
    "header",
    "hr",
    "nav",
    "ol",
    "p",
    "pre",
    "section",
    "table",
    "ul",
];
/// Elements of MathML; what stands in them is checked for safety only.
const FORMULA: &[&str] = &[
    "math",
    "mrow",
    "mi",
    "mn",
    "mo",
    "ms",
    "mtext",
    "mspace",
    "mfrac",
    "msqrt",
    "mroot",
    "mstyle",
    "merror",
    "mpadded",
    "mphantom",
    "msub",
    "msup",
    "msubsup",
    "munder",
    "mover",
    "munderover",
    "mtable",
    "mtr",
    "mtd",
    "mfenced",
    "menclose",
    "semantics",
    "annotation",
    "mmultiscripts",
    "mprescripts",
    "none",
];
const VOID: &[&str] = &["br", "hr", "img", "input"];

fn is_heading(name: &str) -> bool {
    matches!(name, "h1" | "h2" | "h3" | "h4" | "h5" | "h6")
}

fn may_stand_in(child: &str, parent: &str) -> bool {
    let phrasing = PHRASING.contains(&child);
    if FORMULA.contains(&parent) {
        return child.is_empty() || FORMULA.contains(&child);
    }
    match parent {
        "html" | "body" | "#document" => phrasing || FLOW.contains(&child),
        "ul" | "ol" => child == "li",
        "dl" => matches!(child, "dt" | "dd"),
        "table" => matches!(child, "caption" | "thead" | "tbody" | "tfoot" | "tr"),
        "thead" | "tbody" | "tfoot" => child == "tr",
        "tr" => matches!(child, "td" | "th"),
        "th" => (phrasing || FLOW.contains(&child)) && !is_heading(child),
        "caption" => phrasing || FLOW.contains(&child),
        "figure" => phrasing || FLOW.contains(&child) || child == "figcaption",
        "summary" => phrasing || is_heading(child),
        "details" => phrasing || FLOW.contains(&child) || child == "summary",
        "li" | "dd" | "td" | "blockquote" | "div" | "section" | "article" | "aside" | "nav" | "header" | "footer"
        | "figcaption" | "address" => phrasing || FLOW.contains(&child),
        _ => phrasing,
    }
}

/// What is wrong with a fragment.
pub fn faults(html: &str) -> Vec<String> {
    let dom = fragment(html);
    let mut faults: Vec<String> = dom.errors.iter().map(|error| format!("parse error: {error}")).collect();
    let mut ids = HashSet::new();
    let mut level = 0;
    for node in dom.order() {
        let name = dom.name(node);
        let Some(parent) = dom.nodes[node].parent else { continue };
        let parent = dom.name(parent);
        let white = name.is_empty() && dom.nodes[node].text.trim().is_empty();
        if name == "html" {
            continue;
        }
        if !white && !may_stand_in(name, parent) {
            faults.push(format!("<{name}> {:?} in <{parent}>", dom.nodes[node].text));
        }
        if VOID.contains(&name) && !dom.nodes[node].children.is_empty() {
            faults.push(format!("<{name}> has content"));
        }
        let text = &dom.nodes[node].text;
        if text.chars().any(|c| (c.is_control() && !matches!(c, '\n' | '\t')) || c as u32 & 0xFFFE == 0xFFFE) {
            faults.push(format!("characters that are not allowed in {text:?}"));
        }
        // Checkers count those without words, too.
        if is_heading(name) {
            let next: u32 = name[1..].parse().unwrap();
            if level > 0 && next > level + 1 {
                faults.push(format!("h{next} after h{level}"));
            }
            level = next;
        }
        attribute_faults(&dom, node, &mut ids, &mut faults);
        structure_faults(&dom, node, &mut faults);
    }
    faults
}

fn attribute_faults(dom: &Dom, node: usize, ids: &mut HashSet<String>, faults: &mut Vec<String>) {
    let name = dom.name(node);
    for (key, value) in &dom.nodes[node].attributes {
        let known = matches!(
            key.as_str(),
            "id" | "class"
                | "lang"
                | "dir"
                | "title"
                | "role"
                | "aria-label"
                | "href"
                | "rel"
                | "hreflang"
                | "src"
                | "alt"
                | "width"
                | "height"
                | "start"
                | "type"
                | "reversed"
                | "value"
                | "colspan"
                | "rowspan"
                | "scope"
                | "style"
                | "open"
                | "cite"
                | "datetime"
                | "disabled"
                | "checked"
                | "tabindex"
        );
        // MathML Core, sections 2.1 and 3, but for what loads or runs something.
        let of_formulas = FORMULA.contains(&name)
            && matches!(
                key.as_str(),
                "display"
                    | "mathvariant"
                    | "mathcolor"
                    | "mathbackground"
                    | "stretchy"
                    | "symmetric"
                    | "fence"
                    | "form"
                    | "lspace"
                    | "rspace"
                    | "minsize"
                    | "maxsize"
                    | "movablelimits"
                    | "accent"
                    | "accentunder"
                    | "displaystyle"
                    | "scriptlevel"
                    | "linethickness"
                    | "depth"
            );
        if key == "encoding" && name == "annotation" {
            if value != "application/x-tex" {
                faults.push(format!("encoding {value:?}"));
            }
            continue;
        }
        if !known && !of_formulas {
            faults.push(format!("attribute {key} of <{name}>"));
        }
        if key == "id" && (value.is_empty() || value.contains(char::is_whitespace) || !ids.insert(value.clone())) {
            faults.push(format!("id {value:?}"));
        }
        if key == "style" && !(matches!(name, "td" | "th" | "mtd") && value.starts_with("text-align: ")) {
            faults.push(format!("style {value:?}"));
        }
        if matches!(key.as_str(), "href" | "src" | "cite") {
            address_faults(key, value, faults);
        }
    }
    if name == "img" && (dom.attribute(node, "src").is_none_or(str::is_empty) || dom.attribute(node, "alt").is_none()) {
        faults.push("img without src or alt".to_owned());
    }
}

/// Addresses that run, that are not encoded, or that no browser takes (URL standard, section 4.4).
fn address_faults(key: &str, value: &str, faults: &mut Vec<String>) {
    let plain: String = value.chars().filter(|c| !c.is_whitespace() && !c.is_control()).collect::<String>().to_lowercase();
    match value.strip_prefix("data:image/svg+xml;base64,") {
        // What the writer promises of drawings that it embeds: nothing in them runs or loads.
        Some(packed) if key == "src" => match decoded(packed).and_then(|bytes| String::from_utf8(bytes).ok()) {
            Some(drawing) => faults.extend(drawing_faults(&drawing)),
            None => faults.push(format!("{key} {value:?} is no drawing")),
        },
        _ => {
            let is_picture = key == "src" && plain.starts_with("data:image/") && !plain.starts_with("data:image/svg");
            if plain.starts_with("javascript:") || plain.starts_with("vbscript:") || (plain.starts_with("data:") && !is_picture) {
                faults.push(format!("{key} {value:?}"));
            }
        }
    }
    if value.contains([' ', '"', '<', '>', '\\', '`']) {
        faults.push(format!("{key} {value:?} is not encoded"));
    }
    let scheme = value.split_once(':').map_or("", |(scheme, _)| scheme).to_ascii_lowercase();
    let whole = if value.starts_with("//") { format!("https:{value}") } else { value.to_owned() };
    if value.starts_with("//") || matches!(scheme.as_str(), "http" | "https" | "ftp" | "ws" | "wss") {
        let is_valid = url::Url::parse(&whole).is_ok_and(|url| url.username().is_empty() && url.password().is_none());
        let slashes = whole.split_once(':').is_some_and(|(_, rest)| rest.starts_with("//") && !rest.starts_with("///"));
        if !is_valid || !slashes {
            faults.push(format!("{key} {value:?} is no address that a browser takes"));
        }
    }
}

/// Bytes from base 64 (RFC 4648, section 4).
fn decoded(text: &str) -> Option<Vec<u8>> {
    let value = |letter: u8| match letter {
        b'A'..=b'Z' => Some(letter - b'A'),
        b'a'..=b'z' => Some(letter - b'a' + 26),
        b'0'..=b'9' => Some(letter - b'0' + 52),
        b'+' => Some(62),
        b'/' => Some(63),
        _ => None,
    };
    let (mut bytes, mut bits, mut count) = (Vec::new(), 0_u32, 0);
    for letter in text.trim_end_matches('=').bytes() {
        bits = bits << 6 | u32::from(value(letter)?);
        count += 6;
        if count >= 8 {
            count -= 8;
            bytes.push((bits >> count) as u8);
            bits &= (1 << count) - 1;
        }
    }
    Some(bytes)
}

/// What runs or loads in a drawing.
fn drawing_faults(drawing: &str) -> Vec<String> {
    let dom = fragment(drawing);
    let mut faults = Vec::new();
    for node in dom.order() {
        let name = dom.name(node).to_lowercase();
        if matches!(name.as_str(), "script" | "foreignobject" | "iframe" | "object" | "embed" | "handler" | "listener") {
            faults.push(format!("<{name}> in a drawing"));
        }
        for (key, value) in &dom.nodes[node].attributes {
            let plain: String =
                value.chars().filter(|c| !c.is_whitespace() && !c.is_control()).collect::<String>().to_lowercase();
            let leads = key.ends_with("href") || key == "src";
            let runs =
                plain.contains("javascript:") || (leads && plain.starts_with("data:") && !plain.starts_with("data:image/"));
            if key.starts_with("on") || runs {
                faults.push(format!("{key}={value:?} in a drawing"));
            }
        }
    }
    faults
}

fn structure_faults(dom: &Dom, node: usize, faults: &mut Vec<String>) {
    let name = dom.name(node);
    let children: Vec<usize> = dom.nodes[node].children.iter().copied().filter(|&child| !dom.name(child).is_empty()).collect();
    let names: Vec<&str> = children.iter().map(|&child| dom.name(child)).collect();
    let within = |wanted: &str| {
        let mut at = dom.nodes[node].parent;
        while let Some(above) = at {
            if dom.name(above) == wanted {
                return true;
            }
            at = dom.nodes[above].parent;
        }
        false
    };
    match name {
        "a" | "dfn" if within(name) => faults.push(format!("<{name}> in <{name}>")),
        "details" if names.first() != Some(&"summary") || names.iter().filter(|name| **name == "summary").count() != 1 => {
            faults.push("details without one summary first".to_owned());
        }
        "dl" if names.first() != Some(&"dt") || names.last() != Some(&"dd") => faults.push(format!("dl with {names:?}")),
        "rt" | "rp" if !within("ruby") => faults.push(format!("<{name}> outside of ruby")),
        "figure" if names.iter().filter(|name| **name == "figcaption").count() > 1 => {
            faults.push("figure with two captions".to_owned())
        }
        "table" => table_faults(dom, node, &names, faults),
        _ => {}
    }
}

/// The algorithm "forming a table", as far as it finds errors.
fn table_faults(dom: &Dom, table: usize, names: &[&str], faults: &mut Vec<String>) {
    if names.iter().skip(1).any(|name| *name == "caption") {
        faults.push("caption that is not first".to_owned());
    }
    let parts: Vec<&str> = names.iter().copied().filter(|name| *name != "caption").collect();
    if parts.iter().skip(1).any(|name| *name == "thead") || parts.iter().rev().skip(1).any(|name| *name == "tfoot") {
        faults.push(format!("groups of rows in disorder: {names:?}"));
    }
    let rows_of = |node: usize| dom.nodes[node].children.iter().copied().filter(|&row| dom.name(row) == "tr").collect::<Vec<_>>();
    let mut groups: Vec<Vec<usize>> = vec![rows_of(table)];
    groups.extend(
        dom.nodes[table]
            .children
            .iter()
            .filter(|&&child| matches!(dom.name(child), "thead" | "tbody" | "tfoot"))
            .map(|&child| rows_of(child)),
    );
    let (mut widths, mut begins) = (HashSet::new(), HashSet::new());
    for rows in groups {
        let mut taken = HashSet::new();
        for (y, &row) in rows.iter().enumerate() {
            let (mut x, mut cells) = (0, 0);
            for &cell in dom.nodes[row].children.iter().filter(|&&cell| matches!(dom.name(cell), "td" | "th")) {
                let span = |key| dom.attribute(cell, key).map_or(1, |value| value.parse::<usize>().unwrap());
                while taken.contains(&(x, y)) {
                    x += 1;
                }
                begins.insert(x);
                cells += 1;
                if y + span("rowspan") > rows.len() {
                    faults.push("rowspan beyond its group".to_owned());
                }
                for dx in 0..span("colspan") {
                    for dy in 0..span("rowspan") {
                        if !taken.insert((x + dx, y + dy)) {
                            faults.push("cells over each other".to_owned());
                        }
                    }
                }
                x += span("colspan");
            }
            if cells == 0 {
                faults.push("row without cells".to_owned());
            }
            widths.insert((0..).take_while(|x| *x < 2000).filter(|x| taken.contains(&(*x, y))).max().map_or(0, |x| x + 1));
        }
    }
    if widths.len() > 1 {
        faults.push(format!("rows of several widths: {widths:?}"));
    }
    if let Some(missing) = (0..widths.into_iter().max().unwrap_or(0)).find(|x| !begins.contains(x)) {
        faults.push(format!("no cell begins in column {missing}"));
    }
}
