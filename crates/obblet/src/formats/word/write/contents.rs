//! The list of contents: a field that is filled with the headings, and that word processors fill with their pages.

use super::super::model::fields::{FieldCode, Instruction};
use super::Writer;
use crate::document::{NodeId, Step};

/// The levels of headings that are in it.
const LEVELS: u8 = 3;

impl Writer<'_> {
    /// Writes the list of contents (ECMA-376, part 1, section 17.16.5.68).
    pub(super) fn contents_list(&mut self) {
        let doc = self.doc;
        let headings: Vec<(NodeId, u8)> = doc
            .walk(doc.root())
            .filter_map(|step| match step {
                Step::Enter(id) => Some((id, self.style_level(id)?)),
                Step::Leave(_) => None,
            })
            .filter(|(_, level)| (1..=LEVELS).contains(level))
            .collect();
        if headings.is_empty() {
            return;
        }
        let out = &mut self.part.out;
        out.raw("<w:sdt><w:sdtPr><w:docPartObj><w:docPartGallery w:val=\"Table of Contents\"/><w:docPartUnique/></w:docPartObj></w:sdtPr><w:sdtContent>");
        let last = headings.len() - 1;
        for (index, (heading, level)) in headings.into_iter().enumerate() {
            let style = self.style_id(&format!("TOC{level}"));
            let out = &mut self.part.out;
            out.open("w:p").open("w:pPr").value("w:pStyle", &style).close();
            if index == 0 {
                // It is not up to date: nobody knows the pages yet.
                let levels = format!("1-{LEVELS}");
                let toc = Instruction::new(FieldCode::Contents).argument("\\o").quoted(&levels);
                let toc = toc.argument("\\h").argument("\\z").argument("\\u");
                out.raw("<w:r><w:fldChar w:fldCharType=\"begin\" w:dirty=\"true\"/></w:r>");
                out.open("w:r").open("w:instrText").attribute("xml:space", "preserve").text(&format!(" {toc} ")).close().close();
                out.raw("<w:r><w:fldChar w:fldCharType=\"separate\"/></w:r>");
            }
            let text = doc.plain_text(heading).split_whitespace().collect::<Vec<_>>().join(" ");
            if let Some(number) = self.bookmarks.in_contents(heading) {
                out.open("w:hyperlink").attribute("w:anchor", self.bookmarks.name(number)).attribute("w:history", "1");
                out.open("w:r").element("w:t", &text).close().close();
            }
            if index == last {
                out.raw("<w:r><w:fldChar w:fldCharType=\"end\"/></w:r>");
            }
            out.close();
        }
        self.part.out.raw("</w:sdtContent></w:sdt>");
    }
}
