//! Environments: what each begins, and what happens where it ends.

use super::super::languages::language_of;
use super::environment_names::{Sort, arguments, sort};
use super::lists::ListForm;
use super::macros::Own;
use super::tokens::{Kind as Sign, Then};
use super::{Environment, Reader};
use crate::document::{DivisionKind, Kind};

/// Tables that count by themselves (the documentation of longtable, "Captions").
pub(super) const LONG_TABLE: &str = "longtable";

/// No more environments of a document stand within each other.
const MOST_ENVIRONMENTS: usize = 10_000;

/// What an environment is while it is open.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Form {
    /// Its content stands as if it were not there.
    Transparent,
    /// A part of the document of its own.
    Part,
    List,
    Table,
    Float,
    Document,
    /// A proof, whose end has a sign.
    Proof,
    /// Lines of an algorithm.
    Lines,
}

impl Reader<'_> {
    /// `\begin`
    pub(super) fn begin(&mut self) {
        let name = self.input.argument_characters();
        if self.begin_own(&name) {
            return;
        }
        if let Some(&is_shown) = self.own.comments.get(&*name) {
            if is_shown {
                return self.open_environment(&name, Form::Transparent, None);
            }
            return self.skip_environment(&name);
        }
        let base = name.trim_end_matches('*');
        if super::formulas::DISPLAYS.contains(&base) {
            return self.display(&name);
        }
        if self.own.code.contains(&*name) {
            return self.code_block(&name);
        }
        if self.own.floats.contains_key(base) {
            return self.open_float(&name);
        }
        if matches!(base, "threeparttable" | "measuredfigure") && !self.environments.iter().any(|one| one.kind == Form::Float) {
            return self.open_float(&name);
        }
        if let Some(own) = self.own.lists.get(&*name) {
            return self.open_list(&name, own.kind);
        }
        if self.front.has_examples && self.begin_example(&name) {
            return;
        }
        match sort(base) {
            Some(Sort::Code) => self.code_block(&name),
            Some(Sort::File) => self.made_file(&name),
            Some(Sort::Skipped) => self.skip_environment(&name),
            Some(Sort::Drawing) => self.drawing(&name),
            Some(Sort::Outline) => self.open_outline(&name),
            Some(Sort::Kept) => self.keep_environment(&name),
            Some(Sort::Bullets) => self.open_list(&name, ListForm::Bullets),
            Some(Sort::Numbers) => self.open_list(&name, ListForm::Numbers),
            Some(Sort::Terms) => self.open_list(&name, ListForm::Terms),
            Some(Sort::Table) => {
                self.open_environment(&name, Form::Table, None);
                self.begin_table(&name);
            }
            Some(Sort::Tabs) => {
                self.open_environment(&name, Form::Table, None);
                self.begin_tabbing();
            }
            Some(Sort::Float) => self.open_float(&name),
            Some(Sort::Lines) => {
                self.skip_arguments(arguments(base));
                self.open_environment(&name, Form::Lines, None);
                self.begin_algorithm(false);
            }
            Some(Sort::Entries) => {
                self.open_environment(&name, Form::List, None);
                self.begin_bibliography(base);
            }
            Some(Sort::Document) => self.open_environment(&name, Form::Document, None),
            other => self.begin_block(&name, base, other),
        }
    }

    /// Begins an environment that the document defines. Whether it is one.
    fn begin_own(&mut self, name: &str) -> bool {
        let at = self.at;
        if let Some(own) = self.macros.own(name)
            && self.takes_blocks()
            && self.parts.len() + 1 < super::build::MOST_PARTS
        {
            match own {
                Own::Part(kind) => {
                    self.open_part(name, Kind::Division(kind), None);
                    return true;
                }
                Own::Details => {
                    self.open_part(name, Kind::Details { open: false }, None);
                    let summary = self.block(Kind::Summary);
                    self.argument_into(summary, true);
                    return true;
                }
                Own::InterlinearGloss => {
                    self.open_environment(name, Form::Table, None);
                    self.begin_table(super::examples::GLOSS);
                    return true;
                }
                Own::Lines => {
                    self.open_list(name, ListForm::Bullets);
                    self.mark_lines();
                    return true;
                }
                _ => {}
            }
        }
        if self.begin_own_form(name) {
            return true;
        }
        if self.environments.len() >= MOST_ENVIRONMENTS {
            return false;
        }
        if self.macros.knows_environment(name) {
            self.open_environment(name, Form::Transparent, None);
            if let Some(end) = self.macros.begin(name, at, &mut self.input) {
                self.own_ends.push(end);
            }
            return true;
        }
        // Two commands are an environment, too.
        let is_pair = self.is_pair_of_commands(name);
        if is_pair {
            self.open_environment(name, Form::Transparent, None);
            let end = Sign::Command(format!("end{name}").into());
            self.own_ends.push(std::rc::Rc::from([super::tokens::Token { kind: end, at }]));
            self.macros.expand(name, at, &mut self.input);
        }
        is_pair
    }

    fn is_pair_of_commands(&self, name: &str) -> bool {
        sort(name).is_none() && self.macros.is_plain(name) && self.macros.is_plain(&format!("end{name}"))
    }

    /// Begins an environment of the document that only says how its content looks: a part that has its name. Whether it is one.
    fn begin_own_form(&mut self, name: &str) -> bool {
        let Some((begin, end)) = self.macros.environment(name) else { return false };
        if !self.takes_blocks() || self.parts.len() >= super::build::MOST_PARTS || super::formulas::DISPLAYS.contains(&name) {
            return false;
        }
        let Some(kind) = self.form_of(&begin).filter(|_| self.form_of(&end).is_some()) else { return false };
        self.open_environment(name, Form::Part, None);
        let node = self.block(kind);
        self.class_of_environment(node, name);
        self.set_node(node);
        self.begin_part(node, false);
        true
    }

    /// What a definition makes that holds nothing but looks: a quotation, or a part.
    fn form_of(&self, tokens: &[super::tokens::Token]) -> Option<Kind> {
        let mut kind = Kind::Division(DivisionKind::Plain);
        let mut inner = super::Input::of_tokens(self.input.source, tokens[..tokens.len().min(200)].iter().cloned());
        while let Some(token) = inner.next() {
            match &token.kind {
                Sign::Space | Sign::Par => {}
                Sign::Command(name) if matches!(&**name, "begin" | "end") => {
                    let argument = inner.argument();
                    match inner.characters(&argument).as_str() {
                        "quote" | "quotation" => kind = Kind::BlockQuote,
                        "center" | "flushleft" | "flushright" | "small" | "footnotesize" => {}
                        _ => return None,
                    }
                }
                Sign::Command(name) => {
                    let arguments = super::vocabulary::silent(name)?;
                    for argument in arguments.chars() {
                        match argument {
                            's' => drop(inner.take('*')),
                            'o' => drop(inner.option()),
                            'm' => drop(inner.argument()),
                            _ => return None,
                        }
                    }
                }
                _ => return None,
            }
        }
        Some(kind)
    }

    /// Environments that are parts of the text.
    fn begin_block(&mut self, name: &str, base: &str, sort: Option<Sort>) {
        if self.parts.len() >= super::build::MOST_PARTS {
            self.open_environment(name, Form::Transparent, None);
            return self.end_paragraph();
        }
        match sort {
            Some(Sort::Quotation) => {
                if matches!(base, "quote" | "quotation") {
                    // In the standard classes, it is text.
                    let option = self.input.option().filter(|option| self.is_words(option));
                    if let Some(option) = option {
                        let at = self.at;
                        self.input.push_characters("] ", at);
                        self.input.push_all(option.into_iter());
                        self.input.push(Sign::Char('['), at);
                    }
                }
                self.skip_arguments(arguments(base));
                if base == "verse" {
                    return self.open_part(name, Kind::Division(DivisionKind::Plain), Some("verse"));
                }
                self.open_part(name, Kind::BlockQuote, None);
            }
            Some(Sort::Abstract) => {
                self.open_part(name, Kind::Division(DivisionKind::Section), Some("abstract"));
                self.abstract_heading();
            }
            Some(Sort::Proof) => self.begin_proof(name),
            Some(Sort::Slide) => {
                self.input.overlay();
                self.input.option();
                self.open_environment(name, Form::Transparent, None);
                self.end_paragraph();
                self.frame_title();
            }
            Some(Sort::Box) => self.begin_box(name, base),
            _ if base == "appendices" => {
                self.open_environment(name, Form::Transparent, None);
                self.begin_appendix();
            }
            Some(Sort::Open) => {
                self.open_environment(name, Form::Transparent, None);
                self.skip_arguments(arguments(base));
                self.end_paragraph();
                if matches!(base, "keyword" | "keywords" | "IEEEkeywords") {
                    self.keywords_lead_in();
                }
            }
            Some(Sort::Letter) => {
                self.open_environment(name, Form::Transparent, None);
                self.begin_letter();
            }
            Some(Sort::Language) => {
                self.input.option();
                let language = self.input.argument();
                let language = self.input.characters(&language);
                self.begin_language(name, &language);
            }
            Some(Sort::Style) => {
                self.open_environment(name, Form::Transparent, None);
                self.declaration(base);
            }
            _ => self.begin_named(name, base),
        }
    }

    /// Environments that mean something by their names alone: boxes and theorems of the document, languages; all others are
    /// divisions that have them as their classes.
    fn begin_named(&mut self, name: &str, base: &str) {
        if let Some(own) = self.own.boxes.get(name).cloned() {
            self.begin_division(name);
            return self.begin_own_box(&own, name);
        }
        if language_of(base).is_some() {
            self.input.option();
            return self.begin_language(name, base);
        }
        self.open_environment(name, Form::Part, None);
        if self.begin_theorem(name) {
            let node = self.holder();
            return self.set_node(node);
        }
        self.environments.pop();
        if super::environment_names::is_named_as_code(base) && self.code_by_its_name(name) {
            return;
        }
        let option = self.input.option().filter(|option| self.is_words(option));
        if !crate::refine::targets::is_target(name) {
            self.tallies.environments.add_apart(self.at, name);
        }
        if self.begins_with_item() {
            // A list that another package defines, below what it is called.
            if let Some(option) = option {
                let words = self.words(&option);
                let words = self.doc.intern(&words);
                let paragraph = self.block(Kind::Paragraph);
                let strong = self.doc.append_at(paragraph, Kind::Strong, self.at);
                self.doc.append_at(strong, Kind::Text(words), self.at);
            }
            let kind = match base {
                _ if base.contains("enum") => ListForm::Numbers,
                _ if base.contains("desc") => ListForm::Terms,
                _ => ListForm::Bullets,
            };
            return self.open_list(name, kind);
        }
        self.begin_division(name);
        self.box_title(option.unwrap_or_default());
    }

    /// Whether the first item of a list comes next.
    fn begins_with_item(&mut self) -> bool {
        let mut white = Vec::new();
        let is_item = loop {
            let Some(token) = self.input.next() else { break false };
            let is_white = matches!(token.kind, Sign::Space | Sign::Par);
            let is_item = token.kind.command() == Some("item");
            white.push(token);
            if !is_white || white.len() > 3 {
                break is_item;
            }
        };
        self.input.push_all(white.into_iter());
        is_item
    }

    /// Whether what stands in brackets is text: several words, or a name.
    pub(super) fn is_words(&self, option: &[super::tokens::Token]) -> bool {
        let words = self.input.characters(option);
        let is_name =
            words.chars().next().is_some_and(char::is_uppercase) && words.chars().filter(|c| c.is_alphabetic()).count() > 2;
        let has_letters = words.chars().any(char::is_alphabetic);
        has_letters
            && !words.contains(['=', '<', '>'])
            && (is_name || words.split_whitespace().count() > 1 && !words.contains(','))
    }

    fn begin_language(&mut self, name: &str, language: &str) {
        self.open_part(name, Kind::Division(DivisionKind::Plain), None);
        let node = self.holder();
        self.set_language(node, language);
    }

    /// Begins a division that has the name of its environment as its class.
    fn begin_division(&mut self, name: &str) {
        self.open_environment(name, Form::Part, None);
        let node = self.block(Kind::Division(DivisionKind::Plain));
        self.class_of_environment(node, name);
        self.set_node(node);
        self.begin_part(node, false);
    }

    fn class_of_environment(&mut self, node: crate::document::NodeId, name: &str) {
        let class: String = name.chars().filter(|c| c.is_alphanumeric() || matches!(c, '-' | '_')).collect();
        if !class.is_empty() {
            let class = self.doc.intern(&class);
            self.doc.attributes_mut(node).classes.push(class);
        }
    }

    /// Boxes, whose sizes mean nothing here.
    fn begin_box(&mut self, name: &str, base: &str) {
        self.input.overlay();
        let options = self.input.option();
        self.input.option();
        self.input.option();
        self.open_environment(name, Form::Transparent, None);
        self.end_paragraph();
        match base {
            "tcolorbox" | "mdframed" => {
                let options = options.unwrap_or_default();
                let key = if base == "tcolorbox" { "title" } else { "frametitle" };
                let title = self.input.value_of(&options, key);
                self.box_title(title);
            }
            "minipage" | "multicols" | "column" | "adjustbox" | "spacing" | "varwidth" | "paracol" | "boxedminipage" => {
                drop(self.input.argument());
                if let Some(words) = self.input.option().filter(|_| base == "multicols") {
                    // What stands above the columns.
                    self.input.push(Sign::Par, self.at);
                    self.input.push_all(words.into_iter());
                }
            }
            "captionbeside" => {
                // What the option says is for lists; where the caption stands is how it looks.
                let caption = self.input.argument();
                self.input.option();
                self.input.option();
                self.input.take('*');
                self.input.push_command("caption", vec![caption], self.at);
            }
            "textblock" => {
                self.input.argument();
                self.input.between('(', ')');
            }
            "beamercolorbox" => drop(self.input.argument()),
            "adjustwidth" | "overlayarea" => drop((self.input.argument(), self.input.argument())),
            "block" | "alertblock" | "exampleblock" | "beamerboxesrounded" => {
                let words = self.input.argument();
                if !words.is_empty() {
                    self.input.push(Sign::Par, self.at);
                    self.styled(Kind::Strong, words);
                }
            }
            _ => {}
        }
    }

    /// The title of a slide is a heading.
    fn frame_title(&mut self) {
        if self.input.takes_begin() {
            self.input.push(Sign::Begin, self.at);
            self.heading_of(self.counters.level_of_slides(), false);
        }
    }

    pub(super) fn open_environment(&mut self, name: &str, kind: Form, node: Option<crate::document::NodeId>) {
        let (groups, styles) = (self.groups.len(), self.styles.len());
        let before = self.marks_here();
        self.environments.push(Environment { name: name.to_owned(), kind, groups, styles, before, node });
    }

    fn set_node(&mut self, node: crate::document::NodeId) {
        if let Some(environment) = self.environments.last_mut() {
            environment.node = Some(node);
        }
    }

    fn open_part(&mut self, name: &str, kind: Kind, class: Option<&str>) {
        self.open_environment(name, Form::Part, None);
        let node = self.block(kind);
        if let Some(class) = class {
            let class = self.doc.intern(class);
            self.doc.attributes_mut(node).classes.push(class);
        }
        self.set_node(node);
        self.begin_part(node, false);
    }

    /// Begins a proof, with the words for it.
    fn begin_proof(&mut self, name: &str) {
        let note = self.input.option();
        self.open_environment(name, Form::Proof, None);
        let node = self.block(Kind::Division(DivisionKind::Plain));
        let class = self.doc.intern("proof");
        self.doc.attributes_mut(node).classes.push(class);
        self.set_node(node);
        self.begin_part(node, false);
        match note {
            Some(note) => {
                self.input.push(Sign::Space, self.at);
                self.input.push(Sign::Char('.'), self.at);
                self.styled(Kind::Emphasis, note);
            }
            None => {
                let emphasis = self.inline(Kind::Emphasis);
                let words = self.doc.intern("Proof.");
                self.doc.append_at(emphasis, Kind::Text(words), self.at);
                self.input.push(Sign::Space, self.at);
            }
        }
    }

    pub(super) fn open_list(&mut self, name: &str, kind: ListForm) {
        let takes_list = self.takes_blocks() || self.is_list_in_line(name);
        if !takes_list || self.parts.len() >= super::build::MOST_PARTS {
            self.open_environment(name, Form::Transparent, None);
            self.input.option();
            return;
        }
        self.open_environment(name, Form::List, None);
        self.skip_arguments(arguments(name));
        let node = self.begin_list(name, kind);
        self.set_node(node);
    }

    fn open_outline(&mut self, name: &str) {
        self.open_environment(name, Form::Transparent, None);
        self.outline();
    }

    fn open_float(&mut self, name: &str) {
        if !self.takes_blocks() {
            self.open_environment(name, Form::Transparent, None);
            self.input.option();
            return;
        }
        self.open_environment(name, Form::Float, None);
        let node = self.begin_float(name);
        self.set_node(node);
        let is_lines = name == "algorithm2e" || name.starts_with("algorithm") && self.has_lines_in_braces();
        if is_lines {
            self.begin_algorithm(true);
        }
    }

    /// Whether algorithms of this document are those of the package that has no environment for lines.
    fn has_lines_in_braces(&mut self) -> bool {
        let source = self.input.source.as_bytes();
        let is_loaded = self.front.loads("algorithm2e");
        let is_named = || is_loaded || memchr::memmem::find(source, b"{algorithm2e}").is_some();
        *self.own.lines_in_braces.get_or_insert_with(is_named)
    }

    /// `\end`
    pub(super) fn end(&mut self) {
        let name = self.input.argument_characters();
        if name == "document" {
            self.has_ended = true;
            return;
        }
        let Some(open) = self.environments.iter().rposition(|environment| environment.name == name) else {
            self.tallies.unclosed.add_apart(self.at, &name);
            return;
        };
        while self.environments.len() > open + 1 {
            let inner = self.environments.last().map(|environment| environment.name.clone()).unwrap_or_default();
            self.tallies.unclosed.add_apart(self.at, &inner);
            self.environment_ends();
        }
        let is_own = self.macros.knows_environment(&name) || self.is_pair_of_commands(&name);
        if is_own && let Some(end) = self.own_ends.pop() {
            self.input.push(Sign::Then(Then::EndEnvironment), self.at);
            self.input.push_all(end.iter().cloned());
        } else {
            self.environment_ends();
        }
    }

    /// What an environment does where it ends.
    pub(super) fn environment_ends(&mut self) {
        let Some(environment) = self.environments.pop() else { return };
        self.groups.truncate(environment.groups);
        if environment.kind != Form::Document {
            self.restore(environment.before);
        }
        match environment.kind {
            Form::Transparent | Form::Document => {
                match environment.name.as_str() {
                    "frontmatter" => self.put_title(),
                    "subequations" => self.end_parts_of_equations(),
                    _ => {}
                }
                if self.takes_blocks() {
                    self.end_paragraph();
                }
            }
            Form::Lines => self.end_algorithm(),
            Form::List => self.end_list(),
            Form::Table => {
                let node = self.tables.last().map(super::tables::Table::node);
                let has_caption = |node| self.doc.children(node).any(|child| self.doc.kind(child) == Kind::Caption);
                // A long table counts, whether it has a caption or not.
                if environment.name == LONG_TABLE && !node.is_some_and(has_caption) {
                    self.counters.step("table");
                }
                self.end_table();
            }
            Form::Part | Form::Proof => {
                if environment.kind == Form::Proof {
                    self.text(" \u{220E}");
                }
                while self.parts.len() > 1 {
                    let ended = self.end_part();
                    if ended == environment.node || ended.is_none() {
                        break;
                    }
                }
            }
            Form::Float => {
                if self.own.lines.last().is_some_and(super::algorithms::Lines::is_in_braces) {
                    self.end_algorithm();
                }
                while self.parts.len() > 1 {
                    let ended = self.end_part();
                    if ended == environment.node || ended.is_none() {
                        break;
                    }
                }
                if let Some(node) = environment.node {
                    self.end_float(node);
                }
            }
        }
        self.styles.truncate(environment.styles);
    }
}
