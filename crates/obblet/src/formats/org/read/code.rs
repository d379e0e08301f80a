//! Blocks of code and of what stands as it is, and what code came to (Org syntax, "Blocks").

use super::Reader;
use super::keywords::Affiliated;
use super::lines::{Begins, BlockKind, Line};
use super::options::argument;
use crate::document::{Kind, Markup, NodeId, Text};

/// What of a block of code is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Exports {
    Code,
    Results,
    Both,
    Nothing,
}

/// A line of code with a label.
#[derive(Clone, Copy, Debug)]
pub(super) struct CodeLine {
    pub(super) block: NodeId,
    /// Its number, where that is shown instead of the label.
    pub(super) line: Option<usize>,
}

impl Exports {
    pub(super) const fn code(self) -> bool {
        matches!(self, Self::Code | Self::Both)
    }

    pub(super) const fn results(self) -> bool {
        matches!(self, Self::Results | Self::Both)
    }
}

impl Reader<'_> {
    pub(super) const fn range(&self, start: usize, end: usize) -> Text {
        Text { start: start as u32, end: end as u32 }
    }

    /// Reads the block that begins at a line and ends at another one, whose lines mean nothing.
    pub(super) fn raw_block(
        &mut self,
        kind: BlockKind,
        number: usize,
        parent: NodeId,
        affiliated: &Affiliated,
    ) -> Option<NodeId> {
        let line = self.lines.all[number];
        let place = self.lines.all[affiliated.from.unwrap_or(number)].start as u32;
        let head = self.source[line.text..line.end].split_once([' ', '\t']).map_or("", |(_, head)| head.trim());
        match kind {
            BlockKind::Comment => None,
            BlockKind::Export => {
                let format = head.split([' ', '\t']).next().unwrap_or_default();
                let (start, end) = self.inner(number);
                if !format.eq_ignore_ascii_case("html") {
                    self.tallies.other_formats.add(line.start as u32, &self.source[start..end]);
                    return None;
                }
                let code = self.unescaped(number);
                Some(self.doc.append_at(parent, Kind::RawBlock { markup: Markup::Html, raw: code }, place))
            }
            _ => {
                let is_source = kind == BlockKind::Source;
                let language = if is_source { head.split([' ', '\t']).next().unwrap_or_default() } else { "" };
                let language = if language.starts_with(['-', ':', '+']) { "" } else { language };
                let (code, labels) = self.code(number, head);
                let info = self.doc.intern(language);
                let node = self.doc.append_at(parent, Kind::CodeBlock { code, info }, place);
                for (label, line) in labels {
                    self.code_labels.entry(label).or_insert(CodeLine { block: node, line });
                }
                Some(node)
            }
        }
    }

    /// Where the lines between the first and the last of a block are.
    fn inner(&self, number: usize) -> (usize, usize) {
        let until = self.lines.all[number].until;
        let start = self.lines.get(number + 1).map_or(0, |line| line.start);
        (start, self.lines.get(until).map_or(start, |line| line.start).max(start))
    }

    /// The code of a block: without the white space that all lines begin with, and without labels where those are left out.
    fn code(&mut self, number: usize, head: &str) -> (Text, Vec<(String, Option<usize>)>) {
        let (start, end) = self.inner(number);
        let text = &self.source[start..end];
        let keeps_labels = !head.split_whitespace().any(|word| word == "-r");
        let mut labels = Vec::new();
        let has_labels = text.contains("(ref:");
        let all = common_indent(text);
        // What the block itself is set in by is no part of its code, whatever is to be kept.
        let keeps_indent = head.split_whitespace().any(|word| word == "-i");
        let indent = if keeps_indent { all.min(self.lines.all[number].indent as usize) } else { all };
        let has_commas = text.lines().any(|line| line.trim_start().starts_with(','));
        if !has_labels && !has_commas && indent == 0 {
            return (self.range(start, end), labels);
        }
        let mut code = String::with_capacity(text.len());
        for (number_of_line, line) in text.split_inclusive('\n').enumerate() {
            let line = without_indent(line, indent);
            let line = without_comma(&line);
            let label = line.find("(ref:").and_then(|at| Some((at, line[at + 5..].find(')')? + at + 5)));
            match label.filter(|_| has_labels) {
                Some((from, to)) => {
                    labels.push((line[from + 5..to].to_owned(), (!keeps_labels).then_some(number_of_line + 1)));
                    let end = if keeps_labels { line.len() } else { line[..from].trim_end().len() };
                    code.push_str(&line[..end]);
                    if !keeps_labels {
                        code.push('\n');
                    }
                }
                None => code.push_str(&line),
            }
        }
        (self.doc.intern(&code), labels)
    }

    /// The lines of a block without the commas that keep them from meaning something.
    fn unescaped(&mut self, number: usize) -> Text {
        let (start, end) = self.inner(number);
        let text = &self.source[start..end];
        if !text.lines().any(|line| line.trim_start().starts_with(',')) {
            return self.range(start, end);
        }
        let code: String = text.split_inclusive('\n').map(without_comma).collect();
        self.doc.intern(&code)
    }

    /// Lines that begin with a colon.
    pub(super) fn fixed(&mut self, from: usize, to: usize, parent: NodeId, affiliated: &Affiliated) -> usize {
        let mut end = from;
        let mut code = String::new();
        while let Some(line) = self.lines.get(end).filter(|line| end < to && line.begins == Begins::Fixed) {
            let words = &self.source[line.text..line.end];
            code.push_str(words.strip_prefix(": ").or_else(|| words.strip_prefix(':')).unwrap_or_default());
            code.push('\n');
            end += 1;
        }
        let code = self.doc.intern(&code);
        let place = self.lines.all[affiliated.from.unwrap_or(from)].start as u32;
        let node = self.doc.append_at(parent, Kind::CodeBlock { code, info: Text::EMPTY }, place);
        self.apply(node, affiliated);
        self.doc.set_end(node, self.last_line(from, end));
        end
    }

    /// A table that is drawn with lines of characters: it stays as it is drawn.
    pub(super) fn grid(&mut self, from: usize, to: usize, parent: NodeId, affiliated: &Affiliated) -> usize {
        let is_of_grid = |line: &Line| matches!(line.begins, Begins::Grid | Begins::Table);
        let end = (from..to).find(|&number| !is_of_grid(&self.lines.all[number])).unwrap_or(to);
        let lines = self.lines.all[from..end].iter().map(|line| &self.source[line.text..line.end]);
        let drawn: String = lines.flat_map(|line| [line, "\n"]).collect();
        let code = self.doc.intern(&drawn);
        let place = self.lines.all[affiliated.from.unwrap_or(from)].start as u32;
        let node = self.doc.append_at(parent, Kind::CodeBlock { code, info: Text::EMPTY }, place);
        self.apply(node, affiliated);
        self.doc.set_end(node, self.last_line(from, end));
        end
    }

    /// A part of TeX that stands by itself.
    pub(super) fn environment(&mut self, (number, until): (usize, usize), parent: NodeId, affiliated: &Affiliated) {
        let line = self.lines.all[number];
        let end = self.lines.all[until].end;
        let place = self.lines.all[affiliated.from.unwrap_or(number)].start as u32;
        if self.text_environment((line.text, end), parent, affiliated) {
            return;
        }
        let paragraph = self.doc.append_at(parent, Kind::Paragraph, place);
        // What sets it in is no part of it.
        let indent = line.text - line.start;
        let source = &self.source[line.text..end];
        let text = if indent > 0 && source.contains('\n') {
            let lines = source.split('\n').map(|line| {
                let white = line.len() - line.trim_start_matches([' ', '\t']).len();
                &line[white.min(indent)..]
            });
            let text = lines.collect::<Vec<_>>().join("\n");
            self.doc.intern(&text)
        } else {
            self.range(line.text, end)
        };
        let formula = self.doc.add_tex(text, true);
        self.doc.append_at(paragraph, Kind::Math(formula), line.text as u32);
        self.apply(paragraph, affiliated);
        self.doc.set_end(paragraph, end as u32);
    }

    /// What of a block of code is written: its own arguments say it, else those of the file.
    pub(super) fn exports(&self, number: usize) -> Exports {
        let line = self.lines.all[number];
        let head = &self.source[line.text..line.end];
        let language = head.split_whitespace().nth(1).unwrap_or_default();
        let inherited = || {
            let of_language = self.properties.get(&format!("header-args:{}", language.to_ascii_lowercase()));
            let of = |arguments: Option<&'_ str>| argument(arguments?, ":exports").map(str::to_owned);
            of(of_language).or_else(|| of(self.properties.get("header-args")))
        };
        let own = argument(head, ":exports").map(str::to_owned);
        match own.or_else(inherited).as_deref() {
            Some("results") => Exports::Results,
            Some("both") => Exports::Both,
            Some("none") => Exports::Nothing,
            _ => Exports::Code,
        }
    }
}

/// How many columns of white space all lines begin with that are not blank.
fn common_indent(text: &str) -> usize {
    let of = |line: &str| line.bytes().take_while(|byte| *byte == b' ').count();
    let lines = text.lines().filter(|line| !line.trim().is_empty());
    if text.lines().any(|line| line.starts_with('\t')) {
        return 0;
    }
    lines.map(of).min().unwrap_or(0)
}

fn without_indent(line: &str, indent: usize) -> std::borrow::Cow<'_, str> {
    let spaces = line.bytes().take(indent).take_while(|byte| *byte == b' ').count();
    std::borrow::Cow::Borrowed(&line[spaces..])
}

/// A line without the comma that keeps it from meaning something.
fn without_comma(line: &str) -> String {
    let indent = line.len() - line.trim_start_matches([' ', '\t']).len();
    let words = &line[indent..];
    let commas = words.bytes().take_while(|byte| *byte == b',').count();
    let behind = &words[commas..];
    if commas > 0 && (behind.starts_with('*') || behind.starts_with("#+")) {
        return format!("{}{}", &line[..indent], &words[1..]);
    }
    line.to_owned()
}
