//! Tables: heads for their cells, and cells that do not lie on each other (HTML, section 4.9.12).

use super::Faults;
use super::tree::Tree;

/// Grids larger than this are not looked at.
const LARGEST: usize = 200_000;

pub(super) fn check(tree: &Tree, faults: &mut Faults) {
    for at in tree.order() {
        if tree.nodes[at].element() == "table" {
            table(tree, at, faults);
        }
    }
}

fn table(tree: &Tree, at: usize, faults: &mut Faults) {
    let children = |node: usize| tree.nodes[node].children.iter().copied();
    let mut groups: Vec<Vec<usize>> = Vec::new();
    let mut loose: Vec<usize> = Vec::new();
    for child in children(at) {
        match tree.nodes[child].element() {
            "thead" | "tbody" | "tfoot" => {
                groups.push(children(child).filter(|&row| tree.nodes[row].element() == "tr").collect())
            }
            "tr" => loose.push(child),
            _ => {}
        }
    }
    groups.push(loose);
    let layout = matches!(tree.nodes[at].attribute("role"), Some("presentation" | "none"));
    let cells = |row: usize| children(row).filter(|&cell| matches!(tree.nodes[cell].element(), "td" | "th"));
    let all: Vec<usize> = groups.iter().flatten().flat_map(|&row| cells(row)).collect();
    if all.len() > 1 && !layout && all.iter().all(|&cell| tree.nodes[cell].element() == "td") {
        faults.advise("check.table-head", tree.nodes[at].line, "the table has no header cells");
    }
    let number = |cell: usize, name: &str, most: usize| {
        tree.nodes[cell].attribute(name).and_then(|value| value.trim().parse::<usize>().ok()).unwrap_or(1).clamp(1, most)
    };
    // For each column, whether a cell begins in it.
    let mut begun: Vec<bool> = Vec::new();
    let mut size = 0;
    for rows in &groups {
        // How many rows each column is still taken for, by cells from above.
        let mut taken: Vec<usize> = Vec::new();
        for (place, &row) in rows.iter().enumerate() {
            let mut column = 0;
            let mut fresh = Vec::new();
            for cell in cells(row) {
                while taken.get(column).is_some_and(|rows| *rows > 0) {
                    column += 1;
                }
                let (columns, high) = (number(cell, "colspan", 1000), number(cell, "rowspan", 65_534).min(rows.len() - place));
                size += columns * high;
                if size > LARGEST {
                    return;
                }
                if (column..column + columns).any(|column| taken.get(column).is_some_and(|rows| *rows > 0)) {
                    faults.add("check.table-overlap", tree.nodes[cell].line, "a cell lies on another one");
                }
                if number(cell, "rowspan", 65_534) > rows.len() - place {
                    faults.add("check.table-span", tree.nodes[cell].line, "a cell takes more rows than its group has");
                }
                fresh.push((column, columns, high));
                if begun.len() < column + columns {
                    begun.resize(column + columns, false);
                }
                begun[column] = true;
                column += columns;
            }
            for (column, columns, high) in fresh {
                if taken.len() < column + columns {
                    taken.resize(column + columns, 0);
                }
                for column in &mut taken[column..column + columns] {
                    *column = high.max(*column);
                }
            }
            if cells(row).next().is_none() {
                faults.add("check.table-row", tree.nodes[row].line, "no cell begins in a row");
            }
            taken.iter_mut().for_each(|rows| *rows = rows.saturating_sub(1));
        }
    }
    if let Some(column) = begun.iter().position(|begun| !begun) {
        faults.add("check.table-column", tree.nodes[at].line, format!("no cell begins in column {} of the table", column + 1));
    }
}
