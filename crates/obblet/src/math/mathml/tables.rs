//! What the operator dictionary says (MathML Core, appendix B), as far as it has to be said otherwise, and the forms of tables.

use crate::math::{Align, Table, TableKind};

/// Characters that stretch as fences without being asked to.
pub(super) fn stretches(text: &str) -> bool {
    matches!(
        text,
        "(" | ")"
            | "["
            | "]"
            | "{"
            | "}"
            | "|"
            | "‖"
            | "⟨"
            | "⟩"
            | "⌈"
            | "⌉"
            | "⌊"
            | "⌋"
            | "⟦"
            | "⟧"
            | "⟮"
            | "⟯"
            | "∣"
            | "∥"
    )
}

/// Attributes for the space on both sides of an operator that the dictionary does not have with that space.
pub(super) fn spacing(text: &str, wanted: &'static str) -> &'static str {
    // Unknown operators have that of relations; these have another one.
    match (text, wanted) {
        (
            "+" | "−" | "±" | "∓" | "×" | "÷" | "⋅" | "∗" | "∘" | "∪" | "∩" | "∖" | "⊕" | "⊗" | "⊖" | "⊙" | "∧" | "∨" | "⊔" | "⊓",
            "0.222em",
        ) => "",
        (_, "0.222em") => " lspace=\"0.222em\" rspace=\"0.222em\"",
        ("|" | "∣" | "∥" | "‖", _) => " lspace=\"0.278em\" rspace=\"0.278em\" stretchy=\"false\"",
        (":" | "/" | "∶", _) => " lspace=\"0.278em\" rspace=\"0.278em\"",
        // Arrows would stretch with what is beside them.
        ("↑" | "↓" | "↕" | "⇑" | "⇓" | "⇕", _) => " stretchy=\"false\"",
        ("<" | ">", _) => "",
        _ => "",
    }
}

/// Attributes for a fence that does not stretch.
pub(super) fn fence(text: &str, both: &'static str) -> &'static str {
    match text {
        // Which side they are on is not to be seen.
        "|" | "‖" => both,
        _ if !stretches(text) => " lspace=\"0\" rspace=\"0\" stretchy=\"false\"",
        _ => " stretchy=\"false\"",
    }
}

/// Delimiters around a table.
pub(super) const fn fences(kind: TableKind) -> (&'static str, &'static str) {
    match kind {
        TableKind::Parentheses => ("(", ")"),
        TableKind::Brackets => ("[", "]"),
        TableKind::Braces => ("{", "}"),
        TableKind::Bars => ("|", "|"),
        TableKind::DoubleBars => ("‖", "‖"),
        TableKind::Cases => ("{", ""),
        TableKind::RightCases => ("", "}"),
        _ => ("", ""),
    }
}

/// The beginning of a table.
pub(super) const fn start(kind: TableKind) -> &'static str {
    match kind {
        TableKind::Aligned | TableKind::Gathered | TableKind::Multline => "<mtable class=\"equations\" displaystyle=\"true\">",
        TableKind::Substack => "<mtable class=\"lines\">",
        _ => "<mtable>",
    }
}

/// How a cell is aligned.
pub(super) fn align(table: &Table, column: usize, row: usize, is_last: bool) -> Align {
    match table.kind {
        TableKind::Array => table.columns.get(column).copied().unwrap_or(Align::Center),
        TableKind::Cases | TableKind::RightCases => Align::Left,
        TableKind::Aligned if column.is_multiple_of(2) => Align::Right,
        TableKind::Aligned => Align::Left,
        TableKind::Multline if row == 0 => Align::Left,
        TableKind::Multline if is_last => Align::Right,
        _ => table.columns.get(column).copied().unwrap_or(Align::Center),
    }
}
