//! What stands in a document in markup that is not that of text: formulas, charts, diagrams, parts in other formats.

use super::super::xml::{Element, Event, Xml};
use super::Reader;
use super::open_element::Frame;
use crate::document::{Finding, Formula, Kind, Markup, Text};
use crate::encoding;

impl Reader<'_, '_> {
    /// A formula (part 1, section 22.1), kept with its markup.
    pub(super) fn open_formula(&mut self, xml: &mut Xml<'_>, element: &Element<'_>) -> Option<Frame> {
        if !matches!(element.local(), b"oMathPara" | b"oMath") {
            xml.skip();
            return None;
        }
        self.ensure_paragraph();
        let start = xml.element_start();
        let markup = xml.markup(start);
        if !self.is_shown() {
            return None;
        }
        let text = characters_of(markup);
        if text.trim().is_empty() {
            return None;
        }
        let (_, problems) = crate::math::omml::read(markup);
        if !problems.is_empty() {
            self.diagnostics.formulas.add(self.place.paragraph, &text);
        }
        let parent = self.inline_parent();
        let (source, characters) = (self.doc.intern(markup), self.doc.intern(&text));
        let display = element.local() == b"oMathPara";
        // The number of a formula stands behind a number sign in an array of equations (section 22.1.2.34).
        let number = text.rsplit_once('#').filter(|_| memchr::memmem::find(markup.as_bytes(), b":eqArr>").is_some());
        let number = number.map_or(Text::EMPTY, |(_, number)| self.doc.intern(number.trim().trim_matches(['(', ')'])));
        let formula = Formula { notation: Markup::OfficeMath, source, characters, display, number };
        self.doc.append_formula_at(parent, formula, self.place.paragraph);
        None
    }

    /// A chart: its words are kept in the finding.
    pub(super) fn chart(&mut self, relation: Option<&str>) {
        self.part_words(relation, "a chart", &[b"v", b"t"]);
    }

    /// A diagram: its words are those of its data.
    pub(super) fn diagram(&mut self, relation: Option<&str>) {
        self.part_words(relation, "a diagram", &[b"t"]);
    }

    fn part_words(&mut self, relation: Option<&str>, what: &str, elements: &[&[u8]]) {
        let part = relation
            .and_then(|id| self.relations.get(id))
            .filter(|relation| !relation.external)
            .map(|known| known.target.clone());
        let mut words = what.to_owned();
        if let Some(said) = self.said_of_drawing() {
            words.push_str(": ");
            words.push_str(said);
        }
        if let Some(Ok(Some(text))) = part.map(|part| self.package.text(&part)) {
            let text = text.get();
            let mut xml = Xml::new(&text);
            while let Some(event) = xml.next() {
                if let Event::Open(element) = event
                    && elements.contains(&element.local())
                {
                    words.push(' ');
                    words.push_str(&xml.text());
                }
            }
        }
        self.diagnostics.lost_objects.add_apart(self.place.paragraph, &words);
    }

    /// A part in another format that the program would put in when it opens the document (part 1, section 17.17.2). HTML is
    /// raw markup here, for others to open.
    pub(super) fn foreign_part(&mut self, element: &Element<'_>) {
        let relation = element.relation(b"id").and_then(|id| self.relations.get(&id)).filter(|relation| !relation.external);
        let target = relation.map(|relation| relation.target.clone()).unwrap_or_default();
        let form = target.rsplit_once('.').map_or("", |(_, extension)| extension);
        let bytes = match form {
            "htm" | "html" | "xhtml" | "txt" => self.package.bytes(&target),
            _ => Ok(None),
        };
        let Ok(Some(bytes)) = bytes else { return self.diagnostics.foreign.add(self.place.paragraph, &target) };
        let (text, doubt) = encoding::decode(&bytes, None, "word.encoding", |_| None);
        // No setting says what such a part is in.
        self.doc.findings.extend(doubt.map(|doubt| Finding { hint: "".into(), ..doubt }));
        self.end_runs_of_blocks();
        let lists = &mut self.context_mut().lists;
        lists.suspend(None, false);
        lists.close(true);
        let container = self.context().container;
        if form == "txt" {
            for line in text.lines().filter(|line| !line.trim().is_empty()) {
                let paragraph = self.doc.append_at(container, Kind::Paragraph, self.place.paragraph);
                self.doc.append_text(paragraph, line.trim());
            }
        } else {
            let raw = self.doc.intern(body_of(&text));
            self.doc.append_at(container, Kind::RawBlock { markup: Markup::Html, raw }, self.place.paragraph);
        }
    }
}

/// What stands in the body of a page, or all of it where there is none.
fn body_of(page: &str) -> &str {
    let lower = page.to_ascii_lowercase();
    let start = lower.find("<body").and_then(|at| Some(at + lower[at..].find('>')? + 1)).unwrap_or(0);
    let end = lower.rfind("</body").filter(|end| *end >= start).unwrap_or(page.len());
    &page[start..end]
}

/// The characters of a formula, in a row.
fn characters_of(markup: &str) -> String {
    let mut xml = Xml::new(markup);
    let mut out = String::new();
    while let Some(event) = xml.next() {
        if let Event::Open(element) = event
            && element.local() == b"t"
        {
            out.push_str(&xml.text());
        }
    }
    out
}
