//! Plain metafiles ([MS-WMF]). Their units are 16-bit words, and arguments stand in the reverse order.

use super::Drawing;
use super::bitmap;
use super::bytes::Bytes;
use super::canvas::{Canvas, Closing};
use super::emf::raster;
use super::geometry::Point;
use super::objects::{Brush, Font, Object, Pen, colour, text};

/// So many objects may there be.
const MOST_OBJECTS: usize = 1 << 16;

/// Draws a metafile.
pub(super) fn draw(bytes: &[u8], cut: [f64; 4]) -> Option<Drawing> {
    let whole = Bytes(bytes);
    let is_placeable = bytes.starts_with(&[0xD7, 0xCD, 0xC6, 0x9A]);
    // A placeable one says in which box of logical units it is, and how many of them an inch has.
    let (placed, inch, start) = if is_placeable {
        let edge = |at: usize| whole.i16(at).map(f64::from);
        let size = ((edge(10)? - edge(6)?).abs(), (edge(12)? - edge(8)?).abs());
        (Some(size).filter(|(width, height)| *width > 0.0 && *height > 0.0), f64::from(whole.u16(14)?.max(1)), 22)
    } else {
        (None, 96.0, 0)
    };
    let header = whole.u16(start + 2)? as usize * 2;
    let records = bytes.get(start + header..)?;
    let size = placed.or_else(|| first_extent(records))?;
    let mut canvas = Canvas::new();
    canvas.state.map_mode = 8;
    canvas.state.viewport = ((0.0, 0.0), size);
    canvas.state.window = ((0.0, 0.0), size);
    if is_placeable {
        canvas.state.window.0 = (whole.i16(6)?.into(), whole.i16(8)?.into());
    }
    canvas.per_millimetre = (inch / 25.4, inch / 25.4);
    each(records, |function, record| {
        if !canvas.is_full() {
            play(&mut canvas, function, record);
        }
    });
    if canvas.is_empty() {
        return None;
    }
    let shown = if is_placeable { (size.0 / inch * 96.0, size.1 / inch * 96.0) } else { fitting(size) };
    Some(canvas.finish(((0.0, 0.0), size), shown, cut))
}

/// A size for a drawing that does not say its own: as wide as a column of text.
fn fitting((width, height): Point) -> Point {
    let scale = (480.0 / width).min(640.0 / height);
    (width * scale, height * scale)
}

/// Goes through the records.
fn each<'b>(records: &'b [u8], mut play: impl FnMut(u16, Bytes<'b>)) {
    let mut at = 0;
    while let (Some(words), Some(function)) = (Bytes(records).u32(at), Bytes(records).u16(at + 4)) {
        let size = words as usize * 2;
        let Some(record) = records.get(at + 6..at.saturating_add(size)).filter(|_| size >= 6) else { return };
        if function == 0 {
            return;
        }
        play(function, Bytes(record));
        at += size;
    }
}

/// The extent that the first record sets that sets one.
fn first_extent(records: &[u8]) -> Option<Point> {
    let mut found = None;
    each(records, |function, record| {
        if function == 0x020C && found.is_none() {
            found = reversed(record, 0).map(|(x, y)| (x.abs(), y.abs()));
        }
    });
    found.filter(|(width, height)| *width > 0.0 && *height > 0.0)
}

/// A point whose y comes first.
fn reversed(record: Bytes<'_>, at: usize) -> Option<Point> {
    Some((record.i16(at + 2)?.into(), record.i16(at)?.into()))
}

/// The corners of a box, from its bottom on.
fn corners(record: Bytes<'_>, at: usize) -> Option<(Point, Point)> {
    Some((reversed(record, at + 4)?, reversed(record, at)?))
}

fn points(record: Bytes<'_>, at: usize, count: usize) -> Vec<Point> {
    (0..count).map_while(|index| Some((record.i16(at + index * 4)?.into(), record.i16(at + index * 4 + 2)?.into()))).collect()
}

/// Plays a record; one that is too short does nothing.
fn play(canvas: &mut Canvas, function: u16, record: Bytes<'_>) -> Option<()> {
    match function {
        0x00F7 | 0x02FA..=0x02FC | 0x0142 | 0x01F0 | 0x01F9 | 0x06FF => object(canvas, function, record),
        0x0521 | 0x0A32 => words(canvas, function, record),
        0x0940 | 0x0B41 | 0x0D33 | 0x0F43 | 0x061D | 0x0922 | 0x0B23 => image(canvas, function, record),
        0x0213 | 0x0214 | 0x0324 | 0x0325 | 0x0418..=0x041B | 0x041F | 0x0538 | 0x0548 | 0x061C | 0x0817 | 0x081A | 0x0830 => {
            shape(canvas, function, record)
        }
        _ => state(canvas, function, record),
    }
}

/// What sets how others draw ([MS-WMF] 2.3.5).
fn state(canvas: &mut Canvas, function: u16, record: Bytes<'_>) -> Option<()> {
    let first = || record.u16(0).map(u32::from);
    match function {
        0x001E => canvas.save(),
        0x0102 => canvas.state.is_opaque = first()? == 2,
        // The box of the drawing is the device; units of lengths are kept by its window.
        0x0103 => {}
        0x0104 => canvas.state.mix = first()?,
        0x0106 => canvas.state.winding = first()? == 2,
        0x0127 => canvas.restore(record.i16(0)?),
        0x012D => canvas.select(first()?),
        0x012E => canvas.state.align = first()?,
        0x0201 => canvas.state.ground = colour(record.u32(0)?),
        0x0209 => canvas.state.text_colour = colour(record.u32(0)?),
        0x020B => canvas.state.window.0 = reversed(record, 0)?,
        0x020C => canvas.state.window.1 = reversed(record, 0)?,
        0x020F => {
            let (x, y) = reversed(record, 0)?;
            let at = &mut canvas.state.window.0;
            *at = (at.0 + x, at.1 + y);
        }
        0x0410 => {
            let ratio =
                |by: usize, of: usize| Some(f64::from(record.i16(of)?) / f64::from(Some(record.i16(by)?).filter(|by| *by != 0)?));
            let (y, x) = (ratio(0, 2)?, ratio(4, 6)?);
            let extent = &mut canvas.state.window.1;
            *extent = (extent.0 * x, extent.1 * y);
        }
        0x0415 | 0x0416 => {
            let (from, to) = corners(record, 0)?;
            if function == 0x0415 { canvas.exclude_rectangle(from, to) } else { canvas.clip_rectangle(from, to) }
        }
        0x012A | 0x012B | 0x012C | 0x0228 | 0x0429 => canvas.miss("regions"),
        0x0419 => canvas.miss("areas that are filled up to their border"),
        _ => {}
    }
    Some(())
}

/// Makes and drops objects: a new one takes the first place that is free ([MS-WMF] 3.1.4.1).
fn object(canvas: &mut Canvas, function: u16, record: Bytes<'_>) -> Option<()> {
    if function == 0x01F0 {
        *canvas.objects.get_mut(usize::from(record.u16(0)?))? = None;
        return Some(());
    }
    let made = match function {
        0x02FA => Object::Pen(Pen::of(record.u16(0)?.into(), record.i16(2)?.into(), record.u32(6)?)),
        0x02FB => Font::of_wmf(record).map_or(Object::Other, |font| Object::Font(Box::new(font))),
        0x02FC => Object::Brush(Brush::of(record.u16(0)?.into(), record.u32(2)?, record.u16(6)?.into())),
        0x0142 => {
            let bitmap = dib(record, 4, record.u16(2)? == 1, &mut canvas.pixels);
            Object::Brush(bitmap.map_or(Brush::Solid(0x0080_8080), |bitmap| Brush::Pattern(bitmap.address, bitmap.size)))
        }
        _ => Object::Other,
    };
    match canvas.objects.iter().position(Option::is_none) {
        Some(place) => canvas.objects[place] = Some(made),
        None if canvas.objects.len() < MOST_OBJECTS => canvas.objects.push(Some(made)),
        None => {}
    }
    Some(())
}

/// Lines and shapes ([MS-WMF] 2.3.3).
fn shape(canvas: &mut Canvas, function: u16, record: Bytes<'_>) -> Option<()> {
    match function {
        0x0213 => canvas.lines_from_here(&[reversed(record, 0)?]),
        0x0214 => canvas.move_to(reversed(record, 0)?),
        0x0324 | 0x0325 => {
            let points = points(record, 2, record.u16(0)?.into());
            canvas.lines(&points, function == 0x0324);
        }
        0x0538 => {
            let shapes = usize::from(record.u16(0)?);
            let mut at = 2 + shapes * 2;
            let mut found = Vec::new();
            for index in 0..shapes {
                let count = usize::from(record.u16(2 + index * 2)?);
                found.push(points(record, at, count));
                at += count * 4;
            }
            canvas.shapes(&found, true);
        }
        0x0418 => {
            let (from, to) = corners(record, 0)?;
            canvas.ellipse(from, to);
        }
        0x041B => {
            let (from, to) = corners(record, 0)?;
            canvas.rectangle(from, to);
        }
        0x041F => {
            let (x, y) = reversed(record, 4)?;
            let path = canvas.boxes(&[((x, y), (x + 1.0, y + 1.0))]);
            canvas.fill_with(path, Brush::Solid(colour(record.u32(0)?)));
        }
        0x061C => {
            let (from, to) = corners(record, 4)?;
            canvas.round_rectangle(from, to, reversed(record, 0)?);
        }
        0x0817 | 0x081A | 0x0830 => {
            let (to, from) = (reversed(record, 0)?, reversed(record, 4)?);
            let closing = match function {
                0x0817 => Closing::Open,
                0x081A => Closing::Middle,
                _ => Closing::Chord,
            };
            canvas.arc(corners(record, 8)?, (from, to), closing);
        }
        _ => canvas.miss("areas that are filled up to their border"),
    }
    Some(())
}

/// Text ([MS-WMF] 2.3.3.5 and 2.3.3.20).
fn words(canvas: &mut Canvas, function: u16, record: Bytes<'_>) -> Option<()> {
    let charset = canvas.state.font.charset;
    if function == 0x0521 {
        let count = usize::from(record.u16(0)?);
        let words = text(record.slice(2, count)?, charset);
        let at = reversed(record, 2 + count.next_multiple_of(2))?;
        canvas.text(&words, at, &[]);
        return Some(());
    }
    let (at, count, options) = (reversed(record, 0)?, usize::from(record.u16(4)?), record.u16(6)?);
    let mut start = 8;
    if options & 6 != 0 {
        // A box that is filled or that clips.
        let from = (f64::from(record.i16(8)?), f64::from(record.i16(10)?));
        let to = (f64::from(record.i16(12)?), f64::from(record.i16(14)?));
        start = 16;
        if options & 2 != 0 {
            let path = canvas.boxes(&[(from, to)]);
            canvas.fill_with(path, Brush::Solid(canvas.state.ground));
        }
    }
    let words = text(record.slice(start, count)?, charset);
    let distances = start + count.next_multiple_of(2);
    let widths: Vec<f64> = (0..count).map_while(|index| record.i16(distances + index * 2).map(f64::from)).collect();
    let widths = if widths.len() == count { widths } else { Vec::new() };
    canvas.text(&words, at, &widths);
    Some(())
}

/// A bitmap that stands at a place of a record.
fn dib(record: Bytes<'_>, at: usize, colours_are_indices: bool, left: &mut u64) -> Option<bitmap::Bitmap> {
    let whole = record.0.get(at..)?;
    let (header, bits) = whole.split_at_checked(bitmap::header_length(whole, colours_are_indices)?)?;
    bitmap::picture(header, bits, false, left)
}

/// Bitmaps ([MS-WMF] 2.3.1).
fn image(canvas: &mut Canvas, function: u16, record: Bytes<'_>) -> Option<()> {
    let operation = record.u32(0)?;
    let point = |at: usize| reversed(record, at);
    // Where the bitmap begins, what of it is shown, and where.
    let (at, from, source, place, target) = match function {
        // Only a brush.
        0x061D => {
            let (size, place) = (point(4)?, point(8)?);
            return raster(canvas, None, ((0.0, 0.0), size), (place, size), operation);
        }
        0x0940 => {
            // Without a bitmap there is a word more, which says nothing.
            let is_bare = record.0.len() == 18;
            let shift = if is_bare { 2 } else { 0 };
            let size = point(8 + shift)?;
            let place = point(12 + shift)?;
            if is_bare {
                return raster(canvas, None, ((0.0, 0.0), size), (place, size), operation);
            }
            (16, point(4)?, size, place, size)
        }
        0x0B41 => {
            let is_bare = record.0.len() == 22;
            let shift = if is_bare { 2 } else { 0 };
            let (target, place) = (point(12 + shift)?, point(16 + shift)?);
            if is_bare {
                return raster(canvas, None, ((0.0, 0.0), target), (place, target), operation);
            }
            (20, point(8)?, point(4)?, place, target)
        }
        0x0F43 => (22, point(10)?, point(6)?, point(18)?, point(14)?),
        0x0D33 => {
            let size = point(10)?;
            (18, (0.0, 0.0), size, point(14)?, size)
        }
        _ => {
            canvas.miss("bitmaps of the device");
            return Some(());
        }
    };
    let operation = if function == 0x0D33 { 0x00CC_0020 } else { operation };
    let Some(bitmap) = dib(record, at, false, &mut canvas.pixels) else {
        canvas.miss("bitmaps that can't be read");
        return Some(());
    };
    raster(canvas, Some(&bitmap), (from, source), (place, target), operation)
}
