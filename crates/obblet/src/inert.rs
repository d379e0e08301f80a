//! Whether a file that comes along with pages could run where they lie: in a reader's browser, with the rights of the site, or
//! on the server.

use crate::file_name;
use crate::picture;
use quick_xml::Reader;
use quick_xml::events::Event;

/// How a file comes along.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Coming {
    /// As it is.
    AsItIs,
    /// As a drawing that is cleaned.
    Drawing,
    /// Not at all, for this reason.
    Not(&'static str),
}

/// So many bytes at the beginning of a file say whether browsers take it for markup (WHATWG MIME Sniffing, section 5.2).
pub(crate) const LOOKED_AT: usize = 1445;

/// Extensions of what servers run.
const ON_SERVERS: [&str; 26] = [
    "asa", "asax", "ascx", "ashx", "asmx", "asp", "aspx", "cfc", "cfm", "cgi", "fcgi", "htaccess", "htpasswd", "jsp", "jspf",
    "jspx", "jsw", "shtm", "shtml", "stm", "pl", "dll", "cer", "cdx", "vbhtml", "cshtml",
];

/// Extensions of what browsers show as pages, whatever is in it.
const IN_BROWSERS: [&str; 17] = [
    "htm", "html", "xhtml", "xht", "xhtm", "mht", "mhtml", "hta", "htc", "htx", "xsl", "xslt", "xbl", "swf", "svgz", "wml", "hxt",
];

/// Extensions of what servers call something that browsers show as text or as a picture, or do not show at all.
const NEVER_MARKUP: [&str; 40] = [
    "avif", "bib", "bmp", "bz2", "css", "csv", "docx", "eot", "epub", "gif", "gz", "ico", "ics", "jpeg", "jpg", "js", "json",
    "m4a", "md", "mp3", "mp4", "odt", "ogg", "otf", "pdf", "png", "pptx", "sty", "tar", "tex", "tif", "tiff", "tsv", "ttf",
    "txt", "vtt", "webm", "webp", "xlsx", "zip",
];

/// Extensions of data in XML. Without one of them, what does not say that it is XML may be taken for HTML.
const IN_XML: [&str; 12] = ["atom", "dtd", "gpx", "kml", "opml", "owl", "plist", "rdf", "rng", "rss", "xml", "xsd"];

/// Whether bytes say that they are XML.
fn is_declared(bytes: &[u8]) -> bool {
    bytes.strip_prefix(b"\xEF\xBB\xBF").unwrap_or(bytes).starts_with(b"<?xml ")
}

fn extension(name: &str) -> String {
    name.rsplit_once('.').map(|(_, extension)| extension.to_ascii_lowercase()).unwrap_or_default()
}

/// How a file of a name comes along, by its first bytes; `whole` gives all of them.
pub(crate) fn coming<E>(name: &str, start: &[u8], whole: impl FnOnce() -> Result<Vec<u8>, E>) -> Result<Coming, E> {
    let name = name.rsplit('/').next().unwrap_or(name);
    let extension = extension(name);
    let extension = extension.as_str();
    if file_name::has_running_part(name)
        || ON_SERVERS.contains(&extension)
        || matches!(name.to_ascii_lowercase().as_str(), "web.config")
    {
        return Ok(Coming::Not("servers run files of its name"));
    }
    if IN_BROWSERS.contains(&extension) {
        return Ok(Coming::Not("browsers show files of its name as pages, and run what is in them"));
    }
    if extension == "svg" {
        return Ok(Coming::Drawing);
    }
    if NEVER_MARKUP.contains(&extension) || !is_markup(start) {
        return Ok(Coming::AsItIs);
    }
    let bytes = whole()?;
    Ok(if picture::is_drawing(&bytes) {
        Coming::Drawing
    } else if (IN_XML.contains(&extension) || is_declared(&bytes)) && is_data(&bytes) {
        Coming::AsItIs
    } else {
        Coming::Not("its bytes are markup, which browsers may show as a page")
    })
}

/// Whether bytes begin as markup does.
fn is_markup(start: &[u8]) -> bool {
    let start = &start[..start.len().min(LOOKED_AT)];
    let text = match encoding_rs::Encoding::for_bom(start) {
        Some((encoding, length)) => encoding.decode_without_bom_handling(&start[length..]).0,
        None => String::from_utf8_lossy(start),
    };
    // Without a mark, wide characters have a zero beside each.
    text.trim_start_matches(|c: char| c.is_whitespace() || c == '\0').starts_with('<')
}

/// Whether bytes are XML that holds nothing but data: no elements of HTML or of drawings, no style sheet, no document type.
fn is_data(bytes: &[u8]) -> bool {
    let Ok(text) = std::str::from_utf8(bytes.strip_prefix(b"\xEF\xBB\xBF").unwrap_or(bytes)) else { return false };
    let mut reader = Reader::from_str(text);
    let mut has_root = false;
    loop {
        match reader.read_event() {
            Ok(Event::Eof) => return has_root,
            Ok(Event::Start(tag) | Event::Empty(tag)) => {
                has_root = true;
                for attribute in tag.attributes().with_checks(false) {
                    let Ok(attribute) = attribute else { return false };
                    let key = attribute.key.as_ref();
                    if key == "xmlns" || key.starts_with("xmlns:") {
                        let Ok(value) = quick_xml::escape::unescape(&attribute.value) else { return false };
                        let value = value.to_ascii_lowercase();
                        if ["xhtml", "svg", "xsl/", "mathml", "xul", "xbl"].iter().any(|of| value.contains(of)) {
                            return false;
                        }
                    }
                }
                // Without a namespace it is an element of HTML to those who guess.
                let name = tag.name();
                if !has_namespace(name.as_ref())
                    && ["html", "script", "svg"].contains(&name.as_ref().to_ascii_lowercase().as_str())
                {
                    return false;
                }
            }
            Ok(Event::Decl(declaration)) => {
                let encoding = declaration.encoding().and_then(Result::ok);
                if encoding.is_some_and(|encoding| !encoding.eq_ignore_ascii_case("utf-8")) {
                    return false;
                }
            }
            Ok(Event::DocType(_) | Event::PI(_)) | Err(_) => return false,
            Ok(_) => {}
        }
    }
}

fn has_namespace(name: &str) -> bool {
    name.contains(':')
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_could_run_does_not_come_along() {
        let of = |name: &str, bytes: &[u8]| coming(name, bytes, || Ok::<_, ()>(bytes.to_vec())).unwrap();
        for (name, bytes) in [
            ("a.csv", "x,y"),
            ("a.txt", "<html><script>a()</script>"),
            ("b/data.xml", "<?xml version=\"1.0\" encoding=\"UTF-8\"?><data><x>1</x></data>"),
            ("track.gpx", "<gpx xmlns=\"http://www.topografix.com/GPX/1/1\"><wpt/></gpx>"),
            ("Makefile", "all:\n"),
            ("tides.py", "print(1)"),
            ("report.pdf", "%PDF"),
        ] {
            assert_eq!(of(name, bytes.as_bytes()), Coming::AsItIs, "{name}");
        }
        for (name, bytes) in [
            ("a.xhtml", ""),
            ("a.HTM", ""),
            ("x.svgz", "\x1F"),
            ("x.php", ""),
            ("x.php.csv", ""),
            ("x.shtml", ""),
            ("web.config", ""),
            ("a.xml", "<a xmlns:h=\"http://www.w3.org/1999/xhtml\"><h:script/></a>"),
            ("a.xml", "<a xmlns:h=\"http://www.w3.org/1999/&#120;html\"><h:script/></a>"),
            ("a.xml", "<?xml-stylesheet href=\"a.xsl\"?><a/>"),
            ("a.xml", "<!DOCTYPE a [<!ATTLIST a xmlns CDATA #FIXED 'x'>]><a/>"),
            ("a.xml", "<?xml version=\"1.0\" encoding=\"UTF-7\"?><a/>"),
            ("a.xml", "<a><b></a>"),
            ("notes", " \n<!-- x --><script>a()</script>"),
            ("notes", "\u{FEFF}<h1>x</h1>"),
            ("notes.unknown", "<p onclick=\"a()\">x"),
        ] {
            assert!(matches!(of(name, bytes.as_bytes()), Coming::Not(_)), "{name}: {bytes}");
        }
        for (name, bytes) in [("a.svg", "x"), ("drawing", "<svg><script/></svg>"), ("a.xml", "<?xml version=\"1.0\"?><svg/>")] {
            assert_eq!(of(name, bytes.as_bytes()), Coming::Drawing, "{name}");
        }
        let wide: Vec<u8> = "<script>".encode_utf16().flat_map(u16::to_le_bytes).collect();
        assert!(matches!(of("notes", &[&b"\xFF\xFE"[..], &wide].concat()), Coming::Not(_)));
        assert!(matches!(of("notes", &wide), Coming::Not(_)));
    }
}
