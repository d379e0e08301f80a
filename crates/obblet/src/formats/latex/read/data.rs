//! Files of data and what a document makes of them: tables, and text for each row (the documentation of csvsimple, datatool and
//! pgfplotstable).

use super::Reader;
use super::token_lists::made;
use super::tokens::{Input, Kind as Sign, Token};

/// A document keeps no more sets of data, and no set has more columns.
const MOST_SETS: usize = 64;
const MOST_COLUMNS: usize = 200;

/// Rows with their values, by columns.
#[derive(Clone, Debug, Default)]
pub(super) struct Data {
    names: Vec<String>,
    rows: Vec<Vec<String>>,
}

/// How a file is read.
#[derive(Clone, Copy)]
struct Layout {
    /// What stands between values: a space stands for white space of any length.
    separator: char,
    /// Whether the first line names the columns.
    has_head: bool,
    /// Whether values may stand in quotation marks.
    has_quotes: bool,
}

impl Data {
    /// Rows are lines.
    fn of(text: &str, layout: Layout) -> Self {
        let mut rows = text.lines().filter(|line| !line.trim().is_empty()).map(|line| values(line, layout));
        let names = if layout.has_head { rows.next().unwrap_or_default() } else { Vec::new() };
        Self { names, rows: rows.collect() }
    }

    fn width(&self) -> usize {
        self.rows.iter().map(Vec::len).chain([self.names.len()]).max().unwrap_or(0).min(MOST_COLUMNS)
    }

    fn column(&self, name: &str) -> Option<usize> {
        let place = self.names.iter().position(|known| known == name);
        place.or_else(|| name.parse::<usize>().ok()?.checked_sub(1).filter(|place| *place < self.width()))
    }
}

/// The values of a line: those in braces or quotation marks hold the sign as a character.
fn values(line: &str, layout: Layout) -> Vec<String> {
    let separator = layout.separator;
    let (mut found, mut value, mut depth, mut quoted) = (Vec::new(), String::new(), 0_usize, false);
    for c in line.trim().chars() {
        match c {
            '{' => depth += 1,
            '}' => depth = depth.saturating_sub(1),
            '"' if depth == 0 && layout.has_quotes => {
                quoted = !quoted;
                continue;
            }
            _ if depth > 0 || quoted => {}
            _ if c == separator || separator == ' ' && c.is_whitespace() => {
                if separator != ' ' || !value.is_empty() {
                    found.push(std::mem::take(&mut value));
                }
                continue;
            }
            _ => {}
        }
        value.push(c);
    }
    found.push(value);
    let bare = |value: String| {
        let value = value.trim();
        value.strip_prefix('{').and_then(|value| value.strip_suffix('}')).unwrap_or(value).to_owned()
    };
    found.into_iter().map(bare).collect()
}

/// The sign that an option names.
fn separator_named(name: &str) -> Option<char> {
    Some(match name.trim() {
        "comma" | "," => ',',
        "semicolon" | ";" => ';',
        "pipe" | "|" => '|',
        "tab" => '\t',
        "space" => ' ',
        "colon" => ':',
        "&" | "ampersand" => '&',
        _ => return None,
    })
}

/// What a row is shown with.
struct Shown {
    /// The command for each column, without its backslash.
    commands: Vec<(usize, String)>,
    body: Vec<Token>,
    /// What stands between rows.
    between: Vec<Token>,
}

impl Reader<'_> {
    /// Commands that read data and show them. Whether a command is one.
    pub(super) fn data_command(&mut self, name: &str) -> bool {
        match name {
            "csvautotabular" | "csvautolongtable" | "csvautobooktabular" | "csvautobooklongtable" | "csvautotabularray" => {
                self.csv_table();
            }
            "csvreader" | "csvloop" => self.csv_reader(name == "csvloop"),
            "DTLloaddb" | "DTLloadrawdb" => {
                let options = self.input.option().unwrap_or_default();
                let (key, file) = (self.input.argument_characters().into_owned(), self.address());
                let has_head = self.option_of_data(&options, "noheader") != "true"
                    && !self.input.characters(&options).split(',').any(|word| word.trim() == "noheader");
                let separator = self.macros.body(SEPARATOR).and_then(|body| self.input.characters(&body).chars().next());
                self.load_data(key, &file, Layout { separator: separator.unwrap_or(','), has_head, has_quotes: true });
            }
            "DTLsetseparator" => {
                let separator = self.input.argument();
                self.macros.keep(SEPARATOR.into(), separator);
            }
            "DTLdisplaydb" | "DTLdisplaylongdb" => {
                self.input.take('*');
                self.input.option();
                let key = self.input.argument_characters().into_owned();
                match self.own.data.get(&key).cloned() {
                    Some(data) => self.show_data(&data, &"l".repeat(data.width())),
                    None => self.tallies.files.add_apart(self.at, &key),
                }
            }
            "DTLforeach" => {
                self.input.take('*');
                self.input.option();
                let key = self.input.argument_characters().into_owned();
                let (assigned, body) = (self.input.argument(), self.input.argument());
                let Some(data) = self.own.data.get(&key).cloned() else {
                    self.tallies.files.add_apart(self.at, &key);
                    return true;
                };
                let commands = self.commands_of_columns(&data, &assigned);
                let tokens = self.rows_shown(&data, &Shown { commands, body, between: Vec::new() });
                self.input.push_all(tokens.into_iter());
            }
            "pgfplotstableread" => {
                let options = self.input.option().unwrap_or_default();
                let source = self.input.argument();
                let data = self.plot_data(&options, &source);
                let name = super::macros::name(&mut self.input);
                if let (Some(data), Some(name)) = (data, name)
                    && self.own.data.len() < MOST_SETS
                {
                    self.own.data.insert(name.to_string(), data);
                }
            }
            "pgfplotstabletypeset" | "pgfplotstabletypesetfile" => self.plot_table(),
            _ => return false,
        }
        true
    }

    fn option_of_data(&self, options: &[Token], key: &str) -> String {
        let value = self.input.value_of(options, key);
        self.input.characters(&value)
    }

    /// The rows of a file; nothing, with a finding, where it is not there.
    fn data_of_file(&mut self, file: &str, layout: Layout) -> Option<Data> {
        let text = self.own.files.get(file).cloned().or_else(|| self.text_of_file(file));
        let Some(text) = text.or_else(|| self.text_of_file(&format!("{file}.csv"))) else {
            self.tallies.files.add_apart(self.at, file);
            return None;
        };
        // The rows count as what is made, however often they are shown.
        self.macros.charge(text.len(), self.at).then(|| Data::of(&text, layout))
    }

    fn load_data(&mut self, key: String, file: &str, layout: Layout) {
        if self.own.data.len() < MOST_SETS
            && let Some(data) = self.data_of_file(file, layout)
        {
            self.own.data.insert(key, data);
        }
    }

    fn csv_layout(&self, options: &[Token]) -> Layout {
        let separator = self.option_of_data(options, "separator");
        let words = self.input.characters(options);
        let has_head = self.option_of_data(options, "head") != "false" && !words.split(',').any(|word| word.trim() == "no head");
        Layout { separator: separator_named(&separator).unwrap_or(','), has_head, has_quotes: false }
    }

    /// `\csvautotabular[options]{file}`
    fn csv_table(&mut self) {
        self.input.take('*');
        let options = self.input.option().unwrap_or_default();
        let layout = self.csv_layout(&options);
        let file = self.address();
        if let Some(data) = self.data_of_file(&file, layout) {
            self.show_data(&data, &"l".repeat(data.width()));
        }
    }

    /// Shows data as a table, whose head has the names of the columns.
    fn show_data(&mut self, data: &Data, columns: &str) {
        let at = self.at;
        let length: usize = data.rows.iter().flatten().map(String::len).sum();
        if data.width() == 0 || !self.macros.charge(length, at) {
            return;
        }
        let row = |values: &[String]| made(&format!("{}\\\\", values.join("&")), at);
        let mut out = made(&format!("\\begin{{tabular}}{{{columns}}}"), at);
        if !data.names.is_empty() {
            out.extend(row(&data.names));
            out.extend(made("\\hline ", at));
        }
        for values in &data.rows {
            out.extend(row(values));
        }
        out.extend(made("\\end{tabular}", at));
        self.input.push_all(out.into_iter());
    }

    /// `\csvreader[options]{file}{names}{text}`: the text for each row, within a table where the options have one.
    fn csv_reader(&mut self, is_loop: bool) {
        self.input.take('*');
        let at = self.at;
        let options = if is_loop { self.input.argument() } else { self.input.option().unwrap_or_default() };
        let value = |reader: &Self, key: &str| reader.input.bare_value_of(&options, key);
        let (file, assigned, body) = if is_loop {
            let file = value(self, "file");
            (self.input.characters(&file), value(self, "column names"), value(self, "command"))
        } else {
            (self.address(), self.input.argument(), self.input.argument())
        };
        let layout = self.csv_layout(&options);
        let Some(data) = self.data_of_file(&file, layout) else { return };
        let mut commands = self.commands_of_columns(&data, &assigned);
        if self.input.characters(&options).contains("head to column names") {
            let letters = |name: &str| name.chars().all(|c| c.is_ascii_alphabetic());
            let named = data.names.iter().enumerate().filter(|(_, name)| letters(name));
            commands.extend(named.map(|(place, name)| (place, name.clone())));
        }
        let table = ["tabular", "longtable", "centered tabular", "centered longtable", "tabularx", "tblr"]
            .iter()
            .find_map(|key| Some(value(self, key)).filter(|columns| !columns.is_empty()).map(|columns| (*key, columns)));
        let mut between = value(self, "late after line");
        let mut out = value(self, "before reading");
        if let Some((key, columns)) = &table {
            let environment = if *key == "longtable" { "longtable" } else { "tabular" };
            // Those of a width have it before their columns.
            let columns = if *key == "tabularx" { self.input.last_group(columns) } else { columns.clone() };
            out.extend(made(&format!("\\begin{{{environment}}}{{"), at));
            out.extend(columns);
            out.extend(made("}", at));
            out.extend(value(self, "table head"));
            if between.is_empty() {
                between = made("\\\\", at);
            }
        }
        out.extend(self.rows_shown(&data, &Shown { commands, body, between }));
        if let Some((key, _)) = table {
            let environment = if key == "longtable" { "longtable" } else { "tabular" };
            out.extend(made("\\\\", at));
            out.extend(value(self, "table foot"));
            out.extend(made(&format!("\\end{{{environment}}}"), at));
        }
        out.extend(value(self, "after reading"));
        self.input.push_all(out.into_iter());
    }

    /// The commands that show columns: `name=\command`, `3=\command`, or the other way round.
    fn commands_of_columns(&self, data: &Data, assigned: &[Token]) -> Vec<(usize, String)> {
        let mut found = Vec::new();
        for part in self.input.split(assigned, ',') {
            let Some(command) = part.iter().find_map(|token| token.kind.command()) else { continue };
            let rest: Vec<Token> = part.iter().filter(|token| token.kind.command().is_none()).cloned().collect();
            let key = self.input.characters(&rest);
            if let Some(column) = data.column(key.trim().trim_matches(['=', ' ', '{', '}'])) {
                found.push((column, command.to_owned()));
            }
        }
        found
    }

    /// A text for each row, before which the commands for its columns are defined.
    fn rows_shown(&mut self, data: &Data, shown: &Shown) -> Vec<Token> {
        let at = self.at;
        let mut out = Vec::new();
        let own: Vec<(usize, String)> = (0..data.width())
            .map(|place| (place, format!("csvcol{}", crate::numeral::numeral(place as i64 + 1, ROMAN))))
            .collect();
        let is_used = |name: &str| shown.body.iter().any(|token| token.kind.command() == Some(name));
        let commands: Vec<_> = shown.commands.iter().chain(own.iter().filter(|(_, name)| is_used(name))).collect();
        for (number, row) in data.rows.iter().enumerate() {
            let length = row.iter().map(String::len).sum::<usize>() + shown.body.len() + commands.len() * 4;
            if !self.macros.charge(length, at) {
                break;
            }
            if number > 0 {
                out.extend(shown.between.iter().cloned());
            }
            for (column, command) in &commands {
                let value = row.get(*column).map_or("", String::as_str);
                out.extend(made(&format!("\\gdef\\{command}{{{value}}}"), at));
            }
            for token in &shown.body {
                match token.kind.command() {
                    Some("thecsvrow" | "theDTLrowi" | "DTLcurrentindex") => out.extend(made(&(number + 1).to_string(), at)),
                    Some("csvlinetotablerow") => out.extend(made(&row.join("&"), at)),
                    _ => out.push(token.clone()),
                }
            }
        }
        out
    }

    /// The rows of a file, or those that stand in the document.
    fn plot_data(&mut self, options: &[Token], source: &[Token]) -> Option<Data> {
        let separator = self.option_of_data(options, "col sep");
        let separator = separator_named(&separator).unwrap_or(' ');
        let layout = Layout { separator, has_head: self.option_of_data(options, "header") != "false", has_quotes: false };
        let ends_line = |token: &Token| self.is_line_end(token) || token.kind.command() == Some("\\");
        if !source.iter().any(ends_line) {
            let name = self.input.characters(source);
            return self.data_of_file(name.trim(), layout);
        }
        let lines = source.split(ends_line).map(|line| {
            let mut text = String::new();
            self.input.write(line, &mut text);
            text + "\n"
        });
        Some(Data::of(&lines.collect::<String>(), layout))
    }

    /// `\pgfplotstabletypeset[options]{file}`: a table with the columns that the options name.
    fn plot_table(&mut self) {
        let options = self.input.option().unwrap_or_default();
        let source = self.input.argument();
        let data = match source.first().and_then(|token| token.kind.command()) {
            Some(name) => self.own.data.get(name).cloned(),
            None => self.plot_data(&options, &source),
        };
        let Some(mut data) = data else {
            // Files that are not there are named already.
            if let Some(name) = source.first().and_then(|token| token.kind.command()) {
                self.tallies.files.add_apart(self.at, name);
            }
            return;
        };
        if data.names.is_empty() {
            data.names = (0..data.width()).map(|number| number.to_string()).collect();
        }
        let chosen = self.input.value_of(&options, "columns");
        let mut columns: Vec<usize> = self
            .input
            .characters(&chosen)
            .split(',')
            .filter_map(|name| data.names.iter().position(|known| known == name.trim()))
            .collect();
        if columns.is_empty() {
            columns = (0..data.width()).collect();
        }
        let mut shown = Data::default();
        let mut text_columns = Vec::new();
        for &column in &columns {
            let name = data.names.get(column).cloned().unwrap_or_default();
            let style = self.input.bare_value_of(&options, &format!("columns/{name}/.style"));
            let title = self.input.bare_value_of(&style, "column name");
            text_columns.push(self.input.characters(&style).contains("string type"));
            let mut written = String::new();
            self.input.write(&title, &mut written);
            shown.names.push(if written.trim().is_empty() { name } else { written.trim().to_owned() });
        }
        for row in &data.rows {
            let value = |(&column, &is_text): (&usize, &bool)| {
                let value = row.get(column).map_or("", String::as_str);
                if is_text { value.to_owned() } else { number_shown(value) }
            };
            shown.rows.push(columns.iter().zip(&text_columns).map(value).collect());
        }
        let alignment: String = text_columns.iter().map(|is_text| if *is_text { 'l' } else { 'r' }).collect();
        self.show_data(&shown, &alignment);
    }
}

/// The setting of the sign between values.
const SEPARATOR: &str = "separator of data";
const ROMAN: crate::document::Marker = crate::document::Marker::LowerRoman;

/// A number as tables show it: two places behind the point, groups of three digits, large and small ones with a power of ten.
fn number_shown(value: &str) -> String {
    let Some(number) = value.parse::<f64>().ok().filter(|number| number.is_finite()) else { return value.to_owned() };
    let fixed = |number: f64| {
        let text = format!("{number:.2}");
        let text = text.trim_end_matches('0').trim_end_matches('.').to_owned();
        if text == "-0" { "0".to_owned() } else { text }
    };
    let size = number.abs();
    if number != 0.0 && !(0.1..100_000.0).contains(&size) {
        let power = size.log10().floor();
        return format!("${} \\cdot 10^{{{power}}}$", fixed(number / 10_f64.powf(power)));
    }
    let text = fixed(number);
    let (sign, digits) = text.strip_prefix('-').map_or(("", &*text), |digits| ("\u{2212}", digits));
    let (whole, rest) = digits.split_at(digits.find('.').unwrap_or(digits.len()));
    let mut out = sign.to_owned();
    for (place, digit) in whole.chars().enumerate() {
        if place > 0 && (whole.len() - place).is_multiple_of(3) {
            out.push(',');
        }
        out.push(digit);
    }
    out + rest
}

impl Input<'_> {
    /// The value of a key, without the braces around all of it.
    fn bare_value_of(&self, options: &[Token], key: &str) -> Vec<Token> {
        let mut value = self.trimmed(&self.value_of(options, key));
        if let [Token { kind: Sign::Begin, .. }, inner @ .., Token { kind: Sign::End, .. }] = &value[..] {
            let mut depth = 0_i32;
            let is_one = inner.iter().all(|token| {
                depth += i32::from(token.kind == Sign::Begin) - i32::from(token.kind == Sign::End);
                depth >= 0
            });
            if is_one {
                value = inner.to_vec();
            }
        }
        value
    }

    /// What the last group of some tokens holds.
    fn last_group(&self, tokens: &[Token]) -> Vec<Token> {
        let mut inner = Input::of_tokens(self.source, tokens.iter().cloned());
        let mut last = Vec::new();
        while let Some(token) = inner.next() {
            if token.kind == Sign::Begin {
                last = inner.up_to_end();
            }
        }
        last
    }
}
