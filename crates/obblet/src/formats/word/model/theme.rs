//! The theme: fonts and colours that styles name by what they are for (ECMA-376, part 1, section 20.1.6).

use super::super::xml::{Event, Xml};
use crate::fast_hash::HashMap;

/// Fonts and colours by their places in the theme.
#[derive(Debug, Default)]
pub(in crate::formats::word) struct Theme {
    fonts: HashMap<&'static str, String>,
    colours: HashMap<&'static str, u32>,
}

/// Places of colours in a theme.
const SLOTS: [&str; 12] =
    ["dk1", "lt1", "dk2", "lt2", "accent1", "accent2", "accent3", "accent4", "accent5", "accent6", "hlink", "folHlink"];

impl Theme {
    pub(in crate::formats::word) fn read(source: &str) -> Self {
        let mut theme = Self::default();
        let mut xml = Xml::new(source);
        let (mut slot, mut family) = (None, "");
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            let local = element.local();
            if let Some(known) = SLOTS.into_iter().find(|known| known.as_bytes() == local) {
                slot = Some(known);
                continue;
            }
            match local {
                b"srgbClr" | b"sysClr" => {
                    let digits = element.get(b"lastClr").or_else(|| element.val()).unwrap_or_default();
                    if let (Some(slot), Ok(rgb)) = (slot.take(), u32::from_str_radix(&digits, 16)) {
                        theme.colours.entry(slot).or_insert(rgb & 0x00FF_FFFF);
                    }
                }
                b"majorFont" => family = "major",
                b"minorFont" => family = "minor",
                b"latin" | b"ea" | b"cs" if !family.is_empty() => {
                    let place = match (family, local) {
                        ("major", b"latin") => "majorLatin",
                        ("major", b"ea") => "majorEast",
                        ("major", _) => "majorComplex",
                        (_, b"latin") => "minorLatin",
                        (_, b"ea") => "minorEast",
                        _ => "minorComplex",
                    };
                    let face = element.get(b"typeface").unwrap_or_default().into_owned();
                    if !face.is_empty() {
                        theme.fonts.entry(place).or_insert(face);
                    }
                }
                b"fmtScheme" => break,
                _ => {}
            }
        }
        theme
    }

    /// The font of a name such as `minorHAnsi` (section 17.18.96).
    pub(in crate::formats::word) fn font(&self, slot: &str) -> Option<&str> {
        let place = match slot {
            "majorAscii" | "majorHAnsi" => "majorLatin",
            "minorAscii" | "minorHAnsi" => "minorLatin",
            "majorEastAsia" => "majorEast",
            "minorEastAsia" => "minorEast",
            "majorBidi" => "majorComplex",
            "minorBidi" => "minorComplex",
            _ => return None,
        };
        self.fonts.get(place).map(String::as_str)
    }

    /// The colour of a name such as `accent1` (section 17.18.97).
    pub(in crate::formats::word) fn colour(&self, slot: &str) -> Option<u32> {
        let place = match slot {
            "dark1" | "text1" | "tx1" => "dk1",
            "light1" | "background1" | "bg1" => "lt1",
            "dark2" | "text2" | "tx2" => "dk2",
            "light2" | "background2" | "bg2" => "lt2",
            "hyperlink" => "hlink",
            "followedHyperlink" => "folHlink",
            slot => slot,
        };
        self.colours.get(place).copied()
    }
}

/// A colour made lighter or darker: both are the part of 255 that stays (section 17.18.97).
pub(in crate::formats::word) fn toned(colour: u32, tint: Option<u8>, shade: Option<u8>) -> u32 {
    let colour = tint.map_or(colour, |tint| mix(0x00FF_FFFF, colour, u32::from(tint) * 100 / 255));
    shade.map_or(colour, |shade| mix(0, colour, u32::from(shade) * 100 / 255))
}

/// So many parts in a hundred of a front colour on a ground.
pub(in crate::formats::word) fn mix(ground: u32, front: u32, percent: u32) -> u32 {
    let part = |shift: u32| {
        let (ground, front) = (ground >> shift & 255, front >> shift & 255);
        ((ground * (100 - percent) + front * percent + 50) / 100) << shift
    };
    part(16) | part(8) | part(0)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn colours_are_found_and_toned() {
        let theme = Theme::read(
            "<a:theme><a:clrScheme><a:dk1><a:sysClr val='windowText' lastClr='010203'/></a:dk1>\
             <a:accent1><a:srgbClr val='204060'/></a:accent1></a:clrScheme>\
             <a:fontScheme><a:majorFont><a:latin typeface='Harbour'/></a:majorFont></a:fontScheme></a:theme>",
        );
        assert_eq!((theme.colour("text1"), theme.colour("accent1")), (Some(0x0001_0203), Some(0x0020_4060)));
        assert_eq!(theme.font("majorHAnsi"), Some("Harbour"));
        assert_eq!(toned(0x0020_4060, None, Some(0x80)), 0x0010_2030);
    }
}
