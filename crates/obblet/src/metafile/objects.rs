//! Pens, brushes and fonts, as records make them.

use super::bytes::Bytes;
use std::sync::Arc;

/// Red, green and blue.
pub(super) type Colour = u32;

/// A colour as records write it: red in the lowest byte ([MS-WMF] 2.2.2.8).
pub(super) const fn colour(reference: u32) -> Colour {
    (reference & 0xFF) << 16 | (reference & 0xFF00) | (reference >> 16 & 0xFF)
}

/// A colour between two.
pub(super) fn mixed(from: Colour, to: Colour, share: f64) -> Colour {
    let part = |shift: u32| {
        let (from, to) = (f64::from(from >> shift & 0xFF), f64::from(to >> shift & 0xFF));
        ((from + (to - from) * share).round() as u32) << shift
    };
    part(16) | part(8) | part(0)
}

/// How lines are drawn ([MS-WMF] 2.1.1.23).
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Pen {
    /// None where nothing is drawn.
    pub(super) colour: Option<Colour>,
    /// Logical units; 0 for the thinnest line that there is.
    pub(super) width: f64,
    /// Lengths of dashes and gaps, in widths of the line.
    pub(super) dashes: &'static [u8],
    pub(super) cap: &'static str,
    pub(super) join: &'static str,
}

impl Pen {
    pub(super) const BLACK: Self = Self { colour: Some(0), width: 0.0, dashes: &[], cap: "round", join: "round" };
    pub(super) const NONE: Self = Self { colour: None, ..Self::BLACK };

    pub(super) fn of(style: u32, width: f64, reference: u32) -> Self {
        Self {
            colour: (style & 0xF != 5).then(|| colour(reference)),
            width: width.abs(),
            dashes: match style & 0xF {
                1 => &[3, 2],
                2 => &[1, 2],
                3 => &[3, 2, 1, 2],
                4 => &[3, 2, 1, 2, 1, 2],
                8 => &[1, 1],
                _ => &[],
            },
            cap: match style & 0xF00 {
                0x100 => "square",
                0x200 => "butt",
                _ => "round",
            },
            join: match style & 0xF000 {
                0x1000 => "bevel",
                0x2000 => "miter",
                _ => "round",
            },
        }
    }
}

/// How shapes are filled ([MS-WMF] 2.1.1.4).
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Brush {
    None,
    Solid(Colour),
    /// Lines of a kind ([MS-WMF] 2.1.1.12).
    Hatch(u32, Colour),
    /// A bitmap that repeats: its address, and its size in pixels.
    Pattern(Arc<str>, (u32, u32)),
}

impl Brush {
    pub(super) const fn of(style: u32, reference: u32, hatch: u32) -> Self {
        match style {
            1 => Self::None,
            2 => Self::Hatch(hatch, colour(reference)),
            _ => Self::Solid(colour(reference)),
        }
    }
}

/// How text is set ([MS-WMF] 2.2.1.2, [MS-EMF] 2.2.13).
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Font {
    /// The height of letters where it is below zero, and of lines where it is above, in logical units.
    pub(super) height: f64,
    /// How far lines turn to the left, in tenths of a degree.
    pub(super) escapement: f64,
    pub(super) weight: u32,
    pub(super) italic: bool,
    pub(super) underline: bool,
    pub(super) strike: bool,
    /// The code page of its 8-bit text ([MS-WMF] 2.1.1.5).
    pub(super) charset: u8,
    pub(super) face: String,
}

impl Font {
    pub(super) fn usual() -> Self {
        Self {
            height: -12.0,
            escapement: 0.0,
            weight: 400,
            italic: false,
            underline: false,
            strike: false,
            charset: 0,
            face: "Arial".to_owned(),
        }
    }

    /// A font of an enhanced metafile.
    pub(super) fn of_emf(record: Bytes<'_>) -> Option<Self> {
        let flag = |at: usize| record.0.get(at).is_some_and(|byte| *byte != 0);
        Some(Self {
            height: record.i32(0)?.into(),
            escapement: record.i32(8)?.into(),
            weight: record.u32(16)?,
            italic: flag(20),
            underline: flag(21),
            strike: flag(22),
            charset: *record.0.get(23)?,
            face: record.utf16(28, 32)?,
        })
    }

    /// A font of a plain metafile.
    pub(super) fn of_wmf(record: Bytes<'_>) -> Option<Self> {
        let flag = |at: usize| record.0.get(at).is_some_and(|byte| *byte != 0);
        let face = record.0.get(18..)?;
        let face = face.get(..face.iter().position(|byte| *byte == 0).unwrap_or(face.len()).min(32))?;
        let charset = *record.0.get(13)?;
        Some(Self {
            height: record.i16(0)?.into(),
            escapement: record.i16(4)?.into(),
            weight: record.u16(8)?.into(),
            italic: flag(10),
            underline: flag(11),
            strike: flag(12),
            charset,
            face: text(face, charset),
        })
    }

    /// The size of its letters, in logical units. A line is about a seventh higher than its letters.
    pub(super) fn size(&self) -> f64 {
        match self.height {
            height if height < 0.0 => -height,
            0.0 => 12.0,
            height => height / 1.15,
        }
    }
}

/// Text in the code page of a charset ([MS-WMF] 2.1.1.5).
pub(super) fn text(bytes: &[u8], charset: u8) -> String {
    let label = match charset {
        77 => "macintosh",
        128 => "shift_jis",
        129 => "euc-kr",
        134 => "gbk",
        136 => "big5",
        161 => "windows-1253",
        162 => "windows-1254",
        163 => "windows-1258",
        177 => "windows-1255",
        178 => "windows-1256",
        186 => "windows-1257",
        204 => "windows-1251",
        222 => "windows-874",
        238 => "windows-1250",
        _ => "windows-1252",
    };
    let encoding = encoding_rs::Encoding::for_label(label.as_bytes()).unwrap_or(encoding_rs::WINDOWS_1252);
    encoding.decode_without_bom_handling(bytes).0.into_owned()
}

/// What records made, by its place in the table of objects.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Object {
    Pen(Pen),
    Brush(Brush),
    Font(Box<Font>),
    /// A palette, a region or a colour space.
    Other,
}
