//! What numbered lists are counted with, and what stands around the numbers (the documentation of enumitem, "Labels").

use super::Writer;
use crate::document::{ListKind, ListNumbering, Marker, NodeId};
use std::fmt::Write as _;

impl Writer<'_> {
    /// The options of a numbered list, where it is not counted as usual at its depth.
    pub(super) fn list_options(&mut self, id: NodeId, list: ListKind, depth: usize) -> String {
        if !list.ordered {
            return String::new();
        }
        let usual = [Marker::Plain, Marker::LowerAlpha, Marker::LowerRoman, Marker::UpperAlpha].get(depth);
        let mut options = Vec::new();
        let around = self.doc.numberings.get(id).and_then(ListNumbering::around);
        // Those of the second level stand in parentheses anyway.
        let is_usual = match around {
            None | Some(("", ".")) => true,
            Some(around) => around == ("(", ")") && depth == 1,
        };
        if usual != Some(&list.marker) || !is_usual {
            let counter = counting_command(list.marker);
            let (before, after) = around.unwrap_or(("", "."));
            let mut label = String::new();
            super::escape::text(before, self.marks, &mut self.needs, &mut label);
            let _ = write!(label, "\\{counter}*");
            super::escape::text(after.trim_end(), self.marks, &mut self.needs, &mut label);
            let is_apart = label.contains([',', '[', ']', '=', ' ']);
            options.push(if is_apart { format!("label={{{label}}}") } else { format!("label={label}") });
        }
        if list.start != 1 {
            options.push(format!("start={}", list.start));
        }
        options.join(", ")
    }
}

/// The command that shows a counter in a way of counting.
pub(super) const fn counting_command(marker: Marker) -> &'static str {
    match marker {
        Marker::Plain => "arabic",
        Marker::LowerAlpha => "alph",
        Marker::UpperAlpha => "Alph",
        Marker::LowerRoman => "roman",
        Marker::UpperRoman => "Roman",
    }
}
