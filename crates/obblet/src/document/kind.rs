//! What a node can be, in the terms of HTML and CommonMark.

use super::{FormulaId, Markup, Text};

/// The name of a note within its document: its index in [`Document::notes`](super::Document::notes).
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct NoteId(pub u32);

/// What a node is. Each variant shows the HTML it stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kind {
    /// The document itself.
    Root,

    // Blocks.
    /// `<h1>` to `<h6>`; the number is 1 to 6.
    Heading(u8),
    /// `<p>`
    Paragraph,
    /// `<blockquote>`; the attribute `cite` names the source.
    BlockQuote,
    /// `<ul>` or `<ol>`
    List(ListKind),
    /// `<li>`, with a checkbox where it is a task.
    ListItem {
        /// Whether a task is done; `None` for an item that is no task.
        checked: Option<bool>,
    },
    /// `<dl>`
    TermList,
    /// `<dt>`
    Term,
    /// `<dd>`
    TermDescription,
    /// `<pre><code>`
    CodeBlock {
        /// The code, with its final newline.
        code: Text,
        /// What the source says about it; the first word names the language.
        info: Text,
    },
    /// `<pre>` that holds more than code: white space counts in all that is below.
    Preformatted,
    /// `<table>`; its columns are in [`Document::columns`](super::Document::columns).
    Table,
    /// `<caption>` of a table, `<figcaption>` of a figure.
    Caption,
    /// `<thead>`, `<tbody>` or `<tfoot>`
    RowGroup(RowGroupKind),
    /// `<tr>`
    Row,
    /// `<th>` or `<td>`
    Cell(CellKind),
    /// `<figure>`
    Figure,
    /// `<hr>`
    ThematicBreak,
    /// A part of the document: `<div>`, `<section>`, `<aside>` and their like.
    Division(DivisionKind),
    /// `<details>`
    Details {
        /// Whether it shows its content at first.
        open: bool,
    },
    /// `<summary>`
    Summary,
    /// Source text in a markup language, as a block.
    RawBlock {
        /// The language.
        markup: Markup,
        /// The markup as it was written.
        raw: Text,
    },
    /// The body of a [`Note`](super::Note); stands at the top of a tree of its own.
    Note,

    // Text.
    /// Characters. A line end among them is white space, as in HTML.
    Text(Text),
    /// `<em>`
    Emphasis,
    /// `<strong>`
    Strong,
    /// `<u>`
    Underline,
    /// `<s>`
    Strikethrough,
    /// `<ins>`
    Insertion,
    /// `<del>`
    Deletion,
    /// `<mark>`
    Highlight,
    /// `<code>` within a line.
    Code(Text),
    /// `<sub>`
    Subscript,
    /// `<sup>`
    Superscript,
    /// `<a href>`; a title is in the attributes.
    Link {
        /// Where it leads.
        href: Text,
    },
    /// `<img>`; a title is in the attributes.
    Image {
        /// The address of the picture.
        src: Text,
        /// What stands for it where it cannot be seen.
        alt: Text,
    },
    /// `<br>`
    LineBreak,
    /// The end of a source line within a paragraph, shown as a space, where no text node holds it.
    SoftBreak,
    /// `<span>`
    Span,
    /// A mark that leads to a note.
    NoteReference(NoteId),
    /// A formula; its source is in the table of formulas.
    Math(FormulaId),
    /// A place that links lead to; its name is the id in the attributes.
    Anchor,
    /// Source text in a markup language, within a line.
    Raw {
        /// The language.
        markup: Markup,
        /// The markup as it was written.
        raw: Text,
    },
    /// Another text-level element of HTML.
    TextLevel(TextLevel),
}

/// What kind of list it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct ListKind {
    /// Whether the items are numbered.
    pub ordered: bool,
    /// Whether items follow each other without space: a paragraph directly in an item is written as plain text.
    pub tight: bool,
    /// What the items are marked with.
    pub marker: Marker,
    /// The number of the first item of an ordered list.
    pub start: i32,
}

/// What the items of a list are marked with.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Marker {
    /// Bullets, or decimal numbers.
    #[default]
    Plain,
    /// a, b, c
    LowerAlpha,
    /// A, B, C
    UpperAlpha,
    /// i, ii, iii
    LowerRoman,
    /// I, II, III
    UpperRoman,
}

impl Marker {
    /// The name that style sheets have for the numbers (CSS Counter Styles, section 6).
    pub(crate) const fn style_name(self) -> &'static str {
        match self {
            Self::Plain => "decimal",
            Self::LowerAlpha => "lower-alpha",
            Self::UpperAlpha => "upper-alpha",
            Self::LowerRoman => "lower-roman",
            Self::UpperRoman => "upper-roman",
        }
    }
}

/// Which part of a table a group of rows is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum RowGroupKind {
    /// `<thead>`
    Head,
    /// `<tbody>`
    Body,
    /// `<tfoot>`
    Foot,
}

/// What a table cell is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct CellKind {
    /// Whether it is a header cell.
    pub header: bool,
    /// Which cells a header cell speaks for.
    pub scope: Scope,
    /// How its text is aligned.
    pub align: Align,
    /// How many columns it takes, from 1.
    pub columns: u16,
    /// How many rows it takes, from 1.
    pub rows: u16,
}

impl CellKind {
    /// A plain cell of one row and one column.
    pub const PLAIN: Self = Self { header: false, scope: Scope::Unsaid, align: Align::Unsaid, columns: 1, rows: 1 };
}

/// Which cells a header cell speaks for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Scope {
    /// The table's structure tells.
    #[default]
    Unsaid,
    /// `scope="row"`
    Row,
    /// `scope="col"`
    Column,
    /// `scope="rowgroup"`
    RowGroup,
    /// `scope="colgroup"`
    ColumnGroup,
}

/// How text is aligned.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Align {
    /// As the surroundings say.
    #[default]
    Unsaid,
    /// To the left.
    Left,
    /// Centred.
    Center,
    /// To the right.
    Right,
    /// To both sides.
    Justify,
}

/// Which part of a document a division is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum DivisionKind {
    /// `<div>`
    Plain,
    /// `<section>`
    Section,
    /// `<article>`
    Article,
    /// `<aside>`
    Aside,
    /// `<nav>`
    Navigation,
    /// `<header>`
    Header,
    /// `<footer>`
    Footer,
    /// `<address>`
    Address,
    /// A short text set apart from the flow, of a kind that its heading names.
    Callout(Callout),
}

/// What a callout is for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Callout {
    /// Worth knowing even when skimming.
    Note,
    /// Makes things easier.
    Tip,
    /// Needed to succeed.
    Important,
    /// Needs attention at once, to avoid trouble.
    Warning,
    /// Risks of an action.
    Caution,
}

impl Callout {
    /// The English word for it.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Note => "Note",
            Self::Tip => "Tip",
            Self::Important => "Important",
            Self::Warning => "Warning",
            Self::Caution => "Caution",
        }
    }
}

/// Text-level elements of HTML that have no kind of their own (HTML, section 4.5).
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "each is the element of its name")]
pub enum TextLevel {
    Abbreviation,
    /// Text that is only set apart in bold; what is important is [`Kind::Strong`].
    Bold,
    Cite,
    /// Code that holds markup; code without is [`Kind::Code`].
    Code,
    Data,
    Definition,
    /// Text that is only set apart in italics; what is stressed is [`Kind::Emphasis`].
    Italic,
    Isolate,
    Keyboard,
    Override,
    Quotation,
    Ruby,
    RubyParenthesis,
    RubyText,
    Sample,
    Small,
    Time,
    Variable,
}

impl TextLevel {
    const NAMES: [(Self, &'static str); 18] = [
        (Self::Abbreviation, "abbr"),
        (Self::Bold, "b"),
        (Self::Cite, "cite"),
        (Self::Code, "code"),
        (Self::Data, "data"),
        (Self::Definition, "dfn"),
        (Self::Italic, "i"),
        (Self::Isolate, "bdi"),
        (Self::Keyboard, "kbd"),
        (Self::Override, "bdo"),
        (Self::Quotation, "q"),
        (Self::Ruby, "ruby"),
        (Self::RubyParenthesis, "rp"),
        (Self::RubyText, "rt"),
        (Self::Sample, "samp"),
        (Self::Small, "small"),
        (Self::Time, "time"),
        (Self::Variable, "var"),
    ];

    /// The name of the element.
    #[must_use]
    pub fn element(self) -> &'static str {
        Self::NAMES[self as usize].1
    }

    /// The kind for an element's name.
    #[must_use]
    pub fn from_element(name: &str) -> Option<Self> {
        Self::NAMES.iter().find(|(_, element)| *element == name).map(|(kind, _)| *kind)
    }
}

impl Kind {
    /// The name of the HTML element that a node is, as house rules name it; empty for text and what has no element.
    #[must_use]
    pub fn element(self) -> &'static str {
        const HEADINGS: [&str; 6] = ["h1", "h2", "h3", "h4", "h5", "h6"];
        match self {
            Self::Heading(level) => HEADINGS[usize::from(level.clamp(1, 6)) - 1],
            Self::Paragraph => "p",
            Self::BlockQuote => "blockquote",
            Self::List(list) if list.ordered => "ol",
            Self::List(_) => "ul",
            Self::ListItem { .. } => "li",
            Self::TermList => "dl",
            Self::Term => "dt",
            Self::TermDescription => "dd",
            Self::CodeBlock { .. } | Self::Preformatted => "pre",
            Self::Table => "table",
            Self::Caption => "caption",
            Self::RowGroup(RowGroupKind::Head) => "thead",
            Self::RowGroup(RowGroupKind::Body) => "tbody",
            Self::RowGroup(RowGroupKind::Foot) => "tfoot",
            Self::Row => "tr",
            Self::Cell(cell) if cell.header => "th",
            Self::Cell(_) => "td",
            Self::Figure => "figure",
            Self::ThematicBreak => "hr",
            Self::Division(division) => match division {
                DivisionKind::Plain => "div",
                DivisionKind::Section => "section",
                DivisionKind::Article => "article",
                DivisionKind::Aside | DivisionKind::Callout(_) => "aside",
                DivisionKind::Navigation => "nav",
                DivisionKind::Header => "header",
                DivisionKind::Footer => "footer",
                DivisionKind::Address => "address",
            },
            Self::Details { .. } => "details",
            Self::Summary => "summary",
            Self::Emphasis => "em",
            Self::Strong => "strong",
            Self::Underline => "u",
            Self::Strikethrough => "s",
            Self::Insertion => "ins",
            Self::Deletion => "del",
            Self::Highlight => "mark",
            Self::Code(_) | Self::Math(_) => "code",
            Self::Subscript => "sub",
            Self::Superscript | Self::NoteReference(_) => "sup",
            Self::Link { .. } => "a",
            Self::Image { .. } => "img",
            Self::LineBreak => "br",
            Self::Span | Self::Anchor => "span",
            Self::TextLevel(level) => level.element(),
            Self::Root | Self::RawBlock { .. } | Self::Note | Self::Text(_) | Self::SoftBreak | Self::Raw { .. } => "",
        }
    }

    /// The kind of an element that holds others and needs nothing but its name, as house rules name it.
    #[must_use]
    pub fn from_element(name: &str) -> Option<Self> {
        let list = |ordered| Self::List(ListKind { ordered, tight: false, marker: Marker::Plain, start: 1 });
        Some(match name {
            "h1" => Self::Heading(1),
            "h2" => Self::Heading(2),
            "h3" => Self::Heading(3),
            "h4" => Self::Heading(4),
            "h5" => Self::Heading(5),
            "h6" => Self::Heading(6),
            "p" => Self::Paragraph,
            "blockquote" => Self::BlockQuote,
            "ul" => list(false),
            "ol" => list(true),
            "div" => Self::Division(DivisionKind::Plain),
            "section" => Self::Division(DivisionKind::Section),
            "article" => Self::Division(DivisionKind::Article),
            "aside" => Self::Division(DivisionKind::Aside),
            "em" => Self::Emphasis,
            "strong" => Self::Strong,
            "u" => Self::Underline,
            "s" => Self::Strikethrough,
            "ins" => Self::Insertion,
            "del" => Self::Deletion,
            "mark" => Self::Highlight,
            "sub" => Self::Subscript,
            "sup" => Self::Superscript,
            "span" => Self::Span,
            name => Self::TextLevel(TextLevel::from_element(name)?),
        })
    }

    /// What is known of a kind by itself: the one place that a new kind is taught. What it may hold and where it may stand is the
    /// matter of [`structure`](crate::refine::structure), whose table of classes the compiler asks for it, too.
    const fn form(self) -> Form {
        match self {
            Self::Root
            | Self::Heading(_)
            | Self::Paragraph
            | Self::BlockQuote
            | Self::List(_)
            | Self::ListItem { .. }
            | Self::TermList
            | Self::Term
            | Self::TermDescription
            | Self::Preformatted
            | Self::Table
            | Self::Caption
            | Self::RowGroup(_)
            | Self::Row
            | Self::Cell(_)
            | Self::Figure
            | Self::Division(_)
            | Self::Details { .. }
            | Self::Summary
            | Self::Note => Form::Block,
            Self::CodeBlock { .. } | Self::ThematicBreak | Self::RawBlock { .. } => Form::LeafBlock,
            Self::Emphasis
            | Self::Strong
            | Self::Underline
            | Self::Strikethrough
            | Self::Insertion
            | Self::Deletion
            | Self::Highlight
            | Self::Subscript
            | Self::Superscript
            | Self::Link { .. }
            | Self::Span
            | Self::Anchor
            | Self::TextLevel(_) => Form::Inline,
            Self::Text(_)
            | Self::Code(_)
            | Self::Image { .. }
            | Self::LineBreak
            | Self::SoftBreak
            | Self::NoteReference(_)
            | Self::Math(_)
            | Self::Raw { .. } => Form::LeafInline,
        }
    }

    /// Whether the node is part of a line of text. Everything else is a block.
    #[must_use]
    pub const fn is_inline(self) -> bool {
        matches!(self.form(), Form::Inline | Form::LeafInline)
    }

    /// Whether the node is a formula, in whatever notation.
    #[must_use]
    pub const fn is_formula(self) -> bool {
        matches!(self, Self::Math(_))
    }

    /// Whether nodes of this kind never have children.
    #[must_use]
    pub const fn is_leaf(self) -> bool {
        matches!(self.form(), Form::LeafBlock | Form::LeafInline)
    }
}

/// Where nodes of a kind stand, and whether they hold others.
#[derive(Clone, Copy)]
enum Form {
    Block,
    LeafBlock,
    Inline,
    LeafInline,
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_text_level_kind_stands_at_its_own_index() {
        for (index, (kind, name)) in TextLevel::NAMES.iter().enumerate() {
            assert_eq!((*kind as usize, kind.element()), (index, *name));
            assert_eq!(TextLevel::from_element(name), Some(*kind));
        }
    }
}
