//! The house style: a document whose styles, numbering, theme, pages, headers and footers others take over.

use super::super::package::{Package, PackageError, Relation};
use super::super::xml::{Event, Ns, Xml};
use super::archive::{Archive, Relations};
use super::parts;
use super::style_table::Use;
use crate::fast_hash::HashMap;

/// A template unpacks to so many bytes at most.
const MOST_UNPACKED: u64 = 1 << 28;

/// A header or a footer: its element in the section, which pages it is for, its part, and what that refers to.
#[derive(Debug)]
struct Around {
    element: &'static str,
    pages: String,
    name: String,
    bytes: Vec<u8>,
    relations: Vec<(String, Relation)>,
}

/// What a template gives.
#[derive(Debug)]
pub(super) struct Template {
    pub(super) styles: String,
    /// The ids of its styles, by what they are for and their names in lower case.
    ids: HashMap<(bool, String), String>,
    pub(super) numbering: Option<String>,
    /// The highest numbers of its definitions and its lists.
    pub(super) last_definition: i64,
    pub(super) last_instance: i64,
    theme: Option<Vec<u8>>,
    /// Elements of its section, in the order of the schema.
    pub(super) section: String,
    around: Vec<Around>,
    /// Files that headers and footers show, by their keys.
    files: Vec<(String, Vec<u8>)>,
}

impl Template {
    /// Reads a template. What runs in it is left where it is.
    pub(super) fn read(bytes: &[u8]) -> Result<Self, PackageError> {
        let mut package = Package::open(bytes, MOST_UNPACKED)?;
        let main = package.main_part()?;
        let text = package.main_text(&main)?;
        let text = text.get().into_owned();
        let relations = package.relations(&main)?;
        let mut part = |kind: &str| -> Result<Option<String>, PackageError> {
            let Some(part) = relations.part(kind) else { return Ok(None) };
            Ok(package.text(part)?.map(|text| text.get().into_owned()))
        };
        let styles = part("styles")?.filter(|styles| styles.contains("<w:styles") && styles.contains("</w:styles>"));
        let styles = styles.ok_or_else(|| PackageError::DamagedPart("word/styles.xml".to_owned()))?;
        let numbering =
            part("numbering")?.filter(|numbering| numbering.contains("<w:numbering") && numbering.contains("</w:numbering>"));
        let theme = match relations.part("theme") {
            Some(theme) => package.bytes(theme)?,
            None => None,
        };
        let mut template = Self {
            ids: ids_of(&styles),
            styles,
            last_definition: numbering.as_deref().map_or(-1, |text| highest(text, b"abstractNum", b"abstractNumId")),
            last_instance: numbering.as_deref().map_or(0, |text| highest(text, b"num", b"numId")),
            numbering,
            theme,
            section: String::new(),
            around: Vec::new(),
            files: Vec::new(),
        };
        template.read_section(&text, &mut package, &|name| relations.get(name).cloned())?;
        Ok(template)
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
            let element = match found.local() {
                b"headerReference" => "w:headerReference",
                b"footerReference" => "w:footerReference",
                _ => continue,
            };
            let (Some(id), pages) = (found.relation(b"id"), found.get(b"type")) else { continue };
            let Some(target) = relation(&id).filter(|relation| !relation.external) else { continue };
            let Some(bytes) = package.bytes(&target.target)? else { continue };
            let relations = package.relations(&target.target)?.into_sorted();
            for (_, relation) in relations.iter().filter(|(_, relation)| !relation.external) {
                if !self.files.iter().any(|(key, _)| *key == relation.target)
                    && let Some(file) = package.bytes(&relation.target)?
                {
                    self.files.push((relation.target.clone(), file));
                }
            }
            let name = format!("house{}.xml", self.around.len() + 1);
            self.around.push(Around {
                element,
                pages: pages.map_or_else(|| "default".to_owned(), |pages| pages.into_owned()),
                name,
                bytes,
                relations,
            });
        }
        Ok(())
    }

    /// The id that a style has in the template, by its name.
    pub(super) fn id(&self, of: Use, name: &str) -> Option<&str> {
        self.ids.get(&(of == Use::Character, name.to_lowercase())).map(String::as_str)
    }

    /// Whether an id is one of the template's.
    pub(super) fn has_id(&self, id: &str) -> bool {
        self.ids.values().any(|known| known.eq_ignore_ascii_case(id))
    }

    /// Adds its parts to a package: the references to its headers and footers.
    pub(super) fn add_to(&mut self, archive: &mut Archive, main: &mut Relations) -> Vec<(&'static str, String, String)> {
        let mut names: HashMap<String, String> = HashMap::default();
        for (key, bytes) in std::mem::take(&mut self.files) {
            let Some((extension, media_type)) = super::pictures::office_kind(&bytes) else { continue };
            let name = format!("media/house{}.{extension}", names.len() + 1);
            archive.add_file(&format!("word/{name}"), media_type, bytes);
            names.insert(key, name);
        }
        let mut references = Vec::new();
        for around in std::mem::take(&mut self.around) {
            let Ok(text) = String::from_utf8(around.bytes) else { continue };
            let kind = if around.element == "w:headerReference" { "header" } else { "footer" };
            let mut own = Relations::default();
            for (id, relation) in &around.relations {
                let target = if relation.external { Some(&relation.target) } else { names.get(&relation.target) };
                let kind = ["image", "hyperlink"].into_iter().find(|kind| *kind == relation.kind);
                if let (Some(target), Some(kind)) = (target, kind) {
                    own.put(id, kind, target, relation.external);
                }
            }
            // What refers to nothing makes a document that has to be repaired.
            if !own.covers(&text) {
                continue;
            }
            archive.relate(&format!("word/{}", around.name), &own);
            let relation = main.name(kind, &around.name, false);
            archive.add(&format!("word/{}", around.name), parts::media_type(kind), text);
            references.push((around.element, around.pages, relation));
        }
        references
    }

    /// Its theme, or the usual one.
    pub(super) fn theme(&self) -> String {
        self.theme.clone().and_then(|theme| String::from_utf8(theme).ok()).unwrap_or_else(parts::theme)
    }

    /// Its numbering with definitions and lists behind its own.
    pub(super) fn numbering_with(&self, definitions: &str, instances: &str) -> Option<String> {
        let own = self.numbering.as_deref()?;
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

fn ids_of(styles: &str) -> HashMap<(bool, String), String> {
    let mut ids = HashMap::default();
    let mut xml = Xml::new(styles);
    let mut open: Option<(bool, String)> = None;
    while let Some(event) = xml.next() {
        let Event::Open(element) = event else { continue };
        if element.is(b"style") {
            let id = element.get(b"styleId").unwrap_or_default().into_owned();
            open = match element.get(b"type").as_deref() {
                Some("paragraph") | None => Some((false, id)),
                Some("character") => Some((true, id)),
                _ => None,
            };
        } else if element.ns == Ns::W
            && element.local() == b"name"
            && let (Some((is_character, id)), Some(name)) = (open.take(), element.val())
        {
            ids.entry((is_character, name.to_lowercase())).or_insert(id);
        }
    }
    ids
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
