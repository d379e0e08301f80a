//! What packages and classes that many documents use print: boxes, floats, notes, signs, tables, tests.

use super::Printed;

pub(super) const PRINTED: &[Printed] = &[
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{tcolorbox}\tcbuselibrary{skins,breakable,theorems}
\newtcbtheorem[number within=section]{mytheo}{Theorem}{}{th}
\newtcolorbox{mybox}[2][]{title={#2},#1}
\newtcolorbox[auto counter]{nbox}[1]{title={Note~\thetcbcounter: #1}}
\newtcbox{\mark}{on line}",
        lines: &[
            (r"\begin{tcolorbox}[title=My title,colback=red]Text.\tcblower Below.\end{tcolorbox}", "My title Text.Below."),
            (r"\begin{mybox}[colback=red]{Title here}Body.\end{mybox}", "Title here Body."),
            (r"\begin{nbox}{One}Body.\end{nbox}\begin{nbox}{Two}Body.\end{nbox}", "Note 1: One Body. Note 2: Two Body."),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{mdframed,framed}
\newmdtheoremenv{theo}{Theorem}
\newmdenv[linecolor=red]{redbox}",
        lines: &[
            (r"\begin{mdframed}[frametitle={A title}]Body.\end{mdframed}", "A title Body."),
            (r"\begin{theo}Body.\end{theo}\begin{redbox}Body.\end{redbox}", "Theorem 1. Body. Body."),
            (
                r"\begin{framed}Framed.\end{framed}\begin{shaded*}x\end{shaded*}\begin{leftbar}Left.\end{leftbar}\begin{titled-frame}{Title}Body\end{titled-frame}",
                "Framed. x Left. TitleBody",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{todonotes}",
        lines: &[(
            r"Text\todo{Fix this} more \todo[inline]{Inline one} end.",
            "Text (note 1) more (note 2) end. (note 1) Fix this (note 2) Inline one",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{epigraph,lettrine,quotchap}",
        lines: &[
            (r"\epigraph{Words of wisdom.}{Mara Quill} Text.", "> Words of wisdom. > > Mara Quill Text."),
            (r"\begin{epigraphs}\qitem{One}{A}\qitem{Two}{B}\end{epigraphs}", "> One ATwo B"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{pifont,marvosym,eurosym,textcomp,wasysym}",
        lines: &[
            (
                r"\ding{51} \ding{55} \ding{172} \ding{43} \euro{} \EUR{5} \texteuro \textnumero \textmusicalnote",
                "✓ ✗ ① ☞ € €5 €№♪",
            ),
            (
                r"\begin{dinglist}{43}\item One\item Two\end{dinglist}\begin{dingautolist}{172}\item One\item Two\end{dingautolist}",
                "- One - Two 1. One 2. Two",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{tipa}",
        lines: &[(r#"\textipa{[\*r@"naU]} \textipa{/"hA:b@/} \textschwa \textesh \textglotstop"#, "[ɹəˈnaʊ] /ˈhɑːbə/ əʃʔ")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{textgreek}",
        lines: &[(r"\textalpha\textbeta\textOmega\ \textmu m", "αβΩ µm")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{graphicx,subcaption}",
        lines: &[
            (
                r"\begin{figure}\begin{subfigure}{.4\textwidth}X\caption{One}\label{a}\end{subfigure}\begin{subfigure}{.4\textwidth}Y\caption{Two}\end{subfigure}\caption{All}\label{b}\end{figure} See \ref{a}, \subref{a}, \ref{b}.",
                "X (a) One Y (b) Two Figure 1: All See 1a, a, 1.",
            ),
            (
                r"\begin{figure}\subcaptionbox{One\label{a}}{X}\subcaptionbox*{Two}{Y}\caption{All}\end{figure} See \ref{a}.",
                "(a) One X Two Y Figure 1: All See 1a.",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{graphicx,wrapfig,sidecap,floatrow,rotating}",
        lines: &[(r"\begin{SCfigure}X\caption{Side}\end{SCfigure}", "X Figure 1: Side")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{threeparttable,makecell,diagbox,dcolumn,arydshln,booktabs,multirow,slashbox}",
        lines: &[
            (
                r"\begin{table}\begin{threeparttable}\caption{C}\begin{tabular}{ll}a\tnote{1}&b\\\end{tabular}\begin{tablenotes}\item[1] Note one\item[a] Note two\end{tablenotes}\end{threeparttable}\end{table}",
                "Table 1: C +----+---+ | a1 | b | +----+---+ 1 Note one a Note two",
            ),
            (
                r"\begin{tabular}{ll}\thead{Two\\lines}&\makecell[l]{a\\b}\\\Xhline{2pt}\end{tabular}",
                "+-------+---+ | Two | | +-------+---+ | lines | a | +-------+---+ | b | | +-------+---+",
            ),
            (
                r"\begin{tabular}{ll}\diagbox{A}{B}&b\\\hdashline a & b\\\cdashline{1-2}\end{tabular}",
                "+-------+---+ | A / B | b | +-------+---+ | a | b | +-------+---+",
            ),
            (
                r"\newcolumntype{d}[1]{D{.}{.}{#1}}\begin{tabular}{ld{2}}a&1.25\\b&\multicolumn{1}{c}{Text}\end{tabular}",
                "+---+------+ | a | 1.25 | +---+------+ | b | Text | +---+------+",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{fancyvrb,listings,verbatim,moreverb,alltt}",
        lines: &[
            (
                r"\begin{Verbatim}[numbers=left,label=Title,commandchars=\\\{\}]
a \textbf{b}
c
\end{Verbatim}",
                "a b c",
            ),
            (
                r"\begin{alltt}
a \textbf{b} $x$
\end{alltt} \begin{listing}[2]{1}
a
\end{listing}",
                "a b $x$ 1 a",
            ),
            (r"\SaveVerb{X}|a_b|\UseVerb{X} \Verb+c_d+ \DefineShortVerb{\|} |e_f|", "a_b c_d e_f"),
            (
                r"\lstset{language=C}\begin{lstlisting}[caption=Cap,label=l]
int a;
\end{lstlisting} See \ref{l}. \lstinline|x_y| \lstinline{a b}",
                "int a; Listing 1: Cap See 1. x_y a b",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{algorithm,algpseudocode}",
        lines: &[(
            r"\begin{algorithm}\caption{Sort}\label{s}\begin{algorithmic}[1]\Require list \Ensure sorted \State $a$ \If{x}\State y\ElsIf{z}\State w\Else\State v\EndIf \For{i}\State k\EndFor \While{a}\State b\EndWhile \Repeat\State c\Until{d}\State\Return e\Comment{done}\Function{F}{x}\State y\EndFunction\Procedure{P}{}\State \Call{F}{x}\EndProcedure\end{algorithmic}\end{algorithm} See \ref{s}.",
            "Algorithm 1: Sort - Require: list - Ensure: sorted - a - if x then - y - else if z then - w - else - v - for i do - k - while a do - b - repeat - c - until d - return e ▷ done - function F(x) - y - procedure P() - F(x) See 1.",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[ruled,vlined,linesnumbered]{algorithm2e}",
        lines: &[(
            r"\begin{algorithm}\KwIn{a}\KwOut{b}\KwData{d}\KwResult{r}\SetKwFunction{F}{foo}\SetKwInOut{Input}{input}\Input{x} a\;\eIf{c}{d\;}{e\;}\For{i}{j\;}\ForEach{k}{l\;}\While{m}{n\;}\uIf{o}{p\;}\uElseIf{q}{r\;}\Else{s\;}\Return{t}\;\tcp{note}\tcc*[r]{side}\F{x}\;\Switch{a}{\Case{b}{c\;}\Other{d\;}}\caption{Cap}\end{algorithm}",
            "- Input: a - Output: b - Data: d - Result: r - input: x - a - if c then - d - else - e - for i do - j - for each k do - l - while m do - n - if o then - p - else if q then - r - else - s - return t - ▷ note ▷ sidefoo(x) - switch a do - case b do - c - otherwise do - d Algorithm 1: Cap",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{amsthm,thmtools}
\declaretheorem[name=Theorem,numberwithin=section]{thm}\declaretheorem[sibling=thm,style=definition]{definition}\declaretheorem[numbered=no,style=remark]{remark}",
        lines: &[(
            r"\section{A}\begin{thm}[name=Big]\label{a}X\end{thm}\begin{restatable}[Goldbach]{thm}{gold}Every.\end{restatable}\gold* \listoftheorems",
            "1 A === Theorem 1.1 (Big). X Theorem 1.2 (Goldbach). Every.",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{ntheorem}
\theoremstyle{break}\newtheorem{sat}{Satz}",
        lines: &[(r"\begin{sat}[Name]X\end{sat}", "Satz 1 (Name). X")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{changes}",
        lines: &[(
            r"\added{new} \deleted{old} \replaced{new}{old} \highlight{x} \comment{c}",
            "new old newold x (note 1) (note 1) c",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[final]{changes}",
        lines: &[(r"\added{new} \deleted{old} \replaced{new}{old}", "new new")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[version=4]{mhchem}",
        lines: &[(
            r"\ce{H2O} \ce{SO4^2-} \ce{2H2 + O2 -> 2H2O} \ce{^{227}_{90}Th+} \ce{A <=> B} \ce{CO2 (g)}",
            "H₂O SO₄²⁻ 2H₂ + O₂ → 2H₂O ₉₀²²⁷Th⁺ A ⇌ B CO₂(g)",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{chemformula}",
        lines: &[(r"\ch{H2O} \ch{SO4^2-} \ch{2 H2 + O2 -> 2 H2O}", "H₂O SO₄²⁻ 2H₂ + O₂ → 2H₂O")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{menukeys,keystroke}",
        lines: &[(r"\keys{Ctrl+S} \menu{File > Save} \directory{a/b}", "Ctrl+S File > Save a/b")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{dirtree}",
        lines: &[(
            r"\dirtree{%
.1 root.
.2 one.
.3 two.
.2 three.
}",
            "- root - one - two - three",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{verse}",
        lines: &[(
            r"\poemtitle{Song}\begin{verse}[2in]One line\\Two line\\!
Third\\\vin Fourth\end{verse}\attrib{Me}",
            "Song One line Two line Third Fourth Me",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{paracol,multicol,parcolumns}",
        lines: &[
            (r"\begin{paracol}{2}Left\switchcolumn Right\switchcolumn* Left2\end{paracol}", "LeftRight Left2"),
            (r"\begin{multicols}{2}[Heading text]One two\columnbreak three\end{multicols}", "Heading text One twothree"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{fontawesome5}",
        lines: &[(r"\faGithub\ \faEnvelope\ \faIcon{star} x", "x")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{datetime2,isodate}",
        lines: &[(
            r"\DTMdate{2026-04-01} \DTMdisplaydate{2026}{4}{1}{-1} \printdate{2026-04-01}",
            "2026-04-01 2026-04-01 2026-04-01",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{relsize,textpos,ragged2e,scalerel,stackengine}",
        lines: &[(
            r"\larger big \textsmaller{small} \begin{FlushLeft}L\end{FlushLeft}\begin{Center}C\end{Center}\justifying x \stackunder{a}{b} \stackon{c}{d}",
            "big small L C x a b c d",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{comment,excludeonly}\excludecomment{hidden}\includecomment{shown}",
        lines: &[(
            r"a\begin{comment}
x
\end{comment}
b
\begin{hidden}
y
\end{hidden}
\begin{shown}
z
\end{shown}",
            "a b z",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{enumitem}\newlist{steps}{enumerate}{1}\setlist[steps]{label=Step \arabic*:}",
        lines: &[
            (
                r"\begin{steps}\item One\item Two\end{steps}\begin{enumerate}[label=(\roman*)]\item A\item\label{q} B\end{enumerate} \ref{q}",
                "Step 1: One Step 2: Two (i) A (ii) B (ii)",
            ),
            (
                r"\begin{enumerate}[label=\alph*)]\item A\item B\end{enumerate}\begin{itemize}[label=--]\item A\end{itemize}\begin{enumerate*}[label=(\alph*)]\item x \item y\end{enumerate*}",
                "a) A b) B - A (a) x (b) y",
            ),
            (
                r"\begin{enumerate}[resume]\item A\end{enumerate}\begin{enumerate}[resume]\item B\end{enumerate}\begin{description}[style=nextline]\item[T] D\end{description}",
                "1. A 2. B T D",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{titlesec,titletoc,tocloft,fancyhdr}\titleformat{\section}[block]{\bfseries}{\thesection}{1em}{}[\titlerule]\titleformat*{\subsection}{\itshape}\fancyhead[L]{Left}\fancyfoot{}\dottedcontents{section}[1em]{}{2em}{1pc}\titlecontents{subsection}[1em]{}{}{}{}[]\setlength{\cftbeforesecskip}{2pt}\renewcommand{\cftsecfont}{\bfseries}\titlespacing*{\section}{0pt}{1em}{2em}",
        lines: &[(r"\section{One} Text \subsection{Two} text", "1 One ===== Text 1.1 Two ------- text")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[table]{xcolor}\usepackage{booktabs,multirow,bigstrut}\rowcolors{2}{gray!20}{white}",
        lines: &[(
            r"\textcolor[rgb]{1,0,0}{red} \colorbox{yellow}{box} {\color[HTML]{FF0000}x} \fcolorbox{red}{white}{f} \begin{tabular}{ll}\toprule\rowcolor{red} a&\cellcolor[gray]{.8} b\\\cmidrule(lr){1-2}\multirow[c]{2}{*}{m}&c\\\addlinespace[2pt]&d\\\specialrule{1pt}{2pt}{3pt}\arrayrulecolor{red}\bottomrule\end{tabular}",
            "red box x f +---+---+ | a | b | +---+---+ | m | c | +---+---+ | | d | +---+---+",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{longtable,tabularx,tabulary,afterpage,placeins,needspace,pdflscape}",
        lines: &[
            (
                r"\begin{longtable}{ll}\caption{Long}\label{t}\\\hline A&B\\\hline\endfirsthead\caption[]{(continued)}\\A&B\\\endhead\hline\multicolumn{2}{r}{next page}\\\endfoot\hline\endlastfoot 1&2\\3&4\\\end{longtable} See \ref{t}.",
                "Table 1: Long +---+---+ | A | B | +===+===+ | 1 | 2 | +---+---+ | 3 | 4 | +---+---+ See 1.",
            ),
            (
                r"\begin{tabularx}{\textwidth}{lX}a&b\\\end{tabularx}\begin{tabulary}{5cm}{LC}c&d\end{tabulary}\afterpage{\clearpage}\FloatBarrier\needspace{3cm}\begin{landscape}L\end{landscape}",
                "+---+---+ | a | b | +---+---+ +---+---+ | c | d | +---+---+ L",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{textcase,mfirstuc,titlecaps}",
        lines: &[(
            r"\MakeTextUppercase{abc $x$} \makefirstuc{word} \capitalisewords{the high water} \MakeUppercase{def} \titlecap{the tide}",
            "ABC x Word The High Water DEF The Tide",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{etoolbox}\newcommand\e{}\newcounter{n}\setcounter{n}{3}",
        lines: &[
            (
                r"\ifdefempty{\e}{empty}{full} \ifstrequal{a}{a}{same}{other} \ifnumcomp{\value{n}}{>}{2}{more}{less} \ifnumgreater{3}{2}{yes}{no} \ifblank{ }{blank}{not} \ifdefstring{\e}{}{E}{F} \ifcsempty{e}{E}{F} \ifboolexpr{ test {\ifnumcomp{1}{=}{1}} and not test {\ifstrequal{a}{b}} }{T}{N}",
                "empty same more yes blank E E T",
            ),
            (
                r"\newcommand\lst{}\listadd\lst{a}\listadd\lst{b}\renewcommand*\do[1]{(#1)}\dolistloop\lst \docsvlist{x,y} \forcsvlist{\do}{p,q} \forlistloop{\do}{\lst} \numdef\k{2+3}\k \csdef{zz}{Z}\csuse{zz}",
                "(a)(b)(x)(y) (p)(q) (a)(b) 5Z",
            ),
            (
                r"\newtoggle{t}\toggletrue{t}\iftoggle{t}{on}{off} \newbool{b}\booltrue{b}\ifbool{b}{on}{off}\setbool{b}{false}\ifbool{b}{on}{off} \ifinlist{a}{a|b|}{in}{out} \whileboolexpr{ test {\ifnumcomp{\value{n}}{>}{0}} }{\then\addtocounter{n}{-1}}",
                "on onoff out 321",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{environ}\NewEnviron{boxed}{[\BODY]}\NewEnviron{twice}[1][x]{#1: \BODY\ and \BODY}",
        lines: &[(r"\begin{boxed}Text\end{boxed} \begin{twice}[y]Z\end{twice}", "[Text] y: Z and Z")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[final]{fixme}",
        lines: &[(r"A\fxnote{note} b\fxwarning{warn} c.", "A b c.")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{adjustbox,varwidth,trimclip}",
        lines: &[(
            r"\adjustbox{max width=5cm}{content} \begin{adjustbox}{center}C\end{adjustbox} \clipbox{1pt}{cl} \begin{varwidth}{5cm}V\end{varwidth}",
            "content C cl V",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{hanging,textpos,hologo,tabto}",
        lines: &[(
            r"\begin{hangparas}{1em}{1}One

Two\end{hangparas} \begin{textblock}{5}(1,2)T\end{textblock} \hologo{LaTeX} \hologo{BibTeX} a\tabto{2cm}b \hangpara{1em}{1}Hang",
            "One Two T LaTeX BibTeX ab Hang",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{parallel}",
        lines: &[(r"\begin{Parallel}{}{}\ParallelLText{Left}\ParallelRText{Right}\ParallelPar\end{Parallel}", "LeftRight")],
    },
    Printed {
        class: r"\documentclass{memoir}",
        preamble: "",
        lines: &[
            (
                r"\chapter{One}\chapterprecis{About it} Text\begin{figure}X\caption{C}\legend{L}\end{figure}",
                "1 One ===== About it Text X L Figure 1.1: C",
            ),
            (
                r"\chapter[short][head]{Long title}\section[s][h]{Long section} x",
                "1 Long title ============ 1.1 Long section ---------------- x",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{scrartcl}",
        preamble: "",
        lines: &[
            (
                r"\minisec{Mini} Text \dictum[Quill]{Words} \marginline{M} \begin{labeling}[--]{ab}\item[a] One\item[ab] Two\end{labeling}\addsec{Added} x \captionof{figure}{C}",
                "Mini Text > Words > > Quill M a One ab Two Added ===== x Figure 1: C",
            ),
            (
                r"\begin{table}\captionabove{Above}\begin{tabular}{l}a\end{tabular}\end{table}\begin{figure}X\captionbelow{Below}\end{figure}\begin{figure}\begin{captionbeside}{Beside}X\end{captionbeside}\end{figure}",
                "Table 1: Above +---+ | a | +---+ X Figure 1: Below Figure 2: Beside X",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{upgreek,isomath,bm,bbm,dsfont,mathrsfs,esint,stmaryrd,mathabx}",
        lines: &[(r"$\upalpha \bm{x} \mathbbm{1} \mathds{R} \mathscr{L} \oiint \llbracket a \rrbracket$", "α𝒙𝟙ℝℒ∯⟦a⟧")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{subfig}",
        lines: &[(
            r"\begin{figure}\subfloat[One]{X\label{a}}\subfloat[][Two]{Y}\caption{All}\end{figure} \ref{a} \subref{a}",
            "(a) One X (b) Two Y Figure 1: All 1a (a)",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{floatrow}",
        lines: &[(
            r"\begin{figure}\begin{floatrow}\ffigbox{X}{\caption{A}}\ffigbox{Y}{\caption{B}}\end{floatrow}\end{figure}",
            "X Y Figure 1: A Figure 2: B",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{multibib}\newcites{sec}{Secondary}",
        lines: &[(r"A\nocite{x}.", "A.")],
    },
    Printed { class: r"\documentclass{article}", preamble: r"\usepackage{minted}", lines: &[("A", "A")] },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{nicefrac,units,xfrac,cancel,mathtools}",
        lines: &[(
            r"\nicefrac{1}{2} \unit[5]{kg} \unitfrac[3]{m}{s} \sfrac{3}{4} $\cancel{x}$ \(\prescript{14}{2}{C}\) $\xleftrightarrow{ab}$ $\coloneqq$ $\underbracket{x}_y$",
            "1/2 5 kg 3 m/s 3/4 x ₂¹⁴C ↔ [ab] ≔ x_y",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{tasks}",
        lines: &[(r"\begin{tasks}(2)\task One \task* Two \task! Three\end{tasks}", "a) One b) Two c) Three")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{changepage,framed,ntheorem,thmbox}",
        lines: &[(r"\begin{adjustwidth}{1cm}{}A\end{adjustwidth}\ifoddpage o\else e\fi", "A e")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{longtable,caption}",
        lines: &[
            (
                r"\begin{longtable}{l}x\\\end{longtable}\begin{longtable}{l}\caption{C}\\y\end{longtable}",
                "+---+ | x | +---+ Table 2: C +---+ | y | +---+",
            ),
            (
                r"\begin{longtable}{l}\caption*{S}\\x\\\end{longtable}\begin{longtable}{l}\caption{C}\\y\end{longtable}",
                "S +---+ | x | +---+ Table 2: C +---+ | y | +---+",
            ),
            (
                r"\begin{longtable*}{l}x\\\end{longtable*}\begin{longtable}{l}\caption{C}\\y\end{longtable}",
                "+---+ | x | +---+ Table 1: C +---+ | y | +---+",
            ),
        ],
    },
];
