//! Colours for code: the grammar finds what each piece is, and a class says it.

use std::sync::OnceLock;
use syntect::parsing::{ParseState, ScopeStack, ScopeStackOp, SyntaxSet};

fn grammars() -> &'static SyntaxSet {
    static SET: OnceLock<SyntaxSet> = OnceLock::new();
    SET.get_or_init(SyntaxSet::load_defaults_newlines)
}

/// Code that is longer than this stays plain; grammars are slow.
const MOST: usize = 200_000;

/// Scopes that get a class, most telling first (by the naming rules of the grammars).
const CLASSES: [(&str, &str); 9] = [
    ("comment", "code-comment"),
    ("string", "code-string"),
    ("constant", "code-value"),
    ("keyword", "code-word"),
    ("storage", "code-word"),
    ("entity.name", "code-name"),
    ("support", "code-name"),
    ("variable.parameter", "code-name"),
    ("invalid", "code-wrong"),
];

fn class(stack: &ScopeStack) -> Option<&'static str> {
    stack.scopes.iter().rev().find_map(|scope| {
        let name = scope.build_string();
        CLASSES
            .iter()
            .find(|(prefix, _)| name.strip_prefix(prefix).is_some_and(|rest| rest.is_empty() || rest.starts_with('.')))
            .map(|(_, class)| *class)
    })
}

/// Calls `run` with each piece of `code` and its class. Returns false, having called nothing, where the language is unknown.
pub(super) fn classes(language: &str, code: &str, run: &mut dyn FnMut(&str, Option<&str>)) -> bool {
    let set = grammars();
    let Some(syntax) = set.find_syntax_by_token(language).filter(|_| code.len() <= MOST) else { return false };
    let mut state = ParseState::new(syntax);
    let mut stack = ScopeStack::new();
    let mut pieces: Vec<(&str, Option<&'static str>)> = Vec::new();
    for line in code.split_inclusive('\n') {
        let Ok(ops) = state.parse_line(line, set) else { return false };
        let mut at = 0;
        for (end, op) in ops {
            pieces.push((&line[at..end], class(&stack)));
            at = end;
            if stack.apply(&op).is_err() || matches!(op, ScopeStackOp::Noop) {
                continue;
            }
        }
        pieces.push((&line[at..], class(&stack)));
    }
    let mut start = 0;
    // Neighbours of one class are one piece.
    for index in 0..pieces.len() {
        if index + 1 == pieces.len() || pieces[index + 1].1 != pieces[start].1 {
            let text: String = pieces[start..=index].iter().map(|(text, _)| *text).collect();
            if !text.is_empty() {
                run(&text, pieces[start].1);
            }
            start = index + 1;
        }
    }
    true
}
