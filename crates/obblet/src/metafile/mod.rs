//! Metafiles: drawings as lists of the calls that drew them, which office documents are full of. They are read by their published
//! specifications ([MS-WMF], [MS-EMF] and [MS-EMFPLUS]) and drawn anew as SVG: lines, shapes, paths, text, clipping, and bitmaps, which become
//! PNG within.

mod bitmap;
mod bytes;
mod canvas;
mod emf;
mod emf_plus;
mod geometry;
mod objects;
mod wmf;

/// A metafile as a drawing that browsers show.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Drawing {
    /// The drawing as SVG. It runs nothing and loads nothing.
    pub svg: Vec<u8>,
    /// What of the metafile could not be drawn, each sort once; empty where all of it is there.
    pub missing: Vec<&'static str>,
}

/// The sort of a metafile.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Sort {
    Wmf,
    Emf,
}

/// Whether bytes are a metafile.
#[must_use]
pub fn is_metafile(bytes: &[u8]) -> bool {
    sort(bytes).is_some()
}

fn sort(bytes: &[u8]) -> Option<Sort> {
    match bytes {
        // A placeable metafile ([MS-WMF] 2.3.2.3).
        [0xD7, 0xCD, 0xC6, 0x9A, ..] => Some(Sort::Wmf),
        // An enhanced one ([MS-EMF] 2.3.4.2).
        [1, 0, 0, 0, ..] if bytes.get(40..44) == Some(b" EMF") => Some(Sort::Emf),
        // A plain one: its type, the size of its header in words, and its version ([MS-WMF] 2.3.2.2).
        [1 | 2, 0, 9, 0, 0, 1 | 3, ..] => Some(Sort::Wmf),
        _ => None,
    }
}

/// Draws a metafile. Nothing comes of one that is damaged so that nothing in it can be drawn.
///
/// ```
/// assert_eq!(obblet::metafile::draw(b"no metafile"), None);
/// ```
#[must_use]
pub fn draw(bytes: &[u8]) -> Option<Drawing> {
    draw_part(bytes, [0.0; 4])
}

/// Draws a part of a metafile, as [`draw`] does: what is cut off on the left, at the top, on the right and at the bottom is given
/// in shares of its width and height, from 0 to 1.
#[must_use]
pub fn draw_part(bytes: &[u8], cut: [f64; 4]) -> Option<Drawing> {
    match sort(bytes)? {
        Sort::Wmf => wmf::draw(bytes, cut),
        Sort::Emf => emf::draw(bytes, cut),
    }
}
