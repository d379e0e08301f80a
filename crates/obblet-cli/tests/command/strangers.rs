//! What the command does with pipes, devices and full disks, in folders of strangers and on its own command line.
#![cfg(unix)]
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use std::fs::File;
use std::io::Read;
use std::os::unix::fs::{FileTypeExt, symlink};
use std::path::Path;
use std::process::{Command, Output, Stdio};
use std::time::{Duration, Instant};

fn command(place: &Path, arguments: &[&str]) -> Command {
    let mut command = Command::new(assert_cmd::cargo::cargo_bin("obblet"));
    command.current_dir(place).args(arguments);
    command
}

/// Runs a command that has to end by itself.
fn ends(place: &Path, arguments: &[&str]) -> Output {
    let mut child = command(place, arguments).stdin(Stdio::null()).stdout(Stdio::piped()).stderr(Stdio::piped()).spawn().unwrap();
    let begun = Instant::now();
    while child.try_wait().unwrap().is_none() {
        if begun.elapsed() > Duration::from_secs(30) {
            child.kill().unwrap();
            panic!("{arguments:?} does not end");
        }
        std::thread::sleep(Duration::from_millis(5));
    }
    child.wait_with_output().unwrap()
}

fn pipe(path: &Path) {
    assert!(Command::new("mkfifo").arg(path).status().unwrap().success());
}

fn book() -> tempfile::TempDir {
    let place = tempfile::tempdir().unwrap();
    std::fs::create_dir(place.path().join("book")).unwrap();
    std::fs::write(place.path().join("book/a.md"), "# A\n\n![p](p.png) [f](f.csv)\n").unwrap();
    place
}

#[test]
fn pipes_and_devices_in_a_folder_are_not_opened() {
    for name in [".gitignore", ".ignore", ".obbletignore", "p.png", "f.csv", "b.md", "c.docx"] {
        for device in [None, Some("/dev/zero"), Some("/dev/stdin")] {
            let place = book();
            let path = place.path().join("book").join(name);
            match device {
                None => pipe(&path),
                Some(device) => symlink(device, &path).unwrap(),
            }
            let out = ends(place.path(), &["publish", "book", "site"]);
            assert!(out.status.success(), "{name} {device:?}: {}", String::from_utf8_lossy(&out.stderr));
            assert!(place.path().join("site/a.html").exists());
            let out = ends(place.path(), &["convert", "book/a.md", "-o", "a.html"]);
            assert!(out.status.success(), "{name} {device:?}");
        }
    }
    // Settings that can't be read are an error, and told.
    for device in [None, Some("/dev/zero")] {
        let place = book();
        let path = place.path().join("book/obblet.toml");
        match device {
            None => pipe(&path),
            Some(device) => symlink(device, &path).unwrap(),
        }
        for arguments in [&["publish", "book", "site"][..], &["convert", "book/a.md"], &["inspect", "book/a.md"]] {
            let out = ends(place.path(), arguments);
            let told = String::from_utf8_lossy(&out.stderr).into_owned();
            assert_eq!(out.status.code(), Some(2), "{arguments:?}: {told}");
            assert!(told.contains("obblet.toml"), "{told}");
        }
        assert!(ends(place.path(), &["publish", "book", "site", "--no-config"]).status.success());
    }
    // The same in an output, where an earlier run would have left its files.
    for name in ["obblet-record.jsonl", "obblet-record.unfinished.jsonl", "a.html"] {
        let place = book();
        std::fs::create_dir(place.path().join("site")).unwrap();
        pipe(&place.path().join("site").join(name));
        ends(place.path(), &["publish", "book", "site", "--prune"]);
        ends(place.path(), &["publish", "book", "site", "--archive", "site.zip"]);
    }
}

#[test]
fn what_a_user_names_may_be_a_pipe_and_stays_one() {
    let place = book();
    for arguments in [
        &["convert", "book/a.md", "-o", "pipe", "--writes", "html"][..],
        &["convert", "book/a.md", "-o", "a.html", "--report", "pipe"],
        &["publish", "book", "site", "--report", "pipe"],
        &["publish", "book", "site", "--log", "pipe"],
        &["publish", "book", "site", "--archive", "pipe"],
    ] {
        let path = place.path().join("pipe");
        pipe(&path);
        let reader = std::thread::spawn({
            let path = path.clone();
            move || {
                let mut bytes = Vec::new();
                File::open(path).unwrap().read_to_end(&mut bytes).unwrap();
                bytes
            }
        });
        let out = ends(place.path(), arguments);
        assert!(out.status.success(), "{arguments:?}: {}", String::from_utf8_lossy(&out.stderr));
        assert!(std::fs::symlink_metadata(&path).unwrap().file_type().is_fifo(), "{arguments:?}");
        assert!(!reader.join().unwrap().is_empty(), "{arguments:?}");
        std::fs::remove_file(path).unwrap();
    }
    // A source may be one as well.
    let path = place.path().join("pipe.md");
    pipe(&path);
    let writer = std::thread::spawn(move || std::fs::write(path, "*a*").unwrap());
    let out = ends(place.path(), &["convert", "pipe.md", "--shape", "fragment"]);
    writer.join().unwrap();
    assert_eq!(String::from_utf8_lossy(&out.stdout), "<p><em>a</em></p>\n");
    // One that never ends is too large.
    let out = ends(place.path(), &["convert", "/dev/zero", "--reads", "text", "--set", "limits.source=1000000"]);
    assert_eq!(out.status.code(), Some(1), "{}", String::from_utf8_lossy(&out.stderr));
}

#[cfg(target_os = "linux")]
#[test]
fn output_that_is_lost_is_an_error() {
    let place = book();
    let full = || Stdio::from(File::options().write(true).open("/dev/full").unwrap());
    for arguments in [
        &["inspect", "book/a.md"][..],
        &["convert", "book/a.md"],
        &["publish", "book", "site", "--dry-run"],
        &["publish", "book", "site", "--log", "-"],
        &["publish", "book", "site", "--report", "-"],
        &["profile"],
        &["compare", "book/a.md", "book/a.md"],
    ] {
        let out = command(place.path(), arguments).stdout(full()).stderr(Stdio::piped()).output().unwrap();
        let told = String::from_utf8_lossy(&out.stderr).into_owned();
        assert_eq!(out.status.code(), Some(1), "{arguments:?}: {told}");
        assert!(told.contains("no space left on the disk"), "{arguments:?}: {told}");
    }
    let out = ends(place.path(), &["publish", "book", "site", "--log", "/dev/full"]);
    assert_eq!(out.status.code(), Some(1));
    assert!(place.path().join("site/a.html").exists(), "what could be done is done");
}
