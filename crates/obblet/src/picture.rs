//! What a picture is by its bytes, and the names that its files may have.

use crate::page::svg;

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
            _ => svg::is_drawing(bytes).then_some(Self::Svg),
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

    /// The name of a file of this kind: as it was, where its extension is right, else with the right one. Nothing in it names a
    /// folder, is hidden, or makes a server run it.
    pub(crate) fn file_name(self, name: &str) -> String {
        let (stem, extension) = name.rsplit_once('.').unwrap_or((name, ""));
        let known = self.extensions().iter().find(|known| known.eq_ignore_ascii_case(extension));
        let extension = if known.is_some() { extension } else { self.extensions()[0] };
        format!("{}.{extension}", plain_stem(stem))
    }
}

/// A name of a file has no more bytes than this; systems take 255, and what is written aside needs some.
pub(crate) const LONGEST_NAME: usize = 200;

/// A name without an extension as files may have it anywhere: no folder, no dots at its ends, and none within that make an
/// extension which servers run; not too long.
pub(crate) fn plain_stem(stem: &str) -> String {
    let is_odd = |c: char| c.is_control() || matches!(c, '/' | '\\' | ':' | '*' | '?' | '"' | '<' | '>' | '|');
    let mut plain: String = stem.chars().map(|c| if is_odd(c) { '-' } else { c }).collect();
    if crate::inert::has_running_part(&plain) {
        plain = plain.replace('.', "-");
    }
    let plain = shortened(plain.trim_matches(['.', ' ']), LONGEST_NAME);
    if plain.is_empty() { "picture".to_owned() } else { plain.to_owned() }
}

/// The beginning of a text that has so many bytes at most.
pub(crate) fn shortened(text: &str, most: usize) -> &str {
    let end = (0..=most.min(text.len())).rev().find(|&end| text.is_char_boundary(end)).unwrap_or(0);
    &text[..end]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn bytes_say_what_a_picture_is_and_what_its_file_is_called() {
        let png = b"\x89PNG\r\n\x1A\n....";
        assert_eq!(Kind::of(png), Some(Kind::Png));
        assert_eq!(Kind::of(b"<!-- x -->\n<svg/>"), Some(Kind::Svg));
        for other in [&b"BM makes cars, and this is text."[..], b"SECRET=1", b"<html><svg/></html>", b"GIF89", b""] {
            assert_eq!(Kind::of(other), None);
        }
        for (name, expected) in [
            ("a.png", "a.png"),
            ("a.PNG", "a.PNG"),
            ("fig.1.png", "fig.1.png"),
            ("report.html", "report.png"),
            ("x.php.png", "x-php.png"),
            (".htaccess", "picture.png"),
            ("pic.svg.xhtml", "pic.svg.png"),
            ("../../a.jpg", "-..-a.png"),
            ("a", "a.png"),
        ] {
            assert_eq!(Kind::Png.file_name(name), expected, "{name}");
        }
        assert!(Kind::Png.file_name(&"潮".repeat(300)).len() < 255);
        assert!(Kind::Png.fits("a.jpeg") && Kind::Png.fits("a") && !Kind::Png.fits("a.svg") && !Kind::Png.fits("a.php"));
        assert!(Kind::Svg.fits("a.svg") && !Kind::Svg.fits("a") && !Kind::Svg.fits("a.png"));
    }
}
