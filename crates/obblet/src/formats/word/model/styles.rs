//! Styles: what each says, and what it inherits (ECMA-376, part 1, section 17.7).
//!
//! Styles are known by their names and levels, never by their identifiers, which word processors translate.

use super::super::xml::{Element, Event, Ns, Xml, next_child};
use super::properties::{
    self, Borders, CharacterProperties, Colour, Name, Names, ParagraphProperties, Vocabulary, borders, shade,
};
use super::theme::Theme;
use crate::document::{Callout, Line, StyleDefinition, StyleUse};
use crate::fast_hash::HashMap;
use std::sync::Arc;

/// What a style applies to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(in crate::formats::word) enum StyleKind {
    #[default]
    Paragraph,
    Character,
    Table,
    Numbering,
}

/// What a paragraph is by the name of its style.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(in crate::formats::word) enum Role {
    #[default]
    Body,
    Title,
    Subtitle,
    Caption,
    Contents,
    Quote,
    Callout(Callout),
    Code,
    /// A term, and what is said of it.
    Term,
    TermDescription,
    /// Goes on with the list item before it.
    ListContinued,
    /// A style that says nothing but that it is in a list.
    ListItem,
}

/// The parts of a table that a style may set apart (section 17.18.89). Later ones win.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum TablePart {
    Band1Columns,
    Band2Columns,
    Band1Rows,
    Band2Rows,
    FirstColumn,
    LastColumn,
    FirstRow,
    LastRow,
    TopRight,
    TopLeft,
    BottomRight,
    BottomLeft,
}

/// What a table style says of a part of the table.
#[derive(Clone, Debug, Default)]
pub(in crate::formats::word) struct TableLook {
    pub(in crate::formats::word) paragraph: ParagraphProperties,
    pub(in crate::formats::word) characters: CharacterProperties,
    pub(in crate::formats::word) shade: Option<Colour>,
    pub(in crate::formats::word) borders: Borders,
}

/// What a table style says of the text in a cell.
#[derive(Clone, Debug, Default, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct InCell {
    pub(in crate::formats::word) characters: CharacterProperties,
    pub(in crate::formats::word) paragraph: Option<Arc<ParagraphProperties>>,
}

/// What a table style says.
#[derive(Clone, Debug, Default)]
pub(in crate::formats::word) struct TableStyle {
    pub(in crate::formats::word) whole: TableLook,
    pub(in crate::formats::word) parts: Vec<(TablePart, TableLook)>,
    /// How many rows and columns a band has.
    pub(in crate::formats::word) row_band: Option<u16>,
    pub(in crate::formats::word) column_band: Option<u16>,
    /// Space around the text of cells: top, right, bottom, left; twips.
    pub(in crate::formats::word) margins: [Option<i32>; 4],
}

/// One style, with all that it inherits.
#[derive(Clone, Debug, Default)]
pub(in crate::formats::word) struct Style {
    pub(in crate::formats::word) kind: StyleKind,
    /// As people see it.
    pub(in crate::formats::word) name: String,
    based_on: Option<Name>,
    pub(in crate::formats::word) paragraph: ParagraphProperties,
    pub(in crate::formats::word) characters: CharacterProperties,
    pub(in crate::formats::word) table: Option<Box<TableStyle>>,
    pub(in crate::formats::word) role: Role,
    /// The styles that it inherits from, itself first, as far as they matter to numbering.
    pub(in crate::formats::word) chain: Vec<Name>,
    is_resolved: bool,
}

/// All styles of a document.
#[derive(Debug, Default)]
pub(in crate::formats::word) struct Styles {
    styles: Vec<Style>,
    /// As the document defines them.
    pub(in crate::formats::word) definitions: Vec<StyleDefinition>,
    by_id: HashMap<Name, usize>,
    /// What every run and every paragraph has.
    pub(in crate::formats::word) characters: CharacterProperties,
    pub(in crate::formats::word) paragraph: ParagraphProperties,
    default_paragraph: Option<usize>,
    default_table: Option<usize>,
    plain: Style,
}

impl Styles {
    /// Reads the part with the styles.
    pub(in crate::formats::word) fn read(source: &str, names: &mut Names, theme: &Theme, looks: bool) -> Self {
        let mut styles = Self::default();
        let mut xml = Xml::new(source);
        let mut words = Vocabulary { names, theme, looks };
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            if element.is(b"docDefaults") {
                styles.read_defaults(&mut xml, &mut words);
            } else if element.is(b"style") {
                styles.read_style(&element, &mut xml, &mut words);
            } else if element.is(b"latentStyles") {
                xml.skip();
            }
        }
        styles.resolve();
        styles
    }

    fn read_defaults(&mut self, xml: &mut Xml<'_>, words: &mut Vocabulary<'_>) {
        let mut depth = 1_usize;
        while depth > 0 {
            match xml.next() {
                Some(Event::Open(element)) if element.is(b"rPr") => self.characters = properties::characters(xml, words),
                Some(Event::Open(element)) if element.is(b"pPr") => self.paragraph = properties::paragraph(xml, words),
                Some(Event::Open(_)) => depth += 1,
                Some(Event::Close) => depth -= 1,
                Some(Event::Text(_)) => {}
                None => return,
            }
        }
    }

    fn read_style(&mut self, element: &Element<'_>, xml: &mut Xml<'_>, words: &mut Vocabulary<'_>) {
        let id = words.names.number(&element.get(b"styleId").unwrap_or_default());
        let kind = match element.get(b"type").as_deref() {
            Some("character") => StyleKind::Character,
            Some("table") => StyleKind::Table,
            Some("numbering") => StyleKind::Numbering,
            _ => StyleKind::Paragraph,
        };
        let is_default = element.get(b"default").is_some_and(|value| super::super::xml::is_on(&value));
        let mut style = Style { kind, ..Style::default() };
        let mut definition = StyleDefinition {
            id: element.get(b"styleId").unwrap_or_default().into_owned(),
            applies_to: match kind {
                StyleKind::Paragraph => StyleUse::Paragraph,
                StyleKind::Character => StyleUse::Character,
                StyleKind::Table => StyleUse::Table,
                StyleKind::Numbering => StyleUse::List,
            },
            ..StyleDefinition::default()
        };
        while let Some(Event::Open(child)) = next_child(xml) {
            if child.ns != Ns::W {
                xml.skip();
                continue;
            }
            match child.local() {
                b"name" => style.name = child.val().unwrap_or_default().trim().to_owned(),
                b"basedOn" => {
                    definition.based_on = child.val().unwrap_or_default().into_owned();
                    style.based_on = child.val().map(|id| words.names.number(&id));
                }
                b"next" => definition.next = child.val().unwrap_or_default().into_owned(),
                b"rPr" => {
                    style.characters = properties::characters(xml, words);
                    continue;
                }
                b"pPr" => {
                    style.paragraph = properties::paragraph(xml, words);
                    continue;
                }
                b"tblPr" | b"tcPr" => {
                    let table = style.table.get_or_insert_default();
                    read_table_part(xml, words, table, None);
                    continue;
                }
                b"tblStylePr" => {
                    let part = child.get(b"type").as_deref().and_then(table_part);
                    let table = style.table.get_or_insert_default();
                    match part {
                        Some(part) => read_conditional(xml, words, table, part),
                        None => xml.skip(),
                    }
                    continue;
                }
                _ => {}
            }
            xml.skip();
        }
        if let Some(table) = &mut style.table {
            table.whole.paragraph = style.paragraph.clone();
            table.whole.characters = style.characters;
        }
        definition.name.clone_from(&style.name);
        definition.outline_level = style
            .paragraph
            .outline
            .filter(|level| *level < 9)
            .map(|level| level + 1)
            .or_else(|| heading_level(&style.name).map(|level| level + 1));
        self.definitions.push(definition);
        let place = self.styles.len();
        self.styles.push(style);
        // The first of several of one name counts.
        self.by_id.entry(id).or_insert(place);
        match kind {
            StyleKind::Paragraph if is_default => self.default_paragraph = self.default_paragraph.or(Some(place)),
            StyleKind::Table if is_default => self.default_table = self.default_table.or(Some(place)),
            _ => {}
        }
    }

    /// Puts what each style inherits into it, those that others are based on first.
    fn resolve(&mut self) {
        let ids: HashMap<usize, Name> = self.by_id.iter().map(|(id, place)| (*place, *id)).collect();
        for place in 0..self.styles.len() {
            let (mut way, mut at) = (Vec::new(), Some(place));
            while let Some(here) = at.filter(|here| !self.styles[*here].is_resolved && !way.contains(here)) {
                way.push(here);
                // A chain is no longer than people make it; what is behind that is a cycle or a trap.
                if way.len() > LONGEST_CHAIN {
                    break;
                }
                at = self.styles[here].based_on.and_then(|id| self.by_id.get(&id)).copied();
            }
            for here in way.into_iter().rev() {
                let base = self.styles[here]
                    .based_on
                    .and_then(|id| self.by_id.get(&id))
                    .map(|&base| &self.styles[base])
                    .filter(|base| base.is_resolved && base.kind == self.styles[here].kind)
                    .cloned();
                let style = &mut self.styles[here];
                style.inherit(base.as_ref(), ids.get(&here).copied());
            }
        }
    }

    /// The style of an identifier, where it is of a kind.
    pub(in crate::formats::word) fn get(&self, id: Option<Name>, kind: StyleKind) -> Option<&Style> {
        id.and_then(|id| self.by_id.get(&id)).map(|&place| &self.styles[place]).filter(|style| style.kind == kind)
    }

    /// The style of a paragraph: the one it names, or the default.
    pub(in crate::formats::word) fn of_paragraph(&self, id: Option<Name>) -> &Style {
        self.get(id, StyleKind::Paragraph)
            .or_else(|| self.default_paragraph.map(|place| &self.styles[place]))
            .unwrap_or(&self.plain)
    }

    /// All styles in the order of their definitions, with those that they are based on.
    pub(in crate::formats::word) fn with_bases(&self) -> impl Iterator<Item = (&Style, Option<&Style>)> {
        self.styles.iter().map(|style| {
            let base = style.based_on.and_then(|id| self.get(Some(id), style.kind));
            (style, base)
        })
    }

    /// The paragraph style that paragraphs have that name none.
    pub(in crate::formats::word) fn default_paragraph(&self) -> &Style {
        self.of_paragraph(None)
    }

    /// The style of a table: the one it names, or the default.
    pub(in crate::formats::word) fn of_table(&self, id: Option<Name>) -> Option<&Style> {
        self.get(id, StyleKind::Table).or_else(|| self.default_table.map(|place| &self.styles[place]))
    }
}

const LONGEST_CHAIN: usize = 100;

impl Style {
    fn inherit(&mut self, base: Option<&Self>, id: Option<Name>) {
        let own_role = role(&self.name);
        if self.paragraph.outline.is_none() {
            self.paragraph.outline = heading_level(&self.name);
        }
        self.chain = id.into_iter().collect();
        if let Some(base) = base {
            let mut paragraph = base.paragraph.clone();
            paragraph.override_with(&self.paragraph);
            self.paragraph = paragraph;
            let mut characters = base.characters;
            characters.override_with(&self.characters);
            self.characters = characters;
            if let Some(above) = &base.table {
                let mut table = above.clone();
                if let Some(own) = &self.table {
                    table.override_with(own);
                }
                self.table = Some(table);
            }
            self.chain.extend(base.chain.iter().take(LONGEST_CHAIN).copied());
        }
        self.role = own_role.or(base.map(|base| base.role)).unwrap_or_default();
        self.is_resolved = true;
    }

    /// Whether it is a heading, and of which level from 1.
    pub(in crate::formats::word) fn heading(&self) -> Option<u8> {
        self.paragraph.outline.filter(|level| *level < 9).map(|level| level + 1)
    }
}

impl TableStyle {
    fn override_with(&mut self, nearer: &Self) {
        self.whole.override_with(&nearer.whole);
        for (part, look) in &nearer.parts {
            match self.parts.iter_mut().find(|(known, _)| known == part) {
                Some((_, known)) => known.override_with(look),
                None => self.parts.push((*part, look.clone())),
            }
        }
        self.row_band = nearer.row_band.or(self.row_band);
        self.column_band = nearer.column_band.or(self.column_band);
        for (side, nearer) in self.margins.iter_mut().zip(nearer.margins) {
            *side = nearer.or(*side);
        }
    }

    /// What it says of the paragraphs and the characters in a cell that is of these parts (section 17.7.6).
    pub(in crate::formats::word) fn in_cell(&self, parts: &[TablePart]) -> InCell {
        let looks = || std::iter::once(&self.whole).chain(parts.iter().filter_map(|part| self.part(*part)));
        let mut characters = CharacterProperties::default();
        looks().for_each(|look| characters.override_with(&look.characters));
        // Most styles say nothing of paragraphs.
        let plain = ParagraphProperties::default();
        let paragraph = looks().any(|look| look.paragraph != plain).then(|| {
            let mut all = plain.clone();
            looks().for_each(|look| all.override_with(&look.paragraph));
            Arc::new(all)
        });
        InCell { characters, paragraph }
    }

    pub(in crate::formats::word) fn part(&self, part: TablePart) -> Option<&TableLook> {
        self.parts.iter().find(|(known, _)| *known == part).map(|(_, look)| look)
    }
}

impl TableLook {
    /// Whether a row that looks so can be told from the others.
    pub(in crate::formats::word) fn sets_apart(&self) -> bool {
        let is_ruled = self.borders.bottom.is_some_and(|border| border.line != Line::None);
        is_ruled || self.characters != CharacterProperties::default() || matches!(self.shade, Some(Colour::Rgb(_)))
    }

    pub(in crate::formats::word) fn override_with(&mut self, nearer: &Self) {
        self.paragraph.override_with(&nearer.paragraph);
        self.characters.override_with(&nearer.characters);
        self.shade = nearer.shade.or(self.shade);
        self.borders.override_with(&nearer.borders);
    }
}

/// Reads `tblPr` or `tcPr` of a style, which was opened last, to its end.
fn read_table_part(xml: &mut Xml<'_>, words: &mut Vocabulary<'_>, table: &mut TableStyle, part: Option<TablePart>) {
    let look = match part {
        None => &mut table.whole,
        Some(part) => {
            let place = table.parts.iter().position(|(known, _)| *known == part).unwrap_or_else(|| {
                table.parts.push((part, TableLook::default()));
                table.parts.len() - 1
            });
            &mut table.parts[place].1
        }
    };
    while let Some(Event::Open(element)) = next_child(xml) {
        match element.local() {
            b"tblBorders" | b"tcBorders" => {
                let own = borders(xml, words);
                look.borders.override_with(&own);
                continue;
            }
            b"shd" => look.shade = shade(&element, words),
            b"tblStyleRowBandSize" => table.row_band = element.number(b"val").map(|size| size.clamp(1, 1000) as u16),
            b"tblStyleColBandSize" => table.column_band = element.number(b"val").map(|size| size.clamp(1, 1000) as u16),
            b"tblCellMar" => {
                table.margins = margins(xml);
                continue;
            }
            _ => {}
        }
        xml.skip();
    }
}

/// Reads `tblCellMar` or `tcMar`, which was opened last, to its end.
pub(in crate::formats::word) fn margins(xml: &mut Xml<'_>) -> [Option<i32>; 4] {
    let mut margins = [None; 4];
    while let Some(Event::Open(element)) = next_child(xml) {
        let side = match element.local() {
            b"top" => Some(0),
            b"right" | b"end" => Some(1),
            b"bottom" => Some(2),
            b"left" | b"start" => Some(3),
            _ => None,
        };
        if let Some(side) = side {
            margins[side] = element.number(b"w").map(|width| width.clamp(0, 10_000));
        }
        xml.skip();
    }
    margins
}

fn read_conditional(xml: &mut Xml<'_>, words: &mut Vocabulary<'_>, table: &mut TableStyle, part: TablePart) {
    let mut look = TableLook::default();
    // Whether a row is a head is told by its looks, however much of them is kept.
    let looks = words.looks;
    words.looks |= part == TablePart::FirstRow;
    while let Some(Event::Open(element)) = next_child(xml) {
        match element.local() {
            b"rPr" => look.characters = properties::characters(xml, words),
            b"pPr" => look.paragraph = properties::paragraph(xml, words),
            b"tcPr" | b"tblPr" => read_table_part(xml, words, table, Some(part)),
            _ => xml.skip(),
        }
    }
    words.looks = looks;
    match table.parts.iter_mut().find(|(known, _)| *known == part) {
        Some((_, known)) => known.override_with(&look),
        None => table.parts.push((part, look)),
    }
}

fn table_part(name: &str) -> Option<TablePart> {
    Some(match name {
        "band1Vert" => TablePart::Band1Columns,
        "band2Vert" => TablePart::Band2Columns,
        "band1Horz" => TablePart::Band1Rows,
        "band2Horz" => TablePart::Band2Rows,
        "firstCol" => TablePart::FirstColumn,
        "lastCol" => TablePart::LastColumn,
        "firstRow" => TablePart::FirstRow,
        "lastRow" => TablePart::LastRow,
        "neCell" => TablePart::TopRight,
        "nwCell" => TablePart::TopLeft,
        "seCell" => TablePart::BottomRight,
        "swCell" => TablePart::BottomLeft,
        _ => return None,
    })
}

/// Levels of the built-in headings, from 0, which some programs do not write.
fn heading_level(name: &str) -> Option<u8> {
    let digits = name.get(..8).filter(|word| word.eq_ignore_ascii_case("heading ")).and_then(|_| name.get(8..))?;
    digits.parse::<u8>().ok().filter(|level| (1..=9).contains(level)).map(|level| level - 1)
}

/// What the name of a style says. Built-in names are the same in all languages; the others are what people call such styles.
fn role(name: &str) -> Option<Role> {
    let name = name.to_lowercase();
    Some(match name.as_str() {
        "title" => Role::Title,
        "subtitle" => Role::Subtitle,
        "caption" => Role::Caption,
        "quote" | "intense quote" | "block text" | "quotations" | "block quote" | "blockquote" => Role::Quote,
        "html preformatted" | "preformatted text" | "source code" | "code" | "code block" | "macro text" | "macro"
        | "listing" => Role::Code,
        "definition term" => Role::Term,
        "definition list" => Role::TermDescription,
        "callout note" => Role::Callout(Callout::Note),
        "callout tip" => Role::Callout(Callout::Tip),
        "callout important" => Role::Callout(Callout::Important),
        "callout warning" => Role::Callout(Callout::Warning),
        "callout caution" => Role::Callout(Callout::Caution),
        "list paragraph" => Role::ListItem,
        name if name.starts_with("toc ") && name[4..].bytes().all(|byte| byte.is_ascii_digit()) => Role::Contents,
        name if name.starts_with("list continue") => Role::ListContinued,
        name if name.starts_with("list bullet") || name.starts_with("list number") => Role::ListItem,
        name if heading_level(name).is_some() || name == "normal" => Role::Body,
        _ => return None,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn styles_inherit_and_cycles_end() {
        let mut names = Names::default();
        let source = "<w:styles><w:style w:type='paragraph' w:styleId='berschrift1'><w:name w:val='heading 1'/><w:basedOn w:val='B'/></w:style>\
            <w:style w:type='paragraph' w:styleId='Own'><w:name w:val='Chapter'/><w:basedOn w:val='berschrift1'/><w:rPr><w:b/></w:rPr></w:style>\
            <w:style w:type='paragraph' w:styleId='A'><w:name w:val='a'/><w:basedOn w:val='B'/></w:style>\
            <w:style w:type='paragraph' w:styleId='B'><w:name w:val='b'/><w:basedOn w:val='A'/></w:style></w:styles>";
        let styles = Styles::read(source, &mut names, &Theme::default(), true);
        let own = styles.of_paragraph(Some(names.number("Own")));
        assert_eq!((own.heading(), own.chain.len()), (Some(1), 4));
        assert!(own.characters.flags.is(properties::Flag::Bold));
        assert_eq!(styles.of_paragraph(Some(names.number("none"))).name, "");
    }
}
