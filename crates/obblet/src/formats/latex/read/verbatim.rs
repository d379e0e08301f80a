//! Text that is no LaTeX: code in lines and in blocks (the LaTeX documentation, "verbatim"; of listings, fancyvrb and minted).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, Text};

/// What code in text is kept under, beside files.
const KEPT: &str = "\0";

/// A document writes no more files.
const MOST_FILES: usize = 1000;

impl Reader<'_> {
    /// `\verb|x|`: between two characters of the author's choice.
    pub(super) fn verb(&mut self, braces: bool) {
        if !self.input.made.is_empty() {
            // What came from a command is made of tokens: they are written as they are.
            let tokens = if braces { self.input.argument() } else { self.verb_of_tokens() };
            let mut text = String::new();
            self.input.write(&tokens, &mut text);
            let text = self.doc.intern(&text);
            self.inline(Kind::Code(text));
            return;
        }
        let rest = &self.input.source[self.input.at..];
        let rest = rest.strip_prefix('*').unwrap_or(rest);
        let Some(open) = rest.chars().next() else { return };
        let close = if open == '{' && braces { '}' } else { open };
        let start = self.input.source.len() - rest.len() + open.len_utf8();
        let found = self.input.source[start..].find([close, '\n']);
        let Some(length) = found.filter(|length| !self.input.source[start + length..].starts_with('\n')) else {
            self.tallies.unclosed.add(self.at, "");
            return;
        };
        self.input.at = start + length + close.len_utf8();
        if length > 0 {
            self.inline(Kind::Code(Text { start: start as u32, end: (start + length) as u32 }));
        }
    }

    /// Tokens between two of the same character.
    fn verb_of_tokens(&mut self) -> Vec<Token> {
        let mut found = Vec::new();
        let Some(first) = self.input.next() else { return found };
        let delimiter = match first.kind {
            Sign::Char(c) => c,
            Sign::Text(start, end) => {
                let c = self.input.slice(start, end).chars().next().unwrap_or(' ');
                let behind = start + c.len_utf8() as u32;
                if behind < end {
                    self.input.push(Sign::Text(behind, end), behind);
                }
                c
            }
            _ => {
                self.input.made.push(first);
                return found;
            }
        };
        while let Some(token) = self.input.next() {
            match token.kind {
                Sign::Char(c) if c == delimiter => break,
                Sign::Par | Sign::Then(_) => {
                    self.input.made.push(token);
                    break;
                }
                Sign::Text(start, end) => {
                    if let Some(at) = self.input.slice(start, end).find(delimiter) {
                        let (at, behind) = (start + at as u32, start + (at + delimiter.len_utf8()) as u32);
                        if behind < end {
                            self.input.push(Sign::Text(behind, end), behind);
                        }
                        if start < at {
                            found.push(Token { kind: Sign::Text(start, at), at: start });
                        }
                        break;
                    }
                }
                _ => {}
            }
            found.push(token);
        }
        found
    }

    /// The text up to the end of an environment, which is read; without its first line end.
    fn raw_environment(&mut self, name: &str) -> Option<(usize, usize)> {
        if !self.input.made.is_empty() || self.own.endless.contains(name) {
            return None;
        }
        // One that an environment of the document begins ends where that ends, which is left to be read.
        let outer = self.environments.last().map(|environment| environment.name.clone()).filter(|outer| {
            let between = self.input.source.get(self.at as usize..self.input.at).unwrap_or_default();
            between.contains('\n') && self.macros.knows_environment(outer)
        });
        if let Some(outer) = outer {
            let start = self.input.at;
            let end = format!("\\end{{{outer}}}");
            let found = memchr::memmem::find(&self.input.source.as_bytes()[start..], end.as_bytes());
            let Some(length) = found else {
                self.own.endless.insert(name.to_owned());
                return None;
            };
            self.input.at = start + length;
            return Some((start, start + length));
        }
        let end = format!("\\end{{{name}}}");
        let start = self.input.at;
        let rest = &self.input.source[start..];
        let Some(length) = memchr::memmem::find(rest.as_bytes(), end.as_bytes()) else {
            self.tallies.unclosed.add_apart(self.at, name);
            self.own.endless.insert(name.to_owned());
            return None;
        };
        self.input.at = start + length + end.len();
        Some((start, start + length))
    }

    /// Skips an environment.
    pub(super) fn skip_environment(&mut self, name: &str) {
        if self.raw_environment(name).is_none() {
            let mut depth = 0_usize;
            while let Some(token) = self.input.next() {
                match token.kind.command() {
                    Some("begin") => depth += 1,
                    Some("end") if depth == 0 => {
                        self.input.argument();
                        break;
                    }
                    Some("end") => depth -= 1,
                    _ => {}
                }
            }
        }
    }

    /// A drawing that only the engine can make: shown from a picture file that has its name, or left out with its source in a
    /// finding.
    pub(super) fn drawing(&mut self, name: &str) {
        let at = self.at;
        let from = self.input.at;
        self.skip_environment(name);
        if let Some(file) = self.own.drawing_file.take()
            && let Some(file) = self.picture_file(&file)
        {
            let (src, alt) = (self.doc.intern(&file), self.doc.intern(""));
            self.inline(Kind::Image { src, alt });
            return;
        }
        let source = self.input.source.get(from..self.input.at).unwrap_or_default();
        let short: String = source.chars().take(400).collect();
        self.tallies.drawings.add_apart(at, &short);
    }

    /// A drawing in a line: in braces, or up to a semicolon.
    pub(super) fn drawing_in_text(&mut self) {
        self.tallies.drawings.add_apart(self.at, "\\tikz");
        self.input.option();
        if self.input.takes_begin() {
            self.input.up_to_end();
            return;
        }
        while let Some(token) = self.input.next() {
            match token.kind {
                Sign::Begin => drop(self.input.up_to_end()),
                Sign::Text(start, end) => {
                    if let Some(at) = self.input.slice(start, end).find(';') {
                        let behind = start + at as u32 + 1;
                        if behind < end {
                            self.input.push(Sign::Text(behind, end), behind);
                        }
                        return;
                    }
                }
                Sign::Par | Sign::End | Sign::Then(_) => return self.input.made.push(token),
                _ => {}
            }
        }
    }

    /// A block of code.
    pub(super) fn code_block(&mut self, name: &str) {
        let has_option = self.input.made.is_empty() && self.input.source[self.input.at..].starts_with('[');
        let options = if has_option && !name.starts_with("verbatim") { self.input.option() } else { None };
        let options = options.unwrap_or_default();
        match name {
            "tcblisting" | "dispListing" => self.skip_arguments("m"),
            _ => {}
        }
        let language = if name == "minted" {
            let language = self.input.argument();
            self.input.characters(&language)
        } else {
            value(&self.input.characters(&options), "language")
        };
        let Some((start, end)) = self.raw_environment(name) else { return };
        let escapes = self.escapes_of(name, &options);
        let shown = (!escapes.is_none()).then(|| self.code_with_commands(start, end, &escapes));
        let text = shown.as_deref().unwrap_or(&self.input.source[start..end]);
        // The rest of the first line is none of it, nor the spaces before the end.
        let first = text.find('\n').filter(|&at| text[..at].trim().is_empty()).map_or(0, |at| at + 1);
        let code = text[first..].trim_end_matches([' ', '\t']);
        let code = if code.is_empty() || code.ends_with('\n') { code.to_owned() } else { format!("{code}\n") };
        self.put_code(&code, &language, &options);
    }

    /// A block of code in an environment that is not defined here, and that is called so. Whether it ends.
    pub(super) fn code_by_its_name(&mut self, name: &str) -> bool {
        let at = self.input.at;
        if !self.input.made.is_empty() || !self.takes_blocks() || self.raw_environment(name).is_none() {
            return false;
        }
        self.input.at = at;
        self.tallies.environments.add_apart(self.at, name);
        self.code_block(name);
        true
    }

    /// Puts a block of code into the document: in a figure with its number, where it has a caption.
    fn put_code(&mut self, code: &str, language: &str, options: &[Token]) {
        let language = language.rsplit(']').next().unwrap_or(language).trim_matches(['{', '}']);
        let (code, info) = (self.doc.intern(code), self.doc.intern(&language.to_lowercase()));
        let kind = Kind::CodeBlock { code, info };
        let mut caption = self.input.value_of(options, "caption");
        let title = self.input.value_of(options, "title");
        // What lists of listings show stands before it in brackets.
        let begins = |caption: &[Token]| {
            matches!(caption.first(), Some(Token { kind: Sign::Text(start, _), .. })
            if self.input.source.as_bytes().get(*start as usize) == Some(&b'['))
        };
        if matches!(&caption[..], [Token { kind: Sign::Begin, .. }, .., Token { kind: Sign::End, .. }]) {
            caption = caption[1..caption.len() - 1].to_vec();
        }
        if begins(&caption) {
            let mut inner = super::Input::of_tokens(self.input.source, caption.iter().cloned());
            inner.option();
            caption = std::iter::from_fn(|| inner.next()).collect();
        }
        let has_number = !caption.is_empty();
        if !has_number {
            caption = title;
        }
        let label = self.input.value_of(options, "label");
        let label = self.input.characters(&label);
        let end = self.input.at as u32;
        if caption.is_empty() || !self.takes_blocks() {
            let node = self.block(kind);
            self.doc.set_end(node, end);
            if !label.is_empty() {
                self.references.here(node, String::new(), "");
                self.label_of(label);
            }
            return;
        }
        let figure = self.block(Kind::Figure);
        let node = self.doc.append_at(figure, kind, self.at);
        self.doc.set_end(node, end);
        self.doc.set_end(figure, end);
        let holder = self.doc.append_at(figure, Kind::Caption, self.at);
        if has_number {
            let number = self.counters.step("lstlisting");
            let number = self.number_as_shown("lstlisting", number);
            let word = super::captions::word("listing", self.front.language.as_deref());
            self.references.here(figure, number.clone(), word);
            self.put_label(holder, "lstlisting", word, &number);
        }
        if !label.is_empty() {
            self.label_of(label);
        }
        self.read_into(holder, true, caption);
    }

    /// Environments for code that a document defines. Whether a command defines one.
    pub(super) fn define_code(&mut self, name: &str) -> bool {
        let environment = match name {
            "DefineVerbatimEnvironment" | "CustomVerbatimEnvironment" | "RecustomVerbatimEnvironment" => {
                let environment = self.input.argument();
                self.skip_arguments("mm");
                environment
            }
            "lstnewenvironment" => {
                let environment = self.input.argument();
                self.skip_arguments("oomm");
                environment
            }
            "newtcblisting" | "newverbatim" => {
                self.input.option();
                let environment = self.input.argument();
                self.skip_arguments(if name == "newtcblisting" { "oom" } else { "mmmm" });
                environment
            }
            "MakeShortVerb"
            | "DefineShortVerb"
            | "lstMakeShortInline"
            | "MakeSpecialShortVerb"
            | "DeleteShortVerb"
            | "UndefineShortVerb"
            | "lstDeleteShortInline" => {
                self.mark_code(name);
                return true;
            }
            // The documentation of comment.
            "excludecomment" | "includecomment" | "specialcomment" => {
                let environment = self.input.argument();
                let environment = self.input.characters(&environment);
                if name == "specialcomment" {
                    self.skip_arguments("mm");
                }
                self.own.comments.insert(environment, name != "excludecomment");
                return true;
            }
            "DeclareFloatingEnvironment" | "newfloat" | "floatname" => return self.define_float(name),
            _ => return false,
        };
        let environment = self.input.characters(&environment);
        self.own.code.insert(environment);
        true
    }

    /// Code between two marks. Whether it ends on its line.
    pub(super) fn marked_code(&mut self, mark: char) -> bool {
        let start = self.input.at;
        // What came from a command was read as text.
        if !self.input.made.is_empty() || self.at as usize + mark.len_utf8() != start {
            return false;
        }
        let line = self.input.source[start..].lines().next().unwrap_or_default();
        let Some(length) = line.find(mark).filter(|length| *length > 0) else { return false };
        self.input.at = start + length + mark.len_utf8();
        self.inline(Kind::Code(Text { start: start as u32, end: (start + length) as u32 }));
        true
    }

    /// Code that is kept, and shown by its name. Whether a command does that.
    pub(super) fn kept_code(&mut self, name: &str) -> bool {
        match name {
            "SaveVerb" => {
                let options = self.input.option().unwrap_or_default();
                let key = self.input.argument();
                let key = self.input.characters(&key);
                let rest = &self.input.source[self.input.at..];
                let Some(mark) = rest.chars().next().filter(|_| self.input.made.is_empty()) else { return true };
                let start = self.input.at + mark.len_utf8();
                let line = self.input.source[start..].lines().next().unwrap_or_default();
                let Some(length) = line.find(mark) else { return true };
                self.input.at = start + length + mark.len_utf8();
                if self.own.files.len() < MOST_FILES {
                    self.own.files.insert(format!("{KEPT}{key}"), line[..length].to_owned());
                }
                let then = self.input.value_of(&options, "aftersave");
                self.input.push_all(then.into_iter());
            }
            "UseVerb" | "BUseVerb" | "LUseVerb" => {
                self.input.option();
                let key = self.input.argument();
                let key = self.input.characters(&key);
                if let Some(code) = self.own.files.get(&format!("{KEPT}{key}")) {
                    let code = self.doc.intern(code);
                    self.inline(Kind::Code(code));
                }
            }
            _ => return false,
        }
        true
    }

    /// A character that begins and ends code in text from here on, or does no more.
    fn mark_code(&mut self, name: &str) {
        self.input.take('*');
        self.input.option();
        let mark = self.input.argument();
        let mark = match mark.first().map(|token| &token.kind) {
            Some(Sign::Command(name)) => name.chars().next(),
            Some(Sign::Char(c)) => Some(*c),
            _ => None,
        };
        let marks = &mut self.own.code_marks;
        marks.retain(|known| Some(*known) != mark);
        if !name.contains("elete") && !name.starts_with("Un") {
            // Letters and digits are text before anything is asked of them.
            marks.extend(mark.filter(|c| c.is_ascii_punctuation()));
        }
    }

    /// Floats that a document defines, with the words for them.
    fn define_float(&mut self, name: &str) -> bool {
        let options = self.input.option().unwrap_or_default();
        let environment = self.input.argument();
        let environment = self.input.characters(&environment);
        let said = match name {
            "floatname" => self.input.argument(),
            _ => self.input.value_of(&options, "name"),
        };
        if name == "newfloat" {
            self.skip_arguments("mmo");
        }
        let said = self.words(&said);
        let word = if said.is_empty() { super::theorems::capitalised(&environment) } else { said };
        self.own.floats.insert(environment, word);
        true
    }

    /// A block of code from a file: some of its lines, where the options say so.
    pub(super) fn code_of_file(&mut self, command: &str) {
        self.input.take('*');
        let options = self.input.option().unwrap_or_default();
        let said = self.input.characters(&options);
        let language = if command == "inputminted" {
            let language = self.input.argument();
            self.input.characters(&language)
        } else {
            value(&said, "language")
        };
        let file = self.address();
        let Some(text) = self.own.files.get(&file).cloned().or_else(|| self.text_of_file(&file)) else {
            self.tallies.files.add_apart(self.at, &file);
            return;
        };
        let number = |key: &str| value(&said, key).parse::<usize>().ok();
        let first = number("firstline").unwrap_or(1).max(1);
        let last = number("lastline").unwrap_or(usize::MAX);
        let lines = text.lines().skip(first - 1).take(last.saturating_sub(first).saturating_add(1));
        let code: String = lines.flat_map(|line| [line, "\n"]).collect();
        self.put_code(&code, &language, &options);
    }

    pub(super) fn text_of_file(&mut self, file: &str) -> Option<String> {
        let path = self.files.path(file)?;
        let bytes = self.files.read(&path).ok()?;
        if !self.doc.source.includes.contains(&path) {
            self.doc.source.includes.push(path);
        }
        Some(crate::utf8_source::text(&bytes).into_owned())
    }

    /// Keeps a file that the document writes, to be shown later.
    pub(super) fn made_file(&mut self, name: &str) {
        self.input.option();
        let file = self.address();
        let Some((start, end)) = self.raw_environment(name) else { return self.skip_environment(name) };
        if self.own.files.len() < MOST_FILES {
            let text = self.input.source[start..end].trim_start_matches('\n').to_owned();
            self.own.files.insert(file, text);
        }
    }

    /// Pages of another document: a link to it.
    pub(super) fn document_file(&mut self) {
        self.input.option();
        let file = self.address();
        if file.is_empty() {
            return;
        }
        self.tallies.pictures.add_apart(self.at, &file);
        self.end_paragraph();
        let (href, text) = (self.doc.intern(&file), self.doc.intern(&file));
        let node = self.inline(Kind::Link { href });
        self.doc.append_at(node, Kind::Text(text), self.at);
        self.end_paragraph();
    }

    /// The characters of an address: what is special in text is not in one.
    pub(super) fn address(&mut self) -> String {
        // A token that is looked at is no source any more.
        if !self.input.made.is_empty() {
            self.input.skip_white();
        }
        if self.input.made.is_empty() && self.input.source[self.input.at..].starts_with('{') {
            let rest = &self.input.source[self.input.at + 1..];
            let mut depth = 0_usize;
            for at in memchr::memchr2_iter(b'{', b'}', rest.as_bytes()) {
                match rest.as_bytes()[at] {
                    b'{' => depth += 1,
                    _ if depth == 0 => {
                        self.input.at += at + 2;
                        return written_address(&rest[..at]);
                    }
                    _ => depth -= 1,
                }
            }
        }
        let argument: Vec<Token> = self.input.argument();
        let argument: Vec<Token> = argument
            .into_iter()
            .map(|token| if token.kind == Sign::Tie { Token { kind: Sign::Char('~'), ..token } } else { token })
            .collect();
        self.input.characters(&argument).split_whitespace().collect()
    }
}

/// An address without what only LaTeX asks for: white space, and the signs before characters that mean something in it.
fn written_address(source: &str) -> String {
    if source.bytes().all(|byte| byte.is_ascii_graphic() && byte != b'\\') {
        return source.to_owned();
    }
    let mut address = String::with_capacity(source.len());
    for c in source.chars().filter(|c| !c.is_whitespace()) {
        if matches!(c, '%' | '#' | '&' | '_' | '~' | '$') && address.ends_with('\\') {
            address.pop();
        }
        address.push(c);
    }
    address
}

/// The value of a key in a list of options.
pub(super) fn value(options: &str, key: &str) -> String {
    let found = options.split(',').filter_map(|part| part.split_once('=')).find(|(known, _)| known.trim() == key);
    found.map(|(_, value)| value.trim().to_owned()).unwrap_or_default()
}
