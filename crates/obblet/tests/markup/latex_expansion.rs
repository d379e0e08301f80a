//! What commands come to: definitions, arguments, numbers, conditionals, loops. What is expected is what a TeX engine prints.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::Format;
use support::convert::convert;

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
    (r##"\meaning\qqb"##, r##"macro:->abcdef"##),
    (
        r##"\uppercase{shout} \lowercase{WHISPER} \MakeUppercase{big} \MakeLowercase{SMALL} \MakeTitlecase{title}"##,
        r##"SHOUT whisper BIG small Title"##,
    ),
    (r##"\romannumeral 14 \number 012"##, r##"xiv12"##),
    (r##"\char65 \char"42 \char`C \symbol{68}"##, r##"A B C D"##),
    (r##"\def\qqc{abc}\expandafter\uppercase\expandafter{\qqc}"##, r##"ABC"##),
    (r##"\the\dimexpr 1pt+2pt\relax"##, r##"3.0pt"##),
    (r##"\newlength\mylen \setlength\mylen{3pt}\addtolength\mylen{2pt}\the\mylen"##, r##"5.0pt"##),
    (r##"\def\qqn{x}\edef\qqo{\qqn\noexpand\qqn}\def\qqn{y}\qqo"##, r##"xy"##),
    (r##"\def\qqp{start}\expandafter\def\expandafter\qqp\expandafter{\qqp-end}\qqp"##, r##"start-end"##),
    (r##"\def\qqq{<\ifx\nextt a yes\else no\fi>}\futurelet\nextt\qqq after"##, r##"< yes>after"##),
    (r##"\ignorespaces   text \unskip; x\space y\ z\relax w"##, r##"text ; x y zw"##),
    (
        r##"\begin{comment}
hidden
\end{comment}
visible"##,
        r##"visible"##,
    ),
    (r##"\iffalse hidden \fi visible"##, r##"visible"##),
    (r##"\afterassignment\qqr \def\qqr{assigned}\mycnt=5 done"##, r##"assigneddone"##),
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

/// The text of a paragraph within a group of its own.
fn printed(source: &str) -> String {
    let text = convert(&format!("\\begingroup {source}\\par\\endgroup"), Format::Latex, Format::Text, &[]).into_text().unwrap();
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

#[test]
fn commands_come_to_what_the_engine_prints() {
    for (source, expected) in PRINTED {
        assert_eq!(printed(source), *expected, "{source}");
    }
}

#[test]
fn all_of_them_in_one_document_do_not_disturb_each_other() {
    let whole: String = PRINTED.iter().map(|(source, _)| format!("\\begingroup X: {source}\\par\\endgroup\n\n")).collect();
    let text = convert(&whole, Format::Latex, Format::Text, &[]).into_text().unwrap();
    let words = |text: &str| text.split_whitespace().collect::<Vec<_>>().join(" ");
    let expected: Vec<String> = PRINTED.iter().map(|(_, expected)| format!("X: {expected}")).collect();
    assert_eq!(words(&text), expected.join(" "));
}
