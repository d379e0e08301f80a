//! What may be found here.

use crate::document::{FindingInfo, Weight, finding};

/// The findings of this room.
pub(crate) const FINDINGS: &[FindingInfo] = &[
    finding("document.too-large", &[Weight::Lost], "The document holds more than 4 GiB of text."),
    finding("image.drawing", &[Weight::Changed], "A drawing has lost what drawings may not hold here; the finding names it."),
    finding("image.drawn", &[Weight::Lost], "A drawing became a picture for print, without the text in it."),
    finding(
        "image.dropped",
        &[Weight::Changed],
        "An image was left out, as `images.place = \"drop\"` asks; the alt text is kept.",
    ),
    finding("image.hidden", &[Weight::Changed], "An image is hidden, ignored or left out in its folder; it was not read."),
    finding("image.missing", &[Weight::Advice], "There is no file at the address of an image."),
    finding(
        "image.name",
        &[Weight::Changed],
        "An image has the bytes of another kind than its name says, one that servers call something else; it was not copied.",
    ),
    finding("image.no-address", &[Weight::Changed], "An image has no address; the alt text is kept."),
    finding(
        "image.no-file",
        &[Weight::Lost],
        "Images are shown by the names of their files, and there is no folder where those could go.",
    ),
    finding("image.no-picture", &[Weight::Lost], "Something is shown as an image and is none, by its bytes; it was not copied."),
    finding("image.alt", &[Weight::Advice], "An image has no alt text."),
    finding("image.outside", &[Weight::Changed], "An image is outside of the folder of the source and was not read."),
    finding("image.scriptable", &[Weight::Lost], "A drawing can't be made safe and was not copied."),
    finding("image.store", &[Weight::Lost], "An image could not be stored where images go."),
    finding("image.too-large", &[Weight::Changed], "An image is larger than `limits.image` and was not read."),
    finding("image.unknown", &[Weight::Lost], "A file in a document is no image, by its bytes; it was left out."),
    finding(
        "limit.characters",
        &[Weight::Lost],
        "The output has more characters than `limits.characters`; the message names the part within which it is full, the hint those that take most. `--fail-on limit` makes it an exit code.",
    ),
    finding("link.no-words", &[Weight::Advice], "A link has no words, or only an image without any."),
    finding("page.empty-heading", &[Weight::Advice], "A heading has no words."),
    finding(
        "page.head",
        &[Weight::Changed],
        "The source has markup for the head of its pages, which may load or run anything; `html.trust` writes it.",
    ),
    finding("page.landmarks", &[Weight::Advice], "Several parts for navigation can't be told apart by those who don't see them."),
    finding(
        "page.language",
        &[Weight::Advice],
        "The page does not say what language it is in, or says the one that its text was recognised to be in.",
    ),
    finding("page.nested-control", &[Weight::Advice], "A link stands in a summary, which is a control itself."),
];
