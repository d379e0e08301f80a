//! A position in a line that knows columns: a tab goes on to the next multiple of four (CommonMark, section 2.2).

/// Where the reader is in a line.
#[derive(Clone, Copy, Debug)]
pub(super) struct Cursor<'s> {
    bytes: &'s [u8],
    /// Offset of the next byte.
    pub(super) at: usize,
    /// Offset of the newline that ends the line.
    pub(super) end: usize,
    column: usize,
    /// Columns that are left of a tab that was used in part.
    left_of_tab: usize,
    /// Where the white space ends that the position is in or in front of, and the column there. Lines that are set in deeply are
    /// asked once for each list that they are in.
    white_end: usize,
    white_column: usize,
}

impl<'s> Cursor<'s> {
    #[inline]
    pub(super) fn new(bytes: &'s [u8], start: usize, end: usize) -> Self {
        let mut cursor = Self { bytes, at: start, end, column: 0, left_of_tab: 0, white_end: start, white_column: 0 };
        cursor.find_white_end();
        cursor
    }

    /// Looks for the end of the white space that follows; no tab is used in part.
    #[inline]
    fn find_white_end(&mut self) {
        let (mut at, mut column) = (self.at, self.column);
        while at < self.end {
            match self.bytes[at] {
                b' ' => column += 1,
                b'\t' => column += 4 - column % 4,
                _ => break,
            }
            at += 1;
        }
        (self.white_end, self.white_column) = (at, column);
    }

    /// How many columns of white space follow, and the offset of what stands behind them.
    #[inline]
    pub(super) const fn indent(&self) -> (usize, usize) {
        (self.white_column - self.column, self.white_end)
    }

    /// Skips up to `count` columns of white space.
    pub(super) fn skip_columns(&mut self, mut count: usize) {
        let part = count.min(self.left_of_tab);
        self.left_of_tab -= part;
        self.column += part;
        count -= part;
        while count > 0 && self.at < self.end {
            let width = match self.bytes[self.at] {
                b' ' => 1,
                b'\t' => 4 - self.column % 4,
                _ => return,
            };
            self.at += 1;
            let used = width.min(count);
            self.column += used;
            self.left_of_tab = width - used;
            count -= used;
        }
    }

    /// Skips all white space that follows.
    pub(super) fn skip_indent(&mut self) {
        let (columns, at) = self.indent();
        self.column += columns;
        self.left_of_tab = 0;
        self.at = at;
    }

    /// Skips bytes that are no white space.
    pub(super) fn skip_bytes(&mut self, count: usize) {
        self.at += count;
        self.column += count;
        self.left_of_tab = 0;
        self.find_white_end();
    }

    /// Skips one column of white space, where there is one.
    pub(super) fn skip_optional_space(&mut self) {
        self.skip_columns(1);
    }

    /// Whether nothing but white space follows.
    pub(super) fn is_blank(&self) -> bool {
        self.indent().1 == self.end
    }

    /// What follows, as bytes.
    pub(super) fn rest(&self) -> &'s [u8] {
        &self.bytes[self.at..self.end]
    }

    /// Spaces that stand for the rest of a tab that was used in part.
    pub(super) const fn spaces_left(&self) -> usize {
        self.left_of_tab
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn tabs_go_to_multiples_of_four() {
        let line = b"- \t\ta";
        let mut cursor = Cursor::new(line, 0, line.len());
        cursor.skip_bytes(1);
        assert_eq!(cursor.indent(), (7, 4));
        cursor.skip_columns(1);
        cursor.skip_columns(1);
        // Half of the first tab is left.
        assert_eq!((cursor.indent(), cursor.spaces_left()), ((5, 4), 1));
        cursor.skip_columns(99);
        assert_eq!((cursor.rest(), cursor.is_blank()), (&b"a"[..], false));
        assert!(Cursor::new(b" \t ", 0, 3).is_blank());
    }
}
