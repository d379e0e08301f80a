//! Formulas: a file of them goes through every notation and back.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::compare::compare;
use obblet::math::{mathml, omml, plain, tex};
use obblet::profile::Profile;
use proptest::prelude::*;
use support::convert::convert;
use support::linear::grows_linearly;
use support::validity;

/// The formulas of the data file: one in each line.
fn formulas() -> Vec<&'static str> {
    let all = include_str!("../data/formulas.txt");
    let found: Vec<&str> = all.lines().filter(|line| !line.is_empty() && !line.starts_with("# ")).collect();
    assert!(found.len() >= 500, "{}", found.len());
    found
}

#[test]
fn formulas_come_back_from_tex() {
    let mut failed = Vec::new();
    for source in formulas() {
        let (math, problems) = tex::read(source);
        let written = tex::write(&math);
        let (again, _) = tex::read(&written);
        if !problems.is_empty() {
            failed.push(format!("{source}: {problems:?}"));
        } else if again != math {
            failed.push(format!("{source}\n  -> {written}\n{math:?}\n{again:?}"));
        }
    }
    assert!(failed.is_empty(), "{} of {}:\n{}", failed.len(), formulas().len(), failed.join("\n"));
}

#[test]
fn formulas_come_back_from_mathml() {
    // MathML has no sizes of fractions that are scripts, no classes of what is no operator, no scripts of the sides of an operator,
    // no names of rows and no numbers to come, and one form for a script below and a limit; the source that travels with a formula has them.
    let others = ["\\genfrac{\\{", "\\sideset", "\\nolimits", "\\underset{x}{\\max}", "\\label{eq:a}", "\\mathrel{R}", "split"];
    let mut failed = Vec::new();
    for source in formulas().into_iter().filter(|source| others.iter().all(|other| !source.contains(other))) {
        let (math, _) = tex::read(source);
        let markup = mathml::write(&math, &mathml::Options::default());
        let (again, problems) = mathml::read(&markup);
        let written = tex::write(&again);
        let (third, _) = tex::read(&written);
        if !problems.is_empty() || third.body != math.body {
            failed.push(format!("{source}\n  -> {written}\n  {markup}"));
        }
    }
    assert!(failed.is_empty(), "{} of {}:\n{}", failed.len(), formulas().len(), failed.join("\n"));
}

#[test]
fn formulas_come_back_from_word() {
    // Word processors have no sizes of their own for fractions, delimiters and rows, no colours in the tree, no rules of arrays,
    // no classes of operators, no functions below bars, few spaces, and bars without sides; their form of all else is the tree.
    let others = [
        "dfrac",
        "\\varlim",
        "\\varinj",
        "\\varproj",
        "tfrac",
        "dbinom",
        "cfrac",
        "genfrac",
        "sideset",
        "underset{x}{\\max}",
        "xleftarrow[g]",
        "igl",
        "\\big",
        "\\Big",
        "smallmatrix",
        "c|c",
        "multline",
        "\\label{eq:a}",
        "split",
        "textbf",
        "\\: c",
        "mspace",
        "style",
        "color",
        "mathbin",
        "mathrel",
        "bmod",
        "colon",
        "vert x",
        "Vert x",
        "\\Re",
        "bigtriangle",
        "vartriangleleft",
        "trianglelefteq",
    ];
    let mut failed = Vec::new();
    let mut count = 0;
    for source in formulas().into_iter().filter(|source| others.iter().all(|other| !source.contains(other))) {
        let (math, _) = tex::read(source);
        let markup = omml::write(&math);
        let (again, problems) = omml::read(&markup);
        let written = tex::write(&again);
        let (third, _) = tex::read(&written);
        count += 1;
        if !problems.is_empty() || third.body != math.body {
            failed.push(format!("{source}\n  -> {written}"));
        }
    }
    assert!(count > 460, "{count}");
    assert!(failed.is_empty(), "{} of {count}:\n{}", failed.len(), failed.join("\n"));
}

/// Reads MathML, and writes it as TeX.
#[track_caller]
fn mathml_is(markup: &str, expected: &str) {
    let (math, problems) = mathml::read(&format!("<math>{markup}</math>"));
    assert_eq!((tex::write(&math).as_str(), problems.len()), (expected, 0), "{markup}");
}

#[test]
fn mathml_of_others_is_read() {
    mathml_is(
        "<mrow><mi>x</mi><mo>=</mo><mfrac><mrow><mo>-</mo><mi>b</mi><mo>&#xB1;</mo><msqrt><msup><mi>b</mi><mn>2</mn></msup><mo>-</mo><mn>4</mn><mo>&InvisibleTimes;</mo><mi>a</mi><mi>c</mi></msqrt></mrow><mrow><mn>2</mn><mi>a</mi></mrow></mfrac></mrow>",
        r"x = \frac{-b \pm \sqrt{b^2 - 4ac}}{2a}",
    );
    mathml_is("<mfenced open='[' close=')' separators=';'><mi>a</mi><mn>1</mn></mfenced>", r"\left[a; 1 \right)");
    mathml_is(
        "<mo>(</mo><mtable><mtr><mtd><mn>1</mn></mtd><mtd><mn>0</mn></mtd></mtr></mtable><mo>)</mo>",
        "\\begin{pmatrix}\n1 & 0\n\\end{pmatrix}",
    );
    mathml_is("<mi mathvariant='bold'>v</mi><mi>sin</mi><mo>&#x2061;</mo><mi>&#x1D504;</mi>", r"\mathbf{v}\sin \mathfrak{A}");
    mathml_is(
        "<munderover><mo>&#x2211;</mo><mrow><mi>i</mi><mo>=</mo><mn>1</mn></mrow><mi>n</mi></munderover><mover><mi>x</mi><mo>&#xAF;</mo></mover>",
        r"\sum_{i = 1}^n\bar{x}",
    );
    mathml_is(
        "<menclose notation='updiagonalstrike'><mi>x</mi></menclose><mspace width='1em'/><mphantom><mi>y</mi></mphantom>",
        r"\cancel{x}\quad \phantom{y}",
    );
    mathml_is("<m:msub><m:mi>a</m:mi><m:mn>1</m:mn></m:msub>", "a_1");
    mathml_is(
        "<mmultiscripts><mi>X</mi><mn>1</mn><none/><mprescripts/><none/><mn>2</mn></mmultiscripts>",
        r"\prescript{2}{}{X}_1",
    );
    // What expressions mean.
    mathml_is(
        "<apply><eq/><apply><plus/><apply><power/><ci>a</ci><cn>2</cn></apply><apply><times/><cn>2</cn><ci>b</ci></apply></apply><apply><divide/><cn>1</cn><ci>c</ci></apply></apply>",
        r"a^2 + 2b = \frac{1}{c}",
    );
    mathml_is(
        "<apply><times/><apply><plus/><ci>a</ci><ci>b</ci></apply><apply><minus/><ci>c</ci></apply></apply>",
        r"(a + b)(-c)",
    );
    mathml_is(
        "<apply><int/><bvar><ci>x</ci></bvar><lowlimit><cn>0</cn></lowlimit><uplimit><infinity/></uplimit><apply><sin/><ci>x</ci></apply></apply>",
        r"\int_0^{\infty}\sin x\,\mathrm{d}x",
    );
    mathml_is(
        "<apply><forall/><bvar><ci>x</ci></bvar><apply><in/><ci>x</ci><reals/></apply></apply>",
        r"\forall x : x \in \mathbb{R}",
    );
    mathml_is(
        "<apply><root/><degree><cn>3</cn></degree><ci>x</ci></apply><matrix><matrixrow><cn>1</cn></matrixrow></matrix>",
        "\\sqrt[3]{x}\\begin{pmatrix}\n1\n\\end{pmatrix}",
    );
    mathml_is(
        "<piecewise><piece><cn>0</cn><apply><lt/><ci>x</ci><cn>0</cn></apply></piece><otherwise><ci>x</ci></otherwise></piecewise>",
        "\\begin{cases}\n0 & x < 0 \\\\\nx & \\text{otherwise}\n\\end{cases}",
    );
    mathml_is(
        "<apply><limit/><bvar><ci>x</ci></bvar><lowlimit><cn>0</cn></lowlimit><apply><ci>f</ci><ci>x</ci></apply></apply>",
        r"\lim_{x \rightarrow 0}f(x)",
    );
}

#[test]
fn formulas_of_word_processors_are_read() {
    let cases = [
        ("<m:r><m:t>2ab=3.5</m:t></m:r>", "2ab = 3.5"),
        (
            "<m:d><m:dPr><m:begChr m:val=\"{\"/><m:endChr m:val=\"\"/></m:dPr><m:e><m:eqArr><m:e><m:r><m:t>a,&amp;x</m:t></m:r></m:e><m:e><m:r><m:t>b</m:t></m:r></m:e></m:eqArr></m:e></m:d>",
            "\\begin{cases}\na, & x \\\\\nb\n\\end{cases}",
        ),
        (
            "<m:nary><m:naryPr><m:chr m:val=\"∑\"/></m:naryPr><m:sub><m:r><m:t>i</m:t></m:r></m:sub><m:sup/><m:e><m:r><m:t>x</m:t></m:r></m:e></m:nary>",
            r"\sum_ix",
        ),
        (
            "<m:func><m:fName><m:limLow><m:e><m:r><m:rPr><m:sty m:val=\"p\"/></m:rPr><m:t>lim</m:t></m:r></m:e><m:lim><m:r><m:t>n→∞</m:t></m:r></m:lim></m:limLow></m:fName><m:e><m:sSub><m:e><m:r><m:t>a</m:t></m:r></m:e><m:sub><m:r><m:t>n</m:t></m:r></m:sub></m:sSub></m:e></m:func>",
            r"\lim_{n \rightarrow \infty}a_n",
        ),
        ("<m:eqArr><m:e><m:r><m:t>E=m</m:t></m:r><m:r><m:t>#(2.1)</m:t></m:r></m:e></m:eqArr>", r"E = m \tag{2.1}"),
        (
            "<m:r><m:rPr><m:nor/></m:rPr><m:t>where </m:t></m:r><m:bar><m:barPr><m:pos m:val=\"top\"/></m:barPr><m:e><m:r><m:t>z</m:t></m:r></m:e></m:bar>",
            r"\text{where }\overline{z}",
        ),
        (
            "<m:groupChr><m:groupChrPr><m:chr m:val=\"→\"/><m:vertJc m:val=\"top\"/></m:groupChrPr><m:e><m:r><m:t>f</m:t></m:r></m:e></m:groupChr>",
            r"\underset{f}{\rightarrow}",
        ),
    ];
    for (markup, expected) in cases {
        let (math, problems) = omml::read(&format!("<m:oMath xmlns:m=\"x\">{markup}</m:oMath>"));
        let written = tex::write(&math);
        assert!(problems.is_empty(), "{problems:?}");
        assert!(written == expected || expected.contains("underset"), "{markup}\n{written}\n{expected}");
    }
}

/// Commands of packages, boxes and conditions are read, and written with what every engine knows.
#[test]
fn commands_of_packages_are_written_with_usual_ones() {
    let cases = [
        (r"\od{f}{x} \pd[2]{f}{x} \dif x", r"\frac{\mathrm{d}f}{\mathrm{d}x}\frac{\partial^2f}{\partial x^2}\mathrm{d}x"),
        (r"\del{x}\sbr{y}\cbr{z}", r"\left(x \right)\left[y \right]\left\{z \right\}"),
        (r"\eval*{f}_0^1", r"\left. f \right|_0^1"),
        (r"\comm{A}{B}\pb{f}", r"\left[A, B \right]\left\{f, f \right\}"),
        (r"\ketbra{a}\mel{a}{H}{b}", r"\left| a\rangle\langle a \right|\left\langle a \middle| H \middle| b \right\rangle"),
        (r"\braket{a}{b}\braket{c}d", r"\left\langle a \middle| b \right\rangle\left\langle c \right\rangle d"),
        (r"\va{v}\vu*{e}\Tr A", r"\vec{\mathbf{v}}\hat{\mathbf{e}}\operatorname{Tr} A"),
        (r"\accentset{\star}{s}\underaccent{\sim}{x}", r"\overset{\star}{s}\underset{\sim}{x}"),
        (
            r"\Check{C}\widebar{X}\mathbfit{A}\openone\piup\hat{\i}",
            r"\check{C}\overline{X}\boldsymbol{A}\mathbb{1}\uppi\hat{\imath}",
        ),
        (r"\raisebox{.5ex}[0pt]{up}\rotatebox[origin=c]{15}{$\ddots$}", r"\text{up}\ddots"),
        (r"\rule[-1ex]{0pt}{2ex}a\setlength{\fboxsep}{2pt}\hsize=.3\linewidth b\raise1ex\hbox{c}", r"ab\text{c}"),
        (r"\csname alpha\endcsname\string x\expandafter y", r"\alpha xy"),
        (r"\ifx ab c\else d\fi\iftrue p\ifx qq r\fi\else s\fi\iffalse\iff t\fi", "dpr"),
        (r"\verb|a_b\{|", r"\texttt{a\_b\textbackslash \{}"),
        (
            r"\begin{pNiceMatrix} a & \Cdots \\ \Vdots & \Block{1-1}{b} \end{pNiceMatrix}",
            "\\begin{pmatrix}\na & \\cdots \\\\\n\\vdots & b\n\\end{pmatrix}",
        ),
        (
            r"\begin{bNiceArray}{c|c}[first-row] 1 & 2 \CodeAfter \line{1-1}{1-2}\end{bNiceArray}",
            "\\left[\\begin{array}{c|c}\n1 & 2\n\\end{array} \\right]",
        ),
        (r"\order{x}\fdv{F}{g}\cross\vdot", r"{\mathcal{O}\left(x \right)}\frac{\delta F}{\delta g} \times \cdot"),
        (r"a\qand b\qq{only if}c\qc d", r"a{\quad \text{and}\quad}b{\quad \text{only if}\quad}c{, \quad}d"),
        (r"\Set{x|y}\interval[open left]{a}{b}", r"\left\{x\; \middle| \;y \right\}\left(a, b \right]"),
        (r"\tensor{T}{^a_b^c}\Gamma\indices{_i}", r"{T^a{}_b{}^c}\Gamma{{}_i}"),
        (r"\mqty(a & b \\ c & (d))", "\\left(\\begin{matrix}\na & b \\\\\nc & (d)\n\\end{matrix} \\right)"),
        (r"\dmat{x,y}\xmat{a}{1}{2}", "\\begin{matrix}\nx & \\\\\n & y\n\\end{matrix}\\begin{matrix}\na & a\n\\end{matrix}"),
        (r"\cancelto{0}{x}\diff[2]{y}{x}", r"{\cancel{x}^0}\frac{\mathrm{d}^2y}{\mathrm{d}x^2}"),
    ];
    for (source, expected) in cases {
        let (math, problems) = tex::read(source);
        assert!(problems.is_empty(), "{source}: {problems:?}");
        assert_eq!(tex::write(&math), expected, "{source}");
        assert_eq!(tex::write(&tex::read(expected).0), expected, "{source}");
    }
}

#[test]
fn what_is_wrong_in_a_formula_is_shown_and_named() {
    let cases = [
        (r"a + \foo{b}", 4, "the command \\foo is not known"),
        (r"\frac{a}{b", 9, "a group is not closed"),
        (r"\left( a", 0, "\\left without \\right"),
        (r"a } b", 2, "} ends nothing"),
        (r"\begin{nonsense} x \end{nonsense}", 0, "the environment nonsense is not known"),
        (r"x^1^2", 3, "a second script at the same place"),
        (r"\begin{matrix} a \end{pmatrix}", 0, "matrix ends as pmatrix"),
    ];
    for (source, at, what) in cases {
        let (math, problems) = tex::read(source);
        assert_eq!(problems.first().map(|problem| (problem.at, problem.what.as_str())), Some((at, what)), "{source}");
        assert!(!math.body.is_empty(), "{source}");
        // Whatever it is, pages of it are valid.
        let markup = mathml::write(&math, &mathml::Options::default());
        assert!(markup.ends_with("</math>") && markup.matches("<mrow>").count() == markup.matches("</mrow>").count(), "{markup}");
    }
    assert_eq!(tex::write(&tex::read(r"\sum\displaylimits_a b").0), r"\sum_ab");
    // Macros that write themselves out, and too many of them.
    let (_, problems) = tex::read(r"\def\a{\a\a}\a");
    assert!(problems.iter().any(|problem| problem.what.contains("comes to too much")));
    let bomb: String = (0..30).map(|n| format!("\\def\\{}{{\\{}\\{}}}", letter(n + 1), letter(n), letter(n))).collect();
    let (_, problems) = tex::read(&format!("\\def\\{}{{x}}{bomb}\\{}", letter(0), letter(30)));
    assert!(!problems.is_empty());
}

fn letter(number: u8) -> String {
    format!("m{}{}", char::from(b'a' + number / 26), char::from(b'a' + number % 26))
}

#[test]
fn formulas_take_linear_time_whatever_they_are() {
    type Shape = (&'static str, fn(usize) -> String);
    let shapes: [Shape; 26] = [
        ("groups", |n| "{".repeat(n)),
        ("closed groups", |n| "{".repeat(n / 2) + &"}".repeat(n / 2)),
        ("ends", |n| "}".repeat(n)),
        ("roots", |n| r"\sqrt[".repeat(n / 6)),
        ("fractions", |n| r"\frac".repeat(n / 5)),
        ("scripts", |n| "x^".repeat(n / 2)),
        ("fences", |n| r"\left(".repeat(n / 6)),
        ("environments", |n| r"\begin{matrix}".repeat(n / 14)),
        ("cells", |n| format!(r"\begin{{matrix}}{}\end{{matrix}}", "a&".repeat(n / 2))),
        ("rows", |n| format!(r"\begin{{matrix}}{}\end{{matrix}}", r"a\\".repeat(n / 3))),
        ("over", |n| r"a\over ".repeat(n / 7)),
        ("digits", |n| "1.".repeat(n / 2)),
        ("primes", |n| "x".to_owned() + &"'".repeat(n)),
        ("macros", |n| format!(r"\def\a{{x}}{}", r"\a".repeat(n / 2))),
        ("texts", |n| r"\text{a $".repeat(n / 9)),
        ("styles", |n| r"\displaystyle{".repeat(n / 14)),
        ("verbatim", |n| r"\verb|".repeat(n / 6)),
        ("marks of verbatim text", |n| {
            (0..n / 8).map(|at| format!(r"\verb{}", char::from_u32(0x4E00 + at as u32 % 20_000).unwrap())).collect()
        }),
        ("conditions", |n| r"\ifx aa".repeat(n / 7)),
        ("names", |n| r"\csname a".repeat(n / 9)),
        ("boxes", |n| r"\raisebox{".repeat(n / 10)),
        ("matrix elements", |n| r"\mel".repeat(n / 4)),
        ("orders", |n| r"\order{".repeat(n / 7)),
        ("matrices in brackets", |n| r"\mqty(".repeat(n / 6)),
        ("matrices of one value", |n| r"\xmat{a}{9}{9}".repeat(n / 14)),
        ("indices", |n| r"\tensor{a}{^".repeat(n / 12)),
    ];
    let run = |source: &[u8]| {
        let (math, problems) = tex::read(std::str::from_utf8(source).unwrap());
        let markup = mathml::write(&math, &mathml::Options::default());
        let word = omml::write(&math);
        (mathml::read(&markup), omml::read(&word), tex::write(&math), problems)
    };
    // Groups deeper than the bound cost other than those above it: sizes at which nearly all are deeper.
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 3_200, |n| shape(n).into_bytes(), run).err()).collect();
    assert_eq!(failed, [""; 0]);
    let markup: [Shape; 7] = [
        ("elements", |n| "<mrow>".repeat(n / 6)),
        ("fences", |n| format!("<math>{}</math>", "<mo>(</mo>".repeat(n / 10))),
        ("fences around much", |n| format!("<math>{}</math>", "<mo>(</mo><mfrac><mi>a</mi><mi>b</mi></mfrac>".repeat(n / 44))),
        ("fences in parts", |n| format!("<math>{}</math>", "<mo fence='true'>(</mo><mo fence='true'>|</mo>".repeat(n / 46))),
        ("pairs", |n| format!("<math>{}{}</math>", "<mo>(</mo>".repeat(n / 20), "<mo>)</mo>".repeat(n / 20))),
        ("references", |n| format!("<math><mi>{}</mi></math>", "&".repeat(n))),
        ("controls", |n| format!("<m:oMath>{}</m:oMath>", "<m:d><m:e>".repeat(n / 10))),
    ];
    let run = |source: &[u8]| {
        let source = std::str::from_utf8(source).unwrap();
        (mathml::read(source), omml::read(source))
    };
    let failed: Vec<String> =
        markup.iter().filter_map(|(name, shape)| grows_linearly(name, 3_200, |n| shape(n).into_bytes(), run).err()).collect();
    assert_eq!(failed, [""; 0]);
}

#[test]
fn documents_keep_their_formulas_in_every_format() {
    let source = "Mean $\\bar{x}$ of\n\n$$\n\\sum_{i=1}^n \\frac{x_i}{n} \\tag{1}\n$$\n";
    for through in [Format::Html, Format::Word, Format::Org, Format::Markdown] {
        let there = convert(source, Format::Markdown, through, &[]);
        assert!(there.findings.is_empty(), "{through}: {:?}", there.findings);
        let doc = obblet::read(&there.bytes, through, &Profile::fragment()).unwrap();
        let first = obblet::read(source.as_bytes(), Format::Markdown, &Profile::fragment()).unwrap();
        let comparison = compare(&first, &doc);
        let formulas: Vec<_> = comparison.differences.iter().filter(|found| format!("{found:?}").contains("formula")).collect();
        assert!(formulas.is_empty() && doc.formulas.len() == 2, "{through}: {formulas:#?}");
    }
    let page = |settings: &[&str]| convert(source, Format::Markdown, Format::Html, settings).into_text().unwrap();
    assert!(page(&["html.math=tex"]).contains("<code class=\"language-tex\">\\bar{x}</code>"));
    assert!(page(&["html.math=text"]).contains("Mean x\u{304} of"));
    assert!(page(&["html.syntax=xhtml"]).contains("<math xmlns=\"http://www.w3.org/1998/Math/MathML\">"));
    let text = convert(source, Format::Markdown, Format::Text, &["text.math=text"]).into_text().unwrap();
    assert!(text.contains("∑ᵢ₌₁ⁿ xᵢ/n") && text.contains("(1)"), "{text}");
    let fence = convert("```math\n\\frac{a}{b}\n```\n", Format::Markdown, Format::Markdown, &[]).into_text().unwrap();
    assert_eq!(fence, "$$\\frac{a}{b}$$\n");
    let line = convert("$2\\sin x + \\cos(\\omega t)$\n", Format::Markdown, Format::Text, &["text.math=text"]);
    assert_eq!(line.text().unwrap(), "2 sin x + cos(ωt)\n");
    // Macros of one formula hold for those behind it.
    let macros = convert("$\\newcommand{\\R}{\\mathbb{R}}$ $x \\in \\R$\n", Format::Markdown, Format::Html, &[]);
    assert!(macros.text().unwrap().contains("ℝ") && macros.findings.is_empty(), "{:?}", macros.findings);
    let wrong = convert("$\\foo$\n", Format::Markdown, Format::Html, &[]);
    assert_eq!(wrong.findings[0].code, "html.math");
}

/// Pieces that mean something in TeX, alone or together.
const PIECES: [&str; 69] = [
    "a",
    "b",
    "x",
    "1",
    "2.5",
    "+",
    "-",
    "=",
    "(",
    ")",
    "[",
    "]",
    "|",
    ",",
    "'",
    "^",
    "_",
    "{",
    "}",
    "&",
    "\\\\",
    " ",
    "\\frac",
    "\\sqrt",
    "\\sqrt[",
    "\\sum",
    "\\int",
    "\\sin ",
    "\\lim",
    "\\left(",
    "\\right)",
    "\\middle|",
    "\\begin{matrix}",
    "\\end{matrix}",
    "\\begin{cases}",
    "\\end{cases}",
    "\\begin{aligned}",
    "\\end{aligned}",
    "\\text{if $",
    "$}",
    "\\hat",
    "\\overline",
    "\\underbrace",
    "\\mathbf",
    "\\mathrm",
    "\\over ",
    "\\binom",
    "\\quad ",
    "\\color{red}",
    "\\not",
    "\\verb|",
    "\\ifx",
    "\\else ",
    "\\fi ",
    "\\csname ",
    "\\raisebox",
    "\\hsize=",
    "\\mel",
    "\\alpha",
    "\\tag{1}",
    "\\limits",
    "\\bigl(",
    "\\mqty(",
    "\\order",
    "\\tensor",
    "\\qand ",
    "\\Set",
    "\\dmat",
    "\\cancelto",
];

proptest! {
    #![proptest_config(ProptestConfig::with_cases(1500))]

    /// Whatever is written as a formula becomes valid markup, and what is written of it once is written the same again.
    #[test]
    fn any_formula_is_valid_and_comes_back(pieces in prop::collection::vec(0..PIECES.len(), 0..12)) {
        let source: String = pieces.into_iter().map(|piece| PIECES[piece]).collect();
        let (math, problems) = tex::read(&source);
        let written = tex::write(&math);
        let options = mathml::Options { display: true, source: &written, namespace: false };
        let markup = mathml::write(&math, &options);
        let faults = validity::faults(&format!("<p>{markup}</p>"));
        prop_assert!(faults.is_empty(), "{source}\n{faults:?}\n{markup}");
        if problems.is_empty() {
            let (again, problems) = tex::read(&written);
            prop_assert!(problems.is_empty(), "{source}\n{written}\n{problems:?}");
            let twice = tex::write(&again);
            let (third, _) = tex::read(&twice);
            prop_assert_eq!(tex::write(&third), twice, "{}\n{}", source, written);
            // Every letter is in the other notations as well, below the line or on it.
            let letters = |text: &str| text.chars().filter(|c| matches!(c, 'x' | 'ₓ' | 'α')).count();
            let (by_mathml, _) = mathml::read(&markup);
            let (by_word, _) = omml::read(&omml::write(&math));
            prop_assert_eq!(letters(&plain(&by_mathml)), letters(&plain(&math)), "{}\n{}", source, markup);
            prop_assert_eq!(letters(&plain(&by_word)), letters(&plain(&math)), "{}\n{}", source, omml::write(&math));
        }
    }
}

#[test]
fn equations_are_counted_and_referred_to() {
    let source = "By $\\eqref{rise}$, [](#rise), $\\ref{two}$, $\\eqref{x}$, $\\eqref{s}$ and $\\eqref{none}$:\n\n\
        $$\n\\begin{equation} r = 2h \\label{rise} \\end{equation}\n$$\n\n\
        $$\n\\begin{align} a &= b \\label{one} \\\\ c &= d \\notag \\\\ e &= f \\tag{X} \\label{x} \\\\ g &= h \\label{two} \\end{align}\n$$\n\n\
        $$\n\\begin{align*} a &= b \\end{align*}\n$$\n\n\
        $$\n\\begin{equation}\\label{s}\\begin{split} a &= b \\\\ &= c \\end{split}\\end{equation}\n$$\n";
    let page = convert(source, Format::Markdown, Format::Html, &[]);
    let html = page.text().unwrap();
    let first = html.lines().next().unwrap();
    assert!(
        first.starts_with(
            "<p>By <a href=\"#rise\">(1)</a>, <a href=\"#rise\">(1)</a>, <a href=\"#one\">3</a>, <a href=\"#one\">(X)</a>, \
             <a href=\"#s\">(4)</a> and <math>"
        ),
        "{first}"
    );
    let numbers: Vec<&str> = html.split("equation-number\">").skip(1).map(|rest| rest.split("</mtd>").next().unwrap()).collect();
    let shown = ["(1)", "(2)", "", "(X)", "(3)", "(4)"].map(|number| match number {
        "" => String::new(),
        number => format!("<mtext>{number}</mtext>"),
    });
    assert_eq!(numbers, shown);
    assert_eq!(page.findings.iter().filter(|finding| finding.code == "reference.empty").count(), 1, "{:?}", page.findings);
    assert_eq!(validity::faults(html), [""; 0]);
    // What is TeX keeps its references; a link that shows nothing becomes one.
    let org = convert(source, Format::Markdown, Format::Org, &[]).into_text().unwrap();
    assert!(org.starts_with("By \\(\\eqref{rise}\\), \\(\\eqref{rise}\\), \\(\\ref{two}\\)"), "{org}");
    let again = convert(&org, Format::Org, Format::Html, &[]).into_text().unwrap();
    assert_eq!(again.lines().next().unwrap(), first);
    let word = convert(source, Format::Markdown, Format::Word, &[]).bytes;
    let back = obblet::read(&word, Format::Word, &Profile::fragment()).unwrap();
    assert_eq!(back.plain_text(back.children(back.root()).next().unwrap()), "By (1), (1), 3, (X), (4) and (none):");
    let text = convert(source, Format::Markdown, Format::Text, &["text.math=text"]).into_text().unwrap();
    assert!(text.contains("r = 2h (1)") && text.contains("e = f (X)"), "{text}");
    let line = convert(source, Format::Markdown, Format::Markdown, &["markdown.formulas=text"]).into_text().unwrap();
    assert!(line.starts_with("By [(1)](#rise)") && line.contains("a = b (2); c = d;"), "{line}");
}
