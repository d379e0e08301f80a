//! What a reader notices more than once: counted while a document is read, reported in one finding for each sort.

/// Things of one sort: how many, where the first is, and their words.
#[derive(Debug, Default)]
pub(crate) struct Tally {
    count: usize,
    first: u32,
    last: u32,
    words: String,
}

impl Tally {
    pub(crate) fn add(&mut self, offset: u32, words: &str) {
        if self.count == 0 {
            self.first = offset;
        }
        self.count += 1;
        if !words.is_empty() && self.words.len() < MOST_WORDS {
            // Runs break words wherever they like, paragraphs do not.
            if self.last != offset && !self.words.is_empty() {
                self.words.push(' ');
            }
            self.words.push_str(words);
        }
        self.last = offset;
    }

    /// Adds words that stand by themselves, whatever comes before and behind them.
    pub(crate) fn add_apart(&mut self, offset: u32, words: &str) {
        self.add(offset, "");
        if !words.is_empty() && self.words.len() < MOST_WORDS {
            for piece in [" ", words, " "] {
                self.words.push_str(piece);
            }
        }
    }

    pub(crate) const fn count(&self) -> usize {
        self.count
    }

    /// Where the first one is.
    pub(crate) const fn first(&self) -> u32 {
        self.first
    }

    pub(crate) fn words(&self) -> String {
        self.words.split_whitespace().collect::<Vec<_>>().join(" ")
    }
}

/// No more words than these are kept of what was left out; a whole deleted book is not asked for.
const MOST_WORDS: usize = 1 << 22;
