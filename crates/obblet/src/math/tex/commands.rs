//! Commands with a form of their own: accents, names of functions, alphabets, spaces, delimiters (LaTeX and amsmath).

use super::symbols::{SYMBOLS, Symbol};
use crate::fast_hash::HashMap;
use crate::math::{Characters, Class, Enclosure, Node, Phantom, Side, Size, Variant};
use std::sync::LazyLock;

/// Names of functions, and whether scripts stand above and below them in display.
pub(super) const FUNCTIONS: [(&str, &str, bool); 38] = [
    ("arccos", "arccos", false),
    ("arcsin", "arcsin", false),
    ("arctan", "arctan", false),
    ("arg", "arg", false),
    ("cos", "cos", false),
    ("cosh", "cosh", false),
    ("cot", "cot", false),
    ("coth", "coth", false),
    ("csc", "csc", false),
    ("deg", "deg", false),
    ("det", "det", true),
    ("dim", "dim", false),
    ("exp", "exp", false),
    ("gcd", "gcd", true),
    ("hom", "hom", false),
    ("inf", "inf", true),
    ("ker", "ker", false),
    ("lg", "lg", false),
    ("lim", "lim", true),
    ("liminf", "lim inf", true),
    ("limsup", "lim sup", true),
    ("ln", "ln", false),
    ("log", "log", false),
    ("max", "max", true),
    ("min", "min", true),
    ("Pr", "Pr", true),
    ("sec", "sec", false),
    ("sin", "sin", false),
    ("sinh", "sinh", false),
    ("sup", "sup", true),
    ("tan", "tan", false),
    ("tanh", "tanh", false),
    ("injlim", "inj lim", true),
    ("projlim", "proj lim", true),
    ("sgn", "sgn", false),
    ("lcm", "lcm", true),
    ("argmax", "arg max", true),
    ("argmin", "arg min", true),
];

/// Accents: names, characters, whether they stretch.
pub(super) const ACCENTS: [(&str, &str, bool, Side); 45] = [
    ("hat", "^", false, Side::Over),
    ("check", "ˇ", false, Side::Over),
    ("tilde", "~", false, Side::Over),
    ("acute", "´", false, Side::Over),
    ("grave", "`", false, Side::Over),
    ("dot", "˙", false, Side::Over),
    ("ddot", "¨", false, Side::Over),
    ("dddot", "⃛", false, Side::Over),
    ("ddddot", "⃜", false, Side::Over),
    ("breve", "˘", false, Side::Over),
    ("bar", "¯", false, Side::Over),
    ("vec", "→", false, Side::Over),
    ("mathring", "˚", false, Side::Over),
    ("widehat", "^", true, Side::Over),
    ("widetilde", "~", true, Side::Over),
    ("widecheck", "ˇ", true, Side::Over),
    ("overline", "‾", true, Side::Over),
    ("overrightarrow", "→", true, Side::Over),
    ("overleftarrow", "←", true, Side::Over),
    ("overleftrightarrow", "↔", true, Side::Over),
    ("overrightharpoon", "⇀", true, Side::Over),
    ("overleftharpoon", "↼", true, Side::Over),
    ("overbrace", "⏞", true, Side::Over),
    ("overparen", "⏜", true, Side::Over),
    ("overbracket", "⎴", true, Side::Over),
    ("underline", "_", true, Side::Under),
    ("underrightarrow", "→", true, Side::Under),
    ("underleftarrow", "←", true, Side::Under),
    ("underleftrightarrow", "↔", true, Side::Under),
    ("underbrace", "⏟", true, Side::Under),
    ("underparen", "⏝", true, Side::Under),
    ("underbracket", "⎵", true, Side::Under),
    ("underbar", "_", false, Side::Under),
    ("utilde", "~", true, Side::Under),
    ("Hat", "^", false, Side::Over),
    ("Bar", "¯", false, Side::Over),
    ("Vec", "→", false, Side::Over),
    ("Dot", "˙", false, Side::Over),
    ("Ddot", "¨", false, Side::Over),
    ("Check", "ˇ", false, Side::Over),
    ("Tilde", "~", false, Side::Over),
    ("Acute", "´", false, Side::Over),
    ("Grave", "`", false, Side::Over),
    ("Breve", "˘", false, Side::Over),
    ("widebar", "‾", true, Side::Over),
];

/// Commands that set their argument in an alphabet.
pub(super) const ALPHABETS: [(&str, Variant); 31] = [
    ("mathrm", Variant::Upright),
    ("mathit", Variant::Italic),
    ("mathbf", Variant::Bold),
    ("mathcal", Variant::Script),
    ("mathfrak", Variant::Fraktur),
    ("mathbb", Variant::DoubleStruck),
    ("mathsf", Variant::SansSerif),
    ("mathtt", Variant::Monospace),
    ("boldsymbol", Variant::BoldItalic),
    ("mathscr", Variant::Script),
    ("bm", Variant::BoldItalic),
    ("mathup", Variant::Upright),
    ("mathnormal", Variant::Usual),
    ("symbf", Variant::Bold),
    ("symit", Variant::Italic),
    ("pmb", Variant::BoldItalic),
    ("Bbb", Variant::DoubleStruck),
    ("mathds", Variant::DoubleStruck),
    ("mathbbm", Variant::DoubleStruck),
    ("symbb", Variant::DoubleStruck),
    ("symup", Variant::Upright),
    ("symrm", Variant::Upright),
    ("symsf", Variant::SansSerif),
    ("symtt", Variant::Monospace),
    ("symcal", Variant::Script),
    ("symfrak", Variant::Fraktur),
    ("symbfup", Variant::Bold),
    ("symbfit", Variant::BoldItalic),
    ("symbfsf", Variant::BoldSansSerif),
    ("mathbfit", Variant::BoldItalic),
    ("mathbfsf", Variant::BoldSansSerif),
];

/// Commands that set all that comes in an alphabet.
pub(super) const SWITCHES: [(&str, Variant); 15] = [
    ("rm", Variant::Upright),
    ("it", Variant::Italic),
    ("bf", Variant::Bold),
    ("cal", Variant::Script),
    ("sf", Variant::SansSerif),
    ("tt", Variant::Monospace),
    ("frak", Variant::Fraktur),
    ("mit", Variant::Usual),
    ("rmfamily", Variant::Upright),
    ("upshape", Variant::Upright),
    ("normalfont", Variant::Upright),
    ("itshape", Variant::Italic),
    ("bfseries", Variant::Bold),
    ("sffamily", Variant::SansSerif),
    ("ttfamily", Variant::Monospace),
];

/// Sizes and styles of text, which formulas take from what is around them.
pub(super) const TEXT_SIZES: [&str; 16] = [
    "tiny",
    "scriptsize",
    "footnotesize",
    "small",
    "normalsize",
    "large",
    "Large",
    "LARGE",
    "huge",
    "Huge",
    "selectfont",
    "scshape",
    "slshape",
    "mdseries",
    "normalcolor",
    "em",
];

/// Spaces, in eighteenths of an em.
pub(super) const SPACES: [(&str, i32); 16] = [
    (",", 3),
    (":", 4),
    (";", 5),
    ("!", -3),
    (" ", 6),
    ("quad", 18),
    ("qquad", 36),
    ("thinspace", 3),
    (">", 4),
    ("medspace", 4),
    ("thickspace", 5),
    ("negthinspace", -3),
    ("negmedspace", -4),
    ("negthickspace", -5),
    ("enspace", 9),
    ("enskip", 9),
];

/// Sizes of what is written.
pub(super) const SIZES: [(&str, Size); 4] = [
    ("displaystyle", Size::Display),
    ("textstyle", Size::Text),
    ("scriptstyle", Size::Script),
    ("scriptscriptstyle", Size::ScriptScript),
];

/// Delimiters of one size: names, sizes, what they do.
pub(super) const BIG: [(&str, u8, Class); 16] = [
    ("big", 1, Class::Ordinary),
    ("Big", 2, Class::Ordinary),
    ("bigg", 3, Class::Ordinary),
    ("Bigg", 4, Class::Ordinary),
    ("bigl", 1, Class::Open),
    ("Bigl", 2, Class::Open),
    ("biggl", 3, Class::Open),
    ("Biggl", 4, Class::Open),
    ("bigr", 1, Class::Close),
    ("Bigr", 2, Class::Close),
    ("biggr", 3, Class::Close),
    ("Biggr", 4, Class::Close),
    ("bigm", 1, Class::Relation),
    ("Bigm", 2, Class::Relation),
    ("biggm", 3, Class::Relation),
    ("Biggm", 4, Class::Relation),
];

/// What takes room without being shown, or is shown without taking any.
pub(super) const PHANTOMS: [(&str, Phantom); 8] = [
    ("phantom", Phantom::Whole),
    ("hphantom", Phantom::Width),
    ("vphantom", Phantom::Height),
    ("smash", Phantom::Smash),
    ("mathclap", Phantom::NoWidth),
    ("mathrlap", Phantom::NoWidth),
    ("mathllap", Phantom::NoWidth),
    ("rlap", Phantom::NoWidth),
];

/// What draws around something or through it.
pub(super) const ENCLOSURES: [(&str, Enclosure); 8] = [
    ("boxed", Enclosure::Box),
    ("cancel", Enclosure::Up),
    ("bcancel", Enclosure::Down),
    ("xcancel", Enclosure::Cross),
    ("sout", Enclosure::Strike),
    ("fbox", Enclosure::Box),
    ("framebox", Enclosure::Box),
    ("not", Enclosure::Up),
];

/// What is spaced like something else.
pub(super) const CLASSES: [(&str, Class); 7] = [
    ("mathord", Class::Ordinary),
    ("mathop", Class::Large),
    ("mathbin", Class::Binary),
    ("mathrel", Class::Relation),
    ("mathopen", Class::Open),
    ("mathclose", Class::Close),
    ("mathpunct", Class::Punctuation),
];

/// Arrows that are as long as what is above and below them.
pub(super) const ARROWS: [(&str, &str); 20] = [
    ("xrightarrow", "→"),
    ("xleftarrow", "←"),
    ("xleftrightarrow", "↔"),
    ("xRightarrow", "⇒"),
    ("xLeftarrow", "⇐"),
    ("xLeftrightarrow", "⇔"),
    ("xhookrightarrow", "↪"),
    ("xhookleftarrow", "↩"),
    ("xmapsto", "↦"),
    ("xrightharpoonup", "⇀"),
    ("xrightharpoondown", "⇁"),
    ("xleftharpoonup", "↼"),
    ("xleftharpoondown", "↽"),
    ("xrightleftharpoons", "⇌"),
    ("xleftrightharpoons", "⇋"),
    ("xlongequal", "="),
    ("xtwoheadrightarrow", "↠"),
    ("xtwoheadleftarrow", "↞"),
    ("xtofrom", "⇄"),
    ("xequal", "="),
];

/// Characters that a slash through them makes another one of.
pub(super) const NEGATIONS: [(&str, &str); 27] = [
    ("=", "≠"),
    ("<", "≮"),
    (">", "≯"),
    ("≤", "≰"),
    ("≥", "≱"),
    ("∈", "∉"),
    ("∋", "∌"),
    ("⊂", "⊄"),
    ("⊃", "⊅"),
    ("⊆", "⊈"),
    ("⊇", "⊉"),
    ("∼", "≁"),
    ("≃", "≄"),
    ("≅", "≇"),
    ("≈", "≉"),
    ("≡", "≢"),
    ("∣", "∤"),
    ("∥", "∦"),
    ("∃", "∄"),
    ("≺", "⊀"),
    ("≻", "⊁"),
    ("⊢", "⊬"),
    ("⊨", "⊭"),
    ("←", "↚"),
    ("→", "↛"),
    ("⇒", "⇏"),
    ("⇔", "⇎"),
];

/// What a command means that is in one of the tables.
#[derive(Clone, Copy, Debug)]
pub(super) enum Meaning {
    Symbol(&'static str, Symbol),
    /// The name of a function as it is shown, and whether it has limits.
    Function(&'static str, bool),
    Space(i32),
    Alphabet(Variant),
    /// The character, whether it stretches, where it stands.
    Accent(&'static str, bool, Side),
    Big(u8, Class),
    Arrow(&'static str),
    Enclosure(Enclosure),
    Phantom(Phantom),
    Class(Class),
    Size(Size),
    Switch(Variant),
    TextSize,
}

impl Meaning {
    /// Whether it sets what follows up to the end of its group, or nothing at all.
    pub(super) const fn is_switch(self) -> bool {
        matches!(self, Self::Size(_) | Self::Switch(_) | Self::TextSize)
    }
}

/// What a command means, where a table says that; no name is in two of them.
pub(super) fn meaning(name: &str) -> Option<Meaning> {
    static BY_NAME: LazyLock<HashMap<&'static str, Meaning>> = LazyLock::new(|| {
        let mut map = HashMap::default();
        map.extend(SYMBOLS.iter().map(|(name, text, symbol)| (*name, Meaning::Symbol(text, *symbol))));
        map.extend(FUNCTIONS.iter().map(|(name, shown, limits)| (*name, Meaning::Function(shown, *limits))));
        map.extend(SPACES.iter().map(|(name, width)| (*name, Meaning::Space(*width))));
        map.extend(ALPHABETS.iter().map(|(name, variant)| (*name, Meaning::Alphabet(*variant))));
        map.extend(ACCENTS.iter().map(|(name, text, stretches, side)| (*name, Meaning::Accent(text, *stretches, *side))));
        map.extend(BIG.iter().map(|(name, size, class)| (*name, Meaning::Big(*size, *class))));
        map.extend(ARROWS.iter().map(|(name, arrow)| (*name, Meaning::Arrow(arrow))));
        // A slash through what follows is a mark of its own where it is an operator.
        map.extend(ENCLOSURES.iter().filter(|(name, _)| *name != "not").map(|(name, kind)| (*name, Meaning::Enclosure(*kind))));
        map.extend(PHANTOMS.iter().map(|(name, kind)| (*name, Meaning::Phantom(*kind))));
        map.extend(CLASSES.iter().map(|(name, class)| (*name, Meaning::Class(*class))));
        map.extend(SIZES.iter().map(|(name, size)| (*name, Meaning::Size(*size))));
        map.extend(SWITCHES.iter().map(|(name, variant)| (*name, Meaning::Switch(*variant))));
        map.extend(TEXT_SIZES.iter().map(|name| (*name, Meaning::TextSize)));
        map
    });
    BY_NAME.get(name).copied()
}

/// What a command stands for.
pub(super) fn symbol(name: &str) -> Option<(&'static str, Symbol)> {
    match meaning(name) {
        Some(Meaning::Symbol(text, symbol)) => Some((text, symbol)),
        _ => None,
    }
}

fn is_greek(text: &str) -> bool {
    text.chars().all(|c| matches!(c, '\u{370}'..='\u{3FF}'))
}

/// The Greek letter that stands upright by a command (the documentation of upgreek, and of newtx).
pub(crate) fn upright_letter(name: &str) -> Option<&'static str> {
    match symbol(name.strip_prefix("up").or_else(|| name.strip_suffix("up"))?) {
        Some((text, Symbol::Letter | Symbol::Capital)) if is_greek(text) && symbol(name).is_none() => Some(text),
        _ => None,
    }
}

/// The command that stands for a character, and what it is.
pub(super) fn command_for(text: &str) -> Option<(&'static str, Symbol)> {
    static BY_TEXT: LazyLock<HashMap<&'static str, (&'static str, Symbol)>> = LazyLock::new(|| {
        let mut map = HashMap::default();
        for (name, text, symbol) in SYMBOLS {
            map.entry(text).or_insert((name, symbol));
        }
        map
    });
    BY_TEXT.get(text).copied()
}

/// The command that stands for an operator of a class.
pub(super) fn command_of(text: &str, class: Class) -> Option<(&'static str, Symbol)> {
    static BY_CLASS: LazyLock<HashMap<(&'static str, Class), &'static str>> = LazyLock::new(|| {
        let mut map = HashMap::default();
        for (name, text, symbol) in SYMBOLS {
            if let Symbol::Operator(class) = symbol {
                map.entry((text, class)).or_insert(name);
            }
        }
        map
    });
    BY_CLASS.get(&(text, class)).map(|name| (*name, Symbol::Operator(class)))
}

/// The node that a command stands for.
pub(super) fn node(text: Characters, symbol: Symbol, variant: Variant) -> Node {
    match symbol {
        Symbol::Letter => Node::Identifier { text, variant },
        Symbol::Capital => Node::Identifier { text, variant: if variant == Variant::Usual { Variant::Upright } else { variant } },
        Symbol::Slanted => Node::Identifier { text, variant: Variant::Italic },
        Symbol::Operator(class) => Node::operator(text, class),
    }
}

/// The class of a character that stands for itself.
pub(super) const fn class_of(c: char) -> Option<Class> {
    Some(match c {
        '+' | '-' | '*' | '−' | '±' | '×' | '÷' | '⋅' | '·' | '∘' | '∗' => Class::Binary,
        '=' | '<' | '>' | ':' | '≤' | '≥' | '≠' | '≈' | '→' | '←' | '∈' | '⊂' | '⊆' | '≡' | '∼' => {
            Class::Relation
        }
        '(' | '[' => Class::Open,
        ')' | ']' | '!' | '?' => Class::Close,
        ',' | ';' => Class::Punctuation,
        '/' | '|' | '.' | '@' | '"' | '\'' | '`' | '∞' | '…' | '⋯' | '°' | '%' | '‰' | '#' => Class::Ordinary,
        _ => return None,
    })
}

/// The node that a character or a word stands for by itself.
pub(in crate::math) fn class_of_text(text: &str) -> Node {
    let mut letters = text.chars();
    if let (Some(c), None) = (letters.next(), letters.next())
        && let Some(class) = class_of(c)
    {
        return Node::operator(text.to_owned(), class);
    }
    match command_for(text) {
        Some((_, Symbol::Operator(class))) => Node::operator(text.to_owned(), class),
        Some((_, symbol)) => node(text.to_owned().into(), symbol, Variant::Usual),
        None if NEGATIONS.iter().any(|(_, negated)| *negated == text) => Node::operator(text.to_owned(), Class::Relation),
        None => Node::operator(text.to_owned(), Class::Ordinary),
    }
}

/// Whether a character is an operator of a class.
pub(in crate::math) fn is_of_class(text: &str, class: Class) -> bool {
    let mut letters = text.chars();
    let by_itself = letters.next().filter(|_| letters.as_str().is_empty()).and_then(class_of);
    by_itself == Some(class) || command_of(text, class).is_some()
}

/// The function of a name.
pub(in crate::math) fn function_of_name(name: &str) -> Option<Node> {
    let (_, shown, limits) = FUNCTIONS.iter().find(|(_, shown, _)| *shown == name)?;
    Some(Node::Function { name: (*shown).into(), limits: *limits })
}
