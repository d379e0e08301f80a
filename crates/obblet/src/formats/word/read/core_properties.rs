//! What the package says about the document (part 2, section 11).

use super::super::xml::{Event, Xml};
use super::Reader;

impl Reader<'_, '_> {
    /// What the package says about the document (part 2, section 11).
    pub(super) fn metadata(&mut self, part: &str) {
        let Ok(Some(text)) = self.package.text(part) else { return };
        let text = text.get();
        let mut xml = Xml::new(&text);
        let metadata = &mut self.doc.metadata;
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            let local = element.local().to_vec();
            if local == b"coreProperties" {
                continue;
            }
            let value = xml.text().split_whitespace().collect::<Vec<_>>().join(" ");
            if value.is_empty() {
                continue;
            }
            match local.as_slice() {
                b"title" => metadata.title = Some(value),
                b"creator" => {
                    metadata.authors =
                        value.split(';').map(|name| name.trim().to_owned()).filter(|name| !name.is_empty()).collect()
                }
                b"description" => metadata.description = Some(value),
                b"subject" => metadata.other.push(("subject".to_owned(), value)),
                b"keywords" => {
                    metadata.keywords =
                        value.split([',', ';']).map(|word| word.trim().to_owned()).filter(|word| !word.is_empty()).collect();
                }
                b"language" => metadata.language = Some(value),
                b"created" if metadata.date.is_none() => metadata.date = value.split('T').next().map(str::to_owned),
                b"modified" => metadata.date = value.split('T').next().map(str::to_owned),
                b"category" => metadata.other.push(("category".to_owned(), value)),
                _ => {}
            }
        }
    }
}
