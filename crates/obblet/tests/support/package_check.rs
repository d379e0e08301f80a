//! Whether a package is what word processors open without repair: what they refuse, and what they mend.

use roxmltree::{Document, Node};
use std::collections::{BTreeMap, BTreeSet};
use std::io::Read;

/// The parts of a package by their names.
pub fn parts(bytes: &[u8]) -> BTreeMap<String, Vec<u8>> {
    let mut archive = zip::ZipArchive::new(std::io::Cursor::new(bytes)).unwrap();
    (0..archive.len())
        .map(|index| {
            let mut file = archive.by_index(index).unwrap();
            let mut content = Vec::new();
            file.read_to_end(&mut content).unwrap();
            (file.name().unwrap().into_owned(), content)
        })
        .collect()
}

/// A part of markup as text.
pub fn part(bytes: &[u8], name: &str) -> String {
    String::from_utf8(parts(bytes).remove(name).unwrap_or_default()).unwrap()
}

/// The order of properties in the schema (ECMA-376, part 1, annex A).
const PARAGRAPH: &str = "pStyle keepNext keepLines pageBreakBefore framePr widowControl numPr suppressLineNumbers pBdr shd tabs suppressAutoHyphens kinsoku wordWrap overflowPunct topLinePunct autoSpaceDE autoSpaceDN bidi adjustRightInd snapToGrid spacing ind contextualSpacing mirrorIndents suppressOverlap jc textDirection textAlignment textboxTightWrap outlineLvl divId cnfStyle rPr sectPr pPrChange";
const CHARACTERS: &str = "ins del rStyle rFonts b bCs i iCs caps smallCaps strike dstrike outline shadow emboss imprint noProof snapToGrid vanish webHidden color spacing w kern position sz szCs highlight u effect bdr shd fitText vertAlign rtl cs em lang eastAsianLayout specVanish oMath";
const TABLE: &str = "tblStyle tblpPr tblOverlap bidiVisual tblStyleRowBandSize tblStyleColBandSize tblW jc tblCellSpacing tblInd tblBorders shd tblLayout tblCellMar tblLook tblCaption tblDescription";
const CELL: &str = "cnfStyle tcW gridSpan hMerge vMerge tcBorders shd noWrap tcMar textDirection tcFitText vAlign hideMark";
const STYLE: &str = "name aliases basedOn next link autoRedefine hidden uiPriority semiHidden unhideWhenUsed qFormat locked personal rsid pPr rPr tblPr trPr tcPr tblStylePr";
const SETTINGS: &str = "zoom displayBackgroundShape mirrorMargins updateFields hdrShapeDefaults defaultTabStop evenAndOddHeaders characterSpacingControl footnotePr endnotePr compat themeFontLang decimalSymbol listSeparator";
const SECTION: &str = "headerReference footerReference footnotePr type pgSz pgMar cols titlePg bidi docGrid";

/// What is wrong with a package; nothing where nothing is.
pub fn faults(bytes: &[u8]) -> Vec<String> {
    let parts = parts(bytes);
    let mut faults = Vec::new();
    let types = String::from_utf8_lossy(&parts["[Content_Types].xml"]).into_owned();
    let mut relations: BTreeMap<String, BTreeSet<String>> = BTreeMap::new();
    for (name, content) in &parts {
        let extension = name.rsplit('.').next().unwrap();
        if !types.contains(&format!("PartName=\"/{name}\"")) && !types.contains(&format!("Extension=\"{extension}\"")) {
            faults.push(format!("{name} has no type"));
        }
        if !matches!(extension, "xml" | "rels") {
            continue;
        }
        let text = std::str::from_utf8(content).unwrap();
        let doc = match Document::parse(text) {
            Ok(doc) => doc,
            Err(error) => {
                faults.push(format!("{name}: {error}"));
                continue;
            }
        };
        if extension == "rels" {
            let (folder, file) = name.split_once("_rels/").unwrap();
            let of = format!("{folder}{}", file.strip_suffix(".rels").unwrap());
            for relation in doc.root_element().children().filter(Node::is_element) {
                relations.entry(of.clone()).or_default().insert(relation.attribute("Id").unwrap().to_owned());
                let target = relation.attribute("Target").unwrap();
                if relation.attribute("TargetMode").is_none() && !parts.contains_key(&format!("{folder}{target}")) {
                    faults.push(format!("{name}: no part {target}"));
                }
            }
        }
    }
    let known = Known::of(&parts);
    for (name, content) in parts.iter().filter(|(name, _)| name.starts_with("word/") && name.ends_with(".xml")) {
        let Ok(doc) = Document::parse(std::str::from_utf8(content).unwrap()) else { continue };
        let none = BTreeSet::new();
        Checker { part: name, known: &known, relations: relations.get(name).unwrap_or(&none), faults: &mut faults }.check(&doc);
    }
    faults
}

/// What parts define that others use.
struct Known {
    styles: BTreeSet<String>,
    numbers: BTreeSet<String>,
    notes: BTreeSet<String>,
    endnotes: BTreeSet<String>,
}

impl Known {
    fn of(parts: &BTreeMap<String, Vec<u8>>) -> Self {
        let all = |part: &str, element: &str, attribute: &str| -> BTreeSet<String> {
            let Some(content) = parts.get(part) else { return BTreeSet::new() };
            let Ok(doc) = Document::parse(std::str::from_utf8(content).unwrap()) else { return BTreeSet::new() };
            doc.descendants()
                .filter(|node| node.tag_name().name() == element)
                .filter_map(|node| value_of(node, attribute).map(str::to_owned))
                .collect()
        };
        Self {
            styles: all("word/styles.xml", "style", "styleId"),
            numbers: all("word/numbering.xml", "num", "numId"),
            notes: all("word/footnotes.xml", "footnote", "id"),
            endnotes: all("word/endnotes.xml", "endnote", "id"),
        }
    }
}

fn value_of<'a>(node: Node<'a, '_>, name: &str) -> Option<&'a str> {
    node.attributes().find(|attribute| attribute.name() == name).map(|attribute| attribute.value())
}

/// Whether a text has the form of a language tag.
fn is_tag(text: &str) -> bool {
    text.split('-').all(|part| matches!(part.len(), 1..=8) && part.bytes().all(|byte| byte.is_ascii_alphanumeric()))
}

struct Checker<'a> {
    part: &'a str,
    known: &'a Known,
    relations: &'a BTreeSet<String>,
    faults: &'a mut Vec<String>,
}

impl Checker<'_> {
    fn fault(&mut self, message: impl std::fmt::Display) {
        self.faults.push(format!("{}: {message}", self.part));
    }

    fn check(&mut self, doc: &Document<'_>) {
        let (mut starts, mut ends, mut names, mut drawings, mut styles) =
            (BTreeSet::new(), BTreeSet::new(), BTreeSet::new(), BTreeSet::new(), BTreeSet::new());
        for node in doc.descendants().filter(Node::is_element) {
            let name = node.tag_name().name();
            let parent = node.parent().map_or("", |parent| parent.tag_name().name());
            let children: Vec<&str> = node.children().filter(Node::is_element).map(|child| child.tag_name().name()).collect();
            self.check_order(name, &children);
            self.check_nesting(node, name, parent, &children);
            for attribute in node.attributes().filter(|attribute| {
                attribute.namespace() == Some("http://schemas.openxmlformats.org/officeDocument/2006/relationships")
            }) {
                if !self.relations.contains(attribute.value()) {
                    self.fault(format!("no relation {}", attribute.value()));
                }
            }
            let value = value_of(node, "val").unwrap_or_default();
            let id = value_of(node, "id").unwrap_or_default().to_owned();
            match name {
                "pStyle" | "rStyle" | "tblStyle" | "basedOn" | "next" if !self.known.styles.contains(value) => {
                    self.fault(format!("no style {value}"));
                }
                "numId" if parent == "numPr" && !self.known.numbers.contains(value) => {
                    self.fault(format!("no numbering {value}"))
                }
                "footnoteReference" if !self.known.notes.contains(&id) => self.fault(format!("no note {id}")),
                "endnoteReference" if !self.known.endnotes.contains(&id) => self.fault(format!("no endnote {id}")),
                "bookmarkStart" => {
                    let own = value_of(node, "name").unwrap_or_default();
                    if !starts.insert(id) || !names.insert(own.to_lowercase()) || own.chars().count() > 40 {
                        self.fault(format!("bookmark {own}"));
                    }
                }
                "bookmarkEnd" if !starts.contains(&id) || !ends.insert(id.clone()) => self.fault(format!("end of bookmark {id}")),
                "style" if !styles.insert(value_of(node, "styleId").unwrap_or_default().to_lowercase()) => {
                    self.fault(format!("a second style {:?}", value_of(node, "styleId")));
                }
                "name" if parent == "style" && (value.chars().count() > 253 || value.contains([',', ';'])) => {
                    self.fault(format!("name of a style {value}"));
                }
                "hyperlink" if value_of(node, "tooltip").is_some_and(|tip| tip.chars().count() > 260) => {
                    self.fault("tip of a link");
                }
                "lang" | "themeFontLang" if node.attributes().any(|tag| !is_tag(tag.value())) => {
                    self.fault(format!("languages {:?}", node.attributes().map(|tag| tag.value()).collect::<Vec<_>>()));
                }
                "docPr" if !drawings.insert(id.clone()) => self.fault(format!("a second drawing {id}")),
                _ => {}
            }
        }
        if starts != ends {
            self.fault("bookmarks that do not end");
        }
    }

    fn check_order(&mut self, name: &str, children: &[&str]) {
        let order = match name {
            "pPr" => PARAGRAPH,
            "rPr" if children.iter().all(|child| !matches!(*child, "sty" | "nor" | "scr" | "lit")) => CHARACTERS,
            "tblPr" => TABLE,
            "tcPr" => CELL,
            "style" => STYLE,
            "settings" => SETTINGS,
            "sectPr" => SECTION,
            _ => return,
        };
        let order: Vec<&str> = order.split(' ').collect();
        let places: Vec<Option<usize>> = children.iter().map(|child| order.iter().position(|known| known == child)).collect();
        if places.iter().any(Option::is_none) || !places.is_sorted() {
            self.fault(format!("{name} holds {children:?}"));
        }
        let often = |child: &&&str| matches!(**child, "tblStylePr" | "headerReference" | "footerReference");
        let single: Vec<&&str> = children.iter().filter(|child| !often(child)).collect();
        if single.iter().collect::<BTreeSet<_>>().len() != single.len() {
            self.fault(format!("{name} holds something twice: {children:?}"));
        }
    }

    fn check_nesting(&mut self, node: Node<'_, '_>, name: &str, parent: &str, children: &[&str]) {
        let stands = match name {
            "p" if node.tag_name().namespace().is_some_and(|space| space.contains("wordprocessingml")) => {
                matches!(parent, "body" | "tc" | "footnote" | "endnote" | "comment" | "sdtContent" | "hdr" | "ftr")
            }
            "tbl" => matches!(parent, "body" | "tc" | "footnote" | "endnote"),
            "tr" => parent == "tbl",
            "tc" => parent == "tr",
            "t" | "delText" => parent == "r",
            "hyperlink" => matches!(parent, "p" | "fldSimple"),
            "sectPr" => matches!(parent, "body" | "pPr"),
            _ => true,
        };
        if !stands {
            self.fault(format!("{name} in {parent}"));
        }
        match name {
            "tc" | "footnote" | "endnote" if !parent.ends_with("notePr") && children.last() != Some(&"p") => {
                self.fault(format!("{name} ends with {:?}", children.last()))
            }
            "body" if children.last() != Some(&"sectPr") => self.fault("no section"),
            "tbl" => {
                if children.len() < 3 || children[..2] != ["tblPr", "tblGrid"] || children[2..].iter().any(|child| *child != "tr")
                {
                    self.fault(format!("table of {children:?}"));
                }
                let after = node.next_sibling_element().map(|next| next.tag_name().name());
                if after == Some("tbl") {
                    self.fault("two tables are one");
                }
                self.check_grid(node);
            }
            _ => {}
        }
    }

    /// Each row takes all columns of the grid, and no table has too many.
    fn check_grid(&mut self, table: Node<'_, '_>) {
        let named = |node: Node<'_, '_>, name: &str| node.tag_name().name() == name;
        let columns = table
            .descendants()
            .filter(|node| named(*node, "gridCol") && node.parent().and_then(|grid| grid.parent()) == Some(table))
            .count();
        if columns == 0 || columns > 63 {
            self.fault(format!("{columns} columns"));
        }
        for row in table.children().filter(|child| named(*child, "tr")) {
            let span = |cell: Node<'_, '_>| -> usize {
                let properties = cell.children().find(|child| named(*child, "tcPr"));
                let span = properties.and_then(|own| own.children().find(|child| named(*child, "gridSpan")));
                span.and_then(|span| value_of(span, "val")?.parse().ok()).unwrap_or(1)
            };
            let taken: usize = row.children().filter(|child| named(*child, "tc")).map(span).sum();
            if taken != columns {
                self.fault(format!("a row of {taken} columns in a grid of {columns}"));
            }
        }
    }
}
