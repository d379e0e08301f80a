//! Commands and environments for what HTML has a word for and LaTeX has none. The writer defines those that it uses in the
//! preamble; the reader knows them by these very definitions, so that they come back as what they were.

use crate::document::{Callout, DivisionKind, Kind, TextLevel};

/// A command for text, and its definition; `#1` is the text.
pub(super) struct OwnCommand {
    pub(super) kind: Kind,
    pub(super) name: &'static str,
    pub(super) definition: &'static str,
}

const fn text_level(level: TextLevel, name: &'static str, definition: &'static str) -> OwnCommand {
    OwnCommand { kind: Kind::TextLevel(level), name, definition }
}

/// The commands.
pub(super) const COMMANDS: [OwnCommand; 10] = [
    OwnCommand { kind: Kind::Insertion, name: "added", definition: "\\underLine{#1}" },
    OwnCommand { kind: Kind::Deletion, name: "deleted", definition: "\\strikeThrough{#1}" },
    text_level(TextLevel::Keyboard, "kbd", "\\texttt{#1}"),
    text_level(TextLevel::Sample, "samp", "\\texttt{#1}"),
    text_level(TextLevel::Variable, "var", "\\textit{#1}"),
    text_level(TextLevel::Cite, "worktitle", "\\textit{#1}"),
    text_level(TextLevel::Definition, "dfn", "\\emph{#1}"),
    text_level(TextLevel::Small, "fineprint", "{\\small #1}"),
    text_level(TextLevel::Bold, "boldface", "\\textbf{#1}"),
    text_level(TextLevel::Italic, "italics", "\\textit{#1}"),
];

/// An environment for a part of the document, and what it is defined to begin and to end with.
pub(super) struct OwnEnvironment {
    pub(super) kind: DivisionKind,
    pub(super) name: &'static str,
    pub(super) begin: &'static str,
    pub(super) end: &'static str,
}

const fn callout(callout: Callout, name: &'static str, begin: &'static str) -> OwnEnvironment {
    OwnEnvironment { kind: DivisionKind::Callout(callout), name, begin, end: "\\end{quote}" }
}

/// The environments.
pub(super) const ENVIRONMENTS: [OwnEnvironment; 6] = [
    callout(Callout::Note, "note", "\\begin{quote}\\textbf{Note}\\par"),
    callout(Callout::Tip, "tip", "\\begin{quote}\\textbf{Tip}\\par"),
    callout(Callout::Important, "important", "\\begin{quote}\\textbf{Important}\\par"),
    callout(Callout::Warning, "warning", "\\begin{quote}\\textbf{Warning}\\par"),
    callout(Callout::Caution, "caution", "\\begin{quote}\\textbf{Caution}\\par"),
    OwnEnvironment { kind: DivisionKind::Aside, name: "aside", begin: "\\begin{quote}", end: "\\end{quote}" },
];

/// The command for a kind of text.
pub(super) fn command_for(kind: Kind) -> Option<&'static OwnCommand> {
    COMMANDS.iter().find(|own| own.kind == kind)
}

/// The environment for a part of the document.
pub(super) fn environment_for(kind: DivisionKind) -> Option<&'static OwnEnvironment> {
    ENVIRONMENTS.iter().find(|own| own.kind == kind)
}

/// The command for a header cell that stands before its row, and its definition.
pub(super) const ROW_HEADING: (&str, &str) = ("rowheading", "\\textbf{#1}");

/// The command for an abbreviation with what it stands for, and its definition with two arguments, of which the first is that.
pub(super) const ABBREVIATION: (&str, &str) = ("abbr", "#2");

/// The environment for the lines of an algorithm, and what it is defined to begin and to end with.
pub(super) const LINES: (&str, &str, &str) = ("pseudocode", "\\begin{itemize}[label={},nosep]", "\\end{itemize}");

/// The environment for words of two languages, one above the other, and what it is defined to begin and to end with: its argument has
/// the columns.
pub(super) const INTERLINEAR_GLOSS: (&str, &str, &str) =
    ("gloss", "\\par\\noindent\\begin{tabular}{@{}#1@{}}", "\\end{tabular}\\par");

/// The class of a list of such lines.
pub(super) use crate::document::ALGORITHM as CLASS_OF_LINES;

/// The environment for what is shown on request, and its definition with one argument, the summary.
pub(super) const DETAILS: (&str, &str, &str) = ("details", "\\begin{quote}\\textbf{#1}\\par", "\\end{quote}");
