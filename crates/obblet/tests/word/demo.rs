//! The Word documents of the demo are made here, and stand in the demo as they are made.
//!
//! With `OBBLET_WRITE_DEMO` set, they are written; without, it is checked that they are what would be written.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use std::path::{Path, PathBuf};
use support::package::{
    Package, cell, field, item, levels, numbering, paragraph, picture, plain, row, run, style, styled, table, text,
};

fn demo() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo")
}

fn chart() -> (String, Vec<u8>) {
    ("one-day.png".to_owned(), std::fs::read(demo().join("images/one-day.png")).unwrap())
}

fn defaults(font: &str, language: &str) -> String {
    format!(
        "<w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii=\"{font}\" w:hAnsi=\"{font}\" w:cs=\"{font}\"/><w:sz w:val=\"22\"/>{language}</w:rPr></w:rPrDefault><w:pPrDefault><w:pPr><w:spacing w:after=\"120\" w:line=\"264\" w:lineRule=\"auto\"/></w:pPr></w:pPrDefault></w:docDefaults>"
    )
}

const ENGLISH: &str = "<w:lang w:val=\"en-GB\" w:eastAsia=\"ja-JP\" w:bidi=\"ar-SA\"/>";

fn common_styles() -> String {
    let heading = "<w:keepNext/><w:spacing w:before=\"280\" w:after=\"100\"/>";
    [
        style("Normal", "Normal", "", "", ""),
        style("Title", "Title", "Normal", "<w:jc w:val=\"center\"/><w:spacing w:after=\"60\"/>", "<w:b/><w:color w:val=\"1F4E5F\"/><w:sz w:val=\"48\"/>"),
        style("Subtitle", "Subtitle", "Normal", "<w:jc w:val=\"center\"/><w:spacing w:after=\"360\"/>", "<w:i/><w:color w:val=\"5B6770\"/><w:sz w:val=\"26\"/>"),
        style("Heading1", "heading 1", "Normal", &format!("{heading}<w:outlineLvl w:val=\"0\"/>"), "<w:b/><w:color w:val=\"1F4E5F\"/><w:sz w:val=\"32\"/>"),
        style("Heading2", "heading 2", "Normal", &format!("{heading}<w:outlineLvl w:val=\"1\"/>"), "<w:b/><w:color w:val=\"2F6F7F\"/><w:sz w:val=\"26\"/>"),
        style("Caption", "caption", "Normal", "<w:spacing w:after=\"200\"/>", "<w:i/><w:color w:val=\"5B6770\"/><w:sz w:val=\"18\"/>"),
        style("Quote", "Quote", "Normal", "<w:ind w:left=\"720\" w:right=\"720\"/>", "<w:i/>"),
        style("Log", "Log Entry", "Normal", "<w:pBdr><w:left w:val=\"single\" w:sz=\"24\" w:space=\"8\" w:color=\"2F6F7F\"/></w:pBdr><w:shd w:val=\"clear\" w:fill=\"EEF4F5\"/><w:ind w:left=\"240\"/>", ""),
        style("TOC1", "toc 1", "Normal", "<w:tabs><w:tab w:val=\"right\" w:leader=\"dot\" w:pos=\"9026\"/></w:tabs>", ""),
        style("ListParagraph", "List Paragraph", "Normal", "<w:contextualSpacing/><w:ind w:left=\"720\"/>", ""),
        style("Code", "Source Code", "Normal", "<w:spacing w:after=\"0\"/>", "<w:rFonts w:ascii=\"Courier New\" w:hAnsi=\"Courier New\"/><w:sz w:val=\"18\"/>"),
        "<w:style w:type=\"character\" w:styleId=\"Link\"><w:name w:val=\"Hyperlink\"/><w:rPr><w:color w:val=\"0B5394\"/><w:u w:val=\"single\"/></w:rPr></w:style>".to_owned(),
        "<w:style w:type=\"character\" w:styleId=\"Mark\"><w:name w:val=\"Instrument Name\"/><w:rPr><w:smallCaps/><w:color w:val=\"2F6F7F\"/></w:rPr></w:style>".to_owned(),
        "<w:style w:type=\"table\" w:styleId=\"Lines\"><w:name w:val=\"Table Grid\"/><w:tblPr><w:tblBorders><w:top w:val=\"single\" w:sz=\"4\" w:color=\"auto\"/><w:left w:val=\"single\" w:sz=\"4\" w:color=\"auto\"/><w:bottom w:val=\"single\" w:sz=\"4\" w:color=\"auto\"/><w:right w:val=\"single\" w:sz=\"4\" w:color=\"auto\"/><w:insideH w:val=\"single\" w:sz=\"4\" w:color=\"auto\"/><w:insideV w:val=\"single\" w:sz=\"4\" w:color=\"auto\"/></w:tblBorders></w:tblPr></w:style>".to_owned(),
        "<w:style w:type=\"table\" w:styleId=\"Roster\"><w:name w:val=\"Station Roster\"/><w:tblPr><w:tblStyleRowBandSize w:val=\"1\"/><w:tblBorders><w:top w:val=\"single\" w:sz=\"8\" w:color=\"1F4E5F\"/><w:bottom w:val=\"single\" w:sz=\"8\" w:color=\"1F4E5F\"/><w:insideH w:val=\"single\" w:sz=\"4\" w:color=\"C9D6DA\"/></w:tblBorders></w:tblPr><w:tblStylePr w:type=\"firstRow\"><w:rPr><w:b/><w:color w:val=\"FFFFFF\"/></w:rPr><w:tcPr><w:shd w:val=\"clear\" w:fill=\"1F4E5F\"/></w:tcPr></w:tblStylePr><w:tblStylePr w:type=\"firstCol\"><w:rPr><w:b/></w:rPr></w:tblStylePr><w:tblStylePr w:type=\"band2Horz\"><w:tcPr><w:shd w:val=\"clear\" w:fill=\"EEF4F5\"/></w:tcPr></w:tblStylePr><w:tblStylePr w:type=\"lastRow\"><w:rPr><w:b/></w:rPr><w:tcPr><w:tcBorders><w:top w:val=\"double\" w:sz=\"6\" w:color=\"1F4E5F\"/></w:tcBorders></w:tcPr></w:tblStylePr></w:style>".to_owned(),
    ]
    .concat()
}

fn lists() -> String {
    numbering(&[
        (1, levels(&[("bullet", "•"), ("bullet", "–"), ("bullet", "•")])),
        (2, levels(&[("decimal", "%1."), ("lowerLetter", "%2)"), ("lowerRoman", "%3.")])),
        (3, levels(&[("decimal", "%1."), ("lowerLetter", "%2)")])),
    ])
}

fn properties(title: &str, author: &str) -> String {
    format!(
        "<dc:title>{title}</dc:title><dc:creator>{author}</dc:creator><dcterms:modified xsi:type=\"dcterms:W3CDTF\">2031-04-02T08:00:00Z</dcterms:modified>"
    )
}

const SECTION: &str = "<w:sectPr><w:pgSz w:w=\"11906\" w:h=\"16838\"/><w:pgMar w:top=\"1440\" w:right=\"1440\" w:bottom=\"1440\" w:left=\"1440\"/></w:sectPr>";

fn link(id: &str, words: &str) -> String {
    format!("<w:hyperlink r:id=\"{id}\">{}</w:hyperlink>", run("<w:rStyle w:val=\"Link\"/>", words))
}

fn note(kind: &str, id: u32) -> String {
    format!("<w:r><w:rPr><w:vertAlign w:val=\"superscript\"/></w:rPr><w:{kind}Reference w:id=\"{id}\"/></w:r>")
}

fn heading(level: u32, bookmark: &str, words: &str) -> String {
    let (start, end) = if bookmark.is_empty() {
        (String::new(), String::new())
    } else {
        (format!("<w:bookmarkStart w:id=\"7\" w:name=\"{bookmark}\"/>"), "<w:bookmarkEnd w:id=\"7\"/>".to_owned())
    };
    paragraph(&format!("<w:pStyle w:val=\"Heading{level}\"/>"), &format!("{start}{}{end}", text(words)))
}

/// A line of a list of contents.
fn contents_line(field: &str, bookmark: &str, words: &str, page: u32, end: &str) -> String {
    let number = format!("<w:r><w:rPr><w:webHidden/></w:rPr><w:tab/></w:r>{}", run("<w:webHidden/>", &page.to_string()));
    paragraph(
        "<w:pStyle w:val=\"TOC1\"/>",
        &format!("{field}<w:hyperlink w:anchor=\"{bookmark}\">{}{number}</w:hyperlink>{end}", text(words)),
    )
}

#[expect(clippy::too_many_lines, reason = "a list of cases")]
fn volunteer_handbook() -> Package {
    let begin = "<w:r><w:fldChar w:fldCharType=\"begin\"/></w:r><w:r><w:instrText xml:space=\"preserve\"> TOC \\o \"1-2\" \\h </w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"separate\"/></w:r>";
    let end = "<w:r><w:fldChar w:fldCharType=\"end\"/></w:r>";
    let head = |words: &str| cell("", &paragraph("", &run("<w:b/>", words)));
    let data = |words: &str| cell("", &paragraph("<w:jc w:val=\"right\"/>", &text(words)));
    let body = [
        styled("Title", "Volunteer Handbook"),
        styled("Subtitle", "For those who keep watch at Greywick Sound"),
        contents_line(begin, "_Toc1", "Before your first watch", 2, ""),
        contents_line("", "_Toc2", "Reading the gauge", 3, ""),
        contents_line("", "_Toc3", "When the sea is high", 4, end),
        heading(1, "_Toc1", "Before your first watch"),
        paragraph(
            "",
            &[
                text("Every volunteer walks the pier with "),
                run("<w:b/>", "Anwen Pask"),
                text(" before the first watch. Bring "),
                run("<w:i/>", "both"),
                text(" keys, and read the notice at the "),
                link("notice", "harbour office"),
                text("."),
                note("footnote", 2),
            ]
            .concat(),
        ),
        item(1, 0, "Warm clothes, even in July"),
        item(1, 1, "a hat that stays on"),
        item(1, 1, "gloves that let you write"),
        item(1, 0, "A pencil, for ink runs"),
        item(1, 0, "The tide table of the month"),
        heading(2, "", "Keys"),
        item(2, 0, "Take the key from the hook by the door."),
        paragraph(
            "<w:pStyle w:val=\"ListParagraph\"/>",
            &text("The small one opens the float well, the long one the radio room."),
        ),
        item(2, 0, "Sign for it:"),
        item(2, 1, "your name,"),
        item(2, 1, "the hour."),
        item(2, 0, "Hang it back before you leave."),
        heading(1, "_Toc2", "Reading the gauge"),
        paragraph(
            "",
            &[
                text("The "),
                run("<w:rStyle w:val=\"Mark\"/>", "float gauge"),
                text(" shows the height over chart datum. On the screen of the logger the same number stands after "),
                run("<w:rFonts w:ascii=\"Courier New\" w:hAnsi=\"Courier New\"/>", "h="),
                text(", in metres; seawater is not H"),
                run("<w:vertAlign w:val=\"subscript\"/>", "2"),
                text("O alone, so we correct for salt."),
                note("footnote", 3),
                text(" See "),
                field("REF _Ref1 \\h", &text("Figure 1")),
                text("."),
            ]
            .concat(),
        ),
        paragraph(
            "<w:jc w:val=\"center\"/>",
            &picture("one-day.png", "The curve of one day: two high waters and two low ones", 480, 200),
        ),
        paragraph(
            "<w:pStyle w:val=\"Caption\"/>",
            &format!(
                "<w:bookmarkStart w:id=\"9\" w:name=\"_Ref1\"/>{}{}<w:bookmarkEnd w:id=\"9\"/>{}",
                text("Figure "),
                field("SEQ Figure \\* ARABIC", &text("1")),
                text(": One day at Greywick Sound")
            ),
        ),
        styled("Code", "06:12  h=4.71  wind=SW5"),
        styled("Code", "12:25  h=0.83  wind=SW6"),
        paragraph(
            "<w:pStyle w:val=\"Caption\"/><w:keepNext/>",
            &[text("Table "), field("SEQ Table \\* ARABIC", &text("1")), text(": Corrections by temperature")].concat(),
        ),
        table(
            "<w:tblStyle w:val=\"Lines\"/><w:tblW w:w=\"0\" w:type=\"auto\"/><w:tblLook w:val=\"04A0\"/>",
            &[3000, 3000],
            &[
                row("<w:tblHeader/>", &[head("Water"), head("Correction")]),
                row("", &[cell("", &plain("below 8 °C")), data("−2 mm")]),
                row("", &[cell("", &plain("8 to 14 °C")), data("0 mm")]),
                row("", &[cell("", &plain("above 14 °C")), data("+1 mm")]),
            ],
        ),
        heading(1, "_Toc3", "When the sea is high"),
        styled("Quote", "Leave the instruments. They can be bought again."),
        plain("Joris Halm calls the watch in when the gauge passes 5.60 m."),
        SECTION.to_owned(),
    ]
    .concat();
    let one = |id: u32, words: &str| {
        format!(
            "<w:footnote w:id=\"{id}\">{}</w:footnote>",
            paragraph("", &format!("<w:r><w:footnoteRef/></w:r>{}", text(words)))
        )
    };
    Package {
        body,
        styles: defaults("Carlito", ENGLISH) + &common_styles(),
        numbering: lists(),
        footnotes: format!(
            "<w:footnote w:type=\"separator\" w:id=\"0\"><w:p><w:r><w:separator/></w:r></w:p></w:footnote>{}{}",
            one(2, " The office is open from nine to noon."),
            one(3, " Leocadia Brand keeps the table of corrections.")
        ),
        properties: properties("Volunteer Handbook", "Anwen Pask"),
        links: vec![("notice".to_owned(), "https://greywick.example/office?day=all&amp;lang=en".to_owned())],
        pictures: vec![chart()],
        ..Package::default()
    }
}

fn instrument_roster() -> Package {
    let cells = |words: &[&str]| words.iter().map(|words| cell("", &plain(words))).collect::<Vec<_>>();
    let tall =
        |begins: bool, words: &str| cell(if begins { "<w:vMerge w:val=\"restart\"/>" } else { "<w:vMerge/>" }, &plain(words));
    let inner = table(
        "<w:tblStyle w:val=\"Lines\"/><w:tblLook w:val=\"0000\"/>",
        &[900, 900],
        &[row("", &cells(&["spare", "2"])), row("", &cells(&["in use", "1"]))],
    );
    let body = [
        styled("Title", "Instrument Roster"),
        plain("What hangs where, and who looks after it."),
        table(
            "<w:tblStyle w:val=\"Roster\"/><w:tblW w:w=\"5000\" w:type=\"pct\"/><w:tblLook w:val=\"04E0\" w:firstRow=\"1\" w:lastRow=\"1\" w:firstColumn=\"1\" w:noHBand=\"0\" w:noVBand=\"1\"/>",
            &[2200, 2600, 2200, 2000],
            &[
                row("", &cells(&["Place", "Instrument", "Keeper", "Checked"])),
                row("", &[tall(true, "Float well"), cell("", &plain("Float gauge")), cell("", &plain("A. Pask")), cell("", &plain("weekly"))]),
                row("", &[tall(false, ""), cell("", &plain("Salt probe")), cell("", &plain("L. Brand")), cell("", &plain("monthly"))]),
                row("", &[cell("", &plain("Pier head")), cell("<w:gridSpan w:val=\"2\"/>", &plain("Radar gauge, kept by the Harbour Trust")), cell("", &plain("yearly"))]),
                row("", &[cell("", &plain("Radio room")), cell("", &paragraph("", &picture("one-day.png", "Curve on the screen of the receiver", 96, 40))), cell("", &(plain("J. Halm") + &inner + &plain(""))), cell("<w:shd w:val=\"clear\" w:fill=\"FFE8B3\"/>", &plain("overdue"))]),
                row("", &cells(&["In all", "4", "3", ""])),
            ],
        ),
        plain("The roster hangs in the radio room, too."),
        SECTION.to_owned(),
    ]
    .concat();
    Package {
        body,
        styles: defaults("Carlito", ENGLISH) + &common_styles(),
        properties: properties("Instrument Roster", "Joris Halm"),
        pictures: vec![chart()],
        ..Package::default()
    }
}

fn by_laws() -> Package {
    let revised = |kind: &str, id: u32, content: &str| {
        format!("<w:{kind} w:id=\"{id}\" w:author=\"Leocadia Brand\" w:date=\"2031-03-30T10:00:00Z\">{content}</w:{kind}>")
    };
    let deleted = |words: &str| format!("<w:r><w:delText xml:space=\"preserve\">{words}</w:delText></w:r>");
    let article = |bookmark: &str, words: &str| heading(1, bookmark, words);
    let clause = |words: String| paragraph("<w:pStyle w:val=\"Clause\"/>", &words);
    let body = [
        styled("Title", "By-laws of the Tide Station"),
        article("_Ref10", "Purpose"),
        clause(text("The station measures the tide at Greywick Sound and publishes what it measures.")),
        clause(
            [text("It is kept by volunteers of the Harbour Trust"), revised("ins", 1, &text(", and by nobody else")), text(".")]
                .concat(),
        ),
        article("_Ref11", "Members"),
        clause(
            [
                text("Whoever has kept "),
                revised("del", 2, &deleted("six")),
                revised("ins", 3, &text("four")),
                text(" watches may vote."),
            ]
            .concat(),
        ),
        clause(
            text("A member who misses three watches is asked why, see ")
                + &field("REF _Ref12 \\r \\h", &text("Article III"))
                + &text("."),
        ),
        paragraph(
            "<w:pStyle w:val=\"Clause\"/><w:rPr><w:del w:id=\"4\" w:author=\"Leocadia Brand\"/></w:rPr>",
            &text("The Trust names the keeper"),
        ),
        clause(text(" for three years.")),
        article("_Ref12", "Duties"),
        clause(text("The watch:")),
        item(3, 0, "reads the gauge each hour,"),
        item(3, 0, "writes down the reading,"),
        item(3, 0, "tells the office of any reading above 5.60 m."),
        clause(
            "<w:commentRangeStart w:id=\"1\"/>".to_owned()
                + &text("Nobody keeps watch alone at night.")
                + "<w:commentRangeEnd w:id=\"1\"/><w:r><w:commentReference w:id=\"1\"/></w:r>",
        ),
        SECTION.to_owned(),
    ]
    .concat();
    let legal = [("upperRoman", "Article %1"), ("decimal", "%1.%2")]
        .iter()
        .enumerate()
        .map(|(level, (format, shown))| {
            let legal = if level == 1 { "<w:isLgl/>" } else { "" };
            let name = if level == 0 { "Heading1" } else { "Clause" };
            format!(
                "<w:lvl w:ilvl=\"{level}\"><w:start w:val=\"1\"/><w:numFmt w:val=\"{format}\"/><w:pStyle w:val=\"{name}\"/>{legal}<w:lvlText w:val=\"{shown}\"/><w:pPr><w:ind w:left=\"720\" w:hanging=\"720\"/></w:pPr></w:lvl>"
            )
        })
        .collect::<String>();
    let styles = common_styles().replace(
        "<w:outlineLvl w:val=\"0\"/>",
        "<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"5\"/></w:numPr><w:outlineLvl w:val=\"0\"/>",
    );
    Package {
        body,
        styles: defaults("Caladea", ENGLISH)
            + &styles
            + &style("Clause", "Clause", "Normal", "<w:numPr><w:ilvl w:val=\"1\"/><w:numId w:val=\"5\"/></w:numPr>", ""),
        numbering: numbering(&[(3, levels(&[("lowerLetter", "(%1)")]).replace("w:left=\"720\"", "w:left=\"1440\"")), (5, legal)]),
        comments: format!(
            "<w:comment w:id=\"1\" w:author=\"Joris Halm\" w:date=\"2031-03-31T09:00:00Z\">{}</w:comment>",
            plain("Is that so in winter only?")
        ),
        properties: properties("By-laws of the Tide Station", "Harbour Trust"),
        ..Package::default()
    }
}

fn programme() -> Package {
    let line = |left: &str, right: &str| {
        paragraph(
            "<w:tabs><w:tab w:val=\"right\" w:leader=\"dot\" w:pos=\"9026\"/></w:tabs><w:spacing w:after=\"40\"/>",
            &format!("{}<w:r><w:tab/></w:r>{}", text(left), run("<w:b/>", right)),
        )
    };
    let boxed = "<w:pBdr><w:top w:val=\"double\" w:sz=\"6\" w:space=\"6\" w:color=\"1F4E5F\"/><w:bottom w:val=\"double\" w:sz=\"6\" w:space=\"6\" w:color=\"1F4E5F\"/></w:pBdr><w:jc w:val=\"center\"/>";
    let body = [
        paragraph(
            &format!("<w:pStyle w:val=\"Title\"/>{boxed}"),
            &run("<w:rFonts w:asciiTheme=\"majorHAnsi\" w:hAnsiTheme=\"majorHAnsi\"/><w:color w:themeColor=\"accent1\" w:val=\"000000\"/>", "Open Day at the Pier"),
        ),
        paragraph("<w:jc w:val=\"center\"/>", &run("<w:caps/><w:spacing w:val=\"40\"/>", "Saturday, 7 June")),
        line("Doors open", "10:00"),
        line("Walk to the float well with Anwen Pask", "10:30"),
        line("The great surge of the year, told by Tolliver", "12:00"),
        line("Tea, and the band of the lifeboat", "15:00"),
        paragraph("<w:framePr w:dropCap=\"drop\" w:lines=\"3\" w:wrap=\"around\"/>", &run("<w:sz w:val=\"96\"/>", "T")),
        plain("he station has been read every hour since the winter of the broken ice. On this one day in the year everybody may read it, and everybody's reading is kept."),
        paragraph("<w:sectPr><w:type w:val=\"continuous\"/><w:cols w:num=\"1\"/></w:sectPr>", ""),
        plain("Come by boat if the wind allows it. Boats lie on the inner side."),
        paragraph("", &[text("Dogs are welcome on the pier, not in the radio room."), "<w:r><w:br w:type=\"page\"/></w:r>".to_owned(), text("Quarrie sells mugs at the gate.")].concat()),
        paragraph("<w:shd w:val=\"clear\" w:fill=\"EEF4F5\"/><w:ind w:left=\"720\" w:right=\"720\"/>", &[run("<w:highlight w:val=\"yellow\"/>", "If it blows"), text(" from the north, the walk is off.")].concat()),
        SECTION.replace("</w:sectPr>", "<w:cols w:num=\"2\" w:space=\"720\"/></w:sectPr>"),
    ]
    .concat();
    Package {
        body,
        styles: defaults("Carlito", ENGLISH) + &common_styles(),
        theme: "<a:clrScheme name=\"Station\"><a:dk1><a:sysClr val=\"windowText\" lastClr=\"000000\"/></a:dk1><a:lt1><a:sysClr val=\"window\" lastClr=\"FFFFFF\"/></a:lt1><a:dk2><a:srgbClr val=\"1F4E5F\"/></a:dk2><a:lt2><a:srgbClr val=\"EEF4F5\"/></a:lt2><a:accent1><a:srgbClr val=\"A23B2A\"/></a:accent1></a:clrScheme><a:fontScheme name=\"Station\"><a:majorFont><a:latin typeface=\"Georgia\"/></a:majorFont><a:minorFont><a:latin typeface=\"Carlito\"/></a:minorFont></a:fontScheme>".to_owned(),
        properties: properties("Open Day at the Pier", "Harbour Trust"),
        ..Package::default()
    }
}

fn right_to_left() -> Package {
    let rtl = "<w:rtl/><w:lang w:bidi=\"ar-SA\"/>";
    let line = |properties: &str, words: &str| paragraph(&format!("{properties}<w:bidi/>"), &run(rtl, words));
    let body = [
        line("<w:pStyle w:val=\"Title\"/>", "محطة المد والجزر"),
        line("<w:pStyle w:val=\"Heading1\"/>", "قراءة المقياس"),
        paragraph(
            "<w:bidi/>",
            &[run(rtl, "يبلغ المد أعلاه عند "), run("<w:rtl/><w:bCs/>", "السادسة"), run(rtl, " صباحا.")].concat(),
        ),
        line("<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"2\"/></w:numPr>", "خذ المفتاح"),
        line("<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"2\"/></w:numPr>", "اقرأ المقياس"),
        table(
            "<w:tblStyle w:val=\"Lines\"/><w:bidiVisual/><w:tblLook w:val=\"0000\"/>",
            &[2000, 2000],
            &[row("", &[cell("", &line("", "المد")), cell("", &line("", "الجزر"))])],
        ),
        SECTION.to_owned(),
    ]
    .concat();
    Package {
        body,
        styles: defaults("Amiri", "<w:lang w:val=\"en-GB\" w:bidi=\"ar-SA\"/>") + &common_styles(),
        numbering: lists(),
        properties: properties("محطة المد والجزر", "Leocadia Brand"),
        ..Package::default()
    }
}

fn east_asian() -> Package {
    let ruby = |base: &str, above: &str| {
        format!(
            "<w:r><w:ruby><w:rubyPr><w:rubyAlign w:val=\"center\"/></w:rubyPr><w:rt>{}</w:rt><w:rubyBase>{}</w:rubyBase></w:ruby></w:r>",
            text(above),
            text(base)
        )
    };
    let body = [
        styled("Title", "潮位観測所のしおり"),
        styled("Heading1", "潮を読む"),
        paragraph("", &[ruby("潮", "しお"), text("は一日に二度満ちる。観測は毎時行う。")].concat()),
        paragraph("<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"6\"/></w:numPr>", &text("鍵を取る")),
        paragraph("<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"6\"/></w:numPr>", &text("目盛りを読む")),
        paragraph("", &run("<w:lang w:val=\"en-GB\"/>", "Readings are sent to the Harbour Trust.")),
        SECTION.to_owned(),
    ]
    .concat();
    Package {
        body,
        styles: defaults("Noto Serif CJK JP", "<w:lang w:val=\"en-GB\" w:eastAsia=\"ja-JP\"/>") + &common_styles(),
        numbering: numbering(&[(6, levels(&[("japaneseCounting", "%1、")]))]),
        properties: properties("潮位観測所のしおり", "Leocadia Brand"),
        ..Package::default()
    }
}

fn messy_notes() -> Package {
    let tabbed = |words: &[&str]| {
        let content: Vec<String> = words.iter().map(|words| text(words)).collect();
        paragraph("", &content.join("<w:r><w:tab/></w:r>"))
    };
    let text_box = format!(
        "<w:r><mc:AlternateContent><mc:Choice Requires=\"wps\"><w:drawing><wp:anchor><wp:extent cx=\"1900000\" cy=\"600000\"/><wp:docPr id=\"3\" name=\"Box\"/><a:graphic><a:graphicData uri=\"http://schemas.microsoft.com/office/word/2010/wordprocessingShape\"><wps:wsp><wps:txbx><w:txbxContent>{0}</w:txbxContent></wps:txbx><wps:bodyPr/></wps:wsp></a:graphicData></a:graphic></wp:anchor></w:drawing></mc:Choice><mc:Fallback><w:pict><v:shape><v:textbox><w:txbxContent>{0}</w:txbxContent></v:textbox></v:shape></w:pict></mc:Fallback></mc:AlternateContent></w:r>",
        plain("Ask Quarrie about the mugs.")
    );
    let body = [
        paragraph("<w:jc w:val=\"center\"/>", &run("<w:b/><w:sz w:val=\"40\"/><w:rFonts w:ascii=\"Saltmarsh Script\" w:hAnsi=\"Saltmarsh Script\"/>", "NOTES FOR THE OPEN DAY")),
        paragraph("", ""),
        paragraph("", ""),
        paragraph("", &run("<w:b/>", "What we need")),
        plain("•\u{A0}tables, four of them"),
        plain("• chairs"),
        plain("- the long rope"),
        tabbed(&["Tea", "Tolliver", "15:00"]),
        tabbed(&["Gate", "Quarrie", "10:00"]),
        tabbed(&["Boats", "J. Halm", "all day"]),
        paragraph("", &[text("The pier is closed when"), "<w:r><w:br/></w:r>".to_owned(), text("the wind is above seven.")].concat()),
        paragraph("<w:pStyle w:val=\"Heading1\"/>", &text("Signs")),
        paragraph("", &[picture("one-day.png", "", 240, 100), text_box].concat()),
        paragraph("<w:outlineLvl w:val=\"3\"/>", &text("Too deep a heading")),
        paragraph("", &[text("Arrows: "), "<w:r><w:sym w:font=\"Wingdings\" w:char=\"F0E0\"/></w:r>".to_owned(), text(" and "), run("<w:rFonts w:ascii=\"Symbol\" w:hAnsi=\"Symbol\"/>", "\u{F061}"), run("<w:vanish/>", " (not for print)")].concat()),
        paragraph("", &[text("The plan is in "), link("plan", "the old folder"), text(", and "), field("HYPERLINK \"mailto:keepers@greywick.example\"", &run("<w:rStyle w:val=\"Link\"/>", "here")), text(".")].concat()),
        paragraph("", &[text("Bring "), "<w:ins w:id=\"1\" w:author=\"Tolliver\">".to_owned(), text("two "), "</w:ins><w:del w:id=\"2\" w:author=\"Tolliver\"><w:r><w:delText>one </w:delText></w:r></w:del>".to_owned(), text("ladders.")].concat()),
        "<w:sdt><w:sdtPr><w:alias w:val=\"Weather\"/></w:sdtPr><w:sdtContent>".to_owned() + &plain("Weather: fair") + "</w:sdtContent></w:sdt>",
        paragraph("<w:pBdr><w:bottom w:val=\"single\" w:sz=\"6\" w:space=\"1\" w:color=\"auto\"/></w:pBdr>", ""),
        plain("Printed by A. Pask."),
        SECTION.replace("<w:sectPr>", "<w:sectPr><w:headerReference w:type=\"default\" r:id=\"header1\"/><w:footerReference w:type=\"default\" r:id=\"footer1\"/>"),
    ]
    .concat();
    Package {
        body,
        styles: defaults("Carlito", ENGLISH) + &common_styles(),
        header: plain("Harbour Trust, internal"),
        footer: paragraph("", &[text("Page "), field("PAGE", &text("1"))].concat()),
        links: vec![("plan".to_owned(), "file:///C:\\Trust\\plan.docx".to_owned())],
        pictures: vec![chart()],
        ..Package::default()
    }
}

/// The station's own design for documents that it gives to others.
fn house_style() -> Package {
    let heading = |before: u32, level: u32| {
        format!("<w:keepNext/><w:spacing w:before=\"{before}\" w:after=\"100\"/><w:outlineLvl w:val=\"{level}\"/>")
    };
    let styles = [
        "<w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii=\"Georgia\" w:hAnsi=\"Georgia\" w:eastAsia=\"Georgia\" w:cs=\"Georgia\"/><w:sz w:val=\"21\"/><w:szCs w:val=\"21\"/></w:rPr></w:rPrDefault><w:pPrDefault><w:pPr><w:spacing w:after=\"130\" w:line=\"276\" w:lineRule=\"auto\"/></w:pPr></w:pPrDefault></w:docDefaults>".to_owned(),
        "<w:style w:type=\"paragraph\" w:default=\"1\" w:styleId=\"Plain\"><w:name w:val=\"Normal\"/></w:style>".to_owned(),
        "<w:style w:type=\"character\" w:default=\"1\" w:styleId=\"PlainText\"><w:name w:val=\"Default Paragraph Font\"/></w:style>".to_owned(),
        "<w:style w:type=\"table\" w:default=\"1\" w:styleId=\"TableNormal\"><w:name w:val=\"Normal Table\"/><w:tblPr><w:tblCellMar><w:left w:w=\"108\" w:type=\"dxa\"/><w:right w:w=\"108\" w:type=\"dxa\"/></w:tblCellMar></w:tblPr></w:style>".to_owned(),
        style("Head1", "heading 1", "Plain", &heading(360, 0), "<w:b/><w:color w:val=\"8A3B1E\"/><w:sz w:val=\"34\"/>"),
        style("Head2", "heading 2", "Plain", &heading(280, 1), "<w:b/><w:color w:val=\"8A3B1E\"/><w:sz w:val=\"26\"/>"),
        style("Head3", "heading 3", "Plain", &heading(220, 2), "<w:i/><w:color w:val=\"8A3B1E\"/><w:sz w:val=\"23\"/>"),
        style("Top", "Title", "Plain", "<w:spacing w:after=\"60\"/><w:jc w:val=\"center\"/>", "<w:color w:val=\"2B4A55\"/><w:sz w:val=\"52\"/>"),
        style("Words", "Quote", "Plain", "<w:ind w:left=\"480\" w:right=\"480\"/>", "<w:i/><w:color w:val=\"55636A\"/>"),
        style("Below", "caption", "Plain", "<w:spacing w:after=\"200\"/><w:jc w:val=\"center\"/>", "<w:color w:val=\"55636A\"/><w:sz w:val=\"18\"/>"),
    ];
    let section = "<w:sectPr><w:headerReference w:type=\"default\" r:id=\"header1\"/><w:footerReference w:type=\"default\" r:id=\"footer1\"/><w:pgSz w:w=\"11906\" w:h=\"16838\"/><w:pgMar w:top=\"1700\" w:right=\"1560\" w:bottom=\"1560\" w:left=\"1560\" w:header=\"709\" w:footer=\"709\" w:gutter=\"0\"/></w:sectPr>";
    Package {
        body: plain("") + section,
        styles: styles.concat(),
        header: paragraph(
            "<w:jc w:val=\"right\"/>",
            &run("<w:color w:val=\"55636A\"/><w:sz w:val=\"17\"/>", "Greywick Sound Tide Station"),
        ),
        footer: paragraph("<w:jc w:val=\"center\"/>", &field("PAGE", &text("1"))),
        ..Package::default()
    }
}

fn documents() -> [(&'static str, Package); 8] {
    [
        ("parts/station.dotx", house_style()),
        ("word/by-laws.docx", by_laws()),
        ("word/instrument-roster.docx", instrument_roster()),
        ("word/messy-notes.docx", messy_notes()),
        ("word/open-day-programme.docx", programme()),
        ("word/station-arabic.docx", right_to_left()),
        ("word/station-japanese.docx", east_asian()),
        ("word/volunteer-handbook.docx", volunteer_handbook()),
    ]
}

#[test]
fn the_documents_of_the_demo_are_what_is_made_here() {
    for (name, package) in documents() {
        let path = demo().join(name);
        let bytes = package.bytes();
        if std::env::var_os("OBBLET_WRITE_DEMO").is_some() {
            std::fs::create_dir_all(path.parent().unwrap()).unwrap();
            std::fs::write(&path, &bytes).unwrap();
        }
        assert!(std::fs::read(&path).unwrap() == bytes, "{name} is not as it is made; set OBBLET_WRITE_DEMO to write it");
    }
}
