//! Examples of languages with their glosses, outlines, rows of files of data, pieces of words and numbers in words, as their
//! packages print them.

use super::Printed;

pub(super) const PRINTED: &[Printed] = &[
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{linguex}",
        lines: &[
            (
                r"\ex. This is a first example.

Text between.

\ex. \label{two} Another one.

See \ref{two} and \Next and \Last.",
                "(1) This is a first example. Text between. (2) Another one. See (2) and (3) and (2).",
            ),
            (
                r"\ex. \a. First part
\b. Second part
\b. *Third part

After the list.",
                "(1) a. First part b. Second part c. *Third part After the list.",
            ),
            (
                r"\exg. Der Leser liest \\
the reader reads \\
`The reader reads'

After.",
                "(1) Der Leser liest the reader reads ‘The reader reads’ After.",
            ),
            (
                r"\ex. \ag. Wir messen \\
we measure \\
`We measure'
\bg. Sie misst \\
she measures \\

After.",
                "(1) a. Wir messen we measure ‘We measure’ b. Sie misst she measures After.",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{covington}",
        lines: &[
            (r"\begin{example}\label{a} One example. \end{example} See (\ref{a}).", "(1) One example. See (1)."),
            (r"\begin{examples}\item First. \item Second.\end{examples} Text.", "(1) First. (2) Second. Text."),
            (
                r"\gll Der Leser liest.
the reader reads
\glt `The reader reads.'
\glend",
                "Der Leser liest. the reader reads ‘The reader reads.’",
            ),
            (
                r"\begin{example}\digloss{Der Leser liest}{the reader reads}{The reader reads}\end{example}",
                "(1) Der Leser liest the reader reads ‘The reader reads’",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{expex}",
        lines: &[
            (r"\ex A first example. \xe Text.", "(1) A first example. Text."),
            (r"\pex A list. \a First part. \a Second part. \xe After.", "(1) A list. a. First part. b. Second part. After."),
            (
                r"\ex \begingl \gla Der Leser liest // \glb the reader reads // \glft `The reader reads' // \endgl \xe",
                "(1) Der Leser liest the reader reads ‘The reader reads’",
            ),
            (r"\ex<one> Labelled. \xe See (\getref{one}) and \nextx.", "(1) Labelled. See (1) and 2."),
            (r"\pex[aboveexskip=1pt] \a<x> First \a \ljudge{*} Second \xe", "(1) a. First b. * Second"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{gb4e}",
        lines: &[
            (
                r"\begin{exe}\ex One \ex\label{k} \begin{xlist}\ex a part \ex[*]{another}\end{xlist}\end{exe} See \ref{k}.",
                "(1) One (2) a. a part b. * another See 2.",
            ),
            (
                r"\begin{exe}\ex \gll Der Leser liest\\
the reader reads\\
\trans `The reader reads'
\end{exe}",
                "(1) Der Leser liest the reader reads ‘The reader reads’",
            ),
            (
                r"\ea One example \z Text \ea\label{q}\ea First \ex Second \z\z See (\ref{q}).",
                "(1) One example Text (2) a. First b. Second See (2).",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{outlines}",
        lines: &[
            (r"\begin{outline}\1 One \2 Two \3 Three \1 Four\end{outline}", "- One - Two - Three - Four"),
            (
                r"\begin{outline}[enumerate]\1 One \2 Two \2 Three \1 Four \0 Text between \1 Five\end{outline}",
                "1. One a. Two b. Three 2. Four Text between 1. Five",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{xstring}",
        lines: &[
            (
                r"\StrLeft{Harbour}{4} \StrRight{Harbour}{3} \StrMid{Harbour}{2}{4} \StrLen{Harbour} \StrSubstitute{Harbour}{r}{R} \StrBefore{a-b}{-} \StrBehind{a-b}{-}",
                "Harb our arb 7 HaRbouR a b",
            ),
            (
                r"\IfStrEq{a}{a}{same}{other} \IfStrEq{a}{b}{same}{other} \IfSubStr{Harbour}{bou}{in}{out} \IfBeginWith{Harbour}{Ha}{yes}{no} \IfEndWith{Harbour}{x}{yes}{no} \IfInteger{12}{int}{none} \IfDecimal{1.5}{dec}{none}",
                "same other in yes no int dec",
            ),
            (
                r"\StrLeft{Harbour}{4}[\x] Result \x. \StrDel{banana}{a} \StrCount{banana}{a} \StrPosition{banana}{n} \StrGobbleLeft{Harbour}{3} \StrGobbleRight{Harbour}{3} \StrChar{Harbour}{2}",
                "Result Harb. bnn 3 3 bour Harb a",
            ),
            (r"\IfStrEqCase{b}{{a}{First}{b}{Second}}[None] \IfEq{1.0}{1}{eq}{ne}", "Second eq"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{fmtcount}",
        lines: &[
            (
                r"\ordinalnum{1} \ordinalnum{2} \ordinalnum{13} \numberstringnum{21} \Numberstringnum{7} \ordinalstringnum{3} \Ordinalstringnum{12}",
                "1st 2nd 13th twenty-one Seven third Twelfth",
            ),
            (
                r"\newcounter{k}\setcounter{k}{5}\ordinal{k} \numberstring{k} \Ordinalstring{k} \NUMBERstringnum{4} \binarynum{5} \hexadecimalnum{255} \octalnum{8}",
                "5th five Fifth FOUR 101 ff 10",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{csvsimple}
\begin{filecontents*}[overwrite]{t.csv}
name,height,day
Pask,3.2,Monday
Quill,2.1,Tuesday
\end{filecontents*}",
        lines: &[
            (
                r"\csvautotabular{t.csv}",
                "+-------+--------+---------+ | name | height | day | +=======+========+=========+ | Pask | 3.2 | Monday | +-------+--------+---------+ | Quill | 2.1 | Tuesday | +-------+--------+---------+",
            ),
            (
                r"\csvreader[tabular=|l|r|,table head=\hline Name & Height\\\hline,late after line=\\,table foot=\hline]{t.csv}{name=\name,height=\h}{\name & \h}",
                "+-------+--------+ | Name | Height | +=======+========+ | Pask | 3.2 | +-------+--------+ | Quill | 2.1 | +-------+--------+",
            ),
            (r"\csvreader[head to column names]{t.csv}{}{\name\ has \height. }", "Pask has 3.2. Quill has 2.1."),
            (r"\csvreader{t.csv}{1=\a,3=\c}{\thecsvrow: \a\ on \c; }", "1: Pask on Monday; 2: Quill on Tuesday;"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{datatool}
\begin{filecontents*}[overwrite]{t.csv}
name,height
Pask,3.2
Quill,2.1
\end{filecontents*}",
        lines: &[
            (
                r"\DTLloaddb{d}{t.csv}\DTLdisplaydb{d}",
                "+-------+--------+ | name | height | +=======+========+ | Pask | 3.2 | +-------+--------+ | Quill | 2.1 | +-------+--------+",
            ),
            (
                r"\DTLloaddb{d}{t.csv}\begin{tabular}{ll}Name & Height\DTLforeach{d}{\n=name,\h=height}{\\ \n & \h}\end{tabular}",
                "+-------+--------+ | Name | Height | +-------+--------+ | Pask | 3.2 | +-------+--------+ | Quill | 2.1 | +-------+--------+",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{pgfplotstable}\pgfplotsset{compat=1.18}
\begin{filecontents*}[overwrite]{t.dat}
name height
Pask 3
Quill 2
\end{filecontents*}",
        lines: &[
            (
                r"\pgfplotstabletypeset[columns/name/.style={string type}]{t.dat}",
                "+-------+--------+ | name | height | +=======+========+ | Pask | 3 | +-------+--------+ | Quill | 2 | +-------+--------+",
            ),
            (
                r"\pgfplotstabletypeset[col sep=comma,columns={a,b},columns/a/.style={column name=First}]{a,b,c
1,2,3
4,5,6
}",
                "+-------+---+ | First | b | +=======+===+ | 1 | 2 | +-------+---+ | 4 | 5 | +-------+---+",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{scrartcl}",
        preamble: r"\usepackage[clausemark=forceboth,juratotoc]{scrjura}",
        lines: &[(
            r"\begin{contract}\Clause{title={Name and place}} The first paragraph.

The second paragraph.
\Clause{title={Purpose}} Text here.\label{p}\end{contract}",
            "§ 1 Name and place ================== The first paragraph. The second paragraph. § 2 Purpose =========== Text here.",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r#"\usepackage{csvsimple,booktabs,longtable}
\begin{filecontents*}[overwrite]{t.csv}
name,height,day
Pask,3.2,Monday
"Quill",{2,1},$x^2$
\end{filecontents*}"#,
        lines: &[
            (
                r"\csvautobooktabular{t.csv} \csvautolongtable{t.csv}",
                r#"+---------+--------+--------+ | name | height | day | +=========+========+========+ | Pask | 3.2 | Monday | +---------+--------+--------+ | "Quill" | 2,1 | x² | +---------+--------+--------+ +---------+--------+--------+ | name | height | day | +=========+========+========+ | Pask | 3.2 | Monday | +---------+--------+--------+ | "Quill" | 2,1 | x² | +---------+--------+--------+"#,
            ),
            (
                r"\csvreader[tabular=lll,table head=\toprule \textbf{Name} & \textbf{Height} & \textbf{Day} \\ \midrule,table foot=\bottomrule,head to column names]{t.csv}{}{\name & \height & \day}",
                r#"+---------+--------+--------+ | Name | Height | Day | +=========+========+========+ | Pask | 3.2 | Monday | +---------+--------+--------+ | "Quill" | 2,1 | x² | +---------+--------+--------+"#,
            ),
            (
                r"\csvreader[longtable=ll,table head={\hline a & b\\ \hline \endhead},late after line=\\\hline]{t.csv}{name=\name,day=\day}{\name & \day}",
                r#"+---------+--------+ | a | b | +=========+========+ | Pask | Monday | +---------+--------+ | "Quill" | x² | +---------+--------+"#,
            ),
            (
                r"\begin{itemize}\csvreader[head to column names]{t.csv}{}{\item \name: \day}\end{itemize}",
                r#"- Pask: Monday - "Quill": x²"#,
            ),
            (
                r"\begin{tabular}{ll}\toprule A & B\\\midrule\csvreader[late after line=\\]{t.csv}{name=\n,height=\h}{\n & \h}\bottomrule\end{tabular}",
                r#"+---------+-----+ | A | B | +=========+=====+ | Pask | 3.2 | +---------+-----+ | "Quill" | 2,1 | +---------+-----+"#,
            ),
            (r"\csvreader[no head]{t.csv}{}{\csvcoli-\csvcoliii; }", r#"name-day; Pask-Monday; "Quill"-x²;"#),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{xstring}\newcommand\w{Harbour}",
        lines: &[(
            r"\StrLeft{\w}{2} \IfStrEq{\w}{Harbour}{A}{B} \StrSubstitute[1]{a.b.c}{.}{-} \StrCut{key=value}{=}\k\v \k: \v \StrBetween{a(b)c}{(}{)} \StrBefore[2]{a-b-c}{-} \StrBehind[2]{a-b-c}{-} \IfEqCase{3}{{1}{one}{3}{three}}",
            "Ha A a-b.c key: valueb a-b c three",
        )],
    },
];
