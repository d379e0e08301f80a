//! Each property of characters, paragraphs and tables of Word documents: what it means, and how it looks.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::profile::Profile;
use support::convert::convert;
use support::package::{Package, cell, levels, numbering, paragraph, plain, row, run, table, text};

const THEME: &str = concat!(
    r#"<a:clrScheme name="x"><a:dk1><a:sysClr val="windowText" lastClr="010203"/></a:dk1><a:lt1><a:sysClr val="window" lastClr="FFFFFF"/></a:lt1>"#,
    r#"<a:accent1><a:srgbClr val="204060"/></a:accent1></a:clrScheme><a:fontScheme name="x"><a:majorFont><a:latin typeface="Harbour"/>"#,
    r#"<a:ea typeface="港"/><a:cs typeface="Marfa"/></a:majorFont><a:minorFont><a:latin typeface="Pier Serif"/><a:ea typeface=""/><a:cs typeface=""/></a:minorFont></a:fontScheme>"#,
);

/// The body of a page in a styling without the class of plain paragraphs, and the rules that are not those of all pages.
fn page(package: &Package, styling: &str) -> (String, Vec<String>) {
    let mut profile = Profile::built_in("page").unwrap();
    for setting in [&format!("styling={styling}"), "page.look=none", "html.compact=true", "page.contents=0", "html.ids=none"] {
        profile.set(setting).unwrap();
    }
    let html = obblet::convert(&package.bytes(), Format::Word, Format::Html, &profile).unwrap().into_text().unwrap();
    let between = |start: &str, end: &str| {
        let from = html.find(start).map_or(html.len(), |at| at + start.len());
        html[from..].split(end).next().unwrap_or_default().to_owned()
    };
    let is_own = |line: &&str| !line.is_empty() && !line.starts_with("body ") && !line.starts_with(".normal ");
    let rules = between("<style>", "</style>").lines().filter(is_own).map(str::to_owned).collect();
    let main =
        between("<main id=\"page-content\">", "</main>").trim().replace(" class=\"normal\"", "").replace("\"normal ", "\"");
    (main, rules)
}

/// A run of such properties behind a plain one: its elements, and the declarations of its class.
#[track_caller]
fn characters(properties: &str, before: &str, element: &str, declarations: &str) {
    let package = Package { theme: THEME.to_owned(), ..Package::of(&paragraph("", &(text(before) + &run(properties, "b")))) };
    let shown = if declarations.is_empty() { "b" } else { "<span class=\"t1\">b</span>" };
    let wrapped = |inner: &str| {
        let close: String =
            element.split_inclusive('>').rev().filter(|tag| !tag.is_empty()).map(|tag| tag.replace('<', "</")).collect();
        format!("<p>{before}{element}{inner}{close}</p>")
    };
    let rules = if declarations.is_empty() { Vec::new() } else { vec![format!(".t1 {{ {declarations} }}")] };
    assert_eq!(page(&package, "exact"), (wrapped(shown), rules), "{properties}");
    // Without its looks, what it means is the same.
    assert_eq!(page(&package, "named").0, wrapped("b"), "{properties}");
}

#[test]
fn text_without_a_colour_is_white_on_dark_ground() {
    for (properties, declarations) in [
        ("<w:shd w:val=\"clear\" w:fill=\"101830\"/>", "background-color: #101830; color: #ffffff"),
        ("<w:shd w:val=\"clear\" w:fill=\"101830\"/><w:color w:val=\"FF0000\"/>", "color: #ff0000; background-color: #101830"),
        ("<w:shd w:val=\"clear\" w:fill=\"D0E0F0\"/>", "background-color: #d0e0f0"),
    ] {
        characters(properties, "a", "", declarations);
    }
}

#[test]
fn properties_of_characters() {
    for (properties, element, declarations) in [
        // Sizes and places.
        ("<w:sz w:val=\"40\"/>", "", "font-size: 20pt"),
        ("<w:sz w:val=\"11pt\"/>", "", "font-size: 11pt"),
        ("<w:sz w:val=\"9999\"/>", "", ""),
        ("<w:szCs w:val=\"40\"/>", "", ""),
        ("<w:position w:val=\"6\"/>", "", "position: relative; bottom: 3pt"),
        ("<w:position w:val=\"-6\"/>", "", "position: relative; bottom: -3pt"),
        ("<w:spacing w:val=\"-20\"/>", "", "letter-spacing: -1pt"),
        ("<w:vertAlign w:val=\"baseline\"/>", "", ""),
        // Grounds, and patterns of dots as a mixture.
        ("<w:shd w:val=\"clear\" w:fill=\"DDEEFF\"/>", "", "background-color: #ddeeff"),
        ("<w:shd w:val=\"pct50\" w:color=\"000000\" w:fill=\"FFFFFF\"/>", "", "background-color: #808080"),
        ("<w:shd w:val=\"pct25\" w:color=\"auto\" w:fill=\"auto\"/>", "", "background-color: #bfbfbf"),
        ("<w:shd w:val=\"solid\" w:color=\"FF0000\" w:fill=\"auto\"/>", "", "background-color: #ff0000"),
        // Lines.
        ("<w:bdr w:val=\"single\" w:sz=\"4\" w:space=\"0\" w:color=\"auto\"/>", "", "border: 0.5pt solid #000000"),
        ("<w:bdr w:val=\"dashed\" w:sz=\"12\" w:color=\"00AA00\"/>", "", "border: 1.5pt dashed #00aa00"),
        ("<w:bdr w:val=\"nil\"/>", "", ""),
        ("<w:u w:val=\"single\"/>", "<u>", ""),
        ("<w:u w:val=\"words\"/>", "<u>", ""),
        ("<w:u w:val=\"none\"/>", "", ""),
        ("<w:u w:val=\"double\"/>", "<u>", "text-decoration: underline double"),
        ("<w:u w:val=\"wave\" w:color=\"FF0000\"/>", "<u>", "text-decoration: underline wavy #ff0000"),
        ("<w:u w:val=\"dottedHeavy\"/>", "<u>", "text-decoration: underline dotted"),
        ("<w:u w:val=\"dotDash\"/>", "<u>", "text-decoration: underline dashed"),
        ("<w:u w:val=\"thick\"/>", "<u>", "text-decoration: underline solid 2px"),
        ("<w:strike/>", "<s>", ""),
        ("<w:dstrike/>", "<s>", ""),
        // Marks beside the characters, which are the emphasis of East Asian text.
        ("<w:em w:val=\"dot\"/>", "<em>", "text-emphasis: filled dot; font-style: normal"),
        ("<w:em w:val=\"comma\"/><w:i/>", "<em>", "text-emphasis: filled sesame"),
        ("<w:em w:val=\"circle\"/>", "<em>", "text-emphasis: open circle; font-style: normal"),
        (
            "<w:em w:val=\"underDot\"/>",
            "<em>",
            "text-emphasis: filled dot; text-emphasis-position: under right; font-style: normal",
        ),
        ("<w:em w:val=\"none\"/>", "", ""),
        // Markers.
        ("<w:highlight w:val=\"darkBlue\"/>", "<mark>", "background-color: #000080"),
        ("<w:highlight w:val=\"black\"/><w:color w:val=\"FFFFFF\"/>", "<mark>", "color: #ffffff; background-color: #000000"),
        ("<w:highlight w:val=\"none\"/>", "", ""),
        ("<w:highlight w:val=\"odd\"/>", "", ""),
        // Fonts and colours, by themselves and by the theme.
        ("<w:rFonts w:hAnsi=\"Georgia\"/>", "", "font-family: \"Georgia\", serif"),
        ("<w:rFonts w:asciiTheme=\"majorHAnsi\" w:ascii=\"Arial\"/>", "", "font-family: \"Harbour\", sans-serif"),
        ("<w:rFonts w:ascii=\"Arial\" w:asciiTheme=\"minorAscii\"/>", "", "font-family: \"Pier Serif\", serif"),
        ("<w:rFonts w:asciiTheme=\"odd\" w:ascii=\"Times New Roman\"/>", "", "font-family: \"Times New Roman\", serif"),
        ("<w:rFonts w:ascii=\"Courier New\"/>", "<code>", "font-family: \"Courier New\", monospace"),
        ("<w:color w:val=\"auto\"/>", "", ""),
        ("<w:color w:val=\"zz\"/>", "", ""),
        ("<w:color w:themeColor=\"accent1\"/>", "", "color: #204060"),
        ("<w:color w:val=\"123456\" w:themeColor=\"accent1\" w:themeTint=\"80\"/>", "", "color: #90a0b0"),
        ("<w:color w:themeColor=\"text1\" w:themeShade=\"80\"/>", "", "color: #010102"),
        ("<w:color w:themeColor=\"odd\" w:val=\"0000FF\"/>", "", "color: #0000ff"),
        // Both sorts of capitals at once, and what is said not to be.
        ("<w:caps/><w:smallCaps/>", "", "text-transform: uppercase; font-variant: small-caps"),
        ("<w:b w:val=\"0\"/><w:i w:val=\"off\"/><w:caps w:val=\"false\"/>", "", ""),
        // What pages do not have.
        ("<w:outline/><w:shadow/><w:emboss/><w:imprint/><w:kern w:val=\"28\"/><w:effect w:val=\"shimmer\"/>", "", ""),
    ] {
        characters(properties, "a", element, declarations);
    }
    for (name, rgb) in [
        ("yellow", "ffff00"),
        ("green", "00ff00"),
        ("cyan", "00ffff"),
        ("magenta", "ff00ff"),
        ("blue", "0000ff"),
        ("red", "ff0000"),
        ("darkCyan", "008080"),
        ("darkGreen", "008000"),
        ("darkMagenta", "800080"),
        ("darkRed", "800000"),
        ("darkYellow", "808000"),
        ("darkGray", "808080"),
        ("lightGray", "c0c0c0"),
        ("white", "ffffff"),
    ] {
        characters(&format!("<w:highlight w:val=\"{name}\"/>"), "a", "<mark>", &format!("background-color: #{rgb}"));
    }
}

#[test]
fn scripts_have_fonts_and_sizes_of_their_own() {
    // Bold, size and font of complex scripts are others than those of Latin text.
    let complex = "<w:rtl/><w:szCs w:val=\"40\"/><w:bCs/><w:rFonts w:cs=\"Amiri\"/>";
    characters(complex, "a", "<strong>", "font-family: \"Amiri\", sans-serif; font-size: 20pt");
    characters("<w:cs/><w:iCs/><w:sz w:val=\"40\"/><w:szCs w:val=\"30\"/>", "a", "<em>", "font-size: 15pt");
    characters("<w:rtl/><w:b/><w:rFonts w:cstheme=\"majorBidi\"/>", "a", "", "font-family: \"Marfa\", sans-serif");
    characters("<w:bCs/><w:iCs/>", "a", "", "");
    // Fonts for East Asian text count where there is any.
    characters("<w:rFonts w:ascii=\"Arial\" w:eastAsia=\"SimHei\"/>", "a", "", "font-family: \"Arial\", sans-serif");
    characters("<w:rFonts w:ascii=\"Arial\" w:eastAsia=\"SimHei\"/>", "港", "", "font-family: \"Arial\", \"SimHei\", sans-serif");
    characters("<w:rFonts w:ascii=\"SimSun\" w:eastAsia=\"SimSun\"/>", "港", "", "font-family: \"SimSun\", sans-serif");
    characters("<w:rFonts w:eastAsiaTheme=\"majorEastAsia\"/>", "港", "", "font-family: \"港\", sans-serif");
}

#[test]
fn properties_of_paragraphs() {
    for (properties, declarations) in [
        ("<w:jc w:val=\"center\"/>", "text-align: center"),
        ("<w:jc w:val=\"both\"/>", "text-align: justify"),
        ("<w:jc w:val=\"distribute\"/>", "text-align: justify"),
        ("<w:jc w:val=\"end\"/>", "text-align: right"),
        ("<w:jc w:val=\"start\"/>", ""),
        ("<w:jc w:val=\"odd\"/>", ""),
        ("<w:ind w:left=\"720\" w:right=\"360\"/>", "margin-left: 36pt; margin-right: 18pt"),
        ("<w:ind w:start=\"720\" w:hanging=\"360\"/>", "margin-left: 36pt; text-indent: -18pt"),
        ("<w:ind w:firstLine=\"360\" w:hanging=\"240\"/>", "text-indent: -12pt"),
        ("<w:ind w:left=\"-720\"/>", "margin-left: -36pt"),
        ("<w:ind w:leftChars=\"200\" w:left=\"480\"/>", "margin-left: 24pt"),
        ("<w:ind w:left=\"1in\"/>", "margin-left: 72pt"),
        (
            "<w:spacing w:before=\"240\" w:after=\"120\" w:line=\"360\" w:lineRule=\"auto\"/>",
            "margin-top: 12pt; margin-bottom: 6pt; line-height: 1.8",
        ),
        ("<w:spacing w:line=\"240\" w:lineRule=\"exact\"/>", "line-height: 12pt"),
        ("<w:spacing w:line=\"300\" w:lineRule=\"atLeast\"/>", "line-height: 15pt"),
        ("<w:spacing w:beforeAutospacing=\"1\" w:afterAutospacing=\"on\"/>", "margin-top: 14pt; margin-bottom: 14pt"),
        (
            "<w:pBdr><w:left w:val=\"single\" w:sz=\"24\" w:space=\"8\" w:color=\"FF0000\"/></w:pBdr>",
            "border-left: 3pt solid #ff0000; padding-left: 8pt",
        ),
        (
            "<w:pBdr><w:top w:val=\"triple\" w:sz=\"8\"/><w:end w:val=\"dotDash\" w:sz=\"4\"/></w:pBdr>",
            "border-top: 3pt double #000000; border-right: 0.5pt dashed #000000",
        ),
        ("<w:shd w:val=\"clear\" w:fill=\"auto\" w:themeFill=\"accent1\" w:themeFillTint=\"33\"/>", "background-color: #d2d9df"),
        ("<w:pageBreakBefore/>", "break-before: page"),
        ("<w:keepNext/><w:keepLines/><w:textAlignment w:val=\"center\"/><w:suppressLineNumbers/>", ""),
    ] {
        let package = Package { theme: THEME.to_owned(), ..Package::of(&paragraph(properties, &text("a"))) };
        let (class, rules) = match declarations {
            "" => ("", Vec::new()),
            declarations => (" class=\"p1\"", vec![format!(".p1 {{ {declarations} }}")]),
        };
        assert_eq!(page(&package, "exact"), (format!("<p{class}>a</p>"), rules), "{properties}");
        assert_eq!(page(&package, "named").0, "<p>a</p>", "{properties}");
    }
    // From right to left, the start is on the right.
    for (align, declarations) in [("", "right"), ("left", "right"), ("start", "right"), ("right", ""), ("center", "center")] {
        let jc = if align.is_empty() { String::new() } else { format!("<w:jc w:val=\"{align}\"/>") };
        let (_, rules) = page(&Package::of(&paragraph(&format!("<w:bidi/>{jc}"), &text("ا"))), "exact");
        let expected = if declarations.is_empty() { vec![] } else { vec![format!(".p1 {{ text-align: {declarations} }}")] };
        assert_eq!(rules, expected, "{align}");
    }
}

/// A style of tables with another below it, and a table of three columns and four rows in the upper one.
fn styled_table(look: &str) -> Package {
    let ground = |part: &str, fill: &str| {
        format!("<w:tblStylePr w:type=\"{part}\"><w:tcPr><w:shd w:val=\"clear\" w:fill=\"{fill}\"/></w:tcPr></w:tblStylePr>")
    };
    let line = |side: &str| format!("<w:{side} w:val=\"single\" w:sz=\"8\"/>");
    let base = format!(
        "<w:style w:type=\"table\" w:styleId=\"Base\"><w:name w:val=\"Station Base\"/><w:tblPr><w:tblBorders>{}{}</w:tblBorders><w:tblCellMar><w:top w:w=\"40\"/><w:start w:w=\"80\"/><w:right w:w=\"60\"/></w:tblCellMar></w:tblPr>{}</w:style>",
        line("top"),
        line("bottom"),
        ground("firstRow", "CCDDEE"),
    );
    let parts = [
        ("lastCol", "AAAAAA"),
        ("band1Horz", "EEEEEE"),
        ("band2Vert", "FFEEEE"),
        ("nwCell", "111111"),
        ("neCell", "121212"),
        ("swCell", "212121"),
        ("seCell", "222222"),
        ("lastRow", "333333"),
    ];
    let parts: String = parts.iter().map(|(part, fill)| ground(part, fill)).collect();
    let own = format!(
        "<w:style w:type=\"table\" w:styleId=\"Own\"><w:name w:val=\"Station Table\"/><w:basedOn w:val=\"Base\"/><w:tblPr><w:tblStyleRowBandSize w:val=\"1\"/><w:tblStyleColBandSize w:val=\"1\"/></w:tblPr><w:tblStylePr w:type=\"firstCol\"><w:rPr><w:i/></w:rPr></w:tblStylePr>{parts}</w:style>"
    );
    let cells = |row: usize| (0..3).map(|column| cell("", &plain(&format!("{row}{column}")))).collect::<Vec<_>>();
    let rows: Vec<String> = (0..4).map(|number| row("", &cells(number))).collect();
    let body = table(&format!("<w:tblStyle w:val=\"Own\"/>{look}"), &[2000, 2000, 1000], &rows);
    Package { styles: base + &own, ..Package::of(&body) }
}

/// The ground of each cell of such a table, row by row; without the number sign, and a dot for none.
fn grounds(package: &Package) -> Vec<String> {
    let (body, rules) = page(package, "exact");
    let ground_of = |class: &str| {
        let rule = rules.iter().find(|rule| rule.starts_with(&format!(".{class} "))).unwrap();
        rule.split("background-color: #").nth(1).map_or(".".to_owned(), |rest| rest[..6].to_owned())
    };
    let row = |row: &str| {
        row.split("class=\"cell").skip(1).map(|cell| ground_of(&format!("cell{}", &cell[..1]))).collect::<Vec<_>>().join(" ")
    };
    body.split("<tr>").skip(1).map(row).collect()
}

#[test]
fn styles_of_tables_are_applied_part_by_part() {
    let rows_of = |look: &str| grounds(&styled_table(look));
    let usual = ["111111 ccddee ccddee", "eeeeee eeeeee eeeeee", ". . .", "eeeeee eeeeee eeeeee"];
    // By attributes, by the bits of a number, and without a word.
    assert_eq!(
        rows_of(
            "<w:tblLook w:firstRow=\"1\" w:lastRow=\"0\" w:firstColumn=\"1\" w:lastColumn=\"0\" w:noHBand=\"0\" w:noVBand=\"1\"/>"
        ),
        usual
    );
    assert_eq!(rows_of("<w:tblLook w:val=\"04A0\"/>"), usual);
    assert_eq!(rows_of(""), usual);
    assert_eq!(
        rows_of(
            "<w:tblLook w:firstRow=\"1\" w:lastRow=\"1\" w:firstColumn=\"1\" w:lastColumn=\"1\" w:noHBand=\"1\" w:noVBand=\"1\"/>"
        ),
        ["111111 ccddee 121212", ". . aaaaaa", ". . aaaaaa", "212121 333333 222222"]
    );
    assert_eq!(
        rows_of("<w:tblLook w:val=\"0000\"/>"),
        ["eeeeee eeeeee eeeeee", ". ffeeee .", "eeeeee eeeeee eeeeee", ". ffeeee ."]
    );
    assert_eq!(rows_of("<w:tblLook w:val=\"0600\"/>"), [". . ."; 4]);
    // Margins and lines come from the style below.
    let (body, rules) = page(&styled_table("<w:tblLook w:val=\"0600\"/>"), "exact");
    assert!(body.starts_with("<table class=\"station-table table1\"><tbody><tr><td class=\"cell1\"><p>00</p></td>"), "{body}");
    assert_eq!(
        rules,
        [
            ".table1 { border-collapse: collapse; border-spacing: 0; width: 250pt; margin: 0 0 0 0 }",
            ".cell1 { border-top: 1pt solid #000000; padding: 2pt 3pt 0 4pt; vertical-align: top; width: 100pt }",
            ".cell2 { border-top: 1pt solid #000000; padding: 2pt 3pt 0 4pt; vertical-align: top; width: 50pt }",
            ".cell3 { padding: 2pt 3pt 0 4pt; vertical-align: top }",
            ".cell4 { border-bottom: 1pt solid #000000; padding: 2pt 3pt 0 4pt; vertical-align: top }",
        ]
    );
    // What the style says of letters of the first column holds for its cells, and its first row is the head of the table.
    let named = page(&styled_table(""), "named");
    assert!(named.0.starts_with("<table class=\"station-table\"><thead><tr><th>00</th>"), "{}", named.0);
}

/// A paragraph that runs from right to left.
fn leftward(words: &str) -> String {
    paragraph("<w:bidi/>", &run("<w:rtl/>", words))
}

/// The semantic fragment of a body.
fn fragment(body: &str) -> String {
    let package = Package { numbering: numbering(&[(1, levels(&[("decimal", "%1.")]))]), ..Package::of(body) };
    let html = convert(package.bytes(), Format::Word, Format::Html, &["html.compact=true"]).into_text().unwrap();
    // Languages are not the matter here.
    html.replace(" lang=\"ar\"", "")
}

#[test]
fn directions_are_said_once_and_where_they_change() {
    let numbered = |words: &str| {
        paragraph("<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"1\"/></w:numPr><w:bidi/>", &run("<w:rtl/>", words))
    };
    let plainly = |words: &str| paragraph("<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"1\"/></w:numPr>", &text(words));
    // A list has its numbers on the side where its items begin.
    assert_eq!(
        fragment(&(numbered("مد") + &numbered("جزر") + &plain("a") + &plain("b"))),
        "<ol dir=\"rtl\"><li>مد</li><li>جزر</li></ol><p>a</p><p>b</p>"
    );
    assert_eq!(
        fragment(&(numbered("مد") + &plainly("ebb") + &plain("a") + &plain("b"))),
        "<ol><li dir=\"rtl\">مد</li><li>ebb</li></ol><p>a</p><p>b</p>"
    );
    // Where most of a document runs to the left, what runs to the right says so.
    assert_eq!(
        fragment(&(leftward("مد") + &plain("a.") + &leftward("جزر"))),
        "<p dir=\"rtl\">مد</p><p dir=\"ltr\">a.</p><p dir=\"rtl\">جزر</p>"
    );
    let cells = |cells: [String; 2]| row("", &cells.map(|content| cell("", &content)));
    let rows = [cells([leftward("يوم"), leftward("مد")]), cells([leftward("اثنين"), plain("4.8")])];
    assert_eq!(
        fragment(&(table("<w:bidiVisual/>", &[2000, 2000], &rows) + &plain("a") + &plain("b") + &plain("c") + &plain("d"))),
        "<table dir=\"rtl\"><tbody><tr><td>يوم</td><td>مد</td></tr><tr><td>اثنين</td><td dir=\"ltr\">4.8</td></tr></tbody></table><p>a</p><p>b</p><p>c</p><p>d</p>"
    );
    assert_eq!(
        fragment(&(table("", &[2000, 2000], &rows) + &plain("a") + &plain("b") + &plain("c") + &plain("d"))),
        "<table><tbody><tr><td dir=\"rtl\">يوم</td><td dir=\"rtl\">مد</td></tr><tr><td dir=\"rtl\">اثنين</td><td>4.8</td></tr></tbody></table><p>a</p><p>b</p><p>c</p><p>d</p>"
    );
}
