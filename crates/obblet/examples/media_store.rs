//! Images out of a database and into a cache, without a file system: `cargo run --example media_store`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::media::{MediaSource, MediaStore, There};
use obblet::{Context, Error, Format, convert_in, profile::Profile};
use std::collections::BTreeMap;
use std::io;
use std::path::{Path, PathBuf};
use std::sync::{Mutex, PoisonError};

/// Stands for a table of a database.
struct Database(BTreeMap<PathBuf, Vec<u8>>);

impl MediaSource for Database {
    fn there(&self, path: &Path) -> There {
        self.0.get(path).map_or(There::Nothing, |bytes| There::File(bytes.len() as u64))
    }

    fn read(&self, path: &Path, _limit: u64) -> io::Result<Vec<u8>> {
        self.0.get(path).cloned().ok_or_else(|| io::ErrorKind::NotFound.into())
    }
}

/// Stands for a server of images, which names them itself.
#[derive(Default)]
struct Server(Mutex<Vec<Vec<u8>>>);

impl MediaStore for Server {
    fn store(&self, path: &Path, bytes: Vec<u8>) -> io::Result<String> {
        let mut images = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        images.push(bytes);
        let extension = path.extension().unwrap_or_default().to_string_lossy();
        Ok(format!("https://images.station.example/{}.{extension}", images.len()))
    }
}

fn main() -> Result<(), Error> {
    let drawing = br#"<svg xmlns="http://www.w3.org/2000/svg" width="80" height="20"><rect width="80" height="20"/></svg>"#;
    let database = Database(BTreeMap::from([(PathBuf::from("log/staff.svg"), drawing.to_vec())]));
    let server = Server::default();
    let context = Context {
        name: "tides",
        folder: Some(Path::new("log")),
        media: Some(&database),
        store: Some(&server),
        ..Context::default()
    };
    let source = b"![The tide staff](staff.svg)\n\n![Nobody has it](missing.png)\n";
    let converted = convert_in(source, Format::Markdown, Format::Html, &Profile::fragment(), &context)?;
    print!("{}", converted.text().unwrap_or_default());
    for finding in &converted.findings {
        println!("{}: {}", finding.code, finding.message);
    }
    Ok(())
}
