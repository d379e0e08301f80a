//! What commands come to: definitions, arguments, numbers, conditionals, loops. What is expected is what a TeX engine prints.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::formats::latex;
use support::convert::convert;
use support::linear::grows_linearly;

/// Text of LaTeX, and what is printed for it.
const PRINTED: &[(&str, &str)] = &[
    (r##"\NewDocumentCommand\qa{o m}{\IfNoValueTF{#1}{none}{some #1}: #2}\qa{x}; \qa[y]{z}"##, r##"none: x; some y: z"##),
    (
        r##"\NewDocumentCommand\qb{s O{d} m}{\IfBooleanTF{#1}{star}{plain} #2 #3}\qb{x}; \qb*{y}; \qb*[e]{z}"##,
        r##"plain d x; star d y; star e z"##,
    ),
    (r##"\NewDocumentCommand\qc{m d() m}{#1-\IfNoValueTF{#2}{no}{#2}-#3}\qc{a}(b){c}; \qc{a}{c}"##, r##"a-b-c; a-no-c"##),
    (r##"\NewDocumentCommand\qd{D<>{std} m}{[#1] #2}\qd<uno>{x}; \qd{y}"##, r##"[uno] x; [std] y"##),
    (r##"\NewDocumentCommand\qe{r() m}{#1 and #2}\qe(one){two}"##, r##"one and two"##),
    (r##"\NewDocumentCommand\qf{t+ m}{\IfBooleanTF{#1}{plus}{no plus} #2}\qf+{x}; \qf{y}"##, r##"plus x; no plus y"##),
    (
        r##"\NewDocumentCommand\qg{e{^_} m}{\IfValueTF{#1}{up #1}{no up}, \IfValueTF{#2}{down #2}{no down}: #3}\qg^{a}_{b}{x}; \qg_{b}{y}; \qg{z}"##,
        r##"up a, down b: x; no up, down b: y; no up, no down: z"##,
    ),
    (r##"\NewDocumentCommand\qh{+m}{<#1>}\qh{long text}"##, r##"<long text>"##),
    (r##"\NewDocumentCommand\qi{v}{\texttt{#1}}\qi|a_b#c%d|"##, r##"a_b#c%d"##),
    (r##"\NewDocumentCommand\qj{>{\TrimSpaces} m}{<#1>}\qj{ trimmed }"##, r##"<trimmed>"##),
    (
        r##"\NewDocumentCommand\qk{>{\SplitArgument{1}{,}} m}{\qkk#1}\NewDocumentCommand\qkk{m m}{first #1, second #2}\qk{a,b}"##,
        r##"first a, second b"##,
    ),
    (r##"\NewDocumentCommand\ql{m !o}{\IfValueTF{#2}{opt #2}{no opt} #1}\ql{x}; \ql{x}[o]"##, r##"no opt x; opt o x"##),
    (r##"\NewDocumentCommand\qm{R<>{dflt} m}{#1/#2}\qm<a>{b}"##, r##"a/b"##),
    (
        r##"\NewDocumentEnvironment{qenv}{O{Def} m}{Begin #1 #2: }{ End #1 #2}\begin{qenv}[X]{Y}inner\end{qenv}; \begin{qenv}{Y}inner\end{qenv}"##,
        r##"Begin X Y: inner End X Y ; Begin Def Y: inner End Def Y"##,
    ),
    (r##"\NewDocumentEnvironment{qbenv}{+b}{Body is (#1)}{}\begin{qbenv}inner text\end{qbenv}"##, r##"Body is (inner text)"##),
    (r##"\NewDocumentCommand\qn{E{^_}{{U}{D}} m}{#1 #2 #3}\qn^{a}{x}; \qn{y}"##, r##"a D x; U D y"##),
    (r##"\NewDocumentCommand\qo{= {key} m m}{#1;#2}\qo{v}{w}"##, r##"key=v;w"##),
    (r##"\NewExpandableDocumentCommand\qp{O{z} m}{#1#2}\qp[b]{a}; \qp{a}."##, r##"ba; za."##),
    (r##"\def\qq#1#2{#2#1}\qq ab; \qq{long}{short}"##, r##"ba; shortlong"##),
    (r##"\def\qr#1.{<#1>}\qr sentence. Rest."##, r##"<sentence> Rest."##),
    (r##"\def\qs[#1]#2{#1|#2}\qs[opt]{arg}"##, r##"opt|arg"##),
    (r##"\def\qt#1:#2;{#1 and #2}\qt key:value; after"##, r##"key and value after"##),
    (r##"\def\qu#1\end#2{#1!#2}\qu text\end{word}"##, r##"text!word"##),
    (r##"\def\qv#1#{<#1>}\qv abc{def}"##, r##"<abc>def"##),
    (r##"\def\qw/#1/{italic #1}\qw/slashed/ after"##, r##"italic slashed after"##),
    (r##"\edef\qx{\number\numexpr 3*4+2\relax}\qx"##, r##"14"##),
    (r##"\count255=7 \advance\count255 by 5 \the\count255"##, r##"12"##),
    (r##"\newcount\mycnt \mycnt=3 \multiply\mycnt by 4 \number\mycnt"##, r##"12"##),
    (
        r##"\newcounter{foo}\setcounter{foo}{4}\addtocounter{foo}{3}\arabic{foo} \roman{foo} \Roman{foo} \alph{foo} \Alph{foo}"##,
        r##"7 vii VII g G"##,
    ),
    (r##"\expandafter\def\csname my-cmd\endcsname{made}\csname my-cmd\endcsname"##, r##"made"##),
    (r##"\let\qy=\textbf \qy{bold}"##, r##"bold"##),
    (r##"\let\qqa\relax \ifx\qqa\relax relaxed\else not\fi"##, r##"relaxed"##),
    (r##"\newif\iffoo \footrue \iffoo yes\else no\fi; \foofalse \iffoo yes\else no\fi"##, r##"yes; no"##),
    (r##"\ifnum 3<5 less\else more\fi; \ifnum 3>5 more\else less\fi; \ifnum 5=5 equal\fi"##, r##"less; less; equal"##),
    (r##"\ifdim 3pt<1cm smaller\else larger\fi"##, r##"smaller"##),
    (r##"\ifcase 2 zero\or one\or two\or three\else many\fi"##, r##"two"##),
    (r##"\ifodd 3 odd\else even\fi; \ifodd 4 odd\else even\fi"##, r##"odd; even"##),
    (r##"\def\qqb{abc}\def\qqc{abc}\ifx\qqb\qqc same\else different\fi"##, r##"same"##),
    (r##"\if aa same\else different\fi; \if ab same\else different\fi"##, r##"same; different"##),
    (r##"\ifcat a1 same\else different\fi"##, r##"different"##),
    (r##"\ifdefined\undefinedthing def\else undef\fi; \ifdefined\textbf def\else undef\fi"##, r##"undef; def"##),
    (r##"\ifcsname textbf\endcsname def\else undef\fi"##, r##"def"##),
    (r##"\unless\ifnum 1=2 not equal\else equal\fi"##, r##"not equal"##),
    (r##"\ifmmode math\else text\fi, $\ifmmode m\else t\fi$"##, r##"text, m"##),
    (r##"\iftrue A\iffalse B\else C\fi D\else E\fi"##, r##"ACD"##),
    (r##"\newcount\mycnt \loop\advance\mycnt by -4 \number\mycnt,\ifnum\mycnt>0 \repeat"##, r##"-4,"##),
    (r##"\newcount\kk \kk=0 \loop\ifnum\kk<3 x\advance\kk by 1 \repeat"##, r##"xxx"##),
    (r##"\makeatletter\@for\x:=a,b,c\do{(\x)}\makeatother"##, r##"(a)(b)(c)"##),
    (r##"\makeatletter\@tfor\x:=abc\do{(\x)}\makeatother"##, r##"(a)(b)(c)"##),
    (r##"\makeatletter\@ifundefined{nothere}{undef}{def}, \@ifundefined{textbf}{undef}{def}\makeatother"##, r##"undef, def"##),
    (r##"\makeatletter\@namedef{abc@d}{named}\@nameuse{abc@d}\makeatother"##, r##"named"##),
    (r##"\makeatletter\def\qqd{\@ifstar{star}{plain}}\qqd*; \qqd x\makeatother"##, r##"star; plainx"##),
    (
        r##"\makeatletter\def\qqe{\@ifnextchar[{\qqf}{\qqf[default]}}\def\qqf[#1]#2{#1:#2}\qqe[a]{b}; \qqe{c}\makeatother"##,
        r##"a:b; default:c"##,
    ),
    (
        r##"\makeatletter\@firstoftwo{one}{two}\@secondoftwo{one}{two}\@gobble{no}\@gobbletwo{a}{b}\@firstofone{yes}\makeatother"##,
        r##"onetwoyes"##,
    ),
    (r##"\makeatletter\def\qqb{abc}\g@addto@macro\qqb{def}\qqb\makeatother"##, r##"abcdef"##),
    (r##"\def\qqa#1{<#1>}\expandafter\qqa\expandafter\relax done"##, r##"<>done"##),
    (r##"\def\qqg#1{\if\relax\detokenize{#1}\relax empty\else full\fi}\qqg{}; \qqg{x}"##, r##"empty; full"##),
    (r##"\begingroup\def\qqh{inner}\qqh\endgroup; \def\qqh{outer}\qqh"##, r##"inner; outer"##),
    (r##"{\def\qqi{local}\qqi} \providecommand\qqi{provided}\qqi"##, r##"local provided"##),
    (r##"\def\qqj{\def\qqk##1{<##1>}}\qqj\qqk{x}"##, r##"<x>"##),
    (r##"\newcommand*\qql[2][opt]{#1 #2}\qql{x} \qql[y]{z}"##, r##"opt x y z"##),
    (r##"\newcommand\qql{}\renewcommand\qql[1]{re #1}\qql{x}"##, r##"re x"##),
    (r##"\newcommand{\qqm}[3]{#3#2#1}\qqm{a}{b}{c} \qqm abc"##, r##"cba cba"##),
    (r##"\def\qqb{abcdef}\meaning\qqb"##, r##"macro:->abcdef"##),
    (
        r##"\uppercase{shout} \lowercase{WHISPER} \MakeUppercase{big} \MakeLowercase{SMALL} \MakeTitlecase{title}"##,
        r##"SHOUT whisper BIG small Title"##,
    ),
    (r##"\romannumeral 14 \number 012"##, r##"xiv12"##),
    (r##"\char65 \char"42 \char`C \symbol{68}"##, r##"ABCD"##),
    (r##"\def\qqc{abc}\expandafter\uppercase\expandafter{\qqc}"##, r##"ABC"##),
    (r##"\the\dimexpr 1pt+2pt\relax"##, r##"3.0pt"##),
    (r##"\newlength\mylen \setlength\mylen{3pt}\addtolength\mylen{2pt}\the\mylen"##, r##"5.0pt"##),
    (r##"\def\qqn{x}\edef\qqo{\qqn\noexpand\qqn}\def\qqn{y}\qqo"##, r##"xy"##),
    (r##"\def\qqp{start}\expandafter\def\expandafter\qqp\expandafter{\qqp-end}\qqp"##, r##"start-end"##),
    (r##"\def\qqq{<\ifx\nextt a yes\else no\fi>}\futurelet\nextt\qqq after"##, r##"< yes>after"##),
    (r##"\ignorespaces   text \unskip; x\space y\ z\relax w"##, r##"text; x y zw"##),
    (
        r##"\begin{comment}
hidden
\end{comment}
visible"##,
        r##"visible"##,
    ),
    (r##"\iffalse hidden \fi visible"##, r##"visible"##),
    (r##"\newcount\mycnt \afterassignment\qqr \def\qqr{assigned}\mycnt=5 done"##, r##"assigneddone"##),
    (r##"\ensuremath{x} \textsuperscript{th} \textsubscript{2} H\textsubscript{2}O"##, r##"x th 2 H2O"##),
    (r##"\numexpr 1+1\relax \the\numexpr(2+3)*4/2\relax"##, r##"1+110"##),
    (r##"\let\oldemph\emph\renewcommand\emph[1]{\oldemph{#1!}}\emph{x}"##, r##"x!"##),
    (
        r##"\newenvironment{wrapit}[2][w]{(#1:#2)}{(end)}\begin{wrapit}{arg}body\end{wrapit}\begin{wrapit}[v]{arg}body\end{wrapit}"##,
        r##"(w:arg)body(end) (v:arg)body(end)"##,
    ),
    (r##"\global\def\glob{g}{\gdef\globb{h}\xdef\globc{\glob\globb}}\globb\globc"##, r##"hgh"##),
    (r##"\long\def\longmac#1{<#1>}\longmac{p}"##, r##"<p>"##),
    (r##"\protected\def\prot{p}\prot"##, r##"p"##),
    (r##"\DeclareRobustCommand\rob[1]{r#1}\rob{x}"##, r##"rx"##),
    (r##"\DeclareTextFontCommand{\textfoo}{\itshape}\textfoo{foo}"##, r##"foo"##),
    (
        r##"\hbox{in a box} \mbox{mb} \fbox{fb} \parbox{10cm}{pb} \makebox[3cm][c]{mkb} \raisebox{2pt}{rb}"##,
        r##"in a box mb fb pb mkb rb"##,
    ),
    (r##"\vphantom{x}\hphantom{zzz}\phantom{hid}seen \smash{sm} \rlap{rl}\llap{ll}"##, r##"seen sm rlll"##),
    (r##"a\vrule width 1pt b\rule{1cm}{1pt}c"##, r##"abc"##),
];

/// What packages and the format have for text, lists, boxes and references.
const VOCABULARY: &[(&str, &str)] = &[
    (r##"\begin{enumerate}\setcounter{enumi}{4}\item five\end{enumerate}"##, r##"5. five"##),
    (r##"\begin{description}\item[term] text\item[other term] more\end{description}"##, r##"term text other term more"##),
    (r##"\begin{compactenum}\item one\item two\end{compactenum}"##, r##"1. one 2. two"##),
    (r##"\begin{asparaenum}[1.]\item one\item two\end{asparaenum}"##, r##"1. one 2. two"##),
    (r##"\enquote{outer \enquote{inner} outer}"##, r##"“outer ‘inner’ outer”"##),
    (r##"\textquote[source]{quoted}"##, r##"“quoted” (source)"##),
    (
        r##"\textcolor{red}{red} \colorbox{yellow}{boxed} \fcolorbox{red}{white}{fb} {\color{blue}blue}"##,
        r##"red boxed fb blue"##,
    ),
    (
        r##"\textsc{Small Caps} \textsf{sans} \texttt{mono} \textsl{slant} \textit{it} \textbf{bf} \textmd{md} \textup{up} {\bfseries b} {\itshape i} {\large l} {\tiny t} {\em e}"##,
        r##"Small Caps sans mono slant it bf md up b i l t e"##,
    ),
    (
        r##"\ifthenelse{\equal{a}{a}}{same}{diff} \ifthenelse{\lengthtest{1pt<2pt}}{less}{more} \ifthenelse{1<2 \and 3>2}{both}{no} \ifthenelse{\not 1=2}{neg}{pos} \ifthenelse{\isodd{3}}{odd}{even}"##,
        r##"same less both neg odd"##,
    ),
    (r##"\newboolean{bb}\setboolean{bb}{true}\ifthenelse{\boolean{bb}}{set}{unset} \whiledo{\value{enumi}<0}{x}"##, r##"set"##),
    (
        r##"\newtoggle{tg}\toggletrue{tg}\iftoggle{tg}{on}{off} \ifdef{\foo}{d}{u} \ifstrequal{a}{b}{eq}{ne} \ifblank{ }{blank}{full} \ifnumcomp{1}{<}{2}{lt}{ge} \ifstrempty{}{e}{f} \ifdefstring{\foo}{x}{y}{z} \ifnumodd{3}{o}{e}"##,
        r##"on u ne blank lt e z o"##,
    ),
    (
        r##"\forcsvlist{\textbf}{a,b,c} \renewcommand*{\do}[1]{(#1)}\docsvlist{x,y} \csdef{zz}{csd}\csuse{zz} \preto\foo{a}\appto\foo{b}\foo"##,
        r##"abc (x)(y) csd ab"##,
    ),
    (r##"\newcommand\tla{TLA\xspace}\tla is \tla, and \tla."##, r##"TLA is TLA, and TLA."##),
    (r##"\begin{multicols}{2}[Heading]col text\end{multicols}"##, r##"Heading col text"##),
    (
        r##"\begin{minipage}{5cm}mini\end{minipage} \begin{framed}framed\end{framed} \begin{adjustwidth}{1cm}{1cm}adj\end{adjustwidth}"##,
        r##"mini framed adj"##,
    ),
    (
        r##"\textlarger{big} {\larger x} \begin{spacing}{2}spaced\end{spacing} \begin{doublespace}ds\end{doublespace}"##,
        r##"big x spaced ds"##,
    ),
    (r##"\fbox{\begin{minipage}{3cm}inside\end{minipage}}"##, r##"inside"##),
    (r##"x\par\noindent y\newline z\linebreak[0] w\hfil\break v\\[2pt]u\\*t"##, r##"x y z wv u t"##),
    (
        r##"\begin{samepage}sp\end{samepage}\begin{sloppypar}sl\end{sloppypar}\begin{small}sm\end{small}\begin{em}em\end{em}\begin{bfseries}bb\end{bfseries}"##,
        r##"sp sl sm em bb"##,
    ),
    (r##"\begin{description}[style=nextline,font=\sffamily]\item[A] x\end{description}"##, r##"A x"##),
    (r##"\rotatebox{90}{rot} \scalebox{2}{sc} \resizebox{1cm}{!}{rs} \reflectbox{rf}"##, r##"rot sc rs rf"##),
    (r##"\foreach \x in {1,...,5}{\x,}"##, r##"1,2,3,4,5,"##),
    (r##"\foreach \x in {a,...,e}{\x;}"##, r##"a;b;c;d;e;"##),
    (r##"\foreach \x/\y in {1/a,2/b,3/c}{\x=\y }"##, r##"1=a2=b3=c"##),
    (r##"\foreach \n in {0,2,...,8}{(\n)}"##, r##"(0)(2)(4)(6)(8)"##),
    (r##"\multido{\i=1+2}{4}{\i,}"##, r##"1,3,5,7,"##),
    (r##"\newcounter{ct}\forloop{ct}{0}{\value{ct}<4}{\arabic{ct} }"##, r##"0 1 2 3"##),
    (r##"\newcommandx{\cx}[3][1=one,3=three]{#1 #2 #3}\cx{two}; \cx[a]{b}[c]"##, r##"one two three; a b c"##),
    (r##"\def\mylist{x,y,z}\foreach \e in \mylist{[\e]}"##, r##"[x][y][z]"##),
    (r##"\newenvironment{note}{\par\textbf{Note:} }{\par}\begin{note}Be careful.\end{note}"##, r##"Note: Be careful."##),
    (r##"\newcommand{\kw}[1]{\textbf{\texttt{#1}}}\kw{for} \kw{while}"##, r##"for while"##),
    (r##"\newcommand\pkg[1]{\textsf{#1}}\pkg{graphicx}"##, r##"graphicx"##),
    (r##"\setlength{\parindent}{0pt}\addtolength{\parskip}{3pt}text"##, r##"text"##),
    (r##"\newlength{\foo}\setlength{\foo}{\textwidth}\addtolength{\foo}{-2cm}text"##, r##"text"##),
    (r##"\setcounter{page}{3}\pagenumbering{roman}text"##, r##"text"##),
    (r##"\renewcommand{\theenumi}{\Alph{enumi}}\begin{enumerate}\item x\label{ia}\end{enumerate}\ref{ia}"##, r##"A. x A"##),
    (
        r##"\newcounter{problem}\newcommand{\problem}{\stepcounter{problem}\textbf{Problem \theproblem.} }\problem A \problem B"##,
        r##"Problem 1. A Problem 2. B"##,
    ),
    (r##"\newcounter{ex}[section]\renewcommand{\theex}{\thesection.\arabic{ex}}\refstepcounter{ex}\theex"##, r##"0.1"##),
    (r##"\newcommand{\todo}[1]{\textcolor{red}{TODO: #1}}\todo{fix}"##, r##"TODO: fix"##),
    (
        r##"\makeatletter\newcommand{\linkto}[1]{\@ifnextchar[{\@linkto{#1}}{\@linkto{#1}[none]}}\def\@linkto#1[#2]{#1 -> #2}\makeatother\linkto{a}; \linkto{b}[c]"##,
        r##"a -> none; b -> c"##,
    ),
    (r##"\newif\ifdraft\drafttrue\ifdraft Draft\else Final\fi"##, r##"Draft"##),
    (r##"\def\status{draft}\ifx\status\undefined none\else\status\fi"##, r##"draft"##),
    (r##"\newcommand{\ifnonempty}[2]{\ifx&#1&\else#2\fi}\ifnonempty{}{no}\ifnonempty{a}{yes}"##, r##"yes"##),
    (r##"\newcommand{\opt}[1][]{\ifx\relax#1\relax none\else #1\fi}\opt; \opt[x]"##, r##"none; x"##),
    (r##"\begin{flushleft}\bfseries Bold \normalfont normal\end{flushleft}"##, r##"Bold normal"##),
    (r##"{\sc Small} {\sl slanted} {\tt mono} {\rm roman} {\cal C}"##, r##"Small slanted mono roman C"##),
    (r##"\textbf{a \textit{b \texttt{c}}} \emph{x \emph{y} z}"##, r##"a b c x y z"##),
    (r##"line one\\line two\\[1ex]line three\newline four"##, r##"line one line two line three four"##),
    (r##"\noindent\hspace*{1cm}indented \hfill right \null"##, r##"indented right"##),
    (r##"\centerline{centred line}"##, r##"centred line"##),
    (
        r##"\begin{minipage}[t]{.5\textwidth}left\end{minipage}\hfill\begin{minipage}{.4\textwidth}right\end{minipage}"##,
        r##"left right"##,
    ),
    (r##"\mbox{}\\ text after"##, r##"text after"##),
    (r##"\LARGE Big \normalsize normal"##, r##"Big normal"##),
    (r##"\raisebox{1ex}{up} \lower1pt\hbox{down} \kern1em kerned"##, r##"up down kerned"##),
    (r##"\verb+a+ \verb!b! \verb"c""##, r##"a b c"##),
    (r##"1,000 3.14 50\% \$5 \#1 A\&B a\_b"##, r##"1,000 3.14 50% $5 #1 A&B a_b"##),
    (r##"Mr.~Smith et~al.\ done. A.\@ B"##, r##"Mr. Smith et al. done. A. B"##),
    (r##"\hyphenation{foo-bar}foobar \sloppy text \fussy"##, r##"foobar text"##),
    (r##"\index{x}\glossary{y}\nocite{*}visible"##, r##"visible"##),
    (r##"\protect\textbf{x} \string_ \relax\empty y"##, r##"x _ y"##),
    (r##"\begin{enumerate}[leftmargin=*]\item x\end{enumerate}"##, r##"1. x"##),
    (r##"\begin{enumerate}\item a\par b\item c\end{enumerate}"##, r##"1. a b 2. c"##),
    (r##"\begin{description}\item[A:] x \item[\textbf{B}] y\end{description}"##, r##"A: x B y"##),
    (r##"\newcommand{\mail}[1]{\href{mailto:#1}{\texttt{#1}}}\mail{a@b.c}"##, r##"a@b.c"##),
    (r##"\providecommand{\keywords}[1]{\textbf{Keywords:} #1}\keywords{a, b}"##, r##"Keywords: a, b"##),
    (r##"\let\origfoo\textbf\def\textbf#1{<\origfoo{#1}>}\textbf{x}"##, r##"<x>"##),
    (r##"\csname textit\endcsname{x}"##, r##"x"##),
    (r##"{\catcode`\|=\active \gdef|{bar}}x"##, r##"x"##),
    (r##"\parbox{3cm}{in\\box} \framebox[2cm]{f}"##, r##"in box f"##),
    (r##"\special{x}\write16{x}\message{x}\typeout{x}y"##, r##"y"##),
    (r##"\immediate\write18{x}z"##, r##"z"##),
    (r##"\hbox to 3cm{a\hfil b} \vbox{c} \vtop{d} \hbox spread 1pt{e}"##, r##"ab c d e"##),
    (r##"\settowidth{\foo}{x}\newsavebox{\bx}\sbox{\bx}{boxed}\usebox{\bx}"##, r##"boxed"##),
    (r##"\multiply\count0 by 2 x\count1=5 y"##, r##"xy"##),
    (r##"\thinspace x \negthinspace y\, z\!"##, r##"x y z"##),
    (r##"\newcommand\x{y}\renewcommand\x{z}\x"##, r##"z"##),
    (r##"\catcode`\_=12 a_b\catcode`\_=8"##, r##"a_b"##),
    (r##"\catcode`\|=13 \def|{bar}a|b\catcode`\|=12"##, r##"abarb"##),
    (r##"\begin{enumerate}[label=\arabic*.,ref=\Alph*]\item a\label{ic}\end{enumerate}\ref{ic}"##, r##"1. a A"##),
    (r##"\newcounter{step}\setcounter{step}{5}\ifnum\value{step}>3 big\else small\fi"##, r##"big"##),
    (r##"\newcommand{\pair}[2]{\ensuremath{(#1,#2)}}\pair{a}{b}"##, r##"(a,b)"##),
    (r##"\newcommand{\sep}{\unskip, }a \sep b"##, r##"a, b"##),
    (r##"\newcommand{\maybe}[1]{\ifx\\#1\\empty\else[#1]\fi}\maybe{}\maybe{x}"##, r##"empty[x]"##),
    (r##"\def\first#1,#2.{(#1)(#2)}\first a,b. c"##, r##"(a)(b) c"##),
    (r##"\def\gobbletwo#1#2{}\gobbletwo{a}{b}c"##, r##"c"##),
    (r##"\def\loopit#1{\ifx#1\stop\else<#1>\expandafter\loopit\fi}\loopit abc\stop"##, r##"<a><b><c>"##),
    (
        r##"\newcommand\repeated[2]{\ifnum#1>0 #2\expandafter\repeated\expandafter{\the\numexpr#1-1\relax}{#2}\fi}\repeated{3}{ab}"##,
        r##"ababab"##,
    ),
    (r##"\newtoks\tk \tk={some text}\the\tk"##, r##"some text"##),
    (r##"\dimen0=10pt \advance\dimen0 by 5pt \the\dimen0"##, r##"15.0pt"##),
    (r##"\ifdim\dimexpr 2pt*3\relax=6pt yes\else no\fi"##, r##"yes"##),
    (r##"\ifcase\numexpr 1+1\relax a\or b\or c\else d\fi"##, r##"c"##),
    (r##"\def\a{x}\def\b{\a}\edef\c{\b}\def\a{y}\b\c"##, r##"yx"##),
    (r##"\uppercase\expandafter{\romannumeral 14}"##, r##"XIV"##),
    (r##"\MakeUppercase{abc \emph{def} ß é}"##, r##"ABC DEF SS É"##),
    (r##"\newcommand{\initial}[1]{\expandafter\getfirst#1\relax}\def\getfirst#1#2\relax{#1}\initial{Word}"##, r##"W"##),
    (r##"\def\swap#1{\swapii#1;}\def\swapii#1 #2;{#2 #1}\swap{John Smith}"##, r##"Smith John"##),
    (r##"\begingroup\catcode`\#=12 \gdef\hash{#}\endgroup\hash"##, r##"#"##),
    (r##"\newcommand{\cmdwithstar}{\makeatletter}x\makeatother"##, r##"x"##),
];

/// The text of a paragraph within a group of its own.
fn printed(source: &str) -> String {
    let text = convert(format!("\\begingroup {source}\\par\\endgroup"), Format::Latex, Format::Text, &[]).into_text().unwrap();
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

#[test]
fn commands_come_to_what_the_engine_prints() {
    let wrong: Vec<String> = PRINTED
        .iter()
        .chain(VOCABULARY)
        .map(|(source, expected)| (source, printed(source), expected))
        .filter(|(_, printed, expected)| printed != *expected)
        .map(|(source, printed, expected)| format!("{source}\n  gives {printed}\n  for   {expected}"))
        .collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn all_of_them_in_one_document_do_not_disturb_each_other() {
    let whole: String = PRINTED.iter().map(|(source, _)| format!("\\begingroup X: {source}\\par\\endgroup\n\n")).collect();
    let text = convert(&whole, Format::Latex, Format::Text, &[]).into_text().unwrap();
    let words = |text: &str| text.split_whitespace().collect::<Vec<_>>().join(" ");
    let expected: Vec<String> = PRINTED.iter().map(|(_, expected)| format!("X: {expected}")).collect();
    assert_eq!(words(&text), expected.join(" "));
}

#[test]
fn columns_say_what_stands_around_their_cells() {
    let source = r"\newcolumntype{M}{>{$}c<{$}}\newcolumntype{N}[1]{>{\bfseries}p{#1}}
\begin{tabular}{r@{.}l M N{2cm} l<{\,\%} l!{:}r}
\multicolumn{2}{c}{Height} & \multicolumn{1}{c}{Sign} & Name & Part & a & b\\\hline
3 & 14 & \alpha & Orra & 12 & c & d\\
22&7 & x^2 & Fen & 7 & \multicolumn{2}{r}{both}\\
\end{tabular}";
    let html = convert(source, Format::Latex, Format::Html, &["html.compact=true", "html.math=tex"]).into_text().unwrap();
    let text = html.split('\n').map(str::trim).collect::<String>();
    let cells = |row: &str| -> Vec<String> {
        let row = text.split("<tr>").find(|found| found.contains(row)).unwrap();
        let plain = |cell: &str| {
            let behind = cell.split_once('>').unwrap().1;
            behind.replace("<strong>", "*").replace("</strong>", "*").replace("\u{202F}", " ").replace("&#8239;", " ")
        };
        row.split("</td>")
            .flat_map(|cells| cells.split("</th>"))
            .filter(|cell| cell.contains("<td") || cell.contains("<th>") || cell.contains("<th "))
            .map(plain)
            .collect()
    };
    let math = |source: &str| format!("<code class=\"language-tex\">{source}</code>");
    assert_eq!(cells("Height"), ["Height", "Sign", "*Name*", "Part %", "a:", "b"]);
    assert_eq!(cells("Orra"), ["3.14".into(), math("\\alpha"), "*Orra*".into(), "12 %".into(), "c:".into(), "d".to_owned()]);
    assert_eq!(cells("Fen"), ["22.7".into(), math("x^2"), "*Fen*".into(), "7 %".into(), "both".to_owned()]);
}

#[test]
fn what_never_ends_ends_and_says_so() {
    for endless in [
        r"\loop\iftrue x\repeat",
        r"\whiledo{1=1}{x}",
        r"\makeatletter\@whilenum 1=1\do{x}",
        r"\def\a{\a\a}\a",
        r"\def\a{x\expandafter\a\csname b\endcsname}\a",
        r"\newcommand\a[1]{\a{#1#1}}\a{x}",
        r"\def\x{y}\loop\edef\x{\x\x}\iftrue\repeat",
        r"\foreach \a in {1,...,9999}{\foreach \b in {1,...,9999}{x}}",
        r"\multido{\i=1+1}{9999}{\multido{\j=1+1}{9999}{x}}",
    ] {
        let doc = latex::read(format!("{endless} end\n\n\\section{{Behind}}").as_bytes(), &latex::Settings::default());
        assert!(doc.findings.iter().any(|finding| finding.code == "latex.too-much"), "{endless}: {:?}", doc.findings);
        let whole = doc.plain_text(doc.root());
        assert!(whole.contains("Behind"), "{endless}");
    }
}

#[test]
fn what_asks_for_itself_within_itself_does_not_go_deep() {
    for repeated in [
        r"\number",
        r"\the",
        r"\romannumeral",
        r"\ifnum",
        r"\ifdim",
        r"\unless",
        r"\char",
        r"\count",
        r"\advance",
        r"\numexpr(",
        r"\dimexpr ",
        r"\expandafter",
        r"\csname",
        r"\uppercase",
        r"\string",
        r"\if",
        r"\ifx",
        r"\ifthenelse{\(",
        r"\value{",
        r"\afterassignment",
        r"\ifcase",
        r"\edef\a{",
        r"\NewDocumentCommand\a{>{\TrimSpaces}",
        r"\newcolumntype{a}{",
        r"\MakeUppercase{",
        r"\global",
        r"\catcode`",
        r"\the\numexpr-",
        r"\foreach\x in{",
        r"\loop ",
        r"\futurelet\a",
        r"\let\a=",
        r"\crefrange{a}{b",
    ] {
        let source = format!("{}\n\nBehind", repeated.repeat(3_000));
        let doc = latex::read(source.as_bytes(), &latex::Settings::default());
        drop(doc);
    }
}

#[test]
fn commands_take_linear_time_whatever_they_come_to() {
    type Shape = (&'static str, fn(usize) -> String);
    let shapes: [Shape; 18] = [
        ("settings", |n| "{\\count1=2 \\global\\count1=3 ".repeat(n / 28)),
        ("definitions in groups", |n| "{\\def\\a{b}".repeat(n / 10) + &"}".repeat(n / 10)),
        ("definitions for all groups", |n| "\\begingroup".to_owned() + &"\\def\\a{b}\\gdef\\a{c}".repeat(n / 19)),
        ("categories", |n| "\\catcode`\\|=13 |".repeat(n / 17)),
        ("characters of other categories", |n| "\\catcode`\\.=12 ".to_owned() + &"a.".repeat(n / 2)),
        ("sums", |n| "\\ifnum\\numexpr ".to_owned() + &"1+".repeat(n / 2)),
        ("lists of values", |n| format!("\\foreach \\x in {{{}}}{{\\x}}", "ab,".repeat(n / 3))),
        ("written out", |n| format!("\\edef\\a{{{}}}", "\\number 1 ".repeat(n / 10))),
        ("capitals", |n| format!("\\MakeUppercase{{{}}}", "ab ".repeat(n / 3))),
        ("columns", |n| format!("\\begin{{tabular}}{{{}}}a", "*{9}{l}".repeat(n / 7))),
        ("joined cells", |n| "\\begin{tabular}{r@{.}l}".to_owned() + &"1&2\\\\".repeat(n / 5)),
        ("cells with surroundings", |n| "\\begin{tabular}{>{$}c<{$}}".to_owned() + &"x\\\\".repeat(n / 3)),
        ("tables in such cells", |n| "\\begin{tabular}{>{\\bfseries}l}x ".repeat(n / 32)),
        ("references to several", |n| format!("\\section{{A}}\\label{{a}}{}", "\\cref{a,b}".repeat(n / 10))),
        ("one reference to many", |n| format!("\\cref{{{}}}", "a,".repeat(n / 2))),
        ("groups of equations", |n| "\\begin{subequations}\\begin{align}a".repeat(n / 34)),
        ("bodies of environments", |n| "\\NewDocumentEnvironment{e}{+b}{#1}{}".to_owned() + &"\\begin{e}x".repeat(n / 10)),
        ("what stands before others", |n| "\\def\\a#1.{(#1)}".to_owned() + &"\\a b ".repeat(n / 5)),
    ];
    let run = |source: &[u8]| latex::read(source, &latex::Settings::default());
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), run).err()).collect();
    assert_eq!(failed, [""; 0]);
}
