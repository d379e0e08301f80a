//! Pictures of a package: their bytes, cut and turned into what browsers can show.

use super::super::package::PackageError;
use super::Reader;
use crate::document::{Kind, MediaId, NodeId, Original};
use crate::fast_hash::{HashMap, HashSet};
use crate::metafile;
use crate::picture;
use image::{DynamicImage, ImageFormat};
use std::io::Cursor;

/// What is cut off from a picture: left, top, right and bottom, in thousandths of a per cent.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub(super) struct Crop([u32; 4]);

impl Crop {
    /// Sides that are cut off. Space that is added is none.
    pub(super) fn of(sides: [i32; 4]) -> Self {
        let [left, top, right, bottom] = sides.map(|side| side.clamp(0, 100_000) as u32);
        if left + right >= 100_000 || top + bottom >= 100_000 {
            return Self::default();
        }
        Self([left, top, right, bottom])
    }

    /// As shares of the width and the height.
    fn shares(self) -> [f64; 4] {
        self.0.map(|side| f64::from(side) / 100_000.0)
    }

    fn is_none(self) -> bool {
        // Less than half a per cent is a rounding error.
        self.0.iter().all(|side| *side < 500)
    }
}

/// What bytes of a picture are.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Sort {
    /// Browsers show it.
    Shown(&'static str),
    /// It is a list of calls that drew it.
    Metafile,
    /// It can be turned into another.
    Turned(ImageFormat),
    /// Nothing here can show it.
    Other,
}

/// How a picture is shown.
#[derive(Clone, Copy, Debug)]
pub(super) struct Shown {
    /// Width and height in English metric units.
    pub(super) size: Option<(i64, i64)>,
    pub(super) crop: Crop,
    /// Whether it says nothing.
    pub(super) decorative: bool,
}

/// The pictures that were read.
#[derive(Debug, Default)]
pub(super) struct Pictures {
    /// Those of the package by their parts, and whether they can be shown.
    known: HashMap<(String, Crop), Option<(MediaId, bool)>>,
    /// Names of files that the document holds, and how many wanted the same one.
    names: HashSet<String>,
    numbers: HashMap<String, u32>,
    /// The first part that is larger than it may be.
    pub(super) too_large: Option<PackageError>,
}

impl Reader<'_, '_> {
    /// Puts a picture into the text.
    pub(super) fn place_picture(&mut self, parent: NodeId, relation: &str, alt: &str, shown: &Shown) {
        let Shown { size, crop, decorative } = *shown;
        let Some(relation) = self.relations.get(relation).cloned() else {
            return self.diagnostics.images.missing.add(self.place.paragraph, alt);
        };
        if relation.external {
            let id = self.doc.append_image(parent, &relation.target.replace('\\', "/"), alt);
            self.doc.set_offset(id, self.place.paragraph);
            return self.set_size(id, size);
        }
        let key = (relation.target.clone(), crop);
        if !self.pictures.known.contains_key(&key) {
            let loaded = self.load_picture(&relation.target, crop);
            self.pictures.known.insert(key.clone(), loaded);
        }
        match self.pictures.known.get(&key) {
            Some(&Some((media, true))) => {
                let name = self.doc.media[media.0 as usize].name.clone();
                let id = self.doc.append_image(parent, &name, alt);
                self.doc.media_of.set(id, media);
                self.doc.set_offset(id, self.place.paragraph);
                if decorative {
                    let role = (self.doc.intern("role"), self.doc.intern("presentation"));
                    self.doc.attributes_mut(id).other.push(role);
                }
                self.set_size(id, size);
            }
            Some(&Some((media, false))) => {
                // The file itself is there for whoever has a program for it.
                let name = self.doc.media[media.0 as usize].name.clone();
                let words = if alt.is_empty() { name.clone() } else { alt.to_owned() };
                let href = self.doc.intern(&name);
                let link = self.doc.append_at(parent, Kind::Link { href }, self.place.paragraph);
                self.doc.media_of.set(link, media);
                self.doc.append_text(link, &words);
                self.diagnostics.images.vector.add(self.place.paragraph, &name);
            }
            _ => self.diagnostics.images.missing.add(self.place.paragraph, &relation.target),
        }
    }

    fn set_size(&mut self, id: NodeId, size: Option<(i64, i64)>) {
        let Some((width, height)) = size.filter(|(width, height)| (1..10_000).contains(width) && (1..10_000).contains(height))
        else {
            return;
        };
        for (name, value) in [("width", width), ("height", height)] {
            let pair = (self.doc.intern(name), self.doc.intern(&value.to_string()));
            self.doc.attributes_mut(id).other.push(pair);
        }
    }

    /// Reads a picture of the package; its name in the document, and whether it can be shown.
    fn load_picture(&mut self, part: &str, crop: Crop) -> Option<(MediaId, bool)> {
        let bytes = match self.package.bytes(part) {
            Ok(bytes) => bytes?,
            Err(error) => {
                self.pictures.too_large.get_or_insert(error);
                return None;
            }
        };
        let file = part.rsplit('/').next().unwrap_or(part);
        let stem = file.rsplit_once('.').map_or(file, |(stem, _)| stem);
        let own_extension = file.rsplit_once('.').map_or("bin", |(_, extension)| extension);
        let mut original = None;
        let mut made_of = |bytes, is_whole| {
            let is_cropped = !crop.is_none();
            original = Some(Box::new(Original { name: file.to_owned(), bytes, is_whole, is_cropped }));
        };
        let (bytes, extension, shown) = match sort(&bytes) {
            Sort::Shown(extension) if crop.is_none() => (bytes, extension, true),
            Sort::Shown(extension) => {
                match ImageFormat::from_extension(extension).and_then(|format| turned(&bytes, format, crop)) {
                    Some((bytes, extension)) => (bytes, extension, true),
                    None => {
                        self.diagnostics.images.crops.push(self.place.paragraph);
                        (bytes, extension, true)
                    }
                }
            }
            Sort::Turned(format) => match turned(&bytes, format, crop) {
                Some((turned, extension)) => {
                    self.diagnostics.images.converted.push(self.place.paragraph);
                    made_of(bytes, true);
                    (turned, extension, true)
                }
                None => (bytes, own_extension, false),
            },
            Sort::Metafile => match metafile::draw_part(&bytes, crop.shares()) {
                Some(drawing) => {
                    made_of(bytes, drawing.missing.is_empty());
                    for what in drawing.missing {
                        self.diagnostics.images.undrawn.add(self.place.paragraph, what);
                    }
                    self.diagnostics.images.drawn.push(self.place.paragraph);
                    (drawing.svg, "svg", true)
                }
                None => (bytes, own_extension, false),
            },
            Sort::Other => (bytes, own_extension, false),
        };
        let plain = format!("{stem}.{extension}");
        let mut name = plain.clone();
        while !self.pictures.names.insert(name.clone()) {
            let number = self.pictures.numbers.entry(plain.clone()).or_insert(1);
            *number += 1;
            name = format!("{stem}-{number}.{extension}");
        }
        let media = self.doc.add_media(name, bytes);
        if let Some(made) = self.doc.media.last_mut() {
            made.original = original;
        }
        Some((media, shown))
    }

    /// The limit that a picture went over, if one did.
    pub(super) fn picture_error(&mut self) -> Option<PackageError> {
        self.pictures.too_large.take()
    }
}

/// What bytes are, by how they begin: names of parts are often wrong.
fn sort(bytes: &[u8]) -> Sort {
    match picture::Kind::of(bytes) {
        Some(picture::Kind::Bmp) => Sort::Turned(ImageFormat::Bmp),
        Some(picture::Kind::Tiff) => Sort::Turned(ImageFormat::Tiff),
        Some(kind) => Sort::Shown(kind.extensions()[0]),
        None if metafile::is_metafile(bytes) => Sort::Metafile,
        None => Sort::Other,
    }
}

/// Decodes a picture, cuts it, and encodes it as what browsers show.
fn turned(bytes: &[u8], format: ImageFormat, crop: Crop) -> Option<(Vec<u8>, &'static str)> {
    let image = picture::decoder(bytes, format).decode().ok()?;
    let [left, top, right, bottom] = crop.0.map(u64::from);
    let part = |whole: u32, before: u64, after: u64| {
        let start = u64::from(whole) * before / 100_000;
        let length = u64::from(whole) * (100_000 - before - after) / 100_000;
        (start as u32, (length as u32).max(1))
    };
    let image = if crop.is_none() {
        image
    } else {
        let ((x, width), (y, height)) = (part(image.width(), left, right), part(image.height(), top, bottom));
        image.crop_imm(x, y, width, height)
    };
    let (to, extension) = if format == ImageFormat::Jpeg { (ImageFormat::Jpeg, "jpg") } else { (ImageFormat::Png, "png") };
    let image = match image {
        DynamicImage::ImageRgb32F(_) | DynamicImage::ImageRgba32F(_) => DynamicImage::ImageRgba8(image.to_rgba8()),
        image => image,
    };
    let mut out = Cursor::new(Vec::new());
    image.write_to(&mut out, to).ok()?;
    Some((out.into_inner(), extension))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn pictures_are_cut_and_turned() {
        let mut bmp = Cursor::new(Vec::new());
        DynamicImage::new_rgb8(40, 20).write_to(&mut bmp, ImageFormat::Bmp).unwrap();
        let bmp = bmp.into_inner();
        assert_eq!(sort(&bmp), Sort::Turned(ImageFormat::Bmp));
        let (png, extension) = turned(&bmp, ImageFormat::Bmp, Crop::of([25_000, 0, 25_000, 50_000])).unwrap();
        assert_eq!((sort(&png), extension), (Sort::Shown("png"), "png"));
        let size = imagesize::blob_size(&png).unwrap();
        assert_eq!((size.width, size.height), (20, 10));
        assert_eq!(sort(&[1, 0, 0, 0]), Sort::Other);
    }
}
