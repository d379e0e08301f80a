//! Commands that are made of text, and counters that are shown (The TeXbook, chapters 7 and 20; the LaTeX documentation, "Counters").

use super::Reader;
use super::tokens::{Kind as Sign, Token};

impl Reader<'_> {
    /// Names of commands that are made of text, and what comes before others is read (The TeXbook, chapters 7 and 20).
    pub(super) fn made_command(&mut self, name: &str) -> bool {
        match name {
            "csname" | "@nameuse" | "csuse" => {
                let name = if name == "csname" {
                    self.name_up_to_end()
                } else {
                    let words = self.input.argument();
                    self.words(&words)
                };
                // Without a meaning, it does nothing.
                if self.expanding.in_formula || self.macros.knows(&name) || super::vocabulary::is_known(&name) {
                    self.input.push(Sign::Command(name.as_str().into()), self.at);
                }
            }
            "@startsection" => self.heading_in_its_look(),
            "endcsname" => {}
            "expandafter" => self.expand_after(),
            "@namedef" | "namedef" => {
                let words = self.input.argument();
                let name = self.words(&words);
                self.input.push(Sign::Command(name.as_str().into()), self.at);
                self.macros.define("def", &mut self.input);
            }
            "csdef" | "csgdef" | "csletcs" => {
                let words = self.input.argument();
                let name = self.words(&words);
                self.input.push(Sign::Command(name.as_str().into()), self.at);
                self.macros.define("def", &mut self.input);
            }
            "uppercase" | "lowercase" | "MakeUppercase" | "MakeLowercase" | "MakeTextUppercase" | "MakeTextLowercase"
            | "MakeTitlecase" => {
                self.change_case(name);
            }
            "begingroup" | "bgroup" => self.open_group(super::Closing::Group),
            "endgroup" | "egroup" => self.end_group(),
            "unskip" => self.trim_line(),
            "xspace" => self.space_if_needed(),
            "@firstofone" => {}
            "@gobble" => drop(self.input.argument()),
            "@gobbletwo" => self.skip_arguments("mm"),
            "@firstoftwo" => {
                let (first, _) = (self.input.argument(), self.input.argument());
                self.input.push_all(first.into_iter());
            }
            "@secondoftwo" => drop(self.input.argument()),
            "ExplSyntaxOn" => {
                if self.input.made.is_empty()
                    && !self.own.endless.contains(name)
                    && let Some(length) = memchr::memmem::find(&self.input.source.as_bytes()[self.input.at..], b"\\ExplSyntaxOff")
                {
                    self.input.at += length;
                } else {
                    self.own.endless.insert(name.to_owned());
                }
            }
            "ExplSyntaxOff" => {}
            "sisetup" => self.set_quantities(),
            // What a program writes is not known.
            "directlua" | "latelua" | "luaexec" | "luadirect" => {
                self.tallies.unknown.add_apart(self.at, &format!("\\{name}"));
                self.input.argument();
            }
            _ => {
                return self.shown_command(name)
                    || self.register_command(name)
                    || self.category_command(name)
                    || self.loop_command(name)
                    || self.program_command(name)
                    || self.patch(name);
            }
        }
        true
    }

    /// `\@startsection{name}{level}{indent}{before}{behind}{style}`: a heading of that name, or of that level.
    fn heading_in_its_look(&mut self) {
        let name = self.input.argument_characters().into_owned();
        let level = self.input.argument();
        self.skip_arguments("mmmm");
        let name = if self.counters.level(&name).is_some() {
            name
        } else {
            let level = self.within(&level, Self::number).unwrap_or(1).clamp(1, 5);
            ["section", "subsection", "subsubsection", "paragraph", "subparagraph"][level as usize - 1].to_owned()
        };
        self.input.push(Sign::Command(format!("{}{name}", super::tokens::BUILT_IN).into()), self.at);
    }

    /// Commands that come to characters. Whether a command is one.
    fn shown_command(&mut self, name: &str) -> bool {
        match name {
            "number" | "romannumeral" => {
                let at = self.at;
                if let Some(number) = self.number() {
                    let shown = if name == "number" { number.to_string() } else { super::counters::shown_as(number, "roman") };
                    self.input.push_characters(&shown, at);
                }
            }
            "@arabic" | "@roman" | "@Roman" | "@alph" | "@Alph" => {
                let at = self.at;
                let number = self.input.argument();
                let number = self.within(&number, Self::number).unwrap_or(0);
                self.input.push_characters(&super::counters::shown_as(number, &name[1..]), at);
            }
            "the" => self.show_the(self.at),
            "string" | "meaning" => self.characters_of_next(name),
            "detokenize" => {
                let words = self.input.argument();
                let mut text = String::new();
                self.input.write(&words, &mut text);
                self.push_shown(&text);
            }
            "unexpanded" => {
                let words = self.input.argument();
                self.input.push_all(words.into_iter());
            }
            "jobname" => {
                let name = if self.files.name.is_empty() { "document" } else { self.files.name };
                self.input.push_characters(name, self.at);
            }
            _ => return false,
        }
        true
    }

    /// Writes out what comes behind the next token; in a chain of these, what comes behind all of them.
    fn expand_after(&mut self) {
        let mut first = Vec::new();
        loop {
            first.extend(self.input.next());
            let Some(second) = self.input.next() else { break };
            match second.kind.command().map(str::to_owned) {
                Some(name) if name == "expandafter" => continue,
                // The name of a command is one even where it means nothing.
                Some(name) if name == "csname" => {
                    let name = self.name_up_to_end();
                    self.input.push(Sign::Command(name.as_str().into()), second.at);
                }
                Some(name) if matches!(&*name, "fi" | "else" | "or") => drop(self.conditional(&name)),
                Some(name) if self.expand(&name, second.at) => {}
                _ => self.input.made.push(second),
            }
            break;
        }
        self.input.push_all(first.into_iter());
    }

    /// The characters of the token that comes next, or what it stands for.
    fn characters_of_next(&mut self, how: &str) {
        let Some(token) = self.input.single() else { return };
        let mut text = String::new();
        self.input.write(std::slice::from_ref(&token), &mut text);
        if how == "meaning" {
            text = match token.kind.command().and_then(|name| self.macros.body(name)) {
                Some(body) => {
                    let mut out = String::from("macro:->");
                    self.input.write(&body, &mut out);
                    out
                }
                None => text,
            };
        }
        self.push_shown(&text);
    }

    /// Puts characters that stand for themselves before all other tokens.
    fn push_shown(&mut self, text: &str) {
        if self.macros.charge(text.len(), self.at) {
            self.input.push_characters(text, self.at);
        }
    }

    /// The name up to `\endcsname`.
    pub(super) fn name_up_to_end(&mut self) -> String {
        let mut tokens = Vec::new();
        while let Some(token) = self.input.next() {
            if token.kind.command() == Some("endcsname") {
                return self.words(&tokens);
            }
            let is_name = tokens.len() < 200 && !matches!(token.kind, Sign::Par | Sign::Begin | Sign::End | Sign::Then(_));
            tokens.push(token);
            if !is_name {
                break;
            }
        }
        // Without its end, it is text.
        self.input.push_all(tokens.into_iter());
        String::new()
    }

    /// The number of a counter as the document shows it, where it says how: `\renewcommand{\thefigure}{S\arabic{figure}}`.
    pub(super) fn number_as_shown(&mut self, counter: &str, number: String) -> String {
        if !self.macros.shows_numbers {
            return number;
        }
        let name = format!("the{counter}");
        if !self.macros.knows(&name) {
            // What stands before it may be shown in its own way.
            let value = self.counters.get(counter);
            let above = self.counters.above(counter).map(str::to_owned);
            let shown = above.filter(|above| self.counters.get(above) > 0).and_then(|above| {
                let before = self.counters.number(&above);
                let shown = self.nested(|reader| Some(reader.number_as_shown(&above, before.clone())))?;
                (shown != before).then(|| format!("{shown}.{value}"))
            });
            return shown.unwrap_or(number);
        }
        let at = self.at;
        let tokens = self.written_out(&[Token { kind: Sign::Command(name.into()), at }]);
        let shown = self.words(&tokens);
        if shown.is_empty() { number } else { shown }
    }

    /// A counter as a number, in letters, or with what stands before it. Whether a command shows one.
    pub(super) fn counter_shown(&mut self, name: &str) -> bool {
        if !matches!(name, "arabic" | "alph" | "Alph" | "roman" | "Roman") {
            let Some(counter) = name.strip_prefix("the").filter(|counter| self.counters.has(counter)) else { return false };
            let number = self.counters.number(counter);
            self.text(&number);
            return true;
        }
        let counter = self.input.argument();
        let counter = self.input.characters(&counter);
        let shown = super::counters::shown_as(self.counters.get(&counter), name);
        self.text(&shown);
        true
    }
}
