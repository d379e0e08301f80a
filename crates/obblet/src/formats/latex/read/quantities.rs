//! Numbers, units, and several of them (the documentation of siunitx, mhchem, units and xfrac).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::Kind;

/// Stands for the sign before units that others are divided by.
const SIGN_OF_UNITS: &str = "sign of units";

impl Reader<'_> {
    /// Numbers and units are formulas.
    pub(super) fn quantity(&mut self, name: &str) {
        let option = self.input.option().unwrap_or_default();
        let number = self.input.characters(&option);
        if name == "unit" && !number.is_empty() && !number.contains('=') {
            // The package units has the number there.
            let unit = self.input.argument();
            return self.quantity_in_text(option, unit);
        }
        let is_set = self.macros.body(SIGN_OF_UNITS).is_some_and(|sign| !sign.is_empty());
        let has_slash = if number.contains("per-mode") { number.contains("symbol") } else { is_set };
        let setting = if has_slash && name != "num" { "[per-mode=symbol]" } else { "" };
        self.formula_of(&format!("{name}{setting}"), if matches!(name, "SI" | "qty") { 2 } else { 1 });
    }

    /// `\sisetup{per-mode=symbol}`
    pub(super) fn set_quantities(&mut self) {
        let settings = self.input.argument();
        let mode = self.input.value_of(&settings, "per-mode");
        match self.input.characters(&mode).as_str() {
            "" => {}
            mode if mode.contains("symbol") => {
                let slash = Token { kind: Sign::Char('/'), at: self.at };
                self.macros.keep(SIGN_OF_UNITS.into(), vec![slash]);
            }
            _ => self.macros.keep(SIGN_OF_UNITS.into(), Vec::new()),
        }
    }

    /// A command with its arguments is a formula.
    fn formula_of(&mut self, command: &str, arguments: usize) {
        let mut source = format!("\\{command}");
        for _ in 0..arguments {
            let argument = self.input.argument();
            source.push('{');
            self.input.write(&argument, &mut source);
            source.push('}');
        }
        let text = self.doc.intern(&source);
        let formula = self.doc.add_tex(text, false);
        self.inline(Kind::Math(formula));
    }

    /// A number with a unit, both of which are text.
    fn quantity_in_text(&mut self, number: Vec<Token>, unit: Vec<Token>) {
        let at = self.at;
        self.input.push_all(unit.into_iter());
        if !number.is_empty() {
            self.input.push(Sign::Char('\u{202F}'), at);
            self.input.push_all(number.into_iter());
        }
    }

    /// Several numbers or quantities, and fractions of text.
    pub(super) fn quantities(&mut self, name: &str) {
        let option = self.input.option();
        match name {
            "nicefrac" | "sfrac" => self.formula_of("sfrac", 2),
            "unitfrac" => {
                let (above, below) = (self.input.argument(), self.input.argument());
                let mut unit = above;
                unit.push(Token { kind: Sign::Char('/'), at: self.at });
                unit.extend(below);
                self.quantity_in_text(option.unwrap_or_default(), unit);
            }
            "tablenum" => self.input.push(Sign::Command("num".into()), self.at),
            "complexnum" => {
                self.input.push(Sign::Command("ensuremath".into()), self.at);
            }
            "complexqty" => {
                let (number, unit) = (self.input.argument(), self.input.argument());
                self.input.push_command("unit", vec![unit], self.at);
                self.input.push(Sign::Char('\u{202F}'), self.at);
                self.input.push_command("ensuremath", vec![number], self.at);
            }
            "SIrange" | "qtyrange" | "numrange" => {
                let (from, to) = (self.input.argument(), self.input.argument());
                let unit = (name != "numrange").then(|| self.input.argument());
                let language = self.front.language.clone();
                let between = super::reference_words::words_of(language.as_deref()).to;
                self.put_all(vec![from, to], unit.as_deref(), [between; 2]);
            }
            _ => {
                let is_product = name.ends_with("product");
                let values = self.input.argument();
                let unit = (!name.starts_with("num")).then(|| self.input.argument());
                let values: Vec<Vec<Token>> = self.input.split(&values, if is_product { 'x' } else { ';' });
                let language = self.front.language.clone();
                let and = super::reference_words::words_of(language.as_deref()).and;
                self.put_all(values, unit.as_deref(), if is_product { ["\u{D7}"; 2] } else { [",", and] });
            }
        }
    }

    /// Quantities with what stands between them, and before the last.
    fn put_all(&mut self, values: Vec<Vec<Token>>, unit: Option<&[Token]>, between: [&str; 2]) {
        let at = self.at;
        let count = values.len();
        for (number, value) in values.into_iter().enumerate().rev() {
            match unit {
                Some(unit) => self.input.push_command("SI", vec![value, unit.to_vec()], at),
                None => self.input.push_command("num", vec![value], at),
            }
            if number == 0 {
                break;
            }
            self.input.push(Sign::Space, at);
            let words = between[usize::from(number + 1 == count)];
            self.input.push_characters(words, at);
            if words != "," {
                self.input.push(Sign::Space, at);
            }
        }
    }
}
