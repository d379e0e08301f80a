//! Formulas: as MathML that holds its source in TeX, as that source, or as a line of characters.

use super::Writer;
use crate::document::{Finding, Formula, Markup, NodeId};
use crate::formats::html::{MathForm, Syntax};
use crate::math::{Math, Problem, mathml, plain, tex};

/// So many formulas of a document that can't be parsed have a finding each.
const MOST_NAMED: usize = 20;

impl Writer<'_, '_> {
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
                let (mut math, problems) = tex::read_next(source, &mut self.macros);
                math.number_from(self.doc.text(formula.number));
                self.problems(id, source, &problems);
                if !math.body.is_empty() {
                    self.math(id, &math, source, formula.display, form);
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
            MathForm::MathMl => {
                let namespace = self.options.settings.syntax == Syntax::Xhtml;
                let markup = mathml::write(math, &mathml::Options { display, source, namespace });
                self.out.markup("<math");
                self.id(id);
                self.out.foreign(&markup["<math".len()..]);
            }
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
