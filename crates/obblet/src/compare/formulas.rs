//! Formulas in one notation: two that have the same tree are the same, however their sources are written.

use crate::document::{Document, Formula, Markup};
use crate::math::tex;
use std::borrow::Cow;

/// A document whose formulas are in TeX as it is written from their trees.
pub(super) fn in_one_notation(doc: &Document) -> Cow<'_, Document> {
    if doc.formulas.is_empty() {
        return Cow::Borrowed(doc);
    }
    let mut macros = tex::Macros::of(&doc.metadata.macros);
    let mut own = doc.clone();
    for (index, formula) in doc.formulas.iter().enumerate() {
        let (math, _) = crate::math::read(formula.notation, doc.text(formula.source), &mut macros);
        let source = own.intern(&tex::write(&math));
        own.formulas[index] = Formula { notation: Markup::Tex, source, characters: source, ..*formula };
    }
    Cow::Owned(own)
}
