//! The values of settings that are chosen from a few, by their names.

use super::value::Choice;
use super::{Copies, Dialect, HeadingLevels, ImagePlace, LineEnds, Shape, StylePlace, Styling};
use crate::formats::html::{Characters, Content, Ids, Raw, Syntax};
use crate::formats::markdown::{Bullet, EmphasisMark, Fence, HeadingForm, HtmlPieces, LinkForm};
use crate::formats::text::ParagraphEnds;
use crate::formats::word::{Comments, Headers, HeadingNumbers, ListNumbers};
use crate::refine::When;
use crate::refine::lists::Lists;
use crate::refine::revisions::Revisions;
use crate::refine::rules::capitals::Capitals;
use crate::refine::rules::elements::Disallowed;
use crate::refine::rules::inline::{Bold, Inline};
use crate::refine::rules::lines::{LineBreaks, Paragraphs};
use crate::refine::rules::scenes::SceneBreaks;
use crate::refine::rules::spaces::{StopSpaces, Tabs};
use crate::refine::typography::{Dashes, Quotes};

impl Choice for Shape {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("page", Self::Page), ("fragment", Self::Fragment)];
}

impl Choice for Styling {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("semantic", Self::Semantic), ("named", Self::Named), ("exact", Self::Exact)];
}

impl Choice for Syntax {
    const CHOICES: &'static [(&'static str, Self)] = &[("html", Self::Html), ("xhtml", Self::Xhtml)];
}

impl Choice for Characters {
    const CHOICES: &'static [(&'static str, Self)] = &[("utf-8", Self::Utf8), ("ascii", Self::Ascii)];
}

impl Choice for Raw {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("clean", Self::Clean), ("escape", Self::Escape), ("drop", Self::Drop)];
}

impl Choice for Content {
    const CHOICES: &'static [(&'static str, Self)] = &[("all", Self::All), ("main", Self::Main)];
}

impl Choice for Bullet {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("hyphen", Self::Hyphen), ("asterisk", Self::Asterisk), ("plus", Self::Plus)];
}

impl Choice for EmphasisMark {
    const CHOICES: &'static [(&'static str, Self)] = &[("asterisk", Self::Asterisk), ("underscore", Self::Underscore)];
}

impl Choice for Fence {
    const CHOICES: &'static [(&'static str, Self)] = &[("backticks", Self::Backticks), ("tildes", Self::Tildes)];
}

impl Choice for HeadingForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("atx", Self::Atx), ("setext", Self::Setext)];
}

impl Choice for LinkForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("inline", Self::Inline), ("reference", Self::Reference)];
}

impl Choice for HtmlPieces {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("drop", Self::Drop)];
}

impl Choice for Option<Ids> {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", None), ("used", Some(Ids::Used)), ("headings", Some(Ids::Headings)), ("none", Some(Ids::None))];
}

impl Choice for HeadingLevels {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("steps", Self::Steps), ("source", Self::Source)];
}

impl Choice for Dialect {
    const CHOICES: &'static [(&'static str, Self)] = &[("commonmark", Self::Commonmark), ("github", Self::Github)];
}

impl Choice for Option<bool> {
    const CHOICES: &'static [(&'static str, Self)] = &[("dialect", None), ("true", Some(true)), ("false", Some(false))];
}

impl Choice for LineEnds {
    const CHOICES: &'static [(&'static str, Self)] = &[("space", Self::Space), ("break", Self::Break)];
}

impl Choice for ImagePlace {
    const CHOICES: &'static [(&'static str, Self)] = &[("folder", Self::Folder), ("embed", Self::Embed), ("drop", Self::Drop)];
}

impl Choice for StylePlace {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("embed", Self::Embed), ("link", Self::Link)];
}

impl Choice for Copies {
    const CHOICES: &'static [(&'static str, Self)] = &[("used", Self::Used), ("all", Self::All)];
}

impl Choice for Quotes {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("typographic", Self::Typographic), ("straight", Self::Straight)];
}

impl Choice for Dashes {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("typographic", Self::Typographic), ("language", Self::Language), ("hyphens", Self::Hyphens)];
}

impl Choice for ParagraphEnds {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", Self::Auto), ("blank-line", Self::BlankLine), ("line", Self::Line)];
}

impl Choice for When {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("always", Self::Always), ("never", Self::Never)];
}

impl Choice for Lists {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("marked", Self::Marked), ("typed", Self::Typed)];
}

impl Choice for Revisions {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("recorded", Self::Recorded), ("keep", Self::Keep), ("accept", Self::Accept), ("reject", Self::Reject)];
}

impl Choice for Capitals {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("title", Self::Title), ("sentence", Self::Sentence)];
}

impl Choice for Disallowed {
    const CHOICES: &'static [(&'static str, Self)] = &[("unwrap", Self::Unwrap), ("remove", Self::Remove)];
}

impl Choice for Bold {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("remove", Self::Remove), ("capitals", Self::Capitals)];
}

impl Choice for Inline {
    const CHOICES: &'static [(&'static str, Self)] = &[("elements", Self::Elements), ("classes", Self::Classes)];
}

impl Choice for LineBreaks {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("space", Self::Space), ("paragraphs", Self::Paragraphs)];
}

impl Choice for Paragraphs {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("breaks", Self::Breaks), ("blank-lines", Self::BlankLines)];
}

impl Choice for SceneBreaks {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("rule", Self::Rule), ("mark", Self::Mark)];
}

impl Choice for StopSpaces {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("one", Self::One), ("two", Self::Two)];
}

impl Choice for Tabs {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("space", Self::Space)];
}

impl Choice for Comments {
    const CHOICES: &'static [(&'static str, Self)] = &[("drop", Self::Drop), ("notes", Self::Notes)];
}

impl Choice for Headers {
    const CHOICES: &'static [(&'static str, Self)] = &[("drop", Self::Drop), ("keep", Self::Keep)];
}

impl Choice for ListNumbers {
    const CHOICES: &'static [(&'static str, Self)] = &[("items", Self::Items), ("text", Self::Text)];
}

impl Choice for HeadingNumbers {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("keep", Self::Keep), ("drop", Self::Drop)];
}
