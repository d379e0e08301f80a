//! Names that files may have on any system and any server.

/// Extensions of what some servers run wherever they stand in a name, as in `x.php.png`.
const IN_ANY_PART: [&str; 13] =
    ["php", "php2", "php3", "php4", "php5", "php6", "php7", "php8", "phps", "pht", "phtml", "phar", "phpt"];

/// Whether a part of a name between dots makes a server run it that looks at all parts.
pub(crate) fn has_running_part(name: &str) -> bool {
    name.split('.').skip(1).any(|part| IN_ANY_PART.contains(&part.to_ascii_lowercase().as_str()))
}

/// A name of a file has no more bytes than this; systems take 255, and what is written aside needs some.
pub(crate) const LONGEST_NAME: usize = 200;

/// The name of a picture, without its extension, as files may have it anywhere: no folder, no dots at its ends, and none within
/// that make an extension which servers run; not too long.
pub(crate) fn plain_stem(stem: &str) -> String {
    let is_odd = |c: char| c.is_control() || matches!(c, '/' | '\\' | ':' | '*' | '?' | '"' | '<' | '>' | '|');
    let mut plain: String = stem.chars().map(|c| if is_odd(c) { '-' } else { c }).collect();
    if has_running_part(&plain) {
        plain = plain.replace('.', "-");
    }
    let plain = shortened(plain.trim_matches(['.', ' ']), LONGEST_NAME);
    if plain.is_empty() { "picture".to_owned() } else { plain.to_owned() }
}

/// The beginning of a text that has so many bytes at most.
pub(crate) fn shortened(text: &str, most: usize) -> &str {
    let end = (0..=most.min(text.len())).rev().find(|&end| text.is_char_boundary(end)).unwrap_or(0);
    &text[..end]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nothing_in_a_name_is_a_folder_or_run_by_servers() {
        for (stem, expected) in [
            ("a", "a"),
            ("fig.1", "fig.1"),
            ("x.php", "x-php"),
            (".htaccess", "htaccess"),
            ("../../a", "-..-a"),
            ("a\\b:c\n", "a-b-c-"),
            ("", "picture"),
            ("..", "picture"),
        ] {
            assert_eq!(plain_stem(stem), expected, "{stem}");
        }
        assert_eq!(plain_stem(&"\u{6F6E}".repeat(300)).len(), 198);
    }
}
