//! Plain text as people type it, read and written: mail, manuscripts, rosters, notes.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::profile::Profile;
use obblet::{Converted, Format};
use support::convert::convert;

fn with(source: &[u8], reads: Format, writes: Format, settings: &[&str]) -> Converted {
    convert(source, reads, writes, &[settings, &["html.compact=true"]].concat())
}

#[track_caller]
fn reads(source: &str, expected: &str) {
    reads_with(source, &[], expected);
}

#[track_caller]
fn reads_with(source: &str, settings: &[&str], expected: &str) {
    // Lines stay as they are, so that it is seen which are one paragraph.
    let settings: Vec<&str> = settings.iter().copied().chain(["clean.join-lines=false"]).collect();
    assert_eq!(with(source.as_bytes(), Format::Text, Format::Html, &settings).into_text().unwrap(), expected, "{source}");
}

#[track_caller]
fn writes_with(html: &str, settings: &[&str], expected: &str) {
    assert_eq!(with(html.as_bytes(), Format::Html, Format::Text, settings).into_text().unwrap(), expected, "{html}");
}

#[test]
fn mail_keeps_its_lines_quotes_and_lists() {
    reads(
        "From: M. Tolliver <m.tolliver@greywick.example>\nSubject: Lower door\n\n\
         The lower door stays shut from half past five on Thursday, and nobody\n\
         goes out on the pier alone.  Please read https://greywick.example/rules\n\
         (it is short) and www.trust.example, and answer me, or the Trust will.\n\n\
         > Who has the key?\n> I had it on Monday.\n>> I did not.\n> Then who?\n\n-- \nM. Tolliver\nKeeper\n",
        "<p>From: M. Tolliver &lt;<a href=\"mailto:m.tolliver@greywick.example\">m.tolliver@greywick.example</a>&gt;<br>\
         Subject: Lower door</p>\
         <p>The lower door stays shut from half past five on Thursday, and nobody\n\
         goes out on the pier alone. Please read <a href=\"https://greywick.example/rules\">https://greywick.example/rules</a>\n\
         (it is short) and <a href=\"https://www.trust.example\">www.trust.example</a>, and answer me, or the Trust will.</p>\
         <blockquote><p>Who has the key?<br>I had it on Monday.</p><blockquote><p>I did not.</p></blockquote><p>Then who?</p></blockquote>\
         <p>--<br>M. Tolliver<br>Keeper</p>",
    );
    reads(
        "In the hut you will find:\n\n  * a lamp\n  * two coats,\n    both of them large\n     - the blue one\n     - the grey one\n\n1) Lock the door.\n2) Bring the key:\n   it belongs to the Trust.\n",
        "<p>In the hut you will find:</p><ul><li>a lamp</li><li>two coats,\nboth of them large<ul><li>the blue one</li><li>the grey one</li></ul></li></ul>\
         <ol><li>Lock the door.</li><li>Bring the key:\nit belongs to the Trust.</li></ol>",
    );
    // Behind an empty line, what is set in as far as the item goes on with it.
    reads(
        "- the log\n\n  Take it with you.\n\n- the lamp\n\nNot an item.\n",
        "<ul><li><p>the log</p><p>Take it with you.</p></li><li><p>the lamp</p></li></ul><p>Not an item.</p>",
    );
    reads(
        "- [x] staff washed\n- [ ] clock set\n",
        "<ul><li><input type=\"checkbox\" disabled checked> staff washed</li><li><input type=\"checkbox\" disabled> clock set</li></ul>",
    );
    reads("1953 was a hard year.\n", "<p>1953 was a hard year.</p>");
}

const MANUSCRIPT: &str = "THE KEEPER'S LOG\n\nby Anwen Pask\n\nCHAPTER ONE\nThe Fog\n\n   \
    It came in on the ebb, as it does in March, and by noon the end of\nthe pier was gone, and then the hut.\n   \
    \"You can't see it,\" said Tolliver. \"That is the _point_ of it.\"\n   I wrote it down.\n\n* * *\n\n   \
    Next day it was there again.\n\nCHAPTER TWO\n\n   We had the lamp lit by four o'clock, and Bree had the log open on\nthe table.\n";

#[test]
fn manuscripts_have_titles_chapters_scenes_and_indents() {
    reads(
        MANUSCRIPT,
        "<h1>THE KEEPER'S LOG</h1><p>by Anwen Pask</p><h2>CHAPTER ONE<br>The Fog</h2>\
         <p>It came in on the ebb, as it does in March, and by noon the end of\nthe pier was gone, and then the hut.</p>\
         <p>\"You can't see it,\" said Tolliver. \"That is the <em>point</em> of it.\"</p><p>I wrote it down.</p><hr>\
         <p>Next day it was there again.</p><h2>CHAPTER TWO</h2>\
         <p>We had the lamp lit by four o'clock, and Bree had the log open on\nthe table.</p>",
    );
    let mut page = Profile::built_in("page").unwrap();
    page.set("page.look=none").unwrap();
    let html = obblet::convert(MANUSCRIPT.as_bytes(), Format::Text, Format::Html, &page).unwrap().into_text().unwrap();
    assert!(
        html.contains("<title>THE KEEPER'S LOG</title>") && html.contains("<meta name=\"author\" content=\"Anwen Pask\">"),
        "{html}"
    );
    // Each of it can be turned off.
    let plain = with(
        MANUSCRIPT.as_bytes(),
        Format::Text,
        Format::Html,
        &["text.headings=false", "text.emphasis=false", "text.paragraphs=blank-line"],
    );
    assert!(
        plain.text().unwrap().contains("<p>CHAPTER ONE<br>The Fog</p>") && plain.text().unwrap().contains("_point_"),
        "{}",
        plain.text().unwrap()
    );
    // Verse is set in, too, and has empty lines between its stanzas.
    reads(
        "The tide came in\n  And went again\n\nThe fog came in\n  And stayed\n",
        "<p>The tide came in<br>And went again</p><p>The fog came in<br>And stayed</p>",
    );
}

#[test]
fn paragraphs_that_are_set_in_are_no_code() {
    // The form in which publishers want manuscripts: a tab before each paragraph, and nothing between them, or an empty line.
    let expected = "<h1>The Fog</h1><p>It came in.</p><p>\"You can't see it,\" said Tolliver, and he went out on the pier to look.</p><p>I wrote it down.</p>";
    for between in ["\n", "\n\n"] {
        for inset in ["\t", "     ", "        "] {
            let text = [
                "The Fog\n",
                "It came in.",
                "\"You can't see it,\" said Tolliver, and he went out on the pier to look.",
                "I wrote it down.",
            ];
            let text = text.join(&format!("{between}{inset}"));
            reads(&text, expected);
        }
    }
    // One alone, at the beginning, in the middle and at the end.
    for (text, expected) in [
        ("\tOne.\n\nTwo.\n", "<p>One.</p><p>Two.</p>"),
        ("One.\n\n\tTwo.\n\nThree.\n", "<p>One.</p><p>Two.</p><p>Three.</p>"),
        ("One.\n\n\tTwo.\n", "<p>One.</p><p>Two.</p>"),
        (
            "One.\n\n    Two is a sentence that goes on for a while, and it ends.\n\nThree.\n",
            "<p>One.</p><p>Two is a sentence that goes on for a while, and it ends.</p><p>Three.</p>",
        ),
    ] {
        reads(text, expected);
    }
}

#[test]
fn lines_underlines_tabs_and_columns() {
    reads("Roster\n======\n\nHours\n-----\n\nfrom six\n", "<h1>Roster</h1><h2>Hours</h2><p>from six</p>");
    reads(
        "Day\tKeeper\nMon\tPask\nTue\tTolliver\n",
        "<table><tr><td>Day</td><td>Keeper</td></tr><tr><td>Mon</td><td>Pask</td></tr><tr><td>Tue</td><td>Tolliver</td></tr></table>",
    );
    let columns = with(b"Mon   06:00   Pask\nTue   07:00   Tolliver\n", Format::Text, Format::Html, &[]);
    assert_eq!(columns.text().unwrap(), "<pre><code>Mon   06:00   Pask\nTue   07:00   Tolliver\n</code></pre>");
    assert!(columns.findings.iter().any(|found| found.code == "text.columns"), "{:?}", columns.findings);
    reads(
        "Copy this:\n\n\tcd log\n\tls -l\n\nThen go home.\n",
        "<p>Copy this:</p><pre><code>cd log\nls -l\n</code></pre><p>Then go home.</p>",
    );
    reads("Copy this:\n\n    ls -l\n\nThen go home.\n", "<p>Copy this:</p><pre><code>ls -l\n</code></pre><p>Then go home.</p>");
    // Line ends of all systems, pages, and what no text has.
    reads("one\r\n\r\ntwo\r\rthree\u{C}four\u{2029}five\0\n", "<p>one</p><p>two</p><p>three</p><p>four</p><p>five\u{FFFD}</p>");
    // Each line is a paragraph where the text is so, or where that is asked for.
    let long = "word ".repeat(50);
    reads(&format!("{long}\n{long}\n"), &format!("<p>{0}</p><p>{0}</p>", long.trim()));
    reads_with("one\ntwo\n", &["text.paragraphs=line"], "<p>one</p><p>two</p>");
    for (settings, expected) in [
        ("text.lists=false", "<p>- a</p><p>- www.greywick.example _b_</p>"),
        ("text.links=false", "<ul><li>a</li><li>www.greywick.example <em>b</em></li></ul>"),
    ] {
        let settings: &[&str] = if settings.starts_with("text.lists") {
            &["text.lists=false", "text.links=false", "text.emphasis=false"]
        } else {
            &[settings]
        };
        reads_with("- a\n- www.greywick.example _b_\n", settings, expected);
    }
}

#[test]
fn east_asian_lines_are_joined_without_spaces() {
    reads(
        "潮位の記録\n\n駅は古い桟橋の端にあり、一九三一年から六分ごとに海を測っている。この手引きは駅の\nためのものである。番人が二人、当番の読み手たち、そして扉が開いているのを見つけた人の\nためのものである。\n",
        "<h1>潮位の記録</h1><p>駅は古い桟橋の端にあり、一九三一年から六分ごとに海を測っている。この手引きは駅のためのものである。番人が二人、当番の読み手たち、そして扉が開いているのを見つけた人のためのものである。</p>",
    );
    // An ideographic space sets a line in by two columns.
    reads("\u{3000}潮\n", "<p>潮</p>");
}

#[test]
fn encodings_are_asked_for_and_guessed() {
    let latin = with(b"Quay \x96 caf\xE9\n", Format::Text, Format::Html, &["text.encoding=windows-1252"]);
    assert_eq!(latin.text().unwrap(), "<p>Quay – café</p>");
    let wide: Vec<u8> = "\u{FEFF}潮位\n".encode_utf16().flat_map(u16::to_le_bytes).collect();
    assert_eq!(with(&wide, Format::Text, Format::Html, &[]).into_text().unwrap(), "<p>潮位</p>");
}

#[test]
fn tables_are_drawn_within_the_width() {
    let roster = "<table><caption>Watches</caption><thead><tr><th>Day</th><th>Keeper</th><th align=right>Tide</th></tr></thead><tbody>\
        <tr><td>Monday</td><td>Pask until noon, and then Tolliver for as long as the lamp needs somebody</td><td align=right>4.8</td></tr>\
        <tr><td colspan=2>Nobody</td><td align=right>4.61</td></tr><tr><td>潮位</td><td><ul><li>one<li>two</ul></td></tr></tbody></table>";
    writes_with(
        roster,
        &["text.width=40"],
        "Watches\n\
         +--------+----------------------+------+\n\
         | Day    | Keeper               | Tide |\n\
         +========+======================+======+\n\
         | Monday | Pask until noon, and |  4.8 |\n\
         |        | then Tolliver for as |      |\n\
         |        | long as the lamp     |      |\n\
         |        | needs somebody       |      |\n\
         +--------+----------------------+------+\n\
         | Nobody                        | 4.61 |\n\
         +--------+----------------------+------+\n\
         | 潮位   | - one                |      |\n\
         |        | - two                |      |\n\
         +--------+----------------------+------+\n",
    );
    // No line is wider than it may be, whatever the table, as long as its words and columns are not.
    for columns in 1..9 {
        let cells: String = (0..columns).map(|at| format!("<td>{}", "tide at noon ".repeat(at * 3 + 1))).collect();
        let text =
            with(format!("<table><tr>{cells}<tr>{cells}</table>").as_bytes(), Format::Html, Format::Text, &["text.width=100"])
                .into_text()
                .unwrap();
        let widest = text.lines().map(|line| line.chars().count()).max().unwrap();
        assert!(
            widest <= 100 && text.matches("tide").count() == 2 * (0..columns).map(|at| at * 3 + 1).sum::<usize>(),
            "{columns}: {widest}\n{text}"
        );
    }
}

#[test]
fn elements_of_text_output() {
    for (html, expected) in [
        (
            "<dl><dt>Ebb<dd>Water that goes.<dt>Flood<dd><p>It comes.<p>Twice a day.</dl>",
            "Ebb\n    Water that goes.\n\nFlood\n    It comes.\n\n    Twice a day.\n",
        ),
        ("<p>x<sup>2</sup> H<sub>2</sub>O <q>quoth</q> <img src=a.png alt=\"A lamp\">", "x^2 H2O “quoth” [A lamp]\n"),
        (
            "<p><a href=\"https://a.example/\">site</a> and <a href=\"https://a.example/\">again</a>, <a href=\"mailto:a@b.example\">a@b.example</a> <a href=\"#x\">here</a>",
            "site [1] and again [1], a@b.example here\n\n[1] https://a.example/\n",
        ),
        (
            "<ol type=a start=3><li>c<li><p>d</p><ol type=I><li>e</ol></ol><ol reversed><li>x</ol>",
            "c. c\n\nd. d\n\n   I. e\n\n1. x\n",
        ),
        ("<ul><li><input type=checkbox checked>done<li><input type=checkbox>not</ul>", "- [x] done\n- [ ] not\n"),
        (
            "<pre>a\n  b</pre><hr><blockquote><p>deep<blockquote>er</blockquote></blockquote>",
            "    a\n      b\n\n* * *\n\n> deep\n>\n> > er\n",
        ),
        ("<h1>One</h1><h2>Two</h2><h3>Three</h3>", "One\n===\n\nTwo\n---\n\nThree\n"),
    ] {
        writes_with(html, &[], expected);
    }
    let markdown = "> [!WARNING]\n> Stay off the pier.\n\nA note[^1] and $x^2$.\n\n[^1]: Two\n\n    paragraphs.\n";
    let text = with(markdown.as_bytes(), Format::Markdown, Format::Text, &[]).into_text().unwrap();
    assert_eq!(text, "| WARNING\n|\n| Stay off the pier.\n\nA note (note 1) and x^2.\n\n(note 1) Two\n\n    paragraphs.\n");
}
