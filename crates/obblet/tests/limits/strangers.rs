//! What strangers may send: folders, documents, records and slices that try to get at files, or to run in a reader's browser.
#![cfg(unix)]
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::publish::{Action, Plan, RECORD_FILE, UNFINISHED_FILE, archive};
use std::os::unix::fs::symlink;
use std::path::Path;
use support::folder::{Folder, Listener, files, options};
use support::package::{Package, paragraph, picture};

const PNG: &[u8] = b"\x89PNG\r\n\x1A\n\0\0\0\rIHDR\0\0\0\x03\0\0\0\x02\x08\x02\0\0\0";

/// A picture that holds a secret.
fn secret_picture() -> Vec<u8> {
    [PNG, b"SECRET"].concat()
}

/// Whether anything that was published holds the secret, and the names in its archive.
fn leaks(folder: &Folder) -> Vec<String> {
    let packed = folder.place.path().join("site.zip");
    archive(&folder.output(), &packed).unwrap();
    let names = zip::ZipArchive::new(std::fs::File::open(&packed).unwrap()).unwrap();
    let mut found: Vec<String> =
        files(&folder.output()).into_iter().filter(|(_, bytes)| holds(bytes, b"SECRET")).map(|(name, _)| name).collect();
    found.extend(names_in(&names).filter(|name| name.starts_with('/') || name.contains("..")));
    std::fs::remove_file(packed).unwrap();
    found
}

fn names_in(archive: &zip::ZipArchive<std::fs::File>) -> impl Iterator<Item = String> {
    archive.file_names().map(|name| name.unwrap().into_owned())
}

fn holds(bytes: &[u8], wanted: &[u8]) -> bool {
    bytes.windows(wanted.len()).any(|part| part == wanted)
}

#[test]
fn links_out_of_the_folder_bring_nothing() {
    let folder = Folder::new(&[(
        "a.md",
        "# A\n\n![a](p.png) ![b](far/x.png) [c](e.txt) ![d](/etc/passwd) ![e](../outside/x.png) [f](far/x.png) ![g](abs.png)\n",
    )]);
    let (source, outside) = (folder.source(), folder.place.path().join("outside"));
    std::fs::create_dir(&outside).unwrap();
    for name in ["x.png", "x.md", "obblet.toml"] {
        std::fs::write(outside.join(name), secret_picture()).unwrap();
    }
    symlink("../outside/x.png", source.join("p.png")).unwrap();
    symlink(outside.join("x.png"), source.join("abs.png")).unwrap();
    symlink("../outside", source.join("far")).unwrap();
    symlink("../outside/x.md", source.join("m.md")).unwrap();
    symlink("/proc/self/environ", source.join("e.txt")).unwrap();
    for settings in [&[][..], &["images.place=embed"], &["publish.copy=all"], &["html.trust=true"]] {
        let run = folder.publish_with(|chosen| chosen.layers = options(settings).layers);
        assert_eq!(leaks(&folder), [""; 0], "{settings:?}");
        let brought: Vec<String> = files(&folder.output()).into_keys().filter(|name| !name.ends_with(".css")).collect();
        assert_eq!(brought, ["a.html", RECORD_FILE], "{settings:?}");
        assert_eq!(run.found("image.outside").len(), 4, "{:?}", run.told);
    }
    // A link within the folder is followed, however it is written.
    folder.write("in.png", PNG);
    symlink(source.join("in.png"), source.join("again.png")).unwrap();
    folder.write("a.md", "![a](again.png)");
    folder.publish();
    assert!(folder.has("again.png"));
}

#[test]
fn what_is_hidden_or_left_out_is_not_published_by_naming_it() {
    let folder = Folder::new(&[
        ("obblet.toml", "publish.exclude = ['drafts/**']\n"),
        (".gitignore", "private/\n"),
        (".env", "KEY=SECRET"),
        (".git/config", "SECRET"),
        (
            "a.md",
            "![](.env) ![](.git/config) ![](.hidden.png) ![](drafts/x.png) ![](private/x.png) ![](obblet.toml) ![](l.png) ![](m.png) [n](l.txt) ![](data.png) [o](.env)\n",
        ),
        ("data.png", "KEY=SECRET"),
    ]);
    for path in [".hidden.png", "drafts/x.png", "private/x.png"] {
        folder.write(path, secret_picture());
    }
    symlink(".hidden.png", folder.source().join("l.png")).unwrap();
    symlink("private/x.png", folder.source().join("m.png")).unwrap();
    symlink(".env", folder.source().join("l.txt")).unwrap();
    let outside = Package {
        links: vec![("env".to_owned(), ".env".to_owned()), ("hidden".to_owned(), ".hidden.png".to_owned())],
        ..Package::of(&paragraph(
            "",
            &["env", "hidden"]
                .map(|name| picture("x", "x", 9, 9).replace("r:embed=\"x\"", &format!("r:link=\"{name}\"")))
                .concat(),
        ))
    };
    folder.write("w.docx", outside.bytes());
    for settings in [&[][..], &["images.place=embed"], &["publish.copy=all"]] {
        let run = folder.publish_with(|chosen| chosen.layers = options(settings).layers);
        let mut leaking = leaks(&folder);
        // What lies openly in the folder comes along with all of it.
        leaking.retain(|name| name != "data.png" || settings != ["publish.copy=all"]);
        assert_eq!(leaking, [""; 0], "{settings:?}");
        assert_eq!(run.found("image.hidden").len(), 6, "{settings:?}: {:?}", run.found("image.hidden"));
        assert_eq!(run.found("image.no-picture").len(), 5, "{settings:?}");
        assert!(!files(&folder.output()).values().any(|bytes| holds(bytes, b"U0VDUkVU")), "not in base 64 either");
    }
}

#[test]
fn pages_and_programs_do_not_come_as_pictures_or_files() {
    let script = "<html><script>alert(1)</script>";
    let drawing = "<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script><path d='M0 0'/></svg>";
    let folder = Folder::new(&[
        ("one.md", "# One\n\n![b](two.html) ![c](x.xhtml) ![d](plain) ![e](x.xml) ![f](x.svgz) ![g](d.svg)\n"),
        (
            "more.md",
            "# More\n\n[b](x.xhtml) [c](plain) [d](x.xml) [e](x.svgz) [f](x.php) [g](x.php.bin) [h](y.xml) [i](page) [j](d.svg) [k](data.csv)\n",
        ),
        ("two.html", script),
        ("x.xhtml", script),
        ("plain", drawing),
        ("x.xml", "<a><script xmlns='http://www.w3.org/1999/xhtml'>alert(1)</script></a>"),
        ("y.xml", "<?xml version='1.0'?><tides><low/></tides>"),
        ("x.svgz", "\u{1F}\u{8B}alert"),
        ("x.php", "<?php alert(1) ?>"),
        ("x.php.bin", "<?php alert(1) ?>"),
        ("page", script),
        ("d.svg", drawing),
        ("data.csv", "a,b"),
    ]);
    for settings in [&[][..], &["publish.copy=all"]] {
        let run = folder.publish_with(|chosen| chosen.layers = options(settings).layers);
        let published = files(&folder.output());
        let running: Vec<&String> = published
            .iter()
            .filter(|(name, bytes)| *name != RECORD_FILE && holds(bytes, b"alert(1)"))
            .map(|(name, _)| name)
            .collect();
        assert_eq!(running, [""; 0], "{settings:?}");
        let names: Vec<&str> = published.keys().map(String::as_str).filter(|name| !name.ends_with(".css")).collect();
        assert_eq!(names, ["d.svg", "data.csv", "more.html", RECORD_FILE, "one.html", "plain", "two.html", "x.html", "y.xml"]);
        let left_out = run.found("publish.running-file");
        assert_eq!(left_out.len(), 5, "{left_out:?}");
        std::fs::remove_dir_all(folder.output()).unwrap();
    }
    folder.publish_with(|chosen| chosen.layers = options(&["html.trust=true"]).layers);
    assert!(folder.read("d.svg").contains("alert") && folder.has("x.php"), "whoever trusts the folder gets all of it");
}

#[test]
fn files_in_documents_get_names_that_nothing_runs() {
    let names = ["report.html", "index.php", ".htaccess", "pic.svg.xhtml", "photo.php.png", "plan.emf"];
    let emf = [&[1, 0, 0, 0][..], &[0; 36], b" EMF", &[0; 8]].concat();
    let bytes = |name: &str| match name {
        "report.html" => PNG.to_vec(),
        "pic.svg.xhtml" => b"<svg xmlns='http://www.w3.org/2000/svg' onload='alert(1)'/>".to_vec(),
        "photo.php.png" => PNG.to_vec(),
        "plan.emf" => emf.clone(),
        _ => b"<?php alert(1) ?>".to_vec(),
    };
    let body: String = names.iter().map(|name| picture(name, name, 9, 9)).collect();
    let package = Package {
        pictures: names.iter().map(|name| ((*name).to_owned(), bytes(name))).collect(),
        ..Package::of(&paragraph("", &body))
    };
    let folder = Folder::new(&[]);
    folder.write("w.docx", package.bytes());
    let run = folder.publish();
    let mut published: Vec<String> = files(&folder.output()).into_keys().filter(|name| name.starts_with("w-")).collect();
    assert_eq!(published, ["w-images/photo-php.png", "w-images/pic.svg.svg", "w-images/report.png"]);
    assert_eq!((run.found("word.picture-format").len(), run.found("image.drawing").len()), (1, 1));
    folder.publish_with(|chosen| chosen.layers = options(&["images.keep-unknown=true"]).layers);
    published = files(&folder.output()).into_keys().filter(|name| name.starts_with("w-")).collect();
    published.retain(|name| !name.ends_with(".png") && !name.ends_with(".svg"));
    assert_eq!(published, ["w-images/index.bin", "w-images/picture.bin", "w-images/plan.emf"]);
}

/// A record that names paths outside of its folder.
fn forged(path: &str) -> Vec<String> {
    let hash = "0".repeat(31) + "1";
    let output = format!("{{\"path\":{path:?},\"hash\":\"{hash}\",\"size\":6}}");
    vec![
        format!("{{\"file\":{{\"output\":{output}}}}}\n"),
        format!(
            "{{\"file\":{{\"source\":{path:?},\"from\":\"{hash}\",\"output\":{{\"path\":\"a.txt\",\"hash\":\"{hash}\",\"size\":6}}}}}}\n"
        ),
        format!(
            "{{\"document\":{{\"source\":\"gone.md\",\"hash\":\"\",\"settings\":\"\",\"leads\":\"\",\"outputs\":[{output}]}}}}\n{{\"facts\":{{\"title\":\"\",\"pages\":[]}}}}\n"
        ),
        format!(
            "{{\"document\":{{\"source\":{path:?},\"hash\":\"\",\"settings\":\"\",\"leads\":\"\",\"outputs\":[],\"uses\":[[{path:?},\"\"]],\"brings\":[{path:?}]}}}}\n{{\"facts\":{{\"title\":\"\",\"pages\":[]}}}}\n"
        ),
    ]
}

#[test]
fn records_of_strangers_reach_nothing_outside() {
    use obblet_hash as hash_of;
    let folder = Folder::new(&[("a.md", "# A\n")]);
    let victim = folder.place.path().join("victim.txt");
    let in_source = folder.source().join("kept.txt");
    for path in
        ["../victim.txt", victim.to_str().unwrap(), "x/../../victim.txt", "/dev/zero", "..\\victim.txt", "../source/kept.txt"]
    {
        for lines in forged(path) {
            for unfinished in [false, true] {
                std::fs::write(&victim, "victim").unwrap();
                std::fs::write(&in_source, "victim").unwrap();
                let _ = std::fs::remove_dir_all(folder.output());
                std::fs::create_dir(folder.output()).unwrap();
                let text = if unfinished {
                    format!("{lines}{{\"check\":\"{}\"}}\n", hash_of(lines.as_bytes()))
                } else {
                    let head =
                        format!("{{\"version\":1,\"program\":\"\",\"folder\":\"\",\"lines\":\"{}\"}}", hash_of(lines.as_bytes()));
                    format!("{{\"record\":{head}}}\n{lines}")
                };
                std::fs::write(folder.output().join(if unfinished { UNFINISHED_FILE } else { RECORD_FILE }), text).unwrap();
                let packed = folder.place.path().join("site.zip");
                let _ = archive(&folder.output(), &packed);
                if let Ok(names) = zip::ZipArchive::new(std::fs::File::open(&packed).unwrap()) {
                    assert!(names_in(&names).all(|name| name == "a.html"), "{path}");
                }
                let run = folder.publish_with(|chosen| (chosen.prune, chosen.force) = (true, true));
                assert_eq!(run.summary.removed, 0, "{path}: {:?}", run.told);
                assert_eq!(std::fs::read_to_string(&victim).unwrap(), "victim", "{path}");
                assert_eq!(std::fs::read_to_string(&in_source).unwrap(), "victim", "{path}");
                assert!(folder.has("a.html"));
            }
        }
    }
}

/// The hash that records have of their lines: the first half of BLAKE3.
fn obblet_hash(bytes: &[u8]) -> String {
    blake3::hash(bytes).to_hex()[..32].to_owned()
}

#[test]
fn links_in_the_place_of_outputs_are_not_followed() {
    let folder = Folder::new(&[("a.md", "# A\n"), ("log/b.md", "# B\n"), ("c.md", "# C\n")]);
    let outside = folder.place.path().join("outside");
    std::fs::create_dir(&outside).unwrap();
    std::fs::write(outside.join("victim"), "victim").unwrap();
    folder.publish();
    // A page was put in place of a link that leads out: the link is nobody's page, and stays until somebody asks.
    std::fs::remove_file(folder.output().join("a.html")).unwrap();
    symlink("../outside/victim", folder.output().join("a.html")).unwrap();
    std::fs::remove_dir_all(folder.output().join("log")).unwrap();
    symlink("../outside", folder.output().join("log")).unwrap();
    let run = folder.publish();
    assert_eq!((run.summary.edited, run.summary.failed), (1, 1), "{:?}", run.told);
    folder.publish_with(|chosen| chosen.force = true);
    assert!(std::fs::symlink_metadata(folder.output().join("a.html")).unwrap().is_file());
    assert_eq!(files(&outside).into_keys().collect::<Vec<_>>(), ["victim"]);
    assert_eq!(std::fs::read_to_string(outside.join("victim")).unwrap(), "victim");
    // The same when what has no source any more is removed.
    folder.remove("c.md");
    std::fs::write(outside.join("c.html"), folder.read("c.html")).unwrap();
    std::fs::remove_file(folder.output().join("c.html")).unwrap();
    symlink("../outside/c.html", folder.output().join("c.html")).unwrap();
    folder.publish_with(|chosen| (chosen.prune, chosen.force) = (true, true));
    assert!(outside.join("c.html").exists());
}

#[test]
fn slices_of_strangers_write_only_pages_and_pictures() {
    let folder = Folder::new(&[("log/a.md", "# A\n"), ("b.md", "# B\n")]);
    folder.publish_with(|chosen| chosen.slice = Some((1, 1)));
    let name = "obblet-slice-1-of-1.jsonl";
    let good = folder.read(name);
    let join = |text: &str| {
        let _ = std::fs::remove_dir_all(folder.output());
        let place = folder.place.path().join("from-elsewhere");
        std::fs::create_dir_all(&place).unwrap();
        std::fs::write(place.join(name), text).unwrap();
        let mut chosen = options(&[]);
        chosen.join = vec![place];
        let plan = Plan::new(&folder.source(), &folder.output(), chosen).unwrap();
        plan.run(&mut Listener::default())
    };
    assert_eq!(join(&good).unwrap().converted, 2);
    let extra = |path: &str, bytes: &str| {
        good.replace("\"extras\":[]", &format!("\"extras\":[{{\"path\":{path:?},\"bytes\":{bytes:?}}}]"))
    };
    let png: String = PNG.iter().map(|byte| format!("{byte:02x}")).collect();
    for forged in [
        good.replace("log/a.html", "../../victim.html"),
        good.replace("log/a.html", "/tmp/victim.html"),
        good.replace("log/a.html", "b.html"),
        good.replace("log/a.html", "log/.htaccess"),
        extra("../victim.png", &png),
        extra("log/x.php", &png),
        extra("log/x.html", "3c"),
        extra("log/x.png", "3c"),
        extra("log/../../x.png", &png),
        good.replace("\"uses\":[]", "\"uses\":[[\"../../victim\",\"\"]]"),
        "{".to_owned(),
    ] {
        assert_ne!(forged, good);
        let error = join(&forged).unwrap_err().to_string();
        assert!(error.contains(name), "{error}");
        assert!(!folder.place.path().join("victim.html").exists() && !folder.place.path().join("victim.png").exists());
    }
    // What a slice says it shows is brought only where it may be shown.
    folder.write(".env", "SECRET");
    join(&good.replace("\"uses\":[]", "\"uses\":[[\".env\",\"00000000000000000000000000000001\"]]")).unwrap();
    assert!(!folder.has(".env"));
}

#[test]
fn settings_files_that_lead_out_are_refused() {
    let folder = Folder::new(&[("a.md", "# A\n"), ("log/b.md", "# B\n"), ("top.html", "<p>top</p>")]);
    let outside = folder.place.path().join("own.toml");
    std::fs::write(&outside, "page.look = 'folio'\n").unwrap();
    let new = || Plan::new(&folder.source(), &folder.output(), options(&[]));
    for link in ["obblet.toml", "log/obblet.toml"] {
        symlink(&outside, folder.source().join(link)).unwrap();
        let error = new().unwrap_err().to_string();
        assert!(error.contains(link) && error.contains("leads out"), "{error}");
        folder.remove(link);
    }
    // Within the folder one may lead to another.
    folder.write("obblet.toml", "page.look = 'beacon'\n");
    symlink("../obblet.toml", folder.source().join("log/obblet.toml")).unwrap();
    assert!(new().is_ok());
    symlink(&outside, folder.source().join("foot.html")).unwrap();
    folder.write("obblet.toml", "page.footer = 'foot.html'\n");
    assert!(new().unwrap_err().to_string().contains("reach only files below it"));
}

#[test]
fn names_that_fold_are_told_and_damage_is_found_on_request() {
    let folder = Folder::new(&[
        ("caf\u{E9}.md", "# One\n"),
        ("cafe\u{301}.md", "# Two\n"),
        ("b.md", "# B\n"),
        ("b.html/c.md", "# C\n"),
        ("look-chart.css", "body { color: red }"),
        ("d.md", "[css](look-chart.css)\n"),
    ]);
    let run = folder.publish();
    assert_eq!((run.summary.failed, run.found("publish.collision").len()), (0, 2), "{:?}", run.told);
    assert!(folder.has("b-md.html") && folder.has("b.html/c.html"));
    assert_eq!(folder.read("look-chart.css"), "body { color: red }");
    assert!(folder.read("d.html").contains("href=\"obblet-look-chart.css\"") && folder.has("obblet-look-chart.css"));
    // Bytes that changed without a change of size.
    let page = folder.read("d.html");
    std::fs::write(folder.output().join("d.html"), page.replace("look", "loop")).unwrap();
    assert_eq!(folder.publish().summary.edited, 0);
    let verify = |chosen: &mut obblet::publish::Options| chosen.layers = options(&["publish.verify=true"]).layers;
    let run = folder.publish_with(verify);
    assert_eq!((run.summary.edited, run.action("d.md")), (1, Some(&Action::Unchanged)));
    folder.publish_with(|chosen| {
        verify(chosen);
        chosen.force = true;
    });
    assert_eq!(folder.read("d.html"), page);
    assert!(Path::new(&folder.output()).is_dir());
}

#[test]
fn frames_end_and_their_values_stay_where_they_are() {
    let folder = Folder::new(&[
        ("a.md", "---\ntitle: it's \"on\"\nsource: javascript:a()\nhome: https://x.example/?a='b'\n---\n\nText.\n"),
        ("obblet.toml", "page.frame = 'frame.html'\n"),
        (
            "frame.html",
            "<p title='{{ title }}' class=\"{{ title }}\"><a href='{{ metadata.source | address }}'>a</a><a href='{{ metadata.home | address }}'>b</a>{{ body }}",
        ),
    ]);
    folder.publish();
    assert_eq!(
        folder.read("a.html"),
        "<p title='it&#39;s &quot;on&quot;' class=\"it&#39;s &quot;on&quot;\"><a href=''>a</a><a href='https://x.example/?a=%27b%27'>b</a><p>Text.</p>\n\n"
            .replace("</p>\n\n", "</p>\n")
    );
    for frame in [
        "{% for x in range(100000) %}{% for y in range(100000) %}{{ body }}{% endfor %}{% endfor %}",
        "{% set n = namespace(x='aaaaaaaa') %}{% for x in range(60) %}{% set n.x = n.x ~ n.x %}{% endfor %}{{ n.x }}",
        "{{ 'aaaaaaaa' * 4000000000 }}",
        "{% macro m(x) %}{{ m(x ~ x) }}{% endmacro %}{{ m('aaaaaaaa') }}",
        "{% for x in range(100000) %}{% set y = body %}{{ y }}{{ y * 1000 }}{% endfor %}",
    ] {
        folder.write("frame.html", frame);
        folder.write("a.md", "word ".repeat(20_000));
        let run = folder.publish();
        let error = run.told.iter().find_map(|told| told.error.clone()).unwrap_or_default();
        assert!(error.contains("frame.html"), "{frame}: {error}");
    }
}
