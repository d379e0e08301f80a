//! Formulas: TeX as it is, where the engine understands it.

use super::Writer;
use super::preamble::MATH_DEFINITIONS;
use crate::document::{FormulaId, Markup, NodeId};
use crate::math;

/// Commands whose packages are not there everywhere: what they say is written out.
const WRITTEN_OUT: [&str; 52] = [
    "DeclareMathOperator",
    "bfseries",
    "rmfamily",
    "itshape",
    "sffamily",
    "ttfamily",
    "upshape",
    "normalfont",
    "alert",
    "structure",
    "SI",
    "si",
    "qty",
    "unit",
    "num",
    "ang",
    "ce",
    "cf",
    "numrange",
    "qtyrange",
    "pu",
    "SIrange",
    "cancel",
    "bcancel",
    "xcancel",
    "bm",
    "abs",
    "norm",
    "bra",
    "ket",
    "braket",
    "set",
    "flatfrac",
    "nicefrac",
    "utilde",
    "sout",
    "empheq",
    "dv",
    "pdv",
    "dd",
    "grad",
    "curl",
    "laplacian",
    "vb",
    "ev",
    "expval",
    "alt",
    "agt",
    "numprint",
    "ch",
    "mathds",
    "mathbbm",
];

/// Commands of unicode-math that no other package has.
const IN_UNICODE_MATH: [&str; 50] = [
    "Alpha",
    "Beta",
    "Chi",
    "Epsilon",
    "Eta",
    "Iota",
    "Kappa",
    "Mu",
    "Nu",
    "Omicron",
    "Rho",
    "Tau",
    "Zeta",
    "adots",
    "bigsqcap",
    "euro",
    "fint",
    "lAngle",
    "lBrack",
    "llbracket",
    "mapsfrom",
    "mathscr",
    "mathup",
    "obslash",
    "oiiint",
    "oiint",
    "ointctrclockwise",
    "omicron",
    "overleftharpoon",
    "overparen",
    "overrightharpoon",
    "rAngle",
    "rrbracket",
    "iddots",
    "underparen",
    "varointclockwise",
    "widecheck",
    "increment",
    "symbb",
    "symbf",
    "symbfit",
    "symbfsf",
    "symbfup",
    "symcal",
    "symfrak",
    "symit",
    "symrm",
    "symsf",
    "symtt",
    "symup",
];

/// Commands of mathtools.
const IN_MATHTOOLS: [&str; 46] = [
    "adjustlimits",
    "mathclap",
    "mathllap",
    "mathrlap",
    "mathmbox",
    "mathmakebox",
    "clap",
    "cramped",
    "crampedllap",
    "crampedrlap",
    "crampedclap",
    "smashoperator",
    "Coloneqq",
    "colonapprox",
    "coloneq",
    "coloneqq",
    "dblcolon",
    "eqqcolon",
    "vcentcolon",
    "rparen",
    "multlined",
    "dcases",
    "xleftrightarrow",
    "xLeftarrow",
    "xhookleftarrow",
    "xmapsto",
    "xRightarrow",
    "xrightharpoondown",
    "xrightharpoonup",
    "xhookrightarrow",
    "xLeftrightarrow",
    "xleftharpoondown",
    "xleftharpoonup",
    "xrightleftharpoons",
    "xleftrightharpoons",
    "overbracket",
    "underbracket",
    "prescript",
    "shortintertext",
    "vdotswithin",
    "DeclarePairedDelimiter",
    "Aboxed",
    "splitfrac",
    "splitdfrac",
    "lparen",
    "MoveEqLeft",
];

/// Beginnings of environments of mathtools.
const MATHTOOLS_ENVIRONMENTS: [&str; 6] = ["matrix*}", "{dcases", "{rcases", "{drcases", "{multlined", "{smallmatrix*"];

impl Writer<'_> {
    pub(super) fn formula(&mut self, id: NodeId, formula: FormulaId) {
        let formula = self.doc.formula(formula);
        let source = self.doc.text(formula.source);
        if formula.notation == Markup::Html {
            self.no_syntax("formulas in HTML; their characters are kept", id);
            let words = self.doc.text(formula.characters);
            return self.words(words);
        }
        self.math_commands.extend(commands(source).filter(|name| !name.is_empty()).map(str::to_owned));
        let (tree, problems) = math::read(formula.notation, source, &mut self.macros);
        // What the preamble of another document defines is not known here.
        if !problems.is_empty() && self.given.text.is_none() {
            self.no_syntax("formulas with errors; they are shown as code", id);
            self.out.push_str("\\texttt{");
            super::escape::code(source.trim(), &mut self.needs, &mut self.out);
            self.out.push('}');
            return;
        }
        if let Some((label, parentheses)) = tree.reference()
            && formula.notation == Markup::Tex
        {
            let _ = std::fmt::Write::write_fmt(
                &mut self.out,
                format_args!("\\{}{{{label}}}", if parentheses { "eqref" } else { "ref" }),
            );
            self.needs.packages.extend(["amsmath", "amssymb"]);
            return;
        }
        let needs_words = formula.notation != Markup::Tex
            || commands(source).any(|name| WRITTEN_OUT.contains(&name) || self.needs_package(name))
            || source.contains("Nice") || source.contains("WithArrows")
            // A font without braces as a script is more than that package takes.
            || source.contains("_\\math")
            || source.contains("^\\math");
        let tex = if needs_words { math::tex::write(&tree) } else { source.to_owned() };
        let tex = self.with_tag(id, without_empty_lines(tex.trim()));
        if tex.is_empty() {
            let words = self.doc.text(formula.characters);
            return self.words(words);
        }
        self.needs.packages.extend(["amsmath", "amssymb"]);
        for (name, _) in MATH_DEFINITIONS {
            if commands(&tex).any(|known| known == name) {
                self.needs.math.insert(name);
            }
        }
        if commands(&tex).any(|name| IN_MATHTOOLS.contains(&name)) || MATHTOOLS_ENVIRONMENTS.iter().any(|name| tex.contains(name))
        {
            self.needs.packages.insert("mathtools");
        }
        let is_of_unicode_math = |name: &str| IN_UNICODE_MATH.contains(&name) || math::tex::upright_letter(name).is_some();
        // Other fonts have doubled strokes for capital letters alone.
        let has_doubled = tex.split("\\mathbb{").skip(1).any(|rest| !rest.starts_with(|c: char| c.is_ascii_uppercase()));
        if !tex.is_ascii() || has_doubled || commands(&tex).any(is_of_unicode_math) {
            self.needs.packages.insert("unicode-math");
        }
        if commands(&tex).any(|name| matches!(name, "color" | "textcolor" | "colorbox" | "fcolorbox")) {
            self.needs.packages.insert("xcolor");
        }
        if commands(&tex).any(|name| matches!(name, "rotatebox" | "scalebox" | "resizebox" | "reflectbox")) {
            self.needs.packages.insert("graphicx");
        }
        let is_line = self.inside.line > 0 || self.inside.moving > 0;
        if formula.display && !is_line {
            self.display(&tex);
        } else if self.inside.moving > 0 {
            let words = math::plain(&tree);
            self.out.push_str("\\texorpdfstring{\\(");
            self.out.push_str(&tex);
            self.out.push_str("\\)}{");
            self.words(&words);
            self.out.push('}');
            self.needs.packages.insert("hyperref");
        } else if is_whole(&tex) {
            self.display(&tex);
        } else {
            self.out.push_str("\\(");
            self.out.push_str(&tex);
            self.out.push_str("\\)");
        }
        let _ = id;
    }

    /// An equation with its number, where counting does not make that.
    fn with_tag(&self, id: NodeId, mut tex: String) -> String {
        if let Some(number) = self.numbers.equations.tags.get(&id)
            && let Some(place) = tex.find('}').filter(|_| is_whole(&tex))
        {
            tex.insert_str(place + 1, &format!("\\tag{{{number}}}"));
        }
        tex
    }

    /// Whether a command is one of a package, and none that the document defines.
    fn needs_package(&self, name: &str) -> bool {
        math::tex::needs_package(name) && !self.macros.knows(name)
    }

    /// A formula on lines of its own.
    fn display(&mut self, tex: &str) {
        if !self.out.is_empty() && !self.out.ends_with('\n') && self.inside.argument == 0 && !self.out.ends_with("\\item ") {
            self.out.truncate(self.out.trim_end_matches(' ').len());
            self.out.push('\n');
        }
        if is_whole(tex) {
            self.out.push_str(tex);
        } else {
            self.out.push_str("\\[\n");
            self.out.push_str(tex);
            self.out.push_str("\n\\]");
        }
        if self.inside.argument == 0 {
            self.out.push('\n');
        }
    }
}

/// The commands of a formula.
pub(super) fn commands(tex: &str) -> impl Iterator<Item = &str> {
    tex.match_indices('\\').map(|(at, _)| {
        let rest = &tex[at + 1..];
        &rest[..rest.find(|c: char| !c.is_ascii_alphabetic()).unwrap_or(rest.len())]
    })
}

/// Whether a formula is an environment that stands in the text by itself.
fn is_whole(tex: &str) -> bool {
    const WHOLE: [&str; 13] = [
        "equation",
        "align",
        "gather",
        "multline",
        "flalign",
        "alignat",
        "eqnarray",
        "displaymath",
        "math",
        "xalignat",
        "darray",
        "dmath",
        "subequations",
    ];
    let Some(name) = tex.strip_prefix("\\begin{").and_then(|rest| rest.split('}').next()) else { return false };
    WHOLE.contains(&name.trim_end_matches('*')) && tex.ends_with(&format!("\\end{{{name}}}"))
}

/// An empty line would end a formula.
fn without_empty_lines(tex: &str) -> String {
    tex.lines().filter(|line| !line.trim().is_empty()).collect::<Vec<_>>().join("\n")
}
