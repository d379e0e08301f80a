//! What a picture is by its bytes, and how large it is.

pub(crate) mod png;
pub(crate) mod xml;

use base64::Engine as _;
use quick_xml::Reader;
use quick_xml::events::{BytesStart, Event};

/// A kind of picture that browsers show, or that is turned into one.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Kind {
    Png,
    Jpeg,
    Gif,
    Webp,
    Avif,
    Bmp,
    Tiff,
    /// A drawing.
    Svg,
}

impl Kind {
    /// The kind that bytes are, whatever their file is called. PNG: section 5.2; JPEG: ISO 10918-1, annex B; WebP: RFC 9649;
    /// AVIF: section 6; TIFF 6.0: section 2.
    pub(crate) fn of(bytes: &[u8]) -> Option<Self> {
        match bytes {
            [0x89, b'P', b'N', b'G', b'\r', b'\n', 0x1A, b'\n', ..] => Some(Self::Png),
            [0xFF, 0xD8, 0xFF, ..] => Some(Self::Jpeg),
            [b'G', b'I', b'F', b'8', b'7' | b'9', b'a', ..] => Some(Self::Gif),
            [b'R', b'I', b'F', b'F', _, _, _, _, b'W', b'E', b'B', b'P', ..] => Some(Self::Webp),
            [_, _, _, _, b'f', b't', b'y', b'p', b'a', b'v', b'i', b'f' | b's', ..] => Some(Self::Avif),
            // The size of the header that follows that of the file.
            [b'B', b'M', _, _, _, _, _, _, _, _, _, _, _, _, 12 | 40 | 52 | 56 | 64 | 108 | 124, 0, 0, 0, ..] => Some(Self::Bmp),
            [b'I', b'I', b'*', 0, ..] | [b'M', b'M', 0, b'*', ..] => Some(Self::Tiff),
            _ => is_drawing(bytes).then_some(Self::Svg),
        }
    }

    /// The extensions of its files; the first is the one that is written.
    pub(crate) const fn extensions(self) -> &'static [&'static str] {
        match self {
            Self::Png => &["png", "apng"],
            Self::Jpeg => &["jpg", "jpeg", "jpe", "jfif"],
            Self::Gif => &["gif"],
            Self::Webp => &["webp"],
            Self::Avif => &["avif"],
            Self::Bmp => &["bmp", "dib"],
            Self::Tiff => &["tif", "tiff"],
            Self::Svg => &["svg"],
        }
    }

    /// Its media type (IANA).
    pub(crate) const fn media_type(self) -> &'static str {
        match self {
            Self::Png => "image/png",
            Self::Jpeg => "image/jpeg",
            Self::Gif => "image/gif",
            Self::Webp => "image/webp",
            Self::Avif => "image/avif",
            Self::Bmp => "image/bmp",
            Self::Tiff => "image/tiff",
            Self::Svg => "image/svg+xml",
        }
    }

    /// Whether a file of this name is taken for a picture by servers and browsers, and not for anything else: one kind may be
    /// called another, but for drawings, and what has no extension is looked at by its bytes.
    pub(crate) fn fits(self, name: &str) -> bool {
        let Some((_, extension)) = name.rsplit_once('.') else { return self != Self::Svg };
        let is_of = |kind: Self| kind.extensions().iter().any(|known| known.eq_ignore_ascii_case(extension));
        let rasters = [Self::Png, Self::Jpeg, Self::Gif, Self::Webp, Self::Avif, Self::Bmp, Self::Tiff];
        if self == Self::Svg { is_of(self) } else { rasters.into_iter().any(is_of) }
    }
}

/// Whether bytes are a drawing: XML whose first element is `svg`.
pub(crate) fn is_drawing(bytes: &[u8]) -> bool {
    // Most that is none is found out by its first byte.
    let has_mark = encoding_rs::Encoding::for_bom(bytes).is_some();
    (has_mark || bytes.trim_ascii_start().starts_with(b"<"))
        && xml::decode(bytes).is_ok_and(|text| root(&text, |_| Some(())).is_some())
}

/// Width and height of any picture in CSS pixels.
pub(crate) fn size(bytes: &[u8]) -> Option<(usize, usize)> {
    size_of_raster(bytes)
        .or_else(|| size_of_drawing(bytes))
        .filter(|&(width, height)| (1..100_000).contains(&width) && (1..100_000).contains(&height))
}

/// So many pixels are the most that a raster image may have on a side where it is decoded.
#[cfg(feature = "images")]
pub(crate) const LONGEST_SIDE: u32 = 20_000;

/// So many bytes may a raster image take while it is decoded.
#[cfg(feature = "images")]
const MOST_BYTES: u64 = 1 << 28;

/// A decoder for bytes of a format that takes no more memory than images need.
#[cfg(feature = "images")]
pub(crate) fn decoder<B: AsRef<[u8]>>(bytes: B, format: image::ImageFormat) -> image::ImageReader<std::io::Cursor<B>> {
    let mut reader = image::ImageReader::with_format(std::io::Cursor::new(bytes), format);
    let mut limits = image::Limits::default();
    limits.max_image_width = Some(LONGEST_SIDE);
    limits.max_image_height = Some(LONGEST_SIDE);
    limits.max_alloc = Some(MOST_BYTES);
    reader.limits(limits);
    reader
}

#[cfg(feature = "images")]
fn size_of_raster(bytes: &[u8]) -> Option<(usize, usize)> {
    imagesize::blob_size(bytes).ok().map(|size| (size.width, size.height))
}

#[cfg(not(feature = "images"))]
const fn size_of_raster(_: &[u8]) -> Option<(usize, usize)> {
    None
}

/// Width and height that a drawing says it has.
fn size_of_drawing(bytes: &[u8]) -> Option<(usize, usize)> {
    root(&xml::decode(bytes).ok()?, |tag| {
        let get = |name: &str| tag.try_get_attribute(name).ok().flatten().map(|value| value.value.into_owned());
        let length = |name: &str| get(name).and_then(|value| value.trim().trim_end_matches("px").parse::<f64>().ok());
        let view = get("viewBox").unwrap_or_default();
        let view: Vec<f64> = view.split([' ', ',']).filter_map(|part| part.parse().ok()).collect();
        let (width, height) = match (length("width"), length("height"), view.as_slice()) {
            (Some(width), Some(height), _) => (width, height),
            (_, _, [_, _, width, height]) => (*width, *height),
            _ => return None,
        };
        Some((width.round() as usize, height.round() as usize))
    })
}

/// Before its first element a drawing has no more than so many things.
const MOST_BEFORE: usize = 64;

/// Looks at the first element, where it is `svg`.
fn root<T>(text: &str, look: impl FnOnce(&BytesStart<'_>) -> Option<T>) -> Option<T> {
    let mut reader = Reader::from_str(text);
    for _ in 0..MOST_BEFORE {
        match reader.read_event().ok()? {
            Event::Start(tag) | Event::Empty(tag) => {
                return (tag.local_name().as_ref() == "svg").then(|| look(&tag)).flatten();
            }
            Event::Text(text) if !text.trim().is_empty() => return None,
            Event::Eof => return None,
            _ => {}
        }
    }
    None
}

/// Base 64 with padding (RFC 4648, section 4).
pub(crate) fn base64(bytes: &[u8]) -> String {
    base64::engine::general_purpose::STANDARD.encode(bytes)
}

/// The bytes of an address that holds them (RFC 2397), where they are in base 64, with or without padding.
pub(crate) fn bytes_of_data(address: &str) -> Option<Vec<u8>> {
    let (scheme, rest) = address.trim().split_once(':')?;
    let (kind, data) = rest.split_once(',')?;
    let is_base64 = kind.rsplit_once(';').is_some_and(|(_, how)| how.trim().eq_ignore_ascii_case("base64"));
    if !scheme.eq_ignore_ascii_case("data") {
        return None;
    }
    if !is_base64 {
        return Some(percent_encoding::percent_decode_str(data).collect());
    }
    let data: Vec<u8> = percent_encoding::percent_decode_str(data).filter(|byte| !byte.is_ascii_whitespace()).collect();
    let data = data.trim_ascii_end();
    let length = data.iter().rposition(|byte| *byte != b'=').map_or(0, |at| at + 1);
    base64::engine::general_purpose::STANDARD_NO_PAD.decode(&data[..length]).ok()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn bytes_say_what_a_picture_is() {
        let png = b"\x89PNG\r\n\x1A\n....";
        assert_eq!(Kind::of(png), Some(Kind::Png));
        assert_eq!(Kind::of(b"<!-- x -->\n<svg/>"), Some(Kind::Svg));
        for other in [&b"BM makes cars, and this is text."[..], b"SECRET=1", b"<html><svg/></html>", b"GIF89", b""] {
            assert_eq!(Kind::of(other), None);
        }
        assert!(Kind::Png.fits("a.jpeg") && Kind::Png.fits("a") && !Kind::Png.fits("a.svg") && !Kind::Png.fits("a.php"));
        assert!(Kind::Svg.fits("a.svg") && !Kind::Svg.fits("a") && !Kind::Svg.fits("a.png"));
    }

    #[test]
    fn drawings_say_how_large_they_are() {
        for (root, expected) in [
            ("width=\"20px\" height=\" 10 \"", Some((20, 10))),
            ("width=\"100%\" height=\"50mm\" viewBox=\"0,0 30.4 12\"", Some((30, 12))),
            ("width=\"20\"", None),
        ] {
            assert_eq!(size(format!("<!-- x --><svg {root}/>").as_bytes()), expected, "{root}");
        }
        assert_eq!((size(b"<p/>"), size(b"no drawing")), (None, None));
    }

    #[test]
    fn base64_pads_what_is_no_group_of_three() {
        let words = ["", "f", "fo", "foo", "foob", "fooba", "foobar"].map(|word| base64(word.as_bytes()));
        assert_eq!(words, ["", "Zg==", "Zm8=", "Zm9v", "Zm9vYg==", "Zm9vYmE=", "Zm9vYmFy"], "RFC 4648, section 10");
    }
}
