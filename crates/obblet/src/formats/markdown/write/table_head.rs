//! Which first rows are heads of their tables although nothing says so: Markdown has no tables without one.

use crate::document::{Document, NodeId};

/// What the text of a cell is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Sort {
    Empty,
    /// Numbers, dates and amounts: more digits than letters.
    Number,
    /// A few words.
    Words,
    /// More than a head has.
    Passage,
}

fn sort(text: &str) -> Sort {
    let digits = text.chars().filter(char::is_ascii_digit).count();
    let letters = text.chars().filter(|c| c.is_alphabetic()).count();
    let signs = text.chars().filter(|c| !c.is_alphanumeric() && !c.is_whitespace()).count();
    if text.is_empty() {
        Sort::Empty
    } else if digits >= letters.max(1) {
        Sort::Number
    } else if text.chars().count() > 40 || text.ends_with(['.', '?', '!', ';', ',']) || signs * 4 > letters.max(8) {
        Sort::Passage
    } else {
        Sort::Words
    }
}

/// Whether the first of the rows reads as a head: its cells are short, filled and different from each other, and from those below
/// them in what they are. Rows are looked at as far as is needed.
pub(super) fn is_head(doc: &Document, rows: &[Vec<NodeId>]) -> bool {
    let Some((first, below)) = rows.split_first().filter(|(first, below)| first.len() > 1 && !below.is_empty()) else {
        return false;
    };
    let text = |cell: &NodeId| doc.plain_text(*cell).split_whitespace().collect::<Vec<_>>().join(" ");
    let heads: Vec<String> = first.iter().map(text).collect();
    // The corner above the names of rows may be empty.
    let is_filled = heads.iter().enumerate().all(|(column, head)| match sort(head) {
        Sort::Words => true,
        Sort::Empty => column == 0,
        Sort::Number => column > 0 && is_year(head),
        Sort::Passage => false,
    });
    let is_distinct = (1..heads.len()).all(|column| !heads[..column].contains(&heads[column]));
    // A label with a colon stands before what it names.
    if !is_filled || !is_distinct || heads.iter().any(|head| head.ends_with(':')) {
        return false;
    }
    let below: Vec<Vec<String>> = below.iter().take(MOST_ROWS).map(|row| row.iter().map(text).collect()).collect();
    let column = |at: usize| below.iter().filter_map(move |row| row.get(at)).filter(|text| !text.is_empty());
    let repeats = (0..heads.len()).any(|at| column(at).any(|text| text.eq_ignore_ascii_case(&heads[at])));
    let differs = (0..heads.len()).any(|at| {
        let all = column(at).count();
        let other = column(at).filter(|text| matches!(sort(text), Sort::Number | Sort::Passage)).count();
        let is_year_of_others = is_year(&heads[at]) && all > 0 && !column(at).any(|text| is_year(text));
        is_year_of_others || (sort(&heads[at]) == Sort::Words && other * 2 > all)
    });
    // Of two columns, the first often names what stands in the second.
    !repeats && (differs || (heads.len() > 2 && below.len() > 1 && heads.iter().all(|head| !head.is_empty())))
}

/// Whether it is one number that may name a column.
fn is_year(text: &str) -> bool {
    text.len() == 4 && text.bytes().all(|byte| byte.is_ascii_digit())
}

/// More rows say no more.
const MOST_ROWS: usize = 20;

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::{CellKind, Kind};

    fn reads_as_head(rows: &[&[&str]]) -> bool {
        let mut doc = Document::new();
        let table = doc.append(doc.root(), Kind::Table);
        let cells: Vec<Vec<NodeId>> = rows
            .iter()
            .map(|row| {
                let parent = doc.append(table, Kind::Row);
                let make = |text: &&str| {
                    let cell = doc.append(parent, Kind::Cell(CellKind::PLAIN));
                    doc.append_text(cell, text);
                    cell
                };
                row.iter().map(make).collect()
            })
            .collect();
        is_head(&doc, &cells)
    }

    #[test]
    fn first_rows_read_as_heads_or_do_not() {
        assert!(reads_as_head(&[&["Item", "Owner", "Status"], &["Pump", "Anwen Pask", "open"], &["Rope", "Joris Halm", "done"]]));
        assert!(reads_as_head(&[&["Station", "Height"], &["Outer skerry", "2.1 m"], &["Harbour", "1.9 m"]]));
        assert!(reads_as_head(&[&["", "2030", "2031"], &["Spring", "2.1", "2.2"], &["Neap", "1.1", "1.0"]]));
        // Names before values, rows like all others, and sentences.
        assert!(!reads_as_head(&[&["Keeper", "Anwen Pask"], &["Station", "Outer skerry"], &["Since", "the great ebb"]]));
        assert!(!reads_as_head(&[&["Date:", "3 May", "noon"], &["Place:", "Hall", "north"], &["Chair:", "Idris Vale", "yes"]]));
        assert!(!reads_as_head(&[&["1", "2.1", "2.2"], &["2", "1.1", "1.0"]]));
        assert!(!reads_as_head(&[&["open", "Pump", "north"], &["open", "Rope", "south"], &["done", "Lamp", "east"]]));
        assert!(!reads_as_head(&[&["Read the gauge at six.", "Write it down."], &["Oil the wheel.", "Wind the clock."]]));
    }
}
