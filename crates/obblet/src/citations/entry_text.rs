//! What is printed of an entry, as LaTeX (the documentation of BibTeX, "Standard styles"; of biblatex, "Standard styles").

use super::entry::{Entry, MONTHS};
use super::names::{Joining, Name, Names};
use super::words::Words;
use crate::document::{BibliographyStyle, CitationStyle, EntryForm};

/// Text that grows part by part, with a sign between them.
#[derive(Default)]
struct Parts(String);

impl Parts {
    fn with(&mut self, sign: &str, part: Option<String>) -> &mut Self {
        let Some(part) = part.filter(|part| !part.is_empty()) else { return self };
        if !self.0.is_empty() {
            // A full stop that is there already is not written twice, and signs within quotation marks stay before these.
            let end = self.0.trim_end_matches(['}', '”', '’']);
            let sign = if end.ends_with(['.', '?', '!', ',']) { sign.trim_start_matches(['.', ',']) } else { sign };
            self.0.push_str(sign);
        }
        self.0.push_str(&part);
        self
    }

    /// Another sentence.
    fn stop(&mut self, part: Option<String>) -> &mut Self {
        self.with(". ", part)
    }

    fn comma(&mut self, part: Option<String>) -> &mut Self {
        self.with(", ", part)
    }
}

/// What a kind of entry is printed like.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Shape {
    Article,
    Book,
    /// A part of a book or of proceedings.
    Part,
    Thesis,
    Report,
    Unpublished,
    Other,
}

impl Shape {
    fn of(entry: &Entry) -> Self {
        match entry.kind.as_str() {
            "article" | "periodical" | "suppperiodical" => Self::Article,
            "book" | "mvbook" | "collection" | "mvcollection" | "proceedings" | "mvproceedings" | "manual" | "booklet"
            | "reference" => Self::Book,
            "incollection" | "inproceedings" | "conference" | "inbook" | "bookinbook" | "suppbook" | "inreference"
            | "suppcollection" => Self::Part,
            "phdthesis" | "mastersthesis" | "thesis" => Self::Thesis,
            "techreport" | "report" => Self::Report,
            "unpublished" => Self::Unpublished,
            _ if entry.journal().is_some() => Self::Article,
            _ if entry.title_of_whole(" ").is_some() => Self::Part,
            _ => Self::Other,
        }
    }
}

/// An entry with the style that it is printed in.
pub(super) struct Printed<'e> {
    pub(super) entry: &'e Entry,
    pub(super) style: BibliographyStyle,
    /// What tells its year from those of others by the same names.
    pub(super) letter: &'e str,
    pub(super) words: &'static Words,
    /// Whether it stands in the list, where the first name is turned, as the list is sorted by it.
    pub(super) is_listed: bool,
}

fn italic(text: &str) -> String {
    format!("\\emph{{{text}}}")
}

fn range(pages: &str) -> String {
    // Hyphens of any length are one between numbers.
    let mut out = String::with_capacity(pages.len() + 2);
    let mut parts = pages.split('-').filter(|part| !part.is_empty());
    out.push_str(parts.next().unwrap_or_default());
    for part in parts {
        out.push_str("--");
        out.push_str(part);
    }
    out
}

fn is_several(pages: &str) -> bool {
    pages.contains(['-', ',', '–', '+'])
}

impl Printed<'_> {
    fn field(&self, names: &[&str]) -> Option<String> {
        self.entry.field(names).map(str::to_owned)
    }

    /// Its pages behind the word for one or for several.
    fn pages(&self, one: &str, several: &str) -> Option<String> {
        let pages = self.entry.field(&["pages"])?;
        Some(format!("{}~{}", if is_several(pages) { several } else { one }, range(pages)))
    }

    fn edition(&self, word: &str) -> Option<String> {
        self.entry.field(&["edition"]).map(|edition| format!("{} {word}", super::words::ordinal(edition)))
    }

    /// The series that it is in, with its number there.
    fn series(&self) -> Option<String> {
        let number = self.entry.field(&["number"]).map(|number| format!(" {number}")).unwrap_or_default();
        self.entry.field(&["series"]).map(|series| format!("{series}{number}"))
    }

    /// All that is printed.
    pub(super) fn text(&self) -> String {
        let mut parts = match self.style.entries {
            EntryForm::Quoted | EntryForm::QuotedInitials => self.quoted(),
            EntryForm::Engineering => self.engineering(),
            EntryForm::AuthorDate => self.author_date(),
            EntryForm::Initials | EntryForm::FullNames | EntryForm::FamilyFirst => self.plain(),
        };
        self.addresses(&mut parts);
        let mut text = parts.0;
        let end = text.trim_end_matches(['}', '”', '’']);
        let ends_in_address = self.style.entries == EntryForm::AuthorDate && self.entry.field(&["doi", "url"]).is_some();
        if !end.ends_with(['.', '?', '!']) && !ends_in_address {
            text.push('.');
        }
        text
    }

    /// Where it is found on the web.
    fn addresses(&self, parts: &mut Parts) {
        let form = self.style.entries;
        let doi = self.entry.field(&["doi"]).map(|doi| {
            let doi = doi.trim_start_matches("https://doi.org/").trim_start_matches("http://dx.doi.org/");
            if form == EntryForm::AuthorDate {
                format!("\\url{{https://doi.org/{doi}}}")
            } else {
                format!("doi: \\href{{https://doi.org/{doi}}}{{{doi}}}")
            }
        });
        let eprint = self.entry.field(&["eprint"]).map(|number| {
            let class = self.entry.field(&["eprintclass", "primaryclass"]).map(|class| format!(" [{class}]"));
            let kind = self.entry.field(&["eprinttype", "archiveprefix"]).unwrap_or("arXiv");
            let kind = if kind.eq_ignore_ascii_case("arxiv") { "arXiv" } else { kind };
            format!("{kind}: {number}{}", class.unwrap_or_default())
        });
        let url = self.entry.field(&["url"]).filter(|_| doi.is_none()).map(|url| {
            let seen =
                self.entry.field(&["urldate"]).map(|day| format!(" ({} {})", self.words.visited, self.words.numbers_of_day(day)));
            let seen = seen.filter(|_| form.is_quoted() || form == EntryForm::Engineering).unwrap_or_default();
            match form {
                EntryForm::Quoted | EntryForm::QuotedInitials => format!("url: \\url{{{url}}}{seen}"),
                EntryForm::Engineering => format!("[Online]. Available: \\url{{{url}}}{seen}"),
                EntryForm::AuthorDate => format!("\\url{{{url}}}"),
                _ => format!("URL \\url{{{url}}}"),
            }
        });
        parts.stop(doi).stop(eprint).stop(url);
    }

    fn names(&self, names: &Names, shown: impl Fn(&Name) -> String, words: Joining<'_>) -> String {
        names.joined(self.style.most_names.map_or(usize::MAX, usize::from), words, shown)
    }

    /// The year, with what tells it from others.
    fn year(&self) -> String {
        let year = self.entry.year();
        if year.is_empty() { year } else { format!("{year}{}", self.letter) }
    }

    fn plain_date(&self) -> Option<String> {
        let date = self.entry.date();
        let month = date.month.and_then(|month| MONTHS.get(month - 1));
        let year = self.year();
        Some(match month {
            Some(month) if date.day.is_empty() => format!("{month} {year}"),
            Some(month) => format!("{month} {}, {year}", date.day),
            None => year,
        })
        .filter(|date| !date.is_empty())
    }

    /// The year in brackets behind the names, where these come first.
    fn year_behind_names(&self, names: &str) -> String {
        let year = self.year();
        match (names.is_empty(), year.is_empty()) {
            (_, true) => names.to_owned(),
            (true, _) => format!("({year})"),
            _ => format!("{names} ({year})"),
        }
    }

    fn plain(&self) -> Parts {
        let entry = self.entry;
        let is_inverted = self.style.entries == EntryForm::FamilyFirst;
        let with_initials = self.style.entries != EntryForm::FullNames;
        let shown = |name: &Name| if is_inverted { name.inverted(true, false) } else { name.straight(with_initials) };
        let words = Joining { and: "and", others: "et~al.", comma: true, comma_of_two: false };
        let (authors, editors) = (entry.authors(), entry.editors());
        let edited = self.names(&editors, shown, words);
        let edited =
            (!edited.is_empty()).then(|| format!("{edited}, {}", if editors.all.len() > 1 { "editors" } else { "editor" }));
        let mut out = Parts::default();
        let shape = Shape::of(entry);
        let by = if authors.all.is_empty() { edited.clone() } else { Some(self.names(&authors, shown, words)) };
        out.0 = by.unwrap_or_default();
        if is_inverted {
            out.0 = self.year_behind_names(&out.0);
        }
        let date = if is_inverted { None } else { self.plain_date() };
        let title = entry.title(": ");
        let volume = self.field(&["volume"]);
        let series = match (volume.clone(), self.field(&["series"])) {
            (Some(volume), Some(series)) => Some(format!("volume {volume} of {}", italic(&series))),
            (Some(volume), None) => Some(format!("volume {volume}")),
            (None, _) => self.series(),
        };
        let pages = self.pages("page", "pages");
        let edition = self.edition("edition");
        let place = self.field(&["address", "location"]);
        match shape {
            Shape::Article => {
                out.stop(title).stop(entry.journal().map(italic));
                let number = self.field(&["number", "issue"]).map(|number| format!("({number})")).unwrap_or_default();
                let pages = entry.field(&["pages"]).map(range);
                match volume {
                    Some(volume) => {
                        out.comma(Some(format!("{volume}{number}{}", pages.map(|pages| format!(":{pages}")).unwrap_or_default())))
                    }
                    None => out.comma(Some(number)).comma(pages.map(|pages| format!("pages {pages}"))),
                };
                out.comma(date);
            }
            Shape::Book => {
                out.stop(title.map(|title| italic(&title))).comma(series);
                out.stop(self.field(&["publisher", "organization"])).comma(place).comma(edition).comma(date);
            }
            Shape::Part => {
                let editors =
                    edited.filter(|_| !authors.all.is_empty()).map(|editors| format!("{editors}, ")).unwrap_or_default();
                let whole = entry.title_of_whole(": ").map(|whole| format!("In {editors}{}", italic(&whole)));
                out.stop(title)
                    .stop(whole)
                    .comma(series)
                    .comma(self.field(&["chapter"]).map(|chapter| format!("chapter {chapter}")));
                out.comma(pages);
                let publisher = self.field(&["publisher", "organization"]);
                if publisher.is_some() { out.stop(publisher).comma(place) } else { out.comma(place) }.comma(edition).comma(date);
            }
            Shape::Thesis => {
                out.stop(title.map(|title| italic(&title))).stop(Some(self.kind_of_work()));
                out.comma(self.field(&["school", "institution"])).comma(place).comma(date);
            }
            Shape::Report => {
                out.stop(title).stop(Some(self.kind_of_work()));
                out.comma(self.field(&["institution", "organization"])).comma(place).comma(date);
            }
            Shape::Unpublished => {
                out.stop(title).stop(self.field(&["note"])).comma(date);
            }
            Shape::Other => {
                out.stop(title).stop(self.field(&["howpublished"])).comma(self.field(&["organization", "publisher"])).comma(date);
            }
        }
        if shape != Shape::Unpublished {
            out.stop(self.field(&["note"]));
        }
        out
    }

    /// What kind of thesis or report it is, with its number.
    fn kind_of_work(&self) -> String {
        let words = self.words;
        let (phd, masters, report) = match self.style.entries {
            EntryForm::Quoted | EntryForm::QuotedInitials => (words.thesis, words.masters_thesis, words.report),
            EntryForm::Engineering => ("Ph.D. dissertation", "M.S. thesis", "Tech. Rep."),
            EntryForm::AuthorDate => ("Doctoral dissertation", "Master's thesis", "Report"),
            _ => ("PhD thesis", "Master's thesis", "Technical Report"),
        };
        let is_masters = self.entry.kind == "mastersthesis";
        match Shape::of(self.entry) {
            Shape::Report => {
                let kind = self.field(&["type"]).filter(|kind| kind != "techreport").unwrap_or_else(|| report.to_owned());
                self.field(&["number"]).map_or_else(|| kind.clone(), |number| format!("{kind} {number}"))
            }
            _ => match self.entry.field(&["type"]) {
                Some("phdthesis") => phd.to_owned(),
                Some("mathesis" | "mastersthesis") => masters.to_owned(),
                Some(kind) => kind.to_owned(),
                None if is_masters => masters.to_owned(),
                None => phd.to_owned(),
            },
        }
    }

    /// `Kell: Harbour Press`
    fn published(&self, by: &[&str]) -> Option<String> {
        match (self.field(&["location", "address"]), self.field(by)) {
            (Some(place), Some(publisher)) => Some(format!("{place}: {publisher}")),
            (place, publisher) => publisher.or(place),
        }
    }

    fn quoted(&self) -> Parts {
        let (entry, words) = (self.entry, self.words);
        let by_year = self.style.labels == CitationStyle::AuthorYear;
        let joining = Joining { and: words.and, others: words.others, comma: words.comma_before_and, comma_of_two: false };
        let is_turned = self.is_listed && matches!(self.style.labels, CitationStyle::AuthorYear | CitationStyle::AuthorTitle);
        let with_initials = self.style.entries == EntryForm::QuotedInitials;
        let straight = |name: &Name| name.straight(with_initials);
        let (authors, editors) = (entry.authors(), entry.editors());
        let shape = Shape::of(entry);
        let is_edited = authors.all.is_empty() && !editors.all.is_empty();
        let first = if is_edited { &editors } else { &authors };
        let inverted = first.all.first().map(|name| name.inverted(with_initials, true));
        let mut by = self.names(
            first,
            |name| {
                if is_turned && Some(name) == first.all.first() { inverted.clone().unwrap_or_default() } else { straight(name) }
            },
            joining,
        );
        if is_edited {
            by = format!("{by}, {}", if editors.all.len() > 1 { words.editors } else { words.editor });
        }
        let mut out = Parts::default();
        let year = Some(self.quoted_date()).filter(|date| !date.is_empty() && !by_year);
        out.0 = match (by_year, self.year()) {
            (true, year) if year.is_empty() => format!("{by}{}({})", if by.is_empty() { "" } else { " " }, words.no_year),
            (true, _) => self.year_behind_names(&by),
            _ => by,
        };
        let title = entry.title(". ");
        let is_whole = matches!(shape, Shape::Book | Shape::Report | Shape::Other);
        let (open, close) = words.quotes;
        out.stop(title.map(|title| if is_whole { italic(&title) } else { format!("{open}{title}{close}") }));
        let edited_by = || {
            let names = self.names(&editors, straight, joining);
            (!names.is_empty() && !is_edited).then(|| format!("{} {names}", words.edited_by))
        };
        let edition = self.field(&["edition"]).map(|edition| words.edition(&edition));
        let volume = self.field(&["volume"]).map(|volume| format!("{} {volume}", words.volume));
        let series = self.series();
        let pages = self.pages(words.page, words.pages);
        let note = self.field(&["note"]);
        match shape {
            Shape::Article => {
                let number = self.field(&["volume"]).into_iter().chain(self.field(&["number"])).collect::<Vec<_>>().join(".");
                let number = if number.is_empty() { number } else { format!(" {number}") };
                let year = year.map(|year| format!(" ({year})")).unwrap_or_default();
                out.stop(entry.journal().map(|journal| format!("{} {}{number}{year}", words.inside, italic(journal))));
                out.comma(note).comma(pages);
            }
            Shape::Book => {
                out.stop(edited_by()).stop(edition).stop(volume).stop(series).stop(note);
                out.stop(self.published(&["publisher", "organization"])).comma(year).comma(pages);
            }
            Shape::Part => {
                out.stop(entry.title_of_whole(". ").map(|whole| format!("{} {}", words.inside, italic(&whole))));
                out.stop(edited_by()).stop(edition).stop(volume).stop(series).stop(note);
                out.stop(self.published(&["publisher", "organization"])).comma(year);
                out.comma(self.field(&["chapter"]).map(|chapter| format!("{} {chapter}", words.chapter))).comma(pages);
            }
            Shape::Thesis | Shape::Report => {
                out.stop(Some(self.kind_of_work())).stop(note);
                out.stop(self.published(&["institution", "school", "organization", "publisher"])).comma(year);
            }
            Shape::Unpublished | Shape::Other => {
                out.stop(self.field(&["howpublished"])).stop(note).stop(self.published(&["organization", "publisher"])).with(
                    if entry.field(&["organization", "publisher", "location", "address"]).is_some() { ", " } else { ". " },
                    year,
                );
            }
        }
        out
    }

    fn quoted_date(&self) -> String {
        let date = self.entry.date();
        if date.year.is_empty() { date.year } else { self.words.date(&date, &self.year()) }
    }

    fn engineering(&self) -> Parts {
        let entry = self.entry;
        let joining = Joining { and: "and", others: "\\emph{et al.}", comma: true, comma_of_two: false };
        let straight = |name: &Name| name.straight(true);
        let (authors, editors) = (entry.authors(), entry.editors());
        let shape = Shape::of(entry);
        let edited = self.names(&editors, straight, joining);
        let edited = (!edited.is_empty()).then(|| format!("{edited}, {}", if editors.all.len() > 1 { "Eds." } else { "Ed." }));
        let mut out = Parts::default();
        let is_edited = authors.all.is_empty();
        out.0 = if is_edited { edited.clone().unwrap_or_default() } else { self.names(&authors, straight, joining) };
        let title = entry.title(": ");
        let edition = self.edition("ed.");
        let pages = self.pages("p.", "pp.");
        let volume = self.field(&["volume"]).map(|volume| format!("vol.~{volume}"));
        let date = self.plain_date();
        let quoted = title.clone().map(|title| format!("“{title},”"));
        match shape {
            Shape::Article => {
                out.comma(quoted).with(" ", entry.journal().map(italic)).comma(volume);
                out.comma(self.field(&["number", "issue"]).map(|number| format!("no.~{number}"))).comma(pages).comma(date);
            }
            Shape::Book => {
                out.comma(title.map(|title| italic(&title))).comma(edition).comma(self.field(&["series"])).comma(volume);
                out.stop(self.published(&["publisher", "organization"])).comma(date).comma(pages);
            }
            Shape::Part => {
                out.comma(quoted).with(" ", entry.title_of_whole(": ").map(|whole| format!("in {}", italic(&whole))));
                out.comma(self.field(&["series"])).comma(volume).comma(edited.filter(|_| !is_edited)).comma(edition);
                out.stop(self.published(&["publisher", "organization"])).comma(date).comma(pages);
            }
            Shape::Thesis => {
                out.comma(quoted).with(" ", Some(self.kind_of_work())).comma(self.field(&["school", "institution"]));
                out.comma(self.field(&["address", "location"])).comma(date);
            }
            Shape::Report => {
                out.comma(quoted)
                    .with(" ", self.field(&["institution", "organization"]))
                    .comma(Some(self.kind_of_work()))
                    .comma(date);
            }
            Shape::Unpublished => {
                out.comma(quoted).with(" ", self.field(&["note"])).comma(date);
            }
            Shape::Other => {
                out.comma(quoted)
                    .with(" ", self.field(&["howpublished"]))
                    .comma(self.field(&["organization", "publisher"]))
                    .comma(date);
            }
        }
        if shape != Shape::Unpublished {
            out.comma(self.field(&["note"]));
        }
        out
    }

    fn author_date(&self) -> Parts {
        let entry = self.entry;
        let joining = Joining { and: "\\&", others: "et al.", comma: true, comma_of_two: true };
        let (authors, editors) = (entry.authors(), entry.editors());
        let shape = Shape::of(entry);
        let is_edited = authors.all.is_empty() && !editors.all.is_empty();
        let marked = |names: String| if editors.all.len() > 1 { format!("{names} (Eds.)") } else { format!("{names} (Ed.)") };
        let mut by = self.names(if is_edited { &editors } else { &authors }, |name| name.inverted(true, false), joining);
        if is_edited {
            by = marked(by);
        }
        let mut out = Parts(by);
        let date = self.entry.date();
        let months = date.month.and_then(|month| MONTHS.get(month - 1)).filter(|_| shape != Shape::Article);
        let year = match (self.year(), months) {
            (year, _) if year.is_empty() => "n.d.".to_owned(),
            (year, Some(month)) => {
                format!("{year}, {month}{}", if date.day.is_empty() { String::new() } else { format!(" {}", date.day) })
            }
            (year, None) => year,
        };
        out.with(" ", Some(format!("({year})")));
        let title = entry.title(": ");
        let edition = self.edition("ed.");
        let volume = self.field(&["volume"]).map(|volume| format!("Vol.~{volume}"));
        let in_brackets = |parts: [Option<String>; 3]| {
            let parts: Vec<String> = parts.into_iter().flatten().collect();
            if parts.is_empty() { String::new() } else { format!(" ({})", parts.join(", ")) }
        };
        match shape {
            Shape::Article => {
                let volume = self.field(&["volume"]).map(|volume| italic(&volume)).unwrap_or_default();
                let number = self.field(&["number", "issue"]).map(|number| format!("({number})")).unwrap_or_default();
                out.stop(title).stop(entry.journal().map(italic)).comma(Some(volume + &number));
                out.comma(entry.field(&["pages"]).map(range));
            }
            Shape::Book => {
                out.stop(title.map(|title| italic(&title) + &in_brackets([edition, volume, None])))
                    .stop(self.field(&["publisher", "organization"]));
            }
            Shape::Part => {
                let names = if editors.all.is_empty() || is_edited {
                    String::new()
                } else {
                    marked(self.names(&editors, |name| name.straight(true), joining)) + ", "
                };
                let pages = self.pages("p.", "pp.");
                out.stop(title).stop(
                    entry
                        .title_of_whole(": ")
                        .map(|whole| format!("In {names}{}{}", italic(&whole), in_brackets([edition, volume, pages]))),
                );
                out.stop(self.field(&["publisher", "organization"]));
            }
            Shape::Thesis => {
                let school = self.field(&["school", "institution"]).map(|school| format!(", {school}")).unwrap_or_default();
                out.stop(title.map(|title| format!("{} [{}{school}]", italic(&title), self.kind_of_work())));
            }
            Shape::Report => {
                let number = self.field(&["number"]).map(|number| format!("No.~{number}"));
                out.stop(title.map(|title| italic(&title) + &in_brackets([number, None, None])))
                    .stop(self.field(&["institution", "organization"]));
            }
            Shape::Unpublished | Shape::Other => {
                out.stop(title.map(|title| italic(&title)))
                    .stop(self.field(&["howpublished"]))
                    .stop(self.field(&["organization", "publisher"]));
            }
        }
        out.stop(self.field(&["note"]));
        out
    }

    /// Names and title, as a note has it that cites an entry again.
    pub(super) fn title_alone(&self) -> String {
        let Some(title) = self.field(&["shorttitle"]).or_else(|| self.field(&["title"])) else { return self.entry.key.clone() };
        if matches!(Shape::of(self.entry), Shape::Book | Shape::Report | Shape::Other) {
            italic(&title)
        } else {
            let (open, close) = self.words.quotes;
            format!("{open}{title}{close}")
        }
    }
}
