//! A page as a whole: its content, its style rules, and the frame around both.

use super::frame::{Sheets, Styles};
use super::navigation::Navigation;
use super::{Content, WriteReport, content, contents, css_to_ascii, frame, look};
use crate::cache;
use crate::context::{Context, Converted, OutputFile};
use crate::document::{Document, NodeId};
use crate::error::Error;
use crate::formats::html::{Characters, Syntax};
use crate::profile::{Profile, StylePlace};
use std::path::{Path, PathBuf};

/// Pages with fewer headings than this need no list of them.
const FEWEST_CONTENTS: usize = 3;

/// Writes a document as a whole page.
pub(crate) fn finish(
    doc: &Document,
    profile: &Profile,
    context: &Context<'_>,
    safe_pictures: &[NodeId],
) -> Result<Converted, Error> {
    let (content, report) = content(doc, profile, context, safe_pictures, None);
    let (text, files) = assemble(&content, profile, context, &Navigation::default())?;
    let WriteReport { findings, anchors } = report;
    Ok(Converted { bytes: text.into_bytes(), findings, files, anchors, title: content.title, ..Converted::default() })
}

/// Puts a page together: its content, its frame, and what stands around it.
pub(crate) fn assemble(
    content: &Content,
    profile: &Profile,
    context: &Context<'_>,
    navigation: &Navigation,
) -> Result<(String, Vec<OutputFile>), Error> {
    let mut files = Vec::new();
    let mut styles = styles(profile, context, &mut files)?;
    if !content.rules.is_empty() {
        styles.look.embedded.push(content.rules.clone());
    }
    let contents = match content.contents.unwrap_or(profile.page.contents) {
        depth if depth > 0 && content.headings.len() >= FEWEST_CONTENTS => {
            contents::list(&content.headings, depth, profile.formats.html.syntax, profile.formats.html.characters)
        }
        _ => String::new(),
    };
    let mut text = frame::render(profile, context, &frame::View { content, contents: &contents, styles: &styles, navigation })?;
    text.push('\n');
    if profile.formats.html.characters == Characters::Ascii {
        text = to_ascii(&text);
    }
    Ok((text, files))
}

fn styles(profile: &Profile, context: &Context<'_>, files: &mut Vec<OutputFile>) -> Result<Styles, Error> {
    let mut styles = Styles::default();
    let look = look::stylesheet(&profile.page.look)?;
    if let Some(look) = look {
        add_style(profile, context, files, &mut styles.look, &format!("look-{}.css", profile.page.look), &look);
    }
    for sheet in &profile.page.stylesheets {
        if sheet.contains("://") || sheet.starts_with("//") {
            styles.own.linked.push(sheet.clone());
            continue;
        }
        let text = cache::text(context.shared, "page.stylesheets", Path::new(sheet))?;
        // In a folder that keeps its shape, sheets of one name in several folders are several.
        let path = Path::new(sheet);
        let inside = context.media.filter(|_| context.mirrored).and_then(|media| path.strip_prefix(media.folder()?).ok());
        let parts: Vec<_> = match inside {
            Some(inside) => inside.iter().map(|part| part.to_string_lossy()).collect(),
            None => path.file_name().map(|name| name.to_string_lossy()).into_iter().collect(),
        };
        let name = parts.join("/");
        add_style(profile, context, files, &mut styles.own, &name, &text);
    }
    Ok(styles)
}

fn add_style(profile: &Profile, context: &Context<'_>, files: &mut Vec<OutputFile>, styles: &mut Sheets, name: &str, text: &str) {
    // Without a file to stand beside, a page has everything within it.
    let embeds = match profile.page.styles {
        StylePlace::Auto => !context.mirrored,
        StylePlace::Embed => true,
        StylePlace::Link => false,
    };
    if embeds || context.output.is_none() {
        // An end tag within would end the element, and a comment in XML would hide it.
        let safe = text.replace("</", "<\\/").replace("<!--", "").replace("]]>", "");
        let safe =
            if profile.formats.html.syntax == Syntax::Xhtml { safe.replace('&', "\\26 ").replace('<', "\\3C ") } else { safe };
        styles.embedded.push(if profile.formats.html.characters == Characters::Ascii { css_to_ascii(&safe) } else { safe });
    } else {
        // A file of the folder that has the name of a look is another one.
        let is_taken = context.shows.is_some_and(|shows| shows(name));
        let name = if is_taken { format!("obblet-{name}") } else { name.to_owned() };
        let path = PathBuf::from(format!("{}{name}", context.to_top));
        styles.linked.push(path.display().to_string());
        files.push(OutputFile { path, bytes: text.as_bytes().to_vec() });
    }
}

/// Makes references of all characters that are not ASCII. Style rules have none any more.
fn to_ascii(text: &str) -> String {
    use std::fmt::Write;
    let mut out = String::with_capacity(text.len() + text.len() / 8);
    for c in text.chars() {
        if c.is_ascii() {
            out.push(c);
        } else {
            let _ = write!(out, "&#{};", c as u32);
        }
    }
    out
}
