//! The styles that are in every document, under the names that word processors have built in, so that the template of whoever
//! gets it restyles them.

/// What a style is for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(super) enum Use {
    Paragraph,
    Character,
    Table,
}

impl Use {
    /// The kind of style (section 17.18.83).
    pub(super) const fn kind(self) -> &'static str {
        match self {
            Self::Paragraph => "paragraph",
            Self::Character => "character",
            Self::Table => "table",
        }
    }
}

/// A style: what it is called, what it inherits, and what it sets, as markup.
#[derive(Clone, Copy, Debug)]
pub(super) struct BuiltIn {
    pub(super) id: &'static str,
    pub(super) name: &'static str,
    pub(super) of: Use,
    pub(super) based_on: &'static str,
    /// The style of the paragraph behind one of it; the same where it is empty.
    pub(super) next: &'static str,
    /// Its place in the lists of word processors.
    pub(super) priority: u8,
    /// Whether it is among those that are offered first.
    pub(super) is_offered: bool,
    pub(super) paragraph: &'static str,
    pub(super) characters: &'static str,
}

const fn paragraph(
    id: &'static str,
    name: &'static str,
    next: &'static str,
    priority: u8,
    paragraph: &'static str,
    characters: &'static str,
) -> BuiltIn {
    BuiltIn { id, name, of: Use::Paragraph, based_on: "Normal", next, priority, is_offered: true, paragraph, characters }
}

const fn character(id: &'static str, name: &'static str, characters: &'static str) -> BuiltIn {
    BuiltIn {
        id,
        name,
        of: Use::Character,
        based_on: "DefaultParagraphFont",
        next: "",
        priority: 99,
        is_offered: false,
        paragraph: "",
        characters,
    }
}

const fn list(id: &'static str, name: &'static str, paragraph: &'static str) -> BuiltIn {
    BuiltIn {
        id,
        name,
        of: Use::Paragraph,
        based_on: "Normal",
        next: "",
        priority: 36,
        is_offered: false,
        paragraph,
        characters: "",
    }
}

/// What all callouts share: a bar at the side and a ground.
macro_rules! callout {
    ($id:literal, $name:literal, $bar:literal, $ground:literal) => {
        paragraph(
            $id,
            $name,
            "",
            37,
            concat!(
                "<w:pBdr><w:left w:val=\"single\" w:sz=\"24\" w:space=\"8\" w:color=\"",
                $bar,
                "\"/></w:pBdr>",
                "<w:shd w:val=\"clear\" w:color=\"auto\" w:fill=\"",
                $ground,
                "\"/><w:ind w:left=\"240\"/>"
            ),
            "",
        )
    };
}

/// What all headings share beside their spaces and level.
macro_rules! heading {
    ($id:literal, $name:literal, $level:literal, $before:literal, $after:literal, $size:literal, $more:literal) => {
        paragraph(
            $id,
            $name,
            "Normal",
            9,
            concat!(
                "<w:keepNext/><w:keepLines/><w:spacing w:before=\"",
                $before,
                "\" w:after=\"",
                $after,
                "\" w:line=\"252\" w:lineRule=\"auto\"/>",
                "<w:outlineLvl w:val=\"",
                $level,
                "\"/>"
            ),
            concat!($more, "<w:color w:val=\"17414F\"/><w:sz w:val=\"", $size, "\"/><w:szCs w:val=\"", $size, "\"/>"),
        )
    };
}

macro_rules! list_style {
    ($id:literal, $name:literal, $instance:literal, $level:literal, $indent:literal) => {
        list(
            $id,
            $name,
            concat!(
                "<w:numPr><w:ilvl w:val=\"",
                $level,
                "\"/><w:numId w:val=\"",
                $instance,
                "\"/></w:numPr>",
                "<w:ind w:left=\"",
                $indent,
                "\" w:hanging=\"360\"/><w:contextualSpacing/>"
            ),
        )
    };
}

macro_rules! continued {
    ($id:literal, $name:literal, $indent:literal) => {
        list($id, $name, concat!("<w:ind w:left=\"", $indent, "\"/><w:contextualSpacing/>"))
    };
}

macro_rules! contents {
    ($id:literal, $name:literal, $indent:literal) => {
        BuiltIn {
            is_offered: false,
            ..paragraph(
                $id,
                $name,
                "Normal",
                39,
                concat!(
                    "<w:tabs><w:tab w:val=\"right\" w:leader=\"dot\" w:pos=\"9060\"/></w:tabs><w:spacing w:after=\"60\"/><w:ind w:left=\"", $indent, "\"/>"
                ),
                "",
            )
        }
    };
}

const FIXED: &str = "<w:rFonts w:ascii=\"Consolas\" w:hAnsi=\"Consolas\" w:cs=\"Consolas\"/>";
const BOLD: &str = "<w:b/><w:bCs/>";

/// All of them. The plain paragraph is the first.
pub(super) const STYLES: [BuiltIn; 59] = [
    BuiltIn { based_on: "", ..paragraph("Normal", "Normal", "", 0, "", "") },
    heading!("Heading1", "heading 1", "0", "400", "140", "34", "<w:b/><w:bCs/>"),
    heading!("Heading2", "heading 2", "1", "320", "110", "28", "<w:b/><w:bCs/>"),
    heading!("Heading3", "heading 3", "2", "260", "90", "24", "<w:b/><w:bCs/>"),
    heading!("Heading4", "heading 4", "3", "220", "80", "22", "<w:b/><w:bCs/>"),
    heading!("Heading5", "heading 5", "4", "200", "60", "22", "<w:i/><w:iCs/>"),
    heading!("Heading6", "heading 6", "5", "200", "60", "21", ""),
    heading!("Heading7", "heading 7", "6", "180", "60", "21", "<w:i/><w:iCs/>"),
    heading!("Heading8", "heading 8", "7", "180", "60", "20", ""),
    heading!("Heading9", "heading 9", "8", "180", "60", "20", "<w:i/><w:iCs/>"),
    paragraph(
        "Title",
        "Title",
        "Normal",
        10,
        "<w:keepNext/><w:spacing w:after=\"80\" w:line=\"240\" w:lineRule=\"auto\"/>",
        "<w:b/><w:bCs/><w:color w:val=\"17414F\"/><w:sz w:val=\"52\"/><w:szCs w:val=\"52\"/>",
    ),
    paragraph(
        "Subtitle",
        "Subtitle",
        "Normal",
        11,
        "<w:spacing w:after=\"280\"/>",
        "<w:color w:val=\"52666E\"/><w:sz w:val=\"28\"/><w:szCs w:val=\"28\"/>",
    ),
    paragraph(
        "Quote",
        "Quote",
        "Normal",
        29,
        "<w:pBdr><w:left w:val=\"single\" w:sz=\"18\" w:space=\"10\" w:color=\"B5C6CC\"/></w:pBdr><w:ind w:left=\"567\" w:right=\"567\"/>",
        "<w:color w:val=\"3D4F56\"/>",
    ),
    list_style!("ListBullet", "List Bullet", "1", "0", "360"),
    list_style!("ListBullet2", "List Bullet 2", "1", "1", "720"),
    list_style!("ListBullet3", "List Bullet 3", "1", "2", "1080"),
    list_style!("ListBullet4", "List Bullet 4", "1", "3", "1440"),
    list_style!("ListBullet5", "List Bullet 5", "1", "4", "1800"),
    list_style!("ListNumber", "List Number", "2", "0", "360"),
    list_style!("ListNumber2", "List Number 2", "2", "1", "720"),
    list_style!("ListNumber3", "List Number 3", "2", "2", "1080"),
    list_style!("ListNumber4", "List Number 4", "2", "3", "1440"),
    list_style!("ListNumber5", "List Number 5", "2", "4", "1800"),
    continued!("ListContinue", "List Continue", "360"),
    continued!("ListContinue2", "List Continue 2", "720"),
    continued!("ListContinue3", "List Continue 3", "1080"),
    continued!("ListContinue4", "List Continue 4", "1440"),
    continued!("ListContinue5", "List Continue 5", "1800"),
    paragraph(
        "Caption",
        "caption",
        "Normal",
        35,
        "<w:spacing w:before=\"60\" w:after=\"160\" w:line=\"240\" w:lineRule=\"auto\"/>",
        "<w:i/><w:iCs/><w:color w:val=\"52666E\"/><w:sz w:val=\"19\"/><w:szCs w:val=\"19\"/>",
    ),
    paragraph(
        "HTMLPreformatted",
        "HTML Preformatted",
        "",
        99,
        "<w:keepLines/><w:pBdr><w:top w:val=\"single\" w:sz=\"4\" w:space=\"4\" w:color=\"D5DEE1\"/><w:left w:val=\"single\" w:sz=\"4\" w:space=\"4\" w:color=\"D5DEE1\"/><w:bottom w:val=\"single\" w:sz=\"4\" w:space=\"4\" w:color=\"D5DEE1\"/><w:right w:val=\"single\" w:sz=\"4\" w:space=\"4\" w:color=\"D5DEE1\"/></w:pBdr><w:shd w:val=\"clear\" w:color=\"auto\" w:fill=\"F4F7F8\"/><w:spacing w:before=\"80\" w:after=\"160\" w:line=\"240\" w:lineRule=\"auto\"/>",
        "<w:rFonts w:ascii=\"Consolas\" w:hAnsi=\"Consolas\" w:cs=\"Consolas\"/><w:noProof/><w:sz w:val=\"19\"/><w:szCs w:val=\"19\"/>",
    ),
    paragraph("DefinitionTerm", "Definition Term", "DefinitionList", 38, "<w:keepNext/><w:spacing w:after=\"20\"/>", BOLD),
    paragraph("DefinitionList", "Definition List", "DefinitionTerm", 38, "<w:ind w:left=\"360\"/>", ""),
    paragraph(
        "HorizontalLine",
        "Horizontal Line",
        "Normal",
        38,
        "<w:pBdr><w:bottom w:val=\"single\" w:sz=\"6\" w:space=\"1\" w:color=\"B5C6CC\"/></w:pBdr><w:spacing w:before=\"120\" w:after=\"240\" w:line=\"120\" w:lineRule=\"exact\"/>",
        "",
    ),
    callout!("CalloutNote", "Callout Note", "2F7F96", "EAF4F7"),
    callout!("CalloutTip", "Callout Tip", "3C8C5A", "EBF6EF"),
    callout!("CalloutImportant", "Callout Important", "7A5AA6", "F3EEF9"),
    callout!("CalloutWarning", "Callout Warning", "C08A1E", "FCF5E6"),
    callout!("CalloutCaution", "Callout Caution", "B3473F", "FBECEA"),
    paragraph(
        "FootnoteText",
        "footnote text",
        "",
        99,
        "<w:spacing w:after=\"40\" w:line=\"240\" w:lineRule=\"auto\"/>",
        "<w:sz w:val=\"19\"/><w:szCs w:val=\"19\"/>",
    ),
    paragraph(
        "EndnoteText",
        "endnote text",
        "",
        99,
        "<w:spacing w:after=\"40\" w:line=\"240\" w:lineRule=\"auto\"/>",
        "<w:sz w:val=\"19\"/><w:szCs w:val=\"19\"/>",
    ),
    contents!("TOC1", "toc 1", "0"),
    contents!("TOC2", "toc 2", "240"),
    contents!("TOC3", "toc 3", "480"),
    contents!("TOC4", "toc 4", "720"),
    contents!("TOC5", "toc 5", "960"),
    contents!("TOC6", "toc 6", "1200"),
    list("Header", "header", "<w:spacing w:after=\"0\" w:line=\"240\" w:lineRule=\"auto\"/>"),
    list("Footer", "footer", "<w:spacing w:after=\"0\" w:line=\"240\" w:lineRule=\"auto\"/>"),
    BuiltIn { based_on: "", ..character("DefaultParagraphFont", "Default Paragraph Font", "") },
    character("Hyperlink", "Hyperlink", "<w:color w:val=\"1B6A80\"/><w:u w:val=\"single\"/>"),
    character("FootnoteReference", "footnote reference", "<w:vertAlign w:val=\"superscript\"/>"),
    character("EndnoteReference", "endnote reference", "<w:vertAlign w:val=\"superscript\"/>"),
    character(
        "HTMLCode",
        "HTML Code",
        "<w:rFonts w:ascii=\"Consolas\" w:hAnsi=\"Consolas\" w:cs=\"Consolas\"/><w:noProof/><w:sz w:val=\"20\"/><w:szCs w:val=\"20\"/>",
    ),
    character(
        "HTMLKeyboard",
        "HTML Keyboard",
        "<w:rFonts w:ascii=\"Consolas\" w:hAnsi=\"Consolas\" w:cs=\"Consolas\"/><w:noProof/><w:sz w:val=\"20\"/><w:szCs w:val=\"20\"/>",
    ),
    character("HTMLSample", "HTML Sample", FIXED),
    character("HTMLVariable", "HTML Variable", "<w:i/><w:iCs/>"),
    character("HTMLCite", "HTML Cite", "<w:i/><w:iCs/>"),
    character("HTMLDefinition", "HTML Definition", "<w:i/><w:iCs/>"),
    character("HTMLAcronym", "HTML Acronym", ""),
];

/// What tables and lists are that say nothing.
pub(super) const TABLE_BASE: &str = "<w:style w:type=\"table\" w:default=\"1\" w:styleId=\"TableNormal\"><w:name w:val=\"Normal Table\"/><w:uiPriority w:val=\"99\"/><w:semiHidden/><w:unhideWhenUsed/><w:tblPr><w:tblInd w:w=\"0\" w:type=\"dxa\"/><w:tblCellMar><w:top w:w=\"0\" w:type=\"dxa\"/><w:left w:w=\"108\" w:type=\"dxa\"/><w:bottom w:w=\"0\" w:type=\"dxa\"/><w:right w:w=\"108\" w:type=\"dxa\"/></w:tblCellMar></w:tblPr></w:style><w:style w:type=\"numbering\" w:default=\"1\" w:styleId=\"NoList\"><w:name w:val=\"No List\"/><w:uiPriority w:val=\"99\"/><w:semiHidden/><w:unhideWhenUsed/></w:style>";

/// The style of tables that have none of their own.
pub(super) const TABLE: &str = "<w:style w:type=\"table\" w:styleId=\"TableGridLight\"><w:name w:val=\"Grid Table Light\"/><w:basedOn w:val=\"TableNormal\"/><w:uiPriority w:val=\"40\"/><w:pPr><w:spacing w:before=\"40\" w:after=\"40\" w:line=\"240\" w:lineRule=\"auto\"/></w:pPr><w:tblPr><w:tblBorders><w:top w:val=\"single\" w:sz=\"6\" w:space=\"0\" w:color=\"8FA6AE\"/><w:left w:val=\"single\" w:sz=\"4\" w:space=\"0\" w:color=\"C9D5D9\"/><w:bottom w:val=\"single\" w:sz=\"6\" w:space=\"0\" w:color=\"8FA6AE\"/><w:right w:val=\"single\" w:sz=\"4\" w:space=\"0\" w:color=\"C9D5D9\"/><w:insideH w:val=\"single\" w:sz=\"4\" w:space=\"0\" w:color=\"C9D5D9\"/><w:insideV w:val=\"single\" w:sz=\"4\" w:space=\"0\" w:color=\"C9D5D9\"/></w:tblBorders></w:tblPr>\
<w:tblStylePr w:type=\"firstRow\"><w:rPr><w:b/><w:bCs/></w:rPr><w:tblPr/><w:tcPr><w:tcBorders><w:bottom w:val=\"single\" w:sz=\"8\" w:space=\"0\" w:color=\"5F7D88\"/></w:tcBorders><w:shd w:val=\"clear\" w:color=\"auto\" w:fill=\"EAF1F3\"/></w:tcPr></w:tblStylePr><w:tblStylePr w:type=\"firstCol\"><w:rPr><w:b/><w:bCs/></w:rPr></w:tblStylePr></w:style>";

/// The style of tables whose lines the source says: it marks heads.
pub(super) const PLAIN_TABLE: &str = "<w:style w:type=\"table\" w:customStyle=\"1\" w:styleId=\"TablePlain\"><w:name w:val=\"Table Plain\"/><w:basedOn w:val=\"TableNormal\"/><w:uiPriority w:val=\"40\"/><w:pPr><w:spacing w:before=\"0\" w:after=\"0\"/></w:pPr>\
<w:tblStylePr w:type=\"firstRow\"><w:rPr><w:b/><w:bCs/></w:rPr></w:tblStylePr><w:tblStylePr w:type=\"firstCol\"><w:rPr><w:b/><w:bCs/></w:rPr></w:tblStylePr></w:style>";
