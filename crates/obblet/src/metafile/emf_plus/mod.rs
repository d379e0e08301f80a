//! The extension of enhanced metafiles ([MS-EMFPLUS]): records within their comments, with curves, colours that cover in part,
//! and fonts by their names. Where a metafile has each record in the older form, too, that one is drawn.

mod objects;

use super::bytes::Bytes;
use super::canvas::{Anchor, Canvas, Letters, opacity};
use super::geometry::{Matrix, Path, Point, arc, number};
use super::objects::{Brush as OldBrush, Font};
use objects::{Brush, Object, Pen, Region, colour, list_of_points, matrix};
use std::fmt::Write;

/// An object has so many bytes at most that several records make.
const LONGEST_OBJECT: usize = 1 << 28;

/// So many states may be saved.
const MOST_SAVED: usize = 1000;

#[derive(Clone, Debug)]
struct State {
    world: Matrix,
    /// What a container adds to the transforms within it.
    outer: Matrix,
    /// Pixels in a unit of the page.
    page: f64,
    clip: Option<usize>,
}

/// Plays records of the extension.
pub(super) struct Player {
    state: State,
    saved: Vec<(u32, State)>,
    objects: Vec<Option<Object>>,
    /// Pixels in an inch.
    resolution: f64,
    /// An object whose end is still to come: its flags, and its bytes.
    unfinished: Option<(u16, Vec<u8>)>,
    /// Whether the older records between these draw, too.
    pub(super) lets_others_draw: bool,
}

impl Player {
    pub(super) fn new() -> Self {
        let world = Matrix::IDENTITY;
        Self {
            state: State { world, outer: world, page: 1.0, clip: None },
            saved: Vec::new(),
            objects: vec![None; 256],
            resolution: 96.0,
            unfinished: None,
            lets_others_draw: false,
        }
    }

    /// Plays the records of a comment.
    pub(super) fn play(&mut self, canvas: &mut Canvas, comment: Bytes<'_>) {
        let outer_clip = canvas.state.clip;
        canvas.state.clip = self.state.clip;
        self.lets_others_draw = false;
        let mut at = 0;
        while let (Some(kind), Some(flags), Some(size), Some(length)) =
            (comment.u16(at), comment.u16(at + 2), comment.u32(at + 4), comment.u32(at + 8))
        {
            let Some(data) = comment.slice(at + 12, length as usize) else { break };
            if size < 12 || canvas.is_full() {
                break;
            }
            self.record(canvas, kind, flags, Bytes(data));
            at = at.saturating_add(size as usize);
        }
        self.state.clip = canvas.state.clip;
        canvas.state.clip = outer_clip;
    }

    /// Plays a record ([MS-EMFPLUS] 2.3); one that is too short does nothing.
    fn record(&mut self, canvas: &mut Canvas, kind: u16, flags: u16, data: Bytes<'_>) -> Option<()> {
        match kind {
            0x4001 => self.resolution = f64::from(data.u32(8)?).clamp(1.0, 10_000.0),
            0x4004 => self.lets_others_draw = true,
            0x4008 => self.object(canvas, flags, data)?,
            0x4009 => canvas.miss("a ground that covers all"),
            0x400A..=0x4019 | 0x4037 => self.shape(canvas, kind, flags, data)?,
            0x401A | 0x401B => self.image(canvas, kind, flags, data)?,
            0x401C => self.string(canvas, flags, data)?,
            0x4036 => self.driver_string(canvas, flags, data)?,
            0x4025..=0x4029 => self.save(canvas, kind, flags, data)?,
            0x402A..=0x4030 => self.transforms(kind, flags, data)?,
            0x4031..=0x4035 => self.clipping(canvas, kind, flags, data)?,
            0x4038 => canvas.miss("effects on pictures"),
            _ => {}
        }
        Some(())
    }

    /// From units of the drawing to pixels.
    fn transform(&self) -> Matrix {
        let page = Matrix { m11: self.state.page, m22: self.state.page, ..Matrix::IDENTITY };
        self.state.world.then(page).then(self.state.outer)
    }

    /// Pixels in a unit ([MS-EMFPLUS] 2.1.1.33); those of the drawing are as large as its transform makes them.
    fn unit(&self, unit: u32) -> Option<f64> {
        Some(match unit {
            2 => 1.0,
            3 => self.resolution / 72.0,
            4 => self.resolution,
            5 => self.resolution / 300.0,
            6 => self.resolution / 25.4,
            _ => return None,
        })
    }

    /// Makes an object ([MS-EMFPLUS] 2.3.5.1).
    fn object(&mut self, canvas: &mut Canvas, flags: u16, data: Bytes<'_>) -> Option<()> {
        if flags & 0x8000 != 0 {
            // A part of one: how long all of it is stands before it.
            let (whole, part) = (data.u32(0)? as usize, data.0.get(4..)?);
            let begun = self.unfinished.take().filter(|(of, _)| *of == flags);
            let (_, mut bytes) = begun.unwrap_or((flags, Vec::new()));
            bytes.extend_from_slice(part);
            if whole > LONGEST_OBJECT || bytes.len() > LONGEST_OBJECT {
                return None;
            }
            if bytes.len() >= whole {
                self.put(canvas, flags, Bytes(&bytes));
            } else {
                self.unfinished = Some((flags, bytes));
            }
            return Some(());
        }
        // The last part of one says nothing of its length.
        match self.unfinished.take() {
            Some((of, mut bytes)) if of & 0x7FFF == flags => {
                bytes.extend_from_slice(data.0);
                self.put(canvas, flags, Bytes(&bytes));
            }
            _ => self.put(canvas, flags, data),
        }
        Some(())
    }

    fn put(&mut self, canvas: &mut Canvas, flags: u16, data: Bytes<'_>) {
        let kind = flags >> 8 & 0x7F;
        let made = Object::read(kind, data, &mut canvas.pixels);
        match (&made, kind) {
            (None, 5) => canvas.miss("pictures that can't be read"),
            (None, 1..=4 | 6 | 7) => canvas.miss("pens, brushes and shapes that can't be read"),
            (Some(Object::Pen(pen)), _) if pen.has_signs => canvas.miss("signs at the ends of lines"),
            _ => {}
        }
        self.objects[usize::from(flags & 0xFF)] = made;
    }

    fn get(&self, index: u32) -> Option<&Object> {
        self.objects.get(index as usize)?.as_ref()
    }

    /// The brush of a record: a colour, or one by its number.
    fn brush(&self, flags: u16, value: u32) -> Option<Brush> {
        if flags & 0x8000 != 0 {
            let (colour, covers) = colour(value);
            return Some(Brush::Solid(colour, covers));
        }
        match self.get(value)? {
            Object::Brush(brush) => Some(brush.clone()),
            _ => None,
        }
    }

    /// A value of the attributes of filling or lines, and how much it covers.
    fn paint(&self, canvas: &mut Canvas, brush: &Brush) -> (String, f64) {
        match brush {
            Brush::Solid(colour, covers) => (format!("#{colour:06x}"), *covers),
            Brush::Mean(colour, covers) => {
                canvas.miss("colours that run into each other");
                (format!("#{colour:06x}"), *covers)
            }
            Brush::Hatch(kind, colour, (ground, covers)) => {
                let before = (canvas.state.ground, canvas.state.is_opaque);
                (canvas.state.ground, canvas.state.is_opaque) = (*ground, *covers > 0.5);
                let fill = canvas.fill_of(OldBrush::Hatch(*kind, *colour));
                (canvas.state.ground, canvas.state.is_opaque) = before;
                (fill.unwrap_or_default(), 1.0)
            }
            Brush::Texture(bitmap) => {
                let fill = canvas.fill_of(OldBrush::Pattern(bitmap.address.clone(), bitmap.size));
                (fill.unwrap_or_default(), 1.0)
            }
            Brush::Run { from, to, stops, matrix, wrap } => {
                let through = matrix.then(self.transform());
                let repeat = match wrap {
                    0 => " spreadMethod=\"repeat\"",
                    1..=3 => " spreadMethod=\"reflect\"",
                    _ => "",
                };
                (canvas.run_of_colours(through.apply(*from), through.apply(*to), stops, repeat), 1.0)
            }
        }
    }

    fn fill(&self, canvas: &mut Canvas, path: &Path, brush: &Brush) {
        let (fill, covers) = self.paint(canvas, brush);
        let mut look = format!(" fill=\"{fill}\" fill-rule=\"evenodd\"");
        opacity(&mut look, "fill-opacity", covers);
        canvas.draw(path, &look);
    }

    fn stroke(&self, canvas: &mut Canvas, path: &Path, pen: u32) -> Option<()> {
        let Object::Pen(pen) = self.get(pen)? else { return None };
        let pen: &Pen = pen;
        let (stroke, covers) = self.paint(canvas, &pen.brush);
        let width = match self.unit(pen.unit) {
            Some(unit) => pen.width * unit,
            None => pen.width * self.transform().scale(),
        };
        let width = width.max(1.0);
        let mut look = format!(" fill=\"none\" stroke=\"{stroke}\" stroke-width=\"");
        number(&mut look, width);
        look.push('"');
        opacity(&mut look, "stroke-opacity", covers);
        if pen.cap != "butt" {
            let _ = write!(look, " stroke-linecap=\"{}\"", pen.cap);
        }
        if pen.join != "miter" {
            let _ = write!(look, " stroke-linejoin=\"{}\"", pen.join);
        }
        for (index, length) in pen.dashes.iter().enumerate() {
            look.push_str(if index == 0 { " stroke-dasharray=\"" } else { " " });
            number(&mut look, length * width);
        }
        if !pen.dashes.is_empty() {
            look.push('"');
        }
        canvas.draw(path, &look);
        Some(())
    }

    /// Lines and shapes ([MS-EMFPLUS] 2.3.4).
    fn shape(&self, canvas: &mut Canvas, kind: u16, flags: u16, data: Bytes<'_>) -> Option<()> {
        let through = self.transform();
        let (is_short, is_relative) = (flags & 0x4000 != 0, flags & 0x0800 != 0);
        let pen = u32::from(flags & 0xFF);
        let points = |at: usize, count: u32| -> Option<Vec<Point>> {
            let (points, _) = list_of_points(data, at, count, is_short, is_relative)?;
            Some(points.into_iter().map(|point| through.apply(point)).collect())
        };
        match kind {
            0x400A | 0x400B => {
                let start = if kind == 0x400A { 4 } else { 0 };
                let size = if is_short { 8 } else { 16 };
                let mut path = Path::default();
                for index in 0..(data.u32(start)? as usize).min(objects::MOST_POINTS) {
                    let Some(corners) = rectangle(data, start + 4 + index * size, is_short) else { break };
                    path.polyline(&corners.map(|corner| through.apply(corner)));
                    path.close();
                }
                match kind {
                    0x400A => self.fill(canvas, &path, &self.brush(flags, data.u32(0)?)?),
                    _ => self.stroke(canvas, &path, pen)?,
                }
            }
            0x400C => {
                let path = Path::polygon(&points(8, data.u32(4)?)?);
                self.fill(canvas, &path, &self.brush(flags, data.u32(0)?)?);
            }
            0x400D => {
                let mut path = Path::default();
                path.polyline(&points(4, data.u32(0)?)?);
                if flags & 0x2000 != 0 {
                    path.close();
                }
                self.stroke(canvas, &path, pen)?;
            }
            0x400E..=0x4012 => self.round(canvas, kind, flags, data)?,
            0x4013 => {
                let Object::Region(region) = self.get(pen)? else { return None };
                let path = region_path(canvas, region, through);
                self.fill(canvas, &path, &self.brush(flags, data.u32(0)?)?);
            }
            0x4014 | 0x4015 => {
                let Object::Path(path) = self.get(pen)? else { return None };
                let path = path.path(through);
                match kind {
                    0x4014 => self.fill(canvas, &path, &self.brush(flags, data.u32(0)?)?),
                    _ => self.stroke(canvas, &path, data.u32(0)?)?,
                }
            }
            0x4016 => {
                let path = cardinal(&points(12, data.u32(8)?)?, data.f32(4)?, true);
                self.fill(canvas, &path, &self.brush(flags, data.u32(0)?)?);
            }
            0x4017 => {
                let path = cardinal(&points(8, data.u32(4)?)?, data.f32(0)?, true);
                self.stroke(canvas, &path, pen)?;
            }
            0x4018 => {
                let path = cardinal(&points(16, data.u32(12)?)?, data.f32(0)?, false);
                self.stroke(canvas, &path, pen)?;
            }
            0x4019 => {
                let mut path = Path::default();
                path.curves(&points(4, data.u32(0)?)?);
                self.stroke(canvas, &path, pen)?;
            }
            _ => canvas.miss("shapes that are filled and drawn at once"),
        }
        Some(())
    }

    /// Ellipses and parts of them.
    fn round(&self, canvas: &mut Canvas, kind: u16, flags: u16, data: Bytes<'_>) -> Option<()> {
        let through = self.transform();
        let fills = matches!(kind, 0x400E | 0x4010);
        let is_whole = matches!(kind, 0x400E | 0x400F);
        let angles = if fills { 4 } else { 0 };
        let at = angles + if is_whole { 0 } else { 8 };
        let [(left, top), _, (right, bottom), _] = rectangle(data, at, flags & 0x4000 != 0)?;
        let centre = (f64::midpoint(left, right), f64::midpoint(top, bottom));
        let radii = ((right - left) / 2.0, (bottom - top) / 2.0);
        let (from, sweep) = if is_whole {
            (0.0, std::f64::consts::TAU)
        } else {
            (data.f32(angles)?.to_radians(), data.f32(angles + 4)?.clamp(-360.0, 360.0).to_radians())
        };
        // Angles are those that are seen, not those of the circle that the ellipse was made of.
        let of_circle = |angle: f64| {
            let turns = (angle / std::f64::consts::TAU).round() * std::f64::consts::TAU;
            (angle.sin() * radii.0).atan2(angle.cos() * radii.1) + turns
        };
        let (from, to) =
            if radii.0 == radii.1 || is_whole { (from, from + sweep) } else { (of_circle(from), of_circle(from + sweep)) };
        let points: Vec<Point> = arc(centre, radii, from, to - from).into_iter().map(|point| through.apply(point)).collect();
        let mut path = Path::default();
        path.curves(&points);
        match kind {
            0x4010 | 0x4011 => {
                path.line_to(through.apply(centre));
                path.close();
            }
            0x4012 => {}
            _ => path.close(),
        }
        if fills {
            self.fill(canvas, &path, &self.brush(flags, data.u32(0)?)?);
            return Some(());
        }
        self.stroke(canvas, &path, u32::from(flags & 0xFF))
    }

    /// Pictures ([MS-EMFPLUS] 2.3.4.8 and 2.3.4.9).
    fn image(&self, canvas: &mut Canvas, kind: u16, flags: u16, data: Bytes<'_>) -> Option<()> {
        let Object::Image(bitmap) = self.get(u32::from(flags & 0xFF))? else { return None };
        let shown = ((data.f32(8)?, data.f32(12)?), (data.f32(16)?, data.f32(20)?));
        let [origin, right, down] = if kind == 0x401A {
            let [corner, right, _, down] = rectangle(data, 24, flags & 0x4000 != 0)?;
            [corner, right, down]
        } else {
            let (points, _) = list_of_points(data, 28, data.u32(24)?.min(3), flags & 0x4000 != 0, flags & 0x0800 != 0)?;
            *points.first_chunk()?
        };
        let square = Matrix {
            m11: right.0 - origin.0,
            m12: right.1 - origin.1,
            m21: down.0 - origin.0,
            m22: down.1 - origin.1,
            dx: origin.0,
            dy: origin.1,
        };
        canvas.image_through(bitmap, shown, square.then(self.transform()), "");
        Some(())
    }

    /// The font of a record, the size of its letters in units of the drawing, and their transform.
    fn font(&self, flags: u16) -> Option<(&Font, f64)> {
        let Object::Font(font, unit) = self.get(u32::from(flags & 0xFF))? else { return None };
        let scale = match self.unit(*unit) {
            Some(pixels) => pixels / self.state.page,
            _ => 1.0,
        };
        Some((font, font.size() * scale))
    }

    /// Text in a box ([MS-EMFPLUS] 2.3.4.14).
    fn string(&self, canvas: &mut Canvas, flags: u16, data: Bytes<'_>) -> Option<()> {
        let (font, size) = self.font(flags)?;
        let brush = self.brush(flags, data.u32(0)?)?;
        let (across, downwards) = match self.get(data.u32(4)?) {
            Some(Object::Format(across, downwards)) => (*across, *downwards),
            _ => (0, 0),
        };
        let ((left, top), (width, height)) = ((data.f32(12)?, data.f32(16)?), (data.f32(20)?, data.f32(24)?));
        let text = data.utf16(28, data.u32(8)? as usize)?;
        let lines = wrapped(&text, if width > 0.0 { width / size } else { f64::INFINITY });
        let step = size * 1.15;
        let all = step * lines.len() as f64;
        let start = match downwards {
            1 => top + (height - all) / 2.0,
            2 => top + height - all,
            _ => top,
        };
        let (x, anchor) = match across {
            1 => (left + width / 2.0, Anchor::Middle),
            2 => (left + width, Anchor::End),
            // Text keeps away from the edge by a sixth of its size.
            _ => (left + size / 6.0, Anchor::Start),
        };
        for (index, line) in lines.iter().enumerate() {
            let place = (x, start + step * index as f64);
            self.letters(canvas, line, (font, size), place, 0.905 * size, &brush, anchor);
        }
        Some(())
    }

    /// Text whose characters have places of their own ([MS-EMFPLUS] 2.3.4.6).
    fn driver_string(&self, canvas: &mut Canvas, flags: u16, data: Bytes<'_>) -> Option<()> {
        let (font, size) = self.font(flags)?;
        let brush = self.brush(flags, data.u32(0)?)?;
        let (options, count) = (data.u32(4)?, data.u32(12)? as usize);
        // Numbers of glyphs say nothing without their font.
        if options & 1 == 0 {
            canvas.miss("text whose characters only its font knows");
            return Some(());
        }
        let places = 16 + (count * 2).next_multiple_of(4);
        let first = (data.f32(places)?, data.f32(places + 4)?);
        // With the third option only the first place is given.
        let is_run = options & 4 != 0 || (1..count).all(|index| data.f32(places + index * 8 + 4) == Some(first.1));
        if is_run {
            let text = data.utf16(16, count)?;
            self.letters(canvas, &text, (font, size), first, 0.0, &brush, Anchor::Start);
            return Some(());
        }
        for index in 0..count.min(objects::MOST_POINTS) {
            let place = (data.f32(places + index * 8)?, data.f32(places + index * 8 + 4)?);
            let text = data.utf16(16 + index * 2, 1)?;
            self.letters(canvas, &text, (font, size), place, 0.0, &brush, Anchor::Start);
        }
        Some(())
    }

    #[expect(clippy::too_many_arguments, reason = "a line of text has so many properties")]
    fn letters(
        &self,
        canvas: &mut Canvas,
        text: &str,
        (font, size): (&Font, f64),
        place: Point,
        lift: f64,
        brush: &Brush,
        anchor: Anchor,
    ) {
        let shown: String = text.chars().filter(|c| !c.is_control()).collect();
        if shown.trim().is_empty() {
            return;
        }
        let (colour, opacity) = match brush {
            Brush::Solid(colour, covers) | Brush::Mean(colour, covers) => (*colour, *covers),
            Brush::Hatch(_, colour, _) => (*colour, 1.0),
            Brush::Run { stops, .. } => stops.first().map_or((0, 1.0), |(_, colour, covers)| (*colour, *covers)),
            Brush::Texture(_) => (0, 1.0),
        };
        let mut matrix = self.transform();
        (matrix.dx, matrix.dy) = matrix.apply(place);
        canvas.letters(&shown, &Letters { font, size, matrix, lift, colour, opacity, anchor, advance: 0.0 });
    }

    /// Saves and restores ([MS-EMFPLUS] 2.3.7).
    fn save(&mut self, canvas: &mut Canvas, kind: u16, flags: u16, data: Bytes<'_>) -> Option<()> {
        let number = data.u32(if kind == 0x4027 { 32 } else { 0 })?;
        if matches!(kind, 0x4026 | 0x4029) {
            let place = self.saved.iter().rposition(|(of, _)| *of == number)?;
            self.state = self.saved[place].1.clone();
            self.saved.truncate(place);
            canvas.state.clip = self.state.clip;
            return Some(());
        }
        if self.saved.len() == MOST_SAVED {
            return None;
        }
        self.state.clip = canvas.state.clip;
        self.saved.push((number, self.state.clone()));
        if kind == 0x4025 {
            return Some(());
        }
        // A container is a drawing within the drawing: its units begin anew, on the place that is given.
        let mut outer = self.transform();
        if kind == 0x4027 {
            let of = |at: usize| Some(((data.f32(at)?, data.f32(at + 4)?), (data.f32(at + 8)?, data.f32(at + 12)?)));
            let ((to, to_size), (from, from_size)) = (of(0)?, of(16)?);
            let scale = |to: f64, from: f64| if from == 0.0 { 1.0 } else { to / from };
            let (x, y) = (scale(to_size.0, from_size.0), scale(to_size.1, from_size.1));
            let unit = self.unit(u32::from(flags & 0xFF)).unwrap_or(1.0);
            let place = Matrix { m11: x, m12: 0.0, m21: 0.0, m22: y, dx: to.0 - from.0 * x, dy: to.1 - from.1 * y };
            outer = Matrix { m11: 1.0 / unit, m22: 1.0 / unit, ..Matrix::IDENTITY }.then(place).then(outer);
        }
        self.state = State { world: Matrix::IDENTITY, outer, page: 1.0, clip: canvas.state.clip };
        Some(())
    }

    /// What takes units of the drawing to those of the page ([MS-EMFPLUS] 2.3.9).
    fn transforms(&mut self, kind: u16, flags: u16, data: Bytes<'_>) -> Option<()> {
        let own = match kind {
            0x402A => {
                self.state.world = matrix(data, 0)?;
                return Some(());
            }
            0x402B => {
                self.state.world = Matrix::IDENTITY;
                return Some(());
            }
            0x4030 => {
                let unit = self.unit(u32::from(flags & 0xFF)).unwrap_or(1.0);
                self.state.page = (data.f32(0)? * unit).clamp(1e-6, 1e6);
                return Some(());
            }
            0x402C => matrix(data, 0)?,
            0x402D => Matrix { dx: data.f32(0)?, dy: data.f32(4)?, ..Matrix::IDENTITY },
            0x402E => Matrix { m11: data.f32(0)?, m22: data.f32(4)?, ..Matrix::IDENTITY },
            _ => {
                let (sine, cosine) = data.f32(0)?.to_radians().sin_cos();
                Matrix { m11: cosine, m12: sine, m21: -sine, m22: cosine, dx: 0.0, dy: 0.0 }
            }
        };
        let is_behind = flags & 0x2000 != 0;
        self.state.world = if is_behind { self.state.world.then(own) } else { own.then(self.state.world) };
        Some(())
    }

    /// Clipping ([MS-EMFPLUS] 2.3.1).
    fn clipping(&self, canvas: &mut Canvas, kind: u16, flags: u16, data: Bytes<'_>) -> Option<()> {
        let through = self.transform();
        let mode = flags >> 8 & 0xF;
        let path = match kind {
            0x4031 => {
                canvas.unclip();
                return Some(());
            }
            0x4032 => Path::polygon(&rectangle(data, 0, false)?.map(|corner| through.apply(corner))),
            0x4033 => {
                let Object::Path(path) = self.get(u32::from(flags & 0xFF))? else { return None };
                path.path(through)
            }
            0x4034 => match self.get(u32::from(flags & 0xFF))? {
                Object::Region(Region::Infinite) if mode <= 1 => {
                    if mode == 0 {
                        canvas.unclip();
                    }
                    return Some(());
                }
                Object::Region(region) => region_path(canvas, region, through),
                _ => return None,
            },
            _ => {
                canvas.miss("clipping that moves");
                return Some(());
            }
        };
        match mode {
            0 => {
                canvas.unclip();
                canvas.clip(&path, true);
            }
            1 => canvas.clip(&path, true),
            4 => canvas.clip(&everything_but(&path), true),
            _ => canvas.miss("clipping that adds to what was clipped"),
        }
        Some(())
    }
}

/// The corners of a rectangle, around it ([MS-EMFPLUS] 2.2.2.38 and 2.2.2.39).
fn rectangle(data: Bytes<'_>, at: usize, is_short: bool) -> Option<[Point; 4]> {
    let part = |index: usize| {
        if is_short { data.i16(at + index * 2).map(f64::from) } else { data.f32(at + index * 4) }
    };
    let (left, top, width, height) = (part(0)?, part(1)?, part(2)?, part(3)?);
    Some([(left, top), (left + width, top), (left + width, top + height), (left, top + height)])
}

/// A path of everything that is not in another one.
fn everything_but(path: &Path) -> Path {
    let mut all = Path::polygon(&[(-1e6, -1e6), (1e6, -1e6), (1e6, 1e6), (-1e6, 1e6)]);
    all.data.push_str(&path.data);
    all
}

/// A region as a path, as far as one can be made of it.
fn region_path(canvas: &mut Canvas, region: &Region, through: Matrix) -> Path {
    match region {
        Region::Empty => Path::default(),
        Region::Infinite => everything_but(&Path::default()),
        Region::Path(points) => points.path(through),
        Region::Rectangle((left, top), (width, height)) => {
            let corners = [(*left, *top), (left + width, *top), (left + width, top + height), (*left, top + height)];
            Path::polygon(&corners.map(|corner| through.apply(corner)))
        }
        Region::Both(mode, both) => {
            let (first, second) = (region_path(canvas, &both.0, through), region_path(canvas, &both.1, through));
            match (mode, &both.0, &both.1) {
                (1, Region::Infinite, _) => second,
                (1, _, Region::Infinite) => first,
                // Two that have nothing in common are the same as one of them without the other.
                (2 | 3, ..) => {
                    if *mode == 2 {
                        canvas.miss("regions put together of others");
                    }
                    Path { data: first.data + &second.data }
                }
                (4, Region::Infinite, _) => everything_but(&second),
                _ => {
                    canvas.miss("regions put together of others");
                    first
                }
            }
        }
    }
}

/// A curve through points, as Bezier curves ([MS-EMFPLUS] 2.3.4.4): at each point it runs as the line between its neighbours.
fn cardinal(points: &[Point], tension: f64, closes: bool) -> Path {
    let mut path = Path::default();
    let count = points.len();
    if count < 2 {
        return path;
    }
    let at = |index: isize| {
        let index = if closes { index.rem_euclid(count as isize) } else { index.clamp(0, count as isize - 1) };
        points[index as usize]
    };
    let handle = |index: isize| {
        let (before, behind) = (at(index - 1), at(index + 1));
        ((behind.0 - before.0) * tension / 3.0, (behind.1 - before.1) * tension / 3.0)
    };
    path.move_to(points[0]);
    let pieces = if closes { count } else { count - 1 };
    for index in 0..pieces as isize {
        let (from, to) = (at(index), at(index + 1));
        let (leaves, comes) = (handle(index), handle(index + 1));
        path.curve_to([(from.0 + leaves.0, from.1 + leaves.1), (to.0 - comes.0, to.1 - comes.1), to]);
    }
    if closes {
        path.close();
    }
    path
}

/// The lines of a text in a box whose width is given in sizes of its letters. Letters are about half as wide as they are high.
fn wrapped(text: &str, width: f64) -> Vec<String> {
    let fits = |line: &str| line.chars().count() as f64 * 0.5 <= width * 1.1;
    let mut lines = Vec::new();
    for paragraph in text.lines() {
        let mut line = String::new();
        for word in paragraph.split(' ') {
            if !line.is_empty() && !fits(&format!("{line} {word}")) {
                lines.push(std::mem::take(&mut line));
            } else if !line.is_empty() {
                line.push(' ');
            }
            line.push_str(word);
        }
        lines.push(line);
    }
    lines
}
