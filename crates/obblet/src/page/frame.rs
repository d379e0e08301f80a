//! The page around the content: a template, and what it can use.

use super::Content;
use super::navigation::Navigation;
use crate::cache::{self, FramesKey, Shared};
use crate::context::Context;
use crate::error::{Error, PageError};
use crate::formats::html::{Characters, Syntax, escape, is_safe_link};
use crate::profile::Profile;
use minijinja::syntax::SyntaxConfig;
use minijinja::value::Serde;
use minijinja::{AutoEscape, Environment, ErrorKind, Value, context};
use std::path::PathBuf;
use std::sync::Arc;

/// What errors call the built-in frame.
const BUILT_IN: &str = "frame.html";

pub(super) const FRAME: &str = include_str!("frame.html");

/// The ids of the built-in frame; nothing in the content gets them.
pub(super) const IDS: &[&str] = &["page-content"];

/// Templates may take so many steps, and make 64 bytes of text instead of each. The built-in one takes a few hundred, and some
/// for each page that a site lists.
const FUEL: u64 = 1 << 22;

/// So often may a template write all that is known of a page, on top of that.
const MOST_COPIES: u64 = 16;

/// The binary logarithm of what a page may take: not many different ones, so that templates are made ready once.
fn fuel(content: &Content) -> u32 {
    let size = content.body.len() + content.rules.len() + content.headings.len() * 256;
    (FUEL + size as u64 * MOST_COPIES / 64).next_power_of_two().ilog2()
}

/// Style rules: text for the head of a page, and addresses.
#[derive(Debug, Default)]
pub(crate) struct Sheets {
    pub(crate) embedded: Vec<String>,
    pub(crate) linked: Vec<String>,
}

/// The style rules of a page. Those of the user stand behind all others, which they may change.
#[derive(Debug, Default)]
pub(crate) struct Styles {
    /// Of the look, and of the document.
    pub(crate) look: Sheets,
    /// Of `page.stylesheets`.
    pub(crate) own: Sheets,
}

/// What is known of a page before it is put together.
pub(super) struct View<'v> {
    pub(super) content: &'v Content,
    /// The list of its headings.
    pub(super) contents: &'v str,
    pub(super) styles: &'v Styles,
    pub(super) navigation: &'v Navigation,
}

/// Puts a page together.
pub(super) fn render(profile: &Profile, context: &Context<'_>, view: &View<'_>) -> Result<String, Error> {
    let xhtml = profile.formats.html.syntax == Syntax::Xhtml;
    let known = view.content;
    let body = known.body.trim_end_matches('\n');
    let page = &profile.page;
    // Nothing looks into the body but templates of others.
    let goes_past = [&page.frame, &page.head, &page.header, &page.footer].iter().all(|file| file.is_none());
    let (look, own) = (&view.styles.look, &view.styles.own);
    let addresses =
        |sheets: &[&Sheets]| sheets.iter().flat_map(|sheets| &sheets.linked).map(|sheet| address(sheet)).collect::<Vec<_>>();
    let content = context! {
        title => known.title.clone(),
        shows_title => known.shows_title,
        subtitle => known.subtitle.clone(),
        authors => known.authors.clone(),
        date => known.date.clone(),
        language => known.language.clone(),
        direction => known.direction.clone(),
        description => known.description.clone(),
        keywords => known.keywords.clone(),
        metadata => known.metadata.clone(),
        contents => safe(view.contents),
        headings => Value::from(Serde(&known.headings)),
        body => safe(if goes_past { BODY } else { body }),
        styles => safe(&[look.embedded.concat(), own.embedded.concat()].concat()),
        stylesheets => addresses(&[look, own]),
        look_stylesheets => addresses(&[look]),
        own_stylesheets => addresses(&[own]),
        site => Value::from(Serde(view.navigation)),
        top => context.to_top,
        name => context.name,
        look => profile.page.look.clone(),
        skip_link => profile.page.skip_link,
        as_source => known.as_source && profile.page.look != "none",
        xhtml,
        end => safe(if xhtml { " /" } else { "" }),
    };
    let environment = environment(profile, context.shared, fuel(known))?;
    let render = |name: &str, content: Value| {
        let template = environment.get_template(name).map_err(|error| frame_error(name, &error))?;
        template.render(content).map_err(|error| frame_error(name, &error))
    };
    let part = |file: &Option<PathBuf>| -> Result<Value, Error> {
        let Some(path) = file else { return Ok(Value::from("")) };
        render(&path.display().to_string(), content.clone()).map(Value::from_safe_string)
    };
    let head = [&*known.head, part(&page.head)?.as_str().unwrap_or_default()].join("\n");
    let parts =
        context! { head => safe(head.trim()), header => part(&page.header)?, footer => part(&page.footer)?, ..content.clone() };
    let frame = page.frame.as_ref().map_or_else(|| BUILT_IN.to_owned(), |path| path.display().to_string());
    let text = render(&frame, parts)?;
    Ok(if goes_past { with_body(&text, body) } else { text })
}

/// Stands for the body in a page that is not whole yet. Nothing else writes this character.
const BODY: &str = "\0";

/// A page with its body, which is copied once; there is room for a line end.
fn with_body(page: &str, body: &str) -> String {
    let mut whole = String::with_capacity(page.len() + body.len() + 1);
    let mut rest = page;
    while let Some(at) = memchr::memmem::find(rest.as_bytes(), BODY.as_bytes()) {
        whole.push_str(&rest[..at]);
        whole.push_str(body);
        rest = &rest[at + BODY.len()..];
    }
    whole.push_str(rest);
    whole
}

/// The templates of a profile, ready to be used. Those of many pages are made ready once.
fn environment(profile: &Profile, shared: Option<&Shared>, fuel: u32) -> Result<Arc<Environment<'static>>, Error> {
    let page = &profile.page;
    let files =
        [("page.head", &page.head), ("page.header", &page.header), ("page.footer", &page.footer), ("page.frame", &page.frame)];
    let syntax = profile.formats.html.syntax;
    let key = || FramesKey { is_xml: syntax == Syntax::Xhtml, fuel, files: files.map(|(_, file)| file.clone()) };
    if let Some(known) = shared.and_then(|shared| shared.frames(&key())) {
        return Ok(known);
    }
    let mut environment = Environment::new();
    environment.set_auto_escape_callback(|_| AutoEscape::Html);
    // Only what has to be escaped is: addresses stay readable.
    environment.set_formatter(move |out, state, value| match value.as_str() {
        // The built-in frame has no apostrophes around values; whoever writes another may have.
        Some(text) if !value.is_safe() => Ok(out.write_str(&escaped(text, syntax, state.name() != BUILT_IN))?),
        _ => minijinja::escape_formatter(out, state, value),
    });
    environment.set_fuel(Some(1 << fuel));
    environment.add_filter("address", |text: &str| if is_safe_link(text) { address(text) } else { Value::from("") });
    if let Ok(syntax) = SyntaxConfig::builder().trim_blocks(true).lstrip_blocks(true).build() {
        environment.set_syntax(syntax);
    }
    environment.add_template(BUILT_IN, FRAME).map_err(|error| frame_error(BUILT_IN, &error))?;
    for (setting, file) in files {
        let Some(path) = file else { continue };
        let name = path.display().to_string();
        let text = cache::text(shared, setting, path)?.to_string();
        environment.add_template_owned(name.clone(), text).map_err(|error| frame_error(&name, &error))?;
    }
    let environment = Arc::new(environment);
    if let Some(shared) = shared {
        shared.keep_frames(key(), &environment);
    }
    Ok(environment)
}

/// What stands for text in markup: with the writer's own rules for what has to be escaped and what can't stand at all.
fn escaped(text: &str, syntax: Syntax, quotes: bool) -> String {
    let mut out = String::with_capacity(text.len());
    escape::text(&mut out, text, syntax, Characters::Utf8);
    if quotes && out.contains(['"', '\'']) { out.replace('"', "&quot;").replace('\'', "&#39;") } else { out }
}

/// An address as it stands in an attribute.
fn address(address: &str) -> Value {
    let mut out = String::with_capacity(address.len());
    escape::address(&mut out, address);
    Value::from_safe_string(out.replace('\'', "%27"))
}

fn safe(text: &str) -> Value {
    Value::from_safe_string(text.to_owned())
}

fn frame_error(file: &str, error: &minijinja::Error) -> Error {
    if error.kind() == ErrorKind::OutOfFuel {
        let message = "it takes more steps or makes more text than a page may; look for loops in loops".to_owned();
        return PageError::Frame { file: file.to_owned(), line: error.line().unwrap_or(1), message }.into();
    }
    let message = error.detail().map_or_else(|| error.kind().to_string(), str::to_owned);
    PageError::Frame { file: file.to_owned(), line: error.line().unwrap_or(1), message }.into()
}
