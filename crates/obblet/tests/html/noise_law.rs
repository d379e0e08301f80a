//! A law of cleaning: whatever programs put around a text and into it, what comes out is the text as it is without that.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use proptest::prelude::*;
use support::convert::convert;

/// A text, and where programs put what into it.
#[derive(Clone, Debug)]
struct Noisy {
    blocks: Vec<Block>,
    /// Drawn from as noise is needed.
    noise: Vec<u8>,
}

#[derive(Clone, Debug)]
enum Block {
    Heading(String),
    Paragraph(Vec<(u8, String)>),
    Items(Vec<String>),
    Cells(Vec<[String; 2]>),
}

fn words() -> impl Strategy<Value = String> {
    let word = prop::sample::select(vec!["tide", "gauge", "float", "pier", "neap", "low", "water", "潮", "marée"]);
    prop::collection::vec(word, 1..5).prop_map(|words| words.join(" "))
}

fn noisy() -> impl Strategy<Value = Noisy> {
    let block = prop_oneof![
        words().prop_map(Block::Heading),
        prop::collection::vec((0..3u8, words()), 1..4).prop_map(Block::Paragraph),
        prop::collection::vec(words(), 1..4).prop_map(Block::Items),
        prop::collection::vec([words(), words()], 2..4).prop_map(Block::Cells),
    ];
    (prop::collection::vec(block, 1..6), prop::collection::vec(any::<u8>(), 64))
        .prop_map(|(blocks, noise)| Noisy { blocks, noise })
}

/// Writes the text, with noise or without.
struct Writer<'n> {
    noise: Option<std::iter::Cycle<std::slice::Iter<'n, u8>>>,
}

impl Writer<'_> {
    fn one_of<'s>(&mut self, choices: &[&'s str]) -> &'s str {
        match &mut self.noise {
            Some(noise) => choices[*noise.next().unwrap() as usize % choices.len()],
            None => "",
        }
    }

    /// Words, in as many spans as a program likes.
    fn words(&mut self, words: &str) -> String {
        if self.noise.is_none() {
            return words.to_owned();
        }
        let spans = [
            "<span style='font-size:12.0pt;mso-fareast-font-family:\"Times New Roman\"'>",
            "<span style=\"color:#222222;background:white\">",
            "<font face=\"Arial\" size=2>",
            "<span class=SpellE>",
            "<span data-token=\"7f\" spellcheck=\"false\">",
        ];
        let mut out = String::new();
        for (index, word) in words.split(' ').enumerate() {
            if index > 0 {
                out += self.one_of(&[" ", "\n", " \n ", "<span> </span>", "<span style='mso-spacerun:yes'> </span>"]);
            }
            let open = self.one_of(&spans);
            let close = if open.starts_with("<font") { "</font>" } else { "</span>" };
            let inside = self.one_of(&["", "<o:p></o:p>", "<span></span>", "<!--x-->", "<a name=\"_Toc17\"></a>", "\u{200B}"]);
            out += &format!("{open}{word}{inside}{close}");
        }
        out
    }

    fn between(&mut self) -> &'static str {
        self.one_of(&[
            "",
            "<p class=MsoNormal><o:p>&nbsp;</o:p></p>",
            "<p>&nbsp;</p>",
            "<p><br></p>",
            "<div></div>",
            "<!--[if gte mso 9]><xml><w:View>Normal</w:View></xml><![endif]-->",
            "\r\n\r\n",
            "<p><span style='font-size:9pt'></span></p>",
        ])
    }

    fn attributes(&mut self) -> &'static str {
        self.one_of(&[
            "",
            " class=MsoNormal style='margin-bottom:0cm'",
            " xml:lang=EN-GB contenteditable=true",
            " style=\"line-height:107%\" data-p=\"1\"",
        ])
    }

    fn text(&mut self, blocks: &[Block]) -> String {
        let mut html = String::new();
        for block in blocks {
            html += self.between();
            let attributes = self.attributes();
            match block {
                Block::Heading(words) => html += &format!("<h2{attributes}>{}</h2>", self.words(words)),
                Block::Paragraph(pieces) => {
                    let mut line = Vec::new();
                    for (kind, words) in pieces {
                        let (open, close) = [("", ""), ("<b>", "</b>"), ("<i>", "</i>")][usize::from(*kind)];
                        line.push(format!("{open}{}{close}", self.words(words)));
                    }
                    // What is set apart in the same way is one; plain words keep two of them apart.
                    html += &format!("<p{attributes}>{}</p>", line.join(" and "));
                }
                Block::Items(items) => {
                    let items: String =
                        items.iter().map(|item| format!("<li{}>{}</li>", self.attributes(), self.words(item))).collect();
                    html += &format!("<ul{attributes}>{items}</ul>");
                }
                Block::Cells(rows) => {
                    let mut body = String::new();
                    for (index, row) in rows.iter().enumerate() {
                        let name = if index == 0 { "th" } else { "td" };
                        body += "<tr>";
                        for words in row {
                            body += &format!("<{name}{}>{}</{name}>", self.attributes(), self.words(words));
                        }
                        body += "</tr>";
                    }
                    html += &format!("<table{attributes} border=1 cellspacing=0>{body}</table>");
                }
            }
        }
        html
    }
}

/// What a program leaves in any case, so that it is known for one.
const PROGRAM: &str = "<html xmlns:o=\"urn:schemas-microsoft-com:office:office\"><head><meta name=Generator content=\"Word\"><style><!-- p.MsoNormal {margin:0cm; font-size:11.0pt} --></style></head><body lang=EN-GB><div class=WordSection1>";

fn clean(html: &str) -> String {
    convert(html.as_bytes(), Format::Html, Format::Html, &[]).into_text().unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    #[test]
    fn noise_makes_no_difference(noisy in noisy()) {
        let quiet = format!("{PROGRAM}{}</div></body></html>", Writer { noise: None }.text(&noisy.blocks));
        let loud = format!("{PROGRAM}{}</div></body></html>", Writer { noise: Some(noisy.noise.iter().cycle()) }.text(&noisy.blocks));
        let expected = clean(&quiet);
        // Where lines end within a text is no difference; between two East Asian characters that is no space.
        let plain = |html: &str| html.split_whitespace().collect::<Vec<_>>().join(" ").replace("潮 潮", "潮潮").replace("潮 潮", "潮潮");
        prop_assert_eq!(plain(&clean(&loud)), plain(&expected), "{}", loud);
        prop_assert_eq!(clean(&expected), expected);
    }
}
