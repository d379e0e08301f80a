//! How classes number headings, floats and items (the documentation of IEEEtran, REVTeX, amsart, llncs, svjour,
//! memoir and beamer).

use super::Reader;
use super::tokens::{Kind as Sign, Token};

/// How classes show numbers: the commands that they define, with what these stand for.
struct Class {
    names: &'static [&'static str],
    /// How many levels of headings have numbers, by `secnumdepth`.
    depth: Option<i64>,
    commands: &'static [(&'static str, &'static str)],
}

const CLASSES: &[Class] = &[
    Class {
        names: &["IEEEtran", "ieeecolor", "IEEEconf", "ieeeaccess"],
        depth: None,
        commands: &[
            ("thesection", r"\Roman{section}"),
            ("thesubsection", r"\thesection-\Alph{subsection}"),
            ("thesubsubsection", r"\thesubsection\arabic{subsubsection}"),
            ("thetable", r"\Roman{table}"),
            ("figurename", "Fig."),
            ("caption labelsep of figure", "period"),
            ("labelenumi", r"\arabic{enumi})"),
            ("labelenumii", r"\alph{enumii})"),
        ],
    },
    Class {
        names: &["revtex4-2", "revtex4-1", "revtex4"],
        depth: None,
        commands: &[
            ("thesection", r"\Roman{section}"),
            ("thesubsection", r"\Alph{subsection}"),
            ("thesubsubsection", r"\arabic{subsubsection}"),
            ("p@subsection", r"\thesection\,"),
            ("p@subsubsection", r"\thesection\,\thesubsection\,"),
            ("thetable", r"\Roman{table}"),
            ("figurename", "FIG."),
            ("tablename", "TABLE"),
            ("caption labelsep of *", "period"),
        ],
    },
    Class {
        names: &["amsart", "amsproc", "amsbook"],
        depth: None,
        commands: &[
            ("thepart", r"\arabic{part}"),
            ("caption labelsep of *", "period"),
            ("labelenumi", r"(\arabic{enumi})"),
            ("labelenumii", r"(\alph{enumii})"),
            ("labelenumiii", r"(\roman{enumiii})"),
        ],
    },
    Class { names: &["llncs"], depth: Some(2), commands: &[("figurename", "Fig."), ("caption labelsep of *", "period")] },
    Class {
        names: &["svjour3", "svjour", "svmult", "svmono", "sn-jnl"],
        depth: None,
        commands: &[("figurename", "Fig."), ("caption labelsep of *", "space")],
    },
    Class { names: &["memoir"], depth: Some(1), commands: &[] },
    Class { names: &["moderncv"], depth: Some(0), commands: &[] },
    Class { names: &["beamer"], depth: None, commands: &[("caption labelformat of *", "nonumber")] },
];

impl Reader<'_> {
    /// Takes over how the class of the document shows numbers.
    pub(super) fn take_class(&mut self) {
        let Some(class) = CLASSES.iter().find(|class| class.names.contains(&self.front.class.as_str())) else { return };
        if let Some(depth) = class.depth {
            self.counters.depth = depth;
        }
        for (name, body) in class.commands {
            let body = tokens_of(body, self.at);
            self.macros.keep((*name).into(), body);
        }
    }

    /// Sections or chapters are counted with letters from here on, whatever showed their numbers before.
    pub(super) fn begin_appendix(&mut self) {
        self.counters.begin_appendix();
        let counter = if self.counters.has_chapters { "chapter" } else { "section" };
        let command = format!("the{counter}");
        if self.macros.knows(&command) {
            let body = tokens_of(&format!("\\Alph{{{counter}}}"), self.at);
            self.macros.define_as(command.into(), std::rc::Rc::from([]), body, true);
        }
    }

    /// A number as references show it: what stands before it there (the LaTeX format, `\p@enumii`).
    pub(super) fn number_in_references(&mut self, counter: &str, number: &str) -> String {
        let prefix = format!("p@{counter}");
        if !self.macros.shows_numbers || !self.macros.knows(&prefix) {
            return number.to_owned();
        }
        let tokens = self.written_out(&[Token { kind: Sign::Command(prefix.into()), at: self.at }]);
        format!("{}{number}", self.words(&tokens))
    }
}

/// The tokens of a definition of ours.
fn tokens_of(source: &str, at: u32) -> Vec<Token> {
    let mut out = Vec::new();
    let mut rest = source;
    while let Some(c) = rest.chars().next() {
        rest = &rest[c.len_utf8()..];
        let kind = match c {
            '\\' => {
                let letters = rest.bytes().take_while(u8::is_ascii_alphabetic).count().max(1);
                let name = &rest[..letters];
                rest = &rest[letters..];
                Sign::Command(name.into())
            }
            '{' => Sign::Begin,
            '}' => Sign::End,
            ' ' => Sign::Space,
            c => Sign::Char(c),
        };
        out.push(Token { kind, at });
    }
    out
}
