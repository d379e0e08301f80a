//! What the settings of HTML output do.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Document, Kind};
use obblet::files::Root;
use obblet::formats::html;
use obblet::profile::{Profile, settings};
use obblet::{Context, Converted, Error, Format, convert, convert_in};
use support::dom::{fragment, page};

fn with(settings: &[&str], source: &str) -> Converted {
    let mut profile = Profile::default();
    for setting in settings {
        profile.set(setting).unwrap();
    }
    convert(source.as_bytes(), Format::Markdown, Format::Html, &profile).unwrap()
}

const ALL: &str = "# A & b\n\n- x\n  - y *z*\n    w\n\n> q\n\n```rust\nlet a = \"<b>\";\n\n  c\n```\n\n| é |\n|---|\n| \u{A0} |\n\n![p](q.png)\\\n<span>r</span>[^1]\n\n[^1]: n\n";

#[test]
fn indentation_and_compactness_change_no_meaning() {
    let plain = fragment(&with(&["shape=fragment"], ALL).into_text().unwrap()).outline();
    for settings in
        [["html.indent=2", "html.compact=false"], ["html.indent=8", "html.compact=false"], ["html.indent=0", "html.compact=true"]]
    {
        let html = with(&["shape=fragment", settings[0], settings[1]], ALL).into_text().unwrap();
        assert_eq!(fragment(&html).outline(), plain, "{html}");
    }
    let compact = with(&["shape=fragment", "html.compact=true"], "# a\n\n- b\n\n> c").into_text().unwrap();
    assert_eq!(compact, "<h1>a</h1><ul><li>b</li></ul><blockquote><p>c</p></blockquote>");
}

#[test]
fn ascii_output_says_the_same() {
    let plain = fragment(&with(&["shape=fragment"], ALL).into_text().unwrap()).outline();
    let ascii = with(&["shape=fragment", "html.characters=ascii"], ALL).into_text().unwrap();
    assert!(ascii.is_ascii());
    assert_eq!(fragment(&ascii).outline(), plain);
    let whole = with(&["html.characters=ascii", "page.title=Ebbe — Flut"], ALL).into_text().unwrap();
    assert!(whole.is_ascii() && whole.contains("<title>Ebbe &#8212; Flut</title>"));
}

#[test]
fn the_xml_syntax_is_well_formed() {
    for shape in ["page", "fragment"] {
        let html = with(
            &[&format!("shape={shape}"), "html.syntax=xhtml", "page.look=folio"],
            &format!("{ALL}\n- [x] t\n\n<details open><summary>s</summary><br></details>\n"),
        )
        .into_text()
        .unwrap();
        let whole = if shape == "fragment" { format!("<r>{html}</r>") } else { html };
        let mut reader = quick_xml::Reader::from_str(&whole);
        reader.config_mut().check_end_names = true;
        loop {
            match reader.read_event() {
                Ok(quick_xml::events::Event::Eof) => break,
                Ok(quick_xml::events::Event::GeneralRef(name)) => {
                    assert!(matches!(name.as_ref(), "amp" | "lt" | "gt" | "quot") || name.starts_with('#'), "{name:?}")
                }
                Ok(_) => {}
                Err(error) => panic!("{error}: {whole}"),
            }
        }
    }
}

#[test]
fn a_page_has_what_its_metadata_say() {
    let source = "---\ntitle: T & t\nsubtitle: S\nauthor: Anwen Pask\nlanguage: cy\ndir: rtl\ndescription: \"D \\\"d\\\"\"\nkeywords: [k, l]\n---\n\n## One\n\n### Two\n\n## Three\n";
    let converted = with(&[], source);
    let dom = page(converted.text().unwrap());
    assert!(dom.errors.is_empty(), "{:?}", dom.errors);
    for expected in [
        "<html lang=\"cy\" dir=\"rtl\">",
        "<title>T &amp; t</title>",
        "<meta name=\"author\" content=\"Anwen Pask\">",
        "<meta name=\"keywords\" content=\"k, l\">",
        "<h1>T &amp; t</h1>\n<p>S</p>\n<p>Anwen Pask</p>",
        "<li><a href=\"#one\">One</a>\n<ol>\n<li><a href=\"#two\">Two</a></li>\n</ol></li>",
        "<h2 id=\"three\">Three</h2>",
    ] {
        assert!(converted.text().unwrap().contains(expected), "{expected} in {}", converted.text().unwrap());
    }
    assert_eq!(converted.title, "T & t");
    assert!(converted.findings.is_empty(), "{:?}", converted.findings);
}

#[test]
fn metadata_and_addresses_of_a_page_are_valid_too() {
    let source = "---\ntitle: \"a \\u0001 < \\\"b\\\"\"\nlanguage: en\n---\n\nx\n";
    let html = with(&["page.stylesheets=https://a.example/b c.css", "page.look=none"], source).into_text().unwrap();
    assert!(html.contains("<title>a \u{FFFD} &lt; &quot;b&quot;</title>"), "{html}");
    assert!(html.contains("href=\"https://a.example/b%20c.css\""), "{html}");
}

#[test]
fn titles_come_from_the_first_place_that_has_one() {
    let title = |settings: &[&str], source: &str| {
        let mut profile = Profile::default();
        settings.iter().for_each(|setting| profile.set(setting).unwrap());
        convert_in(source.as_bytes(), Format::Markdown, Format::Html, &profile, &Context { name: "file", ..Context::default() })
            .unwrap()
            .title
    };
    assert_eq!(title(&["page.title=S"], "---\ntitle: M\n---\n# H"), "S");
    assert_eq!(title(&[], "---\ntitle: M\n---\n# H"), "M");
    assert_eq!(title(&[], "x\n\n## *H* `h`"), "H h");
    assert_eq!(title(&[], "x"), "file");
}

#[test]
fn headings_have_numbers_and_ids_where_asked() {
    let html =
        with(&["shape=fragment", "html.heading-numbers=true", "html.ids=headings"], "## A\n### B\n### B\n## Ünïcode 潮 & _x_!")
            .into_text()
            .unwrap();
    assert_eq!(
        html,
        "<h2 id=\"a\">1 A</h2>\n<h3 id=\"b\">1.1 B</h3>\n<h3 id=\"b-1\">1.2 B</h3>\n<h2 id=\"ünïcode-潮--x\">2 Ünïcode 潮 &amp; <em>x</em>!</h2>\n"
    );
    assert_eq!(
        with(&["shape=fragment"], "# A\n\n# B\n\n[x](#b)").into_text().unwrap(),
        "<h1>A</h1>\n<h1 id=\"b\">B</h1>\n<p><a href=\"#b\">x</a></p>\n"
    );
    let dialect = ["shape=fragment", "markdown.dialect=commonmark"];
    assert_eq!(with(&dialect, "# a\n### b").into_text().unwrap(), "<h1>a</h1>\n<h3>b</h3>\n");
    assert_eq!(with(&dialect[..1], "# a\n### b").findings[0].code, "html.heading-level");
}

#[test]
fn frames_see_metadata_contents_and_body() {
    let folder = tempfile::tempdir().unwrap();
    let file = |name: &str, text: &str| {
        let path = folder.path().join(name);
        std::fs::write(&path, text).unwrap();
        format!("page.{}={}", name.split('.').next().unwrap(), path.display())
    };
    let frame = file(
        "frame.html",
        "{% if metadata.draft %}DRAFT {% endif %}{{ title }}|{% for h in headings %}{{ h.level }}{{ h.text }};{% endfor %}|{{ header }}|{{ body }}",
    );
    let header = file("header.html", "<b>{{ title }}</b>");
    let source = "---\ntitle: <T>\ndraft: true\n---\n# A\n";
    let html = with(&[&frame, &header], source).into_text().unwrap();
    assert_eq!(html, "DRAFT &lt;T&gt;|1A;|<b>&lt;T&gt;</b>|<h1 id=\"a\">A</h1>\n");

    let mut profile = Profile::default();
    profile.set(&file("frame.html", "a\n{{ title")).unwrap();
    let error = convert(b"x", Format::Markdown, Format::Html, &profile).unwrap_err();
    assert!(matches!(&error, Error::Page(obblet::page::PageError::Frame { line: 2, .. })), "{error}");
    profile.set("page.frame=/nowhere/frame.html").unwrap();
    let error = convert(b"x", Format::Markdown, Format::Html, &profile).unwrap_err();
    assert!(error.to_string().starts_with("page.frame: can't read /nowhere/frame.html"), "{error}");
}

/// A picture of 3 by 2 points.
const PICTURE: &[u8] = b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR\0\0\0\x03\0\0\0\x02\x08\x02\0\0\0";

#[test]
fn pictures_go_where_the_profile_says() {
    let (source, output) = (tempfile::tempdir().unwrap(), tempfile::tempdir().unwrap());
    std::fs::create_dir(source.path().join("a")).unwrap();
    std::fs::write(source.path().join("p 1.png"), PICTURE).unwrap();
    std::fs::write(source.path().join("a/p 1.png"), PICTURE).unwrap();
    std::fs::write(source.path().join("s.svg"), "<svg viewBox='0 0 8 4'><script>x()</script></svg>").unwrap();
    let secret = tempfile::NamedTempFile::with_suffix(".png").unwrap();
    let secret_name = secret.path().file_name().unwrap().to_str().unwrap();
    let markdown = format!(
        "![x](p%201.png) ![y](a/p%201.png?q) ![z](s.svg) ![n](none.png) ![o](../{secret_name}) ![w](https://a.example/w.png)"
    );
    let run = |place: &str, output: Option<&std::path::Path>| {
        let mut profile = Profile::built_in("fragment").unwrap();
        profile.set(&format!("images.place={place}")).unwrap();
        let root = Root::open(source.path()).unwrap();
        let context = Context { name: "doc", media: Some(&root), output, ..Context::default() };
        convert_in(markdown.as_bytes(), Format::Markdown, Format::Html, &profile, &context).unwrap()
    };
    let folder = run("folder", Some(output.path()));
    assert!(
        folder.text().unwrap().contains("<img src=\"doc-images/p%201.png\" alt=\"x\" width=\"3\" height=\"2\">"),
        "{}",
        folder.text().unwrap()
    );
    assert!(folder.text().unwrap().contains("<img src=\"doc-images/p%201-2.png\" alt=\"y\""), "{}", folder.text().unwrap());
    assert_eq!(folder.files.len(), 3);
    let drawing = String::from_utf8(folder.files[2].bytes.clone()).unwrap();
    assert!(folder.text().unwrap().contains("width=\"8\" height=\"4\"") && !drawing.contains("script"), "{drawing}");
    let codes: Vec<&str> = folder.findings.iter().map(|finding| &*finding.code).collect();
    assert_eq!(codes, ["image.drawing", "image.missing", "image.outside"]);

    // Beside the source, and on standard output, pictures stay where they are.
    for output in [None, Some(source.path())] {
        let same = run("folder", output);
        assert!(
            same.text().unwrap().contains("src=\"p%201.png\" alt=\"x\" width=\"3\"") && same.files.is_empty(),
            "{}",
            same.text().unwrap()
        );
    }
    let embedded = run("embed", None);
    assert!(
        embedded.text().unwrap().contains("src=\"data:image/png;base64,iVBORw0KGgo")
            && embedded.text().unwrap().contains("src=\"data:image/svg+xml;base64,"),
        "{}",
        embedded.text().unwrap()
    );
    let dropped = run("drop", None);
    assert_eq!(dropped.text().unwrap(), "<p>x y z n o w</p>\n");
    assert_eq!(dropped.findings.len(), 6);
}

#[test]
fn untrusted_addresses_do_not_run() {
    let source = "[a](javascript:alert(1)) ![b](data:image/svg+xml,x) <vbscript:x>\n\n[c]: java&#10;script:x\n\n[c]";
    let safe = with(&["shape=fragment"], source);
    assert_eq!(safe.text().unwrap(), "<p>a b vbscript:x</p>\n<p>c</p>\n");
    assert_eq!(safe.findings.iter().filter(|finding| finding.code == "html.unsafe-link").count(), 3);
    assert!(with(&["shape=fragment", "html.trust=true"], source).into_text().unwrap().contains("href=\"javascript:alert(1)\""));
}

#[test]
fn looks_are_three_and_have_no_script() {
    for look in obblet::profile::LOOKS {
        let html = with(&[&format!("page.look={look}")], "# a").into_text().unwrap();
        assert!(html.contains("prefers-color-scheme: dark") && html.contains("@media print") && !html.contains("<script"));
    }
    let mut profile = Profile::default();
    assert!(profile.set("page.look=charts").is_err());
    "charts".clone_into(&mut profile.page.look);
    assert!(matches!(
        convert(b"", Format::Markdown, Format::Html, &profile),
        Err(Error::Page(obblet::page::PageError::UnknownLook { .. }))
    ));
}

#[test]
fn sources_that_are_too_large_are_refused() {
    let mut profile = Profile::default();
    profile.set("limits.source=10").unwrap();
    let error = convert(b"0123456789a", Format::Markdown, Format::Html, &profile).unwrap_err();
    assert_eq!(error.to_string(), "the source has 11 bytes; the limit is 10 (limits.source)");
}

#[test]
fn every_setting_says_what_it_means() {
    for setting in settings() {
        assert!(setting.meaning.len() > 20 && setting.meaning.ends_with('.'), "{}", setting.key);
    }
}

#[test]
fn a_document_made_in_code_is_written() {
    let mut doc = Document::new();
    let figure = doc.append(doc.root(), Kind::Figure);
    doc.append_image(figure, "staff.png", "The staff");
    let caption = doc.append(figure, Kind::Caption);
    doc.append_text(caption, "At low water");
    let html = html::write(&doc, &html::Options::default()).html;
    assert_eq!(html, "<figure>\n<img src=\"staff.png\" alt=\"The staff\">\n<figcaption>At low water</figcaption>\n</figure>\n");
}

#[test]
fn own_style_sheets_stand_behind_the_rules_of_the_document() {
    let folder = tempfile::tempdir().unwrap();
    std::fs::write(folder.path().join("own.css"), ".chapter { color: teal }").unwrap();
    let own = folder.path().join("own.css");
    for place in ["embed", "link"] {
        let mut profile = Profile::built_in("page").unwrap();
        for setting in ["styling=named", &format!("page.styles={place}"), &format!("page.stylesheets={}", own.display())] {
            profile.set(setting).unwrap();
        }
        let context = Context { name: "log", output: Some(folder.path()), ..Context::default() };
        let source = b"THE LOG\n\nCHAPTER ONE\n\nIt came in.\n";
        let page = convert_in(source, Format::Text, Format::Html, &profile, &context).unwrap().into_text().unwrap();
        let at = |wanted: &str| page.find(wanted).unwrap_or_else(|| panic!("{wanted} in {page}"));
        assert!(at(".chapter { text-align") < at(if place == "embed" { "color: teal" } else { "own.css" }), "{place}: {page}");
    }
}

#[test]
fn parts_that_a_target_does_not_take_leave_the_rest_whole() {
    let table =
        "<table><caption>Hours</caption><thead><tr><th>Day</th></tr></thead><tbody><tr><td>Monday</td></tr></tbody></table>";
    let with = |settings: &[&str], source: &str, reads| {
        let settings: Vec<&str> = ["html.compact=true", "shape=fragment"].iter().chain(settings).copied().collect();
        support::convert::convert(source.as_bytes(), reads, Format::Html, &settings).into_text().unwrap()
    };
    assert_eq!(
        with(&["clean.allow-elements=p, table, thead, tbody, tr, td, th"], table, Format::Html),
        "<p>Hours</p><table><thead><tr><th>Day</th></tr></thead><tbody><tr><td>Monday</td></tr></tbody></table>"
    );
    let note = "High[^a] water.\n\n[^a]: At *six*.\n";
    assert_eq!(
        with(&["clean.allow-elements=p, sup"], note, Format::Markdown),
        "<p>High<sup>1</sup> water.</p><p><sup>1</sup> At six.</p>"
    );
    assert_eq!(with(&["clean.allow-elements=p"], note, Format::Markdown), "<p>High[1] water.</p><p>[1] At six.</p>");
}

#[test]
fn what_goes_back_to_markdown_is_valid_and_whole() {
    let back = |html: &str, settings: &[&str]| {
        support::convert::convert(html.as_bytes(), Format::Html, Format::Markdown, settings).into_text().unwrap()
    };
    // Two line breaks in a row end a paragraph.
    assert_eq!(back("<p>a<br><br>b</p>", &[]), "a\n\nb\n");
    // Merged cells are taken apart where HTML is not wanted.
    let merged = "<table><tr><td rowspan=2>a</td><td>b</td></tr><tr><td>c</td></tr><tr><td colspan=2>d</td></tr></table>";
    let expected = "|  |  |\n| --- | --- |\n| a | b |\n|  | c |\n| d |  |\n";
    let written = back(merged, &["markdown.html=drop"]);
    assert_eq!(written, expected);
    let again =
        support::convert::convert(written.as_bytes(), Format::Markdown, Format::Html, &["html.compact=true", "shape=fragment"]);
    assert_eq!(again.text().unwrap().matches("<tr>").count(), 4, "{}", again.text().unwrap());
    // What stands behind a fence stays whole.
    for info in ["rust,ignore", "rust", "c++", "no_run,should_panic"] {
        let source = format!("```{info}\nx\n```\n");
        let html = support::convert::convert(source.as_bytes(), Format::Markdown, Format::Html, &["shape=fragment"])
            .into_text()
            .unwrap();
        assert!(html.contains(&format!("class=\"language-{info}\"")), "{html}");
        assert_eq!(back(&html, &[]), source);
    }
}
