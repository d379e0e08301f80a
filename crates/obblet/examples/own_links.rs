//! Links and images with addresses of one's own: `cargo run --example own_links`.
#![allow(clippy::print_stdout, reason = "an example shows its result")]

use obblet::document::Place;
use obblet::{Context, Error, Format, LinkResolver, LinkTarget, convert_in, profile::Profile};

/// Pages of a system that knows them by numbers.
struct Pages;

impl LinkResolver for Pages {
    fn resolve(&self, address: &str, _at: Place) -> LinkTarget {
        match address {
            "tables.md" => LinkTarget::Rewritten("/page/17".to_owned()),
            other if other.ends_with(".md") => LinkTarget::Missing { nearest: Some("tables.md".to_owned()) },
            _ => LinkTarget::Unchanged,
        }
    }

    fn resolve_image(&self, address: &str, _at: Place) -> LinkTarget {
        LinkTarget::Rewritten(format!("/image/{address}"))
    }
}

fn main() -> Result<(), Error> {
    let source = b"See the [tables](tables.md) and the [log](lgo.md).\n\n![The staff](staff.png)\n";
    let context = Context { links: Some(&Pages), ..Context::default() };
    let converted = convert_in(source, Format::Markdown, Format::Html, &Profile::fragment(), &context)?;
    print!("{}", converted.text().unwrap_or_default());
    for finding in &converted.findings {
        println!("{} {}; {}", finding.place, finding.message, finding.hint);
    }
    Ok(())
}
