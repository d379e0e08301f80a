//! Lines that head what follows: chapters, underlined lines, titles.

/// What a line heads.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Head {
    /// A part, which holds chapters.
    Part,
    Chapter,
}

/// Words that a chapter or a part begins with, in the languages that manuscripts mostly come in.
const CHAPTERS: [&str; 14] = [
    "chapter",
    "kapitel",
    "chapitre",
    "cap\u{ED}tulo",
    "capitolo",
    "hoofdstuk",
    "rozdzia\u{142}",
    "kapitola",
    "\u{433}\u{43B}\u{430}\u{432}\u{430}",
    "luku",
    "fejezet",
    "letter",
    "act",
    "scene",
];
const PARTS: [&str; 9] = [
    "part",
    "book",
    "teil",
    "partie",
    "parte",
    "deel",
    "cz\u{119}\u{15B}\u{107}",
    "\u{447}\u{430}\u{441}\u{442}\u{44C}",
    "volume",
];
/// Chapters that have a name instead of a number.
const ALONE: [&str; 12] = [
    "prologue",
    "epilogue",
    "prolog",
    "epilog",
    "preface",
    "foreword",
    "afterword",
    "introduction",
    "vorwort",
    "nachwort",
    "acknowledgements",
    "acknowledgments",
];
const NUMBERS: [&str; 30] = [
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
    "twenty",
    "thirty",
    "forty",
    "fifty",
    "the",
    "first",
    "second",
    "third",
    "fourth",
    "last",
    "eins",
];

/// Whether a line is the heading of a chapter or of a part.
pub(super) fn chapter(line: &str) -> Option<Head> {
    if line.chars().count() > 80 {
        return None;
    }
    let lower = line.to_lowercase();
    let mut words = lower
        .split(|c: char| c.is_whitespace() || matches!(c, ':' | '.' | '-' | '\u{2014}' | '\u{2013}'))
        .filter(|word| !word.is_empty());
    let first = words.next()?;
    if ALONE.contains(&first) && words.next().is_none() {
        return Some(Head::Chapter);
    }
    // The ideographs for "number ... chapter".
    if lower.starts_with('\u{7B2C}')
        && lower.chars().take(8).any(|c| matches!(c, '\u{7AE0}' | '\u{56DE}' | '\u{8BDD}' | '\u{8A71}'))
    {
        return Some(Head::Chapter);
    }
    let head = if CHAPTERS.contains(&first) {
        Head::Chapter
    } else if PARTS.contains(&first) {
        Head::Part
    } else {
        return None;
    };
    let number = lower.split(|c: char| !c.is_alphanumeric()).filter(|word| !word.is_empty()).nth(1)?;
    let is_roman = number.chars().all(|c| matches!(c, 'i' | 'v' | 'x' | 'l' | 'c'));
    let is_number = number.chars().all(|c| c.is_ascii_digit()) || is_roman || NUMBERS.contains(&number);
    // In a sentence, the line would begin with a capital and go on in small letters to a full stop.
    let sentence = line.ends_with(['.', ',', ';']) && line.split_whitespace().count() > 3;
    let titled = line.chars().next().is_some_and(|c| !c.is_lowercase());
    (is_number && titled && !sentence).then_some(head)
}

/// The level of a line that underlines the one above it: 1 for a double line, 2 for a single one.
pub(super) fn underline(line: &str, width_above: usize) -> Option<u8> {
    let first = line.chars().next()?;
    let level = match first {
        '=' => 1,
        '-' | '~' | '_' | '\u{2500}' => 2,
        _ => return None,
    };
    let length = line.chars().count();
    let fits = length >= 3 && length + 3 >= width_above && length <= width_above + 12;
    (fits && width_above > 0 && line.chars().all(|c| c == first)).then_some(level)
}

/// Whether a line reads like a title: short, without a full stop, in capitals or with most of its words capitalised.
pub(super) fn title(line: &str) -> bool {
    let words: Vec<&str> =
        line.split_whitespace().filter(|word| word.chars().filter(|c| c.is_alphabetic()).count() > 3).collect();
    let all: usize = line.split_whitespace().count();
    let capital = |word: &str| word.chars().find(|c| c.is_alphabetic()).is_some_and(|c| !c.is_lowercase());
    let capitals = words.iter().filter(|word| capital(word)).count();
    all > 0
        && capital(line)
        && !line.contains('@')
        && !line.contains("://")
        && all <= 12
        && line.chars().count() <= 80
        && !line.ends_with(['.', ',', ';', ':', '?'])
        && (words.is_empty() || capitals * 3 >= words.len() * 2)
}

/// Whether a line is a field of a mail's head, such as `Subject: Tides` (RFC 5322, section 2.2).
pub(super) fn mail_field(line: &str) -> bool {
    line.split_once(": ").is_some_and(|(name, _)| {
        !name.is_empty()
            && name.starts_with(|c: char| c.is_ascii_uppercase())
            && name.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-')
    })
}

/// The author that a line names.
pub(super) fn author(line: &str) -> Option<&str> {
    let beginnings = ["by ", "By ", "BY ", "von ", "Von ", "par ", "Par ", "di ", "de ", "av "];
    let name = beginnings.iter().find_map(|beginning| line.strip_prefix(beginning))?.trim();
    let words = name.split_whitespace().count();
    let capital = name.chars().next().is_some_and(char::is_uppercase);
    ((1..=6).contains(&words) && capital && !name.ends_with('.')).then_some(name)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn headings_of_chapters() {
        for line in
            ["CHAPTER ONE", "Chapter 12: Fog", "Kapitel IV", "Prologue", "Chapter the First", "\u{7B2C}\u{4E00}\u{7AE0} \u{6F6E}"]
        {
            assert_eq!(chapter(line), Some(Head::Chapter), "{line}");
        }
        assert_eq!(chapter("PART TWO"), Some(Head::Part));
        for line in [
            "Chapter and verse were quoted.",
            "chapter one was short",
            "Part of it was lost",
            "Book a boat",
            "Act now",
            "Chapter one was the longest of all.",
        ] {
            assert_eq!(chapter(line), None, "{line}");
        }
    }

    #[test]
    fn lines_below_titles() {
        assert_eq!(underline("======", 6), Some(1));
        assert_eq!(underline("-----", 6), Some(2));
        assert_eq!(underline("---", 40), None);
        assert!(title("The Keeper's Log") && !title("It came in on the ebb, as it does in March") && !title("Low water."));
        assert_eq!(author("by Anwen Pask"), Some("Anwen Pask"));
        assert_eq!(author("by and by it rained"), None);
    }
}
