//! However a word processor cuts a paragraph into runs, and whatever it notes between them, the page is the same; and the
//! three stylings say the same words in the same structure.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use proptest::prelude::*;
use support::convert::{convert, convert_as};
use support::dom;
use support::package::{Package, cell, escaped, item, levels, numbering, paragraph, row, style, styled, table};

/// Ways to set a character.
const SET: [&str; 9] = [
    "",
    "<w:b/>",
    "<w:i/>",
    "<w:b/><w:i/>",
    "<w:u w:val=\"single\"/>",
    "<w:vertAlign w:val=\"superscript\"/>",
    "<w:color w:val=\"FF0000\"/>",
    "<w:rStyle w:val=\"Mark\"/>",
    "<w:rFonts w:ascii=\"Courier New\" w:hAnsi=\"Courier New\"/>",
];

/// What programs note between runs; none of it is to be seen.
const NOISE: [&str; 12] = [
    "",
    "<w:proofErr w:type=\"spellStart\"/>",
    "<w:r><w:lastRenderedPageBreak/></w:r>",
    "<w:r w:rsidR=\"00A1B2C3\"><w:rPr><w:b/></w:rPr></w:r>",
    "<w:r><w:t></w:t></w:r>",
    "<w:bookmarkStart w:id=\"0\" w:name=\"_GoBack\"/><w:bookmarkEnd w:id=\"0\"/>",
    "<w:del w:id=\"9\" w:author=\"Pask\"><w:r><w:rPr><w:i/></w:rPr><w:delText>gone</w:delText></w:r></w:del>",
    "<w:moveFrom w:id=\"8\" w:author=\"Pask\"><w:r><w:t>moved</w:t></w:r></w:moveFrom>",
    "<w:commentRangeStart w:id=\"7\"/>",
    "<w:permStart w:id=\"6\" w:edGrp=\"everyone\"/><w:permEnd w:id=\"6\"/>",
    "<w:r><w:rPr><w:vanish/></w:rPr><w:t>hidden</w:t></w:r>",
    "<w:r><w:fldChar w:fldCharType=\"begin\"/></w:r><w:r><w:instrText>XE \"tide\"</w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"end\"/></w:r>",
];

/// What may stand around a run.
const AROUND: [(&str, &str); 6] = [
    ("", ""),
    ("<w:ins w:id=\"5\" w:author=\"Bree\" w:date=\"2026-01-02T03:04:05Z\">", "</w:ins>"),
    ("<w:smartTag w:uri=\"urn:x\" w:element=\"place\">", "</w:smartTag>"),
    ("<w:sdt><w:sdtPr><w:id w:val=\"4\"/></w:sdtPr><w:sdtContent>", "</w:sdtContent></w:sdt>"),
    ("<w:moveTo w:id=\"3\" w:author=\"Bree\">", "</w:moveTo>"),
    (
        "<mc:AlternateContent><mc:Choice Requires=\"x9\"><w:r><w:t>new</w:t></w:r></mc:Choice><mc:Fallback>",
        "</mc:Fallback></mc:AlternateContent>",
    ),
];

/// Properties that a run has beside what it looks like.
const BESIDE: [&str; 3] = ["", "<w:noProof/>", "<w:lang w:val=\"en-GB\"/>"];

/// A character: which one, and how it is set; then how the noisy document writes it.
#[derive(Clone, Debug)]
struct Letter {
    letter: char,
    set: usize,
    noise: usize,
    around: usize,
    beside: usize,
    /// Whether a run ends behind it although nothing changes.
    cut: bool,
}

fn letters() -> impl Strategy<Value = Vec<Letter>> {
    // Signs between scripts may go with either; they stand among letters of one.
    let sets = prop::sample::select(vec![&['t', 'i', 'é', '&', '6', ' '], &['t', 'i', 'é', '潮', '汐', ' ']]);
    sets.prop_flat_map(|letters| among(letters))
}

fn among(letters: &'static [char]) -> impl Strategy<Value = Vec<Letter>> {
    let letter = prop::sample::select(letters.to_vec());
    let one = (letter, 0..SET.len(), 0..NOISE.len(), 0..AROUND.len(), 0..BESIDE.len(), any::<bool>());
    let one = one.prop_map(|(letter, set, noise, around, beside, cut)| Letter { letter, set, noise, around, beside, cut });
    // Letters are mostly set like the one before.
    prop::collection::vec((one, 0..4_u8), 1..24).prop_map(|letters| {
        let mut set = 0;
        let keep = |(letter, changes): (Letter, u8)| {
            set = if changes == 0 { letter.set } else { set };
            Letter { set, ..letter }
        };
        letters.into_iter().map(keep).collect()
    })
}

fn run_of(properties: &str, words: &str) -> String {
    format!("<w:r><w:rPr>{properties}</w:rPr><w:t xml:space=\"preserve\">{}</w:t></w:r>", escaped(words))
}

/// A run for each way in which letters are set.
fn plainly(letters: &[Letter]) -> String {
    letters
        .chunk_by(|one, other| one.set == other.set)
        .map(|run| run_of(SET[run[0].set], &run.iter().map(|letter| letter.letter).collect::<String>()))
        .collect()
}

/// Runs that end anywhere, with all sorts of things between and around them.
fn noisily(letters: &[Letter]) -> String {
    let runs = letters.chunk_by(|one, other| one.set == other.set && !one.cut);
    runs.map(|run| {
        let first = &run[0];
        let (open, close) = AROUND[first.around];
        let words: String = run.iter().map(|letter| letter.letter).collect();
        [NOISE[first.noise], open, &run_of(&format!("{}{}", SET[first.set], BESIDE[first.beside]), &words), close].concat()
    })
    .collect()
}

fn package(body: String) -> Package {
    let mark = "<w:style w:type=\"character\" w:styleId=\"Mark\"><w:name w:val=\"Tide Mark\"/><w:rPr><w:color w:val=\"0000FF\"/></w:rPr></w:style>";
    let styles = style("Normal", "Normal", "", "", "<w:lang w:val=\"en-GB\"/>")
        + &style("Notice", "Notice Board", "Normal", "<w:jc w:val=\"center\"/>", "<w:b/>")
        + &style("H2", "heading 2", "Normal", "", "<w:b/>")
        + mark;
    // Most of the text is in one language, whatever the letters are.
    let body = paragraph("", &run_of("", &"The tide is read at noon. ".repeat(20))) + &body;
    Package {
        styles,
        numbering: numbering(&[(1, levels(&[("decimal", "%1."), ("lowerLetter", "%2)")])), (2, levels(&[("bullet", "•")]))]),
        ..Package::of(&body)
    }
}

fn fragment(package: &Package, styling: &str) -> String {
    let html =
        convert(package.bytes(), Format::Word, Format::Html, &[&format!("styling={styling}"), "clean.promote-headings=never"])
            .into_text()
            .unwrap();
    // Where nothing is lined up with spaces, one is as good as two.
    html.split_whitespace().collect::<Vec<_>>().join(" ")
}

fn rules(package: &Package) -> String {
    let html = convert_as("page", package.bytes(), Format::Word, Format::Html, &["styling=exact", "page.look=none"])
        .into_text()
        .unwrap();
    html.split_whitespace().collect::<Vec<_>>().join(" ")
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn runs_are_cut_anywhere(letters in letters()) {
        let (plain, noisy) = (paragraph("", &plainly(&letters)), paragraph("", &noisily(&letters)));
        let (plain, noisy) = (package(plain), package(noisy));
        for styling in ["semantic", "named", "exact"] {
            prop_assert_eq!(fragment(&plain, styling), fragment(&noisy, styling), "{} {}", styling, &noisy.body);
        }
        prop_assert_eq!(rules(&plain), rules(&noisy));
    }

    #[test]
    fn stylings_say_the_same(blocks in prop::collection::vec((0..7_u8, letters()), 1..8)) {
        let body: String = blocks
            .iter()
            .map(|(kind, letters)| {
                let content = plainly(letters);
                // What is empty is left out, but where a page is to look like the document.
                let words: String = std::iter::once('t').chain(letters.iter().map(|letter| letter.letter)).collect();
                match kind {
                    0 => paragraph("<w:pStyle w:val=\"H2\"/>", &content),
                    1 => paragraph("<w:pStyle w:val=\"Notice\"/><w:ind w:left=\"720\"/>", &content),
                    2 => item(1, 0, &words) + &item(1, 1, &words),
                    3 => item(2, 0, &words),
                    4 => table("", &[2000, 2000], &[row("", &[cell("<w:shd w:fill=\"EEEEEE\"/>", &paragraph("", &content)), cell("", &styled("Notice", &words))])]),
                    5 => paragraph("<w:jc w:val=\"right\"/><w:pBdr><w:top w:val=\"single\" w:sz=\"4\"/></w:pBdr>", &content),
                    _ => paragraph("", &content),
                }
            })
            .collect();
        let package = package(body);
        // Elements without spans and divisions, which only carry classes.
        let outline = |styling: &str| {
            let html = fragment(&package, styling);
            let dom = dom::fragment(&html);
            (dom.errors.clone(), dom.text().split_whitespace().collect::<Vec<_>>().join(" "), html.matches("<h").count(), html.matches("<li").count(), html.matches("<td").count())
        };
        let semantic = outline("semantic");
        prop_assert!(semantic.0.is_empty(), "{:?}", semantic.0);
        for styling in ["named", "exact"] {
            prop_assert_eq!(&semantic, &outline(styling), "{}", styling);
        }
    }
}
