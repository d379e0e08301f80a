//! Shapes that make careless readers slow or crash: ten times the input may take little more than ten times as long.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::compare::compare;
use obblet::document::Document;
use obblet::formats::{html, markdown, text};
use obblet::profile::Profile;
use obblet::{Context, Format};
use std::any::Any;
use std::time::{Duration, Instant};
use support::linear::grows_linearly;

/// What a conversion leaves, so that it can be kept.
type Kept = Box<dyn Any>;

fn text_of(source: &[u8]) -> &str {
    std::str::from_utf8(source).unwrap()
}

/// HTML into all that can be written.
fn convert_html(source: &[u8]) -> Kept {
    let main = html::Settings { content: html::Content::Main, ..Default::default() };
    let doc = html::read(source, &html::ReadOptions { settings: &main, ..Default::default() });
    let written = html::write(&doc, &html::Options::default());
    let text = text::write(&doc, &text::Settings::default());
    let markdown = markdown::write(&doc, &markdown::WriteOptions::default());
    Box::new((doc, written, text, markdown))
}

/// Markdown into Markdown and into text.
fn rewrite(source: &[u8]) -> Kept {
    let doc = markdown::read(source, &markdown::Settings::GITHUB);
    let text = text::write(&doc, &text::Settings::default());
    let markdown = markdown::write(&doc, &markdown::WriteOptions::default());
    Box::new((doc, text, markdown))
}

fn to_html(source: &[u8]) -> (Document, String) {
    let doc = markdown::read(source, &markdown::Settings::GITHUB);
    let html = html::write(&doc, &html::Options::default()).html;
    (doc, html)
}

fn convert(source: &[u8]) -> Kept {
    Box::new(to_html(source))
}

/// HTML, cleaned by all passes, for a target that takes little, and checked.
fn clean_html(source: &[u8]) -> Kept {
    let mut profile = Profile::built_in("listing").unwrap();
    for setting in ["clean.lists=typed", "clean.capitals=sentence", "clean.table-heads=always", "clean.anchors=always"] {
        profile.set(setting).unwrap();
    }
    let doc = obblet::read(source, Format::Html, &profile).unwrap();
    let written = obblet::write(doc.clone(), Format::Html, &profile, &Context::default()).unwrap();
    Box::new((doc, written, html::check(text_of(source))))
}

/// Text without markup into HTML.
fn convert_text(source: &[u8]) -> Kept {
    let profile = Profile::built_in("reader").unwrap();
    let doc = obblet::read(source, Format::Text, &profile).unwrap();
    let written = obblet::write(doc.clone(), Format::Html, &profile, &Context::default()).unwrap();
    Box::new((doc, written))
}

/// A name, and a text of a size.
type Shape = (&'static str, fn(usize) -> String);

fn shapes() -> Vec<Shape> {
    vec![
        ("quotes in one line", |n| ">".repeat(n) + "a"),
        ("quotes on many lines", |n| "> ".repeat(60) + &"\n> > > a".repeat(n)),
        ("deep quotes, then lazy lines", |n| "> ".repeat(n) + "a" + &"\nb".repeat(n)),
        ("lists in one line", |n| "- ".repeat(n) + "a"),
        ("lists of two kinds in one line", |n| "- * + ".repeat(n) + "a"),
        ("deep lists, then blank lines", |n| "- ".repeat(n) + "a" + &"\n".repeat(n)),
        ("deep lists in a quote, then blank lines", |n| "> ".to_owned() + &"- ".repeat(n) + "a" + &"\n>".repeat(n)),
        ("lists that step inwards", |n| (0..(n * 4).isqrt()).map(|depth| "  ".repeat(depth) + "- a\n").collect()),
        ("numbers", |n| "1. ".repeat(n) + "a"),
        ("brackets", |n| "[".repeat(n)),
        ("closing brackets", |n| "[".repeat(n) + &"]".repeat(n)),
        ("image brackets", |n| "![".repeat(n)),
        ("images, then links", |n| "![".repeat(n) + &"[a](b)".repeat(n)),
        ("links that do not end", |n| "[a](<b".repeat(n)),
        ("links with parentheses", |n| "[a](".repeat(n)),
        ("links with titles that do not end", |n| "[a](b \"".repeat(n)),
        ("link texts in link texts", |n| "[".repeat(n) + "a" + &"](b)".repeat(n)),
        ("stars", |n| "*".repeat(n)),
        ("stars and letters", |n| "*a_ ".repeat(n)),
        ("opened emphasis", |n| "*a **a ".repeat(n)),
        ("closed emphasis", |n| "a* a** ".repeat(n)),
        ("emphasis of three kinds", |n| "a**b".to_owned() + &"c* ".repeat(n) + &"_a ~~".repeat(n)),
        ("underscores", |n| "_".repeat(n) + "a"),
        ("tildes", |n| "~a ~~b ".repeat(n)),
        ("backticks of many lengths", |n| (1..(8 * n).isqrt()).map(|length| "e".to_owned() + &"`".repeat(length)).collect()),
        ("single backticks", |n| "` `` ".repeat(n)),
        ("dollars", |n| "$a $$b ".repeat(n)),
        ("less-than signs", |n| "<".repeat(n)),
        ("tags that do not end", |n| "<a ".repeat(n)),
        ("attributes that do not end", |n| "<a b=\"".repeat(n)),
        ("comments that do not end", |n| "a <!-- ".repeat(n)),
        ("instructions that do not end", |n| "a <? <!A <![CDATA[ ".repeat(n)),
        ("ampersands", |n| "&".repeat(n)),
        ("references", |n| "&amp;&#35;".repeat(n)),
        ("escapes", |n| "\\*".repeat(n)),
        ("backslashes", |n| "\\".repeat(n)),
        ("fences that do not end", |n| "```\n".repeat(n) + "a"),
        ("definitions", |n| (0..n).map(|number| format!("[a{number}]: /u\n")).collect::<String>() + "\n" + &"[a1] [b]".repeat(n)),
        ("definitions that are none", |n| "[a]: /u \"x\n".repeat(n)),
        ("one long address, mentioned often", |n| format!("[a]: /{}\n\n", "u".repeat(n)) + &"[a]".repeat(n)),
        ("notes", |n| {
            (0..n).map(|number| format!("[^{number}] ")).collect::<String>()
                + &(0..n).map(|number| format!("\n\n[^{number}]: a[^1]")).collect::<String>()
        }),
        ("a wide table", |n| "|a".repeat(n) + "\n" + &"|-".repeat(n) + "\n" + &"|b".repeat(n)),
        ("a wide head over short rows", |n| "|a".repeat(n) + "\n" + &"|-".repeat(n) + &"\n|b".repeat(10)),
        ("bars", |n| "|".repeat(n) + "\n" + &"|".repeat(n)),
        ("a long line", |n| "word ".repeat(n)),
        ("a line of letters", |n| "a".repeat(n)),
        ("many headings of one name", |n| "# a\n\n".repeat(n) + "[x](#a)"),
        ("addresses", |n| "www.a.b http://c@d.e ".repeat(n)),
        ("addresses without end", |n| "http://_".repeat(n) + &"a@a@".repeat(n)),
        ("addresses with parentheses", |n| "http://a.b/(".to_owned() + &")".repeat(n)),
        ("raw divisions", |n| "<div>\n".repeat(n)),
        ("raw divisions apart", |n| "<div>\n\nx\n\n".repeat(n)),
        ("raw divisions with paragraphs that end", |n| "<div>\n<p>a</p>\n".repeat(n)),
        ("raw divisions and ends of nothing", |n| "<div>\n</b></i>\n".repeat(n)),
        ("raw blocks", |n| "<p>a</p>\n\n<table><tr><td>b</table>\n\n<pre>c</pre>\n\n".repeat(n)),
        ("raw formatting around paragraphs", |n| "<b><i><u>\n\na\n\n".repeat(n)),
        ("raw tags within lines", |n| "a <b>c</b> ".repeat(n)),
        ("raw tags that close nothing", |n| "a </b></p> ".repeat(n)),
        ("raw tables", |n| "<table><tr><td>".repeat(n)),
        ("raw cells with spans", |n| "<table>".to_owned() + &"<tr><td rowspan=9 colspan=9>a".repeat(n)),
        ("raw blocks in formatting", |n| "<a href=x><em>".to_owned() + &"<h2>a</h2>b ".repeat(n)),
        ("raw HTML in a deep quote", |n| "> ".repeat(n) + "<b>a</b>"),
        ("things that HTML does not know", |n| "a <x> <y:z> ".repeat(n)),
        ("indented code with blank lines", |n| "    a\n\n\n".repeat(n)),
        ("setext lines", |n| "a\n=\n".repeat(n)),
    ]
}

fn html_shapes() -> Vec<Shape> {
    vec![
        ("rows that cells cover", |n| "<table><tr>".to_owned() + &"<td rowspan=60000>a".repeat(n) + &"<tr></tr>".repeat(n)),
        ("divisions", |n| "<div>".repeat(n) + "a"),
        ("divisions that end", |n| "<div>".repeat(n) + "a" + &"</div>".repeat(n)),
        ("formatting that does not end", |n| "<p><font color=1><b>a".repeat(n)),
        ("formatting of many colours", |n| (0..n).map(|number| format!("<p><font color={number}>a")).collect()),
        ("formatting in the wrong order", |n| "<b><i>a</b></i>".repeat(n)),
        ("links in links", |n| "<a href=x><p>a".repeat(n)),
        ("paragraphs", |n| "<p>a".repeat(n)),
        ("end tags", |n| "</p></div></b>".repeat(n)),
        ("lists", |n| "<ul><li>".repeat(n)),
        ("items", |n| "<ul>".to_owned() + &"<li>a".repeat(n)),
        ("tables in tables", |n| "<table><tr><td>".repeat(n)),
        ("text in tables", |n| "<table>".to_owned() + &"a<tr>b".repeat(n)),
        ("cells", |n| "<table><tr>".to_owned() + &"<td colspan=9 rowspan=9>a".repeat(n)),
        ("rows", |n| "<table>".to_owned() + &"<tr><td>a<td>b".repeat(n)),
        ("quotes", |n| "<blockquote>".repeat(n) + "a"),
        ("attributes", |n| "<p ".to_owned() + &"a=b ".repeat(n) + ">c"),
        ("a long attribute", |n| format!("<p title='{}'>c", "a".repeat(n * 10))),
        ("classes", |n| format!("<style>.a{{font-weight:bold}}</style><p class='{}'>c", "a ".repeat(n))),
        ("style rules", |n| {
            format!(
                "<style>{}</style>",
                (0..n).map(|number| format!(".a{number} b, p i{{font-style:italic}}")).collect::<String>()
            ) + &"<p class=a1><b>x</b>".repeat(n / 10)
        }),
        ("style attributes", |n| "<span style='font-weight:bold;font-family:mono'>a</span> ".repeat(n)),
        ("comments", |n| "<!-- a -->".repeat(n)),
        ("comments that do not end", |n| "<!-- ".repeat(n)),
        ("references", |n| "&amp;&#x41;&notanentity;".repeat(n)),
        ("less-than signs", |n| "<".repeat(n)),
        ("scripts", |n| "<script>a</script>".repeat(n)),
        ("notes", |n| {
            (0..n).map(|number| format!("<a id=r{number} href='#n{number}'>{number}</a> ")).collect::<String>()
                + &(0..n).map(|number| format!("<p id=n{number}>a <a href='#r{number}'>^</a>")).collect::<String>()
        }),
        ("marks in one paragraph that notes lead back to", |n| {
            "<p id=x>".to_owned()
                + &(0..n).map(|number| format!("<a href='#n{number}'>{number}</a> ")).collect::<String>()
                + &(0..n).map(|number| format!("<p id=n{number}>a <a href='#x'>^</a>")).collect::<String>()
        }),
        ("callouts", |n| "<aside class=note><p><strong>Note</strong></p><p>a</p></aside>".repeat(n)),
        ("links to one place", |n| "<p id=x>a</p>".to_owned() + &"<a href='#x'>1</a> ".repeat(n)),
        ("parts of pages", |n| "<nav>a</nav><main>b</main>".repeat(n)),
        ("fields", |n| "<input value=a><select><option>b</select>".repeat(n)),
        ("drawings", |n| "<svg><g>".repeat(n)),
        ("formulas", |n| "<math><mi>a</mi></math>".repeat(n)),
        ("formulas in formulas", |n| "<math><mrow>".repeat(n)),
        ("spaces", |n| "<b> </b> ".repeat(n)),
        ("white space", |n| "<p>a".to_owned() + &" \n".repeat(n) + "b"),
        ("line breaks", |n| "<br>".repeat(n)),
        ("templates", |n| "<template>".repeat(n)),
        ("forms", |n| "<form><select><option>".repeat(n)),
        ("rubies", |n| "<ruby>a<rt>b".repeat(n)),
        ("headings", |n| "<h1>a".repeat(n)),
        ("words", |n| "word ".repeat(n)),
    ]
}

/// What programs write, in numbers that no program writes.
fn noisy_shapes() -> Vec<Shape> {
    let item = |level: usize| {
        format!("<p style='mso-list:l0 level{level} lfo1'><span style='mso-list:Ignore'>1.&nbsp;&nbsp;</span>a</p>")
    };
    static ITEMS: std::sync::OnceLock<Vec<String>> = std::sync::OnceLock::new();
    ITEMS.get_or_init(|| (1..10).map(item).collect());
    vec![
        ("items of an office program", |n| ITEMS.get().unwrap()[0].repeat(n)),
        ("items that go up and down", |n| (0..n).map(|place| ITEMS.get().unwrap()[place % 9].as_str()).collect()),
        ("split runs", |n| format!("<p style='a:b'>{}</p>", "<b>a</b><b> </b>".repeat(n))),
        ("runs in runs", |n| format!("<p style='a:b'>{}</p>", "<b><i><u>a</u></i></b>".repeat(n))),
        ("nested runs", |n| format!("<p style='a:b'>{}a", "<b>".repeat(n))),
        ("no-break spaces", |n| format!("<p style='a:b'>{}</p>", "a&nbsp;".repeat(n))),
        ("very many no-break spaces", |n| format!("<p style='a:b'>{}</p>", "harbour\u{A0}gauge\u{A0}".repeat(n * 20))),
        ("empty paragraphs", |n| format!("<i style='a:b'></i>{}", "<p>&nbsp;</p>".repeat(n))),
        ("empty elements in each other", |n| format!("<i style='a:b'></i>{}", "<div>".repeat(n))),
        ("line breaks", |n| format!("<p style='a:b'>a{}b", "<br>".repeat(n))),
        ("lines with two breaks between", |n| format!("<p style='a:b'>{}", "a<br><br>".repeat(n))),
        ("places", |n| format!("<p class=MsoNormal>{}a", "<a name=x></a>".repeat(n))),
        ("places and links", |n| {
            (0..n).map(|place| format!("<p class=MsoNormal><a name=x{place}></a><a href='#x{place}'>a</a>")).collect()
        }),
        ("typed lists", |n| "<p>- a".repeat(n)),
        ("typed lines", |n| format!("<p>{}", "- a<br>".repeat(n))),
        ("typed numbers that do not follow", |n| "<p>9. a".repeat(n)),
        ("lists of levels", |n| "<ul class=lst-kix_a-0><li>a</ul><ul class=lst-kix_a-1><li>b</ul>".repeat(n)),
        ("lists that get deeper", |n| (0..n).map(|level| format!("<ul class=lst-kix_a-{}><li>a</ul>", level % 200)).collect()),
        ("layout tables in each other", |n| "<table><tr><td>a".repeat(n)),
        ("layout tables", |n| "<table><tr><td><p>a<p>b<p>c</table>".repeat(n)),
        ("rows in bold", |n| format!("<table style='a:b'>{}</table>", "<tr><td><b>a</b><td><b>b</b>".repeat(n))),
        ("revisions", |n| format!("<p>{}", "<ins cite='mailto:x'>a</ins><del cite='mailto:x'>b</del>".repeat(n))),
        ("capitals", |n| format!("<p style='a:b'>{}", "LOW WATER AT SIX ".repeat(n))),
        ("links through counters", |n| "<a href='http://a.b/url?q=http%3A%2F%2Fa.b%2Furl%3Fq%3Dhttp'>a</a> ".repeat(n)),
        ("one id many times", |n| "<p id=a><a href='#a'>a</a>".repeat(n)),
        ("cells of a thousand columns", |n| format!("<table>{}", "<tr><td colspan=1000>a".repeat(n))),
    ]
}

fn text_shapes() -> Vec<Shape> {
    vec![
        ("one line", |n| "a ".repeat(n)),
        ("lines", |n| "a word and another\n".repeat(n)),
        ("empty lines", |n| "a\n\n".repeat(n)),
        ("quotes", |n| "> a\n".repeat(n)),
        ("quotes that get deeper", |n| (0..n).map(|depth| ">".repeat(depth % 60) + "a\n").collect()),
        ("signs of quotes", |n| ">".repeat(n)),
        ("bullets", |n| "- a\n".repeat(n)),
        ("bullets that step in", |n| (0..n).map(|depth| " ".repeat(depth % 100) + "- a\n").collect()),
        ("numbers", |n| (0..n).map(|number| format!("{number}. a\n")).collect()),
        ("low lines", |n| "_a ".repeat(n)),
        ("low lines in words", |n| "_a_b".repeat(n)),
        ("addresses", |n| "http://a.b/c ".repeat(n)),
        ("an address without an end", |n| "http://a.b/".to_owned() + &"c.".repeat(n)),
        ("brackets behind an address", |n| "http://a.b/c".to_owned() + &")".repeat(n)),
        ("mail addresses that are none", |n| "a@".repeat(n)),
        ("tabs", |n| "a\tb\n".repeat(n)),
        ("columns", |n| "a     b     c\n".repeat(n)),
        ("underlined", |n| "a\n=\nabc\n===\n".repeat(n)),
        ("chapters", |n| "CHAPTER ONE\na\n\nb\n\n".repeat(n)),
        ("scenes", |n| "a\n\n* * *\n\n".repeat(n)),
        ("stars", |n| "* ".repeat(n)),
    ]
}

#[test]
fn cleaning_takes_no_longer_for_what_no_program_writes() {
    stays_linear(noisy_shapes(), clean_html);
    stays_linear(text_shapes(), convert_text);
}

#[test]
fn ten_times_the_input_takes_ten_times_as_long() {
    stays_linear(shapes(), convert);
}

#[test]
fn ten_times_the_markdown_takes_ten_times_as_long_to_write() {
    stays_linear(shapes(), rewrite);
}

#[test]
fn ten_times_the_html_takes_ten_times_as_long() {
    stays_linear(html_shapes(), convert_html);
}

fn stays_linear(shapes: Vec<Shape>, convert: fn(&[u8]) -> Kept) {
    let run = |(name, shape): Shape| grows_linearly(name, 1_000, |size| shape(size).into_bytes(), convert).err();
    let failures: Vec<String> = shapes.into_iter().filter_map(run).collect();
    assert!(failures.is_empty(), "{}", failures.join("\n"));
}

/// HTML in all formats that are written.
fn written(source: &str) -> (String, String, String) {
    let doc = html::read(source.as_bytes(), &html::ReadOptions::default());
    let text = text::write(&doc, &text::Settings::default()).text;
    let markdown = markdown::write(&doc, &markdown::WriteOptions::default()).text;
    (html::write(&doc, &html::Options::default()).html, text, markdown)
}

#[test]
fn a_million_nested_quotes() {
    let (_, html) = to_html((">".repeat(1_000_000) + "a").as_bytes());
    assert!(html.len() > 20_000_000);
}

#[test]
fn a_hundred_thousand_nested_lists_and_brackets() {
    let size = |source: String| to_html(source.as_bytes()).1.len();
    assert!(size("- ".repeat(100_000) + "a") > 1_000_000);
    assert!(size("**a ".repeat(100_000) + &"**".repeat(100_000)) > 500_000);
    assert!(size("[".repeat(200_000) + "a" + &"](b)".repeat(200_000)) > 500_000);
}

#[test]
fn a_hundred_thousand_nested_elements_and_a_million_siblings() {
    for element in ["div", "b", "ul><li", "table><tr><td", "blockquote", "span", "details"] {
        let (html, text, markdown) = written(&(format!("<{element}>").repeat(100_000) + "end"));
        assert!(html.contains("end") && text.contains("end") && markdown.contains("end"), "{element}");
    }
    assert!(written(&"<p>a".repeat(1_000_000)).0.len() > 5_000_000);
    // Markdown that is nested so deeply is HTML of that depth; reading it again says what it left out.
    let deep =
        html::write(&markdown::read(">".repeat(100_000).as_bytes(), &markdown::Settings::GITHUB), &html::Options::default()).html;
    let doc = html::read(deep.as_bytes(), &html::ReadOptions::default());
    assert!(doc.findings.iter().any(|found| found.code == "html.too-deep"));
}

#[test]
fn documents_that_have_nothing_in_common_are_compared_in_time() {
    let one: String = (0..20_000).map(|number| format!("a{number} *b*\n\n")).collect();
    let two: String = (0..20_000).map(|number| format!("- c{number} [d](e)\n\n")).collect();
    let read = |source: &str| markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    let start = Instant::now();
    assert!(compare(&read(&one), &read(&two)).differences.len() > 20_000);
    assert!(start.elapsed() < Duration::from_secs(20), "{:?}", start.elapsed());
}

#[test]
fn every_cut_of_a_page_is_a_page() {
    let source = "<!DOCTYPE html><html lang=en><head><title>a</title><style>.b{font-weight:bold}</style><body><table><tr><td colspan=2 class='b'>c<svg>\
                  <title>d</title></svg><math><mi>e</mi></math><ul><li><input type=checkbox>f<a href='#g' id=h>1</a><pre><code class=language-x>i\n</code>\
                  </pre><p id=g><a href='#h'>^</a><!-- j --><script>k</script>&amp;\u{6F6E}";
    for end in 0..=source.len() {
        convert_html(String::from_utf8_lossy(&source.as_bytes()[..end]).as_bytes());
    }
}

#[test]
fn every_cut_of_a_document_is_a_document() {
    let source = "# a *b* `c`\n\n> - [x] d <b>e</b> ![f](g \"h\")\n>   | i |\n>   |---|\n\n```rust\nj\n```\n[^k]: l\n<details>\n<summary>m\n\n$n$ &amp; \u{6F6E}";
    for end in 0..=source.len() {
        let doc = markdown::read(&source.as_bytes()[..end], &markdown::Settings::GITHUB);
        let _ = html::write(&doc, &html::Options::default());
    }
}
