//! What a page is there for, without what stands around it on every page of a site.

use super::element_state::{Landmark, Origin, ParseState};
use crate::document::{DivisionKind, Document, Finding, Kind, NodeId, Step};
use crate::fast_hash::HashSet;

/// What an ARIA role says of an element (WAI-ARIA 1.2, landmark roles).
pub(super) fn part_of_role(role: &str) -> Option<Landmark> {
    match role.trim() {
        "main" => Some(Landmark::Main),
        "navigation" | "banner" | "contentinfo" | "complementary" | "search" | "menu" | "menubar" | "toolbar" => {
            Some(Landmark::Navigation)
        }
        _ => None,
    }
}

/// What a class or an id says of an element, in the words that most sites use.
pub(super) fn part_of_class(class: &str) -> Option<Landmark> {
    const AROUND: [&str; 26] = [
        "nav",
        "navbar",
        "navigation",
        "menu",
        "menubar",
        "sidebar",
        "banner",
        "masthead",
        "footer",
        "page-footer",
        "site-footer",
        "site-header",
        "page-header",
        "breadcrumb",
        "breadcrumbs",
        "toc",
        "share",
        "sharing",
        "social",
        "related",
        "advert",
        "advertisement",
        "ads",
        "cookie-banner",
        "pagination",
        "skip-link",
    ];
    const MAIN: [&str; 5] = ["main-content", "maincontent", "article-body", "post-content", "entry-content"];
    let class = class.to_ascii_lowercase().replace('_', "-");
    if AROUND.contains(&class.as_str()) {
        Some(Landmark::Navigation)
    } else if MAIN.contains(&class.as_str()) {
        Some(Landmark::Main)
    } else {
        None
    }
}

/// Leaves only the main content of a page in the tree, and says how much went.
pub(super) fn keep(doc: &mut Document, root: NodeId, state: &mut ParseState, reported: bool) {
    let in_tree: Vec<(NodeId, Landmark)> =
        state.parts.iter().copied().filter(|&(node, _)| node == root || doc.ancestors(node).any(|above| above == root)).collect();
    let claimed: HashSet<NodeId> = in_tree.iter().filter(|(_, part)| *part == Landmark::Main).map(|(node, _)| *node).collect();
    let outermost = |node: &NodeId| !doc.ancestors(*node).any(|above| claimed.contains(&above));
    let mains: Vec<NodeId> =
        in_tree.iter().map(|(node, _)| *node).filter(|node| claimed.contains(node) && outermost(node)).collect();
    let around = in_tree.iter().filter(|(_, part)| *part == Landmark::Navigation).map(|(node, _)| *node);
    let is = |node: NodeId, division| doc.kind(node) == Kind::Division(division);
    let mut gone: Vec<NodeId> = if mains.is_empty() {
        // A header of an article is the article's own.
        let in_article = |node| doc.ancestors(node).any(|above| is(above, DivisionKind::Article));
        around.filter(|&node| !is(node, DivisionKind::Header) || !in_article(node)).collect()
    } else {
        let in_main = |node| doc.ancestors(node).any(|above| claimed.contains(&above));
        around.filter(|&node| is(node, DivisionKind::Navigation) && in_main(node)).collect()
    };
    for &main in &mains {
        doc.detach(main);
    }
    if !mains.is_empty() {
        gone.extend(doc.children(root));
    }
    let is_table = |&above: &NodeId| doc.kind(above) == Kind::Table;
    let tables: HashSet<NodeId> = gone.iter().filter_map(|&node| doc.ancestors(node).find(is_table)).collect();
    let mut words = String::new();
    for node in gone {
        let text = doc.plain_text(node);
        if !text.trim().is_empty() {
            words.push_str(text.trim());
            words.push('\n');
        }
        doc.detach(node);
    }
    for main in mains {
        doc.move_into(root, main);
    }
    for table in tables {
        open_layout(doc, state, table);
    }
    if reported && !words.is_empty() {
        let count = words.split_whitespace().count();
        doc.push_finding(
            Finding::changed("html.around-content", format!("content around the main content was left out, words: {count}"))
                .hint("set html.content=all to keep it")
                .losing(words.split_whitespace().collect::<Vec<_>>().join(" ")),
        );
    }
}

/// A table of which one cell is left was there to set the content beside what went.
fn open_layout(doc: &mut Document, state: &mut ParseState, table: NodeId) {
    let mut parts = vec![table];
    let mut walk = doc.walk(table);
    while let Some(step) = walk.next() {
        let Step::Enter(id) = step else { continue };
        match doc.kind(id) {
            Kind::RowGroup(_) | Kind::Row => parts.push(id),
            Kind::Cell(_) => {
                parts.push(id);
                walk.skip_children(id);
            }
            _ => {}
        }
    }
    if parts.iter().filter(|&&part| matches!(doc.kind(part), Kind::Cell(_))).count() == 1 {
        for part in parts {
            doc.set_kind(part, Kind::Division(DivisionKind::Plain));
            state.set_origin(part, Origin::Wrapper);
        }
    }
}
