//! Enhanced metafiles ([MS-EMF]).

use super::Drawing;
use super::bitmap::{self, Bitmap};
use super::bytes::Bytes;
use super::canvas::{Canvas, Closing};
use super::emf_plus::Player;
use super::geometry::{Matrix, Path, Point};
use super::objects::{Brush, Font, Object, Pen, colour, mixed};

/// So many objects may there be.
const MOST_OBJECTS: usize = 1 << 16;

/// So many points may a record have.
const MOST_POINTS: usize = 1 << 20;

/// Draws a metafile.
pub(super) fn draw(bytes: &[u8], cut: [f64; 4]) -> Option<Drawing> {
    let header = Bytes(bytes);
    let edge = |at: usize| header.i32(at).map(f64::from);
    let bounds = ((edge(8)?, edge(12)?), (edge(16)?, edge(20)?));
    let frame = ((edge(24)?, edge(28)?), (edge(32)?, edge(36)?));
    let device = (edge(72)?.max(1.0), edge(76)?.max(1.0));
    let millimetres = (edge(80)?.max(1.0), edge(84)?.max(1.0));
    let mut canvas = Canvas::new();
    canvas.per_millimetre = (device.0 / millimetres.0, device.1 / millimetres.1);
    run(&mut canvas, bytes);
    if canvas.is_empty() {
        return None;
    }
    // The frame is in hundredths of a millimetre, what is drawn in units of the device.
    let (right, down) = canvas.per_millimetre;
    let of_frame = |(x, y): Point| (x / 100.0 * right, y / 100.0 * down);
    let size = |(from, to): (Point, Point)| (to.0 - from.0, to.1 - from.1);
    let (from, to) = if size(frame).0 > 0.0 && size(frame).1 > 0.0 {
        (of_frame(frame.0), of_frame(frame.1))
    } else {
        (bounds.0, (bounds.1.0 + 1.0, bounds.1.1 + 1.0))
    };
    let (width, height) = size((from, to));
    let shown = (width / right / 25.4 * 96.0, height / down / 25.4 * 96.0);
    (width > 0.0 && height > 0.0).then(|| canvas.finish((from, (width, height)), shown, cut))
}

/// The records of a metafile: their kinds, and what they hold.
fn records(bytes: &[u8]) -> impl Iterator<Item = (u32, Bytes<'_>)> {
    let mut at = 0;
    std::iter::from_fn(move || {
        let (kind, size) = (Bytes(bytes).u32(at)?, Bytes(bytes).u32(at + 4)? as usize);
        let record = bytes.get(at + 8..at.checked_add(size)?).filter(|_| size >= 8 && kind != 14)?;
        at += size;
        Some((kind, Bytes(record)))
    })
}

/// The records of the extension in a comment ([MS-EMF] 2.3.3.2).
fn of_extension<'b>(kind: u32, record: Bytes<'b>) -> Option<Bytes<'b>> {
    (kind == 70 && record.slice(4, 4) == Some(b"EMF+")).then(|| record.from(8))?
}

/// Whether the records of the extension draw, and those of the older form don't do it as well: their header says that
/// ([MS-EMFPLUS] 2.3.3.3).
fn draws_by_extension(bytes: &[u8]) -> bool {
    let mut parts = records(bytes).filter_map(|(kind, record)| of_extension(kind, record));
    parts.next().is_some_and(|header| header.u16(0) == Some(0x4001) && header.u16(2).is_some_and(|flags| flags & 1 == 0))
}

fn run(canvas: &mut Canvas, bytes: &[u8]) {
    let mut extension = draws_by_extension(bytes).then(Player::new);
    for (kind, record) in records(bytes) {
        if canvas.is_full() {
            break;
        }
        match (&mut extension, of_extension(kind, record)) {
            (Some(extension), Some(comment)) => extension.play(canvas, comment),
            // Older records draw only where the extension hands over to them.
            (Some(extension), None) if !extension.lets_others_draw && !makes_or_sets(kind) => {}
            (_, None) => {
                play(canvas, kind, record);
            }
            (None, Some(_)) => {}
        }
    }
}

/// Whether a record draws nothing itself.
fn makes_or_sets(kind: u32) -> bool {
    matches!(kind, 9..=13 | 16..=25 | 28 | 31..=40 | 48 | 49 | 57 | 58 | 82 | 93..=95 | 98..=101 | 115)
}

fn points16(record: Bytes<'_>, at: usize, count: u32) -> Vec<Point> {
    let points = (0..(count as usize).min(MOST_POINTS)).map_while(|index| {
        let at = at + index * 4;
        Some((record.i16(at)?.into(), record.i16(at + 2)?.into()))
    });
    points.collect()
}

fn points32(record: Bytes<'_>, at: usize, count: u32) -> Vec<Point> {
    (0..(count as usize).min(MOST_POINTS)).map_while(|index| point(record, at + index * 8)).collect()
}

fn point(record: Bytes<'_>, at: usize) -> Option<Point> {
    Some((record.i32(at)?.into(), record.i32(at + 4)?.into()))
}

fn corners(record: Bytes<'_>, at: usize) -> Option<(Point, Point)> {
    Some((point(record, at)?, point(record, at + 8)?))
}

fn matrix(record: Bytes<'_>, at: usize) -> Option<Matrix> {
    let part = |index: usize| record.f32(at + index * 4);
    Some(Matrix { m11: part(0)?, m12: part(1)?, m21: part(2)?, m22: part(3)?, dx: part(4)?, dy: part(5)? })
}

/// Plays a record; one that is too short does nothing.
fn play(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    match kind {
        2..=8 | 85..=92 | 56 => lines(canvas, kind, record),
        9..=39 | 48..=52 | 57 | 58 | 82 | 93..=95 | 98..=101 | 115 => state(canvas, kind, record),
        40..=47 | 53..=55 => shape(canvas, kind, record),
        59..=68 => path(canvas, kind, record),
        71..=75 => region(canvas, kind, record),
        76..=81 | 114 | 116 => image(canvas, kind, record),
        83 | 84 | 108 => text(canvas, kind, record),
        96 | 97 => polytext(canvas, kind, record),
        118 => gradient(canvas, record),
        _ => Some(()),
    }
}

/// Lines and curves ([MS-EMF] 2.3.5).
fn lines(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    let is_short = kind >= 85;
    if matches!(kind, 7 | 8 | 90 | 91) {
        let (shapes, all) = (record.u32(16)?, record.u32(20)?);
        let mut at = 24 + (shapes as usize).min(MOST_POINTS) * 4;
        let mut found = Vec::new();
        let mut left = all;
        for index in 0..(shapes as usize).min(MOST_POINTS) {
            let count = record.u32(24 + index * 4)?.min(left);
            found.push(if is_short { points16(record, at, count) } else { points32(record, at, count) });
            at += count as usize * if is_short { 4 } else { 8 };
            left -= count;
        }
        canvas.shapes(&found, matches!(kind, 8 | 91));
        return Some(());
    }
    let count = record.u32(16)?;
    let points = if is_short { points16(record, 20, count) } else { points32(record, 20, count) };
    match kind {
        2 | 85 => canvas.curves(&points),
        3 | 86 => canvas.lines(&points, true),
        4 | 87 => canvas.lines(&points, false),
        5 | 88 => canvas.curves_from_here(&points),
        6 | 89 => canvas.lines_from_here(&points),
        _ => {
            // What each point is stands behind them all.
            let kinds = record.slice(20 + points.len() * if is_short { 4 } else { 8 }, points.len())?;
            let mut at = 0;
            while let (Some(point), Some(kind)) = (points.get(at), kinds.get(at)) {
                match kind & 6 {
                    6 => canvas.move_to(*point),
                    4 => {
                        canvas.curves_from_here(points.get(at..at + 3)?);
                        at += 2;
                    }
                    _ => canvas.lines_from_here(&[*point]),
                }
                if kinds.get(at)? & 1 != 0 {
                    canvas.close_figure();
                }
                at += 1;
            }
        }
    }
    Some(())
}

/// What sets how others draw ([MS-EMF] 2.3.2, 2.3.7, 2.3.8 and 2.3.11).
fn state(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    let first = record.u32(0);
    match kind {
        9 => canvas.state.window.1 = point(record, 0)?,
        10 => canvas.state.window.0 = point(record, 0)?,
        11 => canvas.state.viewport.1 = point(record, 0)?,
        12 => canvas.state.viewport.0 = point(record, 0)?,
        17 => canvas.state.map_mode = first?,
        18 => canvas.state.is_opaque = first? == 2,
        19 => canvas.state.winding = first? == 2,
        20 => canvas.state.mix = first?,
        22 => canvas.state.align = first?,
        24 => canvas.state.text_colour = colour(first?),
        25 => canvas.state.ground = colour(first?),
        27 => canvas.move_to(point(record, 0)?),
        29 | 30 => {
            let (from, to) = corners(record, 0)?;
            if kind == 29 { canvas.exclude_rectangle(from, to) } else { canvas.clip_rectangle(from, to) }
        }
        31 | 32 => {
            let ratio =
                |at: usize| Some(f64::from(record.i32(at)?) / f64::from(Some(record.i32(at + 4)?).filter(|by| *by != 0)?));
            let (x, y) = (ratio(0)?, ratio(8)?);
            let extent = if kind == 31 { &mut canvas.state.viewport.1 } else { &mut canvas.state.window.1 };
            *extent = (extent.0 * x, extent.1 * y);
        }
        33 => canvas.save(),
        34 => canvas.restore(record.i32(0)?),
        35 => canvas.state.world = matrix(record, 0)?,
        36 => {
            let given = matrix(record, 0)?;
            canvas.state.world = match record.u32(24)? {
                1 => Matrix::IDENTITY,
                2 => given.then(canvas.state.world),
                3 => canvas.state.world.then(given),
                _ => given,
            };
        }
        37 => canvas.select(first?),
        57 => canvas.state.clockwise = first? == 2,
        38 | 39 | 40 | 49 | 82 | 93..=95 | 99 => object(canvas, kind, record)?,
        26 => canvas.miss("clipping that moves"),
        _ => {}
    }
    Some(())
}

/// Makes and drops objects ([MS-EMF] 2.3.7 and 2.3.8).
fn object(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    let index = record.u32(0)? as usize;
    let made = match kind {
        38 => Some(Object::Pen(Pen::of(record.u32(4)?, record.i32(8)?.into(), record.u32(16)?))),
        39 => Some(Object::Brush(Brush::of(record.u32(4)?, record.u32(8)?, record.u32(12)?))),
        40 => None,
        82 => Some(Object::Font(Box::new(Font::of_emf(record.from(4)?)?))),
        93 | 94 => {
            let bitmap = embedded(record, [8, 12, 16, 20], false, &mut canvas.pixels);
            Some(Object::Brush(bitmap.map_or(Brush::Solid(0x0080_8080), |bitmap| Brush::Pattern(bitmap.address, bitmap.size))))
        }
        95 => {
            let (style, width, brush, reference) = (record.u32(20)?, record.u32(24)?, record.u32(28)?, record.u32(32)?);
            let mut pen = Pen::of(style, f64::from(width), reference);
            if brush == 1 {
                pen.colour = None;
            }
            // A cosmetic line is as wide as a pixel.
            if style & 0x1_0000 == 0 {
                pen.width = 0.0;
            }
            Some(Object::Pen(pen))
        }
        _ => Some(Object::Other),
    };
    if index < MOST_OBJECTS {
        if canvas.objects.len() <= index {
            canvas.objects.resize(index + 1, None);
        }
        canvas.objects[index] = made;
    }
    Some(())
}

/// Ellipses, rectangles and parts of them ([MS-EMF] 2.3.5).
fn shape(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    if kind == 54 {
        canvas.lines_from_here(&[point(record, 0)?]);
        return Some(());
    }
    if kind == 40 {
        return object(canvas, kind, record);
    }
    if kind == 41 {
        let (centre, radius) = (point(record, 0)?, f64::from(record.u32(8)?));
        let (from, sweep) = (record.f32(12)?.to_radians(), record.f32(16)?.clamp(-360.0, 360.0).to_radians());
        // Angles are counted against the clock.
        let points = super::geometry::arc(centre, (radius, radius), -from, -sweep);
        canvas.lines_from_here(points.get(..1)?);
        canvas.curves_from_here(points.get(1..)?);
        return Some(());
    }
    if kind == 53 {
        canvas.miss("areas that are filled up to their border");
        return Some(());
    }
    let (from, to) = corners(record, 0)?;
    let ends = || corners(record, 16);
    match kind {
        42 => canvas.ellipse(from, to),
        43 => canvas.rectangle(from, to),
        44 => canvas.round_rectangle(from, to, point(record, 16)?),
        45 => canvas.arc((from, to), ends()?, Closing::Open),
        46 => canvas.arc((from, to), ends()?, Closing::Chord),
        47 => canvas.arc((from, to), ends()?, Closing::Middle),
        _ => canvas.arc((from, to), ends()?, Closing::FromHere),
    }
    Some(())
}

/// Paths ([MS-EMF] 2.3.10).
fn path(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    match kind {
        59 => canvas.begin_path(),
        60 => canvas.end_path(),
        61 => canvas.close_figure(),
        62 => canvas.paint_path(true, false),
        63 => canvas.paint_path(true, true),
        64 => canvas.paint_path(false, true),
        66 => canvas.miss("paths that are widened"),
        67 => {
            let path = canvas.take_path();
            clip(canvas, &path, record.u32(0)?);
        }
        68 => {
            canvas.end_path();
            canvas.take_path();
        }
        _ => {}
    }
    Some(())
}

/// Clips in one of the ways to combine regions ([MS-EMF] 2.1.29).
fn clip(canvas: &mut Canvas, path: &Path, mode: u32) {
    match mode {
        1 => canvas.clip(path, !canvas.state.winding),
        5 => {
            canvas.unclip();
            canvas.clip(path, !canvas.state.winding);
        }
        _ => canvas.miss("clipping that adds to what was clipped"),
    }
}

/// The rectangles of a region, which are in units of the device ([MS-EMF] 2.2.24).
fn region_path(record: Bytes<'_>, at: usize) -> Option<Path> {
    let count = record.u32(at + 8)?;
    let mut path = Path::default();
    for index in 0..(count as usize).min(MOST_POINTS) {
        let Some(((left, top), (right, bottom))) = corners(record, at + 32 + index * 16) else { break };
        path.move_to((left, top));
        for corner in [(right, top), (right, bottom), (left, bottom)] {
            path.line_to(corner);
        }
        path.close();
    }
    Some(path)
}

/// Regions ([MS-EMF] 2.3.2 and 2.3.5).
fn region(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    match kind {
        71 => {
            let brush = match canvas.objects.get(record.u32(20)? as usize)? {
                Some(Object::Brush(brush)) => brush.clone(),
                _ => return None,
            };
            let path = region_path(record, 24)?;
            canvas.fill_with(path, brush);
        }
        74 => {
            let path = region_path(record, 20)?;
            let brush = canvas.state.brush.clone();
            canvas.fill_with(path, brush);
        }
        75 => {
            let (size, mode) = (record.u32(0)?, record.u32(4)?);
            if size == 0 {
                canvas.unclip();
            } else {
                let path = region_path(record, 8)?;
                clip(canvas, &path, mode);
            }
        }
        _ => canvas.miss("regions that are framed or inverted"),
    }
    Some(())
}

/// A bitmap in a record, by the places of its four offsets and sizes.
fn embedded(record: Bytes<'_>, places: [usize; 4], alpha: bool, left: &mut u64) -> Option<Bitmap> {
    let [header, length, bits, count] = places;
    let part = |at: usize, size: usize| record.slice((record.u32(at)? as usize).checked_sub(8)?, record.u32(size)? as usize);
    bitmap::picture(part(header, length)?, part(bits, count)?, alpha, left)
}

/// Bitmaps ([MS-EMF] 2.3.1).
fn image(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    let at = point(record, 16)?;
    if kind == 80 || kind == 81 {
        let from = point(record, 24)?;
        let size = point(record, 32)?;
        let bitmap = embedded(record, [40, 44, 48, 52], false, &mut canvas.pixels);
        let Some(bitmap) = bitmap else {
            canvas.miss("bitmaps that can't be read");
            return Some(());
        };
        let (target, operation) = if kind == 81 { (point(record, 64)?, record.u32(60)?) } else { (size, 0x00CC_0020) };
        // The box of the source is counted from the bottom where the rows are.
        let height = f64::from(bitmap.size.1);
        let from = if kind == 81 { (from.0, height - from.1 - size.1) } else { (from.0, 0.0) };
        return raster(canvas, Some(&bitmap), (from, size), (at, target), operation);
    }
    let size = point(record, 24)?;
    let operation = record.u32(32)?;
    let from = point(record, 36)?;
    // Plain blits have no size of their source, and those with a mask are drawn without it.
    let source = match kind {
        77 | 114 | 116 => point(record, 92)?,
        79 => {
            canvas.miss("bitmaps in parallelograms");
            return Some(());
        }
        _ => size,
    };
    if kind == 78 {
        canvas.miss("masks of bitmaps");
    }
    let alpha = kind == 114;
    let has_alpha = alpha && operation >> 24 & 1 != 0;
    let bitmap = embedded(record, [76, 80, 84, 88], has_alpha, &mut canvas.pixels);
    if alpha || kind == 116 {
        let bitmap = bitmap?;
        let opacity = if alpha { f64::from(operation >> 16 & 0xFF) / 255.0 } else { 1.0 };
        if kind == 116 {
            canvas.miss("bitmaps with a transparent colour");
        }
        let look = if opacity < 1.0 { format!(" opacity=\"{}\"", (opacity * 100.0).round() / 100.0) } else { String::new() };
        canvas.image(&bitmap, (from, source), (at, size), &look);
        return Some(());
    }
    raster(canvas, bitmap.as_ref(), (from, source), (at, size), operation)
}

/// A raster operation with or without a bitmap ([MS-WMF] 2.1.1.31).
pub(super) fn raster(
    canvas: &mut Canvas,
    bitmap: Option<&Bitmap>,
    shown: (Point, Point),
    (at, size): (Point, Point),
    operation: u32,
) -> Option<()> {
    let whole = (at, (at.0 + size.0, at.1 + size.1));
    let brush = match operation {
        0x0000_0042 => Some(Brush::Solid(0)),
        0x00FF_0062 => Some(Brush::Solid(0x00FF_FFFF)),
        0x00F0_0021 => Some(canvas.state.brush.clone()),
        // What is there stays.
        0x00AA_0029 => return Some(()),
        _ => None,
    };
    if let Some(brush) = brush {
        let path = canvas.boxes(&[whole]);
        canvas.fill_with(path, brush);
        return Some(());
    }
    let Some(bitmap) = bitmap else {
        canvas.miss("colours that mix with those below");
        return Some(());
    };
    let look = match operation {
        0x00CC_0020 => "",
        // Masks: what is white in one, and what is black in the other, lets through what is below.
        0x0088_00C6 => " style=\"mix-blend-mode:multiply\"",
        0x00EE_0086 | 0x0066_0046 => " style=\"mix-blend-mode:screen\"",
        _ => {
            canvas.miss("colours that mix with those below");
            ""
        }
    };
    canvas.image(bitmap, shown, (at, size), look);
    Some(())
}

/// Text ([MS-EMF] 2.3.5.7, 2.3.5.8 and 2.3.5.37).
fn text(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    if kind == 108 {
        let (at, count, options) = (point(record, 0)?, record.u32(8)? as usize, record.u32(12)?);
        let start = if options & 0x100 == 0 { 44 } else { 28 };
        let words = match options & 0x200 {
            0 => record.utf16(start, count)?,
            _ => super::objects::text(record.slice(start, count)?, canvas.state.font.charset),
        };
        canvas.text(&words, at, &[]);
        return Some(());
    }
    one_text(canvas, record, 28, kind == 84)
}

fn polytext(canvas: &mut Canvas, kind: u32, record: Bytes<'_>) -> Option<()> {
    for index in 0..(record.u32(28)? as usize).min(MOST_POINTS) {
        one_text(canvas, record, 32 + index * 40, kind == 97)?;
    }
    Some(())
}

/// A text, by the place of what describes it ([MS-EMF] 2.2.5).
fn one_text(canvas: &mut Canvas, record: Bytes<'_>, at: usize, is_wide: bool) -> Option<()> {
    let place = point(record, at)?;
    let (count, offset, options) = (record.u32(at + 8)? as usize, record.u32(at + 12)? as usize, record.u32(at + 16)?);
    let (from, to) = corners(record, at + 20)?;
    if options & 2 != 0 {
        let path = canvas.boxes(&[(from, to)]);
        canvas.fill_with(path, Brush::Solid(canvas.state.ground));
    }
    let offset = offset.checked_sub(8)?;
    // Numbers of glyphs say nothing without their font.
    if options & 0x10 != 0 {
        canvas.miss("text whose characters only its font knows");
        return Some(());
    }
    let words = if is_wide {
        record.utf16(offset, count)?
    } else {
        super::objects::text(record.slice(offset, count)?, canvas.state.font.charset)
    };
    let distances = (record.u32(at + 36)? as usize).checked_sub(8);
    // Pairs of distances to the right and downwards.
    let step = if options & 0x2000 != 0 { 8 } else { 4 };
    let widths: Vec<f64> = distances
        .map(|start| (0..count.min(MOST_POINTS)).map_while(|index| record.u32(start + index * step).map(f64::from)).collect())
        .unwrap_or_default();
    let before = canvas.state.align;
    canvas.text(&words, place, &widths);
    canvas.state.align = before;
    Some(())
}

/// A box or triangles whose colours run into each other ([MS-EMF] 2.3.5.12); triangles have the colour of their middle.
fn gradient(canvas: &mut Canvas, record: Bytes<'_>) -> Option<()> {
    let (vertices, meshes, mode) = (record.u32(16)? as usize, record.u32(20)? as usize, record.u32(24)?);
    let vertex = |index: usize| -> Option<(Point, u32)> {
        let at = 28 + index * 16;
        let part = |offset: usize| record.u16(at + 8 + offset).map(|part| u32::from(part >> 8));
        (index < vertices).then_some(())?;
        Some((point(record, at)?, part(0)? << 16 | part(2)? << 8 | part(4)?))
    };
    let corners = if mode == 2 { 3 } else { 2 };
    for mesh in 0..meshes.min(MOST_POINTS) {
        if canvas.is_full() {
            break;
        }
        let at = 28 + vertices * 16 + mesh * corners * 4;
        let of: Vec<(Point, u32)> =
            (0..corners).map(|corner| vertex(record.u32(at + corner * 4)? as usize)).collect::<Option<_>>()?;
        match *of {
            [(from, first), (to, last)] => {
                let path = canvas.boxes(&[(from, to)]);
                // From left to right, or from the top downwards.
                let end = if mode == 0 { (to.0, from.1) } else { (from.0, to.1) };
                let stops = [(0.0, first, 1.0), (1.0, last, 1.0)];
                let fill = canvas.run_of_colours(canvas.place(from), canvas.place(end), &stops, "");
                canvas.draw(&path, &format!(" fill=\"{fill}\""));
            }
            [(_, first), (_, second), (_, third)] => {
                canvas.miss("triangles whose colours run into each other");
                let path = Path::polygon(&[0, 1, 2].map(|corner: usize| canvas.place(of[corner].0)));
                canvas.fill_with(path, Brush::Solid(mixed(mixed(first, second, 0.5), third, 1.0 / 3.0)));
            }
            _ => {}
        }
    }
    Some(())
}
