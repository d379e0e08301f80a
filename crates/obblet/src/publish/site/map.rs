//! The site map: all addresses of a site, for those that search it.

use super::{Site, feed};
use crate::publish::paths;
use quick_xml::escape::escape;

/// So many addresses may stand in one map, by its standard.
const MOST: usize = 50_000;

const NAMESPACE: &str = "http://www.sitemaps.org/schemas/sitemap/0.9";

impl Site {
    /// The maps of a site that will be at `base`, with their names: one, or several and one that names them.
    pub(super) fn maps(&self, base: &str, outputs: &[(String, String)]) -> Vec<(String, Vec<u8>)> {
        let entry = |(output, date): &(String, String)| {
            let address = paths::full_address(base, output);
            let date = feed::moment(date).map(|moment| format!("<lastmod>{}</lastmod>", moment.date())).unwrap_or_default();
            format!("  <url><loc>{}</loc>{date}</url>\n", escape(address.as_str()))
        };
        let map = |entries: &[(String, String)]| {
            let entries: String = entries.iter().map(entry).collect();
            format!("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<urlset xmlns=\"{NAMESPACE}\">\n{entries}</urlset>\n")
                .into_bytes()
        };
        if outputs.len() <= MOST {
            return vec![("sitemap.xml".to_owned(), map(outputs))];
        }
        let mut maps: Vec<(String, Vec<u8>)> =
            outputs.chunks(MOST).enumerate().map(|(index, chunk)| (format!("sitemap-{}.xml", index + 1), map(chunk))).collect();
        let named: String = maps
            .iter()
            .map(|(name, _)| format!("  <sitemap><loc>{}</loc></sitemap>\n", escape(format!("{base}{name}").as_str())))
            .collect();
        let index =
            format!("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n<sitemapindex xmlns=\"{NAMESPACE}\">\n{named}</sitemapindex>\n");
        maps.push(("sitemap.xml".to_owned(), index.into_bytes()));
        maps
    }
}
