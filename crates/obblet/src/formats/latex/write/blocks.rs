//! Blocks: what each begins and ends with.

use super::super::own_commands::{CLASS_OF_LINES, LINES, environment_for};
use super::preamble::{Extra, code_language};
use super::{Writer, escape};
use crate::document::{Attributes, DivisionKind, Document, Kind, ListKind, Markup, NodeId, Step, Text};
use std::fmt::Write;

/// A list, a quotation or another environment that is open.
#[derive(Debug)]
pub(super) struct List {
    form: Form,
    /// Whether items stand apart.
    loose: bool,
    /// What it ends with; nothing where it stands too deep for an environment.
    end: String,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Form {
    Bullets,
    Numbers,
    Terms,
    /// The lines of an algorithm.
    Lines,
    /// Entries of a bibliography.
    Entries,
    /// A quotation or a part of the document.
    Holder,
}

/// Environments that count as lists do not stand deeper within each other.
const DEEPEST: usize = 38;

/// So much of a line is looked at.
const LONGEST_LINE: usize = 400;

/// Commands of headings, the highest first.
const HEADINGS: [&str; 6] = ["chapter", "section", "subsection", "subsubsection", "paragraph", "subparagraph"];

impl<'d> Writer<'d> {
    /// What a block needs before it: an empty line, but for the first in something.
    pub(super) fn blank(&mut self) {
        let line = self.last_line();
        if self.inside.moving > 0 {
            if !self.out.ends_with(['{', ' ']) {
                self.out.push(' ');
            }
        } else if line.is_empty() {
            let before = self.out.trim_end_matches('\n');
            let is_first = before.is_empty() || before.rsplit('\n').next().is_some_and(opens);
            if !is_first && !self.out.ends_with("\n\n") {
                self.out.push('\n');
            }
        } else if !(line.ends_with(['{', '&'])
            || self.out.ends_with("\\item ")
            || line.starts_with("\\bibitem") && line.ends_with("} ")
            || self.out.ends_with("& ")
            || line.ends_with("] ") && line.starts_with("\\item[")
            || line.ends_with("}{}") && line.starts_with("\\item \\hypertarget{"))
        {
            self.out.truncate(self.out.trim_end_matches(' ').len());
            self.out.push_str("\n\n");
        }
    }

    /// The line that is written now, or the end of a long one.
    pub(super) fn last_line(&self) -> &str {
        let mut start = self.out.len().saturating_sub(LONGEST_LINE);
        while !self.out.is_char_boundary(start) {
            start += 1;
        }
        let end = &self.out[start..];
        end.rsplit('\n').next().unwrap_or(end)
    }

    /// What an environment needs before it: in an item of a tight list, a line end only.
    fn gap(&mut self) {
        if self.lists.last().is_some_and(|list| !list.loose && !list.end.is_empty()) && self.inside.moving == 0 {
            let is_first = self.out.ends_with("\\item ") || self.out.ends_with("] ");
            if !is_first && !self.out.ends_with('\n') {
                self.out.push('\n');
            }
        } else {
            self.blank();
        }
    }

    /// Puts a line of its own.
    pub(super) fn line(&mut self, text: &str) {
        if !self.out.is_empty() && !self.out.ends_with('\n') {
            self.out.truncate(self.out.trim_end_matches(' ').len());
            self.out.push('\n');
        }
        self.out.push_str(text);
        self.out.push('\n');
    }

    /// Whether a node is a block in an argument that holds text only.
    pub(super) fn is_text_alone(&self, id: NodeId) -> bool {
        let kind = self.doc.kind(id);
        self.inside.moving > 0 && !kind.is_inline() && !self.implied.holds(id)
    }

    /// Comes to a block of which only the text can be written.
    pub(super) fn enter_in_argument(&mut self, id: NodeId) -> super::Entry {
        self.blank();
        match self.doc.kind(id) {
            Kind::Paragraph | Kind::Note => {}
            Kind::CodeBlock { code, .. } => {
                self.no_syntax("blocks in captions, terms and summaries; their text is kept", id);
                let code = self.doc.text(code).to_owned();
                self.code_in_argument(id, &code);
            }
            Kind::RawBlock { raw, .. } => {
                let raw = self.doc.text(raw).to_owned();
                self.code_in_argument(id, &raw);
            }
            _ => self.no_syntax("blocks in captions, terms and summaries; their text is kept", id),
        }
        super::Entry::Open
    }

    /// Comes to a node. Whether what is below it is written in turn.
    pub(super) fn enter(&mut self, id: NodeId) -> bool {
        let doc = self.doc;
        let kind = doc.kind(id);
        if self.implied.holds(id) || Some(id) == self.front.byline || Some(id) == self.front.subtitle {
            return false;
        }
        if kind.is_inline() {
            let is_in_text = doc.node(id).parent().is_some_and(|parent| holds_text(doc.kind(parent)));
            let begins = match doc.node(id).previous() {
                Some(before) => !doc.kind(before).is_inline(),
                None => !is_in_text,
            };
            if begins {
                self.blank();
            }
            return self.enter_inline(id, kind);
        }
        match kind {
            Kind::Root | Kind::Note => {}
            Kind::Heading(level) => return self.heading(id, level),
            Kind::Paragraph => {
                if self.is_in_front(id) {
                    return false;
                }
                self.blank();
                self.place_of(id);
                self.begin_language(id);
            }
            Kind::BlockQuote => {
                let own = self.own_environment(id);
                self.begin_holder(id, own.unwrap_or("quote"));
            }
            Kind::List(list) => return self.begin_list(id, list),
            Kind::ListItem { checked } => self.begin_item(id, checked),
            Kind::TermList => self.begin_terms(id),
            Kind::Term => self.begin_term(id),
            Kind::TermDescription => self.begin_description(id),
            Kind::CodeBlock { code, info } => self.code_block(id, code, info),
            Kind::Preformatted => {
                self.no_syntax("markup in preformatted text; its lines are kept", id);
                let text = doc.plain_text(id);
                self.verbatim(id, &text, "");
                return false;
            }
            Kind::RawBlock { markup, raw } => self.raw_block(id, markup, raw),
            Kind::ThematicBreak => {
                self.blank();
                self.line("\\noindent\\rule{\\linewidth}{0.4pt}");
            }
            Kind::Table => return self.begin_table(id),
            Kind::RowGroup(group) => self.begin_row_group(group, id),
            Kind::Row => self.begin_row(id),
            Kind::Cell(cell) => self.begin_cell(id, cell),
            Kind::Caption => return self.begin_caption(id),
            Kind::Figure => self.begin_figure(id),
            Kind::Division(division) => self.begin_division(id, division),
            Kind::Details { .. } => self.begin_details(id),
            Kind::Summary => {
                if self.instead.summary == Some(id) {
                    self.out.push('{');
                    self.inside.moving += 1;
                    return true;
                }
                self.blank();
                if !self.holds_blocks(id) {
                    self.out.push_str("\\textbf{");
                }
            }
            _ => {}
        }
        true
    }

    /// Leaves a node whose text begins at a place.
    pub(super) fn leave(&mut self, id: NodeId, begins: usize) {
        let kind = self.doc.kind(id);
        if kind.is_inline() {
            return self.leave_inline(id, kind, begins);
        }
        match kind {
            Kind::Heading(_) => self.end_heading(id),
            Kind::Paragraph => {
                self.out.truncate(self.out.trim_end_matches(' ').len());
                if self.other_language_of(id).is_some() && !self.is_holder(id) {
                    self.out.push('}');
                }
            }
            Kind::BlockQuote | Kind::List(_) | Kind::TermList | Kind::Division(_) | Kind::Details { .. } => self.end_holder(),
            Kind::Term => self.end_term(begins),
            Kind::Table => self.end_table(id),
            Kind::Row => self.end_row(),
            Kind::Cell(cell) => self.end_cell(cell),
            Kind::RowGroup(group) => self.end_row_group(group),
            Kind::Caption => self.end_caption(id, begins),
            Kind::Figure => self.end_figure(id),
            Kind::Summary if self.inside.moving > 0 => {
                self.inside.moving -= 1;
                self.out.push_str("}\n");
            }
            Kind::Summary if !self.holds_blocks(id) => self.out.push('}'),
            _ => {}
        }
    }

    fn heading(&mut self, id: NodeId, level: u8) -> bool {
        if Some(id) == self.front.title {
            self.blank();
            self.line("\\maketitle");
            return false;
        }
        if is_hollow(self.doc, id) {
            // Links may lead to it all the same.
            if self.linked_id(id).is_some() {
                self.blank();
                self.place_of(id);
            }
            return false;
        }
        if self.is_heading_of_bibliography(id) {
            return false;
        }
        self.blank();
        let is_part = self.front.parts > 0 && level <= self.front.lowered;
        let level = usize::from(level.saturating_sub(self.front.lowered).clamp(1, 6)) - usize::from(self.has_chapters);
        if level >= HEADINGS.len() {
            self.no_syntax("headings of the sixth level; they are of the fifth", id);
        }
        // A heading that runs into its paragraph can't begin another environment.
        if self.inside.argument > 0 || self.depth() > 0 && level > 3 {
            self.no_syntax("headings in cells and notes, and low ones in lists; they are bold", id);
            self.out.push_str("\\textbf{");
            self.instead.bold_heading = Some(id);
            return true;
        }
        let command = if is_part { "part" } else { HEADINGS[level.min(HEADINGS.len() - 1)] };
        let is_counted = is_part && self.counts_part(id) || self.counts_own(id) || self.in_appendix(id) || self.is_counted(id);
        let star = if is_counted { "" } else { "*" };
        let _ = write!(self.out, "\\{command}{star}");
        let is_plain = self.doc.walk(id).all(
            |step| !matches!(step, Step::Enter(id) if matches!(self.doc.kind(id), Kind::Image { .. } | Kind::NoteReference(_))),
        );
        if !is_plain && star.is_empty() {
            let words = self.doc.plain_text(id);
            self.out.push_str("[{");
            self.words(words.trim());
            self.out.push_str("}]");
        }
        self.out.push('{');
        self.inside.moving += 1;
        true
    }

    /// Whether a heading is counted that says no number.
    fn is_counted(&self, id: NodeId) -> bool {
        let all_are_own = self.doc.metadata.presentation.numbered_levels.is_none() && !self.numbers.own.of.is_empty();
        !all_are_own && !super::numbers::is_unnumbered(self.doc, id)
    }

    /// Whether the number of a heading is one of the document's own that the engine makes.
    fn counts_own(&mut self, id: NodeId) -> bool {
        let Some(number) = self.numbers.own.of.get(&id) else { return false };
        if let Some((first, Kind::Text(text))) = self.doc.node(id).first_child().map(|first| (first, self.doc.kind(first))) {
            let length = self.doc.text(text).len();
            self.implied.texts.insert(first, ((number.len() + 1).min(length), length));
        }
        true
    }

    /// Whether a heading is that of a part, whose number the engine makes.
    fn counts_part(&mut self, id: NodeId) -> bool {
        let Some((first, number)) = super::numbers::number_of_part(self.doc, id) else { return false };
        if let Kind::Text(text) = self.doc.kind(first) {
            let length = self.doc.text(text).len();
            self.implied.texts.insert(first, ((number + 1).min(length), length));
        }
        true
    }

    /// Whether a heading is one of an appendix, whose letter the engine makes.
    fn in_appendix(&mut self, id: NodeId) -> bool {
        let doc = self.doc;
        let has_class = doc.is_of_class(id, "appendix");
        let has_numbers = doc.metadata.presentation.numbered_levels.is_some_and(|levels| levels > 0);
        if !has_class || !has_numbers && self.numbers.own.of.is_empty() {
            return false;
        }
        let Some((first, Kind::Text(text))) = doc.node(id).first_child().map(|first| (first, doc.kind(first))) else {
            return false;
        };
        let text = doc.text(text);
        let number = text.split(' ').next().unwrap_or_default();
        let mut parts = number.split('.');
        let is_letter =
            parts.next().is_some_and(|letter| letter.len() == 1 && letter.starts_with(|c: char| c.is_ascii_uppercase()));
        if !is_letter || !parts.all(|part| part.bytes().all(|byte| byte.is_ascii_digit())) {
            return false;
        }
        if !std::mem::replace(&mut self.numbers.has_appendix, true) {
            self.line("\\appendix");
        }
        self.implied.texts.insert(first, ((number.len() + 1).min(text.len()), text.len()));
        true
    }

    fn end_heading(&mut self, id: NodeId) {
        self.out.truncate(self.out.trim_end_matches([' ', '\n']).len());
        self.out.push('}');
        if self.instead.bold_heading == Some(id) {
            return;
        }
        self.inside.moving = self.inside.moving.saturating_sub(1);
        let label = self.label_of_heading(id);
        let places = std::mem::take(&mut self.places_of_heading);
        for label in label.into_iter().chain(places) {
            let _ = write!(self.out, "\\label{{{label}}}");
        }
        self.out.push('\n');
    }

    /// How many environments that count as lists are open.
    pub(super) fn depth(&self) -> usize {
        self.lists.iter().filter(|list| !list.end.is_empty()).count()
    }

    /// Begins an environment that holds blocks; one without a name is only its content.
    pub(super) fn begin_holder(&mut self, id: NodeId, name: &str) {
        self.begin_holder_with(id, name, "");
        self.place_of(id);
    }

    fn begin_holder_with(&mut self, id: NodeId, name: &str, arguments: &str) {
        self.gap();
        let is_deep = self.depth() >= DEEPEST;
        if is_deep && !name.is_empty() {
            self.no_syntax("blocks that stand deeper than 38 within each other", id);
        }
        let end = if name.is_empty() || is_deep { String::new() } else { format!("\\end{{{name}}}") };
        if !end.is_empty() {
            self.line(&format!("\\begin{{{name}}}{arguments}"));
            self.note_depth(Form::Holder);
        }
        self.lists.push(List { form: Form::Holder, loose: true, end });
    }

    fn note_depth(&mut self, form: Form) {
        let is_same = |other: Form| other == form || form == Form::Bullets && other == Form::Lines;
        let same = self.lists.iter().filter(|list| is_same(list.form) && !list.end.is_empty()).count();
        if self.depth() >= 5 || form != Form::Holder && same >= 4 {
            self.needs.add(Extra::DeepLists, true);
            self.needs.packages.insert("enumitem");
        }
    }

    fn end_holder(&mut self) {
        let Some(list) = self.lists.pop() else { return };
        if !list.end.is_empty() {
            self.out.truncate(self.out.trim_end_matches(['\n', ' ']).len());
            self.line(&list.end);
        }
    }

    fn begin_list(&mut self, id: NodeId, list: ListKind) -> bool {
        if self.doc.node(id).first_child().is_none() {
            return false;
        }
        if self.is_bibliography(id) && self.depth() == 0 {
            self.begin_bibliography(id, list.ordered);
            self.lists.push(List { form: Form::Entries, loose: true, end: "\\end{thebibliography}".to_owned() });
            return true;
        }
        if !list.ordered && (self.has_class_of_lines(id) || self.lists.last().is_some_and(|list| list.form == Form::Lines)) {
            self.begin_list_of(id, Form::Lines, "", false);
            return true;
        }
        let form = if list.ordered { Form::Numbers } else { Form::Bullets };
        let depth = self.lists.iter().filter(|one| one.form == Form::Numbers).count();
        let options = self.list_options(id, list, depth);
        self.begin_list_of(id, form, &options, !list.tight);
        true
    }

    fn has_class_of_lines(&self, id: NodeId) -> bool {
        self.doc.is_of_class(id, CLASS_OF_LINES)
    }

    fn begin_list_of(&mut self, id: NodeId, form: Form, options: &str, loose: bool) {
        self.gap();
        // In what is put into another document, no definition goes along.
        let is_defined = !self.options.fragment && self.given.text.is_none();
        let (name, options) = match form {
            Form::Lines if is_defined => (LINES.0, ""),
            Form::Lines => ("itemize", "label={}, nosep"),
            Form::Bullets => ("itemize", options),
            Form::Numbers => ("enumerate", options),
            _ => ("description", options),
        };
        let is_deep = self.depth() >= DEEPEST;
        if is_deep {
            self.no_syntax("blocks that stand deeper than 38 within each other", id);
            self.lists.push(List { form, loose, end: String::new() });
            return;
        }
        self.note_depth(if form == Form::Lines { Form::Bullets } else { form });
        if form == Form::Lines {
            self.needs.packages.insert("enumitem");
            if is_defined {
                self.needs.own.insert(LINES.0);
            }
        }
        if options.is_empty() {
            self.line(&format!("\\begin{{{name}}}"));
        } else {
            self.needs.packages.insert("enumitem");
            self.line(&format!("\\begin{{{name}}}[{options}]"));
        }
        self.lists.push(List { form, loose, end: format!("\\end{{{name}}}") });
        // A place in front of the first item would be one of its own.
    }

    fn begin_terms(&mut self, id: NodeId) {
        let doc = self.doc;
        if doc.node(id).first_child().is_none() {
            return self.lists.push(List { form: Form::Terms, loose: false, end: String::new() });
        }
        let loose = doc.children(id).any(|child| doc.children(child).any(|block| doc.kind(block) == Kind::Paragraph));
        self.begin_list_of(id, Form::Terms, "", loose);
    }

    /// The line that an item begins on.
    fn item_line(&mut self, id: NodeId) -> bool {
        let Some((loose, is_real)) = self.lists.last().map(|list| (list.loose, !list.end.is_empty())) else { return false };
        let is_first = self.doc.node(id).previous().is_none();
        if loose && !is_first {
            self.blank();
        }
        if !is_real {
            self.blank();
        } else if !self.out.ends_with('\n') {
            self.out.truncate(self.out.trim_end_matches(' ').len());
            self.out.push('\n');
        }
        is_real
    }

    /// A block of details, whose summary is an argument.
    fn begin_details(&mut self, id: NodeId) {
        let doc = self.doc;
        let summary = doc.node(id).first_child().filter(|&first| doc.kind(first) == Kind::Summary);
        if summary.is_none_or(|summary| self.holds_blocks(summary)) || self.options.fragment || self.given.text.is_some() {
            return self.begin_holder(id, "");
        }
        self.needs.own.insert(super::super::own_commands::DETAILS.0);
        self.begin_holder(id, super::super::own_commands::DETAILS.0);
        // Where the environment was not too deep to be opened.
        if self.out.ends_with('\n') && self.lists.last().is_some_and(|list| list.end == "\\end{details}") {
            self.out.pop();
            self.instead.summary = summary;
        }
    }

    fn begin_item(&mut self, id: NodeId, checked: Option<bool>) {
        if !self.item_line(id) {
            return;
        }
        if self.lists.last().is_some_and(|list| list.form == Form::Entries) && self.begins_entry(id) {
            return;
        }
        match checked {
            Some(done) => {
                self.needs.packages.insert("amssymb");
                let sign = if done { "\\boxtimes" } else { "\\square" };
                let _ = write!(self.out, "\\item[\\({sign}\\)] ");
            }
            None => self.out.push_str("\\item "),
        }
        self.place_of(id);
    }

    fn begin_term(&mut self, id: NodeId) {
        if self.item_line(id) {
            self.out.push_str("\\item[");
        }
        self.inside.argument += 1;
        self.inside.moving += 1;
        self.place_of(id);
    }

    fn end_term(&mut self, begins: usize) {
        self.inside.argument = self.inside.argument.saturating_sub(1);
        self.inside.moving = self.inside.moving.saturating_sub(1);
        let is_real = self.lists.last().is_some_and(|list| !list.end.is_empty());
        self.out.truncate(self.out.trim_end_matches([' ', '\n']).len());
        if !is_real {
            return;
        }
        if let Some(at) = self.out[begins..].find("\\item[").map(|at| begins + at + "\\item[".len())
            && self.out[at..].contains(['[', ']'])
        {
            self.out.insert(at, '{');
            self.out.push('}');
        }
        self.out.push_str("] ");
    }

    fn begin_description(&mut self, id: NodeId) {
        let follows_term = self.doc.node(id).previous().is_some_and(|before| self.doc.kind(before) == Kind::Term);
        if follows_term {
            return;
        }
        if self.item_line(id) {
            self.out.push_str("\\item[] ");
        }
    }

    fn begin_division(&mut self, id: NodeId, division: DivisionKind) {
        // In what is put into another document, no definition goes along.
        let is_defined = !self.options.fragment && self.given.text.is_none();
        if !is_defined && matches!(division, DivisionKind::Callout(_) | DivisionKind::Aside) {
            return self.begin_holder(id, "quote");
        }
        if let Some(own) = environment_for(division) {
            self.needs.own.insert(own.name);
            return self.begin_holder(id, own.name);
        }
        let attributes = self.doc.attributes(id).clone();
        if let Some(language) = self.other_language(&attributes) {
            return self.begin_holder_with(id, "otherlanguage", &format!("{{{language}}}"));
        }
        if let Some((name, option)) = self.known_environment(id) {
            self.begin_holder_with(id, &name, &option);
            if let Some(label) = self.label_of(id).filter(|label| self.is_labelled(label)) {
                let _ = writeln!(self.out, "\\label{{{label}}}");
            } else {
                self.place_of(id);
            }
            return;
        }
        let environment = self.environment_of(id);
        self.begin_holder(id, &environment.unwrap_or_default());
    }

    /// The environment of the preamble that a class of a node names.
    fn own_environment(&self, id: NodeId) -> Option<&'d str> {
        let mut names = self.doc.attributes(id).classes.iter().map(|class| self.doc.text(*class));
        names.find(|name| self.given.environments.contains(name))
    }

    /// The environment that stands for the class of a part: one of the preamble, or one that is asked for.
    fn environment_of(&mut self, id: NodeId) -> Option<String> {
        let doc = self.doc;
        let attributes = doc.attributes(id);
        let names: Vec<&str> = attributes.classes.iter().map(|class| doc.text(*class)).collect();
        if let Some(own) = self.own_environment(id) {
            return Some(own.to_owned());
        }
        if names.contains(&"verse") {
            return Some("verse".to_owned());
        }
        let name = names.first().filter(|_| self.settings.environments && self.given.text.is_none())?;
        let is_name = name.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-');
        if !is_name || is_taken(name) {
            return None;
        }
        self.needs.environments.insert((*name).to_owned());
        Some((*name).to_owned())
    }

    /// The language of a node, where it is another one than that of the document.
    pub(super) fn other_language(&mut self, attributes: &Attributes) -> Option<&'static str> {
        let tag = self.doc.text(attributes.language?);
        let of_document = self.doc.metadata.language.as_deref();
        let name = super::super::languages::name_of(tag).filter(|_| Some(tag) != of_document)?;
        if of_document.and_then(super::super::languages::name_of) == Some(name) {
            return None;
        }
        self.needs.languages.insert(name.to_owned());
        Some(name)
    }

    /// Begins a paragraph in another language.
    fn begin_language(&mut self, id: NodeId) {
        if !self.is_holder(id)
            && let Some(language) = self.other_language_of(id)
        {
            let _ = write!(self.out, "\\foreignlanguage{{{language}}}{{");
        }
    }

    /// Whether a paragraph holds what no argument can hold.
    fn is_holder(&self, id: NodeId) -> bool {
        self.holds_blocks(id) || self.doc.node(id).first_child().is_none()
    }

    fn raw_block(&mut self, id: NodeId, markup: Markup, raw: Text) {
        let raw = self.doc.text(raw);
        if markup == Markup::Tex {
            self.blank();
            self.out.push_str(raw.trim_end());
            self.out.push('\n');
            return;
        }
        self.no_syntax("markup of other formats; it is shown as code", id);
        let raw = raw.to_owned();
        self.verbatim(id, &raw, "");
    }

    fn code_block(&mut self, id: NodeId, code: Text, info: Text) {
        let language = self.doc.text(info).split_ascii_whitespace().next().unwrap_or_default().to_owned();
        let code = self.doc.text(code).to_owned();
        self.verbatim(id, &code, &language);
    }

    /// Lines as they are.
    fn verbatim(&mut self, id: NodeId, code: &str, language: &str) {
        self.blank();
        self.place_of(id);
        if self.inside.argument > 0 {
            return self.code_in_argument(id, code);
        }
        let known = code_language(language);
        if known.is_none() && !language.is_empty() {
            self.no_syntax("the language of code", id);
        }
        let name = if known.is_some() || code.contains("\\end{verbatim}") { "lstlisting" } else { "verbatim" };
        let end = format!("\\end{{{name}}}");
        if code.contains(&end) {
            return self.code_in_argument(id, code);
        }
        let mut options = String::new();
        if name == "lstlisting" {
            self.needs.packages.insert("listings");
            self.needs.code_characters.extend(code.chars().filter(|c| !c.is_ascii()));
            if let Some((language, is_known)) = known {
                options = format!("[language={language}]");
                if !is_known {
                    self.needs.code_languages.insert(language.to_owned());
                }
            }
        }
        self.needs.add(Extra::CodeFonts, code.chars().any(|c| !escape::is_in_fonts(c) && !c.is_ascii()));
        self.line(&format!("\\begin{{{name}}}{options}"));
        let lines = code.strip_suffix('\n').unwrap_or(code);
        self.out.extend(lines.chars().filter(|c| !c.is_control() || matches!(c, '\n' | '\t')));
        self.out.push('\n');
        self.out.push_str(&end);
        self.out.push('\n');
    }

    /// Lines of code where no verbatim text can stand.
    fn code_in_argument(&mut self, id: NodeId, code: &str) {
        self.no_syntax("blocks of code in cells, notes and captions; their lines are kept", id);
        for (at, line) in code.lines().enumerate() {
            if at > 0 {
                self.out.push_str(if self.inside.line > 0 { " " } else { "\\newline\n" });
            }
            self.out.push_str("\\texttt{");
            escape::code(line, &mut self.needs, &mut self.out);
            self.out.push('}');
        }
    }
}

/// Whether a heading has nothing in it that can be seen or that links lead to.
pub(super) fn is_hollow(doc: &Document, heading: NodeId) -> bool {
    doc.walk(heading).all(|step| match step {
        Step::Enter(id) => {
            let holds_text = matches!(
                doc.kind(id),
                Kind::Heading(_)
                    | Kind::Span
                    | Kind::Strong
                    | Kind::Emphasis
                    | Kind::Insertion
                    | Kind::Deletion
                    | Kind::Strikethrough
                    | Kind::Underline
            );
            holds_text && (id == heading || !doc.node(id).has_attributes())
        }
        Step::Leave(_) => true,
    })
}

/// Whether a line begins something in which a block follows without an empty line.
fn opens(line: &str) -> bool {
    line.starts_with("\\begin{") || line.starts_with("\\label{") || line.ends_with('{') || line == "\\centering"
}

/// Whether what stands in a node is text, and no block.
const fn holds_text(kind: Kind) -> bool {
    kind.is_inline()
        || matches!(kind, Kind::Paragraph | Kind::Heading(_) | Kind::Term | Kind::Summary | Kind::Caption | Kind::Cell(_))
}

/// Whether an environment or a command of a name means something else.
pub(super) fn is_taken(name: &str) -> bool {
    matches!(
        name,
        "document"
            | "figure"
            | "table"
            | "tabular"
            | "center"
            | "quote"
            | "quotation"
            | "verse"
            | "verbatim"
            | "pseudocode"
            | "itemize"
            | "enumerate"
            | "description"
            | "equation"
            | "align"
            | "abstract"
            | "titlepage"
            | "array"
            | "list"
            | "math"
            | "minipage"
            | "picture"
            | "thebibliography"
            | "theindex"
            | "letter"
            | "note"
            | "tip"
            | "important"
            | "warning"
            | "caution"
            | "aside"
            | "comment"
    )
}
