//! The page around the content: a template, and what it can use.

use super::{Styles, read_setting};
use crate::conversion::Surroundings;
use crate::document::{Direction, Document};
use crate::error::Error;
use crate::formats::html::{Characters, HeadingEntry, Syntax, escape};
use crate::profile::Profile;
use minijinja::syntax::SyntaxConfig;
use minijinja::{AutoEscape, Environment, Value, context};
use std::collections::BTreeMap;

const FRAME: &str = include_str!("frame.html");

/// The ids of the built-in frame; nothing in the content gets them.
pub(super) const IDS: &[&str] = &["page-content"];

/// Templates may take so many steps. The built-in one takes a few hundred.
const MOST_STEPS: u64 = 50_000_000;

/// What is known of a page before it is put together.
pub(super) struct View<'v> {
    pub(super) title: &'v str,
    /// Whether the title stands above the content, which has no heading of its own for it.
    pub(super) shows_title: bool,
    pub(super) language: Option<&'v str>,
    pub(super) description: Option<&'v str>,
    pub(super) authors: Vec<String>,
    pub(super) contents: &'v str,
    pub(super) headings: &'v [HeadingEntry],
    pub(super) body: &'v str,
    pub(super) styles: &'v Styles,
}

/// Puts a page together.
pub(super) fn render(
    doc: &Document,
    profile: &Profile,
    surroundings: &Surroundings<'_>,
    view: &View<'_>,
) -> Result<String, Error> {
    let metadata = &doc.metadata;
    let xhtml = profile.html.syntax == Syntax::Xhtml;
    let other: BTreeMap<String, String> = metadata.other.iter().cloned().collect();
    let direction = metadata.direction.filter(|way| *way != Direction::Auto).map(Direction::value);
    let content = context! {
        title => view.title,
        shows_title => view.shows_title,
        subtitle => metadata.subtitle.clone().unwrap_or_default(),
        authors => view.authors.clone(),
        date => metadata.date.clone().unwrap_or_default(),
        language => view.language.unwrap_or_default(),
        direction => direction.unwrap_or_default(),
        description => view.description.unwrap_or_default(),
        keywords => metadata.keywords.clone(),
        metadata => other,
        contents => safe(view.contents),
        headings => headings(view.headings),
        body => safe(view.body),
        styles => safe(&view.styles.embedded.concat()),
        stylesheets => view.styles.linked.iter().map(|sheet| address(sheet)).collect::<Vec<_>>(),
        top => surroundings.to_top,
        name => surroundings.name,
        look => profile.page.look.clone(),
        skip_link => profile.page.skip_link,
        xhtml,
        end => safe(if xhtml { " /" } else { "" }),
    };
    let mut environment = Environment::new();
    environment.set_auto_escape_callback(|_| AutoEscape::Html);
    // Only what has to be escaped is: addresses stay readable.
    let syntax = profile.html.syntax;
    environment.set_formatter(move |out, state, value| match value.as_str() {
        Some(text) if !value.is_safe() => Ok(out.write_str(&escaped(text, syntax))?),
        _ => minijinja::escape_formatter(out, state, value),
    });
    environment.set_fuel(Some(MOST_STEPS));
    if let Ok(syntax) = SyntaxConfig::builder().trim_blocks(true).lstrip_blocks(true).build() {
        environment.set_syntax(syntax);
    }
    let part = |setting: &'static str, file: &Option<std::path::PathBuf>| -> Result<Value, Error> {
        let Some(path) = file else { return Ok(Value::from("")) };
        let text = read_setting(setting, path)?;
        let name = path.display().to_string();
        environment
            .render_named_str(&name, &text, &content)
            .map(Value::from_safe_string)
            .map_err(|error| frame_error(&name, &error))
    };
    let parts = context! {
        head => part("page.head", &profile.page.head)?,
        header => part("page.header", &profile.page.header)?,
        footer => part("page.footer", &profile.page.footer)?,
        ..content.clone()
    };
    match &profile.page.frame {
        None => environment.render_named_str("frame.html", FRAME, parts).map_err(|error| frame_error("frame.html", &error)),
        Some(path) => {
            let text = read_setting("page.frame", path)?;
            let name = path.display().to_string();
            environment.render_named_str(&name, &text, parts).map_err(|error| frame_error(&name, &error))
        }
    }
}

fn headings(entries: &[HeadingEntry]) -> Vec<Value> {
    let value = |entry: &HeadingEntry| context! { level => entry.level, id => entry.id.clone(), number => entry.number.clone(), text => entry.text.clone() };
    entries.iter().map(value).collect()
}

/// What stands for text in markup: with the writer's own rules for what has to be escaped and what can't stand at all.
fn escaped(text: &str, syntax: Syntax) -> String {
    let mut out = String::with_capacity(text.len());
    escape::text(&mut out, text, syntax, Characters::Utf8);
    out
}

/// An address as it stands in an attribute.
fn address(address: &str) -> Value {
    let mut out = String::with_capacity(address.len());
    escape::address(&mut out, address);
    Value::from_safe_string(out)
}

fn safe(text: &str) -> Value {
    Value::from_safe_string(text.to_owned())
}

fn frame_error(file: &str, error: &minijinja::Error) -> Error {
    let message = error.detail().map_or_else(|| error.kind().to_string(), str::to_owned);
    Error::Frame { file: file.to_owned(), line: error.line().unwrap_or(1), message }
}
