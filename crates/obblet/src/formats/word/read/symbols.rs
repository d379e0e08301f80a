//! Characters of symbol fonts, which have codes of their own, as Unicode.
//!
//! The table of Symbol is the encoding vector of the font as its maker published it; those of the others are the pictures
//! that the fonts show, as the nearest characters that most systems have. Compiled in 2026.

/// The characters of a font by their codes from 0x20; a no-break space stands for what has none.
pub(super) struct Table {
    /// Whether plain text that is set in the font shows these characters too.
    pub(super) remaps: bool,
    rows: &'static [(u8, &'static str)],
}

impl std::fmt::Debug for Table {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str("Table")
    }
}

impl Table {
    pub(super) fn get(&self, code: u8) -> Option<char> {
        let (first, row) = self.rows.iter().rev().find(|(first, _)| *first <= code)?;
        row.chars().nth(usize::from(code - first)).filter(|c| *c != '\u{A0}')
    }
}

pub(super) static SYMBOL: Table = Table {
    remaps: true,
    rows: &[
        (0x20, " !∀#∃%&∋()∗+,−./0123456789:;<=>?"),
        (0x40, "≅ΑΒΧΔΕΦΓΗΙϑΚΛΜΝΟΠΘΡΣΤΥςΩΞΨΖ[∴]⊥_"),
        (0x60, "‾αβχδεφγηιϕκλμνοπθρστυϖωξψζ{|}∼"),
        (0xA0, "€ϒ′≤⁄∞ƒ♣♦♥♠↔←↑→↓°±″≥×∝∂•÷≠≡≈…⏐⎯↵"),
        (0xC0, "ℵℑℜ℘⊗⊕∅∩∪⊃⊇⊄⊂⊆∈∉∠∇®©™∏√⋅¬∧∨⇔⇐⇑⇒⇓"),
        (0xE0, "◊⟨®©™∑⎛⎜⎝⎡⎢⎣⎧⎨⎩⎪\u{A0}⟩∫⌠⎮⌡⎞⎟⎠⎤⎥⎦⎫⎬⎭"),
    ],
};

static WINGDINGS: Table = Table {
    remaps: true,
    rows: &[
        (0x20, " ✏✂✁👓🔔📖🕯☎✆✉✉📪📫📬📭📁📂📄📄📄🗄⌛⌨🖱🖲💻💾💾💾✇✍"),
        (0x40, "✍✌👌👍👎☜☞☝☟✋☺😐☹💣☠⚐⚑✈☼💧❄✝✞✙✠✡☪☯ॐ☸♈♉"),
        (0x60, "♊♋♌♍♎♏♐♑♒♓&&●❍■□□❑❒⬧⧫◆❖⬥⌧⍓⌘❀✿“”"),
        (0x80, "⓪①②③④⑤⑥⑦⑧⑨⑩⓿❶❷❸❹❺❻❼❽❾❿\u{A0}\u{A0}\u{A0}\u{A0}\u{A0}\u{A0}\u{A0}\u{A0}·•"),
        (0xA0, "▪○⭘◉◎◎○▪◻\u{A0}✦★✶✴✹✵\u{A0}⌖⟡⌑\u{A0}✪✰🕐🕑🕒🕓🕔🕕🕖🕗🕘🕙🕚🕛"),
        (0xD5, "⌫⌦\u{A0}➢\u{A0}\u{A0}➲➔↑↓←→↑↓↖↗↙↘⬅➔⬆⬇↖↗↙↘⇦⇨⇧⇩⬄⇳⇖⇗⇙⇘▭▫✗✓☒☑"),
    ],
};

static WINGDINGS_2: Table = Table { remaps: true, rows: &[(0x4F, "✗✓☒☑☒☒"), (0x97, "●•"), (0xA3, "☐")] };

static WEBDINGS: Table =
    Table { remaps: true, rows: &[(0x33, "◀▶▲▼"), (0x61, "✓\u{A0}□"), (0x67, "■"), (0x6E, "●"), (0x72, "✕")] };

/// The table of a font, where it is one of symbols.
pub(super) fn table(font: &str) -> Option<&'static Table> {
    Some(match font.to_ascii_lowercase().as_str() {
        "symbol" | "standard symbols l" | "standard symbols ps" | "opensymbol" if font != "OpenSymbol" => &SYMBOL,
        "wingdings" => &WINGDINGS,
        "wingdings 2" => &WINGDINGS_2,
        "webdings" => &WEBDINGS,
        _ => return None,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn tables_line_up_with_their_codes() {
        let of = |font: &str, code: u8| table(font).and_then(|table| table.get(code));
        assert_eq!([of("Symbol", b'a'), of("Symbol", 0xB7), of("Symbol", 0xDE)], [Some('α'), Some('•'), Some('⇒')]);
        assert_eq!([of("Symbol", 0xA3), of("Symbol", 0xE5), of("Symbol", 0xF0)], [Some('≤'), Some('∑'), None]);
        assert_eq!([of("Wingdings", 0x4A), of("Wingdings", 0xFC), of("Wingdings", 0xFE)], [Some('☺'), Some('✓'), Some('☑')]);
        assert_eq!([of("Wingdings", 0xE0), of("Wingdings", 0xA8), of("Wingdings", 0xAB)], [Some('→'), Some('◻'), Some('★')]);
        assert_eq!([of("Wingdings", 0x6C), of("Wingdings", 0x9F), of("Wingdings", 0xD8)], [Some('●'), Some('•'), Some('➢')]);
        assert_eq!(of("Harbour Sans", b'a'), None);
    }
}
