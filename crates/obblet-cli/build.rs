//! Puts the demo documents into the command, so that it can write them anywhere.
#![allow(clippy::print_stdout, reason = "a build script speaks to Cargo on standard output")]

use std::fmt::Write;
use std::path::{Path, PathBuf};

fn main() -> std::io::Result<()> {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").canonicalize()?;
    println!("cargo::rerun-if-changed={}", demo.display());
    let mut files = Vec::new();
    let mut folders = vec![demo.clone()];
    while let Some(folder) = folders.pop() {
        for item in std::fs::read_dir(folder)? {
            let path = item?.path();
            if path.is_dir() { folders.push(path) } else { files.push(path) }
        }
    }
    files.sort();
    let mut code = String::from("/// Path and bytes of each file of the demo.\nstatic DEMO_FILES: &[(&str, &[u8])] = &[\n");
    for file in files {
        let name: PathBuf = file.strip_prefix(&demo).unwrap_or(&file).to_owned();
        let name: Vec<_> = name.iter().map(|part| part.to_string_lossy()).collect();
        let _ = writeln!(code, "    ({:?}, include_bytes!({:?})),", name.join("/"), file);
    }
    code.push_str("];\n");
    std::fs::write(Path::new(&std::env::var_os("OUT_DIR").unwrap_or_default()).join("demo_files.rs"), code)
}
