//! The preamble of another document, which a new one gets: what it defines can be used by name.

use crate::fast_hash::{HashMap, HashSet};

/// A preamble.
#[derive(Debug, Default)]
pub(super) struct GivenPreamble<'p> {
    pub(super) text: Option<&'p str>,
    /// The class of documents.
    pub(super) class: Option<&'p str>,
    /// Environments that it defines.
    pub(super) environments: HashSet<&'p str>,
    /// Commands that it defines.
    pub(super) commands: HashSet<&'p str>,
    /// Theorems that it defines, and the words that they begin with.
    pub(super) theorems: HashMap<&'p str, &'p str>,
}

impl<'p> GivenPreamble<'p> {
    /// The preamble of a document: all that stands before its text.
    pub(super) fn of(source: &'p [u8]) -> Self {
        let Ok(source) = std::str::from_utf8(source) else { return Self::default() };
        let source = source.strip_prefix('\u{FEFF}').unwrap_or(source);
        let text = source.split("\\begin{document}").next().unwrap_or(source);
        let mut own = Self { text: Some(text), ..Self::default() };
        for line in text.lines() {
            let line = line.split('%').next().unwrap_or(line);
            for (command, rest) in line.match_indices('\\').map(|(at, _)| split_command(&line[at + 1..])) {
                let rest = rest.trim_start_matches('*');
                match command {
                    "documentclass" => own.class = argument(rest),
                    "newenvironment" | "renewenvironment" | "NewDocumentEnvironment" | "newtcolorbox" | "newmdenv" => {
                        own.environments.extend(argument(rest));
                    }
                    "newcommand" | "renewcommand" | "providecommand" | "NewDocumentCommand" | "DeclareRobustCommand" => {
                        let name = argument(rest).unwrap_or(rest.trim_start());
                        own.commands.extend(name.strip_prefix('\\').map(|name| split_command(name).0));
                    }
                    "newtheorem" => {
                        let Some(name) = argument(rest) else { continue };
                        let behind = rest.split_once('}').map_or("", |(_, behind)| behind);
                        own.theorems.insert(name, argument(behind).unwrap_or_default());
                    }
                    _ => {}
                }
            }
        }
        // What the text uses is defined somewhere, in the class or in a package.
        let body = source.get(text.len()..).unwrap_or_default();
        own.environments
            .extend(body.match_indices("\\begin{").filter_map(|(at, begin)| body[at + begin.len()..].split('}').next()));
        own
    }
}

/// The letters of a command, and what stands behind it.
fn split_command(text: &str) -> (&str, &str) {
    text.split_at(text.find(|c: char| !c.is_ascii_alphabetic()).unwrap_or(text.len()))
}

/// The first argument, behind options.
fn argument(text: &str) -> Option<&str> {
    let mut rest = text.trim_start();
    while let Some(option) = rest.strip_prefix('[') {
        rest = option.split_once(']')?.1.trim_start();
    }
    rest.strip_prefix('{')?.split('}').next().map(str::trim).filter(|name| !name.is_empty())
}
