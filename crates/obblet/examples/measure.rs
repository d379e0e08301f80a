//! scratch
#[path = "../benches/support/nothing.rs"]
mod nothing;
use std::hint::black_box;
fn main() {
    let a: Vec<String> = std::env::args().collect();
    let bytes = std::fs::read(&a[2]).unwrap();
    let o = obblet::formats::markdown::Options::GITHUB;
    match a[1].as_str() {
        "read" => { black_box(obblet::formats::markdown::read(&bytes, &o)); }
        "all" => { let d = obblet::formats::markdown::read(&bytes, &o); black_box(obblet::formats::html::write(&d, &obblet::formats::html::Options::default())); }
        "html" => { let d = obblet::formats::markdown::read(&bytes, &o); print!("{}", obblet::formats::html::write(&d, &obblet::formats::html::Options::default()).html); }
        "floor" => { black_box(nothing::parse(std::str::from_utf8(&bytes).unwrap())); }
        _ => { black_box(&bytes); }
    }
}
