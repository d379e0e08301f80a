//! What programs leave in documents goes, what they mean stays; house rules are kept.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Document, Weight};
use obblet::formats::html;
use obblet::profile::Profile;
use obblet::{Context, Converted, Format, refine};
use proptest::prelude::*;
use std::path::{Path, PathBuf};
use support::conservation::{self, shown};
use support::convert::convert;
use support::{dom, validity};

fn cleaned(source: &str, settings: &[&str]) -> Converted {
    convert(source.as_bytes(), Format::Html, Format::Html, settings)
}

#[track_caller]
fn case(source: &str, settings: &[&str], expected: &str) {
    assert_eq!(cleaned(source, settings).into_text().unwrap().trim_end(), expected, "{source}");
}

fn inbox() -> Vec<(PathBuf, Vec<u8>)> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/inbox");
    let mut files: Vec<PathBuf> = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.retain(|path| path.extension().is_some_and(|extension| extension != "toml"));
    files.sort();
    assert!(files.len() >= 8);
    files.into_iter().map(|path| (path.clone(), std::fs::read(path).unwrap())).collect()
}

fn format(path: &Path) -> Format {
    obblet::publish::format_of(path).unwrap()
}

/// Everything that cleaning can do by itself.
const THOROUGH: [&str; 4] =
    ["clean.lists=typed", "clean.layout-tables=true", "clean.redirects=true", "clean.promote-headings=always"];

#[test]
fn what_came_in_comes_out_clean() {
    for (path, source) in inbox() {
        for (name, settings) in [("fragment", &[][..]), ("fragment", &THOROUGH), ("bare", &[]), ("listing", &[])] {
            let mut profile = Profile::built_in(name).unwrap();
            settings.iter().for_each(|setting| profile.set(setting).unwrap());
            let converted = obblet::convert(&source, format(&path), Format::Html, &profile).unwrap();
            let what = format!("{} as {name} {settings:?}", path.display());
            noise(converted.text().unwrap(), &what);
            let faults = validity::faults(converted.text().unwrap());
            assert!(faults.is_empty(), "{what}: {faults:?}\n{}", converted.text().unwrap());
            let own: Vec<_> =
                html::check(converted.text().unwrap()).into_iter().filter(|fault| fault.weight != Weight::Advice).collect();
            assert!(own.is_empty(), "{what}: {own:?}\n{}", converted.text().unwrap());
            let again = obblet::convert(converted.text().unwrap().as_bytes(), Format::Html, Format::Html, &profile).unwrap();
            assert_eq!(again.text().unwrap(), converted.text().unwrap(), "{what}: cleaning again changes something");
            let text = String::from_utf8_lossy(&source);
            let text = if format(&path) == Format::Html { shown(&text) } else { text.into_owned() };
            // Markers of lists and marks of notes are told by what they mark.
            let lost = conservation::lost(&text, &shown(converted.text().unwrap()), &converted.findings);
            let told = |word: &String| word.len() < 2 || word.trim_start_matches(char::is_numeric) != word;
            let lost: Vec<String> = lost.into_iter().filter(|word| !told(word)).collect();
            assert!(lost.is_empty(), "{what}: {lost:?}\n{}", converted.text().unwrap());
        }
    }
}

/// No traces of programs: attributes and elements for looks, names that nothing uses, elements without content.
fn noise(output: &str, what: &str) {
    let dom = dom::fragment(output);
    let wanted: Vec<String> =
        dom.order().into_iter().filter_map(|node| dom.attribute(node, "href")?.strip_prefix('#').map(str::to_owned)).collect();
    assert!(!output.contains("<!--"), "{what}: {output}");
    for node in dom.order() {
        let name = dom.name(node);
        assert!(
            !matches!(name, "font" | "center" | "big" | "tt" | "strike") && !name.contains(':'),
            "{what}: <{name}>\n{output}"
        );
        for (key, value) in &dom.nodes[node].attributes {
            let alignment = key == "style" && matches!(name, "td" | "th") && value.starts_with("text-align: ");
            let used = key == "id" && wanted.contains(value);
            let allowed = [
                "href",
                "src",
                "alt",
                "width",
                "height",
                "colspan",
                "rowspan",
                "scope",
                "start",
                "type",
                "role",
                "aria-label",
                "lang",
                "dir",
            ];
            assert!(alignment || used || allowed.contains(&key.as_str()), "{what}: <{name} {key}={value}>\n{output}");
        }
        let filled =
            dom.nodes[node].children.iter().any(|&child| !dom.name(child).is_empty() || !dom.nodes[child].text.trim().is_empty());
        let may_be_empty = matches!(name, "" | "br" | "hr" | "img" | "input" | "td" | "th");
        assert!(filled || may_be_empty, "{what}: <{name}> is empty\n{output}");
    }
}

#[test]
fn the_clean_results_are_these() {
    for (path, source) in inbox() {
        let mut profile = Profile::built_in("fragment").unwrap();
        THOROUGH.iter().for_each(|setting| profile.set(setting).unwrap());
        let converted = obblet::convert(&source, format(&path), Format::Html, &profile).unwrap();
        let findings: Vec<String> = converted
            .findings
            .iter()
            .map(|finding| format!("{} [{}] {}", finding.weight.word(), finding.code, finding.message))
            .collect();
        let name = path.file_stem().unwrap().to_string_lossy().into_owned();
        insta::assert_snapshot!(name, format!("{}\n{}", converted.text().unwrap(), findings.join("\n")));
    }
}

fn item(level: u8, marker: &str, text: &str) -> String {
    format!(
        "<p class=MsoListParagraph style='margin-left:{}pt;text-indent:-18pt;mso-list:l0 level{level} lfo1'><span style='mso-list:Ignore'>{marker}\
         <span style='font:7pt \"Times New Roman\"'>&nbsp;&nbsp; </span></span>{text}</p>",
        u32::from(level) * 36
    )
}

#[test]
fn paragraphs_of_office_programs_become_lists() {
    let list =
        |items: &[(u8, &str, &str)]| items.iter().map(|(level, marker, text)| item(*level, marker, text)).collect::<String>();
    case(&list(&[(1, "1.", "a"), (1, "2.", "b")]), &[], "<ol>\n<li>a</li>\n<li>b</li>\n</ol>");
    case(&list(&[(1, "c)", "a"), (1, "d)", "b")]), &[], "<ol start=\"3\" type=\"a\">\n<li>a</li>\n<li>b</li>\n</ol>");
    case(&list(&[(1, "i.", "a"), (1, "ii.", "b")]), &[], "<ol type=\"i\">\n<li>a</li>\n<li>b</li>\n</ol>");
    case(&list(&[(1, "h.", "a"), (1, "i.", "b")]), &[], "<ol start=\"8\" type=\"a\">\n<li>a</li>\n<li>b</li>\n</ol>");
    // A number that begins anew begins a new list.
    case(&list(&[(1, "1.", "a"), (1, "1.", "b")]), &[], "<ol>\n<li>a</li>\n</ol>\n<ol>\n<li>b</li>\n</ol>");
    case(
        &list(&[(1, "&middot;", "a"), (2, "o", "b"), (3, "&sect;", "c"), (1, "&middot;", "d")]),
        &[],
        "<ul>\n<li>a\n<ul>\n<li>b\n<ul>\n<li>c</li>\n</ul>\n</li>\n</ul>\n</li>\n<li>d</li>\n</ul>",
    );
    // A level that is left out is one step.
    case(&list(&[(1, "1.", "a"), (3, "i.", "b")]), &[], "<ol>\n<li>a\n<ol type=\"i\">\n<li>b</li>\n</ol>\n</li>\n</ol>");
    case(&list(&[(1, "1.1.", "a"), (1, "1.2.", "b")]), &[], "<ol>\n<li>a</li>\n<li>b</li>\n</ol>");
    case(
        &list(&[(1, "\u{2610}", "a"), (1, "\u{2611}", "b")]),
        &[],
        "<ul>\n<li><input type=\"checkbox\" disabled> a</li>\n<li><input type=\"checkbox\" disabled checked> b</li>\n</ul>",
    );
    // Without the pass, the marker is text.
    case(&list(&[(1, "1.", "a")]), &["clean.lists=keep"], "<p>1. a</p>");
    // In headings it is always.
    case(
        "<h1 style='mso-list:l1 level1 lfo2'><span style='mso-list:Ignore'>2.<span>&nbsp;&nbsp;</span></span>Tides</h1>",
        &[],
        "<h1>2. Tides</h1>",
    );
    // Saved without the program's own notes: hanging markers.
    let hanging = |indent: u32, text: &str| {
        format!("<p style='margin-left:{indent}pt;text-indent:-18pt'><span style='font-family:Symbol'>{text}</span></p>")
    };
    case(
        &[hanging(36, "&#183;&nbsp;&nbsp;&nbsp;a"), hanging(72, "o&nbsp;&nbsp;b"), hanging(36, "&#183;&nbsp;c")].concat(),
        &[],
        "<ul>\n<li>a\n<ul>\n<li>b</li>\n</ul>\n</li>\n<li>c</li>\n</ul>",
    );
    // A paragraph that the program says goes on with the item.
    let continued = "<p class=MsoListContinue>more</p>";
    case(
        &[item(1, "1.", "a"), continued.to_owned(), item(1, "2.", "b")].concat(),
        &[],
        "<ol>\n<li>\n<p>a</p>\n<p>more</p>\n</li>\n<li>\n<p>b</p>\n</li>\n</ol>",
    );
}

#[test]
fn typed_lists_are_told_about_or_made() {
    let source = "<p style='color:red'>- a</p><p>- b</p><p>1. c</p><p>2. d</p><p>1984. was dry.</p>";
    let kept = cleaned(source, &["clean.lists=marked"]);
    assert!(
        kept.text().unwrap().starts_with("<p>- a</p>") && kept.findings.iter().any(|finding| finding.code == "clean.typed-list")
    );
    case(
        source,
        &["clean.lists=typed"],
        "<ul>\n<li>a</li>\n<li>b</li>\n</ul>\n<ol>\n<li>c</li>\n<li>d</li>\n</ol>\n<p>1984. was dry.</p>",
    );
    case("<p>1. One sentence.</p><p>Another.</p>", &["clean.lists=typed"], "<p>1. One sentence.</p>\n<p>Another.</p>");
    case("<p>* a<br>* b<br>* c</p>", &["clean.lists=typed"], "<ul>\n<li>a</li>\n<li>b</li>\n<li>c</li>\n</ul>");
}

#[test]
fn formatting_is_joined_and_white_space_moves_out() {
    let style = "<i style='color:red'></i>";
    let case = |source: &str, expected: &str| case(&format!("<p>{source}{style}</p>"), &[], &format!("<p>{expected}</p>"));
    case("<b>hi</b><b>gh</b> <b>water</b>", "<strong>high water</strong>");
    case("<b>high </b>water", "<strong>high</strong> water");
    case("a<b> </b>b", "a b");
    case("<b><b>a</b></b>", "<strong>a</strong>");
    case("<b><i>a</i></b><b><i>b</i></b>", "<strong><em>ab</em></strong>");
    case("<a href=x>ti</a><a href=x>des</a>", "<a href=\"x\">tides</a>");
    case("<u><a href=x>a</a></u>", "<a href=\"x\">a</a>");
    case("<b style='font-weight:normal'>a</b>", "a");
    case("a&nbsp;&nbsp; b&nbsp;c 5&nbsp;km\u{200B}", "a b&nbsp;c 5&nbsp;km");
    case("<br>a<br>b<br>", "a<br>\nb");
}

#[test]
fn what_is_empty_or_unused_goes() {
    case("<p style='color:red'>a</p><p>&nbsp;</p><p><br></p><h2></h2><ul><li></li></ul><div></div>", &[], "<p>a</p>");
    // Markdown has such things, and pages without looks keep them.
    case("<h2></h2>", &[], "<h2></h2>");
    case("<p>a</p><p>&nbsp;</p>", &[], "<p>a</p>");
    case("<p>a</p><p>&nbsp;</p>", &["clean.spacers=false"], "<p>a</p>\n<p>&nbsp;</p>");
    let office = "<p class=MsoNormal><a name=_Toc1></a><a name=x></a>a <a href='#x'>b</a><o:p></o:p></p>";
    case(office, &[], "<p id=\"x\">a <a href=\"#x\">b</a></p>");
    case("<div class=Section1><p class=MsoNormal>a</p></div>", &["styling=named"], "<p>a</p>");
    // Names that people gave stay where no program wrote the page.
    case("<p id=here style='color:red'>a</p>", &[], "<p id=\"here\">a</p>");
    case("<p style='color:red'>a<img src=x width=1 height=1></p>", &[], "<p>a</p>");
}

#[test]
fn revisions_are_accepted_where_a_program_recorded_them() {
    let recorded = "<p>a<ins cite='mailto:Anwen'>b</ins><del cite='mailto:Anwen'>c</del></p>";
    let converted = cleaned(recorded, &[]);
    assert_eq!(converted.text().unwrap(), "<p>ab</p>\n");
    assert!(converted.findings.iter().any(|finding| finding.code == "clean.revision" && finding.lost == "c"));
    case(recorded, &["clean.revisions=reject"], "<p>ac</p>");
    case("<p>a<ins>b</ins><del>c</del></p>", &[], "<p>a<ins>b</ins><del>c</del></p>");
    case("<p>a<ins>b</ins><del>c</del></p>", &["clean.revisions=accept"], "<p>ab</p>");
}

#[test]
fn tables_are_mended() {
    let source = "<table style='x:y'><tr><td><p><b>Day</b></p></td><td><p><b>High</b></p></td></tr><tr><td><p>Monday</p></td><td><p>06:20</p></td></tr></table>";
    case(
        source,
        &["html.compact=true"],
        "<table><thead><tr><th>Day</th><th>High</th></tr></thead><tbody><tr><td>Monday</td><td>06:20</td></tr></tbody></table>",
    );
    case(
        "<table role=presentation><tr><td>a</td><td><p>b</p></td></tr></table>",
        &["clean.layout-tables=true"],
        "<p>a</p>\n<p>b</p>",
    );
    let data = "<table><tr><td>a</td><td>b</td></tr></table>";
    assert!(cleaned(data, &["clean.layout-tables=true"]).into_text().unwrap().contains("<table>"));
}

#[test]
fn lists_by_levels_nest() {
    let kix =
        "<ul class='lst-kix_x-0'><li>a</li></ul><ul class='lst-kix_x-1'><li>b</li></ul><ul class='lst-kix_x-0'><li>c</li></ul>";
    case(kix, &[], "<ul>\n<li>a\n<ul>\n<li>b</li>\n</ul>\n</li>\n<li>c</li>\n</ul>");
    let aria =
        "<ol class=NumberListStyle1><li aria-level=1>a</li></ol><ol class=NumberListStyle1 start=2><li aria-level=1>b</li></ol>";
    case(aria, &[], "<ol>\n<li>a</li>\n<li>b</li>\n</ol>");
}

#[test]
fn house_rules_about_elements() {
    let source = "<h2>Sizes</h2><p><b>a</b> <a href=x>b</a><sup>2</sup></p><ul><li>c<ul><li>d</li></ul></li></ul><table><tr><th>e</th><td>f</td></tr></table>";
    case(
        source,
        &["clean.allow-elements=p,br,strong,ul,li"],
        "<p><strong>Sizes</strong></p>\n<p><strong>a</strong> b2</p>\n<ul>\n<li>c\n<ul>\n<li>d</li>\n</ul>\n</li>\n</ul>\n<p>e | f</p>",
    );
    case(
        source,
        &["clean.allow-elements=p,br"],
        "<p>Sizes</p>\n<p>a b2</p>\n<p>\u{2022} c<br>\n\u{2003}\u{2022} d</p>\n<p>e | f</p>",
    );
    case(
        source,
        &["clean.allow-elements=br,b", "clean.rename-elements=strong=b"],
        "<b>Sizes</b><br>\n<br>\n<b>a</b> b2<br>\n<br>\n\u{2022} c<br>\n\u{2003}\u{2022} d<br>\n<br>\ne | f",
    );
    case(source, &["clean.remove-elements=table,ul,sup,h2"], "<p><strong>a</strong> <a href=\"x\">b</a></p>");
    case(source, &["clean.allow-elements=p", "clean.disallowed=remove"], "");
    case("<p><i>a</i></p>", &["clean.rename-elements=em = cite"], "<p><cite>a</cite></p>");
    case("<h1>a</h1>", &["clean.rename-elements=h1=h2"], "<h2>a</h2>");
    let lost = cleaned(source, &["clean.allow-elements=p,br,ul,li"]).findings;
    assert!(lost.iter().any(|finding| finding.code == "clean.element" && finding.lost == "x"), "{lost:?}");
}

#[test]
fn house_rules_about_attributes_and_classes() {
    case(
        "<p id=a lang=de title=t>x <a href='#a' title=u>y</a></p>",
        &["clean.remove-attributes=title,lang"],
        "<p id=\"a\">x <a href=\"#a\">y</a></p>",
    );
    case(
        "<p lang=de><img src=x alt=y width=3 height=4></p>",
        &["clean.allow-attributes=img.height"],
        "<p><img src=\"x\" alt=\"y\" height=\"4\"></p>",
    );
    case("<ol start=3 type=a><li>a</ol>", &["clean.allow-attributes=start"], "<ol start=\"3\">\n<li>a</li>\n</ol>");
    let classes = "clean.classes=note-*, Quote = pull-quote, Mso* =";
    case("<p class='note-red Quote MsoNormal other'>a</p>", &[classes], "<p class=\"note-red pull-quote\">a</p>");
}

#[test]
fn house_rules_about_lines() {
    case("<p>a<br>b</p><p>c</p>", &["clean.line-breaks=space"], "<p>a b</p>\n<p>c</p>");
    case("<p>a<br>b</p>", &["clean.line-breaks=paragraphs"], "<p>a</p>\n<p>b</p>");
    case("<p>a</p><p>b</p>", &["clean.paragraphs=breaks"], "a<br>\nb");
    case("<div><p>a</p><p>b</p></div>", &["clean.paragraphs=blank-lines"], "a<br>\n<br>\nb");
    case("<ul><li>a<li>b</ul><ol type=i start=3><li>c</ol>", &["clean.list-lines=+"], "<p>+ a<br>\n+ b</p>\n<p>iii. c</p>");
    case("<p>a</p><p>* * *</p><p>b</p>", &["clean.scene-breaks=rule"], "<p>a</p>\n<hr>\n<p>b</p>");
    case(
        "<p>a</p><hr><p>b</p>",
        &["clean.scene-breaks=mark", "clean.scene-mark=~"],
        "<p>a</p>\n<p class=\"scene-break\">~</p>\n<p>b</p>",
    );
}

#[test]
fn house_rules_about_text() {
    case("<p>high <b>water</b> <code>colour</code></p>", &["clean.bold=capitals"], "<p>high WATER <code>colour</code></p>");
    case("<p>a <b>b</b></p>", &["clean.bold=remove"], "<p>a b</p>");
    case(
        "<p>colour <a href=colour>colour</a> <code>colour</code></p>",
        &["clean.replace=colour => color"],
        "<p>color <a href=\"colour\">color</a> <code>colour</code></p>",
    );
    case("<p>12 m and 3m</p>", &["clean.replace-patterns=(\\d+) ?m\\b => $1 metres"], "<p>12 metres and 3 metres</p>");
    case(
        "<p><b>DO NOT FEED</b> THE GULLS OF THE RNLI</p>",
        &["clean.capitals=sentence"],
        "<p><strong>Do not feed</strong> the gulls of the RNLI</p>",
    );
    case(
        "<h1>CHAPTER ONE<br>What the fog left</h1>",
        &["clean.capitals=sentence"],
        "<h1>Chapter one<br>\nWhat the fog left</h1>",
    );
    case("<h1>THE KEEPER OF THE LAMP</h1>", &["clean.capitals=title"], "<h1>The Keeper of the Lamp</h1>");
    case("<p>ASK OBBLET NOW</p>", &["clean.capitals=sentence", "clean.protected-words=OBBLET"], "<p>Ask OBBLET now</p>");
    case(
        "<p>\u{201C}It\u{2019}s\u{201D} \u{2014} so\u{2026}</p>",
        &["clean.quotes=straight", "clean.dashes=hyphens"],
        "<p>\"It's\" --- so...</p>",
    );
    case("<p>Low.  High.</p>", &["clean.stop-spaces=two"], "<p>Low.&nbsp; High.</p>");
    case(
        "<p><b>a</b> <i>b</i></p>",
        &["clean.inline=classes"],
        "<p><span class=\"bold\">a</span> <span class=\"italic\">b</span></p>",
    );
    let mut profile = Profile::default();
    assert!(profile.set("clean.replace-patterns=( => x").is_err() && profile.set("clean.replace=x").is_err());
}

#[test]
fn a_length_limit_counts_markup() {
    let source = "<p>High water at six.</p><ul><li>one</li><li>two</li></ul>";
    let fits = cleaned(source, &["limits.characters=200"]);
    let length = fits.length.clone().unwrap();
    assert_eq!((length.used as usize, length.left()), (fits.text().unwrap().trim_end().len(), 200 - length.used));
    let over = cleaned(source, &["limits.characters=30"]);
    let finding = over.findings.iter().find(|finding| finding.code == "limit.characters").unwrap();
    assert!(finding.weight == Weight::Lost && finding.hint.contains("<ul> one two"), "{finding:?}");
}

#[test]
fn links_lead_straight_where_that_is_asked_for() {
    let source =
        "<p><a href='https://counter.example/url?q=https%3A%2F%2Fgreywick.example%2Ftides%3Futm_source%3Dx&amp;sa=D'>a</a></p>";
    case(source, &["clean.redirects=true"], "<p><a href=\"https://greywick.example/tides\">a</a></p>");
    assert!(cleaned(source, &[]).into_text().unwrap().contains("counter.example"));
}

/// Pieces of what programs write, as they may meet in broken pages.
const PIECES: &[&str] = &[
    "<p style='mso-list:l0 level1 lfo1'>",
    "<p class=MsoNormal>",
    "<p style='margin-left:36pt;text-indent:-18pt'>",
    "<p>",
    "</p>",
    "<span style='mso-list:Ignore'>1.<span>&nbsp;&nbsp;</span></span>",
    "<span style='mso-list:Ignore'>&middot;&nbsp;</span>",
    "<b>",
    "</b>",
    "<i>",
    "</i>",
    "<u>",
    "</u>",
    "<span lang=EN-GB>",
    "<span style='font-weight:bold'>",
    "</span>",
    "<a name=x>",
    "<a href='#x'>",
    "<a href=y>",
    "</a>",
    "<o:p>&nbsp;</o:p>",
    "<br>",
    "&nbsp;",
    " ",
    "\u{200B}",
    "a",
    "high water. ",
    "- b",
    "1. c",
    "TIDE TABLES OF THE SOUND",
    "<h2>",
    "</h2>",
    "<div style='x:y'>",
    "<div>",
    "</div>",
    "<ul>",
    "<li>",
    "</ul>",
    "<ol class=lst-kix_a-1>",
    "</ol>",
    "<table>",
    "<tr>",
    "<td>",
    "<td><b>d</b></td>",
    "</table>",
    "<ins cite='mailto:x'>",
    "<del cite='mailto:x'>",
    "</ins>",
    "</del>",
    "<code>e</code>",
    "<blockquote>",
    "</blockquote>",
    "<hr>",
    "<img src=f width=1 height=1>",
    "<img src=g alt=h>",
];

proptest! {
    #![proptest_config(ProptestConfig::with_cases(1500))]

    #[test]
    fn cleaning_again_changes_nothing(
        pieces in prop::collection::vec(prop::sample::select(PIECES), 1..30),
        which in 0usize..4,
        thorough: bool,
    ) {
        let source = pieces.concat();
        let mut profile = Profile::built_in(["fragment", "bare", "listing", "reader"][which]).unwrap();
        if thorough {
            THOROUGH.iter().for_each(|setting| profile.set(setting).unwrap());
        }
        let mut doc = html::read(source.as_bytes(), &html::ReadOptions::default());
        let written = |doc: &Document| html::write(doc, &html::Options::default()).html;
        refine::clean(&mut doc, &profile.clean);
        let once = written(&doc);
        refine::clean(&mut doc, &profile.clean);
        prop_assert_eq!(&once, &written(&doc), "{}", source);
        profile.shape = obblet::profile::Shape::Fragment;
        profile.formats.html.syntax = html::Syntax::Html;
        let text = obblet::write(doc, Format::Html, &profile, &Context::default()).unwrap().into_text().unwrap();
        let faults: Vec<String> = validity::faults(&text).into_iter().filter(|fault| !fault.contains("class")).collect();
        prop_assert!(faults.is_empty(), "{:?}\n{}\n{}", faults, source, text);
        // All words are there still; markers and what was deleted are not words of the text.
        if which == 0 {
            for word in ["water", "TABLES"] {
                let count = |text: &str| text.matches(word).count();
                let deleted = source.contains("<del");
                // A link without words shows those of the heading that it leads to.
                let repeated = source.contains("<a href='#x'>") && count(&text) > count(&source);
                prop_assert!(deleted || repeated || count(&source) == count(&text), "{}\n{}", source, text);
            }
        }
    }
}
