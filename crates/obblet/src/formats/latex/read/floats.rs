//! Figures, tables with captions, and pictures (the LaTeX documentation, "Floats"; of graphicx, caption and subcaption).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, NodeId};

/// The counter of the parts of a float.
pub(super) const PARTS: &str = "parts of a float";
/// How many the float before had.
const PARTS_BEFORE: &str = "parts of the float before";

/// What a float is, by the name of its environment.
pub(super) fn kind_of(name: &str) -> &str {
    let name = name.trim_end_matches('*');
    match name {
        _ if name.contains("table") => "table",
        "measuredfigure" => "figure",
        "algorithm2e" => "algorithm",
        _ if name.contains("figure") || matches!(name, "wrapfloat") => "figure",
        _ => name,
    }
}

/// Extensions of pictures that a document may leave out, the one that a browser shows first.
const EXTENSIONS: [&str; 8] = ["svg", "png", "jpg", "jpeg", "gif", "webp", "pdf", "eps"];

impl Reader<'_> {
    /// Begins a figure, or a table with a caption.
    pub(super) fn begin_float(&mut self, name: &str) -> NodeId {
        self.input.option();
        if name.starts_with("SC") {
            self.input.option();
        }
        if matches!(name, "wrapfigure" | "wraptable" | "subfigure" | "subtable" | "minipage") {
            if name.starts_with("wrap") {
                self.input.argument();
                self.input.option();
            }
            self.input.argument();
        }
        if !name.starts_with("sub") {
            self.counters.set(PARTS_BEFORE, self.counters.get(PARTS));
            self.counters.set(PARTS, 0);
        }
        let node = self.block(Kind::Figure);
        self.begin_part(node, false);
        node
    }

    /// `\ContinuedFloat`: the float has the number of the one before, and its parts count on.
    pub(super) fn continued_float(&mut self) {
        let float = self.environments.iter().rev().find(|one| one.kind == super::environments::Form::Float);
        let Some(kind) = float.map(|float| kind_of(&float.name).to_owned()) else { return };
        self.counters.set(PARTS, self.counters.get(PARTS_BEFORE));
        self.counters.set(&kind, self.counters.get(&kind).saturating_sub(1).max(0));
    }

    /// A label, a caption and the content of a float (the documentation of jmlr): the class puts the caption where it belongs.
    pub(super) fn float_with_caption(&mut self) {
        let (label, caption, content) = (self.input.argument(), self.input.argument(), self.input.argument());
        let at = self.at;
        self.input.push_all(content.into_iter());
        self.input.push(Sign::End, at);
        self.input.push_all(label.into_iter());
        self.input.push(Sign::Begin, at);
        self.input.push(Sign::Command("label".into()), at);
        self.input.push_all(caption.into_iter());
    }

    /// A part of a float by a command: `\subfloat[caption]{content}`, `\subcaptionbox{caption}{content}`.
    pub(super) fn part_of_float(&mut self, name: &str) {
        let has_star = self.input.take('*');
        let mut caption = self.input.option();
        if name == "subcaptionbox" {
            caption = Some(self.input.argument());
            self.skip_arguments("oo");
        } else if let Some(second) = self.input.option() {
            caption = Some(second);
        }
        let float = self.environments.iter().rev().find(|one| one.kind == super::environments::Form::Float);
        let Some(kind) = float.map(|float| kind_of(&float.name).to_owned()).filter(|_| self.takes_blocks()) else {
            // Outside of floats, it is a group like any other.
            return self.input.push_all(caption.unwrap_or_default().into_iter());
        };
        if self.parts.len() + 2 >= super::build::MOST_PARTS {
            return self.input.push_all(caption.unwrap_or_default().into_iter());
        }
        let figure = self.block(Kind::Figure);
        self.argument_into(figure, false);
        if let Some(words) = caption {
            let caption = self.doc.append_at(figure, Kind::Caption, self.at);
            // With a star, it has a caption without a number (the documentation of subcaption, `\subcaptionbox*`).
            if !(has_star && name == "subcaptionbox") {
                self.number_part(figure, caption, &kind);
            }
            self.read_into(caption, true, words);
        } else if name == "subfloat" {
            // Without a caption, it is counted all the same.
            self.counters.step(PARTS);
        }
    }

    /// A float ends: pictures stand in it by themselves, and the caption of a table is that of the table.
    pub(super) fn end_float(&mut self, node: NodeId) {
        let mut tables = Vec::new();
        let mut others = 0;
        let mut caption = None;
        for child in self.doc.children(node).collect::<Vec<_>>() {
            match self.doc.kind(child) {
                Kind::Figure => {
                    others += 1;
                    self.end_float(child);
                }
                Kind::Table => tables.push(child),
                Kind::Caption => {
                    self.end_label(child);
                    caption = Some(child);
                }
                Kind::Paragraph => {
                    let is_pictures = self.doc.children(child).all(|inner| {
                        matches!(self.doc.kind(inner), Kind::Image { .. } | Kind::LineBreak | Kind::SoftBreak)
                            || self.doc.is_white(inner, char::is_whitespace)
                    });
                    if is_pictures {
                        self.doc.unwrap(child);
                    }
                    others += 1;
                }
                _ => others += 1,
            }
        }
        if let ([table], 0) = (&tables[..], others) {
            if let Some(caption) = caption {
                match self.doc.node(*table).first_child() {
                    Some(first) => self.doc.move_before(first, caption),
                    None => self.doc.move_into(*table, caption),
                }
            }
            self.references.moved(node, *table);
            let table = *table;
            if let Some(id) = self.doc.attributes(node).id {
                self.doc.attributes_mut(table).id = Some(id);
            }
            self.doc.unwrap(node);
        } else if self.doc.node(node).first_child().is_none() {
            self.doc.detach(node);
        } else if let Some(caption) = caption {
            // The model has a caption first or last.
            let is_first = self.doc.node(node).first_child() == Some(caption);
            if !is_first && self.doc.node(caption).next().is_some() {
                self.doc.move_into(node, caption);
            }
        }
    }

    /// A picture.
    pub(super) fn picture(&mut self) {
        self.input.take('*');
        let options = self.input.option();
        self.input.option();
        let file = self.address();
        if file.is_empty() {
            return;
        }
        let src = self.find_picture(file.trim_matches('"'));
        let extension = src.rsplit('.').next().unwrap_or_default().to_ascii_lowercase();
        if matches!(extension.as_str(), "pdf" | "eps" | "ps" | "tikz" | "pgf") {
            self.tallies.pictures.add_apart(self.at, &src);
        }
        let options = options.unwrap_or_default();
        let alt = self.alternative(&options);
        let (src, alt) = (self.doc.intern(&src), self.doc.intern(&alt));
        let image = self.inline(Kind::Image { src, alt });
        let words = self.input.characters(&options);
        for side in ["width", "height"] {
            if let Some(pixels) = pixels(&super::verbatim::value(&words, side)) {
                let (side, pixels) = (self.doc.intern(side), self.doc.intern(&pixels.to_string()));
                self.doc.attributes_mut(image).other.push((side, pixels));
            }
        }
    }

    fn alternative(&mut self, options: &[Token]) -> String {
        let words = self.words(options);
        super::verbatim::value(&words, "alt").trim_matches(['{', '}']).to_owned()
    }

    /// The file that a picture is in: the folders of the document and the usual extensions are tried. Of one that browsers do not
    /// show, a picture of the same name beside it.
    fn find_picture(&self, name: &str) -> String {
        let name = name.trim_start_matches("./");
        let stem = name.rsplit_once('.').filter(|(_, extension)| is_extension(extension)).map(|(stem, _)| stem);
        let is_shown = !matches!(name.rsplit('.').next().map(str::to_ascii_lowercase).as_deref(), Some("pdf" | "eps" | "ps"));
        let folders = || std::iter::once("").chain(self.own.picture_folders.iter().map(String::as_str));
        let whole = |folder: &str, name: &str| format!("{}{name}", folder.trim_start_matches("./"));
        if let Some(stem) = stem {
            let found = folders().map(|folder| whole(folder, name)).find(|path| is_shown && self.is_file(path));
            if let Some(found) = found.or_else(|| self.picture_file(stem).filter(|_| !is_shown)) {
                return found;
            }
        } else if let Some(found) = self.picture_file(name) {
            return found;
        }
        let found = folders().map(|folder| whole(folder, name)).find(|path| self.is_file(path));
        let first = whole(self.own.picture_folders.first().map_or("", String::as_str), name);
        found.unwrap_or_else(|| if stem.is_some() { first } else { format!("{first}.png") })
    }

    /// A picture file by its name without an extension, in the folders of the document.
    pub(super) fn picture_file(&self, stem: &str) -> Option<String> {
        let folders = std::iter::once("").chain(self.own.picture_folders.iter().map(String::as_str));
        let paths = folders.flat_map(|folder| {
            EXTENSIONS.iter().map(move |extension| format!("{}{stem}.{extension}", folder.trim_start_matches("./")))
        });
        paths.into_iter().find(|path| self.is_file(path))
    }

    fn is_file(&self, path: &str) -> bool {
        let Some(root) = self.files.root else { return false };
        self.files.path(path).is_some_and(|path| matches!(root.there(&path), crate::media::There::File(_)))
    }
}

fn is_extension(extension: &str) -> bool {
    EXTENSIONS.contains(&extension.to_ascii_lowercase().as_str())
}

/// A length in pixels of CSS, of which an inch has 96; nothing for one that depends on the page or the font.
fn pixels(length: &str) -> Option<u32> {
    const UNITS: [(&str, f64); 7] = [
        ("pt", 96.0 / 72.27),
        ("bp", 96.0 / 72.0),
        ("cm", 96.0 / 2.54),
        ("mm", 96.0 / 25.4),
        ("in", 96.0),
        ("pc", 96.0 / 6.0225),
        ("px", 1.0),
    ];
    let (number, unit) = UNITS.iter().find_map(|(unit, pixels)| Some((length.trim().strip_suffix(unit)?, pixels)))?;
    let pixels = number.trim().parse::<f64>().ok()? * unit;
    (1.0..=20_000.0).contains(&pixels).then(|| pixels.round() as u32)
}
