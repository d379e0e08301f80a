//! Lists: their labels, numbers and references.

use super::Printed;

pub(super) const PRINTED: &[Printed] = &[
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
        preamble: r"\usepackage{gb4e}",
        lines: &[
            (r"\begin{exe}\ex one\label{x}\ex two\end{exe}\ref{x}", "(1) one (2) two 1"),
            (r"\begin{exe}\ex\gll a b c\\ A B C\\\glt `free'\end{exe}", "(1) a b c A B C ‘free’"),
        ],
    },
    Printed { class: r"\documentclass{article}", preamble: r"\usepackage{makeidx}", lines: &[(r"a\index{a}b\printindex", "ab")] },
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
