//! Drawings: pictures, text boxes, and what can't be shown (ECMA-376, part 1, section 20; the old vector markup is part 4,
//! section 19).

use super::super::xml::{Element, Ns, Xml};
use super::Reader;
use super::open::Wrap;
use super::open_element::Frame;
use super::pictures::{Crop, Shown};
use crate::document::{DivisionKind, Kind, NodeId, Property, Value};

/// A drawing that is being read.
#[derive(Debug, Default)]
pub(super) struct Drawing {
    /// Words for those who can't see it.
    alt: String,
    /// In 9525ths of a pixel.
    extent: Option<(i64, i64)>,
    link: Option<u32>,
    decorative: bool,
    picture: Option<Picture>,
    /// An object of another program, by the program's name for it.
    object: Option<String>,
    shows: bool,
    /// Where it stands between the margins, as far as a keyword says it.
    place: String,
    /// Whether text flows around it.
    wraps: bool,
}

/// A picture within a drawing.
#[derive(Debug, Default)]
struct Picture {
    relation: Option<String>,
    alt: String,
    extent: Option<(i64, i64)>,
    crop: Crop,
}

/// How many of the units of drawings a pixel has.
const UNITS: i64 = 9525;

impl Reader<'_, '_> {
    pub(super) fn end_drawing(&mut self) {
        let Some(drawing) = self.drawings.pop() else { return };
        if let Some(object) = drawing.object {
            let offset = self.place.paragraph;
            if drawing.shows {
                self.diagnostics.objects.add_apart(offset, &object);
            } else {
                self.diagnostics.lost_objects.add_apart(offset, &object);
            }
        }
    }

    /// An element of drawings opens.
    pub(super) fn open_drawing(&mut self, xml: &mut Xml<'_>, element: &Element<'_>) -> Option<Frame> {
        match (element.ns, element.local()) {
            (Ns::Wp, b"extent") => {
                self.drawings.last_mut().into_iter().for_each(|drawing| drawing.extent = extent(element));
            }
            (Ns::Wp, b"positionH") => {
                let place = xml.text();
                self.drawings.last_mut().into_iter().for_each(|drawing| drawing.place.clone_from(&place));
                return None;
            }
            (Ns::Wp, b"wrapSquare" | b"wrapTight" | b"wrapThrough") => {
                self.drawings.last_mut().into_iter().for_each(|drawing| drawing.wraps = true);
            }
            (Ns::Wp, b"docPr") => {
                self.drawings.last_mut().into_iter().for_each(|drawing| drawing.alt = words_of(element));
            }
            (Ns::A, b"hlinkClick") => self.drawing_link(element),
            (Ns::Pic, b"pic") => {
                self.ensure_drawing();
                if let Some(drawing) = self.drawings.last_mut() {
                    drawing.picture = Some(Picture::default());
                }
                return Some(Frame::PictureEnds);
            }
            (Ns::Pic, b"cNvPr") => {
                let words = words_of(element);
                if let Some(picture) = self.picture() {
                    picture.alt = words;
                }
            }
            (Ns::A, b"blip") => self.blip(element),
            (Ns::A, b"srcRect") => {
                let crop = Crop::of([b"l", b"t", b"r", b"b"].map(|side| element.number(side).unwrap_or(0)));
                if let Some(picture) = self.picture() {
                    picture.crop = crop;
                }
            }
            (Ns::A, b"ext") => {
                let extent = extent(element);
                if let Some(picture) = self.picture().filter(|_| extent.is_some()) {
                    picture.extent = extent;
                }
            }
            (Ns::Chart, b"chart") => {
                if self.is_shown() {
                    let id = element.relation(b"id").map(std::borrow::Cow::into_owned);
                    self.chart(id.as_deref());
                }
                xml.skip();
                return None;
            }
            (Ns::Diagram, b"relIds") => {
                if self.is_shown() {
                    let id = element.relation(b"dm").map(std::borrow::Cow::into_owned);
                    self.diagram(id.as_deref());
                }
                xml.skip();
                return None;
            }
            (Ns::V, b"shape" | b"rect" | b"roundrect" | b"oval") => self.old_shape(element),
            (Ns::V, b"imagedata") => self.old_picture(element),
            (Ns::V, b"textpath") => {
                let text = element.get(b"string").unwrap_or_default().into_owned();
                self.ensure_paragraph();
                self.characters(&text);
            }
            (Ns::O, b"OLEObject") => {
                let program = element.get(b"ProgID").unwrap_or_default().into_owned();
                if let Some(drawing) = self.drawings.last_mut() {
                    drawing.object = Some(program);
                }
            }
            _ => {}
        }
        Some(Frame::Through)
    }

    /// The drawing that is being read says nothing that has to be said in words.
    pub(super) fn is_decoration(&mut self) {
        if let Some(drawing) = self.drawings.last_mut() {
            drawing.decorative = true;
        }
    }

    /// The words for those who can't see the drawing that is being read.
    pub(super) fn said_of_drawing(&self) -> Option<&str> {
        self.drawings.last().map(|drawing| drawing.alt.as_str()).filter(|said| !said.is_empty())
    }

    fn ensure_drawing(&mut self) {
        if self.drawings.is_empty() {
            self.ensure_paragraph();
        }
    }

    fn picture(&mut self) -> Option<&mut Picture> {
        self.drawings.last_mut().and_then(|drawing| drawing.picture.as_mut())
    }

    fn drawing_link(&mut self, element: &Element<'_>) {
        let target = element.relation(b"id").and_then(|id| self.relations.get(&id).map(|relation| relation.target.clone()));
        if let Wrap::Link(link) = self.link_to(target.unwrap_or_default(), None, None)
            && let Some(drawing) = self.drawings.last_mut()
        {
            drawing.link = Some(link);
        }
    }

    /// The picture data of a picture, or of a shape that is filled with it.
    pub(super) fn blip(&mut self, element: &Element<'_>) {
        let relation = element.relation(b"embed").filter(|id| !id.is_empty()).or_else(|| element.relation(b"link"));
        let relation = relation.map(std::borrow::Cow::into_owned);
        match self.picture() {
            Some(picture) => picture.relation = relation,
            None => self.show_picture(Picture { relation, ..Picture::default() }),
        }
    }

    /// A picture of a drawing is complete.
    pub(super) fn end_picture(&mut self) {
        if let Some(picture) = self.drawings.last_mut().and_then(|drawing| drawing.picture.take()) {
            self.show_picture(picture);
        }
    }

    fn show_picture(&mut self, picture: Picture) {
        let Some(relation) = picture.relation else { return };
        if !self.is_shown() {
            return;
        }
        self.ensure_paragraph();
        let (mut alt, mut size, mut link, mut decorative) = (picture.alt, picture.extent, None, false);
        if let Some(drawing) = self.drawings.last_mut() {
            drawing.shows = true;
            // A picture that is the whole drawing is as large as it is, and what is said of one is said of the other.
            if !drawing.alt.is_empty() {
                alt.clone_from(&drawing.alt);
            }
            size = size.or(drawing.extent);
            link = drawing.link;
            decorative = drawing.decorative;
        }
        let size = size.map(|(width, height)| (width / UNITS, height / UNITS));
        let parent = self.inline_parent();
        let in_link = self.doc.ancestors(parent).any(|id| matches!(self.doc.kind(id), Kind::Link { .. }))
            || matches!(self.doc.kind(parent), Kind::Link { .. });
        let parent = match link.and_then(|link| self.links.all.get_mut(link as usize)) {
            Some(link) if in_link => {
                link.covered.get_or_insert(self.place.paragraph);
                parent
            }
            Some(link) => {
                link.is_shown = true;
                let href = self.doc.intern(&link.address);
                self.doc.append_at(parent, Kind::Link { href }, self.place.paragraph)
            }
            None => parent,
        };
        self.place_picture(parent, &relation, &alt, &Shown { size, crop: picture.crop, decorative });
        let side = self.drawings.last().filter(|drawing| drawing.wraps).and_then(|drawing| match drawing.place.trim() {
            "left" | "inside" => Some("left"),
            "right" | "outside" => Some("right"),
            _ => None,
        });
        if let (Some(side), Some(image)) = (side, self.doc.node(parent).last_child())
            && self.options.fidelity.is_exact()
            && matches!(self.doc.kind(image), Kind::Image { .. })
        {
            let beside = if side == "left" { Property::MarginRight } else { Property::MarginLeft };
            self.add_rules(image, "picture", vec![(Property::Float, Value::Keyword(side)), (beside, Value::twips(180))]);
        }
    }

    /// A shape of the old markup: its size stands in its style.
    fn old_shape(&mut self, element: &Element<'_>) {
        if element.get(b"hr").is_some_and(|hr| super::super::xml::is_on(&hr) || hr == "t") && self.is_shown() {
            self.ensure_paragraph();
            let container = self.context().container;
            let rule = self.doc.create(Kind::ThematicBreak);
            self.doc.set_offset(rule, self.place.paragraph);
            if let Some(paragraph) = &mut self.context_mut().paragraph {
                paragraph.boxes.push(rule);
            } else {
                self.doc.move_into(container, rule);
            }
        }
        let style = element.get(b"style").unwrap_or_default();
        let side = |name: &str| {
            let value = style.split(';').find_map(|rule| rule.trim().strip_prefix(name)?.trim_start().strip_prefix(':'))?;
            let value = value.trim();
            let number = value.trim_end_matches(|c: char| c.is_ascii_alphabetic() || c == '%').parse::<f64>().ok()?;
            let pixels = match value.trim_start_matches(|c: char| !c.is_ascii_alphabetic() && c != '%') {
                "pt" => number / 0.75,
                "in" => number * 96.0,
                "cm" => number * 37.795,
                "mm" => number * 3.7795,
                "px" | "" => number,
                _ => return None,
            };
            Some((pixels * UNITS as f64) as i64)
        };
        let extent = side("width").zip(side("height"));
        let alt = element.get(b"alt").unwrap_or_default().into_owned();
        if let Some(drawing) = self.drawings.last_mut() {
            drawing.extent = extent.or(drawing.extent);
            if !alt.is_empty() {
                drawing.alt = alt;
            }
        }
    }

    fn old_picture(&mut self, element: &Element<'_>) {
        let relation = element.relation(b"id").or_else(|| element.relation(b"href")).map(std::borrow::Cow::into_owned);
        let title = element.get(b"title").unwrap_or_default().into_owned();
        let part = |side: &[u8]| element.get(side).and_then(|value| fraction(&value)).unwrap_or(0);
        let crop = Crop::of([part(b"cropleft"), part(b"croptop"), part(b"cropright"), part(b"cropbottom")]);
        self.show_picture(Picture { relation, alt: title, extent: None, crop });
    }

    /// A text box: its content comes behind the paragraph that it is fixed to.
    pub(super) fn begin_box(&mut self) {
        let holder = self.doc.create(Kind::Division(DivisionKind::Plain));
        self.doc.set_offset(holder, self.place.paragraph);
        if self.is_shown() {
            self.diagnostics.text_boxes.push(self.place.paragraph);
            if let Some(drawing) = self.drawings.last_mut() {
                drawing.shows = true;
            }
            match &mut self.context_mut().paragraph {
                Some(paragraph) => paragraph.boxes.push(holder),
                None => self.doc.move_into(self.context().container, holder),
            }
        }
        self.begin_context(holder);
    }

    pub(super) fn end_box(&mut self) {
        self.end_context();
    }

    /// Puts what a text box holds behind the paragraph.
    pub(super) fn place_box(&mut self, holder: NodeId, parent: NodeId) {
        if self.doc.kind(holder) != Kind::Division(DivisionKind::Plain) || self.options.fidelity.is_exact() {
            if self.doc.kind(holder) == Kind::ThematicBreak || self.doc.node(holder).first_child().is_some() {
                self.doc.move_into(parent, holder);
                if self.options.fidelity.is_exact() {
                    self.style_box(holder);
                }
            }
            return;
        }
        self.doc.move_children(holder, parent);
    }
}

fn extent(element: &Element<'_>) -> Option<(i64, i64)> {
    let side = |name: &[u8]| element.get(name).and_then(|value| value.trim().parse::<i64>().ok()).filter(|side| *side > 0);
    side(b"cx").zip(side(b"cy"))
}

fn words_of(element: &Element<'_>) -> String {
    let words = element.get(b"descr").filter(|words| !words.trim().is_empty());
    let words = words.or_else(|| element.get(b"title")).unwrap_or_default();
    words.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// A part of a side, in thousandths of a per cent; the old markup has fractions of 65536.
fn fraction(value: &str) -> Option<i32> {
    match value.strip_suffix('f') {
        Some(parts) => parts.parse::<f64>().ok().map(|parts| (parts / 65_536.0 * 100_000.0) as i32),
        None => value.parse::<f64>().ok().map(|part| (part * 100_000.0) as i32),
    }
}
