//! What a document defines beside commands and environments: theorems, terms, keywords, floats, code.

use super::{algorithms, boxes, formulas, glossary, lists, theorems};
use crate::fast_hash::{HashMap, HashSet};

/// What a document defines beside commands and environments.
#[derive(Debug, Default)]
pub(super) struct Definitions {
    pub(super) theorems: HashMap<String, theorems::Theorem>,
    /// What `\graphicspath` names.
    pub(super) picture_folders: Vec<String>,
    pub(super) glossary: glossary::Glossary,
    /// Words of algorithms by the commands for them, and the lines of algorithms that are read.
    pub(super) keywords: HashMap<String, algorithms::Keyword>,
    pub(super) lines: Vec<algorithms::Lines>,
    /// Whether lines within lines of algorithms stand in braces, once that was looked for.
    pub(super) lines_in_braces: Option<bool>,
    /// Environments that are comments, and whether these are shown.
    pub(super) comments: HashMap<String, bool>,
    /// Environments that begin behind their last ends.
    pub(super) endless: HashSet<String>,
    /// Environments whose text is code.
    pub(super) code: HashSet<String>,
    /// Characters that begin and end code in text.
    pub(super) code_marks: Vec<char>,
    /// Whom a course of life is about.
    pub(super) person: super::curriculum::Person,
    /// Files that the document writes itself.
    pub(super) files: HashMap<String, String>,
    /// Environments that are floats, and the words for them.
    pub(super) floats: HashMap<String, String>,
    /// Environments that are lists.
    pub(super) lists: HashMap<String, lists::OwnList>,
    /// How equations are counted.
    pub(super) equations: formulas::Equations,
    /// Kinds of columns.
    pub(super) columns: super::columns::OwnColumns,
    /// Files of data that were read, by what the document calls them.
    pub(super) data: HashMap<String, super::data::Data>,
    /// Environments that are boxes.
    pub(super) boxes: HashMap<String, boxes::OwnBox>,
    /// The file that the next drawing is also in.
    pub(super) drawing_file: Option<String>,
}
