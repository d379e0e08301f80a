//! Colours of style rules, in every space, as red, green and blue (CSS Color Level 4).

use cssparser_color::{Color, hsl_to_rgb, hwb_to_rgb};

/// What a colour comes to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Seen {
    /// The colour of the text.
    OfText,
    /// All that is behind it.
    Nothing,
    /// Red, green and blue.
    Rgb(u32),
}

/// A colour as it is seen on white.
pub(super) fn on_white(colour: &Color) -> Seen {
    let or_none = |value: Option<f32>| value.unwrap_or(0.0);
    let (rgb, alpha) = match *colour {
        Color::CurrentColor => return Seen::OfText,
        Color::Rgba(rgba) => ([rgba.red, rgba.green, rgba.blue].map(|part| f32::from(part) / 255.0), rgba.alpha),
        Color::Hsl(hsl) => {
            let rgb = hsl_to_rgb(or_none(hsl.hue) / 360.0, or_none(hsl.saturation), or_none(hsl.lightness));
            ([rgb.0, rgb.1, rgb.2], hsl.alpha.unwrap_or(1.0))
        }
        Color::Hwb(hwb) => {
            let rgb = hwb_to_rgb(or_none(hwb.hue) / 360.0, or_none(hwb.whiteness), or_none(hwb.blackness));
            ([rgb.0, rgb.1, rgb.2], hwb.alpha.unwrap_or(1.0))
        }
        Color::Lab(lab) => (of_lab(or_none(lab.lightness), or_none(lab.a), or_none(lab.b)), lab.alpha.unwrap_or(1.0)),
        Color::Lch(lch) => {
            let (a, b) = of_polar(or_none(lch.chroma), or_none(lch.hue));
            (of_lab(or_none(lch.lightness), a, b), lch.alpha.unwrap_or(1.0))
        }
        Color::Oklab(lab) => (of_oklab(or_none(lab.lightness), or_none(lab.a), or_none(lab.b)), lab.alpha.unwrap_or(1.0)),
        Color::Oklch(lch) => {
            let (a, b) = of_polar(or_none(lch.chroma), or_none(lch.hue));
            (of_oklab(or_none(lch.lightness), a, b), lch.alpha.unwrap_or(1.0))
        }
        // Other spaces are so near to this one that the difference is not seen in a document.
        Color::ColorFunction(colour) => ([colour.c1, colour.c2, colour.c3].map(or_none), colour.alpha.unwrap_or(1.0)),
    };
    if alpha <= 0.0 {
        return Seen::Nothing;
    }
    let byte = |part: f32| (part.mul_add(alpha, 1.0 - alpha).clamp(0.0, 1.0) * 255.0).round() as u32;
    Seen::Rgb(byte(rgb[0]) << 16 | byte(rgb[1]) << 8 | byte(rgb[2]))
}

fn of_polar(chroma: f32, hue: f32) -> (f32, f32) {
    let (sine, cosine) = hue.to_radians().sin_cos();
    (chroma * cosine, chroma * sine)
}

/// Light of each colour as screens have it (CSS Color, section 10.2).
fn gamma(light: f32) -> f32 {
    if light <= 0.003_130_8 { light * 12.92 } else { 1.055_f32.mul_add(light.max(0.0).powf(1.0 / 2.4), -0.055) }
}

/// The sum of products.
fn mix(row: [f32; 3], of: [f32; 3]) -> f32 {
    row.iter().zip(of).map(|(factor, value)| factor * value).sum()
}

/// CIE Lab as red, green and blue (CSS Color, sections 9.3 and 18).
fn of_lab(lightness: f32, a: f32, b: f32) -> [f32; 3] {
    let y = (lightness + 16.0) / 116.0;
    let (x, z) = (y + a / 500.0, y - b / 200.0);
    let open = |value: f32| {
        let cubed = value * value * value;
        if cubed > 0.008_856 { cubed } else { 116.0_f32.mul_add(value, -16.0) / 903.296 }
    };
    let white = [0.964_29, 1.0, 0.825_1];
    let xyz = [open(x) * white[0], open(y) * white[1], open(z) * white[2]];
    [[3.134_1, -1.617_2, -0.490_7], [-0.978_7, 1.916_3, 0.033_4], [0.071_9, -0.228_9, 1.405_4]].map(|row| gamma(mix(row, xyz)))
}

/// Oklab as red, green and blue (CSS Color, sections 9.4 and 18).
fn of_oklab(lightness: f32, a: f32, b: f32) -> [f32; 3] {
    let lab = [lightness, a, b];
    let lms = [[1.0, 0.396_338, 0.215_804], [1.0, -0.105_561, -0.063_854], [1.0, -0.089_484, -1.291_486]].map(|row| {
        let value = mix(row, lab);
        value * value * value
    });
    [[4.076_742, -3.307_712, 0.230_97], [-1.268_438, 2.609_757, -0.341_319], [-0.004_196, -0.703_419, 1.707_615]]
        .map(|row| gamma(mix(row, lms)))
}
