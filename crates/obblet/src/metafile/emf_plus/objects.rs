//! What records of the extension make: brushes, pens, paths, regions, pictures and fonts ([MS-EMFPLUS] 2.2.1).

use crate::metafile::bitmap::{self, Bitmap};
use crate::metafile::bytes::Bytes;
use crate::metafile::geometry::{Matrix, Path, Point};
use crate::metafile::objects::{Colour, Font, mixed};

/// So many points may a path have.
pub(super) const MOST_POINTS: usize = 1 << 20;

/// Regions are put together of others; deeper than this they are not read.
const DEEPEST: usize = 64;

/// A colour and how much it covers ([MS-EMFPLUS] 2.2.2.1).
pub(super) fn colour(argb: u32) -> (Colour, f64) {
    (argb & 0x00FF_FFFF, f64::from(argb >> 24) / 255.0)
}

/// A colour where a run of colours has it: its place from 0 to 1, and how much it covers.
pub(super) type Stop = (f64, Colour, f64);

#[derive(Clone, Debug)]
pub(super) enum Brush {
    Solid(Colour, f64),
    /// Lines of a kind, their colour, and that of the ground with how much it covers.
    Hatch(u32, Colour, (Colour, f64)),
    Texture(Box<Bitmap>),
    /// Colours that run from one point to another.
    Run {
        from: Point,
        to: Point,
        stops: Vec<Stop>,
        matrix: Matrix,
        wrap: u32,
    },
    /// Colours that run in another way, as one colour.
    Mean(Colour, f64),
}

#[derive(Clone, Debug)]
pub(super) struct Pen {
    pub(super) brush: Brush,
    pub(super) width: f64,
    /// The unit of its width ([MS-EMFPLUS] 2.1.1.33).
    pub(super) unit: u32,
    pub(super) cap: &'static str,
    pub(super) join: &'static str,
    /// Lengths of dashes and gaps, in widths of the line.
    pub(super) dashes: Vec<f64>,
    /// Whether arrows or other signs stand at its ends.
    pub(super) has_signs: bool,
}

/// Points with what each of them is ([MS-EMFPLUS] 2.2.2.31).
#[derive(Clone, Debug, Default)]
pub(super) struct Points {
    points: Vec<Point>,
    kinds: Vec<u8>,
}

impl Points {
    /// As a path, each point where the transform takes it.
    pub(super) fn path(&self, matrix: Matrix) -> Path {
        let mut path = Path::default();
        let mut at = 0;
        while let (Some(point), Some(kind)) = (self.points.get(at), self.kinds.get(at)) {
            match (kind & 0xF, self.points.get(at..at + 3)) {
                (3, Some([one, two, three])) if !path.is_empty() => {
                    path.curve_to([*one, *two, *three].map(|point| matrix.apply(point)));
                    at += 2;
                }
                (0, _) => path.move_to(matrix.apply(*point)),
                _ if path.is_empty() => path.move_to(matrix.apply(*point)),
                _ => path.line_to(matrix.apply(*point)),
            }
            if self.kinds.get(at).is_some_and(|kind| kind & 0x80 != 0) {
                path.close();
            }
            at += 1;
        }
        path
    }
}

/// A part of the plane ([MS-EMFPLUS] 2.2.2.40).
#[derive(Clone, Debug)]
pub(super) enum Region {
    Rectangle(Point, Point),
    Path(Points),
    Empty,
    Infinite,
    /// Two of them, and how they are put together ([MS-EMFPLUS] 2.1.1.4).
    Both(u32, Box<(Self, Self)>),
}

#[derive(Clone, Debug)]
pub(super) enum Object {
    Brush(Brush),
    Pen(Box<Pen>),
    Path(Points),
    Region(Region),
    Image(Bitmap),
    /// A font and the unit of its size.
    Font(Box<Font>, u32),
    /// Where text stands in its box: to the right, and downwards.
    Format(u32, u32),
}

impl Object {
    /// Reads an object of a kind ([MS-EMFPLUS] 2.1.1.22).
    pub(super) fn read(kind: u16, data: Bytes<'_>, pixels: &mut u64) -> Option<Self> {
        match kind {
            1 => brush(data, pixels).map(Self::Brush),
            2 => pen(data, pixels).map(Box::new).map(Self::Pen),
            3 => points(data).map(Self::Path),
            4 => region(data, &mut 8, 0).map(Self::Region),
            5 => image(data, pixels).map(Self::Image),
            6 => font(data).map(|(font, unit)| Self::Font(Box::new(font), unit)),
            7 => Some(Self::Format(data.u32(12)?, data.u32(16)?)),
            _ => None,
        }
    }
}

fn point(data: Bytes<'_>, at: usize) -> Option<Point> {
    Some((data.f32(at)?, data.f32(at + 4)?))
}

/// A transform ([MS-EMFPLUS] 2.2.2.47).
pub(super) fn matrix(data: Bytes<'_>, at: usize) -> Option<Matrix> {
    let part = |index: usize| data.f32(at + index * 4);
    Some(Matrix { m11: part(0)?, m12: part(1)?, m21: part(2)?, m22: part(3)?, dx: part(4)?, dy: part(5)? })
}

/// Brushes ([MS-EMFPLUS] 2.2.1.1).
fn brush(data: Bytes<'_>, pixels: &mut u64) -> Option<Brush> {
    let own = data.from(8)?;
    Some(match data.u32(4)? {
        0 => {
            let (colour, covers) = colour(own.u32(0)?);
            Brush::Solid(colour, covers)
        }
        1 => Brush::Hatch(own.u32(0)?, colour(own.u32(4)?).0, colour(own.u32(8)?)),
        2 => {
            let start = if own.u32(0)? & 2 != 0 { 32 } else { 8 };
            Brush::Texture(Box::new(image(own.from(start)?, pixels)?))
        }
        3 => {
            let (colour, covers) = colour(own.u32(8)?);
            Brush::Mean(colour, covers)
        }
        4 => run_of_colours(own)?,
        _ => return None,
    })
}

/// Colours that run from left to right through a box, before its transform ([MS-EMFPLUS] 2.2.2.24).
fn run_of_colours(data: Bytes<'_>) -> Option<Brush> {
    let (flags, wrap) = (data.u32(0)?, data.u32(4)?);
    let (left, width) = (data.f32(8)?, data.f32(16)?);
    let ends = (colour(data.u32(24)?), colour(data.u32(28)?));
    let mut at = 40;
    let mut through = Matrix::IDENTITY;
    if flags & 2 != 0 {
        through = matrix(data, at)?;
        at += 24;
    }
    let mut stops = Vec::new();
    if flags & 4 != 0 {
        let count = (data.u32(at)? as usize).min(1000);
        for index in 0..count {
            let (of, covers) = colour(data.u32(at + 4 + (count + index) * 4)?);
            stops.push((data.f32(at + 4 + index * 4)?, of, covers));
        }
    } else if flags & 8 != 0 {
        let count = (data.u32(at)? as usize).min(1000);
        for index in 0..count {
            let share = data.f32(at + 4 + (count + index) * 4)?.clamp(0.0, 1.0);
            let ((from, from_covers), (to, to_covers)) = ends;
            stops.push((data.f32(at + 4 + index * 4)?, mixed(from, to, share), from_covers + (to_covers - from_covers) * share));
        }
    }
    if stops.is_empty() {
        stops = vec![(0.0, ends.0.0, ends.0.1), (1.0, ends.1.0, ends.1.1)];
    }
    Some(Brush::Run { from: (left, 0.0), to: (left + width, 0.0), stops, matrix: through, wrap })
}

/// Pens ([MS-EMFPLUS] 2.2.1.7 and 2.2.2.33).
fn pen(data: Bytes<'_>, pixels: &mut u64) -> Option<Pen> {
    let (flags, unit, width) = (data.u32(8)?, data.u32(12)?, data.f32(16)?);
    let mut at = 20;
    let mut pen = Pen {
        brush: Brush::Solid(0, 1.0),
        width: width.abs(),
        unit,
        cap: "butt",
        join: "miter",
        dashes: Vec::new(),
        has_signs: false,
    };
    let mut style = 0;
    if flags & 1 != 0 {
        at += 24;
    }
    for bit in [2_u32, 4, 8, 0x10, 0x20, 0x40, 0x80] {
        if flags & bit == 0 {
            continue;
        }
        let value = data.u32(at)?;
        at += 4;
        match (bit, value) {
            (2, 1) => pen.cap = "square",
            (2, 2) => pen.cap = "round",
            // From here on the ends are signs of their own ([MS-EMFPLUS] 2.1.1.18).
            (2 | 4, 0x10..) => pen.has_signs = true,
            (8, 1) => pen.join = "bevel",
            (8, 2) => pen.join = "round",
            (0x20, value) => style = value,
            _ => {}
        }
    }
    pen.dashes = match style {
        1 => vec![3.0, 1.0],
        2 => vec![1.0, 1.0],
        3 => vec![3.0, 1.0, 1.0, 1.0],
        4 => vec![3.0, 1.0, 1.0, 1.0, 1.0, 1.0],
        _ => Vec::new(),
    };
    if flags & 0x100 != 0 {
        let count = data.u32(at)? as usize;
        pen.dashes = (0..count.min(100)).map_while(|index| data.f32(at + 4 + index * 4)).map(f64::abs).collect();
        at = at.checked_add(4)?.checked_add(count.checked_mul(4)?)?;
    }
    if flags & 0x200 != 0 {
        at += 4;
    }
    if flags & 0x400 != 0 {
        at = at.checked_add(4)?.checked_add((data.u32(at)? as usize).checked_mul(4)?)?;
    }
    for bit in [0x800, 0x1000] {
        if flags & bit != 0 {
            pen.has_signs = true;
            at = at.checked_add(4)?.checked_add(data.u32(at)? as usize)?;
        }
    }
    pen.brush = brush(data.from(at)?, pixels)?;
    Some(pen)
}

/// Numbers of one or two bytes ([MS-EMFPLUS] 2.2.2.21 and 2.2.2.22).
fn packed(data: Bytes<'_>, at: &mut usize) -> Option<f64> {
    let first = u32::from(*data.0.get(*at)?);
    *at += 1;
    if first & 0x80 == 0 {
        // Seven bits with a sign.
        return Some(f64::from((first << 25).cast_signed() >> 25));
    }
    let second = u32::from(*data.0.get(*at)?);
    *at += 1;
    Some(f64::from(((first << 8 | second) << 17).cast_signed() >> 17))
}

/// Points in one of the three ways in which they are written, and where they end. Of those that stand beside one another
/// (`is_relative`), each is counted from the one before.
pub(super) fn list_of_points(
    data: Bytes<'_>,
    mut at: usize,
    count: u32,
    is_short: bool,
    is_relative: bool,
) -> Option<(Vec<Point>, usize)> {
    let mut points = Vec::new();
    let mut last = (0.0, 0.0);
    for _ in 0..count {
        let next = if is_relative {
            let (x, y) = (packed(data, &mut at)?, packed(data, &mut at)?);
            last = (last.0 + x, last.1 + y);
            last
        } else if is_short {
            at += 4;
            (data.i16(at - 4)?.into(), data.i16(at - 2)?.into())
        } else {
            at += 8;
            point(data, at - 8)?
        };
        if points.len() == MOST_POINTS {
            return None;
        }
        points.push(next);
    }
    Some((points, at))
}

/// Paths ([MS-EMFPLUS] 2.2.1.6).
fn points(data: Bytes<'_>) -> Option<Points> {
    let (count, flags) = (data.u32(4)?, data.u32(8)?);
    let (points, mut at) = list_of_points(data, 12, count, flags & 0x4000 != 0, flags & 0x0800 != 0)?;
    let mut kinds = Vec::with_capacity(points.len());
    while kinds.len() < points.len() {
        let kind = *data.0.get(at)?;
        if flags & 0x1000 == 0 {
            kinds.push(kind);
            at += 1;
        } else {
            // How often, and what ([MS-EMFPLUS] 2.2.2.30).
            let times = usize::from(kind & 0x3F).max(1).min(points.len() - kinds.len());
            let kind = *data.0.get(at + 1)?;
            kinds.extend(std::iter::repeat_n(kind, times));
            at += 2;
        }
    }
    Some(Points { points, kinds })
}

/// Regions ([MS-EMFPLUS] 2.2.1.8); `at` goes behind what was read.
fn region(data: Bytes<'_>, at: &mut usize, depth: usize) -> Option<Region> {
    let kind = data.u32(*at)?;
    *at += 4;
    Some(match kind {
        0x1000_0000 => {
            let (corner, size) = (point(data, *at)?, point(data, *at + 8)?);
            *at += 16;
            Region::Rectangle(corner, size)
        }
        0x1000_0001 => {
            let length = data.u32(*at)? as usize;
            let own = Bytes(data.slice(*at + 4, length)?);
            *at = at.checked_add(4)?.checked_add(length)?;
            Region::Path(points(own)?)
        }
        0x1000_0002 => Region::Empty,
        0x1000_0003 => Region::Infinite,
        1..=5 if depth < DEEPEST => {
            let first = region(data, at, depth + 1)?;
            Region::Both(kind, Box::new((first, region(data, at, depth + 1)?)))
        }
        _ => return None,
    })
}

/// Pictures ([MS-EMFPLUS] 2.2.1.4).
fn image(data: Bytes<'_>, pixels: &mut u64) -> Option<Bitmap> {
    if data.u32(4)? != 1 {
        return None;
    }
    let (width, height, row, format, is_file) = (data.i32(8)?, data.i32(12)?, data.i32(16)?, data.u32(20)?, data.u32(24)? == 1);
    let bits = data.0.get(28..)?;
    if is_file {
        return bitmap::of_file(bits, pixels);
    }
    let (width, height) = (u32::try_from(width).ok()?, u32::try_from(height).ok()?);
    bitmap::of_pixels(bits, (width, height), usize::try_from(row).ok()?, format, pixels)
}

/// Fonts ([MS-EMFPLUS] 2.2.1.3).
fn font(data: Bytes<'_>) -> Option<(Font, u32)> {
    let (size, unit, style, length) = (data.f32(4)?, data.u32(8)?, data.u32(12)?, data.u32(20)? as usize);
    let font = Font {
        height: -size.abs(),
        escapement: 0.0,
        weight: if style & 1 != 0 { 700 } else { 400 },
        italic: style & 2 != 0,
        underline: style & 4 != 0,
        strike: style & 8 != 0,
        charset: 0,
        face: data.utf16(24, length)?,
    };
    Some((font, unit))
}
