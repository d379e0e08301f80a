//! Drawings of Word documents, in the markup of today and in that of before: pictures, shapes, boxes, and what no page shows.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::Weight;
use obblet::profile::Profile;
use obblet::{Converted, Format};
use support::convert::convert;
use support::package::{Package, field, paragraph, picture, plain, text};

const CHARTS: &str = "http://schemas.openxmlformats.org/drawingml/2006/chart";
const DIAGRAMS: &str = "http://schemas.openxmlformats.org/drawingml/2006/diagram";

/// A picture of so many pixels.
fn png(width: u32, height: u32) -> Vec<u8> {
    let mut out = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(width, height).write_to(&mut out, image::ImageFormat::Png).unwrap();
    out.into_inner()
}

/// A document of one paragraph that holds `content`, with parts beside it.
fn with_parts(content: &str, parts: &[(&str, Vec<u8>)]) -> Package {
    let pictures = parts.iter().map(|(name, bytes)| ((*name).to_owned(), bytes.clone())).collect();
    Package { pictures, ..Package::of(&paragraph("", content)) }
}

fn converted(package: &Package) -> Converted {
    convert(package.bytes(), Format::Word, Format::Html, &["html.compact=true"])
}

/// The markup with what pictures hold left out; their sizes are those of the bytes.
fn shown(converted: &Converted) -> String {
    let mut pieces = converted.text().unwrap().split("data:");
    let mut out = pieces.next().unwrap_or_default().to_owned();
    for piece in pieces {
        let (form, rest) = piece.split_once(";base64,").unwrap();
        let (_, rest) = rest.split_once('"').unwrap();
        out += &format!("{form}\"{rest}");
    }
    out
}

/// Codes, weights and words of what was told.
fn told(converted: &Converted) -> Vec<(&str, Weight, &str)> {
    converted.findings.iter().map(|found| (&*found.code, found.weight, found.lost.as_str())).collect()
}

/// A shape of the old markup, with its picture.
fn old_shape(style: &str, alt: &str, data: &str) -> String {
    format!("<w:r><w:pict><v:shape id=\"_x0000_i1025\" style=\"{style}\"{alt}><v:imagedata {data}/></v:shape></w:pict></w:r>")
}

fn drawing(properties: &str, uri: &str, content: &str) -> String {
    format!(
        "<w:r><w:drawing><wp:inline><wp:extent cx=\"952500\" cy=\"476250\"/>{properties}<a:graphic><a:graphicData uri=\"{uri}\">{content}</a:graphicData></a:graphic></wp:inline></w:drawing></w:r>"
    )
}

#[test]
fn pictures_of_the_old_markup() {
    let parts = [("staff.png", png(40, 20))];
    for (style, size) in [
        ("width:30pt;height:15pt", (40, 20)),
        ("position:absolute; margin-left: 4pt; width: 1in; height :0.5in;z-index:-1", (96, 48)),
        ("width:2.54cm;height:12.7mm", (95, 47)),
        ("width:80px;height:40", (80, 40)),
        // What is no length, and what is not there, leaves the size to the picture.
        ("width:50%;height:15pt", (40, 20)),
        ("", (40, 20)),
    ] {
        let package = with_parts(&old_shape(style, " alt=\"The staff\"", "r:id=\"staff.png\" o:title=\"staff\""), &parts);
        let (width, height) = size;
        let expected = format!("<p><img src=\"image/png\" alt=\"The staff\" width=\"{width}\" height=\"{height}\"></p>");
        assert_eq!(shown(&converted(&package)), expected, "{style}");
    }
    // A title is better than nothing to say of a picture.
    let package = with_parts(&old_shape("", "", "r:id=\"staff.png\" title=\"A tide staff\""), &parts);
    assert!(shown(&converted(&package)).contains("alt=\"A tide staff\""));
}

#[test]
fn pictures_are_cut_as_the_document_shows_them() {
    let parts = [("staff.png", png(40, 20))];
    let size = |content: &str| {
        let profile = Profile::built_in("fragment").unwrap();
        let doc = obblet::read(&with_parts(content, &parts).bytes(), Format::Word, &profile).unwrap();
        let size = imagesize::blob_size(&doc.media[0].bytes).unwrap();
        (size.width, size.height)
    };
    let cut =
        picture("staff.png", "x", 20, 20).replace("<a:stretch>", "<a:srcRect l=\"25000\" r=\"25000\" b=\"-4000\"/><a:stretch>");
    assert_eq!(size(&cut), (20, 20));
    // Fractions of 65536, and parts of one.
    for sides in ["cropleft=\"16384f\" cropright=\"16384f\"", "cropleft=\".25\" cropright=\"0.25\""] {
        let old = old_shape("width:15pt;height:15pt", "", &format!("r:id=\"staff.png\" {sides}"));
        assert_eq!(size(&old), (20, 20), "{sides}");
    }
    // Nothing would be left: the picture is whole. A drawing of lines can't be cut, and that is told.
    let all = picture("staff.png", "x", 20, 20).replace("<a:stretch>", "<a:srcRect l=\"60000\" r=\"60000\"/><a:stretch>");
    assert_eq!(size(&all), (40, 20));
    let lines = "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"40\" height=\"20\"><path d=\"M0 0h40\"/></svg>";
    let cut = cut.replace("staff.png", "staff.svg");
    let whole = converted(&with_parts(&cut, &[("staff.svg", lines.as_bytes().to_vec())]));
    assert!(told(&whole).contains(&("word.crop", Weight::Changed, "")), "{:?}", told(&whole));
}

#[test]
fn pictures_that_lead_somewhere() {
    let parts = [("staff.png", png(40, 20))];
    let linked = |inner: &str| {
        let click = "<a:hlinkClick xmlns:a=\"http://schemas.openxmlformats.org/drawingml/2006/main\" r:id=\"site\"/>";
        picture("staff.png", "Staff", 40, 20).replace(
            "<wp:docPr id=\"1\" name=\"Picture\" descr=\"Staff\"/>",
            &format!("<wp:docPr id=\"1\" name=\"Picture\" descr=\"Staff\">{click}</wp:docPr>{inner}"),
        )
    };
    let links = vec![("site".to_owned(), "https://greywick.example/staff".to_owned())];
    let image = "<img src=\"image/png\" alt=\"Staff\" width=\"40\" height=\"20\">";
    let package = Package { links: links.clone(), ..with_parts(&linked(""), &parts) };
    assert_eq!(shown(&converted(&package)), format!("<p><a href=\"https://greywick.example/staff\">{image}</a></p>"));
    // Within a link there is no other, and the one around counts.
    let around = field("HYPERLINK \"https://trust.example/\"", &(text("the ") + &linked("")));
    let package = Package { links, ..with_parts(&around, &parts) };
    assert_eq!(shown(&converted(&package)), format!("<p><a href=\"https://trust.example/\">the {image}</a></p>"));
}

#[test]
fn pictures_outside_of_the_package() {
    let named = picture("staff.png", "Staff", 40, 20).replace("r:embed=\"staff.png\"", "r:link=\"far\"");
    let links = vec![("far".to_owned(), "media\\staff.png".to_owned())];
    let package = Package { links, ..Package::of(&paragraph("", &named)) };
    assert_eq!(
        converted(&package).into_text().unwrap(),
        "<p><img src=\"media/staff.png\" alt=\"Staff\" width=\"40\" height=\"20\"></p>"
    );
}

#[test]
fn charts_and_diagrams_leave_their_words() {
    let chart = format!(
        "<c:chartSpace xmlns:c=\"{CHARTS}\" xmlns:a=\"x\"><c:title><a:t>High water</a:t></c:title><c:ser><c:cat><c:pt><c:v>Mon</c:v></c:pt></c:cat><c:val><c:pt><c:v>4.8</c:v></c:pt></c:val></c:ser></c:chartSpace>"
    );
    let diagram = format!(
        "<dgm:dataModel xmlns:dgm=\"{DIAGRAMS}\" xmlns:a=\"x\"><dgm:pt><a:t>Keeper</a:t></dgm:pt><dgm:pt><a:t>Rota</a:t></dgm:pt></dgm:dataModel>"
    );
    let parts = [("chart.xml", chart.into_bytes()), ("data.xml", diagram.into_bytes())];
    let said = "<wp:docPr id=\"1\" name=\"Chart 1\" descr=\"Highs of the week\"/>";
    let content = text("a")
        + &drawing(said, CHARTS, &format!("<c:chart xmlns:c=\"{CHARTS}\" r:id=\"chart.xml\"><c:ext/></c:chart>"))
        + &drawing(
            "<wp:docPr id=\"2\" name=\"Diagram 2\"/>",
            DIAGRAMS,
            &format!("<dgm:relIds xmlns:dgm=\"{DIAGRAMS}\" r:dm=\"data.xml\" r:lo=\"none\"/>"),
        )
        + &text("b");
    let page = converted(&with_parts(&content, &parts));
    assert_eq!(page.text().unwrap(), "<p>ab</p>");
    let words = "a chart: Highs of the week High water Mon 4.8 a diagram Keeper Rota";
    assert_eq!(told(&page), [("word.title", Weight::Advice, ""), ("word.object", Weight::Lost, words)]);
    // What is hidden with its paragraph is not told as something that was there to see.
    let hidden = content.replace("<w:r><w:drawing>", "<w:r><w:rPr><w:vanish/></w:rPr><w:drawing>");
    assert_eq!(told(&converted(&with_parts(&hidden, &parts))).iter().filter(|(code, ..)| *code == "word.object").count(), 0);
}

#[test]
fn objects_of_other_programs() {
    let object = |picture: &str| {
        format!(
            "<w:r><w:object w:dxaOrig=\"1440\" w:dyaOrig=\"720\"><v:shape style=\"width:30pt;height:15pt\" o:ole=\"\">{picture}</v:shape><o:OLEObject Type=\"Embed\" ProgID=\"Sheet.12\" r:id=\"none\"/></w:object></w:r>"
        )
    };
    let parts = [("sheet.png", png(40, 20))];
    let seen = converted(&with_parts(&object("<v:imagedata r:id=\"sheet.png\" o:title=\"\"/>"), &parts));
    assert_eq!(shown(&seen), "<p><img src=\"image/png\" alt=\"\" width=\"40\" height=\"20\"></p>");
    assert!(told(&seen).contains(&("word.object", Weight::Changed, "Sheet.12")), "{:?}", told(&seen));
    let unseen = converted(&with_parts(&(text("a") + &object("")), &parts));
    assert_eq!(unseen.text().unwrap(), "<p>a</p>");
    assert!(told(&unseen).contains(&("word.object", Weight::Lost, "Sheet.12")), "{:?}", told(&unseen));
}

#[test]
fn shapes_with_words() {
    let lettering = "<w:r><w:pict><v:shape style=\"width:200pt\"><v:textpath style=\"font-family:Arial\" string=\"DRAFT\"/></v:shape></w:pict></w:r>";
    assert_eq!(converted(&with_parts(&(text("a ") + lettering), &[])).into_text().unwrap(), "<p>a DRAFT</p>");
    // Boxes in a group come one by one, in their order; a shape that is filled with a picture shows it.
    let shape =
        |content: &str| format!("<wps:wsp><wps:spPr/><wps:txbx><w:txbxContent>{content}</w:txbxContent></wps:txbx></wps:wsp>");
    let group = drawing(
        "",
        "group",
        &format!(
            "<wpg:wgp xmlns:wpg=\"http://schemas.microsoft.com/office/word/2010/wordprocessingGroup\">{}{}</wpg:wgp>",
            shape(&plain("one")),
            shape(&plain("two"))
        ),
    );
    assert_eq!(
        converted(&with_parts(&(text("a") + &group + &text("b")), &[])).into_text().unwrap(),
        "<p>ab</p><p>one</p><p>two</p>"
    );
    let filled = drawing(
        "<wp:docPr id=\"3\" name=\"Box\" descr=\"Staff\"/>",
        "shape",
        "<wps:wsp><wps:spPr><a:blipFill><a:blip r:embed=\"staff.png\"/></a:blipFill></wps:spPr></wps:wsp>",
    );
    let page = converted(&with_parts(&filled, &[("staff.png", png(40, 20))]));
    assert_eq!(shown(&page), "<p><img src=\"image/png\" alt=\"Staff\" width=\"100\" height=\"50\"></p>");
    // A line across the page, as online editors write it.
    let line = "<w:r><w:pict><v:rect style=\"width:0.0pt;height:1.5pt\" o:hr=\"t\" fillcolor=\"#A0A0A0\"/></w:pict></w:r>";
    assert_eq!(
        converted(&Package::of(&(plain("a") + &paragraph("", line) + &plain("b")))).into_text().unwrap(),
        "<p>a</p><hr><p>b</p>"
    );
}

#[test]
fn pictures_are_known_by_their_bytes() {
    let mut tiff = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(8, 4).write_to(&mut tiff, image::ImageFormat::Tiff).unwrap();
    let mut jpeg = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(8, 4).write_to(&mut jpeg, image::ImageFormat::Jpeg).unwrap();
    let svg = b"<?xml version=\"1.0\"?><svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 8 4\"><path d=\"M0 0h8\"/></svg>"
        .to_vec();
    // Names lie; browsers and this reader look at what is there.
    for (name, bytes, form) in [
        ("a.png", tiff.into_inner(), Some("image/png")),
        ("b.bin", jpeg.into_inner(), Some("image/jpeg")),
        ("c.emf", svg, Some("image/svg+xml")),
        ("d.jpeg", png(8, 4), Some("image/png")),
        ("e.wmf", vec![0xD7, 0xCD, 0xC6, 0x9A, 0, 0], None),
        ("f.png", b"no picture at all".to_vec(), None),
    ] {
        let page = converted(&with_parts(&picture(name, "Staff", 8, 4), &[(name, bytes)]));
        let expected = form.map_or_else(
            || "<p>Staff</p>".to_owned(),
            |form| format!("<p><img src=\"{form}\" alt=\"Staff\" width=\"8\" height=\"4\"></p>"),
        );
        assert_eq!(shown(&page), expected, "{name}");
        let is_left_out = told(&page).iter().any(|(code, weight, _)| (*code, *weight) == ("word.picture-format", Weight::Lost));
        assert_eq!(is_left_out, form.is_none(), "{name}: {:?}", told(&page));
    }
}
