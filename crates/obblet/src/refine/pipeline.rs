//! Running the passes: those about noise in rounds, the others once.

use super::passes::{ELEMENTS, LINES, NOISE, TEXT};
use super::settings::Cleaning;
use crate::document::Document;
use crate::links::{ExternalLinks, NoExternalLinks};

/// Cleans a document: takes out what programs leave, and sets its text by the house rules about text.
///
/// ```
/// use obblet::formats::html;
/// use obblet::refine::{Cleaning, clean};
///
/// let source = br#"<p style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">1.&nbsp;&nbsp;</span>Tides</p>"#;
/// let mut doc = html::read(source, &html::ReadOptions::default());
/// clean(&mut doc, &Cleaning::default());
/// assert_eq!(html::write(&doc, &html::Options::default()).html, "<ol>\n<li>Tides</li>\n</ol>\n");
/// ```
pub fn clean(doc: &mut Document, cleaning: &Cleaning) {
    clean_linked(doc, cleaning, &NoExternalLinks);
}

/// Cleans a document some of whose places others lead to.
pub fn clean_linked(doc: &mut Document, cleaning: &Cleaning, external: &dyn ExternalLinks) {
    let found_before = doc.findings.len();
    for pass in &LINES {
        pass.run(doc, cleaning, external);
    }
    // What one pass makes of the work of another may be work for the first. Two rounds nearly always do.
    let mut seen = [None; NOISE.len()];
    for _ in 0..MOST_ROUNDS {
        let before = doc.changes();
        for (pass, seen) in NOISE.iter().zip(&mut seen) {
            // A pass that has seen the document as it is would find nothing.
            let now = Some(doc.changes());
            if std::mem::replace(seen, now) != now {
                pass.run(doc, cleaning, external);
            }
        }
        if doc.changes() == before {
            break;
        }
    }
    // What a pass only reports, it reports in each round.
    let mut reported = crate::fast_hash::HashSet::default();
    let mut at = 0;
    doc.findings.retain(|finding| {
        at += 1;
        at <= found_before || reported.insert((finding.code.clone(), finding.message.clone(), finding.place))
    });
    for pass in TEXT {
        pass.run(doc, cleaning, external);
    }
}

/// So often do the passes about noise run.
const MOST_ROUNDS: usize = 5;

/// Makes a document what a target accepts: house rules about elements and attributes.
pub fn restrict(doc: &mut Document, cleaning: &Cleaning) {
    for pass in &ELEMENTS {
        pass.run(doc, cleaning, &NoExternalLinks);
    }
}
