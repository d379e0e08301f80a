//! The parts beside the text: settings, fonts, properties of the document, and its pages.

use super::super::Settings;
use super::super::dates::date_and_time;
use super::super::model::notes::NoteKind;
use super::super::printer::Printer;
use super::super::settings::PageSize;
use super::archive::{Archive, Relations};
use crate::document::{Document, Section};
use crate::language_tag::is_well_formed;

/// Colours and fonts that word processors offer beside those of the styles (ECMA-376, part 1, section 20.1.6.9).
pub(super) fn theme() -> String {
    let mut out = Printer::theme();
    out.open("a:themeElements");
    out.open("a:clrScheme").attribute("name", "Document");
    for (name, colour) in [
        ("a:dk1", "1B2327"),
        ("a:lt1", "FFFFFF"),
        ("a:dk2", "17414F"),
        ("a:lt2", "EAF1F3"),
        ("a:accent1", "2F7F96"),
        ("a:accent2", "C08A1E"),
        ("a:accent3", "3C8C5A"),
        ("a:accent4", "B3473F"),
        ("a:accent5", "7A5AA6"),
        ("a:accent6", "52666E"),
        ("a:hlink", "1B6A80"),
        ("a:folHlink", "7A5AA6"),
    ] {
        out.open(name).open("a:srgbClr").attribute("val", colour).close().close();
    }
    out.close();
    out.open("a:fontScheme").attribute("name", "Document");
    for group in ["a:majorFont", "a:minorFont"] {
        out.open(group);
        for (script, font) in [("a:latin", "Calibri"), ("a:ea", ""), ("a:cs", "")] {
            out.open(script).attribute("typeface", font).close();
        }
        out.close();
    }
    out.close();
    let fill = "<a:solidFill><a:schemeClr val=\"phClr\"/></a:solidFill>";
    let line = format!("<a:ln w=\"9525\">{fill}</a:ln>");
    out.open("a:fmtScheme").attribute("name", "Document");
    out.open("a:fillStyleLst").raw(&fill.repeat(3)).close();
    out.open("a:lnStyleLst").raw(&line.repeat(3)).close();
    out.open("a:effectStyleLst").raw(&"<a:effectStyle><a:effectLst/></a:effectStyle>".repeat(3)).close();
    out.open("a:bgFillStyleLst").raw(&fill.repeat(3)).close();
    out.finish()
}

/// The media type of a part.
pub(super) fn media_type(part: &str) -> &'static str {
    match part {
        "document" => "application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml",
        "styles" => "application/vnd.openxmlformats-officedocument.wordprocessingml.styles+xml",
        "numbering" => "application/vnd.openxmlformats-officedocument.wordprocessingml.numbering+xml",
        "settings" => "application/vnd.openxmlformats-officedocument.wordprocessingml.settings+xml",
        "fontTable" => "application/vnd.openxmlformats-officedocument.wordprocessingml.fontTable+xml",
        "header" => "application/vnd.openxmlformats-officedocument.wordprocessingml.header+xml",
        "footer" => "application/vnd.openxmlformats-officedocument.wordprocessingml.footer+xml",
        "theme" => "application/vnd.openxmlformats-officedocument.theme+xml",
        "comments" => "application/vnd.openxmlformats-officedocument.wordprocessingml.comments+xml",
        "footnotes" => "application/vnd.openxmlformats-officedocument.wordprocessingml.footnotes+xml",
        "endnotes" => "application/vnd.openxmlformats-officedocument.wordprocessingml.endnotes+xml",
        _ => "application/xml",
    }
}

/// A reference to a header or a footer: its element, the pages on which it stands, and the relation.
pub(super) type Around = (&'static str, String, String);

/// What a section says beside the page.
#[derive(Debug, Default)]
pub(super) struct SectionLook<'s> {
    /// The references to its headers and footers.
    pub(super) around: &'s [Around],
    /// Elements of a template, in place of what is said of the pages.
    pub(super) pages: Option<&'s str>,
    /// How many columns it has, and the space between them.
    pub(super) columns: (u16, i32),
    /// Whether it begins on the page on which the one before it ends.
    pub(super) is_continuous: bool,
}

/// A section: its pages as the source has them, as the settings say, or as people of the language have them.
pub(super) fn section(out: &mut Printer, doc: &Document, settings: &Settings, known: Option<&Section>, look: &SectionLook<'_>) {
    let known = known.filter(|section| section.page.0 > 0 && section.page.1 > 0);
    let letter = match settings.page {
        PageSize::A4 => false,
        PageSize::Letter => true,
        PageSize::Auto => {
            let language = doc.metadata.language.as_deref().unwrap_or_default().to_ascii_lowercase();
            matches!(language.as_str(), "en-us" | "en-ca" | "fr-ca" | "es-mx" | "es-us" | "es-co" | "en-ph")
        }
    };
    let usual = if letter { (12_240, 15_840) } else { (11_906, 16_838) };
    let page = known.filter(|_| settings.page == PageSize::Auto).map_or(usual, |section| section.page);
    let margins = known.map_or([1418; 4], |section| section.margins);
    out.open("w:sectPr");
    for (element, pages, relation) in look.around {
        out.open(element).attribute("w:type", pages).attribute("r:id", relation).close();
    }
    if let Some(pages) = look.pages {
        out.raw(pages).close();
        return;
    }
    if look.is_continuous {
        out.value("w:type", "continuous");
    }
    out.open("w:pgSz").number("w:w", page.0).number("w:h", page.1);
    if page.0 > page.1 {
        out.attribute("w:orient", "landscape");
    }
    out.close();
    let [top, right, bottom, left] = margins;
    out.open("w:pgMar")
        .number("w:top", top)
        .number("w:right", right.max(0))
        .number("w:bottom", bottom)
        .number("w:left", left.max(0));
    out.number("w:header", 709).number("w:footer", 709).number("w:gutter", 0).close();
    let (columns, gap) = look.columns;
    if columns > 1 {
        let gap = if gap > 0 { gap } else { 708 };
        out.open("w:cols").number("w:num", columns.min(45)).number("w:space", gap).close();
    }
    if look.around.iter().any(|(_, pages, _)| pages == "first") {
        out.empty("w:titlePg");
    }
    out.close();
}

/// The settings of the document.
pub(super) fn settings(doc: &Document, notes: impl Iterator<Item = NoteKind>, has_even_pages: bool, has_ground: bool) -> String {
    let mut out = Printer::part("w:settings");
    out.open("w:zoom").attribute("w:percent", "100").close();
    if has_ground {
        out.empty("w:displayBackgroundShape");
    }
    out.value_of("w:defaultTabStop", 709);
    if has_even_pages {
        out.empty("w:evenAndOddHeaders");
    }
    out.value("w:characterSpacingControl", "doNotCompress");
    for kind in notes {
        let (properties, separator) = match kind {
            NoteKind::Endnote => ("w:endnotePr", "w:endnote"),
            NoteKind::Footnote | NoteKind::Comment => ("w:footnotePr", "w:footnote"),
        };
        out.open(properties);
        out.open(separator).number("w:id", -1).close();
        out.open(separator).number("w:id", 0).close();
        out.close();
    }
    out.open("w:compat");
    for (name, value) in [
        ("compatibilityMode", "15"),
        ("overrideTableStyleFontSizeAndJustification", "1"),
        ("enableOpenTypeFeatures", "1"),
        ("doNotFlipMirrorIndents", "1"),
    ] {
        out.open("w:compatSetting").attribute("w:name", name).attribute("w:uri", "http://schemas.microsoft.com/office/word");
        out.attribute("w:val", value).close();
    }
    out.close();
    if let Some(language) = doc.metadata.language.as_deref().filter(|language| is_well_formed(language)) {
        out.open("w:themeFontLang").attribute("w:val", language).close();
    }
    out.value("w:decimalSymbol", ".").value("w:listSeparator", ",");
    out.finish()
}

/// The fonts of the built-in styles.
pub(super) fn fonts() -> String {
    let mut out = Printer::part("w:fonts");
    for (name, family, pitch) in [("Calibri", "swiss", "variable"), ("Consolas", "modern", "fixed")] {
        out.open("w:font").attribute("w:name", name);
        out.value("w:family", family).value("w:pitch", pitch).close();
    }
    out.finish()
}

/// Properties of the document, and the relations of the package.
pub(super) fn add_properties(archive: &mut Archive, doc: &Document) {
    let metadata = &doc.metadata;
    let mut out = Printer::core_properties();
    let mut put = |name: &'static str, value: &str| {
        if !value.is_empty() {
            out.element(name, value);
        }
    };
    put("dc:title", metadata.title.as_deref().unwrap_or_default());
    let other = |key: &str| metadata.other.iter().find(|(known, _)| known == key).map_or("", |(_, value)| value.as_str());
    put("dc:subject", other("subject"));
    put("dc:creator", &metadata.authors.join("; "));
    put("cp:keywords", &metadata.keywords.join(", "));
    put("dc:description", metadata.description.as_deref().unwrap_or_default());
    put("dc:language", metadata.language.as_deref().unwrap_or_default());
    put("cp:category", other("category"));
    if let Some(date) = metadata.date.as_deref().and_then(date_and_time) {
        out.open("dcterms:created").attribute("xsi:type", "dcterms:W3CDTF").text(&date).close();
    }
    archive.add("docProps/core.xml", "application/vnd.openxmlformats-package.core-properties+xml", out.finish());
    let mut relations = Relations::default();
    relations.name("officeDocument", "word/document.xml", false);
    relations.name("core-properties", "docProps/core.xml", false);
    archive.relate("", &relations);
}
