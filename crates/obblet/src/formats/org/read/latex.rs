//! Pieces of LaTeX that are no formulas: text, tables, citations (Org syntax, "LaTeX Fragments" and "LaTeX Environments").

use super::Reader;
use super::inlines::Inlines;
use super::keywords::Affiliated;
use crate::document::{Citation, CitationForm, DivisionKind, Kind, NodeId, Weight};
use crate::fast_hash::HashSet;
use crate::formats::latex;
use crate::math::tex;

impl Reader<'_> {
    /// Reads an environment that is no formula. Whether it is one.
    pub(super) fn text_environment(&mut self, (start, end): (usize, usize), parent: NodeId, affiliated: &Affiliated) -> bool {
        let source = &self.source[start..end];
        let name = source.strip_prefix("\\begin{").and_then(|rest| rest.split_once('}')).map_or("", |(name, _)| name);
        if name.is_empty() || tex::is_environment(name) || latex::is_formula(name) {
            return false;
        }
        let read = self.piece(source, start as u32);
        let blocks: Vec<NodeId> = read.children(read.root()).collect();
        for (number, block) in blocks.into_iter().enumerate() {
            let copied = self.doc.append_copy(parent, &read, block, start as u32);
            self.doc.set_end(copied, end as u32);
            if number == 0 {
                self.apply(copied, affiliated);
            }
        }
        true
    }

    /// Reads a command with its arguments that is no formula. Whether it is one.
    pub(super) fn text_command(&mut self, scan: &mut Inlines<'_>, name: &str, (start, end): (usize, usize)) -> bool {
        let source = &scan.text[start..end];
        if let Some(form) = form_of(name) {
            return self.cite(scan, form, (start, end));
        }
        if !latex::is_text_style(name) && tex::read(source).1.is_empty() {
            return false;
        }
        let offset = scan.offset(start);
        let read = self.piece(source, offset);
        let mut blocks = read.children(read.root());
        match (blocks.next(), blocks.next()) {
            (Some(only), None) if read.kind(only) == Kind::Paragraph => {
                let holder = self.put(scan, Kind::Span, end);
                for child in read.children(only) {
                    self.doc.append_copy(holder, &read, child, offset);
                }
                self.doc.unwrap(holder);
            }
            _ => self.put_text(scan, &read.plain_text(read.root()), end),
        }
        true
    }

    /// Reads a command without arguments that stands for characters, or says how a page is set. Whether it is one.
    pub(super) fn bare_command(&mut self, scan: &mut Inlines<'_>, name: &str, end: usize) -> bool {
        let at = scan.at;
        // Names of files have such signs, too.
        let is_apart = |c: char| !c.is_alphanumeric() && !matches!(c, '\\' | ':' | '_' | '/');
        if !scan.before(at).is_none_or(is_apart) || !scan.after(end).is_none_or(is_apart) {
            return false;
        }
        let words = latex::characters_of(name);
        if let Some(words) = words.filter(|words| !words.trim().is_empty()) {
            self.put_text(scan, words, end);
            return true;
        }
        if words.is_none() && !latex::is_layout(name) {
            return false;
        }
        self.write_to(scan, at);
        self.tallies.other_formats.add(scan.offset(at), &scan.text[at..end]);
        (scan.at, scan.written) = (end, end);
        true
    }

    /// What a piece of LaTeX comes to.
    fn piece(&mut self, source: &str, offset: u32) -> crate::document::Document {
        let read = latex::read(source.as_bytes(), &latex::Settings::default());
        for finding in &read.findings {
            let tally = if finding.weight == Weight::Lost { &mut self.tallies.latex_lost } else { &mut self.tallies.latex };
            let words = if finding.lost.is_empty() { &finding.message } else { &finding.lost };
            tally.add(offset, words);
        }
        read
    }

    /// Reads commands that print the bibliography and say how it looks, where a paragraph holds nothing else. Whether it does.
    pub(super) fn bibliography(&mut self, (start, end): (usize, usize), parent: NodeId) -> bool {
        let source = &self.source[start..end];
        if !source.starts_with("\\bibliography") && !source.starts_with("\\printbibliography") {
            return false;
        }
        let is_command = |line: &str| {
            let line = line.trim();
            let (command, given) = line.split_once('{').unwrap_or((line, "}"));
            matches!(command, "\\bibliography" | "\\bibliographystyle" | "\\printbibliography")
                && given.find('}') == Some(given.len() - 1)
        };
        if !source.lines().all(is_command) {
            return false;
        }
        let prints = source.contains("\\bibliography{") || source.contains("\\print");
        if prints && self.doc.bibliography.place.is_none() && !self.doc.bibliography.files.is_empty() {
            let place = self.doc.append_at(parent, Kind::Division(DivisionKind::Plain), start as u32);
            self.doc.set_end(place, end as u32);
            self.doc.bibliography.place = Some(place);
        }
        true
    }

    /// A citation as LaTeX has them: `\cite[see][p. 3]{one,two}`.
    fn cite(&mut self, scan: &mut Inlines<'_>, form: CitationForm, (start, end): (usize, usize)) -> bool {
        let source = &scan.text[start..end];
        let Some((keys, options)) = source.strip_suffix('}').and_then(|rest| rest.rsplit_once('{')).map(|(before, keys)| {
            let options = before.split_once('[').map_or("", |(_, options)| options.trim_end_matches(']'));
            (keys, options)
        }) else {
            return false;
        };
        let keys: Vec<String> =
            keys.split(',').map(str::trim).filter(|key| !key.is_empty()).map(|key| format!("@{key}")).collect();
        if keys.is_empty() {
            return false;
        }
        let (before, behind) = options.split_once("][").unwrap_or(("", options));
        let body = format!("{before} {} {behind}", keys.join("; "));
        self.put_citation(scan, &body, form, end);
        true
    }

    /// Puts a citation: its keys, until the entries are known.
    pub(super) fn put_citation(&mut self, scan: &mut Inlines<'_>, body: &str, form: CitationForm, resume: usize) {
        let shown: Vec<String> =
            body.split(';').map(|part| part.trim().replace('@', "")).filter(|part| !part.is_empty()).collect();
        let at = scan.offset(scan.at);
        let text = self.doc.intern(&format!("[{}]", shown.join("; ")));
        let cite = self.put(scan, Kind::TextLevel(crate::document::TextLevel::Cite), resume);
        self.doc.append_at(cite, Kind::Text(text), scan.offset(resume - 1));
        match crate::citations::cited(body).filter(|_| !self.doc.bibliography.files.is_empty()) {
            Some((entries, around)) => {
                self.doc.bibliography.citations.push(Citation { node: cite, form, entries, around });
            }
            None => self.tallies.citations.add(at, ""),
        }
    }
}

/// The files of a bibliography that LaTeX prints, where a line asks for it.
pub(super) fn files_of_bibliography(source: &str) -> Vec<String> {
    let command = "\\bibliography{";
    let is_line = |at: &usize| *at == 0 || source.as_bytes()[at - 1] == b'\n';
    let Some(at) = memchr::memmem::find_iter(source.as_bytes(), command).find(is_line) else { return Vec::new() };
    let Some((names, _)) = source[at + command.len()..].split_once('}').filter(|(names, _)| !names.contains('\n')) else {
        return Vec::new();
    };
    let names = names.split(',').map(str::trim).filter(|name| !name.is_empty()).take(20);
    names.map(|name| if name.ends_with(".bib") { name.to_owned() } else { format!("{name}.bib") }).collect()
}

/// The names in braces that stand in definitions, as in `\newcommand{\R}`.
pub(super) fn commands_in(definitions: &str) -> HashSet<String> {
    let names = definitions.split('\\').skip(1).filter_map(|rest| rest.split_once('}').map(|(name, _)| name));
    names.filter(|name| name.bytes().all(|byte| byte.is_ascii_alphabetic())).map(str::to_owned).collect()
}

/// What a command of LaTeX shows of what it cites.
fn form_of(name: &str) -> Option<CitationForm> {
    Some(match name {
        "cite" | "citep" | "parencite" | "autocite" | "citealp" | "footcite" | "supercite" => CitationForm::Label,
        "citet" | "textcite" | "citealt" => CitationForm::InText,
        "citeauthor" => CitationForm::Author,
        "citeyear" | "citeyearpar" => CitationForm::Year,
        "nocite" => CitationForm::Hidden,
        _ => return None,
    })
}
