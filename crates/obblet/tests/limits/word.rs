//! Packages that somebody made to do harm, or that broke: a clear error or findings, in bounded time and memory.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::profile::Profile;
use obblet::{Error, Format};
use std::time::{Duration, Instant};
use support::convert::{convert, profile};
use support::linear::assert_linear;
use support::package::{
    Package, archive, cell, item, levels, numbering, paragraph, picture, plain, row, run, stored, table, text,
};

fn html(source: &[u8]) -> Result<String, Error> {
    obblet::convert(source, Format::Word, Format::Html, &Profile::built_in("fragment").unwrap())
        .map(|converted| converted.into_text().unwrap())
}

#[track_caller]
fn refused(source: &[u8], words: &str) {
    let message = html(source).unwrap_err().to_string();
    assert!(message.contains(words), "{message}");
}

#[test]
fn what_is_no_document_is_named() {
    refused(b"", "empty");
    refused(b"not a package", "no archive");
    refused(b"<html><p>x</p></html>", "markup");
    refused(b"{\\rtf1\\ansi x}", "RTF");
    let compound = [&[0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1][..], &[0; 600]].concat();
    refused(&compound, "binary document of an old word processor");
    let stream: Vec<u8> = "EncryptedPackage".bytes().flat_map(|byte| [byte, 0]).collect();
    refused(&[&compound[..], &stream].concat(), "password");
    refused(&archive(&[("xl/workbook.xml".to_owned(), b"<x/>".to_vec())]), "spreadsheet");
    refused(&archive(&[("a.txt".to_owned(), b"x".to_vec())]), "main part");
    let whole = Package::of(&plain("x")).bytes();
    for length in [4, 30, whole.len() / 2, whole.len() - 1] {
        refused(&whole[..length], "archive is damaged");
    }
}

/// The parts of a small document, one of them with other bytes.
fn but_for(part: &str, bytes: &[u8]) -> Vec<u8> {
    let mut parts = Package::of(&plain("first")).parts();
    let known = parts.iter_mut().find(|(name, _)| name == part).unwrap();
    known.1 = bytes.to_vec();
    archive(&parts)
}

/// An archive in which the packed bytes of a file are damaged.
fn with_torn_data(archive: &[u8], name: &str) -> Vec<u8> {
    let at = archive.windows(name.len()).position(|window| window == name.as_bytes()).unwrap();
    let mut torn = archive.to_vec();
    torn[at + name.len() + 12..][..16].fill(0xFF);
    torn
}

#[test]
fn a_damaged_package_is_no_empty_document() {
    let main = "word/document.xml";
    for bytes in [&b""[..], b"  \n", b"no markup", b"<other/>", b"\x89PNG\r\n\x1a\n"] {
        refused(&but_for(main, bytes), "its part word/document.xml can't be read");
    }
    refused(&but_for(main, b"<x:workbook xmlns:x=\"y\"><x:sheets/></x:workbook>"), "a spreadsheet");
    for relations in ["_rels/.rels", "word/_rels/document.xml.rels"] {
        refused(&but_for(relations, b"no markup"), &format!("its part {relations} can't be read"));
        let whole = Package::of(&plain("first")).bytes();
        refused(&with_torn_data(&whole, relations), &format!("its part {relations} can't be read"));
    }
    let own = "<Relationships><Relationship Id='a' Type='x/officeDocument' Target='_rels/.rels'/></Relationships>";
    refused(&but_for("_rels/.rels", own.as_bytes()), "its part _rels/.rels can't be read");
    let long: String = (0..400).map(|number| plain(&format!("paragraph {number}"))).collect();
    let mut package = Package::of(&long);
    refused(&with_torn_data(&package.bytes(), main), "its part word/document.xml can't be read");
    // What is not needed to read the text is told.
    package.styles = "<w:style w:type='paragraph' w:styleId='A'><w:name w:val='A'/></w:style>".to_owned();
    let torn = with_torn_data(&package.bytes(), "word/styles.xml");
    let converted = convert(&torn, Format::Word, Format::Html, &[]);
    assert!(converted.text().unwrap().contains("paragraph 399"));
    assert!(converted.findings.iter().any(|found| found.code == "word.damaged" && found.message.contains("word/styles.xml")));
}

#[test]
fn broken_parts_are_read_as_far_as_they_go() {
    let broken = Package::of(&(plain("first") + "<w:p><w:r><w:t>second<"));
    let mut parts = broken.parts();
    for (name, bytes) in &mut parts {
        if name == "word/document.xml" {
            let end = bytes.windows(7).position(|window| window == b"second<").unwrap() + 7;
            bytes.truncate(end);
        }
    }
    let shown = html(&archive(&parts)).unwrap();
    assert!(shown.contains("first") && shown.contains("second"), "{shown}");
    // Relations that lead nowhere or out of the package, parts that are missing, cycles.
    let odd = Package {
        styles: "<w:style w:type='paragraph' w:styleId='A'><w:basedOn w:val='B'/></w:style><w:style w:type='paragraph' w:styleId='B'><w:basedOn w:val='A'/></w:style>".to_owned(),
        numbering: "<w:abstractNum w:abstractNumId='1'><w:numStyleLink w:val='A'/><w:styleLink w:val='A'/></w:abstractNum><w:num w:numId='1'><w:abstractNumId w:val='1'/></w:num><w:num w:numId='2'><w:abstractNumId w:val='9'/></w:num>".to_owned(),
        ..Package::of(&[
            paragraph("<w:pStyle w:val=\"A\"/>", &text("styled")),
            item(1, 0, "numbered"),
            item(2, 8, "nowhere"),
            paragraph("", &picture("../../etc/passwd", "x", 1, 1)),
            paragraph("", "<w:r><w:footnoteReference w:id=\"9\"/></w:r><w:hyperlink r:id=\"none\"><w:r><w:t>dead</w:t></w:r></w:hyperlink>"),
        ].concat())
    };
    let shown = html(&odd.bytes()).unwrap();
    assert!(["styled", "numbered", "nowhere", "dead"].iter().all(|words| shown.contains(words)), "{shown}");
    // Cells without rows, rows without tables, and what belongs to a table outside of one.
    let strays = "<w:tbl><w:tc><w:p><w:r><w:t>one</w:t></w:r></w:p></w:tc></w:tbl><w:tr><w:tc><w:p><w:r><w:t>two</w:t></w:r></w:p></w:tc></w:tr><w:tcPr/><w:trPr/><w:r><w:t>three</w:t></w:r>";
    for styling in ["semantic", "named", "exact"] {
        let shown = convert(Package::of(strays).bytes(), Format::Word, Format::Html, &[&format!("styling={styling}")])
            .into_text()
            .unwrap();
        assert!(["one", "two", "three"].iter().all(|words| shown.contains(words)), "{shown}");
    }
    // Entities are never expanded, whatever they are.
    let bomb = "<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;\"><!ENTITY f SYSTEM \"file:///etc/passwd\">]>";
    let mut parts = Package::of(&paragraph("", "<w:r><w:t>x&b;&f;y</w:t></w:r>")).parts();
    for (name, bytes) in &mut parts {
        if name == "word/document.xml" {
            *bytes = String::from_utf8_lossy(bytes).replace("?>\n", &format!("?>{bomb}")).into_bytes();
        }
    }
    assert_eq!(html(&archive(&parts)).unwrap(), "<p>xy</p>\n");
}

#[test]
fn a_bomb_is_refused_before_it_fills_the_memory() {
    let mut parts = Package::of(&plain("x")).parts();
    parts.retain(|(name, _)| name != "word/document.xml");
    parts.push(("word/document.xml".to_owned(), vec![b' '; 400_000_000]));
    let bomb = archive(&parts);
    drop(parts);
    assert!(bomb.len() < 1_000_000);
    let start = Instant::now();
    refused(&bomb, "limits.unpacked");
    assert!(start.elapsed() < Duration::from_secs(10));
    let mut profile = Profile::built_in("fragment").unwrap();
    profile.set("limits.unpacked=1000").unwrap();
    let small = Package::of(&plain(&"tide ".repeat(1000))).bytes();
    assert!(matches!(obblet::convert(&small, Format::Word, Format::Html, &profile), Err(Error::Read(_))));
}

#[track_caller]
fn linear(name: &str, source: impl Fn(usize) -> Package, size: usize) {
    // Unpacked, so that ten times as much is ten times as many bytes.
    let source = |size: usize| stored(&source(size).parts());
    assert_linear(name, size, source, |bytes| {
        obblet::convert(bytes, Format::Word, Format::Html, &profile("fragment", &[])).unwrap()
    });
}

#[test]
#[expect(clippy::too_many_lines, reason = "a list of cases")]
fn hostile_shapes_take_linear_time() {
    let lists = || numbering(&[(1, levels(&[("bullet", "•"), ("decimal", "%2."), ("decimal", "%1.%3")]))]);
    linear("paragraphs", |count| Package::of(&plain("High water at six.").repeat(count)), 10_000);
    linear(
        "items",
        |count| Package { numbering: lists(), ..Package::of(&(item(1, 0, "a") + &item(1, 2, "b")).repeat(count)) },
        3_000,
    );
    linear(
        "pictures",
        |count| {
            let names = || (0..count).map(|number| format!("p{number}.png"));
            let body = names().map(|name| paragraph("", &picture(&name, "x", 1, 1))).collect::<String>();
            let bytes = |name: String| (name, b"\x89PNG".to_vec());
            Package { pictures: names().map(bytes).collect(), ..Package::of(&body) }
        },
        300,
    );
    linear(
        "rows",
        |count| {
            Package::of(&table("", &[1, 1], &vec![row("", &[cell("", &plain("a")), cell("<w:vMerge/>", &plain("b"))]); count]))
        },
        1_000,
    );
    linear(
        "nested tables",
        |count| {
            let open = "<w:tbl><w:tr><w:tc><w:p><w:r><w:t>x</w:t></w:r></w:p>".repeat(count);
            Package::of(&(open + &"</w:tc></w:tr></w:tbl>".repeat(count)))
        },
        300,
    );
    linear(
        "nested unknown elements",
        |count| Package::of(&("<w:x>".repeat(count) + &plain("a") + &"</w:x>".repeat(count))),
        20_000,
    );
    linear("nested text boxes", |count| Package::of(&("<w:p><w:r><w:pict><w:txbxContent>".repeat(count) + &plain("a"))), 2_000);
    linear("unclosed paragraphs", |count| Package::of(&"<w:p><w:r><w:t>x".repeat(count)), 5_000);
    linear(
        "open fields",
        |count| {
            Package::of(&paragraph(
                "",
                &"<w:r><w:fldChar w:fldCharType=\"begin\"/></w:r><w:r><w:instrText>REF x</w:instrText></w:r>".repeat(count),
            ))
        },
        3_000,
    );
    linear(
        "fields in results",
        |count| {
            Package::of(&paragraph("", &"<w:r><w:fldChar w:fldCharType=\"begin\"/><w:instrText>REF x \\h</w:instrText><w:fldChar w:fldCharType=\"separate\"/><w:t>x</w:t></w:r>".repeat(count)))
        },
        1_000,
    );
    linear(
        "links",
        |count| {
            Package::of(&paragraph(
                "",
                &(0..count)
                    .map(|n| {
                        format!(
                            "<w:bookmarkStart w:id=\"{n}\" w:name=\"b{n}\"/><w:hyperlink w:anchor=\"b{n}\">{}</w:hyperlink>",
                            text("x")
                        )
                    })
                    .collect::<String>(),
            ))
        },
        2_000,
    );
    linear(
        "changing runs",
        |count| Package::of(&paragraph("", &(run("<w:b/>", "a") + &run("<w:i/>", "b") + &text("c")).repeat(count))),
        5_000,
    );
    linear("deleted ends", |count| Package::of(&paragraph("<w:rPr><w:del/></w:rPr>", &text("x")).repeat(count)), 2_000);
    linear(
        "styles",
        |count| Package {
            styles: (0..count)
                .map(|n| {
                    format!(
                        "<w:style w:type='paragraph' w:styleId='s{n}'><w:name w:val='n{n}'/><w:basedOn w:val='s{}'/></w:style>",
                        n + 1
                    )
                })
                .collect(),
            ..Package::of(&plain("x"))
        },
        1_000,
    );
    linear(
        "attributes",
        |count| {
            Package::of(&format!(
                "<w:p {}><w:r><w:t>x</w:t></w:r></w:p>",
                (0..count).map(|n| format!("w:a{n}=\"1\" ")).collect::<String>()
            ))
        },
        5_000,
    );
}
