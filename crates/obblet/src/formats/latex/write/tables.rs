//! Tables, figures and their captions (the documentation of booktabs, longtable, multirow, array and caption).

use super::super::own_commands::INTERLINEAR_GLOSS;
use super::Writer;
use super::numbers::FLOATS;
use crate::document::{Align, CellKind, GLOSS, Kind, NodeId, RowGroupKind, Step};
use std::fmt::Write;

/// A table that is open.
#[derive(Debug)]
pub(super) struct Table {
    columns: Vec<Column>,
    /// How many more rows a cell above goes on for, by column, and over how many columns it goes.
    covered: Vec<(u16, u16)>,
    at: usize,
    form: Form,
    /// What the cell that is open ends with.
    end: String,
    /// Whether what is around the open cell is one line.
    line: usize,
    /// Where the text of the open cell begins.
    start: usize,
}

#[derive(Clone, Copy, Debug, Default)]
struct Column {
    align: Align,
    /// The part of the line that it takes; one as wide as its longest cell without.
    part: Option<f64>,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Form {
    /// In the text.
    Plain,
    /// Moves to where there is room.
    Float,
    /// Over several pages.
    Long,
    /// Words of two languages, one above the other, without lines.
    Gloss,
    /// Without rows.
    Empty,
}

/// Tables with more rows are broken over pages.
const MOST_ROWS_OF_A_PAGE: usize = 30;

/// Columns together are this long, in characters, before they share the line.
const LINE: usize = 72;

impl Writer<'_> {
    pub(super) fn begin_table(&mut self, id: NodeId) -> bool {
        let doc = self.doc;
        let (columns, rows) = self.columns_of(id);
        if rows == 0 {
            // A caption alone is text.
            let table = Table {
                columns: Vec::new(),
                covered: Vec::new(),
                at: 0,
                form: Form::Empty,
                end: String::new(),
                line: 0,
                start: 0,
            };
            self.tables.push(table);
            return true;
        }
        self.blank();
        let has_caption = doc.children(id).any(|child| doc.kind(child) == Kind::Caption);
        let is_gloss = !has_caption && doc.is_of_class(id, GLOSS) && !self.options.fragment && self.given.text.is_none();
        if is_gloss {
            self.needs.own.insert(INTERLINEAR_GLOSS.0);
        } else {
            self.needs.packages.insert("booktabs");
        }
        if columns.iter().any(|column| column.part.is_some() || column.align == Align::Left) {
            self.needs.packages.insert("array");
        }
        let is_free = self.inside.argument == 0 && self.inside.floats == 0;
        let form = if is_gloss {
            Form::Gloss
        } else if rows > MOST_ROWS_OF_A_PAGE && is_free {
            Form::Long
        } else if has_caption && is_free {
            Form::Float
        } else {
            Form::Plain
        };
        if !has_caption {
            self.place_of(id);
        }
        match form {
            Form::Plain => {
                if self.inside.argument == 0 && self.inside.floats == 0 {
                    self.line("\\begin{center}");
                }
            }
            Form::Float => self.line("\\begin{table}[htbp]\n\\centering"),
            Form::Long => {
                self.needs.packages.insert("longtable");
                let spec = spec_of(&columns);
                // Without a number, it must not be counted.
                let caption = doc.children(id).find(|&child| doc.kind(child) == Kind::Caption);
                let star = if caption.is_some_and(|caption| self.numbers.captions.contains_key(&caption)) { "" } else { "*" };
                if !star.is_empty() {
                    self.needs.packages.insert("caption");
                }
                self.line(&format!("\\begin{{longtable{star}}}{{{spec}}}"));
            }
            Form::Gloss | Form::Empty => {}
        }
        self.inside.floats += 1;
        self.tables.push(Table {
            covered: vec![(0, 1); columns.len()],
            columns,
            at: 0,
            form,
            end: String::new(),
            line: 0,
            start: 0,
        });
        // The caption comes first, and the grid behind it.
        let first = doc.node(id).first_child();
        if first.is_none_or(|first| doc.kind(first) != Kind::Caption) {
            self.begin_grid();
        }
        true
    }

    /// Begins the rows.
    fn begin_grid(&mut self) {
        let Some(table) = self.tables.last() else { return };
        let spec = spec_of(&table.columns);
        match table.form {
            Form::Gloss => return self.line(&format!("\\begin{{{}}}{{{spec}}}", INTERLINEAR_GLOSS.0)),
            Form::Long => {}
            _ => self.line(&format!("\\begin{{tabular}}{{{spec}}}")),
        }
        self.line("\\toprule");
    }

    pub(super) fn end_table(&mut self, id: NodeId) {
        let Some(table) = self.tables.pop().filter(|table| table.form != Form::Empty) else { return };
        if table.form != Form::Gloss {
            self.line("\\bottomrule");
        }
        self.inside.floats = self.inside.floats.saturating_sub(1);
        match table.form {
            Form::Plain => {
                self.out.push_str("\\end{tabular}");
                if self.inside.argument == 0 && self.inside.floats == 0 {
                    self.line("\\end{center}");
                }
            }
            Form::Float => self.line("\\end{tabular}\n\\end{table}"),
            Form::Long => {
                let caption = self.doc.children(id).find(|&child| self.doc.kind(child) == Kind::Caption);
                let has_number = caption.is_some_and(|caption| self.numbers.captions.contains_key(&caption));
                self.line(if has_number { "\\end{longtable}" } else { "\\end{longtable*}" });
            }
            Form::Gloss => self.line(&format!("\\end{{{}}}", INTERLINEAR_GLOSS.0)),
            Form::Empty => {}
        }
    }

    pub(super) fn begin_row_group(&mut self, group: RowGroupKind, id: NodeId) {
        let follows =
            self.doc.node(id).previous().is_some_and(|before| self.doc.kind(before) == Kind::RowGroup(RowGroupKind::Body));
        if follows && group != RowGroupKind::Head {
            self.line("\\addlinespace");
        }
    }

    pub(super) fn end_row_group(&mut self, group: RowGroupKind) {
        if self.is_empty_table() {
            return;
        }
        if group == RowGroupKind::Head && self.tables.last().is_some_and(|table| table.form != Form::Gloss) {
            let is_long = self.tables.last().is_some_and(|table| table.form == Form::Long);
            self.line(if is_long { "\\midrule\n\\endhead" } else { "\\midrule" });
        }
    }

    /// Whether the table that is open has no rows.
    fn is_empty_table(&self) -> bool {
        self.tables.last().is_some_and(|table| table.form == Form::Empty)
    }

    pub(super) fn begin_row(&mut self, _: NodeId) {
        if !self.out.ends_with('\n') {
            self.out.push('\n');
        }
        if let Some(table) = self.tables.last_mut() {
            table.at = 0;
        }
    }

    /// Goes over columns that cells above cover, and begins the one behind them.
    fn next_column(&mut self) {
        let Some(table) = self.tables.last_mut() else { return };
        let mut out = String::new();
        if table.at > 0 {
            out.push_str(" & ");
        }
        while let Some((rows, columns)) = table.covered.get(table.at).copied().filter(|(rows, _)| *rows > 0) {
            if columns > 1 {
                let _ = write!(out, "\\multicolumn{{{columns}}}{{l}}{{}}");
            }
            table.covered[table.at].0 = rows - 1;
            table.at += usize::from(columns.max(1));
            out.push_str(" & ");
        }
        self.out.push_str(&out);
    }

    pub(super) fn begin_cell(&mut self, id: NodeId, cell: CellKind) {
        self.next_column();
        let is_in_head = self
            .doc
            .node(id)
            .parent()
            .and_then(|row| self.doc.node(row).parent())
            .is_some_and(|group| self.doc.kind(group) == Kind::RowGroup(RowGroupKind::Head));
        let holds_blocks = self.holds_blocks(id);
        if cell.header && !is_in_head && holds_blocks {
            self.no_syntax("header cells that hold blocks", id);
        }
        let Some(table) = self.tables.last_mut() else { return };
        let column = table.columns.get(table.at).copied().unwrap_or_default();
        let mut end = String::new();
        let mut out = String::new();
        let columns = cell.columns.clamp(1, u16::try_from(table.columns.len().saturating_sub(table.at)).unwrap_or(1).max(1));
        let is_wide = column.part.is_some()
            || table
                .columns
                .get(table.at..table.at + usize::from(columns))
                .is_some_and(|spanned| spanned.iter().any(|one| one.part.is_some()));
        if columns > 1 || cell.align != column.align {
            let part: f64 = table.columns[table.at.min(table.columns.len())..]
                .iter()
                .take(usize::from(columns))
                .map(|column| column.part.unwrap_or(0.1))
                .sum();
            let spec = spec_of(&[Column { align: cell.align, part: is_wide.then_some(part) }]);
            let _ = write!(out, "\\multicolumn{{{columns}}}{{{spec}}}{{");
            end.push('}');
        }
        if cell.rows > 1 {
            self.needs.packages.insert("multirow");
            let _ = write!(out, "\\multirow{{{}}}{{{}}}{{", cell.rows, if is_wide { "=" } else { "*" });
            end.push('}');
        }
        if cell.header && !is_in_head && !holds_blocks {
            self.needs.own.insert(super::super::own_commands::ROW_HEADING.0);
            let _ = write!(out, "\\{}{{", super::super::own_commands::ROW_HEADING.0);
            end.push('}');
        }
        if let Some(covered) = table.covered.get_mut(table.at) {
            *covered = (cell.rows.saturating_sub(1), columns);
        }
        table.at += usize::from(columns);
        table.end = end;
        table.line = self.inside.line;
        self.out.push_str(&out);
        self.inside.argument += 1;
        self.inside.line = usize::from(!is_wide);
        table.start = self.out.len();
        self.place_of(id);
    }

    pub(super) fn end_cell(&mut self, _: CellKind) {
        self.inside.argument = self.inside.argument.saturating_sub(1);
        let Some(table) = self.tables.last_mut() else { return };
        let start = table.start.min(self.out.len());
        self.out.truncate(start + self.out[start..].trim_end_matches([' ', '\n']).len());
        self.out.push_str(&std::mem::take(&mut table.end));
        self.inside.line = table.line;
    }

    pub(super) fn end_row(&mut self) {
        let Some(table) = self.tables.last_mut() else { return };
        let mut out = String::new();
        // Cells from above at the end of the row.
        while let Some((rows, columns)) = table.covered.get(table.at).copied().filter(|(rows, _)| *rows > 0) {
            table.covered[table.at].0 = rows - 1;
            out.push_str(" & ");
            if columns > 1 {
                let _ = write!(out, "\\multicolumn{{{columns}}}{{l}}{{}}");
            }
            table.at += usize::from(columns.max(1));
        }
        self.out.push_str(out.trim_end());
        if self.out.ends_with('\n') {
            self.out.push_str("{}");
        }
        self.out.push_str(" \\\\\n");
    }

    /// The columns of a table, and how many rows it has.
    fn columns_of(&self, id: NodeId) -> (Vec<Column>, usize) {
        let doc = self.doc;
        let mut rows = 0;
        let mut grid = Grid::default();
        let mut walk = doc.walk(id);
        while let Some(step) = walk.next() {
            let Step::Enter(node) = step else { continue };
            match doc.kind(node) {
                Kind::Row => {
                    rows += 1;
                    grid.next_row();
                }
                Kind::Cell(cell) => {
                    let has_blocks = doc.walk(node).any(|step| match step {
                        Step::Enter(inner) if inner != node => {
                            let kind = doc.kind(inner);
                            !kind.is_inline() || kind == Kind::LineBreak || self.is_display(kind)
                        }
                        _ => false,
                    });
                    let length = self.length_of(node);
                    grid.add(cell, length, has_blocks);
                    walk.skip_children(node);
                }
                Kind::Caption => walk.skip_children(node),
                _ => {}
            }
        }
        let said = doc.columns(id);
        (grid.columns(said), rows)
    }

    /// How many characters the longest line of a cell is shown with, about.
    fn length_of(&self, cell: NodeId) -> usize {
        let doc = self.doc;
        let text = doc.plain_text(cell).lines().map(|line| line.chars().count()).max().unwrap_or(0);
        // Of the source of a formula about a third is seen.
        let unseen = doc.walk(cell).map(|step| match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Math(formula) => doc.formula(formula).characters.len() * 2 / 3,
                _ => 0,
            },
            Step::Leave(_) => 0,
        });
        text.saturating_sub(unseen.sum())
    }

    fn is_display(&self, kind: Kind) -> bool {
        matches!(kind, Kind::Math(formula) if self.doc.formula(formula).display)
    }

    pub(super) fn begin_figure(&mut self, id: NodeId) {
        // Parts stand beside each other: an empty line would part them.
        if !(self.numbers.parts.contains_key(&id) && self.out.ends_with("\\hfill\n")) {
            self.blank();
        }
        let has_caption = self.doc.children(id).any(|child| self.doc.kind(child) == Kind::Caption);
        if self.inside.argument == 0 && self.inside.floats == 0 && has_caption {
            match self.numbers.floats.get(&id) {
                Some(kind) => self.line(&format!("\\begin{{{}}}[htbp]", FLOATS[*kind])),
                None => self.line("\\begin{figure}[htbp]\n\\centering"),
            }
            self.inside.floats += 1;
        } else if self.inside.argument == 0
            && self.inside.floats == 1
            && let Some(count) = self.numbers.parts.get(&id)
        {
            // Up to three stand beside each other.
            let width = if matches!(count, 1 | 2 | 4) { "0.48" } else { "0.32" };
            self.needs.packages.insert("subcaption");
            self.line(&format!("\\begin{{subfigure}}[t]{{{width}\\linewidth}}\n\\centering"));
            self.inside.floats += 1;
        } else {
            self.place_of(id);
        }
    }

    pub(super) fn end_figure(&mut self, id: NodeId) {
        if self.is_open_part(id) {
            self.inside.floats -= 1;
            self.out.truncate(self.out.trim_end_matches(['\n', ' ']).len());
            let is_followed = self.doc.node(id).next().is_some_and(|next| self.numbers.parts.contains_key(&next));
            self.line(if is_followed { "\\end{subfigure}\\hfill" } else { "\\end{subfigure}" });
            return;
        }
        let is_float = self.inside.floats > 0 && self.is_outer_float(id);
        if is_float {
            self.inside.floats = self.inside.floats.saturating_sub(1);
            self.out.truncate(self.out.trim_end_matches(['\n', ' ']).len());
            let name = FLOATS[self.numbers.floats.get(&id).copied().unwrap_or(0)];
            self.line(&format!("\\end{{{name}}}"));
        }
    }

    /// Whether a figure is a part of the float that is open.
    fn is_open_part(&self, id: NodeId) -> bool {
        self.inside.argument == 0 && self.inside.floats == 2 && self.numbers.parts.contains_key(&id)
    }

    /// Whether a figure is a float: it has a caption, and stands in no other float and in no argument.
    fn is_outer_float(&self, id: NodeId) -> bool {
        let doc = self.doc;
        if self.numbers.parts.contains_key(&id) {
            return false;
        }
        doc.children(id).any(|child| doc.kind(child) == Kind::Caption) && self.inside.argument == 0 && self.inside.floats == 1
    }

    pub(super) fn begin_caption(&mut self, id: NodeId) -> bool {
        let Some(holder) = self.doc.node(id).parent() else { return true };
        let is_table = self.doc.kind(holder) == Kind::Table;
        let is_float = if is_table {
            self.tables.last().is_some_and(|table| matches!(table.form, Form::Float | Form::Long))
        } else {
            self.doc.kind(holder) == Kind::Figure && (self.is_outer_float(holder) || self.is_open_part(holder))
        };
        if !is_float {
            self.blank();
            return true;
        }
        let star = if self.numbers.captions.contains_key(&id) { "" } else { "*" };
        self.needs.packages.insert("caption");
        self.line("");
        self.out.truncate(self.out.trim_end_matches('\n').len());
        let _ = write!(self.out, "\n\\caption{star}");
        let has_notes =
            self.doc.walk(id).any(|step| matches!(step, Step::Enter(id) if matches!(self.doc.kind(id), Kind::NoteReference(_))));
        if has_notes && star.is_empty() {
            let words = self.doc.plain_text(id);
            let label = self.numbers.captions.get(&id).copied().unwrap_or(0);
            self.out.push_str("[{");
            self.words(words.get(label..).unwrap_or_default().trim());
            self.out.push_str("}]");
        }
        self.out.push('{');
        self.inside.moving += 1;
        true
    }

    pub(super) fn end_caption(&mut self, id: NodeId, _: usize) {
        let holder = self.doc.node(id).parent();
        self.out.truncate(self.out.trim_end_matches([' ', '\n']).len());
        let is_table = holder.is_some_and(|holder| self.doc.kind(holder) == Kind::Table);
        if self.inside.moving > 0 {
            self.inside.moving -= 1;
            self.out.push('}');
            if let Some(label) = holder.and_then(|holder| self.label_of(holder)) {
                let _ = write!(self.out, "\\label{{{label}}}");
            }
            if is_table && self.tables.last().is_some_and(|table| table.form == Form::Long) {
                self.out.push_str(" \\\\");
            }
        }
        self.out.push('\n');
        if is_table && !self.is_empty_table() {
            self.begin_grid();
        }
    }
}

/// The columns of a table while its cells are looked at.
#[derive(Default)]
struct Grid {
    longest: Vec<usize>,
    blocks: Vec<bool>,
    aligns: Vec<[usize; 5]>,
    covered: Vec<u16>,
    at: usize,
}

impl Grid {
    fn next_row(&mut self) {
        self.at = 0;
    }

    fn add(&mut self, cell: CellKind, length: usize, has_blocks: bool) {
        while self.covered.get(self.at).is_some_and(|rows| *rows > 0) {
            self.covered[self.at] -= 1;
            self.at += 1;
        }
        let behind = self.at + usize::from(cell.columns.max(1));
        if self.longest.len() < behind {
            self.longest.resize(behind, 0);
            self.blocks.resize(behind, false);
            self.aligns.resize(behind, [0; 5]);
            self.covered.resize(behind, 0);
        }
        if cell.columns <= 1 {
            self.longest[self.at] = self.longest[self.at].max(length);
            self.aligns[self.at][cell.align as usize] += 1;
        }
        for at in self.at..behind {
            self.blocks[at] |= has_blocks;
            self.covered[at] = cell.rows.saturating_sub(1);
        }
        self.at = behind;
    }

    /// Columns whose cells are long, or hold blocks, share the line by how much is in them.
    fn columns(&self, said: &[crate::document::Column]) -> Vec<Column> {
        const ALIGNS: [Align; 5] = [Align::Unsaid, Align::Left, Align::Center, Align::Right, Align::Justify];
        let total: usize = self.longest.iter().map(|length| length + 2).sum();
        let wraps = |at: usize| self.blocks[at] || total > LINE && self.longest[at] > 14;
        let narrow: usize = (0..self.longest.len()).filter(|at| !wraps(*at)).map(|at| self.longest[at] + 2).sum();
        let count = self.longest.len().max(1) as f64;
        let rest = (1.0 - narrow as f64 / 85.0 - 0.035 * count).max(0.25);
        let weight = |at: usize| self.longest[at].clamp(12, 90) as f64;
        let weights: f64 = (0..self.longest.len()).filter(|at| wraps(*at)).map(weight).sum();
        (0..self.longest.len())
            .map(|at| {
                let votes = &self.aligns[at];
                let most = (0..5).max_by_key(|&align| (votes[align], 5 - align)).unwrap_or(0);
                let align = if votes.iter().sum::<usize>() == 0 {
                    said.get(at).map_or(Align::Unsaid, |column| column.align)
                } else {
                    ALIGNS[most]
                };
                let part = wraps(at).then(|| (rest * weight(at) / weights).max(0.02));
                Column { align, part }
            })
            .collect()
    }
}

/// How columns are declared.
fn spec_of(columns: &[Column]) -> String {
    let mut out = String::new();
    for column in columns {
        match column.part {
            Some(part) => {
                let ragged = match column.align {
                    Align::Unsaid => ">{\\raggedright\\arraybackslash}",
                    Align::Left => ">{\\raggedright\\arraybackslash\\hspace{0pt}}",
                    Align::Center => ">{\\centering\\arraybackslash}",
                    Align::Right => ">{\\raggedleft\\arraybackslash}",
                    Align::Justify => "",
                };
                let _ = write!(out, "{ragged}p{{{part:.2}\\linewidth}}");
            }
            None => out.push_str(match column.align {
                Align::Unsaid | Align::Justify => "l",
                Align::Left => ">{\\raggedright\\arraybackslash}l",
                Align::Center => "c",
                Align::Right => "r",
            }),
        }
    }
    out
}
