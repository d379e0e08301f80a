//! A small writer of Word packages for the tests and the demo: the markup of the parts is given as text.

use std::io::{Cursor, Write};
use zip::write::SimpleFileOptions;
use zip::{CompressionMethod, ZipWriter};

/// Declarations of the namespaces that the parts use.
const NAMESPACES: &str = concat!(
    r#" xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main""#,
    r#" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships""#,
    r#" xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math""#,
    r#" xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006""#,
    r#" xmlns:wp="http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing""#,
    r#" xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main""#,
    r#" xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture""#,
    r#" xmlns:wps="http://schemas.microsoft.com/office/word/2010/wordprocessingShape""#,
    r#" xmlns:v="urn:schemas-microsoft-com:vml" xmlns:o="urn:schemas-microsoft-com:office:office""#,
);

const TYPES: &str = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/";

/// A package to be.
#[derive(Clone, Debug, Default)]
pub struct Package {
    pub body: String,
    pub styles: String,
    pub numbering: String,
    pub footnotes: String,
    pub endnotes: String,
    pub comments: String,
    pub header: String,
    pub footer: String,
    pub theme: String,
    /// The elements of the properties of the package.
    pub properties: String,
    /// Name, type and target of relations to something outside.
    pub links: Vec<(String, String)>,
    /// File names and bytes of pictures; each has a relation of its file name.
    pub pictures: Vec<(String, Vec<u8>)>,
}

impl Package {
    pub fn of(body: &str) -> Self {
        Self { body: body.to_owned(), ..Self::default() }
    }

    /// The parts by their names.
    pub fn parts(&self) -> Vec<(String, Vec<u8>)> {
        let part = |root: &str, content: &str| {
            format!("<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n<w:{root}{NAMESPACES}>{content}</w:{root}>")
        };
        let mut parts = vec![("word/document.xml".to_owned(), part("document", &format!("<w:body>{}</w:body>", self.body)))];
        let mut relations = String::new();
        let mut types = String::new();
        for (name, kind, root, content) in [
            ("styles", "styles", "styles", &self.styles),
            ("numbering", "numbering", "numbering", &self.numbering),
            ("footnotes", "footnotes", "footnotes", &self.footnotes),
            ("endnotes", "endnotes", "endnotes", &self.endnotes),
            ("comments", "comments", "comments", &self.comments),
            ("header1", "header", "hdr", &self.header),
            ("footer1", "footer", "ftr", &self.footer),
        ] {
            if content.is_empty() {
                continue;
            }
            parts.push((format!("word/{name}.xml"), part(root, content)));
            relations += &format!("<Relationship Id=\"{name}\" Type=\"{TYPES}{kind}\" Target=\"{name}.xml\"/>");
            types += &format!(
                "<Override PartName=\"/word/{name}.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.wordprocessingml.{kind}+xml\"/>"
            );
        }
        if !self.theme.is_empty() {
            let theme = format!(
                "<a:theme xmlns:a=\"http://schemas.openxmlformats.org/drawingml/2006/main\" name=\"Station\"><a:themeElements>{}</a:themeElements></a:theme>",
                self.theme
            );
            parts.push(("word/theme/theme1.xml".to_owned(), theme));
            relations += &format!("<Relationship Id=\"theme\" Type=\"{TYPES}theme\" Target=\"theme/theme1.xml\"/>");
            types += "<Override PartName=\"/word/theme/theme1.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.theme+xml\"/>";
        }
        for (name, target) in &self.links {
            relations +=
                &format!("<Relationship Id=\"{name}\" Type=\"{TYPES}hyperlink\" Target=\"{target}\" TargetMode=\"External\"/>");
        }
        for (name, _) in &self.pictures {
            relations += &format!("<Relationship Id=\"{name}\" Type=\"{TYPES}image\" Target=\"media/{name}\"/>");
        }
        let of_relations = |content: &str| {
            format!(
                "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\">{content}</Relationships>"
            )
        };
        parts.push(("word/_rels/document.xml.rels".to_owned(), of_relations(&relations)));
        let mut top = format!("<Relationship Id=\"main\" Type=\"{TYPES}officeDocument\" Target=\"word/document.xml\"/>");
        if !self.properties.is_empty() {
            parts.push((
                "docProps/core.xml".to_owned(),
                format!(
                    "<cp:coreProperties xmlns:cp=\"http://schemas.openxmlformats.org/package/2006/metadata/core-properties\" xmlns:dc=\"http://purl.org/dc/elements/1.1/\" xmlns:dcterms=\"http://purl.org/dc/terms/\" xmlns:xsi=\"http://www.w3.org/2001/XMLSchema-instance\">{}</cp:coreProperties>",
                    self.properties
                ),
            ));
            top += "<Relationship Id=\"core\" Type=\"http://schemas.openxmlformats.org/package/2006/relationships/metadata/core-properties\" Target=\"docProps/core.xml\"/>";
            types += "<Override PartName=\"/docProps/core.xml\" ContentType=\"application/vnd.openxmlformats-package.core-properties+xml\"/>";
        }
        parts.insert(0, ("_rels/.rels".to_owned(), of_relations(&top)));
        let types = format!(
            "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/><Default Extension=\"xml\" ContentType=\"application/xml\"/><Default Extension=\"png\" ContentType=\"image/png\"/><Override PartName=\"/word/document.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml\"/>{types}</Types>"
        );
        parts.insert(0, ("[Content_Types].xml".to_owned(), types));
        let mut parts: Vec<(String, Vec<u8>)> = parts.into_iter().map(|(name, text)| (name, text.into_bytes())).collect();
        parts.extend(self.pictures.iter().map(|(name, bytes)| (format!("word/media/{name}"), bytes.clone())));
        parts
    }

    /// The package as a file.
    pub fn bytes(&self) -> Vec<u8> {
        archive(&self.parts())
    }
}

/// An archive of files, the same bytes each time.
pub fn archive(files: &[(String, Vec<u8>)]) -> Vec<u8> {
    packed(files, CompressionMethod::Deflated)
}

/// An archive of files that are not compressed.
pub fn stored(files: &[(String, Vec<u8>)]) -> Vec<u8> {
    packed(files, CompressionMethod::Stored)
}

fn packed(files: &[(String, Vec<u8>)], method: CompressionMethod) -> Vec<u8> {
    let mut archive = ZipWriter::new(Cursor::new(Vec::new()));
    let options = SimpleFileOptions::default().compression_method(method).last_modified_time(zip::DateTime::default());
    for (name, bytes) in files {
        archive.start_file(name.as_str(), options).unwrap();
        archive.write_all(bytes).unwrap();
    }
    archive.finish().unwrap().into_inner()
}

/// Text as it stands in markup.
pub fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}

/// A run with properties.
pub fn run(properties: &str, text: &str) -> String {
    let properties = if properties.is_empty() { String::new() } else { format!("<w:rPr>{properties}</w:rPr>") };
    format!("<w:r>{properties}<w:t xml:space=\"preserve\">{}</w:t></w:r>", escaped(text))
}

/// A run without.
pub fn text(text: &str) -> String {
    run("", text)
}

/// A paragraph with properties around its content.
pub fn paragraph(properties: &str, content: &str) -> String {
    let properties = if properties.is_empty() { String::new() } else { format!("<w:pPr>{properties}</w:pPr>") };
    format!("<w:p>{properties}{content}</w:p>")
}

/// A paragraph of text in a style.
pub fn styled(style: &str, words: &str) -> String {
    paragraph(&format!("<w:pStyle w:val=\"{style}\"/>"), &text(words))
}

/// A paragraph of text.
pub fn plain(words: &str) -> String {
    paragraph("", &text(words))
}

/// An item of a list.
pub fn item(list: u32, level: u32, words: &str) -> String {
    paragraph(&format!("<w:numPr><w:ilvl w:val=\"{level}\"/><w:numId w:val=\"{list}\"/></w:numPr>"), &text(words))
}

/// A cell with properties around its content.
pub fn cell(properties: &str, content: &str) -> String {
    format!("<w:tc><w:tcPr>{properties}</w:tcPr>{content}</w:tc>")
}

/// A row of cells.
pub fn row(properties: &str, cells: &[String]) -> String {
    let properties = if properties.is_empty() { String::new() } else { format!("<w:trPr>{properties}</w:trPr>") };
    format!("<w:tr>{properties}{}</w:tr>", cells.concat())
}

/// A table on a grid.
pub fn table(properties: &str, grid: &[u32], rows: &[String]) -> String {
    let columns: String = grid.iter().map(|width| format!("<w:gridCol w:w=\"{width}\"/>")).collect();
    format!("<w:tbl><w:tblPr>{properties}</w:tblPr><w:tblGrid>{columns}</w:tblGrid>{}</w:tbl>", rows.concat())
}

/// A picture in the line, so many pixels large.
pub fn picture(name: &str, alt: &str, width: u32, height: u32) -> String {
    let (cx, cy) = (width * 9525, height * 9525);
    format!(
        "<w:r><w:drawing><wp:inline><wp:extent cx=\"{cx}\" cy=\"{cy}\"/><wp:docPr id=\"1\" name=\"Picture\" descr=\"{alt}\"/><a:graphic><a:graphicData uri=\"http://schemas.openxmlformats.org/drawingml/2006/picture\"><pic:pic><pic:nvPicPr><pic:cNvPr id=\"1\" name=\"{name}\"/><pic:cNvPicPr/></pic:nvPicPr><pic:blipFill><a:blip r:embed=\"{name}\"/><a:stretch><a:fillRect/></a:stretch></pic:blipFill><pic:spPr><a:xfrm><a:off x=\"0\" y=\"0\"/><a:ext cx=\"{cx}\" cy=\"{cy}\"/></a:xfrm><a:prstGeom prst=\"rect\"><a:avLst/></a:prstGeom></pic:spPr></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r>"
    )
}

/// A field with its result, over runs of its own.
pub fn field(instruction: &str, result: &str) -> String {
    format!(
        "<w:r><w:fldChar w:fldCharType=\"begin\"/></w:r><w:r><w:instrText xml:space=\"preserve\"> {} </w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"separate\"/></w:r>{result}<w:r><w:fldChar w:fldCharType=\"end\"/></w:r>",
        escaped(instruction)
    )
}

/// A style of paragraphs.
pub fn style(id: &str, name: &str, based_on: &str, paragraph: &str, characters: &str) -> String {
    let default = if name == "Normal" { " w:default=\"1\"" } else { "" };
    let based_on = if based_on.is_empty() { String::new() } else { format!("<w:basedOn w:val=\"{based_on}\"/>") };
    format!(
        "<w:style w:type=\"paragraph\"{default} w:styleId=\"{id}\"><w:name w:val=\"{name}\"/>{based_on}<w:pPr>{paragraph}</w:pPr><w:rPr>{characters}</w:rPr></w:style>"
    )
}

/// The levels of a definition, by format and text; each is set in further.
pub fn levels(levels: &[(&str, &str)]) -> String {
    levels
        .iter()
        .enumerate()
        .map(|(index, (format, shown))| {
            let left = 720 * (index + 1);
            format!(
                "<w:lvl w:ilvl=\"{index}\"><w:start w:val=\"1\"/><w:numFmt w:val=\"{format}\"/><w:lvlText w:val=\"{shown}\"/><w:pPr><w:ind w:left=\"{left}\" w:hanging=\"360\"/></w:pPr></w:lvl>"
            )
        })
        .collect()
}

/// Numbering of definitions by their numbers, each with one instance of the same number.
pub fn numbering(definitions: &[(u32, String)]) -> String {
    let all = definitions.iter().map(|(id, levels)| format!("<w:abstractNum w:abstractNumId=\"{id}\">{levels}</w:abstractNum>"));
    let instances =
        definitions.iter().map(|(id, _)| format!("<w:num w:numId=\"{id}\"><w:abstractNumId w:val=\"{id}\"/></w:num>"));
    all.chain(instances).collect()
}
