//! Formulas: as MathML that holds its source in TeX, as that source, or as a line of characters.

use super::Writer;
use crate::document::{Finding, Formula, Markup, NodeId};
use crate::fast_hash::HashMap;
use crate::formats::html::{MathForm, Syntax};
use crate::math::{Math, Problem, mathml, plain, tex};

/// So many formulas of a document that can't be parsed have a finding each.
const MOST_NAMED: usize = 20;

/// Formulas of no more bytes are kept as they were written: most of them come again and again, as single letters do.
const SHORT: usize = 24;
const MOST_KEPT: usize = 4096;

/// What short formulas came to.
#[derive(Debug, Default)]
pub(super) struct Written<'d> {
    /// By their source, and whether they stand on lines of their own.
    markup: HashMap<(&'d str, bool), String>,
    /// How many macros had been defined.
    definitions: usize,
}

impl<'d> Written<'d> {
    fn get(&mut self, source: &'d str, display: bool, definitions: usize) -> Option<&str> {
        if definitions != self.definitions {
            self.markup.clear();
            self.definitions = definitions;
        }
        self.markup.get(&(source, display)).map(String::as_str)
    }

    fn keep(&mut self, source: &'d str, display: bool, markup: String) {
        if self.markup.len() < MOST_KEPT {
            self.markup.insert((source, display), markup);
        }
    }
}

impl<'d> Writer<'d, '_> {
    /// What there is to say of formulas that have no finding each.
    pub(super) fn report_unparsed(&mut self) {
        let more = self.unparsed.saturating_sub(MOST_NAMED);
        if more > 0 {
            self.findings
                .push(Finding::changed("html.math", format!("formulas that could not be parsed, and are not named: {more}")));
        }
    }

    pub(super) fn formula(&mut self, id: NodeId, formula: Formula) {
        let form = self.options.settings.math;
        let source = self.doc.text(formula.source);
        match formula.notation {
            Markup::Tex if form == MathForm::Tex => self.tex(id, source, formula.display),
            Markup::Tex => {
                let definitions = self.macros.definitions();
                let is_short = source.len() <= SHORT && formula.number.is_empty() && form == MathForm::MathMl;
                if is_short && let Some(markup) = self.short_formulas.get(source, formula.display, definitions) {
                    self.out.markup("<math");
                    if let Some(name) = self.ids.get(id) {
                        self.out.attribute("id", name);
                    }
                    return self.out.foreign(&markup["<math".len()..]);
                }
                let (mut math, problems) = tex::read_next(source, &mut self.macros);
                math.number_from(self.doc.text(formula.number));
                self.problems(id, source, &problems);
                if math.body.is_empty() {
                    return;
                }
                if form != MathForm::MathMl {
                    return self.math(id, &math, source, formula.display, form);
                }
                let markup = self.mathml(id, &math, source, formula.display);
                // What defines a macro is read each time.
                if is_short && problems.is_empty() && self.macros.definitions() == definitions {
                    self.short_formulas.keep(source, formula.display, markup);
                }
            }
            Markup::MathMl if form == MathForm::MathMl => {
                self.out.markup("<math");
                self.id(id);
                self.namespace();
                self.out.foreign(source.trim_start_matches("<math"));
            }
            notation => {
                let (math, problems) = crate::math::read(notation, source, &mut self.macros);
                self.problems(id, source, &problems);
                if math.body.is_empty() {
                    return self.out.text(self.doc.text(formula.characters));
                }
                let tex = tex::write(&math);
                self.math(id, &math, &tex, formula.display, form);
            }
        }
    }

    fn id(&mut self, id: NodeId) {
        if let Some(name) = self.ids.get(id) {
            self.out.attribute("id", name);
        }
    }

    fn tex(&mut self, id: NodeId, source: &str, display: bool) {
        self.out.markup("<code");
        self.id(id);
        self.out.attribute("class", if display { "language-tex display" } else { "language-tex" });
        self.out.close_tag();
        self.out.text(source.trim());
        self.out.markup("</code>");
    }

    fn math(&mut self, id: NodeId, math: &Math, source: &str, display: bool, form: MathForm) {
        match form {
            MathForm::MathMl => drop(self.mathml(id, math, source, display)),
            MathForm::Tex => self.tex(id, &tex::write(math), display),
            MathForm::Text if self.ids.get(id).is_some() => {
                self.out.markup("<span");
                self.id(id);
                self.out.close_tag();
                self.out.text(&plain(math));
                self.out.markup("</span>");
            }
            MathForm::Text => self.out.text(&plain(math)),
        }
    }

    /// Writes a formula as MathML. Gives its markup, without its id.
    fn mathml(&mut self, id: NodeId, math: &Math, source: &str, display: bool) -> String {
        let namespace = self.options.settings.syntax == Syntax::Xhtml;
        let markup = mathml::write(math, &mathml::Options { display, source, namespace });
        self.out.markup("<math");
        self.id(id);
        self.out.foreign(&markup["<math".len()..]);
        markup
    }

    fn namespace(&mut self) {
        if self.options.settings.syntax == Syntax::Xhtml {
            self.out.attribute("xmlns", "http://www.w3.org/1998/Math/MathML");
        }
    }

    /// Reports what of a formula can't be parsed.
    fn problems(&mut self, id: NodeId, source: &str, problems: &[Problem]) {
        let Some(first) = problems.first() else { return };
        self.unparsed += 1;
        if self.unparsed > MOST_NAMED {
            return;
        }
        let more = if problems.len() > 1 { format!("; and {} more", problems.len() - 1) } else { String::new() };
        let start = (0..=first.at.min(source.len())).rev().find(|&at| source.is_char_boundary(at)).unwrap_or(0);
        let shown: String = source[start..].chars().take(20).collect();
        let message = format!("formula could not be parsed at \"{}\": {}{more}", shown.trim(), first.what);
        let finding = Finding::changed("html.math", message)
            .hint("its source is shown there; correct it, or define the command with \\newcommand");
        self.findings.push(finding.at(self.doc.place(id)));
    }
}
