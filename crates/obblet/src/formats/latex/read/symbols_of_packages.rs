//! Characters by the commands of packages for signs (the documentation of marvosym, wasysym, bbding, textgreek, skull, ifsym and
//! fourier): each command before its character.

use super::Reader;
use crate::fast_hash::HashMap;
use std::sync::LazyLock;

/// Commands of packages, each before its character.
const SIGNS: &[&str] = &[
    // Telephones, letters and tools.
    "Telefon ☎ Phone ☎ phone ☎ Mobilefone 📱 Letter ✉ Emailct ✉ Email ✉ EmailAddress ✉ Faxmachine 📠 FAX 📠 fax 📠 Envelope ✉ Pickup ✆ PHONE ☎",
    "Keyboard ⌨ ComputerMouse 🖱 Writinghand ✍ CutLeft ✂ ScissorRight ✂ Football ⚽ Coffeecup ☕ Clocklogo 🕐 Clock 🕐 clock 🕐 Stopsign 🛑",
    "Pointinghand ☞ PointingHand ☞ Rightarrow ➔ ForwardToIndex ⏭ Bicycle 🚲 Gentsroom 🚹 Ladiesroom 🚺 Wheelchair ♿ Industry 🏭 Radioactivity ☢",
    "Radiation ☢ Biohazard ☣ Laserbeam ⚠ Lightning ⚡ lightning ↯ Bat 🦇 Heart ♥ Yinyang ☯ YinYang ☯ Frowny ☹ Smiley ☺ smiley ☺ frownie ☹ blacksmiley ☻",
    "Cross ✝ CeltCross ☩ Info ℹ Recycling ♻ Mundus 🌐 Faxline 📠 danger ☡ bell 🔔 sun ☼ Sun ☉ Moon ☽ ataribox ⊕ recorder ⌕ diameter ⌀ Summertree 🌳",
    // Marks and boxes.
    "checked ✓ Checkmark ✓ CheckedBox ☑ XBox ☒ XSolidBrush ✖ XSolid ✖ Square ☐ Box ☐ CrossedBox ☒ HandRight ☞ HandLeft ☜ PencilRight ✎ Peace ☮",
    "Checkedbox ☑ Crossedbox ☒ HollowBox ☐ FiveStar ★ FiveStarOpen ☆ Plus ✚ SnowflakeChevron ❄ SixFlowerOpenCenter ✿ AsteriskBold ✱",
    "Circle ○ CIRCLE ● LEFTcircle ◐ RIGHTcircle ◑ Leftcircle ◖ Rightcircle ◗ leftmoon ☾ rightmoon ☽ newmoon ● fullmoon ○ varhexagon ⬡ hexagon ⎔ pentagon ⬠",
    "Bowtie ⋈ kreuz ✠ permil ‰ cent ¢ brokenvert ¦ wasylozenge ⌑ invdiameter ⍉ notbackslash ⍀ APLstar ⍟ Vier ♩",
    // People and stars.
    "male ♂ female ♀ Male ♂ Female ♀ MALE ♂ FEMALE ♀ Mars ♂ Venus ♀ Mercury ☿ mercury ☿ venus ♀ mars ♂ earth ♁ Earth ♁ Jupiter ♃ jupiter ♃ Saturn ♄ saturn ♄",
    "Uranus ♅ uranus ♅ Neptune ♆ neptune ♆ Pluto ♇ pluto ♇ astrosun ☉ ascnode ☊ descnode ☋ conjunction ☌ opposition ☍ vernal ♈ Aries ♈ aries ♈",
    "Taurus ♉ taurus ♉ Gemini ♊ gemini ♊ Cancer ♋ cancer ♋ Leo ♌ leo ♌ Virgo ♍ virgo ♍ Libra ♎ libra ♎ Scorpio ♏ scorpio ♏ Sagittarius ♐ sagittarius ♐",
    "Capricorn ♑ capricornus ♑ Aquarius ♒ aquarius ♒ Pisces ♓ pisces ♓",
    // Music and money.
    "eighthnote ♪ quarternote ♩ halfnote 𝅗𝅥 twonotes ♫ fullnote 𝅝 EURtm € EURdig € EURhv € EURcr € EyesDollar $ Pfund £ Denarius ₰ Shilling ß currency ¤",
    "officialeuro € geneuro € EURO € Euro €",
];

/// Greek letters in text.
const GREEK: &[&str] = &[
    "textalpha α textbeta β textgamma γ textdelta δ textepsilon ε textzeta ζ texteta η texttheta θ textiota ι textkappa κ textlambda λ textnu ν textxi ξ",
    "textomikron ο textpi π textrho ρ textsigma σ textvarsigma ς texttau τ textupsilon υ textphi φ textchi χ textpsi ψ textomega ω textmugreek μ textGamma Γ",
    "textDelta Δ textTheta Θ textLambda Λ textXi Ξ textPi Π textSigma Σ textUpsilon Υ textPhi Φ textPsi Ψ textOmega Ω textAlpha Α textBeta Β textEpsilon Ε",
    "textZeta Ζ textEta Η textIota Ι textKappa Κ textMu Μ textNu Ν textOmikron Ο textRho Ρ textTau Τ textChi Χ straightphi ϕ",
];

/// Packages whose commands have names that others have, too.
const PACKAGES: [&str; 7] = ["marvosym", "wasysym", "bbding", "ifsym", "fourier", "skull", "eurosym"];

fn pairs(tables: impl Iterator<Item = &'static str>) -> impl Iterator<Item = (&'static str, &'static str)> {
    tables.flat_map(|table| {
        let mut words = table.split_ascii_whitespace();
        std::iter::from_fn(move || Some((words.next()?, words.next()?)))
    })
}

/// Commands whose names say what they are, with their characters; of those that several packages have, the first.
pub(super) fn all() -> impl Iterator<Item = (&'static str, &'static str)> {
    pairs(GREEK.iter().copied().chain([super::phonetic::NAMES]))
}

impl Reader<'_> {
    /// Writes the sign that a command of a package for signs stands for, where the document takes one in. Whether it is one.
    pub(super) fn sign_of_package(&mut self, name: &str) -> bool {
        static BY_NAME: LazyLock<HashMap<&str, &str>> = LazyLock::new(|| pairs(SIGNS.iter().copied()).collect());
        let Some(sign) = BY_NAME.get(name) else { return false };
        let takes_in = PACKAGES.iter().any(|package| self.front.loads(package));
        if takes_in {
            self.text(sign);
        }
        takes_in
    }
}
