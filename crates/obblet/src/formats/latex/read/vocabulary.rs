//! The commands that documents use most, by what they mean here: those that say how something is set and not what it is are read
//! and mean nothing; others are as if they were not there, or set their argument in a style (the LaTeX documentation, and that of
//! the packages and classes that have them).

use crate::document::{Kind, TextLevel};
use crate::fast_hash::HashMap;
use std::sync::LazyLock;

/// Commands without a meaning here, by their arguments: `s` is a star, `o` an option, `m` an argument, `=` a length behind it.
const SILENT: &[(&str, &str)] = &[
    (
        "",
        "normalcolor PrintIndex dominitoc dominilof dominilot doparttoc faketableofcontents minitoc minilof minilot parttoc \
         secttoc dosecttoc tagmcend ClearShipoutPictureBG ClearShipoutPicture printshorthands \
         onslide jobname languagename pdflastxpos autopunct @M @empty @minus @ne @plus Blinddocument BooleanFalse BooleanTrue Centering Columns \
         DoubleSpacing FloatBarrier Huge IEEEdisplaynontitleabstractindextext IEEEoverridecommandlockouts \
         IEEEpeerreviewmaketitle IEEEpubidadjcol IEEEtriggeratref LARGE Large NoValue OnehalfSpacing Pages RaggedLeft \
         RaggedRight SingleSpacing ULforem VerbatimEnvironment VerbatimFootnotes addappheadtotoc \
         allowbreak allowpagebreaks appendixpage appendixpageon appendixtocon autopar balance \
         beamertemplatearticlebibitems beamertemplatebookbibitems beamertemplatenavigationsymbolsempty \
         beamertemplatetextbibitems beginnumbering bibsection bigbreak bigskip blinddocument \
         boldmath break center centerfloat centering cleardoubleemptypage cleardoublepage clearforchapter clearheadinfo \
         clearpage cleartoevenpage cleartoleftpage cleartooddpage cleartoorpage cleartorecto cleartoverso colrule \
         columnbreak cprotect dimexpr displaystyle doublespace doublespacing endcenter enddata \
         enddescription endenumerate endinput enditemize endlist endminipage endnumbering endquotation \
         endquote endtabular endtrivlist endverbatim fangsong filedate fileinfo filename fileversion \
         firmlist flushbottom flushleft flushright footnotesize frenchspacing frontispice fullfloats fussy \
         fussypar glueexpr heiti hfil hfillneg hline hrulefill hss huge ignorespaces indent indexspace \
         insertframenumber insertsection insertsubsection inserttotalframenumber justify justifying kaishu large larger \
         leavevmode leftmarginpar linenumbers lishu listfiles listofabbreviations listofalgorithms listofappendices \
         listoffigures listoflistings listofsymbols listoftables listoftodos long lstlistoflistings \
         makecover makeglossaries makeindex makelabels makenomenclature maketables maketitlepage mdseries medbreak \
         medskip movetoevenpage movetooddpage newcolumn newpage newpagecolumn noaffiliation nobreak noexpand \
         nofiles noindent nolinenumbers nolistsep nonfrenchspacing normalem normalfont normalmarginpar normalsize null \
         numberlinefalse obeylines obeyspaces onecolumn onehalfspace onehalfspacing outer pause pausenumbering \
         phantompart phantomsection postextual pretextual printcredits printtitlepage protect protected qed qedhere \
         raggedbottom raggedcolumns raggedleft raggedright raggedrightmarginpar raggedyright recalctypearea \
         relax restoregeometry resumenumbering reversemarginpar rm rmfamily sc scriptsize scriptstyle scshape \
         selectfont setSingleSpace sf sffamily sihao singlespace singlespacing sloppy small smallbreak smaller \
         smallskip songti startdata strut subfiglabelskip tableofcontents textual theendnotes tightlist tiny \
         typearea unboldmath upshape vfil vfill vss wuhao xiaosihao xiaowuhao youyuan \
         z@ p@ @plus @minus @xpt @xipt @xiipt @ixpt @viiipt @viipt @vipt @xivpt @xviipt @xxpt @xxvpt @afterheading @afterindentfalse \
         @afterindenttrue @thefnmark m@th",
    ),
    (
        "=",
        "IEEEnormaljot LTcapwidth LTleft LTright abovecaptionskip abovedisplayshortskip abovedisplayskip aboverulesep \
         abovetopsep arrayrulewidth arraystretch baselineskip baselinestretch beameritemnestingprefix belowbottomsep \
         belowcaptionskip belowdisplayshortskip belowdisplayskip belowrulesep bibhang bibitemsep bibsep bottomfraction \
         clubpenalty cmidrulewidth columnsep columnseprule columnwidth dblfloatsep delimiterfactor \
         delimitershortfall doublerulesep dp emergencystretch endlinechar errorcontextlines escapechar evensidemargin \
         everypar exhyphenpenalty extrarowheight fboxrule fboxsep floatpagefraction floatsep footnotesep footskip \
         hangafter hangindent hbadness headheight headsep heavyrulewidth hfuzz hoffset hsize hskip ht hyphenpenalty \
         interfootnotelinepenalty interlinepenalty intextsep itemindent itemsep jot kern labelsep labelwidth \
         lefthyphenmin leftmargin leftskip lightrulewidth lineskip lineskiplimit linewidth listparindent looseness \
         lower marginparpush marginparsep marginparwidth maxdimen medmuskip mkern moveleft moveright mskip \
         newlinechar nulldelimiterspace oddsidemargin overfullrule paperheight paperwidth parfillskip parindent parsep \
         parskip partopsep pdfminorversion pdfpageheight pdfpagewidth penalty pretolerance raise righthyphenmin \
         rightmargin rightskip scriptspace secnumdepth showboxbreadth showboxdepth spaceskip tabcolsep tabskip \
         textfloatsep textfraction textheight textwidth thickmuskip thinmuskip tolerance topfraction topmargin topsep \
         unitlength vbadness vfuzz voffset vsize vskip wd widowpenalty xspaceskip",
    ),
    (
        "m",
        "relsize plainbreak tabto tagmcbegin mtcfixindex \
         bonusqformat checkboxchar checkedchar fillwithdottedlines fillwithlines makeemptybox qformat \
         DeclareCaptionSubType DeclareGraphicsExtensions \
         ExecuteBibliographyOptions GetFileInfo IEEEtriggercmd KOMAoptions \
         acmBadge acmBadgeL acmBadgeR acmContributions \
         addfontfeature addfontfeatures addvspace allsectionsfont \
         authorrunning authorsaddresses backgroundsetup bibdata bibliographystyle bibliographyunit bibstyle \
         cftpagenumbersoff cftpagenumberson chapterfont chapterstyle chemsetup citestyle columnratio contentsmargin \
         ctexset doublerulesepcolor firstlinenum floatstyle fontencoding fontfamily fontseries fontshape \
         geometry glossary headstyles hphantom hypersetup hyphenate hyphenation hyphenchar includeonly includepackage \
         lineation linenumincrement linespread lstdeletekeywords lstloadlanguages lstset makepagestyle \
         makesavenoteenv markright maxtocdepth mdfsetup message needspace newbox newfam \
         newgeometry newinsert newlanguage newmuskip newread newsavebox newwrite nobibintoc nomname \
         numberlineformat offprints orcid pagenumbering pagestyle partfont pdfcatalog pdfinfo pgfkeys pgfplotsset \
         pgfqkeys phantom phantomfoo psset restylefloat runningauthor runningtitle savesymbol sectionfont \
         selectlanguage setCJKmainlanguage setbeamercovered setbeamersize setcopyright setcounterpageref \
         setlinespacing setminted setnonaligned setotherlanguage setotherlanguages setparsizes \
         setsecnumformat setstanzaindents setstretch settocdepth shortTitle \
         shortauthors shorttitle special startPage subsectionfont subsubsectionfont svgpath svgsetup tcbset \
         tcbuselibrary thispagestyle tikzexternalize tikzfading tikzset tikzsetexternalprefix \
         titlelabel titlerunning tocauthor toctitle typeout unimathsetup urlstyle usepgflibrary usepgfplotslibrary \
         usetikzlibrary usetikztiminglibrary vadjust vphantom wlog xeCJKsetup",
    ),
    (
        "o",
        "answerline mtcaddchapter mtcaddsection mtcaddpart printbibheading Blindenumerate Blindlist Blindtext allowdisplaybreaks authornotemark balancecolumns blinddescription \
         blindenumerate blindlist blindtext cormark fnmark interdisplaylinepenalty kant linebreak listofchanges \
         modulolinenumbers nolinebreak nopagebreak pagebreak pend printcopyright printindex \
         startcontents stopcontents tightlists tnotemark",
    ),
    (
        "mm",
        "@mkboth hangpara AddToHook AfterEndEnvironment AtBeginEnvironment AtEndEnvironment BeforeBeginEnvironment ClassError ClassInfo \
         ClassWarning DeclareCaptionFont DeclareCaptionFormat DeclareCaptionLabelFormat DeclareDelimFormat \
         DeclareFieldFormat DeclareLanguageMapping DeclareNameAlias DeclareSIUnit DeclareUnicodeCharacter \
         DefineBibliographyStrings KOMAoption PackageError PackageInfo PackageWarning PassOptionsToClass \
         PassOptionsToPackage SetLabelAlign SetupFloatingEnvironment addtocontents addtokomafont \
         aliaspagestyle captionsof colorlet crefalias defbibnote defcitealias define@key fancypagestyle \
         floatplacement fontsize lstdefinestyle makechapterstyle markboth mdfdefinestyle newCJKfontfamily newbibmacro \
         newrefformat newunicodechar not@math@alphabet pgfmathsetmacro pgfmathtruncatemacro renewbibmacro renewcommand* \
         pointpoints restoresymbol setCJKfamilyfont setkeys setkomafont setlistdepth tikzstyle",
    ),
    (
        "om",
        "newrefcontext AddToShipoutPicture AddToShipoutPictureBG AddToShipoutPictureFG AtBeginPart AtBeginSection AtBeginSubsection \
         DeclareNewSectionCommand DeclareTOCStyleEntry RedeclareSectionCommand addbibresource automark \
         babelprovide cefoot cehead cfoot chead cofoot cohead color credit declaretheoremstyle \
         defaultfontfeatures documentclass fancyfoot fancyfootoffset fancyhead fancyheadoffset fancyhf ifoot \
         ihead includepackageonly index lefoot lehead lfoot lhead lohead markleft ofoot ohead pagecolor pgfdeclareimage \
         pgfplotstableset rehead rfoot rhead rofoot rohead setCJKmainlang setenotez \
         setfnsymbol setfootsepline setheadsepline setmathfont usecolortheme usefonttheme \
         useinnertheme usemintedstyle useoutertheme usepackage usetheme",
    ),
    ("sm", "enlargethispage hspace vspace"),
    ("mo", "NeedsTeXFormat ProvidesPackage ProvidesClass ProvidesFile"),
    ("soo", "lipsum"),
    ("oo", "bonusgradetable bonuspointtable gradetable pointtable"),
    (
        "mmm",
        "@setfontsize AddEnumerateCounter Crefformat addcontentsline addtobeamertemplate apptocmd cftsetindents crefformat \
         crefrangeformat deffootnote definecolor makeheadrule makepsmarks pretocmd setdescription",
    ),
    ("omm", "lstdefinelanguage pdfbookmark"),
    (
        "omo",
        "fontspec setCJKmainfont setCJKmonofont setCJKsansfont setmainfont setmathbf setmathrm setmathsf setmathtt \
         setmonofont setromanfont setsansfont",
    ),
    ("smm", "setbeamercolor setbeamerfont"),
    ("som", "usebeamercolor usebeamerfont usebeamertemplate"),
    (
        "mmmm",
        "@setsize DeclareGraphicsRule DeclareMathSizes DeclareMathSymbol makeevenfoot makeevenhead makeoddfoot makeoddhead \
         makepagestyleall usefont",
    ),
    ("momo", "newfontface newfontfamily setfontfamily"),
    ("mmmmm", "DeclareMathAlphabet DeclareSymbolFont SetMathAlphabet SetSymbolFont patchcmd xpatchcmd"),
    ("smmmm", "titlespacing"),
    ("mmmmmm", "DeclareFontShape "),
    ("smmmmm", "titleformat"),
];

/// Commands whose last argument is text as any other, by the arguments before it.
const OPEN: &[(&str, &str)] = &[
    (
        "",
        "colhead AtBeginDocument AtEndDocument AtEndOfClass AtEndOfPackage DTMusedate IEEEcompsocthanksitem IEEEmembership IEEEraisesectionheading \
         IEEEtitleabstractindextext LR NoCaseChange Ovalbox RL Shortstack beamerbutton \
         beamergotobutton beamerreturnbutton beamerskipbutton beginL beginR bm caps centerline chaptertitle circled \
         doublebox ensuretext eqmakebox fbox firstname fittowidth fnm forename givenname \
         highlightbox hologo invisible lastname leftline linebox llap mail mathtext mbox missingfigure name \
         nohyphens noindentpar only ovalbox phantomtext reflectbox rightline rlap shadowbox sidecap so \
         spacedallcaps spacedlowsmallcaps structure sur surname term text textLR textRL textcircled textfont textgreek \
         textin textlarger textlatin textlf textln textlnsize textmd textnormal textrange textrm textroman textsc \
         textsf textsmaller textsw texttitle textulc textup uncover visible",
    ),
    ("m", "addtolist adjustbox clipbox marginbox minsizebox pbox resizeto scalefont settototal textsize trimbox"),
    ("o", "epigraphhead sourceatright frame lettrine makecell rothead shortstack smash tcbox textls"),
    ("mm", "maxsizebox"),
    ("mo", "scalebox"),
    ("omo", "floatbox"),
    ("om", "colorbox rotatebox textcolor"),
    ("oo", "framebox makebox"),
    ("moo", "raisebox"),
    ("omm", "fcolorbox"),
    ("smm", "resizebox"),
    ("ooom", "parbox"),
];

/// The arguments of a command that says how something looks.
pub(super) fn silent(name: &str) -> Option<&'static str> {
    if matches!(name, "bf" | "bfseries" | "it" | "itshape" | "em" | "tt" | "ttfamily" | "sl" | "slshape" | "par") {
        return Some("");
    }
    plain(name).filter(|plain| !plain.is_open).map(|plain| plain.arguments)
}

/// A command that means nothing, or whose last argument is text as any other.
#[derive(Clone, Copy)]
pub(super) struct Plain {
    pub(super) arguments: &'static str,
    pub(super) is_open: bool,
}

/// What a command is by its name alone.
#[derive(Clone, Copy)]
pub(super) struct Word {
    /// The characters that it stands for.
    pub(super) symbol: Option<&'static str>,
    pub(super) plain: Option<Plain>,
    pub(super) style: Option<Kind>,
}

/// What is known of a command by its name.
pub(super) fn word(name: &str) -> Option<&'static Word> {
    static BY_NAME: LazyLock<HashMap<&str, Word>> = LazyLock::new(|| {
        let of = |name: &'static str| Word { symbol: super::symbols::text(name), plain: plain(name), style: style_of(name) };
        let names = SILENT.iter().chain(OPEN).flat_map(|(_, names)| names.split_ascii_whitespace());
        names.chain(super::symbols::names()).chain(STYLES.split_ascii_whitespace()).map(|name| (name, of(name))).collect()
    });
    BY_NAME.get(name)
}

/// What a command is that says nothing of the text itself.
pub(super) fn plain(name: &str) -> Option<Plain> {
    static BY_NAME: LazyLock<HashMap<&str, Plain>> = LazyLock::new(|| {
        let table = [(SILENT, false), (OPEN, true)];
        let all = table.iter().flat_map(|(rows, is_open)| {
            let row = move |&(arguments, names): &(&'static str, &'static str)| {
                names.split_ascii_whitespace().map(move |name| (name, Plain { arguments, is_open: *is_open }))
            };
            rows.iter().flat_map(row)
        });
        all.collect()
    });
    BY_NAME.get(name).copied()
}

/// Whether a command says how text looks that is its argument.
pub(in crate::formats) fn is_text_style(name: &str) -> bool {
    style_of(name).is_some()
}

/// Whether a command without arguments says how a page is set, and nothing else.
pub(in crate::formats) fn is_layout(name: &str) -> bool {
    plain(name).is_some_and(|plain| plain.arguments.is_empty() && !plain.is_open)
}

/// Whether a command means something by its name.
pub(super) fn is_known(name: &str) -> bool {
    plain(name).is_some() || style_of(name).is_some() || super::symbols::text(name).is_some()
}

/// The names of commands that set their argument in a style.
const STYLES: &str = "textbf strong pmb alert textbfsf emph textit textsl underline uline ul uuline underLine uwave dashuline dotuline underbar sout st xout strikeThrough hl highLight texttt code textsuperscript up tsup textsubscript";

/// Commands that set their argument in a style.
pub(super) fn style_of(name: &str) -> Option<Kind> {
    Some(match name {
        "textbf" | "strong" | "pmb" | "alert" | "textbfsf" => Kind::Strong,
        "emph" | "textit" | "textsl" => Kind::Emphasis,
        "underline" | "uline" | "ul" | "uuline" | "underLine" | "uwave" | "dashuline" | "dotuline" | "underbar" => {
            Kind::Underline
        }
        "sout" | "st" | "xout" | "strikeThrough" => Kind::Strikethrough,
        "hl" | "highLight" => Kind::Highlight,
        "texttt" | "code" => Kind::TextLevel(TextLevel::Code),
        "textsuperscript" | "up" | "tsup" => Kind::Superscript,
        "textsubscript" => Kind::Subscript,
        _ => return None,
    })
}

/// Whether a command shows an icon, which says nothing to readers: those of icon fonts.
pub(super) fn is_icon(name: &str) -> bool {
    name.strip_prefix("fa").is_some_and(|icon| icon.starts_with(|c: char| c.is_ascii_uppercase()))
}

/// Whether a command behind a length is none that this is multiplied with.
pub(super) fn is_no_length(name: &str) -> bool {
    const NAMES: [&str; 18] = [
        "relax",
        "hskip",
        "vskip",
        "kern",
        "penalty",
        "hfil",
        "hfill",
        "vfil",
        "vfill",
        "par",
        "break",
        "nobreak",
        "hbox",
        "vbox",
        "bgroup",
        "egroup",
        "begingroup",
        "endgroup",
    ];
    NAMES.contains(&name)
}

/// Whether a command of the format says what something is, and not how it looks.
pub(super) fn is_of_format(name: &str) -> bool {
    const NAMES: &str = "part chapter section subsection subsubsection paragraph subparagraph appendix maketitle @maketitle title author \
         date thanks and And AND footnote footnotemark footnotetext caption @makecaption @caption item label ref pageref eqref cite \
         citep citet nocite bibliography bibitem @bibitem @lbibitem tableofcontents begin end input include includegraphics url href \
         verb par newline abstract endabstract keywords thebibliography endthebibliography itemize enditemize enumerate endenumerate \
         description enddescription figure endfigure table endtable tabular endtabular equation endequation quote endquote quotation \
         endquotation verse endverse center endcenter document enddocument emph textbf textit texttt underline @startsection @chapter \
         @schapter @sect @ssect @part @spart frontmatter mainmatter backmatter address email affiliation";
    static BY_NAME: LazyLock<crate::fast_hash::HashSet<&str>> = LazyLock::new(|| NAMES.split_ascii_whitespace().collect());
    BY_NAME.contains(name) || is_known(name)
}
