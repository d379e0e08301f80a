//! A document built in code, walked with its notes, edited, and written: `cargo run --example build`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::document::{CellKind, Document, Kind, NodeId, RowGroupKind, Step};
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
    let paragraph = doc.append(doc.root(), Kind::Paragraph);
    doc.append_text(paragraph, "Times are those of the ");
    doc.append_link(paragraph, "https://station.example/clock", "pier clock");
    let note = doc.add_note("clock");
    doc.append(paragraph, Kind::NoteReference(note));
    let text = doc.append(doc.notes[0].body, Kind::Paragraph);
    doc.append_text(text, "It is two minutes slow.");

    // The walk goes through the body and then through the notes.
    let words = |doc: &Document, id: NodeId| match doc.kind(id) {
        Kind::Text(text) => Some(doc.text(text).to_owned()),
        _ => None,
    };
    let texts: Vec<(NodeId, String)> = doc
        .walk_all()
        .filter_map(|step| match step {
            Step::Enter(id) => words(&doc, id).map(|text| (id, text)),
            Step::Leave(_) => None,
        })
        .collect();
    for (id, text) in texts.into_iter().filter(|(_, text)| text.contains("two")) {
        let edited = doc.intern(&text.replace("two", "three"));
        doc.set_kind(id, Kind::Text(edited));
        doc.wrap(id, Kind::Emphasis);
    }
    print!("{}\n{:?}\n\n", doc.dump(), doc.outline());
    print!("{}", write(doc, Format::Markdown, &Profile::default(), &Context::default())?.text().unwrap_or_default());
    Ok(())
}
