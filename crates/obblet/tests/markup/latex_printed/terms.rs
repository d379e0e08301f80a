//! Terms and acronyms, as the packages glossaries, glossaries-extra, acronym and acro print them, but for numbers of pages.

use super::Printed;
use crate::support::linear::grows_linearly;
use obblet::formats::latex;

pub(super) const PRINTED: &[Printed] = &[
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\newacronym{hw}{HW}{high water}
\newacronym[longplural={tables of tides},shortplural={ToTs}]{tt}{ToT}{table of tides}
\newacronym[description={a gauge \emph{of} tides}]{tg}{TG}{tide gauge}
\newglossaryentry{neap}{name={neap tide},plural={neaps},description={the smallest range},symbol={$N$},first={neap tide (from \emph{nep})}}
\newglossaryentry{ebb}{name=ebb,description={falling},text={ebbing},firstplural={ebbs all}}",
        lines: &[
            (r"\gls{hw} \gls{hw} \glspl{hw} \Gls{hw} \Glspl{hw} \GLS{hw}", "high water (HW) HW HWs HW HWs HW"),
            (r"\glspl{hw} \gls{hw}", "high waters (HWs) HW"),
            (r"\Gls{hw} \acrshort{hw}", "High water (HW) HW"),
            (r"\GLS{hw} and \GLSpl{hw}", "HIGH WATER (HW) and HWS"),
            (
                r"\Glspl{hw} and \acrfull{hw} \acrlong{hw} \Acrlong{hw} \Acrfull{hw} \ACRlong{hw}",
                "High waters (HWs) and high water (HW) high water High water High water (HW) HIGH WATER",
            ),
            (
                r"\glspl{tt} \glspl{tt} \acrshortpl{tt} \acrlongpl{tt} \acrfullpl{tt}",
                "tables of tides (ToTs) ToTs ToTs tables of tides tables of tides (ToTs)",
            ),
            (
                r"\gls{tg} \glsentrydesc{tg} \glsdesc{tg} \glsentryname{tg} \glsname{tg}",
                "tide gauge (TG) a gauge of tides a gauge of tides TG TG",
            ),
            (r"\gls{hw}['s] and \gls{hw}['s] and \glspl{hw}[' s]", "high water’s (HW) and HW’s and HWs’ s"),
            (
                r"\gls{neap} \gls{neap} \glspl{neap} \glssymbol{neap} \glsentrydesc{neap}",
                "neap tide (from nep) neap tide neaps N the smallest range",
            ),
            (r"\glspl{neap} \Glspl{neap} \GLS{neap}", "neap tide (from nep)s Neaps NEAP TIDE"),
            (
                r"\glsfirst{neap} \glstext{neap} \glsplural{neap} \glsname{neap} \glsfirstplural{neap}",
                "neap tide (from nep) neap tide neaps neap tide neap tide (from nep)s",
            ),
            (r"\gls{ebb} \gls{ebb} \glspl{ebb} \glsname{ebb}", "ebbing ebbing ebbings ebb"),
            (
                r"\glspl{ebb} \glsentryfirstplural{ebb} \glsentryplural{ebb} \Glsentrytext{ebb} \Glsentryname{ebb}",
                "ebbs all ebbs all ebbings Ebbing Ebb",
            ),
            (
                r"\glsentryshort{hw} \glsentrylong{hw} \glsentryshortpl{hw} \glsentrylongpl{hw} \glsentryfull{hw} \glsentryfullpl{hw} \Glsentrylong{hw} \Glsentryfull{hw}",
                "HW high water HWs high waters high water (HW) high waters (HWs) High water High water (HW)",
            ),
            (r"\glsentryshort{hw} [note] and \glsentrylong{hw} [n]", "HW [note] and high water [n]"),
            (r"\ifglsused{hw}{an}{a} \gls{hw} \ifglsused{hw}{an}{a}", "a high water (HW) an"),
            (r"\gls{hw}\glsreset{hw} \gls{hw} \glsunset{tt}\gls{tt}", "high water (HW) high water (HW) ToT"),
            (r"\gls{hw} \glsresetall \gls{hw}", "high water (HW) high water (HW)"),
            (r"\glsunsetall \gls{hw} \gls{tt}", "HW ToT"),
            (r"\glslink{hw}{the \emph{high} water} \gls{hw}", "the high water high water (HW)"),
            (r"\glsdisp{hw}{the water} \gls{hw}", "the water HW"),
            (r"\gls*{hw} \gls[format=hyperbf]{hw} \gls+{hw}", "high water (HW) HW HW"),
            (
                r"\ifglshaslong{hw}{yes}{no} \ifglshassymbol{neap}{yes}{no} \ifglsentryexists{no}{yes}{no} \ifglshasdesc{ebb}{yes}{no}",
                "yes yes no yes",
            ),
            (r"\glsentrysymbol{neap} \Glsdesc{neap}", "N The smallest range"),
            (r"\glsadd{hw}\gls{hw}", "high water (HW)"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\setacronymstyle{short-long}\newacronym{hw}{HW}{high water}",
        lines: &[
            (r"\gls{hw} \gls{hw} \acrfull{hw}", "HW (high water) HW HW (high water)"),
            (r"\glspl{hw} \Gls{hw}", "HWs (high waters) HW"),
            (r"\Gls{hw}['s]", "HW’s (high water)"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\setacronymstyle{footnote}\newacronym{hw}{HW}{high water}",
        lines: &[
            (r"The \gls{hw} and \gls{hw}.", "The HW (note 1) and HW. (note 1) high water"),
            (r"\acrfull{hw} \acrlong{hw}", "HW (high water) high water"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\setacronymstyle{long-sc-short}\newacronym{hw}{hw}{high water}",
        lines: &[(r"\gls{hw} \gls{hw} \glspl{hw} \Gls{hw}", "high water (hw) hw hws Hw")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\setacronymstyle{long-sm-short}\newacronym{hw}{HW}{high water}",
        lines: &[(r"\gls{hw} \gls{hw}", "high water (HW) HW")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\setacronymstyle{dua}\newacronym{hw}{HW}{high water}",
        lines: &[(r"\gls{hw} \gls{hw} \acrshort{hw}", "high water high water HW")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\setacronymstyle{long-short-desc}\newacronym[description={water that is high}]{hw}{HW}{high water}",
        lines: &[(
            r"\gls{hw} \gls{hw} \glsentryname{hw} \glsentrydesc{hw}",
            "high water (HW) HW high water (HW) water that is high",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\setacronymstyle{short-long-desc}\newacronym[description={water that is high}]{hw}{HW}{high water}",
        lines: &[(
            r"\gls{hw} \gls{hw} \glsentryname{hw} \glsentrydesc{hw}",
            "HW (high water) HW high water (HW) water that is high",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[acronym,nonumberlist,nopostdot]{glossaries}
\makenoidxglossaries
\newacronym{hw}{HW}{high water}
\newacronym{ax}{AX}{an axe}
\newglossaryentry{neap}{name={neap tide},description={the smallest range of \gls{hw}}}
\newglossaryentry{ebb}{name=ebb,description={falling}}",
        lines: &[
            (
                r"\gls{neap} \gls{hw} \gls{ebb} \printnoidxglossaries",
                "neap tide high water (HW) ebb Glossary ======== ebb falling neap tide the smallest range of HW Acronyms ======== HW high water",
            ),
            (
                r"\gls{neap} \gls{hw} \printnoidxglossary[type=\acronymtype]",
                "neap tide high water (HW) Acronyms ======== HW high water",
            ),
            (
                r"\gls{neap} \gls{hw} \printnoidxglossary[type=acronym,title={Short forms}] \printnoidxglossary",
                "neap tide high water (HW) Short forms =========== HW high water Glossary ======== neap tide the smallest range of HW",
            ),
            (
                r"\gls{neap} \gls{ebb} \printnoidxglossary[title=Terms]",
                "neap tide ebb Terms ===== ebb falling neap tide the smallest range of high water (HW)",
            ),
            (
                r"\glsaddall \printnoidxglossaries",
                "Glossary ======== ebb falling neap tide the smallest range of high water (HW) Acronyms ======== AX an axe HW high water",
            ),
            (r"\glsadd{ebb} \printnoidxglossaries", "Glossary ======== ebb falling"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[symbols,nonumberlist,nopostdot]{glossaries-extra}
\makenoidxglossaries
\newabbreviation{hw}{HW}{high water}
\newglossaryentry{neap}{name={neap tide},description={the smallest range}}",
        lines: &[
            (
                r"\gls{hw} \gls{hw} \glsxtrshort{hw} \glsxtrlong{hw} \glsxtrfull{hw} \Gls{hw} \glspl{hw}",
                "high water (HW) HW HW high water high water (HW) HW HWs",
            ),
            (
                r"\glsfmtshort{hw} \glsfmtlong{hw} \glsfmttext{hw} \glsfmtfull{hw} \glsentryshort{hw}",
                "HW high water HW high water (HW) HW",
            ),
            (r"\gls{neap} \printunsrtglossary", "neap tide Glossary ======== HW high water neap tide the smallest range"),
            (
                r"\glsxtrshortpl{hw} \glsxtrlongpl{hw} \glsxtrfullpl{hw} \Glsxtrlong{hw}",
                "HWs high waters high waters (HWs) High water",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries-extra}
\setabbreviationstyle{short-long}\newabbreviation{hw}{HW}{high water}\newacronym{lw}{LW}{low water}",
        lines: &[(r"\gls{hw} \gls{hw} \gls{lw} \gls{lw}", "HW (high water) HW LW LW")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries-extra}
\setabbreviationstyle{long-noshort}\newabbreviation{hw}{HW}{high water}",
        lines: &[(r"\gls{hw} \gls{hw}", "high water high water")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries-extra}
\setabbreviationstyle{short-footnote}\newabbreviation{hw}{HW}{high water}",
        lines: &[(r"\gls{hw} \gls{hw}", "HW (note 1) HW (note 1) high water")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries-extra}
\setabbreviationstyle[acronym]{long-short}\newacronym{hw}{HW}{high water}",
        lines: &[(r"\gls{hw} \gls{hw}", "high water (HW) HW")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{acronym}",
        lines: &[
            (
                r"\acrodef{HW}{high water}\acrodef{TG}[T.G.]{tide gauge} \ac{HW} \ac{HW} \acp{HW} \acs{HW} \acl{HW} \acf{HW} \acfp{HW} \acsp{HW} \aclp{HW}",
                "high water (HW) HW HWs HW high water high water (HW) high waters (HWs) HWs high waters",
            ),
            (
                r"\acrodef{HW}{high water} \acp{HW} \acp{HW} \Ac{HW} \Acl{HW} \Acf{HW} \Acp{HW}",
                "high waters (HWs) HWs HW High water High water (HW) HWs",
            ),
            (r"\acrodef{HW}{high water} \Ac{HW} \Ac{HW}", "High water (HW) HW"),
            (r"\acrodef{HW}{high water} \ac*{HW} \acused{HW} \ac{HW} \acresetall \ac{HW}", "high water (HW) HW high water (HW)"),
            (r"\acrodef{HW}{high water} \acfi{HW} \acsu{HW} \ac{HW}", "high water (HW) HW HW"),
            (r"\acrodef{HW}{high water} \aclu{HW} \ac{HW}", "high water HW"),
            (
                r"\acrodef{TT}{table of tides}\acrodefplural{TT}[ToTs]{tables of tides} \acp{TT} \acp{TT} \aclp{TT}",
                "tables of tides (ToTs) ToTs tables of tides",
            ),
            (r"\acrodef{HW}{high water} \iac{HW} and \iac{HW}", "a high water (HW) and a HW"),
            (
                r"\begin{acronym}\acro{HW}{high water}\acroplural{HW}[HWs]{high waters}\acro{TG}[T.G.]{tide gauge}\acroextra{ (old)}\end{acronym} \ac{HW} \acp{HW} \ac{TG}",
                "HW high water T.G. tide gauge (old) high water (HW) HWs tide gauge (T.G.)",
            ),
            (r"\newacro{HW}{high water} \ac{HW} \ac{HW}", "high water (HW) HW"),
            (r"\acrodef{HW}[\textsc{hw}]{high water} \ac{HW} \ac{HW}", "high water (hw) hw"),
            (r"\acrodef{H}[$H$]{height $h$ of water} \ac{H} \ac{H}", "height h of water (H) H"),
            (
                r"\begin{acronym}[TDMA]\acro{CDMA}{Code Division Multiple Access \acroextra{\\ see more}}\acro{GSM}{Global \emph{System}}\end{acronym}\ac{GSM} \ac{CDMA}",
                "CDMA Code Division Multiple Access see more GSM Global System Global System (GSM) Code Division Multiple Access (CDMA)",
            ),
            (r"The \ac{A} and \ac{A}.\begin{acronym}\acro{A}{aaa bbb}\end{acronym}", "The aaa bbb (A) and A. A aaa bbb"),
            (r"\acrodef{etacar}[$\eta$ Car]{Eta Carinae}\ac{etacar} \ac{etacar}", "Eta Carinae (η Car) η Car"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[footnote]{acronym}",
        lines: &[(r"\acrodef{HW}{high water} The \ac{HW} and \ac{HW}.", "The HW (note 1) and HW. (note 1) high water")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{acro}
\DeclareAcronym{hw}{short=HW,long=high water}
\DeclareAcronym{tt}{short=ToT,long=table of tides,long-plural-form=tables of tides,short-plural=s}
\DeclareAcronym{ui}{short=UI,long=user interface,short-indefinite=a,extra={an extra},foreign=Bedienung}",
        lines: &[
            (
                r"\ac{hw} \ac{hw} \acs{hw} \acl{hw} \acf{hw} \acp{hw} \Ac{hw} \Acl{hw}",
                "high water (HW) HW HW high water high water (HW) HWs HW High water",
            ),
            (r"\acp{tt} \acp{tt} \aclp{tt} \acsp{tt}", "tables of tides (ToTs) ToTs tables of tides ToTs"),
            (r"\ac{ui} \iac{ui} \ac{ui}", "user interface (Bedienung, UI) a UI UI"),
            (r"\iac{hw} \iac{hw} \acreset{hw} \ac{hw}", "a high water (HW) a HW high water (HW)"),
            (r"\ac{hw} \printacronyms", "high water (HW) Acronyms ======== HW high water"),
            (r"\Ac{hw} \acuse{tt} \ac{tt} \acresetall \ac{tt}", "High water (HW) ToT table of tides (ToT)"),
            (r"\acsetup{first-style=short-long} \ac{hw}", "HW (high water)"),
            (r"\ac*{hw} \ac{hw}", "high water (HW) high water (HW)"),
            (
                r"\printacronyms[name=Short forms,heading=section*] \ac{hw} \ac{tt}",
                "Short forms =========== HW high water ToT table of tides high water (HW) table of tides (ToT)",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{nomencl}\makenomenclature",
        lines: &[(r"a\nomenclature{$h$}{height}b", "ab")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[nonumberlist,nopostdot]{glossaries}
\makenoidxglossaries
\newglossaryentry{fish}{name={Fish},description={swims},sort=b}
\newglossaryentry{bird}{name={Bird},description={flies},sort=c}
\newglossaryentry{cod}{name={cod},description={eats},parent=fish}
\newglossaryentry{tern}{name={\emph{tern}},description={cries $x^2$, ``so''},sort={a}}
\longnewglossaryentry{long}{name={long one}}{With two paragraphs.}",
        lines: &[
            (
                r"\gls{fish} \gls{bird} \gls{cod} \gls{tern} \printnoidxglossary",
                "Fish Bird cod tern Glossary ======== tern cries x², “so” Fish swims cod eats Bird flies",
            ),
            (r"\gls{long} \printnoidxglossary", "long one Glossary ======== long one With two paragraphs."),
            (r"\gls{cod} \printnoidxglossary", "cod Glossary ======== Fish swims cod eats"),
            (
                r"\glsaddall\printnoidxglossary[title={All of \emph{them}}]",
                "All of them =========== tern cries x², “so” Fish swims cod eats Bird flies long one With two paragraphs.",
            ),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\makenoidxglossaries
\newglossaryentry{eb}{name={ebb},description={falls},see={flo}}
\newglossaryentry{flo}{name={flood},description={rises},see={[see also]eb}}",
        lines: &[(
            r"\gls{eb} \gls{flo} \printnoidxglossary",
            "ebb flood Glossary ======== ebb falls (see flood) flood rises (see also ebb)",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[acronym]{glossaries}
\newacronym{hw}{HW}{high water}
\newglossary*{sym}{Signs}
\newglossaryentry{h}{type=sym,name={\ensuremath{h}},description={height}}
\makenoidxglossaries",
        lines: &[
            (r"\gls{hw} \gls{h} \printnoidxglossaries", "high water (HW) h Acronyms ======== HW high water Signs ===== h height"),
            (r"\gls{h} \printnoidxglossary[type=sym]", "h Signs ===== h height"),
            (r"$a+\gls{h}$", "a + h"),
            (r"\section{The \gls{hw}} and \gls{hw}", "1 The high water (HW) ===================== and HW"),
            (r"\section{The \glsentrylong{hw}} and \gls{hw}", "1 The high water ================ and high water (HW)"),
            (
                r"\begin{tabular}{ll}\gls{hw} & \gls{hw}\\ \Gls{hw} & \glspl{hw}\end{tabular}",
                "+-----------------+-----+ | high water (HW) | HW | +-----------------+-----+ | HW | HWs | +-----------------+-----+",
            ),
            (r"\textbf{\gls{hw}} \emph{\gls{hw}}", "high water (HW) HW"),
            (r"``\gls{hw}'' (\gls{hw}) \gls{hw}. \gls{hw}, \gls{hw}-water", "“high water (HW)” (HW) HW. HW, HW-water"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[ngerman]{babel}\usepackage[acronym]{glossaries}
\makenoidxglossaries\newacronym{hw}{HW}{Hochwasser}",
        lines: &[(
            r"Das \gls{hw} und \gls{hw}. \printnoidxglossaries",
            "Das Hochwasser (HW) und HW. Akronyme ======== HW Hochwasser",
        )],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\newacronym{hw}{HW}{high water}\newcommand{\hw}{\gls{hw}}\newcommand{\hws}[1]{\glspl{hw}[#1]}",
        lines: &[(r"\hw{} and \hw\ or \hws{x}", "high water (HW) and HW or HWsx")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\newacronym[plural=HsW,firstplural={highs of water (HsW)}]{hw}{HW}{high water}",
        lines: &[(r"\glspl{hw} \glspl{hw} \gls{hw}", "high waters (HWs) HWs HW")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{glossaries}
\newacronym{hw}{HW}{high water}\newglossaryentry{api}{name={API},first={Application (API)},description={x}}",
        lines: &[(r"\gls{api} \gls{api} \glspl{api} \Gls{api}", "Application (API) API APIs API")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[toc]{glossaries}
\newglossaryentry{pi}{name={\ensuremath{\pi}},description={ratio},sort=pi}",
        lines: &[(r"\gls{pi} and $2\gls{pi}$ \glsentrydesc{pi}", "π and 2π ratio")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage{acro}
\DeclareAcronym{hw}{ short = HW , long  = high water , tag = abbrev }
\DeclareAcronym{nato}{ short = nato , long  = North Atlantic , short-format = \scshape }",
        lines: &[
            (
                r"\ac{hw}, \ac{nato} and \acp{nato}. \acf*{hw}",
                "high water (HW), North Atlantic (nato) and natos. high water (HW)",
            ),
            (r"\Acf{hw} \acfp{hw} \Aclp{hw} \acl*{hw}", "High water (HW) high waters (HWs) High waters high water"),
        ],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[printonlyused,withpage]{acronym}",
        lines: &[(r"The \ac{A}.\begin{acronym}\acro{A}{aaa bbb}\acro{B}{bbb}\end{acronym}", "The aaa bbb (A). A aaa bbb")],
    },
    Printed {
        class: r"\documentclass{article}",
        preamble: r"\usepackage[nolist]{acronym}",
        lines: &[(r"The \ac{A}.\begin{acronym}\acro{A}{aaa bbb}\acro{B}{bbb}\end{acronym}", "The aaa bbb (A).")],
    },
];

#[test]
fn terms_take_linear_time() {
    type Shape = (&'static str, fn(usize) -> String);
    const MANY: &str = r"\newglossaryentry{aN}{name={b},description={c \gls{aN}},see={a1}}";
    fn many(n: usize) -> String {
        (1..=n / 80).map(|number| MANY.replace('N', &number.to_string())).collect()
    }
    let shapes: [Shape; 12] = [
        ("terms", |n| many(n) + r"\glsaddall\printglossaries"),
        ("mentions", |n| {
            (1..=n / 60).map(|number| format!(r"\newacronym{{a{number}}}{{b}}{{c}}\gls{{a{number}}}\GLS{{a1}}")).collect()
        }),
        ("resets", |n| many(n / 2) + &r"\glsresetall\glsunsetall".repeat(n / 52)),
        ("all of them", |n| many(n / 2) + &r"\glsaddall".repeat(n / 22)),
        ("lists", |n| many(n / 2) + &r"\printglossaries".repeat(n / 34)),
        ("styles", |n| many(n / 2) + &r"\acsetup{first-style=long}".repeat(n / 54)),
        ("kinds of lists", |n| {
            (0..n / 60)
                .map(|number| format!(r"\newglossary*{{l{number}}}{{L}}\newglossaryentry{{a{number}}}{{type=l{number}}}"))
                .collect::<String>()
                + r"\printglossaries"
        }),
        ("terms to see", |n| {
            format!(r"\newglossaryentry{{a1}}{{name={{{}}}}}", "b ".repeat(n / 4)) + &many(n / 2) + r"\glsaddall\printglossaries"
        }),
        ("long forms", |n| format!(r"\newacronym{{a}}{{{}}}{{b}}", "b ".repeat(n / 4)) + &r"\gls{a}".repeat(n / 14)),
        ("terms in terms", |n| {
            r"\newglossaryentry{a}{name={\gls{a}\gls{a}},description=x}".to_owned() + &r"\gls{a}".repeat(n / 7)
        }),
        ("acronyms in a list", |n| {
            r"\usepackage[printonlyused]{acronym}\begin{document}\begin{acronym}".to_owned()
                + &r"\acro{a}{b\acroextra{c}}".repeat(n / 27)
        }),
        ("terms in formulas", |n| r"\newglossaryentry{a}{name={b},description=x}".to_owned() + &r"$\gls{a}$".repeat(n / 9)),
    ];
    let read = |source: &[u8]| latex::read(source, &latex::Settings::default());
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), read).err()).collect();
    assert_eq!(failed, [""; 0]);
}
