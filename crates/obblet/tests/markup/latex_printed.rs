//! Whole documents of many classes and packages, and what is printed for them: numbers and words of headings, captions, items,
//! equations and references. What is expected is what a TeX engine prints, but for what sets numbers apart: it stands in a form of
//! plain text (headings without `Chapter` and full stops, bullets as hyphens, tables with lines).
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::formats::latex;
use obblet::profile::Profile;
use support::convert::convert;
use support::linear::grows_linearly;

/// What is printed for texts with the same class and preamble.
struct Printed {
    class: &'static str,
    preamble: &'static str,
    lines: &'static [(&'static str, &'static str)],
}

const PRINTED: &[Printed] = &[
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{enumitem}",
        lines: &[
            (r"\begin{enumerate}[label=(\alph*)]\item one\item two\end{enumerate}", "(a) one (b) two"),
            (r"\begin{enumerate}[label=\roman*)]\item one\item two\end{enumerate}", "i) one ii) two"),
            (r"\begin{enumerate}[label=\textbf{Step \arabic*:}]\item one\item two\end{enumerate}", "Step 1: one Step 2: two"),
            (r"\begin{enumerate}[label=A\arabic*.]\item one\item two\end{enumerate}", "A1. one A2. two"),
            (r"\begin{enumerate}[start=4]\item one\item two\end{enumerate}", "4. one 5. two"),
            (r"\begin{enumerate}[label=\Roman*.,start=3]\item one\item two\end{enumerate}", "III. one IV. two"),
            (r"\begin{enumerate}\item one\item[X] two\item three\end{enumerate}", "1. one - X two 2. three"),
            (r"\begin{itemize}[label=--]\item one\item two\end{itemize}", "- one - two"),
            (r"\begin{itemize}\item[a)] one\item[b)] two\end{itemize}", "a) one b) two"),
            (r"\begin{description}\item[Ebb] falls\item[Flood] rises\end{description}", "Ebb falls Flood rises"),
            (r"\begin{description}[style=nextline]\item[Ebb] falls\item[Flood] rises\end{description}", "Ebb falls Flood rises"),
            (
                r"\begin{enumerate}\item one\end{enumerate}between\begin{enumerate}[resume]\item two\end{enumerate}",
                "1. one between 2. two",
            ),
            (
                r"\newlist{steps}{enumerate}{2}\setlist[steps]{label=\arabic*)}\begin{steps}\item one\item two\end{steps}",
                "1) one 2) two",
            ),
            (r"\setlist[enumerate,1]{label=(\roman*)}\begin{enumerate}\item one\item two\end{enumerate}", "(i) one (ii) two"),
            (r"\renewcommand{\labelenumi}{\Alph{enumi})}\begin{enumerate}\item one\item two\end{enumerate}", "A) one B) two"),
            (
                r"\renewcommand{\theenumi}{\roman{enumi}}\begin{enumerate}\item one\label{q}\item two\end{enumerate}See \ref{q}.",
                "i. one ii. two See i.",
            ),
            (
                r"\begin{enumerate}[label=(\alph*),ref=\alph*]\item one\label{q}\item two\end{enumerate}See \ref{q}.",
                "(a) one (b) two See a.",
            ),
            (
                r"\begin{enumerate}[label*=\arabic*.]\item one\begin{enumerate}[label*=\arabic*.]\item in\end{enumerate}\item two\end{enumerate}",
                "1. one 1.1. in 2. two",
            ),
            (r"\begin{description}[font=\normalfont]\item[a] b\end{description}", "a b"),
            (r"\begin{enumerate}\setcounter{enumi}{6}\item one\item two\end{enumerate}", "7. one 8. two"),
            (r"\begin{enumerate}\addtocounter{enumi}{2}\item one\item two\end{enumerate}", "3. one 4. two"),
            (r"\begin{trivlist}\item[] plain\item[\textbf{Q}] one\end{trivlist}", "- plain - Q one"),
            (r"\begin{list}{--}{}\item one\item two\end{list}", "- one - two"),
            (r"\newcounter{rule}\begin{list}{R\arabic{rule}:}{\usecounter{rule}}\item one\item two\end{list}", "R1: one R2: two"),
            (r"\begin{list}{}{\leftmargin 1cm}\item one\item two\end{list}", "- one - two"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{paralist}",
        lines: &[
            (r"\begin{compactenum}[(a)]\item one\item two\end{compactenum}", "(a) one (b) two"),
            (r"\begin{inparaenum}[(i)]\item one, \item two.\end{inparaenum}", "(i) one, (ii) two."),
            (r"\begin{compactitem}\item one\item two\end{compactitem}", "- one - two"),
            (r"\begin{asparaenum}\item one \item two\end{asparaenum}", "1. one 2. two"),
            (r"\begin{enumerate}[Step 1:]\item one\item two\end{enumerate}", "Step 1: one Step 2: two"),
            (r"\begin{compactdesc}\item[a] one\item[b] two\end{compactdesc}", "a one b two"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{enumerate}",
        lines: &[
            (r"\begin{enumerate}[{Case} A.]\item one\item two\end{enumerate}", "Case A. one Case B. two"),
            (r"\begin{enumerate}[i)]\item one\item two\end{enumerate}", "i) one ii) two"),
            (r"\begin{enumerate}[Q1]\item one\item two\end{enumerate}", "Q1 one Q2 two"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[inline]{enumitem}",
        lines: &[
            (r"Inline \begin{enumerate*}\item one \item two\end{enumerate*} end.", "Inline 1. one 2. two end."),
            (r"Inline \begin{enumerate*}[label=(\alph*)]\item one \item two\end{enumerate*} end.", "Inline (a) one (b) two end."),
            (
                r"Inline \begin{enumerate*}[label=(\alph*),itemjoin={{, }},itemjoin*={{, and }}]\item one\item two\item three\end{enumerate*}.",
                "Inline (a) one, (b) two, and (c) three.",
            ),
            (r"Inline \begin{itemize*}\item one \item two\end{itemize*} end.", "Inline • one • two end."),
            (
                r"Inline \begin{description*}\item[one] first \item[two] second\end{description*} end.",
                "Inline one first two second end.",
            ),
            (
                r"We \begin{enumerate*}[label=(\roman*),before={: },itemjoin={; },after={.}]\item one\item two\end{enumerate*}",
                "We: (i) one; (ii) two.",
            ),
            (
                r"\newlist{inl}{enumerate*}{1}\setlist[inl]{label=(\alph*)}We \begin{inl}\item one \item two\end{inl}.",
                "We (a) one (b) two.",
            ),
            (r"\begin{enumerate*}[label=(\roman*)]\item one\label{i} \item two\end{enumerate*} \ref{i}", "(i) one (ii) two (i)"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{tasks}",
        lines: &[
            (r"\begin{tasks}(2)\task one\task two\task three\end{tasks}", "a) one b) two c) three"),
            (r"\begin{tasks}[label=(\roman*)]\task one\task two\end{tasks}", "(i) one (ii) two"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: "",
        lines: &[
            (
                r"\begin{quote}Said.\end{quote}\begin{quotation}Para.\end{quotation}\begin{verse}One\\Two\end{verse}",
                "> Said. > Para. One Two",
            ),
            (r"\begin{center}One\\Two\end{center}\begin{flushright}R\end{flushright}", "One Two R"),
            (
                r"\begin{verbatim}
a_b  \c{d}
\end{verbatim}",
                r"a_b \c{d}",
            ),
            (
                r"\begin{tabbing}Start\=tab\\ \>in\\\end{tabbing}",
                "+-------+-----+ | Start | tab | +-------+-----+ | | in | +-------+-----+",
            ),
            (
                r"\parbox{5cm}{Boxed text} and \mbox{more} and \makebox[3cm][l]{left} and \fbox{framed}.",
                "Boxed text and more and left and framed.",
            ),
            (r"\rule{1cm}{1pt}x\hspace{1cm}y\hfill z\dotfill w\hrulefill", "x y z w"),
            (r"a~b\ c\,d\thinspace e\enspace f\quad g\qquad h\negthinspace i", "a b c d e f g hi"),
            (r"``double'' `single' --- -- - ... \ldots{} \dots \textellipsis", "“double” ‘single’ — – - ... … ……"),
            (r"\ss \ae \OE \o \l \aa \i \j \dag \ddag \S \P \copyright \pounds", "ßæŒøłåıȷ†‡§¶©£"),
            (
                r"\textsuperscript{a}\textsubscript{b}\textsc{small caps}\textsl{x}\textsf{y}\texttt{z}\textmd{u}\textup{v}\underline{w}\emph{e}",
                "absmall capsxyzuvwe",
            ),
            (r"\uppercase{abc}\MakeUppercase{straße}\lowercase{ABC}", "ABCSTRASSEabc"),
            (r"\TeX{} \LaTeX{} \LaTeXe{}", "TeX LaTeX LaTeX2ε"),
            (
                r"\textbackslash\textasciitilde\textasciicircum\textbar\textless\textgreater\textbraceleft\textbraceright\textbullet\textperiodcentered\textregistered\texttrademark\textordfeminine\textordmasculine\textquestiondown\textexclamdown\textvisiblespace",
                r"\~^|<>{}•·®™ªº¿¡␣",
            ),
            (r"\title{T}\author{A \and B}\date{May 2020}\maketitle Body", "T = A B May 2020 Body"),
            (r"\section*{Star}x\subsection{Sub}\label{s}y\ref{s}", "Star ==== x 0.1 Sub ------- y0.1"),
            (
                r"\section{One}\appendix\section{App}\label{s}\subsection{Sub}\label{t}\ref{s}\ref{t}",
                "1 One ===== A App ===== A.1 Sub ------- AA.1",
            ),
            (
                r"\renewcommand{\thesection}{\Roman{section}}\section{One}\subsection{Sub}\label{t}\ref{t}",
                "I One ===== I.1 Sub ------- I.1",
            ),
            (
                r"\renewcommand{\thesubsection}{\alph{subsection}}\section{One}\subsection{Sub}\label{t}\ref{t}",
                "1 One ===== a Sub ----- a",
            ),
            (r"\section{One}\paragraph{Para}text\subparagraph{Subpara} text", "1 One ===== Para text Subpara text"),
            (r"\begin{titlepage}\centering{\Huge Big}\\[1cm] Author\end{titlepage}Body", "Big Author Body"),
            (
                r"\part{First}\section{One}x\part{Second}\section{Two}y",
                "I First ======= 1 One ----- x II Second ========= 2 Two ----- y",
            ),
            (
                r"\newcounter{ex}[section]\newcommand{\ex}{\refstepcounter{ex}Example~\theex}\section{A}\ex\label{e}\ \ex. See \ref{e}.",
                "1 A === Example 1 Example 2. See 1.",
            ),
            (r"\newcommand{\q}[2]{\item[#1] #2}\begin{description}\q{a}{b}\q{c}{d}\end{description}", "a b c d"),
            (r"\newsavebox{\bx}\sbox{\bx}{boxed}\usebox{\bx} \savebox{\bx}{again}\usebox{\bx}", "boxed again"),
            (
                r"\begin{tabular}{lr}a&\multicolumn{1}{l|}{b}\\\hline\end{tabular}\hspace*{1em}z",
                "+---+---+ | a | b | +---+---+ z",
            ),
            (
                r"{\obeylines a
b
c}",
                "a b c",
            ),
            (r"a\linebreak b\newline c\\*d\\[2pt]e\break f", "ab c d ef"),
            (r"\noindent\begin{minipage}[t]{3cm}a\end{minipage}\hfill\begin{minipage}[t]{3cm}b\end{minipage}", "a b"),
            (r"\centerline{a}\leftline{b}\rightline{c}\llap{d}\rlap{e}", "abcde"),
            (r"\ifx\undefined\foo no foo\else foo\fi \ifnum1<2 y\else n\fi", "no fooy"),
            (r"\textit{a\/}\textbf{\textit{b}}{\itshape c\textup{d}}\emph{e \emph{f}}", "abcde f"),
            (r"\newcommand\tide{high}\tide\ tide \tide{} tide \tide tide", "high tide high tide hightide"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{graphicx,caption,subcaption,float,wrapfig,booktabs,array}",
        lines: &[
            (
                r"\begin{figure}[H]\centering X\caption{First}\label{f}\end{figure}See Figure~\ref{f}.",
                "X Figure 1: First See Figure 1.",
            ),
            (r"\begin{figure}[H]X\caption*{No number}\end{figure}", "X No number"),
            (r"\begin{figure}[H]X\caption[short]{Long caption}\end{figure}", "X Figure 1: Long caption"),
            (r"\captionof{table}{Of table}\captionof{figure}{Of figure}", "Table 1: Of table Figure 1: Of figure"),
            (
                r"\begin{table}[H]\caption{Above}\begin{tabular}{ll}a&b\\\end{tabular}\end{table}",
                "Table 1: Above +---+---+ | a | b | +---+---+",
            ),
            (r"\captionsetup{labelsep=period}\begin{figure}[H]X\caption{First}\end{figure}", "X Figure 1. First"),
            (r"\captionsetup[figure]{name=Fig.}\begin{figure}[H]X\caption{First}\end{figure}", "X Fig. 1: First"),
            (r"\captionsetup{labelformat=empty}\begin{figure}[H]X\caption{First}\end{figure}", "X First"),
            (r"\captionsetup{labelsep=none}\begin{figure}[H]X\caption{ First}\end{figure}", "X Figure 1 First"),
            (r"\captionsetup{labelsep=endash}\begin{figure}[H]X\caption{First}\end{figure}", "X Figure 1 – First"),
            (r"\captionsetup{labelsep=space}\begin{figure}[H]X\caption{First}\end{figure}", "X Figure 1 First"),
            (r"\captionsetup{labelformat=simple}\begin{figure}[H]X\caption{First}\end{figure}", "X Figure 1: First"),
            (r"\captionsetup{labelformat=parens}\begin{figure}[H]X\caption{First}\end{figure}", "X Figure (1): First"),
            (r"\renewcommand{\figurename}{Sketch}\begin{figure}[H]X\caption{First}\end{figure}", "X Sketch 1: First"),
            (
                r"\renewcommand{\thefigure}{\Alph{figure}}\begin{figure}[H]X\caption{First}\label{z}\end{figure}\ref{z}",
                "X Figure A: First A",
            ),
            (
                r"\renewcommand{\thetable}{\Roman{table}}\begin{table}[H]\caption{First}\label{z}x\end{table}\ref{z}",
                "Table I: First x I",
            ),
            (r"\setcounter{figure}{4}\begin{figure}[H]X\caption{First}\label{z}\end{figure}\ref{z}", "X Figure 5: First 5"),
            (
                r"\newfloat{chart}{tbp}{loc}\floatname{chart}{Chart}\begin{chart}[H]X\caption{First}\end{chart}",
                "X Chart 1: First",
            ),
            (r"\begin{figure}[H]X\caption{A}\caption{B}\end{figure}", "X Figure 1: A Figure 2: B"),
            (
                r"\begin{figure}[H]\caption{A}\label{a}\end{figure}\begin{figure}[H]\caption{B}\label{b}\end{figure}\ref{a} and \ref{b}",
                "Figure 1: A Figure 2: B 1 and 2",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{sidecap,rotating,longtable,threeparttable,multirow,tabularx,placeins}",
        lines: &[
            (
                r"\begin{longtable}{ll}\caption{Long}\label{x}\\a&b\\\endfirsthead c&d\\\endhead e&f\\\end{longtable}\ref{x}",
                "Table 1: Long +---+---+ | a | b | +===+===+ | e | f | +---+---+ 1",
            ),
            (r"\begin{longtable}{ll}\caption*{Long}\\a&b\\\end{longtable}", "Long +---+---+ | a | b | +---+---+"),
            (
                r"\begin{threeparttable}\caption{T}\begin{tabular}{l}a\tnote{1}\\\end{tabular}\begin{tablenotes}\item[1] note\end{tablenotes}\end{threeparttable}",
                "Table 1: T +----+ | a1 | +----+ 1 note",
            ),
            (r"\begin{tabularx}{5cm}{Xl}a&b\\c&d\end{tabularx}", "+---+---+ | a | b | +---+---+ | c | d | +---+---+"),
            (
                r"\begin{tabular}{l|l}\multicolumn{2}{c}{both}\\\cline{1-2}a&b\end{tabular}",
                "+---+---+ | both | +---+---+ | a | b | +---+---+",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{report}",
        preamble: "",
        lines: &[
            (r"\chapter*{Pre}\section{S}\label{s}\ref{s}", "Pre === 0.1 S ----- 0.1"),
            (r"\appendix\chapter{App}\section{S}\label{s}\ref{s}", "A App ===== A.1 S ----- A.1"),
            (
                r"\part{P}\chapter{One}\section{A}\subsection{B}\subsubsection{C}\paragraph{D}x",
                "I P === 1 One ----- 1.1 A 1.1.1 B C D x",
            ),
            (
                r"\setcounter{secnumdepth}{3}\chapter{One}\section{A}\subsection{B}\subsubsection{C}\label{c}x \ref{c}",
                "1 One ===== 1.1 A ----- 1.1.1 B 1.1.1.1 C x 1.1.1.1",
            ),
            (r"\chapter{One}\setcounter{secnumdepth}{0}\section{A}x", "1 One ===== A - x"),
            (r"\renewcommand{\thesection}{\arabic{section}}\chapter{One}\section{A}\label{a}x\ref{a}", "1 One ===== 1 A --- x1"),
            (
                r"\renewcommand{\thechapter}{\Roman{chapter}}\chapter{One}\section{A}\label{a}x\ref{a}",
                "I One ===== I.1 A ----- xI.1",
            ),
            (r"\renewcommand{\chaptername}{Part}\chapter{One}", "1 One ====="),
            (
                r"\renewcommand{\thesection}{\S\arabic{section}}\chapter{One}\section{A}\label{a}x\ref{a}",
                "1 One ===== §1 A ---- x§1",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{amsmath,amsthm}",
        lines: &[
            (
                r"\numberwithin{equation}{section}\section{A}\begin{equation}a\label{e}\end{equation}\eqref{e}",
                "1 A === a (1.1) (1.1)",
            ),
            (
                r"\newtheorem{thm}{Theorem}\begin{thm}T\label{t}\end{thm}\begin{proof}P\end{proof}\ref{t}",
                "Theorem 1. T Proof. P ∎ 1",
            ),
            (
                r"\newtheorem{thm}{Theorem}[section]\newtheorem{lem}[thm]{Lemma}\section{A}\begin{thm}[Name]T\end{thm}\begin{lem}L\label{l}\end{lem}\ref{l}",
                "1 A === Theorem 1.1 (Name). T Lemma 1.2. L 1.2",
            ),
            (r"\newtheorem*{rem}{Remark}\begin{rem}R\end{rem}", "Remark. R"),
            (r"\theoremstyle{definition}\newtheorem{defn}{Definition}\begin{defn}[x]D\end{defn}", "Definition 1 (x). D"),
            (r"\begin{proof}[Proof of it]P\end{proof}", "Proof of it. P ∎"),
            (r"\begin{proof}P\[a=b\qedhere\]\end{proof}", "Proof. P a = b ∎"),
            (
                r"\newtheorem{thm}{Theorem}\renewcommand{\thethm}{\Alph{thm}}\begin{thm}T\label{t}\end{thm}\ref{t}",
                "Theorem A. T A",
            ),
            (r"\swapnumbers\newtheorem{thm}{Theorem}\begin{thm}T\end{thm}", "1 Theorem. T"),
            (
                r"\newtheoremstyle{note}{3pt}{3pt}{}{}{\itshape}{:}{.5em}{}\theoremstyle{note}\newtheorem{nn}{Note}\begin{nn}N\end{nn}",
                "Note 1: N",
            ),
            (r"\begin{equation}a\tag{*}\label{a}\end{equation}\eqref{a}\ref{a}", "a (*) (*)*"),
            (r"\begin{equation*}a\tag{x}\end{equation*}", "a (x)"),
            (
                r"\begin{subequations}\begin{equation}a\label{a}\end{equation}text\begin{equation}b\label{b}\end{equation}\end{subequations}\ref{a}\ref{b}",
                "a (1a) text b (1b) 1a1b",
            ),
            (r"\renewcommand{\theequation}{A\arabic{equation}}\begin{equation}a\label{a}\end{equation}\ref{a}", "a (A1) A1"),
            (
                r"\renewcommand{\theequation}{\thesection.\arabic{equation}}\section{A}\begin{equation}a\label{a}\end{equation}\section{B}\begin{equation}b\label{b}\end{equation}\ref{a} \eqref{b}",
                "1 A === a (1.1) 2 B === b (2.2) 1.1 (2.2)",
            ),
            (
                r"\section{A}\begin{equation}a\label{a}\end{equation}\appendix\setcounter{equation}{0}\renewcommand{\theequation}{A.\arabic{equation}}\begin{equation}b\label{b}\end{equation}\ref{a} \eqref{b}",
                "1 A === a (1) b (A.1) 1 (A.1)",
            ),
            (
                r"\begin{equation}a\end{equation}\setcounter{equation}{9}\begin{equation}b\label{b}\end{equation}\ref{b}",
                "a (1) b (10) 10",
            ),
            (r"\begin{equation}a\end{equation}The last is (\theequation).", "a (1) The last is (1)."),
            (r"\setcounter{section}{2}\section{A}\subsection{B}\label{b}\ref{b}", "3 A === 3.1 B ----- 3.1"),
            (
                r"\newtheorem{thm}{Theorem}[section]\newtheorem{cor}{Corollary}[thm]\section{A}\begin{thm}T\end{thm}\begin{cor}C\label{c}\end{cor}\ref{c}",
                "1 A === Theorem 1.1. T Corollary 1.1.1. C 1.1.1",
            ),
            (
                r"\newtheorem{thm}{Theorem}\renewcommand{\thethm}{\Roman{thm}}\begin{thm}T\label{t}\end{thm}Theorem \ref{t}",
                "Theorem I. T Theorem I",
            ),
            (r"\[a\tag{$\ast$}\label{s}\]\eqref{s}", "a (∗) (∗)"),
            (
                r"\begin{equation}a\end{equation}\begin{equation*}b\end{equation*}\begin{equation}c\label{c}\end{equation}\eqref{c}",
                "a (1) b c (2) (2)",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{ntheorem}",
        lines: &[(r"\newtheorem{thm}{Theorem}\begin{thm}[N]T\end{thm}", "Theorem 1 (N). T")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{authblk}",
        lines: &[(r"\title{T}\author{A}\affil{X}\date{d}\maketitle", "T = A X d")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{titling,abstract}",
        lines: &[(r"\title{T}\author{A}\date{d}\maketitle \thetitle{} by \theauthor{} on \thedate", "T = A d T by A on d")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[english]{babel}",
        lines: &[(
            r"\begin{abstract}A\end{abstract}\section{S}\figurename{} \tablename{} \abstractname{} \contentsname{} \refname",
            "Abstract A 1 S === Figure Table Abstract Contents References",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[ngerman]{babel}",
        lines: &[
            (
                r#""`Hallo"' "a "s "-x \glqq a\grqq{} \flqq b\frqq \begin{abstract}A\end{abstract}"#,
                "„Hallo“ ä ß \u{AD}x „a“ «b» Zusammenfassung A",
            ),
            (
                r"\begin{figure}X\caption{Bild}\end{figure}\begin{table}\caption{Tab}\end{table}",
                "X Abbildung 1: Bild Tabelle 1: Tab",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{scrartcl}",
        preamble: "",
        lines: &[
            (r"\addsec{Added}x\section{One}", "Added ===== x 1 One ====="),
            (
                r"\section{One}\label{a}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{f}",
                "1 One ===== X Figure 1: Cap 1",
            ),
            (r"\section{One}\label{a}\subsection{Two}\paragraph{Para} text \ref{a}", "1 One ===== 1.1 Two ------- Para text 1"),
            (r"\begin{labeling}{long}\item[a] b\item[long] c\end{labeling}", "a b long c"),
            (r"\addpart{P}\section{One}x", "P = 1 One ===== x"),
            (r"\setkomafont{section}{\normalfont}\section{One}\marginline{m}x", "1 One ===== mx"),
        ],
    },
    Printed {
        class: r"\documentclass{letter}",
        preamble: "",
        lines: &[(
            r"\signature{Ann}\address{Street\\Town}\date{May}\begin{letter}{Bob\\There}\opening{Dear Bob,}Text.\closing{Yours,}\ps{PS: x}\cc{C}\encl{E}\end{letter}",
            "Street Town May Bob There Dear Bob, Text. Yours, Ann PS: x cc: C encl: E",
        )],
    },
    Printed {
        class: r"\documentclass{beamer}",
        preamble: "",
        lines: &[
            (r"\begin{frame}{Title}Text\end{frame}", "Title ----- Text"),
            (
                r"\begin{frame}\frametitle{Tide}\framesubtitle{S}\begin{block}{B}x\end{block}\begin{alertblock}{A}y\end{alertblock}\end{frame}",
                "Tide ---- S B x A y",
            ),
            (
                r"\begin{frame}{Tide}\begin{columns}\column{.5\textwidth}L\column{.5\textwidth}R\end{columns}\end{frame}",
                "Tide ---- L R",
            ),
            (
                r"\begin{frame}{Tide}\begin{theorem}X\end{theorem}\begin{definition}D\end{definition}\begin{example}E\end{example}\begin{proof}P\end{proof}\end{frame}",
                "Tide ---- Theorem. X Definition. D Example. E Proof. P ∎",
            ),
            (r"\title{T}\author{A}\institute{I}\date{d}\begin{frame}\titlepage\end{frame}", "T = A I d"),
            (
                r"\begin{frame}{Tide}\structure{s} \only<1>{o}\uncover<1>{u}\visible<1>{v}\invisible<1>{}\alt<1>{a}{b}\end{frame}",
                "Tide ---- s ouva",
            ),
            (r"\begin{frame}[plain]x\end{frame}", "x"),
            (
                r"\begin{frame}{Tide}\begin{enumerate}\item one\item two\end{enumerate}\begin{description}\item[a] b\end{description}\end{frame}",
                "Tide ---- 1. one 2. two a b",
            ),
            (r"\begin{frame}{Tide}\begin{figure}X\caption{Cap}\end{figure}\end{frame}", "Tide ---- X Figure: Cap"),
            (
                r"\begin{frame}{Tide}\begin{exampleblock}{E}x\end{exampleblock}\begin{quote}Q\end{quote}\note{hidden}\end{frame}",
                "Tide ---- E x > Q",
            ),
            (
                r"\setbeamertemplate{caption}[numbered]\begin{frame}{Tide}\begin{figure}X\caption{C}\end{figure}\end{frame}",
                "Tide ---- X Figure 1: C",
            ),
            (r"\begin{frame}{Tide}\color<1>{red}c\end{frame}", "Tide ---- c"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{varioref,cleveref}",
        lines: &[(r"\section{S}\label{s}\cref{s} \Cref{s}", "1 S === section 1 Section 1")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{lettrine,ragged2e,setspace,multicol,microtype,xspace}",
        lines: &[(
            r"\begin{multicols}{2}a b\end{multicols}\begin{spacing}{1.5}c\end{spacing}\begin{Center}d\end{Center}",
            "a b c d",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{amsmath,mathtools,amssymb}",
        lines: &[(r"$a\le b$ and $\alpha+\beta$ and \(x^2\)", "a ≤ b and α + β and x²")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[acronym]{glossaries}
\newacronym{tg}{TG}{tide gauge}",
        lines: &[(
            r"\gls{tg} and \gls{tg} and \glspl{tg} \acrlong{tg} \acrshort{tg} \Gls{tg} \acrfull{tg}",
            "tide gauge (TG) and TG and TGs tide gauge TG TG tide gauge (TG)",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{acronym}",
        lines: &[
            (
                r"\acrodef{TG}{tide gauge}\ac{TG} \ac{TG} \acp{TG} \acl{TG} \acs{TG} \acf{TG}",
                "tide gauge (TG) TG TGs tide gauge TG tide gauge (TG)",
            ),
            (r"\begin{acronym}\acro{TG}{tide gauge}\end{acronym}\ac{TG} \ac{TG}", "TG tide gauge tide gauge (TG) TG"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[round]{natbib}",
        lines: &[(
            r"\citet{a} \citep{a} \citep[see][p.~2]{a} \citeauthor{a} \citeyear{a} \citealp{a} \citet*{a}\begin{thebibliography}{9}\bibitem[Pask(2001)]{a} Pask, Tides\end{thebibliography}",
            "Pask (2001) (Pask, 2001) (see Pask, 2001, p. 2) Pask 2001 Pask, 2001 Pask (2001) References ========== - Pask, Tides",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{datetime2}",
        lines: &[(r"\DTMdate{2020-05-03}", "2020-05-03")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[super]{nth}",
        lines: &[(r"\nth{3} \nth{1}", "3rd 1st")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{epigraph}",
        lines: &[(r"\epigraph{Words}{Who}", "> Words > > Who")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{tcolorbox}",
        lines: &[(r"\begin{tcolorbox}[title=T]x\end{tcolorbox}\tcbox{y}", "T x y")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{gb4e}",
        lines: &[
            (r"\begin{exe}\ex one\label{x}\ex two\end{exe}\ref{x}", "(1) one (2) two 1"),
            (r"\begin{exe}\ex\gll a b c\\ A B C\\\glt `free'\end{exe}", "(1) a b c A B C ‘free’"),
        ],
    },
    Printed { class: r"\documentclass{article}", preamble: r"\usepackage{makeidx}", lines: &[(r"a\index{a}b\printindex", "ab")] },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{xparse}",
        lines: &[(r"\NewDocumentCommand{\x}{O{d}m}{#1-#2}\x{a}\x[b]{c}", "d-ab-c")],
    },
    Printed {
        class: r"\documentclass{IEEEtran}",
        preamble: "",
        lines: &[
            (r"\IEEEPARstart{T}{he} tide", "The tide"),
            (r"\begin{enumerate}\item a\begin{enumerate}\item b\end{enumerate}\end{enumerate}", "1) a a) b"),
        ],
    },
    Printed {
        class: r"\documentclass{amsart}",
        preamble: "",
        lines: &[
            (r"\section{One}\label{a}\subsection{Two}\label{b}\ref{a} \ref{b}", "1 One ===== 1.1 Two ------- 1 1.1"),
            (r"\appendix\section{App}\label{a}\ref{a}", "A App ===== A"),
            (r"\newtheorem{thm}{Theorem}[section]\section{One}\begin{thm}[N]T\end{thm}", "1 One ===== Theorem 1.1 (N). T"),
            (r"\part{P}\section{One}x", "1 P === 1 One ----- x"),
        ],
    },
    Printed {
        class: r"\documentclass{revtex4-2}",
        preamble: "",
        lines: &[
            (
                r"\section{One}\label{a}\subsection{Two}\label{b}\subsubsection{Three}\label{c}\ref{a} \ref{b} \ref{c}",
                "I One ===== A Two ----- 1 Three I I A I A 1",
            ),
            (
                r"\section{One}\begin{table}[h]\caption{Cap}\label{t}x\end{table}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{t} \ref{f}",
                "I One ===== TABLE I. Cap x X FIG. 1. Cap I 1",
            ),
            (r"\appendix\section{App}\label{a}x\ref{a}", "A App ===== xA"),
        ],
    },
    Printed {
        class: r"\documentclass{llncs}",
        preamble: "",
        lines: &[
            (
                r"\section{One}\label{a}\subsection{Two}\label{b}\subsubsection{Three}\label{c}x \ref{a} \ref{b} \ref{c}",
                "1 One ===== 1.1 Two ------- Three x 1 1.1 1.1",
            ),
            (
                r"\begin{table}[h]\caption{Cap}\label{t}x\end{table}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{t} \ref{f}",
                "Table 1. Cap x X Fig. 1. Cap 1 1",
            ),
            (
                r"\begin{theorem}T\label{t}\end{theorem}\begin{lemma}L\end{lemma}\begin{proof}P\end{proof}\begin{definition}D\end{definition}\ref{t}",
                "Theorem 1. T Lemma 1. L Proof. P ∎ Definition 1. D 1",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{elsarticle}",
        preamble: "",
        lines: &[
            (r"\section{One}\label{a}\subsection{Two}\label{b}\ref{a} \ref{b}", "1 One ===== 1.1 Two ------- 1 1.1"),
            (
                r"\begin{table}[h]\caption{Cap}\label{t}x\end{table}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{t} \ref{f}",
                "Table 1: Cap x X Figure 1: Cap 1 1",
            ),
        ],
    },
    Printed {
        class: r"\documentclass[sigconf,nonacm]{acmart}",
        preamble: "",
        lines: &[
            (r"\section{One}\label{a}\subsection{Two}\label{b}\ref{a} \ref{b}", "1 One ===== 1.1 Two ------- 1 1.1"),
            (
                r"\begin{table}[h]\caption{Cap}\label{t}x\end{table}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{t} \ref{f}",
                "Table 1: Cap x X Figure 1: Cap 1 1",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{memoir}",
        preamble: "",
        lines: &[
            (r"\chapter{One}\section{A}\label{a}\subsection{B}\label{b}x \ref{a} \ref{b}", "1 One ===== 1.1 A ----- B x 1.1 1.1"),
            (r"\chapter{One}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{f}", "1 One ===== X Figure 1.1: Cap 1.1"),
            (r"\appendix\chapter{App}\section{A}\label{a}\ref{a}", "A App ===== A.1 A ----- A.1"),
            (r"\chapter{One}\chapterprecis{sum}x", "1 One ===== sum x"),
            (r"\setsecnumdepth{subsection}\chapter{One}\section{A}\subsection{B}x", "1 One ===== 1.1 A ----- 1.1.1 B x"),
        ],
    },
    Printed {
        class: r"\documentclass{scrbook}",
        preamble: "",
        lines: &[
            (
                r"\frontmatter\chapter{Pre}\mainmatter\chapter{One}\section{A}\label{a}\subsection{B}\label{b}x \ref{a} \ref{b}",
                "Pre === 1 One ===== 1.1 A ----- 1.1.1 B x 1.1 1.1.1",
            ),
            (r"\chapter{One}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{f}", "1 One ===== X Figure 1.1: Cap 1.1"),
            (r"\appendix\chapter{App}\section{A}\label{a}\ref{a}\backmatter\chapter{End}", "A App ===== A.1 A ----- A.1 End ==="),
        ],
    },
    Printed {
        class: r"\documentclass{book}",
        preamble: "",
        lines: &[(
            r"\frontmatter\chapter{Pre}\mainmatter\part{P}\chapter{One}\section{A}\label{a}x \ref{a}\backmatter\chapter{End}",
            "Pre --- I P === 1 One ----- 1.1 A x 1.1 End ---",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{chngcntr}\counterwithin{figure}{section}\counterwithout{footnote}{section}",
        lines: &[(
            r"\section{One}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{f}",
            "1 One ===== X Figure 1.1: Cap 1.1",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{amsmath}\numberwithin{figure}{section}",
        lines: &[(
            r"\section{One}\begin{figure}[h]X\caption{Cap}\label{f}\end{figure}\ref{f}",
            "1 One ===== X Figure 1.1: Cap 1.1",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[labelsep=period,labelfont=bf]{caption}",
        lines: &[(r"\begin{figure}[h]X\caption{Cap}\end{figure}", "X Figure 1. Cap")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{caption}\DeclareCaptionLabelFormat{mine}{#1~[#2]}\DeclareCaptionLabelSeparator{dash}{ -- }\captionsetup{labelformat=mine,labelsep=dash}",
        lines: &[(r"\begin{figure}[h]X\caption{Cap}\end{figure}", "X Figure [1] – Cap")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{caption}\captionsetup[table]{name=Tab.,labelsep=period}",
        lines: &[
            (
                r"\begin{figure}[h]X\caption{Cap}\end{figure}\begin{table}[h]X\caption{Cap}\end{table}",
                "X Figure 1: Cap X Tab. 1. Cap",
            ),
            (r"\begin{center}X\captionof{figure}{Of}\label{f}\end{center}\ref{f}", "X Figure 1: Of 1"),
            (
                r"\begin{minipage}{5cm}\captionsetup{type=table}\caption{Tab}\begin{tabular}{l}a\end{tabular}\end{minipage}",
                "Tab. 1. Tab +---+ | a | +---+",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{tocloft,titletoc,sectsty}",
        lines: &[(r"\section{One}x", "1 One ===== x")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{hyperref}\usepackage[capitalise,nameinlink]{cleveref}",
        lines: &[(r"\begin{enumerate}\item one\label{i}\end{enumerate}\cref{i} \autoref{i}", "1. one Item 1 item 1")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{longtable,booktabs,tabularx,multirow,makecell,dcolumn}",
        lines: &[
            (
                r"\begin{tabular}{l>{\bfseries}r}\toprule a & b\\\cmidrule(lr){1-2} \multicolumn{1}{c}{x} & y\\\addlinespace\bottomrule\end{tabular}",
                "+---+---+ | a | b | +---+---+ | x | y | +---+---+",
            ),
            (r"\begin{tabular}{D{.}{.}{2}}1.23\\10.4\end{tabular}", "+------+ | 1.23 | +------+ | 10.4 | +------+"),
            (
                r"\begin{tabular}[t]{@{}ll@{}}a&b\\[2pt]c&d\tabularnewline e&f\end{tabular}",
                "+---+---+ | a | b | +---+---+ | c | d | +---+---+ | e | f | +---+---+",
            ),
            (r"\begin{tabular*}{5cm}{l@{\extracolsep{\fill}}r}a&b\\\end{tabular*}", "+---+---+ | a | b | +---+---+"),
            (
                r"\begin{longtable}[c]{ll}\caption[s]{L}\label{l}\\\hline h&i\\\endfirsthead\multicolumn{2}{c}{cont}\\h&i\\\endhead\multicolumn{2}{r}{more}\\\endfoot\hline\endlastfoot a&b\\\end{longtable}",
                "Table 1: L +---+---+ | h | i | +===+===+ | a | b | +---+---+",
            ),
            (r"\begin{tabular}{p{2cm}m{1cm}b{1cm}}a&b&c\\\end{tabular}", "+---+---+---+ | a | b | c | +---+---+---+"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{varioref}",
        lines: &[(r"\section{Alpha}\label{s}See \vref{s}.", "1 Alpha ======= See 1.")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{multicol,vwcol,parskip,indentfirst,setspace}",
        lines: &[(r"\onehalfspacing a \begin{multicols}{2}[Head]b\end{multicols}", "a Head b")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{verse}",
        lines: &[(r"\poemtitle{P}\begin{verse}[3cm]a\\\vin b\\>c\end{verse}", "P a b >c")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{xcolor,colortbl}",
        lines: &[(
            r"\begin{tabular}{l>{\columncolor{red}}l}\rowcolor{blue}a&b\\\cellcolor{red}c&d\end{tabular}",
            "+---+---+ | a | b | +---+---+ | c | d | +---+---+",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{array,hhline,arydshln}",
        lines: &[(
            r"\begin{tabular}{|l:l|}\hline a&b\\\hdashline c&d\\\cdashline{1-1}e&f\\\hhline{|-|-|}\end{tabular}",
            "+---+---+ | a | b | +---+---+ | c | d | +---+---+ | e | f | +---+---+",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{threeparttable,booktabs}",
        lines: &[(
            r"\begin{table}[h]\begin{threeparttable}\caption{T}\begin{tabular}{l}a\tnote{a}\\\end{tabular}\begin{tablenotes}\item[a] N\end{tablenotes}\end{threeparttable}\end{table}",
            "Table 1: T +----+ | aa | +----+ a N",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{relsize,textcase,soul}",
        lines: &[(r"\larger a \smaller b \textlarger{c}\MakeTextUppercase{abc $x$}\hl{d}", "a b cABC xd")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{outlines}",
        lines: &[(r"\begin{outline}\1 a\2 b\1 c\end{outline}", "a b c")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{rotating,pdflscape}",
        lines: &[
            (
                r"\begin{sidewaystable}\caption{S}\begin{tabular}{l}a\end{tabular}\end{sidewaystable}",
                "Table 1: S +---+ | a | +---+",
            ),
            (r"\begin{sideways}x\end{sideways}", "x"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{mathtools,amsthm}",
        lines: &[(
            r"\newtheorem{thm}{Theorem}\newtheorem{cor}[thm]{Corollary}\theoremstyle{remark}\newtheorem*{rmk}{Remark}\begin{thm}a\end{thm}\begin{cor}[b]c\end{cor}\begin{rmk}d\end{rmk}",
            "Theorem 1. a Corollary 2 (b). c Remark. d",
        )],
    },
    Printed { class: r"\documentclass{article}", preamble: r"\usepackage{imakeidx}", lines: &[(r"a\index{b}c", "ac")] },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{enumitem,hyperref,amsmath}",
        lines: &[
            (r"\begin{enumerate}[label=\emph{\alph*})]\item one\label{i}\item two\end{enumerate}\ref{i}", "a) one b) two a)"),
            (r"\begin{enumerate}[label=(\arabic{section}.\arabic*)]\item one\label{i}\end{enumerate}\ref{i}", "(0.1) one (0.1)"),
            (r"\begin{enumerate}[label=\Alph*,start=3,ref=item~\Alph*]\item one\label{i}\end{enumerate}\ref{i}", "C one item C"),
            (
                r"\begin{enumerate}[series=s]\item one\end{enumerate}x\begin{enumerate}[resume=s]\item two\end{enumerate}",
                "1. one x 2. two",
            ),
            (r"\begin{itemize}[label={},leftmargin=0pt]\item one\item two\end{itemize}", "- one - two"),
            (r"\setlist{nosep}\begin{enumerate}\item one\end{enumerate}", "1. one"),
            (
                r"\setlist[enumerate]{label=\arabic*)}\begin{enumerate}\item one\begin{enumerate}\item in\end{enumerate}\end{enumerate}",
                "1) one 1) in",
            ),
            (
                r"\newlist{q}{enumerate}{1}\setlist[q,1]{label=Q\arabic*.,ref=Q\arabic*}\begin{q}\item one\label{i}\end{q}\ref{i}\begin{q}[resume]\item two\end{q}",
                "Q1. one Q1 Q2. two",
            ),
            (r"\begin{enumerate}[label={[\arabic*]}]\item one\item two\end{enumerate}", "[1] one [2] two"),
            (r"\begin{enumerate}[label=\protect\textbf{\arabic*}]\item one\end{enumerate}", "1 one"),
            (r"\begin{enumerate}[label=\fbox{\arabic*}]\item one\end{enumerate}", "1 one"),
            (r"\begin{enumerate}[label=$\bullet$]\item one\item two\end{enumerate}", "- one - two"),
            (r"\begin{enumerate}\item[\textbf{Q1}] one\item[\textbf{Q2}] two\end{enumerate}", "Q1 one Q2 two"),
            (r"\begin{itemize}\item[1.] one\item[2.] two\item[3.] three\end{itemize}", "1. one 2. two 3. three"),
            (r"\begin{itemize}\item[Ebb] one\item[Flood] two\end{itemize}", "Ebb one Flood two"),
            (r"\begin{itemize}\item[--] one\item[--] two\end{itemize}", "- one - two"),
            (r"\begin{enumerate}\item one\item[] cont\item two\end{enumerate}", "1. one cont 2. two"),
            (r"\begin{enumerate}\item one\item[1a.] cont\item two\end{enumerate}", "1. one - 1a. cont 2. two"),
            (
                r"\renewcommand{\theenumii}{\arabic{enumii}}\renewcommand{\labelenumii}{\theenumi.\theenumii}\begin{enumerate}\item one\begin{enumerate}\item in\label{i}\end{enumerate}\end{enumerate}\ref{i}",
                "1. one 1.1 in 11",
            ),
        ],
    },
];

/// All documents, with what is printed for each.
fn documents() -> impl Iterator<Item = (String, &'static str)> {
    PRINTED.iter().flat_map(|printed| {
        let Printed { class, preamble, lines } = printed;
        lines.iter().map(move |(text, expected)| {
            (
                format!("{class}\n\\usepackage[T1]{{fontenc}}{preamble}\n\\begin{{document}}\n{text}\n\\end{{document}}\n"),
                *expected,
            )
        })
    })
}

/// The words of a document in plain text.
fn words(latex: &str) -> String {
    let text = convert(latex, Format::Latex, Format::Text, &["text.math=text", "text.width=0"]).into_text().unwrap();
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

#[test]
fn numbers_and_words_are_those_that_the_engine_prints() {
    let all = documents().map(|(source, expected)| (words(&source), expected, source));
    let wrong: Vec<String> = all
        .filter(|(printed, expected, _)| printed != expected)
        .map(|(printed, expected, source)| format!("{source}\n  gives {printed}\n  for   {expected}"))
        .collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn they_are_the_same_when_the_page_comes_back() {
    let mut profile = Profile::default();
    profile.set("page.contents=0").unwrap();
    let back = |source: &str| {
        let page = obblet::convert(source.as_bytes(), Format::Latex, Format::Html, &profile).unwrap().into_text().unwrap();
        obblet::convert(page.as_bytes(), Format::Html, Format::Latex, &profile).unwrap().into_text().unwrap()
    };
    // A page has a title, whether its source says one or not; levels of headings may be left out in between.
    let bare = |words: &str| {
        let is_line = |word: &&str| word.len() > 1 && word.chars().all(|c| matches!(c, '=' | '-')) || *word == "=";
        let words: Vec<&str> = words.split(' ').filter(|word| !is_line(word)).collect();
        words.join(" ").trim_start_matches("Untitled ").to_owned()
    };
    let wrong: Vec<String> = documents()
        .map(|(source, expected)| (back(&source), expected, source))
        .filter(|(latex, expected, _)| bare(&words(latex)) != bare(expected))
        .map(|(latex, expected, source)| format!("{source}\n  gives {}\n  for   {expected}\n  by {latex}", words(&latex)))
        .collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn labels_captions_and_equations_take_linear_time() {
    type Shape = (&'static str, fn(usize) -> String);
    let shapes: [Shape; 15] = [
        ("labels of lists", |n| "\\begin{enumerate}[label=\\textbf{(\\alph*)}]\\item a\\end{enumerate}".repeat(n / 62)),
        ("one label for all lists", |n| {
            let label = format!("\\renewcommand\\labelenumi{{{}\\arabic{{enumi}}}}", "x\\relax ".repeat(n / 16));
            label + &"\\begin{enumerate}\\item a\\end{enumerate}".repeat(n / 76)
        }),
        ("a label by an example", |n| format!("\\begin{{enumerate}}[{}]\\item a", "{1}".repeat(n / 3))),
        ("labels by hand", |n| "\\begin{itemize}".to_owned() + &"\\item[a)] b".repeat(n / 11)),
        ("items in a line", |n| "\\begin{enumerate*}".to_owned() + &"\\item a".repeat(n / 7)),
        ("items with and without labels", |n| "\\begin{enumerate}".to_owned() + &"\\item a\\item[b] c".repeat(n / 17)),
        ("kinds of lists", |n| "\\newlist{a}{enumerate}{2}\\begin{a}\\item ".repeat(n / 40)),
        ("captions of one float", |n| "\\begin{figure}".to_owned() + &"a\\caption{b}".repeat(n / 12)),
        ("captions of nothing", |n| "\\captionof{figure}{a}".repeat(n / 21)),
        ("commands in code", |n| format!("\\begin{{alltt}}\n{}\n\\end{{alltt}}", "\\b{".repeat(n / 3))),
        ("formulas in code", |n| format!("\\begin{{lstlisting}}[mathescape]\n{}\n\\end{{lstlisting}}", "$a".repeat(n / 2))),
        ("equations that are counted", |n| "\\theequation".to_owned() + &"\\begin{equation}a\\end{equation}".repeat(n / 31)),
        ("parts of equations", |n| "\\begin{subequations}\\begin{equation}a\\end{equation}b".repeat(n / 51)),
        ("labels in notes", |n| "\\footnote{\\label{a}".repeat(n / 19)),
        ("boxes with theorems", |n| "\\newtcbtheorem{a}{b}{}{c}\\begin{a}{d}{e}".repeat(n / 40)),
    ];
    let read = |source: &[u8]| latex::read(source, &latex::Settings::default());
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), read).err()).collect();
    assert_eq!(failed, [""; 0]);
    let written: [Shape; 3] = [
        ("numbers of a class", |n| "\\documentclass{IEEEtran}".to_owned() + &"\\section{A}\\subsection{B}".repeat(n / 26)),
        ("captions of a class", |n| {
            "\\documentclass{llncs}".to_owned() + &"\\begin{figure}a\\caption{b}\\end{figure}".repeat(n / 39)
        }),
        ("numbers of equations", |n| {
            "\\documentclass{article}\\renewcommand{\\theequation}{A\\arabic{equation}}".to_owned()
                + &"\\begin{equation}a\\end{equation}".repeat(n / 31)
        }),
    ];
    let write = |source: &[u8]| convert(source, Format::Latex, Format::Latex, &[]);
    let failed: Vec<String> =
        written.iter().filter_map(|(name, shape)| grows_linearly(name, 800, |n| shape(n).into_bytes(), write).err()).collect();
    assert_eq!(failed, [""; 0]);
}
