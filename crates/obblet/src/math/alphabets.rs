//! Alphabets of mathematics, and where Unicode has them (The Unicode Standard, chapter 22.2).

/// The alphabet that letters and digits are set in.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum Variant {
    /// What is usual: single letters lean, words and digits do not.
    #[default]
    Usual,
    /// `\mathrm`
    Upright,
    /// `\mathit`
    Italic,
    /// `\mathbf`
    Bold,
    /// `\boldsymbol`
    BoldItalic,
    /// `\mathcal`, `\mathscr`
    Script,
    /// Bold script.
    BoldScript,
    /// `\mathfrak`
    Fraktur,
    /// Bold fraktur.
    BoldFraktur,
    /// `\mathbb`
    DoubleStruck,
    /// `\mathsf`
    SansSerif,
    /// Bold sans serif.
    BoldSansSerif,
    /// Sans serif that leans.
    SansSerifItalic,
    /// `\mathtt`
    Monospace,
}

/// Where the capital letters, the small letters and the digits of an alphabet begin; 0 where it has none.
const fn starts(variant: Variant) -> (u32, u32, u32) {
    match variant {
        Variant::Usual | Variant::Upright => (0, 0, 0),
        Variant::Bold => (0x1D400, 0x1D41A, 0x1D7CE),
        Variant::Italic => (0x1D434, 0x1D44E, 0),
        Variant::BoldItalic => (0x1D468, 0x1D482, 0x1D7CE),
        Variant::Script => (0x1D49C, 0x1D4B6, 0),
        Variant::BoldScript => (0x1D4D0, 0x1D4EA, 0x1D7CE),
        Variant::Fraktur => (0x1D504, 0x1D51E, 0),
        Variant::DoubleStruck => (0x1D538, 0x1D552, 0x1D7D8),
        Variant::BoldFraktur => (0x1D56C, 0x1D586, 0x1D7CE),
        Variant::SansSerif => (0x1D5A0, 0x1D5BA, 0x1D7E2),
        Variant::BoldSansSerif => (0x1D5D4, 0x1D5EE, 0x1D7EC),
        Variant::SansSerifItalic => (0x1D608, 0x1D622, 0x1D7E2),
        Variant::Monospace => (0x1D670, 0x1D68A, 0x1D7F6),
    }
}

/// Letters that Unicode had before the block of the others, whose places there are empty.
const ELSEWHERE: [(char, u32); 24] = [
    ('ℎ', 0x1D455),
    ('ℬ', 0x1D49D),
    ('ℰ', 0x1D4A0),
    ('ℱ', 0x1D4A1),
    ('ℋ', 0x1D4A3),
    ('ℐ', 0x1D4A4),
    ('ℒ', 0x1D4A7),
    ('ℳ', 0x1D4A8),
    ('ℛ', 0x1D4AD),
    ('ℯ', 0x1D4BA),
    ('ℊ', 0x1D4BC),
    ('ℴ', 0x1D4C4),
    ('ℭ', 0x1D506),
    ('ℌ', 0x1D50B),
    ('ℑ', 0x1D50C),
    ('ℜ', 0x1D515),
    ('ℨ', 0x1D51D),
    ('ℂ', 0x1D53A),
    ('ℍ', 0x1D53F),
    ('ℕ', 0x1D545),
    ('ℙ', 0x1D547),
    ('ℚ', 0x1D548),
    ('ℝ', 0x1D549),
    ('ℤ', 0x1D551),
];

/// Greek letters as the blocks of mathematics have them: 58 in a row.
const GREEK: [char; 58] = [
    'Α', 'Β', 'Γ', 'Δ', 'Ε', 'Ζ', 'Η', 'Θ', 'Ι', 'Κ', 'Λ', 'Μ', 'Ν', 'Ξ', 'Ο', 'Π', 'Ρ', 'ϴ', 'Σ', 'Τ', 'Υ', 'Φ', 'Χ', 'Ψ', 'Ω',
    '∇', 'α', 'β', 'γ', 'δ', 'ε', 'ζ', 'η', 'θ', 'ι', 'κ', 'λ', 'μ', 'ν', 'ξ', 'ο', 'π', 'ρ', 'ς', 'σ', 'τ', 'υ', 'φ', 'χ', 'ψ',
    'ω', '∂', 'ϵ', 'ϑ', 'ϰ', 'ϕ', 'ϱ', 'ϖ',
];

/// Where the Greek letters of an alphabet begin.
const fn greek_start(variant: Variant) -> Option<u32> {
    match variant {
        Variant::Bold => Some(0x1D6A8),
        Variant::Italic => Some(0x1D6E2),
        Variant::BoldItalic => Some(0x1D71C),
        Variant::BoldSansSerif => Some(0x1D756),
        _ => None,
    }
}

const ALL: [Variant; 12] = [
    Variant::Bold,
    Variant::Italic,
    Variant::BoldItalic,
    Variant::Script,
    Variant::BoldScript,
    Variant::Fraktur,
    Variant::DoubleStruck,
    Variant::BoldFraktur,
    Variant::SansSerif,
    Variant::BoldSansSerif,
    Variant::SansSerifItalic,
    Variant::Monospace,
];

impl Variant {
    /// The character of this alphabet for a plain one; the plain one where the alphabet has none.
    #[must_use]
    pub fn of(self, plain: char) -> char {
        let (capitals, small, digits) = starts(self);
        let code = match plain {
            'A'..='Z' if capitals > 0 => capitals + plain as u32 - 'A' as u32,
            'a'..='z' if small > 0 => small + plain as u32 - 'a' as u32,
            '0'..='9' if digits > 0 => digits + plain as u32 - '0' as u32,
            'ı' if self == Self::Italic => 0x1D6A4,
            'ȷ' if self == Self::Italic => 0x1D6A5,
            _ => match (greek_start(self), GREEK.iter().position(|letter| *letter == plain)) {
                (Some(start), Some(at)) => start + at as u32,
                _ => return plain,
            },
        };
        if let Some((known, _)) = ELSEWHERE.iter().find(|(_, empty)| *empty == code) {
            return *known;
        }
        char::from_u32(code).unwrap_or(plain)
    }

    /// The plain character and the alphabet of one from the blocks of mathematics.
    #[must_use]
    pub fn split(character: char) -> Option<(char, Self)> {
        let code = ELSEWHERE.iter().find(|(known, _)| *known == character).map_or(character as u32, |(_, code)| *code);
        if !(0x1D400..=0x1D7FF).contains(&code) {
            return None;
        }
        if code == 0x1D6A4 || code == 0x1D6A5 {
            return Some((if code == 0x1D6A4 { 'ı' } else { 'ȷ' }, Self::Italic));
        }
        for variant in ALL {
            let (capitals, small, digits) = starts(variant);
            for (start, first, count) in [(capitals, 'A', 26), (small, 'a', 26), (digits, '0', 10)] {
                if start > 0 && (start..start + count).contains(&code) {
                    return char::from_u32(first as u32 + code - start).map(|plain| (plain, variant));
                }
            }
            if let Some(start) = greek_start(variant)
                && let Some(letter) = code.checked_sub(start).and_then(|at| GREEK.get(at as usize))
            {
                return Some((*letter, variant));
            }
        }
        None
    }

    /// The bold alphabet of the same form.
    #[must_use]
    pub const fn bold(self) -> Self {
        match self {
            Self::Usual | Self::Italic => Self::BoldItalic,
            Self::Upright => Self::Bold,
            Self::Script => Self::BoldScript,
            Self::Fraktur => Self::BoldFraktur,
            Self::SansSerif => Self::BoldSansSerif,
            other => other,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_letter_comes_back_from_every_alphabet() {
        let plain: Vec<char> = ('A'..='Z').chain('a'..='z').chain('0'..='9').chain(GREEK).collect();
        for variant in ALL {
            for &letter in &plain {
                let set = variant.of(letter);
                if set != letter {
                    let (back, found) = Variant::split(set).unwrap();
                    assert_eq!(back, letter, "{variant:?}");
                    // Digits are shared by alphabets that have none of their own.
                    assert!(found == variant || letter.is_ascii_digit(), "{variant:?} {letter}");
                }
            }
        }
        assert_eq!((Variant::DoubleStruck.of('R'), Variant::Script.of('H'), Variant::Italic.of('h')), ('ℝ', 'ℋ', 'ℎ'));
    }
}
