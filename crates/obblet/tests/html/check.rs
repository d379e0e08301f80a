//! The checker of markup finds what the standard forbids, and nothing else.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use obblet::document::Weight;
use obblet::formats::html::check;

/// Faults of a fragment in order, advice in brackets.
fn faults(source: &str) -> Vec<String> {
    let name = |code: &str, advice: bool| if advice { format!("({code})") } else { code.to_owned() };
    check(source).into_iter().map(|fault| name(fault.code.trim_start_matches("check."), fault.weight == Weight::Advice)).collect()
}

#[track_caller]
fn case(source: &str, expected: &[&str]) {
    assert_eq!(faults(source), expected, "{source}\n{:?}", check(source));
}

#[test]
fn what_is_right_is_right() {
    for source in [
        "<h1>a</h1><p>b <em>c</em> <a href=\"#x\" id=\"x\">l</a><br><img src=x alt=\"\"></p>",
        "<ul><li>a<li>b<p>c</ul><dl><dt>a<dd>b</dl><dl><div><dt>a<dd>b</div></dl>",
        "<table><caption>x</caption><tr><th scope=col>a<th>b<tr><td rowspan=2>c<td>d<tr><td>e</table>",
        "<details><summary>a</summary><p>b</p></details><figure><img src=x alt=y><figcaption>c</figcaption></figure>",
        "<ins><p>a</p></ins><a href=x><div>b</div></a><my-thing data-x=1 aria-label=y>c</my-thing>",
        "<video src=x controls><track src=y></video><picture><source srcset=x><img src=x alt=y></picture>",
        "<form><label>a <input></label><select><option>b</select><textarea>c</textarea></form>",
        "<ruby>a<rt>b</ruby><svg><path d=\"\"/></svg><math><mi>x</mi></math><template><p>a</p></template>",
        "<p>Ben & Jerry &nosuch; a</p>",
    ] {
        case(source, &[]);
    }
    case("<!DOCTYPE html><html lang=en><meta charset=utf-8><title>t</title><main><p>a</main>", &[]);
}

#[test]
fn content_models() {
    for source in [
        "<span><div>a</div></span>",
        "<div><em><p>x</p></em></div>",
        "<ul>text<li>a</ul>",
        "<ul><p>a</p></ul>",
        "<div><li>a</li></div>",
        "<div><dt>a</dt></div>",
        "<dl><dt>a</dl>",
        "<dl><dd>a</dl>",
        "<h1><div>a</div></h1>",
        "<pre><div>a</div></pre>",
        "<button><p>a</p></button>",
        "<b><ul><li>a</ul></b>",
        "<label>a <label>b</label></label>",
        "<a href=x><button>b</button></a>",
        "<a href=x><video src=y controls></video></a>",
        "<header><div><header>a</header></div></header>",
        "<address><h2>a</h2></address>",
        "<table><tr><th><h2>a</h2><tr><td>b</table>",
        "<article><main>a</main></article>",
        "<dfn>a <dfn>b</dfn></dfn>",
        "<details><p>a</p></details>",
        "<figure><p>a</p><figcaption>x</figcaption><p>b</p></figure>",
        "<fieldset><p>a</p><legend>x</legend></fieldset>",
        "<ruby>a</ruby>",
        "<link rel=icon href=x>",
        "<p><area href=x alt=y></p>",
        "<hgroup><h1>a</h1><div>b</div></hgroup>",
        "<span><ins><div>a</div></ins></span>",
    ] {
        assert!(faults(source).contains(&"content".to_owned()), "{source}: {:?}", check(source));
    }
    // A section between them ends the matter.
    case("<header><section><header>a</header></section></header>", &[]);
}

#[test]
fn names_that_html_does_not_have_or_no_longer() {
    case("<center>a</center><p><font color=red>b</font><tt>c</tt></p>", &["obsolete-element"; 3]);
    case("<p align=center>a<br clear=all></p><hr size=1>", &["(obsolete-attribute)"; 3]);
    case("<p><o:p>a</o:p><foo>b</foo></p>", &["unknown-element"; 2]);
    case("<p foo=1 v:x=2>a</p>", &["unknown-attribute"; 2]);
    case("<p lang=\"english!\">a</p>", &["language"]);
}

#[test]
fn ids_links_words_and_levels() {
    case("<p id=a>1</p><p id=a>2</p><p id=\"\">3</p><p id=\"a b\">4</p>", &["duplicate-id", "id", "id"]);
    case("<a href=\"#no\">a</a><a href=\"#\">b</a><a href=\"#caf%C3%A9\">c</a><p id=\"café\">d</p>", &["(broken-link)"]);
    case("<img src=x><img alt=x><img src=x title=y>", &["alt", "missing-attribute"]);
    case("<h2>a</h2><h4>b</h4><h3>c</h3><h4>d</h4><h1></h1>", &["heading-level", "(empty-heading)"]);
    case("<p><bdo>a</bdo><data>b</data></p>", &["missing-attribute"; 2]);
    // A place to link to by its name is of old, but nothing is missing in it.
    case("<p><a name=x>y</a></p>", &["(obsolete-attribute)"]);
}

#[test]
fn tables() {
    case("<table><tr><td>a<td>b<tr><td>c<td>d</table>", &["(table-head)"]);
    case("<table role=presentation><tr><td>a<td>b</table>", &[]);
    case("<table><tr><th>a<td rowspan=2>b<tr><td colspan=2>c</table>", &["table-overlap"]);
    case("<table><tr><th rowspan=3>a<tr><td>b</table>", &["table-span"]);
    case("<table><tr><th colspan=2>a<tr><td colspan=2>b</table>", &["table-column"]);
    case("<table><tr><th>a<tr></table>", &["table-row"]);
}

#[test]
fn what_a_page_needs() {
    case("<html lang=en><title>t</title><p>a", &["doctype", "syntax"]);
    case("<!DOCTYPE html><html lang=en><p>a", &["title"]);
    case("<!DOCTYPE html><html lang=en><title></title><p>a", &["title"]);
    case("<!DOCTYPE html><title>t</title><p>a", &["(no-language)"]);
    case("<!DOCTYPE html><html lang=en><title>t</title><body><main>a</main><main>b</main>", &["content"]);
    case("<!DOCTYPE html><html lang=en><title>t</title><title>u</title><p>a", &["title"]);
}

#[test]
fn what_is_not_well_formed() {
    for source in [
        "<div><p>a<b>b",
        "</div><p>a</p></span>",
        "<p><b><i>a</b></i></p>",
        "<table><tr><td>a</tr>text</table>",
        "<p class=a class=b>x</p>",
        "<!x>",
        "a < b",
    ] {
        assert!(faults(source).contains(&"syntax".to_owned()), "{source}: {:?}", check(source));
    }
    let faults = check("<p>a</p>\n<p>\n<b><i>a</b></i>");
    assert_eq!(faults[0].place.to_string(), "3:1");
}

#[test]
fn many_faults_are_counted() {
    let source = "<center>a</center>".repeat(130);
    let faults = check(&source);
    assert!(faults.len() == 101 && faults[100].message == "30 more of these", "{faults:?}");
    // Deep and broken input ends soon.
    assert!(!check(&"<div><b>".repeat(50_000)).is_empty());
    assert!(!check(&"<table><tr><td colspan=1000 rowspan=1000>".repeat(300)).is_empty());
}
