//! The package: parts, what they are, and how they refer to each other (ECMA-376, part 2).

use super::super::printer::Printer;
use std::io::{Cursor, Write};
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, DateTime, ZipWriter};

/// What the types of relations of office programs begin with.
const OFFICE: &str = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/";

/// The relations of a part.
#[derive(Debug, Default)]
pub(super) struct Relations {
    /// The last word of the type, the target, whether that is outside of the package, and the name where it is none of ours.
    all: Vec<(&'static str, String, bool, Option<String>)>,
    known: crate::fast_hash::HashMap<(&'static str, String), usize>,
}

impl Relations {
    /// The name of a relation, which is made where there is none yet.
    pub(super) fn name(&mut self, kind: &'static str, target: &str, external: bool) -> String {
        let place = *self.known.entry((kind, target.to_owned())).or_insert_with(|| {
            self.all.push((kind, target.to_owned(), external, None));
            self.all.len()
        });
        format!("rId{place}")
    }

    /// Adds a relation under the name that a part has for it already.
    pub(super) fn put(&mut self, name: &str, kind: &'static str, target: &str, external: bool) {
        self.all.push((kind, target.to_owned(), external, Some(name.to_owned())));
    }

    /// Whether everything that a part refers to is there.
    pub(super) fn covers(&self, part: &str) -> bool {
        ["r:id=\"", "r:embed=\"", "r:link=\"", "r:pict=\""].into_iter().all(|attribute| {
            part.split(attribute)
                .skip(1)
                .filter_map(|rest| rest.split('"').next())
                .all(|name| name.is_empty() || self.all.iter().any(|(.., known)| known.as_deref() == Some(name)))
        })
    }

    pub(super) const fn is_empty(&self) -> bool {
        self.all.is_empty()
    }

    fn print(&self) -> String {
        let mut printer = Printer::package_part("Relationships", "http://schemas.openxmlformats.org/package/2006/relationships");
        for (index, (kind, target, external, name)) in self.all.iter().enumerate() {
            let kind = match *kind {
                "core-properties" => {
                    "http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties".to_owned()
                }
                kind => format!("{OFFICE}{kind}"),
            };
            printer
                .open("Relationship")
                .attribute("Id", &name.clone().unwrap_or_else(|| format!("rId{}", index + 1)))
                .attribute("Type", &kind);
            printer.attribute("Target", target);
            if *external {
                printer.attribute("TargetMode", "External");
            }
            printer.close();
        }
        printer.finish()
    }
}

/// How hard parts are packed, from 1 to 9: the next level makes a text 2.5 % smaller, and takes a tenth longer.
const LEVEL: i64 = 5;

/// Parts that are put together.
#[derive(Debug, Default)]
pub(super) struct Archive {
    parts: Vec<(String, Vec<u8>)>,
    types: Vec<(String, &'static str)>,
    extensions: std::collections::BTreeMap<String, &'static str>,
}

impl Archive {
    /// Adds a part of markup with its media type.
    pub(super) fn add(&mut self, name: &str, media_type: &'static str, content: String) {
        self.types.push((format!("/{name}"), media_type));
        self.parts.push((name.to_owned(), content.into_bytes()));
    }

    /// Adds a file whose extension says what it is.
    pub(super) fn add_file(&mut self, name: &str, media_type: &'static str, bytes: Vec<u8>) {
        let extension = name.rsplit_once('.').map_or("", |(_, extension)| extension);
        self.extensions.insert(extension.to_owned(), media_type);
        self.parts.push((name.to_owned(), bytes));
    }

    /// Adds the relations of a part; those of the package for an empty name.
    pub(super) fn relate(&mut self, part: &str, relations: &Relations) {
        if relations.is_empty() {
            return;
        }
        let (folder, name) = part.rsplit_once('/').map_or((String::new(), part), |(folder, name)| (format!("{folder}/"), name));
        let content = (format!("{folder}_rels/{name}.rels"), relations.print().into_bytes());
        // Those of the package come first, for readers that do not go back.
        if part.is_empty() { self.parts.insert(0, content) } else { self.parts.push(content) }
    }

    /// The bytes of the package, and the names of parts that no archive can hold. No clock is asked: all parts have the first time
    /// that archives know.
    pub(super) fn finish(mut self) -> (Vec<u8>, Vec<String>) {
        let mut left_out = Vec::new();
        self.parts.insert(0, ("[Content_Types].xml".to_owned(), self.content_types().into_bytes()));
        let mut zip = ZipWriter::new(Cursor::new(Vec::new()));
        let plain = SimpleFileOptions::default().last_modified_time(DateTime::default());
        for (name, bytes) in self.parts {
            let is_packed = [".png", ".jpeg", ".gif"].iter().any(|extension| name.ends_with(extension));
            let options = if is_packed {
                plain.compression_method(CompressionMethod::Stored)
            } else {
                plain.compression_method(CompressionMethod::Deflated).compression_level(Some(LEVEL))
            };
            let options = options.large_file(u32::try_from(bytes.len()).is_err());
            // Writing to memory does not fail but for parts that no archive can hold.
            if zip.start_file(&*name, options).and_then(|()| zip.write_all(&bytes).map_err(Into::into)).is_err() {
                left_out.push(name);
            }
        }
        (zip.finish().map(Cursor::into_inner).unwrap_or_default(), left_out)
    }

    fn content_types(&self) -> String {
        let mut printer = Printer::package_part("Types", "http://schemas.openxmlformats.org/package/2006/content-types");
        let markup = [("rels", "application/vnd.openxmlformats-package.relationships+xml"), ("xml", "application/xml")];
        for (extension, media_type) in markup.into_iter().chain(self.extensions.iter().map(|(name, kind)| (name.as_str(), *kind)))
        {
            printer.open("Default").attribute("Extension", extension).attribute("ContentType", media_type).close();
        }
        for (name, media_type) in &self.types {
            printer.open("Override").attribute("PartName", name).attribute("ContentType", media_type).close();
        }
        printer.finish()
    }
}
