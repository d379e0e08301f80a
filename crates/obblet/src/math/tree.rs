//! The tree of a formula.

use super::Variant;
use std::borrow::Cow;

/// What stands in a line, from left to right.
pub type Row = Vec<Node>;

/// The characters of a letter, a number, an operator or a name. Nearly all are known beforehand, and cost no memory of their own.
pub type Characters = Cow<'static, str>;

/// A character as it is kept: without memory of its own where it is one of ASCII.
pub(in crate::math) fn one(c: char) -> Characters {
    const ASCII: &str = "!\"#$%&'()*+,-./0123456789:;<=>?@ABCDEFGHIJKLMNOPQRSTUVWXYZ[\\]^_`abcdefghijklmnopqrstuvwxyz{|}~";
    let at = (c as usize).wrapping_sub('!' as usize);
    ASCII.get(at..at.wrapping_add(1)).map_or_else(|| c.to_string().into(), Cow::Borrowed)
}

/// A formula.
///
/// ```
/// use obblet::math::{Node, tex};
///
/// let (math, problems) = tex::read(r"\frac{a}{b}");
/// assert!(problems.is_empty() && matches!(&math.body[..], [Node::Fraction(_)]));
/// assert_eq!(tex::write(&math), r"\frac{a}{b}");
/// ```
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Math {
    /// What it says.
    pub body: Row,
    /// What stands beside it to refer to it.
    pub tag: Option<Tag>,
    /// The name by which others refer to it; empty where it has none.
    pub label: String,
    /// Whether it asks for a number of its own.
    pub numbered: bool,
    /// What the group is called whose parts have one number with letters behind it, where it is one; empty where it has no name.
    pub parts: Option<String>,
}

/// What stands beside a formula or a row, such as `(3.1)`.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Tag {
    /// Its text, without parentheses.
    pub text: String,
    /// Whether it stands without parentheses.
    pub bare: bool,
}

/// A part of a formula. Its source in TeX is an example.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Node {
    /// `x`, `\alpha`, `\mathrm{d}`: what stands for something; several letters are one word.
    Identifier {
        /// Its letters, as they are without a variant.
        text: Characters,
        /// The alphabet that they are set in.
        variant: Variant,
    },
    /// `3.14`
    Number {
        /// Its digits.
        text: Characters,
        /// The alphabet that they are set in.
        variant: Variant,
    },
    /// `+`, `\le`, `\sum`: an operator, a relation, a delimiter that does not stretch, punctuation.
    Operator {
        /// Its characters.
        text: Characters,
        /// What it does, which says how much space is around it.
        class: Class,
    },
    /// `\sin`, `\operatorname{rank}`: the name of a function.
    Function {
        /// Its name.
        name: Characters,
        /// Whether scripts stand above and below it in display.
        limits: bool,
    },
    /// `\text{where}`
    Text {
        /// The words, with the spaces around them.
        text: String,
        /// How they are set; upright where nothing is said.
        variant: Variant,
    },
    /// `{a + b}`: what is together.
    Group(Row),
    /// `\frac{a}{b}`, `\binom{n}{k}`
    Fraction(Box<Fraction>),
    /// `\sqrt[3]{x}`
    Root {
        /// What the root is taken of.
        body: Row,
        /// Which root it is.
        degree: Option<Row>,
    },
    /// `x_1^2`
    Scripts(Box<Scripts>),
    /// `\hat{x}`, `\overline{x}`, `\underbrace{x}`
    Accent {
        /// What stands above or below.
        mark: Accent,
        /// What it stands above or below of.
        body: Row,
    },
    /// `\overset{!}{=}`, `\xrightarrow[a]{b}`: something above and below, in small.
    Stack {
        /// What is in the middle.
        base: Row,
        /// What is above it.
        over: Option<Row>,
        /// What is below it.
        under: Option<Row>,
        /// Whether the middle is an arrow as long as what is above and below.
        stretches: bool,
    },
    /// `\left( a \middle| b \right)`: delimiters as high as what is between them; one that is empty is not shown.
    Fenced {
        /// What it begins with.
        open: Characters,
        /// What it ends with.
        close: Characters,
        /// What is between, part by part.
        parts: Vec<Row>,
        /// What stands between the parts.
        middles: Vec<Characters>,
    },
    /// `\Big(`: a delimiter of one of the sizes from 1 to 4.
    Delimiter(Delimiter),
    /// `\begin{pmatrix} a & b \end{pmatrix}`
    Table(Box<Table>),
    /// `\quad`: so much space, in eighteenths of an em; may be less than nothing.
    Space(i32),
    /// `\phantom{x}`: takes room and is not shown.
    Phantom {
        /// Which way it takes room.
        kind: Phantom,
        /// What takes it.
        body: Row,
    },
    /// `\displaystyle x`
    Style {
        /// How large it is.
        size: Size,
        /// What is.
        body: Row,
    },
    /// `\color{red} x`
    Colored {
        /// A name or six digits behind a number sign.
        color: String,
        /// Whether it is the ground and not the ink.
        ground: bool,
        /// What is in it.
        body: Row,
    },
    /// `\boxed{x}`, `\cancel{x}`
    Enclosed {
        /// What is drawn.
        kind: Enclosure,
        /// What it is drawn around or through.
        body: Row,
    },
    /// `\mathbin{x}`: what is spaced like something else.
    Classed {
        /// What it is spaced like.
        class: Class,
        /// What it is.
        body: Row,
    },
    /// `\ref{eq:1}`, `\eqref{eq:1}`
    Reference {
        /// The label.
        label: String,
        /// Whether it stands in parentheses.
        parentheses: bool,
        /// The number of what it leads to; empty where that is not known.
        number: String,
    },
    /// What can't be parsed, as its source has it.
    Unparsed(String),
}

/// What an operator does (TeX's classes of atoms).
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Class {
    /// Nothing of the kind: `\infty`.
    Ordinary,
    /// A large one whose scripts stand above and below it in display: `\sum`.
    Large,
    /// A large one whose scripts stand beside it: `\int`.
    Integral,
    /// Between two operands: `+`.
    Binary,
    /// Between two sides: `=`.
    Relation,
    /// Begins what is together.
    Open,
    /// Ends what is together.
    Close,
    /// Between items.
    Punctuation,
}

/// A fraction, or two things above each other.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Fraction {
    /// What is above.
    pub over: Row,
    /// What is below.
    pub under: Row,
    /// What is between them.
    pub line: Line,
    /// Its size, where it is not that of its place.
    pub size: Option<Size>,
    /// Delimiters around it, as of a binomial.
    pub fence: Option<(Characters, Characters)>,
}

/// What is between the parts of a fraction.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Line {
    /// A line.
    Bar,
    /// Nothing.
    None,
    /// A slash, with the parts higher and lower.
    Skewed,
    /// A slash in the line.
    Linear,
}

/// Scripts at something.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Scripts {
    /// What they are at; nothing for scripts that stand alone.
    pub base: Row,
    /// Below, behind.
    pub sub: Option<Row>,
    /// Above, behind.
    pub sup: Option<Row>,
    /// Below, before.
    pub presub: Option<Row>,
    /// Above, before.
    pub presup: Option<Row>,
    /// Whether those behind stand above and below instead; by what the base is where nothing is said.
    pub limits: Option<bool>,
}

/// What stands above or below all of something.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub struct Accent {
    /// The character.
    pub text: Characters,
    /// Whether it is as wide as what it is at.
    pub stretches: bool,
    /// Where it is.
    pub side: Side,
}

/// Where something is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Side {
    /// Above.
    Over,
    /// Below.
    Under,
}

/// A delimiter of its own size.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Delimiter {
    /// The character.
    pub text: Characters,
    /// From 1 to 4.
    pub size: u8,
    /// What it does.
    pub class: Class,
}

/// Rows of cells.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Table {
    /// What it is.
    pub kind: TableKind,
    /// How columns are aligned, where that is said.
    pub columns: Vec<Align>,
    /// Lines before and behind columns, by how many columns stand before each.
    pub rules: Vec<usize>,
    /// Its rows.
    pub rows: Vec<TableRow>,
}

/// What a table is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum TableKind {
    /// A matrix without delimiters.
    #[default]
    Plain,
    /// In parentheses.
    Parentheses,
    /// In square brackets.
    Brackets,
    /// In braces.
    Braces,
    /// Between lines.
    Bars,
    /// Between double lines.
    DoubleBars,
    /// A small one within a line.
    Small,
    /// An array, whose columns are aligned as they say.
    Array,
    /// Cases behind a brace.
    Cases,
    /// Cases before a brace.
    RightCases,
    /// Equations that are aligned with each other: right and left in turn.
    Aligned,
    /// Lines in the middle.
    Gathered,
    /// Lines below each other, the first at the left and the last at the right.
    Multline,
    /// Conditions below a large operator.
    Substack,
}

/// A row of a table.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct TableRow {
    /// Its cells.
    pub cells: Vec<Row>,
    /// What stands beside it.
    pub tag: Option<Tag>,
    /// The name by which others refer to it.
    pub label: String,
    /// Whether it has no number where others have one.
    pub unnumbered: bool,
    /// Whether a line is above it.
    pub ruled: bool,
}

/// How a column is aligned.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Align {
    /// At the left.
    Left,
    /// In the middle.
    Center,
    /// At the right.
    Right,
}

/// Which way something takes room that is not shown.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Phantom {
    /// All of it.
    Whole,
    /// Only its width.
    Width,
    /// Only its height.
    Height,
    /// It is shown and takes no height.
    Smash,
    /// It is shown and takes no width.
    NoWidth,
}

/// How large something is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Size {
    /// As on a line of its own.
    Display,
    /// As within a line.
    Text,
    /// As a script.
    Script,
    /// As a script of a script.
    ScriptScript,
}

/// What is drawn around something or through it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Enclosure {
    /// A box.
    Box,
    /// A line upwards.
    Up,
    /// A line downwards.
    Down,
    /// Both.
    Cross,
    /// A line through the middle.
    Strike,
}

impl Math {
    /// Whether a part of it has a colour of its own.
    #[must_use]
    pub fn has_colors(&self) -> bool {
        let mut rows = vec![&self.body];
        while let Some(row) = rows.pop() {
            if row.iter().any(|node| matches!(node, Node::Colored { .. })) {
                return true;
            }
            rows.extend(row.iter().flat_map(Node::rows));
        }
        false
    }
}

impl Node {
    /// A letter in the usual alphabet.
    #[must_use]
    pub fn letter(text: impl Into<Characters>) -> Self {
        Self::Identifier { text: text.into(), variant: Variant::Usual }
    }

    /// An operator.
    #[must_use]
    pub fn operator(text: impl Into<Characters>, class: Class) -> Self {
        Self::Operator { text: text.into(), class }
    }

    /// The rows that are in it, in the order in which they are read.
    #[must_use]
    pub fn rows(&self) -> Vec<&Row> {
        match self {
            Self::Group(body)
            | Self::Accent { body, .. }
            | Self::Phantom { body, .. }
            | Self::Style { body, .. }
            | Self::Colored { body, .. }
            | Self::Enclosed { body, .. }
            | Self::Classed { body, .. } => vec![body],
            Self::Fraction(fraction) => vec![&fraction.over, &fraction.under],
            Self::Root { body, degree } => degree.iter().chain([body]).collect(),
            Self::Scripts(scripts) => {
                let Scripts { base, sub, sup, presub, presup, .. } = &**scripts;
                presub.iter().chain(presup).chain([base]).chain(sub).chain(sup).collect()
            }
            Self::Stack { base, over, under, .. } => under.iter().chain([base]).chain(over).collect(),
            Self::Fenced { parts, .. } => parts.iter().collect(),
            Self::Table(table) => table.rows.iter().flat_map(|row| &row.cells).collect(),
            _ => Vec::new(),
        }
    }
}
