//! The levels and the numbers that headings have on pages.

/// The class of headings whose numbers are counted in a way of the document's own, and stand in their words.
pub(crate) const OWN_NUMBER: &str = "own-number";

/// Classes of headings that say how they are counted; our own pages have them.
pub(crate) const CLASSES: [&str; 4] = ["unnumbered", "appendix", "part", OWN_NUMBER];

/// What is known of the headings so far.
#[derive(Clone, Debug, Default)]
pub(crate) struct HeadingCount {
    /// The headings above the next one: their levels in the source, and as they are written.
    above: Vec<(u8, u8)>,
    counts: [u32; 6],
    top: Option<usize>,
}

impl HeadingCount {
    /// Headings below one of a level that stands above the document, if any.
    pub(crate) fn below(level: u8) -> Self {
        let above = if level == 0 { Vec::new() } else { vec![(0, level)] };
        Self { above, ..Self::default() }
    }

    /// The level that a heading of a level in the source has when no level is left out on the way down.
    pub(crate) fn step(&mut self, level: u8) -> u8 {
        while self.above.last().is_some_and(|&(above, _)| above >= level) {
            self.above.pop();
        }
        // A first heading may be of any level, where nothing is above it.
        let written = self.above.last().map_or(level, |&(_, above)| (above + 1).min(6));
        self.above.push((level, written));
        written
    }

    /// A heading becomes the one above all others.
    pub(crate) fn put_on_top(&mut self, level: u8) -> u8 {
        self.above = vec![(level, 1)];
        1
    }

    /// The number of a heading of a level as it is written: `2.1` for the first one of the second level in the second of the
    /// first; nothing for one that is deeper than so many levels.
    pub(crate) fn number(&mut self, level: u8, levels: u8) -> String {
        if levels == 0 {
            return String::new();
        }
        let index = usize::from(level) - 1;
        self.counts[index] += 1;
        self.counts[index + 1..].fill(0);
        let top = self.top.map_or(index, |top| top.min(index));
        self.top = Some(top);
        if index - top >= usize::from(levels) {
            return String::new();
        }
        self.counts[top..=index].iter().map(u32::to_string).collect::<Vec<_>>().join(".")
    }
}
