//! Numbers that the engine will print, so that text which shows one can be written as a reference.

use crate::document::{Document, Kind, Marker, Markup, NodeId, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::numeral::numeral;

/// What will have which number.
#[derive(Debug, Default)]
pub(super) struct Numbers<'d> {
    /// By the ids of what has them: the number, and the word before it.
    of: HashMap<&'d str, (String, &'static str)>,
    /// Captions whose text begins with the number that the engine prints, and how long that part of their first text is.
    pub(super) captions: HashMap<NodeId, usize>,
    /// Ids that are in the document, and those that links lead to.
    pub(super) ids: HashSet<&'d str>,
    pub(super) linked: HashSet<&'d str>,
    /// The ids of headings that have none of their own and that links lead to by their words.
    pub(super) slugs: HashMap<NodeId, &'d str>,
    /// Entries of bibliographies.
    pub(super) entries: super::citations::Entries<'d>,
    /// Numbers of the document's own.
    pub(super) own: super::own_numbers::OwnNumbers,
    /// Numbers of equations that counting does not make.
    pub(super) equations: super::equation_numbers::EquationNumbers,
    /// What captions of each kind of float look like.
    pub(super) looks: [Option<CaptionLook>; FLOATS.len()],
    /// Figures within figures that have captions, too, and letters of theirs that captions begin with.
    pub(super) parts: HashMap<NodeId, usize>,
    pub(super) letters: HashMap<&'d str, String>,
    /// Figures that are floats of another kind.
    pub(super) floats: HashMap<NodeId, usize>,
    /// Whether the appendix has begun.
    pub(super) has_appendix: bool,
    /// Ids of what has a label: headings, figures, tables.
    pub(super) labelled: HashSet<&'d str>,
}

/// Kinds of floats by their environments. The first two are those of the classes.
pub(super) const FLOATS: [&str; 4] = ["figure", "table", "algorithm", "listing"];
const FIGURE: usize = 0;
const TABLE: usize = 1;
const ALGORITHM: usize = 2;
const LISTING: usize = 3;

/// The kind of float that has a caption: lines of an algorithm and code are figures where their captions call them so.
fn kind_of_float(doc: &Document, holder: NodeId, word_for_figures: &str) -> usize {
    if doc.kind(holder) == Kind::Table {
        return TABLE;
    }
    let mut content = doc.children(holder).filter(|&child| doc.kind(child) != Kind::Caption);
    let (Some(first), None) = (content.next(), content.next()) else { return FIGURE };
    let kind = match doc.kind(first) {
        Kind::List(_) if doc.is_of_class(first, super::super::own_commands::CLASS_OF_LINES) => ALGORITHM,
        Kind::CodeBlock { .. } => LISTING,
        _ => return FIGURE,
    };
    let caption = doc.children(holder).find(|&child| doc.kind(child) == Kind::Caption);
    let is_figure = caption.is_some_and(|caption| doc.plain_text(caption).starts_with(word_for_figures));
    if is_figure { FIGURE } else { kind }
}

impl<'d> Numbers<'d> {
    /// `defines` says whether the document that is written may define environments.
    pub(super) fn of(doc: &'d Document, title: Option<NodeId>, lowered: u8, has_chapters: bool, defines: bool) -> Self {
        let own = super::own_numbers::OwnNumbers::of(doc, lowered);
        let equations = super::equation_numbers::EquationNumbers::of(doc, lowered, &own, has_chapters);
        let mut numbers = Self { entries: super::citations::Entries::of(doc), own, equations, ..Self::default() };
        let mut counts = Counts { levels: [0; 6], floats: [0; FLOATS.len()] };
        let numbered = doc.metadata.presentation.numbered_levels.unwrap_or(0);
        numbers.linked = linked(doc);
        let mut slugs = HashMap::default();
        for step in doc.walk_all() {
            let Step::Enter(id) = step else { continue };
            let node = doc.node(id);
            let mut own_id = doc.attributes(id).id.filter(|_| node.has_attributes()).map(|id| doc.text(id));
            if own_id.is_none() && matches!(doc.kind(id), Kind::Heading(_)) {
                // What links to it calls it by its words.
                let slug = crate::slug::unique(&doc.plain_text(id), &mut slugs);
                own_id = numbers.linked.get(&*slug).copied();
                if let Some(name) = own_id {
                    numbers.slugs.insert(id, name);
                }
            }
            numbers.ids.extend(own_id);
            let is_in_heading =
                || doc.ancestors(id).take(50).any(|above| above != id && matches!(doc.kind(above), Kind::Heading(_)));
            let has_caption = || doc.children(id).any(|child| doc.kind(child) == Kind::Caption);
            let is_labelled = match doc.kind(id) {
                Kind::Heading(_) => Some(id) != title && !super::blocks::is_hollow(doc, id),
                Kind::Figure | Kind::Table => has_caption(),
                _ => own_id.is_some() && is_in_heading(),
            };
            if is_labelled {
                numbers.labelled.extend(own_id);
            }
            match doc.kind(id) {
                // Equations have their labels in their source.
                Kind::Math(formula) if doc.formula(formula).notation == Markup::Tex => {
                    for piece in doc.text(doc.formula(formula).source).split("\\label{").skip(1) {
                        let label = piece.split('}').next().unwrap_or_default();
                        numbers.ids.insert(label);
                        numbers.labelled.insert(label);
                    }
                }
                Kind::Heading(_) if numbers.own.of.contains_key(&id) => {
                    if let (Some(own_id), Some(number)) = (own_id, numbers.own.of.get(&id)) {
                        numbers.of.insert(own_id, (number.clone(), "section"));
                    }
                }
                Kind::Heading(level)
                    if Some(id) != title && level.saturating_sub(lowered) <= numbered && !is_unnumbered(doc, id) =>
                {
                    let number = counts.heading(level.saturating_sub(lowered).clamp(1, 6));
                    if has_chapters && level.saturating_sub(lowered) == 1 {
                        (counts.floats[FIGURE], counts.floats[TABLE]) = (0, 0);
                    }
                    if let Some(own_id) = own_id {
                        numbers.of.insert(own_id, (number, "section"));
                    }
                }
                Kind::Figure => numbers.find_parts(doc, id),
                Kind::Caption => numbers.caption(doc, id, &mut counts, has_chapters, defines),
                _ => {}
            }
        }
        numbers
    }

    /// Notes the parts of a figure that has a caption and stands in no other.
    fn find_parts(&mut self, doc: &Document, figure: NodeId) {
        let is_inner = doc.node(figure).parent().is_some_and(|above| doc.kind(above) == Kind::Figure);
        if !is_inner && caption_of(doc, figure).is_some() {
            let parts: Vec<NodeId> = parts_of(doc, figure).map(|(part, _)| part).collect();
            self.parts.extend(parts.iter().map(|part| (*part, parts.len())));
        }
    }

    /// Counts the float that a caption belongs to, where the caption begins with that number.
    fn caption(&mut self, doc: &'d Document, id: NodeId, counts: &mut Counts, has_chapters: bool, defines: bool) {
        let Some(holder) = doc.node(id).parent().filter(|holder| !self.parts.contains_key(holder)) else { return };
        let language = doc.metadata.language.as_deref().unwrap_or_default();
        let word = super::super::words::caption_word(language, doc.kind(holder) == Kind::Table);
        let kind = kind_of_float(doc, holder, word);
        let is_of_class = matches!(kind, FIGURE | TABLE);
        if !is_of_class && !defines {
            return;
        }
        let word = match kind {
            ALGORITHM => "Algorithm",
            LISTING => "Listing",
            _ => word,
        };
        let count = counts.floats[kind] + 1;
        let chapter = counts.levels[0];
        let number = if has_chapters && chapter > 0 && is_of_class { format!("{chapter}.{count}") } else { count.to_string() };
        let Some((length, look)) = label_of(doc, id, word, &number, self.looks[kind].as_ref()) else { return };
        counts.floats[kind] = count;
        let number = if look.is_roman { numeral(count.into(), Marker::UpperRoman) } else { number };
        self.looks[kind] = Some(look);
        self.captions.insert(id, length);
        if !is_of_class {
            self.floats.insert(holder, kind);
        }
        let has_parts = doc.kind(holder) == Kind::Figure && caption_of(doc, holder) == Some(id);
        for (place, (part, caption)) in (1..).zip(parts_of(doc, holder)).take_while(|_| has_parts) {
            let letter = numeral(place, Marker::LowerAlpha);
            let Some(length) = letter_of(doc, caption, &letter) else { continue };
            self.captions.insert(caption, length);
            if let Some(part_id) = doc.attributes(part).id.map(|id| doc.text(id)) {
                self.of.insert(part_id, (format!("{number}{letter}"), ""));
                self.letters.insert(part_id, letter);
            }
        }
        if let Some(holder_id) = doc.attributes(holder).id {
            self.of.insert(doc.text(holder_id), (number, word));
        }
    }

    /// Notes the number of a theorem; the word before it is not for the engine to make.
    pub(super) fn name_theorem(&mut self, id: &'d str, number: &str) {
        if !number.is_empty() {
            self.of.insert(id, (number.to_owned(), ""));
        }
        self.labelled.insert(id);
    }

    /// What captions are called and what stands behind their numbers, where that is not as usual.
    pub(super) fn settings_of_captions(&self, doc: &Document) -> Vec<String> {
        let is_french = doc.metadata.language.as_deref().is_some_and(|language| language.starts_with("fr"));
        let usual = if is_french { "endash" } else { "colon" };
        let mut out = Vec::new();
        for (look, kind) in self.looks.iter().zip(FLOATS).take(ALGORITHM) {
            let Some(look) = look else { continue };
            let word = look.word.as_ref().map(|word| format!("name={word}"));
            let separator = look.separator.filter(|separator| *separator != usual).map(|name| format!("labelsep={name}"));
            let settings: Vec<String> = word.into_iter().chain(separator).collect();
            if !settings.is_empty() {
                out.push(format!("\\captionsetup[{kind}]{{{}}}", settings.join(", ")));
            }
        }
        out
    }

    /// Defines the floats that classes lack (the documentation of float).
    pub(super) fn definitions_of_floats(&self) -> Vec<String> {
        let kinds = self.looks.iter().zip(FLOATS).enumerate().skip(ALGORITHM);
        let mut out = Vec::new();
        for (kind, (look, name)) in kinds {
            let Some(look) = look else { continue };
            let word = look.word.as_deref().unwrap_or(if kind == ALGORITHM { "Algorithm" } else { "Listing" });
            out.push(format!("\\newfloat{{{name}}}{{htbp}}{{lo{name}}}\n\\floatname{{{name}}}{{{word}}}"));
        }
        out
    }

    /// The number of what has an id, and the word before it.
    pub(super) fn of_id(&self, id: &str) -> Option<(&str, &'static str)> {
        self.of.get(id).map(|(number, word)| (number.as_str(), *word))
    }
}

/// The caption of a figure.
fn caption_of(doc: &Document, figure: NodeId) -> Option<NodeId> {
    doc.children(figure).find(|&child| doc.kind(child) == Kind::Caption)
}

/// Figures with captions that stand right in a figure, with these.
fn parts_of(doc: &Document, figure: NodeId) -> impl Iterator<Item = (NodeId, NodeId)> {
    let parts = doc.children(figure).filter(|&child| doc.kind(child) == Kind::Figure);
    parts.filter_map(|part| Some((part, caption_of(doc, part)?)))
}

/// How long the letter in parentheses is that the caption of a part begins with.
fn letter_of(doc: &Document, caption: NodeId, letter: &str) -> Option<usize> {
    let first = doc.node(caption).first_child()?;
    let Kind::Text(text) = doc.kind(first) else { return None };
    let text = doc.text(text);
    let rest = text.strip_prefix('(')?.strip_prefix(letter)?.strip_prefix(')')?;
    let behind = rest.trim_start_matches([' ', '\u{A0}']);
    (behind.len() < rest.len() || rest.is_empty()).then_some(text.len() - behind.len())
}

/// Whether a heading is marked as one without a number.
pub(super) fn is_unnumbered(doc: &Document, id: NodeId) -> bool {
    doc.is_of_class(id, "unnumbered")
}

/// The number that the words of a part begin with: its first text, and how long that is.
pub(super) fn number_of_part(doc: &Document, heading: NodeId) -> Option<(NodeId, usize)> {
    let first = doc.node(heading).first_child()?;
    let Kind::Text(text) = doc.kind(first) else { return None };
    if !doc.is_of_class(heading, "part") {
        return None;
    }
    let number = doc.text(text).split(' ').next().unwrap_or_default();
    let is_roman = !number.is_empty() && number.bytes().all(|byte| b"IVXLCDM".contains(&byte));
    is_roman.then_some((first, number.len()))
}

/// The ids that links lead to.
fn linked(doc: &Document) -> HashSet<&str> {
    let target = |step: Step| match step {
        Step::Enter(id) => match doc.kind(id) {
            Kind::Link { href } => doc.text(href).strip_prefix('#'),
            _ => None,
        },
        Step::Leave(_) => None,
    };
    doc.walk_all().filter_map(target).collect()
}

struct Counts {
    levels: [u32; 6],
    /// By their kinds.
    floats: [u32; FLOATS.len()],
}

impl Counts {
    fn heading(&mut self, level: u8) -> String {
        let at = usize::from(level) - 1;
        self.levels[at] += 1;
        self.levels[at + 1..].fill(0);
        let first = self.levels.iter().position(|count| *count > 0).unwrap_or(0);
        self.levels[first..=at].iter().map(u32::to_string).collect::<Vec<_>>().join(".")
    }
}

/// What captions begin with: the word, the number, and what parts these from the rest.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct CaptionLook {
    /// The word, where it is another than the usual one.
    pub(super) word: Option<String>,
    pub(super) is_roman: bool,
    /// What parts the label from the text, by the name that the package for captions has for it; nothing where no text has shown it.
    pub(super) separator: Option<&'static str>,
}

/// How long the word and the number are that a caption begins with, with what parts them from the rest; and what they look like, which
/// is what those before it look like.
fn label_of(
    doc: &Document,
    caption: NodeId,
    usual: &str,
    number: &str,
    known: Option<&CaptionLook>,
) -> Option<(usize, CaptionLook)> {
    const LONGEST_WORD: usize = 24;
    let first = doc.node(caption).first_child()?;
    let Kind::Text(text) = doc.kind(first) else { return None };
    let text = doc.text(text);
    let (word, rest) = text.split_at(text.find(['\u{A0}', ' '])?);
    // Another word is one where the space behind it does not break.
    let is_word = rest.starts_with('\u{A0}')
        && word.len() <= LONGEST_WORD
        && word.chars().all(|c| c.is_alphabetic() || c == '.')
        && word.starts_with(char::is_alphabetic);
    if word != usual && !is_word {
        return None;
    }
    let rest = rest.trim_start_matches(['\u{A0}', ' ']);
    let roman = number.parse().map(|number| numeral(number, Marker::UpperRoman)).unwrap_or_default();
    let is_roman = !rest.starts_with(number) && !roman.is_empty() && rest.starts_with(&roman);
    let rest =
        rest.strip_prefix(if is_roman { &roman } else { number }).filter(|rest| !rest.starts_with(char::is_alphanumeric))?;
    let spaces = [' ', '\u{A0}'];
    let (separator, behind) = if rest.is_empty() && doc.node(first).next().is_none() {
        (None, rest)
    } else if let Some(behind) = rest.strip_prefix(" \u{2013} ") {
        (Some("endash"), behind)
    } else if let Some(behind) = rest.strip_prefix(':').filter(|rest| rest.is_empty() || rest.starts_with(spaces)) {
        (Some("colon"), behind.trim_start_matches(spaces))
    } else if let Some(behind) = rest.strip_prefix('.').filter(|rest| rest.is_empty() || rest.starts_with(spaces)) {
        (Some("period"), behind.trim_start_matches(spaces))
    } else if let Some(behind) = rest.strip_prefix(' ').filter(|_| is_word) {
        (Some("space"), behind)
    } else {
        return None;
    };
    let look = CaptionLook { word: (word != usual).then(|| word.to_owned()), is_roman, separator };
    let look = match known {
        None => look,
        Some(known) => {
            let is_same = known.word == look.word && known.is_roman == look.is_roman;
            let separators = (known.separator, look.separator);
            if !is_same || matches!(separators, (Some(one), Some(other)) if one != other) {
                return None;
            }
            CaptionLook { separator: known.separator.or(look.separator), ..look }
        }
    };
    Some((text.len() - behind.len(), look))
}
