//! The feed of a site (RFC 4287): its newest dated documents.

use super::{Site, SitePage};
use crate::error::Error;
use crate::publish::hash::Hash;
use crate::publish::paths;
use jiff::civil::{Date, DateTime};
use quick_xml::Writer;
use quick_xml::events::{BytesDecl, BytesText, Event};

pub(super) const FEED: &str = "feed.xml";
/// The page that lists the entries of the feed.
pub(super) const ENTRIES: &str = "entries.html";

/// When a document is of: a day, or a moment in universal time.
pub(super) type Moment = DateTime;

/// The moment that a date in a document's metadata means: a day as in 2031-03-05, or a day and a time (RFC 3339).
pub(super) fn moment(text: &str) -> Option<Moment> {
    let text = text.trim();
    if let Ok(moment) = text.parse::<jiff::Timestamp>() {
        return Some(moment.to_zoned(jiff::tz::TimeZone::UTC).datetime());
    }
    if text.len() > 10
        && let Ok(moment) = text.parse::<DateTime>()
    {
        return Some(moment);
    }
    text.get(..10).filter(|_| text.len() == 10)?.parse::<Date>().ok().map(|day| day.at(0, 0, 0, 0))
}

/// As the feed writes it.
fn written(moment: Moment) -> String {
    moment.strftime("%Y-%m-%dT%H:%M:%SZ").to_string()
}

/// A name for good: it is made of where something is in the site, and stays when the site moves.
fn urn(of: &str) -> String {
    let mut bytes = Hash::of_parts([b"obblet feed".as_slice(), of.as_bytes()]).bytes();
    // A UUID of version 8 (RFC 9562, section 5.8).
    bytes[6] = bytes[6] & 0x0F | 0x80;
    bytes[8] = bytes[8] & 0x3F | 0x80;
    let digits: String = bytes.iter().map(|byte| format!("{byte:02x}")).collect();
    format!("urn:uuid:{}-{}-{}-{}-{}", &digits[..8], &digits[8..12], &digits[12..16], &digits[16..20], &digits[20..])
}

fn element(writer: &mut Writer<Vec<u8>>, name: &str, text: &str) -> Result<(), std::io::Error> {
    // XML has no place for other control characters.
    let text: String = text.chars().filter(|c| !c.is_control() || matches!(c, '\n' | '\t')).collect();
    writer.create_element(name).write_text_content(BytesText::new(&text)).map(|_| ())
}

impl Site {
    /// The feed, where there is anything to put into it. `base` is the address of the site; without one, addresses count from
    /// the feed.
    pub(super) fn feed(&self, base: &str, most: usize) -> Result<Option<Vec<u8>>, Error> {
        let entries = self.dated(most);
        let Some((_, newest)) = entries.first() else { return Ok(None) };
        let write = || -> Result<Vec<u8>, std::io::Error> {
            let mut writer = Writer::new_with_indent(Vec::new(), b' ', 2);
            writer.write_event(Event::Decl(BytesDecl::new("1.0", Some("utf-8"), None)))?;
            let mut feed = writer.create_element("feed").with_attribute(("xmlns", "http://www.w3.org/2005/Atom"));
            if !self.language.is_empty() {
                feed = feed.with_attribute(("xml:lang", self.language.as_str()));
            }
            feed.write_inner_content(|writer| {
                element(writer, "title", if self.title.is_empty() { "Untitled" } else { &self.title })?;
                element(writer, "id", &urn(""))?;
                element(writer, "updated", &written(*newest))?;
                let address = |path: &str| paths::full_address(base, path);
                for (relation, path) in [("self", FEED), ("alternate", ENTRIES)] {
                    let link = writer.create_element("link").with_attributes([("rel", relation), ("href", &address(path))]);
                    link.write_empty()?;
                }
                for (page, moment) in &entries {
                    self.entry(writer, page, *moment, &address(&page.output))?;
                }
                Ok(())
            })?;
            let mut bytes = writer.into_inner();
            bytes.push(b'\n');
            Ok(bytes)
        };
        write().map(Some).map_err(|cause| Error::File { path: FEED.to_owned(), cause })
    }

    fn entry(&self, writer: &mut Writer<Vec<u8>>, page: &SitePage, moment: Moment, address: &str) -> Result<(), std::io::Error> {
        writer.create_element("entry").write_inner_content(|writer| {
            element(writer, "title", &page.title)?;
            element(writer, "id", &urn(&page.output))?;
            element(writer, "updated", &written(moment))?;
            writer.create_element("link").with_attributes([("rel", "alternate"), ("href", address)]).write_empty()?;
            // An entry or its feed has an author.
            let site = [self.title.clone()];
            let authors = if page.authors.is_empty() { site.as_slice() } else { page.authors.as_slice() };
            for author in authors {
                writer.create_element("author").write_inner_content(|writer| element(writer, "name", author))?;
            }
            if !page.description.is_empty() {
                element(writer, "summary", &page.description)?;
            }
            Ok(())
        })?;
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn days_and_moments_are_understood() {
        let of = |text: &str| moment(text).map(written);
        assert_eq!(of("2031-03-05").as_deref(), Some("2031-03-05T00:00:00Z"));
        assert_eq!(of(" 2031-03-05T06:12:00+02:00 ").as_deref(), Some("2031-03-05T04:12:00Z"));
        assert_eq!(of("2031-03-05 06:12:00").as_deref(), Some("2031-03-05T06:12:00Z"));
        for text in ["", "March 2031", "2031-13-01", "2031-02-30", "05.03.2031"] {
            assert_eq!(of(text), None, "{text}");
        }
        assert_eq!(urn("a.html").len(), "urn:uuid:".len() + 36);
        assert_ne!(urn("a.html"), urn("b.html"));
    }
}
