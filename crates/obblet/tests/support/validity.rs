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
        if is_heading(name) && !subtree_text(&dom, node).trim().is_empty() {
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

fn subtree_text(dom: &Dom, node: usize) -> String {
    let (mut text, mut stack) = (String::new(), vec![node]);
    while let Some(node) = stack.pop() {
        text.push_str(&dom.nodes[node].text);
        text.push_str(dom.attribute(node, "alt").unwrap_or_default());
        stack.extend(dom.nodes[node].children.iter().rev());
    }
    text
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
        );
        if !known {
            faults.push(format!("attribute {key} of <{name}>"));
        }
        if key == "id" && (value.is_empty() || value.contains(char::is_whitespace) || !ids.insert(value.clone())) {
            faults.push(format!("id {value:?}"));
        }
        if key == "style" && !(matches!(name, "td" | "th") && value.starts_with("text-align: ")) {
            faults.push(format!("style {value:?}"));
        }
        if matches!(key.as_str(), "href" | "src" | "cite") {
            let plain: String =
                value.chars().filter(|c| !c.is_whitespace() && !c.is_control()).collect::<String>().to_lowercase();
            let data = plain.starts_with("data:")
                && !(key == "src" && plain.starts_with("data:image/") && !plain.starts_with("data:image/svg"));
            if plain.starts_with("javascript:") || plain.starts_with("vbscript:") || data {
                faults.push(format!("{key} {value:?}"));
            }
            if value.contains([' ', '"', '<', '>', '\\', '`']) {
                faults.push(format!("{key} {value:?} is not encoded"));
            }
        }
    }
    if name == "img" && (dom.attribute(node, "src").is_none_or(str::is_empty) || dom.attribute(node, "alt").is_none()) {
        faults.push("img without src or alt".to_owned());
    }
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
