//! What records draw on: the state of the drawing, and the SVG that comes of it.

use super::bitmap::{Bitmap, MOST_PIXELS};
use super::geometry::{Matrix, Path, Point, arc, number};
use super::objects::{Brush, Colour, Font, Object, Pen};
use std::collections::BTreeSet;
use std::fmt::Write;

/// What is saved and restored ([MS-EMF] 3.1.1.2).
#[derive(Clone, Debug)]
pub(super) struct State {
    pub(super) world: Matrix,
    pub(super) map_mode: u32,
    pub(super) window: (Point, Point),
    pub(super) viewport: (Point, Point),
    pub(super) pen: Pen,
    pub(super) brush: Brush,
    pub(super) font: Font,
    pub(super) text_colour: Colour,
    pub(super) ground: Colour,
    pub(super) is_opaque: bool,
    pub(super) align: u32,
    /// Whether all that is wound around is filled, and not every second time.
    pub(super) winding: bool,
    pub(super) at: Point,
    pub(super) clockwise: bool,
    /// The way in which colours mix ([MS-WMF] 2.1.1.2).
    pub(super) mix: u32,
    /// The number of the clipping path.
    pub(super) clip: Option<usize>,
}

impl State {
    fn new() -> Self {
        Self {
            world: Matrix::IDENTITY,
            map_mode: 1,
            window: ((0.0, 0.0), (1.0, 1.0)),
            viewport: ((0.0, 0.0), (1.0, 1.0)),
            pen: Pen::BLACK,
            brush: Brush::Solid(0x00FF_FFFF),
            font: Font::usual(),
            text_colour: 0,
            ground: 0x00FF_FFFF,
            is_opaque: true,
            align: 0,
            winding: false,
            at: (0.0, 0.0),
            clockwise: false,
            mix: 13,
            clip: None,
        }
    }
}

/// Draws SVG.
pub(super) struct Canvas {
    pub(super) state: State,
    saved: Vec<State>,
    pub(super) objects: Vec<Option<Object>>,
    /// How many units of the device a millimetre has, to the right and downwards.
    pub(super) per_millimetre: Point,
    /// How many pixels its bitmaps may have still.
    pub(super) pixels: u64,
    /// The path that records put together, while they do.
    path: Option<Path>,
    /// The path that they put together last.
    done: Path,
    out: String,
    definitions: String,
    names: usize,
    missing: BTreeSet<&'static str>,
}

/// So many states may be saved.
const MOST_SAVED: usize = 1000;

/// A drawing of more bytes is cut off.
const LONGEST: usize = 1 << 26;

impl Canvas {
    pub(super) fn new() -> Self {
        Self {
            state: State::new(),
            saved: Vec::new(),
            objects: Vec::new(),
            per_millimetre: (96.0 / 25.4, 96.0 / 25.4),
            pixels: MOST_PIXELS,
            path: None,
            done: Path::default(),
            out: String::new(),
            definitions: String::new(),
            names: 0,
            missing: BTreeSet::new(),
        }
    }

    /// Remembers something that could not be drawn.
    pub(super) fn miss(&mut self, what: &'static str) {
        self.missing.insert(what);
    }

    /// Whether there is room for more.
    pub(super) fn is_full(&self) -> bool {
        self.out.len() + self.definitions.len() > LONGEST
    }

    pub(super) fn save(&mut self) {
        if self.saved.len() < MOST_SAVED {
            self.saved.push(self.state.clone());
        }
    }

    /// Goes back to a saved state: by its number from 1, or by how many back below zero.
    pub(super) fn restore(&mut self, which: i32) {
        let count = self.saved.len();
        let place = match which {
            1.. => (which as usize - 1).min(count),
            _ => count.saturating_sub(which.unsigned_abs() as usize),
        };
        if let Some(state) = self.saved.get(place) {
            self.state = state.clone();
            self.saved.truncate(place);
        }
    }

    /// The transform from logical units to those of the device ([MS-EMF] 3.1.1.2).
    pub(super) fn transform(&self) -> Matrix {
        self.state.world.then(self.page())
    }

    fn page(&self) -> Matrix {
        let ((from_x, from_y), window) = self.state.window;
        let ((to_x, to_y), viewport) = self.state.viewport;
        let (right, down) = self.per_millimetre;
        let metric = |millimetres: f64| (right * millimetres, -down * millimetres);
        let ratio = |to: f64, from: f64| if from == 0.0 { 1.0 } else { to / from };
        let (x, y) = match self.state.map_mode {
            2 => metric(0.1),
            3 => metric(0.01),
            4 => metric(0.254),
            5 => metric(0.0254),
            6 => metric(25.4 / 1440.0),
            7 => {
                let (x, y) = (ratio(viewport.0, window.0), ratio(viewport.1, window.1));
                let least = x.abs().min(y.abs());
                (least.copysign(x), least.copysign(y))
            }
            8 => (ratio(viewport.0, window.0), ratio(viewport.1, window.1)),
            _ => (1.0, 1.0),
        };
        Matrix { m11: x, m12: 0.0, m21: 0.0, m22: y, dx: to_x - from_x * x, dy: to_y - from_y * y }
    }

    pub(super) fn place(&self, point: Point) -> Point {
        self.transform().apply(point)
    }

    /// Makes an object the one that is used. The highest bit stands for those that are always there ([MS-EMF] 2.1.31).
    pub(super) fn select(&mut self, index: u32) {
        if index & 0x8000_0000 != 0 {
            match index & 0x7FFF_FFFF {
                0 => self.state.brush = Brush::Solid(0x00FF_FFFF),
                1 => self.state.brush = Brush::Solid(0x00C0_C0C0),
                2 => self.state.brush = Brush::Solid(0x0080_8080),
                3 => self.state.brush = Brush::Solid(0x0040_4040),
                4 => self.state.brush = Brush::Solid(0),
                5 => self.state.brush = Brush::None,
                6 => self.state.pen = Pen { colour: Some(0x00FF_FFFF), ..Pen::BLACK },
                7 => self.state.pen = Pen::BLACK,
                8 => self.state.pen = Pen::NONE,
                10..=17 => self.state.font = Font::usual(),
                _ => {}
            }
            return;
        }
        match self.objects.get(index as usize).cloned().flatten() {
            Some(Object::Pen(pen)) => self.state.pen = pen,
            Some(Object::Brush(brush)) => self.state.brush = brush,
            Some(Object::Font(font)) => self.state.font = *font,
            Some(Object::Other) | None => {}
        }
    }

    /// Begins to put a path together.
    pub(super) fn begin_path(&mut self) {
        self.path = Some(Path::default());
    }

    pub(super) fn end_path(&mut self) {
        self.done = self.path.take().unwrap_or_default();
    }

    pub(super) fn close_figure(&mut self) {
        if let Some(path) = &mut self.path {
            path.close();
        }
    }

    pub(super) fn take_path(&mut self) -> Path {
        std::mem::take(&mut self.done)
    }

    /// Draws what was put together.
    pub(super) fn paint_path(&mut self, fills: bool, strokes: bool) {
        let path = self.take_path();
        self.paint(path, fills, strokes);
    }

    /// Lines through points. With `closes` they are a shape.
    pub(super) fn lines(&mut self, points: &[Point], closes: bool) {
        let Some((first, others)) = points.split_first() else { return };
        let transform = self.transform();
        let mut path = Path::default();
        path.move_to(transform.apply(*first));
        for point in others {
            path.line_to(transform.apply(*point));
        }
        if closes {
            path.close();
        }
        self.put(path, closes);
    }

    /// Several shapes, of which one may be a hole in another.
    pub(super) fn shapes(&mut self, shapes: &[Vec<Point>], closes: bool) {
        let transform = self.transform();
        let mut path = Path::default();
        for shape in shapes {
            for (index, point) in shape.iter().enumerate() {
                let point = transform.apply(*point);
                if index == 0 { path.move_to(point) } else { path.line_to(point) }
            }
            if closes {
                path.close();
            }
        }
        self.put(path, closes);
    }

    /// Bezier curves: a point, and three for each curve.
    pub(super) fn curves(&mut self, points: &[Point]) {
        let path = self.curve_path(points);
        self.put(path, false);
    }

    fn curve_path(&self, points: &[Point]) -> Path {
        let transform = self.transform();
        let mut path = Path::default();
        if let Some((first, others)) = points.split_first() {
            path.move_to(transform.apply(*first));
            for curve in others.as_chunks::<3>().0 {
                path.curve_to(curve.map(|point| transform.apply(point)));
            }
        }
        path
    }

    /// Goes on from where the last line ended.
    pub(super) fn lines_from_here(&mut self, points: &[Point]) {
        let Some(&last) = points.last() else { return };
        let transform = self.transform();
        let mut path = Path::default();
        if self.path.as_ref().is_none_or(Path::is_empty) {
            path.move_to(transform.apply(self.state.at));
        }
        for point in points {
            path.line_to(transform.apply(*point));
        }
        self.state.at = last;
        self.put(path, false);
    }

    pub(super) fn curves_from_here(&mut self, points: &[Point]) {
        let Some(&last) = points.last() else { return };
        let mut path = self.curve_path(&[&[self.state.at], points].concat());
        if self.path.as_ref().is_some_and(|path| !path.is_empty()) {
            let curves = path.data.find('C').unwrap_or(0);
            path.data.drain(..curves);
        }
        self.state.at = last;
        self.put(path, false);
    }

    pub(super) fn move_to(&mut self, point: Point) {
        self.state.at = point;
        let placed = self.place(point);
        if let Some(path) = &mut self.path {
            path.move_to(placed);
        }
    }

    pub(super) fn rectangle(&mut self, (left, top): Point, (right, bottom): Point) {
        self.lines(&[(left, top), (right, top), (right, bottom), (left, bottom)], true);
    }

    /// An ellipse in a box, or a part of it between two angles.
    pub(super) fn ellipse(&mut self, (left, top): Point, (right, bottom): Point) {
        let centre = (f64::midpoint(left, right), f64::midpoint(top, bottom));
        let radii = ((right - left).abs() / 2.0, (bottom - top).abs() / 2.0);
        let mut path = self.curve_path(&arc(centre, radii, 0.0, std::f64::consts::TAU));
        path.close();
        self.put(path, true);
    }

    /// A part of an ellipse in a box, between the directions of two points: open, closed by a line, or by lines to the middle.
    pub(super) fn arc(&mut self, box_of: (Point, Point), ends: (Point, Point), closing: Closing) {
        let ((left, top), (right, bottom)) = box_of;
        let centre = (f64::midpoint(left, right), f64::midpoint(top, bottom));
        let radii = ((right - left).abs() / 2.0, (bottom - top).abs() / 2.0);
        if radii.0 == 0.0 || radii.1 == 0.0 {
            return;
        }
        let angle = |(x, y): Point| ((y - centre.1) / radii.1).atan2((x - centre.0) / radii.0);
        let (from, to) = (angle(ends.0), angle(ends.1));
        let mut sweep = to - from;
        if self.state.clockwise {
            if sweep <= 0.0 {
                sweep += std::f64::consts::TAU;
            }
        } else if sweep >= 0.0 {
            sweep -= std::f64::consts::TAU;
        }
        let points = arc(centre, radii, from, sweep);
        if closing == Closing::FromHere {
            let first = points.first().copied().unwrap_or(centre);
            self.lines_from_here(&[first]);
            return self.curves_from_here(points.get(1..).unwrap_or_default());
        }
        let mut path = self.curve_path(&points);
        if closing == Closing::Middle {
            path.line_to(self.place(centre));
        }
        if closing != Closing::Open {
            path.close();
        }
        self.put(path, closing != Closing::Open);
    }

    /// A rectangle with round corners, whose width and height are given.
    pub(super) fn round_rectangle(&mut self, (left, top): Point, (right, bottom): Point, corner: Point) {
        let (left, right) = (left.min(right), left.max(right));
        let (top, bottom) = (top.min(bottom), top.max(bottom));
        let (x, y) = ((corner.0.abs() / 2.0).min((right - left) / 2.0), (corner.1.abs() / 2.0).min((bottom - top) / 2.0));
        let quarter = std::f64::consts::FRAC_PI_2;
        let mut points: Vec<Point> = Vec::new();
        let corners =
            [(right - x, top + y, 3.0), (right - x, bottom - y, 0.0), (left + x, bottom - y, 1.0), (left + x, top + y, 2.0)];
        let transform = self.transform();
        let mut path = Path::default();
        for (centre_x, centre_y, turn) in corners {
            points.clear();
            points.extend(arc((centre_x, centre_y), (x, y), turn * quarter, quarter));
            let first = transform.apply(points[0]);
            if path.is_empty() {
                path.move_to(first)
            } else {
                path.line_to(first)
            }
            for curve in points[1..].as_chunks::<3>().0 {
                path.curve_to(curve.map(|point| transform.apply(point)));
            }
        }
        path.close();
        self.put(path, true);
    }

    /// Adds to the path that is put together, or draws.
    fn put(&mut self, path: Path, fills: bool) {
        match &mut self.path {
            Some(open) => open.data.push_str(&path.data),
            None => self.paint(path, fills, true),
        }
    }

    fn paint(&mut self, path: Path, fills: bool, strokes: bool) {
        if path.is_empty() || self.state.mix == 11 {
            return;
        }
        if !matches!(self.state.mix, 1 | 13 | 16) {
            self.miss("colours that mix with those below");
        }
        let fill = if fills { self.fill() } else { None };
        let stroke = if strokes { self.stroke() } else { String::new() };
        if fill.is_none() && stroke.is_empty() {
            return;
        }
        let fill = fill.unwrap_or_else(|| "none".to_owned());
        let rule = if fills && !self.state.winding { " fill-rule=\"evenodd\"" } else { "" };
        let clip = self.clip_attribute();
        let _ = writeln!(self.out, "<path d=\"{}\" fill=\"{fill}\"{rule}{stroke}{clip}/>", path.data);
    }

    fn mixed(&self, colour: Colour) -> Colour {
        match self.state.mix {
            1 => 0,
            16 => 0x00FF_FFFF,
            _ => colour,
        }
    }

    /// What fills shapes; `None` where nothing does.
    fn fill(&mut self) -> Option<String> {
        match self.state.brush.clone() {
            Brush::None => None,
            Brush::Solid(colour) => Some(format!("#{:06x}", self.mixed(colour))),
            Brush::Hatch(kind, colour) => {
                let lines = match kind {
                    0 => "M0 4H8",
                    1 => "M4 0V8",
                    2 => "M0 0L8 8",
                    3 => "M0 8L8 0",
                    4 => "M0 4H8M4 0V8",
                    _ => "M0 0L8 8M0 8L8 0",
                };
                let ground = if self.state.is_opaque {
                    format!("<rect width=\"8\" height=\"8\" fill=\"#{:06x}\"/>", self.state.ground)
                } else {
                    String::new()
                };
                let name = self.name();
                let _ = writeln!(
                    self.definitions,
                    "<pattern id=\"m{name}\" width=\"8\" height=\"8\" patternUnits=\"userSpaceOnUse\">{ground}<path d=\"{lines}\" stroke=\"#{colour:06x}\" fill=\"none\"/></pattern>"
                );
                Some(format!("url(#m{name})"))
            }
            Brush::Pattern(address, (width, height)) => {
                let name = self.name();
                let _ = writeln!(
                    self.definitions,
                    "<pattern id=\"m{name}\" width=\"{width}\" height=\"{height}\" patternUnits=\"userSpaceOnUse\"><image width=\"{width}\" height=\"{height}\" href=\"{address}\"/></pattern>"
                );
                Some(format!("url(#m{name})"))
            }
        }
    }

    fn name(&mut self) -> usize {
        self.names += 1;
        self.names
    }

    /// The attributes of a line; none where no line is drawn.
    fn stroke(&self) -> String {
        let pen = &self.state.pen;
        let Some(colour) = pen.colour else { return String::new() };
        let mut out = format!(" stroke=\"#{:06x}\" stroke-width=\"", self.mixed(colour));
        // No line is thinner than a pixel of the device.
        let width = (pen.width * self.transform().scale()).max(1.0);
        number(&mut out, width);
        out.push('"');
        if pen.cap != "butt" {
            let _ = write!(out, " stroke-linecap=\"{}\"", pen.cap);
        }
        if pen.join != "miter" {
            let _ = write!(out, " stroke-linejoin=\"{}\"", pen.join);
        }
        if !pen.dashes.is_empty() {
            out.push_str(" stroke-dasharray=\"");
            for (index, length) in pen.dashes.iter().enumerate() {
                if index > 0 {
                    out.push(' ');
                }
                number(&mut out, f64::from(*length) * width);
            }
            out.push('"');
        }
        out
    }

    fn clip_attribute(&self) -> String {
        self.state.clip.map_or_else(String::new, |clip| format!(" clip-path=\"url(#m{clip})\""))
    }

    /// Only what is in a path is drawn from here on, and in what was drawn in so far.
    pub(super) fn clip(&mut self, path: &Path, evenodd: bool) {
        let around = self.clip_attribute();
        let name = self.name();
        let rule = if evenodd { " clip-rule=\"evenodd\"" } else { "" };
        let data = if path.is_empty() { "M0 0" } else { &path.data };
        let _ = writeln!(self.definitions, "<clipPath id=\"m{name}\"{around}><path d=\"{data}\"{rule}/></clipPath>");
        self.state.clip = Some(name);
    }

    /// All is drawn again.
    pub(super) fn unclip(&mut self) {
        self.state.clip = None;
    }

    pub(super) fn clip_rectangle(&mut self, (left, top): Point, (right, bottom): Point) {
        let path = self.boxes(&[((left, top), (right, bottom))]);
        self.clip(&path, false);
    }

    /// Nothing is drawn in a rectangle from here on.
    pub(super) fn exclude_rectangle(&mut self, from: Point, to: Point) {
        const ALL: f64 = 1e6;
        let mut path = Path { data: format!("M-{ALL} -{ALL}H{ALL}V{ALL}H-{ALL}Z") };
        path.data.push_str(&self.boxes(&[(from, to)]).data);
        self.clip(&path, true);
    }

    /// Rectangles in logical units.
    pub(super) fn boxes(&self, boxes: &[(Point, Point)]) -> Path {
        let transform = self.transform();
        let mut path = Path::default();
        for &((left, top), (right, bottom)) in boxes {
            path.move_to(transform.apply((left, top)));
            for corner in [(right, top), (right, bottom), (left, bottom)] {
                path.line_to(transform.apply(corner));
            }
            path.close();
        }
        path
    }

    /// Fills a path with a brush.
    pub(super) fn fill_with(&mut self, path: Path, brush: Brush) {
        let own = std::mem::replace(&mut self.state.brush, brush);
        self.paint(path, true, false);
        self.state.brush = own;
    }

    /// A bitmap in a box. What of it is shown is given in its pixels.
    pub(super) fn image(&mut self, bitmap: &Bitmap, shown: (Point, Point), (at, size): (Point, Point), look: &str) {
        if size.0 != 0.0 && size.1 != 0.0 {
            let to = Matrix { m11: size.0, m12: 0.0, m21: 0.0, m22: size.1, dx: at.0, dy: at.1 };
            self.image_through(bitmap, shown, to.then(self.transform()), look);
        }
    }

    /// A bitmap on the place to which a transform takes the square of one unit. What of it is shown is given in its pixels.
    pub(super) fn image_through(&mut self, bitmap: &Bitmap, shown: (Point, Point), square: Matrix, look: &str) {
        let ((x, y), (width, height)) = shown;
        let (whole_x, whole_y) = (f64::from(bitmap.size.0), f64::from(bitmap.size.1));
        if width == 0.0 || height == 0.0 {
            return;
        }
        // From pixels of the bitmap to the square, and on to the device.
        let to_square = Matrix { m11: 1.0 / width, m12: 0.0, m21: 0.0, m22: 1.0 / height, dx: -x / width, dy: -y / height };
        let matrix = to_square.then(square);
        let is_part = x > 0.5 || y > 0.5 || x + width + 0.5 < whole_x || y + height + 0.5 < whole_y;
        let before = self.state.clip;
        if is_part {
            let corners = [(0.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 1.0)].map(|corner| square.apply(corner));
            self.clip(&Path::polygon(&corners), false);
        }
        let clip = self.clip_attribute();
        self.state.clip = before;
        // What clips is in the units of the device, and the bitmap is not.
        let (open, close) = if clip.is_empty() { (String::new(), "") } else { (format!("<g{clip}>"), "</g>") };
        self.out.push_str(&open);
        self.out.push_str("<image transform=\"matrix(");
        matrix_text(&mut self.out, matrix);
        let _ = writeln!(
            self.out,
            ")\" width=\"{}\" height=\"{}\" preserveAspectRatio=\"none\"{look} href=\"{}\"/>{close}",
            bitmap.size.0, bitmap.size.1, bitmap.address
        );
    }

    /// A line of text at a point. `widths` are the distances between the beginnings of its characters.
    pub(super) fn text(&mut self, text: &str, at: Point, widths: &[f64]) {
        let at = if self.state.align & 1 != 0 { self.state.at } else { at };
        let advance: f64 = widths.iter().sum();
        let shown: String = text.chars().filter(|c| !c.is_control()).collect();
        if self.state.align & 1 != 0 {
            self.state.at.0 += advance;
        }
        if shown.trim().is_empty() {
            return;
        }
        let font = self.state.font.clone();
        let size = font.size();
        // Where the letters stand above and below their line, as most fonts have it ([MS-WMF] 2.1.2.3).
        let lift = match self.state.align & 24 {
            24 => 0.0,
            8 => -0.212 * size,
            _ => 0.905 * size,
        };
        let transform = self.transform();
        let turn = -font.escapement / 10.0 * std::f64::consts::PI / 180.0;
        let (sine, cosine) = turn.sin_cos();
        // Letters stand upright although the units go upwards.
        let flip = |part: f64| if part < 0.0 { -1.0 } else { 1.0 };
        let upright = Matrix { m11: flip(transform.m11), m12: 0.0, m21: 0.0, m22: flip(transform.m22), dx: 0.0, dy: 0.0 };
        let rotation = Matrix { m11: cosine, m12: sine, m21: -sine, m22: cosine, dx: 0.0, dy: 0.0 };
        let mut matrix = rotation.then(upright).then(Matrix { dx: 0.0, dy: 0.0, ..transform });
        (matrix.dx, matrix.dy) = transform.apply(at);
        let anchor = match self.state.align & 6 {
            6 => Anchor::Middle,
            2 => Anchor::End,
            _ => Anchor::Start,
        };
        let colour = self.state.text_colour;
        self.letters(&shown, &Letters { font: &font, size, matrix, lift, colour, opacity: 1.0, anchor, advance });
    }

    /// A line of text.
    pub(super) fn letters(&mut self, text: &str, look: &Letters<'_>) {
        self.out.push_str("<text transform=\"matrix(");
        matrix_text(&mut self.out, look.matrix);
        self.out.push_str(")\" y=\"");
        number(&mut self.out, look.lift);
        self.out.push_str("\" font-size=\"");
        number(&mut self.out, look.size);
        let font = look.font;
        let face: String = font.face.chars().filter(|c| c.is_alphanumeric() || matches!(c, ' ' | '-' | '.')).collect();
        let _ = write!(self.out, "\" font-family=\"{}, sans-serif\" fill=\"#{:06x}\"", quoted(&face), look.colour);
        opacity(&mut self.out, "fill-opacity", look.opacity);
        if font.weight >= 600 {
            self.out.push_str(" font-weight=\"bold\"");
        }
        if font.italic {
            self.out.push_str(" font-style=\"italic\"");
        }
        let decoration = [(font.underline, "underline"), (font.strike, "line-through")];
        let decoration: Vec<&str> = decoration.into_iter().filter(|(on, _)| *on).map(|(_, line)| line).collect();
        if !decoration.is_empty() {
            let _ = write!(self.out, " text-decoration=\"{}\"", decoration.join(" "));
        }
        match look.anchor {
            Anchor::Middle => self.out.push_str(" text-anchor=\"middle\""),
            Anchor::End => self.out.push_str(" text-anchor=\"end\""),
            Anchor::Start => {}
        }
        if look.advance > 0.0 && text.chars().count() > 1 {
            // With the fonts of another machine, too, it takes the room that it had.
            self.out.push_str(" textLength=\"");
            number(&mut self.out, look.advance);
            self.out.push_str("\" lengthAdjust=\"spacingAndGlyphs\"");
        }
        let _ = write!(self.out, " xml:space=\"preserve\"{}>", self.clip_attribute());
        escape(&mut self.out, text);
        self.out.push_str("</text>\n");
    }

    /// A path with attributes of its own for filling and lines.
    pub(super) fn draw(&mut self, path: &Path, look: &str) {
        if !path.is_empty() {
            let clip = self.clip_attribute();
            let _ = writeln!(self.out, "<path d=\"{}\"{look}{clip}/>", path.data);
        }
    }

    /// What fills with colours that run from one point to another: their places from 0 to 1, the colours, and how much each covers.
    pub(super) fn run_of_colours(&mut self, from: Point, to: Point, stops: &[(f64, Colour, f64)], repeat: &str) -> String {
        let name = self.name();
        let out = &mut self.definitions;
        let _ = write!(out, "<linearGradient id=\"m{name}\" gradientUnits=\"userSpaceOnUse\"{repeat}");
        for (attribute, place) in [("x1", from.0), ("y1", from.1), ("x2", to.0), ("y2", to.1)] {
            let _ = write!(out, " {attribute}=\"");
            number(out, place);
            out.push('"');
        }
        out.push('>');
        for (place, colour, covers) in stops {
            out.push_str("<stop offset=\"");
            number(out, place.clamp(0.0, 1.0));
            let _ = write!(out, "\" stop-color=\"#{colour:06x}\"");
            opacity(out, "stop-opacity", *covers);
            out.push_str("/>");
        }
        out.push_str("</linearGradient>\n");
        format!("url(#m{name})")
    }

    /// What fills as a brush does.
    pub(super) fn fill_of(&mut self, brush: Brush) -> Option<String> {
        let own = std::mem::replace(&mut self.state.brush, brush);
        let fill = self.fill();
        self.state.brush = own;
        fill
    }

    /// The drawing: what is in a box is shown with a size in pixels, without what is cut off on its sides.
    pub(super) fn finish(self, (corner, size): (Point, Point), shown: Point, cut: [f64; 4]) -> super::Drawing {
        let [left, top, right, bottom] = cut.map(|share| share.clamp(0.0, 1.0));
        let stays = ((1.0 - left - right).max(0.001), (1.0 - top - bottom).max(0.001));
        let (x, y) = (corner.0 + size.0 * left, corner.1 + size.1 * top);
        let (width, height) = (size.0 * stays.0, size.1 * stays.1);
        let shown = (shown.0 * stays.0, shown.1 * stays.1);
        let mut svg = String::with_capacity(self.out.len() + self.definitions.len() + 300);
        svg.push_str("<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"");
        for (index, part) in [x, y, width, height].into_iter().enumerate() {
            if index > 0 {
                svg.push(' ');
            }
            number(&mut svg, part);
        }
        svg.push_str("\" width=\"");
        number(&mut svg, shown.0.clamp(1.0, 20_000.0));
        svg.push_str("\" height=\"");
        number(&mut svg, shown.1.clamp(1.0, 20_000.0));
        svg.push_str("\">\n");
        if !self.definitions.is_empty() {
            let _ = write!(svg, "<defs>\n{}</defs>\n", self.definitions);
        }
        svg.push_str(&self.out);
        svg.push_str("</svg>\n");
        super::Drawing { svg: svg.into_bytes(), missing: self.missing.into_iter().collect() }
    }

    /// Whether anything is drawn.
    pub(super) fn is_empty(&self) -> bool {
        self.out.is_empty()
    }
}

/// How a line of text looks.
#[derive(Clone, Copy, Debug)]
pub(super) struct Letters<'f> {
    pub(super) font: &'f Font,
    pub(super) size: f64,
    pub(super) matrix: Matrix,
    /// How far the letters stand below the point, in the units of the text.
    pub(super) lift: f64,
    pub(super) colour: Colour,
    /// How much they cover: 1 for all.
    pub(super) opacity: f64,
    pub(super) anchor: Anchor,
    /// The room that they take; 0 where nothing says it.
    pub(super) advance: f64,
}

/// Which part of a line of text stands at its point.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Anchor {
    Start,
    Middle,
    End,
}

/// Writes how much something covers, where that is not all.
pub(super) fn opacity(out: &mut String, attribute: &str, covers: f64) {
    if covers < 0.999 {
        let _ = write!(out, " {attribute}=\"");
        number(out, covers.max(0.0));
        out.push('"');
    }
}

fn matrix_text(out: &mut String, matrix: Matrix) {
    for (index, part) in [matrix.m11, matrix.m12, matrix.m21, matrix.m22, matrix.dx, matrix.dy].into_iter().enumerate() {
        let part = if part.is_finite() { part.clamp(-1e7, 1e7) } else { 0.0 };
        let _ = write!(out, "{}{}", if index == 0 { "" } else { " " }, (part * 1e6).round() / 1e6);
    }
}

/// How a part of an ellipse is closed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Closing {
    /// Not at all.
    Open,
    /// Not at all, and a line leads to it from where the last one ended.
    FromHere,
    /// By a line between its ends.
    Chord,
    /// By lines to the middle.
    Middle,
}

fn quoted(face: &str) -> String {
    if face.trim().is_empty() { "Arial".to_owned() } else { format!("'{}'", face.trim()) }
}

/// Text as markup has it.
fn escape(out: &mut String, text: &str) {
    for c in text.chars() {
        match c {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '>' => out.push_str("&gt;"),
            '\u{FFFE}' | '\u{FFFF}' => out.push(char::REPLACEMENT_CHARACTER),
            c => out.push(c),
        }
    }
}
