//! Images: their bytes as parts of the package, and drawings that show them (ECMA-376, part 1, section 20.4).

use super::super::model::from_style;
use super::Writer;
use super::archive::Archive;
use crate::document::{Finding, Measure, MediaId, NodeId, Property, Text, Value};
use crate::fast_hash::HashMap;
use crate::picture::{self, Kind};

/// English metric units in a pixel of CSS.
const PER_PIXEL: f64 = 9525.0;

/// An image is shown no wider and no higher than this, in English metric units: the text of a page.
const WIDEST: f64 = 5_759_450.0;
const HIGHEST: f64 = 8_200_000.0;

/// A file of the package.
#[derive(Debug)]
struct File {
    name: String,
    media_type: &'static str,
    bytes: Vec<u8>,
}

/// The images of a package, each once.
#[derive(Debug, Default)]
pub(super) struct Pictures {
    files: Vec<File>,
    by_media: HashMap<MediaId, Option<Stored>>,
    by_bytes: HashMap<u64, Vec<usize>>,
    drawings: u32,
}

impl Pictures {
    pub(super) fn add_to(&mut self, archive: &mut Archive) {
        for file in std::mem::take(&mut self.files) {
            archive.add_file(&format!("word/{}", file.name), file.media_type, file.bytes);
        }
    }

    /// The place of a file with these bytes.
    fn store(&mut self, bytes: Vec<u8>, extension: &str, media_type: &'static str) -> usize {
        use std::hash::{Hash, Hasher};
        let mut hasher = std::hash::DefaultHasher::new();
        bytes.hash(&mut hasher);
        let same = self.by_bytes.entry(hasher.finish()).or_default();
        if let Some(&known) = same.iter().find(|&&known| self.files[known].bytes == bytes) {
            return known;
        }
        let name = format!("media/image{}.{extension}", self.files.len() + 1);
        same.push(self.files.len());
        self.files.push(File { name, media_type, bytes });
        self.files.len() - 1
    }
}

/// What a package holds of an image.
#[derive(Clone, Copy, Debug)]
struct Stored {
    /// The place of the file that all programs show.
    file: usize,
    /// The place of the drawing that it stands for.
    drawing: Option<usize>,
    /// The width and the height of the image in pixels.
    size: (f64, f64),
}

/// A file for a package: its bytes, their extension and media type.
type Held = (Vec<u8>, &'static str, &'static str);

impl Writer<'_> {
    /// An image in the line.
    pub(super) fn image(&mut self, id: NodeId, src: Text, alt: Text) {
        let held = self.doc.media_of.get(id).copied().and_then(|media| self.media_file(media));
        match held {
            Some(Stored { file, drawing, size }) => {
                let mut relation = |file: usize| self.part.relations.name("image", &self.pictures.files[file].name, false);
                let (picture, drawing) = (relation(file), drawing.map(relation));
                let blip = match drawing {
                    // Programs that know drawings show them in place of their pictures.
                    Some(drawing) => format!(
                        "<a:blip r:embed=\"{picture}\"><a:extLst><a:ext uri=\"{{96DAC541-7B7A-43D3-8B79-37D633B846F1}}\"><asvg:svgBlip xmlns:asvg=\"http://schemas.microsoft.com/office/drawing/2016/SVG/main\" r:embed=\"{drawing}\"/></a:ext></a:extLst></a:blip>"
                    ),
                    None => format!("<a:blip r:embed=\"{picture}\"/>"),
                };
                let size = self.size_of(id, size);
                self.drawing(id, alt, &blip, size);
            }
            None => self.absent_image(id, src, alt),
        }
    }

    /// The file of an image of the document, and its size in pixels.
    fn media_file(&mut self, media: MediaId) -> Option<Stored> {
        if let Some(known) = self.pictures.by_media.get(&media) {
            return *known;
        }
        let held = self.doc.media.get(media.0 as usize).and_then(|own| {
            // What another picture was made of is the picture itself here, but for one of which a part is shown.
            let is_same = |bytes: &[u8], is_cropped: bool| !is_cropped && office_kind(bytes).is_some();
            let original = own.original.as_ref().filter(|original| is_same(&original.bytes, original.is_cropped));
            let bytes = original.map_or(&own.bytes, |original| &original.bytes);
            let size = picture::size(&own.bytes).map_or((96.0, 96.0), |(width, height)| (width as f64, height as f64));
            let drawing = (Kind::of(bytes) == Some(Kind::Svg)).then(|| (bytes.clone(), "svg", "image/svg+xml"));
            let picture = match &drawing {
                Some((bytes, ..)) => picture::png::of_drawing(bytes).map(|png| (png, "png", "image/png"))?,
                None => held(bytes)?,
            };
            Some((picture, drawing, size))
        });
        let mut store = |(bytes, extension, media_type): Held| self.pictures.store(bytes, extension, media_type);
        let stored = held.map(|(picture, drawing, size)| Stored { file: store(picture), drawing: drawing.map(store), size });
        self.pictures.by_media.insert(media, stored);
        stored
    }

    /// The size that an image is shown with: what its node says, or its own, and no more than a page has.
    fn size_of(&self, id: NodeId, (width, height): (f64, f64)) -> (i64, i64) {
        let said = |name: &str| {
            let attributes = self.doc.attributes(id);
            let (_, value) = attributes.other.iter().find(|(known, _)| self.doc.text(*known) == name)?;
            self.doc
                .text(*value)
                .trim()
                .trim_end_matches("px")
                .parse::<f64>()
                .ok()
                .filter(|pixels| (1.0..=20_000.0).contains(pixels))
        };
        // Style rules win over attributes.
        let looks = self.looks(id);
        let ruled = |wanted: Property| {
            let (_, value) = looks.iter().find(|(property, _)| *property == wanted)?;
            match value {
                Value::Length(Measure::Percent(percent)) if wanted != Property::Height => {
                    Some(f64::from(*percent) / 5000.0 * WIDEST / PER_PIXEL)
                }
                value => from_style::twips(value).map(|twips| f64::from(twips) / 15.0),
            }
            .filter(|pixels| (1.0..=20_000.0).contains(pixels))
        };
        let ratio = if width > 0.0 { height / width } else { 1.0 };
        let (wide, high) = (ruled(Property::Width), ruled(Property::Height));
        let said = |name: &str| match name {
            "width" => wide.or_else(|| said(name).filter(|_| high.is_none())),
            _ => high.or_else(|| said(name).filter(|_| wide.is_none())),
        };
        let (width, height) = match (said("width"), said("height")) {
            (Some(width), Some(height)) => (width, height),
            (Some(width), None) => (width, width * ratio),
            (None, Some(height)) => (if ratio > 0.0 { height / ratio } else { height }, height),
            (None, None) => (width, height),
        };
        let (width, height) = match ruled(Property::MaxWidth) {
            Some(most) if most < width => (most, height * most / width),
            _ => (width, height),
        };
        let (width, height) = (width.max(1.0) * PER_PIXEL, height.max(1.0) * PER_PIXEL);
        let scale = (WIDEST / width).min(HIGHEST / height).min(1.0);
        (((width * scale) as i64).max(1), ((height * scale) as i64).max(1))
    }

    /// A drawing that shows an image.
    fn drawing(&mut self, id: NodeId, alt: Text, blip: &str, (width, height): (i64, i64)) {
        (self.line.space, self.line.has_text) = (None, true);
        self.pictures.drawings += 1;
        let number = i64::from(self.pictures.drawings);
        let float = self.looks(id).into_iter().find_map(|(property, value)| match (property, value) {
            (Property::Float, Value::Keyword("left")) => Some("left"),
            (Property::Float, Value::Keyword("right")) => Some("right"),
            _ => None,
        });
        let attributes = self.doc.attributes(id);
        let is_decoration = attributes
            .other
            .iter()
            .any(|(name, value)| self.doc.text(*name) == "role" && matches!(self.doc.text(*value), "presentation" | "none"));
        let title = attributes.title.map(|title| self.doc.text(title));
        let alt = self.doc.text(alt);
        let name = format!("Picture {number}");
        let out = &mut self.part.out;
        out.open("w:r").open("w:drawing");
        match float {
            Some(side) => {
                // Text flows around it.
                out.open("wp:anchor").number("distT", 0).number("distB", 0).number("distL", 114_300).number("distR", 114_300);
                out.number("simplePos", 0).number("relativeHeight", number).number("behindDoc", 0).number("locked", 0);
                out.number("layoutInCell", 1).number("allowOverlap", 0);
                out.raw("<wp:simplePos x=\"0\" y=\"0\"/><wp:positionH relativeFrom=\"column\"><wp:align>");
                out.text(side).raw("</wp:align></wp:positionH>");
                out.raw("<wp:positionV relativeFrom=\"paragraph\"><wp:posOffset>0</wp:posOffset></wp:positionV>");
                out.open("wp:extent").number("cx", width).number("cy", height).close();
                out.raw("<wp:effectExtent l=\"0\" t=\"0\" r=\"0\" b=\"0\"/><wp:wrapSquare wrapText=\"bothSides\"/>");
            }
            None => {
                out.open("wp:inline").number("distT", 0).number("distB", 0).number("distL", 0).number("distR", 0);
                out.open("wp:extent").number("cx", width).number("cy", height).close();
            }
        }
        out.open("wp:docPr").number("id", number).attribute("name", &name);
        if !alt.is_empty() {
            out.attribute("descr", alt);
        }
        if let Some(title) = title {
            out.attribute("title", title);
        }
        if is_decoration {
            out.raw("<a:extLst><a:ext uri=\"{C183D7F6-B498-43B3-948B-1728B52AA6E4}\"><adec:decorative xmlns:adec=\"http://schemas.microsoft.com/office/drawing/2017/decorative\" val=\"1\"/></a:ext></a:extLst>");
        }
        out.close();
        out.raw("<wp:cNvGraphicFramePr><a:graphicFrameLocks noChangeAspect=\"1\"/></wp:cNvGraphicFramePr>");
        out.open("a:graphic").open("a:graphicData").attribute("uri", "http://schemas.openxmlformats.org/drawingml/2006/picture");
        out.open("pic:pic").open("pic:nvPicPr").open("pic:cNvPr").number("id", number).attribute("name", &name).close();
        out.raw("<pic:cNvPicPr/>").close();
        out.raw("<pic:blipFill>").raw(blip).raw("<a:stretch><a:fillRect/></a:stretch></pic:blipFill>");
        out.open("pic:spPr").open("a:xfrm").raw("<a:off x=\"0\" y=\"0\"/>");
        out.open("a:ext").number("cx", width).number("cy", height).close().close();
        out.raw("<a:prstGeom prst=\"rect\"><a:avLst/></a:prstGeom>").close();
        out.close().close().close().close().close().close();
    }

    /// An image whose bytes are not there: it is shown by its address, which a word processor may look for.
    fn absent_image(&mut self, id: NodeId, src: Text, alt: Text) {
        let address = self.doc.text(src).trim();
        let is_data = address.get(..5).is_some_and(|scheme| scheme.eq_ignore_ascii_case("data:"));
        if is_data || self.doc.media_of.get(id).is_some() || !super::inlines::is_target(address) {
            let message = "an image can't be shown in Word documents; its alt text is kept";
            let finding = Finding::lost("word.image", message).at(self.doc.place(id));
            self.findings.push(finding.hint("save it as PNG or JPEG"));
            let text = self.doc.text(alt);
            let text = if text.is_empty() { "\u{FFFC}" } else { text };
            return self.plain_run(text);
        }
        let message = format!("image is linked and not part of the document: {address}");
        self.findings.push(Finding::changed("word.linked-image", message).at(self.doc.place(id)));
        let relation = self.part.relations.name("image", address, true);
        let size = self.size_of(id, (96.0, 96.0));
        self.drawing(id, alt, &format!("<a:blip r:link=\"{relation}\"/>"), size);
    }
}

/// An image as word processors show it: as it is, or turned into one that they do.
fn held(bytes: &[u8]) -> Option<Held> {
    if let Some((extension, media_type)) = office_kind(bytes) {
        return Some((bytes.to_vec(), extension, media_type));
    }
    picture::png::of_picture(bytes).map(|bytes| (bytes, "png", "image/png"))
}

/// The extension and the media type of what word processors show as it is.
pub(super) fn office_kind(bytes: &[u8]) -> Option<(&'static str, &'static str)> {
    match Kind::of(bytes) {
        Some(Kind::Png) => Some(("png", "image/png")),
        Some(Kind::Jpeg) => Some(("jpeg", "image/jpeg")),
        Some(Kind::Gif) => Some(("gif", "image/gif")),
        Some(Kind::Bmp) => Some(("bmp", "image/bmp")),
        Some(Kind::Tiff) => Some(("tiff", "image/tiff")),
        Some(Kind::Webp | Kind::Avif | Kind::Svg) => None,
        None if crate::metafile::is_metafile(bytes) => {
            let is_enhanced = bytes.get(40..44) == Some(b" EMF");
            Some(if is_enhanced { ("emf", "image/x-emf") } else { ("wmf", "image/x-wmf") })
        }
        None => None,
    }
}
