//! What documents take from classes and packages: small documents, and all that becomes of them.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::Format;
use support::convert::convert;

/// Reads a document; what is expected may be broken into lines.
#[track_caller]
pub(super) fn reads(source: &str, expected: &str) {
    let converted = convert(source, Format::Latex, Format::Html, &["html.compact=true", "html.math=tex"]);
    let page = converted.into_text().unwrap();
    let joined: Vec<&str> = page.split('\n').map(str::trim).collect();
    let expected: Vec<&str> = expected.split('\n').map(str::trim).collect();
    assert_eq!(joined.concat(), expected.concat(), "{source}");
}

#[test]
fn algorithms_are_lists_of_lines() {
    reads(
        r##"\begin{algorithm}
\caption{Predict}\label{alg:p}
\begin{algorithmic}[1]
\Require $h \ge 0$
\Function{Predict}{$h, t$}
\State $x \gets 0$
\For{$i = 1, \dots, n$}
\If{$a_i > 0$} \State $x \gets x + a_i$ \Comment{add it}
\ElsIf{$a_i = 0$} \State nothing
\Else \State \Return $x$
\EndIf
\EndFor
\Repeat \State wait \Until{high water}
\EndFunction
\end{algorithmic}
\end{algorithm}
See Algorithm~\ref{alg:p}."##,
        r##"<figure id="alg:p">
<figcaption>Algorithm&nbsp;1: Predict</figcaption>
<ul class="algorithm">
<li><strong>Require:</strong> <code class="language-tex">h \ge 0</code></li>
<li><strong>function</strong> Predict(<code class="language-tex">h, t</code>)<ul>
<li><code class="language-tex">x \gets 0</code></li>
<li><strong>for</strong> <code class="language-tex">i = 1, \dots, n</code> <strong>do</strong><ul>
<li><strong>if</strong> <code class="language-tex">a_i &gt; 0</code> <strong>then</strong><ul>
<li><code class="language-tex">x \gets x + a_i</code> ▷ <em>add it</em></li>
</ul>
</li>
<li><strong>else if</strong> <code class="language-tex">a_i = 0</code> <strong>then</strong><ul>
<li>nothing</li>
</ul>
</li>
<li><strong>else</strong><ul>
<li><strong>return</strong> <code class="language-tex">x</code></li>
</ul>
</li>
</ul>
</li>
<li><strong>repeat</strong><ul>
<li>wait</li>
</ul>
</li>
<li><strong>until</strong> high water</li>
</ul>
</li>
</ul>
</figure>
<p>See Algorithm&nbsp;<a href="#alg:p">1</a>.</p>"##,
    );
}

#[test]
fn lines_in_braces_are_algorithms_too() {
    reads(
        r##"\documentclass{article}\usepackage[ruled]{algorithm2e}\begin{document}
\begin{algorithm}
\SetKwInOut{Tide}{tide}
\KwData{a well} \Tide{its height}
start\;
\While{rising}{
  \eIf{read}{write\;}{wait\; \tcp{again}}
  \Repeat{done}{work\;}
}
\lIf{late}{go home\;}
\caption{The watch}
\end{algorithm}
\end{document}"##,
        r##"<figure>
<ul class="algorithm">
<li><strong>Data:</strong> a well</li>
<li><strong>tide:</strong> its height</li>
<li>start</li>
<li><strong>while</strong> rising <strong>do</strong><ul>
<li><strong>if</strong> read <strong>then</strong><ul>
<li>write</li>
</ul>
</li>
<li><strong>else</strong><ul>
<li>wait</li>
<li>▷ <em>again</em></li>
</ul>
</li>
<li><strong>repeat</strong><ul>
<li>work</li>
</ul>
</li>
<li><strong>until</strong> done</li>
</ul>
</li>
<li><strong>if</strong> late <strong>then</strong><ul>
<li>go home</li>
</ul>
</li>
</ul>
<figcaption>Algorithm&nbsp;1: The watch</figcaption>
</figure>"##,
    );
}

#[test]
fn terms_stand_behind_what_they_are_short_for_the_first_time() {
    reads(
        r##"\newacronym{hw}{HW}{high water}
\newglossaryentry{neap}{name={neap tide}, description={the smallest \emph{range} of \gls{hw}, at the quarters}}
\newglossaryentry{never}{name=never, description={not used}}
\gls{hw}, then \gls{hw}; \Gls{neap} and \glspl{neap}; \acrlong{hw}, \acrfull{hw}; \gls{unknown}.

\printglossaries"##,
        r##"<p>high water (HW), then <abbr title="high water">HW</abbr>; Neap tide and neap tides; high water, high water (HW); unknown.</p>
<h1 class="unnumbered">Glossary</h1>
<dl>
<dt>HW</dt>
<dd>high water</dd>
<dt>neap tide</dt>
<dd>the smallest <em>range</em> of <abbr title="high water">HW</abbr>, at the quarters</dd>
</dl>"##,
    );
    // What terms are called holds the words of others, and never themselves.
    reads(
        r"\newglossaryentry{b}{name=bee,description=x}\newacronym{a}{A\gls{a}}{\gls{b} and \gls{a}}\gls{a}, \gls{a}",
        r#"<p>bee and a (Aa), <abbr title="bee and a">Aa</abbr></p>"#,
    );
    reads(
        r##"\begin{acronym}[LONGEST]\acro{LAT}{lowest astronomical tide}\acro{MHW}[M.H.W.]{mean high water}\end{acronym}
\ac{LAT} and \ac{MHW}."##,
        r##"<dl>
<dt>LAT</dt>
<dd>lowest astronomical tide</dd>
<dt>M.H.W.</dt>
<dd>mean high water</dd>
</dl>
<p>lowest astronomical tide (LAT) and mean high water (M.H.W.).</p>"##,
    );
}

#[test]
fn conditionals_are_decided_where_they_can_be() {
    reads(
        r##"\newboolean{draft}\setboolean{draft}{true}\newtoggle{web}\toggletrue{web}\newcounter{n}\setcounter{n}{3}
\ifthenelse{\boolean{draft}}{draft}{final}
\ifthenelse{\equal{a}{b} \OR \NOT \equal{a}{b}}{one}{none}
\ifthenelse{\value{n} > 2 \AND \value{n} < 3}{wrong}{right}
\iftoggle{web}{web}{print}
\ifdef{\emph}{known}{not} \ifundef{\unheard}{unheard}{heard}
\ifblank{ }{blank}{full} \ifstrequal{x}{x}{same}{other}"##,
        r##"<p>draft one right web known unheard blank same</p>"##,
    );
    reads(
        r##"\def\a{x}\def\b{x}\def\c{y}\newif\iflong\longtrue
\ifx\a\b same\else other\fi, \ifx\a\c same\else other\fi, \ifnum 3>2 more\else less\fi, \ifodd 4 odd\else even\fi,
\iflong long\else short\fi, \ifcase 2 zero\or one\or two\or three\else many\fi, \ifdefined\a is\else is not\fi."##,
        r##"<p>same, other, more, even, long, two, is.</p>"##,
    );
}

#[test]
fn commands_are_made_of_text_and_counters_count() {
    reads(
        r##"\expandafter\def\csname tide\endcsname#1{Tide of #1} \tide{May}, \csname tide\endcsname{June}, \csname unheard\endcsname.
\newcounter{rule}\newcommand\therules{}\stepcounter{rule}\stepcounter{rule}Rule \arabic{rule}, \roman{rule}, \Alph{rule}, \therule.
\makeatletter\@namedef{x@y}{made}\@nameuse{x@y}\@gobble{gone}\makeatother"##,
        r##"<p>Tide of May, Tide of June, . Rule 2, ii, B, 2. made</p>"##,
    );
}

#[test]
fn boxes_are_kept_and_columns_have_tabs() {
    reads(
        r##"\newsavebox{\kept}\sbox{\kept}{kept \emph{text}}Before \usebox{\kept} behind.
\newenvironment{frame2}{\begin{lrbox}{\kept}}{\end{lrbox}\fbox{\usebox{\kept}}}
\begin{frame2}in a frame\end{frame2}
\begin{tabbing}
Well \= Height \= Time \kill
Orra \> 3.2 \> 5:40 \\
Fen \> 3.1 \> 5:55
\end{tabbing}"##,
        r##"<p>Before kept <em>text</em> behind. in a frame</p>
<table>
<tbody><tr><td>Orra</td><td>3.2</td><td>5:40</td></tr>
<tr><td>Fen</td><td>3.1</td><td>5:55</td></tr>
</tbody></table>"##,
    );
    reads(
        r##"\newtcolorbox{tipbox}[1]{title=#1}\begin{tipbox}{Take care}It is deep.\end{tipbox}
\begin{tcolorbox}[title={The \emph{well}}, width=3cm]Text.\end{tcolorbox}"##,
        r##"<div class="tipbox">
<p><strong>Take care</strong></p>
<p>It is deep.</p>
</div>
<p><strong>The <em>well</em></strong></p>
<p>Text.</p>"##,
    );
}

#[test]
fn environments_of_the_document_may_hold_code() {
    reads(
        r##"\newenvironment{shell}{\VerbatimEnvironment\begin{Verbatim}}{\end{Verbatim}}
\newenvironment{shown2}{\VerbatimEnvironment
  \begin{VerbatimOut}{\jobname.out}}{\end{VerbatimOut}\VerbatimInput{\jobname.out}}
\begin{shell}
a_b {
\end{shell}
\begin{shown2}
c \% d
\end{shown2}
\texttt{\def} ``after''."##,
        r##"<pre><code>a_b {
</code></pre>
<pre><code>c \% d
</code></pre>
<p>“after”.</p>"##,
    );
}

#[test]
fn parts_of_floats_have_letters() {
    reads(
        r##"\begin{figure}
\subfloat[Well\label{w}]{\includegraphics{well}}
\subcaptionbox{Gauge\label{g}}{\includegraphics{gauge.png}}
\caption{Both}\label{f}
\end{figure}
\begin{figure}\begin{subfigure}{.5\textwidth}\includegraphics{a.png}\caption{A}\label{a}\end{subfigure}\caption{Two}\end{figure}
\ref{w}, \ref{g}, \ref{f}, \ref{a}"##,
        r##"<figure id="f">
<figure id="w">
<figcaption>(a) Well</figcaption>
<img src="well.png" alt=""></figure>
<figure id="g">
<figcaption>(b) Gauge</figcaption>
<img src="gauge.png" alt=""></figure>
<figcaption>Figure&nbsp;1: Both</figcaption>
</figure>
<figure>
<figure id="a">
<img src="a.png" alt=""><figcaption>(a) A</figcaption>
</figure>
<figcaption>Figure&nbsp;2: Two</figcaption>
</figure>
<p><a href="#w">1a</a>, <a href="#g">1b</a>, <a href="#f">1</a>, <a href="#a">2a</a></p>"##,
    );
}

#[test]
fn code_has_its_numbers_and_its_marks() {
    reads(
        r##"\DefineVerbatimEnvironment{shell}{Verbatim}{frame=single}
\begin{shell}
$ ls  -l
\end{shell}
\begin{lstlisting}[language=Python, caption = {A \emph{loop}, once},
  label = lst:a]
for x in y:
    pass
\end{lstlisting}
See \ref{lst:a}. \MakeShortVerb{\|}|a_b\c| \DeleteShortVerb{\|}|x|.
\begin{filecontents}{made.txt}
low water
\end{filecontents}
\VerbatimInput{made.txt}"##,
        r##"<pre><code>$ ls  -l
</code></pre>
<figure id="lst:a">
<pre><code class="language-python">for x in y:
    pass
</code></pre>
<figcaption>Listing&nbsp;1: A <em>loop</em>, once</figcaption>
</figure>
<p>See <a href="#lst:a">1</a>. <code>a_b\c</code> |x|.</p>
<pre><code>low water
</code></pre>"##,
    );
}

#[test]
fn theorems_of_classes_are_theirs() {
    reads(
        r##"\documentclass{llncs}\begin{document}\begin{lemma}[Pask]\label{l}A.\end{lemma}\begin{theorem}B.\end{theorem}\begin{lemma}C.\end{lemma}\begin{claim}D.\end{claim}\ref{l}\end{document}"##,
        r##"<div id="l" class="lemma">
<p><strong>Lemma&nbsp;1</strong> (Pask). A.</p>
</div>
<div class="theorem">
<p><strong>Theorem&nbsp;1.</strong> B.</p>
</div>
<div class="lemma">
<p><strong>Lemma&nbsp;2.</strong> C.</p>
</div>
<div class="claim">
<p><strong>Claim.</strong> D.</p>
</div>
<p><a href="#l">1</a></p>"##,
    );
    reads(
        r##"\documentclass{beamer}\begin{document}\frame{\frametitle{Low water}\framesubtitle{At the well}\begin{definition}A tide.\end{definition}\begin{columns}\column{.5\textwidth}left\column{.5\textwidth}right\end{columns}}\end{document}"##,
        r##"<h2>Low water</h2>
<p><strong>At the well</strong></p>
<div class="definition">
<p><strong>Definition.</strong> A tide.</p>
</div>
<p>left</p>
<p>right</p>"##,
    );
    reads(
        r##"\documentclass{article}\usepackage{tcolorbox}\newtcbtheorem{law}{Law}{}{lw}\begin{document}\begin{law}{Of tides}{t}It turns.\end{law}\end{document}"##,
        r##"<div class="law">
<p><strong>Law&nbsp;1</strong> (Of tides). It turns.</p>
</div>"##,
    );
}

#[test]
fn articles_say_where_their_authors_work() {
    reads(
        r##"\documentclass{acmart}\begin{document}\title{Low water}\author{Ada Pask}\affiliation{\institution{Greywick Trust}\city{Greywick}\country{The Sound}}\email{ada@greywick.example}\begin{abstract}Short.\end{abstract}\ccsdesc[500]{Tides}\begin{figure}\includegraphics{well.png}\Description{A well with a float}\caption{Well}\end{figure}\maketitle\section{One}Text.\end{document}"##,
        r##"<h1>Low water</h1>
<div class="byline">
<p>Ada Pask<br>
Greywick Trust, Greywick, The Sound<br>
<a href="mailto:ada@greywick.example">ada@greywick.example</a></p>
</div>
<section class="abstract">
<p><strong>Abstract</strong></p>
<p>Short.</p>
</section>
<p>Tides</p>
<figure>
<img src="well.png" alt="A well with a float"><figcaption>Figure&nbsp;1: Well</figcaption>
</figure>
<h2>1 One</h2>
<p>Text.</p>"##,
    );
    reads(
        r##"\documentclass{elsarticle}\begin{document}\begin{frontmatter}\title{Low water}\author[1]{Ada Pask\corref{c}}\affiliation[1]{organization={Greywick Trust}, addressline={1 Quay}, city={Greywick}}\begin{keyword}tides \sep wells\end{keyword}\end{frontmatter}\section{One}\end{document}"##,
        r##"<h1>Low water</h1>
<p><strong>Ada Pask</strong></p>
<p>Greywick Trust, 1 Quay, Greywick</p>
<p><strong>Keywords:</strong> tides; wells</p>
<h2>1 One</h2>"##,
    );
    reads(
        r##"\documentclass{IEEEtran}\begin{document}\title{Low water}\author{\IEEEauthorblockN{Ada Pask}\IEEEauthorblockA{Greywick}}\maketitle\IEEEPARstart{T}{he} tide.\begin{IEEEeqnarray}{rCl}a &=& b\end{IEEEeqnarray}\begin{numcases}{f=}1 & x\\2 & y\end{numcases}\end{document}"##,
        r##"<h1>Low water</h1>
<div class="byline">
<p>Ada Pask<br>
Greywick</p>
</div>
<p>The tide.<code class="language-tex display">\begin{align}a &amp;=&amp; b\end{align}</code><code class="language-tex display">\begin{equation}f=\begin{cases}1 &amp; x\\2 &amp; y\end{cases}\end{equation}</code></p>"##,
    );
}

#[test]
fn who_wrote_it_stands_below_the_title_in_every_class() {
    let cases = [
        (
            r"\documentclass{amsart}\title{Low water}\author{Ada Pask}\address{Greywick}\email{ada@greywick.example}\thanks{Paid by none.}\author{Ivo Tolliver}\dedicatory{To the sea}\date{May 2031}\begin{document}\maketitle\end{document}",
            r##"<p>Ada Pask<br>
Greywick<br>
<a href="mailto:ada@greywick.example">ada@greywick.example</a><sup><a href="#note-1" id="note-1-mark" role="doc-noteref">1</a></sup></p>
<p>Ivo Tolliver</p>
<p>To the sea</p>
<p>May 2031</p>"##,
        ),
        (
            r"\documentclass{article}\usepackage{authblk}\title{Low water}\author[1]{Ada Pask}\author[1,2]{Ivo Tolliver}\affil[1]{Greywick Trust}\affil[2]{The Sound}\date{\today}\begin{document}\maketitle\end{document}",
            r"<p>Ada Pask<sup>1</sup></p>
<p>Ivo Tolliver<sup>1,2</sup></p>
<p><sup>1</sup>Greywick Trust</p>
<p><sup>2</sup>The Sound</p>",
        ),
        (
            r"\documentclass{llncs}\begin{document}\title{Low water}\author{Ada Pask\inst{1}\orcidID{0000-1} \and Ivo Tolliver\inst{2}}\institute{Greywick Trust \email{ada@greywick.example}\and The Sound}\maketitle\end{document}",
            r##"<p>Ada Pask<sup>1</sup></p>
<p>Ivo Tolliver<sup>2</sup></p>
<p><sup>1</sup>Greywick Trust <a href="mailto:ada@greywick.example">ada@greywick.example</a></p>
<p><sup>2</sup>The Sound</p>"##,
        ),
        (
            r"\documentclass{revtex4-2}\begin{document}\title{Low water}\author{Ada Pask}\altaffiliation[Also at ]{The Sound}\author{Ivo Tolliver}\affiliation{Greywick Trust}\email{ada@greywick.example}\maketitle It says \verb|\maketitle|.\end{document}",
            r##"<p>Ada Pask<br>
Also at The Sound</p>
<p>Ivo Tolliver</p>
<p>Greywick Trust<br>
<a href="mailto:ada@greywick.example">ada@greywick.example</a></p>"##,
        ),
        (
            r"\documentclass{beamer}\title{Low water}\author[A.~Pask]{Ada Pask\inst{1}}\institute{Greywick}\date{}\begin{document}\frame{\titlepage}\end{document}",
            r"<p>Ada Pask<sup>1</sup></p>
<p>Greywick</p>",
        ),
    ];
    let page = |source: &str| convert(source, Format::Latex, Format::Html, &["shape=fragment"]).into_text().unwrap();
    for (source, byline) in cases {
        let html = page(source);
        assert!(html.starts_with(&format!("<h1>Low water</h1>\n<div class=\"byline\">\n{byline}\n</div>\n")), "{source}\n{html}");
        // Written again, places are no authors.
        let read = obblet::formats::latex::read(source.as_bytes(), &obblet::formats::latex::Settings::default());
        let written = convert(source, Format::Latex, Format::Latex, &["shape=page"]).into_text().unwrap();
        let again = obblet::formats::latex::read(written.as_bytes(), &obblet::formats::latex::Settings::default());
        assert_eq!(again.metadata.authors, read.metadata.authors, "{written}");
        assert_eq!(again.metadata.date, read.metadata.date, "{written}");
        assert_eq!(page(&written), html, "{written}");
    }
    // A note before all authors is one to the title.
    let noted = page(
        r"\documentclass{revtex4-2}\begin{document}\title{Low water}\thanks{Paid by none}\author{Ada Pask}\maketitle A\end{document}",
    );
    assert!(noted.starts_with("<h1>Low water<sup><a href=\"#note-1\"") && noted.contains("<p>Paid by none "), "{noted}");
    // A title that the text says and never shows goes to the top, and the byline with it.
    let lifted = page(r"\documentclass{article}\begin{document}\title{Low water}\author{Ada Pask}\section{One}A\end{document}");
    assert!(
        lifted.starts_with("<h1>Low water</h1>\n<div class=\"byline\">\n<p>Ada Pask</p>\n</div>\n<h2>1 One</h2>"),
        "{lifted}"
    );
    // Where nothing shows the title, what is said of authors besides their names is named.
    let unseen = r"\documentclass{article}\title{T}\author{Ada Pask\thanks{Paid by none}}\begin{document}A\end{document}";
    let read = obblet::formats::latex::read(unseen.as_bytes(), &obblet::formats::latex::Settings::default());
    assert!(read.findings.iter().any(|finding| finding.code == "latex.front-matter"), "{:?}", read.findings);
    // What the front matter says need not be said twice.
    let plain = r"\documentclass{article}\title{Low water}\author{Ada Pask \and Ivo Tolliver}\date{May 2031}\begin{document}\maketitle A\end{document}";
    let markdown = convert(plain, Format::Latex, Format::Markdown, &[]).into_text().unwrap();
    assert_eq!(markdown, "---\ndate: May 2031\nauthors: [Ada Pask, Ivo Tolliver]\n---\n\n# Low water\n\nA\n");
    let org = convert(plain, Format::Latex, Format::Org, &[]).into_text().unwrap();
    assert!(org.contains("#+AUTHOR: Ada Pask and Ivo Tolliver\n") && org.matches("Ada").count() == 1, "{org}");
    // Nor on the way back from a page; and a page that says it is no other document.
    let of_page = convert(plain, Format::Latex, Format::Html, &["shape=page"]).into_text().unwrap();
    let back = convert(&of_page, Format::Html, Format::Markdown, &[]).into_text().unwrap();
    assert_eq!(back.matches("Ada").count(), 1, "{back}");
    let read = obblet::formats::latex::read(plain.as_bytes(), &obblet::formats::latex::Settings::default());
    let fragment = obblet::formats::html::read(page(plain).as_bytes(), &obblet::formats::html::ReadOptions::default());
    assert_eq!(obblet::compare::compare(&read, &fragment).differences, []);
}

#[test]
fn abstracts_and_keywords_have_the_words_that_classes_print() {
    let german = r"\documentclass{article}\usepackage[ngerman]{babel}\begin{document}\begin{abstract}Kurz.\end{abstract}\keywords{Ebbe; Flut}

Lang.\end{document}";
    let html = convert(german, Format::Latex, Format::Html, &["shape=fragment"]).into_text().unwrap();
    let expected = "<section class=\"abstract\">\n<p><strong>Zusammenfassung</strong></p>\n<p>Kurz.</p>\n</section>\n<p><strong>Schlüsselwörter:</strong> Ebbe; Flut</p>\n<p>Lang.</p>\n";
    assert_eq!(html, expected);
    let back = convert(german, Format::Latex, Format::Latex, &["shape=page"]).into_text().unwrap();
    assert!(back.contains("\\begin{abstract}\nKurz.\n\\end{abstract}\n"), "{back}");
    assert_eq!(convert(&back, Format::Latex, Format::Html, &["shape=fragment"]).into_text().unwrap(), expected);
    let own = r"\renewcommand{\abstractname}{In short}\begin{abstract}A\end{abstract}";
    let html = convert(own, Format::Latex, Format::Html, &["shape=fragment"]).into_text().unwrap();
    assert!(html.contains("<p><strong>In short</strong></p>"), "{html}");
}

#[test]
fn editions_and_languages_keep_their_notes() {
    reads(
        r##"\beginnumbering\pstart[\section{One}]\edtext{The tide}{\lemma{tide}\Afootnote{so the log}} turns.\pend\pstart Again.\pend\endnumbering
\begin{greek}ἅλς\end{greek} \textgerman{Ebbe} \SIrange{1}{2}{\metre} \ding{52} \meta{name} \nth{5}
\epigraph{It turns.}{Ada Pask}
\blockquote{A long one.}\textcquote[3]{k}{said} \hskip 1em plus
 0.5em minus 0.4em\relax Quay, \raise 2pt\hbox{up}."##,
        r##"<h1>One</h1>
<p>The tide<sup><a href="#note-1" id="note-1-mark" role="doc-noteref">1</a></sup> turns.</p>
<p>Again.</p>
<div lang="el">
<p>ἅλς</p>
</div>
<p><span lang="de">Ebbe</span> <code class="language-tex">\SI{1}{\metre}</code> to <code class="language-tex">\SI{2}{\metre}</code> ✔ ⟨name⟩ 5th</p>
<blockquote>
<p>It turns.</p>
<p>Ada Pask</p>
</blockquote>
<p>“A long one.”“said” [k, 3] Quay, up.</p>
<section role="doc-endnotes" aria-label="Notes">
<ol>
<li id="note-1"><p>so the log <a href="#note-1-mark" role="doc-backlink" aria-label="Back to the text">↑</a></p>
</li>
</ol>
</section>"##,
    );
}

#[test]
fn environments_are_pairs_of_commands_and_code_is_kept() {
    reads(
        r##"\newcommand\watch{\begin{quote}\SaveVerb[aftersave={\UseVerb{C}: }]{C}}\def\endwatch{\end{quote}}
\begin{watch}|a_b|kept\end{watch} \ifpdf pdf\else other\fi \ifluatex lua\else no lua\fi"##,
        r##"<blockquote>
<p><code>a_b</code>: kept</p>
</blockquote>
<p>pdfno lua</p>"##,
    );
    reads(
        r##"\documentclass{beamer}\begin{document}\section{One}\subsection{Two}\begin{frame}{Slide}Text.\end{frame}\section{Three}\begin{frame}\frametitle<1>{Other}\end{frame}\end{document}"##,
        r##"<h1>One</h1>
<h2>Two</h2>
<h3>Slide</h3><p>Text.</p>
<h1>Three</h1>
<h2>Other</h2>"##,
    );
}

#[test]
fn words_for_what_has_a_number_are_of_the_language() {
    reads(
        r##"\documentclass{article}\usepackage[ngerman]{babel}\begin{document}\section{Eins}\label{s}\begin{enumerate}\item\label{i} a\end{enumerate}\autoref{s}, \cref{s}, \cref{i}\end{document}"##,
        r##"<h1 id="s">1 Eins</h1>
<ol>
<li id="i">a</li>
</ol>
<p><a href="#s">Abschnitt&nbsp;1</a>, <a href="#s">Abschnitt&nbsp;1</a>, <a href="#i">Punkt&nbsp;1</a></p>"##,
    );
    reads(
        r##"\documentclass{article}\usepackage[french]{babel}\begin{document}\section{Un}\label{s}\begin{algorithm}\caption{A}\label{a}\end{algorithm}\Cref{s}, \cref{s}, \autoref{a}\end{document}"##,
        r##"<h1 id="s">1 Un</h1>
<figure id="a">
<figcaption>Algorithme&nbsp;1: A</figcaption>
</figure>
<p><a href="#s">Section&nbsp;1</a>, <a href="#s">section&nbsp;1</a>, <a href="#a">Algorithme&nbsp;1</a></p>"##,
    );
}

#[test]
fn tables_of_packages_have_their_columns() {
    reads(
        r##"\begin{tblr}{colspec={lcr}, hlines}a & b & c\\d & e & f\end{tblr}
\begin{deluxetable}{lr}\tablecaption{Wells}\tablehead{\colhead{Well} & \colhead{Height}}\startdata Orra & 3.2\\Fen & 3.1\enddata\end{deluxetable}
\begin{NiceTabular}{cc}\hline a & b\\\hline c & d\end{NiceTabular}"##,
        r##"<table>
<tbody><tr><td>a</td><td style="text-align: center">b</td><td style="text-align: right">c</td></tr>
<tr><td>d</td><td style="text-align: center">e</td><td style="text-align: right">f</td></tr>
</tbody></table>
<table>
<caption>Table&nbsp;1: Wells</caption><thead><tr><th>Well</th><th style="text-align: right">Height</th></tr>
</thead><tbody><tr><td>Orra</td><td style="text-align: right">3.2</td></tr>
<tr><td>Fen</td><td style="text-align: right">3.1</td></tr>
</tbody></table>
<table>
<thead><tr><th style="text-align: center">a</th><th style="text-align: center">b</th></tr>
</thead><tbody><tr><td style="text-align: center">c</td><td style="text-align: center">d</td></tr>
</tbody></table>"##,
    );
}

#[test]
fn questions_and_headings_of_classes() {
    reads(
        r##"\begin{questions}\question[3] Why? \begin{parts}\part one \part two\end{parts}\question How? \begin{choices}\choice a \CorrectChoice b\end{choices}\end{questions}
\addsec{Added} \minisec{Small} Text."##,
        r##"<ol>
<li>(3 points) Why?<ol type="a">
<li>one</li>
<li>two</li>
</ol>
</li>
<li>How?<ol type="A">
<li>a</li>
<li>b</li>
</ol>
</li>
</ol>
<h1 class="unnumbered">Added</h1>
<p><strong>Small</strong></p>
<p>Text.</p>"##,
    );
}

#[test]
fn classes_of_journals_set_floats_and_say_what_they_refer_to() {
    reads(
        r##"\documentclass{jmlr}
\begin{document}
\begin{table}
\floatconts
  {tab:wells}
  {\caption{Wells of the isle}}
  {\begin{tabular}{ll}
  \bfseries Well & \bfseries Depth\\
  Quay & 4 m
  \end{tabular}}
\end{table}
\begin{lemma}[of the wells]\label{l}Deep.\end{lemma}
\begin{example}\label{e}One.\end{example}
See \tableref{tab:wells}, \lemmaref{l} and \exampleref{e}; \figureref{fig:a,fig:b}.
\begin{figure}\floatconts{fig:a}{\caption{One}}{\includegraphics{a.png}}\end{figure}
\begin{figure}\floatconts{fig:b}{\caption{Two}}{\includegraphics{b.png}}\end{figure}
\end{document}"##,
        r##"<table id="tab:wells">
<caption>Table&nbsp;1: Wells of the isle</caption>
<tbody><tr><td><strong>Well</strong></td><td><strong>Depth</strong></td></tr><tr><td>Quay</td><td>4 m</td></tr></tbody>
</table>
<div id="l" class="lemma"><p><strong>Lemma&nbsp;1</strong> (of the wells). Deep.</p></div>
<div id="e" class="example"><p><strong>Example&nbsp;1.</strong> One.</p></div>
<p>See <a href="#tab:wells">Table&nbsp;1</a>, <a href="#l">Lemma&nbsp;1</a> and <a href="#e">Example&nbsp;1</a>; Figures&nbsp;<a href="#fig:a">1</a> and <a href="#fig:b">2</a>.</p>
<figure id="fig:a"><figcaption>Figure&nbsp;1: One</figcaption><img src="a.png" alt=""></figure>
<figure id="fig:b"><figcaption>Figure&nbsp;2: Two</figcaption><img src="b.png" alt=""></figure>"##,
    );
}

#[test]
fn code_in_lines_stands_between_any_marks() {
    reads(
        r"A \lstinline|\foo x|, \lstinline[language=C]!int a;!, \verb+|+ and \lstinline{b_c}.",
        r"<p>A <code>\foo x</code>, <code>int a;</code>, <code>|</code> and <code>b_c</code>.</p>",
    );
}

#[test]
fn settings_of_commands_that_are_not_known_are_no_text() {
    reads(
        r"\nota[In short]{d} \draw[color=red, width=\linewidth]{e} \draw[3pt]{f} \gauge[tone=This is how you read it.]{g} \hkl[110], \req[\(x=y\)]{h}.",
        r#"<p>[In short]d e f [tone=This is how you read it.]g [110], [<code class="language-tex">x=y</code>]h.</p>"#,
    );
}

/// A comment in a formula makes it be read token by token; one that comes again is not written anew.
#[test]
fn formulas_are_the_same_whichever_way_they_are_read() {
    let pieces = |source: &str| -> Vec<String> {
        let page = convert(source, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
        let formulas = page.split("<math").skip(1).map(|rest| rest.split("<annotation").next().unwrap().to_owned());
        formulas.collect()
    };
    let mut compared = 0;
    for formula in include_str!("../data/formulas.txt").lines().filter(|line| !line.is_empty() && !line.starts_with("# ")) {
        // What shows a sign for the end of a formula in text of its own is read differently with each mark.
        if formula.contains('$') || formula.contains("\\(") || formula.contains('#') || formula.contains('%') {
            continue;
        }
        let read = pieces(&format!("\\({formula}\\), \\({formula}%\n\\), \\({formula}\\), ${formula}$, \\({{}}\\)"));
        assert_eq!(read.len(), 5, "{formula}");
        if read[0].contains("class=\"equation-number\"") {
            continue;
        }
        assert!(read[..4].iter().all(|one| *one == read[0]), "{formula}: {read:#?}");
        compared += 1;
    }
    assert!(compared > 500, "{compared}");
}

#[test]
fn courses_of_life_are_terms_with_what_is_said_of_them() {
    reads(
        r"\documentclass{moderncv}
\name{Ada}{Pask}\title{Tide reader}\address{1 Quay}{Kell}\email{ada@tides.example}\social[github]{adap}\quote{Twice a day.}
\begin{document}
\makecvtitle
\section{Work}
\cventry{2001--2003}{Reader}{Harbour Board}{Kell}{}{Read \emph{tides}.}
\cvitemwithcomment{Norn}{fluent}{first language}
\cvdoubleitem{a}{b}{c}{d}
\cvlistitem{one}\cvlistdoubleitem{two}{three}
\end{document}",
        r#"<h1>Ada Pask</h1>
<p>Tide reader</p>
<p>1 Quay, Kell<br>
<a href="mailto:ada@tides.example">ada@tides.example</a><br>
github: adap</p>
<p>Twice a day.</p>
<h2>Work</h2>
<dl>
<dt>2001–2003</dt>
<dd>
<p><strong>Reader</strong>, <em>Harbour Board</em>, Kell</p>
<p>Read <em>tides</em>.</p>
</dd>
<dt>Norn</dt>
<dd>fluent, first language</dd>
<dt>a</dt>
<dd>b</dd>
<dt>c</dt>
<dd>d</dd>
</dl>
<ul>
<li>one</li>
<li>two</li>
<li>three</li>
</ul>"#,
    );
}

#[test]
fn cells_are_in_several_rows_and_columns() {
    let expected = r#"<table><tbody>
<tr><td colspan="2" rowspan="2" style="text-align: center">ab</td><td>c</td></tr>
<tr><td>d</td></tr>
<tr><td>e</td><td>f</td><td>g</td></tr>
</tbody></table>"#;
    reads(r"\begin{tblr}{lll}\SetCell[r=2,c=2]{c} ab & & c\\ & & d\\ e & f & g\end{tblr}", expected);
    reads(r"\begin{NiceTabular}{lll}\Block{2-2}{ab} & & c\\ & & d\\ e & f & g\end{NiceTabular}", expected);
}

#[test]
fn of_commands_that_are_not_known_the_text_of_arguments_is_kept() {
    reads(
        r"\foo[a=b,c={d e f},%
 g=h]{text} \foo[12pt]{z} \foo[a note of many words = here]{w} \foo{one}{two}{\bar{three}{four}}.",
        "<p>d e f text z [a note of many words = here]w one two three four.</p>",
    );
}

/// Parts of figures, algorithms and code with captions are floats when they come back from a page.
#[test]
fn floats_come_back_as_what_they_were() {
    let source = r"\documentclass{article}\usepackage{subcaption,algorithm,algpseudocode,listings}\begin{document}
\begin{figure}\begin{subfigure}{.4\textwidth}X\caption{One}\label{a}\end{subfigure}\begin{subfigure}{.4\textwidth}Y\caption{Two}\end{subfigure}\caption{All}\label{b}\end{figure}
\begin{algorithm}\caption{Sort}\label{s}\begin{algorithmic}\State wait\end{algorithmic}\end{algorithm}
\begin{lstlisting}[caption=Wait,label=l]
wait
\end{lstlisting}
See \ref{a}, \subref{a}, \ref{b}, \ref{s} and \ref{l}.\end{document}";
    let page = convert(source, Format::Latex, Format::Html, &[]).into_text().unwrap();
    let latex = convert(&page, Format::Html, Format::Latex, &["shape=page"]).into_text().unwrap();
    for expected in [
        "\\begin{subfigure}[t]{0.48\\linewidth}\n\\centering\nX\n\\caption{One}\\label{a}\n\\end{subfigure}\\hfill\n\\begin{subfigure}",
        "\\caption{All}\\label{b}\n\\end{figure}",
        "\\begin{algorithm}[htbp]\n\\caption{Sort}\\label{s}\n\n\\begin{pseudocode}\n\\item wait\n\\end{pseudocode}\n\\end{algorithm}",
        "\\begin{listing}[htbp]\n\\begin{verbatim}\nwait\n\\end{verbatim}\n\\caption{Wait}\\label{l}\n\\end{listing}",
        "See \\ref{a}, \\subref{a}, \\ref{b}, \\ref{s} and \\ref{l}.",
    ] {
        assert!(latex.contains(expected), "{expected}\n\n{latex}");
    }
}

/// A long table without a number is none that the engine counts: the numbers behind it are those that the text has.
#[test]
fn long_tables_count_as_their_captions_say() {
    let rows = "<tr><td>a</td><td>b</td></tr>".repeat(40);
    let page = format!(
        "<h1>T</h1><table>{rows}</table><table><caption>No number</caption>{rows}</table><table id=t><caption>Table\u{A0}1: \
         Long</caption>{rows}</table><table><caption>Table\u{A0}2: Short</caption><tr><td>a</td></tr></table><p><a href='#t'>1</a>"
    );
    let latex = convert(&page, Format::Html, Format::Latex, &["shape=page"]).into_text().unwrap();
    let lines: Vec<&str> = latex.lines().filter(|line| line.contains("{longtable") || line.contains("\\caption")).collect();
    assert_eq!(
        lines,
        [
            "\\usepackage{longtable}",
            "\\begin{longtable*}{ll}",
            "\\end{longtable*}",
            "\\begin{longtable*}{ll}",
            "\\caption*{No number} \\\\",
            "\\end{longtable*}",
            "\\begin{longtable}{ll}",
            "\\caption{Long}\\label{t} \\\\",
            "\\end{longtable}",
            "\\caption{Short}",
        ]
    );
}
