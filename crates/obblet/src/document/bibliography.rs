//! What a source cites, until the entries of its bibliography are known.

use super::NodeId;

/// What a source cites, and the bibliography that it names.
#[derive(Clone, Debug, Default)]
pub struct Bibliography {
    /// The files that hold the entries, by their paths from the folder of the source.
    pub files: Vec<String>,
    /// How entries are sorted, called and printed.
    pub style: BibliographyStyle,
    /// The block that the list of entries takes the place of; an empty division until then.
    pub place: Option<NodeId>,
    /// What is cited, in the order of the source.
    pub citations: Vec<Citation>,
}

/// How a bibliography is made: what its entries are called, what is printed of them, and in which order.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct BibliographyStyle {
    /// What entries are called where they are cited.
    pub labels: CitationStyle,
    /// What is printed of each.
    pub entries: EntryForm,
    /// How they are sorted.
    pub order: EntryOrder,
    /// An entry with more names than this is listed with the first of them only.
    pub most_names: Option<u8>,
    /// An entry with more names than this is cited with the first of them only; two where nothing is said.
    pub most_cited: Option<u8>,
}

/// What the entries of a bibliography are called where they are cited.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum CitationStyle {
    /// By their names and the year.
    #[default]
    AuthorYear,
    /// By their numbers.
    Numbers,
    /// By labels of letters and digits, such as `Bra87`.
    Letters,
    /// By their names and titles.
    AuthorTitle,
}

/// What is printed of an entry.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum EntryForm {
    /// Names with initials; names, title and place end with full stops each.
    #[default]
    Initials,
    /// The same, with given names in full.
    FullNames,
    /// The same, with family names first, and the year behind the names.
    FamilyFirst,
    /// Titles of articles and parts in quotation marks, with what they are in behind `In:`; names in full.
    Quoted,
    /// The same, with initials.
    QuotedInitials,
    /// Titles in quotation marks, and commas between all parts, as engineers have it.
    Engineering,
    /// Family names first with initials, the year in brackets, as psychologists have it.
    AuthorDate,
}

/// How the entries of a bibliography are sorted.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum EntryOrder {
    /// By names, year and title.
    #[default]
    NameYearTitle,
    /// By names, title and year.
    NameTitleYear,
    /// By names and year, and as they are cited where these are the same.
    NameYearCited,
    /// By label, then as `NameYearTitle`.
    Label,
    /// By year, names and title.
    YearNameTitle,
    /// The same, with the last year first.
    LastYearFirst,
    /// In the order in which they are cited.
    Cited,
}

impl EntryForm {
    /// Whether titles of parts stand in quotation marks, as the standard styles of biblatex have them.
    pub(crate) const fn is_quoted(self) -> bool {
        matches!(self, Self::Quoted | Self::QuotedInitials)
    }
}

impl BibliographyStyle {
    /// The style that a name of one stands for, as documents and programs write it.
    #[must_use]
    pub fn from_name(name: &str) -> Option<Self> {
        use CitationStyle::{AuthorYear, Letters, Numbers};
        if let Some(style) = name.strip_prefix("biblatex ") {
            return Some(Self::of_biblatex(&format!("style={}", style.trim())));
        }
        let has = |parts: &[&str]| parts.iter().any(|part| name.contains(part));
        // The first that fits: `plainnat` is a style of names, though `plain` is one of numbers.
        let (labels, mut order) = if has(&["unsrtnat"]) {
            (AuthorYear, EntryOrder::Cited)
        } else if has(&["plainnat", "abbrvnat", "natnat"]) {
            (AuthorYear, EntryOrder::NameYearCited)
        } else if has(&[
            "author",
            "apa",
            "chicago",
            "agsm",
            "dcu",
            "harvard",
            "elsarticle-harv",
            "newapa",
            "aer",
            "mnras",
            "aasjournal",
        ]) {
            (AuthorYear, EntryOrder::NameYearTitle)
        } else if has(&["alpha", "letters"]) {
            (Letters, EntryOrder::Label)
        } else if has(&["unsrt", "ieee", "IEEE", "elsarticle-num", "vancouver", "cited-order", "apsrev", "aip"]) {
            (Numbers, EntryOrder::Cited)
        } else if has(&["number", "numeric", "plain", "abbrv", "acm", "ACM", "siam", "splncs", "spmpsci", "model1-num"]) {
            (Numbers, EntryOrder::NameYearTitle)
        } else {
            return None;
        };
        if name.contains("sorting=none") {
            order = EntryOrder::Cited;
        }
        let entries = if has(&["ieee", "IEEE"]) {
            EntryForm::Engineering
        } else if has(&["apalike", "agsm", "dcu", "harvard", "newapa", "chicago", "elsarticle-harv", "mnras"]) {
            EntryForm::FamilyFirst
        } else if has(&["apa"]) {
            EntryForm::AuthorDate
        } else if has(&["plain", "alpha", "unsrt", "abbrvnat"]) {
            EntryForm::FullNames
        } else {
            EntryForm::Initials
        };
        Some(Self { labels, entries, order, ..Self::default() })
    }

    /// The style that options of biblatex name (its documentation, "Standard styles" and "Package options").
    #[must_use]
    pub fn of_biblatex(options: &str) -> Self {
        let values = |name: &str| {
            let name = name.to_owned();
            options.split(['[', ']', ',']).filter_map(move |option| {
                let (key, value) = option.split_once('=')?;
                (key.trim() == name).then(|| value.trim().trim_matches(['{', '}']))
            })
        };
        let last = |name: &str| values(name).next_back();
        let named = last("citestyle").or_else(|| last("style")).unwrap_or("numeric");
        let printed = last("bibstyle").or_else(|| last("style")).unwrap_or("numeric");
        let labels = if named.starts_with("alphabetic") {
            CitationStyle::Letters
        } else if ["authortitle", "verbose", "reading"].iter().any(|part| named.starts_with(part)) {
            CitationStyle::AuthorTitle
        } else if ["author", "apa", "chicago", "mla"].iter().any(|part| named.starts_with(part)) {
            CitationStyle::AuthorYear
        } else {
            CitationStyle::Numbers
        };
        let entries = if printed.starts_with("ieee") {
            EntryForm::Engineering
        } else if printed.starts_with("apa") {
            EntryForm::AuthorDate
        } else if ["giveninits", "firstinits"].iter().any(|name| last(name).is_some_and(|value| value == "true")) {
            EntryForm::QuotedInitials
        } else {
            EntryForm::Quoted
        };
        let order = match last("sorting") {
            Some("none") => EntryOrder::Cited,
            Some("nyt" | "nyvt") => EntryOrder::NameYearTitle,
            Some("nty") => EntryOrder::NameTitleYear,
            Some("ynt") => EntryOrder::YearNameTitle,
            Some("ydnt") => EntryOrder::LastYearFirst,
            Some("anyt" | "anyvt") => EntryOrder::Label,
            _ if ["ieee", "phys", "nature", "science", "chem", "nejm"].iter().any(|part| named.starts_with(part)) => {
                EntryOrder::Cited
            }
            _ if named.starts_with("authoryear") || named.starts_with("apa") => EntryOrder::NameYearTitle,
            _ if labels == CitationStyle::Letters => EntryOrder::Label,
            _ => EntryOrder::NameTitleYear,
        };
        let number = |names: [&str; 2]| names.iter().find_map(|name| last(name)).and_then(|value| value.parse().ok());
        let all = if entries.is_quoted() { 3 } else { 20 };
        Self {
            labels,
            entries,
            order,
            most_names: Some(number(["maxbibnames", "maxnames"]).unwrap_or(all)),
            most_cited: Some(number(["maxcitenames", "maxnames"]).unwrap_or(if entries == EntryForm::AuthorDate {
                2
            } else {
                3
            })),
        }
    }
}

/// A citation: a node that shows keys until the entries are known.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Citation {
    /// The node.
    pub node: NodeId,
    /// What it shows of the entries.
    pub form: CitationForm,
    /// What it cites.
    pub entries: Vec<CitedEntry>,
    /// What stands before all of them, and behind.
    pub around: (String, String),
}

/// What a citation shows of its entries.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum CitationForm {
    /// Their labels, in brackets.
    #[default]
    Label,
    /// The names as part of the sentence, and the rest in brackets.
    InText,
    /// The names alone.
    Author,
    /// The year in brackets, where the style has one; else the label.
    Year,
    /// Nothing: the entries are in the list only.
    Hidden,
}

/// An entry that a citation names.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct CitedEntry {
    /// What stands before it, such as `see`.
    pub before: String,
    /// The key of the entry.
    pub key: String,
    /// What stands behind it, such as `p. 3`.
    pub behind: String,
}
