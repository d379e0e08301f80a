//! The stages of a conversion and what a program plugs into them.
#![allow(clippy::unwrap_used, reason = "a test fails where something is not as it should be")]

use obblet::document::{Document, Kind, Place};
use obblet::formats::markdown;
use obblet::media::{MediaStore, MemoryMedia};
use obblet::profile::Profile;
use obblet::{Cancellation, Context, Error, Format, LinkResolver, LinkTarget, Progress, Stage, convert_in, pipeline};
use std::collections::BTreeMap;
use std::path::Path;
use std::sync::Mutex;

const DRAWING: &[u8] = br#"<svg xmlns="http://www.w3.org/2000/svg" width="8" height="4"><rect width="8" height="4"/></svg>"#;

fn html(source: &str, context: &Context<'_>) -> (String, Vec<String>) {
    let converted = convert_in(source.as_bytes(), Format::Markdown, Format::Html, &Profile::fragment(), context).unwrap();
    let codes = converted.findings.iter().map(|finding| finding.code.to_string()).collect();
    (converted.into_text().unwrap(), codes)
}

#[test]
fn images_come_from_memory_and_go_into_memory() {
    let mut source = MemoryMedia::default();
    source.insert("log/a.svg", DRAWING.to_vec());
    source.insert("b.svg", b"no drawing".to_vec());
    let store = MemoryMedia::default();
    let folder = Some(Path::new("log"));
    let context = Context { name: "x", folder, media: Some(&source), store: Some(&store), ..Context::default() };
    let (text, codes) = html("![a](a.svg) ![b](../b.svg) ![c](../../c.svg) ![d](d.svg)", &context);
    assert!(text.contains("src=\"x-images/a.svg\" alt=\"a\" width=\"8\" height=\"4\""), "{text}");
    assert_eq!(codes, ["image.no-picture", "image.outside", "image.missing"]);
    let files = store.into_files();
    assert_eq!(files.keys().map(|path| path.to_str().unwrap()).collect::<Vec<_>>(), ["x-images/a.svg"]);
}

struct Full;

impl MediaStore for Full {
    fn store(&self, _: &Path, _: Vec<u8>) -> std::io::Result<String> {
        Err(std::io::ErrorKind::StorageFull.into())
    }
}

#[test]
fn a_store_that_fails_is_a_finding() {
    let mut source = MemoryMedia::default();
    source.insert("a.svg", DRAWING.to_vec());
    let context = Context { media: Some(&source), store: Some(&Full), ..Context::default() };
    assert_eq!(html("![a](a.svg)", &context).1, ["image.store"]);
}

struct Gone;

impl LinkResolver for Gone {
    fn resolve(&self, _: &str, _: Place) -> LinkTarget {
        LinkTarget::Unchanged
    }

    fn resolve_image(&self, _: &str, _: Place) -> LinkTarget {
        LinkTarget::Missing { nearest: Some("b.png".to_owned()) }
    }
}

#[test]
fn links_and_images_get_addresses_of_the_program() {
    let links = BTreeMap::from([("a.md".to_owned(), "/1".to_owned()), ("p.png".to_owned(), "/i/2".to_owned())]);
    let context = Context { links: Some(&links), ..Context::default() };
    let (text, codes) = html("[a](a.md) [b](b.md) ![p](p.png)", &context);
    assert_eq!(text, "<p><a href=\"/1\">a</a> <a href=\"b.md\">b</a> <img src=\"/i/2\" alt=\"p\"></p>\n");
    assert!(codes.is_empty(), "{codes:?}");
    assert_eq!(html("![p](p.png)", &Context { links: Some(&Gone), ..Context::default() }).1, ["image.missing"]);
}

#[derive(Default)]
struct Stages(Mutex<Vec<Stage>>, Option<Stage>);

impl Progress for Stages {
    fn reached(&self, stage: Stage) {
        self.0.lock().unwrap().push(stage);
    }

    fn is_cancelled(&self) -> bool {
        self.0.lock().unwrap().last() == self.1.as_ref()
    }
}

#[test]
fn stages_come_in_their_order_and_any_of_them_can_be_the_last() {
    let all = [Stage::Read, Stage::Refine, Stage::Place, Stage::Write];
    for last in [None, Some(all[0]), Some(all[1]), Some(all[2]), Some(all[3])] {
        let stages = Stages(Mutex::default(), last);
        let context = Context { progress: Some(&stages), ..Context::default() };
        let outcome = convert_in(b"a", Format::Markdown, Format::Html, &Profile::fragment(), &context);
        assert_eq!(outcome.is_ok(), last.is_none(), "{last:?}");
        assert!(outcome.is_ok() || matches!(outcome, Err(Error::Cancelled)));
        let expected: Vec<Stage> = all.into_iter().filter(|stage| last.is_none_or(|last| *stage <= last)).collect();
        assert_eq!(*stages.0.lock().unwrap(), expected);
    }
    let cancellation = Cancellation::default();
    let context = Context { progress: Some(&cancellation), ..Context::default() };
    assert!(convert_in(b"a", Format::Markdown, Format::Html, &Profile::fragment(), &context).is_ok());
    cancellation.cancel();
    assert!(convert_in(b"a", Format::Markdown, Format::Html, &Profile::fragment(), &context).is_err());
}

#[test]
fn each_pass_can_be_run_and_switched_off_by_its_name() {
    let source =
        b"<p style=\"mso-list:l0 level1 lfo1\"><span style=\"mso-list:Ignore\">1.</span> <b>a</b><b>b</b>  c</p><p>&nbsp;</p>";
    let mut profile = Profile::fragment();
    let passes = pipeline::passes(Format::Html, Format::Html, &profile);
    assert!(passes.len() > 30 && passes.windows(2).all(|pair| pair[0].stage <= pair[1].stage));
    for pass in passes {
        let mut doc = pipeline::read(source, Format::Html, &profile).unwrap();
        assert!(pipeline::run_pass(&mut doc, pass.name, &profile, &Context::default()), "{}", pass.name);
        profile.set(&format!("clean.skip={}", pass.name)).unwrap();
        let list = pipeline::passes(Format::Html, Format::Html, &profile);
        assert!(list.iter().all(|other| other.name != pass.name || !other.runs), "{}", pass.name);
    }
    assert!(profile.set("clean.skip=no-such-pass").is_err());
    let text = |skip: &str| {
        let mut profile = Profile::fragment();
        profile.set(&format!("clean.skip={skip}")).unwrap();
        let converted = obblet::convert(source, Format::Html, Format::Html, &profile).unwrap();
        converted.into_text().unwrap()
    };
    assert_eq!(text(""), "<ol>\n<li><strong>ab</strong> c</li>\n</ol>\n");
    assert_eq!(text("formatting"), "<ol>\n<li><strong>a</strong><strong>b</strong> c</li>\n</ol>\n");
    assert!(!text("lists").contains("<ol>"));
}

#[test]
fn documents_are_equal_whose_content_is() {
    let read = |source: &str| markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    let same = |a: &str, b: &str| assert!(read(a) == read(b), "{}\n{}", read(a).dump(), read(b).dump());
    let differ = |a: &str, b: &str| assert!(read(a) != read(b), "{a:?} {b:?}");
    same("# A\n\n*b* c", "A\n=\n\n_b_ c");
    same("[a](b)", "[a][x]\n\n[x]: b");
    for (a, b) in [
        ("# A", "## A"),
        ("a", "b"),
        ("[a](b)", "[a](c)"),
        ("a[^1]\n\n[^1]: b", "a[^1]\n\n[^1]: c"),
        ("- a", "1. a"),
        ("a", "a\n\nb"),
    ] {
        differ(a, b);
    }
    // What was moved about and put back is the same.
    let mut doc = read("a\n\nb");
    let first = doc.node(doc.root()).first_child().unwrap();
    let quote = doc.wrap(first, Kind::BlockQuote);
    assert!(doc != read("a\n\nb"));
    doc.unwrap(quote);
    assert!(doc == read("a\n\nb"));
    assert!(Document::new() == Document::default());
}
