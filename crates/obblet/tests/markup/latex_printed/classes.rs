//! Other classes: books, journals, letters and slides.

use super::Printed;

pub(super) const PRINTED: &[Printed] = &[
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
        class: r"\documentclass{beamer}",
        preamble: "",
        lines: &[
            (
                r"\begin{frame}{Tide}\begin{beamercolorbox}[sep=8pt,center]{title}box\end{beamercolorbox}\begin{onlyenv}<1>a\end{onlyenv}\end{frame}",
                "Tide ---- box a",
            ),
            (
                r"\begin{frame}{Tide}\begin{overlayarea}{3cm}{2cm}a\end{overlayarea}\begin{beamerboxesrounded}[shadow=true]{Head}b\end{beamerboxesrounded}\end{frame}",
                "Tide ---- a Head b",
            ),
            (
                r"\begin{frame}[label=here]{Tide}\setbeamercolor{x}{fg=red}\temporal<2>{f}{g}{h}\mode<article>{print}\mode<presentation>{shown}\end{frame}\againframe<2->{here}",
                "Tide ---- gshown",
            ),
            (
                r"\begin{frame}{Tide}\begin{thebibliography}{1}\bibitem{a}Ada Pask.\newblock Tides.\end{thebibliography}\end{frame}",
                "Tide ---- 1. Ada Pask. Tides.",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{exam}",
        preamble: "",
        lines: &[
            (
                r"\begin{questions}\question Q\begin{choices}\choice a\CorrectChoice b\end{choices}\bonusquestion[2] B\end{questions}",
                "1. Q A. a B. b 2. (2 points (bonus)) B",
            ),
            (
                r"\begin{questions}\qformat{Question \thequestion\hfill}\question[1] Fill \fillin[word] in.\fillwithlines{1cm}\end{questions}\gradetable[h][questions]",
                "1. (1 point) Fill _____ in.",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{scrlttr2}",
        preamble: r"\setkomavar{fromname}{Ada Pask}\setkomavar{fromaddress}{1 Quay\\Kell}\setkomavar{subject}{Tides}\setkomavar{date}{May 1}",
        lines: &[(
            r"\begin{letter}{Board\\2 Quay}\opening{Dear Board,}Text.\closing{Yours,}\end{letter}",
            "Ada Pask 1 Quay Kell Board 2 Quay May 1 Tides Dear Board, Text. Yours, Ada Pask",
        )],
    },
    Printed {
        class: r"\documentclass{elsarticle}",
        preamble: r"\newtheorem{thm}{Theorem}\newdefinition{rmk}{Remark}\newproof{pf}{Proof}",
        lines: &[(r"\begin{thm}A\end{thm}\begin{rmk}B\end{rmk}\begin{pf}C\end{pf}", "Theorem 1. A Remark 1. B Proof. C")],
    },
];
