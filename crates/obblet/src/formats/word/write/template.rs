//! The house style: a document whose styles, numbering, theme, pages, headers and footers others take over.

use super::super::package::{Package, PackageError, Relation};
use super::super::xml::{Event, Ns, Xml};
use super::archive::{Archive, Relations};
use super::parts;
use super::style_table::Use;
use crate::fast_hash::HashMap;

/// A template unpacks to so many bytes at most.
const MOST_UNPACKED: u64 = 1 << 28;

/// A part that is taken over, with what it refers to.
#[derive(Debug)]
struct Part {
    text: String,
    relations: Relations,
}

/// A header or a footer: its element in the section, and which pages it is for.
#[derive(Debug)]
struct Around {
    element: &'static str,
    pages: String,
    part: Part,
}

/// An image of a part that is taken over.
#[derive(Debug)]
struct File {
    /// The part of the template.
    key: String,
    /// Where it stands in the new package.
    name: String,
    media_type: &'static str,
    bytes: Vec<u8>,
}

/// What a template gives.
#[derive(Debug)]
pub(super) struct Template {
    pub(super) styles: String,
    /// The ids of its styles, by what they are for and their names in lower case.
    by_name: HashMap<(Use, String), String>,
    /// The ids of all its styles, those of tables and lists too.
    ids: Vec<String>,
    numbering: Option<Part>,
    /// The highest numbers of its definitions and its lists.
    pub(super) last_definition: i64,
    pub(super) last_instance: i64,
    theme: Option<Part>,
    /// Elements of its section, in the order of the schema.
    pub(super) section: String,
    around: Vec<Around>,
    files: Vec<File>,
    /// What it has that can't be taken over.
    pub(super) left_out: Vec<&'static str>,
}

impl Template {
    /// Reads a template. What runs in it is left where it is.
    pub(super) fn read(bytes: &[u8]) -> Result<Self, PackageError> {
        let mut package = Package::open(bytes, MOST_UNPACKED)?;
        let main = package.main_part()?;
        let text = package.main_text(&main)?;
        let text = text.get().into_owned();
        let relations = package.relations(&main)?;
        let styles = match relations.part("styles") {
            Some(part) => package.text(part)?.map(|text| text.get().into_owned()),
            None => None,
        };
        let styles = styles.filter(|styles| styles.contains("<w:styles") && styles.contains("</w:styles>"));
        let styles = styles.ok_or_else(|| PackageError::DamagedPart("word/styles.xml".to_owned()))?;
        let (by_name, ids) = ids_of(&styles);
        let mut template = Self {
            styles,
            by_name,
            ids,
            numbering: None,
            last_definition: -1,
            last_instance: 0,
            theme: None,
            section: String::new(),
            around: Vec::new(),
            files: Vec::new(),
            left_out: Vec::new(),
        };
        if let Some(part) = relations.part("numbering") {
            template.numbering = template
                .take(&mut package, part, "its lists")?
                .filter(|part| part.text.contains("<w:numbering") && part.text.contains("</w:numbering>"));
        }
        if let Some(Part { text, .. }) = &template.numbering {
            template.last_definition = highest(text, b"abstractNum", b"abstractNumId");
            template.last_instance = highest(text, b"num", b"numId");
        }
        if let Some(part) = relations.part("theme") {
            template.theme = template.take(&mut package, part, "its theme")?;
        }
        template.read_section(&text, &mut package, &|name| relations.get(name).cloned())?;
        Ok(template)
    }

    /// Takes over a part with the images and the links that it refers to. One that refers to anything else is left out, for with
    /// references to nothing the document would have to be repaired.
    fn take(&mut self, package: &mut Package<'_>, key: &str, what: &'static str) -> Result<Option<Part>, PackageError> {
        let Some(text) = package.text(key)?.map(|text| text.get().into_owned()) else { return Ok(None) };
        let mut relations = Relations::default();
        for (id, relation) in package.relations(key)?.into_sorted() {
            let Some(kind) = ["image", "hyperlink"].into_iter().find(|kind| *kind == relation.kind) else { continue };
            let target = if relation.external { Some(relation.target) } else { self.take_file(package, &relation.target)? };
            if let Some(target) = target {
                relations.put(&id, kind, &target, relation.external);
            }
        }
        if relations.covers(&text) {
            return Ok(Some(Part { text, relations }));
        }
        self.left_out.push(what);
        Ok(None)
    }

    /// Takes over an image; its name for the parts of the new package.
    fn take_file(&mut self, package: &mut Package<'_>, key: &str) -> Result<Option<String>, PackageError> {
        if let Some(known) = self.files.iter().find(|file| file.key == key) {
            return Ok(Some(known.name.clone()));
        }
        let Some(bytes) = package.bytes(key)? else { return Ok(None) };
        let Some((extension, media_type)) = super::pictures::office_kind(&bytes) else { return Ok(None) };
        let name = format!("media/house{}.{extension}", self.files.len() + 1);
        self.files.push(File { key: key.to_owned(), name: name.clone(), media_type, bytes });
        Ok(Some(name))
    }

    fn read_section(
        &mut self,
        text: &str,
        package: &mut Package<'_>,
        relation: &dyn Fn(&str) -> Option<Relation>,
    ) -> Result<(), PackageError> {
        let Some(start) = text.rfind("<w:sectPr") else { return Ok(()) };
        let section = &text[start..];
        let section = &section[..section.find("</w:sectPr>").unwrap_or(section.len())];
        for name in ["<w:pgSz", "<w:pgMar", "<w:cols", "<w:titlePg"] {
            // Columns of different widths have elements within; they are not taken over.
            if let Some(at) = section.find(name) {
                let end = section[at..].find("/>").map_or(at, |end| at + end + 2);
                let element = &section[at..end];
                if element.matches('<').count() == 1 {
                    self.section.push_str(element);
                }
            }
        }
        let mut xml = Xml::new(section);
        while let Some(event) = xml.next() {
            let Event::Open(found) = event else { continue };
            let (element, what) = match found.local() {
                b"headerReference" => ("w:headerReference", "a header"),
                b"footerReference" => ("w:footerReference", "a footer"),
                _ => continue,
            };
            let (Some(id), pages) = (found.relation(b"id"), found.get(b"type")) else { continue };
            let Some(target) = relation(&id).filter(|relation| !relation.external) else { continue };
            if let Some(part) = self.take(package, &target.target, what)? {
                let pages = pages.map_or_else(|| "default".to_owned(), |pages| pages.into_owned());
                self.around.push(Around { element, pages, part });
            }
        }
        Ok(())
    }

    /// The id that a style has in the template, by its name.
    pub(super) fn id(&self, of: Use, name: &str) -> Option<&str> {
        self.by_name.get(&(of, name.to_lowercase())).map(String::as_str)
    }

    /// The ids of its styles.
    pub(super) fn ids(&self) -> impl Iterator<Item = &str> {
        self.ids.iter().map(String::as_str)
    }

    /// Adds its headers, its footers and its images to a package: the references to the first two.
    pub(super) fn add_to(&mut self, archive: &mut Archive, main: &mut Relations) -> Vec<(&'static str, String, String)> {
        for file in std::mem::take(&mut self.files) {
            archive.add_file(&format!("word/{}", file.name), file.media_type, file.bytes);
        }
        for (name, part) in [("word/numbering.xml", &self.numbering), ("word/theme/theme1.xml", &self.theme)] {
            if let Some(part) = part {
                archive.relate(name, &part.relations);
            }
        }
        let mut references = Vec::new();
        for (number, Around { element, pages, part }) in std::mem::take(&mut self.around).into_iter().enumerate() {
            let name = format!("house{}.xml", number + 1);
            let kind = if element == "w:headerReference" { "header" } else { "footer" };
            archive.relate(&format!("word/{name}"), &part.relations);
            archive.add(&format!("word/{name}"), parts::media_type(kind), part.text);
            references.push((element, pages, main.name(kind, &name, false)));
        }
        references
    }

    /// Its theme, or the usual one.
    pub(super) fn theme(&self) -> String {
        self.theme.as_ref().map_or_else(parts::theme, |theme| theme.text.clone())
    }

    /// Whether it has lists of its own.
    pub(super) const fn has_numbering(&self) -> bool {
        self.numbering.is_some()
    }

    /// Its numbering with definitions and lists behind its own.
    pub(super) fn numbering_with(&self, definitions: &str, instances: &str) -> Option<String> {
        let own = self.numbering.as_ref()?.text.as_str();
        let end = own.rfind("</w:numbering>")?;
        let lists = own.find("<w:num ").unwrap_or(end);
        let tail = own.find("<w:numIdMacAtCleanup").unwrap_or(end);
        Some([&own[..lists], definitions, &own[lists..tail], instances, &own[tail..]].concat())
    }

    /// Its styles with others behind its own.
    pub(super) fn styles_with(&self, others: &str) -> String {
        let end = self.styles.rfind("</w:styles>").unwrap_or(self.styles.len());
        [&self.styles[..end], others, &self.styles[end..]].concat()
    }
}

/// The ids of styles: by what they are for and their names, and all.
fn ids_of(styles: &str) -> (HashMap<(Use, String), String>, Vec<String>) {
    let mut by_name = HashMap::default();
    let mut ids = Vec::new();
    let mut xml = Xml::new(styles);
    let mut open: Option<(Use, String)> = None;
    while let Some(event) = xml.next() {
        let Event::Open(element) = event else { continue };
        if element.is(b"style") {
            let id = element.get(b"styleId").unwrap_or_default().into_owned();
            ids.push(id.clone());
            open = match element.get(b"type").as_deref() {
                Some("paragraph") | None => Some((Use::Paragraph, id)),
                Some("character") => Some((Use::Character, id)),
                Some("table") => Some((Use::Table, id)),
                _ => None,
            };
        } else if element.ns == Ns::W
            && element.local() == b"name"
            && let (Some((of, id)), Some(name)) = (open.take(), element.val())
        {
            by_name.entry((of, name.to_lowercase())).or_insert(id);
        }
    }
    (by_name, ids)
}

fn highest(text: &str, element: &[u8], attribute: &[u8]) -> i64 {
    let mut xml = Xml::new(text);
    let mut highest = -1;
    while let Some(event) = xml.next() {
        if let Event::Open(found) = event
            && found.is(element)
        {
            highest = highest.max(found.number(attribute).map_or(0, i64::from));
        }
    }
    highest
}
