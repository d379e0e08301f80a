//! Bitmaps without a file of their own ([MS-WMF] 2.2.2.9), as the address of a PNG or JPEG that holds them.

use super::bytes::Bytes;
use crate::picture::{LONGEST_SIDE, decoder};
use image::ImageFormat;
use std::io::Cursor;
use std::sync::Arc;

/// A bitmap as an address, and its size in pixels.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Bitmap {
    pub(super) address: Arc<str>,
    pub(super) size: (u32, u32),
}

/// So many pixels may the bitmaps of a drawing have together.
pub(super) const MOST_PIXELS: u64 = 1 << 27;

/// Makes a picture of a bitmap: its header with its colours, and its pixels. With `alpha`, the fourth byte of a pixel says how
/// much it covers. Its pixels are taken from those that the drawing may have still.
pub(super) fn picture(header: &[u8], bits: &[u8], alpha: bool, left: &mut u64) -> Option<Bitmap> {
    let fields = Bytes(header);
    let length = fields.u32(0)?;
    let (width, height, depth, compression) = if length == 12 {
        (u32::from(fields.u16(4)?), u32::from(fields.u16(6)?), fields.u16(10)?, 0)
    } else {
        (fields.i32(4)?.unsigned_abs(), fields.i32(8)?.unsigned_abs(), fields.u16(14)?, fields.u32(16)?)
    };
    if width == 0 || height == 0 || width > LONGEST_SIDE || height > LONGEST_SIDE {
        return None;
    }
    *left = left.checked_sub(u64::from(width) * u64::from(height))?;
    match compression {
        // The pixels are a file of another kind.
        4 => return Some(Bitmap { address: address("image/jpeg", bits).into(), size: (width, height) }),
        5 => return Some(Bitmap { address: address("image/png", bits).into(), size: (width, height) }),
        _ => {}
    }
    let top_down = length != 12 && fields.i32(8)? < 0;
    let pixels = match (alpha, depth, compression) {
        (true, 32, 0) => with_alpha(bits, width, height, top_down)?,
        _ => without_alpha(header, bits)?,
    };
    let mut png = Vec::new();
    pixels.write_to(&mut Cursor::new(&mut png), ImageFormat::Png).ok()?;
    Some(Bitmap { address: address("image/png", &png).into(), size: (width, height) })
}

/// As it would be read from a file of its own.
fn without_alpha(header: &[u8], bits: &[u8]) -> Option<image::DynamicImage> {
    let offset = u32::try_from(header.len().checked_add(14)?).ok()?;
    let size = u32::try_from(header.len().checked_add(bits.len())?.checked_add(14)?).ok()?;
    let mut file = Vec::with_capacity(size as usize);
    file.extend_from_slice(b"BM");
    file.extend_from_slice(&size.to_le_bytes());
    file.extend_from_slice(&[0; 4]);
    file.extend_from_slice(&offset.to_le_bytes());
    file.extend_from_slice(header);
    file.extend_from_slice(bits);
    let image = decoder(file, ImageFormat::Bmp).decode().ok()?;
    // A fourth byte that says nothing is no transparency.
    Some(image.to_rgb8().into())
}

/// Pixels of blue, green, red and coverage, by which the colours are multiplied already.
fn with_alpha(bits: &[u8], width: u32, height: u32, top_down: bool) -> Option<image::DynamicImage> {
    let row = width as usize * 4;
    let bits = bits.get(..row.checked_mul(height as usize)?)?;
    let mut pixels = Vec::with_capacity(bits.len());
    let rows: Box<dyn Iterator<Item = &[u8]>> =
        if top_down { Box::new(bits.chunks_exact(row)) } else { Box::new(bits.chunks_exact(row).rev()) };
    for [blue, green, red, alpha] in rows.flat_map(|row| row.as_chunks::<4>().0) {
        let plain = |part: u8| match *alpha {
            0 => 0,
            alpha => (u32::from(part) * 255 / u32::from(alpha)).min(255) as u8,
        };
        pixels.extend([plain(*red), plain(*green), plain(*blue), *alpha]);
    }
    image::RgbaImage::from_raw(width, height, pixels).map(Into::into)
}

/// How long the header of a bitmap is, with its colours ([MS-WMF] 2.2.2.3).
pub(super) fn header_length(bitmap: &[u8], colours_are_indices: bool) -> Option<usize> {
    let fields = Bytes(bitmap);
    let length = fields.u32(0)? as usize;
    let (depth, used, masks) = if length == 12 {
        (fields.u16(10)?, 0, 0)
    } else {
        let masks = if fields.u32(16)? == 3 && length == 40 { 12 } else { 0 };
        (fields.u16(14)?, fields.u32(32)?.min(256) as usize, masks)
    };
    let colours = match (used, depth) {
        (0, 1..=8) => 1_usize << depth,
        (used, _) => used,
    };
    let colour = match (length, colours_are_indices) {
        (_, true) => 2,
        (12, _) => 3,
        _ => 4,
    };
    Some(length + masks + colours * colour)
}

/// The address that holds a picture itself (RFC 2397).
fn address(media_type: &str, bytes: &[u8]) -> String {
    format!("data:{media_type};base64,{}", crate::picture::base64(bytes))
}

/// A picture that is a file of its own.
pub(super) fn of_file(bytes: &[u8], left: &mut u64) -> Option<Bitmap> {
    let format = image::guess_format(bytes).ok()?;
    let reader = decoder(bytes, format);
    let media_type = match format {
        ImageFormat::Png => "image/png",
        ImageFormat::Jpeg => "image/jpeg",
        ImageFormat::Gif => "image/gif",
        _ => {
            let pixels = reader.decode().ok()?;
            return of_image(&pixels, left);
        }
    };
    let size = reader.into_dimensions().ok()?;
    *left = left.checked_sub(u64::from(size.0) * u64::from(size.1))?;
    Some(Bitmap { address: address(media_type, bytes).into(), size })
}

fn of_image(pixels: &image::DynamicImage, left: &mut u64) -> Option<Bitmap> {
    let size = (pixels.width(), pixels.height());
    *left = left.checked_sub(u64::from(size.0) * u64::from(size.1))?;
    let mut png = Vec::new();
    pixels.write_to(&mut Cursor::new(&mut png), ImageFormat::Png).ok()?;
    Some(Bitmap { address: address("image/png", &png).into(), size })
}

/// A picture of pixels in rows of so many bytes, in a format of [MS-EMFPLUS] 2.1.1.25, with or without colours that it counts.
pub(super) fn of_pixels(bits: &[u8], (width, height): (u32, u32), row: usize, format: u32, left: &mut u64) -> Option<Bitmap> {
    if width == 0 || height == 0 || width > LONGEST_SIDE || height > LONGEST_SIDE {
        return None;
    }
    let depth = (format >> 8 & 0xFF) as usize;
    // Colours that are counted stand before the pixels: flags, how many there are, and they ([MS-EMFPLUS] 2.2.2.28).
    let (colours, bits) = if format & 0x0001_0000 != 0 {
        let count = Bytes(bits).u32(4)?.min(256) as usize;
        let colours: Vec<u32> = (0..count).map_while(|index| Bytes(bits).u32(8 + index * 4)).collect();
        (colours, bits.get(8 + count * 4..)?)
    } else {
        (Vec::new(), bits)
    };
    if row < (width as usize * depth).div_ceil(8) || bits.len() < row.checked_mul(height as usize - 1)? {
        return None;
    }
    let pixel = |line: &[u8], x: usize| -> Option<[u8; 4]> {
        let counted = |index: u8| colours.get(usize::from(index)).map(|argb| argb.to_be_bytes());
        let [alpha, red, green, blue] = match depth {
            1 => counted(line.get(x / 8)? >> (7 - x % 8) & 1)?,
            4 => counted(line.get(x / 2)? >> (4 - x % 2 * 4) & 0xF)?,
            8 => counted(*line.get(x)?)?,
            24 => [255, *line.get(x * 3 + 2)?, *line.get(x * 3 + 1)?, *line.get(x * 3)?],
            32 => {
                let alpha = if format & 0x0004_0000 != 0 { *line.get(x * 4 + 3)? } else { 255 };
                let plain = |part: u8| match format & 0x0008_0000 {
                    0 => part,
                    _ => (u32::from(part) * 255 / u32::from(alpha.max(1))).min(255) as u8,
                };
                [alpha, plain(*line.get(x * 4 + 2)?), plain(*line.get(x * 4 + 1)?), plain(*line.get(x * 4)?)]
            }
            _ => return None,
        };
        Some([red, green, blue, alpha])
    };
    *left = left.checked_sub(u64::from(width) * u64::from(height))?;
    let mut pixels = Vec::with_capacity(width as usize * height as usize * 4);
    for line in 0..height as usize {
        let line = bits.get(line * row..)?;
        for x in 0..width as usize {
            pixels.extend(pixel(line, x)?);
        }
    }
    of_image(&image::RgbaImage::from_raw(width, height, pixels)?.into(), &mut { u64::MAX })
}
