//! Notes: parts of their own, whose notes the text refers to by number (ECMA-376, part 1, sections 17.11 and 17.13.4).

/// What a note is to the program.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum NoteKind {
    Footnote,
    Endnote,
    Comment,
}

impl NoteKind {
    pub(in crate::formats::word) const ALL: [Self; 3] = [Self::Footnote, Self::Endnote, Self::Comment];

    /// The relation that leads to the part of such notes, and the name of its root.
    pub(in crate::formats::word) const fn part(self) -> &'static str {
        match self {
            Self::Footnote => "footnotes",
            Self::Endnote => "endnotes",
            Self::Comment => "comments",
        }
    }

    /// The kind of a note, by the local name of its element.
    pub(in crate::formats::word) fn of_note(local: &[u8]) -> Option<Self> {
        match local {
            b"footnote" => Some(Self::Footnote),
            b"endnote" => Some(Self::Endnote),
            b"comment" => Some(Self::Comment),
            _ => None,
        }
    }

    /// The kind of the note that a mark refers to, by the local name of its element.
    pub(in crate::formats::word) fn of_reference(local: &[u8]) -> Option<Self> {
        Self::of_note(local.strip_suffix(b"Reference")?)
    }

    /// The element of a note.
    pub(in crate::formats::word) const fn element(self) -> &'static str {
        match self {
            Self::Footnote => "w:footnote",
            Self::Endnote => "w:endnote",
            Self::Comment => "w:comment",
        }
    }

    /// The styles of its text and of its mark.
    pub(in crate::formats::word) const fn styles(self) -> [&'static str; 2] {
        match self {
            Self::Footnote => ["FootnoteText", "FootnoteReference"],
            Self::Endnote => ["EndnoteText", "EndnoteReference"],
            Self::Comment => ["CommentText", "CommentReference"],
        }
    }

    /// The element of a mark in the text.
    pub(in crate::formats::word) const fn reference(self) -> &'static str {
        match self {
            Self::Footnote => "w:footnoteReference",
            Self::Endnote => "w:endnoteReference",
            Self::Comment => "w:commentReference",
        }
    }
}
