//! scratch
fn main() {
    let bytes = std::fs::read(std::env::args().nth(1).unwrap()).unwrap();
    let doc = obblet::formats::markdown::read(&bytes, &obblet::formats::markdown::Options::GITHUB);
    let w = obblet::formats::html::write(&doc, &obblet::formats::html::Options::default());
    print!("{}", w.html);
    for f in doc.findings.iter().chain(&w.findings) { eprintln!("{} {} {} {}", f.place, f.code, f.message, f.lost); }
}
