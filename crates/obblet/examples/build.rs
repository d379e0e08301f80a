//! A document built in code, and written: `cargo run --example build`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::document::{CellKind, Document, Kind, RowGroupKind};
use obblet::{Context, Error, Format, profile::Profile, write};

fn main() -> Result<(), Error> {
    let mut doc = Document::new();
    doc.metadata.title = Some("High waters".to_owned());
    doc.metadata.language = Some("en".to_owned());

    let heading = doc.append(doc.root(), Kind::Heading(1));
    doc.append_text(heading, "High waters");
    let table = doc.append(doc.root(), Kind::Table);
    let body = doc.append(table, Kind::RowGroup(RowGroupKind::Body));
    for (day, time) in [("Monday", "06:12"), ("Tuesday", "06:41")] {
        let row = doc.append(body, Kind::Row);
        let header = doc.append(row, Kind::Cell(CellKind { header: true, ..CellKind::PLAIN }));
        doc.append_text(header, day);
        let cell = doc.append(row, Kind::Cell(CellKind::PLAIN));
        doc.append_text(cell, time);
    }
    let note = doc.append(doc.root(), Kind::Paragraph);
    doc.append_text(note, "Times are those of the ");
    doc.append_link(note, "https://station.example/clock", "pier clock");
    doc.append_text(note, ".");

    print!("{}", write(doc, Format::Html, &Profile::built_in("page")?, &Context::default())?.text().unwrap());
    Ok(())
}
