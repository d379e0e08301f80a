//! No setting is without an effect, and none makes pages that are not valid: each is given each of its values over
//! documents that have something of everything.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::formats::html::Syntax;
use obblet::profile::{Profile, settings};
use obblet::{Format, convert};
use std::collections::BTreeSet;
use std::path::Path;
use support::package::{Package, field, item, levels, numbering, paragraph, picture, plain, run, style, styled, text};
use support::validity;

const MARKDOWN: &str = r#"---
title: Tides
date: 2026-02-09
bibliography: entries.bib
---
### The "Low" Water -- at six...

Newline
here and  spaces. It is a hard way to the end.  Two. *One* **two** __three__ ~~four~~ www.greywick.example and [a link](b.md "T") [again](#the-low) [r][ref] [@entry].

Raw: <title>x</title> <span class="x">raw</span> <script>x()</script> $a*b*c$ [js](javascript:x()) &copy; — – “curly” 'single' 9-12

- [x] done
- [ ] not

* a

1. b
   - c

|a|b|
|:-|-:|
|*c*||

> [!NOTE]
> An alert.[^n]

```rust
fn tide() -> u8 { 4 }
```

---

###### Deep

#### Four

##### Five

###### Six

Setext
------

![staff](staff.png) ![](data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==)

[^n]: A note.
[ref]: https://greywick.example/ref
"#;

const ORG: &str = "#+TITLE: Plan\n* TODO Clean the well :pier:\nDEADLINE: <2031-03-05 Wed>\nAt low water, when nobody needs the staff, and the tables say that it stays low for long enough to reach the floor of the well.\n";

const HTML: &str = r##"<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>Old</title><style>.red { color: red } .big { font-size: 30px }</style></head><body>
<nav><a href="/">Home</a></nav><main>
<h2 class="MsoTitle" id="top">HEADING IN <b>CAPITALS</b></h2><h4>Nested</h4><p style="font-size:24pt"><b>Large and bold</b></p>
<p class="red x-1" style="color:red;text-align:center">Some <font color="#ff0000" size="5">red</font> <b>bold</b> <i>italic</i> <u>under</u> <span style="font-weight:bold">heavy</span> text.  Two  spaces.&nbsp;&nbsp;Hard.</p>
<p>&nbsp;</p><p></p><p><br></p>
<p>"straight" 'quotes' -- and - 5--6 a&#9;tab	tab</p>
<p>• typed bullet</p><p>• second bullet</p><p>1. typed one</p><p>2. typed two</p>
<p>one<br>two<br><br>three</p><p>* * *</p>
<ul><li><p>lone</p></li></ul>
<table cellpadding="4"><tr><td><p>Day</p></td><td><b>Tide</b></td></tr><tr><td>Mon</td><td>4.8</td></tr></table>
<table><tr><td><p>layout one</p><p>more</p></td></tr></table>
<table border="1"><tr><td><b>Head</b></td><td><b>Line</b></td></tr><tr><td>1</td><td>2</td></tr></table>
<p><a href="https://www.google.com/url?q=https%3A%2F%2Fgreywick.example%2Ftide&amp;sa=D">redirected</a> <a name="here"></a><a href="#here">place</a> <a id="lonely"></a></p>
<p><ins>new</ins> <del>old</del> <mark>m</mark> <code>c</code> x<sup>2</sup> <small>s</small> <img src="a.png" width="20" alt="A"></p>
<p>Name&#9;Day</p><p>Pask&#9;Mon</p><p>Bree&#9;Tue</p>
<h4 id="own"><a href="#own">Own</a></h4><p><img src="b.png" alt="b.png"></p><p lang="en"><span lang="cy">Pen y bryn</span> <span lang="cy">ar lan</span></p><p>So <i lang="cy">llanw</i> and <span lang="cy">trai</span> here</p><p><a href="#_Ref77">to it</a></p><p id="_Ref77">Made up</p>
<p><a href="log.html" title="The log">the log</a> <a href="#">Copy code</a></p>
<p><span style="font-family:Consolas">read</span></p><p><span style="font-family:Consolas">write</span></p>
<pre><code class="language-rust">fn a() {}</code></pre><hr><blockquote><p>q</p></blockquote><dl><dt>t<dd>d</dl>
</main><footer>foot</footer></body></html>"##;

const TEXT: &str = "THE KEEPER'S LOG\n\nby Anwen Pask\n\nCHAPTER ONE\n\nIt came in on the ebb, _as_ it does in March, and by noon the end of the\npier was gone, and the hut; see www.greywick.example for more of it all.\n\n- one\n- two\n\n* * *\n\nA café. Here \"it\" is--again.\n";

fn word() -> Vec<u8> {
    let change = "<w:ins w:id=\"1\" w:author=\"Pask\" w:date=\"2026-01-02T03:04:05Z\"><w:r><w:t>added </w:t></w:r></w:ins><w:del w:id=\"2\" w:author=\"Pask\"><w:r><w:delText>taken </w:delText></w:r></w:del>";
    let numbered = |words: &str| {
        paragraph("<w:pStyle w:val=\"H1\"/><w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"2\"/></w:numPr>", &text(words))
    };
    let mut bmp = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(8, 4).write_to(&mut bmp, image::ImageFormat::Png).unwrap();
    let body = [
        paragraph("", &field("TOC \\o \"1-3\"", &text("Contents 1"))),
        numbered("Tides"),
        paragraph(
            "",
            &(run("<w:b/><w:color w:val=\"FF0000\"/>", "bold red ")
                + change
                + &run("<w:vanish/>", "hidden ")
                + "<w:r><w:commentReference w:id=\"1\"/></w:r>"),
        ),
        item(1, 0, "first"),
        item(1, 1, "nested"),
        styled("Notice", "A notice"),
        paragraph("", &picture("staff.png", "Staff", 8, 4)),
        plain("end"),
        ["Name", "Pask", "Bree"].map(|name| paragraph("", &(text(name) + "<w:r><w:tab/></w:r>" + &text("Mon")))).concat(),
        "<w:sectPr><w:headerReference w:type=\"default\" r:id=\"header1\"/></w:sectPr>".to_owned(),
    ];
    Package {
        styles: style("Normal", "Normal", "", "", "")
            + &style("H1", "heading 1", "Normal", "", "<w:b/>")
            + &style("Notice", "Notice Board", "Normal", "<w:jc w:val=\"center\"/>", ""),
        numbering: numbering(&[(1, levels(&[("decimal", "%1."), ("decimal", "%1.%2")])), (2, levels(&[("decimal", "%1")]))]),
        comments: format!("<w:comment w:id=\"1\" w:author=\"Pask\">{}</w:comment>", plain("why?")),
        header: plain("Trust"),
        pictures: vec![("staff.png".to_owned(), bmp.into_inner())],
        ..Package::of(&body.concat())
    }
    .bytes()
}

/// Values for the settings that may have any; the others say which they may have.
fn values_of(key: &str, files: &Path) -> Vec<String> {
    let file = |name: &str, content: &str| {
        let path = files.join(name);
        std::fs::write(&path, content).unwrap();
        vec![path.display().to_string()]
    };
    let of = |values: &[&str]| values.iter().map(|value| (*value).to_owned()).collect();
    let mut values: Vec<String> = match key {
        "html.indent" => of(&["0", "1", "8"]),
        "org.select" => of(&["pier", "nowhere"]),
        "html.encoding" | "text.encoding" | "table.encoding" => of(&["utf-16le", "windows-1251"]),
        "html.width" | "markdown.width" | "text.width" | "org.width" => of(&["0", "1", "30"]),
        "images.folder" => of(&["pictures", "a/b"]),
        "page.title" | "page.description" | "page.author" => of(&["<\"Tides\" & more>"]),
        "page.language" => of(&["cy", "ar"]),
        "page.look" => of(&["none", "folio", "beacon"]),
        "page.stylesheets" => of(&["a.css, https://greywick.example/b.css"]),
        "page.contents" => of(&["0", "1", "6"]),
        "page.head" => file("head.html", "<meta name=\"x\" content=\"y\">"),
        "page.header" => file("header.html", "<p>Top</p>"),
        "page.footer" => file("footer.html", "<p>Bottom</p>"),
        "page.frame" => file(
            "frame.html",
            "<!DOCTYPE html><html lang=en><head><title>{{ title }}</title></head><body>{{ body }}</body></html>",
        ),
        "word.template" => vec![Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/word/by-laws.docx").display().to_string()],
        "latex.class" => of(&["[a4paper]scrartcl"]),
        "latex.preamble" => {
            file("own.tex", "\\documentclass{article}\n\\newenvironment{red}{}{}\n\\begin{document}\\end{document}")
        }
        "clean.replace" => of(&["Tide => Water"]),
        "clean.replace-patterns" => of(&["(\\d)\\.(\\d) => $1 m $2"]),
        "clean.protected-words" => of(&["CAPITALS"]),
        "clean.scene-mark" => of(&["###"]),
        "clean.list-lines" => of(&["log of"]),
        "clean.leave-out" => of(&["table", ".red", "h2 strong, p > a"]),
        "clean.remove-elements" | "clean.unwrap-elements" => of(&["table", "strong", "h*", "p"]),
        "clean.rename-elements" => of(&["strong = b", "h4 = p"]),
        "clean.allow-elements" => of(&["p, a, strong", "h1"]),
        "clean.classes" => of(&["x-* =", "red = rot"]),
        "clean.allow-attributes" | "clean.remove-attributes" => of(&["href", "img.width"]),
        "clean.skip" => of(&["white-space, empty", "raw-html"]),
        "limits.source" | "limits.characters" | "limits.unpacked" | "limits.image" => of(&["1", "100000000"]),
        _ => return Vec::new(),
    };
    // Beside them, what it is where nobody says anything; numbers have that among theirs.
    if !key.starts_with("limits.") && !values.iter().any(|value| value == "0") {
        let default = settings().find(|setting| setting.key == key).map(|setting| setting.get(&Profile::default()));
        values.extend(default.map(|value| value.to_string().trim_matches(['"', '[', ']']).to_owned()));
    }
    values
}

/// Settings that count only beside others.
fn beside(key: &str) -> &'static [&'static str] {
    match key {
        "clean.protected-words" => &["clean.capitals=sentence"],
        "clean.scene-mark" => &["clean.scene-breaks=mark"],
        "clean.disallowed" => &["clean.allow-elements=p, a"],
        "page.skip-link" => &["page.contents=3", "page.header="],
        "html.trust" => &["html.raw=keep"],
        "markdown.tag-filter" => &["html.raw=keep", "html.trust=true"],
        _ => &[],
    }
}

/// What documents become in all the ways that matter to a setting: a name, the output with its findings, and the markup.
fn all_outputs(profile: &Profile, base: &str, sources: &[(Format, Vec<u8>)]) -> Vec<(String, String, String)> {
    let mut outputs = Vec::new();
    for (reads, source) in sources {
        for writes in [Format::Html, Format::Markdown, Format::Text, Format::Word, Format::Org, Format::Latex] {
            let name = format!("{base} {} to {}", reads.name(), writes.name());
            let Ok(done) = convert(source, *reads, writes, profile) else {
                outputs.push((name, "refused".to_owned(), String::new()));
                continue;
            };
            let found: Vec<_> =
                done.findings.iter().map(|found| format!("{} {} {}", found.code, found.message, found.lost)).collect();
            let html = if writes == Format::Html { done.text().unwrap().to_owned() } else { String::new() };
            // Packages are the same where their bytes are.
            let output = done.text().map_or_else(|| format!("{:?}", done.bytes), str::to_owned);
            outputs.push((name, format!("{output}{:?}{found:?}", done.length), html));
        }
    }
    outputs
}

#[test]
fn every_setting_does_something_and_keeps_fragments_valid() {
    let files = tempfile::tempdir().unwrap();
    let sources = vec![
        (Format::Markdown, MARKDOWN.as_bytes().to_vec()),
        (Format::Html, HTML.as_bytes().to_vec()),
        (Format::Html, b"<section><h1>Log</h1><p>All quiet.</p></section>".to_vec()),
        (Format::Text, TEXT.as_bytes().to_vec()),
        (Format::Org, ORG.as_bytes().to_vec()),
        (Format::Word, word()),
        (Format::Table, b"Tag;Hoch,wasser|M\xFCnde\tH\xF6he\nMo;6,12|4\t5\n".to_vec()),
    ];
    let (mut idle, mut faults, mut tried) = (Vec::new(), Vec::new(), 0);
    for setting in settings() {
        // Those of whole folders show in whole folders, and those of files beside a page beside a page.
        let elsewhere = ["publish.", "site.", "images.", "limits.image", "page.styles"];
        if elsewhere.iter().any(|beginning| setting.key.starts_with(beginning))
            || (setting.key == "page.highlight" && !cfg!(feature = "highlight"))
        {
            continue;
        }
        let own = values_of(setting.key, files.path());
        let values = if own.is_empty() { setting.values().split(", ").map(str::to_owned).collect() } else { own.clone() };
        let mut outcomes = BTreeSet::new();
        for value in &values {
            let mut outcome = Vec::new();
            for base in ["page", "fragment"] {
                let mut profile = Profile::built_in(base).unwrap();
                beside(setting.key).iter().for_each(|other| profile.set(other).unwrap());
                profile.set(&format!("{}={value}", setting.key)).unwrap_or_else(|error| panic!("{error}"));
                for (name, output, html) in all_outputs(&profile, base, &sources) {
                    // Trusted markup is as it is.
                    let is_ours = !matches!(setting.key, "html.trust" | "html.raw" | "markdown.tag-filter")
                        && !html.starts_with("<!DOCTYPE");
                    if is_ours && !html.starts_with("<?xml") && profile.formats.html.syntax == Syntax::Html {
                        // Levels are left out where those of the source are wanted.
                        let is_level =
                            |fault: &str| fault.contains(" after h") && matches!(value.as_str(), "source" | "commonmark");
                        let found = validity::faults(&html).into_iter().filter(|fault| !is_level(fault));
                        faults.extend(found.map(|fault| format!("{}={value}, {name}: {fault}", setting.key)));
                    }
                    outcome.push(output);
                }
            }
            tried += 1;
            outcomes.insert(outcome);
        }
        // What a setting does by itself may be what one of its values says.
        let by_itself = values.iter().any(|value| matches!(value.as_str(), "auto" | "dialect"));
        let expected = values.len() - usize::from(by_itself);
        if outcomes.len() < expected {
            idle.push(format!("{} has {} outcomes of {}", setting.key, outcomes.len(), values.join(" ")));
        }
    }
    assert_eq!((&idle[..], &faults[..]), (&[][..] as &[String], &[][..] as &[String]));
    assert!(tried > 200, "{tried}");
}
