//! What stands above and below the text of each page: the title, the chapter, and the number of the page.

use super::super::model::fields::{FieldCode, Instruction};
use super::super::printer::Printer;
use super::Writer;
use super::archive::Archive;
use super::parts;

/// The right end of a line, in twips.
const RIGHT: &str = "<w:tabs><w:tab w:val=\"right\" w:pos=\"9070\"/></w:tabs>";

impl Writer<'_> {
    /// Writes the header and the footer that are asked for: the elements that refer to them, and their relations.
    pub(super) fn headers(&mut self, archive: &mut Archive) -> Vec<(&'static str, String, String)> {
        let mut found = Vec::new();
        if self.settings.extras.running_header {
            let mut out = Printer::part("w:hdr");
            let title = self.doc.metadata.title.clone().or_else(|| self.doc.first_heading()).unwrap_or_default();
            out.open("w:p").open("w:pPr").value("w:pStyle", &self.style_id("Header")).raw(RIGHT).close();
            out.open("w:r").element("w:t", title.trim()).close();
            out.open("w:r").empty("w:tab").close();
            // The first heading of the page, or the last one before it.
            field(&mut out, &Instruction::new(FieldCode::LastOfStyle).quoted("heading 1"), "");
            out.close();
            archive.add("word/header1.xml", parts::media_type("header"), out.finish());
            found.push(("w:headerReference", "default".to_owned(), self.part.relations.name("header", "header1.xml", false)));
        }
        if self.settings.extras.page_numbers {
            let mut out = Printer::part("w:ftr");
            out.open("w:p").open("w:pPr").value("w:pStyle", &self.style_id("Footer")).value("w:jc", "center").close();
            field(&mut out, &Instruction::new(FieldCode::Page), "1");
            out.close();
            archive.add("word/footer1.xml", parts::media_type("footer"), out.finish());
            found.push(("w:footerReference", "default".to_owned(), self.part.relations.name("footer", "footer1.xml", false)));
        }
        found
    }
}

/// A field and its result (ECMA-376, part 1, section 17.16.19).
fn field(out: &mut Printer, instruction: &Instruction, result: &str) {
    out.open("w:fldSimple").attribute("w:instr", &format!(" {instruction} "));
    if !result.is_empty() {
        out.open("w:r").element("w:t", result).close();
    }
    out.close();
}
