//! Shapes that make careless readers slow or crash: ten times the input may take little more than ten times as long.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use obblet::formats::{html, markdown};
use std::time::{Duration, Instant};

fn convert(source: &str) -> usize {
    let doc = markdown::read(source.as_bytes(), &markdown::Options::GITHUB);
    html::write(&doc, &html::Options::default()).html.len()
}

/// The best of three, for other programs run beside this one.
fn time(source: &str) -> Duration {
    (0..3)
        .map(|_| {
            let start = Instant::now();
            assert!(convert(source) < usize::MAX);
            start.elapsed()
        })
        .min()
        .unwrap_or_default()
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
        ("lists that step inwards", |n| (0..n.min(300)).map(|depth| "  ".repeat(depth) + "- a\n").collect()),
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
        ("backticks of many lengths", |n| {
            (1..(n / 8).clamp(1, 900)).map(|length| "e".to_owned() + &"`".repeat(length)).collect()
        }),
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
        ("a wide head over short rows", |n| "|a".repeat(n) + "\n" + &"|-".repeat(n) + &"\n|b".repeat(40)),
        ("bars", |n| "|".repeat(n) + "\n" + &"|".repeat(n)),
        ("a long line", |n| "word ".repeat(n)),
        ("a line of letters", |n| "a".repeat(n)),
        ("many headings of one name", |n| "# a\n\n".repeat(n) + "[x](#a)"),
        ("addresses", |n| "www.a.b http://c@d.e ".repeat(n)),
        ("addresses without end", |n| "http://_".repeat(n) + &"a@a@".repeat(n)),
        ("addresses with parentheses", |n| "http://a.b/(".to_owned() + &")".repeat(n)),
        ("raw divisions", |n| "<div>\n".repeat(n)),
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

#[test]
fn ten_times_the_input_takes_ten_times_as_long() {
    // What is quadratic shows as a factor of a hundred; noise, caches and allocation may make up to thirty of ten.
    let size = 1_000;
    for (name, shape) in shapes() {
        let (small, large) = (shape(size), shape(size * 10));
        let growth = large.len() as f64 / small.len() as f64;
        let floor = Duration::from_micros(200);
        let mut ratio = f64::MAX;
        for _ in 0..3 {
            ratio = ratio.min(time(&large).as_secs_f64() / time(&small).max(floor).as_secs_f64());
            if ratio < growth * 3.0 {
                break;
            }
        }
        assert!(ratio < growth * 3.0, "{name}: {growth:.0} times the input took {ratio:.0} times as long");
    }
}

#[test]
fn a_million_nested_quotes() {
    let html = convert(&(">".repeat(1_000_000) + "a"));
    assert!(html > 20_000_000);
}

#[test]
fn a_hundred_thousand_nested_lists_and_brackets() {
    assert!(convert(&("- ".repeat(100_000) + "a")) > 1_000_000);
    assert!(convert(&("**a ".repeat(100_000) + &"**".repeat(100_000))) > 500_000);
    assert!(convert(&("[".repeat(200_000) + "a" + &"](b)".repeat(200_000))) > 500_000);
}

#[test]
fn every_cut_of_a_document_is_a_document() {
    let source = "# a *b* `c`\n\n> - [x] d <b>e</b> ![f](g \"h\")\n>   | i |\n>   |---|\n\n```rust\nj\n```\n[^k]: l\n<details>\n<summary>m\n\n$n$ &amp; \u{6F6E}";
    for end in 0..=source.len() {
        let doc = markdown::read(&source.as_bytes()[..end], &markdown::Options::GITHUB);
        let _ = html::write(&doc, &html::Options::default());
    }
}
