//! The passes of a conversion, as a list.

use crate::document::Document;
use crate::formats::{Format, RawHtml, html};
use crate::profile::Profile;
use crate::refine::passes::{ELEMENTS, LINES, NOISE, TEXT};

pub use crate::context::Stage;

/// A pass of a conversion.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct PassInfo {
    /// Its name; `clean.skip` switches it off.
    pub name: &'static str,
    /// What it does.
    pub meaning: &'static str,
    /// The stage that it belongs to.
    pub stage: Stage,
    /// Whether it runs, for a document that has something for it.
    pub runs: bool,
}

/// The passes of a conversion from one format to another, in the order in which they run.
///
/// ```
/// use obblet::{Format, pipeline, profile::Profile};
///
/// let mut profile = Profile::default();
/// profile.set("clean.skip=white-space")?;
/// let passes = pipeline::passes(Format::Word, Format::Html, &profile);
/// let white_space = passes.iter().find(|pass| pass.name == "white-space").unwrap();
/// assert!(!white_space.runs);
/// # Ok::<(), obblet::Error>(())
/// ```
#[must_use]
pub fn passes(reads: Format, writes: Format, profile: &Profile) -> Vec<PassInfo> {
    let cleaning = &profile.clean;
    let one = |name, meaning, stage, wanted: bool| PassInfo { name, meaning, stage, runs: wanted && cleaning.runs(name) };
    let mut list = vec![
        one("embedded-html", "parses HTML that the source embeds", Stage::Read, reads.descriptor().raw_html == RawHtml::Embedded),
        one("leave-out", "removes the parts that clean.leave-out selects", Stage::Read, !cleaning.leave_out.is_empty()),
        one(
            "raw-html",
            "parses raw HTML and makes it valid and safe",
            Stage::Refine,
            writes.descriptor().raw_html != RawHtml::Native && profile.formats.html.raw == html::Raw::Clean,
        ),
    ];
    list.push(one("targets", "removes the parts whose class says that they are not for the format", Stage::Refine, true));
    list.push(one("references", "gives references to figures, tables and headings the text that they show", Stage::Refine, true));
    // One that a program wrote: what runs by itself runs for it.
    let mut doc = Document::new();
    doc.layout_hints.producer = crate::document::Producer::Program;
    for pass in LINES.iter().chain(&NOISE).chain(TEXT) {
        let wanted = pass.is_wanted(&doc, cleaning);
        match list.iter_mut().find(|known| known.name == pass.name) {
            Some(_) => {}
            None => list.push(one(pass.name, pass.meaning, Stage::Refine, wanted)),
        }
    }
    list.push(one("links", "gives links the addresses that their targets have in the output", Stage::Refine, true));
    for pass in &ELEMENTS {
        let wanted = writes.descriptor().has_element_rules && pass.is_wanted(&doc, cleaning);
        list.push(one(pass.name, pass.meaning, Stage::Refine, wanted));
    }
    list.push(one("structure", "moves what HTML does not allow where it stands", Stage::Refine, true));
    list
}
