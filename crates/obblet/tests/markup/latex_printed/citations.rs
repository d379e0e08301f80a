//! Citations and lists of entries, as the engine prints them with the programs that sort entries: what is expected is that, but for
//! numbers of entries, which have full stops, and for what styles leave out of an entry that is given (subtitles, places, addresses).
#![allow(clippy::unwrap_used, reason = "tests")]

use crate::support::folder::Folder;
use crate::support::linear::grows_linearly;
use obblet::Format;
use obblet::formats::latex;
use obblet::media::{FilesAround, MemoryMedia};
use obblet::profile::Profile;

/// What is printed for texts with the same class and preamble.
struct Cited {
    preamble: &'static str,
    lines: &'static [(&'static str, &'static str)],
}

const ENTRIES: &str = r#"@string{jt = "Journal of Tides"}
@article{pask2001, author={Pask, Orla}, title={Harmonic Tables for the {Orrin} Sound}, journal=jt, volume=3, number=2, pages={14--29}, year=2001, doi={10.5555/tide.2001}}
@article{pask2003, author={Pask, Orla and Venn, Tamsin}, title={Storm Surges at {Kell} Harbour}, journal=jt, volume=5, pages={101--118}, year=2003}
@article{pask2003b, author={Pask, Orla and Venn, Tamsin}, title={A Second Look at Storm Surges}, journal=jt, volume=5, pages={201--208}, year=2003}
@book{drew1987, author={Drew, Ivo and Lahn, Mette and Soll, Pia}, title={The Pilot's Almanac}, subtitle={Tides and Lights}, publisher={Harbour Press}, address={Kell}, year=1987, edition={2}}
@book{marr1999, editor={Marr, Jonna}, title={Coasts}, publisher={Sound Books}, location={Orrin}, year=1999}
@inproceedings{four2010, author={Adde, Bo and Bryn, Cai and Corl, Dee and Durn, Eve}, title={Gauges in Ice}, booktitle={Proceedings of the Second Meeting on Gauges}, pages={7--12}, year=2010, editor={Marr, Jonna}, publisher={Sound Books}}
@incollection{quill2005, author={von Quill, Ruth}, title={Lights of the North}, booktitle={Coasts and Lights}, editor={Marr, Jonna and Pask, Orla}, pages={55--60}, publisher={Sound Books}, year=2005}
@phdthesis{zell2012, author={Zell, Aron}, title={Tides of a Shelf Sea}, school={University of Kell}, year=2012}
@techreport{board1975, author={{Harbour Board of Kell}}, title={Yearly Report}, institution={Harbour Board}, number={12}, year=1975}
@misc{nodate, author={Ebb, Lio}, title={Notes on Ebb}, howpublished={Leaflet}}
@online{web2020, author={Venn, Tamsin}, title={Tide Charts}, url={https://tides.example/charts}, urldate={2020-05-04}, year=2020}
@unpublished{lahn1990, author={Lahn, Mette}, title={Logs of a Pilot}, note={In preparation}, year=1990}
@article{dated2015, author={Soll, Pia}, title={Dated}, journal=jt, date={2015-03-12}}
"#;

const CITED: &[Cited] = &[
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=numeric]{biblatex}\addbibresource{refs.bib}",
        lines: &[
            (
                r"A \cite{pask2003,pask2001,drew1987} B \cite[12]{pask2001} C \cite[see][12--14]{drew1987} D \parencite{zell2012} E \textcite{pask2003} F \citeauthor{four2010} G \citeyear{four2010} H \citetitle{drew1987}",
                "A [4, 3, 2] B [3, p. 12] C [see 2, pp. 12–14] D [5] E Pask and Venn [4] F Adde et al. G 2010 H The Pilot’s Almanac",
            ),
            (
                r"A \supercite{pask2001} B \autocite{drew1987}. C \footcite[5]{pask2001} D",
                "A 2 B [1]. C (note 1) D (note 1) 2, p. 5.",
            ),
            (
                r"A \cites[1]{pask2001}[2]{drew1987} B \parencites(see)(there){pask2001}[3]{drew1987} C \textcites{pask2001}{drew1987}",
                "A [2, p. 1, 1, p. 2] B [see 2, 1, p. 3, there] C Pask [2] and Drew, Lahn, and Soll [1]",
            ),
            (
                r"A \fullcite{pask2001} B \footfullcite{drew1987}",
                "A Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1] B (note 1) (note 1) Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"A \textcite[5]{pask2001} B \textcite{pask2001,drew1987,four2010} C \citeauthor{board1975} D \textcite{nodate} E \cite[cf.][]{pask2001}",
                "A Pask [5, p. 5] B Pask [5], Drew, Lahn, and Soll [2], and Adde et al. [1] C Harbour Board of Kell D Ebb [3] E [cf. 5]",
            ),
            (
                r"\nocite{*}\printbibliography",
                "References ========== 1. Bo Adde et al. “Gauges in Ice”. In: Proceedings of the Second Meeting on Gauges. Ed. by Jonna Marr. Sound Books, 2010, pp. 7–12. 2. Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. 3. Lio Ebb. Notes on Ebb. Leaflet. 4. Harbour Board of Kell. Yearly Report. Tech. rep. 12. Harbour Board, 1975. 5. Mette Lahn. “Logs of a Pilot”. In preparation. 1990. 6. Jonna Marr, ed. Coasts. Orrin: Sound Books, 1999. 7. Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. 8. Orla Pask and Tamsin Venn. “A Second Look at Storm Surges”. In: Journal of Tides 5 (2003), pp. 201–208. 9. Orla Pask and Tamsin Venn. “Storm Surges at Kell Harbour”. In: Journal of Tides 5 (2003), pp. 101–118. 10. Ruth von Quill. “Lights of the North”. In: Coasts and Lights. Ed. by Jonna Marr and Orla Pask. Sound Books, 2005, pp. 55–60. 11. Pia Soll. “Dated”. In: Journal of Tides (Mar. 12, 2015). 12. Tamsin Venn. Tide Charts. 2020. url: https://tides.example/charts (visited on 05/04/2020). 13. Aron Zell. “Tides of a Shelf Sea”. PhD thesis. University of Kell, 2012. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\cite{pask2001,drew1987}\printbibliography[title={What We Read}]",
                "[2, 1] What We Read ============ 1. Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. 2. Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\cite{pask2001,drew1987}\printbibliography[heading=none]",
                "[2, 1] 1. Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. 2. Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\cite{pask2001,drew1987,marr1999}\printbibliography[type=book,title={Books}]\printbibliography[nottype=book,title={Other}]",
                "[3, 1, 2] Books ===== 1. Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. 2. Jonna Marr, ed. Coasts. Orrin: Sound Books, 1999. Other ===== - [3] Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\section{A}\cite{pask2001,drew1987}\printbibliography[heading=subbibliography,title={Sub}]",
                "1 A === [2, 1] Sub --- 1. Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. 2. Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\section{A}\cite{pask2001,drew1987}\printbibliography[heading=bibnumbered]",
                "1 A === [2, 1] 2 References ============ 1. Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. 2. Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"A \Cite{pask2001} B \Textcite{quill2005} C \textcite{quill2005} D \Citeauthor{quill2005} E \citeauthor*{four2010} F \cite*{pask2001} G \parencite*{pask2001}",
                "A [2] B Quill [3] C Quill [3] D Quill E Adde et al. F [2] G [2]",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=authoryear]{biblatex}\addbibresource{refs.bib}",
        lines: &[
            (
                r"A \cite{pask2003,pask2001,drew1987} B \cite[12]{pask2001} C \parencite[see][12--14]{drew1987} D \parencite{zell2012} E \textcite{pask2003} F \citeauthor{four2010} G \citeyear{four2010} H \citetitle{drew1987} I \parencite*{pask2003b}",
                "A Pask and Venn 2003b; Pask 2001; Drew, Lahn, and Soll 1987 B Pask 2001, p. 12 C (see Drew, Lahn, and Soll 1987, pp. 12–14) D (Zell 2012) E Pask and Venn (2003b) F Adde et al. G 2010 H The Pilot’s Almanac I (2003a)",
            ),
            (
                r"A \textcite[5]{pask2001} B \textcite{pask2001,drew1987,four2010} C \citeauthor{board1975} D \textcite{nodate} E \parencite[cf.][]{pask2001} F \parencite{pask2003,pask2003b} G \textcite{pask2003,pask2003b}",
                "A Pask (2001, p. 5) B Pask (2001), Drew, Lahn, and Soll (1987), and Adde et al. (2010) C Harbour Board of Kell D Ebb (n.d.) E (cf. Pask 2001) F (Pask and Venn 2003b; Pask and Venn 2003a) G Pask and Venn (2003b) and Pask and Venn (2003a)",
            ),
            (
                r"A \autocite[12]{pask2001} B \autocites{pask2001}[3]{drew1987} C \footcite{pask2001} D \citeyearpar{pask2001} F \parencite{marr1999} G \textcite{quill2005} H \Textcite{quill2005}",
                "A (Pask 2001, p. 12) B (Pask 2001; Drew, Lahn, and Soll 1987, p. 3) C (note 1) D (2001) F (Marr 1999) G Quill (2005) H Quill (2005) (note 1) Pask 2001.",
            ),
            (
                r"A \parencites(see)(there){pask2001}[3]{drew1987} B \textcites{pask2001}{drew1987} C \cites{pask2001}{zell2012}",
                "A (see Pask 2001; Drew, Lahn, and Soll 1987, p. 3, there) B Pask (2001) and Drew, Lahn, and Soll (1987) C Pask 2001; Zell 2012",
            ),
            (
                r"\nocite{*}\printbibliography",
                "References ========== - Adde, Bo et al. (2010). “Gauges in Ice”. In: Proceedings of the Second Meeting on Gauges. Ed. by Jonna Marr. Sound Books, pp. 7–12. - Drew, Ivo, Mette Lahn, and Pia Soll (1987). The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press. - Ebb, Lio (n.d.). Notes on Ebb. Leaflet. - Harbour Board of Kell (1975). Yearly Report. Tech. rep. 12. Harbour Board. - Lahn, Mette (1990). “Logs of a Pilot”. In preparation. - Marr, Jonna, ed. (1999). Coasts. Orrin: Sound Books. - Pask, Orla (2001). “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2, pp. 14–29. doi: 10.5555/tide.2001 [1]. - Pask, Orla and Tamsin Venn (2003a). “A Second Look at Storm Surges”. In: Journal of Tides 5, pp. 201–208. - Pask, Orla and Tamsin Venn (2003b). “Storm Surges at Kell Harbour”. In: Journal of Tides 5, pp. 101–118. - Quill, Ruth von (2005). “Lights of the North”. In: Coasts and Lights. Ed. by Jonna Marr and Orla Pask. Sound Books, pp. 55–60. - Soll, Pia (2015). “Dated”. In: Journal of Tides. - Venn, Tamsin (2020). Tide Charts. url: https://tides.example/charts (visited on 05/04/2020). - Zell, Aron (2012). “Tides of a Shelf Sea”. PhD thesis. University of Kell. [1] https://doi.org/10.5555/tide.2001",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=alphabetic]{biblatex}\addbibresource{refs.bib}",
        lines: &[
            (
                r"A \cite{pask2003,pask2001,drew1987} B \cite[12]{pask2001} C \textcite{four2010} D \cite{pask2003b} E \cite{board1975} F \cite{quill2005} G \parencite{nodate}",
                "A [PV03b; Pas01; DLS87] B [Pas01, p. 12] C Adde et al. [Add+10] D [PV03a] E [Har75] F [Qui05] G [Ebb]",
            ),
            (
                r"\nocite{*}\printbibliography",
                "References ========== - [Add+10] Bo Adde et al. “Gauges in Ice”. In: Proceedings of the Second Meeting on Gauges. Ed. by Jonna Marr. Sound Books, 2010, pp. 7–12. - [DLS87] Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. - [Ebb] Lio Ebb. Notes on Ebb. Leaflet. - [Har75] Harbour Board of Kell. Yearly Report. Tech. rep. 12. Harbour Board, 1975. - [Lah90] Mette Lahn. “Logs of a Pilot”. In preparation. 1990. - [Mar99] Jonna Marr, ed. Coasts. Orrin: Sound Books, 1999. - [Pas01] Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. - [PV03a] Orla Pask and Tamsin Venn. “A Second Look at Storm Surges”. In: Journal of Tides 5 (2003), pp. 201–208. - [PV03b] Orla Pask and Tamsin Venn. “Storm Surges at Kell Harbour”. In: Journal of Tides 5 (2003), pp. 101–118. - [Qui05] Ruth von Quill. “Lights of the North”. In: Coasts and Lights. Ed. by Jonna Marr and Orla Pask. Sound Books, 2005, pp. 55–60. - [Sol15] Pia Soll. “Dated”. In: Journal of Tides (Mar. 12, 2015). - [Ven20] Tamsin Venn. Tide Charts. 2020. url: https://tides.example/charts (visited on 05/04/2020). - [Zel12] Aron Zell. “Tides of a Shelf Sea”. PhD thesis. University of Kell, 2012. [1] https://doi.org/10.5555/tide.2001",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=numeric-comp,sorting=none]{biblatex}\addbibresource{refs.bib}",
        lines: &[
            (
                r"A \cite{zell2012} B \cite{pask2003,pask2001,drew1987} C \cite{pask2001,zell2012,four2010,drew1987}",
                "A [1] B [2–4] C [1, 3–5]",
            ),
            (
                r"\cite{zell2012}\cite{pask2001} \printbibliography",
                "[1][2] References ========== 1. Aron Zell. “Tides of a Shelf Sea”. PhD thesis. University of Kell, 2012. 2. Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. [1] https://doi.org/10.5555/tide.2001",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=authoryear-comp]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"A \parencite{pask2003,pask2003b,pask2001,drew1987} B \textcite{pask2001,pask2003} C \cite{zell2012,drew1987}",
            "A (Drew, Lahn, and Soll 1987; Pask 2001; Pask and Venn 2003a,b) B Pask (2001) and Pask and Venn (2003b) C Drew, Lahn, and Soll 1987; Zell 2012",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=apa]{biblatex}\addbibresource{refs.bib}",
        lines: &[
            (
                r"A \parencite{pask2003} B \textcite{pask2003} C \parencite[p.~3]{four2010} D \textcite{four2010} \parencite{drew1987}",
                "A (Pask & Venn, 2003) B Pask and Venn (2003) C (Adde et al., 2010, p. 3) D Adde et al. (2010) (Drew et al., 1987)",
            ),
            (
                r"\nocite{pask2001,drew1987,four2010,web2020}\printbibliography",
                "References ========== - Adde, B., Bryn, C., Corl, D., & Durn, E. (2010). Gauges in Ice. In J. Marr (Ed.), Proceedings of the Second Meeting on Gauges (pp. 7–12). Sound Books. - Drew, I., Lahn, M., & Soll, P. (1987). The Pilot’s Almanac: Tides and Lights (2nd ed.). Harbour Press. - Pask, O. (2001). Harmonic Tables for the Orrin Sound. Journal of Tides, 3(2), 14–29. https://doi.org/10.5555/tide.2001 - Venn, T. (2020). Tide Charts. https://tides.example/charts",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=ieee]{biblatex}\addbibresource{refs.bib}",
        lines: &[
            (r"A \cite{zell2012} B \cite{pask2003,pask2001,drew1987} C \cite[3]{pask2001}", "A [1] B [2]–[4] C [3, p. 3]"),
            (
                r"\nocite{pask2001,drew1987,four2010,web2020}\printbibliography",
                "References ========== 1. O. Pask, “Harmonic Tables for the Orrin Sound,” Journal of Tides, vol. 3, no. 2, pp. 14–29, 2001. doi: 10.5555/tide.2001 [1]. 2. I. Drew, M. Lahn, and P. Soll, The Pilot’s Almanac: Tides and Lights, 2nd ed. Kell: Harbour Press, 1987. 3. B. Adde, C. Bryn, D. Corl, and E. Durn, “Gauges in Ice,” in Proceedings of the Second Meeting on Gauges, J. Marr, Ed. Sound Books, 2010, pp. 7–12. 4. T. Venn, “Tide Charts,” 2020. [Online]. Available: https://tides.example/charts (visited on 05/04/2020). [1] https://doi.org/10.5555/tide.2001",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=verbose]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"A\footcite{pask2001} B\footcite{pask2001} C \cite{drew1987} D\autocite[3]{four2010}.",
            "A (note 1) B (note 2) C Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987 D. (note 3) (note 1) Orla Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. (note 2) Pask, “Harmonic Tables for the Orrin Sound”. (note 3) Bo Adde et al. “Gauges in Ice”. In: Proceedings of the Second Meeting on Gauges. Ed. by Jonna Marr. Sound Books, 2010, pp. 7–12, p. 3. [1] https://doi.org/10.5555/tide.2001",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[backend=biber,style=authortitle]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"A \cite{pask2001} B \textcite{drew1987} C\footcite[4]{drew1987} D \parencite{four2010}",
            "A Pask, “Harmonic Tables for the Orrin Sound” B Drew, Lahn, and Soll (The Pilot’s Almanac) C (note 1) D (Adde et al., “Gauges in Ice”) (note 1) Drew, Lahn, and Soll, The Pilot’s Almanac, p. 4.",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[autocite=superscript]{biblatex}\addbibresource{refs.bib}",
        lines: &[(r"A.\autocite{pask2001} B\autocite{pask2001,drew1987} C \autocite[3]{pask2001}", "A.2 B2,1 C^2")],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[autocite=footnote,style=authoryear]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"A.\autocite{pask2001} B \autocite[see][5]{drew1987}.",
            "A. (note 1) B. (note 2) (note 1) Pask 2001. (note 2) see Drew, Lahn, and Soll 1987, p. 5.",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[natbib=true,style=authoryear]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"A \citet{pask2001} B \citep[see][5]{drew1987} C \citealp{pask2003} D \citet[5]{pask2001} E \citep{pask2001,pask2003}",
            "A Pask (2001) B (see Drew, Lahn, and Soll, 1987, p. 5) C Pask and Venn, 2003 D Pask (2001, p. 5) E (Pask, 2001; Pask and Venn, 2003)",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage{natbib}\bibliographystyle{plainnat}",
        lines: &[
            (
                r"A \cite{pask2001} B \citet{pask2003} C \citep{drew1987} D \citep[see][12]{pask2001} E \citet[p.~3]{pask2001} F \citealt{four2010} G \citealp{four2010} H \citet*{four2010} I \citep*{drew1987}",
                "A Pask [2001] B Pask and Venn [2003] C [Drew et al., 1987] D [see Pask, 2001, 12] E Pask [2001, p. 3] F Adde et al. 2010 G Adde et al., 2010 H Adde, Bryn, Corl, and Durn [2010] I [Drew, Lahn, and Soll, 1987]",
            ),
            (
                r"A \citep{pask2001,pask2003,pask2003b,drew1987} B \citet{pask2001,pask2003} C \citeauthor{pask2003} D \citeyear{pask2003} E \citeyearpar{pask2003b} F \citeauthor*{four2010} G \citep{nodate} H \citep{board1975} I \citep[see][]{pask2001} J \citetext{see \citealp{pask2001}} K \citep{marr1999}",
                "A [Pask, 2001, Pask and Venn, 2003a,b, Drew et al., 1987] B Pask [2001], Pask and Venn [2003a] C Pask and Venn D 2003a E [2003b] F Adde, Bryn, Corl, and Durn G [Ebb] H [Harbour Board of Kell, 1975] I [see Pask, 2001] J [see Pask, 2001] K [Marr, 1999]",
            ),
            (
                r"A \Citet{quill2005} B \citet{quill2005} C \Citep{quill2005} D \citefullauthor{drew1987} E \citenum{drew1987} F \citealt[3]{drew1987} G \citealp[see][4]{drew1987} H \citet[see][]{drew1987}",
                "A Von Quill [2005] B von Quill [2005] C [Von Quill, 2005] D Drew, Lahn, and Soll E 1 F Drew et al. 1987, 3 G see Drew et al., 1987, 4 H Drew et al. [see 1987]",
            ),
            (
                r"\nocite{*}",
                "References ========== - Bo Adde, Cai Bryn, Dee Corl, and Eve Durn. Gauges in Ice. In Jonna Marr, editor, Proceedings of the Second Meeting on Gauges, pages 7–12. Sound Books, 2010. - Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac: Tides and Lights. Harbour Press, Kell, 2nd edition, 1987. - Lio Ebb. Notes on Ebb. Leaflet. - Harbour Board of Kell. Yearly Report. Technical Report 12, Harbour Board, 1975. - Mette Lahn. Logs of a Pilot. In preparation, 1990. - Jonna Marr, editor. Coasts. Sound Books, Orrin, 1999. - Orla Pask. Harmonic Tables for the Orrin Sound. Journal of Tides, 3(2):14–29, 2001. doi: 10.5555/tide.2001 [1]. - Orla Pask and Tamsin Venn. Storm Surges at Kell Harbour. Journal of Tides, 5:101–118, 2003a. - Orla Pask and Tamsin Venn. A Second Look at Storm Surges. Journal of Tides, 5:201–208, 2003b. - Pia Soll. Dated. Journal of Tides, March 12, 2015. - Tamsin Venn. Tide Charts, 2020. URL https://tides.example/charts. - Ruth von Quill. Lights of the North. In Jonna Marr and Orla Pask, editors, Coasts and Lights, pages 55–60. Sound Books, 2005. - Aron Zell. Tides of a Shelf Sea. PhD thesis, University of Kell, 2012. [1] https://doi.org/10.5555/tide.2001",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[numbers]{natbib}\bibliographystyle{plainnat}",
        lines: &[(
            r"A \cite{pask2003,pask2001,drew1987} B \citet{pask2003} C \citep[see][12]{drew1987} D \citealp{four2010} E \citeauthor{drew1987} F \citeyear{drew1987} G \citet[3]{pask2001} H \citet{pask2001,drew1987}",
            "A [4, 3, 2] B Pask and Venn [4] C [see 2, 12] D 1 E Drew et al. F 1987 G Pask [3, 3] H Pask [3], Drew et al. [2]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[numbers,sort&compress]{natbib}\bibliographystyle{plainnat}",
        lines: &[(
            r"A \cite{pask2003,pask2001,drew1987} B \citep{zell2012,pask2003,pask2001,drew1987,pask2003b} C \citep[see][3]{drew1987,board1975}",
            "A [1, 3, 4] B [1, 3–6] C [see 1, 2, 3]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[super]{natbib}\bibliographystyle{unsrtnat}",
        lines: &[(r"A.\cite{pask2003,pask2001} B \citet{pask2003} C\citep[12]{drew1987}", "A.1,2 B Pask and Venn^1 C^3 12")],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[round,sort]{natbib}\bibliographystyle{plainnat}",
        lines: &[(
            r"A \citep{pask2003,pask2001,drew1987} B \citet{pask2003,pask2001}",
            "A (Drew et al., 1987; Pask, 2001; Pask and Venn, 2003) B Pask (2001); Pask and Venn (2003)",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[square]{natbib}\bibliographystyle{plainnat}",
        lines: &[(
            r"A \citep{pask2003,pask2001,drew1987} B \citet{pask2003,pask2001}",
            "A [Pask and Venn, 2003; Pask, 2001; Drew et al., 1987] B Pask and Venn [2003]; Pask [2001]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[comma,sectionbib]{natbib}\bibliographystyle{plainnat}\setcitestyle{notesep={; },aysep={;}}",
        lines: &[(
            r"A \citep{pask2003,drew1987} B \citep[see][5]{pask2003,pask2001}",
            "A (Pask and Venn; 2003, Drew et al.; 1987) B (see Pask and Venn; 2003, Pask; 2001; 5)",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage{cite}\bibliographystyle{plain}",
        lines: &[(
            r"A \cite{pask2003,pask2001,drew1987} B \cite[5]{zell2012} C \cite{zell2012,pask2003,pask2001,drew1987,pask2003b}",
            "A [1, 2, 4] B [5, 5] C [1–5]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[superscript]{cite}\bibliographystyle{plain}",
        lines: &[(r"A.\cite{pask2003,pask2001,drew1987} B \cite{zell2012}, C \citen{pask2001}", "A.1–3 B,4 C 2")],
    },
    Cited {
        preamble: r"\documentclass{article}",
        lines: &[
            (
                r"A \cite{pask2003,pask2001,drew1987} B \cite[5]{zell2012} C \cite[see][p.~3]{zell2012}\bibliographystyle{plain}",
                "A [3, 2, 1] B [4, 5] C [see 4, p. 3]",
            ),
            (
                r"\nocite{*}\bibliographystyle{plain}",
                "References ========== 1. Bo Adde, Cai Bryn, Dee Corl, and Eve Durn. Gauges in Ice. In Jonna Marr, editor, Proceedings of the Second Meeting on Gauges, pages 7–12. Sound Books, 2010. 2. Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac: Tides and Lights. Harbour Press, Kell, 2nd edition, 1987. 3. Lio Ebb. Notes on Ebb. Leaflet. 4. Harbour Board of Kell. Yearly Report. Technical Report 12, Harbour Board, 1975. 5. Mette Lahn. Logs of a Pilot. In preparation, 1990. 6. Jonna Marr, editor. Coasts. Sound Books, Orrin, 1999. 7. Orla Pask. Harmonic Tables for the Orrin Sound. Journal of Tides, 3(2):14–29, 2001. doi: 10.5555/tide.2001 [1]. 8. Orla Pask and Tamsin Venn. A Second Look at Storm Surges. Journal of Tides, 5:201–208, 2003. 9. Orla Pask and Tamsin Venn. Storm Surges at Kell Harbour. Journal of Tides, 5:101–118, 2003. 10. Pia Soll. Dated. Journal of Tides, March 12, 2015. 11. Tamsin Venn. Tide Charts, 2020. URL https://tides.example/charts. 12. Ruth von Quill. Lights of the North. In Jonna Marr and Orla Pask, editors, Coasts and Lights, pages 55–60. Sound Books, 2005. 13. Aron Zell. Tides of a Shelf Sea. PhD thesis, University of Kell, 2012. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\nocite{*}\bibliographystyle{alpha}",
                "References ========== - [ABCD10] Bo Adde, Cai Bryn, Dee Corl, and Eve Durn. Gauges in Ice. In Jonna Marr, editor, Proceedings of the Second Meeting on Gauges, pages 7–12. Sound Books, 2010. - [DLS87] Ivo Drew, Mette Lahn, and Pia Soll. The Pilot’s Almanac: Tides and Lights. Harbour Press, Kell, 2nd edition, 1987. - [Ebb] Lio Ebb. Notes on Ebb. Leaflet. - [Har75] Harbour Board of Kell. Yearly Report. Technical Report 12, Harbour Board, 1975. - [Lah90] Mette Lahn. Logs of a Pilot. In preparation, 1990. - [Mar99] Jonna Marr, editor. Coasts. Sound Books, Orrin, 1999. - [Pas01] Orla Pask. Harmonic Tables for the Orrin Sound. Journal of Tides, 3(2):14–29, 2001. doi: 10.5555/tide.2001 [1]. - [PV03a] Orla Pask and Tamsin Venn. A Second Look at Storm Surges. Journal of Tides, 5:201–208, 2003. - [PV03b] Orla Pask and Tamsin Venn. Storm Surges at Kell Harbour. Journal of Tides, 5:101–118, 2003. - [Sol15] Pia Soll. Dated. Journal of Tides, March 12, 2015. - [Ven20] Tamsin Venn. Tide Charts, 2020. URL https://tides.example/charts. - [vQ05] Ruth von Quill. Lights of the North. In Jonna Marr and Orla Pask, editors, Coasts and Lights, pages 55–60. Sound Books, 2005. - [Zel12] Aron Zell. Tides of a Shelf Sea. PhD thesis, University of Kell, 2012. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\nocite{*}\bibliographystyle{abbrv}",
                "References ========== 1. B. Adde, C. Bryn, D. Corl, and E. Durn. Gauges in Ice. In J. Marr, editor, Proceedings of the Second Meeting on Gauges, pages 7–12. Sound Books, 2010. 2. I. Drew, M. Lahn, and P. Soll. The Pilot’s Almanac: Tides and Lights. Harbour Press, Kell, 2nd edition, 1987. 3. L. Ebb. Notes on Ebb. Leaflet. 4. Harbour Board of Kell. Yearly Report. Technical Report 12, Harbour Board, 1975. 5. M. Lahn. Logs of a Pilot. In preparation, 1990. 6. J. Marr, editor. Coasts. Sound Books, Orrin, 1999. 7. O. Pask. Harmonic Tables for the Orrin Sound. Journal of Tides, 3(2):14–29, 2001. doi: 10.5555/tide.2001 [1]. 8. O. Pask and T. Venn. A Second Look at Storm Surges. Journal of Tides, 5:201–208, 2003. 9. O. Pask and T. Venn. Storm Surges at Kell Harbour. Journal of Tides, 5:101–118, 2003. 10. P. Soll. Dated. Journal of Tides, March 12, 2015. 11. T. Venn. Tide Charts, 2020. URL https://tides.example/charts. 12. R. von Quill. Lights of the North. In J. Marr and O. Pask, editors, Coasts and Lights, pages 55–60. Sound Books, 2005. 13. A. Zell. Tides of a Shelf Sea. PhD thesis, University of Kell, 2012. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"A \cite{pask2003,pask2001,drew1987} B \cite[5]{zell2012}\bibliographystyle{alpha}",
                "A [PV03, Pas01, DLS87] B [Zel12, 5]",
            ),
            (
                r"\nocite{*}\bibliographystyle{IEEEtran}",
                "References ========== 1. O. Pask, “Harmonic Tables for the Orrin Sound,” Journal of Tides, vol. 3, no. 2, pp. 14–29, 2001. doi: 10.5555/tide.2001 [1]. 2. O. Pask and T. Venn, “Storm Surges at Kell Harbour,” Journal of Tides, vol. 5, pp. 101–118, 2003. 3. O. Pask and T. Venn, “A Second Look at Storm Surges,” Journal of Tides, vol. 5, pp. 201–208, 2003. 4. I. Drew, M. Lahn, and P. Soll, The Pilot’s Almanac: Tides and Lights, 2nd ed. Kell: Harbour Press, 1987. 5. J. Marr, Ed. Coasts. Orrin: Sound Books, 1999. 6. B. Adde, C. Bryn, D. Corl, and E. Durn, “Gauges in Ice,” in Proceedings of the Second Meeting on Gauges, J. Marr, Ed. Sound Books, 2010, pp. 7–12. 7. R. von Quill, “Lights of the North,” in Coasts and Lights, J. Marr and O. Pask, Eds. Sound Books, 2005, pp. 55–60. 8. A. Zell, “Tides of a Shelf Sea,” Ph.D. dissertation, University of Kell, 2012. 9. Harbour Board of Kell, “Yearly Report,” Harbour Board, Tech. Rep. 12, 1975. 10. L. Ebb, “Notes on Ebb,” Leaflet. 11. T. Venn, “Tide Charts,” 2020. [Online]. Available: https://tides.example/charts (visited on 05/04/2020). 12. M. Lahn, “Logs of a Pilot,” In preparation, 1990. 13. P. Soll, “Dated,” Journal of Tides, March 12, 2015. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"\nocite{*}\bibliographystyle{apalike}",
                "References ========== - Adde, B., Bryn, C., Corl, D., and Durn, E. (2010). Gauges in Ice. In Marr, J., editor, Proceedings of the Second Meeting on Gauges, pages 7–12. Sound Books. - Drew, I., Lahn, M., and Soll, P. (1987). The Pilot’s Almanac: Tides and Lights. Harbour Press, Kell, 2nd edition. - Ebb, L. Notes on Ebb. Leaflet. - Harbour Board of Kell (1975). Yearly Report. Technical Report 12, Harbour Board. - Lahn, M. (1990). Logs of a Pilot. In preparation. - Marr, J., editor (1999). Coasts. Sound Books, Orrin. - Pask, O. (2001). Harmonic Tables for the Orrin Sound. Journal of Tides, 3(2):14–29. doi: 10.5555/tide.2001 [1]. - Pask, O. and Venn, T. (2003a). A Second Look at Storm Surges. Journal of Tides, 5:201–208. - Pask, O. and Venn, T. (2003b). Storm Surges at Kell Harbour. Journal of Tides, 5:101–118. - Soll, P. (2015). Dated. Journal of Tides. - Venn, T. (2020). Tide Charts. URL https://tides.example/charts. - von Quill, R. (2005). Lights of the North. In Marr, J. and Pask, O., editors, Coasts and Lights, pages 55–60. Sound Books. - Zell, A. (2012). Tides of a Shelf Sea. PhD thesis, University of Kell. [1] https://doi.org/10.5555/tide.2001",
            ),
            (
                r"A \cite{pask2003,drew1987} B \cite{four2010}\bibliographystyle{apalike}",
                "A [Pask and Venn, 2003, Drew et al., 1987] B [Adde et al., 2010]",
            ),
        ],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[ngerman]{babel}\usepackage[style=authoryear]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"A \textcite[5]{pask2001} B \parencite[12--14]{drew1987} C \textcite{nodate} D \textcite{four2010}",
            "A Pask (2001, S. 5) B (Drew, Lahn und Soll 1987, S. 12–14) C Ebb (o. D.) D Adde u. a. (2010)",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[french]{babel}\usepackage[style=numeric]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"A \cite[5]{pask2001} B \parencite[12--14]{drew1987} C \textcite{pask2003} D \textcite{four2010}",
            "A [3, p. 5] B [2, p. 12–14] C Pask et Venn [4] D Adde et al. [1]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[style=numeric,maxbibnames=99,giveninits=true,sorting=ydnt]{biblatex}\addbibresource{refs.bib}",
        lines: &[(
            r"\nocite{*}\printbibliography",
            "References ========== 1. L. Ebb. Notes on Ebb. Leaflet. 2. T. Venn. Tide Charts. 2020. url: https://tides.example/charts (visited on 05/04/2020). 3. P. Soll. “Dated”. In: Journal of Tides (Mar. 12, 2015). 4. A. Zell. “Tides of a Shelf Sea”. PhD thesis. University of Kell, 2012. 5. B. Adde, C. Bryn, D. Corl, and E. Durn. “Gauges in Ice”. In: Proceedings of the Second Meeting on Gauges. Ed. by J. Marr. Sound Books, 2010, pp. 7–12. 6. R. von Quill. “Lights of the North”. In: Coasts and Lights. Ed. by J. Marr and O. Pask. Sound Books, 2005, pp. 55–60. 7. O. Pask and T. Venn. “A Second Look at Storm Surges”. In: Journal of Tides 5 (2003), pp. 201–208. 8. O. Pask and T. Venn. “Storm Surges at Kell Harbour”. In: Journal of Tides 5 (2003), pp. 101–118. 9. O. Pask. “Harmonic Tables for the Orrin Sound”. In: Journal of Tides 3.2 (2001), pp. 14–29. doi: 10.5555/tide.2001 [1]. 10. J. Marr, ed. Coasts. Orrin: Sound Books, 1999. 11. M. Lahn. “Logs of a Pilot”. In preparation. 1990. 12. I. Drew, M. Lahn, and P. Soll. The Pilot’s Almanac. Tides and Lights. 2nd ed. Kell: Harbour Press, 1987. 13. Harbour Board of Kell. Yearly Report. Tech. rep. 12. Harbour Board, 1975. [1] https://doi.org/10.5555/tide.2001",
        )],
    },
    Cited {
        preamble: r"\documentclass{IEEEtran}\usepackage{cite}\bibliographystyle{IEEEtran}",
        lines: &[(
            r"A \cite{pask2003,pask2001,drew1987} B \cite[5]{zell2012} C \cite{zell2012,pask2003,pask2001,drew1987,pask2003b}",
            "A [1]–[3] B [4, 5] C [1]–[5]",
        )],
    },
    Cited {
        preamble: r"\documentclass{IEEEtran}\bibliographystyle{IEEEtran}",
        lines: &[(r"A \cite{pask2003,pask2001,drew1987} B \cite[5]{zell2012}", "A [1], [2], [3] B [4, 5]")],
    },
    Cited {
        preamble: r"\documentclass{book}\usepackage{natbib}\bibliographystyle{apalike}",
        lines: &[(
            r"\chapter{A}A \citet{pask2003} B \citep{drew1987} C \cite{pask2003b}",
            "1 A === A Pask and Venn (2003b) B (Drew et al., 1987) C Pask and Venn (2003a)",
        )],
    },
    Cited {
        preamble: r"\documentclass{llncs}\bibliographystyle{splncs04}",
        lines: &[(r"A \cite{pask2003,pask2001,drew1987} ", "A [3, 2, 1]")],
    },
    Cited {
        preamble: r"\documentclass[sigconf]{acmart}\bibliographystyle{ACM-Reference-Format}",
        lines: &[(
            r"A \cite{pask2003,pask2001,drew1987} B \citet{pask2001} C \citep[see][]{pask2003b} ",
            "A [1, 2, 4] B Pask [2] C [see 3]",
        )],
    },
    Cited {
        preamble: r"\documentclass{elsarticle}\bibliographystyle{elsarticle-num}",
        lines: &[(r"A \cite{pask2003,pask2001,drew1987} B \citet{pask2001} C \citep{zell2012} ", "A [1, 2, 3] B Pask [2] C [4]")],
    },
    Cited {
        preamble: r"\documentclass[authoryear]{elsarticle}\bibliographystyle{elsarticle-harv}",
        lines: &[(
            r"A \cite{pask2003,pask2001,drew1987} B \citet{pask2001} C \citep{zell2012} ",
            "A Pask and Venn (2003); Pask (2001); Drew et al. (1987) B Pask (2001) C (Zell, 2012)",
        )],
    },
    Cited {
        preamble: r"\documentclass[aps,prl]{revtex4-2}",
        lines: &[(
            r"A \cite{pask2003,pask2001,drew1987} B \cite{zell2012} C \onlinecite{pask2001} D \citet{drew1987} ",
            "A [1–3] B [4] C 2 D Drew et al. [3]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage{apacite}\bibliographystyle{apacite}",
        lines: &[(
            r"A \cite{pask2003} B \citeA{pask2001} C \cite<see>[p.~3]{drew1987} D \citeauthor{drew1987} E \citeyear{zell2012} F \cite{four2010}",
            "A (Pask & Venn, 2003) B Pask (2001) C (see Drew et al., 1987, p. 3) D Drew et al. E (2012) F (Adde et al., 2010)",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage{chicago}\bibliographystyle{chicago}",
        lines: &[(
            r"A \cite{pask2003} B \citeN{pask2001} C \shortcite{drew1987} D \citeyear{zell2012}",
            "A (Pask and Venn 2003) B Pask (2001) C (Drew et al. 1987) D (2012)",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage{harvard}\bibliographystyle{agsm}",
        lines: &[(
            r"A \cite{pask2003} B \citeasnoun{pask2001} C \citeaffixed{drew1987}{see} D \possessivecite{zell2012}",
            "A (Pask & Venn 2003) B Pask (2001) C (see Drew et al. 1987) D Zell’s (2012)",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage[alphabetic]{amsrefs}",
        lines: &[(
            r"\cite{a} \cite{b}*{p. 3} \citelist{\cite{a}\cite{b}*{p. 4}}\begin{bibdiv}\begin{biblist}\bib{a}{book}{author={Pask, Orla},title={Tides},publisher={Press},date={2001}}\bib{b}{article}{author={Drew, Ivo},author={Lahn, Mette},title={Lights},journal={Coasts},volume={3},date={1999},pages={1--4}}\end{biblist}\end{bibdiv}",
            "[Pas01] [DL99, p. 3] [Pas01, DL99, p. 4]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}",
        lines: &[(
            r"\cite{a,b} \cite[p.~3]{c}\begin{thebibliography}{PV03}\bibitem[Pas01]{a} A.\bibitem[PV03]{b} B.\bibitem{c} C.\end{thebibliography}",
            "[Pas01, PV03] [1, p. 3]",
        )],
    },
    Cited {
        preamble: r"\documentclass{article}\usepackage{natbib}",
        lines: &[(
            r"\citet{a} \citep{b} \citep{a,b,c} \citet*{c} \citep[e.g.,][p.~2]{a} \citeauthor{c} \citeyear{b} \citealt{a} \cite{b}\begin{thebibliography}{9}\bibitem[Pask(2001)]{a} A.\bibitem[Pask(2003)]{b} B.\bibitem[Drew et~al.(1987)Drew, Lahn, and Soll]{c} C.\end{thebibliography}",
            "Pask (2001) (Pask, 2003) (Pask, 2001, 2003; Drew et al., 1987) Drew, Lahn, and Soll (1987) (e.g., Pask, 2001, p. 2) Drew et al. 2003 Pask 2001 Pask (2003)",
        )],
    },
];

/// Pages of all documents, each with its source and what is printed.
fn pages() -> Vec<(String, String, &'static str)> {
    let sources: Vec<(String, &str)> = CITED
        .iter()
        .flat_map(|cited| {
            cited.lines.iter().map(|(text, expected)| {
                let list = if cited.preamble.contains("biblatex") || text.contains("bibliography}") || text.contains("biblist") {
                    ""
                } else {
                    "\\bibliography{refs}"
                };
                let begin = format!("{}\n\\begin{{document}}\n", cited.preamble);
                (format!("{begin}{text}{list}\n\\end{{document}}\n"), *expected)
            })
        })
        .collect();
    let names: Vec<String> = (0..sources.len()).map(|number| format!("p{number}.tex")).collect();
    let mut files: Vec<(&str, &str)> = names.iter().zip(&sources).map(|(name, (source, _))| (&**name, &**source)).collect();
    files.push(("refs.bib", ENTRIES));
    let folder = Folder::new(&files);
    folder.publish();
    let page = |number: usize| {
        let page = folder.read(&format!("p{number}.html"));
        page[page.find("<main").unwrap()..page.find("</main>").unwrap()].to_owned()
    };
    sources.into_iter().enumerate().map(|(number, (source, expected))| (page(number), source, expected)).collect()
}

fn converted(source: &str, from: Format, to: Format) -> String {
    let mut profile = Profile::default();
    profile.set("text.width=0").unwrap();
    profile.set("page.contents=0").unwrap();
    obblet::convert(source.as_bytes(), from, to, &profile).unwrap().into_text().unwrap()
}

/// What is printed, up to the list where only citations are asked about.
fn printed(text: &str, source: &str) -> String {
    let words = text.split_whitespace().collect::<Vec<_>>().join(" ");
    // The page is called by the name of its file.
    let is_name = |word: &str| word.starts_with('p') && word[1..].bytes().all(|byte| byte.is_ascii_digit());
    let words = match words.split_once(" == ").or_else(|| words.split_once(" === ")) {
        Some((name, rest)) if is_name(name) => rest.to_owned(),
        _ => words,
    };
    let is_about_list = source.contains("nocite") || source.contains("printbibliography");
    if is_about_list {
        words
    } else {
        words.split(" References ").flat_map(|words| words.split(" Bibliography ")).next().unwrap_or_default().to_owned()
    }
}

#[test]
fn citations_and_lists_are_as_they_are_printed_and_come_back() {
    let mut wrong = Vec::new();
    for (page, source, expected) in pages() {
        let first = printed(&converted(&page, Format::Html, Format::Text), &source);
        if first != expected {
            wrong.push(format!("{source}\n  gives {first}\n  for   {expected}"));
            continue;
        }
        let back = converted(&page, Format::Html, Format::Latex);
        let again = printed(&converted(&converted(&back, Format::Latex, Format::Html), Format::Html, Format::Text), &source);
        if again != expected {
            wrong.push(format!("{source}\n  comes back as {again}\n  for   {expected}\n  by {back}"));
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn citations_come_back_as_the_commands_that_made_them() {
    let sources = [
        (
            "\\usepackage[round]{natbib}\\bibliographystyle{plainnat}",
            "\\citet{pask2001} \\citep[see][{12}]{pask2003,pask2003b} \\citealp{drew1987} \\citealt{drew1987} \\citet{pask2003,pask2003b} \\citet{four2010} \\citet*{four2010} \\citeauthor{zell2012} in \\citeyearpar{zell2012}",
        ),
        ("\\usepackage{cite}\\bibliographystyle{plain}", "\\cite{drew1987,pask2001,pask2003b,pask2003} \\cite[{p.~3}]{pask2001}"),
    ];
    let texts: Vec<String> = sources
        .iter()
        .map(|(preamble, text)| {
            format!(
                "\\documentclass{{article}}\n{preamble}\n\\begin{{document}}\n{text}\n\\bibliography{{refs}}\n\\end{{document}}\n"
            )
        })
        .collect();
    let folder = Folder::new(&[("a.tex", &texts[0]), ("b.tex", &texts[1]), ("refs.bib", ENTRIES)]);
    folder.publish();
    for (page, (_, text)) in ["a.html", "b.html"].into_iter().zip(sources) {
        let back = converted(&folder.read(page), Format::Html, Format::Latex);
        assert!(back.contains(text), "{back}");
    }
}

#[test]
fn citations_and_entries_take_linear_time() {
    type Shape = (&'static str, fn(usize) -> String);
    let cited: [Shape; 11] = [
        ("citations of several", |n| "\\usepackage{biblatex}".to_owned() + &"\\parencites(a)[b]{c}[d]{e} ".repeat(n / 28)),
        ("brackets that do not end", |n| "\\usepackage{biblatex}".to_owned() + &"\\cites(".repeat(n / 7)),
        ("notes that do not end", |n| "\\usepackage{biblatex}".to_owned() + &"\\footcites(a)[".repeat(n / 14)),
        ("notes within each other", |n| {
            "\\usepackage{biblatex}".to_owned() + &"\\footcite[".repeat(n / 14) + &"]{a}".repeat(n / 14)
        }),
        ("lists that the document holds", |n| "\\begin{biblist}\\bib{a}{book}{}\\end{biblist}".repeat(n / 48)),
        ("notes that cite", |n| "\\usepackage{biblatex}".to_owned() + &"\\autocite{a}. \\footcite{b}".repeat(n / 27)),
        ("angle brackets", |n| "\\usepackage{apacite}".to_owned() + &"\\cite<a".repeat(n / 7)),
        ("many keys", |n| format!("\\usepackage[numbers,sort&compress]{{natbib}}\\cite{{{}}}", "a,".repeat(n / 2))),
        ("ranges", |n| {
            let keys: Vec<String> = (0..n / 40).map(|key| format!("k{key}")).collect();
            let list: String = keys.iter().map(|key| format!("\\bibitem{{{key}}} a ")).collect();
            let cited: String = keys.chunks(20).map(|keys| format!("\\cite{{{}}}", keys.join(","))).collect();
            format!("\\usepackage{{cite}}{cited}\\begin{{thebibliography}}{{9}}{list}\\end{{thebibliography}}")
        }),
        ("the same names", |n| {
            let list: String = (0..n / 60).map(|key| format!("\\bibitem[A(2001)B]{{k{key}}} a ")).collect();
            let cited: String = (0..n / 60).map(|key| format!("\\citep{{k{key},k{}}}", key + 1)).collect();
            format!("\\usepackage{{natbib}}{cited}\\begin{{thebibliography}}{{9}}{list}\\end{{thebibliography}}")
        }),
        ("lists without labels", |n| {
            let list = "\\renewcommand{\\@biblabel}[1]{}\\begin{thebibliography}{}\\bibitem{a} b\\end{thebibliography}";
            format!("\\makeatletter {}", list.repeat(n / 90))
        }),
    ];
    let read = |source: &[u8]| latex::read(source, &latex::Settings::default());
    let mut failed: Vec<String> =
        cited.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), read).err()).collect();
    let entries: [Shape; 7] = [
        ("entries by the same names", |n| {
            (0..n / 45).map(|key| format!("@book{{k{key}, author={{A B}}, year=2001, title=C}}\n")).collect()
        }),
        ("names", |n| format!("@book{{k, author={{{}}}}}", "A b C and ".repeat(n / 10))),
        ("words of a name", |n| format!("@book{{k, author={{{}}}}}", "a ".repeat(n / 2))),
        ("braces in names", |n| format!("@book{{k, author={{{}B}}}}", "{A} ".repeat(n / 4))),
        ("commas in names", |n| format!("@book{{k, author={{{}}}}}", "a,".repeat(n / 2))),
        ("entries that refer to one", |n| {
            let parts: String = (0..n / 40).map(|key| format!("@inbook{{k{key}, title=B, crossref=k}}\n")).collect();
            format!("{parts}@book{{k, title=A}}\n")
        }),
        ("entries that refer to each other", |n| {
            (0..n / 40).map(|key| format!("@inbook{{k{key}, title=B, crossref=k{}}}\n", key + 1)).collect()
        }),
    ];
    let with_entries = |entries: &[u8]| {
        let mut media = MemoryMedia::default();
        media.insert("refs.bib", entries.to_vec());
        let files = FilesAround { root: Some(&media), limit: 1 << 24, ..FilesAround::default() };
        let source = b"\\usepackage{natbib}\\bibliographystyle{plainnat}\\nocite{*}\\cite{k1}\\bibliography{refs}";
        latex::read_with(source, &latex::Settings::default(), &files)
    };
    failed.extend(
        entries.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), with_entries).err()),
    );
    assert_eq!(failed, [""; 0]);
}

/// An entry that is long is not shown as often as it is cited.
#[test]
fn what_citations_show_is_bounded() {
    let long = "word ".repeat(20_000);
    let entry = format!("@book{{k, author={{A B}}, title={{{long}}}, year=2001}}");
    let mut media = MemoryMedia::default();
    media.insert("refs.bib", entry.into_bytes());
    let files = FilesAround { root: Some(&media), limit: 1 << 24, ..FilesAround::default() };
    let source = format!("\\usepackage{{biblatex}}\\addbibresource{{refs.bib}}{}", "\\fullcite{k} ".repeat(10_000));
    let read = latex::read_with(source.as_bytes(), &latex::Settings::default(), &files);
    let text = read.plain_text(read.root());
    assert!(text.contains("word word") && text.len() < 10_000_000, "{}", text.len());
    let source =
        "\\usepackage{biblatex}\\addbibresource{refs.bib}\\nocite{*}".to_owned() + &"\\printbibliography ".repeat(10_000);
    let read = latex::read_with(source.as_bytes(), &latex::Settings::default(), &files);
    let text = read.plain_text(read.root());
    assert!(text.contains("word word") && text.len() < 10_000_000, "{}", text.len());
}
