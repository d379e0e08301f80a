//! SVG files: their size, and without what can run.

use crate::map::HashMap;
use quick_xml::events::{BytesStart, BytesText, Event};
use quick_xml::{Reader, Writer};

/// Elements that run script, load pages, or change other elements' addresses.
const RUNNING: [&str; 8] = ["script", "foreignobject", "iframe", "embed", "object", "handler", "listener", "set"];

/// Width and height in CSS pixels.
pub(super) fn size(bytes: &[u8]) -> Option<(usize, usize)> {
    let text = std::str::from_utf8(bytes).ok()?;
    let mut reader = Reader::from_str(text);
    for _ in 0..64 {
        match reader.read_event().ok()? {
            Event::Start(tag) | Event::Empty(tag) => {
                if tag.local_name().as_ref() != "svg" {
                    return None;
                }
                let get = |name: &str| tag.try_get_attribute(name).ok().flatten().map(|value| value.value.into_owned());
                let length = |name: &str| get(name).and_then(|value| value.trim().trim_end_matches("px").parse::<f64>().ok());
                let view = get("viewBox").unwrap_or_default();
                let view: Vec<f64> = view.split([' ', ',']).filter_map(|part| part.parse().ok()).collect();
                let (width, height) = match (length("width"), length("height"), view.as_slice()) {
                    (Some(width), Some(height), _) => (width, height),
                    (_, _, [_, _, width, height]) => (*width, *height),
                    _ => return None,
                };
                return Some((width.round() as usize, height.round() as usize));
            }
            Event::Eof => return None,
            _ => {}
        }
    }
    None
}

/// Entities that a drawing declares, as drawing programs do for the names of their namespaces. Those that hold markup or
/// others are none.
type Entities = HashMap<String, String>;

fn entities(declarations: &str) -> Entities {
    let mut found = Entities::default();
    for declaration in declarations.split("<!ENTITY").skip(1).take(MOST_ENTITIES) {
        let Some((name, rest)) = declaration.trim_start().split_once(char::is_whitespace) else { continue };
        let rest = rest.trim_start();
        let Some(quote) = rest.chars().next().filter(|c| matches!(c, '"' | '\'')) else { continue };
        let Some((value, _)) = rest[1..].split_once(quote) else { continue };
        if value.len() <= LONGEST_ENTITY && !value.contains(['&', '<', '%']) {
            found.entry(name.to_owned()).or_insert_with(|| value.to_owned());
        }
    }
    found
}

/// A drawing declares no more entities than this, and no longer ones.
const MOST_ENTITIES: usize = 100;
const LONGEST_ENTITY: usize = 300;

/// The same drawing without script, handlers, addresses that run, and entity declarations.
pub(crate) fn clean(bytes: &[u8]) -> Result<Vec<u8>, String> {
    let text = std::str::from_utf8(bytes).map_err(|_| "it is not UTF-8".to_owned())?;
    let mut reader = Reader::from_str(text);
    let mut writer = Writer::new(Vec::with_capacity(bytes.len()));
    let mut skipping = 0_usize;
    let mut in_style = false;
    let mut declared = Entities::default();
    loop {
        let event = reader.read_event().map_err(|error| error.to_string())?;
        match event {
            Event::Eof => break,
            Event::DocType(declarations) => declared = entities(declarations.as_ref()),
            Event::PI(_) => {}
            Event::Start(tag) if skipping > 0 || runs(&tag) => {
                let _ = tag;
                skipping += 1;
            }
            Event::End(_) if skipping > 0 => skipping -= 1,
            Event::Empty(tag) if skipping > 0 || runs(&tag) => drop(tag),
            _ if skipping > 0 => {}
            // Rules that load something have no place in a drawing that stands for itself.
            Event::Text(text) if in_style && loads(&text) => {}
            Event::CData(text) if in_style && loads(&text) => {}
            Event::Start(tag) => {
                in_style = tag.local_name().as_ref().eq_ignore_ascii_case("style");
                write(&mut writer, Event::Start(without_handlers(&tag, &declared)?))?;
            }
            Event::End(tag) => {
                in_style = false;
                write(&mut writer, Event::End(tag))?;
            }
            Event::Empty(tag) => write(&mut writer, Event::Empty(without_handlers(&tag, &declared)?))?,
            // The five references that XML defines, and what others stand for.
            Event::GeneralRef(reference) => {
                let name: &str = reference.as_ref();
                if name.starts_with('#') || matches!(name, "amp" | "lt" | "gt" | "quot" | "apos") {
                    write(&mut writer, Event::GeneralRef(reference))?;
                } else if let Some(value) = declared.get(name).filter(|_| !in_style) {
                    write(&mut writer, Event::Text(BytesText::new(value)))?;
                }
            }
            other => write(&mut writer, other)?,
        }
    }
    Ok(writer.into_inner())
}

fn write(writer: &mut Writer<Vec<u8>>, event: Event<'_>) -> Result<(), String> {
    writer.write_event(event).map_err(|error| error.to_string())
}

/// Whether style rules reach out of the drawing.
fn loads(rules: &str) -> bool {
    let rules: String =
        rules.chars().filter(|c| !c.is_whitespace() && !matches!(c, '"' | '\'')).collect::<String>().to_lowercase();
    let outside = rules.split("url(").skip(1).any(|address| !address.starts_with('#'));
    outside || ["@import", "javascript", "expression(", "\\", "&"].iter().any(|sign| rules.contains(sign))
}

fn runs(tag: &BytesStart<'_>) -> bool {
    let name = tag.local_name().as_ref().to_lowercase();
    let animates_address = matches!(name.as_str(), "animate" | "animatetransform" | "animatemotion")
        && tag.attributes().flatten().any(|attribute| {
            attribute.key.local_name().as_ref() == "attributeName" && attribute.value.to_ascii_lowercase().ends_with("href")
        });
    animates_address || RUNNING.contains(&name.as_str())
}

fn without_handlers(tag: &BytesStart<'_>, declared: &Entities) -> Result<BytesStart<'static>, String> {
    let name = tag.name().as_ref().to_owned();
    let mut clean = BytesStart::new(name);
    for attribute in tag.attributes() {
        let attribute = attribute.map_err(|error| error.to_string())?;
        let local = attribute.key.local_name().as_ref().to_lowercase();
        let value = attribute.value.clone().into_owned();
        let meaning =
            |name: &str| quick_xml::escape::resolve_predefined_entity(name).or_else(|| declared.get(name).map(String::as_str));
        // What can't be known can't be written either.
        let Ok(resolved) = quick_xml::escape::unescape_with(&value, meaning) else { continue };
        let leads = matches!(local.as_str(), "href" | "src" | "base" | "from" | "to" | "values");
        let is_safe = crate::formats::html::is_safe_picture(&resolved);
        if local.starts_with("on") || (leads && !is_safe) || resolved.to_lowercase().contains("javascript:") {
            continue;
        }
        clean.push_attribute((attribute.key.as_ref(), resolved.as_ref()));
    }
    Ok(clean)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nothing_that_runs_is_left() {
        let drawing = br#"<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY x "y">]><svg xmlns="http://www.w3.org/2000/svg" onload="a()" viewBox="0 0 20 10">
<script>alert(1)</script><a xlink:href="java&#9;script:b()"><path d="M0 0"/></a><g><foreignObject><p onclick="c()">x</p></foreignObject></g>&x;<text>Tide &amp; time</text></svg>"#;
        let clean = String::from_utf8(clean(drawing).unwrap()).unwrap();
        for gone in ["script", "onload", "onclick", "foreignObject", "ENTITY", "alert", "&x;"] {
            assert!(!clean.contains(gone), "{gone} in {clean}");
        }
        assert!(clean.contains("<path d=\"M0 0\"/>") && clean.contains("Tide &amp; time"), "{clean}");
        assert_eq!(size(drawing), Some((20, 10)));
    }

    #[test]
    fn declared_names_of_namespaces_stay_names() {
        let drawing = br#"<?xml version="1.0"?><!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "svg11.dtd" [
<!ENTITY ns_extend "http://ns.greywick.example/Extensibility/1.0/"> <!ENTITY both "&ns_extend;x"> <!ENTITY tide 'ebb &#38; flood'>
]><svg xmlns="http://www.w3.org/2000/svg" xmlns:x="&ns_extend;" y="&both;" z="&none;" d="a &amp; b &lt;"><x:path/><text>&both;</text></svg>"#;
        let clean = String::from_utf8(clean(drawing).unwrap()).unwrap();
        assert!(
            clean.contains("xmlns:x=\"http://ns.greywick.example/Extensibility/1.0/\"") && clean.contains("<x:path/>"),
            "{clean}"
        );
        // What is made of others, and what nobody declared, is left out.
        assert!(!clean.contains(" y=") && !clean.contains(" z=") && clean.contains("<text></text>"), "{clean}");
        assert!(clean.contains("d=\"a &amp; b &lt;\""), "{clean}");
    }

    #[test]
    fn rules_that_reach_out_are_left_out() {
        for (rules, stays) in [
            (".a { fill: url(#g) }", true),
            (".a { fill: red }", true),
            ("<![CDATA[.a { fill: red }]]>", true),
            ("@import url(https://far.example/a.css);", false),
            ("<![CDATA[.a { background: url( 'https://far.example/a.png' ) }]]>", false),
            (".a { fill: u\\72l(https://far.example/) }", false),
        ] {
            let drawing = format!("<svg xmlns=\"http://www.w3.org/2000/svg\"><style>{rules}</style></svg>");
            let clean = String::from_utf8(clean(drawing.as_bytes()).unwrap()).unwrap();
            assert_eq!(clean.contains(".a") || clean.contains("@"), stays, "{clean}");
        }
        assert!(clean(b"<svg><g></svg>").is_err() && clean(b"<svg>\xFF</svg>").is_err());
        for (root, expected) in [
            ("width=\"20px\" height=\" 10 \"", Some((20, 10))),
            ("width=\"100%\" height=\"50mm\" viewBox=\"0,0 30.4 12\"", Some((30, 12))),
            ("width=\"20\"", None),
        ] {
            assert_eq!(size(format!("<!-- x --><svg {root}/>").as_bytes()), expected, "{root}");
        }
        assert_eq!((size(b"<p/>"), size(b"no drawing")), (None, None));
    }
}
