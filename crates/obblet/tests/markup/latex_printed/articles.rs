//! Articles: text, floats, captions, tables, equations, theorems, citations and packages.

use super::Printed;

pub(super) const PRINTED: &[Printed] = &[
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
        preamble: r"\usepackage{xparse}",
        lines: &[(r"\NewDocumentCommand{\x}{O{d}m}{#1-#2}\x{a}\x[b]{c}", "d-ab-c")],
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
        lines: &[(r"\begin{outline}\1 a\2 b\1 c\end{outline}", "- a - b - c")],
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
        preamble: r"\usepackage{tabularray}",
        lines: &[(
            r"\begin{longtblr}[caption={Cap},label={tab:x}]{colspec={ll},rowhead=1}a&b\\c&d\end{longtblr}See \ref{tab:x}.",
            "Table 1: Cap +---+---+ | a | b | +===+===+ | c | d | +---+---+ See 1.",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{siunitx}",
        lines: &[
            (
                r"\SI{5}{m/s} \qty[per-mode=symbol]{5}{\metre\per\second\squared} \qty{5}{\metre\per\second}",
                "5 m/s 5 m/s² 5 m s⁻¹",
            ),
            (
                r"\sisetup{per-mode=symbol}\qty{5}{\metre\per\second} {\sisetup{per-mode=power}\si{\metre\per\second}}",
                "5 m/s m s⁻¹",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{varioref,hvfloat}",
        lines: &[(
            r"\hvFloat[capPos=after]{figure}{X}[short]{Cap}{fig:x}See \vref{fig:x}, \vpageref[here]{fig:x}, a\penalty0\hskip0pt\relax b.",
            "X Figure 1: Cap See 1, above, ab.",
        )],
    },
];
