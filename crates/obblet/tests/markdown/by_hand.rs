//! Cleaning as a person means it: what somebody would still delete or mend by hand in the code of an output.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use obblet::profile::Profile;
use obblet::{Converted, Format, convert};

fn converted(source: &str, reads: Format, writes: Format, settings: &[&str]) -> Converted {
    let mut profile = Profile::fragment();
    settings.iter().for_each(|setting| profile.set(setting).unwrap());
    convert(source.as_bytes(), reads, writes, &profile).unwrap()
}

/// The output, and the codes of what was found.
#[track_caller]
fn case(source: &str, settings: &[&str], expected: &str, code: &str) {
    let output = converted(source, Format::Html, Format::Html, settings);
    assert_eq!(output.text().unwrap().trim_end(), expected, "{source}");
    let count = output.findings.iter().filter(|finding| finding.code == code).count();
    assert_eq!(count, usize::from(!code.is_empty()), "{code} in {:?}", output.findings);
}

#[test]
fn languages_stand_where_they_begin() {
    let english = "The keeper reads the gauge at six";
    let source = format!(
        "<p class=MsoNormal><span lang=EN-US>{english}</span><span lang=EN-GB>, and at noon</span></p>\
         <p class=MsoNormal><span lang=CY>Pen y bryn</span> <span lang=CY>a'r bont</span></p>\
         <p class=MsoNormal><span lang=EN-US>It is called</span> <i><span lang=CY>llanw</span></i> <span lang=EN-US>here</span></p>"
    );
    let expected = format!(
        "<p>{english}, and at noon</p>\n<p lang=\"cy\">Pen y bryn a'r bont</p>\n<p>It is called <em lang=\"cy\">llanw</em> here</p>"
    );
    case(&source, &[], &expected, "clean.language");
    // The most of the text says what the language of a page is, and Markdown has none in passages.
    let page = converted(&source, Format::Html, Format::Html, &["shape=page"]);
    assert!(page.text().unwrap().contains("<html lang=\"en-US\""));
    let markdown = converted(&source, Format::Html, Format::Markdown, &[]).into_text().unwrap();
    assert!(!markdown.contains("<span") && markdown.contains("*llanw*"), "{markdown}");
    // Where nothing says it, it is recognised.
    let page = converted(&format!("<p>{}</p>", english.repeat(8)), Format::Html, Format::Html, &["shape=page"]);
    assert!(page.text().unwrap().contains("<html lang=\"en\"") && page.findings.iter().any(|one| one.code == "page.language"));
}

#[test]
fn headings_do_not_lead_to_themselves() {
    case("<h2 id=a>Tides <a href='#a'>\u{B6}</a></h2><p>x", &[], "<h2 id=\"a\">Tides</h2>\n<p>x</p>", "clean.heading-link");
    case(
        "<h2 id=a><a class=h href='#a'>Tides</a></h2><p><a href='#a'>x</a>",
        &[],
        "<h2 id=\"a\">Tides</h2>\n<p><a href=\"#a\">x</a></p>",
        "clean.heading-link",
    );
    case(
        "<h2><a id=a href='#a'>#</a> Tides</h2><p><a href='#a'>x</a>",
        &[],
        "<h2 id=\"a\">Tides</h2>\n<p><a href=\"#a\">x</a></p>",
        "clean.heading-link",
    );
    // An id of the sign's own stays where something leads to it, as does a sign that leads elsewhere.
    case(
        "<h2 id=b>Tides <a id=a href='#b'>#</a></h2><p><a href='#a'>x</a> <a href='#b'>y</a>",
        &[],
        "<h2 id=\"b\">Tides <span id=\"a\"></span></h2>\n<p><a href=\"#a\">x</a> <a href=\"#b\">y</a></p>",
        "clean.heading-link",
    );
    case(
        "<h2>Duties <a href='#law'>\u{A7}</a></h2><p id=law>x",
        &[],
        "<h2>Duties <a href=\"#law\">\u{A7}</a></h2>\n<p id=\"law\">x</p>",
        "",
    );
    // One that leads elsewhere stays, and so does a heading that is only a sign.
    case("<h2><a href='#b'>Tides</a></h2><p id=b>x", &[], "<h2><a href=\"#b\">Tides</a></h2>\n<p id=\"b\">x</p>", "");
    case(
        "<h2 id=a><a href='#a'>\u{A7}</a></h2><p>x",
        &["clean.heading-links=false"],
        "<h2 id=\"a\"><a href=\"#a\">\u{A7}</a></h2>\n<p>x</p>",
        "",
    );
    let icon = "<svg viewBox='0 0 16 16'><path d='M0 0h8'/></svg>";
    case(&format!("<h2>{icon}Tides</h2><p>x"), &[], "<h2>Tides</h2>\n<p>x</p>", "html.icon");
    case(
        &format!("<p>See <a href='log.html' title='The log'>{icon}</a>."),
        &[],
        "<p>See <a href=\"log.html\">The log</a>.</p>",
        "html.icon",
    );
}

#[test]
fn alt_text_is_no_name_of_a_file() {
    case("<p><img src='a/well.png' alt='WELL.PNG'>", &[], "<p><img src=\"a/well.png\" alt=\"\"></p>", "image.file-name");
    case("<p><img src=a.png alt='C:\\Pictures\\the well.bmp'>", &[], "<p><img src=\"a.png\" alt=\"\"></p>", "image.file-name");
    case("<p><img src=a.png alt='The well in 1904'>", &[], "<p><img src=\"a.png\" alt=\"The well in 1904\"></p>", "");
}

#[test]
fn code_is_written_as_people_write_it() {
    let font = "style='font-family:Consolas'";
    case(
        &format!("<p><span {font}>read gauge</span></p><p><span {font}>write log</span></p><p>text"),
        &[],
        "<pre><code>read gauge\nwrite log\n</code></pre>\n<p>text</p>",
        "clean.code-block",
    );
    case(&format!("<p><span {font}>read gauge</span></p><p>text"), &[], "<p><code>read gauge</code></p>\n<p>text</p>", "");
    case(
        "<p style='margin:0'><code><em>M</em></code><code>.lh</code><code>x</code>",
        &[],
        "<p><em><code>M</code></em><code>.lhx</code></p>",
        "",
    );
}

#[test]
fn typed_items_are_lists_and_bold_lines_headings() {
    case(
        "<p class=MsoNormal>Bring:<br>- boots<br>- a lamp</p><p class=MsoNormal>1. Stop.</p><p class=MsoNormal>2. Oil.</p>",
        &[],
        "<p>Bring:</p>\n<ul>\n<li>boots</li>\n<li>a lamp</li>\n</ul>\n<ol>\n<li>Stop.</li>\n<li>Oil.</li>\n</ol>",
        "clean.typed-list",
    );
    // A dash in one line is none, and what nobody formatted is as its author wrote it.
    case("<p class=MsoNormal>He said<br>- never", &[], "<p>He said<br>\n- never</p>", "");
    case("<p>- boots</p><p>- a lamp</p>", &[], "<p>- boots</p>\n<p>- a lamp</p>", "");
    let memo = "<p class=MsoNormal><b>The tide station</b></p><p class=MsoNormal>Built of stone.</p>\
                <p class=MsoNormal><b>2.1 Heights</b></p><p class=MsoNormal>High.</p>";
    case(
        memo,
        &[],
        "<h2>The tide station</h2>\n<p>Built of stone.</p>\n<h3>2.1 Heights</h3>\n<p>High.</p>",
        "clean.heading-like",
    );
    case(
        memo,
        &["clean.promote-headings=never"],
        "<p><strong>The tide station</strong></p>\n<p>Built of stone.</p>\n<p><strong>2.1 Heights</strong></p>\n<p>High.</p>",
        "clean.heading-like",
    );
    let long = "The keeper reads the gauge at six in the morning, at noon and at six in the evening, and writes what it shows into the log of the station, with the wind, the sky, and who was there to see it.";
    case(&format!("<h3 class=MsoNormal>{long}</h3>"), &[], &format!("<p>{long}</p>"), "clean.heading-text");
}

#[test]
fn lines_are_paragraphs_or_as_wide_as_asked() {
    let source = "<p>High water at\nsix, low water\nat noon.</p><pre>a\nb</pre>";
    case(source, &[], "<p>High water at six, low water at noon.</p>\n<pre><code>a\nb\n</code></pre>", "");
    case(source, &["html.width=16"], "<p>High water at\nsix, low water\nat noon.</p>\n<pre><code>a\nb\n</code></pre>", "");
    case(
        source,
        &["clean.join-lines=false"],
        "<p>High water at\nsix, low water\nat noon.</p>\n<pre><code>a\nb\n</code></pre>",
        "",
    );
    case("<p>潮汐\n站</p>", &[], "<p>潮汐站</p>", "");
    let markdown = converted("High\nwater\n\n- at\n  six\n", Format::Markdown, Format::Markdown, &[]).into_text().unwrap();
    assert_eq!(markdown, "High water\n\n- at six\n");
}

#[test]
fn tables_of_markdown_have_the_heads_that_their_words_tell() {
    let table = |rows: &[&[&str]]| {
        let row =
            |cells: &&[&str]| format!("<tr>{}</tr>", cells.iter().map(|cell| format!("<td>{cell}</td>")).collect::<String>());
        format!("<table>{}</table>", rows.iter().map(row).collect::<String>())
    };
    let owners = table(&[&["Item", "Owner", "Status"], &["Pump", "Anwen Pask", "open"], &["Rope", "Joris Halm", "done"]]);
    let output = converted(&owners, Format::Html, Format::Markdown, &[]);
    assert_eq!(
        output.text().unwrap(),
        "| Item | Owner      | Status |\n| ---- | ---------- | ------ |\n| Pump | Anwen Pask | open   |\n| Rope | Joris Halm | done   |\n"
    );
    assert!(output.findings.iter().any(|one| one.code == "markdown.table-head"));
    let boxed = converted(&table(&[&["Mind the gap."]]), Format::Html, Format::Markdown, &[]);
    assert_eq!(boxed.text().unwrap(), "Mind the gap.\n");
}

#[test]
fn what_served_a_page_only_goes() {
    case("<p><a href='log.html' title='The  log.'>the log</a>", &[], "<p><a href=\"log.html\">the log</a></p>", "clean.title");
    case(
        "<p><a href='log.html' title='All of 1904'>the log</a>",
        &[],
        "<p><a href=\"log.html\" title=\"All of 1904\">the log</a></p>",
        "",
    );
    case(
        "<pre>read</pre><p><a id=k href='javascript:copy()'>Copy code</a></p><p>x <a href='#k'>y</a>",
        &[],
        "<pre><code>read\n</code></pre>\n<p id=\"k\">x <a href=\"#k\">y</a></p>",
        "clean.control",
    );
    case("<p><a href='#copy'>Copy</a></p><p id=copy>x", &[], "<p><a href=\"#copy\">Copy</a></p>\n<p id=\"copy\">x</p>", "");
    case("<section><div><h1>Log</h1><p>x</p></div></section>", &[], "<h1>Log</h1>\n<p>x</p>", "clean.outer-section");
    case("<section id=s><h1>Log</h1></section>", &[], "<section id=\"s\">\n<h1>Log</h1>\n</section>", "");
    // Where a target refuses a link, nothing shows that there was one.
    case(
        "<p><code>read</code><a href='javascript:x()'><code>ing</code></a> it",
        &[],
        "<p><code>reading</code> it</p>",
        "html.unsafe-link",
    );
}

#[test]
fn markdown_is_text_that_people_read() {
    let output = converted("<h3>Tides<br>of March</h3><p>x", Format::Html, Format::Markdown, &[]);
    assert_eq!(output.text(), Some("### Tides of March\n\nx\n"));
    // The smallest GIF there is, in the source, beside the output, and named where there is no place for it.
    let gif = "R0lGODlhAQABAAAAACwAAAAAAQABAAA=";
    let source = format!("<p>The well: <img src='data:image/gif;base64,{gif}' alt='well'></p>");
    let output = converted(&source, Format::Html, Format::Markdown, &[]);
    assert_eq!(output.text(), Some("The well: ![well](images/image-1.gif)\n"));
    assert!(output.findings.iter().any(|one| one.code == "image.no-file"), "{:?}", output.findings);
    let output = converted(&source, Format::Html, Format::Markdown, &["images.place=embed"]);
    assert!(output.text().unwrap().contains("](data:image/gif;base64,"));
}

#[test]
fn formatting_is_of_text() {
    let saved = |body: &str| format!("<p class=MsoNormal>x</p>{body}");
    let output = converted(&saved("<p><b><img src=a.png alt=well></b>Well"), Format::Html, Format::Markdown, &[]);
    assert_eq!(output.text(), Some("x\n\n![well](a.png)Well\n"));
    let output = converted(&saved("<p><a href=a.html>Next </a><a href=b.html>Back</a>"), Format::Html, Format::Markdown, &[]);
    assert_eq!(output.text(), Some("x\n\n[Next](a.html) [Back](b.html)\n"));
    let output = converted("<p><a href='javascript:x()'>Results</a>", Format::Html, Format::Markdown, &[]);
    assert_eq!(output.text(), Some("Results\n"));
}
