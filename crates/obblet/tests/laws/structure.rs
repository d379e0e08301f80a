//! What becomes of trees that HTML can't say, and of raw HTML that is no good: one line a case.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{CellKind, Document, Kind, ListKind, Marker, NodeId, RowGroupKind, TextLevel};
use obblet::formats::{html, markdown};
use support::validity::faults;

/// Builds a tree from a short notation: a letter for a kind, parentheses around its children, anything in quotes for text.
fn tree(notation: &str) -> Document {
    let mut doc = Document::new();
    let (mut above, mut last): (Vec<NodeId>, NodeId) = (vec![doc.root()], doc.root());
    let mut rest = notation;
    while let Some(c) = rest.chars().next() {
        rest = &rest[c.len_utf8()..];
        let parent = *above.last().unwrap();
        let list = |ordered| Kind::List(ListKind { ordered, tight: false, marker: Marker::Plain, start: 1 });
        let kind = match c {
            '(' => {
                above.push(last);
                continue;
            }
            ')' => {
                above.pop();
                continue;
            }
            ' ' => continue,
            '\'' => {
                let (text, after) = rest.split_once('\'').unwrap();
                rest = after;
                last = doc.append_text(parent, text);
                continue;
            }
            'p' => Kind::Paragraph,
            'h' => Kind::Heading(2),
            'q' => Kind::BlockQuote,
            'u' => list(false),
            'o' => list(true),
            'i' => Kind::ListItem { checked: None },
            'd' => Kind::TermList,
            't' => Kind::Term,
            'e' => Kind::TermDescription,
            'T' => Kind::Table,
            'C' => Kind::Caption,
            'H' => Kind::RowGroup(RowGroupKind::Head),
            'B' => Kind::RowGroup(RowGroupKind::Body),
            'F' => Kind::RowGroup(RowGroupKind::Foot),
            'R' => Kind::Row,
            'c' => Kind::Cell(CellKind::PLAIN),
            'w' => Kind::Cell(CellKind { columns: 2, ..CellKind::PLAIN }),
            'x' => Kind::Cell(CellKind { rows: 9, ..CellKind::PLAIN }),
            'g' => Kind::Figure,
            'D' => Kind::Details { open: false },
            'S' => Kind::Summary,
            'm' => Kind::Emphasis,
            's' => Kind::Strong,
            'a' => Kind::Link { href: doc.intern("x") },
            'b' => Kind::LineBreak,
            'r' => Kind::TextLevel(TextLevel::RubyText),
            '-' => Kind::ThematicBreak,
            other => panic!("no kind for {other}"),
        };
        last = doc.append(parent, kind);
    }
    doc
}

#[track_caller]
fn case(notation: &str, expected: &str) {
    let settings = html::Settings { compact: true, ..html::Settings::default() };
    let options = html::Options { settings: &settings, ..html::Options::default() };
    let written = html::write(&tree(notation), &options);
    assert_eq!(written.html, expected, "{notation}");
    assert!(faults(&written.html).is_empty(), "{notation}: {:?}", faults(&written.html));
}

#[test]
fn blocks_within_text_are_lifted_out_of_it() {
    case("p('a' q(p('b')) 'c')", "<p>a</p><blockquote><p>b</p></blockquote><p>c</p>");
    case("p(p('a') p('b'))", "<p>a</p><p>b</p>");
    case("h('a' p('b') 'c')", "<h2>a\nb\nc</h2>");
    case("h('a' u(i('b')) 'c')", "<h2>a</h2><ul><li>b</li></ul><h2>c</h2>");
    case("p('a' - 'b')", "<p>a</p><hr><p>b</p>");
    case("p(b(b) 'a')", "<p><br><br>a</p>");
}

#[test]
fn formatting_around_blocks_goes_to_their_text() {
    case("m('a' p('b') 'c')", "<em>a</em><p><em>b</em></p><em>c</em>");
    case(
        "s(m(p('a') u(i('b') i(p('c')))))",
        "<p><strong><em>a</em></strong></p><ul><li><strong><em>b</em></strong></li><li><strong><em>c</em></strong></li></ul>"
            .replace("<strong><em>c</em></strong></li></ul>", "<p><strong><em>c</em></strong></p></li></ul>")
            .as_str(),
    );
    case("a(h('a'))", "<h2><a href=\"x\">a</a></h2>");
    case("p(a('a' a('b') 'c'))", "<p><a href=\"x\">abc</a></p>");
}

#[test]
fn parts_without_their_whole_get_one() {
    case("i('a') i('b')", "<ul><li>a</li><li>b</li></ul>");
    case("c('a') c('b')", "<table><tr><td>a</td><td>b</td></tr></table>");
    case("R(c('a')) p('b')", "<table><tr><td>a</td></tr></table><p>b</p>");
    case("t('a') e('b')", "<dl><dt>a</dt><dd>b</dd></dl>");
    case("C('a') S('b')", "<div>a</div><div>b</div>");
    case("p(r('a'))", "<p>a</p>");
}

#[test]
fn wholes_hold_only_their_parts() {
    case("u('a' i('b') p('c'))", "<ul><li>a</li><li>b</li><li><p>c</p></li></ul>");
    case("u(i('a') o(i('b')) i('c'))", "<ul><li>a<ol><li>b</li></ol></li><li>c</li></ul>");
    case("d(e('a')) d(t('b')) d", "<dl><dt></dt><dd>a</dd></dl><dl><dt>b</dt><dd></dd></dl><div></div>");
    case(
        "D('a') D(p('a') S('b') S('c'))",
        "<details><summary>Details</summary>a</details><details><summary>b</summary><p>a</p><p>c</p></details>",
    );
    case("g(p('a') C('b') p('c') C('d'))", "<figure><p>a</p><p>c</p><div>d</div><figcaption>b</figcaption></figure>");
}

#[test]
fn tables_fit() {
    case("T(R(c('a')) C('b') p('c'))", "<table><caption>b</caption><tr><td>a</td></tr><tr><td><p>c</p></td></tr></table>");
    case(
        "T(F(R(c('a'))) B(R(c('b'))) H(R(c('c'))))",
        "<table><tbody><tr><td>b</td></tr></tbody><tbody><tr><td>c</td></tr></tbody><tfoot><tr><td>a</td></tr></tfoot></table>",
    );
    case("T(R(w('a')) R(w('b')))", "<table><tr><td>a</td></tr><tr><td>b</td></tr></table>");
    case("T(R(w('a')) R(c('b') c('c')))", "<table><tr><td colspan=\"2\">a</td></tr><tr><td>b</td><td>c</td></tr></table>");
    case(
        "T(R(x('a') c('b')) R(c('c') c('d')))",
        "<table><tr><td rowspan=\"2\">a</td><td>b</td><td></td></tr><tr><td>c</td><td>d</td></tr></table>",
    );
    case("T(B(m(x('a')) 'b'))", "<table><tbody><tr><td><table><tr><td><em>a</em></td></tr></table>b</td></tr></tbody></table>");
    case("T(R(x('a')) R)", "<table><tr><td>a</td></tr></table>");
    case(
        "T(R(w('a') c('b')) R(c('c')))",
        "<table><tr><td colspan=\"2\">a</td><td>b</td></tr><tr><td>c</td><td colspan=\"2\"></td></tr></table>",
    );
}

#[test]
fn what_was_moved_is_told_once() {
    let written = html::write(&tree("p('a' q('b')) p('c' q('d'))"), &html::Options::default());
    let codes: Vec<&str> = written.findings.iter().map(|finding| &*finding.code).collect();
    assert_eq!(codes, ["html.structure"]);
}

/// Pieces that attack a page. Each is put into Markdown as it is, within a line, in a table, and in a quote.
const ATTACKS: &[&str] = &[
    "<script>alert(1)</script>",
    "<SCRIPT SRC=//x.example/x.js></SCRIPT>",
    "<scr<script>ipt>alert(1)</scr</script>ipt>",
    "<script\n>alert(1)</script\n>",
    "<img src=x onerror=alert(1)>",
    "<img src=x OnErRoR=alert(1)>",
    "<img/src=x/onerror=alert(1)>",
    "<img src='x'onerror='alert(1)'>",
    "<img src=`x` onerror=alert(1)>",
    "<svg onload=alert(1)>",
    "<svg><script>alert(1)</script></svg>",
    "<svg><a xlink:href=\"javascript:alert(1)\"><text>x</text></a></svg>",
    "<svg><animate onbegin=alert(1)>",
    "<math><mi//xlink:href=\"data:x,<script>alert(4)</script>\">",
    "<math><annotation-xml encoding=\"text/html\"><script>alert(1)</script></annotation-xml></math>",
    "<a href=\"javascript:alert(1)\">x</a>",
    "<a href=\"JaVaScRiPt:alert(1)\">x</a>",
    "<a href=\" &#14; javascript:alert(1)\">x</a>",
    "<a href=\"jav&#x09;ascript:alert(1)\">x</a>",
    "<a href=\"jav\nascript:alert(1)\">x</a>",
    "<a href=\"&#106;avascript:alert(1)\">x</a>",
    "<a href=\"javascript&colon;alert(1)\">x</a>",
    "<a href=\"vbscript:x\">x</a>",
    "<a href=\"data:text/html,<script>alert(1)</script>\">x</a>",
    "<a href=\"data:text/html;base64,PHNjcmlwdD4=\">x</a>",
    "<area href=javascript:alert(1)>",
    "[x](javascript:alert(1))",
    "[x](<javascript:alert(1)>)",
    "[x](JAVASCRIPT:alert(1))",
    "[x](javas\tcript:alert(1))",
    "[x](javascript&#58;alert(1))",
    "[x](&#x6A;avascript:alert(1))",
    "<javascript:alert(1)>",
    "![x](javascript:alert(1))",
    "![x](data:image/svg+xml,<svg/onload=alert(1)>)",
    "[x](data:text/html,x 'y\" onclick=\"z')",
    "[x]: javascript:alert(1)\n\n[x]",
    "<iframe src=\"javascript:alert(1)\"></iframe>",
    "<iframe srcdoc=\"<script>alert(1)</script>\"></iframe>",
    "<object data=\"javascript:alert(1)\"></object>",
    "<embed src=\"javascript:alert(1)\">",
    "<applet code=x></applet>",
    "<base href=\"javascript:alert(1)//\">",
    "<link rel=stylesheet href=\"javascript:alert(1)\">",
    "<meta http-equiv=refresh content=\"0;url=javascript:alert(1)\">",
    "<form action=\"javascript:alert(1)\"><button>x</button></form>",
    "<button formaction=\"javascript:alert(1)\">x</button>",
    "<input onfocus=alert(1) autofocus>",
    "<isindex action=javascript:alert(1) type=image>",
    "<select onfocus=alert(1)><option>x</select>",
    "<textarea onfocus=alert(1)>x</textarea>",
    "<keygen autofocus onfocus=alert(1)>",
    "<video src=x onerror=alert(1)></video>",
    "<video><source onerror=alert(1)></video>",
    "<audio src=\"javascript:alert(1)\"></audio>",
    "<body onload=alert(1)>",
    "<html onmouseover=alert(1)>",
    "<frameset onload=alert(1)><frame src=javascript:alert(1)></frameset>",
    "<details open ontoggle=alert(1)>",
    "<marquee onstart=alert(1)>x</marquee>",
    "<div style=\"background:url(javascript:alert(1))\">x</div>",
    "<div style=\"width:expression(alert(1))\">x</div>",
    "<style>@import 'javascript:alert(1)';</style>",
    "<style><img src=x onerror=alert(1)></style>",
    "<style></style><script>alert(1)</script>",
    "<title><script>alert(1)</script></title>",
    "<textarea><script>alert(1)</script></textarea>",
    "<xmp><script>alert(1)</script></xmp>",
    "<noscript><p title=\"</noscript><img src=x onerror=alert(1)>\">",
    "<noembed><img src=x onerror=alert(1)></noembed>",
    "<noframes><script>alert(1)</script></noframes>",
    "<plaintext><script>alert(1)</script>",
    "<template><script>alert(1)</script></template>",
    "<!--><script>alert(1)</script>-->",
    "<!--[if IE]><script>alert(1)</script><![endif]-->",
    "<![CDATA[<script>alert(1)</script>]]>",
    "<?php echo '<script>alert(1)</script>' ?>",
    "<!DOCTYPE x [<!ENTITY y \"<script>\">]>&y;",
    "<table><script>alert(1)</script><tr onclick=x><td background=javascript:x>x</table>",
    "<p title=\"&quot; onclick=alert(1) x=&quot;\">x</p>",
    "<p title='\"><script>alert(1)</script>'>x</p>",
    "<a title=\"x\" onclick=\"alert(1)\" href=\"x\">x</a>",
    "<a href=x onclick\n=\nalert(1)>x</a>",
    "<a href='x' / onclick='alert(1)'>x</a>",
    "<a\u{c}onclick=alert(1)>x</a>",
    "<a href=\"x\" onclick=alert(1)//\">x</a>",
    "<b><svg><style><img src=x onerror=alert(1)>",
    "<svg></p><style><a id=\"</style><img src=1 onerror=alert(1)>\">",
    "<math><mtext><table><mglyph><style><img src=x onerror=alert(1)>",
    "<form><math><mtext></form><form><mglyph><style></math><img src onerror=alert(1)>",
    "`<script>alert(1)</script>`",
    "```<img src=x onerror=alert(1)>\nx\n```",
    "```x\" onclick=\"alert(1)\nx\n```",
    "# x {onclick=alert(1)}",
    "[x](y \"z\\\" onclick=\\\"alert(1)\")",
    "![x\" onerror=\"alert(1)](y)",
    "<x onclick=alert(1)>x</x>",
    "<a href=\"https://a.example\" id=\"page-content\" class=\"skip\" style=\"position:fixed\">x</a>",
    "<img src=\"https://a.example/x.png\" srcset=\"javascript:alert(1)\" loading=lazy ping=x>",
    "<q cite=\"javascript:alert(1)\">x</q>",
    "<ins cite=\"javascript:x\" datetime=\"x\">x</ins>",
    "<a href=\"//a.example\" target=\"_blank\" ping=\"javascript:x\">x</a>",
    "<bdo dir=\"rtl\" onclick=x>x</bdo>",
    "<time datetime='\"onclick=x'>x</time>",
    "&lt;script&gt;alert(1)&lt;/script&gt;",
];

#[test]
fn attacks_come_out_harmless() {
    assert!(ATTACKS.len() >= 100, "{}", ATTACKS.len());
    for attack in ATTACKS {
        for source in [
            (*attack).to_owned(),
            format!("a {attack} b"),
            format!("| a |\n|---|\n| {} |", attack.replace('\n', " ")),
            format!("> - {}\n", attack.replace('\n', "\n>   ")),
            format!("<div>\n\n{attack}\n\n</div>\n\nlast *words*"),
        ] {
            let written = html::write(&markdown::read(source.as_bytes(), &markdown::Settings::GITHUB), &html::Options::default());
            let faults = faults(&written.html);
            assert!(faults.is_empty(), "{source}\n{}\n{faults:#?}", written.html);
        }
    }
}

#[test]
fn attacks_in_pages_come_out_harmless_in_every_format() {
    for attack in ATTACKS {
        for source in [
            (*attack).to_owned(),
            format!("<!DOCTYPE html><title>{attack}</title><body {attack}><p>a {attack} b</p>"),
            format!("<table><tr><td>{attack}</td></tr></table><ul><li>{attack}"),
            format!("<style>{attack}</style><p style=\"{attack}\">a</p><math><mtext>{attack}</mtext></math>"),
            format!("<svg>{attack}</svg><select><option>{attack}</select>{attack}"),
        ] {
            let doc = html::read(source.as_bytes(), &html::ReadOptions::default());
            let written = html::write(&doc, &html::Options::default()).html;
            let found = faults(&written);
            assert!(found.is_empty(), "{source}\n{written}\n{found:#?}");
            // The way over Markdown opens no door.
            let text = markdown::write(&doc, &markdown::WriteOptions::default()).text;
            let again = markdown::read(text.as_bytes(), &markdown::Settings::GITHUB);
            let written = html::write(&again, &html::Options::default()).html;
            let found = faults(&written);
            assert!(found.is_empty(), "{source}\n{text}\n{written}\n{found:#?}");
        }
    }
}
