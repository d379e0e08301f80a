//! Where a source takes in other files, and where it holds entries of a bibliography (the LaTeX documentation, "Splitting the input").

use crate::fast_hash::HashSet;
use crate::simd_scan::{OneOf, Window, places};

/// A command that takes in a file, or what stands for one.
pub(super) struct Request {
    pub(super) start: usize,
    pub(super) end: usize,
    pub(super) folder: String,
    pub(super) name: String,
    /// What it says of a list of entries.
    pub(super) options: String,
    pub(super) kind: Kind,
}

impl Request {
    pub(super) const fn of(kind: Kind, start: usize, length: usize) -> Self {
        Self { start, end: start + length, folder: String::new(), name: String::new(), options: String::new(), kind }
    }
}

/// What a file is to the document.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Kind {
    Part,
    Package,
    Bibliography,
    /// A file of entries, which is named before it is used.
    Resource,
    /// Entries that the document holds itself.
    Entries,
}

/// The commands that take in files; what stands in comments and in verbatim text takes in none.
pub(super) fn requests(source: &str) -> Vec<Request> {
    // Packages are asked for before the text, and nothing else need be looked for where no other name stands.
    let find = |what: &str| memchr::memmem::find(source.as_bytes(), what.as_bytes());
    let source = match find("\n\\begin{document}") {
        Some(text) if !holds_one_of(source, &IN_TEXT) => &source[..text],
        None if !holds_one_of(source, &IN_TEXT) && !holds_one_of(source, &PACKAGES) => "",
        _ => source,
    };
    let mut found = Vec::new();
    let bytes = source.as_bytes();
    let mut verbatim: Option<&str> = None;
    let mut ends: HashSet<&str> = HashSet::default();
    let mut at = 0;
    let mut window = Window::default();
    loop {
        at = window.next_stop(bytes, &OneOf(*b"\\%"), at);
        if at >= bytes.len() {
            break;
        }
        let rest = &source[at..];
        if let Some(end) = verbatim {
            if rest.starts_with(end) {
                verbatim = None;
            }
            at += 1;
            continue;
        }
        if rest.starts_with('%') {
            at += memchr::memchr(b'\n', rest.as_bytes()).unwrap_or(rest.len());
            continue;
        }
        // Nearly all commands are none of those looked for.
        if !matches!(
            &bytes[at + 1..],
            [b'i', b'n' | b'm', ..]
                | [b'b', b'e' | b'i', ..]
                | [b's', b'u', ..]
                | [b'l', b'o', ..]
                | [b'p', b'r', ..]
                | [b'u', b's', ..]
                | [b'R', b'e', ..]
                | [b'e', b'n', ..]
                | [b'a', b'd', ..]
        ) {
            at += 1 + rest[1..].chars().next().map_or(0, char::len_utf8);
            continue;
        }
        if let Some((_, end)) = VERBATIM.iter().find(|(begin, _)| rest.starts_with(begin)) {
            if !ends.contains(end) && !rest.contains(end) {
                ends.insert(end);
            } else if !ends.contains(end) {
                verbatim = Some(end);
            }
            at += 1;
            continue;
        }
        if rest.starts_with("\\end{document}") {
            break;
        }
        if let Some((begin, end)) = ENTRIES.iter().find(|(begin, _)| rest.starts_with(begin)) {
            match rest.find(end).filter(|_| !ends.contains(end)) {
                Some(length) => {
                    let request = Request::of(Kind::Entries, at, length + end.len());
                    at = request.end - 1;
                    found.push(Request { name: (*begin).to_owned(), ..request });
                }
                None => drop(ends.insert(end)),
            }
            at += 1;
            continue;
        }
        let request = request(rest, at);
        at = request.as_ref().map_or_else(|| at + 1 + rest[1..].chars().next().map_or(0, char::len_utf8), |request| request.end);
        found.extend(request);
    }
    found
}

/// Environments of entries that a document holds itself, with a heading or without.
pub(super) const ENTRIES: [(&str, &str); 2] = [("\\begin{bibdiv}", "\\end{bibdiv}"), ("\\begin{biblist}", "\\end{biblist}")];

/// What commands begin with that take in files in the text; pictures are not text.
const IN_TEXT: [&str; 11] = [
    "\\input",
    "\\include",
    "\\import",
    "\\subimport",
    "\\subinput",
    "\\subfile",
    "\\loadglsentries",
    "\\bibliography",
    "\\printbibliography",
    "\\addbibresource",
    "\\bib{",
];

/// Packages whose commands are known here: copies of them beside a document say nothing more.
const KNOWN_PACKAGES: &str = "abstract accents acro acronym adjustbox afterpage algorithm algorithm2e algorithmic algorithmicx algpseudocode alltt amsbsy \
    amscd amsfonts amsmath amsopn amssymb amstext amsthm appendix array arydshln authblk auxhook babel balance bbm bbold biblatex \
    bibunits bidi bigstrut blindtext bm booktabs boxedminipage braket breakcites breakurl breqn bussproofs calc cancel caption \
    caption3 cases ccaption centernot changepage changes chapterbib chemfig chemformula chngcntr cite cleveref cmap collref color \
    colortbl comment courier covington csquotes csvsimple currfile currvita datatool datetime dcolumn delarray diagbox doi \
    draftwatermark dsfont enditems endnotes enumerate enumitem environ epigraph epsf epsfig epstopdf esint eso-pic etex etoolbox \
    eucal eurosym euscript expex fancybox fancyhdr fancyvrb fix-cm fixltx2e fixme flafter flushend float floatflt floatrow \
    fmtcount fontawesome fontawesome5 fontenc fontspec footmisc fp framed fullpage gb4e geometry glossaries glossaries-extra \
    graphics graphicx grffile hanging helvet hhline hologo hyperref hyphenat ifpdf ifthen iftex ifxetex imakeidx import \
    indentfirst index inputenc jurabib keyval kvoptions lastpage latexsym lettrine lineno linguex lipsum listings listingsutf8 \
    lmodern longtable lscape ltxtable makecell makeidx marginnote marvosym mathabx mathdots mathpartir mathpazo mathptm mathptmx \
    mathrsfs mathtools mdframed mdwlist mhchem microtype minitoc minted moderncv moreverb mparhack multibib multicol multirow \
    natbib nccmath needspace nicefrac nicematrix nomencl ntheorem outlines palatino paracol paralist parskip pdfcomment pdflscape \
    pdfpages pdfsync pgf pgffor pgfplots pgfplotstable physics pifont placeins polyglossia prettyref psfrag pstricks ragged2e \
    relsize rotating scrextend setspace sidecap siunitx slashbox slashed soul soulutf8 splitbib standalone stfloats stmaryrd \
    subcaption subeqnarray subfig subfigure subfiles supertabular svg tabto tabu tabularray tabularx tabulary tasks tcolorbox \
    tensor textcase textcomp textgreek textpos thm-restate thmtools threeparttable threeparttablex tikz tikz-cd times tipa \
    titlecaps titlesec titletoc titling tocbibind tocloft todonotes totcount totpages tracefnt trimspaces type1cm ucs ulem \
    unicode-math units upgreek upquote url varioref verbatim verse vmargin wasysym wrapfig xcolor xfrac xkeyval xparse xr xr-hyper \
    xspace xstring xtab xurl xy xypic zref";

/// Commands that take in packages.
const PACKAGES: [&str; 2] = ["\\usepackage", "\\RequirePackage"];

/// Whether one of some commands stands in a source.
fn holds_one_of(source: &str, names: &[&str]) -> bool {
    let bytes = source.as_bytes();
    places(bytes, [b'\\']).any(|at| {
        // Nearly all commands are none of those that take in files.
        let may_be = bytes.get(at + 1..at + 4).is_some_and(|begin| {
            matches!(
                begin,
                [b'i', b'n', b'p' | b'c']
                    | [b'i', b'm', b'p']
                    | [b's', b'u', b'b']
                    | [b'l', b'o', b'a']
                    | [b'b', b'i', b'b']
                    | [b'p', b'r', b'i']
                    | [b'u', b's', b'e']
                    | [b'R', b'e', b'q']
                    | [b'a', b'd', b'd']
            )
        });
        let rest = &bytes[at..];
        may_be && names.iter().any(|name| rest.starts_with(name.as_bytes()) && !rest[name.len()..].starts_with(b"graphics"))
    })
}

/// Environments whose text is no LaTeX.
const VERBATIM: [(&str, &str); 6] = [
    ("\\begin{verbatim}", "\\end{verbatim}"),
    ("\\begin{verbatim*}", "\\end{verbatim*}"),
    ("\\begin{Verbatim}", "\\end{Verbatim}"),
    ("\\begin{lstlisting}", "\\end{lstlisting}"),
    ("\\begin{minted}", "\\end{minted}"),
    ("\\begin{comment}", "\\end{comment}"),
];

/// The packages of a list that are not known here.
pub(super) fn unknown_packages(names: &str) -> impl Iterator<Item = &str> {
    let is_known = |name: &&str| KNOWN_PACKAGES.split_ascii_whitespace().any(|known| known == *name);
    names.split(',').map(str::trim).filter(move |name| !name.is_empty() && !is_known(name))
}

fn request(rest: &str, start: usize) -> Option<Request> {
    let letters = rest[1..].bytes().take_while(u8::is_ascii_alphabetic).count();
    let name = &rest[1..=letters];
    let mut at = 1 + letters;
    let argument = |at: &mut usize| {
        let text = rest.get(*at..)?.trim_start();
        let skipped = rest.len() - *at - text.len();
        let inner = text.strip_prefix('{')?;
        let length = inner.find(['}', '\n', '{', '\\', '#'])?;
        if !inner[length..].starts_with('}') {
            return None;
        }
        *at += skipped + length + 2;
        Some(inner[..length].trim().to_owned())
    };
    let (folder, name, kind) = match name {
        "input" | "include" | "subfile" | "loadglsentries" => (String::new(), argument(&mut at)?, Kind::Part),
        "bibliography" => (String::new(), argument(&mut at)?, Kind::Bibliography),
        "printbibliography" => {
            let mut options = "";
            if let Some(text) = rest[at..].strip_prefix('[') {
                let end = text.find(']')?;
                options = &text[..end];
                at += end + 2;
            }
            return Some(Request { options: options.to_owned(), ..Request::of(Kind::Bibliography, start, at) });
        }
        "addbibresource" => {
            if let Some(text) = rest[at..].strip_prefix('[') {
                at += text.find(']')? + 2;
            }
            argument(&mut at)?;
            return Some(Request::of(Kind::Resource, start, at));
        }
        "import" | "subimport" | "inputfrom" | "includefrom" | "subinputfrom" => {
            (argument(&mut at)?.trim_end_matches('/').to_owned(), argument(&mut at)?, Kind::Part)
        }
        // A package beside the document holds commands of its author.
        "usepackage" | "RequirePackage" => {
            let mut said = "";
            if let Some(options) = rest[at..].trim_start().strip_prefix('[') {
                let end = options.find([']', '{', '\\', '%'])?;
                if !options[end..].starts_with(']') {
                    return None;
                }
                said = &options[..end];
                at = rest.len() - options.len() + end + 1;
            }
            // A list may go over several lines.
            let text = rest.get(at..)?.trim_start();
            let inner = text.strip_prefix('{')?;
            let length = inner.find(['}', '{', '\\', '#', '%'])?;
            if !inner[length..].starts_with('}') {
                return None;
            }
            at = rest.len() - inner.len() + length + 1;
            let name = inner[..length].trim().to_owned();
            unknown_packages(&name).next()?;
            return Some(Request { name, options: said.to_owned(), ..Request::of(Kind::Package, start, at) });
        }
        _ => return None,
    };
    (!name.is_empty()).then(|| Request { folder, name, ..Request::of(kind, start, at) })
}
