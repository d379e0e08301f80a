//! Environments by their names: what those of the standard classes and of packages are (the LaTeX documentation, and that of the
//! packages and classes that have them).

use crate::fast_hash::HashMap;
use std::sync::LazyLock;

/// What an environment is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Sort {
    /// Text that is no LaTeX.
    Code,
    /// A file that the document writes.
    File,
    /// Nothing of it is for readers.
    Skipped,
    /// A drawing that only the engine makes.
    Drawing,
    /// A box that is kept for later.
    Kept,
    /// Items that say how deep they stand.
    Outline,
    Bullets,
    Numbers,
    Terms,
    Table,
    /// Columns by tabs.
    Tabs,
    Float,
    /// Lines of an algorithm.
    Lines,
    /// Entries of a bibliography.
    Entries,
    Document,
    Quotation,
    Abstract,
    Proof,
    Slide,
    /// A box, whose size means nothing here.
    Box,
    Letter,
    /// Text in a language that an argument names.
    Language,
    Style,
    /// Its content stands as if it were not there.
    Open,
}

const NAMES: &[(Sort, &str)] = &[
    (
        Sort::Code,
        "verbatim Verbatim lstlisting minted BVerbatim LVerbatim alltt code spverbatim LTXexample SideBySideExample \
         tcblisting dispListing sourcecode boxedverbatim verbatimtab pyverbatim pycode Highlighting fboxverbatim",
    ),
    (Sort::File, "filecontents VerbatimOut"),
    (Sort::Skipped, "comment CCSXML psgraph"),
    (
        Sort::Drawing,
        "tikzpicture picture pspicture pgfpicture asy forest circuitikz tikzcd axis axopicture feynman fmffile \
         sequencediagram",
    ),
    (Sort::Kept, "lrbox"),
    (Sort::Outline, "outline"),
    (
        Sort::Bullets,
        "itemize compactitem asparaitem inparaitem dinglist checkboxes oneparcheckboxes itemstep smallitemize \
         Itemize list trivlist",
    ),
    (
        Sort::Numbers,
        "enumerate compactenum asparaenum inparaenum questions choices oneparchoices parts subparts exe exe. xlist xlist. tasks dingautolist alineas \
         subalineas incisos",
    ),
    (Sort::Terms, "description compactdesc labeling basedescript desclist"),
    (
        Sort::Table,
        "tabular tabularx tabulary longtable array supertabular xltabular longtabu tabu NiceTabular NiceTabularX \
         xtabular mpsupertabular mpxtabular tblr longtblr talltblr deluxetable xcalctab edtabularc edtabularl \
         edtabularr gloss.",
    ),
    (Sort::Tabs, "tabbing"),
    (
        Sort::Float,
        "figure table wrapfigure wraptable subfigure subtable SCfigure SCtable sidewaysfigure sidewaystable marginfigure \
         margintable teaserfigure floatingfigure floatingtable listing algorithm algorithm2e",
    ),
    (Sort::Lines, "algorithmic algpseudocode"),
    (Sort::Entries, "thebibliography"),
    (Sort::Entries, super::entry_lists::WITHOUT_HEADING),
    (Sort::Document, "document"),
    (Sort::Quotation, "quote quotation displayquote verse epigraphs displaycquote vquote extract citacao"),
    (Sort::Abstract, "abstract onlyabstract"),
    (Sort::Proof, "proof"),
    (Sort::Slide, "frame"),
    (
        Sort::Box,
        "minipage parbox multicols columns column adjustbox tcolorbox mdframed framed shaded spacing adjustwidth \
         block alertblock exampleblock beamercolorbox beamerboxesrounded onlyenv actionenv uncoverenv \
         visibleenv invisibleenv alertenv structureenv overprint overlayarea varwidth paracol leftbar oframed snugshade boxedminipage boxminipage Sbox shadowbox \
         captionbeside textblock",
    ),
    (Sort::Letter, "letter"),
    (Sort::Language, "otherlanguage selectlanguage"),
    (Sort::Style, "bf it em bfseries itshape tt ttfamily"),
    (
        Sort::Open,
        "center flushleft flushright titlepage small footnotesize scriptsize tiny large Large normalsize raggedright \
         raggedleft centering sloppypar samepage singlespace doublespace onehalfspace landscape threeparttable \
         tablenotes appendices refsection appendix frontmatter mainmatter backmatter acknowledgments acknowledgements \
         ack acks dedication keyword IEEEkeywords keywords ruledtabular widetext linenomath pages pairs Leftside \
         Rightside astanza linenumbers internallinenumbers savenotes sideways turn rotate subfigmatrix huge Huge \
         LARGE normalfont FlushLeft FlushRight Center centerframe interlinea fullwidth widefigure acronym \
         abbreviations preface foreword adjmulticols strip onecolabstract fullpage DoubleSpace SingleSpace onecolumn \
         twocolumn preliminary thinmargin changemargin addmargin wrapfloat CJK hangparas",
    ),
];

/// Arguments that say nothing of the text: `o` is an option, `m` an argument.
const ARGUMENTS: &[(&str, &str)] = &[
    ("acronym", "o"),
    ("addmargin", "om"),
    ("adjmulticols", "mmm"),
    ("adjustwidth", "mm"),
    ("algorithmic", "o"),
    ("algpseudocode", "o"),
    ("changemargin", "mm"),
    ("CJK", "omm"),
    ("citacao", "o"),
    ("dinglist", "m"),
    ("dingautolist", "m"),
    ("displaycquote", "oom"),
    ("hangparas", "mm"),
    ("labeling", "om"),
    ("basedescript", "m"),
    ("rotate", "m"),
    ("spacing", "m"),
    ("subfigmatrix", "m"),
    ("turn", "m"),
    ("verse", "o"),
    ("displayquote", "o"),
];

/// What an environment is, by its name without a star.
pub(super) fn sort(name: &str) -> Option<Sort> {
    static BY_NAME: LazyLock<HashMap<&str, Sort>> = LazyLock::new(|| {
        NAMES.iter().flat_map(|(sort, names)| names.split_ascii_whitespace().map(move |name| (name, *sort))).collect()
    });
    BY_NAME.get(name).copied()
}

/// The arguments of an environment that say nothing of the text.
pub(super) fn arguments(name: &str) -> &'static str {
    ARGUMENTS.iter().find(|(known, _)| *known == name).map_or("", |(_, arguments)| arguments)
}

/// Whether an environment that nothing is known of is called as those are whose text is code.
pub(super) fn is_named_as_code(name: &str) -> bool {
    ["code", "verbatim", "listing", "listings", "console", "terminal"].iter().any(|end| name.ends_with(end))
}

/// Whether an environment says what its content is: packages say how that looks.
pub(super) fn is_of_format(name: &str) -> bool {
    let name = name.trim_end_matches('*');
    super::formulas::DISPLAYS.contains(&name)
        || sort(name).is_some_and(|sort| !matches!(sort, Sort::Open | Sort::Box | Sort::Style | Sort::Skipped | Sort::Drawing))
}
