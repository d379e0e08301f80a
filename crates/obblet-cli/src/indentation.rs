//! Text that an editor hands over from the middle of a file: its indentation is taken off, and put on the result.

/// The white space that all lines with text begin with.
pub(crate) fn common(text: &str) -> String {
    let mut common: Option<&str> = None;
    for line in text.lines().filter(|line| !line.trim().is_empty()) {
        let white = &line[..line.len() - line.trim_start_matches([' ', '\t']).len()];
        let shared = common.map_or(white.len(), |known| known.bytes().zip(white.bytes()).take_while(|(a, b)| a == b).count());
        common = Some(&white[..shared]);
    }
    common.unwrap_or_default().to_owned()
}

/// Whether Markdown makes code of what is indented so: by four columns.
pub(crate) fn is_code(indentation: &str) -> bool {
    indentation.contains('\t') || indentation.len() >= 4
}

/// The text without that white space.
pub(crate) fn remove(text: &str, indentation: &str) -> String {
    text.split_inclusive('\n')
        .map(|line| line.strip_prefix(indentation).unwrap_or_else(|| line.trim_start_matches([' ', '\t'])))
        .collect()
}

/// Markup with that white space before each line, but for lines within preformatted text, where it would be content.
pub(crate) fn add(markup: &str, indentation: &str) -> String {
    let mut out = String::with_capacity(markup.len() + markup.len() / 16);
    let mut preformatted = false;
    for line in markup.split_inclusive('\n') {
        if !preformatted && !line.trim().is_empty() {
            out.push_str(indentation);
        }
        out.push_str(line);
        let (opened, closed) = (line.rfind("<pre"), line.rfind("</pre>"));
        if opened.is_some() || closed.is_some() {
            preformatted = opened > closed;
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn indentation_goes_off_and_on_again() {
        let text = "\t  # A\n\n\t  b\n\t    c\n";
        assert_eq!(common(text), "\t  ");
        assert_eq!(remove(text, "\t  "), "# A\n\nb\n  c\n");
        assert_eq!(
            add("<p>a</p>\n<pre><code>b\nc\n</code></pre>\n<p>d</p>\n", "  "),
            "  <p>a</p>\n  <pre><code>b\nc\n</code></pre>\n  <p>d</p>\n"
        );
    }
}
