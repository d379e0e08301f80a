//! Pictures: where they go, how large they are, and whether they are there at all.

use crate::cache::SharedPicture;
use crate::context::{Context, OutputFile};
use crate::document::{Document, Finding, Kind, KindSet, NodeId, Step, Text};
use crate::drawing;
use crate::fast_hash::HashMap;
use crate::file_name::{self, plain_stem};
use crate::formats::{Format, Images};
use crate::links::LinkTarget;
use crate::media::{self, MediaSource, There, within};
use crate::picture;
use crate::profile::{ImagePlace, Profile};
use std::path::{Component, Path, PathBuf};

/// A picture file that was read once, however many nodes show it.
struct Picture {
    bytes: Vec<u8>,
    kind: picture::Kind,
    size: Option<(usize, usize)>,
    /// Its address in the output; `None` where it stays.
    address: Option<String>,
    /// What was left out of a drawing.
    left_out: Option<String>,
    /// Whether it was made of another file, and which words that shows and this one does not.
    made: Option<String>,
}

/// What was done about the pictures of a document.
#[derive(Debug, Default)]
pub struct Placed {
    /// Files that go with the output.
    pub files: Vec<OutputFile>,
    /// Drawings that were made safe and are part of the page now.
    pub safe: Vec<NodeId>,
    /// Images whose files are not there.
    pub missing: Vec<NodeId>,
    /// Files that were looked at, or that are not there; from the root of the source.
    pub uses: Vec<PathBuf>,
}

/// Puts the pictures of a document where the profile wants them.
pub(crate) fn place(doc: &mut Document, writes: Format, profile: &Profile, context: &Context<'_>) -> Placed {
    let names_files = writes.descriptor().images == Images::ByName && profile.images.place != ImagePlace::Embed;
    if doc.media.is_empty() && !doc.may_hold(KindSet::PICTURES) {
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
        doc.roots().into_iter().flat_map(|top| doc.walk(top).filter_map(image).collect::<Vec<_>>()).collect();
    if profile.images.place == ImagePlace::Drop {
        drop_all(doc, &images);
        return Placed::default();
    }
    let holds = writes.descriptor().images == Images::Held;
    if names_files || holds {
        take_out_of_addresses(doc, &images);
    }
    let mut gallery = Gallery {
        profile,
        context,
        names_files,
        holds,
        shows: writes.descriptor().shows,
        held: HashMap::default(),
        unwritten: None,
        pictures: HashMap::default(),
        names: HashMap::default(),
        placed: Placed::default(),
        failed: Vec::new(),
    };
    for (id, src, alt) in images {
        if alt.is_empty() && !doc.attributes(id).other.iter().any(|(name, _)| doc.text(*name) == "role") {
            let place = doc.place(id);
            doc.push_finding(
                Finding::advice("image.alt", "image has no alt text")
                    .at(place)
                    .hint("describe what the image shows in its alt text; leave it empty if the image is decoration"),
            );
        }
        gallery.place_one(doc, id, src, alt);
    }
    gallery.place_linked(doc);
    if let Some((count, first)) = gallery.unwritten {
        let message = format!("images are named, and their files were not written: {count}");
        let finding = Finding::lost("image.no-file", message).at(doc.place(first));
        doc.push_finding(finding.hint("write to a file with -o to get them beside it, or set images.place=embed"));
    }
    for (path, why) in std::mem::take(&mut gallery.failed) {
        doc.push_finding(Finding::lost("image.store", format!("the image {} could not be stored: {why}", path.display())));
    }
    gallery.placed
}

/// The file of the document that a node shows or leads to.
fn held(doc: &Document, id: NodeId) -> Option<usize> {
    doc.media_of.get(id).map(|media| media.0 as usize).filter(|&index| index < doc.media.len())
}

/// Takes pictures out of addresses that hold them: they become files of the document.
fn take_out_of_addresses(doc: &mut Document, images: &[(NodeId, Text, Text)]) {
    let mut taken: HashMap<Text, crate::document::MediaId> = HashMap::default();
    for &(id, src, _) in images {
        if doc.media_of.get(id).is_some() || !is_data(doc.text(src)) {
            continue;
        }
        let media = match taken.get(&src) {
            Some(media) => *media,
            None => {
                let Some(bytes) = picture::bytes_of_data(doc.text(src)) else { continue };
                let number = taken.len() + 1;
                let media = doc.add_media(format!("image-{number}"), bytes);
                taken.insert(src, media);
                media
            }
        };
        doc.media_of.set(id, media);
    }
}

/// Whether an address holds what it stands for (RFC 2397).
fn is_data(address: &str) -> bool {
    address.trim_start().get(..5).is_some_and(|scheme| scheme.eq_ignore_ascii_case("data:"))
}

fn drop_all(doc: &mut Document, images: &[(NodeId, Text, Text)]) {
    for &(id, src, alt) in images {
        let (place, src) = (doc.place(id), doc.text(src).to_owned());
        doc.push_finding(Finding::changed("image.dropped", "an image was left out; its alt text is kept").at(place).losing(src));
        doc.set_kind(id, Kind::Text(alt));
        if doc.node(id).has_attributes() {
            *doc.attributes_mut(id) = crate::document::Attributes::default();
        }
    }
}

struct Gallery<'a> {
    profile: &'a Profile,
    context: &'a Context<'a>,
    /// Whether images are shown by the names of their files, whether or not there is a place for those.
    names_files: bool,
    /// Whether images become part of the document.
    holds: bool,
    /// The kinds of images that the format shows; all where there are none.
    shows: &'static [picture::Kind],
    /// Images that did, by their paths from the root.
    held: HashMap<PathBuf, Option<crate::document::MediaId>>,
    /// How many images are named whose files go nowhere, and the first of them.
    unwritten: Option<(usize, NodeId)>,
    /// By path from the root, or by the name of a file of the document. `None` for those that can't be used.
    pictures: HashMap<PathBuf, Option<Picture>>,
    /// Names that are taken in the folder of pictures.
    names: HashMap<String, usize>,
    placed: Placed,
    /// Files that could not be stored, and why.
    failed: Vec<(PathBuf, String)>,
}

impl Gallery<'_> {
    /// Files of the document that links lead to, for no browser shows them: they stand beside the page where that is asked for.
    fn place_linked(&mut self, doc: &mut Document) {
        if doc.media.is_empty() {
            return;
        }
        let links: Vec<(NodeId, usize)> = doc
            .roots()
            .into_iter()
            .flat_map(|top| doc.walk(top).collect::<Vec<_>>())
            .filter_map(|step| match step {
                Step::Enter(id) => match doc.kind(id) {
                    Kind::Link { .. } => held(doc, id).map(|index| (id, index)),
                    _ => None,
                },
                Step::Leave(_) => None,
            })
            .collect();
        let mut external: HashMap<usize, String> = HashMap::default();
        for (id, index) in links {
            if self.holds || !self.profile.images.keep_unknown || !self.context.has_store() {
                // Its words stay; the reader of the document has reported what it is.
                doc.unwrap(id);
                continue;
            }
            let address = match external.get(&index) {
                Some(address) => address.clone(),
                None => {
                    let media = &doc.media[index];
                    let address = self.put_beside(media.bytes.clone(), file_name_of_unknown(&media.name, &media.bytes));
                    external.insert(index, address.clone());
                    address
                }
            };
            let href = doc.intern(&address);
            doc.set_kind(id, Kind::Link { href });
        }
    }

    /// Places a picture that the document holds itself.
    fn place_media(&mut self, doc: &mut Document, id: NodeId, alt: Text, index: usize) {
        let name = doc.media[index].name.clone();
        // No file beside the document has such a path.
        let path = PathBuf::from(format!("\0{index}"));
        if !self.pictures.contains_key(&path) {
            let picture = match self.identify(&doc.media[index].bytes, "the drawing") {
                Some(Ok(mut picture)) => {
                    self.make_visible(&mut picture);
                    self.keep_original(doc, index);
                    let has_store = self.context.has_store();
                    if self.names_files && !has_store {
                        let file = file_name_of(picture.kind, &name);
                        picture.address = Some(self.address_beside(file));
                        self.unwritten.get_or_insert((0, id)).0 += 1;
                    } else if self.profile.images.place == ImagePlace::Embed || !has_store {
                        picture.address = data_address(&picture);
                    } else {
                        let file = file_name_of(picture.kind, &name);
                        picture.address = Some(self.put_beside(std::mem::take(&mut picture.bytes), file));
                    }
                    Some(picture)
                }
                Some(Err(finding)) => {
                    let place = doc.place(id);
                    doc.push_finding(finding.at(place));
                    None
                }
                None => {
                    let place = doc.place(id);
                    let message = format!("{name} is not an image; it was left out");
                    doc.push_finding(Finding::lost("image.unknown", message).at(place));
                    None
                }
            };
            self.pictures.insert(path.clone(), picture);
        }
        self.show(doc, id, alt, &path, "the drawing");
    }

    /// Puts the file beside the page that a picture shows in part only, where that is asked for.
    fn keep_original(&mut self, doc: &Document, index: usize) {
        let original = doc.media[index].original.as_ref().filter(|original| !original.is_whole);
        if let Some(original) = original.filter(|_| self.profile.images.keep_unknown && self.context.has_store()) {
            self.put_beside(original.bytes.clone(), file_name_of_unknown(&original.name, &original.bytes));
        }
    }

    /// What the program that converts says about the address of an image. Whether it is done with.
    fn resolve_address(&self, doc: &mut Document, id: NodeId, address: &str, alt: Text) -> bool {
        let Some(links) = self.context.links else { return false };
        let place = doc.place(id);
        match links.resolve_image(address, place) {
            LinkTarget::Unchanged => false,
            LinkTarget::Rewritten(address) => {
                let src = doc.intern(&address);
                doc.set_kind(id, Kind::Image { src, alt });
                true
            }
            LinkTarget::Missing { nearest } => {
                let hint = nearest.map_or_else(|| "correct the address".to_owned(), |near| format!("perhaps {near} is meant"));
                let finding = Finding::advice("image.missing", format!("image not found: {address}"));
                doc.push_finding(finding.at(place).hint(hint));
                true
            }
        }
    }

    fn place_one(&mut self, doc: &mut Document, id: NodeId, src: Text, alt: Text) {
        let address = doc.text(src).to_owned();
        if let Some(index) = held(doc, id) {
            if !self.holds {
                self.place_media(doc, id, alt, index);
            }
            return;
        }
        if self.holds {
            return self.take_in(doc, id, &address);
        }
        if self.resolve_address(doc, id, &address, alt) {
            return self.placed.missing.push(id);
        }
        let (Some(root), Some(local)) = (self.context.media, local_path(&address)) else {
            return self.placed.missing.push(id);
        };
        let within = within(self.context.folder, &local);
        // What is outside has no path from the root; it is reported once like all others.
        let path = within.clone().unwrap_or_else(|| PathBuf::from(&local));
        if !self.pictures.contains_key(&path) {
            let found = match within {
                Some(path) => {
                    self.placed.uses.push(path.clone());
                    self.load(root, &path, &local)
                }
                None => Err(outside(&local)),
            };
            if let Err(finding) = &found {
                let place = doc.place(id);
                doc.push_finding(Finding::clone(finding).at(place));
            }
            self.pictures.insert(path.clone(), found.ok());
        }
        self.show(doc, id, alt, &path, &local);
    }

    /// Makes the file of an image part of the document, where it is there.
    fn take_in(&mut self, doc: &mut Document, id: NodeId, address: &str) {
        let (Some(root), Some(local)) = (self.context.media, local_path(address)) else { return };
        let within = within(self.context.folder, &local);
        let path = within.clone().unwrap_or_else(|| PathBuf::from(&local));
        if !self.held.contains_key(&path) {
            let found = match within {
                Some(path) => {
                    self.placed.uses.push(path.clone());
                    self.read(root, &path, &local)
                }
                None => Err(outside(&local)),
            };
            let media = match found {
                Ok(mut picture) => {
                    if let Some(left_out) = picture.left_out.take() {
                        let place = doc.place(id);
                        doc.push_finding(left_out_of(&local, &left_out).at(place));
                    }
                    let name = path.file_name().map_or_else(|| "image".into(), |name| name.to_string_lossy().into_owned());
                    Some(doc.add_media(name, picture.bytes))
                }
                Err(finding) => {
                    let place = doc.place(id);
                    doc.push_finding(finding.at(place));
                    None
                }
            };
            self.held.insert(path.clone(), media);
        }
        if let Some(media) = self.held.get(&path).copied().flatten() {
            doc.media_of.set(id, media);
        }
    }

    /// Gives a node the address and the size of its picture.
    fn show(&mut self, doc: &mut Document, id: NodeId, alt: Text, path: &Path, name: &str) {
        let Some(Some(picture)) = self.pictures.get_mut(path) else {
            return self.placed.missing.push(id);
        };
        if let Some(left_out) = picture.left_out.take() {
            let place = doc.place(id);
            doc.push_finding(left_out_of(name, &left_out).at(place));
        }
        if let Some(words) = picture.made.as_mut().map(std::mem::take).filter(|words| !words.is_empty()) {
            let place = doc.place(id);
            let message = format!("{name} became a picture for print; the text in it is not shown");
            let finding = Finding::lost("image.drawn", message).at(place).losing(words);
            doc.push_finding(finding.hint("save the drawing as PDF or PNG, with its text as outlines, and show that"));
        }
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
    fn load(&mut self, root: &dyn MediaSource, path: &Path, local: &str) -> Result<Picture, Box<Finding>> {
        let stays = self.context.mirrored && self.profile.images.place == ImagePlace::Folder && self.shows.is_empty();
        if let Some(shared) = self.context.shared.filter(|_| stays) {
            // Whoever publishes the folder brings the file to the page.
            let known = shared.picture(path, || {
                self.read(root, path, local).map(|known| SharedPicture {
                    kind: known.kind,
                    size: known.size,
                    left_out: known.left_out.map(Into::into),
                })
            })?;
            let left_out = known.left_out.map(|left_out| left_out.to_string());
            return Ok(Picture { bytes: Vec::new(), kind: known.kind, size: known.size, address: None, left_out, made: None });
        }
        let mut picture = self.read(root, path, local)?;
        self.make_visible(&mut picture);
        self.resolve(&mut picture, root, path, local);
        Ok(picture)
    }

    /// Makes a picture of a kind that the format shows, where there is a place for it.
    fn make_visible(&self, picture: &mut Picture) {
        let is_placed = self.context.has_store() && self.profile.images.place == ImagePlace::Folder;
        if self.shows.is_empty() || self.shows.contains(&picture.kind) || !is_placed {
            return;
        }
        let is_drawing = picture.kind == picture::Kind::Svg;
        let made = if is_drawing { picture::png::of_drawing(&picture.bytes) } else { picture::png::of_picture(&picture.bytes) };
        if let Some(made) = made {
            picture.made = Some(if is_drawing { drawing::words(&picture.bytes) } else { String::new() });
            (picture.bytes, picture.kind) = (made, picture::Kind::Png);
        }
    }

    /// Reads a picture that may be shown.
    fn read(&self, root: &dyn MediaSource, path: &Path, local: &str) -> Result<Picture, Box<Finding>> {
        let missing = || {
            let finding = Finding::advice("image.missing", format!("image not found: {local}"));
            Box::new(finding.hint("check its path; it counts from the folder of the document"))
        };
        let length = match root.there(path) {
            There::File(length) => length,
            There::Outside => return Err(outside(local)),
            There::Nothing => return Err(missing()),
            There::Folder | There::Special => return Err(no_picture(local, "no file")),
        };
        let limit = self.profile.limits.image;
        if length > limit {
            let message = format!("image {local} has {length} bytes, more than limits.image; it was not read");
            return Err(Box::new(Finding::changed("image.too-large", message)));
        }
        let bytes = root.read(path, limit).map_err(|_| missing())?;
        let picture = self.identify(&bytes, &format!("image {local}")).ok_or_else(|| {
            no_picture(local, crate::signature::not_text(&bytes, false).unwrap_or("text, or something unknown"))
        })??;
        if !self.context.files(0).may_show(root, path) {
            let message = format!("image {local} is hidden, ignored or excluded; it was not read");
            return Err(Box::new(
                Finding::changed("image.hidden", message).hint("move or rename it, or change the ignore file or publish.exclude"),
            ));
        }
        let is_copied = self.context.mirrored && self.profile.images.place == ImagePlace::Folder;
        if is_copied && !picture.kind.fits(local) {
            let kind = picture.kind.extensions()[0];
            let message = format!("image {local} has content that does not match its extension; it was not copied");
            return Err(Box::new(
                Finding::changed("image.name", message).hint(format!("rename it so that it ends with .{kind}")),
            ));
        }
        Ok(picture)
    }

    /// What bytes are, where they are a picture; drawings are made safe.
    fn identify(&self, bytes: &[u8], name: &str) -> Option<Result<Picture, Box<Finding>>> {
        let kind = picture::Kind::of(bytes)?;
        let mut picture =
            Picture { size: picture::size(bytes), bytes: Vec::new(), kind, address: None, left_out: None, made: None };
        if kind != picture::Kind::Svg || bool::from(self.profile.formats.html.trust) {
            picture.bytes = bytes.to_vec();
            return Some(Ok(picture));
        }
        Some(match drawing::clean(bytes) {
            Ok(clean) => {
                (picture.bytes, picture.left_out) = (clean.bytes, clean.left_out);
                Ok(picture)
            }
            Err(message) => {
                let message = format!("{name} can't be sanitized: {message}; it was left out");
                Err(Box::new(Finding::lost("image.scriptable", message)))
            }
        })
    }

    fn resolve(&mut self, picture: &mut Picture, root: &dyn MediaSource, path: &Path, local: &str) {
        if self.profile.images.place == ImagePlace::Embed {
            picture.address = data_address(picture);
            return;
        }
        if !self.context.has_store() {
            return;
        }
        if picture.made.is_some() {
            let stem = Path::new(local).file_stem().map_or_else(|| "image".into(), |stem| stem.to_string_lossy());
            let name = format!("{}-picture.png", plain_stem(&stem));
            if self.context.mirrored {
                let path = Path::new(local).with_file_name(&name);
                picture.address = Some(path.to_string_lossy().replace('\\', "/"));
                self.placed.files.push(OutputFile { path, bytes: std::mem::take(&mut picture.bytes) });
            } else {
                picture.address = Some(self.put_beside(std::mem::take(&mut picture.bytes), name));
            }
            return;
        }
        if self.context.mirrored {
            self.placed.files.push(OutputFile { path: PathBuf::from(local), bytes: std::mem::take(&mut picture.bytes) });
            return;
        }
        // In the folder of the source the page reaches the picture where it is.
        let folder = |root: &Path| root.join(self.context.folder.unwrap_or(Path::new("")));
        if root.folder().zip(self.context.output).is_some_and(|(root, output)| is_same(output, &folder(root))) {
            return;
        }
        let name = path.file_name().map_or_else(|| "picture".into(), |name| name.to_string_lossy());
        let name = file_name_of(picture.kind, &name);
        picture.address = Some(self.put_beside(std::mem::take(&mut picture.bytes), name));
    }

    /// Puts a file into the folder beside the page, and tells its address.
    fn put_beside(&mut self, bytes: Vec<u8>, file: String) -> String {
        let path = self.path_beside(file);
        if let Some(store) = self.context.store {
            match store.store(&path, bytes) {
                Ok(address) => return address,
                Err(error) => self.failed.push((path.clone(), crate::io_error::describe(&error))),
            }
        } else {
            self.placed.files.push(OutputFile { path: path.clone(), bytes });
        }
        media::address(&path)
    }

    /// The address that a file would have in the folder beside the page.
    fn address_beside(&mut self, file: String) -> String {
        media::address(&self.path_beside(file))
    }

    /// A path in the folder beside the page that no other file has.
    fn path_beside(&mut self, file: String) -> PathBuf {
        let count = self.names.entry(file.to_lowercase()).or_insert(0);
        *count += 1;
        let file = match (*count, file.rsplit_once('.')) {
            (1, _) => file,
            (count, Some((stem, extension))) => format!("{stem}-{count}.{extension}"),
            (count, None) => format!("{file}-{count}"),
        };
        let folder = self.profile.images.folder.replace("{name}", self.context.name);
        // A document without a name has nothing before its hyphen.
        let folder = if self.context.name.is_empty() { folder.trim_start_matches('-') } else { &folder };
        // The setting names a folder beside the page and nothing else.
        let parts = Path::new(folder).components().filter_map(|part| match part {
            Component::Normal(name) => Some(file_name::shortened(&name.to_string_lossy(), file_name::LONGEST_NAME).to_owned()),
            _ => None,
        });
        parts.collect::<PathBuf>().join(file)
    }
}

/// Whether two folders are the same one.
#[cfg(feature = "files")]
fn is_same(a: &Path, b: &Path) -> bool {
    crate::files::is_same(a, b)
}

/// Whether two folders are the same one.
#[cfg(not(feature = "files"))]
fn is_same(a: &Path, b: &Path) -> bool {
    a == b
}

fn outside(local: &str) -> Box<Finding> {
    let message = format!("image {local} lies outside the source folder; it was not read");
    Box::new(Finding::changed("image.outside", message).hint("move it into the folder"))
}

fn no_picture(local: &str, what: &str) -> Box<Finding> {
    let message = format!("{local} is used as an image, but it is {what}; it was not copied");
    Box::new(Finding::lost("image.no-picture", message).hint("link to it, if readers are to get the file"))
}

/// What there is to say of a drawing that has lost something.
pub(crate) fn left_out_of(name: &str, left_out: &str) -> Finding {
    Finding::changed("image.drawing", format!("{name}: scripts, external references and unknown parts were removed: {left_out}"))
        .losing(left_out.to_owned())
}

/// The name of the file of a picture: as it was, where its extension is right, else with the right one.
fn file_name_of(kind: picture::Kind, name: &str) -> String {
    let (stem, extension) = name.rsplit_once('.').unwrap_or((name, ""));
    let known = kind.extensions().iter().any(|known| known.eq_ignore_ascii_case(extension));
    format!("{}.{}", plain_stem(stem), if known { extension } else { kind.extensions()[0] })
}

/// The name of a file that is kept although nobody knows what it is: one that nothing runs.
fn file_name_of_unknown(name: &str, bytes: &[u8]) -> String {
    let stem = name.rsplit_once('.').map_or(name, |(stem, _)| stem);
    // Windows Metafile Format ([MS-WMF] 2.3.2.3) and Enhanced Metafile Format ([MS-EMF] 2.3.4.2).
    let extension = match bytes {
        [0xD7, 0xCD, 0xC6, 0x9A, ..] => "wmf",
        _ if bytes.get(40..44) == Some(b" EMF") => "emf",
        _ => "bin",
    };
    format!("{}.{extension}", plain_stem(stem))
}

/// The address that holds a picture itself (RFC 2397), for the kinds that browsers show.
fn data_address(picture: &Picture) -> Option<String> {
    let kind = Some(picture.kind).filter(|kind| *kind != picture::Kind::Tiff)?;
    Some(format!("data:{};base64,{}", kind.media_type(), picture::base64(&picture.bytes)))
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
