//! Pictures: where they go, how large they are, and whether they are there at all.

use super::svg;
use crate::conversion::{OutputFile, Surroundings};
use crate::document::{Document, Finding, Kind, NodeId, Presence, Step, Text};
use crate::map::HashMap;
use crate::profile::{ImagePlace, Profile};
use crate::refine;
use crate::shared::SharedPicture;
use std::path::{Path, PathBuf};

/// A picture file that was read once, however many nodes show it.
struct Picture {
    bytes: Vec<u8>,
    size: Option<(usize, usize)>,
    /// Its address in the output; `None` where it stays.
    address: Option<String>,
}

/// What was done about the pictures of a document.
#[derive(Debug, Default)]
pub(crate) struct Placed {
    /// Files that go with the output.
    pub(crate) files: Vec<OutputFile>,
    /// Drawings that were made safe and are part of the page now.
    pub(crate) safe: Vec<NodeId>,
    /// Files beside the document that were looked at, or that are not there.
    pub(crate) uses: Vec<PathBuf>,
}

/// Puts the pictures of a document where the profile wants them.
pub(crate) fn place(doc: &mut Document, profile: &Profile, surroundings: &Surroundings<'_>) -> Placed {
    if doc.media.is_empty() && !doc.may_hold(Presence::PICTURES) {
        return Placed::default();
    }
    // Those that are in the document still.
    let image = |step| match step {
        Step::Enter(id) => match doc.kind(id) {
            Kind::Image { src, alt } => Some((id, src, alt)),
            _ => None,
        },
        Step::Leave(_) => None,
    };
    let images: Vec<(NodeId, Text, Text)> =
        refine::tops(doc).into_iter().flat_map(|top| doc.walk(top).filter_map(image).collect::<Vec<_>>()).collect();
    if profile.images.place == ImagePlace::Drop {
        drop_all(doc, &images);
        return Placed::default();
    }
    let mut media = HashMap::with_capacity_and_hasher(doc.media.len(), Default::default());
    for (index, file) in doc.media.iter().enumerate() {
        media.entry(file.name.clone()).or_insert(index);
    }
    let mut gallery = Gallery {
        profile,
        surroundings,
        media,
        pictures: HashMap::default(),
        names: HashMap::default(),
        placed: Placed::default(),
    };
    for (id, src, alt) in images {
        if alt.is_empty() && !doc.attributes(id).other.iter().any(|(name, _)| doc.text(*name) == "role") {
            let place = doc.place(id);
            doc.find(
                Finding::advice("image.no-words", "a picture has no words for those who can't see it")
                    .at(place)
                    .hint("write them between the brackets, or leave it if the picture is only decoration"),
            );
        }
        gallery.place_one(doc, id, src, alt);
    }
    gallery.place_linked(doc);
    gallery.placed
}

fn drop_all(doc: &mut Document, images: &[(NodeId, Text, Text)]) {
    for &(id, src, alt) in images {
        let (place, src) = (doc.place(id), doc.text(src).to_owned());
        doc.find(Finding::changed("image.dropped", "a picture was left out; its words are kept").at(place).losing(src));
        doc.set_kind(id, Kind::Text(alt));
        if doc.node(id).has_attributes() {
            *doc.attributes_mut(id) = crate::document::Attributes::default();
        }
    }
}

struct Gallery<'a> {
    profile: &'a Profile,
    surroundings: &'a Surroundings<'a>,
    /// Where in the document the files are that it holds, by their names.
    media: HashMap<String, usize>,
    /// By path in the file system. `None` for those that can't be used.
    pictures: HashMap<PathBuf, Option<Picture>>,
    /// Names that are taken in the folder of pictures.
    names: HashMap<String, usize>,
    placed: Placed,
}

impl Gallery<'_> {
    /// Files of the document that links lead to stand beside the page, too.
    fn place_linked(&mut self, doc: &mut Document) {
        if doc.media.is_empty() || self.surroundings.output.is_none() {
            return;
        }
        let links: Vec<(NodeId, usize)> = refine::tops(doc)
            .into_iter()
            .flat_map(|top| doc.walk(top).collect::<Vec<_>>())
            .filter_map(|step| match step {
                Step::Enter(id) => match doc.kind(id) {
                    Kind::Link { href } => self.media.get(doc.text(href)).map(|index| (id, *index)),
                    _ => None,
                },
                Step::Leave(_) => None,
            })
            .collect();
        for (id, index) in links {
            let path = PathBuf::from(&doc.media[index].name);
            if !self.pictures.contains_key(&path) {
                let mut picture = Picture { size: None, bytes: doc.media[index].bytes.clone(), address: None };
                let name = doc.media[index].name.clone();
                self.put_beside(&mut picture, &name);
                self.pictures.insert(path.clone(), Some(picture));
            }
            if let Some(Some(Picture { address: Some(address), .. })) = self.pictures.get(&path) {
                let href = doc.intern(address);
                doc.set_kind(id, Kind::Link { href });
            }
        }
    }

    /// Places a picture that the document holds itself.
    fn place_media(&mut self, doc: &mut Document, id: NodeId, alt: Text, index: usize) {
        let name = doc.media[index].name.clone();
        let path = PathBuf::from(&name);
        if !self.pictures.contains_key(&path) {
            let bytes = doc.media[index].bytes.clone();
            let mut picture = Picture { size: size(&bytes), bytes, address: None };
            let safe = if is_svg(&name) && !self.profile.html.trust {
                svg::clean(&picture.bytes).map(|clean| picture.bytes = clean)
            } else {
                Ok(())
            };
            if let Err(message) = &safe {
                let place = doc.place(id);
                doc.find(
                    Finding::lost("image.scriptable", format!("a drawing can't be made safe: {message}; it was left out"))
                        .at(place),
                );
            }
            let embeds = self.profile.images.place == ImagePlace::Embed || self.surroundings.output.is_none();
            if embeds {
                picture.address = media_type(&name).map(|kind| format!("data:{kind};base64,{}", base64(&picture.bytes)));
            } else {
                self.put_beside(&mut picture, &name);
            }
            self.pictures.insert(path.clone(), safe.is_ok().then_some(picture));
        }
        self.show(doc, id, alt, &path);
    }

    fn place_one(&mut self, doc: &mut Document, id: NodeId, src: Text, alt: Text) {
        let address = doc.text(src).to_owned();
        if let Some(&index) = self.media.get(&address) {
            return self.place_media(doc, id, alt, index);
        }
        let (Some(folder), Some(local)) = (self.surroundings.folder, local_path(&address)) else { return };
        let path = folder.join(&local);
        if !self.pictures.contains_key(&path) {
            self.placed.uses.push(path.clone());
            let found = self.load(&path, &local);
            if let Err(finding) = &found {
                let place = doc.place(id);
                doc.find(Finding::clone(finding).at(place));
            }
            self.pictures.insert(path.clone(), found.ok());
        }
        self.show(doc, id, alt, &path);
    }

    /// Gives a node the address and the size of its picture.
    fn show(&mut self, doc: &mut Document, id: NodeId, alt: Text, path: &Path) {
        let Some(Some(picture)) = self.pictures.get(path) else { return };
        if let Some((width, height)) = picture.size.filter(|_| self.profile.images.sizes) {
            set_size(doc, id, width, height);
        }
        if let Some(address) = &picture.address {
            let src = doc.intern(address);
            doc.set_kind(id, Kind::Image { src, alt });
            if address.starts_with("data:image/svg+xml;") {
                self.placed.safe.push(id);
            }
        }
    }

    /// Looks at a picture and decides where it goes.
    fn load(&mut self, path: &Path, local: &str) -> Result<Picture, Box<Finding>> {
        let stays = self.surroundings.mirrored && self.profile.images.place == ImagePlace::Folder;
        if let Some(shared) = self.surroundings.shared.filter(|_| stays) {
            // Whoever publishes the folder brings the file to the page.
            let known = shared.picture(path, || self.read(path, local).map(|(known, _)| SharedPicture { size: known.size }))?;
            return Ok(Picture { bytes: Vec::new(), size: known.size, address: None });
        }
        let (mut picture, real) = self.read(path, local)?;
        self.settle(&mut picture, &real, local);
        Ok(picture)
    }

    /// Reads a picture, and tells where it really is.
    fn read(&self, path: &Path, local: &str) -> Result<(Picture, PathBuf), Box<Finding>> {
        let missing = || {
            let finding = Finding::advice("image.missing", format!("there is no picture {local}"));
            Box::new(finding.hint("check its path; it counts from the folder of the document"))
        };
        let real = std::fs::canonicalize(path).map_err(|_| missing())?;
        let root = self.surroundings.root.or(self.surroundings.folder).unwrap_or(Path::new("."));
        let real_root = std::fs::canonicalize(root).map_err(|_| missing())?;
        if !real.starts_with(&real_root) {
            let message = format!("the picture {local} is outside of the folder of the source; it was not read");
            return Err(Box::new(Finding::changed("image.outside", message).hint("move it into the folder")));
        }
        let length = std::fs::metadata(&real).ok().filter(std::fs::Metadata::is_file).ok_or_else(missing)?.len();
        if length > self.profile.limits.image {
            let message = format!("the picture {local} has {length} bytes, more than limits.image allows; it was not read");
            return Err(Box::new(Finding::changed("image.too-large", message)));
        }
        let bytes = std::fs::read(&real).map_err(|_| missing())?;
        let mut picture = Picture { size: size(&bytes), bytes, address: None };
        if is_svg(local) && !self.profile.html.trust {
            picture.bytes = svg::clean(&picture.bytes).map_err(|message| {
                let message = format!("the picture {local} can't be made safe: {message}; it was not copied");
                Box::new(Finding::lost("image.scriptable", message))
            })?;
        }
        Ok((picture, real))
    }

    fn settle(&mut self, picture: &mut Picture, real: &Path, local: &str) {
        if self.profile.images.place == ImagePlace::Embed {
            if let Some(kind) = media_type(local) {
                picture.address = Some(format!("data:{kind};base64,{}", base64(&picture.bytes)));
            }
            return;
        }
        let Some(output) = self.surroundings.output else { return };
        if self.surroundings.mirrored {
            self.placed.files.push(OutputFile { path: PathBuf::from(local), bytes: std::mem::take(&mut picture.bytes) });
            return;
        }
        // In the folder of the source the page reaches the picture where it is.
        let same = std::fs::canonicalize(output)
            .ok()
            .zip(self.surroundings.folder.and_then(|folder| std::fs::canonicalize(folder).ok()));
        if same.is_some_and(|(output, folder)| output == folder) {
            return;
        }
        let file = real.file_name().map_or_else(|| "picture".to_owned(), |name| name.to_string_lossy().into_owned());
        self.put_beside(picture, &file);
    }

    /// Puts a picture into the folder beside the page.
    fn put_beside(&mut self, picture: &mut Picture, file: &str) {
        let file = file.to_owned();
        let count = self.names.entry(file.to_lowercase()).or_insert(0);
        *count += 1;
        let file = match (*count, file.rsplit_once('.')) {
            (1, _) => file,
            (count, Some((stem, extension))) => format!("{stem}-{count}.{extension}"),
            (count, None) => format!("{file}-{count}"),
        };
        let folder = self.profile.images.folder.replace("{name}", self.surroundings.name);
        // The setting names a folder beside the page and nothing else.
        let folder: PathBuf =
            Path::new(&folder).components().filter(|part| matches!(part, std::path::Component::Normal(_))).collect();
        let path = folder.join(file);
        let parts: Vec<String> = path.iter().map(|part| encode(&part.to_string_lossy())).collect();
        picture.address = Some(parts.join("/"));
        self.placed.files.push(OutputFile { path, bytes: std::mem::take(&mut picture.bytes) });
    }
}

/// The path that an address names, where it is one of a file beside the document.
fn local_path(address: &str) -> Option<String> {
    let path = address.split(['?', '#']).next().unwrap_or_default();
    let has_scheme = path.split_once(':').is_some_and(|(scheme, _)| {
        scheme.len() > 1 && scheme.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'+' | b'-' | b'.'))
    });
    if path.is_empty() || path.starts_with('/') || path.starts_with('\\') || has_scheme {
        return None;
    }
    let decoded = percent_encoding::percent_decode_str(path).decode_utf8().ok()?.into_owned();
    (!decoded.contains('\0') && !decoded.starts_with('/')).then_some(decoded)
}

/// What stands for a file name in an address.
fn encode(name: &str) -> String {
    const SET: &percent_encoding::AsciiSet = &percent_encoding::CONTROLS.add(b' ').add(b'%').add(b'?').add(b'#').add(b':');
    percent_encoding::utf8_percent_encode(name, SET).to_string()
}

fn is_svg(name: &str) -> bool {
    Path::new(name).extension().is_some_and(|extension| extension.eq_ignore_ascii_case("svg"))
}

fn media_type(name: &str) -> Option<&'static str> {
    let extension = Path::new(name).extension()?.to_string_lossy().to_lowercase();
    Some(match extension.as_str() {
        "png" => "image/png",
        "jpg" | "jpeg" => "image/jpeg",
        "gif" => "image/gif",
        "webp" => "image/webp",
        "avif" => "image/avif",
        "bmp" => "image/bmp",
        "svg" => "image/svg+xml",
        _ => return None,
    })
}

/// Width and height in CSS pixels.
fn size(bytes: &[u8]) -> Option<(usize, usize)> {
    imagesize::blob_size(bytes)
        .ok()
        .map(|size| (size.width, size.height))
        .or_else(|| svg::size(bytes))
        .filter(|&(width, height)| (1..100_000).contains(&width) && (1..100_000).contains(&height))
}

fn set_size(doc: &mut Document, id: NodeId, width: usize, height: usize) {
    let has_size = doc.attributes(id).other.iter().any(|(name, _)| matches!(doc.text(*name), "width" | "height"));
    if has_size {
        return;
    }
    for (name, value) in [("width", width), ("height", height)] {
        let pair = (doc.intern(name), doc.intern(&value.to_string()));
        doc.attributes_mut(id).other.push(pair);
    }
}

/// Base 64 with padding (RFC 4648, section 4).
fn base64(bytes: &[u8]) -> String {
    const LETTERS: &[u8; 64] = b"ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    let letter = |group: u32, index: u32| LETTERS[(group >> (18 - 6 * index)) as usize & 63];
    let letters = |[first, second, third]: [u8; 3]| {
        let group = u32::from(first) << 16 | u32::from(second) << 8 | u32::from(third);
        [letter(group, 0), letter(group, 1), letter(group, 2), letter(group, 3)]
    };
    let (groups, rest) = bytes.as_chunks();
    let mut out = Vec::with_capacity(bytes.len().div_ceil(3) * 4);
    groups.iter().for_each(|group| out.extend_from_slice(&letters(*group)));
    match *rest {
        [first] => out.extend_from_slice(&[&letters([first, 0, 0])[..2], b"=="].concat()),
        [first, second] => out.extend_from_slice(&[&letters([first, second, 0])[..3], b"="].concat()),
        _ => {}
    }
    String::from_utf8(out).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn base64_pads_what_is_no_group_of_three() {
        let words = ["", "f", "fo", "foo", "foob", "fooba", "foobar"].map(|word| base64(word.as_bytes()));
        assert_eq!(words, ["", "Zg==", "Zm8=", "Zm9v", "Zm9vYg==", "Zm9vYmE=", "Zm9vYmFy"], "RFC 4648, section 10");
    }
}
