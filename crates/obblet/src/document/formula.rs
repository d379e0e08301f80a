//! Formulas: one kind of node, and a table that holds the source of each in its notation.

use super::{Document, Kind, NodeId, SourceMap, Text};

/// A markup language that pieces of a document may be kept in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Markup {
    /// HTML (the living standard).
    Html,
    /// The mathematics of TeX.
    Tex,
    /// MathML: a `math` element with all that is in it, and nothing in it that loads or runs.
    MathMl,
    /// The formulas of office programs (ECMA-376, part 1, section 22.1).
    OfficeMath,
}

impl Markup {
    /// Its name, for people.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Html => "HTML",
            Self::Tex => "TeX",
            Self::MathMl => "MathML",
            Self::OfficeMath => "OfficeMath",
        }
    }
}

/// The name of a formula within its document: its index in [`Document::formulas`].
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct FormulaId(pub u32);

/// A formula, as its source has it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Formula {
    /// The notation of the source.
    pub notation: Markup,
    /// The source; of TeX, without the delimiters around it.
    pub source: Text,
    /// What a reader would speak where the notation is unknown: its characters in a row; of TeX, the source.
    pub characters: Text,
    /// Whether it stands on a line of its own.
    pub display: bool,
    /// The number that the source prints beside it, without parentheses; empty where there is none.
    pub number: Text,
}

impl Formula {
    /// A formula in TeX.
    #[must_use]
    pub const fn tex(source: Text, display: bool) -> Self {
        Self { notation: Markup::Tex, source, characters: source, display, number: Text::EMPTY }
    }
}

/// Where the number stands that a formula in TeX is given by hand: between the braces of `\tag`.
fn tag_of(tex: &str) -> Option<std::ops::Range<usize>> {
    let at = memchr::memmem::find(tex.as_bytes(), b"\\tag")? + "\\tag".len();
    let rest = tex[at..].strip_prefix('*').unwrap_or(&tex[at..]);
    let inner = rest.trim_start().strip_prefix('{')?;
    let start = tex.len() - inner.len();
    let length = inner.find(['{', '}']).filter(|&end| inner[end..].starts_with('}'))?;
    Some(start..start + length)
}

impl Document {
    /// The name of the HTML element that a node is, as [`Kind::element`]; of a formula, by its notation.
    #[must_use]
    pub fn element(&self, id: NodeId) -> &'static str {
        match self.kind(id) {
            Kind::Math(formula) => match self.formula(formula).notation {
                Markup::Tex => "code",
                Markup::MathMl => "math",
                Markup::OfficeMath | Markup::Html => "span",
            },
            kind => kind.element(),
        }
    }

    /// A formula of the document.
    #[must_use]
    pub fn formula(&self, id: FormulaId) -> Formula {
        self.formulas.get(id.0 as usize).copied().unwrap_or(Formula::tex(Text::EMPTY, false))
    }

    /// Puts a formula into the table; a node of [`Kind::Math`] shows it.
    pub fn add_formula(&mut self, formula: Formula) -> FormulaId {
        self.formulas.push(formula);
        FormulaId(self.formulas.len() as u32 - 1)
    }

    /// Puts a formula in TeX into the table, with the number that it has of its own.
    pub fn add_tex(&mut self, source: Text, display: bool) -> FormulaId {
        let number = tag_of(self.text(source))
            .map_or(Text::EMPTY, |range| Text { start: source.start + range.start as u32, end: source.start + range.end as u32 });
        self.add_formula(Formula { number, ..Formula::tex(source, display) })
    }

    /// Appends a formula.
    pub fn append_formula(&mut self, parent: NodeId, formula: Formula) -> NodeId {
        self.append_formula_at(parent, formula, SourceMap::UNKNOWN)
    }

    /// Appends a formula, and says where in the source it begins.
    pub fn append_formula_at(&mut self, parent: NodeId, formula: Formula, offset: u32) -> NodeId {
        let id = self.add_formula(formula);
        self.append_at(parent, Kind::Math(id), offset)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn formulas_have_the_numbers_that_they_are_given() {
        let number = |tex: &str| {
            let mut doc = Document::new();
            let source = doc.intern(tex);
            let id = doc.add_tex(source, true);
            doc.text(doc.formula(id).number).to_owned()
        };
        assert_eq!(number(r"h = h_0 \tag{3.1}"), "3.1");
        assert_eq!(number(r"h \tag*{A}"), "A");
        assert_eq!(number(r"h \tag{a{b}c}") + &number(r"\tag") + &number(r"h = 3"), "");
    }
}
